"""The heat of a formula's piece in this kitchen: its curve, its ways, and questions the other way round."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from vianda.core.heat.after import AfterLine, afterwards
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.meat import meat_of
from vianda.core.heat.cooked import BrownWord
from vianda.core.heat.curve import HeatCurve, Progress, curve_steps
from vianda.core.heat.firming import Firming, firming
from vianda.core.heat.fit import Observed
from vianda.core.heat.methods import (
    Method,
    StageChoice,
    chilling_stage,
    fresh_stage,
    methods_for,
    stage_choices,
    stages_of,
)
from vianda.core.heat.plate_signs import FATS, SIGNS, Fat, Sign, SurfaceGuess, guess_surface
from vianda.core.heat.questions import HeatAnswer, QuestionKind, ask
from vianda.core.heat.run_setup import Overrides
from vianda.core.model.formula import MOST_STAGES, Formula, HeatStage, PanFat
from vianda.core.pipeline.compute import prepare
from vianda.runtime.engine import ENGINE
from vianda.runtime.heavy import LONG_RUNS
from vianda.services.bench import context
from vianda.storage.database import let_go


@dataclass(frozen=True, slots=True)
class Ways:
    """How a piece may be cooked here: the stages in force, what may be composed, the ways that are ready, fats,
    signs."""

    stages: tuple[HeatStage, ...]
    choices: tuple[StageChoice, ...]
    fresh: HeatStage
    chilling: HeatStage | None
    most: int
    by_hand: bool
    method: str
    methods: tuple[Method, ...]
    fats: tuple[tuple[PanFat, Fat], ...]
    signs: tuple[Sign, ...]


def case_of(formula: Formula) -> CookCase:
    """What the heat needs to know of a formula in this kitchen."""
    inventory, kitchen = context()
    return prepare(formula, inventory=inventory, kitchen=kitchen).case


def curve_of(formula: Formula, *, overrides: Overrides, observed: Observed) -> Iterator[HeatCurve | Progress]:
    """What goes on inside the piece: first the curve, then its uncertainty."""
    steps = curve_steps(case_of(formula), overrides=overrides, observed=observed, engine=ENGINE)
    let_go()
    steps = LONG_RUNS.steps(steps)
    return (short(step) if isinstance(step, HeatCurve) else step for step in steps)


# Digits after the point of each series as it is sent: finer than any thermometer, a third of the length.
_DIGITS = {"depth_mm": 3, "times_s": 2, "core_c": 2, "cold_c": 2, "surface_c": 1, "plate_c": 1, "log10": 3}


def short(curve: HeatCurve) -> HeatCurve:
    """A curve with its series cut to what can be read off a drawing; single figures stay as they are."""
    series: dict[str, Any] = {
        name: tuple(round(v, digits) for v in getattr(curve, name)) for name, digits in _DIGITS.items()
    }
    rows = tuple(tuple(round(t, 1) for t in row) for row in curve.temp_c)
    return replace(curve, temp_c=rows, **series)


def ways_of(formula: Formula) -> Ways:
    """The ways a formula's piece may be cooked in this kitchen."""
    case = case_of(formula)
    form, on = case.style.form, case.surface
    return Ways(
        stages=stages_of(case.heat, case.style, on),
        choices=stage_choices(form, on.kind),
        fresh=fresh_stage(form),
        chilling=chilling_stage(form),
        most=MOST_STAGES,
        by_hand=bool(case.heat.stages),
        method=case.heat.method,
        methods=methods_for(form, on, case.kitchen),
        fats=tuple(FATS.items()),
        signs=tuple(s for s in SIGNS if on.kind in s.surfaces),
    )


def answer_to(
    formula: Formula, kind: QuestionKind, *, value: float | None, crust: BrownWord | None, overrides: Overrides
) -> HeatAnswer:
    """One question the other way round."""
    case = case_of(formula)
    let_go()
    return LONG_RUNS.run(lambda: ask(case, kind, value=value, crust=crust, overrides=overrides, engine=ENGINE))


def after_of(formula: Formula, *, overrides: Overrides) -> tuple[AfterLine, ...]:
    """Kept hot, cooled and warmed up again."""
    case = case_of(formula)
    let_go()
    return LONG_RUNS.run(lambda: afterwards(case, overrides, engine=ENGINE))


def surface_by_signs(signs: tuple[str, ...], *, fat: PanFat) -> SurfaceGuess:
    """How hot a surface is by what is seen."""
    return guess_surface(signs, fat=fat)


def firm_cubes(formula: Formula, *, edge_mm: float, freezer_c: float) -> Firming:
    """How long cubes of a formula's blend lie in the freezer before they are ground."""
    inventory, kitchen = context()
    blend = prepare(formula, inventory=inventory, kitchen=kitchen).piece.composition.mix
    return firming(edge_mm=edge_mm, meat=meat_of(blend, packing=1.0), freezer_c=freezer_c)
