"""The clocks of raw meat, and how long each may run by usual guidance."""

from dataclasses import dataclass

COLD_C, HOT_C, COOKS_C = 4.5, 32.0, 54.4
"""Cold up to here (40 F is 4.44 C), hot above 90 F, and the least heat that cooks (130 F) [C] (usual US guidance)."""

OFF_COLD_S, OFF_COLD_HOT_S = 2 * 3600.0, 3600.0
"""Most raw meat may be off the cold in all, and above 32 C [s] (usual US guidance, from memory)."""

BATH_CAUTION_S, BATH_STOP_S = 3600.0, 4 * 3600.0
"""From when raw meat in a warm bath is warned of, and stopped, bench and bag time included [s] (common practice)."""


@dataclass(frozen=True)
class Clocks:
    """How long a piece has been raw [s].

    `off_cold_s` above 4.5 C in air, `off_cold_hot_s` of that above 32 C; `bath_s` in a warm bath that does not cook
    it, and warming up in one that does; `raw_s` all of it, in the cold too, but the thaw. `thawed_warm` says that it
    was thawed in warm water, `cold_s` how long it was held cold.
    """

    off_cold_s: float = 0.0
    off_cold_hot_s: float = 0.0
    bath_s: float = 0.0
    raw_s: float = 0.0
    cold_s: float = 0.0
    thawed_warm: bool = False

    @property
    def warm_s(self) -> float:
        """All of it off the cold, bench and bath together [s]."""
        return self.off_cold_s + self.bath_s

    @property
    def hot_s(self) -> float:
        """All of it above 32 C [s]."""
        return self.off_cold_hot_s + self.bath_s

    @property
    def stops(self) -> bool:
        """Whether it was off the cold for longer than usual guidance allows."""
        return (
            self.off_cold_s > OFF_COLD_S
            or self.off_cold_hot_s > OFF_COLD_HOT_S
            or self.warm_s > BATH_STOP_S
            or self.thawed_warm
        )

    @property
    def warns(self) -> bool:
        """Whether a warm bath has it above 32 C, or off the cold in all, for longer than is warned of."""
        return self.bath_s > 0 and (self.hot_s > BATH_CAUTION_S or self.warm_s > OFF_COLD_S)
