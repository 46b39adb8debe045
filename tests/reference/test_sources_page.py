"""The page of sources tells the truth about what is read by machine: the test is there, and it reads something."""

from __future__ import annotations

from pathlib import Path

import pytest

PROJECT = Path(__file__).parents[2]
# What a test reads published figures from: the food database and the libraries of reference.
READS = ("sr28_rows", "CoolProp", "from ht", "import pint", "scipy")


def _rows() -> list[list[str]]:
    lines = (PROJECT / "docs" / "sources.md").read_text(encoding="utf-8").splitlines()
    rows = [[cell.strip() for cell in line.strip("|").split("|")] for line in lines if line.startswith("|")]
    assert rows[0][-1] == "read by machine in"
    return rows[2:]


MACHINE_READ = [row for row in _rows() if row[-1]]


def test_every_row_has_its_five_cells_and_stands_once() -> None:
    assert all(len(row) == 5 for row in _rows())
    assert all(row[0] and row[1] for row in _rows())
    names = [row[0] for row in _rows()]
    assert len(set(names)) == len(names)


def test_forty_rows_rest_on_something_published_that_a_test_reads() -> None:
    assert len(MACHINE_READ) >= 40


@pytest.mark.parametrize("row", MACHINE_READ, ids=[row[0][:50] for row in MACHINE_READ])
def test_the_test_a_row_names_reads_a_dataset_or_a_library(row: list[str]) -> None:
    file = PROJECT / row[-1].strip("`")
    text = file.read_text(encoding="utf-8")
    assert any(word in text for word in READS), file
    assert "def test_" in text
