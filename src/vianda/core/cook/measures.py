"""What is weighed and measured of a finished cook, by its form, and whether what was typed can be that."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.model.styles import FLAT, Form

MeasureKey = Literal["cooked_mass_g", "cooked_diameter_mm", "cooked_thickness_mm", "core_c"]
MeasureKind = Literal["mass_g", "length_mm", "temp_c"]
# What no cook does to meat: less left of all that went on, a piece drawn in, spread, thinner or thicker. Ours.
LEAST_LEFT_FRAC = 0.2
LEAST_ACROSS_FRAC, MOST_ACROSS_FRAC = 0.4, 1.5
LEAST_THICK_FRAC, MOST_THICK_FRAC = 0.25, 3.0


@dataclass(frozen=True, slots=True)
class Measure:
    """One thing that is weighed, measured or read, with what is expected of it in g, mm or °C."""

    key: MeasureKey
    kind: MeasureKind
    title: str
    expected: float


@dataclass(frozen=True, slots=True)
class Raw:
    """What went on, and what is expected to come off: masses of all of it, g; a piece across and high, mm; °C."""

    form: Form
    batch_mass_g: float
    across_mm: float
    thickness_mm: float
    expected_mass_g: float
    expected_across_mm: float
    expected_thickness_mm: float
    target_core_c: float


def title_of_height(form: Form) -> str:
    """What the height of a cooked piece is called.

    Parameters
    ----------
    form : Form
        What is made.

    Returns
    -------
    str
        A patty has a thickness, a loaf a height.

    Examples
    --------
    >>> title_of_height("disc"), title_of_height("tin")
    ('Thickness, cooked', 'Height, cooked')
    """
    return "Thickness, cooked" if form in FLAT else "Height, cooked"


def measures_of(raw: Raw) -> tuple[Measure, ...]:
    """What is asked for of a cook, in the order in which it is measured.

    Parameters
    ----------
    raw : Raw
        What went on and what is expected.

    Returns
    -------
    tuple[Measure, ...]
        A ball has one size, and the crumbs of a sauce have none.

    Examples
    --------
    >>> [m.title for m in measures_of(Raw("ball", 1000, 40, 40, 740, 36, 36, 71))]
    ['All pieces, cooked', 'Diameter, cooked', 'Core, last read']
    >>> [m.key for m in measures_of(Raw("crumbled", 1000, 0, 0, 900, 0, 0, 71))]
    ['cooked_mass_g', 'core_c']
    """
    flat, ball, crumbs = raw.form in FLAT, raw.form == "ball", raw.form == "crumbled"
    all_of_it = "All of it, cooked" if crumbs else "All pieces, cooked" if flat or ball else "All loaves, cooked"
    found = [Measure("cooked_mass_g", "mass_g", all_of_it, raw.expected_mass_g)]
    if not crumbs:
        across = "Diameter, cooked" if flat or ball else "Length, cooked"
        found.append(Measure("cooked_diameter_mm", "length_mm", across, raw.expected_across_mm))
    if not crumbs and not ball:
        found.append(Measure("cooked_thickness_mm", "length_mm", title_of_height(raw.form), raw.expected_thickness_mm))
    read = "Meat, last read" if crumbs else "Core, last read"
    return (*found, Measure("core_c", "temp_c", read, raw.target_core_c))


def check_measured(raw: Raw, outcome: Mapping[str, Any], known: Mapping[str, Any]) -> None:
    """Refuse what cannot have been measured of this cook; what was written down before is left as it is.

    Parameters
    ----------
    raw : Raw
        What went on and what is expected.
    outcome : Mapping[str, Any]
        What was measured, by its keys; None: not measured.
    known : Mapping[str, Any]
        What an earlier note said.

    Raises
    ------
    OutOfRangeError
        More came off than went on or far less than ever does, a piece changed as none does, or there is no piece.

    Examples
    --------
    >>> raw = Raw("disc", 1000, 130, 8, 740, 104, 9, 71)
    >>> check_measured(raw, {"cooked_mass_g": 720, "cooked_diameter_mm": 104}, {})
    >>> check_measured(raw, {"cooked_diameter_mm": 4}, {"cooked_diameter_mm": 4})
    """
    new = {key: value for key, value in outcome.items() if value is not None and value != known.get(key)}
    mass, across, thick = (new.get(k) for k in ("cooked_mass_g", "cooked_diameter_mm", "cooked_thickness_mm"))
    if mass is not None and mass > raw.batch_mass_g:
        raise OutOfRangeError(
            f"{mass:.0f} g cooked is more than the {raw.batch_mass_g:.0f} g that went on raw. "
            "Was the tray weighed too?",
            field="/outcome/cooked_mass_g",
        )
    if mass is not None and mass < LEAST_LEFT_FRAC * raw.batch_mass_g:
        raise OutOfRangeError(
            f"{mass:.0f} g cooked is {100 * mass / raw.batch_mass_g:.0f} % of the {raw.batch_mass_g:.0f} g that went "
            "on raw. Was all of it weighed, in this unit?",
            field="/outcome/cooked_mass_g",
        )
    if raw.form == "crumbled" and (across is not None or thick is not None):
        raise OutOfRangeError(
            "This meat is in crumbs: there is no piece to measure.",
            field="/outcome/cooked_diameter_mm" if across is not None else "/outcome/cooked_thickness_mm",
        )
    if across is not None and not LEAST_ACROSS_FRAC <= across / raw.across_mm <= MOST_ACROSS_FRAC:
        raise OutOfRangeError(
            f"{across:.0f} mm across, of {raw.across_mm:.0f} mm that went on: no piece draws in or spreads so much. "
            "Was it measured in another unit?",
            field="/outcome/cooked_diameter_mm",
        )
    if thick is not None and thick < LEAST_THICK_FRAC * raw.thickness_mm:
        raise OutOfRangeError(
            f"{thick:.1f} mm thick is less than a quarter of the {raw.thickness_mm:.0f} mm that went on. Was it "
            "measured in another unit?",
            field="/outcome/cooked_thickness_mm",
        )
    if thick is not None and thick > MOST_THICK_FRAC * raw.thickness_mm:
        raise OutOfRangeError(
            f"{thick:.0f} mm thick is more than {MOST_THICK_FRAC:.0f} times the {raw.thickness_mm:.0f} mm that went "
            "on. Was the diameter measured?",
            field="/outcome/cooked_thickness_mm",
        )
