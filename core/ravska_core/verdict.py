"""What the cards of a trial say, and whether they say it yet."""

from dataclasses import dataclass

from ravska_core.tasting import preference
from ravska_core.working import Figure, Step, figure

CHANCE = 0.05
"""A winner is named when chance alone makes such a split in at most this share of tastings (two-sided)."""


@dataclass(frozen=True)
class Verdict:
    """State of a trial: ``no cards``, ``not yet known`` or ``winner``, with the counts and their probability."""

    state: str
    winner: int | None
    counts: tuple[int, int]
    no_preference: int
    probability: Figure
    cards_more: Figure
    """Fewest further cards that could name a winner: if all of them preferred the one ahead."""


def cards_to_settle(ahead: int, behind: int) -> int:
    """Determine how many more cards, all for the arm ahead, bring the probability to `CHANCE` or below."""
    more = 0
    while preference(ahead + more, behind).probability > CHANCE:
        more += 1
    return more


def read_verdict(first: int, second: int, no_preference: int = 0) -> Verdict:
    """Determine the verdict of a trial of two arms from its preference count.

    Cards without a preference are counted but say nothing about which is better (ISO 5495 leaves
    them out of the test).
    """
    found = preference(first, second)
    n = first + second
    ahead = max(first, second)
    formula = f"2 × Σ C({n}, k) / 2^{n}, k from {ahead} to {n}" if n else "no card with a preference yet"
    steps = [
        Step("Cards with a preference", f"{first} + {second}", n, "cards"),
        Step("Chance of a split this lopsided", formula, found.probability, "", "binomial"),
    ]
    probability = figure(steps, "exact, if cards are independent and blind")
    more = 0 if found.probability <= CHANCE else cards_to_settle(ahead, n - ahead)
    reached = preference(ahead + more, n - ahead).probability
    settle = [
        Step("Chance that names a winner", "at most", CHANCE, "", "trade"),
        Step(
            "Chance after these cards",
            f"if all of them prefer the one ahead: {ahead + more} to {n - ahead}",
            reached,
            "",
        ),
        Step("Fewest further cards", "counted up until the chance is small enough", more, "cards"),
    ]
    known = found.probability <= CHANCE
    state = "winner" if known else ("not yet known" if n or no_preference else "no cards")
    return Verdict(
        state=state,
        winner=(0 if first > second else 1) if known else None,
        counts=(first, second),
        no_preference=no_preference,
        probability=probability,
        cards_more=figure(settle, "the fewest; more, when some of them disagree"),
    )


@dataclass(frozen=True)
class Liking:
    """Mean liking of two arms on one scale over the cards that scored both, and its mean difference."""

    scale: str
    cards: int
    means: tuple[Figure, Figure]


def mean_liking(scale: str, pairs: tuple[tuple[int, int], ...]) -> Liking:
    """Determine the mean score of both arms over paired scores; the range is one standard error."""
    n = len(pairs)
    means = []
    for side in (0, 1):
        scores = [pair[side] for pair in pairs]
        mean = sum(scores) / n
        error = (sum((s - mean) ** 2 for s in scores) / (n - 1) / n) ** 0.5 if n > 1 else None
        step = Step(f"Mean of {n} cards", " + ".join(map(str, scores[:12])) + (" …" if n > 12 else ""), mean, "points")
        note = "± one standard error" if error is not None else "one card: no error can be given"
        low, high = (mean - error, mean + error) if error is not None else (None, None)
        means.append(figure([step], note, low=low, high=high))
    return Liking(scale, n, (means[0], means[1]))
