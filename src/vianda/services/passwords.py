"""Passwords and PINs: which are good enough, and how they are kept (argon2id, by argon2-cffi)."""

from __future__ import annotations

import threading
from itertools import pairwise

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError, VerifyMismatchError
from zxcvbn import zxcvbn

from vianda.core.basis.errors import OutOfRangeError

# OWASP ASVS 4.0.3, 2.1.1 and 2.1.2: at least 12 signs, 64 allowed, none above 128.
LEAST, MOST = 12, 128
# Strength by zxcvbn (0 to 4): 3 withstands some 10^8 guesses.
LEAST_SCORE, LONGEST_JUDGED = 3, 72
PIN_LEAST, PIN_MOST = 4, 8

# RFC 9106's second recommendation (64 MiB, 3 passes, 4 lanes), which is the package's own.
_HASHER = PasswordHasher()
# Each takes 64 MiB: so many at once.
_some = threading.BoundedSemaphore(2)
# What an unknown name is checked against, so that it takes as long as a known one.
_NOBODY = _HASHER.hash("nobody has this password")


def check_password(password: str, *, name: str, field: str = "/password") -> None:
    """Refuse a password that is short, long, or soon guessed; what it says helps to find a better one."""
    if len(password) < LEAST:
        raise OutOfRangeError(f"A password has at least {LEAST} signs; a few words in a row will do.", field=field)
    if len(password) > MOST:
        raise OutOfRangeError(f"A password has at most {MOST} signs.", field=field)
    judged = zxcvbn(password[:LONGEST_JUDGED], user_inputs=[name, *name.split(), "vianda", "kitchen"])
    if judged["score"] < LEAST_SCORE:
        why = judged["feedback"]["warning"] or "It is among those that are tried first"
        raise OutOfRangeError(
            f"That password is soon guessed: {why.rstrip('.')}. Take a few unrelated words.", field=field
        )


def check_pin(pin: str, *, field: str = "/pin") -> None:
    """Refuse a PIN that is none, or one of a kind that is tried first."""
    if not (pin.isascii() and pin.isdigit() and PIN_LEAST <= len(pin) <= PIN_MOST):
        raise OutOfRangeError(f"A PIN has {PIN_LEAST} to {PIN_MOST} digits.", field=field)
    steps = {int(b) - int(a) for a, b in pairwise(pin)}
    if steps in ({0}, {1}, {-1}):
        raise OutOfRangeError("That PIN is tried first: take digits that are neither equal nor in a row.", field=field)


def hashed(secret: str) -> str:
    """What is kept of a password or a PIN."""
    with _some:
        return _HASHER.hash(secret)


def fits(secret: str, kept: str) -> bool:
    """Whether it is the one that was kept; takes as long where nothing was."""
    with _some:
        try:
            return bool(_HASHER.verify(kept or _NOBODY, secret)) and kept != ""
        except (VerifyMismatchError, VerificationError, InvalidHashError):
            return False
