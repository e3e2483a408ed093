"""What meat goes through on the fire: a surround, a vessel and a place for a while, and when that ends.

The numbers of a surround are estimates within the spans that science of heat gives, unless a line says otherwise.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType

from ravska_core.heat.cookers import Cooker
from ravska_core.heat.skewers import THREADED
from ravska_core.heat.surface import EMISSIVITY, Leg, Side
from ravska_core.heat.tenderness import FEELS
from ravska_core.units import say_duration
from ravska_core.working import BadInput, in_range

MOST_PHASES = 12

_MOST_S, _OPEN_S = 72 * 3600.0, 7 * 86_400.0
"""A phase lasts at most so long by the clock; longer than any run where it ends otherwise [s]."""

_MOST_LEGS, _OFTEN_S = 240, 30.0
"""So many turns are followed one by one; turned as often as this or oftener both sides are heated alike [s]."""


@dataclass(frozen=True)
class Surround:
    """What is around the meat: how it is said, heat usually aimed at and its limits [°C], h [W/m2K], vessels it takes.

    `flux` radiates onto one side of it besides, at a middling setting [W/m2]; `one_side` that only one side is at the
    heat, the other in air; `wet` that nothing dries in it; `hot` that it cooks.
    """

    says: str
    usual_c: float
    low_c: float
    high_c: float
    h: float
    vessels: tuple[str, ...]
    flux: float = 0.0
    one_side: bool = False
    wet: bool = False
    hot: bool = True


_OPEN = ("grate", "rack", "pan", "foil", "skewer")

SURROUNDS: Mapping[str, Surround] = MappingProxyType(
    {
        "indirect": Surround("indirect, beside the fire", 110.0, 40.0, 350.0, 10.0, (*_OPEN, "pot")),
        "direct flame": Surround("over the flame", 230.0, 100.0, 400.0, 15.0, ("grate", "pan", "skewer"), 12e3, True),
        "hot iron": Surround("on hot iron", 250.0, 100.0, 400.0, 250.0, ("pan", "grate"), one_side=True),
        "oven": Surround("in the oven", 180.0, 40.0, 300.0, 12.0, (*_OPEN, "pot")),
        "broiler": Surround("under the broiler", 200.0, 100.0, 350.0, 12.0, ("rack", "pan", "skewer"), 15e3, True),
        "covered liquid": Surround("covered in liquid", 95.0, 40.0, 130.0, 400.0, ("pot",), wet=True),
        "water bath": Surround("in a water bath", 57.0, 40.0, 95.0, 300.0, ("bag",), wet=True),
        "cold": Surround("in the cold", 4.0, -2.0, 15.0, 8.0, ("rack", "foil"), wet=True, hot=False),
        "rest": Surround("resting", 21.0, -5.0, 70.0, 8.0, ("board", "foil"), hot=False),
    }
)

VESSELS: Mapping[str, str] = MappingProxyType(
    {
        "grate": "on the grate", "rack": "on a rack", "pan": "in a pan", "foil": "wrapped", "pot": "in a covered pot",
        "bag": "in a bag", "skewer": "on a skewer", "board": "on a board",
    }
)  # fmt: skip
"""What it lies in, and how that is said."""

COLOURS: Mapping[str, float] = MappingProxyType({"golden": 105.0, "brown": 125.0, "dark": 150.0})
"""Colour of a crust and the heat a surface has by then [°C] (estimates)."""

SETTINGS: Mapping[str, float] = MappingProxyType({"gentle": 0.5, "middling": 1.0, "fierce": 1.8})
"""How hard a flame or a broiler burns, over a middling one (estimates)."""

USUAL_DISTANCE_CM = 12.0
"""From a flame to the meat (common practice, no source)."""

_SIDE_AIR_C, _TRAY_DEW_K, _BROWNS_DEW_C = 120.0, 12.0, 30.0

REST_DEW_C = 10.0


@dataclass(frozen=True)
class Phase:
    """A time on the fire: surround, heat aimed at [°C] with the wider band that still does, vessel, place, and its end.

    It ends by whichever of its ends is first: `lasts_s` [s], `centre_c` [°C], a `feel` or a `colour`. `near` says that
    it lies on the fire's hot side; `setting` and `distance_cm` [cm] how it lies to a flame or a broiler; `turned_s` how
    often it is turned [s]; `sears_s` how long each face is at the heat, one after the other [s]; `touching` is the
    share of a face that touches iron. `apart` says that pieces on a skewer do not touch each other, `threaded` what
    lies between them there. `tray` is a water or a drip tray, `wood` what smokes.
    """

    surround: str
    aimed_c: float
    vessel: str = ""
    lasts_s: float | None = None
    centre_c: float | None = None
    feel: str = ""
    colour: str = ""
    low_c: float | None = None
    high_c: float | None = None
    near: bool = False
    setting: str = "middling"
    distance_cm: float = USUAL_DISTANCE_CM
    turned_s: float | None = None
    sears_s: tuple[float, ...] = ()
    touching: float = 1.0
    apart: bool = True
    threaded: tuple[str, ...] = ()
    tray: str = ""
    wood: str = ""

    @property
    def open_ended(self) -> bool:
        """Whether it ends by something other than time."""
        return self.centre_c is not None or bool(self.feel or self.colour)

    @property
    def where(self) -> str:
        """Where it is, how hot and in what, in words."""
        around = SURROUNDS[self.surround]
        words = [around.says]
        if around.hot or self.surround == "cold":
            words[0] += f" at {self.aimed_c:.0f} °C"
        if self.vessel in ("foil", "pan", "pot", "skewer") and self.surround != "covered liquid":
            words.append(VESSELS[self.vessel])
        return ", ".join(words)

    @property
    def ends(self) -> str:
        """Until when, in words."""
        until = [f"for {say_duration(self.lasts_s)}"] if self.lasts_s and not self.sears_s else []
        if self.sears_s:
            until.append("a face: " + ", ".join(f"{one:.0f} s" for one in self.sears_s))
        until += [f"to {self.centre_c:.0f} °C"] if self.centre_c is not None else []
        until += [f"until it is {self.feel}"] if self.feel else []
        until += [f"until it is {self.colour}"] if self.colour else []
        return " or ".join(until)

    @property
    def says(self) -> str:
        """The phase in words: where, how hot, in what, until when."""
        return f"{self.where}, {self.ends}" if self.ends else self.where


def check_phases(phases: Sequence[Phase], boils_c: float = 100.0) -> None:
    """Refuse what a phase cannot be, at its field.

    Raises
    ------
    BadInput
        At ``phases.N.…``.
    """
    if len(phases) > MOST_PHASES:
        raise BadInput("phases", f"At most {MOST_PHASES} phases a piece; put the shortest together.")
    for at, phase in enumerate(phases):
        try:
            _check(phase, boils_c)
        except BadInput as refusal:
            raise refusal.under(f"phases.{at}") from refusal


def _check(phase: Phase, boils_c: float) -> None:
    around = SURROUNDS.get(phase.surround)
    if around is None:
        raise BadInput("surround", f"Meat is {', '.join(SURROUNDS)}: choose one.")
    span = f"{around.low_c:g} and {around.high_c:g} °C ({_f(around.low_c)} and {_f(around.high_c)} °F)"
    sentence = f"{around.says.capitalize()} it is between {span}; {around.usual_c:g} °C is usual. Check the scale."
    in_range("aimed", phase.aimed_c, around.low_c, around.high_c, sentence)
    if phase.vessel not in ("", *around.vessels):
        raise BadInput("vessel", f"{around.says.capitalize()} it lies in one of these: {', '.join(around.vessels)}.")
    if phase.low_c is not None and phase.high_c is not None and not phase.low_c <= phase.aimed_c <= phase.high_c:
        raise BadInput("band", "The heat aimed at lies inside the band that still does; widen the band.")
    if phase.feel and phase.feel not in FEELS:
        raise BadInput("feel", f"A feel to wait for is one of {', '.join(FEELS)}.")
    if phase.colour and phase.colour not in COLOURS:
        raise BadInput("colour", f"A colour to wait for is one of {', '.join(COLOURS)}.")
    if phase.setting not in SETTINGS:
        raise BadInput("setting", f"A flame is one of {', '.join(SETTINGS)}.")
    for one in phase.threaded:
        if one not in THREADED:
            raise BadInput("threaded", f"Between the meat there can be {', '.join(THREADED)}: choose of these.")
    if phase.tray not in ("", "water", "drip"):
        raise BadInput("tray", "Under it is a water tray, a drip tray or nothing.")
    _check_numbers(phase)
    _check_reached(phase, around, boils_c)


def _check_numbers(phase: Phase) -> None:
    if phase.lasts_s is not None:
        in_range("lasts", phase.lasts_s, 1, _MOST_S, "A phase lasts from 1 s to 72 h; write for example 45 min.")
    if phase.turned_s is not None:
        in_range("turned", phase.turned_s, 5, 86_400, "It is turned every 5 s at the soonest; write for example 1 min.")
    if len(phase.sears_s) > 8 or not all(1 <= one <= 3600 for one in phase.sears_s):
        raise BadInput("sears", "Write how long each face is at the heat, at most eight of them, from 1 s to 1 h each.")
    in_range("touching", phase.touching, 0.05, 1, "A face touches with 5 to 100 % of itself.")
    in_range("distance_cm", phase.distance_cm, 2, 60, "It lies between 2 and 60 cm from the heat.")
    if not (phase.lasts_s or phase.sears_s or phase.open_ended):
        raise BadInput("lasts", "Say when it ends: after a time, at a centre temperature, by feel or by colour.")


def _check_reached(phase: Phase, around: Surround, boils_c: float) -> None:
    """Refuse a centre or a colour that a surround can never bring about."""
    if phase.centre_c is None:
        return
    warmest = min(phase.aimed_c, boils_c) if around.wet or phase.vessel == "pot" else phase.aimed_c
    if around.hot and phase.centre_c > warmest - 1:
        raise BadInput(
            "centre",
            f"The centre never reaches {phase.centre_c:.0f} °C where it is {warmest:.0f} °C around it; "
            "raise the heat, or end it earlier.",
        )


def _f(celsius: float) -> str:
    return f"{celsius * 1.8 + 32:.0f}"


def legs_of(phases: Sequence[Phase], cookers: Sequence[Cooker], boils_c: float = 100.0) -> tuple[Leg, ...]:
    """Return phases as the legs a run goes through: each turn and each seared face is a leg of its own."""
    found: list[Leg] = []
    for number, (phase, cooker) in enumerate(zip(phases, cookers, strict=True)):
        found += _legs(phase, number, cooker, boils_c)
    return tuple(found)


def _legs(phase: Phase, number: int, cooker: Cooker, boils_c: float) -> list[Leg]:
    hot, cool = _sides(phase, cooker, boils_c)
    spread = cooker.uneven_k
    if phase.low_c is not None and phase.high_c is not None:
        spread = (phase.high_c - phase.low_c) / 4

    def leg(sides: tuple[Side, Side], lasts_s: float) -> Leg:
        return Leg(
            phase.aimed_c + (cooker.near_k if phase.near else 0.0), sides, lasts_s, phase.centre_c,
            FEELS[phase.feel] if phase.feel else None, COLOURS[phase.colour] if phase.colour else None,
            phase=number, fire_spread=spread,
        )  # fmt: skip

    whole = phase.lasts_s or (sum(phase.sears_s) if phase.sears_s else _OPEN_S)
    if phase.sears_s:
        return [leg((hot, cool) if at % 2 == 0 else (cool, hot), one) for at, one in enumerate(phase.sears_s)]
    if phase.turned_s is None or hot == cool or phase.turned_s >= whole:
        return [leg((hot, cool), whole)]
    turning = (_by_turns(hot, cool),) * 2
    if phase.turned_s <= _OFTEN_S:
        return [leg(turning, whole)]
    if phase.lasts_s:
        turns = min(_MOST_LEGS, max(2, round(whole / phase.turned_s)))
        return [leg((hot, cool) if at % 2 == 0 else (cool, hot), whole / turns) for at in range(turns)]
    # one that waits for its end goes on being turned, however long that takes
    each = [leg((hot, cool) if at % 2 == 0 else (cool, hot), phase.turned_s) for at in range(_MOST_LEGS)]
    return [*each, leg(turning, whole)]


def _by_turns(hot: Side, cool: Side) -> Side:
    """Return what a side meets on average that is at the heat half of the time."""
    env_c = None
    if hot.env_c is not None and cool.env_c is not None:
        env_c = (hot.h * hot.env_c + cool.h * cool.env_c) / (hot.h + cool.h)
    dries = [side.h if side.h_drying is None else side.h_drying for side in (hot, cool)]
    return replace(
        hot, h=(hot.h + cool.h) / 2, env_c=env_c, emissivity=(hot.emissivity + cool.emissivity) / 2,
        flux=(hot.flux + cool.flux) / 2, h_drying=sum(dries) / 2, dries=hot.dries or cool.dries,
    )  # fmt: skip


def _sides(phase: Phase, cooker: Cooker, boils_c: float) -> tuple[Side, Side]:
    """Return what the side at the heat and the other one meet."""
    around = SURROUNDS[phase.surround]
    if phase.surround == "rest":
        if phase.vessel == "foil":
            return (_wrapped(around.h, by_the_fire=False),) * 2
        return (Side(around.h, dew_c=REST_DEW_C, by_the_fire=False),) * 2
    if phase.surround == "cold":
        return (Side(around.h, dries=False, by_the_fire=False),) * 2
    if around.wet:
        at = min(phase.aimed_c, boils_c)
        return (Side(around.h, at, 0.0, dries=False, by_the_fire=False),) * 2
    dew_c = cooker.dew_c + (_TRAY_DEW_K if phase.tray == "water" else 0.0)
    h = around.h if around.one_side else cooker.h
    if phase.vessel in ("foil", "pot"):
        return (_wrapped(h),) * 2
    if phase.surround == "hot iron":
        share = phase.touching
        hot = Side(
            around.h * share + 10.0 * (1 - share), phase.aimed_c, EMISSIVITY * (1 - share), h_drying=15.0,
            dew_c=_BROWNS_DEW_C, by_the_fire=False,
        )  # fmt: skip
        return hot, Side(10.0, min(_SIDE_AIR_C, phase.aimed_c), dew_c=_BROWNS_DEW_C, by_the_fire=False)
    if around.one_side:
        # what radiates falls off with the distance, as from a bed that is wide beside it (estimate)
        flux = around.flux * SETTINGS[phase.setting] * min(2.0, USUAL_DISTANCE_CM / phase.distance_cm)
        return Side(h, flux=flux, dew_c=_BROWNS_DEW_C), Side(h, dew_c=_BROWNS_DEW_C)
    if phase.vessel == "pan":
        return Side(h, dew_c=dew_c), Side(h / 2, dries=False)
    return (Side(h, dew_c=dew_c),) * 2


def _wrapped(h: float, by_the_fire: bool = True) -> Side:
    return Side(h, dries=False, wrapped=True, by_the_fire=by_the_fire)
