"""Ingredients of one's own: what a panel stands for, what amounts and likeness make, and what cannot be."""

import pytest
from ravska_core.catalogue import (
    NOTHING_OWN,
    Own,
    OwnIngredient,
    catalogue,
    grind_of_own,
    match,
    panel_shares,
    take_own,
)
from ravska_core.working import BadInput


def of(**known) -> OwnIngredient:
    return OwnIngredient(**{"key": "own-1", "name": "Lock dust", "made_from": "amounts", "spoon_g": 9.0} | known)


def test_a_panel_stands_for_shares_and_water_is_what_the_rest_leaves():
    # by hand: 0.5 g sodium are 1.271 g salt (x 58.443 / 22.990); of 10 g 1.271 salt, 1 fat, 4 carbohydrate, 0.5 protein
    found = panel_shares(10, 0.5, 3, 1, 4, 0.5)
    assert found["nacl"] == pytest.approx(0.1271, abs=1e-4)
    assert found["sodium"] == pytest.approx(0.05)
    assert (found["sugars"], found["fat"]) == (pytest.approx(0.3), pytest.approx(0.1))
    assert found["water"] == pytest.approx(1 - 0.1271 - 0.1 - 0.4 - 0.05, abs=1e-4)
    # without carbohydrate or protein nobody knows the water
    assert "water" not in panel_shares(10, 0.5, 3, 1, None, 0.5)
    with pytest.raises(BadInput, match="weigh more than the portion"):
        panel_shares(1, 0.5, 0, 0, None, None)


def test_amounts_make_a_grind_with_its_density_and_salt_brings_its_sodium():
    grind = grind_of_own(of(nacl=0.2, sugars=0.3, water=0.1))
    assert grind.density_g_ml == pytest.approx(9 / 14.78676478, rel=1e-8)  # a level US tablespoon
    assert grind.ingredient.sodium == pytest.approx(0.2 * 22.990 / 58.443)
    assert (grind.ingredient.error, grind.source) == (0.05, "own-amounts")
    assert grind.said == "lock dust"


def test_one_that_is_like_another_keeps_what_is_not_changed():
    paprika = catalogue().grinds["paprika-smoked/powder"]
    grind = grind_of_own(of(made_from="like", like=paprika.key, nacl=0.1, water=0.08, spoon_g=None))
    assert grind.density_g_ml == paprika.density_g_ml
    assert (grind.ingredient.smoke, grind.ingredient.sugars) == (paprika.ingredient.smoke, paprika.ingredient.sugars)
    assert (grind.ingredient.nacl, grind.ingredient.error) == (0.1, 0.15)
    assert grind.ingredient.key == "own-1"


@pytest.mark.parametrize(
    ("known", "argument"),
    [
        ({"name": " "}, "name"), ({"made_from": "dream"}, "made_from"), ({"made_from": "like"}, "like"),
        ({"like": "pixie/dust"}, "like"), ({"nacl": 1.2}, "nacl"), ({"nacl": 0.6, "water": 0.5}, "water"),
        ({"spoon_g": None}, "spoon_g"), ({"spoon_g": 60.0}, "spoon_g"), ({"spoon": "bucket"}, "spoon"),
        ({"allergens": ("fear",)}, "allergens"), ({"keeps_days": 0.0}, "keeps_days"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_at_its_field(known, argument):
    with pytest.raises(BadInput) as refusal:
        grind_of_own(of(**known))
    assert refusal.value.argument == argument


def test_the_catalogue_holds_what_is_own_until_it_is_taken_out_and_remembers_nothing_of_it():
    grind = grind_of_own(of(nacl=0.2))
    try:
        take_own(Own((grind,), names=(("bargee salt", "sea-salt-flake"),)))
        assert match("lock dust").grind == "own-1/own"
        assert match("bargee salt").grind == "sea-salt-flake/flake"
        assert catalogue().grinds["own-1/own"] is grind
    finally:
        take_own(NOTHING_OWN)
    assert match("lock dust").grind is None
    assert match("bargee salt").grind is None
    assert "own-1/own" not in catalogue().grinds


def test_limits_are_met_exactly_and_no_further():
    for portion in (0.1, 1000):
        assert panel_shares(portion, 0, 0, 0, 0, 0)["water"] == 1
    for portion in (0.099, 1000.1):
        with pytest.raises(BadInput):
            panel_shares(portion, 0, 0, 0, 0, 0)
    # rounded one by one a panel may come to 3 % more than its portion
    assert panel_shares(100, 0, 0, 103, 0, 0)["water"] == 0
    with pytest.raises(BadInput):
        panel_shares(100, 0, 0, 103.1, 0, 0)
    for days in (1, 3650):
        assert grind_of_own(of(keeps_days=float(days))).ingredient.keeps_days == days
    for days in (0.9, 3651):
        with pytest.raises(BadInput):
            grind_of_own(of(keeps_days=float(days)))
    for density in (0.051, 2.199):
        grams = density * 14.78676
        assert grind_of_own(of(spoon_g=grams)).density_g_ml == pytest.approx(density, rel=1e-5)
    for density in (0.049, 2.201):
        with pytest.raises(BadInput):
            grind_of_own(of(spoon_g=density * 14.78676))
    assert grind_of_own(of(nacl=0.5, water=0.53)).ingredient.water == 0.53
    with pytest.raises(BadInput):
        grind_of_own(of(nacl=0.5, water=0.531))


def test_of_one_that_is_like_nothing_only_what_was_given_is_in_it():
    plain = grind_of_own(of()).ingredient
    shares = (plain.nacl, plain.sodium, plain.sugars, plain.fat, plain.water, plain.acid)
    tastes = (plain.scoville, plain.bite, plain.glutamate, plain.smoke, plain.herb)
    assert shares + tastes == (0,) * 11
    assert (plain.family, grind_of_own(of(wet=True)).ingredient.family) == ("spice", "liquid")
    assert plain.keeps_days > grind_of_own(of(wet=True)).ingredient.keeps_days
