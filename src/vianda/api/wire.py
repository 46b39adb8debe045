"""Types that every request and answer shares."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, PlainSerializer

from vianda.api.problems import ProblemError, problem

Units = Literal["metric", "us"]
Text = Annotated[str, Field(max_length=200)]
# Keys are kept in ASCII; the database compares them with nothing else. May be empty where nothing is asked for.
KeyAsked = Annotated[str, Field(max_length=64, pattern=r"^[ -~]*$")]
# What makes a repeat of what was said at a device count once.
Token = Annotated[str, Field(min_length=8, max_length=40, pattern=r"^[A-Za-z0-9-]+$")]
# Who measured, and when in the day by the kitchen's clock.
Who = Annotated[str, Field(max_length=40)]
DayMinute = Annotated[int, Field(ge=0, le=1439)]
# The database keeps naive UTC; on the wire the zone is written out.
Moment = Annotated[datetime, PlainSerializer(lambda t: t.isoformat(timespec="milliseconds") + "Z", return_type=str)]


class Answer(BaseModel):
    """Base of what we send."""

    model_config = ConfigDict(arbitrary_types_allowed=False)


def day_of(text: str) -> date:
    """A day as an address has it."""
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise ProblemError(
            problem(422, "invalid", "A value does not fit", "A day is written as year, month and day: 2026-12-04.")
        ) from None
