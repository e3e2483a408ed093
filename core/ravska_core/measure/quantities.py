"""How much of a measure was said: a number or an article, words of size and doubt, the measure itself."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from types import MappingProxyType
from typing import Generic, TypeVar

from ravska_core.measure.measures import SIZES
from ravska_core.measure.numbers import ARTICLES, Number, and_share, number_at
from ravska_core.measure.tokens import Token

HEDGES = MappingProxyType(
    {
        **dict.fromkeys(
            ("about", "approx", "approximately", "around", "roughly", "circa", "ca", "etwa", "ungefahr", "~", "≈"),
            (1.0, 0.15),
        ),
        **dict.fromkeys(("maybe", "perhaps", "say", "probably", "i guess", "vielleicht"), (1.0, 0.25)),
        **dict.fromkeys(("just under", "nearly", "almost", "not quite", "just shy of", "knapp"), (0.95, 0.1)),
        **dict.fromkeys(
            ("a bit less than", "a little less than", "slightly less than", "less than", "under", "a bit under",
             "a little under"), (0.9, 0.15),
        ),
        **dict.fromkeys(("just over", "gut"), (1.05, 0.1)),
        **dict.fromkeys(
            ("a bit more than", "a little more than", "slightly more than", "more than", "over", "a bit over",
             "a little over"), (1.1, 0.15),
        ),
        **dict.fromkeys(("up to", "at most", "no more than", "hochstens", "bis zu"), (0.75, 0.3)),
        **dict.fromkeys(("at least", "mindestens"), (1.15, 0.2)),
    }
)  # fmt: skip
"""What a phrase before an amount makes of it, and how far it may then be off (common practice, no source)."""

HEDGES_AFTER = MappingProxyType({"or so": 0.15, "ish": 0.15, "more or less": 0.15, "give or take": 0.15, "about": 0.15})

_LONGEST_PHRASE = 4

_OF_A_SPOON = frozenset({"heaped", "heaping", "rounded", "scant", "level", "gehauft", "gestrichen"})
"""Words of size that may stand after the measure."""

Unit = TypeVar("Unit")


@dataclass(frozen=True, slots=True)
class Quantity(Generic[Unit]):
    """So much of a unit: `number` (its middle counts) times `factor`; None for a bare number.

    `factor` is what words of size and doubt make of it, `doubt` how far off they say it may be, relative; `times` how
    often it was said to be there ("2 x 25 g"); `sized` tells that a word of size stands before it, `counted` that a
    number was said, not an article or nothing.
    """

    number: Number
    unit: Unit | None
    factor: float = 1.0
    doubt: float = 0.0
    sized: bool = False
    counted: bool = True

    @property
    def value(self) -> float:
        return float(self.number.middle) * self.factor


def phrase_at(tokens: Sequence[Token], at: int, phrases: Mapping[str, object]) -> tuple[str, int] | None:
    """Find the longest of some phrases that begins at a token: itself, and the place after it."""
    for length in range(min(_LONGEST_PHRASE, len(tokens) - at), 0, -1):
        phrase = " ".join(token.text for token in tokens[at : at + length])
        if phrase in phrases:
            return phrase, at + length
    return None


def _unit_at(tokens: Sequence[Token], at: int, units: Mapping[str, Unit]) -> tuple[Unit, int] | None:
    if at >= len(tokens):
        return None
    short = {"T": "tbsp", "t": "tsp"}.get(tokens[at].raw)
    if short is not None and short in units:
        return units[short], _after_point(tokens, at + 1)
    for length in (3, 2, 1):
        words = [token.text for token in tokens[at : at + length] if token.text != "."]
        if len(tokens) >= at + length and words and (tokens[at + length - 1].text != ".") and " ".join(words) in units:
            return units[" ".join(words)], _after_point(tokens, at + length)
    return None


def _after_point(tokens: Sequence[Token], at: int) -> int:
    """Pass the point of a shortened measure: ``oz.``, ``T.``"""
    point = at < len(tokens) and tokens[at].text == "." and tokens[at].glued
    return at + 1 if point and len(tokens[at - 1].text) <= 4 else at


def _sizes_at(tokens: Sequence[Token], at: int) -> tuple[float, float, int]:
    factor, doubt = 1.0, 0.0
    while at < len(tokens) and tokens[at].text in SIZES:
        factor, doubt = factor * SIZES[tokens[at].text][0], max(doubt, SIZES[tokens[at].text][1])
        at += 1
    return factor, doubt, at


def _word(tokens: Sequence[Token], at: int) -> str:
    return tokens[at].text if at < len(tokens) else ""


def quantity_at(
    tokens: Sequence[Token], at: int, units: Mapping[str, Unit], bare: frozenset[str] = frozenset()
) -> tuple[Quantity[Unit], int] | None:
    """Read an amount that begins at a token.

    Parameters
    ----------
    tokens : sequence
        Of the line.
    at : int
        Where it would begin.
    units : mapping
        Measures by the names they are written with, folded.
    bare : frozenset
        Those of them that need neither number nor article: "pinch of salt".

    Returns
    -------
    tuple
        The amount and the place after it, or None. A number without a measure is one, an article without is none.

    Raises
    ------
    BadInput
        At no field, for a fraction of nothing.
    """
    factor, doubt, sized = 1.0, 0.0, False
    while (hedge := phrase_at(tokens, at, HEDGES)) is not None and hedge[1] < len(tokens):
        factor, doubt, at = factor * HEDGES[hedge[0]][0], max(doubt, HEDGES[hedge[0]][1]), hedge[1]
        if _word(tokens, at) == ".":
            at += 1
    found = number_at(tokens, at)
    counted = found is not None
    if found is None:
        article = _word(tokens, at) in ARTICLES or (_word(tokens, at) == "the" and _word(tokens, at + 1) in bare)
        size, off, after = _sizes_at(tokens, at + article)
        whole = " ".join(token.text for token in tokens[at + article : after + 1])
        unit = _unit_at(tokens, at + article if whole in units else after, units)
        if unit is None or not (article or _word(tokens, unit[1] - 1) in bare or _word(tokens, after) in bare):
            return None
        if whole in units:
            size, off = 1.0, 0.0
        found, sized = (Number(Fraction(1), Fraction(1)), unit[1]), after > at + article
        factor, doubt = factor * size, max(doubt, off)
        number, at = found
        return _finished(tokens, at, number, unit[0], factor, doubt, sized, counted, units)
    number, at = found
    if _word(tokens, at) in ("x", "mal", "*") and (times := number_at(tokens, at + 1)) is not None:
        number = Number(number.low * times[0].low, number.high * times[0].high, max(number.doubt, times[0].doubt))
        at = times[1]
    if _word(tokens, at) == "-" and tokens[at].glued and _unit_at(tokens, at + 1, units):  # "12-oz"
        at += 1
    after = at
    if _word(tokens, after) == "of" or _word(tokens, after) in ARTICLES:  # "half of a cup", "a third of a pound"
        after += 1 + (_word(tokens, after) == "of" and _word(tokens, after + 1) in ("the", *ARTICLES))
    size, off, place = _sizes_at(tokens, after)
    whole = " ".join(token.text for token in tokens[after : place + 1])
    unit = _unit_at(tokens, after, units) if whole in units else None
    if unit is None:
        unit = _unit_at(tokens, place, units)
        if unit is not None or place > after:
            factor, doubt, sized = factor * size, max(doubt, off), place > after
            at = place
    if unit is None:
        return Quantity(number, None, factor, doubt, sized, counted), at
    return _finished(tokens, unit[1], number, unit[0], factor, doubt, sized, counted, units)


def _finished(
    tokens: Sequence[Token], at: int, number: Number, unit: Unit, factor: float, doubt: float, sized: bool,
    counted: bool, units: Mapping[str, Unit],
) -> tuple[Quantity[Unit], int]:  # fmt: skip
    """Read on after the measure: words of size, "and a half", "or so"."""
    if _word(tokens, at) in _OF_A_SPOON:  # "2 tbsp heaped"
        size, off = SIZES[_word(tokens, at)]
        factor, doubt, sized, at = factor * size, max(doubt, off), True, at + 1
    more = and_share(tokens, at)
    if more is not None and _unit_at(tokens, more[1], units) is None:
        number, at = Number(number.low + more[0], number.high + more[0], number.doubt), more[1]
    hedge = phrase_at(tokens, at, HEDGES_AFTER)
    if hedge is not None and not (hedge[0] == "about" and _word(tokens, hedge[1])):
        doubt, at = max(doubt, HEDGES_AFTER[hedge[0]]), hedge[1]
    return Quantity(number, unit, factor, doubt, sized, counted), at
