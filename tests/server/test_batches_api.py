"""Batches over the API: weighed out, put right, tasted, kept in a jar; nothing weighed is lost or counted twice."""

import uuid

import pytest
from book.models import Batch, Blend, Pour, Revision


@pytest.fixture
def batch(api, rub) -> dict:
    status, found = api("POST", "batches", {"blend": str(rub.pk), "version": rub.version, "wanted": "60 g"})
    assert status == 201
    return found


def pour(api, batch: dict, grams: float, line: str = "", how: str = "weighed", key: str = "") -> tuple[int, dict]:
    body = {
        "version": batch["version"], "line": line or batch["current"], "grams": grams, "how": how,
        "key": key or str(uuid.uuid4()),
    }  # fmt: skip
    return api("POST", f"batches/{batch['id']}/pour", body)


def weighed(api, batch: dict) -> dict:
    """Weigh every line that is still open as wanted."""
    while batch["current"]:
        line = next(line for line in batch["lines"] if line["id"] == batch["current"])
        status, batch = pour(api, batch, line["wanted_g"] - line["poured_g"])
        assert status == 200
    return batch


def test_a_batch_is_weighed_line_by_line_and_ends_in_a_jar_with_what_was_really_weighed(api, rub, batch):
    assert [line["wanted_g"] for line in batch["lines"]] == pytest.approx(
        [line["mass"]["value"] for line in api("GET", f"blends/{rub.pk}")[1]["reading"]["lines"]]
    )
    first = batch["lines"][0]
    status, batch = pour(api, batch, first["wanted_g"] + 0.2)
    assert status == 200
    assert batch["lines"][0]["done"]
    assert batch["current"] == batch["lines"][1]["id"]
    # short, in two goes
    second = batch["lines"][1]
    batch = pour(api, batch, second["wanted_g"] / 2)[1]
    assert batch["current"] == second["id"]
    batch = weighed(api, batch)
    assert api("POST", f"batches/{batch['id']}/finish", {"version": batch["version"] - 1, "size_ml": 125})[0] == 409
    status, done = api("POST", f"batches/{batch['id']}/finish", {"version": batch["version"], "size_ml": 125})
    assert status == 200
    assert done["state"] == "mixed"
    assert done["jar"]["left_g"] == pytest.approx(60.2, abs=0.01)
    # by hand: the salt line's weight over the whole, at 97.5 % NaCl
    salt = first["wanted_g"] + 0.2
    assert done["salt"]["value"] == pytest.approx(salt / 60.2 * 97.1, rel=0.01)
    row = next(row for row in api("GET", "batches")[1] if row["id"] == batch["id"])
    assert row["jar"]["left_g"] == pytest.approx(60.2, abs=0.01)
    assert pour(api, done, 1.0, line=first["id"])[0] == 422  # it is mixed


def test_a_pour_sent_twice_counts_once_and_one_from_another_window_is_told(api, batch):
    key = str(uuid.uuid4())
    wanted = batch["lines"][0]["wanted_g"]
    assert pour(api, batch, wanted, key=key)[0] == 200
    status, again = pour(api, batch, wanted, key=key)  # its answer was lost, the screen sends it anew
    assert status == 200
    assert again["poured_g"] == pytest.approx(wanted, abs=0.001)
    status, problem = pour(api, batch, 1.0)
    assert status == 409
    assert problem["theirs"]["poured_g"] == pytest.approx(wanted, abs=0.001)
    assert Pour.objects.filter(line__batch_id=batch["id"]).count() == 1
    back = api("POST", f"batches/{batch['id']}/take-back", {"version": again["version"]})[1]
    assert back["poured_g"] == 0
    assert back["current"] == batch["lines"][0]["id"]


def rescue(api, batch: dict, choice: str) -> dict:
    body = {"version": batch["version"], "line": batch["current"], "choice": choice}
    status, found = api("POST", f"batches/{batch['id']}/rescue", body)
    assert status == 200
    return found


def test_an_overshoot_is_put_right_in_three_ways(api, batch):
    first, second = batch["lines"][:2]
    batch = pour(api, batch, first["wanted_g"])[1]
    over = pour(api, batch, second["wanted_g"] * 1.5)[1]
    assert over["current"] == second["id"]
    assert [way["id"] for way in over["rescues"]] == ["scale up", "accept", "spoon out"]
    assert over["rescues"][0]["adds"][0]["grams"] == pytest.approx(first["wanted_g"] * 0.5, abs=0.01)

    spooned = rescue(api, over, "spoon out")
    assert spooned["rescues"]  # until it is out
    assert pour(api, spooned, second["wanted_g"], how="spooned out")[0] == 422  # what is taken out is below 0
    assert pour(api, spooned, -second["wanted_g"] * 9, how="spooned out")[0] == 422
    out = pour(api, spooned, -second["wanted_g"] * 0.5, how="spooned out")[1]
    assert out["lines"][1]["done"]
    assert out["wanted_g"] == pytest.approx(60)

    third = out["lines"][2]
    over = pour(api, out, third["wanted_g"] * 1.2)[1]
    accepted = rescue(api, over, "accept")
    assert accepted["lines"][2]["done"]
    assert accepted["wanted_g"] == pytest.approx(60 + third["wanted_g"] * 0.2, abs=0.01)

    fourth = accepted["lines"][3]
    over = pour(api, accepted, fourth["wanted_g"] * 2)[1]
    scaled = rescue(api, over, "scale up")
    assert scaled["wanted_g"] == pytest.approx(accepted["wanted_g"] * 2, abs=0.01)
    # what was poured before is short now and comes again
    assert [line["done"] for line in scaled["lines"][:4]] == [False, False, False, True]
    whole = weighed(api, scaled)
    assert whole["poured_g"] == pytest.approx(scaled["wanted_g"], rel=0.001)
    # all but the line that was accepted keep the ratio of the blend
    ratio = whole["lines"][0]["poured_g"] / whole["lines"][3]["poured_g"]
    assert ratio == pytest.approx(first["wanted_g"] / fourth["wanted_g"], rel=0.01)


def test_what_cannot_be_poured_is_refused_in_a_sentence_and_nothing_changes(api, batch):
    for grams in (0, -3, 99_999):
        assert pour(api, batch, grams)[0] == 422
    assert pour(api, batch, 5, line=str(uuid.uuid4()))[0] == 422
    hand = {"version": batch["version"], "line": batch["current"], "key": str(uuid.uuid4())}
    status, problem = api("POST", f"batches/{batch['id']}/pour-by-hand", hand | {"amount": "a few"})
    assert (status, problem["errors"][0]["field"]) == (422, "amount")
    body = {"version": batch["version"], "line": batch["current"], "choice": "accept"}
    assert api("POST", f"batches/{batch['id']}/rescue", body)[0] == 422  # nothing is over
    assert api("POST", f"batches/{batch['id']}/finish", {"version": batch["version"], "size_ml": 100})[0] == 422
    assert api("GET", f"batches/{batch['id']}")[1] == batch
    status, noted = api("POST", f"batches/{batch['id']}/pour-by-hand", hand | {"amount": "1/2 oz"})
    assert status == 200
    assert noted["poured_g"] == pytest.approx(14.175, abs=0.01)
    out = hand | {"version": noted["version"], "key": str(uuid.uuid4()), "amount": "20 g", "out": True}
    assert api("POST", f"batches/{batch['id']}/pour-by-hand", out)[0] == 422  # more than lies in the bowl
    status, less = api("POST", f"batches/{batch['id']}/pour-by-hand", out | {"amount": "4 g"})
    assert status == 200
    assert less["poured_g"] == pytest.approx(10.175, abs=0.01)


def test_a_batch_pins_its_blend_and_is_only_put_aside(api, rub, batch):
    document = api("GET", f"blends/{rub.pk}")[1]
    document["lines"][0]["parts"] = "9"
    assert api("PUT", f"blends/{rub.pk}", document)[0] == 200
    assert api("GET", f"batches/{batch['id']}")[1]["lines"] == batch["lines"]
    assert api("POST", f"batches/{batch['id']}/leave", {"version": batch["version"]})[0] == 200
    assert api("GET", f"batches/{batch['id']}")[0] == 404
    assert api("POST", f"batches/{batch['id']}/restore")[1]["lines"] == batch["lines"]
    empty = api("POST", "blends", {"name": "Nothing", "kind": "dry rub", "batch": "10 g", "lines": []})[1]
    bought = Blend.objects.get(name="Market-hall poultry rub")
    for blend, says in ((empty["id"], "nothing in this blend"), (str(bought.pk), "mixed already")):
        status, problem = api("POST", "batches", {"blend": blend, "version": 1, "wanted": "10 g"})
        assert status == 422
        assert says in problem["detail"]
    assert not Revision.objects.filter(blend=bought, kept_at__isnull=False).exists()  # nothing is half done


def test_a_mixed_batch_is_tasted_and_corrected_by_adding_only(api, batch):
    batch = weighed(api, batch)
    mixed = api("POST", f"batches/{batch['id']}/finish", {"version": batch["version"], "size_ml": 250})[1]
    taste = {"taste": "too-salty", "strength": "a little"}
    ways = api("POST", f"batches/{batch['id']}/tasted", taste)[1]
    assert all(add["grams"] > 0 for way in ways for add in way["adds"])
    new = next(way for way in ways if len(way["adds"]) == 1 and way["why"] == "dilutes it")
    body = taste | {"version": mixed["version"], "says": new["says"], "key": str(uuid.uuid4())}
    status, after = api("POST", f"batches/{batch['id']}/correct", body)
    assert status == 200
    added = new["adds"][0]["grams"]
    assert after["poured_g"] == pytest.approx(mixed["poured_g"] + added, abs=0.01)
    assert after["jar"]["left_g"] == pytest.approx(mixed["jar"]["left_g"] + added, abs=0.01)
    salt = next(change for change in new["changes"] if change["key"] == "salt")
    assert after["salt"]["value"] == pytest.approx(salt["after"], abs=0.01)
    assert after["salt"]["value"] == pytest.approx(mixed["salt"]["value"] * 0.9, abs=0.01)
    assert after["salt_wanted"] == mixed["salt_wanted"]  # the ratio wants what it wanted
    assert [line["spoons"] for line in after["lines"][:-1]] == [line["spoons"] for line in mixed["lines"]]
    # everything else in its own ratio goes into the lines that are there
    rest = api("POST", f"batches/{batch['id']}/tasted", taste)[1][0]
    body = taste | {"version": after["version"], "says": rest["says"], "key": str(uuid.uuid4())}
    again = api("POST", f"batches/{batch['id']}/correct", body)[1]
    assert again["salt"]["value"] == pytest.approx(after["salt"]["value"] * 0.9, abs=0.01)
    assert api("POST", f"batches/{batch['id']}/tasted", {"taste": "odd"})[0] == 422


def test_a_jar_that_raw_hands_touched_never_gets_clean_again(api, book):
    row = next(row for row in api("GET", "batches")[1] if row["jar"])
    path = f"batches/{row['id']}/jar"
    status, touched = api("PUT", path, {"version": row["version"], "left": "12 g", "clean": False})
    assert (status, touched["jar"]["left_g"], touched["jar"]["clean"]) == (200, 12.0, False)
    status, problem = api("PUT", path, {"version": touched["version"], "clean": True})
    assert status == 422
    assert "throw it away" in problem["detail"]


def test_the_method_of_a_blend_decides_how_much_comes_out(api, book):
    glaze = Blend.objects.get(name="Lamb rub and honey glaze")
    document = api("GET", f"blends/{glaze.pk}")[1]
    found = document["reading"]
    assert found["finished"]["value"] < found["batch"]["value"]
    batch = api("POST", "batches", {"blend": str(glaze.pk), "version": glaze.version, "wanted": "240 g"})[1]
    assert [line["name"] for line in batch["lines"]][-1] == "Weir House lamb rub"  # off the fire, so weighed last
    batch = weighed(api, batch)
    assert batch["finished_g"] == pytest.approx(found["finished"]["value"], rel=0.001)
    assert batch["steps"][1].startswith("Simmer down by a quarter, 6 min")
    assert Batch.objects.get(pk=batch["id"]).revision.method["typed"] == document["method"]
