"""Ticks of lists: what is in the basket, made, or weighed and in its bowl. Each list has a name.

``shopping/2026-12-01/2026-12-07`` is the shopping of these days, ``prep/2026-12-03`` what is made on that day, and
``set-out/12/2026-12-04`` service 12 of that day in its bowls.
"""

from __future__ import annotations

import re
from datetime import date

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.supply.ticks import Tick
from vianda.storage import supply_repository
from vianda.storage.transaction import transaction

_DAY = r"(\d{4}-\d{2}-\d{2})"
_SHEET = re.compile(rf"shopping/{_DAY}/{_DAY}|prep/{_DAY}|set-out/[1-9]\d{{0,9}}/{_DAY}", re.ASCII)


def shopping_sheet(first: date, last: date) -> str:
    """The name of a span's shopping list."""
    return f"shopping/{first}/{last}"


def prep_sheet(day: date) -> str:
    """The name of a day's prep list."""
    return f"prep/{day}"


def set_out_sheet(service_id: int, day: date) -> str:
    """The name of a service's list of bowls on a day."""
    return f"set-out/{service_id}/{day}"


def set_tick(sheet: str, tick: Tick, *, ticked: bool) -> None:
    """Tick one line of a list, or take the tick away.

    Raises
    ------
    OutOfRangeError
        When there is no such list.
    """
    found = _SHEET.fullmatch(sheet)
    if found is None or not all(_is_day(day) for day in found.groups() if day):
        raise OutOfRangeError(f"There is no list {sheet}.", field="/sheet")
    with transaction():
        supply_repository.set_tick(sheet, tick, ticked=ticked)


def _is_day(text: str) -> bool:
    try:
        date.fromisoformat(text)
    except ValueError:
        return False
    return True
