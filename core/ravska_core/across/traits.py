"""What cuts have in common, so that a contrast of many can be told before any one of them."""

from dataclasses import dataclass

from ravska_core.catalogue import Cut
from ravska_core.meat import find_cut

LONG_FIRE_MIN = 150.0
"""From how long on the fire a cut of the large joints is tough by nature (estimate)."""

THICK_G = 900.0
"""From what usual weight on a piece is thick (estimate)."""

MARBLED = frozenset({
    "beef-brisket", "beef-chuck", "beef-short-rib", "beef-rib-steak", "beef-cheek", "beef-plate-rib", "beef-rib-roast",
    "lamb-shoulder", "lamb-shoulder-boneless", "lamb-breast", "lamb-neck", "pork-shoulder", "pork-belly", "pork-neck",
    "pork-collar-steak", "duck-leg", "duck-breast", "duck-whole", "goose-whole", "salmon-side", "mackerel-whole",
    "beef-brisket-point", "veal-breast", "pork-ribs",
})  # fmt: skip
"""Cuts with much fat in them or under their skin (common practice, no source)."""


@dataclass(frozen=True)
class Trait:
    """A contrast of cuts: what those that have it are called, and the others."""

    key: str
    have: str
    lack: str


TRAITS = (
    Trait("tough", "tough cuts", "tender cuts"),
    Trait("marbled", "marbled cuts", "lean cuts"),
    Trait("thick", "thick cuts", "thin cuts"),
    Trait("bird or fish", "birds and fish", "red meat"),
)


def has_trait(key: str, cut: Cut) -> bool:
    """Tell whether a cut has a trait."""
    if key == "tough":
        return cut.meat_class == "tough" or (cut.meat_class == "large_joint" and cut.fire_min >= LONG_FIRE_MIN)
    if key == "marbled":
        return (cut.like or cut.key) in MARBLED
    if key == "thick":
        return (cut.usual_low_g + cut.usual_high_g) / 2 >= THICK_G
    return cut.meat_class in ("poultry", "fish")


def sides_of(key: str, cuts: tuple[str, ...]) -> tuple[list[int], list[int]]:
    """Return the places of the cuts that have a trait, and of the others."""
    having = [at for at, cut in enumerate(cuts) if has_trait(key, find_cut(cut))]
    return having, [at for at in range(len(cuts)) if at not in having]
