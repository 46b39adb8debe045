"""A run of check-weighing: what was planned, what is on record, and what that comes to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from vianda.core.evaluation.evaluate import Evaluation
from vianda.core.model.styles import Form
from vianda.core.weighing.check_weigh import BowlForecast, Verdict, VerdictKind, bowl_forecast, tolerance_g, verdict
from vianda.core.weighing.control_chart import Broken, ControlChart, control_chart

Aside = Literal["", "odd", "cook"]


@dataclass(frozen=True, slots=True)
class WeighingPlan:
    """What is to be weighed, fixed when it began. ``last`` says that the remainder goes to the last piece."""

    form: Form
    pieces: int
    piece_g: float
    heavier_pieces: int
    heavier_g: float
    last: bool
    bowl_g: float
    loss_g: float
    step_g: int
    capacity_g: float
    tolerance_g: float

    def target_g(self, number: int) -> float:
        """What the piece of a number (from 1) should weigh: the first ones, or the last one, take the remainder.

        Parameters
        ----------
        number : int
            Number of the piece, from 1 (count).

        Returns
        -------
        float
            What it should weigh, g.

        Examples
        --------
        >>> plan = WeighingPlan("disc", 8, 87, 4, 88, False, 700, 0, 1, 5000, 2)
        >>> [plan.target_g(number) for number in (1, 4, 5)]
        [88, 88, 87]
        """
        takes_more = number == self.pieces if self.last else number <= self.heavier_pieces
        return self.heavier_g if self.heavier_pieces and takes_more else self.piece_g


@dataclass(frozen=True, slots=True)
class Kept:
    """A reading on record: what the scale showed, when (s from the start), and why it does not count, if so."""

    id: int
    shown_g: float
    at_s: float
    aside: Aside = ""


@dataclass(frozen=True, slots=True)
class PieceRecord:
    """One reading as judged. ``number`` 0 when it is set aside; ``off_g`` is above zero when it is heavy."""

    id: int
    number: int
    shown_g: float
    target_g: float
    off_g: float
    at_s: float
    verdict: VerdictKind
    aside: Aside


@dataclass(frozen=True, slots=True)
class Running:
    """Where a run stands. Chart and spread are of readings brought to the plain target, so that a heavier piece that is
    meant to be heavier does not count as an outlier; ``broken`` speaks of counted pieces by number, from 1."""

    records: tuple[PieceRecord, ...]
    counted: int
    good: int
    next_number: int
    next_target_g: float
    chart: ControlChart
    broken: tuple[Broken, ...]
    bowl: BowlForecast
    complete: bool


def plan_of_weighing(evaluation: Evaluation, *, step_g: int, capacity_g: float) -> WeighingPlan:
    """The plan of a formula as it stands, on a scale of a step.

    Parameters
    ----------
    evaluation : Evaluation
        The evaluated formula.
    step_g : int
        Step of the scale, g, above 0.
    capacity_g : float
        Most the scale carries, g.

    Returns
    -------
    WeighingPlan
        What is to be weighed, fixed when it began.
    """
    portions, batch = evaluation.portions, evaluation.batch_yield
    return WeighingPlan(
        form=evaluation.shape.form,
        pieces=portions.pieces,
        piece_g=float(portions.piece_mass_g),
        heavier_pieces=portions.heavier_pieces,
        heavier_g=float(portions.heavier_mass_g),
        last=portions.remainder == "last",
        bowl_g=batch.bowl_g,
        loss_g=batch.loss_g,
        step_g=step_g,
        capacity_g=capacity_g,
        tolerance_g=tolerance_g(target_g=portions.piece_mass_g, step_g=step_g),
    )


def judge(plan: WeighingPlan, *, shown_g: float, number: int) -> Verdict:
    """The verdict on what lies on the scale as the piece of a number.

    Parameters
    ----------
    plan : WeighingPlan
        The plan of the weighing.
    shown_g : float
        What the scale shows, g.
    number : int
        Number of the piece, from 1 (count).

    Returns
    -------
    Verdict
        Whether what lies on the scale is good.
    """
    return verdict(shown_g=shown_g, target_g=plan.target_g(number), tolerance=plan.tolerance_g)


def running(plan: WeighingPlan, kept: Sequence[Kept]) -> Running:
    """What the record comes to so far.

    Parameters
    ----------
    plan : WeighingPlan
        The plan of the weighing.
    kept : Sequence[Kept]
        Readings on record.

    Returns
    -------
    Running
        Where a run stands.

    Examples
    --------
    >>> plan = WeighingPlan("disc", 3, 85, 0, 85, False, 255, 0, 1, 5000, 2)
    >>> r = running(plan, [Kept(1, 86, 10), Kept(2, 397, 20, "odd"), Kept(3, 84, 30)])
    >>> r.counted, r.next_number, r.bowl.left_g, r.bowl.comes_out
    (2, 3, 85.0, True)
    """
    records: list[PieceRecord] = []
    readings: list[float] = []
    shaped, number = 0.0, 0
    for one in kept:
        counts = one.aside == ""
        number += counts
        target = plan.target_g(number if counts else number + 1)
        off = one.shown_g - target
        said = verdict(shown_g=one.shown_g, target_g=target, tolerance=plan.tolerance_g)
        records.append(
            PieceRecord(one.id, number if counts else 0, one.shown_g, target, off, one.at_s, said.kind, one.aside)
        )
        if counts:
            readings.append(plan.piece_g + off)
            shaped += one.shown_g
    to_come = max(0, plan.pieces - number)
    chart = control_chart(readings, step_g=plan.step_g)
    return Running(
        records=tuple(records),
        counted=number,
        good=sum(1 for r in records if r.number and r.verdict == "good"),
        next_number=number + 1,
        next_target_g=plan.target_g(number + 1),
        chart=chart,
        broken=tuple(Broken(b.rule, b.at + 1) for b in chart.broken),
        bowl=bowl_forecast(
            bowl_g=plan.bowl_g,
            shaped_g=shaped,
            to_come=to_come,
            to_come_g=sum(plan.target_g(n) for n in range(number + 1, plan.pieces + 1)),
            # What sticks does so from the first piece on; until the end the bowl still looks fuller than it is.
            loss_g=plan.loss_g,
            tolerance=plan.tolerance_g,
        ),
        complete=to_come == 0,
    )
