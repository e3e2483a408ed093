"""Bought blends: what a nutrition panel and the order of the ingredients say of a recipe nobody gives away.

Ingredients stand by falling weight; what follows "2 % or less of" may stand in any order. Every mixture that fits the
order and the panel is possible, so every share and quality is a range: its ends are linear programs over the mixtures
that fit, its middle the mean over all of them, the panel taken at its word.
"""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from types import MappingProxyType
from typing import Any

from ravska_core.catalogue import SODIUM_IN_NACL, Grind
from ravska_core.naming import match
from ravska_core.quantities import parse_mass_g, read_number
from ravska_core.volume import volume_ml
from ravska_core.working import BadInput, Figure, Step, say

RULES = ("us", "eu")
"""Whose rounding and tolerance a panel follows."""

MINOR_SHARE = 0.02
"""Most of one ingredient under "2 % or less of" (US 21 CFR 101.4)."""

_LEAST_SHARE = 0.0005
"""What an ingredient must at least weigh to be worth naming."""

TOLERANCE = 0.2
"""How far an analysis may lie from the panel (US 21 CFR 101.9(g); EU guidance of 2012 for middle contents)."""

_PANEL = (("sodium", "sodium"), ("sugars", "sugars"), ("fat", "fat"))


@dataclass(frozen=True)
class Label:
    """A nutrition panel: the portion it is for [g], give or take `portion_half_g`, with sodium, sugars and fat [g].

    `minor_from` is the place of the first ingredient under "2 % or less of", None where there is no such clause.
    `stated` holds shares that the list itself gives, by place. `portion_ml` is the portion in spoons or ml, where the
    label says that too; `by_volume` that it says only that, so that its weight follows from what is in it.
    """

    portion_g: float
    sodium_g: float
    sugars_g: float | None = None
    fat_g: float | None = None
    portion_half_g: float = 0.0
    rule: str = "us"
    minor_from: int | None = None
    stated: tuple[tuple[int, float], ...] = ()
    portion_ml: float | None = None
    by_volume: bool = False


@dataclass(frozen=True)
class Range:
    """A value with the least and the most it can be."""

    low: float
    middle: float
    high: float


@dataclass(frozen=True)
class Estimate:
    """What a label allows: the share of every ingredient, every quality in its own unit, and what does not fit."""

    shares: tuple[Range, ...]
    qualities: Mapping[str, Range]
    notes: tuple[str, ...]
    panel: Mapping[str, Range]


LABEL_ML: Mapping[str, float] = MappingProxyType(
    {"tsp": 5.0, "teaspoon": 5.0, "tbsp": 15.0, "tablespoon": 15.0, "cup": 240.0, "ml": 1.0, "cl": 10.0, "l": 1000.0,
     "fl oz": 30.0, "floz": 30.0, "el": 15.0, "tl": 5.0}
)  # fmt: skip
"""Measures of a panel's portion [ml]: a teaspoon is 5, a cup 240 (US 21 CFR 101.9(b)(5)(viii), from memory)."""

_PORTION = re.compile(
    r"(?P<number>\d+\s*[½⅓⅔¼¾⅛]|[½⅓⅔¼¾⅛]|\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?)\s*"
    r"(?P<unit>fl\.? ?oz|[a-zA-Z]+)\.?"
)


def read_portion(text: str) -> tuple[float | None, float, float | None]:
    """Read a panel's portion as it is printed: ``0.9 g``, ``¼ tsp (1 g)``, ``1 tbsp (15 ml)``, ``30 ml``.

    Returns
    -------
    tuple
        Its weight [g], give or take half its last figure [g], and its volume [ml]; None where it is not said.

    Raises
    ------
    BadInput
        At ``portion``.
    """
    grams = volume = None
    half = 0.0
    left = text
    for found in _PORTION.finditer(text):
        unit = found["unit"].lower().replace(".", "").rstrip("s")
        if unit in LABEL_ML:
            volume = float(read_number(found["number"], "portion")) * LABEL_ML[unit] if volume is None else volume
        else:
            grams = parse_mass_g(found[0].rstrip("."), "portion", 0.1, 1000, bare="g")
            digits = re.fullmatch(r"\d+(?:[.,](\d+))?", found["number"].strip())
            half = 0.5 * 10 ** -len(digits[1] or "") if digits and unit != "oz" else 0.005 * grams
        left = left.replace(found[0], "", 1)
    if re.sub(r"[\s()/,.=≈~]|about|ca|or", "", left):
        if grams is None and volume is None:
            grams = parse_mass_g(text, "portion", 0.1, 1000, bare="g")
        else:
            raise BadInput("portion", "Write the portion as the panel has it, for example 0.9 g, ¼ tsp (1 g) or 15 ml.")
    if volume is not None and not 0.1 <= volume <= 1000:
        raise BadInput(
            "portion", "A portion is between 0.1 ml and 1 litre; it often stands in brackets, as in (15 ml)."
        )
    if grams is None and volume is None:
        raise BadInput(
            "portion", "Write what a portion weighs, for example 0.9 g, or its spoon, for example ¼ tsp (1 g)."
        )
    return grams, half, volume


@lru_cache(maxsize=256)
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


@lru_cache(maxsize=256)
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


def rounding_half_g(what: str, amount_g: float, rule: str) -> float:
    """Return half the step a panel's amount was rounded to [g].

    US (21 CFR 101.9(c)): sodium by 5 mg up to 140 mg, then by 10; sugars by 1 g; fat by 0.5 g below 5 g, then by 1.
    EU (guidance of 2012, from memory): salt by 0.01 g below 1 g, else by 0.1; sugars and fat by 0.1 g below 10 g,
    else by 1.
    """
    if rule == "us":
        if what == "sodium":
            return 0.0025 if amount_g <= 0.140 else 0.005
        return 0.25 if what == "fat" and amount_g < 5 else 0.5
    if what == "sodium":
        return (0.005 if amount_g / SODIUM_IN_NACL < 1 else 0.05) * SODIUM_IN_NACL
    return 0.05 if amount_g < 10 else 0.5


def panel_range(label: Label, what: str, tolerance: float = TOLERANCE) -> Range | None:
    """Determine what a panel's amount stands for as a mass fraction: its rounding, the portion's and a tolerance."""
    amount = {"sodium": label.sodium_g, "sugars": label.sugars_g, "fat": label.fat_g}[what]
    if amount is None:
        return None
    half = rounding_half_g(what, amount, label.rule)
    portion, loose = label.portion_g, label.portion_half_g
    low = max(0.0, amount - half) / (portion + loose) * (1 - tolerance)
    high = (amount + half) / max(portion - loose, portion / 2) * (1 + tolerance)
    return Range(low, amount / portion, min(1.0, high))


def check_label(label: Label) -> None:
    """Refuse a panel that cannot be right, with a sentence at the field."""
    if not 0.1 <= label.portion_g <= 1000:
        raise BadInput(
            "portion", "A portion weighs between 0.1 g and 1 kg; it often stands in brackets, as in (0.9 g)."
        )
    most = {"sodium": 0.4, "sugars": 1.0, "fat": 1.0}
    for what, _ in _PANEL:
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
        import numpy as np

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
        import numpy as np
        from scipy.optimize import linprog

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
    import numpy as np

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
    import numpy as np

    found = []
    for one in np.eye(mixtures.count):
        low, high = mixtures.ends(one)
        found.append((low[0], high[0], low[1], high[1]))
    return found


def _add_stated(mixtures: _Mixtures, label: Label, notes: list[str]) -> None:
    """Hold shares that the list states, give or take their rounding; one that does not fit the order is left out."""
    import numpy as np

    for at, share in label.stated:
        one = np.zeros(mixtures.count)
        one[at] = 1
        least, most = mixtures.ends(one)
        half = 0.0005 if round(share * 100, 1) % 1 else 0.005
        if not least[0] - half <= share <= most[0] + half:
            notes.append(f"{share * 100:g} % of ingredient {at + 1} does not fit the order; check the list.")
        else:
            mixtures.add(one, max(least[0], share - half), min(most[0], share + half))


@dataclass(frozen=True)
class LabelName:
    """An ingredient as a label names it: its grind or what comes closest, a stated share, and whether it is minor."""

    name: str
    grind: str | None
    closest: tuple[str, ...]
    stated: float | None
    minor: bool


_MINOR = re.compile(
    r"(contains? |with )?(less than|no more than|not more than)?\s*2\s*%\s*(or less\b)?\s*(of\b)?\s*(each of\b)?"
    r"\s*(the following\b)?\s*:?\s*",
    re.IGNORECASE,
)
_STATED = re.compile(r"\(?\s*(\d{1,2}(?:[.,]\d+)?)\s*%\s*\)?")


_DEEPEST = 4
"""How many brackets may lie inside each other on a label."""


_UNNAMED = ("spices-unnamed", "flavouring-unnamed")


def _known(name: str) -> bool:
    """Tell whether the catalogue holds a compound by its own name, as it does soy sauce; "spices" are none."""
    grind = match(_STATED.sub(" ", name)).grind if name.strip() else None
    return grind is not None and grind.split("/")[0] not in _UNNAMED


DRIED: Mapping[str, str] = MappingProxyType(
    {
        "garlic-fresh/crushed": "garlic-granulated/powder",
        "onion-fresh/chopped": "onion-granulated/powder",
        "ginger-fresh/grated": "ginger-ground/powder",
        "parsley-fresh/chopped": "parsley-dried/leaf",
        "coriander-fresh/chopped": "coriander-leaf-dried/leaf",
        "mint-fresh/chopped": "mint-dried/leaf",
        "basil-fresh/chopped": "basil/leaf",
        "sage-fresh/chopped": "sage/ground",
        "thyme-fresh/leaf": "thyme/leaf",
        "rosemary-fresh/chopped": "rosemary/leaf",
        "dill-fresh/chopped": "dill-dried/leaf",
        "orange-zest/grated": "orange-peel-dried/granulated",
        "lemon-zest/grated": "lemon-peel-dried/granulated",
        "mustard-prepared/paste": "mustard-powder/powder",
        "tomato-paste/paste": "tomato-powder/powder",
    }
)
"""What the name of something fresh or prepared means in a dry blend."""


def _flat(text: str, level: int = 0) -> list[str]:
    """Split a list at its commas; a compound such as "spices (paprika, cumin)" gives its own ingredients instead."""
    found: list[str] = []
    depth, word, inner = 0, "", ""
    for char in text + ",":
        if char in "([":
            depth += 1
            if depth == 1:
                inner = ""
                continue
        elif char in ")]" and depth:
            depth -= 1
            if not depth:
                if "," in inner and level < _DEEPEST and not _known(word):
                    found += _flat(
                        re.sub(r"^\s*(including|contains?|of)\s+", "", inner, flags=re.IGNORECASE), level + 1
                    )
                    word = ""
                elif "," not in inner:
                    word += f" ({inner})"
                continue
        if depth:
            inner += char
        elif char in ",;":
            if word.strip():
                found.append(word.strip())
            word = ""
        else:
            word += char
    return found


def read_ingredients(text: str) -> list[LabelName]:
    """Read the list of ingredients on a label, heaviest first.

    Raises
    ------
    BadInput
        At ``ingredients`` when there is none, or more than a blend holds.
    """
    plain = re.sub(r"^\s*(ingredients?|zutaten)\s*:\s*", "", text.strip(), flags=re.IGNORECASE).rstrip(". ")
    if len(plain) > 4000:
        raise BadInput("ingredients", "That is too long for a label; write the list of ingredients only.")
    minor = _MINOR.search(plain)
    names: list[LabelName] = []
    halves = [(plain, False)] if minor is None else [(plain[: minor.start()], False), (plain[minor.end() :], True)]
    for half, small in halves:
        for word in _flat(half.replace(".", ",") if not re.search(r"\d\.\d", half) else half):
            stated = _STATED.search(word)
            name = re.sub(r"\s+", " ", _STATED.sub(" ", word)).strip(" .:*()")
            name = re.sub(r"^(and|und|&)\s+", "", name, flags=re.IGNORECASE)
            if not name:
                continue
            found = match(re.sub(r"[()]", " ", name))
            share = float(stated[1].replace(",", ".")) / 100 if stated else None
            names.append(LabelName(name[:80], found.grind, found.closest, share, small))
    if not names:
        raise BadInput("ingredients", "Write the ingredients in the order they stand on the label, with commas.")
    if len(names) > 40:
        raise BadInput(
            "ingredients", "That is more than 40 ingredients; write the first 40, the rest weighs next to nothing."
        )
    return names


def estimate(label: Label, grinds: tuple[Grind, ...]) -> Estimate:
    """Determine what a label says of shares and qualities, as `_estimate` does, once its portion has a weight.

    Raises
    ------
    BadInput
        As `_estimate` does.
    """
    return _estimate(weighed(label, grinds), grinds)


@lru_cache(maxsize=256)
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
    import numpy as np

    from ravska_core.composition import QUALITIES

    check_label(label)
    if not grinds:
        raise BadInput("ingredients", "Write the ingredients in the order they stand on the label.")
    mixtures = _Mixtures(label, grinds)
    notes: list[str] = []
    panel: dict[str, Range] = {}
    _add_stated(mixtures, label, notes)
    for what, field in _PANEL:
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
    for what, field in _PANEL:
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
