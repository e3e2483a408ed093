"""What of a piece cannot be read: it stays as typed beside what it was last read as, and everything else goes on."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from book.board import matched
from ravska_core.cautions import LEVELS, Caution
from ravska_core.coat import CoatReading, Seasoned, check_coat, read_coat
from ravska_core.meat import PLACES
from ravska_core.working import BadInput

from api.cooks.documents import Blends, LayerDocument, PieceDocument, read_pieces
from api.plumbing.problems import Gather, Refused

_MOST_TRIES = 24
"""How often one thing after another of a piece is taken as it was last read, before all of it is."""

_TOGETHER = {
    "length": ("length", "width", "thickness"),
    "width": ("length", "width", "thickness"),
    "thickness": ("length", "width", "thickness"),
    "cut_into": ("cut_into", "cut_size"),
    "cut_size": ("cut_into", "cut_size"),
    "cut": ("cut", "faces", "bones", "cut_into", "cut_size", "thin", "length", "width", "thickness"),
    "hold_at": ("hold_at", "hold_c", "place"),
    "blend": ("blend_id", "grind", "revision"),
}
"""What is taken as it was last read along with a field that cannot be read."""

_AT_WORST = {
    "hold": ("how long it is held", "7 days"),
    "hold_at": ("how warm it is held", ""),
    "endpoint": ("how warm its centre gets", "30 °C"),
    "reserve": ("what is set aside before the meat goes in", ""),
}
"""What cautions of safety rest on: what that is, and the worst it could have meant; how warm, by the place."""

_WARMEST_C = 40.0
"""As warm as bacteria grow fastest; a place that is never so warm is at its warmest (usual guidance, from memory)."""


Judge = Callable[[Seasoned], object]
"""What looks at a piece as the core reads it, and refuses one that cannot be."""


@dataclass
class ReadOn:
    """A piece as typed, what of it could be read, and the sentences at the fields that could not.

    `good` is the piece with those fields as they were last read; `core` is None where they never were, else `judged` is
    what came of judging it. `places` says where a layer as typed stands in `good`, None for one that is not in it.
    """

    typed: PieceDocument
    good: PieceDocument
    core: Seasoned | None = None
    judged: Any = None
    errors: dict[str, BadInput] = field(default_factory=dict)
    places: list[int | None] = field(default_factory=list)

    @property
    def is_old(self) -> bool:
        """Whether something of it is as it was last read, and not as it is typed."""
        return bool(self.errors)


def read_on(
    typed: PieceDocument, before: PieceDocument | None, blends: Blends, appetite: str, judge: Judge = check_coat
) -> ReadOn:
    """Read a piece and judge it; what cannot be read is taken as it was in `before`, one field after another."""
    found = ReadOn(typed, typed, places=list(range(len(typed.layers))))
    partners = _partners(typed, before)
    for _ in range(_MOST_TRIES):
        faults = _faults(found, blends, appetite, judge)
        if not faults:
            return found
        gone: set[int] = set()
        for fault in faults:
            _say(found, _steps(fault), fault)
        for steps in map(_steps, faults):
            if steps[0] == "layers" and len(steps) > 1:
                at = int(steps[1])
                place = _typed_at(found, at)
                partner = None if place is None else partners[place]
                layer = _layer_before(found.good.layers[at], partner, steps[2:])
                if layer is None:
                    gone.add(at)
                else:
                    found.good.layers[at] = layer
                continue
            mended = None if steps[0] == "layers" else _piece_before(found.good, before, steps[0])
            if mended is not None:
                found.good = mended
            elif before is not None:
                _fall_back(found, before, partners)
                gone.clear()
                break  # what else is wrong was so with what is not taken any more
        if gone:
            _leave_out(found, gone)
    if before is not None:
        _fall_back(found, before, partners)
        _faults(found, blends, appetite, judge)
    return found


def _steps(fault: BadInput) -> list[str]:
    """Return where a fault lies in the piece that was tried."""
    return fault.argument.removeprefix("piece").removeprefix(".").split(".")


def _say(found: ReadOn, steps: Sequence[str], fault: BadInput) -> None:
    """Note a fault at its field as typed; the first sentence of a field counts."""
    if steps[0] == "layers" and len(steps) > 1:
        place = _typed_at(found, int(steps[1]))
        if place is None:
            return  # it lies in a layer that is not typed any more
        steps = ["layers", str(place), *steps[2:]]
    path = ".".join(steps)
    found.errors.setdefault(path, BadInput(path, fault.sentence, fault.code))


def _typed_at(found: ReadOn, at: int) -> int | None:
    """Return where the layer that is tried in a place is typed, None where it is not."""
    return found.places.index(at) if at in found.places else None


def _fall_back(found: ReadOn, before: PieceDocument, partners: Sequence[LayerDocument | None]) -> None:
    """Take all of a piece as it was last read."""
    at = {id(layer): place for place, layer in enumerate(before.layers)}
    found.good, found.places = before, [None if layer is None else at[id(layer)] for layer in partners]


def _partners(typed: PieceDocument, before: PieceDocument | None) -> list[LayerDocument | None]:
    """Return what each layer as typed was when it was last read; None for one that is new."""
    if before is None:
        return [None] * len(typed.layers)
    return matched(before.layers, [(layer.kind, layer.blend_id) for layer in typed.layers])


def _faults(found: ReadOn, blends: Blends, appetite: str, judge: Judge) -> list[BadInput]:
    """Try to read what is taken for good, and judge it; return what is wrong with it, or else keep what came of it."""
    found.core = None
    found.good = found.good.model_copy(update={"layers": list(found.good.layers)})
    gather = Gather()
    try:
        (core,) = read_pieces([found.good], blends, appetite, "piece")
    except Refused as refused:
        return refused.errors
    for at, layer in enumerate(found.good.layers):
        place = _typed_at(found, at)
        fault = None if place is None else blends.share_fault(found.typed.letter, place)
        if fault is not None and place is not None and layer.dose == found.typed.layers[place].dose:
            gather.errors.append(BadInput(f"piece.layers.{at}.dose", fault.sentence))
    if gather.errors:
        return gather.errors
    core = blends.told(core)
    found.judged = gather.attempt("piece", judge, core)
    if not gather.errors:
        found.core = core
    return gather.errors


def _layer_before(layer: LayerDocument, before: LayerDocument | None, steps: Sequence[str]) -> LayerDocument | None:
    """Return a layer with a field as it was last read, or all of it; None when it never was, or was no better."""
    if before is None:
        return None
    names = [name for name in _TOGETHER.get(steps[0], steps[:1]) if name in LayerDocument.model_fields] if steps else []
    mended = layer.model_copy(update={name: getattr(before, name) for name in names})
    if mended != layer:
        return mended
    return before if before != layer else None


def _piece_before(piece: PieceDocument, before: PieceDocument | None, name: str) -> PieceDocument | None:
    """Return a piece with a field as it was last read, or as it is when nothing is said of it; None if that is no help.

    What a piece cannot be without is not made up: its cut and its weight.
    """
    names = [each for each in _TOGETHER.get(name, (name,)) if each in PieceDocument.model_fields]
    if before is not None:
        mended = piece.model_copy(update={each: getattr(before, each) for each in names})
    elif name == "name":
        mended = piece.model_copy(update={"name": f"Piece {piece.letter}"})
    else:
        usual = {each: PieceDocument.model_fields[each] for each in names}
        if any(of.is_required() for of in usual.values()):
            return None
        mended = piece.model_copy(update={each: of.get_default() for each, of in usual.items()})
    return mended if mended != piece else None


def _leave_out(found: ReadOn, gone: set[int]) -> None:
    left = [at for at in range(len(found.good.layers)) if at not in gone]
    now = {before: at for at, before in enumerate(left)}
    found.good = found.good.model_copy(update={"layers": [found.good.layers[at] for at in left]})
    found.places = [None if at is None else now.get(at) for at in found.places]


def with_the_worst(found: CoatReading, piece: ReadOn, blends: Blends, appetite: str) -> CoatReading:
    """Return what a piece comes to by what was last read of it, with its cautions as strict as they may have to be.

    They are the stricter of what was last read, and the worst that what cannot be read could have meant.
    """
    cautions = found.cautions
    for path in piece.errors:
        worst = _at_worst(piece, path)
        if worst is None:
            continue
        words, document = worst
        other = ReadOn(document, document)
        if not _faults(other, blends, appetite, _uncored):
            cautions = stricter(cautions, other.judged.cautions, words)
    return replace(found, cautions=cautions)


def stricter(before: Sequence[Caution], worst: Sequence[Caution], words: str) -> tuple[Caution, ...]:
    """Return cautions with those that are stricter at worst, said as such, most serious first; notes stay as before."""
    found = {(caution.id, caution.layer): caution for caution in before}
    for caution in worst:
        known = found.get((caution.id, caution.layer))
        if caution.level != "note" and (known is None or LEVELS.index(caution.level) < LEVELS.index(known.level)):
            found[caution.id, caution.layer] = _said_at_worst(caution, words)
    return tuple(sorted(found.values(), key=lambda one: LEVELS.index(one.level)))


def _uncored(core: Seasoned) -> CoatReading:
    return read_coat(core, cored=False)


def _said_at_worst(caution: Caution, words: str) -> Caution:
    return replace(caution, sentence=f"It could not be read {words}. At worst: {caution.sentence}")


def _at_worst(piece: ReadOn, path: str) -> tuple[str, PieceDocument] | None:
    """Return what cannot be read in words, and the piece as it would be at worst; None where no caution rests on it."""
    steps = path.split(".")
    known = _AT_WORST.get(steps[-1])
    if known is None:
        return None
    words, worst = known
    if len(steps) == 1:
        return words, piece.good.model_copy(update={steps[0]: _as(PieceDocument, steps[0], worst)})
    if steps[0] not in ("layers", "stages"):
        return None
    at = int(steps[1])
    if steps[0] == "layers":
        place = piece.places[at]
        if place is None:
            return None
        layers = list(piece.good.layers)
        worst = worst or _warmest(layers[place].place or "fridge", steps[-1])
        layers[place] = layers[place].model_copy(update={steps[-1]: _as(LayerDocument, steps[-1], worst)})
        return words, piece.good.model_copy(update={"layers": layers})
    if at < len(piece.good.stages):
        stages = list(piece.good.stages)
        worst = worst or _warmest(stages[at].place, steps[-1])
        stages[at] = stages[at].model_copy(update={steps[-1]: _as(type(stages[at]), steps[-1], worst)})
        return words, piece.good.model_copy(update={"stages": stages})
    return None


def _warmest(place: str, name: str) -> str:
    return f"{min(PLACES[place].high_c, _WARMEST_C):g} °C" if name == "hold_at" else ""


def _as(of: type[Any], name: str, text: str) -> object:
    """Return a text as the amount a document's field holds."""
    kind = of.model_fields[name].annotation
    return kind(text)


def sentences(errors: Mapping[str, BadInput], under: str = "") -> dict[str, str]:
    """Return the sentences by their fields, below `under`."""
    return {f"{under}{path}": refusal.sentence for path, refusal in errors.items()}
