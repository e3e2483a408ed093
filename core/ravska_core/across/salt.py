"""The salt this table likes: from votes of just right and the salt that was served, with its doubt."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ravska_core.across.says import GRAINS, say_counted
from ravska_core.trial.tasting import JUST_RIGHT
from ravska_core.working import Figure, Step, figure, say

FEWEST_VOTES, FEWEST_TASTERS = 12, 3
"""Before so many votes of so many tasters no salt is told (common practice, no source)."""

USUAL, USUAL_SD = 1.3, 0.4
"""What tables like before any vote is in, and how far they differ [% of raw edible weight] (estimate)."""

STEEP, STEEP_LOGSD = 2.0, 0.4
"""By how many steps of the scale a vote moves with one percent more salt, and the doubt of its logarithm (estimate)."""

VOTE_SD, TASTER_SD = 0.7, 0.4
"""How far votes of one taster, and tasters, scatter [steps] (estimates)."""

NARROW = 0.3
"""From how narrow a span on, nine times in ten, it is told without more votes being asked for [%]."""


@dataclass(frozen=True)
class SaltVote:
    """A vote of 1 far too little to 5 far too much, by whom, and the salt that was on the plate [%]."""

    taster: str
    percent: float
    vote: int


@dataclass(frozen=True)
class SaltLiked:
    """The salt this table likes [% of raw edible weight], nine times in ten within its span; None with too few votes.

    `grains` are twenty quantiles of it.
    """

    liked: Figure | None
    grains: tuple[float, ...]
    votes: int
    tasters: int
    says: str


def salt_liked(votes: Sequence[SaltVote]) -> SaltLiked:
    """Determine the salt at which this table would say just right.

    vote = 3 + steep (percent - liked) + taster + e, summed over a grid of liked and steep; tasters and e drop out in
    closed form. Votes are taken as a scale of even steps.
    """
    people = sorted({one.taster for one in votes})
    if len(votes) < FEWEST_VOTES or len(people) < FEWEST_TASTERS:
        here = f"{say_counted(len(votes), 'vote')} of {say_counted(len(people), 'taster')}"
        says = f"It takes {FEWEST_VOTES} votes of {FEWEST_TASTERS} tasters on salt to tell what this table likes; " \
               f"here {'is' if len(votes) == 1 else 'are'} {here}."  # fmt: skip
        return SaltLiked(None, (), len(votes), len(people), says)
    liked = np.linspace(0.1, 3.5, 341)
    steep = STEEP * np.exp(STEEP_LOGSD * np.linspace(-2.5, 2.5, 21))
    logs = -0.5 * ((liked[:, None] - USUAL) / USUAL_SD) ** 2 - 0.5 * (np.log(steep / STEEP) / STEEP_LOGSD) ** 2
    for who in people:
        mine = [one for one in votes if one.taster == who]
        percent, vote = np.array([one.percent for one in mine]), np.array([one.vote - JUST_RIGHT for one in mine])
        left = vote - steep[None, :, None] * (percent - liked[:, None, None])
        n = len(mine)
        shared = TASTER_SD**2 / (VOTE_SD**2 + n * TASTER_SD**2)
        logs += -0.5 / VOTE_SD**2 * ((left**2).sum(-1) - shared * left.sum(-1) ** 2)
    mass = np.exp(logs - logs.max()).sum(1)
    mass /= mass.sum()
    reached = np.cumsum(mass) - mass / 2
    low, high = (float(np.interp(share, reached, liked)) for share in (0.05, 0.95))
    middle = float(mass @ liked)
    served = sorted(one.percent for one in votes)
    steps = [
        Step("Votes on salt", f"of {say_counted(len(people), 'taster')}", len(votes), "votes"),
        Step("Mean vote", "1 far too little, 3 just right, 5 far too much",
             float(np.mean([one.vote for one in votes])), ""),
        Step("Salt served, least", "of raw edible weight", served[0], "%"),
        Step("Salt served, most", "of raw edible weight", served[-1], "%"),
        Step("Before any vote", f"estimate, ± {USUAL_SD:g}", USUAL, "%", "estimate"),
        Step("Liked", "where a vote is expected to be just right", middle, "%", "estimate"),
    ]  # fmt: skip
    grains = tuple(float(np.interp((at + 0.5) / GRAINS, reached, liked)) for at in range(GRAINS))
    says = (
        f"This table likes about {say(middle, 2)} % salt; nine times in ten between {say(low, 2)} and {say(high, 2)}."
    )
    if high - low > NARROW:
        says += " More votes, on plates of unlike salt, would tell it better."
    return SaltLiked(
        figure(steps, "nine times in ten within", low=low, high=high), grains, len(votes), len(people), says
    )  # fmt: skip
