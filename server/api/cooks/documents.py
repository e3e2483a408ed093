"""A coat as typed: pieces, their layers, and how they are read for the core and written back."""

from collections.abc import Iterable, Sequence
from dataclasses import replace
from functools import cached_property
from typing import Annotated, Literal, cast
from uuid import UUID

from book.board import matched
from book.mixtures import load_mixtures
from book.models import LETTERS, Blend, LayerRow, Piece, Revision, in_jars_g
from book.models.values import stored_injection, stored_weighed, typed_of
from book.unchanged import kept_while_unchanged
from ninja import Schema
from pydantic import AwareDatetime, BaseModel, Field
from ravska_core.blend import Blend as CoreBlend
from ravska_core.catalogue import Bone
from ravska_core.coat import (
    BATHS,
    INJECTIONS,
    LAYER_KINDS,
    MOST_LAYERS,
    BathWeighed,
    Injection,
    Layer,
    Portion,
    Seasoned,
    Shared,
    bath_weighed_of,
    injection_of,
    on_dial,
    plain,
    share_out,
)
from ravska_core.heat import on_fire_of
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.meat import MOST_BONES, PLACES, STAGES, Measures, Stage, place_of, serving_of
from ravska_core.meat import Piece as CorePiece
from ravska_core.working import BadInput

from api.cooks.injection import BathWeighedDocument, InjectionDocument
from api.cooks.phases import Phases, cooker_of, phases_typed, read_phases
from api.cooks.readings import LayerMarkOut, layer_mark
from api.plumbing.household import spoon_set
from api.plumbing.problems import Gather, Refused
from api.plumbing.quantities import (
    CentreTemperature,
    Dose,
    Duration,
    HeldTemperature,
    Hold,
    Length,
    Liquid,
    Mass,
    Masses,
    Numeral,
    ServingMass,
    Share,
)
from api.plumbing.typed import Key, LongNote, MaybeName, Number, Typed, Version

LayerKindKey = Literal[
    "pre-salt", "injection", "marinade", "binder", "rub", "paste", "spritz", "baste", "wrap", "cooking liquid",
    "drippings", "glaze", "finishing salt", "second injection", "stirred in", "at the board", "at the table",
]  # fmt: skip
FaceState = Literal["bare", "coated", "off", "tied back", "under"]
Place = Literal["", "fridge", "cool box", "bench", "outside", "warm water", "pot"]
Grade = Literal["lean", "ordinary", "marbled", "dry-aged"]
Surface = Literal["moist", "dry"]
CutInto = Literal["", "cubes", "strips", "steaks"]
Appetite = Literal["light", "usual", "hearty"]


Counted = Annotated[int, Field(ge=-(2**31), le=2**31)]
"""How many, as typed; what that may be is said at its field."""


class StageDocument(BaseModel):
    """What raw meat goes through beside its layers, as typed: thawed, or out before the fire; where, and how long.

    `hold_at` is the temperature there as typed, empty for what is usual at the place.
    """

    what: Literal["thaw", "temper"]
    place: Literal["fridge", "cool box", "bench", "outside", "warm water"] = "bench"
    hold: Duration
    hold_at: HeldTemperature = HeldTemperature("")


class MeatDocument(BaseModel):
    """The meat of a piece as typed. Measures are given all three or not at all; `faces` says what is done with each.

    `mass` is what all weigh together, or each one after another. `serving` is how much a plate takes of it [g], empty
    for the usual. `endpoint` is the temperature its centre is done at; `bones` are rods x0, y0, x1, y1 and width as
    shares of length and width, none where they lie as usual.
    """

    cut: Key
    mass: Masses
    untrimmed: Mass = Mass("")
    count: Counted | Typed = 1
    grade: Grade = "ordinary"
    faces: Annotated[dict[Key, FaceState], Field(max_length=8)] = Field(default={})
    surface: Surface = "moist"
    length: Length = Length("")
    width: Length = Length("")
    thickness: Length = Length("")
    cut_into: CutInto = ""
    cut_size: Length = Length("")
    thin: Length = Length("")
    serving: ServingMass = ServingMass("")
    endpoint: CentreTemperature = CentreTemperature("")
    pierced: bool = False
    bones: Annotated[list[Annotated[list[Number], Field(min_length=5, max_length=5)]], Field(max_length=MOST_BONES)] = (
        Field(default=[])
    )
    stages: Annotated[list[StageDocument], Field(max_length=len(STAGES))] = Field(default=[])


class LayerDocument(BaseModel):
    """A layer as typed: of a blend or of a plain grind. An empty dose is the rest to the piece's salt target.

    `revision` pins what was mixed; `stays` and `eaten` are in %, empty for what is usual. `reserve` of a bath is set
    aside before the meat goes in, and what is left of it may go `into_pot`. It is held at `place` at `hold_c` [C], none
    for what is usual there; `hold_at` is that temperature as typed, which goes first. `mixed_g` is what a share of a
    batch or of the jars came to when it was mixed [g].
    """

    kind: LayerKindKey
    blend_id: UUID | None = None
    revision: Annotated[int, Field(ge=1, le=2**31)] | None = None
    grind: Key = ""
    dose: Dose = Dose("")
    mixed_g: Annotated[float, Field(gt=0, le=1e6)] | None = None
    vessel: Key = ""
    hold: Hold = Hold("")
    hold_c: Number | None = None
    hold_at: HeldTemperature = HeldTemperature("")
    place: Place = ""
    into_pot: bool = False
    stays: Share = Share("")
    after: Literal["wiped", "rinsed", "as it is"] = "wiped"
    eaten: Share = Share("")
    times: Counted = 1
    reserve: Liquid = Liquid("")
    injection: InjectionDocument = Field(default=InjectionDocument())
    weighed: BathWeighedDocument = Field(default=BathWeighedDocument())


Letter = Annotated[str, Field(pattern="^[A-H]$")]


class PieceDocument(MeatDocument):
    """A piece as typed: its letter and name, its meat, its layers and phases in order.

    `target` is its salt [% of raw edible weight], `tasted` says that it is one of those that are tasted.
    """

    letter: Letter
    name: MaybeName
    tasted: bool = False
    target: Numeral = Numeral("")
    layers: Annotated[list[LayerDocument], Field(max_length=MOST_LAYERS)] = Field(default=[])
    phases: Phases = Field(default=[])


Pieces = Annotated[list[PieceDocument], Field(min_length=1, max_length=len(LETTERS))]


class CoatDocument(Schema):
    """What a coat is read from; `at_s` is the time of the hold that the core samples are taken at [s].

    With `before`, the pieces as they were last read, what cannot be read is taken as it was, and said so with its
    piece; without, it is refused.
    """

    pieces: Pieces
    appetite: Appetite = "usual"
    before: Annotated[list[PieceDocument], Field(max_length=len(LETTERS))] | None = None
    at_s: Annotated[float, Field(ge=0, le=12 * 7 * 86_400)] | None = None


class CookSave(Schema):
    """A cook as typed. Pieces that are not sent are taken off the board; new ones come onto it.

    `note` says what is to be done otherwise next time.
    """

    name: MaybeName
    serve_at: AwareDatetime
    version: Version
    pieces: Pieces
    eaters: Counted | None = None
    appetite: Appetite = "usual"
    note: LongNote = ""


Loaded = tuple[dict[UUID, Blend], dict[tuple[UUID, int | None], Revision], dict[UUID, CoreBlend]]


@kept_while_unchanged
def _loaded(keys: frozenset[UUID], pinned: frozenset[int]) -> Loaded:
    """Return blends by their keys, their revisions with these numbers, and room for what the core reads of them."""
    rows = list(Blend.objects.filter(pk__in=keys)) if keys else []
    kept = list(Revision.objects.filter(blend__in=rows, number__in=pinned)) if pinned else []
    load_mixtures(rows, kept)
    return {row.pk: row for row in rows}, {(revision.blend_id, revision.number): revision for revision in kept}, {}


class Blends:
    """The blends that documents name, loaded once; each is read for the core once."""

    def __init__(self, documents: Iterable[LayerDocument]) -> None:
        layers = list(documents)
        keys = frozenset(layer.blend_id for layer in layers if layer.blend_id)
        pinned = frozenset(layer.revision for layer in layers if layer.revision is not None)
        self.by_key, self._kept, self._met = _loaded(keys, pinned)
        self._jars: dict[UUID, float] | None = None
        self._shared: Shared | None = None
        self._share_faults: dict[tuple[str, int], BadInput] = {}

    @cached_property
    def _spoons(self) -> SpoonSet:
        return spoon_set()

    def dose(self, layer: LayerDocument) -> float | Portion:
        """Return the dose of a layer as it was said, in the household's spoons where it was said in spoons.

        Raises
        ------
        BadInput
            At ``dose``.
        """
        owned = SPOON_SETS["us"] if on_dial(layer.dose) else self._spoons
        return layer.dose.on(LAYER_KINDS[layer.kind].unit, owned)

    def jars_g(self, key: UUID) -> float:
        """Return what clean jars hold of a blend [g]."""
        if self._jars is None:
            self._jars = in_jars_g(self.by_key)
        return self._jars.get(key, 0.0)

    def share(self, pieces: Sequence["PieceDocument"], appetite: str) -> None:
        """Find out what the layers of all pieces of a cook take of a batch or of the jars, where any takes a share."""
        if not any(_shared(layer, self) for layer in layers_of(pieces)):
            return
        cores = [read_as_far(piece, self, appetite) for piece in pieces]
        self._shared = share_out(cores, self._spoons)
        for at, fault in self._shared.faults:
            self._share_faults[pieces[at].letter, int(fault.argument.split(".")[1])] = fault

    def told(self, piece: Seasoned) -> Seasoned:
        """Return a piece whose layers that take the rest of something know what the other pieces take."""
        return piece if self._shared is None else self._shared.told(piece)

    def share_fault(self, letter: str, layer: int) -> BadInput | None:
        """Return what is wrong with the share that a layer takes, None where nothing is."""
        return self._share_faults.get((letter, layer))

    def row(self, layer: LayerDocument) -> tuple[Blend, Revision | None]:
        """Return the blend a layer is of and the revision it pins.

        Raises
        ------
        BadInput
            At ``blend`` when it is deleted, or the revision is not in the book.
        """
        blend = self.by_key.get(layer.blend_id) if layer.blend_id else None
        if blend is None:
            raise BadInput("blend", "This blend is not in the book any more; choose another.")
        if blend.deleted_at is not None and layer.revision is None:
            raise BadInput("blend", f"“{blend.name}” was deleted meanwhile; restore it in Blend, or choose another.")
        revision = None
        if layer.revision is not None:
            revision = self._kept.get((blend.pk, layer.revision))
            if revision is None:
                raise BadInput("blend", "That revision is not in the book; use the blend as it is now.")
        return blend, revision

    def mark(self, layer: LayerDocument) -> LayerMarkOut:
        """Return what a layer is of, as the book has it."""
        blend, revision = self.row(layer) if layer.blend_id else (None, None)
        return replace(layer_mark(blend, revision, layer.grind), said=bool(layer.dose) and not on_dial(layer.dose))

    def core(self, layer: LayerDocument) -> CoreBlend:
        """Return the blend a layer is of as the core reads it, each built once.

        Raises
        ------
        BadInput
            As `row` does.
        """
        blend, revision = self.row(layer)
        return blend.as_core(revision, self._met)


def read_piece(document: MeatDocument, gather: Gather, at: str) -> CorePiece | None:
    """Read the meat of a piece as typed; all that cannot be read is gathered under `at`."""
    endpoint = gather.value_if(f"{at}.endpoint", document.endpoint)
    untrimmed = gather.value_if(f"{at}.untrimmed", document.untrimmed)
    thin = gather.value_if(f"{at}.thin", document.thin)
    size = gather.value(f"{at}.cut_size", document.cut_size) if document.cut_into else None
    sizes = {"length": document.length, "width": document.width, "thickness": document.thickness}
    count = document.count
    if isinstance(count, str):
        gather.refuse(f"{at}.count", "Count the pieces: a whole number from 1 to 200.")
        count = 1
    mass = gather.attempt(at, document.mass.of, count, "mass")
    measures = None
    given = {name: text for name, text in sizes.items() if text}
    if given and len(given) < 3:
        for name in sizes.keys() - given.keys():
            gather.refuse(f"{at}.{name}", "Give all three measures, or clear them to go by weight.")
    elif given:
        lengths = [gather.value(f"{at}.{name}", size) for name, size in sizes.items()]
        whole = [length for length in lengths if length is not None]
        if len(whole) == 3:
            measures = Measures(*whole)
    stages = [gather.attempt(f"{at}.stages.{n}", _stage, stage) for n, stage in enumerate(document.stages)]
    if mass is None or any(stage is None for stage in stages):
        return None
    return CorePiece(
        document.cut, mass.mass_g, mass.count, untrimmed, document.grade, dict(document.faces), document.surface,
        measures,
        document.cut_into if size is not None else "", size, thin, endpoint, document.pierced,
        tuple(Bone(*rod) for rod in document.bones), tuple(stages), mass.masses_g,  # type: ignore[arg-type]
    )  # fmt: skip


def _stage(document: StageDocument) -> Stage:
    celsius = document.hold_at.read("hold_at") if document.hold_at else PLACES[document.place].usual_c
    return Stage(document.what, document.place, celsius, document.hold.read("hold"))


def _held_c(document: LayerDocument) -> float:
    """Return how warm a layer is held [C]: as it says, else as is usual at its place."""
    usual = PLACES["pot" if document.kind == "cooking liquid" else document.place or "fridge"].usual_c
    return usual if document.hold_c is None else document.hold_c


def read_layer(document: LayerDocument, blends: Blends, gather: Gather, at: str) -> Layer | None:
    """Read a layer as typed; all that cannot be read is gathered under `at`."""
    kind = LAYER_KINDS[document.kind]
    blend = None
    ok = True
    if document.blend_id:
        blend = gather.attempt(at, blends.core, document)
        ok = blend is not None
    elif document.grind:
        blend = plain(document.grind)
    elif kind.blend_kind and document.kind != "cooking liquid":
        # a cooking liquid of nothing is what is left of a bath
        gather.refuse(f"{at}.blend", "Choose what goes on here: a blend, or a plain ingredient.")
        ok = False
    dose: float | None = None
    portion: Portion | None = None
    if document.dose:
        said = gather.attempt(at, _dose, document, blends)
        ok = ok and said is not None
        dose, portion = (None, said) if isinstance(said, Portion) else (said, None)
        if portion is not None and portion.unit == "jar" and document.blend_id:
            portion = replace(portion, holds_g=blends.jars_g(document.blend_id))
        if portion is not None and portion.shared and document.mixed_g is not None:
            portion = Portion(document.mixed_g, "g")
    hold = 0.0
    if kind.hold_s is not None:
        read = gather.value(f"{at}.hold", document.hold)
        ok = ok and read is not None
        hold = read or 0.0
    hold_c = _held_c(document)
    if document.hold_at and kind.hold_s is not None:
        typed_c = gather.value(f"{at}.hold_at", document.hold_at)
        ok = ok and typed_c is not None
        hold_c = hold_c if typed_c is None else typed_c
    stays, eaten = gather.value_if(f"{at}.stays", document.stays), gather.value_if(f"{at}.eaten", document.eaten)
    reserve = gather.value_if(f"{at}.reserve", document.reserve) if document.kind in BATHS else None
    injection = Injection()
    if document.kind in INJECTIONS:
        read_injection = gather.attempt(f"{at}.injection", injection_of, document.injection.model_dump())
        ok = ok and read_injection is not None
        injection = read_injection or injection
    weighed: BathWeighed | None = None
    if document.kind in BATHS and document.weighed != _NOT_WEIGHED:
        weighed = gather.attempt(f"{at}.weighed", bath_weighed_of, document.weighed.model_dump())
        ok = ok and weighed is not None
    if not ok:
        return None
    return Layer(
        document.kind, blend, dose, hold, hold_c, None if stays is None else stays / 100,
        document.after if document.kind in BATHS else "wiped", None if eaten is None else eaten / 100,
        document.times, reserve, injection, "" if document.kind == "cooking liquid" else document.place,
        document.into_pot and document.kind in BATHS, portion, weighed,
    )  # fmt: skip


_NOT_WEIGHED = BathWeighedDocument()


def _dose(document: LayerDocument, blends: Blends) -> float | Portion:
    """Return the dose of a layer as it was said, within the limits of its dial where it is set there."""
    kind = LAYER_KINDS[document.kind]
    said = blends.dose(document)
    if not isinstance(said, Portion) and not kind.low <= said <= kind.high:
        noun = f"a dose in {kind.unit} lies between {kind.low:g} and {kind.high:g}"
        raise BadInput("dose", f"That is out of range: {noun}.")
    return said


def read_pieces(
    pieces: Sequence[PieceDocument], blends: Blends, appetite: str, at: str = "pieces.", fired: bool = True
) -> list[Seasoned]:
    """Read every piece with its stack as typed; all fields that cannot be read are named together.

    `at` is where the pieces stand in the document; a piece by itself, not in a list, at its own field. `fired` says
    whether what its phases do to it is wanted.

    Raises
    ------
    Refused
        With every field that cannot be read.
    """
    gather = Gather()
    found = []
    for number, document in enumerate(pieces):
        place = f"{at}{number}" if at.endswith(".") else at
        piece = read_piece(document, gather, place)
        layers = [read_layer(layer, blends, gather, f"{place}.layers.{n}") for n, layer in enumerate(document.layers)]
        if not document.name:
            gather.refuse(f"{place}.name", "Write something here; it cannot be empty.")
        target = None
        if document.target:
            target = gather.attempt(place, document.target.between, "target", 0.1, 5, "a salt target in %")
        serving_g = gather.value_if(f"{place}.serving", document.serving)
        phases = read_phases(document.phases, gather, f"{place}.phases")
        if piece is not None and all(layer is not None for layer in layers):
            portion_g = serving_of(document.cut, serving_g, appetite)
            fire = None
            if fired and phases and not gather.errors:
                fire = gather.attempt(place, on_fire_of, piece, phases, [cooker_of(one) for one in document.phases])
            found.append(
                Seasoned(document.letter, piece, tuple(layers), target, portion_g, fire)  # type: ignore[arg-type]
            )
    gather.finish()
    return found


def _shared(layer: LayerDocument, blends: Blends) -> bool:
    """Tell whether a layer takes a share of a batch or of the jars."""
    try:
        said = blends.dose(layer) if layer.dose else None
    except BadInput:
        return False
    return isinstance(said, Portion) and said.shared


def read_as_far(piece: PieceDocument, blends: Blends, appetite: str) -> Seasoned | None:
    """Return a piece as it is typed, None where any of it cannot be read."""
    try:
        return read_pieces([piece], blends, appetite)[0]
    except Refused:
        return None


def layers_of(pieces: Iterable[PieceDocument]) -> Iterable[LayerDocument]:
    """Return the layers of all pieces."""
    return (layer for piece in pieces for layer in piece.layers)


def layer_document(layer: LayerRow) -> LayerDocument:
    """Write a layer of the book as it is typed; a hold of before places were said is where its temperature is usual."""
    held = LAYER_KINDS[layer.kind].hold_s is not None and layer.kind != "cooking liquid"
    revision = getattr(layer, "revision", None)
    return LayerDocument(
        kind=layer.kind,
        blend_id=layer.blend_id if layer.blend_id else (layer.blend.pk if layer.blend else None),
        revision=revision.number if revision else None,
        grind=layer.grind,
        dose=layer.dose_typed,
        mixed_g=layer.mixed_g,
        vessel=layer.vessel,
        hold=layer.hold_typed,
        hold_c=layer.hold_c,
        hold_at=layer.hold_c_typed,
        place=layer.place or (place_of(layer.hold_c) if held else ""),
        into_pot=layer.into_pot,
        stays=layer.stays_typed,
        after=layer.after,
        eaten=layer.eaten_typed,
        times=layer.times,
        reserve=layer.reserve_typed,
        injection=InjectionDocument(**typed_of(layer.injection)),
        weighed=BathWeighedDocument(**typed_of(layer.weighed)),
    )


def write_layer(row: LayerRow, document: LayerDocument, core: Layer, blends: Blends) -> None:
    """Put a layer as typed and as read into a row, without saving it."""
    blend = blends.row(document)[0] if document.blend_id else None
    held = LAYER_KINDS[document.kind].hold_s is not None
    row.kind, row.blend, row.grind = document.kind, blend, "" if blend else document.grind
    said = _dose(document, blends) if document.dose else None
    portion = said if isinstance(said, Portion) else Portion(0.0, "")
    row.dose, row.dose_typed, row.vessel = portion.value or core.dose, document.dose, document.vessel
    row.dose_unit, row.dose_per, row.dose_error, row.dose_rest = (
        portion.unit, portion.per, portion.error, portion.rest
    )  # fmt: skip
    row.mixed_g = document.mixed_g if portion.shared else None
    row.hold_s, row.hold_typed = (core.hold_s if held else None), document.hold
    row.hold_c, row.hold_c_typed, row.place = core.hold_c, document.hold_at, core.place
    row.into_pot = core.into_pot
    row.stays, row.stays_typed, row.after = core.stays, document.stays, document.after
    row.eaten, row.eaten_typed, row.times = core.eaten, document.eaten, document.times
    row.reserve_typed = document.reserve if document.kind in BATHS else ""
    reserve = core.reserve if document.kind in BATHS else None
    row.reserve, row.reserve_unit = (reserve.value, reserve.unit) if reserve else (None, "")
    injected = document.kind in INJECTIONS
    weighed = document.weighed.model_dump(exclude_defaults=True) if document.kind in BATHS else {}
    row.weighed = stored_weighed(weighed)
    row.injection = stored_injection(document.injection.model_dump(exclude_defaults=True) if injected else {})


def good_document(piece: Piece, tasted: bool) -> PieceDocument:
    """Write a piece of the book, with its layers, as what was last read of it is typed."""
    return PieceDocument(
        letter=piece.letter, name=piece.name, tasted=tasted, target=piece.target_typed,
        cut=piece.cut, mass=piece.mass_typed, serving=piece.serving_typed, untrimmed=piece.untrimmed_typed,
        count=piece.count,
        grade=cast(Grade, piece.grade), faces=piece.faces, surface=cast(Surface, piece.surface),
        length=piece.length_typed, width=piece.width_typed, thickness=piece.thickness_typed,
        cut_into=cast(CutInto, piece.cut_into), cut_size=piece.cut_typed, thin=piece.thin_typed,
        endpoint=piece.endpoint_typed, pierced=piece.pierced, bones=piece.bones,
        stages=[StageDocument(**{name: stage[name] for name in StageDocument.model_fields}) for stage in piece.stages],
        layers=[layer_document(layer) for layer in piece.layers.all()],
        phases=phases_typed(piece.phases),
    )  # fmt: skip


def piece_document(piece: Piece, tasted: bool) -> PieceDocument:
    """Write a piece of the book, with its layers, as it is typed, what of it cannot be read too."""
    good = good_document(piece, tasted)
    if piece.unread is None:
        return good
    typed = PieceDocument(**piece.unread["typed"])
    pinned = matched(good.layers, [(layer.kind, layer.blend_id) for layer in typed.layers])
    layers = [
        layer if kept is None else layer.model_copy(update={"revision": kept.revision})
        for layer, kept in zip(typed.layers, pinned, strict=True)
    ]
    return typed.model_copy(update={"letter": piece.letter, "tasted": tasted, "layers": layers})


def write_piece(row: Piece, document: MeatDocument, core: CorePiece) -> None:
    """Put a piece as typed and as read into a row, without saving it; its cut is taken apart from that."""
    row.mass_g, row.mass_typed, row.masses_g = core.mass_g, document.mass, list(core.masses_g)
    row.serving_typed = document.serving
    row.serving_g = document.serving.value if document.serving else None
    row.untrimmed_g, row.untrimmed_typed = core.untrimmed_g, document.untrimmed
    row.count, row.grade, row.faces, row.surface = core.count, core.grade, dict(core.faces), core.surface
    row.length_typed, row.width_typed, row.thickness_typed = document.length, document.width, document.thickness
    measures = core.measures
    row.length_cm = measures.length_cm if measures else None
    row.width_cm = measures.width_cm if measures else None
    row.thickness_cm = measures.thickness_cm if measures else None
    row.cut_into, row.cut_cm, row.cut_typed = core.cut_into, core.cut_cm, document.cut_size
    row.thin_cm, row.thin_typed = core.thin_cm, document.thin
    row.endpoint_c, row.endpoint_typed, row.pierced = core.endpoint_c, document.endpoint, document.pierced
    row.bones = [list(rod) for rod in document.bones]
    row.stages = [
        {**typed.model_dump(), "hold_c": stage.celsius, "hold_s": stage.lasts_s}
        for typed, stage in zip(document.stages, core.stages, strict=True)
    ]


def same_piece(kept: PieceDocument, sent: PieceDocument) -> bool:
    """Tell whether a piece was sent as it is kept; a layer that was mixed since it was read pins its revision."""
    layers = [
        layer.model_copy(
            update={"revision": before.revision if layer.revision is None else layer.revision, "hold_c": _held_c(layer)}
        )
        for layer, before in zip(sent.layers, kept.layers, strict=False)
    ]
    return len(sent.layers) == len(kept.layers) and kept == sent.model_copy(update={"layers": layers})
