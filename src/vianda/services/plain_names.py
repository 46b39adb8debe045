"""Names of people as they are kept: no signs that cannot be seen, none that make one name look like another."""

from __future__ import annotations

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.seen_text import scripts_of, seen_text, told_scripts


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
    plain = " ".join(seen_text(name).split())
    if not plain:
        raise OutOfRangeError("A name has at least one letter.", field=field)
    if len(plain) > longest:
        raise OutOfRangeError(f"A name has at most {longest} signs.", field=field)
    scripts = scripts_of(plain)
    if len(scripts) > 1:
        told = told_scripts(scripts)
        raise OutOfRangeError(f"That name mixes {told} letters that look alike; write it in one script.", field=field)
    return plain
