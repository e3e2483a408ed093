"""The catalogue against published portion weights, and rows that cannot be right."""

import pytest
from builders import blend
from ravska_core.blend import KINDS, read_blend
from ravska_core.catalogue import SODIUM_IN_NACL, catalogue
from ravska_core.catalogue.row import CatalogueError
from ravska_core.catalogue.rows import PORTION_ML
from ravska_core.catalogue.tables import read_ingredients, read_starters

# US national nutrient database portion weights, from memory, g in a level measure; within 5 %
PORTIONS = {
    ("table-salt/fine", "tsp"): 6.0,
    ("table-salt/fine", "cup"): 292,
    ("black-pepper/ground", "tsp"): 2.3,
    ("paprika/powder", "tsp"): 2.3,
    ("garlic-granulated/powder", "tsp"): 3.1,
    ("onion-granulated/powder", "tsp"): 2.4,
    ("cayenne/powder", "tsp"): 1.8,
    ("brown-sugar/packed", "cup"): 220,
    ("honey/liquid", "cup"): 339,
    ("soy-sauce/liquid", "tbsp"): 16,
    ("cider-vinegar/liquid", "cup"): 239,
    # common practice, no source
    ("kosher-light/flake", "cup"): 135,
    ("kosher-dense/flake", "cup"): 240,
}


@pytest.mark.parametrize(("key", "portion"), PORTIONS)
def test_level_measures_weigh_what_the_published_portions_do(key, portion):
    grams = catalogue().grinds[key].density_g_ml * PORTION_ML[portion]
    assert grams == pytest.approx(PORTIONS[key, portion], rel=0.05)


def test_sodium_agrees_with_the_published_figures_and_the_molar_masses():
    # molar masses: IUPAC abridged standard atomic weights
    assert pytest.approx(0.3934, abs=5e-5) == SODIUM_IN_NACL
    # US national nutrient database, mg in 100 g, from memory
    for key, sodium_mg in {"table-salt": 38_758, "soy-sauce": 5_493, "worcester-type": 980}.items():
        found = catalogue().ingredients[key]
        assert found.sodium * 100_000 == pytest.approx(sodium_mg, rel=0.001)
        assert found.nacl * SODIUM_IN_NACL == pytest.approx(found.sodium, rel=0.01)


def test_the_catalogue_names_a_source_everywhere():
    found = catalogue()
    assert len(found.cuts) >= 45
    assert {grind.ingredient.key for grind in found.grinds.values()} == set(found.ingredients)
    rows = (found.ingredients, found.grinds, found.swaps, found.cuts)
    for row in (row for table in rows for row in table.values()):
        assert row.source in found.sources


GOOD = {
    "key": "a", "name": "A", "family": "spice", "code": "", "nacl": "0", "sodium_mg_100g": "0", "sugars": "0",
    "fat": "0", "water": "0", "acid": "0", "acid_kind": "", "scoville": "0", "bite": "0", "glutamate": "0",
    "smoke": "0", "herb": "0", "scorch_c": "", "keeps_days": "365", "price_100g": "1",
    "colour": "#aaaaaa", "allergens": "", "flags": "",
    "source": "estimate",
}  # fmt: skip


def test_there_is_a_ratio_to_begin_every_kind_of_blend_with_and_each_can_be_mixed():
    starters = catalogue().starters.values()
    assert {starter.kind for starter in starters} == set(KINDS)
    for starter in starters:
        reading = read_blend(blend(*starter.lines, kind=starter.kind))
        assert reading.salt.value < 90, starter.name
    bad = "kind,name,says,lines,source\ndry rub,A,b,table-salt/fine:1:bucket,trade"
    with pytest.raises(CatalogueError) as refusal:
        read_starters(bad, catalogue().grinds, catalogue().sources)
    assert (refusal.value.line, refusal.value.column) == (2, "lines")


HEAD = ",".join(GOOD) + "\n"


def row_of(**change: str) -> str:
    return ",".join((GOOD | change).values())


@pytest.mark.parametrize(
    ("row", "line", "column"),
    [
        (row_of(nacl="nought"), 2, "nacl"),
        (row_of(water="1.4"), 2, "water"),
        (row_of(sugars="0.6", fat="0.6"), 2, "water"),
        (row_of(nacl="0.9", sodium_mg_100g="10"), 2, "sodium_mg_100g"),
        (row_of(nacl="nan"), 2, "nacl"),
        (row_of(acid="0.1"), 2, "acid_kind"),
        (row_of(colour="red"), 2, "colour"),
        (row_of(allergens="lupin"), 2, "allergens"),
        (row_of(scorch_c="20"), 2, "scorch_c"),
        (row_of(bite="11"), 2, "bite"),
        (row_of(keeps_days="0"), 2, "keeps_days"),
        (row_of(source="hearsay"), 2, "source"),
        (row_of() + "\n" + row_of(), 3, "key"),
        ("a,A,spice,,0,0,0", 2, "source"),
    ],
)
def test_a_bad_row_names_its_file_line_and_column(row, line, column):
    with pytest.raises(CatalogueError) as bad:
        read_ingredients(HEAD + row, catalogue().sources)
    assert (bad.value.file, bad.value.line, bad.value.column) == ("ingredients.csv", line, column)
    assert f"ingredients.csv, line {line}, column {column}" in str(bad.value)
