"""The steps of a piece, laid out from its layers; one that is still there keeps its key, its tick and its length."""

from collections.abc import Sequence

from ravska_core.coat import Layer as CoreLayer
from ravska_core.coat import usual_steps
from ravska_core.meat import find_cut

from book.models import Layer, Piece, Step
from book.models.rows import store_in_order


def planned_steps(piece: Piece, layers: Sequence[Layer], cores: Sequence[CoreLayer], before: list[Step]) -> list[Step]:
    """Return the steps of a piece with these layers, in order; what is left in `before` is none of them any more.

    A step is the same one as before when its piece, its kind and its layer are; one without a layer when its kind is,
    and how many of that kind come before it. Its tick stays, and its length where that was set.
    """
    cut = find_cut(piece.cut)
    rows = []
    for at, planned in enumerate(usual_steps(cores, cut.fire_min * 60, cut.rest_min * 60)):
        layer = None if planned.layer is None else layers[planned.layer]
        key = None if layer is None else layer.pk
        row = next((step for step in before if (step.kind, step.layer_id) == (planned.kind, key)), None)
        if row is not None:
            before.remove(row)
        else:
            row = Step(piece=piece, kind=planned.kind, lasts_s=planned.lasts_s)
        if layer is not None and layer.hold_s is not None:
            row.lasts_s = planned.lasts_s
        row.layer, row.position = layer, at
        rows.append(row)
    return rows


def lay_out_steps(piece: Piece) -> None:
    """Lay out the usual steps of a piece's layers as they are in the book."""
    before = list(piece.steps.all())
    layers = list(piece.layers.select_related("blend", "revision"))
    rows = planned_steps(piece, layers, [layer.as_core() for layer in layers], before)
    Step.objects.filter(pk__in=[row.pk for row in before]).delete()
    store_in_order(Step, rows)
