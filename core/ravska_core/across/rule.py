"""When a difference has a name: by how much, how surely, from how many clean cooks and cards."""

from dataclasses import dataclass

from ravska_core.trial.tests import preference

MARGIN = 0.5
"""The difference that matters unless the table chose another before it looked [points of 9]."""

SURE = 0.9
"""How likely a name must be, and that nothing matters."""

CLEAN_COOKS, CLEAN_CARDS = 2, 8
"""Cooks and cards of this very cut that differ in nothing else, without which nothing is named."""

VOTES_AGAINST = 0.05
"""Votes for the other side withhold a name when chance alone splits them so in fewer of 100."""


@dataclass(frozen=True)
class Chances:
    """How likely the first is better by the margin, the second, and that neither is."""

    first: float
    second: float
    neither: float

    def of(self, state: str) -> float:
        """Return how likely a name is."""
        return {"first": self.first, "second": self.second}.get(state, self.neither)


@dataclass(frozen=True)
class Counted:
    """What a cell rests on: all its cooks and cards, and those that differ in nothing else."""

    cooks: int
    cards: int
    clean_cooks: int
    clean_cards: int

    def is_enough(self) -> bool:
        """Tell whether there are clean cooks and cards enough to name anything."""
        return self.clean_cooks >= CLEAN_COOKS and self.clean_cards >= CLEAN_CARDS


@dataclass(frozen=True)
class PairVotes:
    """How many preferred the first, the second, and neither."""

    first: int = 0
    second: int = 0
    neither: int = 0

    def against(self, state: str) -> bool:
        """Tell whether these votes say the opposite of a name, by an exact two-sided test."""
        ahead, behind = (self.second, self.first) if state == "first" else (self.first, self.second)
        if state not in ("first", "second") or ahead <= behind:
            return False
        return preference(ahead, behind).probability <= VOTES_AGAINST


def decide(chances: Chances, counted: Counted) -> str:
    """Return which side is better, that nothing matters, or that it is not yet known; the same rule for both sides.

    Worked out anew at every look: what was named before counts for nothing.
    """
    if counted.is_enough():
        if chances.first >= SURE:
            return "first"
        if chances.second >= SURE:
            return "second"
        if chances.neither >= SURE:
            return "no matter"
    return "not yet known"


def named(chances: Chances, counted: Counted, votes: PairVotes) -> tuple[str, str]:
    """Return the state of a cell with its votes, and the name they withheld; empty where they did not."""
    state = decide(chances, counted)
    return ("not yet known", state) if votes.against(state) else (state, "")


def wrong_among(claims: list[tuple[str, Chances]]) -> float:
    """Return how many of the names that stand are expected to be wrong."""
    return sum(1 - chances.of(state) for state, chances in claims if state != "not yet known")
