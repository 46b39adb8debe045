"""Where each figure of a formula lives, how far it may go, and what is said when it goes further."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.model import edit as e
from vianda.core.model.formula import HEAVIEST_BATCH_G, MOST_PER_MEAT, MOST_SALT_FRAC


@dataclass(frozen=True, slots=True)
class FigureRule:
    """Where a figure lives, how far it may go (base unit), and what one nudge is."""

    pointer: str
    unit: str
    low: float
    high: float
    nudge: float
    whole: bool = False


FIGURES: dict[e.Figure, FigureRule] = {
    "guests": FigureRule("/dish/guests", "count", 1, 2000, 1, whole=True),
    "pieces_per_guest": FigureRule("/dish/pieces_per_guest", "count", 1, 12, 1, whole=True),
    "piece_mass": FigureRule("/shape/piece_mass_g", "mass_g", 10, 5000, 5),
    "batch_mass": FigureRule("/shape/batch_mass_g", "mass_g", 50, HEAVIEST_BATCH_G, 50),
    "thickness": FigureRule("/shape/thickness_mm", "length_mm", 3, 150, 0.5),
    "salt": FigureRule("/seasoning/salt_frac", "fine_frac", 0, MOST_SALT_FRAC, 0.001),
    "surface_temp": FigureRule("/heat/surface_temp_c", "temp_c", 80, 400, 5),
    "target_core_temp": FigureRule("/heat/target_core_temp_c", "temp_c", 45, 95, 1),
    "share": FigureRule("/parts", "frac", 0, 1, 0.01),
    "part_mass": FigureRule("/parts", "mass_g", 0, HEAVIEST_BATCH_G, 10),
    "services_per_week": FigureRule("/grind/services_per_week", "count", 1, 50, 1, whole=True),
    "guests_per_piece": FigureRule("/dish/guests_per_piece", "count", 1, 40, 1, whole=True),
    "line": FigureRule("/mix/lines", "per_hundred", 0, MOST_PER_MEAT, 0.005),
    "line_temp": FigureRule("/mix/lines", "temp_c", -30, 100, 1),
    "group": FigureRule("/mix/lines", "per_hundred", 0, MOST_PER_MEAT, 0.005),
    "panade": FigureRule("/mix/lines", "number", 0, 8, 0.1),
    "meat_temp": FigureRule("/mix/meat_temp_c", "temp_c", -2, 30, 1),
    "soak": FigureRule("/mix/soak_min", "minutes", 0, 240, 5),
    "chill": FigureRule("/mix/chill_min", "minutes", 0, 2880, 15),
    "work_time": FigureRule("/mix/work_s", "time_s", 0, 600, 5),
    "spare_pieces": FigureRule("/dish/spare_pieces", "count", -50, 500, 1, whole=True),
    "diameter": FigureRule("/shape/thickness_mm", "length_mm", 20, 400, 1),
    "cooked_diameter": FigureRule("/shape/thickness_mm", "length_mm", 15, 400, 1),
    "cooked_mass": FigureRule("/shape/piece_mass_g", "mass_g", 5, 5000, 5),
    "length": FigureRule("/shape/piece_mass_g", "length_mm", 60, 1000, 5),
    "width": FigureRule("/shape/width_mm", "length_mm", 40, 400, 5),
    "rim": FigureRule("/shape/rim_mm", "length_mm", 3, 60, 1),
    "filling": FigureRule("/mix/lines", "frac", 0, 0.5, 0.01),
    "loss": FigureRule("/shape/loss_g", "mass_g", 0, 5000, 5),
}


_PLAIN = {
    "count": ("", 1.0),
    "mass_g": (" g", 1.0),
    "length_mm": (" mm", 1.0),
    "temp_c": (" °C", 1.0),
    "frac": (" %", 100.0),
    "fine_frac": (" %", 100.0),
    "per_hundred": (" parts per hundred of meat", 100.0),
    "number": ("", 1.0),
    "minutes": (" min", 1.0),
    "time_s": (" s", 1.0),
}
_LABELS: dict[e.Figure, str] = {
    "guests": "guests",
    "pieces_per_guest": "pieces each",
    "piece_mass": "the piece",
    "batch_mass": "the meat of a batch",
    "thickness": "the thickness",
    "salt": "the salt",
    "surface_temp": "the surface",
    "target_core_temp": "the core",
    "share": "a share",
    "part_mass": "a part",
    "services_per_week": "services a week",
    "guests_per_piece": "guests who share one",
    "line": "an ingredient",
    "line_temp": "an ingredient's temperature",
    "group": "a group of the mix",
    "panade": "the liquid to a part of crumb",
    "meat_temp": "the meat's temperature",
    "soak": "the soaking",
    "chill": "the chilling",
    "work_time": "the working",
    "spare_pieces": "spare pieces",
    "diameter": "the raw diameter",
    "cooked_diameter": "the cooked diameter",
    "cooked_mass": "the cooked piece",
    "length": "the length",
    "width": "the width",
    "rim": "the rim",
    "filling": "the filling",
    "loss": "what stays on bowl and gloves",
}


def _plain(value: float) -> str:
    """Figures as people write them: no exponents below a thousand million, four digits of a fraction."""
    return f"{value:.4g}" if abs(value) < 1000 or abs(value) >= 1e9 else f"{value:.0f}"


def range_text(figure: e.Figure, value: float) -> str:
    """The sentence that refuses a value outside its figure's range.

    Parameters
    ----------
    figure : e.Figure
        Which figure.
    value : float
        The value, in the base unit the name says.

    Returns
    -------
    str
        The text.
    """
    rule = FIGURES[figure]
    unit, factor = _PLAIN[rule.unit]
    shown = f"{_plain(value * factor)}{unit}" if math.isfinite(value) else "That"
    return (
        f"{shown} is outside what the rules cover for {_LABELS[figure]}: "
        f"{_plain(rule.low * factor)} to {_plain(rule.high * factor)}{unit}."
    )
