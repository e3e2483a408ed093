"""Injected salt over the face from the sites as they are: against series, the lattice, a ruler and an own solution."""

import math

import numpy as np
import pytest
from builders import blend
from hypothesis import given, settings
from hypothesis import strategies as st
from ravska_core.catalogue import Bone
from ravska_core.coat import Injection, Layer, Seasoned, face_of, plain, read_coat
from ravska_core.coat.injection import good_sites
from ravska_core.coat.sites import Face
from ravska_core.coat.spread import least_tenth, over_face, spread_of
from ravska_core.diffusion import lattice_evenness
from ravska_core.meat import Piece, read_piece

HOUR = 3600.0
COLD_CM2_H = 2.5e-10 * HOUR * 1e4
SQUARE = Face(10, 10, False, 5)
STOCK = blend(("stock/liquid", 4, "scale"), ("table-salt/fine", "1/4", "scale"), kind="injection", batch_g=400)
RUB = Layer("rub", plain("table-salt/fine"), 3, 2 * HOUR)


def injected(hold: float = 8 * HOUR, **plan) -> Layer:
    return Layer("injection", STOCK, 10, hold, injection=Injection(**plan))


def cored(*layers: Layer, at: float | None = None):
    return read_coat(Seasoned("A", Piece("pork-shoulder", 2000), layers), at_s=at)


@pytest.mark.parametrize("dt", [0.02, 0.2, 2.0, 40.0])
def test_one_line_in_a_closed_box_follows_the_cosine_series(dt):
    # J. Crank, 1975, equation 2.17 for closed ends, in both directions: the product of two
    x0, y0 = 0.3, 0.65
    n = np.arange(1, 200)[:, None]

    def series(cells, start):
        at = (np.arange(cells * 9) + 0.5) / cells / 9
        waves = np.exp(-((n * math.pi / 10) ** 2) * dt) * np.cos(n * math.pi * start) * np.cos(n * math.pi * at)
        return (1 + 2 * waves.sum(axis=0)).reshape(cells, 9).mean(axis=1)

    exact = np.outer(series(64, y0), series(96, x0))
    assert over_face(SQUARE, ((x0, y0),), dt) == pytest.approx(exact, rel=1e-2, abs=1e-3)


def test_a_line_seasons_the_disc_a_hand_calculation_gives():
    # c / mean = A / (4 pi D t) exp(-r2 / 4 D t) is a half at r2 = 4 D t ln(2 A / 4 pi D t) = 3.50 cm2: 11.0 % of 100
    found = spread_of(SQUARE, ((0.5, 0.5),), 0.2).seasoned
    assert found.value == pytest.approx(11.0, abs=0.25)
    # diffusivity halved and doubled: 4 x 0.1 x 5.07 and 4 x 0.4 x 3.68
    assert (found.low, found.high) == (pytest.approx(6.4, abs=0.3), pytest.approx(18.5, abs=0.5))


@pytest.mark.parametrize(
    ("grid", "box", "sites"),
    [
        # what is closed by mirrors is the endless lattice: one site amid a square, two in corners of half a row
        ("square", (2.5, 2.5), ((0.5, 0.5),)),
        ("hexagonal", (1.25, 1.25 * math.sqrt(3)), ((0.0, 0.0), (1.0, 1.0))),
    ],
)
@pytest.mark.parametrize("hours", [8, 24, 48])
def test_in_a_box_of_mirrors_it_is_the_endless_lattice(grid, box, sites, hours):
    found = over_face(Face(*box, False, 5), sites, COLD_CM2_H * hours)
    assert found.min() == pytest.approx(lattice_evenness(2.5, COLD_CM2_H * hours, grid), rel=0.05, abs=2e-3)


def solved(face: Face, site: tuple[float, float], dt_cm2: float) -> np.ndarray:
    """Solve the same by finite volumes, apart from the core: no flow out of the meat, explicit steps."""
    cell = 0.1
    x, y = np.meshgrid(np.arange(cell / 2, face.length_cm, cell), np.arange(cell / 2, face.width_cm, cell))
    meat = np.vectorize(lambda a, b: face.holds(a, b) and face.bone_at(a, b) is None)(x, y)
    salt = np.zeros(x.shape)
    salt[int(site[1] * face.width_cm / cell), int(site[0] * face.length_cm / cell)] = 1
    steps = math.ceil(dt_cm2 / (0.2 * cell**2))
    for _ in range(steps):
        for axis in (0, 1):
            left, right = [np.take(meat, range(*r), axis) for r in ((0, x.shape[axis] - 1), (1, x.shape[axis]))]
            flow = np.diff(salt, axis=axis) * left * right * dt_cm2 / steps / cell**2
            pad = [(1, 1) if a == axis else (0, 0) for a in (0, 1)]
            salt += np.diff(np.pad(flow, pad), axis=axis)
    return salt[meat] / salt[meat].mean()


@pytest.mark.parametrize(
    ("face", "site"),
    [
        (Face(8, 6, True, 5), (0.5, 0.5)),
        (Face(8, 6, True, 5), (0.85, 0.5)),
        (Face(8, 6, False, 5, (Bone(0.1, 0.5, 0.9, 0.5, 0.15),)), (0.5, 0.35)),
    ],
)
def test_at_a_rim_and_beside_bone_it_is_near_an_own_solution(face, site):
    own = np.mean(solved(face, site, 0.3) >= 0.5) * 100
    assert spread_of(face, (site,), 0.3).seasoned.value == pytest.approx(own, abs=4)


place = st.tuples(st.floats(0, 1), st.floats(0, 1))


@settings(max_examples=60)
@given(
    st.lists(place, min_size=1, max_size=30), st.floats(1e-4, 5), st.booleans(), st.floats(3, 40), st.floats(2, 25),
    st.sampled_from([(), (Bone(0.2, 0.4, 0.8, 0.6, 0.2),), (Bone(0.5, 0.0, 0.5, 1.0, 0.3),)]),
)  # fmt: skip
def test_no_salt_is_made_or_lost_and_none_is_below_nothing(sites, dt, round_, length, width, bones):
    found = over_face(Face(length, width, round_, 5, bones), tuple(sites), dt)
    if found is not None:  # every site beyond the rim, or in the bone, has nothing to give
        inside = found[~np.isnan(found)]
        assert inside.mean() == pytest.approx(1, abs=1e-9)
        assert inside.min() >= -1e-12


def test_without_a_site_or_a_hold_there_is_nothing_to_draw():
    assert spread_of(SQUARE, (), 0.2) is None
    assert spread_of(SQUARE, ((0.5, 0.5),), 0.0) is None
    shut = Face(10, 10, False, 5, (Bone(0, 0.5, 1, 0.5, 1.2),))
    assert spread_of(shut, ((0.5, 0.5),), 0.2) is None
    mid_cook = Layer("second injection", STOCK, 5, injection=Injection())
    at_once = cored(RUB, mid_cook).layers[1].injection
    assert at_once.spread is None
    assert at_once.says[0].startswith("No hold follows it")


def test_sites_set_by_hand_are_told_by_themselves_and_closer_ones_season_more():
    by_grid = cored(injected()).layers[0].injection
    corner = cored(injected(sites=((0.4, 0.2), (0.45, 0.2), (0.5, 0.2)))).layers[0].injection
    assert (by_grid.own_sites, corner.own_sites) == (False, True)
    assert corner.spread.seasoned.value < by_grid.spread.seasoned.value / 3
    closer = cored(injected(spacing_cm=1.5)).layers[0].injection
    assert closer.spread.seasoned.value > by_grid.spread.seasoned.value
    # one that lies on bone or beyond the edge gets nothing, and so seasons nothing
    three = ((0.4, 0.2), (0.6, 0.2), (1.2, 0.5))
    assert cored(injected(sites=three)).layers[0].injection.spread.rows == (
        cored(injected(sites=three[:2])).layers[0].injection.spread.rows
    )


def test_the_tenth_the_needle_reached_least_agrees_with_the_series_at_places_drawn_by_chance():
    # a line in the middle of a 10 cm square: c / mean is f(x) f(y), f = 1 - 2 q cos(2 pi x / L) + 2 q^4 cos(4 pi x / L)
    q = math.exp(-4 * math.pi**2 * 4.0 / 100)
    at = 2 * math.pi * np.random.default_rng(7).random((2, 200_000))
    f = 1 - 2 * q * np.cos(at) + 2 * q**4 * np.cos(2 * at)
    assert least_tenth(SQUARE, ((0.5, 0.5),), 4.0) == pytest.approx(np.quantile(f[0] * f[1], 0.1), abs=0.005)
    assert least_tenth(SQUARE, ((0.5, 0.5),), 0.2) == pytest.approx(0, abs=1e-6)
    assert least_tenth(SQUARE, ((0.5, 0.5),), 60.0) == pytest.approx(1, abs=0.01)
    assert least_tenth(SQUARE, (), 0.2) == 0


@given(st.lists(place, min_size=1, max_size=12), st.floats(0.02, 2))
def test_a_tenth_is_below_it_and_nine_tenths_above(sites, dt):
    found = over_face(SQUARE, tuple(sites), dt)
    least = least_tenth(SQUARE, tuple(sites), dt)
    assert np.mean(found < least - 1e-12) <= 0.101
    assert np.mean(found >= least - 1e-12) >= 0.899


def test_the_core_has_what_the_needle_left_in_its_tenth():
    piece = read_piece(Piece("pork-shoulder", 2000))
    face = face_of(piece.solid, piece.bones)
    sites = good_sites(Injection(), face)
    least = least_tenth(face, sites, COLD_CM2_H * 24)
    alone = cored(injected(24 * HOUR)).sample
    assert 0.05 < least < 0.537  # rim and bone are worse off than the middle of the grid
    assert alone.least == pytest.approx([value * least for value in alone.percent])
    # at an hour of the hold the salt has moved for that hour only; a coat reaches everywhere below the surface
    both = cored(injected(16 * HOUR), RUB, at=17 * HOUR).sample
    least = least_tenth(face, sites, COLD_CM2_H * 17)
    middle = cored(injected(16 * HOUR), at=16 * HOUR).sample.percent[-1]
    assert both.least[-1] == pytest.approx(both.percent[-1] - (1 - least) * middle, rel=1e-3)
    assert both.least[0] > 10 * middle
    # held after the rub, the time before it does not count; a coat alone has no needle
    later = cored(RUB, injected(8 * HOUR)).sample
    least = least_tenth(face, sites, COLD_CM2_H * 8)
    assert later.least[-1] == pytest.approx(later.percent[-1] * least, rel=0.05, abs=1e-3)
    assert cored(RUB).sample.least == ()


def test_a_site_more_never_leaves_its_tenth_with_less_than_the_grid_had():
    # a site of the grid that was laid by hand is the same site
    piece = read_piece(Piece("pork-shoulder", 2000))
    grid = good_sites(Injection(), face_of(piece.solid, piece.bones))
    by_grid, by_hand = cored(injected(14 * HOUR)).sample, cored(injected(14 * HOUR, sites=grid)).sample
    assert by_hand.least == pytest.approx(by_grid.least)
    gap = cored(injected(14 * HOUR)).layers[0].injection.gap
    more = cored(injected(14 * HOUR, sites=(*grid, (gap.x, gap.y)))).sample
    assert more.least[-1] > 0.9 * by_grid.least[-1]


def test_the_core_says_in_words_where_the_needle_put_the_salt_and_what_time_does():
    found = cored(injected(24 * HOUR)).sample
    first, twice, _ = found.says
    assert "salt moves 9.3 mm" in first
    assert f"The centre has {found.percent[-1]:.2f} % on the whole, and at most {found.least[-1]:.2f} % in" in first
    after = cored(injected(48 * HOUR)).sample.least[-1]
    assert float(twice.split("that tenth to ")[1].split(" %")[0]) == pytest.approx(after, abs=0.006)
    assert not any("seasons the surface" in says for says in cored(injected(HOUR)).sample.says)
    assert any("seasons the surface" in says for says in cored(RUB).sample.says)
