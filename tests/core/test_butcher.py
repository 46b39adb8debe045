"""The butcher's slip of a span: masses of all days add up, and each country's own line for ground meat stands on it."""

from __future__ import annotations

import math
from dataclasses import replace
from datetime import date, timedelta

import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.units import c_from_f
from vianda.core.demo.formulas import beacon_grill, keepers_loaf, night_watch_balls, slipway_smash, supply_boat_ragu
from vianda.core.evaluation.evaluate import sheets
from vianda.core.model.formula import Formula
from vianda.core.pipeline.compute import compute
from vianda.core.supply.butcher import BlendTaken, ButcherSlip, blend_taken, butcher_slip_of
from vianda.core.supply.needs import needs_of
from vianda.core.supply.shopping import Demand, shopping

FRIDAY = date(2026, 12, 4)
MADE = (slipway_smash, beacon_grill, keepers_loaf, night_watch_balls, supply_boat_ragu)


def _taken(formula: Formula, guests: int = 0, key: str = "1") -> BlendTaken:
    if guests:
        formula = replace(formula, dish=replace(formula.dish, guests=guests))
    found = blend_taken(compute(formula, inventory=INVENTORY, kitchen=KITCHEN), name=formula.name, key=key)
    assert found is not None
    return found


def _slip(*taken: tuple[date, BlendTaken], country: str = "US", span_days: int = 7) -> ButcherSlip:
    return butcher_slip_of(taken, meats=(), inventory=INVENTORY, country=country, span_days=span_days)


@pytest.mark.parametrize("make", MADE, ids=lambda m: m.__name__)
def test_shares_and_cuts_add_up_to_the_blend(make) -> None:
    blend = _taken(make())
    assert math.fsum(c.share_frac for c in blend.cuts) == pytest.approx(1.0)
    figures = compute(make(), inventory=INVENTORY, kitchen=KITCHEN)
    # What is trimmed is what goes into the grinder; it keeps its share of it.
    kept = 1.0 - figures.meat.grind.loss_frac
    assert math.fsum(c.trimmed_g for c in blend.cuts) * kept == pytest.approx(blend.mass_g, rel=0.01)


def test_days_of_one_blend_are_one_order_and_pieces_add_up() -> None:
    friday, saturday = _taken(slipway_smash(), 40), _taken(slipway_smash(), 60)
    slip = _slip((FRIDAY + timedelta(1), saturday), (FRIDAY, friday))
    (order,) = slip.blends
    assert [(d.day, d.comes_on, d.pieces) for d in order.days] == [
        (FRIDAY, FRIDAY - timedelta(1), friday.pieces),
        (FRIDAY + timedelta(1), FRIDAY, saturday.pieces),
    ]
    assert order.blend.mass_g == slip.mass_g == friday.mass_g + saturday.mass_g
    assert order.blend.cuts[0].trimmed_g == pytest.approx(friday.cuts[0].trimmed_g + saturday.cuts[0].trimmed_g)
    # A fortnight of the same is half of it a week.
    assert _slip((FRIDAY, friday), span_days=14).blends[0].week_mass_g == pytest.approx(friday.mass_g / 2)


def test_two_services_of_one_day_are_one_delivery_and_two_formulas_of_one_name_are_two_blends() -> None:
    one, other = _taken(slipway_smash(), 40), _taken(slipway_smash(), 40, key="2")
    assert [(d.day, d.pieces) for d in _slip((FRIDAY, one), (FRIDAY, one)).blends[0].days] == [(FRIDAY, 2 * one.pieces)]
    assert [o.blend.key for o in _slip((FRIDAY, one), (FRIDAY, other)).blends] == ["1", "2"]


@pytest.mark.parametrize(
    ("make", "portioned"),
    [(slipway_smash, True), (beacon_grill, True), (keepers_loaf, False), (night_watch_balls, False)],
    ids=lambda x: getattr(x, "__name__", x),
)
def test_only_pieces_of_the_blend_alone_are_portioned_by_whoever_grinds_it(make, portioned: bool) -> None:
    blend = _taken(make())
    assert blend.portioned is portioned
    assert (_slip((FRIDAY, blend)).pieces > 0) is portioned


@pytest.mark.parametrize(("country", "most_c"), [("US", c_from_f(41.0)), ("CA", 4.0), ("UK", 2.0), ("EU", 2.0)])
def test_ground_meat_is_taken_in_at_each_countrys_own_line(country: str, most_c: float) -> None:
    # FDA Food Code 3-202.11, Canada's Code, Regulation (EC) 853/2004 for minced meat: from memory, as in ``arrival``.
    assert _slip((FRIDAY, _taken(slipway_smash())), country=country).blends[0].most_c == pytest.approx(most_c)


def test_cuts_are_those_of_the_shopping_list_with_what_is_trimmed_for_all_blends() -> None:
    smash, loaf = slipway_smash(), keepers_loaf()
    needs = [
        need
        for formula in (smash, loaf)
        for need in needs_of(compute(formula, inventory=INVENTORY, kitchen=KITCHEN), dish=formula.name)
    ]
    listed = shopping([Demand(FRIDAY, tuple(needs))], inventory=INVENTORY, kitchen=KITCHEN)
    meats = [line for line in listed.lines if line.kind == "meat"]
    blends = [_taken(smash, key="1"), _taken(loaf, key="2")]
    slip = butcher_slip_of([(FRIDAY, b) for b in blends], meats=meats, inventory=INVENTORY, country="UK", span_days=7)
    assert {c.meat for c in slip.cuts} == {c.meat for b in blends for c in b.cuts}
    for cut in slip.cuts:
        # Bone and silverskin are bought and not ground.
        trim = INVENTORY.meats[cut.meat].trim_loss_frac
        assert cut.trimmed_g == pytest.approx(cut.needed_g * (1.0 - trim))
        assert cut.order_g >= cut.needed_g - cut.there_g - 1e-6
    assert [c.order_g for c in slip.cuts] == sorted((c.order_g for c in slip.cuts), reverse=True)


def test_nothing_served_is_an_empty_slip() -> None:
    assert _slip() == ButcherSlip((), (), 0.0, 0)


@pytest.mark.parametrize(("country", "most_c"), [("US", c_from_f(41.0)), ("UK", 2.0)])
def test_a_formulas_own_slip_has_the_line_of_the_weeks(country: str, most_c: float) -> None:
    kitchen = replace(KITCHEN, country=country)  # type: ignore[arg-type]
    found = sheets(slipway_smash(), inventory=INVENTORY, kitchen=kitchen)
    assert found.arrival.most_c == pytest.approx(most_c)
