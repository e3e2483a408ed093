"""What a blend will do in the jar, the shaker, the needle and on its fire, and what to do about it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.blend.lines import DRY_KINDS, Blend
from ravska_core.blend.needle import SATURATION, THICK_BRIX, brine_share, clogging, sugar_of_water, syrup_viscosity
from ravska_core.blend.reading import BlendReading
from ravska_core.catalogue import Grind
from ravska_core.cautions import BLEND_RULES, LEVELS, Caution, Rule, Situation, cautions_for, judge

NITRITE_IN_CURING_SALT = 0.0625
"""Mass share of sodium nitrite in the catalogue's curing salt, as its name says."""


def nitrite_share(reading: BlendReading) -> float:
    """Return the sodium nitrite in a blend [mass fraction]."""
    return flagged_share(reading, "cure") * NITRITE_IN_CURING_SALT


def flagged_share(reading: BlendReading, flag: str) -> float:
    return sum(share for grind, share in reading.leaves if flag in grind.ingredient.flags)


FIRE_SURFACE_C: Mapping[str, float] = MappingProxyType(
    {"direct flame": 260.0, "hot iron": 300.0, "indirect": 125.0, "oven": 180.0, "broiler": 290.0}
)
"""What a fire brings the surface of a coat to [C] (estimates; hot iron: common practice)."""

SAID_FIRE: Mapping[str, str] = MappingProxyType(
    {
        "direct flame": "direct flame",
        "hot iron": "hot iron",
        "indirect": "an indirect fire",
        "oven": "a hot oven",
        "broiler": "a broiler",
    }
)
"""A fire as it stands in a sentence."""

_WET = ("marinade", "injection", "spritz", "cooking liquid")

_UNNAMED = ("spices-unnamed", "flavouring-unnamed")

_POWDER_MM = 0.3


@dataclass(frozen=True)
class Found:
    """What the rules look at: the blend, its reading, and what a coat of pure salt puts on a thin cut [%]."""

    blend: Blend
    reading: BlendReading
    thin_cut_salt: float

    @property
    def dry(self) -> bool:
        return self.blend.kind in DRY_KINDS

    def share(self, *grinds: Grind) -> float:
        keys = {grind.key for grind in grinds}
        return sum(share for grind, share in self.reading.leaves if grind.key in keys)

    def those(self, *flags: str) -> list[Grind]:
        return [grind for grind in self.reading.holds if grind.ingredient.flags & set(flags)]


def _name(grind: Grind) -> str:
    return grind.ingredient.name.lower()


def _names(grinds: Sequence[Grind]) -> str:
    names = list(dict.fromkeys(_name(grind) for grind in grinds))
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _powders(found: Found) -> list[Grind]:
    return [grind for grind, _ in found.reading.leaves if 0 < grind.grain_mm <= _POWDER_MM]


def _sieve(found: Found) -> tuple[Grind, Grind] | None:
    """Return which grain goes to the bottom and which stays on top, when they are unlike enough to part."""
    loose = [grind for grind, share in found.reading.leaves if share >= 0.05 and grind.grain_mm > 0]
    if len(loose) < 2:
        return None
    bottom = min(loose, key=lambda grind: (grind.grain_mm, -grind.density_g_ml))
    top = max(loose, key=lambda grind: (grind.grain_mm, -grind.density_g_ml))
    return (bottom, top) if top.grain_mm >= 4 * bottom.grain_mm else None


def _sieve_words(found: Found) -> dict[str, str]:
    pair = _sieve(found)
    assert pair is not None
    bottom, top = pair
    return {
        "bottom": _name(bottom), "top": _name(top), "fine": f"{bottom.grain_mm:g}", "coarse": f"{top.grain_mm:g}",
    }  # fmt: skip


def _scorching(found: Found) -> list[Grind]:
    """Return the grinds that turn bitter on this blend's fire, the most sensitive first."""
    surface = FIRE_SURFACE_C.get(found.blend.fire)
    if surface is None:
        return []
    hot = [
        (grind.ingredient.scorch_c, grind)
        for grind, share in found.reading.leaves
        if grind.ingredient.scorch_c is not None
        and grind.ingredient.scorch_c <= min(surface - 10, 175)
        and share >= 0.01
    ]
    return [grind for _, grind in sorted(hot, key=lambda pair: pair[0])]


def _scorch_words(found: Found) -> dict[str, str]:
    hot = _scorching(found)
    least = hot[0].ingredient.scorch_c or 0.0
    surface = FIRE_SURFACE_C[found.blend.fire]
    fire = SAID_FIRE[found.blend.fire]
    return {"what": _names(hot[:3]), "least": f"{least:.0f}", "fire": fire.capitalize(), "surface": f"{surface:.0f}"}


def _coarse(found: Found) -> list[Grind]:
    return [g for g, share in found.reading.leaves if g.grain_mm >= 1.5 and share >= 0.02]


def _thin_salt(found: Found) -> float:
    return found.thin_cut_salt * found.reading.salt.value / 100


def _oiled_salt(found: Found) -> list[str]:
    """Return the salts that the method puts in after oil, by name."""
    oiled, late = False, []
    parts = found.reading.lines
    for step in found.blend.method:
        if step.do != "mix":
            continue
        named = [parts[at] for at in step.of if at < len(parts)]
        families = {line.name: {grind.ingredient.family for grind, _ in line.leaves} for line in named}
        if oiled:
            late += [name for name, of in families.items() if of == {"salt"}]
        oiled = oiled or any("fat" in of for of in families.values())
    return late


def _doubt(found: Found) -> float:
    """Return how far the salt may lie off because of amounts by eye, relative; 0 without any."""
    salt = found.reading.salt
    if not any(line.error for line in found.blend.lines) or not salt.value or salt.high is None:
        return 0.0
    return salt.high / salt.value - 1


_RULES: tuple[Rule[Found], ...] = (
    Rule(
        "nitrite", "stop", lambda f: bool(f.those("cure")),
        "A kilogram of this blend holds {mg} mg of sodium nitrite.",
        "Usual limits lie between 120 and 625 mg a kilogram of meat: follow a tested cure recipe, never this ratio.",
        "guidance", lambda f: {"mg": f"{nitrite_share(f.reading) * 1e6:,.0f}"},
    ),
    Rule(
        "scorches", "caution", lambda f: f.share(*_scorching(f)) >= 0.05,
        "Bitter past about {least} °C: {what}. {fire} brings the crust to about {surface} °C.",
        "Take it down for this fire with Adapt, sear first and season after, or cook it indirectly.",
        "estimate", _scorch_words,
    ),
    Rule(
        "falls-off-iron", "caution", lambda f: f.blend.fire == "hot iron" and f.share(*_coarse(f)) >= 0.1,
        "Coarse grains fall off on hot iron and hold the meat off it: {what}.",
        "Grind them finer, or press the coat in with a little oil.", "trade",
        lambda f: {"what": _names(_coarse(f))},
    ),
    Rule(
        "too-thick", "caution", lambda f: f.blend.kind == "injection" and sugar_of_water(f.reading) >= THICK_BRIX,
        "At {brix} % sugar of its sugar and water this syrup is about {times} times as thick as water.",
        "Thin it with stock or juice until it runs off the spoon, or warm it, before it goes into the needle.",
        "sugar-viscosity",
        lambda f: {
            "brix": f"{sugar_of_water(f.reading) * 100:.0f}",
            "times": f"{syrup_viscosity(sugar_of_water(f.reading)):.0f}",
        },
    ),
    Rule(
        "clogs", "caution",
        lambda f: f.blend.kind == "injection" and bool(clogging(f.reading.leaves)),
        "Too coarse for a needle: {what}.", "Grind to powder, or steep and strain.", "trade",
        lambda f: {"what": _names(clogging(f.reading.leaves))},
    ),
    Rule(
        "saturation", "caution",
        lambda f: f.blend.kind in _WET and brine_share(f.reading) > SATURATION,
        "Of its salt and water {share} % is salt, and water takes only 26.4 %: the rest stays crystals.",
        "Thin it with water, or take salt out.", "saturation",
        lambda f: {"share": f"{brine_share(f.reading) * 100:.0f}"},
    ),
    Rule(
        "too-salty-thin", "caution", lambda f: f.dry and f.blend.kind == "dry rub" and _thin_salt(f) > 2.2,
        "A standard coat of this puts {salt} % salt on a rack of ribs.",
        "Keep it for thick joints, coat thin cuts lighter, or take salt out.", "trade",
        lambda f: {"salt": f"{_thin_salt(f):.1f}"},
    ),
    Rule(
        "enzyme", "caution", lambda f: "protease" in f.reading.flags,
        "Holds a live enzyme that digests meat to mush: {what}.",
        "Keep meat in it under an hour, or boil it first: heat kills the enzyme.", "trade",
        lambda f: {"what": _names(f.those("protease"))},
    ),
    Rule(
        "cakes", "note", lambda f: f.dry and f.share(*_powders(f)) > 0.4,
        "{share} % of it is powder, which cakes in the jar.",
        "Take granulated garlic and onion for powder, or stir in 1 % corn starch.", "trade",
        lambda f: {"share": f"{f.share(*_powders(f)) * 100:.0f}"},
    ),
    Rule(
        "clumps", "note", lambda f: f.dry and f.share(*f.those("hygroscopic")) > 0.08,
        "Draws moisture and clumps when the air is humid: {what}.",
        "Keep the jar airtight, or mix the sugar in fresh on the day.", "trade",
        lambda f: {"what": _names(f.those("hygroscopic"))},
    ),
    Rule(
        "settles", "note", lambda f: f.dry and _sieve(f) is not None,
        "In the shaker {bottom} ({fine} mm) sinks to the bottom and {top} ({coarse} mm) stays on top.",
        "Turn the jar before every use, or grind {top} finer.", "trade", _sieve_words,
    ),
    Rule(
        "no-acid", "note", lambda f: f.blend.kind == "marinade" and f.reading.acid.value < 0.05,
        "There is no acid in this marinade: it seasons and tints, it does not loosen the meat.",
        "That is fine for tender cuts; add a juice, vinegar or cultured dairy for tough ones.", "trade",
    ),
    Rule(
        "oil-first", "note", lambda f: bool(_oiled_salt(f)),
        "In the method oil goes in before the salt, which then does not dissolve: {what}.",
        "Put the salt and what is watery in first, and the oil last.", "trade",
        lambda f: {"what": ", ".join(_oiled_salt(f))},
    ),
    Rule(
        "label-only", "note", lambda f: f.blend.label is not None,
        "Nobody knows its recipe: by the label it holds {low} to {high} % salt.",
        "Coat lightly, taste, and add; weigh what you take, as spoons add to the doubt.", "label",
        lambda f: {"low": f"{f.reading.salt.low or 0:.0f}", "high": f"{f.reading.salt.high or 0:.0f}"},
    ),
    Rule(
        "unnamed", "caution", lambda f: any(g.ingredient.key in _UNNAMED for g, _ in f.reading.leaves),
        "Holds spices or flavourings that nobody names: mustard, celery, sesame or another allergen may be among them.",
        "Read the label's own allergen line before a guest with an allergy eats of it.", "guidance",
    ),
    Rule(
        "by-eye", "note", lambda f: f.blend.label is None and _doubt(f) > 0.15,
        "Taken by eye, its salt may lie anywhere between {low} and {high} %.",
        "Weigh the salt at least, or weigh the shaker before and after.", "arithmetic",
        lambda f: {"low": f"{f.reading.salt.low or 0:.0f}", "high": f"{f.reading.salt.high or 0:.0f}"},
    ),
    Rule(
        "no-salt", "note",
        lambda f: f.blend.kind in ("dry rub", "marinade", "injection") and f.reading.salt.value < 0.2,
        "There is hardly any salt in it.", "Salt the meat apart, or let this go on top of a salted coat.", "trade",
    ),
)  # fmt: skip


def findings_of(blend: Blend, reading: BlendReading, thin_cut_salt: float) -> tuple[Caution, ...]:
    """Return what a blend will do, and the cautions that can be judged from a blend alone, most serious first.

    Parameters
    ----------
    thin_cut_salt : float
        What a standard coat of pure salt puts on a thin cut [% of raw edible weight]; who knows meat says it.
    """
    situation = Situation(flags=reading.flags, allergens=reading.allergens, fat_share=reading.fat_share)
    cautions = (*cautions_for(situation, BLEND_RULES), *judge(_RULES, Found(blend, reading, thin_cut_salt)))
    return tuple(sorted(cautions, key=lambda caution: LEVELS.index(caution.level)))
