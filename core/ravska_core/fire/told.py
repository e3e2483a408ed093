"""What is told of a piece from its readings: the forecast, what dips cost, what else would do. Done beside the server.

`tell` is all that takes long of a live cook; it knows nothing of the clock, and what it is given and gives can be sent
from one process to another.
"""

import math
from dataclasses import dataclass, replace

from ravska_core.fire.pit import Dip, filled
from ravska_core.heat import Changed, Forecast, Live, Phase, carry_k, forecast, later_s
from ravska_core.working import BadInput

HOTTER_K = 10.0


@dataclass(frozen=True)
class Instead:
    """One thing that could be done now, and how much sooner it would be done by it [s]; None where it never would."""

    says: str
    sooner_s: float | None


@dataclass(frozen=True)
class Told:
    """A forecast with what goes beside it.

    `costs_s` are what each dip cost [s], None where that cannot be said; `carry_k` how much the centre still rises at
    rest [K], and `pull_c` when to take it off for the endpoint that was wanted [°C].
    """

    forecast: Forecast
    costs_s: tuple[float | None, ...] = ()
    otherwise: tuple[Instead, ...] = ()
    carry_k: float = 0.0


def tell(live: Live, dips: tuple[Dip, ...], begin: tuple[float, ...], rest: Phase | None, more: bool) -> Told:
    """Forecast a piece on the fire; where `more`, say too what its dips cost and what else would do.

    Raises
    ------
    BadInput
        As the piece or a phase is refused.
    """
    if not live.past or not live.ahead:
        raise BadInput("phases", "Nothing of this piece is ahead on the fire.")
    found = forecast(live, begin)
    if not all(math.isfinite(one) for one in (*found.low, *found.high)):
        raise BadInput("readings", "These readings lead nowhere; see to the probes.")
    if not more:
        return Told(found)
    costs = tuple(_cost(live, dip, found) for dip in dips)
    carry = carry_k(live, found.numbers, rest) if rest is not None and live.ahead[-1][0].centre_c is not None else 0.0
    return Told(found, costs, _otherwise(live, found), carry)


def _cost(live: Live, dip: Dip, found: Forecast) -> float | None:
    later = later_s(live, found.numbers, Changed(pit=filled(live.pit, [dip], found.fire_c)))
    return None if later is None else max(0.0, -later)


def _otherwise(live: Live, found: Forecast) -> tuple[Instead, ...]:
    phase = live.ahead[0][0]
    if phase.surround not in ("indirect", "oven"):
        return ()
    ways = [("10 °C hotter (18 °F) from now on", Changed(hotter_k=HOTTER_K))]
    if phase.vessel not in ("foil", "pot"):
        ways.append(("Wrapped now", Changed(wrapped=True)))
    rows = ((says, later_s(live, found.numbers, changed)) for says, changed in ways)
    return tuple(Instead(says, None if later is None else -later) for says, later in rows)


def without_more(told: Told, before: Told | None) -> Told:
    """Return a forecast with what was said beside an earlier one, where it says nothing of its own."""
    if before is None or told.otherwise or told.costs_s:
        return told
    return replace(told, costs_s=before.costs_s, otherwise=before.otherwise, carry_k=before.carry_k)
