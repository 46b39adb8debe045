"""Bounds of what may be written down, as annotations that a reader of JSON can check.

They are the outermost bounds: what no kitchen writes. The ranges of the trade are in ``model.field_table`` and in the
classes themselves. The marks are those of the package ``annotated-types``, which does nothing by itself.
"""

from __future__ import annotations

import re
from decimal import Decimal
from typing import Annotated

from annotated_types import Ge, Gt, Le, Len, Predicate

_KEY = re.compile(r"[a-z0-9][a-z0-9-]*")
_CURRENCY = re.compile(r"[A-Z]+")


def is_key(text: str) -> bool:
    """Whether it is a key: small letters, digits and hyphens, not beginning with a hyphen.

    Parameters
    ----------
    text : str
        What was typed.

    Returns
    -------
    bool
        Whether it is a key: small letters, digits and hyphens, not beginning with a hyphen.

    Examples
    --------
    >>> is_key("iron-pan"), is_key("Iron pan")
    (True, False)
    """
    return _KEY.fullmatch(text) is not None


def is_key_or_empty(text: str) -> bool:
    """Whether it is a key, or nothing.

    Parameters
    ----------
    text : str
        What was typed.

    Returns
    -------
    bool
        Whether it is a key, or nothing.
    """
    return not text or is_key(text)


def is_currency_code(text: str) -> bool:
    """Whether it is a currency code: capital letters only.

    Parameters
    ----------
    text : str
        What was typed.

    Returns
    -------
    bool
        Whether it is a currency code: capital letters only.
    """
    return _CURRENCY.fullmatch(text) is not None


def is_price(price: Decimal) -> bool:
    """Whether it is a price: at most four decimal places.

    Parameters
    ----------
    price : Decimal
        The price, currency units.

    Returns
    -------
    bool
        Whether it is a price: at most four decimal places.
    """
    exponent = price.as_tuple().exponent
    return isinstance(exponent, int) and exponent >= -4


# What a reader is told when a predicate refuses, by its name.
REFUSALS = {
    "is_key": "A key has small letters, digits and hyphens",
    "is_key_or_empty": "A key has small letters, digits and hyphens",
    "is_currency_code": "A currency code has capital letters only",
    "is_price": "A price has at most four decimal places",
}

Key = Annotated[str, Len(1, 64), Predicate(is_key)]
KeyOrEmpty = Annotated[str, Len(0, 64), Predicate(is_key_or_empty)]
Name = Annotated[str, Len(1, 80)]
ShortText = Annotated[str, Len(0, 200)]
Share = Annotated[float, Ge(0), Le(1)]
MassG = Annotated[float, Gt(0), Le(10_000_000)]
TempC = Annotated[float, Ge(-50), Le(1000)]
LengthMm = Annotated[float, Ge(0), Le(3000)]
GramsPer100g = Annotated[float, Ge(0), Le(100)]
Price = Annotated[Decimal, Ge(0), Le(1_000_000), Predicate(is_price)]
Minutes = Annotated[float, Ge(0), Le(10_000)]
Seconds = Annotated[float, Ge(0), Le(100_000)]
