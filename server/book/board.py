"""What lies on the board of a cook, written as it was typed: pieces, their layers and steps, in a few statements."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Protocol, TypeVar
from uuid import UUID

from ravska_core.catalogue import catalogue
from ravska_core.coat import Layer as CoreLayer
from ravska_core.meat import find_cut

from book.models import Cook, Layer, Piece, Step
from book.models.rows import store_in_order, store_rows, values_of
from book.steps import planned_steps

Kind = TypeVar("Kind", Piece, Layer, Step)


@dataclass
class Kept:
    """A piece as it was in the book, with its layers and steps in order; a piece that is new has none."""

    piece: Piece
    layers: list[Layer] = field(default_factory=list)
    steps: list[Step] = field(default_factory=list)


def kept_pieces(cook: Cook) -> dict[str, Kept]:
    """Return what lies on the board, by the letter of each piece."""
    found = {piece.pk: Kept(piece) for piece in Piece.objects.filter(cook=cook)}
    for layer in Layer.objects.filter(piece__cook=cook).order_by("position"):
        found[layer.piece_id].layers.append(layer)
    for step in Step.objects.filter(piece__cook=cook).order_by("position"):
        found[step.piece_id].steps.append(step)
    return {kept.piece.letter: kept for kept in found.values()}


class HasKind(Protocol):
    """A layer of the book, or one as it is typed."""

    @property
    def kind(self) -> str: ...

    @property
    def blend_id(self) -> UUID | None: ...


Typed = TypeVar("Typed", bound=HasKind)


def matched(before: Sequence[Typed], kinds: Sequence[tuple[str, object]]) -> list[Typed | None]:
    """Return which layer that was there each of those to come is, by kind and blend, or else by kind; None is new.

    What stays keeps its weigh-backs and its ticks.
    """
    left, found = list(before), []
    if [layer.kind for layer in left] == [kind for kind, _ in kinds]:
        return list(left)
    for kind, blend in kinds:
        row = next((layer for layer in left if (layer.kind, layer.blend_id) == (kind, blend)), None)
        row = row or next((layer for layer in left if layer.kind == kind), None)
        if row is not None:
            left.remove(row)
        found.append(row)
    return found


def take_cut(kept: Kept, cut: str) -> None:
    """Change the cut of a piece; times that were the old cut's usual ones become the new one's."""
    before, after = catalogue().cuts.get(kept.piece.cut), find_cut(cut)
    kept.piece.cut = cut
    for step in kept.steps:
        usual = {"on": "fire_min", "rest": "rest_min"}.get(step.kind)
        if usual and (before is None or step.lasts_s == getattr(before, usual) * 60):
            step.lasts_s = getattr(after, usual) * 60


class Board:
    """Gathers what changes on the board of a cook, to write it in as few statements for eight pieces as for one."""

    def __init__(self, cook: Cook) -> None:
        self.cook = cook
        self.kept = kept_pieces(cook)
        self._before = {row.pk: values_of(row) for kept in self.kept.values() for row in _rows(kept)}
        self._pieces: list[Piece] = []
        self._moved: tuple[list[Layer], list[Step]] = ([], [])
        self._stayed: tuple[list[Layer], list[Step]] = ([], [])
        self._gone: tuple[list[Layer], list[Step]] = ([], [])

    def kept_as(self, letter: str) -> Kept:
        """Return what is kept under a letter, or a new piece."""
        return self.kept.get(letter) or Kept(Piece(cook=self.cook, letter=letter))

    def taken_off(self) -> list[Piece]:
        """Return the pieces that were on the board and are not put on it again."""
        put = {piece.pk for piece in self._pieces}
        return [kept.piece for kept in self.kept.values() if kept.piece.pk not in put]

    def put(self, kept: Kept, layers: Sequence[Layer], cores: Sequence[CoreLayer]) -> None:
        """Put a piece with these layers on the board; their steps follow."""
        new = kept.piece.pk not in self._before
        self._pieces.append(kept.piece)
        for at, layer in enumerate(layers):
            layer.piece, layer.position = kept.piece, at
        if not new and [layer.pk for layer in layers] == [layer.pk for layer in kept.layers]:
            self._stayed[0].extend(layers)
            self._stayed[1].extend(kept.steps)
            return
        stay = {layer.pk for layer in layers}
        self._gone[0].extend(layer for layer in kept.layers if layer.pk not in stay)
        self._moved[0].extend(layers)
        steps = list(kept.steps)
        self._moved[1].extend(planned_steps(kept.piece, layers, cores, steps))
        self._gone[1].extend(steps)

    def write(self) -> None:
        """Write what changed; pieces that were not put are taken off the board."""
        gone = {piece.pk for piece in self.taken_off()}
        off = [kept for kept in self.kept.values() if kept.piece.pk in gone]
        gone_steps = [*self._gone[1], *(step for kept in off for step in kept.steps)]
        gone_layers = [*self._gone[0], *(layer for kept in off for layer in kept.layers)]
        if gone_steps:
            Step.objects.filter(pk__in=[row.pk for row in gone_steps]).delete()
        if gone_layers:
            Layer.objects.filter(pk__in=[row.pk for row in gone_layers]).delete()
        if gone:
            Piece.objects.filter(pk__in=gone).delete()
        store_rows(Piece, self._changed(self._pieces))
        store_in_order(Layer, self._moved[0])
        store_rows(Layer, self._changed(self._stayed[0]))
        store_in_order(Step, self._moved[1])
        store_rows(Step, self._changed(self._stayed[1]))

    def _changed(self, rows: Sequence[Kind]) -> list[Kind]:
        return [row for row in rows if self._before.get(row.pk) != values_of(row)]


def _rows(kept: Kept) -> list[Piece | Layer | Step]:
    return [kept.piece, *kept.layers, *kept.steps]
