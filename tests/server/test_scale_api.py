"""The open interface of scales: what a device sends, what it is told, and the simulated one as a device apart."""

import json
import threading
import time
import urllib.error
from itertools import pairwise

import pytest
from api.devices.scale import LOST_AFTER_S, hub
from devices import simulated_scale
from devices.simulated_scale import Device
from django.conf import settings as django_settings
from django.test import Client
from ravska_core.bowl import ScaleSettings


def send(api, grams: float | None = 12.3, settled: bool = True, **more: object) -> tuple[int, dict]:
    reading = {"at_s": 1.0, "grams": grams, "settled": settled, "overload": grams is None}
    document = {"scale": "bench", "capacity_g": 2000, "resolution_g": 0.1, "readings": [reading]}
    return api("POST", "devices/scale/readings", document | more)


@pytest.fixture
def unhurried(monkeypatch):
    """The clock stands still: a machine however slow loses no scale."""
    now = time.monotonic()
    monkeypatch.setattr("api.devices.scale.time.monotonic", lambda: now)


@pytest.mark.usefixtures("unhurried")
def test_any_device_that_posts_its_readings_is_shown_and_told_to_tare(api, book):
    assert api("GET", "devices/scale")[1]["state"] == "none"
    assert api("POST", "devices/scale/tare")[0] == 422
    assert send(api)[1] == {"do": []}
    now = api("GET", "devices/scale")[1]
    assert (now["state"], now["scale"], now["grams"], now["settled"]) == ("live", "bench", 12.3, True)
    tared = api("POST", "devices/scale/tare")[1]
    assert not tared["settled"]  # what it still shows is from before
    (order,) = send(api, 12.3)[1]["do"]
    assert order["do"] == "tare"
    assert not api("GET", "devices/scale")[1]["settled"]
    assert send(api, 0.0)[1] == {"do": []}
    assert api("GET", "devices/scale")[1]["settled"]
    assert send(api, None)[0] == 200
    assert api("GET", "devices/scale")[1]["overload"]
    # nobody puts anything on a real scale from a screen
    assert api("POST", "devices/scale/simulated/handle", {"do": "put", "grams": 5})[0] == 422


@pytest.mark.usefixtures("unhurried")
def test_a_device_that_tells_back_what_it_did_is_told_again_until_it_has(api, book):
    send(api, kind="simulated", done=[])
    api("POST", "devices/scale/tare")
    api("POST", "devices/scale/simulated/handle", {"do": "put", "grams": 5})
    # the first answer is lost on its way: what the scale shows is still of before
    first = send(api, 12.3, kind="simulated", done=[])[1]["do"]
    assert [order["do"] for order in first] == ["tare", "put"]
    assert not api("GET", "devices/scale")[1]["settled"]
    tare, put = send(api, 12.3, kind="simulated", done=[])[1]["do"]
    assert not api("GET", "devices/scale")[1]["settled"]
    assert send(api, 0.0, kind="simulated", done=[tare["id"]])[1]["do"] == [put]
    assert api("GET", "devices/scale")[1]["settled"]
    assert send(api, 5.0, kind="simulated", done=[tare["id"], put["id"]])[1] == {"do": []}
    # the last thing it does it cannot tell back; the next scale of its name is not to hear it
    api("POST", "devices/scale/simulated/handle", {"do": "stop"})
    assert [order["do"] for order in send(api, kind="simulated", done=[])[1]["do"]] == ["stop"]
    assert send(api, kind="simulated", done=[])[1] == {"do": []}


@pytest.mark.parametrize(
    "change",
    [
        {"done": ["x"] * 51},
        {"scale": ""},
        {"scale": "x" * 99},
        {"readings": [{"at_s": -1}]},
        {"readings": [{"at_s": 1, "grams": 1e9}]},
        {"readings": [{"at_s": 1}] * 500},
        {"resolution_g": 0},
        {"capacity_g": "a lot"},
    ],
)
def test_a_device_that_sends_nonsense_is_told_so(api, book, change):
    status, problem = send(api, **change)
    assert status == 422
    assert problem["errors"]


def test_a_silent_scale_is_said_to_be_lost_and_not_told_to_tare(api, book, monkeypatch):
    send(api)
    later = time.monotonic() + LOST_AFTER_S + 1
    monkeypatch.setattr("api.devices.scale.time.monotonic", lambda: later)
    lost = api("GET", "devices/scale")[1]
    assert (lost["state"], lost["grams"], lost["settled"]) == ("lost", None, False)
    status, problem = api("POST", "devices/scale/tare")
    assert status == 422
    assert "by hand" in problem["detail"]
    assert send(api, 44.0)[0] == 200
    assert api("GET", "devices/scale")[1]["grams"] == 44.0


def test_the_screen_starts_a_scale_that_speaks_the_open_interface(api, book, started):
    assert api("POST", "devices/scale/simulated", {"resolution_g": 1.0})[0] == 200
    (device,) = started
    assert (device.address, device.settings.resolution_g) == ("http://testserver", 1.0)
    assert api("POST", "devices/scale/simulated", {"resolution_g": 0.5})[0] == 422


def device(api, monkeypatch, fails: int = 0, **settings: object) -> tuple[Device, list[dict]]:
    """A simulated scale wired to the API. Its first posts may fail; every fifth answer is lost on its way."""
    sent: list[dict] = []
    left = [fails]

    def post(address: str, document: dict, token: str) -> dict:
        if left[0]:
            left[0] -= 1
            raise urllib.error.URLError("away")
        sent.append(document)
        answer = posted(document, token)
        assert answer.status_code == 200
        if len(sent) % 5 == 0:
            raise TimeoutError
        return answer.json()

    monkeypatch.setattr(simulated_scale, "_post", post)
    token = django_settings.DEVICE_TOKEN
    return Device("http://127.0.0.1:1", ScaleSettings(**settings), patience_s=60, token=token), sent


def posted(document: dict, token: str, to: str = "devices/scale/readings"):
    """Send something as a device does: from no page, with a token."""
    headers = {"Authorization": f"Bearer {token}"} if token else {}
    return Client().post(f"/api/{to}", json.dumps(document), "application/json", headers=headers)


def test_a_devices_token_opens_the_readings_and_nothing_else(book):
    token, reading = django_settings.DEVICE_TOKEN, {"scale": "bench", "readings": [{"at_s": 1, "grams": 5}]}
    assert posted(reading, token).status_code == 200
    for wrong in ("", "guessed", token[:-1], f"{token} x"):
        refused = posted(reading, wrong)
        assert refused.status_code == 403
        assert "docs/scale.md" in refused.json()["detail"]
    for other in ("devices/scale/tare", "devices/scale/simulated", "blends/read", "blends"):
        assert posted({}, token, other).status_code == 403


def test_the_simulated_scale_weighs_tares_overloads_and_outlives_the_server(api, book, monkeypatch):
    scale, sent = device(api, monkeypatch, fails=3, drift_g_min=0.0, capacity_g=500)
    todo = iter(
        [None] * 10
        + [{"do": "put", "grams": 41.0}]
        + [None] * 12
        + ["look 41", "tare", None, None, None, {"do": "pour", "grams": 5.0, "seconds": 2.0}]
        + [None] * 30
        + ["look 10", {"do": "put", "grams": 900.0}]
        + [None] * 12
        + ["overload", {"do": "drop out", "seconds": 2.0}]
        + [None] * 14
        + [{"do": "stop"}]
        + [None] * 5
    )

    def sleep(seconds: float) -> None:
        order = next(todo, None)
        if isinstance(order, dict):
            assert api("POST", "devices/scale/simulated/handle", order)[0] == 200
        elif order == "tare":
            assert api("POST", "devices/scale/tare")[0] == 200
        elif order == "overload":
            assert api("GET", "devices/scale")[1]["overload"]
        elif isinstance(order, str):
            found = api("GET", "devices/scale")[1]
            assert found["settled"]
            assert found["grams"] == pytest.approx(float(order.split(" ")[1]), abs=0.3)

    clock = iter(range(10_000))
    scale.run(sleep=sleep, clock=lambda: next(clock) * 0.2)
    assert next(todo, "all done") in (None, "all done")
    assert sent[0]["kind"] == "simulated"
    times = [reading["at_s"] for document in sent for reading in document["readings"]]
    assert times == sorted(times)
    assert max(b - a for a, b in pairwise(times)) > 1.5  # it was lost for a while


def test_the_simulated_scale_gives_up_when_nobody_answers_for_long(monkeypatch):
    def post(address: str, document: dict, token: str) -> dict:
        raise urllib.error.URLError("away")

    monkeypatch.setattr(simulated_scale, "_post", post)
    clock = iter(range(1000))
    Device("http://127.0.0.1:1", ScaleSettings(), patience_s=30).run(
        sleep=lambda s: None, clock=lambda: float(next(clock))
    )
    assert next(clock) < 60


def test_scales_are_heard_by_all_threads_at_once(api, book):
    from api.devices.scale import ScaleReadingDocument, ScaleReadings

    def stream(name: str) -> None:
        for at in range(200):
            hub.hear(ScaleReadings(scale=name, readings=[ScaleReadingDocument(at_s=at, grams=at)]))
            assert hub.now(name).grams is not None

    threads = [threading.Thread(target=stream, args=(f"s{n}",)) for n in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert {hub.now(f"s{n}").grams for n in range(4)} == {199.0}
