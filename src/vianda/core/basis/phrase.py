"""Sentences with live quantities in them, so that a screen can show them in g or oz, °C or °F.

The core never rounds and never chooses a display unit. It says ``"{pieces} × {piece}"`` and hands the
quantities over beside the text.
"""

from __future__ import annotations

import re
import string
from collections.abc import Mapping
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

    Parameters
    ----------
    text : str
        What was typed.
    **amounts : Amount
        Amounts already in the bowl, by ingredient.

    Returns
    -------
    Phrase
        A sentence with its quantities.

    Raises
    ------
    KeyError
        When the places in the text and the amounts given differ: a slip in our own code.

    Examples
    --------
    >>> say("{n} pieces", n=Amount("count", 8)).amounts["n"].value
    8
    >>> say("{n} eggs do not fit", n=Amount("count", 1)).text
    '{n} egg does not fit'
    """
    places = _places(text)
    if places != amounts.keys():
        raise KeyError(f"places {sorted(places)} and amounts {sorted(amounts)} differ in {text!r}")
    return Phrase(_in_number(text, amounts), amounts)


# What a count of one is said with: nouns that sentences count, and the verbs behind them.
_ONE = {
    "balls": "ball",
    "batches": "batch",
    "burgers": "burger",
    "buns": "bun",
    "children": "child",
    "cooks": "cook",
    "deliveries": "delivery",
    "eggs": "egg",
    "guests": "guest",
    "loads": "load",
    "loaves": "loaf",
    "packs": "pack",
    "parts": "part",
    "people": "person",
    "pieces": "piece",
    "portions": "portion",
    "pots": "pot",
    "slices": "slice",
    "teaspoons": "teaspoon",
    "things": "thing",
    "timings": "timing",
    "waves": "wave",
}
_ONE_DOES = {"are": "is", "do": "does", "eat": "eats", "get": "gets", "have": "has", "make": "makes", "were": "was"}
_COUNTED = re.compile(r"\{(\w+)\} (of them|" + "|".join(_ONE) + r")\b(?: (" + "|".join(_ONE_DOES) + r")\b)?")


def _in_number(text: str, amounts: Mapping[str, Amount]) -> str:
    """Nouns and verbs in the number of their count: "1 piece was said", not "1 pieces were said"."""

    def one(match: re.Match[str]) -> str:
        amount = amounts.get(match[1])
        if amount is None or amount.kind not in ("count", "number") or amount.high is not None or amount.value != 1:
            return match[0]
        verb = f" {_ONE_DOES[match[3]]}" if match[3] else ""
        return f"{{{match[1]}}} {_ONE.get(match[2], match[2])}{verb}"

    return _COUNTED.sub(one, text) if "}" in text else text


def mass(value_g: float, high_g: float | None = None) -> Amount:
    """A mass in grams.

    Parameters
    ----------
    value_g : float
        Value, g.
    high_g : float | None, default None
        High, g. None for none.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("mass_g", value_g, high_g)


def temp(value_c: float, high_c: float | None = None) -> Amount:
    """A temperature in degrees Celsius.

    Parameters
    ----------
    value_c : float
        Value, °C.
    high_c : float | None, default None
        High, °C. None for none.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("temp_c", value_c, high_c)


def delta_temp(value_k: float, high_k: float | None = None) -> Amount:
    """A temperature difference in kelvin.

    Parameters
    ----------
    value_k : float
        Value, K.
    high_k : float | None, default None
        High, K. None for none.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("delta_temp_k", value_k, high_k)


def length(value_mm: float, high_mm: float | None = None) -> Amount:
    """A length in millimetres.

    Parameters
    ----------
    value_mm : float
        Value, mm.
    high_mm : float | None, default None
        High, mm. None for none.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("length_mm", value_mm, high_mm)


def frac(value: float, high: float | None = None) -> Amount:
    """A fraction 0–1, shown as whole per cent.

    Parameters
    ----------
    value : float
        The fraction, 0–1 in a mix; a ratio may be more.
    high : float | None, default None
        Upper end of a range, 0–1; None for a single value.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("frac", value, high)


def fine_frac(value: float, high: float | None = None) -> Amount:
    """A fraction 0–1, shown as per cent with a decimal (salt, shares in arithmetic).

    Parameters
    ----------
    value : float
        The fraction, 0–1 in a mix; a ratio may be more.
    high : float | None, default None
        Upper end of a range, 0–1; None for a single value.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("fine_frac", value, high)


def duration(value_s: float, high_s: float | None = None) -> Amount:
    """A time in seconds.

    Parameters
    ----------
    value_s : float
        Value, s.
    high_s : float | None, default None
        High, s. None for none.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("time_s", value_s, high_s)


def per_hundred(value: float, high: float | None = None) -> Amount:
    """Mass by mass of the meat, shown as parts in a hundred.

    Parameters
    ----------
    value : float
        Mass by mass of the meat (ratio), 0 or more.
    high : float | None, default None
        Upper end of a range (ratio); None for a single value.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("per_hundred", value, high)


def minutes(value_min: float, high_min: float | None = None) -> Amount:
    """A time in whole minutes, for soaking, chilling and the like.

    Parameters
    ----------
    value_min : float
        Value, min.
    high_min : float | None, default None
        High, min. None for none.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("minutes", value_min, high_min)


def energy(value_kcal: float) -> Amount:
    """Energy in kilocalories.

    Parameters
    ----------
    value_kcal : float
        Value, kcal.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("energy_kcal", value_kcal)


def mass_mg(value_mg: float) -> Amount:
    """A mass in milligrams (sodium).

    Parameters
    ----------
    value_mg : float
        Value, mg.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("mass_mg", value_mg)


def count(value: int) -> Amount:
    """A whole number of things.

    Parameters
    ----------
    value : int
        How many (count).

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("count", value)


def number(value: float, high: float | None = None) -> Amount:
    """A plain number without unit.

    Parameters
    ----------
    value : float
        Any number (no unit).
    high : float | None, default None
        Upper end of a range (no unit); None for a single value.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("number", value, high)


def money(value: Decimal) -> Amount:
    """An amount in the kitchen's currency.

    Parameters
    ----------
    value : Decimal
        The amount, currency units.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("money", float(value))


def price(value: Decimal) -> Amount:
    """A price per kilogram in the kitchen's currency.

    Parameters
    ----------
    value : Decimal
        The amount, currency units.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("price_per_kg", float(value))


def lean_to_fat(fat_frac: float, high_frac: float | None = None) -> Amount:
    """A lean-to-fat ratio, carried as the fat fraction.

    Parameters
    ----------
    fat_frac : float
        Fat by mass, 0–1.
    high_frac : float | None, default None
        High, 0–1. None for none.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("lean_to_fat", fat_frac, high_frac)


def density(value_g_per_ml: float) -> Amount:
    """A density in grams per millilitre.

    Parameters
    ----------
    value_g_per_ml : float
        Value, g/ml.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("density_g_per_ml", value_g_per_ml)


def volume(value_ml: float) -> Amount:
    """A volume in millilitres.

    Parameters
    ----------
    value_ml : float
        Value, ml.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("volume_ml", value_ml)


def word(text: str) -> Amount:
    """A name from the larder, the kitchen or the formula.

    Parameters
    ----------
    text : str
        What was typed.

    Returns
    -------
    Amount
        A quantity for a sentence.
    """
    return Amount("word", text=text)
