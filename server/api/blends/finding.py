"""Blend: what is meant by words typed into a box: ingredients and blends of one's own, best first."""

from dataclasses import dataclass
from typing import Annotated, Literal, cast
from uuid import UUID

from book.models import Blend, OwnIngredient
from django.http import HttpRequest
from ninja import Schema
from pydantic import AfterValidator, Field
from ravska_core.catalogue import catalogue, folded
from ravska_core.exchange import SURE, find

from api.plumbing.answers import Router
from api.plumbing.household import household, spoon_set
from api.plumbing.typed import printable

router = Router()


class FindDocument(Schema):
    """Words as they are being typed."""

    text: Annotated[str, Field(max_length=200), AfterValidator(printable)]


@dataclass(frozen=True, slots=True)
class FoundOut:
    """A thing that may be meant; `sure` says that it may be taken without looking."""

    key: str
    blend: UUID | None
    name: str
    says: str
    colour: str
    rank: Literal["whole", "begins", "inside", "near"]
    sure: bool


@dataclass(frozen=True, slots=True)
class SoughtOut:
    """What was looked for, best first, by which name, and the amount where one was typed with that."""

    found: list[FoundOut]
    name: str
    amount: str


@router.asks("/find")
def look_for(request: HttpRequest, document: FindDocument) -> SoughtOut:
    """Find what is meant: whole words go before beginnings, those before insides; what is misspelt is offered."""
    rows = Blend.objects.filter(household=household(), deleted_at__isnull=True, archived_at__isnull=True)
    names = {str(key): name for key, name in rows.values_list("pk", "name")}
    sought = find(document.text, spoon_set(), {folded(name).strip(): key for key, name in names.items()})
    grinds = catalogue().grinds
    gone = {f"{row.key}/own" for row in OwnIngredient.objects.filter(retired_at__isnull=False).only("pk")}
    return SoughtOut(
        found=[
            FoundOut(
                key=one.grind,
                blend=UUID(one.blend) if one.blend else None,
                name=one.name[:1].upper() + one.name[1:] if one.grind else names[one.blend],
                says=f"{grinds[one.grind].density_g_ml:.2f} g/ml" if one.grind else "blend",
                colour=grinds[one.grind].ingredient.colour if one.grind else "",
                rank=cast(Literal["whole", "begins", "inside", "near"], one.rank),
                sure=one.rank in SURE,
            )
            for one in sought.found
            if one.grind not in gone
        ],
        name=sought.name,
        amount=sought.amount.said if sought.amount else "",
    )
