"""The figures of sixty-odd formulas as they were before the core was laid out in rooms: none may have changed.

Twenty-four of them were kept anew when gaps to the floor, holds and the pull were mended, and all when what comes in at
the heat was counted: what a guest gets, and the cost and allergens of six. The changelog says what changed. A number is
equal to nine digits. Words may be put more plainly, so of text only keys and choices are compared.
"""

from __future__ import annotations

import gzip
import json
import math
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

from golden.golden_now import NOW, TEXT, renamed

KEPT = json.loads(gzip.decompress((Path(__file__).parent / "golden.json.gz").read_bytes()))


def differences(was: Any, now: Any, at: str = "") -> Iterator[str]:
    """Where two answers differ, each as a line."""
    if isinstance(was, dict):
        if not isinstance(now, dict):
            yield f"{at}: {was!r:.80} is now {now!r:.80}"
            return
        for key in was.keys() - now.keys():
            yield f"{at}/{key} is gone"
        for key in was.keys() & now.keys():
            yield from differences(was[key], now[key], f"{at}/{key}")
    elif isinstance(was, list):
        if not isinstance(now, list) or len(was) != len(now):
            yield f"{at}: {was!r:.200} is now {now!r:.200}"
            return
        for n, (one, other) in enumerate(zip(was, now, strict=True)):
            yield from differences(one, other, f"{at}/{n}")
    elif isinstance(was, bool) or was is None:
        if was != now:
            yield f"{at}: {was} is now {now}"
    elif isinstance(was, int | float):
        if not isinstance(now, int | float) or not math.isclose(was, now, rel_tol=1e-9, abs_tol=1e-9):
            yield f"{at}: {was} is now {now}"
    elif at.rsplit("/", 1)[-1] not in TEXT and was != now and " " not in was:
        yield f"{at}: {was!r} is now {now!r}"


@pytest.mark.parametrize("part", sorted(NOW))
def test_no_figure_has_changed(part: str) -> None:
    found = [
        f"{name}{line}"
        for name, answer in NOW[part](KEPT)
        for line in differences(renamed(part, KEPT[part][name]), answer)
    ]
    assert not found, f"{len(found)} differences:\n" + "\n".join(found[:40])
