"""Cautions: plain sentences that say what to do, each from one rule with its condition and source.

Usual guidance only. Your local food authority's rules come first.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from typing import Generic, TypeVar

LEVELS = ("stop", "caution", "note")


@dataclass(frozen=True)
class Situation:
    """What is known of one arm when its cautions are asked for. Temperatures [C], times [s], salt [% of raw edible]."""

    animal: str = ""
    flags: frozenset[str] = frozenset()
    allergens: tuple[str, ...] = ()
    fat_share: float = 0.0
    has_marinade: bool = False
    acid: bool = False
    hold_s: float = 0.0
    hold_c: float = 4.0
    window_high_s: float | None = None
    salt_percent: float = 0.0
    thin_percent: float = 0.0
    warm_s: float = 0.0
    sodium_mg: float = 0.0
    injected: bool = False
    drippings: bool = False
    coat_over_ceiling: bool = False
    thin: bool = False


@dataclass(frozen=True)
class Caution:
    """A caution as shown: level, sentence, what to do, and its source."""

    id: str
    level: str
    sentence: str
    action: str
    source: str


Known = TypeVar("Known")
"""What a rule is judged from: an arm's `Situation`, or a blend with its reading."""


@dataclass(frozen=True)
class Rule(Generic[Known]):
    """A caution with its condition; `fill` gives what its sentence and its action name."""

    id: str
    level: str
    applies: Callable[[Known], bool]
    sentence: str
    action: str
    source: str = "guidance"
    fill: Callable[[Known], dict[str, str]] = field(default=lambda known: {})


def judge(rules: Sequence[Rule[Known]], known: Known) -> tuple[Caution, ...]:
    """Return the cautions of the rules that apply, most serious first."""
    found = []
    for rule in rules:
        if rule.applies(known):
            words = rule.fill(known)
            found.append(
                Caution(rule.id, rule.level, rule.sentence.format(**words), rule.action.format(**words), rule.source)
            )
    return tuple(sorted(found, key=lambda caution: LEVELS.index(caution.level)))


_POULTRY = ("chicken", "turkey", "duck", "goose")


def minimum_centre_c(animal: str) -> tuple[float, str]:
    """Return the usual minimum centre temperature [C] for whole cuts of an animal, and how it is said."""
    if animal in _POULTRY:
        return 74.0, "74 °C (165 °F)"
    if animal in ("venison", "rabbit"):
        return 71.0, "71 °C (160 °F)"
    if animal == "fish":
        return 63.0, "63 °C (145 °F)"
    return 63.0, "63 °C (145 °F) and 3 min rest"


_RULES: tuple[Rule[Situation], ...] = (
    Rule(
        "cure", "stop", lambda s: "cure" in s.flags,
        "This blend holds curing salt, which is not a seasoning.",
        "Do not dose it by taste or surface: use a tested cure recipe with its own weights.",
    ),
    Rule(
        "garlic-oil", "stop", lambda s: bool(s.flags & {"raw_allium", "fresh_herb"}) and s.fat_share > 0.2,
        "Raw garlic, onion or herbs kept in oil can grow botulism.",
        "Keep it cold and use it within four days, or freeze it, or use dried.",
    ),
    Rule(
        "warm-hold", "stop", lambda s: s.warm_s > 2 * 3600,
        "Its holds are warmer than 4 °C (40 °F) for more than 2 h in all.",
        "Hold it at 4 °C or below; at most 2 h in all between 4 and 60 °C, 1 h where it is above 32 °C (90 °F).",
    ),
    Rule(
        "acid-24h", "caution", lambda s: s.has_marinade and s.acid and s.hold_s > 24 * 3600,
        "More than 24 h in acid turns meat soft and grey.",
        "Take it out within 24 h.", "trade",
    ),
    Rule(
        "past-window", "caution",
        lambda s: s.has_marinade and s.window_high_s is not None and s.window_high_s < s.hold_s <= 24 * 3600,
        "This hold is longer than even the long school keeps this meat in this marinade.",
        "Shorten the hold, or weaken the acid.", "trade",
    ),
    Rule(
        "protease", "caution", lambda s: s.has_marinade and "protease" in s.flags and s.hold_s > 3600,
        "Fresh pineapple, papaya, kiwi, fig or ginger digests meat to mush.",
        "Keep it under 1 h, or use the canned or boiled kind, whose enzyme is dead.", "trade",
    ),
    Rule(
        "discard-or-boil", "caution", lambda s: s.has_marinade,
        "Marinade that touched raw meat is not a sauce.",
        "Set the reserve aside before the meat goes in; discard the rest or bring it to a full boil.",
    ),
    Rule(
        "over-salt", "caution", lambda s: s.salt_percent > 2.2,
        "{salt} % salt is more than most people enjoy.",
        "Coat lighter, or put less salt in the blend.", "trade",
        lambda s: {"salt": f"{s.salt_percent:.2f}"},
    ),
    Rule(
        "thin-salty", "note", lambda s: s.thin and 1.8 < s.salt_percent <= 2.2,
        "A thin piece has much surface for its weight, so the same coat makes it saltier.",
        "Coat it lighter than a thick joint.", "trade",
    ),
    Rule(
        "thin-end-salty", "caution", lambda s: s.thin_percent > 2.2 >= s.salt_percent,
        "The thin end comes to {thin} % salt, more than most people enjoy, though the whole does not.",
        "Coat the thin end lighter, tuck it under, or lower the target.", "trade",
        lambda s: {"thin": f"{s.thin_percent:.2f}"},
    ),
    Rule(
        "sodium", "caution", lambda s: s.sodium_mg > 2000,
        "Its seasoning alone puts {mg} mg of sodium into a serving, more than a whole day's 2,000 mg (WHO).",
        "Lower the salt, or serve smaller portions.", "who",
        lambda s: {"mg": f"{s.sodium_mg:,.0f}"},
    ),
    Rule(
        "sodium-share", "note", lambda s: 400 < s.sodium_mg <= 2000,
        "Its seasoning puts {mg} mg of sodium into a serving: {who} % of the 2,000 mg a day of the WHO, "
        "{us} % of the US guideline's 2,300 mg.",
        "Count it in for guests who watch their salt.", "us-sodium",
        lambda s: {"mg": f"{s.sodium_mg:,.0f}", "who": f"{s.sodium_mg / 20:.0f}", "us": f"{s.sodium_mg / 23:.0f}"},
    ),
    Rule(
        "needle", "caution", lambda s: s.injected,
        "A needle that was in raw meat contaminates the bowl it is dipped into.",
        "Pour off what you need, draw from that, and throw away what is left of it.",
    ),
    Rule(
        "drippings", "caution", lambda s: s.drippings,
        "Drippings carry what raw meat held.",
        "Bring them to a full boil before they are a sauce; discard what fell while the meat was raw.",
    ),
    Rule(
        "falls-off", "caution", lambda s: s.coat_over_ceiling,
        "This coat is heavier than what sticks to this surface.",
        "Use a binder or a lighter coat; the salt below counts only what sticks.", "estimate",
    ),
    Rule(
        "cold-hold", "note", lambda s: s.hold_s > 3600 and s.hold_c <= 4.0,
        "A hold this long belongs in the cold.",
        "Keep it at 4 °C (40 °F) or below until it goes on.",
    ),
    Rule(
        "minimum-centre", "note", lambda s: bool(s.animal),
        "Usual minimum in the centre for {animal}: {minimum}.",
        "Measure in the thickest part; your local food authority's rules come first.", "guidance",
        lambda s: {"animal": s.animal, "minimum": minimum_centre_c(s.animal)[1]},
    ),
    Rule(
        "allergens", "note", lambda s: bool(s.allergens),
        "Holds {allergens}.", "Tell your guests before they eat.", "guidance",
        lambda s: {"allergens": ", ".join(s.allergens)},
    ),
    Rule(
        "chilli-hands", "note", lambda s: "chilli" in s.flags,
        "Chilli stays on the hands.", "Wear gloves, and wash before touching your eyes.",
    ),
)  # fmt: skip


def cautions_for(situation: Situation, only: Iterable[str] | None = None) -> tuple[Caution, ...]:
    """Return the cautions that apply, most serious first; `only` limits them to some rule ids."""
    wanted = None if only is None else set(only)
    return judge([rule for rule in _RULES if wanted is None or rule.id in wanted], situation)


BLEND_RULES = ("cure", "garlic-oil", "allergens", "chilli-hands")
"""Rules that can be judged from a blend alone."""
