"""What the kitchen learns from its cooks: taken down when a cook is noted, put together when it is asked for."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC
from typing import Any

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.cook.stove_forecast import without_slips
from vianda.core.equipment.task_pace import TASK_KINDS
from vianda.core.learning.fat_of_cuts import LearntFat, fats_of_cuts, with_fat
from vianda.core.learning.figures import FIGURES, LearntFigure, Level, Observation
from vianda.core.learning.from_cook import CookDone, heat_observation, loss_observation, readings_of, shrink_observation
from vianda.core.learning.from_kitchen import evaporation_observation
from vianda.core.learning.from_run import minutes_observations
from vianda.core.learning.in_use import BOWL, all_in_use, with_factor
from vianda.core.learning.learnt import Learnt, learnt_of
from vianda.core.learning.scores import ForecastScore, scores_of
from vianda.core.model.styles import FLAT, all_styles
from vianda.core.sauce.cook_down import Boil, pot_key, pot_name
from vianda.core.timetable.tasks import tasks_together
from vianda.runtime.engine import ENGINE
from vianda.services import kitchens
from vianda.services.heat_bench import case_of
from vianda.services.sauces import burner_w_m2
from vianda.services.services import cooked_dishes
from vianda.services.stove import said_at_stove
from vianda.storage import observation_repository, run_repository, service_repository
from vianda.storage.clock import now_utc
from vianda.storage.kitchen_repository import load_kitchen
from vianda.storage.larder_repository import load_inventory
from vianda.storage.observation_repository import OF_COOKS, SeenIn
from vianda.storage.records import NotFoundError, StoredCook
from vianda.storage.run_repository import SeenRun
from vianda.storage.transaction import transaction

# Evenings that are taken down at one time: each is put in time anew.
MOST_RUNS = 20


@dataclass(frozen=True, slots=True)
class Learning:
    """What was learnt, how good the forecasts were, the cooks and runs it comes from; the kitchen's revision."""

    learnt: tuple[Learnt, ...]
    scores: tuple[ForecastScore, ...]
    cooks: tuple[SeenIn, ...]
    runs: tuple[SeenRun, ...]
    fats: tuple[LearntFat, ...]
    revision: int


def observations_of(cook: StoredCook, outcome: dict[str, Any]) -> tuple[Observation, ...]:
    """Everything that one cook says."""
    style = all_styles().get(cook.formula.dish.style)
    used = cook.plan.get("factors")
    factors = used or {"loss": 1.0, "shrink": 1.0, "heat": 1.0}
    done = CookDone(
        cook.id,
        cook.started_at.replace(tzinfo=UTC).timestamp(),
        cook.formula.dish.style,
        cook.formula.heat.surface,
        factors["loss"],
        factors["shrink"],
        factors["heat"],
    )
    shape, found = cook.plan["shape"], []
    if outcome.get("cooked_mass_g") is not None:
        left = shape["cooked_yield_frac"]
        found.append(
            loss_observation(
                done,
                batch_mass_g=cook.plan["portions"]["batch_mass_g"],
                cooked_mass_g=outcome["cooked_mass_g"],
                yield_low=left["low"],
                yield_usual=left["usual"],
                yield_high=left["high"],
                target_c=cook.formula.heat.target_core_temp_c,
                core_c=outcome.get("core_c"),
            )
        )
    if outcome.get("cooked_diameter_mm") is not None and style is not None and style.form in FLAT:
        wide = shape["cooked_diameter_mm"]
        found.append(
            shrink_observation(
                done,
                raw_mm=shape["raw_diameter_mm"],
                cooked_mm=outcome["cooked_diameter_mm"],
                cooked_low_mm=wide["low"],
                cooked_usual_mm=wide["usual"],
                cooked_high_mm=wide["high"],
            )
        )
    # Which heat a cook was planned with is known since plans keep it.
    if used is not None:
        found += _heat(cook, done)
    return tuple(o for o in found if o is not None)


def _heat(cook: StoredCook, done: CookDone) -> list[Observation | None]:
    said, stove = said_at_stove(cook), cook.plan["stove"]
    if not readings_of(stove, said):
        return []
    try:
        case = case_of(cook.formula)
        readings = readings_of(stove, without_slips(stove, said, case, engine=ENGINE))
        return [heat_observation(done, case, reading, engine=ENGINE) for reading in readings]
    except CoreError:
        # What it was cooked on, or made of, is no longer here: the reading says nothing any more.
        return []


def keep(cook: StoredCook, observations: Sequence[Observation]) -> None:
    """Keep what a cook says, once."""
    observation_repository.keep_observations(cook.id, cook.started_at, observations)


def take_down_runs() -> None:
    """Keep what services under way say of minutes, as far as nobody has yet."""
    for service_id, day in run_repository.runs_to_learn_from(MOST_RUNS):
        run = run_repository.find_run(service_id, day)
        if run is None:
            continue
        try:
            service = service_repository.get_service(service_id).service
            _, dishes = cooked_dishes(service, None)
            tasks = tasks_together(dishes, timing=service.timing).tasks if dishes else ()
        except (CoreError, NotFoundError):
            # The service is gone, or cannot be put in time any more: its minutes have nothing to stand beside.
            tasks = ()
        seen = minutes_observations(run.id, run.started_at.replace(tzinfo=UTC).timestamp(), run.events, tasks)
        with transaction():
            # Two windows ask at once: the second finds it done.
            if run_repository.hold_to_learn(run.id, run.number):
                observation_repository.keep_minutes(run.id, run.started_at, seen)
                run_repository.mark_learnt(run.id, run.number)


def learning() -> Learning:
    """What this kitchen has learnt so far."""
    take_down_runs()
    kitchen = load_kitchen()
    seen = [o for figure in FIGURES for o in observation_repository.observations(figure)]
    names: dict[tuple[Level, str], str] = {("style", key): style.title for key, style in all_styles().items()}
    names |= {("task", key): title for key, title in TASK_KINDS.items()}
    names |= {("pot", o.thing): pot_name(o.thing) for o in seen if o.figure == "evaporation"}
    names["bowl", BOWL] = "Bowl and gloves"
    names |= {("surface", s.key): s.name for s in kitchen.kitchen.surfaces}
    return Learning(
        learnt_of(seen, names=names, in_use=all_in_use(kitchen.kitchen)),
        scores_of(seen),
        tuple(observation_repository.seen_in([o.cook for o in seen if o.figure in OF_COOKS])),
        tuple(run_repository.runs_seen([o.cook for o in seen if o.figure == "minutes"])),
        fats_of_cuts(load_inventory(), kitchen.kitchen.fats),
        kitchen.revision,
    )


def note_pot(*, start_g: float, left_g: float, minutes: float, boil: Boil, diameter_mm: float) -> Learning:
    """Write down how long a pot took to boil off so much."""
    kitchen, now = load_kitchen().kitchen, now_utc()
    seen = evaporation_observation(
        0,
        now.replace(tzinfo=UTC).timestamp(),
        start_g=start_g,
        left_g=left_g,
        minutes=minutes,
        boil=boil,
        diameter_mm=diameter_mm,
        burner_w_m2=burner_w_m2(kitchen),
        factor=kitchen.pot_rate(pot_key(boil, diameter_mm)),
    )
    with transaction():
        observation_repository.add_evaporation(seen, now)
    return learning()


def use_factor(figure: LearntFigure, level: Level, key: str, factor: float, *, revision: int) -> Learning:
    """Put a factor to use: forecasts follow from now on."""
    if level == "style" and key not in all_styles():
        raise OutOfRangeError("There is no such style.", field="/key")
    kitchen = load_kitchen().kitchen
    kitchens.save_kitchen(with_factor(kitchen, figure=figure, level=level, key=key, factor=factor), revision=revision)
    return learning()


def use_fat(meat: str, *, use: bool, revision: int) -> Learning:
    """Reckon blends with how fat a cut comes to this kitchen, or with the table again."""
    kitchen = load_kitchen().kitchen
    learnt = {f.meat: f for f in fats_of_cuts(load_inventory(), kitchen.fats)}
    if use and meat not in learnt:
        raise OutOfRangeError("No delivery of it was tested.", field="/meat")
    fats = with_fat(kitchen.fats, learnt, meat, use=use)
    kitchens.save_kitchen(replace(kitchen, fats=fats), revision=revision)
    return learning()


def set_aside(figure: LearntFigure, cook_id: int, piece: int, *, aside: bool) -> Learning:
    """Leave one observation out, or count it again."""
    with transaction():
        observation_repository.set_aside(figure, cook_id, piece, aside=aside)
    return learning()
