"""The figures and words that cautions name: temperatures, times off the cold, what meets them."""

from ravska_core.cautions.clocks import BATH_STOP_S, OFF_COLD_HOT_S, OFF_COLD_S
from ravska_core.cautions.guidance import (
    LOCAL_RULES,
    NOT_INTACT_C,
    minimum_centre_c,
    raw_keeps_days,
)
from ravska_core.cautions.situation import Situation
from ravska_core.units import say_duration

DAY_S, HOUR_S = 86_400.0, 3600.0


CENTRE_S = 4 * HOUR_S
"""Within this the centre of meat that is not intact, and any surface, should pass 60 C on the fire [s]."""


def said_c(celsius: float) -> str:
    return f"{celsius:.0f} °C ({celsius * 9 / 5 + 32:.0f} °F)"


def least_c(s: Situation) -> float:
    return minimum_centre_c(s.animal, s.minced)[0]


def not_intact_c(s: Situation) -> float:
    return max(NOT_INTACT_C, least_c(s)) if s.animal else NOT_INTACT_C


def below(s: Situation, least_c: float) -> bool:
    """Tell whether the chosen endpoint is below a minimum; 145 F is said to be 63 C, so a third of a degree is none."""
    return s.endpoint_c is not None and s.endpoint_c < least_c - 0.34


def reaches(s: Situation, least_c: float) -> str:
    """Say that the plan meets a minimum, "" when it does not, or no endpoint is set."""
    planned = s.endpoint_c is not None and not below(s, least_c)
    return f"Met if the centre reaches {said_c(least_c)}: measure; {LOCAL_RULES}" if planned else ""


def not_intact_goal(s: Situation) -> str:
    least = not_intact_c(s)
    return f"{said_c(least)}" if least > NOT_INTACT_C else "63 °C (145 °F) for 3 min, or 68 °C (155 °F) for 17 s"


def not_intact_met(s: Situation) -> str:
    met = reaches(s, not_intact_c(s))
    held = "" if not_intact_c(s) > NOT_INTACT_C else " It stays there 3 min."
    return f"Not intact: surface bacteria are inside now. {met}{held}" if met else ""


def below_words(s: Situation) -> dict[str, str]:
    return {"end": said_c(s.endpoint_c or 0.0), "animal": s.animal, "minimum": minimum_centre_c(s.animal)[1]}


def below_whole(s: Situation) -> bool:
    return bool(s.animal) and s.intact and below(s, least_c(s))


def minimum_met(s: Situation) -> str:
    met = reaches(s, least_c(s))
    return f"Usual minimum in the centre for {meat(s)}: {minimum_centre_c(s.animal, s.minced)[1]}. {met}" if met else ""


def meat(s: Situation) -> str:
    return f"minced {s.animal}" if s.minced else s.animal


def warm_words(s: Situation) -> dict[str, str]:
    c = s.clocks
    if c.thawed_warm:
        why = "It is thawed in warm water: its surface is warm for hours while the middle is still frozen"
    elif c.off_cold_hot_s > OFF_COLD_HOT_S:
        why = f"Raw, it is above 32 °C (90 °F) for {say_duration(c.off_cold_hot_s)}"
    elif c.off_cold_s > OFF_COLD_S:
        why = f"Raw, it is off the cold for {say_duration(c.off_cold_s)} in all"
    else:
        why = f"Raw, it is off the cold for {say_duration(c.warm_s)}, bench, bag and bath together"
    return {"why": why}


def bath_words(s: Situation) -> dict[str, str]:
    c = s.clocks
    said = f"above 32 °C (90 °F) for {say_duration(c.hot_s)}" if c.hot_s > OFF_COLD_HOT_S else (
        f"off the cold for {say_duration(c.warm_s)}"
    )  # fmt: skip
    return {"said": said, "most": say_duration(BATH_STOP_S)}


def raw_long(s: Situation, times: float) -> bool:
    return bool(s.animal) and not s.cure and s.clocks.raw_s > times * raw_keeps_days(s.animal, s.minced) * DAY_S


def raw_words(s: Situation) -> dict[str, str]:
    days = raw_keeps_days(s.animal, s.minced)
    return {"days": f"{s.clocks.raw_s / DAY_S:.1f}", "meat": meat(s), "most": str(days), "twice": str(2 * days)}


def kept_long(s: Situation) -> bool:
    return s.on_s > 4 * DAY_S or s.on_warm_s > OFF_COLD_S or (s.in_jar and not s.frozen)
