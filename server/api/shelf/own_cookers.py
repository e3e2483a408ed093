"""Shelf: cookers of the household's own, each as its kind with what is otherwise about it."""

from dataclasses import dataclass
from typing import Annotated, Any, Literal
from uuid import UUID

from book.models import OwnCooker, claim_version
from book.own import DAMAGED, another_named, core_cooker, one_of_own, take_away, take_back, used_in
from django.http import HttpRequest
from ninja import Schema
from pydantic import AfterValidator, Field
from ravska_core.heat import COOKER_KINDS, Cooker, cooker_of_own
from ravska_core.working import BadInput

from api.plumbing.answers import Created, Router, with_more
from api.plumbing.household import household
from api.plumbing.problems import Gather
from api.plumbing.quantities import Duration, FireTemperature, Grate, Hotter, Numeral, Spots
from api.plumbing.typed import Key, Version, printable
from api.plumbing.versions import VersionDocument

router = Router()


class CookerDocument(Schema):
    """An own cooker as typed: its kind, and what of it is otherwise; what is empty is as usual for the kind.

    `grate` is its size, `range` the heat it goes from and to, `hotter` how much its hot side is, `spots` what was
    measured over it; `recovers` how long its heat takes to come back, `ready` how long until it can be cooked on.
    """

    name: Annotated[str, Field(max_length=60), AfterValidator(printable)] = ""
    kind: Key = ""
    grate: Grate = Grate("")
    range: FireTemperature = FireTemperature("")
    hotter: Hotter = Hotter("")
    spots: Spots = Spots("")
    recovers: Duration = Duration("")
    damp: Literal["dry", "usual", "damp"] = "usual"
    ready: Duration = Duration("")
    fuel: Numeral = Numeral("")


class CookerSave(CookerDocument):
    version: Version


@dataclass(frozen=True, slots=True)
class CookerReadOut:
    """What an own cooker comes to: grate [cm2], range, dew point [C], hot side, unevenness [K], times [s], fuel."""

    says: str
    grate_cm2: float
    low_c: float
    high_c: float
    near_k: float
    uneven_k: float
    recovers_s: float
    dew_c: float
    ready_s: float
    ready: str
    fuel: float
    fuel_unit: str


@dataclass(frozen=True, slots=True)
class CookerOut:
    """An own cooker: as typed, its key, what it comes to, and the cooks it is in."""

    id: UUID
    version: int
    key: str
    name: str
    typed: CookerDocument
    reads: CookerReadOut | None
    retired: bool
    used_in: list[str]


@dataclass(frozen=True, slots=True)
class CookerKindOut:
    """A kind of cooker and what is usual for it, to begin from."""

    kind: str
    says: str
    usual: CookerReadOut


def _values(document: CookerDocument) -> dict[str, Any]:
    """Read what was typed into what the core knows an own cooker by; all that is wrong is said at once."""
    gather = Gather()
    span = gather.value_if("range", document.range)
    spots = gather.value_if("spots", document.spots)
    found = {
        "kind": document.kind,
        "grate_cm2": gather.value_if("grate", document.grate),
        "low_c": span[0] if span else None,
        "high_c": span[1] if span else None,
        "near_k": gather.value_if("hotter", document.hotter),
        "spots_c": list(spots or ()),
        "recovers_s": gather.value_if("recovers", document.recovers),
        "damp": document.damp,
        "ready_s": gather.value_if("ready", document.ready),
        "fuel": gather.value_if("fuel", document.fuel),
    }
    gather.finish()
    return found


def _read(name: str, values: dict[str, Any]) -> CookerReadOut:
    return _out_of(cooker_of_own(core_cooker("own-new", name, values)))


def _out_of(cooker: Cooker) -> CookerReadOut:
    return with_more(CookerReadOut, cooker)


def _out(row: OwnCooker) -> CookerOut:
    try:
        typed = CookerDocument(**row.typed)
        reads = _read(row.name, row.values)
    except DAMAGED:
        typed, reads = CookerDocument(name=row.name), None
    return CookerOut(row.pk, row.version, row.key, row.name, typed, reads, row.retired_at is not None, used_in(row))


def _check_name(document: CookerDocument, besides: UUID | None = None) -> None:
    name = document.name.strip()
    if not name:
        raise BadInput("name", "Give it a name.")
    if another_named(OwnCooker, household(), name, besides):
        raise BadInput("name", f"You have a cooker called “{name}” already; change that one, or say what differs.")


@router.reads("/cooker-kinds")
def list_cooker_kinds(request: HttpRequest) -> list[CookerKindOut]:
    """Return the kinds of cooker, each with what is usual for it."""
    return [CookerKindOut(kind, one.says, _out_of(one)) for kind, one in COOKER_KINDS.items()]


@router.reads("/own-cookers")
def list_own_cookers(request: HttpRequest) -> list[CookerOut]:
    """Return the household's own cookers, with the cooks they are in."""
    return [_out(row) for row in OwnCooker.objects.filter(household=household(), deleted_at__isnull=True)]


@router.asks("/own-cookers/read")
def read_own_cooker(request: HttpRequest, document: CookerDocument) -> CookerReadOut:
    """Say what an own cooker comes to as it is typed. Nothing is saved."""
    return _read(document.name or "it", _values(document))


@router.posts("/own-cookers")
def make_own_cooker(request: HttpRequest, document: CookerDocument) -> Created[CookerOut]:
    """Make a cooker of the household's own; any phase can be on it from then on."""
    _check_name(document)
    values = _values(document)
    _read(document.name, values)
    row = OwnCooker.objects.create(
        household=household(), name=document.name.strip(), typed=document.model_dump(mode="json"), values=values
    )
    return Created(_out(row))


@router.puts("/own-cookers/{uuid:own_id}")
def save_own_cooker(request: HttpRequest, own_id: UUID, document: CookerSave) -> CookerOut:
    """Change an own cooker; the phases on it follow."""
    row = one_of_own(OwnCooker, household(), own_id)
    _check_name(document, own_id)
    values = _values(document)
    _read(document.name, values)
    claim_version(row, document.version)
    row.name, row.values = document.name.strip(), values
    row.typed = document.model_dump(mode="json", exclude={"version"})
    row.save(update_fields=["name", "typed", "values"])
    return _out(row)


@router.posts("/own-cookers/{uuid:own_id}/remove")
def remove_own_cooker(request: HttpRequest, own_id: UUID, document: VersionDocument) -> CookerOut:
    """Take an own cooker away: deleted where no piece is on it, else retired, which is said with where it is."""
    return _out(take_away(one_of_own(OwnCooker, household(), own_id), document.version))


@router.posts("/own-cookers/{uuid:own_id}/restore")
def restore_own_cooker(request: HttpRequest, own_id: UUID) -> CookerOut:
    """Take back that one was removed."""
    return _out(take_back(OwnCooker, household(), own_id))
