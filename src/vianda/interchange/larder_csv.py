"""The larder as a CSV file: one meat a row, fractions 0–1, read back row by row with a reason for each refusal."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import ValidationError

from vianda.core.basis.errors import CoreError
from vianda.core.inventory.inventory import Meat
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
        row = [_cell(getattr(meat, name)) for name in PLAIN]
        writer.writerow([*row, *(_cell(getattr(meat.composition, name)) for name in COMPOSITION)])
    return out.getvalue()


def _cell(value: object) -> str:
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
    reader = csv.reader(io.StringIO(text.removeprefix("\ufeff")))
    try:
        heading = [name.strip() for name in next(reader, [])]
        rows = [row for row in enumerate(reader, start=2) if any(cell.strip() for cell in row[1])]
    except csv.Error as error:
        raise UnreadableCsvError(f"The file breaks off as CSV: {error}.") from None
    unknown = [name for name in heading if name not in COLUMNS]
    missing = [name for name in COLUMNS if name not in heading and name not in MAY_BE_EMPTY]
    if unknown or missing:
        parts = [f"it lacks {', '.join(missing)}"] if missing else []
        parts += [f"it has {', '.join(n[:30] for n in unknown)}, which no larder has"] if unknown else []
        raise UnreadableCsvError(f"The first line names the columns; {' and '.join(parts)}.")
    if len(rows) > MOST_ROWS:
        raise UnreadableCsvError(f"A larder file has at most {MOST_ROWS} rows; this one has {len(rows)}.")
    found, seen = [], set[str]()
    for line, cells in rows:
        row = _read_row(line, heading, cells)
        if row.meat is not None and row.key in seen:
            row = CsvRow(line, row.key, None, "this key stands in the file twice; the first one counts")
        seen.add(row.key)
        found.append(row)
    return found


def _read_row(line: int, heading: list[str], cells: list[str]) -> CsvRow:
    values = dict(zip(heading, (c.strip() for c in cells), strict=False))
    key = values.get("key", "")[:64]
    if len(cells) != len(heading):
        return CsvRow(line, key, None, f"{len(cells)} cells, but the heading has {len(heading)}")
    try:
        content = _content(values)
        return CsvRow(line, key, MEATS.of(content), "")
    except ValueError as error:
        return CsvRow(line, key, None, _reason(error))


def _content(values: dict[str, str]) -> dict[str, Any]:
    content: dict[str, Any] = {}
    for name, text in values.items():
        if text == "" and name in MAY_BE_EMPTY and name not in ("range_source", "composition_note", "remark"):
            continue
        clean = text[1:] if text[:1] == "'" and plain_text(text[1:]) == text else text
        if name in NUMBERS:
            content[name] = _number(name, clean)
        elif name in YES_NO:
            if clean.lower() not in ("yes", "no", "true", "false", "1", "0"):
                raise ValueError(f"{name} is yes or no, not “{clean[:20]}”")
            content[name] = clean.lower() in ("yes", "true", "1")
        else:
            content[name] = clean
    content["composition"] = {name: content.pop(name) for name in COMPOSITION if name in content}
    return {"range_source": "as imported", "composition_note": "as imported", **content}


def _number(name: str, text: str) -> float:
    try:
        return float(text)
    except ValueError:
        raise ValueError(f"{name} is a number such as 0.19, not “{text[:20]}”") from None


def _reason(error: ValueError) -> str:
    if isinstance(error, ValidationError):
        first = error.errors(include_url=False, include_input=False)[0]
        return f"{'/'.join(str(p) for p in first['loc'])}: {first['msg']}"
    return error.detail if isinstance(error, CoreError) else str(error)
