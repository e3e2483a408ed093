"""A line's words made plain: fractions, numbers in words, bullets, names that hold numbers."""

import re
from functools import lru_cache

from ravska_core.catalogue import exact_names, folded
from ravska_core.measure import BY_EYE, SIZES

NUMBER_WORDS = {
    "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10,
    "eleven": 11, "twelve": 12, "dozen": 12, "zwei": 2, "drei": 3, "vier": 4, "funf": 5, "sechs": 6, "sieben": 7,
    "acht": 8, "neun": 9, "zehn": 10, "anderthalb": "3/2", "eineinhalb": "3/2",
    "half a": "1/2", "half an": "1/2", "a half": "1/2", "half": "1/2", "ein halber": "1/2", "ein halbes": "1/2",
    "halber": "1/2", "halbe": "1/2", "halben": "1/2", "eine halbe": "1/2", "einen halben": "1/2", "a quarter": "1/4",
    "quarter": "1/4", "three quarters": "3/4", "three quarter": "3/4", "a third": "1/3", "two thirds": "2/3",
    "a couple of": 2, "a couple": 2, "a few": 3, "ein paar": 3, "several": 4,
}  # fmt: skip

VAGUE = {"a couple of": 0.25, "a couple": 0.25, "a few": 0.35, "ein paar": 0.35, "several": 0.4}

BULLET = re.compile(r"^\s*(?:[-*•·▪◦‣–—]\s+|\[[ xX]?\]\s*|☐\s*|\d{1,2}[.)]\s+(?=\D|\d))+")

_FRACTIONS = {"½": "1/2", "⅓": "1/3", "⅔": "2/3", "¼": "1/4", "¾": "3/4", "⅕": "1/5", "⅖": "2/5", "⅗": "3/5",
              "⅘": "4/5", "⅙": "1/6", "⅚": "5/6", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}  # fmt: skip


def plainly(text: str) -> str:
    """Return a line for the grammar: no bullet, ASCII fractions and dashes, number words as numbers, folded."""
    text = BULLET.sub("", text)
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


WORDS_TO_NUMBERS = re.compile(
    r"(?<![\w/])(" + "|".join(sorted(map(re.escape, NUMBER_WORDS), key=len, reverse=True)) + r")(?=\s+(?!and)\w)"
)


def known_names(text: str) -> str:
    """Put names that the catalogue itself writes with a comma or number into one word each."""
    for name, key in _long_names():
        if name in text:
            text = re.sub(rf"(?<![\w]){re.escape(name)}(?![\w])", f"⟦{key}⟧", text)
    return text


@lru_cache(maxsize=1)
def _long_names() -> tuple[tuple[str, str], ...]:
    names = [(name, key) for name, key in exact_names().items() if "," in name or re.search(r"\d", name)]
    return tuple(sorted(names, key=lambda x: -len(x[0])))


BARE_EYE = re.compile(r"^(?=((" + "|".join(SIZES) + r")\s+)*(" + "|".join(sorted(BY_EYE)) + r"|prise|schuss)\b)")
