"""Files that only somebody with a key reads: backups and archives, sealed as age files (an open format).

Without us: ``age --decrypt --identity KEY FILE``. The key that opens is never on the machine that seals.
"""

from __future__ import annotations

import os
import tempfile
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path

import pyrage

from vianda.core.basis.errors import CoreError

ENDING = ".age"
_HEAD = b"age-encryption.org/v1"


class SealedError(CoreError):
    """A key that is none or does not fit, or a file that was changed."""

    code = "sealed"
    title = "That file cannot be opened"


def new_key(path: Path) -> str:
    """Write a new key for its owner alone; the recipient that seals for it."""
    identity = pyrage.x25519.Identity.generate()
    recipient = str(identity.to_public())
    # Never over another: what was sealed for it could not be opened any more.
    descriptor = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
    with os.fdopen(descriptor, "w", encoding="ascii") as file:
        file.write(f"# recipient: {recipient}\n{identity}\n")
    return recipient


def is_sealed(path: Path) -> bool:
    """Whether a file is sealed."""
    try:
        with path.open("rb") as file:
            return file.read(len(_HEAD)) == _HEAD
    except OSError:
        # Who reads it says that it is not there.
        return False


def seal(path: Path, recipients: Sequence[str]) -> Path:
    """Put a sealed file in the place of an open one; its path."""
    held = [_recipient(text) for text in recipients]
    sealed = path.with_name(path.name + ENDING)
    part = path.with_name(f".half-{path.name}{ENDING}")
    try:
        with path.open("rb") as plain, part.open("wb") as out:
            pyrage.encrypt_io(plain, out, held)
        part.replace(sealed)
    finally:
        part.unlink(missing_ok=True)
    path.unlink()
    return sealed


@contextmanager
def opened(path: Path, key: Path | None) -> Iterator[Path]:
    """The file as it was before it was sealed, for as long as it is needed; an open one is itself.

    Raises
    ------
    SealedError
        It is sealed and there is no key, the key does not fit, or it was changed.
    """
    if not is_sealed(path):
        yield path
        return
    if key is None:
        raise SealedError(f"{path.name} is sealed: name the key that opens it with --key.")
    identities = _identities(key)
    with tempfile.TemporaryDirectory(prefix="vianda-opened-") as folder:
        plain = Path(folder) / path.name.removesuffix(ENDING)
        try:
            with path.open("rb") as sealed, plain.open("wb") as out:
                pyrage.decrypt_io(sealed, out, identities)
        except (pyrage.DecryptError, OSError) as error:
            raise SealedError(f"{path.name} was sealed for another key, or was changed ({error}).") from None
        yield plain


def _recipient(text: str) -> pyrage.x25519.Recipient:
    try:
        return pyrage.x25519.Recipient.from_str(text.strip())
    except pyrage.RecipientError:
        raise SealedError(f"“{text[:20]}” is no recipient; it begins with age1.") from None


def _identities(key: Path) -> list[pyrage.x25519.Identity]:
    try:
        lines = [line.strip() for line in key.read_text(encoding="ascii").splitlines()]
        found = [pyrage.x25519.Identity.from_str(line) for line in lines if line and not line.startswith("#")]
    except (OSError, UnicodeDecodeError, pyrage.IdentityError):
        found = []
    if not found:
        raise SealedError(f"{key} holds no key.")
    return found
