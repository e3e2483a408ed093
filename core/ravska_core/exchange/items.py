"""An ingredient of a line as people write it: how much of what, read by a grammar."""

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from typing import Any

import lark

from ravska_core.blend import HIGHEST_ERROR
from ravska_core.catalogue import exact_names, folded
from ravska_core.measure import BY_EYE, SCALE_ERROR, SIZES, SPOON_ERROR, Measure, SpoonSet, measures
from ravska_core.working import BadInput

SAME_AGAIN_ERROR = 0.25
"""How far "same again" by eye may be off (common practice, no source)."""

_GRAMMAR = r"""
line: piece*
?piece: amount | bracket | WORD -> word | COMMA -> comma | TASTE -> taste | EACH -> each | EQUAL -> equal
      | SAME -> same | AND -> and | OF -> of | PLUSMINUS -> off | stray
stray: RANGE | ANDNUM | SIZE | UNIT | APPROX | BASIS | RELATION
bracket: "(" piece* ")"
amount: APPROX? quantity (ANDNUM APPROX? quantity)*
quantity: number SIZE* UNIT SIZE* BASIS? -> measured
        | ARTICLE SIZE* UNIT BASIS? -> one
        | number SIZE+ -> sized
        | number -> bare
        | number RELATION number -> ratio
number: NUMBER | NUMBER RANGE NUMBER

APPROX.6: /(about|approx\.?|approximately|around|roughly|circa|ca\.?|etwa|ungefahr|~|≈)(?=[\s\d])/
EQUAL.6: /(equal (parts|amounts|quantities|measures)( of)?|gleiche teile)(?!\w)/
TASTE.6: /(to taste|as needed|as required|nach geschmack|to your (taste|liking)|q\.?s\.?)(?!\w)/
SAME.6: /((the )?same (again|amount|quantity)( of)?|(about )?(that|as) much( again)?|ditto|ebenso viel)(?!\w)/
EACH.6: /(of )?each( of)?(?!\w)|je(weils)?(?!\w)/
ANDNUM.5: /(\+|plus|and|&|und)(?=\s*(\d|a (?=pinch|dash|small|handful|splash|heaped|tea|table|squeeze)))/
AND.4: /(and|&|und|\+)(?!\w)/
OF.4: /(of|von)(?!\w)/
BASIS.5: /(by (the )?)?(spoon|scale|weight|volume|gewicht)(?!\w)/
RELATION.5: /:(?=\s*\d)/
RANGE.5: /(-|to|bis|or|oder)(?=\s*\d)/
PLUSMINUS.7: /(±|\+\/-)\s*\d+(\.\d+)?\s*%/
NUMBER.5: /\d+\s+\d+\/\d+|\d+\/\d+|\d+[.,]\d+|\d+|\.\d+/
ARTICLE.5: /(a|an|one|ein|eine|einen|einer)(?=\s+((%SIZES%)\s+)*(%UNITS%)\.?(?![\w']))/
SIZE.4: /(%SIZES%)(?!\w)/
UNIT.4: /(?<![a-z])(%UNITS%)\.?(?![\w'])/
COMMA.3: /[,;:]|\s-+\s|-(?=\s)|\.(?=\s|$)/
WORD.1: /⟦[^⟧]+⟧|[^\s(),;:+&~≈]+?(?=[\s(),;:+&]|$)|[^\s()]/

%import common.WS
%ignore WS
"""


@dataclass(frozen=True)
class Amount:
    """How much: `kind` ml, g, part, percent, a counted unit or "count"; how far it may be off; as it was written.

    `exact` is the number itself where it counts parts or percent.
    """

    kind: str
    value: float
    error: float
    said: str
    basis: str = ""
    exact: Fraction | None = None


@dataclass(frozen=True)
class Item:
    """An ingredient of a line: what it was understood as, how much, and what must be asked.

    `column` is where it begins in its line (from 1), `understood` says back what was read; `held` says that of `blend`
    what its sieve holds back is meant.
    """

    line: int
    column: int
    text: str
    status: str
    name: str = ""
    grind: str = ""
    blend: str = ""
    closest: tuple[str, ...] = ()
    amount: Amount | None = None
    note: str = ""
    question: str = ""
    held: bool = False


@dataclass(frozen=True)
class ListLine:
    """A line of a list as it was written, with the ingredients found in it; a heading or remark has none."""

    number: int
    text: str
    status: str
    items: tuple[Item, ...] = ()


@lru_cache(maxsize=4)
def parser_of(owned: SpoonSet) -> Any:

    units = sorted({folded(name) for name in measures(owned)}, key=len, reverse=True)
    grammar = _GRAMMAR.replace("%UNITS%", "|".join(re.escape(unit).replace("/", r"\/") for unit in units))
    grammar = grammar.replace("%SIZES%", "|".join(sorted(SIZES, key=len, reverse=True)))
    return lark.Lark(grammar, parser="lalr", start="line", propagate_positions=True, maybe_placeholders=False)


@lru_cache(maxsize=4)
def units_of(owned: SpoonSet) -> dict[str, Measure]:
    return {folded(name): measure for name, measure in measures(owned).items()}


def _value(text: str) -> Fraction:
    whole, _, rest = text.strip().replace(",", ".").partition(" ")
    if rest:
        return Fraction(whole) + Fraction(rest)
    return Fraction(whole)


class Reader:
    """Reads one line's tree into items, left to right."""

    def __init__(self, number: int, source: str, plain: str, owned: SpoonSet, before: Amount | None) -> None:
        self.number, self.source, self.plain, self.units = number, source, plain, units_of(owned)
        self.before = before
        self.vague = 0.0

    def amount(self, tree: Any) -> Amount:
        total: Amount | None = None
        approx = 0.0
        for child in tree.children:
            if not hasattr(child, "data"):
                approx = 0.15 if child.type == "APPROX" else approx
                continue
            found = self.quantity(child)
            total = found if total is None else self._sum(total, found, tree)
        assert total is not None
        start, end = tree.meta.start_pos, tree.meta.end_pos
        error = min(HIGHEST_ERROR, max(total.error, math.hypot(total.error, approx, self.vague)))
        return replace(total, error=error, said=self.plain[start:end].strip())

    def _sum(self, a: Amount, b: Amount, tree: Any) -> Amount:
        if a.kind != b.kind:
            said = self.plain[tree.meta.start_pos : tree.meta.end_pos]
            raise BadInput("", f"“{said}” adds unlike things; write one of them.")
        return self.add(a, b)

    def add(self, a: Amount, b: Amount) -> Amount:
        """Add two amounts of a kind; their errors are taken as independent."""
        value = a.value + b.value
        exact = a.exact + b.exact if a.exact and b.exact else None
        error = math.hypot(a.value * a.error, b.value * b.error) / value
        return Amount(a.kind, value, error, f"{a.said} {b.said}".strip(), a.basis, exact)

    def number_of(self, tree: Any) -> tuple[Fraction, float]:
        values = [_value(token.value) for token in tree.children if token.type == "NUMBER"]
        if len(values) == 2 and values[1] < values[0]:
            values.reverse()
        middle = sum(values, Fraction(0)) / len(values)
        if not 0 < middle < 1_000_000:
            raise BadInput("", "This amount is nothing or beyond any kitchen; write it again.")
        return middle, float((values[-1] - values[0]) / 2 / middle) if len(values) == 2 else 0.0

    def quantity(self, tree: Any) -> Amount:
        if tree.data == "bare":
            number, error = self.number_of(tree.children[0])
            return Amount("count", float(number), error, "")
        if tree.data == "sized":
            number, error = self.number_of(tree.children[0])
            factor, doubt = SIZES[tree.children[1].value]
            return Amount("count", float(number) * factor, math.hypot(error, doubt), "")
        if tree.data == "ratio":
            raise BadInput("", "Write a ratio with one ingredient a line, such as 2 parts salt.")
        number, error, unit, basis = Fraction(1), 0.0, "", ""
        factor, doubt = 1.0, 0.0
        for child in tree.children:
            if hasattr(child, "data"):
                number, error = self.number_of(child)
            elif child.type == "UNIT":
                unit = child.value.rstrip(".")
            elif child.type == "SIZE":
                factor, doubt = factor * SIZES[child.value][0], max(doubt, SIZES[child.value][1])
            elif child.type == "BASIS":
                basis = "scale" if re.search("scale|weight|gewicht", child.value) else "spoon"
        measure, value = self.units[unit], float(number)
        known = math.hypot(measure.error, doubt) if doubt != 0.1 else measure.error
        if measure.kind not in ("ml", "g", "part", "percent"):
            return Amount(measure.kind, value * factor, math.hypot(error, doubt), "", basis)
        exact = number if measure.kind in ("part", "percent") and factor == 1.0 else None
        return Amount(measure.kind, value * factor * measure.amount, math.hypot(known, error), "", basis, exact)


def long_name(key: str, blends: Mapping[str, str]) -> str:
    if key.startswith(("blend:", "sieve:")):
        found = next(name for name, known in blends.items() if known == key.partition(":")[2])
        return found if key.startswith("blend:") else f"sieved out of {found}"
    return next((name for name, known in exact_names().items() if known == key), key)


def by_eye(amount: Amount) -> bool:
    """Return whether an amount was taken by eye: a handful, a pinch, a range, "about"."""
    usual = {"ml": SPOON_ERROR, "g": SCALE_ERROR}.get(amount.kind, 0.0)
    return amount.error > usual + 1e-9 or any(word in amount.said for word in BY_EYE)
