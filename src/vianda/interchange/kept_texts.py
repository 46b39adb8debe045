"""The texts of a JSON value as they are kept, wherever they stand in it."""

from __future__ import annotations

from typing import Any

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.seen_text import mixed_word, scripts_of, seen_text, told_scripts

# What a thing or a person is found by: a word in it that mixes scripts passes for another.
_FOUND_BY = frozenset({"name", "title", "aliases", "who"})


def plain_texts(value: Any, *, where: str = "", refusing: bool = True) -> Any:
    """A JSON value with its texts as they are kept (`vianda.core.basis.seen_text`).

    Parameters
    ----------
    value
        What ``json.loads`` gives.
    where
        The JSON pointer to it.
    refusing
        Whether a name that passes for another is refused. What was once kept comes back as it was.

    Raises
    ------
    OutOfRangeError
        A name holds a word whose letters are of scripts that are taken for one another; with the pointer to it.

    Examples
    --------
    >>> plain_texts({"name": "chu\\u200bck", "shares": [1.0]})
    {'name': 'chuck', 'shares': [1.0]}
    """
    return _plain(value, where, _FOUND_BY if refusing else frozenset(), found_by=False)


def _plain(value: Any, where: str, names: frozenset[str], *, found_by: bool) -> Any:
    if isinstance(value, str):
        text = seen_text(value)
        if found_by and (word := mixed_word(text)):
            raise OutOfRangeError(
                f"“{word}” mixes {told_scripts(scripts_of(word))} letters that look alike; write the word in one "
                "script.",
                field=where,
            )
        return text
    if isinstance(value, list):
        return [_plain(inner, f"{where}/{place}", names, found_by=found_by) for place, inner in enumerate(value)]
    if isinstance(value, dict):
        return {
            key: _plain(inner, f"{where}/{_pointed(key)}", names, found_by=key in names) for key, inner in value.items()
        }
    return value


def _pointed(key: str) -> str:
    return key.replace("~", "~0").replace("/", "~1")
