"""One line of cells through one step of time, in machine code: conduction, boiling by an active set, what leaves."""

from __future__ import annotations

import math

import numpy as np

from vianda.core.heat.conduction.jit import compiled
from vianda.core.heat.conduction.meat import FAT, WATER, Array
from vianda.core.heat.conduction.props import (
    BOILING_C,
    DRY,
    LATENT_J_KG,
    capacity_at,
    content_at,
    taken_along_j_kg,
    temperature_at,
)
from vianda.core.heat.conduction.state import Cells, Line, Mesh

# Meat lets go of water toward w₀ (1 − wl ÷ (1 + e^(−(T−62)/6))): share from a prototype, rate at a face ours, low.
# What a change sends through a piece fades like one over its time: an hour after, steps may grow with it. Cores of
# six hours stay within 0.2 °C of steps a quarter as long.
GROWS_AFTER_S, GROWS_PER, MOST_STEP_S = 3600.0, 400.0, 60.0
DRIP_PER_S, DRIP_SHARE, DRIP_MIDDLE_C, DRIP_WIDTH_K = 0.02, 0.35, 62.0, 6.0
# Fat that melts leaves toward this share of what there was: ours, low confidence.
FAT_PER_S, FAT_SHARE, FAT_MELTS_C = 0.02, 0.45, 45.0
# Rows of cells that a step works in, and three that are read afterwards.
ROOM = 12
NEW, OFF, WET = 0, 1, 2
# How often the set of boiling cells may be looked at again in one step.
MOST_LOOKS = 30


@compiled
def solve_held(
    diagonal: Array, off: Array, right: Array, latent: Array, wet: Array, was_held: Array, new: Array, work: Array
) -> None:
    """Temperatures of a line: wet cells that would pass 100 °C are held there.

    ``off`` (n − 1) couples neighbours, ``latent`` is what boiling a cell dry takes, W; a cell with too little water for
    what it is given boils dry, and what that takes is taken off its heat. ``work`` has shape (4, n).

    Parameters
    ----------
    diagonal : Array
        Diagonal of the system, W/K, shape ``(n,)``.
    off : Array
        Conductances between neighbours, W/K, shape ``(n − 1,)``.
    right : Array
        Right-hand side, W, shape ``(n,)``.
    latent : Array
        What boiling a cell dry takes, W, shape ``(n,)``.
    wet : Array
        1 where a cell can boil, else 0, shape ``(n,)``.
    was_held : Array
        1 where a cell was held at boiling, shape ``(n,)``.
    new : Array
        Temperatures at the end of the step, °C, shape ``(n,)``.
    work : Array
        Work space, shape ``(4, n)``.
    """
    n = len(diagonal)
    held, drying, c, d = work[0], work[1], work[2], work[3]
    for i in range(n):
        held[i] = was_held[i]
        drying[i] = 0.0
    for _ in range(MOST_LOOKS):
        for i in range(n):
            if held[i] > 0.0:
                c[i] = 0.0
                d[i] = BOILING_C
                continue
            below = off[i - 1] if i > 0 else 0.0
            above = off[i] if i < n - 1 else 0.0
            left_c = c[i - 1] if i > 0 else 0.0
            left_d = d[i - 1] if i > 0 else 0.0
            inverse = 1.0 / (diagonal[i] - below * left_c)
            c[i] = above * inverse
            d[i] = (right[i] - drying[i] * latent[i] + below * left_d) * inverse
        new[n - 1] = d[n - 1]
        for i in range(n - 2, -1, -1):
            new[i] = d[i] + c[i] * new[i + 1]
        changed = False
        for i in range(n):
            if held[i] > 0.0:
                surplus = right[i] - diagonal[i] * new[i]
                if i > 0:
                    surplus += off[i - 1] * new[i - 1]
                if i < n - 1:
                    surplus += off[i] * new[i + 1]
                if surplus < 0.0:
                    held[i] = 0.0
                    changed = True
                elif surplus > latent[i]:
                    held[i] = 0.0
                    drying[i] = 1.0
                    changed = True
            elif wet[i] > 0.0 and drying[i] == 0.0 and new[i] > BOILING_C + 1e-9:
                held[i] = 1.0
                changed = True
        if not changed:
            break


@compiled
def settle(
    temp: Array, water: Array, mass: Array, blended: Array, gained_j: Array, guess: Array, boils: Array, steam: Array
) -> None:
    """Temperatures and steam (kg) that hold exactly the heat each cell gained: nothing is lost on the way.

    ``temp`` is changed in place; ``water``, the share of it, not yet. ``blended`` is what ``blend`` makes of the cells.

    Parameters
    ----------
    temp : Array
        Temperatures of the cells, °C, shape ``(n,)``.
    water : Array
        Share of water, 0–1, shape ``(n,)``.
    mass : Array
        Masses of the cells, kg, shape ``(n,)``.
    blended : Array
        Heat content of each cell as ``blend`` makes it, shape ``(n, 5)``.
    gained_j : Array
        Gained, J.
    guess : Array
        First guess of the temperatures, °C, shape ``(n,)``.
    boils : Array
        1 where a cell can boil, shape ``(n,)``.
    steam : Array
        What boils off each cell, kg, filled in.
    """
    for i in range(len(temp)):
        a, b, c = blended[i, 0], blended[i, 1], blended[i, 2]
        freezes, fat = blended[i, 3], blended[i, 4]
        wanted = content_at(a, b, c, freezes, fat, temp[i]) + gained_j[i] / mass[i]
        steam[i] = 0.0
        if boils[i] > 0.0 and water[i] > DRY:
            over = (wanted - content_at(a, b, c, freezes, fat, BOILING_C)) * mass[i]
            if over > 0.0:
                steam[i] = min(over / LATENT_J_KG, mass[i] * water[i])
                wanted -= LATENT_J_KG * steam[i] / mass[i]
        temp[i] = temperature_at(a, b, c, freezes, fat, wanted, guess[i])


@compiled
def release(cells: Cells, mesh: Mesh, steam: Array, dt: float, drip_factor: float, out: Array) -> None:
    """Steam, drip and fat leave the cells, as readily as ``mesh.release`` says (0–1).

    ``out``: drip, steam and fat in kg, and the heat they take along in J.

    Parameters
    ----------
    cells : Cells
        The cells, changed in place.
    mesh : Mesh
        Geometry and first state of the cells.
    steam : Array
        What boils off each cell, kg, filled in.
    dt : float
        Length of the step, s, above 0.
    drip_factor : float
        Multiplies what drips, about 1.
    out : Array
        Filled in: drip, steam and fat in kg, and the heat they take along in J.
    """
    temp, shares, first, mass, drips = cells.temp, cells.shares, mesh.first, mesh.mass, mesh.release
    most_lost = min(0.95, drip_factor * DRIP_SHARE)
    for j in range(4):
        out[j] = 0.0
    for i in range(len(temp)):
        t = temp[i]
        if steam[i] > 0.0:
            shares[i, 0] = max(0.0, shares[i, 0] - steam[i] / mass[i])
            out[1] += steam[i]
            out[3] += steam[i] * taken_along_j_kg(WATER, t)
        if drips[i] > 0.0 and t > 30.0:
            free = most_lost / (1.0 + math.exp(-(t - DRIP_MIDDLE_C) / DRIP_WIDTH_K))
            loose = max(0.0, shares[i, 0] - first[i, 0] * (1.0 - free))
            drip = loose * (1.0 - 1.0 / (1.0 + DRIP_PER_S * drips[i] * dt))
            shares[i, 0] -= drip
            out[0] += drip * mass[i]
            out[3] += drip * mass[i] * taken_along_j_kg(WATER, t)
            if t > FAT_MELTS_C:
                melted = max(0.0, shares[i, 2] - first[i, 2] * (1.0 - FAT_SHARE))
                fat = melted * (1.0 - 1.0 / (1.0 + FAT_PER_S * drips[i] * dt))
                shares[i, 2] -= fat
                out[2] += fat * mass[i]
                out[3] += fat * mass[i] * taken_along_j_kg(FAT, t)


@compiled
def press_out(cells: Cells, mesh: Mesh, share: float, out: Array) -> None:
    """A late press drives out a share of the loose water and the melted fat of what is warm.

    ``out`` as in ``release``.

    Parameters
    ----------
    cells : Cells
        The cells, changed in place.
    mesh : Mesh
        Geometry and first state of the cells.
    share : float
        Share that is pressed out, 0–1.
    out : Array
        Filled in: drip, steam and fat in kg, and the heat they take along in J.
    """
    temp, shares, first, mass, drips = cells.temp, cells.shares, mesh.first, mesh.mass, mesh.release
    for j in range(4):
        out[j] = 0.0
    for i in range(len(temp)):
        if drips[i] == 0.0 or temp[i] < FAT_MELTS_C:
            continue
        water = share * max(0.0, shares[i, 0] - 0.5 * first[i, 0])
        fat = share * max(0.0, shares[i, 2] - 0.4 * first[i, 2])
        shares[i, 0] -= water
        shares[i, 2] -= fat
        out[0] += water * mass[i]
        out[2] += fat * mass[i]
        out[3] += mass[i] * (water * taken_along_j_kg(WATER, temp[i]) + fat * taken_along_j_kg(FAT, temp[i]))


@compiled
def capacities(temp: Array, blended: Array, mass: Array, ahead: Array, out: Array) -> None:
    """J/K of each cell on its way from ``temp`` to ``ahead``: the chord of its heat content.

    Parameters
    ----------
    temp : Array
        Temperatures of the cells, °C, shape ``(n,)``.
    blended : Array
        Heat content of each cell as ``blend`` makes it, shape ``(n, 5)``.
    mass : Array
        Masses of the cells, kg, shape ``(n,)``.
    ahead : Array
        Temperatures at the end of the step, °C, shape ``(n,)``.
    out : Array
        Filled in: drip, steam and fat in kg, and the heat they take along in J.
    """
    for i in range(len(temp)):
        a, b, c = blended[i, 0], blended[i, 1], blended[i, 2]
        freezes, fat = blended[i, 3], blended[i, 4]
        change = ahead[i] - temp[i]
        if math.fabs(change) > 0.05:
            chord = (content_at(a, b, c, freezes, fat, ahead[i]) - content_at(a, b, c, freezes, fat, temp[i])) / change
            out[i] = mass[i] * max(chord, 500.0)
        else:
            out[i] = mass[i] * capacity_at(a, b, c, freezes, fat, temp[i])


@compiled
def frozen(temp: Array) -> bool:
    """Whether any cell is near or below the freezing point.

    Parameters
    ----------
    temp : Array
        Temperatures of the cells, °C, shape ``(n,)``.

    Returns
    -------
    bool
        Whether any cell is near or below the freezing point.
    """
    return bool(np.min(temp) < 0.0)


@compiled
def step_after(since_s: float, usual_s: float, most_s: float) -> float:
    """The longest step so long after a change of what surrounds the piece, s: what still moves then moves slowly.

    Parameters
    ----------
    since_s : float
        Since the change, s, 0 or more.
    usual_s : float
        The step of the first hour, s, above 0.
    most_s : float
        A step that is never passed, s, above 0.

    Returns
    -------
    float
        The longest step, s.

    Examples
    --------
    >>> step_after(3500.0, 2.0, 60.0), step_after(7600.0, 2.0, 60.0), step_after(86400.0, 2.0, 60.0)
    (2.0, 10.0, 60.0)
    """
    return max(usual_s, min(most_s, (since_s - GROWS_AFTER_S) / GROWS_PER))


@compiled
def two_step(dt: float, dt_before: float) -> tuple[float, float]:
    """Second order from two steps of unlike length (BDF2): what of the step before counts on, and of this one.

    No step before (0) gives backward Euler, which every change of boundary condition begins with.

    Parameters
    ----------
    dt : float
        Length of the step, s, above 0.
    dt_before : float
        Length of the step before, s; 0 for none.

    Returns
    -------
    tuple[float, float]
        Second order from two steps of unlike length (BDF2).
    """
    if dt_before <= 0.0:
        return 0.0, 1.0
    ratio = dt / dt_before
    return ratio * ratio / (1.0 + 2.0 * ratio), (1.0 + ratio) / (1.0 + 2.0 * ratio)


@compiled
def solve_line(line: Line, ends: Array, step: float, gained: Array, room: Array) -> None:
    """Temperatures of a line of cells after ``step`` s, implicit along itself; nothing is moved yet.

    ``ends`` are g and e of the two ends (heat into an end cell is g (e − T)), ``gained`` what each cell takes in
    besides, J.
    ``room`` has ``ROOM`` rows of n: afterwards ``NEW``, ``OFF`` and ``WET`` hold the temperatures, W/K between
    neighbours and which cells can boil.

    Parameters
    ----------
    line : Line
        A row of cells for one step.
    ends : Array
        g and e of the two ends: W/K and °C.
    step : float
        Length of the step, s, above 0.
    gained : Array
        What each cell takes in besides, J, changed in place.
    room : Array
        Work space, shape ``(ROOM, n)``.
    """
    temp, water, mass, k, width, across = line.temp, line.water, line.mass, line.k, line.width, line.across
    n = len(temp)
    new, off, wet = room[NEW], room[OFF], room[WET]
    heat, latent, was_held, diagonal, right = room[3], room[4], room[5], room[6], room[7]
    for i in range(n):
        new[i] = temp[i]
        latent[i] = LATENT_J_KG * mass[i] * water[i] / step
        wet[i] = 1.0 if water[i] > DRY else 0.0
        was_held[i] = 1.0 if wet[i] > 0.0 and temp[i] >= BOILING_C - 1e-6 else 0.0
    for i in range(n - 1):
        off[i] = across[i] / (width[i] / (2.0 * k[i]) + width[i + 1] / (2.0 * k[i + 1]))
    # Where something freezes or thaws, heat capacity is looked for along the step.
    passes = 6 if frozen(temp) else 1
    for _ in range(passes):
        capacities(temp, line.blended, mass, new, heat)
        for i in range(n):
            diagonal[i] = heat[i] / step
            right[i] = heat[i] / step * temp[i] + gained[i] / step
            if i > 0:
                diagonal[i] += off[i - 1]
            if i < n - 1:
                diagonal[i] += off[i]
        diagonal[0] += ends[0]
        right[0] += ends[0] * ends[1]
        diagonal[n - 1] += ends[2]
        right[n - 1] += ends[2] * ends[3]
        solve_held(diagonal, off, right, latent, wet, was_held, new, room[8:12])


@compiled
def carry(new: Array, off: Array, ends: Array, step: float, gained: Array, into: Array) -> None:
    """What flows along a line in ``step`` s at temperatures ``new``: added to what each cell gained, J.

    ``into`` becomes what came in through either end, J.

    Parameters
    ----------
    new : Array
        Temperatures at the end of the step, °C, shape ``(n,)``.
    off : Array
        Conductances between neighbours, W/K, shape ``(n − 1,)``.
    ends : Array
        g and e of the two ends: W/K and °C.
    step : float
        Length of the step, s, above 0.
    gained : Array
        What each cell takes in besides, J, changed in place.
    into : Array
        Filled in: what came in through either end, J.
    """
    n = len(new)
    for i in range(n - 1):
        through = off[i] * (new[i] - new[i + 1]) * step
        gained[i] -= through
        gained[i + 1] += through
    into[0] = ends[0] * (ends[1] - new[0]) * step
    into[1] = ends[2] * (ends[3] - new[n - 1]) * step
    gained[0] += into[0]
    gained[n - 1] += into[1]


@compiled
def conduct(line: Line, ends: Array, step: float, gained: Array, into: Array, steam: Array, room: Array) -> None:
    """A line of cells through ``step`` s, in place; heat is kept exactly. Arguments as in ``solve_line``.

    ``gained`` is what each cell takes in besides, J, and then all it took in; ``steam`` what boils off, kg, still in
    ``water``.

    Parameters
    ----------
    line : Line
        A row of cells for one step.
    ends : Array
        g and e of the two ends: W/K and °C.
    step : float
        Length of the step, s, above 0.
    gained : Array
        What each cell takes in besides, J, changed in place.
    into : Array
        Filled in: what came in through either end, J.
    steam : Array
        What boils off each cell, kg, filled in.
    room : Array
        Work space, shape ``(ROOM, n)``.
    """
    solve_line(line, ends, step, gained, room)
    carry(room[NEW], room[OFF], ends, step, gained, into)
    settle(line.temp, line.water, line.mass, line.blended, gained, room[NEW], room[WET], steam)
