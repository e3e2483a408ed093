"""Heat over the API: phases typed and kept, what they do to a piece, and what cannot be read of them."""

import pytest
from book.models import Household, Piece
from test_cook_api import as_sent, opened, saved

OPEN = {"surround": "indirect", "aimed": "225 °F", "centre": "92 °C", "wood": "alder"}


@pytest.fixture
def piece(api, book) -> dict:
    return opened(api)["pieces"][0]


def sent(piece: dict, *phases: dict, **more: object) -> dict:
    return piece["typed"] | {"phases": list(phases)} | more


def read(api, piece: dict, status: int = 200) -> dict:
    found, answer = api("POST", "cooks/heat/read", {"piece": piece})
    assert found == status, answer
    return answer


def test_a_piece_without_phases_is_asked_for_them(api, piece):
    (error,) = read(api, sent(piece), 422)["errors"]
    assert error["field"] == "piece.phases"
    assert "add a phase" in error["sentence"]


def test_phases_say_when_it_is_done_with_twenty_chances(api, piece):
    found = read(api, sent(piece, OPEN))
    assert len(found["done"]) == 20
    assert found["done"] == sorted(found["done"])
    assert found["done"][0] < found["done_s"] < found["done"][-1]
    assert found["phases"][0]["says"].startswith("indirect, beside the fire at 107 °C, to 92 °C")
    assert found["loss"]["value"] == pytest.approx(100 * (1 - found["cook_yield"]))
    assert found["carry"]["steps"]


def test_a_span_aims_at_its_middle_and_its_band_widens_the_doubt(api, piece):
    narrow = read(api, sent(piece, OPEN | {"aimed": "107 °C"}))
    wide = read(api, sent(piece, OPEN | {"aimed": "107 °C", "band": "85 to 129 °C"}))
    # the ends of a band so wide are never done by a pit that cold
    assert wide["done"][15] - wide["done"][4] > 1.1 * (narrow["done"][15] - narrow["done"][4])
    middle = read(api, sent(piece, OPEN | {"aimed": "200 to 250 °F"}))
    assert middle["phases"][0]["says"].startswith("indirect, beside the fire at 107 °C")


@pytest.mark.parametrize(
    ("phase", "field", "says"),
    [
        ({"aimed": "225"}, "aimed", "225 °F or 225 °C"),
        ({"aimed": ""}, "aimed", "Say how hot"),
        ({"aimed": "900 °C"}, "aimed", "between −5 and 500"),
        ({"aimed": "420 °C"}, "aimed", "110 °C is usual"),
        ({"aimed": "hot"}, "aimed", "is not a temperature"),
        ({"aimed": "80 °C"}, "centre", "never reaches 92 °C"),
        ({"centre": ""}, "lasts", "Say when it ends"),
        ({"lasts": "a while"}, "lasts", "no time I can read"),
        ({"lasts": "5 days"}, "lasts", "1 s to 72 h"),
        ({"cooker": "volcano"}, "cooker", "choose another"),
        ({"cooker": "water bath"}, "cooker", "does not do that"),
        ({"vessel": "bag"}, "vessel", "it lies in one of these"),
        ({"band": "150 to 170 °C"}, "band", "inside the band"),
        ({"sears": "60 s, much"}, "sears", "no time I can read"),
    ],
)
def test_what_a_phase_cannot_be_is_said_at_its_field(api, piece, phase, field, says):
    errors = read(api, sent(piece, OPEN, OPEN | phase), 422)["errors"]
    assert [error["field"] for error in errors] == [f"piece.phases.1.{field}"]
    assert says in errors[0]["sentence"]


def test_two_wrong_phases_are_said_at_once(api, piece):
    errors = read(api, sent(piece, OPEN | {"aimed": "x"}, OPEN | {"lasts": "y"}), 422)["errors"]
    assert {error["field"] for error in errors} == {"piece.phases.0.aimed", "piece.phases.1.lasts"}


def test_phases_are_kept_as_typed_beside_what_they_were_read_as(api, book):
    cook = opened(api)
    typed = as_sent(cook)
    sear = {"surround": "hot iron", "vessel": "pan", "aimed": "280 °C", "sears": "60 s, 45 s"}
    typed["pieces"][0]["phases"] = [OPEN, sear]
    kept = saved(api, cook["id"], typed)["pieces"][0]["typed"]["phases"]
    assert [(one["surround"], one["aimed"], one["sears"]) for one in kept] == [
        ("indirect", "225 °F", ""), ("hot iron", "280 °C", "60 s, 45 s"),
    ]  # fmt: skip
    row = Piece.objects.get(cook=cook["id"], letter=typed["pieces"][0]["letter"])
    assert [one["format"] for one in row.phases] == [1, 1]
    assert row.phases[0]["value"]["aimed_c"] == pytest.approx(107.2, abs=0.05)
    assert row.phases[1]["value"]["sears_s"] == [60, 45]
    # sent once more as it is read, nothing of it changes
    again = as_sent(opened(api))
    assert saved(api, cook["id"], again)["pieces"][0]["typed"]["phases"] == kept


def test_a_phase_that_cannot_be_read_is_kept_as_typed_and_the_rest_goes_on(api, book):
    cook = opened(api)
    typed = as_sent(cook)
    typed["pieces"][0]["phases"] = [OPEN]
    saved(api, cook["id"], typed)
    typed = as_sent(opened(api))
    typed["pieces"][0]["phases"][0]["aimed"] = "quite hot"
    status, answer = api("PUT", f"cooks/{cook['id']}", typed)
    assert status == 200
    assert [error["field"] for error in answer["errors"]] == ["pieces.0.phases.0.aimed"]
    assert api("GET", f"cooks/{cook['id']}")[1]["pieces"][0]["phases"][0]["aimed"] == "quite hot"
    assert opened(api)["pieces"][0]["reading"] is not None
    row = Piece.objects.get(cook=cook["id"], letter=typed["pieces"][0]["letter"])
    assert row.phases[0]["typed"]["aimed"] == "225 °F"


def test_a_copied_cook_has_the_phases_too(api, book):
    cook = opened(api)
    typed = as_sent(cook)
    typed["pieces"][0]["phases"] = [OPEN]
    saved(api, cook["id"], typed)
    status, copy = api("POST", f"cooks/{cook['id']}/copy", {"serve_at": "2027-07-12T18:30:00+02:00"})
    assert status == 201, copy
    assert opened(api)["pieces"][0]["typed"]["phases"][0]["aimed"] == "225 °F"


def test_a_cut_has_runs_to_begin_from_in_the_households_scale(api, piece):
    status, found = api("GET", "cooks/heat/cut?cut=pork-shoulder")
    assert status == 200
    assert [start["key"] for start in found["starts"]] == ["open", "wrapped-late", "wrapped-smoked", "braise"]
    assert found["starts"][0]["phases"][0]["aimed"] == "110 °C"
    assert {(word["word"], word["school"]) for word in found["words"]} >= {("pulled", "slow cooks")}
    assert found["minimum_c"] == 63
    preferences = Household.objects.get().preferences
    preferences.temperature = "F"
    preferences.save()
    assert api("GET", "cooks/heat/cut?cut=pork-shoulder")[1]["starts"][0]["phases"][0]["aimed"] == "230 °F"
    # every one of them can be read again, as it would be typed
    for cut in ("pork-shoulder", "salmon-side"):
        for start in api("GET", f"cooks/heat/cut?cut={cut}")[1]["starts"]:
            read(api, sent(piece, *start["phases"], cut=cut, mass="1 kg", layers=[], faces={}, bones=[]))


def test_one_more_phase_is_asked_for_with_its_place(api, book):
    wanted = {"surround": "hot iron", "surrounds": ["indirect", "rest"]}
    status, found = api("POST", "cooks/heat/phase", wanted)
    assert (status, found["place"]) == (200, 1)
    assert (found["phase"]["aimed"], found["phase"]["lasts"], found["phase"]["vessel"]) == ("250 °C", "2 min", "pan")


def test_what_if_is_asked_beside_it(api, piece):
    status, found = api("POST", "cooks/heat/what-if", {"piece": sent(piece, OPEN)})
    assert status == 200
    assert [one["says"] for one in found] == ["10 °C hotter (18 °F)", "Half as thick", "Wrapped"]
    assert all(one["sooner_s"] > 0 for one in found)
    status, found = api("POST", "cooks/heat/what-if", {"piece": sent(piece)})
    assert (status, found["errors"][0]["field"]) == (422, "piece.phases")


def test_a_cut_that_is_none_is_said(api, book):
    status, found = api("GET", "cooks/heat/cut?cut=unicorn-rump")
    assert status == 422
    assert "not in the catalogue" in found["detail"] or "not in the catalogue" in found["errors"][0]["sentence"]


def test_what_is_threaded_between_the_meat_is_kept_and_said(api, book):
    cook = opened(api)
    flame = {"surround": "direct flame", "vessel": "skewer", "aimed": "230 °C", "lasts": "12 min", "turned": "1 min"}
    typed = as_sent(cook)
    typed["pieces"][0]["phases"] = [flame | {"threaded": ["onion", "tomato"]}]
    kept = saved(api, cook["id"], typed)["pieces"][0]
    assert kept["typed"]["phases"][0]["threaded"] == ["onion", "tomato"]
    says = read(api, kept["typed"])["says"]
    assert [one.partition(":")[0] for one in says if "by themselves" in one] == ["Small tomatoes"]
    known = api("GET", f"cooks/heat/cut?cut={kept['typed']['cut']}")[1]["threads"]
    assert known["onion"] == "wedges of onion"
    # a phase of before skewers had something between their meat says nothing of it
    row = Piece.objects.get(cook_id=cook["id"], letter=kept["typed"]["letter"])
    for of in row.phases[0].values():
        if isinstance(of, dict):
            of.pop("threaded", None)
    row.save()
    assert opened(api)["pieces"][0]["typed"]["phases"][0]["threaded"] == []


def test_the_core_sample_goes_on_over_the_fire_until_it_is_carved(api, piece):
    fired = sent(piece, OPEN)

    def sample(at_s: float | None) -> dict:
        found, answer = api("POST", "cooks/coat/read", {"pieces": [fired], "at_s": at_s})
        assert found == 200, answer
        return answer[0]["sample"]

    carved = sample(None)
    held, fire_s = carved["whole_s"], carved["fire_s"]
    assert fire_s > 3600
    assert carved["time_s"] == pytest.approx(held + fire_s)
    reaches = [sample(at)["reach"]["value"] for at in (held / 2, held, held + fire_s / 2)]
    assert reaches == sorted(reaches)
    assert carved["reach"]["value"] > reaches[-1]
    assert "The fire moves it on" in carved["says"][-1]


def test_side_by_side_says_how_long_each_surface_dries_on_this_fire(api, piece):
    ways = api("POST", "cooks/coat/side-by-side", {"piece": sent(piece, OPEN)})[1]
    told = [one["dries"]["value"] for one in ways if not one["problem"]]
    # cold meat beside a fire of 107 °C gathers water for a quarter of an hour and more before it dries
    assert min(told) > 15
    foil = {"surround": "oven", "vessel": "foil", "aimed": "150 °C", "lasts": "2 h"}
    wrapped = api("POST", "cooks/coat/side-by-side", {"piece": sent(piece, foil)})[1]
    assert [one["dries"] for one in wrapped if one["water"] and one["wet"] > 0.2] != []
    assert all(one["dries"] is None and "nothing dries" in one["surface"] for one in wrapped if one["wet"] > 0.2)
