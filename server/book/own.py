"""What the household has of its own, in the catalogue for as long as the book stays as it is."""

import threading
from contextlib import suppress
from typing import Any, TypeVar
from uuid import UUID

from django.db import OperationalError, connection
from django.http import Http404
from django.utils import timezone
from ravska_core.catalogue import NOTHING_OWN, Own, Trim, folded, grind_of_own, take_own
from ravska_core.catalogue import OwnIngredient as CoreIngredient
from ravska_core.heat import Kitchen, cooker_of_own, take_kitchen
from ravska_core.heat import OwnCooker as CoreCooker
from ravska_core.meat import Measures, cut_of_own
from ravska_core.meat import OwnCut as CoreCut
from ravska_core.working import BadInput

from book.models import (
    Household,
    Layer,
    Line,
    OwnCooker,
    OwnCut,
    OwnIngredient,
    OwnName,
    Piece,
    Preferences,
    claim_version,
)
from book.unchanged import kept_while_unchanged

Stamp = tuple[tuple[object, ...], ...]

DAMAGED = (BadInput, TypeError, ValueError, AttributeError)
"""What a row may raise that was damaged from outside; it closes nothing else."""

_lock = threading.Lock()
_taken: tuple[Stamp, Own] = ((), NOTHING_OWN)

_STAMP = """
SELECT id, version FROM book_owningredient WHERE deleted_at IS NULL
UNION ALL SELECT id, version FROM book_owncut WHERE deleted_at IS NULL
UNION ALL SELECT id, version FROM book_owncooker WHERE deleted_at IS NULL
UNION ALL SELECT 'height', height_m FROM book_preferences
UNION ALL SELECT name, means FROM book_ownname ORDER BY 1
"""


@kept_while_unchanged
def _stamp() -> Stamp:
    """Return what tells whether something of it changed, by one query: it is asked before every write."""
    with connection.cursor() as cursor:
        cursor.execute(_STAMP)
        return tuple(tuple(row) for row in cursor.fetchall())


def core_ingredient(key: str, name: str, made_from: str, values: dict[str, Any]) -> CoreIngredient:
    """Return an own ingredient as the core reads it."""
    known: dict[str, Any] = {name: tuple(value) if isinstance(value, list) else value for name, value in values.items()}
    return CoreIngredient(key=key, name=name, made_from=made_from, **known)


def core_cut(key: str, name: str, values: dict[str, Any]) -> CoreCut:
    """Return an own cut as the core reads it."""
    known: dict[str, Any] = {**values, "measures": Measures(*values["measures"]) if values.get("measures") else None}
    known["faces"] = tuple((face, share) for face, share in values.get("faces", ()))
    known["trims"] = tuple(Trim(*trim) for trim in values.get("trims", ()))
    return CoreCut(key=key, name=name, **known)


def core_cooker(key: str, name: str, values: dict[str, Any]) -> CoreCooker:
    """Return an own cooker as the core reads it."""
    return CoreCooker(key=key, name=name, **{**values, "spots_c": tuple(values.get("spots_c", ()))})


def _kitchen() -> Kitchen:
    """Return the household's kitchen as the book has it."""
    cookers = {}
    for row in OwnCooker.objects.filter(deleted_at__isnull=True).order_by("created_at", "pk"):
        with suppress(*DAMAGED):
            cookers[row.key] = cooker_of_own(core_cooker(row.key, row.name, row.values))
    height = Preferences.objects.order_by().values_list("height_m", flat=True).first()
    return Kitchen(cookers, height or 0.0)


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
        grinds, cuts = [], []
        for row in OwnIngredient.objects.filter(deleted_at__isnull=True).order_by("created_at", "pk"):
            with suppress(*DAMAGED):
                grinds.append(grind_of_own(core_ingredient(row.key, row.name, row.made_from, row.values)))
        for own in OwnCut.objects.filter(deleted_at__isnull=True).order_by("created_at", "pk"):
            with suppress(*DAMAGED):
                cuts.append(cut_of_own(core_cut(own.key, own.name, own.values)))
        names = OwnName.objects.order_by("name").values_list("name", "means")
        found = Own(tuple(grinds), tuple(cuts), tuple(names))
        _taken = (stamp, found if stamp else NOTHING_OWN)
        take_own(_taken[1])
        take_kitchen(_kitchen())


def _on(row: OwnCooker) -> list[Piece]:
    """Return the pieces that a cooker cooks."""
    pieces = Piece.objects.exclude(phases=[]).select_related("cook").order_by("cook__name")
    return [piece for piece in pieces if any(one["typed"].get("cooker") == row.key for one in piece.phases)]


def used_in(row: OwnIngredient | OwnCut | OwnCooker) -> list[str]:
    """Return where it is: the blends that hold it, in a draft or a kept revision, and the cooks it is on, or is."""
    if isinstance(row, OwnCooker):
        return list(dict.fromkeys(piece.cook.name for piece in _on(row) if piece.cook.deleted_at is None))
    if isinstance(row, OwnCut):
        pieces = Piece.objects.filter(cut=row.key, cook__deleted_at__isnull=True)
        return list(dict.fromkeys(pieces.order_by("cook__name").values_list("cook__name", flat=True)))
    lines = Line.objects.filter(grind__startswith=f"{row.key}/", revision__blend__deleted_at__isnull=True)
    layers = Layer.objects.filter(grind__startswith=f"{row.key}/", piece__cook__deleted_at__isnull=True)
    blends = lines.order_by("revision__blend__name").values_list("revision__blend__name", flat=True)
    cooks = layers.order_by("piece__cook__name").values_list("piece__cook__name", flat=True)
    return list(dict.fromkeys([*blends, *cooks]))


def _held(row: OwnIngredient | OwnCut | OwnCooker) -> bool:
    if isinstance(row, OwnCooker):
        return bool(_on(row))
    if isinstance(row, OwnCut):
        return Piece.objects.filter(cut=row.key).exists()
    starts = f"{row.key}/"
    return (
        Line.objects.filter(grind__startswith=starts).exists()
        or Layer.objects.filter(grind__startswith=starts).exists()
    )


def retired_cuts() -> frozenset[str]:
    """Return the keys of own cuts that are offered no more."""
    rows = OwnCut.objects.filter(retired_at__isnull=False, deleted_at__isnull=True).only("pk")
    return frozenset(row.key for row in rows)


def retired_cookers() -> frozenset[str]:
    """Return the keys of own cookers that are offered no more."""
    rows = OwnCooker.objects.filter(retired_at__isnull=False, deleted_at__isnull=True).only("pk")
    return frozenset(row.key for row in rows)


Owned = TypeVar("Owned", OwnIngredient, OwnCut, OwnCooker)


def one_of_own(model: type[Owned], household: Household, own_id: UUID) -> Owned:
    """Return one of the household's own things that is not deleted, or refuse as not found."""
    row = model.objects.filter(household=household, pk=own_id, deleted_at__isnull=True).first()
    if row is None:
        raise Http404
    return row


def another_named(row: Owned | type[Owned], household: Household, name: str, besides: UUID | None = None) -> bool:
    """Tell whether another one that is not deleted has this name."""
    model = row if isinstance(row, type) else type(row)
    rows = model.objects.filter(household=household, deleted_at__isnull=True).only("pk", "name")
    return any(folded(one.name) == folded(name) and one.pk != besides for one in rows)


def take_away(row: Owned, version: int) -> Owned:
    """Take one away: deleted where nothing holds it, what was deleted and may come back included; else retired."""
    claim_version(row, version)
    if _held(row):
        row.retired_at = timezone.now()
    else:
        row.deleted_at = timezone.now()
    row.save(update_fields=["retired_at", "deleted_at"])
    return row


def take_back(model: type[Owned], household: Household, own_id: UUID) -> Owned:
    """Undo that one was taken away, unless another has its name by now."""
    row = model.objects.filter(household=household, pk=own_id).first()
    if row is None:
        raise Http404
    if another_named(model, household, row.name, own_id):
        raise BadInput("name", f"Another one is called “{row.name}” by now; rename that first.")
    row.retired_at = row.deleted_at = None
    row.version += 1
    row.save(update_fields=["retired_at", "deleted_at", "version"])
    return row
