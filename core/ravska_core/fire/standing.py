"""How a piece and the pit stand at the fire, as it is shown."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from ravska_core.fire.probes import Fault
from ravska_core.fire.told import Instead
from ravska_core.units import say_duration

_ON_TIME_S, _ANOTHER_DAY_S = 240.0, 10 * 3600.0
"""So near to its planned time it is as planned; a plan so far off is another day's, and held against nothing [s]
(estimates)."""


def beside_plan(at: datetime | None, planned: datetime | None) -> str:
    """Say how something is beside the plan: ``as planned``, ``12 min later than planned``; empty without a plan."""
    if at is None or planned is None:
        return ""
    late_s = (at - planned).total_seconds()
    if abs(late_s) > _ANOTHER_DAY_S:
        return ""
    if abs(late_s) < _ON_TIME_S:
        return "as planned"
    return f"{say_duration(abs(late_s))} {'later' if late_s > 0 else 'sooner'} than planned"


@dataclass(frozen=True)
class Fan:
    """What a centre's probe will show [°C]: eight chances in ten lie between `low` and `high`."""

    at: tuple[datetime, ...]
    low: tuple[float, ...]
    middle: tuple[float, ...]
    high: tuple[float, ...]


@dataclass(frozen=True)
class Outlook:
    """When a piece will be done, told `at` a time: twenty chances in order, None where it never comes to it so.

    `by` says how many chances in twenty end it by number, feel, colour or time; `old` that more was read since,
    `beside_plan` how it is against the plan, in words.
    """

    at: datetime
    done: tuple[datetime | None, ...]
    done_at: datetime | None
    low_at: datetime | None
    high_at: datetime | None
    by: Mapping[str, int]
    fan: Fan
    old: bool
    carry_k: float
    pull_c: float | None
    beside_plan: str
    otherwise: tuple[Instead, ...]


@dataclass(frozen=True)
class PieceAtFire:
    """A piece as it stands: temperatures [°C], how fast its centre rises [K/h], where it lies, what is the matter.

    `typed` says that its temperatures were typed by hand; `ends` until when it stays, in words.
    """

    letter: str
    name: str
    state: str
    on_at: datetime | None
    off_at: datetime | None
    centre_c: float | None
    centre_at: datetime | None
    typed: bool
    surface_c: float | None
    rate_k_h: float | None
    stall_at: datetime | None
    fault: Fault | None
    x: float
    y: float
    near: bool
    side: str
    vessel: str
    wrapped: bool
    turned: int
    phase: str
    ends: str
    target_c: float | None
    feel: str
    outlook: Outlook | None
    planned_off_at: datetime | None


@dataclass(frozen=True)
class DipReading:
    """A dip of the pit, and what it cost each piece that it was told of [s]."""

    from_at: datetime
    to_at: datetime
    lowest_c: float
    band_c: float
    goes_on: bool
    cost_s: float | None


@dataclass(frozen=True)
class PitReading:
    """The pit [°C]: now, its band, the dips, how long it was below in all [s], and when fuel is due.

    `read_at` is when it was read by hand last, none where a probe tells it.
    """

    celsius: float | None
    read_at: datetime | None
    low_c: float | None
    high_c: float | None
    aimed_c: float | None
    dips: tuple[DipReading, ...]
    under_s: float
    fuel_at: datetime | None
    fuel_says: str
