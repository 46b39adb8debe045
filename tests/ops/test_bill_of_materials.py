"""The bill of materials is that of the lock files, and nothing of it says where it was fetched from."""

from __future__ import annotations

import json
import re

import bill_of_materials as bill

# What may be given on with the application; a weak copyleft only where it stays a library of its own.
FREE = re.compile(
    r"MIT|BSD|Apache|ISC|PSF|Python Software Foundation|0BSD|Unlicense|OFL|MPL|LGPL|ZPL|Zope|CC0|HPND|Blue Oak|Zlib"
)
ASIDE = {bill.UNKNOWN}


def _components(name: str) -> list[dict]:
    return json.loads((bill.OUT / f"{name}.cdx.json").read_text())["components"]


def test_every_python_package_of_the_lock_file_stands_in_it_with_its_version() -> None:
    held = {re.sub(r"[-_.]+", "-", c["name"].lower()): c["version"] for c in _components("python")}
    assert held == {re.sub(r"[-_.]+", "-", name): version for name, version in bill.locked().items()}


def test_every_package_that_ships_in_the_pages_stands_in_it() -> None:
    held = {bill.full_name(c): c["version"] for c in _components("pages")}
    assert held == bill.ships()
    assert "svelte" in held


def test_every_licence_lets_it_be_given_on() -> None:
    rows = re.findall(r"^\| (\S+) \| \S+ \| (?:python|pages) \| (.*) \|$", (bill.OUT / "licences.md").read_text(), re.M)
    assert len(rows) > 50
    odd = {name: licence for name, licence in rows if not FREE.search(licence) and licence not in ASIDE}
    assert odd == {}


def test_nothing_says_where_it_was_fetched_from() -> None:
    for path in bill.OUT.iterdir():
        assert not re.search(r"registry\.|files\.python|resolved", path.read_text()), path
