"""Side by side: one joint seasoned in several ways, compared before any meat is cut, and made into two arms."""

from dataclasses import dataclass
from typing import Annotated
from uuid import UUID

from ninja import Router, Schema
from pydantic import Field
from ravska_core.coat import SIDE_BY_SIDE, WAYS, Side, side
from ravska_core.working import BadInput, Figure, say

from api.coat_document import Appetite, ArmDocument, Blends, layers_of, read_arms, read_piece
from api.coat_schools import at_hand, free_label, stack_of
from api.documents import CautionOut, caution_out, sends
from api.household import spoon_set
from api.problems import ANSWERS, Gather
from api.typed import Key

router = Router(tags=["coat"])

BlendIds = Annotated[list[UUID], Field(max_length=12)]


class SidesDocument(Schema):
    """A joint and the blends to season it with; those on it, then the latest of their kind, do for the others."""

    arm: ArmDocument
    blend_ids: BlendIds = Field(default=[])
    appetite: Appetite = "usual"


@dataclass(frozen=True, slots=True)
class WayOut:
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
    worst: list[CautionOut]
    problem: str


def _way_out(key: str, found: Side, blends: list[str]) -> WayOut:
    sample, surface = found.reading.sample, found.surface
    return WayOut(
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
        worst=[caution_out(caution) for caution in found.worst],
        problem="",
    )


def _untold(key: str, problem: str) -> WayOut:
    return WayOut(
        key, WAYS[key].name, WAYS[key].says, [], None, "", None, 0.0, [], [], [], None, 0.0, 0.0, None, "", None,
        0.0, 0, 0, [], problem,
    )  # fmt: skip


@router.post("/coat/side-by-side", response={200: list[WayOut], **ANSWERS})
@sends
def side_by_side(request, document: SidesDocument) -> list[WayOut]:
    """Say what every way of seasoning a joint does, without saving anything."""
    gather = Gather()
    read_piece(document.arm.piece, gather, "arm.piece")
    gather.finish()
    spoons = spoon_set()
    known = at_hand(document.arm, document.blend_ids)
    typed: dict[str, ArmDocument] = {}
    untold: dict[str, str] = {}
    for key in SIDE_BY_SIDE:
        try:
            layers = stack_of(key, document.arm, document.blend_ids, known)
            typed[key] = document.arm.model_copy(update={"layers": layers, "target": ""})
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
            arm = read_arms([typed[key]], blends, document.appetite)[0]
            found.append(_way_out(key, side(key, arm, spoons), names))
        except BadInput as refusal:
            if refusal.field.startswith("piece"):
                raise refusal.under("arm") from refusal
            found.append(_untold(key, refusal.sentence))
    return found


class PairDocument(Schema):
    """What two arms of one piece are to be; `split` halves the piece, else there are two alike."""

    arm: ArmDocument
    kinds: Annotated[list[Key], Field(min_length=2, max_length=2)]
    split: bool = True
    taken: Annotated[list[Annotated[str, Field(pattern="^[A-H]$")]], Field(max_length=8)] = Field(default=[])
    blend_ids: BlendIds = Field(default=[])


@router.post("/coat/pair", response={200: list[ArmDocument], **ANSWERS})
@sends
def make_pair(request, document: PairDocument) -> list[ArmDocument]:
    """Return one piece as two arms, each with the stack of its kind, without saving anything."""
    for kind in document.kinds:
        if kind not in SIDE_BY_SIDE:
            raise BadInput("kinds", f"An arm can be {', '.join(SIDE_BY_SIDE)}.")
    if document.kinds[0] == document.kinds[1]:
        raise BadInput("kinds", "Two arms that are the same say nothing; make them differ.")
    arm = document.arm
    gather = Gather()
    piece = read_piece(arm.piece, gather, "arm.piece")
    gather.finish()
    assert piece is not None
    typed = arm.piece
    if document.split:
        count = piece.count // 2 if piece.count > 1 else 1
        share = count / piece.count if piece.count > 1 else 0.5
        mass = f"{say(piece.mass_g * share / 1000, 3)} kg"
        # halves have measures and bones of their own
        typed = typed.model_copy(
            update={
                "mass": mass,
                "count": count,
                "length": "",
                "width": "",
                "thickness": "",
                "untrimmed": "",
                "bones": [],
            }
        )
    other = free_label([*document.taken, arm.label])
    return [
        arm.model_copy(
            update={
                "label": label,
                "name": WAYS[kind].name,
                "piece": typed,
                "layers": stack_of(kind, arm, document.blend_ids),
                "beside": False,
            }
        )
        for label, kind in zip((arm.label, other), document.kinds, strict=True)
    ]
