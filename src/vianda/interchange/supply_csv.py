"""Shopping and prep lists as CSV files: one thing a row, grams or pieces of bread, for any table program."""

from __future__ import annotations

import csv
import io

from vianda.core.supply.prep_plan import PrepPlan
from vianda.core.supply.shopping import NOTHING, Shopping

COLUMNS = (
    "shelf",
    "name",
    "buy",
    "unit",
    "packs",
    "pack",
    "needed",
    "there_already",
    "left_over",
    "cost",
    "supplier",
    "order_by",
    "first_needed",
    "for",
)
PREP_COLUMNS = (
    "day", "station", "name", "make_g", "batches", "batch_g", "left_over_g", "minutes", "ready", "use_by", "for_days",
    "for",
)  # fmt: skip


def shopping_csv(shopping: Shopping) -> str:
    """What has to be bought, a row each; what is there already in full is left out.

    Text that a table program would take for a formula is written with an apostrophe before it.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for line in shopping.lines:
        if line.buy <= NOTHING:
            continue
        writer.writerow(
            [
                _text(line.shelf),
                _text(line.name),
                f"{line.bought:.1f}".removesuffix(".0"),
                "pieces" if line.kind == "bread" else "g",
                line.packs or "",
                f"{line.pack:g}" if line.packs else "",
                f"{line.needed:.1f}",
                f"{line.used:.1f}",
                f"{line.left_over:.1f}",
                f"{line.cost:.2f}" if line.priced else "",
                _text(line.supplier),
                line.order_by.isoformat(),
                line.first_day.isoformat(),
                _text("; ".join(line.dishes)),
            ]
        )
    return out.getvalue()


def prep_csv(plan: PrepPlan) -> str:
    """What is made on which day, a row each; text that a table program would take for a formula has an apostrophe."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(PREP_COLUMNS)
    for day in plan.days:
        for line in day.lines:
            writer.writerow(
                [
                    day.day.isoformat(),
                    line.station,
                    _text(line.name),
                    f"{line.mass_g:.0f}",
                    line.batches if line.batch_g else "",
                    f"{line.batch_g:g}" if line.batch_g else "",
                    f"{line.spare_g:.0f}",
                    f"{line.minutes:.0f}",
                    line.ready.isoformat(),
                    line.use_by.isoformat(),
                    "; ".join(f"{x.day.isoformat()} {x.mass_g:.0f} g" for x in line.for_days),
                    _text("; ".join(line.dishes)),
                ]
            )
    return out.getvalue()


def _text(said: str) -> str:
    return f"'{said}" if said.startswith(("=", "+", "-", "@", "\t", "\r")) else said
