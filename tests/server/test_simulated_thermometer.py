"""The simulated thermometer as a device apart: what it sends, what it is told, and how it is put to a cook."""

import json
import os
import signal
import time
import urllib.error
from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest
from api.fire import state
from api.fire.forecaster import Forecaster, forecaster
from book.fires import clock_of, set_clock
from book.models import Cook, CookClock, Device, ProbeUse
from devices.hidden.cook import HiddenCook, Wanted
from devices.hidden.fire import Burns
from devices.simulated_thermometer import EVERY_S, PATIENCE_S, Thermometer
from django.core.management import CommandError, call_command
from django.test import Client
from django.utils import timezone
from ravska_core.heat import NO_KITCHEN, Heated, Live, Phase, Stretch, find_cooker, take_kitchen
from ravska_core.meat import Piece, find_cut, read_piece
from test_fire_api import ago, cook_id, fire_of, noted, sends  # noqa: F401 - fixtures are found by their names

BEGAN = datetime(2027, 6, 12, 12, tzinfo=UTC)


def a_device(address="http://nowhere", **more) -> Thermometer:
    cook = HiddenCook(Burns("steady", 150.0), [Wanted("A", 20, 11, 10, surface=True)], 3)
    return Thermometer(address, "token", cook, BEGAN, **more)


def test_it_reads_every_five_seconds_of_its_own_time_whatever_its_speed():
    device = a_device()
    device.watch(60)
    assert len(device.kept) == 3 * 60 / EVERY_S
    assert {row["channel"] for row in device.kept} == {"pit", "A", "A surface"}
    assert datetime.fromisoformat(device.kept[-1]["at"]) == BEGAN + timedelta(seconds=60) == device.now


class _Answers:
    """An address that answers each post with what it is given, or is away."""

    def __init__(self, monkeypatch, *answers):
        self.sent, self.answers = [], list(answers)
        monkeypatch.setattr("devices.simulated_thermometer.urllib.request.urlopen", self)

    def __call__(self, request, timeout):
        answer = self.answers.pop(0) if self.answers else {"do": []}
        if isinstance(answer, Exception):
            raise answer
        self.sent.append(json.loads(request.data))
        return _Open(json.dumps(answer).encode())


class _Open:
    def __init__(self, body):
        self.body = body

    def read(self, *_):
        return self.body

    def __enter__(self):
        return self

    def __exit__(self, *_):
        return False


def test_what_it_could_not_send_it_sends_later_in_order(monkeypatch):
    device = a_device()
    away = _Answers(monkeypatch, urllib.error.URLError("away"))
    device.watch(30)
    with pytest.raises(urllib.error.URLError):
        device.send()
    device.watch(30)
    assert device.send()
    (sent,) = away.sent
    assert len(sent["readings"]) == 36
    assert [row["at"] for row in sent["readings"]] == sorted(row["at"] for row in sent["readings"])
    assert not device.kept


def test_it_does_what_it_is_told_once_and_ends_when_it_is_told_to(monkeypatch):
    lid = {"id": "1", "do": "lid", "name": "", "number": 300}
    faster = {"id": "2", "do": "speed", "number": 60}
    _Answers(monkeypatch, {"do": [lid, faster]}, {"do": [lid, faster]}, {"do": [{"id": "3", "do": "stop"}]})
    device = a_device()
    device.watch(600)
    before = device.cook.fire.celsius
    assert device.send()
    assert device.speed == 60
    device.watch(60)
    assert device.cook.fire.celsius < before - 20
    left = device.cook.fire.lid_s
    assert device.send()
    assert device.cook.fire.lid_s == left
    assert not device.send()


def test_it_ends_when_nobody_answers_for_long_and_when_its_token_is_taken_away(monkeypatch):
    now = [0.0]

    def sleeps(seconds):
        now[0] += seconds

    _Answers(monkeypatch, *[urllib.error.URLError("away")] * 1000)
    a_device().run(sleeps, lambda: now[0])
    assert PATIENCE_S <= now[0] < PATIENCE_S + 5
    refused = urllib.error.HTTPError("", 403, "", {}, None)
    _Answers(monkeypatch, refused)
    now[0] = 0.0
    a_device().run(sleeps, lambda: now[0])
    assert now[0] < 2


def test_one_that_lags_behind_the_cooks_clock_catches_up_with_it(monkeypatch):
    ahead = (BEGAN + timedelta(minutes=20)).isoformat()
    stop = {"do": [{"id": "1", "do": "stop"}]}
    link = _Answers(monkeypatch, {"do": [], "now": ahead}, {"do": [], "now": ahead}, stop)
    device, now = a_device(), [0.0]
    device.run(lambda seconds: now.__setitem__(0, now[0] + seconds), lambda: now[0])
    assert BEGAN + timedelta(minutes=20) <= device.now < BEGAN + timedelta(minutes=20, seconds=3)
    assert len(link.sent) == 3


def test_put_to_a_cook_that_goes_on_it_has_been_through_what_was_tapped():
    deeds = [(0.0, "on", "A", 0.0), (3600.0, "wrap", "A", 0.0)]
    device = a_device(deeds=deeds, elapsed_s=7200.0)
    assert device.now == BEGAN + timedelta(hours=2)
    assert device.cook.pieces[0].wrapped
    # and tells what its probes showed on the way, a minute at a time
    assert len({row["at"] for row in device.kept}) == 120
    fresh = a_device(elapsed_s=7200.0)
    assert not fresh.cook.pieces[0].wrapped


def test_one_that_has_no_token_says_what_to_do():
    with pytest.raises(CommandError, match="token"):
        call_command("thermometer", token="")


def test_put_to_a_cook_its_probes_are_in_all_pieces_and_its_clock_is_the_cooks(api, cook_id, begun):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(30)})
    status, found = api("POST", f"fire/{cook_id}/simulated", {"speed": 60})
    assert (status, found["simulated"], found["speed"]) == (200, True, 60)
    ((_, token, pieces, burns, _, began_at, speed, deeds, elapsed_s),) = begun
    assert ([one["name"] for one in pieces], burns["set_c"], speed) == (["A", "B"], 120, 60)
    assert deeds == [(0.0, "on", "A", 0.0)]
    assert elapsed_s == pytest.approx(1800, abs=30)
    assert sorted(ProbeUse.objects.values_list("channel", flat=True)) == ["A", "A surface", "B", "B surface", "pit"]
    row = {
        "channel": "A",
        "celsius": 31.5,
        "at": (datetime.fromisoformat(began_at) + timedelta(minutes=31)).isoformat(),
    }
    assert sends(token, [row], sent_at=row["at"])[1]["taken"] == 1
    # what is tapped here is done there
    noted(api, cook_id, {"what": "wrap", "letter": "A"}, {"what": "note", "note": "smells good"})
    orders = sends(token, [])[1]["do"]
    assert [(order["do"], order["name"]) for order in orders] == [("wrap", "A")]
    assert sends(token, [], done=[orders[0]["id"]])[1]["do"] == []
    api("POST", f"fire/{cook_id}/simulated", {"speed": 5})
    assert len(begun) == 1
    assert [order["number"] for order in sends(token, [])[1]["do"]] == [5]
    assert api("POST", f"fire/{cook_id}/simulated/handle", {"do": "put back", "letter": "A"})[0] == 200
    found = api("POST", f"fire/{cook_id}/simulated/stop")[1]
    assert (found["simulated"], found["speed"]) == (False, 1)
    assert sends(token, [])[0] == 403
    assert api("POST", f"fire/{cook_id}/simulated/handle", {"do": "put back"})[0] == 422


def test_after_a_restart_a_simulated_clock_goes_as_everybodys_from_when_it_was_heard(api, cook_id, begun):  # noqa: F811
    cook, wall = Cook.objects.get(pk=cook_id), timezone.now() - timedelta(minutes=10)
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(30)})
    api("POST", f"fire/{cook_id}/simulated", {"speed": 60})
    CookClock.objects.all().delete()
    set_clock(cook, wall, 60.0)
    # as long as it is heard the clock goes as fast as that; from when it was heard last as everybody's
    Device.objects.update(heard_at=wall + timedelta(minutes=1))
    assert clock_of(cook, wall + timedelta(seconds=70)) == (wall + timedelta(minutes=70), 60.0)
    assert clock_of(cook, wall + timedelta(minutes=2)) == (wall + timedelta(minutes=61), 1.0)
    # one that was never heard has never gone faster
    Device.objects.update(heard_at=None)
    assert clock_of(cook, wall + timedelta(minutes=1)) == (wall + timedelta(minutes=1), 1.0)


def test_the_forecasts_process_is_begun_anew_when_it_dies_and_what_was_told_is_old():
    take_kitchen(NO_KITCHEN)
    one, key = Forecaster(), uuid4()
    piece, kettle = Piece("lamb-leg", 2400.0), find_cooker("kettle", "indirect")
    phase = Phase("indirect", 130.0, "grate", centre_c=58.0)
    heated = Heated(piece, find_cut(piece.cut), read_piece(piece), (phase,), (kettle,))
    live = Live(heated, (Stretch(phase, kettle, 3600.0),), ((phase, kettle),))

    def told(n: int):
        one.want(key, "A", BEGAN + timedelta(minutes=n), (n,), NO_KITCHEN, lambda: (live, (), None))
        known = one._known[key, "A"]
        while known.pending is not None:
            time.sleep(0.02)
        known.asked = -10.0
        return one.latest(key, "A")

    try:
        at, first = told(0)
        assert first.forecast.done_s > 3600
        (worker,) = one._process()._processes
        os.kill(worker, signal.SIGKILL)
        # what was told stands, as of when it was told; asked again it is told by a new process
        tries = 1
        while told(tries)[0] == at:
            assert one.latest(key, "A")[1] == first
            tries += 1
            assert tries < 50
        assert one.latest(key, "A")[0] > at
    finally:
        one.forget()
    assert one.latest(key, "A") is None


def test_nothing_of_a_fire_is_forgotten_by_the_pages_being_away(api, cook_id):  # noqa: F811
    noted(api, cook_id, {"what": "on", "letter": "A", "at": ago(30)})
    before = fire_of(api, cook_id)["events"]
    state.forget()
    forecaster.forget()
    assert fire_of(api, cook_id)["events"] == before
    assert Client().get(f"/api/fire/{cook_id}").status_code == 200


def test_a_simulated_thermometer_is_set_going_when_its_token_is_in_the_book(api, cook_id, begun, monkeypatch):  # noqa: F811
    then = []
    monkeypatch.setattr("api.fire.simulated.on_commit", then.append)
    status, told = api("POST", f"fire/{cook_id}/simulated", {"speed": 20})
    assert (status, told["simulated"], begun) == (200, True, [])
    (set_going,) = then
    set_going()
    assert len(begun) == 1
    noted(api, cook_id, {"what": "on", "letter": "A"})
    assert len(then) == 2, "what is done at the simulated fire is told it once it is in the book"
