"""What a blend is exactly, as it lies beside the text it is taken out as, and read back into any book."""

import json
from dataclasses import dataclass
from uuid import UUID

from book.models import Blend
from pydantic import ValidationError
from ravska_core.catalogue import catalogue, folded
from ravska_core.working import BadInput

from api.blends.documents import BlendDocument
from api.blends.reading import BlendAsTyped, read_document
from api.blends.store import TypedBlendOut
from api.plumbing.household import household

_KEPT = ("name", "kind", "fire", "batch", "lines", "written", "base", "total", "targets", "method", "label")
"""What of a document is the blend itself; uses name layers and blends of this book, and stay in it."""


def exact_of(typed: TypedBlendOut) -> str:
    """Return a blend as typed as JSON, with the names of the blends inside it."""
    document = BlendDocument.model_validate({name: getattr(typed, name) for name in _KEPT}, from_attributes=True)
    inside = {str(line.blend) for line in document.lines if line.blend}
    names = {str(key): name for key, name in Blend.objects.filter(pk__in=inside).values_list("pk", "name")}
    blend = document.model_dump(mode="json", exclude={"uses"})
    return json.dumps({"blend": blend, "inside": names}, ensure_ascii=False, sort_keys=True)


@dataclass(frozen=True)
class Exact:
    """A blend read back exactly, or why it cannot be."""

    typed: BlendAsTyped | None
    note: str = ""


def read_exact(text: str) -> Exact:
    """Read back what lay beside a text; blends inside are those of this book, by key or else by name."""
    if not text:
        return Exact(None)
    damaged = Exact(None, "The exact ratio that came with this is damaged; it is read from its text.")
    try:
        held = json.loads(text)
        inside, body = held["inside"], json.dumps(held["blend"], ensure_ascii=False)
        for key, name in inside.items():
            here = _here(key, name)
            if here is None:
                said = f"“{name}”, which lies inside, is not in this book; the ratio is read from the text."
                return Exact(None, said)
            body = body.replace(str(UUID(key)), here)
        document = BlendDocument.model_validate_json(body)
    except (ValueError, KeyError, TypeError, AttributeError, RecursionError, ValidationError):
        return damaged
    if any(line.grind and line.grind not in catalogue().grinds for line in document.lines):
        return Exact(None, "It holds something this catalogue does not know; the ratio is read from the text.")
    try:
        return Exact(read_document(document))
    except BadInput:
        return damaged


def _here(key: str, name: str) -> str | None:
    rows = Blend.objects.filter(household=household(), deleted_at__isnull=True)
    if rows.filter(pk=UUID(key)).exists():
        return str(UUID(key))
    found = [row for row in rows.only("pk", "name") if folded(row.name).strip() == folded(str(name)).strip()]
    return str(found[0].pk) if found else None
