"""Opening lines and mixes at the figures where their reading turns: just inside, and just outside."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.opening.opening import Opening, open_line
from vianda.core.opening.recipe import read_recipe
from vianda.core.pipeline.compute import prepare
from vianda.core.reading.line import read_line
from vianda.core.reading.mix_line import MixReading, read_mix
from vianda.core.reading.quantities import FILLS
from vianda.core.reading.said import Said
from vianda.core.shape.bun_fit import fitting_bun

INVENTORY, KITCHEN = starter_inventory(), yard_galley()
US = replace(KITCHEN, unit_system="us")


def _open(line: str, *, kitchen: Kitchen = KITCHEN, inventory: Inventory = INVENTORY) -> Opening:
    return open_line(line, inventory=inventory, kitchen=kitchen)


def _said(line: str, *, kitchen: Kitchen = KITCHEN, inventory: Inventory = INVENTORY) -> Said:
    return read_line(line, inventory=inventory, kitchen=kitchen).said


def _mix(text: str, *, inventory: Inventory = INVENTORY) -> MixReading:
    return read_mix(text, inventory=inventory, kitchen=KITCHEN, meat_mass_g=1000.0)


def _mass(text: str) -> float:
    amount = _mix(text).items[0].amount
    assert amount is not None
    return amount.mass_g


# ------------------------------------------------------------------------------------------------------------ amounts


@pytest.mark.parametrize("word", sorted(FILLS))
def test_how_full_a_spoon_is_counts_wherever_it_is_said(word: str) -> None:
    plain = _mass("2 tbsp flour")
    assert _mass(f"2 {word} tbsp flour") == pytest.approx(FILLS[word] * plain)


def test_a_spoon_that_is_said_to_be_full_before_its_measure() -> None:
    for word in ("heaped", "heaping", "rounded", "level"):
        items = _mix(f"a {word} tablespoon of flour and 2 eggs").items
        flour = next(i for i in items if i.ingredient == "flour").amount
        assert flour is not None
        assert flour.mass_g == pytest.approx(FILLS[word] * _mass("1 tbsp flour"), rel=1e-6)


def test_what_nobody_measures_is_told_as_a_range() -> None:
    told = next(p for p in _mix("a glug of olive oil").pieces if p.status in ("understood", "assumed"))
    amount = _mix("a glug of olive oil").items[0].amount
    assert amount is not None
    assert amount.guessed
    assert (told.label.amounts["m"].value, told.label.amounts["m"].high) == (amount.low_g, amount.high_g)
    plain = _mix("30 g olive oil").items[0].amount
    assert plain is not None
    assert not plain.guessed


def test_a_weighing_is_no_guess_and_a_pinch_is() -> None:
    weighed = _mix("100 g milk").items[0].amount
    assert weighed is not None
    assert not weighed.guessed
    assert weighed.pieces == 0.0
    # What is told is what was read: a mass as it is.
    told = next(p for p in _mix("100 g milk").pieces if p.status == "understood")
    assert told.label.amounts["m"].value == pytest.approx(100.0)


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("2 and three quarters tsp salt", 2.75),
        ("2 and a quarter tsp salt", 2.25),
        ("2 and a half tsp salt", 2.5),
        ("2 3/4 tsp salt", 2.75),
        ("three quarters tsp salt", 0.75),
    ],
)
def test_parts_behind_a_number_belong_to_it(text: str, value: float) -> None:
    assert _mass(text) == pytest.approx(value * _mass("1 tsp salt"), rel=1e-6)


@pytest.mark.parametrize(
    ("text", "count"),
    [
        ("a hundred and twenty", 120),
        ("two hundred and four", 204),
        ("twenty four", 24),
        ("two dozen", 24),
        ("one hundred", 100),
        ("a thousand and one", 1001),
    ],
)
def test_numbers_in_words(text: str, count: int) -> None:
    pieces = _said(f"{text} meatballs, 4 kg").pieces
    assert [p.count.value for p in pieces if p.count is not None] == [count]


# ------------------------------------------------------------------------------------------------------ fat and temper


@pytest.mark.parametrize(
    ("line", "low", "usual", "high"),
    [
        ("chuck and round, 80-85% lean, 1 kg", 0.15, 0.175, 0.20),
        ("chuck and round, 15-20% fat, 1 kg", 0.15, 0.175, 0.20),
        ("chuck and round, 90% lean, 1 kg", 0.10, 0.10, 0.10),
    ],
)
def test_a_range_of_lean_is_the_range_of_its_fat(line: str, low: float, usual: float, high: float) -> None:
    fat = _said(line).fats[0]
    assert sorted((fat.low, fat.high)) == pytest.approx([low, high])
    assert fat.value == pytest.approx(usual)


def test_fat_is_said_of_a_meat_up_to_sixty_per_cent() -> None:
    at, above = _open("burgers 60% fat, 1 kg"), _open("burgers 61% fat, 1 kg")
    assert at.formula is not None
    assert above.formula is None
    assert [a.text.text for a in above.asks] == ["{share} {meat}: and the rest?"]


@pytest.mark.parametrize(("figure", "celsius"), [(230, 230.0), (231, 110.556), (290, 143.333), (400, 204.444)])
def test_a_bare_heat_in_a_kitchen_of_us_units_is_fahrenheit_above_230(figure: int, celsius: float) -> None:
    found = _said(f"4 burgers, plate at {figure}", kitchen=US).surface_temp
    assert [f.value for f in found] == pytest.approx([celsius], abs=0.001)


@pytest.mark.parametrize(("figure", "celsius"), [(231, 231.0), (290, 290.0), (291, 143.889), (100, 100.0)])
def test_a_bare_heat_elsewhere_is_fahrenheit_above_290(figure: int, celsius: float) -> None:
    found = _said(f"4 burgers, plate at {figure}").surface_temp
    assert [f.value for f in found] == pytest.approx([celsius], abs=0.001)


@pytest.mark.parametrize("figure", [91, 95, 99])
def test_a_bare_figure_below_a_hundred_is_no_heat_of_a_surface(figure: int) -> None:
    assert _said(f"4 burgers, plate at {figure}").surface_temp == []


# -------------------------------------------------------------------------------------------------------------- sizes


@pytest.mark.parametrize(
    ("line", "size"),
    [
        ("meatloaf in a 25 cm x 12 cm tin", (250.0, 120.0)),
        ("meatloaf in a 10 inch x 5 inch tin", (254.0, 127.0)),
        ("meatloaf in a 250 mm x 120 mm tin", (250.0, 120.0)),
        ("meatloaf in a 20x20 pan", (508.0, 508.0)),
    ],
)
def test_both_figures_of_a_size_have_its_unit_and_small_bare_ones_are_inches(
    line: str, size: tuple[float, ...]
) -> None:
    found = [m[1] for m in _said(line).moulds]
    assert found == [pytest.approx(size)]


def test_large_bare_figures_are_no_inches() -> None:
    assert _said("meatloaf in a 21x21 pan").moulds == []


# ------------------------------------------------------------------------------------------- pieces, people and masses


@pytest.mark.parametrize(
    ("line", "pieces", "guests"),
    [
        ("burgers for 6, 12", 12, 6),
        ("meatballs for 6, 30", 30, 6),
        ("2 burgers each for 6, 900 g", 12, 6),
        ("3 burgers each for 5, 1.5 kg", 15, 5),
    ],
)
def test_a_bare_figure_beside_people_counts_pieces(line: str, pieces: int, guests: int) -> None:
    formula = _open(line).formula
    assert formula is not None
    assert (formula.dish.pieces, formula.dish.guests) == (pieces, guests)


@pytest.mark.parametrize("line", ["ragu for 6, 12", "meatloaf for 6, 12"])
def test_what_has_no_pieces_asks_what_a_bare_figure_counts(line: str) -> None:
    opened = _open(line)
    assert opened.formula is None
    assert len(opened.asks[0].choices) >= 2


def test_a_range_of_all_the_meat_is_planned_for_its_middle_and_that_is_said() -> None:
    opened = _open("burgers from 750-850 g")
    assert opened.formula is not None
    assert opened.formula.shape.batch_mass_g == 800
    told = [a for a in opened.assumed if "planned for" in a.text]
    assert [(t.amounts["range"].value, t.amounts["range"].high, t.amounts["m"].value) for t in told] == [
        (750.0, 850.0, 800.0)
    ]
    assert not [a for a in _open("burgers from 800 g").assumed if "planned for" in a.text]


def test_a_range_of_a_meat_is_told_as_well() -> None:
    told = [a for a in _open("750 to 850 g mince, burgers").assumed if "planned for" in a.text]
    assert [t.amounts["m"].value for t in told] == [800.0]


def test_some_burgers_of_more_than_three_hundred_grams_are_that_much_in_all() -> None:
    at, above = _said("2 persons 300 g burgers"), _said("2 persons 301 g burgers")
    assert [f.value for f in at.masses] == []
    assert [f.value for f in above.masses] == [301.0]


EACH, WHOLE = "each", "in all"


@pytest.mark.parametrize(
    ("line", "told"),
    [
        # A weight alone beside burgers: up to 250 g of one, from 450 g of all; of balls 80 and 150 g.
        ("burgers 250 g", EACH),
        ("burgers 251 g", "asked"),
        ("burgers 449 g", "asked"),
        ("burgers 450 g", WHOLE),
        ("meatballs 80 g", EACH),
        ("meatballs 81 g", "asked"),
        ("meatballs 149 g", "asked"),
        ("meatballs 150 g", WHOLE),
        # With a count, all of it if a piece then has 70 g; up to 300 g it may as well be one.
        ("4 burgers, 279 g", EACH),
        ("4 burgers, 280 g", "asked"),
        ("4 burgers, 300 g", "asked"),
        ("4 burgers, 301 g", WHOLE),
        ("3 burgers, 209 g", EACH),
        ("3 burgers, 210 g", "asked"),
        ("20 meatballs, 240 g", WHOLE),
    ],
)
def test_a_weight_that_stands_alone_is_of_one_of_all_or_asked(line: str, told: str) -> None:
    opened = _open(line)
    grams = float(line.removesuffix(" g").split()[-1])
    if told == "asked":
        assert opened.formula is None
        assert {c.text.split(" g ")[-1] for c in opened.asks[0].choices} == {EACH, WHOLE}
        return
    assert opened.formula is not None
    shape = opened.formula.shape
    if told == WHOLE:
        assert shape.batch_mass_g == grams
    else:
        assert shape.piece_mass_g == grams


@pytest.mark.parametrize("line", ["4 burgers, 300 g", "3 burgers, 250 g", "2 burgers, 290 g"])
def test_what_was_counted_is_still_counted_in_the_answers(line: str) -> None:
    count = int(line.split()[0])
    for choice in _open(line).asks[0].choices:
        assert choice.text.startswith(f"{count} burgers")
        answered = _open(choice.text).formula
        assert answered is not None
        assert answered.dish.pieces == count


def test_two_weights_and_a_count_by_the_head() -> None:
    # 12 burgers from 900 g: two each for six, so that 75 g is what one weighs.
    opened = _open("2 burgers each for 6, 900 g, 75 g")
    assert opened.formula is not None
    assert (opened.formula.dish.pieces, opened.formula.shape.piece_mass_g) == (12, 75)


def test_meats_with_a_mass_each_and_one_by_share_sum_up() -> None:
    opened = _open("burgers: 500 g chuck and 250 g pork")
    assert opened.formula is not None
    assert opened.formula.shape.batch_mass_g == 750
    assert [round(p.share_frac, 4) for p in opened.formula.parts] == [0.6667, 0.3333]


# ------------------------------------------------------------------------------------------ what was said and is kept


@pytest.mark.parametrize(
    "line",
    ["4 burgers, plate 230 °C, core 71 °C", "4 burgers 20 mm thick", "4 burgers 100 mm wide", "20 meatballs 38 mm"],
)
def test_a_figure_that_the_plan_keeps_raises_no_word(line: str) -> None:
    opened = _open(line)
    assert opened.formula is not None
    assert not [r for r in opened.remarks if "was said; the plan" in r.text or "were said; the plan" in r.text]


@pytest.mark.parametrize("each", [70, 85, 90, 100, 120, 150, 200, 250])
def test_burgers_get_the_bread_that_fits_what_they_shrink_to(each: int) -> None:
    formula = _open(f"4 burgers {each} g each").formula
    assert formula is not None
    shape = prepare(formula, inventory=INVENTORY, kitchen=KITCHEN).piece.shape
    assert formula.shape.bun == fitting_bun(KITCHEN, cooked_diameter_mm=shape.cooked_diameter_mm.usual).key


# -------------------------------------------------------------------------------------------------- names of one's own


def test_a_meat_under_a_new_name_is_read_by_it() -> None:
    chuck = INVENTORY.meats["chuck"]
    renamed = replace(INVENTORY, meats={**INVENTORY.meats, "chuck": replace(chuck, name="Harbour neck")})
    opened = _open("1 kg harbour neck, burgers", inventory=renamed)
    assert opened.formula is not None
    assert [p.meat for p in opened.formula.parts] == ["chuck"]
    own = replace(INVENTORY, meats={**INVENTORY.meats, "tide-beef": replace(chuck, key="tide-beef", name="Tide beef")})
    opened = _open("1 kg tide beef, burgers", inventory=own)
    assert opened.formula is not None
    assert [p.meat for p in opened.formula.parts] == ["tide-beef"]


# ------------------------------------------------------------------------------------------------------------ recipes


@pytest.mark.parametrize(("method", "became"), [("Shape into 12 balls.", "shape"), ("Form into something.", "note")])
def test_a_line_that_shapes_says_into_what(method: str, became: str) -> None:
    page = f"Balls\nServes 4\n500 g beef mince\n10 g salt\nMethod\n{method}\n"
    reading = read_recipe(page, inventory=INVENTORY, kitchen=KITCHEN)
    line = next(x for x in reading.lines if method.rstrip(".") in x.text)
    assert line.became == became
