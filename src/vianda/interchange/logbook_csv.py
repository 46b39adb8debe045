"""The logbook as a CSV file and as JSON: a cook a row, in grams, millimetres, °C and UTC."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Mapping
from datetime import datetime
from typing import Any, Protocol

from vianda.core.cook.scores import SCALES
from vianda.interchange.supply_csv import plain_text

WEIGHED = ("cooked_mass_g", "cooked_diameter_mm", "cooked_thickness_mm", "core_c")
COLUMNS = (
    "cook", "begun_utc", "finished_utc", "formula", "dish", "pieces", "piece_mass_g", "batch_mass_g", "fat_frac",
    *WEIGHED, *SCALES, "note", "next_time", "begun_by", "noted_by",
)  # fmt: skip
FORMAT, VERSION = "vianda-logbook", 2


class Line(Protocol):
    """One cook as the logbook lists it."""

    @property
    def cook_id(self) -> int:
        """Its number."""

    @property
    def started_at(self) -> datetime:
        """When it began, UTC."""

    @property
    def finished_at(self) -> datetime | None:
        """When it was noted, UTC."""

    @property
    def formula_name(self) -> str:
        """Its formula."""

    @property
    def dish(self) -> str:
        """Kind of dish."""

    @property
    def pieces(self) -> int:
        """How many."""

    @property
    def piece_mass_g(self) -> float:
        """Raw, g."""

    @property
    def batch_mass_g(self) -> float:
        """Raw, g."""

    @property
    def fat_frac(self) -> float:
        """Of the blend, 0–1."""


def logbook_rows(lines: Iterable[Line], noted: Mapping[int, Mapping[str, Any]]) -> list[dict[str, Any]]:
    """Every cook with what was weighed, measured, scored and said, and by whom; what nobody said is None."""
    found = []
    for line in lines:
        said = noted.get(line.cook_id, {})
        found.append(
            {
                "cook": line.cook_id,
                "begun_utc": _moment(line.started_at),
                "finished_utc": _moment(line.finished_at) if line.finished_at else None,
                "formula": line.formula_name,
                "dish": line.dish,
                "pieces": line.pieces,
                "piece_mass_g": line.piece_mass_g,
                "batch_mass_g": line.batch_mass_g,
                "fat_frac": line.fat_frac,
                **{name: said.get(name) for name in (*WEIGHED, *SCALES)},
                "note": said.get("note") or "",
                "next_time": said.get("next_time") or "",
                "begun_by": said.get("begun_by", ""),
                "noted_by": said.get("noted_by", ""),
            }
        )
    return found


def logbook_csv(rows: Iterable[Mapping[str, Any]]) -> str:
    """A cook a row; text that a table program would take for a formula is written with an apostrophe before it."""
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS, restval="", lineterminator="\r\n")
    writer.writeheader()
    for row in rows:
        writer.writerow({key: plain_text(value) if isinstance(value, str) else value for key, value in row.items()})
    return out.getvalue()


def logbook_json(rows: Iterable[Mapping[str, Any]]) -> dict[str, Any]:
    """The same as a document that names its format and version."""
    return {"format": FORMAT, "version": VERSION, "cooks": list(rows)}


def _moment(at: datetime) -> str:
    return at.isoformat(timespec="seconds") + "Z"
