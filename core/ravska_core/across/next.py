"""What to cook next: of what is at hand, the trial that is likeliest to settle its cut."""

from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.across import says
from ravska_core.across.ahead import NEW_CUT
from ravska_core.across.evidence import Evidence
from ravska_core.across.reading import Fitted
from ravska_core.across.rule import MARGIN, named

TIE = 0.01
"""Chances that lie no further apart count as ties."""

AGAINST = "Votes go against the scores here: ask again which they would rather have, before more scores."

EVENINGS = 4
"""For up to how many evenings it is told what they would settle."""


@dataclass(frozen=True)
class Evenings:
    """How likely one, two, three and four evenings of so many tasters settle a cut."""

    tasters: int
    chances: tuple[float, ...]


@dataclass(frozen=True)
class NextTrial:
    """A trial that can be cooked: of which cut, how likely it settles it, what it gains [points a plate], and why."""

    cut: str
    settles: float
    gains: float
    known: bool
    cooks: int
    planned: tuple[Evenings, ...]
    says: tuple[str, ...]


def next_trials(
    evidence: Evidence, cuts: Sequence[str], tasters: Sequence[str], who: str = "table",
    margin: float = MARGIN,
) -> tuple[NextTrial, ...]:  # fmt: skip
    """Rank the trials that cuts and tasters at hand allow, one of each cut, by the chance that one settles its cut.

    All change one thing only, the two ways, and everything is clean; ties go by what the cook gains over all cuts.
    """
    if not evidence.scored or not tasters:
        return ()
    fitted = Fitted(evidence, who, margin)
    ahead = fitted.ahead()
    everyone = list(evidence.tasters)
    seats = [everyone.index(name) if name in everyone else -1 for name in tasters]
    sums = [fitted.sums.cut[cut] for cut in evidence.cuts]
    found = []
    for cut in dict.fromkeys([*evidence.cuts, *cuts]):
        if cut not in cuts:
            continue
        counted, votes = evidence.counted(cut), evidence.votes(cut)
        if cut in evidence.cuts:
            at, place = fitted.sums.cut[cut], evidence.cuts.index(cut)
            state, withheld = named(fitted.chances(at), counted, votes)
        else:
            at, place, state, withheld = fitted.sums.all_cuts, NEW_CUT, "not yet known", ""
        known = state != "not yet known"
        counts = sorted({max(1, len(seats) - 2), len(seats), len(seats) + 2})
        planned = tuple(
            Evenings(count, tuple(
                float(chance) for chance in ahead.settles(
                    at, place, [*seats, -1, -1][:count], counted, EVENINGS)
            ))
            for count in counts
        )  # fmt: skip
        # scores alone would not settle what votes speak against
        settles = 0.0 if withheld else next(one.chances[0] for one in planned if one.tasters == len(seats))
        gains = ahead.gain(sums, place, seats)
        found.append(NextTrial(cut, settles, gains, known, counted.cooks, planned, (AGAINST,) if withheld else ()))
    found.sort(key=lambda one: (one.known, -round(one.settles / TIE), -one.gains, one.cut))
    return tuple(
        NextTrial(one.cut, one.settles, one.gains, one.known, one.cooks, one.planned,
                  one.says or tuple(_why(one, at, len(found), len(seats))))
        for at, one in enumerate(found)
    )  # fmt: skip


def _why(one: NextTrial, at: int, of: int, tasters: int) -> list[str]:
    """Say why a trial, and claim no more than that it may settle its cut."""
    many = says.say_counted(tasters, "taster")
    if one.known:
        return ["It is known already; another cook would only make it surer."]
    chance = says.in_ten(one.settles)
    told = []
    if at == 0 and of > 1:
        told.append(f"Of the {says.number(of)} trials that can be cooked it is the likeliest to settle its question.")
    if one.cooks:
        told.append(f"One clean cook with {many} would settle it {chance}.")
    else:
        told.append(f"It was never compared on this cut; one clean cook with {many} would settle it {chance}.")
    return told
