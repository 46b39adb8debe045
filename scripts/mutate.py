"""Change the core one small thing at a time, and say which changes no test notices.

Usage: .venv/bin/python scripts/mutate.py map
       .venv/bin/python scripts/mutate.py run rules|rest [--sample 300] [--seed 1] [--jobs 2] [--most-s 90]

Needs two packages that nothing else does: ``requirements-mutation.txt`` says which, and how to put them beside.
``map`` runs the tests of the core once and writes which test touches which line, and how long it takes
(``.mutation/map.json``). ``run`` draws from what cosmic-ray would change in a group of modules, lets each change into a
process of its own, and runs the tests that touch the changed line, quickest first, until one fails. A change that no
test notices is printed with its line; ``.mutation/<group>.json`` keeps all of them. Not part of ./check: hours of work.
"""

from __future__ import annotations

import argparse
import ast
import functools
import importlib
import importlib.abc
import importlib.machinery
import json
import os
import random
import re
import signal
import sys
import time
from collections import Counter, defaultdict
from pathlib import Path
from typing import Any

PROJECT = Path(__file__).parent.parent
CORE = PROJECT / "src" / "vianda" / "core"
KEPT = PROJECT / ".mutation"
TESTED = ("tests/core", "tests/reference", "tests/golden", "tests/storage/test_formula_file.py")
# Every published limit and safety rule: edges of shares, holds, floors, labels, what comes after the cook.
RULES = (
    "blend/label_names.py",
    "blend/shares.py",
    "counsel/limits.py",
    "heat/after.py",
    "heat/doneness.py",
    "heat/floor.py",
    "heat/holds.py",
    "mix/limits.py",
)
# What only names, words or draws: nothing to compute wrongly. Machine code is compiled anew for each change: too slow.
LEFT_OUT = ("__init__.py", "demo/", "heat/conduction/", "basis/errors.py")
# A decorator that only remembers or compiles changes no answer.
OPERATORS_LEFT_OUT = ("core/RemoveDecorator", "core/NoOp")
FIRST, MOST_TESTS = 12, 120
QUIET = (
    # A module called fat_test is no test: pytest would read it itself, without the change.
    "-o", "python_files=test_*.py",
    "-x", "-q", "-o", "addopts=", "-p", "no:cacheprovider", "-p", "no:playwright", "-p", "no:schemathesis",
    "-W", "ignore::pytest.PytestAssertRewriteWarning",
)  # fmt: skip
# What every process needs and nothing of Vianda: loaded once.
LOADED_ONCE = (
    "CoolProp",
    "flask",
    "hypothesis",
    "numba",
    "numpy",
    "peewee",
    "pint",
    "pydantic",
    "pymysql",
    "scipy.optimize",
)
KILLED, SURVIVED, NO_TEST = "killed", "survived", "no test"


def files_of(group: str) -> list[Path]:
    """The modules of a group, in order."""
    if group == "rules":
        return [CORE / name for name in RULES]
    found = sorted(p for p in CORE.rglob("*.py") if str(p.relative_to(CORE)) not in RULES)
    return [p for p in found if not any(part in str(p.relative_to(CORE)) for part in LEFT_OUT)]


def annotated(source: str) -> set[int]:
    """Characters, as line × 1000 + column, of annotations, which are never evaluated, and of a class's decorators:
    whether a dataclass has slots changes no answer."""
    found: set[int] = set()
    for node in ast.walk(ast.parse(source)):
        decorators = node.decorator_list if isinstance(node, ast.ClassDef) else []
        for note in (getattr(node, "annotation", None), getattr(node, "returns", None), *decorators):
            if not isinstance(note, ast.expr):
                continue
            for line in range(note.lineno, (note.end_lineno or note.lineno) + 1):
                first = note.col_offset if line == note.lineno else 0
                last = (note.end_col_offset or 999) if line == note.end_lineno else 999
                found.update(line * 1000 + column for column in range(first, last))
    return found


def changes_in(path: Path) -> list[dict[str, Any]]:
    """All that cosmic-ray would change in a module."""
    import cosmic_ray.plugins
    from cosmic_ray.ast import ast_nodes, get_ast

    source = path.read_text(encoding="utf-8")
    tree, never = get_ast(source), annotated(source)
    found = []
    for name in cosmic_ray.plugins.operator_names():
        operator_class = cosmic_ray.plugins.get_operator(name)
        # Words and small numbers are the same objects in CPython: identity for equality changes no answer.
        if name in OPERATORS_LEFT_OUT or name.endswith(("_Is", "_IsNot")) or operator_class.arguments():
            continue
        operator = operator_class()
        places = [place for node in ast_nodes(tree) for place in operator.mutation_positions(node)]
        for occurrence, (start, _) in enumerate(places):
            if start[0] * 1000 + start[1] not in never:
                found.append(
                    {"file": str(path.relative_to(PROJECT)), "operator": name, "nth": occurrence, "line": start[0]}
                )
    return found


def changed(change: dict[str, Any]) -> str | None:
    """The module's source with the change, or None where there is none."""
    import cosmic_ray.plugins
    from cosmic_ray.mutating import mutate_code

    source = (PROJECT / change["file"]).read_text(encoding="utf-8")
    operator = cosmic_ray.plugins.get_operator(change["operator"])()
    found: str | None = mutate_code(source, operator, change["nth"])
    return None if found == source else found


def write_map() -> int:
    """Run the tests once, noting what each touches."""
    import coverage
    import pytest

    KEPT.mkdir(exist_ok=True)
    config = KEPT / "coverage.ini"
    config.write_text(f"[run]\ndynamic_context = test_function\nsource = {CORE}\ndata_file = {KEPT / 'coverage'}\n")
    times: dict[str, float] = defaultdict(float)

    modules = [importlib.import_module(f"vianda.core.{n.removesuffix('.py').replace('/', '.')}") for n in RULES]
    remembering = [f for m in modules for f in vars(m).values() if isinstance(f, functools._lru_cache_wrapper)]

    class Clock:
        def pytest_runtest_setup(self, item: Any) -> None:
            # What is remembered would be noted for the first test alone that asks for it. Of the other modules that is
            # borne: to read every list anew for each test takes hours.
            for remembered in remembering:
                remembered.cache_clear()

        def pytest_runtest_logreport(self, report: Any) -> None:
            times[report.nodeid.split("[")[0]] += report.duration

    watched = coverage.Coverage(config_file=str(config))
    watched.start()
    ended = pytest.main(["-q", "-p", "no:cacheprovider", *TESTED], plugins=[Clock()])
    watched.stop()
    data = watched.get_data()
    names = {f"{Path(n.split('::')[0]).stem}.{n.split('::')[-1]}": n for n in times}
    lines: dict[str, dict[int, list[str]]] = {}
    for file in data.measured_files():
        per_line = {
            line: sorted({names[key] for c in contexts if (key := ".".join(c.split(".")[-2:])) in names})
            for line, contexts in data.contexts_by_lineno(file).items()
        }
        lines[str(Path(file).relative_to(PROJECT))] = per_line
    (KEPT / "map.json").write_text(json.dumps({"times": times, "lines": lines}))
    return int(ended)


class Changed(importlib.abc.MetaPathFinder, importlib.abc.Loader):
    """Gives one module its changed source, wherever it is imported from first."""

    def __init__(self, change: dict[str, Any], source: str) -> None:
        self.file = str(PROJECT / change["file"])
        self.name = change["file"].removeprefix("src/").removesuffix(".py").replace("/", ".")
        self.source = source

    def find_spec(self, fullname: str, path: Any, target: Any = None) -> importlib.machinery.ModuleSpec | None:
        if fullname != self.name:
            return None
        spec = importlib.machinery.ModuleSpec(fullname, self, origin=self.file)
        spec.has_location = True
        return spec

    def exec_module(self, module: Any) -> None:
        exec(compile(self.source, self.file, "exec", dont_inherit=True), module.__dict__)


def tests_for(change: dict[str, Any], known: dict[str, Any], most_s: float) -> list[str]:
    """The tests that touch its line, or for what stands outside functions any of its lines; likeliest first."""
    lines = known["lines"].get(change["file"], {})
    source = (PROJECT / change["file"]).read_text(encoding="utf-8")
    # A statement of several lines is noted at its first.
    touched = {t for n in _around(source, change["line"]) for t in lines.get(str(n), ())}
    if not touched:
        names = _named_at(source, change["line"])
        touched = _touching_names(names, known) or {t for tests in lines.values() for t in tests}
    # What touches little besides is likeliest to be about it.
    ordered = sorted(touched, key=lambda t: known["breadth"].get(t, 0) * (0.2 + known["times"].get(t, 0.0)))
    golden = [t for t in ordered if "golden" in t]
    chosen: list[str] = []
    spent = 0.0
    for test in ordered:
        spent += known["times"].get(test, 0.0)
        if spent > most_s or len(chosen) == MOST_TESTS:
            break
        chosen.append(test)
    return chosen + [t for t in golden if t not in chosen]


def _around(source: str, line: int) -> range:
    """Lines of the innermost statement that a line belongs to."""
    found = range(line, line + 1)
    for node in ast.walk(ast.parse(source)):
        if isinstance(node, ast.stmt) and node.lineno <= line <= (node.end_lineno or node.lineno):
            inner = range(node.lineno, (node.end_lineno or node.lineno) + 1)
            if len(found) == 1 or len(inner) <= len(found):
                found = inner
    return found


def _touching_names(names: list[str], known: dict[str, Any]) -> set[str]:
    """Tests that touch a line of the core on which one of these names stands."""
    if not names:
        return set()
    word = re.compile(rf"\b({'|'.join(map(re.escape, names))})\b")
    return {
        test
        for file, lines in known["lines"].items()
        for n, text in enumerate((PROJECT / file).read_text(encoding="utf-8").splitlines(), 1)
        if word.search(text)
        for test in lines.get(str(n), ())
    }


def _named_at(source: str, line: int) -> list[str]:
    """Names that a statement outside functions gives; of a class its own."""
    for node in ast.parse(source).body:
        if node.lineno <= line <= (node.end_lineno or node.lineno):
            if isinstance(node, ast.ClassDef):
                return [node.name]
            return [n.id for n in ast.walk(node) if isinstance(n, ast.Name) and isinstance(n.ctx, ast.Store)]
    return []


def _tested(change: dict[str, Any], source: str, tests: list[str], most_s: float) -> None:
    """In a process of its own: 0 when all pass, 1 when one fails."""
    import pytest

    sys.meta_path.insert(0, Changed(change, source))
    quiet = os.open(os.devnull, os.O_WRONLY)
    os.dup2(quiet, 1)
    os.dup2(quiet, 2)
    signal.alarm(int(5 * most_s + 120))
    code = 1
    try:
        # A few first: to collect them all takes longer than to run these.
        for part in (tests[:FIRST], tests[FIRST:]):
            code = 0 if not part or pytest.main([*QUIET, *part]) == 0 else 1
            if code:
                break
    finally:
        os._exit(code)


def _passes_unchanged(change: dict[str, Any], known: dict[str, Any]) -> bool:
    """Whether a process like those of the changes passes when nothing is changed."""
    pid = os.fork()
    if pid == 0:
        source = (PROJECT / change["file"]).read_text(encoding="utf-8")
        _tested(change, source, tests_for(change, known, 5.0), 5.0)
    return os.waitpid(pid, 0)[1] == 0


def run(group: str, sample: int, seed: int, jobs: int, most_s: float) -> int:
    """Draw, change, test, and say what survived."""
    for name in LOADED_ONCE:
        importlib.import_module(name)
    known = json.loads((KEPT / "map.json").read_text())
    known["breadth"] = Counter(t for file in known["lines"].values() for tests in file.values() for t in tests)
    every = [change for path in files_of(group) for change in changes_in(path)]
    drawn = every if len(every) <= sample else random.Random(seed).sample(every, sample)
    print(f"{group}: {len(drawn)} of {len(every)} changes", flush=True)
    if not _passes_unchanged(drawn[0], known):
        print("The tests of the first change fail without it: nothing can be said.")
        return 1
    waiting, results = list(drawn), list[dict[str, Any]]()
    running: dict[int, dict[str, Any]] = {}
    since: dict[int, float] = {}
    began = time.monotonic()
    while waiting or running:
        while waiting and len(running) < jobs:
            change = waiting.pop()
            source = changed(change)
            tests = tests_for(change, known, most_s)
            if source is None:
                continue
            if not tests:
                results.append({**change, "result": NO_TEST})
                continue
            pid = os.fork()
            if pid == 0:
                _tested(change, source, tests, most_s)
            running[pid] = change
            since[pid] = time.monotonic()
        if running:
            pid, status = os.wait()
            change = running.pop(pid)
            took = round(time.monotonic() - since.pop(pid), 1)
            results.append({**change, "result": SURVIVED if status == 0 else KILLED, "took_s": took})
            if status == 0:
                print(f"survived: {change['file']}:{change['line']} {change['operator']} {change['nth']}", flush=True)
            (KEPT / f"{group}.json").write_text(json.dumps(results))
    killed = sum(r["result"] == KILLED for r in results)
    print(f"{killed} of {len(results)} killed ({killed / max(1, len(results)):.1%}), {time.monotonic() - began:.0f} s")
    for r in results:
        if r["result"] == NO_TEST:
            print(f"no test: {r['file']}:{r['line']} {r['operator']}")
    return 0


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("what", choices=("map", "run"))
    parser.add_argument("group", nargs="?", choices=("rules", "rest"), default="rules")
    parser.add_argument("--sample", type=int, default=300)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--jobs", type=int, default=2)
    parser.add_argument("--most-s", type=float, default=90.0)
    asked = parser.parse_args()
    os.chdir(PROJECT)
    if asked.what == "map":
        return write_map()
    return run(asked.group, asked.sample, asked.seed, asked.jobs, asked.most_s)


if __name__ == "__main__":
    sys.exit(main())
