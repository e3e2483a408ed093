"""Depth of salt and what becomes of every layer: science.md section 5, and conservation through any stack."""

import dataclasses
import math

import numpy as np
import pytest
from builders import blend
from crank import finite_source, limited_bath_uptake, sheet_centre, sheet_uptake
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.blend import read_blend
from ravska_core.catalogue import catalogue
from ravska_core.coat import AFTER_BATH, BATHS, LAYER_KINDS, Layer, Seasoned, drippings_of, plain, read_coat
from ravska_core.coat.drippings import FAT as DRIP_FATS
from ravska_core.coat.fates import Dosed, follow
from ravska_core.diffusion import (
    Column,
    at_depths,
    column_of,
    diffuse,
    diffusivity_m2_s,
    lattice_evenness,
    reach_cm,
    soak,
)
from ravska_core.meat import Piece, read_piece
from scipy.integrate import solve_ivp
from scipy.sparse import diags
from scipy.special import jn_zeros

HOUR = 3600.0
SHEET = Column(2.0, 0.0, 1.0)
BATH = blend(("buttermilk/liquid", 4, "spoon"), ("table-salt/fine", "1/4", "spoon"), kind="marinade", batch_g=500)
SALT = plain("table-salt/fine")


# J. Crank, The Mathematics of Diffusion, 1975, plane sheet in a constant bath
@pytest.mark.parametrize(
    ("fourier", "uptake", "centre"),
    [
        (0.01, 0.11284, None), (0.05, 0.25231, None), (0.1, 0.35682, 0.05069), (0.2, 0.50409, 0.22769),
        (0.5, 0.76395, 0.62922), (1.0, 0.93126, 0.89202),
    ],
)  # fmt: skip
def test_a_sheet_in_a_bath_follows_the_published_series(fourier, uptake, centre):
    assert sheet_uptake(fourier) == pytest.approx(uptake, abs=5e-6)
    if centre is not None:
        assert sheet_centre(fourier) == pytest.approx(centre, abs=5e-6)


# the same book, finite source on one face of a 20 mm sheet, after 8 h
@pytest.mark.parametrize(("mm", "reduced"), [(0, 4.2052), (2, 3.6599), (5, 1.7652), (10, 0.1306)])
def test_a_dry_coat_follows_the_published_series(mm, reduced):
    assert finite_source(mm / 10, 2.0, 2.5e-10 * 8 * HOUR * 1e4) == pytest.approx(reduced, abs=5e-5)


# Poisson sum over the lattice: square and hexagonal, sites 25 mm apart, 24 and 48 h
@pytest.mark.parametrize(
    ("grid", "hours", "lowest"),
    [("square", 24, 0.247), ("square", 48, 0.756), ("hexagonal", 24, 0.537), ("hexagonal", 48, 0.921)],
)
def test_a_lattice_of_sites_is_as_even_as_its_closed_form(grid, hours, lowest):
    dt = 2.5e-10 * hours * HOUR * 1e4
    assert lattice_evenness(2.5, dt, grid) == pytest.approx(lowest, abs=6e-4)
    # against the sum of the sources themselves, in the hole between them
    n = np.arange(-40, 41)
    h, k = np.meshgrid(n, n)
    if grid == "square":
        x, y, cell = 2.5 * (h + 0.5), 2.5 * (k + 0.5), 2.5**2
    else:
        x, y, cell = 2.5 * (h + k / 2 + 0.5), 2.5 * math.sqrt(3) / 2 * (k + 1 / 3), 2.5**2 * math.sqrt(3) / 2
    direct = np.sum(np.exp(-(x * x + y * y) / (4 * dt))) * cell / (4 * math.pi * dt)
    assert lattice_evenness(2.5, dt, grid) == pytest.approx(direct, rel=1e-6)


def _lines(cells: int, length: float, dt: float, bath: float | None, coat: bool) -> np.ndarray:
    """Solve the sheet by the method of lines, apart from the core: even cells, stiff solver."""
    dx = length / cells
    start = np.zeros(cells)
    if coat:
        start[0] = 1 / dx

    def change(_, c):
        left = np.concatenate(([c[0] if bath is None else 2 * bath - c[0]], c[:-1]))
        right = np.concatenate((c[1:], [c[-1]]))
        return (left - 2 * c + right) / dx**2

    near = diags([1.0, 1.0, 1.0], [-1, 0, 1], (cells, cells))
    how = {"method": "BDF", "jac_sparsity": near, "rtol": 1e-8, "atol": 1e-10}
    return solve_ivp(change, (0, dt), start, t_eval=[dt], **how).y[:, -1]


def test_the_series_agree_with_an_independent_numerical_solution():
    for fourier in (0.02, 0.1, 0.3):
        assert sheet_uptake(fourier) == pytest.approx(_lines(400, 1, fourier, 1.0, False).mean(), rel=0.005)
    dt = 2.5e-10 * 8 * HOUR * 1e4
    solved = _lines(800, 2.0, dt, None, True)
    for cell in range(0, 800, 20):
        expected = finite_source((cell + 0.5) * 2 / 800, 2.0, dt)
        if expected > 0.01:
            assert solved[cell] * 2 == pytest.approx(expected, rel=0.005)
    assert sheet_uptake(0.05 - 1e-12) == pytest.approx(sheet_uptake(0.05), abs=1e-9)


def test_the_column_agrees_with_the_series_for_coat_bath_and_a_bath_that_runs_out():
    size = len(SHEET.middles_cm)
    for hours in (2, 8, 24, 72):
        dt = 2.5e-10 * hours * HOUR * 1e4
        coat = np.zeros((size, 1))
        coat[0] = 1.0
        after = diffuse(SHEET, coat, dt)
        assert after.sum() == pytest.approx(1, abs=1e-9)
        series = np.array([finite_source(x, 2.0, dt) for x in SHEET.middles_cm])
        got = at_depths(SHEET, after[:, 0], SHEET.middles_cm) * 2.0
        assert np.max(np.abs(got - series)) < 0.005 * series.max()
    for alpha, fourier in ((1e4, 0.1), (1.0, 0.01), (1.0, 0.1), (0.3, 0.5)):
        cells, bath = soak(SHEET, np.zeros((size, 1)), np.ones(1), fourier * 4, alpha * 2)
        assert cells.sum() * (1 + alpha) == pytest.approx(limited_bath_uptake(fourier, alpha), rel=2e-3)
        assert cells.sum() + bath[0] == pytest.approx(1, abs=1e-9)


def test_logs_and_balls_take_up_what_their_own_series_say():
    # J. Crank, equations 5.23 and 6.20: cylinder and sphere in a constant bath
    fourier, ball = 0.1, Column(2.0, 2.0, 1.0)
    n = np.arange(1, 200)
    sphere = 1 - 6 / math.pi**2 * np.sum(np.exp(-((n * math.pi) ** 2) * fourier) / n**2)
    roots = jn_zeros(0, 100)
    cylinder = 1 - np.sum(4 / roots**2 * np.exp(-(roots**2) * fourier))
    for column, share, expected in ((ball, 1 / 3, sphere), (Column(2.0, 1.0, 1.0), 1 / 2, cylinder)):
        cells, _ = soak(column, np.zeros((len(column.middles_cm), 1)), np.ones(1), fourier * 4, 1e4)
        assert cells.sum() * 1e4 / (2.0 * share) == pytest.approx(expected, rel=5e-3)


@pytest.mark.parametrize(("hours", "mm"), [(1, 1.9), (2, 2.7), (8, 5.4), (24, 9.3)])
def test_reach_is_what_people_are_told(hours, mm):
    assert reach_cm(diffusivity_m2_s(4) * hours * HOUR * 1e4) * 10 == pytest.approx(mm, abs=0.05)


def test_salt_of_a_bath_agrees_with_a_hand_calculation():
    piece = Piece("lamb-shoulder-boneless", 1500, faces={"fat cap": "off"})
    rinsed = Layer("marinade", BATH, 3000, 16 * HOUR, after="rinsed")
    found = read_coat(Seasoned("A", piece, (rinsed,)))
    # a sheet of V/A = 1415.1 / 628.6 = 2.251 cm: Dt/l2 = 0.02842; salt lives in the water of both sides, so that
    # alpha is 3 ml of bath a gram x its density x its water over 0.745, and the meat gets Crank's share of it
    reading = read_blend(BATH)
    alpha = 3 * reading.density_g_ml * reading.water_share / 0.745
    share = limited_bath_uptake(0.02842, alpha) / (1 + alpha)
    by_hand = 3 * reading.density_g_ml * reading.salt.value * share
    # the joint's area shrinks inward, so it falls a little short of the sheet
    assert found.salt.value == pytest.approx(by_hand, rel=0.08)
    assert found.salt.value < by_hand
    assert found.salt.low < found.salt.value < found.salt.high


def test_a_bath_over_a_dry_coat_washes_off_what_has_not_gone_in():
    piece = Piece("lamb-shoulder", 2300)
    coat = Layer("pre-salt", SALT, 1.0, 0.25 * HOUR)
    plain_bath = Layer("marinade", BATH, 250, HOUR)
    at_once = read_coat(Seasoned("A", piece, (coat, plain_bath))).layers[0]
    later = read_coat(Seasoned("A", piece, (dataclasses.replace(coat, hold_s=16 * HOUR), plain_bath))).layers[0]
    assert at_once.fate.lost["left in the bath"] > later.fate.lost["left in the bath"] > 0.05
    assert at_once.salt.value < later.salt.value < 1.0
    # and wiping takes some of what clings, rinsing all of it
    stays = [
        read_coat(Seasoned("A", piece, (dataclasses.replace(plain_bath, after=after),))).salt.value
        for after in AFTER_BATH
    ]
    assert stays[1] < stays[0] < stays[2]


def test_what_drips_out_is_what_the_ledger_moves_to_the_plate_and_can_be_mixed():
    salted = Layer("pre-salt", SALT, 1.0, 16 * HOUR)
    arm = Seasoned("A", Piece("lamb-shoulder", 2300), (salted,))
    found = dict(drippings_of(arm))
    # by hand: half of 38 % of 1886 g is 358 g, 15 % of it fat; 25.5 % of 18.86 g of salt leaves with it
    assert sum(found.values()) - found["table-salt/fine"] == pytest.approx(358.3, abs=0.5)
    assert found["tallow/melted"] == pytest.approx(53.7, abs=0.2)
    assert found["table-salt/fine"] * 0.985 == pytest.approx(18.86 * 0.255, rel=2e-3)
    # all of them eaten, that salt is on the plate
    all_of_it = read_coat(dataclasses.replace(arm, layers=(salted, Layer("drippings", None, 100)))).layers[0].fate
    assert all_of_it.plate * 18.86 == pytest.approx(found["table-salt/fine"] * 0.985, rel=1e-6)
    assert set(found) <= set(catalogue().grinds)
    assert all(grind in catalogue().grinds for grind in DRIP_FATS.values())
    assert "tallow/melted" not in dict(drippings_of(Seasoned("A", Piece("cod-loin", 900), (salted,))))


def test_the_core_sample_moves_with_its_hour_and_its_band_holds_it():
    stack = (Layer("pre-salt", SALT, 0.7, 16 * HOUR), Layer("rub", SALT, 1, 2 * HOUR))
    early, late = (read_coat(Seasoned("A", Piece("lamb-shoulder", 2300), stack), at_s=at).sample for at in (HOUR, None))
    assert late.time_s == late.whole_s == 18 * HOUR
    assert early.percent[0] > 0
    deep = next(n for n, cm in enumerate(late.depths_cm) if cm > 1)
    assert late.percent[deep] > 100 * early.percent[deep]
    assert all(low <= value <= high for low, value, high in zip(late.low, late.percent, late.high, strict=True))
    assert "Twice the time" in late.says[1]


layers = st.builds(
    Layer,
    kind=st.sampled_from(list(LAYER_KINDS)),
    blend=st.just(BATH),
    dose=st.floats(0.5, 5),
    hold_s=st.floats(60, 48 * HOUR),
    stays=st.one_of(st.none(), st.floats(0, 1)),
    after=st.sampled_from(sorted(AFTER_BATH)),
    eaten=st.one_of(st.none(), st.floats(0, 1)),
)


@given(
    st.lists(st.tuples(layers, st.floats(0, 1), st.floats(0.05, 3)), min_size=1, max_size=8),
    st.floats(0, 2),
    st.one_of(st.none(), st.floats(0, 100 * HOUR)),
    st.sampled_from([0.0, 0.3, 1.0]),
)
def test_salt_is_conserved_through_any_stack_at_any_time(stack, exponent, until, covered):
    column = None if covered == 1.0 else Column(2.0, round(exponent, 3), 0.9)
    dosed = [
        Dosed(layer, 0.01, sticks, 0.8, covered, bath if layer.kind in BATHS else 0.0, 0.6)
        for layer, sticks, bath in stack
    ]
    moments = []
    end = follow(dosed, column, 0.745, 0.2, until_s=until, told=lambda at, moment: moments.append((at, moment())))
    for at, moment in moments:
        for n, fate in enumerate(moment.fates):
            whole = 0.0 if n > at or dosed[n].layer.kind == "drippings" else 1.0
            assert fate.whole == pytest.approx(whole, abs=1e-9)
            assert min(fate.meat, fate.surface, fate.plate, *fate.lost.values(), 0) >= -1e-12
    assert end.fates[-1].whole <= 1 + 1e-9


def test_a_joint_keeps_its_volume_for_its_surface():
    found = read_piece(Piece("lamb-shoulder", 2300))
    column = column_of(found.solid.volume_cm3, found.open_cm2, found.solid.thickness_cm / 2, found.edible.value)
    assert column.mass_g_cm2 * found.open_cm2 == pytest.approx(found.edible.value, rel=1e-3)
    # skin on all sides but one: a sheet seasoned from that side
    belly = read_piece(Piece("pork-belly", 1500))
    sheet = column_of(belly.solid.volume_cm3, belly.open_cm2 / 3, belly.solid.thickness_cm / 2, 1500)
    assert sheet.exponent == 0
    assert sheet.half_cm > belly.solid.thickness_cm
