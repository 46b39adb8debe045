"""The heat of a formula's piece in this kitchen: its curve, questions the other way round, and simulated
thermometers."""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.equipment.heating import PLATE_BAND_K, POWER_W_M2, heated_c, plate_store_j_m2_k
from vianda.core.heat.after import AfterLine, afterwards
from vianda.core.heat.conduction.meat import meat_of
from vianda.core.heat.cooked import BrownWord
from vianda.core.heat.curve import HeatCurve, Progress, curve_steps, heat_curve
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
from vianda.core.heat.run_setup import Asked
from vianda.core.model.formula import MOST_STAGES, Formula, HeatStage, PanFat
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.figures import Figures
from vianda.core.shape.piece_composition import stuff_of
from vianda.devices.probe import ProbeMake
from vianda.devices.simulated_probe import SimulatedProbe, Truth
from vianda.services.bench import surroundings

# How long a probe is left in before its display is read.
HELD_IN_S = 15.0
# When a probe tells most, by the whole time on the heat: ours.
PROBE_AT = 0.7
# How far the simulated piece may differ from what is computed: a factor between these on how fast heat runs.
LIES_LOW, LIES_HIGH = 0.82, 1.24


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


def _figures(formula: Formula) -> Figures:
    larder, kitchen = surroundings()
    return compute(formula, larder=larder, kitchen=kitchen)


def curve_of(formula: Formula, *, asked: Asked, observed: Observed) -> Iterator[HeatCurve | Progress]:
    """What goes on inside the piece: first the curve, then its doubt; the core keeps what it computed before."""
    figures = _figures(formula)
    return curve_steps(figures, asked=asked, observed=observed)


def ways_of(formula: Formula) -> Ways:
    """The ways a formula's piece may be cooked in this kitchen."""
    figures = _figures(formula)
    heat = formula.heat
    signs = tuple(s for s in SIGNS if figures.surface.kind in s.surfaces)
    return Ways(
        stages_of(heat, figures.style, figures.surface),
        stage_choices(figures.style.form, figures.surface.kind),
        fresh_stage(figures.style.form),
        chilling_stage(figures.style.form),
        MOST_STAGES,
        bool(heat.stages),
        heat.method,
        methods_for(figures.style.form, figures.surface, figures.kitchen),
        tuple(FATS.items()),
        signs,
    )


def answer_to(
    formula: Formula, kind: QuestionKind, *, value: float | None, crust: BrownWord | None, asked: Asked
) -> HeatAnswer:
    """One question the other way round."""
    return ask(_figures(formula), kind, value=value, crust=crust, asked=asked)


def after_of(formula: Formula, *, asked: Asked) -> tuple[AfterLine, ...]:
    """Kept hot, cooled and warmed up again."""
    return afterwards(_figures(formula), asked)


def surface_by_signs(signs: tuple[str, ...], *, fat: PanFat) -> SurfaceGuess:
    """How hot a surface is by what is seen."""
    return guess_surface(signs, fat=fat)


@dataclass(frozen=True, slots=True)
class Read:
    """What a simulated thermometer shows, °C, and when."""

    at_s: float
    shown_c: float


def read_probe(formula: Formula, *, at_s: float | None, seed: int) -> Read:
    """What the simulated probe shows after a while in the middle of a piece that is not quite as computed.

    ``at_s`` None is when a reading tells most: late, with time left to act on it.
    """
    share = int.from_bytes(hashlib.blake2b(f"piece:{seed}".encode(), digest_size=4).digest(), "big") / 2**32
    first = heat_curve(_figures(formula), asked=Asked(k_factor=LIES_LOW + (LIES_HIGH - LIES_LOW) * share))
    moment = round(PROBE_AT * first.pull_s.usual) if at_s is None else at_s
    depths = tuple(d / first.size_mm for d in first.depth_mm)
    rows = first.temp_c
    if first.form == "ball":
        # Depths run from the middle out; seen through the whole ball they run both ways.
        depths = tuple(0.5 - d for d in reversed(depths)) + tuple(0.5 + d for d in depths)
        rows = tuple(tuple(reversed(row)) + row for row in rows)
    probe = SimulatedProbe(ProbeMake(), Truth(first.times_s, depths, rows), seed, from_s=max(0.0, moment - HELD_IN_S))
    return Read(moment, probe.read_c(moment))


def read_surface(formula: Formula, *, heated_s: float, seed: int) -> Read:
    """What the simulated surface thermometer shows once the plate or pan has been heated for so long.

    Raises
    ------
    OutOfRangeError
        For an oven or a grate, whose heat is not a plate's.
    """
    _, kitchen = surroundings()
    surface = kitchen.surface(formula.heat.surface, field="/formula/heat/surface")
    if surface.kind not in ("plate", "pan"):
        raise OutOfRangeError("Only a plate or a pan is read by this thermometer.", field="/formula/heat/surface")
    power = POWER_W_M2[surface.heating.power]
    store = plate_store_j_m2_k(surface.heating, surface.kind)

    def hot(at_s: float) -> float:
        return heated_c(store, power, power / PLATE_BAND_K, at_s, formula.heat.surface_temp_c)

    times = tuple(max(0.0, heated_s - HELD_IN_S + n) for n in range(int(HELD_IN_S) + 1))
    truth = Truth(times, (0.0, 1.0), tuple((hot(t), hot(t)) for t in times))
    # Held on by hand it reads a little too little, and wavers more than a probe in meat.
    make = ProbeMake(lag_s=2.5, noise_sd_k=1.5, misplaced_frac=0.0, offset_k=-2.0)
    return Read(heated_s, SimulatedProbe(make, truth, seed, from_s=times[0]).read_c(heated_s))


def firm_cubes(formula: Formula, *, edge_mm: float, freezer_c: float) -> Firming:
    """How long cubes of a formula's blend lie in the freezer before they are ground."""
    figures = _figures(formula)
    meat = meat_of(stuff_of(figures.blend, batch=figures.batch, larder=figures.larder).mix, packing=1.0)
    return firming(edge_mm=edge_mm, meat=meat, freezer_c=freezer_c)
