"""Cooks in the book: loaded with all that a document of them needs, in a few queries, and written in a few more."""

from collections.abc import Sequence
from uuid import UUID

from book.board import Board, matched, take_cut
from book.mixtures import load_layers
from book.models import Cook, Household, Layer, Piece, Sample, Step
from book.models.values import stored
from book.tasting import FROZEN, TASTED, check_no_card, taste, trial_of
from django.db.models import Count, Prefetch, Q, QuerySet
from django.http import Http404
from ravska_core.coat import CoatReading, Seasoned, read_coat, share_out
from ravska_core.measure import SpoonSet
from ravska_core.working import BadInput

from api.cooks.documents import (
    Blends,
    CookSave,
    PieceDocument,
    good_document,
    layers_of,
    piece_document,
    read_pieces,
    same_piece,
    write_layer,
    write_piece,
)
from api.cooks.phases import stored_phases
from api.cooks.unread import ReadOn, read_on, sentences
from api.plumbing.household import household, spoons_of
from api.plumbing.quantities import Masses


def typed_cooks(of: Household | None = None) -> QuerySet[Cook]:
    """Return the household's cooks that are not deleted, with what is typed of them.

    How many cards were handed in, and how many of them by who knew, are counted with them: `handed_in`, `knowing`.
    """
    layers = Layer.objects.select_related("blend", "revision")
    taken = Q(trial__cards__deleted_at__isnull=True)
    return (
        Cook.objects.filter(household=of or household(), deleted_at__isnull=True)
        .annotate(  # type: ignore[no-redef]  # the model says that they are there, for who is given a cook
            handed_in=Count("trial__cards", filter=taken),
            knowing=Count("trial__cards", filter=taken & Q(trial__cards__blind=False)),
        )
        .select_related("trial", "household__preferences")
        .order_by("-serve_at")  # what is counted along with them leaves out the usual order
        .prefetch_related(
            Prefetch("pieces", queryset=Piece.objects.select_related("sample")),
            Prefetch("pieces__layers", queryset=layers),
        )
    )


def cooks(of: Household | None = None) -> QuerySet[Cook]:
    """Return the household's cooks as `typed_cooks` does, with their steps too; `load` then loads their blends."""
    return typed_cooks(of).prefetch_related(Prefetch("pieces__steps", queryset=Step.objects.select_related("layer")))


def load(cook: Cook) -> Cook:
    """Load what the layers of a cook are of, as it is now and as it was pinned."""
    load_layers(layer for piece in cook.pieces.all() for layer in piece.layers.all())
    return cook


def one_cook(cook_id: UUID) -> Cook:
    """Return a cook with all that is known of it."""
    return load(_one(cooks(), cook_id))


def one_typed(cook_id: UUID) -> Cook:
    """Return a cook as `typed_cooks` loads it."""
    return _one(typed_cooks(), cook_id)


def _one(found: QuerySet[Cook], cook_id: UUID) -> Cook:
    cook = found.filter(pk=cook_id).first()
    if cook is None:
        raise Http404
    return cook


def spoons_for(cook: Cook) -> SpoonSet:
    """Return the spoons of a cook's household."""
    preferences = cook.household.preferences
    return spoons_of(preferences.spoon_set, preferences.spoons_lacking)


def is_tasted(piece: Piece) -> bool:
    """Tell whether a piece is one of those that are tasted."""
    return hasattr(piece, "sample")


def piece_of(cook: Cook, letter: str) -> Piece:
    """Return the piece of a cook under a letter.

    Raises
    ------
    BadInput
        At ``letter`` when it is not on the board any more.
    """
    found = next((piece for piece in cook.pieces.all() if piece.letter == letter), None)
    if found is None:
        raise BadInput("letter", "That piece is not on the board any more.")
    return found


def read_stored(cook: Cook, spoon_set: SpoonSet) -> dict[str, CoatReading | BadInput]:
    """Read every piece by itself, by its letter, so that one that cannot be read leaves the others' numbers standing.

    Core samples are left out: only Coat shows them, and asks for the hour it shows.
    """
    found: dict[str, CoatReading | BadInput] = {}
    shared = share_out(seasoned_pieces(cook), spoon_set)
    for piece in cook.pieces.all():
        if piece.unread and was_never_read(piece):
            field, sentence = next(iter(piece.unread["fields"].items()))
            found[piece.letter] = BadInput(field, sentence)
            continue
        try:
            found[piece.letter] = read_coat(shared.told(piece.seasoned(cook.appetite)), spoon_set, cored=False)
        except BadInput as refusal:
            found[piece.letter] = refusal
    return found


def seasoned_pieces(cook: Cook) -> list[Seasoned | None]:
    """Return the pieces of a cook with their stacks, None for those whose blends cannot be read any more."""
    found: list[Seasoned | None] = []
    for piece in cook.pieces.all():
        try:
            found.append(None if piece.unread and was_never_read(piece) else piece.seasoned(cook.appetite))
        except BadInput:
            found.append(None)
    return found


NEVER_READ = PieceDocument(letter="A", name="A piece", cut="lamb-shoulder", mass=Masses("1 kg"))
"""What stands in the book for a piece that could never be read; nothing is shown of it but what was typed."""


def read_board(cook_id: UUID, document: CookSave) -> tuple[list[ReadOn], Blends]:
    """Read all pieces of a cook as typed; what cannot be read is taken as the book last read it."""
    blends = Blends(layers_of(document.pieces))
    blends.share(document.pieces, document.appetite)
    found = [read_on(piece, None, blends, document.appetite) for piece in document.pieces]
    if any(one.is_old for one in found):
        before = _last_read(cook_id)
        blends = Blends(layers_of([*document.pieces, *before.values()]))
        blends.share(document.pieces, document.appetite)
        found = [
            read_on(one.typed, before.get(one.typed.letter), blends, document.appetite) if one.is_old else one
            for one in found
        ]
    for one in found:
        if one.core is None:
            one.good = NEVER_READ.model_copy(update={"letter": one.typed.letter, "name": one.typed.name or "A piece"})
    return found, blends


def _last_read(cook_id: UUID) -> dict[str, PieceDocument]:
    """Return the pieces of a cook that could be read, as they were last, by their letter."""
    layers = Prefetch("layers", queryset=Layer.objects.select_related("blend", "revision"))
    pieces = Piece.objects.filter(cook=cook_id).prefetch_related(layers)
    return {piece.letter: good_document(piece, False) for piece in pieces if not was_never_read(piece)}


def was_never_read(piece: Piece) -> bool:
    """Tell whether nothing of a piece could be read yet."""
    return piece.unread is not None and bool(piece.unread["never"])


def _unread(one: ReadOn) -> dict[str, object] | None:
    """Return how a piece is kept that cannot be read as it is typed, None for one that can."""
    if not one.is_old:
        return None
    typed = one.typed.model_dump(mode="json", exclude_defaults=True)
    return stored(typed, None) | {"fields": sentences(one.errors), "never": one.core is None}


def write_cook(cook: Cook, document: CookSave, found: Sequence[ReadOn], blends: Blends) -> None:
    """Write a cook as typed; pieces that are not sent are taken off the board, new ones come onto it.

    Raises
    ------
    BadInput
        At ``pieces`` or one of them when what was tasted would change.
    """
    trial = trial_of(cook)
    tasted = trial is not None and trial.is_tasted()
    board = Board(cook)
    frozen = _tasted_letters(cook) if tasted else {}
    sent = {typed.letter for typed in document.pieces}
    if frozen.keys() - sent:
        raise BadInput("pieces", FROZEN, TASTED)
    (never,) = read_pieces([NEVER_READ], blends, document.appetite)
    chosen = []
    for at, (typed, one) in enumerate(zip(document.pieces, found, strict=True)):
        kept = board.kept_as(typed.letter)
        kept.piece.position = at
        good, core = one.good, one.core or never
        if typed.letter in frozen:
            if not same_piece(frozen[typed.letter], typed):
                raise BadInput(f"pieces.{at}", FROZEN, TASTED)
            board.put(kept, kept.layers, core.layers)
        elif one.core is None and kept.piece.cut:
            # even what was last read cannot be read any more: it stays as it is
            kept.piece.unread = _unread(one)
            board.put(kept, kept.layers, core.layers)
        else:
            if kept.piece.cut and kept.piece.cut != good.cut:
                take_cut(kept, good.cut)
            kept.piece.cut, kept.piece.name, kept.piece.unread = good.cut, good.name, _unread(one)
            write_piece(kept.piece, good, core.piece)
            kept.piece.phases = stored_phases(good.phases)
            kept.piece.target_percent, kept.piece.target_typed = core.target_percent, good.target
            board.put(kept, _layers(kept.layers, good, core, blends), core.layers)
        if typed.tasted:
            chosen.append(kept.piece)
    untasted = [piece for piece in board.taken_off() if hasattr(piece, "sample")]
    if untasted and trial is not None:
        check_no_card(trial)
        Sample.objects.filter(piece__in=untasted).delete()
    board.write()
    taste(cook, chosen)


def _layers(before: Sequence[Layer], typed: PieceDocument, core: Seasoned, blends: Blends) -> list[Layer]:
    rows = matched(before, [(layer.kind, layer.blend_id) for layer in typed.layers])
    found = []
    for row, document, layer in zip(rows, typed.layers, core.layers, strict=True):
        found.append(row if row is not None else Layer())
        found[-1].revision = blends.row(document)[1] if document.blend_id else None
        write_layer(found[-1], document, layer, blends)
    return found


def _tasted_letters(cook: Cook) -> dict[str, PieceDocument]:
    """Return the pieces that are tasted as they are typed, by their letter."""
    layers = Prefetch("layers", queryset=Layer.objects.select_related("blend", "revision"))
    pieces = Piece.objects.filter(cook=cook, sample__isnull=False).prefetch_related(layers)
    return {piece.letter: piece_document(piece, True) for piece in pieces}
