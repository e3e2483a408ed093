"""What muddied a cook: everything else that differed between two samples, by name and size."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import replace

from ravska_core.across.evidence import Muddy
from ravska_core.trial import Difference, FairTest

NOT_A_COOKS = ("blind", "cut", "looks")
"""What spoils single cards, what no verdict can come of, and what only may have told plates apart."""


def muddied(fair: FairTest) -> tuple[Muddy, ...]:
    """Return what besides the one thing that was asked about differed between two samples, sized in its usual size."""
    layers = (Muddy(f"{one.what}: {one.of}", 1.0, one.sentence) for one in fair.changes[1:])
    return (*muddied_by(fair.differs), *layers)


def muddied_by(differs: Sequence[Difference]) -> tuple[Muddy, ...]:
    """Return what differences muddy a whole cook, each under a name of its own."""
    return tuple(
        Muddy(f"{one.what}: {one.about}" if one.about else one.what, one.size, one.sentence)
        for one in differs if one.what not in NOT_A_COOKS
    )  # fmt: skip


def mean_of(pairs: Sequence[Sequence[Muddy]]) -> tuple[Muddy, ...]:
    """Return what muddied a cook that compared several pairs: each thing with its mean size over them."""
    sizes: dict[str, float] = {}
    said: dict[str, str] = {}
    for pair in pairs:
        for one in pair:
            sizes[one.what] = sizes.get(one.what, 0.0) + one.size / len(pairs)
            said.setdefault(one.what, one.sentence)
    return tuple(Muddy(what, size, said[what]) for what, size in sizes.items())


_LETTER = re.compile(r"\b[A-H]\b")


def by_side(found: Sequence[Muddy], sides: Mapping[str, str]) -> tuple[Muddy, ...]:
    """Return what muddied a cook with its pieces called by the side they are on, not by their letters."""
    return tuple(replace(one, sentence=_named(one.sentence, sides)) for one in found)


def _named(sentence: str, sides: Mapping[str, str]) -> str:
    said = _LETTER.sub(lambda match: sides.get(match[0], match[0]), sentence)
    return said[:1].upper() + said[1:]
