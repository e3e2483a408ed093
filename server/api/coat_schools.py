"""A school's stack for an arm, with the blends at hand: for one arm, for a pair, or side by side."""

from collections.abc import Mapping, Sequence
from uuid import UUID

from book.cooks import begin_usual, layer_of_slot, usual_hold_s
from book.models import Blend, Piece
from ravska_core.coat import WAYS
from ravska_core.units import say_duration
from ravska_core.working import BadInput

from api.coat_document import ArmDocument, LayerDocument, PieceDocument, layer_document, read_piece, write_piece
from api.household import household
from api.problems import Gather


def piece_row(document: PieceDocument) -> Piece:
    """Return a piece as typed as a row that is not saved; one whose typing cannot be read stands for its cut alone."""
    row = Piece(cut=document.cut)
    core = read_piece(document, Gather(), "piece")
    if core is not None:
        write_piece(row, document, core)
    return row


def at_hand(arm: ArmDocument, blend_ids: Sequence[UUID]) -> dict[str, Blend]:
    """Return a blend of each kind: those named first, then those on the arm, then the one worked on last."""
    rows = list(Blend.objects.filter(household=household(), deleted_at__isnull=True, archived_at__isnull=True)
                .order_by("-created_at"))  # fmt: skip
    wanted = [*blend_ids, *(layer.blend_id for layer in arm.layers if layer.blend_id)]
    ranked = sorted(rows, key=lambda row: wanted.index(row.pk) if row.pk in wanted else len(wanted))
    found: dict[str, Blend] = {}
    for row in ranked:
        found.setdefault(row.kind, row)
    return found


def stack_of(
    school: str, arm: ArmDocument, blend_ids: Sequence[UUID], known_blends: Mapping[str, Blend] | None = None
) -> list[LayerDocument]:
    """Return the layers of a school for an arm; `known_blends` saves looking up what is `at_hand` for each of several.

    Raises
    ------
    BadInput
        At ``school`` when there is no such school, or the book has no blend it needs.
    """
    known = WAYS.get(school)
    if known is None:
        raise BadInput("school", f"A school is one of {', '.join(WAYS)}.")
    blends = at_hand(arm, blend_ids) if known_blends is None else known_blends
    piece = piece_row(arm.piece)
    rows = [layer_of_slot(slot, at, blends) for at, slot in enumerate(known.slots)]
    for row in rows:
        if row.kind == "marinade" and row.blend is not None:
            row.hold_s = usual_hold_s("marinade", row.blend, piece)
            row.hold_typed = say_duration(row.hold_s or 0.0)
    for at, row in enumerate(rows):
        # a school's coat is for a joint; on thin pieces, racks and birds it begins lighter
        begin_usual(row, piece, [x.as_core() for x in rows[:at]], [x.as_core() for x in rows[at + 1 :]])
    return [layer_document(row) for row in rows]


def free_label(taken: Sequence[str]) -> str:
    """Return the first letter that no piece has; refuse a ninth piece at ``arms``."""
    free = next((label for label in "ABCDEFGH" if label not in taken), None)
    if free is None:
        raise BadInput("arms", "A cook has at most eight pieces; remove one first.")
    return free
