"""Text as it is searched: without case and accents, so that "ragu" finds "Ragù"."""

from __future__ import annotations

import unicodedata


def folded(text: str) -> str:
    """Plain letters of a text, words apart by one space.

    Examples
    --------
    >>> folded("  Supply-boat RAGÙ")
    'supply-boat ragu'
    """
    plain = unicodedata.normalize("NFKD", text.casefold())
    return " ".join("".join(c for c in plain if not unicodedata.combining(c)).split())
