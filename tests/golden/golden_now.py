"""The same answers by today's code, under the names of today."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from datetime import date
from typing import Any

from pydantic import TypeAdapter

from vianda.core.demo.formulas import HOUSE_FORMULAS, norquay_lots
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import Evaluation, FigureRange, Sheets, evaluate, figure_ranges, sheets
from vianda.core.heat.curve import HeatCurve, curve_steps, heat_curve
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.pipeline.compute import prepare
from vianda.core.target.solve import solve
from vianda.core.target.wish import Candidate, Wish
from vianda.interchange.formula_file import read_file
from vianda.services.heat_bench import short

# Fields that hold words for people.
TEXT = frozenset({"text", "title", "label", "line", "name", "method", "unit"})
RANGES = TypeAdapter(dict[str, FigureRange]).dump_python(figure_ranges(), mode="json")  # type: ignore[arg-type]
Answers = Iterator[tuple[str, Any]]


def golden_inventory() -> Inventory:
    """The starter larder with the demo's lots and house formulas."""
    start = starter_inventory()
    lots = norquay_lots(delivered=date(2026, 11, 20), use_by=date(2026, 11, 27))
    return Inventory.of(start.meats.values(), lots, (*start.pantry.values(), *HOUSE_FORMULAS))


GALLEY = yard_galley()
ABROAD = replace(GALLEY, country="UK", setting="food-service", unit_system="us")
INVENTORY = golden_inventory()


def plain(kind: Any, value: Any) -> Any:
    return TypeAdapter(kind).dump_python(value, mode="json")


def _figures(kept: dict[str, Any], part: str, kitchen: Kitchen) -> Answers:
    for name in kept[part]:
        formula = read_file(kept["files"][name]).formula
        answer = plain(Evaluation, evaluate(formula, inventory=INVENTORY, kitchen=kitchen))
        behind = plain(Sheets, sheets(formula, inventory=INVENTORY, kitchen=kitchen))
        chill = {n: answer["mix"][n] for n in ("mix_temp_c", "chill_to_cold_min")}
        sheet = {"protocol": {**behind["protocol"], **chill}}
        mix = {**answer["mix"], **sheet, **{n: behind[n] for n in ("corrections", "weigh_out")}}
        yield name, {**answer, "mix": mix, "ranges": RANGES, **{n: behind[n] for n in ("workings", "slip", "stove")}}


def _curves(kept: dict[str, Any]) -> Answers:
    for name in kept["curves"]:
        formula = read_file(kept["files"][name.removesuffix(" whole")]).formula
        case = prepare(formula, inventory=INVENTORY, kitchen=GALLEY).case
        curve = list(curve_steps(case))[-1] if name.endswith(" whole") else heat_curve(case)
        yield name, plain(HeatCurve, short(curve))


def _solve(kept: dict[str, Any]) -> Answers:
    cand = tuple(Candidate(k) for k in ("chuck", "round", "fat-trim", "brisket-point", "sirloin", "pork-shoulder"))
    for name in kept["solve"]:
        aim, sure = name.split()
        low, high = (0.15, 0.26) if float(sure) else (0.19, 0.22)
        wish = Wish(cand, low, high, aim=aim, confidence_frac=float(sure), use_stock=False)  # type: ignore[arg-type]
        found = solve(wish, inventory=INVENTORY, batch_mass_g=3000, step_g=5, grind_loss_frac=0.02)
        yield name, plain(list[Any], list(found))


NOW: dict[str, Callable[[dict[str, Any]], Answers]] = {
    "figures": lambda kept: _figures(kept, "figures", GALLEY),
    "abroad": lambda kept: _figures(kept, "abroad", ABROAD),
    "curves": _curves,
    "solve": _solve,
}


NAMES = {
    "habit": "usual",
    "doubt_frac": "uncertainty_frac",
    "doubt_share_frac": "uncertainty_share_frac",
    "core_target_c": "target_core_temp_c",
    "core_target": "target_core_temp",
    "doubt": "uncertainty",
    "said": "message",
    "summed": "lethality_message",
    "ware": "mould",
    "wares": "moulds",
    "ware_key": "mould_key",
    "ware_name": "mould_name",
}
WORDS = {
    "asks": "check",
    "core_target": "target_core_temp",
    "ware": "mould",
    "habit": "practice",
    "heat.habit-falls-short": "heat.practice-falls-short",
}


def renamed(part: str, answer: Any) -> Any:
    """What was kept, under the names of today."""
    if isinstance(answer, dict):
        if answer.keys() == {"kind", "value", "high", "text"}:
            none = "value" if answer["kind"] == "word" else "text"
            return {**answer, none: None}
        if "week_bought_kg" in answer or "week_mass_kg" in answer:
            grams = {k: v for k, v in answer.items() if not k.endswith("_kg")}
            weekly = {k[:-2] + "g": v * 1000 for k, v in answer.items() if k.endswith("_kg")}
            answer = {**grams, **weekly}
        if "mix" in answer and isinstance(answer["mix"], dict) and "breaches" in answer["mix"]:
            # What is eaten beside the mix is counted with it, in one place.
            mix = {k: v for k, v in answer["mix"].items() if k not in ("allergens", "breaches")}
            moved = {k: answer["mix"][k] for k in ("allergens", "breaches")}
            answer = {**answer, "mix": mix, "served": moved}
        # What a guest gets is figured once, with all that is eaten beside the mix.
        answer = {k: v for k, v in answer.items() if not (k.startswith("portion_") and "make_up" in answer)}
        # "core" is a working and a figure of the ticket too; what lies in the middle is "filling" now.
        inside = "eggs" in answer or "per_meat_frac" in answer
        return {
            ("filling" if inside and k == "core" else NAMES.get(k, k)): (
                None if (k, v) == ("first_use_by", "") else renamed(part, v)
            )
            for k, v in answer.items()
        }
    if isinstance(answer, list):
        return [renamed(part, v) for v in answer]
    return WORDS.get(answer, answer) if isinstance(answer, str) else answer
