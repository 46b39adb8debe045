"""Fermenting a vegetable in its own brine: salt by the whole, days by temperature, and what is left to eat."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, frac, number, say, temp
from vianda.core.sauce.brine import ACID_LINE_PH

FermentKind = Literal["cabbage", "cucumber"]
# 2 to 2.5 % of the whole is usual; common practice. Below 1.5 % it may spoil before it sours, above 6 % it does not
# sour; cucumbers lie in a stronger brine: from memory, medium.
SALT_LEAST, SALT_MOST = 0.015, 0.06
SALT_USUAL: Mapping[FermentKind, tuple[float, float]] = {"cabbage": (0.020, 0.025), "cucumber": (0.03, 0.05)}
# Days at a temperature: USDA Complete Guide to Home Canning, guide 6: cabbage at 21–24 °C 3 to 4 weeks, at 16–18 °C 5
# to 6; below 16 °C it may not ferment, above 24 °C it may go soft. From memory, high. A cook who eats it young begins
# after a few days: common practice.
COLDEST_C, WARMEST_C = 15.5, 24.0
FULL_DAYS: tuple[tuple[float, float, float], ...] = ((15.5, 35.0, 42.0), (18.3, 35.0, 42.0), (21.0, 21.0, 28.0))
YOUNG_DAYS = (3.0, 10.0)
# What is left, drained, by the raw mass: cabbage gives a tenth to a quarter as brine; from memory, low.
LEFT: Mapping[FermentKind, tuple[float, float, float]] = {"cabbage": (0.75, 0.85, 0.92), "cucumber": (0.88, 0.93, 0.97)}


@dataclass(frozen=True, slots=True)
class Ferment:
    """Salt, g; days until it is eaten young and until it is through; what is left drained, g; what it rests on."""

    salt_g: float
    salt_frac: float
    usual_frac: tuple[float, float]
    young_days: Band
    full_days: Band
    left_g: Band
    keeps: Phrase


def ferment(kind: FermentKind, vegetable_g: float, *, temp_c: float, salt_frac: float | None = None) -> Ferment:
    """Salt, days and yield of a ferment.

    Parameters
    ----------
    kind : FermentKind
        What is fermented.
    vegetable_g : float
        Shredded or whole, g, above 0.
    temp_c : float
        Where it stands, °C, 10 to 30.
    salt_frac : float | None, default None
        Salt by the mass of vegetable and salt, a share of 0.015–0.06; None: what is usual.

    Returns
    -------
    Ferment
        The figures, with what keeps it safe.

    Raises
    ------
    OutOfRangeError
        Outside those ranges.

    References
    ----------
    USDA Complete Guide to Home Canning, guide 6 (days by temperature), from memory, high; salt: common practice.

    Examples
    --------
    >>> found = ferment("cabbage", 980, temp_c=21)
    >>> round(found.salt_g, 1), found.full_days.low
    (22.6, 21.0)
    """
    if not 0.0 < vegetable_g <= 1e6:
        raise OutOfRangeError("There is some vegetable, at most 1000 kg.", field="/vegetable_g")
    if not 10.0 <= temp_c <= 30.0:
        raise OutOfRangeError(f"A ferment stands at 10 to 30 °C, not at {temp_c:g}.", field="/temp_c")
    usual = SALT_USUAL[kind]
    share = (usual[0] + usual[1]) / 2 if salt_frac is None else salt_frac
    if not SALT_LEAST <= share <= SALT_MOST:
        raise OutOfRangeError(
            f"A ferment wants 1.5 to 6 % of salt; usual are {100 * usual[0]:g} to {100 * usual[1]:g} %.",
            field="/salt_frac",
        )
    low, high = next((low, high) for at, low, high in reversed(FULL_DAYS) if temp_c >= at or at == FULL_DAYS[0][0])
    least, mid, most = LEFT[kind]
    return Ferment(
        vegetable_g * share / (1.0 - share),
        share,
        usual,
        Band(YOUNG_DAYS[0], sum(YOUNG_DAYS) / 2, YOUNG_DAYS[1]),
        Band(low, (low + high) / 2, high),
        Band(least * vegetable_g, mid * vegetable_g, most * vegetable_g),
        _keeps(temp_c, share, usual),
    )


def _keeps(temp_c: float, share: float, usual: tuple[float, float]) -> Phrase:
    """What keeping rests on, the gravest first."""
    end = (
        " Under its brine all the time, weighted. Below pH {line}, measured, Clostridium botulinum does not grow; "
        "mould, slime or a foul smell: throw it away. Local codes and licensed practice decide."
    )
    line = number(ACID_LINE_PH)
    if temp_c < COLDEST_C:
        text = "Below {cold} it may not ferment at all, and spoil instead." + end
        return say(text, cold=temp(COLDEST_C), line=line)
    if temp_c > WARMEST_C:
        return say("Above {warm} it goes soft and may spoil." + end, warm=temp(WARMEST_C), line=line)
    if share < usual[0]:
        text = "{salt} salt is less than usual ({low} to {high}): it softens, and other microbes get a start." + end
        return say(text, salt=frac(share), low=frac(usual[0]), high=frac(usual[1]), line=line)
    return say("{salt} salt at {warm} is usual." + end, salt=frac(share), warm=temp(temp_c), line=line)
