"""So many sites as were asked for: exactly so many, on the meat, clear of bone, each with its share of the meat."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ravska_core.catalogue import Bone
from ravska_core.coat import spread_sites
from ravska_core.coat.sites import Face, wrong_with
from ravska_core.working import BadInput
from scipy.spatial import cKDTree

LEG = Face(26.0, 14.0, True, 12.0, (Bone(0.2, 0.5, 0.6, 0.45, 0.15),))


@settings(deadline=None, max_examples=15)
@given(st.integers(1, 90), st.floats(12, 40), st.floats(6, 20), st.booleans())
def test_as_many_as_asked_on_the_meat_and_apart(count, long, wide, rounded):
    face = Face(long, wide, rounded, 8.0, (Bone(0.3, 0.5, 0.7, 0.5, 0.12),))
    sites = spread_sites(face, count)
    assert len(set(sites)) == count
    assert not any(wrong_with(face, sites))
    assert spread_sites(face, count) == sites


def test_each_has_about_as_much_meat_to_season_as_the_others():
    for count in (7, 11, 24):
        sites = np.array(spread_sites(LEG, count)) * (26, 14)
        x, y = np.meshgrid(np.linspace(0, 26, 260), np.linspace(0, 14, 140))
        inside = ((x - 13) / 13) ** 2 + ((y - 7) / 7) ** 2 < 1
        _, nearest = cKDTree(sites).query(np.column_stack([x[inside], y[inside]]))
        shares = np.bincount(nearest, minlength=count) / inside.sum() * count
        assert shares.min() > 0.55
        assert shares.max() < 1.6


def test_four_on_a_square_lie_in_the_middle_of_its_quarters():
    # by hand: a square of 20 cm in four squares of 10
    sites = spread_sites(Face(20.0, 20.0, False, 8.0), 4)
    for wanted in [(0.25, 0.25), (0.25, 0.75), (0.75, 0.25), (0.75, 0.75)]:
        assert min(math.dist(found, wanted) for found in sites) < 0.03
    assert math.dist(spread_sites(Face(20.0, 20.0, False, 8.0), 1)[0], (0.5, 0.5)) < 0.03


def test_more_than_there_is_room_for_is_refused():
    for count in (0, 601, 599):
        with pytest.raises(BadInput) as refused:
            spread_sites(LEG, count)
        assert refused.value.argument == "count"
