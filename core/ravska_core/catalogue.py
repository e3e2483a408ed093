"""The catalogue: ingredients with grinds, swaps, starters, cuts, marinade windows and sources.

All of it comes from the core's own tables. Every row is checked as it is read; a row that cannot be right is named
by file, line and column.
"""

import csv
import math
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache
from importlib import resources
from itertools import product
from types import MappingProxyType
from typing import TypeVar

from ravska_core.cautions import ANIMAL_CLASSES

US_TEASPOON_ML = 4.92892159375
"""US customary teaspoon [ml], NIST Handbook 44 appendix C."""

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
ALLERGENS = ("mustard", "celery", "soy", "wheat", "fish", "milk", "sesame", "sulphites", "egg")

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


class CatalogueError(ValueError):
    """A catalogue row that cannot be right: says file, line and column."""

    def __init__(self, file: str, line: int, column: str, problem: str) -> None:
        super().__init__(f"{file}, line {line}, column {column}: {problem}")
        self.file, self.line, self.column = file, line, column


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
    `code` names its row in the table of its source.
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


@dataclass(frozen=True)
class Cut:
    """A cut of meat: shape, proportions length : width : thickness (absolute when `unit_cm` is given), bone share.

    `faces` names what keeps seasoning off the meat (skin, fat cap, silver skin, membrane, bone side) with its share
    of the whole surface; 0 stands for one large face of a ``rack``. `cook_yield` is cooked over raw edible weight,
    `thin_share` the thickness of the thin end over the middle's; `bones` where its bones usually lie. `minced` says
    that nothing of it is intact.
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
class Catalogue:
    """All tables, keyed for look-up."""

    sources: Mapping[str, Source]
    ingredients: Mapping[str, Ingredient]
    grinds: Mapping[str, Grind]
    swaps: Mapping[tuple[str, str], Swap]
    starters: Mapping[str, Starter]
    cuts: Mapping[str, Cut]
    windows: Mapping[tuple[str, str, str], MarinadeWindow]


class _Row:
    """One row of a table being read, with accessors that name the column in what they refuse."""

    def __init__(self, file: str, line: int, cells: dict[str, str | None]) -> None:
        self.file, self.line, self.cells = file, line, cells

    def refuse(self, column: str, problem: str) -> CatalogueError:
        return CatalogueError(self.file, self.line, column, problem)

    def text(self, column: str, one_of: tuple[str, ...] | Mapping[str, object] | None = None) -> str:
        value = (self.cells.get(column) or "").strip()
        if one_of is not None and value not in one_of:
            raise self.refuse(column, f"“{value}” is none of {', '.join(sorted(one_of))}")
        return value

    def required(self, column: str) -> str:
        value = self.text(column)
        if not value:
            raise self.refuse(column, "must not be empty")
        return value

    def number(self, column: str, low: float, high: float) -> float:
        text = self.required(column)
        try:
            value = float(text)
        except ValueError:
            raise self.refuse(column, f"“{text}” is not a number") from None
        if not (math.isfinite(value) and low <= value <= high):
            raise self.refuse(column, f"{text} lies outside {low:g} to {high:g}")
        return value

    def words(self, column: str, one_of: tuple[str, ...] | None = None) -> tuple[str, ...]:
        words = tuple(word.strip() for word in self.text(column).split(";") if word.strip())
        for word in words:
            if one_of is not None and word not in one_of:
                raise self.refuse(column, f"“{word}” is none of {', '.join(one_of)}")
        return words


Record = TypeVar("Record")
Key = TypeVar("Key")


def _read(
    file: str, text: str, build: Callable[[_Row], Record], key: Callable[[Record], Key]
) -> MappingProxyType[Key, Record]:
    reader = csv.DictReader(text.splitlines())
    columns = reader.fieldnames or []
    records: dict[Key, Record] = {}
    for cells in reader:
        row = _Row(file, reader.line_num, cells)
        if None in cells or None in cells.values():
            raise row.refuse(columns[-1] if columns else "?", f"the row must have {len(columns)} cells")
        record = build(row)
        if key(record) in records:
            raise row.refuse(columns[0], f"{key(record)} stands here twice")
        records[key(record)] = record
    return MappingProxyType(records)


def read_sources(text: str, file: str = "sources.csv") -> Mapping[str, Source]:
    """Read the table of sources, keyed by source key."""

    def build(row: _Row) -> Source:
        return Source(row.required("key"), row.required("title"), row.required("mark"))

    return _read(file, text, build, lambda s: s.key)


def read_ingredients(
    text: str, sources: Mapping[str, Source], file: str = "ingredients.csv"
) -> Mapping[str, Ingredient]:
    """Read the table of ingredients, keyed by ingredient key.

    Raises
    ------
    CatalogueError
        For a value out of range, a composition above the whole, or less sodium than the salt holds.
    """

    def build(row: _Row) -> Ingredient:
        nacl = row.number("nacl", 0, 1)
        sodium = row.number("sodium_mg_100g", 0, 40_000) / 100_000
        if sodium < nacl * SODIUM_IN_NACL * 0.99:
            raise row.refuse("sodium_mg_100g", f"less sodium than {nacl:g} of salt holds")
        colour = row.text("colour")
        if not re.fullmatch(r"#[0-9a-f]{6}", colour):
            raise row.refuse("colour", f"“{colour}” is not a colour such as #b3301f")
        shares = {name: row.number(name, 0, 1) for name in ("sugars", "fat", "water", "acid")}
        if nacl + sum(shares.values()) > 1.03:  # analyses are rounded one by one
            raise row.refuse("water", "salt, sugars, fat, water and acid add up to more than the whole")
        acid_kind = row.text("acid_kind", ("", "acetic", "citric", "lactic", "malic", "tartaric"))
        if (shares["acid"] > 0) != bool(acid_kind):
            raise row.refuse("acid_kind", "an acid share and its kind belong together")
        return Ingredient(
            key=row.required("key"),
            name=row.required("name"),
            family=row.text("family", FAMILIES),
            code=row.text("code"),
            nacl=nacl,
            sodium=sodium,
            acid_kind=acid_kind,
            scoville=row.number("scoville", 0, 3_000_000),
            bite=row.number("bite", 0, 10),
            glutamate=row.number("glutamate", 0, 1),
            smoke=row.number("smoke", 0, 10),
            herb=row.number("herb", 0, 10),
            scorch_c=row.number("scorch_c", 80, 300) if row.text("scorch_c") else None,
            keeps_days=row.number("keeps_days", 1, 3650),
            price_100g=row.number("price_100g", 0, 10_000),
            colour=colour,
            allergens=row.words("allergens", ALLERGENS),
            flags=frozenset(row.words("flags", FLAGS)),
            source=row.text("source", sources),
            **shares,
        )

    return _read(file, text, build, lambda i: i.key)


def read_grinds(
    text: str, ingredients: Mapping[str, Ingredient], sources: Mapping[str, Source], file: str = "grinds.csv"
) -> Mapping[str, Grind]:
    """Read the table of grinds, keyed ``ingredient/grind``; density = portion mass / portion volume."""

    def build(row: _Row) -> Grind:
        ingredient = ingredients[row.text("ingredient", ingredients)]
        portion = row.text("portion", PORTION_ML)
        portion_g = row.number("portion_g", 0.1, 1000)
        density = portion_g / PORTION_ML[portion]
        if not 0.05 <= density <= 2.2:
            raise row.refuse("portion_g", f"{portion_g:g} g a {portion} is {density:.2f} g/ml, outside 0.05 to 2.2")
        name = row.required("grind")
        return Grind(
            key=f"{ingredient.key}/{name}",
            ingredient=ingredient,
            name=name,
            density_g_ml=density,
            grain_mm=row.number("grain_mm", 0, 20),
            portion=portion,
            portion_g=portion_g,
            source=row.text("source", sources),
        )

    return _read(file, text, build, lambda g: g.key)


def read_swaps(
    text: str, grinds: Mapping[str, Grind], sources: Mapping[str, Source], file: str = "swaps.csv"
) -> Mapping[tuple[str, str], Swap]:
    """Read the table of swaps, keyed by the grind and what stands in for it."""

    def build(row: _Row) -> Swap:
        return Swap(
            grind=row.text("ingredient", grinds),
            instead=row.text("instead", grinds),
            ratio=row.number("ratio", 0.01, 20),
            reason=row.required("reason"),
            source=row.text("source", sources),
        )

    return _read(file, text, build, lambda s: (s.grind, s.instead))


def read_starters(
    text: str, grinds: Mapping[str, Grind], sources: Mapping[str, Source], file: str = "starters.csv"
) -> Mapping[str, Starter]:
    """Read the ratios to begin with, keyed by name."""

    def build(row: _Row) -> Starter:
        lines = []
        for word in row.words("lines"):
            grind, _, rest = word.partition(":")
            parts, _, basis = rest.partition(":")
            if grind not in grinds or basis not in ("spoon", "scale") or not re.fullmatch(r"\d+(/\d+)?", parts):
                raise row.refuse("lines", f"“{word}” is not grind:parts:basis")
            lines.append((grind, parts, basis))
        return Starter(
            kind=row.required("kind"),
            name=row.required("name"),
            says=row.required("says"),
            lines=tuple(lines),
            source=row.text("source", sources),
        )

    return _read(file, text, build, lambda s: s.name)


def read_cuts(text: str, sources: Mapping[str, Source], file: str = "cuts.csv") -> Mapping[str, Cut]:
    """Read the table of cuts, keyed by cut key."""

    def face(row: _Row, text: str) -> tuple[str, float]:
        name, _, share = text.partition(":")
        if name not in FACES or not re.fullmatch(r"0(\.\d+)?", share) or float(share) > 0.9:
            raise row.refuse("faces", f"{text!r} is not a face with its share of the surface, as in skin:0.4")
        return name, float(share)

    def bones(row: _Row) -> tuple[Bone, ...]:
        found: list[Bone] = []
        for word in row.words("bones"):
            ribs = re.fullmatch(r"ribs (\d+) (0\.\d+)", word)
            if ribs:
                count = int(ribs[1])
                found += [Bone((n + 0.5) / count, 0.06, (n + 0.5) / count, 0.94, float(ribs[2])) for n in range(count)]
                continue
            if not re.fullmatch(r"([01](\.\d+)? ){4}0\.\d+", word):
                raise row.refuse("bones", f"{word!r} is not a rod x0 y0 x1 y1 wide, nor ribs, as in ribs 8 0.1")
            found.append(Bone(*map(float, word.split())))
        return tuple(found)

    def build(row: _Row) -> Cut:
        low = row.number("usual_low_g", 1, 100_000)
        return Cut(
            key=row.required("key"),
            name=row.required("name"),
            other_names=row.words("other_names"),
            animal=row.text("animal", ANIMAL_CLASSES),
            meat_class=row.text("meat_class", MEAT_CLASSES),
            shape=row.text("shape", SHAPES),
            length=row.number("length", 0.1, 50),
            width=row.number("width", 0.1, 50),
            thickness=row.number("thickness", 0.1, 50),
            unit_cm=row.number("unit_cm", 0.1, 50) if row.text("unit_cm") else None,
            density=row.number("density", 0.8, 1.8),
            bone_share=row.number("bone_share", 0, 0.6),
            bones=bones(row),
            faces=tuple(face(row, text) for text in row.words("faces")),
            cook_yield=row.number("cook_yield", 0.3, 1),
            thin_share=row.number("thin_share", 0.2, 1),
            usual_low_g=low,
            usual_high_g=row.number("usual_high_g", low, 100_000),
            fire_min=row.number("fire_min", 1, 2000),
            rest_min=row.number("rest_min", 0, 240),
            source=row.text("source", sources),
            minced=row.text("form", ("whole", "minced")) == "minced",
        )

    return _read(file, text, build, lambda c: c.key)


def read_windows(
    text: str, sources: Mapping[str, Source], file: str = "marinade_windows.csv"
) -> Mapping[tuple[str, str, str], MarinadeWindow]:
    """Read the table of marinade windows, keyed by acid class, meat class and thickness; every one must be there."""

    def build(row: _Row) -> MarinadeWindow:
        ends: list[float] = []
        for column in ("cautious_low_min", "cautious_high_min", "long_low_min", "long_high_min"):
            ends.append(row.number(column, ends[-1] if ends else 1, 1440))
        return MarinadeWindow(
            acid_class=row.text("acid_class", ACID_CLASSES),
            meat_class=row.text("meat_class", MEAT_CLASSES),
            thickness=row.text("thickness", THICKNESSES),
            cautious_low_min=ends[0],
            cautious_high_min=ends[1],
            long_low_min=ends[2],
            long_high_min=ends[3],
            reason=row.required("reason"),
            source=row.text("source", sources),
        )

    windows = _read(file, text, build, lambda w: (w.acid_class, w.meat_class, w.thickness))
    for cell in product(ACID_CLASSES, MEAT_CLASSES, THICKNESSES):
        if cell not in windows:
            raise CatalogueError(file, len(windows) + 1, "acid_class", f"no window for {', '.join(cell)}")
    return windows


def read_names(
    text: str, ingredients: Mapping[str, Ingredient], file: str = "names.csv"
) -> Mapping[str, tuple[str, ...]]:
    """Read what people call ingredients, keyed by ingredient; no name may mean two."""
    seen: dict[str, str] = {}

    def build(row: _Row) -> tuple[str, tuple[str, ...]]:
        what, names = row.text("what", ingredients), row.words("names")
        for name in names:
            if name in seen:
                raise row.refuse("names", f"“{name}” means {seen[name]} already")
            seen[name] = what
        return what, names

    return MappingProxyType(dict(_read(file, text, build, lambda x: x[0]).values()))


def read_counts(
    text: str, grinds: Mapping[str, Grind], sources: Mapping[str, Source], file: str = "counts.csv"
) -> Mapping[tuple[str, str], Count]:
    """Read what one piece weighs, keyed by grind and unit."""

    def build(row: _Row) -> Count:
        low = row.number("low", 0.001, 1000)
        grams = row.number("grams", low, 1000)
        return Count(
            grind=row.text("grind", grinds),
            unit=row.text("unit", COUNT_UNITS),
            grams=grams,
            low=low,
            high=row.number("high", grams, 1000),
            source=row.text("source", sources),
        )

    return _read(file, text, build, lambda c: (c.grind, c.unit))


@cache
def catalogue() -> Catalogue:
    """Return the whole catalogue, read once."""
    tables = resources.files("ravska_core") / "data"

    def text(name: str) -> str:
        return (tables / name).read_text(encoding="utf-8")

    sources = read_sources(text("sources.csv"))
    ingredients = read_ingredients(text("ingredients.csv"), sources)
    grinds = read_grinds(text("grinds.csv"), ingredients, sources)
    return Catalogue(
        sources=sources,
        ingredients=ingredients,
        grinds=grinds,
        swaps=read_swaps(text("swaps.csv"), grinds, sources),
        starters=read_starters(text("starters.csv"), grinds, sources),
        cuts=read_cuts(text("cuts.csv"), sources),
        windows=read_windows(text("marinade_windows.csv"), sources),
    )
