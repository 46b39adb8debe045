"""Reading a time of day as cooks write it: 18:30, 18.30, 1830, 6:30 pm, half past six in the evening is not."""

from __future__ import annotations

import re

from vianda.core.basis.errors import UnreadableEntryError

_CLOCK = re.compile(r"(\d{1,2})(?:\s*[:.h]\s*(\d{2})|(\d{2}))?\s*(am|pm|a\.m\.|p\.m\.|h|o'clock|uhr)?", re.IGNORECASE)
_WORDS = {"noon": 720, "midday": 720, "midnight": 0}
DAY_MIN = 1440


def read_clock_min(text: str, *, field: str = "") -> int:
    """A time of day.

    Parameters
    ----------
    text : str
        What was typed.
    field : str, default ''
        JSON pointer named in a refusal; "" for none.

    Returns
    -------
    int
        Minutes from midnight, 0 to 1439.

    Raises
    ------
    UnreadableEntryError
        When it is no time of day, or one that could be morning or evening.

    Examples
    --------
    >>> read_clock_min("18:30"), read_clock_min("6.30 pm"), read_clock_min("1830"), read_clock_min("noon")
    (1110, 1110, 1110, 720)
    """
    said = " ".join(text.split()).casefold()
    if said in _WORDS:
        return _WORDS[said]
    found = _CLOCK.fullmatch(said)
    if found is None or not said.isascii():
        raise UnreadableEntryError(f"“{text[:40]}” is not a time of day. Type something like 18:30.", field=field)
    hour, minute = int(found[1]), int(found[2] or found[3] or 0)
    half = (found[4] or "").replace(".", "")
    if half in ("am", "pm"):
        if not 1 <= hour <= 12:
            raise UnreadableEntryError(f"With {half} the hour is 1 to 12.", field=field)
        hour = hour % 12 + (12 if half == "pm" else 0)
    elif found[2] is None and found[3] is None and not half and hour <= 12:
        # A bare 6 could be either.
        raise UnreadableEntryError(f"Is “{text}” in the morning or the evening? Type 6:00 or 18:00.", field=field)
    if hour > 23 or minute > 59:
        raise UnreadableEntryError("A day has hours to 23 and minutes to 59.", field=field)
    return 60 * hour + minute


def clock_text(minute: int) -> str:
    """A minute of the day as a clock shows it.

    Parameters
    ----------
    minute : int
        Minutes from midnight; of any day.

    Returns
    -------
    str
        Hours and minutes.

    Examples
    --------
    >>> clock_text(1110), clock_text(-30)
    ('18:30', '23:30')
    """
    hours, minutes = divmod(minute % DAY_MIN, 60)
    return f"{hours:02d}:{minutes:02d}"
