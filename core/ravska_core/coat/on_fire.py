"""What its fire does to a seasoned piece, as its run says: what is left of it, how salt moves, how it dries."""

from dataclasses import dataclass

import numpy as np

HALF_KG_M2 = 0.2
"""Store at which a surface is half wet, in w = M / (M + 0.2) [kg/m2]."""


@dataclass(frozen=True)
class OnFire:
    """A piece on its fire, from going on until it is carved.

    `cook_yield` is what is left of it [0 to 1]. At `times_s` since it went on [s], `moved_cm2` is how far salt has
    moved in it while no liquid was around it: the sum of D t at its mean temperature [cm2]; `gives_off_kg_m2` what a
    wholly wet surface would have given off [kg/m2], less where water condensed on it. `off_s` is when it comes off the
    fire, `pot_s` when it goes into its liquid, none where it does not [s].
    """

    cook_yield: float
    times_s: tuple[float, ...]
    moved_cm2: tuple[float, ...]
    gives_off_kg_m2: tuple[float, ...]
    off_s: float
    pot_s: float | None = None

    @property
    def lasts_s(self) -> float:
        """How long it is followed, its rest with it [s]."""
        return self.times_s[-1]

    def moves_cm2(self, since_s: float, until_s: float) -> float:
        """Return D t from one time to another [cm2]; nothing where the other is not after the one."""
        began, ended = np.interp((since_s, max(since_s, until_s)), self.times_s, self.moved_cm2)
        return float(ended - began)

    def dry_after_s(self, store_kg_m2: float, dry_kg_m2: float) -> float | None:
        """Determine when a surface has given off the water it went on with [s], by dM = -w E dt; None if never.

        Water that condenses on it first is given off again; what the meat gives up to its surface is not counted.
        """
        store = store_kg_m2
        for at, full in enumerate(np.diff(self.gives_off_kg_m2).tolist()):
            before = store
            if before <= dry_kg_m2 and full >= 0:
                return self.times_s[at]
            # the store at the step's end, M + E dt M / (M + half) = M before, is a quadratic's root
            line = before - HALF_KG_M2 - max(full, 0.0)
            store = 0.5 * (line + (line * line + 4 * HALF_KG_M2 * before) ** 0.5) - min(full, 0.0)
            if store <= dry_kg_m2:
                began, ended = self.times_s[at : at + 2]
                return float(began + (before - dry_kg_m2) / (before - store) * (ended - began))
        return None
