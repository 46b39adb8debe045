"""Unit factors against pint 0.25.3, an independent library of units."""

from __future__ import annotations

import pint
import pytest

from vianda.core.basis import units
from vianda.core.reading import entry

REGISTRY = pint.UnitRegistry()


@pytest.mark.parametrize(
    ("table", "target", "names"),
    [
        (entry.MASS_UNITS, "gram", {"g": "gram", "kg": "kilogram", "oz": "ounce", "lb": "pound"}),
        (
            entry.VOLUME_UNITS,
            "milliliter",
            {"ml": "milliliter", "l": "liter", "tsp": "teaspoon", "tbsp": "tablespoon", "cup": "cup"},
        ),
        (entry.LENGTH_UNITS, "millimeter", {"mm": "millimeter", "cm": "centimeter", "in": "inch"}),
    ],
)
def test_factors_agree(table: dict[str, float], target: str, names: dict[str, str]) -> None:
    # Definitions are exact; what is left is the last bit of a double.
    for ours, theirs in names.items():
        assert table[ours] == pytest.approx(REGISTRY.Quantity(1, theirs).to(target).magnitude, rel=1e-12)


@pytest.mark.parametrize("fahrenheit", [-40.0, 32.0, 155.0, 160.0, 165.0, 450.0])
def test_temperatures_agree(fahrenheit: float) -> None:
    theirs = REGISTRY.Quantity(fahrenheit, "degF").to("degC").magnitude
    assert units.c_from_f(fahrenheit) == pytest.approx(theirs, abs=1e-9)
    assert units.f_from_c(theirs) == pytest.approx(fahrenheit, abs=1e-9)
