"""The food-safety record as a CSV file: one reading or action a row, °C, for any table program."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from datetime import date
from typing import Protocol

from vianda.core.checks.limits import KIND_TITLES
from vianda.core.checks.sheet import CheckRow
from vianda.interchange.recipe_ld import said_plainly
from vianda.interchange.supply_csv import plain_text

COLUMNS = (
    "day", "service", "due", "check", "of", "dish", "note", "at_least_c", "at_most_c", "hold_s", "within_s", "source",
    "outcome", "at", "measured_c", "counts", "done", "who",
)  # fmt: skip


class Sheet(Protocol):
    """The checks of one service, or of the kitchen itself, on a day."""

    @property
    def name(self) -> str:
        """The service; "" for the kitchen's own."""

    @property
    def day(self) -> date:
        """The day."""

    @property
    def rows(self) -> Sequence[CheckRow]:
        """Its checks."""


def checks_csv(sheets: Iterable[Sheet]) -> str:
    """Every reading and everything that was done, a row each; a check that nobody measured has one without a reading.

    Text that a table program would take for a formula is written with an apostrophe before it.
    """
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS, restval="", lineterminator="\r\n")
    writer.writeheader()
    for sheet, row in ((s, r) for s in sheets for r in s.rows):
        limit = row.limit
        check = {
            "day": sheet.day.isoformat(),
            "service": plain_text(sheet.name),
            "due": row.due,
            "check": KIND_TITLES[row.kind],
            "of": plain_text(said_plainly(row.title)),
            "dish": plain_text(row.dish),
            "note": plain_text(row.what),
            "at_least_c": "" if limit.least_c is None else f"{limit.least_c:.1f}",
            "at_most_c": "" if limit.most_c is None else f"{limit.most_c:.1f}",
            "hold_s": f"{limit.hold_s:.0f}" if limit.hold_s else "",
            "within_s": "" if limit.within_s is None else f"{limit.within_s:.0f}",
            "source": limit.source,
            "outcome": row.state,
        }
        if not row.readings and not row.actions:
            writer.writerow(check)
        for reading in row.readings:
            writer.writerow(
                {
                    **check,
                    "at": reading.at,
                    "measured_c": f"{reading.temp_c:.1f}",
                    "counts": "no" if reading.taken_back else "yes",
                    "who": plain_text(reading.who),
                }
            )
        for action in row.actions:
            writer.writerow(
                {**check, "at": action.at, "done": plain_text(action.remark), "who": plain_text(action.who)}
            )
    return out.getvalue()
