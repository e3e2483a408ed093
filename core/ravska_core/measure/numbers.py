"""Numbers as people write and say them: in figures, in words and both, as fractions, mixed, and from one to another."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from types import MappingProxyType

from ravska_core.measure.tokens import Token
from ravska_core.working import BadInput


@dataclass(frozen=True, slots=True)
class Number:
    """A number from `low` to `high`, the same where one was said, and how far it may be off besides, relative."""

    low: Fraction
    high: Fraction
    doubt: float = 0.0

    @property
    def middle(self) -> Fraction:
        return (self.low + self.high) / 2

    @property
    def error(self) -> float:
        """Half the span over the middle, or the doubt in the word where that is more."""
        return max(self.doubt, float((self.high - self.low) / 2 / self.middle) if self.middle else 0.0)


_ONES = MappingProxyType(
    {
        name: value
        for value, names in enumerate(
            ("", "one ein eine einen einer eins", "two zwei", "three drei", "four vier", "five funf", "six sechs",
             "seven sieben", "eight acht", "nine neun", "ten zehn", "eleven elf", "twelve zwolf", "thirteen dreizehn",
             "fourteen vierzehn", "fifteen funfzehn", "sixteen sechzehn", "seventeen siebzehn", "eighteen achtzehn",
             "nineteen neunzehn")
        )
        for name in names.split()
    }
)  # fmt: skip

_TENS = MappingProxyType(
    {
        name: 10 * value
        for value, names in enumerate(
            ("", "", "twenty zwanzig", "thirty dreissig", "forty fourty vierzig", "fifty funfzig", "sixty sechzig",
             "seventy siebzig", "eighty achtzig", "ninety neunzig")
        )
        for name in names.split()
    }
)  # fmt: skip

_WHOLE_GERMAN = MappingProxyType(
    {
        "anderthalb": Fraction(3, 2), "eineinhalb": Fraction(3, 2), "zweieinhalb": Fraction(5, 2),
        "dreieinhalb": Fraction(7, 2), "viereinhalb": Fraction(9, 2), "dreiviertel": Fraction(3, 4),
        "hundert": Fraction(100), "einhundert": Fraction(100), "zweihundert": Fraction(200),
        "dreihundert": Fraction(300), "vierhundert": Fraction(400), "funfhundert": Fraction(500),
        "funfundzwanzig": Fraction(25),
    }
)  # fmt: skip

_SHARES = MappingProxyType(
    {
        name: Fraction(1, under)
        for under, names in (
            (2, "half halves halb halbe halber halbes halben"), (3, "third thirds drittel"),
            (4, "quarter quarters fourth fourths viertel"), (5, "fifth fifths funftel"), (6, "sixth sixths sechstel"),
            (8, "eighth eighths achtel"), (10, "tenth tenths zehntel"), (16, "sixteenth sixteenths"),
        )
        for name in names.split()
    }
)  # fmt: skip

_VAGUE = MappingProxyType({"couple": (2, 0.25), "few": (3, 0.35), "several": (4, 0.4), "paar": (3, 0.35)})
"""What a word stands for and how far it may be off (common practice, no source)."""

ARTICLES = frozenset("a an ein eine einen einer eines".split())  # noqa: SIM905

_TO = frozenset("- to bis or oder".split())  # noqa: SIM905

_AND = frozenset("and & und".split())  # noqa: SIM905

Found = tuple[Fraction, int]


def _word(tokens: Sequence[Token], at: int) -> str:
    return tokens[at].text if at < len(tokens) else ""


def _value(tokens: Sequence[Token], at: int) -> Fraction | None:
    return tokens[at].value if at < len(tokens) else None


def _figures(tokens: Sequence[Token], at: int) -> Found | None:
    """Read ``2``, ``0.5``, ``1/2``, ``½``, ``1 1/2``, ``1-1/2``, ``1½``, ``1 and 1/2``."""
    first = _value(tokens, at)
    if first is None:
        return None
    share = _fraction(tokens, at)
    if share is not None:
        return share
    at += 1
    if first.denominator == 1 and tokens[at - 1].raw.isdecimal():
        after = at
        joined = _word(tokens, after) in _AND or (_word(tokens, after) == "-" and first >= 1)
        mixed = _fraction(tokens, after + joined)
        if mixed is not None and mixed[0] < 1:
            return first + mixed[0], mixed[1]
    return first, at


def _fraction(tokens: Sequence[Token], at: int) -> Found | None:
    value = _value(tokens, at)
    if value is None:
        return None
    if (value.denominator != 1 and not tokens[at].raw[-1:].isdecimal()) or tokens[at].raw[0] == "\u215f":  # ½
        return value, at + 1
    under = _value(tokens, at + 2)
    if _word(tokens, at + 1) != "/" or under is None or not tokens[at].raw.isdecimal():
        return None
    if not tokens[at + 2].raw.isdecimal():
        return None
    if under == 0:
        raise BadInput("", "Nothing can be divided by 0; write the fraction again.")
    return value / under, at + 3


def _spelled(tokens: Sequence[Token], at: int) -> Found | None:
    """Read ``seven``, ``twenty five``, ``a hundred``, ``two hundred and twenty``, ``half a dozen``."""
    word = _word(tokens, at)
    if word in _WHOLE_GERMAN:
        return _WHOLE_GERMAN[word], at + 1
    value, after = 0, at
    if word in _TENS:
        value, after = _TENS[word], at + 1
        if 0 < _ONES.get(_word(tokens, after), 0) < 10 and _word(tokens, after) not in ARTICLES:
            value, after = value + _ONES[_word(tokens, after)], after + 1
    elif word in _ONES:
        value, after = _ONES[word], at + 1
    elif word in ARTICLES and _word(tokens, at + 1) in ("hundred", "dozen"):
        value, after = 1, at + 1
    elif word == "dozen":
        return Fraction(12), at + 1
    if not value or (word in ARTICLES and after == at + 1 and _word(tokens, after) not in ("hundred", "dozen")):
        return None
    if _word(tokens, after) == "dozen":
        return Fraction(12 * value), after + 1
    if _word(tokens, after) == "hundred":
        value, after = 100 * value, after + 1
        joined = _word(tokens, after) in _AND
        rest = _spelled(tokens, after + joined)
        if rest is not None and rest[0] < 100 and rest[0].denominator == 1:
            return value + rest[0], rest[1]
    return Fraction(value), after


def _share(tokens: Sequence[Token], at: int) -> Found | None:
    """Read ``half``, ``a quarter``, ``three eighths``, ``two thirds``, ``1 quarter``."""
    word = _word(tokens, at)
    if word in _SHARES:
        return _SHARES[word], at + 1
    share = _SHARES.get(_word(tokens, at + 1))
    if share is None:
        return None
    if word in ARTICLES or word in ("one", "eins"):
        return share, at + 2
    count = _ONES.get(word) or (_value(tokens, at) if at < len(tokens) and tokens[at].raw.isdecimal() else None)
    return (share * count, at + 2) if count and share * count < 1 and share != Fraction(1, 2) else None


def and_share(tokens: Sequence[Token], at: int) -> Found | None:
    """Read ``and a half``, ``and a quarter``, ``und ein halber`` after a number or a measure."""
    if _word(tokens, at) not in _AND:
        return None
    share = _share(tokens, at + 1)
    # "a cup and half a teaspoon" goes on with an amount of its own
    if share is None or (_word(tokens, at + 1) in _SHARES and _word(tokens, share[1]) in ARTICLES):
        return None
    return share


def _single(tokens: Sequence[Token], at: int) -> tuple[Number, int] | None:
    word = _word(tokens, at)
    vague = at + 1 if word in ARTICLES else at
    if _word(tokens, vague) in _VAGUE and (vague > at or word in ("several", "few", "couple")):
        value, doubt = _VAGUE[_word(tokens, vague)]
        return Number(Fraction(value), Fraction(value), doubt), vague + 1
    found = _share(tokens, at)
    if found is not None and _word(tokens, found[1] + (_word(tokens, found[1]) in ARTICLES)) == "dozen":
        return Number(found[0] * 12, found[0] * 12), found[1] + 1 + (_word(tokens, found[1]) in ARTICLES)
    found = found or _figures(tokens, at) or _spelled(tokens, at)
    if found is None:
        return None
    value_, after = found
    if value_.denominator == 1:
        more = and_share(tokens, after)
        if more is not None:
            value_, after = value_ + more[0], more[1]
    return Number(value_, value_), after


def number_at(tokens: Sequence[Token], at: int) -> tuple[Number, int] | None:
    """Read a number, or one to another, that begins at a token.

    Returns
    -------
    tuple
        The number and the place after it; None where none begins. An article alone is no number.

    Raises
    ------
    BadInput
        At no field, for a fraction of nothing.
    """
    between = _word(tokens, at) in ("between", "zwischen", "from", "von")
    first = _single(tokens, at + between)
    if first is None:
        return None
    number, after = first
    to = _word(tokens, after)
    if to in _TO or (between and to in _AND):
        second = _single(tokens, after + 1)
        if second is not None and not (to == "-" and not tokens[after].glued and tokens[after + 1].glued):
            ends = sorted((number.low, second[0].low))
            return Number(ends[0], ends[1], max(number.doubt, second[0].doubt)), second[1]
    return (number, after) if not between else None
