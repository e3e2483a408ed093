"""What the fire does to meat: cookers, phases, temperatures over time with their doubt, water, feel and doneness."""

from ravska_core.heat.again import warmed_s
from ravska_core.heat.chances import GRAINS
from ravska_core.heat.cookers import (
    COOKER_KINDS,
    NO_KITCHEN,
    Cooker,
    Kitchen,
    OwnCooker,
    cooker_for,
    cooker_of_own,
    find_cooker,
    kitchen,
    take_kitchen,
)
from ravska_core.heat.endpoints import Done, words_for
from ravska_core.heat.fired import on_fire_of
from ravska_core.heat.forecasting import Changed, Forecast, carry_k, forecast, later_s
from ravska_core.heat.heated import Heated, last_hot
from ravska_core.heat.live import NOTHING, Felt, Live, Seen, Stretch, by_minute
from ravska_core.heat.phases import COLOURS, SURROUNDS, USUAL_DISTANCE_CM, VESSELS, Phase, check_phases
from ravska_core.heat.reading import HeatReading, PhaseReading, read_heat
from ravska_core.heat.scorch import Coated, Scorched
from ravska_core.heat.seasoned import heated
from ravska_core.heat.skewers import THREADED
from ravska_core.heat.starts import Start, place_among, starts_for, usual_phase
from ravska_core.heat.tenderness import FEELS
from ravska_core.heat.what_if import Otherwise, what_if

__all__ = [
    "COLOURS",
    "COOKER_KINDS",
    "FEELS",
    "GRAINS",
    "NOTHING",
    "NO_KITCHEN",
    "SURROUNDS",
    "THREADED",
    "USUAL_DISTANCE_CM",
    "VESSELS",
    "Changed",
    "Coated",
    "Cooker",
    "Done",
    "Felt",
    "Forecast",
    "HeatReading",
    "Heated",
    "Kitchen",
    "Live",
    "Otherwise",
    "OwnCooker",
    "Phase",
    "PhaseReading",
    "Scorched",
    "Seen",
    "Start",
    "Stretch",
    "by_minute",
    "carry_k",
    "check_phases",
    "cooker_for",
    "cooker_of_own",
    "find_cooker",
    "forecast",
    "heated",
    "kitchen",
    "last_hot",
    "later_s",
    "on_fire_of",
    "place_among",
    "read_heat",
    "starts_for",
    "take_kitchen",
    "usual_phase",
    "warmed_s",
    "what_if",
    "words_for",
]
