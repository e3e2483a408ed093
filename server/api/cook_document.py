"""The cook as one document: its arms with pieces, layers, steps and readings. Shared by Home and Coat."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from book.models import Arm, Blend, Cook, Household, Layer, Line, Step, load_inside
from django.db.models import Count, Prefetch, Q, QuerySet
from django.http import Http404
from ravska_core.blend import flatten, same_mixture
from ravska_core.coat import CoatReading, Planned, read_coat
from ravska_core.day import count_back
from ravska_core.measure import SpoonSet
from ravska_core.trial import ArmRecord, FairTest, compare_arms
from ravska_core.working import BadInput

from api.coat_document import LayerDocument, PieceDocument, layer_document, piece_document
from api.documents import ArmReadingOut, Figure, arm_reading_out
from api.household import household, spoons_of
from api.problems import FieldError


@dataclass(frozen=True, slots=True)
class LayerOut:
    """A layer as typed, with what it is drawn with; `changed_since` says its blend moved on since it was mixed."""

    typed: LayerDocument
    blend_name: str
    blend_deleted: bool
    grinds: list[str]
    shares: list[float]
    changed_since: bool


@dataclass(frozen=True, slots=True)
class StepOutDocument:
    id: UUID
    kind: str
    layer: int | None
    begins_at: datetime
    before: Figure
    lasts_s: float
    done_at: datetime | None


@dataclass(frozen=True, slots=True)
class ArmOut:
    """A piece of the cook: as typed, its layers, steps and reading; `beside` when it is not compared."""

    label: str
    name: str
    beside: bool
    target: str
    piece: PieceDocument
    layers: list[LayerOut]
    steps: list[StepOutDocument]
    reading: ArmReadingOut | None
    problems: list[FieldError]


@dataclass(frozen=True, slots=True)
class DifferenceOut:
    what: str
    sentence: str
    can_even: bool


@dataclass(frozen=True, slots=True)
class FairTestOut:
    same: list[str]
    differs: list[DifferenceOut]
    unknown: list[str]


@dataclass(frozen=True, slots=True)
class NextOut:
    """The one next thing to do."""

    arm: str
    step_id: UUID
    kind: str
    begins_at: datetime


@dataclass(frozen=True, slots=True)
class CookOut:
    id: UUID
    name: str
    serve_at: datetime
    in_hand: bool
    eaters: int | None
    appetite: str
    version: int
    trial_id: UUID
    cards: int
    revealed: bool
    arms: list[ArmOut]
    next: NextOut | None
    fair: FairTestOut


def cooks(of: Household | None = None) -> QuerySet[Cook]:
    """Return the household's cooks that are not deleted, with all a document needs loaded in a few queries.

    How many cards were handed in, and how many of them by who knew, are counted with them: `handed_in`, `knowing`.
    """
    blends = Prefetch("blend", queryset=Blend.objects.with_drafts())
    layers = Layer.objects.select_related("revision").prefetch_related("revision__lines", blends)
    arms = Arm.objects.select_related("piece", "sample").prefetch_related(
        Prefetch("piece__layers", queryset=layers),
        Prefetch("piece__steps", queryset=Step.objects.select_related("layer")),
    )
    taken = Q(trial__cards__deleted_at__isnull=True)
    return (
        Cook.objects.filter(household=of or household(), deleted_at__isnull=True)
        .annotate(
            handed_in=Count("trial__cards", filter=taken),
            knowing=Count("trial__cards", filter=taken & Q(trial__cards__blind=False)),
        )
        .select_related("trial", "household__preferences")
        .prefetch_related(Prefetch("trial__arms", queryset=arms))
    )


def spoons_for(cook: Cook) -> SpoonSet:
    """Return the spoons of a cook's household."""
    preferences = cook.household.preferences
    return spoons_of(preferences.spoon_set, preferences.spoons_lacking)


def one_cook(cook_id: UUID) -> Cook:
    found = cooks().filter(pk=cook_id).first()
    if found is None:
        raise Http404
    return found


def arm_of(cook: Cook, label: str) -> Arm:
    """Return the piece of a cook under a letter.

    Raises
    ------
    BadInput
        At ``label`` when it is not on the board any more.
    """
    found = next((arm for arm in cook.trial.arms.all() if arm.label == label), None)
    if found is None:
        raise BadInput("label", "That piece is not on the board any more.")
    return found


def _blend_lines(arms: Iterable[Arm]) -> Iterator[Line]:
    for arm in arms:
        for layer in arm.piece.layers.all():
            if layer.blend is not None:
                yield from layer.blend.draft().lines.all()
                if layer.revision is not None:
                    yield from layer.revision.lines.all()


def read_stored(arms: Iterable[Arm], spoon_set: SpoonSet) -> dict[str, CoatReading | BadInput]:
    """Read every arm by itself, so that one that cannot be read leaves the other's numbers standing.

    Core samples are left out: only Coat shows them, and asks for the hour it shows.
    """
    arms = list(arms)
    load_inside(_blend_lines(arms))
    found: dict[str, CoatReading | BadInput] = {}
    for arm in arms:
        try:
            found[arm.label] = read_coat(arm.as_core(), spoon_set, cored=False)
        except BadInput as refusal:
            found[arm.label] = refusal
    return found


def _layer_out(layer: Layer) -> LayerOut:
    grinds: list[str] = []
    shares: list[float] = []
    changed = False
    if layer.blend is not None:
        blend = layer.blend.as_core(layer.revision)
        if layer.revision is not None:
            changed = not same_mixture(blend, layer.blend.as_core())
        try:
            leaves = flatten(blend.lines)
            grinds, shares = list(leaves), list(leaves.values())
        except BadInput:
            pass  # the arm's own reading says which line is at fault
    elif layer.grind:
        grinds, shares = [layer.grind], [1.0]
    return LayerOut(
        typed=layer_document(layer),
        blend_name=layer.blend.name if layer.blend else "",
        blend_deleted=layer.blend is not None and layer.blend.deleted_at is not None,
        grinds=grinds,
        shares=shares,
        changed_since=changed,
    )


def fair_test(cook: Cook, readings: dict[str, CoatReading | BadInput]) -> FairTest:
    """Compare what is recorded of the cook's two arms so far."""
    records = []
    compared = [arm for arm in cook.trial.arms.all() if hasattr(arm, "sample")]
    if len(compared) < 2:
        return FairTest((), (), ())
    for arm in compared:
        reading = readings[arm.label]
        salt, states = None, list(arm.piece.faces.values())
        if not isinstance(reading, BadInput):
            salt, states = reading.salt.value, [face.state for face in reading.piece.faces]
        lasts = {step.kind: step.length_s() for step in arm.piece.steps.all()}
        records.append(
            ArmRecord(
                letter=arm.label,
                cut=arm.piece.cut,
                count=arm.piece.count,
                mass_g=arm.piece.mass_g,
                salt_percent=salt,
                fire_s=lasts.get("on"),
                rest_s=lasts.get("rest"),
                surface_coated="coated" in states,
            )
        )
    return compare_arms(records[0], records[1], cook.handed_in, cook.knowing)


def cook_out(cook: Cook) -> CookOut:
    """Return a cook, loaded through `cooks`, as its document."""
    arms = list(cook.trial.arms.all())
    readings = read_stored(arms, spoons_for(cook))
    documents = []
    waiting: list[NextOut] = []
    for arm in arms:
        steps = list(arm.piece.steps.all())
        places = {layer.pk: at for at, layer in enumerate(arm.piece.layers.all())}
        times = count_back(cook.serve_at, [Planned(step.kind, step.length_s()) for step in steps])
        reading = readings[arm.label]
        for step, (begins, _) in zip(steps, times, strict=True):
            if step.done_at is None:
                waiting.append(NextOut(arm=arm.label, step_id=step.id, kind=step.kind, begins_at=begins))
        piece = arm.piece
        documents.append(
            ArmOut(
                label=arm.label,
                name=arm.name,
                beside=not hasattr(arm, "sample"),
                target=piece.target_typed,
                piece=piece_document(piece),
                layers=[_layer_out(layer) for layer in piece.layers.all()],
                steps=[
                    StepOutDocument(
                        id=step.id,
                        kind=step.kind,
                        layer=places.get(step.layer_id),
                        begins_at=begins,
                        before=before,
                        lasts_s=step.length_s(),
                        done_at=step.done_at,
                    )
                    for step, (begins, before) in zip(steps, times, strict=True)
                ],
                reading=None if isinstance(reading, BadInput) else arm_reading_out(reading),
                problems=[FieldError(field=reading.field, sentence=reading.sentence)]
                if isinstance(reading, BadInput)
                else [],
            )
        )
    fair = fair_test(cook, readings)
    return CookOut(
        id=cook.id,
        name=cook.name,
        serve_at=cook.serve_at,
        in_hand=cook.in_hand,
        eaters=cook.eaters,
        appetite=cook.appetite,
        version=cook.version,
        trial_id=cook.trial.id,
        cards=cook.handed_in,
        revealed=cook.trial.revealed_at is not None,
        arms=documents,
        next=min(waiting, key=lambda n: n.begins_at, default=None),
        fair=FairTestOut(
            same=list(fair.same),
            differs=[DifferenceOut(what=d.what, sentence=d.sentence, can_even=d.can_even) for d in fair.differs],
            unknown=list(fair.unknown),
        ),
    )
