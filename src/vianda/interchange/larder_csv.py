"""The larder as a CSV file: one meat a row, fractions 0–1, read back row by row with a reason for each refusal."""

from __future__ import annotations

import csv
import io
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import ValidationError

from vianda.core.basis.errors import CoreError
from vianda.core.inventory.inventory import Meat
from vianda.interchange.kept_texts import plain_texts
from vianda.interchange.kinds import MEATS
from vianda.interchange.supply_csv import plain_text

COMPOSITION = (
    "water_g_per_100g",
    "protein_g_per_100g",
    "fat_g_per_100g",
    "carbohydrate_g_per_100g",
    "ash_g_per_100g",
    "sodium_mg_per_100g",
    "sugars_g_per_100g",
)
PLAIN = (
    "key",
    "name",
    "species",
    "kind",
    "connective",
    "cured",
    "fat_low_frac",
    "fat_usual_frac",
    "fat_high_frac",
    "trim_loss_frac",
    "pack_mass_g",
    "price_per_kg",
    "range_source",
    "composition_note",
    "remark",
    "retired",
)
COLUMNS = (*PLAIN, *COMPOSITION)
NUMBERS = {"fat_low_frac", "fat_usual_frac", "fat_high_frac", "trim_loss_frac", "pack_mass_g", *COMPOSITION}
YES_NO = {"cured", "retired"}
# Columns that a hand-made file may leave out or empty.
MAY_BE_EMPTY = {
    "connective",
    "cured",
    "trim_loss_frac",
    "pack_mass_g",
    "remark",
    "retired",
    "range_source",
    "composition_note",
    "sugars_g_per_100g",
}
MOST_ROWS = 2000

Outcome = Literal["good", "refused"]


class UnreadableCsvError(CoreError):
    """Text that is not a larder file at all."""

    code = "unreadable-csv"
    title = "That is not a larder file"


@dataclass(frozen=True, slots=True)
class CsvRow:
    """One row of the file by its line number: the meat, or the reason why there is none."""

    line: int
    key: str
    meat: Meat | None
    reason: str


def write_csv(meats: Iterable[Meat]) -> str:
    """All meats as CSV text with a heading."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for meat in meats:
        row = [cell(getattr(meat, name)) for name in PLAIN]
        writer.writerow([*row, *(cell(getattr(meat.composition, name)) for name in COMPOSITION)])
    return out.getvalue()


def cell(value: object) -> str:
    """A value as a cell: yes or no, a number in full, or text that no table program takes for a formula."""
    if isinstance(value, bool):
        return "yes" if value else "no"
    text = repr(value) if isinstance(value, float) else str(value)
    return text if text[:1] == "-" and _is_number(text) else plain_text(text)


def _is_number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True


def read_csv(text: str) -> list[CsvRow]:
    """Rows of a larder file, each a meat or a reason.

    Raises
    ------
    UnreadableCsvError
        No heading, a heading without ``key`` or with unknown columns, or too many rows.
    """
    heading, rows = table_rows(
        text, columns=COLUMNS, may_be_empty=MAY_BE_EMPTY, most=MOST_ROWS, what="larder", refused=UnreadableCsvError
    )
    found, seen = [], set[str]()
    for line, cells in rows:
        row = _read_row(line, heading, cells)
        if row.meat is not None and row.key in seen:
            row = CsvRow(line, row.key, None, "this key stands in the file twice; the first one counts")
        seen.add(row.key)
        found.append(row)
    return found


def table_rows(
    text: str,
    *,
    columns: Collection[str],
    may_be_empty: Collection[str],
    most: int,
    what: str,
    refused: type[CoreError],
) -> tuple[list[str], list[tuple[int, list[str]]]]:
    """The heading and the rows of a table by their line numbers; ``refused`` is raised for what is no such table."""
    reader = csv.reader(io.StringIO(text.removeprefix("\ufeff")))
    try:
        heading = [name.strip() for name in next(reader, [])]
        rows = [row for row in enumerate(reader, start=2) if any(part.strip() for part in row[1])]
    except csv.Error as error:
        raise refused(f"The file breaks off as CSV: {error}.") from None
    unknown = [name for name in heading if name not in columns]
    missing = [name for name in columns if name not in heading and name not in may_be_empty]
    if unknown or missing:
        parts = [f"it lacks {', '.join(missing)}"] if missing else []
        parts += [f"it has {', '.join(n[:30] for n in unknown)}, which no {what} has"] if unknown else []
        raise refused(f"The first line names the columns; {' and '.join(parts)}.")
    if len(rows) > most:
        raise refused(f"A {what} file has at most {most} rows; this one has {len(rows)}.")
    return heading, rows


def _read_row(line: int, heading: list[str], cells: list[str]) -> CsvRow:
    values = dict(zip(heading, (c.strip() for c in cells), strict=False))
    key = values.get("key", "")[:64]
    if len(cells) != len(heading):
        return CsvRow(line, key, None, f"{len(cells)} cells, but the heading has {len(heading)}")
    try:
        content = _content(values)
        return CsvRow(line, key, MEATS.of(plain_texts(content)), "")
    except ValueError as error:
        return CsvRow(line, key, None, reason_of(error))


def _content(values: dict[str, str]) -> dict[str, Any]:
    content: dict[str, Any] = {}
    for name, text in values.items():
        if text == "" and name in MAY_BE_EMPTY and name not in ("range_source", "composition_note", "remark"):
            continue
        clean = plain_cell(text)
        if name in NUMBERS:
            content[name] = typed_number(name, clean)
        elif name in YES_NO:
            content[name] = truth(name, clean)
        else:
            content[name] = clean
    content["composition"] = {name: content.pop(name) for name in COMPOSITION if name in content}
    return {"range_source": "as imported", "composition_note": "as imported", **content}


def plain_cell(text: str) -> str:
    """What stands in a cell, without the apostrophe that kept a table program from running it."""
    clean = text.strip()
    return clean[1:] if clean[:1] == "'" and plain_text(clean[1:]) == clean else clean


def truth(name: str, text: str) -> bool:
    """A yes or a no as typed; ``ValueError`` otherwise."""
    if text.lower() not in ("yes", "no", "true", "false", "1", "0"):
        raise ValueError(f"{name} is yes or no, not “{text[:20]}”")
    return text.lower() in ("yes", "true", "1")


def typed_number(name: str, text: str) -> float:
    """A number as typed; ``ValueError`` otherwise."""
    try:
        return float(text)
    except ValueError:
        raise ValueError(f"{name} is a number such as 0.19, not “{text[:20]}”") from None


def reason_of(error: ValueError) -> str:
    """Why a row is refused, in words."""
    if isinstance(error, ValidationError):
        first = error.errors(include_url=False, include_input=False)[0]
        return f"{'/'.join(str(p) for p in first['loc'])}: {first['msg']}"
    return error.detail if isinstance(error, CoreError) else str(error)
