"""Shopping, prep and butcher's lists as CSV files: one thing a row, g or pieces of bread, for any table program."""

from __future__ import annotations

import csv
import io

from vianda.core.supply.butcher import ButcherSlip
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
BUTCHER_COLUMNS = (
    "what", "name", "cut", "day", "comes_on", "mass_g", "pieces", "piece_g", "piece_tolerance_g", "share", "plate_mm",
    "passes", "fat_wanted", "fat_low", "fat_high", "as_bought_g", "there_already_g", "to_come_g", "order_by",
    "supplier", "at_most_c",
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
                plain_text(line.shelf),
                plain_text(line.name),
                f"{line.bought:.1f}".removesuffix(".0"),
                "pieces" if line.kind == "bread" else "g",
                line.packs or "",
                f"{line.pack:g}" if line.packs else "",
                f"{line.needed:.1f}",
                f"{line.used:.1f}",
                f"{line.left_over:.1f}",
                f"{line.cost:.2f}" if line.priced else "",
                plain_text(line.supplier),
                line.order_by.isoformat(),
                line.first_day.isoformat(),
                plain_text("; ".join(line.dishes)),
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
                    plain_text(line.name),
                    f"{line.mass_g:.0f}",
                    line.batches if line.batch_g else "",
                    f"{line.batch_g:g}" if line.batch_g else "",
                    f"{line.spare_g:.0f}",
                    f"{line.minutes:.0f}",
                    line.ready.isoformat(),
                    line.use_by.isoformat(),
                    "; ".join(f"{x.day.isoformat()} {x.mass_g:.0f} g" for x in line.for_days),
                    plain_text("; ".join(line.dishes)),
                ]
            )
    return out.getvalue()


def butcher_csv(slip: ButcherSlip) -> str:
    """The butcher's slip: a row for each day of a blend, for each cut of a blend, and for each cut in all."""
    out = io.StringIO()
    writer = csv.DictWriter(out, BUTCHER_COLUMNS, lineterminator="\r\n")
    writer.writeheader()
    for order in slip.blends:
        blend, name = order.blend, plain_text(order.blend.name)
        spec = {
            "piece_g": f"{blend.piece_mass_g:.0f}" if blend.portioned else "",
            "piece_tolerance_g": f"{blend.piece_tolerance_g:.1f}" if blend.portioned else "",
            "plate_mm": f"{blend.plate_mm:g}" if blend.plate_mm else "",
            "passes": blend.passes,
            "fat_wanted": f"{blend.fat_frac:.3f}",
            "fat_low": f"{blend.fat_low_frac:.3f}",
            "fat_high": f"{blend.fat_high_frac:.3f}",
            "at_most_c": f"{order.most_c:.1f}",
        }
        for day in order.days:
            row = {"what": "blend", "name": name, "day": day.day.isoformat(), "comes_on": day.comes_on.isoformat()}
            writer.writerow(
                row | spec | {"mass_g": f"{day.mass_g:.0f}", "pieces": day.pieces if blend.portioned else ""}
            )
        for part in blend.cuts:
            row = {"what": "cut of a blend", "name": name, "cut": plain_text(part.name)}
            writer.writerow(row | {"mass_g": f"{part.trimmed_g:.0f}", "share": f"{part.share_frac:.4f}"})
    for cut in slip.cuts:
        writer.writerow(
            {
                "what": "cut",
                "cut": plain_text(cut.name),
                "mass_g": f"{cut.trimmed_g:.0f}",
                "as_bought_g": f"{cut.needed_g:.0f}",
                "there_already_g": f"{cut.there_g:.0f}",
                "to_come_g": f"{cut.order_g:.0f}",
                "order_by": cut.order_by.isoformat(),
                "supplier": plain_text(cut.supplier),
                "at_most_c": f"{cut.most_c:.1f}",
            }
        )
    return out.getvalue()


def plain_text(said: str) -> str:
    """Text that no table program takes for a formula."""
    return f"'{said}" if said.startswith(("=", "+", "-", "@", "\t", "\r", "\n")) else said
