"""Factors of people's units, against a general library of units."""

import pint
import pytest
from ravska_core.units import LENGTH_CM, MASS_G, TIME_S, US_TEASPOON_ML, VOLUME_ML

REGISTRY = pint.UnitRegistry(cache_folder=None)
NAMES = {"gr": "gram", "kilo": "kilogram", "kilos": "kilogram", "in": "inch", '"': "inch", "floz": "fluid_ounce",
         "m": "meter", "min": "minute", "mins": "minute", "h": "hour", "d": "day"}  # fmt: skip


@pytest.mark.parametrize(
    ("table", "into"), [(MASS_G, "gram"), (LENGTH_CM, "centimeter"), (VOLUME_ML, "milliliter"), (TIME_S, "second")]
)
def test_every_unit_has_the_factor_that_a_library_of_units_knows(table, into):
    for name, factor in table.items():
        known = "minute" if into == "second" and name == "m" else NAMES.get(name, name)
        assert float(factor) == pytest.approx(REGISTRY.Quantity(1, known).to(into).magnitude, rel=1e-12), name


def test_a_us_teaspoon_is_a_768th_of_a_gallon():
    assert pytest.approx(4.92892159375, rel=1e-15) == US_TEASPOON_ML
