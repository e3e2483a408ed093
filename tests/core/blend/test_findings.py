"""What a blend will do: each finding on and off; keeping time, heat and the other scales."""

import pytest
from builders import blend
from ravska_core.blend import Blend, findings_of, heat_scale, heat_scoville, read_blend, syrup_viscosity
from ravska_core.catalogue import catalogue
from ravska_core.coat import thin_cut_salt


def found(of: Blend) -> dict[str, str]:
    return {
        caution.id: f"{caution.sentence} {caution.action}"
        for caution in findings_of(of, read_blend(of), thin_cut_salt())
    }


SALT, PEPPER = ("kosher-dense/flake", 3, "scale"), ("black-pepper/cracked", 3, "scale")
POWDERS = (("garlic-granulated/powder", 3, "scale"), ("onion-granulated/powder", 3, "scale"))
GRAINS = (("garlic-granulated/granulated", 3, "scale"), ("onion-granulated/granulated", 3, "scale"))


@pytest.mark.parametrize(
    ("finding", "on", "off", "says"),
    [
        ("cakes", blend(SALT, *POWDERS), blend(SALT, *GRAINS), "powder"),
        (
            "clumps", blend(SALT, PEPPER, ("brown-sugar/unpacked", 2, "scale")),
            blend(SALT, PEPPER, ("white-sugar/granulated", 2, "scale")), "brown sugar",
        ),
        (
            "settles", blend(("sea-salt-flake/flake", 3, "scale"), ("paprika/powder", 3, "scale")),
            blend(("table-salt/fine", 3, "scale"), ("paprika/powder", 3, "scale")), "sweet paprika",
        ),
        (
            "scorches", blend(SALT, ("white-sugar/granulated", 2, "scale"), fire="direct flame"),
            blend(SALT, ("white-sugar/granulated", 2, "scale"), fire="indirect"), "white sugar",
        ),
        ("falls-off-iron", blend(SALT, PEPPER, fire="hot iron"), blend(SALT, PEPPER, fire="oven"), "black pepper"),
        (
            "falls-off-iron", blend(SALT, PEPPER, fire="hot iron"),
            blend(SALT, ("black-pepper/ground", 3, "scale"), fire="hot iron"), "finer",
        ),
        (
            "garlic-oil-today",
            blend(("garlic-fresh/crushed", 1, "spoon"), ("olive-oil/liquid", 2, "spoon"), kind="paste"),
            blend(("garlic-granulated/powder", 1, "spoon"), ("olive-oil/liquid", 2, "spoon"), kind="paste"),
            "the same day",
        ),
        (
            "enzyme", blend(("pineapple-fresh/liquid", 3, "spoon"), SALT, kind="marinade"),
            blend(("pineapple-canned/liquid", 3, "spoon"), SALT, kind="marinade"), "pineapple",
        ),
        (
            "cure", blend(SALT, ("curing-salt/fine", 1, "scale")), blend(SALT, PEPPER), "tested cure recipe",
        ),
        (
            "no-acid", blend(("olive-oil/liquid", 3, "spoon"), SALT, kind="marinade"),
            blend(("olive-oil/liquid", 3, "spoon"), ("lemon-juice/liquid", 2, "spoon"), SALT, kind="marinade"), "acid",
        ),
        (
            "too-thick", blend(("honey/liquid", 4, "scale"), ("stock/liquid", 1, "scale"), kind="injection"),
            blend(("honey/liquid", 1, "scale"), ("stock/liquid", 4, "scale"), kind="injection"), "Thin it",
        ),
        (
            "clogs", blend(("stock/liquid", 9, "scale"), ("juniper/cracked", 1, "scale"), kind="injection"),
            blend(("stock/liquid", 9, "scale"), ("table-salt/fine", 1, "scale"), kind="injection"), "juniper",
        ),
        (
            "too-salty-thin", blend(("table-salt/fine", 9, "scale"), PEPPER),
            blend(("table-salt/fine", 1, "scale"), PEPPER), "rack of ribs",
        ),
        ("allergens", blend(("soy-sauce/liquid", 1, "spoon"), kind="marinade"), blend(SALT), "soy, wheat"),
        ("chilli-hands", blend(SALT, ("cayenne/powder", 1, "scale")), blend(SALT), "gloves"),
        ("no-salt", blend(PEPPER), blend(SALT, PEPPER), "hardly any salt"),
    ],
)  # fmt: skip
def test_each_finding_is_there_when_it_applies_and_says_what_to_do(finding, on, off, says):
    assert says in found(on).get(finding, "")
    assert finding not in found(off)


def test_the_nitrite_of_a_cure_is_said_in_milligrams():
    # one part of curing salt, 6.25 % nitrite, in four: 15,625 mg a kilogram
    assert "15,625 mg" in found(blend(SALT, ("curing-salt/fine", 1, "scale")))["nitrite"]
    of = blend(SALT, ("curing-salt/fine", 1, "scale"))
    assert [caution.level for caution in findings_of(of, read_blend(of), thin_cut_salt())][:2] == ["stop", "stop"]


def test_findings_look_inside_nested_blends():
    inner = blend(SALT, ("brown-sugar/unpacked", 4, "scale"), name="inner")
    assert "clumps" in found(blend((inner, 1, "scale"), PEPPER))


# handbook values of sucrose solutions at 20 C (from memory): 60, 65 and 70 Brix
@pytest.mark.parametrize(("brix", "mpas"), [(0.60, 58), (0.65, 147), (0.70, 480)])
def test_syrups_are_as_thick_as_the_handbook_says(brix, mpas):
    assert syrup_viscosity(brix) == pytest.approx(mpas)
    assert syrup_viscosity(brix - 0.02) < mpas < syrup_viscosity(brix + 0.02)


def test_heat_is_weighted_by_scoville_and_pepper_does_not_read_as_none():
    # a tenth of cayenne at its usual rating (from memory: 30,000 to 50,000) is 3,000 to 5,000 units: clearly hot
    hot = read_blend(blend(("paprika/powder", 9, "scale"), ("cayenne/powder", 1, "scale"))).scale("heat")
    share = 0.9 * 250 + 0.1 * catalogue().ingredients["cayenne"].scoville
    assert hot.figure.value == pytest.approx(share)
    assert hot.value == pytest.approx(heat_scale(share))
    assert 3000 <= hot.figure.value <= 5300
    pepper = read_blend(blend(("black-pepper/ground", 1, "scale"), SALT)).scale("heat")
    assert pepper.value > 3
    assert pepper.word != "none"
    assert read_blend(blend(SALT)).scale("heat").word == "none"
    for scale in (0.5, 3.0, 9.0):
        assert heat_scale(heat_scoville(scale)) == pytest.approx(scale)


@pytest.mark.parametrize(
    ("of", "most", "least", "because"),
    [
        (blend(("table-salt/fine", 1, "scale"), ("black-pepper/ground", 1, "scale")), 730, 365, "pepper"),
        (blend(("garlic-fresh/crushed", 1, "scale"), ("olive-oil/liquid", 3, "scale"), kind="paste"), 4, 1, "oil"),
        (blend(("stock/liquid", 9, "scale"), ("table-salt/fine", 0.2, "scale"), kind="injection"), 5, 1, ""),
        (blend(("cider-vinegar/liquid", 3, "scale"), ("water/liquid", 1, "scale"), kind="spritz"), 30, 6, "acid"),
    ],
)  # fmt: skip
def test_a_blend_keeps_as_long_as_what_goes_first(of, most, least, because):
    keeping = read_blend(of).keeping
    assert least <= keeping.days <= most
    assert because in keeping.because


def test_own_prices_go_before_the_catalogues():
    of = blend(("table-salt/fine", 1, "scale"), ("saffron/threads", 1, "scale"))
    usual = read_blend(of).scale("cost").value
    assert read_blend(of, prices={"saffron": 100.0}).scale("cost").value == pytest.approx((100 + 0.10) / 2)
    assert usual > 100


def test_what_nobody_names_may_hold_any_allergen():
    of = blend(SALT, ("spices-unnamed/ground", 1, "scale"))
    assert "allergy" in found(of)["unnamed"]
    assert "unnamed" not in found(blend(SALT, PEPPER))
