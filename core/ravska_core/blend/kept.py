"""What a kept blend was read with, and how today's tables would read it."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ravska_core.blend.compare import differ, short
from ravska_core.blend.lines import Blend, Line
from ravska_core.blend.parts import parts_of, shares
from ravska_core.blend.reading import BlendReading, read_blend
from ravska_core.catalogue import Known, catalogue, grind_as_known, known_of
from ravska_core.working import BadInput, say

_SAID = {
    "nacl": ("salt", 100, "%"), "sodium": ("sodium", 100, "%"), "sugars": ("sugars", 100, "%"),
    "fat": ("fat", 100, "%"), "water": ("water", 100, "%"), "acid": ("acid", 100, "%"),
    "scoville": ("heat", 1, "SHU"), "bite": ("bite", 1, "of 10"), "glutamate": ("glutamate", 100, "%"),
    "smoke": ("smoke", 1, "of 10"), "herb": ("herb", 1, "of 10"), "grind.density_g_ml": ("density", 1, "g/ml"),
    "scorch_c": ("turns bitter", 1, "°C"), "keeps_days": ("keeps", 1, "days"),
}  # fmt: skip
"""What a correction of the tables is said in: name, factor from the table's unit, unit."""


@dataclass(frozen=True)
class AsRead:
    """What a line was read with: its mass in 100 g of what goes in [g], and what was known of it."""

    mass_g: float
    known: Known


@dataclass(frozen=True)
class Corrections:
    """What the tables corrected since a blend was kept, a sentence an ingredient, and how the blend reads by them."""

    tables: tuple[str, ...]
    words: str


def as_read(blend: Blend) -> tuple[AsRead, ...]:
    """Determine what the lines of a blend are read with now, to be kept with them.

    Raises
    ------
    BadInput
        As `parts_of`.
    """
    parts = parts_of(blend.lines)
    found = []
    for line, part, share in zip(blend.lines, parts, shares(blend.lines, parts), strict=True):
        known = known_of(part.leaves[0][0]) if line.blend is None else (("density_g_ml", part.density_g_ml),)
        found.append(AsRead(share * 100, known))
    return tuple(found)


def by_todays_tables(blend: Blend) -> Blend:
    """Return a kept blend as today's tables know it."""
    return replace(blend, lines=tuple(
        replace(line, known=(), blend=by_todays_tables(line.blend) if line.blend is not None else None)
        for line in blend.lines
    ))  # fmt: skip


def _corrected(blend: Blend) -> Iterator[Line]:
    """The lines of a blend, and of those inside it, that the tables know otherwise now."""
    known = catalogue().grinds
    for line in blend.lines:
        if line.blend is not None:
            yield from _corrected(line.blend)
        elif line.known and grind_as_known(line.grind, line.known) is not known.get(line.grind):
            yield line


def _says(line: Line) -> str:
    was = grind_as_known(line.grind, line.known)
    if line.grind not in catalogue().grinds:
        return f"{was.said}: not in the tables any more"
    now = dict(known_of(catalogue().grinds[line.grind]))
    moved = [
        f"{said} {_value(value, factor)} → {_value(now[name], factor)} {unit}"
        for name, value in line.known
        if name in _SAID and now[name] != value
        for said, factor, unit in [_SAID[name]]
    ]
    return f"{was.said}: {', '.join(moved)}" if moved else ""


def _value(value: float | None, factor: float) -> str:
    return "–" if value is None else say(value * factor, 3)


def corrections(blend: Blend, reading: BlendReading) -> Corrections | None:
    """Determine what the tables corrected since a blend was kept; None where they say what they said.

    Parameters
    ----------
    blend, reading
        The blend as it was kept, and what it was read as.
    """
    tables = tuple(dict.fromkeys(said for line in _corrected(blend) if (said := _says(line))))
    if not tables:
        return None
    try:
        words = differ(reading, read_blend(by_todays_tables(blend))).words
    except BadInput:
        return Corrections(tables, "it cannot be read by today's tables")
    return Corrections(tables, short(words))
