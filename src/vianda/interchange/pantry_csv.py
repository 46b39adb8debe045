"""The pantry as a CSV file: one thing a row, read back row by row with a reason for each refusal.

House formulas stand in it to be read, with what they come to; they are made of lines, so they travel in the kitchen
archive and in formula files, and their rows are left alone when the file is read back.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from vianda.core.basis.errors import CoreError
from vianda.core.inventory.pantry import Ingredient
from vianda.interchange.kept_texts import plain_texts
from vianda.interchange.kinds import INGREDIENTS
from vianda.interchange.larder_csv import COMPOSITION, cell, plain_cell, reason_of, table_rows, truth, typed_number

PLAIN = (
    "key", "name", "group", "price_per_kg", "g_per_cup", "volume_source", "temp_c", "composition_note", "remark",
    "retired",
)  # fmt: skip
LISTED = ("pieces", "allergens", "aliases")
COLUMNS = (*PLAIN, *LISTED, "house", *COMPOSITION)
NUMBERS = {"g_per_cup", "temp_c", *COMPOSITION}
MAY_BE_EMPTY = {
    "g_per_cup", "volume_source", "temp_c", "composition_note", "remark", "retired", "house", "sugars_g_per_100g",
    *LISTED,
}  # fmt: skip
MOST_ROWS = 2000


class UnreadablePantryError(CoreError):
    """Text that is not a pantry file at all."""

    code = "unreadable-csv"
    title = "That is not a pantry file"


@dataclass(frozen=True, slots=True)
class PantryRow:
    """One row by its line number: the ingredient, or the reason why there is none. ``house``: it is left alone."""

    line: int
    key: str
    ingredient: Ingredient | None
    reason: str
    house: bool = False


def pantry_csv(things: Iterable[Ingredient]) -> str:
    """The pantry as CSV text with a heading; what a house formula is made of is not in it."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for thing in things:
        writer.writerow(
            [
                *(cell(getattr(thing, name)) for name in PLAIN),
                cell("; ".join(f"{p.name} = {p.mass_g:g}" for p in thing.pieces)),
                cell("; ".join(thing.allergens)),
                cell("; ".join(thing.aliases)),
                cell(thing.house is not None),
                *(cell(getattr(thing.composition, name)) for name in COMPOSITION),
            ]
        )
    return out.getvalue()


def read_pantry_csv(text: str) -> list[PantryRow]:
    """Rows of a pantry file, each an ingredient or a reason.

    Raises
    ------
    UnreadablePantryError
        No heading, a heading without ``key`` or with unknown columns, or too many rows.
    """
    heading, rows = table_rows(
        text, columns=COLUMNS, may_be_empty=MAY_BE_EMPTY, most=MOST_ROWS, what="pantry", refused=UnreadablePantryError
    )
    found, seen = [], set[str]()
    for line, cells in rows:
        row = _read_row(line, heading, cells)
        if row.ingredient is not None and row.key in seen:
            row = PantryRow(line, row.key, None, "this key stands in the file twice; the first one counts")
        seen.add(row.key)
        found.append(row)
    return found


def _read_row(line: int, heading: list[str], cells: list[str]) -> PantryRow:
    values = dict(zip(heading, (plain_cell(c) for c in cells), strict=False))
    key = values.get("key", "")[:64]
    if len(cells) != len(heading):
        return PantryRow(line, key, None, f"{len(cells)} cells, but the heading has {len(heading)}")
    try:
        if values.get("house") and truth("house", values["house"]):
            return PantryRow(line, key, None, "a house formula follows from its lines; change it in the pantry", True)
        return PantryRow(line, key, INGREDIENTS.of(plain_texts(_content(values))), "")
    except ValueError as error:
        return PantryRow(line, key, None, reason_of(error))


def _content(values: Mapping[str, str]) -> dict[str, Any]:
    content: dict[str, Any] = {"composition_note": "as imported", "volume_source": "", "remark": ""}
    content |= {"g_per_cup": 0.0, "temp_c": 20.0}
    for name, text in values.items():
        if name in LISTED or name == "house" or (text == "" and name in MAY_BE_EMPTY):
            continue
        if name in NUMBERS:
            content[name] = typed_number(name, text)
        elif name == "retired":
            content[name] = truth(name, text)
        else:
            content[name] = text
    content["composition"] = {name: content.pop(name) for name in COMPOSITION if name in content}
    content["pieces"] = [_piece(part) for part in _listed(values.get("pieces", ""))]
    content["allergens"] = _listed(values.get("allergens", ""))
    content["aliases"] = _listed(values.get("aliases", ""))
    return content


def _listed(text: str) -> list[str]:
    return [part.strip() for part in text.split(";") if part.strip()]


def _piece(text: str) -> dict[str, Any]:
    name, equals, mass = text.rpartition("=")
    if not equals:
        raise ValueError(f"pieces are written as “large egg = 50; small egg = 38”, not “{text[:30]}”")
    return {"name": name.strip(), "mass_g": typed_number("pieces", mass.strip())}
