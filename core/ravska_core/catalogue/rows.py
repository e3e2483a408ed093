"""The rows of the catalogue: ingredients, grinds, cuts, windows, swaps and starters, and what they may hold."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.units import US_TEASPOON_ML

PORTION_ML = MappingProxyType({"tsp": US_TEASPOON_ML, "tbsp": 3 * US_TEASPOON_ML, "cup": 48 * US_TEASPOON_ML})

SODIUM_IN_NACL = 22.990 / 58.443
"""Mass share of sodium in sodium chloride, 0.3934, from the molar masses [g/mol]."""

COUNT_UNITS = ("piece", "clove", "head", "leaf", "stick", "sprig", "bunch")

FAMILIES = ("salt", "spice", "herb", "sugar", "savoury", "fresh", "liquid", "dairy", "paste", "fat")

ACID_CLASSES = ("none", "dairy", "mild", "medium", "strong", "enzyme")

MEAT_CLASSES = ("fish", "poultry", "tender_red", "sliced_pork", "tough", "large_joint")

FACES = ("skin", "fat cap", "silver skin", "membrane", "bone side", "fat side")

SHAPES = ("ellipsoid", "box", "cylinder", "cubes", "strips", "rack", "bird")

THICKNESSES = MappingProxyType({"thin": 2.5, "medium": 6.0, "thick": math.inf})
"""Classes of meat by thickness, and up to which thickness each goes [cm] (estimates)."""

FLAGS = (
    "protease", "heat_treated", "raw_allium", "fresh_herb", "cure", "phosphate", "hygroscopic", "dairy", "chilli",
)  # fmt: skip

ALLERGENS = (
    "mustard", "celery", "soy", "wheat", "fish", "milk", "sesame", "sulphites", "egg", "peanut", "nuts", "crustacean",
)  # fmt: skip

VALUE_SOURCES = MappingProxyType(
    {
        "acid": "acids",
        "scoville": "scoville",
        "bite": "pungency",
        "glutamate": "glutamate",
        "smoke": "estimate",
        "herb": "estimate",
        "scorch_c": "estimate",
        "keeps_days": "keeping",
        "price_100g": "estimate",
    }
)
"""Where an ingredient's values are from that its own row's source (of composition) does not cover."""


@dataclass(frozen=True)
class Source:
    """Where a number is from; `mark` says how well: published, from memory, no source, arithmetic."""

    key: str
    title: str
    mark: str


# rows of the catalogue are one of a kind: compared and looked up by identity, which is many times faster
@dataclass(frozen=True, eq=False)
class Ingredient:
    """What goes into a blend. Shares are mass fractions, `acid` as titratable share of `acid_kind`.

    `scoville` counts chilli heat [SHU]; `bite` the other pungents (pepper, mustard, ginger), `smoke` and `herb`
    aroma, each from 0 to 10 eaten neat. `scorch_c` is where it turns bitter [C], None for what does not.
    `code` names its row in the table of its source; `error` says how far an own one's composition may be off, relative.
    """

    key: str
    name: str
    family: str
    code: str
    nacl: float
    sodium: float
    sugars: float
    fat: float
    water: float
    acid: float
    acid_kind: str
    scoville: float
    bite: float
    glutamate: float
    smoke: float
    herb: float
    scorch_c: float | None
    keeps_days: float
    price_100g: float
    colour: str
    allergens: tuple[str, ...]
    flags: frozenset[str]
    source: str
    error: float = 0.0


@dataclass(frozen=True, eq=False)
class Grind:
    """An ingredient in one grind; keyed ``ingredient/grind``; density is level and, unless named packed, unpacked."""

    key: str
    ingredient: Ingredient
    name: str
    density_g_ml: float
    grain_mm: float
    portion: str
    portion_g: float
    source: str

    @property
    def said(self) -> str:
        """How the catalogue writes it: ``black pepper, cracked``."""
        name = self.ingredient.name.lower()
        return name if self.name in name or self.name in ("liquid", "own") else f"{name}, {self.name}"


@dataclass(frozen=True)
class Swap:
    """A grind that can stand in for another: `ratio` is its mass for one of the other's."""

    grind: str
    instead: str
    ratio: float
    reason: str
    source: str


@dataclass(frozen=True)
class Starter:
    """A ratio to begin a blend of a kind with: lines of grind, parts as written, and basis."""

    kind: str
    name: str
    says: str
    lines: tuple[tuple[str, str, str], ...]
    source: str


@dataclass(frozen=True)
class Bone:
    """A bone as a rod seen from above: its two ends and how wide it is, as shares of the piece's length and width."""

    x0: float
    y0: float
    x1: float
    y1: float
    wide: float


TRIM_BECOMES = MappingProxyType(
    {"own piece": "cooks as a piece of its own", "pot": "goes into the pot", "render": "is rendered for its fat",
     "bin": "is thrown away"}
)  # fmt: skip
"""What becomes of what is trimmed off."""


@dataclass(frozen=True)
class Trim:
    """What usually comes off a cut, its share of the weight as bought, and what becomes of it."""

    what: str
    share: float
    becomes: str


@dataclass(frozen=True)
class Cut:
    """A cut of meat: shape, proportions length : width : thickness (absolute when `unit_cm` is given), bone share.

    `faces` names what keeps seasoning off the meat (skin, fat cap, silver skin, membrane, bone side) with its share
    of the whole surface; 0 stands for one large face of a ``rack``. `cook_yield` is cooked over raw edible weight,
    `thin_share` the thickness of the thin end over the middle's; `bones` where its bones usually lie. `minced` says
    that nothing of it is intact; `trims` what comes off. `area_error` is how far its surface by weight may be off,
    relative, where that is more than usual. `like` is the key of the catalogue's cut that one of the cook's own is
    like, shape and all; none of those that are in it.
    """

    key: str
    name: str
    other_names: tuple[str, ...]
    animal: str
    meat_class: str
    shape: str
    length: float
    width: float
    thickness: float
    unit_cm: float | None
    density: float
    bone_share: float
    bones: tuple[Bone, ...]
    faces: tuple[tuple[str, float], ...]
    cook_yield: float
    thin_share: float
    usual_low_g: float
    usual_high_g: float
    fire_min: float
    rest_min: float
    source: str
    minced: bool = False
    trims: tuple[Trim, ...] = ()
    area_error: float = 0.0
    like: str = ""

    @property
    def trim_share(self) -> float:
        """Share of the weight as bought that usually comes off."""
        return sum(trim.share for trim in self.trims)


@dataclass(frozen=True)
class MarinadeWindow:
    """Usual time in one class of acid for one class and thickness of meat [min]: the cautious school and the long."""

    acid_class: str
    meat_class: str
    thickness: str
    cautious_low_min: float
    cautious_high_min: float
    long_low_min: float
    long_high_min: float
    reason: str
    source: str


@dataclass(frozen=True)
class Count:
    """What one clove, berry, leaf or piece of a grind weighs [g], with the usual span."""

    grind: str
    unit: str
    grams: float
    low: float
    high: float
    source: str


@dataclass(frozen=True)
class Pack:
    """What an ingredient is sold in, and how much that usually holds, in g or ml."""

    ingredient: str
    pack: str
    kind: str
    amount: float
    source: str


@dataclass(frozen=True)
class Catalogue:
    """All tables, keyed for look-up."""

    sources: Mapping[str, Source]
    ingredients: Mapping[str, Ingredient]
    grinds: Mapping[str, Grind]
    swaps: Mapping[tuple[str, str], Swap]
    starters: Mapping[str, Starter]
    cuts: Mapping[str, Cut]
    windows: Mapping[tuple[str, str, str], MarinadeWindow]
