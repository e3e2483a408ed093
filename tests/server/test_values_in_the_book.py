"""Values in the book stand beside what was typed: no parser reads them twice, and no table moves what was kept."""

import importlib

import pytest
from book.mixtures import load_mixtures
from book.models import Batch, Blend, Layer, Line, Revision
from book.models.values import FORMAT, known_from
from django.apps import apps
from ravska_core.blend import read_blend
from ravska_core.catalogue import catalogue, known_of
from test_cook_api import as_sent, opened, saved, step


@pytest.fixture
def glaze(book) -> Blend:
    """A blend with a method that simmers, and a blend inside."""
    return Blend.objects.get(name="Lamb rub and honey glaze")


def read(revision: Revision):
    load_mixtures([], [revision])
    return read_blend(revision.blend.as_core(revision))


def corrected(revision: Revision, **values: object) -> None:
    """Let the tables have said something else when a revision was kept."""
    for line in revision.lines.all():
        line.as_read["known"].update({name.replace("__", "."): value for name, value in values.items()})
        line.save()


def unreadable(*_: object, **__: object) -> None:
    raise AssertionError("a parser read what had been read already")


def test_what_is_in_the_book_is_never_parsed_again(api, glaze, monkeypatch):
    addresses = [f"blends/{blend.pk}" for blend in Blend.objects.all()] + ["cooks/in-hand"]
    cooks = api("GET", "cooks")[1]
    before = [api("GET", address)[1] for address in addresses]
    for module, names in {
        "book.models.values": ("parse_label", "parse_lasts_s", "parse_reduction", "injection_of"),
        "ravska_core.measure.amounts": ("_one_number", "summed", "typed_tokens", "tokens_of"),
    }.items():
        for name in names:
            monkeypatch.setattr(importlib.import_module(module), name, unreadable)
    assert [api("GET", address)[1] for address in addresses] == before
    assert api("GET", "cooks")[1] == cooks


def test_a_format_of_a_later_ravska_is_not_read_as_if_it_were_this_one(api, glaze):
    draft = glaze.draft()
    draft.method["format"] = FORMAT + 1
    draft.save()
    status, shown = api("GET", f"blends/{glaze.pk}")
    assert (status, shown["reading"]) == (200, None)
    assert shown["problems"][0]["field"] == "method"
    assert "later Ravska" in shown["problems"][0]["sentence"]
    assert len(api("GET", "blends")[1]) == Blend.objects.filter(deleted_at=None, archived_at=None).count()


def test_what_could_not_be_read_is_asked_for_and_stays_as_typed(api, glaze):
    draft = glaze.draft()
    draft.method = {"format": FORMAT, "typed": draft.method["typed"], "value": None}
    draft.save()
    shown = api("GET", f"blends/{glaze.pk}")[1]
    assert "write it again" in shown["problems"][0]["sentence"]
    assert [step["by"] for step in shown["method"]] == [step["by"] for step in draft.method["typed"]]


def test_a_reserve_is_held_as_a_value_with_its_unit(api, book):
    board = opened(api)
    sent = as_sent(board)
    bath = next(x for p in sent["pieces"] for x in p["layers"] if x["kind"] == "marinade")
    bath["reserve"] = "½ cup"
    saved(api, board["id"], sent)
    row = Layer.objects.get(reserve__isnull=False)
    assert (row.reserve, row.reserve_unit, row.reserve_typed) == (pytest.approx(118.294, abs=0.001), "ml", "½ cup")
    assert row.as_core().reserve.value == row.reserve


def test_a_kept_line_holds_what_it_was_read_with(glaze):
    kept = glaze.keep("as it is")
    reading = read(kept)
    for line, row in zip(reading.lines, kept.lines.all(), strict=True):
        assert row.as_read["format"] == FORMAT
        assert row.as_read["mass_g"] == pytest.approx(line.share.value)
        assert dict(known_from(row.as_read))["density_g_ml" if row.inside_id else "grind.density_g_ml"] > 0
    assert glaze.draft().lines.exclude(as_read=None).count() == 0  # the draft goes by today's tables


def test_a_correction_of_the_tables_moves_nothing_kept_and_is_shown_beside_it(api, book):
    rub = Blend.objects.get(name="Towpath duck rub")
    kept = rub.keep("as it is")
    as_it_was = read(Revision.objects.get(pk=kept.pk)).salt.value
    corrected(kept, nacl=0.01)
    now = read(Revision.objects.get(pk=kept.pk))
    assert now.salt.value == pytest.approx(1.0)
    node = next(x for x in api("GET", f"blends/{rub.pk}/tree")[1] if x["id"] == str(kept.pk))
    assert node["salt"] == pytest.approx(1.0)
    assert f"→ {as_it_was:.0f} %" in node["corrected"]["words"]
    assert any(": salt 1 → " in said for said in node["corrected"]["tables"])
    # kept again by today's tables it is another revision, even with the same lines
    again = Blend.objects.get(pk=rub.pk).keep("again")
    assert (again.pk != kept.pk, again.number) == (True, kept.number + 1)
    assert Blend.objects.get(pk=rub.pk).keep("and again").pk == again.pk


def test_a_layer_that_was_mixed_says_that_the_tables_were_corrected(api, book):
    board = opened(api)
    mix = step(board, "A", "mix")
    address = f"cooks/{board['id']}/steps/{mix['id']}"
    assert api("POST", address, {"version": board["version"], "done": True})[0] == 200

    def says() -> list[str]:
        read = api("POST", "cooks/coat/read", as_sent(opened(api)))[1]
        return [layer["says"] for layer in read[0]["layers"]]

    assert not any("corrected" in one for one in says())
    corrected(Layer.objects.filter(revision__isnull=False, piece__cook=board["id"]).first().revision, nacl=0.01)
    assert any("Read as it was when it was mixed; by tables corrected since: salt" in one for one in says())


def test_a_batch_weighs_what_its_revision_was_kept_with(api, book):
    rub = Blend.objects.get(name="Towpath duck rub")
    batch = api("POST", "batches", {"blend": str(rub.pk), "version": rub.version, "wanted": "60 g"})[1]
    row = Batch.objects.get(pk=batch["id"])
    before = api("GET", f"batches/{batch['id']}")[1]["lines"]
    corrected(row.revision, grind__density_g_ml=0.9)
    after = api("GET", f"batches/{batch['id']}")[1]["lines"]
    assert [line["name"] for line in after] == [line["name"] for line in before]
    assert [line["wanted_g"] for line in after] == [line["wanted_g"] for line in before]


def test_lines_kept_before_this_are_given_what_they_read_with_now(glaze):
    """The migration's own reading agrees with the book's, blends inside and what a sieve held back included."""
    for blend in Blend.objects.filter(deleted_at=None):
        if blend.draft().lines.exists():
            blend.keep("all of them")
    wanted = dict(Line.objects.exclude(as_read=None).values_list("pk", "as_read"))
    Line.objects.update(as_read=None)
    migration = importlib.import_module("book.migrations.0008_values_beside_what_was_typed")
    migration.record_kept(apps.get_model("book", "Revision"), apps.get_model("book", "Line"))
    found = dict(Line.objects.exclude(as_read=None).values_list("pk", "as_read"))
    assert wanted.keys() <= found.keys()
    for key, was in wanted.items():
        assert found[key]["known"] == was["known"]
        assert found[key]["mass_g"] == pytest.approx(was["mass_g"], rel=1e-12)
    assert {len(was["known"]) for was in wanted.values()} == {1, len(known_of(catalogue().grinds["cloves/ground"]))}
