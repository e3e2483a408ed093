"""What the API refuses: at its field, with a sentence that says what to do, and nothing half-saved."""

from uuid import uuid4

import pytest
from book.models import Blend, Cook, Way, WeighBack
from test_cook_api import as_sent, opened, saved, step

WHEN = "2027-06-12T18:30:00+02:00"


def new_cook(*blends: str, serve_at: str = WHEN) -> dict:
    pieces = [
        {"name": f"Way {n}", "cut": "lamb-shoulder", "mass": "2 kg", "blend_id": blend}
        for n, blend in enumerate(blends)
    ]
    return {"name": "Trout on the quay", "serve_at": serve_at, "pieces": pieces}


def fields(problem: dict) -> dict[str, str]:
    return {error["field"]: error["sentence"] for error in problem["errors"]}


def test_a_cook_does_not_begin_with_a_blend_that_is_gone_or_empty_or_in_another_century(api, rub):
    _, empty = api("POST", "blends", {"name": "Nothing yet", "kind": "dry rub", "batch": "50 g", "lines": []})
    gone = Blend.objects.get(name="Towpath duck rub")
    assert api("POST", f"blends/{gone.pk}/delete", {"version": gone.version})[0] == 200
    cooks = Cook.objects.count()
    status, problem = api("POST", "cooks", new_cook(str(gone.pk), empty["id"], serve_at="1850-06-12T18:30:00Z"))
    assert status == 422
    said = fields(problem)
    assert "choose another" in said["pieces.0.blend_id"]
    assert "add an ingredient to it first" in said["pieces.1.blend_id"]
    assert "between the years 2000 and 2100" in said["serve_at"]
    assert Cook.objects.count() == cooks


def test_plating_has_no_length_and_a_step_of_another_cook_is_not_found(api, cook):
    document = opened(api)
    plate = step(document, "A", "plate")
    status, problem = api(
        "POST", f"cooks/{cook.id}/steps/{plate['id']}", {"version": document["version"], "lasts": "5 min"}
    )
    assert status == 422
    assert "move the serving time instead" in problem["detail"]
    other = api("POST", f"cooks/{cook.id}/steps/{uuid4()}", {"version": document["version"], "done": True})
    assert other[0] == 404
    assert opened(api)["version"] == document["version"]


@pytest.mark.parametrize(
    ("path", "body", "says"),
    [
        ("cooks/coat/layer", {"piece": {"cut": "lamb-shoulder", "mass": "2 kg"}}, "which kind of layer"),
        (
            "cooks/coat/skin",
            {
                "piece": {
                    "letter": "A",
                    "name": "A",
                    "cut": "chicken-wing",
                    "mass": "1 g",
                    "count": 1,
                    "layers": [],
                }
            },
            "check the weight of the piece",
        ),
    ],
)
def test_a_layer_without_a_kind_and_a_skin_as_heavy_as_its_piece_are_refused(api, book, path, body, says):
    status, problem = api("POST", path, body)
    assert status == 422
    assert says in problem["detail"]


def test_what_was_never_kept_cannot_be_deleted_or_brought_back(api, cook):
    ways, backs = Way.objects.count(), WeighBack.objects.count()
    for path in (
        f"cooks/ways/{uuid4()}/delete",
        f"cooks/ways/{uuid4()}/restore",
        f"cooks/coat/weigh-back/{uuid4()}/take-back",
    ):
        status, problem = api("POST", path)
        assert (status, problem["title"]) == (404, "Not in the book")
    assert (Way.objects.count(), WeighBack.objects.count()) == (ways, backs)
    status, problem = api("POST", f"cooks/{cook.id}/strength", {"letter": "A", "layer": 9})
    assert status == 422
    assert "not on the board any more" in problem["detail"]


def test_a_cook_is_not_served_in_another_century_and_keeps_its_pieces_apart(api, cook):
    sent = as_sent(opened(api))
    late = sent | {"serve_at": "2150-01-01T00:00:00Z", "name": "", "eaters": 900}
    status, after = api("PUT", f"cooks/{cook.id}", late)
    assert (status, fields(after).keys()) == (200, {"serve_at", "name", "eaters"})
    assert (after["serve_at"], after["name"], after["eaters"]) == ("2150-01-01T00:00:00Z", "", 900)
    # everything else goes by what it was
    board = opened(api)
    assert {key: board[key] for key in ("serve_at", "name", "eaters")} == {
        key: sent[key] for key in ("serve_at", "name", "eaters")
    }
    sent["version"] = after["version"]
    status, problem = api("PUT", f"cooks/{cook.id}", sent | {"pieces": [sent["pieces"][0]] * 2})
    assert status == 422
    assert "each under a letter of its own" in problem["detail"]
    assert as_sent(opened(api)) == sent


def test_a_face_left_bare_on_one_piece_is_evened_out_on_both(api, cook):
    sent = as_sent(opened(api))
    sent["pieces"][0]["faces"] = {"fat cap": "bare"}
    sent["pieces"][1]["faces"] = {"fat cap": "coated"}
    before = saved(api, cook.id, sent)
    status, found = api("POST", f"cooks/{cook.id}/even", {"version": before["version"], "what": "bare face"})
    assert status == 200
    states = [[face["state"] for face in piece["reading"]["piece"]["faces"]] for piece in found["pieces"]]
    assert states == [["bare"], ["bare"]]
    assert "bare face" not in {one["what"] for one in found["fair"]["differs"]}
    assert found["version"] > before["version"]


def test_the_skin_of_a_bird_is_seasoned_as_it_comes_and_evened_out_to_that(api, cook):
    sent = as_sent(opened(api))
    for piece, faces in zip(sent["pieces"], ({"skin": "coated"}, {}), strict=True):
        piece |= {"cut": "duck-whole", "faces": faces, "length": "", "width": "", "thickness": ""}
    same = saved(api, cook.id, sent)
    assert "faces left bare" in same["fair"]["same"]
    same["pieces"][1]["typed"]["faces"] = {"skin": "bare"}
    bare = saved(api, cook.id, as_sent(same))
    assert "bare face" in {one["what"] for one in bare["fair"]["differs"]}
    evened = api("POST", f"cooks/{cook.id}/even", {"version": bare["version"], "what": "bare face"})[1]
    states = [[face["state"] for face in piece["reading"]["piece"]["faces"]] for piece in evened["pieces"]]
    assert states == [["coated"], ["coated"]]
