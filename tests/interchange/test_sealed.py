"""Files that only somebody with a key reads: sealed, opened, and refused where key or file is not the one."""

from __future__ import annotations

import json
from pathlib import Path

import pyrage
import pytest

from vianda.cli import main as cli
from vianda.cli.answers import Code
from vianda.interchange.sealed import SealedError, is_sealed, new_key, opened, seal


@pytest.fixture
def key(tmp_path: Path) -> tuple[Path, str]:
    path = tmp_path / "kitchen.key"
    return path, new_key(path)


def _file(tmp_path: Path, size: int = 200_000) -> Path:
    path = tmp_path / "vianda-20261204-030000.sql.gz"
    path.write_bytes(bytes(range(256)) * (size // 256))
    return path


def test_what_is_sealed_is_opened_by_its_key_and_says_nothing_before(tmp_path: Path, key) -> None:
    path = _file(tmp_path)
    before = path.read_bytes()
    sealed = seal(path, [key[1]])
    assert sealed.name == "vianda-20261204-030000.sql.gz.age"
    assert not path.exists()
    assert is_sealed(sealed)
    assert before[:64] not in sealed.read_bytes()
    with opened(sealed, key[0]) as plain:
        assert plain.read_bytes() == before
        assert plain.name == path.name
        place = plain
    # It was there only for as long as it was needed.
    assert not place.exists()


def test_another_reader_opens_it_too(tmp_path: Path, key) -> None:
    path = _file(tmp_path)
    before = path.read_bytes()
    sealed = seal(path, [key[1]])
    line = next(x for x in key[0].read_text().splitlines() if x.startswith("AGE-SECRET-KEY-"))
    assert pyrage.decrypt(sealed.read_bytes(), [pyrage.x25519.Identity.from_str(line)]) == before


def test_each_of_several_recipients_opens_it_and_nobody_else(tmp_path: Path, key) -> None:
    second, third = tmp_path / "second.key", tmp_path / "third.key"
    recipient = new_key(second)
    new_key(third)
    sealed = seal(_file(tmp_path), [key[1], recipient])
    for one in (key[0], second):
        with opened(sealed, one) as plain:
            assert plain.stat().st_size > 0
    with pytest.raises(SealedError, match="another key"), opened(sealed, third):
        pass
    with pytest.raises(SealedError, match="--key"), opened(sealed, None):
        pass


@pytest.mark.parametrize("change", [lambda b: b[:-1], lambda b: b[: len(b) // 2], lambda b: b[:-9] + b"x" + b[-8:]])
def test_a_sealed_file_that_was_changed_is_refused(tmp_path: Path, key, change) -> None:
    sealed = seal(_file(tmp_path), [key[1]])
    sealed.write_bytes(change(sealed.read_bytes()))
    with pytest.raises(SealedError), opened(sealed, key[0]):
        pass


def test_a_key_is_its_owners_alone_and_never_written_over(tmp_path: Path, key) -> None:
    assert key[0].stat().st_mode & 0o077 == 0
    with pytest.raises(FileExistsError):
        new_key(key[0])
    with pytest.raises(SealedError, match="no recipient"):
        seal(_file(tmp_path), ["age1nothing"])
    assert _file(tmp_path).exists()
    nothing = tmp_path / "nothing.key"
    nothing.write_text("# a remark\n")
    sealed = seal(_file(tmp_path), [key[1]])
    with pytest.raises(SealedError, match="holds no key"), opened(sealed, nothing):
        pass


def test_what_is_not_sealed_is_itself(tmp_path: Path) -> None:
    path = _file(tmp_path)
    with opened(path, None) as plain:
        assert plain == path


def test_a_sealed_backup_is_made_checked_and_rotated_by_the_command_line(
    database, mariadb, tmp_path: Path, key, capsys, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("VIANDA_DATABASE_URL", mariadb.url)
    folder = tmp_path / "backups"
    assert cli.main(["backup", str(folder), "--encrypt-to", key[1], "--rotate"]) == Code.DONE
    made = Path(json.loads(capsys.readouterr().out)["backup"])
    assert made.name.endswith(".sql.gz.age")
    assert [path.name for path in folder.iterdir()] == [made.name]
    assert cli.main(["check-backup", str(made)]) == Code.REFUSED
    assert "--key" in capsys.readouterr().err
    assert cli.main(["check-backup", str(made), "--key", str(key[0])]) == Code.DONE
    # Those of the environment, where nothing is said: what ./start makes is sealed too.
    monkeypatch.setenv("VIANDA_BACKUP_RECIPIENTS", key[1])
    capsys.readouterr()
    assert cli.main(["backup", str(tmp_path / "other"), "--no-check"]) == Code.DONE
    assert json.loads(capsys.readouterr().out)["backup"].endswith(".age")


def test_a_sealed_kitchen_goes_out_and_comes_in(
    client, mariadb, tmp_path: Path, key, capsys, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("VIANDA_DATABASE_URL", mariadb.url)
    out = tmp_path / "yard.vianda.zip"
    assert cli.main(["export", "kitchen", "-o", str(out), "--encrypt-to", key[1]]) == Code.DONE
    sealed = json.loads(capsys.readouterr().out)["archive"]
    assert sealed.endswith(".age")
    assert cli.main(["import", sealed, "--look"]) == Code.REFUSED
    assert cli.main(["import", sealed, "--look", "--key", str(key[0])]) == Code.DONE
    assert cli.main(["key", str(key[0])]) == Code.REFUSED
