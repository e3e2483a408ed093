"""Ingredient lists as people write them, read line by line by a grammar.

The grammar knows amounts: numbers, fractions, ranges, sums, measures, sizes, brackets. What is no amount is a name, a
remark or a preparation. Nothing is dropped: a line is understood, asked about, or said to be a heading.
"""

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import lru_cache
from typing import Any

from ravska_core.blends import HIGHEST_ERROR, MOST_LINES, SCALE_ERROR, SPOON_ERROR, Line, parts_of
from ravska_core.catalogue import catalogue
from ravska_core.measures import BY_EYE, SIZES, Measure, measures
from ravska_core.naming import counted, exact_names, folded, match
from ravska_core.quantities import HIGHEST_PARTS, LOWEST_PARTS
from ravska_core.spoons import SPOON_SETS, SpoonSet
from ravska_core.working import BadInput

LONGEST_TEXT = 20_000
MOST_LIST_LINES = 200
_LONGEST_LINE = 400

STATUSES = ("understood", "what", "how much", "heading", "remark")
"""A line is understood, asked what it is or how much, or is a heading or a remark and no ingredient."""

SAME_AGAIN_ERROR = 0.25
"""How far "same again" by eye may be off (common practice, no source)."""

_NUMBER_WORDS = {
    "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10,
    "eleven": 11, "twelve": 12, "dozen": 12, "zwei": 2, "drei": 3, "vier": 4, "funf": 5, "sechs": 6, "sieben": 7,
    "acht": 8, "neun": 9, "zehn": 10, "anderthalb": "3/2", "eineinhalb": "3/2",
    "half a": "1/2", "half an": "1/2", "a half": "1/2", "half": "1/2", "ein halber": "1/2", "ein halbes": "1/2",
    "halber": "1/2", "halbe": "1/2", "halben": "1/2", "eine halbe": "1/2", "einen halben": "1/2", "a quarter": "1/4",
    "quarter": "1/4", "three quarters": "3/4", "three quarter": "3/4", "a third": "1/3", "two thirds": "2/3",
    "a couple of": 2, "a couple": 2, "a few": 3, "ein paar": 3, "several": 4,
}  # fmt: skip
_VAGUE = {"a couple of": 0.25, "a couple": 0.25, "a few": 0.35, "ein paar": 0.35, "several": 0.4}

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
def _parser(owned: SpoonSet) -> Any:
    import lark

    units = sorted({folded(name) for name in measures(owned)}, key=len, reverse=True)
    grammar = _GRAMMAR.replace("%UNITS%", "|".join(re.escape(unit).replace("/", r"\/") for unit in units))
    grammar = grammar.replace("%SIZES%", "|".join(sorted(SIZES, key=len, reverse=True)))
    return lark.Lark(grammar, parser="lalr", start="line", propagate_positions=True, maybe_placeholders=False)


@lru_cache(maxsize=4)
def _units(owned: SpoonSet) -> dict[str, Measure]:
    return {folded(name): measure for name, measure in measures(owned).items()}


_BULLET = re.compile(r"^\s*(?:[-*•·▪◦‣–—]\s+|\[[ xX]?\]\s*|☐\s*|\d{1,2}[.)]\s+(?=\D|\d))+")
_FRACTIONS = {"½": "1/2", "⅓": "1/3", "⅔": "2/3", "¼": "1/4", "¾": "3/4", "⅕": "1/5", "⅖": "2/5", "⅗": "3/5",
              "⅘": "4/5", "⅙": "1/6", "⅚": "5/6", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}  # fmt: skip


def plainly(text: str) -> str:
    """Return a line for the grammar: no bullet, ASCII fractions and dashes, number words as numbers, folded."""
    text = _BULLET.sub("", text)
    for sign, ascii_ in _FRACTIONS.items():
        text = text.replace(sign, f" {ascii_} ")
    text = text.replace("\u2044", "/").replace("\u00a0", " ")
    text = re.sub(r"(?<=\d)\s*[–—‒−]\s*(?=\d)", "-", text)
    text = re.sub(r"[–—‒−]", " - ", text)
    text = re.sub(r"(?<=\d)\s*T(?=\.?\s)", " tbsp", text)
    text = re.sub(r"(?<=\d)\s*t(?=\.?\s)", " tsp", text)
    text = re.sub(r"(\d+)\s*/\s*(\d+)", r"\1/\2", folded(text))
    text = re.sub(r"(\d)\s*x\s*(?=\d)", r"\1 x ", text)
    return re.sub(r"\s+", " ", text).strip()


_WORDS_TO_NUMBERS = re.compile(
    r"(?<![\w/])(" + "|".join(sorted(map(re.escape, _NUMBER_WORDS), key=len, reverse=True)) + r")(?=\s+(?!and)\w)"
)


def _known_names(text: str) -> str:
    """Put names that the catalogue itself writes with a comma or number into one word each."""
    for name, key in _long_names():
        if name in text:
            text = re.sub(rf"(?<![\w]){re.escape(name)}(?![\w])", f"⟦{key}⟧", text)
    return text


@lru_cache(maxsize=1)
def _long_names() -> tuple[tuple[str, str], ...]:
    names = [(name, key) for name, key in exact_names().items() if "," in name or re.search(r"\d", name)]
    return tuple(sorted(names, key=lambda x: -len(x[0])))


def _value(text: str) -> Fraction:
    whole, _, rest = text.strip().replace(",", ".").partition(" ")
    if rest:
        return Fraction(whole) + Fraction(rest)
    return Fraction(whole)


_BARE_EYE = re.compile(r"^(?=((" + "|".join(SIZES) + r")\s+)*(" + "|".join(sorted(BY_EYE)) + r"|prise|schuss)\b)")


class _Reader:
    """Reads one line's tree into items, left to right."""

    def __init__(self, number: int, source: str, plain: str, owned: SpoonSet, before: Amount | None) -> None:
        self.number, self.source, self.plain, self.units = number, source, plain, _units(owned)
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


def _question_what(name: str, closest: Sequence[str]) -> str:
    if closest:
        return f"I do not know “{name}” for sure; choose what it is, or leave it out."
    return f"I do not know “{name}”; choose what comes closest, or leave it out."


def _priority(amount: Amount) -> int:
    return {"g": 0, "ml": 1, "percent": 2, "part": 3}.get(amount.kind, 4)


@dataclass
class _Open:
    """An item while its line is read."""

    column: int
    amounts: list[Amount] = field(default_factory=list)
    words: list[str] = field(default_factory=list)
    prep: list[str] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    taste: bool = False
    each: bool = False
    equal: bool = False
    same: bool = False
    comma: bool = False
    straight: bool = False
    off: float = 0.0


def _pieces(reader: _Reader, tree: Any) -> list[_Open]:
    found = [_Open(1)]
    for piece in tree.children:
        now = found[-1]
        straight, now.straight = now.straight, False
        at = piece.meta.start_pos + 1 if hasattr(piece, "meta") and not piece.meta.empty else 1
        if piece.data == "amount":
            if now.amounts and now.words and now.comma:
                found.append(now := _Open(at))
            weight = reader.amount(piece)
            if straight and now.amounts[-1].kind == weight.kind and weight.kind in ("g", "ml"):
                weight = reader.add(now.amounts.pop(), weight)  # "1 lb 4 oz"
            now.amounts.append(weight)
            now.straight = True
            continue
        elif piece.data == "bracket":
            inner = _pieces(reader, piece)[0] if piece.children else _Open(at)
            if inner.amounts and (inner.amounts[0].kind in ("g", "ml") or not inner.words):
                now.amounts += inner.amounts
            else:
                now.prep += inner.words + inner.prep
            now.taste |= inner.taste
            now.off = max(now.off, inner.off)
        elif piece.data in ("word", "stray", "of", "and"):
            text = str(piece.children[0])
            if piece.data == "of" and not now.words:
                continue
            if piece.data == "stray" and piece.children[0].type == "ANDNUM":
                found.append(_Open(at))
                continue
            (now.prep if now.comma and now.words else now.words).append(text)
        elif piece.data == "comma":
            now.comma = now.comma or bool(now.words or now.amounts)
            if now.words and not now.prep:
                now.prep.append(",")
        elif piece.data == "off":
            now.off = float(re.findall(r"[\d.]+", str(piece.children[0]))[0]) / 100
        else:
            setattr(now, piece.data, True)
    return found


_JOINED = re.compile(r"\s+(?:and|&|und|\+)\s+|\s*,\s*(?:and\s+|und\s+)?|\s*/\s*")


def _names_in(opened: _Open) -> list[str]:
    """Return the names of an item; several where one amount is for each of them."""
    words = " ".join(opened.words)
    rest = [word for word in opened.prep if word != ","]
    if opened.each or opened.equal:
        whole = " ".join([words, *opened.prep]).replace(" ,", ",")
        return [name for name in _JOINED.split(whole) if name.strip(" ,")]
    if re.search(r"\s(and|&|und|\+)\s", words) and match(words).grind is None:
        names = [name for name in _JOINED.split(words) if name]
        if all(match(name).grind for name in names):
            return names
    both = [words, " ".join(rest)]
    return [", ".join(filter(None, both))] if words or rest else []


SIEVED = "what the sieve holds back of"
"""What a list calls what was strained off one of the cook's own blends, before its name in quotation marks."""

_QUOTED = re.compile(rf"({SIEVED}\s+)?[“\"«„]([^”\"»“]{{1,80}})[”\"»“]", re.IGNORECASE)


def _own_names(text: str, blends: Mapping[str, str]) -> str:
    """Put quoted names of the cook's own blends into one word each, whatever numbers and commas they hold."""

    def word(found: re.Match[str]) -> str:
        key = blends.get(folded(found[2]).strip())
        return f" ⟦{'sieve' if found[1] else 'blend'}:{key}⟧ " if key else found[0]

    return _QUOTED.sub(word, text) if blends else text


def _named(name: str, blends: Mapping[str, str]) -> tuple[str, str, tuple[str, ...], str]:
    """Return the grind, the blend, what comes closest and a note for a name."""
    said = folded(name).strip(' “”"«»„')
    if said in blends:
        return "", blends[said], (), ""
    keyed = re.fullmatch(r"⟦([^⟧]+)⟧\s*,?\s*(.*)", name)
    if keyed and keyed[1].startswith(("blend:", "sieve:")):
        return "", keyed[1].partition(":")[2], (), ""
    if keyed and not match(keyed[2]).closest:
        return keyed[1], "", (), ""
    found = match(re.sub(r"[⟦⟧]", " ", name.replace("/", " / ")))
    if found.grind is None and "," in name:  # what stands after the comma may be a remark
        head, _, tail = name.partition(",")
        first = match(head)
        if first.grind is not None and not _could_be(tail):
            return first.grind, "", (), f"“{tail.strip()}” is taken as a remark"
    return found.grind or "", "", found.closest, found.note


def _could_be(tail: str) -> bool:
    """Return whether words after a comma name something of their own."""
    return match(tail).grind is not None


def _read_line(number: int, source: str, owned: SpoonSet, blends: Mapping[str, str], before: Amount | None) -> ListLine:
    import lark

    text = source.strip()
    if not text:
        return ListLine(number, source, "remark")
    bare = _BULLET.sub("", text).strip()
    if not bare or re.fullmatch(r"[-=_*#~\s|:]+", bare):
        return ListLine(number, source, "remark")
    heading = re.fullmatch(r"#{1,6}\s+.*|\*\*.*\*\*:?|(for|fur|für|zum|the) [^\d]*:|[^\d,]*:", bare, re.IGNORECASE)
    if heading:
        return ListLine(number, source, "heading")
    if len(text) > _LONGEST_LINE:
        return _asks(
            number, source, f"This line is longer than {_LONGEST_LINE} characters; write one ingredient a line."
        )
    if re.search(r"(?<!\d)\d{1,3},\d{3}(?!\d)", bare):
        return _asks(number, source, "A number here can be read two ways; write it without the comma, as 1500 or 1.5.")
    if re.search(r"\d\s*/\s*0+(?!\d)", bare):
        return _asks(number, source, "Nothing can be divided by 0; write the fraction again.")
    plain = plainly(_own_names(bare, blends))
    vague = max((error for words, error in _VAGUE.items() if re.search(rf"(?<!\w){words}(?!\w)", plain)), default=0.0)
    plain = _WORDS_TO_NUMBERS.sub(lambda m: str(_NUMBER_WORDS[m[1]]), _known_names(plain))
    plain = _BARE_EYE.sub("1 ", plain)
    if plain.count("(") != plain.count(")") or re.search(r"\([^)]*\(", plain) or re.match(r"[^(]*\)", plain):
        plain = re.sub(r"[()]", " , ", plain)
    reader = _Reader(number, source, plain, owned, before)
    reader.vague = vague
    try:
        tree = _parser(owned).parse(plain)
        opened = _pieces(reader, tree)
    except lark.exceptions.UnexpectedInput as fault:
        column = getattr(fault, "column", 1) or 1
        return _asks(number, source, f"I cannot read this from column {column} on; write it as amount, measure, name.")
    except lark.exceptions.VisitError as fault:  # pragma: no cover - lark wraps what a visitor raises
        return _asks(number, source, str(fault.orig_exc))
    except BadInput as refusal:
        return _asks(number, source, refusal.sentence)
    items: list[Item] = []
    for one in opened:
        items += _items_of(one, number, bare, reader, blends)
    if not items:
        return _asks(number, source, "I find no ingredient in this line; choose one, or leave it out.")
    worst = next((s for s in ("what", "how much") if any(item.status == s for item in items)), "understood")
    return ListLine(number, source, worst, tuple(items))


def _asks(number: int, source: str, question: str) -> ListLine:
    item = Item(number, 1, source.strip()[:_LONGEST_LINE], "what", source.strip()[:80], question=question)
    return ListLine(number, source, "what", (item,))


def _items_of(one: _Open, number: int, text: str, reader: _Reader, blends: Mapping[str, str]) -> list[Item]:
    amounts = sorted(one.amounts, key=_priority)
    names = _names_in(one)
    if not names and one.amounts:
        # "6 cloves": the measure is the thing itself
        last = one.amounts[0].said.split(" ")[-1]
        if match(last).grind and one.amounts[0].kind not in ("ml", "g", "part", "percent"):
            names = [last]
            amounts = [replace(one.amounts[0], kind="count")]
    items = []
    for name in names:
        shown = re.sub(r"⟦([^⟧]+)⟧", lambda m: _long_name(m[1], blends), name).strip(" ,.;:")
        grind, blend, closest, note = _named(name, blends)
        amount = amounts[0] if amounts else None
        if one.equal and amount is None:
            amount = Amount("part", 1.0, 0.0, "equal parts")
        if one.same and amount is None and reader.before is not None:
            before = reader.before
            amount = replace(
                before, error=min(HIGHEST_ERROR, math.hypot(before.error, SAME_AGAIN_ERROR)), said="same again"
            )
        if amount is not None and one.off:
            amount = replace(amount, error=min(HIGHEST_ERROR, one.off))
        status, question = "understood", ""
        if not grind and not blend:
            status, question = "what", _question_what(shown, closest)
        elif amount is None:
            status = "how much"
            question = (
                "“To taste” is no amount yet; write how much, or leave it out and add it after tasting."
                if one.taste
                else "How much of it? Write an amount such as 2 tsp or 10 g, or leave it out."
            )
        elif amount.kind not in ("ml", "g", "part", "percent"):
            amount, note = weighed(amount, grind, note)
            if amount is None:
                status = "how much"
                question = "How much is one of these? Write it as a weight or in spoons."
        held = bool(blend) and "⟦sieve:" in name
        items.append(Item(number, one.column, text, status, shown, grind, blend, closest, amount, note, question, held))
    return items


def _long_name(key: str, blends: Mapping[str, str]) -> str:
    if key.startswith(("blend:", "sieve:")):
        found = next(name for name, known in blends.items() if known == key.partition(":")[2])
        return found if key.startswith("blend:") else f"sieved out of {found}"
    return next((name for name, known in exact_names().items() if known == key), key)


def weighed(amount: Amount, grind: str, note: str) -> tuple[Amount | None, str]:
    """Return a count as grams by what one piece weighs."""
    ingredient = grind.split("/")[0]
    units = ("piece", "clove", "leaf", "stick") if amount.kind == "count" else (amount.kind, "piece")
    for unit in units:
        one = counted(ingredient, unit)
        if one is not None:
            error = math.hypot(amount.error, (one.high - one.low) / 2 / one.grams)
            said = f"one weighs about {one.grams:g} g, {one.low:g} to {one.high:g}"
            weighed = Amount("g", amount.value * one.grams, min(HIGHEST_ERROR, error), amount.said, "scale")
            return weighed, f"{note}; {said}" if note else said
    return None, note


def read_list(
    text: str, owned: SpoonSet = SPOON_SETS["us"], blends: Mapping[str, str] | None = None
) -> tuple[ListLine, ...]:
    """Read a list of ingredients as people write it, line by line.

    Parameters
    ----------
    text : str
        The list; one ingredient a line, headings and remarks between them.
    owned : SpoonSet
        What a cup and a spoon without further word hold.
    blends : mapping
        The cook's own blends by folded name, so that a list may hold them.

    Raises
    ------
    BadInput
        At ``text`` for a text too long, with too many lines, or of characters that are none.
    """
    if len(text) > LONGEST_TEXT:
        raise BadInput(
            "text", f"That is too long for a list; paste at most {LONGEST_TEXT:,} characters.".replace(",", " ")
        )
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    for at, line in enumerate(lines, 1):
        fault = re.search("[\ud800-\udfff\x00-\x08\x0b-\x1f\ufffd]", line)
        if fault:
            raise BadInput(
                "text", f"Line {at}, column {fault.start() + 1}: this character cannot be read; save the text as UTF-8."
            )
    if len(lines) > MOST_LIST_LINES:
        raise BadInput("text", f"That is {len(lines)} lines; paste at most {MOST_LIST_LINES}.")
    found: list[ListLine] = []
    before: Amount | None = None
    for at, line in enumerate(lines, 1):
        if line.strip():
            read = _read_line(at, line, owned, blends or {}, before)
            found.append(read)
            before = next((item.amount for item in reversed(read.items) if item.amount), before)
    return tuple(found)


def read_amount(text: str, owned: SpoonSet = SPOON_SETS["us"], before: Amount | None = None) -> Amount:
    """Read an amount by itself: ``2 tsp``, ``10 g``, ``small handful``, ``same again``.

    Raises
    ------
    BadInput
        When it is none.
    """
    plain = text.strip()
    if re.fullmatch(r"[a-z ]+", folded(plain)) and not re.match(r"(a|an|the|half|same|ein)\b", folded(plain)):
        plain = f"a {plain}"
    line = _read_line(1, f"{plain} salt", owned, {}, before)
    amounts = [item.amount for item in line.items if item.status == "understood"]
    if len(amounts) != 1 or amounts[0] is None:
        raise BadInput(
            "amount", f"“{text.strip()}” is no amount I can read; write for example 2 tsp, 10 g or 1 handful."
        )
    return replace(amounts[0], said=text.strip())


def by_eye(amount: Amount) -> bool:
    """Return whether an amount was taken by eye: a handful, a pinch, a range, "about"."""
    usual = {"ml": SPOON_ERROR, "g": SCALE_ERROR}.get(amount.kind, 0.0)
    return amount.error > usual + 1e-9 or any(word in amount.said for word in BY_EYE)


@dataclass(frozen=True)
class Taken:
    """Lines for a blend out of a list: how they are written, the batch they make [g], what was said of each."""

    lines: tuple[Line, ...]
    said: tuple[str, ...]
    written: str
    batch_g: float


def take(items: Sequence[tuple[Item, Line | None]]) -> Taken:
    """Make the lines of a blend from the understood items of a list.

    Parts stay parts. Spoons and weights keep their basis: where all are spoons, a part is a teaspoon; as soon as one is
    weighed, a part is 1 g on the scale and 1 ml by spoon.

    Parameters
    ----------
    items : sequence
        Every item with the line for a blend of the cook's own, where it names one.

    Raises
    ------
    BadInput
        At ``items.N`` for one without an amount, for parts among weights, and for an empty list.
    """
    if not items:
        raise BadInput("items", "Nothing in this list is an ingredient yet; choose what its lines are.")
    if len(items) > MOST_LINES:
        raise BadInput("items", f"A blend holds at most {MOST_LINES} lines; leave some out or make two blends.")
    kinds = {item.amount.kind for item, _ in items if item.amount is not None}
    for at, (item, _) in enumerate(items):
        if item.amount is None:
            raise BadInput(f"items.{at}.amount", "How much of it? Write an amount, or leave it out.")
        if "part" in kinds and len(kinds) > 1 and item.amount.kind == "part":
            raise BadInput(f"items.{at}.amount", "Parts among spoons and weights: write how much a part is here.")
        if "percent" in kinds and len(kinds) > 1:
            raise BadInput(
                f"items.{at}.amount", "Percent and other amounts do not go together; write one or the other."
            )
    weighed = "g" in kinds
    unit_ml = 1.0 if weighed else 5.0
    amounts = [item.amount for item, _ in items if item.amount is not None]
    if not weighed and "ml" in kinds:
        unit_ml = _spoon_of(amounts)
    lines = []
    for at, ((item, own), amount) in enumerate(zip(items, amounts, strict=True)):
        basis = "spoon" if amount.kind == "ml" else "scale"
        value = amount.value / (unit_ml if amount.kind == "ml" else 1.0)
        if amount.kind == "part":
            basis = amount.basis or "spoon"
        parts = amount.exact or Fraction(value).limit_denominator(10_000)
        if not LOWEST_PARTS <= parts <= HIGHEST_PARTS:
            raise BadInput(f"items.{at}.amount", "That is too little or too much for one line; check the measure.")
        error = round(amount.error, 3) if by_eye(amount) else 0.0
        blend = own.blend if own else None
        lines.append(Line(item.grind, parts, basis, "", blend, error, blend is not None and item.held))
    written = "percent" if kinds == {"percent"} else "parts"
    batch = 100.0
    if kinds <= {"g", "ml"}:
        batch = sum(
            a.value * (1.0 if a.kind == "g" else _density(item, own))
            for (item, own), a in zip(items, amounts, strict=True)
        )
    return Taken(tuple(lines), tuple(a.said for a in amounts), written, round(batch, 1))


def _density(item: Item, own: Line | None) -> float:
    if own is not None:
        return parts_of([own])[0].density_g_ml
    return catalogue().grinds[item.grind].density_g_ml


def _spoon_of(amounts: Sequence[Amount]) -> float:
    """Return the teaspoon [ml] that makes the rounder numbers: the US one or the metric one."""
    us, metric = SPOON_SETS["us"].spoons, SPOON_SETS["metric"].spoons
    sizes = [next(s.volume_ml for s in spoons if s.name == "tsp" and s.fraction == 1) for spoons in (us, metric)]

    def odd(size: float) -> int:
        return sum(abs(a.value / size * 8 - round(a.value / size * 8)) > 1e-6 for a in amounts)

    return min(sizes, key=odd)
