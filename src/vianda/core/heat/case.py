"""What the heat needs to know of a formula: the piece, where it cooks, and what usual practice says of it."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.equipment.kitchen import Kitchen, Surface
from vianda.core.heat.plan import HeatPlan
from vianda.core.model.formula import Firmness, Heat
from vianda.core.model.styles import Style
from vianda.core.shape.figures import ShapeFigures
from vianda.core.shape.laying import Laying
from vianda.core.shape.piece_composition import PieceComposition


@dataclass(frozen=True, slots=True)
class CookCase:
    """One kind of piece and how it is to be cooked.

    Attributes
    ----------
    usual : HeatPlan
        The plan of usual practice: its cues, rests and carry-over, and its times beside the computed ones.
    pieces : int
        How many there are to cook, in waves of ``laying.at_once``.
    piece_mass_g : float
        Mass of one raw piece, g.
    """

    style: Style
    heat: Heat
    firmness: Firmness
    kitchen: Kitchen
    surface: Surface
    shape: ShapeFigures
    composition: PieceComposition
    laying: Laying
    usual: HeatPlan
    pieces: int
    piece_mass_g: float
