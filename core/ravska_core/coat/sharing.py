"""One batch, one shelf of jars, several pieces: what each takes, and what is left for those that take the rest."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ravska_core.blend import Blend
from ravska_core.coat.layer_reading import reserve_of
from ravska_core.coat.layers import Layer
from ravska_core.coat.stack import Seasoned, put_layers
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.meat import read_piece
from ravska_core.working import BadInput

Source = tuple[Blend, str]
"""A blend, and where it comes from: its ``batch`` or its ``jar``."""


@dataclass(frozen=True)
class Shared:
    """What the pieces of a cook take of each source [g], and what is wrong with their shares, by piece, at a field."""

    taken: Mapping[Source, float]
    faults: tuple[tuple[int, BadInput], ...]

    def told(self, piece: Seasoned) -> Seasoned:
        """Return a piece whose layers that take the rest know what the others take."""
        return replace(piece, layers=tuple(_told(layer, self.taken) for layer in piece.layers))


def share_out(pieces: Sequence[Seasoned | None], spoon_set: SpoonSet = SPOON_SETS["us"]) -> Shared:
    """Determine what the layers of a cook take of a batch or of the jars, for those that take the rest of it.

    What is said in grams or spoons, or dosed on a dial, comes out of whichever the rest is of. Pieces that cannot be
    read (None) take nothing.
    """
    faults = _over(pieces)
    if not any(_rest(layer) for piece in pieces if piece is not None for layer in piece.layers):
        return Shared({}, tuple(faults))
    for at, piece in enumerate(pieces):
        layers = () if piece is None else piece.layers
        waits = next((n for n, layer in enumerate(layers) if layer.takes_rest), None)
        if waits is not None and any(_rest(layer) and layer.blend == layers[waits].blend for layer in layers):
            said = "Another layer takes the rest of this blend, this one the rest to the salt wanted; dose one of them."
            faults.append((at, BadInput(f"layers.{waits}.dose", said)))
    return Shared(_taken(pieces, spoon_set), tuple(faults))


def _rest(layer: Layer) -> bool:
    return layer.portion is not None and layer.portion.rest


def _told(layer: Layer, taken: Mapping[Source, float]) -> Layer:
    if layer.portion is None or not layer.portion.rest or layer.blend is None:
        return layer
    return replace(layer, portion=replace(layer.portion, taken_g=taken.get((layer.blend, layer.portion.unit), 0.0)))


def _taken(pieces: Sequence[Seasoned | None], spoon_set: SpoonSet) -> dict[Source, float]:
    """Return what all layers but those that take a rest take of each source, with what is set aside [g]."""
    taken: dict[Source, float] = {}
    for piece in pieces:
        if piece is None:
            continue
        kept = tuple(layer for layer in piece.layers if not _rest(layer) and not layer.takes_rest)
        try:
            puts = put_layers(replace(piece, layers=kept), read_piece(piece.piece), spoon_set)
        except BadInput:
            continue  # its own reading says what is wrong
        for put in puts:
            if put.layer.blend is None:
                continue
            shared = put.layer.portion.unit if put.layer.portion is not None and put.layer.portion.shared else ""
            for unit in ("batch", "jar"):
                if shared in ("", unit):
                    source = put.layer.blend, unit
                    taken[source] = taken.get(source, 0.0) + put.dose_g + reserve_of(put)
    return taken


def _over(pieces: Sequence[Seasoned | None]) -> list[tuple[int, BadInput]]:
    """Return what is wrong where shares of one source come to more than all of it, or two take the rest."""
    shares: dict[Source, float] = {}
    rests: set[Source] = set()
    faults = []
    for at, piece in enumerate(pieces):
        for n, layer in enumerate(piece.layers if piece is not None else ()):
            portion = layer.portion
            if portion is None or not portion.shared or layer.blend is None:
                continue
            source = layer.blend, portion.unit
            if portion.rest:
                if source in rests:
                    said = "Another layer takes the rest of it already; write a share or an amount."
                    faults.append((at, BadInput(f"layers.{n}.dose", said)))
                rests.add(source)
                continue
            shares[source] = shares.get(source, 0.0) + portion.value
            if shares[source] > 1 + 1e-9:
                whole = "the batch" if portion.unit == "batch" else "the jar"
                said = f"With this the layers take {shares[source] * 100:.0f} % of {whole}; write a smaller share."
                faults.append((at, BadInput(f"layers.{n}.dose", said)))
    return faults
