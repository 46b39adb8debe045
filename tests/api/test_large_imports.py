"""A large larder file is taken in with few questions to the database; and nothing of it runs in a table program."""

from __future__ import annotations

import csv
import io
from copy import copy

import pytest

from vianda.interchange.larder_csv import COLUMNS
from vianda.storage.database import proxy


def _file(client, rows: int, *, start: int = 0, **changed: str) -> str:
    """The larder's first meat so many times, each under a key and a name of its own."""
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS)
    writer.writeheader()
    first = next(csv.DictReader(io.StringIO(client.get("/api/larder/file.csv").get_data(as_text=True))))
    for n in range(start, start + rows):
        writer.writerow({**first, "key": f"many-{n}", "name": f"Cut number {n} of many", **changed})
    return out.getvalue()


def _asked(client, text: str, monkeypatch: pytest.MonkeyPatch) -> tuple[int, list[str]]:
    count = []
    real = proxy.obj.execute_sql
    with monkeypatch.context() as patched:
        patched.setattr(proxy.obj, "execute_sql", lambda *a, **k: (count.append(1), real(*a, **k))[1])
        answer = client.post("/api/larder/file", json={"text": text})
    assert answer.status_code == 200, answer.get_json()
    return len(count), [row["outcome"] for row in answer.get_json()["rows"]]


def test_ten_times_the_rows_are_not_ten_times_the_questions(client, monkeypatch) -> None:
    few, first = _asked(client, _file(client, 40), monkeypatch)
    many, then = _asked(client, _file(client, 400, start=1000), monkeypatch)
    assert (set(first), set(then)) == ({"added"}, {"added"})
    assert many <= few + 3
    meats = {m["key"]: m for m in client.get("/api/larder").get_json()["meats"]}
    assert meats["many-1399"]["name"] == "Cut number 1399 of many"
    # Corrected they cost a statement each, and no more.
    again, outcomes = _asked(client, _file(client, 40, trim_loss_frac="0.31"), monkeypatch)
    assert (set(outcomes), again <= few + 45) == ({"corrected"}, True)
    assert _asked(client, _file(client, 40, trim_loss_frac="0.31"), monkeypatch)[1] == ["unchanged"] * 40


def test_two_rows_that_are_called_alike_are_not_both_taken(client, monkeypatch) -> None:
    text = _file(client, 3, name="Same cut")
    _, outcomes = _asked(client, text, monkeypatch)
    assert outcomes == ["added", "refused", "refused"]


@pytest.mark.parametrize("beginning", ["=", "+", "-", "@", "\r", "\t", "\n"])
def test_what_a_table_program_would_run_is_text_in_every_file(beginning: str) -> None:
    from vianda.core.inventory.inventory import starter_inventory
    from vianda.interchange.larder_csv import write_csv
    from vianda.interchange.supply_csv import plain_text

    said = f"{beginning}cmd|' /C calc'!A0"
    assert plain_text(said) == f"'{said}"
    # A copy, since the starter larder is shared, and set so, since no meat is made of such a text.
    meat = copy(starter_inventory().meats["chuck"])
    object.__setattr__(meat, "remark", said)
    row = next(csv.DictReader(io.StringIO(write_csv([meat]), newline="")))
    assert row["remark"] == f"'{said}"
