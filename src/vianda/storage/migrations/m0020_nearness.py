"""A line of the logbook says how near its scores lie to what is wanted, where it said their mean."""

from __future__ import annotations

import json
from typing import Any

# As they stood when this was written; a migration does not follow later changes.
WANTED = {"crust": 4.0, "juice": 4.0, "bite": 3.0, "bind": 3.0, "grease": 3.0, "salt": 3.0}


def run(database: Any) -> None:
    """Write the score of every cook that was scored anew."""
    rows = database.execute_sql(
        "SELECT id, outcome FROM cook WHERE id IN (SELECT cook_id FROM cook_line WHERE score IS NOT NULL)"
    ).fetchall()
    found = [(_nearness(json.loads(outcome)), cook_id) for cook_id, outcome in rows if outcome]
    for score, cook_id in found:
        database.execute_sql("UPDATE cook_line SET score = %s WHERE cook_id = %s", (score, cook_id))


def _nearness(outcome: dict[str, Any]) -> float | None:
    near = [
        5.0 - 4.0 * abs(outcome[key] - wanted) / max(wanted - 1.0, 5.0 - wanted)
        for key, wanted in WANTED.items()
        if outcome.get(key) is not None
    ]
    return sum(near) / len(near) if near else None
