"""What is written and counted, against published tables: weights of one piece, and the terms of schema.org."""

import csv
import importlib.util
import json
import re
from fractions import Fraction
from pathlib import Path

import pytest
from ravska_core.blend import Blend, Line, MethodStep
from ravska_core.catalogue import catalogue
from ravska_core.catalogue.names import _names
from ravska_core.exchange.jsonld import write_jsonld
from recipe_scrapers import scrape_html

ROOT = Path(__file__).resolve().parents[3]

# US national nutrient database, release 28: the measure that stands for one piece, by row
PIECE = {
    "garlic-fresh/crushed clove": ("11215", "clove"),
    "onion-fresh/chopped piece": ("11282", "medium"),
    "spring-onion/chopped piece": ("11291", "medium"),
    "jalapeno/chopped piece": ("11979", "pepper"),
    "chilli-red/chopped piece": ("11819", "pepper"),
    "chilli-green/chopped piece": ("11670", "pepper"),
    "lemon-juice/liquid piece": ("09152", "lemon yields"),
    "lime-juice/liquid piece": ("09160", "lime yields"),
    "orange-juice/liquid piece": ("09206", "fruit yields"),
    "fig/mashed piece": ("09089", "medium"),
    "kiwi/mashed piece": ("09148", "fruit"),
    "anchovy/paste piece": ("15002", "anchovy"),
    "ancho/ground piece": ("11978", "pepper"),
    "pasilla/ground piece": ("11982", "pepper"),
    "dill-fresh/chopped sprig": ("02045", "sprigs"),
    "parsley-fresh/chopped sprig": ("11297", "sprigs"),
    "basil-fresh/chopped leaf": ("02044", "leaves"),
    "butter/melted stick": ("01145", "stick"),
    "date-dried/ground piece": ("09087", "date"),
}


@pytest.fixture(scope="module")
def weights() -> list[list[str]]:
    package = importlib.util.find_spec("usda_nutrition")
    assert package is not None
    assert package.submodule_search_locations is not None
    with (Path(package.submodule_search_locations[0]) / "data/sr28/WEIGHT.txt").open(encoding="latin-1") as rows:
        return list(csv.reader(rows, delimiter="^", quotechar="~"))


COUNTS = _names().counts


@pytest.mark.parametrize("key", [key for key, row in COUNTS.items() if row.source == "counts-usda"])
def test_one_piece_weighs_what_the_us_database_says(weights, key):
    food, measure = PIECE[" ".join(key)]
    found = [float(r[4]) / float(r[2]) for r in weights if r[0] == food and measure in r[3]]
    assert found, f"{food} has no {measure}"
    row = COUNTS[key]
    assert any(row.low * 0.85 <= grams <= row.high * 1.15 for grams in found), found


def test_the_recipe_file_speaks_only_terms_that_schema_org_publishes():
    # schema-dts carries schema.org's vocabulary as TypeScript
    terms = (ROOT / "web/node_modules/schema-dts/dist/schema.d.ts").read_text()

    def properties(kind: str) -> set[str]:
        """Return the properties of a type and of those it is a kind of."""
        found: set[str] = set()
        base = re.search(rf"interface {kind}(?:Base|Leaf) extends ([^{{]+){{(.*?)\n}}", terms, re.DOTALL)
        assert base, f"schema.org has no {kind}"
        found |= set(re.findall(r'"(\w+)"\?:', base[2]))
        for parent in re.findall(r"(\w+)Base", base[1]):
            if parent != kind:
                found |= properties(parent)
        return found

    blend = Blend(
        "glaze",
        (Line("honey/liquid", Fraction(2), "spoon"), Line("cider-vinegar/liquid", Fraction(1), "spoon")),
        120.0,
        "Weir glaze",
        "indirect",
        (MethodStep("simmer", by=0.25, lasts_s=300.0),),
    )
    document = json.loads(write_jsonld(blend, exact="{}"))
    assert document["@context"] == "https://schema.org"
    held = document["yield"]["additionalProperty"][0]
    for part in (document, document["nutrition"], document["yield"], held, *document["recipeInstructions"]):
        assert {key for key in part if not key.startswith("@")} <= properties(part["@type"])
    # sodium of 100 g by hand: honey 4 mg and cider vinegar 5 mg in 100 g
    sodium = float(document["nutrition"]["sodiumContent"].split(" ")[0])
    assert sodium < 10
    assert {line.ingredient.key for line in catalogue().grinds.values()} >= {"honey"}


def test_a_general_recipe_reader_that_is_not_ours_reads_what_goes_out_whole():
    # recipe-scrapers, version as locked, reads the schema.org data of any page
    blend = Blend(
        "glaze",
        (Line("honey/liquid", Fraction(2), "spoon"), Line("cider-vinegar/liquid", Fraction(1), "spoon")),
        120.0,
        "Weir glaze",
        "indirect",
        (MethodStep("mix", (0, 1)), MethodStep("simmer", by=0.25, lasts_s=300.0)),
    )
    script = write_jsonld(blend, exact="{}").replace("</", "<\\/")
    page = f'<html><head><script type="application/ld+json">{script}</script></head><body></body></html>'
    read = scrape_html(page, org_url="https://kitchen.example/weir", supported_only=False)
    assert read.title() == "Weir glaze"
    assert read.category() == "glaze"
    first, second = read.ingredients()
    # by hand: 120 g of two parts honey at 1.434 g/ml and one of vinegar at 1.010: 88.8 g and 31.2 g
    assert re.fullmatch(r"¼ cup \+ .* honey \(8[89](\.\d)? g\)", first)
    assert re.fullmatch(r"2 tbsp \+? ?.*cider vinegar \(31(\.\d)? g\)|.*cider vinegar \(31(\.\d)? g\)", second)
    steps = read.instructions_list()
    assert len(steps) == 2
    assert steps[1].startswith("Simmer")
    assert read.nutrients()["servingSize"].startswith("1 tbsp (")
    # one without a method has steps all the same
    bare = write_jsonld(Blend("dry rub", (Line("cumin/ground", Fraction(1), "spoon"),), 20.0))
    page = f'<html><head><script type="application/ld+json">{bare}</script></head><body></body></html>'
    assert scrape_html(page, org_url="https://kitchen.example", supported_only=False).instructions_list()
