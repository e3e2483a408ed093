"""What people call ingredients: names in a list matched to grinds of the catalogue, English and German.

A name is understood only when every word of it is: what is left over is asked about, with what comes closest.
"""

import re
import unicodedata
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from importlib import resources

from rapidfuzz import fuzz, process

from ravska_core.catalogue.remembered import while_it_stands
from ravska_core.catalogue.rows import Count, Pack
from ravska_core.catalogue.tables import catalogue, own_names, read_counts, read_names, read_packs

_GRIND_WORDS: dict[str, tuple[str, ...]] = {
    **dict.fromkeys(("ground", "powder", "powdered", "gemahlen", "gemahlener", "gemahlene", "pulver"),
                    ("ground", "powder", "fine")),
    **dict.fromkeys(("cracked", "coarse", "coarsely", "crushed", "grob", "grober", "geschrotet", "gestossen", "rough",
                     "roughly", "smashed", "bruised"), ("cracked", "coarse", "crushed", "chopped", "mashed")),
    **dict.fromkeys(("whole", "seed", "ganz", "ganze", "ganzer", "berry", "peppercorn", "pfefferkorn"), ("whole",)),
    **dict.fromkeys(("flake", "flaked", "flaky", "flocken"), ("flake", "coarse", "leaf")),
    **dict.fromkeys(("granulated", "granule", "granulat"), ("granulated",)),
    **dict.fromkeys(("grated", "gerieben", "geriebene"), ("grated", "ground", "crushed", "chopped")),
    **dict.fromkeys(("chopped", "minced", "gehackt", "gehackte", "diced", "sliced", "mashed"),
                    ("chopped", "crushed", "mashed", "grated", "leaf")),
    **dict.fromkeys(("leaf", "rubbed", "crumbled", "gerebelt", "gerebelter"), ("leaf", "crumbled", "chopped")),
    **dict.fromkeys(("blended", "pureed", "puree", "puriert", "purierte"), ("blended", "mashed", "crushed", "grated")),
    "packed": ("packed",),
    **dict.fromkeys(("unpacked", "loose", "loosely", "lightly"), ("unpacked",)),
    "melted": ("melted",),
}  # fmt: skip

_SAYS_NOTHING = frozenset(
    """a about and of the or to your my our this that some good quality best nice organic fine finely freshly large
    medium small big divided sifted softened peeled pressed squeezed toasted room temperature cut into trimmed washed
    drained level heaped pure natural homemade home made store bought shop favourite favorite each fein feiner feine
    etwas und von der die das den piece stuck strip very ripe cold warm stem removed juiced zested zum zur im at all
    it is own finest usual from firmly tightly halved quartered weich thick thinly""".split()  # noqa: SIM905
)
"""Words beside a name that do not change what it is."""

_NOTHING_OF = {
    **dict.fromkeys(("dry", "dried", "getrocknet", "getrocknete", "getrockneter"), ("spice", "herb")),
    **dict.fromkeys(("fresh", "frisch", "frische", "frischer", "frisches"), ("fresh", "dairy")),
}
"""Words that change nothing of what is dried, or fresh, anyway: by family."""


@dataclass(frozen=True)
class Named:
    """What a name was understood as: the grind's key, or None with what comes closest; `note` says what was assumed.

    `left` are the words of it that were not used, in their plain form; `other` is a word for a grind that the catalogue
    does not have of this, so that a spoonful of it may weigh something else.
    """

    grind: str | None
    closest: tuple[str, ...]
    note: str = ""
    left: tuple[str, ...] = ()
    other: str = ""


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
    return tuple(_stem(word) for word in re.findall(r"[a-z](?:[a-z0-9']*[a-z0-9])?", folded(text)))


@dataclass(frozen=True)
class _Names:
    """Names to look up: by their words, by how the catalogue itself writes a grind, by one word of them; and counts.

    All words are in their plain form.
    """

    by_words: Mapping[tuple[str, ...], str]
    exact: Mapping[str, str]
    counts: Mapping[tuple[str, str], Count]
    spelled: Mapping[str, tuple[str, ...]]
    holding: Mapping[str, tuple[tuple[str, ...], ...]]
    packs: tuple[Pack, ...]


def said_name(key: str) -> str:
    """Return how the catalogue writes a grind: ``black pepper, cracked``."""
    return catalogue().grinds[key].said


@while_it_stands(None)
def _names() -> _Names:
    tables = catalogue()
    data = resources.files("ravska_core.catalogue") / "data"
    called = read_names((data / "names.csv").read_text(encoding="utf-8"), tables.ingredients)
    by_words: dict[tuple[str, ...], str] = {}
    spelled: dict[str, tuple[str, ...]] = {}
    called = {**dict.fromkeys(tables.ingredients, ()), **called}
    for ingredient, names in called.items():
        for name in (*names, tables.ingredients[ingredient].name):
            words = words_of(name)
            by_words.setdefault(words, ingredient)
            spelled.setdefault(folded(name), words)
    for name, ingredient in own_names():  # what the cook calls it goes before what others do
        if ingredient in tables.ingredients:
            by_words[words_of(name)] = ingredient
            spelled[folded(name)] = words_of(name)
    exact = {" ".join(words_of(said_name(key))): key for key in tables.grinds}
    counts = read_counts((data / "counts.csv").read_text(encoding="utf-8"), tables.grinds, tables.sources)
    holding: dict[str, list[tuple[str, ...]]] = {}
    for known in by_words:
        for word in dict.fromkeys(known):
            holding.setdefault(word, []).append(known)
    packs = read_packs((data / "packs.csv").read_text(encoding="utf-8"), tables.ingredients, tables.sources)
    whole = {word: tuple(of) for word, of in holding.items()}
    return _Names(by_words, exact, counts, spelled, whole, tuple(packs.values()))


def counted(ingredient: str, unit: str) -> Count | None:
    """Return what one piece of an ingredient weighs, where it is counted in that unit."""
    found = [x for (grind, of), x in _names().counts.items() if of == unit and grind.split("/")[0] == ingredient]
    return found[0] if found else None


def usual_packs(grind: str, pack: str) -> tuple[Pack, ...]:
    """Return what a bottle, can or packet of a grind's ingredient usually holds, the most usual first."""
    return tuple(one for one in _names().packs if one.pack == pack and one.ingredient == grind.split("/")[0])


def all_names_of() -> Mapping[str, str]:
    """Return what people call ingredients, folded, each with the ingredient it means."""
    names = _names()
    return {name: names.by_words[words] for name, words in names.spelled.items()}


def all_names() -> tuple[str, ...]:
    """Return every name the catalogue knows: what people call ingredients, and how it writes its grinds itself."""
    return (*_names().spelled, *(row.said for row in catalogue().grinds.values()))


_PLAINEST = frozenset({"ground", "packed", "seed", "leaf", "powder"})
"""Words for a grind that give way to another beside them: "coarsely ground", "loosely packed"."""

_USUAL_OF = {"herb": ("leaf",), "sugar": ("packed",)}
"""The grind that is meant where none is said, by family: herbs are rubbed, brown sugars are packed."""


def _grind_of(ingredient: str, left: frozenset[str], own: frozenset[str] = frozenset()) -> tuple[str, str]:
    """Return the grind that words beside a name say, or else the name's own, or the usual one.

    Beside it stands a word for a grind that the ingredient does not come in, or "".
    """
    grinds = {g.name: g.key for g in catalogue().grinds.values() if g.ingredient.key == ingredient}
    said = next((grinds[word] for word in sorted(left - _GRIND_WORDS.keys()) if word in grinds), "")
    if said:
        return said, ""
    other = ""
    for word in sorted(left & _GRIND_WORDS.keys(), key=lambda word: (word in _PLAINEST, word)):
        found = next((grinds[name] for name in _GRIND_WORDS[word] if name in grinds), "")
        if found:
            return found, ""
        other = word
    for word in sorted(own & _GRIND_WORDS.keys()):
        for name in _GRIND_WORDS[word]:
            if name in grinds:
                return grinds[name], other
    family = catalogue().ingredients[ingredient].family
    usual = (*_USUAL_OF.get(family, ()), "ground", "powder", "granulated", "chopped")
    of_many = next((grinds[name] for name in usual if name in grinds), "") if len(grinds) > 1 else ""
    return of_many or next(iter(grinds.values())), other


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

_NEAR = 78.0
"""How alike two words must be, of 100, for one to be offered for the other."""

_SHORTEST_NEAR = 4
"""Shorter words are like too many others."""

_MOST_CLOSEST = 5


def _nothing(word: str, ingredient: str) -> bool:
    """Tell whether a word beside an ingredient's name changes nothing of what it is."""
    if word in _SAYS_NOTHING or word in _GRIND_WORDS or f"{ingredient}/{word}" in catalogue().grinds:
        return True
    return catalogue().ingredients[ingredient].family in _NOTHING_OF.get(word, ())


@while_it_stands(4096)
def match(text: str) -> Named:
    """Find what a name means.

    Returns
    -------
    Named
        With a grind only when every word was understood; otherwise what comes closest, best first, and the words left.
    """
    names = _names()
    order = words_of(text)
    begins = next((at for at, word in enumerate(order) if word not in ("of", "the", "a", "my", "your")), 0)
    if " ".join(order[begins:]) in names.exact:
        return Named(names.exact[" ".join(order[begins:])], ())
    words = frozenset(order)
    if not words or re.search(r"\b\d", text):
        return Named(None, (), left=order)
    last = {word: at for at, word in enumerate(order)}
    best: list[tuple[int, int, int, str, tuple[str, ...]]] = []
    for name in {one for word in words for one in names.holding.get(word, ())}:
        if words.issuperset(name):
            ingredient = names.by_words[name]
            unknown = sum(not _nothing(word, ingredient) for word in words.difference(name))
            best.append((unknown, -len(set(name)), -last[name[-1]], ingredient, name))
    best.sort()
    if best and best[0][0] == 0:
        *_, ingredient, name = best[0]
        grind, other = _grind_of(ingredient, words - set(name), frozenset(name))
        return Named(grind, (), _ASSUMED.get(" ".join(name), ""), (), other)
    return Named(None, _closest(order, [found[3:] for found in best]), left=_left(order, best))


def _left(order: tuple[str, ...], best: Sequence[tuple[int, int, int, str, tuple[str, ...]]]) -> tuple[str, ...]:
    if not best:
        telling = [word for word in order if word not in _SAYS_NOTHING]
        never_heard = [word for word in telling if word not in _names().holding and word not in _GRIND_WORDS]
        return tuple(never_heard or telling) or order
    *_, ingredient, name = best[0]
    return tuple(word for word in order if word not in name and not _nothing(word, ingredient))


def _closest(order: tuple[str, ...], within: Sequence[tuple[str, tuple[str, ...]]]) -> tuple[str, ...]:
    """Return what comes closest: names that hold all the words, names spelt alike, names that the words hold."""
    names, words = _names(), frozenset(order)
    telling = [word for word in order if word not in _SAYS_NOTHING and word not in _GRIND_WORDS]
    found: list[str] = []
    if telling:
        around = [name for name in names.holding.get(telling[0], ()) if words.issubset(name)]
        found += [_grind_of(names.by_words[name], words)[0] for name in sorted(around, key=len)]
    said = " ".join(order)
    near = process.extract(said, names.spelled.keys(), scorer=fuzz.ratio, limit=3, score_cutoff=_NEAR)
    alike = [names.spelled[name] for name, _, _ in near]
    found += [_grind_of(names.by_words[name], words)[0] for name in alike]
    for word in telling if not near else ():
        if word in names.holding or len(word) < _SHORTEST_NEAR:
            continue
        words_alike = process.extract(word, names.holding.keys(), scorer=fuzz.ratio, limit=2, score_cutoff=_NEAR)
        for like, _, _ in words_alike:
            mended = match(" ".join(like if other == word else other for other in order))
            found += [mended.grind] if mended.grind else []
            alike += sorted(names.holding[like], key=len)[:2]
    found += [_grind_of(ingredient, words - set(name))[0] for ingredient, name in within[:3]]
    found += [_grind_of(names.by_words[name], words)[0] for name in alike]
    # a cure is never offered for a seasoning: it is found by its own name alone
    found = [key for key in found if "cure" not in catalogue().grinds[key].ingredient.flags]
    return tuple(dict.fromkeys(found))[:_MOST_CLOSEST]
