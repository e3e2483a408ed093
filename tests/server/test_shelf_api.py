"""The catalogue and the preferences over the API, and what every answer carries."""

import json
from pathlib import Path

import pytest
from running import OWN_PAGE

ROOT = Path(__file__).resolve().parents[2]


def test_the_catalogue_names_where_each_density_is_from(api, book):
    status, found = api("GET", "shelf/catalogue")
    assert status == 200
    assert len(found["grinds"]) > 90
    assert len(found["cuts"]) >= 20
    assert {grind["mark"] for grind in found["grinds"]} <= {"published", "from memory", "no source"}
    pepper = next(grind for grind in found["grinds"] if grind["key"] == "black-pepper/ground")
    assert pepper["density_g_ml"] == pytest.approx(2.3 / 4.92892, rel=1e-5)
    assert found["zones"][-1] == {"name": "too salty", "below_percent": None}
    assert {s["name"]: s["holds_g_100cm2"] for s in found["surfaces"]}["mustard"] == 12


def test_preferences_are_kept_and_change_no_stored_value(api, cook):
    before = api("GET", "cooks/in-hand")[1]["cook"]
    wanted = {"units": "us", "temperature": "F", "spoon_set": "australian", "theme": "iron", "single_keys": False}
    wanted["spoons_lacking"] = ["⅛ tsp", "pinch"]
    wanted["height"] = "2,100 ft"
    wanted |= {"zone": "Europe/Dublin", "sleeps": "22:30:00", "rises": "06:15:00"}
    assert api("PUT", "book/preferences", wanted)[0] == 200
    assert api("GET", "book/preferences")[1] == wanted
    after = api("GET", "cooks/in-hand")[1]["cook"]
    assert after["version"] == before["version"]
    first, second = (doc["pieces"][0]["reading"]["layers"][1] for doc in (before, after))
    assert second["dose"] == first["dose"]
    # only the spoons are others: a tablespoon of 20 ml
    assert second["spoons"]["text"] != first["spoons"]["text"]
    assert "⅛" not in second["spoons"]["text"]
    spoons = next(s["spoons"] for s in api("GET", "shelf/catalogue")[1]["spoon_sets"] if s["key"] == "australian")
    assert api("PUT", "book/preferences", wanted | {"spoons_lacking": spoons})[0] == 422
    status, told = api("PUT", "book/preferences", wanted | {"rises": "06:15:00+01:00"})
    assert (status, told["errors"][0]["field"]) == (422, "rises")


@pytest.mark.parametrize("change", [{"units": "stone"}, {"theme": None}, {"single_keys": "perhaps"}, {"spoon_set": 5}])
def test_a_preference_that_is_none_is_refused_at_its_field(api, book, change):
    wanted = {"units": "us", "temperature": "F", "spoon_set": "us", "theme": "iron", "single_keys": True} | change
    status, problem = api("PUT", "book/preferences", wanted)
    assert status == 422
    assert [error["field"] for error in problem["errors"]] == list(change)


def test_an_empty_book_answers_everywhere(api, empty_book):
    assert api("GET", "cooks/in-hand")[1]["cook"] is None
    assert api("GET", "blends") == (200, [])
    assert api("GET", "cooks") == (200, [])
    assert api("GET", "book/preferences")[1]["theme"] == "enamel"


@pytest.mark.parametrize(
    ("method", "path", "status"),
    [
        ("GET", "nothing", 404),
        ("DELETE", "blends", 405),
        ("GET", "blends/not-a-key", 404),
        ("POST", "book/preferences", 405),
    ],
)
def test_wrong_addresses_are_problems_too(api, book, method, path, status):
    assert api(method, path)[0] == status


def test_answers_carry_their_policy_and_strange_hosts_get_none(client, book):
    icon = f"/{next((ROOT / 'web/public').glob('*.svg')).name}"
    asked = ("/", "/coat", icon, "/api/ping", "/api/nothing", "/.vite/manifest.json", "/built.json")
    answers = {path: client.get(path) for path in asked}
    foreign = {"Origin": "https://elsewhere.example"}
    answers["foreign"] = client.post("/api/blends/read", "{}", "application/json", headers=foreign)
    answers["strange"] = client.get("/api/ping", headers={"Host": "elsewhere.example"})
    for answer in answers.values():
        for part in ("default-src 'self'", "script-src 'self'", "object-src 'none'", "base-uri 'none'",
                     "form-action 'self'", "frame-ancestors 'none'", "connect-src 'self'"):  # fmt: skip
            assert part in answer["Content-Security-Policy"]
        assert answer["X-Content-Type-Options"] == "nosniff"
        assert answer["Referrer-Policy"] == "same-origin"
        assert "Access-Control-Allow-Origin" not in answer
    # what is no file of the page is the page
    for hidden in ("/.vite/manifest.json", "/built.json"):
        found = answers[hidden]
        assert b"isEntry" not in (b"".join(found.streaming_content) if found.streaming else found.content)


def test_a_name_that_was_not_allowed_is_told_how_to_allow_it(client, book):
    for host in ("192.168.1.7:8000", "elsewhere.example", '<script>alert("x")</script>', "x" * 300):
        api, page, icon = (client.get(path, headers={"Host": host}) for path in ("/api/blends", "/coat", "/mark.svg"))
        assert [answer.status_code for answer in (api, page, icon)] == [400, 400, 400]
        assert api["Content-Type"] == "application/problem+json"
        assert "RAVSKA_HOSTS" in api.json()["detail"]
        shown = page.content.decode()
        assert "RAVSKA_HOSTS=127.0.0.1,localhost," in shown
        assert "<script" not in shown
    shown = client.get("/", headers={"Host": "192.168.1.7:8000"}).content.decode()
    assert "RAVSKA_HOSTS=127.0.0.1,localhost,192.168.1.7 " in shown


def test_a_document_too_large_is_refused_and_not_stored(client, rub):
    body = json.dumps({"name": "x" * 2_000_000, "kind": "dry rub", "batch": "1 g", "lines": []})
    answer = client.post("/api/blends", body, content_type="application/json", headers=OWN_PAGE)
    assert answer.status_code in (400, 413, 422)
    assert answer["Content-Type"] == "application/problem+json"


def test_the_page_is_served_for_every_station_and_never_kept_stale(client, settings, tmp_path, monkeypatch):
    (tmp_path / "index.html").write_text("<title>Ravska</title>")
    monkeypatch.setattr("ravska.urls.WEB_BUILD", tmp_path)
    for path in ("/", "/blend", "/coat/some-cook", "/verdict"):
        answer = client.get(path)
        assert answer.content == b"<title>Ravska</title>"
        assert "no-cache" in answer["Cache-Control"]
    monkeypatch.setattr("ravska.urls.WEB_BUILD", tmp_path / "missing")
    assert client.get("/").status_code == 404
