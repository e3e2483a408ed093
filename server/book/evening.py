"""Evening out: what differs between two pieces that are tasted, besides their seasoning."""

from collections.abc import Sequence

from ravska_core.coat import Evened, brought_to, common_salt, plain, read_coat, share_out
from ravska_core.coat import Layer as CoreLayer
from ravska_core.units import say_duration
from ravska_core.working import BadInput, say

from book.models import Cook, Layer, Piece, Step
from book.steps import lay_out_steps

EVENING_SALT = "kosher-dense/flake"
EVENING_HOLD_S = 1800.0


def even_salt(cook: Cook) -> None:
    """Bring both pieces that are tasted to one salt: the one wanted, or the usual zone; the saltier is lowered too.

    Raises
    ------
    BadInput
        At ``what`` when the salt of a piece cannot be told, nothing differs, or no one layer can bring it there.
    """
    pieces = tasted_pieces(cook)
    if len(pieces) < 2:
        raise BadInput("what", "No two pieces of this cook are tasted against each other; tick two in Coat first.")
    try:
        # what takes the rest of something knows what the whole board takes
        shared = share_out([piece.seasoned(cook.appetite) for piece in cook.pieces.all()])
        seasoned = [shared.told(piece.seasoned(cook.appetite)) for piece in pieces[:2]]
        salts = [read_coat(one, cored=False).salt.value for one in seasoned]
    except BadInput:
        raise BadInput("what", "The salt of a piece is not known yet; mend it in Coat first.") from None
    if abs(salts[0] - salts[1]) < 0.01:
        raise BadInput("what", "Both pieces carry the same salt already.")
    wanted = [piece.target_percent for piece in pieces[:2] if piece.target_percent is not None]
    goal = common_salt(salts[0], salts[1], wanted)
    salting = CoreLayer("pre-salt", plain(EVENING_SALT), 0.01, EVENING_HOLD_S)
    found = [brought_to(one, goal, salting, salting_place([layer.kind for layer in one.layers])) for one in seasoned]
    for piece, evened in zip(pieces, found, strict=False):
        _put_evened(piece, evened)


def tasted_pieces(cook: Cook) -> list[Piece]:
    """Return the pieces of a cook that are tasted, in order."""
    return list(cook.pieces.filter(sample__isnull=False))


def even_times(cook: Cook, kind: str) -> None:
    """Give the pieces that are tasted the longer of their times for a kind of step."""
    steps = Step.objects.filter(piece__in=tasted_pieces(cook), kind=kind)
    steps.update(lasts_s=max((step.lasts_s for step in steps), default=0.0))


def even_faces(cook: Cook) -> None:
    """Season the faces of the pieces that are tasted as is usual: a fat cap left bare, the skin of a bird coated."""
    for piece in tasted_pieces(cook):
        piece.faces = {face: done for face, done in piece.faces.items() if done not in ("coated", "bare")}
        piece.save(update_fields=["faces"])


def _put_evened(piece: Piece, evened: Evened) -> None:
    """Write the doses and holds that even a piece out into its layers, and the salting that came among them."""
    rows = list(piece.layers.order_by("position"))
    if len(evened.layers) > len(rows):
        place = salting_place([row.kind for row in rows])
        _insert_salting(piece, rows, place, evened.layers[place].dose or 0.01)
        rows = list(piece.layers.order_by("position"))
    for row, layer in zip(rows, evened.layers, strict=True):
        if layer.dose is not None and (layer.dose != row.dose or row.dose_unit):
            row.dose, row.dose_typed, row.vessel = layer.dose, say(layer.dose, 3), ""
            row.dose_unit, row.dose_per, row.dose_error, row.dose_rest, row.mixed_g = "", "", 0.0, False, None
        if row.hold_s is not None and layer.hold_s != row.hold_s:
            row.hold_s, row.hold_typed = layer.hold_s, say_duration(layer.hold_s)
        row.save()


def salting_place(kinds: Sequence[str]) -> int:
    """Return where a salting goes among layers: after a bath is wiped off, before a rub goes on."""
    coat = next((at for at, kind in enumerate(kinds) if kind in ("binder", "rub", "paste")), None)
    bath = max((at + 1 for at, kind in enumerate(kinds) if kind == "marinade"), default=0)
    return bath if coat is None else coat


def _insert_salting(piece: Piece, layers: Sequence[Layer], place: int, percent: float) -> None:
    for layer in reversed(layers[place:]):
        layer.position += 1
        layer.save(update_fields=["position"])
    Layer.objects.create(
        piece=piece, position=place, kind="pre-salt", grind=EVENING_SALT, dose=percent,
        dose_typed=say(percent, 3), hold_s=EVENING_HOLD_S, hold_typed=say_duration(EVENING_HOLD_S),
    )  # fmt: skip
    lay_out_steps(piece)


def add_salt(piece: Piece, percent: float) -> None:
    """Add to the salting of a piece [% of its raw edible weight]: after a bath is wiped off, before a rub goes on."""
    layers = list(piece.layers.order_by("position"))
    salting = next((layer for layer in layers if layer.kind == "pre-salt" and layer.dose is not None), None)
    if salting is not None:
        salting.dose = (salting.dose or 0.0) + percent
        salting.dose_typed = say(salting.dose, 3)
        salting.save(update_fields=["dose", "dose_typed"])
        return
    _insert_salting(piece, layers, salting_place([layer.kind for layer in layers]), percent)
