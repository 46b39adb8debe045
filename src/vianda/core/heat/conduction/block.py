"""One stage of a loaf in section, in machine code: half of it, from its middle plane to a side, from below to above.

Each step is two, along rows and along columns, each implicit and each keeping heat exactly; their order alternates.
"""

from __future__ import annotations

import numpy as np

from vianda.core.heat.conduction.jit import compiled
from vianda.core.heat.conduction.line import conduct, let_go
from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.props import LATENT_J_KG, conductivity_of, heat_content
from vianda.core.heat.conduction.skin import AIR_KIND, KIND, link
from vianda.core.heat.conduction.slab import (
    BROWN_HIGH,
    BROWN_LOW,
    D60_S,
    END_COLDEST,
    END_TIME,
    FAT_LOST,
    HEAT_IN,
    HEAT_OUT,
    WATER_LOST,
    Z_K,
    browned,
    film_after,
    is_met,
    overshot,
)

# The faces in their order: below, above, the side. A row of ``rims`` each: film, what feeds it, skin.
BELOW, ABOVE, SIDE = range(3)


@compiled
def _sweep(
    temp: Array, shares: Array, mass: Array, k: Array, width: Array, across: float, ends: Array, dt: float,
    steam: Array, tally: Array,
) -> None:  # fmt: skip
    """One row or column through a step, and its steam out of it. ``across`` is the breadth of the row."""
    into = np.empty(2)
    conduct(temp, shares, mass, k, width, np.full(len(temp) - 1, across), ends, dt, steam, into)
    tally[HEAT_IN] += into[0] + into[1]
    for i in range(len(temp)):
        before = heat_content(shares[i], temp[i])
        shares[i, 0] = max(0.0, shares[i, 0] - steam[i] / mass[i])
        tally[WATER_LOST] += steam[i]
        tally[HEAT_OUT] += steam[i] * LATENT_J_KG + mass[i] * (before - heat_content(shares[i], temp[i]))


@compiled
def march_block(
    temp: Array, shares: Array, rims: Array, tally: Array, lethal: Array, peak: Array, width: Array, height: Array,
    mass: Array, first: Array, drips: Array, factors: Array, faces: Array, dt_most: float, seconds: float, end: int,
    end_value: float, coldest_c: float, clock: Array, keep_every: float, kept_t: Array, kept_temp: Array,
    kept_more: Array, kept: int,
) -> tuple[float, bool, int]:  # fmt: skip
    """March half a section in place until the stage ends: seconds it took, whether it got there, samples kept.

    Arrays by cell have shape (rows from below, columns from the middle). ``kept_more``: skin below and above, the
    side's skin half way up, –, water and fat lost, browning below and above, –.
    """
    rows, columns = temp.shape
    k = np.empty((rows, columns))
    steam_row, steam_column = np.empty(columns), np.empty(rows)
    none, out = np.zeros(rows), np.empty(4)
    answer, ends = np.empty(4), np.empty(4)
    below, above, side = np.empty((columns, 4)), np.empty((columns, 4)), np.empty((rows, 4))
    air_area = 0.0
    perimeter = np.zeros(3)
    for i in range(columns):
        perimeter[BELOW] += width[i]
        perimeter[ABOVE] += width[i]
    for j in range(rows):
        perimeter[SIDE] += height[j]
    for f in range(3):
        if int(faces[f, KIND]) == AIR_KIND:
            air_area += perimeter[f]
    since, dt, turn = 0.0, dt_most / 32.0, 0
    most = len(kept_t)
    middle = rows // 2
    reached = end == END_TIME
    ended = 0.0
    before = 0.5 * (temp[middle - 1, 0] + temp[middle, 0])
    while since < seconds - 1e-9:
        if clock[0] >= clock[1] - 1e-9 and kept < most:
            kept_t[kept] = clock[0]
            kept_temp[kept] = temp
            kept_more[kept, 0], kept_more[kept, 1] = rims[BELOW, 2, 0], rims[ABOVE, 2, 0]
            kept_more[kept, 2] = rims[SIDE, 2, middle]
            kept_more[kept, 4], kept_more[kept, 5] = tally[WATER_LOST], tally[FAT_LOST]
            kept_more[kept, 6], kept_more[kept, 7] = tally[BROWN_LOW], tally[BROWN_HIGH]
            kept += 1
            clock[1] = clock[0] + keep_every
        dt = min(dt, seconds - since)
        dripped = 0.0
        for half in range(2):
            along = (half + turn) % 2 == 0
            for j in range(rows):
                for i in range(columns):
                    k[j, i] = factors[0] * conductivity_of(shares[j, i], temp[j, i])
            if along:
                for j in range(rows):
                    last = columns - 1
                    film = rims[SIDE, 0, j] + rims[SIDE, 1, j] * dt
                    link(faces[SIDE], temp[j, last], 2.0 * k[j, last] / width[last], film, dt, 0.0,
                         rims[SIDE, 2, j], answer)  # fmt: skip
                    for c in range(4):
                        side[j, c] = answer[c]
                    ends[0], ends[1] = 0.0, 0.0
                    ends[2], ends[3] = answer[0] * height[j], answer[1]
                    _sweep(temp[j], shares[j], mass[j], k[j], width, height[j], ends, dt, steam_row, tally)
            else:
                for i in range(columns):
                    film = rims[BELOW, 0, i] + rims[BELOW, 1, i] * dt
                    link(faces[BELOW], temp[0, i], 2.0 * k[0, i] / height[0], film, dt, 0.0, rims[BELOW, 2, i], answer)
                    for c in range(4):
                        below[i, c] = answer[c]
                    ends[0], ends[1] = answer[0] * width[i], answer[1]
                    film = rims[ABOVE, 0, i] + rims[ABOVE, 1, i] * dt
                    link(faces[ABOVE], temp[rows - 1, i], 2.0 * k[rows - 1, i] / height[rows - 1], film, dt, 0.0,
                         rims[ABOVE, 2, i], answer)  # fmt: skip
                    for c in range(4):
                        above[i, c] = answer[c]
                    ends[2], ends[3] = answer[0] * width[i], answer[1]
                    column = temp[:, i].copy()
                    theirs = shares[:, i].copy()
                    weights, carries = mass[:, i].copy(), k[:, i].copy()
                    _sweep(column, theirs, weights, carries, height, width[i], ends, dt, steam_column, tally)
                    for j in range(rows):
                        temp[j, i] = column[j]
                        shares[j, i, 0] = theirs[j, 0]
        turn = 1 - turn
        for i in range(columns):
            column = temp[:, i].copy()
            theirs = shares[:, i].copy()
            let_go(column, theirs, first[:, i].copy(), mass[:, i].copy(), drips[:, i].copy(), none, dt, factors[1], out)
            for j in range(rows):
                shares[j, i, 0], shares[j, i, 2] = theirs[j, 0], theirs[j, 2]
                lethal[j, i] += dt / D60_S * 10.0 ** ((min(temp[j, i], 110.0) - 60.0) / Z_K)
                peak[j, i] = max(peak[j, i], temp[j, i])
            dripped += out[0]
            tally[WATER_LOST] += out[0]
            tally[FAT_LOST] += out[2]
            tally[HEAT_OUT] += out[3]
        fed = factors[2] * dripped / (max(air_area, 1e-12) * dt)
        for i in range(columns):
            rims[BELOW, 2, i], rims[ABOVE, 2, i] = below[i, 2], above[i, 2]
            rims[BELOW, 0, i], rims[BELOW, 1, i] = _rim(faces[BELOW], rims[BELOW, 0, i], rims[BELOW, 1, i],
                                                        below[i, 3], dt, fed)  # fmt: skip
            rims[ABOVE, 0, i], rims[ABOVE, 1, i] = _rim(faces[ABOVE], rims[ABOVE, 0, i], rims[ABOVE, 1, i],
                                                        above[i, 3], dt, fed)  # fmt: skip
        for j in range(rows):
            rims[SIDE, 2, j] = side[j, 2]
            rims[SIDE, 0, j], rims[SIDE, 1, j] = _rim(faces[SIDE], rims[SIDE, 0, j], rims[SIDE, 1, j], side[j, 3],
                                                      dt, fed)  # fmt: skip
        tally[BROWN_LOW] += browned(rims[BELOW, 2, 0], dt)
        tally[BROWN_HIGH] += browned(rims[ABOVE, 2, 0], dt) * factors[3]
        since += dt
        clock[0] += dt
        if end != END_TIME:
            now = 0.5 * (temp[middle - 1, 0] + temp[middle, 0])
            coldest = 1000.0
            for j in range(rows):
                for i in range(columns):
                    if drips[j, i] > 0.0:
                        coldest = min(coldest, peak[j, i])
            if end == END_COLDEST:
                now = coldest
            if is_met(end, now, end_value, coldest, coldest_c):
                reached = True
                ended = since - dt * overshot(before, now, end_value)
                break
            before = now
        dt = min(dt_most, dt * 1.3)
    if not (reached and end != END_TIME):
        ended = since
    return ended, reached, kept


@compiled
def _rim(face: Array, film: float, feed: float, dries: float, dt: float, fed: float) -> tuple[float, float]:
    """Film and what feeds it after a step; only a face to air has one."""
    if int(face[KIND]) != AIR_KIND:
        return 0.0, 0.0
    return film_after(film, feed, dries, dt), fed
