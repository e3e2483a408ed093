"""Bought blends: every share that a label allows, by sampling the recipes that agree with it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Any

import numpy as np
from scipy.optimize import linprog

from ravska_core.blend.label import MINOR_SHARE, PANEL, RULES, Label, Range, panel_range, read_portion, rounding_half_g
from ravska_core.blend.qualities import QUALITIES
from ravska_core.blend.volume import volume_ml
from ravska_core.catalogue import SODIUM_IN_NACL, Grind, while_it_stands
from ravska_core.measure import parse_mass_g
from ravska_core.working import BadInput, Figure, Step, say

_LEAST_SHARE = 0.0005
"""What an ingredient must at least weigh to be worth naming."""


@dataclass(frozen=True)
class Estimate:
    """What a label allows: the share of every ingredient, every quality in its own unit, and what does not fit."""

    shares: tuple[Range, ...]
    qualities: Mapping[str, Range]
    notes: tuple[str, ...]
    panel: Mapping[str, Range]


@while_it_stands(256)
def parse_label(
    portion: str,
    sodium: str,
    sodium_as: str = "sodium",
    sugars: str = "",
    fat: str = "",
    rule: str = "us",
    minor_from: int | None = None,
    stated: tuple[tuple[int, float], ...] = (),
) -> Label:
    """Read a panel as it is printed: ``0.9 g`` or ``¼ tsp (1 g)`` a portion, ``230 mg`` of sodium or ``0.58 g`` salt.

    Raises
    ------
    BadInput
        At the field that cannot be read, or holds more than the portion does.
    """
    if rule not in RULES:
        raise BadInput("rule", f"A panel follows one of {', '.join(RULES)}; choose one.")
    if sodium_as not in ("sodium", "salt"):
        raise BadInput("sodium_as", "A panel names sodium or salt; choose one.")
    said_g, half, portion_ml = read_portion(portion)
    # one that only has a volume is taken as water until what is in it is known
    portion_g = said_g if said_g is not None else portion_ml or 0.0
    low, high = 0.0, 1000.0
    found = parse_mass_g(sodium, "sodium", low, high, bare="mg" if sodium_as == "sodium" else "g")
    amounts = {
        field: parse_mass_g(text, field, low, high, bare="g") if text else None
        for field, text in (("sugars", sugars), ("fat", fat))
    }
    if half >= portion_g / 2:
        half = portion_g / 4
    # a portion of 100 g is what the panel is for, not something that was weighed
    label = Label(
        portion_g,
        found * (SODIUM_IN_NACL if sodium_as == "salt" else 1.0),
        amounts["sugars"],
        amounts["fat"],
        0.0 if portion_g == 100 else half,
        rule,
        minor_from,
        stated,
        portion_ml,
        said_g is None,
    )
    check_label(label)
    return label


@while_it_stands(256)
def weighed(label: Label, grinds: tuple[Grind, ...]) -> Label:
    """Return a label whose portion has a weight: one told by volume alone weighs what its mixture does."""
    if not label.by_volume or label.portion_ml is None:
        return label
    found = label
    for _ in range(3):
        shares = _estimate(found, grinds).shares
        leaves = [(grind, share.middle) for grind, share in zip(grinds, shares, strict=True)]
        found = replace(found, portion_g=label.portion_ml / volume_ml(leaves))
    return found


def check_label(label: Label) -> None:
    """Refuse a panel that cannot be right, with a sentence at the field."""
    if not 0.1 <= label.portion_g <= 1000:
        raise BadInput(
            "portion", "A portion weighs between 0.1 g and 1 kg; it often stands in brackets, as in (0.9 g)."
        )
    most = {"sodium": 0.4, "sugars": 1.0, "fat": 1.0}
    for what, _ in PANEL:
        found = panel_range(label, what)
        if (
            found is not None
            and found.middle > most[what] * 1.05 + rounding_half_g(what, 0, label.rule) / label.portion_g
        ):
            limit = "more sodium than pure salt holds" if what == "sodium" else f"more {what} than the portion weighs"
            raise BadInput(what, f"That would be {limit}; check the number and the portion.")


class _Mixtures:
    """The mixtures that fit a label, to be asked for the ends of any sum over their shares."""

    def __init__(self, label: Label, grinds: Sequence[Grind]) -> None:

        count = len(grinds)
        minor = count if label.minor_from is None else max(1, min(label.minor_from, count))
        above, limits = [], []
        for at in range(1, minor):
            row = np.zeros(count)
            row[at], row[at - 1] = 1, -1
            above.append(row)
            limits.append(0.0)
        for at in range(minor, count):  # all of these stand below the last of the main ones
            row = np.zeros(count)
            row[at], row[minor - 1] = 1, -1
            above.append(row)
            limits.append(0.0)
        self.bounds = [(_LEAST_SHARE, 1.0 if at < minor else MINOR_SHARE) for at in range(count)]
        self.rows: list[Any] = above
        self.limits = limits
        self.count, self.order = count, len(above)

    def add(self, values: Any, low: float, high: float) -> None:
        """Hold a sum over the shares between two ends; one that leaves nothing but rounding is let go again."""
        slack = 1e-8 + 1e-5 * abs(high)
        self.rows += [values, -values]
        self.limits += [high + slack, -low + slack]
        if self._solve(values) is None:
            del self.rows[-2:], self.limits[-2:]

    def ends(self, values: Any) -> tuple[tuple[float, Any], tuple[float, Any]]:
        """Return the least and the most of a sum over the shares, each with the mixture that has it."""
        return self._end(values, False), self._end(values, True)

    def _end(self, values: Any, most: bool) -> tuple[float, Any]:
        found = self._solve(-values if most else values)
        while found is None:  # the last band left a corner too small for the solver's tolerance
            assert len(self.rows) > self.order
            del self.rows[-2:], self.limits[-2:]
            found = self._solve(-values if most else values)
        return float(values @ found), found

    def _solve(self, values: Any) -> Any:
        """Return the mixture that makes a sum over the shares least, or None if none fits."""

        found = linprog(
            values,
            A_ub=np.array(self.rows) if self.rows else None,
            b_ub=np.array(self.limits) if self.rows else None,
            A_eq=np.ones((1, self.count)),
            b_eq=[1.0],
            bounds=self.bounds,
            method="highs",
        )
        return found.x if found.status == 0 else None


_CHAINS, _WARMING, _COUNTED = 64, 60, 200
"""How many walks through the mixtures that fit, and their steps before and while they count."""


def _mean(mixtures: _Mixtures) -> Any:
    """Determine the mean of all mixtures that fit, each as likely as any other.

    Hit and run: from a mixture in a random direction to both ends, then to anywhere between. Directions join corners,
    so that walks stay where the shares add up to 1; counted is the middle between the ends. Same answer every time.

    References
    ----------
    R. L. Smith, Efficient Monte Carlo procedures for generating points uniformly distributed over bounded regions,
    Operations Research 32, 1984.
    """

    corners = np.array([corner for _, _, *both in _corners(mixtures) for corner in both])
    walls = [np.array(mixtures.rows)] if mixtures.rows else []
    one = np.eye(mixtures.count)
    walls += [one, -one]
    bounds = np.array(mixtures.bounds)
    at_most = np.concatenate((mixtures.limits, bounds[:, 1], -bounds[:, 0]))
    wall = np.vstack(walls)
    dice = np.random.default_rng(20)
    at = dice.dirichlet(np.ones(len(corners)), _CHAINS) @ corners
    total = np.zeros(mixtures.count)
    for step in range(_WARMING + _COUNTED):
        first, second = dice.integers(len(corners), size=(2, _CHAINS))
        way = corners[first] - corners[second]
        room, speed = at_most - at @ wall.T, way @ wall.T
        with np.errstate(divide="ignore", invalid="ignore"):
            steps = np.maximum(room, 0.0) / speed
        most = np.min(np.where(speed > 1e-12, steps, np.inf), axis=1)
        least = np.max(np.where(speed < -1e-12, steps, -np.inf), axis=1)
        still = ~(np.isfinite(most) & np.isfinite(least)) | (most < least)
        most, least = np.where(still, 0.0, most), np.where(still, 0.0, least)
        if step >= _WARMING:
            total += (at + ((most + least) / 2)[:, None] * way).sum(axis=0)
        at = at + (least + dice.random(_CHAINS) * (most - least))[:, None] * way
    found = np.maximum(total, 0.0)
    return found / found.sum()


def _corners(mixtures: _Mixtures) -> list[tuple[float, float, Any, Any]]:
    """Return the least and most of every share, with the mixtures that have them."""

    found = []
    for one in np.eye(mixtures.count):
        low, high = mixtures.ends(one)
        found.append((low[0], high[0], low[1], high[1]))
    return found


def _add_stated(mixtures: _Mixtures, label: Label, notes: list[str]) -> None:
    """Hold shares that the list states, give or take their rounding; one that does not fit the order is left out."""

    for at, share in label.stated:
        one = np.zeros(mixtures.count)
        one[at] = 1
        least, most = mixtures.ends(one)
        half = 0.0005 if round(share * 100, 1) % 1 else 0.005
        if not least[0] - half <= share <= most[0] + half:
            notes.append(f"{share * 100:g} % of ingredient {at + 1} does not fit the order; check the list.")
        else:
            mixtures.add(one, max(least[0], share - half), min(most[0], share + half))


def estimate(label: Label, grinds: tuple[Grind, ...]) -> Estimate:
    """Determine what a label says of shares and qualities, as `_estimate` does, once its portion has a weight.

    Raises
    ------
    BadInput
        As `_estimate` does.
    """
    return _estimate(weighed(label, grinds), grinds)


@while_it_stands(256)
def _estimate(label: Label, grinds: tuple[Grind, ...]) -> Estimate:
    """Determine what a label says of a blend's shares and qualities.

    Parameters
    ----------
    label : Label
        The panel.
    grinds : tuple
        The ingredients in the order they stand on the label.

    Raises
    ------
    BadInput
        For a panel that cannot be right, or a list without ingredients.

    References
    ----------
    HiGHS through scipy.optimize.linprog.
    """

    check_label(label)
    if not grinds:
        raise BadInput("ingredients", "Write the ingredients in the order they stand on the label.")
    mixtures = _Mixtures(label, grinds)
    notes: list[str] = []
    panel: dict[str, Range] = {}
    _add_stated(mixtures, label, notes)
    for what, field in PANEL:
        wanted = panel_range(label, what)
        if wanted is None:
            continue
        values = np.array([getattr(grind.ingredient, field) for grind in grinds])
        least, most = mixtures.ends(values)
        low, high = max(wanted.low, least[0]), min(wanted.high, most[0])
        if low > high + 1e-12:
            nearest = least[0] if wanted.high < least[0] else most[0]
            side = "at least" if wanted.high < least[0] else "at most"
            notes.append(
                f"The panel says {say(wanted.middle * 100, 3)} % {what}, but these ingredients in this order hold "
                f"{side} {say(nearest * 100, 3)} %; check the order, the portion, or an ingredient read wrongly."
            )
            low = high = nearest
        mixtures.add(values, low, high)
        panel[what] = wanted
    qualities: dict[str, Range] = {}
    spans: dict[str, tuple[float, float]] = {}
    for quality in QUALITIES.values():
        values = np.array([quality.of(grind.ingredient) for grind in grinds])
        low_found, high_found = mixtures.ends(values)
        spans[quality.key] = (low_found[0], high_found[0])
    ends = [(low, high) for low, high, *_ in _corners(mixtures)]
    # the middle takes the panel at its word: what was rounded to what it says, without the law's tolerance
    for what, field in PANEL:
        said = panel_range(label, what, 0.0)
        if said is not None:
            values = np.array([getattr(grind.ingredient, field) for grind in grinds])
            least, most = mixtures.ends(values)
            low, high = max(said.low, least[0]), min(said.high, most[0])
            if low > high:
                low = high = least[0] if said.high < least[0] else most[0]
            mixtures.add(values, low, high)
    middle = _mean(mixtures)
    shares = tuple(Range(min(low, m), float(m), max(high, m)) for (low, high), m in zip(ends, middle, strict=True))
    for key, (low, high) in spans.items():
        m = float(np.array([QUALITIES[key].of(grind.ingredient) for grind in grinds]) @ middle)
        qualities[key] = Range(min(low, m), m, max(high, m))
    return Estimate(shares, MappingProxyType(qualities), tuple(notes), MappingProxyType(panel))


def label_figure(label: Label, found: Estimate) -> Figure:
    """Return the salt of a bought blend [% of mass] as a figure with its range and the panel it comes from."""
    sodium, salt = found.panel["sodium"], found.qualities["salt"]
    portion_g = label.sodium_g / sodium.middle if sodium.middle else label.portion_g
    steps = (
        Step("Sodium in a portion", f"on the panel, for {say(portion_g, 3)} g", label.sodium_g * 1000, "mg", "label"),
        Step("Sodium", "portion's sodium / portion", sodium.middle * 100, "%"),
        Step("May be from", "rounding of the panel, and the tolerance the law allows", sodium.low * 100, "%", "label"),
        Step("May be to", "rounding of the panel, and the tolerance the law allows", sodium.high * 100, "%", "label"),
        Step("Salt", "mean of all mixtures that fit panel and order", salt.middle, "%", "label"),
    )
    error = f"{say(salt.low, 3)} to {say(salt.high, 3)} %: every mixture that fits the label"
    return Figure(salt.middle, "%", error, steps,
                  salt.low, salt.high)  # fmt: skip
