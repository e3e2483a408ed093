"""Cautions: plain sentences that say what to do, each from one rule with its condition and source.

Usual guidance only. Your local food authority's rules come first.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from typing import Generic, TypeVar

LEVELS = ("stop", "caution", "note")


@dataclass(frozen=True)
class Situation:
    """What is known of one arm when its cautions are asked for. Temperatures [C], times [s], salt [% of raw edible].

    `nitrite_mg_kg` and `phosphate_percent` are of the raw meat, `brine_percent` is salt of a bath's salt and water;
    `clogs` and `thick` say what stops a needle; `used_after` names a later layer of the same blend as the bath, and
    `reserve_short` says that too little of it is set aside; `boiled` that the bath becomes a sauce.
    """

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
    again: bool = False
    pierced: bool = False
    endpoint_c: float | None = None
    nitrite_mg_kg: float = 0.0
    phosphate_percent: float = 0.0
    brine_percent: float = 0.0
    clogs: str = ""
    bore_mm: float = 2.0
    thick: bool = False
    used_after: str = ""
    reserve_short: bool = False
    boiled: bool = False
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


NOT_INTACT_C = 63.0
"""Usual minimum in the centre of meat that is not intact, held 3 min [C] (usual US guidance, from memory)."""


def _said_c(celsius: float) -> str:
    return f"{celsius:.0f} °C ({celsius * 9 / 5 + 32:.0f} °F)"


def _not_intact_c(s: Situation) -> float:
    return max(NOT_INTACT_C, minimum_centre_c(s.animal)[0])


def _below(s: Situation, least_c: float) -> bool:
    """Tell whether the chosen endpoint is below a minimum; 145 F is said to be 63 C, so a third of a degree is none."""
    return s.endpoint_c is not None and s.endpoint_c < least_c - 0.34


def _not_intact_goal(s: Situation) -> str:
    least = _not_intact_c(s)
    return f"{_said_c(least)}" if least > NOT_INTACT_C else "63 °C (145 °F) for 3 min, or 68 °C (155 °F) for 17 s"


def minimum_centre_c(animal: str) -> tuple[float, str]:
    """Return the usual minimum centre temperature [C] for whole cuts of an animal, and how it is said."""
    if animal in _POULTRY:
        return 74.0, "74 °C (165 °F)"
    if animal in ("venison", "rabbit"):
        return 71.0, "71 °C (160 °F)"
    if animal == "fish":
        return 63.0, "63 °C (145 °F)"
    return 63.0, "63 °C (145 °F) and 3 min rest"


def _below_words(s: Situation) -> dict[str, str]:
    return {"end": _said_c(s.endpoint_c or 0.0), "animal": s.animal, "minimum": minimum_centre_c(s.animal)[1]}


_RULES: tuple[Rule[Situation], ...] = (
    Rule(
        "cure", "stop", lambda s: "cure" in s.flags,
        "This holds curing salt, which is not a seasoning{much}.",
        "Do not dose it by taste or surface: use a tested cure recipe with its own weights.", "cure-limits",
        lambda s: {
            "much": f": {s.nitrite_mg_kg:,.0f} mg of sodium nitrite to a kilogram of meat" if s.nitrite_mg_kg else ""
        },
    ),
    Rule(
        "not-intact", "stop",
        lambda s: s.pierced and _below(s, _not_intact_c(s)),
        "Injected, needled or deeply scored meat is not intact: surface bacteria are inside now, and {end} in the "
        "centre is too low for it.",
        "Bring the centre to {goal}, or leave the meat whole; your local food authority's rules come first.",
        "guidance",
        lambda s: {"end": _said_c(s.endpoint_c or 0.0), "goal": _not_intact_goal(s)},
    ),
    Rule(
        "below-minimum-poultry", "stop",
        lambda s: s.animal in _POULTRY and not s.pierced and _below(s, minimum_centre_c(s.animal)[0]),
        "{end} in the centre is below the usual minimum for {animal}, {minimum}.",
        "Cook it to {minimum}; your local food authority's rules come first.", "guidance",
        _below_words,
    ),
    Rule(
        "phosphate", "stop", lambda s: s.phosphate_percent > 0.5,
        "{percent} % phosphate of the meat's weight is above the usual limit of 0.5 %.",
        "Halve it or leave it out; more tastes soapy and turns the meat to rubber.", "cure-limits",
        lambda s: {"percent": f"{s.phosphate_percent:.2f}"},
    ),
    Rule(
        "enzyme-inside", "stop", lambda s: s.injected and "protease" in s.flags,
        "A live enzyme injected digests the meat from inside.",
        "Use the canned or boiled juice, whose enzyme is dead.", "trade",
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
        "discard-or-boil", "caution", lambda s: s.has_marinade and not s.boiled,
        "Marinade that touched raw meat is not a sauce.",
        "Set the reserve aside before the meat goes in; discard the rest or bring it to a full boil.",
    ),
    Rule(
        "boil-first", "caution", lambda s: s.has_marinade and s.boiled,
        "This bath has held raw meat and is to be eaten.",
        "Bring it to a full, rolling boil before it touches anything cooked, and taste it only then.",
    ),
    Rule(
        "reserve", "caution", lambda s: s.has_marinade and s.reserve_short,
        "The {after} is of the same blend as the bath, and less of it is set aside than the {after} takes.",
        "Set enough aside before the meat goes in: what has held raw meat must not go onto cooked meat.", "guidance",
        lambda s: {"after": s.used_after},
    ),
    Rule(
        "saturation", "caution", lambda s: s.brine_percent > 26.4,
        "Of the bath's salt and water {percent} % is salt, and water takes only 26.4 %.",
        "The rest lies undissolved at the bottom: thin it, or take salt out.", "saturation",
        lambda s: {"percent": f"{s.brine_percent:.0f}"},
    ),
    Rule(
        "clog", "caution", lambda s: bool(s.clogs),
        "It will clog a needle of {bore} mm: {what} is more than a third of its bore.",
        "Grind it to powder and strain the liquid, or take a wider needle.", "trade",
        lambda s: {"bore": f"{s.bore_mm:g}", "what": s.clogs},
    ),
    Rule(
        "thick", "caution", lambda s: s.thick,
        "This syrup is too thick for a needle.",
        "Warm it, or thin it with stock until it runs off the spoon.", "sugar-viscosity",
    ),
    Rule(
        "below-minimum", "caution",
        lambda s: bool(s.animal) and s.animal not in _POULTRY and not s.pierced
        and _below(s, minimum_centre_c(s.animal)[0]),
        "{end} in the centre is below the usual minimum for {animal}, {minimum}.",
        "Only whole, unpierced meat is eaten so by choice: sear all of its surface, and do not serve it so to guests "
        "who are pregnant, old, very young or ill.", "guidance",
        _below_words,
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
        "inject-again", "caution", lambda s: s.again,
        "Injecting while it cooks carries bacteria from the surface and the needle into meat that is only warm.",
        "Use a clean needle and liquid fresh from the boil, and bring the centre to {goal} afterwards.", "guidance",
        lambda s: {"goal": _not_intact_goal(s)},
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
        "pierced", "note", lambda s: s.pierced and not _below(s, _not_intact_c(s)),
        "Injected, needled or deeply scored meat is not intact: surface bacteria are inside now.",
        "Bring the centre to {goal}; your local food authority's rules come first.", "guidance",
        lambda s: {"goal": _not_intact_goal(s)},
    ),
    Rule(
        "dead-enzyme", "note", lambda s: s.has_marinade and "heat_treated" in s.flags and "protease" not in s.flags,
        "Canned or boiled juice has no active enzyme: it sours and sweetens, and does not loosen the meat.",
        "Hold it as long as its acid allows; for the enzyme's work take the fresh juice, under an hour.", "trade",
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
