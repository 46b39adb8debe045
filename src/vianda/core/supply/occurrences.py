"""The days on which a service comes, by its day and how it repeats."""

from __future__ import annotations

from datetime import date, datetime, time, timedelta
from typing import Any

from dateutil import rrule
from dateutil.relativedelta import relativedelta

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.model.service import Service

# A span is looked at for shopping and prep: two months are enough (ours).
LONGEST_SPAN_DAYS = 62
# Years for which anything is planned: days before and after are counted from them without end of the calendar (ours).
FIRST_YEAR, LAST_YEAR = 1990, 2999
# Who cooks after midnight still cooks the evening before: a kitchen's day begins at this hour. Ours.
DAY_BEGINS_H = 5
_LAST = date(LAST_YEAR, 12, 31)
_FREQUENCY: dict[str, tuple[int, int]] = {"weekly": (rrule.WEEKLY, 1), "fortnightly": (rrule.WEEKLY, 2)}


def _noon(day: date) -> datetime:
    return datetime.combine(day, time(12))


def rule_of(service: Service) -> dict[str, Any] | None:
    """The rule by which a service comes again, as RFC 5545 has it; None where it comes once.

    Parameters
    ----------
    service : Service
        The service.

    Returns
    -------
    dict[str, Any] | None
        FREQ, INTERVAL, BYDAY and UNTIL.

    References
    ----------
    RFC 5545, 3.3.10. A month's rule is the day's own weekday: the second Friday; the fifth counts as the last.

    Examples
    --------
    >>> rule_of(Service("Friday burgers", "2026-12-04", repeat="weekly"))
    {'freq': 'weekly', 'interval': 1}
    """
    if not service.repeat or not service.day:
        return None
    day = date.fromisoformat(service.day)
    rule: dict[str, Any]
    if service.repeat == "monthly":
        nth = (day.day - 1) // 7 + 1
        rule = {
            "freq": "monthly",
            "byday": f"{-1 if nth == 5 else nth}{['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'][day.weekday()]}",
        }
    else:
        rule = {"freq": "weekly", "interval": _FREQUENCY[service.repeat][1]}
    if service.until:
        rule["until"] = date.fromisoformat(service.until)
    return rule


def days_of(service: Service, *, first: date, last: date) -> tuple[date, ...]:
    """The days of a span on which a service comes.

    Parameters
    ----------
    service : Service
        The service; one without a day comes on none.
    first : date
        First day of the span.
    last : date
        Its last day.

    Returns
    -------
    tuple[date, ...]
        In order.

    Raises
    ------
    OutOfRangeError
        A span that ends before it begins, or is longer than 62 days.

    References
    ----------
    RFC 5545 recurrence, worked out by python-dateutil.

    Examples
    --------
    >>> every = Service("Friday burgers", "2026-12-04", repeat="weekly")
    >>> [d.day for d in days_of(every, first=date(2026, 12, 5), last=date(2026, 12, 31))]
    [11, 18, 25]
    """
    check_span(first, last)
    if not service.day:
        return ()
    day = date.fromisoformat(service.day)
    end = min(last, date.fromisoformat(service.until)) if service.until else last
    if not service.repeat:
        return (day,) if first <= day <= last else ()
    if end < day:
        return ()
    if service.repeat == "monthly":
        nth = (day.day - 1) // 7 + 1
        weekday = rrule.weekday(day.weekday(), -1 if nth == 5 else nth)
        rule = rrule.rrule(rrule.MONTHLY, dtstart=_noon(day), byweekday=weekday, until=_noon(end))
    else:
        frequency, interval = _FREQUENCY[service.repeat]
        rule = rrule.rrule(frequency, dtstart=_noon(day), interval=interval, until=_noon(end))
    return tuple(at.date() for at in rule.between(_noon(first), _noon(last), inc=True))


def coming_day(service: Service, *, today: date) -> date:
    """The day on which a service comes next.

    Parameters
    ----------
    service : Service
        The service.
    today : date
        The day it is now.

    Returns
    -------
    date
        Today or later; one that does not come again has its own day, one without a day has today.

    Raises
    ------
    OutOfRangeError
        A day in no year that is planned for.

    Examples
    --------
    >>> coming_day(Service("Friday", day="2026-12-04", repeat="weekly"), today=date(2026, 12, 9))
    datetime.date(2026, 12, 11)
    """
    _check_year(today)
    if not service.day:
        return today
    own = date.fromisoformat(service.day)
    _check_year(own)
    if today <= own:
        return own
    # Every rule comes again within that many days.
    days = days_of(service, first=today, last=min(today + relativedelta(days=LONGEST_SPAN_DAYS - 1), _LAST))
    return days[0] if days else own


def run_day(service: Service, *, now: datetime) -> date:
    """The day whose run is meant when a service is taken to the stove.

    Parameters
    ----------
    service : Service
        The service.
    now : datetime
        The hour of whoever asks, by the kitchen's clock.

    Returns
    -------
    date
        The day on which it comes next; after midnight still the day before.

    Raises
    ------
    OutOfRangeError
        A day in no year that is planned for.

    Examples
    --------
    >>> run_day(Service("Late", day="2026-12-04", repeat="weekly"), now=datetime(2026, 12, 12, 1, 30))
    datetime.date(2026, 12, 11)
    """
    try:
        today = (now - timedelta(hours=DAY_BEGINS_H)).date()
    except OverflowError:
        today = now.date()
    return coming_day(service, today=today)


def _check_year(day: date) -> None:
    if not FIRST_YEAR <= day.year <= LAST_YEAR:
        raise OutOfRangeError(f"Days are planned from {FIRST_YEAR} to {LAST_YEAR}.", field="/day")


def check_span(first: date, last: date) -> None:
    """Refuse a span that no list is made for.

    Parameters
    ----------
    first : date
        First day.
    last : date
        Last day.

    Raises
    ------
    OutOfRangeError
        When it ends before it begins, is longer than 62 days, or lies in no year that is planned for.
    """
    _check_year(first)
    _check_year(last)
    if last < first:
        raise OutOfRangeError("The span ends before it begins.", field="/to_day")
    if last > first + relativedelta(days=LONGEST_SPAN_DAYS - 1):
        raise OutOfRangeError(f"A span has at most {LONGEST_SPAN_DAYS} days.", field="/to_day")
