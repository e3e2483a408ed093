"""What lines of a blend are parts of: each with its density and its grinds, mixed by spoon and by scale."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

from ravska_core.blend.label import Label
from ravska_core.blend.lines import (
    BASES,
    DEEPEST,
    FIRES,
    HIGHEST_BATCH_G,
    HIGHEST_ERROR,
    KINDS,
    LOCKS,
    LOWEST_BATCH_G,
    MOST_LINES,
    Blend,
    Line,
)
from ravska_core.blend.method import LeafMass, Stuff, check_method, finish, gathered
from ravska_core.blend.volume import solid_share
from ravska_core.catalogue import Grind, catalogue, grind_as_known, while_it_stands
from ravska_core.working import BadInput


@dataclass(frozen=True)
class Part:
    """What a line is made of: its name, level density [g/ml] and the grinds it comes to [mass shares].

    For a blend inside that was strained or simmered down, `strained` are grinds of which only what dissolves is in
    it, and `gone` the water it lost [mass over finished mass]; of what a sieve held back, `spent` are those of which
    only the rest is. `inside` holds the parts of a blend inside with their shares and relative errors, `label` that
    of a bought one.
    """

    name: str
    density_g_ml: float
    density_from: str
    source: str
    leaves: tuple[tuple[Grind, float], ...]
    strained: tuple[tuple[Grind, float], ...] = ()
    gone: float = 0.0
    inside: "tuple[tuple[Part, float, float], ...]" = ()
    label: "Label | None" = None
    spent: tuple[tuple[Grind, float], ...] = ()

    @cached_property
    def _hashed(self) -> int:
        return hash((self.name, self.density_g_ml, self.leaves, self.strained, self.spent, self.gone, self.inside))

    def __hash__(self) -> int:
        # errors are kept by their part: what lies inside is gone through once
        return self._hashed

    @cached_property
    def stuff(self) -> Stuff:
        """What 1 g of it holds."""
        return Stuff(self.leaves, self.strained, self.spent, self.gone)


@while_it_stands(None)
def _part_of_grind(grind: Grind) -> Part:
    return Part(
        grind.said, grind.density_g_ml, f"{grind.portion_g:g} g a level {grind.portion}", grind.source, ((grind, 1.0),)
    )


Met = dict[tuple[Blend, bool], Part]
"""Parts of blends inside that were flattened already: of the blend, or of what its sieve held back."""


@while_it_stands(512)
def _part_inside(blend: Blend, held: bool) -> Part:
    """Return what a line that holds a blend is made of; a screen reads the same ones at every key."""
    return _part_of_blend(blend, 1, {}, held)


def _part_of_blend(blend: Blend, depth: int, met: Met, held: bool) -> Part:
    key = (blend, held)
    if key in met:
        return met[key]
    said = blend.name or "the blend inside"
    if depth > DEEPEST:
        raise BadInput("", f"Blends lie more than {DEEPEST} deep inside each other; unfold one of them.")
    if not blend.lines:
        raise BadInput("", f"“{said}” has nothing in it yet; add to it first, or remove this line.")
    try:
        # one that is met on several ways is flattened once, however often it lies inside others
        inside = _parts(blend.lines, lambda inner, sieved: _part_of_blend(inner, depth + 1, met, sieved))
    except BadInput as refusal:
        raise BadInput("", f"“{said}” cannot be read: {refusal.sentence}") from refusal
    inner = shares(blend.lines, inside)
    mixed = mix(blend, inner, inside)
    met[key] = _part_of_sieve(mixed, said) if held else Part(
        said,
        density_of(blend, mixed),
        mixed.density_from(blend),
        "arithmetic",
        mixed.leaves,
        mixed.strained,
        mixed.gone,
        tuple((part, share, line.mass_error) for part, share, line in zip(inside, inner, blend.lines, strict=True)),
        blend.label,
        mixed.spent,
    )  # fmt: skip
    return met[key]


def _part_of_sieve(mixed: "Mixed", said: str) -> Part:
    """Return what the sieve held back of a blend as a part of its own; it weighs 1 in all."""
    mass = mixed.held.mass
    if mass <= 1e-9:
        raise BadInput("", f"“{said}” is not strained, so no sieve holds anything back; take this line out.")
    held = mixed.held.times(1 / mass)
    density = 1 / held.volume_ml
    return Part(
        f"sieved out of {said}", density, "from what it holds", "estimate", held.leaves, held.steeped, held.gone,
        spent=held.spent,
    )  # fmt: skip


def seen_in(leaves: Sequence[LeafMass], spent: Sequence[LeafMass]) -> tuple[LeafMass, ...]:
    """Return what something is drawn with, clogs with and crumbles into: its grinds, and the solids a sieve kept."""
    return (*leaves, *((grind, mass * solid_share(grind)) for grind, mass in spent))


@dataclass(frozen=True)
class Mixed:
    """What 1 g of a finished blend holds: its grinds, what it lost [g/g], its volume [ml], and its yield.

    `share` is the finished mass over what went in, `after` the mass after each step of the method over what went in;
    `held` is what the sieve held back, over what went in too.
    """

    leaves: tuple[tuple[Grind, float], ...]
    strained: tuple[tuple[Grind, float], ...]
    gone: float
    volume_ml: float
    share: float
    after: tuple[float, ...]
    spent: tuple[tuple[Grind, float], ...] = ()
    held: Stuff = field(default_factory=Stuff)

    def density_from(self, blend: Blend) -> str:
        """Say where its density is from."""
        wet = any(not grind.grain_mm for grind, _ in self.leaves)
        said = "liquids, what dissolves in them, and solids without air" if wet else "its lines' level volumes added up"
        label = blend.label
        return f"{said}, within its label's own spoon" if label and label.portion_ml and not label.by_volume else said


def mix(blend: Blend, inner: Sequence[float], parts: Sequence[Part]) -> Mixed:
    """Determine what a blend's lines come to when they are mixed and its method is followed.

    Parameters
    ----------
    inner : sequence
        Mass share of every line in what goes in.
    parts : sequence
        What the lines are made of.

    Raises
    ------
    BadInput
        At ``method.N.…`` for a step that cannot be done.
    """
    lines = [part.stuff.times(share) for share, part in zip(inner, parts, strict=True)]
    if any(step.do in ("grind", "strain", "simmer") for step in blend.method):
        found = finish(lines, blend.method, catalogue().grinds)
        stuff, held, after = found.stuff, found.held, found.after
    else:
        stuff, held, after = gathered(lines), Stuff(), (1.0,) * len(blend.method)
    mass = stuff.mass
    one = stuff.times(1 / mass)
    return Mixed(one.leaves, one.steeped, one.gone, one.volume_ml, mass, after, one.spent, held)


def density_of(blend: Blend, mixed: Mixed) -> float:
    """Return a finished blend's density [g/ml] from what it holds, within what its label's own spoon allows."""
    density = 1 / mixed.volume_ml
    label = blend.label
    if label is None or not label.portion_ml or label.by_volume:
        return density
    low = (label.portion_g - label.portion_half_g) / label.portion_ml
    high = (label.portion_g + label.portion_half_g) / label.portion_ml
    return min(max(density, low), high)


def parts_of(lines: Sequence[Line]) -> list[Part]:
    """Look up what every line is made of; blends inside are flattened by mass.

    Raises
    ------
    BadInput
        At ``lines.N.grind`` or ``lines.N.blend``: an unknown ingredient, or a blend that is empty or nested too deep.
    """
    return _parts(lines, _part_inside)


def _parts(lines: Sequence[Line], inside: Callable[[Blend, bool], Part]) -> list[Part]:
    known = catalogue()
    found = []
    for at, line in enumerate(lines):
        if line.blend is not None:
            try:
                part = inside(line.blend, line.held)
            except BadInput as refusal:
                raise BadInput(f"lines.{at}.blend", refusal.sentence) from refusal
            found.append(replace(part, density_g_ml=dict(line.known)["density_g_ml"]) if line.known else part)
        elif line.known:
            found.append(_part_of_grind(grind_as_known(line.grind, line.known)))
        elif line.grind in known.grinds:
            found.append(_part_of_grind(known.grinds[line.grind]))
        else:
            raise BadInput(
                f"lines.{at}.grind", "This ingredient is not in the catalogue any more; choose another or remove it."
            )
    return found


def masses(lines: Sequence[Line], parts: Sequence[Part]) -> list[float]:
    """Determine the relative mass of every line: parts x density [g/ml] for spoons, parts for the scale."""
    return [
        float(line.parts) * (part.density_g_ml if line.basis == "spoon" else 1.0)
        for line, part in zip(lines, parts, strict=True)
    ]


def shares(lines: Sequence[Line], parts: Sequence[Part]) -> list[float]:
    """Determine the mass share of every line; they sum to 1 for any blend that has a line."""
    relative = masses(lines, parts)
    total = sum(relative)
    return [mass / total for mass in relative]


def flatten(lines: Sequence[Line]) -> dict[str, float]:
    """Determine the mass share of every grind of a blend, those of blends inside it included."""
    if not lines:
        return {}
    parts = parts_of(lines)
    found: dict[str, float] = {}
    for share, part in zip(shares(lines, parts), parts, strict=True):
        for grind, of in seen_in(part.leaves, part.spent):
            found[grind.key] = found.get(grind.key, 0.0) + share * of
    return found


def check_blend(blend: Blend) -> list[Part]:
    """Refuse a blend that cannot be mixed, with a sentence at the field; return what its lines are made of."""
    if blend.kind not in KINDS:
        raise BadInput("kind", f"“{blend.kind}” is no kind of blend; choose one of {', '.join(KINDS)}.")
    if blend.fire and blend.fire not in FIRES:
        raise BadInput("fire", f"“{blend.fire}” is no fire I know; choose one of {', '.join(FIRES)}.")
    if len(blend.lines) > MOST_LINES:
        raise BadInput("lines", f"A blend holds at most {MOST_LINES} lines; put some of them in a blend of their own.")
    if not LOWEST_BATCH_G <= blend.batch_g <= HIGHEST_BATCH_G:  # also refuses nan
        raise BadInput("batch_g", "A batch lies between 0.5 g and 50 kg; write for example 150.")
    for at, line in enumerate(blend.lines):
        if line.basis not in BASES:
            raise BadInput(f"lines.{at}.basis", "Parts are measured by spoon or by scale; choose one.")
        if line.lock not in LOCKS:
            raise BadInput(f"lines.{at}.lock", "A line is free, holds its share or holds its ratio; choose one.")
        if line.parts <= 0:
            raise BadInput(f"lines.{at}.parts", "0 parts is nothing; write a number above 0, or remove the line.")
        if not 0 <= line.error <= HIGHEST_ERROR:  # also refuses nan
            raise BadInput(f"lines.{at}.error", "An amount by eye is off by at most 90 %; write for example 30.")
    check_method(blend.method, len(blend.lines))
    return parts_of(blend.lines)


def same_mixture(a: Blend, b: Blend) -> bool:
    """Return whether two blends hold the same lines in the same parts, made in the same way; names do not count."""
    if len(a.lines) != len(b.lines) or a.method != b.method or a.label != b.label:
        return False
    for x, y in zip(a.lines, b.lines, strict=True):
        first, second = ((line.grind, line.parts, line.basis, line.error, line.held) for line in (x, y))
        if first != second or (x.blend is None) != (y.blend is None):
            return False
        if x.blend is not None and y.blend is not None and not same_mixture(x.blend, y.blend):
            return False
    return True
