"""Ratios as they are written: parts, percent or relative, with their locks."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from ravska_core.blend.lines import Line
from ravska_core.blend.parts import Part, masses, parts_of, shares
from ravska_core.measure import HIGHEST_PARTS, LOWEST_PARTS
from ravska_core.working import BadInput, say

WRITTEN = ("parts", "percent", "relative")
"""How the numbers of a blend are written: parts, percent of its mass, or relative to a base line that counts 1."""

TOTALS = ("free", "fixed")
"""Whether a changed line changes the total, or the other lines give way."""

_SIGNS = {
    Fraction(1, 8): "⅛", Fraction(1, 4): "¼", Fraction(1, 3): "⅓", Fraction(3, 8): "⅜", Fraction(1, 2): "½",
    Fraction(5, 8): "⅝", Fraction(2, 3): "⅔", Fraction(3, 4): "¾", Fraction(7, 8): "⅞",
}  # fmt: skip

_PRECISION = 10**9


@dataclass(frozen=True)
class Ratio:
    """Lines with how their numbers are written, which line is the base of relative ones, and the total's rule."""

    lines: tuple[Line, ...]
    written: str = "parts"
    base: int = 0
    total: str = "free"


def say_parts(parts: Fraction) -> str:
    """Return parts as people write them: ``1½``, ``⅛``, ``1/16``, or three or four figures, ``27.2``."""
    whole, rest = divmod(parts, 1)
    if parts <= 100 and rest in _SIGNS:
        return f"{whole or ''}{_SIGNS[rest]}"
    if rest == 0:
        return str(whole)
    if parts == Fraction(1, 16):
        return "1/16"
    value = float(parts)
    return f"{value:.2f}" if 10 <= value < 100 else f"{value:.1f}" if value >= 100 else say(value, 3)


def exact_parts(value: float | Fraction, at: int) -> Fraction:
    """Return parts as an exact fraction that a book can hold, or refuse what is out of range at ``lines.N.parts``."""
    if not LOWEST_PARTS <= value <= HIGHEST_PARTS:
        raise BadInput(f"lines.{at}.parts", "That leaves this line out of range: parts lie between 1/1000 and 10,000.")
    return Fraction(value).limit_denominator(_PRECISION)


def check_at(ratio: Ratio, at: int) -> None:
    if not 0 <= at < len(ratio.lines):
        raise BadInput("line", "This line is not there any more.")


def _parts_from_share(line: Line, part: Part, share: float, total_mass: float, at: int) -> Fraction:
    density = part.density_g_ml if line.basis == "spoon" else 1.0
    return exact_parts(share * total_mass / density, at)


def with_shares(lines: Sequence[Line], parts: Sequence[Part], wanted: Sequence[float]) -> tuple[Line, ...]:
    """Return the lines with parts that make the wanted shares; a line whose share stays keeps its very parts.

    Raises
    ------
    BadInput
        At ``lines.N.parts`` when a part would fall out of range.
    """
    relative = masses(lines, parts)
    total = sum(relative)
    found = []
    for at, (line, part, mass, share) in enumerate(zip(lines, parts, relative, wanted, strict=True)):
        if abs(mass / total - share) <= 1e-12:
            found.append(line)
        else:
            found.append(replace(line, parts=_parts_from_share(line, part, share, total, at)))
    return tuple(found)


def switch_basis(ratio: Ratio, at: int, basis: str) -> Ratio:
    """Write one line by spoon or by scale; the blend stays, its number changes.

    Parts that weigh 1 on the scale are 1 / density spoons.
    """
    check_at(ratio, at)
    line = ratio.lines[at]
    if line.basis == basis:
        return ratio
    (part,) = parts_of([line])
    density = Fraction(part.density_g_ml)
    parts = line.parts * density if basis == "scale" else line.parts / density
    lines = list(ratio.lines)
    lines[at] = replace(line, basis=basis, parts=exact_parts(parts, at))
    return replace(ratio, lines=tuple(lines))


def write_as(ratio: Ratio, written: str, base: int = 0) -> Ratio:
    """Write the same blend as percent of its mass, relative to a base line that counts 1, or as parts.

    Percent goes by scale and adds up to 100 with a fixed total. Relative numbers keep each line's basis.
    """
    if written not in WRITTEN:
        raise BadInput("written", f"Numbers are written as one of {', '.join(WRITTEN)}.")
    if not ratio.lines:
        return replace(ratio, written=written, base=0)
    if written == "percent":
        found = shares(ratio.lines, parts_of(ratio.lines))
        lines = tuple(
            replace(line, basis="scale", parts=exact_parts(share * 100, at))
            for at, (line, share) in enumerate(zip(ratio.lines, found, strict=True))
        )
        return Ratio(lines, "percent", 0, "fixed")
    if written == "relative":
        check_at(ratio, base)
        one = ratio.lines[base].parts
        lines = tuple(replace(line, parts=exact_parts(line.parts / one, at)) for at, line in enumerate(ratio.lines))
        return Ratio(lines, "relative", base, "free")
    return replace(ratio, written="parts", base=0, total="free" if ratio.written == "percent" else ratio.total)


def rebased(ratio: Ratio) -> Ratio:
    """Write relative numbers anew where the base moved with the rest and does not count 1 any more."""
    moved = ratio.written == "relative" and ratio.lines[ratio.base].parts != 1
    return restate(ratio) if moved else ratio


def settle(lines: Sequence[Line], like: Ratio) -> Ratio:
    """Return lines that replace those of a ratio, written as its numbers are; a base that is gone goes to the first."""
    base = 0
    if like.lines:
        was = like.lines[like.base]
        base = next((at for at, x in enumerate(lines) if (x.grind, x.blend) == (was.grind, was.blend)), 0)
    return restate(replace(like, lines=tuple(lines), base=base))


def restate(ratio: Ratio) -> Ratio:
    """Write percent and relative numbers anew after a change of lines: they add up to 100, or their base counts 1."""
    return ratio if ratio.written == "parts" else write_as(ratio, ratio.written, ratio.base)


def scaled_line(line: Line, factor: Fraction, at: int) -> Line:
    return replace(line, parts=exact_parts(line.parts * factor, at))
