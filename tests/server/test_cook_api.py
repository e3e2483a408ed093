"""The cook over the API: coat, steps, mixing, evening out, batches, conflicts and bad input."""

from copy import deepcopy

import pytest
from api.cooks.documents import PieceDocument
from book.models import Blend, Cook, Layer, Piece, Revision, Step
from ravska_core.meat import find_cut


def opened(api) -> dict:
    status, document = api("GET", "cooks/in-hand")
    assert status == 200
    return document["cook"]


def as_sent(document: dict) -> dict:
    """A cook's document as a screen sends it back."""
    kept = {key: document[key] for key in ("name", "serve_at", "version", "eaters", "appetite")}
    return deepcopy(kept | {"pieces": [piece.get("typed", piece) for piece in document["pieces"]]})


def saved(api, cook_id, sent: dict) -> dict:
    """Save a cook and open it again as it then stands on Home; it is the one in hand."""
    status, answer = api("PUT", f"cooks/{cook_id}", sent)
    assert status == 200, answer
    board = opened(api)
    assert answer["version"] == board["version"]
    assert answer["pieces"] == [piece["typed"] for piece in board["pieces"]]
    return board


def step(document: dict, letter: str, kind: str) -> dict:
    piece = next(piece for piece in document["pieces"] if piece["typed"]["letter"] == letter)
    return next(found for found in piece["steps"] if found["kind"] == kind)


def test_the_demo_opens_on_a_cook_in_hand_with_both_pieces_read(api, book):
    cook = opened(api)
    assert [piece["typed"]["name"] for piece in cook["pieces"]] == ["Rubbed", "Marinated"]
    assert all(arm["reading"]["salt"]["value"] > 0.5 for arm in cook["pieces"])
    assert cook["next"]["kind"] == "mix"
    assert cook["next"]["begins_at"] == min(s["begins_at"] for arm in cook["pieces"] for s in arm["steps"])
    assert [difference["what"] for difference in cook["fair"]["differs"]] == ["salt"]


def test_a_weight_typed_in_pounds_is_kept_as_typed_and_doses_follow(api, cook):
    document = as_sent(opened(api))
    document["pieces"][0]["mass"] = "5 lb 1 oz"
    status, read = api("POST", "cooks/coat/read", document)
    assert status == 200
    board = saved(api, cook.id, document)
    assert board["pieces"][0]["typed"]["mass"] == "5 lb 1 oz"
    assert Piece.objects.get(letter="A", cook=cook).mass_g == pytest.approx(2296.311373, rel=1e-8)
    assert board["pieces"][0]["reading"]["layers"][1]["dose"]["value"] == read[0]["layers"][1]["dose"]["value"]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        (lambda a: a.update(mass="-2 kg"), "pieces.0.mass"),
        (lambda a: a.update(mass="900 kg"), "pieces.0.mass"),
        (lambda a: a.update(mass="2 stone"), "pieces.0.mass"),
        (lambda a: a.update(mass="1e308"), "pieces.0.mass"),
        (lambda a: a.update(mass=1e308), "pieces.0.mass"),
        (lambda a: a.update(count=0), "pieces.0.count"),
        (lambda a: a.update(count="many"), "pieces.0.count"),
        (lambda a: a.update(cut="gone"), "pieces.0.cut"),
        (lambda a: a.update(length="20 cm"), "pieces.0.width"),
        (lambda a: a.update(untrimmed="1 kg"), "pieces.0.untrimmed"),
        (lambda a: a.update(cut_into="cubes", cut_size="4 m"), "pieces.0.cut_size"),
        (lambda a: a.update(cut_into="cubes"), "pieces.0.cut_size"),
        (lambda a: a.update(thin="40 cm"), "pieces.0.thin"),
        (lambda a: a.update(faces={"fat cap": "gone"}), "pieces.0.faces.fat cap"),
        (lambda a: a.update(target="lots"), "pieces.0.target"),
        (lambda a: a["layers"][1].update(dose="bark"), "pieces.0.layers.1.dose"),
        (lambda a: a["layers"][1].update(hold="8 days"), "pieces.0.layers.1.hold"),
        (lambda a: a["layers"][1].update(hold_c=1e9), "pieces.0.layers.1.hold_at"),
        (lambda a: a["layers"][1].update(hold_c=120), "pieces.0.layers.1.hold_at"),
        (lambda a: a["layers"][1].update(hold_at="boiling"), "pieces.0.layers.1.hold_at"),
        (lambda a: a["layers"][1].update(place="fridge", hold_at="90 °F"), "pieces.0.layers.1.hold_at"),
        (lambda a: a["layers"][1].update(place="attic"), "pieces.0.layers.1.place"),
        (lambda a: a.update(stages=[{"what": "thaw", "hold": "long"}]), "pieces.0.stages.0.hold"),
        (lambda a: a.update(stages=[{"what": "temper", "hold": "1 h"}] * 3), "pieces.0.stages"),
        (lambda a: a["layers"][1].update(blend_id=None), "pieces.0.layers.1.blend"),
        (lambda a: a["layers"][1].update(revision=7), "pieces.0.layers.1.blend"),
        (lambda a: a["layers"][1].update(stays="140"), "pieces.0.layers.1.stays"),
        (lambda a: a["layers"][0].update(dose="900"), "pieces.0.layers.0.dose"),
        (lambda a: a["layers"][0].update(grind="paprika/powder"), "pieces.0.layers.0.blend"),
        (lambda a: a["layers"][0].update(dose="") or a["layers"][1].update(dose=""), "pieces.0.layers.1.dose"),
        (lambda a: a.update(target="") or a["layers"][1].update(dose=""), "pieces.0.target"),
    ],
)
def test_bad_input_gets_a_sentence_at_its_field_and_stops_nothing_else(api, cook, change, field):
    before = api("GET", f"cooks/{cook.id}")[1]
    document = as_sent(opened(api))
    change(document["pieces"][0])
    status, problem = api("POST", "cooks/coat/read", document)
    assert status == 422
    assert field in [error["field"] for error in problem["errors"]]
    document["pieces"][1]["mass"], document["name"] = "1.9 kg", "Late supper"
    status, after = api("PUT", f"cooks/{cook.id}", document)
    assert field in [error["field"] for error in after["errors"]]
    if status == 422:  # no screen can send it: it is not of the kind that the field takes
        assert api("GET", f"cooks/{cook.id}")[1] == before
        return
    assert status == 200
    assert (after["name"], after["pieces"][1]["mass"]) == ("Late supper", "1.9 kg")
    # it stays as typed beside what was last read, which everything goes on with
    assert same(after["pieces"][0], document["pieces"][0])
    assert api("GET", f"cooks/{cook.id}")[1] == after
    answers = api("POST", "cooks/coat/read", document | {"before": after["before"]})[1]
    assert field in [f"pieces.0.{error['field']}" for error in answers[0]["errors"]]
    status, (good,) = api("POST", "cooks/coat/read", {"pieces": after["before"]})
    assert status == 200
    assert answers[0]["salt"]["value"] == pytest.approx(good["salt"]["value"])
    home = opened(api)["pieces"]
    assert home[0]["problems"][0]["sentence"]
    assert home[0]["reading"]["salt"]["value"] == pytest.approx(good["salt"]["value"])
    assert (home[1]["problems"], home[1]["reading"] is None) == ([], False)
    # put right, nothing is left of it
    mended = as_sent(after) | {"pieces": [before["pieces"][0], after["pieces"][1]]}
    status, after = api("PUT", f"cooks/{cook.id}", mended)
    assert (status, after["errors"], after["before"]) == (200, [], [])
    assert same(after["pieces"][0], before["pieces"][0])


def same(one: dict, other: dict) -> bool:
    """Whether two pieces are typed alike: what is left out is as usual, and what a layer is pinned at is not typed."""
    one, other = (
        piece | {"layers": [layer | {"revision": None} for layer in piece["layers"]]} for piece in (one, other)
    )
    return PieceDocument(**one) == PieceDocument(**other)


def test_a_cut_that_left_the_catalogue_is_named_and_the_other_piece_stands(api, cook):
    Piece.objects.filter(cook=cook, letter="A").update(cut="gone")
    document = opened(api)
    assert document["pieces"][0]["reading"] is None
    assert document["pieces"][0]["problems"][0]["field"] == "cut"
    assert document["pieces"][1]["reading"] is not None
    assert "salt" in document["fair"]["unknown"]
    sent = as_sent(document)
    sent["pieces"][0]["cut"] = "lamb-leg"
    assert saved(api, cook.id, sent)["pieces"][0]["reading"] is not None


def test_a_second_windows_edit_of_a_cook_is_detected(api, cook):
    mine, other = as_sent(opened(api)), as_sent(opened(api))
    other["pieces"][1]["layers"][0]["hold"] = "12 h"
    assert api("PUT", f"cooks/{cook.id}", other)[0] == 200
    mine["pieces"][0]["mass"] = "2.4 kg"
    status, problem = api("PUT", f"cooks/{cook.id}", mine)
    assert status == 409
    assert problem["theirs"]["pieces"][1]["layers"][0]["hold"] == "12 h"
    assert opened(api)["pieces"][0]["typed"]["mass"] == "2.3 kg"


def test_mixing_pins_the_blend_and_later_edits_do_not_rewrite_the_cook(api, cook):
    rub = Blend.objects.get(name="Weir House lamb rub")
    document = opened(api)
    before = document["pieces"][0]["reading"]["salt"]["value"]
    mix = step(document, "A", "mix")
    status, mixed = api("POST", f"cooks/{cook.id}/steps/{mix['id']}", {"version": 1, "done": True})
    assert status == 200
    assert mixed["pieces"][0]["typed"]["layers"][1]["revision"] == 4  # after the three the demo kept
    blend = api("GET", f"blends/{rub.id}")[1]
    blend["lines"][0]["parts"] = "8"
    assert api("PUT", f"blends/{rub.id}", blend)[0] == 200
    after = opened(api)["pieces"][0]
    assert after["reading"]["salt"]["value"] == before
    assert after["marks"][1]["changed_since"] is True
    # taking the tick back follows the blend again
    undone = api("POST", f"cooks/{cook.id}/steps/{mix['id']}", {"version": mixed["version"], "done": False})[1]
    assert undone["pieces"][0]["reading"]["salt"]["value"] > before


def test_an_empty_blend_cannot_be_ticked_as_mixed(api, cook):
    rub = Blend.objects.get(name="Weir House lamb rub")
    blend = api("GET", f"blends/{rub.id}")[1]
    assert api("PUT", f"blends/{rub.id}", blend | {"lines": []})[0] == 200
    document = opened(api)
    assert "add a first ingredient" in document["pieces"][0]["problems"][0]["sentence"]
    mix = step(document, "A", "mix")
    assert api("POST", f"cooks/{cook.id}/steps/{mix['id']}", {"version": 1, "done": True})[0] == 422
    assert step(opened(api), "A", "mix")["done_at"] is None


def test_steps_are_ticked_for_real_and_lengths_move_the_times(api, cook):
    document = opened(api)
    done = api("POST", f"cooks/{cook.id}/steps/{document['next']['step_id']}", {"version": 1, "done": True})[1]
    assert done["next"]["step_id"] != document["next"]["step_id"]
    fire = step(done, "B", "on")
    moved = api("POST", f"cooks/{cook.id}/steps/{fire['id']}", {"version": 2, "lasts": "6 h"})[1]
    assert step(moved, "B", "on")["begins_at"] == "2027-05-08T12:00:00Z"
    assert step(moved, "B", "rest")["begins_at"] == "2027-05-08T18:00:00Z"
    assert {d["what"] for d in moved["fair"]["differs"]} == {"salt", "fire"}
    evened = api("POST", f"cooks/{cook.id}/even", {"version": 3, "what": "fire"})[1]
    assert step(evened, "A", "on")["lasts_s"] == 6 * 3600
    bag = step(evened, "B", "bag")
    assert api("POST", f"cooks/{cook.id}/steps/{bag['id']}", {"version": 4, "lasts": "6 h"})[0] == 422
    assert api("POST", f"cooks/{cook.id}/steps/{bag['id']}", {"version": 1, "done": True})[0] == 409


def test_salt_is_evened_out_towards_what_is_wanted(api, cook):
    document = api("POST", f"cooks/{cook.id}/even", {"version": 1, "what": "salt"})[1]
    a, b = (arm["reading"]["salt"]["value"] for arm in document["pieces"])
    assert a == pytest.approx(b, abs=0.006) == pytest.approx(1.5, abs=0.006)
    # after the bath is wiped off, before the fire
    assert [s["kind"] for s in document["pieces"][1]["steps"]] == ["mix", "bag", "wipe", "salt", "on", "rest", "plate"]
    assert not document["fair"]["differs"]
    assert api("POST", f"cooks/{cook.id}/even", {"version": 2, "what": "salt"})[0] == 422


def test_the_batch_follows_the_dose(api, cook):
    document = opened(api)
    rub = document["pieces"][0]["typed"]["layers"][1]
    status, sized = api("POST", f"cooks/{cook.id}/batch", {"blend_id": rub["blend_id"]})
    dose = document["pieces"][0]["reading"]["layers"][1]["dose"]["value"]
    assert status == 200
    # what goes on the meat, and what the glaze holds of it
    totals = api("GET", f"cooks/{cook.id}/totals")[1]["blends"]
    (own,) = [total for total in totals if total["blend_id"] == rub["blend_id"]]
    (glaze,) = [total for total in totals if total["name"] == "Lamb rub and honey glaze"]
    assert [use["kind"] for use in own["by"]] == ["rub", "in Lamb rub and honey glaze"]
    inside = own["by"][1]["grams"]
    assert 0 < inside < glaze["mix"]["value"] / 4
    assert dose + inside <= sized["batch_g"] < dose + inside + 1
    assert api("GET", f"blends/{rub['blend_id']}")[1]["batch"] == sized["batch"]
    other = Blend.objects.get(name="Towpath duck rub")
    assert api("POST", f"cooks/{cook.id}/batch", {"blend_id": str(other.id)})[0] == 422


def test_another_blend_changes_the_layer_and_its_steps_and_ticks_stay(api, cook):
    document = opened(api)
    rest = step(document, "B", "rest")
    api("POST", f"cooks/{cook.id}/steps/{rest['id']}", {"version": 1, "done": True})
    sent = as_sent(opened(api))
    goat = Blend.objects.get(name="Cumin and sumac goat rub")
    layer = {"kind": "rub", "blend_id": str(goat.id), "dose": "8", "hold": "1 h", "hold_c": 4}
    binder = {"kind": "binder", "grind": "mustard-prepared/paste", "dose": "2.4"}
    sent["pieces"][1]["layers"] = [binder, layer]
    board = saved(api, cook.id, sent)
    assert [s["kind"] for s in board["pieces"][1]["steps"]] == ["mix", "bind", "coat", "on", "rest", "plate"]
    assert step(board, "B", "rest")["done_at"] is not None
    assert board["pieces"][1]["reading"]["layers"][0]["dose_g"] > 10
    assert board["pieces"][1]["reading"]["layers"][1]["surface"] == "mustard"


def test_a_chosen_blend_becomes_its_usual_layer_with_a_hold_for_its_acid(api, cook):
    vinegar = {
        "name": "Vinegar",
        "kind": "marinade",
        "batch": "500 g",
        "lines": [{"grind": "cider-vinegar/liquid", "parts": "1"}],
    }
    bath = api("POST", "blends", vinegar)[1]["id"]
    rub = str(Blend.objects.get(name="Towpath duck rub").id)
    shoulder, leg = {"cut": "lamb-shoulder", "mass": "2.3 kg"}, {"cut": "lamb-leg", "mass": "2 kg"}
    cubes = {"cut_into": "cubes", "cut_size": "3.5 cm"}
    # strong acid, the cautious school's most for the cut as thick as it is
    holds = ((shoulder, "3 h"), (shoulder | cubes, "2 h"), ({"cut": "salmon-side", "mass": "1.2 kg"}, "10 min"),
             (shoulder | {"mass": "half"}, "3 h"))  # fmt: skip
    for piece, hold in holds:
        made = api("POST", "cooks/coat/layer", {"blend_id": bath, "piece": piece})[1]["layer"]
        assert (made["kind"], made["hold"], made["dose"]) == ("marinade", hold, "250")
    ahead = {"kind": "pre-salt", "grind": "table-salt/fine", "dose": "0.5", "hold": "1 h"}
    glazed = {"kind": "glaze", "grind": "honey/liquid", "dose": "4"}
    placed = api("POST", "cooks/coat/layer", {"blend_id": rub, "piece": leg, "layers": [ahead, glazed]})[1]
    made = placed["layer"]
    assert placed["place"] == 1
    assert (made["kind"], made["dose"], made["hold"], made["revision"]) == ("rub", "5", "2 h", None)
    # a cut whose coat was weighed back three times begins with the cook's own: (2 x 5 + 4.76 + 4.76 + 2.72) / 5
    again = {"blend_id": rub, "piece": shoulder}
    assert api("POST", "cooks/coat/layer", again)[1]["layer"]["dose"] == "5"
    body = {"letter": "A", "layer": 1, "taken": "60 g", "left": "38", "fell": "2"}
    assert api("POST", f"cooks/{cook.id}/weigh-back", body)[1]["taken"]
    placed = api("POST", "cooks/coat/layer", again)[1]
    assert placed["own"] == "As you weighed it yourself: how heavy it lies, from 3 weighings."
    own = placed["layer"]
    assert (own["dose"], own["stays"]) == ("4.4", "")  # what stayed was weighed once only
    plain = api("POST", "cooks/coat/layer", {"kind": "spritz", "grind": "water/liquid", "piece": leg})[1]["layer"]
    assert (plain["dose"], plain["times"], plain["hold"]) == ("0.5", 4, "")
    gone = {"blend_id": "00000000-0000-0000-0000-000000000000", "piece": leg}
    assert api("POST", "cooks/coat/layer", gone)[0] == 422


def test_a_cook_is_begun_deleted_and_brought_back(api, cook):
    duck = Blend.objects.get(name="Towpath duck rub")
    bath = Blend.objects.get(name="Soy and honey bath")
    new = {
        "name": "Sluice picnic",
        "serve_at": "2027-06-01T13:00:00+02:00",
        "pieces": [
            {"name": "Rubbed", "cut": "turkey-breast", "mass": "1.4 kg", "blend_id": str(duck.id)},
            {"name": "Marinated", "cut": "turkey-breast", "mass": "3 lb", "blend_id": str(bath.id)},
        ],
    }
    bad = new | {"pieces": [new["pieces"][0] | {"mass": "-1 kg"}, new["pieces"][1] | {"cut": "gone"}]}
    status, problem = api("POST", "cooks", bad)
    assert {e["field"] for e in problem["errors"]} == {"pieces.0.mass", "pieces.1.cut"}
    assert Cook.objects.filter(name="Sluice picnic").count() == 0
    status, begun = api("POST", "cooks", new)
    assert status == 201
    assert opened(api)["id"] == begun["id"]
    # poultry in mild acid: the cautious school's longest hold is the default
    assert begun["pieces"][1]["layers"][0]["hold"] == "2 h"
    assert api("POST", f"cooks/{begun['id']}/delete", {"version": 1})[0] == 200
    assert api("GET", "cooks/in-hand")[1]["cook"] is None
    assert api("POST", f"cooks/{begun['id']}/restore")[1]["in_hand"] is True
    assert api("POST", f"cooks/{cook.id}/take")[1]["in_hand"] is True
    assert Cook.objects.filter(in_hand=True).count() == 1


def test_history_cannot_lose_what_it_stands_on(cook):
    from django.db.models import ProtectedError

    layer = Layer.objects.filter(piece__cook=cook, kind="rub").select_related("blend").get()
    kept = layer.blend.keep("kept")
    layer.revision = kept
    layer.save()
    with pytest.raises(ProtectedError):
        layer.blend.delete()
    assert Revision.objects.filter(pk=kept.pk).exists()
    assert Step.objects.filter(layer=layer).count() == 1


def test_a_cook_begins_with_a_name_and_a_cut_and_everything_else_has_a_default(api, book):
    body = {"name": "Towpath tea", "serve_at": "2027-06-12T11:00:00Z", "pieces": [{"cut": "duck-breast"}]}
    status, begun = api("POST", "cooks", body)
    assert status == 201, begun
    (piece,) = begun["pieces"]
    # from 180 to 450 g: the geometric mean, to two figures
    low, high = find_cut("duck-breast").usual_low_g, find_cut("duck-breast").usual_high_g
    assert piece["mass"] == f"{float(f'{(low * high) ** 0.5:.1e}'):g} g"
    assert (piece["name"], piece["layers"]) == ("Duck breast", [])
    assert api("GET", "cooks/in-hand")[1]["cook"]["pieces"][0]["problems"] == []
    rub, bath = (blend for kind in ("dry rub", "marinade") for blend in [
        next(row for row in api("GET", "blends")[1] if row["kind"] == kind)])  # fmt: skip
    body["pieces"] = [{"cut": "duck-breast", "blend_id": rub["id"]}, {"cut": "duck-breast", "blend_id": bath["id"]}]
    begun = api("POST", "cooks", body | {"name": "Two ways"})[1]
    assert [piece["name"] for piece in begun["pieces"]] == ["Rubbed", "Marinated"]
    assert [piece["layers"][0]["kind"] for piece in begun["pieces"]] == ["rub", "marinade"]
    # the list of blends says what each was cooked for last
    rows = {row["id"]: row["last_cook"] for row in api("GET", "blends")[1]}
    assert rows[rub["id"]] == rows[bath["id"]] == "2027-06-12T11:00:00Z"
