"""What each cook says of what is learnt; weighings and measurements of before are taken up."""

from __future__ import annotations

import json
import math
from typing import Any

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS observation (
        kitchen_id INT NOT NULL,
        figure VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        cook_id INT NOT NULL,
        piece INT NOT NULL,
        style VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        surface VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        at DATETIME(3) NOT NULL,
        observed DOUBLE NOT NULL,
        low DOUBLE NOT NULL,
        usual DOUBLE NOT NULL,
        high DOUBLE NOT NULL,
        value DOUBLE NOT NULL,
        sd DOUBLE NOT NULL,
        aside TINYINT(1) NOT NULL DEFAULT 0,
        PRIMARY KEY (kitchen_id, figure, cook_id, piece)
    )""",
)
WEIGHED_FRAC, RULER_MM, LEAST_FRAC = 0.012, 2.0, 0.01


def run(database: Any) -> None:
    """Make the table. Nobody could change a factor of loss or shrink before there was one: they were 1 then."""
    for statement in STATEMENTS:
        database.execute_sql(statement)
    done = database.execute_sql("SELECT id FROM cook WHERE outcome IS NOT NULL").fetchall()
    for (cook_id,) in done:
        kitchen_id, document, plan, started_at, outcome = database.execute_sql(
            "SELECT kitchen_id, document, plan, started_at, outcome FROM cook WHERE id = %s", (cook_id,)
        ).fetchone()
        formula = json.loads(document)
        style, surface = _key(formula, "dish", "style"), _key(formula, "heat", "surface")
        if not style or not surface:
            continue
        for figure, found in _said(json.loads(plan), json.loads(outcome)):
            database.execute_sql(
                "INSERT IGNORE INTO observation "
                "(kitchen_id, figure, cook_id, piece, style, surface, at, observed, low, usual, high, value, sd, "
                "aside) "
                "VALUES (%s, %s, %s, 0, %s, %s, %s, %s, %s, %s, %s, %s, %s, 0)",
                (kitchen_id, figure, cook_id, style, surface, started_at, *found),
            )


def _key(formula: Any, part: str, name: str) -> str:
    held = formula.get(part)
    return str(held.get(name, ""))[:64] if isinstance(held, dict) else ""


def _said(plan: Any, outcome: Any) -> list[tuple[str, tuple[float, ...]]]:
    shape, portions = plan.get("shape", {}), plan.get("portions", {})
    left, batch, cooked = shape.get("cooked_yield_frac"), portions.get("batch_mass_g"), outcome.get("cooked_mass_g")
    found = []
    if left and batch and cooked:
        found += _row("loss", 1 - cooked / batch, [1 - left[k] for k in ("high", "usual", "low")], WEIGHED_FRAC)
    raw, across, wide = shape.get("raw_diameter_mm"), outcome.get("cooked_diameter_mm"), shape.get("cooked_diameter_mm")
    # Only flat pieces were ever asked for it, and a loaf's or a ball's follows from its loss.
    if raw and across and isinstance(wide, dict) and shape.get("form", "disc") in ("disc", "filled", "spread"):
        asked = [1 - wide[k] / raw for k in ("high", "usual", "low")]
        found += _row("shrink", 1 - across / raw, asked, RULER_MM / raw)
    return found


def _row(figure: str, was: float, asked: list[float], by: float) -> list[tuple[str, tuple[float, ...]]]:
    if was < LEAST_FRAC or asked[1] < LEAST_FRAC:
        return []
    return [(figure, (was, *asked, math.log(was / asked[1]), by / was))]
