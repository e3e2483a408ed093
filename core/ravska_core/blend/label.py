"""Bought blends: what a label's panel says, read and checked."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.catalogue import SODIUM_IN_NACL
from ravska_core.measure import parse_mass_g, read_number
from ravska_core.working import BadInput

RULES = ("us", "eu")
"""Whose rounding and tolerance a panel follows."""

MINOR_SHARE = 0.02
"""Most of one ingredient under "2 % or less of" (US 21 CFR 101.4)."""

TOLERANCE = 0.2
"""How far an analysis may lie from the panel (US 21 CFR 101.9(g); EU guidance of 2012 for middle contents)."""

PANEL = (("sodium", "sodium"), ("sugars", "sugars"), ("fat", "fat"))


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
