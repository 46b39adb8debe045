"""Counsel of time: each rule just inside and just outside its figure, on plans made by hand."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.phrase import Phrase, count, mass, say, word
from vianda.core.demo.formulas import beacon_grill, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.model.formula import Timing
from vianda.core.pipeline.compute import compute
from vianda.core.schedule.chance import Chances
from vianda.core.schedule.model import Lag, Plan, Problem, Resource, Slot, Task
from vianda.core.timetable.remarks import RULES, TimeRemark, named, remarks_on
from vianda.core.timetable.sheet import Dish
from vianda.core.timetable.timetable import timetable, timetable_together

LAST = Slot("serve", 0, 1, None, ())
READY = 18 * 60 + 30


def _task(key: str, **more: object) -> Task:
    return Task(key, say("Task {n}", n=word(key)), 1.0, 2.0, 3.0, **more)  # type: ignore[arg-type]


def _said(
    tasks: list[Task],
    slots: list[Slot],
    *,
    lags: tuple[Lag, ...] = (),
    places: tuple[Resource, ...] = (),
    cooks: int = 1,
    late: int = 0,
    pinned: dict[str, int] | None = None,
    ready: int = READY,
    on_time: float = 0.95,
    waits: float = 0.0,
    floats: dict[str, int | None] | None = None,
) -> dict[str, TimeRemark]:
    problem = Problem(
        (*tasks, Task("serve", say("On the plate"), 1.0, 1.0, 1.0)), lags, places, "serve", cooks, pinned=pinned or {}
    )
    every = {t.key: None for t in problem.tasks} | (floats or {})
    found = Chances(on_time, 7.0, waits, every, {t.key: None for t in problem.tasks})
    remarks = remarks_on(problem, Plan((*slots, LAST), late, True), found, ready_min=ready)
    assert len({r.key for r in remarks}) == len(remarks)
    return {r.key: r for r in remarks}


def _worked(*spans: tuple[int, int], cook: int = 0, dish: str = "") -> tuple[list[Task], list[Slot]]:
    tasks = [_task(f"c{cook}-{n}", hands=True, dish=dish) for n in range(len(spans))]
    return tasks, [Slot(t.key, a, b, cook, ()) for t, (a, b) in zip(tasks, spans, strict=True)]


def _filled(phrase: Phrase) -> str:
    return phrase.text.format(**{k: a.text if a.text is not None else a.value for k, a in phrase.amounts.items()})


@pytest.mark.parametrize(("on_time", "said"), [(0.90, False), (0.899, True), (0.5, True), (0.99, False)])
def test_nine_of_ten_evenings(on_time: float, said: bool) -> None:
    assert ("unsure" in _said(*_worked((-30, -20)), on_time=on_time)) is said
    # A plan that is late says so itself.
    assert "unsure" not in _said(*_worked((-30, -20)), on_time=0.1, late=20)


@pytest.mark.parametrize(("busy", "said"), [(54, False), (55, True), (60, True)])
def test_the_last_hour_has_a_free_minute(busy: int, said: bool) -> None:
    # Serving ends a minute after the hour: what is looked at are the sixty minutes before that.
    remarks = _said(*_worked((-120, -100), (1 - busy, 1)))
    assert ("no-free-hand" in remarks) is said
    if said:
        assert remarks["no-free-hand"].title.amounts["busy"].value == busy
    second = _task("other", hands=True)
    tasks, slots = _worked((1 - busy, 1))
    two = _said([*tasks, second], [*slots, Slot("other", -200, -190, 1, ())], cooks=2)
    assert "no-free-hand" not in two


def test_a_cook_who_has_nothing_to_do_is_told() -> None:
    tasks, slots = _worked((-30, -20))
    assert "idle-cook" not in _said(tasks, slots)
    assert _filled(_said(tasks, slots, cooks=2)["idle-cook"].title) == "One cook with nothing to do"
    three = _said(tasks, slots, cooks=3)["idle-cook"]
    assert _filled(three.title) == "2 cooks with nothing to do"
    assert three.level == "fact"


@pytest.mark.parametrize(("waits", "said"), [(8.0, False), (8.1, True), (0.0, False)])
def test_what_lies_on_bread_does_not_wait(waits: float, said: bool) -> None:
    tasks, slots = _worked((-30, -20))
    toast = _task("f1-toast-1")
    with_bread = _said([*tasks, toast], [*slots, Slot("f1-toast-1", -5, -3, None, ())], waits=waits)
    assert ("waits-hot" in with_bread) is said
    # A loaf holds.
    assert "waits-hot" not in _said(tasks, slots, waits=60.0)


@pytest.mark.parametrize(("gap", "said"), [(30, False), (31, True)])
def test_half_an_hour_between_heat_and_plate(gap: int, said: bool) -> None:
    tasks, slots = _worked((-gap - 10, -gap))
    remarks = _said(tasks, slots, lags=(Lag("c0-0", "serve", hot=True),))
    assert ("held-long" in remarks) is said
    assert "held-long" not in _said(tasks, slots, lags=(Lag("c0-0", "serve"),))
    if said:
        assert "hot holding" in remarks["held-long"].reason.text


@pytest.mark.parametrize(("after_c", "minutes"), [(169.0, 0), (170.0, 1), (200.0, 4), (120.0, 10)])
def test_an_oven_that_changes_says_when_to_turn_it(after_c: float, minutes: int) -> None:
    oven = Resource("oven", "Fan oven", 2)
    tasks = [_task("a", needs=("oven",), oven_c=160.0), _task("b", needs=("oven",), oven_c=after_c)]
    slots = [Slot("a", -120, -80, None, (("oven", 0),)), Slot("b", -60, -10, None, (("oven", 0),))]
    remarks = _said(tasks, slots, places=(oven,))
    assert ("two-temperatures" in remarks) is (minutes > 0)
    if minutes:
        said = remarks["two-temperatures"]
        assert said.reason.amounts["m"].value == minutes
        turn = READY - 60 - minutes
        assert said.reason.amounts["at"].text == f"{turn // 60}:{turn % 60:02d}"


@pytest.mark.parametrize(("taken", "said"), [(84, False), (85, True), (100, True)])
def test_a_place_that_is_never_free(taken: int, said: bool) -> None:
    plate = Resource("plate", "Flat plate")
    tasks = [_task("a", needs=("plate",)), _task("b", needs=("plate",))]
    slots = [Slot("a", -100, -100 + taken - 10, None, (("plate", 0),)), Slot("b", -10, 0, None, (("plate", 0),))]
    assert ("narrow-place" in _said(tasks, slots, places=(plate,))) is said
    # Two places of it are half as full.
    assert "narrow-place" not in _said(tasks, slots, places=(replace(plate, places=2),))


@pytest.mark.parametrize(("span", "said"), [(44, False), (45, True)])
def test_a_place_that_is_full_for_a_moment_is_no_matter(span: int, said: bool) -> None:
    plate = Resource("plate", "Flat plate")
    slots = [Slot("a", -span, 0, None, (("plate", 0),))]
    assert ("narrow-place" in _said([_task("a", needs=("plate",))], slots, places=(plate,))) is said


@pytest.mark.parametrize(("tasks_done", "said"), [(7, False), (8, True)])
def test_from_dish_to_dish_and_back(tasks_done: int, said: bool) -> None:
    tasks = [_task(f"t{n}", hands=True, dish=("Loaf", "Balls")[n % 2]) for n in range(tasks_done)]
    slots = [Slot(t.key, -58 + 5 * n, -56 + 5 * n, 0, ()) for n, t in enumerate(tasks)]
    remarks = _said(tasks, slots)
    assert ("torn" in remarks) is said
    if said:
        assert remarks["torn"].title.amounts["n"].value == tasks_done - 1
    # An hour earlier nobody is torn.
    assert "torn" not in _said(tasks, [replace(s, start_min=s.start_min - 90, end_min=s.end_min - 90) for s in slots])


@pytest.mark.parametrize(
    ("start", "when"), [(-READY, ""), (-READY - 1, "the day before"), (-READY - 1441, "2 days before")]
)
def test_what_begins_before_the_day(start: int, when: str) -> None:
    task = _task("pickle", when="ahead")
    remarks = _said([task], [Slot("pickle", start, start + 5, 0, ())])
    assert ("days-ahead" in remarks) is bool(when)
    if when:
        assert remarks["days-ahead"].title.amounts["when"].text == when


@pytest.mark.parametrize(("minute", "said"), [(5 * 60, False), (5 * 60 - 1, True), (0, True)])
def test_nobody_begins_before_five_without_a_word(minute: int, said: bool) -> None:
    tasks, slots = _worked((minute - READY, minute - READY + 10))
    assert ("before-five" in _said(tasks, slots)) is said
    ahead = [replace(tasks[0], when="ahead")]
    assert "before-five" not in _said(ahead, slots)


@pytest.mark.parametrize(("minutes", "said"), [(120, False), (121, True)])
def test_two_hours_without_a_pause(minutes: int, said: bool) -> None:
    tasks, slots = _worked((-200, -150), (-150, -200 + minutes))
    assert ("no-pause" in _said(tasks, slots)) is said
    # A minute between them is one.
    paused, later = _worked((-200, -150), (-149, -199 + minutes))
    assert "no-pause" not in _said(paused, later)


@pytest.mark.parametrize(("minutes", "said"), [(90, False), (91, True)])
def test_what_nobody_looks_at(minutes: int, said: bool) -> None:
    hob = Resource("hob", "Hob", 2)
    slot = Slot("pot", -minutes - 10, -10, None, (("hob", 0),))
    assert ("unwatched" in _said([_task("pot", needs=("hob",))], [slot], places=(hob,))) is said
    assert "unwatched" not in _said([_task("pot")], [replace(slot, places=())])


@pytest.mark.parametrize(("slip", "said"), [(4, True), (5, False), (None, False), (0, True)])
def test_a_day_whose_first_task_may_not_slip(slip: int | None, said: bool) -> None:
    tasks, slots = _worked((-90, -60), (-50, -40))
    remarks = _said(tasks, slots, floats={"c0-0": slip})
    assert ("no-slack-at-start" in remarks) is said
    # In the last hour that is as it should be.
    tasks, slots = _worked((-60, -40))
    assert "no-slack-at-start" not in _said(tasks, slots, floats={"c0-0": 0})


def test_a_pin_that_makes_the_plate_late_is_told() -> None:
    tasks, slots = _worked((-30, -20), (-10, 5))
    assert "pinned-late" not in _said(tasks, slots, late=5)
    assert "pinned-late" not in _said(tasks, slots, pinned={"c0-0": -30})
    assert _filled(_said(tasks, slots, late=5, pinned={"c0-0": -30})["pinned-late"].title).startswith("One task is")
    both = _said(tasks, slots, late=5, pinned={"c0-0": -30, "c0-1": -10})
    assert _filled(both["pinned-late"].title).startswith("2 tasks are")


def test_an_empty_plan_has_nothing_to_say() -> None:
    assert _said([], []) == {}


def test_warnings_come_first_and_every_rule_has_spoken_somewhere() -> None:
    dishes = [
        Dish(f"f{n}-", make.__name__, compute(make(), inventory=INVENTORY, kitchen=KITCHEN))
        for n, make in enumerate((slipway_smash, keepers_loaf, night_watch_balls))
    ]
    table = timetable_together(dishes, timing=Timing(cooks=1))
    levels = [r.level for r in table.remarks]
    assert levels == sorted(levels, key=lambda level: level != "warn")
    keys = {r.key for r in table.remarks}
    assert "two-temperatures" in keys
    assert len(RULES) == 15
    assert timetable(compute(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN)).remarks == ()


def test_a_mass_in_a_name_stays_out_of_a_sentence() -> None:
    task = Task("g", say("Grind {m} twice for {n}", m=mass(1499.0), n=count(40)), 1.0, 2.0, 3.0)
    assert named(task).text == "Grind twice for 40"


@pytest.mark.parametrize(
    ("ends", "said"),
    [
        (-60, ""),
        # Ten minutes to spare, and nine.
        (-45, ""),
        (-44, "fire-to-spare"),
        # To the minute, and a minute over.
        (-35, "fire-to-spare"),
        (-34, "fire-burns-down"),
        (0, "fire-burns-down"),
    ],
)
def test_a_fire_lasts_to_the_last_wave(ends: int, said: str) -> None:
    grate = Resource("grate", "Kettle", lasts_min=60)
    tasks = [_task("a-preheat", needs=("grate",)), _task("a-wave", needs=("grate",), hands=True)]
    slots = [Slot("a-preheat", -120, -95, None, (("grate", 0),)), Slot("a-wave", ends - 20, ends, 0, (("grate", 0),))]
    remarks = _said(tasks, slots, places=(grate,))
    assert [key for key in ("fire-to-spare", "fire-burns-down") if key in remarks] == [said] * bool(said)
    # What burns down never, such as gas, is no fire.
    assert (
        not {"fire-to-spare", "fire-burns-down"} & _said(tasks, slots, places=(replace(grate, lasts_min=None),)).keys()
    )
    if said == "fire-burns-down":
        assert _filled(remarks[said].title).startswith("Kettle is past its best at 17:55")
        # Twenty-five minutes before it is gone, as long as it took to light.
        assert _filled(remarks[said].reason).startswith("Light more by 17:30")
    elif said:
        assert remarks[said].title.amounts["m"].value == -35 - ends


def test_a_grill_with_less_charcoal_than_waves_has_more_lit_in_time_and_is_not_called_gone() -> None:
    grate = next(s for s in KITCHEN.surfaces if s.kind == "grate")
    short = replace(grate, heating=replace(grate.heating, lasts_min=10.0))
    kitchen = replace(KITCHEN, surfaces=tuple(short if s.key == grate.key else s for s in KITCHEN.surfaces))
    formula = replace(beacon_grill(), dish=replace(beacon_grill().dish, guests=40))
    found = timetable(compute(formula, inventory=INVENTORY, kitchen=kitchen))
    assert "fire-burns-down" not in {r.key for r in found.remarks}
    starts = {t.key: t.start_min for t in found.tasks}
    assert starts["kindle-1"] + 25 < starts["feed-1"] < max(v for k, v in starts.items() if k.startswith("wave"))
