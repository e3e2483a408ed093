"""Blind cards, the reveal and the verdict over the API."""

import pytest
from book.models import Layer, Taster


def seat(api, cook) -> dict:
    return api("GET", f"trials/{cook.trial.id}")[1]


def designed(api, cook, **changed) -> tuple[int, dict]:
    """Save the design of a cook's trial as it is, with some of it changed."""
    return api("PUT", f"trials/{cook.trial.id}/design", as_design(api, cook) | changed)


def as_design(api, cook) -> dict:
    now = api("GET", f"trials/{cook.trial.id}/design")[1]
    kept = ("version", "question", "kind", "cards", "twin", "scales", "words", "guess", "sides", "parts")
    tasted = [piece for piece in now["pieces"] if piece["tasted"]]
    crossed = [{key: one[key] for key in ("letter", "row", "column")} for one in tasted if one["row"] is not None]
    return {name: now[name] for name in kept} | {"letters": [one["letter"] for one in tasted], "crossed": crossed}


def card(table: dict, taster: str, prefers: str | None, score: int = 7) -> dict:
    scores = [{"code": code, "scale": "overall", "value": score} for code in table["codes"]]
    return {"taster": taster, "served": table["next_order"], "scores": scores, "prefers": prefers}


def hand_in(api, cook, taster: str, prefers: str | None) -> dict:
    table = seat(api, cook)
    status, after = api("POST", f"trials/{cook.trial.id}/cards", card(table, taster, prefers))
    assert status == 201
    return after


def test_no_piece_can_be_told_before_the_reveal(api, cook):
    table = hand_in(api, cook, "Kittiwake", seat(api, cook)["codes"][0])
    verdict = api("GET", f"trials/{cook.trial.id}/verdict")[1]
    assert table["revealed"] is None
    assert [side["name"] for side in verdict["sides"]] == [None, None]
    assert verdict["differs"] == []
    assert [side["codes"] for side in verdict["sides"]] == [[code] for code in sorted(table["codes"])]


def test_three_cards_are_not_yet_known_and_eight_that_agree_name_the_winner(api, cook):
    code = {sample.piece.letter: sample.code for sample in cook.trial.samples.select_related("piece")}
    for taster in ("Kittiwake", "Marigold", "Tamarisk"):
        hand_in(api, cook, taster, code["B"])
    verdict = api("GET", f"trials/{cook.trial.id}/verdict")[1]
    verdict = verdict["reading"]
    assert (verdict["state"], verdict["probability"]["value"], verdict["cards_more"]["value"]) == (
        "not yet known", 0.25, 5,
    )  # fmt: skip
    assert {plate["name"] for plate in api("POST", f"trials/{cook.trial.id}/reveal")[1]["revealed"]["plates"]} == {
        "Rubbed",
        "Marinated",
    }
    # more cards after the reveal count, and are marked
    for taster in ("One", "Two", "Three", "Four", "Five"):
        table = hand_in(api, cook, taster, code["B"])
    assert [c["blind"] for c in table["cards"]] == [True] * 3 + [False] * 5
    verdict = api("GET", f"trials/{cook.trial.id}/verdict")[1]
    reading = verdict["reading"]
    assert (reading["state"], verdict["sides"][reading["winner"]]["name"]) == ("winner", "Marinated")
    assert reading["probability"]["value"] == pytest.approx(2 / 2**8)
    assert {d["what"] for d in verdict["differs"]} == {"salt", "blind", "looks"}


def test_the_first_card_pins_what_was_tasted(api, cook):
    assert Layer.objects.filter(piece__cook=cook, kind="rub", revision__isnull=True).exists()
    hand_in(api, cook, "Kittiwake", None)
    assert not Layer.objects.filter(piece__cook=cook, blend__isnull=False, revision__isnull=True).exists()


def test_serving_orders_are_balanced_and_a_taken_back_card_can_return(api, cook):
    orders = []
    for taster in ("Kittiwake", "Marigold", "Tamarisk", "Halcyon"):
        orders.append(tuple(hand_in(api, cook, taster, None)["cards"][-1]["served"]))
    assert orders[0] != orders[1]
    assert orders[2] != orders[3]
    first = seat(api, cook)["cards"][0]
    after = api("POST", f"trials/{cook.trial.id}/cards/{first['id']}/delete")[1]
    assert [c["taster"] for c in after["cards"]] == ["Marigold", "Tamarisk", "Halcyon"]
    assert len(api("POST", f"trials/{cook.trial.id}/cards/{first['id']}/restore")[1]["cards"]) == 4
    assert api("POST", f"trials/{cook.trial.id}/cards", card(seat(api, cook), "Kittiwake", None))[0] == 422


@pytest.mark.parametrize(
    ("change", "field"),
    [
        (lambda c: c.update(taster=" "), "taster"),
        (lambda c: c.update(prefers="000"), "prefers"),
        (lambda c: c.update(served=c["served"][:1]), "served"),
        (lambda c: c["scores"][0].update(value=10), "scores.0.value"),
        (lambda c: c["scores"][0].update(scale="salt", value=6), "scores.0.value"),
        (lambda c: c["scores"][0].update(scale="bite"), "scores.0.scale"),
        (lambda c: c["scores"][0].update(code="000"), "scores.0.code"),
        (lambda c: c.update(scores=c["scores"] * 2), "scores.2.scale"),
        (lambda c: c.update(odd="000"), "odd"),
        (lambda c: c.update(guess="000"), "guess"),
        (lambda c: c["scores"][0].update(scale="smoke", value=3), "scores.0.scale"),
        (lambda c: c.update(words=[{"code": "000", "words": ["smoke"]}]), "words.0.code"),
        (lambda c: c.update(words=[{"code": c["served"][0], "words": [""]}]), "words.0.words.0"),
        (lambda c: c.update(scores=[], prefers=None, left=True), "scores"),
    ],
)
def test_a_card_that_cannot_be_read_says_so_at_the_field(api, cook, change, field):
    bad, before = card(seat(api, cook), "Kittiwake", None), Taster.objects.count()
    change(bad)
    status, problem = api("POST", f"trials/{cook.trial.id}/cards", bad)
    assert status == 422
    assert field in [error["field"] for error in problem["errors"]]
    assert seat(api, cook)["cards"] == []
    assert Taster.objects.count() == before


def test_a_reveal_before_the_first_card_is_refused(api, cook):
    assert api("POST", f"trials/{cook.trial.id}/reveal")[0] == 422
    assert seat(api, cook)["revealed"] is None
