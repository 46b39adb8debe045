"""What is learnt of, which effects add up in it, and what is thought of them before a kitchen has cooked anything."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

LearntFigure = Literal["loss", "shrink", "heat", "minutes", "evaporation", "bowl"]
Level = Literal["style", "surface", "task", "pot", "bowl"]
KITCHEN = "kitchen"


@dataclass(frozen=True, slots=True)
class FigureModel:
    """One figure that is learnt.

    Attributes
    ----------
    title : str
        What it is called.
    line : str
        What it is measured by, and what it moves, in a sentence or two.
    more : str
        What a factor above one means, and ``less`` below it.
    kitchen_sd : float
        Standard deviation of what all cooks of a kitchen share, in logarithms of the factor.
    level_sd : Mapping[Level, float]
        The same for each style or surface, on top of it.
    cook_sd : float
        The same for one cook beside what can be measured: pieces, hands and weather differ.
    adopt : tuple[Level, ...]
        Where a factor can be used from then on.
    source : str
        Where these come from.
    seen : str
        What one counts of it, in the plural.
    """

    title: str
    line: str
    more: str
    less: str
    kitchen_sd: float
    level_sd: Mapping[Level, float]
    cook_sd: float
    adopt: tuple[Level, ...]
    source: str
    seen: str = "cooks"


# Tables of yields differ from kitchen to kitchen by a tenth of the loss; a style or a surface adds as much. Shrink is
# known less well. The spread of heat transfer is that of its coefficient. All ours, medium: no published source.
FIGURES: Mapping[LearntFigure, FigureModel] = {
    "loss": FigureModel(
        "Cook loss",
        "What is lost on the heat, by your scale, beside what the tables say. A style’s factor is multiplied with its "
        "surface’s. Moves yield, cooked weight and cost.",
        "Loses more",
        "Loses less",
        0.08,
        {"style": 0.08, "surface": 0.08},
        0.08,
        ("style", "surface"),
        "SR28 yields are the starting point; spreads between kitchens ours, no published source",
    ),
    "shrink": FigureModel(
        "Shrink",
        "What a piece draws in across, by your ruler. Moves how wide it is made for its bread.",
        "Draws in more",
        "Draws in less",
        0.10,
        {"style": 0.12},
        0.12,
        ("style",),
        "Common practice is the starting point; spreads ours, no published source",
    ),
    "heat": FigureModel(
        "Heat transfer",
        "How fast the surface heats, by your probe. Moves minutes on the heat, the flip and the timetable.",
        "Heats faster",
        "Heats slower",
        0.0,
        {"surface": 0.20},
        0.08,
        ("surface",),
        "Coefficients of the heat model; their spread of a fifth ours, no published source",
    ),
    "minutes": FigureModel(
        "Minutes of a task",
        "How long your hands take, by what was begun and ended in a service under way. Moves the timetable and its "
        "cushion.",
        "Takes longer",
        "Takes less",
        0.20,
        {"task": 0.20},
        0.20,
        ("task",),
        "Common practice is the starting point; spreads ours, no published source",
        "timings",
    ),
    "evaporation": FigureModel(
        "What a pot boils off",
        "How fast water leaves a pot at your simmer, by its weight before and after and the minutes between. Moves how "
        "long a sauce is cooked down.",
        "Boils off faster",
        "Boils off slower",
        0.20,
        {"pot": 0.15},
        0.15,
        ("pot",),
        "Computed from the surface, the air and the burner; spreads ours, no published source",
        "pots",
    ),
    "bowl": FigureModel(
        "Loss on bowl and gloves",
        "What stays behind when a batch is portioned, by check-weighing and what is left in the bowl. Moves what is "
        "allowed for it when a batch is divided.",
        "Loses more",
        "Loses less",
        0.0,
        {"bowl": 0.50},
        0.30,
        ("bowl",),
        "8 g and 0.4 g a piece are the starting point; all ours, no published source",
        "batches",
    ),
}


@dataclass(frozen=True, slots=True)
class Observation:
    """What one cook says of one figure, or one task of a service under way.

    Attributes
    ----------
    cook : int
        The cook's number, of minutes the run's; with ``piece`` it tells observations of one figure apart.
    at : float
        When, seconds from any fixed moment: for their order.
    style, surface : str
        Keys of the style and of the surface.
    observed, low, usual, high : float
        What was observed, and what was forecast with its range, in the figure's own unit: fractions, seconds, or
        minutes.
    value : float
        The logarithm of the factor that this cook alone asks for, beside the untouched starting value.
    sd : float
        Standard deviation of what was measured, in the same logarithm: without what differs from cook to cook.
    aside : bool
        The cook said that it does not count.
    thing : str
        Key of the kind of task, of the pot or of the bowl; "" for what is of a style and a surface.
    """

    figure: LearntFigure
    cook: int
    at: float
    style: str
    surface: str
    observed: float
    low: float
    usual: float
    high: float
    value: float
    sd: float
    piece: int = 0
    aside: bool = False
    thing: str = ""

    def key(self, level: Level) -> str:
        """What it is of at a level.

        Parameters
        ----------
        level : Level
            Of a style, of a surface, or of another thing.

        Returns
        -------
        str
            Its key.
        """
        return self.style if level == "style" else self.surface if level == "surface" else self.thing
