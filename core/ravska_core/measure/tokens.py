"""A line as words, numbers and signs, each with its place, so that none is lost on the way."""

import re
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from ravska_core.catalogue import folded

_TOKEN = re.compile(
    r"(?P<number>\d+[.,]\d+|\.\d+|\d+)"
    r"|(?P<vulgar>[\u00bc-\u00be\u2150-\u215e\u2189]|\u215f\d+)"
    r"|(?P<word>[^\W\d_](?:[^\W\d_]|[\u0300-\u036f]|['’](?=[^\W\d_]))*)"
    r"|(?P<sign>\S)"
)


@dataclass(frozen=True, slots=True)
class Token:
    """A word, number or sign: folded, as it stands, its place from `start` to `end`, its value where it is a number.

    `glued` says that nothing stands between it and what is before it.
    """

    text: str
    raw: str
    start: int
    end: int
    value: Fraction | None
    glued: bool


def _number(text: str) -> Fraction:
    whole, _, part = text.replace(",", ".").partition(".")
    found = Fraction(int(whole or 0))
    return found + Fraction(int(part), 10 ** len(part)) if part else found


def _vulgar(sign: str) -> Fraction | None:
    expanded = unicodedata.normalize("NFKC", sign)  # "⅟2" becomes "1⁄2" as "½" does
    top, slash, bottom = expanded.partition("\u2044")
    return Fraction(int(top), int(bottom)) if slash and top.isdecimal() and bottom.isdecimal() else None


def tokens_of(text: str) -> tuple[Token, ...]:
    """Return a text's words, numbers and signs in order; a hyphen between letters only parts two words."""
    found: list[Token] = []
    for match in _TOKEN.finditer(text):
        raw, start, end = match[0], match.start(), match.end()
        glued = bool(found) and found[-1].end == start
        if match["number"]:
            found.append(Token(raw, raw, start, end, _number(raw), glued))
        elif match["word"]:
            found.append(Token(folded(raw), raw, start, end, None, glued))
        else:
            value = _vulgar(raw)
            sign = "/" if raw == "\u2044" else "-" if raw in "–—‒−‐‑" else "x" if raw == "×" else raw
            found.append(Token(sign, raw, start, end, value, glued))
    return tuple(token for at, token in enumerate(found) if not _hyphen(found, at))


def _hyphen(found: Sequence[Token], at: int) -> bool:
    if found[at].text != "-" or found[at].raw == "—" or not 0 < at < len(found) - 1:
        return False
    before, after = found[at - 1], found[at + 1]
    return found[at].glued and after.glued and before.raw[-1].isalpha() and after.raw[0].isalpha()
