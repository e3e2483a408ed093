"""Blend: measured out by the spoons a cook owns. Nothing here is saved."""

from django.http import HttpRequest
from ravska_core.bowl import Rounding, rounding, spoon_batch
from ravska_core.working import BadInput

from api.blends.documents import WhatIf
from api.blends.reading import read_document
from api.plumbing.answers import Router
from api.plumbing.household import spoon_set
from api.plumbing.problems import Gather
from api.plumbing.quantities import WantedMass

router = Router()


class SpoonWhatIf(WhatIf):
    """A blend to be measured out by spoons, in its own batch or in the best one between two weights."""

    low: WantedMass = WantedMass("")
    high: WantedMass = WantedMass("")


@router.asks("/spoons")
def by_spoons(request: HttpRequest, document: SpoonWhatIf) -> Rounding:
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
    return found
