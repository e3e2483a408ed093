"""The clocks that run over a day, each from its step on to its step off, with what is usual to allow.

Guidance, not law: what the authority where you cook says goes first. Limits are those that `cautions` states.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from ravska_core.cautions import BATH_S, CENTRE_STOP_S, COOKS_C, OFF_COLD_S, SAFE_C, SURFACE_S
from ravska_core.day.lanes import WAY, Said, Supper, letter_of
from ravska_core.day.plan import Placed
from ravska_core.day.tasks import RAW, DayPiece
from ravska_core.heat import last_hot
from ravska_core.units import say_duration

COLD_MIN = 360
"""From 57 to 21 °C within two hours, and to 5 °C within six in all [min] (FDA Food Code 3-501.14, from memory)."""

BOX_HOT_MIN = 240
"""A cool box warmed beforehand and full keeps meat above 60 °C for about so long [min] (common practice, no source)."""

_CHARCOAL = ("charcoal", "wood", "pellets")


@dataclass(frozen=True)
class DayClock:
    """A clock: of which piece, from when to when it runs, how long that is and may be [min]; 0 where it has no limit.

    `kind` is ``raw``, ``fire``, ``centre``, ``bath``, ``hot``, ``box``, ``cooling`` or ``embers``; `over` tells that it
    runs out.
    """

    kind: str
    letter: str
    says: str
    begins_at: datetime
    ends_at: datetime
    minutes: int
    most: int
    over: bool


def clocks_of(supper: Supper, lanes: Mapping[str, Said], placed: Sequence[Placed]) -> tuple[DayClock, ...]:
    """Return the clocks of a day in the order they begin."""
    found = list[DayClock]()
    for key, one in lanes.items():
        piece = next((each for each in supper.pieces if each.letter == letter_of(key)), None)
        mine = [each for each in placed if each.lane == key]
        if piece is not None and mine:
            found += _of_piece(_Clock(supper, key), piece, one, mine, placed)
    found += _embers(supper, placed)
    return tuple(sorted(found, key=lambda clock: (clock.begins_at, clock.letter, clock.kind)))


@dataclass(frozen=True)
class _Clock:
    supper: Supper
    lane: str

    def __call__(
        self, kind: str, says: str, begins: float, ends: float, most: float, took: float | None = None
    ) -> DayClock:
        lasts = round(ends - begins if took is None else took)
        at = self.supper.serve_at
        told = f"{says}: {say_duration(lasts * 60)}" + (f" of at most {say_duration(most * 60)}" if most else "")
        return DayClock(kind, letter_of(self.lane), told, at + timedelta(minutes=begins), at + timedelta(minutes=ends),
                        lasts, round(most), bool(most) and lasts > most)  # fmt: skip


def _of_piece(
    clock: _Clock, piece: DayPiece, said: Said, mine: Sequence[Placed], placed: Sequence[Placed]
) -> Iterator[DayClock]:  # fmt: skip
    by_key = {one.task.key: one for one in mine}
    on = next((by_key[key] for key in ("to.0", "phase.0", "on") if key in by_key), None)
    before = [one for one in mine if on is None or one.begins < on.begins]
    warm = []
    for one in before:
        doing = said.doings[one.task.key]
        if doing.waits == "bench" or (RAW in one.task.needs and doing.kind != "beside"):
            warm.append((one.begins, one.ends + (one.waits if doing.waits in ("bench", "") else 0)))
    if warm:
        took = sum(ends - begins for begins, ends in warm)
        yield clock("raw", "Raw and off the cold", warm[0][0], max(ends for _, ends in warm), OFF_COLD_S / 60, took)
    heat = piece.heat
    if on is not None and heat is not None and piece.heated is not None:
        phases = piece.heated.phases
        if heat.surface_safe_s is not None:
            says = f"On the fire until its surface is at {SAFE_C:.0f} °C"
            yield clock("fire", says, on.begins, on.begins + heat.surface_safe_s / 60, SURFACE_S / 60)
        if piece.seasoned.piece.pierced or piece.cut.minced or _needled(piece):
            says = "Not intact: its centre below 60 °C (caution from 4 h)"
            yield clock("centre", says, on.begins, on.begins + heat.danger_s / 60, CENTRE_STOP_S / 60)
        for at, phase in enumerate(phases[: last_hot(phases) + 1]):
            phased = by_key.get(f"phase.{at}")
            if phased is not None and phase.surround == "water bath" and phase.aimed_c < COOKS_C:
                into = by_key.get(f"to.{at}", phased)
                yield clock("bath", f"In a bath below {COOKS_C:.1f} °C", into.begins, phased.ends, BATH_S / 60)
    rest, chill, box = by_key.get("rest"), by_key.get("chill"), by_key.get("pack")
    if chill is not None:
        yield clock(
            "cooling", "Cooled to 21 °C within 2 h, and to 5 °C", chill.begins, chill.begins + COLD_MIN, COLD_MIN
        )
    if rest is not None and rest.waits:
        yield clock("hot", "Keep it above 60 °C", rest.ends, rest.ends + rest.waits, 0)
    if box is not None:
        there = next((one.ends for one in placed if one.lane == WAY and one.task.key == "way"), 0)
        travels = "" if clock.supper.away is None else clock.supper.away.travels
        says = "In the warm cool box, above 60 °C" if travels == "hot" else "In the cool box, at 5 °C or less"
        yield clock("box", says, box.ends, there, BOX_HOT_MIN if travels == "hot" else 0)


def _needled(piece: DayPiece) -> bool:
    return any(layer.kind in ("injection", "second injection") for layer in piece.seasoned.layers)


def _embers(supper: Supper, placed: Sequence[Placed]) -> Iterator[DayClock]:
    """Tell how long a fire burns that must never be indoors, nor be carried in afterwards."""
    for key, cooker in supper.cookers.items():
        if not any(word in cooker.fuel_unit for word in _CHARCOAL):
            continue
        uses = [one for one in placed if any(need.resource == key for need in one.task.needs)]
        lit = [one.begins for one in placed if one.task.key == f"light.{key}"]
        if uses:
            begins, ends = min([*lit, *(one.begins for one in uses)]), max(one.ends for one in uses)
            says = "Embers: outdoors only, carbon monoxide kills; let them go out there, lid and vents shut"
            yield _Clock(supper, "")("embers", says, begins, ends, 0)
