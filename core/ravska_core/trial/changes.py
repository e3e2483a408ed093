"""What two samples change at once: the one thing that is asked about, what besides it, and how to ask cleanly."""

from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.coat import BESIDE

MAIN = ("rub", "paste", "marinade", "injection", "pre-salt")
"""Kinds of layer that a trial is usually about, before those that come on the fire or at the board."""


@dataclass(frozen=True)
class Put:
    """A layer as its sample has it: its kind, what it is of, its dose and hold as they are said."""

    kind: str
    of: str
    dose: str = ""
    hold: str = ""


@dataclass(frozen=True)
class StackChange:
    """One thing that two samples do not share: a layer that only one has, or two in place of each other; or how much
    or how long of one they both have. `letter` is the one that has it, empty where both have something.
    """

    what: str
    of: str
    letter: str
    sentence: str

    @property
    def tappable(self) -> bool:
        """Whether one tap can take this change away: two layers in place of each other are for the cook to choose."""
        return self.what != "layer" or bool(self.letter)


def changes(first: str, a: Sequence[Put], second: str, b: Sequence[Put]) -> tuple[StackChange, ...]:
    """Return what two stacks change, the thing that is asked about first.

    Salt that is only there to bring both to one salt is no change, nor is what a rub sticks to, which goes with its
    rub; what is eaten with it is compared by itself. A blend that comes twice, such as a second injection, counts once.
    """
    only_a, only_b = _only(a, b), _only(b, a)
    found = []
    if only_a and only_b:
        one, two = only_a.pop(0), only_b.pop(0)
        found.append(StackChange("layer", f"{one.of} or {two.of}", "", f"{first} has {one.of}, {second} {two.of}."))
    for letter, other, some in ((first, second, only_a), (second, first, only_b)):
        for put in some:
            sentence = f"Only {letter} has {put.of} ({put.kind}), {other} has none."
            found.append(StackChange("layer", put.of, letter, sentence))
    theirs = {(put.kind, put.of): put for put in b}
    for put in a:
        same = theirs.get((put.kind, put.of))
        if same is None or put.kind in BESIDE or put.kind == "pre-salt":
            continue
        for what, mine, his in (("dose", put.dose, same.dose), ("hold", put.hold, same.hold)):
            if mine != his:
                sentence = (
                    f"The {what} of {put.of} differs: {first} {mine or 'the rest'}, {second} {his or 'the rest'}."
                )
                found.append(StackChange(what, put.of, "", sentence))
    return tuple(found)


def _only(mine: Sequence[Put], theirs: Sequence[Put]) -> list[Put]:
    """Return what only one stack has, each blend once, what a trial is usually about first."""
    there = {put.of for put in theirs if put.kind != "pre-salt"}
    coats = any(put.kind in ("rub", "paste") and put.of not in there for put in mine)
    found: dict[str, Put] = {}
    for put in mine:
        with_it = put.kind == "binder" and coats
        if put.kind == "pre-salt" or put.kind in BESIDE or with_it or put.of in there:
            continue
        found.setdefault(put.of, put)
    return sorted(found.values(), key=lambda put: MAIN.index(put.kind) if put.kind in MAIN else len(MAIN))


def clean(first: str, second: str, found: Sequence[StackChange]) -> str:
    """Say the smallest change that leaves one thing to ask about; empty where only one changes."""
    said = []
    for change in found[1:]:
        if change.what == "layer" and change.letter:
            other = second if change.letter == first else first
            said.append(f"put {change.of} on {other} as well, or leave it off {change.letter}")
        elif change.what == "layer":
            said.append(f"take {change.of} for both")
        else:
            said.append(f"give both the same {change.what} of {change.of}")
    return f"To ask one thing: {'; '.join(said)}." if said else ""


def two_by_two(names: tuple[str, str], found: Sequence[StackChange]) -> tuple[str, ...]:
    """Return the four samples that answer the first two changes at once; none where one cannot be crossed."""
    crossed = next((change for change in found[1:] if change.what == "layer" and change.letter), None)
    if crossed is None:
        return ()
    return tuple(f"{name} {how} {crossed.of}" for name in names for how in ("without", "with"))


VISIBLE = ("rub", "paste", "glaze", "baste")
"""Kinds of layer that can be seen on a plate (common practice, no source)."""


def looks_tell(first: str, a: Sequence[Put], second: str, b: Sequence[Put]) -> str:
    """Say how two samples can be told apart by looks, by what lies on them; empty where nothing says so."""
    seen_a, seen_b = ({put.of for put in stack if put.kind in VISIBLE} for stack in (a, b))
    for letter, other, mine, theirs in ((first, second, seen_a, seen_b), (second, first, seen_b, seen_a)):
        if mine and not theirs:
            return f"{letter} has {_and(sorted(mine))} on it and {other} nothing that shows: looks tell them apart."
    if seen_a != seen_b:
        return f"{first} shows {_and(sorted(seen_a))}, {second} {_and(sorted(seen_b))}: looks may tell them apart."
    return ""


def _and(names: Sequence[str]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
