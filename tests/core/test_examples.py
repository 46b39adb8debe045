"""Every example in a docstring of the core runs and gives what it says."""

from __future__ import annotations

import doctest
import importlib
import pkgutil

import pytest

import vianda.core


def _modules() -> list[str]:
    return [m.name for m in pkgutil.walk_packages(vianda.core.__path__, "vianda.core.") if not m.ispkg]


@pytest.mark.parametrize("name", _modules())
def test_the_examples_hold(name: str) -> None:
    failed, _ = doctest.testmod(importlib.import_module(name))
    assert failed == 0
