"""Runs of phases to begin from, each saying whose school it is. All of it is common practice, no source."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from ravska_core.catalogue import Cut
from ravska_core.cautions import minimum_centre_c
from ravska_core.heat.endpoints import words_for
from ravska_core.heat.phases import SURROUNDS, Phase
from ravska_core.working import BadInput

_SLOW_C, _ROAST_C, _HOT_C = 110.0, 165.0, 230.0

_BRAISE = Phase("covered liquid", 95.0, "pot", feel="like butter")

_TENDER_C, _WRAP_C, _SMOKED_S = 92.0, 68.0, 3 * 3600.0


@dataclass(frozen=True)
class Start:
    """A run of phases to begin from: its key, its name, and whose school it is."""

    key: str
    name: str
    school: str
    phases: tuple[Phase, ...]


def _slow(cut: Cut) -> bool:
    """Tell whether a cut is cooked until it is tender, and not until its centre is warm."""
    return cut.meat_class == "tough" and cut.fire_min >= 90


def _done_c(cut: Cut) -> float:
    """Return the centre a cut is usually taken to [°C]: tender, pink where that is usual, else the usual minimum."""
    if _slow(cut):
        return _TENDER_C
    least = minimum_centre_c(cut.animal, cut.minced)[0]
    if cut.minced or cut.animal == "pork" or cut.meat_class in ("poultry", "fish"):
        return least
    pink = [one.centre_c for one in words_for(cut.animal) if one.school == "kitchens" and one.centre_c >= 55]
    return min(least, pink[0]) if pink else least


def _pit(celsius: float, centre_c: float | None = None, lasts_s: float | None = None) -> Phase:
    return Phase("indirect", celsius, "grate", centre_c=centre_c, lasts_s=lasts_s, wood="wood")


def _rest(cut: Cut) -> tuple[Phase, ...]:
    if not cut.rest_min:
        return ()
    how = "foil" if cut.rest_min >= 15 else "board"
    return (Phase("rest", 21.0, how, lasts_s=cut.rest_min * 60),)


def _sear(each_s: float = 60.0) -> Phase:
    return Phase("hot iron", 280.0, "pan", sears_s=(each_s, each_s))


def _open(cut: Cut) -> tuple[Phase, ...]:
    return (_pit(_SLOW_C, centre_c=_done_c(cut)), *_rest(cut))


def _wrapped_late(cut: Cut) -> tuple[Phase, ...]:
    wrapped = Phase("indirect", _SLOW_C, "foil", centre_c=_done_c(cut))
    return (_pit(_SLOW_C, centre_c=_WRAP_C), wrapped, *_rest(cut))


def _wrapped_smoked(cut: Cut) -> tuple[Phase, ...]:
    wrapped = Phase("indirect", _SLOW_C, "foil", centre_c=_done_c(cut))
    return (_pit(_SLOW_C, lasts_s=_SMOKED_S), wrapped, *_rest(cut))


def _sear_first(cut: Cut) -> tuple[Phase, ...]:
    return (_sear(), _pit(120.0, centre_c=_done_c(cut) - 2), *_rest(cut))


def _sear_last(cut: Cut) -> tuple[Phase, ...]:
    return (_pit(120.0, centre_c=_done_c(cut) - 6), _sear(), *_rest(cut))


def _hot_finish(cut: Cut) -> tuple[Phase, ...]:
    return (
        _pit(130.0, centre_c=_done_c(cut) - 8),
        Phase("oven", _HOT_C, "rack", centre_c=_done_c(cut) - 2),
        *_rest(cut),
    )


def _roast(cut: Cut) -> tuple[Phase, ...]:
    return (Phase("oven", _ROAST_C, "rack", centre_c=_done_c(cut)), *_rest(cut))


def _bath_sear(cut: Cut) -> tuple[Phase, ...]:
    goal = max(55.0, _done_c(cut))
    return (Phase("water bath", goal + 1.5, "bag", centre_c=goal), _sear(45.0))


def _embers(cut: Cut) -> tuple[Phase, ...]:
    return (Phase("direct flame", 220.0, "grate", centre_c=_done_c(cut) - 2, turned_s=60.0), *_rest(cut))


def _skin_apart(cut: Cut) -> tuple[Phase, ...]:
    crisp = Phase("indirect", 230.0, "rack", near=True, colour="brown", lasts_s=1500.0)
    return (_pit(120.0, centre_c=_done_c(cut) - 4), crisp, *_rest(cut))


def _pit_roast(cut: Cut) -> tuple[Phase, ...]:
    return (_pit(130.0, centre_c=_done_c(cut)), *_rest(cut))


def _quick(cut: Cut) -> bool:
    return not _slow(cut)


def _flat(cut: Cut) -> bool:
    """Tell whether a cut is thin enough to be done over embers before it burns outside."""
    return cut.fire_min <= 35


def _whole(cut: Cut) -> bool:
    """Tell whether a cut can be seared on its two sides, or lie in a bag: no bird, nothing minced."""
    return not _slow(cut) and cut.shape != "bird" and not cut.minced


def _skinned(cut: Cut) -> bool:
    return any(name == "skin" for name, _ in cut.faces)


_Fits = Callable[[Cut], bool]

_STARTS: tuple[tuple[str, str, str, _Fits, Callable[[Cut], tuple[Phase, ...]]], ...] = (
    ("open", "Open all the way", "never wrapped: who wants the most bark", _slow, _open),
    ("wrapped-late", "Open, wrapped at two thirds", "who wraps when the bark is set: sooner done, softer bark", _slow,
     _wrapped_late),
    ("wrapped-smoked", "Open 3 h for the smoke, then wrapped", "who wraps once smoke is on", _slow, _wrapped_smoked),
    ("braise", "Braised, covered", "who wants it from the pot, in its liquid", _slow,
     lambda cut: (_BRAISE,)),
    ("roast", "Roasted in the oven", "who wants it plain and by the number", _quick, _roast),
    ("pit-roast", "Beside the fire to the number", "who roasts with smoke", _quick, _pit_roast),
    ("sear-first", "Seared, then gently", "who sears first", _whole, _sear_first),
    ("sear-last", "Gently, then seared", "who sears last, on a dry surface", _whole, _sear_last),
    ("hot-finish", "Gently, then a hot finish", "who finishes hot for the crust", _quick, _hot_finish),
    ("bath-sear", "Water bath, then seared", "who wants the centre even to the edge",
     _whole, _bath_sear),
    ("embers", "Over embers, turned each minute", "who stays at the fire", _flat, _embers),
    ("skin", "Gently, the skin over the hot side", "who wants the skin crisp",
     _skinned, _skin_apart),
)  # fmt: skip


def starts_for(cut: Cut) -> tuple[Start, ...]:
    """Return the runs of phases that fit a cut, the most usual first."""
    return tuple(
        Start(key, name, school, phases(cut)) for key, name, school, fits, phases in _STARTS if fits(cut)
    )  # fmt: skip


_LASTS_S, _AT_HEAT_S, _RESTS_S = 3600.0, 120.0, 1200.0
"""How long a phase is begun with, one at the heat, and a rest [s] (common practice, no source)."""


def usual_phase(surround: str) -> Phase:
    """Return a phase as is usual for its surround; `BadInput` at ``surround``."""
    around = SURROUNDS.get(surround)
    if around is None:
        raise BadInput("surround", f"Meat is {', '.join(SURROUNDS)}: choose one.")
    lasts_s = _RESTS_S if not around.hot else _AT_HEAT_S if around.one_side else _LASTS_S
    return Phase(surround, around.usual_c, around.vessels[0], lasts_s=lasts_s)


def place_among(surrounds: Sequence[str], surround: str) -> int:
    """Return where one more phase goes among others: at their end, what cooks before what rests there."""
    rests = bool(surrounds) and surrounds[-1] == "rest" and SURROUNDS[surround].hot
    return len(surrounds) - 1 if rests else len(surrounds)
