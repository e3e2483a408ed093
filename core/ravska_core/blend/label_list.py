"""A label's list of ingredients, read name by name."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.catalogue import match
from ravska_core.working import BadInput


@dataclass(frozen=True)
class LabelName:
    """An ingredient as a label names it: its grind or what comes closest, a stated share, and whether it is minor."""

    name: str
    grind: str | None
    closest: tuple[str, ...]
    stated: float | None
    minor: bool


_MINOR = re.compile(
    r"(contains? |with )?(less than|no more than|not more than)?\s*2\s*%\s*(or less\b)?\s*(of\b)?\s*(each of\b)?"
    r"\s*(the following\b)?\s*:?\s*",
    re.IGNORECASE,
)

_NO_NAME = re.compile(r"\b(added )?(to|for) prevent caking\b|\badded\b|\bcontains?\b|\bas an?\b", re.IGNORECASE)
"""What labels say beside a name that is no part of it."""

_STATED = re.compile(r"\(?\s*(\d{1,2}(?:[.,]\d+)?)\s*%\s*\)?")

_DEEPEST = 4
"""How many brackets may lie inside each other on a label."""

_UNNAMED = ("spices-unnamed", "flavouring-unnamed")


def _known(name: str) -> bool:
    """Tell whether the catalogue holds a compound by its own name, as it does soy sauce; "spices" are none."""
    grind = match(_STATED.sub(" ", name)).grind if name.strip() else None
    return grind is not None and grind.split("/")[0] not in _UNNAMED


DRIED: Mapping[str, str] = MappingProxyType(
    {
        "garlic-fresh/crushed": "garlic-granulated/powder",
        "onion-fresh/chopped": "onion-granulated/powder",
        "ginger-fresh/grated": "ginger-ground/powder",
        "parsley-fresh/chopped": "parsley-dried/leaf",
        "coriander-fresh/chopped": "coriander-leaf-dried/leaf",
        "mint-fresh/chopped": "mint-dried/leaf",
        "basil-fresh/chopped": "basil/leaf",
        "sage-fresh/chopped": "sage/ground",
        "thyme-fresh/leaf": "thyme/leaf",
        "rosemary-fresh/chopped": "rosemary/leaf",
        "dill-fresh/chopped": "dill-dried/leaf",
        "orange-zest/grated": "orange-peel-dried/granulated",
        "lemon-zest/grated": "lemon-peel-dried/granulated",
        "mustard-prepared/paste": "mustard-powder/powder",
        "tomato-paste/paste": "tomato-powder/powder",
    }
)
"""What the name of something fresh or prepared means in a dry blend."""


def _flat(text: str, level: int = 0) -> list[str]:
    """Split a list at its commas; a compound such as "spices (paprika, cumin)" gives its own ingredients instead."""
    found: list[str] = []
    depth, word, inner = 0, "", ""
    for char in text + ",":
        if char in "([":
            depth += 1
            if depth == 1:
                inner = ""
                continue
        elif char in ")]" and depth:
            depth -= 1
            if not depth:
                if "," in inner and level < _DEEPEST and not _known(word):
                    found += _flat(
                        re.sub(r"^\s*(including|contains?|of)\s+", "", inner, flags=re.IGNORECASE), level + 1
                    )
                    word = ""
                elif "," not in inner:
                    word += f" ({inner})"
                continue
        if depth:
            inner += char
        elif char in ",;":
            if word.strip():
                found.append(word.strip())
            word = ""
        else:
            word += char
    return found


def read_ingredients(text: str) -> list[LabelName]:
    """Read the list of ingredients on a label, heaviest first.

    Raises
    ------
    BadInput
        At ``ingredients`` when there is none, or more than a blend holds.
    """
    plain = re.sub(r"^\s*(ingredients?|zutaten)\s*:\s*", "", text.strip(), flags=re.IGNORECASE).rstrip(". ")
    if len(plain) > 4000:
        raise BadInput("ingredients", "That is too long for a label; write the list of ingredients only.")
    minor = _MINOR.search(plain)
    names: list[LabelName] = []
    halves = [(plain, False)] if minor is None else [(plain[: minor.start()], False), (plain[minor.end() :], True)]
    for half, small in halves:
        for word in _flat(half.replace(".", ",") if not re.search(r"\d\.\d", half) else half):
            stated = _STATED.search(word)
            name = re.sub(r"\s+", " ", _STATED.sub(" ", word)).strip(" .:*()")
            name = re.sub(r"^(and|und|&)\s+", "", name, flags=re.IGNORECASE)
            if not name:
                continue
            found = match(_NO_NAME.sub(" ", re.sub(r"[()]", " ", name)))
            share = float(stated[1].replace(",", ".")) / 100 if stated else None
            names.append(LabelName(name[:80], found.grind, found.closest, share, small))
    if not names:
        raise BadInput("ingredients", "Write the ingredients in the order they stand on the label, with commas.")
    if len(names) > 40:
        raise BadInput(
            "ingredients", "That is more than 40 ingredients; write the first 40, the rest weighs next to nothing."
        )
    return names
