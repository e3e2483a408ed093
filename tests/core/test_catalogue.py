"""The catalogue against published portion weights, and rows that cannot be right."""

import pytest
from ravska_core import catalogue as tables
from ravska_core.catalogue import PORTION_ML, SODIUM_IN_NACL, CatalogueError, catalogue

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


def test_the_first_catalogue_is_large_enough_and_names_a_source_everywhere():
    found = catalogue()
    assert len(found.ingredients) >= 60
    assert len(found.cuts) >= 20
    assert {grind.ingredient.key for grind in found.grinds.values()} == set(found.ingredients)
    for row in (*found.ingredients.values(), *found.grinds.values(), *found.cuts.values()):
        assert row.source in found.sources


HEAD = "key,name,family,nacl,sodium_mg_100g,sugars,fat,water,acid,acid_kind,colour,allergens,flags,source\n"


@pytest.mark.parametrize(
    ("row", "line", "column"),
    [
        ("a,A,spice,nought,0,0,0,0,0,,#aaaaaa,,,usda", 2, "nacl"),
        ("a,A,spice,0,0,0,0,1.4,0,,#aaaaaa,,,usda", 2, "water"),
        ("a,A,spice,0,0,0.6,0.6,0,0,,#aaaaaa,,,usda", 2, "water"),
        ("a,A,spice,0.9,10,0,0,0,0,,#aaaaaa,,,usda", 2, "sodium_mg_100g"),
        ("a,A,spice,nan,0,0,0,0,0,,#aaaaaa,,,usda", 2, "nacl"),
        ("a,A,spice,0,0,0,0,0,0.1,,#aaaaaa,,,usda", 2, "acid_kind"),
        ("a,A,spice,0,0,0,0,0,0,,red,,,usda", 2, "colour"),
        ("a,A,spice,0,0,0,0,0,0,,#aaaaaa,peanut,,usda", 2, "allergens"),
        ("a,A,spice,0,0,0,0,0,0,,#aaaaaa,,,hearsay", 2, "source"),
        ("a,A,spice,0,0,0,0,0,0,,#aaaaaa,,,usda\na,A,spice,0,0,0,0,0,0,,#aaaaaa,,,usda", 3, "key"),
        ("a,A,spice,0,0,0", 2, "source"),
    ],
)
def test_a_bad_row_names_its_file_line_and_column(row, line, column):
    with pytest.raises(CatalogueError) as bad:
        tables.read_ingredients(HEAD + row, catalogue().sources)
    assert (bad.value.file, bad.value.line, bad.value.column) == ("ingredients.csv", line, column)
    assert f"ingredients.csv, line {line}, column {column}" in str(bad.value)
