"""The hour, in UTC, to the millisecond; the database keeps naive UTC."""

from __future__ import annotations

from datetime import UTC, datetime


def now_utc() -> datetime:
    """Now, as naive UTC cut to milliseconds."""
    now = datetime.now(UTC).replace(tzinfo=None)
    return now.replace(microsecond=now.microsecond // 1000 * 1000)
