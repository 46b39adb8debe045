"""Divide a batch into pieces that multiply back, on the scale's step, and say who gets the remainder."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.scale_step import nearest_step
from vianda.core.model.formula import HEAVIEST_BATCH_G, Portioning, Remainder

MOST_PIECES = 5000


@dataclass(frozen=True, slots=True)
class Portions:
    """Pieces that multiply back: ``heavier × heavier mass + (pieces − heavier) × piece + left = batch``.

    ``left_g`` stays in the bowl when the cook wants equal pieces and no more; ``taken_up_g`` is what
    the heavier pieces weigh besides.
    """

    pieces: int
    piece_mass_g: int
    heavier_pieces: int
    heavier_mass_g: int
    step_g: int
    batch_mass_g: int
    wanted_piece_g: float
    left_g: int = 0
    remainder: Remainder = "first"
    taken_up_g: int = 0

    @property
    def remainder_g(self) -> int:
        """Grams that do not divide, whoever gets them."""
        return self.taken_up_g + self.left_g


def pieces_from_weights(*, batch_mass_g: float, piece_mass_g: float, remainder: Remainder) -> int:
    """How many pieces two weights make: as many whole ones as there are when the rest stays in the bowl, else the count
    that brings each nearest to its weight.

    Parameters
    ----------
    batch_mass_g : float
        Mass of the whole batch, g, above 0.
    piece_mass_g : float
        Mass of one piece, g, above 0.
    remainder : Remainder
        Who gets the grams that do not divide.

    Returns
    -------
    int
        How many pieces two weights make (count).

    Examples
    --------
    >>> pieces_from_weights(batch_mass_g=700, piece_mass_g=90, remainder="first")
    8
    >>> pieces_from_weights(batch_mass_g=700, piece_mass_g=90, remainder="bowl")
    7
    """
    ratio = batch_mass_g / piece_mass_g
    down = max(1, math.floor(ratio + 1e-9))
    if remainder == "bowl":
        return down
    return min((down, down + 1), key=lambda n: abs(batch_mass_g / n - piece_mass_g))


def divide(
    *,
    portioning: Portioning,
    pieces: int,
    piece_mass_g: float,
    batch_mass_g: float,
    step_g: int,
    remainder: Remainder = "first",
) -> Portions:
    """Divide a batch into pieces.

    ``by_piece``: batch = pieces × nearest step of the wanted piece.
    ``by_batch``: the batch as the scale would show it; piece = ⌊batch steps ÷ pieces⌋; the steps left over go to the
    first pieces, one each, all to the last one, or stay in the bowl.
    ``by_weights``: so many pieces as both weights make (``pieces`` is not read); then as by batch.

    Parameters
    ----------
    portioning : Portioning
        What decides: piece, batch or both weights.
    pieces : int
        Number of pieces, 1 or more (count).
    piece_mass_g : float
        Mass of one piece, g, above 0.
    batch_mass_g : float
        Batch mass, g.
    step_g : int
        Step of the scale, g, above 0.
    remainder : Remainder, default 'first'
        Who gets the grams that do not divide.

    Returns
    -------
    Portions
        Pieces that multiply back.

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
    if portioning == "by_weights":
        pieces = pieces_from_weights(batch_mass_g=batch_mass_g, piece_mass_g=piece_mass_g, remainder=remainder)
    if not 1 <= pieces <= MOST_PIECES:
        raise OutOfRangeError(f"{pieces} pieces; a batch has 1 to {MOST_PIECES}.", field="/dish/guests")
    over = 0
    if portioning == "by_piece":
        piece = nearest_step(piece_mass_g, step_g=step_g)
        batch = piece * pieces
        wanted = piece_mass_g
        field = "/shape/piece_mass_g"
    else:
        batch = nearest_step(batch_mass_g, step_g=step_g)
        piece, over = divmod(batch // step_g, pieces)
        piece *= step_g
        if portioning == "by_weights" and remainder == "bowl":
            piece = min(piece, nearest_step(piece_mass_g, step_g=step_g))
            over = (batch - piece * pieces) // step_g
        wanted = piece_mass_g if portioning == "by_weights" else batch_mass_g / pieces
        field = "/shape/batch_mass_g"
    if piece < step_g:
        raise OutOfRangeError(
            f"{pieces} pieces of {wanted:.2g} g each are lighter than the scale's step of {step_g} g.", field=field
        )
    if batch > HEAVIEST_BATCH_G:
        raise OutOfRangeError(
            f"{pieces} pieces of {piece} g make {batch / 1000:.0f} kg; a batch has at most "
            f"{HEAVIEST_BATCH_G // 1000} kg.",
            field=field,
        )
    heavier, more = {"first": (over, step_g), "last": (min(over, 1), over * step_g), "bowl": (0, 0)}[remainder]
    left = over * step_g if remainder == "bowl" else 0
    return Portions(pieces, piece, heavier, piece + more, step_g, batch, wanted, left, remainder, heavier * more)
