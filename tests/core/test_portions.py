from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from formulas import lines, mixed, smash
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.batch.division import expected_loss_g
from vianda.core.batch.portions import Portions, divide
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.edit import Choose, SetFigure


def _adds_up(p: Portions) -> bool:
    light = p.pieces - p.heavier_pieces
    return p.heavier_pieces * p.heavier_mass_g + light * p.piece_mass_g + p.left_g == p.batch_mass_g


@given(
    st.integers(1, 500),
    st.floats(1, 100_000),
    st.sampled_from([1, 2, 5, 10]),
    st.sampled_from(["first", "last", "bowl"]),
)
def test_pieces_multiply_back_to_the_batch(pieces: int, batch: float, step: int, rest: str) -> None:
    try:
        p = divide(
            portioning="by_batch",
            pieces=pieces,
            piece_mass_g=1,
            batch_mass_g=batch,
            step_g=step,
            remainder=rest,  # type: ignore[arg-type]
        )
    except OutOfRangeError:
        assert batch / pieces < step * 1.5
        return
    assert _adds_up(p)
    assert p.heavier_pieces < p.pieces or (rest == "last" and p.pieces == 1 and p.heavier_mass_g == p.piece_mass_g)
    assert abs(p.batch_mass_g - batch) <= step / 2 + 1e-6


def test_seven_hundred_grams_into_eight_on_a_gram_scale() -> None:
    p = divide(portioning="by_batch", pieces=8, piece_mass_g=0, batch_mass_g=700, step_g=1)
    assert (p.heavier_pieces, p.heavier_mass_g, p.piece_mass_g, p.remainder_g) == (4, 88, 87, 4)


def test_a_coarse_scale_hands_out_whole_steps() -> None:
    p = divide(portioning="by_batch", pieces=8, piece_mass_g=0, batch_mass_g=700, step_g=5)
    assert (p.piece_mass_g, p.heavier_pieces) == (85, 4)


def test_by_piece_the_wanted_weight_decides_the_batch() -> None:
    p = divide(portioning="by_piece", pieces=40, piece_mass_g=85.04, batch_mass_g=0, step_g=1)
    assert (p.piece_mass_g, p.batch_mass_g, p.heavier_pieces) == (85, 3400, 0)


@pytest.mark.parametrize("pieces", [0, -3, 5001])
def test_an_impossible_count_is_refused(pieces: int) -> None:
    with pytest.raises(OutOfRangeError, match="1 to 5000"):
        divide(portioning="by_piece", pieces=pieces, piece_mass_g=85, batch_mass_g=0, step_g=1)


def test_a_piece_below_the_scale_is_refused() -> None:
    with pytest.raises(OutOfRangeError, match="step of 10 g"):
        divide(portioning="by_batch", pieces=100, piece_mass_g=0, batch_mass_g=500, step_g=10)


@given(st.floats(100, 20_000), st.floats(20, 300), st.sampled_from(["first", "last", "bowl"]))
def test_two_weights_decide_how_many(batch: float, piece: float, rest: str) -> None:
    p = divide(
        portioning="by_weights",
        pieces=0,
        piece_mass_g=piece,
        batch_mass_g=batch,
        step_g=1,
        remainder=rest,  # type: ignore[arg-type]
    )
    assert _adds_up(p)
    if rest == "bowl":
        assert p.piece_mass_g <= math.floor(piece + 0.5)
    elif batch >= 2 * piece:
        # No other count brings a piece nearer to its weight.
        here = abs(batch / p.pieces - piece)
        assert here <= min(abs(batch / n - piece) for n in (p.pieces - 1, p.pieces + 1) if n > 0) + 1e-9


def test_seven_hundred_grams_of_ninety_make_eight_or_seven_and_a_taste() -> None:
    spread = divide(portioning="by_weights", pieces=0, piece_mass_g=90, batch_mass_g=700, step_g=1)
    assert (spread.pieces, spread.heavier_pieces, spread.heavier_mass_g, spread.piece_mass_g) == (8, 4, 88, 87)
    kept = divide(portioning="by_weights", pieces=0, piece_mass_g=90, batch_mass_g=700, step_g=1, remainder="bowl")
    assert (kept.pieces, kept.piece_mass_g, kept.left_g) == (7, 90, 70)


def test_all_the_rest_can_go_to_the_last_one() -> None:
    p = divide(portioning="by_batch", pieces=8, piece_mass_g=0, batch_mass_g=707, step_g=1, remainder="last")
    assert (p.heavier_pieces, p.heavier_mass_g, p.piece_mass_g, p.remainder_g) == (1, 91, 88, 3)


def test_every_choice_comes_to_what_it_says(inventory: Inventory, kitchen: Kitchen) -> None:
    formula = smash(portioning="by_batch", batch_mass_g=3403)
    choices = evaluate(formula, inventory=inventory, kitchen=kitchen).batch_yield.choices
    assert len(choices) == 7
    assert [c.chosen for c in choices] == [True, False, False, False, False, False, False]
    for choice in choices:
        after = evaluate(
            apply_edit(formula, choice.edit, inventory=inventory, kitchen=kitchen), inventory=inventory, kitchen=kitchen
        ).portions
        assert _adds_up(after)
        said = choice.result.amounts
        assert said["m"].value == after.piece_mass_g
        assert said.get("left", said["m"]).value == (after.left_g or after.piece_mass_g)


def test_an_even_batch_offers_no_choices(inventory: Inventory, kitchen: Kitchen) -> None:
    assert evaluate(smash(), inventory=inventory, kitchen=kitchen).batch_yield.choices == ()


def test_spare_pieces_are_made_besides(inventory: Inventory, kitchen: Kitchen) -> None:
    formula = apply_edit(smash(), SetFigure("spare_pieces", 3), inventory=inventory, kitchen=kitchen)
    assert evaluate(formula, inventory=inventory, kitchen=kitchen).portions.pieces == 43


def test_what_stays_on_bowl_and_gloves_is_mixed_besides(inventory: Inventory, kitchen: Kitchen) -> None:
    e = evaluate(smash(loss_g=30), inventory=inventory, kitchen=kitchen)
    assert (e.portions.batch_mass_g, e.batch_yield.bowl_g, e.blend.batch_mass_g) == (3400, 3430, 3430)
    # By batch the meat at hand is all there is: the pieces share what is left of it.
    e = evaluate(smash(portioning="by_batch", loss_g=40), inventory=inventory, kitchen=kitchen)
    assert (e.portions.batch_mass_g, e.portions.piece_mass_g, e.blend.batch_mass_g) == (3360, 84, 3400)


def test_a_mix_closes_with_its_loss(inventory: Inventory, kitchen: Kitchen) -> None:
    e = evaluate(mixed(lines=lines(panko=8, milk=10, egg=8), loss_g=25), inventory=inventory, kitchen=kitchen)
    assert e.mix.whole.mass_g == pytest.approx(e.portions.batch_mass_g + 25)


def test_a_loss_beyond_the_batch_is_refused(inventory: Inventory, kitchen: Kitchen) -> None:
    with pytest.raises(OutOfRangeError, match="all there is"):
        evaluate(smash(portioning="by_batch", batch_mass_g=200, loss_g=250), inventory=inventory, kitchen=kitchen)


def test_forty_pieces_leave_about_as_much_as_a_spoonful_behind() -> None:
    # Ours, no published source: 8 g in the bowl and 0.4 g a piece.
    assert expected_loss_g(40) == pytest.approx(24)


@pytest.mark.parametrize(("appetite", "each", "mass"), [("light", 1, 110), ("usual", 2, 75), ("hearty", 3, 73.333)])
def test_guests_and_appetite_decide_pieces_of_a_usual_weight(
    inventory: Inventory, kitchen: Kitchen, appetite: str, each: int, mass: float
) -> None:
    after = apply_edit(smash(), Choose("appetite", appetite), inventory=inventory, kitchen=kitchen)
    assert after.dish.pieces_per_guest == each
    assert after.shape.piece_mass_g == pytest.approx(mass, abs=0.01)


def test_a_loaf_is_shared_by_appetite(inventory: Inventory, kitchen: Kitchen) -> None:
    after = apply_edit(mixed(style="loaf-free"), Choose("appetite", "hearty"), inventory=inventory, kitchen=kitchen)
    assert after.dish.guests_per_piece == 6
