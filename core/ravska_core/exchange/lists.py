"""Lists of ingredients, read line by line; what is not understood is asked about."""

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

import lark

from ravska_core.blend import HIGHEST_ERROR
from ravska_core.catalogue import folded, match
from ravska_core.exchange.items import SAME_AGAIN_ERROR, Amount, Item, ListLine, Reader, long_name, parser_of
from ravska_core.exchange.taking import weighed
from ravska_core.exchange.words import BARE_EYE, BULLET, NUMBER_WORDS, VAGUE, WORDS_TO_NUMBERS, known_names, plainly
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.working import BadInput

LONGEST_TEXT = 20_000

MOST_LIST_LINES = 200

_LONGEST_LINE = 400


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


def _pieces(reader: Reader, tree: Any) -> list[_Open]:
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

    text = source.strip()
    if not text:
        return ListLine(number, source, "remark")
    bare = BULLET.sub("", text).strip()
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
    vague = max((error for words, error in VAGUE.items() if re.search(rf"(?<!\w){words}(?!\w)", plain)), default=0.0)
    plain = WORDS_TO_NUMBERS.sub(lambda m: str(NUMBER_WORDS[m[1]]), known_names(plain))
    plain = BARE_EYE.sub("1 ", plain)
    if plain.count("(") != plain.count(")") or re.search(r"\([^)]*\(", plain) or re.match(r"[^(]*\)", plain):
        plain = re.sub(r"[()]", " , ", plain)
    reader = Reader(number, source, plain, owned, before)
    reader.vague = vague
    try:
        tree = parser_of(owned).parse(plain)
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


def _items_of(one: _Open, number: int, text: str, reader: Reader, blends: Mapping[str, str]) -> list[Item]:
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
        shown = re.sub(r"⟦([^⟧]+)⟧", lambda m: long_name(m[1], blends), name).strip(" ,.;:")
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
