"""What the household has of its own, in the catalogue for as long as the book stays as it is."""

import threading
from typing import Any

from django.db import OperationalError, connection
from ravska_core.catalogue import NOTHING_OWN, Own, grind_of_own, take_own
from ravska_core.catalogue import OwnIngredient as CoreOwn
from ravska_core.working import BadInput

from book.models import Layer, Line, OwnIngredient, OwnName
from book.unchanged import kept_while_unchanged

Stamp = tuple[tuple[object, ...], ...]

_lock = threading.Lock()
_taken: tuple[Stamp, Own] = ((), NOTHING_OWN)

_STAMP = """
SELECT id, version FROM book_owningredient WHERE deleted_at IS NULL
UNION ALL SELECT name, ingredient FROM book_ownname ORDER BY 1
"""


@kept_while_unchanged
def _stamp() -> Stamp:
    """Return what tells whether something of it changed, by one query: it is asked before every write."""
    with connection.cursor() as cursor:
        cursor.execute(_STAMP)
        return tuple(tuple(row) for row in cursor.fetchall())


def core_own(row: OwnIngredient) -> CoreOwn:
    """Return an own ingredient as the core reads it."""
    values: dict[str, Any] = {"key": row.key, "name": row.name, "made_from": row.made_from}
    values |= {name: tuple(value) if isinstance(value, list) else value for name, value in row.values.items()}
    return CoreOwn(**values)


def take_what_is_own() -> None:
    """See that the catalogue holds what the household has of its own, as the book has it now."""
    global _taken
    try:
        stamp = _stamp()
    except OperationalError:  # a book of an earlier schema has none; its condition is said elsewhere
        return
    if stamp == _taken[0]:
        return
    with _lock:
        grinds = []
        for row in OwnIngredient.objects.filter(deleted_at__isnull=True).order_by("created_at", "pk"):
            try:
                grinds.append(grind_of_own(core_own(row)))
            except (BadInput, TypeError):
                continue  # a row damaged from outside closes nothing else
        names = OwnName.objects.order_by("name").values_list("name", "ingredient")
        found = Own(tuple(grinds), tuple(names))
        _taken = (stamp, found if stamp else NOTHING_OWN)
        take_own(_taken[1])


def used_in(row: OwnIngredient) -> list[str]:
    """Return where it is: the blends that hold it, in a draft or a kept revision, and the cooks it is put on in."""
    lines = Line.objects.filter(grind__startswith=f"{row.key}/", revision__blend__deleted_at__isnull=True)
    layers = Layer.objects.filter(grind__startswith=f"{row.key}/", piece__cook__deleted_at__isnull=True)
    blends = lines.order_by("revision__blend__name").values_list("revision__blend__name", flat=True)
    cooks = layers.order_by("piece__cook__name").values_list("piece__cook__name", flat=True)
    return list(dict.fromkeys([*blends, *cooks]))
