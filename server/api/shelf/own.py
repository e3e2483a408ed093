"""Shelf: ingredients of the household's own, and its own names for what the catalogue has."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Literal
from uuid import UUID

from book.models import OwnIngredient, OwnName, claim_version
from book.own import DAMAGED, another_named, core_ingredient, one_of_own, take_away, take_back, used_in
from django.http import HttpRequest
from ninja import Schema
from pydantic import AfterValidator, Field
from ravska_core.blend.label import read_portion
from ravska_core.blend.panel import LONGEST_PANEL, Panel, read_panel
from ravska_core.catalogue import ALLERGENS, SODIUM_IN_NACL, catalogue, folded, grind_of_own, match, panel_shares
from ravska_core.working import BadInput

from api.plumbing.answers import Created, Router
from api.plumbing.household import household
from api.plumbing.problems import Gather
from api.plumbing.quantities import Grams, Keeping, Share
from api.plumbing.typed import Key, Typed, Version, printable
from api.plumbing.versions import VersionDocument

router = Router()


class OwnDocument(Schema):
    """An own ingredient as typed: from a label, from amounts in %, or as another one (`like`) with changes.

    Of a label `sodium` or `salt` a portion; `spoon_mass` is what a level `spoon` of it weighs, `keeps` how long.
    """

    name: Annotated[str, Field(max_length=60), AfterValidator(printable)] = ""
    made_from: Literal["label", "amounts", "like"] = "amounts"
    like: Key = ""
    portion: Typed = ""
    sodium: Typed = ""
    salt: Typed = ""
    sugars: Typed = ""
    fat: Typed = ""
    carbohydrate: Typed = ""
    protein: Typed = ""
    water: Typed = ""
    acid: Typed = ""
    spoon: Literal["tsp", "tbsp", "cup"] = "tbsp"
    spoon_mass: Typed = ""
    wet: bool = False
    allergens: Annotated[list[Key], Field(max_length=len(ALLERGENS), default=[])]
    keeps: Typed = ""


class OwnSave(OwnDocument):
    version: Version


@dataclass(frozen=True, slots=True)
class OwnReadOut:
    """What an own ingredient comes to [%, g/ml], and how far that may be off [%]."""

    salt: float
    sugars: float
    fat: float
    water: float
    acid: float
    density_g_ml: float
    error: float


@dataclass(frozen=True, slots=True)
class OwnOut:
    """An own ingredient: as typed, its key in the catalogue, what it comes to, and the blends that hold it."""

    id: UUID
    version: int
    key: str
    name: str
    typed: OwnDocument
    reads: OwnReadOut | None
    retired: bool
    used_in: list[str]


_LABEL_FIELDS = ("sodium", "salt", "sugars", "fat", "carbohydrate", "protein")


def _values(document: OwnDocument) -> dict[str, Any]:
    """Read what was typed into what the core knows an own ingredient by; all that is wrong is said at once."""
    gather = Gather()
    found: dict[str, Any] = {"like": document.like, "spoon": document.spoon, "wet": document.wet}
    found["allergens"] = list(document.allergens)
    if document.spoon_mass:
        found["spoon_g"] = gather.value("spoon_mass", Grams(document.spoon_mass))
    if document.keeps:
        days = gather.value("keeps", Keeping(document.keeps))
        found["keeps_days"] = days
    if document.made_from == "label":
        found |= _of_label(document, gather)
    else:
        for field in ("salt", "sugars", "fat", "water", "acid"):
            name = "nacl" if field == "salt" else field
            text = getattr(document, field).strip().removesuffix("g")  # "30 g", of 100 g of it
            if text:
                percent = gather.value(field, Share(text))
                found[name] = percent / 100 if percent is not None else None
    if document.made_from == "label" and document.water:
        percent = gather.value("water", Share(document.water))
        found["water"] = percent / 100 if percent is not None else None
    gather.finish()
    return found


def _of_label(document: OwnDocument, gather: Gather) -> Mapping[str, float]:
    portion = gather.attempt("", read_portion, document.portion)
    grams = {
        field: gather.value(field, Amount(getattr(document, field))) if getattr(document, field) else None
        for field in _LABEL_FIELDS
    }
    if grams["sodium"] is None and grams["salt"] is None and not gather.errors:
        gather.refuse("sodium", "Write its sodium or its salt, as the panel has it.")
    if portion is not None and portion[0] is None and not gather.errors:
        gather.refuse("portion", "Write what the portion weighs in grams.")
    gather.finish()
    assert portion is not None
    sodium = grams["sodium"] if grams["sodium"] is not None else (grams["salt"] or 0.0) * SODIUM_IN_NACL
    return panel_shares(
        portion[0] or 0.0, sodium, grams["sugars"] or 0.0, grams["fat"] or 0.0, grams["carbohydrate"], grams["protein"]
    )


class Amount(Grams):
    """An amount on a panel [g]; it may be nothing."""

    low, high = 0.0, 1000.0


def _read(key: str, document: OwnDocument, values: Mapping[str, Any]) -> OwnReadOut:
    try:
        grind = grind_of_own(core_ingredient(key, document.name or "it", document.made_from, dict(values)))
    except BadInput as refusal:
        fields = {"nacl": "salt", "spoon_g": "spoon_mass", "keeps_days": "keeps"}
        raise BadInput(fields.get(refusal.argument, refusal.argument), refusal.sentence) from None
    of = grind.ingredient
    return OwnReadOut(of.nacl * 100, of.sugars * 100, of.fat * 100, of.water * 100, of.acid * 100, grind.density_g_ml,
                      of.error * 100)  # fmt: skip


def _out(row: OwnIngredient) -> OwnOut:
    typed = OwnDocument(**row.typed)
    try:
        reads = _read(row.key, typed, row.values)
    except DAMAGED:
        reads = None
    key, retired = f"{row.key}/own", row.retired_at is not None
    return OwnOut(row.pk, row.version, key, row.name, typed, reads, retired, used_in(row))


def _check_name(document: OwnDocument, besides: UUID | None = None) -> None:
    name = document.name.strip()
    if not name:
        raise BadInput("name", "Give it a name.")
    if another_named(OwnIngredient, household(), name, besides):
        raise BadInput("name", f"You have an ingredient called “{name}” already; change that one, or say what differs.")
    shipped = match(name).grind
    if shipped is not None and not shipped.startswith("own-"):
        said = catalogue().grinds[shipped].said
        raise BadInput("name", f"“{name}” means {said} already; give yours a name of its own, such as whose it is.")


class PacketDocument(Schema):
    """A packet's text as it was pasted or typed off."""

    text: Annotated[str, Field(max_length=LONGEST_PANEL), AfterValidator(printable)]


@router.asks("/packet")
def read_packet(request: HttpRequest, document: PacketDocument) -> Panel:
    """Read a packet's text, in US or EU style, into what a label's fields hold; what is not found stays empty."""
    return read_panel(document.text)


@router.reads("/own-ingredients")
def list_own(request: HttpRequest) -> list[OwnOut]:
    """Return the household's own ingredients, with the blends that hold them."""
    rows = OwnIngredient.objects.filter(household=household(), deleted_at__isnull=True)
    return [_out(row) for row in rows]


@router.asks("/own-ingredients/read")
def read_own(request: HttpRequest, document: OwnDocument) -> OwnReadOut:
    """Say what an own ingredient comes to as it is typed. Nothing is saved."""
    return _read("own-new", document, _values(document))


@router.posts("/own-ingredients")
def make_own(request: HttpRequest, document: OwnDocument) -> Created[OwnOut]:
    """Make an ingredient of the household's own; the catalogue has it from then on."""
    _check_name(document)
    values = _values(document)
    _read("own-new", document, values)
    row = OwnIngredient.objects.create(
        household=household(), name=document.name.strip(), made_from=document.made_from,
        typed=document.model_dump(mode="json"), values=values,
    )  # fmt: skip
    return Created(_out(row))


@router.puts("/own-ingredients/{uuid:own_id}")
def save_own(request: HttpRequest, own_id: UUID, document: OwnSave) -> OwnOut:
    """Change an own ingredient; blends that hold it follow, kept revisions stay as they were read."""
    row = one_of_own(OwnIngredient, household(), own_id)
    _check_name(document, own_id)
    values = _values(document)
    _read(row.key, document, values)
    claim_version(row, document.version)
    row.name, row.made_from = document.name.strip(), document.made_from
    row.typed, row.values = document.model_dump(mode="json", exclude={"version"}), values
    row.save(update_fields=["name", "made_from", "typed", "values"])
    return _out(row)


@router.posts("/own-ingredients/{uuid:own_id}/remove")
def remove_own(request: HttpRequest, own_id: UUID, document: VersionDocument) -> OwnOut:
    """Take an own ingredient away: deleted where nothing holds it, else retired, which is said with where it is."""
    return _out(take_away(one_of_own(OwnIngredient, household(), own_id), document.version))


@router.posts("/own-ingredients/{uuid:own_id}/restore")
def restore_own(request: HttpRequest, own_id: UUID) -> OwnOut:
    """Take back that one was removed."""
    return _out(take_back(OwnIngredient, household(), own_id))


class OwnNameDocument(Schema):
    """What the household calls an ingredient or a cut, which is what it `means`; "" takes the name away."""

    name: Annotated[str, Field(max_length=60), AfterValidator(printable)]
    means: Key = ""


@router.reads("/own-names")
def list_names(request: HttpRequest) -> list[OwnNameDocument]:
    """Return the household's own names."""
    rows = OwnName.objects.filter(household=household()).values_list("name", "means")
    return [OwnNameDocument(name=name, means=means) for name, means in rows]


@router.puts("/own-names")
def save_name(request: HttpRequest, document: OwnNameDocument) -> OwnNameDocument:
    """Keep what the household calls an ingredient or a cut: it is understood by that name from then on."""
    name = folded(document.name).strip()
    if not name:
        raise BadInput("name", "Write the name you call it by.")
    rows = OwnName.objects.filter(household=household(), name=name)
    if not document.means:
        rows.delete()
        return document
    key = document.means.split("/")[0]
    if key not in catalogue().ingredients and key not in catalogue().cuts:
        raise BadInput("means", "This is not in the catalogue; choose another.")
    OwnName.objects.update_or_create(household=household(), name=name, defaults={"means": key})
    return OwnNameDocument(name=name, means=key)
