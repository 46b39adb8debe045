"""Unit factors against pint 0.25.3, an independent library of units."""

from __future__ import annotations

import pint
import pytest

from vianda.core.basis import units
from vianda.core.inventory.composition import SALT_PER_SODIUM
from vianda.core.reading import entry, lexicon

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


@pytest.mark.parametrize(
    ("table", "names"),
    [
        (
            lexicon.FACTORS,
            {
                "g": "gram", "kg": "kilogram", "oz": "ounce", "lb": "pound", "ml": "milliliter", "cl": "centiliter",
                "dl": "deciliter", "l": "liter", "tsp": "teaspoon", "tbsp": "tablespoon", "cup": "cup",
                "floz": "fluid_ounce", "pint": "pint", "quart": "quart", "gallon": "gallon", "mm": "millimeter",
                "cm": "centimeter", "in": "inch", "s": "second", "min": "minute", "h": "hour",
            },
        ),
        (
            lexicon.IMPERIAL,
            {
                "floz": "imperial_fluid_ounce", "pint": "imperial_pint", "quart": "imperial_quart",
                "gallon": "imperial_gallon",
            },
        ),
    ],
)  # fmt: skip
def test_every_unit_that_is_read_is_the_librarys(table: dict[str, float], names: dict[str, str]) -> None:
    bases = {"[mass]": "gram", "[length]": "millimeter", "[time]": "second", "[length] ** 3": "milliliter"}
    for ours, theirs in names.items():
        one = REGISTRY.Quantity(1, theirs)
        assert table[ours] == pytest.approx(one.to(bases[str(one.dimensionality)]).magnitude, rel=1e-12), ours


def test_salt_is_to_sodium_as_the_periodic_table_says() -> None:
    # Standard atomic weights (IUPAC) are not in the library of units; the mole-to-gram factor is from memory, high.
    sodium, chlorine = 22.98976928, 35.45
    assert pytest.approx((sodium + chlorine) / sodium, abs=5e-4) == SALT_PER_SODIUM
