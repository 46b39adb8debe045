"""The fire under a grate: how much fuel, when it is lit and fed, and what is only a reminder."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import beacon_grill, slipway_smash
from vianda.core.equipment.heating import FIRE_H, Heating
from vianda.core.heat.fire import HEAT_MJ_KG, MEAT_C, OVER_FIRE, REACHES_FRAC, fire_plan
from vianda.core.pipeline.compute import compute


@pytest.fixture
def grate(kitchen):
    return kitchen.surface("charcoal-grate", field="")


def _with(surface, **changes):
    return replace(surface, heating=replace(surface.heating, **changes))


def test_the_heat_that_arrives_is_that_of_the_fuel_that_burned(grate) -> None:
    """Energy balance: mass × heat of combustion × what arrives = flux × area over the fire × time."""
    plan = fire_plan(grate, fire_c=250.0, needed_min=30.0)
    assert plan is not None
    arrives_j = plan.first_g.usual / 1000 * HEAT_MJ_KG["charcoal"] * 1e6 * REACHES_FRAC["charcoal"]
    area = 0.560 * 0.400 * OVER_FIRE[grate.heating.layout]
    assert arrives_j == pytest.approx(FIRE_H["charcoal"] * (250.0 - MEAT_C) * area * 60 * 60)


def test_a_kettle_burns_a_chimney_of_charcoal_an_hour(grate) -> None:
    """Common practice, no published source: a chimney starter holds 1 to 2.5 kg, and one heats a kettle for an hour."""
    plan = fire_plan(_with(grate, layout="even"), fire_c=230.0, needed_min=45.0)
    assert plan is not None
    assert 0.7 < plan.mass_g.low / 1000 < plan.mass_g.usual / 1000 < plan.mass_g.high / 1000 < 2.5


def test_wood_takes_more_than_charcoal_and_two_zones_less_than_a_whole_bed(grate) -> None:
    def first(**changes) -> float:
        plan = fire_plan(_with(grate, lasts_min=60.0, **changes), fire_c=230.0, needed_min=20.0)
        assert plan is not None
        return plan.first_g.usual

    assert first(fuel="wood") > 1.5 * first(fuel="charcoal")
    assert first(layout="two-zones") == pytest.approx(0.5 * first(layout="even"))


@pytest.mark.parametrize(("needed", "feeds"), [(60.0, 0), (65.9, 0), (66.1, 1), (120.0, 1), (126.1, 2)])
def test_just_inside_and_just_outside_of_what_a_load_lasts(grate, needed: float, feeds: int) -> None:
    """A load lasts an hour and is past its best for a tenth of that."""
    plan = fire_plan(_with(grate, lasts_min=60.0), fire_c=230.0, needed_min=needed)
    assert plan is not None
    assert plan.fed_min == tuple(60.0 * (n + 1) for n in range(feeds))
    assert plan.mass_g.usual == pytest.approx(plan.first_g.usual + feeds * plan.feed_g.usual)
    if feeds:
        assert plan.mass_g.usual == pytest.approx(plan.first_g.usual * needed / 60.0)


def test_gas_is_not_fed_and_a_plate_has_no_fire(grate, kitchen) -> None:
    gas = fire_plan(_with(grate, fuel="gas"), fire_c=230.0, needed_min=300.0)
    assert gas is not None
    assert gas.fed_min == ()
    assert fire_plan(kitchen.surface("yard-plate", field=""), fire_c=230.0, needed_min=20.0) is None
    with pytest.raises(OutOfRangeError):
        Heating(lasts_min=1001.0)


def _stove(make, inventory, kitchen, **heating):
    surfaces = tuple(_with(s, **heating) if s.key == "charcoal-grate" else s for s in kitchen.surfaces)
    return compute(make(), inventory=inventory, kitchen=replace(kitchen, surfaces=surfaces)).cook.stove


def test_the_stove_says_how_much_how_it_lies_and_what_is_no_figure(inventory, kitchen) -> None:
    ready = _stove(beacon_grill, inventory, kitchen).before[-1].cue
    assert "of charcoal, lit {time} ahead" in ready.text
    assert ready.amounts["m"].value % 50 == ready.amounts["m"].high % 50 == 0
    assert ready.amounts["time"].value == 25 * 60
    assert "a reminder, not computed" in ready.text
    assert "a reminder" not in _stove(beacon_grill, inventory, kitchen, lid=False).before[-1].cue.text
    assert "burners" in _stove(beacon_grill, inventory, kitchen, fuel="gas").before[-1].cue.text
    assert "charcoal" not in _stove(slipway_smash, inventory, kitchen).before[-1].cue.text


def test_a_fire_that_fades_is_fed_with_coals_that_burn(inventory, kitchen) -> None:
    lay = _stove(beacon_grill, inventory, kitchen, lasts_min=8.0).each_wave[0].cue
    assert "of lit coals go on every {every}; light them {sooner} before" in lay.text
    assert lay.amounts["every"].value == 8 * 60
    assert lay.amounts["sooner"].value == 25 * 60
    assert "lit coals" not in _stove(beacon_grill, inventory, kitchen).each_wave[0].cue.text
