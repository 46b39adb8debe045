"""Check-weighing: begin a run, do things to the scale, put readings on record."""

from __future__ import annotations

import secrets
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Literal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.learning.from_kitchen import bowl_observation
from vianda.core.weighing.check_weigh import Verdict
from vianda.core.weighing.weighing_run import Aside, Kept, Running, judge, plan_of_weighing, running
from vianda.devices.scale import BenchScale, Reading, ScaleMake
from vianda.devices.simulated_hand import correction_g, lean_g, piece_g
from vianda.devices.simulated_scale import TICK_S, Done, ScaleAction, SimulatedScale
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.storage import observation_repository
from vianda.storage import weighing_repository as repository
from vianda.storage.clock import now_utc
from vianda.storage.formula_repository import get_formula
from vianda.storage.kitchen_repository import load_kitchen
from vianda.storage.records import StoredWeighing, WeighingEventKind
from vianda.storage.transaction import transaction

Action = Literal["piece", "correct", "lift", "paper", "lean", "tare", "keep", "set-aside", "count", "finish", "reopen"]
PAPER_G = 4.0
MOST_EVENTS = 5_000
# A reading that was seen longer ago than this is taken as it was seen: the scale shows another by now.
FRESH_S = 1.0
# A display may flicker between the press and its arrival: so long ago what was seen still stands.
FLICKER_S = 0.7
_SCALE_ACTIONS: dict[str, ScaleAction] = {"load": "load", "paper": "load", "tare": "tare", "lean": "lean"}


@dataclass(frozen=True, slots=True)
class Display:
    """What the scale shows, what to say of it, and the newest event it knows of."""

    reading: Reading
    verdict: Verdict | None
    newest: int


@dataclass(frozen=True, slots=True)
class Weighing:
    """A run as it stands. ``on_record`` says that what lies on the scale is on record already."""

    stored: StoredWeighing
    running: Running
    on_record: bool

    @property
    def number(self) -> int:
        """Its number."""
        return self.stored.id

    @property
    def formula_name(self) -> str:
        """What is weighed."""
        return self.stored.formula_name

    @property
    def started_at(self) -> datetime:
        """When it began, UTC."""
        return self.stored.started_at

    @property
    def finished_at(self) -> datetime | None:
        """When it was closed, UTC."""
        return self.stored.finished_at

    @property
    def tolerance_g(self) -> float:
        """How far off a piece may be, g."""
        return self.stored.plan.tolerance_g

    @property
    def left_g(self) -> float | None:
        """What was left in the bowl, g."""
        return self.stored.left_g

    @property
    def begun_by(self) -> str:
        """Who began it; "" where nobody was signed in."""
        return self.stored.begun_by

    @property
    def newest(self) -> int:
        """The id of the newest event."""
        return self.stored.events[-1].id if self.stored.events else 0


def begin(formula_id: int, *, step_g: int | None = None) -> Weighing:
    """Begin to weigh the pieces of a formula as it stands now, on the kitchen's scale or on one of another step."""
    inventory, kitchen = context()
    with transaction():
        stored = get_formula(formula_id)
        figures = evaluate(stored.formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
        step = step_g or kitchen.scale.step_g
        plan = plan_of_weighing(figures, step_g=step, capacity_g=float(kitchen.scale.capacity_g))
        # What cannot be weighed is refused before anything is written.
        ScaleMake(step_g=plan.step_g, capacity_g=plan.capacity_g)
        seed = secrets.randbelow(2**31)
        return _as_it_stands(repository.create_weighing(formula_id, stored.formula.name, plan, seed=seed))


def get_weighing(weighing_id: int) -> Weighing:
    """One run."""
    return _as_it_stands(repository.get_weighing(weighing_id))


def list_weighings(formula_id: int) -> list[Weighing]:
    """The runs of a formula, newest first."""
    get_formula(formula_id)
    return [_as_it_stands(w) for w in repository.list_weighings(formula_id)]


def display(weighing: Weighing) -> Display:
    """What the scale shows now."""
    reading = _scale(weighing.stored).read(_now_s(weighing.stored))
    said = None
    if reading.shown_g is not None:
        said = judge(weighing.stored.plan, shown_g=reading.shown_g, number=weighing.running.next_number)
    return Display(reading, said, weighing.newest)


def newest_event(weighing_id: int) -> int:
    """The id of the newest event of a run."""
    return repository.newest_event(weighing_id)


def act(
    weighing_id: int,
    *,
    token: str,
    action: Action,
    about: int | None = None,
    seen_g: float | None = None,
    late_s: float = 0.0,
) -> Weighing:
    """Do one thing, once a token.

    ``seen_g`` is what the cook saw, ``late_s`` seconds ago when the line was down. Of a fresh press it counts only if
    the scale did show it steadily just now; else the scale is read.

    Raises
    ------
    OutOfRangeError
        When a reading cannot go on record: the scale moves, shows dashes, is empty, or the piece is on record already.
    """
    with transaction():
        stored = repository.lock_weighing(weighing_id)
        if any(e.token == token for e in stored.events):
            return _as_it_stands(stored)
        if action in ("finish", "reopen"):
            repository.end_weighing(weighing_id, finished=action == "finish")
            if action == "reopen":
                # More may be shaped: what was left then is not what will be left.
                repository.set_leftover(weighing_id, None)
                observation_repository.keep_bowl(weighing_id, stored.started_at, [])
            return get_weighing(weighing_id)
        if stored.finished_at is not None:
            raise OutOfRangeError("This run is finished; open it again to go on.", field="/action")
        if len(stored.events) >= MOST_EVENTS:
            raise OutOfRangeError("This run is full; finish it and begin another.", field="/action")
        at_s = _now_s(stored)
        for kind, value in _events_of(_as_it_stands(stored), action, about=about, seen_g=seen_g, late_s=late_s):
            repository.add_event(weighing_id, token=token, kind=kind, value=value, about=about, at_s=at_s)
        return get_weighing(weighing_id)


def note_leftover(weighing_id: int, left_g: float) -> Weighing:
    """Write down what was left in the bowl, g: with the pieces it says what stayed on bowl and gloves."""
    with transaction():
        found = _as_it_stands(repository.lock_weighing(weighing_id))
        stored, run = found.stored, found.running
        if stored.finished_at is None:
            raise OutOfRangeError("Finish the run first: what is left is what no piece is made of.", field="/left_g")
        if not run.counted:
            raise OutOfRangeError("No piece was weighed: there is nothing to set it beside.", field="/left_g")
        kitchen = load_kitchen().kitchen
        seen = bowl_observation(
            weighing_id,
            stored.started_at.replace(tzinfo=UTC).timestamp(),
            mix_g=stored.plan.bowl_g,
            shaped_g=sum(r.shown_g for r in run.records if r.number),
            left_g=left_g,
            pieces=run.counted,
            step_g=float(stored.plan.step_g),
            factor=kitchen.bowl_factor,
        )
        repository.set_leftover(weighing_id, left_g)
        observation_repository.keep_bowl(weighing_id, stored.started_at, [seen] if seen is not None else [])
        return get_weighing(weighing_id)


def _events_of(
    now: Weighing, action: Action, *, about: int | None, seen_g: float | None, late_s: float
) -> list[tuple[WeighingEventKind, float | None]]:
    stored, seed = now.stored, now.stored.seed
    plan, turn = stored.plan, len(stored.events)
    lies = sum(e.value or 0.0 for e in stored.events if e.kind == "load")
    target = now.running.next_target_g
    if action == "piece":
        # The one that lies there goes to the tray first.
        return [("load", piece_g(seed=seed, number=turn + 1, target_g=target) - lies)]
    if action == "correct":
        if lies < 0.05 * target:
            raise OutOfRangeError("Nothing lies on the scale to add to.", field="/action")
        return [("load", correction_g(seed=seed, number=turn, wanted_g=target - lies))]
    if action == "lift":
        return [("load", -lies)]
    if action == "paper":
        return [("paper", PAPER_G)]
    if action == "lean":
        return [("lean", lean_g(seed=seed, number=turn))]
    if action == "tare":
        _scale(stored).tare(_now_s(stored))
        return [("tare", None)]
    if action == "keep":
        return [("keep", _reading_to_keep(now, seen_g=seen_g, late_s=late_s))]
    known = {e.id for e in stored.events if e.kind == "keep"}
    if about not in known:
        raise OutOfRangeError("There is no such reading on record.", field="/about")
    if action == "count" and now.running.counted >= plan.pieces + 50:
        raise OutOfRangeError("More pieces than were planned, by far.", field="/about")
    return [(("set-aside" if action == "set-aside" else "count"), None)]


def _reading_to_keep(now: Weighing, *, seen_g: float | None, late_s: float) -> float:
    if now.on_record:
        raise OutOfRangeError("This piece is on record; take it off first.", field="/action")
    shown = seen_g if seen_g is not None and late_s > FRESH_S else _steady_g(now, seen_g=seen_g)
    if judge(now.stored.plan, shown_g=shown, number=now.running.next_number).kind == "empty":
        raise OutOfRangeError("Nothing lies on the scale.", field="/action")
    return shown


def _steady_g(now: Weighing, *, seen_g: float | None) -> float:
    """What the scale shows steadily; it flickers by a count, so what the cook saw a moment ago is kept as seen."""
    scale, at_s = _scale(now.stored), _now_s(now.stored)
    reading = scale.read(at_s)
    if reading.shown_g is None:
        raise OutOfRangeError("The scale shows no weight: take something off it.", field="/action")
    touched = max((e.at_s for e in now.stored.events if e.kind in _SCALE_ACTIONS), default=0.0)
    back = at_s
    while seen_g is not None and back > max(touched, at_s - FLICKER_S):
        before = scale.read(back)
        if before.state == "steady" and before.shown_g == seen_g:
            return seen_g
        back -= TICK_S
    if reading.state == "steady":
        return reading.shown_g
    raise OutOfRangeError("The scale has not settled yet; wait until it stands still.", field="/action")


def every_weighing() -> Iterator[Weighing]:
    """All runs of this kitchen, the oldest first."""
    return (_as_it_stands(stored) for stored in repository.every_weighing())


def _as_it_stands(stored: StoredWeighing) -> Weighing:
    kept = _kept(stored)
    last_keep = max((e.id for e in stored.events if e.kind == "keep"), default=0)
    moved = any(e.id > last_keep for e in stored.events if e.kind == "load")
    counts = bool(kept) and kept[-1].aside == ""
    return Weighing(stored, running(stored.plan, kept), on_record=counts and not moved)


def _kept(stored: StoredWeighing) -> list[Kept]:
    """The readings on record; one that is no piece is set aside by itself, until the cook says that it counts."""
    aside: dict[int, Aside] = {}
    for e in stored.events:
        if e.kind in ("set-aside", "count") and e.about is not None:
            aside[e.about] = "cook" if e.kind == "set-aside" else ""
    kept: list[Kept] = []
    number = 1
    for e in stored.events:
        if e.kind != "keep" or e.value is None:
            continue
        odd = judge(stored.plan, shown_g=e.value, number=number).kind == "odd"
        why: Aside = aside.get(e.id, "odd" if odd else "")
        number += why == ""
        kept.append(Kept(e.id, e.value, e.at_s, why))
    return kept


def _scale(stored: StoredWeighing) -> BenchScale:
    """The scale on the bench: a simulated one, until a real one stands behind the port."""
    actions = tuple(
        Done(e.at_s, _SCALE_ACTIONS[e.kind], e.value or 0.0) for e in stored.events if e.kind in _SCALE_ACTIONS
    )
    make = ScaleMake(step_g=stored.plan.step_g, capacity_g=stored.plan.capacity_g)
    return SimulatedScale(make, stored.seed, actions)


def _now_s(stored: StoredWeighing) -> float:
    """Seconds from the start, never before the newest event: the server's clock may be set back."""
    since = (now_utc() - stored.started_at).total_seconds()
    return max(since, stored.events[-1].at_s if stored.events else 0.0)
