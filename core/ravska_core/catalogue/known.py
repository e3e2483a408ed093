"""What is known of a grind, kept with what was read with it, so that a later correction of the tables moves nothing."""

from dataclasses import fields
from typing import Any

from ravska_core.catalogue.remembered import while_it_stands
from ravska_core.catalogue.rows import Grind, Ingredient
from ravska_core.catalogue.tables import catalogue

Known = tuple[tuple[str, Any], ...]
"""Names and values of what is known of a grind: of its ingredient, and of itself (``grind.…``)."""

_OF_INGREDIENT = tuple(field.name for field in fields(Ingredient) if field.name != "key")
_OF_GRIND = tuple(field.name for field in fields(Grind) if field.name not in ("key", "ingredient"))


def known_of(grind: Grind) -> Known:
    """Return what the tables say of a grind: composition [mass fractions], density [g/ml], grain [mm] and names."""
    # the error is an own ingredient's alone; what was kept before there were any does not hold it
    of = (name for name in _OF_INGREDIENT if name != "error" or grind.ingredient.error)
    of_ingredient = ((name, getattr(grind.ingredient, name)) for name in of)
    of_grind = ((f"grind.{name}", getattr(grind, name)) for name in _OF_GRIND)
    return tuple((name, _plain(value)) for name, value in (*of_ingredient, *of_grind))


def _plain(value: Any) -> Any:
    return tuple(sorted(value)) if isinstance(value, frozenset | tuple) else value


@while_it_stands(4096)
def grind_as_known(key: str, known: Known) -> Grind:
    """Return a grind as it was known: the catalogue's own where that still says the same, else one of its own."""
    now = catalogue().grinds.get(key)
    if now is not None and known_of(now) == known:
        return now
    values: dict[str, Any] = {"error": 0.0, **dict(known)}
    values["flags"] = frozenset(values["flags"])
    ingredient = Ingredient(key=key.partition("/")[0], **{name: values[name] for name in _OF_INGREDIENT})
    return Grind(key=key, ingredient=ingredient, **{name: values[f"grind.{name}"] for name in _OF_GRIND})
