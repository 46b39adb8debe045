"""When to do what: tasks come from what the other steps decided, and every plan keeps what it says."""

from __future__ import annotations

from dataclasses import replace

import pytest

from formulas import blended, lines, mixed, smash
from heat_formulas import INVENTORY, KITCHEN, edited
from vianda.core.basis.errors import OutOfRangeError, UnknownItemError, UnreadableEntryError
from vianda.core.demo.formulas import (
    DEMO_FORMULAS,
    beacon_grill,
    keepers_loaf,
    night_watch_balls,
    slipway_smash,
    supply_boat_ragu,
)
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import HouseFormula, HouseLine, starter_pantry
from vianda.core.model.edit import AddTask, DropTask, PinTask, TypeTiming
from vianda.core.model.formula import MOST_OWN_TASKS, Accompaniment, Formula, StackLayer, Timing
from vianda.core.model.styles import all_styles
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.figures import Figures
from vianda.core.reading.clock import clock_text, read_clock_min
from vianda.core.schedule.chance import drawn_min, evenings
from vianda.core.schedule.check import broken
from vianda.core.schedule.model import Plan, Problem, UnsettledError
from vianda.core.schedule.solve import solve
from vianda.core.timetable.sheet import LAST, Dish
from vianda.core.timetable.tasks import tasks_of, tasks_together
from vianda.core.timetable.timetable import Timetable, timetable, timetable_together


def _house(key: str, keeps_days: int, **grams: float) -> object:
    made = tuple(HouseLine(k.replace("_", "-"), g) for k, g in grams.items())
    return replace(starter_pantry()["mayonnaise"], key=key, name=key, house=HouseFormula(made, 0.0, keeps_days))


LARDER = Inventory.of(
    INVENTORY.meats.values(),
    (),
    [
        *INVENTORY.pantry.values(),
        _house("own-sauce", 3, mayonnaise=150, ketchup=60),  # type: ignore[list-item]
        _house("own-pickles", 14, onion=200, vinegar=200),  # type: ignore[list-item]
        _house("own-kraut", 30, cabbage=500, salt_fine=11),  # type: ignore[list-item]
        _house("own-gravy", 2, stock=600, flour=40),  # type: ignore[list-item]
    ],
)


def _figures(formula: Formula) -> Figures:
    return compute(formula, inventory=LARDER, kitchen=KITCHEN)


def _table(formula: Formula) -> Timetable:
    return timetable(_figures(formula))


def _problem(formula: Formula) -> Problem:
    return tasks_of(_figures(formula))


def _keys(formula: Formula) -> set[str]:
    return {t.key for t in _problem(formula).tasks}


def _beside(formula: Formula, role: str, key: str) -> Formula:
    return replace(formula, beside=(*formula.beside, Accompaniment(role, key, 20.0)))  # type: ignore[arg-type]


def _says(text: object) -> str:
    return text.text.format(**{k: a.text if a.text is not None else a.value for k, a in text.amounts.items()})  # type: ignore[attr-defined]


STYLES = list(all_styles())


@pytest.mark.parametrize("style", STYLES)
def test_every_style_has_a_plan_that_keeps_everything(style: str) -> None:
    base = next((f() for f in DEMO_FORMULAS if f().dish.style == style), None)
    formula = base or (mixed(style=style) if style not in ("smashed-taco",) else smash(style=style))
    problem = _problem(formula)
    plan = solve(problem)
    assert plan is not None
    assert broken(problem, plan) == []
    assert plan.late_min == 0
    assert plan.slot(LAST).end_min <= 0


@pytest.mark.parametrize("make", DEMO_FORMULAS)
def test_it_is_on_time_in_nine_of_ten_evenings_that_the_plan_has_not_seen(make) -> None:
    figures = _figures(make())
    table = timetable(figures)
    assert table.on_time_frac >= 0.93
    problem = tasks_of(figures)
    plan = solve(problem, cushion_min=table.cushion_min)
    assert plan is not None
    # Other evenings than those it was chosen by.
    _, ends = evenings(problem, plan, drawn_min(problem.tasks, draws=4000, seed=20261128))
    last = [t.key for t in problem.tasks].index(LAST)
    assert (ends[:, last] <= 5.0).mean() >= 0.90
    assert timetable(figures) == table


# --------------------------------------------------------------------------------------------------- what is to be done


def test_every_wave_is_cooked_and_built_in_order() -> None:
    problem = _problem(slipway_smash())
    waves = [t.key for t in problem.tasks if t.key.startswith("wave-")]
    assert waves == ["wave-1", "wave-2", "wave-3"]
    plan = solve(problem)
    assert plan is not None
    starts = [plan.slot(k).start_min for k in waves]
    assert starts == sorted(starts)
    for n in (1, 2, 3):
        assert plan.slot(f"build-{n}").start_min > plan.slot(f"wave-{n}").end_min
        # Bread is toasted at most five minutes before it is laid.
        assert 0 <= plan.slot(f"build-{n}").start_min - plan.slot(f"toast-{n}").end_min <= 5


def test_many_waves_are_told_in_groups_and_none_is_lost() -> None:
    problem = _problem(replace(smash(guests=400), seasoning=smash().seasoning))
    figures = _figures(smash(guests=400))
    groups = [t for t in problem.tasks if t.key.startswith("wave-")]
    assert len(groups) <= 10 < figures.cook.stove.waves
    one = figures.cook.plan.on_heat_s.usual / 60.0
    assert sum(t.usual_min for t in groups) == pytest.approx(one * figures.cook.stove.waves)
    pieces = sum(int(t.title.amounts["p"].value or 0) for t in groups)
    assert pieces == figures.batch.portions.pieces


def test_meat_that_comes_ground_is_not_ground_again() -> None:
    assert {"cut-cubes", "freeze-cubes", "grind"} <= _keys(smash(parts=blended(chuck=1.0)))
    assert not {"cut-cubes", "freeze-cubes", "grind"} & _keys(smash(parts=blended(ground_80=1.0)))


def test_a_panade_soaks_and_onions_cool_before_the_bowl() -> None:
    loaf = mixed(style="loaf-free", lines=lines(panko=8, milk=10, egg=8, soft_onion=10))
    problem = _problem(loaf)
    after = {(x.before, x.after) for x in problem.lags}
    assert {("panade", "soak"), ("soak", "mix"), ("soften-soft-onion", "cool-soft-onion")} <= after
    assert ("cool-soft-onion", "mix") in after
    assert problem.task("soak").usual_min == loaf.mix.soak_min
    assert problem.task("chill").usual_min == loaf.mix.chill_min
    assert "soak" not in _keys(mixed(style="loaf-free", lines=lines(egg=8)))


def test_balls_simmer_in_a_sauce_that_is_there_before_them() -> None:
    problem = _problem(_beside(night_watch_balls(), "cooking-sauce", "own-gravy"))
    assert ("beside-own-gravy", "simmer") in {(x.before, x.after) for x in problem.lags}
    assert "simmer" not in _keys(keepers_loaf())
    # Browned in loads, then one pot.
    ragu = _problem(supply_boat_ragu())
    loads = [t.key for t in ragu.tasks if t.key.startswith("wave-")]
    assert {(k, "simmer") for k in loads} <= {(x.before, x.after) for x in ragu.lags}


def test_what_keeps_is_made_ahead_and_not_longer_than_it_keeps() -> None:
    formula = slipway_smash()
    for role, key in (("burger-sauce", "own-sauce"), ("pickle", "own-pickles"), ("ferment", "own-kraut")):
        formula = _beside(formula, role, key)
    problem = _problem(formula)
    lag = {x.before: x for x in problem.lags}
    assert (lag["beside-own-sauce"].least_min, lag["beside-own-sauce"].most_min) == (0, 3 * 1440)
    assert (lag["beside-own-pickles"].least_min, lag["beside-own-pickles"].most_min) == (1440, 14 * 1440)
    assert lag["beside-own-kraut"].least_min == 3 * 1440
    table = _table(formula)
    days = {t.key: t.day for t in table.tasks}
    assert days["beside-own-pickles"] <= -1
    assert days["beside-own-kraut"] <= -3
    assert days["beside-own-sauce"] == 0
    pickles = next(t for t in table.tasks if t.key == "beside-own-pickles")
    assert "24 h before" in _says(pickles.why) or "cannot hold up" in _says(pickles.why)


def test_a_gravy_stands_hot_and_a_bought_thing_is_no_task() -> None:
    keys = _keys(_beside(_beside(keepers_loaf(), "gravy", "own-gravy"), "topping", "ketchup"))
    assert {"begin-own-gravy", "beside-own-gravy"} <= keys
    assert "beside-ketchup" not in keys


def test_what_is_cut_for_the_build_is_one_task() -> None:
    plain = replace(slipway_smash(), stack=(StackLayer("heel"), StackLayer("patty"), StackLayer("crown")))
    assert "cut" not in _keys(plain)
    assert not any(k.startswith("toast") for k in _keys(plain))
    leafy = replace(plain, stack=(*plain.stack[:2], StackLayer("tomato", "tomato"), StackLayer("crown", toasted=True)))
    assert {"cut", "toast-1"} <= _keys(leafy)


def test_a_fire_is_lit_in_time_and_gone_after_its_hour() -> None:
    problem = _problem(beacon_grill())
    assert problem.task("preheat").usual_min == 25.0
    lags = [x for x in problem.lags if x.before == "preheat"]
    assert any(x.after == "wave-2" and x.most_min is not None and x.most_min < 60 for x in lags)
    # A fire that lasts no longer than its waves and the change between them is fed meanwhile, and binds nothing.
    grate = next(s for s in KITCHEN.surfaces if s.kind == "grate")
    on_heat = _figures(beacon_grill()).cook.plan.on_heat_s.usual / 60.0
    for lasts, bound in ((2 * on_heat + 2, True), (2 * on_heat, False)):
        short = replace(grate, heating=replace(grate.heating, lasts_min=lasts))
        kitchen = replace(KITCHEN, surfaces=tuple(short if s.key == grate.key else s for s in KITCHEN.surfaces))
        found = tasks_of(compute(beacon_grill(), inventory=LARDER, kitchen=kitchen)).lags
        assert any(x.before == "preheat" and x.after == "wave-2" for x in found) is bound


def test_a_timetable_that_cannot_be_has_no_tasks_and_says_what_would_help() -> None:
    pinned = edited(slipway_smash(), PinTask("wave-1", -10), PinTask("wave-2", -10))
    table = _table(pinned)
    assert table.impossible
    assert table.tasks == ()
    assert table.lanes == ()
    assert "No order" in table.says.text
    assert any(isinstance(o.edit, PinTask) for o in table.offers)


# -------------------------------------------------------------------------------------------------------- own tasks


def _timed(**changes: object) -> Formula:
    return replace(keepers_loaf(), timing=replace(Timing(), **changes))  # type: ignore[arg-type]


def test_roots_in_the_same_oven_at_another_heat_wait_for_the_loaf() -> None:
    add = AddTask("Roots", "40 min", hands=False, surface="fan-oven", oven="200 °C", hot=True)
    formula = edited(keepers_loaf(), add)
    own = formula.timing.own[0]
    assert (own.key, own.title, own.minutes, own.oven_c, own.hot) == ("own-1", "Roots", 40.0, 200.0, True)
    problem = _problem(formula)
    plan = solve(problem)
    assert plan is not None
    assert broken(problem, plan) == []
    loaf, roots = plan.slot("wave-1"), plan.slot("own-1")
    assert roots.start_min >= loaf.end_min + 3 or loaf.start_min >= roots.end_min
    table = _table(formula)
    assert next(t for t in table.tasks if t.key == "own-1").own


def test_own_tasks_are_added_refused_and_left_out() -> None:
    two = edited(keepers_loaf(), AddTask("Table", "10 min"), AddTask("Greens", "1 h 5 min", surface="iron-pan"))
    assert [t.key for t in two.timing.own] == ["own-1", "own-2"]
    assert two.timing.own[1].minutes == 65.0
    pinned = edited(two, PinTask("own-1", -120))
    left = edited(pinned, DropTask("own-1"))
    assert [t.title for t in left.timing.own] == ["Greens"]
    assert left.timing.pins == ()
    assert edited(left, AddTask("Salad", "5")).timing.own[-1].key == "own-3"
    for wrong, error in (
        (AddTask("", "5 min"), OutOfRangeError),
        (AddTask("x" * 81, "5 min"), OutOfRangeError),
        (AddTask("Bread\u0007", "5 min"), OutOfRangeError),
        (AddTask("Bread", "soon"), UnreadableEntryError),
        (AddTask("Bread", "0"), OutOfRangeError),
        (AddTask("Bread", "25 h"), OutOfRangeError),
        (AddTask("Bread", "5 min", surface="forge"), UnknownItemError),
        (AddTask("Bread", "5 min", surface="fan-oven", oven=""), UnreadableEntryError),
        (DropTask("own-9"), UnknownItemError),
    ):
        with pytest.raises(error):
            edited(two, wrong)
    full = two
    for n in range(MOST_OWN_TASKS - 2):
        full = edited(full, AddTask(f"Task {n}", "5 min"))
    with pytest.raises(OutOfRangeError):
        edited(full, AddTask("One more", "5 min"))


def test_a_surface_that_is_gone_takes_no_place() -> None:
    formula = edited(keepers_loaf(), AddTask("Greens", "10 min", surface="iron-pan"))
    kitchen = replace(KITCHEN, surfaces=tuple(s for s in KITCHEN.surfaces if s.key != "iron-pan"))
    problem = tasks_of(compute(formula, inventory=LARDER, kitchen=kitchen))
    assert problem.task("own-1").needs == ()


# ---------------------------------------------------------------------------------------------- the hour and the hands


def test_too_little_time_says_what_would_help_and_taking_it_helps() -> None:
    late = edited(keepers_loaf(), TypeTiming("opens", "17:00"))
    table = _table(late)
    assert table.late_min > 0
    assert table.served == clock_text(table.ready_min + table.late_min)
    assert "cannot be on the plate before" in table.says.text
    kinds = [type(o.edit).__name__ for o in table.offers]
    assert kinds.count("TypeTiming") >= 2
    for offer in table.offers:
        if offer.edit is None or "late" in offer.comes.text:
            continue
        assert _table(edited(late, offer.edit)).late_min == 0


def test_a_pin_that_cannot_be_kept_is_let_go_by_one_tap() -> None:
    pinned = edited(slipway_smash(), PinTask("wave-1", -2))
    table = _table(pinned)
    assert table.late_min > 0 or table.impossible
    offer = next(o for o in table.offers if isinstance(o.edit, PinTask))
    assert offer.edit is not None
    assert _table(edited(pinned, offer.edit)).late_min == 0
    kept = edited(slipway_smash(), PinTask("shape", -240))
    shape = next(t for t in _table(kept).tasks if t.key == "shape")
    assert (shape.start_min, shape.pinned) == (-240, True)
    assert "Pinned" in shape.why.text
    assert not _table(edited(kept, PinTask("", None))).tasks[0].pinned


def test_pins_are_bounded_and_of_what_is_there() -> None:
    formula = slipway_smash()
    for n in range(60):
        formula = edited(formula, PinTask(f"task-{n}", -n))
    with pytest.raises(OutOfRangeError):
        edited(formula, PinTask("one-more", 0))
    assert edited(formula, PinTask("task-3", -9)).timing.pins[-1].start_min == -9
    with pytest.raises(OutOfRangeError):
        edited(formula, PinTask("", 5))
    # A pin of what a change took away is passed over.
    assert _table(formula).late_min == 0


def test_more_cooks_have_lanes_of_their_own() -> None:
    alone, two = _table(slipway_smash()), _table(edited(slipway_smash(), TypeTiming("cooks", "2")))
    assert [x.title for x in alone.lanes if x.kind == "cook"] == ["Cook"]
    assert [x.title for x in two.lanes if x.kind == "cook"] == ["Cook 1", "Cook 2"]
    assert two.waits_hot_min <= alone.waits_hot_min


@pytest.mark.parametrize(
    ("text", "minute"),
    [
        ("18:30", 1110), ("18.30", 1110), ("1830", 1110), ("18h30", 1110), ("6:30 pm", 1110), ("6.30 p.m.", 1110),
        ("6pm", 1080), ("12 am", 0), ("12 pm", 720), ("noon", 720), ("Midnight", 0), ("0:05", 5), ("23:59", 1439),
        ("18", 1080), ("7 h", 420),
    ],
)  # fmt: skip
def test_a_time_of_day_is_read_as_cooks_write_it(text: str, minute: int) -> None:
    assert read_clock_min(text) == minute


@pytest.mark.parametrize(
    "text", ["", "6", "12", "24:00", "18:60", "13 pm", "0 am", "soon", "18:3", "-5:00", "１８:30", "🍔", "NaN"]
)
def test_what_is_no_time_of_day_or_could_be_two_is_asked(text: str) -> None:
    with pytest.raises(UnreadableEntryError):
        read_clock_min(text)
    with pytest.raises(UnreadableEntryError):
        edited(slipway_smash(), TypeTiming("ready", text))


def test_the_hour_moves_the_clock_and_nothing_else() -> None:
    early, late = _table(slipway_smash()), _table(edited(slipway_smash(), TypeTiming("ready", "20:00")))
    assert [t.start_min for t in early.tasks] == [t.start_min for t in late.tasks]
    assert early.tasks[-1].starts != late.tasks[-1].starts
    assert late.ready == "20:00"


def test_what_opens_after_the_hour_opened_the_day_before() -> None:
    formula = edited(slipway_smash(), TypeTiming("ready", "11:00"), TypeTiming("opens", "22:00"))
    assert _problem(formula).opens_min == -13 * 60
    assert edited(formula, TypeTiming("opens", " ")).timing.opens_min == -1
    for wrong in ("0", "21", "many"):
        with pytest.raises((OutOfRangeError, UnreadableEntryError)):
            edited(formula, TypeTiming("cooks", wrong))


def test_every_task_says_why_then_and_how_far_it_may_slip() -> None:
    for make in DEMO_FORMULAS:
        for task in _table(make()).tasks:
            assert _says(task.why).endswith((".", "”."))
            assert _says(task.slip).endswith(".")
            assert task.critical == (task.float_min == 0)
            assert task.lanes


# ------------------------------------------------------------------------------------------------- dishes together


def _together(*makes, **changes: object) -> Problem:
    dishes = [Dish(f"d{n + 1}-", make().name, _figures(make())) for n, make in enumerate(makes)]
    return tasks_together(dishes, timing=replace(Timing(), **changes))  # type: ignore[arg-type]


def test_loaf_balls_and_burgers_of_one_evening_share_hands_and_oven() -> None:
    problem = _together(keepers_loaf, night_watch_balls, slipway_smash, cooks=2)
    assert {t.dish for t in problem.tasks} == {"Keeper’s loaf", "Night-watch balls", "Slipway smash", ""}
    assert [t.key for t in problem.tasks].count(LAST) == 1
    # One oven, one hob, one grinder, whoever uses them.
    assert len({r.key for r in problem.resources}) == len(problem.resources)
    plan = solve(problem)
    assert plan is not None
    assert broken(problem, plan) == []
    assert plan.late_min == 0
    baked = [t.key for t in problem.tasks if t.oven_c is not None and not t.key.endswith("preheat")]
    assert len(baked) >= 2
    table = timetable_together(
        [Dish("d1-", "Loaf", _figures(keepers_loaf())), Dish("d2-", "Balls", _figures(night_watch_balls()))],
        timing=replace(Timing(), cooks=2),
    )
    assert {t.dish for t in table.tasks} == {"Loaf", "Balls"}
    assert table.on_time_frac >= 0.9


def test_more_dishes_take_more_hands_and_never_less_time() -> None:
    alone = solve(_together(keepers_loaf, opens_min=13 * 60), goals=1)
    both = solve(_together(keepers_loaf, night_watch_balls, opens_min=13 * 60), goals=1)
    helped = solve(_together(keepers_loaf, night_watch_balls, opens_min=13 * 60, cooks=2), goals=1)
    assert alone is not None
    assert both is not None
    assert helped is not None
    assert alone.late_min <= helped.late_min <= both.late_min


def test_the_hour_of_the_service_counts_and_a_dishs_own_tasks_join_in() -> None:
    loaf = edited(
        keepers_loaf(), AddTask("Greens", "15 min", hot=True), TypeTiming("ready", "12:00"), PinTask("mix", -300)
    )
    timing = replace(Timing(), ready_min=20 * 60)
    table = timetable_together([Dish("d1-", "Loaf", _figures(loaf))], timing=timing)
    assert table.ready == "20:00"
    assert "d1-own-1" in {t.key for t in table.tasks}
    assert not any(t.pinned for t in table.tasks)
    with pytest.raises(OutOfRangeError):
        timetable_together([], timing=timing)


def test_a_name_inside_a_sentence_carries_no_mass_without_its_unit() -> None:
    named = [_says(t.why) for make in DEMO_FORMULAS for t in _table(make()).tasks]
    assert any("“Grind”" in text for text in named)
    assert not any("“Grind 1" in text or "mix 1" in text for text in named)


# ------------------------------------------------------------------------------------ neither found nor proved


def _never_settles(problem: Problem, *, cushion_min: int = 0, goals: int = 4) -> None:
    raise UnsettledError("No plan was found in the time given; that does not mean there is none.")


def test_what_was_not_found_in_time_is_not_called_impossible() -> None:
    table = timetable(_figures(slipway_smash()), solver=_never_settles)
    assert table.unsettled
    assert not table.impossible
    assert "does not mean there is none" in table.says.text
    assert table.tasks == ()
    assert table.offers == ()


def test_a_plan_without_a_cushion_stands_where_the_one_with_it_is_not_found() -> None:
    def only_without(problem: Problem, *, cushion_min: int = 0, goals: int = 4) -> Plan | None:
        if cushion_min > 0:
            _never_settles(problem)
        return solve(problem, cushion_min=cushion_min, goals=goals)

    formula = beacon_grill()
    assert timetable(_figures(formula)).cushion_min > 0
    table = timetable(_figures(formula), solver=only_without)
    assert not table.unsettled
    assert table.cushion_min == 0
    assert table.tasks


def test_the_search_says_that_it_ran_out_of_time_and_proves_what_cannot_be() -> None:
    problem = tasks_of(_figures(keepers_loaf()))
    with pytest.raises(UnsettledError):
        solve(problem, stage_units=1e-12)
    last = problem.task(LAST).key
    before = next(x.before for x in problem.lags if x.after == last)
    # The plate before what lies on it: proved, whatever the time given.
    assert solve(replace(problem, pinned={last: -300, before: -10})) is None
