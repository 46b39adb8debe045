"""What the database took back for another one's sake is done again."""

from __future__ import annotations

import random
import time
from collections.abc import Callable
from typing import TypeVar

from vianda.storage.database import was_taken_back

Done = TypeVar("Done")
# Told each time, for whoever counts.
AGAIN: list[Callable[[], None]] = []
# Each time a little longer, s, and never in step with who was in the way.
WAITS_S = (0.01, 0.03, 0.1, 0.3, 0.6, 1.0)


def done_again(work: Callable[[], Done]) -> Done:
    """Do the work; where its transaction was taken back, nothing of it stands, and it is done again."""
    for wait_s in WAITS_S:
        try:
            return work()
        except Exception as error:
            if not was_taken_back(error):
                raise
            for told in AGAIN:
                told()
        time.sleep(wait_s * random.uniform(0.5, 1.5))
    return work()
