"""What is cooked beside the meat, and what is eaten somewhere else or in waves.

Room on a grate, how long packing and cooling take are common practice, no source, unless a line says otherwise.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

from ravska_core.day.plan import Need, Task
from ravska_core.day.tasks import BAND_USUAL_K, COOKED, HANDS, KEEPS_HOT_MIN, LIGHT_MIN, Doing, lit_says, settled
from ravska_core.heat import Cooker
from ravska_core.working import BadInput, in_range

MOST_SIDES = 12

_ROOM_CM2: Mapping[str, float] = MappingProxyType({"oven": 1500.0, "stove pot": 500.0})
_PAN_CM2 = 700.0
"""Room a side takes: a tray of the oven, a ring of the stove; a pan of 30 cm on any grate [cm2]."""

_AHEAD_MIN, _DISH_MIN, _DISHED_MIN = 240, 5, 60
"""How long what was cut and washed may wait for its fire, how long it takes to dish up, and how long it may stand then
[min]."""

_PACK_MIN, _PACKED_MIN, _THERE_MIN = 5, 30, 10

_CHILL_MIN, _CHILLS_MIN, _CHILLED_MIN = 10, 360, 2880
"""What is eaten cold is cooled in shallow trays: within 2 h to 21 °C and within 4 h more to 5 °C (FDA Food Code
3-501.14, from memory); it is planned to be for six hours, and for two days at most [min]."""

TRAVELS = ("hot", "cold")


@dataclass(frozen=True)
class Side:
    """A side: its letter and name, how long it cooks and keeps hands busy before that, and how long it can wait [min].

    `cooker` is the key that the day shares a cooker by, `device` that cooker, None for what needs none; `aimed_c` its
    heat [°C], none where any does. Somebody is beside what is `tended` all the while.
    """

    letter: str
    name: str
    cooks_min: int
    hands_min: int = 0
    waits_min: int = 0
    cooker: str = ""
    device: Cooker | None = None
    aimed_c: float | None = None
    tended: bool = False
    ticked: Mapping[str, int] = field(default_factory=lambda: MappingProxyType({}))
    pins: Mapping[str, int] = field(default_factory=lambda: MappingProxyType({}))


@dataclass(frozen=True)
class Away:
    """Eaten somewhere else: how long the way there is [min], and whether it travels ``hot`` or ``cold``."""

    minutes: int
    travels: str = "hot"


@dataclass(frozen=True)
class Waves:
    """What is grilled to order comes in so many waves, so long apart [min]."""

    count: int
    apart_min: int


def check_side(side: Side) -> None:
    """Refuse a side that cannot be.

    Raises
    ------
    BadInput
        At ``name``, ``minutes``, ``hands``, ``waits``, ``aimed`` or ``cooker``.
    """
    if not side.name.strip():
        raise BadInput("name", "Give the side a name, for example flatbread.")
    in_range("minutes", side.cooks_min, 0, 2880, "A side cooks for at most two days.")
    in_range("hands", side.hands_min, 0, 480, "Work of at most 8 h; make two sides of it.")
    in_range("waits", side.waits_min, 0, 2880, "A side waits for at most two days.")
    if side.cooks_min + side.hands_min <= 0:
        raise BadInput("minutes", "Say how long it cooks, or how long it keeps hands busy.")
    if side.device is None:
        return
    if side.aimed_c is not None and not side.device.low_c <= side.aimed_c <= side.device.high_c:
        span = f"{side.device.low_c:.0f} to {side.device.high_c:.0f} °C"
        raise BadInput("aimed", f"This cooker goes from {span}; choose a heat within that, or another cooker.")


def side_doings(side: Side) -> tuple[Doing, ...]:
    """Return what is still to be done to a side, in order, as `doings_of` does for a piece."""
    return settled(whole_side(side), side.ticked, {}, side.pins)


def whole_side(side: Side) -> list[Doing]:
    """Return all that is done to a side, in order, whether it is done already or not."""
    hands, found = Need(HANDS), list[Doing]()
    if side.hands_min:
        task = Task("make", side.hands_min, (hands, COOKED), 0, 0, _AHEAD_MIN, awake=True)
        found.append(Doing(task, "Make it ready", "hands", "cold"))
    if side.device is not None and side.cooks_min:
        ready = max(0, round(side.device.ready_s / 60) - LIGHT_MIN)
        task = Task(f"light.{side.cooker}", LIGHT_MIN, (hands,), ready, ready, ready + KEEPS_HOT_MIN, awake=True)
        found.append(Doing(task, lit_says(side.device), "light", "ready"))
    if side.cooks_min:
        needs: tuple[Need, ...] = (hands,) if side.tended else ()
        if side.device is not None:
            room = min(_ROOM_CM2.get(side.device.kind, _PAN_CM2), side.device.grate_cm2)
            aimed = side.aimed_c
            band = (None, None) if aimed is None else (aimed - BAND_USUAL_K, aimed + BAND_USUAL_K)
            needs = (*needs, Need(side.cooker, room, *band))
        task = Task("on", side.cooks_min, needs, 0, 0, side.waits_min, awake=side.tended)
        found.append(Doing(task, "Cook it", "fire", "ready to eat", "on"))
    task = Task("serve", _DISH_MIN, (hands, COOKED), 0, 0, min(side.waits_min, _DISHED_MIN), awake=True)
    found.append(Doing(task, "Dish it up", "hands", "ready to eat", "plate"))
    return found


def packed(doings: tuple[Doing, ...], away: Away) -> tuple[Doing, ...]:
    """Return what is done to something that is eaten somewhere else: into the cool box instead of onto the table."""
    if not doings:
        return ()
    hands, found = Need(HANDS), list(doings[:-1])
    if away.travels == "cold" and any(one.task.key in ("rest", "on") for one in found):
        task = Task("chill", _CHILL_MIN, (hands, COOKED), _CHILLS_MIN, _CHILLS_MIN, _CHILLED_MIN, awake=True)
        found.append(Doing(task, "Slice it into shallow trays and cool it", "hands", "cooling", "plate"))
    box = "a cool box warmed with hot water" if away.travels == "hot" else "a cool box with ice"
    task = Task("pack", _PACK_MIN, (hands,), 0, 0, _PACKED_MIN, awake=True)
    found.append(Doing(task, f"Into {box}", "hands", "box" if away.travels == "hot" else "cold box"))
    return tuple(found)


def the_way(away: Away, count: int, people: int) -> tuple[Doing, ...]:
    """Return the way to where it is eaten, which takes everybody, and what is done there with so many things."""
    way = Task("way", away.minutes, (Need(HANDS, float(people)),), awake=True)
    there = Task("serve", _THERE_MIN + 5 * (count - 1), (Need(HANDS), COOKED), awake=True)
    return (
        Doing(way, "On the way with the cool box", "way"),
        Doing(there, "Slice and serve" if away.travels == "hot" else "Unpack and serve", "hands", "", "plate"),
    )
