"""A packet's text, as it is pasted or typed off: what its nutrition panel says, in US and in EU style."""

import re
from dataclasses import dataclass
from types import MappingProxyType

LONGEST_PANEL = 4000

_AMOUNT = r"\s*[:.]?\s*(?:<|less than|under)?\s*(?P<number>\d+(?:[.,]\d+)?)\s*(?P<unit>mg|g|gr|grams?)\b"

_NAMES = MappingProxyType(
    {
        "sodium": r"sodium|natrium",
        "salt": r"salt(?: equivalent)?|salz",
        "sugars": r"(?:total |of which )?sugars?|davon zucker|zucker",
        "fat": r"total fat|fat|fett",
        "carbohydrate": r"total carb(?:ohydrate)?s?\.?|carbohydrates?|carbs|kohlenhydrate",
        "protein": r"proteins?|eiwei(?:ß|ss)",
    }
)
"""What a panel calls what it names."""

_PORTION = re.compile(
    r"(?:serving size|portion(?:sgr(?:ö|oe)(?:ß|ss)e)?|per (?:serving|portion)(?: of)?|serving|je portion)\s*[:(]?\s*"
    r"(?P<said>[^\n;|]{0,40}?\d[^\n;|]{0,30}?(?:g|ml|oz)\b\)?)",
    re.IGNORECASE,
)

_HUNDRED = re.compile(r"(?:per|pro|je|in)\s*100\s*g\b|(?:average |nutritional )?values? per 100\s*g\b", re.IGNORECASE)

_LIST = re.compile(
    r"(?:ingredients|zutaten)\s*:\s*(?P<list>.+?)(?:\n\s*\n|\.\s*$|\.\s*\n|$)", re.IGNORECASE | re.DOTALL
)


@dataclass(frozen=True)
class Panel:
    """What a packet's text says, each as a field would hold it, "" for what it does not; `rule` is us or eu."""

    portion: str
    rule: str
    sodium: str
    salt: str
    sugars: str
    fat: str
    carbohydrate: str
    protein: str
    ingredients: str


def read_panel(text: str) -> Panel:
    """Read a packet's text; what is not found stays empty.

    Of a panel with a column for 100 g and one for a portion the first amount of a line counts, and so does what stands
    at the head of it first.
    """
    text = text[:LONGEST_PANEL]
    found = {}
    for name, words in _NAMES.items():
        # "of which sugars" and "total fat" begin a line or follow a joint; "fat free" is no amount
        match = re.search(rf"(?:^|[\n,;|•*]|\s{{2,}}|\b)(?:{words}){_AMOUNT}", text, re.IGNORECASE)
        found[name] = f"{match['number'].replace(',', '.')} {match['unit'][:2].strip('r')}" if match else ""
    hundred, portion = _HUNDRED.search(text), _PORTION.search(text)
    said = ""
    if hundred and (portion is None or hundred.start() <= portion.start()):
        said = "100 g"
    elif portion:
        said = portion["said"].strip(" :(")
        said = said if "(" in said else said.rstrip(")")
    listed = _LIST.search(text)
    rule = "eu" if hundred or (found["salt"] and not found["sodium"]) else "us"
    return Panel(said, rule, ingredients=re.sub(r"\s+", " ", listed["list"]).strip() if listed else "", **found)
