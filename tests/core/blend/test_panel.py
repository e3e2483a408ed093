"""A packet's text is read into a label's fields, in US and EU style; what is not there stays empty."""

import pytest
from ravska_core.blend.panel import read_panel

# made up, in the forms of US 21 CFR 101.9 and EU regulation 1169/2011, annex XV (from memory)
US = """Nutrition Facts
About 40 servings per container
Serving size 1/4 tsp (1.2g)
Amount per serving
Calories 0
Total Fat 0.5g 0%
 Saturated Fat 0g
Sodium 310mg 13%
Total Carbohydrate <1g
 Dietary Fiber 0g
 Total Sugars 0g
Protein 0g
INGREDIENTS: Salt, sugar, spices (paprika, cumin), dehydrated garlic.

Keep dry"""
EU = """Average values per 100 g
Energy 900 kJ / 215 kcal
Fat 5,2 g
of which saturates 1,1 g
Carbohydrate 45 g
of which sugars 30 g
Protein 8,0 g
Salt 12,3 g"""


def test_a_us_panel_is_read_with_its_portion_and_its_list():
    found = read_panel(US)
    assert (found.portion, found.rule) == ("1/4 tsp (1.2g)", "us")
    assert (found.sodium, found.salt) == ("310 mg", "")
    assert (found.fat, found.sugars, found.carbohydrate, found.protein) == ("0.5 g", "0 g", "1 g", "0 g")
    assert found.ingredients == "Salt, sugar, spices (paprika, cumin), dehydrated garlic"


def test_an_eu_panel_is_read_for_a_hundred_grams_with_salt_and_commas():
    found = read_panel(EU)
    assert (found.portion, found.rule) == ("100 g", "eu")
    assert (found.sodium, found.salt, found.fat) == ("", "12.3 g", "5.2 g")
    assert (found.sugars, found.carbohydrate, found.protein) == ("30 g", "45 g", "8.0 g")


@pytest.mark.parametrize(
    ("text", "field", "value"),
    [
        ("Per portion (15 ml): energy 90kJ, fat 0.5g, of which sugars 3.2g, salt 1.1g", "portion", "15 ml"),
        ("Serving Size: 2 tbsp (30g) Sodium: 480 mg", "portion", "2 tbsp (30g)"),
        ("Zutaten: Salz.\nNährwerte pro 100 g: Fett 3 g, davon Zucker 7 g, Eiweiß 2 g, Salz 9 g", "sugars", "7 g"),
        ("Fett 3 g, Salz 9 g, Eiweiß 2 g", "protein", "2 g"),
        ("fat free, sodium free", "fat", ""),
        ("", "portion", ""),
        ("a packet of nothing", "salt", ""),
    ],
)  # fmt: skip
def test_what_stands_on_one_line_is_read_too_and_what_does_not_stays_empty(text, field, value):
    assert getattr(read_panel(text), field) == value


def test_a_long_text_is_cut_and_read_in_no_time():
    assert read_panel("salt " * 100_000).salt == ""
