"""Divide a batch into pieces that multiply back, on the scale's step, and say who gets the remainder."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.errors import OutOfRangeError
from vianda.core.formula import Portioning
from vianda.core.weighing import nearest_step

MOST_PIECES = 5000
HEAVIEST_BATCH_G = 1_000_000


@dataclass(frozen=True, slots=True)
class Portions:
    """Pieces that multiply back: ``heavier × (piece + step) + (pieces − heavier) × piece = batch``."""

    pieces: int
    piece_mass_g: int
    heavier_pieces: int
    step_g: int
    batch_mass_g: int
    wanted_piece_g: float

    @property
    def heavier_mass_g(self) -> int:
        """Mass of one of the pieces that take a step of the remainder."""
        return self.piece_mass_g + self.step_g

    @property
    def remainder_g(self) -> int:
        """Grams handed out, one step each, to the first pieces."""
        return self.heavier_pieces * self.step_g


def divide(
    *,
    portioning: Portioning,
    pieces: int,
    piece_mass_g: float,
    batch_mass_g: float,
    step_g: int,
) -> Portions:
    """Divide a batch into pieces.

    ``by_piece``: batch = pieces × nearest step of the wanted piece.
    ``by_batch``: the batch as the scale would show it; piece = ⌊batch steps ÷ pieces⌋; the steps left
    over go to the first pieces, one each.

    Raises
    ------
    OutOfRangeError
        No pieces, too many, or a piece lighter than one step of the scale.

    Examples
    --------
    >>> p = divide(portioning="by_batch", pieces=8, piece_mass_g=0, batch_mass_g=700, step_g=1)
    >>> p.heavier_pieces, p.heavier_mass_g, p.piece_mass_g
    (4, 88, 87)
    """
    if not 1 <= pieces <= MOST_PIECES:
        raise OutOfRangeError(f"{pieces} pieces; a batch has 1 to {MOST_PIECES}.", field="/dish/guests")
    if portioning == "by_piece":
        piece = nearest_step(piece_mass_g, step_g=step_g)
        heavier = 0
        batch = piece * pieces
        wanted = piece_mass_g
        field = "/shape/piece_mass_g"
    else:
        steps = nearest_step(batch_mass_g, step_g=step_g) // step_g
        per_piece, heavier = divmod(steps, pieces)
        piece = per_piece * step_g
        batch = steps * step_g
        wanted = batch_mass_g / pieces
        field = "/shape/batch_mass_g"
    if piece < step_g:
        raise OutOfRangeError(
            f"{pieces} pieces of {wanted:.2g} g each are lighter than the scale's step of {step_g} g.",
            field=field,
        )
    if batch > HEAVIEST_BATCH_G:
        raise OutOfRangeError(
            f"{pieces} pieces of {piece} g make {batch / 1000:.0f} kg; a batch has at most "
            f"{HEAVIEST_BATCH_G // 1000} kg.",
            field=field,
        )
    return Portions(pieces, piece, heavier, step_g, batch, wanted)
