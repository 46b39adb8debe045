"""``vianda …`` as a cook or a script calls it."""

from __future__ import annotations

import io
import json
import subprocess
import sys
from pathlib import Path

import pytest

from vianda.cli import main as cli
from vianda.core.demo.formulas import slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.inventory.inventory import starter_inventory
from vianda.interchange.formula_file import FormulaBundle, write_file


@pytest.fixture
def file(tmp_path: Path) -> Path:
    path = tmp_path / "slipway-smash.vianda.json"
    path.write_text(json.dumps(write_file(FormulaBundle(slipway_smash(), starter_inventory(), yard_galley()))))
    return path


def test_a_file_is_evaluated_to_json(file: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert cli.main(["evaluate", str(file)]) == 0
    printed = json.loads(capsys.readouterr().out)
    assert printed["portions"]["batch_mass_g"] == 3400
    assert printed["workings"]["cost"]["source"]


def test_a_file_comes_through_a_pipe(file: Path, capsys, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("sys.stdin", io.StringIO(file.read_text()))
    assert cli.main(["evaluate", "-"]) == 0
    assert json.loads(capsys.readouterr().out)["blend"]["parts"]


@pytest.mark.parametrize(
    ("content", "code", "says"),
    [
        ("not json", 1, "not JSON"),
        ('{"format": "other"}', 1, "does not say that it is"),
        ('{"format": "vianda-formula", "version": 99}', 1, "Update Vianda"),
        ("x" * 5_000_001, 2, "larger than 5 MB"),
    ],
)
def test_a_bad_file_gets_one_plain_line(tmp_path: Path, capsys, content: str, code: int, says: str) -> None:
    path = tmp_path / "bad.json"
    path.write_text(content)
    assert cli.main(["evaluate", str(path)]) == code
    captured = capsys.readouterr()
    assert captured.out == ""
    assert says in captured.err
    assert len(captured.err.strip().splitlines()) == 1


def test_a_file_that_is_not_there_or_not_text_is_said(tmp_path: Path, capsys) -> None:
    assert cli.main(["evaluate", str(tmp_path / "nothing.json")]) == 2
    assert "cannot read" in capsys.readouterr().err
    binary = tmp_path / "bytes.json"
    binary.write_bytes(b"\xff\xfe\x00")
    assert cli.main(["evaluate", str(binary)]) == 2
    assert "cannot read" in capsys.readouterr().err


def test_a_formula_that_cannot_be_is_refused_with_its_place(file: Path, capsys) -> None:
    content = json.loads(file.read_text())
    content["formula"]["heat"]["target_core_temp_c"] = 20.0
    file.write_text(json.dumps(content))
    assert cli.main(["evaluate", str(file)]) == 1
    assert "(/heat/target_core_temp_c)" in capsys.readouterr().err


def test_the_generated_documents_are_printed(capsys) -> None:
    assert cli.main(["openapi"]) == 0
    assert json.loads(capsys.readouterr().out)["openapi"].startswith("3.1")
    assert cli.main(["schema"]) == 0
    assert "lots" in json.loads(capsys.readouterr().out)["required"]


def test_prepare_wants_an_address_it_can_read(capsys, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("VIANDA_DATABASE_URL", "postgres://x")
    assert cli.main(["prepare"]) == 2
    assert "must look like mysql://" in capsys.readouterr().err


def test_a_process_of_its_own_says_the_same(file: Path, capsys: pytest.CaptureFixture[str]) -> None:
    cli.main(["evaluate", str(file)])
    here = capsys.readouterr().out
    command = [str(Path(sys.executable).parent / "vianda"), "evaluate", str(file)]
    done = subprocess.run(command, capture_output=True, text=True, check=True)
    assert done.stdout == here
