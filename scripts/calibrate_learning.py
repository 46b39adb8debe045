"""Try what a kitchen learns on simulated kitchens whose true factors are hidden, and print how good it is.

Usage: .venv/bin/python scripts/calibrate_learning.py [--kitchens 50] [--cooks 10] [--seed 1] [--write docs/learning.md]
Outcomes come from the heat solver, with things in them that the learner does not assume: factors that drift, tails
heavier than a normal's, weighings with the tray on the scale, conductivity that differs from kitchen to kitchen.
"""

from __future__ import annotations

import argparse
import math
import statistics
from collections.abc import Callable
from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np

from vianda.core.demo.formulas import DEMO_FORMULAS
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.body import PieceGeometry
from vianda.core.heat.conduction.run import Setup, Simulation, times_of
from vianda.core.heat.conduction.slab import FAT_LOST, WATER_LOST
from vianda.core.heat.fit import ProbeReading, model_cores
from vianda.core.heat.forecast import wave_forecast
from vianda.core.heat.run_setup import setup_of
from vianda.core.heat.uncertainty import hotter
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.learning.figures import KITCHEN, LearntFigure, Observation
from vianda.core.learning.from_cook import CookDone, CoreReading, heat_observation, loss_observation
from vianda.core.learning.learnt import fitted
from vianda.core.learning.scores import foretold
from vianda.core.model.formula import Formula
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.compute import prepare as prepared
from vianda.runtime.machine_code import keep_on_disk

# Standard deviations in logarithms. What all cooks of a kitchen share, what its styles and surfaces add.
KITCHEN_SD, STYLE_SD, SURFACE_SD = 0.08, 0.08, 0.08
HEAT_SD, K_KITCHEN_SD, K_COOK_SD = 0.20, 0.08, 0.04
# A cook's own chance is Student's t with three degrees of freedom, scaled; each cook the kitchen moves on a little.
COOK_SD, COOK_FREEDOM, DRIFT_SD = 0.045, 3, 0.008
# One weighing in thirty had the tray on the scale, g.
TRAY_SHARE, TRAY_G = 1 / 30, 180.0
THICK_MM, THICK_FRAC, START_K, SURFACE_K = 0.7, 0.04, 1.5, 6.0
PROBE_K, BESIDE_K = 0.7, 1.2
# What a kitchen cooks in turn.
DISHES = 2
# When the one reading is taken, of the minutes that were planned.
READ_AT = 0.7


@dataclass(frozen=True)
class Dish:
    """A formula as it is forecast: its case, its setup, its minutes, and what is left of it."""

    formula: Formula
    case: CookCase
    nominal: Setup
    planned_s: float
    solver_loss: float
    batch_g: float
    yield_low: float
    yield_usual: float
    yield_high: float


def dishes_of(kitchen: Kitchen) -> list[Dish]:
    """The demo's formulas that are cooked to a core."""
    inventory, found = starter_inventory(), []
    for make in DEMO_FORMULAS:
        formula = make()
        case = prepared(formula, inventory=inventory, kitchen=kitchen).case
        if case.style.form == "crumbled":
            continue
        setup = setup_of(case)
        if setup.stages[-1].end != "core":
            continue
        figures = compute(formula, inventory=inventory, kitchen=kitchen)
        left = figures.piece.shape.cooked_yield_frac
        found.append(
            Dish(
                formula, case, setup, times_of(setup)[0][-1], loss_of(setup),
                figures.batch.portions.batch_mass_g, left.low, left.usual, left.high,
            )
        )  # fmt: skip
    return found


def loss_of(setup: Setup) -> float:
    """What the solver has a piece lose on the heat, of its mass."""
    run = Simulation(setup, keep_every_s=1e9)
    for stage in setup.stages:
        run.stage(stage)
    return float((run.now.tally[WATER_LOST] + run.now.tally[FAT_LOST]) / run.body.mass_kg)


class Hidden:
    """One kitchen's true factors, which nobody is told."""

    def __init__(self, rng: np.random.Generator) -> None:
        self.rng = rng
        self.shared = rng.normal(0, KITCHEN_SD)
        self.k = rng.normal(0, K_KITCHEN_SD)
        self._own: dict[str, float] = {}

    def of(self, key: str, sd: float) -> float:
        """The effect of a style or surface, the same each time it is asked for."""
        if key not in self._own:
            self._own[key] = float(self.rng.normal(0, sd))
        return self._own[key]

    def drift(self) -> None:
        """Move on a little from one cook to the next."""
        self.shared += self.rng.normal(0, DRIFT_SD)

    def loss(self, dish: Dish) -> float:
        """The logarithm of what its loss is multiplied with, without chance."""
        style, surface = dish.formula.dish.style, dish.formula.heat.surface
        return self.shared + self.of(f"style/{style}", STYLE_SD) + self.of(f"surface/{surface}", SURFACE_SD)

    def usual_setup(self, dish: Dish) -> Setup:
        """A cook as it usually goes in this kitchen."""
        case = dish.case
        heat = math.exp(self.of(f"heat/{case.surface.key}", HEAT_SD))
        heating = replace(case.surface.heating, heat_factor=min(2.0, max(0.5, heat)))
        setup = setup_of(replace(case, surface=replace(case.surface, heating=heating)))
        return replace(setup, factors=replace(setup.factors, k=setup.factors.k * math.exp(self.k)))

    def setup(self, dish: Dish) -> Setup:
        """One cook as it really goes."""
        rng, setup = self.rng, self.usual_setup(dish)
        piece, size = setup.piece, setup.piece.size_mm
        by = float(rng.normal(0, max(THICK_MM, THICK_FRAC * size)))
        by = max(-0.3 * size, min(0.3 * size, by))
        wide = piece.width_mm * (1 + by / size) if piece.form == "block" else piece.width_mm
        k = setup.factors.k * math.exp(rng.normal(0, K_COOK_SD))
        setup = replace(
            setup,
            piece=PieceGeometry(piece.form, size + by, piece.meat, wide, piece.middle),
            start_c=setup.start_c + float(rng.normal(0, START_K)),
            factors=replace(setup.factors, k=k),
        )
        return hotter(setup, float(rng.normal(0, SURFACE_K)))


@dataclass(frozen=True)
class Cooked:
    """What came of one simulated cook: what was seen of it, and how the forecast after one reading did."""

    loss: Observation | None
    heat: Observation | None
    dish: Dish
    true_yield: float
    off_before: float
    after: tuple[float, bool] | None


def cook(dish: Dish, hidden: Hidden, number: int) -> Cooked:
    """Cook a dish in a kitchen whose factors are hidden."""
    rng = hidden.rng
    true = hidden.setup(dish)
    took_s = times_of(true)[0][-1]
    chance = COOK_SD * float(rng.standard_t(COOK_FREEDOM))
    expected = (1 - dish.yield_usual) * loss_of(true) / dish.solver_loss
    lost = min(0.9, expected * math.exp(hidden.loss(dish) + chance))
    weighed = dish.batch_g * (1 - lost) * (1 + float(rng.normal(0, 0.006)))
    if rng.random() < TRAY_SHARE:
        weighed += TRAY_G
    done = CookDone(number, float(number), dish.formula.dish.style, dish.formula.heat.surface)
    loss = None
    if weighed <= dish.batch_g:
        loss = loss_observation(
            done, batch_mass_g=dish.batch_g, cooked_mass_g=weighed, yield_low=dish.yield_low,
            yield_usual=dish.yield_usual, yield_high=dish.yield_high,
            target_c=dish.formula.heat.target_core_temp_c,
        )  # fmt: skip
    at_s = min(READ_AT * dish.planned_s, 0.9 * took_s)
    [core] = model_cores(true, (at_s,))
    read = core + float(rng.normal(0, PROBE_K)) + float(rng.normal(0, BESIDE_K))
    heat = heat_observation(done, dish.case, CoreReading(1, at_s, read))
    usual = (1 - dish.yield_usual) * loss_of(hidden.usual_setup(dish)) / dish.solver_loss
    return Cooked(
        loss, heat, dish, 1 - usual * math.exp(hidden.loss(dish)),
        dish.planned_s / took_s - 1, _after_reading(dish, at_s, read, took_s),
    )  # fmt: skip


def _after_reading(dish: Dish, at_s: float, read_c: float, took_s: float) -> tuple[float, bool] | None:
    """How far off the stove's forecast is once one reading was taken, relative to the true time; if its band held."""
    if at_s < 1.0:
        return None
    found = wave_forecast(dish.nominal, readings=[ProbeReading(at_s, read_c)])
    if found is None:
        return None
    off = found.ends_s[-1]
    return off.usual / took_s - 1, off.low <= took_s <= off.high


def main() -> int:
    """Cook in all the kitchens, and print what the learner made of it."""
    parser = argparse.ArgumentParser(description=(__doc__ or "").splitlines()[0])
    parser.add_argument("--kitchens", type=int, default=50)
    parser.add_argument("--cooks", type=int, default=10)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--write", type=Path)
    given = parser.parse_args()
    # Compiled once, not at every start.
    keep_on_disk()
    dishes = dishes_of(yard_galley())
    rng = np.random.default_rng(given.seed)
    kitchens = []
    for _ in range(given.kitchens):
        hidden, cooks = Hidden(rng), []
        mine = [dishes[n] for n in rng.permutation(len(dishes))[:DISHES]]
        for n in range(given.cooks):
            cooks.append(cook(mine[n % len(mine)], hidden, n))
            hidden.drift()
        kitchens.append(cooks)
    text = report(kitchens, given.seed)
    print(text)
    if given.write:
        keep_section(given.write, text)
    return 0


def report(kitchens: list[list[Cooked]], seed: int) -> str:
    """The figures as a table."""
    everything = [c for cooks in kitchens for c in cooks]
    rows = [
        f"{len(everything)} simulated cooks in {len(kitchens)} kitchens, seed {seed}.",
        "",
        "| figure | wanted | found |",
        "|---|---|---|",
    ]
    titles: tuple[tuple[LearntFigure, str], ...] = (("loss", "Cook loss"), ("heat", "Heat transfer"))
    for figure, title in titles:
        held = [t.held for cooks in kitchens for t in foretold(_seen(cooks, figure))]
        rows.append(f"| {title}: bands of 80 % hold | 75 to 85 % | {share(held)} of {len(held)} |")
    after = [abs(c.after[0]) <= 0.10 for c in everything if c.after is not None]
    bands = [c.after[1] for c in everything if c.after is not None]
    before = [abs(c.off_before) <= 0.10 for c in everything]
    rows.append(f"| Finishing time within ±10 % after one reading | at least 80 % | {share(after)} of {len(after)} |")
    rows.append(f"| The same before any reading | | {share(before)} of {len(before)} |")
    rows.append(f"| Its band of 80 % at the stove holds | at least 80 % | {share(bands)} of {len(bands)} |")
    new, learnt = yield_errors(kitchens)
    rows.append(
        f"| Error of a kitchen's yield after its cooks, over a newcomer's (root mean square) | at most 0.50 | "
        f"{rms(learnt) / rms(new):.2f} ({100 * rms(learnt):.1f} against {100 * rms(new):.1f} points) |"
    )
    outliers = [n for cooks in kitchens for n in fitted("loss", _seen(cooks, "loss")).outliers]
    rows.append(f"| Weighings named as outliers | | {len(outliers)} |")
    return "\n".join(rows)


def yield_errors(kitchens: list[list[Cooked]]) -> tuple[list[float], list[float]]:
    """Error of the yield of each dish a kitchen cooked, before its first cook and after its last."""
    new, learnt = [], []
    for cooks in kitchens:
        after = fitted("loss", _seen(cooks, "loss"))
        last: dict[str, Cooked] = {c.dish.formula.name: c for c in cooks}
        for one in last.values():
            style, surface = one.dish.formula.dish.style, one.dish.formula.heat.surface
            prior = {f"style/{style}": 0.0, f"surface/{surface}": 0.0, KITCHEN: 0.0, **after.prior_sd}
            factor = replace(after, prior_sd=prior).of(KITCHEN, f"style/{style}", f"surface/{surface}").factor()
            new.append(one.dish.yield_usual - one.true_yield)
            learnt.append(1 - (1 - one.dish.yield_usual) * factor - one.true_yield)
    return new, learnt


def _seen(cooks: list[Cooked], figure: LearntFigure) -> list[Observation]:
    one: Callable[[Cooked], Observation | None] = (lambda c: c.loss) if figure == "loss" else (lambda c: c.heat)
    return [o for c in cooks if (o := one(c)) is not None]


def share(held: list[bool]) -> str:
    """A share in per cent, with its standard error."""
    p = sum(held) / len(held)
    return f"{100 * p:.1f} % (± {100 * math.sqrt(p * (1 - p) / len(held)):.1f})"


def rms(errors: list[float]) -> float:
    """Root mean square."""
    return math.sqrt(statistics.fmean(e * e for e in errors))


def keep_section(path: Path, text: str) -> None:
    """Put the figures between the marks of a page."""
    begin, end = "<!-- calibration -->", "<!-- end of calibration -->"
    page = path.read_text(encoding="utf-8")
    head, rest = page.split(begin)
    path.write_text(f"{head}{begin}\n\n{text}\n\n{end}{rest.split(end)[1]}", encoding="utf-8")


if __name__ == "__main__":
    raise SystemExit(main())
