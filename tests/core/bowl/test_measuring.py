"""Spoons a cook owns, batches that suit them, methods that reduce and strain, amounts by eye, weigh-out and taste."""

import math
import random
from dataclasses import replace
from fractions import Fraction

import pytest
from builders import blend, lines
from hypothesis import assume, given
from hypothesis import strategies as st
from ravska_core.blend import (
    Blend,
    Line,
    MethodStep,
    Target,
    findings_of,
    order_of,
    parse_reduction,
    parts_of,
    read_blend,
    read_salt,
    salt_percent,
    shares,
    usual_steps,
)
from ravska_core.blend.aim import aim
from ravska_core.blend.method import check_method
from ravska_core.bowl import JARS_ML, ScaleSettings, SimulatedScale, jar_for
from ravska_core.bowl.correcting import STEPS, TASTES, Correction, corrections
from ravska_core.bowl.measuring import rounding, spoon_batch
from ravska_core.bowl.weighing import as_weighed, rescues, stand, weigh_order
from ravska_core.catalogue import catalogue
from ravska_core.coat import thin_cut_salt
from ravska_core.measure import SPOON_SETS, measure_out, own_spoons, spoon_name
from ravska_core.working import BadInput

# spoons


@given(lines(most=5), st.floats(5, 3000), st.sampled_from(sorted(SPOON_SETS)))
def test_the_error_that_spoons_make_is_never_understated(of, batch_g, key):
    mixture = Blend("dry rub", of, batch_g)
    found = rounding(mixture, SPOON_SETS[key])
    # by another way: the spoonfuls as parts by spoon are a blend of their own
    kept = [(line, row.spoons.volume_ml) for line, row in zip(of, found.lines, strict=True) if row.spoons.volume_ml]
    measured = tuple(Line(line.grind, Fraction(ml), "spoon") for line, ml in kept)
    assert found.salt_after.value == pytest.approx(salt_percent(measured), abs=1e-9)
    parts = iter(shares(measured, parts_of(measured)))
    for row in found.lines:
        assert row.share_after == pytest.approx(next(parts) * 100 if row.spoons.volume_ml else 0.0, abs=1e-9)
        assert abs(row.spoons.error) <= found.worst + 1e-12


@given(lines(most=4), st.floats(20, 200), st.floats(1.2, 4))
def test_a_spoon_friendly_batch_lies_in_its_range_and_no_batch_tried_is_better(of, low, times):
    found = spoon_batch(Blend("dry rub", of, low), low, low * times)
    assert low - 0.01 <= found.batch_g <= low * times + 0.01
    for batch_g in (low, low * times, low * times**0.5):
        assert found.worst <= rounding(Blend("dry rub", of, batch_g)).worst + 0.0026


def test_a_spoon_that_is_not_in_the_drawer_is_not_used():
    eighth = measure_out(4.92892 / 8)
    assert eighth.text == "⅛ tsp"
    without = own_spoons("us", frozenset({"⅛ tsp", "pinch"}))
    assert "⅛ tsp" not in {spoon_name(spoon) for spoon in without.spoons}
    assert measure_out(4.92892 / 8, without).text in ("¼ tsp", "less than a pinch")
    assert own_spoons("us", frozenset(spoon_name(s) for s in SPOON_SETS["us"].spoons)) is SPOON_SETS["us"]


def test_a_jar_holds_its_batch_with_room_to_shake_it():
    found = read_blend(blend(("table-salt/fine", 1, "scale"), batch_g=300))
    jar = jar_for(found.volume)
    assert jar.jar_ml in JARS_ML
    assert found.volume.high <= jar.jar_ml * 0.95
    assert jar_for(replace(found.volume, value=20_000.0, high=22_000.0)).count == 5


# methods


def finished(of: Blend) -> tuple[float, dict[str, float]]:
    """Return what a finished batch weighs and holds of each quality [g, or its unit times g]."""
    found = read_blend(of)
    mass = found.finished.value
    return mass, {key: found.scale(key).value * mass for key in ("salt", "sugar", "sour", "fat", "savoury", "water")}


@given(lines(most=6), st.floats(0.02, 0.6), st.integers(1, 3))
def test_a_reduction_conserves_all_but_water(of, by, times):
    before_mass, before = finished(Blend("glaze", of, 300.0))
    method = (MethodStep("simmer", by=by),) * times
    try:
        after_mass, after = finished(Blend("glaze", of, 300.0, method=method))
    except BadInput as refusal:
        assert refusal.argument.startswith("method")  # noqa: PT017
        return
    lost = before_mass - after_mass
    assert lost > 0
    for key in ("salt", "sugar", "sour", "fat", "savoury"):
        assert after[key] == pytest.approx(before[key], abs=1e-6)
    assert before["water"] - after["water"] == pytest.approx(lost * 100, rel=1e-6)


def test_a_reduction_agrees_with_a_hand_calculation():
    # 400 ml of water and 20 g of table salt, down by a third of the volume
    pot = blend(("water/liquid", 400, "scale"), ("table-salt/fine", 20, "scale"), batch_g=420, kind="injection")
    reduced = replace(pot, method=(MethodStep("simmer", (), by=1 / 3),))
    # CRC Handbook (from memory): 4.7 % of salt in water is 1.032 g/ml at 20 C; what does not dissolve is 0.3 g of it
    volume = 420 / 1.032
    found = read_blend(reduced)
    assert found.finished.value == pytest.approx(420 - volume / 3, abs=0.5)
    assert found.salt.value == pytest.approx(20 * 0.985 / found.finished.value * 100, abs=1e-6)
    # what goes in after the fire is not simmered
    late = replace(pot, method=(MethodStep("simmer", by=1 / 3), MethodStep("mix", (1,))))
    assert read_blend(late).finished.value == pytest.approx(
        420 - 400 / catalogue().grinds["water/liquid"].density_g_ml / 3, abs=1e-6
    )


def test_a_reduced_blend_inside_another_brings_what_is_left_of_it():
    stock = blend(("stock/liquid", 500, "scale"), ("table-salt/fine", 10, "scale"), batch_g=510, kind="cooking liquid")
    reduced = replace(stock, method=(MethodStep("simmer", by=0.5),), name="reduced")
    whole = blend((reduced, 1, "scale"), ("honey/liquid", 1, "scale"), kind="glaze")
    alone = read_blend(reduced)
    assert read_blend(whole).salt.value == pytest.approx(alone.salt.value / 2, abs=1e-9)
    assert read_blend(whole).scale("water").value == pytest.approx(
        (alone.scale("water").value + catalogue().ingredients["honey"].water * 100) / 2, abs=1e-9
    )


def test_a_reduced_blend_is_aimed_at_what_comes_out_of_the_pot():
    pot = blend(("stock/liquid", 6, "scale"), ("table-salt/fine", 1, "scale"), kind="glaze")
    pot = replace(pot, method=(MethodStep("simmer", by=0.5),))
    found = aim(pot, [Target("salt", 20, 20)])
    assert found.met
    assert read_blend(replace(pot, lines=found.lines)).salt.value == pytest.approx(20, abs=0.1)


@pytest.mark.parametrize(
    ("text", "gone"),
    [("by a third", 1 / 3), ("by 30 %", 0.3), ("30%", 0.3), ("to half", 0.5), ("1/4", 0.25), ("to 60 %", 0.4),
     ("down by two thirds", 2 / 3)],
)  # fmt: skip
def test_how_far_a_pot_goes_down_is_read_as_people_say_it(text, gone):
    assert parse_reduction(text) == pytest.approx(gone)


@pytest.mark.parametrize("text", ["", "a lot", "by 0 %", "to nothing", "99.9 %"])
def test_a_reduction_to_nothing_or_by_a_word_is_refused(text):
    with pytest.raises(BadInput):
        parse_reduction(text)


def test_methods_go_dry_first_and_oil_last_and_what_breaks_that_is_said():
    paste = blend(
        ("olive-oil/liquid", 2, "spoon"), ("kosher-dense/flake", 1, "spoon"), ("mustard-prepared/paste", 1, "spoon"),
        kind="paste",
    )  # fmt: skip
    assert weigh_order(paste) == [1, 2, 0]
    steps = usual_steps("paste", [part.leaves for part in parts_of(paste.lines)])
    assert order_of(steps, 3) == [1, 2, 0]
    assert steps[-1].of == (0,)
    oiled = replace(paste, method=(MethodStep("mix", (0,)), MethodStep("mix", (1, 2))))
    assert weigh_order(oiled) == [0, 1, 2]
    assert "oil-first" in {x.id for x in findings_of(oiled, read_blend(oiled), thin_cut_salt())}
    sound = replace(paste, method=steps)
    assert "oil-first" not in {x.id for x in findings_of(sound, read_blend(sound), thin_cut_salt())}
    with pytest.raises(BadInput, match="not there any more"):
        check_method((MethodStep("mix", (7,)),), 3)


# by eye


def test_an_amount_by_eye_is_carried_into_the_salt():
    # 1 g of salt give or take 40 % in 9 g of sugar: dS = x (1 - x) e, by hand 0.1 x 0.9 x 0.4 of 98.5 %
    eyed = Blend(
        "dry rub",
        (
            Line("table-salt/fine", Fraction(1), "scale", error=0.4),
            Line("white-sugar/granulated", Fraction(9), "scale"),
        ),
        100.0,
    )
    salt = read_blend(eyed).salt
    assert salt.high - salt.value == pytest.approx(0.1 * 0.9 * 0.4 * 98.5, rel=0.01)
    assert "by eye ±40 %" in salt.error
    assert "by-eye" in {x.id for x in findings_of(eyed, read_blend(eyed), thin_cut_salt())}


@given(lines(least=2, most=5), st.floats(0.15, 0.6))
def test_the_stated_error_covers_what_a_loose_hand_really_does(of, error):
    """Against a simulation: lines drawn with their errors scatter the salt as wide as is said."""
    eyed = tuple(replace(line, error=error) for line in of)
    found = read_blend(Blend("dry rub", eyed, 100.0)).salt
    assume(2 < found.value < 90)
    chance = random.Random(7)
    drawn = []
    for _ in range(400):
        hand = tuple(
            replace(line, parts=Fraction(float(line.parts) * max(0.05, chance.gauss(1, error / 2)))) for line in eyed
        )
        drawn.append(salt_percent(hand))
    inside = sum(found.low <= salt <= found.high for salt in drawn) / len(drawn)
    assert inside > 0.8  # the errors are drawn at half of what is stated, so nearly all must lie inside


# weigh-out


@given(lines(least=2, most=6), st.data())
def test_a_rescue_never_takes_out_of_the_bowl_and_scaling_up_keeps_the_ratio(of, data):
    mixture = Blend("dry rub", of, 200.0)
    wanted = [share * 200.0 for share in shares(of, parts_of(of))]
    at = data.draw(st.integers(0, len(of) - 1))
    poured = [w if i < at else 0.0 for i, w in enumerate(wanted)]
    poured[at] = wanted[at] * data.draw(st.floats(1.05, 3))
    up, accept, spoon = rescues(mixture, wanted, poured, at)
    assert all(add.grams > 0 for add in up.adds)
    assert {add.line for add in up.adds} == set(range(at))
    done = [poured[i] + sum(a.grams for a in up.adds if a.line == i) for i in range(len(of))]
    for i in range(at + 1):
        assert done[i] / sum(up.wanted_g) == pytest.approx(wanted[i] / 200.0)
    assert up.salt_after == pytest.approx(up.salt_before)
    assert accept.wanted_g[at] == poured[at]
    assert accept.salt_after == pytest.approx(salt_percent(as_weighed(mixture, accept.wanted_g).lines))
    assert spoon.takes_g == pytest.approx(poured[at] - wanted[at])
    with pytest.raises(BadInput):
        rescues(mixture, wanted, wanted, at)


def test_a_line_is_met_within_two_percent_and_never_closer_than_the_scale_shows():
    assert [stand(100, g) for g in (97.9, 98, 102, 102.1)] == ["under", "met", "met", "over"]
    assert [stand(2, g, 1.0) for g in (0.9, 1, 3, 3.1)] == ["under", "met", "met", "over"]


@given(lines(least=2, most=6), st.data())
def test_a_batch_holds_what_was_really_weighed(of, data):
    masses = [data.draw(st.floats(0, 300)) for _ in of]
    if sum(m >= 0.001 for m in masses) == 0:
        with pytest.raises(BadInput):
            as_weighed(Blend("dry rub", of, 100.0), masses)
        return
    parts = parts_of(of)
    kept = [(m, p) for m, p in zip(masses, parts, strict=True) if m >= 0.001]
    by_hand = sum(m * p.leaves[0][0].ingredient.nacl for m, p in kept) / sum(m for m, _ in kept) * 100
    assert read_salt(as_weighed(Blend("dry rub", of, 100.0), masses)).value == pytest.approx(by_hand, abs=1e-3)


# taste


def corrected(of: Blend, masses_g: list[float], found: Correction) -> tuple[Blend, list[float]]:
    """The blend and the masses [g] after a correction; what is new gets a line of its own at the end."""
    masses = list(masses_g)
    for line, grams in found.lines:
        masses[line] += grams
    new = [Line(key, Fraction(1), "scale") for key, _ in found.adds]
    return replace(of, lines=(*of.lines, *new)), masses + [grams for _, grams in found.adds]


@given(lines(least=2, most=6), st.sampled_from(sorted(TASTES)), st.sampled_from(sorted(STEPS)), st.sampled_from(
    ["dry rub", "marinade"]))  # fmt: skip
def test_correcting_only_ever_adds_and_goes_the_way_it_was_asked(of, taste, strength, kind):
    mixture = Blend(kind, of, 100.0)
    masses = [share * 100.0 for share in shares(of, parts_of(of))]
    try:
        found = corrections(mixture, masses, taste, strength)
    except BadInput as refusal:
        assert refusal.argument == "taste"  # noqa: PT017
        return
    quality = TASTES[taste].quality
    for way in found:
        assert all(grams > 0 for _, grams in (*way.adds, *way.lines))
        after_blend, after = corrected(mixture, masses, way)
        assert all(b >= a for a, b in zip(masses, after, strict=False))
        assert sum(after) == pytest.approx(way.total_g)
        change = next(c for c in way.changes if c.key == quality)
        assert (change.after > change.before) == TASTES[taste].up or "cover" in way.why
        if quality == "salt":  # what is said is what the corrected batch then reads
            assert read_salt(as_weighed(after_blend, after)).value == pytest.approx(change.after, abs=0.01)


def test_a_correction_agrees_with_a_hand_calculation():
    # 100 g with 4 % salt, "clearly" saltier: to 4.8 %; with table salt m = 100 x 0.8 / (98.5 - 4.8)
    brine = blend(("water/liquid", 96, "scale"), ("table-salt/fine", 4 / 0.985, "scale"), kind="marinade")
    total = 96 + 4 / 0.985
    found = corrections(brine, [96, 4 / 0.985], "needs-salt")
    now = 4 / total * 100
    assert found[0].lines == ((1, pytest.approx(total * 0.2 * now / (98.5 - 1.2 * now))),)
    too_salty = corrections(brine, [96, 4 / 0.985], "too-salty")
    water = next(way for way in too_salty if (way.lines and way.lines[0][0] == 0) or way.adds)
    assert sum(g for _, g in (*water.lines, *water.adds)) == pytest.approx(total * 0.2 / 0.8, rel=0.01)
    with pytest.raises(BadInput, match="no sour"):
        corrections(brine, [96, 4 / 0.985], "too-sharp")


# the scale


def test_a_scale_settles_on_what_lies_on_it_trembles_drifts_and_tares():
    scale = SimulatedScale(ScaleSettings(drift_g_min=0.0), seed=3)
    scale.put(250)
    early = [scale.read() for _ in range(3)]
    assert not any(reading.settled for reading in early)
    late = [scale.read() for _ in range(30)]
    assert late[-1].settled
    assert late[-1].grams == pytest.approx(250, abs=0.11)
    assert all(abs(reading.grams / 0.1 - round(reading.grams / 0.1)) < 1e-6 for reading in late)
    scale.tare()
    scale.put(12.34)
    assert [scale.read() for _ in range(25)][-1].grams == pytest.approx(12.3, abs=0.11)
    scale.put(-500)
    assert [scale.read() for _ in range(25)][-1].grams == pytest.approx(-250, abs=0.2)
    creeping = SimulatedScale(ScaleSettings(drift_g_min=3.0, resolution_g=0.1), seed=3)
    assert [creeping.read() for _ in range(600)][-1].grams == pytest.approx(3.0, abs=0.4)  # a minute


def test_a_scale_says_overload_and_falls_silent_and_the_same_seed_gives_the_same_readings():
    scale = SimulatedScale(ScaleSettings(capacity_g=200, resolution_g=1.0))
    scale.put(201)
    heavy = [scale.read() for _ in range(15)][-1]
    assert (heavy.overload, heavy.grams) == (True, None)
    scale.put(-100)
    assert [scale.read() for _ in range(20)][-1].grams == 101
    scale.drop_out(1.0)
    silent = [scale.read() is None for _ in range(14)]
    assert 9 <= sum(silent) <= 10
    assert silent == sorted(silent, reverse=True)
    first, second = (SimulatedScale(ScaleSettings(drop_outs_a_minute=20), seed=9) for _ in range(2))
    first.put(40)
    second.put(40)
    assert [first.read() for _ in range(300)] == [second.read() for _ in range(300)]
    with pytest.raises(BadInput):
        SimulatedScale(ScaleSettings(resolution_g=math.nan))
