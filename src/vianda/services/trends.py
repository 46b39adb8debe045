"""Figures of cooks over time, on a control chart."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from vianda.core.weighing.control_chart import ControlChart, control_chart
from vianda.storage import trend_repository
from vianda.storage.trend_repository import Point

TrendFigure = Literal["yield", "shrink", "minutes", "score"]
TITLES: dict[TrendFigure, str] = {
    "yield": "Yield",
    "shrink": "Drew in",
    "minutes": "Time to a probe reading over its forecast",
    "score": "How near the scores lie to what is wanted, of five",
}


@dataclass(frozen=True, slots=True)
class TrendPoint:
    """One cook on a chart; ``low`` and ``high`` is what was forecast, None where nothing was."""

    cook_id: int
    formula_name: str
    started_at: datetime
    value: float
    low: float | None
    high: float | None


@dataclass(frozen=True, slots=True)
class Trend:
    """One figure over time. The chart's mean and limits are in the figure's own unit, in spite of their names."""

    figure: TrendFigure
    title: str
    points: tuple[TrendPoint, ...]
    chart: ControlChart


def trends(*, formula_id: int | None = None, dish: str = "") -> tuple[Trend, ...]:
    """The figures of a formula, or of a kind of dish, or of all; those that fewer than two cooks have are left out."""
    found: list[Trend] = []
    for figure, title in TITLES.items():
        if figure == "score":
            points = [_point(p, p.value) for p in trend_repository.scores(formula_id=formula_id, dish=dish)]
        else:
            kind = {"yield": "loss", "shrink": "shrink", "minutes": "heat"}[figure]
            rows = trend_repository.observed(kind, formula_id=formula_id, dish=dish)
            points = [_seen(figure, p) for p in rows]
        if len(points) > 1:
            found.append(Trend(figure, title, tuple(points), control_chart([p.value for p in points])))
    return tuple(found)


def _seen(figure: TrendFigure, p: Point) -> TrendPoint:
    assert p.low is not None
    assert p.high is not None
    assert p.usual is not None
    if figure == "yield":
        return _point(p, 1.0 - p.value, 1.0 - p.high, 1.0 - p.low)
    if figure == "minutes":
        return _point(p, p.value / p.usual, p.low / p.usual, p.high / p.usual)
    return _point(p, p.value, p.low, p.high)


def _point(p: Point, value: float, low: float | None = None, high: float | None = None) -> TrendPoint:
    return TrendPoint(p.cook_id, p.formula_name, p.started_at, value, low, high)
