"""Commands that work on a file alone, without a database: the same figures as the bench shows."""

from __future__ import annotations

import argparse
import json
from typing import Any

from pydantic import TypeAdapter, ValidationError

from vianda.cli.answers import Code, CommandError, read_text, say, say_kind
from vianda.core.evaluation.evaluate import Evaluation, Sheets, evaluate, sheets
from vianda.interchange.formula_file import FormulaBundle
from vianda.interchange.formula_file import read_text as read_formula
from vianda.runtime.machine_code import keep_on_disk

Commands = Any


def add(commands: Commands) -> None:
    """The commands of this file."""
    one = commands.add_parser(
        "evaluate",
        help="print every figure of a formula file",
        epilog="Example: vianda evaluate slipway-smash.vianda.json | jq .portions",
    )
    one.add_argument("file", help="a formula file, or - for standard input")
    one.set_defaults(run=_evaluate)
    two = commands.add_parser(
        "plan",
        help="print when to do what for a formula file, backwards from the plate",
        epilog="Example: vianda plan slipway-smash.vianda.json --ready 18:30 --cooks 2",
    )
    two.add_argument("file", help="a formula file, or - for standard input")
    two.add_argument("--ready", type=_minute, metavar="HH:MM", help="on the plate at; else the hour of the formula")
    two.add_argument("--cooks", type=int, help="how many cooks; else as the formula says")
    two.set_defaults(run=_plan)
    three = commands.add_parser(
        "solve",
        help="print blends of the formula's meats that meet a target of fat",
        epilog="Example: vianda solve slipway-smash.vianda.json --fat 20-24 --aim cheapest",
    )
    three.add_argument("file", help="a formula file, or - for standard input")
    three.add_argument("--fat", required=True, help="per cent: one figure or a span, such as 22 or 20-24")
    three.add_argument("--aim", default="nearest", choices=["nearest", "cheapest"], help="what is wanted most")
    three.add_argument("--confidence", default="", help="per cent of batches that must meet it, such as 90")
    three.set_defaults(run=_solve)


def _minute(text: str) -> int:
    hour, colon, minute = text.partition(":")
    if not (colon and hour.isdigit() and minute.isdigit() and int(hour) < 24 and len(minute) == 2 and int(minute) < 60):
        raise argparse.ArgumentTypeError(f"“{text[:20]}” is no hour; write it as 18:30")
    return int(hour) * 60 + int(minute)


def _bundle(path: str) -> FormulaBundle:
    text = read_text(path)
    keep_on_disk()
    return read_formula(text)


def _evaluate(given: argparse.Namespace) -> None:
    bundle = _bundle(given.file)
    result = evaluate(bundle.formula, inventory=bundle.inventory, kitchen=bundle.kitchen)
    behind = sheets(bundle.formula, inventory=bundle.inventory, kitchen=bundle.kitchen)
    whole = TypeAdapter(Evaluation).dump_python(result, mode="json", exclude_none=True)
    say(whole | TypeAdapter(Sheets).dump_python(behind, mode="json", exclude_none=True))


def _plan(given: argparse.Namespace) -> None:
    from dataclasses import replace

    from vianda.core.pipeline.compute import compute
    from vianda.core.timetable.timetable import Timetable, timetable
    from vianda.interchange.kinds import FORMULAS

    bundle = _bundle(given.file)
    timing = bundle.formula.timing
    if given.ready is not None:
        timing = replace(timing, ready_min=given.ready)
    if given.cooks is not None:
        timing = replace(timing, cooks=given.cooks)
    try:
        formula = FORMULAS.of(FORMULAS.plain(replace(bundle.formula, timing=timing)))
    except ValidationError as error:
        raise CommandError(Code.REFUSED, error.errors(include_url=False)[0]["msg"]) from None
    figures = compute(formula, inventory=bundle.inventory, kitchen=bundle.kitchen)
    say_kind(Timetable, timetable(figures))


def _solve(given: argparse.Namespace) -> None:
    from vianda.core.target.wish import Candidate, Wish
    from vianda.services.targets import Solved, TypedWish, solve_in

    bundle = _bundle(given.file)
    low, _, high = given.fat.replace("–", "-").partition("-")
    wish = Wish(tuple(Candidate(p.meat, p.lot) for p in bundle.formula.parts), 0.0, 1.0, aim=given.aim, use_stock=False)
    typed = TypedWish(_percent(low), _percent(high or low), confidence=_percent(given.confidence))
    found = solve_in(bundle.formula, wish, typed, inventory=bundle.inventory, kitchen=bundle.kitchen)
    say_kind(Solved, found)
    if not found.answers:
        raise CommandError(
            Code.REFUSED, "no blend of these meats meets the target; what would let one is in “changes”."
        )


def _percent(text: str) -> str:
    plain = text.strip()
    return f"{plain} %" if plain and "%" not in plain else plain


def document(text: str) -> Any:
    """A JSON document of a file's text."""
    try:
        return json.loads(text)
    except (ValueError, RecursionError) as error:
        raise CommandError(Code.REFUSED, f"this is not JSON: {error}.") from None
