"""Correcting a mixed batch after a taste: always by adding, never by taking out, with what each addition does.

To bring a quality q of M grams to q' with something that holds a of it: m = M (q' - q) / (a - q').
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction

from ravska_core.blend import (
    DRY_KINDS,
    QUALITIES,
    Blend,
    Line,
    heat_scale,
    heat_scoville,
    part_qualities,
    parts_of,
)
from ravska_core.catalogue import catalogue
from ravska_core.working import BadInput, Figure, Step, figure, in_range, say

STEPS: Mapping[str, float] = {"a little": 0.1, "clearly": 0.2, "a lot": 0.4}
"""How far a taste asks to go, relative to what there is (common practice, no source)."""


@dataclass(frozen=True)
class Taste:
    """What a cook says after tasting: which quality is off, which way, and what usually covers it instead."""

    key: str
    says: str
    quality: str
    up: bool
    dry: tuple[str, ...]
    wet: tuple[str, ...]
    cover: tuple[str, ...] = ()


TASTES: dict[str, Taste] = {
    taste.key: taste
    for taste in (
        Taste("needs-salt", "needs salt", "salt", True, ("kosher-dense/flake", "table-salt/fine"),
              ("table-salt/fine", "soy-sauce/liquid")),
        Taste("too-salty", "too salty", "salt", False, ("paprika/powder", "brown-sugar/unpacked"),
              ("water/liquid", "vegetable-oil/liquid")),
        Taste("needs-sweetness", "needs sweetness", "sugar", True, ("brown-sugar/unpacked", "white-sugar/granulated"),
              ("honey/liquid", "white-sugar/granulated")),
        Taste("too-sweet", "too sweet", "sugar", False, ("paprika/powder", "black-pepper/ground"), ("water/liquid",),
              ("lemon-juice/liquid",)),
        Taste("needs-sharpness", "needs sharpness", "sour", True, ("sumac/coarse", "citric-acid/granulated"),
              ("cider-vinegar/liquid", "lemon-juice/liquid")),
        Taste("too-sharp", "too sharp", "sour", False, ("brown-sugar/unpacked",),
              ("water/liquid", "vegetable-oil/liquid"), ("honey/liquid",)),
        Taste("needs-heat", "needs heat", "heat", True, ("cayenne/powder", "chilli-flakes/coarse"),
              ("hot-sauce/liquid", "cayenne/powder")),
        Taste("too-hot", "too hot", "heat", False, ("paprika/powder", "brown-sugar/unpacked"),
              ("water/liquid", "yoghurt/liquid"), ("honey/liquid",)),
        Taste("needs-depth", "tastes flat", "savoury", True, ("shiitake-powder/powder", "msg/granulated"),
              ("soy-sauce/liquid", "miso/paste")),
        Taste("needs-smoke", "needs smoke", "smoke", True, ("paprika-smoked/powder", "smoked-salt/coarse"),
              ("paprika-smoked/powder", "liquid-smoke/liquid")),
        Taste("too-smoky", "too smoky", "smoke", False, ("paprika/powder",), ("water/liquid",)),
    )
}  # fmt: skip

_FROM_NOTHING: Mapping[str, float] = {"salt": 1.0, "sugar": 2.0, "sour": 0.3, "heat": 1.5, "savoury": 0.1, "smoke": 0.3}
"""Where a blend that holds none of something is brought to by "clearly"; heat on its scale of 10 (estimates)."""

_MOST_SHARE = 3.0
"""A correction that weighs more than this many times the batch is none."""


@dataclass(frozen=True)
class Change:
    """A quality before and after a correction, on its scale."""

    key: str
    label: str
    unit: str
    before: float
    after: float


@dataclass(frozen=True)
class Correction:
    """One way to put a taste right: what to add [g], why, and what that makes of everything else."""

    says: str
    why: str
    adds: tuple[tuple[str, float], ...]
    lines: tuple[tuple[int, float], ...]
    total_g: float
    changes: tuple[Change, ...]
    figure: Figure


def _felt(quality: str, value: float) -> float:
    return heat_scale(value) if quality == "heat" else value


def _goal(taste: Taste, now: float, strength: float) -> float:
    """Return where a quality is brought to; heat goes by how it is felt."""
    felt = _felt(taste.quality, now)
    if taste.up and felt < _FROM_NOTHING[taste.quality] * strength:
        goal = _FROM_NOTHING[taste.quality] * strength / STEPS["clearly"]
    else:
        goal = felt * (1 + strength if taste.up else 1 - strength)
    return heat_scoville(min(goal, 10.0)) if taste.quality == "heat" else goal


def corrections(
    blend: Blend,
    masses_g: Sequence[float],
    taste_key: str,
    strength: str = "clearly",
    prices: Mapping[str, float] | None = None,
) -> tuple[Correction, ...]:
    """Determine what can be added to a mixed batch to put a taste right, and what each does to the rest.

    Parameters
    ----------
    blend : Blend
        What the batch was mixed as; its lines name what is in the bowl.
    masses_g : sequence
        What is in the bowl of every line [g].
    taste_key, strength : str
        One of `TASTES`, one of `STEPS`.

    Raises
    ------
    BadInput
        At ``taste`` or ``strength`` for a word that is none, and when there is nothing to correct.
    """
    taste = TASTES.get(taste_key)
    if taste is None:
        raise BadInput("taste", f"Say what it tastes like: {', '.join(t.says for t in TASTES.values())}.")
    if strength not in STEPS:
        raise BadInput("strength", f"Say by how much: {', '.join(STEPS)}.")
    total = sum(masses_g)
    in_range("weighed", total, 0.5, 50_000, "There is nothing in the bowl to correct yet.")
    known = catalogue()
    parts = parts_of(blend.lines)
    columns = [part_qualities(part, prices) for part in parts]
    keys = list(QUALITIES)
    at = keys.index(taste.quality)
    now = [sum(m * c[i] for m, c in zip(masses_g, columns, strict=True)) / total for i in range(len(keys))]
    if not taste.up and now[at] <= 1e-9:
        raise BadInput("taste", f"There is no {QUALITIES[taste.quality].label.lower()} in it to be too much of.")
    goal = _goal(taste, now[at], STEPS[strength])

    def made(
        says: str, why: str, adds: Sequence[tuple[str, float]], lines: Sequence[tuple[int, float]], of: Sequence[float]
    ) -> Correction:
        grams = sum(mass for _, mass in adds) + sum(mass for _, mass in lines)
        after = [(total * now[i] + grams * of[i]) / (total + grams) for i in range(len(keys))]
        changes = tuple(
            Change(
                key, quality.label, "of 10" if key == "heat" else quality.unit, _felt(key, now[i]), _felt(key, after[i])
            )
            for i, (key, quality) in enumerate(QUALITIES.items())
        )
        quality = QUALITIES[taste.quality]
        rule = f"{total:.1f} g × ({say(goal, 4)} − {say(now[at], 4)}) / ({say(of[at], 4)} − {say(goal, 4)})"
        if abs(after[at] - goal) > 1e-6 * max(1.0, abs(goal)):
            rule = f"a twentieth of {total:.1f} g, to cover it"
        steps = (
            Step(f"{quality.label} now", "what was weighed", now[at], quality.unit),
            Step(f"{quality.label} wanted", f"{taste.says}, {strength}", goal, quality.unit, "trade"),
            Step("Add", rule, grams, "g"),
        )
        worked = figure(steps, "±10 %: kinds differ; add half of it, taste, then the rest", spread=0.1)
        return Correction(says, why, tuple(adds), tuple(lines), total + grams, changes, worked)

    found: list[Correction] = []
    own = _own(taste, columns, at, goal, masses_g)
    wet = blend.kind not in DRY_KINDS
    chosen = [key for key in (taste.wet if wet else taste.dry) if key in known.grinds]
    for line in own:
        a = columns[line][at]
        grams = total * (goal - now[at]) / (a - goal)
        if 0 < grams <= total * _MOST_SHARE:
            why = "it is in the blend already" if taste.up else "more of the mildest that is in it"
            found.append(made(f"{grams:.1f} g more {parts[line].name}", why, (), [(line, grams)], columns[line]))
    if not taste.up:
        rest = [i for i, column in enumerate(columns) if masses_g[i] > 0 and column[at] < goal]
        held = sum(masses_g[i] for i in rest)
        if len(rest) > 1 and held:
            mean = [sum(masses_g[i] * columns[i][k] for i in rest) / held for k in range(len(keys))]
            grams = total * (goal - now[at]) / (mean[at] - goal)
            if 0 < grams <= total * _MOST_SHARE:
                lines = [(i, grams * masses_g[i] / held) for i in rest]
                says = f"{grams:.1f} g of everything else, in its own ratio"
                found.append(made(says, "the rest keeps its balance", (), lines, mean))
    names = {line.grind for line in blend.lines}
    for key in chosen:
        if key in names:
            continue
        (part,) = parts_of([Line(key, Fraction(1), "scale")])
        column = part_qualities(part, prices)
        a = column[at]
        if (a - goal) * (goal - now[at]) <= 0:
            continue
        grams = total * (goal - now[at]) / (a - goal)
        if 0 < grams <= total * _MOST_SHARE:
            why = "brings it in" if taste.up else "dilutes it"
            found.append(made(f"{grams:.1f} g {part.name}", why, [(key, grams)], (), column))
    for key in taste.cover if wet else ():
        (part,) = parts_of([Line(key, Fraction(1), "scale")])
        grams = total / 20
        says = f"{grams:.1f} g {part.name}"
        found.append(made(says, "covers it, without taking any out", [(key, grams)], (), part_qualities(part, prices)))
    if not found:
        raise BadInput(
            "taste", "Nothing I know puts that right by adding less than three times the batch; mix a new one."
        )
    return tuple(found)


def _own(
    taste: Taste, columns: Sequence[Sequence[float]], at: int, goal: float, masses_g: Sequence[float]
) -> list[int]:
    """Return the lines of the blend that are strong enough to bring a quality up: the two strongest."""
    if not taste.up:
        return []
    strong = [i for i, column in enumerate(columns) if column[at] > goal * 1.5 and masses_g[i] > 0]
    return sorted(strong, key=lambda i: -columns[i][at])[:2]
