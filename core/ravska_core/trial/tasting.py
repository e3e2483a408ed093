"""Tasting cards: what a kind of trial asks, the scales of its cards, their words, and how many cards it states."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.working import BadInput


@dataclass(frozen=True)
class TrialKind:
    """A kind of trial: what its cards ask first, how many samples it takes, and how its cards are read.

    `twin` says that one of its samples may come twice, hidden, to learn how well a taster repeats.
    """

    key: str
    says: str
    asks: str
    least: int
    most: int
    twin: bool
    reads: str


MOST_SAMPLES = 6
"""How many samples a taster meets at one sitting: more of them blunt the tongue (common practice, no source)."""

_KINDS = (
    TrialKind("preference", "Preference of two", "Which would you rather have again?", 2, 2, False,
         "Counted: an exact test of how the votes split."),
    TrialKind("ranking", "Ranking", "Put them in order, the best first.", 2, MOST_SAMPLES, True,
         "Ranked: Friedman’s test, then the least difference of rank sums that tells two apart."),
    TrialKind("scores", "Scores", "How much do you like it?", 2, MOST_SAMPLES, True,
         "Scored from 1 to 9: each taster’s differences, with how sure their mean is."),
    TrialKind("triangle", "Can anyone tell?", "Which of the three is not like the others?", 2, 2, False,
         "Two plates are alike and one is not: an exact test of how often it is picked out."),
)  # fmt: skip

KINDS: Mapping[str, TrialKind] = MappingProxyType({kind.key: kind for kind in _KINDS})
"""The kinds of trial, by what their cards ask first."""

LIKING_SCALES = (
    "overall", "look", "smell", "crust", "tenderness", "juiciness", "flavour", "aftertaste", "meat flavour",
)  # fmt: skip
"""Nine-point scales of a card, 1 dislike extremely to 9 like extremely; “meat flavour” from buried to tastes of the
meat itself."""

RIGHT_SCALES = ("salt", "sweet", "heat", "smoke", "sour", "bite")
"""Five-point just-about-right scales: 1 far too little, 3 just right, 5 far too much."""

SALT_SCALE, JUST_RIGHT = "salt", 3

RANK_SCALE, FACE_SCALE = "rank", "face"
"""What a card keeps of an order of plates, 1 the best and ties alike; and of a child's faces, 3 yum, 2 so-so, 1 no."""

USUAL_SCALES = ("overall", "crust", "tenderness", "juiciness", "meat flavour", "salt")
"""What a card asks where nobody chose."""

WORDS = (
    "crunch", "smoke", "sweet", "lingers", "tastes of meat", "juicy", "salty", "hot", "sour", "bitter", "tender",
    "chewy", "dry", "burnt", "herbs", "bland",
)  # fmt: skip
"""Words that are ready on a card to say of a plate."""

MOST_WORDS, LONGEST_WORD = 12, 30
"""How many words a card says of a plate at most, and how long one of a taster's own may be."""

PLANNED_CARDS, MOST_CARDS = 12, 60
"""How many cards a trial states when nobody says otherwise, and how many it can."""


def scale_limits(scale: str) -> tuple[int, int]:
    """Return the lowest and highest score of a scale, or refuse an unknown one."""
    limits = {RANK_SCALE: (1, MOST_SAMPLES), FACE_SCALE: (1, 3)} | dict.fromkeys(LIKING_SCALES, (1, 9))
    limits |= dict.fromkeys(RIGHT_SCALES, (1, 5))
    if scale not in limits:
        known = ", ".join((*LIKING_SCALES, *RIGHT_SCALES))
        raise BadInput("scale", f"“{scale}” is not on the card; it can ask for {known}.")
    return limits[scale]


def find_kind(key: str) -> TrialKind:
    """Return a kind of trial, or refuse an unknown one."""
    if key not in KINDS:
        raise BadInput("kind", f"“{key}” is no kind of trial; choose {', '.join(KINDS)}.")
    return KINDS[key]


def check_scales(scales: Sequence[str]) -> tuple[str, ...]:
    """Return the scales that a card asks for, in the order of the card, or refuse one that is none."""
    known = (*LIKING_SCALES, *RIGHT_SCALES)
    for scale in scales:
        if scale not in known:
            raise BadInput("scales", f"“{scale}” is no scale to choose; a card can ask for {', '.join(known)}.")
    return tuple(scale for scale in (*LIKING_SCALES, *RIGHT_SCALES) if scale in scales)


def check_samples(kind: TrialKind, samples: int, twin: bool, two_by_two: bool) -> None:
    """Refuse samples that a kind of trial cannot take.

    Raises
    ------
    BadInput
        At ``samples``, ``twin`` or ``two_by_two``.
    """
    if not kind.least <= samples <= kind.most:
        how_many = f"{kind.least} samples" if kind.least == kind.most else f"{kind.least} to {kind.most} samples"
        raise BadInput("samples", f"“{kind.says}” takes {how_many}, here are {samples}. Choose another kind or others.")
    if twin and not kind.twin:
        raise BadInput("twin", f"“{kind.says}” has no room for a hidden twin; it goes with ranking and scores.")
    if twin and samples + 1 > MOST_SAMPLES:
        raise BadInput("twin", f"{MOST_SAMPLES} plates are enough for one sitting; leave the twin or a sample out.")
    if two_by_two and (samples != 4 or kind.key not in ("ranking", "scores")):
        raise BadInput("two_by_two", "A two-by-two is four samples, ranked or scored: two things, each in two ways.")
