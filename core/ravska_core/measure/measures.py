"""The measures people write in lists: spoons, cups, weights, counts and what is taken by eye, English and German."""

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.measure.spoons import SPOON_SETS, SpoonSet
from ravska_core.units import MASS_G, VOLUME_ML

SPOON_ERROR = 0.1
"""Relative error of a level spoon: portion weights of one ingredient differ by about this much (estimate)."""

SCALE_ERROR = 0.01
"""Relative error of a weighed amount, of a kitchen scale's last figures (estimate)."""


BY_EYE_ERROR = 0.25
"""A measure that may be off by as much or more is taken by eye (estimate)."""


@dataclass(frozen=True)
class Measure:
    """What one of a measure is: `kind` says of what (ml, g, part, percent, or a counted unit), `error` how sure."""

    kind: str
    amount: float
    error: float
    said: str

    @property
    def eyed(self) -> bool:
        """Whether it is taken by eye: a handful, a pinch, a splash; said without a number it is one of them."""
        return self.kind in ("ml", "g") and self.error >= BY_EYE_ERROR


PACKS = ("bottle", "can", "packet", "jar", "tub", "cube", "glass", "butter stick")
"""What is sold by the piece in sizes that differ; how much is in one is asked."""


def _measure(kind: str, amount: float, error: float, said: str, *names: str) -> dict[str, Measure]:
    return dict.fromkeys(names, Measure(kind, amount, error, said))


# German spoons are metric: Esslöffel 15 ml, Teelöffel 5 ml, Tasse about 200 to 250 ml (common practice, no source)
_FIXED: dict[str, Measure] = {
    **_measure("ml", 1, 0.02, "ml", "ml", "milliliter", "millilitre", "milliliters", "millilitres", "cc"),
    **_measure("ml", 10, 0.02, "cl", "cl", "centiliter", "centilitre"),
    **_measure("ml", 100, 0.02, "dl", "dl", "deciliter", "decilitre"),
    **_measure("ml", 1000, 0.02, "l", "l", "liter", "litre", "liters", "litres"),
    **_measure("ml", float(VOLUME_ML["floz"]), 0.05, "fl oz", "fl oz", "floz", "fluid ounce", "fluid ounces"),
    **_measure("ml", float(VOLUME_ML["pint"]), 0.05, "pint", "pint", "pints", "pt", "pts"),
    **_measure("ml", float(VOLUME_ML["quart"]), 0.05, "quart", "quart", "quarts", "qt", "qts"),
    **_measure("ml", float(4 * VOLUME_ML["quart"]), 0.05, "gallon", "gallon", "gallons", "gal"),
    **_measure("ml", 10, SPOON_ERROR, "dessertspoon", "dessertspoon", "dessertspoons", "dsp", "dstspn", "dessertsp"),
    **_measure("ml", 15, SPOON_ERROR, "EL", "el", "essloffel", "esslöffel", "essl"),
    **_measure("ml", 5, SPOON_ERROR, "TL", "tl", "teeloffel", "teelöffel", "teel", "kl", "kaffeeloffel",
               "kaffeelöffel"),
    **_measure("ml", 225, 0.15, "Tasse", "tasse", "tassen"),
    **_measure("ml", 0.6, 0.35, "Messerspitze", "messerspitze", "messerspitzen", "msp"),
    **_measure("g", 1, SCALE_ERROR, "g", "g", "gr", "gram", "grams", "gramme", "grammes", "gramm", "grm"),
    **_measure("g", 0.001, SCALE_ERROR, "mg", "mg"),
    **_measure("g", 1000, SCALE_ERROR, "kg", "kg", "kilo", "kilos", "kilogram", "kilograms", "kilogramm"),
    **_measure("g", float(MASS_G["oz"]), SCALE_ERROR, "oz", "oz", "ounce", "ounces"),
    **_measure("g", float(MASS_G["lb"]), SCALE_ERROR, "lb", "lb", "lbs", "pound", "pounds"),
    **_measure("g", 500, SCALE_ERROR, "Pfund", "pfund"),
    **_measure("part", 1, 0, "parts", "part", "parts", "teil", "teile", "spoon", "spoons", "spoonful", "spoonfuls",
               "loffel", "löffel", "scoop", "scoops", "measure", "measures"),
    **_measure("percent", 1, 0, "%", "%", "percent", "per cent", "prozent"),
    # counted things
    **_measure("clove", 1, 0, "clove", "clove", "cloves", "zehe", "zehen"),
    **_measure("head", 1, 0.1, "head", "head", "heads", "bulb", "bulbs", "knolle", "knollen"),
    **_measure("leaf", 1, 0, "leaf", "leaf", "leaves", "blatt", "blatter", "blätter"),
    **_measure("stick", 1, 0, "stick", "stick", "sticks", "stange", "stangen", "stalk", "stalks"),
    **_measure("bottle", 1, 0, "bottle", "bottle", "bottles", "flasche", "flaschen"),
    **_measure("can", 1, 0, "can", "can", "cans", "tin", "tins", "dose", "dosen"),
    **_measure("packet", 1, 0, "packet", "packet", "packets", "package", "packages", "pack", "packs", "pkg", "sachet",
               "sachets", "envelope", "envelopes", "packung", "packchen", "tutchen", "tute"),
    **_measure("jar", 1, 0, "jar", "jar", "jars", "glas", "glaser"),
    **_measure("tub", 1, 0, "tub", "tub", "tubs", "carton", "cartons", "becher"),
    **_measure("cube", 1, 0, "cube", "cube", "cubes", "wurfel"),
    **_measure("glass", 1, 0, "glass", "glass", "glasses"),
    **_measure("sprig", 1, 0, "sprig", "sprig", "sprigs", "zweig", "zweige"),
    **_measure("bunch", 1, 0, "bunch", "bunch", "bunches", "bund"),
    **_measure("piece", 1, 0, "piece", "piece", "pieces", "stuck", "stück", "thumb", "thumbs", "pod", "pods", "berry",
               "berries", "beere",
               "beeren"),
    # by eye (common practice, no source)
    **_measure("ml", 45, 0.40, "handful", "handful", "handfuls", "handvoll", "fistful"),
    **_measure("ml", 25, 0.40, "small handful", "small handful", "small handfuls", "kleine handvoll"),
    **_measure("ml", 70, 0.40, "large handful", "large handful", "big handful", "large handfuls", "grosse handvoll"),
    **_measure("ml", 0.7, 0.40, "dash", "dash", "dashes", "spritzer"),
    **_measure("ml", 0.05, 0.30, "drop", "drop", "drops", "tropfen"),
    **_measure("ml", 15, 0.50, "splash", "splash", "splashes", "schuss"),
    **_measure("ml", 30, 0.50, "swig", "swig", "swigs", "slug", "shot", "shots", "nip"),
    **_measure("ml", 20, 0.40, "glug", "glug", "glugs"),
    **_measure("ml", 10, 0.50, "drizzle", "drizzle"),
    **_measure("ml", 5, 0.50, "squeeze", "squeeze"),
    **_measure("ml", 15, 0.40, "knob", "knob", "knobs"),
    **_measure("ml", 4, 0.60, "dusting", "dusting", "coating"),
    **_measure("ml", 1, 0.60, "sprinkle", "sprinkle", "sprinkles", "sprinkling"),
    **_measure("g", 20, 0.50, "lump", "lump", "lumps", "klecks", "dollop", "dollops", "blob", "blobs"),
    **_measure("ml", 5, 0.60, "a little", "little", "bit", "etwas", "wenig"),
    **_measure("ml", 1, 0.60, "a touch", "touch", "tad", "smattering", "hint", "suggestion", "whisper"),
    **_measure("ml", 5, 0.75, "some", "some", "einige"),
    **_measure("ml", 30, 0.60, "a lot", "lot", "lots", "plenty", "loads", "viel", "reichlich"),
    **_measure("ml", 0.15, 0.50, "smidgen", "smidgen", "smidge"),
}  # fmt: skip

_BY_SET = {
    "cup": ("cup", "cups", "c"),
    "tbsp": (
        "tbsp",
        "tbsps",
        "tbs",
        "tb",
        "tbl",
        "tblspn",
        "tbspn",
        "tblsp",
        "tablespoon",
        "tablespoons",
        "tablespoonful",
        "tablespoonfuls",
    ),
    "tsp": ("tsp", "tsps", "tspn", "teaspoon", "teaspoons", "teaspoonful", "teaspoonfuls", "teasp"),
    "pinch": ("pinch", "pinches", "prise", "prisen"),
}

_PINCH_ERROR = 0.4

SIZES: Mapping[str, tuple[float, float]] = MappingProxyType(
    {
        "heaped": (1.5, 0.25), "heaping": (1.5, 0.25), "gehauft": (1.5, 0.25), "gehaufte": (1.5, 0.25),
        "gehaufter": (1.5, 0.25), "rounded": (1.25, 0.2), "generous": (1.2, 0.2), "good": (1.2, 0.2),
        "big": (1.3, 0.25),
        "scant": (0.9, 0.1), "level": (1.0, 0.0), "gestrichen": (1.0, 0.0), "gestrichene": (1.0, 0.0),
        "gestrichener": (1.0, 0.0), "small": (0.75, 0.25), "kleine": (0.75, 0.25), "kleiner": (0.75, 0.25),
        "large": (1.3, 0.25), "grosse": (1.3, 0.25), "grosser": (1.3, 0.25), "medium": (1.0, 0.2),
        "mittlere": (1.0, 0.2),
        "fat": (1.3, 0.25), "healthy": (1.3, 0.25), "whole": (1.0, 0.0), "entire": (1.0, 0.0),
        "tiny": (0.5, 0.3), "huge": (1.6, 0.3), "mean": (0.8, 0.2),
    }
)  # fmt: skip
"""What a word before a measure makes of it, and how sure that is (common practice, no source)."""


def measures(owned: SpoonSet = SPOON_SETS["us"]) -> dict[str, Measure]:
    """Return every measure by the names it is written with; spoons and cups are those of a set."""
    found = dict(_FIXED)
    key = owned.key.split(" ")[0]
    sizes = {spoon.name: spoon.volume_ml for spoon in SPOON_SETS[key].spoons if spoon.fraction == 1}
    for name, said in _BY_SET.items():
        error = _PINCH_ERROR if name == "pinch" else SPOON_ERROR
        found.update(_measure("ml", sizes[name], error, name, *said))
    return found
