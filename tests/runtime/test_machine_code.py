"""Where the simulation's machine code is kept, and what happens where nothing can be."""

from __future__ import annotations

import logging
import os
import subprocess
import sys
from pathlib import Path

import pytest

from vianda.runtime import machine_code


def test_a_folder_that_is_not_there_is_made_and_tried(tmp_path: Path) -> None:
    assert machine_code.can_be_kept(tmp_path / "deep" / "down")
    assert list((tmp_path / "deep" / "down").iterdir()) == []


def test_where_nothing_can_be_written_the_process_serves_all_the_same_and_says_so(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    # The tests may run as a user who may write everywhere: a file where a folder should be stops that one too.
    (tmp_path / "taken").write_text("")
    monkeypatch.setattr(machine_code, "KEPT_IN", tmp_path / "taken")
    with caplog.at_level(logging.WARNING, logger="vianda"):
        assert machine_code.keep_on_disk() is None
    assert "VIANDA_MACHINE_CODE names another folder" in caplog.text
    assert machine_code.main() == 1


def test_the_folder_that_is_named_is_used(tmp_path: Path) -> None:
    asks = "from vianda.runtime import machine_code; print(machine_code.keep_on_disk())"
    environment = {**os.environ, "VIANDA_MACHINE_CODE": str(tmp_path)}
    done = subprocess.run([sys.executable, "-c", asks], env=environment, capture_output=True, text=True, check=True)
    assert Path(done.stdout.strip()).parent == tmp_path
