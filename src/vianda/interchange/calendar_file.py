"""Services and what is made for them as an iCalendar file (RFC 5545): events with their rule, and to-dos."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from icalendar import Calendar, Event, Todo

from vianda.core.model.service import Service
from vianda.core.supply.occurrences import rule_of
from vianda.core.supply.prep_plan import PrepPlan

# On the plate until everybody has eaten: ours.
SERVICE_LASTS = timedelta(hours=2)


@dataclass(frozen=True, slots=True)
class Dated:
    """A service with its number, when it was changed (UTC), and what its dishes are called."""

    id: int
    changed_at: datetime
    service: Service
    dishes: tuple[str, ...]


def calendar_file(kitchen: str, services: Iterable[Dated], prep: PrepPlan) -> str:
    """One event for each service that has a day, one to-do for each thing that is made ahead, on its own day.

    Times are the kitchen's own: they have no zone, so that eight o'clock stays eight o'clock.
    """
    out = Calendar()
    out.add("prodid", "-//Vianda//Kitchen//EN")
    out.add("version", "2.0")
    out.add("x-wr-calname", kitchen)
    for one in services:
        service = one.service
        if not service.day:
            continue
        hour = divmod(service.timing.ready_min % 1440, 60)
        begins = datetime.combine(date.fromisoformat(service.day), time(*hour))
        event = Event()
        event.add("uid", f"service-{one.id}@vianda.invalid")
        event.add("dtstamp", one.changed_at)
        event.add("dtstart", begins)
        event.add("dtend", begins + SERVICE_LASTS)
        event.add("summary", service.name)
        if one.dishes or service.remark:
            event.add("description", "\n".join([", ".join(one.dishes), service.remark]).strip())
        rule = rule_of(service)
        if rule is not None:
            event.add("rrule", {k.upper(): v for k, v in rule.items()})
        out.add_component(event)
    for day in prep.days:
        for line in day.lines:
            todo = Todo()
            todo.add("uid", f"make-{line.key}-{day.day}@vianda.invalid")
            todo.add("dtstamp", datetime.combine(day.day, time()))
            # A day as the moment by which it is done has its own kind of value (RFC 5545, 3.8.2.3).
            todo.add("due", day.day)
            todo.add("summary", f"{line.name}: {line.mass_g:.0f} g")
            todo.add("description", "For " + ", ".join(f"{x.day} ({x.mass_g:.0f} g)" for x in line.for_days))
            out.add_component(todo)
    text: bytes = out.to_ical()
    return text.decode()
