"""From the eaters to the raw weight to buy, and back."""

from collections.abc import Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.catalogue import Cut
from ravska_core.meat.cuts import GRADES, find_cut
from ravska_core.meat.skin import is_skin
from ravska_core.working import BadInput, Figure, Step, figure

PORTION_G = MappingProxyType({"light": 120.0, "usual": 170.0, "hearty": 230.0})
"""Cooked meat on a plate by appetite [g] (common practice; 1.5 kg of boneless shoulder feeds four to six)."""

SKIN_PORTION_G = 15.0
"""Crisped skin on a plate [g] (estimate); it is a dish beside the meat, not the meat."""

LEAST_SERVING_G, MOST_SERVING_G = 1.0, 1000.0
"""What a serving of anything weighs [g]."""

MOST_EATERS = 500
"""A cook feeds so many at most."""


TRIM_WEIGHT_OF_USUAL = 2
"""How many trimmings of one's own the usual share counts as (estimate)."""


PORTION_WEIGHT_OF_USUAL = 3
"""How many cooks of one's own the usual portion, or the usual yield, counts as (estimate)."""


@dataclass(frozen=True)
class RawWeight:
    """What to have on the board and what to buy for it [g], and what comes off in between [share of what is bought]."""

    trimmed: Figure
    bought: Figure
    trim: Figure


def serving_of(cut: str, said_g: float | None, appetite: str) -> float:
    """Return what a serving of a piece weighs, cooked [g]: as it was said, that of a skin, or by the appetite."""
    if said_g is not None:
        return said_g
    return SKIN_PORTION_G if is_skin(cut) else PORTION_G[appetite]


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


def bought(cut: str, raw: Figure, own_trims: Sequence[float] = ()) -> tuple[Figure, Figure]:
    """Determine what to buy for a raw weight on the board [g], raw / (1 - trim share), and that share [%]."""
    trim = trim_share(find_cut(cut), own_trims)
    off = trim.value / 100
    whole = raw.value / (1 - off)
    step = Step("As bought", f"{raw.value:.0f} g / (1 − {off:.3g} trimmed off)", whole, "g", find_cut(cut).source)
    return figure([*raw.steps, step], raw.error, spread=0.15), trim


def own_mean(usual: float, own: Sequence[float]) -> float:
    """Return the mean of one's own and the usual one: (k usual + sum own) / (k + n), k `PORTION_WEIGHT_OF_USUAL`."""
    k = PORTION_WEIGHT_OF_USUAL
    return (k * usual + sum(own)) / (k + len(own))


def _own_steps(label: str, usual: float, own: Sequence[float]) -> list[Step]:
    if not own:
        return []
    said = ", ".join(f"{value * 100:.0f} %" for value in own)
    formula = f"{said}; the usual {usual * 100:.0f} % counts as {PORTION_WEIGHT_OF_USUAL}"
    return [Step(label, formula, own_mean(usual, own) * 100, "%")]


def for_so_many(mass_g: float, servings: float, eaters: float, own_eaten: Sequence[float] = ()) -> Figure:
    """Determine how much of a piece so many need on the board [g], of a cook that serves so many as it is.

    `own_eaten` is what was eaten of the usual portion at past cooks [shares].
    """
    if servings <= 0:
        raise BadInput("eaters", "Nothing on this board is served yet.")
    eaten = own_mean(1.0, own_eaten)
    needed = mass_g * eaters * eaten / servings
    by = f" × {eaten:.2f}" if own_eaten else ""
    steps = [
        *_own_steps("Portion eaten here", 1.0, own_eaten),
        Step("On the board now", f"serves {servings:.1f} in all", mass_g, "g"),
        Step("For all who eat", f"{mass_g:.0f} g × {eaters:.3g}{by} / {servings:.1f}", needed, "g"),
    ]
    return figure(steps, "±15 %: yield differs with the cook", spread=0.15)


def raw_weight(
    cut: str, eaters: int, portion_g: float, grade: str = "ordinary", own_trims: Sequence[float] = (),
    own_yields: Sequence[float] = (), own_eaten: Sequence[float] = (),
) -> RawWeight:  # fmt: skip
    """Determine the raw weight on the board and the weight to buy for it [g].

    Board: eaters x portion / yield / (1 - bone share); bought: that / (1 - trim share), with one's own trimmings. The
    yield goes by what this cut kept here when it was weighed, the portion by what was eaten here [shares of usual].

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
    usual = min(0.95, found.cook_yield + GRADES[grade].yield_points)
    kept = own_mean(usual, own_yields)
    cooked = eaters * portion_g * own_mean(1.0, own_eaten)
    edible = cooked / kept
    raw = edible / (1 - found.bone_share)
    steps = _own_steps("Portion eaten here", 1.0, own_eaten) + _own_steps("Kept here", usual, own_yields)
    by = f" × {own_mean(1.0, own_eaten):.2f}" if own_eaten else ""
    steps += [
        Step("On the plates", f"{eaters} × {portion_g:.0f} g{by}", cooked, "g", "trade"),
        Step("Edible, raw", f"{cooked:.0f} g / {kept:.2f} cooking yield", edible, "g", found.source),
        Step("With its bone", f"{edible:.0f} g / (1 − {found.bone_share:g})", raw, "g", found.source),
    ]
    trimmed = figure(steps, "±15 %: yield differs with the cook", spread=0.15)
    return RawWeight(trimmed, *bought(cut, trimmed, own_trims))
