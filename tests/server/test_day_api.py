"""Day over the API: planned from a cook as it stands, moved, and put right by ways out."""

from datetime import datetime, timedelta
from uuid import uuid4

import pytest
from api.plumbing.asked import LetGo, going, let_go
from book.models import Cook, Preferences, SideDish
from django.utils import timezone
from test_cook_api import as_sent, opened, saved

OPEN = {"surround": "indirect", "aimed": "120 °C", "centre": "92 °C"}
DIRECT = {"surround": "indirect", "aimed": "180 °C", "lasts": "50 min"}


@pytest.fixture
def cook_id(api, book) -> str:
    """The demo's supper without its sides, ten days from now in the evening."""
    cook = opened(api)
    SideDish.objects.filter(cook=cook["id"]).delete()
    Cook.objects.filter(pk=cook["id"]).update(serve_at=evening(10))
    return cook["id"]


def evening(days: int) -> datetime:
    """An evening so many days from now: planned by it, nothing is too late and nobody asleep, whatever the hour is."""
    return (timezone.now() + timedelta(days=days)).replace(hour=18, minute=0, second=0, microsecond=0)


def day_of(api, cook_id: str, zone: str = "Europe/Berlin") -> dict:
    status, answer = api("GET", f"cooks/{cook_id}/day?zone={zone}")
    assert status == 200, answer
    return answer


def at(text: str) -> datetime:
    return datetime.fromisoformat(text)


def test_a_day_has_a_lane_a_piece_with_its_chances_and_the_fire_to_light(api, cook_id):
    found = day_of(api, cook_id)
    assert [piece["name"] for piece in found["pieces"]] == ["Rubbed", "Marinated"]
    day = found["day"]
    assert day["lights"] == "Light the kettle"
    assert at(day["begins_at"]) < at(day["light_at"]) < at(day["serve_at"])
    assert [len(lane["off"]) for lane in day["lanes"]] == [20, 20]
    assert 10 <= day["in_time"] <= 20
    said = [block["says"] for block in day["lanes"][0]["blocks"]]
    assert "Mix Weir House lamb rub, Lamb rub and honey glaze" in said
    assert "Coat with Weir House lamb rub" in said
    assert found["asked"]


def test_the_household_has_a_clock_of_its_own_and_sleeps_by_it(api, cook_id):
    here = day_of(api, cook_id)
    (night, *_) = here["nights"]
    assert at(night["ends_at"]) - at(night["begins_at"]) == timedelta(hours=8)
    kept = api("GET", "book/preferences")[1]
    status, answer = api("PUT", "book/preferences", kept | {"zone": "Mars/Olympus"})
    assert status == 422
    assert answer["errors"][0]["field"] == "zone"
    assert "Europe/Berlin" in answer["errors"][0]["sentence"]
    given = kept | {"zone": "America/Denver", "sleeps": "00:30:00", "rises": "06:00:00"}
    assert api("PUT", "book/preferences", given)[0] == 200
    there = day_of(api, cook_id, "Europe/Berlin")
    assert (there["zone"], there["asked"]) == ("America/Denver", False)
    (night, *_) = there["nights"]
    assert at(night["ends_at"]) - at(night["begins_at"]) == timedelta(hours=5, minutes=30)
    assert api("GET", f"cooks/{cook_id}/day?zone=Mars")[0] == 200
    Preferences.objects.update(zone="")
    assert api("GET", f"cooks/{cook_id}/day?zone=Mars")[0] == 422


def test_supper_is_moved_and_hands_are_counted(api, cook_id):
    before = day_of(api, cook_id)
    later = at(before["day"]["serve_at"]) + timedelta(minutes=45)
    path = f"cooks/{cook_id}/day?zone=Europe/Berlin"
    status, after = api("PUT", path, {"version": before["version"], "serve_at": later.isoformat(), "people": 2})
    assert status == 200
    assert after["version"] == before["version"] + 1
    assert (after["people"], at(after["day"]["serve_at"])) == (2, later)
    assert at(after["day"]["light_at"]) > at(before["day"]["light_at"])
    # a second window is shown what the first did
    status, other = api("PUT", path, {"version": before["version"], "people": 3})
    assert status == 409
    assert other["theirs"]["people"] == 2
    assert api("PUT", path, {"version": after["version"], "people": 0})[0] == 422
    assert api("PUT", path, {"version": after["version"], "serve_at": "1950-01-01T10:00:00Z"})[0] == 422
    assert day_of(api, cook_id)["version"] == after["version"]


def clashing(api, cook_id: str) -> dict:
    """The supper's pieces each on the one kettle at a heat of its own, for as long as both last."""
    typed = as_sent(opened(api))
    slow = {"surround": "indirect", "aimed": "120 °C"}
    typed["pieces"][0]["phases"] = [slow | {"lasts": "4 h"}, slow | {"vessel": "foil", "lasts": "1 h"}]
    typed["pieces"][1]["phases"] = [{"surround": "indirect", "aimed": "180 °C", "lasts": "5 h"}]
    saved(api, cook_id, typed)
    return day_of(api, cook_id)


def test_a_clash_is_said_with_ways_out_and_one_that_is_taken_puts_it_right(api, cook_id):
    found = clashing(api, cook_id)
    assert {clash["kind"] for clash in found["day"]["clashes"]} == {"two heats"}
    ways = api("GET", f"cooks/{cook_id}/day/ways-out?zone=Europe/Berlin")[1]
    assert {way["key"][0] for way in ways} == {"oven", "heat", "cooker"}
    cleared = next(way for way in ways if way["left"] == 0 and way["key"][0] == "heat")
    path = f"cooks/{cook_id}/day/way-out?zone=Europe/Berlin"
    status, after = api("POST", path, {"version": found["version"], "key": cleared["key"]})
    assert status == 200
    assert after["day"]["clashes"] == []
    letter, celsius = cleared["key"][1:]
    piece = next(one for one in opened(api)["pieces"] if one["typed"]["letter"] == letter)
    assert piece["typed"]["phases"][0]["aimed"] == f"{celsius} °C"
    assert api("GET", f"cooks/{cook_id}/day/ways-out")[1] == []


def test_what_is_covered_goes_into_the_oven_and_somebody_helps(api, cook_id):
    found = clashing(api, cook_id)
    path = f"cooks/{cook_id}/day/way-out?zone=Europe/Berlin"
    status, oven = api("POST", path, {"version": found["version"], "key": ["oven", "A"]})
    assert status == 200
    typed = opened(api)["pieces"][0]["typed"]["phases"]
    assert [phase["surround"] for phase in typed] == ["indirect", "oven"]
    assert [cooker["key"] for cooker in oven["day"]["cookers"]] == ["kettle", "oven"]
    status, helped = api("POST", path, {"version": oven["version"], "key": ["people", "2"]})
    assert (status, helped["people"]) == (200, 2)
    status, later = api("POST", path, {"version": helped["version"], "key": ["later", "30"]})
    assert at(later["day"]["serve_at"]) - at(found["day"]["serve_at"]) == timedelta(minutes=30)


@pytest.mark.parametrize(
    "key",
    [
        ["later", "soon"], ["later", "-5"], ["people", "99"], ["sleep", "A"], ["heat", "A"], ["heat", "A", "nan"],
        ["heat", "A", "9000"], ["heat", "A", "60"], ["oven", "Z"], ["cooker", "A", "oven"],
        ["hold", "A"], ["hold", "A", "deeper"], ["hold", "A", "longer"], ["hold", "A", "longer", "9"],
        ["cooker", "A", "gone", "kettle"], ["cooker", "A", "water bath", "kettle"], ["cooker", "A", "oven", "offset"],
    ],
)  # fmt: skip
def test_what_is_no_way_out_is_refused_and_changes_nothing(api, cook_id, key):
    before = day_of(api, cook_id)
    status, answer = api("POST", f"cooks/{cook_id}/day/way-out", {"version": before["version"], "key": key})
    assert status == 422, answer
    assert day_of(api, cook_id)["version"] == before["version"]


def test_holds_are_cut_short_or_made_longer_by_a_way_out(api, cook_id):
    def holds() -> list[str]:
        return [layer["hold"] for layer in opened(api)["pieces"][0]["typed"]["layers"]]

    before = day_of(api, cook_id)
    assert holds()[:2] == ["16 h", "2 h"]
    path = f"cooks/{cook_id}/day/way-out?zone=Europe/Berlin"
    status, shorter = api("POST", path, {"version": before["version"], "key": ["hold", "A", "shorter"]})
    assert (status, holds()[:2]) == (200, ["8 h", "1 h"])
    status, longer = api("POST", path, {"version": shorter["version"], "key": ["hold", "A", "longer", "1"]})
    assert (status, holds()[:2]) == (200, ["8 h", "10 h"])
    assert at(longer["day"]["begins_at"]) < at(shorter["day"]["begins_at"])


def put(api, cook_id: str, version: int, **change) -> tuple[int, dict]:
    return api("PUT", f"cooks/{cook_id}/day?zone=Europe/Berlin", {"version": version, **change})


def test_a_piece_is_moved_to_another_cooker_and_back(api, cook_id):
    clashing(api, cook_id)
    before = day_of(api, cook_id)
    (fire,) = next(piece for piece in before["pieces"] if piece["letter"] == "B")["fires"]
    assert (fire["key"], fire["says"]) == ("kettle", "kettle")
    assert {"key": "oven", "says": "oven"} in fire["others"]
    status, found = put(api, cook_id, before["version"], moved={"letter": "B", "where": "kettle", "onto": "oven"})
    assert status == 200
    assert [cooker["key"] for cooker in found["day"]["cookers"]] == ["kettle", "oven"]
    assert found["day"]["clashes"] == []
    (phase,) = opened(api)["pieces"][1]["typed"]["phases"]
    assert (phase["surround"], phase["vessel"], phase["cooker"], phase["aimed"]) == ("oven", "rack", "oven", "180 °C")
    status, back = put(api, cook_id, found["version"], moved={"letter": "B", "where": "oven", "onto": "gas grill"})
    assert status == 200
    assert [cooker["key"] for cooker in back["day"]["cookers"]] == ["kettle", "gas grill"]


@pytest.mark.parametrize(
    ("moved", "says"),
    [
        ({"letter": "B", "where": "kettle", "onto": "cabinet"}, "cannot do"),  # no cabinet gets to 180 °C
        ({"letter": "B", "where": "oven", "onto": "gas grill"}, "Nothing of this piece"),
        ({"letter": "B", "where": "kettle", "onto": "gone"}, "not in the book"),
        ({"letter": "Q", "where": "kettle", "onto": "oven"}, "not on the board"),
    ],
)
def test_a_piece_is_not_moved_where_it_cannot_be_cooked(api, cook_id, moved, says):
    clashing(api, cook_id)
    before = day_of(api, cook_id)
    status, answer = put(api, cook_id, before["version"], moved=moved)
    assert (status, says in answer["detail"]) == (422, True), answer
    assert day_of(api, cook_id)["version"] == before["version"]


def test_what_was_tasted_is_moved_no_more(api, cook_id):
    clashing(api, cook_id)
    past = Cook.objects.exclude(pk=cook_id).filter(trial__cards__isnull=False).first()
    Cook.objects.filter(pk=past.pk).update(serve_at=evening(10))
    found = day_of(api, str(past.pk))
    fires = [(piece["letter"], piece["fires"][0]) for piece in found["pieces"] if piece["fires"]]
    letter, fire = fires[0]
    status, answer = put(api, str(past.pk), found["version"],
                         moved={"letter": letter, "where": fire["key"], "onto": fire["others"][0]["key"]})  # fmt: skip
    assert (status, answer["errors"][0]["field"]) == (409, "moved.onto")


def test_the_next_three_are_what_is_late_and_then_what_comes(api, cook_id):
    found = day_of(api, cook_id)
    assert found["next"] == found["day"]["steps"][:3]
    first = found["next"][0]
    path = f"cooks/{cook_id}/day/tick?zone=Europe/Berlin"
    document = {"version": found["version"], "letter": first["letter"], "key": first["key"]}
    after = api("POST", path, document)[1]
    assert [step["key"] for step in after["next"][:2]] == [step["key"] for step in found["next"][1:]]
    # a supper of yesterday of which nothing was ticked: all that took time is late, and first
    Cook.objects.filter(pk=cook_id).update(serve_at=evening(-1), ticks={})
    gone = day_of(api, cook_id)
    assert all(at(step["ends_at"]) <= at(gone["now"]) for step in gone["next"])
    assert all(step["begins_at"] != step["ends_at"] for step in gone["next"])


@pytest.mark.parametrize("what", ["ways-out", "start-now"])
def test_a_question_that_was_let_go_is_answered_no_more(api, cook_id, what):
    clashing(api, cook_id)
    asked, other = (f"0e5f7e6a-2f0b-4c43-9f5e-00000000000{n}" for n in ("1", "2"))
    assert api("POST", f"cooks/asked/{asked}/let-go", {}) == (200, {"ok": True})
    status, answer = api("GET", f"cooks/{cook_id}/day/{what}?zone=Europe/Berlin&asked={asked}")
    assert (status, answer["title"]) == (409, "Let go")
    status, answer = api("GET", f"cooks/{cook_id}/day/{what}?zone=Europe/Berlin&asked={other}")
    assert status == 200
    assert answer


def test_only_so_many_questions_are_kept_in_mind():
    keys = [uuid4() for _ in range(200)]
    for key in keys:
        let_go(key)
    going(keys[0])()  # long forgotten
    with pytest.raises(LetGo):
        going(keys[-1])()
    going(None)()


def test_a_piece_that_cannot_be_planned_leaves_the_others_planned(api, cook_id):
    row = Cook.objects.get(pk=cook_id).pieces.get(letter="A")
    row.phases = [{"format": 1, "typed": {"surround": "indirect", "cooker": "gone"}, "value": row.phases[0]["value"]}]
    row.save()
    found = day_of(api, cook_id)
    assert [bool(piece["problem"]) for piece in found["pieces"]] == [True, False]
    assert [lane["letter"] for lane in found["day"]["lanes"]] == ["B"]


def test_a_supper_that_is_over_is_looked_at_as_it_was_and_one_too_soon_says_so(api, cook_id):
    Cook.objects.filter(pk=cook_id).update(serve_at=evening(-30))
    assert day_of(api, cook_id)["day"]["clashes"] == []
    Cook.objects.filter(pk=cook_id).update(serve_at=timezone.now() + timedelta(hours=3))
    found = day_of(api, cook_id)
    assert "past" in {clash["kind"] for clash in found["day"]["clashes"]}


def test_a_day_of_nobody_and_of_another_is_not_found(api, book):
    assert api("GET", "cooks/00000000-0000-4000-8000-000000000000/day")[0] == 404


def test_a_piece_that_is_never_done_is_said_to_be_and_not_planned(api, cook_id):
    typed = as_sent(opened(api))
    typed["pieces"][0]["phases"] = [{"surround": "indirect", "aimed": "100 °C", "colour": "dark"}]
    saved(api, cook_id, typed)
    found = day_of(api, cook_id)
    assert "does not end within" in found["pieces"][0]["problem"]
    assert [lane["letter"] for lane in found["day"]["lanes"]] == ["B"]
