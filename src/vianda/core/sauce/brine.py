"""Pickles: where salt, sugar and acid come to rest between brine and vegetable, and how far they are.

At rest the water of both holds the same share of each: a mass balance. On the way there they move into a slice by
diffusion from a stirred brine of limited volume, for which Crank gives a series. How fast is known to a factor of two.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, number, say
from vianda.core.sauce.tastes import GRAMS_PER_MOLE

# Salt and acetic acid in vegetables at room temperature, m²/s, slow while the cells are whole; in the fridge two
# thirds: from memory, low.
DIFFUSES_M2_S, DIFFUSES_LOW, DIFFUSES_HIGH, COLD_FACTOR = 5e-10, 1.5e-10, 1.2e-9, 0.65
TERMS = 30
# A thinner slice is pulp: there at once.
LEAST_SLICE_MM = 0.1
# Acetic acid at 25 °C, CRC Handbook of Chemistry and Physics; from memory, high. Protons that a kilogram of vegetable
# takes up for a step of one in pH near 4: 10 to 40 mmol, ours, low.
PKA_ACETIC, BUFFER_LOW, BUFFER_HIGH, RAW_PH = 4.756, 0.010, 0.040, 6.2
# Below this measured pH Clostridium botulinum does not grow: published, from memory, high (FDA 21 CFR 114).
ACID_LINE_PH = 4.6
# Slices of 3 to 5 mm are put in one to three days ahead: common practice, no published source.
USUAL_H, USUAL_SLICE_MM = (24.0, 72.0), (3.0, 5.0)


@dataclass(frozen=True, slots=True)
class Bath:
    """Brine and vegetable as they are put together: grams of each thing, and the vegetable's own water and sugar."""

    water_g: float
    salt_g: float
    sugar_g: float
    acid_g: float
    vegetable_g: float
    vegetable_water_g: float
    vegetable_sugar_g: float = 0.0


@dataclass(frozen=True, slots=True)
class AtRest:
    """Shares of the water of both, 0–1, once nothing moves any more; and pH by acetic acid alone, with its band.

    The pH is an estimate and never a reason to keep it longer: measure it.
    """

    salt_frac: float
    sugar_frac: float
    acid_frac: float
    vegetable_salt_g: float
    vegetable_sugar_g: float
    vegetable_acid_g: float
    ph: Band


def at_rest(bath: Bath) -> AtRest:
    """Where salt, sugar and acid come to rest.

    Parameters
    ----------
    bath : Bath
        What is put together.

    Returns
    -------
    AtRest
        Shares of the water, what of each is in the vegetable, and an estimate of pH.

    Raises
    ------
    OutOfRangeError
        When there is no water, or something weighs less than nothing.

    References
    ----------
    A mass balance; dissociation of acetic acid, CRC Handbook, from memory; the vegetable's buffer: ours, low.

    Examples
    --------
    >>> bath = Bath(water_g=240, salt_g=8, sugar_g=60, acid_g=12, vegetable_g=200, vegetable_water_g=190)
    >>> found = at_rest(bath)
    >>> round(found.acid_frac, 4), round(found.vegetable_salt_g, 2)
    (0.0271, 3.53)
    """
    values = (bath.water_g, bath.salt_g, bath.sugar_g, bath.acid_g, bath.vegetable_g, bath.vegetable_water_g)
    if any(v < 0.0 or not math.isfinite(v) for v in values) or bath.vegetable_sugar_g < 0.0:
        raise OutOfRangeError("Nothing in a brine weighs less than nothing.", field="/bath")
    water = bath.water_g + bath.vegetable_water_g
    if water <= 0.0:
        raise OutOfRangeError("A brine has water in it.", field="/bath/water_g")
    inside = bath.vegetable_water_g / water
    sugar = bath.sugar_g + bath.vegetable_sugar_g
    return AtRest(
        _in_water(bath.salt_g, water),
        _in_water(sugar, water),
        _in_water(bath.acid_g, water),
        inside * bath.salt_g,
        inside * sugar,
        inside * bath.acid_g,
        _ph(bath.acid_g, water_kg=water / 1000.0, vegetable_kg=bath.vegetable_g / 1000.0),
    )


def _in_water(part_g: float, water_g: float) -> float:
    return part_g / (part_g + water_g)


def acetic_ph(mol_per_kg: float, *, neutralised: float = 0.0) -> float:
    """pH of acetic acid, part of it taken up by something else: x (x + n) = K (C − n − x).

    Parameters
    ----------
    mol_per_kg : float
        Acetic acid, mol/kg of water, 0 or more.
    neutralised : float, default 0.0
        What of it gave its proton away, mol/kg.

    Returns
    -------
    float
        pH, no activity corrections.

    References
    ----------
    Textbook dissociation of a weak acid, pKa 4.756 (CRC Handbook, from memory).

    Examples
    --------
    A tenth molar: textbooks print 2.88.

    >>> round(acetic_ph(0.1), 2)
    2.88
    """
    if mol_per_kg <= neutralised:
        return 7.0
    k = 10.0**-PKA_ACETIC
    free = mol_per_kg - neutralised
    b = neutralised + k
    x = (-b + math.sqrt(b * b + 4.0 * k * free)) / 2.0
    return -math.log10(max(x, 1e-7))


def _ph(acid_g: float, *, water_kg: float, vegetable_kg: float) -> Band:
    moles = acid_g / GRAMS_PER_MOLE["acetic"] / water_kg

    def buffered(per_ph: float) -> float:
        # The vegetable takes up protons until it is as sour as the brine.
        low, high = 1.0, RAW_PH
        for _ in range(60):
            middle = (low + high) / 2
            taken = per_ph * vegetable_kg / water_kg * (RAW_PH - middle)
            low, high = (middle, high) if acetic_ph(moles, neutralised=taken) > middle else (low, middle)
        return (low + high) / 2

    low, high = buffered(BUFFER_LOW), buffered(BUFFER_HIGH)
    return Band(low, (low + high) / 2, high)


def keeping(rest: AtRest) -> Phrase:
    """What the keeping of a pickle rests on: never on an estimate.

    Parameters
    ----------
    rest : AtRest
        Brine and vegetable at rest.

    Returns
    -------
    Phrase
        The line, the estimate, and what to do.

    References
    ----------
    pH 4.6: FDA 21 CFR 114, from memory, high. Cold and a few weeks at most: common caution.
    """
    text = (
        "Estimated pH {low} to {high}. Below {line}, measured, Clostridium botulinum does not grow; an estimate is no "
        "measurement: keep it cold and for days, not months. Local codes and licensed practice decide."
    )
    if rest.ph.high >= ACID_LINE_PH:
        text = "Not surely sour enough: estimated pH {low} to {high}, and the line is {line}. More vinegar. " + (
            "Keep it cold, eat it within days, and measure it. Local codes and licensed practice decide."
        )
    return say(text, low=number(rest.ph.low), high=number(rest.ph.high), line=number(ACID_LINE_PH))


def usual_wait() -> Phrase:
    """Why cooks wait longer than salt and sour need.

    Returns
    -------
    Phrase
        What is not known of the computed hours, and what is usual.

    References
    ----------
    Common practice, no published source.
    """
    return say(
        "How fast it goes in is known to a factor of two or three. Usual practice waits longer, {low} to {high} h, for "
        "slices of {slices}: spice and colour take more time than sour and salt.",
        low=ph.count(int(USUAL_H[0])),
        high=ph.count(int(USUAL_H[1])),
        slices=ph.length(*USUAL_SLICE_MM),
    )


def pickled_frac(slice_mm: float, seconds: float, *, brine_per_vegetable: float, cold: bool = True) -> Band:
    """How far a slice is on its way to rest, 0–1, from a stirred brine of limited volume.

    Parameters
    ----------
    slice_mm : float
        Thickness of the slice, mm, above 0.
    seconds : float
        Time in the brine, s, 0 or more.
    brine_per_vegetable : float
        Water of the brine by the water of the vegetable, above 0 (ratio).
    cold : bool, default True
        In the fridge.

    Returns
    -------
    Band
        Slow, usual and fast, by what is known of diffusion in vegetables.

    Raises
    ------
    OutOfRangeError
        When a figure is not above zero.

    References
    ----------
    Crank, The Mathematics of Diffusion, 4.3.5, plane sheet in a stirred solution of limited volume; from memory, high.

    Examples
    --------
    Slices of 4 mm in one and a half times their water, a day in the fridge.

    >>> round(pickled_frac(4, 86_400, brine_per_vegetable=1.5).usual, 2)
    1.0
    """
    if not LEAST_SLICE_MM <= slice_mm <= 1000.0 or not seconds >= 0.0 or not 1e-6 <= brine_per_vegetable <= 1e12:
        raise OutOfRangeError("A slice is 0.1 to 1000 mm thick, and a brine has some water.", field="/slice_mm")
    factor = COLD_FACTOR if cold else 1.0
    half = slice_mm / 2000.0
    low, usual, high = (
        uptake_frac(d * factor * seconds / half**2, brine_per_vegetable)
        for d in (DIFFUSES_LOW, DIFFUSES_M2_S, DIFFUSES_HIGH)
    )
    return Band(low, usual, high)


def uptake_frac(fourier: float, volume_ratio: float) -> float:
    """Uptake by a plane sheet from a stirred bath of limited volume, of what it takes up at rest.

    1 − Σ 2 α (1 + α) ÷ (1 + α + α² qₙ²) exp(−qₙ² Fo), tan qₙ = −α qₙ.

    Parameters
    ----------
    fourier : float
        D t ÷ L², L half the thickness; 0 or more (ratio).
    volume_ratio : float
        α: volume of the bath by that of the sheet, above 0 (ratio).

    Returns
    -------
    float
        0–1.

    References
    ----------
    Crank, The Mathematics of Diffusion (1975), 4.3.5; from memory, high; checked against an independent solution.
    """
    if fourier <= 0.0:
        return 0.0
    a = volume_ratio
    left = 0.0
    for n in range(1, TERMS + 1):
        q = _root(a, n)
        left += 2.0 * a * (1.0 + a) / (1.0 + a + a * a * q * q) * math.exp(-q * q * fourier)
    return min(1.0, max(0.0, 1.0 - left))


def _root(a: float, n: int) -> float:
    """The nth positive root of tan q = −a q: it lies between (n − ½) π and n π."""
    low, high = (n - 0.5) * math.pi + 1e-12, n * math.pi
    for _ in range(80):
        middle = (low + high) / 2
        low, high = (middle, high) if math.tan(middle) + a * middle < 0.0 else (low, middle)
    return (low + high) / 2


def ready_after_h(slice_mm: float, *, brine_per_vegetable: float, cold: bool = True, share: float = 0.9) -> Band:
    """When a slice is so far on its way to rest.

    Parameters
    ----------
    slice_mm : float
        Thickness of the slice, mm, above 0.
    brine_per_vegetable : float
        Water of the brine by the water of the vegetable, above 0 (ratio).
    cold : bool, default True
        In the fridge.
    share : float, default 0.9
        How far, a share above 0 and below 1.

    Returns
    -------
    Band
        Hours: by the fastest, the usual and the slowest diffusion.

    Raises
    ------
    OutOfRangeError
        When a figure is not above zero, or the share is never reached.

    References
    ----------
    ``uptake_frac``, turned round; nine tenths of the way: ours.

    Examples
    --------
    >>> found = ready_after_h(4, brine_per_vegetable=1.5)
    >>> round(found.low, 1), round(found.high, 1)
    (0.8, 6.1)
    """
    if not LEAST_SLICE_MM <= slice_mm <= 1000.0 or not 1e-6 <= brine_per_vegetable <= 1e12 or not 0.0 < share < 1.0:
        raise OutOfRangeError(
            "A slice has a thickness, a brine some water, and no slice is wholly there.", field="/slice_mm"
        )
    low, high = 0.0, 20.0
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if uptake_frac(middle, brine_per_vegetable) < share else (low, middle)
    factor = COLD_FACTOR if cold else 1.0
    half = slice_mm / 2000.0
    fast, usual, slow = (high * half**2 / (d * factor) / 3600.0 for d in (DIFFUSES_HIGH, DIFFUSES_M2_S, DIFFUSES_LOW))
    return Band(fast, usual, slow)
