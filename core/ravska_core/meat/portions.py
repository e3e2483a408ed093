"""From the eaters to the raw weight to buy, and back."""

from collections.abc import Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.catalogue import Cut
from ravska_core.meat.cuts import GRADES, find_cut
from ravska_core.working import BadInput, Figure, Step, figure

PORTION_G = MappingProxyType({"light": 120.0, "usual": 170.0, "hearty": 230.0})
"""Cooked meat on a plate by appetite [g] (common practice; 1.5 kg of boneless shoulder feeds four to six)."""

MOST_EATERS = 500
"""A cook feeds so many at most."""


TRIM_WEIGHT_OF_USUAL = 2
"""How many trimmings of one's own the usual share counts as (estimate)."""


@dataclass(frozen=True)
class RawWeight:
    """What to have on the board and what to buy for it [g], and what comes off in between [share of what is bought]."""

    trimmed: Figure
    bought: Figure
    trim: Figure


def trim_share(cut: Cut, own: Sequence[float] = ()) -> Figure:
    """Determine the share of a cut that comes off: the cook's own trimmings, shrunk towards the usual share.

    s = (k usual + sum own) / (k + n), with k `TRIM_WEIGHT_OF_USUAL`.
    """
    usual, n = cut.trim_share, len(own)
    share = (TRIM_WEIGHT_OF_USUAL * usual + sum(own)) / (TRIM_WEIGHT_OF_USUAL + n)
    steps = [Step(trim.what.capitalize(), trim.becomes, trim.share * 100, "%", cut.source) for trim in cut.trims]
    steps.append(Step("Usually comes off", "sum of these" if cut.trims else "nothing to speak of", usual * 100, "%"))
    if own:
        said = ", ".join(f"{value * 100:.0f} %" for value in own)
        steps.append(Step("Trimmed by you", said, float(n), "times"))
        steps.append(Step("Yours", f"mean of all, the usual one counts as {TRIM_WEIGHT_OF_USUAL}", share * 100, "%"))
    return figure(steps, "±40 % of it: butchers and knives differ", spread=0.4 / (1 + n) ** 0.5)


def raw_weight(
    cut: str, eaters: int, portion_g: float, grade: str = "ordinary", own_trims: Sequence[float] = ()
) -> RawWeight:
    """Determine the raw weight on the board and the weight to buy for it [g].

    Board: eaters x portion / yield / (1 - bone share); bought: that / (1 - trim share), with one's own trimmings.

    Raises
    ------
    BadInput
        At ``eaters`` or ``portion`` outside what people cook for, at ``piece.cut`` for an unknown cut.
    """
    if not 1 <= eaters <= MOST_EATERS:
        raise BadInput("eaters", f"Cook for 1 to {MOST_EATERS} eaters: a whole number.")
    if not 20 <= portion_g <= 1000:
        raise BadInput("portion", "A portion is between 20 g and 1 kg of cooked meat; 170 g is usual.")
    found = find_cut(cut)
    kept = min(0.95, found.cook_yield + GRADES[grade].yield_points)
    cooked = eaters * portion_g
    edible = cooked / kept
    raw = edible / (1 - found.bone_share)
    steps = [
        Step("On the plates", f"{eaters} × {portion_g:.0f} g", cooked, "g", "trade"),
        Step("Edible, raw", f"{cooked:.0f} g / {kept:.2f} cooking yield", edible, "g", found.source),
        Step("With its bone", f"{edible:.0f} g / (1 − {found.bone_share:g})", raw, "g", found.source),
    ]
    trim = trim_share(found, own_trims)
    off = trim.value / 100
    bought = raw / (1 - off)
    buying = [*steps, Step("As bought", f"{raw:.0f} g / (1 − {off:.3g} trimmed off)", bought, "g", found.source)]
    said = "±15 %: yield differs with the cook"
    return RawWeight(figure(steps, said, spread=0.15), figure(buying, said, spread=0.15), trim)
