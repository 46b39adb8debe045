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
    try:
        return _Texts(_FOUND_BY if refusing else frozenset()).plain(value, found_by=False)
    except _MixedError as mixed:
        pointer = "".join(f"/{_pointed(str(step))}" for step in reversed(mixed.steps))
        raise OutOfRangeError(
            f"“{mixed.word}” mixes {told_scripts(scripts_of(mixed.word))} letters that look alike; write the word in "
            "one script.",
            field=where + pointer,
        ) from None


class _MixedError(Exception):
    """A word that passes for another, and the steps to it from within."""

    def __init__(self, word: str) -> None:
        super().__init__(word)
        self.word, self.steps = word, list[str | int]()


class _Texts:
    """The texts of one value: an archive says the same ones thousands of times, and each is looked at once."""

    def __init__(self, names: frozenset[str]) -> None:
        self._names = names
        self._seen: dict[str, str] = {}

    def plain(self, value: Any, *, found_by: bool) -> Any:
        if isinstance(value, str):
            return self._text(value, found_by=found_by)
        if isinstance(value, list):
            return [self._inner(inner, place, found_by) for place, inner in enumerate(value)]
        if isinstance(value, dict):
            return {key: self._inner(inner, key, key in self._names) for key, inner in value.items()}
        return value

    def _inner(self, inner: Any, step: str | int, found_by: bool) -> Any:
        # Most of what a plan holds are numbers.
        if not isinstance(inner, (str, list, dict)):
            return inner
        try:
            return self.plain(inner, found_by=found_by)
        except _MixedError as mixed:
            mixed.steps.append(step)
            raise

    def _text(self, value: str, *, found_by: bool) -> str:
        text = self._seen.get(value)
        if text is None:
            text = self._seen[value] = seen_text(value)
        if found_by and (word := mixed_word(text)):
            raise _MixedError(word)
        return text


def _pointed(key: str) -> str:
    return key.replace("~", "~0").replace("/", "~1")
