"""When somebody is busy, out of an iCalendar file (RFC 5545): events that take time, and free/busy reports.

Times with a zone, or in UTC, become the kitchen's own clock by its offset; times without one are the kitchen's own.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from typing import Any

from dateutil import rrule
from icalendar import Calendar

from vianda.core.basis.errors import CoreError

MOST_BYTES = 900_000
# Components that are looked at, and times of one event within the days asked for.
MOST_EVENTS, MOST_TIMES = 20_000, 500
# An event that began so long before may still go on.
LONGEST = timedelta(days=31)


class UnreadableCalendarError(CoreError):
    """A file that is no calendar we can read."""

    code = "unreadable-calendar"
    title = "That file cannot be read as a calendar"


@dataclass(frozen=True, slots=True)
class Busy:
    """From one moment to another on the kitchen's clock, without a zone."""

    begins: datetime
    ends: datetime


def busy_times(text: str, *, first: datetime, last: datetime, utc_offset: timedelta) -> tuple[Busy, ...]:
    """When somebody is busy between two moments, in order; times that touch are one.

    Cancelled events, events that are shown as free, and to-dos take no time. An event without an end lasts its day, or
    no time at all where it has an hour (RFC 5545, 3.6.1).

    Raises
    ------
    UnreadableCalendarError
        What is no calendar, is too large, or holds a rule that cannot be followed.
    """
    if len(text.encode()) > MOST_BYTES:
        raise UnreadableCalendarError(f"A calendar has at most {MOST_BYTES / 1e6:.1f} MB here.", field="/calendar")
    try:
        found = Calendar.from_ical(text, multiple=True)
    except (ValueError, IndexError, KeyError, TypeError, AttributeError) as error:
        raise UnreadableCalendarError(f"This is no iCalendar file: {str(error)[:200]}.", field="/calendar") from None
    if not found or any(c.name != "VCALENDAR" for c in found):
        raise UnreadableCalendarError("This is no iCalendar file: it holds no VCALENDAR.", field="/calendar")
    parts = [part for calendar in found for part in calendar.walk() if part.name in ("VEVENT", "VFREEBUSY")]
    if len(parts) > MOST_EVENTS:
        raise UnreadableCalendarError(f"It holds more than {MOST_EVENTS} events.", field="/calendar")
    clock = _Clock(utc_offset)
    try:
        times = [*_reports(parts, clock), *_events(parts, clock, first, last)]
    except (ValueError, TypeError, AttributeError, KeyError, OverflowError) as error:
        raise UnreadableCalendarError(
            f"One of its events cannot be read: {str(error)[:200]}.", field="/calendar"
        ) from None
    return tuple(
        _joined(Busy(max(t.begins, first), min(t.ends, last)) for t in times if t.ends > first and t.begins < last)
    )


class _Clock:
    """The kitchen's own clock."""

    def __init__(self, utc_offset: timedelta) -> None:
        self.utc_offset = utc_offset

    def read(self, value: date | datetime) -> datetime:
        if not isinstance(value, datetime):
            return datetime.combine(value, time())
        if value.tzinfo is None:
            return value
        return value.astimezone(UTC).replace(tzinfo=None) + self.utc_offset


def _reports(parts: Iterable[Any], clock: _Clock) -> Iterator[Busy]:
    for part in parts:
        if part.name != "VFREEBUSY":
            continue
        listed = part.get("freebusy", [])
        for group in listed if isinstance(listed, list) else [listed]:
            if str(group.params.get("FBTYPE", "BUSY")).upper() == "FREE":
                continue
            for begins, ends in [(p.start, p.end) for p in getattr(group, "periods", [group])]:
                yield Busy(clock.read(begins), clock.read(ends))


def _events(parts: Iterable[Any], clock: _Clock, first: datetime, last: datetime) -> Iterator[Busy]:
    events = [p for p in parts if p.name == "VEVENT" and "dtstart" in p]
    # Single times of a repeated event that were moved or called off stand for themselves.
    moved = {(str(e.get("uid")), clock.read(e.decoded("recurrence-id"))) for e in events if "recurrence-id" in e}
    for event in events:
        if str(event.get("status", "")).upper() == "CANCELLED" or str(event.get("transp", "")).upper() == "TRANSPARENT":
            continue
        start = event.decoded("dtstart")
        begins = clock.read(start)
        lasts = _lasts(event, start, begins, clock)
        if lasts <= timedelta(0):
            continue
        if "recurrence-id" in event or not ("rrule" in event or "rdate" in event):
            yield Busy(begins, begins + lasts)
            continue
        for at in _times(event, start, clock, first - min(lasts, LONGEST), last):
            if (str(event.get("uid")), at) not in moved:
                yield Busy(at, at + lasts)


def _lasts(event: Any, start: date | datetime, begins: datetime, clock: _Clock) -> timedelta:
    if "dtend" in event:
        return clock.read(event.decoded("dtend")) - begins
    if "duration" in event:
        lasts: timedelta = event.decoded("duration")
        return lasts
    return timedelta(0) if isinstance(start, datetime) else timedelta(days=1)


def _times(event: Any, start: date | datetime, clock: _Clock, first: datetime, last: datetime) -> Iterator[datetime]:
    """Beginnings of a repeated event. Its rule is followed on its own clock, where eight stays eight o'clock."""
    zone = start.tzinfo if isinstance(start, datetime) else None
    own = start.replace(tzinfo=None) if isinstance(start, datetime) else datetime.combine(start, time())

    def here(at: datetime) -> datetime:
        return clock.read(at.replace(tzinfo=zone) if zone is not None else at)

    # A day more on either side: zones lie apart by less.
    day = timedelta(days=1)
    found: set[datetime] = set()
    rules = event.get("rrule", [])
    for rule in rules if isinstance(rules, list) else [rules]:
        parts = dict(rule)
        until = parts.pop("UNTIL", None)
        text = rule.__class__(parts).to_ical().decode()
        if str(parts.get("FREQ", [""])[0]).upper() in ("SECONDLY", "MINUTELY", "HOURLY"):
            raise ValueError("it comes again within the day, and that is not followed here")
        ends = last + day
        if until:
            edge = until[0] if isinstance(until, list) else until
            edge = edge if isinstance(edge, datetime) else datetime.combine(edge, time(23, 59, 59))
            if edge.tzinfo is not None:
                edge = edge.astimezone(zone or UTC).replace(tzinfo=None)
            ends = min(ends, edge)
        for n, at in enumerate(rrule.rrulestr(text, dtstart=own).xafter(first - day, inc=True)):
            if at > ends or n >= MOST_TIMES:
                break
            found.add(here(at))
    found |= {here(own), *(clock.read(at) for at in _listed(event, "rdate"))}
    yield from sorted(found - {clock.read(at) for at in _listed(event, "exdate")})


def _listed(event: Any, name: str) -> Iterator[date | datetime]:
    groups = event.get(name, [])
    for group in groups if isinstance(groups, list) else [groups]:
        for one in group.dts:
            yield one.dt[0] if isinstance(one.dt, tuple) else one.dt


def _joined(times: Iterable[Busy]) -> list[Busy]:
    found: list[Busy] = []
    for one in sorted(times, key=lambda b: (b.begins, b.ends)):
        if found and one.begins <= found[-1].ends:
            found[-1] = Busy(found[-1].begins, max(found[-1].ends, one.ends))
        else:
            found.append(one)
    return found
