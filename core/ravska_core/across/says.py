"""A verdict across cooks in sentences, for one, two and many."""

from collections.abc import Sequence
from types import MappingProxyType

from ravska_core.across.ahead import MOST_MORE, More
from ravska_core.across.rule import CLEAN_CARDS, CLEAN_COOKS, Chances, Counted, PairVotes
from ravska_core.units import say_duration
from ravska_core.working import say

GRAINS = 20

MARGINS = MappingProxyType({
    0.25: "a quarter of a point", 0.5: "half a point", 0.75: "three quarters of a point", 1.0: "a point",
    1.5: "one and a half points",
})  # fmt: skip
"""Differences that can be chosen as what matters [points], in words."""

_WORDS = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")


def number(count: int) -> str:
    """Return a small number in words."""
    return _WORDS[count] if count < len(_WORDS) else str(count)


def say_counted(count: int, what: str) -> str:
    """Return how many of something there are."""
    return f"{count} {what}{'' if count == 1 else 's'}"


def upper(words: str) -> str:
    """Return words that begin a sentence."""
    return words[:1].upper() + words[1:]


def listed(words: Sequence[str]) -> str:
    """Return words as they are read out."""
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


def margin_words(margin: float) -> str:
    """Return the difference that matters as it is read."""
    return MARGINS.get(margin, f"{say(margin, 2)} points")


def grains_of(chance: float) -> int:
    """Return of how many grains a chance is."""
    return round(chance * GRAINS)


def headline(state: str, names: tuple[str, str]) -> str:
    """Return a verdict in a few words."""
    if state in ("first", "second"):
        return f"{upper(names[state == 'second'])} is better"
    return "No difference that matters" if state == "no matter" else "Not yet known"


def headline_within(state: str, line: str, names: tuple[str, str]) -> str:
    """Return a headline as it goes on after a colon; names keep their letters."""
    return f"{names[state == 'second']} is better" if state in ("first", "second") else line[:1].lower() + line[1:]


def say_depends(names: tuple[str, str], first: int, second: int) -> str:
    """Say that one side is better on some cuts and the other on others."""
    on = f"{number(first)} {'cut' if first == 1 else 'cuts'}"
    return f"{upper(names[0])} is better on {on}, {names[1]} on {number(second)}."


def say_belief(state: str, names: tuple[str, str], chances: Chances, margin: float) -> str:
    """Say how many grains of twenty say what."""
    sides = {"first": chances.first, "second": chances.second, "no matter": chances.neither}
    told = state if state in sides else max(sides, key=sides.__getitem__)
    of = f"{grains_of(sides[told])} of {GRAINS} grains"
    if told == "no matter":
        return f"{of} lie within {margin_words(margin)}, which is too little to matter."
    return f"{of} say {names[told == 'second']}, by {margin_words(margin)} or more."


def say_size(mean: float, low: float, high: float, names: tuple[str, str]) -> str:
    """Say by how much the one ahead is better, and between what it may lie."""
    side = names[mean > 0]
    ahead, lowest, highest = (mean, low, high) if mean > 0 else (-mean, -high, -low)
    less = f"{_points(lowest)} and {_points(highest)}"
    return f"About {ahead:.1f} points of nine for {side}; 95 times in 100 between {less}."


def _points(points: float) -> str:
    return f"{points:.1f}".replace("-", "−")


def say_short(found: Counted) -> str:
    """Say what is missing before anything can be named; empty where nothing is."""
    if found.is_enough():
        return ""
    if found.cooks and not found.clean_cooks:
        return "No cook of it differs in nothing else, so nothing is named, however clear it looks."
    needs = f"Nothing is named before {number(CLEAN_COOKS)} clean cooks and {number(CLEAN_CARDS)} clean cards"
    return f"{needs}; here {'is' if found.clean_cooks == 1 else 'are'} {say_counted(found.clean_cooks, 'cook')} with " \
           f"{say_counted(found.clean_cards, 'card')}."  # fmt: skip


def say_more(more: More) -> str:
    """Say how many further cooks would as likely as not settle it."""
    if more.cooks is None:
        return f"More cooks are unlikely to settle it: even {number(MOST_MORE)} would, {in_ten(more.chance)}."
    verb = "would as likely as not settle it"
    return f"About {number(more.cooks)} more {'cook' if more.cooks == 1 else 'cooks'} of {number(more.tasters)} " \
           f"{'taster' if more.tasters == 1 else 'tasters'} {verb}."  # fmt: skip


def in_ten(chance: float) -> str:
    """Return a chance as people say it."""
    tenths = round(chance * 10)
    return "hardly ever" if tenths == 0 else f"about {tenths} {'time' if tenths == 1 else 'times'} in 10"


def say_withheld(withheld: str, names: tuple[str, str], votes: PairVotes) -> str:
    """Say that votes go against the scores."""
    ahead, behind = (votes.second, votes.first) if withheld == "first" else (votes.first, votes.second)
    return (
        f"Scores say {names[withheld == 'second']}, but asked which they would rather have again {ahead} of "
        f"{say_counted(ahead + behind, 'card')} {'says' if ahead == 1 else 'say'} {names[withheld == 'first']}: "
        "nothing is named while they disagree."
    )


def say_votes(votes: PairVotes, names: tuple[str, str]) -> str:
    """Say what votes say, where there are some; a vote says which is preferred and never by how much."""
    cast = votes.first + votes.second + votes.neither
    if not cast:
        return ""
    neither = f", {votes.neither} neither" if votes.neither else ""
    verb = "prefers" if votes.first == 1 else "prefer"
    return f"Asked which they would rather have again, {votes.first} {verb} {names[0]}, {votes.second} {names[1]}" \
           f"{neither}."  # fmt: skip


def say_held(cooks: int) -> str:
    """Say over how many looks in a row it was so."""
    if cooks < 1:
        return ""
    return "It is so since the last cook." if cooks == 1 else f"It has held over {number(cooks)} cooks."


def say_leans(own: float, believed: float, names: tuple[str, str]) -> str:
    """Say that a cut with little of its own leans on the others."""
    return (
        f"It leans on the other cuts: its own cards say {_side(own, names)}, together with the rest "
        f"{_side(believed, names)}."
    )


def _side(points: float, names: tuple[str, str]) -> str:
    return "neither" if abs(points) < 0.05 else f"{abs(points):.1f} for {names[points > 0]}"


def say_wrong(expected: float, names: int) -> str:
    """Say how many of the names on a page are expected to be wrong."""
    if not names:
        return "Nothing is named yet."
    of = "The one name" if names == 1 else f"Of the {number(names)} names"
    if names == 1:
        chance = f"{expected * 100:.0f} in 100" if expected >= 0.005 else "less than 1 in 100"
        return f"{of} on this page is wrong with a chance of {chance}."
    if expected < 0.05:
        return f"{of} on this page, fewer than 0.1 are expected to be wrong."
    return f"{of} on this page, {expected:.1f} {'is' if round(expected, 1) == 1 else 'are'} expected to be wrong."


def say_trait(have: str, lack: str, second: bool, names: tuple[str, str], points: float) -> str:
    """Say a contrast of cuts that holds: what does more for some than for others."""
    name = names[1] if second else names[0]
    return f"{upper(name)} does more for {have} than for {lack}, by about {abs(points):.1f} points."


SOONER_S = 1800.0
"""From how much shorter a hold a way counts as quicker [s] (estimate)."""


def say_quicker(names: tuple[str, str], holds_s: tuple[float, float]) -> str:
    """Say which way is quicker, by how long either is held [s]; where neither is, that either will do."""
    sooner = holds_s[1] - holds_s[0]
    if abs(sooner) < SOONER_S:
        return "Both take as long, so take whichever is at hand."
    return f"Take {names[sooner < 0]}: it is ready {say_duration(abs(sooner))} sooner."
