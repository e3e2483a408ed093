"""What someone looks for while typing: names of the catalogue and of the cook's own, best first, with an amount."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from rapidfuzz import fuzz, process

from ravska_core.catalogue import all_names_of, catalogue, folded, match, while_it_stands, words_of
from ravska_core.exchange.items import Amount
from ravska_core.exchange.lists import read_list
from ravska_core.measure import SpoonSet

RANKS = ("whole", "begins", "inside", "near")
"""How a name holds what was typed: as whole words, as beginnings of words, inside words; or it is spelt alike."""

SURE = ("whole", "begins")
"""What may be taken without looking."""

_NEAR = 75.0
"""How alike two names must be, of 100, for one to be offered for the other."""


@dataclass(frozen=True)
class Found:
    """A thing that may be meant: a grind by key or a blend of the cook's own, how its name holds what was typed."""

    grind: str
    blend: str
    name: str
    rank: str


@dataclass(frozen=True)
class Sought:
    """What was looked for: things, best first, by which name, and an amount where one was typed with that."""

    found: tuple[Found, ...]
    name: str = ""
    amount: Amount | None = None


def rank_of(words: Sequence[str], typed: Sequence[str]) -> str:
    """Return how a name's words hold all that was typed, the worst of them counting; "" where they do not."""
    worst = -1
    for word in typed:
        if word in words:
            place = 0
        elif any(other.startswith(word) for other in words):
            place = 1
        elif len(word) > 1 and any(word in other for other in words):
            place = 2
        else:
            return ""
        worst = max(worst, place)
    return RANKS[worst] if worst >= 0 else ""


@while_it_stands(None)
def _names() -> tuple[tuple[str, tuple[str, ...], str, bool], ...]:
    """Return every name with its plain words, the grind it means, and whether that is a cure."""
    found = []
    for name, ingredient in all_names_of().items():
        grind = match(name).grind
        if grind is not None and grind.split("/")[0] == ingredient:
            found.append((name, words_of(name), grind, "cure" in catalogue().grinds[grind].ingredient.flags))
    for key, grind_row in catalogue().grinds.items():
        words = words_of(f"{grind_row.said} {grind_row.ingredient.family}")
        found.append((folded(grind_row.said), words, key, "cure" in grind_row.ingredient.flags))
    return tuple(found)


def find(text: str, owned: SpoonSet, blends: Mapping[str, str], most: int = 12) -> Sought:
    """Find what is meant by words typed into a box, best first: whole words, then beginnings, then insides.

    Parameters
    ----------
    text : str
        Such as ``apple``, ``2 tbsp salt``, ``papirka``.
    blends : mapping
        The cook's own blends by folded name, with their keys.
    """
    text = text.strip()[:120]
    name, amount = _apart(text, owned, blends)
    typed = words_of(name)
    if not typed:
        return Sought((), name, amount)
    cure = re.search(r"cur|nitri", folded(name)) is not None
    exact = match(name).grind
    ranked: list[tuple[int, int, int, Found]] = []
    for own, key in blends.items():
        rank = rank_of(words_of(own), typed)
        if rank:
            ranked.append((RANKS.index(rank), len(own), 0, Found("", key, own, rank)))
    for at, (said, words, grind, cures) in enumerate(_names()):
        rank = rank_of(words, typed)
        if rank and (cure or not cures):  # a cure is found by its own name alone
            ranked.append((RANKS.index(rank), len(said), at, Found(grind, "", catalogue().grinds[grind].said, rank)))
    if exact is not None and (cure or "cure" not in catalogue().grinds[exact].ingredient.flags):
        ranked.append((-1, 0, 0, Found(exact, "", catalogue().grinds[exact].said, "whole")))
    ranked.sort(key=lambda one: one[:3])
    found: dict[tuple[str, str], Found] = {}
    for *_, one in ranked:
        found.setdefault((one.grind, one.blend), one)
    if not found:
        found = {(one.grind, one.blend): one for one in _alike(name)}
    return Sought(tuple(found.values())[:most], name, amount)


def _apart(text: str, owned: SpoonSet, blends: Mapping[str, str]) -> tuple[str, Amount | None]:
    """Part an amount from the name typed with it."""
    if not re.search(r"\d|[½¼¾⅓⅔⅛⅜]|\s", text):
        return text, None
    lines = read_list(text.replace("\n", " "), owned, blends) if text else ()
    items = [item for line in lines for item in line.items]
    if len(items) != 1 or items[0].amount is None or not items[0].name:
        return text, None
    (item,) = items
    return item.name, item.amount


def _alike(name: str) -> list[Found]:
    names = {said: grind for said, _, grind, cures in _names() if not cures}
    near = process.extract(folded(name), names.keys(), scorer=fuzz.ratio, limit=5, score_cutoff=_NEAR)
    closest = [*match(name).closest, *(names[said] for said, _, _ in near)]
    return [Found(key, "", catalogue().grinds[key].said, "near") for key in dict.fromkeys(closest)]
