"""The cautions of a piece and its layers, a row a rule. Usual US guidance, from memory, unless a row says otherwise."""

from collections.abc import Iterable

from ravska_core.cautions.guidance import (
    ANIMAL_CLASSES,
    LOCAL_RULES,
    is_poultry,
    minimum_centre_c,
)
from ravska_core.cautions.judging import Caution, Rule, judge
from ravska_core.cautions.situation import Situation
from ravska_core.cautions.words import (
    CENTRE_S,
    DAY_S,
    HOUR_S,
    bath_words,
    below,
    below_whole,
    below_words,
    kept_long,
    meat,
    minimum_met,
    not_intact_c,
    not_intact_goal,
    not_intact_met,
    raw_long,
    raw_words,
    said_c,
    warm_words,
)
from ravska_core.units import say_duration

_RULES: tuple[Rule[Situation], ...] = (
    Rule(
        "cure", "stop", lambda s: "cure" in s.flags,
        "This holds curing salt, which is not a seasoning{much}.",
        "Do not dose it by taste or surface: use a tested cure recipe with its own weights and days.", "cure-limits",
        lambda s: {
            "much": f": {s.nitrite_mg_kg:,.0f} mg of sodium nitrite to a kilogram of meat" if s.nitrite_mg_kg else ""
        },
    ),
    Rule(
        "not-intact", "stop",
        lambda s: not s.intact and below(s, not_intact_c(s)),
        "{what} is not intact: surface bacteria are inside now, and {end} in the centre is too low for it.",
        "Bring the centre to {goal}{whole}; " + LOCAL_RULES,
        "guidance",
        lambda s: {
            "what": "Minced meat" if s.minced else "Injected, needled, rolled or deeply scored meat",
            "end": said_c(s.endpoint_c or 0.0),
            "goal": not_intact_goal(s),
            "whole": "" if s.minced else ", or leave the meat whole",
        },
    ),
    Rule(
        "below-minimum-poultry", "stop", lambda s: below_whole(s) and is_poultry(s.animal),
        "{end} in the centre is below the usual minimum for {animal}, {minimum}.",
        "Cook it to {minimum}; " + LOCAL_RULES, "guidance",
        below_words,
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
        "garlic-oil", "stop", lambda s: s.oily_herbs and kept_long(s),
        "Raw garlic, onion or herbs in oil, {how}: botulism grows there unseen.",
        "Throw it away or never keep it so: cold and at most four days, or frozen, or with dried ones.", "guidance",
        lambda s: {
            "how": "in a jar that is not frozen" if s.in_jar and not s.frozen
            else "kept for more than 4 days" if s.on_s > 4 * DAY_S else "warm for more than 2 h"
        },
    ),
    Rule(
        "warm-hold", "stop", lambda s: s.clocks.stops,
        "{why}.",
        "Keep it at 4 °C (40 °F) or below, and thaw it there: off the cold at most 2 h in all before the fire, "
        "1 h where it is above 32 °C (90 °F), 4 h with a warm bath.",
        "guidance", warm_words,
    ),
    Rule(
        "raw-too-long", "stop", lambda s: raw_long(s, 2),
        "Raw for {days} days: twice as long as {meat} is usually kept cold, {most} days.",
        "Do not eat it so; cook or freeze it within {most} days.", "guidance", raw_words,
    ),
    Rule(
        "raw-long", "caution", lambda s: raw_long(s, 1) and not raw_long(s, 2),
        "Raw for {days} days: {meat} is usually kept cold for at most {most}.",
        "Cook it earlier, or freeze it; from {twice} days on do not eat it.", "guidance", raw_words,
    ),
    Rule(
        "warm-bath", "caution", lambda s: s.clocks.warns and not s.clocks.stops,
        "In a warm bath that does not cook it yet it is {said}: bacteria grow there fastest.",
        "Set the bath to 54.4 °C (130 °F) or more, cut the meat thinner, or shorten it; {most} in all is a stop.",
        "guidance", bath_words,
    ),
    Rule(
        "acid-24h", "caution", lambda s: s.has_marinade and s.acid and s.hold_s > 24 * HOUR_S,
        "More than 24 h in acid turns meat soft and grey.",
        "Take it out within 24 h.", "trade",
    ),
    Rule(
        "past-window", "caution",
        lambda s: s.has_marinade and s.window_high_s is not None and s.hold_s > s.window_high_s,
        "This hold is longer than even the long school keeps this meat in this marinade{warm}: {most}.",
        "Shorten the hold, {weaken}.", "trade",
        lambda s: {
            "most": say_duration(s.window_high_s or 0.0),
            "warm": "" if s.hold_c <= 5 else f" at {s.hold_c:.0f} °C",
            "weaken": "or weaken the acid" if s.acid else "or hold it in the cold" if s.hold_c > 5
            else "and let the rest of the time pass without it",
        },
    ),
    Rule(
        "protease", "caution",
        lambda s: (s.has_marinade or s.coated) and "protease" in s.flags and s.on_s > HOUR_S,
        "Fresh pineapple, papaya, kiwi, fig or ginger digests meat to mush.",
        "Keep it on under 1 h, or use the canned, boiled or dried kind, whose enzyme is dead.", "trade",
    ),
    Rule(
        "garlic-oil-cold", "caution", lambda s: s.oily_herbs and not kept_long(s) and s.on_s > DAY_S,
        "Raw garlic, onion or herbs lie in oil for {days} days.",
        "Cold and airtight all the time, at most 4 days in all; then throw it away.", "guidance",
        lambda s: {"days": f"{s.on_s / DAY_S:.1f}"},
    ),
    Rule(
        "discard-or-boil", "caution", lambda s: s.has_marinade and not s.boiled,
        "Marinade that touched raw meat is not a sauce.",
        "Set the reserve aside before the meat goes in; discard the rest or bring it to a full boil.",
        met=lambda s: "Met if the bath is thrown away afterwards, as planned; only what was set aside is a sauce.",
        at_step=True,
    ),
    Rule(
        "boil-first", "caution", lambda s: s.has_marinade and s.boiled,
        "This bath has held raw meat and is to be eaten.",
        "Bring it to a full, rolling boil before it touches anything cooked, and taste it only then.",
        at_step=True,
    ),
    Rule(
        "reserve", "caution", lambda s: s.has_marinade and s.reserve_short,
        "The {after} is of the same blend as the bath, and less of it is set aside than the {after} takes.",
        "Set enough aside before the meat goes in: what has held raw meat must not go onto cooked meat.", "guidance",
        lambda s: {"after": s.used_after}, at_step=True,
    ),
    Rule(
        "rinse-splash", "caution", lambda s: s.rinsed and is_poultry(s.animal),
        "Rinsing raw poultry splashes its bacteria over sink, board and hands.",
        "Wipe it with paper instead, or rinse it in a covered bowl and scrub the sink with hot soapy water.",
        at_step=True,
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
        "below-minimum-fish", "caution", lambda s: below_whole(s) and ANIMAL_CLASSES.get(s.animal) == "fish",
        "{end} in the centre is below the usual minimum for fish, {minimum}: parasites live through it, and a seared "
        "outside does not help.",
        "Use only fish that was frozen for it, −20 °C (−4 °F) for 7 days, and do not serve it so to guests who are "
        "pregnant, old, very young or ill; " + LOCAL_RULES, "guidance",
        below_words,
    ),
    Rule(
        "below-minimum", "caution",
        lambda s: below_whole(s) and not is_poultry(s.animal) and ANIMAL_CLASSES.get(s.animal) != "fish",
        "{end} in the centre is below the usual minimum for {animal}, {minimum}.",
        "Only whole, unpierced meat is eaten so by choice: sear all of its surface, and do not serve it so to guests "
        "who are pregnant, old, very young or ill; " + LOCAL_RULES, "guidance",
        below_words,
    ),
    Rule(
        "centre-slow", "caution", lambda s: not s.intact and s.fire_s > CENTRE_S,
        "{fire} on the fire, and it is not intact: its centre should pass 60 °C (140 °F) within 4 h.",
        "Measure it there; start hotter or cut it smaller. If it took more than 6 h, do not eat it.", "guidance",
        lambda s: {"fire": f"{'By its phases' if s.fired else 'Usually'} {say_duration(s.fire_s)}"},
    ),
    Rule(
        "surface-slow", "caution", lambda s: s.wet and s.fire_s > CENTRE_S,
        "It goes to a slow fire cold and dripping: in a low pit its surface may stay below 60 °C (140 °F) for long.",
        "Dry it first, or begin hotter: the surface should pass 60 °C within 4 h.", "guidance",
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
        "Pour off what you need, draw from that, and throw away what is left of it.", at_step=True,
    ),
    Rule(
        "inject-again", "caution", lambda s: s.again,
        "Injecting while it cooks carries bacteria from the surface and the needle into meat that is only warm.",
        "Use a clean needle and liquid fresh from the boil, and bring the centre to {goal} afterwards.", "guidance",
        lambda s: {"goal": not_intact_goal(s)}, at_step=True,
    ),
    Rule(
        "drippings", "caution", lambda s: s.drippings,
        "Drippings carry what raw meat held.",
        "Bring them to a full boil before they are a sauce; discard what fell while the meat was raw.", at_step=True,
    ),
    Rule(
        "falls-off", "caution", lambda s: s.coat_over_ceiling,
        "This coat is heavier than what sticks to this surface.",
        "Use a binder or a lighter coat; the salt counts only what sticks.", "estimate",
    ),
    Rule(
        "cold-hold", "note", lambda s: s.clocks.cold_s > HOUR_S,
        "A hold this long belongs in the cold.",
        "Keep it at 4 °C (40 °F) or below until it goes on.",
        met=lambda s: "Held cold, as planned: met if it is 4 °C (40 °F) or below there: measure.",
    ),
    Rule(
        "garlic-oil-today", "note", lambda s: s.oily_herbs and not kept_long(s) and s.on_s <= DAY_S,
        "Raw garlic, onion or herbs lie in oil: made for today, that is how it is eaten.",
        "Use it the same day; what is left goes cold for at most four days, or is frozen, never on the shelf.",
    ),
    Rule(
        "pierced", "note", lambda s: not s.intact and not below(s, not_intact_c(s)),
        "{what} is not intact: surface bacteria are inside now.",
        "Bring the centre to {goal}; " + LOCAL_RULES, "guidance",
        lambda s: {
            "what": "Minced meat" if s.minced else "Injected, needled, rolled or deeply scored meat",
            "goal": not_intact_goal(s),
        },
        not_intact_met,
    ),
    Rule(
        "dead-enzyme", "note", lambda s: s.has_marinade and "heat_treated" in s.flags and "protease" not in s.flags,
        "Canned or boiled juice has no active enzyme: it sours and sweetens, and does not loosen the meat.",
        "Hold it as long as its acid allows; for the enzyme's work take the fresh juice, under an hour.", "trade",
    ),
    Rule(
        "minimum-centre", "note", lambda s: bool(s.animal),
        "Usual minimum in the centre for {meat}: {minimum}.",
        "Measure in the thickest part; " + LOCAL_RULES, "guidance",
        lambda s: {"meat": meat(s), "minimum": minimum_centre_c(s.animal, s.minced)[1]},
        minimum_met,
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


def cautions_for(
    situation: Situation, only: Iterable[str] | None = None, layer: int | None = None
) -> tuple[Caution, ...]:
    """Return the cautions that apply, most serious first; `only` limits them to some rule ids."""
    wanted = None if only is None else set(only)
    return judge([rule for rule in _RULES if wanted is None or rule.id in wanted], situation, layer)


BLEND_RULES = ("cure", "garlic-oil", "garlic-oil-today", "allergens", "chilli-hands")
"""Rules that can be judged from a blend alone."""
