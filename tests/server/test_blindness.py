"""Blindness is the server's: before the reveal no answer but a look gives away which piece is behind a code.

Every route of the API's own document is read. What decides is not what an answer says but whether it would say anything
else: where the pieces behind two codes are swapped in the book, every answer stays the same to the letter.
"""

import json
import re
from uuid import UUID, uuid4

import pytest
from api.main import api as the_api
from book.models import Blend, Cook, Jar, Look, Piece, Sample, Trial
from django.db import transaction
from django.test import Client
from django.utils import timezone
from running import OWN_PAGE
from server.test_cook_api import as_sent
from server.test_table_api import card, designed, seat


def paths(cook: Cook) -> list[str]:
    """Every address that is read, filled in for this cook."""
    trial, piece = cook.trial, cook.pieces.first()
    own = {
        "cook_id": cook.pk, "trial_id": trial.pk, "piece_id": piece.pk, "letter": piece.letter,
        "blend_id": Blend.objects.first().pk, "jar_id": getattr(Jar.objects.first(), "pk", cook.pk),
    }  # fmt: skip
    found = []
    for path, methods in the_api.get_openapi_schema(path_prefix="/api/")["paths"].items():
        if "get" in methods:
            found.append(re.sub(r"\{(\w+)\}", lambda match: str(own.get(match[1], cook.pk)), path))
    return found


PLANNED_ANEW = ("start-now", "ways-out")
"""Addresses that plan a whole day several times over, which takes seconds; read with one kind of trial."""


def read_all(cook: Cook, whole: bool) -> dict[str, str]:
    client = Client(raise_request_exception=False, headers=OWN_PAGE)
    found = {}
    for path in paths(cook):
        if not whole and any(slow in path for slow in PLANNED_ANEW):
            continue
        answer = client.get(f"{path}?zone=Europe/Berlin&cut=lamb-shoulder")
        assert answer.status_code < 500, path
        found[path] = answer.content.decode(errors="replace")
    return found


@pytest.fixture(autouse=True)
def still(monkeypatch) -> None:
    """Let time stand, so that an answer differs by nothing but the trial."""
    now = timezone.now()
    monkeypatch.setattr("django.utils.timezone.now", lambda: now)


def steady(text: str) -> str:
    """Leave out when a calendar was written."""
    return re.sub(r"DTSTAMP:\w+", "", text)


def swap(cook: Cook, of_twins: bool) -> None:
    """Put each of two pieces behind the other's code; or make each of two twins the like of the other plate."""
    plates = {one.piece.letter: one for one in Sample.objects.filter(trial=cook.trial, piece__isnull=False)}
    a, b = plates["A"], plates["B"]
    spare = Piece.objects.get(pk=a.piece_id)
    spare.pk, spare.letter, spare._state.adding = uuid4(), "H", True
    spare.save()  # a piece has one plate, so one of them steps aside for a moment
    if of_twins:
        twins = list(Sample.objects.filter(trial=cook.trial, twin_of__isnull=False).order_by("code"))
        others = [b.pk if twin.twin_of_id == a.pk else a.pk for twin in twins]
        Sample.objects.filter(pk=twins[0].pk).update(twin_of=None, piece=spare)
        for twin, other in reversed(list(zip(twins, others, strict=True))):
            Sample.objects.filter(pk=twin.pk).update(twin_of=other, piece=None)
    else:
        Sample.objects.filter(pk=a.pk).update(piece=spare)
        Sample.objects.filter(pk=b.pk).update(piece=a.piece_id)
        Sample.objects.filter(pk=a.pk).update(piece=b.piece_id)
    spare.delete()


def some_cards(api, cook, kind: str) -> None:
    for at, taster in enumerate(("Kittiwake", "Marigold", "Tamarisk")):
        table = api("POST", f"trials/{cook.trial.id}/seat", {"taster": taster})[1]
        order = next(one["order"] for one in table["servings"] if one["taster"] == taster)
        document = card(table, taster, table["codes"][at % 2] if kind == "preference" else None, 5 + at)
        document["served"] = order
        document["scores"] = [score for score in document["scores"] if score["code"] in order]
        if kind == "ranking":
            document["scores"] += [{"code": code, "scale": "rank", "value": n + 1} for n, code in enumerate(order)]
        if kind == "triangle":
            document["odd"] = order[at]
        document["words"] = [{"code": order[0], "words": ["smoke"]}]
        status, answer = api("POST", f"trials/{cook.trial.id}/cards", document)
        assert status == 201, answer


def laid(api, cook, kind: str) -> None:
    """A trial of a kind with everything that could give it away, and three cards in."""
    twin = kind in ("ranking", "scores")
    status, said = designed(api, cook, kind=kind, twin=twin, guess=True, parts=["left", "right"])
    assert status == 200, said
    seats = [{"taster": name} for name in ("Kittiwake", "Marigold", "Tamarisk", "Halcyon")]
    version = api("GET", f"trials/{cook.trial.id}/design")[1]["version"]
    assert api("PUT", f"trials/{cook.trial.id}/seats", {"version": version, "seats": seats})[0] == 200
    some_cards(api, cook, kind)


@pytest.mark.parametrize("kind", ["preference", "ranking", "scores", "triangle"])
def test_nothing_but_a_look_tells_which_piece_is_behind_a_code(api, cook, kind):
    laid(api, cook, kind)
    codes = set(Sample.objects.filter(trial=cook.trial).values_list("code", flat=True))
    seed = Trial.objects.get(pk=cook.trial.pk).seed
    ids = {str(piece.pk) for piece in cook.pieces.all()} | {str(s.pk) for s in Sample.objects.filter(trial=cook.trial)}
    whole = kind == "scores"
    before = read_all(cook, whole)
    assert sum("/trials/" in path for path in before) >= 5
    for path, text in before.items():
        assert seed not in text, path
        if any(f'"{code}"' in text or f",{code}," in text for code in codes):
            # a code stands in answers of its trial alone, and beside no piece
            assert f"/trials/{cook.trial.pk}" in path, path
            assert '"letter":"A"' not in text.replace(" ", ""), path
            assert not any(key in text for key in ids), path
    # put other pieces, and other twins, behind the same codes: nothing says anything else
    swap(cook, of_twins=False)
    if kind != "preference":
        swap(cook, of_twins=True)
    after = read_all(cook, whole)
    for path in before:
        assert steady(after[path]) == steady(before[path]), path
    seen = api("POST", f"trials/{cook.trial.id}/looks", {"who": "Kittiwake"})[1]
    assert {plate["code"] for plate in seen["plates"]} == codes
    assert seen["seed"] == seed
    assert sum(plate["twin"] for plate in seen["plates"]) == {"preference": 0, "triangle": 2}.get(kind, 1)


def test_before_the_first_card_nothing_tells_either(api, cook):
    before = read_all(cook, False)
    swap(cook, of_twins=False)
    after = read_all(cook, False)
    for path in before:
        assert steady(after[path]) == steady(before[path]), path


def test_a_look_is_written_down_before_it_is_answered_and_costs_its_own_card_alone(api, cook, monkeypatch):
    assert api("GET", f"trials/{cook.trial.id}/looks")[0] == 405
    assert api("POST", f"trials/{cook.trial.id}/looks", {"who": " "})[0] == 422
    assert not Look.objects.exists()
    # an answer that fails has told nothing, and leaves nothing; one that came was written down
    monkeypatch.setattr("api.trials.design._seen", lambda found: 1 / 0)
    plain = Client(raise_request_exception=False, headers=OWN_PAGE)
    body = {"who": "Kittiwake"}
    assert plain.post(f"/api/trials/{cook.trial.id}/looks", body, "application/json").status_code == 500
    assert not Look.objects.exists()
    monkeypatch.undo()
    api("POST", f"trials/{cook.trial.id}/looks", {"who": "kittiwake"})
    assert [look.taster.nickname for look in Look.objects.all()] == ["Kittiwake"]
    for taster in ("Marigold", "Kittiwake"):
        assert api("POST", f"trials/{cook.trial.id}/cards", card(seat(api, cook), taster, None))[0] == 201
    assert {one["taster"]: one["blind"] for one in seat(api, cook)["cards"]} == {"Marigold": True, "Kittiwake": False}


def test_codes_and_orders_do_not_give_the_seed_away_and_no_code_comes_twice_in_an_evening(api, cook):
    trial = cook.trial
    fresh = api("POST", "cooks", {
        "name": "Second table", "serve_at": cook.serve_at.isoformat(),
        "pieces": [{"name": name, "cut": "duck-leg", "mass": "900 g", "blend_id": None} for name in ("One", "Two")],
    })  # fmt: skip
    assert fresh[0] == 201, fresh[1]
    other = Cook.objects.get(pk=fresh[1]["id"]).trial
    assert re.fullmatch(r"[0-9a-f]{64}", other.seed)  # 256 bits
    mine, theirs = ({one.code for one in of.samples.all()} for of in (trial, other))
    assert not mine & theirs
    # moved to an evening with the same codes, it gets others, while nobody has tasted
    with transaction.atomic():
        Cook.objects.filter(pk=other.cook_id).update(serve_at="2027-09-01T18:00:00Z")
        for sample, code in zip(other.samples.all(), sorted(mine), strict=True):
            Sample.objects.filter(pk=sample.pk).update(code=code)
    sent = as_sent(api("GET", f"cooks/{other.cook_id}")[1]) | {"serve_at": cook.serve_at.isoformat()}
    assert api("PUT", f"cooks/{other.cook_id}", sent)[0] == 200
    assert not mine & {one.code for one in other.samples.all()}


def test_after_the_reveal_everything_is_told(api, cook):
    designed(api, cook, kind="scores", twin=True, parts=["left half", "right half"])
    assert api("GET", f"trials/{cook.trial.id}/verdict")[1]["sides"][0]["name"] is None
    some_cards(api, cook, "scores")
    told = api("POST", f"trials/{cook.trial.id}/reveal")[1]["revealed"]
    assert {plate["letter"] for plate in told["plates"]} == {"A", "B"}
    assert sum(plate["twin"] for plate in told["plates"]) == 1
    assert sorted(part for some in told["dealt"].values() for part in some) == ["left half", "right half"]
    assert [plate["words"] for plate in told["plates"] if plate["words"]]
    assert "piece" in Client(headers=OWN_PAGE).get(f"/api/trials/{cook.trial.id}/cards.csv").content.decode()
    # it stays told
    assert api("POST", f"trials/{cook.trial.id}/reveal")[1]["revealed"]["at"] == told["at"]
    assert json.dumps(told).count('"code"') == 3
    assert UUID(seat(api, cook)["trial_id"]) == cook.trial.pk
