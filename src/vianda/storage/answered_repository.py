"""What was answered to a write, by its token: sent again, the same answer comes and nothing is done twice."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta

from peewee import IntegrityError

from vianda.storage.clock import now_utc
from vianda.storage.tables import AnsweredRow
from vianda.storage.transaction import transaction

# A window that lost an answer asks again within hours, or is closed.
KEPT = timedelta(days=1)
MOST_PURGED = 200


@dataclass(frozen=True, slots=True)
class Answered:
    """An answer as it was sent; ``request`` is a digest of what was asked."""

    request: str
    status: int
    body: str


def find(token: str) -> Answered | None:
    """What was answered under a token."""
    row = AnsweredRow.get_or_none(AnsweredRow.token == token)
    return Answered(row.request, row.status, row.body) if row else None


def once(token: str, request: str, do: Callable[[], tuple[int, str]]) -> Answered:
    """Do a write and keep its answer, both or neither; when it was done under this token, answer as then.

    A second request of the same token waits at the row of the first. What ``do`` raises undoes all, and the token is
    free again.
    """
    known = find(token)
    if known is not None:
        return known
    try:
        with transaction():
            AnsweredRow.insert(token=token, request=request, status=0, body="", at=now_utc()).execute()
            status, body = do()
            AnsweredRow.update(status=status, body=body).where(AnsweredRow.token == token).execute()
    except IntegrityError:
        # Another request of this token came first, or ``do`` itself met a row that is there.
        known = find(token)
        if known is None:
            raise
        return known
    AnsweredRow.delete().where(AnsweredRow.at < now_utc() - KEPT).limit(MOST_PURGED).execute()
    return Answered(request, status, body)
