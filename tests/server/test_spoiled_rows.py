"""One row that is damaged closes no list: it is shown as what it is, and can be taken off it."""

import pytest
from book.models import Batch, Blend, Cook, Jar, Way
from django.db import connection


def spoil(table: str, column: str, value: object, key: object) -> None:
    """Write into the book what nothing of Ravska's could."""
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA ignore_check_constraints = ON")
        cursor.execute(f'UPDATE "{table}" SET "{column}" = %s WHERE id = %s', [value, key.hex])
        cursor.execute("PRAGMA ignore_check_constraints = OFF")
        assert cursor.rowcount != 0


@pytest.mark.parametrize(
    ("table", "column", "value", "of", "address"),
    [
        ("book_blend", "created_at", "2027-13-45", lambda: (Blend.objects.first(), None), "blends"),
        ("book_revision", "method", '"boil"', lambda: (Blend.objects.first(), Blend.objects.first().draft()), "blends"),
        ("book_cook", "serve_at", "soon", lambda: (Cook.objects.first(), None), "cooks"),
        ("book_batch", "started_at", "2027-13-45", lambda: (Batch.objects.first(), None), "batches"),
        ("book_jar", "size_ml", "large", lambda: (Jar.objects.first().batch, Jar.objects.first()), "batches"),
    ],
)  # fmt: skip
def test_a_damaged_row_is_shown_as_what_it_is_among_the_others(api, book, table, column, value, of, address):
    row, inside = of()
    before = {one["id"] for one in api("GET", address)[1]}
    spoil(table, column, value, (inside or row).pk)
    status, rows = api("GET", address)
    assert status == 200
    assert {one["id"] for one in rows} == before
    bad = next(one for one in rows if one["id"] == str(row.pk))
    assert bad["name"] == row.name
    assert "make restore" in bad["problem"]


def test_a_damaged_way_is_listed_and_can_be_deleted(api, book, cook):
    layers = api("GET", f"cooks/{cook.pk}")[1]["pieces"][0]["layers"]
    before = {row["name"] for row in api("GET", "cooks/ways")[1]}
    for name in ("Lock-side", "Towpath"):
        assert api("POST", "cooks/ways", {"name": name, "layers": layers})[0] == 201
    way = Way.objects.get(name="Lock-side")
    spoil("book_waylayer", "kind", "varnish", way.layers.first().pk)
    rows = api("GET", "cooks/ways")[1]
    assert {row["name"] for row in rows} == before | {"Lock-side", "Towpath"}
    assert [row["name"] for row in rows if row["problem"]] == ["Lock-side"]
    left = api("POST", f"cooks/ways/{way.pk}/delete", {})[1]
    assert {row["name"] for row in left} == before | {"Towpath"}
