"""Cautions: plain sentences that say what to do, each from one rule with its condition and source.

Usual guidance only. Your local food authority's rules come first. The rules of a piece stand in `caution_rules`.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Generic, TypeVar

from ravska_core.clocks import Clocks

LEVELS = ("stop", "caution", "note")

LOCAL_RULES = "your local food authority's rules come first."
"""What every temperature is said with, whatever the plan."""


@dataclass(frozen=True)
class Situation:
    """What is known of a piece or one of its layers when its cautions are asked for.

    Temperatures [C], times [s], salt [% of raw edible]. `clocks` say how long it is raw; `fire_s` is the usual time
    on the fire, `wet` that it goes there dripping from a bath. `hold_s` is a layer's own hold at `hold_c`, `on_s` how
    long the layer lies on the meat in all, `on_warm_s` the part of that off the cold; `in_jar` that a blend stands on
    the shelf, `frozen` how. `nitrite_mg_kg` and `phosphate_percent` are of the raw meat, `brine_percent` is salt of a
    bath's salt and water; `clogs` and `thick` say what stops a needle; `used_after` names a later layer of the same
    blend as the bath, and `reserve_short` says that too little of it is set aside; `boiled` that the bath becomes a
    sauce, or the pot's liquid; `coated` that the layer is a rub or a paste.
    """

    animal: str = ""
    minced: bool = False
    flags: frozenset[str] = frozenset()
    allergens: tuple[str, ...] = ()
    fat_share: float = 0.0
    has_marinade: bool = False
    coated: bool = False
    acid: bool = False
    hold_s: float = 0.0
    hold_c: float = 4.0
    on_s: float = 0.0
    on_warm_s: float = 0.0
    window_high_s: float | None = None
    in_jar: bool = False
    frozen: bool = False
    salt_percent: float = 0.0
    thin_percent: float = 0.0
    clocks: Clocks = field(default_factory=Clocks)
    fire_s: float = 0.0
    wet: bool = False
    sodium_mg: float = 0.0
    injected: bool = False
    again: bool = False
    pierced: bool = False
    rinsed: bool = False
    endpoint_c: float | None = None
    cure: bool = False
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

    @property
    def intact(self) -> bool:
        """Whether its inside never met the surface's bacteria."""
        return not (self.pierced or self.minced)

    @property
    def oily_herbs(self) -> bool:
        """Whether raw garlic, onion or herbs lie in oil."""
        return bool(self.flags & {"raw_allium", "fresh_herb"}) and self.fat_share > 0.2


@dataclass(frozen=True)
class Caution:
    """A caution as shown: level, sentence, what to do, its source, and the layer at whose step it stands, by place."""

    id: str
    level: str
    sentence: str
    action: str
    source: str
    layer: int | None = None


Known = TypeVar("Known")
"""What a rule is judged from: a piece's `Situation`, or a blend with its reading."""


@dataclass(frozen=True)
class Rule(Generic[Known]):
    """A caution with its condition; `fill` gives what its sentence and its action name.

    `met` gives the one line that is left of it when the plan meets it, "" as long as it does not. `at_step` says that
    it stands at the step of the layer it concerns.
    """

    id: str
    level: str
    applies: Callable[[Known], bool]
    sentence: str
    action: str
    source: str = "guidance"
    fill: Callable[[Known], dict[str, str]] = field(default=lambda known: {})
    met: Callable[[Known], str] = field(default=lambda known: "")
    at_step: bool = False


def judge(rules: Sequence[Rule[Known]], known: Known, layer: int | None = None) -> tuple[Caution, ...]:
    """Return the cautions of the rules that apply, most serious first; `layer` is the place of the layer judged."""
    found = []
    for rule in rules:
        if rule.applies(known):
            words, met, at = rule.fill(known), rule.met(known), layer if rule.at_step else None
            sentence, action = rule.sentence.format(**words), rule.action.format(**words)
            if met:
                found.append(Caution(rule.id, "note", met, "", rule.source, at))
            else:
                found.append(Caution(rule.id, rule.level, sentence, action, rule.source, at))
    return tuple(sorted(found, key=lambda caution: LEVELS.index(caution.level)))


ANIMAL_CLASSES: Mapping[str, str] = MappingProxyType(
    {
        **dict.fromkeys(("chicken", "turkey", "duck", "goose", "quail", "pheasant"), "poultry"),
        **dict.fromkeys(("venison", "rabbit"), "game"),
        **dict.fromkeys(("beef", "veal", "lamb", "goat", "pork"), "red meat"),
        "fish": "fish",
    }
)
"""Which class of usual guidance an animal belongs to; every animal of the catalogue has one."""

_MINIMUM: Mapping[str, tuple[float, str]] = MappingProxyType(
    {
        "poultry": (74.0, "74 °C (165 °F)"),
        "game": (71.0, "71 °C (160 °F)"),
        "minced": (71.0, "71 °C (160 °F)"),
        "red meat": (63.0, "63 °C (145 °F) and 3 min rest"),
        "fish": (63.0, "63 °C (145 °F)"),
    }
)
"""Usual minimum in the centre by class [C], and how it is said (usual US guidance, from memory)."""

NOT_INTACT_C = 63.0
"""Usual minimum in the centre of meat that is not intact, held 3 min [C] (usual US guidance, from memory)."""


def is_poultry(animal: str) -> bool:
    """Tell whether an animal is a bird; one that no class is known of counts as one, the strictest."""
    return ANIMAL_CLASSES.get(animal, "poultry") == "poultry" if animal else False


def minimum_centre_c(animal: str, minced: bool = False) -> tuple[float, str]:
    """Return the usual minimum centre temperature [C] of an animal's meat, whole or minced, and how it is said."""
    whole = _MINIMUM[ANIMAL_CLASSES.get(animal, "poultry")]
    return max(whole, _MINIMUM["minced"], key=lambda known: known[0]) if minced else whole


def raw_keeps_days(animal: str, minced: bool = False) -> int:
    """Return for how many days raw meat is usually kept cold: poultry, fish and minced 2, other meat 5."""
    return 2 if minced or is_poultry(animal) or ANIMAL_CLASSES.get(animal) == "fish" else 5
