"""A shopping list as a CSV file: one thing a row, grams or pieces of bread, for any table program."""

from __future__ import annotations

import csv
import io

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


def _text(said: str) -> str:
    return f"'{said}" if said.startswith(("=", "+", "-", "@", "\t", "\r")) else said
