"""Verdicts across cooks over the API: the season of the demo with its stated truths, and all that is done with them."""

import csv
import io
from uuid import UUID

import pytest
from api.verdicts import records
from book.demo_season import TRUTHS
from book.models import Blend, Card, Cook, Layer, Piece, Sample, Score, Taster, Trial
from django.utils import timezone
from server.test_table_api import hand_in, seat

WAYS = "kind=way&first=rubbed&second=marinated"
AHEAD = "kind=way&first=marinated&second=ahead"
"""What the cook in hand asks: its first piece is salted ahead and rubbed."""


@pytest.fixture(autouse=True)
def fresh():
    records.forget()
    yield
    records.forget()


def page(api, asks: str = WAYS) -> dict:
    status, found = api("GET", f"verdicts?{asks}")
    assert status == 200, found
    return found


def rows(found: dict) -> dict[str, dict]:
    return {row["cut"]: row for row in found["page"]["rows"]}


def text_of(api, path: str) -> str:
    answer = api.client.get(f"/api/verdicts/{path}")
    assert answer.status_code == 200
    return answer.content.decode()


def scored(cook: Cook, taster: str, first: int, second: int, **of: object) -> Card:
    """Put a card of A and B into the book."""
    who, _ = Taster.objects.get_or_create(household=cook.household, nickname=taster)
    number = Card.objects.filter(trial__cook=cook).count()
    samples = {one.piece.letter: one for one in Sample.objects.filter(trial__cook=cook).select_related("piece")}
    card = Card.objects.create(
        trial=cook.trial, taster=who, number=number, served=[samples["A"].code, samples["B"].code],
        **{"blind": True, **of},
    )  # fmt: skip
    for letter, value in (("A", first), ("B", second)):
        Score.objects.create(card=card, sample=samples[letter], scale="overall", value=value)
    return card


def reveal(cook: Cook) -> None:
    Trial.objects.filter(cook=cook).update(revealed_at=timezone.now())


@pytest.mark.django_db
def test_verdicts_find_what_is_true_of_the_season(api):
    found = page(api)
    told = rows(found)
    assert set(told) == set(TRUTHS)
    for cut, truth in TRUTHS.items():
        row = told[cut]
        if truth.known in ("first", "second", "no matter"):
            assert row["state"] == truth.known, cut
            assert row["difference"]["low"] <= truth.points <= row["difference"]["high"] or truth.known != "no matter"
        else:
            assert row["state"] == "not yet known", cut
    assert told["goat-leg"]["counted"]["clean_cooks"] == 0
    assert any("No cook of it differs in nothing else" in one for one in told["goat-leg"]["says"])
    assert told["turkey-thigh"]["withheld"] == "second"
    assert any("11 of 12 cards say rubbed" in one for one in told["turkey-thigh"]["says"])
    assert told["trout-whole"]["counted"]["cooks"] == told["turkey-breast"]["counted"]["cooks"] == 1
    assert found["page"]["named"] == 3
    assert 0 < found["page"]["wrong"] < 0.3
    assert found["cooks"] >= 14
    assert all(len(row["belief"]["grains"]) == 20 for row in told.values())


@pytest.mark.django_db
def test_the_same_book_says_the_same_to_the_letter(api):
    first = api.client.get(f"/api/verdicts?{WAYS}").content
    records.forget()
    Cook.objects.filter(pk=Cook.objects.first().pk).update(people=1)
    assert api.client.get(f"/api/verdicts?{WAYS}").content == first


@pytest.mark.django_db
def test_the_pairs_the_book_can_answer_are_offered_the_fullest_first(api):
    pairs = page(api)["pairs"]
    assert (pairs[0]["kind"], pairs[0]["names"]) == ("way", ["rubbed", "marinated"])
    assert [pair["cards"] for pair in pairs] == sorted((pair["cards"] for pair in pairs), reverse=True)
    assert {pair["kind"] for pair in pairs} >= {"way", "blend"}
    assert api("GET", "verdicts/pairs")[1] == pairs
    for pair in pairs:
        asked = page(api, f"kind={pair['kind']}&first={pair['first']}&second={pair['second']}")
        counted = asked["page"]["all_cuts"]["counted"]
        assert (counted["cooks"], counted["cards"]) == (pair["cooks"], pair["cards"])


@pytest.mark.django_db
def test_a_card_that_is_taken_back_and_a_cook_that_is_deleted_count_at_once(api):
    before = rows(page(api))["duck-leg"]
    card = Card.objects.filter(trial__cook__name="Basin regatta, duck legs").first()
    assert api("POST", f"trials/{card.trial_id}/cards/{card.pk}/delete")[0] == 200
    after = rows(page(api))["duck-leg"]
    assert after["counted"]["cards"] == before["counted"]["cards"] - 1
    assert after["belief"]["mean"] != before["belief"]["mean"]
    api("POST", f"trials/{card.trial_id}/cards/{card.pk}/restore")
    assert rows(page(api))["duck-leg"] == before
    cook = Cook.objects.get(name="Basin regatta, duck legs")
    assert api("POST", f"cooks/{cook.pk}/delete", {"version": cook.version})[0] == 200
    assert rows(page(api))["duck-leg"]["counted"]["cooks"] == before["counted"]["cooks"] - 1
    assert api("POST", f"cooks/{cook.pk}/restore")[0] == 200
    assert rows(page(api))["duck-leg"]["belief"] == before["belief"]


@pytest.mark.django_db
def test_nothing_counts_before_its_reveal(api, cook):
    before = page(api)
    hand_in(api, cook, "Kittiwake", seat(api, cook)["codes"][0])
    scored(cook, "Marigold", 2, 9)
    assert page(api)["page"] == before["page"]
    assert api("POST", f"trials/{cook.trial.id}/reveal")[0] == 200
    after = rows(page(api, AHEAD))["lamb-shoulder"]["counted"]
    assert after["cards"] == 2
    assert page(api)["page"] == before["page"]


@pytest.mark.django_db
def test_what_differed_is_kept_at_the_reveal_and_worked_out_anew_where_something_changed(api, cook):
    scored(cook, "Marigold", 5, 6)
    api("POST", f"trials/{cook.trial.id}/reveal")
    trial = Trial.objects.get(pk=cook.trial.pk)
    assert trial.compared["pairs"][0][:2] == ["A", "B"]
    kept = rows(page(api, AHEAD))["lamb-shoulder"]
    trial.compared["pairs"][0][2] = [["invented", 3.0, "It was invented."]]
    Trial.objects.filter(pk=trial.pk).update(compared=trial.compared)
    records.forget()
    assert any("invented" in one["what"] for one in cell(api, "lamb-shoulder", AHEAD)["reading"]["muddies"])
    Trial.objects.filter(pk=trial.pk).update(version=trial.version + 1)
    assert rows(page(api, AHEAD))["lamb-shoulder"]["belief"] == kept["belief"]


@pytest.mark.django_db
def test_a_childs_card_has_no_points_and_who_knew_is_not_clean(api, cook):
    def now() -> dict:
        return page(api, AHEAD)["page"]["all_cuts"]["counted"]

    reveal(cook)
    scored(cook, "Bittern", 3, 8, short=True)
    assert now() == {"cooks": 0, "cards": 0, "clean_cooks": 0, "clean_cards": 0}
    scored(cook, "Grebe", 3, 8, blind=False)
    assert now() == {"cooks": 1, "cards": 1, "clean_cooks": 0, "clean_cards": 0}


@pytest.mark.django_db
def test_different_cuts_are_left_out_and_said(api, cook):
    scored(cook, "Marigold", 5, 6)
    Piece.objects.filter(cook=cook, letter="B").update(cut="beef-cheek")
    reveal(cook)
    (left,) = page(api, AHEAD)["left_out"]
    assert left["cook"] == cook.name
    assert left["says"] == "They were of different cuts, so cut and seasoning cannot be told apart."


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("asks", "cuts"),
    [
        ("cuts=duck-leg", {"duck-leg"}),
        ("cuts=duck-leg,trout-whole", {"duck-leg", "trout-whole"}),
        ("trait=tough", {"beef-cheek", "lamb-shoulder", "goat-leg", "venison-haunch"}),
        ("trait=not%20tough", {"duck-leg", "trout-whole", "turkey-breast", "turkey-thigh"}),
    ],
)
def test_a_question_can_be_asked_of_some_cuts(api, asks, cuts):
    found = set(rows(page(api, f"{WAYS}&{asks}")))
    assert found <= cuts
    assert len(found) >= len(cuts) - 1


@pytest.mark.django_db
def test_a_question_can_be_asked_of_some_cooks_and_tasters(api):
    whole = page(api)
    seasons = [page(api, f"{WAYS}&season={name}")["cooks"] for name in ("winter", "spring", "summer", "autumn")]
    assert sum(seasons) == whole["cooks"]
    assert all(count < whole["cooks"] for count in seasons)
    mine = page(api, f"{WAYS}&tasters=old%20pewter,Marigold")
    assert 0 < mine["cards"] < whole["cards"]
    assert page(api, f"{WAYS}&tasters=Nobody")["cards"] == 0
    schools = [page(api, f"{WAYS}&school={name}")["cooks"] for name in ("shorter", "longer")]
    assert max(schools) <= whole["cooks"] <= sum(schools)
    assert page(api, f"{WAYS}&cooker=No%20such")["cooks"] == 0
    others = page(api)["choices"]["cookers"]
    by_cooker("Basin regatta, duck legs", "ceramic")
    (new,) = set(page(api)["choices"]["cookers"]) - set(others)
    assert set(rows(page(api, f"{WAYS}&cooker={new}"))) == {"duck-leg"}


def by_cooker(name: str, cooker: str) -> None:
    """Say on what the pieces of a cook were cooked."""
    for piece in Piece.objects.filter(cook__name=name):
        piece.phases[0]["typed"]["cooker"] = cooker
        piece.save()
    Cook.objects.filter(name=name).update(version=50)


@pytest.mark.django_db
def test_a_cook_that_cannot_be_read_any_more_stops_no_other(api):
    whole = page(api)
    by_cooker("Basin regatta, duck legs", "sold")
    found = page(api)
    assert found["cooks"] == whole["cooks"] - 1
    (left,) = found["left_out"]
    assert left["says"] == "It could not be read: This cooker is not in the book any more; choose another."


@pytest.mark.django_db
def test_for_a_guest_it_is_less_sure(api):
    table, guest = (rows(page(api, f"{WAYS}&who={who}"))["duck-leg"]["difference"] for who in ("table", "guest"))
    assert guest["high"] - guest["low"] > table["high"] - table["low"]


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("asks", "field"),
    [
        ("kind=way&first=smoked&second=marinated", "first"),
        ("kind=way&first=rubbed&second=rubbed", "second"),
        ("kind=blend&first=x&second=y", "first"),
        ("kind=revision&first=x@1&second=x@%C2%B2", "first"),
        (f"{WAYS}&season=monsoon", "season"),
        (f"{WAYS}&school=old", "school"),
        (f"{WAYS}&trait=purple", "trait"),
    ],
)
def test_what_cannot_be_asked_gets_a_sentence_at_its_field(api, asks, field):
    for path in ("verdicts", "verdicts/next"):
        status, problem = api("GET", f"{path}?{asks}")
        assert status == 422
        assert problem["errors"][0]["field"] == field
        assert problem["errors"][0]["sentence"].endswith(".")


@pytest.mark.django_db
def test_a_table_that_is_not_there_or_a_kind_that_is_none_is_refused(api):
    assert api("GET", f"verdicts?{WAYS}&who=everybody")[0] == 422
    assert api("GET", "verdicts?kind=colour")[0] == 422
    assert api("GET", f"verdicts/cell?{WAYS}")[0] == 422
    assert api("GET", f"verdicts/cell?{WAYS}&cut=beef-brisket")[1]["errors"][0]["field"] == "cut"
    assert api("GET", "verdicts/matrix?who=nobody")[0] == 422


def cell(api, cut: str, asks: str = WAYS) -> dict:
    status, found = api("GET", f"verdicts/cell?cut={cut}&{asks}")
    assert status == 200, found
    return found


@pytest.mark.django_db
def test_a_cell_holds_every_cook_and_card_of_its_cut(api):
    found = cell(api, "duck-leg")
    reading = found["reading"]
    assert len(found["cooks"]) == len(reading["cooks"]) == 4
    assert [one["at"] for one in reading["cooks"]] == sorted(one["at"] for one in reading["cooks"])
    assert sum(len(one["cards"]) for one in reading["cooks"]) == reading["row"]["counted"]["cards"]
    for cook, of in zip(reading["cooks"], found["cooks"], strict=True):
        assert cook["key"] == of["cook_id"]
        assert Trial.objects.get(pk=of["trial_id"]).cook_id == UUID(of["cook_id"])
        for card in cook["cards"]:
            assert card["difference"] == card["liked"][1] - card["liked"][0]
    assert reading["row"] == rows(page(api))["duck-leg"]
    assert reading["grown"][-1]["state"] == reading["row"]["state"]
    assert reading["carries_says"][0].startswith("Crust +")


@pytest.mark.django_db
def test_what_muddies_a_cell_has_its_weight(api):
    reading = cell(api, "goat-leg")["reading"]
    (salt,) = [one for one in reading["muddies"] if one["what"] == "salt"]
    assert "Rubbed carries 0.53 points more salt than marinated" in salt["says"]
    assert "Left out, " in salt["says"]
    assert len(salt["cooks"]) == 2


@pytest.mark.django_db
def test_the_matrix_holds_every_pair_and_names_one_best_only_by_the_rule(api, cook):
    found = api("GET", "verdicts/matrix?kind=way")[1]
    assert {one["key"] for one in found["sides"]} >= {"rubbed", "marinated"}
    assert found["best"] is None
    duck = api("GET", "verdicts/matrix?kind=way&cut=duck-leg")[1]
    assert duck["best"] == "rubbed"
    assert duck["says"] == "Rubbed is better than each other."
    blends = api("GET", "verdicts/matrix?kind=blend")[1]
    assert len(blends["plates"]) == len([pair for pair in page(api)["pairs"] if pair["kind"] == "blend"])


@pytest.mark.django_db
def test_what_is_known_is_said_in_sentences(api):
    found = api("GET", "verdicts/known")[1]
    first = found["pairs"][0]
    assert any(one.startswith("Duck legs: rubbed is better. ") for one in first["known"])
    assert any(one.startswith("Whole trout: not yet known. ") for one in first["unknown"])
    assert found["salt"]["votes"] > 100
    assert found["model"] == page(api)["page"]["model"]


@pytest.mark.django_db
def test_the_salt_this_table_likes_becomes_the_salt_wanted(api, cook):
    found = api("GET", "verdicts/salt")[1]
    liked = found["salt"]["liked"]
    assert 0.5 < liked["low"] < liked["value"] < liked["high"] < 3
    assert found["cook_id"] == str(cook.pk)
    version = Cook.objects.get(pk=cook.pk).version
    after = api("POST", "verdicts/salt", {"cook_id": str(cook.pk)})[1]
    assert after["wanted"] == [f"{round(liked['value'], 1):g}"] * 2
    assert Cook.objects.get(pk=cook.pk).version == version + 1
    assert cook.pieces.get(letter="A").target_percent == round(liked["value"], 1)
    hand_in(api, cook, "Kittiwake", None)
    assert api("GET", "verdicts/salt")[1]["cook_id"] is None
    status, problem = api("POST", "verdicts/salt", {"cook_id": str(cook.pk)})
    assert (status, problem["errors"][0]["field"]) == (409, "cook_id") or status in (409, 422)


@pytest.mark.django_db
def test_without_votes_no_salt_is_told_and_none_can_be_wanted(api, cook):
    Score.objects.filter(scale="salt").delete()
    Card.objects.filter(trial__revealed_at__isnull=False).update(deleted_at=timezone.now())
    found = api("GET", "verdicts/salt")[1]
    assert found["salt"]["liked"] is None
    assert api("POST", "verdicts/salt", {"cook_id": str(cook.pk)})[0] == 422


@pytest.mark.django_db
def test_what_matters_is_chosen_before_looking(api, cook):
    late = {"kind": "way", "first": "rubbed", "second": "marinated", "margin": 1.0}
    status, problem = api("PUT", "verdicts/band", late)
    assert (status, problem["errors"][0]["field"]) == (422, "margin")
    early = {"kind": "way", "first": "plain", "second": "ahead", "margin": 1.0}
    assert api("PUT", "verdicts/band", early)[0] == 200
    chosen = api("PUT", "verdicts/band", early | {"margin": 0.8})[1]
    assert (chosen["names"], chosen["margin"]) == (["salted ahead", "plain"], 0.8)
    Layer.objects.filter(piece__cook=cook, piece__letter="B").delete()
    scored(cook, "Marigold", 5, 6)
    assert page(api, "kind=way&first=ahead&second=plain")["can_choose"]
    assert api("GET", f"verdicts/bands/{cook.trial.id}")[1] == [chosen]
    reveal(cook)
    found = page(api, "kind=way&first=ahead&second=plain")
    assert not found["can_choose"]
    assert found["page"]["margin"] == 0.8
    assert api("PUT", "verdicts/band", early)[0] == 422
    assert api("PUT", "verdicts/band", early | {"margin": 9})[0] == 422


@pytest.mark.django_db
def test_a_decision_on_a_blend_goes_with_its_next_revision(api):
    pair = next(one for one in page(api)["pairs"] if one["kind"] == "blend")
    side = next(key for key in (pair["first"], pair["second"]) if Blend.objects.get(pk=key).draft().lines.count() > 1)
    wants = {"kind": "blend", "first": pair["first"], "second": pair["second"], "side": side, "what": "change",
             "reason": "less sugar, it burns"}  # fmt: skip
    status, decided = api("POST", "verdicts/decisions", wants)
    assert status == 201
    assert decided[0]["reason"] == "less sugar, it burns"
    assert decided[0]["verdict"]
    blend = Blend.objects.get(pk=side)
    line = blend.draft().lines.first()
    line.parts_numerator += 1
    line.save()
    assert Blend.objects.get(pk=side).keep("the next").note == "the next (decided to change: less sugar, it burns)"
    assert api("GET", "verdicts/known")[1]["decisions"][0]["id"] == decided[0]["id"]


@pytest.mark.django_db
def test_a_decision_can_be_taken_back_and_made_again(api):
    wants = {"kind": "way", "first": "rubbed", "second": "marinated", "side": "marinated", "cut": "duck-leg",
             "what": "drop", "reason": "the skin stays soft"}  # fmt: skip
    (made,) = api("POST", "verdicts/decisions", wants)[1]
    assert made["name"] == "marinated"
    assert made["verdict"].startswith("Rubbed is better.")
    assert cell(api, "duck-leg")["decisions"] == [made]
    assert cell(api, "trout-whole")["decisions"] == []
    turned = wants | {"first": "marinated", "second": "rubbed", "what": "keep"}
    other = api("POST", "verdicts/decisions", turned)[1][0]
    assert (other["first"], other["second"]) == ("rubbed", "marinated")
    assert api("POST", f"verdicts/decisions/{other['id']}/delete")[1] == [made]
    assert api("GET", "verdicts/decisions")[1] == [made]
    assert api("POST", f"verdicts/decisions/{made['id']}/delete")[1] == []
    assert api("POST", f"verdicts/decisions/{made['id']}/restore")[1] == [made]
    assert api("POST", f"verdicts/decisions/{UUID(int=0)}/delete")[0] == 404
    for change, field in (
        ({"side": "plain"}, "side"),
        ({"second": "smoked", "side": "rubbed"}, "first"),
        ({"cut": "beef-brisket"}, "cut"),
        ({"reason": " "}, "reason"),
        ({"what": "burn"}, "what"),
    ):
        status, problem = api("POST", "verdicts/decisions", wants | change)
        assert status == 422, change
        assert problem["errors"][0]["field"] == field


@pytest.mark.django_db
def test_the_next_trial_is_set_up_with_one_thing_that_differs(api):
    found = api("GET", f"verdicts/next?{WAYS}")[1]
    best = found["ideas"][0]
    assert not best["trial"]["known"]
    assert "likeliest to settle its question" in best["trial"]["says"][0]
    settles = [round(one["trial"]["settles"], 2) for one in found["ideas"] if not one["trial"]["known"]]
    assert settles == sorted(settles, reverse=True)
    assert [one["trial"]["known"] for one in found["ideas"]].index(True) == len(settles)
    cut = best["trial"]["cut"]
    question = {"kind": "way", "first": "rubbed", "second": "marinated"}
    status, made = api("POST", "verdicts/next", {"question": question, "cut": cut, "tasters": found["tasters"]})
    assert status == 201
    cook = Cook.objects.get(pk=made["cook_id"])
    assert cook.in_hand
    pieces = list(cook.pieces.all())
    assert {piece.cut for piece in pieces} == {cut}
    assert pieces[0].mass_g == pieces[1].mass_g
    assert pieces[0].phases == pieces[1].phases
    table = api("GET", f"trials/{made['trial_id']}")[1]
    assert table["kind"] == "scores"
    assert {one["taster"] for one in table["servings"]} == set(found["tasters"])
    assert all(len(one["order"]) == 2 for one in table["servings"])
    fair = api("GET", f"trials/{made['trial_id']}/fair")[1]
    assert len(fair["changes"]) == 1
    assert not [one for one in fair["differs"] if one["what"] != "looks"]
    assert "salt within" in " ".join(fair["same"])


@pytest.mark.django_db
def test_a_cut_that_was_never_compared_can_be_tried_too(api):
    question = {"kind": "way", "first": "rubbed", "second": "marinated"}
    status, made = api("POST", "verdicts/next", {"question": question, "cut": "lamb-breast", "tasters": ["Marigold"]})
    assert status == 201
    assert made["name"] == "Breast of lamb, rubbed or marinated"
    assert api("POST", "verdicts/next", {"question": question, "cut": "no-such-cut"})[0] == 422
    stranger = {"question": question, "cut": "lamb-breast", "tasters": ["Nobody at all"]}
    assert api("POST", "verdicts/next", stranger)[1]["errors"][0]["field"] == "tasters"
    nothing = {"kind": "way", "first": "plain", "second": "injected"}
    status, problem = api("POST", "verdicts/next", {"question": nothing, "cut": "lamb-breast"})
    assert (status, problem["errors"][0]["field"]) == (422, "cut")


@pytest.mark.django_db
def test_who_may_not_eat_a_plate_is_not_seated_for_the_next_trial(api):
    Taster.objects.filter(nickname="Marigold").update(avoids=["milk"])
    question = {"kind": "way", "first": "rubbed", "second": "marinated"}
    wants = {"question": question, "cut": "goat-leg", "tasters": ["Marigold", "Dabchick"]}
    made = api("POST", "verdicts/next", wants)[1]
    assert any("Marigold" in one for one in made["says"])
    table = api("GET", f"trials/{made['trial_id']}")[1]
    assert [one["taster"] for one in table["servings"]] == ["Dabchick"]


@pytest.mark.django_db
def test_cards_belief_and_verdict_can_be_taken_away(api):
    cards = list(csv.DictReader(io.StringIO(text_of(api, f"cards.csv?{WAYS}"))))
    counted = page(api)["page"]["all_cuts"]["counted"]
    assert len(cards) == counted["cards"]
    assert sum(one["also differed"] == "" for one in cards) == counted["clean_cards"]
    assert all(float(one["difference"]) == float(one["marinated"]) - float(one["rubbed"]) for one in cards)
    believed = list(csv.DictReader(io.StringIO(text_of(api, f"posterior.csv?{WAYS}"))))
    told = rows(page(api))
    duck = next(one for one in believed if one["cut"] == "Duck legs")
    assert float(duck["mean"]) == pytest.approx(told["duck-leg"]["belief"]["mean"], abs=1e-4)
    assert float(duck["grain 20"]) == pytest.approx(told["duck-leg"]["belief"]["grains"][-1]["points"], abs=1e-4)
    assert believed[-1]["cut"] == "all cuts"
    said = text_of(api, f"verdict.md?{WAYS}&who=guest")
    assert said.startswith("# Rubbed or marinated?\n\nFor a guest: 20 cooks with 126 cards; clean of these are ")
    assert "Model 1" in said
    assert "Basin regatta, duck legs (6 cards: " in said


@pytest.mark.django_db
def test_what_a_spreadsheet_would_run_is_written_as_text(api):
    Cook.objects.filter(name="Basin regatta, duck legs").update(name="=1+1")
    assert "'=1+1" in text_of(api, f"cards.csv?{WAYS}")
    Cook.objects.filter(name="=1+1").update(name="*Basin* <b>")
    assert "\\*Basin\\* \\<b\\>" in text_of(api, f"verdict.md?{WAYS}")


@pytest.mark.django_db
def test_two_revisions_of_a_blend_are_a_question_of_their_own(api, cook):
    lamb = Blend.objects.get(name="Weir House lamb rub")
    kept = list(lamb.revisions.filter(number__isnull=False).order_by("number")[:2])
    for letter, revision in zip("AB", kept, strict=True):
        piece = cook.pieces.get(letter=letter)
        piece.layers.all().delete()
        Layer.objects.create(piece=piece, position=0, kind="rub", blend=lamb, revision=revision, dose=5.0,
                             dose_typed="5", hold_s=7200.0, hold_typed="2 h")  # fmt: skip
    scored(cook, "Marigold", 5, 7)
    reveal(cook)
    pair = next(one for one in page(api)["pairs"] if one["kind"] == "revision")
    assert pair["names"] == ["Weir House lamb rub 1", "Weir House lamb rub 2"]
    found = page(api, f"kind=revision&first={pair['first']}&second={pair['second']}")
    assert found["page"]["rows"][0]["own"] == 2
    told = api("GET", f"verdicts/next?kind=revision&first={pair['first']}&second={pair['second']}")[1]
    assert told["ideas"] == []
    assert "Only the latest revision" in told["says"]


@pytest.mark.django_db
def test_an_empty_book_says_what_to_do(api):
    Cook.objects.update(deleted_at=timezone.now(), in_hand=False)
    found = page(api)
    assert found["page"]["rows"] == []
    assert found["page"]["says"] == ["Nothing is named yet."]
    assert api("GET", f"verdicts/next?{WAYS}")[1]["says"].startswith("Nothing was scored in this question yet")
    assert api("GET", "verdicts/matrix")[1]["plates"] == []
    assert api("GET", "verdicts/known")[1]["pairs"] == []


@pytest.mark.django_db
def test_a_question_is_the_same_whichever_side_is_named_first(api):
    turned = page(api, "kind=way&first=marinated&second=rubbed")
    assert turned == page(api)
    assert not turned["can_choose"]


@pytest.mark.django_db
def test_who_left_the_book_is_not_asked_to_the_next_trial(api):
    who = api("GET", f"verdicts/next?{WAYS}")[1]["tasters"]
    Taster.objects.filter(nickname=who[0]).update(deleted_at=timezone.now())
    found = api("GET", f"verdicts/next?{WAYS}")[1]
    assert found["tasters"] == who[1:]
    question = {"kind": "way", "first": "rubbed", "second": "marinated"}
    status, _ = api("POST", "verdicts/next", {"question": question, "cut": "duck-leg", "tasters": found["tasters"]})
    assert status == 201


@pytest.mark.django_db
def test_a_cut_whose_blend_was_deleted_is_not_tried_next_and_others_are(api):
    Blend.objects.filter(name="Rub and lemon for lamb chops").update(deleted_at=timezone.now())
    cuts = {one["trial"]["cut"] for one in api("GET", f"verdicts/next?{WAYS}")[1]["ideas"]}
    assert "trout-whole" not in cuts
    assert {"duck-leg", "goat-leg"} <= cuts
    question = {"kind": "way", "first": "rubbed", "second": "marinated"}
    status, problem = api("POST", "verdicts/next", {"question": question, "cut": "trout-whole"})
    assert status == 422
    assert "Rub and lemon for lamb chops was deleted" in problem["errors"][0]["sentence"]
