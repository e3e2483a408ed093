"""What becomes of every layer of a stack: what stays, what moves into another layer's bath, what is lost and where.

Each layer's solute is followed as shares of what was put on, so that they always add up to 1. Layers act on each
other: a bath takes what of an earlier coat has neither dissolved nor gone in, and draws from the meat below it; wiping
takes a stated share of what clings; what is left of a bath can go into the pot. What drips out is not subtracted: all
zones of salt are told on what was put on (common practice), so drippings that are eaten only change their place.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np

from ravska_core.coat.layers import BATHS, INJECTIONS, LAYER_KINDS, Layer
from ravska_core.coat.on_fire import OnFire
from ravska_core.coat.steps import before_off_s
from ravska_core.diffusion import Array, Column, bath_depth_cm, diffuse, diffusivity_m2_s, even, soak

WIPED, RINSED = 0.5, 1.0
"""Share of the bath that clings which wiping and rinsing take off again (estimates)."""

CLINGS_G_CM2 = 0.05
"""Bath that clings to a piece lifted out of it [g/cm2] (estimate)."""

DRIPS = 0.5
"""Share of a cook's weight loss that drips, the rest evaporates (estimate)."""

MELTED_OFF = "melted off"
"""Where the part of a coat of fat goes that runs into the pan."""


def drip_share(cook_yield: float, water_share: float) -> float:
    """Return drippings over the water of the raw meat, at most 0.9: (1 - yield) x share that drips / water."""
    return min(0.9, (1 - cook_yield) * DRIPS / water_share)


@dataclass(frozen=True)
class Dosed:
    """A layer with what its fate needs besides.

    `salt_g_cm2` is its salt over the open surface; `sticks` the share of a coat that the surface can hold, `clings`
    that of a coat of fat which does not melt off; `covered` the share of it that lies on skin, fat or membrane that
    keeps it off the meat; `bath_g_cm2` the bath over the open surface, `bath_water` the water in it [mass fraction],
    `times` how many times as much of its salt goes in as is reckoned.
    """

    layer: Layer
    salt_g_cm2: float = 0.0
    sticks: float = 1.0
    clings: float = 1.0
    covered: float = 0.0
    bath_g_cm2: float = 0.0
    bath_water: float = 1.0
    times: float = 1.0


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


@dataclass
class _Board:
    """A piece while its layers go on: solutes in the column, on what covers it, on the plate, and what was lost.

    `left` is what is left of a bath that goes into the pot: the shares in it, its mass and its water [g/cm2].
    """

    column: Column | None
    water_share: float
    salt_g_cm2: Array
    cells: Array
    cover: Array
    plate: Array
    fates: list[Fate]
    left: Array
    left_g: float = 0.0
    left_water_g: float = 0.0
    clock: float = 0.0
    fire_s: float = 0.0

    def cook(self, fire: OnFire | None, until_s: float, factor: float) -> None:
        """Let salt move until a time of the fire, by the heat that the meat has there."""
        if fire is None or until_s <= self.fire_s:
            return
        if self.column is not None:
            self.cells = diffuse(self.column, self.cells, fire.moves_cm2(self.fire_s, until_s) * factor)
        self.fire_s = until_s

    def lose(self, where: str, shares: Array) -> None:
        for at, share in enumerate(shares.tolist()):
            self.lose_of(at, where, share)

    def lose_of(self, at: int, where: str, share: float) -> None:
        if share > 0:
            lost = self.fates[at].lost
            lost[where] = lost.get(where, 0.0) + share

    def lying(self) -> Array:
        """Return what lies on the open meat as crystals, as a share of each cell."""
        if self.column is None:
            return np.zeros(len(self.cells))
        return self.column.lying(self.cells @ self.salt_g_cm2, self.water_share)

    def moment(self) -> Moment:
        """Return where everything is now."""
        crystals = self.lying() @ self.cells
        inside = (self.cells.sum(axis=0) - crystals).tolist()
        at_surface, plate = (crystals + self.cover).tolist(), self.plate.tolist()
        found = tuple(Fate(inside[k], at_surface[k], plate[k], dict(fate.lost)) for k, fate in enumerate(self.fates))
        return Moment(self.clock, found, self.cells.copy())


def follow(
    stack: Sequence[Dosed],
    column: Column | None,
    water_share: float,
    drips: float = 0.0,
    diffusivity_factor: float = 1.0,
    until_s: float | None = None,
    times: float = 1.0,
    told: Callable[[int, Callable[[], Moment]], None] | None = None,
    fire: OnFire | None = None,
) -> Moment:
    """Determine where the solute of every layer is at the end of a stack, or at a time of its holds.

    Parameters
    ----------
    column : Column or None
        Meat below 1 cm2 of open surface; None when skin, fat or membrane covers all of it.
    water_share : float
        Water in the raw meat, mass fraction.
    drips : float
        Drippings over the water of the raw meat, by `drip_share`.
    diffusivity_factor : float
        Factor on the diffusivity, for the band of a result.
    until_s : float, optional
        Stop at this time since the first layer went on [s], over the layers that go on before the fire, and then on
        the fire.
    times : float
        Factor on every hold.
    told : callable, optional
        Told the index of each layer after its hold, with a way to ask for the moment.
    fire : OnFire, optional
        What its fire does to it; without one salt stays where its hold has brought it.
    """
    count = len(stack)
    size = len(column.middles_cm) if column else 1
    board = _Board(
        column, water_share, np.array([dosed.salt_g_cm2 for dosed in stack]), np.zeros((size, count)),
        np.zeros(count), np.zeros(count), [Fate() for _ in stack], np.zeros(count),
    )  # fmt: skip
    for at, dosed in enumerate(stack):
        layer = dosed.layer
        kind = LAYER_KINDS[layer.kind]
        if until_s is not None and ((board.clock >= until_s and at > 0) or kind.when != "before"):
            break
        left = None if until_s is None else max(0.0, until_s - board.clock)
        hold_s = layer.hold_s * times
        held = (hold_s if kind.hold_s is not None else 0.0) if left is None else min(hold_s, left)
        dt = diffusivity_m2_s(layer.hold_c) * diffusivity_factor * held * 1e4
        if fire is not None and kind.when == "during":
            board.cook(fire, _goes_on_s(layer, fire), diffusivity_factor)
        if layer.kind in BATHS:
            _bathe(board, dosed, at, dt, lifted=left is None or hold_s <= left)
            if fire is not None and fire.pot_s is None and kind.when == "during":
                board.fire_s += held  # in its liquid salt moves as the liquid has it
        else:
            _put_on(board, dosed, at, drips)
            if column is not None and kind.when == "before":
                board.cells = diffuse(column, board.cells, dt)
        if kind.when == "before":
            board.clock += held
        if told is not None:
            told(at, board.moment)
    if fire is not None:
        on_it = fire.lasts_s if until_s is None else min(fire.lasts_s, until_s - board.clock)
        board.cook(fire, on_it, diffusivity_factor)
    # a bath kept for a pot that never came is thrown away
    board.lose("left in the bath", board.left)
    return board.moment()


def _goes_on_s(layer: Layer, fire: OnFire) -> float:
    """Return when a layer goes on, since the piece went on its fire [s]."""
    if layer.kind == "cooking liquid" and fire.pot_s is not None:
        return fire.pot_s
    return fire.off_s - before_off_s(layer, fire.off_s)


def _put_on(board: _Board, dosed: Dosed, at: int, drips: float) -> None:
    """Put a layer on: on the surface and what covers it, through the meat, or beside it on the plate."""
    layer = dosed.layer
    kind = LAYER_KINDS[layer.kind]
    if layer.kind == "drippings":
        eaten = drips * (layer.dose or 0.0) / 100 * board.cells
        board.cells = board.cells - eaten
        board.plate += eaten.sum(axis=0)
        return
    stays = kind.stays if layer.stays is None else layer.stays
    if layer.kind == "wrap" and layer.eaten is not None:
        stays = layer.eaten
    assert stays is not None
    share = dosed.sticks * stays
    board.lose_of(at, "did not stick", 1 - dosed.sticks)
    board.lose_of(at, "ran out again" if layer.kind in INJECTIONS else "fell or ran off", dosed.sticks - share)
    board.lose_of(at, MELTED_OFF, share * (1 - dosed.clings))
    share *= dosed.clings
    if layer.kind in INJECTIONS and board.column is not None:
        board.cells[:, at] += share * even(board.column)
    elif layer.kind == "wrap" or kind.when == "after":
        board.plate[at] += share
    else:
        covered = 1.0 if board.column is None else dosed.covered
        board.cover[at] += share * covered
        board.cells[0, at] += share * (1 - covered)


def _bathe(board: _Board, dosed: Dosed, at: int, dt_cm2: float, lifted: bool) -> None:
    """Lay the meat in a bath or a pot, and take it out again when it is `lifted`."""
    layer = dosed.layer
    bath = np.zeros(len(board.fates))
    bath[at] = 1.0
    mass, water = dosed.bath_g_cm2, dosed.bath_g_cm2 * dosed.bath_water
    if layer.kind == "cooking liquid" and layer.into_pot:
        # it only goes into the pot with the next one: no meat lies in it by itself
        board.left = board.left + bath
        board.left_g, board.left_water_g = board.left_g + mass, board.left_water_g + water
        return
    if layer.kind == "cooking liquid":
        bath += board.left
        mass, water = mass + board.left_g, water + board.left_water_g
        board.left, board.left_g, board.left_water_g = np.zeros_like(bath), 0.0, 0.0
    # what has neither dissolved nor gone in is washed off
    crystals = board.lying()[:, None] * board.cells
    bath += crystals.sum(axis=0) + board.cover
    board.cells = board.cells - crystals
    board.cover = np.zeros_like(board.cover)
    column = board.column
    if column is not None and mass > 0:
        depth = bath_depth_cm(column, mass, water / mass, board.water_share)
        board.cells, bath = soak(column, board.cells, bath, dt_cm2, depth)
    if not lifted:
        # still in the bath: nothing has been lost yet
        board.lose("in the bath", bath)
        return
    # what boils off a braise leaves its salt in the liquid, which counts by the share that is eaten
    clings = min(1.0, CLINGS_G_CM2 / mass) if layer.kind == "marinade" and mass > 0 else 0.0
    kept = {"as it is": 1.0, "wiped": 1 - WIPED, "rinsed": 1 - RINSED}[layer.after]
    if column is not None:
        board.cells[0] += bath * clings * kept
    else:
        board.cover += bath * clings * kept
    board.lose("wiped or rinsed off", bath * clings * (1 - kept))
    rest = bath * (1 - clings)
    if dosed.times != 1.0:
        rest[at] -= _as_weighed(board, at, dosed.times, float(rest[at]))
    if layer.kind == "marinade" and layer.into_pot:
        board.left = board.left + rest
        board.left_g, board.left_water_g = mass * (1 - clings), water * (1 - clings)
        return
    eaten = layer.eaten or 0.0
    board.plate += rest * eaten
    board.lose("left in the bath" if layer.kind == "marinade" else "left in the liquid", rest * (1 - eaten))


def _as_weighed(board: _Board, at: int, times: float, left: float) -> float:
    """Let so many times as much of a bath's salt be in and on the meat; return what of it the bath then lacks."""
    on = float(board.cells[:, at].sum() + board.cover[at])
    if on <= 0:
        return 0.0
    more = min(on * (times - 1), left)
    board.cells[:, at] *= 1 + more / on
    board.cover[at] *= 1 + more / on
    return more
