"""One wrong field stops no cook: it stays as typed, figures rest on what was last read, cautions on the worst."""

from copy import deepcopy

import pytest
from api.cooks.unread import stricter
from book.models import Cook, Layer, Piece
from ravska_core.cautions import Caution
from test_cook_api import as_sent, opened, saved

RUB = {"kind": "rub", "grind": "paprika/powder", "dose": "5", "hold": "2 h"}


def put(api, cook, document: dict) -> dict:
    status, after = api("PUT", f"cooks/{cook.id}", document)
    assert status == 200, after
    return after


def read(api, document: dict, before: list[dict]) -> list[dict]:
    status, found = api("POST", "cooks/coat/read", document | {"before": before})
    assert status == 200, found
    return found


def test_a_glaze_of_70_stays_as_typed_and_the_cook_goes_on(api, cook):
    document = as_sent(opened(api))
    layers = document["pieces"][0]["layers"]
    at = next(n for n, layer in enumerate(layers) if layer["kind"] == "glaze")
    layers[at]["dose"] = "70"
    layers[at - 1]["dose"] = "6"
    after = put(api, cook, document)
    assert [error["field"] for error in after["errors"]] == [f"pieces.0.layers.{at}.dose"]
    rows = list(Layer.objects.filter(piece__cook=cook, piece__letter="A").order_by("position"))
    assert (rows[at].dose, rows[at].dose_typed, rows[at - 1].dose) == (4.0, "4", 6.0)
    found = read(api, document, after["before"])[0]
    assert [layer["dose_setting"] for layer in found["layers"]][at - 1 : at + 1] == [6.0, 4.0]
    assert found["places"] == list(range(len(layers)))
    assert found["before"]["layers"][at]["dose"] == "4"
    totals = api("GET", f"cooks/{cook.id}/totals")[1]
    assert any("as it was last read" in problem["sentence"] for problem in totals["problems"])
    # nothing is evened out on what could not be read
    status, problem = api("POST", f"cooks/{cook.id}/even", {"version": after["version"], "what": "salt"})
    assert status == 422
    assert "put it right in Coat first" in problem["detail"]


def test_cautions_stay_at_the_stricter_of_before_and_the_worst_it_may_have_meant(api, cook):
    document = as_sent(opened(api))
    piece = document["pieces"][0]
    piece["layers"] = [RUB | {"hold": "2 h", "place": "fridge"}]
    before = put(api, cook, document)
    document["version"] = before["version"]

    def cautions(**wrong: str) -> dict[str, dict]:
        sent = deepcopy(document)
        sent["pieces"][0]["layers"][0] |= {key: text for key, text in wrong.items() if key != "endpoint"}
        if "endpoint" in wrong:
            sent["pieces"][0]["endpoint"] = wrong["endpoint"]
        return {one["id"]: one for one in read(api, sent, before["pieces"])[0]["cautions"]}

    safe = cautions(hold="2 h")
    assert not {"raw-long", "warm-hold", "below-minimum"} & safe.keys()
    long = cautions(hold="2 dayz")["raw-long"]
    assert long["level"] == "caution"
    assert long["sentence"].startswith("It could not be read how long it is held. At worst: Raw for 7.")
    # two hours in a fridge as warm as one can be are no stop yet; three are
    assert "warm-hold" not in cautions(hold_at="warmish")
    document["pieces"][0]["layers"][0]["hold"] = "3 h"
    assert cautions(hold_at="warmish")["warm-hold"]["level"] == "stop"
    document["pieces"][0]["layers"][0] |= {"hold": "2 h", "hold_at": ""}
    assert cautions(endpoint="pinkish")["below-minimum"]["level"] == "caution"
    # what was a caution before stays one
    document["pieces"][0]["endpoint"] = "52 °C"
    before = put(api, cook, document)
    assert cautions(endpoint="done")["below-minimum"]["level"] == "caution"
    # a dose is a matter of taste: what it was before counts
    assert cautions(dose="heaps").keys() == cautions(hold="2 h").keys()


def test_of_two_cautions_the_stricter_stays_and_only_what_is_worse_is_said_to_be_at_worst():
    def one(level: str, of: str = "discard-or-boil", layer: int | None = 0) -> Caution:
        return Caution(of, level, "So it is.", "", "guidance", layer)

    def levels(before: list[Caution], worst: list[Caution]) -> list[tuple[str, bool]]:
        return [(found.level, "At worst" in found.sentence) for found in stricter(before, worst, "how long")]

    assert levels([one("note")], [one("caution")]) == [("caution", True)]
    assert levels([one("stop")], [one("caution")]) == [("stop", False)]
    assert levels([one("caution")], [one("caution")]) == [("caution", False)]
    assert levels([one("caution")], [one("note", "acid")]) == [("caution", False)]
    assert levels([one("caution")], [one("stop", layer=1)]) == [("stop", True), ("caution", False)]


def test_a_new_layer_that_cannot_be_read_is_left_out_of_the_figures_and_kept(api, cook):
    document = as_sent(opened(api))
    document["pieces"][0]["layers"] = [RUB]
    before = put(api, cook, document)
    document["version"] = before["version"]
    document["pieces"][0]["layers"] = [
        {"kind": "pre-salt", "grind": "kosher-dense/flake", "dose": "some", "hold": "1 h"},
        RUB,
    ]
    after = put(api, cook, document)
    assert [error["field"] for error in after["errors"]] == ["pieces.0.layers.0.dose"]
    assert [layer["dose"] for layer in after["pieces"][0]["layers"]] == ["some", "5"]
    assert [layer.kind for layer in Layer.objects.filter(piece__cook=cook, piece__letter="A")] == ["rub"]
    found = read(api, document, after["before"])[0]
    assert (found["places"], [layer["kind"] for layer in found["layers"]]) == ([None, 0], ["rub"])
    document["version"] = after["version"]
    document["pieces"][0]["layers"][0]["dose"] = "0.5"
    after = put(api, cook, document)
    assert after["errors"] == []
    assert [layer.kind for layer in Layer.objects.filter(piece__cook=cook, piece__letter="A")] == ["pre-salt", "rub"]


def test_a_piece_that_could_never_be_read_is_kept_and_the_others_are_shown(api, cook):
    document = as_sent(opened(api))
    new = {"letter": "C", "name": "Neck", "cut": "lamb-neck", "mass": "a bit", "layers": [RUB]}
    document["pieces"].append(new)
    after = put(api, cook, document)
    assert [error["field"] for error in after["errors"]] == ["pieces.2.mass"]
    assert after["before"] == []
    assert (after["pieces"][2]["mass"], after["pieces"][2]["layers"][0]["dose"]) == ("a bit", "5")
    found = read(api, document, after["before"])
    assert [one is None for one in found] == [False, False, True]
    board = opened(api)
    assert board["pieces"][2]["reading"] is None
    assert board["pieces"][2]["problems"][0]["field"] == "mass"
    for address in (f"cooks/{cook.id}/totals", "cooks", f"trials/{cook.trial.id}", f"trials/{cook.trial.id}/verdict"):
        assert api("GET", address)[0] == 200, address
    document["version"] = after["version"]
    document["pieces"][2]["mass"] = "800 g"
    after = put(api, cook, document)
    assert after["errors"] == []
    assert Piece.objects.get(cook=cook, letter="C").mass_g == 800
    assert Piece.objects.get(cook=cook, letter="C").unread is None


def test_what_cannot_be_read_is_copied_as_typed_and_mixing_still_pins(api, cook):
    document = as_sent(opened(api))
    document["pieces"][0]["mass"] = "heavy"
    after = put(api, cook, document)
    board = opened(api)
    step = next(one for one in board["pieces"][0]["steps"] if one["kind"] == "mix")
    ticked = {"version": after["version"], "done": True}
    assert api("POST", f"cooks/{cook.id}/steps/{step['id']}", ticked)[0] == 200
    now = api("GET", f"cooks/{cook.id}")[1]
    assert now["pieces"][0]["mass"] == "heavy"
    pinned = [layer["revision"] for layer in now["pieces"][0]["layers"] if layer["blend_id"]]
    assert pinned
    assert None not in pinned
    # saved on, it stays pinned
    after = put(api, cook, as_sent(now) | {"name": "Supper"})
    assert not Layer.objects.filter(piece__cook=cook, piece__letter="A", blend__isnull=False, revision=None).exists()
    made = api("POST", f"cooks/{cook.id}/copy", {})[1]
    assert (made["pieces"][0]["mass"], made["errors"][0]["field"]) == ("heavy", "pieces.0.mass")
    assert Cook.objects.get(pk=made["id"]).pieces.first().mass_g == Piece.objects.get(cook=cook, letter="A").mass_g


@pytest.mark.parametrize("letters", ["A", "AB"])
def test_saving_what_cannot_be_read_again_and_again_keeps_what_was_last_read(api, cook, letters):
    for n in range(3):
        document = as_sent(api("GET", f"cooks/{cook.id}")[1])
        for piece in document["pieces"]:
            if piece["letter"] in letters:
                piece["mass"], piece["layers"][0]["dose"] = f"{n} stone", "much"
        after = put(api, cook, document)
        assert len(after["errors"]) == 2 * len(letters)
    assert [piece["mass"] for piece in after["before"]] == ["2.3 kg", "2.25 kg"][: len(letters)]
    document = as_sent(after)
    for piece, good in zip(document["pieces"], after["before"], strict=False):
        piece["mass"], piece["layers"][0]["dose"] = good["mass"], good["layers"][0]["dose"]
    saved(api, cook.id, document)


def test_what_could_be_read_once_and_cannot_now_keeps_its_layers_and_ticks(api, cook):
    Piece.objects.filter(cook=cook, letter="A").update(cut="gone")
    layers = list(Layer.objects.filter(piece__cook=cook, piece__letter="A").values_list("pk", flat=True))
    document = as_sent(opened(api))
    document["pieces"][0]["mass"] = "2.1 kg"
    after = put(api, cook, document)
    assert [error["field"] for error in after["errors"]] == ["pieces.0.cut"]
    assert after["pieces"][0]["mass"] == "2.1 kg"
    assert list(Layer.objects.filter(piece__cook=cook, piece__letter="A").values_list("pk", flat=True)) == layers
    document = as_sent(after)
    document["pieces"][0]["cut"] = "lamb-leg"
    after = put(api, cook, document)
    assert after["errors"] == []
    kept = Piece.objects.get(cook=cook, letter="A")
    assert (kept.cut, kept.mass_g, kept.unread) == ("lamb-leg", 2100, None)
    assert list(kept.layers.values_list("pk", flat=True)) == layers


def test_whatever_is_wrong_in_however_many_fields_is_saved_and_said(api, cook):
    """Fields of every kind at once: each is named, none of them stops the others, and nothing faults."""
    document = as_sent(opened(api))
    wrong = {
        "mass": "heavy", "untrimmed": "more", "count": "many", "length": "long", "cut_into": "cubes",
        "cut_size": "small", "thin": "thin", "endpoint": "hot", "target": "salty", "faces": {"hold": "off"},
        "stages": [{"what": "thaw", "hold": "days"}, {"what": "thaw", "hold": "1 h"}],
    }  # fmt: skip
    in_layer = {"dose": "much", "hold": "long", "hold_at": "warm", "stays": "all", "eaten": "none", "times": 99}
    for n, (field, text) in enumerate([*wrong.items(), ("all", "")]):
        piece = document["pieces"][0]
        piece |= {field: text} if field != "all" else {}
        for layer in piece["layers"][: n % 4]:
            layer |= dict(list(in_layer.items())[: n % 7])
        after = put(api, cook, document)
        assert after["errors"]
        fields = {error["field"] for error in after["errors"]}
        if field in ("mass", "untrimmed", "count", "thin", "endpoint", "target"):
            assert f"pieces.0.{field}" in fields
        found = read(api, document, after["before"])
        assert found[0] is not None
        assert found[1]["errors"] == []
        assert api("GET", f"cooks/{cook.id}")[1]["pieces"] == after["pieces"]
        assert opened(api)["pieces"][0]["reading"] is not None
        document["version"] = after["version"]
    assert Piece.objects.get(cook=cook, letter="A").mass_typed == "2.3 kg"
