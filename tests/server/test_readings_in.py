"""Readings of a cook as a file, and thinned, over the API."""

from datetime import timedelta
from uuid import uuid4

import pytest
from api.fire import readings
from book.models import Device, Event, Reading
from django.utils import timezone
from test_fire_api import ago, cook_id, device, fire_of, noted, sends  # noqa: F401 - fixtures are found by their names


def lines(minutes: range, measured: str = "centre", letter: str = "A", probe: str = "1") -> str:
    now = timezone.now()
    rows = [
        f"{(now - timedelta(minutes=one)).isoformat()},{measured},{letter},{probe},{90 - one / 3:.1f}"
        for one in reversed(minutes)
    ]
    return "at,measured,piece,probe,celsius\n" + "\n".join(rows)


def bring(api, cook_id: str, text: str, **more) -> tuple[int, dict]:  # noqa: F811
    return api("POST", f"fire/{cook_id}/readings", {"text": text, **more})


def test_readings_of_a_file_are_drawn_and_reckoned_with_and_counted_once(api, cook_id):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(200)})
    text = lines(range(1, 150))
    assert bring(api, cook_id, text) == (200, {"taken": 149, "known": 0, "outside": 0, "faults": []})
    assert bring(api, cook_id, text)[1]["known"] == 149
    found = fire_of(api, cook_id)
    (line,) = found["lines"]
    assert (line["role"], line["letter"], len(line["at"])) == ("centre", "A", 149)
    assert found["reading"]["pieces"][0]["centre_c"] == pytest.approx(89.7, abs=0.1)
    assert Device.objects.get().revoked_at is not None
    # what was written is taken in again without anything new
    answer = api.client.get(f"/api/fire/{cook_id}/readings.csv")
    taken = bring(api, cook_id, answer.content.decode())[1]
    assert (taken["taken"], taken["known"], taken["faults"]) == (0, 149, [])
    assert Reading.objects.count() == 149


def test_what_a_probe_sent_and_went_out_as_a_file_is_known_when_it_comes_back(api, cook_id, device):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(60)})
    for channel, role, letter in (("1", "centre", "A"), ("2", "pit", ""), ("3", "spot", "")):
        use = {"key": str(uuid4()), "device": device["device"]["id"], "channel": channel, "role": role}
        assert api("POST", f"fire/{cook_id}/probes", use | {"letter": letter, "from_at": ago(60)})[0] == 200
    sent = [{"channel": one, "celsius": 50.1, "ago_s": 60 * at} for one in "123" for at in range(20)]
    assert sends(device["token"], sent)[1]["taken"] == 60
    text = api.client.get(f"/api/fire/{cook_id}/readings.csv").content.decode()
    told = bring(api, cook_id, text)[1]
    assert (told["taken"], told["known"], told["faults"]) == (0, 60, [])
    assert Reading.objects.count() == 60
    # another temperature at that moment is another reading
    assert bring(api, cook_id, text.replace("50.1", "51.5"))[1]["taken"] == 60


def test_what_was_typed_by_hand_comes_in_as_it_was_noted_and_once(api, cook_id):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(200)})
    noted(api, cook_id, {"what": "read", "word": "centre", "letter": "A", "celsius": "41 °C", "at": ago(20)})
    text = api.client.get(f"/api/fire/{cook_id}/readings.csv").content.decode()
    assert bring(api, cook_id, text)[1]["known"] == 1
    assert Event.objects.filter(what="read").count() == 1
    assert bring(api, cook_id, lines(range(40, 41), probe="by hand"))[1]["taken"] == 1
    assert bring(api, cook_id, lines(range(40, 41), "pit", "", "by hand"))[1]["taken"] == 1
    assert Event.objects.filter(what="read").count() == 3


def test_a_file_of_another_day_or_before_anything_was_on_is_refused_with_what_to_do(api, cook_id):  # noqa: F811
    status, problem = bring(api, cook_id, lines(range(1, 5)))
    assert (status, problem["errors"][0]["field"]) == (422, "text")
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(100)})
    status, problem = bring(api, cook_id, lines(range(250, 260)))
    assert status == 422
    assert "look at its dates" in problem["errors"][0]["sentence"]
    mixed = bring(api, cook_id, lines(range(150, 171, 4)) + "\nyesterday,pit,,1,110")[1]
    # an hour before it went on still counts
    assert (mixed["taken"], mixed["outside"]) == (3, 3)
    assert [(one["line"], one["column"]) for one in mixed["faults"]] == [(8, 1)]


def test_readings_are_thinned_when_asked_and_only_of_a_cook_that_is_over_and_was_not_tasted(
    api, cook_id, monkeypatch  # noqa: F811
):  # fmt: skip
    copied = []
    monkeypatch.setattr(readings, "_copied_first", lambda: copied.append(Reading.objects.count()))
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(100)})
    now = timezone.now()
    rows = [f"{(now - timedelta(seconds=5 * one)).isoformat()},centre,A,1,{50 + one % 7}" for one in range(1000, 0, -1)]
    assert bring(api, cook_id, "at,measured,piece,probe,celsius\n" + "\n".join(rows))[1]["taken"] == 1000
    status, problem = api("POST", f"fire/{cook_id}/thin", {})
    assert (status, copied) == (422, [])
    assert "not over yet" in problem["errors"][0]["sentence"]
    noted(api, cook_id, {"what": "ended", "at": ago(0)})
    told = api("GET", f"fire/{cook_id}/thinned")[1]
    assert told["readings"] == 1000
    assert told["stay"] < 400
    assert api("POST", f"fire/{cook_id}/thin", {})[1] == {"readings": told["stay"], "stay": told["stay"], "why_not": ""}
    assert Reading.objects.count() == told["stay"]
    assert copied == [1000]
    assert fire_of(api, cook_id)["lines"][0]["celsius"]


def test_a_tasted_cook_keeps_all_its_readings(api, book):
    tasted = next(row for row in api("GET", "cooks")[1] if "goat" in row["name"])
    before = Reading.objects.count()
    status, problem = api("POST", f"fire/{tasted['id']}/thin", {})
    assert (status, Reading.objects.count()) == (422, before)
    assert "tasted" in problem["errors"][0]["sentence"]
