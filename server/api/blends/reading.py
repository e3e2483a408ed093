"""Blends as they are typed, read into the core and written back as people write."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import cast
from uuid import UUID

from book.mixtures import load_mixtures
from book.models import Blend
from book.models.values import label_of, method_of
from book.unchanged import kept_while_unchanged
from ravska_core.blend import (
    TARGET_LIMITS,
    Bound,
    Label,
    Line,
    Ratio,
    Target,
    check_targets,
    cycle_path,
    estimate,
    exact_parts,
    say_parts,
)
from ravska_core.blend import Blend as CoreBlend
from ravska_core.catalogue import catalogue
from ravska_core.measure import parse_parts
from ravska_core.working import BadInput

from api.blends.documents import (
    Basis,
    BlendDocument,
    LineDocument,
    Lock,
)
from api.plumbing.problems import Gather
from api.plumbing.quantities import ByEye, Parts, Share


@dataclass(frozen=True)
class BlendAsTyped:
    """A blend read from what was typed, with the rows of the blends inside it."""

    blend: CoreBlend
    ratio: Ratio
    targets: tuple[Target, ...]
    bounds: tuple[Bound, ...]
    batch_g: float
    masses_g: tuple[float | None, ...]
    inside: dict[UUID, Blend]
    document: BlendDocument


def _exact(line: LineDocument) -> Fraction:
    """Return the parts of a line: the fraction it stands for where its text is rounded, else what the text says."""
    if not line.exact:
        return line.parts.read("parts")
    above, _, below = line.exact.partition("/")
    if not (above.isdecimal() and (below or "1").isdecimal() and int(below or "1")):
        raise BadInput("exact", "Write the exact parts as a fraction such as 27/10, or leave them out.")
    try:
        return exact_parts(Fraction(int(above), int(below or "1")), 0)
    except BadInput as refusal:
        raise BadInput("parts", refusal.sentence) from None


class _Inside:
    """The blends that lines hold, loaded with all that lies inside them."""

    def __init__(self, wanted: frozenset[UUID]) -> None:
        self.names: dict[UUID, str] = {}
        self._met: dict[UUID, CoreBlend] = {}
        self._uses: dict[UUID, list[UUID]] = {}
        found = list(Blend.objects.filter(pk__in=wanted)) if wanted else []
        self.rows: dict[UUID, Blend] = {row.pk: row for row in found}
        load_mixtures(found)
        for row in self.rows.values():
            self._note(row)

    def _note(self, row: Blend) -> None:
        if row.pk in self._uses:
            return
        self.names[row.pk] = row.name
        inside = [line.inside for line in row.draft().lines.all() if line.inside is not None]
        self._uses[row.pk] = [inner.pk for inner in inside]
        for inner in inside:
            self._note(inner)

    def of(self, key: UUID, own: UUID | None, name: str) -> CoreBlend:
        """Return a blend that a line holds.

        Raises
        ------
        BadInput
            At ``blend`` when it is not in the book, or holds the blend `own` that is being read; the path is named.
        """
        row = self.rows.get(key)
        if row is None:
            raise BadInput("blend", "This blend is not in the book any more; remove the line or choose another.")
        path = cycle_path({**self._uses, own: [key]}, own) if own is not None else []
        if path:
            said = " → ".join(f"“{name if step == own else self.names[step]}”" for step in path)
            raise BadInput("blend", f"A blend cannot hold itself: {said}. Choose another, or unfold it here.")
        return row.as_core(met=self._met)


@kept_while_unchanged
def _inside(wanted: frozenset[UUID]) -> _Inside:
    return _Inside(wanted)


def _estimated(label: Label, lines: Sequence[Line], document: BlendDocument) -> tuple[list[Line], BlendDocument]:
    """Return a bought blend's lines with the shares its label allows, in percent, and the document that says so."""
    known = catalogue().grinds
    grinds = [known[line.grind] for line in lines if line.grind in known and line.blend is None]
    if len(grinds) < len(lines):
        raise BadInput("lines", "A bought blend's label names ingredients; take blends of your own out of it.")
    shares = [found.middle for found in estimate(label, tuple(grinds)).shares]
    parts = [exact_parts(Fraction(max(share * 100, 0.001)), at) for at, share in enumerate(shares)]
    found = [Line(grind.key, part, "scale") for grind, part in zip(grinds, parts, strict=True)]
    written = [
        line.model_copy(
            update={"parts": written_parts(part)[0], "exact": written_parts(part)[1], "basis": "scale",
                    "lock": "", "error": "", "least": "", "most": ""}
        )
        for line, part in zip(document.lines, parts, strict=True)
    ]  # fmt: skip
    return found, document.model_copy(update={"lines": written, "written": "percent", "base": 0, "total": "fixed"})


def read_document(document: BlendDocument, own: UUID | None = None) -> BlendAsTyped:
    """Read what was typed; every field that cannot be read is named.

    Raises
    ------
    Refused
        With a sentence at each such field.
    """
    gather = Gather()
    batch = gather.value("batch", document.batch) or 100.0
    inside = _inside(frozenset(line.blend for line in document.lines if line.blend))
    lines, bounds = [], []
    for at, typed in enumerate(document.lines):
        place = f"lines.{at}"
        parts = gather.attempt(place, _exact, typed)
        within = None
        if typed.blend is not None:
            within = gather.attempt(place, inside.of, typed.blend, own, document.name)
            if typed.grind:
                gather.refuse(f"{place}.grind", "A line holds an ingredient or a blend, not both.")
        elif typed.held:
            gather.refuse(f"{place}.held", "Only a blend has a sieve; choose the blend that was strained.")
        error = (gather.value_if(f"{place}.error", typed.error) or 0.0) / 100
        if parts is not None and (typed.blend is None or within is not None):
            grind = "" if within else typed.grind
            lines.append(Line(grind, parts, typed.basis, typed.lock, within, error, typed.held))
        if typed.least or typed.most:
            low = (gather.value_if(f"{place}.least", typed.least) or 0.0) / 100
            above = gather.value_if(f"{place}.most", typed.most)
            high = 1.0 if above is None else above / 100
            if low > high:
                gather.refuse(f"{place}.most", "At least is above at most; raise this or lower the other.")
            else:
                bounds.append(Bound(at, low, high))
    targets = []
    for at, aimed in enumerate(document.targets):
        most = TARGET_LIMITS.get(aimed.what, 100.0)
        ends = [
            gather.attempt(f"targets.{at}", end.between, side, 0, most, "a target") if end else None
            for side, end in (("low", aimed.low), ("high", aimed.high))
        ]
        targets.append(Target(aimed.what, *ends))
    if len({target.what for target in targets}) < len(targets):
        gather.refuse("targets", "Each scale is aimed at once; take one of the two out.")
    masses = [
        gather.value_if(f"uses.{at}.mass", use.mass) if not use.of else None for at, use in enumerate(document.uses)
    ]
    if document.lines and not 0 <= document.base < len(document.lines):
        gather.refuse("base", "The base line is not there any more; choose another.")
    keys = [line.key() for line in document.lines]
    steps = gather.attempt_or("", (), method_of, [step.model_dump() for step in document.method], keys)
    label = None
    if document.label is not None:
        label = gather.attempt("", label_of, document.label.model_dump())
    gather.finish()
    check_targets(targets)
    if label is not None:
        lines, document = _estimated(label, lines, document)
    blend = CoreBlend(document.kind, tuple(lines), batch, document.name, document.fire, steps, label)
    ratio = Ratio(blend.lines, document.written, document.base if document.lines else 0, document.total)
    return BlendAsTyped(blend, ratio, tuple(targets), tuple(bounds), batch, tuple(masses), inside.rows, document)


def written_lines(lines: Sequence[Line], typed: BlendAsTyped) -> list[LineDocument]:
    """Write lines as people do; a line whose parts stayed keeps the text that was typed."""
    before: dict[tuple[str, UUID | None, bool], tuple[LineDocument, Fraction]] = {}
    for old, line in zip(typed.document.lines, typed.blend.lines, strict=True):
        before.setdefault((old.grind, old.blend, old.held), (old, line.parts))
    found = []
    for line in lines:
        key = (line.grind, UUID(line.blend.key) if line.blend is not None else None, line.held)
        known = before.get(key)
        like = known[0] if known else None
        if known and like and abs(float(line.parts) / float(known[1]) - 1) < 1e-8:
            text, exact = like.parts, like.exact
        else:
            said, exact = written_parts(line.parts)
            text = Parts(said)
        found.append(
            LineDocument.model_construct(
                grind=key[0],
                blend=key[1],
                parts=text,
                exact=exact,
                basis=cast(Basis, line.basis),
                lock=cast(Lock, line.lock),
                least=like.least if like else Share(""),
                most=like.most if like else Share(""),
                error=like.error if like else ByEye(""),
                said=like.said if like else "",
                swap=like.swap if like else "",
                held=key[2],
            )
        )
    return found


def written_parts(parts: Fraction) -> tuple[str, str]:
    """Return parts as people write them, and the exact fraction where that text is rounded."""
    text = say_parts(parts)
    try:
        reads = parse_parts(text) == parts
    except BadInput:
        reads = False
    return text, "" if reads else f"{parts.numerator}/{parts.denominator}"
