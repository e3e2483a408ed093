"""A piece moved from one cooker to another: what of its phases changes with that, and where it can go."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Any

from ravska_core.day.tasks import DayPiece, called
from ravska_core.heat import COOKER_KINDS, SURROUNDS, Cooker, Phase, find_cooker, kitchen

_AS_WELL: Mapping[str, str] = MappingProxyType({"indirect": "oven", "oven": "indirect"})
"""Hot air around it does as hot air around it does, but for its smoke."""

_SMOKES = "indirect"

SHARED: Mapping[str, str] = MappingProxyType({"broiler": "oven"})
"""Kinds of cookers that are one device with another."""


@dataclass(frozen=True)
class Place:
    """A cooker that something is on or can be on: the key that the day shares it by, and how it is called."""

    key: str
    says: str


@dataclass(frozen=True)
class OnFire:
    """Where a piece is cooked, and where it could be instead."""

    key: str
    says: str
    others: tuple[Place, ...]


def changes_on(phase: Phase, onto: Cooker) -> dict[str, Any] | None:
    """Return what of a phase is otherwise on another cooker, by its fields; None where that cannot do it.

    Where it is not smoked any more there is no hot side, no wood and no tray; a heat that the cooker does not have is
    one it cannot do.
    """
    if not onto.low_c <= phase.aimed_c <= onto.high_c:
        return None
    if phase.surround in onto.surrounds and not (phase.surround == _SMOKES and onto.kind == "oven"):
        return {}
    instead = _AS_WELL.get(phase.surround, "")
    if instead not in onto.surrounds or not SURROUNDS[instead].low_c <= phase.aimed_c <= SURROUNDS[instead].high_c:
        return None
    vessel = {"grate": "rack", "": "rack"}.get(phase.vessel, phase.vessel) if instead == "oven" else phase.vessel
    return {"surround": instead, "vessel": vessel, "near": False, "wood": "", "tray": ""}


def moved(piece: DayPiece, where: str, key: str) -> DayPiece | None:
    """Return a piece whose phases on one cooker are on another; None where that cannot do one of them.

    Raises
    ------
    BadInput
        At ``cooker`` for one that is not in the book.
    """
    if piece.heated is None or where not in piece.keys or key == where:
        return None
    phases, keys = list(piece.heated.phases), list(piece.keys)
    cookers = list(piece.heated.cookers)
    for at, phase in enumerate(phases):
        if keys[at] != where or not SURROUNDS[phase.surround].hot:
            continue
        onto = find_cooker(key, phase.surround)
        changes = changes_on(phase, onto)
        if changes is None:
            return None
        phases[at], keys[at], cookers[at] = replace(phase, **changes), key, onto
    return replace(
        piece, keys=tuple(keys), heated=replace(piece.heated, phases=tuple(phases), cookers=tuple(cookers))
    )  # fmt: skip


def on_fires(piece: DayPiece) -> tuple[OnFire, ...]:
    """Return each cooker that a piece is cooked on, with those that could do it as well."""
    if piece.heated is None:
        return ()
    there: dict[str, Cooker] = {}
    for phase, key, cooker in zip(piece.heated.phases, piece.keys, piece.heated.cookers, strict=True):
        if SURROUNDS[phase.surround].hot:
            there.setdefault(key, cooker)
    return tuple(OnFire(key, called(cooker), tuple(_others(piece, key))) for key, cooker in there.items())


def _others(piece: DayPiece, where: str) -> Iterator[Place]:
    for key, cooker in {**kitchen().cookers, **COOKER_KINDS}.items():
        if key not in SHARED and moved(piece, where, key) is not None:
            yield Place(key, called(cooker))


def smokes(phases: Sequence[Phase]) -> bool:
    """Tell whether something of it is beside a fire that smokes, open to it."""
    return any(one.surround == _SMOKES and one.vessel not in ("foil", "pan", "pot") for one in phases)
