"""The bench over the API: ratios reworked, blends inside blends, aims, adaptions, revisions and branches."""

import json

import pytest
from book.demo import BLENDS
from book.models import Blend, Line, Revision
from django.db import connection
from django.test.utils import CaptureQueriesContext


def opened(api, name: str) -> dict:
    status, document = api("GET", f"blends/{Blend.objects.get(name=name).id}")
    assert status == 200
    return document


@pytest.fixture
def rub_document(api, book) -> dict:
    return opened(api, "Weir House lamb rub")


@pytest.fixture
def glaze(api, book) -> dict:
    return opened(api, "Lamb rub and honey glaze")


def rework(api, document: dict, **change) -> dict:
    status, answer = api("POST", "blends/rework", document | change)
    assert status == 200, answer
    return answer


def put_inside(document: dict, inner: str) -> dict:
    return document | {"lines": [*document["lines"], {"blend": inner, "parts": "1"}]}


def test_a_change_of_numbers_is_written_as_people_write_and_kept_exactly(api, rub_document):
    percent = rework(api, rub_document, do="write", to_written="percent")
    assert (percent["written"], percent["total"]) == ("percent", "fixed")
    assert sum(float(line["parts"]) for line in percent["lines"]) == pytest.approx(100, abs=0.2)
    assert percent["reading"]["salt"]["value"] == pytest.approx(rub_document["reading"]["salt"]["value"])
    saved = api(
        "PUT", f"blends/{rub_document['id']}", rub_document | {k: percent[k] for k in ("lines", "written", "total")}
    )
    assert saved[0] == 200
    # what is rounded on screen is exact in the book: nothing drifts
    again = opened(api, "Weir House lamb rub")
    assert again["lines"] == percent["lines"]
    assert again["reading"]["salt"]["value"] == pytest.approx(rub_document["reading"]["salt"]["value"], rel=1e-9)


def test_a_typed_percent_makes_the_others_give_way_and_locked_lines_stay(api, rub_document):
    percent = rework(api, rub_document, do="write", to_written="percent")
    percent["lines"][1]["lock"] = "share"
    held = percent["lines"][1]["parts"]
    after = rework(api, rub_document | percent, do="set", line=0, parts="40")
    assert after["lines"][0]["parts"] == "40"
    assert after["lines"][1]["parts"] == held
    assert after["reading"]["lines"][0]["share"]["value"] == pytest.approx(40, abs=1e-6)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"do": "set", "line": 2, "parts": "half of nothing"}, "lines.2.parts"),
        ({"do": "set", "line": 2, "parts": "1e9"}, "lines.2.parts"),
        ({"do": "set", "line": 2, "parts": "1000000000"}, "lines.2.parts"),
        ({"do": "set", "line": 50, "parts": "1"}, "line"),
        ({"do": "nudge", "line": 7}, "line"),
        ({"do": "border", "line": 6, "share": 0.2}, "line"),
        ({"do": "grind", "line": 0, "grind": "gone/fine"}, "grind"),
        ({"do": "add", "grind": "gone/fine"}, "lines.7.grind"),
        ({"do": "unfold", "line": 0}, "line"),
        ({"do": "dance"}, "do"),
        ({"do": "set", "line": -1, "parts": "1"}, "line"),
        ({"do": "set", "line": 0, "parts": "99", "total": "fixed", "written": "percent"}, "lines.0.parts"),
    ],
)
def test_a_change_that_cannot_be_is_refused_at_its_field(api, rub_document, change, field):
    status, problem = api("POST", "blends/rework", rub_document | change)
    assert status == 422
    assert field in [error["field"] for error in problem["errors"]]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        (lambda d: d["lines"][0].update(exact="1/0"), "lines.0.exact"),
        (lambda d: d["lines"][0].update(exact="a/b"), "lines.0.exact"),
        (lambda d: d["lines"][0].update(exact="99999999999/1"), "lines.0.parts"),
        (lambda d: d["lines"][0].update(least="80", most="20"), "lines.0.most"),
        (lambda d: d["lines"][0].update(least="120"), "lines.0.least"),
        (lambda d: d["lines"][0].update(lock="tight"), "lines.0.lock"),
        (lambda d: d["lines"][0].update(blend="00000000-0000-0000-0000-000000000000", grind=""), "lines.0.blend"),
        (lambda d: d.update(base=40), "base"),
        (lambda d: d.update(targets=[{"what": "salt", "low": "lots"}]), "targets.0.low"),
        (lambda d: d.update(targets=[{"what": "salt", "low": "30", "high": "20"}]), "targets.0.high"),
        (lambda d: d.update(targets=[{"what": "salt", "low": "3"}] * 2), "targets"),
        (lambda d: d.update(targets=[{"what": "joy", "low": "3"}]), "targets.0.what"),
        (lambda d: d.update(uses=[{"name": "beans", "mass": "a lot"}]), "uses.0.mass"),
        (lambda d: d.update(uses=[{"name": " ", "mass": "3"}]), "uses.0.name"),
    ],
)
def test_what_contradicts_itself_is_refused_at_its_field_and_nothing_is_saved(api, rub_document, change, field):
    document = json.loads(json.dumps(rub_document))
    change(document)
    status, problem = api("PUT", f"blends/{document['id']}", document)
    assert status == 422
    assert field in [error["field"] for error in problem["errors"]]
    assert opened(api, "Weir House lamb rub")["version"] == rub_document["version"]


def test_a_blend_inside_follows_its_own_edits_until_it_is_kept(api, glaze, rub_document):
    at = next(i for i, line in enumerate(glaze["lines"]) if line["blend"])
    before = glaze["reading"]["salt"]["value"]
    assert glaze["reading"]["inside"][at]["name"] == "Weir House lamb rub"
    assert glaze["reading"]["lines"][at]["bands"][0]["grind"] == "sea-salt-flake/flake"
    kept = api("POST", f"blends/{glaze['id']}/keep", {"version": glaze["version"], "note": "as at the wharf"})[1]
    rub_document["lines"][0]["parts"] = "8"
    assert api("PUT", f"blends/{rub_document['id']}", rub_document)[0] == 200
    read = api("POST", "blends/read", glaze)[1]
    assert read["salt"]["value"] > before
    assert read["inside"][at]["version"] == glaze["reading"]["inside"][at]["version"] + 1
    # the kept revision holds the rub as it was
    revision = Revision.objects.get(pk=kept["before"]["id"])
    assert revision.lines.get(position=at).inside_revision is not None
    old = api("POST", "blends/compare", glaze | {"against": str(revision.pk)})[1]
    assert not old["same"]
    assert next(s["value"] for s in kept["before"]["scales"] if s["key"] == "salt") == pytest.approx(before)


def test_a_circle_is_refused_with_its_path_wherever_it_would_close(api, glaze, rub_document):
    status, problem = api("POST", "blends/rework", rub_document | {"do": "add", "inside": glaze["id"]})
    assert status == 422
    assert problem["errors"][0]["field"] == f"lines.{len(rub_document['lines'])}.blend"
    assert "“Weir House lamb rub” → “Lamb rub and honey glaze” → “Weir House lamb rub”" in problem["detail"]
    assert api("PUT", f"blends/{rub_document['id']}", put_inside(rub_document, glaze["id"]))[0] == 422
    assert api("PUT", f"blends/{glaze['id']}", put_inside(glaze, glaze["id"]))[0] == 422
    assert opened(api, "Weir House lamb rub")["version"] == rub_document["version"]


def test_a_blend_deleted_meanwhile_is_said_at_its_line_and_still_counts(api, glaze, rub_document):
    api("POST", f"blends/{rub_document['id']}/delete", {"version": rub_document["version"]})
    read = api("POST", "blends/read", glaze)[1]
    held = next(inside for inside in read["inside"] if inside)
    assert held["deleted"]
    assert read["salt"]["value"] == glaze["reading"]["salt"]["value"]
    # it can be saved, unfolded, or the blend be brought back
    assert api("PUT", f"blends/{glaze['id']}", glaze)[0] == 200
    flat = rework(api, glaze, do="unfold", line=len(glaze["lines"]) - 1)
    assert all(line["blend"] is None for line in flat["lines"])
    assert flat["reading"]["salt"]["value"] == pytest.approx(glaze["reading"]["salt"]["value"])
    assert api("POST", f"blends/{rub_document['id']}/restore")[0] == 200
    assert not any(inside["deleted"] for inside in api("POST", "blends/read", glaze)[1]["inside"] if inside)


def test_an_aim_shows_the_difference_and_what_stands_against_each_other(api, rub_document):
    aimed = rub_document | {"targets": [{"what": "salt", "low": "22 %", "high": "22"}]}
    status, answer = api("POST", "blends/aim", aimed)
    assert (status, answer["met"]) == (200, True)
    assert answer["reading"]["salt"]["value"] == pytest.approx(22, abs=0.1)
    assert answer["difference"]["words"][0] == "salt 26 → 22 %"
    both = rub_document | {"targets": [{"what": "salt", "low": "60"}, {"what": "sugar", "low": "60"}]}
    refused = api("POST", "blends/aim", both)[1]
    assert not refused["met"]
    assert "at least 60 % salt; at least 60 % sugar" in " ".join(refused["notes"])
    held = json.loads(json.dumps(rub_document | {"targets": [{"what": "salt", "high": "10"}]}))
    held["lines"][0].update(lock="share", most="5")
    status, problem = api("POST", "blends/aim", held)
    assert status == 422
    assert "is locked at 27.2 % but bounded between 0 and 5 %" in problem["detail"]


def test_a_nudge_and_an_adaption_propose_whole_blends(api, rub_document):
    hotter = api("POST", "blends/nudge", rub_document | {"towards": "hotter"})[1]
    assert any(word.startswith("heat") for word in hotter["difference"]["words"])
    ask = rub_document | {"for_meat": "beef", "for_fire": "direct flame"}
    adapted = api("POST", "blends/adapt", ask)[1]
    assert {"less-sugar"} <= {change["id"] for change in adapted["changes"]}
    skipped = api("POST", "blends/adapt", ask | {"skip": [c["id"] for c in adapted["changes"]]})[1]
    assert skipped["unchanged"]
    assert skipped["changes"][0] == adapted["changes"][0]
    nothing = api("POST", "blends/adapt", rub_document)[1]
    assert nothing["notes"] == ["Nothing needs to change: it suits that already."]


def test_swaps_say_what_they_do_to_the_salt(api, rub_document):
    found = api("POST", "blends/swaps", rub_document | {"line": 0})[1]
    crystal = next(swap for swap in found if swap["line"]["grind"] == "table-salt/fine")
    assert crystal["salt_after"] == pytest.approx(crystal["salt_before"], abs=0.5)
    assert api("POST", "blends/swaps", rub_document | {"line": 40})[0] == 422


def test_keeping_branching_and_going_back_make_a_tree_and_lose_nothing(api, rub_document):
    path = f"blends/{rub_document['id']}"
    status, branch = api("POST", f"{path}/branch", {"version": rub_document["version"], "name": "For goat"})
    assert (status, branch["before"]["number"]) == (201, 4)
    assert branch["lines"] == rub_document["lines"]
    now = opened(api, "Weir House lamb rub")
    now["lines"][0]["parts"] = "6"
    now = api("PUT", path, now)[1]
    tree = api("GET", f"{path}/tree")[1]
    second = next(node for node in tree if node["number"] == 2 and node["blend_name"] == now["name"])
    assert second["note"] == "cumin shouted the lamb down"
    assert "cumin out" in second["words"]
    assert [node["now"] for node in tree].count(True) == 1
    back = api("POST", f"{path}/go-back", {"version": now["version"], "revision": second["id"]})[1]
    assert back["before"]["number"] == 2
    assert len(back["lines"]) == 6
    # what the draft held before is kept beside it
    kept = Revision.objects.get(blend_id=now["id"], number=5)
    assert kept.note == "before going back to 2"
    assert kept.lines.get(position=0).parts_typed == "6"
    after = api("GET", f"{path}/tree")[1]
    assert next(node for node in after if node["now"])["id"] == second["id"]
    assert {node["blend_name"] for node in after} == {"Weir House lamb rub", "Weir House rub, duck branch"}
    # the branch has not moved away from where it began, so it stands at its parent
    api("PUT", f"blends/{branch['id']}", branch | {"lines": branch["lines"][:-1]})
    assert "For goat" in {node["blend_name"] for node in api("GET", f"{path}/tree")[1]}


def test_a_kept_revision_never_changes_and_an_old_version_cannot_keep(api, rub_document):
    path = f"blends/{rub_document['id']}"
    first = api("POST", f"{path}/keep", {"version": rub_document["version"], "note": "one"})[1]
    lines = list(Revision.objects.get(pk=first["before"]["id"]).lines.values_list("grind", "parts_typed"))
    edited = first | {"lines": first["lines"][:3]}
    assert api("PUT", path, edited)[0] == 200
    assert list(Revision.objects.get(pk=first["before"]["id"]).lines.values_list("grind", "parts_typed")) == lines
    for act, body in (("keep", {}), ("branch", {"name": "x"}), ("go-back", {"revision": first["before"]["id"]})):
        status, problem = api("POST", f"{path}/{act}", {"version": rub_document["version"], **body})
        assert status == 409
        assert len(problem["theirs"]["lines"]) == 3
    assert api("POST", f"{path}/go-back", {"version": 4, "revision": "00000000-0000-0000-0000-000000000000"})[0] in (
        409,
        422,
    )


def test_an_empty_blend_is_neither_kept_nor_branched(api, book):
    new = api("POST", "blends", {"name": "New", "kind": "dry rub", "batch": "100 g", "lines": []})[1]
    for act, body in (("keep", {}), ("branch", {"name": "x"})):
        assert api("POST", f"blends/{new['id']}/{act}", {"version": new["version"], **body})[0] == 422


def test_one_batch_is_shared_out_over_its_uses(api, rub_document):
    status, shared = api("POST", "blends/share-out", rub_document)
    assert status == 200
    offers = {offer["name"]: offer for offer in shared["offers"]}
    assert shared["left"]["value"] == 60
    glaze = offers["in Lamb rub and honey glaze, 240 g"]
    coat = next(offer for name, offer in offers.items() if name.startswith("Rubbed"))
    # 1 of 8 spoons of glaze by mass, and the coat's own 37 g
    assert coat["mass_g"] == pytest.approx(36.8, abs=0.2)
    uses = [{"name": "glaze", "of": glaze["of"]}, {"name": "coat", "of": coat["of"]}, {"name": "beans", "mass": "20 g"}]
    planned = api("POST", "blends/share-out", rub_document | {"uses": uses})[1]
    assert planned["left"]["value"] == pytest.approx(60 - glaze["mass_g"] - coat["mass_g"] - 20)
    assert planned["enough_g"] >= planned["taken"]["value"]
    assert api("PUT", f"blends/{rub_document['id']}", rub_document | {"uses": uses})[1]["uses"][2]["mass"] == "20 g"
    gone = api("POST", "blends/share-out", rub_document | {"uses": [{"name": "old", "of": "blend:gone"}]})[1]
    assert "not in the book any more" in gone["uses"][0]["sentence"]


def test_the_list_says_where_a_branch_left_even_after_it_kept_revisions_of_its_own(api, book):
    rows = {row["name"]: row for row in api("GET", "blends")[1]}
    assert rows["Weir House rub, duck branch"]["branch_of"] == "Weir House lamb rub"
    assert rows["Weir House rub, duck branch"]["kept"] == 1
    assert {row["branch_of"] for name, row in rows.items() if "branch" not in name} == {""}


def test_archive_duplicate_and_prices(api, rub_document):
    path = f"blends/{rub_document['id']}"
    out = api("POST", f"{path}/archive", {"version": rub_document["version"], "archived": True})[1]
    row = next(row for row in api("GET", "blends")[1] if row["id"] == rub_document["id"])
    assert (row["archived"], row["kept"]) == (True, 4)
    assert api("POST", f"{path}/archive", {"version": out["version"], "archived": False})[0] == 200
    cost = next(s["value"] for s in rub_document["reading"]["scales"] if s["key"] == "cost")
    assert api("PUT", "shelf/prices", {"ingredient": "sea-salt-flake", "per_100g": "9.50"})[0] == 200
    dearer = api("POST", "blends/read", rub_document)[1]
    share = rub_document["reading"]["lines"][0]["share"]["value"] / 100
    now = next(s["value"] for s in dearer["scales"] if s["key"] == "cost")
    assert now == pytest.approx(cost + share * (9.5 - 1.8))
    assert api("GET", "shelf/prices")[1] == [{"ingredient": "sea-salt-flake", "per_100g": "9.5"}]
    assert api("PUT", "shelf/prices", {"ingredient": "sea-salt-flake", "per_100g": "dear"})[0] == 422
    assert api("PUT", "shelf/prices", {"ingredient": "stardust", "per_100g": "3"})[0] == 422
    api("PUT", "shelf/prices", {"ingredient": "sea-salt-flake", "per_100g": ""})
    assert api("GET", "shelf/prices")[1] == []


def test_reading_at_every_key_takes_few_queries_however_deep_blends_lie(api, glaze):
    """Prices, spoons and the blends inside: nothing is kept within a test's transaction, between keys all of it is."""
    with CaptureQueriesContext(connection) as queries:
        api("POST", "blends/read", glaze)
    assert len(queries) <= 6


def test_the_list_takes_no_more_queries_for_more_blends(api, book):
    with CaptureQueriesContext(connection) as before:
        api("GET", "blends")
    for at in range(5):
        document = opened(api, "Lamb rub and honey glaze") | {"name": f"copy {at}"}
        assert api("POST", "blends", document)[0] == 201
    with CaptureQueriesContext(connection) as after:
        api("GET", "blends")
    assert len(after) == len(before)
    assert len(api("GET", "blends")[1]) == len(BLENDS) + 6


@pytest.mark.parametrize("change", [{"grind": "table-salt/fine"}, {"inside_id": None}])
def test_the_database_keeps_a_line_to_an_ingredient_or_a_blend(glaze, change):
    from django.db import IntegrityError, transaction

    line = Line.objects.filter(inside__isnull=False).first()
    with pytest.raises(IntegrityError), transaction.atomic():
        Line.objects.filter(pk=line.pk).update(**change)
