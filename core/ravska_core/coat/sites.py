"""Where the needle goes in: sites on a grid over the face entered from above, clear of bone, and how far apart.

A site is a place on that face as shares of its length and width, so that it stays where it is when the piece grows.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from ravska_core.catalogue import Bone
from ravska_core.meat import Solid
from ravska_core.working import BadInput

Site = tuple[float, float]

Array = NDArray[np.float64]

SPACING_CM = 2.5
"""Usual distance of sites [cm] (common practice, no source)."""

GRIDS = ("hexagonal", "square")

MOST_SITES = 600

CLEAR_CM = 0.3
"""How far beside a bone a site is set [cm] (estimate)."""

WIDE_CM = 3.0
"""A gap wider than this is pointed out [cm] (estimate)."""

CLOSEST_CM, _FARTHEST_CM = 0.8, 10.0

_NEAR_EDGE = 0.25
"""A site keeps this share of the spacing from the edge, where it would squirt out again (estimate)."""


@dataclass(frozen=True)
class Face:
    """The face a needle enters from above: its size [cm], whether it is round, how deep the meat is under it [cm]."""

    length_cm: float
    width_cm: float
    round: bool
    depth_cm: float
    bones: tuple[Bone, ...] = ()

    def holds(self, x_cm: float, y_cm: float, inside_cm: float = 0.0) -> bool:
        """Tell whether a place lies on the face, at least so far inside its edge."""
        return bool(_held(self, np.array(x_cm), np.array(y_cm), inside_cm))

    def bone_at(self, x_cm: float, y_cm: float, beside_cm: float = 0.0) -> Bone | None:
        """Return the bone a place lies on, or nearer to than `beside_cm`; None where it is clear."""
        for bone in self.bones:
            x, y = _nearest(self, bone, x_cm, y_cm)
            if math.hypot(x_cm - x, y_cm - y) < bone.wide * self.width_cm / 2 + beside_cm - 1e-9:
                return bone
        return None


def _nearest(face: Face, bone: Bone, x_cm: float, y_cm: float) -> tuple[float, float]:
    """Return the place on a bone's middle line that is nearest to a place [cm]."""
    x0, y0 = bone.x0 * face.length_cm, bone.y0 * face.width_cm
    dx, dy = bone.x1 * face.length_cm - x0, bone.y1 * face.width_cm - y0
    long = dx * dx + dy * dy
    along = 0.0 if long < 1e-12 else min(1.0, max(0.0, ((x_cm - x0) * dx + (y_cm - y0) * dy) / long))
    return x0 + along * dx, y0 + along * dy


def face_of(solid: Solid, bones: tuple[Bone, ...]) -> Face:
    """Return the face of one piece as it lies on the board, its broad side up."""
    rounded = solid.shape in ("ellipsoid", "bird")
    # a bird is hollow: the meat under its skin is as thick as it has volume
    deep = 2 * solid.volume_cm3 / solid.area_cm2 if solid.shape == "bird" else solid.thickness_cm
    return Face(solid.length_cm, solid.width_cm, rounded, deep, bones)


def _lattice(face: Face, spacing_cm: float, grid: str) -> list[tuple[float, float]]:
    """Return the places of a lattice around the middle of a face that lie inside its edge [cm], row by row."""
    row_cm = spacing_cm * (math.sqrt(3) / 2 if grid == "hexagonal" else 1.0)
    inside = min(spacing_cm * _NEAR_EDGE, face.width_cm / 4)
    rows = math.ceil(face.width_cm / row_cm) // 2 + 1
    columns = math.ceil(face.length_cm / spacing_cm) // 2 + 2
    # a narrow face takes rows either side of its middle line where that fits more of them
    fits = math.floor((face.width_cm - 2 * inside) / row_cm + 1e-9) + 1
    shift = 0.5 if fits % 2 == 0 else 0.0
    row, column = np.mgrid[-rows : rows + 1, -columns : columns + 1]
    across = np.where(row % 2, 0.5, 0.0) if grid == "hexagonal" else 0.0
    y = face.width_cm / 2 + (row + shift) * row_cm
    x = face.length_cm / 2 + (column + across) * spacing_cm
    held = _held(face, x, y, inside)
    return list(zip(x[held].tolist(), y[held].tolist(), strict=True))


def _held(face: Face, x_cm: Array, y_cm: Array, inside_cm: float) -> NDArray[np.bool_]:
    """Tell of many places at once whether they lie on the face, at least so far inside its edge."""
    a, b = face.length_cm / 2 - inside_cm, face.width_cm / 2 - inside_cm
    if a <= 0 or b <= 0:
        return np.zeros(np.shape(x_cm), dtype=bool)
    x, y = (x_cm - face.length_cm / 2) / a, (y_cm - face.width_cm / 2) / b
    found: NDArray[np.bool_] = (x * x + y * y if face.round else np.maximum(abs(x), abs(y))) <= 1 + 1e-9
    return found


def places_clear(face: Face, step_cm: float) -> Array:
    """Return the places of a face a step apart [cm] that a needle can go in at, as rows of x and y [cm]."""
    inside = min(step_cm / 2, face.width_cm / 4)
    x, y = np.meshgrid(np.arange(step_cm / 2, face.length_cm, step_cm), np.arange(step_cm / 2, face.width_cm, step_cm))
    held = _held(face, x, y, inside) & ~_boned(face, x, y, CLEAR_CM)
    return np.column_stack([x[held], y[held]])


def _boned(face: Face, x_cm: Array, y_cm: Array, beside_cm: float = 0.0) -> NDArray[np.bool_]:
    """Tell of many places at once whether they lie on bone, or nearer to it than `beside_cm`."""
    found = np.zeros(np.shape(x_cm), dtype=bool)
    for bone in face.bones:
        x0, y0 = bone.x0 * face.length_cm, bone.y0 * face.width_cm
        dx, dy = bone.x1 * face.length_cm - x0, bone.y1 * face.width_cm - y0
        along = np.clip(((x_cm - x0) * dx + (y_cm - y0) * dy) / max(dx * dx + dy * dy, 1e-12), 0, 1)
        away = np.hypot(x_cm - x0 - along * dx, y_cm - y0 - along * dy)
        found |= away < bone.wide * face.width_cm / 2 + beside_cm - 1e-9
    return found


def beside_bone(
    face: Face, at: tuple[float, float], others: Sequence[tuple[float, float]]
) -> tuple[float, float] | None:
    """Return the nearest place beside the bone that a site lies on [cm]; None where no side of it has room.

    It must lie on the face, clear of every bone, and not on top of another site.
    """
    bone = face.bone_at(*at, beside_cm=CLEAR_CM)
    if bone is None:
        return at
    x, y = _nearest(face, bone, *at)
    out = bone.wide * face.width_cm / 2 + CLEAR_CM
    for step in (0, 1):
        turn = math.atan2(at[1] - y, at[0] - x) if math.hypot(at[0] - x, at[1] - y) > 1e-6 else math.pi / 2
        for angle in (turn + step * math.pi, turn + step * math.pi / 2, turn - step * math.pi / 2):
            place = x + out * math.cos(angle), y + out * math.sin(angle)
            free = all(math.dist(place, other) > CLEAR_CM * 2 for other in others)
            if free and face.holds(*place) and face.bone_at(*place) is None:
                return place
    return None


def check_grid(face: Face, spacing_cm: float, grid: str) -> None:
    """Refuse a grid that cannot be laid.

    Raises
    ------
    BadInput
        At ``grid`` or ``spacing``.
    """
    if grid not in GRIDS:
        raise BadInput("grid", f"A grid is {' or '.join(GRIDS)}.")
    if not CLOSEST_CM <= spacing_cm <= _FARTHEST_CM:
        raise BadInput("spacing", "Sites lie between 8 and 100 mm apart; about 25 mm is usual.")
    area = face.length_cm * face.width_cm * (2 / math.sqrt(3) if grid == "hexagonal" else 1)
    if area / spacing_cm**2 > MOST_SITES:
        least = math.ceil(math.sqrt(area / MOST_SITES) * 10)
        raise BadInput("spacing", f"That is more than {MOST_SITES} sites; set them at least {least} mm apart here.")


@lru_cache(maxsize=256)
def lay_sites(face: Face, spacing_cm: float = SPACING_CM, grid: str = "hexagonal") -> tuple[Site, ...]:
    """Lay sites on a grid over a face: those that would meet bone go beside it, or are left out where there is no room.

    Raises
    ------
    BadInput
        As `check_grid` does.
    """
    check_grid(face, spacing_cm, grid)
    found = _lattice(face, spacing_cm, grid)
    x, y = np.array(found).reshape(-1, 2).T
    boned = _boned(face, x, y, CLEAR_CM).tolist()
    clear = [place for place, bone in zip(found, boned, strict=True) if not bone]
    for place, bone in zip(found, boned, strict=True):
        moved = beside_bone(face, place, clear) if bone else None
        # what is moved must not crowd a neighbour
        if moved is not None and all(math.dist(moved, other) >= 0.6 * spacing_cm for other in clear):
            clear.append(moved)
    if not clear:
        middle = (face.length_cm / 2, face.width_cm / 2)
        clear = [beside_bone(face, middle, []) or middle]
    clear.sort(key=lambda place: (round(place[1] / face.width_cm, 6), place[0]))
    return tuple((round(x / face.length_cm, 4), round(y / face.width_cm, 4)) for x, y in clear)


def off_the_bone(face: Face, sites: Sequence[Site]) -> tuple[Site, ...]:
    """Move every site that lies on bone or beyond the edge to where a needle can go in; leave the others alone.

    One that finds no room beside the bone is left out.
    """
    places = [(x * face.length_cm, y * face.width_cm) for x, y in sites]
    found = [None if why else place for place, why in zip(places, wrong_with(face, sites), strict=True)]
    for at, place in enumerate(places):
        if found[at] is not None:
            continue
        others = [other for other in found if other is not None]
        inside = _onto(face, *place)
        found[at] = beside_bone(face, inside, others)
    kept = [place for place in found if place is not None]
    return tuple((round(x / face.length_cm, 4), round(y / face.width_cm, 4)) for x, y in kept)


def _onto(face: Face, x_cm: float, y_cm: float) -> tuple[float, float]:
    """Return the place on the face, a little inside its edge, that lies towards the middle from a place [cm]."""
    middle = (face.length_cm / 2, face.width_cm / 2)
    for step in range(101):
        x = x_cm + (middle[0] - x_cm) * step / 100
        y = y_cm + (middle[1] - y_cm) * step / 100
        if face.holds(x, y, min(CLEAR_CM, face.width_cm / 4)):
            return x, y
    return middle


@lru_cache(maxsize=256)
def _wrong(face: Face, sites: tuple[Site, ...]) -> tuple[str, ...]:
    x, y = np.array(sites).T * ((face.length_cm,), (face.width_cm,))
    held, boned = _held(face, x, y, 0.0).tolist(), _boned(face, x, y).tolist()
    return tuple("edge" if not on else "bone" if bone else "" for on, bone in zip(held, boned, strict=True))


def wrong_with(face: Face, sites: Sequence[Site]) -> tuple[str, ...]:
    """Say of each site what is wrong with it for a needle: beyond the edge, on bone, or nothing."""
    return _wrong(face, tuple(sites)) if sites else ()


def on_meat(face: Face, x_cm: Array, y_cm: Array) -> NDArray[np.bool_]:
    """Tell of many places at once whether there is meat: on the face, and not on bone."""
    across, along = (2 * x_cm / face.length_cm - 1), (2 * y_cm / face.width_cm - 1)
    meat = across**2 + along**2 <= 1 if face.round else np.ones_like(x_cm, dtype=bool)
    return meat & ~_boned(face, x_cm, y_cm)


@dataclass(frozen=True)
class Gap:
    """The place on a face that is farthest from any site, as shares of its length and width, and how far [cm].

    It is `wide` when it is to be pointed out.
    """

    x: float
    y: float
    cm: float
    wide: bool


_ACROSS = 48


@lru_cache(maxsize=256)
def widest_gap(face: Face, sites: tuple[Site, ...]) -> Gap | None:
    """Determine which meat of a face lies farthest from any site; None without sites."""
    if not sites:
        return None
    places = np.array(sites) * (face.length_cm, face.width_cm)
    x, y = np.meshgrid(*(np.linspace(0, size, _ACROSS) for size in (face.length_cm, face.width_cm)))
    meat = on_meat(face, x, y)
    if not meat.any():
        return None
    spots = np.column_stack((x[meat], y[meat]))
    far, _ = cKDTree(places).query(spots)
    at = int(far.argmax())
    (x_cm, y_cm), cm = spots[at], float(far[at])
    return Gap(float(x_cm / face.length_cm), float(y_cm / face.width_cm), cm, cm > WIDE_CM)
