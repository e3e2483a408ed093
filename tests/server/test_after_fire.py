"""After the cook over the API: how it went, what was eaten and left, notes, portions that learn, the fair test."""

from datetime import timedelta

import pytest
from book.fires import own_eaten, own_yields
from book.models import Cook
from test_fire_api import ago, at, cook_id, noted  # noqa: F401 - fixtures are found by their names


def after_of(api, cook_id: str) -> dict:  # noqa: F811
    status, answer = api("GET", f"fire/{cook_id}/after")
    assert status == 200, answer
    return answer


def a_whole_cook(api, cook_id: str, cooked: dict[str, float], fed: int = 6) -> None:  # noqa: F811
    taps = [{"what": "on", "letter": letter, "at": ago(300)} for letter in cooked]
    taps += [{"what": "off", "letter": letter, "at": ago(100)} for letter in cooked]
    taps += [
        {"what": "weight", "letter": letter, "grams": f"{grams} g", "at": ago(98)} for letter, grams in cooked.items()
    ]
    taps += [{"what": "slice", "letter": letter, "at": ago(80)} for letter in cooked]
    taps += [{"what": "fed", "count": fed, "at": ago(60)}, {"what": "ended", "at": ago(90)}]
    assert noted(api, cook_id, *taps)["refused"] == []


def test_before_anything_was_on_there_is_nothing_after_it(api, cook_id):  # noqa: F811
    found = after_of(api, cook_id)
    assert (found["reading"], found["next_time"]) == (None, [])


def test_after_the_cook_its_yield_its_eaters_and_its_leftovers_are_told(api, cook_id):  # noqa: F811
    pieces = {piece.letter: piece for piece in Cook.objects.get(pk=cook_id).pieces.all()}
    a_whole_cook(api, cook_id, {letter: piece.mass_g * 0.6 for letter, piece in pieces.items()})
    noted(api, cook_id, {"what": "left over", "letter": "A", "word": "fridge", "grams": "200 g", "at": ago(20)})
    noted(api, cook_id, {"what": "next time", "note": "A little less smoke."})
    found = after_of(api, cook_id)
    one = found["reading"]["pieces"][0]
    assert one["loss"]["value"] == pytest.approx(40, abs=0.1)
    assert one["expected"]["value"] > 5
    assert found["reading"]["fed"] == 6
    assert found["reading"]["eaten"]["value"] > 50
    (left,) = found["reading"]["left"]
    assert at(left["use_by"]) - at(left["at"]) == timedelta(days=3)
    assert left["warms"]["value"] > 5
    assert [note["note"] for note in found["next_time"]] == ["A little less smoke."]


def test_times_are_held_against_the_plan_that_was_kept(api, cook_id):  # noqa: F811
    cook = Cook.objects.get(pk=cook_id)
    step = {"letter": "A", "key": "off", "says": "", "begins_at": ago(110)}
    cook.plan_was = {"at": ago(500), "by": 0, "steps": [step]}
    cook.save()
    a_whole_cook(api, cook_id, {"A": 1500, "B": 1500})
    one, other = after_of(api, cook_id)["reading"]["pieces"]
    assert one["beside_plan"] == "10 min later than planned"
    assert other["beside_plan"] == ""


def test_what_was_eaten_and_lost_here_is_what_the_next_cook_is_bought_by(api, cook_id):  # noqa: F811
    cook = Cook.objects.get(pk=cook_id)
    cut = cook.pieces.all()[0].cut
    asked = {"cut": cut, "eaters": 6, "appetite": cook.appetite, "grade": "ordinary"}
    before = api("POST", "cooks/coat/raw-weight", asked)[1]
    yields, eaten = own_yields(cook.household, cut), own_eaten(cook.household)
    masses = {piece.letter: piece.mass_g for piece in cook.pieces.all()}
    a_whole_cook(api, cook_id, {letter: grams * 0.4 for letter, grams in masses.items()}, fed=2)
    assert own_yields(cook.household, cut) == [*yields, pytest.approx(0.4), pytest.approx(0.4)]
    assert len(own_eaten(cook.household)) == len(eaten) + 1
    after = api("POST", "cooks/coat/raw-weight", asked)[1]
    assert after["figure"]["value"] > before["figure"]["value"]
    labels = [step["label"] for step in after["figure"]["steps"]]
    assert {"Kept here", "Portion eaten here"} <= set(labels)
    # what was taken back counts no more
    fed = [one for one in api("GET", f"fire/{cook_id}")[1]["events"] if one["what"] == "fed"]
    noted(api, cook_id, {"what": "undone", "of": fed[0]["key"]})
    assert own_eaten(cook.household) == eaten


def test_what_was_noted_for_next_time_is_there_when_it_is_cooked_again(api, cook_id):  # noqa: F811
    noted(api, cook_id, {"what": "next time", "note": "Begin an hour sooner."})
    status, again = api("POST", f"cooks/{cook_id}/copy", {})
    assert status == 201
    assert "Begin an hour sooner." in again["noted"]
    assert "Begin an hour sooner." in api("GET", f"fire/{again['id']}")[1]["noted"]


def test_the_fair_test_goes_by_what_the_log_says(api, cook_id):  # noqa: F811
    def said() -> set[str]:
        status, home = api("GET", "cooks/in-hand")
        assert status == 200, home
        return {found["what"] for found in home["cook"]["fair"]["differs"]}

    assert not {"order", "place"} & said()
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(200), "x": 0.2, "y": 0.5})
    noted(api, cook_id, {"what": "on", "letter": "B", "at": ago(180), "x": 0.5, "y": 0.5})
    noted(api, cook_id, {"what": "off", "letter": "A", "at": ago(60)}, {"what": "off", "letter": "B", "at": ago(20)})
    assert {"order", "place", "fire"} <= said()
