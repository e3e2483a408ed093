"""A line's words taken apart: amounts, ratios, joints, brackets, turns of phrase, and what is left, which are names."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import lru_cache
from types import MappingProxyType

from ravska_core.catalogue import all_names, folded, while_it_stands
from ravska_core.exchange.items import Amount, added, amount_of
from ravska_core.measure import (
    ARTICLES,
    Measure,
    SpoonSet,
    Token,
    measures,
    number_at,
    phrase_at,
    quantity_at,
    tokens_of,
)

SIEVED = "what the sieve holds back of"
"""What a list calls what was strained off one of the cook's own blends, before its name in quotation marks."""

BULLET = re.compile(r"^\s*(?:[-*•·▪◦‣–—]\s+|\[[ xX]?\]\s*|☐\s*|\d{1,2}[.)]\s+(?=\D|\d))+")

_DEEPEST = 2
"""How many brackets may lie inside each other."""

_OPENS, _CLOSES = '“"«„', '”"»“'


def _phrases(**kinds: str) -> Mapping[str, str]:
    return MappingProxyType({phrase.strip(): kind for kind, all_ in kinds.items() for phrase in all_.split("|")})


_TURNS = _phrases(
    each="of each|each of|each|ea|apiece|je|jeweils|of each of",
    equal="""equal parts of|equal parts|in equal parts|equal amounts of|equal amounts|in equal amounts
        |equal quantities of|equal quantities|equal measures of|equal measures|gleiche teile|zu gleichen teilen
        |the same amount of each""",
    taste="to taste|as needed|as required|nach geschmack|to your taste|to your liking|q s",
    same="""the same again of|the same again|same again of|same again|the same amount of|the same amount
        |same amount of|same amount|the same quantity of|same quantity of|the same of|as much again of|as much again
        |as much of|as much|that much of|that much|just as much of|just as much|about as much|ditto|ebenso viel
        |about that much""",
    divided="divided|split in two|in two parts|in two halves|geteilt|aufgeteilt",
    optional="optional|if you like|if desired|if you want|wahlweise|if you have it",
    more="""plus more|plus extra|and more|and extra|plus a little more|plus a bit more|plus some more|plus some
        |with more|with extra|more|extra""",
    basis="by the spoon|by spoon|by the scale|by scale|by weight|by volume|by the weight|nach gewicht",
    separately="""you need|you will need|you'll need|i use|i take|i add|we use|add|add in|take|use|get|grab|put in
        |stir in|mix in|throw in|toss in|whisk in|then|and then|next|first|now|also|so|well|ok|plus about""",
)  # fmt: skip

_LEADING = frozenset(phrase for phrase, kind in _TURNS.items() if kind == "separately")
_TIMES_AS = MappingProxyType(
    {"half": Fraction(1, 2), "twice": Fraction(2), "double": Fraction(2), "thrice": Fraction(3)}
)
_JOINTS = _phrases(comma=",|;|:|.", and_="and|&|und|+|plus|with|mit", or_="or|oder", slash="/", to="to|zu|auf")


@dataclass
class Part:
    """A part of a line: its kind, and the tokens it is made of; `amounts` and `numbers` of amounts and ratios.

    `inside` are the parts of a bracket, `key` the name of a blend of the cook's own.
    """

    kind: str
    tokens: tuple[Token, ...]
    amounts: list[Amount] = field(default_factory=list)
    numbers: tuple[Fraction, ...] = ()
    inside: "list[Part]" = field(default_factory=list)
    key: str = ""
    factor: float = 1.0

    @property
    def text(self) -> str:
        return " ".join(token.raw for token in self.tokens)


@lru_cache(maxsize=4)
def _measures_of(owned: SpoonSet) -> tuple[Mapping[str, Measure], frozenset[str]]:
    """Return the measures by folded name, and those that may begin an amount by themselves."""
    known = {folded(name): measure for name, measure in measures(owned).items()}
    bare = frozenset(name for name, one in known.items() if one.eyed and name not in ("little", "bit", "lot"))
    return MappingProxyType(known), bare


_LONGEST_NAME = 12


@while_it_stands(1)
def _awkward_names() -> Mapping[str, tuple[tuple[str, ...], ...]]:
    """Return the catalogue's names that would be taken for an amount or for two, by their first word, longest first."""
    found: dict[str, list[tuple[str, ...]]] = {}
    for name in all_names():
        tokens = tokens_of(name)
        inside = any(_JOINTS.get(token.text, "comma") != "comma" for token in tokens)
        if inside or any(number_at(tokens, at) for at in range(len(tokens))):
            words = tuple(token.text for token in tokens)
            found.setdefault(words[0], []).append(words)
    return MappingProxyType({word: tuple(sorted(names, key=len, reverse=True)) for word, names in found.items()})


class Scan:
    """Takes a line apart, left to right; every token ends up in one part."""

    def __init__(self, source: str, owned: SpoonSet, blends: Mapping[str, str]) -> None:
        self.source, self.blends, self.depth = source, blends, 0
        self.measures, self.bare = _measures_of(owned)
        bullet = BULLET.match(source)
        begins = bullet.end() if bullet else 0
        self.tokens = tuple(token for token in tokens_of(source) if token.start >= begins)

    def parts(self) -> list[Part]:
        return self._parts(0, len(self.tokens))

    def _said(self, begins: int, ends: int) -> str:
        return self.source[self.tokens[begins].start : self.tokens[ends - 1].end]

    def _parts(self, at: int, end: int) -> list[Part]:
        found: list[Part] = []
        fresh = True  # nothing but joints since the last clause ended
        while at < end:
            part, after = self._next(at, end, fresh)
            fresh = part.kind in ("comma", "and_", "or_", "slash", "to", "separately", "each", "equal")
            found.append(part)
            at = after
        return found

    def _next(self, at: int, end: int, fresh: bool) -> tuple[Part, int]:
        token = self.tokens[at]
        found = (
            self._own(at, end) or self._known_name(at, end) or self._bracket(at, end) or self._more(at, end)
            or self._turn(at, end, fresh) or self._off(at, end) or self._ratio(at, end)
            or self._amount(at, end, fresh)
        )  # fmt: skip
        if found is not None:
            return found
        if token.text == "-" or token.text in _JOINTS:
            kind = "comma" if token.text == "-" else _JOINTS[token.text]
            return Part(kind, self.tokens[at : at + 1]), at + 1
        if token.text in ARTICLES:
            return Part("article", self.tokens[at : at + 1]), at + 1
        return Part("word", self.tokens[at : at + 1]), at + 1

    def _own(self, at: int, end: int) -> tuple[Part, int] | None:
        """Read a blend of the cook's own, its name in quotation marks, or what its sieve held back."""
        begins = at
        phrase = SIEVED.split()
        held = [token.text for token in self.tokens[at : at + len(phrase)]] == phrase
        at += len(phrase) if held else 0
        if at >= end or self.tokens[at].raw not in _OPENS:
            return None
        closed = next((n for n in range(at + 1, min(end, at + 60)) if self.tokens[n].raw in _CLOSES), None)
        if closed is None or closed == at + 1:
            return None
        name = self.source[self.tokens[at].end : self.tokens[closed].start]
        key = self.blends.get(folded(name).strip())
        if not key:
            return None
        part = Part("held" if held else "blend", self.tokens[begins : closed + 1], key=key)
        return part, closed + 1

    def _known_name(self, at: int, end: int) -> tuple[Part, int] | None:
        """Read a name of the catalogue that holds a number or a joint: "five spice", "salt, 6.25 % nitrite"."""
        words = [token.text for token in self.tokens[at : min(end, at + _LONGEST_NAME)]]
        for name in _awkward_names().get(words[0], ()):
            if tuple(words[: len(name)]) == name:
                return Part("word", self.tokens[at : at + len(name)]), at + len(name)
        return None

    def _bracket(self, at: int, end: int) -> tuple[Part, int] | None:
        if self.tokens[at].text in (")", "]"):  # one that was never opened
            return Part("comma", self.tokens[at : at + 1]), at + 1
        if self.tokens[at].text not in ("(", "["):
            return None
        if self.depth == _DEEPEST:  # a bracket of a bracket says nothing more
            return Part("comma", self.tokens[at : at + 1]), at + 1
        closed = next((n for n in range(at + 1, end) if self.tokens[n].text in (")", "]")), end)
        self.depth += 1
        inside = self._parts(at + 1, closed)
        self.depth -= 1
        return Part("bracket", self.tokens[at : closed + 1], inside=inside), min(end, closed + 1)

    def _more(self, at: int, end: int) -> tuple[Part, int] | None:
        """Read "plus more for the board", to the end of its clause."""
        found = phrase_at(self.tokens[:end], at, _TURNS)
        if found is None or _TURNS[found[0]] != "more":
            return None
        after = found[1]
        if after >= end or self.tokens[after].text not in ("for", "to", "fur", "zum"):
            return None
        if phrase_at(self.tokens[:end], after, {"to taste": ""}):  # "or more to taste"
            return Part("taste", self.tokens[at : after + 2]), after + 2
        stop = next((n for n in range(after, end) if self.tokens[n].text in (",", ";", "(", ")")), end)
        return Part("more", self.tokens[at:stop], key=self._said(after, stop)), stop

    def _turn(self, at: int, end: int, fresh: bool) -> tuple[Part, int] | None:
        found = phrase_at(self.tokens[:end], at, _TURNS)
        if found is None or _TURNS[found[0]] == "more":
            return self._as_much(at, end)
        kind = _TURNS[found[0]]
        if kind == "separately" and not (fresh and found[1] < end):
            return None
        return Part(kind, self.tokens[at : found[1]]), found[1]

    def _as_much(self, at: int, end: int) -> tuple[Part, int] | None:
        """Read "half as much", "a third as much", "twice that"."""
        word = self.tokens[at].text
        factor: Fraction | None = _TIMES_AS.get(word)
        after = at + 1
        if factor is None:
            number = number_at(self.tokens[:end], at)
            if number is None or number[0].low != number[0].high:
                return None
            factor, after = number[0].low, number[1]
        after += after < end and self.tokens[after].text in ("times", "mal")
        turn = phrase_at(self.tokens[:end], after, _TURNS)
        if turn is not None and _TURNS[turn[0]] == "same":
            return Part("same", self.tokens[at : turn[1]], factor=float(factor)), turn[1]
        return None

    def _off(self, at: int, end: int) -> tuple[Part, int] | None:
        """Read ``±20 %``."""
        words = [token.text for token in self.tokens[at : min(end, at + 3)]]
        skip = 1 if words[:1] == ["±"] else 3 if words == ["+", "/", "-"] else 0
        if not skip or at + skip + 1 >= end:
            return None
        value = self.tokens[at + skip].value
        if value is None or self.tokens[at + skip + 1].text != "%":
            return None
        return Part("off", self.tokens[at : at + skip + 2], factor=float(value) / 100), at + skip + 2

    def _ratio(self, at: int, end: int) -> tuple[Part, int] | None:
        """Read ``4:2:1``, ``70/30``, ``50/50``."""
        numbers = [self.tokens[at].value]
        after = at + 1
        sign = self.tokens[after].text if after < end else ""
        if numbers[0] is None or sign not in (":", "/"):
            return None
        while after + 1 < end and self.tokens[after].text == sign and self.tokens[after + 1].value is not None:
            numbers.append(self.tokens[after + 1].value)
            after += 2
        values = tuple(value for value in numbers if value is not None)
        if len(values) < 2 or 0 in values:
            return None
        # 70/30 is a ratio where no measure follows
        measured = after < end and self.tokens[after].text in self.measures
        if sign == "/" and (sum(values) != 100 or measured):
            return None
        return Part("ratio", self.tokens[at:after], numbers=values), after

    def _amount(self, at: int, end: int, fresh: bool) -> tuple[Part, int] | None:
        """Read an amount with all that is added to it; or amounts that a slash puts side by side."""
        tokens = self.tokens[:end]
        found = quantity_at(tokens, at, self.measures, self.bare)
        if found is None:
            return None
        said, after = found
        # an amount without a number begins a clause, else it is part of a name: "lemon juice, a squeeze"
        if not said.counted and not fresh and self.tokens[at].text not in ARTICLES:
            return None
        amount = amount_of(said, self._said(at, after))
        while (more := self._added(after, end, amount)) is not None:
            amount, after = more
        amounts = [amount]
        while after + 1 < end and self.tokens[after].text == "/":
            other = quantity_at(tokens, after + 1, self.measures)
            if other is None or other[0].unit is None:
                break
            amounts.append(amount_of(other[0], self._said(after + 1, other[1])))
            after = other[1]
        return Part("amount", self.tokens[at:after], amounts), after

    def _added(self, at: int, end: int, before: Amount) -> tuple[Amount, int] | None:
        """Add what follows an amount at once: ``1 lb 4 oz``, ``1 cup + 2 tbsp``, ``a cup and 2 tbsp``."""
        if at >= end or before.kind not in ("g", "ml"):
            return None
        joined = self.tokens[at].text in ("+", "plus", "and", "&", "und")
        found = quantity_at(self.tokens[:end], at + joined, self.measures)
        if found is None or found[0].unit is None or found[0].unit.kind != before.kind:
            return None
        if not joined and not found[0].counted:
            return None
        amount = amount_of(found[0], self._said(at + joined, found[1]))
        said = f"{before.said} {self._said(at, found[1])}"
        return replace(added(before, amount), said=said), found[1]


def scanned(source: str, owned: SpoonSet, blends: Mapping[str, str]) -> list[Part]:
    """Take a line apart.

    Raises
    ------
    BadInput
        At no field, for amounts that cannot be.
    """
    return Scan(source, owned, blends).parts()
