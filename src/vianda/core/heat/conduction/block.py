"""One stage of a loaf in section, in machine code: half of it, from its middle plane to a side, from below to above.

A step looks along rows first, with what climbed the columns in the step before, and takes from that only what flows
along rows; then it takes the columns through the step with it. Both are implicit, second order, and what boils is
settled once, at the end: so rims stay calm at 100 °C and heat is kept exactly.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from vianda.core.heat.conduction.jit import compiled
from vianda.core.heat.conduction.line import (
    MOST_STEP_S,
    NEW,
    OFF,
    ROOM,
    carry,
    conduct,
    release,
    solve_line,
    step_after,
    two_step,
)
from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.props import BLENDED, LATENT_J_KG, blend, conductivity_of
from vianda.core.heat.conduction.skin import AIR_KIND, KIND, link, settle_skin
from vianda.core.heat.conduction.slab import (
    BROWN_HIGH,
    BROWN_LOW,
    END_COLDEST,
    END_TIME,
    EVERY,
    FAT_LOST,
    HEAT_IN,
    HEAT_OUT,
    WATER_LOST,
    browned,
    film_after,
    is_met,
    lethality,
    overshot,
    thin_out,
)
from vianda.core.heat.conduction.state import Cells, Line, Mesh, Record, Until

# The faces in their order: below, above, the side. A row of ``rims`` each: film, what feeds it, skin.
BELOW, ABOVE, SIDE = range(3)
# Columns of what a link answers.
G, E, SKIN, DRIES = range(4)


@compiled
def _link_rim(face: Array, rim: Array, cells: Array, k: Array, depth: float, dt: float, answers: Array) -> None:
    """The links of all cells along one face."""
    for c in range(len(cells)):
        film = rim[0, c] + rim[1, c] * dt
        link(face, cells[c], 2.0 * k[c] / depth, film, dt, 0.0, rim[2, c], answers[c])


@compiled
def _settle_rim(
    face: Array, rim: Array, cells: Array, k: Array, depth: float, dt: float, fed: float, answers: Array
) -> None:
    """Skins, films and what feeds them at the end of a step; only a face to air has a film."""
    for c in range(len(cells)):
        film = rim[0, c] + rim[1, c] * dt
        settle_skin(face, cells[c], 2.0 * k[c] / depth, film, dt, answers[c])
        rim[2, c] = answers[c, SKIN]
        if int(face[KIND]) == AIR_KIND:
            rim[0, c] = film_after(rim[0, c], rim[1, c], answers[c, DRIES], dt)
            rim[1, c] = fed
        else:
            rim[0, c], rim[1, c] = 0.0, 0.0


class Section(NamedTuple):
    """A section for one step: ``climbs`` W up or down a column at its end, ``gained`` J each cell took in, ``steam``
    kg that boils off."""

    temp: Array
    water: Array
    mass: Array
    k: Array
    width: Array
    height: Array
    blended: Array
    climbs: Array
    gained: Array
    steam: Array


@compiled
def _along_rows(section: Section, side: Array, step: float) -> float:
    """Add to what each cell gains (J) what flows along its row, seen with what climbs; what comes in by the side, J."""
    temp, mass, k, width, height = section.temp, section.mass, section.k, section.width, section.height
    climbs, gained = section.climbs, section.gained
    rows, columns = temp.shape
    besides, across, room = np.empty(columns), np.empty(columns - 1), np.empty((ROOM, columns))
    ends, into, came_in = np.zeros(4), np.zeros(2), 0.0
    for j in range(rows):
        ends[2], ends[3] = side[j, G] * height[j], side[j, E]
        across[:] = height[j]
        for i in range(columns):
            besides[i] = gained[j, i] + step * climbs[j, i]
        line = Line(temp[j], section.water[j], mass[j], k[j], width, across, section.blended[j])
        solve_line(line, ends, step, besides, room)
        carry(room[NEW], room[OFF], ends, step, gained[j], into)
        came_in += into[1]
    return came_in


@compiled
def _along_columns(section: Section, below: Array, above: Array, step: float) -> float:
    """The columns through a step with what each cell gained so far; what comes in from below and above, J.

    ``temp``, ``gained`` and ``climbs`` (W) become those of the end; ``steam`` is what boils off, kg.
    """
    temp, water, mass, k = section.temp, section.water, section.mass, section.k
    width, height, blended = section.width, section.height, section.blended
    climbs, gained, steam = section.climbs, section.gained, section.steam
    rows, columns = temp.shape
    across, room, ends, into, came_in = np.empty(rows - 1), np.empty((ROOM, rows)), np.zeros(4), np.zeros(2), 0.0
    # A column lies apart in memory: it is copied out and back.
    cells, wet, weights, carries = np.empty(rows), np.empty(rows), np.empty(rows), np.empty(rows)
    takes, boiled, mixed = np.empty(rows), np.empty(rows), np.empty((rows, BLENDED))
    for i in range(columns):
        ends[0], ends[1] = below[i, G] * width[i], below[i, E]
        ends[2], ends[3] = above[i, G] * width[i], above[i, E]
        across[:] = width[i]
        for j in range(rows):
            cells[j], takes[j], wet[j] = temp[j, i], gained[j, i], water[j, i]
            weights[j], carries[j] = mass[j, i], k[j, i]
            for c in range(BLENDED):
                mixed[j, c] = blended[j, i, c]
        line = Line(cells, wet, weights, carries, height, across, mixed)
        conduct(line, ends, step, takes, into, boiled, room)
        came_in += into[0] + into[1]
        for j in range(rows):
            climbs[j, i] = (takes[j] - gained[j, i]) / step
            temp[j, i], gained[j, i], steam[j, i] = cells[j], takes[j], boiled[j]
    return came_in


@compiled
def simulate_section(
    cells: Cells,
    rims: Array,
    mesh: Mesh,
    factors: Array,
    faces: Array,
    dt_most: float,
    until: Until,
    record: Record,
    kept: int,
) -> tuple[float, bool, int]:
    """One stage of half a section, in place: seconds it took, whether it got there, samples kept.

    Arrays by cell have shape (rows from below, columns from the middle). ``rims`` has a row for each of ``faces``:
    below, above, the side. ``record.more``: skin below and above, the side's skin half way up, –, water and fat lost,
    browning below and above, –.

    Parameters
    ----------
    cells : Cells
        The cells, changed in place.
    rims : Array
        Film, feed and skin along each face.
    mesh : Mesh
        Geometry and first state of the cells.
    factors : Array
        On conductivity, drip, the share of drip on a skin, browning; each about 1.
    faces : Array
        The faces, one a row.
    dt_most : float
        Longest step, s.
    until : Until
        What ends the stage.
    record : Record
        Samples on the way.
    kept : int
        Samples kept so far (count).

    Returns
    -------
    tuple[float, bool, int]
        One stage of half a section, in place.
    """
    temp, shares, tally, lethal, peak = cells.temp, cells.shares, cells.tally, cells.lethal, cells.peak
    width, height, mass, first, drips = mesh.width, mesh.height, mesh.mass, mesh.first, mesh.release
    clock, kept_t, kept_temp, kept_more = record.clock, record.time_s, record.temp, record.more
    end, end_value, coldest_c, seconds = until.end, until.value, until.coldest_c, until.seconds
    rows, columns = temp.shape
    k = np.empty((rows, columns))
    steam, out = np.zeros((rows, columns)), np.empty(4)
    # Each cell by itself, for what does not ask where it lies.
    flat, flat_shares, flat_k, flat_steam = temp.reshape(-1), shares.reshape(-1, 5), k.reshape(-1), steam.reshape(-1)
    flat_cells = Cells(flat, flat_shares, tally, lethal.reshape(-1), peak.reshape(-1))
    weights = mesh.core_weight.reshape(-1)
    flat_first, flat_mass, flat_drips = first.reshape(-1, 5), mass.reshape(-1), drips.reshape(-1)
    flat_mesh = Mesh(width, height, mesh.area, flat_mass, flat_first, flat_drips, weights)
    water, blended = np.empty((rows, columns)), np.empty((rows, columns, BLENDED))
    flat_water, flat_blended = water.reshape(-1), blended.reshape(-1, BLENDED)
    # J each cell took in the step before, and W up or down its column at its end.
    gained, climbs = np.zeros((rows, columns)), np.zeros((rows, columns))
    came_in = 0.0
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
    since, dt, dt_before = 0.0, dt_most / 32.0, 0.0
    most = len(kept_t)
    middle, top, last = rows // 2, rows - 1, columns - 1
    reached = end == END_TIME
    ended = 0.0
    before = 0.5 * (temp[middle - 1, 0] + temp[middle, 0])
    section = Section(temp, water, mass, k, width, height, blended, climbs, gained, steam)
    while since < seconds - 1e-9:
        if clock[0] >= clock[1] - 1e-9:
            if kept == most:
                kept = thin_out(record)
            kept_t[kept] = clock[0]
            kept_temp[kept] = temp
            kept_more[kept, 0], kept_more[kept, 1] = rims[BELOW, 2, 0], rims[ABOVE, 2, 0]
            kept_more[kept, 2] = rims[SIDE, 2, middle]
            kept_more[kept, 4], kept_more[kept, 5] = tally[WATER_LOST], tally[FAT_LOST]
            kept_more[kept, 6], kept_more[kept, 7] = tally[BROWN_LOW], tally[BROWN_HIGH]
            kept += 1
            clock[1] = clock[0] + clock[EVERY]
        dt = min(dt, seconds - since)
        for i in range(len(flat)):
            flat_k[i] = factors[0] * conductivity_of(flat_shares[i], flat[i])
            blend(flat_shares[i], flat_blended[i])
            flat_water[i] = flat_shares[i, 0]
        kept_on, own = two_step(dt, dt_before)
        step = own * dt
        _link_rim(faces[SIDE], rims[SIDE], temp[:, last], k[:, last], width[last], dt, side)
        _link_rim(faces[BELOW], rims[BELOW], temp[0], k[0], height[0], dt, below)
        _link_rim(faces[ABOVE], rims[ABOVE], temp[top], k[top], height[top], dt, above)
        gained *= kept_on
        came_in *= kept_on
        came_in += _along_rows(section, side, step)
        came_in += _along_columns(section, below, above, step)
        tally[HEAT_IN] += came_in
        release(flat_cells, flat_mesh, flat_steam, dt, factors[1], out)
        tally[WATER_LOST] += out[0] + out[1]
        tally[FAT_LOST] += out[2]
        tally[HEAT_OUT] += out[3] + LATENT_J_KG * out[1]
        for j in range(rows):
            for i in range(columns):
                lethal[j, i] += lethality(temp[j, i], dt)
                peak[j, i] = max(peak[j, i], temp[j, i])
        fed = factors[2] * out[0] / (max(air_area, 1e-12) * dt)
        low, high = rims[BELOW, 2, 0], rims[ABOVE, 2, 0]
        _settle_rim(faces[BELOW], rims[BELOW], temp[0], k[0], height[0], dt, fed, below)
        _settle_rim(faces[ABOVE], rims[ABOVE], temp[top], k[top], height[top], dt, fed, above)
        _settle_rim(faces[SIDE], rims[SIDE], temp[:, last], k[:, last], width[last], dt, fed, side)
        tally[BROWN_LOW] += 0.5 * (browned(low, dt) + browned(below[0, SKIN], dt))
        tally[BROWN_HIGH] += 0.5 * (browned(high, dt) + browned(above[0, SKIN], dt)) * factors[3]
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
        dt_before = dt
        dt = min(step_after(since, dt_most, MOST_STEP_S), dt * 1.3)
    if not (reached and end != END_TIME):
        ended = since
    return ended, reached, kept
