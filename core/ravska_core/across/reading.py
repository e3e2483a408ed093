"""Two ways across cuts and cooks: a row a cut, with its grains, its name if it has one, and what would settle it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from ravska_core.across import says
from ravska_core.across.ahead import Ahead, More, more_needed
from ravska_core.across.evidence import Evidence
from ravska_core.across.model import Array, Asked, Statistics, asked
from ravska_core.across.posterior import Posterior, fit_statistics
from ravska_core.across.rule import MARGIN, SURE, Chances, Counted, PairVotes, named, wrong_among
from ravska_core.across.traits import TRAITS, sides_of
from ravska_core.working import Figure, Step, figure

MODEL_VERSION = "1"
"""Which model a verdict was worked out by; goes up whenever its numbers may change."""

DEPENDS = "It depends on the cut"

FEWEST_A_SIDE = 2
"""How many cuts with cards a contrast needs on each side."""

NEAR_TOP, TOP = 0.25, 9.0
"""From which share of highest scores on they are near the top of the scale."""


@dataclass(frozen=True)
class Grain:
    """One chance in twenty: where it lies [points, second less first], and which side of the band: ``first``,
    ``second`` or ``no matter``."""

    points: float
    side: str


@dataclass(frozen=True)
class Belief:
    """What is believed of one sum: its chances, its mean and interval [points], and its grains."""

    chances: Chances
    mean: float
    low: float
    high: float
    grains: tuple[Grain, ...]


@dataclass(frozen=True)
class CutRow:
    """What is known of one cut.

    `state` is ``first``, ``second``, ``no matter`` or ``not yet known``; `withheld` the name that votes against it
    keep back. `difference` is second less first. `own` is what its own cards say without the rest.
    """

    cut: str
    state: str
    withheld: str
    headline: str
    says: tuple[str, ...]
    belief: Belief | None
    difference: Figure | None
    chance: Figure | None
    counted: Counted
    votes: PairVotes
    own: float | None
    more: More | None


@dataclass(frozen=True)
class TraitSaid:
    """A contrast of cuts that holds: its key, by how much more the second does for those that have it [points]."""

    key: str
    points: float
    chance: float
    says: str


@dataclass(frozen=True)
class Across:
    """Two ways over all cuts: a row for each, from the first's side to the second's, and the contrasts that hold.

    `says` and `wrong`, how many of its names are expected to be, are of the whole page.
    """

    names: tuple[str, str]
    who: str
    margin: float
    rows: tuple[CutRow, ...]
    all_cuts: CutRow
    traits: tuple[TraitSaid, ...]
    says: tuple[str, ...]
    wrong: float
    named: int
    model: str = MODEL_VERSION


@dataclass(frozen=True)
class Sums:
    """What a page asks for: the place of every cut, of all of them, and of each contrast by its trait."""

    asked: Asked
    cut: Mapping[str, int]
    all_cuts: int
    trait: Mapping[str, int]
    taster: Mapping[str, int]


def sums_of(evidence: Evidence, left: Statistics, who: str, tasters_of: str = "") -> Sums:
    """Return what is asked for: every cut for this table or a guest, all cuts, contrasts, each taster on one cut."""
    cuts, tasters = len(evidence.cuts), left.tasters
    shares = left.shares if who == "table" else np.zeros(tasters)
    rows: list[tuple[float, Array, Array]] = [(1.0, np.eye(cuts)[at], shares) for at in range(cuts)]
    here = [at for at, cut in enumerate(evidence.cuts) if evidence.counted(cut).cards]
    mine = np.zeros(cuts)
    mine[here] = 1 / len(here)
    rows.append((1.0, mine, shares))
    places = {cut: at + 1 for at, cut in enumerate(evidence.cuts)}
    all_cuts, trait, taster = len(rows), {}, {}
    for one in TRAITS:
        having, lacking = (
            [at for at in side if at in here] for side in sides_of(one.key, evidence.cuts)
        )  # fmt: skip
        if min(len(having), len(lacking)) >= FEWEST_A_SIDE:
            contrast = np.zeros(cuts)
            contrast[having], contrast[lacking] = 1 / len(having), -1 / len(lacking)
            trait[one.key] = len(rows) + 1
            rows.append((0.0, contrast, np.zeros(tasters)))
    if tasters_of:
        for at, name in enumerate(evidence.tasters):
            taster[name] = len(rows) + 1
            rows.append((1.0, np.eye(cuts)[evidence.cuts.index(tasters_of)], np.eye(tasters)[at]))
    return Sums(asked(rows, cuts, tasters), places, all_cuts, trait, taster)


def chances_at(above: Array, below: Array, at: int) -> Chances:
    """Return the chances of one sum: beyond the margin either way, and within it."""
    first, second = float(below[at]), float(1 - above[at])
    return Chances(first, second, max(0.0, 1 - first - second))


class Fitted:
    """A fit of a pair of ways with what was asked of it, and what a look ahead needs."""

    def __init__(self, evidence: Evidence, who: str, margin: float = MARGIN, tasters_of: str = "") -> None:
        self.evidence, self.margin = evidence, margin
        left = Statistics(evidence.as_cards())
        self.sums = sums_of(evidence, left, who, tasters_of)
        self.found: Posterior = fit_statistics(left, self.sums.asked)
        self.mean = self.found.mean()
        self.above, self.below = self.found.below(margin), self.found.below(-margin)
        self.low, self.high = self.found.interval()

    def chances(self, at: int) -> Chances:
        """Return the chances of one sum."""
        return chances_at(self.above, self.below, at)

    def belief(self, at: int) -> Belief:
        """Return what is believed of one sum, with its grains on the side they belong to."""
        chances, points = self.chances(at), self.found.grains(at)
        count = len(points)
        grains = []
        for place, one in enumerate(points):
            share = (place + 0.5) / count
            side = "first" if share < chances.first else "second" if share > 1 - chances.second else "no matter"
            low, high = {"first": (-np.inf, -self.margin), "second": (self.margin, np.inf)}.get(
                side, (-self.margin, self.margin)
            )
            grains.append(Grain(float(np.clip(one, low, high)), side))
        return Belief(
            chances, float(self.mean[at]), float(self.low[at]), float(self.high[at]), tuple(grains)
        )  # fmt: skip

    def ahead(self) -> Ahead:
        """Return a look ahead from here."""
        return Ahead(self.found, self.sums.asked, self.margin)


def read_across(
    evidence: Evidence, names: tuple[str, str], who: str = "table", margin: float = MARGIN,
    quicker: Mapping[str, str] | None = None,
) -> Across:  # fmt: skip
    """Determine what the book says of two ways: a row for each cut.

    Parameters
    ----------
    who : str
        ``table`` for who tasted, each as often as they did; ``guest`` for anybody else.
    margin : float
        The difference that matters [points].
    quicker : mapping
        By cut, a sentence that says which way is quicker or cheaper, for where nothing else matters.
    """
    fitted = Fitted(evidence, who, margin) if evidence.scored else None
    ahead = None if fitted is None else fitted.ahead()
    seats = [evidence.tasters.index(name) for name in evidence.usual_tasters()]
    rows = []
    for place, cut in enumerate(evidence.cuts):
        at = place + 1
        counted, votes = evidence.counted(cut), evidence.votes(cut)
        more = None
        if fitted is not None and ahead is not None:
            state, _ = named(fitted.chances(at), counted, votes)
            more = more_needed(ahead, at, place, seats, counted) if state == "not yet known" else None
        rows.append(row_of(cut, fitted, at, names, more, evidence, (quicker or {}).get(cut, "")))
    rows.sort(key=lambda row: (row.belief is None, 0.0 if row.belief is None else row.belief.mean))
    everything = row_of("", fitted, 0 if fitted is None else fitted.sums.all_cuts, names, None, evidence)
    sides = [row.state for row in rows]
    if "first" in sides and "second" in sides:
        depends = says.say_depends(names, sides.count("first"), sides.count("second"))
        everything = replace(everything, state="not yet known", headline=DEPENDS, says=(depends,))
    claims = [(row.state, row.belief.chances) for row in rows if row.belief is not None]
    stand = [claim for claim in claims if claim[0] != "not yet known"]
    wrong = wrong_among(stand)
    told = [says.say_wrong(wrong, len(stand)), *_ceiling(evidence, names), *_order(fitted)]
    return Across(names, who, margin, tuple(rows), everything, _traits(fitted, names), tuple(told), wrong, len(stand))


def row_of(
    cut: str, fitted: Fitted | None, at: int, names: tuple[str, str], more: More | None, evidence: Evidence,
    quicker: str = "",
) -> CutRow:  # fmt: skip
    """Return the row of a cut, whose sum stands `at` a place; of all of them where it has no name."""
    counted, votes = evidence.counted(cut or None), evidence.votes(cut or None)
    said_votes = says.say_votes(votes, names)
    if fitted is None:
        said = tuple(filter(None, [said_votes, says.say_short(counted)]))
        return CutRow(cut, "not yet known", "", says.headline("not yet known", names), said, None, None, None, counted,
                      votes, None, None)  # fmt: skip
    belief = fitted.belief(at)
    state, withheld = named(belief.chances, counted, votes)
    told = [says.say_belief(state, names, belief.chances, fitted.margin)]
    own = _own(evidence, cut)
    if withheld:
        told.append(says.say_withheld(withheld, names, votes))
    elif state == "no matter":
        told.append(quicker)
    elif state == "not yet known":
        told.append(says.say_short(counted))
        if more is not None:
            told.append(says.say_more(more))
    else:
        told.append(says.say_size(belief.mean, belief.low, belief.high, names))
    if cut and own is not None and counted.cooks == 1 and len(evidence.scored) > 1:
        told.append(says.say_leans(own, belief.mean, names))
    if not withheld:
        told.append(said_votes)
    told.append(" ".join(_ceiling(evidence, names, cut)) if cut else "")
    return CutRow(
        cut, state, withheld, says.headline(state, names), tuple(filter(None, told)), belief,
        _difference(fitted, at, counted, own), _chance(fitted, belief, counted), counted, votes, own, more,
    )  # fmt: skip


def _own(evidence: Evidence, cut: str) -> float | None:
    """Return the mean of a cut's own cards [points]; of all where none is named."""
    found = evidence.numbers(cut or None)[:, 0]
    return float(found.mean()) if len(found) else None


def _difference(fitted: Fitted, at: int, counted: Counted, own: float | None) -> Figure:
    everything = fitted.sums.all_cuts
    steps = [Step("Cards that scored both", f"of {says.say_counted(counted.cooks, 'cook')}", counted.cards, "cards")]
    if own is not None:
        steps.append(Step("Mean of their differences", "second less first", own, "points"))
    steps += [
        Step("Over all cuts", "what the others lend", float(fitted.mean[everything]), "points", "across"),
        Step("Believed", "mixed model: cuts, cooks, tasters, what else differed", float(fitted.mean[at]), "points",
             "across"),
    ]  # fmt: skip
    return figure(steps, "95 times in 100 within", low=float(fitted.low[at]), high=float(fitted.high[at]))


def _chance(fitted: Fitted, belief: Belief, counted: Counted) -> Figure:
    chances = belief.chances
    sides = {"first": chances.first, "second": chances.second, "neither": chances.neither}
    most = max(sides.values())
    steps = [
        Step("First better by the margin", f"P(second less first ≤ −{fitted.margin:g})", chances.first, "", "across"),
        Step("Second better by the margin", f"P(second less first ≥ {fitted.margin:g})", chances.second, "", "across"),
        Step("Clean cooks", "that differ in nothing else", counted.clean_cooks, "cooks"),
        Step("Clean cards", "of tasters who did not know", counted.clean_cards, "cards"),
        Step("A name takes", "at least, with enough clean cooks and cards", SURE, ""),
        Step("The likeliest", "of better, worse, and no difference that matters", most, ""),
    ]
    return figure(steps, "exact for the model; docs/calibration.md says how often it is right")


def _traits(fitted: Fitted | None, names: tuple[str, str]) -> tuple[TraitSaid, ...]:
    """Return the contrasts of cuts that hold by the margin."""
    if fitted is None:
        return ()
    found = []
    for one in TRAITS:
        at = fitted.sums.trait.get(one.key)
        if at is None:
            continue
        chances, mean = fitted.chances(at), float(fitted.mean[at])
        if max(chances.first, chances.second) >= SURE:
            second = chances.second >= SURE
            said = says.say_trait(one.have, one.lack, second, names, mean)
            found.append(TraitSaid(one.key, mean, max(chances.first, chances.second), said))
    return tuple(found)


def _ceiling(evidence: Evidence, names: tuple[str, str], cut: str | None = None) -> list[str]:
    """Say that scores are near the top of the scale, where there is little room to be better."""
    told = []
    for side, name in enumerate(names):
        given = evidence.numbers(cut)[:, 3 + side]
        if len(given) and (given >= TOP).mean() >= NEAR_TOP:
            told.append(
                f"Scores of {name} are near the top of the scale, so that a difference looks smaller than it is."
            )
    return told


def _order(fitted: Fitted | None) -> list[str]:
    """Say what coming first on the card gives, where that is clear."""
    if fitted is None or not fitted.found.statistics.ordered:
        return []
    low, high, mean = float(fitted.low[-1]), float(fitted.high[-1]), float(fitted.mean[-1])
    if low < 0 < high:
        return []
    more = "more" if mean > 0 else "less"
    return [f"What comes first on a card gets about {abs(mean):.1f} points {more}; that is taken out."]
