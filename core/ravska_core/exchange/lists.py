"""Lists of ingredients, read line by line; what is not understood is asked about, and no word is passed over."""

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import lru_cache

from ravska_core.catalogue import Named, catalogue, counted, folded, match, said_name, usual_packs, words_of
from ravska_core.exchange.clauses import Clause, clauses_of, folded_into
from ravska_core.exchange.items import MEASURED, Amount, Item, ListLine, again
from ravska_core.exchange.taking import weighed
from ravska_core.exchange.words import BULLET, scanned
from ravska_core.measure import PACKS, SPOON_SETS, SpoonSet, Token
from ravska_core.working import BadInput

LONGEST_TEXT = 20_000

MOST_LIST_LINES = 200

_LONGEST_LINE = 400

_GROWN = ("sprig", "bunch", "leaf", "head", "clove", "stick")
"""Units of what grows: of a sprig of rosemary the fresh one is meant."""


_BEFORE_A_NAME = frozenset({"of", "the", "my", "our", "your", "this", "that", "a", "some"})


def _asks(number: int, source: str, question: str, column: int = 1) -> ListLine:
    text = source.strip()
    begins = len(source) - len(source.lstrip())
    unread = ((begins + column - 1, begins + len(text)),)
    item = Item(number, 1, text[:_LONGEST_LINE], "what", text[:80], question=question, unread=unread)
    return ListLine(number, source, "what", (item,))


def _no_ingredient(source: str) -> str:
    """Return "heading" or "remark" for a line that is one, else nothing."""
    bare = BULLET.sub("", source.strip()).strip()
    if not bare or re.fullmatch(r"[-=_*#~\s|:]+", bare):
        return "remark"
    heading = re.fullmatch(r"#{1,6}\s+.*|\*\*.*\*\*:?|(for|fur|für|zum|the) [^\d]*:|[^\d,]*:", bare, re.IGNORECASE)
    return "heading" if heading else ""


def _read_line(number: int, source: str, owned: SpoonSet, blends: Mapping[str, str], before: Amount | None) -> ListLine:
    kind = _no_ingredient(source)
    if kind:
        return ListLine(number, source, kind)
    if len(source.strip()) > _LONGEST_LINE:
        return _asks(
            number, source, f"This line is longer than {_LONGEST_LINE} characters; write one ingredient a line."
        )
    if re.search(r"(?<!\d)\d{1,3},\d{3}(?!\d)", source):
        return _asks(number, source, "A number here can be read two ways; write it without the comma, as 1500 or 1.5.")
    try:
        clauses = folded_into(clauses_of(scanned(source, owned, blends)))
    except BadInput as refusal:
        return _asks(number, source, refusal.sentence)
    items: list[Item] = []
    for clause in clauses:
        item = _item(clause, number, blends, before)
        if item is not None:
            items.append(item)
            before = item.amount or before
    if not items:
        return _asks(number, source, "I find no ingredient in this line; choose one, or leave it out.")
    worst = next((s for s in ("what", "how much") if any(item.status == s for item in items)), "understood")
    return ListLine(number, source, worst, tuple(items))


class _Named:
    """What the words of a clause name: a grind or one of the cook's own blends, or what comes closest."""

    def __init__(self, words: Sequence[Token], blends: Mapping[str, str], unit: str = "") -> None:
        self.shown = " ".join(token.raw for token in words)
        self.grind = self.blend = self.note = self.other = ""
        self.closest: tuple[str, ...] = ()
        self.unread: list[Token] = []
        own = _own_blend(words, blends)
        if own:
            self.blend = own
            return
        found = match(self.shown)
        if unit in _GROWN:
            found = _grown(self.shown, unit) or found
        elif unit == "handful" and found.grind is not None and not re.search(r"dr(y|ied)|getrocknet", self.shown):
            fresh = match(f"fresh {_undried(found.grind)}")
            if fresh.grind is not None and "fresh_herb" in catalogue().grinds[fresh.grind].ingredient.flags:
                found = replace(fresh, note="a handful is read as fresh")
        self.grind, self.closest, self.note = found.grind or "", found.closest, found.note
        self.other = found.other
        if not self.grind:
            self.unread = [token for token in words if set(words_of(token.text)) & set(found.left)]


def _undried(grind: str) -> str:
    """Return what grows, of a grind of it that is dried: "thyme" of ``thyme/leaf``."""
    return grind.split("/")[0].removesuffix("-dried").removesuffix("-seed").removesuffix("-fresh")


def _grown(name: str, unit: str) -> Named | None:
    """Return the fresh one of a name, where it is counted in that unit: of "a sprig of rosemary"."""
    plain = match(name)
    dried = _undried(plain.grind or "")
    for said in (f"{name} {unit}", f"fresh {name}", f"fresh {dried}" if dried else ""):
        found = match(said) if said else plain
        if found.grind and counted(found.grind.split("/")[0], unit):
            return found
    return None


def _own_blend(words: Sequence[Token], blends: Mapping[str, str]) -> str:
    """Return one of the cook's own blends that the words name, with or without an article."""
    said = [token.text for token in words]
    while said:
        if " ".join(said) in _plain_names(tuple(sorted(blends.items()))):
            return _plain_names(tuple(sorted(blends.items())))[" ".join(said)]
        if said[0] not in _BEFORE_A_NAME:
            return ""
        said = said[1:]
    return ""


@lru_cache(maxsize=16)
def _plain_names(blends: tuple[tuple[str, str], ...]) -> Mapping[str, str]:
    """Return the names of blends as a line's words are written: folded, without hyphens and signs between them."""
    return {" ".join(re.findall(r"[^\W_]+(?:'[^\W_]+)*", folded(name))): key for name, key in blends}


def _spans(tokens: Sequence[Token]) -> tuple[tuple[int, int], ...]:
    return tuple(sorted({(token.start, token.end) for token in tokens}))


def _usable(amounts: Sequence[Amount]) -> Amount | None:
    """Return the amount to go by where one is said in two measures: a weight before a volume before a count."""
    order = ("g", "ml", "percent", "part")
    return min(amounts, key=lambda a: order.index(a.kind) if a.kind in order else len(order), default=None)


def _item(one: Clause, number: int, blends: Mapping[str, str], before: Amount | None) -> Item | None:
    amount = _usable(one.amounts)
    if not one.named:
        if not one.amounts and not one.same:
            return None
        one, amount = _thing_itself(one, amount)
    named = _Named([*one.words, *one.extra], blends, _unit_of(amount))
    if not named.grind and one.others and one.words and one.others[0].words:  # "chicken or beef stock"
        shared = _Named([*one.words, one.others[0].words[-1]], blends)
        named = shared if shared.grind else named
    if one.key:
        named.grind, named.blend, named.closest = "", one.key, ()
        named.unread = [token for token in (*one.words, *one.extra) if token.text not in _BEFORE_A_NAME]
        named.shown = _own_name(one, blends)
    if one.article and amount is None:
        amount = Amount("count", 1.0, 0.0, "one")
    if one.same and amount is None and before is not None:
        amount = again(before, one.same, "same again")
    if amount is not None and one.off:
        amount = replace(amount, error=min(0.9, one.off))
    if amount is not None and one.basis:
        amount = replace(amount, basis=one.basis)
    item = Item(
        number, one.begins, " ".join(token.raw for part in one.parts for token in part.tokens), "understood",
        named.shown.strip(" ,.;:"), named.grind, named.blend, named.closest, amount,
        "; ".join(filter(None, (named.note, "optional" if one.optional else ""))), held=one.held,
        unread=_spans([*one.unread, *named.unread]), uses=tuple(one.uses),
    )  # fmt: skip
    return _questioned(item, one, named, blends)


def _unit_of(amount: Amount | None) -> str:
    """Return what tells whether something fresh is meant: what it is counted in, or a handful."""
    if amount is None:
        return ""
    return "handful" if re.search(r"hand(ful|voll)|fistful", amount.said, re.IGNORECASE) else amount.kind


def _own_name(one: Clause, blends: Mapping[str, str]) -> str:
    found = next(name for name, known in blends.items() if known == one.key)
    return f"sieved out of {found}" if one.held else found


def _thing_itself(one: Clause, amount: Amount | None) -> tuple[Clause, Amount | None]:
    """Read "6 cloves" and "2 bay leaves": the measure is the thing."""
    last = next((part.tokens[-1] for part in one.parts if part.kind == "amount"), None)
    if last is None or amount is None or amount.kind in MEASURED or match(last.raw).grind is None:
        return one, amount
    one.words = [last]
    return one, replace(amount, kind="count")


ASKS_HOW_MUCH = "How much of it? Write an amount such as 2 tsp or 10 g, or leave it out."


def _questioned(item: Item, one: Clause, named: _Named, blends: Mapping[str, str]) -> Item:
    """Return an item with what must be asked of it, or with its amount made ready."""
    if not item.grind and not item.blend:
        return replace(item, status="what", question=_question_what(item.name, item.closest, one))
    if one.others:
        return _one_or_other(item, one, blends)
    if one.question:
        return replace(item, status="what", closest=_offered(item), question=one.question)
    if item.unread:
        words = "Some words here I do not understand; they are marked. Is it this, or something else?"
        return replace(item, status="what", closest=_offered(item), grind="", question=words)
    if item.amount is None:
        taste = "“To taste” is no amount yet; write how much, or leave it out and add it after tasting."
        return replace(item, status="how much", question=taste if one.taste else ASKS_HOW_MUCH)
    if item.amount.kind in PACKS or (item.amount.kind, item.grind) == ("stick", "butter/melted"):
        return by_the_pack(item, item.amount)
    if item.amount.kind not in MEASURED:
        amount, note = weighed(item.amount, item.grind, item.note)
        if amount is None:
            how = "How much is one of these? Write it as a weight or in spoons."
            return replace(item, status="how much", question=how)
        return replace(item, amount=amount, note=note)
    if named.other and item.amount.kind in ("ml", "part") and item.amount.basis != "scale":
        had = said_name(item.grind)
        said = (
            f"“{named.other}” is a grind I do not know of this; a spoonful of {had} may weigh something else. Take it?"
        )
        return replace(item, status="what", closest=_offered(item), grind="", question=said)
    return item


def _offered(item: Item) -> tuple[str, ...]:
    return tuple(dict.fromkeys(filter(None, (item.grind, *item.closest))))


def _question_what(name: str, closest: Sequence[str], one: Clause) -> str:
    if one.question:
        return one.question
    if not name:
        return "An amount of what? Choose what it is, or leave it out."
    if closest:
        return f"I do not know “{name}” for sure; choose what it is, or leave it out."
    return f"I do not know “{name}”; choose what comes closest, or leave it out."


def _one_or_other(item: Item, one: Clause, blends: Mapping[str, str]) -> Item:
    """Ask which of two that a line names is meant; the other is kept to swap for it."""
    others = [_Named([*other.words, *other.extra], blends) for other in one.others]
    known = [other.grind for other in others if other.grind]
    if len(known) == len(others) and set(known) == {item.grind} and not item.unread:
        return item if item.amount else replace(item, status="how much", question=ASKS_HOW_MUCH)
    offered = tuple(dict.fromkeys([item.grind, *known, *(key for other in others for key in other.closest)]))
    said = " or ".join(said_name(key) for key in (item.grind, *known)) if known else "what the line names"
    return replace(
        item, status="what", grind="", closest=tuple(filter(None, offered))[:5], swap=known[0] if known else "",
        question=f"Which is it: {said}? The other stays as what can be taken instead.",
    )  # fmt: skip


def by_the_pack(item: Item, amount: Amount) -> Item:
    """Ask how much is in a bottle, can, packet or stick, with its usual sizes."""
    usual = usual_packs(item.grind, amount.kind)
    if not usual:
        return replace(item, status="how much", question=f"How much is in a {amount.kind}? Write a weight or a volume.")
    first = usual[0]
    held = replace(amount, kind=first.kind, value=amount.value * first.amount, error=math.hypot(amount.error, 0.1))
    sizes = tuple(f"{one.amount * amount.value:g} {one.kind}" for one in usual)
    holds = " or ".join(f"{one.amount:g} {one.kind}" for one in usual)
    said = f"How much is in it? A {amount.kind} usually holds {holds}."
    return replace(item, status="how much", amount=held, usual=sizes, question=said)


def read_list(
    text: str, owned: SpoonSet = SPOON_SETS["us"], blends: Mapping[str, str] | None = None
) -> tuple[ListLine, ...]:
    """Read a list of ingredients as people write it, line by line.

    Parameters
    ----------
    text : str
        The list; one ingredient a line or several, headings and remarks between them.
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
        At ``amount`` when it is none, or when any word of it is something else.
    """
    said = text.strip()
    if len(said) <= _LONGEST_LINE:
        try:
            found = _only_amount(said, owned, before) or _only_amount(f"a {said}", owned, before)
        except BadInput as refusal:
            raise BadInput("amount", refusal.sentence) from None
        if found is not None:
            return replace(found, said=said)
    raise BadInput("amount", f"“{said}” is no amount I can read; write for example 2 tsp, 10 g or 1 handful.")


def _only_amount(text: str, owned: SpoonSet, before: Amount | None) -> Amount | None:
    if re.search(r"(?<!\d)\d{1,3},\d{3}(?!\d)", text):
        return None
    clauses = folded_into(clauses_of(scanned(text, owned, {})))
    if len(clauses) != 1:
        return None
    (one,) = clauses
    if one.named or one.unread or one.others or one.taste or one.each or one.equal or one.ratio or one.uses:
        return None
    if one.same and before is not None and not one.amounts:
        return again(before, one.same, "same again")
    amount = _usable(one.amounts)
    if amount is not None and one.off:
        amount = replace(amount, error=min(0.9, one.off))
    return amount
