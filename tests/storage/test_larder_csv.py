from __future__ import annotations

import csv
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.inventory.inventory import starter_inventory
from vianda.interchange.larder_csv import COLUMNS, UnreadableCsvError, read_csv, write_csv

TEXT = write_csv(starter_inventory().meats.values())


def _with(line: int, **cells: str) -> str:
    rows = list(csv.reader(io.StringIO(TEXT)))
    for name, value in cells.items():
        rows[line - 1][COLUMNS.index(name)] = value
    out = io.StringIO()
    csv.writer(out, lineterminator="\n").writerows(rows)
    return out.getvalue()


def test_a_larder_comes_back_as_it_was() -> None:
    rows = read_csv(TEXT)
    assert [r.meat for r in rows] == list(starter_inventory().meats.values())


@pytest.mark.parametrize(
    ("cells", "says"),
    [
        ({"fat_usual_frac": "a fifth"}, "fat_usual_frac is a number"),
        ({"fat_usual_frac": "19"}, "fat_usual_frac"),
        ({"fat_usual_frac": "nan"}, "fat_usual_frac"),
        ({"fat_low_frac": "0.3"}, "must rise"),
        ({"species": "unicorn"}, "species"),
        ({"price_per_kg": "-1"}, "price_per_kg"),
        ({"cured": "perhaps"}, "yes or no"),
        ({"key": "Chuck Roast"}, "key"),
        ({"name": "x" * 81}, "name"),
        ({"water_g_per_100g": ""}, "water_g_per_100g"),
    ],
)
def test_a_bad_row_is_refused_with_its_line_and_reason_and_stops_no_other(cells: dict[str, str], says: str) -> None:
    rows = read_csv(_with(4, **cells))
    refused = [r for r in rows if r.meat is None]
    assert [r.line for r in refused] == [4]
    assert says in refused[0].reason
    assert len(rows) == len(starter_inventory().meats)


def test_a_key_twice_counts_once() -> None:
    rows = read_csv(_with(3, key="chuck"))
    assert "twice" in next(r.reason for r in rows if r.line == 3)


@pytest.mark.parametrize("text", ["", "a,b,c\n1,2,3\n", "key\nchuck\n", "\x00", ",".join([*COLUMNS, "colour"]) + "\n"])
def test_what_is_no_larder_file_says_what_the_first_line_lacks(text: str) -> None:
    with pytest.raises(UnreadableCsvError, match=r"columns|breaks off"):
        read_csv(text)


@given(st.text(max_size=300))
def test_no_text_whatever_breaks_the_reader(text: str) -> None:
    try:
        rows = read_csv(",".join(COLUMNS) + "\n" + text)
    except UnreadableCsvError as refused:
        # Only a file that breaks off may be refused whole, and it says so.
        assert "breaks off" in str(refused)
        return
    assert all(r.meat is not None or r.reason for r in rows)


def test_a_cell_that_a_spreadsheet_would_run_is_written_harmless_and_read_back() -> None:
    from dataclasses import replace

    odd = replace(starter_inventory().meat("chuck"), remark="=1+1")
    text = write_csv([odd])
    assert "'=1+1" in text
    assert read_csv(text)[0].meat == odd
