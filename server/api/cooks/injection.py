"""How a piece is injected: as typed, and what that comes to."""

from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from pydantic import BaseModel, Field
from ravska_core.coat import MOST_SITES, InjectionReading, Spread
from ravska_core.working import Figure

from api.plumbing.typed import Number, Typed


class InjectionDocument(BaseModel):
    """How a piece is injected, as typed; what is empty is as usual. Weights are what was weighed around it.

    `wants` is the salt it is to bring [% of raw edible weight]; `sites` are places set by hand as shares of the
    piece's length and width, none for those of the grid.
    """

    wants: Typed = ""
    grid: Literal["hexagonal", "square"] = "hexagonal"
    spacing: Typed = ""
    sites: Annotated[list[Annotated[list[Number], Field(min_length=2, max_length=2)]], Field(max_length=MOST_SITES)] = (
        Field(default=[])
    )
    bore: Typed = ""
    syringe: Typed = ""
    stroke: Typed = ""
    before: Typed = ""
    after: Typed = ""
    used: Typed = ""


@dataclass(frozen=True, slots=True)
class StrengthOut:
    """How salty the liquid must be [%], how salty the blend is, and what to add [g] to how much of it [g]."""

    needed: Figure
    now_percent: float
    add_g: float
    of_g: float
    grind: str
    says: str


@dataclass(frozen=True, slots=True)
class MisplacedOut:
    """A site that no needle can go in at, by its place, and why: bone or edge."""

    site: int
    why: str


@dataclass(frozen=True, slots=True)
class GapOut:
    """The meat farthest from any site, as shares of length and width, and how far [cm]; `wide` when it wants a site."""

    x: float
    y: float
    cm: float
    wide: bool


@dataclass(frozen=True, slots=True)
class SpreadOut:
    """Injected salt over the face by the fire, and the share of the meat with at least half of the mean [%].

    `rows` are drawn row by row from the thick end: a figure for each cell, fifths of the mean rounded down and at most
    9, and a full stop where there is no meat.
    """

    rows: list[str]
    seasoned: Figure


@dataclass(frozen=True, slots=True)
class CoarseOut:
    grind: str
    grain_mm: float


@dataclass(frozen=True, slots=True)
class InjectionOut:
    """What an injection comes to: its plan, pump, what stays, liquid, sites, strokes and fills, and what would clog."""

    spacing_cm: float
    syringe_ml: float
    most_stroke_ml: float
    pump: Figure
    stays: Figure
    weighed: bool
    expected_g: float
    liquid_ml: float
    liquid_percent: float
    strength: StrengthOut | None
    sites: list[list[float]]
    own_sites: bool
    misplaced: list[MisplacedOut]
    site_ml: Figure
    sites_in_all: int
    strokes: int
    stroke_ml: float
    strokes_in_all: int
    fills: int
    sites_a_fill: int
    evenness: Figure
    spread: SpreadOut | None
    reach_mm: float
    gap: GapOut | None
    coarse: list[CoarseOut]
    bore_mm: float
    most_mm: float
    times_water: float
    brix: float
    asks: list[str]
    says: list[str]


def _spread_out(found: Spread) -> SpreadOut:
    fifths = np.where(np.isnan(found.of_mean), -1, np.clip(np.nan_to_num(found.of_mean) * 5, 0, 9)).astype(int)
    figures = np.array([*"0123456789", "."])
    return SpreadOut(["".join(row) for row in figures[fifths]], found.seasoned)


def injection_out(found: InjectionReading) -> InjectionOut:
    strength, gap, clog = found.strength, found.gap, found.clog
    return InjectionOut(
        spacing_cm=found.plan.spacing_cm,
        syringe_ml=found.plan.syringe_ml,
        most_stroke_ml=found.plan.stroke_ml,
        pump=found.pump,
        stays=found.stays,
        weighed=found.weighed,
        expected_g=found.expected_g,
        liquid_ml=found.liquid_ml,
        liquid_percent=found.liquid_percent,
        strength=None if strength is None else StrengthOut(
            strength.needed, strength.now_percent, strength.add_g, strength.of_g, strength.grind, strength.says
        ),
        sites=[[x, y] for x, y in found.sites],
        own_sites=found.own_sites,
        misplaced=[MisplacedOut(one.site, one.why) for one in found.misplaced],
        site_ml=found.site_ml,
        sites_in_all=found.sites_in_all,
        strokes=found.strokes,
        stroke_ml=found.stroke_ml,
        strokes_in_all=found.strokes_in_all,
        fills=found.fills,
        sites_a_fill=found.sites_a_fill,
        evenness=found.evenness,
        spread=None if found.spread is None else _spread_out(found.spread),
        reach_mm=found.reach_mm,
        gap=None if gap is None else GapOut(gap.x, gap.y, gap.cm, gap.wide),
        coarse=[CoarseOut(grind.key, grind.grain_mm) for grind in clog.coarse],
        bore_mm=clog.bore_mm,
        most_mm=clog.most_mm,
        times_water=clog.times_water,
        brix=clog.brix,
        asks=list(found.asks),
        says=list(found.says),
    )  # fmt: skip
