"""Side by side: one joint seasoned in several ways, compared before any meat is cut, and made into two pieces."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated
from uuid import UUID

from django.http import HttpRequest
from ninja import Schema
from pydantic import Field
from ravska_core.cautions import Caution
from ravska_core.coat import SIDE_BY_SIDE, WAYS, Side, side
from ravska_core.working import BadInput, Figure, say

from api.cooks.documents import Appetite, Blends, Letter, PieceDocument, layers_of, read_piece, read_pieces
from api.cooks.ways import at_hand, free_letter, stack_of
from api.plumbing.answers import Router
from api.plumbing.household import spoon_set
from api.plumbing.problems import Gather, at_field
from api.plumbing.typed import Key

router = Router()

BlendIds = Annotated[list[UUID], Field(max_length=12)]


class SidesDocument(Schema):
    """A joint and the blends to season it with; those on it, then the latest of their kind, do for the others."""

    piece: PieceDocument
    blend_ids: BlendIds = Field(default=[])
    appetite: Appetite = "usual"


@dataclass(frozen=True, slots=True)
class WayReadingOut:
    """One way to season the joint: salt, depth, surface, time and risk; `problem` says why it cannot be told.

    `depths_cm` and `percent` are the salt below the surface at the end of the holds, `least` that of the
    tenth of the meat that a needle reached least, empty without one; times in s.
    """

    key: str
    name: str
    says: str
    blends: list[str]
    salt: Figure | None
    zone: str
    deeper: Figure | None
    centre_percent: float
    depths_cm: list[float]
    percent: list[float]
    least: list[float]
    water: Figure | None
    wet: float
    crust_g_100cm2: float
    dries: Figure | None
    surface: str
    ahead: Figure | None
    hands_s: float
    stops: int
    cautions: int
    worst: Sequence[Caution]
    problem: str


def _side_out(key: str, found: Side, blends: list[str]) -> WayReadingOut:
    sample, surface = found.reading.sample, found.surface
    return WayReadingOut(
        key=key,
        name=WAYS[key].name,
        says=WAYS[key].says,
        blends=blends,
        salt=found.reading.salt,
        zone=found.reading.zone,
        deeper=found.deeper,
        centre_percent=found.centre_percent,
        depths_cm=list(sample.depths_cm) if sample else [],
        percent=list(sample.percent) if sample else [],
        least=list(sample.least) if sample else [],
        water=surface.water,
        wet=surface.wet,
        crust_g_100cm2=surface.crust_g_100cm2,
        dries=surface.dries,
        surface=surface.says,
        ahead=found.ahead,
        hands_s=found.hands_s,
        stops=found.stops,
        cautions=found.cautions,
        worst=found.worst,
        problem="",
    )


def _untold(key: str, problem: str) -> WayReadingOut:
    return WayReadingOut(
        key, WAYS[key].name, WAYS[key].says, [], None, "", None, 0.0, [], [], [], None, 0.0, 0.0, None, "", None,
        0.0, 0, 0, (), problem,
    )  # fmt: skip


@router.asks("/coat/side-by-side")
def side_by_side(request: HttpRequest, document: SidesDocument) -> list[WayReadingOut]:
    """Say what every way of seasoning a joint does, without saving anything."""
    gather = Gather()
    read_piece(document.piece, gather, "piece")
    gather.finish()
    spoons = spoon_set()
    known = at_hand(document.piece, document.blend_ids)
    typed: dict[str, PieceDocument] = {}
    untold: dict[str, str] = {}
    for key in SIDE_BY_SIDE:
        try:
            layers = stack_of(key, document.piece, document.blend_ids, known)
            typed[key] = document.piece.model_copy(update={"layers": layers, "target": ""})
        except BadInput as refusal:
            untold[key] = refusal.sentence
    blends = Blends(layers_of(typed.values()))
    found = []
    for key in SIDE_BY_SIDE:
        if key in untold:
            found.append(_untold(key, untold[key]))
            continue
        try:
            names = [blends.row(layer)[0].name for layer in typed[key].layers if layer.blend_id]
            (seasoned,) = read_pieces([typed[key]], blends, document.appetite, "piece")
            found.append(_side_out(key, side(key, seasoned, spoons), names))
        except BadInput as refusal:
            if refusal.argument.startswith("piece"):
                raise at_field(refusal, "piece") from refusal
            found.append(_untold(key, refusal.sentence))
    return found


class PairDocument(Schema):
    """Which ways two pieces made of one are to take; `split` halves the piece, else there are two alike."""

    piece: PieceDocument
    ways: Annotated[list[Key], Field(min_length=2, max_length=2)]
    split: bool = True
    taken: Annotated[list[Letter], Field(max_length=8)] = Field(default=[])
    blend_ids: BlendIds = Field(default=[])


@router.asks("/coat/pair")
def make_pair(request: HttpRequest, document: PairDocument) -> list[PieceDocument]:
    """Return one piece as two that are tasted, each with the stack of its way, without saving anything."""
    for way in document.ways:
        if way not in SIDE_BY_SIDE:
            raise BadInput("ways", f"A piece here takes one of these ways: {', '.join(SIDE_BY_SIDE)}.")
    if document.ways[0] == document.ways[1]:
        raise BadInput("ways", "Two pieces that are the same say nothing; make them differ.")
    typed = document.piece
    gather = Gather()
    piece = read_piece(typed, gather, "piece")
    gather.finish()
    assert piece is not None
    halved: dict[str, object] = {}
    if document.split:
        count = piece.count // 2 if piece.count > 1 else 1
        share = count / piece.count if piece.count > 1 else 0.5
        # halves have measures and bones of their own
        halved = {
            "mass": f"{say(piece.mass_g * share / 1000, 3)} kg", "count": count, "length": "", "width": "",
            "thickness": "", "untrimmed": "", "bones": [],
        }  # fmt: skip
    other = free_letter([*document.taken, typed.letter])
    return [
        typed.model_copy(
            update={
                **halved,
                "letter": letter,
                "name": WAYS[way].name,
                "layers": stack_of(way, typed, document.blend_ids),
                "tasted": True,
            }
        )
        for letter, way in zip((typed.letter, other), document.ways, strict=True)
    ]
