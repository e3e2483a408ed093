"""What drips out of a piece while it cooks, as lines of a later sauce or injection."""

from dataclasses import replace
from types import MappingProxyType

from ravska_core.coat.fates import DRIPS, MELTED_OFF, drip_share
from ravska_core.coat.stack import Seasoned
from ravska_core.coat.target import dose_stack
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.meat import find_cut
from ravska_core.working import BadInput

ERROR = 0.5
"""Relative error of each part of the drippings: how much drips depends on the fire (estimate)."""

FAT_SHARE = MappingProxyType({"lean": 0.05, "ordinary": 0.15, "marbled": 0.3, "dry-aged": 0.12})
"""Rendered fat in drippings by grade, mass fraction (estimate)."""

FAT = MappingProxyType({"pork": "lard/soft", "chicken": "duck-fat/melted", "turkey": "duck-fat/melted",
                         "duck": "duck-fat/melted", "goose": "duck-fat/melted"})  # fmt: skip
"""Which fat that is, by animal; tallow of all others, none of fish."""


def rendered_g(seasoned: Seasoned) -> float:
    """Determine the fat that renders out of the meat itself and drips [g], whatever lies on it; none of fish."""
    if find_cut(seasoned.piece.cut).animal == "fish":
        return 0.0
    piece = seasoned.read()
    return piece.edible.value * (1 - piece.cook_yield) * DRIPS * FAT_SHARE[seasoned.piece.grade]


def drippings_of(seasoned: Seasoned, spoon_set: SpoonSet = SPOON_SETS["us"]) -> tuple[tuple[str, float], ...]:
    """Determine the drippings of a piece as grinds with their masses [g]: water, rendered fat, and salt of its layers.

    Half the weight lost drips (estimate); salt leaves at the mean saltiness of the meat's water. What melts off a coat
    of fat runs into them too, with all that is in it.

    Raises
    ------
    BadInput
        When the piece cannot be read, or hardly anything drips out of it.
    """
    caught = replace(seasoned, layers=tuple(layer for layer in seasoned.layers if layer.kind != "drippings"))
    stack, _ = dose_stack(caught, spoon_set)
    piece = stack.piece
    mass = piece.edible.value * (1 - piece.cook_yield) * DRIPS
    if mass < 5:
        raise BadInput("letter", "Hardly anything drips out of this piece; leave the drippings.")
    fates = stack.follow().fates
    in_meat = sum((fate.meat + fate.surface) * salt for fate, salt in zip(fates, stack.salt_g, strict=True))
    salt = float(in_meat) * drip_share(piece.cook_yield, piece.water_share)
    fat = mass * FAT_SHARE[seasoned.piece.grade]
    animal = find_cut(seasoned.piece.cut).animal
    lines = {"water/liquid": mass - fat}
    if animal != "fish":
        lines[FAT.get(animal, "tallow/melted")] = fat
    lines["table-salt/fine"] = salt / 0.985
    for put, fate in zip(stack.puts, fates, strict=True):
        off = put.dose_g * fate.lost.get(MELTED_OFF, 0.0)
        for grind, share in put.blend.leaves if put.blend is not None and off > 0 else ():
            lines[grind.key] = lines.get(grind.key, 0.0) + off * share
    whole = sum(lines.values())
    return tuple((grind, grams) for grind, grams in lines.items() if grams >= max(0.01, 1e-4 * whole))
