"""Heat and water through a piece: fine solutions, analytic series, conservation, and what cooks know of it."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ravska_core.heat.properties import KELVIN, Material, given_up, material_of, saturation_pa
from ravska_core.heat.run import HeatRun, first_time, run
from ravska_core.heat.solver import Body
from ravska_core.heat.surface import (
    AIR_CAPACITY,
    AIR_DENSITY_K,
    HALF_WET,
    LEWIS,
    STEFAN_BOLTZMANN,
    Leg,
    Side,
)
from scipy.integrate import solve_ivp

H = 3600.0
PLAIN = Material((0.48, 0.0, 0.0), (3500.0, 0.0, 0.0), 1060.0, latent=(2.4e6, 0.0))


def both(side: Side) -> tuple[Side, Side]:
    return side, side


def air(pit: float, lasts_s: float = 48 * H, h: float = 10.0, dew: float = 40.0, **more: float) -> Leg:
    return Leg(pit, both(Side(h, dew_c=dew)), lasts_s, **more)


def wrapped(pit: float, lasts_s: float = 48 * H, h: float = 10.0, fire: bool = True, **more: float) -> Leg:
    return Leg(pit, both(Side(h, dries=False, wrapped=True, by_the_fire=fire)), lasts_s, **more)


def water(celsius: float, lasts_s: float, h: float = 300.0, **more: float) -> Leg:
    return Leg(celsius, both(Side(h, celsius, 0.0, dries=False, by_the_fire=False)), lasts_s, **more)


def body(half_m: float = 0.05, exponent: float = 1.0, start_c: float = 5.0, **more: float) -> Body:
    return Body(half_m, exponent, PLAIN, start_c=start_c, first_store=0.5, boils_c=None, **more)


HOT, COOL = Side(400.0, 250.0, 0.0, h_drying=15.0, dew_c=30.0, by_the_fire=False), Side(10.0, dew_c=30.0)

CASES = {
    "air": (body(), [air(110, 6 * H)], [(1, 22.747, 55.331), (3, 58.352, 66.239), (6, 71.066, 77.777)], 0.3247),
    "closed": (body(), [Leg(110, both(Side(10.0, dries=False)), 3 * H)],
               [(1, 24.094, 69.939), (3, 77.002, 95.690)], 0.3413),
    "wrapped": (body(), [wrapped(110, 3 * H)], [(1, 21.052, 61.650), (3, 69.958, 89.407)], 0.3262),
    "liquid": (body(), [water(97, 2 * H)], [(1, 43.895, 94.842), (2, 77.477, 96.224)], 0.3421),
    "bath": (body(0.0125, 0.4), [water(57, H / 2)], [(1 / 6, 40.117, 54.196), (0.5, 56.051, 56.842)], 0.0315),
    "cold": (body(start_c=60.0), [Leg(4, both(Side(8.0, dries=False)), 4 * H)],
             [(1, 51.879, 31.625), (4, 20.265, 13.300)], 0.0),
    "rest": (body(), [air(150, 2 * H), wrapped(21, H, 8.0, fire=False)],
             [(2, 55.094, 73.344), (2.5, 61.030, 50.461), (3, 58.366, 44.627)], 0.2013),
    "iron": (body(0.0125, 0.0), [Leg(120, (HOT, COOL), 60), air(120, 240)],
             [(1 / 60, 5.075, 126.13), (5 / 60, 17.318, 47.402)], 0.0462),
}  # fmt: skip
"""Phases with what a fine grid of another program gives: hours, centre and surface [°C]; loss at the end."""


def at(gone: HeatRun, hours: float) -> tuple[float, float]:
    times = gone.times_s[:, 0]
    return (
        float(np.interp(hours * H, times, gone.centre[:, 0])), float(np.interp(hours * H, times, gone.surface[:, 0, 0]))
    )  # fmt: skip


@pytest.mark.parametrize("case", CASES)
def test_every_phase_is_as_a_fine_grid_says(case):
    piece, legs, known, loss = CASES[case]
    gone = run(piece, legs)
    for hours, centre, surface in known:
        found = at(gone, hours)
        # the steps of a cook's run are coarse: iron and the open rest are allowed more
        assert found[0] == pytest.approx(centre, abs=0.65)
        assert found[1] == pytest.approx(surface, abs=3.0 if case in ("iron", "rest") else 1.5)
    assert float(gone.loss[-1, 0]) == pytest.approx(loss, abs=0.006)
    assert float(gone.heat[0]) == pytest.approx(float(gone.stored[0]), rel=1e-4)


@pytest.mark.parametrize("case", ["air", "rest", "iron"])
def test_on_a_fine_grid_it_is_the_fine_solution(case):
    piece, legs, known, loss = CASES[case]
    short = case == "iron"
    each = 0.25 if short else 10.0
    fine = [0.1] * 20 + [each] * int((sum(leg.lasts_s for leg in legs) - 2) / each)
    gone = run(piece, legs, cells=60, steps=fine)
    for hours, centre, surface in known[:-1]:
        assert at(gone, hours)[0] == pytest.approx(centre, abs=0.1)
        assert at(gone, hours)[1] == pytest.approx(surface, abs=0.6 if short else 0.15)
    assert float(gone.loss[-1, 0]) == pytest.approx(loss, abs=0.001)


@pytest.mark.parametrize(
    ("exponent", "early", "late"), [(0, 0.95064, 0.53386), (1, 0.87017, 0.24938), (2, 0.77231, 0.10798)]
)
def test_slab_log_and_ball_follow_their_analytic_series(exponent, early, late):
    # Carslaw and Jaeger, Conduction of Heat in Solids, 3.11, 7.7, 9.4: centre at Bi 1, Fo 0.2 and 1
    half, h = 0.03, 0.48 / 0.03
    tau = half**2 * 3500 * 1060 / 0.48
    side = Side(h, 100.0, 0.0, dries=False, by_the_fire=False)
    gone = run(body(half, exponent, 0.0), [Leg(100, both(side), 1.0001 * tau)])
    for fourier, theta in ((0.2, early), (1.0, late)):
        found = float(np.interp(fourier * tau, gone.times_s[:, 0], gone.centre[:, 0]))
        assert 1 - found / 100 == pytest.approx(theta, abs=0.0012)


def test_an_independent_solver_of_the_same_equations_agrees():
    """The equations written down once more, with no shared line, and left to a stiff solver of SciPy."""
    cells, half, pit, h = 60, 0.04, 120.0, 9.0
    meat = material_of(0.745)
    edges = np.linspace(0, 1, cells + 1) ** 1.5
    inside = 1 - edges
    volume = half / 3 * (inside[:-1] ** 3 - inside[1:] ** 3)
    middle = (edges[1:] + edges[:-1]) / 2 * half
    area = inside**2
    seen = np.full(cells, 5.0)

    def slopes(_: float, state: np.ndarray) -> np.ndarray:
        t, store = state[:cells], max(state[cells], 0.0)
        k = meat.conductivity[0] + t * (meat.conductivity[1] + t * meat.conductivity[2])
        c = meat.capacity[0] + t * (meat.capacity[1] + t * meat.capacity[2])
        surface = state[cells + 1]
        wet = store / (store + HALF_WET)
        film = AIR_DENSITY_K / (pit + KELVIN) * AIR_CAPACITY * LEWIS
        off = wet * h / film * (saturation_pa(surface) - saturation_pa(40.0)) / (461.5 * (surface + KELVIN))
        gain = h * (pit - surface) + 0.9 * STEFAN_BOLTZMANN * ((pit + KELVIN) ** 4 - (surface + KELVIN) ** 4)
        gain -= (meat.latent[0] + meat.latent[1] * surface) * off
        into = k[0] / middle[0] * (surface - t[0])
        flow = np.zeros(cells + 1)
        flow[0] = into
        flow[1:-1] = area[1:-1] * (k[1:] + k[:-1]) / 2 * (t[:-1] - t[1:]) / (middle[1:] - middle[:-1])
        rate = (flow[:-1] - flow[1:]) / (meat.density * c * volume)
        # water is given up where a cell is warmer than it ever was, which while it only warms is always
        gives = (given_up(t + 0.005) - given_up(t - 0.005)) / 0.01 * np.maximum(rate, 0.0)
        supply = 0.6 * float(np.sum(gives * meat.density * volume))
        # a skin without mass, so thin that it follows at once
        return np.concatenate((rate, [supply - off, (gain - into) / 300.0]))

    known = solve_ivp(slopes, (0, 3 * H), np.concatenate((seen, [0.1, 5.0])), method="LSODA", rtol=1e-7, atol=1e-6,
                      t_eval=[H, 2 * H, 3 * H])  # fmt: skip
    piece = Body(half, 2.0, meat, start_c=5.0, first_store=0.1, boils_c=None)
    gone = run(piece, [air(pit, 3 * H, h)], cells=60, steps=[0.5] * 20 + [10.0] * 1079)
    for row, hours in enumerate((1, 2, 3)):
        assert at(gone, hours)[0] == pytest.approx(known.y[cells - 1, row], abs=0.25)
        assert at(gone, hours)[1] == pytest.approx(known.y[cells + 1, row], abs=0.25)


SHOULDER = Body(0.0924, 1.96, material_of(0.745), start_c=5.0, crust_m=2e-5)
"""A shoulder of 4 kg: an ellipsoid 1.3 : 1 : 0.8."""


def test_the_stall_comes_and_goes_by_itself():
    gone = run(SHOULDER, [air(110, until_c=95.0)])
    times, centre = gone.times_s[:, 0] / H, gone.centre[:, 0]
    assert float(gone.ended_s[0]) / H == pytest.approx(13.6, abs=0.7)
    halves = np.arange(0, times[-1] - 0.5, 0.1)
    rises = (np.interp(halves + 0.5, times, centre) - np.interp(halves, times, centre)) / 0.5
    warm = np.interp(halves, times, centre) > 40
    slowest = halves[warm][rises[warm].argmin()]
    assert 60 < np.interp(slowest + 0.25, times, centre) < 78
    assert rises[warm].min() < 4


def test_wrapped_at_sixty_it_is_done_hours_sooner():
    gone = run(SHOULDER, [air(110, until_c=60.0, phase=0), wrapped(110, until_c=95.0, phase=1)])
    assert float(gone.ended_s[0]) / H == pytest.approx(10.6, abs=0.6)


@given(st.floats(0.008, 0.05), st.floats(0, 2.5), st.floats(150, 350), st.floats(0, 3000))
@settings(max_examples=25, deadline=None)
def test_no_wet_cell_rises_above_the_boiling_point(half, exponent, pit, height):
    limit = 100 - 3.3e-3 * height
    piece = Body(half, exponent, material_of(0.745), crust_m=2e-5, boils_c=limit)
    gone = run(piece, [air(pit, H, h=20)], 2 * H)
    dry = 0.40 * piece.material.density * 0.999
    boiled = float(gone.water["boiled"][0])
    whole = half / (exponent + 1) * dry
    if boiled < 0.02 * whole:  # as long as hardly any has boiled dry, none is hotter
        assert gone.depth_c.max() <= limit + 0.5
    assert gone.depth_c[:, -1].max() <= limit + 0.5 or boiled > 0.3 * whole


@given(st.floats(0.006, 0.09), st.floats(0, 3), st.floats(60, 250), st.floats(0, 1), st.sampled_from([0.05, 0.5, 1.4]))
@settings(max_examples=30, deadline=None)
def test_heat_and_water_are_neither_made_nor_lost(half, exponent, pit, reaches, store):
    piece = Body(half, exponent, material_of(0.745), reaches=reaches, first_store=store, boils_c=None)
    gone = run(piece, [air(pit, 2 * H), wrapped(21.0, H)])
    warmed = abs(float(gone.stored[0])) + 1e3
    # what it takes in is what it holds, but for the capacity that changes within a step
    assert abs(float(gone.heat[0] - gone.stored[0])) < 0.02 * warmed
    meat = half / (exponent + 1) * piece.material.density
    given_up = meat * (0.745 - 0.40) * 1.0001
    lost = float(gone.loss[-1, 0]) * meat
    water_out = sum(float(gone.water[name][0]) for name in ("dripped", "evaporated", "ran off"))
    assert lost == pytest.approx(water_out, abs=1e-9)
    assert lost <= given_up + store + 0.01
    assert float(gone.water["store"][0]) >= -1e-12


def test_a_roast_still_rises_at_rest_and_more_from_a_hotter_fire():
    piece = Body(0.068, 1.92, material_of(0.745), start_c=5.0, crust_m=2e-5)
    rises = []
    for pit in (120, 165):
        gone = run(piece, [air(pit, until_c=58.0), wrapped(21, H, 8.0, fire=False, phase=1)])
        pulled = gone.centre[np.flatnonzero(gone.leg[:, 0] == 1)[0], 0]
        rises.append(float(gone.centre[:, 0].max() - pulled))
    assert 2 < rises[0] < 5
    assert rises[1] > rises[0] + 4


def test_a_steak_on_iron_alone_rises_more_than_one_that_was_finished_gently():
    steak = Body(0.0175, 1.2, material_of(0.745), start_c=5.0)
    sear = [Leg(60, (HOT, COOL), 60), Leg(60, (COOL, HOT), 60)]
    gentle = [*sear, air(110, until_c=52.0, phase=1), Leg(21, both(Side(8.0, dew_c=10.0)), 900, phase=2)]
    iron = [Leg(60, (HOT, COOL) if number % 2 else (COOL, HOT), 30, until_c=52.0) for number in range(40)] + [
        Leg(21, both(Side(8.0, dew_c=10.0)), 900, phase=1)
    ]

    def rise(legs: list[Leg]) -> float:
        gone = run(steak, legs)
        last = np.flatnonzero(gone.leg[:, 0] == len(legs) - 1)[0]
        return float(gone.centre[last:, 0].max() - gone.centre[last, 0])

    assert 0.3 < rise(gentle) < 4
    assert rise(iron) > rise(gentle) + 2


def test_draws_are_as_each_by_itself():
    halves = np.array([0.05, 0.03, 0.07])
    legs = [air(120, until_c=55.0, phase=0), Leg(60, (HOT, COOL), 60, phase=1), Leg(60, (COOL, HOT), 60, phase=1)]
    together = run(replace(SHOULDER, half_m=halves), legs)
    for number, half in enumerate(halves):
        alone = run(replace(SHOULDER, half_m=float(half)), legs)
        assert float(together.ended_s[number]) == pytest.approx(float(alone.ended_s[0]), rel=1e-6)
        # a sear after a phase that ended by its centre lasts as long as it is said, not as long as a step is
        left = alone.times_s[np.flatnonzero(alone.leg[:, 0] == 0)[-1], 0]
        assert float(alone.ended_s[0]) - left == pytest.approx(120, abs=1e-6)


def test_a_coarse_run_is_done_when_a_fine_one_is():
    legs = [air(110, until_c=95.0)]
    coarse = float(run(SHOULDER, legs).ended_s[0])
    fine = run(SHOULDER, legs, cells=36, steps=[1.0] * 60 + [60.0] * 900)
    assert coarse == pytest.approx(float(fine.ended_s[0]), rel=0.013)


def test_what_waits_for_a_heat_it_never_gets_comes_to_an_end():
    gone = run(SHOULDER, [water(60, 72 * H, until_c=75.0)])
    assert math.isnan(float(gone.ended_s[0]))
    assert float(gone.times_s[-1, 0]) < 30 * H


def test_times_to_a_goal_lie_on_straight_lines_between_rows():
    times = np.array([[0.0, 0.0], [10.0, 20.0], [20.0, 40.0]])
    values = np.array([[60.0, 10.0], [70.0, 50.0], [80.0, 55.0]])
    found = first_time(times, values, 54.0)
    assert found.tolist() == [0.0, pytest.approx(36.0)]
    assert np.isnan(first_time(times, values, 90.0)).all()


def test_what_conducts_better_warms_sooner_and_each_draw_has_a_mean_of_its_own():
    legs = [Leg(110.0, both(Side(10.0)), 2 * H)]
    found = run(body(k_factor=np.array([1.0, 1.4]), half_m=np.array([0.04, 0.05])), legs)
    assert found.first_mean[-1] == pytest.approx(found.mean[0], abs=1e-9)
    assert found.first_mean[0] == pytest.approx(5.0)
    poor, good = (float(run(body(k_factor=k), legs).centre[-1, 0]) for k in (0.7, 1.4))
    assert good > poor + 5
