"""Every example in a docstring of the core runs and gives what it says."""

from __future__ import annotations

import doctest
import importlib
import pkgutil

import pytest

import vianda.core
import vianda.devices


def _modules() -> list[str]:
    return [
        module.name
        for package in (vianda.core, vianda.devices)
        for module in pkgutil.walk_packages(package.__path__, f"{package.__name__}.")
        if not module.ispkg
    ]


@pytest.mark.parametrize("name", _modules())
def test_the_examples_hold(name: str) -> None:
    failed, _ = doctest.testmod(importlib.import_module(name))
    assert failed == 0
