"""What preferences of a trial say, and whether they say it yet; and how well its samples are liked."""

from dataclasses import dataclass

from ravska_core.trial.tasting import PLANNED_CARDS
from ravska_core.trial.tests import CHANCE, FIRST_LOOK, look_bound, preference, spent
from ravska_core.working import Figure, Step, figure


@dataclass(frozen=True)
class Verdict:
    """State of a trial: ``no cards``, ``not yet known``, ``winner`` or ``no winner``, with its counts.

    ``no winner`` says that the cards it stated can name none any more. `bound` is the probability that names one;
    `cards_more` the fewest further cards that could, if all of them preferred the one ahead; None when none can.
    """

    state: str
    winner: int | None
    counts: tuple[int, int]
    no_preference: int
    planned: int
    probability: Figure
    bound: Figure
    cards_more: Figure | None


def names(ahead: int, behind: int, no_preference: int, planned: int) -> bool:
    """Tell whether cards name a winner: at a look not before its first, by the bound that all looks share."""
    cards = ahead + behind + no_preference
    if cards < min(FIRST_LOOK, planned):
        return False
    return preference(ahead, behind).probability <= look_bound(planned) * (1 + 1e-12)


def cards_to_settle(ahead: int, behind: int, no_preference: int, planned: int) -> int | None:
    """Determine how many more cards, all for the one ahead, name it; None when the stated number is too few."""
    for more in range(max(0, planned - ahead - behind - no_preference) + 1):
        if names(ahead + more, behind, no_preference, planned):
            return more
    return None


def read_verdict(first: int, second: int, no_preference: int = 0, planned: int = PLANNED_CARDS) -> Verdict:
    """Determine the verdict of a trial of two samples from its preference count.

    A trial states how many cards it takes, `planned`, and only those count. It is looked at after every card from the
    eighth on, and the looks together name a winner where there is none in at most 5 % of trials. Cards without a
    preference are counted but say nothing about which is better.

    References
    ----------
    ISO 5495, paired comparison test; S. J. Pocock, Group sequential methods, Biometrika 64, 1977, for one bound at
    all looks.
    """
    found = preference(first, second)
    n = first + second
    ahead, behind = max(first, second), min(first, second)
    formula = f"2 × Σ C({n}, k) / 2^{n}, k from {ahead} to {n}" if n else "no card with a preference yet"
    steps = [
        Step("Cards with a preference", f"{first} + {second}", n, "cards"),
        Step("Chance of a split this lopsided", formula, found.probability, "", "binomial"),
    ]
    limit = look_bound(planned)
    looks = f"after each card from {FIRST_LOOK} to {planned}" if planned > FIRST_LOOK else f"once, at {planned} cards"
    bound = [
        Step("Cards stated", "before the first was in", planned, "cards"),
        Step("All looks together may be wrong", "at most", CHANCE, "", "binomial"),
        Step("They are wrong in", f"looked at {looks}", spent(planned, limit) if limit else 0.0, "", "binomial"),
        Step("A look names a winner at", "the largest chance that keeps to that", limit, ""),
    ]
    known = names(ahead, behind, no_preference, planned)
    more = cards_to_settle(ahead, behind, no_preference, planned)
    cards = n + no_preference
    state = "winner" if known else "no cards" if not cards else "no winner" if more is None else "not yet known"
    return Verdict(
        state=state,
        winner=(0 if first > second else 1) if known else None,
        counts=(first, second),
        no_preference=no_preference,
        planned=planned,
        probability=figure(steps, "exact, if cards are independent and blind"),
        bound=figure(bound, "exact"),
        cards_more=None if more is None else _settled_by(ahead, behind, more, limit),
    )


def _settled_by(ahead: int, behind: int, more: int, limit: float) -> Figure:
    reached = preference(ahead + more, behind).probability
    steps = [
        Step("Chance that names a winner", "at most", limit, ""),
        Step("Chance after these cards", f"if all prefer the one ahead: {ahead + more} to {behind}", reached, ""),
        Step("Fewest further cards", "counted up until it is named", more, "cards"),
    ]
    return figure(steps, "the fewest; more, when some of them disagree")


@dataclass(frozen=True)
class Liking:
    """Mean liking of the samples on one scale over the cards that scored all of them."""

    scale: str
    cards: int
    means: tuple[Figure, ...]


def mean_liking(scale: str, rows: tuple[tuple[int, ...], ...]) -> Liking:
    """Determine the mean score of every sample over cards that scored all; the range is one standard error."""
    n = len(rows)
    means = []
    for scores in zip(*rows, strict=True):
        mean = sum(scores) / n
        error = (sum((s - mean) ** 2 for s in scores) / (n - 1) / n) ** 0.5 if n > 1 else None
        step = Step(f"Mean of {n} cards", " + ".join(map(str, scores[:12])) + (" …" if n > 12 else ""), mean, "points")
        note = "± one standard error" if error is not None else "one card: no error can be given"
        low, high = (mean - error, mean + error) if error is not None else (None, None)
        means.append(figure([step], note, low=low, high=high))
    return Liking(scale, n, tuple(means))
