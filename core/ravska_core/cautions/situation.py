"""What cautions are judged from: a piece or one of its layers, as others describe it."""

from dataclasses import dataclass, field

from ravska_core.cautions.clocks import Clocks


@dataclass(frozen=True)
class Situation:
    """What is known of a piece or one of its layers when its cautions are asked for.

    Temperatures [C], times [s], salt [% of raw edible]. `clocks` say how long it is raw; `fire_s` is the time on the
    fire, by its phases where it is `fired`, else as is usual, `wet` that it goes there dripping from a bath. `hold_s`
    is a layer's own hold at `hold_c`, `on_s` how long the layer lies on the meat in all, `on_warm_s` the part of that
    off the cold; `in_jar` that a blend stands on the shelf, `frozen` how. `nitrite_mg_kg` and `phosphate_percent` are
    of the raw meat, `brine_percent` is salt of a bath's salt and water; `clogs` and `thick` say what stops a needle;
    `used_after` names a later layer of the same blend as the bath, and `reserve_short` says that too little of it is
    set aside; `boiled` that the bath becomes a sauce, or the pot's liquid; `coated` that the layer is a rub or a paste.
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
    fired: bool = False
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
