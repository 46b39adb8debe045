"""A cook at the stove: what was said, what is foretold of it, and what the simulated thermometers show of it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.cook.stove_forecast import StoveForecast, stove_forecast
from vianda.core.cook.stove_log import StoveEvent, wave_logs
from vianda.core.heat.curve import heat_curve
from vianda.runtime.engine import ENGINE
from vianda.services.heat_bench import case_of
from vianda.services.thermometers import Read, read_probe, read_surface
from vianda.storage import cook_repository
from vianda.storage.records import StoredCook

Thermometer = Literal["core", "surface"]
# How long the simulated surface has been on its burner when a cook begins: not quite hot yet.
HEATED_S = 480.0
# Long since as hot as it gets.
LONGEST_S = 7200.0


@dataclass(frozen=True, slots=True)
class Foretold:
    """The forecast of a cook and how many things had been said when it was made."""

    said: int
    forecast: StoveForecast


def said_at_stove(cook: StoredCook) -> list[StoveEvent]:
    """What was said of a cook, in the order in which it happened."""
    return [
        StoveEvent(e.kind, e.place, e.value, max(0.0, (e.at - cook.started_at).total_seconds())) for e in cook.events
    ]


def forecast_of(cook_id: int) -> Foretold:
    """What is foretold of a cook as it stands; nothing of one that is over."""
    cook = cook_repository.get_cook(cook_id)
    events = said_at_stove(cook)
    if cook.finished_at is not None:
        return Foretold(len(events), StoveForecast())
    try:
        found = stove_forecast(cook.plan["stove"], events, case_of(cook.formula), engine=ENGINE)
    except CoreError:
        # What it is cooked on, or made of, is no longer here: the plan it began with goes on.
        found = StoveForecast()
    return Foretold(len(events), found)


def simulated_reading(cook_id: int, of: Thermometer, *, since_start_s: float) -> Read:
    """What a simulated thermometer shows of a cook: of the wave on the heat, or of its surface before the first."""
    cook = cook_repository.get_cook(cook_id)
    logs = wave_logs(cook.plan["stove"], said_at_stove(cook))
    laid = [log for log in logs if log.laid_s is not None]
    if of == "surface":
        return read_surface(cook.formula, heated_s=min(LONGEST_S, HEATED_S + since_start_s), seed=cook_id)
    if not laid:
        raise OutOfRangeError("Nothing lies on the heat yet.", field="/since_start_s")
    seed = cook_id * 100 + laid[-1].wave
    at_s = max(1.0, since_start_s - (laid[-1].laid_s or 0.0))
    # Past its end the simulated piece rests; one that is still on the heat is read as it was taken off.
    off_s = heat_curve(case_of(cook.formula), engine=ENGINE).pull_s.usual
    return read_probe(cook.formula, at_s=min(at_s, off_s), seed=seed)
