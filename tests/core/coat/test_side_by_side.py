"""Ways to season a joint side by side: what a binder holds, how wet a surface is, and what each way does."""

import dataclasses
import math

import pytest
from builders import blend
from ravska_core.coat import Binder, Injection, Layer, Seasoned, binders_for, plain, plain_binders, read_coat, side
from ravska_core.coat.binder import with_binder
from ravska_core.coat.side_by_side import sides
from ravska_core.coat.wetness import drying_s, evaporation_kg_m2_s, saturation_pa, wetness
from ravska_core.meat import Piece
from ravska_core.working import BadInput

HOUR = 3600.0
RUB = blend(("table-salt/fine", 1, "spoon"), ("black-pepper/ground", 1, "spoon"))
BATH = blend(("buttermilk/liquid", 4, "spoon"), ("table-salt/fine", "1/4", "spoon"), kind="marinade", batch_g=500)
STOCK = blend(("stock/liquid", 9, "scale"), ("table-salt/fine", 1, "scale"), kind="injection", batch_g=400)
SHOULDER = Piece("lamb-shoulder", 2300)


def rub(dose: float | None = 5) -> Layer:
    return Layer("rub", RUB, dose, HOUR)


def test_a_light_coat_needs_no_binder_and_a_heavy_one_does():
    light = binders_for(Seasoned("A", SHOULDER, (rub(5),)), plain_binders())
    assert (light.least, light.needs.value) == (0, 5)
    assert "None is needed" in light.says
    heavy = binders_for(Seasoned("A", SHOULDER, (rub(8),)), plain_binders())
    assert [round(choice.sticks, 3) for choice in heavy.choices] == [0.75, 1, 1, 1]  # 6 of 8 g stick to moist meat
    assert heavy.least == 1
    grams = heavy.choices[0].falls_g
    assert grams == pytest.approx(0.02 * read_coat(Seasoned("A", SHOULDER, ())).piece.coatable.value)
    bark = binders_for(Seasoned("A", SHOULDER, (rub(14),)), plain_binders())
    assert bark.least is None
    assert "coat lighter" in bark.says


def test_a_binder_brings_what_its_blend_holds():
    found = binders_for(Seasoned("A", SHOULDER, (rub(8),)), plain_binders())
    none, oil, mustard, honey = found.choices
    area = read_coat(Seasoned("A", SHOULDER, ())).piece.coatable.value
    assert oil.fat_g == pytest.approx(oil.grams) == pytest.approx(0.015 * area)
    assert mustard.salt_percent == pytest.approx(0.024 * area * 0.0281 / (2300 * 0.82) * 100, rel=0.02)
    assert (none.flavour, oil.flavour) == ("nothing beside the rub", "no taste of its own")
    assert "sour" in mustard.flavour
    assert "sugar" in honey.flavour
    assert mustard.allergens == ("mustard",)
    assert none.chosen
    under = dataclasses.replace(plain_binders()[1])
    chosen = binders_for(Seasoned("A", SHOULDER, with_binder((rub(8),), under)), plain_binders())
    assert [choice.chosen for choice in chosen.choices] == [False, False, True, False]
    assert chosen.choices[2].total.value == pytest.approx(mustard.total.value)


def test_a_binder_goes_under_the_coat_that_lies_on_the_surface():
    oil = Binder("oil", plain("vegetable-oil/liquid"), 1.5)
    bath = Layer("marinade", BATH, 250, HOUR)
    kinds = [layer.kind for layer in with_binder((rub(), bath, rub()), oil)]
    assert kinds == ["rub", "marinade", "binder", "rub"]
    again = with_binder(with_binder((bath, rub()), oil), Binder("none", None))
    assert [layer.kind for layer in again] == ["marinade", "rub"]
    with pytest.raises(BadInput, match="nothing to bind"):
        binders_for(Seasoned("A", SHOULDER, (rub(), bath)), plain_binders())


# IAPWS steam tables: saturation pressure of water [Pa]
@pytest.mark.parametrize(("celsius", "pascal"), [(20, 2339), (40, 7384), (60, 19946)])
def test_saturation_pressure_is_that_of_the_steam_tables(celsius, pascal):
    assert saturation_pa(celsius) == pytest.approx(pascal, rel=0.01)


def test_drying_agrees_with_a_numerical_integration():
    rate = evaporation_kg_m2_s(60.0, 40.0, 10.0, 110.0)
    store, seconds = 0.5, 0.0
    while store > 0.02:
        store -= wetness(store) * rate * 0.5
        seconds += 0.5
    assert drying_s(0.5, rate) == pytest.approx(seconds, rel=0.01)
    assert drying_s(0.01, rate) == 0
    # by hand: 10 / (0.921 x 1007 x 0.9) x (19,946 - 7,384) / (461.5 x 333.15) = 9.8e-4 kg/m2s
    assert rate == pytest.approx(9.8e-4, rel=0.02)


def stacks() -> dict[str, tuple[Layer, ...]]:
    return {
        "rubbed": (Layer("rub", RUB, 5, 2 * HOUR),),
        "marinated": (Layer("marinade", BATH, 250, 4 * HOUR),),
        "both": (Layer("marinade", BATH, 250, 4 * HOUR), Layer("rub", RUB, 4, HOUR / 2)),
        "injected": (Layer("injection", STOCK, 10, HOUR, injection=Injection()),),
        "plain": (Layer("pre-salt", plain("kosher-dense/flake"), 1.2, 16 * HOUR),),
    }


def test_side_by_side_each_way_shows_what_it_is_known_for():
    found = {one.key: one for one in sides([(key, Seasoned("A", SHOULDER, of)) for key, of in stacks().items()])}
    assert found["injected"].deeper.value > 80 > 40 > found["plain"].deeper.value > found["rubbed"].deeper.value
    assert found["plain"].surface.wet < found["rubbed"].surface.wet < found["marinated"].surface.wet
    assert found["marinated"].surface.dries.value > found["rubbed"].surface.dries.value
    assert [found[key].surface.crust_g_100cm2 for key in ("rubbed", "marinated", "both")] == [5, 0, 4]
    assert found["plain"].ahead.value == 16 * HOUR
    assert found["rubbed"].ahead.value == 2 * HOUR + 900  # and mixing
    assert found["plain"].cautions == found["plain"].stops == 0
    assert found["marinated"].worst == ()  # its bath is thrown away, as planned
    boiled = (dataclasses.replace(stacks()["marinated"][0], eaten=0.5),)
    assert [caution.id for caution in side("marinated", Seasoned("A", SHOULDER, boiled)).worst] == ["boil-first"]
    assert found["injected"].centre_percent == pytest.approx(found["injected"].reading.salt.value, rel=0.01)


def test_a_rare_endpoint_is_a_stop_only_where_the_needle_went_in():
    rare = dataclasses.replace(SHOULDER, endpoint_c=55.0)
    found = {key: side(key, Seasoned("A", rare, of)) for key, of in stacks().items()}
    assert {key for key, one in found.items() if one.stops} == {"injected"}
    assert found["injected"].worst[0].id == "not-intact"


def test_a_bath_lifted_out_as_it_is_is_wetter_than_a_wiped_or_rinsed_one():
    wet = [
        side("marinated", Seasoned("A", SHOULDER, (Layer("marinade", BATH, 250, HOUR, after=after),))).surface
        for after in ("as it is", "wiped", "rinsed")
    ]
    assert wet[0].water.value > wet[1].water.value > wet[2].water.value
    assert wet[0].wet == pytest.approx(wetness(wet[0].water.value / 10))
    assert math.isclose(wet[2].water.value, 1.0)  # no less than bare moist meat
