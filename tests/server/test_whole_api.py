"""The API as a whole: whatever is sent, no answer is a fault; the book keeps what it acknowledged."""

import json
import os
import signal
import sqlite3
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest
import schemathesis
from hypothesis import HealthCheck, settings
from ravska.wsgi import application

ROOT = Path(__file__).resolve().parents[2]
schema = schemathesis.openapi.from_wsgi("/api/openapi.json", application)


@schema.parametrize()
@settings(
    max_examples=12,
    derandomize=True,
    deadline=None,
    database=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow, HealthCheck.filter_too_much],
)
@pytest.mark.django_db
def test_whatever_is_sent_is_answered_and_never_ends_in_a_fault(case, book):
    answer = case.call()
    assert answer.status_code < 500
    if answer.status_code >= 400:
        assert answer.headers["content-type"][0].startswith("application/problem+json")


def test_types_of_the_front_end_are_those_of_the_api():
    from api.main import api

    stored = json.loads((ROOT / "web/src/api/openapi.json").read_text())
    assert stored == json.loads(json.dumps(api.get_openapi_schema())), "run make types"


def test_another_sites_page_cannot_write(client, book):
    body = json.dumps({"units": "us", "temperature": "F", "spoon_set": "us", "theme": "iron", "single_keys": True})
    foreign = client.put("/api/preferences", body, "application/json", headers={"Origin": "https://elsewhere.example"})
    assert foreign.status_code == 403
    own = client.put("/api/preferences", body, "application/json", headers={"Origin": "http://testserver"})
    assert own.status_code == 200
    assert client.get("/api/preferences").json()["units"] == "us"


def call(url: str, method: str = "GET", body: object = None) -> dict:
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(url, data, {"Content-Type": "application/json"}, method=method)
    with urllib.request.urlopen(request, timeout=10) as answer:
        return json.load(answer)


def test_a_kill_at_any_moment_loses_nothing_acknowledged(tmp_path, free_port):
    here = os.environ | {"RAVSKA_DATA": str(tmp_path), "RAVSKA_LISTEN": f"127.0.0.1:{free_port}"}
    manage = [sys.executable, str(ROOT / "server/manage.py")]
    for command in ("migrate", "load_demo"):
        subprocess.run([*manage, command], env=here, check=True, capture_output=True)
    api = f"http://127.0.0.1:{free_port}/api"

    server = subprocess.Popen([*manage, "serve"], env=here, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    try:
        for _ in range(200):
            try:
                call(f"{api}/ping")
                break
            except OSError:
                time.sleep(0.1)
        row = call(f"{api}/blends")[0]
        blend = call(f"{api}/blends/{row['id']}")
        for parts in ("1", "2", "3½"):
            blend["lines"][0]["parts"] = parts
            blend = call(f"{api}/blends/{row['id']}", "PUT", blend)
    finally:
        server.send_signal(signal.SIGKILL)
        server.wait()
    book = sqlite3.connect(tmp_path / "ravska.sqlite3")
    assert book.execute("PRAGMA journal_mode").fetchone() == ("wal",)
    assert book.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    typed = (
        "SELECT parts_typed FROM book_line JOIN book_revision r ON r.id = revision_id"
        " WHERE position = 0 AND blend_id = ?"
    )
    assert book.execute(typed, (row["id"].replace("-", ""),)).fetchall() == [("3½",)]
