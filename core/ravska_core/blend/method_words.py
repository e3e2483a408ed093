"""Methods in words: steps read and said, reductions and times as people write them, and a kind's usual steps."""

import re
from collections.abc import Sequence
from dataclasses import replace

from ravska_core.blend.method import SOLUBLE, LeafMass, MethodStep, say_share
from ravska_core.measure import parse_duration_s, read_number
from ravska_core.units import say_duration
from ravska_core.working import BadInput

_WORDS = {
    "half": "1/2", "a half": "1/2", "third": "1/3", "a third": "1/3", "one third": "1/3", "two thirds": "2/3",
    "quarter": "1/4", "a quarter": "1/4", "one quarter": "1/4", "three quarters": "3/4", "a fifth": "1/5",
    "a tenth": "1/10",
}  # fmt: skip


def parse_reduction(text: str, field: str = "by") -> float:
    """Read how far a pot is simmered down as the share of its volume that goes.

    ``by a third``, ``by 30 %``, ``1/3`` say what goes; ``to half``, ``to 60 %`` what stays.

    Raises
    ------
    BadInput
        When the text says neither, or all or nothing goes.
    """
    plain = re.sub(r"\s+", " ", text.strip().lower())
    stays = plain.startswith("to ")
    said = re.sub(r"^(down )?(by|to) ", "", plain)
    said = _WORDS.get(said.removesuffix(" of it").replace("-", " "), said)
    percent = said.endswith("%")
    try:
        share = float(read_number(said.removesuffix("%").strip(), field))
    except BadInput:
        raise BadInput(field, "Write how far it goes down, for example by a third, by 30 % or to half.") from None
    if percent or share > 1:
        share /= 100
    gone = 1 - share if stays else share
    if not 0.005 <= gone <= 0.95:
        raise BadInput(field, "It can go down by 0.5 to 95 %; write for example by a third.")
    return gone


def parse_lasts_s(text: str, field: str = "lasts") -> float:
    """Read how long a step lasts [s]; nothing written is 0."""
    return parse_duration_s(text, field) if text else 0.0


def say_step(step: MethodStep, names: Sequence[str]) -> str:
    """Return a step as a sentence that `parse_step` reads back; `names` are those of the blend's lines."""
    of = "; ".join(names[line] for line in step.of if line < len(names))
    minutes = say_duration(step.lasts_s) if step.lasts_s else ""
    if step.do == "note":
        return step.note
    said = {
        "mix": f"Mix in {of}" if of else "Mix everything",
        "grind": f"Grind {of or 'everything'} to {step.to}",
        "strain": f"Strain out {of}" if of else "Strain",
        "simmer": (f"Simmer down by {say_share(step.by)}" if step.by else "Simmer")
        + (f", {minutes}" if minutes else ""),
        "rest": f"Rest {minutes}" if minutes else "Rest",
    }[step.do]
    return f"{said}. {step.note}".strip()


_READS = (
    ("mix", re.compile(r"(?:mix|stir|whisk|combine|blend|add|put|dissolve|place|toss|pour)\b")),
    ("grind", re.compile(r"(?:grind|crush|crack|mill)\b")),
    ("strain", re.compile(r"(?:strain|sieve|filter)\b")),
    ("simmer", re.compile(r"(?:simmer|boil|reduce|cook)\b")),
    ("rest", re.compile(r"(?:rest|leave|let|stand|steep|infuse|chill|cool|cover)\b")),
)

_BY = re.compile(r"(?:down )?\b((?:by|to) (?:about )?(?:half|an? \w+|one \w+|two thirds|three quarters|\d[\d./]* ?%?))")

_LASTS = re.compile(r"(\d[\d.]*(?:\s*(?:-|to)\s*\d+)? ?(?:h|hours?|min(?:utes?)?|days?)\b(?: \d+ ?min\w*)?)")


def parse_step(text: str, names: Sequence[str], grinds: Sequence[str] = ()) -> MethodStep:
    """Read a sentence of a recipe as a step; one that says nothing the method knows is kept as a note.

    Parameters
    ----------
    names : sequence
        Names of the blend's lines; those that the sentence holds are what the step is about.
    grinds : sequence
        Names of grinds that something may be ground to.
    """
    said = re.sub(r"\s+", " ", text).strip()
    plain = said.lower()
    do = next((do for do, pattern in _READS if pattern.match(plain)), "note")
    head, _, tail = said.partition(". ")
    low = head.lower().rstrip(".")
    spans: list[tuple[int, int, int]] = []
    for line, name in sorted(enumerate(names), key=lambda x: -len(x[1])):
        at = low.find(name.lower())
        while at >= 0 and any(start <= at < end for start, end, _ in spans):
            at = low.find(name.lower(), at + 1)
        if at >= 0:
            spans.append((at, at + len(name), line))
    of = tuple(line for _, _, line in sorted(spans))
    if do == "note":
        return MethodStep("note", note=said)
    by = _BY.search(plain)
    lasts = _LASTS.search(plain)
    try:
        lasts_s = parse_lasts_s(re.sub(r"\s*(?:-|to)\s*\d+", "", lasts[1])) if lasts else 0.0
        share = parse_reduction(by[1].replace("about ", "")) if by and do == "simmer" else 0.0
    except BadInput:
        return MethodStep("note", note=said)
    to = next((g for g in grinds if do == "grind" and low.endswith(f" to {g}")), "")
    found = MethodStep(do, of, to, share, lasts_s if do in ("simmer", "rest") else 0.0)
    if do == "grind" and not to:
        return MethodStep("note", note=said)
    if say_step(found, names).rstrip(".").lower() == low:
        return replace(found, note=tail.strip())
    # other words than ours: what it does is understood, and its own words stay beside it
    return replace(found, note=said)


def usual_steps(kind: str, lines: Sequence[Sequence[LeafMass]]) -> tuple[MethodStep, ...]:
    """Return the method such a blend is usually made by (common practice, no source).

    Dry parts go first and oil last, so that the salt dissolves; what goes through a needle is ground and strained;
    a glaze is simmered down.

    Parameters
    ----------
    lines : sequence
        For every line the grinds it holds with their mass shares.
    """

    def share(line: Sequence[LeafMass], what: str) -> float:
        return sum(mass * float(getattr(grind.ingredient, what)) for grind, mass in line)

    fat = [at for at, line in enumerate(lines) if share(line, "fat") > 0.5]
    wet = [at for at, line in enumerate(lines) if at not in fat and share(line, "water") > 0.15]
    dry = [at for at in range(len(lines)) if at not in fat and at not in wet]
    steps: list[MethodStep] = []
    if not wet and not fat:
        return (
            MethodStep("mix", tuple(dry), note="Rub lumps out between your fingers."),
            MethodStep("note", note="Shake before use: the finest grains go to the bottom."),
        )
    soluble = [at for at in dry if any(grind.ingredient.family in SOLUBLE for grind, _ in lines[at])]
    rest = [at for at in dry if at not in soluble]
    if kind in ("injection", "spritz", "cooking liquid", "marinade", "glaze"):
        if wet or soluble:
            steps.append(MethodStep("mix", tuple(wet + soluble), note="Stir until all of it has dissolved."))
        if rest:
            steps.append(MethodStep("mix", tuple(rest)))
        if fat:
            steps.append(MethodStep("mix", tuple(fat), note="Oil goes in last."))
        if kind == "glaze" and wet:
            steps.append(MethodStep("simmer", by=0.25, note="Until it coats a spoon."))
        if kind in ("injection", "spritz"):
            steps.append(MethodStep("strain", note="What stays in the sieve would clog."))
        return tuple(steps)
    if dry:
        steps.append(MethodStep("mix", tuple(dry), note="Dry parts first."))
    if wet:
        steps.append(MethodStep("mix", tuple(wet), note="Stir until the salt has dissolved."))
    if fat:
        steps.append(MethodStep("mix", tuple(fat), note="Oil goes in last."))
    return tuple(steps)
