"""Cooks of one piece or eight, with a trial or without, are as good as any; steps keep keys, the log only grows."""

from datetime import datetime, timedelta
from uuid import uuid4

import pytest
from book.models import Blend, Cook, Device, Event, Layer, Photo, Piece, ProbeUse, Reading, Sample, Step, Trial
from django.db import IntegrityError, connection, transaction
from django.test.utils import CaptureQueriesContext
from test_cook_api import as_sent, opened, saved, step
from test_table_api import card


@pytest.fixture
def alone(api, book) -> dict:
    """A cook of one piece."""
    rub = str(Blend.objects.get(name="Towpath duck rub").pk)
    piece = {"name": "Rubbed", "cut": "trout-whole", "mass": "400 g", "blend_id": rub, "tasted": False}
    new = {"name": "Trout for one", "serve_at": "2027-06-12T18:30:00+02:00", "pieces": [piece]}
    status, begun = api("POST", "cooks", new)
    assert status == 201
    return begun


@pytest.fixture
def eight(api, alone) -> dict:
    """The same cook with eight pieces of two layers each, none of them tasted."""
    one = alone["pieces"][0]
    salt = {"kind": "pre-salt", "grind": "kosher-dense/flake", "dose": "0.5", "hold": "2 h", "place": "fridge"}
    pieces = [
        one | {"letter": letter, "name": f"Trout {letter}", "layers": [salt, *one["layers"]]} for letter in "ABCDEFGH"
    ]
    return saved(api, alone["id"], alone | {"pieces": pieces})


EVERY = ("cooks/in-hand", "cooks", "cooks/{id}", "cooks/{id}/totals", "blends", "batches")


@pytest.mark.parametrize("which", ["alone", "eight"])
def test_a_cook_without_a_trial_opens_everywhere(api, book, request, which):
    cook = request.getfixturevalue(which)
    for address in EVERY:
        assert api("GET", address.format(id=cook["id"]))[0] == 200
    board = opened(api)
    assert (board["trial"], board["fair"]) == (None, None)
    assert all(piece["reading"] and not piece["typed"]["tasted"] for piece in board["pieces"])
    mix = step(board, "A", "mix")
    assert api("POST", f"cooks/{cook['id']}/steps/{mix['id']}", {"version": board["version"], "done": True})[0] == 200
    for what in ("salt", "fire", "rest", "bare face"):
        evened = api("POST", f"cooks/{cook['id']}/even", {"version": opened(api)["version"], "what": what})
        assert evened[0] == (422 if what == "salt" else 200)
    status, copy = api("POST", f"cooks/{cook['id']}/copy")
    assert (status, copy["trial"], len(copy["pieces"])) == (201, None, len(board["pieces"]))
    assert Trial.objects.filter(cook__in=[cook["id"], copy["id"]]).count() == 0


def test_ticking_a_piece_makes_the_trial_and_never_unticks_another(api, eight):
    sent = as_sent(eight)
    sent["pieces"][2]["tasted"] = True
    one = saved(api, eight["id"], sent)
    assert one["trial"]["cards"] == 0
    first = Sample.objects.get(piece__cook=eight["id"])
    table = api("GET", f"trials/{one['trial']['id']}")[1]
    assert "tick two of them in Coat" in table["missing"]
    assert (table["codes"], table["next_order"]) == ([first.code], [])
    verdict = api("GET", f"trials/{one['trial']['id']}/verdict")[1]
    assert (verdict["missing"], len(verdict["sides"])) == (table["missing"], 1)
    document = {"taster": "Kittiwake", "served": [first.code], "scores": [], "prefers": None}
    status, problem = api("POST", f"trials/{one['trial']['id']}/cards", document)
    assert (status, problem["errors"][0]["field"]) == (422, "served")
    again = as_sent(one)
    again["pieces"][5]["tasted"] = True
    two = saved(api, eight["id"], again)
    assert [piece["typed"]["letter"] for piece in two["pieces"] if piece["typed"]["tasted"]] == ["C", "F"]
    first.refresh_from_db()  # it keeps its code
    assert api("GET", f"trials/{two['trial']['id']}")[1]["question"] == "Trout C or trout f?"
    seven = as_sent(two)
    for piece in seven["pieces"][:7]:
        piece["tasted"] = True
    assert api("PUT", f"cooks/{eight['id']}", seven)[1]["errors"][0]["field"] == "pieces"
    # a trial of which nothing was used goes with its last piece; one that somebody looked at stays whole
    none = as_sent(two)
    for piece in none["pieces"]:
        piece["tasted"] = False
    assert saved(api, eight["id"], none)["trial"] is None
    back = saved(api, eight["id"], as_sent(two) | {"version": opened(api)["version"]})
    api("POST", f"trials/{back['trial']['id']}/looks", {"who": "Kittiwake"})
    kept = saved(api, eight["id"], none | {"version": back["version"]})
    assert kept["trial"]["id"] == back["trial"]["id"]
    assert api("GET", f"trials/{kept['trial']['id']}")[1]["codes"] == []
    assert "No piece of this cook" in api("GET", f"trials/{kept['trial']['id']}/verdict")[1]["missing"]


def test_taking_off_the_last_but_one_leaves_a_cook_of_one(api, eight):
    sent = as_sent(eight)
    sent["pieces"] = sent["pieces"][4:5]
    one = saved(api, eight["id"], sent)
    assert [piece["typed"]["letter"] for piece in one["pieces"]] == ["E"]
    assert Piece.objects.filter(cook=eight["id"]).count() == 1
    assert Step.objects.filter(piece__cook=eight["id"]).count() == len(one["pieces"][0]["steps"])


def test_a_piece_that_is_tasted_is_taken_off_the_board_before_the_first_card_and_not_after(api, cook):
    sent = as_sent(opened(api))
    alone = saved(api, cook.id, sent | {"pieces": sent["pieces"][:1]})
    assert alone["pieces"][0]["typed"]["tasted"]
    assert Sample.objects.filter(trial=cook.trial).count() == 1
    both = saved(api, cook.id, sent | {"version": alone["version"]})
    table = api("GET", f"trials/{both['trial']['id']}")[1]
    assert api("POST", f"trials/{both['trial']['id']}/cards", card(table, "Kittiwake", None))[0] == 201
    short = sent | {"version": both["version"], "pieces": sent["pieces"][:1]}
    assert api("PUT", f"cooks/{cook.id}", short)[1]["errors"][0]["field"] == "pieces"
    # a card that was taken back still names both, and can be put in again
    taken = api("GET", f"trials/{both['trial']['id']}")[1]["cards"][0]["id"]
    assert api("POST", f"trials/{both['trial']['id']}/cards/{taken}/delete")[0] == 200
    assert "were handed in" in api("PUT", f"cooks/{cook.id}", short)[1]["errors"][0]["sentence"]


def test_a_step_keeps_its_key_tick_and_length_while_its_piece_its_kind_and_its_layer_are_there(api, cook):
    board = opened(api)
    keys = {(p["typed"]["letter"], s["kind"]): s["id"] for p in board["pieces"] for s in p["steps"]}
    rest = step(board, "A", "rest")
    api("POST", f"cooks/{cook.id}/steps/{rest['id']}", {"version": board["version"], "lasts": "50 min"})
    sent = as_sent(opened(api))
    salt, rub, glaze = sent["pieces"][0]["layers"]
    sent["pieces"][0]["layers"] = [rub, glaze]
    fewer = saved(api, cook.id, sent)
    now = {s["kind"]: s["id"] for s in fewer["pieces"][0]["steps"]}
    assert now == {kind: keys["A", kind] for kind in ("mix", "coat", "on", "glaze", "rest", "plate")}
    assert step(fewer, "A", "rest")["lasts_s"] == 50 * 60
    # another salting is another step, in front; the others stay, and so does the other piece
    sent = as_sent(fewer)
    sent["pieces"][0]["layers"] = [salt, rub, glaze]
    more = saved(api, cook.id, sent)
    again = {s["kind"]: s["id"] for s in more["pieces"][0]["steps"]}
    assert list(again) == ["mix", "salt", "coat", "on", "glaze", "rest", "plate"]
    assert again["salt"] != keys["A", "salt"]
    assert {kind: again[kind] for kind in now} == now
    assert {s["id"] for s in more["pieces"][1]["steps"]} == {key for (letter, _), key in keys.items() if letter == "B"}


def test_layers_that_change_places_keep_their_keys(api, cook):
    sent = as_sent(opened(api))
    before = dict(Layer.objects.filter(piece__cook=cook, piece__letter="A").values_list("kind", "pk"))
    sent["pieces"][0]["layers"].reverse()
    turned = saved(api, cook.id, sent)
    assert [layer["kind"] for layer in turned["pieces"][0]["typed"]["layers"]] == ["glaze", "rub", "pre-salt"]
    assert dict(Layer.objects.filter(piece__cook=cook, piece__letter="A").values_list("kind", "pk")) == before


@pytest.mark.usefixtures("unburnt")
def test_what_is_noted_stays_whatever_becomes_of_the_board_and_is_only_added_to(api, cook):
    board = opened(api)
    piece = cook.pieces.get(letter="B")
    event = Event.objects.create(
        cook=cook, piece=piece, what="spritz", at=cook.serve_at - timedelta(hours=2), key=uuid4()
    )
    device = Device.objects.create(household=cook.household, name="four channels", token_hash="0" * 64)
    use = {"cook": cook, "device": device, "channel": "1", "role": "centre", "piece": piece, "from_at": event.at}
    ProbeUse.objects.create(**use, key=uuid4())
    reading = {"device": device, "channel": "1", "celsius": 60.0, "shown_at": event.at, "at": event.at}
    Reading.objects.create(**reading)
    assert opened(api)["version"] == board["version"]  # what is noted stands outside the cook's version
    sent = as_sent(board)
    sent["pieces"] = sent["pieces"][:1]
    saved(api, cook.id, sent)
    event.refresh_from_db()
    assert event.piece_id == piece.pk
    assert Reading.objects.count() == 1
    at = {"cook": cook, "at": event.at}
    for model, bad in (
        (Event, at | {"what": "began", "key": event.key}), (Event, at | {"what": "slept", "key": uuid4()}),
        (Event, at | {"what": "note", "key": uuid4()}), (Event, at | {"what": "undone", "key": uuid4()}),
        (Reading, reading), (Reading, reading | {"channel": "2", "celsius": 900.0}),
        (ProbeUse, use | {"key": uuid4(), "role": "ear"}), (ProbeUse, use | {"key": uuid4(), "role": "pit"}),
        (ProbeUse, use | {"key": uuid4(), "piece": None}), (ProbeUse, use | {"key": uuid4(), "channel": ""}),
        (Photo, {"event": event, "jpeg": b""}), (Photo, {"event": event, "jpeg": b"x" * 300_001}),
    ):  # fmt: skip
        with pytest.raises(IntegrityError), transaction.atomic():
            model.objects.create(**bad)


def queries(call) -> int:
    """Return how many queries a call makes, savepoints left out."""
    with CaptureQueriesContext(
        connection,
    ) as found:
        call()
    return sum(not query["sql"].startswith(("SAVEPOINT", "RELEASE", "BEGIN", "ROLLBACK")) for query in found)


def test_a_cook_is_saved_in_as_few_queries_for_eight_pieces_as_for_one(api, alone):
    one, eight = as_sent(opened(api)), None
    one["pieces"][0]["layers"][0]["dose"] = "6"
    first = queries(lambda: api("PUT", f"cooks/{alone['id']}", one))
    sent = as_sent(opened(api))
    sent["pieces"] = [sent["pieces"][0] | {"letter": letter, "name": letter} for letter in "ABCDEFGH"]
    whole = queries(lambda: api("PUT", f"cooks/{alone['id']}", sent))
    eight = as_sent(opened(api))
    for piece in eight["pieces"]:
        piece["layers"][0]["dose"] = "4"
        piece["mass"] = "420 g"
    second = queries(lambda: api("PUT", f"cooks/{alone['id']}", eight))
    assert (first, second, whole) == (first, first + 1, whole)

    assert max(first, second, whole) <= 20
    assert Cook.objects.get(pk=alone["id"]).pieces.count() == 8


def test_a_blend_on_two_pieces_is_mixed_once_and_ticking_it_keeps_it_for_both(api, alone):
    one = alone["pieces"][0]
    both = [one | {"letter": letter, "name": f"Trout {letter}"} for letter in "AB"]
    saved(api, alone["id"], alone | {"pieces": both})
    board = api("POST", f"cooks/{alone['id']}/take")[1] and opened(api)
    mixing = [(p["typed"]["letter"], s) for p in board["pieces"] for s in p["steps"] if s["kind"] == "mix"]
    ((letter, mix),) = mixing
    (taken,) = mix["mixes"]
    doses = [p["reading"]["layers"][0]["dose_g"] for p in board["pieces"]]
    assert (letter, taken["letters"]) == ("A", ["A", "B"])
    assert taken["amount"] == pytest.approx(sum(doses))
    ticked = api("POST", f"cooks/{board['id']}/steps/{mix['id']}", {"version": board["version"], "done": True})[1]
    assert all(p["typed"]["layers"][0]["revision"] for p in ticked["pieces"])
    assert step(ticked, "A", "mix")["mixes"][0]["letters"] == ["A", "B"]
    undone = api("POST", f"cooks/{board['id']}/steps/{mix['id']}", {"version": ticked["version"], "done": False})[1]
    assert not any(p["typed"]["layers"][0]["revision"] for p in undone["pieces"])


def test_two_blends_of_one_name_are_mixed_by_themselves(api, alone):
    piece = alone["pieces"][0]
    (first,) = [layer for layer in piece["layers"] if layer["blend_id"]]
    name = Blend.objects.get(pk=first["blend_id"]).name
    lines = [{"grind": "table-salt/fine", "parts": "1"}, {"grind": "paprika/powder", "parts": "2"}]
    other = api("POST", "blends", {"name": name, "kind": "dry rub", "batch": "100 g", "lines": lines})[1]
    layers = [*piece["layers"], first | {"blend_id": other["id"], "dose": "2"}]
    saved(api, alone["id"], alone | {"pieces": [piece | {"layers": layers}]})
    api("POST", f"cooks/{alone['id']}/take")
    mixes = step(opened(api), "A", "mix")["mixes"]
    doses = [layer["dose_g"] for layer in opened(api)["pieces"][0]["reading"]["layers"]]
    assert len({mix["name"] for mix in mixes}) == 1
    assert [mix["amount"] for mix in mixes] == pytest.approx(doses)


def test_a_step_over_the_fire_is_set_by_itself_and_one_that_is_held_by_its_hold(api, cook):
    board = opened(api)
    glaze = step(board, "A", "glaze")
    off = step(board, "A", "rest")["begins_at"]
    later = api("POST", f"cooks/{cook.id}/steps/{glaze['id']}", {"version": board["version"], "lasts": "35 min"})[1]
    began = datetime.fromisoformat(step(later, "A", "glaze")["begins_at"])
    assert datetime.fromisoformat(off) - began == timedelta(minutes=35)
    # never longer than the fire, also where that was shortened since
    fire = step(later, "A", "on")
    short = api("POST", f"cooks/{cook.id}/steps/{fire['id']}", {"version": later["version"], "lasts": "30 min"})[1]
    glaze, fire = step(short, "A", "glaze"), step(short, "A", "on")
    assert (glaze["lasts_s"], glaze["begins_at"]) == (30 * 60, fire["begins_at"])
    # how long a piece with phases is on its fire, and rests, is theirs
    assert [s["kind"] for s in short["pieces"][0]["steps"] if s["settable"]] == ["glaze"]
    cook.pieces.update(phases=[])
    kinds = [s["kind"] for s in opened(api)["pieces"][0]["steps"] if s["settable"]]
    assert sorted(kinds) == ["glaze", "on", "rest"]
    later = short
    coat = step(later, "A", "coat")
    refused = api("POST", f"cooks/{cook.id}/steps/{coat['id']}", {"version": later["version"], "lasts": "1 h"})
    assert (refused[0], refused[1]["errors"][0]["field"]) == (422, "lasts")
