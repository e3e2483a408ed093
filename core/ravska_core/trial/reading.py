"""The verdict of one trial: what its cards say, in words first, by the exact test of its kind."""

from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.trial.cards import ReadCard, TastedTrial
from ravska_core.trial.liking import FEWEST_SCORED, Interval, by_mean, holm, interval, turned
from ravska_core.trial.power import finds_triangle, in_ten
from ravska_core.trial.ranks import friedman
from ravska_core.trial.tests import CHANCE, fewest, triangle
from ravska_core.trial.verdict import read_verdict
from ravska_core.working import Figure, Step, figure


@dataclass(frozen=True)
class Pair:
    """Two samples compared: how many cards, the second less the first [points], and how often chance does as well.

    `adjusted` is that probability where several pairs are read together, `apart` whether the pair is told apart by it.
    """

    first: int
    second: int
    cards: int
    liking: Interval | None
    probability: float
    adjusted: float
    apart: bool
    says: str


@dataclass(frozen=True)
class TrialReading:
    """What a trial says. `winner` is the sample that won, `column` the side of a two-by-two that did.

    `state` is ``no cards``, ``kept`` until the reveal, ``not yet known``, ``winner`` or ``no winner``; a triangle has
    ``told apart`` and ``not told apart``. `counts` are votes for each sample, or rank sums, or for a triangle how many
    were right and how many not, and `needed` how many have to be.
    """

    state: str
    headline: str
    says: tuple[str, ...]
    winner: int | None = None
    column: int | None = None
    counts: tuple[float, ...] = ()
    no_preference: int = 0
    probability: Figure | None = None
    bound: Figure | None = None
    cards_more: Figure | None = None
    needed: int | None = None
    pairs: tuple[Pair, ...] = ()


def say_chance(probability: float) -> str:
    """Return a probability in percent as it is read, with more digits the smaller it is."""
    digits = 0 if probability >= 0.1 else 1 if probability >= 0.01 else 2
    return f"{probability * 100:.{digits}f} %" if probability >= 0.0001 else "less than 0.01 %"


def _cards(count: int) -> str:
    return f"{count} {'card' if count == 1 else 'cards'}"


def read_trial(trial: TastedTrial, revealed: bool) -> TrialReading:
    """Determine what the cards of a trial say.

    A preference is looked at from the eighth card on, and those looks together are wrong in at most 5 % of trials
    without a difference. Of every other kind nothing is told before the reveal, so that whoever reveals cannot stop
    where it suits; its one look may spend all of the 5 %.
    """
    counted = trial.counted()
    if not trial.cards:
        return TrialReading("no cards", "No card is in yet", (f"This trial states {_cards(trial.planned)}.",))
    if trial.kind == "preference":
        return _preference(trial, counted)
    if not revealed:
        says = f"{_cards(len(counted))} of {trial.planned} in. What they say is kept until the reveal."
        return TrialReading("kept", "Kept until the reveal", (says,))
    if not counted:
        says = "No card that counts was in before the reveal; what came after it cannot be blind."
        return TrialReading("no winner", "No card that counts", (says,))
    read = {"triangle": _triangle, "ranking": _ranking, "scores": _scores}[trial.kind]
    return read(trial, counted)


def _preference(trial: TastedTrial, cards: Sequence[ReadCard]) -> TrialReading:
    first, second = (sum(_votes_for(trial, card) == sample for card in cards) for sample in (0, 1))
    neither = len(cards) - first - second
    found = read_verdict(first, second, neither, trial.planned)
    one, other = trial.names
    says = f"{first} {'prefers' if first == 1 else 'prefer'} {one}, {second} {other}"
    says += f", {neither} {'has' if neither == 1 else 'have'} no preference." if neither else "."
    says += f" Chance alone splits this lopsided in {say_chance(found.probability.value)} of tastings."
    headline = {"winner": f"{trial.names[found.winner or 0]} won", "no winner": "No winner"}
    return TrialReading(
        found.state, headline.get(found.state, "Not yet known"), (says,), winner=found.winner,
        counts=tuple(map(float, found.counts)), no_preference=neither, probability=found.probability,
        bound=found.bound, cards_more=found.cards_more, pairs=_liked_pairs(trial, cards),
    )  # fmt: skip


def _votes_for(trial: TastedTrial, card: ReadCard) -> int | None:
    return None if card.prefers is None else trial.plates[card.prefers].sample


def _triangle(trial: TastedTrial, cards: Sequence[ReadCard]) -> TrialReading:
    answered = [card for card in cards if card.odd is not None]
    right = sum(picked_odd(trial, card) for card in answered)
    n = len(answered)
    probability = triangle(right, n)
    steps = [
        Step("Cards that picked one out", "counted", n, "cards"),
        Step("Right", "counted", right, "cards"),
        Step("Chance of so many or more", f"Σ C({n}, k) (1/3)^k (2/3)^({n} − k), k from {right} to {n}", probability,
             "", "binomial"),
    ]  # fmt: skip
    told = n > 0 and probability <= CHANCE
    says = [
        f"{right} of {n} picked out the odd plate. By guessing, as many or more do so in {say_chance(probability)} of "
        "tastings."
    ]
    if told:
        by_taste = max(0.0, (right / n - 1 / 3) * 1.5)
        says.append(
            f"About {by_taste * 100:.0f} % of them can tell, and the others guessed. It does not say which is better."
        )
    else:
        finds = in_ten(finds_triangle(n, 0.5)) if n else "never"
        says.append(
            "That is not to say that there is no difference: with so many cards, one that half of them can taste is "
            f"found {finds}."
        )
    return TrialReading(
        "told apart" if told else "not told apart",
        f"{trial.names[0]} and {_lower(trial.names[1])} can be told apart" if told else "Not told apart",
        tuple(says), counts=(float(right), float(n - right)), needed=fewest(n, triangle, CHANCE),
        probability=figure(steps, "exact, if cards are blind"),
    )  # fmt: skip


def _lower(name: str) -> str:
    return name[:1].lower() + name[1:]


def picked_odd(trial: TastedTrial, card: ReadCard) -> bool:
    """Tell whether a card picked the plate whose sample no other of its three has."""
    samples = [trial.plates[at].sample for at in card.served]
    return card.odd is not None and samples.count(trial.plates[card.odd].sample) == 1


def _ranking(trial: TastedTrial, cards: Sequence[ReadCard]) -> TrialReading:
    rows = trial.ranked(cards)
    if not rows:
        return TrialReading("no winner", "No whole order is in", ("No card put all plates in order.",))
    if trial.rows:
        return _two_by_two(trial, cards, ranks=True)
    found = friedman(rows, CHANCE)
    n = len(rows)
    how = "exact, over all orders by chance" if found.exact else "chi-square approximation"
    steps = [
        Step("Orders", "cards that ranked every plate", n, "cards"),
        *[Step(f"Rank sum of {name}", "1 for the best", value, "")
          for name, value in zip(trial.names, found.sums, strict=True)],
        Step("Friedman’s statistic", "12 Σ R² / (n k (k + 1)) − 3 n (k + 1), mended for ties", found.statistic, "",
             "friedman"),
        Step("Chance of one so large", how, found.probability, "", "friedman"),
    ]  # fmt: skip
    order = sorted(range(len(found.sums)), key=found.sums.__getitem__)
    best = order[0]
    known = found.probability <= CHANCE
    pairs = tuple(
        _rank_pair(trial, found.sums, a, b, found.least if known else float("inf"), n) for a, b in trial.pairs()
    )
    wins = known and all(found.sums[at] - found.sums[best] >= found.least for at in order[1:])
    said = ", ".join(f"{trial.names[at]} {found.sums[at]:g}" for at in order)
    says = [
        f"Rank sums of {_cards(n)}, the smaller the better: {said}. Orders by chance spread them so far in "
        f"{say_chance(found.probability)} of tastings."
    ]
    if known and not wins:
        close = [trial.names[at] for at in order[1:] if found.sums[at] - found.sums[best] < found.least]
        says.append(f"Something differs, but {trial.names[best]} and {_and(close)} are too close to be told apart.")
    if not known:
        says.append("That is not to say that they are alike: more cards may tell them apart.")
    return TrialReading(
        "winner" if wins else "no winner", f"{trial.names[best]} ranked best" if wins else "No winner", tuple(says),
        winner=best if wins else None, counts=found.sums, probability=figure(steps, how), pairs=pairs,
    )  # fmt: skip


def _and(names: Sequence[str]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _rank_pair(trial: TastedTrial, sums: Sequence[float], a: int, b: int, least: float, cards: int) -> Pair:
    ahead, behind = (a, b) if sums[a] <= sums[b] else (b, a)
    gap = sums[behind] - sums[ahead]
    apart = gap >= least
    if least == float("inf"):
        says = f"{trial.names[ahead]} and {trial.names[behind]}: {gap:g} apart, and orders by chance do as well."
    else:
        told = "apart" if apart else "not apart"
        says = f"{trial.names[ahead]} before {trial.names[behind]} by {gap:g}, {told}: it takes {least:.1f}."
    return Pair(a, b, cards, None, 0.0, 0.0, apart, says)


def _liked_pairs(trial: TastedTrial, cards: Sequence[ReadCard], ranks: bool = False) -> tuple[Pair, ...]:
    """Compare the samples two by two by how they were liked, several pairs adjusted for each other."""
    pairs, differences = list(trial.pairs()), []
    for a, b in pairs:
        if ranks:
            rows = trial.ranked(cards)
            differences.append([round(2 * (row[a] - row[b])) for row in rows])
        else:
            differences.append(trial.differences(cards, a, b))
    chances = [by_mean(some) for some in differences]
    adjusted = holm(chances)
    found = []
    for at, (a, b) in enumerate(pairs):
        some = differences[at]
        if not some:
            continue
        liking = interval([value / 2 if ranks else value for value in some])
        unit = "places" if ranks else "points"
        found.append(
            Pair(a, b, len(some), liking, chances[at], adjusted[at], _is_known(adjusted[at], len(some)),
                 _say_pair(trial.names[a], trial.names[b], liking, unit))
        )  # fmt: skip
    return tuple(found)


def _is_known(probability: float, cards: int) -> bool:
    return probability <= CHANCE and cards >= FEWEST_SCORED


def _say_pair(first: str, second: str, liking: Interval, unit: str) -> str:
    better, than, sign = (second, first, 1) if liking.mean >= 0 else (first, second, -1)
    if abs(liking.mean) < 0.05:
        said = f"{first} and {second} are liked alike"
    else:
        said = f"{better} is liked better than {than} by {_points(abs(liking.mean))} {unit}"
    if liking.low is None or liking.high is None:
        return f"{said}; one card cannot say how surely."
    low, high = sorted((sign * liking.low, sign * liking.high))
    return f"{said}, 95 times in 100 between {_points(low)} and {_points(high)}."


def _points(value: float) -> str:
    return f"{value:.1f}".replace("-", "−")


def _scores(trial: TastedTrial, cards: Sequence[ReadCard]) -> TrialReading:
    if trial.rows:
        return _two_by_two(trial, cards)
    pairs = _liked_pairs(trial, cards)
    if not pairs:
        return TrialReading("no winner", "Nothing to compare", ("No card scored two of the plates.",))
    winner = next((at for at in range(len(trial.names)) if _beats_all(at, pairs, len(trial.names))), None)
    # a name rests on the weakest of the pairs that it beat; without one the surest pair is told
    mine = [pair for pair in pairs if winner in (pair.first, pair.second)]
    top = max(mine, key=lambda pair: pair.adjusted) if mine else min(pairs, key=lambda pair: pair.adjusted)
    says = [pair.says for pair in pairs[:3]]
    says.append(_say_chance_of(top.adjusted, len(pairs), winner is not None and len(pairs) > 1))
    if top.cards < FEWEST_SCORED:
        says.append(f"With fewer than {FEWEST_SCORED} cards nothing is named, however they fall.")
    elif winner is None:
        says.append("That is not to say that they are alike; the interval says how far apart they may be.")
    return TrialReading(
        "winner" if winner is not None else "no winner",
        _best_of(trial.names, winner), tuple(says),
        winner=winner, counts=_means(trial, cards), pairs=pairs,
        probability=_chance_figure(
            trial.differences(cards, top.first, top.second), top.probability, top.adjusted, len(pairs)
        ),
    )  # fmt: skip


def _best_of(names: Sequence[str], winner: int | None) -> str:
    if winner is None:
        return "No winner"
    return f"{names[winner]} is liked {'best' if len(names) > 2 else 'better'}"


def _means(trial: TastedTrial, cards: Sequence[ReadCard]) -> tuple[float, ...]:
    found = []
    for sample in range(len(trial.names)):
        scores = [score for card in cards if (score := trial.scored(card, sample)) is not None]
        found.append(sum(scores) / len(scores) if scores else 0.0)
    return tuple(found)


def _beats_all(sample: int, pairs: Sequence[Pair], samples: int) -> bool:
    mine = [pair for pair in pairs if sample in (pair.first, pair.second)]
    return len(mine) == samples - 1 and all(
        pair.apart and pair.liking is not None and (pair.liking.mean > 0) == (pair.second == sample) for pair in mine
    )


def _say_chance_of(probability: float, pairs: int, weakest: bool = False) -> str:
    which = "the weakest difference that this rests on" if weakest else "a difference this sure"
    said = f"Where nothing differs, {which} comes up in {say_chance(probability)} of tastings"
    return f"{said}, all {pairs} pairs reckoned with." if pairs > 1 else f"{said}."


def _chance_figure(differences: Sequence[int], chance: float, adjusted: float, pairs: int) -> Figure:
    steps = [
        Step("Cards that scored both", "counted", len(differences), "cards"),
        Step("Without assuming how scores spread", "over all ways to turn the tasters’ differences round",
             turned(differences), "", "fisher"),
        Step("Chance of a mean difference so large", "2 F(−|mean| √n / SD), Student’s t", chance, "", "student"),
    ]  # fmt: skip
    if pairs > 1:
        steps.append(Step("Reckoning with all pairs", f"Holm, {pairs} of them", adjusted, "", "holm"))
    return figure(steps, "if cards are independent and blind")


def _two_by_two(trial: TastedTrial, cards: Sequence[ReadCard], ranks: bool = False) -> TrialReading:
    """Read a two-by-two in its pairs: the second column less the first in each row, and in both rows together."""
    pairs = _liked_pairs(trial, cards, ranks)
    both = _both_rows(trial, cards, ranks)
    if not both:
        return TrialReading("no winner", "Nothing to compare", ("No card has all four plates.",), pairs=pairs)
    together = [one + other for one, other in both]
    probability = by_mean(together)
    mean = interval([value / (4 if ranks else 2) for value in together])
    crossed = by_mean([one - other for one, other in both])
    unit = "places" if ranks else "points"
    rows, columns = trial.sides[:2], trial.sides[2:]
    column = int(mean.mean > 0) if _is_known(probability, len(both)) else None
    in_rows = [f"{rows[trial.rows[pair.first]]}: {pair.says}" for pair in pairs]
    says = [_say_pair(columns[0], columns[1], mean, unit), _say_chance_of(probability, 1), *in_rows]
    if _is_known(crossed, len(both)):
        says.append(f"It is not the same for {_lower(rows[0])} and {_lower(rows[1])}; read each by itself.")
    return TrialReading(
        "winner" if column is not None else "no winner",
        f"{columns[column]} is liked better" if column is not None else "No winner", tuple(says), column=column,
        counts=_means(trial, cards), probability=_chance_figure(together, probability, probability, 1), pairs=pairs,
    )  # fmt: skip


def _both_rows(trial: TastedTrial, cards: Sequence[ReadCard], ranks: bool) -> list[tuple[int, int]]:
    """Return the second column less the first of both rows, for every card that has all four [points or half ranks]."""
    at = {(trial.rows[n], trial.columns[n]): n for n in range(len(trial.names))}
    found = []
    for card in cards:
        if ranks:
            row = next(iter(trial.ranked((card,))), None)
            values = None if row is None else [-round(2 * rank) for rank in row]
        else:
            scores = [trial.scored(card, sample) for sample in range(len(trial.names))]
            values = None if None in scores else [score for score in scores if score is not None]
        if values is not None:
            found.append((values[at[0, 1]] - values[at[0, 0]], values[at[1, 1]] - values[at[1, 0]]))
    return found
