"""A cook as the simulated thermometer has it: a fire, pieces with probes in them, what hands do, and what probes show.

Every number is an estimate; the same seed gives the same cook.
"""

from dataclasses import dataclass, field

import numpy as np

from devices.hidden.fire import Burns, Fire
from devices.hidden.meat import Around, Cut, Meat

_STEP_S = 30.0
"""How often meat meets the fire as it is then [s]."""

REST_C = 21.0

_FLAT = 1.75
"""How many times as wide as thick a piece is from which it is a flat one."""


def cut_of(length_cm: float, width_cm: float, thickness_cm: float, chance: np.random.Generator, start_c: float) -> Cut:
    """Return a piece about so long, wide and thick, with numbers of its own."""
    more = np.exp(chance.normal(0, 0.05, 2))
    own = {
        "start_c": start_c + float(chance.normal(0, 1.0)), "water": float(chance.uniform(2.3, 3.0)),
        "holds": float(chance.uniform(0.4, 0.5)), "at_c": float(chance.uniform(61, 65)),
        "moves": 8e-8 * float(np.exp(chance.normal(0, 0.35))), "conducts": 0.52 * float(np.exp(chance.normal(0, 0.05))),
    }  # fmt: skip
    # a piece is rounder at its ends than a box or a cylinder of its lengths
    if width_cm > _FLAT * thickness_cm:
        return Cut(False, thickness_cm / 200 * more[0], width_cm / 200 * 0.9 * more[1], **own)
    radius = (width_cm * thickness_cm) ** 0.5 / 200
    return Cut(True, radius * more[0], length_cm / 200 * 0.85 * more[1], **own)


@dataclass
class Probe:
    """A probe: where it is, what it is off by, and whether it shows anything."""

    off: float
    along: float
    error_c: float
    noise_c: float = 0.12
    lag_s: float = 12.0
    shows: float | None = None
    silent_s: float = 0.0

    def see(self, celsius: float, dt: float) -> None:
        """Follow what is around its tip."""
        before = celsius if self.shows is None else self.shows
        self.shows = before + (celsius - before) * (1 - np.exp(-dt / self.lag_s))

    def says(self, chance: np.random.Generator) -> float | None:
        """Return what it shows [°C], to a tenth; None while it has dropped out."""
        if self.shows is None or self.silent_s > 0:
            return None
        return round(float(self.shows + self.error_c + chance.normal(0, self.noise_c)), 1)


@dataclass
class OnFire:
    """A piece on the fire with its probes; `by_k` is how much warmer its place is than the pit's probe says."""

    name: str
    meat: Meat
    centre: Probe
    surface: Probe | None = None
    by_k: float = 0.0
    wrapped: bool = False
    liquid_c: float | None = None
    resting: bool = False
    cold: bool = False
    slips_s: float | None = None
    slipped: bool = False


@dataclass
class Wanted:
    """What a piece to be simulated is: its name, lengths [cm], and how it starts; in the `cold` until it goes on."""

    name: str
    length_cm: float
    width_cm: float
    thickness_cm: float
    start_c: float = 5.0
    surface: bool = False
    wrapped: bool = False
    liquid: bool = False
    cold: bool = False


@dataclass
class HiddenCook:
    """Everything at one fire, from when it goes on."""

    burns: Burns
    wanted: list[Wanted]
    seed: int
    drop_outs_an_hour: float = 0.1
    slips: float = 0.0
    pieces: list[OnFire] = field(init=False)

    def __post_init__(self) -> None:
        self.chance = np.random.default_rng(self.seed)
        self.fire = Fire(self.burns, self.chance)
        self.pit = Probe(0.0, 0.0, float(self.chance.normal(0, 1.5)), 0.6, 25.0)
        self.seconds = 0.0
        self.pieces = [self._piece(one) for one in self.wanted]

    def _piece(self, one: Wanted) -> OnFire:
        chance = self.chance
        meat = Meat(cut_of(one.length_cm, one.width_cm, one.thickness_cm, chance, one.start_c))
        centre = Probe(abs(float(chance.normal(0, 0.12))), abs(float(chance.normal(0, 0.2))),
                       float(chance.normal(0, 0.4)))  # fmt: skip
        surface = Probe(0.97, 0.1, float(chance.normal(0, 0.6)), 0.3) if one.surface else None
        slips = float(chance.uniform(0.5, 3) * 3600) if chance.random() < self.slips else None
        return OnFire(one.name, meat, centre, surface, float(chance.normal(0, 4)), one.wrapped,
                      self.burns.set_c if one.liquid else None, cold=one.cold, slips_s=slips)  # fmt: skip

    def go(self, seconds: float) -> None:
        """Let time go by."""
        steps = max(1, round(seconds / _STEP_S))
        for _ in range(steps):
            self._step(seconds / steps)

    def _step(self, dt: float) -> None:
        self.fire.go(dt)
        self.seconds += dt
        self.pit.see(self.fire.celsius, dt)
        for one in self.pieces:
            one.meat.go(dt, self._around(one))
            if one.slips_s is not None and self.seconds > one.slips_s and not one.cold:
                one.slipped = True
            tip = self.fire.celsius if one.slipped else one.meat.at(one.centre.off, one.centre.along)
            one.centre.see(tip, dt)
            if one.surface is not None:
                one.surface.see(one.meat.surface(), dt)
        for probe in self._probes():
            probe.silent_s = max(0.0, probe.silent_s - dt)
            if self.chance.random() < self.drop_outs_an_hour * dt / 3600:
                probe.silent_s = float(self.chance.uniform(60, 900))

    def _probes(self) -> list[Probe]:
        inside = [one.centre for one in self.pieces] + [one.surface for one in self.pieces if one.surface is not None]
        return [self.pit, *inside]

    def _around(self, one: OnFire) -> Around:
        fire = self.fire
        if one.cold:
            return Around(one.meat.cut.start_c, 8.0, wrapped=True)
        if one.resting:
            return Around(REST_C, 7.0, 1200.0, wrapped=one.wrapped)
        if one.liquid_c is not None:
            return Around(min(one.liquid_c, 98.0), 250.0, liquid=True)
        h = fire.burns.h * (1.0 if fire.lid_s <= 0 else 1.3)
        return Around(fire.celsius + one.by_k, h, fire.vapour_pa, wrapped=one.wrapped)

    def shown(self) -> dict[str, float]:
        """Return what each probe shows, by its channel [°C]; those that have dropped out are left out."""
        said = {"pit": self.pit.says(self.chance)}
        for one in self.pieces:
            said[one.name] = one.centre.says(self.chance)
            if one.surface is not None:
                said[f"{one.name} surface"] = one.surface.says(self.chance)
        return {channel: celsius for channel, celsius in said.items() if celsius is not None}

    def do(self, what: str, name: str = "", number: float = 0.0) -> None:
        """Do what hands do: of a piece by its name, or of the fire."""
        mine = [one for one in self.pieces if name in ("", one.name)]
        if what == "lid":
            self.fire.lid(number or 60.0)
        elif what == "fuel":
            self.fire.feed()
        elif what == "set":
            self.fire.set_c = number
        elif what == "spritz":
            self.fire.lid(20.0)
            for one in mine:
                one.meat.crust_r[:] = np.maximum(one.meat.crust_r - 1e-4, 0)
        elif what in ("wrap", "unwrap"):
            self.fire.lid(40.0)
            for one in mine:
                one.wrapped = what == "wrap"
        elif what == "on":
            for one in mine:
                one.cold = one.resting = False
        elif what in ("off", "rest"):
            for one in mine:
                one.resting = True
        elif what == "put back":
            for one in mine:
                one.slipped, one.slips_s = False, None
