"""A write that is sent again because its answer was lost is done once."""

from __future__ import annotations

from vianda.storage.answered_repository import Answered
from vianda.storage.answered_repository import once as once_only

__all__ = ["Answered", "once_only"]
