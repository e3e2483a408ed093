"""Ratios, shares and spoons: science.md section 2."""

from fractions import Fraction

import pytest
from builders import blend
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.blend import Blend, Line, read_blend
from ravska_core.blend.parts import check_blend
from ravska_core.catalogue import catalogue
from ravska_core.measure import SPOON_SETS, measure_out
from ravska_core.working import BadInput


@pytest.mark.parametrize(
    ("lines", "share", "salt"),
    [
        # equal level spoons of table salt and ground pepper
        ((("table-salt/fine", 1, "spoon"), ("black-pepper/ground", 1, "spoon")), 72.3, 71.2),
        # two spoons of pepper to one of kosher, by crystal
        ((("kosher-dense/flake", 1, "spoon"), ("black-pepper/ground", 2, "spoon")), 52.1, 51.6),
        ((("kosher-light/flake", 1, "spoon"), ("black-pepper/ground", 2, "spoon")), 37.8, 37.5),
    ],
)
def test_spoons_of_salt_and_pepper_hold_what_the_portion_weights_say(lines, share, salt):
    found = read_blend(blend(*lines))
    assert found.lines[0].share.value == pytest.approx(share, abs=0.05)
    assert found.salt.value == pytest.approx(salt, abs=0.05)


def test_parts_on_the_scale_are_shares_by_mass():
    found = read_blend(
        blend(
            ("table-salt/fine", 3, "scale"),
            ("white-sugar/granulated", "3/2", "scale"),
            ("paprika/powder", "1/4", "scale"),
            ("cayenne/powder", "1/4", "scale"),
        )
    )
    assert [line.share.value for line in found.lines] == pytest.approx([60, 30, 5, 5])
    assert [line.mass.value for line in found.lines] == pytest.approx([60, 30, 5, 5])


@st.composite
def blends(draw):
    keys = draw(st.lists(st.sampled_from(sorted(catalogue().grinds)), min_size=1, max_size=15, unique=True))
    lines = [
        Line(
            key, draw(st.fractions(Fraction(1, 16), 40, max_denominator=16)), draw(st.sampled_from(["spoon", "scale"]))
        )
        for key in keys
    ]
    return Blend("dry rub", tuple(lines), draw(st.floats(1, 5000)))


@given(blends(), st.integers(2, 9))
def test_shares_sum_to_one_and_neither_batch_nor_scaling_changes_them(found, times):
    first = read_blend(found)
    shares = [line.share.value for line in first.lines]
    assert sum(shares) == pytest.approx(100)
    assert sum(line.mass.value for line in first.lines) == pytest.approx(found.batch_g)
    scaled = Blend(found.kind, tuple(Line(x.grind, x.parts * times, x.basis) for x in found.lines), 2 * found.batch_g)
    assert [line.share.value for line in read_blend(scaled).lines] == pytest.approx(shares)
    # salt counted line by line is the salt of the whole
    nacl = [catalogue().grinds[line.grind].ingredient.nacl for line in found.lines]
    assert first.salt.value == pytest.approx(sum(s * n for s, n in zip(shares, nacl, strict=True)))


def test_every_figure_of_a_blend_shows_working_that_ends_in_itself():
    found = read_blend(blend(("table-salt/fine", 1, "spoon"), ("honey/liquid", 2, "scale")))
    figures = [found.salt, found.sugar, found.acid, found.batch, found.volume]
    figures += [line.share for line in found.lines] + [line.mass for line in found.lines]
    for figure in figures:
        assert figure.steps[-1].value == figure.value
        assert figure.error
        assert all(step.source in catalogue().sources for step in figure.steps)


@pytest.mark.parametrize(
    ("bad", "field"),
    [
        (blend(), "lines"),
        (blend(("gone/fine", 1, "spoon")), "lines.0.grind"),
        (blend(("table-salt/fine", 0, "spoon")), "lines.0.parts"),
        (blend(("table-salt/fine", 1, "bucket")), "lines.0.basis"),
        (blend(("table-salt/fine", 1, "spoon"), batch_g=float("nan")), "batch_g"),
        (blend(("table-salt/fine", 1, "spoon"), kind="soup"), "kind"),
    ],
)
def test_a_blend_that_cannot_be_mixed_says_so_at_the_field(bad, field):
    with pytest.raises(BadInput) as refusal:
        read_blend(bad)
    assert refusal.value.argument == field


def test_sixty_lines_are_the_most():
    with pytest.raises(BadInput):
        check_blend(blend(*[("table-salt/fine", 1, "spoon")] * 61))


# US teaspoon 4.92892 ml, NIST Handbook 44 appendix C
TSP = 4.92892159375


@pytest.mark.parametrize(
    ("ml", "words"),
    [
        (TSP, "1 tsp"), (1.5 * TSP, "1½ tsp"), (TSP / 8, "⅛ tsp"), (TSP / 16, "1 pinch"), (3 * TSP, "1 tbsp"),
        (3 * TSP + 1.5 * TSP, "1 tbsp + 1½ tsp"), (48 * TSP, "1 cup"), (64 * TSP, "1⅓ cups"), (0.75 * TSP, "¾ tsp"),
    ],
)  # fmt: skip
def test_spoons_are_written_as_people_write_them(ml, words):
    assert measure_out(ml).text == words


@given(st.floats(0.5, 4000), st.sampled_from(sorted(SPOON_SETS)))
def test_the_rounding_error_of_spoons_is_never_understated(ml, spoon_set):
    found = measure_out(ml, SPOON_SETS[spoon_set])
    assert found.volume_ml / ml - 1 == pytest.approx(found.error)
    # the pinch is the smallest measure: no rounding is off by more than half of one or the tolerance
    smallest = SPOON_SETS[spoon_set].spoons[-1].volume_ml
    assert abs(found.volume_ml - ml) <= max(0.0401 * ml, smallest / 2 + 1e-9)
