"""Usual guidance by animal: minimum temperatures in the centre, and how long raw meat keeps.

Usual guidance only. Your local food authority's rules come first.
"""

from collections.abc import Mapping
from types import MappingProxyType

LOCAL_RULES = "your local food authority's rules come first."
"""What every temperature is said with, whatever the plan."""

ANIMAL_CLASSES: Mapping[str, str] = MappingProxyType(
    {
        **dict.fromkeys(("chicken", "turkey", "duck", "goose", "quail", "pheasant"), "poultry"),
        **dict.fromkeys(("venison", "rabbit"), "game"),
        **dict.fromkeys(("beef", "veal", "lamb", "goat", "pork"), "red meat"),
        "fish": "fish",
    }
)
"""Which class of usual guidance an animal belongs to; every animal of the catalogue has one."""

_MINIMUM: Mapping[str, tuple[float, str]] = MappingProxyType(
    {
        "poultry": (74.0, "74 °C (165 °F)"),
        "game": (71.0, "71 °C (160 °F)"),
        "minced": (71.0, "71 °C (160 °F)"),
        "red meat": (63.0, "63 °C (145 °F) and 3 min rest"),
        "fish": (63.0, "63 °C (145 °F)"),
    }
)
"""Usual minimum in the centre by class [C], and how it is said (usual US guidance, from memory)."""

NOT_INTACT_C = 63.0
"""Usual minimum in the centre of meat that is not intact, held 3 min [C] (usual US guidance, from memory)."""


def is_poultry(animal: str) -> bool:
    """Tell whether an animal is a bird; one that no class is known of counts as one, the strictest."""
    return ANIMAL_CLASSES.get(animal, "poultry") == "poultry" if animal else False


def minimum_centre_c(animal: str, minced: bool = False) -> tuple[float, str]:
    """Return the usual minimum centre temperature [C] of an animal's meat, whole or minced, and how it is said."""
    whole = _MINIMUM[ANIMAL_CLASSES.get(animal, "poultry")]
    return max(whole, _MINIMUM["minced"], key=lambda known: known[0]) if minced else whole


def raw_keeps_days(animal: str, minced: bool = False) -> int:
    """Return for how many days raw meat is usually kept cold: poultry, fish and minced 2, other meat 5."""
    return 2 if minced or is_poultry(animal) or ANIMAL_CLASSES.get(animal) == "fish" else 5
