"""What there is to choose when a batch does not divide, and what the whole batch comes to."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase, count, mass, say
from vianda.core.batch.batch import Batch
from vianda.core.batch.portions import Portions, divide
from vianda.core.model.edit import Choose, Edit, SetFigure
from vianda.core.model.formula import Formula

# What a bowl, and each piece's hands or scoop, keep of a mix, in g: ours, no published source.
BOWL_KEEPS_G, PIECE_KEEPS_G = 8.0, 0.4


@dataclass(frozen=True, slots=True)
class DivisionChoice:
    """One way out, in words, with what it comes to."""

    label: Phrase
    result: Phrase
    edit: Edit
    chosen: bool


@dataclass(frozen=True, slots=True)
class BatchYield:
    """From bowl to plate in grams: what is shaped, what stays behind (as allowed for, and as expected), and cooked.

    ``water_g`` and ``fat_g`` are what the heat takes of the whole batch, ``left_g`` what does not come out in pieces.
    ``allows_expected``: the loss allowed for is the expected one, to a gram.
    """

    bowl_g: float
    shaped_g: float
    loss_g: float
    expected_loss_g: float
    cooked_g: Band
    water_g: float
    fat_g: float
    left_g: float
    allows_expected: bool
    choices: tuple[DivisionChoice, ...]


# A loss within this of the expected one is the expected one: ours.
SAME_LOSS_G = 1.0


def expected_loss_g(pieces: int, *, factor: float = 1.0) -> float:
    """What stays on bowl and gloves: 8 g and 0.4 g a piece.

    Parameters
    ----------
    pieces : int
        Number of pieces, 1 or more (count).
    factor : float, default 1.0
        What this kitchen's own batches multiply it with, 0.5 to 2.

    Returns
    -------
    float
        Expected loss, g.

    Examples
    --------
    >>> round(expected_loss_g(40))
    24
    """
    return factor * (BOWL_KEEPS_G + PIECE_KEEPS_G * pieces)


def batch_yield(
    formula: Formula,
    *,
    batch: Batch,
    cooked_yield_frac: Band,
    water_lost_g: float,
    fat_rendered_g: float,
    bowl_factor: float = 1.0,
) -> BatchYield:
    """What the batch comes to, and the choices when it does not divide.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    water_lost_g : float
        Water that one piece loses, g.
    fat_rendered_g : float
        Fat that one piece loses, g.
    cooked_yield_frac : Band
        Cooked yield, 0–1.
    bowl_factor : float, default 1.0
        How many times the usual loss on bowl and gloves, 0.5 to 2 (in this kitchen).

    Returns
    -------
    BatchYield
        From bowl to plate in grams.
    """
    portions, left = batch.portions, cooked_yield_frac
    expected_g = expected_loss_g(portions.pieces, factor=bowl_factor)
    shaped = portions.batch_mass_g - portions.left_g
    return BatchYield(
        bowl_g=batch.mix_mass_g,
        shaped_g=float(shaped),
        loss_g=batch.loss_g,
        expected_loss_g=expected_g,
        cooked_g=Band(shaped * left.low, shaped * left.usual, shaped * left.high),
        water_g=water_lost_g * shaped / portions.piece_mass_g,
        fat_g=fat_rendered_g * shaped / portions.piece_mass_g,
        left_g=batch.mix_mass_g - batch.loss_g - shaped,
        allows_expected=abs(batch.loss_g - expected_g) < SAME_LOSS_G,
        choices=_choices(formula, batch) if portions.remainder_g else (),
    )


def _weights(p: Portions) -> Phrase:
    light = p.pieces - p.heavier_pieces
    if p.left_g:
        return say("{n} × {m}, {left} left", n=count(p.pieces), m=mass(p.piece_mass_g), left=mass(p.left_g))
    if not p.heavier_pieces:
        return say("{n} × {m}", n=count(p.pieces), m=mass(p.piece_mass_g))
    return say(
        "{h} × {heavy} + {n} × {m}",
        h=count(p.heavier_pieces),
        heavy=mass(p.heavier_mass_g),
        n=count(light),
        m=mass(p.piece_mass_g),
    )


def _choices(formula: Formula, batch: Batch) -> tuple[DivisionChoice, ...]:
    shape, now = formula.shape, batch.portions
    mix_g = now.batch_mass_g

    def divided(pieces: int, batch_g: float, remainder: str) -> Portions:
        return divide(
            portioning="by_batch",
            pieces=pieces,
            piece_mass_g=shape.piece_mass_g,
            batch_mass_g=batch_g,
            step_g=now.step_g,
            remainder=remainder,  # type: ignore[arg-type]
        )

    found: list[DivisionChoice] = []

    def offer(label: Phrase, edit: Edit, come_to: Callable[[], Portions], *, chosen: bool = False) -> None:
        try:
            found.append(DivisionChoice(label, _weights(come_to()), edit, chosen))
        except CoreError:
            # No such division: one piece fewer than one, or lighter than a step.
            return

    words = {
        "first": "The first take a step more",
        "last": "The last one takes it all",
        "bowl": "Leave it in the bowl, to fry and taste",
    }
    for key, text in words.items():
        offer(
            say(text),
            Choose("remainder", key),
            lambda key=key: divided(now.pieces, mix_g, key),  # type: ignore[misc]
            chosen=shape.remainder == key,
        )
    if batch.mix_per_meat == 1.0:
        for target in (now.pieces * now.piece_mass_g, now.pieces * (now.piece_mass_g + now.step_g)):
            change = target - mix_g
            text = "Take {g} more" if change > 0 else "Take {g} less"
            offer(
                say(text, g=mass(abs(change))),
                SetFigure("batch_mass", float(target + batch.loss_g)),
                lambda target=target: divided(now.pieces, target, shape.remainder),  # type: ignore[misc]
            )
    if shape.portioning == "by_batch":
        for by, text in ((1, "One piece more"), (-1, "One piece fewer")):
            offer(
                say(text),
                SetFigure("spare_pieces", float(formula.dish.spare_pieces + by)),
                lambda by=by: divided(now.pieces + by, mix_g, shape.remainder),  # type: ignore[misc]
            )
    return tuple(found)
