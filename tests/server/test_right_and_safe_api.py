"""Places and stages, what was tasted, who looked, how many cards, what a sieve holds, over the API."""

import json
import os
import sqlite3
import subprocess
import sys
from contextlib import closing

import pytest
from book.models import Blend, Card, Cook, Jar, Look, Sample, Trial
from server.test_cook_api import as_sent, opened, saved
from server.test_table_api import card, designed, hand_in, seat


def ids(reading: dict) -> dict[str, str]:
    return {caution["id"]: caution["level"] for caution in reading["cautions"]}


def test_where_a_hold_is_and_how_warm_is_kept_as_typed_and_counts_on_the_clocks(api, cook):
    sent = as_sent(opened(api))
    hold = sent["pieces"][0]["layers"][1]
    assert (hold["place"], hold["hold_at"]) == ("fridge", "")
    hold |= {"place": "warm water", "hold_at": "122 °F", "hold": "3 h"}
    board = saved(api, cook.id, sent)
    kept = board["pieces"][0]["typed"]["layers"][1]
    assert (kept["place"], kept["hold_at"], kept["hold_c"]) == ("warm water", "122 °F", pytest.approx(50))
    assert ids(board["pieces"][0]["reading"])["warm-bath"] == "caution"
    again = as_sent(board)
    again["pieces"][0]["layers"][1] |= {"place": "fridge", "hold_at": "40 °F", "hold": "16 h"}
    cold = saved(api, cook.id, again)["pieces"][0]["reading"]
    assert not {"warm-hold", "warm-bath"} & set(ids(cold))
    assert ids(cold)["cold-hold"] == "note"


def test_a_hold_without_a_temperature_is_as_warm_as_its_place_usually_is(api, cook):
    sent = as_sent(opened(api))
    hold = sent["pieces"][0]["layers"][1]
    for place, celsius in (("outside", 35), ("bench", 21), ("warm water", 57), ("cool box", 4), ("", 4)):
        del (copy := json.loads(json.dumps(sent)))["pieces"][0]["layers"][1]["hold_c"]
        copy["pieces"][0]["layers"][1] |= {"place": place, "hold": "50 min", "hold_at": ""}
        copy["pieces"][0]["stages"] = [{"what": "temper", "place": "bench", "hold": "75 min"}]
        copy["version"] = opened(api)["version"]
        piece = saved(api, cook.id, copy)["pieces"][0]
        assert piece["typed"]["layers"][1]["hold_c"] == celsius
        # 50 min outside and 75 on the bench are more than two hours off the cold
        assert ("warm-hold" in ids(piece["reading"])) == (place in ("outside", "bench"))
    assert hold["hold_c"] == 4


def test_a_piece_says_how_it_was_thawed_and_how_long_it_was_out(api, cook):
    sent = as_sent(opened(api))
    sent["pieces"][0]["stages"] = [
        {"what": "thaw", "place": "warm water", "hold": "40 min", "hold_at": "38 °C"},
        {"what": "temper", "place": "outside", "hold": "30 min", "hold_at": ""},
    ]
    piece = saved(api, cook.id, sent)["pieces"][0]
    assert [stage["hold"] for stage in piece["typed"]["stages"]] == ["40 min", "30 min"]
    assert "thawed in warm water" in next(
        caution["sentence"] for caution in piece["reading"]["cautions"] if caution["id"] == "warm-hold"
    )


def test_cautions_of_a_step_name_its_layer(api, cook):
    cautions = opened(api)["pieces"][1]["reading"]["cautions"]
    assert {c["id"]: c["layer"] for c in cautions}["discard-or-boil"] == 0
    assert {c["id"]: c["layer"] for c in cautions}["minimum-centre"] is None


def test_what_was_tasted_is_frozen_and_a_copy_is_not(api, cook):
    before = hand_in(api, cook, "Kittiwake", None)
    assert before["cards"]
    document = opened(api)
    sent = as_sent(document)

    def refused(change) -> str:
        copy = json.loads(json.dumps(sent))
        change(copy)
        status, problem = api("PUT", f"cooks/{cook.id}", copy)
        assert status == 409
        assert "Make a copy of this cook" in problem["errors"][0]["sentence"]
        return problem["errors"][0]["field"]

    def swap(c):
        c["pieces"][0]["name"], c["pieces"][1]["name"] = c["pieces"][1]["name"], c["pieces"][0]["name"]

    assert refused(swap) == "pieces.0"
    assert refused(lambda c: c["pieces"][1].update(mass="2.4 kg")) == "pieces.1"
    assert refused(lambda c: c["pieces"][0]["layers"].pop()) == "pieces.0"
    assert refused(lambda c: c["pieces"][0].update(target="2")) == "pieces.0"
    assert refused(lambda c: c["pieces"][1].update(tasted=False)) == "pieces.1"
    assert refused(lambda c: c["pieces"].pop()) == "pieces"
    # as it was, whether the usual temperature of the fridge is said or not, it is sent as it is kept
    del (same := json.loads(json.dumps(sent)))["pieces"][0]["layers"][1]["hold_c"]
    status, document = api("PUT", f"cooks/{cook.id}", same)
    assert status == 200
    sent["version"] = version = document["version"]
    assert api("POST", f"cooks/{cook.id}/even", {"version": version, "what": "salt"})[0] == 409
    codes = sorted(Sample.objects.filter(trial=cook.trial).values_list("code", flat=True))
    # its name, its time and what cooks beside it may still change
    salmon = {
        "letter": "C",
        "name": "Salmon",
        "tasted": False,
        "layers": [],
        "cut": "salmon-side",
        "mass": "1 kg",
    }
    open_still = sent | {"name": "Lock-side supper, first table", "pieces": [*sent["pieces"], salmon]}
    board = saved(api, cook.id, open_still)
    assert len(board["pieces"]) == 3
    assert sorted(Sample.objects.filter(trial=cook.trial).values_list("code", flat=True)) == codes
    # a screen that was open before the first card knows no revision yet, and has changed nothing
    stale = as_sent(board)
    for layer in stale["pieces"][0]["layers"]:
        layer["revision"] = None
    assert api("PUT", f"cooks/{cook.id}", stale)[0] == 200

    status, copy = api("POST", f"cooks/{cook.id}/copy")
    assert status == 201
    assert (copy["name"], copy["trial"]["cards"], copy["in_hand"]) == ("Lock-side supper, first table, again", 0, True)
    assert copy["serve_at"] > document["serve_at"]
    assert [piece["tasted"] for piece in copy["pieces"]] == [True, True, False]
    kinds = [[layer["kind"] for layer in piece["layers"]] for piece in copy["pieces"]]
    assert kinds == [[layer["kind"] for layer in piece["typed"]["layers"]] for piece in board["pieces"]]
    assert not any(step["done_at"] for piece in opened(api)["pieces"] for step in piece["steps"])
    assert copy["pieces"][0]["layers"][1]["revision"] is None
    changed = as_sent(copy)
    changed["pieces"][0]["name"] = "Rubbed twice"
    assert api("PUT", f"cooks/{copy['id']}", changed)[0] == 200
    assert Cook.objects.get(pk=cook.pk).pieces.get(letter="A").name == "Rubbed"

    # with its only card taken back, it is open again
    card_id = seat(api, cook)["cards"][0]["id"]
    api("POST", f"trials/{cook.trial.id}/cards/{card_id}/delete")
    mended = as_sent(api("GET", f"cooks/{cook.id}")[1])
    mended["pieces"][0]["name"] = "Rubbed, renamed"
    assert api("PUT", f"cooks/{cook.id}", mended)[0] == 200


def test_plate_numbers_stand_beside_pieces_in_one_answer_that_notes_who_looked(api, cook):
    codes = set(Sample.objects.filter(trial=cook.trial).values_list("code", flat=True))
    for path in (
        "cooks/in-hand",
        f"cooks/{cook.id}",
        "cooks",
        f"trials/{cook.trial.id}",
        f"trials/{cook.trial.id}/verdict",
    ):
        text = json.dumps(api("GET", path)[1])
        if any(f'"{code}"' in text for code in codes):
            assert '"letter": "A"' not in text
    assert api("GET", f"trials/{cook.trial.id}/looks")[0] == 405
    assert api("POST", f"trials/{cook.trial.id}/looks", {"who": " "})[0] == 422
    seen = api("POST", f"trials/{cook.trial.id}/looks", {"who": "Kittiwake"})[1]
    assert {plate["code"] for plate in seen["plates"]} == codes
    assert seen["seen_by"] == ["Kittiwake"]
    api("POST", f"trials/{cook.trial.id}/looks", {"who": "Kittiwake"})
    assert Look.objects.count() == 1
    assert seat(api, cook)["seen_by"] == ["Kittiwake"]
    # that card is not blind, the others' are
    hand_in(api, cook, "Marigold", None)
    table = hand_in(api, cook, "kittiwake", None)
    assert {c["taster"]: c["blind"] for c in table["cards"]} == {"Marigold": True, "Kittiwake": False}
    api("POST", f"trials/{cook.trial.id}/reveal")
    muddies = {d["what"]: d["sentence"] for d in api("GET", f"trials/{cook.trial.id}/verdict")[1]["differs"]}
    assert muddies["blind"].startswith("1 of 2 cards are from tasters who knew")
    # a card handed in before its taster looked stays blind
    api("POST", f"trials/{cook.trial.id}/looks", {"who": "Marigold"})
    assert Card.objects.get(trial=cook.trial, taster__nickname="Marigold").blind


def test_a_trial_states_its_number_of_cards_before_the_first(api, cook):
    assert seat(api, cook)["planned_cards"] == 12
    assert designed(api, cook, cards=6)[1]["cards"] == 6
    for bad in (0, 61):
        assert designed(api, cook, cards=bad)[0] == 422
    code = {sample.piece.letter: sample.code for sample in cook.trial.samples.select_related("piece")}
    for n in range(5):
        hand_in(api, cook, f"Boat {n}", code["B"])
    assert api("GET", f"trials/{cook.trial.id}/verdict")[1]["reading"]["state"] == "not yet known"
    status, problem = designed(api, cook, cards=5)
    assert (status, problem["errors"][0]["code"]) == (409, "tasted")
    hand_in(api, cook, "Boat 5", code["B"])
    verdict = api("GET", f"trials/{cook.trial.id}/verdict")[1]
    assert (verdict["reading"]["state"], verdict["cards_beyond"]) == ("winner", 0)
    # only the cards that were stated decide: what comes after them is shown, and counts for nothing
    for n in range(6, 12):
        hand_in(api, cook, f"Boat {n}", code["A"])
    verdict = api("GET", f"trials/{cook.trial.id}/verdict")[1]
    assert (verdict["reading"]["state"], verdict["cards_beyond"]) == ("winner", 6)
    assert sorted(side["votes"] for side in verdict["sides"]) == [0, 6]
    assert len(verdict["cards"]) == 12


def test_the_verdict_shows_the_salt_votes_of_its_cards(api, cook):
    codes = seat(api, cook)["codes"]
    for taster, votes in (("Kittiwake", (2, 4)), ("Marigold", (3, 5)), ("Tamarisk", (3, 3))):
        document = card(seat(api, cook), taster, None)
        document["scores"] += [
            {"code": code, "scale": "salt", "value": vote} for code, vote in zip(codes, votes, strict=True)
        ]
        assert api("POST", f"trials/{cook.trial.id}/cards", document)[0] == 201
    votes = api("GET", f"trials/{cook.trial.id}/verdict")[1]["sides"]
    assert [{key: of["right"][0][key] for key in ("too_little", "just_right", "too_much")} for of in votes] == [
        {"too_little": 1, "just_right": 2, "too_much": 0}, {"too_little": 0, "just_right": 1, "too_much": 2},
    ]  # fmt: skip


def test_what_the_sieve_holds_back_becomes_a_blend_that_follows_its_source(api, book):
    lines = [{"grind": "water/liquid", "parts": "500", "basis": "scale"},
             {"grind": "onion-fresh/blended", "parts": "235", "basis": "scale"},
             {"grind": "table-salt/fine", "parts": "50", "basis": "scale"}]  # fmt: skip
    document = {
        "name": "Onion brine",
        "kind": "injection",
        "batch": "785 g",
        "lines": lines,
        "method": [{"do": "strain"}],
    }
    brine = api("POST", "blends", document)[1]
    assert brine["reading"]["held_g"] == pytest.approx(94, abs=0.5)
    status, sieve = api("POST", f"blends/{brine['id']}/sieve")
    assert status == 201
    assert (sieve["name"], sieve["kind"], sieve["batch"]) == ("Sieved out of Onion brine", "cooking liquid", "94 g")
    assert sieve["lines"][0]["held"]
    assert sieve["reading"]["salt"]["value"] == pytest.approx(brine["reading"]["held_salt_percent"])
    # it follows the blend it came out of, and is kept with it
    saltier = {key: brine[key] for key in ("name", "kind", "batch", "method", "version")}
    saltier["lines"] = [*lines[:2], lines[2] | {"parts": "90"}]
    api("PUT", f"blends/{brine['id']}", saltier)
    assert api("GET", f"blends/{sieve['id']}")[1]["reading"]["salt"]["value"] > 1.5 * sieve["reading"]["salt"]["value"]
    kept = Blend.objects.get(pk=sieve["id"]).keep("in the pot")
    assert kept.lines.get().held
    assert Blend.objects.get(pk=sieve["id"]).draft().lines.get().held
    # taken out as a list and brought in again it is still what the sieve held
    pot = {"name": "Pot", "kind": "cooking liquid", "batch": "400 g", "method": [{"do": "rest", "lasts": "5 min"}]}
    pot["lines"] = [{"blend": brine["id"], "parts": "1", "basis": "scale", "held": True},
                    {"blend": brine["id"], "parts": "3", "basis": "scale"}]  # fmt: skip
    pot["method"] = [{"do": "mix", "of": [f"sieve:{brine['id']}"]}]
    made = api("POST", "blends", pot)[1]
    text = api.client.get(f"/api/blends/{made['id']}/take-out/markdown").content.decode()
    found = api("POST", "blends/bring", {"text": text})[1]
    assert [(line["blend"], line["held"]) for line in found["made"]] == [(brine["id"], True), (brine["id"], False)]
    assert found["method"][0]["of"] == [f"sieve:{brine['id']}"]
    unstrained = api("POST", "blends", document | {"name": "Whole", "method": []})[1]
    assert api("POST", f"blends/{unstrained['id']}/sieve")[0] == 422
    wrong = [lines[0] | {"held": True}]
    problem = api("POST", "blends", document | {"lines": wrong})[1]
    assert problem["errors"][0]["field"] == "lines.0.held"


def test_a_jar_of_raw_garlic_in_oil_is_a_stop_until_it_is_frozen(api, book):
    lines = [{"grind": "garlic-fresh/crushed", "parts": "1"}, {"grind": "olive-oil/liquid", "parts": "3"}]
    blend = api("POST", "blends", {"name": "Lock garlic", "kind": "paste", "batch": "60 g", "lines": lines})[1]
    assert ids(blend["reading"])["garlic-oil-today"] == "note"
    jar = Jar.objects.first()
    jar.batch.blend_id = blend["id"]
    jar.batch.revision = Blend.objects.get(pk=blend["id"]).keep("mixed")
    jar.batch.save()
    jar.batch.lines.all().delete()
    for at, grams in enumerate((15, 45)):
        line = jar.batch.lines.create(position=at, line=at, name="x", wanted_g=grams, done=True)
        line.pours.create(number=at, grams=grams, key=f"{at:032x}")
    row = next(row for row in api("GET", "batches")[1] if row["id"] == str(jar.batch_id))
    assert [(c["id"], c["level"]) for c in row["jar"]["cautions"]] == [("garlic-oil", "stop")]
    body = {"version": row["version"], "clean": True, "frozen": True}
    assert api("PUT", f"batches/{row['id']}/jar", body)[0] == 200
    row = next(row for row in api("GET", "batches")[1] if row["id"] == str(jar.batch_id))
    assert (row["jar"]["frozen"], row["jar"]["cautions"]) == (True, [])


def test_a_default_coat_on_thin_meat_and_on_birds_is_usual_not_salty(api, book):
    rub = str(Blend.objects.get(name="Cumin and sumac goat rub").id)
    for cut, mass in (("chicken-whole", "1.8 kg"), ("lamb-cubes", "1 kg"), ("pork-back-ribs", "900 g")):
        piece = {"cut": cut, "mass": mass}
        layer = api("POST", "cooks/coat/layer", {"blend_id": rub, "piece": piece})[1]["layer"]
        joint = {"letter": "A", "name": "A", **piece, "layers": [layer]}
        found = api("POST", "cooks/coat/read", {"pieces": [joint]})[1][0]
        assert 1.2 <= found["salt"]["value"] <= 1.8, cut
        way = api("POST", "cooks/coat/way", {"way": "ahead", "piece": joint, "blend_ids": [rub]})[1]
        both = api("POST", "cooks/coat/read", {"pieces": [way]})[1][0]
        assert both["salt"]["value"] <= 1.8, cut
    mustard = api("POST", "cooks/coat/layer", {"kind": "binder", "grind": "mustard-prepared/paste", "piece": piece})[1]
    assert mustard["layer"]["dose"] == "2.4"


def test_a_trial_that_was_tasted_before_trials_stated_their_cards_stated_those_it_has(tmp_path):
    env = os.environ | {"RAVSKA_DATA": str(tmp_path)}

    def manage(*words: str) -> None:
        subprocess.run([sys.executable, "server/manage.py", *words], env=env, check=True, capture_output=True)

    manage("migrate", "--skip-checks", "book", "0005")
    key = [f"{n:032x}" for n in range(60)]
    when = "2026-11-01 12:00:00"
    with closing(sqlite3.connect(tmp_path / "ravska.sqlite3")) as book, book:

        def put(table: str, **row) -> None:
            names = ", ".join(f'"{name}"' for name in row)
            book.execute(f"INSERT INTO book_{table} ({names}) VALUES ({', '.join('?' * len(row))})", list(row.values()))

        put("household", id=key[0], name="Weir House")
        for n, cards in ((1, 0), (2, 15)):
            put(
                "cook",
                id=key[n],
                name="Old",
                serve_at=when,
                in_hand=0,
                version=1,
                household_id=key[0],
                appetite="usual",
            )
            put("trial", id=key[n], question="?", factor="seasoning", seed=5, cook_id=key[n])
            for at in range(cards):
                put("taster", id=key[20 + at], nickname=f"Boat {at}", household_id=key[0])
                put("card", id=key[40 + at], number=at, served="[]", blind=1, scored_at=when, taster_id=key[20 + at],
                    trial_id=key[n])  # fmt: skip
    manage("migrate", "--skip-checks")
    with closing(sqlite3.connect(tmp_path / "ravska.sqlite3")) as book:
        stated = dict(book.execute("SELECT cook_id, planned_cards FROM book_trial").fetchall())
        cards = book.execute("SELECT COUNT(*) FROM book_card").fetchone()[0]
    assert stated == {key[1]: 12, key[2]: 15}
    assert cards == 15
    assert Trial._meta.get_field("planned_cards").default == 12
