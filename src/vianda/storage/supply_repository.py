"""What is kept of things, and what of a list is ticked; each kitchen's own."""

from __future__ import annotations

from collections.abc import Collection

from peewee import Expression

from vianda.core.model.stocked import Stocked
from vianda.core.supply.ticks import Tick
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


def _on(sheet: str) -> Expression:
    return (TickRow.kitchen_id == kitchen_here()) & (TickRow.sheet == sheet)


def ticks(sheets: Collection[str]) -> dict[str, list[Tick]]:
    """What is ticked on each of these lists, in the order of the hand."""
    found: dict[str, list[Tick]] = {sheet: [] for sheet in sheets}
    if found:
        rows = TickRow.select().where((TickRow.kitchen_id == kitchen_here()) & TickRow.sheet.in_(list(sheets)))
        for row in rows.order_by(TickRow.id).limit(MOST_LISTED):
            found[row.sheet].append(Tick(row.line, row.amount))
    return found


def set_tick(sheet: str, tick: Tick, *, ticked: bool) -> None:
    """Tick one line of a list with how much it is, or take the tick away; done twice it is done once."""
    if not ticked:
        TickRow.delete().where(_on(sheet) & (TickRow.line == tick.line)).execute()
        return
    TickRow.insert(kitchen_id=kitchen_here(), sheet=sheet, line=tick.line, amount=tick.amount).on_conflict(
        update={TickRow.amount: tick.amount}
    ).execute()


def clear_sheets(beginning: str) -> None:
    """Forget the ticks of lists whose names begin so."""
    TickRow.delete().where((TickRow.kitchen_id == kitchen_here()) & TickRow.sheet.startswith(beginning)).execute()
