"""Doses as people have them, over the API: read, kept, shared over pieces, held once they are mixed."""

import pytest
from book.models import Batch, Blend, Jar, Layer
from test_cook_api import as_sent, opened, saved, step


@pytest.fixture
def rub(book) -> Blend:
    return Blend.objects.get(name="Towpath duck rub")


@pytest.fixture
def two(api, rub) -> dict:
    """A cook of two trout, each under the same rub."""
    piece = {"cut": "trout-whole", "mass": "400 g", "blend_id": str(rub.pk), "tasted": False}
    pieces = [piece | {"name": f"Trout {letter}"} for letter in "AB"]
    status, begun = api(
        "POST", "cooks", {"name": "Two trout", "serve_at": "2027-06-12T18:30:00+02:00", "pieces": pieces}
    )
    assert status == 201
    return begun


def dosed(cook: dict, *doses: str) -> dict:
    sent = as_sent(cook)
    for piece, dose in zip(sent["pieces"], doses, strict=True):
        piece["layers"] = [piece["layers"][0] | {"dose": dose}]
    return sent


def read(api, sent: dict, **more) -> list[dict]:
    status, found = api("POST", "cooks/coat/read", {"pieces": sent["pieces"], **more})
    assert status == 200, found
    return found


def jar_of(rub: Blend, grams: float) -> Jar:
    revision = rub.keep("weighed out")
    batch = Batch.objects.create(
        household=rub.household, blend=rub, revision=revision, name=rub.name, wanted_g=grams, state="mixed",
        mixed_at="2027-06-01T10:00:00Z",
    )  # fmt: skip
    return Jar.objects.create(batch=batch, size_ml=250, left_g=grams)


def test_a_dose_is_read_as_it_is_said_and_kept_so(api, two, rub):
    thirty, spooned = read(api, dosed(two, "10 g", "2 tsp"))
    layer = thirty["layers"][0]
    assert layer["dose_g"] == pytest.approx(10)
    assert layer["dose_setting"] == pytest.approx(1000 / thirty["piece"]["coatable"]["value"])
    assert layer["coat"] in ("light", "standard", "heavy", "bark")
    # 2 US tsp are 9.857843 ml
    assert spooned["layers"][0]["dose_g"] == pytest.approx(9.857843 * rub_density(spooned), rel=1e-4)
    left = rub.batch_g - sum(one["layers"][0]["dose_g"] for one in (thirty, spooned))
    assert thirty["marks"][0]["left_g"] == pytest.approx(left)
    kept = saved(api, two["id"], dosed(two, "10 g", "2 tsp"))
    assert [piece["typed"]["layers"][0]["dose"] for piece in kept["pieces"]] == ["10 g", "2 tsp"]
    assert kept["pieces"][0]["reading"]["layers"][0]["dose_g"] == pytest.approx(10)
    assert kept["pieces"][0]["reading"]["salt"]["value"] == pytest.approx(thirty["salt"]["value"], rel=1e-9)


def rub_density(reading: dict) -> float:
    return reading["layers"][0]["dose_g"] / reading["layers"][0]["volume_ml"]


def test_what_is_no_dose_is_said_at_its_field_and_the_other_piece_stands(api, two):
    before = as_sent(two)["pieces"]
    for dose, words in (("3 spoons", "Which spoon"), ("half the jar", "No clean jar"), ("2 kg", "is dosed between")):
        wrong, right = read(api, dosed(two, dose, "10 g"), before=before)
        ((field, sentence),) = [(error["field"], error["sentence"]) for error in wrong["errors"]]
        assert field == "layers.0.dose"
        assert words in sentence
        assert (right["errors"], right["layers"][0]["dose_g"]) == ([], pytest.approx(10))
        sent = dosed(two, dose, "10 g") | {"version": opened_version(api, two)}
        status, kept = api("PUT", f"cooks/{two['id']}", sent)
        assert (status, kept["pieces"][0]["layers"][0]["dose"]) == (200, dose)
        assert [error["field"] for error in kept["errors"]] == ["pieces.0.layers.0.dose"]


def opened_version(api, cook: dict) -> int:
    return api("GET", f"cooks/{cook['id']}")[1]["version"]


def test_more_than_all_of_a_batch_is_said_where_it_becomes_too_much(api, two):
    first, second = read(api, dosed(two, "a fifth of it", "90 % of the batch"), before=as_sent(two)["pieces"])
    assert first["errors"] == []
    ((field, sentence),) = [(error["field"], error["sentence"]) for error in second["errors"]]
    assert field == "layers.0.dose"
    assert "110 % of the batch" in sentence


def test_the_rest_of_the_jar_is_what_the_other_pieces_leave(api, two, rub):
    jar_of(rub, 20.0)
    first, second = read(api, dosed(two, "12 g", "the rest of the jar"))
    assert second["layers"][0]["dose_g"] == pytest.approx(8)
    assert second["marks"][0]["jars_g"] == pytest.approx(20)
    assert first["layers"][0]["dose_g"] + second["layers"][0]["dose_g"] == pytest.approx(20)
    kept = saved(api, two["id"], dosed(two, "12 g", "the rest of the jar"))
    assert kept["pieces"][1]["reading"]["layers"][0]["dose_g"] == pytest.approx(8)
    totals = api("GET", f"cooks/{two['id']}/totals")[1]["blends"][0]
    assert (totals["takes"]["value"], totals["mix"]["value"]) == (pytest.approx(20), 0)


def test_all_of_a_batch_follows_the_batch_until_it_is_mixed(api, two, rub):
    saved(api, two["id"], dosed(two, "a tenth of it", "5 g"))

    def grams() -> float:
        return opened(api)["pieces"][0]["reading"]["layers"][0]["dose_g"]

    api("POST", f"cooks/{two['id']}/take")
    first = grams()
    assert first == pytest.approx(rub.batch_g / 10, rel=0.01)
    Blend.objects.filter(pk=rub.pk).update(batch_g=rub.batch_g * 1.5)
    assert grams() == pytest.approx(first * 1.5)
    mix = step(opened(api), "A", "mix")
    api("POST", f"cooks/{two['id']}/steps/{mix['id']}", {"version": opened(api)["version"], "done": True})
    assert Layer.objects.get(piece__cook=two["id"], piece__letter="A").mixed_g == pytest.approx(first * 1.5)
    Blend.objects.filter(pk=rub.pk).update(batch_g=rub.batch_g)
    assert grams() == pytest.approx(first * 1.5)
    # the document has it too, and keeps it when it is saved again
    document = as_sent(opened(api))
    assert read(api, document)[0]["layers"][0]["dose_g"] == pytest.approx(first * 1.5)
    saved(api, two["id"], document | {"version": opened(api)["version"]})
    assert grams() == pytest.approx(first * 1.5)
    api("POST", f"cooks/{two['id']}/steps/{mix['id']}", {"version": opened(api)["version"], "done": False})
    assert grams() == pytest.approx(first)


def test_a_batch_that_says_what_goes_on_is_not_sized_to_that(api, two, rub):
    saved(api, two["id"], dosed(two, "a tenth of it", "5 g"))
    status, sized = api("POST", f"cooks/{two['id']}/batch", {"blend_id": str(rub.pk)})
    assert (status, sized["batch_g"], sized["version"]) == (200, rub.batch_g, rub.version)


def test_a_blend_inside_another_is_mixed_once_for_both(api, two, rub):
    line = {"blend": str(rub.pk), "grind": "", "parts": "1", "basis": "scale"}
    honey = {"grind": "honey/liquid", "parts": "3", "basis": "scale"}
    glaze = api("POST", "blends", {"name": "Quay glaze", "kind": "glaze", "batch": "100 g", "lines": [line, honey]})[1]
    outer = [{"blend": glaze["id"], "grind": "", "parts": "1", "basis": "scale"}, honey | {"parts": "1"}]
    sauce = api("POST", "blends", {"name": "Quay sauce", "kind": "glaze", "batch": "100 g", "lines": outer})[1]
    sent = dosed(two, "10 g", "6 g")
    sent["pieces"][0]["layers"].append({"kind": "glaze", "blend_id": glaze["id"], "dose": "8 g"})
    sent["pieces"][1]["layers"].append({"kind": "at the table", "blend_id": sauce["id"], "dose": "40 g"})
    saved(api, two["id"], sent)
    totals = {one["name"]: one for one in api("GET", f"cooks/{two['id']}/totals")[1]["blends"]}
    # by hand: 40 g of sauce are half glaze; 8 g and 20 g of glaze a quarter rub; each a little more, for what sticks
    mixed = {name: one["mix"]["value"] for name, one in totals.items()}
    assert totals["Quay sauce"]["takes"]["value"] == pytest.approx(40)
    assert totals["Quay glaze"]["takes"]["value"] == pytest.approx(8 + mixed["Quay sauce"] / 2)
    assert totals[rub.name]["takes"]["value"] == pytest.approx(10 + 6 + mixed["Quay glaze"] / 4)
    assert [use["kind"] for use in totals[rub.name]["by"]] == ["rub", "rub", "in Quay glaze"]
    # what the jars hold of it is not mixed again, and nothing is mixed for it
    jar_of(Blend.objects.get(pk=glaze["id"]), 60.0)
    totals = {one["name"]: one for one in api("GET", f"cooks/{two['id']}/totals")[1]["blends"]}
    assert totals["Quay glaze"]["mix"]["value"] == 0
    assert totals[rub.name]["takes"]["value"] == pytest.approx(16)


def test_a_layer_follows_its_blend_s_kind_until_it_is_given_another(api, two, rub):
    sent = dosed(two, "6", "a tenth of it")
    sent["pieces"][0]["layers"].append(sent["pieces"][0]["layers"][0] | {"kind": "glaze", "dose": "3", "hold": ""})
    saved(api, two["id"], sent)
    version = opened(api)["version"]
    blend = api("GET", f"blends/{rub.pk}")[1]
    body = {
        key: blend[key] for key in ("name", "fire", "batch", "written", "base", "total", "uses", "targets", "method")
    }
    body |= {"kind": "paste", "version": blend["version"], "lines": blend["lines"], "label": None}
    assert api("PUT", f"blends/{rub.pk}", body)[0] == 200
    board = opened(api)
    kinds = [[layer["kind"] for layer in piece["typed"]["layers"]] for piece in board["pieces"]]
    assert kinds == [["paste", "glaze"], ["paste"]]
    # on the dial it begins as a paste does; what was said otherwise is as much as before
    assert board["pieces"][0]["typed"]["layers"][0]["dose"] != "6"
    assert board["pieces"][1]["typed"]["layers"][0]["dose"] == "a tenth of it"
    # a screen that is open sees that the cook changed meanwhile
    assert board["version"] > version
    assert step(board, "A", "coat")["layer"] == 0


def test_eleven_sites_are_asked_for_and_the_liquid_follows(api, two):
    brine = {"kind": "injection", "grind": "stock/liquid", "dose": "200 ml", "hold": "1 h"}
    piece = as_sent(two)["pieces"][0] | {"cut": "lamb-shoulder", "mass": "2.3 kg", "layers": [brine]}
    status, laid = api("POST", "cooks/coat/sites", {"piece": piece, "layer": 0, "count": 11})
    assert (status, len(laid["injection"]["sites"])) == (200, 11)
    (found,) = read(api, {"pieces": [piece | {"layers": [laid]}]})
    injection = found["layers"][0]["injection"]
    assert injection["sites_in_all"] == 11
    assert injection["site_ml"]["value"] == pytest.approx(200 / 11)
    assert injection["misplaced"] == []
    status, problem = api("POST", "cooks/coat/sites", {"piece": piece, "layer": 0, "count": 601})
    assert (status, problem["errors"][0]["field"]) == (422, "count")


def test_a_cook_is_cooked_again_with_other_meat_and_its_note(api, two, rub):
    sent = dosed(two, "10 g", "a tenth of it") | {"note": "Salt it the night before."}
    saved(api, two["id"], sent)
    first = opened(api)["pieces"]
    mix = step(opened(api), "A", "mix")
    api("POST", f"cooks/{two['id']}/steps/{mix['id']}", {"version": opened(api)["version"], "done": True})
    body = {
        "name": "Trout for the whole lock", "serve_at": "2027-07-10T18:30:00+02:00",
        "pieces": [{"letter": "A", "mass": "1.6 kg"}, {"letter": "B", "cut": "duck-whole", "mass": "2 kg"}],
    }  # fmt: skip
    status, made = api("POST", f"cooks/{two['id']}/copy", body)
    assert (status, made["name"], made["noted"], made["note"]) == (
        201, "Trout for the whole lock", "Salt it the night before.", "",
    )  # fmt: skip
    board = opened(api)
    assert (board["name"], board["noted"]) == ("Trout for the whole lock", "Salt it the night before.")
    heavy, duck = board["pieces"]
    # as heavy a coat as before on the surface there is now; one of a fish four times as heavy is 4^(2/3) as large
    was, now = first[0]["reading"], heavy["reading"]
    assert now["layers"][0]["dose_setting"] == pytest.approx(was["layers"][0]["dose_setting"], rel=0.01)
    assert now["layers"][0]["dose_g"] == pytest.approx(10 * 4 ** (2 / 3), rel=0.02)
    assert heavy["typed"]["layers"][0]["dose"].endswith(" g")
    # a share goes on following its batch, and is not what was mixed then
    assert (duck["typed"]["cut"], duck["typed"]["layers"][0]["dose"]) == ("duck-whole", "a tenth of it")
    assert duck["typed"]["layers"][0]["mixed_g"] is None
    assert not any(done["done_at"] for piece in board["pieces"] for done in piece["steps"])
    # the one before stays as it was
    before = api("GET", f"cooks/{two['id']}")[1]
    assert [piece["mass"] for piece in before["pieces"]] == ["400 g", "400 g"]
    assert before["pieces"][0]["layers"][0]["dose"] == "10 g"


def test_what_cannot_be_cooked_again_so_is_said_at_its_field(api, two):
    body = {"serve_at": "1999-07-10T18:30:00+02:00", "pieces": [{"letter": "A", "cut": "unicorn", "mass": "lots"}]}
    status, problem = api("POST", f"cooks/{two['id']}/copy", body)
    assert status == 422
    assert {error["field"] for error in problem["errors"]} == {"serve_at", "pieces.0.cut", "pieces.0.mass"}
    assert len(api("GET", "cooks")[1]) == len({row["id"] for row in api("GET", "cooks")[1]})
    status, again = api("POST", f"cooks/{two['id']}/copy")
    assert (status, again["name"]) == (201, "Two trout, again")


def test_the_rest_knows_the_board_where_a_layer_gives_way(api, two, rub):
    jar_of(rub, 8.0)
    sent = dosed(two, "the rest of the jar", "4 g")
    layers = [
        {"kind": "pre-salt", "grind": "table-salt/fine", "dose": "0.1", "hold": "1 h"},
        *sent["pieces"][0]["layers"],
    ]
    piece = sent["pieces"][0] | {"layers": layers, "target": "2"}
    ask = {"piece": piece, "layer": 0}
    alone, beside = (
        float(api("POST", "cooks/coat/aim", ask | more)[1]["layer"]["dose"])
        for more in ({}, {"others": [sent["pieces"][1]]})
    )
    # the other piece takes 4 g of the jar, so less is left for this one and more salt goes on ahead
    assert beside > alone + 0.1


def test_what_was_said_in_grams_is_on_its_dial_once_it_was_evened_out(api, two, rub):
    sent = dosed(two, "4 g", "12 g")
    for piece in sent["pieces"]:
        piece |= {"tasted": True, "target": "1.2"}
    kept = saved(api, two["id"], sent)
    salts = [piece["reading"]["salt"]["value"] for piece in kept["pieces"]]
    assert abs(salts[0] - salts[1]) > 0.3
    status, even = api("POST", f"cooks/{two['id']}/even", {"version": opened(api)["version"], "what": "salt"})
    assert status == 200, even
    salts = [piece["reading"]["salt"]["value"] for piece in opened(api)["pieces"]]
    assert salts[0] == pytest.approx(salts[1], abs=0.02)
    rows = Layer.objects.filter(piece__cook=two["id"], kind="rub", dose_unit="")
    assert rows.exists()
