"""Doneness by name and core temperature. Common practice, made to meet; no published source."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.errors import UnknownItemError
from vianda.core.basis.units import c_from_f

WELL_DONE_C = c_from_f(160)


@dataclass(frozen=True, slots=True)
class Doneness:
    """A name and its band of core temperature in °C; the last band is open at the top."""

    key: str
    title: str
    low_c: float
    high_c: float


DONENESS = (
    Doneness("rare", "rare", 49.0, 54.0),
    Doneness("medium-rare", "medium-rare", 54.0, 58.0),
    Doneness("medium", "medium", 58.0, 64.0),
    Doneness("medium-well", "medium-well", 64.0, 71.0),
    Doneness("well-done", "well-done", 71.0, 80.0),
)


def doneness_at(core_c: float) -> str:
    """The name for a core temperature; "raw" below rare.

    Parameters
    ----------
    core_c : float
        Temperature of the core, °C.

    Returns
    -------
    str
        The text.

    References
    ----------
    Common practice, bands made to meet; no published source.

    Examples
    --------
    >>> doneness_at(61)
    'medium'
    """
    name = "raw"
    for band in DONENESS:
        if core_c >= band.low_c - 1e-9:
            name = band.title
    return name


def target_for(key: str, *, floor_c: float) -> float:
    """The core temperature meant by a doneness: the middle of its band.

    Well-done means 160 °F (71.1 °C), where mince needs no hold to meet the lines for red meat, or the leading
    floor where that is hotter.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.
    floor_c : float
        The leading published floor, °C.

    Returns
    -------
    float
        The core temperature that is meant, °C.

    Raises
    ------
    UnknownItemError
        No doneness “…”.

    References
    ----------
    Common practice, bands made to meet; no published source.

    Examples
    --------
    >>> target_for("medium", floor_c=71.1)
    61.0
    >>> round(target_for("well-done", floor_c=68.3), 1)
    71.1
    """
    for band in DONENESS:
        if band.key == key:
            if band.key == "well-done":
                return max(WELL_DONE_C, floor_c)
            return (band.low_c + band.high_c) / 2
    raise UnknownItemError(f"No doneness “{key[:40]}”.", field="/heat/target_core_temp_c")
