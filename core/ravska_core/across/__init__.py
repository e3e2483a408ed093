"""Verdicts across cooks and cuts: how the liking of two ways differs, how sure, and what to cook next."""

from ravska_core.across.ahead import MOST_MORE, Ahead, More, more_needed
from ravska_core.across.cell import Carries, CellReading, Grown, Without, read_cell
from ravska_core.across.evidence import Evidence, Muddy, PairCard, PairCook, pair_votes
from ravska_core.across.model import Asked, Cards, Priors, Statistics, asked
from ravska_core.across.muddy import by_side, mean_of, muddied, muddied_by
from ravska_core.across.next import EVENINGS, Evenings, NextTrial, next_trials
from ravska_core.across.posterior import Posterior, fit, fit_statistics
from ravska_core.across.reading import (
    MODEL_VERSION,
    Across,
    Belief,
    CutRow,
    Fitted,
    Grain,
    TraitSaid,
    chances_at,
    read_across,
)
from ravska_core.across.rule import (
    CLEAN_CARDS,
    CLEAN_COOKS,
    MARGIN,
    SURE,
    Chances,
    Counted,
    PairVotes,
    decide,
    named,
)
from ravska_core.across.salt import SaltLiked, SaltVote, salt_liked
from ravska_core.across.says import GRAINS, MARGINS, headline_within, margin_words, say_counted, say_quicker, upper
from ravska_core.across.traits import TRAITS, has_trait
from ravska_core.across.ways import SCHOOLS, WAYS, school_of, way_of

__all__ = [
    "CLEAN_CARDS",
    "CLEAN_COOKS",
    "EVENINGS",
    "GRAINS",
    "MARGIN",
    "MARGINS",
    "MODEL_VERSION",
    "MOST_MORE",
    "SCHOOLS",
    "SURE",
    "TRAITS",
    "WAYS",
    "Across",
    "Ahead",
    "Asked",
    "Belief",
    "Cards",
    "Carries",
    "CellReading",
    "Chances",
    "Counted",
    "CutRow",
    "Evenings",
    "Evidence",
    "Fitted",
    "Grain",
    "Grown",
    "More",
    "Muddy",
    "NextTrial",
    "PairCard",
    "PairCook",
    "PairVotes",
    "Posterior",
    "Priors",
    "SaltLiked",
    "SaltVote",
    "Statistics",
    "TraitSaid",
    "Without",
    "asked",
    "by_side",
    "chances_at",
    "decide",
    "fit",
    "fit_statistics",
    "has_trait",
    "headline_within",
    "margin_words",
    "mean_of",
    "more_needed",
    "muddied",
    "muddied_by",
    "named",
    "next_trials",
    "pair_votes",
    "read_across",
    "read_cell",
    "salt_liked",
    "say_counted",
    "say_quicker",
    "school_of",
    "upper",
    "way_of",
]
