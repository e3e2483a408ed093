"""Blend: measured out by the spoons a cook owns. Nothing here is saved."""

from dataclasses import dataclass

from django.http import HttpRequest
from ravska_core.bowl import rounding, spoon_batch
from ravska_core.working import BadInput, Figure

from api.blends.documents import WhatIf
from api.blends.reading import read_document
from api.plumbing.answers import Router
from api.plumbing.household import spoon_set
from api.plumbing.problems import Gather
from api.plumbing.quantities import WantedMass
from api.plumbing.shown import SpoonsOut, spoons_out

router = Router()


class SpoonWhatIf(WhatIf):
    """A blend to be measured out by spoons, in its own batch or in the best one between two weights."""

    low: WantedMass = WantedMass("")
    high: WantedMass = WantedMass("")


@dataclass(frozen=True, slots=True)
class RoundingOut:
    """One line by spoons: what they hold, and its share before and after rounding [%]."""

    name: str
    spoons: SpoonsOut
    error: float
    share_before: float
    share_after: float


@dataclass(frozen=True, slots=True)
class SpoonBatchOut:
    """A batch by spoons: its lines, the worst rounding (relative), how many spoonfuls, and its salt either way."""

    batch: str
    batch_g: float
    lines: list[RoundingOut]
    worst: float
    count: int
    mass: Figure
    salt_before: Figure
    salt_after: Figure


@router.posts("/spoons")
def by_spoons(request: HttpRequest, document: SpoonWhatIf) -> SpoonBatchOut:
    """Say what measuring by spoons makes of a batch, or which batch between two weights they suit best."""
    typed = read_document(document, document.id)
    owned = spoon_set()
    if not document.low and not document.high:
        found = rounding(typed.blend, owned)
    else:
        gather = Gather()
        low, high = gather.value("low", document.low), gather.value("high", document.high)
        gather.finish()
        assert low is not None
        assert high is not None
        found = spoon_batch(typed.blend, low, high, owned)
    if not found.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    return SpoonBatchOut(
        batch=f"{found.batch_g:g} g",
        batch_g=found.batch_g,
        lines=[
            RoundingOut(
                name=line.name,
                spoons=spoons_out(line.spoons, line.spoons.volume_ml / (1 + line.spoons.error or 1)),
                error=line.spoons.error,
                share_before=line.share_before,
                share_after=line.share_after,
            )
            for line in found.lines
        ],
        worst=found.worst,
        count=found.count,
        mass=found.mass,
        salt_before=found.salt_before,
        salt_after=found.salt_after,
    )
