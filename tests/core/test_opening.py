from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vianda.core.basis.errors import CoreError, OutOfRangeError, UnreadableEntryError
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.opening.opening import open_line


def _open(line: str):
    return open_line(line, inventory=starter_inventory(), kitchen=yard_galley())


def test_the_newcomers_line_becomes_a_whole_plan() -> None:
    opened = _open("700 g unknown mince, iron pan, four people, burgers")
    f = opened.formula
    assert (f.shape.batch_mass_g, f.dish.guests, f.dish.pieces, f.heat.surface) == (700, 4, 8, "iron-pan")
    assert [p.meat for p in f.parts] == ["mince-unknown"]
    assert opened.unread == ()
    assert len(opened.questions) == 2


def test_the_first_question_is_the_one_that_narrows_most(inventory: Inventory, kitchen: Kitchen) -> None:
    opened = _open("700 g unknown mince, iron pan, four people")
    gains = [q.gain for q in opened.questions]
    assert gains == sorted(gains, reverse=True)
    before = evaluate(opened.formula, inventory=inventory, kitchen=kitchen).blend
    answered = apply_edit(opened.formula, opened.questions[0].answers[3].edit, inventory=inventory, kitchen=kitchen)
    after = evaluate(answered, inventory=inventory, kitchen=kitchen).blend
    assert after.fat_high_frac - after.fat_low_frac < 0.2 * (before.fat_high_frac - before.fat_low_frac)


@pytest.mark.parametrize(
    ("line", "meats"),
    [
        ("1 kg 80/20", ["ground-80"]),
        ("1 kg 20/80 mince", ["ground-80"]),
        ("2 lb mince 90 % lean", ["ground-90"]),
        ("500 g mince with 15% fat", ["ground-85"]),
        ("chuck and brisket point for 6", ["brisket-point", "chuck"]),
        ("500g ground turkey", ["turkey-ground"]),
        ("chuck, short rib and brisket, for 40", ["brisket", "chuck", "short-rib-plate"]),
        ("500 g venison and pork belly", ["pork-belly", "venison-ground"]),
        ("1 kg boneless chuck short rib", ["short-rib-chuck"]),
    ],
)
def test_meats_are_found_by_name_label_or_per_cent(line: str, meats: list[str]) -> None:
    assert sorted(p.meat for p in _open(line).formula.parts) == meats


@pytest.mark.parametrize(
    ("line", "style", "surface"),
    [
        ("1 kg mince on the grill for 6", "grilled", "charcoal-grate"),
        ("8 thick burgers", "thick", "iron-pan"),
        ("smashed, flat-top, 20 guests", "smashed", "yard-plate"),
        ("sliders for 10", "slider", "yard-plate"),
        ("1 kg for 4 on charcoal", "thick", "charcoal-grate"),
    ],
)
def test_fire_and_style_are_read_or_follow(line: str, style: str, surface: str) -> None:
    f = _open(line).formula
    assert (f.dish.style, f.heat.surface) == (style, surface)


def test_what_was_not_understood_is_said() -> None:
    assert _open("2 kg of purple elephants").unread == ("purple", "elephants")


@pytest.mark.parametrize("line", ["", "   ", "hello there", "🍔🍔🍔", "'; DROP TABLE formula; --", "x" * 400])
def test_a_line_with_nothing_in_it_is_refused_with_an_example(line: str) -> None:
    with pytest.raises(UnreadableEntryError) as caught:
        _open(line)
    assert caught.value.field == "/line"


WORDS = st.sampled_from(
    [
        "700",
        "g",
        "kg",
        "lb",
        "1/2",
        "mince",
        "chuck",
        "80/20",
        "for",
        "four",
        "0",
        "people",
        "iron",
        "pan",
        "grill",
        "smashed",
        "thick",
        "rare",
        "medium",
        "12",
        "%",
        "fat",
        ",",
        "and",
        "-3",
        "1e9",
    ]
)


@settings(max_examples=200, deadline=None)
@given(st.lists(WORDS, min_size=1, max_size=10))
def test_any_line_of_kitchen_words_gives_a_plan_that_evaluates_or_a_reason(words: list[str]) -> None:
    try:
        opened = _open(" ".join(words))
    except CoreError as refused:
        assert refused.detail
        return
    if opened.formula is None:
        assert opened.asks
        return
    evaluate(opened.formula, inventory=starter_inventory(), kitchen=yard_galley())


@pytest.mark.parametrize(
    ("line", "mass_g", "guests"),
    [
        ("half a kilo of mince for two", 500, 2),
        ("one and a half pounds of ground beef, skillet, 4 people", 680.388555, 4),
        ("a pound of mince for 3 people", 453.59237, 3),
        ("two kilos 80/20 for 12 people, charcoal", 2000, 12),
    ],
)
def test_masses_in_words_are_read_and_nothing_is_left_over(line: str, mass_g: float, guests: int) -> None:
    opened = _open(line)
    assert opened.formula.shape.batch_mass_g == pytest.approx(mass_g)
    assert opened.formula.dish.guests == guests
    assert opened.unread == ()


@pytest.mark.parametrize(("line", "says"), [("0 g mince for 4", "No meat"), ("1 kg mince for 0 people", "Nobody")])
def test_nothing_for_nobody_is_refused(line: str, says: str) -> None:
    with pytest.raises(OutOfRangeError, match=says):
        _open(line)


@pytest.mark.parametrize(
    ("line", "style", "form"),
    [
        ("1 kg mince, tacos, for 6", "smashed-taco", "spread"),
        ("1.5 kg chuck, smashed tacos for 12", "smashed-taco", "spread"),
        ("900 g chuck, four stuffed burgers", "filled-burger", "filled"),
        ("1 kg chuck, burgers filled with cheese for 5", "filled-burger", "filled"),
    ],
)
def test_what_is_filled_or_spread_is_made_so(
    inventory: Inventory, kitchen: Kitchen, line: str, style: str, form: str
) -> None:
    opening = _open(line)
    assert opening.formula.dish.style == style
    assert not opening.unread
    e = evaluate(opening.formula, inventory=inventory, kitchen=kitchen)
    assert e.shape.form == form
    if form == "spread":
        assert e.shape.raw_diameter_mm == kitchen.bun(opening.formula.shape.bun).across_mm
    else:
        assert e.shape.filling is not None
        assert e.shape.filling.fits


@pytest.mark.parametrize(
    ("line", "style", "pieces", "guests"),
    [
        ("1 kg mince, meatballs, for 6", "ball-baked", 36, 6),
        ("54 meatballs", "ball-baked", 54, 18),
        ("30 turkey meatballs for 10", "ball-baked", 30, 10),
        ("meatballs in sauce, 1.5 kg beef", "ball-simmered", 54, 9),
        ("meatloaf for 10", "loaf-free", 2, 10),
        ("3 kg chuck and pork, 2 meatloaves for 14", "loaf-free", 2, 14),
        ("stuffed meatloaf for 8 people", "loaf-filled", 1, 8),
        ("meatloaf in a tin for 6", "loaf-tin", 1, 6),
        ("ragù for 12", "ragu", 12, 12),
    ],
)
def test_another_dish_is_read_and_starts_with_its_school(line: str, style: str, pieces: int, guests: int) -> None:
    opening = _open(line)
    formula = opening.formula
    assert (formula.dish.style, formula.dish.pieces, formula.dish.guests) == (style, pieces, guests)
    assert opening.unread == ()
    evaluation = evaluate(formula, inventory=starter_inventory(), kitchen=yard_galley())
    assert evaluation.mix.lines
    assert evaluation.heat.target_c >= evaluation.heat.floors.leading.temp_c - 1e-6
    low, high = evaluation.style.piece_mass_g
    assert low * 0.9 <= evaluation.portions.piece_mass_g <= high * 1.1


@pytest.mark.parametrize(
    ("line", "who", "guests"),
    [
        ("burgers for 6 including 2 pensioners", "Older people eat", 6),
        ("burgers for 4, one pregnant, one has chemo", "Someone pregnant eats, someone with weak immunity eats", 4),
        ("burgers for 10", None, 10),
    ],
)
def test_people_at_risk_are_named_and_never_counted_twice(line: str, who: str | None, guests: int) -> None:
    # FDA Food Code 3-801.11: no undercooked mince for a highly susceptible population. From memory, high confidence.
    opened = open_line(line, inventory=starter_inventory(), kitchen=yard_galley())
    assert opened.formula is not None
    assert opened.formula.dish.guests == guests
    said = [r.text for r in opened.remarks if "3-801.11" in r.text]
    assert (said[0].split(" too:")[0] if said else None) == who
