"""Where the bowl's rules change over: at each limit, and a step to either side of it."""

import math
from dataclasses import replace

import pytest
from builders import blend
from ravska_core.blend import heat_scale, heat_scoville
from ravska_core.bowl import (
    MOST_USES,
    ScaleSettings,
    SimulatedScale,
    Use,
    allowed_g,
    corrections,
    jar_fill_percent,
    rescues,
    rounding,
    share_out,
    spoon_batch,
    stand,
    weigh_order,
)
from ravska_core.bowl.correcting import _MOST_SHARE, TASTES, _goal
from ravska_core.bowl.measuring import _candidates as candidates
from ravska_core.measure import SPOON_SETS, SpoonSet, measure_out
from ravska_core.measure.spoons import Spoon
from ravska_core.working import BadInput

SALT, PEPPER, SUGAR, OIL = "table-salt/fine", "black-pepper/ground", "white-sugar/granulated", "vegetable-oil/liquid"
HEAVY = (SALT, SUGAR, "citric-acid/granulated", "msg/granulated")
ONE = SpoonSet("one", "one spoon", (Spoon("tsp", 1, 5.0),))


def refused(call, *given) -> str:
    with pytest.raises(BadInput) as refusal:
        call(*given)
    return refusal.value.argument


# measuring


def test_batches_to_try_are_whole_spoonfuls_within_the_range_a_dozen_a_spoon_at_most():
    # 1 ml in a gram of it, by a spoon of 5 ml: every fifth gram
    whole = {mass for mass in candidates([1.0], 10.0, 40.0, ONE) if abs(mass / 5 - round(mass / 5)) < 1e-9}
    assert whole >= {10.0, 15.0, 20.0, 25.0, 30.0, 35.0, 40.0}
    # one that ends at the range's own ends belongs to it, one beyond does not
    assert max(candidates([1.0], 10.0, 39.9, ONE)) == 39.9
    far = candidates([1.0], 10.0, 1000.0, ONE)
    assert 70.0 in far
    assert 75.0 not in far
    # below a spoonful the smallest is one
    assert 5.0 in candidates([1.0], 1.0, 6.0, ONE)
    assert 0.0 not in candidates([1.0], 0.5, 6.0, ONE)


def test_between_whole_spoonfuls_sixty_steps_of_one_ratio_are_tried():
    found = candidates([1.0], 10.0, 80.0, ONE)
    even = found[-61:]
    assert even[0] == 10.0
    assert even[-1] == pytest.approx(80.0)
    assert even[20] == pytest.approx(20.0)  # 8^(1/3) = 2
    assert even[40] == pytest.approx(40.0)


def test_a_batch_by_spoons_lies_between_half_a_gram_and_fifty_kilograms():
    rub = blend((SALT, 1, "scale"), (PEPPER, 1, "scale"))
    assert 0.5 <= spoon_batch(rub, 0.5, 20).batch_g <= 20
    assert 0.5 <= spoon_batch(rub, 0.5, 0.7).batch_g <= 0.7
    assert 49_000 <= spoon_batch(rub, 49_000, 50_000).batch_g <= 50_000
    assert refused(spoon_batch, rub, 0.49, 20) == "low"
    assert refused(spoon_batch, rub, 20, 50_000.5) == "high"
    assert refused(spoon_batch, rub, 20, 19.9) == "high"
    assert spoon_batch(rub, 20, 20).batch_g == 20
    assert refused(spoon_batch, replace(rub, lines=()), 20, 30) == "lines"


def test_spoons_that_hold_nothing_of_any_line_are_said_and_one_that_does_is_enough():
    assert refused(rounding, blend(*((key, 1, "scale") for key in HEAVY), batch_g=0.5)) == "batch"
    one = rounding(blend((SALT, 1, "scale"), (PEPPER, 1, "scale"), batch_g=0.8))
    assert one.mass.value > 0
    assert one.batch == "0.8 g"
    # without salt there is none to be uncertain of
    bare = rounding(blend((PEPPER, 1, "scale"), batch_g=10))
    assert (bare.salt_after.value, bare.salt_after.high) == (0, 0)


def test_half_the_smallest_measure_is_a_pinch_and_less_is_none():
    smallest = SPOON_SETS["us"].spoons[-1].volume_ml
    assert measure_out(smallest / 2).count == 1
    less = measure_out(smallest / 2 - 1e-6)
    assert (less.text, less.count, less.error) == ("less than a pinch", 0, -1.0)
    assert measure_out(0.0).error == 0.0
    exact = measure_out(SPOON_SETS["us"].spoons[0].volume_ml)
    assert (exact.text, exact.count) == ("1 cup", 1)
    assert [step.value for step in exact.volume.steps] == [exact.volume_ml, exact.volume_ml, 0.0]


def test_a_jar_is_as_full_as_what_is_left_fills_it_and_never_more():
    assert jar_fill_percent(50, 0.5, 200) == 50.0
    assert jar_fill_percent(120, 0.5, 200) == 100.0
    assert jar_fill_percent(0, 0.5, 200) == 0.0


# weighing


def test_a_line_passes_within_two_percent_and_never_less_than_a_step_of_the_scale():
    assert allowed_g(100, 0.1) == (98.0, 102.0)
    assert allowed_g(2, 0.1) == pytest.approx((1.9, 2.1))
    assert allowed_g(0.05, 0.1) == pytest.approx((0.0, 0.15))
    assert [stand(100, weighed) for weighed in (97.99, 98.0, 102.0, 102.01)] == ["under", "met", "met", "over"]
    assert [stand(2, weighed, 0.5) for weighed in (1.49, 1.5, 2.5, 2.51)] == ["under", "met", "met", "over"]


def test_dry_goes_in_before_wet_and_wet_before_oil():
    of = blend((OIL, 1, "scale"), ("water/liquid", 1, "scale"), (SALT, 1, "scale"), (PEPPER, 1, "scale"))
    assert weigh_order(of) == [2, 3, 1, 0]
    # yoghurt is wet though it is fat too; butter is fat first
    of = blend(("butter/melted", 1, "scale"), ("yoghurt/liquid", 1, "scale"), (SALT, 1, "scale"))
    assert weigh_order(of) == [2, 1, 0]


def test_an_overshoot_is_scaled_up_to_fifty_kilograms_and_not_beyond():
    of = blend((SALT, 1, "scale"), (PEPPER, 1, "scale"), batch_g=20_000)
    up = rescues(of, [10_000, 10_000], [25_000, 0], 0)[0]
    assert up.batch_g == 50_000
    assert up.wanted_g == (25_000, 25_000)
    assert refused(rescues, of, [10_000, 10_000], [25_000.1, 0], 0) == "weighed"
    # what is as much as was wanted is not over
    assert refused(rescues, of, [10_000, 10_000], [10_000, 0], 0) == "weighed"


# a scale


def shown(scale: SimulatedScale, count: int) -> list[float | None]:
    readings = [scale.read() for _ in range(count)]
    return [reading.grams if reading else None for reading in readings]


def test_a_scale_of_no_seed_is_that_of_seed_nought_and_another_seed_another():
    def of(*seed):
        scale = SimulatedScale(ScaleSettings(noise_g=0.4), *seed)
        scale.put(50)
        return shown(scale, 40)

    assert of() == of(0)
    assert of() != of(1)


@pytest.mark.parametrize(
    ("field", "low", "high"), [("resolution_g", 0.01, 10), ("capacity_g", 10, 50_000), ("drop_outs_a_minute", 0, 60)]
)
def test_a_scale_is_one_that_a_kitchen_could_have(field, low, high):
    for given in (low, high):
        SimulatedScale(replace(ScaleSettings(), **{field: given}))
    for given in (low - 0.001, high * 1.001):
        assert refused(SimulatedScale, replace(ScaleSettings(), **{field: given})) == field


def test_it_drifts_by_the_minute_and_taring_takes_the_drift_off():
    scale = SimulatedScale(ScaleSettings(resolution_g=0.01, noise_g=0.0, drift_g_min=6))
    assert shown(scale, 600)[-1] == pytest.approx(6.0, abs=0.02)  # ten a second, a minute
    scale.tare()
    assert shown(scale, 1)[-1] == pytest.approx(0.01, abs=0.011)


def test_it_settles_once_what_it_shows_has_lain_still_for_its_time():
    scale = SimulatedScale(ScaleSettings(resolution_g=1.0, noise_g=0.0))
    scale.put(100)
    settled = [scale.read().settled for _ in range(60)]
    assert not settled[0]
    assert settled[-1]
    assert settled == sorted(settled)  # once still, it stays so
    still = SimulatedScale(ScaleSettings(resolution_g=1.0, noise_g=0.0))
    # nothing moves on it: the whole stretch must have passed all the same
    assert [still.read().settled for _ in range(12)].index(True) == settled_after()


@pytest.mark.parametrize(("resolution", "noise", "swing", "still"), [
    (1.0, 0.0, 1.9, True), (1.0, 0.0, 2.1, False), (0.1, 0.5, 2.9, True), (0.1, 0.5, 3.1, False),
])  # fmt: skip
def test_it_lies_still_within_two_steps_or_six_times_its_noise(resolution, noise, swing, still):
    scale = SimulatedScale(ScaleSettings(resolution_g=resolution, noise_g=noise, drift_g_min=0.0))
    scale._random = Swinging(swing)
    assert [scale.read().settled for _ in range(12)][-1] == still


class Swinging:
    """Chance that swings to and fro by so much [g]."""

    def __init__(self, swing: float) -> None:
        self.swing, self.up = swing, False

    def random(self) -> float:
        return 1.0

    def gauss(self, mean: float, noise: float) -> float:
        self.up = not self.up
        return self.swing if self.up else 0.0


def settled_after() -> int:
    """The reading at which nine tenths of the stretch that must lie still have passed: ten readings a second."""
    from ravska_core.bowl.scale import _SETTLED_S, READINGS_A_SECOND

    return math.ceil(round(_SETTLED_S * 0.9 * READINGS_A_SECOND, 6))


def test_it_is_overloaded_above_its_capacity_and_gets_no_lighter_than_empty():
    scale = SimulatedScale(ScaleSettings(capacity_g=100, noise_g=0.0))
    scale.put(100)
    assert not [scale.read() for _ in range(50)][-1].overload  # what swings before that is the pan
    scale.put(0.5)
    assert scale.read().overload
    scale.put(-1000)
    assert shown(scale, 60)[-1] == 0.0


# correcting

RUB = blend((SALT, 3, "scale"), (SUGAR, 5, "scale"), (PEPPER, 2, "scale"), batch_g=100)


def test_there_is_something_to_correct_from_half_a_gram_to_fifty_kilograms():
    for masses in ([0.15, 0.25, 0.1], [15_000, 25_000, 10_000]):
        assert corrections(RUB, masses, "needs-salt", "clearly")
    for masses in ([0.15, 0.25, 0.09], [15_000, 25_000, 10_001]):
        assert refused(corrections, RUB, masses, "needs-salt", "clearly") == "weighed"


def test_more_of_the_two_strongest_lines_is_offered_and_none_that_is_not_in_the_bowl():
    salty = blend((SALT, 3, "scale"), ("sea-salt-flake/flake", 3, "scale"), ("kosher-dense/flake", 3, "scale"),
                  (SUGAR, 9, "scale"))  # fmt: skip
    own = [x for x in corrections(salty, [10, 10, 10, 90], "needs-salt", "clearly") if x.lines]
    assert len(own) == 2
    for gone in (0, 1, 2):
        bowl = [10.0, 10.0, 10.0, 90.0]
        bowl[gone] = 0.0
        left = [x for x in corrections(salty, bowl, "needs-salt", "clearly") if x.lines]
        assert sorted(line for x in left for line, _ in x.lines) == [at for at in (0, 1, 2) if at != gone]


def test_what_is_too_much_is_thinned_by_the_rest_only_where_the_rest_is_more_than_one():
    two = blend((SALT, 3, "scale"), (PEPPER, 5, "scale"))
    whole = [x for x in corrections(two, [30, 70], "too-salty", "clearly") if "everything else" in x.says]
    assert whole == []
    three = [x for x in corrections(RUB, [30, 50, 20], "too-salty", "clearly") if "everything else" in x.says]
    (rest,) = three
    # 100 g at 30 % of 100 % pure salt to 24 %: 25 g of what holds none, 5 : 2
    assert sum(grams for _, grams in rest.lines) == pytest.approx(25, rel=0.02)
    assert dict(rest.lines)[1] / dict(rest.lines)[2] == pytest.approx(2.5)
    assert [round(change.before) for change in rest.changes if change.key == "salt"] == [30]


def test_a_pinch_is_corrected_as_a_bowl_is():
    large, small = (corrections(RUB, [30 * k, 50 * k, 20 * k], "too-salty", "clearly") for k in (1, 0.02))
    assert [len(found) for found in (large, small)] == [len(large)] * 2
    for big, little in zip(large, small, strict=True):
        assert little.total_g == pytest.approx(big.total_g * 0.02)


def test_heat_is_brought_to_the_end_of_its_scale_and_no_further():
    nearly = heat_scoville(9.0)
    assert heat_scale(_goal(TASTES["needs-heat"], nearly, 0.05)) == pytest.approx(9.45)
    assert heat_scale(_goal(TASTES["needs-heat"], nearly, 0.4)) == pytest.approx(10.0)
    assert _goal(TASTES["needs-salt"], 20.0, 0.1) == pytest.approx(22.0)
    assert _goal(TASTES["too-salty"], 20.0, 0.1) == pytest.approx(18.0)
    # where there is next to none it is brought in: a little of what "clearly" brings
    assert _goal(TASTES["needs-salt"], 0.0, 0.1) == pytest.approx(0.5)
    assert _goal(TASTES["needs-salt"], 0.0, 0.4) == pytest.approx(2.0)


def test_a_batch_is_as_large_as_its_uses_to_the_next_gram():
    def batch(*masses: float) -> float:
        return share_out(100, [Use("a", mass) for mass in masses]).enough_g

    assert batch(10.0004) == 10
    assert batch(10.001) == 11
    assert batch(0.1, 0.2) == 1
    assert refused(share_out, 100, [Use("a", 0.09)]) == "uses.0.mass"
    assert refused(share_out, 100, [Use("a", 1), Use("b", 50_000.1)]) == "uses.1.mass"
    assert share_out(100, [Use("a", 0.1)] * MOST_USES).enough_g > 0
    assert refused(share_out, 100, [Use("a", 1)] * (MOST_USES + 1)) == "uses"


def test_no_correction_weighs_more_than_three_times_the_batch():
    for strength in ("a little", "clearly", "a lot"):
        for taste in ("needs-salt", "too-salty", "needs-sweetness", "too-sweet", "needs-heat", "needs-depth"):
            for found in corrections(RUB, [30, 50, 20], taste, strength):
                assert found.total_g <= 100 * (1 + _MOST_SHARE) + 1e-9
