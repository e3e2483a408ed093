"""Salt and water of a coat while the meat is on the fire: science.md sections 5 and 8."""

import dataclasses
import math

import numpy as np
import pytest
from builders import blend
from ravska_core.coat import Injection, Layer, OnFire, Seasoned, plain, read_coat, side
from ravska_core.coat.fates import Dosed, follow
from ravska_core.coat.wetness import DRY_KG_M2, wetness
from ravska_core.diffusion import Column, diffusivity_m2_s, reach_cm
from ravska_core.meat import Piece
from scipy.integrate import quad, solve_ivp

HOUR = 3600.0
SALT = plain("table-salt/fine")
RUB = blend(("table-salt/fine", 1, "spoon"), ("black-pepper/ground", 1, "spoon"))
STOCK = blend(("stock/liquid", 9, "scale"), ("table-salt/fine", 1, "scale"), kind="injection", batch_g=400)
SHOULDER = Piece("lamb-shoulder", 2300)
SHEET = Column(2.0, 0.0, 1.0)


def fire(moved_cm2: float, lasts_s: float = 4 * HOUR, **more: object) -> OnFire:
    """A fire on which salt moves as much each hour."""
    told = dict.fromkeys(("off_s",), lasts_s) | more
    return OnFire(0.7, (0.0, lasts_s), (0.0, moved_cm2), (0.0, 2.0), **told)  # type: ignore[arg-type]


def salted(hold_s: float = 0.0) -> Layer:
    return Layer("rub", SALT, 2.0, hold_s, stays=1.0)


def sheet(on: OnFire | None, *layers: Layer, until_s: float | None = None) -> np.ndarray:
    """The share of the first layer in each cell of a sheet 2 cm deep, the far face closed."""
    dosed = [Dosed(layer, salt_g_cm2=0.002) for layer in layers]
    return follow(dosed, SHEET, 0.74, fire=on, until_s=until_s).cells[:, 0]


def depth(cells: np.ndarray) -> float:
    return float(cells @ SHEET.middles_cm / cells.sum())


def test_salt_moves_as_crank_has_it_by_what_the_fire_moves_it():
    # finite source on one face of a 20 mm sheet, c L / M after 8 h at 4 °C (science.md section 5, from Crank): here
    # the same D t on the fire, with nothing held before
    share = sheet(fire(2.5e-6 * 8 * HOUR), salted()) / np.diff(SHEET.edges_cm) * 2.0
    found = np.interp([0.0, 0.2, 0.5, 1.0], SHEET.middles_cm, share)
    assert found == pytest.approx([4.2052, 3.6599, 1.7652, 0.1306], rel=0.02)


def test_a_warming_sheet_agrees_with_an_independent_solution():
    # D(T(t)) in the equation itself, by the method of lines on an even grid of its own
    def warms(t: float) -> float:
        return 4.0 + 70.0 * (1 - math.exp(-t / 5000.0))

    lasts = 3 * HOUR
    times = np.linspace(0, lasts, 40)
    moved = [quad(lambda t: diffusivity_m2_s(warms(t)) * 1e4, 0, until)[0] for until in times]
    on = OnFire(0.7, tuple(times), tuple(moved), tuple(times * 0), lasts)
    cells, wide = 400, 2.0 / 400

    def rate(t: float, c: np.ndarray) -> np.ndarray:
        flow = np.diff(c) / wide * diffusivity_m2_s(warms(t)) * 1e4
        return np.diff(np.concatenate(([0.0], flow, [0.0]))) / wide

    start = np.zeros(cells)
    start[0] = 1 / wide
    solved = solve_ivp(rate, (0, lasts), start, method="BDF", rtol=1e-7, atol=1e-9).y[:, -1]
    own = sheet(on, salted()) / np.diff(SHEET.edges_cm)
    at = np.array([0.1, 0.3, 0.6, 0.9])
    middles = (np.arange(cells) + 0.5) * wide
    assert np.interp(at, SHEET.middles_cm, own) == pytest.approx(np.interp(at, middles, solved), rel=0.01)


def test_on_the_fire_salt_goes_deeper_and_none_of_it_is_lost():
    held = sheet(None, salted(8 * HOUR))
    cooked = sheet(fire(0.2), salted(8 * HOUR))
    assert depth(cooked) > 1.5 * depth(held)
    assert cooked.sum() == pytest.approx(held.sum(), abs=1e-12)
    # half way through its fire it is between the two
    half = sheet(fire(0.2), salted(8 * HOUR), until_s=8 * HOUR + 2 * HOUR)
    assert depth(held) < depth(half) < depth(cooked)
    assert half == pytest.approx(sheet(fire(0.1), salted(8 * HOUR)))


def test_what_goes_on_during_the_fire_has_only_the_rest_of_it():
    def goes(kind: str) -> float:
        dosed = [Dosed(Layer(kind, STOCK, 10.0, stays=1.0), salt_g_cm2=0.002)]
        return depth(follow(dosed, SHEET, 0.74, fire=fire(0.3)).cells[:, 0])

    whole = depth(sheet(fire(0.3), salted()))
    assert goes("glaze") < goes("baste") < whole
    # a third of the fire is over when it is basted (common practice): two thirds of D t are left
    assert goes("baste") == pytest.approx(depth(sheet(fire(0.2), salted())))


def test_a_liquid_takes_what_the_dry_fire_left_at_the_surface():
    pot = Layer("cooking liquid", plain("stock/liquid"), 500, HOUR, 90.0)

    def left(on: OnFire | None) -> float:
        dosed = [Dosed(salted(), 0.002), Dosed(pot, bath_g_cm2=2.0, bath_water=0.95)]
        moment = follow(dosed, SHEET, 0.74, fire=on)
        assert moment.fates[0].whole == pytest.approx(1)
        return moment.fates[0].meat

    before, after, none = (left(fire(0.2, pot_s=at) if at is not None else None) for at in (3 * HOUR, 0.0, None))
    # smoked for three hours first, more of the salt is in the meat when the liquid comes
    assert before > after
    assert after == pytest.approx(none, abs=1e-9)
    # without a phase of its own the liquid is the last hour of four
    assert left(fire(0.2)) == pytest.approx(before)


def test_the_core_sample_goes_on_over_the_fire():
    on = fire(2.0)
    seasoned = Seasoned("A", SHOULDER, (Layer("rub", RUB, 5, 8 * HOUR),), fire=on)
    cold = read_coat(dataclasses.replace(seasoned, fire=None)).sample
    ended, half, put_on = (read_coat(seasoned, at_s=at).sample for at in (None, 10 * HOUR, 8 * HOUR))
    assert cold
    assert ended
    assert half
    assert put_on
    assert (cold.fire_s, ended.fire_s, ended.whole_s) == (0, 4 * HOUR, 8 * HOUR)
    assert (ended.time_s, half.time_s) == (12 * HOUR, 10 * HOUR)
    assert put_on.percent == pytest.approx(cold.percent)
    assert cold.percent[-1] < half.percent[-1] < ended.percent[-1]
    held = 2.5e-6 * 8 * HOUR
    assert ended.reach.value == pytest.approx(20 * math.sqrt(held + 2.0))
    assert half.reach.value == pytest.approx(20 * math.sqrt(held + 1.0))
    assert put_on.reach.value == pytest.approx(cold.reach.value)
    assert ended.says[:-1] == cold.says
    assert f"4 h after it went on, salt reaches {20 * math.sqrt(held + 2.0):.1f} mm" in ended.says[-1]
    assert ended.percent[-1] == pytest.approx(float(ended.says[-1].split("has ")[1].split(" ")[0]), abs=0.005)


def test_where_a_liquid_moves_the_salt_the_sample_ends_with_the_hold():
    pot = Layer("cooking liquid", plain("stock/liquid"), 500, HOUR, 90.0)
    seasoned = Seasoned("A", SHOULDER, (Layer("rub", RUB, 5, 8 * HOUR), pot), fire=fire(0.2))
    sample = read_coat(seasoned).sample
    assert sample
    assert (sample.fire_s, sample.time_s) == (0, 8 * HOUR)


def test_the_fire_evens_out_what_a_needle_put_in():
    needled = Seasoned("A", SHOULDER, (Layer("injection", STOCK, 10, 2 * HOUR, injection=Injection()),))
    cold, warm = (read_coat(dataclasses.replace(needled, fire=on)).sample for on in (None, fire(0.3)))
    assert cold
    assert warm
    assert warm.least[-1] > 1.2 * cold.least[-1]


def test_a_surface_dries_on_its_own_fire_as_an_integration_in_small_steps_has_it():
    times = np.linspace(0, HOUR, 61)
    # water condenses for ten minutes, then ever more goes off
    rate = np.where(times < 600, -2e-4, 2e-3 * times / HOUR)
    given = np.concatenate(([0.0], np.cumsum(np.diff(times) * rate[1:])))
    on = OnFire(0.7, tuple(times), tuple(np.zeros(61)), tuple(given), HOUR)
    for store in (0.02, 0.1, 0.3):
        lies, t = store, 0.0
        while t < HOUR and (t < 600 or lies > DRY_KG_M2):
            full = float(np.interp(t + 0.5, times, given) - np.interp(t, times, given))
            lies -= full if full < 0 else wetness(lies) * full
            t += 0.5
        dried = on.dry_after_s(store, DRY_KG_M2)
        assert dried == pytest.approx(t, rel=0.03)


def test_where_nothing_dries_no_crust_comes_and_that_is_said():
    wrapped = OnFire(0.7, (0.0, HOUR), (0.0, 0.1), (0.0, 0.0), HOUR)
    assert wrapped.dry_after_s(0.1, DRY_KG_M2) is None
    assert wrapped.dry_after_s(0.01, DRY_KG_M2) == 0.0
    found = side("rubbed", Seasoned("A", SHOULDER, (Layer("rub", RUB, 5, HOUR),), fire=wrapped)).surface
    assert found.dries is None
    assert "nothing dries" in found.says
    gathers = OnFire(0.7, (0.0, 900.0, HOUR), (0.0, 0.0, 0.1), (0.0, -0.2, 3.0), HOUR)
    dry = dataclasses.replace(SHOULDER, surface="dry")
    found = side("rubbed", Seasoned("A", dry, (Layer("rub", RUB, 5, HOUR),), fire=gathers)).surface
    assert found.dries is not None
    assert found.dries.value > 15
    assert "water gathers" in found.says


def test_side_by_side_counts_what_the_fire_moves_deeper():
    cold, warm = (side("rubbed", Seasoned("A", SHOULDER, (Layer("rub", RUB, 5, HOUR),), fire=on))
                  for on in (None, fire(0.3)))  # fmt: skip
    assert warm.deeper.value > cold.deeper.value + 20
    assert warm.centre_percent > cold.centre_percent
    assert warm.reading.sample
    assert warm.reading.sample.reach.value == pytest.approx(10 * reach_cm(2.5e-6 * HOUR + 0.3))


def test_how_long_it_is_on_its_own_fire_is_what_a_needled_joint_is_warned_of():
    needled = Seasoned("A", SHOULDER, (Layer("injection", STOCK, 10, 2 * HOUR, injection=Injection()),))

    def said(on: OnFire | None) -> list[str]:
        cautions = read_coat(dataclasses.replace(needled, fire=on)).cautions
        return [one.sentence for one in cautions if one.id == "centre-slow"]

    assert said(None) == [
        "Usually 5 h on the fire, and it is not intact: its centre should pass 60 °C (140 °F) within 4 h."
    ]
    assert said(fire(0.1, 3 * HOUR)) == []
    assert said(fire(0.1, 7 * HOUR))[0].startswith("By its phases 7 h on the fire, and it is not intact")
