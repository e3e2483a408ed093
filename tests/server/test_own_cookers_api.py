"""Cookers of the household's own and the height it cooks at: made, corrected, on a phase, and reckoned with."""

import pytest
from book.models import OwnCooker, Piece
from test_cook_api import as_sent, opened, saved
from test_heat_api import OPEN, read, sent

KETTLE = {"name": "The dented kettle", "kind": "kettle", "grate": "57 cm", "spots": "108, 115 and 131 °C"}


@pytest.fixture
def piece(api, book) -> dict:
    return opened(api)["pieces"][0]


def made(api, **more: object) -> dict:
    status, own = api("POST", "shelf/own-cookers", KETTLE | more)
    assert status == 201, own
    return own


def test_an_own_cooker_is_its_kind_but_for_what_is_said_of_it(api, book):
    own = made(api, range="95 to 260 °C", ready="25 min", damp="damp")
    reads = own["reads"]
    assert reads["grate_cm2"] == pytest.approx(2551.8, abs=0.1)
    assert (reads["low_c"], reads["high_c"], reads["ready_s"]) == (95, 260, 1500)
    # by hand: the mean of 108, 115 and 131 is 118; the hottest is 13 above it, the spread 9.63
    assert reads["near_k"] == pytest.approx(13)
    assert reads["uneven_k"] == pytest.approx(9.626, abs=1e-3)
    usual = next(one for one in api("GET", "shelf/cooker-kinds")[1] if one["kind"] == "kettle")["usual"]
    assert reads["dew_c"] == usual["dew_c"] + 10
    assert reads["fuel"] == usual["fuel"]


@pytest.mark.parametrize(
    ("change", "field", "says"),
    [
        ({"name": " "}, "name", "Give it a name"),
        ({"kind": "volcano"}, "kind", "choose the nearest"),
        ({"grate": "57"}, "grate", "Add the unit"),
        ({"range": "100 °C"}, "range", "from a lower to a higher"),
        ({"hotter": "25"}, "hotter", "25 °C or 45 °F"),
        ({"hotter": "200 °C"}, "hotter", "at most 150 °C"),
        ({"spots": "110 °C"}, "spots", "two to 12"),
        ({"ready": "soon"}, "ready", "no time I can read"),
        ({"fuel": "400"}, "fuel", "between nothing and 100"),
    ],
)
def test_what_an_own_cooker_cannot_be_is_said_at_its_field(api, book, change, field, says):
    status, problem = api("POST", "shelf/own-cookers", KETTLE | change)
    assert status == 422
    assert problem["errors"][0]["field"] == field
    assert says in problem["errors"][0]["sentence"]
    assert not OwnCooker.objects.filter(name=KETTLE["name"]).exists()


def test_two_of_one_name_are_not_kept(api, book):
    made(api)
    assert api("POST", "shelf/own-cookers", KETTLE | {"name": "the Dented Kettle"})[0] == 422


def test_a_phase_on_an_own_cooker_follows_it_when_it_is_corrected(api, piece):
    own = made(api)
    on = OPEN | {"cooker": own["key"], "near": True}
    before = read(api, sent(piece, on))["done_s"]
    assert own["key"] in [
        one["key"] for one in api("GET", "cooks/heat/cut?cut=lamb-shoulder")[1]["cookers"] if one["own"]
    ]
    body = KETTLE | {"spots": "", "hotter": "60 °C", "version": own["version"]}
    status, changed = api("PUT", f"shelf/own-cookers/{own['id']}", body)
    assert status == 200, changed
    assert read(api, sent(piece, on))["done_s"] < 0.9 * before
    assert api("PUT", f"shelf/own-cookers/{own['id']}", body)[0] == 409


def test_a_heat_beyond_what_it_does_is_said(api, piece):
    own = made(api, range="95 to 105 °C")
    said = read(api, sent(piece, OPEN | {"cooker": own["key"]}))["says"]
    assert any("The dented kettle usually goes from 95 °C to 105 °C" in one for one in said)


def test_one_that_is_in_use_is_retired_and_reads_on_and_can_come_back(api, book):
    own = made(api)
    cook = opened(api)
    typed = as_sent(cook)
    typed["pieces"][0]["phases"] = [OPEN | {"cooker": own["key"]}]
    saved(api, cook["id"], typed)
    left = api("POST", f"shelf/own-cookers/{own['id']}/remove", {"version": own["version"]})[1]
    assert left["retired"]
    assert left["used_in"] == [cook["name"]]
    offered = [one["key"] for one in api("GET", "cooks/heat/cut?cut=lamb-shoulder")[1]["cookers"]]
    assert own["key"] not in offered
    assert opened(api)["pieces"][0]["reading"] is not None
    assert not api("POST", f"shelf/own-cookers/{own['id']}/restore", {})[1]["retired"]
    Piece.objects.update(phases=[])
    back = api("GET", "shelf/own-cookers")[1]
    gone = next(one for one in back if one["id"] == own["id"])
    api("POST", f"shelf/own-cookers/{own['id']}/remove", {"version": gone["version"]})
    assert own["id"] not in [one["id"] for one in api("GET", "shelf/own-cookers")[1]]


def test_a_phase_on_a_cooker_that_is_none_says_so(api, piece):
    (error,) = read(api, sent(piece, OPEN | {"cooker": "own-0123456789abcdef"}), 422)["errors"]
    assert (error["field"], error["sentence"]) == (
        "piece.phases.0.cooker", "This cooker is not in the book any more; choose another.",
    )  # fmt: skip


def test_up_a_mountain_the_same_braise_takes_longer(api, piece):
    braise = {"surround": "covered liquid", "aimed": "99 °C", "feel": "like butter"}
    sea = read(api, sent(piece, braise))["done_s"]
    status, kept = api("GET", "book/preferences")
    assert api("PUT", "book/preferences", kept | {"height": "6,600 ft"})[0] == 200
    high = read(api, sent(piece, braise))["done_s"]
    assert high > 1.1 * sea
    assert api("GET", "book/preferences")[1]["height"] == "6,600 ft"
    status, problem = api("PUT", "book/preferences", kept | {"height": "up there"})
    assert (status, problem["errors"][0]["field"]) == (422, "height")
    assert api("PUT", "book/preferences", kept | {"height": ""})[0] == 200
    assert read(api, sent(piece, braise))["done_s"] == pytest.approx(sea)
