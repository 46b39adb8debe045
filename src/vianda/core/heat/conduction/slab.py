"""One stage of a flat piece (from below to above) or a ball (from middle to skin), in machine code.

Every change of boundary condition begins with a small step of backward Euler; from the second step on it is of second
order.
"""

from __future__ import annotations

import math

import numpy as np

from vianda.core.heat.conduction.jit import compiled
from vianda.core.heat.conduction.line import MOST_STEP_S, ROOM, conduct, release, step_after, two_step
from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.props import BLENDED, BOILING_C, LATENT_J_KG, blend, conductivity_of
from vianda.core.heat.conduction.skin import (
    AIR_KIND,
    KIND,
    MOST_FILM,
    SHUT_KIND,
    STORE_KIND,
    H,
    link,
    longest_step,
    settle_skin,
    store_after,
)
from vianda.core.heat.conduction.state import Cells, Line, Mesh, Record, Until

# Rows of ``edge``: what stands at the two faces.
FILM_LOW, FILM_HIGH, FEED_LOW, FEED_HIGH, SKIN_LOW, SKIN_HIGH, STORE_LOW, STORE_HIGH, POOL = range(9)
EDGES = 9
# Rows of ``tally``: J and kg for a unit of face, and browning of the two faces in units of a minute at 150 °C.
HEAT_IN, HEAT_OUT, WATER_LOST, FAT_LOST, BROWN_LOW, BROWN_HIGH, FLIPPED = range(7)
TALLIES = 7
# Columns of ``kept_more``; of a loaf the third is the skin of its side.
(
    KEPT_SKIN_LOW,
    KEPT_SKIN_HIGH,
    KEPT_STORE_LOW,
    KEPT_STORE_HIGH,
    KEPT_WATER,
    KEPT_FAT,
    KEPT_BROWN_LOW,
    KEPT_BROWN_HIGH,
    KEPT_FLIPPED,
) = range(9)
# Rows of ``clock``, in s.
NOW, NEXT, EVERY = range(3)
END_TIME, END_CORE, END_TWO_FIFTHS, END_COLDEST, END_COLD = range(5)
# Zero-order browning, Ea 60–100 kJ/mol in the literature, unit one minute at 150 °C: it only ranks. From memory, low.
BROWN_EA_PER_R, BROWN_AT_K = 80_000.0 / 8.314, 423.15
# Log-linear lethality of Salmonella in beef: D60 = 106 s, z = 5.56 °C, a fit to Appendix A (1999), 6.5 log.
D60_S, Z_K = 106.0, 5.56
LN10_PER_Z = math.log(10.0) / Z_K
COOKED_C = 60.0
# How much better boiling juice takes the heat of a pan than a stirred crumb does: ours.
POOL_GAIN = 4.0


@compiled
def thin_out(record: Record) -> int:
    """Room again where all is full: every other sample goes, and from now on they come half as often.

    Parameters
    ----------
    record : Record
        Samples on the way.

    Returns
    -------
    int
        Room again where all is full.
    """
    half = (len(record.time_s) + 1) // 2
    for n in range(half):
        record.time_s[n] = record.time_s[2 * n]
        record.temp[n] = record.temp[2 * n]
        record.more[n] = record.more[2 * n]
    record.clock[EVERY] *= 2.0
    return half


@compiled
def cooked_frac(temp: Array, width: Array) -> float:
    """How much of the thickness has passed 60 °C, counted from below without a gap.

    Parameters
    ----------
    temp : Array
        Temperatures of the cells, °C, shape ``(n,)``.
    width : Array
        Widths of the cells, m, shape ``(n,)``.

    Returns
    -------
    float
        Cooked, 0–1.
    """
    total = 0.0
    past = 0.0
    counting = True
    for i in range(len(temp)):
        total += width[i]
        if counting and temp[i] >= COOKED_C:
            past += width[i]
        else:
            if counting and i > 0 and temp[i - 1] >= COOKED_C:
                # The front stands between two cells.
                past += 0.5 * (width[i - 1] + width[i]) * (temp[i - 1] - COOKED_C) / (temp[i - 1] - temp[i])
                past -= 0.5 * width[i - 1]
            counting = False
    return past / total


@compiled
def turn_over(cells: Cells, edge: Array) -> None:
    """Lay it on its other face; what is under it stays where it is.

    Parameters
    ----------
    cells : Cells
        The cells, changed in place.
    edge : Array
        What stands at the two faces; see ``FILM_LOW`` and after it.
    """
    temp, shares, tally, lethal, peak = cells.temp, cells.shares, cells.tally, cells.lethal, cells.peak
    n = len(temp)
    for i in range(n // 2):
        j = n - 1 - i
        temp[i], temp[j] = temp[j], temp[i]
        lethal[i], lethal[j] = lethal[j], lethal[i]
        peak[i], peak[j] = peak[j], peak[i]
        for c in range(5):
            shares[i, c], shares[j, c] = shares[j, c], shares[i, c]
    edge[FILM_LOW], edge[FILM_HIGH] = edge[FILM_HIGH], edge[FILM_LOW]
    edge[FEED_LOW], edge[FEED_HIGH] = edge[FEED_HIGH], edge[FEED_LOW]
    edge[SKIN_LOW], edge[SKIN_HIGH] = edge[SKIN_HIGH], edge[SKIN_LOW]
    tally[BROWN_LOW], tally[BROWN_HIGH] = tally[BROWN_HIGH], tally[BROWN_LOW]
    tally[FLIPPED] = 1.0 - tally[FLIPPED]


@compiled
def lethality(temp_c: float, dt: float) -> float:
    """log₁₀ reductions in ``dt`` s; below 30 °C none worth counting, above 110 °C no faster.

    Parameters
    ----------
    temp_c : float
        Temp, °C.
    dt : float
        Length of the step, s, above 0.

    Returns
    -------
    float
        log₁₀ reductions in ``dt`` s.
    """
    if temp_c < 30.0:
        return 0.0
    return dt / D60_S * math.exp(LN10_PER_Z * (min(temp_c, 110.0) - 60.0))


@compiled
def browned(skin_c: float, dt: float) -> float:
    """Browning in a step, in minutes at 150 °C; a skin below 100 °C does none worth counting.

    Parameters
    ----------
    skin_c : float
        Skin, °C.
    dt : float
        Length of the step, s, above 0.

    Returns
    -------
    float
        Browning in a step, in minutes at 150 °C.
    """
    if skin_c < 95.0:
        return 0.0
    return dt / 60.0 * math.exp(-BROWN_EA_PER_R * (1.0 / (skin_c + 273.15) - 1.0 / BROWN_AT_K))


@compiled
def film_after(film: float, feed: float, dries: float, dt: float) -> float:
    """Water on a face after a step.

    Parameters
    ----------
    film : float
        Water on the face, kg/m², 0 or more.
    feed : float
        Water that comes onto the face, kg/(m² s).
    dries : float
        Water that leaves the face, kg/(m² s).
    dt : float
        Length of the step, s, above 0.

    Returns
    -------
    float
        Water on a face after a step.
    """
    return min(max(film + (feed - dries) * dt, 0.0), MOST_FILM)


@compiled
def is_met(end: int, now: float, end_value: float, coldest: float, coldest_c: float) -> bool:
    """Whether what ends a stage has come about.

    Parameters
    ----------
    end : int
        An ``END_…`` code (no unit).
    now : float
        The value that is waited for, in the unit of its end.
    end_value : float
        What ends it, °C or a fraction 0–1.
    coldest : float
        Least of the highest temperatures, °C.
    coldest_c : float
        Coldest, °C.

    Returns
    -------
    bool
        Whether what ends a stage has come about.
    """
    if end == END_COLD:
        return now <= end_value
    return now >= end_value and not (end == END_CORE and coldest < coldest_c)


@compiled
def overshot(before: float, now: float, end_value: float) -> float:
    """How much of the last step lay behind its end, 0–1, by a straight line between the last two.

    Parameters
    ----------
    before : float
        The value a step before, in the unit of its end.
    now : float
        The value that is waited for, in the unit of its end.
    end_value : float
        What ends it, °C or a fraction 0–1.

    Returns
    -------
    float
        How much of the last step lay behind its end, 0–1, by a straight line between the last two.
    """
    if math.fabs(now - before) < 1e-12:
        return 0.0
    return 1.0 - min(max((end_value - before) / (now - before), 0.0), 1.0)


@compiled
def simulate_row(
    cells: Cells,
    edge: Array,
    mesh: Mesh,
    factors: Array,
    faces: Array,
    dt_most: float,
    turn_every: float,
    until: Until,
    record: Record,
    kept: int,
) -> tuple[float, bool, int]:
    """One stage of a flat piece or a ball, in place: seconds it took, whether it got there, samples kept.

    ``edge`` has the order of ``FILM_LOW`` and after it. ``factors``: on conductivity, on drip, the share of drip that
    comes to a skin, on browning above. ``faces``: below and above. ``turn_every`` above 0 turns it that often, s.

    Parameters
    ----------
    cells : Cells
        The cells, changed in place.
    edge : Array
        What stands at the two faces; see ``FILM_LOW`` and after it.
    mesh : Mesh
        Geometry and first state of the cells.
    factors : Array
        On conductivity, drip, the share of drip on a skin, browning; each about 1.
    faces : Array
        The faces, one a row.
    dt_most : float
        Longest step, s.
    turn_every : float
        How often it is turned, s; 0 for never.
    until : Until
        What ends the stage.
    record : Record
        Samples on the way.
    kept : int
        Samples kept so far (count).

    Returns
    -------
    tuple[float, bool, int]
        One stage of a flat piece or a ball, in place.
    """
    temp, shares, tally, lethal, peak = cells.temp, cells.shares, cells.tally, cells.lethal, cells.peak
    width, area, mass, drips, core_weight = mesh.width, mesh.area, mesh.mass, mesh.release, mesh.core_weight
    clock, kept_t, kept_temp, kept_more = record.clock, record.time_s, record.temp, record.more
    low, high = faces[0], faces[1]
    end, end_value, coldest_c, seconds = until.end, until.value, until.coldest_c, until.seconds
    n = len(temp)
    water, k, steam, gained, room, blended = (
        np.empty(n),
        np.empty(n),
        np.empty(n),
        np.zeros(n),
        np.empty((ROOM, n)),
        np.empty((n, BLENDED)),
    )
    bottom, top, out, ends, into = np.empty(4), np.empty(4), np.empty(4), np.empty(4), np.zeros(2)
    longest = longest_step(high, longest_step(low, MOST_STEP_S))
    dt_most = longest_step(high, longest_step(low, dt_most))
    since, turned, dt, dt_before = 0.0, 0.0, dt_most / 16.0, 0.0
    most = len(kept_t)
    reached = end == END_TIME
    ended = 0.0
    before = 0.0
    for i in range(n):
        before += core_weight[i] * temp[i]
    line = Line(temp, water, mass, k, width, area[1:n], blended)
    while since < seconds - 1e-9:
        if clock[0] >= clock[1] - 1e-9:
            if kept == most:
                kept = thin_out(record)
            kept_t[kept] = clock[0]
            kept_temp[kept] = temp
            kept_more[kept, 0], kept_more[kept, 1] = edge[SKIN_LOW], edge[SKIN_HIGH]
            kept_more[kept, 2], kept_more[kept, 3] = edge[STORE_LOW], edge[STORE_HIGH]
            kept_more[kept, 4], kept_more[kept, 5] = tally[WATER_LOST], tally[FAT_LOST]
            kept_more[kept, 6], kept_more[kept, 7] = tally[BROWN_LOW], tally[BROWN_HIGH]
            kept_more[kept, 8] = tally[FLIPPED]
            kept += 1
            clock[1] = clock[0] + clock[EVERY]
        dt = min(dt, seconds - since)
        if turn_every > 0.0:
            dt = min(dt, max(1e-3, turn_every - turned))
        for i in range(n):
            k[i] = factors[0] * conductivity_of(shares[i], temp[i])
            blend(shares[i], blended[i])
            water[i] = shares[i, 0]
        inner_low, inner_high = 2.0 * k[0] / width[0], 2.0 * k[n - 1] / width[n - 1]
        film_low, film_high = edge[FILM_LOW] + edge[FEED_LOW] * dt, edge[FILM_HIGH] + edge[FEED_HIGH] * dt
        link(low, temp[0], inner_low, film_low, dt, edge[STORE_LOW], edge[SKIN_LOW], bottom)
        link(high, temp[n - 1], inner_high, film_high, dt, edge[STORE_HIGH], edge[SKIN_HIGH], top)
        ends[0], ends[1] = bottom[0] * area[0], bottom[1]
        ends[2], ends[3] = top[0] * area[n], top[1]
        kept_on, own = two_step(dt, dt_before)
        for i in range(n):
            gained[i] *= kept_on
        low_before, high_before = kept_on * into[0], kept_on * into[1]
        conduct(line, ends, own * dt, gained, into, steam, room)
        into[0] += low_before
        into[1] += high_before
        settle_skin(low, temp[0], inner_low, film_low, dt, bottom)
        settle_skin(high, temp[n - 1], inner_high, film_high, dt, top)
        release(cells, mesh, steam, dt, factors[1], out)
        tally[HEAT_IN] += into[0] + into[1]
        total_steam = 0.0
        for i in range(n):
            total_steam += steam[i]
            lethal[i] += lethality(temp[i], dt)
            peak[i] = max(peak[i], temp[i])
        tally[HEAT_OUT] += out[3] + LATENT_J_KG * total_steam
        tally[WATER_LOST] += out[0] + out[1]
        tally[FAT_LOST] += out[2]
        tally[BROWN_LOW] += 0.5 * (browned(edge[SKIN_LOW], dt) + browned(bottom[2], dt))
        tally[BROWN_HIGH] += 0.5 * (browned(edge[SKIN_HIGH], dt) + browned(top[2], dt)) * factors[3]
        edge[SKIN_LOW], edge[SKIN_HIGH] = bottom[2], top[2]
        if int(low[KIND]) == AIR_KIND:
            edge[FILM_LOW] = film_after(edge[FILM_LOW], edge[FEED_LOW], bottom[3], dt)
            edge[FEED_LOW] = factors[2] * out[0] / (max(area[0], 1e-12) * dt)
        else:
            edge[FILM_LOW], edge[FEED_LOW] = 0.0, 0.0
        if int(high[KIND]) == AIR_KIND:
            edge[FILM_HIGH] = film_after(edge[FILM_HIGH], edge[FEED_HIGH], top[3], dt)
            edge[FEED_HIGH] = factors[2] * out[0] / (area[n] * dt)
        else:
            edge[FILM_HIGH], edge[FEED_HIGH] = 0.0, 0.0
        if int(low[KIND]) == STORE_KIND:
            edge[STORE_LOW] = store_after(low, edge[STORE_LOW], into[0] / (area[0] * dt), dt)
        if int(high[KIND]) == STORE_KIND:
            boils = 0.0
            if int(low[KIND]) == SHUT_KIND:
                # Crumbs: their juice lies in the pan between them and takes its heat until it has boiled away.
                edge[POOL] += out[0] / area[n]
                boils = POOL_GAIN * high[H] * max(0.0, edge[STORE_HIGH] - BOILING_C)
                boils = min(boils, edge[POOL] * LATENT_J_KG / dt)
                edge[POOL] -= boils * dt / LATENT_J_KG
            edge[STORE_HIGH] = store_after(high, edge[STORE_HIGH], into[1] / (area[n] * dt) + boils, dt)
        since += dt
        turned += dt
        clock[0] += dt
        now = 0.0
        for i in range(n):
            now += core_weight[i] * temp[i]
        if end != END_TIME:
            coldest = 1000.0
            for i in range(n):
                if drips[i] > 0.0:
                    coldest = min(coldest, peak[i])
            if end == END_TWO_FIFTHS:
                now = cooked_frac(temp, width)
            elif end == END_COLDEST:
                now = coldest
            if is_met(end, now, end_value, coldest, coldest_c):
                reached = True
                ended = since - dt * overshot(before, now, end_value)
                break
        before = now
        dt_before = dt
        dt = min(step_after(since, dt_most, longest), dt * 1.25)
        if turn_every > 0.0 and turned >= turn_every - 1e-6 and since < seconds - 1e-6:
            turn_over(cells, edge)
            turned, dt_before = 0.0, 0.0
            dt = dt_most / 16.0
    if not (reached and end != END_TIME):
        ended = since
    return ended, reached, kept
