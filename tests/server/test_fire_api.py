"""Fire over the API: what is noted is only added, what was read is in the book before it is answered."""

import base64
import json
from datetime import datetime, timedelta
from uuid import uuid4

import pytest
from api.fire.router import stripped
from book.fires import clock_of, device_of, hashed, set_clock
from book.models import Cook, CookClock, Device, Event, Photo, ProbeUse, Reading
from django.db import IntegrityError, transaction
from django.test import Client
from django.utils import timezone
from test_cook_api import opened
from test_day_api import at, day_of, evening


@pytest.fixture
def cook_id(api, book, unburnt) -> str:
    cook = opened(api)
    Cook.objects.filter(pk=cook["id"]).update(serve_at=evening(1))
    return cook["id"]


def fire_of(api, cook_id: str, after: int = 0) -> dict:
    status, answer = api("GET", f"fire/{cook_id}?after={after}")
    assert status == 200, answer
    return answer


def noted(api, cook_id: str, *taps: dict) -> dict:
    status, answer = api("POST", f"fire/{cook_id}/taps", {"taps": [{"key": str(uuid4()), **tap} for tap in taps]})
    assert status == 200, answer
    return answer


def ago(minutes: float) -> str:
    return (timezone.now() - timedelta(minutes=minutes)).isoformat()


@pytest.fixture
def device(api, book) -> dict:
    status, made = api("POST", "fire/devices", {"name": "Four channels"})
    assert status == 200
    return made


def sends(token: str, rows: list[dict], **more) -> tuple[int, dict]:
    answer = Client().post(
        "/api/devices/thermometer/readings", json.dumps({"readings": rows, **more}), "application/json",
        headers={"Authorization": f"Bearer {token}"},
    )  # fmt: skip
    return answer.status_code, answer.json()


def test_before_anything_is_on_there_is_a_cook_and_no_reading(api, cook_id):
    assert api("GET", "fire/cook")[1]["id"] == cook_id
    found = fire_of(api, cook_id)
    assert found["reading"] is None
    assert [piece["letter"] for piece in found["pieces"]] == ["A", "B"]
    assert {kind["key"] for kind in found["kinds"]} >= {"on", "wrap", "feel", "photo"}


def test_a_cook_is_begun_from_nothing_and_goes_on_without_any_probe(api, cook_id):
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(90)}, {"what": "on", "letter": "B", "at": ago(90)})
    noted(api, cook_id, {"what": "read", "word": "centre", "letter": "A", "celsius": "41 °C", "at": ago(20)})
    noted(api, cook_id, {"what": "read", "word": "centre", "letter": "A", "celsius": "48", "at": ago(1)})
    fire_of(api, cook_id)
    found = fire_of(api, cook_id)
    one, other = found["reading"]["pieces"]
    assert (one["state"], one["centre_c"], one["typed"]) == ("on", 48, True)
    assert len(one["outlook"]["done"]) == 20
    assert at(one["outlook"]["done_at"]) > timezone.now()
    assert other["centre_c"] is None
    assert len(other["outlook"]["done"]) == 20
    assert [event["what"] for event in found["events"]] == ["on", "on", "read", "read"]


def test_a_tap_sent_twice_counts_once_and_bad_ones_stop_no_others(api, cook_id):
    tap = {"key": str(uuid4()), "what": "on", "letter": "A"}
    answer = noted(
        api, cook_id, tap, tap, {"what": "wrap", "letter": "Q"}, {"what": "feel", "letter": "A", "word": "soggy"},
        {"what": "read", "word": "pit", "celsius": "hot"}, {"key": "no key", "what": "on"},
        {"what": "spritz", "letter": "A"},
        {"what": "turn", "letter": "A", "at": "2040-01-01T00:00:00Z"},
    )  # fmt: skip
    assert len(answer["noted"]) == 3
    assert [(row["row"], row["field"]) for row in answer["refused"]] == [
        (2, "letter"), (3, "word"), (4, "celsius"), (5, "key"), (7, "at"),
    ]  # fmt: skip
    assert all(row["sentence"].endswith((".", "?")) for row in answer["refused"])
    assert Event.objects.count() == 2


def test_what_was_noted_is_moved_and_taken_back_and_nothing_is_ever_changed(api, cook_id):
    on, wrap, moved = str(uuid4()), str(uuid4()), str(uuid4())
    noted(api, cook_id, {"key": on, "what": "on", "letter": "A", "at": ago(120)})
    noted(api, cook_id, {"key": wrap, "what": "wrap", "letter": "A"})
    noted(api, cook_id, {"key": moved, "what": "wrap", "letter": "A", "at": ago(20), "of": wrap})
    (_, one) = fire_of(api, cook_id)["events"]
    assert one["key"] == moved
    assert timezone.now() - at(one["at"]) > timedelta(minutes=19)
    noted(api, cook_id, {"what": "undone", "of": moved})
    assert [event["what"] for event in fire_of(api, cook_id)["events"]] == ["on"]
    assert not fire_of(api, cook_id)["reading"]["pieces"][0]["wrapped"]
    assert Event.objects.count() == 4
    assert noted(api, cook_id, {"what": "undone", "of": str(uuid4())})["refused"][0]["field"] == "of"


def test_what_the_plan_says_is_next_is_ticked_by_the_same_tap_and_the_plan_moves(api, cook_id):
    noted(api, cook_id, {"what": "began"})
    due = fire_of(api, cook_id)["reading"]["due"]
    assert due
    first = next(step for step in due if step["letter"])
    noted(api, cook_id, {"what": "tick", "letter": first["letter"], "step": first["key"]})
    steps = {(step["letter"], step["key"]): step for step in day_of(api, cook_id)["day"]["steps"]}
    assert steps[first["letter"], first["key"]]["done"]
    assert (first["letter"], first["key"]) not in {
        (step["letter"], step["key"]) for step in fire_of(api, cook_id)["reading"]["due"]
    }


def test_readings_are_taken_in_any_order_each_once(api, cook_id, device):
    token = device["token"]
    now = timezone.now()
    rows = [
        {"channel": "1", "celsius": 20 + minute / 2, "at": (now - timedelta(minutes=60 - minute)).isoformat()}
        for minute in range(60)
    ]
    status, answer = sends(token, rows[30:], sent_at=timezone.now().isoformat())
    assert (status, answer["taken"], answer["known"], answer["refused"], answer["do"]) == (200, 30, 0, [], [])
    answer = sends(token, rows, sent_at=timezone.now().isoformat())[1]
    assert (answer["taken"], answer["known"]) == (30, 30)
    assert Reading.objects.count() == 60
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(61)})
    document = {"key": str(uuid4()), "device": device["device"]["id"], "channel": "1", "role": "centre", "letter": "A",
                "from_at": ago(61)}  # fmt: skip
    status, found = api("POST", f"fire/{cook_id}/probes", document)
    assert status == 200
    (line,) = found["lines"]
    assert (line["letter"], len(line["at"])) == ("A", 60)
    assert line["celsius"] == sorted(line["celsius"])
    assert found["reading"]["pieces"][0]["centre_c"] == pytest.approx(49.5)
    assert found["reading"]["pieces"][0]["rate_k_h"] == pytest.approx(30, abs=1)
    # the next look has only what came since
    sends(token, [{"channel": "1", "celsius": 50, "ago_s": 0}])
    (line,) = fire_of(api, cook_id, found["last"])["lines"]
    assert line["celsius"] == [50]


def test_bad_rows_are_refused_one_by_one_with_reasons(api, device):
    rows = [
        {"channel": "1", "celsius": 20, "ago_s": 5}, {"channel": "", "celsius": 20, "ago_s": 5},
        {"channel": "1", "celsius": "warm", "ago_s": 5}, {"channel": "1", "celsius": 2000, "ago_s": 5},
        {"channel": "1", "celsius": 20}, {"channel": "1", "celsius": 20, "at": "2099-01-01T00:00:00Z"},
        {"channel": "1", "celsius": 20, "at": "2001-01-01T00:00:00Z"}, {},
    ]  # fmt: skip
    status, answer = sends(device["token"], rows)
    assert (status, answer["taken"]) == (200, 1)
    assert [(row["row"], row["field"]) for row in answer["refused"]] == [
        (2, "channel"), (3, "celsius"), (4, "celsius"), (5, "at"), (6, "at"), (7, "at"), (8, "channel"),
    ]  # fmt: skip


def test_a_wrong_clock_is_measured_said_and_put_right(api, cook_id, device):
    fast = timezone.now() + timedelta(hours=3)
    rows = [{"channel": "1", "celsius": 55, "at": (fast - timedelta(minutes=1)).isoformat()}]
    answer = sends(device["token"], rows, sent_at=fast.isoformat())[1]
    assert answer["offset_s"] == pytest.approx(3 * 3600, abs=5)
    assert timezone.now() - Reading.objects.get().at == pytest.approx(timedelta(minutes=1), abs=timedelta(seconds=5))
    noted(api, cook_id, {"what": "on", "letter": "A"})
    (probe,) = fire_of(api, cook_id)["probes"]
    assert probe["clock"] == "Its clock is 180 min fast; its readings are told by this server's."
    assert (probe["role"], probe["celsius"]) == ("none", 55)


def test_a_token_is_kept_as_its_hash_opens_one_route_and_can_be_revoked(api, cook_id, device):
    token = device["token"]
    assert Device.objects.get().token_hash == hashed(token) != token
    assert device_of(token) is not None
    assert sends("guess", [])[0] == 403
    answer = Client().post(
        f"/api/fire/{cook_id}/taps", json.dumps({"taps": []}), "application/json",
        headers={"Authorization": f"Bearer {token}"},
    )  # fmt: skip
    assert answer.status_code == 403
    assert sends(token, [])[0] == 200
    assert api("POST", f"fire/devices/{device['device']['id']}/revoke")[1]["revoked"]
    assert sends(token, [])[0] == 403
    (listed,) = api("GET", "fire/devices")[1]
    assert "token" not in json.dumps(listed)


def test_two_probes_that_were_put_in_the_wrong_way_round_are_put_right_afterwards(api, cook_id, device):
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(30)}, {"what": "on", "letter": "B", "at": ago(30)})
    sends(device["token"], [{"channel": "1", "celsius": 30, "ago_s": 60}, {"channel": "2", "celsius": 50, "ago_s": 60}])

    def used(channel: str, letter: str) -> dict:
        document = {"key": str(uuid4()), "device": device["device"]["id"], "channel": channel, "role": "centre",
                    "letter": letter, "from_at": ago(29)}  # fmt: skip
        return api("POST", f"fire/{cook_id}/probes", document)[1]

    used("1", "A")
    assert [one["centre_c"] for one in used("2", "B")["reading"]["pieces"]] == [30, 50]
    used("1", "B")
    assert [one["centre_c"] for one in used("2", "A")["reading"]["pieces"]] == [50, 30]
    assert ProbeUse.objects.count() == 4
    status, refused = api("POST", f"fire/{cook_id}/probes", {
        "key": str(uuid4()), "device": device["device"]["id"], "channel": "1", "role": "centre"})  # fmt: skip
    assert (status, refused["errors"][0]["field"]) == (422, "letter")


def test_many_readings_are_sent_thinned_with_their_extremes(api, cook_id, device):
    noted(api, cook_id, {"what": "began", "at": ago(13 * 60)}, {"what": "on", "letter": "A", "at": ago(12 * 60)})
    now = timezone.now()
    whose = Device.objects.get()
    Reading.objects.bulk_create(
        Reading(device=whose, channel="pit", celsius=400.0 if n == 4321 else 110 + n % 7, shown_at=t, at=t)
        for n in range(8640)
        for t in [now - timedelta(hours=12) + timedelta(seconds=5 * n)]
    )
    document = {"key": str(uuid4()), "device": str(whose.pk), "channel": "pit", "role": "pit", "from_at": ago(12 * 60)}
    api("POST", f"fire/{cook_id}/probes", document)
    (line,) = fire_of(api, cook_id)["lines"]
    assert 1000 < len(line["at"]) <= 2000
    assert max(line["celsius"]) == 400
    assert min(line["celsius"]) == 110
    assert line["at"] == sorted(line["at"])
    assert fire_of(api, cook_id)["reading"]["pit"]["celsius"] == pytest.approx(113, abs=4)


def test_a_cooks_own_clock_goes_on_from_what_it_showed(api, cook_id):
    cook, wall = Cook.objects.get(pk=cook_id), timezone.now()
    set_clock(cook, wall, 60.0)
    assert clock_of(cook, wall + timedelta(seconds=10)) == (wall + timedelta(minutes=10), 60.0)
    set_clock(cook, wall + timedelta(seconds=10), 1.0)
    assert clock_of(cook, wall + timedelta(seconds=20)) == (wall + timedelta(minutes=10, seconds=10), 1.0)
    with pytest.raises(IntegrityError), transaction.atomic():
        CookClock.objects.create(cook=cook, wall_at=wall, shows_at=wall, speed=500)


_JPEG = bytes.fromhex("ffd8 ffe1 0008 45786966 0000 ffdb 0004 0102 ffda 0003 01 1122 ffd9")


def test_a_photo_is_kept_without_what_it_tells_of_place_and_camera(api, cook_id):
    noted(api, cook_id, {"what": "on", "letter": "A"})
    tap = {"key": str(uuid4()), "what": "photo", "letter": "A"}
    document = {"tap": tap, "jpeg": base64.b64encode(_JPEG).decode()}
    assert api("POST", f"fire/{cook_id}/photo", document)[0] == 200
    assert b"Exif" not in bytes(Photo.objects.get().jpeg)
    assert fire_of(api, cook_id)["events"][-1]["photo"]
    answer = Client().get(f"/api/fire/photos/{tap['key']}")
    assert (answer.status_code, answer["Content-Type"]) == (200, "image/jpeg")
    assert answer.content == stripped(_JPEG)
    for jpeg in (b"no picture", b"\xff\xd8\xff", b"\xff\xd8" + b"\xff\xe0\xff\xff" * 3):
        status, refused = api("POST", f"fire/{cook_id}/photo", {"tap": tap, "jpeg": base64.b64encode(jpeg).decode()})
        assert (status, refused["errors"][0]["field"]) == (422, "jpeg")
    assert Client().get(f"/api/fire/photos/{uuid4()}").status_code == 404


def test_readings_go_out_as_csv(api, cook_id, device):
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(30)},
          {"what": "read", "word": "centre", "letter": "A", "celsius": "100 °F", "at": ago(5)})  # fmt: skip
    sends(device["token"], [{"channel": "1", "celsius": 30.5, "ago_s": 600}])
    document = {
        "key": str(uuid4()),
        "device": device["device"]["id"],
        "channel": "1",
        "role": "pit",
        "from_at": ago(29),
    }
    api("POST", f"fire/{cook_id}/probes", document)
    rows = Client().get(f"/api/fire/{cook_id}/readings.csv").content.decode().splitlines()
    assert rows[0] == "at,measured,piece,probe,celsius"
    assert rows[1].split(",")[1:] == ["pit", "", "Four channels/1", "30.5"]
    moment, *more = rows[2].split(",")
    assert datetime.fromisoformat(moment)
    assert more[:3] == ["centre", "A", "by hand"]
    assert float(more[3]) == pytest.approx(37.78, abs=0.01)


def test_what_is_off_is_off_and_what_is_ended_is_no_fire_any_more(api, cook_id):
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(90)}, {"what": "off", "letter": "A", "at": ago(10)})
    assert fire_of(api, cook_id)["reading"]["pieces"][0]["state"] == "off"
    noted(api, cook_id, {"what": "ended"})
    assert fire_of(api, cook_id)["ended_at"]
    noted(api, cook_id, {"what": "on", "letter": "B"})
    assert fire_of(api, cook_id)["ended_at"] is None


def test_a_cook_that_is_gone_has_no_fire(api, cook_id):
    assert api("GET", f"fire/{uuid4()}")[0] == 404
    assert api("POST", f"fire/{uuid4()}/taps", {"taps": []})[0] == 404
