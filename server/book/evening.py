"""Evening out: what differs between the pieces that are tasted, besides the one thing that is asked about."""

from collections.abc import Sequence

from ravska_core.catalogue import said_name
from ravska_core.coat import LAYER_KINDS, Evened, brought_to, common_salt, plain, read_coat, share_out
from ravska_core.coat import Layer as CoreLayer
from ravska_core.trial import Put, changes, deal_weights
from ravska_core.units import say_duration
from ravska_core.working import BadInput, say

from book.cooks import copied
from book.models import Cook, Layer, Piece, Step
from book.steps import lay_out_steps

EVENING_SALT = "kosher-dense/flake"
EVENING_HOLD_S = 1800.0


def even_salt(cook: Cook) -> None:
    """Bring all pieces that are tasted to one salt: the one wanted, or the usual zone; the saltier is lowered too.

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
        seasoned = [shared.told(piece.seasoned(cook.appetite)) for piece in pieces]
        salts = [read_coat(one, cored=False).salt.value for one in seasoned]
    except BadInput:
        raise BadInput("what", "The salt of a piece is not known yet; mend it in Coat first.") from None
    if max(salts) - min(salts) < 0.01:
        raise BadInput("what", "These pieces carry the same salt already.")
    wanted = [piece.target_percent for piece in pieces if piece.target_percent is not None]
    goal = common_salt(salts, wanted)
    salting = CoreLayer("pre-salt", plain(EVENING_SALT), 0.01, EVENING_HOLD_S)
    found = [brought_to(one, goal, salting, salting_place([layer.kind for layer in one.layers])) for one in seasoned]
    for piece, evened in zip(pieces, found, strict=False):
        _put_evened(piece, evened)


def tasted_pieces(cook: Cook) -> list[Piece]:
    """Return the pieces of a cook that are tasted, in order."""
    return list(cook.pieces.filter(sample__isnull=False).prefetch_related("layers__blend"))


def even_times(cook: Cook, kind: str) -> None:
    """Give the pieces that are tasted the longer of their times for a kind of step."""
    steps = Step.objects.filter(piece__in=tasted_pieces(cook), kind=kind)
    steps.update(lasts_s=max((step.lasts_s for step in steps), default=0.0))


def even_faces(cook: Cook) -> None:
    """Season the faces of the pieces that are tasted as is usual: a fat cap left bare, the skin of a bird coated."""
    for piece in tasted_pieces(cook):
        piece.faces = {face: done for face, done in piece.faces.items() if done not in ("coated", "bare")}
        piece.save(update_fields=["faces"])


def even_weights(cook: Cook, seed: str) -> None:
    """Deal the pieces that several of unlike weight are one of here out by lot, so that each way gets one of each size.

    Raises
    ------
    BadInput
        At ``what`` where it is not known what each weighs, or they do not come out even.
    """
    pieces = tasted_pieces(cook)
    if any(len(piece.masses_g) != len(pieces[0].masses_g) or len(piece.masses_g) < 2 for piece in pieces):
        raise BadInput("what", "Say in Coat what each of them weighs, as many on every side; then they can be dealt.")
    dealt = deal_weights(seed, [grams for piece in pieces for grams in piece.masses_g], len(pieces))
    for piece, masses in zip(pieces, dealt, strict=True):
        piece.masses_g, piece.mass_g = list(masses), sum(masses)
        piece.mass_typed = f"{', '.join(say(one, 4) for one in masses[:-1])} and {say(masses[-1], 4)} g"
        piece.save(update_fields=["masses_g", "mass_g", "mass_typed"])


def puts_of(piece: Piece) -> tuple[Put, ...]:
    """Return the layers of a piece as a trial compares them."""
    return tuple(
        Put(row.kind, row.blend.name if row.blend else said_name(row.grind) if row.grind else row.kind,
            row.dose_typed, row.hold_typed)
        for row in piece.layers.all()
    )  # fmt: skip


def even_layers(cook: Cook, both: bool) -> None:
    """Leave the pieces that are tasted one thing to differ in: what only one has goes on both, or comes off.

    Raises
    ------
    BadInput
        At ``what`` where nothing differs besides that one thing, or a choice is the cook's own.
    """
    pieces = tasted_pieces(cook)
    if len(pieces) != 2:
        raise BadInput("what", "This evens out two pieces; with more of them change their layers in Coat.")
    a, b = pieces
    found = changes(a.letter, puts_of(a), b.letter, puts_of(b))[1:]
    if not found or not all(change.tappable for change in found):
        raise BadInput("what", "There is nothing here that one tap evens out; change the layers in Coat.")
    for change in found:
        if change.what == "layer":
            has, lacks = (a, b) if change.letter == a.letter else (b, a)
            give_layers(has, lacks, change.of) if both else take_layers(has, change.of)
        else:
            _give_amounts(a, b, change.of, change.what)
    for piece in pieces:
        lay_out_steps(piece)


def _rows_of(piece: Piece, of: str) -> list[Layer]:
    names = [put.of for put in puts_of(piece)]
    return [row for row, name in zip(piece.layers.all(), names, strict=True) if name == of and row.kind != "pre-salt"]


def give_layers(has: Piece, lacks: Piece, of: str) -> None:
    """Put the layers of something that one piece has on another, after what lies there of the same time."""
    order = list(LAYER_KINDS)
    for row in _rows_of(has, of):
        rows = list(lacks.layers.order_by("position"))
        at = next((n for n, one in enumerate(rows) if order.index(one.kind) > order.index(row.kind)), len(rows))
        for later in reversed(rows[at:]):
            later.position += 1
            later.save(update_fields=["position"])
        copied(row, piece=lacks, position=at, mixed_g=None)


def take_layers(piece: Piece, of: str) -> None:
    """Take the layers of something off a piece."""
    Layer.objects.filter(pk__in=[row.pk for row in _rows_of(piece, of)]).delete()
    for at, row in enumerate(piece.layers.order_by("position")):
        if row.position != at:
            row.position = at
            row.save(update_fields=["position"])


def _give_amounts(a: Piece, b: Piece, of: str, what: str) -> None:
    """Give what both pieces have of something the dose, or the hold, that the first has."""
    columns = ("dose", "dose_typed", "dose_unit", "dose_per", "dose_error", "dose_rest") if what == "dose" else (
        "hold_s", "hold_typed",
    )  # fmt: skip
    theirs = {row.kind: row for row in _rows_of(b, of)}
    for row in _rows_of(a, of):
        other = theirs.get(row.kind)
        if other is not None:
            for name in columns:
                setattr(other, name, getattr(row, name))
            other.save(update_fields=list(columns))


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
