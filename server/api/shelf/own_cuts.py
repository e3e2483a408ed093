"""Shelf: cuts of the household's own."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Literal
from uuid import UUID

from book.models import OwnCut, claim_version
from book.own import DAMAGED, another_named, core_cut, one_of_own, take_away, take_back, used_in
from django.http import HttpRequest
from ninja import Schema
from pydantic import AfterValidator, Field
from ravska_core.catalogue import FACES
from ravska_core.meat import MOST_TRIMS, Piece, cut_named, cut_of_own, read_piece, solid_of_own, usual_mass_g
from ravska_core.working import BadInput

from api.plumbing.answers import Created, Router
from api.plumbing.household import household
from api.plumbing.problems import Gather
from api.plumbing.quantities import Length, Mass, Share
from api.plumbing.typed import Key, Typed, Version, printable
from api.plumbing.versions import VersionDocument

router = Router()

Becomes = Literal["own piece", "pot", "render", "bin"]


class FaceDocument(Schema):
    """A face of an own cut and its share of the whole surface, in %."""

    name: Key
    share: Typed = ""


class TrimDocument(Schema):
    """What comes off an own cut, its share of the weight as bought, in %, and what becomes of it."""

    what: Annotated[str, Field(max_length=40), AfterValidator(printable)] = ""
    share: Typed = ""
    becomes: Becomes = "bin"


class OwnCutDocument(Schema):
    """An own cut as typed: the cut it is nearest to (`like`), and what differs; "" for as that.

    `length`, `width`, `thickness` are those of one piece and `mass` what it weighs trimmed; `bone` is in % of that.
    """

    name: Annotated[str, Field(max_length=60), AfterValidator(printable)] = ""
    like: Key = ""
    shape: Key = ""
    animal: Key = ""
    length: Typed = ""
    width: Typed = ""
    thickness: Typed = ""
    mass: Typed = ""
    bone: Typed = ""
    faces: Annotated[list[FaceDocument], Field(max_length=len(FACES))] = Field(default=[])
    trims: Annotated[list[TrimDocument], Field(max_length=MOST_TRIMS)] = Field(default=[])


class OwnCutSave(OwnCutDocument):
    version: Version


@dataclass(frozen=True, slots=True)
class OwnCutReadOut:
    """What an own cut comes to: its surface [cm2] at a weight [g], how far that may be off [%], edible and bought [g].

    `measured_g` is what its measures would weigh, None where it was not measured.
    """

    mass_g: float
    area_cm2: float
    error: float
    edible_g: float
    bought_g: float
    measured_g: float | None
    shape: str


@dataclass(frozen=True, slots=True)
class OwnCutOut:
    """An own cut: as typed, its key in the catalogue, what it comes to, and the cooks it is in."""

    id: UUID
    version: int
    key: str
    name: str
    typed: OwnCutDocument
    reads: OwnCutReadOut | None
    retired: bool
    used_in: list[str]


_FIELDS = {"mass_g": "mass", "bone_share": "bone"}
_MEASURES = ("length", "width", "thickness")


def _values(document: OwnCutDocument) -> dict[str, Any]:
    """Read what was typed into what the core knows an own cut by; all that is wrong is said at once."""
    gather = Gather()
    found: dict[str, Any] = {"like": document.like, "shape": document.shape, "animal": document.animal}
    typed = [name for name in _MEASURES if getattr(document, name).strip()]
    if typed:
        for name in [name for name in _MEASURES if name not in typed]:
            gather.refuse(name, "Measure all three: length, width and thickness of one piece.")
        found["measures"] = [gather.value(name, Length(getattr(document, name))) for name in typed]
    if document.mass.strip():
        found["mass_g"] = gather.value("mass", Mass(document.mass))
    if document.bone.strip():
        percent = gather.value("bone", Share(document.bone))
        found["bone_share"] = percent / 100 if percent is not None else None
    found["faces"] = [
        [face.name, (gather.value(f"faces.{at}.share", Share(face.share)) or 0.0) / 100]
        for at, face in enumerate(document.faces)
    ]
    found["trims"] = [
        [trim.what.strip(), (gather.value(f"trims.{at}.share", Share(trim.share)) or 0.0) / 100, trim.becomes]
        for at, trim in enumerate(document.trims)
    ]
    gather.finish()
    return found


def _read(key: str, name: str, values: Mapping[str, Any]) -> OwnCutReadOut:
    own = core_cut(key, name or "it", dict(values))
    try:
        cut = cut_of_own(own)
    except BadInput as refusal:
        raise BadInput(_FIELDS.get(refusal.argument, refusal.argument), refusal.sentence) from None
    mass_g = own.mass_g or usual_mass_g(cut)
    found = read_piece(Piece(cut.key, mass_g), cut)
    solid = solid_of_own(own, cut)
    return OwnCutReadOut(
        mass_g, found.solid.area_cm2, found.area_error * 100, found.edible.value, mass_g / (1 - cut.trim_share),
        None if solid is None else solid.volume_cm3 * cut.density, cut.shape,
    )  # fmt: skip


def _out(row: OwnCut) -> OwnCutOut:
    try:
        typed = OwnCutDocument(**row.typed)
        reads = _read(row.key, row.name, row.values)
    except DAMAGED:
        typed, reads = OwnCutDocument(name=row.name), None
    return OwnCutOut(row.pk, row.version, row.key, row.name, typed, reads, row.retired_at is not None, used_in(row))


def _check_name(document: OwnCutDocument, besides: UUID | None = None) -> None:
    name = document.name.strip()
    if not name:
        raise BadInput("name", "Give it a name.")
    if another_named(OwnCut, household(), name, besides):
        raise BadInput("name", f"You have a cut called “{name}” already; change that one, or say what differs.")
    shipped = cut_named(name)
    if shipped is not None and not shipped.key.startswith("own-"):
        raise BadInput("name", f"“{name}” means {shipped.name.lower()} already; give yours a name of its own.")


@router.reads("/own-cuts")
def list_own_cuts(request: HttpRequest) -> list[OwnCutOut]:
    """Return the household's own cuts, with the cooks they are in."""
    return [_out(row) for row in OwnCut.objects.filter(household=household(), deleted_at__isnull=True)]


@router.asks("/own-cuts/read")
def read_own_cut(request: HttpRequest, document: OwnCutDocument) -> OwnCutReadOut:
    """Say what an own cut comes to as it is typed. Nothing is saved."""
    return _read("own-new", document.name, _values(document))


@router.posts("/own-cuts")
def make_own_cut(request: HttpRequest, document: OwnCutDocument) -> Created[OwnCutOut]:
    """Make a cut of the household's own; the catalogue has it from then on."""
    _check_name(document)
    values = _values(document)
    _read("own-new", document.name, values)
    row = OwnCut.objects.create(
        household=household(), name=document.name.strip(), typed=document.model_dump(mode="json"), values=values
    )
    return Created(_out(row))


@router.puts("/own-cuts/{uuid:own_id}")
def save_own_cut(request: HttpRequest, own_id: UUID, document: OwnCutSave) -> OwnCutOut:
    """Change an own cut; the cooks that hold it follow."""
    row = one_of_own(OwnCut, household(), own_id)
    _check_name(document, own_id)
    values = _values(document)
    _read(row.key, document.name, values)
    claim_version(row, document.version)
    row.name, row.values = document.name.strip(), values
    row.typed = document.model_dump(mode="json", exclude={"version"})
    row.save(update_fields=["name", "typed", "values"])
    return _out(row)


@router.posts("/own-cuts/{uuid:own_id}/remove")
def remove_own_cut(request: HttpRequest, own_id: UUID, document: VersionDocument) -> OwnCutOut:
    """Take an own cut away: deleted where no cook holds it, else retired, which is said with where it is."""
    return _out(take_away(one_of_own(OwnCut, household(), own_id), document.version))


@router.posts("/own-cuts/{uuid:own_id}/restore")
def restore_own_cut(request: HttpRequest, own_id: UUID) -> OwnCutOut:
    """Take back that one was removed."""
    return _out(take_back(OwnCut, household(), own_id))
