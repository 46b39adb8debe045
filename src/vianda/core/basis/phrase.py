"""Sentences with live quantities in them, so that a screen can show them in g or oz, °C or °F.

The core never rounds and never chooses a display unit. It says ``"{pieces} × {piece}"`` and hands the
quantities over beside the text.
"""

from __future__ import annotations

import string
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

Kind = Literal[
    "mass_g",
    "temp_c",
    "delta_temp_k",
    "length_mm",
    "frac",
    "fine_frac",
    "time_s",
    "money",
    "price_per_kg",
    "count",
    "number",
    "lean_to_fat",
    "density_g_per_ml",
    "volume_ml",
    "per_hundred",
    "minutes",
    "energy_kcal",
    "mass_mg",
    "word",
]


@dataclass(frozen=True, slots=True)
class Amount:
    """A quantity inside a sentence; ``high`` is set when the truth is a range from value to high.

    ``frac`` is 0–1 (shown as per cent), ``per_hundred`` too (shown as parts in a hundred of the meat);
    ``lean_to_fat`` carries the fat fraction; ``word`` carries ``text``, a name the cook gave, which is never read for
    places.
    """

    kind: Kind
    value: float | None = None
    high: float | None = None
    text: str | None = None


@dataclass(frozen=True, slots=True)
class Phrase:
    """A sentence with ``{name}`` places and the amounts which fill them."""

    text: str
    amounts: dict[str, Amount]


def _places(text: str) -> frozenset[str]:
    return frozenset(name for _, name, _, _ in string.Formatter().parse(text) if name is not None)


def say(text: str, **amounts: Amount) -> Phrase:
    """Build a phrase.

    Raises
    ------
    KeyError
        When the places in the text and the amounts given differ: a slip in our own code.

    Examples
    --------
    >>> say("{n} pieces", n=Amount("count", 8)).amounts["n"].value
    8
    """
    places = _places(text)
    if places != amounts.keys():
        raise KeyError(f"places {sorted(places)} and amounts {sorted(amounts)} differ in {text!r}")
    return Phrase(text, amounts)


def mass(value_g: float, high_g: float | None = None) -> Amount:
    """A mass in grams."""
    return Amount("mass_g", value_g, high_g)


def temp(value_c: float, high_c: float | None = None) -> Amount:
    """A temperature in degrees Celsius."""
    return Amount("temp_c", value_c, high_c)


def delta_temp(value_k: float, high_k: float | None = None) -> Amount:
    """A temperature difference in kelvin."""
    return Amount("delta_temp_k", value_k, high_k)


def length(value_mm: float, high_mm: float | None = None) -> Amount:
    """A length in millimetres."""
    return Amount("length_mm", value_mm, high_mm)


def frac(value: float, high: float | None = None) -> Amount:
    """A fraction 0–1, shown as whole per cent."""
    return Amount("frac", value, high)


def fine_frac(value: float, high: float | None = None) -> Amount:
    """A fraction 0–1, shown as per cent with a decimal (salt, shares in arithmetic)."""
    return Amount("fine_frac", value, high)


def duration(value_s: float, high_s: float | None = None) -> Amount:
    """A time in seconds."""
    return Amount("time_s", value_s, high_s)


def per_hundred(value: float, high: float | None = None) -> Amount:
    """Mass by mass of the meat, shown as parts in a hundred."""
    return Amount("per_hundred", value, high)


def minutes(value_min: float, high_min: float | None = None) -> Amount:
    """A time in whole minutes, for soaking, chilling and the like."""
    return Amount("minutes", value_min, high_min)


def energy(value_kcal: float) -> Amount:
    """Energy in kilocalories."""
    return Amount("energy_kcal", value_kcal)


def mass_mg(value_mg: float) -> Amount:
    """A mass in milligrams (sodium)."""
    return Amount("mass_mg", value_mg)


def count(value: int) -> Amount:
    """A whole number of things."""
    return Amount("count", value)


def number(value: float, high: float | None = None) -> Amount:
    """A plain number without unit."""
    return Amount("number", value, high)


def money(value: Decimal) -> Amount:
    """An amount in the kitchen's currency."""
    return Amount("money", float(value))


def price(value: Decimal) -> Amount:
    """A price per kilogram in the kitchen's currency."""
    return Amount("price_per_kg", float(value))


def lean_to_fat(fat_frac: float, high_frac: float | None = None) -> Amount:
    """A lean-to-fat ratio, carried as the fat fraction."""
    return Amount("lean_to_fat", fat_frac, high_frac)


def density(value_g_per_ml: float) -> Amount:
    """A density in grams per millilitre."""
    return Amount("density_g_per_ml", value_g_per_ml)


def volume(value_ml: float) -> Amount:
    """A volume in millilitres."""
    return Amount("volume_ml", value_ml)


def word(text: str) -> Amount:
    """A name from the larder, the kitchen or the formula."""
    return Amount("word", text=text)
