"""What a change of a day does to its cook in the book: a piece moved, a way out taken, begun now."""

import math
from datetime import timedelta
from typing import Annotated, Any, Literal

from book.days import set_sides
from book.models import Cook, Layer
from book.models.values import phases_from
from book.tasting import check_untasted
from ninja import Schema
from pydantic import AwareDatetime, Field
from ravska_core.coat import LAYER_KINDS
from ravska_core.day import aimed_now_c, changes_on, held_s, hold_left_s
from ravska_core.heat import SURROUNDS, find_cooker
from ravska_core.units import say_duration, say_temperature
from ravska_core.working import BadInput

from api.cooks.phases import PhaseDocument, phases_typed, read_phases, stored_phases
from api.cooks.planned import SideDocument, day_key, read_side
from api.cooks.shown import own_faults
from api.cooks.store import piece_of
from api.plumbing.problems import Gather
from api.plumbing.quantities import FireTemperature
from api.plumbing.typed import Key, Version


class MoveDocument(Schema):
    """What of a piece is on one cooker, `where`, is to be `onto` another; both by the keys that a day has them by."""

    letter: Annotated[str, Field(max_length=4)]
    where: Key
    onto: Key


class StartNowDocument(Schema):
    """A way to begin now that is taken, as it was told, and when supper is by it."""

    version: Version
    key: Literal["as set", "shorter", "no holds", "hotter"]
    serve_at: AwareDatetime


def begin_now(cook: Cook, document: StartNowDocument) -> None:
    """Begin a cook now by a way that was told.

    Raises
    ------
    BadInput
        At ``serve_at`` for a serving that cannot be, at ``key`` where what was tasted would change.
    """
    for fault in own_faults(cook.name, document.serve_at, cook.eaters):
        raise fault
    cook.serve_at, cook.pins = document.serve_at, {}
    cook.save(update_fields=["serve_at", "pins"])
    if document.key == "as set":
        return
    check_untasted(cook, "key")
    scale = cook.household.preferences.temperature
    for piece in cook.pieces.all():
        for layer in piece.layers.all():
            if LAYER_KINDS[layer.kind].when == "before":
                _keep_hold(layer, hold_left_s(layer.as_core(), document.key))
        if document.key != "hotter" or not piece.phases:
            continue
        typed = phases_typed(piece.phases)
        cores = read_phases(typed, Gather(), "phases")
        for at, core in enumerate(cores):
            if aimed_now_c(core) != core.aimed_c:
                typed[at] = _aimed(typed[at], aimed_now_c(core), scale)
        _keep_phases(piece, typed)


def _aimed(phase: PhaseDocument, celsius: float, scale: str) -> PhaseDocument:
    aimed = FireTemperature(say_temperature(celsius, scale))
    return phase.model_copy(update={"aimed": aimed, "band": FireTemperature("")})


def _keep_phases(piece: Any, typed: list[PhaseDocument]) -> None:
    gather = Gather()
    read_phases(typed, gather, "phases")
    gather.finish()
    piece.phases = stored_phases(typed)
    piece.save(update_fields=["phases"])


def _number(text: str, low: float, high: float) -> float:
    """Return a number in a key.

    Raises
    ------
    BadInput
        At ``key``.
    """
    try:
        found = float(text)
    except ValueError:
        found = math.nan
    if not low <= found <= high:
        raise BadInput("key", _NO_WAY)
    return found


def take_way_out(cook: Cook, key: list[str]) -> None:
    """Change a cook by a way out.

    Raises
    ------
    BadInput
        At ``key`` where it is none, or what was tasted would change.
    """
    kind, of = key[0], key[1]
    if kind == "later":
        cook.serve_at += timedelta(minutes=_number(of, 1, 2880))
        cook.save(update_fields=["serve_at"])
        return
    if kind == "people":
        cook.people = int(_number(of, 1, 12))
        cook.save(update_fields=["people"])
        return
    if kind == "loose":
        cook.pins = {lane: keys for lane, keys in cook.pins.items() if lane != of}
        cook.save(update_fields=["pins"])
        return
    if of.startswith("S"):
        _take_of_side(cook, key)
        return
    if len(key) < {"oven": 2, "heat": 3, "hold": 3, "cooker": 4}.get(kind, 5):
        raise BadInput("key", _NO_WAY)
    if kind == "hold":
        _hold(cook, of, key[2], key[3] if len(key) > 3 else "")
        return
    if kind == "cooker":
        move_piece(cook, MoveDocument(letter=of, onto=key[2], where=key[3]), "key")
        return
    check_untasted(cook, "key")
    piece = piece_of(cook, of)
    typed = phases_typed(piece.phases)
    scale = cook.household.preferences.temperature
    for at, phase in enumerate(typed):
        if phase.surround != "indirect":
            continue
        if kind == "oven" and phase.vessel in ("foil", "pan", "pot"):
            into = {"surround": "oven", "near": False, "wood": "", "cooker": "", "tray": ""}
            typed[at] = phase.model_copy(update=into)
        elif kind == "heat":
            typed[at] = _aimed(phase, _number(key[2], 40, 350), scale)
    _keep_phases(piece, typed)


def _hold(cook: Cook, letter: str, way: str, which: str) -> None:
    """Hold what a piece is held for half as long, or one of its layers longer.

    Raises
    ------
    BadInput
        At ``key`` where that is no way out, or what was tasted would change.
    """
    check_untasted(cook, "key")
    layers = list(piece_of(cook, letter).layers.all())
    if way not in ("shorter", "longer") or (way == "longer" and which not in map(str, range(len(layers)))):
        raise BadInput("key", _NO_WAY)
    for at, layer in enumerate(layers):
        if way == "shorter" or str(at) == which:
            _keep_hold(layer, held_s(layer.as_core(), way == "longer"))


def _keep_hold(layer: Layer, hold_s: float) -> None:
    if layer.hold_s is not None and hold_s != layer.hold_s:
        layer.hold_s, layer.hold_typed = hold_s, say_duration(hold_s) if hold_s else "0 min"
        layer.save(update_fields=["hold_s", "hold_typed"])


def move_piece(cook: Cook, document: MoveDocument, field: str) -> None:
    """Cook what of a piece is on one cooker on another.

    Raises
    ------
    BadInput
        At a field where that cannot do it, or what was tasted would change.
    """
    check_untasted(cook, field)
    piece = piece_of(cook, document.letter)
    typed = phases_typed(piece.phases)
    phases, cookers = phases_from(piece.phases)
    there = 0
    for at, (phase, was) in enumerate(zip(phases, cookers, strict=True)):
        if day_key(typed[at].cooker, was) != document.where or not SURROUNDS[phase.surround].hot:
            continue
        onto = find_cooker(document.onto, phase.surround)
        changes = changes_on(phase, onto)
        if changes is None:
            sentence = f"{onto.says.capitalize()}: it cannot do “{phase.says}”; choose another, or change it in Coat."
            raise BadInput(field, sentence)
        typed[at], there = typed[at].model_copy(update=changes | {"cooker": document.onto}), there + 1
    if not there:
        raise BadInput(field, "Nothing of this piece is on that cooker any more; look at the day again.")
    _keep_phases(piece, typed)


_NO_WAY = "This is no way out of this day; ask for them again."


def _take_of_side(cook: Cook, key: list[str]) -> None:
    """Leave a side out, or cook it somewhere else.

    Raises
    ------
    BadInput
        At ``key`` where that is no way out.
    """
    kind, of = key[0], key[1]
    sides = [(row.name, row.typed) for row in cook.sides.all()]
    at = int(of[1:]) - 1 if of[1:].isdigit() else -1
    if not 0 <= at < len(sides) or kind not in ("less", "cooker"):
        raise BadInput("key", _NO_WAY)
    if kind == "less":
        del sides[at]
    else:
        name, typed = sides[at]
        moved = SideDocument(**typed).model_copy(update={"cooker": key[2] if len(key) > 2 else "oven"})
        gather = Gather()
        gather.attempt("key", read_side, moved, of)
        gather.finish()
        sides[at] = (name, moved.model_dump())
    set_sides(cook, sides)
