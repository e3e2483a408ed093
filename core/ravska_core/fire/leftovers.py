"""What is left over: how long it lay out, until when it keeps, and how it is warmed again.

Guidance: local food-safety rules go first.
"""

from dataclasses import dataclass
from datetime import datetime, timedelta

from ravska_core.fire.at_fire import FirePiece
from ravska_core.heat import Heated, warmed_s
from ravska_core.working import Figure, Step, figure

OUT_S = 2 * 3600.0
"""Food that is off the heat is eaten, kept hot or in the cold within so long [s] (usual US guidance, from memory)."""

KEEPS_DAYS = {"fridge": 3, "freezer": 60}
"""For how many days cooked meat is usually kept: 3 to 4 days cold, two months frozen and still good (usual US guidance,
from memory)."""

REHEAT_C, OVEN_C, _SLOWER = 74.0, 160.0, 0.3
"""To what leftovers are warmed again [°C] (165 °F, usual US guidance, from memory), in what oven; how far the time for
it may be off, relative (estimate)."""


@dataclass(frozen=True)
class LeftOver:
    """What was put away of a piece: grams, where, when, how long it was off the heat by then [s], and its use-by.

    `use_by` is none for what was thrown away. `warms` is how long it takes in one piece [min], covered in an oven of
    `oven_c` [°C].
    """

    letter: str
    name: str
    grams: float
    where: str
    at: datetime
    out_s: float | None
    too_long: bool
    use_by: datetime | None
    says: str
    warms: Figure | None
    oven_c: float = OVEN_C


def left_over(piece: FirePiece, grams: float, where: str, at: datetime) -> LeftOver:
    """Say of what was put away until when it keeps and how it is warmed again."""
    out_s = None if piece.log.off_at is None else (at - piece.log.off_at).total_seconds()
    too_long = out_s is not None and out_s > OUT_S and where != "thrown away"
    keeps = KEEPS_DAYS.get(where)
    if keeps is None:
        return LeftOver(piece.log.letter, piece.name, grams, where, at, out_s, False, None, "", None)
    use_by = at + timedelta(days=keeps)
    if too_long:
        says = "It was off the heat for more than 2 h before it was cold: usual guidance is to throw it away."
    elif where == "freezer":
        says = f"Thaw it in the fridge, then warm it once to {REHEAT_C:.0f} °C (165 °F) in its middle."
    else:
        says = f"Warm it once, covered, to {REHEAT_C:.0f} °C (165 °F) in its middle; probe it."
    warms = None if too_long or piece.heated is None else warms_again(piece.heated, grams)
    return LeftOver(piece.log.letter, piece.name, grams, where, at, out_s, too_long, use_by, says, warms)


def warms_again(heated: Heated, grams: float) -> Figure | None:
    """Determine how long leftovers take from the fridge to 74 °C, covered in the oven, in one piece [min].

    The piece is taken as thick as it was by the cube root of what is left of its edible weight.
    """
    whole = heated.reading.edible.value
    share = min(1.0, grams / whole)
    took = warmed_s(heated, share, OVEN_C, REHEAT_C) if share > 0 else None
    if took is None:
        return None
    steps = [
        Step("Left of it", f"{grams:.0f} g of {whole:.0f} g", share * 100, "%"),
        Step("As thick as it was by", "the cube root of that", share ** (1 / 3) * 100, "%"),
        Step("Warm again", f"4 °C to {REHEAT_C:.0f} °C, covered at {OVEN_C:.0f} °C", took / 60, "min", "heat-water"),
    ]
    return figure(steps, f"±{_SLOWER * 100:.0f} %: in slices it takes less", spread=_SLOWER)
