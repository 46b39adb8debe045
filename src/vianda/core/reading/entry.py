"""Read what people type: ``1 lb 4 oz``, ``500g``, ``1/3 lb``, ``450F``, ``230 C``, ``2 tsp``.

Every reader returns a number in the unit its name says, or raises ``UnreadableEntryError`` with one
sentence: what was not understood and what would be. Bare numbers take the unit the screen shows.
"""

from __future__ import annotations

import math
import re
import unicodedata
from collections.abc import Mapping

from vianda.core.basis import units
from vianda.core.basis.errors import OutOfRangeError, UnreadableEntryError
from vianda.core.basis.units import UnitSystem
from vianda.core.reading.atoms import atoms_of
from vianda.core.reading.lexicon import base_lexicon

LONGEST_ENTRY = 60
ABSOLUTE_ZERO_C = -273.15

MASS_UNITS: Mapping[str, float] = {
    **dict.fromkeys(("g", "gr", "gram", "grams", "gramme", "grammes"), 1.0),
    **dict.fromkeys(("kg", "kilo", "kilos", "kilogram", "kilograms"), 1000.0),
    **dict.fromkeys(("oz", "ounce", "ounces"), units.G_PER_OZ),
    **dict.fromkeys(("lb", "lbs", "pound", "pounds", "#"), units.G_PER_LB),
}
VOLUME_UNITS: Mapping[str, float] = {
    **dict.fromkeys(("ml", "millilitre", "millilitres", "milliliter", "milliliters"), 1.0),
    **dict.fromkeys(("l", "litre", "litres", "liter", "liters"), 1000.0),
    **dict.fromkeys(("tsp", "teaspoon", "teaspoons"), units.ML_PER_TSP),
    **dict.fromkeys(("tbsp", "tablespoon", "tablespoons"), units.ML_PER_TBSP),
    **dict.fromkeys(("cup", "cups"), units.ML_PER_CUP),
}
LENGTH_UNITS: Mapping[str, float] = {
    **dict.fromkeys(("mm", "millimetre", "millimetres", "millimeter", "millimeters"), 1.0),
    **dict.fromkeys(("cm", "centimetre", "centimetres", "centimeter", "centimeters"), 10.0),
    **dict.fromkeys(("in", "inch", "inches", '"', "″"), units.MM_PER_IN),
}

# A mixed number, a fraction, or a decimal with point or comma.
NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?|[.,]\d+)"
_TERM = re.compile(rf"\s*({NUMBER})\s*([^\W\d_]+|[#\"″%°])?\.?\s*")
_TEMPERATURE = re.compile(rf"\s*(-?{NUMBER})\s*(?:°|º|deg(?:rees)?)?\s*([a-z]*)\s*", re.IGNORECASE)


def cleaned_entry(text: str, *, field: str, longest: int = LONGEST_ENTRY) -> str:
    """Lower case, plain fractions, no outer blanks; refuses what is empty or too long.

    Parameters
    ----------
    text : str
        What was typed.
    field : str
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.
    longest : int, default LONGEST_ENTRY
        Most characters taken (count).

    Returns
    -------
    str
        The text.

    Raises
    ------
    UnreadableEntryError
        That entry is … characters long; one here has at most ….
    """
    if len(text) > longest:
        raise UnreadableEntryError(
            f"That entry is {len(text)} characters long; one here has at most {longest}.", field=field
        )
    cleaned = text
    for sign in "¼½¾⅓⅔⅛⅜⅝⅞⅕⅖⅗⅘":
        if sign in cleaned:
            cleaned = cleaned.replace(sign, " " + unicodedata.normalize("NFKC", sign).replace("⁄", "/"))
    cleaned = cleaned.replace("−", "-").strip().lower()
    if not cleaned:
        raise UnreadableEntryError("Nothing was typed; the old value stays.", field=field)
    return cleaned


def number_value(number: str, *, field: str) -> float:
    """A mixed number, fraction or decimal as a float.

    Parameters
    ----------
    number : str
        A number as typed, with fractions.
    field : str
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        A mixed number, fraction or decimal as a float.

    Raises
    ------
    UnreadableEntryError
        “…” divides by zero.
    """
    whole = 0.0
    part = number.replace(",", ".")
    if " " in part:
        head, part = part.split(None, 1)
        whole = float(head)
    if "/" in part:
        over, under = part.split("/")
        if float(under) == 0:
            raise UnreadableEntryError(f"“{number}” divides by zero.", field=field)
        return whole + float(over) / float(under)
    return whole + float(part)


def _terms(text: str, *, field: str, example: str) -> list[tuple[float, str]]:
    """Split an entry into (number, unit) terms that cover all of it."""
    found: list[tuple[float, str]] = []
    at = 0
    while at < len(text):
        match = _TERM.match(text, at)
        if match is None:
            raise UnreadableEntryError(
                f"“{text}” was not understood from “{text[at:][:12]}” on. Type something like {example}.", field=field
            )
        found.append((number_value(match.group(1), field=field), match.group(2) or ""))
        at = match.end()
    return found


def _refuse_minus(text: str, *, field: str) -> None:
    if text.startswith("-"):
        raise OutOfRangeError(f"“{text}” is below zero, which nothing here can be.", field=field)


_KIND_OF = {"mass": "MASS", "volume": "VOL", "length": "LEN", "time": "TIME"}


def _as_read(text: str, kind: str, default_factor: float, system: UnitSystem) -> float | None:
    """What the reader makes of a whole entry, or None when it is not one quantity of that kind."""
    read = atoms_of(text, lexicon=base_lexicon(), system=system)
    if read.unread or len(read.atoms) != 1:
        return None
    (atom,) = read.atoms
    if atom.number is None or atom.number.ranged:
        return None
    if _KIND_OF[kind] in atom.kinds:
        return atom.value
    bare = "NUM" in atom.kinds and not (atom.parts and not atom.number.fraction)
    return atom.value * default_factor if bare else None


def _sum_of_terms(
    text: str, table: Mapping[str, float], default_factor: float, *, field: str, kind: str, example: str
) -> float:
    cleaned = cleaned_entry(text, field=field)
    _refuse_minus(cleaned, field=field)
    system: UnitSystem = "metric" if default_factor in (1.0, 60.0) else "us"
    known = _as_read(text, kind, default_factor, system)
    if known is not None and math.isfinite(known):
        return known
    # What the reader does not take is taken apart again here, to say why not.
    total = 0.0
    terms = _terms(cleaned, field=field, example=example)
    smallest = math.inf
    for value, unit in terms:
        if not unit and len(terms) > 1:
            raise UnreadableEntryError(
                f"“{text}” has a number without a unit among others. Type something like {example}.", field=field
            )
        factor = default_factor if not unit else table.get(unit)
        if factor is None:
            raise UnreadableEntryError(f"“{unit}” is not a unit of {kind}. Type something like {example}.", field=field)
        if factor >= smallest:
            raise UnreadableEntryError(
                f"“{text}” does not go from the larger unit to the smaller. Type something like {example}.", field=field
            )
        smallest = factor
        total += value * factor
    if not math.isfinite(total):
        raise OutOfRangeError(f"“{text}” is too large to weigh or measure.", field=field)
    return total


def read_mass_g(text: str, *, unit_system: UnitSystem = "metric", field: str = "") -> float:
    """Grams from an entry.

    Parameters
    ----------
    text : str
        ``500g``, ``1 lb 4 oz``, ``1/3 lb``, ``0,7 kg``, ``½ lb``; a bare number is grams, or ounces when
        the screen shows ounces.
    unit_system : UnitSystem, default 'metric'
        Units that a bare number has.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        The mass, g.

    Raises
    ------
    UnreadableEntryError, OutOfRangeError

    Examples
    --------
    >>> round(read_mass_g("1 lb 4 oz"), 1)
    567.0
    """
    default = 1.0 if unit_system == "metric" else units.G_PER_OZ
    return _sum_of_terms(text, MASS_UNITS, default, field=field, kind="mass", example="500 g or 1 lb 4 oz")


def read_volume_ml(text: str, *, field: str = "") -> float:
    """Millilitres from an entry such as ``2 tsp`` or ``1/3 cup`` (US customary measures).

    Parameters
    ----------
    text : str
        What was typed.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        The volume, ml.

    Examples
    --------
    >>> round(read_volume_ml("2 tsp"), 2)
    9.86
    """
    return _sum_of_terms(text, VOLUME_UNITS, 1.0, field=field, kind="volume", example="2 tsp or 1/3 cup")


def read_length_mm(text: str, *, unit_system: UnitSystem = "metric", field: str = "") -> float:
    """Millimetres from an entry such as ``6 mm``, ``2.5 cm`` or ``3/4 in``.

    Parameters
    ----------
    text : str
        What was typed.
    unit_system : UnitSystem, default 'metric'
        Units that a bare number has.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        The length, mm.

    Examples
    --------
    >>> read_length_mm("1/2 in")
    12.7
    """
    default = 1.0 if unit_system == "metric" else units.MM_PER_IN
    return _sum_of_terms(text, LENGTH_UNITS, default, field=field, kind="length", example="6 mm or 1/4 in")


def read_temp_c(text: str, *, unit_system: UnitSystem = "metric", field: str = "") -> float:
    """Degrees Celsius from ``450F``, ``230 C``, ``71 °C`` or a bare number in the unit shown.

    Parameters
    ----------
    text : str
        What was typed.
    unit_system : UnitSystem, default 'metric'
        Units that a bare number has.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        The temperature, °C.

    Raises
    ------
    UnreadableEntryError
        “…” is not a temperature.
    OutOfRangeError
        “…” is too hot to be true.

    Examples
    --------
    >>> round(read_temp_c("450F"), 1)
    232.2
    """
    cleaned = cleaned_entry(text, field=field)
    match = _TEMPERATURE.fullmatch(cleaned)
    if match is None:
        raise UnreadableEntryError(f"“{text}” is not a temperature. Type something like 230 C or 450F.", field=field)
    unit = match.group(2)
    if unit not in ("", "c", "celsius", "f", "fahrenheit"):
        raise UnreadableEntryError(
            f"“{unit}” is not a unit of temperature. Type something like 230 C or 450F.", field=field
        )
    minus = match.group(1).startswith("-")
    value = number_value(match.group(1).lstrip("-").strip(), field=field) * (-1 if minus else 1)
    if not math.isfinite(value):
        raise OutOfRangeError(f"“{text}” is too hot to be true.", field=field)
    celsius = units.c_from_f(value) if unit.startswith("f") or (unit == "" and unit_system == "us") else value
    if celsius < ABSOLUTE_ZERO_C:
        raise OutOfRangeError(f"“{text}” is colder than anything can be.", field=field)
    return celsius


def read_delta_temp_k(text: str, *, unit_system: UnitSystem = "metric", field: str = "") -> float:
    """A difference of temperatures in kelvin from ``-10``, ``5 K``, ``+18 F``; a bare number is in the unit shown.

    Parameters
    ----------
    text : str
        What was typed.
    unit_system : UnitSystem, default 'metric'
        Units that a bare number has.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        The difference of temperature, K.

    Raises
    ------
    UnreadableEntryError
        “…” is not a difference.
    OutOfRangeError
        “…” is too much to be true.

    Examples
    --------
    >>> read_delta_temp_k("-10"), read_delta_temp_k("-18 F"), read_delta_temp_k("9", unit_system="us")
    (-10.0, -10.0, 5.0)
    """
    match = re.fullmatch(rf"([-+]?)\s*({NUMBER})\s*(?:°\s*)?(k|kelvin|c|f|)", cleaned_entry(text, field=field))
    if match is None:
        raise UnreadableEntryError(f"“{text}” is not a difference. Type something like -10 or 18 F.", field=field)
    sign, number, unit = match.groups()
    value = number_value(number.strip(), field=field) * (-1.0 if sign == "-" else 1.0)
    if not math.isfinite(value):
        raise OutOfRangeError(f"“{text}” is too much to be true.", field=field)
    return value / 1.8 if unit == "f" or (unit == "" and unit_system == "us") else value


def read_frac(text: str, *, field: str = "") -> float:
    """A fraction 0–1 from per cent: ``55``, ``55 %``, ``1.2%``. A bare number is per cent.

    Parameters
    ----------
    text : str
        What was typed.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        The fraction, 0–1 in most fields; the field decides.

    Raises
    ------
    UnreadableEntryError
        “…” is not a per cent.

    Examples
    --------
    >>> read_frac("55 %")
    0.55
    """
    cleaned = cleaned_entry(text, field=field)
    _refuse_minus(cleaned, field=field)
    terms = _terms(cleaned, field=field, example="55 %")
    if len(terms) != 1 or terms[0][1] not in ("", "%", "percent"):
        raise UnreadableEntryError(f"“{text}” is not a per cent. Type something like 55 %.", field=field)
    return terms[0][0] / 100.0


TIME_UNITS: Mapping[str, float] = {
    **dict.fromkeys(("s", "sec", "secs", "second", "seconds"), 1.0),
    **dict.fromkeys(("min", "mins", "minute", "minutes"), 60.0),
    **dict.fromkeys(("h", "hr", "hrs", "hour", "hours"), 3600.0),
}


def read_seconds(text: str, *, bare_s: float, field: str = "") -> float:
    """Seconds from ``90 s``, ``20 min``, ``1 h 30 min`` or ``1:30``; a bare number is so many times ``bare_s``.

    Parameters
    ----------
    text : str
        What was typed.
    bare_s : float
        Seconds that a bare number stands for, s: 60 where minutes are usual.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        Seconds from ``90 s``, ``20 min``, ``1 h 30 min`` or ``1:30``.

    Examples
    --------
    >>> read_seconds("1 h 30 min", bare_s=60), read_seconds("1:30", bare_s=60)
    (5400.0, 90.0)
    """
    clock = re.fullmatch(r"\s*(\d{1,4}):([0-5]\d)\s*", text)
    if clock:
        return int(clock.group(1)) * 60.0 + int(clock.group(2))
    return _sum_of_terms(text, TIME_UNITS, bare_s, field=field, kind="time", example="20 min or 1:30")


def read_number(text: str, *, field: str = "") -> float:
    """A plain number, with point or comma: ``68.5``, ``68,5``, ``1/2``.

    Parameters
    ----------
    text : str
        What was typed.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    float
        A plain number, with point or comma.

    Raises
    ------
    UnreadableEntryError
        “…” is not a number.

    Examples
    --------
    >>> read_number("68,5")
    68.5
    """
    cleaned = cleaned_entry(text, field=field)
    _refuse_minus(cleaned, field=field)
    terms = _terms(cleaned, field=field, example="68.5")
    if len(terms) != 1 or terms[0][1]:
        raise UnreadableEntryError(f"“{text}” is not a number. Type something like 68.5.", field=field)
    return terms[0][0]


def read_count(text: str, *, field: str = "") -> int:
    """A whole number of people or pieces, as digits or as a small number word.

    Parameters
    ----------
    text : str
        What was typed.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    int
        A whole number of people or pieces, as digits or as a small number word.

    Raises
    ------
    UnreadableEntryError
        “…” is not a whole number.

    Examples
    --------
    >>> read_count("four")
    4
    """
    cleaned = cleaned_entry(text, field=field)
    _refuse_minus(cleaned, field=field)
    read = atoms_of(text, lexicon=base_lexicon())
    if not read.unread and len(read.atoms) == 1 and read.atoms[0].kinds == {"NUM"}:
        number = read.atoms[0].number
        if number is not None and number.whole and not number.ranged and not number.fraction and number.value < 1e12:
            return round(number.value)
    if not re.fullmatch(r"[0-9]+", cleaned):
        raise UnreadableEntryError(f"“{text}” is not a whole number. Type something like 4.", field=field)
    return int(cleaned)
