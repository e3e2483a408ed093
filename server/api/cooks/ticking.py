"""Steps ticked: when each was done, and what a mixing takes in, as it is mixed then."""

from collections.abc import Sequence
from datetime import datetime
from uuid import UUID

from book.cooks import pin_layer
from book.models import Cook, Layer, Piece, Step
from book.tasting import trial_of
from ravska_core.coat import SHARED
from ravska_core.working import BadInput

from api.cooks.shown import mixing_of
from api.cooks.store import cooks, load, read_stored
from api.plumbing.household import spoon_set


def tick_step(cook: Cook, step: Step, at: datetime | None) -> None:
    """Keep when a step was done, or that it was not. Ticking the mixing keeps the blend as it is mixed now.

    Raises
    ------
    BadInput
        At ``done`` where there is nothing to mix, or how much cannot be read.
    """
    step.done_at = at
    if step.kind == "mix":
        _mix(cook, step, at is not None)
    step.save(update_fields=["done_at"])


def _mix(cook: Cook, step: Step, done: bool) -> None:
    """Pin what the mixing takes in as it is mixed now; or let it follow its draft again, until cards are in."""
    trial = trial_of(cook)
    whole = cooks().get(pk=cook.pk)
    at = next(n for n, piece in enumerate(whole.pieces.all()) if piece.pk == step.piece_id)
    mixing = mixing_of(whole)[at]
    taken = [piece.layers.all()[place].pk for piece, place in mixing]
    grams = _shares_g(whole, mixing) if done else {}
    for layer in Layer.objects.filter(pk__in=taken).select_related("blend", "revision"):
        assert layer.blend is not None
        if done:
            if not layer.blend.draft().lines.exists():
                sentence = f"There is nothing in {layer.blend.name} yet; add an ingredient to it first."
                raise BadInput("done", sentence)
            pin_layer(layer, cook)
            layer.mixed_g = grams.get(layer.pk)
            layer.save(update_fields=["mixed_g"])
        elif trial is None or not trial.is_tasted():
            layer.revision = layer.mixed_g = None
            layer.save(update_fields=["revision", "mixed_g"])


def _shares_g(cook: Cook, mixing: Sequence[tuple[Piece, int]]) -> dict[UUID, float]:
    """Return what layers that take a share of a batch or of the jars come to [g], as they are mixed now."""
    shared = [(piece, place, piece.layers.all()[place]) for piece, place in mixing]
    shared = [one for one in shared if one[2].dose_unit in SHARED]
    readings = read_stored(load(cook), spoon_set()) if shared else {}
    found = {}
    for piece, place, layer in shared:
        reading = readings[piece.letter]
        if isinstance(reading, BadInput):
            raise BadInput("done", f"How much goes on {piece.name} cannot be read: {reading.sentence}")
        found[layer.pk] = reading.layers[place].dose_g
    return found
