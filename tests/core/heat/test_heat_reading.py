"""What a piece's phases come to: the trade's usual times in its grains, and what changes them."""

import math
from dataclasses import replace

import numpy as np
import pytest
from ravska_core.coat import Layer, Seasoned, drippings_of, plain, read_coat
from ravska_core.heat import Coated, Heated, Phase, cooker_for, heated, on_fire_of, read_heat, what_if
from ravska_core.heat.chances import grains
from ravska_core.heat.heated import body_of
from ravska_core.heat.phases import legs_of
from ravska_core.heat.run import run
from ravska_core.heat.scorch import scorching
from ravska_core.heat.trade import TRADE_TIMES, TradeTime, factor_of
from ravska_core.meat import Measures, OwnCut, Piece, Stage, cut_of_own, find_cut, read_piece
from ravska_core.working import BadInput

PIT = Phase("indirect", 120.0, "grate", centre_c=55.0, wood="alder")


def on_fire(cut: str, mass_g: float, *phases: Phase, **more: object) -> Heated:
    piece = Piece(cut, mass_g, **more)  # type: ignore[arg-type]
    cookers = tuple(cooker_for(phase.surround) for phase in phases)
    return Heated(piece, find_cut(cut), read_piece(piece), phases, cookers)


ROUND = on_fire("beef-round", 2000, PIT)


@pytest.mark.parametrize("row", TRADE_TIMES, ids=lambda row: f"{row.cut}-{row.mass_g}")
def test_the_models_own_figure_and_the_factor_of_each_cut_are_as_written(row: TradeTime):
    on = replace(on_fire(row.cut, row.mass_g, *row.phases), piece=Piece(row.cut, row.mass_g, row.count))
    on = replace(on, reading=read_piece(on.piece))
    legs = legs_of(row.phases, on.cookers)
    body = replace(body_of(on), crust_m=2e-5)
    assert float(run(body, legs).ended_s[0]) / 3600 == pytest.approx(row.model_h, rel=0.01)
    found = float(run(replace(body, slower=row.factor), legs).ended_s[0]) / 3600
    assert found == pytest.approx(math.sqrt(row.low_h * row.high_h), rel=0.03)


@pytest.mark.parametrize("row", TRADE_TIMES, ids=lambda row: f"{row.cut}-{row.mass_g}")
def test_the_grains_hold_the_usual_times_of_the_trade(row: TradeTime):
    on = on_fire(row.cut, row.mass_g, *row.phases, count=row.count)
    read = read_heat(on)
    known = [one / 3600 for one in read.done if one is not None]
    assert len(known) >= 18
    assert known[1] < row.high_h
    assert known[-2] > row.low_h
    # common practice, no source: both ends of what is usual lie within the twenty grains
    assert known[0] <= row.low_h * 1.03
    assert known[-1] >= row.high_h * 0.97


def test_where_physics_is_weak_the_doubt_is_wide():
    for cut in ("beef-brisket", "pork-belly", "pork-ribs", "duck-leg"):
        assert factor_of(find_cut(cut)).spread > factor_of(find_cut("pork-shoulder")).spread
    goat = factor_of(find_cut("goat-leg"))
    assert goat.factor == 1.0
    assert goat.spread > factor_of(find_cut("pork-shoulder")).spread


def test_a_cut_of_ones_own_takes_as_long_as_its_like_with_more_doubt():
    like = find_cut("lamb-shoulder")
    own = cut_of_own(OwnCut("own-1", "Weir roll", like.key, bone_share=0.1))
    found = factor_of(own)
    assert found.factor == factor_of(like).factor == pytest.approx(0.83)
    assert found.spread == 0.22
    assert found.spread > factor_of(like).spread
    assert found.says.startswith("as lamb shoulder")
    # shaped otherwise, the usual times of the other say nothing of it
    flat = cut_of_own(OwnCut("own-1", "Weir slab", like.key, shape="box", measures=Measures(30, 20, 4), bone_share=0.1))
    assert factor_of(flat).factor == 1.0
    weak = cut_of_own(OwnCut("own-2", "Lock belly", "pork-belly"))
    assert factor_of(weak).spread == factor_of(find_cut("pork-belly")).spread


def spread(cut: str, mass_g: float) -> float:
    read = read_heat(on_fire(cut, mass_g, Phase("indirect", 120.0, "grate", centre_c=70.0)))
    known = [one for one in read.done if one is not None]
    return math.log(known[17] / known[2])


def test_the_grains_of_a_flat_cut_lie_further_apart():
    assert spread("pork-belly", 1800) > spread("pork-shoulder", 1800) * 1.15


def test_a_roast_is_done_sooner_when_hotter_thinner_or_warmer_at_first():
    done = read_heat(ROUND).done_s
    assert done is not None
    hotter = read_heat(on_fire("beef-round", 2000, replace(PIT, aimed_c=130.0))).done_s
    smaller = read_heat(on_fire("beef-round", 1200, PIT)).done_s
    out = read_heat(on_fire("beef-round", 2000, PIT, stages=(Stage("temper", "bench", 21.0, 7200.0),))).done_s
    assert hotter is not None
    assert smaller is not None
    assert out is not None
    assert hotter < done
    assert smaller < 0.85 * done
    assert 0.85 * done < out < done


def test_it_is_pulled_before_its_endpoint_by_what_it_still_rises():
    read = read_heat(on_fire("beef-round", 2000, PIT, endpoint_c=55.0))
    assert read.pull_c == pytest.approx(55 - read.carry.value)
    assert 1 < read.carry.value < 6
    assert read.carry.low <= read.carry.value <= read.carry.high  # type: ignore[operator]
    assert read.peak_c == pytest.approx(read.phases[0].centre_c + read.carry.value, abs=0.6)
    assert "rest of 20 min" in read.rests


def test_the_loss_is_what_its_parts_come_to_and_the_yield_is_the_rest():
    read = read_heat(ROUND)
    assert read.loss.value == pytest.approx(sum(step.value for step in read.loss.steps[:-1]))
    assert read.cook_yield == pytest.approx(1 - read.loss.value / 100)
    assert read.loss.value == pytest.approx(sum(phase.lost for phase in read.phases) * 100, abs=1.0)


def test_curves_are_drawn_within_their_own_span():
    read = read_heat(ROUND)
    assert len(read.times_s) == len(read.centre) == len(read.surface) == len(read.by_depth) <= 122
    assert all(low <= middle + 1.5 and middle <= high + 1.5
               for low, middle, high in zip(read.centre_low, read.centre, read.centre_high, strict=True))  # fmt: skip
    assert read.depths_cm == tuple(sorted(read.depths_cm))
    assert read.by_depth[10][0] > read.by_depth[10][-1]


def test_smoke_takes_while_the_surface_is_wet_and_wood_burns():
    assert 600 < read_heat(ROUND).smoke_wet_s < read_heat(ROUND).phases[0].ends_s
    assert read_heat(on_fire("beef-round", 2000, replace(PIT, wood=""))).smoke_wet_s == 0


def test_cautions_stand_where_the_centre_stays_below_the_usual_minimum():
    assert [one.id for one in read_heat(ROUND).cautions] == ["fire-below"]
    bird = read_heat(on_fire("turkey-breast", 2000, replace(PIT, centre_c=60.0)))
    assert bird.cautions[0].id == "fire-below-stop"
    assert bird.cautions[0].level == "stop"
    assert "your local food authority" in bird.cautions[0].action
    assert read_heat(on_fire("turkey-breast", 2000, Phase("oven", 165.0, "rack", centre_c=75.0))).cautions == ()


def test_meat_that_is_not_intact_has_a_clock_in_its_centre():
    slow = replace(PIT, aimed_c=95.0, centre_c=85.0)
    ids = [one.id for one in read_heat(on_fire("pork-shoulder", 4000, slow, pierced=True)).cautions]
    assert any(one.startswith("fire-centre") for one in ids)
    assert not any(one.id.startswith("fire-centre") for one in read_heat(on_fire("pork-shoulder", 4000, slow)).cautions)


def test_a_bath_below_130_f_is_stopped_after_four_hours():
    bath = Phase("water bath", 52.0, "bag", lasts_s=5 * 3600.0)
    assert "fire-bath" in [one.id for one in read_heat(on_fire("beef-round", 1000, bath)).cautions]
    short = replace(bath, lasts_s=3 * 3600.0)
    assert "fire-bath" not in [one.id for one in read_heat(on_fire("beef-round", 1000, short)).cautions]


def test_what_cannot_be_done_is_said_with_a_way_on():
    never = read_heat(on_fire("beef-chuck", 1500, Phase("covered liquid", 52.0, "pot", feel="like butter")))
    assert never.done_s is None
    assert "does not end within 72 h" in never.says[0]
    with pytest.raises(BadInput) as refused:
        read_heat(replace(ROUND, phases=(), cookers=()))
    assert refused.value.argument == "phases"


def test_higher_up_a_braise_takes_longer():
    braise = on_fire("beef-chuck", 1500, Phase("covered liquid", 99.0, "pot", feel="like butter"))
    sea, high = read_heat(braise).done_s, read_heat(replace(braise, height_m=2000.0)).done_s
    assert sea is not None
    assert high is not None
    assert high > 1.15 * sea


def test_the_feel_is_told_of_tough_cuts_alone():
    assert read_heat(ROUND).feel == ""
    assert read_heat(on_fire("beef-chuck", 1500, replace(PIT, centre_c=80.0))).feel in ("tough", "firm", "giving")


def test_grains_are_twenty_quantiles_and_none_where_it_never_came_to_it():
    values = np.arange(64.0)
    found = grains(values)
    assert len(found) == 20
    assert found[0] == pytest.approx(64 / 40 - 0.5)
    assert found[-1] == pytest.approx(64 - 64 / 40 - 0.5)
    half = grains(np.where(values < 32, values, np.nan))
    assert sum(one is None for one in half) == 10
    assert grains(np.full(64, np.nan)) == (None,) * 20


def test_what_burns_is_told_once_its_surface_is_dry_and_hot_for_long_enough():
    times, hot = np.arange(0.0, 601, 60), np.full(11, 180.0)
    coat = [Coated("Sugar", 170.0, 0.3, 0.4), Coated("Salt", 300.0, 0.5, 0.4), Coated("Trace", 120.0, 0.01, 0.4)]
    dry, wet = np.zeros(11), np.ones(11)
    (sugar,) = scorching(coat, times, hot, dry, None)
    assert (sugar.name, sugar.lasts_s, sugar.celsius, sugar.on_iron) == ("Sugar", 600.0, 180.0, False)
    assert scorching(coat, times, hot, wet, None) == ()
    # a coarse grain stands off the meat and takes the iron's heat
    coarse = [Coated("Cracked pepper", 200.0, 0.3, 2.5)]
    assert scorching(coarse, times, hot, wet, 280.0)[0].on_iron
    assert scorching(coarse, times, hot, wet, None) == ()
    # what is fine lies between the meat and the iron, halfway between their heats
    fine = [Coated("Paprika", 200.0, 0.3, 0.3)]
    assert scorching(fine, times, np.full(11, 121.0), dry, 280.0)[0].celsius == pytest.approx(200.5)
    assert scorching(fine, times, np.full(11, 119.0), dry, 280.0) == ()


def test_a_sweet_rub_over_iron_burns_and_wrapped_in_a_slow_pit_does_not():
    rub = Layer("rub", plain("brown-sugar/packed"), 5.0)
    seasoned = Seasoned("A", Piece("beef-rib-steak", 400), (rub,), None, 180.0)
    iron = Phase("hot iron", 280.0, "pan", sears_s=(90.0, 90.0))
    burnt = read_heat(heated(seasoned, [iron], [cooker_for("hot iron")]))
    assert [one.name for one in burnt.phases[0].scorched]
    slow = Phase("indirect", 110.0, "foil", centre_c=55.0)
    kept = read_heat(heated(seasoned, [slow], [cooker_for("indirect")]))
    assert kept.phases[0].scorched == ()


def test_what_if_says_how_much_sooner_and_what_it_costs():
    hotter, thinner, wrapped = what_if(ROUND)
    assert hotter.done_s is not None
    assert hotter.sooner_s is not None
    planned = hotter.done_s + hotter.sooner_s
    assert planned == pytest.approx(read_heat(ROUND).done_s, rel=1e-3)
    warmer = read_heat(on_fire("beef-round", 2000, replace(PIT, aimed_c=130.0)))
    assert hotter.done_s == pytest.approx(warmer.done_s, rel=1e-3)
    assert hotter.loss_percent == pytest.approx(warmer.loss.value, rel=0.02)
    assert thinner.sooner_s is not None
    assert wrapped.sooner_s is not None
    assert thinner.sooner_s > 0.4 * planned
    assert wrapped.sooner_s > hotter.sooner_s
    # a bath cannot be wrapped
    bath = on_fire("beef-round", 2000, Phase("water bath", 57.0, "bag", centre_c=55.0))
    assert [one.says for one in what_if(bath)] == ["10 °C hotter (18 °F)", "Half as thick"]


def test_the_ledger_goes_by_what_is_left_after_the_fire():
    rub = Layer("rub", plain("table-salt/fine"), 3.0)
    seasoned = Seasoned("A", Piece("beef-round", 2000), (rub,), None, 180.0)
    fire = on_fire_of(seasoned.piece, [PIT], [cooker_for("indirect")])
    kept = fire.cook_yield
    assert kept == pytest.approx(read_heat(ROUND).cook_yield, abs=0.005)
    usual, run_through = read_coat(seasoned), read_coat(replace(seasoned, fire=fire))
    assert run_through.servings.value == pytest.approx(usual.servings.value * kept / usual.piece.cook_yield)
    assert run_through.sodium.value == pytest.approx(usual.sodium.value * usual.piece.cook_yield / kept, rel=0.03)
    assert "heat-water" in {step.source for step in run_through.servings.steps}
    # left on for longer, less is left and more drips
    longer = on_fire_of(seasoned.piece, [replace(PIT, centre_c=85.0)], [cooker_for("indirect")])
    dry = longer.cook_yield
    assert dry < kept
    drips = [sum(grams for _, grams in drippings_of(replace(seasoned, fire=one))) for one in (fire, longer)]
    assert drips[1] == pytest.approx(drips[0] * (1 - dry) / (1 - kept), rel=0.02)


def test_cubes_that_touch_on_a_skewer_take_longer_than_those_apart():
    skewered = Phase("direct flame", 230.0, "skewer", centre_c=60.0, turned_s=60.0)
    cubes = on_fire("lamb-leg", 800, skewered, cut_into="cubes", cut_cm=3.5)
    apart, touching = (read_heat(replace(cubes, phases=(one,))).done_s for one in (
        skewered, replace(skewered, apart=False)))  # fmt: skip
    assert apart is not None
    assert touching is not None
    assert 1.15 * apart < touching < 2.2 * apart


def test_a_yield_is_of_the_nearest_depth_and_as_good():
    near = [
        on_fire_of(Piece("beef-round", grams), [PIT], [cooker_for("indirect")]).cook_yield for grams in (2000, 2010)
    ]
    assert near[0] == near[1]
    exact = read_heat(on_fire("beef-round", 2010, PIT)).cook_yield
    assert near[1] == pytest.approx(exact, abs=0.008)


def test_every_figure_of_a_reading_is_the_one_it_is_called():
    read = read_heat(on_fire("beef-round", 2000, PIT, endpoint_c=55.0))
    assert read.carry.steps[-1].value == read.carry.value
    assert read.carry.steps[1].value - read.carry.steps[0].value == pytest.approx(read.carry.value)
    assert (read.done_low_s, read.done_high_s) == (read.done[1], read.done[-2])
    assert (read.dose.low, read.dose.high) == (read.dose.value / 2, read.dose.value * 2)
    # what rises less than a degree at rest is pulled by just that much sooner, and what never rises at its goal
    bath = Phase("water bath", 57.0, "bag", lasts_s=3 * 3600.0)
    still = read_heat(
        on_fire("beef-rump-steak", 400, bath, Phase("rest", 21.0, "foil", lasts_s=600.0), endpoint_c=56.0)
    )
    assert still.carry.value < 1
    assert still.pull_c == pytest.approx(56 - max(0.0, still.carry.value))


def test_what_is_threaded_between_the_meat_and_takes_longer_or_shorter_is_said():
    skewered = Phase("direct flame", 230.0, "skewer", lasts_s=600.0, turned_s=60.0)

    def said(lasts_s: float, *threaded: str) -> list[str]:
        phase = replace(skewered, lasts_s=lasts_s, threaded=threaded)
        return [one for one in read_heat(on_fire("lamb-leg", 800, phase, cut_into="cubes", cut_cm=3.0)).says
                if "by themselves" in one]  # fmt: skip

    assert said(600.0, "onion", "pepper", "mushroom") == []
    assert said(600.0, "tomato", "root") == [
        "Small tomatoes: 3 to 6 min over a flame, the meat about 10 min. Thread them by themselves, and put them on "
        "later.",
        "Raw roots: 25 to 40 min over a flame, the meat about 10 min. Thread them by themselves, and put them on "
        "before it.",
    ]
    # 1.35 times as long, or as short, is where it is said: small tomatoes until 486 s, roots from 1111 s
    assert said(480.0, "tomato") == []
    assert said(492.0, "tomato") != []
    assert said(1116.0, "root") == []
    assert said(1104.0, "root") != []
    with pytest.raises(BadInput, match="choose of these"):
        read_heat(on_fire("lamb-leg", 800, replace(skewered, threaded=("pebble",))))


def test_things_of_unlike_speed_on_one_skewer_are_warned_about():
    skewered = Phase("direct flame", 230.0, "skewer", centre_c=75.0, turned_s=60.0)
    unlike = on_fire("chicken-thigh", 420, skewered, count=3, masses_g=(100.0, 120.0, 200.0))
    assert any("thread like with like" in one for one in read_heat(unlike).says)
    alike = on_fire("chicken-thigh", 420, skewered, count=3, masses_g=(135.0, 140.0, 145.0))
    assert not any("thread" in one for one in read_heat(alike).says)
    grate = on_fire("chicken-thigh", 420, replace(skewered, vessel="grate"), count=3, masses_g=(100.0, 120.0, 200.0))
    assert not any("thread" in one for one in read_heat(grate).says)


def test_a_phase_is_told_by_what_happens_in_it_alone():
    sear = Phase("hot iron", 280.0, "pan", sears_s=(60.0, 60.0))
    pit, seared, rest = read_heat(on_fire("pork-loin", 1400, replace(PIT, centre_c=54.0), sear)).phases
    # beside a fire of 120 °C no surface is hotter than that, whatever comes after
    assert pit.surface_c < 120 < seared.surface_c
    assert (pit.begins_s, pit.ends_s, seared.ends_s) == (0.0, seared.begins_s, rest.begins_s)
    assert seared.ends_s - seared.begins_s == pytest.approx(120)
    assert pit.centre_c == pytest.approx(54, abs=0.15)


def test_what_is_left_to_eat_is_the_edible_weight_less_the_loss():
    leg = read_heat(on_fire("lamb-leg", 2500, PIT))
    # by hand: 2,500 g of which a fifth is bone
    assert leg.cooked.value == pytest.approx(2000 * (1 - leg.loss.value / 100))
    assert leg.cooked.low < leg.cooked.value < leg.cooked.high  # type: ignore[operator]


def test_what_was_thawed_for_too_short_a_time_may_have_ice_in_its_middle():
    # usual US guidance: a day in the fridge for five pounds, 2.27 kg
    def said(hours: float, **more: object) -> bool:
        thawed = Stage("thaw", more.pop("place", "fridge"), more.pop("celsius", 4.0), hours * 3600)  # type: ignore[arg-type]
        read = read_heat(on_fire("beef-round", 4536, PIT, stages=(thawed,), **more))
        return any("ice in its middle" in one for one in read.says)

    assert said(24)
    assert not said(44)
    assert not said(24, count=2, masses_g=(2268.0, 2268.0))
    assert not said(24, place="bench", celsius=20.0)
