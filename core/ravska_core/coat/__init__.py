"""What is put on a piece: layers dosed, followed, weighed back, and what that comes to."""

from ravska_core.coat.bath_weighed import BathWeighed, bath_weighed_of, learned_times
from ravska_core.coat.binder import Binder, Bound, bind_at, binders_for, plain_binders, usual_binder_g
from ravska_core.coat.core_sample import reach_by_fire_mm
from ravska_core.coat.doses import ADHESION_CEILING, COAT_WEIGHTS, SALT_ZONES, VESSELS, surface_after
from ravska_core.coat.drippings import ERROR, drippings_of, rendered_g
from ravska_core.coat.even_sites import spread_sites
from ravska_core.coat.injected import InjectionReading
from ravska_core.coat.injection import Injection, injection_of, learned_stays
from ravska_core.coat.layer_reading import LayerShown
from ravska_core.coat.layers import (
    AFTER_BATH,
    BATHS,
    BESIDE,
    EACH_TIME,
    INJECTIONS,
    LAYER_KINDS,
    LAYER_OF_BLEND,
    LIQUID_FATES,
    MOST_LAYERS,
    Layer,
    place_for,
    plain,
)
from ravska_core.coat.marinade import Window, hold_window
from ravska_core.coat.on_fire import OnFire
from ravska_core.coat.portions import SHARED, Portion, on_dial, parse_dose
from ravska_core.coat.reading import CoatReading, check_coat, read_coat
from ravska_core.coat.sharing import Shared, share_out
from ravska_core.coat.side_by_side import Side, side
from ravska_core.coat.sites import MOST_SITES, face_of, lay_sites, off_the_bone
from ravska_core.coat.spread import Spread
from ravska_core.coat.stack import Seasoned, Stack, as_weighed
from ravska_core.coat.steps import (
    ON_THE_FIRE,
    SET_BY_THEMSELVES,
    STEP_KINDS,
    STEP_NAMES,
    Planned,
    Wanted,
    for_later,
    mixed_once,
    usual_steps,
)
from ravska_core.coat.target import Evened, brought_to, common_salt, dose_stack, give_way, usual_coat
from ravska_core.coat.thin_cut import thin_cut_salt
from ravska_core.coat.ways import SIDE_BY_SIDE, WAYS, Slot
from ravska_core.coat.weigh_back import TAKEN_FROM, WeighBack, learned_coat, own_coat
from ravska_core.coat.wetness import evaporation_kg_m2_s, surface_at_fire

__all__ = [
    "ADHESION_CEILING",
    "AFTER_BATH",
    "BATHS",
    "BESIDE",
    "COAT_WEIGHTS",
    "EACH_TIME",
    "ERROR",
    "INJECTIONS",
    "LAYER_KINDS",
    "LAYER_OF_BLEND",
    "LIQUID_FATES",
    "MOST_LAYERS",
    "MOST_SITES",
    "ON_THE_FIRE",
    "SALT_ZONES",
    "SET_BY_THEMSELVES",
    "SHARED",
    "SIDE_BY_SIDE",
    "STEP_KINDS",
    "STEP_NAMES",
    "TAKEN_FROM",
    "VESSELS",
    "WAYS",
    "BathWeighed",
    "Binder",
    "Bound",
    "CoatReading",
    "Evened",
    "Injection",
    "InjectionReading",
    "Layer",
    "LayerShown",
    "OnFire",
    "Planned",
    "Portion",
    "Seasoned",
    "Shared",
    "Side",
    "Slot",
    "Spread",
    "Stack",
    "Wanted",
    "WeighBack",
    "Window",
    "as_weighed",
    "bath_weighed_of",
    "bind_at",
    "binders_for",
    "brought_to",
    "check_coat",
    "common_salt",
    "dose_stack",
    "drippings_of",
    "evaporation_kg_m2_s",
    "face_of",
    "for_later",
    "give_way",
    "hold_window",
    "injection_of",
    "lay_sites",
    "learned_coat",
    "learned_stays",
    "learned_times",
    "mixed_once",
    "off_the_bone",
    "on_dial",
    "own_coat",
    "parse_dose",
    "place_for",
    "plain",
    "plain_binders",
    "reach_by_fire_mm",
    "read_coat",
    "rendered_g",
    "share_out",
    "side",
    "spread_sites",
    "surface_after",
    "surface_at_fire",
    "thin_cut_salt",
    "usual_binder_g",
    "usual_coat",
    "usual_steps",
]
