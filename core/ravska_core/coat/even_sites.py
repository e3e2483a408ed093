"""So many sites as a cook asks for, spread evenly over a face, clear of bone."""

import math
from functools import lru_cache

import numpy as np
from scipy.spatial import cKDTree

from ravska_core.coat.sites import CLOSEST_CM, MOST_SITES, Array, Face, Site, places_clear
from ravska_core.working import BadInput

_PLACES, _PLACES_EACH = 6_000, 80
"""How many places of the face are tried at least, and for each site."""

_MOST_ROUNDS = 400


@lru_cache(maxsize=64)
def spread_sites(face: Face, count: int) -> tuple[Site, ...]:
    """Spread exactly `count` sites over a face so that each has as much meat to season as the others.

    Each site lies in the middle of the places that are nearer to it than to any other (a centroidal Voronoi
    tessellation), or beside the bone nearest to there.

    References
    ----------
    S. P. Lloyd, Least squares quantization in PCM, IEEE Transactions on Information Theory 28 (1982) 129 (from memory).

    Raises
    ------
    BadInput
        At ``count`` when there is no room for so many.
    """
    if not 1 <= count <= MOST_SITES:
        raise BadInput("count", f"A piece takes between 1 and {MOST_SITES} sites.")
    area = face.length_cm * face.width_cm
    places = places_clear(face, max(0.05, math.sqrt(area / max(_PLACES, count * _PLACES_EACH))))
    if len(places) < count or area / count < CLOSEST_CM**2:
        raise BadInput("count", f"There is no room for {count} sites on this piece; ask for fewer.")
    sites = _far_apart(places, count)
    for _ in range(min(_MOST_ROUNDS, 20_000 // count)):
        _, nearest = cKDTree(sites).query(places)
        has = np.maximum(np.bincount(nearest, minlength=count), 1)
        moved = np.column_stack([np.bincount(nearest, weights=axis, minlength=count) / has for axis in places.T])
        moved = np.where(np.bincount(nearest, minlength=count)[:, None] > 0, moved, sites)
        if np.abs(moved - sites).max() < 1e-4:
            break
        sites = moved
    found = _onto(places, sites)
    order = sorted(found, key=lambda place: (round(place[1] / face.width_cm, 2), place[0]))
    return tuple((round(x / face.length_cm, 4), round(y / face.width_cm, 4)) for x, y in order)


def _far_apart(places: Array, count: int) -> Array:
    """Return so many places, each the farthest from those before it, the first nearest to the middle."""
    middle = places.mean(axis=0)
    chosen = [int(np.hypot(*(places - middle).T).argmin())]
    away = np.hypot(*(places - places[chosen[0]]).T)
    while len(chosen) < count:
        chosen.append(int(away.argmax()))
        away = np.minimum(away, np.hypot(*(places - places[chosen[-1]]).T))
    found: Array = places[chosen].astype(float)
    return found


def _onto(places: Array, sites: Array) -> list[tuple[float, float]]:
    """Return the sites, those that lie on bone or off the meat at the nearest clear place that no other has."""
    tree = cKDTree(places)
    taken: set[int] = set()
    found = []
    for site in sites:
        _, near = tree.query(site, k=min(len(places), len(sites) + 1))
        at = next(int(one) for one in np.atleast_1d(near) if int(one) not in taken)
        taken.add(at)
        found.append((float(places[at][0]), float(places[at][1])))
    return found
