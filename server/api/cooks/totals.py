"""What a coat needs beside the pieces: stacks to copy from, what to mix in all, and the cook's own coat weight."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal
from uuid import UUID

from book.fires import own_eaten
from book.layers import own_coat_stays, own_coats, own_trims, usual_coat_of
from book.models import Blend, Cook, WeighBack, claim_version, in_jars_g
from django.db import transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Schema
from pydantic import Field
from ravska_core.blend import Band, bands_of, check_blend, read_blend, shares
from ravska_core.bowl import batch_for_dose_g, to_mix
from ravska_core.coat import (
    ERROR,
    LAYER_KINDS,
    TAKEN_FROM,
    CoatReading,
    drippings_of,
    for_later,
    learned_coat,
    learned_stays,
    own_coat,
    read_coat,
    rendered_g,
)
from ravska_core.coat import WeighBack as CoreWeighBack
from ravska_core.day import Eater, portions
from ravska_core.measure import Spoonfuls, SpoonSet, measure_out
from ravska_core.meat import PORTION_G, bought, find_cut, for_so_many, is_skin
from ravska_core.working import BadInput, Figure, Step, figure, say

from api.blends.documents import BlendDocument, LineDocument
from api.blends.reading import read_document
from api.blends.store import begin_blend
from api.cooks.documents import Letter
from api.cooks.store import one_cook, piece_of, read_stored
from api.plumbing.answers import Created, Router
from api.plumbing.household import household, spoon_set
from api.plumbing.problems import FieldError, Gather, at_field, field_error
from api.plumbing.quantities import LeftMass, TakenMass
from api.plumbing.typed import Key

router = Router()


@dataclass(frozen=True, slots=True)
class TakesOut:
    """What one piece takes of a blend [g], and as which layer; without a letter, the blend that holds it.

    `aside` says that it is set aside before any of it touches raw meat.
    """

    letter: str
    kind: str
    grams: float
    aside: bool = False


@dataclass(frozen=True, slots=True)
class TotalOut:
    """What all pieces take of one blend, what clean jars hold, what is to be mixed and what is left over then [g].

    `aside_g` of it are for later, and set aside before any touches raw meat.
    """

    blend_id: UUID
    name: str
    kind: str
    version: int
    bands: Sequence[Band]
    takes: Figure
    by: list[TakesOut]
    shelf_g: float
    mix: Figure
    left_g: float
    spoons: Spoonfuls
    batch_g: float
    aside_g: float


@dataclass(frozen=True, slots=True)
class PlainOut:
    """What all pieces take of a plain ingredient [g]."""

    grind: str
    takes: Figure
    by: list[TakesOut]
    spoons: Spoonfuls


@dataclass(frozen=True, slots=True)
class BuyOut:
    """What to buy of one piece's cut: for all who eat, else for what is on the board, with what comes off [%].

    `serves` is how many servings of it are on the board as it is.
    """

    letter: str
    name: str
    cut: str
    raw: Figure
    buy: Figure
    trim: Figure
    serves: Figure


@dataclass(frozen=True, slots=True)
class TotalsOut:
    """All that a cook's pieces take and what meat to buy; `problems` names what cannot be read and is missing.

    `serves` is how many servings the board comes to, `eaters` for how many it is meant, none where nobody said.
    """

    blends: list[TotalOut]
    plain: list[PlainOut]
    buy: list[BuyOut]
    serves: float
    eaters: int | None
    problems: list[FieldError]


def totals_of(cook: Cook) -> TotalsOut:
    """Return all that a cook's pieces take, and what meat to buy."""
    spoons = spoon_set()
    pieces = list(cook.pieces.all())
    readings = read_stored(cook, spoons)
    blends: dict[UUID, Blend] = {}
    takes: dict[UUID | str, list[TakesOut]] = {}
    volumes: dict[UUID | str, float] = {}
    problems = []
    for at, piece in enumerate(pieces):
        reading = readings[piece.letter]
        if isinstance(reading, BadInput):
            problems.append(field_error(at_field(reading, f"pieces.{at}")))
            continue
        if piece.unread:
            problems += [
                FieldError(field=f"pieces.{at}.{path}", sentence=f"{piece.name} counts as it was last read. {sentence}")
                for path, sentence in piece.unread["fields"].items()
            ]
        for layer, found in zip(piece.layers.all(), reading.layers, strict=True):
            # drippings are of nothing that is mixed, and a layer that finds no rest left takes nothing
            if (layer.blend is None and not layer.grind) or found.dose_g <= 0:
                continue
            key = layer.blend.pk if layer.blend else layer.grind
            if layer.blend is not None:
                blends[layer.blend.pk] = layer.blend
            takes.setdefault(key, []).append(TakesOut(piece.letter, found.kind, found.dose_g))
            volumes[key] = volumes.get(key, 0.0) + found.volume_ml
            if found.reserve_g > 0:
                takes[key].append(TakesOut(piece.letter, "set aside", found.reserve_g, aside=True))
                volumes[key] += found.volume_ml / found.dose_g * found.reserve_g
    _set_aside(takes)
    mixing = _Mixing(blends, takes, spoons)
    found_plain = [
        PlainOut(key, to_mix([use.grams for use in uses], 0.0).takes, uses, measure_out(round(volumes[key], 3), spoons))
        for key, uses in takes.items()
        if isinstance(key, str)
    ]
    buy, serves = _to_buy(cook, readings)
    return TotalsOut(mixing.all(), found_plain, buy, serves, cook.eaters, [*problems, *mixing.problems])


def _set_aside(takes: dict[UUID | str, list[TakesOut]]) -> None:
    """Mark what is planned for later of all that touches raw meat before."""
    for uses in takes.values():
        layers = [at for at, use in enumerate(uses) if not use.aside]
        for place in for_later([("it", uses[at].kind) for at in layers]):
            uses[layers[place]] = replace(uses[layers[place]], aside=True)


def _eating(cook: Cook) -> float:
    """Return for how many to buy, each as hungry as the cook says: those who have a seat by their own appetites."""
    seated = [Eater(seat.taster.nickname, (), seat.taster.appetite) for seat in cook.seats.select_related("taster")]
    if not seated or cook.eaters is None or len(seated) != cook.eaters:
        return float(cook.eaters or 0)
    return portions(seated) * PORTION_G["usual"] / PORTION_G[cook.appetite]


def _to_buy(cook: Cook, readings: Mapping[str, CoatReading | BadInput]) -> tuple[list[BuyOut], float]:
    """Return what meat to buy, and how many the board serves; a skin is a dish beside the meat and feeds nobody."""
    read = [(piece, readings[piece.letter]) for piece in cook.pieces.all()]
    meat = [(piece, found) for piece, found in read if isinstance(found, CoatReading) and not is_skin(piece.cut)]
    serves = sum(found.servings.value for _, found in meat)
    rows, eaten = [], own_eaten(cook.household) if meat else []
    for piece, found in meat:
        if cook.eaters is not None and serves > 0:
            raw = for_so_many(piece.mass_g, serves, _eating(cook), eaten)
        else:
            raw = figure([Step("On the board", "as it is weighed", piece.mass_g, "g")], "as exact as the scale")
        buy, trim = bought(piece.cut, raw, own_trims(cook.household, piece.cut))
        rows.append(BuyOut(piece.letter, piece.name, find_cut(piece.cut).name, raw, buy, trim, found.servings))
    return rows, serves


class _Mixing:
    """Works out what to mix of every blend; one that others hold is counted once, for pieces and blends together."""

    def __init__(self, blends: dict[UUID, Blend], takes: dict[UUID | str, list[TakesOut]], spoons: SpoonSet) -> None:
        self.blends, self.takes, self.spoons = blends, takes, spoons
        self.problems: list[FieldError] = []
        self.waiting: dict[UUID, int] = {}
        self.inside: dict[UUID, list[tuple[Blend, float]]] = {}
        for blend in list(blends.values()):
            self._meet(blend)
        self.on_shelf = in_jars_g(self.blends)

    def _meet(self, blend: Blend) -> None:
        """Gather the blends inside one and inside those, with how much of each is in 1 g that goes into the bowl."""
        if blend.pk in self.inside:
            return
        self.blends.setdefault(blend.pk, blend)
        self.inside[blend.pk] = []
        self.waiting.setdefault(blend.pk, 0)
        try:
            mixture = blend.as_core()
            parts = shares(mixture.lines, check_blend(mixture))
        except BadInput:
            return  # it is said where it is to be mixed
        for share, line in zip(parts, blend.draft().lines.all(), strict=True):
            if line.inside is None or line.held:
                continue
            self.inside[blend.pk].append((line.inside, share))
            self._meet(line.inside)
            self.waiting[line.inside.pk] += 1

    def all(self) -> list[TotalOut]:
        """Return what to mix of each blend, those first that pieces take, each after all that hold it are known."""
        found: dict[UUID, TotalOut] = {}
        ready = [key for key, count in self.waiting.items() if not count]
        while ready:
            key = ready.pop(0)
            total = self._total(key) if self.takes.get(key) else None
            if total is not None:
                found[key] = total
            for inside, share in self.inside[key]:
                if total is not None and total.mix.value > 0:
                    use = TakesOut("", f"in {self.blends[key].name}", share * total.mix.value)
                    self.takes.setdefault(inside.pk, []).append(use)
                self.waiting[inside.pk] -= 1
                if not self.waiting[inside.pk]:
                    ready.append(inside.pk)
        order = [key for key in self.takes if isinstance(key, UUID)]
        return [found[key] for key in order if key in found]

    def _total(self, key: UUID) -> TotalOut | None:
        blend, uses = self.blends[key], self.takes[key]
        try:
            read = read_blend(blend.as_core(), self.spoons)
        except BadInput as refusal:
            said = f"“{blend.name}” cannot be mixed as it stands: {refusal.sentence}"
            self.problems.append(field_error(BadInput("blends", said)))
            return None
        shelf = self.on_shelf.get(key, 0.0)
        mix = to_mix([use.grams for use in uses], shelf, read.batch.value / read.finished.value)
        ml = mix.mix.value / read.density_g_ml
        return TotalOut(
            blend_id=key, name=blend.name, kind=blend.kind, version=blend.version, bands=bands_of(read.leaves),
            takes=mix.takes, by=uses, shelf_g=shelf, mix=mix.mix, left_g=mix.left_g,
            spoons=measure_out(round(ml, 3), self.spoons), batch_g=blend.batch_g,
            aside_g=sum(use.grams for use in uses if use.aside),
        )  # fmt: skip


@router.reads("/{uuid:cook_id}/totals")
def read_totals(request: HttpRequest, cook_id: UUID) -> TotalsOut:
    """Say what to mix of each blend for all pieces, what the shelf holds already, and what is left over."""
    return totals_of(one_cook(cook_id))


class BatchDocument(Schema):
    """Which blend to size to what this cook takes of it."""

    blend_id: UUID


@dataclass(frozen=True, slots=True)
class SizedBatchOut:
    blend_id: UUID
    version: int
    batch: str
    batch_g: float


@router.posts("/{uuid:cook_id}/batch")
def size_batch(request: HttpRequest, cook_id: UUID, document: BatchDocument) -> SizedBatchOut:
    """Set a blend's batch to what the cook still needs mixed of it; to what it takes when the shelf has enough.

    A batch that a piece takes a share of stays as it is.
    """
    with transaction.atomic():
        cook = one_cook(cook_id)
        layers = [layer for piece in cook.pieces.all() for layer in piece.layers.all()]
        follows = any(layer.blend_id == document.blend_id and layer.dose_unit == "batch" for layer in layers)
        totals = totals_of(cook)
        total = next((row for row in totals.blends if row.blend_id == document.blend_id), None)
        blend = Blend.objects.filter(pk=document.blend_id, household=household(), deleted_at__isnull=True).first()
        if blend is None or total is None or total.takes.value <= 0:
            raise BadInput("blend_id", "No piece of this cook is seasoned with that blend; choose one that is.")
        if follows:  # what goes on is a share of the batch: its size says how much, and not the other way round
            return SizedBatchOut(blend.pk, blend.version, blend.batch_typed, blend.batch_g)
        claim_version(blend, blend.version)
        blend.batch_g = total.mix.value or batch_for_dose_g(total.takes.value)
        blend.batch_typed = f"{blend.batch_g:g} g"
        blend.save(update_fields=["batch_g", "batch_typed"])
    return SizedBatchOut(blend.pk, blend.version, blend.batch_typed, blend.batch_g)


class DrippingsDocument(Schema):
    """Whose drippings become a blend, by the piece's letter, and what of: a liquid for the pot, or for the needle."""

    letter: Letter
    kind: Literal["cooking liquid", "injection"] = "cooking liquid"


@dataclass(frozen=True, slots=True)
class DrippingsOut:
    blend_id: UUID
    name: str


@router.posts("/{uuid:cook_id}/drippings")
def keep_drippings(request: HttpRequest, cook_id: UUID, document: DrippingsDocument) -> Created[DrippingsOut]:
    """Make a blend of what drips out of a piece, each part with its error, to be a line of a sauce or an injection."""
    cook = one_cook(cook_id)
    piece = piece_of(cook, document.letter)
    found = drippings_of(piece.seasoned(cook.appetite), spoon_set())
    typed = read_document(
        BlendDocument(
            name=f"Drippings of {piece.name}, {cook.name}"[:80],
            kind=document.kind,
            batch=f"{sum(grams for _, grams in found):.0f} g",
            lines=[
                LineDocument(grind=grind, parts=say(grams, 3), basis="scale", error=f"{ERROR * 100:.0f}")
                for grind, grams in found
            ],
        )
    )
    with transaction.atomic():
        row = begin_blend(typed)
    return Created(DrippingsOut(row.pk, row.name))


@dataclass(frozen=True, slots=True)
class OwnCoatOut:
    """The cook's own coat on this cut and surface: how often it was weighed back, and what it comes to.

    `stays` is what usually stays of it for this cook [0 to 1], None where nobody looked; `taken` says that both are
    taken by themselves. `noted` is the weigh-back just kept, to be taken back by; `dose` and `put_stays` are what the
    layer that was weighed back really took, as typed.
    """

    times: int
    figure: Figure
    stays: float | None
    taken: bool
    noted: UUID | None = None
    dose: str = ""
    put_stays: str = ""


def _coat_weight(cut: str, surface: str, kind: str) -> OwnCoatOut:
    own = own_coats(household(), cut, surface, kind)
    stayed = own_coat_stays(household(), cut, surface, kind)
    stays = learned_stays(LAYER_KINDS[kind].stays or 1.0, stayed) if stayed else None
    return OwnCoatOut(len(own), learned_coat(usual_coat_of(kind), own), stays, len(own) >= TAKEN_FROM)


@router.reads("/coat/own-weight")
def own_weight(request: HttpRequest, cut: Key, surface: Key, kind: Literal["rub", "paste"] = "rub") -> OwnCoatOut:
    """Return the coat this household really puts on a cut with this surface, learned from weighing back."""
    return _coat_weight(cut, surface, kind)


class WeighBackDocument(Schema):
    """What was taken to a piece for the layer at a place, what is left, what fell off, and the fat in the pan after."""

    letter: Letter
    layer: Annotated[int, Field(ge=0, le=11)]
    taken: TakenMass
    left: LeftMass
    fell: LeftMass = LeftMass("")
    pan: LeftMass = LeftMass("")


@router.posts("/{uuid:cook_id}/weigh-back")
def weigh_back(request: HttpRequest, cook_id: UUID, document: WeighBackDocument) -> OwnCoatOut:
    """Keep what a coat really weighed; the cook's own coat weight moves with it."""
    gather = Gather()
    taken, left = gather.value("taken", document.taken), gather.value("left", document.left)
    fell = gather.value_if("fell", document.fell) or 0.0
    pan = gather.value_if("pan", document.pan) or 0.0
    gather.finish()
    assert taken is not None
    assert left is not None
    with transaction.atomic():
        cook = one_cook(cook_id)
        piece = piece_of(cook, document.letter)
        layers = list(piece.layers.all())
        if document.layer >= len(layers) or layers[document.layer].kind not in ("rub", "paste"):
            raise BadInput("layer", "Only a rub or a paste on a piece of this cook is weighed back.")
        seasoned = piece.seasoned(cook.appetite)
        reading = read_coat(seasoned)
        area = reading.piece.coatable.value
        surface = reading.layers[document.layer].surface
        back = CoreWeighBack(taken, left, fell, area, pan, rendered_g(seasoned) if pan else 0.0)
        figure = own_coat(back)
        kind = LAYER_KINDS[layers[document.layer].kind]
        if not 0.1 <= figure.value <= kind.high:
            sentence = f"That would be {say(figure.value, 2)} g on 100 cm², which no coat is; check the weights."
            raise BadInput("taken", sentence)
        row = WeighBack.objects.create(
            household=household(), layer=layers[document.layer], kind=kind.key, cut=piece.cut, surface=surface,
            taken_g=taken, left_g=left, fell_g=fell, pan_g=pan, coat_g_100cm2=figure.value,
            stays=back.stays if document.fell or document.pan else None,
        )  # fmt: skip
    stays = f"{back.stays * 100:.3g}" if document.fell or document.pan else ""
    own = _coat_weight(piece.cut, surface, kind.key)
    return replace(own, noted=row.pk, dose=f"{say(back.put_on_g, 4)} g", put_stays=stays)


@router.posts("/coat/weigh-back/{uuid:row_id}/take-back")
def take_back(request: HttpRequest, row_id: UUID) -> OwnCoatOut:
    """Undo a weigh-back that was wrong."""
    row = WeighBack.objects.filter(pk=row_id, household=household()).first()
    if row is None:
        raise Http404
    row.deleted_at = timezone.now()
    row.save(update_fields=["deleted_at"])
    return _coat_weight(row.cut, row.surface, row.kind)
