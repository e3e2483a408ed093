"""Lists, recipes and labels over the API: shown first, asked about, never half-saved; blends taken out and back in."""

import json

import pytest
from book.models import Blend, Revision

LIST = """For the shoulder:
2 tbsp smoked paprika
1 tbsp papirka
salt to taste
a small handful of thyme
2 tbsp Weir House lamb rub
1 tsp unicorn dust"""


def items(found: dict) -> list[dict]:
    return [item for line in found["lines"] for item in line["items"]]


def test_a_list_is_asked_about_line_by_line_until_a_blend_can_be_made(api, book):
    before = Blend.objects.count()
    status, found = api("POST", "blends/bring", {"text": LIST})
    assert status == 200
    assert [line["status"] for line in found["lines"]] == [
        "heading", "understood", "what", "how much", "understood", "understood", "what",
    ]  # fmt: skip
    assert found["asked"] == 3
    assert found["made"] == []
    assert [line["text"] for line in found["lines"]] == LIST.split("\n")  # nothing is dropped
    answers = [
        {"line": 2, "grind": items(found)[1]["closest"][0]["grind"]},
        {"line": 3, "amount": "2 tsp"},
        {"line": 6, "leave_out": True},
    ]
    found = api("POST", "blends/bring", {"text": LIST, "answers": answers})[1]
    assert found["asked"] == 0
    assert items(found)[-1]["status"] == "left out"
    assert [line["parts"] for line in found["made"]] == ["6", "3", "2", "5.07", "6"]
    assert found["made"][3]["error"] == "40"
    assert found["made"][3]["said"] == "a small handful"
    assert found["made"][4]["blend"] == str(Blend.objects.get(name="Weir House lamb rub").pk)
    assert Blend.objects.count() == before  # only shown
    made = {"name": "From a list", "kind": found["kind"], "batch": found["batch"], "lines": found["made"]}
    status, blend = api("POST", "blends", made)
    assert status == 201
    assert blend["reading"]["lines"][3]["share"]["high"] > blend["reading"]["lines"][3]["share"]["value"] * 1.2


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"answers": [{"line": 2, "grind": "pixie/dust"}]}, "answers.0.grind"),
        ({"answers": [{"line": 3, "amount": "heaps"}]}, "answers.0.amount"),
        ({"text": ""}, "text"),
        ({"text": '{"@type": "Recipe", '}, "text"),
        ({"text": "x" * 400_001}, "text"),
        ({"format": "cuneiform"}, "format"),
    ],
)
def test_what_cannot_be_read_is_refused_at_its_field_and_the_book_stays(api, book, change, field):
    before = Revision.objects.count()
    status, problem = api("POST", "blends/bring", {"text": LIST} | change)
    assert status == 422
    assert problem["errors"][0]["field"] == field
    assert Revision.objects.count() == before


KEPT = ("kind", "fire", "batch", "lines", "written", "base", "total", "targets", "method", "label")


def test_blends_of_the_book_are_taken_out_and_brought_back_exactly(api, book):
    """Every blend of the demo book, in every format: ratio, locks, bounds, targets, label and method, to the last."""
    for row in Blend.objects.filter(deleted_at__isnull=True):
        stored = api("GET", f"blends/{row.pk}")[1]
        for kind in ("jsonld", "csv", "markdown"):
            answer = api.client.get(f"/api/blends/{row.pk}/take-out/{kind}")
            assert answer.status_code == 200
            assert answer["Content-Disposition"].startswith("attachment")
            found = api("POST", "blends/bring", {"text": answer.content.decode()})[1]
            assert (found["name"], found["kind"], found["asked"], found["problems"]) == (row.name, row.kind, 0, [])
            assert {key: found["exact"][key] for key in KEPT} == {key: stored[key] for key in KEPT}
            status, again = api("POST", "blends", found["exact"] | {"name": f"{row.name} again"})
            assert status == 201
            if stored["reading"]:
                assert again["reading"]["salt"] == stored["reading"]["salt"]
            api("POST", f"blends/{again['id']}/delete", {"version": again["version"]})


def test_a_lock_a_target_and_a_typed_bound_go_out_and_come_back_and_a_changed_line_is_read_as_it_stands(api, book):
    row = Blend.objects.get(name="Weir House lamb rub")
    stored = api("GET", f"blends/{row.pk}")[1]
    stored["lines"][0] |= {"lock": "share", "least": "10", "most": "60", "swap": "kosher-dense/flake"}
    stored["targets"] = [{"what": "salt", "low": "20", "high": "30"}]
    status, saved = api("PUT", f"blends/{row.pk}", stored)
    assert status == 200, saved
    text = api.client.get(f"/api/blends/{row.pk}/take-out/jsonld").content.decode()
    exact = api("POST", "blends/bring", {"text": text})[1]["exact"]
    assert exact["lines"][0] == saved["lines"][0]
    assert exact["targets"] == saved["targets"]
    # a correction on the page, or a change of the file, is of the text: the exact ratio does not count any more
    answered = {"text": text, "answers": [{"line": 0, "amount": "1 tbsp"}]}
    assert api("POST", "blends/bring", answered)[1]["exact"] is None
    changed = api("POST", "blends/bring", {"text": text.replace(" g)", " g) ", 1)})[1]
    assert changed["exact"] == exact  # white space is no change
    name = json.loads(text)["recipeIngredient"][1]
    changed = api("POST", "blends/bring", {"text": text.replace(name, "2 tbsp cayenne", 1)})[1]
    assert changed["exact"] is None
    assert any("changed since" in note for note in changed["notes"])


def test_a_blend_that_lies_inside_is_found_in_another_book_by_its_name(api, book):
    glaze = Blend.objects.get(name="Lamb rub and honey glaze")
    text = api.client.get(f"/api/blends/{glaze.pk}/take-out/markdown").content.decode()
    rub = Blend.objects.get(name="Weir House lamb rub")
    elsewhere = text.replace(str(rub.pk), "00000000-0000-4000-8000-000000000001")
    found = api("POST", "blends/bring", {"text": elsewhere})[1]
    assert str(rub.pk) in [line["blend"] for line in found["exact"]["lines"]]
    Blend.objects.filter(pk=rub.pk).update(name="Another name")
    found = api("POST", "blends/bring", {"text": elsewhere})[1]
    assert found["exact"] is None
    assert any("is not in this book" in note for note in found["notes"])
    assert found["asked"] == 1


LABEL = {"portion": "1.2 g", "sodium": "310 mg", "sugars": "0 g"}


def test_a_bought_blend_is_entered_from_its_label_and_its_doubt_follows_it(api, book):
    words = "Salt, wizard root, sugar, contains 2 % or less of: silicon dioxide"
    found = api("POST", "blends/label", {"label": LABEL, "ingredients": words})[1]
    assert found["unknown"] == 1
    assert found["reading"] is None
    chosen = {"wizard root": "spices-unnamed/ground"}
    found = api("POST", "blends/label", {"label": LABEL, "ingredients": words, "chosen": chosen})[1]
    assert found["unknown"] == 0
    assert found["label"]["minor_from"] == 3
    share = found["names"][1]["share"]
    assert share["low"] < share["value"] < share["high"]
    body = {"name": "Chandlery rub", "kind": "dry rub", "batch": "100 g", "lines": found["lines"],
            "written": "percent", "total": "fixed", "label": found["label"]}  # fmt: skip
    status, bought = api("POST", "blends", body)
    assert status == 201
    salt = bought["reading"]["salt"]
    assert salt["high"] - salt["low"] > 10
    assert "label-only" in {caution["id"] for caution in bought["reading"]["cautions"]}
    # it is kept with its blend, in revisions too, and its lines follow the panel
    kept = api("POST", f"blends/{bought['id']}/keep", {"version": bought["version"], "note": ""})[1]
    assert kept["label"] == found["label"]
    kept["label"]["sodium"] = "200 mg"
    status, saltless = api("PUT", f"blends/{bought['id']}", kept)
    assert status == 200
    assert "reading" not in saltless  # a save computes none
    read = api("POST", "blends/read", saltless)[1]
    assert read["salt"]["value"] < salt["value"] * 0.75
    assert saltless["lines"][0]["parts"] != bought["lines"][0]["parts"]
    sauce = {"name": "With it", "kind": "glaze", "batch": "100 g",
             "lines": [{"blend": bought["id"], "parts": "1"}, {"grind": "honey/liquid", "parts": "4"}]}  # fmt: skip
    read = api("POST", "blends/read", sauce)[1]["salt"]
    assert "label of Chandlery rub" in read["error"]
    unfold = sauce | {"do": "unfold", "line": 0}
    assert api("POST", "blends/rework", unfold)[0] == 422


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"label": LABEL | {"sodium": "3 g"}}, "label.sodium"),
        ({"label": LABEL | {"portion": ""}}, "label.portion"),
        ({"label": LABEL | {"fat": "much"}}, "label.fat"),
        ({"ingredients": ""}, "ingredients"),
    ],
)
def test_a_panel_that_cannot_be_is_refused_at_its_field(api, book, change, field):
    document = {"label": LABEL, "ingredients": "salt, sugar"} | change
    status, problem = api("POST", "blends/label", document)
    assert status == 422
    assert problem["errors"][0]["field"] == field


def test_an_amount_by_eye_is_typed_on_the_bench(api, rub):
    document = api("GET", f"blends/{rub.pk}")[1]
    status, found = api("POST", "blends/rework", document | {"do": "set", "line": 4, "parts": "small handful"})
    assert status == 200
    line = found["lines"][4]
    assert (line["said"], line["error"]) == ("small handful", "40")
    assert float(line["parts"]) == pytest.approx(25 / 14.787, abs=0.01)  # a spoon is a tablespoon then
    wide = found["reading"]["lines"][4]["share"]
    assert wide["high"] / wide["value"] > 1.3
    again = document | {"lines": found["lines"], "do": "set", "line": 5, "parts": "same again"}
    same = api("POST", "blends/rework", again)[1]["lines"][5]
    assert float(same["parts"]) == pytest.approx(float(line["parts"]), abs=0.01)
    assert float(same["error"]) > 40
    plain = api("POST", "blends/rework", again | {"line": 4, "parts": "2"})[1]["lines"][4]
    assert (plain["parts"], plain["error"], plain["said"]) == ("2", "", "")
    status, problem = api("POST", "blends/rework", document | {"do": "set", "line": 4, "parts": "oodles"})
    assert (status, problem["errors"][0]["field"]) == (422, "lines.4.parts")


def test_a_method_is_kept_with_its_revision_and_refused_at_its_step(api, book):
    glaze = Blend.objects.get(name="Lamb rub and honey glaze")
    document = api("GET", f"blends/{glaze.pk}")[1]
    document["method"][1]["by"] = "by a lot"
    status, problem = api("PUT", f"blends/{glaze.pk}", document)
    assert (status, problem["errors"][0]["field"]) == (422, "method.1.by")
    document["method"][1]["by"] = "by 90 %"
    status, problem = api("PUT", f"blends/{glaze.pk}", document)
    assert (status, problem["errors"][0]["field"]) == (422, "method.1.by")
    assert "at most" in problem["detail"]
    document["method"][1]["by"] = "by 10 %"
    assert api("PUT", f"blends/{glaze.pk}", document)[0] == 200
    version = document["version"] + 1
    first = api("POST", f"blends/{glaze.pk}/keep", {"version": version, "note": "thin"})[1]
    first["method"][1]["by"] = "by a third"
    later = api("PUT", f"blends/{glaze.pk}", first)[1]
    second = api("POST", f"blends/{glaze.pk}/keep", {"version": later["version"], "note": "thick"})[1]
    assert second["kept"] == first["kept"] + 1  # only the method changed, which is a change
    kept = Revision.objects.get(pk=first["before"]["id"])
    assert kept.method["typed"][1]["by"] == "by 10 %"
    assert kept.method["value"][1]["by"] == pytest.approx(0.1)
    usual = api("POST", "blends/usual-method", second)[1]
    assert [step["do"] for step in usual][-1] == "simmer"


def test_spoons_say_what_they_make_of_a_batch_and_which_suits_them(api, rub):
    document = api("GET", f"blends/{rub.pk}")[1]
    found = api("POST", "blends/spoons", document)[1]
    assert found["batch_g"] == 60
    assert max(abs(line["spoons"]["error"]) for line in found["lines"]) == pytest.approx(found["worst"])
    best = api("POST", "blends/spoons", document | {"low": "40 g", "high": "4 oz"})[1]
    assert 40 <= best["batch_g"] <= 113.5
    assert best["worst"] <= found["worst"]
    status, problem = api("POST", "blends/spoons", document | {"low": "90 g", "high": "40 g"})
    assert (status, problem["errors"][0]["field"]) == (422, "high")


@pytest.mark.parametrize("text", ["salt, \x00", "salt\x07, pepper"])
def test_a_label_with_what_cannot_be_written_is_refused_at_its_field(api, book, text):
    document = {"label": {"portion": "1 g", "sodium": "100 mg"}, "ingredients": text}
    status, problem = api("POST", "blends/label", document)
    assert (status, problem["errors"][0]["field"]) == (422, "ingredients")
    assert "cannot be written" in problem["errors"][0]["sentence"]


SPOKEN = """two tablespoons of kosher salt, divided
¼ cup butter or ghee
2 tsp quuxed paprika
a bottle of beer
a third as much cumin as that"""


def test_a_spoken_list_marks_what_it_did_not_use_and_keeps_the_swap_the_uses_and_the_usual_sizes(api, book):
    found = api("POST", "blends/bring", {"text": SPOKEN})[1]
    salt, butter, paprika, beer, cumin = (line["items"][0] for line in found["lines"])
    # by hand: 2 tbsp are 29.57 ml, dense flake is 5 g a teaspoon of 4.929 ml: 30 g
    assert (salt["status"], salt["weighs"], salt["spoons"]) == ("understood", "30 g", "2 tbsp")
    assert salt["uses"] == ["the rest of it, divided"]
    assert [choice["grind"] for choice in butter["closest"]][:2] == ["butter/melted", "ghee/melted"]
    text = SPOKEN.split("\n")[2]
    assert [text[begins:ends] for begins, ends in paprika["unread"]] == ["quuxed"]
    assert (paprika["weighs"], beer["usual"]) == ("", ["355 ml", "500 ml"])
    assert cumin["status"] == "what"  # "as that" was not used
    answers = [
        {"line": 1, "grind": "ghee/melted"}, {"line": 2, "grind": "paprika/powder"},
        {"line": 3, "amount": "500 ml"}, {"line": 4, "grind": "cumin/ground"},
    ]  # fmt: skip
    found = api("POST", "blends/bring", {"text": SPOKEN, "answers": answers})[1]
    assert (found["asked"], found["kind"]) == (0, "marinade")
    assert found["made"][1]["swap"] == "butter/melted"
    assert found["uses"] == [{"name": "The rest of it, divided: kosher salt, dense flake", "of": "", "mass": ""}]
    made = {key: found[key] for key in ("kind", "batch", "uses", "written")} | {"name": "Said", "lines": found["made"]}
    status, blend = api("POST", "blends", made)
    assert status == 201, blend
    swaps = api("POST", "blends/swaps", blend | {"line": 1})[1]
    assert (swaps[0]["kind"], swaps[0]["line"]["grind"]) == ("named", "butter/melted")
    shared = api("POST", "blends/share-out", blend)[1]
    assert "How much of it?" in shared["uses"][0]["sentence"]
    # a kept revision and what branches off it hold the swap as well
    assert api("GET", f"blends/{blend['id']}")[1]["lines"][1]["swap"] == "butter/melted"


def test_the_kind_is_worked_out_anew_with_every_correction_and_one_clove_makes_no_marinade(api, book):
    rub = "2 tbsp salt\n2 tbsp pepper\n1 tbsp paprika\n1 clove garlic\n1 tbsp blorp"
    found = api("POST", "blends/bring", {"text": rub})[1]
    assert found["kind"] == "dry rub"
    answer = {"line": 4, "grind": "olive-oil/liquid"}
    assert api("POST", "blends/bring", {"text": rub, "answers": [answer]})[1]["kind"] == "paste"
    wet = answer | {"grind": "cider-vinegar/liquid", "amount": "1 cup"}
    assert api("POST", "blends/bring", {"text": rub, "answers": [wet]})[1]["kind"] == "marinade"


def test_the_box_finds_whole_words_before_beginnings_before_insides_and_takes_an_amount_with_the_name(api, book):
    def look(text: str) -> dict:
        return api("POST", "blends/find", {"text": text})[1]

    apple = look("apple juice")["found"]
    assert (apple[0]["key"], apple[0]["sure"]) == ("apple-juice/liquid", True)
    inside = next(one for one in apple if one["key"].startswith("pineapple"))
    assert (inside["rank"], inside["sure"]) == ("inside", False)
    salt = look("2 tbsp salt")
    assert (salt["amount"], salt["found"][0]["key"]) == ("2 tbsp", "table-salt/fine")
    misspelt = look("papirka")["found"][0]
    assert (misspelt["key"], misspelt["sure"]) == ("paprika/powder", False)
    assert look("weir house la")["found"][0]["blend"] == str(Blend.objects.get(name="Weir House lamb rub").pk)
    assert not any("curing" in one["key"] for one in look("pink salt")["found"])
    assert look("curing salt")["found"][0]["key"] == "curing-salt/fine"
    assert look("   ")["found"] == []


def test_an_amount_put_into_a_batch_grows_it_by_what_it_weighs_and_leaves_the_others(api, book):
    """By hand: 2 tbsp of table salt are 29.57 ml at 6 g a teaspoon, 36 g; then 2 tsp of cumin at 2.1 g, 4.2 g."""
    blank = {"name": "By spoon", "kind": "dry rub", "batch": "100 g", "lines": []}
    status, salted = api("POST", "blends/rework", blank | {"do": "add", "grind": "table-salt/fine", "amount": "2 tbsp"})
    assert status == 200, salted
    assert (salted["batch"], salted["lines"][0]["parts"], salted["lines"][0]["said"]) == ("36 g", "2", "2 tbsp")
    now = blank | {key: salted[key] for key in ("batch", "lines", "written", "total")}
    both = api("POST", "blends/rework", now | {"do": "add", "grind": "cumin/ground", "amount": "2 tsp"})[1]
    assert both["batch"] == "40.2 g"
    assert [line["parts"] for line in both["lines"]] == ["2", "⅔"]
    assert both["reading"]["lines"][0]["mass"]["value"] == pytest.approx(36, rel=0.001)
    # weighed, and by eye with its doubt
    now = blank | {key: both[key] for key in ("batch", "lines", "written", "total")}
    grams = api("POST", "blends/rework", now | {"do": "add", "grind": "white-sugar/granulated", "amount": "10 g"})[1]
    assert grams["reading"]["lines"][2]["mass"]["value"] == pytest.approx(10, rel=0.001)
    eyed = api("POST", "blends/rework", now | {"do": "add", "grind": "cayenne/powder", "amount": "a pinch"})[1]
    assert float(eyed["lines"][2]["error"]) == 40
    # with a fixed total it gets the share it then has
    percent = api("POST", "blends/rework", now | {"do": "write", "to_written": "percent"})[1]
    fixed = now | {key: percent[key] for key in ("lines", "written", "total", "base")}
    more = api("POST", "blends/rework", fixed | {"do": "add", "grind": "cumin/whole", "amount": "10 g"})[1]
    assert more["reading"]["lines"][2]["mass"]["value"] == pytest.approx(10, rel=0.002)
    for amount, field in (("heaps", "amount"), ("20 %", "amount"), ("2000 kg", "amount")):
        status, problem = api("POST", "blends/rework", now | {"do": "add", "grind": "cumin/whole", "amount": amount})
        assert (status, problem["errors"][0]["field"]) == (422, field)
