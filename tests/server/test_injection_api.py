"""Injection, marinade and binder through the API: a plan kept and read, sites moved, a liquid made, side by side."""

import pytest
from book.models import Blend, Layer, Piece
from test_cook_api import as_sent, opened, saved

JOINT = {"cut": "venison-haunch", "mass": "2.4 kg"}


def stock() -> str:
    return str(Blend.objects.get(name="Stock and red wine for venison").pk)


def injected(**plan) -> dict:
    layer = {"kind": "injection", "blend_id": stock(), "dose": "10", "hold": "8 h", "injection": plan}
    return {"letter": "A", "name": "Injected", **JOINT, "layers": [layer]}


def read(api, joint: dict) -> dict:
    status, found = api("POST", "cooks/coat/read", {"pieces": [joint]})
    assert status == 200, found
    return found[0]


def put_on(api, cook, piece: dict) -> dict:
    sent = as_sent(opened(api))
    sent["pieces"][0] |= {key: value for key, value in piece.items() if key != "letter"}
    return saved(api, cook.id, sent)


def test_a_plan_is_kept_as_typed_and_comes_back_whole(api, cook):
    plan = {"wants": "0.8", "spacing": "3 cm", "grid": "square", "bore": "3 mm", "sites": [[0.3, 0.3], [0.7, 0.7]]}
    joint = injected(**plan) | {"endpoint": "160 F", "pierced": True, "bones": [[0.1, 0.5, 0.9, 0.5, 0.1]]}
    kept = put_on(api, cook, joint)["pieces"][0]
    typed = kept["typed"]["layers"][0]["injection"]
    assert {key: typed[key] for key in plan} == plan
    assert (kept["typed"]["endpoint"], kept["typed"]["bones"]) == ("160 F", [[0.1, 0.5, 0.9, 0.5, 0.1]])
    assert Piece.objects.get(letter="A", cook=cook).endpoint_c == pytest.approx(71.1, abs=0.1)
    reading = kept["reading"]["layers"][0]["injection"]
    assert reading["sites"] == plan["sites"]
    assert reading["strength"]["grind"] == "table-salt/fine"
    # a kind that is not injected keeps no plan
    rub = {"kind": "rub", "grind": "table-salt/fine", "dose": "1", "hold": "1 h", "injection": plan}
    put_on(api, cook, joint | {"layers": [rub]})
    assert Layer.objects.get(piece__cook=cook, piece__letter="A").injection == {}


def test_sites_on_bone_are_moved_off_and_the_others_stay(api, book):
    joint = injected(sites=[[0.25, 0.3], [0.4, 0.5], [1.2, 0.5]])
    found = read(api, joint)["layers"][0]["injection"]
    assert [(one["site"], one["why"]) for one in found["misplaced"]] == [(1, "bone"), (2, "edge")]
    moved = api("POST", "cooks/coat/sites", {"piece": joint, "layer": 0})[1]
    sites = moved["injection"]["sites"]
    assert sites[0] == [0.25, 0.3]
    assert len(sites) == 3
    assert read(api, joint | {"layers": [moved]})["layers"][0]["injection"]["misplaced"] == []
    assert api("POST", "cooks/coat/sites", {"piece": joint, "layer": 3})[0] == 422


def test_salt_over_the_face_comes_as_rows_of_cells_with_none_off_the_meat(api, book):
    sites = [[0.25, 0.25], [0.25, 0.75]]
    found = read(api, injected(sites=sites) | {"cut": "pork-belly", "mass": "2 kg"})
    spread = found["layers"][0]["injection"]["spread"]
    assert {len(row) for row in spread["rows"]} == {96}
    rows = len(spread["rows"])
    # most of it lies where the needle went in, and none at the far end
    assert spread["rows"][rows // 4][23:25] == "99"
    assert {row[-1] for row in spread["rows"]} == {"0"}
    assert 2 < spread["seasoned"]["value"] < 15
    # a haunch is round and has a bone: no meat in its corners, nor there
    boned = read(api, injected())["layers"][0]["injection"]["spread"]["rows"]
    assert boned[0][0] == boned[-1][-1] == "."
    assert "." in boned[rows // 2][30:66]
    assert found["sample"]["least"][-1] == pytest.approx(0, abs=1e-6)
    assert found["sample"]["percent"][-1] > 0.2


def test_a_liquid_is_made_as_salty_as_it_is_wanted_and_then_needs_nothing(api, cook):
    put_on(api, cook, injected(wants="1"))
    status, made = api("POST", f"cooks/{cook.id}/strength", {"letter": "A", "layer": 0})
    assert status == 201
    blend = api("GET", f"blends/{made['blend_id']}")[1]
    # by hand: 1 % of 2,040 g edible in 240 g that stay
    assert blend["reading"]["salt"]["value"] == pytest.approx(8.5, abs=0.02)
    assert blend["kind"] == "injection"
    joint = injected(wants="1")
    joint["layers"][0]["blend_id"] = made["blend_id"]
    found = read(api, joint)
    assert found["layers"][0]["injection"]["strength"]["add_g"] == 0
    assert found["salt"]["value"] == pytest.approx(1.0, abs=0.003)
    put_on(api, cook, joint)
    status, problem = api("POST", f"cooks/{cook.id}/strength", {"letter": "A", "layer": 0})
    assert status == 422
    assert "already" in problem["detail"]
    put_on(api, cook, injected())
    assert api("POST", f"cooks/{cook.id}/strength", {"letter": "A", "layer": 0})[0] == 422
    assert api("POST", f"cooks/{cook.id}/strength", {"letter": "H", "layer": 0})[0] == 422


@pytest.mark.parametrize(
    ("plan", "field", "says"),
    [
        ({"spacing": "0 mm"}, "spacing", "between 8 mm and 10 cm"),
        ({"wants": "plenty"}, "wants", "as a number"),
        ({"wants": "4"}, "wants", "Pump at least"),
        ({"after": "2.3 kg"}, "after", "no more than the 2400 g before"),
        ({"after": "2.7 kg", "used": "100 g"}, "used", "weigh again"),
        ({"sites": [[0.5, 0.5], [3, 0.5]]}, "sites", "Site 2 lies far beyond the piece"),
    ],
)
def test_a_plan_that_cannot_be_is_refused_at_its_field_and_kept_as_typed(api, cook, plan, field, says):
    before = opened(api)
    status, problem = api("POST", "cooks/coat/read", {"pieces": [injected(**plan)]})
    assert status == 422
    assert problem["errors"][0]["field"] == f"pieces.0.layers.0.injection.{field}"
    assert says in problem["errors"][0]["sentence"]
    sent = as_sent(before)
    sent["pieces"][0] |= {**JOINT, "layers": injected(**plan)["layers"]}
    status, after = api("PUT", f"cooks/{cook.id}", sent)
    assert (status, after["errors"][0]["field"]) == (200, f"pieces.0.layers.0.injection.{field}")
    assert (
        after["pieces"][0]["layers"][0]["injection"]
        == api("GET", f"cooks/{cook.id}")[1]["pieces"][0]["layers"][0]["injection"]
    )
    assert plan.items() <= after["pieces"][0]["layers"][0]["injection"].items()


def test_a_pump_of_80_percent_and_a_bath_without_liquid_say_what_to_do(api, book):
    joint = injected()
    joint["layers"][0]["dose"] = "80"
    problem = api("POST", "cooks/coat/read", {"pieces": [joint]})[1]
    assert "between 0.5 and 30" in problem["errors"][0]["sentence"]
    rub = str(Blend.objects.get(name="Towpath duck rub").pk)
    dry = {"kind": "marinade", "blend_id": rub, "dose": "250", "hold": "2 h"}
    problem = api("POST", "cooks/coat/read", {"pieces": [joint | {"layers": [dry]}]})[1]
    assert problem["errors"][0]["field"] == "pieces.0.layers.0.blend"
    assert "add a juice, stock or dairy" in problem["errors"][0]["sentence"]


def test_what_is_set_aside_is_mixed_too(api, cook):
    sent = as_sent(opened(api))
    bath = sent["pieces"][1]["layers"][0]
    plain = opened(api)["pieces"][1]["reading"]["layers"][0]
    bath["reserve"] = "200 ml"
    board = saved(api, cook.id, sent)
    assert board["pieces"][1]["typed"]["layers"][0]["reserve"] == "200 ml"
    aside = board["pieces"][1]["reading"]["layers"][0]["reserve_g"]
    totals = api("GET", f"cooks/{cook.id}/totals")[1]["blends"]
    total = next(row for row in totals if row["name"] == "Orange and buttermilk")
    assert total["takes"]["value"] == pytest.approx(plain["dose_g"] + aside)
    assert [use["kind"] for use in total["by"]] == ["marinade", "set aside"]
    bath["reserve"] = "a bit"
    problem = api("PUT", f"cooks/{cook.id}", as_sent(board) | {"pieces": sent["pieces"]})[1]
    assert problem["errors"][0]["field"] == "pieces.1.layers.0.reserve"


def test_binders_are_compared_with_those_of_the_book_and_one_is_taken(api, cook):
    api("POST", "blends", {"name": "Egg wash", "kind": "binder", "batch": "100 g",
                           "lines": [{"grind": "mustard-prepared/paste", "parts": "1", "basis": "scale"},
                                     {"grind": "cider-vinegar/liquid", "parts": "1", "basis": "scale"}]})  # fmt: skip
    joint = as_sent(opened(api))["pieces"][0]
    joint["layers"] = [layer | {"dose": "8"} for layer in joint["layers"] if layer["kind"] == "rub"]
    found = api("POST", "cooks/coat/binders", {"piece": joint})[1]
    assert [choice["name"] for choice in found["choices"]] == ["", "", "", "", "Egg wash"]
    assert found["choices"][0]["falls_g"] > 10
    assert found["least"] == 1
    taken = joint | {"layers": found["choices"][4]["layers"]}
    assert [layer["kind"] for layer in taken["layers"]] == ["binder", "rub"]
    assert read(api, taken)["salt"]["value"] == pytest.approx(found["choices"][4]["total"]["value"])
    assert api("POST", "cooks/coat/binders", {"piece": joint | {"layers": []}})[0] == 422


def test_side_by_side_reads_every_way_and_two_of_them_become_pieces(api, cook):
    joint = as_sent(opened(api))["pieces"][0]
    found = api("POST", "cooks/coat/side-by-side", {"piece": joint, "blend_ids": [stock()]})[1]
    assert [one["key"] for one in found] == [
        "rubbed", "marinated", "both", "injected", "injected and rubbed", "plain",
    ]  # fmt: skip
    assert all(one["salt"]["value"] > 0 and one["percent"] and not one["problem"] for one in found)
    assert found[3]["blends"] == ["Stock and red wine for venison"]
    # only what a needle put in has a tenth that it reached least, about half of the rest once the fire has moved it
    assert [bool(one["least"]) for one in found] == [False, False, False, True, True, False]
    assert 0.3 < found[3]["least"][-1] / found[3]["percent"][-1] < 0.8
    pair = api("POST", "cooks/coat/pair", {"piece": joint, "ways": ["injected", "both"], "blend_ids": [stock()]})[1]
    assert [layer["kind"] for layer in pair[0]["layers"]] == ["injection"]
    # what stands side by side is what the pieces then come to
    whole = api("POST", "cooks/coat/pair", {"piece": joint, "ways": ["injected", "both"], "split": False})[1]
    both = read(api, whole[1] | {"target": ""})
    assert both["salt"]["value"] == pytest.approx(found[2]["salt"]["value"])
    Blend.objects.filter(kind="injection").update(deleted_at=cook.serve_at)
    without = api("POST", "cooks/coat/side-by-side", {"piece": joint})[1]
    assert "make one in Blend first" in without[3]["problem"]
    assert without[0]["problem"] == ""
    wrong = joint | {"mass": "heavy"}
    assert api("POST", "cooks/coat/side-by-side", {"piece": wrong})[1]["errors"][0]["field"] == "piece.mass"


def test_a_new_injection_begins_with_what_stayed_when_this_cook_weighed(api, cook):
    new = {"blend_id": stock(), "piece": JOINT}
    for times, begins in enumerate(("", "", "75"), 1):
        sent = as_sent(opened(api))
        sent["pieces"] = [injected(after="2.57 kg", used="250 g") | {"letter": letter} for letter in "ABC"[:times]]
        saved(api, cook.id, sent)
        # by hand: 170 of 250 g is 68 %, three times, drawn to 85 % that counts twice: (2 x 85 + 3 x 68) / 5
        assert api("POST", "cooks/coat/layer", new)[1]["layer"]["stays"] == begins
    again = {"blend_id": stock(), "piece": JOINT, "kind": "second injection"}
    assert api("POST", "cooks/coat/layer", again)[1]["layer"]["stays"] == ""
