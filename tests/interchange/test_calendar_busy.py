"""When somebody is busy, out of calendar files: rules, zones, exceptions, reports, and what is no calendar."""

from __future__ import annotations

from datetime import datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vianda.interchange.calendar_busy import MOST_BYTES, UnreadableCalendarError, busy_times

FRIDAY = datetime(2026, 12, 4)
HOUR = timedelta(hours=1)
UNTIL_THEN = "RRULE:FREQ=WEEKLY;UNTIL=20261204T170000"


def _event(*lines: str) -> str:
    return "\r\n".join(["BEGIN:VEVENT", "UID:one@kestrel.invalid", "DTSTAMP:20261101T000000Z", *lines, "END:VEVENT"])


def _calendar(*parts: str) -> str:
    return "\r\n".join(["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Kestrel//Galley//EN", *parts, "END:VCALENDAR", ""])


def _busy(text: str, *, offset_h: float = 0.0, day: datetime = FRIDAY) -> list[str]:
    found = busy_times(text, first=day, last=day + timedelta(days=1), utc_offset=offset_h * HOUR)
    return [f"{b.begins:%d %H:%M}-{b.ends:%d %H:%M}" for b in found]


@pytest.mark.parametrize(
    ("lines", "times"),
    [
        (("DTSTART:20261204T170000", "DTEND:20261204T174500"), ["04 17:00-04 17:45"]),
        (("DTSTART:20261204T170000", "DURATION:PT30M"), ["04 17:00-04 17:30"]),
        # Without an end: an hour has no length, a day has the day (RFC 5545, 3.6.1).
        (("DTSTART:20261204T170000",), []),
        (("DTSTART;VALUE=DATE:20261204",), ["04 00:00-05 00:00"]),
        (("DTSTART;VALUE=DATE:20261202", "DTEND;VALUE=DATE:20261206"), ["04 00:00-05 00:00"]),
        (("DTSTART;VALUE=DATE:20261203",), []),
        # Over midnight, only what is within.
        (("DTSTART:20261203T230000", "DTEND:20261204T010000"), ["04 00:00-04 01:00"]),
        (("DTSTART:20261205T000000", "DTEND:20261205T010000"), []),
        (("DTSTART:20261204T170000", "DTEND:20261204T174500", "STATUS:CANCELLED"), []),
        (("DTSTART:20261204T170000", "DTEND:20261204T174500", "TRANSP:TRANSPARENT"), []),
        (("DTSTART:20261204T170000", "DTEND:20261204T160000"), []),
        # Every Friday since November; every second one; until before; not this one; this one too.
        (("DTSTART:20261106T170000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY"), ["04 17:00-04 18:00"]),
        (("DTSTART:20261113T170000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY;INTERVAL=2"), []),
        (("DTSTART:20261106T170000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY;INTERVAL=2"), ["04 17:00-04 18:00"]),
        (("DTSTART:20261106T170000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY;UNTIL=20261203T235959"), []),
        (
            ("DTSTART:20261106T170000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY;UNTIL=20261204T170000"),
            ["04 17:00-04 18:00"],
        ),
        (("DTSTART:20261106T170000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY;COUNT=4"), []),
        (("DTSTART:20261106T170000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY;COUNT=5"), ["04 17:00-04 18:00"]),
        (("DTSTART:20261106T170000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY", "EXDATE:20261204T170000"), []),
        (("DTSTART:20261101T170000", "DURATION:PT1H", "RDATE:20261204T080000"), ["04 08:00-04 09:00"]),
        (("DTSTART:20261101T170000", "DURATION:PT1H", "RRULE:FREQ=MONTHLY;BYDAY=1FR"), ["04 17:00-04 18:00"]),
    ],
)
def test_an_event_takes_the_time_it_takes(lines: tuple[str, ...], times: list[str]) -> None:
    assert _busy(_calendar(_event(*lines))) == times


def test_what_has_a_zone_is_put_on_the_kitchens_clock() -> None:
    utc = _calendar(_event("DTSTART:20261204T160000Z", "DTEND:20261204T170000Z"))
    assert _busy(utc) == ["04 16:00-04 17:00"]
    assert _busy(utc, offset_h=1) == ["04 17:00-04 18:00"]
    assert _busy(utc, offset_h=-3.5) == ["04 12:30-04 13:30"]
    assert _busy(utc, offset_h=10) == []
    # Noon in Lisbon is one in Berlin; a rule keeps its hour over the change of clocks at the end of October.
    lisbon = _event("DTSTART;TZID=Europe/Lisbon:20261002T120000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY")
    assert _busy(_calendar(lisbon), offset_h=1) == ["04 13:00-04 14:00"]


def test_one_time_of_many_that_was_moved_or_called_off_stands_for_itself() -> None:
    many = _event("DTSTART:20261106T170000", "DURATION:PT1H", "RRULE:FREQ=WEEKLY")
    moved = _event("RECURRENCE-ID:20261204T170000", "DTSTART:20261204T193000", "DURATION:PT1H")
    off = _event("RECURRENCE-ID:20261204T170000", "DTSTART:20261204T170000", "DURATION:PT1H", "STATUS:CANCELLED")
    assert _busy(_calendar(many, moved)) == ["04 19:30-04 20:30"]
    assert _busy(_calendar(many, off)) == []


def test_a_report_tells_busy_from_free() -> None:
    report = "\r\n".join(
        [
            "BEGIN:VFREEBUSY",
            "UID:two@kestrel.invalid",
            "DTSTAMP:20261101T000000Z",
            "FREEBUSY:20261204T080000Z/20261204T090000Z,20261204T120000Z/PT1H30M",
            "FREEBUSY;FBTYPE=FREE:20261204T140000Z/PT1H",
            "FREEBUSY;FBTYPE=BUSY-TENTATIVE:20261204T150000Z/PT1H",
            "END:VFREEBUSY",
        ]
    )
    assert _busy(_calendar(report)) == ["04 08:00-04 09:00", "04 12:00-04 13:30", "04 15:00-04 16:00"]


def test_times_that_touch_or_overlap_are_one() -> None:
    a = _event("DTSTART:20261204T080000", "DURATION:PT1H")
    b = _event("DTSTART:20261204T090000", "DURATION:PT1H")
    c = _event("DTSTART:20261204T083000", "DURATION:PT10M")
    assert _busy(_calendar(b, a, c)) == ["04 08:00-04 10:00"]


@pytest.mark.parametrize(
    "text",
    [
        "",
        "not a calendar",
        "BEGIN:VCARD\r\nEND:VCARD\r\n",
        "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\n",
        _event("DTSTART:20261204T170000"),
        _calendar(_event("DTSTART:soon", "DURATION:PT1H")),
        _calendar(_event("DTSTART:20261204T170000", "DURATION:PT1H", "RRULE:FREQ=SOMETIMES")),
        # It would come round a million times before the day.
        _calendar(_event("DTSTART:19700101T000000", "DURATION:PT1S", "RRULE:FREQ=SECONDLY")),
        "x" * (MOST_BYTES + 1),
        "🍔\x00",
    ],
)
def test_what_cannot_be_read_is_refused_in_words(text: str) -> None:
    with pytest.raises(UnreadableCalendarError) as refused:
        _busy(text)
    assert refused.value.field == "/calendar"


@settings(max_examples=150, deadline=None)
@given(st.text(max_size=200), st.sampled_from(["DTSTART", "DTEND", "DURATION", "RRULE", "RDATE", "EXDATE", "TRANSP"]))
def test_no_text_in_a_field_brings_it_down(text: str, name: str) -> None:
    lines = {"DTSTART": "DTSTART:20261106T170000", "DURATION": "DURATION:PT1H", "RRULE": "RRULE:FREQ=DAILY"}
    lines[name] = f"{name}:{text}"
    try:
        for one in _busy(_calendar(_event(*lines.values()))):
            assert "04" in one
    except UnreadableCalendarError:
        pass
