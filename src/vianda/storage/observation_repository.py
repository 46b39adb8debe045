"""What cooks say of what is learnt, each once; each kitchen's own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, cast

from vianda.core.learning.figures import LearntFigure, Observation
from vianda.storage.here import kitchen_here
from vianda.storage.records import NotFoundError
from vianda.storage.tables import CookLineRow, ObservationRow

# Figures whose number is a cook's; minutes have that of a run, pots their own, bowls that of a check-weighing.
OF_COOKS: tuple[LearntFigure, ...] = ("loss", "shrink", "heat")
MINUTES: LearntFigure = "minutes"
# Figures learn from their newest readings; so many of each are read.
MOST_READ = 400


@dataclass(frozen=True, slots=True)
class SeenIn:
    """A cook that something was observed in: its formula's name and when it began."""

    cook_id: int
    formula_name: str
    started_at: datetime


def keep_observations(cook_id: int, started_at: datetime, observations: Sequence[Observation]) -> None:
    """What a cook says, in place of what it said before; what was set aside stays so."""
    _keep(ObservationRow.figure.in_(OF_COOKS), cook_id, started_at, observations)


def keep_minutes(run_id: int, started_at: datetime, observations: Sequence[Observation]) -> None:
    """What a service under way says of minutes, in place of what it said before."""
    _keep((ObservationRow.figure == MINUTES), run_id, started_at, observations)


def add_evaporation(observation: Observation, at: datetime) -> None:
    """Keep what a pot says, after those that are there. Call it in a transaction."""
    of = (ObservationRow.kitchen_id == kitchen_here()) & (ObservationRow.figure == observation.figure)
    # A locking read: two that are written down in one moment get two numbers.
    newest = ObservationRow.select().where(of).order_by(ObservationRow.cook_id.desc()).limit(1).for_update()
    number = next((row.cook_id for row in newest), 0) + 1
    _keep(ObservationRow.figure == observation.figure, number, at, [observation])


def keep_bowl(weighing_id: int, at: datetime, observations: Sequence[Observation]) -> None:
    """What a run of check-weighing says of the bowl, in place of what it said before."""
    _keep(ObservationRow.figure == "bowl", weighing_id, at, observations)


def _keep(of: Any, cook_id: int, started_at: datetime, observations: Sequence[Observation]) -> None:
    mine = (ObservationRow.kitchen_id == kitchen_here()) & (ObservationRow.cook_id == cook_id) & of
    aside = {(r.figure, r.piece) for r in ObservationRow.select().where(mine & ObservationRow.aside)}
    ObservationRow.delete().where(mine).execute()
    for one in observations:
        ObservationRow.insert(
            kitchen_id=kitchen_here(),
            figure=one.figure,
            cook_id=cook_id,
            piece=one.piece,
            style=one.style,
            surface=one.surface,
            at=started_at,
            observed=one.observed,
            low=one.low,
            usual=one.usual,
            high=one.high,
            value=one.value,
            sd=one.sd,
            aside=(one.figure, one.piece) in aside,
            # The column was made for tasks; pots and bowls stand in it too.
            task=one.thing,
        ).execute()


def observations(figure: LearntFigure) -> list[Observation]:
    """The newest observations of a figure, by time."""
    rows = (
        ObservationRow.select()
        .where((ObservationRow.kitchen_id == kitchen_here()) & (ObservationRow.figure == figure))
        .order_by(ObservationRow.at.desc(), ObservationRow.cook_id.desc(), ObservationRow.piece.desc())
        .limit(MOST_READ)
    )
    return [
        Observation(
            cast(LearntFigure, r.figure),
            r.cook_id,
            r.at.replace(tzinfo=UTC).timestamp(),
            r.style,
            r.surface,
            r.observed,
            r.low,
            r.usual,
            r.high,
            r.value,
            r.sd,
            r.piece,
            bool(r.aside),
            r.task,
        )
        for r in rows
    ][::-1]


def set_aside(figure: LearntFigure, cook_id: int, piece: int, *, aside: bool) -> None:
    """Say that an observation does not count, or that it does again."""
    here = (
        (ObservationRow.kitchen_id == kitchen_here())
        & (ObservationRow.figure == figure)
        & (ObservationRow.cook_id == cook_id)
        & (ObservationRow.piece == piece)
    )
    if ObservationRow.get_or_none(here) is None:
        raise NotFoundError("observation")
    ObservationRow.update(aside=aside).where(here).execute()


def seen_in(cook_ids: Sequence[int]) -> list[SeenIn]:
    """The cooks that something was observed in, in one question."""
    if not cook_ids:
        return []
    rows = CookLineRow.select(CookLineRow.cook_id, CookLineRow.formula_name, CookLineRow.started_at).where(
        (CookLineRow.kitchen_id == kitchen_here()) & CookLineRow.cook_id.in_(sorted(set(cook_ids)))
    )
    return [SeenIn(r.cook_id, r.formula_name, r.started_at) for r in rows]
