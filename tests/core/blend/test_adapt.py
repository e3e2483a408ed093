"""Adapting and swapping: each rule on and off, each change with its reason, heat and salt kept where they must be."""

import pytest
from builders import blend
from ravska_core.blend import Blend, Line, read_blend, salt_percent
from ravska_core.blend.adapt import adapt
from ravska_core.blend.compare import differ, short
from ravska_core.blend.swap import swaps
from ravska_core.catalogue import catalogue
from ravska_core.working import BadInput

SWEET = blend(
    ("kosher-dense/flake", 4, "spoon"), ("brown-sugar/unpacked", 6, "spoon"), ("paprika/powder", 4, "spoon"),
    ("black-pepper/ground", 2, "spoon"), ("cumin/ground", 2, "spoon"), ("oregano/leaf", 1, "spoon"),
)  # fmt: skip
FRESH = blend(
    ("olive-oil/liquid", 4, "spoon"), ("garlic-fresh/crushed", 2, "spoon"), ("lemon-juice/liquid", 1, "spoon"),
    ("table-salt/fine", 1, "spoon"), kind="paste",
)  # fmt: skip
MILD = blend(("table-salt/fine", 1, "scale"), ("paprika/powder", 1, "scale"))


def after(of: Blend, found) -> Blend:
    return Blend(of.kind, found.lines, of.batch_g)


@pytest.mark.parametrize(
    ("change", "of", "meat", "fire", "not_for"),
    [
        ("less-sugar", SWEET, "beef", "", ("pork", "")),
        ("less-sugar", SWEET, "", "direct flame", ("", "indirect")),
        ("herb-for-cumin", SWEET, "pork", "", ("lamb", "")),
        ("smoked-spice", SWEET, "", "oven", ("", "indirect")),
        ("dried-garlic", FRESH, "", "broiler", ("", "indirect")),
        ("pepper-for-beef", MILD, "beef", "", ("pork", "")),
        ("herb-for-poultry", MILD, "poultry", "", ("beef", "")),
        ("herb-for-lamb", MILD, "lamb", "", ("pork", "")),
        ("juniper-for-game", MILD, "game", "", ("pork", "")),
        ("salt-for-fish", MILD, "fish", "", ("pork", "")),
        ("mild-for-fish", SWEET, "fish", "", ("pork", "")),
        ("finer-oregano", SWEET, "", "hot iron", ("", "indirect")),
    ],
)
def test_each_change_is_proposed_where_it_is_due_with_its_reason(change, of, meat, fire, not_for):
    found = {c.id: c for c in adapt(of, meat, fire).changes}
    assert change in found
    assert found[change].reason
    assert found[change].source in catalogue().sources
    assert change not in {c.id for c in adapt(of, *not_for).changes}
    # a change that is not wanted is named but not made
    without = adapt(of, meat, fire, skip={change})
    assert change in {c.id for c in without.changes}
    assert without.lines != adapt(of, meat, fire).lines


def test_sugar_goes_down_to_what_the_fire_takes_and_salt_is_held():
    before, found = read_blend(SWEET), adapt(SWEET, "", "direct flame")
    reading = read_blend(after(SWEET, found))
    sugar = next(x.share.value for x in reading.lines if x.grind.startswith("brown-sugar"))
    assert sugar == pytest.approx(4, abs=1.5)  # parts are rounded to what a spoon measures
    assert reading.salt.value == pytest.approx(before.salt.value, abs=4)


def test_a_glaze_stays_a_glaze_and_says_when_it_goes_on():
    glaze = blend(("honey/liquid", 4, "spoon"), ("cider-vinegar/liquid", 1, "spoon"), kind="glaze")
    found = adapt(glaze, "beef", "broiler")
    assert found.lines == glaze.lines
    assert "last minutes" in found.notes[0]


def test_locked_lines_are_left_alone():
    locked = Blend("dry rub", tuple(Line(x.grind, x.parts, x.basis, "share") for x in SWEET.lines), 100.0)
    kept = {line.grind: line for line in adapt(locked, "beef", "direct flame").lines}
    assert all(kept[line.grind] == line for line in locked.lines)


def test_what_cannot_be_eaten_and_what_is_not_at_hand_is_put_another_way_or_taken_out():
    bath = blend(
        ("soy-sauce/liquid", 4, "spoon"), ("honey/liquid", 1, "spoon"), ("cider-vinegar/liquid", 1, "spoon"),
        kind="marinade",
    )  # fmt: skip
    found = adapt(bath, without={"wheat"})
    assert "wheat" not in read_blend(after(bath, found)).allergens
    assert any(line.grind == "tamari/liquid" for line in found.lines)
    both = adapt(bath, without={"wheat", "soy"})
    assert not {"wheat", "soy"} & set(read_blend(after(bath, both)).allergens)
    lacking = adapt(SWEET, lacking={"cumin/ground"})
    assert all(line.grind != "cumin/ground" for line in lacking.lines)
    inner = Blend("dry rub", bath.lines, 50.0, "the bath")
    held = adapt(blend((inner, 1, "scale"), ("water/liquid", 1, "scale")), without={"soy"})
    assert "the bath still holds soy" in [c.text for c in held.changes]


@pytest.mark.parametrize("of", [row.key for row in catalogue().grinds.values() if row.ingredient.nacl > 0.9])
def test_crystals_change_places_at_equal_salt(of):
    if "cure" in catalogue().grinds[of].ingredient.flags:
        return
    mixed = blend((of, 2, "spoon"), ("paprika/powder", 3, "spoon"))
    salted = salt_percent(mixed.lines[:1]) * 0 + read_blend(mixed).lines[0].mass.value * salt_percent(mixed.lines[:1])
    for swap in swaps(mixed.lines[0]):
        if swap.kind == "crystal":
            other = Blend("dry rub", (swap.line, *mixed.lines[1:]), 100.0)
            reading = read_blend(other)
            # the same salt beside the same paprika
            ratio = reading.lines[0].mass.value * salt_percent([swap.line]) / reading.lines[1].mass.value
            assert ratio == pytest.approx(salted / read_blend(mixed).lines[1].mass.value, rel=1e-6)


def test_chillies_change_places_at_equal_heat_and_sugars_at_equal_sugar():
    for key, kind, scale in (("cayenne/powder", "chilli", "heat"), ("honey/liquid", "sugar", "sugar")):
        # in a carrier that brings neither, a swap must leave the amount of it the same
        mixed = blend((key, 1, "spoon"), ("table-salt/fine", 500, "scale"))
        before = read_blend(mixed).scale(scale).figure.value
        found = [swap for swap in swaps(mixed.lines[0]) if swap.kind == kind]
        assert len(found) >= 3
        for swap in found:
            reading = read_blend(Blend("dry rub", (swap.line, mixed.lines[1]), 100.0))
            assert reading.scale(scale).figure.value == pytest.approx(before, rel=0.05), swap.name


def test_fresh_and_dried_change_places_and_every_ingredient_has_something():
    kinds = {swap.line.grind: swap.kind for swap in swaps(FRESH.lines[1])}
    assert kinds["garlic-granulated/powder"] == "form"
    # 4 g of fresh garlic for 1 g of dried: common practice, no source
    dried = next(s for s in swaps(FRESH.lines[1]) if s.line.grind == "garlic-granulated/powder")
    fresh_g = 2 * catalogue().grinds["garlic-fresh/crushed"].density_g_ml
    assert float(dried.line.parts) * catalogue().grinds["garlic-granulated/powder"].density_g_ml == pytest.approx(
        fresh_g / 4, rel=1e-6
    )
    for key in catalogue().grinds:
        found = swaps(blend((key, 1, "spoon")).lines[0])
        assert found, key
        assert all(swap.reason for swap in found)


@pytest.mark.parametrize(
    "bad",
    [
        lambda: adapt(SWEET, "unicorn"), lambda: adapt(SWEET, "", "volcano"), lambda: adapt(SWEET, without={"joy"}),
        lambda: adapt(blend(), "beef"), lambda: swaps(blend(("gone/x", 1, "spoon")).lines[0]),
        lambda: swaps(blend((MILD, 1, "spoon")).lines[0]),
    ],
)  # fmt: skip
def test_what_is_not_known_is_refused(bad):
    with pytest.raises(BadInput) as refusal:
        bad()
    assert refusal.value.sentence.endswith(".")


def test_a_difference_is_said_in_the_words_of_a_cook():
    old = blend(("table-salt/fine", 36, "scale"), ("cumin/ground", 10, "scale"), ("paprika/powder", 54, "scale"))
    new = blend(("table-salt/fine", 30, "scale"), ("fennel-seed/ground", 10, "scale"), ("paprika/powder", 60, "scale"))
    words = differ(read_blend(old), read_blend(new)).words
    assert words[0] == "salt 35 → 30 %"
    assert "cumin out" in words
    assert "fennel seed in" in words
    coarser = blend(("black-pepper/cracked", 1, "scale"), ("table-salt/fine", 1, "scale"))
    finer = blend(("black-pepper/ground", 1, "scale"), ("table-salt/fine", 1, "scale"))
    assert "black pepper, ground → cracked" in differ(read_blend(finer), read_blend(coarser)).words
    assert short(differ(read_blend(old), read_blend(old)).words) == "the same blend"
    assert short(words, 2).endswith("more")
