"""The book itself: rules kept by the database, writes at the same moment, the demo, the backup."""

import json
import os
import socket
import sqlite3
import subprocess
import sys
from contextlib import closing
from datetime import UTC, datetime, timedelta
from io import StringIO

import pytest
from book.board import kept_pieces, take_cut
from book.cooks import begin_cook, pin_layer
from book.demo import BLENDS, BRANCHES, load_demo, next_saturday_supper
from book.evening import add_salt, even_salt
from book.layers import usual_layer
from book.models import (
    Blend,
    Card,
    Cook,
    Household,
    Layer,
    Line,
    Piece,
    Preferences,
    Revision,
    Sample,
    Score,
    Step,
    Taster,
    WayLayer,
    WeighBack,
)
from django.conf import settings
from django.core.management import CommandError, call_command
from django.db import IntegrityError, connection, transaction
from ravska_core.blend import read_blend
from ravska_core.coat import read_coat
from ravska_core.working import BadInput

NOW = datetime(2027, 5, 4, 9, 0, tzinfo=UTC)


@pytest.mark.parametrize(
    ("model", "change"),
    [
        (Household, {"name": ""}),
        (Preferences, {"units": "stone"}),
        (Preferences, {"theme": "pink"}),
        (Blend, {"kind": "soup"}),
        (Blend, {"batch_g": -1}),
        (Blend, {"name": ""}),
        (Line, {"parts_numerator": 0}),
        (Line, {"parts_denominator": 0}),
        (Line, {"basis": "bucket"}),
        (Line, {"grind": ""}),
        (Line, {"lock": "tight"}),
        (Blend, {"fire": "volcano"}),
        (Revision, {"written": "roman"}),
        (Revision, {"total": "loose"}),
        (Revision, {"number": 3}),
        (Piece, {"mass_g": 0}),
        (Piece, {"count": 0}),
        (Piece, {"length_cm": 20.0}),
        (Piece, {"cut_into": "cubes"}),
        (Piece, {"grade": "prime"}),
        (WeighBack, {"coat_g_100cm2": 0}),
        (WayLayer, {"dose": -1}),
        (Cook, {"appetite": "huge"}),
        (Layer, {"kind": "frosting"}),
        (Layer, {"grind": "table-salt/fine"}),
        (Layer, {"hold_s": None}),
        (Layer, {"dose": 0}),
        (Layer, {"times": 0}),
        (Step, {"kind": "nap"}),
        (Step, {"lasts_s": -1}),
        (Cook, {"name": ""}),
        (Cook, {"in_hand": True}),
        (Piece, {"letter": "Z"}),
        (Piece, {"name": ""}),
        (Score, {"value": 10}),
        (Taster, {"nickname": ""}),
    ],
)
def test_the_database_itself_refuses_what_cannot_be(book, model, change):
    rows = model.objects.filter(kind="rub") if model is Layer else model.objects.all()
    with pytest.raises(IntegrityError), transaction.atomic():
        rows.update(**change)


def test_one_draft_a_blend_one_code_a_sample_one_card_a_taster(book, cook):
    blend = Blend.objects.first()
    with pytest.raises(IntegrityError), transaction.atomic():
        Revision.objects.create(blend=blend)
    a, b = Sample.objects.filter(trial=cook.trial)
    with pytest.raises(IntegrityError), transaction.atomic():
        Sample.objects.filter(pk=b.pk).update(code=a.code)
    card = Card.objects.first()
    with pytest.raises(IntegrityError), transaction.atomic():
        Card.objects.create(trial=card.trial, taster=card.taster, number=99, served=[], blind=True)
    card.deleted_at = NOW
    card.save()
    Card.objects.create(trial=card.trial, taster=card.taster, number=99, served=[], blind=True)


def test_the_connection_keeps_what_it_acknowledges(db):
    with connection.cursor() as cursor:
        found = {name: cursor.execute(f"PRAGMA {name}").fetchone()[0] for name in ("foreign_keys", "synchronous")}
    assert found == {"foreign_keys": 1, "synchronous": 2}  # 2 is FULL
    assert settings.DATABASES["default"]["OPTIONS"]["transaction_mode"] == "IMMEDIATE"


def test_the_demo_moves_into_an_empty_book_only(book):
    assert load_demo(NOW) is False
    assert Household.objects.get().name == "Weir House"
    out = StringIO()
    call_command("load_demo", stdout=out)
    assert "not empty" in out.getvalue()


def test_every_demo_blend_can_be_mixed_and_every_piece_be_coated(book):
    assert Blend.objects.count() == len(BLENDS) + len(BRANCHES)
    for blend in Blend.objects.all():
        found = read_blend(blend.as_core())
        assert 0 < found.salt.value < 85, blend.name
    for piece in Piece.objects.all():
        found = read_coat(piece.seasoned("usual"))
        assert 0.4 < found.salt.value < 2.2, (piece.cook.name, piece.name, found.salt.value)
        assert not [c for c in found.cautions if c.level == "stop"]


def test_the_demos_duck_is_a_clean_pair_and_its_goat_is_not(book):
    pairs = {
        cook.name: [read_coat(piece.seasoned("usual")).salt.value for piece in cook.pieces.all()]
        for cook in Cook.objects.all()
    }
    a, b = pairs["Wharf lunch, duck legs"]
    assert a == pytest.approx(b, abs=0.01)
    a, b = pairs["Lock-gate supper, goat leg"]
    assert abs(a - b) > 0.2


@pytest.mark.parametrize("day", range(14))
def test_supper_is_on_a_saturday_with_time_to_marinate(day):
    now = NOW + timedelta(days=day, hours=day)
    supper = next_saturday_supper(now)
    assert (supper.weekday(), supper.hour, supper.minute) == (5, 18, 30)
    assert timedelta(hours=30) <= supper - now <= timedelta(days=8, hours=10)


def test_a_taken_port_is_said_in_a_sentence(monkeypatch, tmp_path):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        monkeypatch.setitem(settings.DATABASES["default"], "NAME", str(tmp_path / "ravska.sqlite3"))
        monkeypatch.setenv("RAVSKA_LISTEN", f"127.0.0.1:{taken.getsockname()[1]}")
        monkeypatch.setattr("gc.freeze", lambda: None)
        monkeypatch.setattr("gc.set_threshold", lambda *_: None)
        with pytest.raises(CommandError, match="Is Ravska running there already"):
            call_command("serve", stdout=StringIO())


def test_salt_goes_on_after_a_bath_and_before_a_rub(cook):
    pieces = {piece.letter: piece for piece in cook.pieces.all()}
    add_salt(pieces["B"], 0.2)
    assert [layer.kind for layer in pieces["B"].layers.all()] == ["marinade", "pre-salt"]
    assert [layer.kind for layer in pieces["A"].layers.all()] == ["pre-salt", "rub", "glaze"]
    add_salt(pieces["A"], 0.2)
    assert pieces["A"].layers.get(kind="pre-salt").dose == pytest.approx(0.9)
    assert pieces["A"].layers.count() == 3


def test_evening_out_needs_two_pieces_that_can_be_read(cook):
    Piece.objects.filter(letter="B", cook=cook).update(cut="gone")
    with pytest.raises(BadInput) as refusal:
        even_salt(cook)
    assert "mend it in Coat" in refusal.value.sentence


def test_another_cut_brings_its_usual_times_unless_they_were_set(cook):
    piece = cook.pieces.get(letter="A")
    rest = piece.steps.get(kind="rest")
    rest.lasts_s = 55 * 60
    rest.save()
    kept = kept_pieces(cook)["A"]
    take_cut(kept, "duck-breast")
    assert kept.piece.cut == "duck-breast"
    lasts = {step.kind: step.lasts_s for step in kept.steps}
    assert lasts["on"] == 18 * 60  # the duck breast's own
    assert lasts["rest"] == 55 * 60  # as it was set


def test_a_pinned_layer_stays_pinned_and_a_second_pin_keeps_no_second_revision(cook):
    layer = Layer.objects.select_related("blend").get(piece__cook=cook, kind="rub")
    pin_layer(layer, cook)
    first = layer.revision
    line = layer.blend.draft().lines.first()
    line.parts_numerator += 1
    line.save()
    pin_layer(layer, cook)
    assert layer.revision == first
    assert Revision.objects.filter(blend=layer.blend, kept_at__isnull=False).count() == first.number
    second = Blend.objects.get(pk=layer.blend.pk).keep("changed since")
    assert (second.number, second.parent) == (first.number + 1, first)
    assert [x.parts_numerator for x in first.lines.all()] != [x.parts_numerator for x in second.lines.all()]


def test_a_marinade_of_a_gone_ingredient_still_begins_a_cook(book):
    blend = Blend.objects.get(name="Soy and honey bath")
    Line.objects.filter(revision__blend=blend, position=0).update(grind="gone/liquid")
    piece = Piece(cut="duck-leg", mass_g=900)
    assert usual_layer(piece, 0, blend).hold_s == 2 * 3600


def test_beginning_a_cook_puts_the_other_one_down(book, cook):
    from book.cooks import Beginning

    blends = Blend.objects.filter(kind__in=("dry rub", "marinade")).order_by("kind")
    pieces = [Beginning(name, "trout-whole", 400.0, "400 g", blend) for name, blend in zip("AB", blends, strict=False)]
    begun = begin_cook(cook.household, "Trout", NOW, pieces, seed="5")
    assert list(Cook.objects.filter(in_hand=True)) == [begun]
    assert Sample.objects.filter(trial=begun.trial).count() == 2


def test_a_book_of_the_first_form_of_layers_is_carried_over_whole(tmp_path):
    env = os.environ | {"RAVSKA_DATA": str(tmp_path), "PYTHONPATH": "core:server"}

    def manage(*words: str) -> None:
        subprocess.run([sys.executable, "server/manage.py", *words], env=env, check=True, capture_output=True)

    manage("migrate", "--skip-checks", "book", "0003")
    house, cook, blend, piece = (f"{n:032x}" for n in (1, 2, 3, 4))
    when = "2026-11-01 12:00:00"
    with closing(sqlite3.connect(tmp_path / "ravska.sqlite3")) as book, book:

        def put(table: str, **row) -> None:
            names = ", ".join(f'"{name}"' for name in row)
            book.execute(f"INSERT INTO book_{table} ({names}) VALUES ({', '.join('?' * len(row))})", list(row.values()))

        put("household", id=house, name="Weir House")
        put("cook", id=cook, name="Old", serve_at=when, in_hand=0, version=1, household_id=house)
        put("blend", id=blend, name="Rub", kind="dry rub", batch_g=50, batch_typed="50 g", fire="", version=1,
            created_at=when, household_id=house)  # fmt: skip
        put("piece", id=piece, cut="lamb-shoulder", mass_g=2000, mass_typed="2 kg", count=1, coat_bare_face=1,
            length_typed="", width_typed="", thickness_typed="", cook_id=cook)  # fmt: skip
        rest = {"vessel": "", "hold_typed": "", "hold_c": 4.0, "piece_id": piece}
        put("layer", id=f"{5:032x}", position=0, kind="salt", surface="", grind="table-salt/fine", percent=0.7, **rest)
        put("layer", id=f"{6:032x}", position=1, kind="rub", surface="mustard", grind="", coat_g_100cm2=8.0,
            hold_s=3600.0, blend_id=blend, **rest)  # fmt: skip
    manage("migrate", "--skip-checks")
    with closing(sqlite3.connect(tmp_path / "ravska.sqlite3")) as book:
        rows = book.execute("SELECT kind, grind, dose, hold_s FROM book_layer ORDER BY position").fetchall()
        faces = book.execute("SELECT faces FROM book_piece").fetchone()[0]
    assert rows == [
        ("pre-salt", "table-salt/fine", 0.7, 1800.0),
        ("binder", "mustard-prepared/paste", 2.4, None),
        ("rub", "", 8.0, 3600.0),
    ]
    assert json.loads(faces) == {"fat cap": "coated"}
