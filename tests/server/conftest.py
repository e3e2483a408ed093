import json
from concurrent.futures import Future
from datetime import UTC, datetime

import pytest
from api.devices import scale
from api.fire import simulated, state
from api.fire.forecaster import forecaster
from book.demo import load_demo
from book.models import Blend, Cook, Device, Event, Household, Photo, ProbeUse, Reading
from django.apps import apps
from django.test import Client
from running import OWN_PAGE
from server.contract import hold_to_contract


class Api:
    """Speaks JSON to the API and returns the status with the document."""

    def __init__(self) -> None:
        self.client = Client(raise_request_exception=False, headers=OWN_PAGE)

    def __call__(self, method: str, path: str, body: object = None) -> tuple[int, dict]:
        data = body if isinstance(body, str) else json.dumps(body)
        answer = self.client.generic(method, f"/api/{path}", data, content_type="application/json")
        if answer.status_code >= 400:
            assert answer["Content-Type"] == "application/problem+json"
            problem = answer.json()
            assert problem["status"] == answer.status_code
            assert problem["detail"].endswith((".", "?"))
        hold_to_contract(method, f"/api/{path}", answer.status_code, answer["Content-Type"], answer.json())
        return answer.status_code, answer.json()


@pytest.fixture
def api() -> Api:
    return Api()


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup, django_db_blocker):
    """Load the demo household once, on a fixed Tuesday; every test is rolled back to it."""
    with django_db_blocker.unblock():
        assert load_demo(datetime(2027, 5, 4, 9, 0, tzinfo=UTC))


@pytest.fixture(autouse=True)
def started(monkeypatch) -> list[object]:
    """The simulated scales that were started; a test that needs one that speaks starts it itself."""
    devices: list[object] = []

    class Started:
        def __init__(self, target, **how: object) -> None:
            self.device = target.__self__

        def start(self) -> None:
            devices.append(self.device)

        def is_alive(self) -> bool:
            return False

    monkeypatch.setattr("api.devices.scale.Thread", Started)
    yield devices
    scale.hub.forget()
    scale._running.clear()


class _AtOnce:
    """A process that forecasts at once."""

    def submit(self, what, *given: object) -> Future:
        answer: Future = Future()
        answer.set_result(what(*given))
        return answer

    def shutdown(self, **_: object) -> None:
        pass


@pytest.fixture(autouse=True)
def begun(monkeypatch) -> list[tuple]:
    """What the simulated thermometers that were begun were given; none of them runs, and forecasts come at once."""
    given: list[tuple] = []

    class Process:
        def __init__(self, target, name: str, daemon: bool, args: tuple) -> None:
            assert daemon
            self.args, self.alive = args, False

        def start(self) -> None:
            self.alive = True
            given.append(self.args)

        def is_alive(self) -> bool:
            return self.alive

        def terminate(self) -> None:
            self.alive = False

    class Context:
        pass

    Context.Process = Process
    state.forget()
    forecaster.forget()
    monkeypatch.setattr(simulated, "get_context", lambda _: Context)
    # what a test writes is never committed
    monkeypatch.setattr(simulated, "on_commit", lambda then: then())
    monkeypatch.setattr(forecaster, "_process", _AtOnce)
    yield given
    simulated._running.clear()
    forecaster.forget()
    state.forget()


@pytest.fixture
def empty_book(db):
    for model in apps.get_app_config("book").get_models():
        model.objects.all()._raw_delete("default")


@pytest.fixture
def unburnt(db):
    """The demo household's book before any fire."""
    for model in (Reading, ProbeUse, Device, Photo, Event):
        model.objects.all()._raw_delete("default")


@pytest.fixture
def book(db):
    """The demo household."""
    assert Household.objects.get().name == "Weir House"


@pytest.fixture
def rub(book) -> Blend:
    return Blend.objects.get(name="Weir House lamb rub")


@pytest.fixture
def cook(book) -> Cook:
    return Cook.objects.get(in_hand=True)
