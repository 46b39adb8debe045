"""What a batch's own figures and readings say for and against each cause, as logarithms of likelihood ratios."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Annotated

from annotated_types import Ge, Le

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.counsel.rule import Counsel
from vianda.core.faults.causes import Cause
from vianda.core.pipeline.figures import Figures

# How much more often a rule of counsel speaks where its cause is there than where it is not; and where it is silent.
# Ours, as are all ratios here.
RULE_SPEAKS, RULE_SILENT = 4.0, 0.5
# A surface is as it should be within this, K; a core on its target within this, K.
SURFACE_K, CORE_K = 15.0, 2.0
# Much more or less than was forecast: a loss or shrink, minutes on the heat, the first side, the rest.
MUCH_MORE, MUCH_LESS = 1.2, 0.7
# Salt of all that is mixed: below and above this it tastes of too little and too much, 0–1.
LITTLE_SALT, MUCH_SALT = 0.009, 0.019
# A piece thicker than this that draws in from its edge domes, mm.
DOMES_MM = 15.0


@dataclass(frozen=True, slots=True)
class BatchReadings:
    """What was measured of a batch; None where it was not.

    ``loss_ratio``, ``shrink_ratio``, ``heat_ratio``, ``first_side_ratio`` and ``rest_ratio`` are what came over what
    was forecast or planned: mass and diameter lost, time on the heat, on the first side, and at rest.
    """

    surface_c: Annotated[float, Ge(0), Le(500)] | None = None
    core_c: Annotated[float, Ge(-20), Le(120)] | None = None
    loss_ratio: Annotated[float, Ge(0), Le(20)] | None = None
    shrink_ratio: Annotated[float, Ge(-5), Le(20)] | None = None
    heat_ratio: Annotated[float, Ge(0), Le(100)] | None = None
    first_side_ratio: Annotated[float, Ge(0), Le(100)] | None = None
    rest_ratio: Annotated[float, Ge(0), Le(100)] | None = None

    def __post_init__(self) -> None:
        if self.surface_c is not None and not 0.0 <= self.surface_c <= 500.0:
            raise OutOfRangeError("A surface measures 0 to 500 °C.", field="/surface_c")
        if self.core_c is not None and not -20.0 <= self.core_c <= 120.0:
            raise OutOfRangeError("A core reads −20 to 120 °C.", field="/core_c")


NOTHING_READ = BatchReadings()


@dataclass(frozen=True, slots=True)
class Spoken:
    """One thing that speaks for a cause (above 0) or against it, with its figure; ``measured``: a reading says so."""

    cause: str
    text: Phrase
    log_ratio: float
    measured: bool = False


def evidence_of(
    figures: Figures, counsel: Sequence[Counsel], readings: BatchReadings, causes: Sequence[Cause]
) -> tuple[Spoken, ...]:
    """Everything that a batch says for and against its causes.

    Parameters
    ----------
    figures : Figures
        The formula as it was cooked.
    counsel : Sequence[Counsel]
        What the rules say of it.
    readings : BatchReadings
        What was measured.
    causes : Sequence[Cause]
        The causes that are asked about.

    Returns
    -------
    tuple[Spoken, ...]
        In the order of the causes.
    """
    asked = {c.key for c in causes}
    measured = [replace(s, measured=True) for s in _measured(figures, readings)]
    found = [*_rules(counsel, causes), *measured, *_figures(figures)]
    order = {c.key: n for n, c in enumerate(causes)}
    return tuple(sorted((s for s in found if s.cause in asked), key=lambda s: (order[s.cause], -s.log_ratio)))


def _rules(counsel: Sequence[Counsel], causes: Sequence[Cause]) -> Iterator[Spoken]:
    """Counsel that speaks, and counsel that would have spoken and is silent."""
    said = {c.rule: c for c in counsel}
    for cause in causes:
        mine = [said[rule] for rule in cause.rules if rule in said]
        for one in mine[:2]:
            yield Spoken(cause.key, one.title, math.log(RULE_SPEAKS))
        if cause.rules and not mine:
            yield Spoken(cause.key, say("Nothing in the formula as it was cooked speaks for it"), math.log(RULE_SILENT))


def _measured(figures: Figures, r: BatchReadings) -> Iterator[Spoken]:
    heat = figures.context.formula.heat
    if r.surface_c is not None:
        text = say("The surface measured {t}, planned {p}", t=ph.temp(r.surface_c), p=ph.temp(heat.surface_temp_c))
        off = r.surface_c - heat.surface_temp_c
        cool = 12.0 if off < -2 * SURFACE_K else 4.0 if off < -SURFACE_K else 0.15
        yield Spoken("plate-cool", text, math.log(cool))
        fierce = 8.0 if off > 2 * SURFACE_K else 3.0 if off > SURFACE_K else 0.4
        yield Spoken("too-fierce", text, math.log(fierce))
    if r.core_c is not None:
        over = r.core_c - heat.target_core_temp_c
        text = say("The core came to {t}, wanted {p}", t=ph.temp(r.core_c), p=ph.temp(heat.target_core_temp_c))
        yield Spoken("overcooked", text, math.log(8.0 if over > 2 * CORE_K else 3.0 if over > CORE_K else 0.2))
        if over < -CORE_K:
            yield Spoken("too-thick", text, math.log(2.5))
    if r.loss_ratio is not None:
        text = say("It lost {x} times what was forecast", x=ph.number(r.loss_ratio))
        yield Spoken("overcooked", text, math.log(2.5 if r.loss_ratio > MUCH_MORE else 0.7))
        yield Spoken("pressed-late", text, math.log(2.0 if r.loss_ratio > MUCH_MORE else 0.7))
    if r.shrink_ratio is not None:
        text = say("It drew in {x} times what was forecast", x=ph.number(r.shrink_ratio))
        for cause in ("too-fat", "too-fierce", "overcooked"):
            yield Spoken(cause, text, math.log(2.0 if r.shrink_ratio > MUCH_MORE else 0.7))
        yield Spoken("not-wide", text, math.log(0.5 if r.shrink_ratio > MUCH_MORE else 1.5))
    if r.heat_ratio is not None:
        text = say("It was on the heat {x} times as long as planned", x=ph.number(r.heat_ratio))
        yield Spoken("overcooked", text, math.log(4.0 if r.heat_ratio > MUCH_MORE else 0.6))
    if r.first_side_ratio is not None:
        text = say("It was turned after {x} times the planned time", x=ph.number(r.first_side_ratio))
        yield Spoken("moved-soon", text, math.log(5.0 if r.first_side_ratio < MUCH_LESS else 0.5))
    if r.rest_ratio is not None:
        text = say("It rested {x} times as long as planned", x=ph.number(r.rest_ratio))
        yield Spoken("no-rest", text, math.log(6.0 if r.rest_ratio < MUCH_LESS else 0.3))


def _figures(f: Figures) -> Iterator[Spoken]:
    """What the formula's figures say where no rule of counsel speaks of it."""
    salt = f.salt.of_mix_frac
    if f.salt.salt_place == "mixed" or salt > 0.0:
        text = say("All salt is {salt} of the mix", salt=ph.fine_frac(salt))
        yield Spoken("little-salt", text, math.log(3.0 if salt < LITTLE_SALT else 0.4))
        yield Spoken("much-salt", text, math.log(4.0 if salt > MUCH_SALT else 0.5))
    shape = f.piece.shape
    if shape.form == "disc":
        text = say("{t} thick", t=ph.length(shape.thickness_mm))
        yield Spoken("no-dimple", text, math.log(2.0 if shape.dimple or shape.thickness_mm > DOMES_MM else 0.2))
    plate = f.context.surface.kind in ("plate", "pan")
    if plate and f.piece.laying.waves > 1:
        text = say("{n} waves on this surface", n=ph.count(f.piece.laying.waves))
        yield Spoken("crowded", text, math.log(1.5))
        yield Spoken("plate-cool", text, math.log(1.3))
    if f.context.formula.heat.glaze and not any(stage.glaze for stage in f.context.formula.heat.stages):
        for cause in ("glaze-raw", "glaze-thick"):
            yield Spoken(cause, say("No stage of the plan puts a glaze on"), math.log(0.6))
