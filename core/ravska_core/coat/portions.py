"""Doses as people have them: by weight or spoons, or as a share of a batch or of what is in the jars."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from types import MappingProxyType

from ravska_core.exchange import read_amount
from ravska_core.measure import SPOON_SETS, SpoonSet, parse_number
from ravska_core.units import MASS_G
from ravska_core.working import BadInput, say


@dataclass(frozen=True)
class Portion:
    """How much goes on, said otherwise than on the dial of its layer.

    `value` is in `unit`: ``g`` or ``ml``, or ``batch`` or ``jar`` for a share of the finished batch or of all that is
    in clean jars [0 to 1], of what others leave of it with `rest`. With `per` it goes on every ``100 cm²`` or ``kg`` of
    the piece. `error` is how far that may be off, relative. `holds_g` is what the jars hold, `taken_g` what others take
    of it, where that is known [g].
    """

    value: float
    unit: str
    error: float = 0.0
    per: str = ""
    rest: bool = False
    holds_g: float | None = None
    taken_g: float = 0.0

    @property
    def shared(self) -> bool:
        """Whether it is a share of something, and follows it."""
        return self.unit in SHARED

    def grams(self, density_g_ml: float, batch_g: float) -> float:
        """Determine what goes on [g], or on every `per`: share × (all there is − what others take) where it is a share.

        Raises
        ------
        BadInput
            At ``dose`` when there is nothing of it, or others take all of it.
        """
        if self.unit == "g":
            return self.value
        if self.unit == "ml":
            return self.value * density_g_ml
        of = self.holds_g if self.unit == "jar" else batch_g
        if not of:
            raise BadInput("dose", _EMPTY[self.unit])
        left = of - self.taken_g
        if left <= 1e-9 * of:
            raise BadInput("dose", f"The other layers take all {say(of, 3)} g of it; nothing is left for this one.")
        return self.value * left


SHARED = ("batch", "jar")

BY_GUESS = 0.5
"""From how far an amount said by eye may be off it is asked, relative: some, a little, plenty (estimate)."""

_EMPTY = MappingProxyType(
    {
        "batch": "The batch of this is empty, so no share of it is anything; give the blend lines and a batch first.",
        "jar": "No clean jar of this is on the shelf; write how much in g or spoons, or mix it first.",
    }
)

_SHARES: Mapping[str, int | Fraction] = MappingProxyType(
    {
        "all": 1, "all that is left": 1, "all that s left": 1, "everything": 1, "whole": 1, "half": Fraction(1, 2),
        "a half": Fraction(1, 2), "one half": Fraction(1, 2),
        "third": Fraction(1, 3), "quarter": Fraction(1, 4), "fifth": Fraction(1, 5), "sixth": Fraction(1, 6),
        "eighth": Fraction(1, 8), "tenth": Fraction(1, 10),
    }
)  # fmt: skip
_COUNTS = MappingProxyType({"a": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "the": 1, "": 1})
_OF_WHAT = (
    r"(?:\s+(?:of|in|that(?: i|')s in))?(?:\s+(?:it|this|that|the|my|our|all))*"
    r"(?:\s+(?P<what>batch|blend|mix|mixture|recipe|rub|paste|marinade|sauce|glaze|brine|spice|salt|jars?|pot|tin|shelf"
    r"|what is in the jars?|what is left))?(?:\s+that is left)?"
)
_SHARE = re.compile(rf"(?P<rest>(?:the\s+)?(?:rest|remainder|what(?:ever)?(?: i|')s left))?(?P<share>.*?){_OF_WHAT}")
_RATE = re.compile(
    r"(?P<amount>.+?)\s*(?P<by>/|\bper\b|\bon\b|\bto\b|\bfor\b|\ba\b)\s*(?:each\s+|every\s+|the\s+|a\s+|1\s*)?"
    r"(?P<on>100\s*(?:cm2|cm²|sq\.?\s*cm|in2|in²|sq\.?\s*in)|kg|kilo|kilogram|lb|pound)\b\.?(?:\s+each\s+time)?"
)
_ON_CM2 = 100 * 2.54**2
"""100 square inches [cm2]."""


_DIAL = re.compile(r"[\d\s.,/½¼¾⅓⅔⅛⅜⅝⅞⅕⅙]+(?:%(?:\s*pump)?)?")


def on_dial(text: str) -> bool:
    """Tell whether a dose is a bare number, which counts in the unit of its layer."""
    return _DIAL.fullmatch(text.strip().lower()) is not None


@lru_cache(maxsize=4096)
def parse_dose(text: str, unit: str, owned: SpoonSet = SPOON_SETS["us"]) -> float | Portion:
    """Read a dose: a number on the dial of its layer, or a portion.

    Parameters
    ----------
    unit : str
        What the dial counts in, as ``g/100 cm²``.

    Returns
    -------
    float or Portion
        In the dial's unit: ``5``, ``5 g/100 cm²``, ``0.2 oz per 100 in²``. Else a portion: ``30 g``, ``3 tbsp``, ``1
        tsp a pound``, ``all of this batch``, ``a third of it``, ``the rest of the jar``.

    Raises
    ------
    BadInput
        At ``dose`` when it is none of them.
    """
    said = " ".join(text.lower().replace("’", "'").split()).removeprefix("the whole ").removeprefix("the entire ")
    if said.startswith(("-", "−")):
        raise BadInput("dose", "A dose cannot be below nothing; write how much, or take the layer off.")
    if said in ("batch", "blend", "jar"):
        said = f"all of the {said}"
    if on_dial(said) and ("%" in unit or "%" not in said):
        return parse_number(said.partition("%")[0].strip(), "dose", -1e9, 1e9, f"a dose in {unit}")
    rate = _RATE.fullmatch(said)
    # "half a pound" is an amount, "3 tbsp a pound" a rate
    if rate is not None and not (rate["by"] == "a" and re.fullmatch(r"half|[\d\s½¼¾⅓⅔/.,]+", rate["amount"])):
        return _at_rate(rate["amount"], rate["on"], unit, owned)
    share = _share(said)
    if share is not None:
        return share
    return _amount(text, unit, owned)


def _amount(text: str, unit: str, owned: SpoonSet) -> Portion:
    """Read so many grams, ounces, millilitres, spoons or cups."""
    try:
        found = read_amount(text, owned)
    except BadInput as refusal:
        if refusal.argument == "amount" and "no amount I can read" not in refusal.sentence:
            raise BadInput("dose", refusal.sentence) from None
        raise BadInput(
            "dose",
            f"“{text.strip()}” is no dose I can read; write a number in {unit}, or 30 g, 3 tbsp, all of this batch, "
            "the rest of the jar.",
        ) from None
    if found.kind == "part":
        raise BadInput("dose", f"Which spoon? Write {say(found.value, 3)} tsp or {say(found.value, 3)} tbsp.")
    if found.kind == "percent":
        raise BadInput("dose", f"{text.strip()} of what? Write {text.strip()} of the batch, or a dose in {unit}.")
    if found.kind not in ("g", "ml"):
        raise BadInput("dose", f"How much is in {text.strip()}? Write it in g, ml, spoons or cups.")
    if found.error > BY_GUESS:
        raise BadInput("dose", f"How much is {text.strip()}? Write it in g, ml, spoons or cups.")
    return Portion(found.value, found.kind, found.error)


def _at_rate(amount: str, on: str, unit: str, owned: SpoonSet) -> float | Portion:
    """Return a rate: in the unit of the dial where that is what it counts in, else by the piece's surface or weight."""
    dial, of = unit.partition("/")[0], unit.partition("/")[2]
    found = _amount(amount, unit, owned)
    per = "100 cm²" if "100" in on else "kg"
    inches = per == "100 cm²" and "in" in on
    factor = 100 / _ON_CM2 if inches else float(1000 / MASS_G["lb"]) if on.startswith(("lb", "pound")) else 1.0
    if of.startswith(per) and found.unit == dial:
        return found.value * factor
    return replace(found, value=found.value * factor, per=per)


def _share(said: str) -> Portion | None:
    """Read a share of a batch or of the jars; None for what is none."""
    found = _SHARE.fullmatch(said)
    if found is None:
        return None
    rest, words, what = found["rest"], found["share"].strip(), found["what"] or ""
    unit = "jar" if re.fullmatch(r"jars?|pot|tin|shelf|what is in the jars?", what) else "batch"
    if rest:
        if words:
            return None
        if not what and "of" not in said.split():
            raise BadInput(
                "dose",
                "The rest of what? Write the rest of the jar or of the batch; leave this empty for the rest to the "
                "salt wanted.",
            )
        return Portion(1.0, unit, rest=True)
    value = _share_of(words)
    if value is None or (said == words and words not in _SHARES):
        return None
    if not 0 < value <= 1:
        raise BadInput("dose", "A share lies above 0 and at most all of it; write for example half of it.")
    return Portion(float(value), unit)


def _share_of(words: str) -> Fraction | None:
    if words in _SHARES:
        return Fraction(_SHARES[words])
    percent = re.fullmatch(r"(\d+(?:[.,]\d+)?)\s*(?:%|percent|per cent)", words)
    if percent:
        return Fraction(percent[1].replace(",", ".")) / 100
    counted = re.fullmatch(r"(a|one|two|three|four|five|the)?\s*(third|quarter|fifth|sixth|eighth|tenth)s?", words)
    if counted:
        return Fraction(_SHARES[counted[2]]) * _COUNTS[counted[1] or ""]
    number = re.fullmatch(r"(\d+)\s*/\s*(\d+)", words)
    if number and int(number[2]):
        return Fraction(int(number[1]), int(number[2]))
    sign = {"½": Fraction(1, 2), "⅓": Fraction(1, 3), "⅔": Fraction(2, 3), "¼": Fraction(1, 4), "¾": Fraction(3, 4)}
    return sign.get(words)
