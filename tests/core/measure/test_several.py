"""Weights of several pieces, as people write them (forms of writing: common practice, no source)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.measure import MOST_WEIGHTS, parse_masses_g
from ravska_core.working import BadInput

OZ = 28.349523125


@pytest.mark.parametrize(
    ("text", "count", "masses"),
    [
        ("2.3 kg", 1, (2300,)),
        ("2.3 kg", 4, (2300,)),
        ("620, 580, 710 and 640 g", 1, (620, 580, 710, 640)),
        ("620; 580; 710 g", 1, (620, 580, 710)),
        ("1.2 kg + 900 g", 1, (1200, 900)),
        ("1½ and 2 lb", 1, (24 * OZ, 32 * OZ)),
        ("4 lb 6 oz and 5 lb", 1, (70 * OZ, 80 * OZ)),
        ("2 x 600 g", 1, (600, 600)),
        ("2 of 600 g", 1, (600, 600)),
        ("3 × 200 g and 150 g", 1, (200, 200, 200, 150)),
        ("600 g each", 4, (600, 600, 600, 600)),
        ("600 g a piece", 1, (600,)),
        # one weight in two units, unless there are two pieces
        ("4 lb, 6 oz", 1, (70 * OZ,)),
        ("1 kg and 200 g", 1, (1200,)),
        ("1 kg and 200 g", 3, (1200,)),
        ("1 kg and 200 g", 2, (1000, 200)),
        # “and” of a number, not between two
        ("two and a half kg", 1, (2500,)),
        ("one and three quarters kg", 1, (1750,)),
    ],
)
def test_weights_are_read_as_they_are_written(text, count, masses):
    assert parse_masses_g(text, count) == pytest.approx(masses)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("620,580 g", "two ways"),
        ("620, some, 20 g", "no weight"),
        ("620, 580", "Add the unit"),
        ("", "Write a weight"),
        ("0 g and 500 g", "lies between"),
        ("30 x 20 g", "two ways|24 pieces"),
        (", ".join(["600"] * 25) + " g", "At most 24 pieces"),
    ],
)
def test_what_cannot_be_read_says_what_to_write(text, says):
    with pytest.raises(BadInput, match=says) as refusal:
        parse_masses_g(text, 1, "mass")
    assert refusal.value.argument == "mass"


@given(st.lists(st.integers(1, 9000), min_size=2, max_size=MOST_WEIGHTS), st.sampled_from([", ", " + ", "; ", " and "]))
def test_every_weight_counts_once(masses, between):
    assert parse_masses_g(f"{between.join(map(str, masses))} g") == tuple(masses)
