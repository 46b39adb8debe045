"""What the heat leaves: cooked mass, split into the water that goes and the fat that renders, and cooked diameter.

What stays is read from SR28's rows for ground meat, raw and cooked: beef at eight fat levels and by four methods, the
other animals by the rows there are. Protein
does not run off, so the cooked mass of a gram of raw meat is P_raw ÷ P_cooked, and of its water W_cooked ÷ W_raw times
that stays; of its fat likewise. Diameter: common practice (loses 10–30 % by fat), laid linearly over 10 to 30 % fat.
"""

from __future__ import annotations

import csv
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

from vianda.core.basis.band import Band, along
from vianda.core.basis.errors import OutOfRangeError

CookMethod = Literal["pan-broiled", "broiled", "crumbles", "loaf"]

# Half the band of a yield: SR28's own weights "yield from" lie within it (all but the 97 % lean row, which has the same
# grams as the 70 % one), and USDA's guidance for drained ground beef too up to 25 % fat. Ours, from that spread.
YIELD_UNCERTAINTY = 0.06
# What a panade and egg hold back: ours (common practice says that they do, no published source says how much).
BINDER_GAIN, BINDER_MOST = 0.4, 0.08
SHRINK_POINTS = ((0.10, 0.12), (0.30, 0.25))
SHRINK_UNCERTAINTY = 0.05
# Nothing shrinks further, whatever a kitchen measured: ours.
MOST_SHRINK = 0.6
# SR28's ground beef was cooked to about 71 °C (160 °F): from memory, medium confidence.
REFERENCE_C = 160.0 * 5 / 9 - 160.0 / 9
# Below the reference about half of the loss stays, since the outside is hot whatever the core: ours.
OUTSIDE_SHARE = 0.45
# Of a food that is served, some water always stays: the most a hot, long cook takes of it. Ours.
MOST_LOSS = 0.92
# Which way of cooking stands for one that SR28 has no rows of, the first it has.
NEAREST: tuple[CookMethod, ...] = ("pan-broiled", "broiled", "crumbles", "loaf")
# SR28's two cooked veals differ by 0.04 and its printed yield from a pound, 0.66, by more: the band covers all three.
VEAL_UNCERTAINTY = 0.10


@dataclass(frozen=True, slots=True)
class CookLoss:
    """What leaves a raw gram: water and rendered fat, and what is left; all by raw mass, 0–1."""

    water_frac: float
    fat_frac: float
    yield_frac: Band


Points = tuple[tuple[float, float], ...]


@cache
def _retained() -> Mapping[tuple[str, str], tuple[Points, Points]]:
    """By animal and method: share of water and of fat that stays, along the fat of the raw meat (0–1)."""
    found: dict[tuple[str, str], tuple[list[tuple[float, float]], list[tuple[float, float]]]] = {}
    rows: list[dict[str, str]] = []
    for name in ("cooked_ground_beef_sr28.csv", "cooked_other_meats_sr28.csv"):
        text = (files("vianda.core.shape") / "data" / name).read_text(encoding="utf-8")
        rows += csv.DictReader(text.splitlines())
    for row in rows:
        left = float(row["raw_protein_g"]) / float(row["cooked_protein_g"])
        fat = float(row["fat_pct"]) / 100.0
        water, fats = found.setdefault((row.get("species", "beef"), row["method"]), ([], []))
        water.append((fat, left * float(row["cooked_water_g"]) / float(row["raw_water_g"])))
        # Where analyses say that more fat came out than went in (3 % fat), all of it stayed.
        fats.append((fat, min(1.0, left * float(row["cooked_fat_g"]) / float(row["raw_fat_g"]))))
    return {key: (tuple(water), tuple(fats)) for key, (water, fats) in found.items()}


def retained_fracs(fat_frac: float, *, method: CookMethod, species: str = "beef") -> tuple[float, float]:
    """Shares of the water and of the fat of raw ground meat that stay in it.

    An animal that SR28 has not cooked this way follows one it has, moved as beef moves between the two; one without
    any rows follows beef.

    Parameters
    ----------
    fat_frac : float
        Of the raw meat, 0–1.
    method : CookMethod
        How it is cooked.
    species : str, default 'beef'
        The animal.

    Returns
    -------
    tuple[float, float]
        Of the water and of the fat, 0–1.

    References
    ----------
    SR28, ground meats raw and cooked; protein balance.

    Examples
    --------
    >>> water, fat = retained_fracs(0.16, method="pan-broiled", species="pork")
    >>> round(water, 3), round(fat, 3)
    (0.533, 0.886)
    """
    table = _retained()
    beef = tuple(_held(points, fat_frac) for points in table["beef", method])
    rows = {m: points for (animal, m), points in table.items() if animal == species}
    if species == "beef" or not rows:
        return beef[0], beef[1]
    near = method if method in rows else next(m for m in NEAREST if m in rows)
    own = tuple(_held(points, fat_frac) for points in rows[near])
    as_beef = tuple(_held(points, fat_frac) for points in table["beef", near])
    return min(1.0, own[0] * beef[0] / as_beef[0]), min(1.0, own[1] * beef[1] / as_beef[1])


def _held(points: Points, x: float) -> float:
    """Between the points of a table; its end values beyond them."""
    return along(points, min(max(x, points[0][0]), points[-1][0]))


def done_factor(end_temp_c: float) -> float:
    """How much of the loss at 71 °C there is at another core: s + (1 − s) D(T) ÷ D(71), D(T) = 1 ÷ (1 + e^−((T−62)/6)).

    Parameters
    ----------
    end_temp_c : float
        Core when it leaves the heat, °C.

    Returns
    -------
    float
        Loss by the loss at 71 °C (ratio), 0 or more.

    References
    ----------
    The shape of D is a guess that worked in a model of drip; s is ours. Neither is published.

    Examples
    --------
    >>> round(done_factor(71.1), 2), round(done_factor(55), 2)
    (1.0, 0.61)
    """

    def drip(temp_c: float) -> float:
        return 1.0 / (1.0 + math.exp(-(temp_c - 62.0) / 6.0))

    return OUTSIDE_SHARE + (1.0 - OUTSIDE_SHARE) * drip(end_temp_c) / drip(REFERENCE_C)


def cook_loss(
    fat_frac: float,
    *,
    water_frac: float,
    method: CookMethod = "pan-broiled",
    binder_frac: float = 0.0,
    end_temp_c: float = REFERENCE_C,
    factor: float = 1.0,
    species: Sequence[tuple[str, float]] = (("beef", 1.0),),
) -> CookLoss:
    """Water and fat lost from a raw mix, and the cooked mass, by raw mass.

    Parameters
    ----------
    fat_frac : float
        Of the raw mix, 0–1; fat at most 0.60.
    water_frac : float
        Water, 0–1.
    method : CookMethod, default 'pan-broiled'
        How SR28 cooked the row that is followed.
    binder_frac : float, default 0.0
        Crumb, bread, starch and egg by mass of the meat, 0–1; it holds juice: 0.4 of it by mass, at most 8 % of the raw
        mix.
    end_temp_c : float, default REFERENCE_C
        Core when it leaves the heat, °C.
    factor : float, default 1.0
        What this cook's own weighings multiply the loss with; 1 before there are any.
    species : Sequence[tuple[str, float]], default (("beef", 1.0),)
        The animals of the meat with their shares, which add up to 1.

    Returns
    -------
    CookLoss
        What leaves a raw gram.

    Raises
    ------
    OutOfRangeError
        Above 60 % fat, where no table reaches. Beyond 3 and 30 % the end rows stand for the rest.

    References
    ----------
    USDA National Nutrient Database, release SR28: ground meats raw and cooked. Protein balance; how the core's
    end moves it is ours.

    Examples
    --------
    >>> loss = cook_loss(0.20, water_frac=0.6187)
    >>> round(loss.yield_frac.usual, 3), round(loss.water_frac, 3), round(loss.fat_frac, 3)
    (0.717, 0.197, 0.086)
    """
    if not 0.0 <= fat_frac <= 0.60:
        raise OutOfRangeError(
            f"No yield is known for {fat_frac * 100:.0f} % fat; the table serves 0 to 60 %.", field="/parts"
        )
    if factor <= 0:
        raise OutOfRangeError("A loss is multiplied by more than zero.")
    stays = [(share, *retained_fracs(fat_frac, method=method, species=animal)) for animal, share in species]
    stays_water, stays_fat = (math.fsum(row[0] * row[at] for row in stays) for at in (1, 2))
    scale = done_factor(end_temp_c) * factor
    held = min(BINDER_MOST, BINDER_GAIN * binder_frac)
    water = max(0.0, (1.0 - stays_water) * water_frac * scale - held)
    water = min(water, MOST_LOSS * water_frac)
    fat = min((1.0 - stays_fat) * fat_frac * scale, fat_frac)
    usual = 1.0 - water - fat
    veal = sum(share for animal, share in species if animal == "veal")
    off = YIELD_UNCERTAINTY + veal * (VEAL_UNCERTAINTY - YIELD_UNCERTAINTY)
    return CookLoss(water, fat, Band(max(0.0, usual - off), usual, min(1.0, usual + off)))


def diameter_shrink_frac(
    fat_frac: float, *, packing_gain: float = 0.0, end_temp_c: float = REFERENCE_C, factor: float = 1.0
) -> Band:
    """Share of the raw diameter that is lost in the heat, for a fat fraction 0–1.

    It goes with the loss of mass at other cores than 71 °C; ``packing_gain`` is what loose packing adds.

    Parameters
    ----------
    fat_frac : float
        Fat by mass, 0–1.
    packing_gain : float, default 0.0
        What loose packing adds to the shrink, 0–1.
    end_temp_c : float, default REFERENCE_C
        Core when it leaves the heat, °C.
    factor : float, default 1.0
        What this kitchen's own measurements multiply it with, above 0; 1 before there are any.

    Returns
    -------
    Band
        A usual value with its range.

    Raises
    ------
    OutOfRangeError
        No shrink is known for … % fat; the rule serves 0 to 60 %.

    References
    ----------
    Common practice, no published source: 10 to 30 %.

    Examples
    --------
    >>> round(diameter_shrink_frac(0.20).usual, 3)
    0.185
    """
    if not 0.0 <= fat_frac <= 0.60:
        raise OutOfRangeError(
            f"No shrink is known for {fat_frac * 100:.0f} % fat; the rule serves 0 to 60 %.", field="/parts"
        )
    # Beyond 40 % no cook reports one; the line ends there.
    usual = min(
        MOST_SHRINK, (along(SHRINK_POINTS, min(fat_frac, 0.40)) + packing_gain) * done_factor(end_temp_c) * factor
    )
    return Band(max(0.0, usual - SHRINK_UNCERTAINTY), usual, usual + SHRINK_UNCERTAINTY)
