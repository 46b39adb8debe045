"""What is kept of things, and what of a shopping list is in the basket; each kitchen's own."""

from __future__ import annotations

from peewee import Expression

from vianda.core.model.stocked import ItemKind, Stocked
from vianda.interchange.kinds import STOCK
from vianda.storage.here import kitchen_here
from vianda.storage.tables import StockedRow, TickRow

MOST_LISTED = 2000


def list_stock() -> list[Stocked]:
    """What is kept of everything in this kitchen."""
    rows = StockedRow.select().where(StockedRow.kitchen_id == kitchen_here())
    return [STOCK.read(row.document) for row in rows.order_by(StockedRow.id).limit(MOST_LISTED)]


def keep_stocked(stocked: Stocked) -> Stocked:
    """Write down what is kept of one thing, over what was written before."""
    StockedRow.insert(
        kitchen_id=kitchen_here(), kind=stocked.kind, item_key=stocked.key, document=STOCK.text(stocked)
    ).on_conflict(update={StockedRow.document: STOCK.text(stocked)}).execute()
    return stocked


def _span(from_day: str, to_day: str) -> Expression:
    return (TickRow.kitchen_id == kitchen_here()) & (TickRow.from_day == from_day) & (TickRow.to_day == to_day)


def ticks(from_day: str, to_day: str) -> list[tuple[str, str]]:
    """Kind and key of what is in the basket for a span."""
    rows = TickRow.select().where(_span(from_day, to_day)).order_by(TickRow.id).limit(MOST_LISTED)
    return [(row.kind, row.item_key) for row in rows]


def set_tick(from_day: str, to_day: str, kind: ItemKind, key: str, *, ticked: bool) -> None:
    """Put one thing into the basket or take it out; done twice it is done once."""
    if not ticked:
        TickRow.delete().where(_span(from_day, to_day) & (TickRow.kind == kind) & (TickRow.item_key == key)).execute()
        return
    TickRow.insert(
        kitchen_id=kitchen_here(), from_day=from_day, to_day=to_day, kind=kind, item_key=key
    ).on_conflict_ignore().execute()
