"""Check-weighings as a CSV file: a reading on record a row, g and UTC."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable
from datetime import datetime
from typing import Protocol

from vianda.core.weighing.weighing_run import Running
from vianda.interchange.supply_csv import plain_text

READING = ("piece", "reading_g", "target_g", "off_g", "verdict", "set_aside", "seconds_from_start")
RUN = ("weighing", "formula", "begun_utc", "finished_utc", "tolerance_g", "left_in_bowl_g", "begun_by")


class Run(Protocol):
    """One run of check-weighing as it is listed."""

    @property
    def number(self) -> int:
        """Its number."""

    @property
    def formula_name(self) -> str:
        """What was weighed."""

    @property
    def started_at(self) -> datetime:
        """When it began, UTC."""

    @property
    def finished_at(self) -> datetime | None:
        """When it was closed, UTC."""

    @property
    def tolerance_g(self) -> float:
        """How far off a piece may be, g."""

    @property
    def left_g(self) -> float | None:
        """What was left in the bowl, g; None for not weighed."""

    @property
    def begun_by(self) -> str:
        """Who began it; "" where nobody was signed in."""

    @property
    def running(self) -> Running:
        """Its readings."""


def records_csv(running: Running) -> str:
    """The record of one run: a reading a row."""
    return _table(READING, _readings(running))


def weighings_csv(runs: Iterable[Run]) -> str:
    """Every run with every reading on record; one without readings has a row of its own."""
    return _table((*RUN, *READING), (row for run in runs for row in _rows(run)))


def _rows(run: Run) -> Iterable[dict[str, str]]:
    of = {
        "weighing": str(run.number),
        "formula": plain_text(run.formula_name),
        "begun_utc": _moment(run.started_at),
        "finished_utc": _moment(run.finished_at) if run.finished_at else "",
        "tolerance_g": f"{run.tolerance_g:g}",
        "left_in_bowl_g": "" if run.left_g is None else f"{run.left_g:g}",
        "begun_by": plain_text(run.begun_by),
    }
    readings = list(_readings(run.running))
    return [of | reading for reading in readings] or [of]


def _readings(running: Running) -> Iterable[dict[str, str]]:
    for r in running.records:
        yield {
            "piece": str(r.number or ""),
            "reading_g": f"{r.shown_g:g}",
            "target_g": f"{r.target_g:g}",
            "off_g": f"{r.off_g:g}",
            "verdict": r.verdict,
            "set_aside": r.aside,
            "seconds_from_start": f"{r.at_s:.1f}",
        }


def _table(columns: tuple[str, ...], rows: Iterable[dict[str, str]]) -> str:
    out = io.StringIO()
    writer = csv.DictWriter(out, columns, restval="", lineterminator="\r\n")
    writer.writeheader()
    writer.writerows(rows)
    return out.getvalue()


def _moment(at: datetime) -> str:
    return at.isoformat(timespec="seconds") + "Z"
