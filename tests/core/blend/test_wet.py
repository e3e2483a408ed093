"""Wet mixes: what they fill, what a sieve gives and holds back, labels of what is bought, what is said of it."""

import dataclasses
import json
import re
from fractions import Fraction

import numpy as np
import pytest
from builders import blend, lines
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.blend import Blend, Line, MethodStep, clogging, estimate, flatten, parse_label, read_blend
from ravska_core.blend.estimate import weighed
from ravska_core.blend.label import read_portion
from ravska_core.blend.label_list import DRIED, read_ingredients
from ravska_core.blend.method import ABSORBS, JUICE, Stuff, finish
from ravska_core.blend.nudge import NUDGES, nudge
from ravska_core.blend.volume import dissolved_salt_ml_g, solid_share, volume_ml
from ravska_core.bowl.measuring import spoon_batch
from ravska_core.catalogue import catalogue
from ravska_core.coat import WAYS, plain, plain_binders, usual_binder_g
from ravska_core.exchange.jsonld import write_jsonld
from ravska_core.measure import SPOON_SETS, SpoonSet, measure_out
from ravska_core.measure.spoons import Spoon
from ravska_core.working import BadInput, say

GRINDS = catalogue().grinds
STRAIN = MethodStep("strain")


def ml(*leaves: tuple[str, float]) -> float:
    return volume_ml([(GRINDS[key], mass) for key, mass in leaves])


# density [g/ml] at 20 C of solutions by mass share, CRC Handbook of Chemistry and Physics (from memory)
@pytest.mark.parametrize(("share", "density"), [(0.05, 1.0340), (0.10, 1.0707), (0.20, 1.1478), (0.26, 1.1972)])
def test_brines_are_as_dense_as_the_handbook_says(share, density):
    salt = GRINDS["table-salt/fine"]
    grams = 1000 * share / salt.ingredient.nacl
    found = (grams + 1000 * (1 - share)) / ml(("water/liquid", 1000 * (1 - share)), ("table-salt/fine", grams))
    assert found == pytest.approx(density, rel=0.008)  # the catalogue's cup of water is 0.4 % heavier than 20 C water
    assert 1 / ((1 - share) / 0.9982 + share * dissolved_salt_ml_g(share)) == pytest.approx(density, rel=0.005)


@pytest.mark.parametrize(("share", "density"), [(0.10, 1.0381), (0.20, 1.0810), (0.40, 1.1764), (0.60, 1.2865)])
def test_syrups_are_as_dense_as_the_handbook_says(share, density):
    found = 1000 / ml(("water/liquid", 1000 * (1 - share)), ("white-sugar/granulated", 1000 * share))
    assert found == pytest.approx(density, rel=0.008)


def test_what_lies_in_liquid_has_no_air_between_its_grains():
    # 100 g of flake salt fill 99 ml dry; in oil, where none dissolves, 46 ml: a crystal's 2.165 g/ml
    dry, oil = ml(("kosher-dense/flake", 100)), ml(("olive-oil/liquid", 200))
    assert dry == pytest.approx(100 / 5 * 4.929, rel=1e-3)
    assert ml(("kosher-dense/flake", 100), ("olive-oil/liquid", 200)) - oil == pytest.approx(100 / 2.165, rel=0.03)
    # a rub keeps its heap, and so does one that a spoon of oil does not fill
    rub = blend(("table-salt/fine", 1, "spoon"), ("paprika/powder", 1, "spoon"))
    assert read_blend(rub).volume.value == pytest.approx(
        sum(line.volume_ml for line in read_blend(rub).lines), rel=1e-9
    )
    damp = ml(("paprika/powder", 100), ("vegetable-oil/liquid", 5))
    assert damp == pytest.approx(ml(("paprika/powder", 100)))
    # chopped onion: a cup of 160 g is mostly air, in a marinade it is its own 155 ml
    water = ml(("water/liquid", 500))
    assert ml(("onion-fresh/chopped", 160), ("water/liquid", 500)) - water == pytest.approx(155, abs=6)


def test_a_dose_in_millilitres_brings_what_the_real_density_does():
    brine = blend(("water/liquid", 9, "scale"), ("table-salt/fine", 1, "scale"), kind="marinade", batch_g=1000)
    found = read_blend(brine)
    assert found.density_g_ml == pytest.approx(1.07, abs=0.01)
    assert found.volume.value == pytest.approx(1000 / found.density_g_ml)
    assert found.volume.error.startswith("±5 %")
    # science.md section 5: oil 50, lemon 40, salt 4 are 0.985 g/ml
    oily = blend(
        ("olive-oil/liquid", 50, "scale"), ("lemon-juice/liquid", 40, "scale"), ("table-salt/fine", 4, "scale"),
        kind="marinade",
    )  # fmt: skip
    assert read_blend(oily).density_g_ml == pytest.approx(0.985, rel=0.015)
    assert read_blend(oily).water_share == pytest.approx(0.391, abs=0.005)
    soy = blend(
        ("soy-sauce/liquid", 45, "scale"), ("white-sugar/granulated", 35, "scale"),
        ("vegetable-oil/liquid", 20, "scale"), kind="marinade",
    )  # fmt: skip
    # by hand: 32 g of water with 35 of sugar are 52 Brix, 1.241 g/ml (handbook, from memory): 54.0 ml; the soy sauce
    # fills 9.5 ml more than its water, the oil 21.7
    assert read_blend(soy).density_g_ml == pytest.approx(100 / (54.0 + 9.5 + 21.7), rel=0.01)


@given(lines(most=6), st.floats(1, 2000))
def test_more_of_anything_never_fills_less_and_a_mixture_weighs_what_it_is(of, grams):
    found = read_blend(Blend("marinade", of, grams))
    assert found.volume.value * found.density_g_ml == pytest.approx(grams)
    assert 0.08 < found.density_g_ml < 2.3


ONION = blend(("water/liquid", 500, "scale"), ("table-salt/fine", 50, "scale"), ("onion-fresh/blended", 235, "scale"),
              kind="injection", batch_g=785)  # fmt: skip


def test_a_blended_cup_of_onion_gives_its_juice_and_the_sieve_keeps_the_rest_with_its_salt():
    found = read_blend(dataclasses.replace(ONION, method=(STRAIN,)))
    # common practice, no source: onion pulp gives 60 % of its weight as juice; 94 g stay in the sieve
    assert JUICE["onion-fresh"] == 0.6
    assert found.held_g == pytest.approx(0.4 * 235, abs=0.1)
    assert found.finished.value == pytest.approx(785 - 0.4 * 235, abs=0.1)
    # by hand: the pulp's solids are 235 g less its soluble share; the rest of the 94 g is brine as salty as the bowl
    i = catalogue().ingredients["onion-fresh"]
    solids = 235 * (1 - i.water - i.sugars - i.acid - i.nacl)
    clings = 0.4 * 235 - solids
    liquid = 500 + 50 + 235 - solids
    held_salt = 50 * 0.985 * clings / liquid
    assert found.held_salt_percent == pytest.approx(held_salt / 94 * 100, rel=0.01)
    assert found.salt.value == pytest.approx((50 * 0.985 - held_salt) / (785 - 94) * 100, rel=1e-3)
    # chopped pieces give a third of that
    chopped = dataclasses.replace(ONION, lines=(*ONION.lines[:2], Line("onion-fresh/chopped", Fraction(235), "scale")))
    assert read_blend(dataclasses.replace(chopped, method=(STRAIN,))).held_g == pytest.approx(0.8 * 235, abs=0.1)
    # dry spices take liquid up instead: their own weight of it (estimate)
    spiced = blend(("water/liquid", 500, "scale"), ("black-pepper/cracked", 20, "scale"), kind="injection", batch_g=520)
    pepper = catalogue().ingredients["black-pepper"]
    kept = 20 * (1 - pepper.water - pepper.sugars) + ABSORBS * 20
    assert read_blend(dataclasses.replace(spiced, method=(STRAIN,))).held_g == pytest.approx(kept, rel=1e-3)


@given(lines(most=6))
def test_straining_parts_a_blend_in_two_that_add_up(of):
    of = (*of, Line("water/liquid", Fraction(400), "scale"))
    whole = read_blend(Blend("injection", of, 200.0))
    strained = Blend("injection", of, 200.0, "strained", method=(STRAIN,))
    bowl = read_blend(strained)
    assert bowl.finished.value + bowl.held_g == pytest.approx(200)
    sieve = Blend("cooking liquid", (Line("", Fraction(1), "scale", blend=strained, held=True),), max(bowl.held_g, 0.5))
    if bowl.held_g > 1e-6:
        kept = read_blend(sieve)
        for key in ("salt", "sugar", "sour", "fat", "water", "savoury", "smoke", "herb"):
            before = whole.scale(key).figure.value * 200
            after = bowl.scale(key).figure.value * bowl.finished.value + kept.scale(key).figure.value * bowl.held_g
            assert after == pytest.approx(before, rel=1e-6, abs=1e-6), key
        assert set(kept.allergens) <= set(whole.allergens)
    else:
        with pytest.raises(BadInput, match="no sieve holds anything back"):
            read_blend(sieve)
    assert set(bowl.allergens) == set(whole.allergens)


def test_what_a_sieve_holds_back_goes_into_another_blend_or_the_pot():
    strained = dataclasses.replace(ONION, name="Onion brine", method=(STRAIN,))
    bowl = read_blend(strained)
    pot = blend(("stock/liquid", 500, "scale"), kind="cooking liquid")
    pot = dataclasses.replace(pot, lines=(*pot.lines, Line("", Fraction(94), "scale", blend=strained, held=True)))
    found = read_blend(pot)
    assert found.lines[1].name == "sieved out of Onion brine"
    stock = read_blend(blend(("stock/liquid", 1, "scale"))).salt.value
    assert found.salt.value == pytest.approx((500 * stock + 94 * bowl.held_salt_percent) / 594, rel=1e-6)
    assert found.salt.high > found.salt.value * 1.01  # nobody weighed what clings
    plain_one = dataclasses.replace(pot, lines=(Line("", Fraction(1), "scale", blend=ONION, held=True),))
    with pytest.raises(BadInput, match="is not strained") as refusal:
        read_blend(plain_one)
    assert refusal.value.argument == "lines.0.blend"


def test_a_strained_blend_inside_a_simmered_one_keeps_its_mass():
    strained = dataclasses.replace(ONION, method=(STRAIN,), name="strained")
    whole = blend((strained, 700, "scale"), ("honey/liquid", 100, "scale"), kind="glaze", batch_g=800)
    boiled = dataclasses.replace(whole, method=(MethodStep("simmer", by=0.3),))
    raw, done = read_blend(whole), read_blend(boiled)
    assert raw.finished.value == pytest.approx(800)
    lost = 0.3 * 800 / raw.density_g_ml
    assert done.finished.value == pytest.approx(800 - lost, rel=1e-6)
    assert done.salt.value * done.finished.value == pytest.approx(raw.salt.value * 800, rel=1e-9)
    again = dataclasses.replace(whole, method=(STRAIN, MethodStep("simmer", by=0.2)))
    assert read_blend(again).finished.value < 800


def test_the_working_names_what_the_method_left():
    glaze = blend(
        ("honey/liquid", 4, "scale"),
        ("cider-vinegar/liquid", 8, "scale"),
        ("table-salt/fine", 1, "scale"),
        kind="glaze",
    )
    glaze = dataclasses.replace(glaze, method=(MethodStep("simmer", by=0.5),))
    found = read_blend(glaze)
    left = found.finished.value / found.batch.value * 100
    formulas = [step.formula for step in found.salt.steps]
    assert f"after its method, {say(left, 3)} % of what went in is left" in formulas


def test_sodium_in_an_exported_recipe_counts_all_of_it():
    half = blend(("msg/granulated", 1, "scale"), ("paprika/powder", 1, "scale"))
    document = json.loads(write_jsonld(half))
    # monosodium glutamate is 12.3 % sodium, as the US database has it; half of that and a little from paprika
    # in 100 g; the panel is for a teaspoon, whose weight it names
    portion_g = float(re.search(r"\((.*) g\)", document["nutrition"]["servingSize"])[1])
    sodium_mg = float(document["nutrition"]["sodiumContent"].split()[0])
    assert sodium_mg / portion_g * 100 == pytest.approx(6200, rel=0.04)
    assert read_blend(half).salt.value < 0.2


HERBS = tuple(GRINDS[key] for key in ("oregano/leaf", "thyme/leaf", "basil/leaf", "marjoram/leaf", "sage/ground"))


def test_the_most_likely_of_a_label_is_the_mean_over_all_that_is_possible():
    found = estimate(parse_label("1 g", "0 mg"), HERBS)
    # shares in falling order, each order as likely: the k-th of n is sum over j from k of 1/j, over n (exact)
    exact = [sum(1 / j for j in range(k, 6)) / 5 for k in range(1, 6)]
    assert [share.middle for share in found.shares] == pytest.approx(exact, abs=0.012)
    assert found.shares[0].high > 0.99  # all of it could be the first, but hardly is
    # against mixtures thrown away when they do not fit: salt, sugar, paprika with 20 % sodium, give or take 0.4
    grinds = tuple(GRINDS[key] for key in ("table-salt/fine", "white-sugar/granulated", "paprika/powder"))
    label = parse_label("100 g", "20 g")
    dice = np.sort(np.random.default_rng(3).dirichlet(np.ones(3), 400_000), axis=1)[:, ::-1]
    sodium = dice @ np.array([grind.ingredient.sodium for grind in grinds])
    fits = dice[np.abs(sodium - 0.2) < 0.00005 * 100 / 0.5 / 2]
    assert len(fits) > 500
    middles = [share.middle for share in estimate(label, grinds).shares]
    assert middles == pytest.approx(fits.mean(axis=0).tolist(), abs=0.01)


@pytest.mark.parametrize(
    ("text", "grams", "half", "volume"),
    [
        ("0.9 g", 0.9, 0.05, None), ("¼ tsp (1 g)", 1, 0.5, 1.25), ("1/4 tsp. (0.6g)", 0.6, 0.05, 1.25),
        ("1 Tbsp (15 mL)", None, 0, 15), ("15 ml", None, 0, 15), ("2 tbsp (30 ml / 34 g)", 34, 0.5, 30),
        ("100 g", 100, 0.5, None), ("1½ tsp (4.5 g)", 4.5, 0.05, 7.5), ("0,9 g", 0.9, 0.05, None),
    ],
)  # fmt: skip
def test_a_portion_is_read_as_the_panel_has_it(text, grams, half, volume):
    assert read_portion(text) == (grams, pytest.approx(half), volume)


@pytest.mark.parametrize("text", ["", "a spoon", "5 sips", "1 g of it with milk", "0 g", "2000 ml"])
def test_a_portion_that_cannot_be_read_says_what_to_write(text):
    with pytest.raises(BadInput) as refusal:
        read_portion(text)
    assert refusal.value.argument == "portion"


def test_a_bought_liquid_gets_its_weight_and_density_from_what_it_holds():
    grinds = tuple(GRINDS[key] for key in ("soy-sauce/liquid", "white-sugar/granulated", "table-salt/fine"))
    found = weighed(parse_label("15 ml", "900 mg"), grinds)
    assert 15 * 1.1 < found.portion_g < 15 * 1.35
    label = parse_label("15 ml", "900 mg")
    shares = estimate(label, grinds).shares
    bought = Blend(
        "marinade",
        tuple(Line(g.key, Fraction(share.middle), "scale") for g, share in zip(grinds, shares, strict=True)),
        300.0, label=label,
    )  # fmt: skip
    reading = read_blend(bought)
    assert reading.density_g_ml == pytest.approx(found.portion_g / 15, rel=0.02)
    # 900 mg of sodium in that portion
    sodium = sum(share.middle * g.ingredient.sodium for g, share in zip(grinds, shares, strict=True))
    assert sodium * found.portion_g == pytest.approx(0.9, rel=0.06)
    # where the label gives spoon and grams, what its rounding allows bounds the density
    dry = tuple(GRINDS[key] for key in ("table-salt/fine", "paprika/powder"))
    told = parse_label("¼ tsp (0.9 g)", "200 mg")
    lines_ = tuple(Line(g.key, Fraction(1), "scale") for g in dry)
    assert read_blend(Blend("dry rub", lines_, 100.0, label=told)).density_g_ml == pytest.approx(0.72, abs=0.045)


def test_a_nested_list_is_read_by_its_parent_and_fresh_names_mean_dried_in_a_dry_blend():
    text = "Salt, soy sauce (water, soybeans, wheat, salt), spices (paprika, cumin), mustard, mint, orange peel"
    found = [name.grind for name in read_ingredients(text)]
    assert found == [
        "table-salt/fine", "soy-sauce/liquid", "paprika/powder", "cumin/ground", "mustard-prepared/paste",
        "mint-fresh/chopped", "orange-zest/grated",
    ]  # fmt: skip
    assert [DRIED.get(key, key) for key in found[4:]] == [
        "mustard-powder/powder", "mint-dried/leaf", "orange-peel-dried/granulated",
    ]  # fmt: skip
    assert set(DRIED) | set(DRIED.values()) <= set(GRINDS)


def test_spoon_ties_go_to_the_fewest_spoonfuls():
    # three spoons that hold together what one does, but for the last digit
    noisy = SpoonSet("noisy", "", (Spoon("tbsp", 1, 3 * 4.9), Spoon("tsp", 1, 4.9000000000001)))
    assert measure_out(14.7 * (1 + 1e-12), noisy).text == "1 tbsp"
    # on the very edge of what is accepted it still is
    us = SPOON_SETS["us"]
    tsp = next(spoon.volume_ml for spoon in us.spoons if spoon.name == "tsp" and spoon.fraction == 1)
    assert measure_out(tsp / 1.04, us).count == 1
    even = blend(("table-salt/fine", 2, "spoon"), ("paprika/powder", 1, "spoon"))
    found = spoon_batch(even, 10, 40)
    assert found.worst < 1e-6
    assert found.count <= 3


@pytest.mark.parametrize(
    ("value", "figures", "text"),
    [(1000, 3, "1000"), (123456, 2, "123456"), (0.0523, 2, "0.052"), (0.5, 3, "0.5"), (99.96, 3, "100"),
     (12.345, 3, "12.3"), (1e-5, 2, "0.00001"), (0, 3, "0"), (-2.5, 2, "-2.5"), (6.0, 2, "6")],
)  # fmt: skip
def test_numbers_are_said_as_people_write_them(value, figures, text):
    assert say(value, figures) == text


NUDGED = [
    blend(("black-pepper/ground", 1, "spoon")),
    blend(("habanero-dried/ground", 1, "scale")),
    blend(("chilli-powder-mild/powder", 1, "spoon"), ("fennel-seed/whole", 1, "spoon")),
    blend(("oregano/ground", 1, "spoon"), ("table-salt/fine", 1, "spoon")),
    blend(("soy-sauce/liquid", 2, "spoon"), ("honey/liquid", 1, "spoon"), kind="marinade"),
    blend(("smoked-salt/coarse", 1, "scale"), ("thyme/ground", 1, "scale")),
]


@pytest.mark.parametrize("towards", NUDGES)
@pytest.mark.parametrize("of", NUDGED, ids=lambda of: of.lines[0].grind)
def test_a_nudge_moves_its_scale_or_says_why_it_cannot(of, towards):
    answer = nudge(of, towards)
    before = read_blend(of).scale(NUDGES[towards].what).value
    after = read_blend(dataclasses.replace(of, lines=answer.lines)).scale(NUDGES[towards].what).value
    if answer.unchanged:
        assert answer.conflicts[0].endswith(".")
        assert "locked" not in answer.conflicts[0]  # nothing is locked here
    else:
        moved = after - before
        assert moved < -0.01 * before if towards == "less-salt" else moved > 0.01 * before
    if towards == "hotter" and of is NUDGED[0]:
        assert any(line.grind == "cayenne/powder" for line in answer.lines)  # pepper alone gets hotter by a chilli


def test_the_herb_scale_is_for_herbs():
    pepper = blend(("black-pepper/ground", 1, "spoon"), ("juniper/cracked", 1, "spoon"))
    assert read_blend(pepper).scale("herb").value == 0
    assert read_blend(blend(("rosemary/leaf", 1, "spoon"))).scale("herb").value > 8


def test_a_binder_has_one_usual_weight_wherever_it_is_begun():
    usual = {binder.key: binder.dose for binder in plain_binders()}
    assert usual == {"vegetable-oil/liquid": 1.5, "mustard-prepared/paste": 2.4, "honey/liquid": 2.0}
    for school in WAYS.values():
        for slot in school.slots:
            if slot.kind == "binder":
                assert slot.dose == usual_binder_g(plain(slot.grind)) == usual[slot.grind]


PEPPER, WATER, SALT = GRINDS["black-pepper/cracked"], GRINDS["water/liquid"], GRINDS["table-salt/fine"]


def test_a_sieve_holds_its_solids_and_their_own_weight_of_liquid_however_far_it_was_simmered():
    solid = solid_share(PEPPER)
    for by in (0.0, 0.3, 0.6):
        steps = (MethodStep("simmer", by=by), STRAIN) if by else (STRAIN,)
        done = finish([Stuff(leaves=((WATER, 0.95),)), Stuff(leaves=((PEPPER, 0.05),))], steps, GRINDS)
        # dry spices take up their own weight: 0.05 of liquid beside what of them no water dissolves
        assert done.held.mass == pytest.approx(0.05 * solid + ABSORBS * 0.05)
        assert done.stuff.mass + done.held.mass == pytest.approx(done.after[0] if by else 1.0)
        # what was driven off is gone from both by their share of the liquid, and nothing else is
        whole = Stuff(leaves=((WATER, 0.95), (PEPPER, 0.05)))
        assert done.stuff.water + done.held.water == pytest.approx(whole.water - by * whole.volume_ml)
    # strained a second time there is nothing in it to strain, and nothing more is lost
    again = finish([Stuff(leaves=((WATER, 0.95),)), Stuff(leaves=((PEPPER, 0.05),))], (STRAIN, STRAIN), GRINDS)
    once = finish([Stuff(leaves=((WATER, 0.95),)), Stuff(leaves=((PEPPER, 0.05),))], (STRAIN,), GRINDS)
    assert again.stuff.mass == pytest.approx(once.stuff.mass)


def test_what_a_sieve_held_is_held_again_with_as_much_liquid_as_its_solids_weigh():
    pulp = Stuff(spent=((PEPPER, 0.1),))
    assert pulp.mass == pytest.approx(0.1 * solid_share(PEPPER))
    done = finish([Stuff(leaves=((WATER, 1 - pulp.mass),)), pulp], (STRAIN,), GRINDS)
    assert done.held.mass == pytest.approx(pulp.mass + ABSORBS * pulp.mass)
    assert done.stuff.mass == pytest.approx(1 - 2 * pulp.mass)


@pytest.mark.parametrize("before", [(), (MethodStep("simmer", by=0.5),)])
def test_a_pot_says_how_far_it_can_be_simmered_down_and_can_be_just_so_far(before):
    brine = [Stuff(leaves=((WATER, 0.7),)), Stuff(leaves=((SALT, 0.3),))]
    with pytest.raises(BadInput, match="not that much water") as refused:
        finish(brine, (*before, MethodStep("simmer", by=0.94)), GRINDS)
    most = float(re.search(r"at most ([\d.]+) %", refused.value.sentence)[1]) / 100
    left = finish(brine, (*before, MethodStep("simmer", by=most - 0.002)), GRINDS).stuff
    # all but a fiftieth of its water is gone, and none of its salt
    pot = finish(brine, before, GRINDS).stuff
    assert left.water == pytest.approx(0.02 * pot.water, abs=0.005)
    assert left.mass - left.water == pytest.approx(pot.mass - pot.water)
    with pytest.raises(BadInput):
        finish(brine, (*before, MethodStep("simmer", by=most + 0.002)), GRINDS)


def test_what_holds_no_liquid_cannot_be_strained():
    with pytest.raises(BadInput, match="nothing liquid in it to strain"):
        finish([Stuff(leaves=((PEPPER, 0.9),)), Stuff(leaves=((WATER, 0.1),))], (STRAIN,), GRINDS)
    with pytest.raises(BadInput, match="nothing liquid in it to strain"):
        finish([Stuff(leaves=((PEPPER, 1.0),))], (STRAIN,), GRINDS)


def test_pulp_is_drawn_clogs_a_needle_and_a_strained_garlic_oil_keeps_no_longer_than_a_whole_one():
    stock = blend(("water/liquid", 9, "scale"), ("juniper/cracked", 1, "scale"), kind="marinade", batch_g=300)
    strained = dataclasses.replace(stock, method=(STRAIN,), name="Stock")
    pulp = Blend("injection", (Line("", Fraction(1), "scale", blend=strained, held=True),), 30.0)
    found = read_blend(pulp)
    drawn = {grind.key: share for grind, share in found.leaves}
    # juniper holds back its solids, and as much liquid as it weighs
    solid = solid_share(GRINDS["juniper/cracked"])
    assert drawn["juniper/cracked"] == pytest.approx(solid / (solid + ABSORBS), rel=0.01)
    assert found.lines[0].leaves == found.leaves
    assert flatten(pulp.lines)["juniper/cracked"] == pytest.approx(drawn["juniper/cracked"])
    assert [grind.key for grind in clogging(found.leaves)] == ["juniper/cracked"]
    assert not clogging(read_blend(dataclasses.replace(strained, kind="injection")).leaves)

    oil = blend(("olive-oil/liquid", 9, "scale"), ("garlic-fresh/crushed", 1, "scale"), kind="marinade", batch_g=300)
    kept = read_blend(dataclasses.replace(oil, method=(MethodStep("strain", (1,)),))).keeping
    assert (kept.days, kept.because) == (4, "raw garlic, onion or herbs lie in oil")
    assert kept.days == read_blend(oil).keeping.days
