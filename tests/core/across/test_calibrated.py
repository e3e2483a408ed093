"""A small sample of what `make calibrate` measures on thousands of books; docs/calibration.md has the tables."""

import numpy as np
from calibrate_verdicts import contrasted, drawn, looked_at, more_came_true, muddied, out_of_balance


def test_intervals_hold_what_is_true_about_as_often_as_they_say():
    cells = [cell for seed in range(150) for cell in drawn(seed)]
    assert len(cells) > 250
    assert 0.92 <= np.mean([held for _, held, _ in cells]) <= 0.98


def test_looking_often_names_hardly_anything_false():
    said = [looked_at(seed) for seed in range(25)]
    ever = sum(any(one in ("first", "second") for one in book) for book in said)
    assert ever <= 3
    assert sum(book[-1] == "no matter" for book in said) >= 15


def test_what_is_there_is_found():
    assert sum(looked_at(seed, truth=1.5, cooks=8)[-1] == "second" for seed in range(15)) >= 12
    assert sum(contrasted(seed, planted=1.5) == "second" for seed in range(25)) >= 19
    assert sum(bool(contrasted(seed, planted=0.0)) for seed in range(25)) <= 1


def test_neither_bias_nor_a_broken_balance_is_taken_for_a_difference():
    assert sum(muddied(seed, clean=2, biased=4) in ("first", "second") for seed in range(40)) <= 3
    assert all(muddied(seed, clean=0, biased=6) == "not yet known" for seed in range(10))
    assert sum(out_of_balance(seed, cooks=8) in ("first", "second") for seed in range(40)) <= 2


def test_the_chance_that_more_cooks_settle_it_comes_true_about_as_often_as_told():
    told = [one for seed in range(250) if (one := more_came_true(seed)) is not None]
    assert len(told) > 120
    assert abs(np.mean([came for _, came in told]) - np.mean([chance for chance, _ in told])) <= 0.12
