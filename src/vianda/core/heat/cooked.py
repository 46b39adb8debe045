"""The piece as it cooks, pulled when it should be, and how to read it: core, meat, peak, browning."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from vianda.core.basis.band import Band
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.run import ANYTHING_C, Cooked, Setup, cook
from vianda.core.heat.conduction.slab import KEPT_FLIPPED
from vianda.core.heat.floor import FloorChoice
from vianda.core.heat.holds import holds_of, least_heated, line_c, met_at

# What the peak may lack of what is wanted: far below the uncertainty.
NEAR_K = 0.1
# Pulled that much below the core wanted at most, whatever is computed to come after. Ours.
MOST_CARRY_K = 15.0
# Runs in search of the pull, the first stride while the line is reached and its hold is not, and halvings of
# the last one. Ours.
MOST_PULLS, HOLD_STEP_K, HOLD_HALVINGS = 12, 1.0, 3
BrownWord = Literal["pale", "golden", "brown", "dark", "burnt"]
# In minutes at 150 °C; ours, only to rank.
BROWN_FROM: tuple[tuple[float, BrownWord], ...] = ((0.03, "golden"), (0.5, "brown"), (8.0, "dark"), (45.0, "burnt"))


@dataclass(frozen=True, slots=True)
class Wanted:
    """What a curve is made for besides what is simulated: the core wanted, and the carry-over that is counted on.

    ``weighed_frac`` is what others' scales say is left of the raw meat, to stand beside what is computed.
    """

    target_c: float
    counted_carry_k: float
    floors: FloorChoice
    expected_s: float
    coldest_c: float
    weighed_frac: Band

    @property
    def wants_floor(self) -> bool:
        """Whether the leading floor is wanted in the coldest meat."""
        return self.coldest_c > ANYTHING_C

    @property
    def line_c(self) -> float:
        """What the coldest meat must come to, rest included, °C."""
        return self.coldest_c + self.counted_carry_k


def wanted_of(case: CookCase) -> Wanted:
    """From a formula's figures; pull advice counts only on the low end of usual practice's carry-over.

    A cook who wants the leading floor wants it in the coldest meat; one who wishes for less has the wish in the core.

    Parameters
    ----------
    case : CookCase
        The piece and how it is cooked.

    Returns
    -------
    Wanted
        What a curve is made for besides what is simulated.
    """
    heat, floor = case.usual, case.usual.floors.leading
    carry = min(heat.carry_over_k.low, MOST_CARRY_K)
    coldest = ANYTHING_C
    if heat.target_c >= floor.temp_c - 1e-6:
        coldest = line_c(floor, target_c=heat.target_c) - carry
    # Usual practice's simmer lasts until it is tender, long after the core is there.
    simmer_s = sum((s.low_s + s.high_s) / 2 for s in heat.stages if s.kind == "simmer")
    expected_s = heat.practice.on_heat_s.usual - simmer_s
    return Wanted(heat.target_c, carry, heat.floors, expected_s, coldest, _weighed(case))


def _weighed(case: CookCase) -> Band:
    """Of crumbs their own: what a sauce puts to them stays in it and would hide what they lose."""
    left, lumps = case.shape.cooked_yield_frac, case.shape.lumps
    if lumps is None:
        return left
    share = lumps.lump_mass_g * lumps.per_portion / case.piece_mass_g
    return Band(*(1.0 - (1.0 - y) / share for y in (left.low, left.usual, left.high)))


def cooked_of(setup: Setup, wanted: Wanted) -> Cooked:
    """The piece pulled so that, counting on the low end of the usual carry-over, it comes to what is wanted.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    wanted : Wanted
        What the curve is made for.

    Returns
    -------
    Cooked
        How a piece went.
    """
    pull = wanted.target_c - wanted.counted_carry_k
    keep = max(0.5, wanted.expected_s / 150)
    coldest = wanted.coldest_c
    cooked = cook(replace(setup, pull_c=pull, coldest_c=coldest), keep_every_s=keep)
    # A floor is met or not: nearly is not.
    near = 0.0 if wanted.wants_floor else NEAR_K
    hold_k, lacked, short_k = HOLD_STEP_K, coldest, NEAR_K
    for _ in range(MOST_PULLS):
        if not cooked.reached:
            break
        lacking = wanted.target_c - peak_of(cooked)
        # What the coldest place gains after the pull is computed as well: usual practice's carry-over is the core's.
        short = wanted.line_c - coldest_peak_of(cooked) if wanted.wants_floor else 0.0
        held = not wanted.wants_floor or leading_met(cooked, wanted) is not None
        if lacking <= near and held:
            break
        if lacking > near:
            pull += lacking + NEAR_K / 2
        if short > 0.0:
            # A drying face can stand still while the rest warms on: longer by strides, or it is never left.
            coldest += max(short + NEAR_K / 2, short_k)
            short_k *= 2.0
        elif not held:
            # The line is reached and its hold is not: hotter by strides, since a hotter line holds far shorter.
            lacked = coldest
            coldest += hold_k
            hold_k *= 2.0
        cooked = cook(replace(setup, pull_c=pull, coldest_c=coldest), keep_every_s=keep)
    if hold_k > 2.0 * HOLD_STEP_K and cooked.reached:
        return _least_held(replace(setup, pull_c=pull), wanted, cooked, span=(lacked, coldest))
    return cooked


def _least_held(setup: Setup, wanted: Wanted, held: Cooked, *, span: tuple[float, float]) -> Cooked:
    """The last stride may have been too long: half of it back, as often as the floor is still held."""
    low, high = span
    for _ in range(HOLD_HALVINGS):
        between = (low + high) / 2
        less = cook(replace(setup, coldest_c=between), keep_every_s=max(0.5, wanted.expected_s / 150))
        if leading_met(less, wanted) is None or peak_of(less) < wanted.target_c:
            low = between
        else:
            high, held = between, less
    return held


def core_series(cooked: Cooked) -> Array:
    """The core at each sample: the geometric middle, where a probe is held.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.

    Returns
    -------
    Array
        Values in the order of what was given.
    """
    flat = cooked.temp_c.reshape(len(cooked.times_s), -1)
    return np.asarray(flat @ cooked.body.core_weight.ravel())


def leading_met(cooked: Cooked, wanted: Wanted) -> float | None:
    """When the coldest meat meets the leading floor.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.
    wanted : Wanted
        What the curve is made for.

    Returns
    -------
    float | None
        When the coldest meat meets the leading floor. None where there is none.
    """
    places, lethal = meat_series(cooked)
    places = least_heated(places, lethal)
    met = [at for h in holds_of(wanted.floors.leading) if (at := met_at(cooked.times_s, places, h)) is not None]
    return min(met, default=None)


def meat_series(cooked: Cooked) -> tuple[Array, Array]:
    """Samples of all places that are meat, each place in one column whichever way it lies, and lethality there.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.

    Returns
    -------
    tuple[Array, Array]
        Samples of all places that are meat, each place in one column whichever way it lies, and lethality there.
    """
    temp = cooked.temp_c
    is_meat = cooked.body.is_meat.ravel() > 0
    flat = temp.reshape(len(temp), -1)
    lethal = cooked.after.lethal.ravel()
    if cooked.body.form == "slab":
        turned = cooked.more[:, KEPT_FLIPPED] > 0.5
        flat = np.where(turned[:, None], flat[:, ::-1], flat)
        if turned[-1]:
            lethal = lethal[::-1]
    return flat[:, is_meat], lethal[is_meat]


def coldest_peak_of(cooked: Cooked) -> float:
    """The highest temperature, rest included, of the meat that comes to least.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.

    Returns
    -------
    float
        Highest temperature of the place whose highest is the lowest, °C.
    """
    return float(np.min(np.max(meat_series(cooked)[0], axis=0)))


def peak_of(cooked: Cooked) -> float:
    """The highest core; of a piece with something else in its middle, the highest of the meat heated least.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.

    Returns
    -------
    float
        The highest core.
    """
    if cooked.setup.piece.middle is None:
        return float(np.max(core_series(cooked)))
    places, lethal = meat_series(cooked)
    return float(np.max(places[:, int(np.argmin(lethal))]))


def brown_word(value: float) -> BrownWord:
    """A word for browning, to rank by.

    Parameters
    ----------
    value : float
        Browning as the model sums it (no unit), 0 or more.

    Returns
    -------
    BrownWord
        A word for browning, to rank by.

    References
    ----------
    80 kJ/mol, from memory of a literature of 60 to 100: it ranks, it does not measure.

    Examples
    --------
    >>> brown_word(0.0), brown_word(2.0)
    ('pale', 'brown')
    """
    word: BrownWord = "pale"
    for least, name in BROWN_FROM:
        if value >= least:
            word = name
    return word
