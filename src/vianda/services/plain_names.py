"""Names of people as they are kept: no signs that cannot be seen, none that make one name look like another."""

from __future__ import annotations

import unicodedata

from vianda.core.basis.errors import OutOfRangeError

# Scripts that are taken for one another: a name is written in one of them.
ALIKE = ("LATIN", "GREEK", "CYRILLIC")


def plain_name(name: str, *, longest: int, field: str) -> str:
    """A name without what cannot be seen, spaces joined.

    Raises
    ------
    OutOfRangeError
        Nothing is left, it is too long, or it mixes scripts whose letters are taken for one another.

    Examples
    --------
    >>> plain_name("  Ines\\u200b  Holm ", longest=40, field="/name")
    'Ines Holm'
    """
    composed = unicodedata.normalize("NFC", name)
    seen = "".join(" " if sign.isspace() else sign for sign in composed if sign.isspace() or _is_seen(sign))
    plain = " ".join(seen.split())
    if not plain:
        raise OutOfRangeError("A name has at least one letter.", field=field)
    if len(plain) > longest:
        raise OutOfRangeError(f"A name has at most {longest} signs.", field=field)
    scripts = {script for sign in plain for script in ALIKE if unicodedata.name(sign, "").startswith(script)}
    if len(scripts) > 1:
        told = " and ".join(script.capitalize() for script in ALIKE if script in scripts)
        raise OutOfRangeError(f"That name mixes {told} letters that look alike; write it in one script.", field=field)
    return plain


def _is_seen(sign: str) -> bool:
    return unicodedata.category(sign) not in ("Cc", "Cf", "Co", "Cn", "Cs")
