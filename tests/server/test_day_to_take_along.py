"""A day with its sides, its table and its clocks, ticked off, begun now, and taken along, over the API."""

from datetime import UTC, datetime, timedelta

import pytest
import vobject
from book.models import Cook, SideDish, Taster
from django.utils import timezone
from ical.calendar_stream import IcsCalendarStream
from test_cook_api import as_sent, opened, saved
from test_day_api import at, day_of, evening

BREAD = {"name": "Flatbread", "minutes": "20 min", "hands": "25 min", "waits": "10 min", "cooker": "oven",
         "aimed": "230 °C"}  # fmt: skip
SALAD = {"name": "Slaw", "hands": "20 min", "waits": "3 h"}


@pytest.fixture
def cook_id(api, book) -> str:
    """The demo's supper without its sides, ten days from now in the evening."""
    cook = opened(api)
    SideDish.objects.filter(cook=cook["id"]).delete()
    Cook.objects.filter(pk=cook["id"]).update(serve_at=evening(10))
    return cook["id"]


def changed(api, cook_id, **change) -> dict:
    version = Cook.objects.get(pk=cook_id).version
    status, answer = api("PUT", f"cooks/{cook_id}/day?zone=Europe/Berlin", {"version": version, **change})
    assert status == 200, answer
    return answer


def lane(found: dict, letter: str) -> list[dict]:
    return next(one for one in found["day"]["lanes"] if one["letter"] == letter)["blocks"]


def test_sides_have_lanes_of_their_own_with_their_cooker_and_their_work(api, cook_id):
    found = changed(api, cook_id, sides=[BREAD, SALAD], people=2)
    assert [piece["name"] for piece in found["pieces"]] == ["Rubbed", "Marinated", "Flatbread", "Slaw"]
    bread = [block["says"] for block in lane(found, "S1") if block["kind"] not in ("hot", "cold hold", "ready")]
    assert bread == ["Make it ready", "Heat the oven", "Cook it", "Dish it up"]
    oven = next(cooker for cooker in found["day"]["cookers"] if cooker["key"] == "oven")
    assert [(burns["low_c"], burns["high_c"]) for burns in oven["burns"]] == [(220, 240)]
    assert [block["says"] for block in lane(found, "S2") if block["hands"]] == ["Make it ready", "Dish it up"]
    assert found["pieces"][2]["side"]["minutes"] == "20 min"
    assert changed(api, cook_id, sides=[SALAD])["pieces"][-1]["name"] == "Slaw"


@pytest.mark.parametrize(
    ("side", "field", "says"),
    [
        ({"name": ""}, "sides.0.name", "Give the side a name"),
        ({"name": "Bread"}, "sides.0.minutes", "Say how long it cooks"),
        ({"name": "Bread", "minutes": "long"}, "sides.0.minutes", "min"),
        ({"name": "Bread", "minutes": "4 days"}, "sides.0.minutes", "two days"),
        (BREAD | {"aimed": "400 °C"}, "sides.0.aimed", "50 to 280 °C"),
        (BREAD | {"cooker": "volcano"}, "sides.0.cooker", "not in the book"),
    ],
)
def test_a_side_that_cannot_be_is_refused_at_its_field_and_changes_nothing(api, cook_id, side, field, says):
    version = changed(api, cook_id, sides=[SALAD])["version"]
    status, answer = api("PUT", f"cooks/{cook_id}/day", {"version": version, "sides": [side]})
    assert status == 422
    (error, *_) = answer["errors"]
    assert error["field"] == field
    assert says in error["sentence"]
    assert [piece["name"] for piece in day_of(api, cook_id)["pieces"]][-1] == "Slaw"


def test_a_side_that_takes_longer_than_the_meat_is_begun_first(api, cook_id):
    found = changed(api, cook_id, sides=[{"name": "Beans", "minutes": "30 h", "cooker": "oven", "aimed": "110 °C"}])
    begins = at(lane(found, "S1")[0]["begins_at"])
    assert begins == at(found["day"]["begins_at"])
    assert at(found["day"]["serve_at"]) - begins >= timedelta(hours=30)


def test_it_is_eaten_somewhere_else_by_cool_box(api, cook_id):
    found = changed(api, cook_id, away="45 min", travels="hot", people=2)
    assert (found["away"], found["travels"]) == ("45 min", "hot")
    (way, there) = lane(found, "way")
    assert way["says"] == "On the way with the cool box"
    assert at(way["ends_at"]) - at(way["begins_at"]) == timedelta(minutes=45)
    for letter in "AB":
        packed = next(block for block in lane(found, letter) if block["key"] == "pack")
        assert packed["says"] == "Into a cool box warmed with hot water"
        assert at(packed["ends_at"]) <= at(way["begins_at"])
    assert there["ends_at"] == found["day"]["serve_at"]
    boxed = [clock for clock in found["day"]["clocks"] if clock["kind"] == "box"]
    assert [clock["most"] for clock in boxed] == [240, 240]
    cold = changed(api, cook_id, travels="cold")
    chilled = next(block for block in lane(cold, "A") if block["key"] == "chill.waits")
    assert at(chilled["ends_at"]) - at(chilled["begins_at"]) >= timedelta(hours=6)
    assert any(clock["kind"] == "cooling" and clock["most"] == 360 for clock in cold["day"]["clocks"])
    assert changed(api, cook_id, away="")["away"] == ""
    version = Cook.objects.get(pk=cook_id).version
    for typed in ("0 min", "3 days", "soon"):
        status, answer = api("PUT", f"cooks/{cook_id}/day", {"version": version, "away": typed})
        assert (status, answer["errors"][0]["field"]) == (422, "away")


def test_what_is_ticked_is_done_and_the_plan_that_was_stays_beside_it(api, cook_id):
    # on the day itself: what is ticked was done now, and what is late moves what follows
    serve_at = (timezone.now() + timedelta(hours=30)).replace(second=0, microsecond=0)
    Cook.objects.filter(pk=cook_id).update(serve_at=serve_at)
    before = day_of(api, cook_id)
    assert before["was"] is None
    first = next(step for step in before["day"]["steps"] if step["letter"] == "A")
    sent = {"version": before["version"], "letter": "A", "key": first["key"]}
    status, after = api("POST", f"cooks/{cook_id}/day/tick?zone=Europe/Berlin", sent)
    assert status == 200, after
    ticked = next(step for step in after["day"]["steps"] if (step["letter"], step["key"]) == ("A", first["key"]))
    assert ticked["done"]
    assert abs(at(ticked["ends_at"]) - timezone.now()) < timedelta(minutes=15)
    kept = next(step for step in after["was"]["steps"] if (step["letter"], step["key"]) == ("A", first["key"]))
    assert kept["begins_at"] == first["begins_at"]
    assert not after["was"]["changed"]
    # taken back, it is planned again
    sent |= {"version": after["version"], "done": False}
    status, again = api("POST", f"cooks/{cook_id}/day/tick?zone=Europe/Berlin", sent)
    assert not next(step for step in again["day"]["steps"] if (step["letter"], step["key"]) == ("A", first["key"]))[
        "done"
    ]
    assert api("POST", f"cooks/{cook_id}/day/tick", sent)[0] == 409
    sent |= {"version": again["version"], "done": True, "key": "no such"}
    status, refused = api("POST", f"cooks/{cook_id}/day/tick", sent)
    assert (status, refused["errors"][0]["field"]) == (422, "key")
    sent |= {"key": first["key"], "at": (timezone.now() + timedelta(days=1)).isoformat()}
    assert api("POST", f"cooks/{cook_id}/day/tick", sent)[1]["errors"][0]["field"] == "at"
    Cook.objects.filter(pk=cook_id).update(plan_was={"at": timezone.now().isoformat(), "by": "0", "steps": []})
    assert day_of(api, cook_id)["was"]["changed"]
    version = Cook.objects.get(pk=cook_id).version
    assert api("POST", f"cooks/{cook_id}/day/keep", {"version": version, "kept": False})[1]["was"] is None


def test_a_step_is_dragged_and_let_go_again(api, cook_id):
    before = day_of(api, cook_id)
    coat = next(step for step in before["day"]["steps"] if step["key"].startswith("coat") and step["letter"] == "A")
    sooner = (at(coat["begins_at"]) - timedelta(minutes=30)).isoformat()
    found = changed(api, cook_id, pin={"letter": "A", "key": coat["key"], "begins_at": sooner})
    moved = next(block for block in lane(found, "A") if block["key"] == coat["key"])
    assert (at(moved["begins_at"]), moved["pinned"]) == (at(sooner), True)
    # it goes along where supper is moved
    later = at(found["day"]["serve_at"]) + timedelta(minutes=15)
    found = changed(api, cook_id, serve_at=later.isoformat())
    moved = next(block for block in lane(found, "A") if block["key"] == coat["key"])
    assert at(moved["begins_at"]) == at(sooner) + timedelta(minutes=15)
    found = changed(api, cook_id, pin={"letter": "A", "key": coat["key"]})
    assert not next(block for block in lane(found, "A") if block["key"] == coat["key"])["pinned"]
    version = found["version"]
    for pin in (
        {"letter": "Z", "key": "coat.0"},
        {"letter": "A", "key": coat["key"], "begins_at": "2031-01-01T10:00Z"},
    ):
        status, answer = api("PUT", f"cooks/{cook_id}/day", {"version": version, "pin": pin})
        assert status == 422, answer
    # so late that nothing of its hold is left: said, and let go by a tap
    far = (at(moved["begins_at"]) + timedelta(days=1)).isoformat()
    late = changed(api, cook_id, pin={"letter": "A", "key": coat["key"], "begins_at": far})
    assert {clash["kind"] for clash in late["day"]["clashes"]} & {"short", "late"}
    ways = api("GET", f"cooks/{cook_id}/day/ways-out?zone=Europe/Berlin")[1]
    loose = next(way for way in ways if way["key"] == ["loose", "A"])
    status, put_right = api(
        "POST", f"cooks/{cook_id}/day/way-out?zone=Europe/Berlin", {"version": late["version"], "key": loose["key"]}
    )
    assert status == 200
    assert put_right["day"]["clashes"] == []


def test_a_side_in_the_way_goes_into_the_oven_or_is_left_out(api, cook_id):
    beets = {"name": "Beets", "minutes": "9 h", "cooker": "kettle", "aimed": "230 °C"}
    found = changed(api, cook_id, sides=[beets], people=2)
    assert {clash["kind"] for clash in found["day"]["clashes"]} == {"two heats"}
    ways = {tuple(way["key"]): way for way in api("GET", f"cooks/{cook_id}/day/ways-out?zone=Europe/Berlin")[1]}
    assert ways["cooker", "S1", "oven"]["left"] == ways["less", "S1"]["left"] == 0
    path = f"cooks/{cook_id}/day/way-out?zone=Europe/Berlin"
    status, moved = api("POST", path, {"version": found["version"], "key": ["cooker", "S1", "oven"]})
    assert status == 200
    assert moved["day"]["clashes"] == []
    assert moved["pieces"][-1]["side"]["cooker"] == "oven"
    status, less = api("POST", path, {"version": moved["version"], "key": ["less", "S1"]})
    assert [piece["name"] for piece in less["pieces"]] == ["Rubbed", "Marinated"]
    for key in (["less", "S1"], ["less", "Sx"], ["heat", "S1", "100"]):
        assert api("POST", path, {"version": less["version"], "key": key})[0] == 422


def test_started_now_it_says_what_that_leaves_and_what_it_costs(api, cook_id):
    ways = api("GET", f"cooks/{cook_id}/day/start-now?zone=Europe/Berlin")[1]
    assert [way["key"] for way in ways][:2] == ["as set", "shorter"]
    suppers = [at(way["serve_at"]) for way in ways]
    # which of two hurried ways is quicker goes by the hour it is now; none is later than what was set
    assert max(suppers) == suppers[0]
    assert all(supper > timezone.now() for supper in suppers)
    short = next(way for way in ways if way["key"] == "no holds")
    assert any("salt reaches" in cost for cost in short["costs"])
    assert any("shorter school" in cost for cost in short["costs"])
    assert all(one["reach_mm"] < one["wanted_mm"] for one in short["pieces"])
    version = Cook.objects.get(pk=cook_id).version
    sent = {"version": version, "key": "no holds", "serve_at": short["serve_at"]}
    status, found = api("POST", f"cooks/{cook_id}/day/start-now?zone=Europe/Berlin", sent)
    assert status == 200, found
    assert found["day"]["serve_at"] == short["serve_at"]
    holds = [layer["hold"] for piece in opened(api)["pieces"] for layer in piece["typed"]["layers"] if layer["hold"]]
    assert "5 min" in holds
    assert api("POST", f"cooks/{cook_id}/day/start-now", sent)[0] == 409


def taken_along(api, cook_id: str, kind: str) -> bytes:
    answer = api.client.get(f"/api/cooks/{cook_id}/sheet/{kind}?zone=Europe/Berlin")
    assert answer.status_code == 200
    assert "attachment" in answer["Content-Disposition"]
    return answer.content


def test_a_calendar_is_read_by_two_others_with_its_alarms_and_its_zone(api, cook_id):
    # over the night in which the clocks are put forward, and of a year that is not this one
    Cook.objects.filter(pk=cook_id).update(serve_at=datetime(2027, 3, 28, 16, 0, tzinfo=UTC))
    steps = day_of(api, cook_id)["day"]["steps"]
    written = taken_along(api, cook_id, "calendar").decode()
    one = vobject.readOne(written)
    events = one.vevent_list
    assert len(events) == len(steps) + 1
    assert "TZID=Europe/Berlin" in written
    by_start = sorted(event.dtstart.value.astimezone(UTC) for event in events)
    assert by_start == sorted([*(at(step["begins_at"]).astimezone(UTC) for step in steps),
                               datetime(2027, 3, 28, 16, 0, tzinfo=UTC)])  # fmt: skip
    assert {event.valarm.trigger.value for event in events} == {timedelta(minutes=-10)}
    assert len({event.uid.value for event in events}) == len(events)
    other = IcsCalendarStream.calendar_from_ics(written)
    assert sorted(event.start_datetime.astimezone(UTC) for event in other.events) == by_start
    served = next(event for event in other.events if event.summary.endswith("at the table"))
    assert (served.dtstart.hour, served.dtstart.utcoffset()) == (18, timedelta(hours=2))


def test_a_calendars_address_is_made_and_taken_back(api, cook_id):
    version = Cook.objects.get(pk=cook_id).version
    path = f"cooks/{cook_id}/calendar?zone=Europe/Berlin"
    assert api("GET", path)[1]["address"] == ""
    status, found = api("POST", path, {"version": version, "shared": True})
    assert status == 200
    address = found["address"]
    assert "/api/cooks/calendar/" in address
    answer = api.client.get(address)
    assert answer["Content-Type"].startswith("text/calendar")
    assert vobject.readOne(answer.content.decode()).vevent_list
    guessed = address.split("calendar/")[0] + "calendar/" + "x" * 43
    assert api.client.get(guessed).status_code == 404
    status, gone = api("POST", path, {"version": found["version"], "shared": False})
    assert (status, gone["address"]) == (200, "")
    assert api.client.get(address).status_code == 404
    assert api("POST", path, {"version": version, "shared": True})[0] == 409
    again = api("POST", path, {"version": gone["version"], "shared": True})[1]["address"]
    assert again not in ("", address)


def test_the_sheet_says_what_to_buy_and_what_to_mix(api, cook_id):
    changed(api, cook_id, sides=[SALAD])
    sheet = api("GET", f"cooks/{cook_id}/sheet?zone=Europe/Berlin")[1]
    totals = api("GET", f"cooks/{cook_id}/totals")[1]
    assert sum(one["grams"] for one in sheet["meat"]) == pytest.approx(
        sum(row["buy"]["value"] for row in totals["buy"])
    )
    assert all(one["look_for"] and one["instead"] for one in sheet["meat"])
    for total in totals["blends"]:
        if total["mix"]["value"] > 0:
            (mixed,) = [one for one in sheet["mix"] if one["name"] == total["name"]]
            assert mixed["grams"] == pytest.approx(total["mix"]["value"])
            assert sum(line["grams"] for line in mixed["lines"]) == pytest.approx(mixed["grams"])
    assert sheet["sides"] == ["Slaw"]
    # what is bought is all that goes into the bowls, and no blend twice
    lines = sum(line["grams"] for one in sheet["mix"] for line in one["lines"])
    inside = sum(line["grams"] for one in sheet["mix"] for line in one["lines"]
                 if line["name"] in {other["name"] for other in sheet["mix"]})  # fmt: skip
    plain = sum(row["takes"]["value"] for row in totals["plain"])
    assert sum(one["grams"] for one in sheet["buy"]) == pytest.approx(lines - inside + plain)
    text = taken_along(api, cook_id, "markdown").decode()
    assert text.startswith("# ")
    assert "## Step by step" in text
    assert "## Buy" in text
    assert "## Mix" in text
    assert text.count("- [ ] ") == len(sheet["day"]["steps"])
    assert "is its centre at 92 °C?" in text
    kept = api("GET", "book/preferences")[1]
    assert api("PUT", "book/preferences", kept | {"temperature": "F", "units": "us"})[0] == 200
    text = taken_along(api, cook_id, "markdown").decode()
    assert "is its centre at 198 °F?" in text
    assert "°C" not in text.replace("°C (", "")
    assert " lb Lamb shoulder" in text


def test_what_is_in_the_house_is_not_bought(api, cook_id):
    def bought(grind: str) -> dict:
        rows = api("GET", f"cooks/{cook_id}/sheet?zone=Europe/Berlin")[1]["buy"]
        return next(row for row in rows if row["grind"] == grind)

    def has(have: str, was: str = "") -> tuple[int, dict]:
        return api("PUT", "shelf/stock", {"grind": pepper, "have": have, "was": was})

    rows = api("GET", f"cooks/{cook_id}/sheet")[1]["buy"]
    pepper = next(row["grind"] for row in rows if "pepper" in row["name"].lower() and row["grams"] > 2)
    needed = bought(pepper)
    assert (needed["have"], needed["buy_g"]) == ("", needed["grams"])
    assert has("2 g")[0] == 200
    assert bought(pepper) == needed | {"have": "2 g", "buy_g": pytest.approx(needed["grams"] - 2)}
    text = taken_along(api, cook_id, "markdown").decode()
    assert "(besides 2 g in the house)" in text
    # another window said something else meanwhile
    status, answer = has("5 g")
    assert (status, answer["theirs"]["have"]) == (409, "2 g")
    for enough in ("1 lb", "plenty"):
        assert has(enough, "2 g" if enough == "1 lb" else "1 lb")[0] == 200
        assert (bought(pepper)["have"], bought(pepper)["buy_g"]) == (enough, 0)
    text = taken_along(api, cook_id, "markdown").decode()
    assert f"in the house already: {needed['name']}" in text
    status, answer = has("a good deal", "plenty")
    assert (status, answer["errors"][0]["field"]) == (422, "have")
    assert has("", "plenty")[0] == 200
    assert bought(pepper) == needed
    status, answer = api("PUT", "shelf/stock", {"grind": "moon-dust/fine", "have": "2 g"})
    assert (status, answer["errors"][0]["field"]) == (422, "grind")


def test_nothing_that_is_taken_along_tells_which_piece_is_which(api, cook_id):
    assert Cook.objects.get(pk=cook_id).trial.revealed_at is None
    sheet = api("GET", f"cooks/{cook_id}/sheet?zone=Europe/Berlin")[1]
    assert sheet["hidden"]
    assert set(sheet["names"].values()) == {"Piece A", "Piece B"}
    steps = " ".join(step["says"] for step in sheet["day"]["steps"])
    for telling in ("Weir House lamb rub", "Buttermilk", "buttermilk"):
        assert telling not in steps
    calendar = taken_along(api, cook_id, "calendar").decode()
    for telling in ("Rubbed", "Marinated", "lamb rub"):
        assert telling not in calendar
    assert "Piece A: coat" in calendar
    trial = Cook.objects.get(pk=cook_id).trial
    trial.revealed_at = timezone.now()
    trial.save(update_fields=["revealed_at"])
    assert set(api("GET", f"cooks/{cook_id}/sheet")[1]["names"].values()) == {"Rubbed", "Marinated"}


@pytest.mark.usefixtures("unburnt")
def test_who_eats_is_kept_and_what_leaves_them_out_is_said(api, cook_id):
    status, heron = api("POST", "cooks/tasters", {"nickname": "Heron", "avoids": ["milk", "Lamb", "coriander"]})
    assert status == 201, heron
    assert heron["avoids"] == ["milk", "lamb", "coriander"]
    status, coot = api("POST", "cooks/tasters", {"nickname": "Coot", "guest": True, "appetite": "hearty"})
    assert status == 201
    version = Cook.objects.get(pk=cook_id).version
    table = api("PUT", f"cooks/{cook_id}/table", {"version": version, "seats": [heron["id"], coot["id"]]})[1]
    assert set(table["seats"]) == {heron["id"], coot["id"]}
    assert table["portions"] == pytest.approx(1 + 230 / 170)
    by_letter = {one["letter"]: one for one in table["left_out"]}
    assert by_letter["A"]["why"] == ["lamb"]
    assert by_letter["B"]["why"] == ["milk", "lamb"]
    assert by_letter["A"]["asked"] == ["coriander"]
    assert {one["nickname"] for one in table["left_out"]} == {"Heron"}
    # meat is bought for what they eat
    totals = api("GET", f"cooks/{cook_id}/totals")[1]
    assert totals["eaters"] == 2
    # 2.3 kg of the board's two shoulders, for 1 + 230/170 usual portions of all that the board serves
    raw = totals["buy"][0]["raw"]["value"]
    assert raw == pytest.approx(2300 * (1 + 230 / 170) / totals["serves"])
    assert api("PUT", f"cooks/{cook_id}/table", {"version": version, "seats": []})[0] == 409


def test_somebody_is_changed_taken_out_and_brought_back(api, cook_id):
    status, heron = api("POST", "cooks/tasters", {"nickname": "Heron"})
    assert api("POST", "cooks/tasters", {"nickname": "heron"})[1]["errors"][0]["field"] == "nickname"
    assert api("POST", "cooks/tasters", {"nickname": " "})[0] == 422
    path = f"cooks/tasters/{heron['id']}"
    sent = {"version": heron["version"], "nickname": "Grey heron", "avoids": ["nuts", "nuts"], "appetite": "light"}
    status, kept = api("PUT", path, sent)
    assert (status, kept["nickname"], kept["avoids"]) == (200, "Grey heron", ["nuts"])
    status, theirs = api("PUT", path, sent)
    assert (status, theirs["theirs"]["nickname"]) == (409, "Grey heron")
    api("POST", f"{path}/delete")
    assert "Grey heron" not in [one["nickname"] for one in api("GET", "cooks/tasters")[1]]
    assert api("POST", "cooks/tasters", {"nickname": "Grey heron"})[1]["id"] == heron["id"]
    api("POST", f"{path}/delete")
    assert api("POST", f"{path}/restore")[1]["nickname"] == "Grey heron"
    assert Taster.objects.get(pk=heron["id"]).deleted_at is None
    assert api("PUT", "cooks/tasters/00000000-0000-4000-8000-000000000000", sent)[0] == 404


def test_skewers_come_in_waves_one_after_another(api, cook_id):
    typed = as_sent(opened(api))
    flame = {"surround": "direct flame", "aimed": "230 °C", "vessel": "skewer", "lasts": "10 min", "turned": "2 min"}
    typed["pieces"][0] |= {"count": 12, "phases": [flame]}
    saved(api, cook_id, typed)
    found = changed(api, cook_id, waves=3, waves_apart="25 min", people=3)
    served = [block for block in lane(found, "A") if block["key"].endswith("serve")]
    ends = sorted(at(block["ends_at"]) for block in served)
    assert [end - at(found["day"]["serve_at"]) for end in ends] == [timedelta(minutes=25 * nth) for nth in range(3)]
    assert (found["waves"], found["waves_apart"]) == (3, "25 min")
    assert [says.split(", ")[:2] for says in found["waves_say"]] == [["A: 12 pieces", "4 a wave"]]
    kettle = next(cooker for cooker in found["day"]["cookers"] if cooker["key"] == "kettle")
    assert kettle["burns"]
    assert api("PUT", f"cooks/{cook_id}/day", {"version": found["version"], "waves": 9})[0] == 422


def test_what_day_keeps_goes_along_when_it_is_cooked_again(api, cook_id):
    changed(api, cook_id, sides=[BREAD], away="30 min", people=3)
    status, copy = api("POST", f"cooks/{cook_id}/copy", {})
    assert status == 201
    found = day_of(api, copy["id"])
    assert (found["people"], found["away"], found["pieces"][-1]["name"]) == (3, "30 min", "Flatbread")
    assert found["was"] is None


def test_a_supper_in_the_past_and_frozen_meat_an_hour_before_say_what_is_wrong_and_a_way_on(api, cook_id):
    typed = as_sent(opened(api))
    typed["pieces"][0]["stages"] = [{"what": "thaw", "place": "fridge", "hold": "2 days"}]
    saved(api, cook_id, typed)
    Cook.objects.filter(pk=cook_id).update(serve_at=timezone.now() + timedelta(hours=1))
    found = day_of(api, cook_id)
    past = [clash for clash in found["day"]["clashes"] if clash["kind"] == "past"]
    assert past
    assert "would have begun" in past[0]["says"]
    ways = api("GET", f"cooks/{cook_id}/day/ways-out?zone=Europe/Berlin")[1]
    assert any(way["key"][0] == "later" for way in ways)
    Cook.objects.filter(pk=cook_id).update(serve_at=evening(-2))
    assert day_of(api, cook_id)["day"]["clashes"] == []


def ticked(api, cook_id: str, letter: str, key: str, done: bool = True) -> dict:
    sent = {"version": Cook.objects.get(pk=cook_id).version, "letter": letter, "key": key, "done": done}
    status, answer = api("POST", f"cooks/{cook_id}/day/tick?zone=Europe/Berlin", sent)
    assert status == 200, answer
    return answer


def step_of(found: dict, letter: str, key: str) -> dict:
    return next(step for step in found["day"]["steps"] if (step["letter"], step["key"]) == (letter, key))


def test_a_step_is_ticked_once_for_day_and_home(api, cook_id):
    keys = [step["key"] for step in day_of(api, cook_id)["day"]["steps"] if step["letter"] == "A"]
    mix = next(key for key in keys if key.startswith("mix"))
    found = ticked(api, cook_id, "A", mix)
    home = next(piece for piece in opened_board(api)["pieces"] if piece["typed"]["letter"] == "A")
    assert next(step for step in home["steps"] if step["kind"] == "mix")["done_at"]
    # what was mixed is pinned as it was, as when it is ticked at home
    assert all(layer["revision"] for layer in home["typed"]["layers"] if layer["kind"] == "rub")
    assert step_of(found, "A", mix)["done"]
    # and what is ticked at home is done in the day; what is over stays in its list
    salt = next(step for step in home["steps"] if step["kind"] == "salt")
    version = Cook.objects.get(pk=cook_id).version
    status, _ = api("POST", f"cooks/{cook_id}/steps/{salt['id']}", {"version": version, "done": True})
    assert status == 200
    found = day_of(api, cook_id)
    assert step_of(found, "A", mix)["done"]
    assert step_of(found, "A", "salt.0")["done"]
    done = [step["key"] for step in found["day"]["steps"] if step["done"]]
    assert done == [mix, "salt.0"]
    # taken back in the day it is to be done at home again
    found = ticked(api, cook_id, "A", "salt.0", done=False)
    home = next(piece for piece in opened_board(api)["pieces"] if piece["typed"]["letter"] == "A")
    assert next(step for step in home["steps"] if step["kind"] == "salt")["done_at"] is None
    assert [step["key"] for step in found["day"]["steps"] if step["done"]] == [mix]
    found = ticked(api, cook_id, "A", mix, done=False)
    assert not any(step["done"] for step in found["day"]["steps"])


def opened_board(api) -> dict:
    return api("GET", "cooks/in-hand")[1]["cook"]


def test_what_was_done_goes_with_its_side_and_not_with_its_place(api, cook_id):
    found = changed(api, cook_id, sides=[BREAD, SALAD], people=3)
    ticked(api, cook_id, "S2", "make")
    found = changed(api, cook_id, sides=[SALAD])
    assert step_of(found, "S1", "make")["done"]
    found = changed(api, cook_id, sides=[BREAD, SALAD])
    assert not step_of(found, "S1", "make")["done"]
    assert step_of(found, "S2", "make")["done"]
    assert set(Cook.objects.get(pk=cook_id).ticks) == {"S2"}


def test_what_was_done_to_a_piece_goes_off_the_board_with_it(api, cook_id):
    Cook.objects.filter(pk=cook_id).update(
        ticks={"C": {"trim": timezone.now().isoformat()}}, pins={"C": {"trim": -900}}
    )
    ticked(api, cook_id, "A", "trim")
    typed = as_sent(opened(api))
    saved(api, cook_id, typed)
    kept = Cook.objects.get(pk=cook_id)
    assert (set(kept.ticks), kept.pins) == ({"A"}, {})


def test_a_step_that_is_not_there_is_refused_at_its_field(api, cook_id):
    version = Cook.objects.get(pk=cook_id).version
    pin = {"letter": "A", "key": "nothing", "begins_at": evening(9).isoformat()}
    status, answer = api("PUT", f"cooks/{cook_id}/day", {"version": version, "pin": pin})
    assert (status, answer["errors"][0]["field"]) == (422, "pin.key")
    assert Cook.objects.get(pk=cook_id).version == version


def test_a_blend_says_whom_it_leaves_out(api, cook_id):
    api("POST", "cooks/tasters", {"nickname": "Heron", "avoids": ["milk", "lamb", "fennel"]})
    api("POST", "cooks/tasters", {"nickname": "Coot"})
    blends = {row["name"]: row["id"] for row in api("GET", "blends")[1]}
    (bath,) = api("GET", f"blends/{blends['Orange and buttermilk']}/left-out")[1]
    # a bath is no lamb: only what is in it counts
    assert (bath["nickname"], bath["why"], bath["asked"]) == ("Heron", ["milk"], ["fennel"])
    (rub,) = api("GET", f"blends/{blends['Weir House lamb rub']}/left-out")[1]
    assert rub["why"] == []
    assert api("GET", f"blends/{cook_id}/left-out")[0] == 404
