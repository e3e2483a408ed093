"""The cautions of a piece on its fire, from what heat does to it. Usual US guidance, from memory."""

from dataclasses import dataclass

from ravska_core.cautions.guidance import LOCAL_RULES, is_poultry, minimum_centre_c
from ravska_core.cautions.judging import Caution, Rule, judge
from ravska_core.cautions.words import CENTRE_S, HOUR_S, said_c
from ravska_core.units import say_duration

SAFE_C = 60.0
"""A surface or a centre is out of the danger zone from here [C] (140 F)."""

SURFACE_S, CENTRE_STOP_S, BATH_S = 4 * HOUR_S, 6 * HOUR_S, 4 * HOUR_S


@dataclass(frozen=True)
class HeatSituation:
    """A piece on its fire: how warm its centre gets at most, whether it is intact, and how long it is raw there.

    `peak_c` is the highest its centre comes to [C]; `surface_s` until its surface passes 60 C, `centre_s` its centre's
    way through 4 to 60 C [s]; where a run ends before that, how long it was followed. `bath_s` is its time in a water
    bath below 54.4 C, of `bath_c` [C];
    `fat_over_flame` says that what drips falls into the fire.
    """

    animal: str = ""
    minced: bool = False
    peak_c: float = 100.0
    intact: bool = True
    surface_s: float = 0.0
    centre_s: float = 0.0
    bath_s: float = 0.0
    bath_c: float = 0.0
    fat_over_flame: bool = False


def _below(s: HeatSituation) -> bool:
    """Tell whether the centre stays below the usual minimum; 145 F is said to be 63 C, a third of a degree is none."""
    return bool(s.animal) and s.peak_c < minimum_centre_c(s.animal, s.minced)[0] - 0.34


def _below_words(s: HeatSituation) -> dict[str, str]:
    named = f"minced {s.animal}" if s.minced else s.animal
    return {"peak": said_c(s.peak_c), "minimum": minimum_centre_c(s.animal, s.minced)[1], "meat": named}


_RULES: tuple[Rule[HeatSituation], ...] = (
    Rule(
        "fire-below-stop", "stop", lambda s: _below(s) and (is_poultry(s.animal) or s.minced),
        "So its centre comes to {peak} at most, below the usual minimum for {meat}, {minimum}.",
        "Leave it on until it has that; " + LOCAL_RULES, "guidance", _below_words,
    ),
    Rule(
        "fire-below", "caution", lambda s: _below(s) and not (is_poultry(s.animal) or s.minced),
        "So its centre comes to {peak} at most, below the usual minimum for {meat}, {minimum}.",
        "Many cooks stop there knowingly; for children, elders and who is ill do not; " + LOCAL_RULES, "guidance",
        _below_words,
    ),
    Rule(
        "fire-centre-stop", "stop", lambda s: not s.intact and s.centre_s > CENTRE_STOP_S,
        "It is not intact, and its centre takes {time} through 4 to 60 °C (40 to 140 °F): more than 6 h.",
        "Begin hotter, cut it smaller, or leave it whole; " + LOCAL_RULES, "guidance",
        lambda s: {"time": say_duration(s.centre_s)},
    ),
    Rule(
        "fire-centre", "caution", lambda s: not s.intact and CENTRE_S < s.centre_s <= CENTRE_STOP_S,
        "It is not intact, and its centre takes {time} through 4 to 60 °C (40 to 140 °F); 4 h is usual at most.",
        "Begin hotter or cut it smaller, and measure it there; from 6 h on do not eat it.", "guidance",
        lambda s: {"time": say_duration(s.centre_s)},
    ),
    Rule(
        "fire-bath", "stop", lambda s: s.bath_s > BATH_S,
        "A water bath of {heat} °C for {time}: below 54.4 °C (130 °F) bacteria grow in it, 4 h is the most.",
        "Set it to 54.4 °C or more, or shorten it; " + LOCAL_RULES, "guidance",
        lambda s: {"heat": f"{s.bath_c:.0f}", "time": say_duration(s.bath_s)},
    ),
    Rule(
        "fire-surface", "caution", lambda s: s.surface_s > SURFACE_S,
        "Its surface passes 60 °C (140 °F) after {time} only; within 4 h is usual.",
        "Begin hotter, dry it first, or take it out of its wrap at first.", "guidance",
        lambda s: {"time": say_duration(s.surface_s)},
    ),
    Rule(
        "fire-flares", "note", lambda s: s.fat_over_flame,
        "Fat drips into the flame here: it flares up, and what burns on the meat is bitter.",
        "Keep a side without fire to move it to, or a tray under it.", "trade",
    ),
)  # fmt: skip


def fire_cautions(situation: HeatSituation) -> tuple[Caution, ...]:
    """Return the cautions of a piece on its fire, most serious first."""
    return judge(_RULES, situation)
