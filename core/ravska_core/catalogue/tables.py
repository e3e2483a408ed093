"""Reading the catalogue's tables; a row that cannot be is refused with its file, line and column."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache
from importlib import resources
from itertools import product
from types import MappingProxyType

from ravska_core.catalogue.remembered import forget_all, while_it_stands
from ravska_core.catalogue.row import CatalogueError, Row, read_rows
from ravska_core.catalogue.rows import (
    ACID_CLASSES,
    ALLERGENS,
    COUNT_UNITS,
    FACES,
    FAMILIES,
    FLAGS,
    MEAT_CLASSES,
    PORTION_ML,
    SHAPES,
    SODIUM_IN_NACL,
    THICKNESSES,
    TRIM_BECOMES,
    Bone,
    Catalogue,
    Count,
    Cut,
    Grind,
    Ingredient,
    MarinadeWindow,
    Pack,
    Source,
    Starter,
    Swap,
    Trim,
)
from ravska_core.cautions import ANIMAL_CLASSES


def read_sources(text: str, file: str = "sources.csv") -> Mapping[str, Source]:
    """Read the table of sources, keyed by source key."""

    def build(row: Row) -> Source:
        return Source(row.required("key"), row.required("title"), row.required("mark"))

    return read_rows(file, text, build, lambda s: s.key)


def read_ingredients(
    text: str, sources: Mapping[str, Source], file: str = "ingredients.csv"
) -> Mapping[str, Ingredient]:
    """Read the table of ingredients, keyed by ingredient key.

    Raises
    ------
    CatalogueError
        For a value out of range, a composition above the whole, or less sodium than the salt holds.
    """

    def build(row: Row) -> Ingredient:
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

    return read_rows(file, text, build, lambda i: i.key)


def read_grinds(
    text: str, ingredients: Mapping[str, Ingredient], sources: Mapping[str, Source], file: str = "grinds.csv"
) -> Mapping[str, Grind]:
    """Read the table of grinds, keyed ``ingredient/grind``; density = portion mass / portion volume."""

    def build(row: Row) -> Grind:
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

    return read_rows(file, text, build, lambda g: g.key)


def read_swaps(
    text: str, grinds: Mapping[str, Grind], sources: Mapping[str, Source], file: str = "swaps.csv"
) -> Mapping[tuple[str, str], Swap]:
    """Read the table of swaps, keyed by the grind and what stands in for it."""

    def build(row: Row) -> Swap:
        return Swap(
            grind=row.text("ingredient", grinds),
            instead=row.text("instead", grinds),
            ratio=row.number("ratio", 0.01, 20),
            reason=row.required("reason"),
            source=row.text("source", sources),
        )

    return read_rows(file, text, build, lambda s: (s.grind, s.instead))


def read_starters(
    text: str, grinds: Mapping[str, Grind], sources: Mapping[str, Source], file: str = "starters.csv"
) -> Mapping[str, Starter]:
    """Read the ratios to begin with, keyed by name."""

    def build(row: Row) -> Starter:
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

    return read_rows(file, text, build, lambda s: s.name)


def read_cuts(text: str, sources: Mapping[str, Source], file: str = "cuts.csv") -> Mapping[str, Cut]:
    """Read the table of cuts, keyed by cut key."""

    def face(row: Row, text: str) -> tuple[str, float]:
        name, _, share = text.partition(":")
        if name not in FACES or not re.fullmatch(r"0(\.\d+)?", share) or float(share) > 0.9:
            raise row.refuse("faces", f"{text!r} is not a face with its share of the surface, as in skin:0.4")
        return name, float(share)

    def bones(row: Row) -> tuple[Bone, ...]:
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

    def trims(row: Row) -> tuple[Trim, ...]:
        found = []
        for word in row.words("trims"):
            what, _, rest = word.partition(":")
            share, _, becomes = rest.partition(":")
            if becomes not in TRIM_BECOMES or not re.fullmatch(r"0\.\d+", share) or not what:
                raise row.refuse("trims", f"{word!r} is not what comes off, its share and what becomes of it")
            found.append(Trim(what, float(share), becomes))
        if sum(trim.share for trim in found) > 0.5:
            raise row.refuse("trims", "more than half of it comes off")
        return tuple(found)

    def build(row: Row) -> Cut:
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
            trims=trims(row),
            minced=row.text("form", ("whole", "minced")) == "minced",
        )

    return read_rows(file, text, build, lambda c: c.key)


def read_windows(
    text: str, sources: Mapping[str, Source], file: str = "marinade_windows.csv"
) -> Mapping[tuple[str, str, str], MarinadeWindow]:
    """Read the table of marinade windows, keyed by acid class, meat class and thickness; every one must be there."""

    def build(row: Row) -> MarinadeWindow:
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

    windows = read_rows(file, text, build, lambda w: (w.acid_class, w.meat_class, w.thickness))
    for cell in product(ACID_CLASSES, MEAT_CLASSES, THICKNESSES):
        if cell not in windows:
            raise CatalogueError(file, len(windows) + 1, "acid_class", f"no window for {', '.join(cell)}")
    return windows


def read_names(
    text: str, ingredients: Mapping[str, Ingredient], file: str = "names.csv"
) -> Mapping[str, tuple[str, ...]]:
    """Read what people call ingredients, keyed by ingredient; no name may mean two."""
    seen: dict[str, str] = {}

    def build(row: Row) -> tuple[str, tuple[str, ...]]:
        what, names = row.text("what", ingredients), row.words("names")
        for name in names:
            if name in seen:
                raise row.refuse("names", f"“{name}” means {seen[name]} already")
            seen[name] = what
        return what, names

    return MappingProxyType(dict(read_rows(file, text, build, lambda x: x[0]).values()))


def read_counts(
    text: str, grinds: Mapping[str, Grind], sources: Mapping[str, Source], file: str = "counts.csv"
) -> Mapping[tuple[str, str], Count]:
    """Read what one piece weighs, keyed by grind and unit."""

    def build(row: Row) -> Count:
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

    return read_rows(file, text, build, lambda c: (c.grind, c.unit))


def read_packs(
    text: str, ingredients: Mapping[str, Ingredient], sources: Mapping[str, Source], file: str = "packs.csv"
) -> Mapping[tuple[str, str, float], Pack]:
    """Read what is usually in a bottle, can or packet, keyed by ingredient, pack and amount; the usual size first."""

    def build(row: Row) -> Pack:
        return Pack(
            ingredient=row.text("ingredient", ingredients),
            pack=row.required("pack"),
            kind=row.text("kind", ("g", "ml")),
            amount=row.number("amount", 1, 5000),
            source=row.text("source", sources),
        )

    return read_rows(file, text, build, lambda p: (p.ingredient, p.pack, p.amount))


@dataclass(frozen=True)
class Own:
    """What a cook has of their own: grinds, cuts, and names, each with the ingredient or the cut that it means."""

    grinds: tuple[Grind, ...] = ()
    cuts: tuple[Cut, ...] = ()
    names: tuple[tuple[str, str], ...] = ()


NOTHING_OWN = Own()

_own = NOTHING_OWN


def take_own(own: Own) -> None:
    """Take what the cook has of their own into the catalogue, in place of what was in it; a book has one."""
    global _own
    if own is not _own:
        _own = own
        forget_all()


def own_names() -> tuple[tuple[str, str], ...]:
    """Return the cook's own names, each with the ingredient or the cut it means."""
    return _own.names


@while_it_stands(None)
def catalogue() -> Catalogue:
    """Return the whole catalogue: the tables, read once, and what the cook has of their own."""
    tables = shipped()
    if _own == NOTHING_OWN:
        return tables
    cuts = {**tables.cuts, **{cut.key: cut for cut in _own.cuts}}
    for name, means in _own.names:
        if means in cuts:
            cuts[means] = replace(cuts[means], other_names=(*cuts[means].other_names, name))
    ingredients = {**tables.ingredients, **{grind.ingredient.key: grind.ingredient for grind in _own.grinds}}
    grinds = {**tables.grinds, **{grind.key: grind for grind in _own.grinds}}
    return replace(
        tables, ingredients=MappingProxyType(ingredients), grinds=MappingProxyType(grinds), cuts=MappingProxyType(cuts)
    )


@cache
def shipped() -> Catalogue:
    """Return the tables alone, read once: what nobody changes, and own things may be like."""
    tables = resources.files("ravska_core.catalogue") / "data"

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
