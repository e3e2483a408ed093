"""What becomes of every layer of a stack: what stays, what moves into another layer's bath, what is lost and where.

Each layer's solute is followed as shares of what was put on, so that they always add up to 1. Layers act on each
other: a bath takes what an earlier coat still has in the film at the surface, and goes on drawing from the meat below
it; wiping takes a stated share of what lies on the surface; drippings carry off a share of what is in the meat.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import partial

import numpy as np

from ravska_core.column import Array, Column, diffuse, even, soak
from ravska_core.depth import diffusivity_m2_s
from ravska_core.layers import BATHS, INJECTIONS, LAYER_KINDS, Layer

WIPED, RINSED = 0.5, 1.0
"""Share of the bath that clings which wiping and rinsing take off again (estimates)."""

CLINGS_G_CM2 = 0.05
"""Bath that clings to a piece lifted out of it [g/cm2] (estimate)."""

DRIPS = 0.5
"""Share of a cook's weight loss that drips, the rest evaporates (estimate)."""


def drip_share(cook_yield: float, water_share: float) -> float:
    """Return drippings over the water of the raw meat, at most 0.9: (1 - yield) x share that drips / water."""
    return min(0.9, (1 - cook_yield) * DRIPS / water_share)


@dataclass(frozen=True)
class Dosed:
    """A layer with what its fate needs besides.

    `sticks` is the share of a coat that the surface can hold; `covered` the share of it that lies on skin, fat or
    membrane that keeps it off the meat; `bath_g_cm2` the bath over the open surface.
    """

    layer: Layer
    sticks: float = 1.0
    covered: float = 0.0
    bath_g_cm2: float = 0.0


@dataclass
class Fate:
    """Where a layer's salt is, as shares of what was put on: in the meat, at its surface, eaten beside it, or lost."""

    meat: float = 0.0
    surface: float = 0.0
    plate: float = 0.0
    lost: dict[str, float] = field(default_factory=dict)

    @property
    def stays(self) -> float:
        """Share that is eaten in the end."""
        return self.meat + self.surface + self.plate

    @property
    def whole(self) -> float:
        """All shares together: 1 once the layer is on."""
        return self.stays + sum(self.lost.values())


@dataclass(frozen=True)
class Moment:
    """A stack at one time: the fates of its layers, and their solutes through the column [share in each cell]."""

    time_s: float
    fates: tuple[Fate, ...]
    cells: Array


def _lose(fate: Fate, where: str, share: float) -> None:
    if share > 0:
        fate.lost[where] = fate.lost.get(where, 0.0) + share


def follow(
    stack: Sequence[Dosed],
    column: Column | None,
    water_share: float,
    drips: float = 0.0,
    faster: float = 1.0,
    until_s: float | None = None,
    told: Callable[[int, Callable[[], Moment]], None] | None = None,
) -> Moment:
    """Determine where the solute of every layer is at the end of a stack, or at a time of its holds.

    Parameters
    ----------
    column : Column or None
        Meat below 1 cm2 of open surface; None when skin, fat or membrane covers all of it.
    water_share : float
        Water in the raw meat, mass fraction: K of the balance between meat and bath.
    drips : float
        Drippings over the water of the raw meat, by `drip_share`.
    faster : float
        Factor on the diffusivity, for the band of a result.
    until_s : float, optional
        Stop at this time since the first layer went on [s], over the layers that go on before the fire.
    told : callable, optional
        Told the index of each layer after its hold, with a way to ask for the moment.
    """
    count = len(stack)
    size = len(column.middles_cm) if column else 1
    film = column.film if column else 1
    cells = np.zeros((size, count))
    cover = np.zeros(count)
    plate = np.zeros(count)
    fates = [Fate() for _ in stack]
    clock = 0.0
    for at, dosed in enumerate(stack):
        layer = dosed.layer
        kind = LAYER_KINDS[layer.kind]
        if until_s is not None and ((clock >= until_s and at > 0) or kind.when != "before"):
            break
        left = None if until_s is None else max(0.0, until_s - clock)
        held = (layer.hold_s if kind.hold_s is not None else 0.0) if left is None else min(layer.hold_s, left)
        dt = diffusivity_m2_s(layer.hold_c) * faster * held * 1e4
        if layer.kind in BATHS:
            cells, cover = _bathe(dosed, at, column, water_share, dt, cells, cover, plate, fates, left)
        else:
            _put_on(dosed, at, column, drips, cells, cover, plate, fates)
            if column is not None and kind.when == "before":
                cells = diffuse(column, cells, dt)
        if kind.when == "before":
            clock += held
        if told is not None:
            told(at, partial(_moment, clock, cells, cover, plate, fates, film))
    return _moment(clock, cells, cover, plate, fates, film)


def _moment(clock: float, cells: Array, cover: Array, plate: Array, fates: list[Fate], film: int) -> Moment:
    at_surface = cells[:film].sum(axis=0) + cover
    inside = cells[film:].sum(axis=0)
    found = tuple(
        Fate(float(inside[k]), float(at_surface[k]), float(plate[k]), dict(fate.lost)) for k, fate in enumerate(fates)
    )
    return Moment(clock, found, cells.copy())


def _put_on(
    dosed: Dosed, at: int, column: Column | None, drips: float, cells: Array, cover: Array, plate: Array,
    fates: list[Fate],
) -> None:  # fmt: skip
    """Put a layer on, in place: on the surface and what covers it, through the meat, or beside it on the plate."""
    layer = dosed.layer
    kind = LAYER_KINDS[layer.kind]
    if layer.kind == "drippings":
        used = (layer.dose or 0.0) / 100
        took = drips * cells
        cells -= took
        for k, share in enumerate(took.sum(axis=0)):
            plate[k] += share * used
            _lose(fates[k], "in the drippings", float(share) * (1 - used))
        return
    stays = kind.stays if layer.stays is None else layer.stays
    if layer.kind == "wrap" and layer.eaten is not None:
        stays = layer.eaten
    assert stays is not None
    share = dosed.sticks * stays
    _lose(fates[at], "did not stick", 1 - dosed.sticks)
    _lose(fates[at], "ran out again" if layer.kind in INJECTIONS else "fell or ran off", dosed.sticks - share)
    if layer.kind in INJECTIONS and column is not None:
        cells[:, at] += share * even(column)
    elif layer.kind == "wrap" or kind.when == "after":
        plate[at] += share
    else:
        covered = 1.0 if column is None else dosed.covered
        cover[at] += share * covered
        cells[0, at] += share * (1 - covered)


def _bathe(
    dosed: Dosed, at: int, column: Column | None, water_share: float, dt_cm2: float, cells: Array, cover: Array,
    plate: Array, fates: list[Fate], left: float | None,
) -> tuple[Array, Array]:  # fmt: skip
    """Lay the meat in a bath, and take it out again unless the clock stopped before; return cells and cover."""
    layer = dosed.layer
    bath = np.zeros(len(fates))
    bath[at] = 1.0
    film = column.film if column else 1
    # what has not gone in yet is washed off
    bath += cells[:film].sum(axis=0) + cover
    cells = cells.copy()
    cells[:film] = 0.0
    cover = np.zeros_like(cover)
    if column is not None:
        # in balance the meat holds K times the bath's share, so that the bath counts as so much meat
        cells, bath = soak(column, cells, bath, dt_cm2, dosed.bath_g_cm2 / water_share / column.density_g_cm3)
    if left is not None and layer.hold_s > left:
        # still in the bath: nothing has been lost yet
        for k, fate in enumerate(fates):
            _lose(fate, "in the bath", float(bath[k]))
        return cells, cover
    # what boils off a braise leaves its salt in the liquid, which counts by the share that is eaten
    clings = 0.0
    if layer.kind == "marinade" and dosed.bath_g_cm2 > 0:
        clings = min(1.0, CLINGS_G_CM2 / dosed.bath_g_cm2)
    kept = {"as it is": 1.0, "wiped": 1 - WIPED, "rinsed": 1 - RINSED}[layer.after]
    stay = bath * clings * kept
    if column is not None:
        cells[0] += stay
    else:
        cover += stay
    gone = bath * clings * (1 - kept)
    rest = bath * (1 - clings)
    eaten = layer.eaten or 0.0
    for k, fate in enumerate(fates):
        plate[k] += float(rest[k]) * eaten
        _lose(fate, "wiped or rinsed off", float(gone[k]))
        _lose(
            fate, "left in the bath" if layer.kind == "marinade" else "left in the liquid", float(rest[k]) * (1 - eaten)
        )
    return cells, cover
