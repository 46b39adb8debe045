"""The one table of figures: where each is in a formula, its unit and range, what a nudge is, and what it is called.

A figure that a formula holds as it is (``stored``) needs nothing else to be read, set, checked and offered on a screen;
the others are worked out of several fields, by a rule in ``editing.set_figure``.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Any

from vianda.core.model import edit as e
from vianda.core.model.formula import HEAVIEST_BATCH_G, MOST_PER_MEAT, MOST_SALT_FRAC, Formula


@dataclass(frozen=True, slots=True)
class Field:
    """A figure: its JSON pointer, unit, range (base unit), nudge, and what it is called in a sentence.

    ``whole``: only whole numbers. ``stored``: the formula holds the figure itself at its pointer.
    """

    pointer: str
    unit: str
    low: float
    high: float
    nudge: float
    label: str
    whole: bool = False
    stored: bool = False

    def holds(self, value: float) -> bool:
        """Whether a value is within the range, forgiving the last digit.

        Parameters
        ----------
        value : float
            In the base unit of the figure.

        Returns
        -------
        bool
            Whether it is; False for NaN.
        """
        return self.low - 1e-9 <= value <= self.high + 1e-9


FIGURES: dict[e.Figure, Field] = {
    "guests": Field("/dish/guests", "count", 1, 2000, 1, "guests", whole=True, stored=True),
    "pieces_per_guest": Field("/dish/pieces_per_guest", "count", 1, 100, 1, "pieces each", whole=True, stored=True),
    "piece_mass": Field("/shape/piece_mass_g", "mass_g", 10, 5000, 5, "the piece", stored=True),
    "batch_mass": Field("/shape/batch_mass_g", "mass_g", 50, HEAVIEST_BATCH_G, 50, "the meat of a batch", stored=True),
    "thickness": Field("/shape/thickness_mm", "length_mm", 3, 150, 0.5, "the thickness", stored=True),
    "salt": Field("/seasoning/salt_frac", "fine_frac", 0, MOST_SALT_FRAC, 0.001, "the salt", stored=True),
    "surface_temp": Field("/heat/surface_temp_c", "temp_c", 80, 400, 5, "the surface", stored=True),
    "target_core_temp": Field("/heat/target_core_temp_c", "temp_c", 45, 95, 1, "the core", stored=True),
    "share": Field("/parts", "frac", 0, 1, 0.01, "a share"),
    "part_mass": Field("/parts", "mass_g", 0, HEAVIEST_BATCH_G, 10, "a part"),
    "services_per_week": Field(
        "/grind/services_per_week", "count", 1, 50, 1, "services a week", whole=True, stored=True
    ),
    "guests_per_piece": Field(
        "/dish/guests_per_piece", "count", 1, 40, 1, "guests who share one", whole=True, stored=True
    ),
    "line": Field("/mix/lines", "per_hundred", 0, MOST_PER_MEAT, 0.005, "an ingredient"),
    "line_temp": Field("/mix/lines", "temp_c", -30, 100, 1, "an ingredient's temperature"),
    "group": Field("/mix/lines", "per_hundred", 0, MOST_PER_MEAT, 0.005, "a group of the mix"),
    "panade": Field("/mix/lines", "number", 0, 8, 0.1, "the liquid to a part of crumb"),
    "meat_temp": Field("/mix/meat_temp_c", "temp_c", -2, 30, 1, "the meat's temperature", stored=True),
    "soak": Field("/mix/soak_min", "minutes", 0, 240, 5, "the soaking", stored=True),
    "chill": Field("/mix/chill_min", "minutes", 0, 2880, 15, "the chilling", stored=True),
    "work_time": Field("/mix/work_s", "time_s", 0, 600, 5, "the working", stored=True),
    "spare_pieces": Field("/dish/spare_pieces", "count", -1000, 1000, 1, "spare pieces", whole=True, stored=True),
    "diameter": Field("/shape/thickness_mm", "length_mm", 20, 400, 1, "the raw diameter"),
    "cooked_diameter": Field("/shape/thickness_mm", "length_mm", 15, 400, 1, "the cooked diameter"),
    "cooked_mass": Field("/shape/piece_mass_g", "mass_g", 5, 5000, 5, "the cooked piece"),
    "length": Field("/shape/piece_mass_g", "length_mm", 60, 1000, 5, "the length"),
    "width": Field("/shape/width_mm", "length_mm", 40, 400, 5, "the width"),
    "rim": Field("/shape/rim_mm", "length_mm", 3, 60, 1, "the rim", stored=True),
    "filling": Field("/mix/lines", "frac", 0, 0.5, 0.01, "the filling"),
    "loss": Field("/shape/loss_g", "mass_g", 0, 5000, 5, "what stays on bowl and gloves", stored=True),
}


def stored_value(formula: Formula, figure: e.Figure) -> float:
    """A figure that the formula holds itself, in its base unit.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    figure : e.Figure
        Which figure; one with ``stored``.

    Returns
    -------
    float
        The value, in the base unit of the figure.

    Examples
    --------
    >>> from vianda.core.demo.formulas import slipway_smash
    >>> stored_value(slipway_smash(), "guests")
    20
    """
    section, name = FIGURES[figure].pointer[1:].split("/")
    value: float = getattr(getattr(formula, section), name)
    return value


def with_stored(formula: Formula, figure: e.Figure, value: float) -> Formula:
    """The formula with a figure that it holds itself set; the range is the affair of who asks.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    figure : e.Figure
        Which figure.
    value : float
        In the base unit of the figure.

    Returns
    -------
    Formula
        The changed formula.
    """
    rule = FIGURES[figure]
    section, name = rule.pointer[1:].split("/")
    changes: dict[str, Any] = {name: int(value) if rule.whole else value}
    return replace(formula, **{section: replace(getattr(formula, section), **changes)})


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
        f"{shown} is outside what the rules cover for {rule.label}: "
        f"{_plain(rule.low * factor)} to {_plain(rule.high * factor)}{unit}."
    )
