"""Mise en place: all that goes into a dish is set out once, at its station; what is made ahead is labelled."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.demo.formulas import (
    beacon_grill,
    harbour_light_pub,
    keepers_loaf,
    night_watch_balls,
    slipway_smash,
    supply_boat_ragu,
)
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import GROUPS, HouseFormula, HouseLine
from vianda.core.pipeline.compute import compute
from vianda.core.supply.labels import label_of
from vianda.core.supply.mise import BOWLS, STATIONS, Mise, mise_en_place
from vianda.core.supply.needs import needs_of
from vianda.core.supply.shopping import COOKED_KEEPS_DAYS, Make

DEMO = (slipway_smash, beacon_grill, harbour_light_pub, keepers_loaf, night_watch_balls, supply_boat_ragu)
DAY = date(2026, 12, 4)


def _mise(make) -> Mise:
    return mise_en_place(compute(make(), inventory=INVENTORY, kitchen=KITCHEN), dish=make.__name__)


def test_every_group_of_the_pantry_has_its_bowl() -> None:
    assert set(BOWLS) == set(GROUPS)
    assert set(BOWLS.values()) <= set(STATIONS)


@pytest.mark.parametrize("make", DEMO, ids=lambda m: m.__name__)
def test_all_that_is_needed_is_set_out_once_and_nothing_else(make) -> None:
    figures = compute(make(), inventory=INVENTORY, kitchen=KITCHEN)
    out: dict[tuple[str, str], float] = {}
    for bowl in mise_en_place(figures).bowls:
        for portion in bowl.portions:
            out[portion.kind, portion.key] = out.get((portion.kind, portion.key), 0.0) + portion.amount
    needed = {(n.kind, n.key): n.amount for n in needs_of(figures)}
    assert out.keys() == needed.keys()
    for (kind, key), amount in out.items():
        # Meat stands there trimmed: what trimming takes is bought and not set out.
        trim = INVENTORY.meats[key].trim_loss_frac if kind == "meat" else 0.0
        assert amount == pytest.approx(needed[kind, key] * (1.0 - trim))


@pytest.mark.parametrize("make", DEMO, ids=lambda m: m.__name__)
def test_bowls_stand_in_the_order_of_the_hands_and_none_is_empty(make) -> None:
    mise = _mise(make)
    stations = [b.station for b in mise.bowls]
    assert stations == [s for s in STATIONS if s in stations]
    assert all(b.portions and b.title == STATIONS[b.station] for b in mise.bowls)
    assert stations[0] == "meat"


def test_what_is_stirred_together_stands_together() -> None:
    bowls = {b.station: {p.key for p in b.portions} for b in _mise(keepers_loaf).bowls}
    assert {"panko", "salt-fine"} <= bowls["dry"]
    assert {"egg", "milk"} <= bowls["wet"]
    assert "soft-onion" in bowls["cut"]


def test_salt_on_the_surface_stands_at_the_heat() -> None:
    bowls = {b.station: {p.key for p in b.portions} for b in _mise(slipway_smash).bowls}
    assert "salt-fine" in bowls["heat"]
    assert all("salt-fine" not in keys for station, keys in bowls.items() if station != "heat")
    assert "soft-100" in bowls["build"]


def test_guests_and_pieces_are_those_of_the_dish() -> None:
    mise = _mise(night_watch_balls)
    formula = night_watch_balls()
    assert (mise.guests, mise.dish) == (formula.dish.guests, "night_watch_balls")
    figures = compute(formula, inventory=INVENTORY, kitchen=KITCHEN)
    assert (mise.pieces, mise.piece_g) == (figures.batch.portions.pieces, figures.batch.portions.piece_mass_g)


@pytest.mark.parametrize("keeps", [0, 1, 5, 365])
def test_a_label_says_until_when(keeps: int) -> None:
    house = HouseFormula((HouseLine("mayonnaise", 150.0),), 0.0, keeps)
    sauce = replace(INVENTORY.pantry["mayonnaise"], key="own-sauce", name="Own sauce", house=house)
    inventory = Inventory.of(INVENTORY.meats.values(), (), [*INVENTORY.pantry.values(), sauce])
    label = label_of(Make("own-sauce", "Own sauce", 800.0, DAY, keeps), inventory=inventory, served=DAY)
    assert (label.use_by - label.made).days == keeps
    # Good on the day it is for, and made no earlier than the day before.
    assert label.made <= DAY <= label.use_by
    assert (DAY - label.made).days == (1 if keeps else 0)
    # What comes in is declared: a sauce of mayonnaise holds egg and mustard.
    assert set(label.allergens) == set(INVENTORY.pantry["mayonnaise"].allergens)
    assert "egg" in label.allergens


def test_what_is_only_cooked_keeps_three_days() -> None:
    label = label_of(Make("soft-onion", "Onion, cooked soft", 400.0, DAY, 3), inventory=INVENTORY, served=DAY)
    assert (label.use_by - label.made).days == COOKED_KEEPS_DAYS == 3
