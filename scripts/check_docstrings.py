"""Whether every public function of the core says what it takes, with its unit, and what it gives.

The rules are numpydoc's own (GL08 a docstring, SS03 its summary ends in a full stop, PR01, PR02 and PR04 its parameters
with their types, RT01 and RT03 what it returns), and one of ours: the description of a number names its unit.
"""

from __future__ import annotations

import importlib
import inspect
import pkgutil
import re
import sys
import warnings
from collections.abc import Callable, Iterator
from typing import Any

from numpydoc.docscrape import get_doc_object
from numpydoc.validate import Validator, validate

import vianda.core

CODES = ("GL08", "SS03", "PR01", "PR02", "PR04", "RT01", "RT03")
NUMBERS = re.compile(r"^(float|int)\b")
# What names a unit: symbols, and "count", "0–1" and "no unit" for what has none.
UNIT = re.compile(
    r"\b(g|kg|mg|ml|l|mm|m|s|h|min|J|W|K|Pa|kcal|ppm)\b|°C|°F|m²|0–1|0–5|\(count\)|\(no unit\)|per cent|currency|"
    r"\b(unit|minutes|hours|days|grams|about 1|fraction|share|ratio|parts|number of|how many|times)\b",
    re.IGNORECASE,
)


def public_functions() -> Iterator[tuple[str, Callable[..., Any]]]:
    """Every function and method of the core that others may call, with its full name."""
    for found in pkgutil.walk_packages(vianda.core.__path__, "vianda.core."):
        module = importlib.import_module(found.name)
        for name, thing in vars(module).items():
            if name.startswith("_") or getattr(thing, "__module__", None) != module.__name__:
                continue
            if inspect.isfunction(thing):
                yield f"{module.__name__}.{name}", thing
            elif inspect.isclass(thing):
                for inner, method in vars(thing).items():
                    if not inner.startswith("_") and inspect.isfunction(method):
                        yield f"{module.__name__}.{name}.{inner}", method


def findings(name: str, function: Callable[..., Any]) -> list[str]:
    """What is wrong with one docstring; nothing when all is well."""
    said = [f"{code} {text}" for code, text in validate(name)["errors"] if code in CODES]
    documented = Validator(get_doc_object(function)).doc_all_parameters
    for parameter, (kind, description) in documented.items():
        if NUMBERS.match(kind) and not UNIT.search(" ".join(description)):
            said.append(f"unit of {parameter} is not named: {' '.join(description)!r}")
    # A generator yields; that it also returns is an affair of its annotation.
    if inspect.isgeneratorfunction(function):
        said = [line for line in said if not line.startswith(("RT01", "RT03"))]
    return said


def main() -> int:
    """Print what is missing; the exit code tells whether anything is."""
    warnings.simplefilter("ignore")
    bad = 0
    functions = list(public_functions())
    for name, function in functions:
        for line in findings(name, function):
            print(f"{name}: {line}")
            bad += 1
    print(f"{len(functions)} public functions of the core, {bad} findings")
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
