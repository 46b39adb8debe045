from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from formulas import blended, lines, mixed
from vianda.core.batch.batch import batch_of
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.mix.panade import WaterUptake, as_milk_frac, same_place, state_at, water_uptake_of

PANTRY = starter_pantry()
CRUMBS = sorted(k for k, i in PANTRY.items() if water_uptake_of(i))


# Common practice, no published source: panko 1 to 1.5 firm; fine crumbs up to 3.5; a quarter as the least drizzle;
# fresh bread may need none.
@pytest.mark.parametrize(
    ("crumb", "ratio", "state"),
    [
        ("panko", 0.24, "dry"),
        ("panko", 0.25, "damp"),
        ("panko", 1.0, "stiff"),
        ("panko", 1.49, "stiff"),
        ("panko", 1.5, "soft"),
        ("panko", 2.3, "soup"),
        ("dry-crumbs", 3.49, "soft"),
        ("dry-crumbs", 3.5, "soup"),
        ("white-bread", 0.0, "stiff"),
        ("white-bread", 1.2, "soup"),
    ],
)
def test_the_state_of_a_panade_at_its_edges(crumb: str, ratio: float, state: str) -> None:
    assert state_at(ratio, water_uptake_of(PANTRY[crumb])) == state


@given(st.sampled_from(CRUMBS), st.floats(0, 6), st.floats(0, 6))
def test_more_liquid_never_makes_a_panade_stiffer(crumb: str, one: float, two: float) -> None:
    order = ["dry", "damp", "stiff", "soft", "soup"]
    uptake = water_uptake_of(PANTRY[crumb])
    low, high = sorted((one, two))
    assert order.index(state_at(low, uptake)) <= order.index(state_at(high, uptake))


@given(st.sampled_from(CRUMBS), st.sampled_from(CRUMBS), st.floats(0.0, 6))
def test_another_crumb_as_wet_is_in_the_same_state(one: str, two: str, ratio: float) -> None:
    before, after = water_uptake_of(PANTRY[one]), water_uptake_of(PANTRY[two])
    moved = same_place(ratio, before, after)
    if moved > 0 and ratio not in before.edges():
        allowed = {state_at(moved - 1e-6, after), state_at(moved + 1e-6, after)}
        assert state_at(ratio, before) in allowed


def test_the_way_there_and_back_is_the_same_ratio() -> None:
    panko, fine = water_uptake_of(PANTRY["panko"]), water_uptake_of(PANTRY["dry-crumbs"])
    for ratio in (0.1, 0.6, 1.2, 1.9, 2.8):
        assert same_place(same_place(ratio, panko, fine), fine, panko) == pytest.approx(ratio)


def test_a_liquid_counts_by_the_water_it_brings() -> None:
    assert as_milk_frac(PANTRY["milk"]) == pytest.approx(1.0, abs=1e-3)
    assert as_milk_frac(PANTRY["cream"]) < 0.7 < 1.1 < as_milk_frac(PANTRY["water"])


def test_two_crumbs_drink_by_their_masses(inventory: Inventory, kitchen: Kitchen) -> None:
    panade = evaluate(
        mixed(lines=lines(panko=5, dry_crumbs=5, milk=15)), inventory=inventory, kitchen=kitchen
    ).mix.panade
    assert panade.edges[2] == pytest.approx((1.5 + 2.0) / 2)
    assert panade.soak_needed_min == 20


def test_what_is_said_to_add_makes_the_state_it_is_said_to_make(inventory: Inventory, kitchen: Kitchen) -> None:
    def of(milk: float):
        return evaluate(mixed(lines=lines(panko=8, milk=milk, egg=8)), inventory=inventory, kitchen=kitchen).mix

    now = of(2)
    for grams, state in ((now.panade.to_stiff_g, "stiff"), (now.panade.to_soft_g, "soft")):
        milk = 2 + grams / now.whole.meat_g * 100 * 0.8813 / (PANTRY["milk"].composition.water_g_per_100g / 100)
        assert of(milk).panade.state == state


def _ledger(formula, inventory: Inventory, kitchen: Kitchen):
    return evaluate(formula, inventory=inventory, kitchen=kitchen).salt


def test_the_ledger_is_an_account_that_closes(inventory: Inventory, kitchen: Kitchen) -> None:
    salt = _ledger(mixed(lines=lines(panko=8, milk=14, parmesan=8, egg=8)), inventory, kitchen)
    ledger = salt.ledger
    assert ledger.brought_frac == pytest.approx(sum(e.per_meat_frac for e in ledger.entries), rel=1e-12)
    assert ledger.brought_frac + ledger.to_add_frac == pytest.approx(ledger.wanted_frac, rel=1e-12)
    by_hand = 0.08 * PANTRY["parmesan"].composition.sodium_mg_per_100g * 2.542e-5
    assert next(e for e in ledger.entries if "Parmesan" in e.name).per_meat_frac == pytest.approx(by_hand)


@given(st.floats(0, 0.05), st.floats(0, 60), st.sampled_from(["surface", "mixed", "none"]))
def test_nothing_is_ever_added_below_nought_without_saying_so(wanted: float, cheese: float, place: str) -> None:
    formula = mixed(lines=lines(pecorino=cheese, egg=8), salt_frac=wanted, salt_place=place)
    ledger = batch_of(formula, inventory=starter_inventory(), kitchen=yard_galley()).ledger
    assert ledger.to_add_frac >= 0
    assert ledger.over_frac >= 0
    assert min(ledger.to_add_frac, ledger.over_frac) == 0
    if place != "none":
        assert ledger.wanted_frac + ledger.over_frac == pytest.approx(ledger.brought_frac + ledger.to_add_frac)
    else:
        assert ledger.to_add_frac == 0


def test_cured_meat_counts_beyond_what_fresh_meat_holds(inventory: Inventory, kitchen: Kitchen) -> None:
    ledger = _ledger(mixed(lines=(), parts=blended(round=0.65, bacon=0.35)), inventory, kitchen).ledger
    bacon = inventory.meat("bacon").composition.sodium_mg_per_100g
    assert ledger.brought_frac == pytest.approx(0.35 * (bacon - 65) * 2.542e-5)
    assert [e.name for e in ledger.entries] == [inventory.meat("bacon").name]


def test_a_flaky_salt_takes_twice_the_spoons_of_the_same_grams(inventory: Inventory, kitchen: Kitchen) -> None:
    from dataclasses import replace

    formula = mixed(lines=lines(panko=8, milk=10, egg=8))
    fine, flake = (_ledger(formula, inventory, replace(kitchen, salt=key)) for key in ("salt-fine", "salt-flake"))
    assert flake.batch_salt_g == fine.batch_salt_g
    assert flake.batch_salt_tsp == pytest.approx(2 * fine.batch_salt_tsp)


def test_the_rim_of_a_thick_burger_is_salted_by_its_area(inventory: Inventory, kitchen: Kitchen) -> None:
    thin = _ledger(mixed(style="smashed", lines=()), inventory, kitchen)
    evaluation = evaluate(mixed(style="thick", lines=()), inventory=inventory, kitchen=kitchen)
    thick, shape = evaluation.salt, evaluation.shape
    assert thin.rim_salt_g == 0
    assert 2 * thick.side_salt_g + thick.rim_salt_g == pytest.approx(thick.piece_salt_g)
    face, rim = 3.14159 * shape.raw_diameter_mm**2 / 4, 3.14159 * shape.raw_diameter_mm * shape.thickness_mm
    assert thick.rim_salt_g / thick.side_salt_g == pytest.approx(rim / face)


def test_surface_salt_is_not_in_the_mass_of_the_mix_but_in_the_portion(inventory: Inventory, kitchen: Kitchen) -> None:
    def whole(place: str):
        formula = mixed(style="smashed", lines=(), salt_place=place, salt_frac=0.012)
        return evaluate(formula, inventory=inventory, kitchen=kitchen).mix.whole

    surface, worked_in = whole("surface"), whole("mixed")
    assert surface.mass_g == worked_in.mass_g
    assert surface.meat_g > worked_in.meat_g
    assert surface.salt_g > whole("none").salt_g


def test_a_thirst_of_no_known_crumb_is_that_of_its_group() -> None:
    from dataclasses import replace

    assert water_uptake_of(replace(PANTRY["panko"], key="my-crumbs")) == water_uptake_of(PANTRY["dry-crumbs"])
    assert isinstance(water_uptake_of(PANTRY["oats"]), WaterUptake)
    assert water_uptake_of(PANTRY["milk"]) is None
