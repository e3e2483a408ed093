"""Cuts of one's own: from measures to a piece's salt, changed, retired with where they are, and names for cuts."""

import pytest
from book.models import OwnCut
from test_cook_api import as_sent, opened, saved

# by hand: a log 20 cm long, 10 cm through is 1665 g at 1.06 g/cm3, its surface 785.4 cm2; a fifth of that is fat
ROLL = {
    "name": "Lock-keeper's roll", "like": "lamb-shoulder-boneless", "shape": "cylinder", "length": "20 cm",
    "width": "10 cm", "thickness": "10 cm", "mass": "1665 g", "bone": "10 %",
    "faces": [{"name": "fat cap", "share": "20 %"}], "trims": [{"what": "flap", "share": "10", "becomes": "pot"}],
}  # fmt: skip


def made(api, **change) -> dict:
    status, own = api("POST", "shelf/own-cuts", ROLL | change)
    assert status == 201, own
    return own


def test_one_that_was_measured_goes_on_the_board_and_feeds_eaters(api, cook):
    own = made(api)
    reads = own["reads"]
    assert reads["area_cm2"] == pytest.approx(785.4, rel=1e-3)
    assert (reads["edible_g"], reads["bought_g"]) == (pytest.approx(1498.5), pytest.approx(1850))
    assert reads["measured_g"] == pytest.approx(1665, rel=1e-3)
    (shown,) = [cut for cut in api("GET", "shelf/catalogue")[1]["cuts"] if cut["key"] == own["key"]]
    assert (shown["name"], shown["face_shares"], shown["retired"]) == ("Lock-keeper's roll", [20.0], False)
    sent = as_sent(opened(api))
    sent["pieces"][0] |= {"cut": own["key"], "mass": "1665 g", "count": 1, "measures": None, "bones": [],
                          "untrimmed": ""}  # fmt: skip
    reading = saved(api, cook.id, sent)["pieces"][0]["reading"]
    assert reading["piece"]["coatable"]["value"] == pytest.approx(785.4 * 0.8, rel=1e-3)
    status, eaters = api("POST", "cooks/coat/raw-weight", {"cut": own["key"], "eaters": 6})
    assert status == 200
    assert eaters["trims"] == [{"what": "flap", "share": 10.0, "becomes": "pot"}]
    # a change is followed, and another window that has not seen it is told
    status, wider = api("PUT", f"shelf/own-cuts/{own['id']}", ROLL | {"bone": "20 %", "version": own["version"]})
    assert (status, wider["reads"]["edible_g"]) == (200, pytest.approx(1332))
    assert opened(api)["pieces"][0]["reading"]["piece"]["edible"]["value"] == pytest.approx(1332)
    assert api("PUT", f"shelf/own-cuts/{own['id']}", ROLL | {"version": own["version"]})[0] == 409


def test_one_in_use_is_retired_and_says_where_it_is_and_one_that_is_not_is_deleted_and_comes_back(api, cook):
    own, other = made(api), made(api, name="Towpath roll")
    sent = as_sent(opened(api))
    sent["pieces"][0] |= {"cut": own["key"], "measures": None, "bones": []}
    before = saved(api, cook.id, sent)["pieces"][0]["reading"]["piece"]["coatable"]
    retired = api("POST", f"shelf/own-cuts/{own['id']}/remove", {"version": own["version"]})[1]
    assert (retired["retired"], retired["used_in"]) == (True, [cook.name])
    assert opened(api)["pieces"][0]["reading"]["piece"]["coatable"] == before
    cuts = {cut["key"]: cut["retired"] for cut in api("GET", "shelf/catalogue")[1]["cuts"]}
    assert (cuts[own["key"]], cuts[other["key"]]) == (True, False)
    # none is made like one of one's own: that may be changed or go
    assert api("POST", "shelf/own-cuts", ROLL | {"name": "Third roll", "like": own["key"]})[0] == 422
    api("POST", f"shelf/own-cuts/{other['id']}/remove", {"version": other["version"]})
    assert [one["name"] for one in api("GET", "shelf/own-cuts")[1]] == ["Lock-keeper's roll"]
    assert other["key"] not in {cut["key"] for cut in api("GET", "shelf/catalogue")[1]["cuts"]}
    assert api("POST", f"shelf/own-cuts/{other['id']}/restore", {})[0] == 200
    assert len(api("GET", "shelf/own-cuts")[1]) == 2


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": ""}, "name"), ({"name": "Shoulder on the bone"}, "name"), ({"like": ""}, "like"),
        ({"like": "pixie"}, "like"), ({"length": ""}, "length"), ({"width": "wide"}, "width"),
        ({"mass": "9 kg"}, "mass"), ({"mass": "much"}, "mass"), ({"bone": "80"}, "bone"), ({"shape": "pear"}, "shape"),
        ({"faces": [{"name": "nose", "share": "10"}]}, "faces"),
        ({"faces": [{"name": "skin", "share": "big"}]}, "faces.0.share"),
        ({"trims": [{"what": "fat", "share": "", "becomes": "bin"}]}, "trims.0.share"),
        ({"trims": [{"what": "", "share": "5", "becomes": "bin"}]}, "trims"),
        ({"length": "", "width": "", "thickness": ""}, "length"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_said_at_its_field_and_nothing_is_made(api, book, change, field):
    for path in ("shelf/own-cuts", "shelf/own-cuts/read"):
        if field == "name" and path.endswith("read"):
            continue
        status, problem = api("POST", path, ROLL | change)
        assert status == 422, (path, problem)
        assert field in [error["field"] for error in problem["errors"]]
    assert not OwnCut.objects.exists()


def test_ones_own_name_of_a_cut_is_among_its_names(api, book):
    def names() -> list[str]:
        return next(c["other_names"] for c in api("GET", "shelf/catalogue")[1]["cuts"] if c["key"] == "duck-leg")

    assert api("PUT", "shelf/own-names", {"name": "Quack stick", "means": "duck-leg"})[0] == 200
    assert "quack stick" in names()
    assert api("POST", "shelf/own-cuts", ROLL | {"name": "Quack stick"})[0] == 422
    api("PUT", "shelf/own-names", {"name": "Quack stick", "means": ""})
    assert "quack stick" not in names()


def test_a_row_that_was_damaged_from_outside_closes_nothing_else(api, book):
    own, whole = made(api), made(api, name="Towpath roll")
    OwnCut.objects.filter(pk=own["id"]).update(values={"like": 3, "measures": "x"}, version=9)
    shown = {one["name"]: one["reads"] for one in api("GET", "shelf/own-cuts")[1]}
    assert shown["Lock-keeper's roll"] is None
    assert shown["Towpath roll"] is not None
    assert whole["key"] in {cut["key"] for cut in api("GET", "shelf/catalogue")[1]["cuts"]}


def test_one_that_a_deleted_cook_holds_stays_for_when_it_comes_back(api, cook):
    own = made(api)
    sent = as_sent(opened(api))
    sent["pieces"][0] |= {"cut": own["key"], "measures": None, "bones": []}
    version = saved(api, cook.id, sent)["version"]
    assert api("POST", f"cooks/{cook.id}/delete", {"version": version})[0] == 200
    gone = api("POST", f"shelf/own-cuts/{own['id']}/remove", {"version": own["version"]})[1]
    assert (gone["retired"], gone["used_in"]) == (True, [])
    assert api("POST", f"cooks/{cook.id}/restore")[0] == 200
    assert api("GET", f"cooks/{cook.id}")[1]["errors"] == []
