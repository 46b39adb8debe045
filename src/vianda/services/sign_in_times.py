"""How long a sign-in lasts, and how long it outlives nobody being seen: as a kitchen says."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta

# By what they are set, and the whole hours and minutes that they may be.
LASTS_H, IDLE_MIN = "VIANDA_SIGN_IN_LASTS_H", "VIANDA_SIGN_IN_IDLE_MIN"
HOURS, MINUTES = (1, 24 * 90), (10, 60 * 24 * 90)


class BadTimesError(ValueError):
    """A time that is none, or out of its bounds; the message says which and what it may be."""


@dataclass(frozen=True, slots=True)
class SignInTimes:
    """A sign-in by password ends after ``lasts``, and when nobody was seen for ``idle``."""

    # OWASP ASVS 4.0.3, 3.3.2, level 2 asks for 12 h of activity or 30 min idle. A kitchen's phone is unlocked by its
    # owner, and a cook is not put out in the middle of a service: ours is longer unless the kitchen says otherwise.
    lasts: timedelta = timedelta(days=30)
    idle: timedelta = timedelta(days=7)


def times_of(*, lasts_h: str, idle_min: str) -> SignInTimes:
    """The times as they are set: whole hours and whole minutes, "" for the usual ones.

    Raises
    ------
    BadTimesError
        What is no whole number within its bounds.

    Examples
    --------
    >>> times_of(lasts_h="12", idle_min="30").idle
    datetime.timedelta(seconds=1800)
    """
    usual = SignInTimes()
    hours = _whole(lasts_h, LASTS_H, "hours", HOURS)
    minutes = _whole(idle_min, IDLE_MIN, "minutes", MINUTES)
    return SignInTimes(
        usual.lasts if hours is None else timedelta(hours=hours),
        usual.idle if minutes is None else timedelta(minutes=minutes),
    )


def _whole(text: str, name: str, unit: str, bounds: tuple[int, int]) -> int | None:
    plain = text.strip()
    if not plain:
        return None
    low, high = bounds
    if not (plain.isascii() and plain.isdigit() and len(plain) < 9 and low <= int(plain) <= high):
        raise BadTimesError(f"{name} is {low} to {high} whole {unit}, not “{plain[:20]}”.")
    return int(plain)
