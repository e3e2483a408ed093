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
from ravska_core.catalogue.tables import catalogue

__all__ = [
    "ALLERGENS",
    "FACES",
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
    "Starter",
    "all_names",
    "all_names_of",
    "catalogue",
    "counted",
    "folded",
    "grind_as_known",
    "known_of",
    "match",
    "said_name",
    "usual_packs",
    "words_of",
]
