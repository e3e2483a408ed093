"""Changes of a ratio: a line's parts, its grind, a border, a line more or less; locks hold what they hold."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from fractions import Fraction

from ravska_core.blend.lines import Line
from ravska_core.blend.parts import masses, parts_of, shares
from ravska_core.blend.ratios import Ratio, check_at, exact_parts, rebased, scaled_line, with_shares, write_as
from ravska_core.catalogue import catalogue
from ravska_core.working import BadInput, say

_LADDER = tuple(
    Fraction(n)
    for n in ("1/16", "1/8", "1/4", "3/8", "1/2", "3/4", "1", "5/4", "3/2", "7/4", "2", "5/2", "3", "7/2", "4", "5")
)


def switch_grind(ratio: Ratio, at: int, grind: str, hold: str) -> Ratio:
    """Put another grind in a line, holding its spoons or its grams.

    Holding spoons keeps the volume, so that the mass follows the new density; holding grams keeps the mass.
    """
    check_at(ratio, at)
    known = catalogue().grinds
    if grind not in known:
        raise BadInput("grind", "This ingredient is not in the catalogue; choose another.")
    if hold not in ("spoons", "grams"):
        raise BadInput("hold", "Hold the same spoons or the same grams; choose one.")
    line = ratio.lines[at]
    (before,) = parts_of([line])
    factor = Fraction(known[grind].density_g_ml) / Fraction(before.density_g_ml)
    parts = line.parts
    if hold == "spoons" and line.basis == "scale":
        parts = parts * factor
    elif hold == "grams" and line.basis == "spoon":
        parts = parts / factor
    lines = list(ratio.lines)
    parts = parts if parts == line.parts else exact_parts(parts, at)
    lines[at] = Line(grind, parts, line.basis, line.lock, error=line.error)
    return replace(ratio, lines=tuple(lines))


def _together(lines: Sequence[Line], at: int) -> list[int]:
    """Return the lines that move with line `at`: itself, and those whose ratio to it is held."""
    if lines[at].lock != "ratio":
        return [at]
    return [i for i, line in enumerate(lines) if line.lock == "ratio"]


def _give_way(ratio: Ratio, at: int, share: float) -> Ratio:
    """Set one line's share and take the difference from the free lines in their own proportion."""
    parts = parts_of(ratio.lines)
    now = shares(ratio.lines, parts)
    moving = _together(ratio.lines, at)
    free = [i for i, line in enumerate(ratio.lines) if i not in moving and not line.lock]
    locked = sum(now[i] for i, line in enumerate(ratio.lines) if i not in moving and line.lock)
    most = (1 - locked) * now[at] / sum(now[i] for i in moving)
    if not free:
        raise BadInput(
            f"lines.{at}.parts", "Every other line is locked, so this one cannot change; unlock one, or free the total."
        )
    if share >= most:
        held = f" The locked lines hold {say(locked * 100, 3)} %." if locked else ""
        raise BadInput(
            f"lines.{at}.parts",
            f"The total is fixed, and this would leave nothing for the other lines: stay below {say(most * 100, 4)} %."
            + held,
        )
    wanted = list(now)
    for i in moving:
        wanted[i] = now[i] * share / now[at]
    left, room = sum(now[i] for i in free), 1 - locked - sum(wanted[i] for i in moving)
    for i in free:
        wanted[i] = now[i] / left * room
    return replace(ratio, lines=with_shares(ratio.lines, parts, wanted))


def _hold_shares(ratio: Ratio, held: Mapping[int, float]) -> Ratio:
    """Let locked lines grow or shrink with a free total, so that each holds the share it had."""
    if not held or len(held) == len(ratio.lines):
        return ratio
    if sum(held.values()) > 1 - 1e-9:
        at = next(i for i in range(len(ratio.lines)) if i not in held)
        raise BadInput(
            f"lines.{at}.parts", "Every other line is locked at its share, which leaves no room; unlock one."
        )
    relative = masses(ratio.lines, parts_of(ratio.lines))
    total = sum(mass for i, mass in enumerate(relative) if i not in held) / (1 - sum(held.values()))
    lines = [
        scaled_line(line, Fraction(held[i] * total / relative[i]), i) if i in held else line
        for i, line in enumerate(ratio.lines)
    ]
    return replace(ratio, lines=tuple(lines))


def _held(ratio: Ratio, but: int) -> dict[int, float]:
    """Return the shares of the lines locked at one, all but line `but`."""
    locked = [i for i, line in enumerate(ratio.lines) if i != but and line.lock == "share"]
    now = shares(ratio.lines, parts_of(ratio.lines)) if locked else []
    return {i: now[i] for i in locked}


def set_parts(ratio: Ratio, at: int, parts: Fraction) -> Ratio:
    """Set the parts of one line; lines whose ratio to it is held move with it.

    With a fixed total the free lines give way in their own proportion; with a free one, lines locked at a share
    follow it.

    Raises
    ------
    BadInput
        At ``lines.N.parts`` when the total is fixed and nothing would be left, every other line is locked, or the
        line is the base of relative numbers, which counts 1.
    """
    check_at(ratio, at)
    line = ratio.lines[at]
    if ratio.written == "relative" and at == ratio.base and parts != line.parts:
        raise BadInput(f"lines.{at}.parts", "This is the base, it counts 1; change the other lines instead.")
    if ratio.total == "free":
        lines = list(ratio.lines)
        for i in _together(ratio.lines, at):
            lines[i] = scaled_line(lines[i], parts / line.parts, i)
        lines[at] = replace(line, parts=parts)
        return rebased(_hold_shares(replace(ratio, lines=tuple(lines)), _held(ratio, at)))
    if len(ratio.lines) == 1:
        raise BadInput(f"lines.{at}.parts", "This is the only line, so it is all of it; add another first.")
    found = parts_of(ratio.lines)
    density = found[at].density_g_ml if line.basis == "spoon" else 1.0
    share = float(parts) * density / sum(masses(ratio.lines, found))
    given = _give_way(ratio, at, share)
    lines = list(given.lines)
    lines[at] = replace(line, parts=parts)
    return replace(ratio, lines=tuple(lines))


def add_line(ratio: Ratio, line: Line) -> Ratio:
    """Add a line at the end; with a fixed total the free lines make room for it, in their own proportion.

    Raises
    ------
    BadInput
        At ``lines.N.parts`` when the total is fixed and every other line is locked.
    """
    at = len(ratio.lines)
    if not ratio.lines:
        whole = replace(line, parts=Fraction(100), basis="scale") if ratio.written == "percent" else line
        return replace(ratio, lines=(whole,))
    if ratio.total == "free":
        grown = _hold_shares(replace(ratio, lines=(*ratio.lines, line)), _held(ratio, at))
        return rebased(grown)
    (part,) = parts_of([line])
    total = sum(masses(ratio.lines, parts_of(ratio.lines)))
    share = masses([line], [part])[0] / total
    free = [i for i, other in enumerate(ratio.lines) if not other.lock]
    now = shares(ratio.lines, parts_of(ratio.lines))
    room = sum(now[i] for i in free)
    if not free or share >= room:
        raise BadInput(
            f"lines.{at}.parts", "The total is fixed and the free lines leave no room for this; unlock one first."
        )
    factor = Fraction((room - share) / room)
    lines = [scaled_line(other, factor, i) if i in free else other for i, other in enumerate(ratio.lines)]
    return replace(ratio, lines=(*lines, line))


def remove_line(ratio: Ratio, at: int) -> Ratio:
    """Take a line out; with a fixed total the free lines take its room, and relative numbers get a new base."""
    check_at(ratio, at)
    left = replace(ratio, lines=(*ratio.lines[:at], *ratio.lines[at + 1 :]))
    if ratio.base > at:
        left = replace(left, base=ratio.base - 1)
    if not left.lines:
        return replace(left, base=0)
    if ratio.total == "fixed":
        was, now = (sum(masses(r.lines, parts_of(r.lines))) for r in (ratio, left))
        free = [i for i, line in enumerate(left.lines) if not line.lock] or list(range(len(left.lines)))
        relative = masses(left.lines, parts_of(left.lines))
        loose = sum(relative[i] for i in free)
        factor = Fraction((loose + was - now) / loose)
        lines = [scaled_line(line, factor, i) if i in free else line for i, line in enumerate(left.lines)]
        left = replace(left, lines=tuple(lines))
    else:
        held = _held(ratio, at)
        left = _hold_shares(left, {i - (i > at): share for i, share in held.items()})
    if ratio.written == "relative" and ratio.base == at:
        return write_as(left, "relative", 0)
    return rebased(left)


def move_border(ratio: Ratio, at: int, share: float) -> Ratio:
    """Move the border between two neighbours of the strip: line `at` gets `share`, the next one what they leave."""
    check_at(ratio, at)
    check_at(ratio, at + 1)
    for i in (at, at + 1):
        if ratio.lines[i].lock:
            raise BadInput(f"lines.{i}.lock", "This line is locked; unlock it to move its border.")
    parts = parts_of(ratio.lines)
    wanted = shares(ratio.lines, parts)
    both = wanted[at] + wanted[at + 1]
    least = min(0.002, both / 4)
    wanted[at] = min(max(share, least), both - least)
    wanted[at + 1] = both - wanted[at]
    return rebased(replace(ratio, lines=with_shares(ratio.lines, parts, wanted)))


def nudged(parts: Fraction, up: bool, written: str = "parts") -> Fraction:
    """Return the next sensible number of parts: eighths and quarters below 2, halves to 4, then wholes.

    Percent goes by whole percents, by tenths below 1.
    """
    if written == "percent":
        step = Fraction(1) if parts > 1 or (parts == 1 and up) else Fraction(1, 10)
        following = ((parts // step) + 1) * step if up else (-((-parts) // step) - 1) * step
        return max(following, Fraction(1, 10))
    if parts >= 5 or (parts == 5 and up):
        step = Fraction(1) if parts < 20 or (parts == 20 and not up) else Fraction(5)
        following = ((parts // step) + 1) * step if up else (-((-parts) // step) - 1) * step
        return following if following >= 5 else Fraction(4)
    if up:
        return next((rung for rung in _LADDER if rung > parts), Fraction(6))
    return next((rung for rung in reversed(_LADDER) if rung < parts), _LADDER[0])


def nudge_parts(ratio: Ratio, at: int, up: bool) -> Ratio:
    """Nudge one line to the next sensible number."""
    check_at(ratio, at)
    return set_parts(ratio, at, nudged(ratio.lines[at].parts, up, ratio.written))


def unfold(ratio: Ratio, at: int) -> Ratio:
    """Put the lines of a blend inside in its place, by scale, so that the whole stays the same."""
    check_at(ratio, at)
    line = ratio.lines[at]
    if line.blend is None:
        raise BadInput("line", "This line is an ingredient; only a blend can be unfolded.")
    if line.blend.label is not None:
        raise BadInput("line", "Nobody knows the recipe of a bought blend, so it cannot be unfolded.")
    if any(step.do in ("grind", "strain", "simmer") for step in line.blend.method):
        raise BadInput("line", "Its own method grinds, strains or simmers it down; unfolded it would be another blend.")
    (part,) = parts_of([line])
    mass = float(line.parts) * (part.density_g_ml if line.basis == "spoon" else 1.0)
    inner = shares(line.blend.lines, parts_of(line.blend.lines))
    lines = list(ratio.lines)
    lines[at : at + 1] = [
        replace(of, parts=exact_parts(share * mass, at), basis="scale", lock="")
        for of, share in zip(line.blend.lines, inner, strict=True)
    ]
    base = ratio.base + len(line.blend.lines) - 1 if ratio.base > at else ratio.base
    return replace(ratio, lines=tuple(lines), base=base)
