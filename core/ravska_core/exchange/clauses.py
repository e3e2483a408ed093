"""A line's parts put together: which amount belongs to which name, and what stands instead of it."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction

from ravska_core.catalogue import match
from ravska_core.exchange.items import Amount, added
from ravska_core.exchange.words import Part
from ravska_core.measure import PACKS, Token, measures


@dataclass
class Clause:
    """What stands between two joints of a line: amounts, words, turns of phrase; and the joint before it."""

    joint: str = ""
    said: tuple[Token, ...] = ()
    parts: list[Part] = field(default_factory=list)
    amounts: list[Amount] = field(default_factory=list)
    words: list[Token] = field(default_factory=list)
    extra: list[Token] = field(default_factory=list)
    unread: list[Token] = field(default_factory=list)
    uses: list[str] = field(default_factory=list)
    others: "list[Clause]" = field(default_factory=list)
    key: str = ""
    held: bool = False
    trailing: bool = False
    bracketed: bool = False
    each: bool = False
    equal: bool = False
    taste: bool = False
    same: float = 0.0
    off: float = 0.0
    ratio: tuple[Fraction, ...] = ()
    article: bool = False
    basis: str = ""
    optional: bool = False
    question: str = ""

    @property
    def named(self) -> bool:
        return bool(self.words or self.key)

    @property
    def begins(self) -> int:
        """Where it begins in its line, from 1."""
        return min((part.tokens[0].start for part in self.parts), default=0) + 1

    def text(self) -> str:
        return " ".join(token.raw for token in [*self.words, *self.extra])


_JOINTS = ("comma", "and_", "or_", "slash", "to")


def clauses_of(parts: Sequence[Part]) -> list[Clause]:
    """Cut a line's parts at its joints; brackets are read into the clause they stand in."""
    found = [Clause()]
    for part in parts:
        now = found[-1]
        if part.kind in _JOINTS:
            if now.parts:
                found.append(Clause(part.kind, said=part.tokens))
            elif not now.joint or part.kind in ("and_", "or_"):
                now.joint = part.kind  # ", and"
            continue
        if part.kind == "amount" and now.amounts and now.named:
            found.append(now := Clause(""))
        now.parts.append(part)
        _put(now, part)
    if not found[-1].parts and len(found) > 1:
        last = found.pop()
        if last.joint != "comma":  # "2 tbsp butter or"
            found[-1].unread += last.said
    return found


def _put(now: Clause, part: Part) -> None:
    if part.kind in ("each", "equal", "ratio"):  # "pepper, 1 tsp each" looks back, "each of pepper" ahead
        now.trailing = now.named
    if part.kind == "amount":
        measured = [amount for amount in (*now.amounts, *part.amounts) if amount.kind in ("g", "ml")]
        if len(measured) > len(part.amounts) and now.amounts:  # "2 g 3 ml" may be one or the other
            now.unread += part.tokens
        now.amounts += part.amounts
        now.bracketed = False
    elif part.kind == "word":
        now.words += part.tokens
    elif part.kind in ("blend", "held"):
        now.key, now.held = part.key, part.kind == "held"
    elif part.kind == "bracket":
        _put_bracket(now, part)
    elif part.kind == "ratio":
        now.ratio = part.numbers
    elif part.kind == "same":
        now.same = part.factor
    elif part.kind == "off":
        now.off = part.factor
    elif part.kind == "more":
        now.uses.append(part.key)
    elif part.kind == "divided":
        now.uses.append("the rest of it, divided")
    elif part.kind == "basis":
        now.basis = "spoon" if any(token.text in ("spoon", "volume") for token in part.tokens) else "scale"
    elif part.kind in ("each", "equal", "taste", "article", "optional"):
        setattr(now, part.kind, True)


def _put_bracket(now: Clause, part: Part) -> None:
    """Read what a bracket says of its clause: the amount in another measure, another choice, or more words."""
    for at, inner in enumerate(clauses_of(part.inside)):
        if inner.joint == "or_" and inner.named and at == 0:
            now.others.append(inner)
            continue
        measured = [amount for amount in inner.amounts if amount.kind in ("g", "ml")]
        if inner.amounts and not measured and inner.named:
            now.unread += [token for one in inner.parts for token in one.tokens]  # "(about 3 of them)"
            continue
        now.bracketed = now.bracketed or (not now.amounts and bool(inner.amounts))
        now.amounts += measured or inner.amounts
        now.extra += inner.words
        if inner.joint == "or_":  # "(sweet or hot)" leaves it open
            now.unread += inner.words
        now.extra += inner.extra
        now.unread += inner.unread
        now.uses += inner.uses
        now.others += inner.others
        now.taste |= inner.taste
        now.optional |= inner.optional
        now.off = max(now.off, inner.off)
        now.basis = now.basis or inner.basis


def _knows(tokens: Sequence[Token]) -> bool:
    return match(" ".join(token.raw for token in tokens)).grind is not None


def folded_into(clauses: Sequence[Clause]) -> list[Clause]:
    """Put clauses together to what is one ingredient each: amounts to their names, remarks to what they are of.

    Raises
    ------
    BadInput
        At no field, for amounts that do not add up.
    """
    found: list[Clause] = []
    for clause in clauses:
        last = found[-1] if found else None
        if last is None or not _belongs(last, clause):
            found.append(clause)
    for one in found:
        _one_pack(one)
    return _shared(found)


_OF_A_FRUIT = frozenset({"juice", "zest", "peel", "saft", "abrieb"})


def _belongs(last: Clause, clause: Clause) -> bool:
    """Put a clause into the one before it where it says more of the same; tell whether it did."""
    telling = [token for token in last.words if token.text not in ("the", "of")]
    if clause.joint == "and_" and not last.amounts and telling and all(t.text in _OF_A_FRUIT for t in telling):
        last.amounts = list(clause.amounts)  # "juice and zest of 1 lemon"
        last.words += [token for token in clause.words if token.text not in _OF_A_FRUIT]
        last.article |= clause.article
        return False
    says = clause.each or clause.equal or clause.ratio
    if clause.joint == "or_" and (clause.named or clause.amounts) and last.named:
        last.others.append(clause)
        last.parts += clause.parts
        return True
    if says or clause.same:
        return False
    if not clause.named:
        if clause.amounts and last.amounts:
            if clause.joint == "and_" and last.named:  # "½ cup honey, plus 1 tbsp"
                last.amounts = [added(last.amounts[0], clause.amounts[0]), *last.amounts[1:]]
            elif clause.joint == "slash":
                last.amounts += clause.amounts
            else:
                last.unread += [token for part in clause.parts for token in part.tokens]
        elif clause.amounts and last.same:
            return False
        else:
            last.amounts += clause.amounts
        _carry(last, clause)
        return True
    if clause.amounts and not (clause.bracketed and last.amounts and last.named):
        if last.amounts and not last.named and not last.each and not last.ratio:  # "30 g / 1 oz salt", "2, 3 tbsp salt"
            if clause.joint != "slash":
                clause.unread += [token for part in last.parts for token in part.tokens]
            clause.amounts = [*last.amounts, *clause.amounts]
            last.amounts, last.words, last.extra = clause.amounts, clause.words, clause.extra
            last.key, last.held, last.unread = clause.key, clause.held, [*last.unread, *clause.unread]
            _carry(last, clause)
            return True
        return False
    if not last.named and not last.each and not last.equal and not last.ratio:  # "paprika" after "2 tbsp -"
        last.words, last.extra = clause.words, [*last.extra, *clause.extra]
        last.key, last.held = clause.key, clause.held
        _carry(last, clause)
        return True
    if last.named and not clause.key and _remark(last, clause):
        last.extra += [*clause.words, *clause.extra]
        last.amounts += clause.amounts  # "black pepper, cracked (13 g)"
        _carry(last, clause)
        return True
    return False


def _remark(last: Clause, clause: Clause) -> bool:
    """Tell whether words after a joint are of the name before it: "rosemary, chopped", "salt and vinegar"."""
    whole = [*last.words, *last.extra, *clause.words, *clause.extra]
    alone = _knows([*clause.words, *clause.extra])
    together = _knows(whole)
    if together and (not alone or not _knows([*last.words, *last.extra])):
        return True
    return not alone and clause.joint != "and_" and not (last.each or last.equal or last.ratio)


def _carry(last: Clause, clause: Clause) -> None:
    last.parts += clause.parts
    last.uses += clause.uses
    last.others += clause.others
    if clause.named or not last.unread:
        last.unread += clause.unread
    last.taste |= clause.taste
    last.article |= clause.article
    last.optional |= clause.optional
    last.off = max(last.off, clause.off)
    last.basis = last.basis or clause.basis


def _one_pack(one: Clause) -> None:
    """Read "2 cans (400 g each) tomatoes" and "1 (14 oz) can tomatoes": so many packs of so much."""
    counted = [amount for amount in one.amounts if amount.kind in (*PACKS, "count")]
    weighed = [amount for amount in one.amounts if amount.kind in ("g", "ml")]
    if not weighed:
        return
    first = measures().get(one.words[0].text) if one.words else None
    packed = first is not None and first.kind in PACKS
    if packed:
        one.words = one.words[1:]
    if not counted or (counted[0].kind == "count" and not packed):
        return
    one.each = False
    value = weighed[0].value * counted[0].value
    said = f"{counted[0].said} of {weighed[0].said}"
    one.amounts = [Amount(weighed[0].kind, value, weighed[0].error, said)]


def _shared(found: Sequence[Clause]) -> list[Clause]:
    """Give every name its amount where one amount, equal parts or a ratio is said of several."""
    out: list[Clause] = []
    at = 0
    while at < len(found):
        one = found[at]
        if not (one.each or one.equal or one.ratio):
            out.append(one)
            at += 1
            continue
        at += 1
        if (one.named and not one.trailing) or not out:  # "1 tsp each of salt, pepper": forward
            names = [one] if one.named else []
            while at < len(found) and not found[at].amounts and found[at].named and not found[at].same:
                names.append(found[at])
                at += 1
        else:  # "salt, pepper, 1 tsp each": back
            names = [one] if one.named else []
            while out and not out[-1].amounts and out[-1].named:
                names.insert(0, out.pop())
        out += _each_its_own(one, names)
    return out


def _each_its_own(of: Clause, names: Sequence[Clause]) -> list[Clause]:
    if not names:
        return [of]
    if of.ratio and len(of.ratio) != len(names):
        said = ":".join(str(number) for number in of.ratio)
        said = f"{said} counts {len(of.ratio)} things, and I find {len(names)} here; write a line for each."
        names[0].question = said
        return list(names)
    amounts = list(of.amounts)
    equal, ratio, taste, unread = of.equal, of.ratio, of.taste, list(of.unread)
    for at, name in enumerate(names):
        if ratio:
            name.amounts = [Amount("part", float(ratio[at]), 0.0, str(ratio[at]), of.basis, ratio[at])]
        elif equal and not amounts:
            name.amounts = [Amount("part", 1.0, 0.0, "equal parts", of.basis, Fraction(1))]
        else:
            name.amounts = list(amounts)
        name.taste, name.unread = taste, unread if at == 0 else name.unread
        name.each = name.equal = False
        name.ratio = ()
    return list(names)
