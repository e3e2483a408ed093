"""The catalogue: ingredients, grinds, cuts, windows and their sources, in tables beside the code."""

from ravska_core.catalogue.known import Known, grind_as_known, known_of
from ravska_core.catalogue.names import (
    Named,
    all_names,
    all_names_of,
    counted,
    folded,
    match,
    said_name,
    usual_packs,
    words_of,
)
from ravska_core.catalogue.own import (
    MADE_FROM,
    OwnIngredient,
    grind_of_own,
    grinds_of_own,
    panel_shares,
)
from ravska_core.catalogue.remembered import while_it_stands
from ravska_core.catalogue.rows import (
    ALLERGENS,
    FACES,
    SODIUM_IN_NACL,
    THICKNESSES,
    VALUE_SOURCES,
    Bone,
    Catalogue,
    Cut,
    Grind,
    Ingredient,
    MarinadeWindow,
    Starter,
)
from ravska_core.catalogue.tables import NOTHING_OWN, Own, catalogue, take_own

__all__ = [
    "ALLERGENS",
    "FACES",
    "MADE_FROM",
    "NOTHING_OWN",
    "SODIUM_IN_NACL",
    "THICKNESSES",
    "VALUE_SOURCES",
    "Bone",
    "Catalogue",
    "Cut",
    "Grind",
    "Ingredient",
    "Known",
    "MarinadeWindow",
    "Named",
    "Own",
    "OwnIngredient",
    "Starter",
    "all_names",
    "all_names_of",
    "catalogue",
    "counted",
    "folded",
    "grind_as_known",
    "grind_of_own",
    "grinds_of_own",
    "known_of",
    "match",
    "panel_shares",
    "said_name",
    "take_own",
    "usual_packs",
    "while_it_stands",
    "words_of",
]
