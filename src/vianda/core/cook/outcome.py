"""What a finished cook says about the plan: yield and shrink as weighed, beside what was expected."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.band import Band

# A ruler is read to half a millimetre.
READ_TO_MM = 0.5


@dataclass(frozen=True, slots=True)
class OutcomeFigures:
    """Figures from the cook's own weighings; None where nothing was weighed. Fractions 0–1, mass in g, mm."""

    cooked_yield_frac: float | None
    yield_expected: bool | None
    cooked_piece_g: float | None
    diameter_shrink_frac: float | None
    cooked_thickness_mm: float | None
    thickness_expected: bool | None


def outcome_figures(
    *,
    batch_mass_g: int,
    pieces: int,
    expected_yield_frac: Band,
    raw_diameter_mm: float,
    cooked_mass_g: float | None,
    cooked_diameter_mm: float | None,
    expected_thickness_mm: Band,
    cooked_thickness_mm: float | None,
) -> OutcomeFigures:
    """Yield = cooked ÷ raw; shrink = 1 − cooked ÷ raw diameter; a piece may draw up thicker than it was.

    Parameters
    ----------
    batch_mass_g : int
        Mass of the raw batch, g.
    pieces : int
        Number of pieces, 1 or more (count).
    expected_yield_frac : Band
        What was expected to be left, 0–1.
    raw_diameter_mm : float
        Diameter of a raw piece, mm; 0 where there is none, in a sauce.
    cooked_mass_g : float | None
        Mass of all that was cooked, weighed, g; None: not weighed.
    cooked_diameter_mm : float | None
        Diameter of a cooked piece, measured, mm; None: not measured.
    expected_thickness_mm : Band
        What was expected of a cooked one, mm.
    cooked_thickness_mm : float | None
        Thickness of a cooked piece at its middle, measured, mm; None: not measured.

    Returns
    -------
    OutcomeFigures
        Figures from the cook's own weighings.

    Examples
    --------
    >>> o = outcome_figures(batch_mass_g=1000, pieces=10, expected_yield_frac=Band(0.64, 0.74, 0.77),
    ...                     raw_diameter_mm=130, cooked_mass_g=720, cooked_diameter_mm=104,
    ...                     expected_thickness_mm=Band(8.1, 8.9, 9.6), cooked_thickness_mm=9)
    >>> o.cooked_yield_frac, round(o.diameter_shrink_frac, 3), o.thickness_expected
    (0.72, 0.2, True)
    """
    shrunk = 1 - cooked_diameter_mm / raw_diameter_mm if cooked_diameter_mm and raw_diameter_mm else None
    left = cooked_mass_g / batch_mass_g if cooked_mass_g is not None else None
    return OutcomeFigures(
        cooked_yield_frac=left,
        yield_expected=None if left is None else expected_yield_frac.low <= left <= expected_yield_frac.high,
        cooked_piece_g=None if cooked_mass_g is None else cooked_mass_g / pieces,
        diameter_shrink_frac=shrunk,
        cooked_thickness_mm=cooked_thickness_mm,
        thickness_expected=_within(cooked_thickness_mm, expected_thickness_mm),
    )


def _within(measured_mm: float | None, expected_mm: Band) -> bool | None:
    """Whether a ruler of half millimetres could have read it."""
    if measured_mm is None:
        return None
    return expected_mm.low - READ_TO_MM <= measured_mm <= expected_mm.high + READ_TO_MM
