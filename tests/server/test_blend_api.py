"""Blends over the API: typed, saved, in conflict, bad, deleted and back."""

import pytest
from book.models import Blend, Line, Revision


def opened(api, rub) -> dict:
    status, document = api("GET", f"blends/{rub.id}")
    assert status == 200
    return document


def test_an_edit_is_saved_as_typed_and_read_at_once(api, rub):
    document = opened(api, rub)
    document["lines"][0]["parts"] = "1½"
    status, read = api("POST", "blends/read", document)
    assert status == 200
    status, saved = api("PUT", f"blends/{rub.id}", document)
    assert status == 200
    assert saved["version"] == document["version"] + 1
    again = api("GET", f"blends/{saved['id']}")[1]
    assert again["reading"]["salt"]["value"] == read["salt"]["value"] != document["reading"]["salt"]["value"]
    again = opened(api, rub)
    assert again["lines"][0]["parts"] == "1½"
    line = Line.objects.get(revision__blend=rub, revision__kept_at__isnull=True, position=0)
    assert (line.parts_numerator, line.parts_denominator) == (3, 2)


def test_a_second_windows_edit_is_detected_and_both_versions_are_offered(api, rub):
    mine, other = opened(api, rub), opened(api, rub)
    other["name"] = "Weir House lamb rub, sharper"
    assert api("PUT", f"blends/{rub.id}", other)[0] == 200
    mine["batch"] = "75 g"
    status, problem = api("PUT", f"blends/{rub.id}", mine)
    assert status == 409
    assert problem["theirs"]["name"] == "Weir House lamb rub, sharper"
    assert opened(api, rub)["batch"] == "60 g"
    # keeping mine is a save at the version that was offered
    assert api("PUT", f"blends/{rub.id}", mine | {"version": problem["theirs"]["version"]})[0] == 200
    assert opened(api, rub)["batch"] == "75 g"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        (lambda d: d["lines"][2].update(parts="0"), "lines.2.parts"),
        (lambda d: d["lines"][2].update(parts="-3"), "lines.2.parts"),
        (lambda d: d["lines"][2].update(parts="1e308"), "lines.2.parts"),
        (lambda d: d["lines"][2].update(parts="plenty"), "lines.2.parts"),
        (lambda d: d["lines"][2].update(parts=2), "lines.2.parts"),
        (lambda d: d["lines"][2].update(parts="1" * 5000), "lines.2.parts"),
        (lambda d: d["lines"][2].update(grind="unobtainium/fine"), "lines.2.grind"),
        (lambda d: d["lines"][2].update(basis="bucket"), "lines.2.basis"),
        (lambda d: d.update(batch="heavy"), "batch"),
        (lambda d: d.update(batch="-5 g"), "batch"),
        (lambda d: d.update(name="  "), "name"),
        (lambda d: d.update(name="\ud800"), "name"),
        (lambda d: d.update(kind="soup"), "kind"),
        (lambda d: d.update(lines=d["lines"] * 20), "lines"),
        (lambda d: d.update(version="latest"), "version"),
        (lambda d: d.pop("lines"), "lines"),
    ],
)
def test_bad_input_gets_a_sentence_at_its_field_and_changes_nothing(api, rub, change, field):
    document = opened(api, rub)
    change(document)
    status, problem = api("PUT", f"blends/{rub.id}", document)
    assert status == 422
    assert field in [error["field"] for error in problem["errors"]]
    assert opened(api, rub)["version"] == 1


def test_all_bad_fields_are_named_together(api, rub):
    document = opened(api, rub)
    document["batch"] = "?"
    document["lines"][0]["parts"] = document["lines"][3]["parts"] = "x"
    _, problem = api("PUT", f"blends/{rub.id}", document)
    assert [error["field"] for error in problem["errors"]] == ["batch", "lines.0.parts", "lines.3.parts"]


def test_an_empty_blend_can_be_kept_but_not_read(api, rub):
    document = opened(api, rub) | {"lines": []}
    status, saved = api("PUT", f"blends/{rub.id}", document)
    again = api("GET", f"blends/{saved['id']}")[1]
    assert (status, again["reading"]) == (200, None)
    assert "add a first ingredient" in again["problems"][0]["sentence"]
    status, problem = api("POST", "blends/read", document)
    assert (status, problem["errors"][0]["field"]) == (422, "lines")


def test_a_deleted_blend_leaves_the_list_and_comes_back(api, rub):
    assert api("POST", f"blends/{rub.id}/delete", {"version": 1})[0] == 200
    assert str(rub.id) not in [row["id"] for row in api("GET", "blends")[1]]
    assert api("GET", f"blends/{rub.id}")[0] == 404
    # the cook that uses it still knows what it is coated with
    piece = api("GET", "cooks/in-hand")[1]["cook"]["pieces"][0]
    assert piece["reading"] is not None
    assert api("POST", f"blends/{rub.id}/restore")[0] == 200
    assert opened(api, rub)["lines"]


def test_an_ingredient_that_left_the_catalogue_is_named_and_the_rest_stands(api, rub):
    Line.objects.filter(revision__blend=rub, position=1).update(grind="gone/fine")
    document = opened(api, rub)
    assert document["reading"] is None
    assert document["problems"][0]["field"] == "lines.1.grind"
    assert [row["salt"] for row in api("GET", "blends")[1] if row["id"] == str(rub.id)] == [None]


def test_what_is_not_json_or_not_there_gets_a_sentence(api, rub):
    assert api("PUT", f"blends/{rub.id}", "{half")[0] in (400, 422)
    assert api("GET", "blends/00000000-0000-0000-0000-000000000000")[0] == 404


def test_keeping_twice_without_a_change_keeps_once(rub):
    first = rub.keep("once")
    assert Blend.objects.get(pk=rub.pk).keep("twice").pk == first.pk
    assert Revision.objects.filter(blend=rub, kept_at__isnull=True).count() == 1
    assert (first.number, first.lines.count()) == (4, 7)


def test_lists_and_documents_take_a_fixed_number_of_queries(api, book, django_assert_max_num_queries):
    with django_assert_max_num_queries(8):
        api("GET", "blends")
    with django_assert_max_num_queries(20):
        api("GET", "cooks/in-hand")
