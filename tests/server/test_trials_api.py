"""A trial from its design to its verdict over the API: kinds, seats, twins, two-by-twos, cards of every sort, paper."""

from datetime import timedelta
from uuid import uuid4

import pytest
from book.models import Cook, Event, Layer, Piece, Sample, Serving, Taster
from django.test import Client
from django.utils import timezone
from running import OWN_PAGE
from server.test_cook_api import as_sent, opened, saved
from server.test_table_api import as_design, card, designed, seat

BOATS = ("Kittiwake", "Marigold", "Tamarisk", "Dabchick", "Halcyon", "Skylark", "Moorhen", "Bittern")


def version_of(api, cook) -> int:
    return api("GET", f"trials/{cook.trial.id}/design")[1]["version"]


def seat_all(api, cook, names=BOATS[:4], short=()) -> dict:
    seats = [{"taster": name, "short": name in short} for name in names]
    status, table = api("PUT", f"trials/{cook.trial.id}/seats", {"version": version_of(api, cook), "seats": seats})
    assert status == 200, table
    return table


def order_of(table: dict, taster: str) -> list[str]:
    return next(one["order"] for one in table["servings"] if one["taster"] == taster)


def behind(cook) -> dict[str, str]:
    """The codes by letter; a twin's under the letter with a mark."""
    found = {}
    for sample in Sample.objects.filter(trial=cook.trial).select_related("piece", "twin_of__piece"):
        found[sample.meat().letter + ("'" if sample.twin_of_id else "")] = sample.code
    return found


def third_piece(api, cook) -> None:
    """A third piece on the board, tasted too."""
    first = cook.pieces.get(letter="A")
    layers = list(first.layers.all())
    first.pk, first.letter, first.name, first.position = None, "C", "Salted ahead", 2
    first._state.adding = True
    first.id = uuid4()
    first.save()
    Layer.objects.create(piece=first, position=0, kind="pre-salt", grind="table-salt/fine", dose=1.0, dose_typed="1",
                         hold_s=3600, hold_typed="1 h")  # fmt: skip
    assert layers
    status, told = api("POST", "trials", {"cook_id": str(cook.pk), "letters": ["A", "B", "C"]})
    assert status == 201, told


def send(api, cook, taster: str, **said) -> tuple[int, dict]:
    return api("POST", f"trials/{cook.trial.id}/cards", {"taster": taster, "scores": [], **said})


def ranked(order: list[str]) -> list[dict]:
    return [{"code": code, "scale": "rank", "value": n} for n, code in enumerate(order, 1)]


def liked(values: dict[str, int]) -> list[dict]:
    return [{"code": code, "scale": "overall", "value": value} for code, value in values.items()]


def verdict_of(api, cook) -> dict:
    return api("GET", f"trials/{cook.trial.id}/verdict")[1]


def test_a_third_piece_makes_a_ranking_and_eight_that_agree_name_its_best(api, cook):
    third_piece(api, cook)
    now = as_design(api, cook)
    assert (now["kind"], now["letters"]) == ("ranking", ["A", "B", "C"])
    assert designed(api, cook, cards=8, scales=[])[0] == 200
    table = seat_all(api, cook, BOATS)
    assert len(table["servings"]) == 8
    assert all(sorted(one["order"]) == table["codes"] for one in table["servings"])
    first_places = [one["order"][0] for one in table["servings"]]
    assert max(map(first_places.count, table["codes"])) - min(map(first_places.count, table["codes"])) <= 1
    code = behind(cook)
    status, problem = send(api, cook, "Kittiwake", scores=ranked([code["C"], code["A"]]))
    assert (status, problem["errors"][0]["sentence"]) == (422, f"Put {code['B']} in order too.")
    too_low = [{"code": one, "scale": "rank", "value": 2 + n} for n, one in enumerate(sorted(code.values()))]
    status, problem = send(api, cook, "Kittiwake", scores=too_low)
    assert (status, problem["errors"][0]["field"]) == (422, "scores.2.value")
    assert problem["errors"][0]["sentence"] == "rank goes from 1 to 3."
    for at, taster in enumerate(BOATS):
        best_first = [code["C"], *([code["A"], code["B"]] if at % 2 else [code["B"], code["A"]])]
        assert send(api, cook, taster, scores=ranked(best_first))[0] == 201
    kept = verdict_of(api, cook)
    assert (kept["reading"]["state"], kept["liking"], kept["cards"][0]["ranks"]) == ("kept", [], [None, None, None])
    table = api("POST", f"trials/{cook.trial.id}/reveal")[1]
    assert table["revealed"]["plates"][-1]["name"] == "Salted ahead"
    assert table["revealed"]["plates"][-1]["best_of"] == list(BOATS)
    found = verdict_of(api, cook)
    reading = found["reading"]
    assert (reading["state"], reading["headline"]) == ("winner", "Salted ahead ranked best")
    assert reading["counts"] == [20, 20, 8]
    # by hand: F = 12 (20^2 + 20^2 + 8^2) / (8 3 4) - 3 8 4 = 12
    assert reading["probability"]["steps"][-2]["value"] == pytest.approx(12)
    assert len(reading["pairs"]) == 3
    assert [pair["apart"] for pair in reading["pairs"]] == [False, True, True]
    assert found["agreement"] == pytest.approx(12 / 8 / 2)


def test_scores_with_a_twin_are_read_once_and_tell_who_repeats(api, cook):
    assert designed(api, cook, kind="scores", twin=True, cards=6, scales=["overall", "salt", "smoke"])[0] == 200
    assert len(seat(api, cook)["codes"]) == 3
    for at, taster in enumerate(BOATS[:6]):
        code = behind(cook)
        twinned = "A" if "A'" in code else "B"
        scores = liked({code["A"]: 5 + at % 2, code["B"]: 7 + at % 2, code[twinned + "'"]: 6})
        scores += [{"code": code["A"], "scale": "salt", "value": 2}, {"code": code["B"], "scale": "salt", "value": 3}]
        words = [{"code": code["B"], "words": ["smoke", "lingers"]}]
        assert send(api, cook, taster, scores=scores, words=words)[0] == 201
    assert verdict_of(api, cook)["reading"]["state"] == "kept"
    api("POST", f"trials/{cook.trial.id}/reveal")
    found = verdict_of(api, cook)
    assert found["reading"]["headline"] == "Marinated is liked better"
    # each likes it better by 2, six of six: 2 / 2^6
    assert found["reading"]["probability"]["value"] == pytest.approx(2 / 64)
    apart = [one["repeats"] for one in found["tasters"]]
    assert apart == [abs(6 - ((5 if twinned == "A" else 7) + at % 2)) for at in range(6)]
    assert found["penalties"][0]["scale"] == "salt"
    assert found["penalties"][0]["side"] == "too little"
    assert {word["word"]: word["said"] for word in found["words"]} == {"smoke": 6, "lingers": 6}
    # a card that comes after the reveal decides nothing
    code = behind(cook)
    assert send(api, cook, "Bittern", scores=liked({c: 9 if c == code["A"] else 1 for c in code.values()}))[0] == 201
    assert verdict_of(api, cook)["reading"]["probability"]["value"] == pytest.approx(2 / 64)
    assert verdict_of(api, cook)["cards_beyond"] == 1


@pytest.mark.parametrize(("right", "state"), [(8, "told apart"), (7, "not told apart")])
def test_a_triangle_of_twelve_takes_eight_that_are_right(api, cook, right, state):
    assert designed(api, cook, kind="triangle", cards=12, scales=[])[0] == 200
    names = [f"Boat {n}" for n in range(12)]
    table = seat_all(api, cook, names)
    codes = behind(cook)
    assert set(codes) == {"A", "A'", "B", "B'"}
    letter_of = {code: letter[0] for letter, code in codes.items()}
    for at, name in enumerate(names):
        order = order_of(table, name)
        letters = [letter_of[code] for code in order]
        odd = next(code for code, letter in zip(order, letters, strict=True) if letters.count(letter) == 1)
        pick = odd if at < right else next(code for code in order if code != odd)
        status, problem = send(api, cook, name)
        assert (status, problem["errors"][0]["field"]) == (422, "odd")
        assert send(api, cook, name, odd=pick)[0] == 201
    assert verdict_of(api, cook)["reading"]["state"] == "kept"
    api("POST", f"trials/{cook.trial.id}/reveal")
    reading = verdict_of(api, cook)["reading"]
    assert (reading["state"], reading["counts"]) == (state, [right, 12 - right])
    assert ("no difference" in " ".join(reading["says"])) == (state == "not told apart")


def test_a_design_that_cannot_be_is_refused_at_its_fields(api, cook):
    for changed, field in (
        ({"kind": "preference", "letters": ["A"]}, "letters"), ({"letters": ["A", "H"]}, "letters"),
        ({"kind": "preference", "twin": True}, "twin"), ({"scales": ["charm"]}, "scales"),
        ({"scales": ["rank"]}, "scales"), ({"sides": ["a", "b"]}, "sides"), ({"parts": ["l", "m", "r"]}, "parts"),
        ({"sides": ["a", "b", "c", "d"], "kind": "scores"}, "sides"), ({"question": " "}, "question"),
        ({"cards": 0}, "cards"), ({"kind": "duel"}, "kind"), ({"words": ["x" * 31]}, "words.0"),
    ):  # fmt: skip
        status, problem = designed(api, cook, **changed)
        assert status == 422, changed
        assert field in [error["field"] for error in problem["errors"]], (changed, problem)
    status, problem = designed(api, cook, version=99)
    assert (status, problem["theirs"]["question"]) == (409, as_design(api, cook)["question"])
    assert api("POST", "trials", {"cook_id": str(cook.pk), "letters": ["A"]})[0] == 422


def test_once_a_card_is_in_the_design_stays_and_what_is_recorded_beside_it_still_goes_in(api, cook):
    assert send(api, cook, "Kittiwake", prefers=seat(api, cook)["codes"][0])[0] == 201
    status, problem = designed(api, cook, kind="ranking")
    assert (status, problem["title"], problem["errors"][0]["code"]) == (409, "Tasted", "tasted")
    assert "copy" in problem["detail"]
    now = version_of(api, cook)
    pieces = [
        {"letter": "A", "portion": {"grain": "across", "thickness": "8 mm"}, "plate_min": "12 min"},
        {"letter": "B", "portion": {"grain": "along", "thickness": "9 mm"}, "plate_min": "4 min"},
    ]
    how = {"warm": "55 °C", "sip": "water", "dim": True, "shared": ["one board"]}
    served = {"version": now, "serving": how, "pieces": pieces}
    status, told = api("PUT", f"trials/{cook.trial.id}/serving", served)
    assert status == 200, told
    assert told["pieces"][0]["portion"] == {"grain": "across", "thickness": "8 mm", "crust": "", "place": ""}
    assert told["pieces"][0]["plate_min"] == "12 min"
    fair = api("GET", f"trials/{cook.trial.id}/fair")[1]
    said = {one["what"]: one["sentence"] for one in fair["differs"]}
    assert said["plate"] == "The time from the fire to the plates differs: A 12 min, B 4 min."
    assert said["portion"] == "The portions differ in their grain: A across, B along."
    assert said["shared"].startswith("They share one board")
    assert any(word.startswith("portions (thickness") for word in fair["same"])
    for bad, field in (({"thickness": "thick"}, "thickness"), ({"thickness": "40 cm"}, "thickness")):
        wrong = {"version": version_of(api, cook), "serving": {}, "pieces": [{"letter": "A", "portion": bad}]}
        status, problem = api("PUT", f"trials/{cook.trial.id}/serving", wrong)
        assert status == 422
        assert problem["errors"][0]["field"].endswith(field)
    board = opened(api)
    assert api("POST", f"cooks/{cook.id}/even", {"version": board["version"], "what": "weight"})[0] == 409
    copy = api("POST", f"cooks/{cook.id}/copy")[1]
    again = Cook.objects.get(pk=copy["id"])
    assert (again.trial.question, again.trial.kind, again.trial.servings.count()) == (
        cook.trial.question,
        "preference",
        0,
    )


def test_a_card_that_was_taken_back_keeps_the_design_as_it_can_be_put_in_again(api, cook):
    designed(api, cook, kind="scores", twin=True)
    codes = seat(api, cook)["codes"]
    table = send(api, cook, "Kittiwake", scores=liked(dict.fromkeys(codes, 7)))[1]
    card_id = table["cards"][0]["id"]
    assert api("POST", f"trials/{cook.trial.id}/cards/{card_id}/delete")[1]["cards"] == []
    status, problem = designed(api, cook, twin=False)
    assert (status, problem["errors"][0]["code"]) == (409, "tasted")
    assert api("GET", f"trials/{cook.trial.id}/design")[1]["tasted"]
    assert len(api("POST", f"trials/{cook.trial.id}/cards/{card_id}/restore")[1]["cards"]) == 1


def test_a_full_sitting_has_no_room_for_a_twin(api, cook):
    third_piece(api, cook)
    designed(api, cook, kind="scores", twin=True)
    assert len(seat(api, cook)["codes"]) == 4
    sent = as_sent(opened(api))
    sent["pieces"] += [sent["pieces"][2] | {"letter": letter, "name": f"Salted {letter}"} for letter in "DEF"]
    saved(api, cook.id, sent)
    assert len(seat(api, cook)["codes"]) == 6
    assert not api("GET", f"trials/{cook.trial.id}/design")[1]["twin"]


def test_nobody_is_dealt_what_they_may_not_eat_and_it_never_says_which_plate(api, cook):
    heron = api("POST", "cooks/tasters", {"nickname": "Heron", "avoids": ["milk"]})[1]
    coot = api("POST", "cooks/tasters", {"nickname": "Coot", "avoids": ["okra"]})[1]
    assert heron["id"] != coot["id"]
    status, problem = api("PUT", f"trials/{cook.trial.id}/seats", {
        "version": version_of(api, cook), "seats": [{"taster": "Kittiwake"}, {"taster": "heron"}]})  # fmt: skip
    assert (status, problem["errors"][0]["field"]) == (422, "seats.1.taster")
    assert problem["errors"][0]["sentence"].startswith("Heron does not eat milk, which is in one of these plates")
    assert Serving.objects.filter(trial=cook.trial).count() == 0
    assert api("POST", f"trials/{cook.trial.id}/seat", {"taster": "Heron"})[0] == 422
    status, problem = send(api, cook, "Heron", prefers=seat(api, cook)["codes"][0])
    assert (status, problem["errors"][0]["field"]) == (422, "taster")
    table = seat_all(api, cook, ("Coot", "Kittiwake"))
    says = {one["taster"]: one["says"] for one in table["servings"]}
    assert says == {"Coot": "Ask Coot first: no table says whether these plates hold okra.", "Kittiwake": ""}
    # who learns later that somebody may not eat one serves them no more
    Taster.objects.filter(nickname="Coot").update(avoids=["milk"])
    coot_now = next(one for one in seat(api, cook)["servings"] if one["taster"] == "Coot")
    assert coot_now["order"] == []
    assert "serve them something else" in coot_now["says"]


def test_who_leaves_is_out_of_the_balance_and_who_comes_back_has_their_own_order(api, cook):
    table = seat_all(api, cook)
    assert table["balance"]["even"]
    mine = order_of(table, "Marigold")
    gone = api("POST", f"trials/{cook.trial.id}/gone", {"taster": "marigold"})[1]
    assert [one["state"] for one in gone["servings"]] == ["waits", "gone", "waits", "waits"]
    assert (gone["balance"]["even"], gone["balance"]["says"][:19]) == (True, "As even as 3 can be")
    first = gone["servings"][0]["order"]
    other = next(one["taster"] for one in gone["servings"][2:] if one["order"] != first)
    two = api("POST", f"trials/{cook.trial.id}/gone", {"taster": other})[1]
    assert (two["balance"]["even"], two["balance"]["says"][:14]) == (False, "Out of balance")
    api("POST", f"trials/{cook.trial.id}/gone", {"taster": other, "gone": False})
    assert api("POST", f"trials/{cook.trial.id}/gone", {"taster": "Nobody"})[0] == 422
    back = api("POST", f"trials/{cook.trial.id}/gone", {"taster": "Marigold", "gone": False})[1]
    assert order_of(back, "Marigold") == mine
    # a card from who was gone takes them back, with the order that they were served
    api("POST", f"trials/{cook.trial.id}/gone", {"taster": "Marigold"})
    assert send(api, cook, "Marigold", prefers=mine[0])[0] == 201
    told = seat(api, cook)
    assert [one["state"] for one in told["servings"]] == ["waits", "in", "waits", "waits"]
    assert told["cards"][0]["served"] == mine
    # who walks in gets the order after the last
    walked = api("POST", f"trials/{cook.trial.id}/seat", {"taster": "Otter"})[1]["servings"][-1]
    assert (walked["taster"], walked["number"], len(walked["order"])) == ("Otter", 4, 2)
    assert Taster.objects.get(nickname="Otter").guest


def test_seats_keep_their_orders_and_cards_keep_their_seats(api, cook):
    first = seat_all(api, cook)
    assert [one["number"] for one in first["servings"]] == [0, 1, 2, 3]
    fewer = seat_all(api, cook, ("Marigold", "Halcyon"))
    assert [(one["taster"], one["number"]) for one in fewer["servings"]] == [("Marigold", 0), ("Halcyon", 1)]
    send(api, cook, "Marigold", prefers=fewer["codes"][0])
    none = seat_all(api, cook, ())
    assert [(one["taster"], one["state"]) for one in none["servings"]] == [("Marigold", "in")]
    stale = {"version": 1, "seats": []}
    status, problem = api("PUT", f"trials/{cook.trial.id}/seats", stale)
    assert (status, problem["theirs"]["trial_id"]) == (409, str(cook.trial.id))


def test_a_childs_card_is_a_vote_and_never_points(api, cook):
    designed(api, cook, kind="scores", cards=6)
    table = seat_all(api, cook, ("Kittiwake", "Tadpole"), short=("Tadpole",))
    codes = table["codes"]
    faces = [{"code": code, "scale": "face", "value": value} for code, value in zip(codes, (1, 3), strict=True)]
    status, problem = send(api, cook, "Tadpole", short=True, scores=faces[:1])
    assert (status, problem["errors"][0]["sentence"]) == (422, f"Give {codes[1]} a face too.")
    assert send(api, cook, "Tadpole", short=True, scores=faces)[0] == 201
    assert send(api, cook, "Kittiwake", scores=liked(dict.fromkeys(codes, 7)))[0] == 201
    api("POST", f"trials/{cook.trial.id}/reveal")
    found = verdict_of(api, cook)
    assert sorted(side["children"] for side in found["sides"]) == [0, 1]
    assert found["liking"][0]["cards"] == 1
    assert found["reading"]["says"][-1].startswith("With fewer than 6 cards")


def test_a_card_of_who_left_early_counts_with_what_is_on_it(api, cook):
    designed(api, cook, kind="scores", cards=6)
    codes = seat(api, cook)["codes"]
    assert send(api, cook, "Kittiwake", scores=liked({codes[0]: 7}))[0] == 422
    status, table = send(api, cook, "Kittiwake", scores=liked({codes[0]: 7}), left=True)
    assert (status, table["cards"][0]["whole"]) == (201, False)
    assert send(api, cook, "kittiwake", scores=liked(dict.fromkeys(codes, 7)))[1]["errors"][0]["field"] == "taster"


def test_paper_cards_come_in_as_csv_each_once_and_what_is_wrong_is_named_by_line_and_column(api, cook):
    designed(api, cook, kind="scores", cards=6, scales=["overall", "salt"], words=["boat smoke"])
    one, other = seat(api, cook)["codes"]
    head = "taster,plate,place,overall,salt,words"
    text = "\n".join([
        head, f"Kittiwake,{one},1,7,3,smoke; lingers", f"Kittiwake,{other},2,5,2,",
        f"Marigold,{one},2,6,,", "Marigold,999,1,5,,", f"Tamarisk,{one},1,17,,", f"Tamarisk,{other},2,7,,",
        f"Dabchick,{one},,6,,", f"Dabchick,{other},,6,,",
    ])  # fmt: skip
    status, told = api("POST", f"trials/{cook.trial.id}/cards.csv", {"text": text})
    assert (status, told["taken"], told["known"]) == (200, ["Kittiwake", "Dabchick"], [])
    faults = [(fault["line"], fault["column"]) for fault in told["faults"]]
    assert (6, 4) in faults
    assert any(
        line in (4, 5) and "999" in fault["sentence"] for fault, (line, _) in zip(told["faults"], faults, strict=True)
    )
    again = api("POST", f"trials/{cook.trial.id}/cards.csv", {"text": text})[1]
    assert (again["taken"], again["known"]) == ([], ["Kittiwake", "Dabchick"])
    out = Client(headers=OWN_PAGE).get(f"/api/trials/{cook.trial.id}/cards.csv").content.decode()
    assert f"Kittiwake,{one},1," in out
    assert "smoke; lingers" in out
    assert "piece" not in out.splitlines()[0]
    # what went out comes in again elsewhere as it was
    copy = Cook.objects.get(pk=api("POST", f"cooks/{cook.id}/copy")[1]["id"])
    theirs = sorted(sample.code for sample in copy.trial.samples.all())
    moved = out.replace(f",{one},", f",{theirs[0]},").replace(f",{other},", f",{theirs[1]},")
    status, told = api("POST", f"trials/{copy.trial.id}/cards.csv", {"text": moved})
    assert (told["taken"], told["faults"]) == (["Kittiwake", "Dabchick"], [])
    for bad in ("", "who,what\n"):
        assert api("POST", f"trials/{cook.trial.id}/cards.csv", {"text": bad})[0] == 422


def test_a_trial_that_changes_two_things_is_made_clean_by_one_tap(api, cook):
    fair = api("GET", f"trials/{cook.trial.id}/fair")[1]
    assert len(fair["changes"]) == 2
    assert "honey" in fair["changes"][1]["of"]
    assert fair["clean"].startswith("To ask one thing: put")
    assert fair["can_clean"]
    assert len(fair["two_by_two"]) == 4
    assert fair["looks"]
    board = opened(api)
    after = api("POST", f"cooks/{cook.id}/even", {"version": board["version"], "what": "layers on both"})[1]
    kinds = [[layer["kind"] for layer in piece["typed"]["layers"]] for piece in after["pieces"]]
    assert "glaze" in kinds[0]
    assert "glaze" in kinds[1]
    assert api("GET", f"trials/{cook.trial.id}/fair")[1]["clean"] == ""
    assert api("POST", f"cooks/{cook.id}/even", {"version": after["version"], "what": "layers off"})[0] == 422


def test_the_other_tap_leaves_it_off(api, cook):
    board = opened(api)
    after = api("POST", f"cooks/{cook.id}/even", {"version": board["version"], "what": "layers off"})[1]
    assert all("glaze" not in [layer["kind"] for layer in piece["typed"]["layers"]] for piece in after["pieces"])
    positions = list(Layer.objects.filter(piece__cook=cook, piece__letter="A").values_list("position", flat=True))
    assert sorted(positions) == list(range(len(positions)))
    assert len(after["fair"]["changes"]) == 1


def test_the_two_by_two_answers_both_and_is_read_in_its_pairs(api, cook):
    status, made = api("POST", f"trials/{cook.trial.id}/two-by-two", {"version": version_of(api, cook)})
    assert status == 200, made
    assert (made["kind"], len(made["sides"])) == ("scores", 4)
    places = {(one["row"], one["column"]): one["letter"] for one in made["pieces"] if one["tasted"]}
    assert len(places) == 4
    kinds = {piece.letter: [layer.kind for layer in piece.layers.all()] for piece in Piece.objects.filter(cook=cook)}
    for (row, _), letter in places.items():
        assert ("glaze" in kinds[letter]) == (row == 1)
    fair = api("GET", f"trials/{cook.trial.id}/fair")[1]
    assert fair["clean"] == ""  # within a row one thing changes
    assert designed(api, cook, cards=6)[0] == 200
    code = behind(cook)
    for at, taster in enumerate(BOATS[:6]):
        values = {code[letter]: 5 + at % 2 + 2 * column for (_, column), letter in places.items()}
        assert send(api, cook, taster, scores=liked(values))[0] == 201
    api("POST", f"trials/{cook.trial.id}/reveal")
    reading = verdict_of(api, cook)["reading"]
    assert (reading["state"], reading["column"], len(reading["pairs"])) == ("winner", 1, 2)
    assert reading["headline"] == f"{made['sides'][3]} is liked better"
    status, _problem = api("POST", f"trials/{cook.trial.id}/two-by-two", {"version": version_of(api, cook)})
    assert status == 409


def test_who_has_the_cook_or_the_design_open_is_told_when_other_pieces_are_tasted(api, cook):
    sent = as_sent(opened(api))
    design = as_design(api, cook)
    made = api("POST", f"trials/{cook.trial.id}/two-by-two", {"version": design["version"]})[1]
    assert len([one for one in made["pieces"] if one["tasted"]]) == 4
    # an older window of Coat does not take the two new pieces off the board again
    status, problem = api("PUT", f"cooks/{cook.id}", sent)
    assert (status, len(problem["theirs"]["pieces"])) == (409, 4)
    assert Piece.objects.filter(cook=cook).count() == 4
    # nor does an older design undo what was ticked in Coat
    now, ticked = as_design(api, cook), as_sent(opened(api))
    ticked["pieces"][3]["tasted"] = False
    saved(api, cook.id, ticked)
    status, problem = api("PUT", f"trials/{cook.trial.id}/design", now)
    assert status == 409
    assert [one["letter"] for one in problem["theirs"]["pieces"] if one["tasted"]] == ["A", "B", "C"]
    assert problem["theirs"]["sides"] == []


def test_weights_are_dealt_by_lot_where_several_share_a_pack(api, book):
    api("POST", "cooks", {"name": "Thighs", "serve_at": "2027-08-01T18:00:00Z", "pieces": [
        {"name": "Rubbed", "cut": "duck-leg", "mass": "300, 310, 420 and 430 g", "blend_id": None},
        {"name": "Plain", "cut": "duck-leg", "mass": "200, 210, 220 and 230 g", "blend_id": None},
    ]})  # fmt: skip
    board = opened(api)
    weight = next(one for one in board["fair"]["differs"] if one["what"] == "weight")
    assert weight["can_even"]
    status, after = api("POST", f"cooks/{board['id']}/even", {"version": board["version"], "what": "weight"})
    assert status == 200, after
    pieces = list(Piece.objects.filter(cook=board["id"]))
    assert sorted(one for piece in pieces for one in piece.masses_g) == [200, 210, 220, 230, 300, 310, 420, 430]
    assert abs(pieces[0].mass_g - pieces[1].mass_g) <= 40
    assert all(piece.mass_g == sum(piece.masses_g) and piece.mass_typed.endswith(" g") for piece in pieces)
    assert api("GET", f"cooks/{board['id']}")[1]["errors"] == []


def test_how_long_the_plates_may_wait_goes_by_the_log_of_the_fire(api, cook):
    assert "not logged" in seat(api, cook)["waiting"]["says"]
    a, b = cook.pieces.get(letter="A"), cook.pieces.get(letter="B")
    now = timezone.now().replace(microsecond=0)
    Event.objects.create(cook=cook, piece=a, what="off", at=now - timedelta(minutes=14), key=uuid4())
    assert "Not all of them are off" in seat(api, cook)["waiting"]["says"]
    Event.objects.create(cook=cook, piece=b, what="off", at=now - timedelta(minutes=2), key=uuid4())
    waits = seat(api, cook)["waiting"]
    assert waits["says"].startswith("The first came off 12 min before the last.")
    assert waits["first_off"].startswith((now - timedelta(minutes=14)).isoformat()[:19])
    assert waits["until"].startswith((now + timedelta(minutes=18)).isoformat()[:19])


def test_guesses_above_chance_make_a_table_half_blind(api, cook):
    designed(api, cook, guess=True, cards=8)
    assert seat(api, cook)["guess"] == "Which plate do you take for “Rubbed”?"
    code = behind(cook)
    for taster in BOATS:
        assert send(api, cook, taster, prefers=code["A"], guess=code["A"])[0] == 201
    assert verdict_of(api, cook)["guesses"] is None  # told with the pieces
    api("POST", f"trials/{cook.trial.id}/reveal")
    found = verdict_of(api, cook)
    assert (found["guesses"]["right"], found["guesses"]["half_blind"]) == (8, True)
    assert any("half blind" in one["sentence"] for one in found["differs"])
    fair = api("GET", f"trials/{cook.trial.id}/fair")[1]["differs"]
    assert {one["what"] for one in fair} >= {"guessed"}
    assert "looks" not in {one["what"] for one in fair}


def test_a_deleted_cook_and_a_card_of_nothing_are_sentences(api, cook):
    codes = seat(api, cook)["codes"]
    Cook.objects.filter(pk=cook.pk).update(deleted_at=timezone.now(), in_hand=False)
    assert send(api, cook, "Kittiwake", prefers=codes[0])[0] == 404
    assert api("GET", f"trials/{cook.trial.id}/design")[0] == 404
    assert api("POST", f"trials/{cook.trial.id}/looks", {"who": "Kittiwake"})[0] == 404
    assert card({"codes": codes, "next_order": codes}, "Kittiwake", None)["taster"] == "Kittiwake"
