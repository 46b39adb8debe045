from __future__ import annotations

import math
from dataclasses import replace
from types import SimpleNamespace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from formulas import blended, lines, mixed, smash, whole
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen, Scale
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.mix.index import BIND_WORDS
from vianda.core.mix.temperature import Part, chill_minutes, mixed_temp_c
from vianda.core.mix.weigh_out import household_measure
from vianda.core.model import edit as e
from vianda.core.model.formula import Formula, MixLine

pytestmark = pytest.mark.usefixtures("by_practice")

INVENTORY, KITCHEN, PANTRY = starter_inventory(), yard_galley(), starter_pantry()
AMOUNTS = st.dictionaries(
    st.sampled_from(["panko", "milk", "egg", "parmesan", "soft-onion", "ketchup", "butter", "pepper", "red-wine"]),
    st.floats(0, 0.6),
    min_size=1,
    max_size=9,
)


def _of(formula: Formula, kitchen: Kitchen = KITCHEN) -> SimpleNamespace:
    return whole(formula, inventory=INVENTORY, kitchen=kitchen)


@given(AMOUNTS, st.sampled_from(["mixed", "surface", "none"]))
def test_mass_water_fat_protein_and_salt_close(amounts: dict[str, float], place: str) -> None:
    formula = mixed(lines=tuple(MixLine(k, v) for k, v in amounts.items()), salt_place=place)
    v = _of(formula)
    w = v.mix.whole
    for name, part in (
        ("water_g", "water_g_per_100g"),
        ("fat_g", "fat_g_per_100g"),
        ("protein_g", "protein_g_per_100g"),
    ):
        from_lines = math.fsum(x.mass_g * getattr(PANTRY[x.ingredient].composition, part) / 100 for x in v.mix.lines)
        from_meat = math.fsum(
            p.share_frac * w.meat_g * getattr(INVENTORY.meat(p.meat).composition_at(p.fat_usual_frac), part) / 100
            for p in v.blend.parts
        )
        assert getattr(w, name) == pytest.approx(from_lines + from_meat, rel=1e-9)
    own = math.fsum(
        p.share_frac * w.meat_g * INVENTORY.meat(p.meat).composition_at(p.fat_usual_frac).salt_frac()
        for p in v.blend.parts
    )
    brought = math.fsum(x.salt_g for x in v.mix.lines)
    assert w.salt_g == pytest.approx(own + brought + v.salt.batch_salt_g, rel=1e-9)
    # A loaf or a ball lies in no bread: what a guest gets is the mix.
    assert v.served.sodium_mg * 2.542 / 1000 == pytest.approx(w.salt_g / formula.dish.guests, rel=1e-3)


def test_the_fat_of_the_meat_in_the_whole_is_the_fat_on_the_ticket() -> None:
    v = _of(mixed(lines=lines(panko=8, milk=10)))
    from_lines = math.fsum(x.mass_g * PANTRY[x.ingredient].composition.fat_g_per_100g / 100 for x in v.mix.lines)
    assert v.mix.whole.fat_g - from_lines == pytest.approx(v.blend.fat_frac * v.mix.whole.meat_g)
    assert v.mix.whole.fat_low_frac < v.mix.whole.fat_frac < v.mix.whole.fat_high_frac


def test_without_a_mix_the_burger_is_what_it_was() -> None:
    v = _of(smash())
    assert v.mix.whole.meat_g == v.portions.batch_mass_g == v.blend.batch_mass_g == 3400
    assert v.mix.lines == v.weigh_out.lines[1:] == ()
    assert (v.salt.batch_salt_g, v.salt.side_salt_g) == (pytest.approx(37.4), pytest.approx(0.4675))


def test_allergens_name_each_thing_they_come_from() -> None:
    v = _of(mixed(style="smashed", lines=lines(panko=3, worcester=1, milk=3), bun="soft-100"))
    found = {a.name: a for a in v.served.allergens}
    assert found["gluten (wheat)"].sources == ("Panko", "Soft bun, 100 mm")
    assert found["fish"].sources == ("Worcestershire sauce",)
    assert found["fish"].us
    assert not found["sulphites"].us
    ball = _of(mixed(lines=lines(panko=3)))
    assert all("bun" not in s.lower() for a in ball.served.allergens for s in a.sources)


@given(st.floats(0, 0.14), st.floats(0, 0.14))
def test_more_egg_never_binds_less(one: float, two: float) -> None:
    low, high = sorted((one, two))
    binds = [
        _of(mixed(lines=(MixLine("panko", 0.08), MixLine("milk", 0.1), MixLine("egg", x)))).mix.bind.value
        for x in (low, high)
    ]
    assert binds[0] <= binds[1]


def test_an_index_is_the_sum_of_its_named_rules() -> None:
    for formula in (smash(), mixed(), mixed(style="loaf-tray"), mixed(work="processor", work_s=40)):
        mix = _of(formula).mix
        for index in (mix.bind, mix.looseness):
            assert index.value == min(100, max(0, sum(t.points for t in index.terms)))
            assert all(t.why.text for t in index.terms)
    assert _of(smash()).mix.bind.value == 40
    assert _of(mixed(style="loaf-free")).mix.bind.word == BIND_WORDS[3]


def test_each_rule_of_the_index_can_be_set_off() -> None:
    bowls = [
        mixed(lines=lines(egg=8, egg_white=4, panko=8, milk=12, parmesan=6, onion=10)),
        mixed(lines=lines(dry_crumbs=8)),
        mixed(lines=lines(dry_crumbs=4, milk=30)),
        mixed(lines=lines(panko=8, milk=12), parts=blended(fat_trim=0.3, chuck=0.7), work_s=240, meat_temp_c=20),
        mixed(lines=lines(panko=8, milk=12), work="processor", work_s=15),
        mixed(style="smoked", lines=lines(onion=10)),
    ]
    bind = {t.rule for f in bowls for t in _of(f).mix.bind.terms}
    loose = {t.rule for f in bowls for t in _of(f).mix.looseness.terms}
    assert len(bind) == 13
    assert len(loose) == 11


def test_soup_unbinds_and_a_panade_loosens() -> None:
    dry, paste, soup = (_of(mixed(lines=lines(dry_crumbs=6, egg=8, milk=m))).mix for m in (0, 9, 30))
    assert soup.bind.value < dry.bind.value < paste.bind.value
    assert dry.looseness.value < paste.looseness.value


@given(
    st.lists(
        st.tuples(st.sampled_from(["milk", "panko", "egg", "butter"]), st.floats(1, 2000), st.floats(0, 60)),
        min_size=1,
        max_size=5,
    )
)
def test_a_mix_is_never_warmer_than_its_warmest_part_nor_colder_than_its_coldest(parts: list) -> None:
    temp = mixed_temp_c([Part(m, PANTRY[k].composition, t) for k, m, t in parts])
    assert min(t for *_, t in parts) - 1e-9 <= temp <= max(t for *_, t in parts) + 1e-9


def test_chilling_is_a_logarithm_and_cannot_pass_the_air() -> None:
    beef = INVENTORY.meat("ground-80").composition
    half = chill_minutes(from_c=13, to_c=8, composition=beef, air_c=3)
    quarter = chill_minutes(from_c=13, to_c=5.5, composition=beef, air_c=3)
    # Twice the halvings take twice the time, but for the slow change of heat capacity with temperature.
    assert quarter.usual == pytest.approx(2 * half.usual, rel=0.01)
    assert chill_minutes(from_c=3.5, to_c=4, composition=beef).high == 0
    with pytest.raises(OutOfRangeError):
        chill_minutes(from_c=13, to_c=3, composition=beef, air_c=3)


def test_the_protocol_follows_what_is_in_the_bowl() -> None:
    kinds = [s.kind for s in _of(mixed(style="loaf-free")).protocol.steps]
    assert kinds == ["cook-ahead", "soak", "season", "meats", "work", "measure", "fry", "chill", "shape"]
    assert [s.title for s in _of(smash()).protocol.steps][-1] == "Leave it alone"
    salted = _of(mixed(style="smashed", lines=(), salt_place="mixed")).protocol
    assert "Shape at once" in [s.title for s in salted.steps]
    assert _of(mixed(style="ragu")).protocol.steps[1].kind == "brown"
    limits = {s.kind: s.below_c for s in _of(mixed(style="loaf-free")).protocol.steps}
    assert (limits["cook-ahead"], limits["meats"], limits["work"]) == (30, 5, 10)


def test_a_correction_is_for_what_is_left_of_the_batch() -> None:
    v = whole(mixed(), inventory=INVENTORY, kitchen=KITCHEN)
    fixes = {c.verdict: c for c in v.corrections}
    rest = (v.portions.batch_mass_g - 8) / v.portions.batch_mass_g
    assert fixes["bland"].salt_g == pytest.approx(0.002 * v.mix.whole.meat_g * rest)
    assert fixes["bland"].salt_tsp == pytest.approx(fixes["bland"].salt_g / 6)
    # Unsalted meat worked in until salt stands a step lower: w m = (w − 0.002)(m + x).
    meat, now = v.mix.whole.meat_g * rest, v.salt.salt_frac
    assert (now - 0.002) * (meat + fixes["salty"].plain_meat_g) == pytest.approx(now * meat)
    changed = apply_edit(mixed(), fixes["bland"].edit, inventory=INVENTORY, kitchen=KITCHEN)
    assert changed.seasoning.salt_frac == pytest.approx(now + 0.002)


@given(AMOUNTS, st.sampled_from([1, 2, 5, 10]), st.integers(1, 60))
def test_what_is_weighed_is_on_the_scale_and_says_how_far_it_is_off(amounts: dict, step: int, guests: int) -> None:
    kitchen = replace(KITCHEN, scale=Scale(step, 200_000))
    formula = mixed(lines=tuple(MixLine(k, v) for k, v in amounts.items()), guests=guests, piece_mass_g=60)
    out = _of(formula, kitchen).weigh_out
    exact = math.fsum(w.exact_g for w in out.lines if w.how == "scale" and w.ingredient)
    shown = math.fsum(w.measured_g for w in out.lines if w.how == "scale" and w.ingredient)
    if exact:
        assert abs(shown - exact) <= step / 2 + 1e-6 or shown == step
    for w in out.lines:
        assert w.measured_g > 0
        assert w.error_frac == pytest.approx(w.measured_g / w.exact_g - 1)
        if w.how == "scale":
            assert w.measured_g % step == 0
            assert step / 2 / w.exact_g <= 0.05 + 1e-9
    assert out.off_frac == pytest.approx(out.comes_to_g / (out.comes_to_g / (1 + out.off_frac)) - 1)


def test_eggs_stay_whole_or_are_weighed() -> None:
    egg = (MixLine("panko", 0.08), MixLine("milk", 0.1), MixLine("egg", 0.08, counted=True))
    out = _of(mixed(lines=egg)).weigh_out.lines[2]
    assert (out.how, out.count, out.household) == ("pieces", 3, "3 large eggs")
    assert out.measured_g == 150
    weighed = _of(mixed(lines=lines(panko=8, milk=10, egg=8))).weigh_out.lines[2]
    assert weighed.how == "scale"
    assert abs(weighed.error_frac) < 0.01


@pytest.mark.parametrize(
    ("grams", "key", "said"),
    [
        (36, "dry-crumbs", "⅓ cup"),
        (12, "salt-fine", "2 tsp"),
        (108, "dry-crumbs", "1 cup"),
        (500, "milk", "2 cups"),
        (100, "egg", "2 large eggs"),
        (25, "egg", "½ large egg"),
        (0.14, "nutmeg", "a pinch"),
        (30, "milk", "2 tbsp"),
        (0.01, "nutmeg", "less than a pinch"),
        (58, "white-bread", "2 slices"),
    ],
)
def test_grams_are_said_in_the_measures_of_a_kitchen(grams: float, key: str, said: str) -> None:
    assert household_measure(grams, PANTRY[key]) == said


def test_loaves_are_shared_and_none_lies_over_the_edge_of_the_tray() -> None:
    formula = mixed(style="loaf-free", guests=26)
    v = whole(formula, inventory=INVENTORY, kitchen=KITCHEN)
    assert v.portions.pieces == 4
    across, deep = v.stove.footprint_mm
    for x, y in v.stove.centres_mm:
        assert across / 2 - 1e-6 <= x <= v.stove.surface_width_mm - across / 2 + 1e-6
        assert deep / 2 - 1e-6 <= y <= v.stove.surface_depth_mm - deep / 2 + 1e-6
    assert "÷" in v.workings["pieces"].steps[0].text


def test_what_simmers_does_so_together_after_every_wave() -> None:
    v = _of(mixed(style="ball-simmered", guests=40))
    assert v.stove.waves > 1
    assert [s.kind for s in v.stove.each_wave] == ["lay", "bake"]
    assert v.stove.after[0].kind == "simmer"
    bake = next(s for s in v.heat.stages if s.kind == "bake")
    simmer = next(s for s in v.heat.stages if s.kind == "simmer")
    usual = (bake.low_s + bake.high_s) / 2 * v.stove.waves + (simmer.low_s + simmer.high_s) / 2
    assert v.stove.on_heat_s == pytest.approx(usual)


@pytest.mark.parametrize(
    ("rule", "name"), [("US", "ground beef"), ("EU", "minced pure beef"), ("CA", "lean ground beef")]
)
def test_what_is_mixed_in_costs_the_name(rule: str, name: str, inventory: Inventory, kitchen: Kitchen) -> None:
    formula = mixed(style="smashed", parts=blended(ground_85=1.0), lines=lines(panko=3, egg=3))
    names = {
        n.name: n for n in evaluate(formula, inventory=inventory, kitchen=replace(kitchen, naming_rule=rule)).names
    }
    assert names[name].bar == "binder"
    seasoned = replace(formula, mix=replace(formula.mix, lines=lines(pepper=0.3)))
    names = {
        n.name: n for n in evaluate(seasoned, inventory=inventory, kitchen=replace(kitchen, naming_rule=rule)).names
    }
    assert names[name].bar != "binder"


def test_under_the_uk_rule_beef_is_a_share_of_the_whole(inventory: Inventory, kitchen: Kitchen) -> None:
    uk = replace(kitchen, naming_rule="UK")
    formula = mixed(style="smashed", parts=blended(chuck=1.0), lines=lines(soft_onion=58), salt_place="none")
    assert evaluate(formula, inventory=inventory, kitchen=uk).names[0].allowed
    more = replace(formula, mix=replace(formula.mix, lines=lines(soft_onion=63)))
    name = evaluate(more, inventory=inventory, kitchen=uk).names[0]
    assert (name.allowed, name.bar) == (False, "too-little-beef")
    assert name.tests[0].value_frac == pytest.approx(1 / 1.63)


def test_one_per_cent_of_salt_worked_in_costs_the_eu_name(inventory: Inventory, kitchen: Kitchen) -> None:
    eu = replace(kitchen, naming_rule="EU")
    for place, bar in (("mixed", "salt"), ("surface", "none")):
        formula = mixed(style="smashed", parts=blended(ground_85=1.0), lines=(), salt_place=place, salt_frac=0.012)
        names = {n.name: n.bar for n in evaluate(formula, inventory=inventory, kitchen=eu).names}
        assert (names["minced pure beef"] == "salt") is (bar == "salt")


def test_typed_minutes_and_chosen_work_stand_in_the_formula() -> None:
    formula = mixed()
    for edit, name, value in (
        (e.TypeFigure("soak", "25"), "soak_min", 25),
        (e.TypeFigure("chill", "1 h"), "chill_min", 60),
        (e.TypeFigure("work_time", "1:30"), "work_s", 90),
        (e.TypeFigure("meat_temp", "38F"), "meat_temp_c", pytest.approx(3.33, abs=0.01)),
        (e.Choose("work", "processor"), "work_s", 12),
    ):
        formula = apply_edit(formula, edit, inventory=INVENTORY, kitchen=KITCHEN)
        assert getattr(formula.mix, name) == value


def test_what_goes_in_is_paid_for_by_hand() -> None:
    formula = mixed(lines=lines(panko=8, milk=10, egg=8), salt_frac=0.016)
    v = _of(formula)
    prices = {"panko": 6.2, "milk": 1.2, "egg": 5.2}
    by_hand = sum(x.mass_g / 1000 * prices[x.ingredient] for x in v.mix.lines) + v.salt.batch_salt_g / 1000 * 0.8
    assert float(v.cost.mix_cost) == pytest.approx(by_hand)
    portion = (v.cost.meat_cost + v.cost.mix_cost) / formula.dish.guests
    assert v.cost.portion_cost == pytest.approx(portion)
    assert v.cost.bun_cost == 0


def test_a_sauce_browns_only_its_meat_and_simmers_once() -> None:
    v = _of(mixed(style="ragu", guests=12))
    assert v.stove.at_once > 1
    assert v.stove.each_wave[-1].kind == "brown"
    assert v.stove.after[0].kind == "simmer"
    assert v.shape.raw_diameter_mm == 0
    assert v.heat.reach == "usually"
    assert not v.heat.probe


def test_a_house_crumb_counts_as_crumb_with_its_salt_and_its_price() -> None:
    from vianda.core.demo.formulas import HOUSE_FORMULAS

    inventory = Inventory.of(INVENTORY.meats.values(), (), [*PANTRY.values(), *HOUSE_FORMULAS])
    v = evaluate(mixed(lines=lines(boathouse_crumbs=8, milk=12, egg=8)), inventory=inventory, kitchen=KITCHEN)
    assert v.mix.panade.state == "stiff"
    line = v.mix.lines[0]
    assert line.house
    assert line.salt_g > 0
    assert float(line.cost) == pytest.approx(line.mass_g / 1000 * 3.2 / 0.74)
    assert v.served.allergens[0].sources == ("Boathouse crumbs",)
