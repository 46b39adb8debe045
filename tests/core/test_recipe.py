"""Pasted recipes: what each line becomes, what waits, and what the formula then is."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vianda.core.basis.errors import CoreError, UnreadableEntryError
from vianda.core.demo.kitchen import yard_galley
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.opening.recipe import RecipeReading, read_recipe
from vianda.core.reading.recipe import LONGEST_RECIPE, heat_said, page_lines

BALLS = """Night-watch meatballs

Serves 6 (makes about 30 meatballs)

Ingredients
- 500 g beef mince (15% fat)
- 250 g pork mince
- 75 g fresh breadcrumbs
- 100 ml milk
- 1 egg, beaten
- 10 g salt
- freshly ground black pepper

For the sauce:
2 x 400 g tins chopped tomatoes
2 tbsp olive oil
1 tsp sugar

To serve
spaghetti

Method
1. Soak the breadcrumbs in the milk for 10 minutes.
2. Mix gently, then shape into 30 balls.
3. Preheat the oven to 220C. Bake for 15 minutes, then simmer in the sauce for 20 minutes until the core reads 72 C.
"""
BURGERS = """Yard burgers
Yield: 4 burgers
1 1/2 lbs ground beef (80/20)
1 tsp kosher salt
4 burger buns
Directions
Divide the meat into 4 patties. Heat a cast iron skillet to 450F.
Cook for 3 minutes per side until internal temperature is 160F.
"""
LOAF = """Keeper's loaf
for 8
1 kg beef mince
2 eggs
1 onion, finely chopped
100 g oats
150 ml milk
15 g salt
Glaze:
100 g ketchup
20 g brown sugar
1 tbsp vinegar
Instructions
Mix, shape into a loaf and bake at 170 C for 1 hour until 70 C inside.
Brush with the glaze.
"""


def _read(text: str, **more: str) -> RecipeReading:
    return read_recipe(text, inventory=starter_inventory(), kitchen=yard_galley(), **more)


def _grams(read: RecipeReading) -> dict[str, float]:
    e = evaluate(read.formula, inventory=starter_inventory(), kitchen=yard_galley())
    return {line.ingredient: line.mass_g for line in e.mix.lines}


def test_a_recipe_becomes_its_meats_mix_salt_pieces_and_heat() -> None:
    read = _read(BALLS)
    f = read.formula
    assert [(p.meat, round(p.share_frac, 4)) for p in f.parts] == [("ground-85", 0.6667), ("pork-ground", 0.3333)]
    assert (f.dish.style, f.dish.guests, f.dish.pieces, f.shape.batch_mass_g) == ("ball-simmered", 6, 30, 750)
    assert _grams(read) == {
        "fresh-crumbs": pytest.approx(75, abs=0.05),
        "milk": pytest.approx(103.1, abs=0.1),
        "egg": pytest.approx(50, abs=0.05),
    }
    assert (f.heat.surface_temp_c, f.heat.target_core_temp_c) == (220, 72)
    assert [(s.kind, s.until, s.time_s) for s in f.heat.stages] == [("surface", "time", 900), ("simmer", "core", 0)]
    salt = evaluate(f, inventory=starter_inventory(), kitchen=yard_galley()).salt
    assert salt.batch_salt_g == pytest.approx(10, abs=0.05)


def test_each_line_says_what_it_became() -> None:
    became = {line.text.split(",")[0]: line.became for line in _read(BALLS).lines}
    assert became["500 g beef mince (15% fat)"] == "meat"
    assert became["1 egg"] == "mix"
    assert became["10 g salt"] == "salt"
    assert became["1 tsp sugar"] == "sauce"
    assert became["spaghetti"] == "serving"
    assert became["Soak the breadcrumbs in the milk for 10 minutes."] == "note"
    assert _read(BALLS).waiting == ()


def test_a_sauce_is_a_house_formula_by_mass(inventory: Inventory) -> None:
    (sauce,) = _read(BALLS).house
    assert {line.ingredient: round(line.mass_g, 1) for line in sauce.house.lines} == {
        "whole-tomatoes": 800,
        "olive-oil": 27,
        "sugar": 4.2,
    }
    assert sauce.key not in inventory.pantry


def test_a_burger_recipe_keeps_its_sides_floor_and_salt() -> None:
    read = _read(BURGERS)
    f = read.formula
    assert (f.dish.dish, f.dish.pieces, f.parts[0].meat) == ("burger", 4, "ground-80")
    assert f.shape.batch_mass_g == pytest.approx(680.39, abs=0.01)
    assert f.heat.surface == "iron-pan"
    assert f.heat.surface_temp_c == pytest.approx(232.2, abs=0.1)
    assert f.heat.target_core_temp_c == pytest.approx(71.1, abs=0.05)
    assert [(s.kind, s.flip, s.until) for s in f.heat.stages] == [("surface", False, "time"), ("surface", True, "core")]
    assert f.seasoning.salt_place == "surface"


def test_a_loaf_has_its_glaze_apart() -> None:
    read = _read(LOAF)
    f = read.formula
    assert (f.dish.dish, f.dish.guests, f.heat.surface_temp_c, f.heat.target_core_temp_c) == ("meatloaf", 8, 170, 70)
    assert set(_grams(read)) == {"egg", "onion", "oats", "milk"}
    assert [h.house.lines[0].ingredient for h in read.house] == ["ketchup"]


@pytest.mark.parametrize(
    ("line", "choice"),
    [
        ("1 cup rice", "cooked rice"),
        ("parsley", "tsp"),
        ("2 tbsp butter or oil", "butter"),
        ("2 tbsp gochujang", "hot pepper"),
    ],
)
def test_what_is_open_waits_with_choices_that_settle_it(line: str, choice: str) -> None:
    text = BALLS.replace("- 1 egg, beaten", f"- {line}\n- 1 egg, beaten")
    (waiting,) = _read(text).waiting
    taken = next(c.text for c in waiting.choices if choice in c.text)
    lines = text.split("\n")
    lines[waiting.place] = taken
    assert _read("\n".join(lines)).waiting == ()


def test_a_corrected_summary_decides_dish_and_pieces() -> None:
    read = _read(BALLS)
    again = _read(BALLS, summary=read.line.replace("meatballs", "burgers", 1).replace("30 meatballs", "10 burgers"))
    assert again.formula.dish.pieces in (10, 30)
    assert again.formula.dish != read.formula.dish or again.formula.shape != read.formula.shape


def test_what_contradicts_itself_is_asked_and_gives_no_formula() -> None:
    read = _read("Burgers and meatballs\n8 burgers of 500 g\n1 kg beef mince\nMethod\nGrill.")
    assert read.formula is None
    assert read.asks


@pytest.mark.parametrize(
    ("step", "kind", "temp_c", "time_s", "core_c"),
    [
        ("Bake at 200 C for 20 minutes.", "oven", 200, 1200, None),
        ("Preheat the oven to 350F.", "preheat", 176.67, None, None),
        ("Simmer gently for 1 h 30 min.", "simmer", None, 5400, None),
        ("Grill 4 minutes per side until the core reads 71 C.", "surface", None, 240, 71),
        ("Chill for 30 minutes.", "other", None, 1800, None),
    ],
)
def test_a_step_says_its_heat(step: str, kind: str, temp_c: float, time_s: float, core_c: float) -> None:
    first = heat_said(step, inventory=starter_inventory(), kitchen=yard_galley())[0]
    assert first.kind == kind
    assert first.temp_c == (None if temp_c is None else pytest.approx(temp_c, abs=0.01))
    assert (first.time_s, first.core_c) == (time_s, core_c)


@pytest.mark.parametrize("text", ["", "  \n ", "x" * (LONGEST_RECIPE + 1)])
def test_nothing_or_too_much_is_refused(text: str) -> None:
    with pytest.raises(UnreadableEntryError):
        _read(text)


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.sampled_from([*BALLS.split("\n"), *LOAF.split("\n"), "🍔", "<b>1 cup</b>", "-3 eggs", "1/0 cup milk"]))
)
def test_any_mixture_of_lines_is_read_or_refused_with_a_reason(lines: list[str]) -> None:
    try:
        read = _read("\n".join(lines))
    except CoreError as refused:
        assert refused.detail
        return
    assert {x.place for x in read.lines} == {x.place for x in page_lines("\n".join(lines))}
