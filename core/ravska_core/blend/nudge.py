"""Nudging a blend: one tap towards a wish, through the lines that carry it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction

from ravska_core.blend.aim import Aimed
from ravska_core.blend.lines import DRY_KINDS, Blend, Line
from ravska_core.blend.parts import check_blend, parts_of, shares
from ravska_core.blend.qualities import QUALITIES, heat_scale, heat_scoville, part_qualities
from ravska_core.blend.ratios import with_shares
from ravska_core.working import BadInput


@dataclass(frozen=True)
class Nudge:
    """A wish in a word: which quality moves, by what factor and step, and which lines carry it.

    Lines with at least `strong` of the quality, and half of what the strongest has, carry it; where none does,
    `brings` is added, dry or wet.
    """

    key: str
    label: str
    what: str
    factor: float
    step: float
    strong: float
    brings: tuple[str, str]


NUDGES: Mapping[str, Nudge] = {
    nudge.key: nudge
    for nudge in (
        Nudge("sweeter", "sweeter", "sugar", 1.15, 1.5, 40.0, ("brown-sugar/unpacked", "honey/liquid")),
        Nudge("less-salt", "less salt", "salt", 0.88, 0.0, 2.0, ("", "")),
        Nudge("hotter", "hotter", "heat", 1.0, 0.4, 1000.0, ("cayenne/powder", "hot-sauce/liquid")),
        Nudge("smokier", "smokier", "smoke", 1.2, 0.3, 3.0, ("paprika-smoked/powder", "liquid-smoke/liquid")),
        Nudge("herbal", "more herbal", "herb", 1.15, 0.3, 4.0, ("thyme/leaf", "oregano/leaf")),
    )
}


def nudge(blend: Blend, towards: str, prices: Mapping[str, float] | None = None) -> Aimed:
    """Move a blend a little towards what was asked for: the lines that carry it grow or shrink together.

    The other free lines make room in their own proportion, as they do when a cook adds to a bowl. A line is
    added where none carries it.

    Raises
    ------
    BadInput
        For an unknown wish, or an empty blend.
    """
    if towards not in NUDGES:
        raise BadInput("towards", f"A nudge is one of {', '.join(NUDGES)}.")
    wish = NUDGES[towards]
    parts = check_blend(blend)
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    lines, today = list(blend.lines), shares(blend.lines, parts)
    at_quality = list(QUALITIES).index(wish.what)
    values = [part_qualities(part, prices)[at_quality] for part in parts]
    free = [value for line, value in zip(lines, values, strict=True) if not line.lock]
    now = sum(share * value for share, value in zip(today, values, strict=True))
    if wish.what == "heat":
        if heat_scale(now) > 9.9:
            return Aimed(blend.lines, False, ("It is as hot as the scale goes already.",), True)
        goal = heat_scoville(min(10.0, heat_scale(now) * wish.factor + wish.step))
    else:
        goal = now * wish.factor + wish.step
    # chilli before pepper: what is less than half as strong as the strongest makes room instead
    free = [value for line, value in zip(lines, values, strict=True) if not line.lock]
    strongest = max(wish.strong, max(free, default=0.0) / 2)
    carries = [not line.lock and value >= strongest for line, value in zip(lines, values, strict=True)]
    moved = _carried(lines, today, values, carries, goal)
    if moved is not None:
        return Aimed(with_shares(lines, parts, moved), True, (), False)
    # none of them can carry it further: what is stronger comes in, wet into what is wet if that will do
    dry = blend.kind in DRY_KINDS or blend.kind == "paste"
    for grind in wish.brings if dry else reversed(wish.brings):
        if not grind or any(line.grind == grind for line in lines):
            continue
        added = Line(grind, Fraction(1), "scale" if all(x.basis == "scale" for x in lines) else "spoon")
        more, known = [*lines, added], [*parts, *parts_of([added])]
        brought = [*values, part_qualities(known[-1], prices)[at_quality]]
        moved = _carried(more, [*today, 0.0], brought, [*(False for _ in today), True], goal)
        if moved is not None:
            return Aimed(with_shares(more, known, moved), True, (), False)
    return Aimed(blend.lines, False, (_why_not(blend, wish, values, carries),), True)


def _carried(
    lines: Sequence[Line], today: Sequence[float], values: Sequence[float], carries: Sequence[bool], goal: float
) -> list[float] | None:
    """Return the shares that reach a goal when what carries it grows or shrinks together; None when they cannot."""
    rows = list(zip(lines, today, values, carries, strict=True))
    carried = sum(share for _, share, _, c in rows if c)
    others = sum(share for line, share, _, c in rows if not c and not line.lock)
    held = sum(share * value for line, share, value, _ in rows if line.lock)
    if others <= 0 or not any(carries):
        return None
    strong = sum(share * value for _, share, value, c in rows if c) / carried if carried else values[-1]
    weak = sum(share * value for line, share, value, c in rows if not c and not line.lock) / others
    if abs(strong - weak) < 1e-12:
        return None
    wanted = (goal - held - (carried + others) * weak) / (strong - weak)
    if not 0 < wanted <= (carried + others) * 0.9:
        return None
    grown, shrunk = (wanted / carried if carried else 0.0), (carried + others - wanted) / others
    return [
        share if line.lock else (share * grown if carried else wanted) if c else share * shrunk
        for line, share, _, c in rows
    ]


def _why_not(blend: Blend, wish: Nudge, values: Sequence[float], carries: Sequence[bool]) -> str:
    """Say why a nudge cannot be."""
    free = [line for line in blend.lines if not line.lock]
    if not any(carries) and not any(value >= wish.strong for value in values):
        return f"There is no {wish.what} in it to take out."
    if not any(carries):
        return "What carries it is locked; unlock it."
    if len(free) < len(blend.lines) and len(free) == sum(carries):
        return "Every other line is locked; unlock one to make room."
    return f"It cannot get {wish.label} without becoming another blend."
