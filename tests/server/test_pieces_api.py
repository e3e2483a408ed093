"""Pieces as they come, over the API: unlike weights, joints divided, baths weighed, what to buy and to set aside."""

import pytest
from book.layers import own_times
from book.models import Blend, Cook, Layer, Piece, WeighBack
from test_cook_api import as_sent, opened, saved

WHEN = "2027-06-12T18:30:00+02:00"
FOUR = "620, 580, 710 and 640 g"


@pytest.fixture
def rub(book) -> Blend:
    return Blend.objects.get(name="Towpath duck rub")


@pytest.fixture
def bath(book) -> Blend:
    return Blend.objects.get(name="Soy and honey bath")


def begun(api, *pieces: dict) -> dict:
    status, cook = api("POST", "cooks", {"name": "Of several", "serve_at": WHEN, "pieces": list(pieces)})
    assert status == 201, cook
    return cook


def read(api, pieces: list[dict], **more) -> list[dict]:
    status, found = api("POST", "cooks/coat/read", {"pieces": pieces, **more})
    assert status == 200, found
    return found


def test_four_breasts_of_unlike_weight_are_one_piece_with_a_dose_and_a_salt_for_each(api, rub):
    cook = begun(api, {"cut": "lamb-breast", "mass": FOUR, "blend_id": str(rub.pk), "tasted": False})
    row = Piece.objects.get(cook=cook["id"])
    assert (row.mass_g, row.count, row.masses_g, row.mass_typed) == (2550, 4, [620, 580, 710, 640], FOUR)
    (found,) = read(api, cook["pieces"])
    each = found["piece"]["each"]
    assert [one["mass_g"] for one in each] == [620, 580, 710, 640]
    assert sum(found["layers"][0]["each_g"]) == pytest.approx(found["layers"][0]["dose_g"])
    assert found["each"][1] > found["each"][2]
    assert "all 4 together" in found["piece"]["covers"]
    # one fewer, said anew: the count follows the weights, whatever was typed before
    sent = as_sent(opened(api))
    sent["pieces"][0]["mass"] = "620, 580 and 710 g"
    assert saved(api, cook["id"], sent)["pieces"][0]["reading"]["piece"]["solid"]["pieces"] == 3
    sent = as_sent(opened(api))
    sent["pieces"][0] |= {"mass": "2 kg", "count": 3}
    saved(api, cook["id"], sent)
    row.refresh_from_db()
    assert (row.mass_g, row.count, row.masses_g) == (2000, 3, [])


def test_weights_that_cannot_be_read_say_so_and_nothing_else_stops(api, rub):
    cook = begun(api, {"cut": "lamb-breast", "mass": FOUR, "blend_id": str(rub.pk), "tasted": False})
    for wrong, says in (("620, many and 580 g", "no weight"), ("5 g and 1 kg", "twenty times")):
        (found,) = read(api, [cook["pieces"][0] | {"mass": wrong}], before=cook["pieces"])
        assert [error["field"] for error in found["errors"]] == ["mass"]
        assert says in found["errors"][0]["sentence"]
        assert len(found["piece"]["each"]) == 4
    new = {"cut": "lamb-breast", "mass": "heavy and light", "tasted": False}
    status, refused = api("POST", "cooks", {"name": "No", "serve_at": WHEN, "pieces": [new]})
    assert (status, refused["errors"][0]["field"]) == (422, "pieces.0.mass")


def bathed(bath: Blend, **weighed: str) -> dict:
    layer = {"kind": "marinade", "blend_id": str(bath.pk), "dose": "400", "hold": "16 h", "weighed": weighed}
    return {"letter": "A", "name": "Bathed", "cut": "duck-leg", "mass": "1 kg", "layers": [layer]}


def test_a_bath_is_weighed_back_kept_as_typed_and_teaches_the_next(api, bath):
    weighed = {"used": "400 g", "after": "1030 g", "left_salt": "3"}
    (plain,), (found,) = read(api, [bathed(bath)]), read(api, [bathed(bath, **weighed)])

    def width(reading: dict) -> float:
        return (reading["salt"]["high"] - reading["salt"]["low"]) / reading["salt"]["value"]

    assert width(found) < width(plain) / 2
    salt = found["layers"][0]
    share = 1 - 3 / (plain_salt(bath)) * (1 - 30 / 400)
    assert salt["fate"]["meat"] + salt["fate"]["surface"] == pytest.approx(share, rel=1e-6)
    cook = begun(api, {"cut": "duck-leg", "mass": "1 kg", "blend_id": str(bath.pk), "tasted": False})
    new = {"blend_id": str(bath.pk), "piece": {"cut": "duck-leg", "mass": "1 kg"}}
    for times in (1, 2, 3):
        assert api("POST", "cooks/coat/layer", new)[1]["layer"]["weighed"]["times"] == ""
        sent = as_sent(opened(api))
        sent["pieces"] = [bathed(bath, **weighed) | {"letter": letter} for letter in "ABC"[:times]]
        kept = saved(api, cook["id"], sent)
    assert kept["pieces"][2]["typed"]["layers"][0]["weighed"]["left_salt"] == "3"
    row = Layer.objects.filter(piece__cook=cook["id"]).first()
    own = own_times(row.piece.cook.household, "duck-leg")
    assert own == pytest.approx([salt["times"]] * 3)
    begins = api("POST", "cooks/coat/layer", new)[1]["layer"]["weighed"]["times"]
    assert float(begins) == pytest.approx((2 + 3 * salt["times"]) / 5, rel=5e-3)
    # cooked again, nothing of it is weighed yet
    again = api("POST", f"cooks/{cook['id']}/copy", {})[1]
    assert not any(again["pieces"][0]["layers"][0]["weighed"].values())


def plain_salt(bath: Blend) -> float:
    from ravska_core.blend import read_blend

    return read_blend(bath.as_core()).salt.value


def test_weights_of_a_bath_that_cannot_be_are_named_at_their_field(api, bath):
    for wrong, field in (
        ({"used": "400 g", "left": "500 g"}, "left"), ({"after": "heavy"}, "after"), ({"left_salt": "3"}, "left"),
    ):  # fmt: skip
        (found,) = read(api, [bathed(bath, **wrong)], before=[bathed(bath)])
        assert [error["field"] for error in found["errors"]] == [f"layers.0.weighed.{field}"]
        assert found["salt"]["value"] > 0


def test_a_boiled_bath_is_the_pots_liquid_by_itself(api, bath, cook):
    piece = bathed(bath)
    pot = api("POST", "cooks/coat/layer", {"kind": "cooking liquid", "piece": piece, "layers": piece["layers"]})[1]
    assert (pot["place"], pot["layer"]["dose"]) == (1, "")
    (alone,) = read(api, [piece], before=[piece])
    piece["layers"] = [piece["layers"][0] | {"into_pot": True}, pot["layer"] | {"eaten": "100"}]
    (found,) = read(api, [piece])
    assert found["salt"]["value"] > alone["salt"]["value"]
    sent = as_sent(opened(api))
    sent["pieces"] = [piece]
    assert saved(api, cook.id, sent)["pieces"][0]["reading"]["salt"] == found["salt"]
    row = Layer.objects.get(piece__cook=cook.id, kind="cooking liquid")
    assert (row.blend, row.grind) == (None, "")
    piece["layers"][0]["into_pot"] = False
    (lost,) = read(api, [piece], before=[piece | {"layers": piece["layers"][:1]}])
    assert [error["field"] for error in lost["errors"]] == ["layers.1.blend"]


def test_the_drippings_of_a_fat_coat_may_be_for_the_needle(api, book):
    butter = {"name": "Butter coat", "kind": "paste", "batch": "200 g", "lines": [
        {"grind": "butter/melted", "parts": "9", "basis": "scale"},
        {"grind": "table-salt/fine", "parts": "1", "basis": "scale"}]}  # fmt: skip
    made = api("POST", "blends", butter)[1]["id"]
    cook = begun(api, {"cut": "turkey-breast", "mass": "1.4 kg", "blend_id": made, "tasted": False})
    sent = as_sent(opened(api))
    sent["pieces"][0]["layers"][0]["dose"] = "60 g"
    saved(api, cook["id"], sent)
    status, drips = api("POST", f"cooks/{cook['id']}/drippings", {"letter": "A", "kind": "injection"})
    assert status == 201
    blend = api("GET", f"blends/{drips['blend_id']}")[1]
    assert blend["kind"] == "injection"
    assert "butter/melted" in [line["grind"] for line in blend["lines"]]


def test_a_serving_of_its_own_counts_and_a_skin_has_one(api, rub):
    leg = {"letter": "A", "name": "Legs", "cut": "duck-leg", "mass": "1 kg", "layers": []}
    usual, own = read(api, [leg])[0], read(api, [leg | {"serving": "90 g"}])[0]
    # by hand: 170 g is usual
    assert own["servings"]["value"] == pytest.approx(usual["servings"]["value"] * 170 / 90)
    kept, skin = api("POST", "cooks/coat/skin", {"piece": leg, "taken": ["A"]})[1]
    assert kept["faces"]["skin"] == "off"
    crisp = read(api, [skin])[0]
    assert crisp["servings"]["value"] > 1
    (found,) = read(api, [leg | {"serving": "a plateful"}], before=[leg])
    assert [error["field"] for error in found["errors"]] == ["serving"]


@pytest.mark.usefixtures("unburnt")
def test_what_to_buy_for_eight_and_what_is_set_aside_first(api, cook, book):
    sent = as_sent(opened(api)) | {"eaters": 8}
    bath = next(layer for layer in sent["pieces"][1]["layers"] if layer["kind"] == "marinade")
    sent["pieces"][1]["layers"].append({"kind": "at the table", "blend_id": bath["blend_id"], "dose": "30"})
    saved(api, cook.id, sent)
    totals = api("GET", f"cooks/{cook.id}/totals")[1]
    total = next(row for row in totals["blends"] if row["blend_id"] == bath["blend_id"])
    table = next(use for use in total["by"] if use["kind"] == "at the table")
    assert (table["aside"], total["aside_g"]) == (True, pytest.approx(table["grams"]))
    assert not any(use["aside"] for use in total["by"] if use["kind"] == "marinade")
    # by hand: both joints scaled alike, so that together they serve eight
    masses = {"A": 2300, "B": 2250}
    for row in totals["buy"]:
        raw = masses[row["letter"]] * 8 / totals["serves"]
        assert row["raw"]["value"] == pytest.approx(raw)
        assert row["buy"]["value"] == pytest.approx(raw / (1 - row["trim"]["value"] / 100))
    (aside,) = [one for one in opened(api)["pieces"][1]["steps"] if one["kind"] == "aside"]
    assert [(one["name"], one["unit"]) for one in aside["mixes"]] == [(total["name"], "g")]
    assert aside["mixes"][0]["amount"] == pytest.approx(table["grams"])


def divide(api, cook: dict, **more) -> tuple[int, dict]:
    body = {"version": opened(api)["version"], "letter": "A", **more}
    return api("POST", f"cooks/{cook['id']}/divide", body)


def test_a_joint_is_divided_and_part_of_it_cooked_another_day(api, rub):
    cook = begun(api, {"cut": "lamb-shoulder", "mass": "2.4 kg", "blend_id": str(rub.pk), "tasted": False})
    sent = as_sent(opened(api))
    sent["pieces"][0] |= {"length": "24 cm", "width": "18 cm", "thickness": "9 cm"}
    sent["pieces"][0]["layers"][0] |= {"dose": "40 g"}
    before = saved(api, cook["id"], sent)["pieces"][0]["reading"]
    status, found = divide(api, cook, mass="800 g", serve_at="2027-06-20T18:30:00+02:00", frozen=True)
    assert status == 200, found
    left = found["cook"]["pieces"][0]
    other = Cook.objects.get(pk=found["other"])
    (part,) = other.pieces.all()
    assert (left["mass"], part.mass_g, part.letter, part.length_cm) == ("1600 g", 800, "A", None)
    assert (other.in_hand, [stage["what"] for stage in part.stages]) == (False, ["thaw"])
    assert part.steps.exists()
    # each coat lies as heavy as it did
    for piece, of in ((left, found["cook"]["pieces"]), (None, api("GET", f"cooks/{other.pk}")[1]["pieces"])):
        reading = read(api, of)[0]
        setting = reading["layers"][0]["dose_setting"]
        assert setting == pytest.approx(before["layers"][0]["dose_setting"], rel=0.01), piece
    # and on this board, another piece
    status, found = divide(api, cook, mass="600 g", name="The thin end")
    assert [(one["name"], one["letter"]) for one in found["cook"]["pieces"]] == [
        (left["name"], "A"), ("The thin end", "B"),
    ]  # fmt: skip
    assert found["other"] is None
    for wrong, field in (
        ({"mass": "5 kg"}, "mass"),
        ({"mass": "some"}, "mass"),
        ({"letter": "H", "mass": "1 kg"}, "letter"),
    ):
        status, refused = divide(api, cook, **wrong)
        assert (status, refused["errors"][0]["field"].strip(".")) == (422, field)
    stale = {"version": 1, "letter": "A", "mass": "200 g"}
    assert api("POST", f"cooks/{cook['id']}/divide", stale)[0] == 409


def test_a_share_of_the_batch_is_divided_with_the_joint(api, rub):
    cook = begun(api, {"cut": "lamb-breast", "mass": FOUR, "blend_id": str(rub.pk), "tasted": False})
    sent = as_sent(opened(api))
    sent["pieces"][0]["layers"][0]["dose"] = "all of this batch"
    whole = saved(api, cook["id"], sent)["pieces"][0]["reading"]["layers"][0]
    pieces = divide(api, cook, mass="580 and 710 g")[1]["cook"]["pieces"]
    doses = [piece["layers"][0]["dose"] for piece in pieces]
    assert all(dose.endswith(" % of this batch") for dose in doses)
    parts = [reading["layers"][0] for reading in read(api, pieces)]
    # no more and no less than the batch, each as heavy as it was
    assert sum(part["dose_g"] for part in parts) == pytest.approx(whole["dose_g"], rel=5e-3)
    for part in parts:
        assert part["dose_setting"] == pytest.approx(whole["dose_setting"], rel=5e-3)


def test_the_stack_of_another_cook_comes_as_new(api, bath, cook):
    sent = as_sent(opened(api))
    sent["pieces"] = [bathed(bath, used="400 g", after="1030 g", left_salt="3", times="1.2")]
    saved(api, cook.id, sent)
    ((layer,),) = [stack["layers"] for stack in api("GET", f"cooks/{cook.id}/stacks")[1]]
    assert (layer["blend_id"], layer["dose"], layer["hold"]) == (str(bath.pk), "400", "16 h")
    # what was weighed was that cook's own; how much goes in for this household is not
    assert {key: text for key, text in layer["weighed"].items() if text} == {"times": "1.2"}
    assert api("GET", "cooks/00000000-0000-0000-0000-000000000000/stacks")[1] == []


def test_unlike_pieces_are_divided_by_their_weights(api, rub):
    cook = begun(api, {"cut": "lamb-breast", "mass": FOUR, "blend_id": str(rub.pk), "tasted": False})
    found = divide(api, cook, mass="580 and 710 g")[1]
    kept, part = (Piece.objects.get(cook=cook["id"], letter=letter) for letter in "AB")
    assert (kept.masses_g, kept.count, kept.mass_typed) == ([620, 640], 2, "620 and 640 g")
    assert (part.masses_g, part.count, part.mass_typed) == ([580, 710], 2, "580 and 710 g")
    assert [one["mass"] for one in found["cook"]["pieces"]] == ["620 and 640 g", "580 and 710 g"]


def test_a_weigh_back_says_what_the_layer_really_took_and_what_stays(api, cook):
    body = {"letter": "A", "layer": 1, "taken": "60 g", "left": "18", "fell": "2", "pan": "0"}
    found = api("POST", f"cooks/{cook.id}/weigh-back", body)[1]
    # by hand: 42 g went on and 40 of them stay
    assert (found["dose"], found["put_stays"], found["taken"]) == ("42 g", "95.2", True)
    assert found["stays"] == pytest.approx((2 * 0.9 + 40 / 42) / 3)
    status, refused = api("POST", f"cooks/{cook.id}/weigh-back", body | {"pan": "900"})
    assert (status, refused["errors"][0]["field"].strip(".")) == (422, "pan")


def test_a_coat_begins_as_it_was_weighed_on_the_surface_it_meets(api, rub):
    for coat in (8.0, 8.0, 8.5):
        WeighBack.objects.create(
            household=rub.household, cut="lamb-leg", surface="mustard", taken_g=60, left_g=10, fell_g=1,
            coat_g_100cm2=coat, stays=0.95,
        )  # fmt: skip
    new = {"blend_id": str(rub.pk), "piece": {"cut": "lamb-leg", "mass": "2 kg"}}
    mustard = {"kind": "binder", "grind": "mustard-prepared/paste", "dose": "1.5"}
    bare = api("POST", "cooks/coat/layer", new)[1]
    bound = api("POST", "cooks/coat/layer", new | {"layers": [mustard]})[1]
    assert (bare["layer"]["dose"], bare["own"]) == ("5", "")
    # by hand: (2 x 5 + 8 + 8 + 8.5) / 5 and (2 x 90 + 3 x 95) / 5 %
    assert (bound["layer"]["dose"], bound["layer"]["stays"]) == ("6.9", "93")
    assert bound["own"] == (
        "As you weighed it yourself: how heavy it lies, from 3 weighings; what of it stays, from 3 weighings."
    )


def test_a_paste_that_was_weighed_back_says_nothing_of_a_rub(api, cook, rub):
    paste = api("POST", "blends", {"name": "Slather", "kind": "paste", "batch": "200 g", "lines": [
        {"grind": "mustard-prepared/paste", "parts": "4", "basis": "scale"},
        {"grind": "table-salt/fine", "parts": "1", "basis": "scale"}]})[1]["id"]  # fmt: skip
    sent = as_sent(opened(api))
    sent["pieces"][0]["layers"] = [{"kind": "paste", "blend_id": paste, "dose": "20", "hold": "2 h"}]
    saved(api, cook.id, sent)
    body = {"letter": "A", "layer": 0, "taken": "160 g", "left": "10", "fell": "3"}
    for times in (1, 2, 3):
        found = api("POST", f"cooks/{cook.id}/weigh-back", body)[1]
        assert (found["times"], found["taken"]) == (times, times == 3)
    assert WeighBack.objects.filter(kind="paste").count() == 3
    coat = "cooks/coat/own-weight?cut=lamb-shoulder&surface=moist"
    assert api("GET", coat)[1]["times"] == 2  # the demo's own, of a rub
    assert api("GET", f"{coat}&kind=paste")[1]["times"] == 3
    new = {"piece": {"cut": "lamb-shoulder", "mass": "2.3 kg"}}
    assert api("POST", "cooks/coat/layer", new | {"blend_id": str(rub.pk)})[1]["layer"]["dose"] == "5"
    begun = api("POST", "cooks/coat/layer", new | {"blend_id": paste})[1]["layer"]
    # by hand: three of 147 g on 736 cm2, and the usual 10 twice: (20 + 3 x 19.97) / 5
    assert float(begun["dose"]) == pytest.approx(16, abs=0.1)
