"""Usual times of the trade by cut, and how many times as long each takes as physics alone says.

Every time here is common practice, no source: what cooks write and say. The factor of a cut is what brings the
model's own figure to the middle of the usual time; no check of physics knows it.
"""

import math
from dataclasses import dataclass, replace

from ravska_core.catalogue import Cut
from ravska_core.heat.phases import Phase
from ravska_core.meat import find_cut


@dataclass(frozen=True)
class TradeTime:
    """The usual time [h] of a piece of a cut of a weight [g] through phases, the last of which ends when it is done.

    `model_h` is what physics alone says [h]; `factor` how many times as long it takes to come to the middle of the
    usual time.
    """

    cut: str
    mass_g: float
    count: int
    model_h: float
    factor: float
    low_h: float
    high_h: float
    phases: tuple[Phase, ...]


def _pit(celsius: float, centre_c: float | None = None, feel: str = "") -> Phase:
    return Phase("indirect", celsius, "grate", centre_c=centre_c, feel=feel)


def _oven(celsius: float, centre_c: float) -> Phase:
    return Phase("oven", celsius, "rack", centre_c=centre_c)


def _wrapped(celsius: float, centre_c: float) -> tuple[Phase, ...]:
    return (_pit(celsius, 68.0), Phase("indirect", celsius, "foil", centre_c=centre_c))


TRADE_TIMES: tuple[TradeTime, ...] = (
    TradeTime("pork-shoulder", 4000, 1, 14.28, 0.97, 12.0, 16.0, (_pit(107, 95),)),
    TradeTime("pork-shoulder", 1500, 1, 4.17, 0.88, 3.0, 4.5, (_pit(150, 90),)),
    TradeTime("beef-brisket", 5500, 1, 5.06, 2.28, 9.5, 14.0, _wrapped(110, 95)),
    TradeTime("beef-round", 2000, 1, 2.5, 0.89, 2.0, 2.5, (_pit(120, 53),)),
    TradeTime("beef-chuck", 1500, 1, 5.86, 1.01, 5.0, 7.0, _wrapped(121, 95)),
    TradeTime("beef-short-rib", 600, 1, 3.45, 0.51, 1.75, 2.5, (_pit(110, feel="giving"),)),
    TradeTime("pork-belly", 1800, 1, 3.41, 1.45, 4.0, 6.0, (_pit(121, 95),)),
    TradeTime("pork-ribs", 1200, 1, 2.7, 2.28, 3.5, 4.5, (
        Phase("indirect", 120, "grate", lasts_s=7200), Phase("indirect", 120, "foil", feel="like butter"))),
    TradeTime("pork-loin", 1500, 1, 1.94, 0.95, 1.5, 2.25, (_pit(135, 63),)),
    TradeTime("lamb-leg", 2500, 1, 2.25, 0.82, 1.5, 2.25, (_oven(170, 57),)),
    TradeTime("lamb-shoulder", 2200, 1, 7.14, 0.83, 5.0, 7.0, (_pit(125, 92),)),
    TradeTime("turkey-whole", 5500, 1, 2.4, 1.33, 2.75, 3.75, (_oven(165, 74),)),
    TradeTime("turkey-breast", 2000, 1, 2.34, 0.78, 1.5, 2.25, (_oven(165, 74),)),
    TradeTime("chicken-whole", 1700, 1, 1.14, 1.15, 1.15, 1.5, (_oven(190, 74),)),
    TradeTime("chicken-thigh", 900, 6, 0.58, 1.14, 0.55, 0.8, (_oven(200, 80),)),
    TradeTime("duck-leg", 600, 2, 1.05, 1.51, 1.25, 2.0, (_oven(165, 85),)),
    TradeTime("venison-haunch", 2200, 1, 2.74, 0.8, 1.75, 2.75, (_pit(130, 56),)),
)  # fmt: skip
"""Usual times (common practice, no source)."""


@dataclass(frozen=True)
class Factor:
    """How many times as long a cut takes as physics says, the spread of its logarithm, and where that is from."""

    factor: float
    spread: float
    says: str


_KNOWN_SPREAD, _UNKNOWN_SPREAD, _WEAK_SPREAD = 0.14, 0.22, 0.30

_WEAK_FROM = 0.25
"""How far the logarithm of a factor is from none where the model is weak: flat racks, breasts, bellies (estimate)."""


def factor_of(cut: Cut) -> Factor:
    """Return the time factor of a cut: of several usual times the geometric mean; 1 where none is known.

    A cut of the cook's own has that of the one it is like, with the doubt of one that is not known.
    """
    if cut.like:
        of_its_like = factor_of(find_cut(cut.like))
        said = f"as {find_cut(cut.like).name.lower()}, which it is like: {of_its_like.says}"
        return replace(of_its_like, spread=max(_UNKNOWN_SPREAD, of_its_like.spread), says=said)
    rows = [row for row in TRADE_TIMES if row.cut == cut.key]
    if not rows:
        return Factor(1.0, _UNKNOWN_SPREAD, "no usual time is known of this cut: physics alone, with more doubt")
    logarithm = sum(math.log(row.factor) for row in rows) / len(rows)
    weak = abs(logarithm) > _WEAK_FROM
    said = f"usual times of the trade are {math.exp(logarithm):.2f} × what physics says (common practice, no source)"
    if weak:
        said += "; physics is weak here, so the doubt is wide"
    return Factor(math.exp(logarithm), _WEAK_SPREAD if weak else _KNOWN_SPREAD, said)
