"""Nudging a blend: one tap towards a wish, through the lines that carry it."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

from ravska_core.balance import Aimed
from ravska_core.blends import DRY_KINDS, Blend, Line, check_blend, parts_of, shares
from ravska_core.catalogue import Catalogue
from ravska_core.composition import QUALITIES, heat_scale, heat_scoville, part_qualities
from ravska_core.ratios import with_shares
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


def nudge(
    blend: Blend, towards: str, tables: Catalogue | None = None, prices: Mapping[str, float] | None = None
) -> Aimed:
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
    parts = check_blend(blend, tables)
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    lines, today = list(blend.lines), shares(blend.lines, parts)
    at_quality = list(QUALITIES).index(wish.what)
    values = [part_qualities(part, prices)[at_quality] for part in parts]
    free = [value for line, value in zip(lines, values, strict=True) if not line.lock]
    # chilli before pepper: what is less than half as strong as the strongest makes room instead
    strongest = max(wish.strong, max(free, default=0.0) / 2)
    carries = [not line.lock and value >= strongest for line, value in zip(lines, values, strict=True)]
    if not any(carries):
        grind = wish.brings[0 if blend.kind in DRY_KINDS or blend.kind == "paste" else 1]
        if not grind or any(line.grind == grind for line in lines):
            locked = any(value >= wish.strong for value in values)
            why = "What carries it is locked; unlock it." if locked else f"There is no {wish.what} in it to take out."
            return Aimed(blend.lines, False, (why,), True)
        lines.append(Line(grind, Fraction(1), "scale" if all(x.basis == "scale" for x in lines) else "spoon"))
        parts = [*parts, *parts_of(lines[-1:], tables)]
        values.append(part_qualities(parts[-1], prices)[at_quality])
        today, carries = [*today, 0.0], [*carries, True]

    now = sum(share * value for share, value in zip(today, values, strict=True))
    if wish.what == "heat":
        goal = heat_scoville(min(10.0, heat_scale(now) * wish.factor + wish.step))
    else:
        goal = now * wish.factor + wish.step
    rows = list(zip(lines, today, values, carries, strict=True))
    carried = sum(share for _, share, _, c in rows if c)
    others = sum(share for line, share, _, c in rows if not c and not line.lock)
    held = sum(share * value for line, share, value, _ in rows if line.lock)
    strong = sum(share * value for _, share, value, c in rows if c) / carried if carried else values[-1]
    weak = sum(share * value for line, share, value, c in rows if not c and not line.lock) / others if others else 0.0
    if others <= 0:
        return Aimed(blend.lines, False, ("Every other line is locked; unlock one to make room.",), True)
    wanted = (goal - held - (carried + others) * weak) / (strong - weak)
    most = (carried + others) * 0.9
    if not 0 < wanted <= most:
        return Aimed(blend.lines, False, (f"It cannot get {wish.label} without becoming another blend.",), True)
    grown, shrunk = (wanted / carried if carried else 0.0), (carried + others - wanted) / others
    moved = [
        share if line.lock else (share * grown if carried else wanted) if c else share * shrunk
        for line, share, _, c in rows
    ]
    return Aimed(with_shares(lines, parts, moved), True, (), False)
