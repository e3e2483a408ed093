"""The API as a whole: whatever is sent, no answer is a fault; the book keeps what it acknowledged."""

import json
import os
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import threading
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from urllib.error import HTTPError

import pytest
import schemathesis
from book.models import Batch, BatchLine, Blend, Card, Cook, Revision, Step, Trial, Way, WeighBack
from django.conf import settings as django_settings
from hypothesis import HealthCheck, settings
from ravska.wsgi import application
from running import OWN_PAGE, wait_until_up

ROOT = Path(__file__).resolve().parents[2]
schema = schemathesis.openapi.from_wsgi("/api/openapi.json", application)
boards = schemathesis.openapi.from_wsgi("/api/openapi.json", application)
# whole boards, and blends on the bench, make thousands of border cases each; these are drawn at random only: the same
# document has its border cases where it is read, reworked and saved, and each has tests of its own fields
boards.config.phases.coverage.enabled = False
WHAT_IFS = "usual-method|aim|nudge|adapt|swaps|compare|share-out|spoons"
BOARD_READS = "coat/(read|side-by-side|pair|aim|binders|skin|sites|way)|heat/(read|what-if)"
BOARDS = rf"^/api/(cooks/({BOARD_READS})|blends/({WHAT_IFS}))$"


def known_keys() -> dict[str, list[str]]:
    """Return keys that are in the book, by what addresses and documents call them."""
    keys = {model: [str(key) for key in model.objects.order_by("pk").values_list("pk", flat=True)] for model in (
        Blend, Cook, Step, Trial, Card, Batch, BatchLine, Way, WeighBack, Revision)}  # fmt: skip
    return {
        "blend_id": keys[Blend], "blend": keys[Blend], "inside": keys[Blend], "id": keys[Blend],
        "against": keys[Revision], "revision": keys[Revision], "cook_id": keys[Cook], "step_id": keys[Step],
        "trial_id": keys[Trial], "card_id": keys[Card], "batch_id": keys[Batch], "line": keys[BatchLine],
        "way_id": keys[Way], "row_id": keys[WeighBack],
    }  # fmt: skip


def with_known(sent: object, keys: dict[str, list[str]], turn: int) -> object:
    """Return what is sent with keys that exist, and the version that everything of the demo begins with."""
    if isinstance(sent, list):
        return [with_known(one, keys, turn) for one in sent]
    if not isinstance(sent, dict):
        return sent
    found = {}
    for name, value in sent.items():
        if name == "version" and isinstance(value, int):
            found[name] = 1
        elif name in keys and isinstance(value, str) and len(value) == 36:
            found[name] = keys[name][turn % len(keys[name])]
        else:
            found[name] = with_known(value, keys, turn)
    return found


@pytest.fixture
def known(book) -> dict[str, list[str]]:
    """Keys of the demo book, looked up once for all that is sent to one address."""
    return known_keys()


drawn = settings(
    max_examples=6,
    derandomize=True,
    deadline=None,
    database=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow, HealthCheck.filter_too_much],
)


@schema.exclude(path_regex=BOARDS).parametrize()
@drawn
@pytest.mark.django_db
def test_whatever_is_sent_is_answered_and_never_ends_in_a_fault(case, known):
    send(case, known)


@boards.include(path_regex=BOARDS).parametrize()
@drawn
@pytest.mark.django_db
def test_whatever_board_is_sent_is_answered_and_never_ends_in_a_fault(case, known):
    send(case, known)


def send(case, keys: dict[str, list[str]]) -> None:
    turn = len(json.dumps(case.body, default=str)) if case.body is not None else 0
    if turn % 4:  # one in four goes as it was made up
        for name in case.path_parameters or {}:
            if name in keys:
                case.path_parameters[name] = keys[name][turn % len(keys[name])]
        if isinstance(case.body, dict):
            case.body = with_known(case.body, keys, turn)
    answer = case.call(headers=OWN_PAGE)
    assert answer.status_code < 500
    if answer.status_code >= 400:
        assert answer.headers["content-type"][0].startswith("application/problem+json")


def test_types_of_the_front_end_are_those_of_the_api():
    from api.main import api

    stored = json.loads((ROOT / "web/src/api/openapi.json").read_text())
    assert stored == json.loads(json.dumps(api.get_openapi_schema())), "run make types"


def test_another_sites_page_cannot_write(client, book):
    body = json.dumps({"units": "us", "temperature": "F", "spoon_set": "us", "theme": "iron", "single_keys": True})
    foreign = client.put(
        "/api/book/preferences", body, "application/json", headers={"Origin": "https://elsewhere.example"}
    )
    assert foreign.status_code == 403
    for origin in ("null", "://", "http://[", "http://127.0.0.1:port"):
        odd = client.put("/api/book/preferences", body, "application/json", headers={"Origin": origin})
        assert (odd.status_code, odd.headers["Content-Type"]) == (403, "application/problem+json")
    refused = (
        {},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site", "Origin": "http://testserver"},
        {"Sec-Fetch-Site": "none"},
        {"Origin": "https://testserver"},
        {"Sec-Fetch-Site": "same-origin", "Origin": "https://elsewhere.example"},
        {"Authorization": f"Bearer {django_settings.DEVICE_TOKEN}"},
    )
    for headers in refused:
        for method, path in (("PUT", "book/preferences"), ("POST", "devices/scale/tare"), ("DELETE", "blends")):
            answer = client.generic(method, f"/api/{path}", body, "application/json", headers=headers)
            assert (answer.status_code, answer.json()["status"]) == (403, 403), headers
    for headers in ({"Origin": "http://testserver"}, OWN_PAGE, OWN_PAGE | {"Origin": "http://testserver"}):
        own = client.put("/api/book/preferences", body, "application/json", headers=headers)
        assert own.status_code == 200
    assert client.get("/api/book/preferences").json()["units"] == "us"


def call(url: str, method: str = "GET", body: object = None) -> dict:
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(url, data, {"Content-Type": "application/json"} | OWN_PAGE, method=method)
    with urllib.request.urlopen(request, timeout=20) as answer:
        return json.load(answer)


@pytest.fixture
def served(tmp_path, demo_data, free_port):
    """The address of a real server with the demo book, and its process."""
    shutil.copytree(demo_data, tmp_path, dirs_exist_ok=True)
    here = os.environ | {"RAVSKA_DATA": str(tmp_path), "RAVSKA_LISTEN": f"127.0.0.1:{free_port}"}
    manage = [sys.executable, str(ROOT / "server/manage.py")]
    server = subprocess.Popen([*manage, "serve"], env=here, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    api = f"http://127.0.0.1:{free_port}/api"
    try:
        wait_until_up(server, api.removesuffix("/api"))
        yield api, server
    finally:
        server.kill()
        server.wait()


def test_connections_that_say_nothing_shut_nobody_out_and_it_ends_cleanly(served):
    api, server = served
    port = int(api.rsplit(":", 1)[1].split("/")[0])
    idle = [socket.create_connection(("127.0.0.1", port)) for _ in range(110)]
    try:
        # one that stops in the middle of a request waits by itself
        idle[0].sendall(b"POST /api/blends/read HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 999\r\n\r\n{")
        assert call(f"{api}/ping") == {"ok": True}
        row = call(f"{api}/blends")[0]
        blend = call(f"{api}/blends/{row['id']}")
        blend["lines"][0]["parts"] = "7"
        call(f"{api}/blends/{row['id']}", "PUT", blend)
        server.send_signal(signal.SIGTERM)
        assert server.wait(60) == 0
    finally:
        for connection in idle:
            connection.close()


def test_a_kill_at_any_moment_loses_nothing_acknowledged(served, tmp_path):
    api, server = served
    row = call(f"{api}/blends")[0]
    blend = call(f"{api}/blends/{row['id']}")
    for parts in ("1", "2", "3½"):
        blend["lines"][0]["parts"] = parts
        blend = call(f"{api}/blends/{row['id']}", "PUT", blend)
    server.send_signal(signal.SIGKILL)
    server.wait()
    book = sqlite3.connect(tmp_path / "ravska.sqlite3")
    assert book.execute("PRAGMA journal_mode").fetchone() == ("wal",)
    assert book.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    typed = (
        "SELECT parts_typed FROM book_line JOIN book_revision r ON r.id = revision_id"
        " WHERE position = 0 AND kept_at IS NULL AND blend_id = ?"
    )
    assert book.execute(typed, (row["id"].replace("-", ""),)).fetchall() == [("3½",)]


def test_of_writes_at_the_same_moment_one_is_saved_and_the_others_are_told(served):
    api, _ = served
    row = call(f"{api}/blends")[0]
    blend = call(f"{api}/blends/{row['id']}")

    def write(n: int) -> int:
        try:
            call(f"{api}/blends/{row['id']}", "PUT", blend | {"name": f"Writer {n}"})
        except HTTPError as problem:
            return problem.code
        return 200

    with ThreadPoolExecutor(6) as writers:
        codes = sorted(writers.map(write, range(6)))
    assert codes == [200, 409, 409, 409, 409, 409]
    after = call(f"{api}/blends/{row['id']}")
    assert after["version"] == blend["version"] + 1
    assert after["name"].startswith("Writer")
    assert len(after["lines"]) == len(blend["lines"])


def test_a_document_that_is_read_while_it_is_saved_is_of_one_version(served):
    api, _ = served
    row = next(row for row in call(f"{api}/blends") if row["name"] == "Weir House lamb rub")
    blend = call(f"{api}/blends/{row['id']}")
    done = threading.Event()

    def write() -> None:
        mine = blend
        for n in range(1, 61):
            lines = [line | {"parts": str(n), "exact": ""} for line in mine["lines"]]
            mine = call(f"{api}/blends/{row['id']}", "PUT", mine | {"name": f"Rub {n}", "lines": lines})
        done.set()

    seen = set()
    with ThreadPoolExecutor(3) as windows:
        writing = windows.submit(write)

        def read() -> None:
            while not done.is_set() and not writing.done():
                found = call(f"{api}/blends/{row['id']}")
                if found["version"] > blend["version"]:
                    parts = {line["parts"] for line in found["lines"]}
                    assert parts == {found["name"].removeprefix("Rub ")}
                    seen.add(found["version"])

        readers = [windows.submit(read) for _ in range(2)]
        for one in (writing, *readers):
            one.result()
    assert len(seen) > 3


def test_two_blends_put_into_each_other_at_once_make_no_circle(served):
    api, _ = served
    line = {"grind": "cumin/ground", "parts": "1"}
    new = {"kind": "dry rub", "batch": "9 g", "lines": [line]}
    a, b = (call(f"{api}/blends", "POST", new | {"name": name}) for name in "AB")

    def put(pair: tuple[dict, dict]) -> int:
        mine, other = pair
        lines = [*mine["lines"], {"blend": other["id"], "parts": "1"}]
        try:
            call(f"{api}/blends/{mine['id']}", "PUT", mine | {"lines": lines})
        except HTTPError as problem:
            return problem.code
        return 200

    with ThreadPoolExecutor(2) as writers:
        assert sorted(writers.map(put, [(a, b), (b, a)])) == [200, 422]


def test_cards_handed_in_from_several_phones_at_once_are_all_kept(served):
    api, _ = served
    trial = call(f"{api}/cooks/in-hand")["cook"]["trial"]["id"]
    table = call(f"{api}/trials/{trial}")
    scores = [{"code": code, "scale": "overall", "value": 7} for code in table["codes"]]

    def hand_in(taster: str) -> None:
        card = {"taster": taster, "served": table["next_order"], "scores": scores, "prefers": table["codes"][0]}
        call(f"{api}/trials/{trial}/cards", "POST", card)

    with ThreadPoolExecutor(24) as phones:
        list(phones.map(hand_in, [f"Boat {n}" for n in range(24)]))
    cards = call(f"{api}/trials/{trial}")["cards"]
    assert sorted(card["taster"] for card in cards) == sorted(f"Boat {n}" for n in range(24))
    assert call(f"{api}/trials/{trial}/verdict")["sides"][0]["votes"] == 12  # those it stated
