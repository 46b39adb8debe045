"""The core keeps nothing between two questions: the only memory is of tables that are shipped with it."""

from __future__ import annotations

import ast
from pathlib import Path

import vianda.core
from formulas import smash
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.heat.curve import HeatCurve, curve_steps
from vianda.core.pipeline.compute import prepare

CORE = Path(vianda.core.__file__).parent
REMEMBERS = {"cache", "lru_cache", "singledispatch"}


def _decorators(tree: ast.AST):
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef):
            for decorator in node.decorator_list:
                call = decorator.func if isinstance(decorator, ast.Call) else decorator
                yield node, call.id if isinstance(call, ast.Name) else ""


def test_only_a_table_that_takes_nothing_is_read_once() -> None:
    found = []
    for path in CORE.rglob("*.py"):
        for function, name in _decorators(ast.parse(path.read_text(encoding="utf-8"))):
            takes = function.args.args or function.args.kwonlyargs or function.args.vararg
            if name in REMEMBERS and (name != "cache" or takes):
                found.append(f"{path.relative_to(CORE)}: {function.name}")
    assert found == []


def test_no_module_stands_at_the_root() -> None:
    assert [p.name for p in CORE.glob("*.py")] == ["__init__.py"]


def test_a_question_asked_between_changes_no_answer(inventory, kitchen) -> None:
    case = prepare(smash(), inventory=inventory, kitchen=kitchen).case
    before = [s for s in curve_steps(case) if isinstance(s, HeatCurve)]
    evaluate(smash(thickness_mm=9), inventory=inventory, kitchen=kitchen)
    assert [s for s in curve_steps(case) if isinstance(s, HeatCurve)] == before
