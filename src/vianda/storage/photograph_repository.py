"""Photographs of cooks; each kitchen's own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from vianda.storage.clock import now_utc
from vianda.storage.here import kitchen_here
from vianda.storage.records import NotFoundError
from vianda.storage.tables import CookRow, PhotographRow


@dataclass(frozen=True, slots=True)
class StoredPhotograph:
    """What is known of a photograph without opening it; sides in pixels."""

    id: int
    cook_id: int
    caption: str
    width: int
    height: int
    at: datetime


def add_photograph(cook_id: int, jpeg: bytes, small: bytes, *, width: int, height: int, most: int) -> int | None:
    """Keep one and return its number; None when the cook has so many. Call it in a transaction."""
    # Two windows count one after the other.
    here = (CookRow.id == cook_id) & (CookRow.kitchen_id == kitchen_here())
    if CookRow.select(CookRow.id).where(here).for_update().get_or_none() is None:
        raise NotFoundError(f"cook {cook_id}")
    if PhotographRow.select().where(_of([cook_id])).count() >= most:
        return None
    row = PhotographRow.create(
        kitchen_id=kitchen_here(), cook_id=cook_id, caption="", width=width, height=height, at=now_utc(),
        jpeg=jpeg, small=small,
    )  # fmt: skip
    return int(row.id)


def photographs_of(cook_ids: Sequence[int]) -> list[StoredPhotograph]:
    """Those of cooks, in the order in which they were added."""
    p = PhotographRow
    rows = p.select(p.id, p.cook_id, p.caption, p.width, p.height, p.at).where(_of(cook_ids)).order_by(p.id)
    return [StoredPhotograph(r.id, r.cook_id, r.caption, r.width, r.height, r.at) for r in rows]


def jpeg_of(photograph_id: int, *, small: bool) -> bytes:
    """The file."""
    column = PhotographRow.small if small else PhotographRow.jpeg
    row = PhotographRow.select(column).where(_one(photograph_id)).tuples().first()
    if row is None:
        raise NotFoundError(f"photograph {photograph_id}")
    return bytes(row[0])


def set_caption(photograph_id: int, caption: str) -> None:
    """Say what is seen on it."""
    if not PhotographRow.select(PhotographRow.id).where(_one(photograph_id)).exists():
        raise NotFoundError(f"photograph {photograph_id}")
    PhotographRow.update(caption=caption).where(_one(photograph_id)).execute()


def delete_photograph(photograph_id: int) -> None:
    """Delete one for good; deleted before, nothing happens."""
    PhotographRow.delete().where(_one(photograph_id)).execute()


def _one(photograph_id: int) -> Any:
    return (PhotographRow.id == photograph_id) & (PhotographRow.kitchen_id == kitchen_here())


def _of(cook_ids: Sequence[int]) -> Any:
    return (PhotographRow.kitchen_id == kitchen_here()) & PhotographRow.cook_id.in_(list(cook_ids) or [0])
