"""Ingredients of one's own: from a label, from amounts, as another with changes; used everywhere, pinned, retired."""

import pytest
from book.models import Blend, OwnIngredient
from ravska_core.blend import read_blend
from test_cook_api import as_sent, opened, saved

# a packet that is made up: 100 g hold 12 g salt, 30 g sugars, 45 g carbohydrate, 5 g fat, 8 g protein
PACKET = {
    "name": "Chandlery dust", "made_from": "label", "portion": "100 g", "salt": "12 g", "sugars": "30 g", "fat": "5 g",
    "carbohydrate": "45 g", "protein": "8 g", "spoon": "tbsp", "spoon_mass": "9 g", "allergens": ["celery"],
}  # fmt: skip


def made(api, **change) -> dict:
    status, own = api("POST", "shelf/own-ingredients", PACKET | change)
    assert status == 201, own
    return own


def rub_of(api, own: dict, name: str = "Dust rub") -> dict:
    lines = [{"grind": own["key"], "parts": "1", "basis": "spoon"},
             {"grind": "paprika/powder", "parts": "1", "basis": "spoon"}]  # fmt: skip
    status, blend = api("POST", "blends", {"name": name, "kind": "dry rub", "batch": "100 g", "lines": lines})
    assert status == 201, blend
    return blend


def test_one_from_a_label_is_used_like_any_other_from_the_box_to_the_salt_of_a_blend(api, book):
    own = made(api)
    # by hand: 12 % salt, and 100 - 12 - 45 - 5 - 8 leaves 30 % water
    assert [own["reads"][key] for key in ("salt", "sugars", "fat", "water")] == pytest.approx([12, 30, 5, 30])
    assert own["reads"]["density_g_ml"] == pytest.approx(9 / 14.78676, rel=1e-5)
    found = api("POST", "blends/find", {"text": "2 tbsp chandlery du"})[1]
    assert (found["found"][0]["key"], found["amount"]) == (own["key"], "2 tbsp")
    (line,) = api("POST", "blends/bring", {"text": "3 tbsp of the Chandlery dust"})[1]["lines"]
    assert (line["items"][0]["grind"], line["items"][0]["weighs"]) == (own["key"], "27 g")
    blend = rub_of(api, own)
    # a tablespoon of it is 9 g with 1.08 g salt, one of paprika 6.9 g with next to none: 6.8 % of 15.9 g
    assert blend["reading"]["salt"]["value"] == pytest.approx(1.08 / 15.9 * 100, rel=0.002)
    # the doubt of a label goes with it, and so do its allergens
    assert blend["reading"]["salt"]["high"] > blend["reading"]["salt"]["value"] * 1.15
    assert "celery" in blend["reading"]["allergens"]
    # it keeps six weeks, and so does what it is in
    keeping = made(api, name="Lock dust", carbohydrate="75 g", keeps="6 weeks")
    keeps = rub_of(api, keeping, "Lock rub")["reading"]["keeping"]["days"]
    assert keeps == 42
    assert any(grind["key"] == own["key"] for grind in api("GET", "shelf/catalogue")[1]["grinds"])


def test_a_change_moves_drafts_and_leaves_kept_revisions_as_they_were_read(api, book):
    own = made(api)
    blend = rub_of(api, own)
    before = blend["reading"]["salt"]["value"]
    assert api("POST", f"blends/{blend['id']}/keep", {"version": blend["version"], "note": ""})[0] == 200
    status, saltier = api(
        "PUT", f"shelf/own-ingredients/{own['id']}", PACKET | {"salt": "24 g", "version": own["version"]}
    )
    assert status == 200, saltier
    after = api("GET", f"blends/{blend['id']}")[1]
    assert after["reading"]["salt"]["value"] == pytest.approx(2 * before, rel=0.002)
    kept = Blend.objects.get(pk=blend["id"]).revisions.get(number=1)
    assert read_blend(kept.blend.as_core(kept)).salt.value == pytest.approx(before)
    # a second window that has not seen the change is told
    stale = api("PUT", f"shelf/own-ingredients/{own['id']}", PACKET | {"version": own["version"]})
    assert stale[0] == 409


def test_one_in_use_is_retired_and_says_where_it_is_and_one_that_is_not_is_deleted_and_comes_back(api, book):
    own, other = made(api), made(api, name="Towpath dust")
    blend = rub_of(api, own)
    retired = api("POST", f"shelf/own-ingredients/{own['id']}/remove", {"version": own["version"]})[1]
    assert (retired["retired"], retired["used_in"]) == (True, ["Dust rub"])
    assert not any(
        one["key"] == own["key"] for one in api("POST", "blends/find", {"text": "chandlery dust"})[1]["found"]
    )
    assert api("GET", f"blends/{blend['id']}")[1]["reading"]["salt"] == blend["reading"]["salt"]
    api("POST", f"shelf/own-ingredients/{other['id']}/remove", {"version": other["version"]})
    assert [one["name"] for one in api("GET", "shelf/own-ingredients")[1]] == ["Chandlery dust"]
    api("POST", f"shelf/own-ingredients/{other['id']}/restore", {})
    assert [one["name"] for one in api("GET", "shelf/own-ingredients")[1]] == ["Chandlery dust", "Towpath dust"]


def test_one_that_goes_on_a_piece_by_itself_is_in_use_too(api, cook):
    own = made(api, name="Lock salt", made_from="amounts", portion="", carbohydrate="", protein="", salt="98",
               sugars="0", fat="0", allergens=[])  # fmt: skip
    sent = as_sent(opened(api))
    sent["pieces"][0]["layers"][0] |= {"blend_id": None, "revision": None, "grind": own["key"]}
    saved(api, cook.id, sent)
    retired = api("POST", f"shelf/own-ingredients/{own['id']}/remove", {"version": own["version"]})[1]
    assert (retired["retired"], retired["used_in"]) == (True, [cook.name])


def test_one_is_like_another_with_changes_or_from_amounts(api, book):
    like = made(api, name="Salted paprika", made_from="like", like="paprika/powder", spoon_mass="", salt="20",
                **dict.fromkeys(("portion", "sugars", "fat", "carbohydrate", "protein"), ""), allergens=[])  # fmt: skip
    assert like["reads"]["salt"] == pytest.approx(20)
    assert like["reads"]["density_g_ml"] == pytest.approx(2.3 / 4.92892, rel=1e-4)  # as paprika's teaspoon
    assert like["reads"]["sugars"] == pytest.approx(10.34)
    amounts = made(api, name="Lock brine", made_from="amounts", portion="", carbohydrate="", protein="", salt="5",
                   sugars="2", fat="0", water="92", acid="1", wet=True, spoon_mass="15.2 g")  # fmt: skip
    assert amounts["reads"]["acid"] == pytest.approx(1)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": ""}, "name"), ({"name": "Smoked paprika"}, "name"), ({"portion": "much"}, "portion"),
        ({"salt": "a bit"}, "salt"), ({"salt": ""}, "sodium"), ({"salt": "60 g"}, "portion"),
        ({"spoon_mass": ""}, "spoon_mass"), ({"spoon_mass": "90 g"}, "spoon_mass"),
        ({"allergens": ["fear"]}, "allergens"), ({"keeps": "for long"}, "keeps"), ({"keeps": "20 years"}, "keeps"),
        ({"made_from": "like"}, "like"), ({"made_from": "like", "like": "pixie/dust"}, "like"),
        ({"made_from": "amounts", "water": "95", "salt": "30"}, "water"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_said_at_its_field_and_nothing_is_made(api, book, change, field):
    status, problem = api("POST", "shelf/own-ingredients", PACKET | change)
    assert status == 422
    assert field in [error["field"] for error in problem["errors"]]
    assert not OwnIngredient.objects.exists()


def test_ones_own_name_is_understood_and_taken_away_again(api, book):
    def read(text: str) -> str:
        return api("POST", "blends/bring", {"text": text})[1]["lines"][0]["items"][0]["grind"]

    assert read("2 tsp bargee salt") == ""
    assert api("PUT", "shelf/own-names", {"name": "Bargee salt", "means": "sea-salt-flake/flake"})[0] == 200
    assert read("2 tsp bargee salt") == "sea-salt-flake/flake"
    assert api("GET", "shelf/own-names")[1] == [{"name": "bargee salt", "means": "sea-salt-flake"}]
    assert api("PUT", "shelf/own-names", {"name": "x", "means": "pixie"})[0] == 422
    api("PUT", "shelf/own-names", {"name": "Bargee salt", "means": ""})
    assert read("2 tsp bargee salt") == ""
