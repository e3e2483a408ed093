"""How far injected salt has spread over the face by the fire, from the sites as they are and not an endless grid."""

from dataclasses import dataclass
from itertools import product

import numpy as np
from numpy.typing import NDArray
from scipy.special import erf

from ravska_core.catalogue import while_it_stands
from ravska_core.coat.sites import Face, Site, on_meat
from ravska_core.diffusion import DIFFUSIVITY_BAND
from ravska_core.working import Figure, Step, figure

Array = NDArray[np.float64]

HALF = 0.5
"""Meat counts as seasoned by the injection from this share of the mean on (a convention of ours)."""

TENTH = 0.1
"""The meat that the needle reached least is told by its tenth (a convention of ours)."""

_ACROSS, _DOWN = 96, 64

_FAR = 7
"""Salt farther from its line than so many standard deviations counts as none."""


@dataclass(frozen=True)
class Spread:
    """Injected salt over a face of one piece, from its thick end to the thin one, row by row.

    `rows` are drawn: a figure for each cell, fifths of the mean rounded down and at most 9, and a full stop where there
    is no meat. `seasoned` is the share of the meat that has at least half of the mean [%].
    """

    rows: tuple[str, ...]
    seasoned: Figure


_DRAWN = np.array([*"0123456789", "."])


def _drawn(of_mean: Array) -> tuple[str, ...]:
    """Return salt over its mean as `Spread` draws it."""
    fifths = np.where(np.isnan(of_mean), -1, np.clip(np.nan_to_num(of_mean) * 5, 0, 9)).astype(int)
    return tuple("".join(row) for row in _DRAWN[fifths])


def _along(sites: Array, size_cm: float, cells: int, dt_cm2: float) -> Array:
    """Return what of each site's salt lies in each cell along one side [1], folded back where it meets an end.

    The mean of a Gaussian of variance 2 D t over each cell, with the images of the source in both ends.
    """

    edges = np.linspace(0, size_cm, cells + 1)
    deviation = np.sqrt(2 * dt_cm2)
    found: Array = np.zeros((len(sites), cells))
    for way, turn in product((1, -1), (-2, -1, 0, 1, 2)):
        image = way * sites + 2 * turn * size_cm
        # most images lie too far beyond an end to bring anything
        near = (image > -_FAR * deviation) & (image < size_cm + _FAR * deviation)
        if near.any():
            up_to = 0.5 * erf((edges[None, :] - image[near, None]) / (np.sqrt(2) * deviation))
            found[near] += up_to[:, 1:] - up_to[:, :-1]
    return found


@while_it_stands(256)
def over_face(face: Face, sites: tuple[Site, ...], dt_cm2: float) -> Array | None:
    """Determine injected salt over a face as shares of its mean, (down, across); NaN off the meat.

    Full-depth line sources of equal mass spread by dc/dt = D (c_xx + c_yy). A box face holds them in by images
    (J. Crank, The Mathematics of Diffusion, 2nd ed., 1975, section 2.2.4). Where a round rim or bone bounds the meat,
    what would lie beyond counts with the rest of the same site, in proportion. None without a site or a hold.
    """
    if not sites or dt_cm2 <= 0:
        return None
    at = np.clip(np.array(sites), 0, 1)
    x = (np.arange(_ACROSS) + 0.5) / _ACROSS * face.length_cm
    y = (np.arange(_DOWN) + 0.5) / _DOWN * face.width_cm
    meat = on_meat(face, *np.meshgrid(x, y))
    across = _along(at[:, 0] * face.length_cm, face.length_cm, _ACROSS, dt_cm2)
    down = _along(at[:, 1] * face.width_cm, face.width_cm, _DOWN, dt_cm2)
    held = ((down @ meat) * across).sum(axis=1)
    lying = held > 1e-12
    if not lying.any():
        return None
    salt = (down[lying] / held[lying, None]).T @ across[lying]
    found: Array = np.where(meat, salt / lying.sum() * meat.sum(), np.nan)
    found.flags.writeable = False
    return found


def least_tenth(face: Face, sites: tuple[Site, ...], dt_cm2: float) -> float:
    """Determine injected salt that the tenth of the meat with least of it has at most, over its mean [0 to 1]."""
    found = over_face(face, sites, dt_cm2)
    return 0.0 if found is None else float(np.nanquantile(found, TENTH))


def _seasoned(of_mean: Array | None) -> float:
    return 0.0 if of_mean is None else float(np.mean(of_mean[~np.isnan(of_mean)] >= HALF)) * 100


def spread_of(face: Face, sites: tuple[Site, ...], dt_cm2: float) -> Spread | None:
    """Determine how far the salt of these sites has spread after D t [cm2]; None without a site or a hold."""
    found = over_face(face, sites, dt_cm2)
    if found is None:
        return None
    share = _seasoned(found)
    ends = [share, *(_seasoned(over_face(face, sites, dt_cm2 * factor)) for factor in DIFFUSIVITY_BAND)]
    steps = [
        Step("D t until the fire", "this hold and those after it", dt_cm2 * 100, "mm²", "diffusivity"),
        Step("Meat with at least half of the mean", f"{len(sites)} full-depth lines, over the face", share, "%"),
    ]
    why = "diffusivity halved and doubled; what pressure spreads along the grain of the meat comes on top"
    return Spread(_drawn(found), figure(steps, why, low=min(ends), high=max(ends)))
