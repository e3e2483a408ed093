"""Documents that several stations' routes speak: figures, spoons, cautions, blends and typed text.

What comes in is a validated schema; what goes out is a plain dataclass, built whole by the server itself.
"""

from typing import Annotated, Literal
from uuid import UUID

from book.models import line_key
from pydantic import BaseModel, Field
from ravska_core.blend import (
    MOST_LINES,
    MOST_STEPS,
    TARGETS,
)
from ravska_core.bowl import MOST_USES

from api.plumbing.quantities import BatchMass, ByEye, Numeral, Parts, Share, UseMass
from api.plumbing.typed import Key, Name, Note, Typed

Basis = Literal["spoon", "scale"]
Lock = Literal["", "share", "ratio"]


class LineDocument(BaseModel):
    """A line as typed: a grind by key or a blend inside, parts as text, their basis and the line's lock.

    `error` says how far an amount by eye may be off [%], `said` how it was written where it came from, `swap` which
    grind it names to take instead.

    `exact` is the fraction the text stands for where it was rounded, such as 1359/50; it is left out as soon as
    someone types. `least` and `most` bound the line's share [%] when the blend is aimed. `held` says that of the
    blend what its sieve held back goes in.
    """

    grind: Key = ""
    blend: UUID | None = None
    parts: Parts
    exact: Typed = ""
    basis: Basis = "spoon"
    lock: Lock = ""
    least: Share = Share("")
    most: Share = Share("")
    error: ByEye = ByEye("")
    said: Key = ""
    swap: Key = ""
    held: bool = False

    def key(self) -> str:
        """Return what a step of the method calls this line."""
        return line_key(self.grind, self.blend, self.held)


class MethodStepDocument(BaseModel):
    """A step of a method as typed: to which lines (by grind or blend key; none: all), and how far or how long."""

    do: Literal["mix", "grind", "strain", "simmer", "rest", "note"]
    of: Annotated[list[Key], Field(max_length=MOST_LINES)] = Field(default=[])
    to: Key = ""
    by: Typed = ""
    lasts: Typed = ""
    note: Note = ""


Method = Annotated[list[MethodStepDocument], Field(max_length=MOST_STEPS)]


class StatedShare(BaseModel):
    """A share [0 to 1] that a label's list gives itself, by the place of its ingredient."""

    place: Annotated[int, Field(ge=0, le=MOST_LINES)]
    share: Annotated[float, Field(gt=0, le=1)]


class LabelDocument(BaseModel):
    """A bought blend's panel as printed; its lines stand in the order of the label's ingredients.

    `minor_from` is the place of the first ingredient under "2 % or less of", `stated` holds the shares that
    the list itself gives.
    """

    portion: Typed
    sodium: Typed
    sodium_as: Literal["sodium", "salt"] = "sodium"
    sugars: Typed = ""
    fat: Typed = ""
    rule: Literal["us", "eu"] = "us"
    minor_from: Annotated[int, Field(ge=0, le=MOST_LINES)] | None = None
    stated: Annotated[list[StatedShare], Field(max_length=MOST_LINES)] = Field(default=[])


Lines = Annotated[list[LineDocument], Field(max_length=MOST_LINES)]

BlendKind = Literal[
    "dry rub", "paste", "binder", "marinade", "injection", "glaze", "spritz", "cooking liquid", "finishing salt"
]
Written = Literal["parts", "percent", "relative"]
Total = Literal["free", "fixed"]
Fire = Literal["", "direct flame", "hot iron", "indirect", "oven", "broiler"]
TargetKey = Literal["salt", "sugar", "heat", "sour", "savoury", "smoke", "herb", "fat", "water", "cost", "spread"]


class TargetDocument(BaseModel):
    """What a blend is aimed at: at least, at most, or both, as typed, in the scale's unit."""

    what: TargetKey
    low: Numeral = Numeral("")
    high: Numeral = Numeral("")


Targets = Annotated[list[TargetDocument], Field(max_length=len(TARGETS))]


class UseDocument(BaseModel):
    """What some of a batch is for: a weight as typed, or what the blend or layer named in `of` takes.

    With neither it is not said yet how much.
    """

    name: Name
    of: Key = ""
    mass: UseMass = UseMass("")


Uses = Annotated[list[UseDocument], Field(max_length=MOST_USES)]


class BlendDocument(BaseModel):
    """A blend as typed."""

    name: Name
    kind: BlendKind
    fire: Fire = ""
    batch: BatchMass
    lines: Lines
    written: Written = "parts"
    base: int = 0
    total: Total = "free"
    targets: Targets = Field(default=[])
    uses: Uses = Field(default=[])
    method: Method = Field(default=[])
    label: LabelDocument | None = None


class WhatIf(BlendDocument):
    """A blend as it is on a screen, and which blend of the book that is; nothing is saved."""

    id: UUID | None = None
