"""Blends as they are written: lines of grinds and of other blends, by parts, with limits on both."""

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from typing import TypeVar

from ravska_core.blend.label import Label
from ravska_core.blend.method import MethodStep
from ravska_core.catalogue import Known
from ravska_core.measure import SCALE_ERROR, SPOON_ERROR

KINDS = (
    "dry rub", "paste", "binder", "marinade", "injection", "glaze", "spritz", "cooking liquid", "finishing salt",
)  # fmt: skip

DRY_KINDS = ("dry rub", "finishing salt")

BASES = ("spoon", "scale")

LOCKS = ("", "share", "ratio")
"""A line is free, holds its share, or holds its ratio to the other lines held so."""

FIRES = ("direct flame", "hot iron", "indirect", "oven", "broiler")
"""What a blend may be meant for; "" where that is open."""

LOWEST_BATCH_G, HIGHEST_BATCH_G = 0.5, 50_000.0

MOST_LINES = 60

DEEPEST = 8
"""How many blends may lie inside each other."""

HIGHEST_ERROR = 0.9
"""How far an amount by eye may be off, relative."""


@dataclass(frozen=True)
class Line:
    """A line of a blend: a grind by key or a blend of its own, how many parts, by spoon or scale, and its lock.

    `error` says how far an amount taken by eye may be off, relative; 0 for a level spoon or a scale. `held` says that
    not the blend itself goes in, but what its sieve held back. `known` is what was known of it when it was kept, for a
    blend its density alone; of a line that goes by today's tables it is empty.
    """

    grind: str
    parts: Fraction
    basis: str
    lock: str = ""
    blend: "Blend | None" = None
    error: float = 0.0
    held: bool = False
    known: Known = ()

    @property
    def mass_error(self) -> float:
        """Relative error of the line's mass."""
        return self.error or (SPOON_ERROR if self.basis == "spoon" else SCALE_ERROR)


@dataclass(frozen=True)
class Blend:
    """A mixture by ratio, the batch that goes into the bowl [g], the fire it is meant for, and its method.

    A bought one has a `label` instead of a recipe: its lines stand in the label's order with shares that are estimated.
    `key` is what its owner calls it, to find it again among the lines of another.
    """

    kind: str
    lines: tuple[Line, ...]
    batch_g: float
    name: str = ""
    fire: str = ""
    method: tuple[MethodStep, ...] = ()
    label: "Label | None" = None
    key: str = ""

    @cached_property
    def _hashed(self) -> int:
        return hash((self.kind, self.lines, self.batch_g, self.name, self.fire, self.method, self.label, self.key))

    def __hash__(self) -> int:
        # readings are kept by their blend, and asked for by every layer of it: its lines are gone through once
        return self._hashed


Key = TypeVar("Key", bound=Hashable)


def cycle_path(uses: Mapping[Key, Sequence[Key]], start: Key) -> list[Key]:
    """Find the way on which a blend comes to hold itself: from `start` back to `start`, or [] if there is none.

    Parameters
    ----------
    uses : mapping
        Which blends each blend holds.
    """
    trail: list[Key] = [start]
    waiting = [iter(uses.get(start, ()))]
    seen: set[Key] = set()
    while waiting:
        following = next(waiting[-1], None)
        if following is None:
            waiting.pop()
            trail.pop()
        elif following == start:
            return [*trail, start]
        elif following not in seen:
            seen.add(following)
            trail.append(following)
            waiting.append(iter(uses.get(following, ())))
    return []
