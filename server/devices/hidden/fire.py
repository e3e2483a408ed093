"""A fire as the simulated thermometer has it: fuel that burns down, a lid, whoever tends it, and the weather around.

Temperatures in °C, other quantities in SI units; every number is an estimate.
"""

from dataclasses import dataclass

import numpy as np

_AIR_J_K, _BODY_J_K, _TO_BODY_W_K = 5e3, 3.2e4, 16.0
_FUEL_J_KG, _CATCHES_KG, _CATCHES_S, _LAG_S = 1.1e7, 0.25, 500.0, 420.0
_LID_W_K, _LOW_FUEL_KG, _FED_KG = 55.0, 0.35, 0.7
_STEP_S = 5.0


@dataclass(frozen=True)
class Burns:
    """What burns: ``charcoal``, tended by hand every so often, or ``steady``, which holds itself (pellets, an oven).

    `outdoors` says that the weather is around it; `tray` that water stands in it; `h` couples it to meat [W/m2K].
    """

    kind: str = "charcoal"
    set_c: float = 110.0
    outdoors: bool = True
    tray: bool = False
    h: float = 10.0


class Fire:
    """A fire on its way: the air in it, its body, its fuel, and what is done to it."""

    def __init__(self, burns: Burns, chance: np.random.Generator) -> None:
        self.burns, self.chance, self.set_c = burns, chance, burns.set_c
        self.celsius = burns.set_c + float(chance.normal(0, 4))
        self.body_c = self.celsius - 15
        self.loses = float(chance.uniform(2.6, 4.4))
        self.fuel, self.caught = float(chance.uniform(0.9, 1.8)), 1.0
        self.outside_c, self.wind = float(chance.uniform(8, 24)), 1.0
        self.vapour_pa = float(chance.uniform(1800, 4200)) + (6000.0 if burns.tray else 0.0)
        self.most_w = 3200.0
        self.vent = self.loses * (self.set_c - self.outside_c) * 1.4 / self.most_w
        self.power = self.vent * self.most_w
        self.lid_s = self.looks_s = 0.0
        self.fed = 0

    def lid(self, seconds: float) -> None:
        """Open the lid for so long."""
        self.lid_s = max(self.lid_s, seconds)

    def feed(self) -> None:
        """Put fuel on: it takes a while to catch, and the lid is up for it."""
        if self.burns.kind == "charcoal":
            self.caught *= self.fuel / (self.fuel + _FED_KG)
            self.fuel += _FED_KG
            self.fed += 1
            self.lid(90.0)

    def go(self, seconds: float) -> None:
        """Let time go by."""
        steps = max(1, round(seconds / _STEP_S))
        for _ in range(steps):
            self._step(seconds / steps)

    def _step(self, dt: float) -> None:
        chance, steady = self.chance, self.burns.kind != "charcoal"
        if self.burns.outdoors:
            self.outside_c += float(chance.normal(0, 0.02)) * dt**0.5 - (self.outside_c - 15) * dt / 30_000
            self.wind = float(np.clip(self.wind + chance.normal(0, 0.006) * dt**0.5 - (self.wind - 1) * dt / 3000,
                                      0.6, 1.8))  # fmt: skip
        if steady:
            self.vent = float(np.clip(self.vent + (self.set_c - self.celsius) * dt * 2e-6, 0.01, 0.8))
            aims = (self.vent + 0.004 * (self.set_c - self.celsius)) * self.most_w
            self.power += (max(aims, 0.0) - self.power) * dt / 90.0
        else:
            self._tend(dt)
            aims = self.vent * self.most_w * self.caught * self.fuel / (self.fuel + _CATCHES_KG)
            self.power += (aims - self.power) * dt / _LAG_S
            self.fuel = max(0.0, self.fuel - self.power * 1.6 * dt / _FUEL_J_KG)
            self.caught += (1 - self.caught) * dt / _CATCHES_S
        opened = _LID_W_K if self.lid_s > 0 else 0.0
        self.lid_s = max(0.0, self.lid_s - dt)
        loses = self.loses * self.wind
        gains = self.power - _TO_BODY_W_K * (self.celsius - self.body_c) - opened * (self.celsius - self.outside_c)
        self.celsius += gains * dt / _AIR_J_K
        self.body_c += (_TO_BODY_W_K * (self.celsius - self.body_c) - loses * (self.body_c - self.outside_c)) * (
            dt / _BODY_J_K
        )

    def _tend(self, dt: float) -> None:
        """Look after it now and then: the vents by what the pit shows, more fuel where it has burned low."""
        self.looks_s -= dt
        if self.looks_s > 0:
            return
        self.looks_s = float(self.chance.uniform(500, 1500))
        off = self.set_c - self.celsius
        if abs(off) > 4:
            self.vent = float(np.clip(self.vent * np.exp(0.006 * off), 0.02, 1.0))
        if self.fuel < _LOW_FUEL_KG:
            self.feed()
