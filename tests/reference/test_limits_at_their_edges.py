"""Every published limit and safety rule just inside and just outside it; the source stands beside each.

All from memory of the published text, with the confidence that docs/sources.md gives.
"""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from formulas import blended, lines, mixed, smash
from heat_formulas import INVENTORY, KITCHEN, edited
from vianda.core.basis.units import c_from_f
from vianda.core.blend.shares import InfeasibleBlendError, move_edge, set_share
from vianda.core.demo.formulas import harbour_light_pub, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.heat import after
from vianda.core.heat.after import afterwards, cools_in_time, stays_hot
from vianda.core.heat.doneness import DONENESS, doneness_at, target_for
from vianda.core.heat.floor import floors_for, target_meant
from vianda.core.heat.holds import hold_tables
from vianda.core.mix import limits as lim
from vianda.core.model.edit import KeepLimit
from vianda.core.model.formula import BlendPart, Formula
from vianda.core.pipeline.compute import prepare

HOUR = 3600.0


# --- after the cook --------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("first_s", "whole_s", "keeps"),
    [
        (2 * HOUR, 6 * HOUR, True),
        (2 * HOUR - 1, 6 * HOUR - 1, True),
        (2 * HOUR + 1, 3 * HOUR, False),
        (1 * HOUR, 6 * HOUR + 1, False),
        (2 * HOUR + 1, 6 * HOUR + 1, False),
        (1.5 * HOUR, 5.5 * HOUR, True),
    ],
)
def test_cooling_by_the_food_code(first_s: float, whole_s: float, keeps: bool) -> None:
    # FDA Food Code 3-501.14: from 57 to 21 °C within 2 h, to 5 °C within 6 h in all.
    assert cools_in_time(first_s, whole_s) is keeps
    assert (after.COOL_FROM_C, after.COOL_MIDDLE_C, after.COOL_TO_C) == (57.0, 21.0, 5.0)


@pytest.mark.parametrize(("country", "line_c"), [("US", 57.0), ("UK", 63.0), ("CA", 60.0), ("other", 60.0)])
def test_hot_holding_by_country(country: str, line_c: float) -> None:
    # US Food Code 3-501.16; England 2013 regulations schedule 4; Canada's code; WHO for others.
    assert stays_hot(line_c, country)
    assert stays_hot(line_c + 20.0, country)
    assert not stays_hot(line_c - 0.01, country)


def test_leftovers_are_warmed_to_165_fahrenheit() -> None:
    assert pytest.approx(c_from_f(165)) == after.REHEAT_C


def test_what_comes_afterwards_is_computed_for_a_patty_and_fails_for_a_loaf() -> None:
    hold, cool, reheat = afterwards(prepare(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN).case)
    # Thin and in one layer it cools well within both; after an hour at 75 °C it stands above the line.
    assert (hold.within, cool.within, reheat.within) == (True, True, True)
    assert hold.time_s == HOUR
    first, whole = cool.message.amounts["first"].value, cool.message.amounts["all"].value
    assert 0 < first < whole == cool.time_s
    assert cool.limit.amounts["first"].value == 2 * HOUR
    assert cool.limit.amounts["all"].value == 6 * HOUR
    assert hold.limit.amounts["hot"].value == 57.0
    assert 0.0 <= hold.message.amounts["lost"].value < 0.2
    assert reheat.message.amounts["hot"].value == pytest.approx(73.89, abs=0.01)
    # A loaf of 1.3 kg does not get from 57 to 21 °C in 2 h in a fridge.
    _, slow, _ = afterwards(prepare(keepers_loaf(), inventory=INVENTORY, kitchen=KITCHEN).case)
    assert slow.message.amounts["first"].value > 2 * HOUR
    assert not slow.within


# --- floors and holds ------------------------------------------------------------------------------------------------


def test_the_pairs_of_the_uk_are_the_five_published() -> None:
    # UK Food Standards Agency: 60 °C 45 min, 65 °C 10 min, 70 °C 2 min, 75 °C 30 s, 80 °C 6 s.
    uk = next(t for t in hold_tables() if t.key == "uk-fsa")
    assert [(h.temp_c, h.time_s) for h in uk.holds] == [(60, 2700), (65, 600), (70, 120), (75, 30), (80, 6)]


def test_each_table_says_how_many_logs_it_is_for() -> None:
    # USDA FSIS Appendix A (1999): columns for 6.5 and 7 log₁₀ of Salmonella; the others state no figure.
    logs = {t.key: t.log10 for t in hold_tables()}
    assert logs == {"food-code": 0.0, "patties-9cfr": 0.0, "appendix-a-6.5": 6.5, "appendix-a-7": 7.0, "uk-fsa": 0.0}


@pytest.mark.parametrize(
    ("country", "setting", "key"),
    [
        ("US", "home", "usda-ground"),
        ("US", "food-service", "food-code"),
        ("CA", "home", "canada-ground"),
        ("CA", "food-service", "canada-ground"),
        ("UK", "home", "uk-fsa"),
        ("UK", "food-service", "uk-fsa"),
        ("other", "home", "usda-ground"),
        ("other", "food-service", "usda-ground"),
    ],
)
def test_every_country_and_setting_has_its_own_leading_floor(country: str, setting: str, key: str) -> None:
    assert floors_for(country=country, setting=setting, poultry=False).leading.key == key


@pytest.mark.parametrize("unit_system", ["metric", "us"])
def test_a_target_below_the_floor_as_shown_stays_and_the_shown_one_is_the_floor(unit_system: str) -> None:
    floor = floors_for(country="US", setting="food-service", poultry=False).leading
    assert target_meant(floor.temp_c, floor, unit_system=unit_system) == floor.temp_c
    assert target_meant(floor.temp_c - 0.01, floor, unit_system=unit_system) == floor.temp_c
    assert target_meant(floor.temp_c - 2.0, floor, unit_system=unit_system) == floor.temp_c - 2.0
    assert target_meant(floor.temp_c + 3.0, floor, unit_system=unit_system) == floor.temp_c + 3.0


@pytest.mark.parametrize(
    ("core_c", "name"),
    [
        (48.99, "raw"),
        (49.0, "rare"),
        (53.99, "rare"),
        (54.0, "medium-rare"),
        (57.99, "medium-rare"),
        (58.0, "medium"),
        (63.99, "medium"),
        (64.0, "medium-well"),
        (70.99, "medium-well"),
        (71.0, "well-done"),
        (95.0, "well-done"),
    ],
)
def test_names_of_doneness_meet_at_their_edges(core_c: float, name: str) -> None:
    # Common practice, no published source: rare 49–54, medium-rare –58, medium –64, medium-well –71.
    assert doneness_at(core_c) == name


@pytest.mark.parametrize(
    ("key", "target"), [("rare", 51.5), ("medium-rare", 56.0), ("medium", 61.0), ("medium-well", 67.5)]
)
def test_a_doneness_means_the_middle_of_its_band(key: str, target: float) -> None:
    assert target_for(key, floor_c=71.1) == target
    assert {b.key for b in DONENESS} >= {key}


# --- limits a cook keeps ---------------------------------------------------------------------------------------------


def _breaches(formula: Formula, limit: str) -> list:
    kept = edited(formula, KeepLimit(limit, True))
    return [b for b in evaluate(kept, inventory=INVENTORY, kitchen=KITCHEN).served.breaches if b.limit == limit]


@pytest.mark.parametrize(
    ("limit", "line_frac", "part"),
    [
        ("less-fat", lim.LESS_FAT_FRAC, "fat_g"),
        ("less-sugar", lim.LESS_SUGAR_FRAC, "sugars_g"),
        ("less-salt", lim.LESS_SALT_FRAC, "salt_g"),
    ],
)
def test_what_a_limit_by_amount_says_is_the_share_in_the_mix(limit: str, line_frac: float, part: str) -> None:
    rich = mixed(
        style="loaf-free",
        lines=lines(panko=8, ketchup=14, milk=8),
        parts=blended(ground_70=1.0),
        salt_frac=0.02,
        salt_place="mixed",
    )
    found = _breaches(rich, limit)
    whole = evaluate(rich, inventory=INVENTORY, kitchen=KITCHEN).mix.whole
    assert len(found) == 1
    assert found[0].value_frac == pytest.approx(getattr(whole, part) / whole.mass_g, rel=1e-6)
    assert found[0].value_frac > line_frac
    assert found[0].limit_frac == line_frac
    # The UK's front-of-pack lines between medium and high lie above ours: 17.5, 22.5, 1.5 g in 100 g.
    assert line_frac < {"less-fat": 0.175, "less-sugar": 0.225, "less-salt": 0.015}[limit]


def test_a_limit_by_amount_is_kept_just_below_it_and_not_just_above() -> None:
    def salted(frac: float) -> list:
        return _breaches(
            mixed(style="loaf-free", lines=lines(egg=5), parts=blended(round=1.0), salt_frac=frac, salt_place="mixed"),
            "less-salt",
        )

    low, high = 0.004, 0.03
    for _ in range(30):
        middle = (low + high) / 2
        low, high = (low, middle) if salted(middle) else (middle, high)
    edge = mixed(style="loaf-free", lines=lines(egg=5), parts=blended(round=1.0), salt_frac=low, salt_place="mixed")
    whole = evaluate(edge, inventory=INVENTORY, kitchen=KITCHEN).mix.whole
    assert whole.salt_g / whole.mass_g == pytest.approx(lim.LESS_SALT_FRAC, rel=1e-4)


def test_counsel_salts_to_just_under_the_limit() -> None:
    salty = edited(
        mixed(style="loaf-free", lines=lines(egg=5), parts=blended(round=1.0), salt_frac=0.02, salt_place="mixed"),
        KeepLimit("less-salt", True),
    )
    counsel = next(
        c for c in evaluate(salty, inventory=INVENTORY, kitchen=KITCHEN).counsel if c.rule == "mix.less-salt"
    )
    after_ = edited(salty, counsel.changes[0].edit)
    whole = evaluate(after_, inventory=INVENTORY, kitchen=KITCHEN).mix.whole
    # A fiftieth of what may be added stays free.
    assert 0.9 * lim.LESS_SALT_FRAC < whole.salt_g / whole.mass_g < lim.LESS_SALT_FRAC
    other = edited(salty, KeepLimit("less-fat", True))
    fat = [c for c in evaluate(other, inventory=INVENTORY, kitchen=KITCHEN).counsel if c.rule == "mix.less-fat"]
    assert all(not c.changes for c in fat)


def test_the_bread_offered_is_of_its_kind_and_nearest_in_width() -> None:
    wheat_free = [replace(b, key=f"{b.key}-free", name=f"{b.name}, no gluten", allergens=()) for b in KITCHEN.buns]
    far, near = (b for b in wheat_free if b.key in ("soft-90-free", "soft-100-free"))
    kitchen = replace(KITCHEN, buns=(*KITCHEN.buns, *wheat_free))
    formula = edited(smash(), KeepLimit("no-gluten", True))
    counsel = next(
        c for c in evaluate(formula, inventory=INVENTORY, kitchen=kitchen).counsel if c.rule == "mix.no-gluten"
    )
    chosen = next(c.edit for c in counsel.changes if getattr(c.edit, "field", "") == "bun")
    now = kitchen.bun(formula.shape.bun)
    wanted = min((far, near), key=lambda b: abs(b.diameter_mm - now.diameter_mm))
    assert chosen.key == wanted.key


# --- shares of a blend -----------------------------------------------------------------------------------------------

THREE = (BlendPart("a", 0.5), BlendPart("b", 0.3), BlendPart("c", 0.2))


@pytest.mark.parametrize("index", [-1, 2, 3])
def test_there_is_no_edge_outside_the_blend(index: int) -> None:
    with pytest.raises(Exception, match=rf"no edge {index} in a blend of 3"):
        move_edge(THREE, index=index, at_frac=0.5)


def test_the_last_edge_moves_the_last_two_only() -> None:
    moved = move_edge(THREE, index=1, at_frac=0.7)
    assert [p.share_frac for p in moved] == pytest.approx([0.5, 0.2, 0.3])


@pytest.mark.parametrize("share", [-0.001, 1.001, math.nan, math.inf])
def test_a_share_outside_nought_and_a_hundred_per_cent_is_named(share: float) -> None:
    with pytest.raises(Exception, match=rf"^{share * 100:.4g} % is not a share"):
        set_share(THREE, meat="a", share_frac=share)


def test_what_locked_meats_hold_is_said_in_per_cent() -> None:
    held = (THREE[0], replace(THREE[1], locked=True), replace(THREE[2], locked=True))
    with pytest.raises(InfeasibleBlendError, match="Locked meats hold 50 %; at most 50 % is left"):
        set_share(held, meat="a", share_frac=0.6)
    one_free = (*held[:2], replace(held[2], locked=False))
    moved = set_share(one_free, meat="a", share_frac=0.7)
    assert [p.share_frac for p in moved] == pytest.approx([0.7, 0.3, 0.0])


def test_meats_at_nothing_share_what_comes_free_alike() -> None:
    bare = (BlendPart("a", 1.0), BlendPart("b", 0.0), BlendPart("c", 0.0))
    assert [p.share_frac for p in set_share(bare, meat="a", share_frac=0.4)] == pytest.approx([0.4, 0.3, 0.3])


def test_a_pub_burger_and_balls_keep_their_places_in_this_table() -> None:
    """The demo stands where its kitchen's floor says: a guard against a quiet change of the leading floor."""
    pub = prepare(harbour_light_pub(), inventory=INVENTORY, kitchen=KITCHEN).case
    balls = prepare(night_watch_balls(), inventory=INVENTORY, kitchen=KITCHEN).case
    assert pub.usual.floors.leading.key == balls.usual.floors.leading.key == "food-code"
    assert pub.usual.below_floor
    assert not balls.usual.below_floor
