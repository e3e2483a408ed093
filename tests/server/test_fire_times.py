"""A fire in a night that has an hour twice, under a clock that is set back, for a whole day, and over a restart."""

from datetime import UTC, datetime, timedelta

import pytest
from api.fire import state
from api.fire.forecaster import forecaster
from book.models import Event, Reading
from django.utils import timezone
from test_fire_api import ago, cook_id, device, fire_of, noted, sends  # noqa: F401 - fixtures are found by their names


@pytest.fixture
def clock(monkeypatch):
    """What the server's clock shows; a test sets it."""

    class Clock:
        now = datetime(2027, 10, 31, 5, tzinfo=UTC)

    monkeypatch.setattr(timezone, "now", lambda: Clock.now)
    return Clock


def test_an_hour_that_is_there_twice_is_two_hours_on_the_fire(api, cook_id, clock):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": "2027-10-31T00:30:00+02:00"})
    read = {"what": "read", "word": "centre", "letter": "A"}
    noted(api, cook_id, read | {"celsius": "40", "at": "2027-10-31T02:30:00+02:00"})
    noted(api, cook_id, read | {"celsius": "50", "at": "2027-10-31T02:30:00+01:00"})
    found = fire_of(api, cook_id)
    assert [event["celsius"] for event in found["events"] if event["what"] == "read"] == [40, 50]
    (one, _) = found["reading"]["pieces"]
    assert one["centre_c"] == 50
    noted(api, cook_id, {"what": "off", "letter": "A", "at": "2027-10-31T02:40:00+01:00"})
    (after, *_) = api("GET", f"fire/{cook_id}/after")[1]["reading"]["pieces"]
    assert after["happened"]["fire_s"] == 3 * 3600 + 600
    assert after["happened"]["end_c"] == 50


def test_a_clock_that_is_set_back_loses_nothing_and_stops_nothing(api, cook_id, device, clock):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": (clock.now - timedelta(hours=3)).isoformat()})
    use = {"key": "6e0e3d14-2f9d-4b8f-9b25-0a4b8b1d5c11", "device": device["device"]["id"], "channel": "1"}
    assert api("POST", f"fire/{cook_id}/probes", use | {"role": "centre", "letter": "A"})[0] == 200
    assert sends(device["token"], [{"channel": "1", "celsius": 55, "at": clock.now.isoformat()}])[1]["taken"] == 1
    fire_of(api, cook_id)
    clock.now -= timedelta(hours=1)
    found = fire_of(api, cook_id)
    assert found["reading"]["pieces"][0]["state"] == "on"
    assert sends(device["token"], [{"channel": "1", "celsius": 56, "at": clock.now.isoformat()}])[1]["taken"] == 1
    assert noted(api, cook_id, {"what": "spritz", "letter": "A"})["refused"] == []
    assert [event["what"] for event in fire_of(api, cook_id)["events"]] == ["on", "spritz"]
    # an event of the hour that is still to come by this clock does not count before it is there
    later = {"what": "off", "letter": "A", "at": (clock.now + timedelta(minutes=50)).isoformat()}
    assert noted(api, cook_id, later)["refused"]
    clock.now += timedelta(hours=1, minutes=5)
    assert Reading.objects.count() == 2
    assert fire_of(api, cook_id)["reading"]["pieces"][0]["state"] == "on"


def test_a_whole_day_on_the_fire_is_sent_thinned_and_forecast(api, cook_id, device, clock):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": (clock.now - timedelta(hours=24)).isoformat()})
    use = {"key": "6e0e3d14-2f9d-4b8f-9b25-0a4b8b1d5c12", "device": device["device"]["id"], "channel": "1"}
    began = (clock.now - timedelta(hours=24)).isoformat()
    assert api("POST", f"fire/{cook_id}/probes", use | {"role": "centre", "letter": "A", "from_at": began})[0] == 200
    every = [{"channel": "1", "celsius": 66 - one / 400, "ago_s": one * 30} for one in range(2879, -1, -1)]
    for at in range(0, len(every), 960):
        assert sends(device["token"], every[at : at + 960])[1]["refused"] == []
    fire_of(api, cook_id)
    found = fire_of(api, cook_id)
    (line,) = found["lines"]
    assert 1500 < len(line["at"]) <= 2000
    assert line["at"][-1] - line["at"][0] == pytest.approx(24 * 3600, abs=60)
    one = found["reading"]["pieces"][0]
    assert one["centre_c"] == pytest.approx(66, abs=0.1)
    assert len(one["outlook"]["done"]) == 20
    # its surface has long been hot: what its centre has passed its surface has too
    (hot,) = [one for one in found["reading"]["clocks"] if one["kind"] == "fire"]
    assert (hot["runs"], hot["over"]) == (False, False)


def test_a_restart_in_the_middle_of_a_cook_changes_nothing_that_is_known(api, cook_id, device):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(120)}, {"what": "wrap", "letter": "A", "at": ago(20)})
    use = {"key": "6e0e3d14-2f9d-4b8f-9b25-0a4b8b1d5c13", "device": device["device"]["id"], "channel": "1"}
    assert api("POST", f"fire/{cook_id}/probes", use | {"role": "centre", "letter": "A", "from_at": ago(130)})[0] == 200
    sends(device["token"], [{"channel": "1", "celsius": 60 - one / 4, "ago_s": one * 60} for one in range(110)])
    before = fire_of(api, cook_id)
    state.forget()
    forecaster.forget()
    after = fire_of(api, cook_id)
    assert after["lines"] == before["lines"]
    assert after["events"] == before["events"]
    (one, *_), (same, *_) = before["reading"]["pieces"], after["reading"]["pieces"]
    for name in ("state", "on_at", "wrapped", "target_c", "centre_c"):
        assert same[name] == one[name], name
    assert same["rate_k_h"] == pytest.approx(one["rate_k_h"], abs=0.2)
    assert Event.objects.count() == 2


def test_a_reading_of_a_clock_that_is_a_little_fast_is_not_lost_to_one_that_is_right(api, cook_id, device, clock):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": (clock.now - timedelta(hours=1)).isoformat()})
    other = api("POST", "fire/devices", {"name": "The other"})[1]
    for number, (made, role, letter) in enumerate(((device, "centre", "A"), (other, "pit", ""))):
        use = {"key": f"6e0e3d14-2f9d-4b8f-9b25-0a4b8b1d5c2{number}", "device": made["device"]["id"], "channel": "1"}
        assert api("POST", f"fire/{cook_id}/probes", use | {"role": role, "letter": letter})[0] == 200
    fast = (clock.now + timedelta(seconds=4)).isoformat()
    assert sends(device["token"], [{"channel": "1", "celsius": 55, "at": fast}])[1]["taken"] == 1
    assert sends(other["token"], [{"channel": "1", "celsius": 120, "at": clock.now.isoformat()}])[1]["taken"] == 1
    fire_of(api, cook_id)
    clock.now += timedelta(seconds=10)
    (one, _) = fire_of(api, cook_id)["reading"]["pieces"]
    assert one["centre_c"] == 55
