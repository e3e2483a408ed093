"""What people call ingredients: names in a list matched to grinds of the catalogue, English and German.

A name is understood only when every word of it is: what is left over is asked about, with what comes closest.
"""

import difflib
import re
import unicodedata
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache, lru_cache
from importlib import resources

from ravska_core.catalogue.rows import Count
from ravska_core.catalogue.tables import catalogue, read_counts, read_names

_GRIND_WORDS: dict[str, tuple[str, ...]] = {
    **dict.fromkeys(("ground", "powder", "powdered", "gemahlen", "gemahlener", "gemahlene", "pulver"),
                    ("ground", "powder", "fine")),
    **dict.fromkeys(("cracked", "coarse", "coarsely", "crushed", "grob", "grober", "geschrotet", "gestossen", "rough",
                     "roughly"), ("cracked", "coarse", "crushed")),
    **dict.fromkeys(("whole", "seed", "ganz", "ganze", "ganzer", "berry", "peppercorn", "pfefferkorn"), ("whole",)),
    **dict.fromkeys(("flake", "flaked", "flaky", "flocken"), ("flake", "coarse")),
    **dict.fromkeys(("granulated", "granule", "granulat"), ("granulated",)),
    **dict.fromkeys(("grated", "gerieben", "geriebene"), ("grated",)),
    **dict.fromkeys(("chopped", "minced", "gehackt", "gehackte", "diced", "sliced", "mashed"),
                    ("chopped", "crushed", "mashed", "grated")),
    **dict.fromkeys(("leaf", "rubbed", "crumbled", "gerebelt", "gerebelter"), ("leaf", "crumbled")),
    **dict.fromkeys(("blended", "pureed", "puree", "puriert", "purierte"), ("blended", "mashed", "crushed", "grated")),
    "packed": ("packed",),
    "unpacked": ("unpacked",),
    "melted": ("melted",),
}  # fmt: skip

_SAYS_NOTHING = frozenset(
    """a about and of the or to as needed for your my some good quality best organic plain fine finely fresh freshly dry
    dried large medium small big extra more plus less with without optional divided sifted softened peeled pressed
    squeezed toasted room temperature cut into trimmed washed drained packed level heaped loose loosely lightly pure
    natural homemade store bought favourite favorite each frisch frische frischer frisches fein feiner feine getrocknet
    getrocknete getrockneter etwas und von der die das mild milde milder hot sweet light dark yellow red cold warm ripe
    piece stuck strip very if you like use used then taste nach geschmack unsalted salted stem removed grind juiced
    zested zum zur im edelsuss scharf dehydrated prevent caking added contain from""".split()  # noqa: SIM905
)
"""Words beside a name that do not change what it is."""

_CHANGES = frozenset({"hot", "sweet", "light", "dark", "yellow", "red", "salted", "dried", "fresh", "dry", "mild"})
"""Of these, words that are let pass only when no other name holds them."""


@dataclass(frozen=True)
class Named:
    """What a name was understood as: the grind's key, or None with what comes closest; `note` says what was assumed."""

    grind: str | None
    closest: tuple[str, ...]
    note: str = ""


def folded(text: str) -> str:
    """Return text in lower case without accents: ``Gewürz`` as ``gewurz``."""
    plain = unicodedata.normalize("NFKD", text.replace("ß", "ss").replace("’", "'").lower())
    return "".join(char for char in plain if not unicodedata.combining(char))


def _stem(word: str) -> str:
    if word in ("leaves", "leafs"):
        return "leaf"
    if word.endswith("ies") and len(word) > 4:
        return word[:-3] + "y"
    if word.endswith(("ches", "shes", "oes")):
        return word[:-2]
    return word[:-1] if word.endswith("s") and not word.endswith(("ss", "us", "is", "as")) and len(word) > 3 else word


def words_of(text: str) -> tuple[str, ...]:
    """Return the words of a name in their plain form."""
    return tuple(_stem(word) for word in re.findall(r"[a-z][a-z']*[a-z]|[a-z]", folded(text)))


@dataclass(frozen=True)
class _Names:
    """Names to look up: by their words, by how the catalogue itself writes a grind, and counts by grind and unit."""

    by_words: Mapping[tuple[str, ...], str]
    exact: Mapping[str, str]
    counts: Mapping[tuple[str, str], Count]
    spelled: Mapping[str, tuple[str, ...]]


def said_name(key: str) -> str:
    """Return how the catalogue writes a grind: ``black pepper, cracked``."""
    return catalogue().grinds[key].said


@cache
def _names() -> _Names:
    tables = catalogue()
    data = resources.files("ravska_core.catalogue") / "data"
    called = read_names((data / "names.csv").read_text(encoding="utf-8"), tables.ingredients)
    by_words: dict[tuple[str, ...], str] = {}
    spelled: dict[str, tuple[str, ...]] = {}
    for ingredient, names in called.items():
        for name in (*names, tables.ingredients[ingredient].name):
            words = words_of(name)
            by_words.setdefault(words, ingredient)
            spelled.setdefault(folded(name), words)
    exact = {folded(said_name(key)): key for key in tables.grinds}
    counts = read_counts((data / "counts.csv").read_text(encoding="utf-8"), tables.grinds, tables.sources)
    return _Names(by_words, exact, counts, spelled)


def counted(ingredient: str, unit: str) -> Count | None:
    """Return what one piece of an ingredient weighs, where it is counted in that unit."""
    found = [x for (grind, of), x in _names().counts.items() if of == unit and grind.split("/")[0] == ingredient]
    return found[0] if found else None


def exact_names() -> Mapping[str, str]:
    """Return how the catalogue itself writes every grind (folded), and the grind's key."""
    return _names().exact


def _grind_of(ingredient: str, left: frozenset[str], own: frozenset[str] = frozenset()) -> str:
    """Return the grind that words beside a name say, or else the name's own, or the usual one."""
    grinds = {g.name: g.key for g in catalogue().grinds.values() if g.ingredient.key == ingredient}
    for word in (*sorted(left & _GRIND_WORDS.keys()), *sorted(own & _GRIND_WORDS.keys())):
        for name in _GRIND_WORDS[word]:
            if name in grinds:
                return grinds[name]
    usual = ("leaf",) if catalogue().ingredients[ingredient].family == "herb" else ("ground", "powder", "granulated")
    for name in (*usual, "unpacked"):
        if name in grinds and len(grinds) > 1:
            return grinds[name]
    return next(iter(grinds.values()))


_ASSUMED = {
    "salt": "read as fine table salt",
    "pepper": "read as black pepper",
    "sugar": "read as white sugar",
    "oil": "read as a neutral oil",
    "vinegar": "read as distilled white vinegar",
    "kosher salt": "read as dense flake; light flake holds about 44 % less a spoon",
    "chili": "read as cayenne",
    "chilli": "read as cayenne",
}


@lru_cache(maxsize=4096)
def match(text: str) -> Named:
    """Find what a name means.

    Returns
    -------
    Named
        With a grind only when every word was understood; otherwise what comes closest, best first.
    """
    names = _names()
    plain = re.sub(r"\s+", " ", folded(text)).strip(" ,.;:")
    if plain in names.exact:
        return Named(names.exact[plain], ())
    words = frozenset(words_of(text))
    if not words:
        return Named(None, ())
    best: list[tuple[int, int, int, str, tuple[str, ...]]] = []
    for name, ingredient in names.by_words.items():
        if words >= set(name):
            left = words - set(name)
            unknown = left - _SAYS_NOTHING - _GRIND_WORDS.keys()
            changes = len(left & _CHANGES)
            best.append((len(unknown), -len(set(name)), changes, ingredient, name))
    best.sort(key=lambda found: found[:3])
    if best and best[0][0] == 0:
        _, _, _, ingredient, name = best[0]
        note = _ASSUMED.get(" ".join(name), "")
        return Named(_grind_of(ingredient, words - set(name), frozenset(name)), (), note)
    closest = [_grind_of(found[3], words - set(found[4])) for found in best[:3]]
    near = difflib.get_close_matches(plain, names.spelled, n=4, cutoff=0.6)
    near += [
        n for word in sorted(words - _SAYS_NOTHING) for n in difflib.get_close_matches(word, names.spelled, 2, 0.75)
    ]
    closest += [_grind_of(names.by_words[names.spelled[name]], words) for name in near]
    # a cure is never offered for a seasoning: it is found by its own name alone
    closest = [key for key in closest if "cure" not in catalogue().grinds[key].ingredient.flags]
    return Named(None, tuple(dict.fromkeys(closest))[:5])
