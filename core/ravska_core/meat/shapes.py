"""Surface and volume of pieces of meat, as the solids they are nearest to.

Lengths [cm], areas [cm2], volumes [cm3].
"""

import math
from dataclasses import dataclass

from scipy.special import ellipeinc, ellipkinc


def ellipsoid_volume_cm3(a: float, b: float, c: float) -> float:
    """Determine the volume of an ellipsoid with semi-axes `a`, `b`, `c` [cm]: V = 4/3 pi a b c."""
    return 4 / 3 * math.pi * a * b * c


def ellipsoid_area_cm2(a: float, b: float, c: float) -> float:
    """Determine the surface of an ellipsoid with semi-axes `a`, `b`, `c` [cm], exactly.

    With a >= b >= c, cos(phi) = c/a and k^2 = a^2 (b^2 - c^2) / (b^2 (a^2 - c^2)),
    A = 2 pi c^2 + 2 pi a b / sin(phi) (E(phi, k) sin^2(phi) + F(phi, k) cos^2(phi)).

    References
    ----------
    NIST Digital Library of Mathematical Functions, 19.33.2, with 19.2 for the integrals.
    """

    a, b, c = sorted((a, b, c), reverse=True)
    if a - c < 1e-9 * a:
        return 4 * math.pi * a * a
    cosine = c / a
    phi = math.acos(cosine)
    sine = math.sin(phi)
    m = min(1.0, (a * a * (b * b - c * c)) / (b * b * (a * a - c * c)))
    second = float(ellipeinc(phi, m)) * sine * sine
    first = float(ellipkinc(phi, m)) * cosine * cosine
    return 2 * math.pi * c * c + 2 * math.pi * a * b / sine * (second + first)


def box_area_cm2(length: float, width: float, thickness: float) -> float:
    """Determine the surface of a box: A = 2 (l w + l t + w t)."""
    return 2 * (length * width + length * thickness + width * thickness)


def cylinder_area_cm2(length: float, diameter: float) -> float:
    """Determine the surface of a round cylinder with both ends: A = pi d l + pi d^2 / 2."""
    return math.pi * diameter * length + math.pi * diameter * diameter / 2


LIVE_PER_READY = 1 / 0.72
"""Live weight over ready-to-cook weight of a table bird (from memory: 70 to 75 % dressing yield)."""


def poultry_skin_area_cm2(live_mass_g: float) -> float:
    """Determine the skin surface of a bird from its live weight [g]: A = 8.19 W^0.705.

    References
    ----------
    H. H. Mitchell, surface area of single-comb poultry, 1930 (from memory).
    """
    return float(8.19 * live_mass_g**0.705)


@dataclass(frozen=True)
class Solid:
    """A piece as a solid: outer dimensions of one piece [cm], how many, surface [cm2] and volume [cm3] of all."""

    shape: str
    length_cm: float
    width_cm: float
    thickness_cm: float
    pieces: int
    area_cm2: float
    volume_cm3: float


def area_and_volume(shape: str, length: float, width: float, thickness: float) -> tuple[float, float]:
    """Return the area [cm2] and the volume [cm3] of one solid of the given outer dimensions [cm]."""
    if shape in ("box", "rack", "cubes", "strips"):
        return box_area_cm2(length, width, thickness), length * width * thickness
    if shape == "cylinder":
        # an oval log has no simple closed form: the round one of the same cross-section
        diameter = math.sqrt(width * thickness)
        return cylinder_area_cm2(length, diameter), math.pi / 4 * width * thickness * length
    half = (length / 2, width / 2, thickness / 2)
    return ellipsoid_area_cm2(*half), ellipsoid_volume_cm3(*half)


def solid_of_dimensions(shape: str, length_cm: float, width_cm: float, thickness_cm: float, pieces: int = 1) -> Solid:
    """Determine a solid from its measured outer dimensions [cm]."""
    area, volume = area_and_volume(shape, length_cm, width_cm, thickness_cm)
    return Solid(shape, length_cm, width_cm, thickness_cm, pieces, area * pieces, volume * pieces)


def solid_of_mass(
    shape: str, mass_g: float, density_g_cm3: float, length: float, width: float, thickness: float, pieces: int = 1
) -> Solid:
    """Determine a solid of given mass from proportions length : width : thickness.

    The solid is scaled until its volume is mass / density, so that for one piece the area grows as
    mass^(2/3). A bird takes its area from its skin (`poultry_skin_area_cm2`).

    Parameters
    ----------
    mass_g : float
        Mass of all pieces together [g].
    pieces : int
        Number of equal pieces the mass is split into.
    """
    volume = mass_g / pieces / density_g_cm3
    _, unit_volume = area_and_volume(shape, length, width, thickness)
    scale = (volume / unit_volume) ** (1 / 3)
    dimensions = (length * scale, width * scale, thickness * scale)
    area, _ = area_and_volume(shape, *dimensions)
    if shape == "bird":
        area = poultry_skin_area_cm2(mass_g / pieces * LIVE_PER_READY)
    return Solid(shape, *dimensions, pieces, area * pieces, volume * pieces)


def solid_of_equal_pieces(
    shape: str, mass_g: float, density_g_cm3: float, length_cm: float, width_cm: float, thickness_cm: float
) -> Solid:
    """Determine equal cubes or strips of fixed size cut from a mass; area grows as the mass itself.

    The number of pieces is taken as it comes out, not rounded: the last, smaller piece is meat too.
    """
    area, volume = area_and_volume(shape, length_cm, width_cm, thickness_cm)
    total = mass_g / density_g_cm3
    count = total / volume
    return Solid(shape, length_cm, width_cm, thickness_cm, max(1, round(count)), area * count, total)
