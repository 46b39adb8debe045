"""What a fire asks of the cooks, in the timetable: set and lit, fed before it fades, wood for smoke."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.demo.formulas import beacon_grill, slipway_smash
from vianda.core.equipment.heating import LIGHT_MIN
from vianda.core.heat.fire import as_poured, smoke_wood
from vianda.core.heat.methods import usual_stages
from vianda.core.model.styles import style_of
from vianda.core.pipeline.compute import compute
from vianda.core.schedule.check import broken
from vianda.core.schedule.model import Plan, Problem
from vianda.core.schedule.solve import solve
from vianda.core.timetable.practice import COALS_WAIT_MIN
from vianda.core.timetable.sheet import Dish
from vianda.core.timetable.tasks import tasks_of, tasks_together
from vianda.core.timetable.timetable import timetable


def _kitchen(**heating):
    surfaces = tuple(
        replace(s, heating=replace(s.heating, **heating)) if s.kind == "grate" else s for s in KITCHEN.surfaces
    )
    return replace(KITCHEN, surfaces=surfaces)


def _figures(formula, **heating):
    return compute(formula, inventory=INVENTORY, kitchen=_kitchen(**heating))


def _many(guests: int):
    grilled = beacon_grill()
    return replace(grilled, dish=replace(grilled.dish, guests=guests))


def _smoked():
    grilled = beacon_grill()
    stages = usual_stages(style_of("smoked"), KITCHEN.surface("charcoal-grate", field=""))
    heat = replace(grilled.heat, stages=stages)
    return replace(grilled, dish=replace(grilled.dish, style="smoked"), heat=heat)


def _planned(problem: Problem) -> Plan:
    plan = solve(problem)
    assert broken(problem, plan) == []
    return plan


def test_charcoal_is_set_and_lit_by_somebody_before_it_burns() -> None:
    problem = tasks_of(_figures(beacon_grill()))
    lit = problem.task("set-fire")
    assert lit.hands
    assert lit.title.text == "Set and light {m} of {fuel}"
    # The mass is that of the stove's own cue.
    assert lit.title.amounts["m"] == _figures(beacon_grill()).cook.stove.before[-1].cue.amounts["m"]
    plan = _planned(problem)
    assert plan.slot("set-fire").end_min <= plan.slot("preheat").start_min <= plan.slot("set-fire").end_min + 2
    # Nothing is at the grate while it is laid.
    assert plan.slot("set-fire").places == (("charcoal-grate", 0),)


@pytest.mark.parametrize(
    ("heating", "keys"),
    [
        ({}, {"set"}),
        ({"fuel": "gas"}, set()),
        ({"fuel": "wood"}, {"set"}),
        ({"lasts_min": 8.0}, {"set", "kindle", "feed"}),
        ({"fuel": "wood", "lasts_min": 8.0}, {"set", "feed"}),
        ({"fuel": "gas", "lasts_min": 8.0}, set()),
    ],
)
def test_each_fuel_has_its_own_tasks(heating, keys) -> None:
    """Wood is laid on as it is, coals are lit first, gas comes by itself."""
    found = {t.key.split("-")[0] for t in tasks_of(_figures(beacon_grill(), **heating)).tasks}
    assert found & {"set", "kindle", "feed", "smoke"} == keys


def test_a_plate_has_no_fire() -> None:
    assert not {"set-fire", "feed-1", "smoke-wood"} & {t.key for t in tasks_of(_figures(slipway_smash())).tasks}


def test_a_long_evening_feeds_its_fire_each_time_before_it_fades() -> None:
    figures = _figures(_many(60), lasts_min=20.0)
    problem = tasks_of(figures)
    feeds = [t.key for t in problem.tasks if t.key.startswith("feed-")]
    assert len(feeds) >= 2
    plan = _planned(problem)
    ready = plan.slot("preheat").end_min
    for n, key in enumerate(feeds, start=1):
        fed = plan.slot(key).start_min - ready
        assert 0.75 * 20 * n <= fed <= 20 * n
        lit = plan.slot(key).start_min - plan.slot(f"kindle-{n}").end_min
        assert LIGHT_MIN["charcoal"] <= lit <= LIGHT_MIN["charcoal"] + COALS_WAIT_MIN
    # What is fed is not called gone.
    assert "fire-burns-down" not in {r.key for r in timetable(figures).remarks}


def test_wood_for_smoke_lies_on_the_coals_as_the_meat_comes_and_is_called_a_reminder() -> None:
    problem = tasks_of(_figures(_smoked()))
    wood = problem.task("smoke-wood")
    assert "a reminder, not computed" in wood.title.text
    plan = _planned(problem)
    assert 0 <= plan.slot("wave-1").start_min - plan.slot("smoke-wood").end_min <= 5
    assert "smoke-wood" not in {t.key for t in tasks_of(_figures(beacon_grill())).tasks}


def test_a_fist_of_wood_for_each_half_hour_begun() -> None:
    assert [smoke_wood(m).usual for m in (1, 30, 31, 60, 61)] == [80, 80, 160, 160, 240]
    assert [(a.value, a.high) for a in (as_poured(smoke_wood(10)), as_poured(smoke_wood(90)))] == [
        (60, 120), (200, 350),
    ]  # fmt: skip


def test_the_stove_says_what_is_done_with_coals_and_burners_as_a_stage_begins() -> None:
    def cues(**heating) -> list[str]:
        return [s.cue.text for s in _figures(_smoked(), **heating).cook.stove.each_wave[1:]]

    smoke, sear, *_ = cues()
    assert "side without coals, lid on." in smoke
    assert "{wood} of dry wood on the fire as it begins; a reminder, not computed." in smoke
    assert "Over the coals now." in sear
    smoke, sear, *_ = cues(fuel="gas", lid=True)
    assert "The burner under the meat off, the others up, lid on." in smoke
    assert "All burners up" in sear
    plain = [s.cue.text for s in _figures(beacon_grill()).cook.stove.each_wave[1:]]
    assert not any("coals" in text or "burner" in text for text in plain)


def test_two_dishes_on_one_grate_share_one_fire() -> None:
    """Coals for both are laid once, and the second dish's turn comes while they last."""
    alone = _figures(_many(16))
    dishes = (Dish("a-", "Grilled", alone), Dish("b-", "Smoked", _figures(_smoked())))
    problem = tasks_together(dishes, timing=beacon_grill().timing)
    keys = [t.key for t in problem.tasks]
    assert [k for k in keys if k.endswith(("set-fire", "preheat"))] == ["a-preheat", "a-set-fire"]
    assert "b-smoke-wood" in keys
    # Either would do with one load; both together are fed.
    for one in (alone, dishes[1].figures):
        assert not any(t.key.startswith("feed") for t in tasks_of(one).tasks)
    assert [k for k in keys if "feed" in k] == ["a-feed-1"]
    plan = _planned(problem)
    ready = plan.slot("a-preheat").end_min
    assert all(plan.slot(k).start_min >= ready for k in keys if "wave-" in k)


def test_gas_is_turned_on_for_each_dish_as_it_comes() -> None:
    dishes = tuple(Dish(p, p, _figures(_many(8), fuel="gas")) for p in ("a-", "b-"))
    keys = [t.key for t in tasks_together(dishes, timing=beacon_grill().timing).tasks]
    assert [k for k in keys if k.endswith("preheat")] == ["a-preheat", "b-preheat"]


def test_getting_a_fire_ready_is_no_reason_for_a_second_grate() -> None:
    """Forty minutes until it is ready and one wave: two grates would be ready no sooner."""
    one_wave = timetable(_figures(_many(8), fuel="wood"))
    at = {t.key: (t.start_min, t.end_min) for t in one_wave.tasks}
    assert at["wave-1"][1] - at["set-fire"][0] >= 45
    assert "narrow-place" not in {r.key for r in one_wave.remarks}
