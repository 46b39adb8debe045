"""March several like pieces through time at once: backward Euler, boiling by an active set, drip, fat and the plate.

All runs stand in one tridiagonal system with nothing between them, so that a band of doubt costs little more than one
run.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vianda.core.heat.conduction.faces import LATENT_J_KG, Link, air_link, firm_link
from vianda.core.heat.conduction.meat import FAT, WATER, Array, Meat, capacity, conductivity, enthalpies
from vianda.core.heat.conduction.mesh import Mesh

BOILING_C = 100.0
# Meat lets go of water toward w₀ (1 − wl ÷ (1 + e^(−(T−62)/6))): rate and share from a prototype, uncalibrated, low.
DRIP_PER_S, DRIP_SHARE, DRIP_MIDDLE_C, DRIP_WIDTH_K = 0.012, 0.35, 62.0, 6.0
# Fat that melts leaves toward this share of what there was: ours, low confidence.
FAT_PER_S, FAT_SHARE, FAT_MELTS_C = 0.004, 0.45, 45.0
# A cell with less water than this, by its first mass, is dry.
DRY = 1e-6
# More than this runs off: kg/m², ours.
MOST_FILM = 1.5
# A plate of 8 mm steel: 7850 kg/m³ × 490 J/(kg K) × 8 mm; a burner of 20 kW/m² that regulates over 20 K. Ours, low.
PLATE_STORE = 7850.0 * 490.0 * 0.008
PLATE_POWER, PLATE_GAIN = 20_000.0, 1000.0
# How often the set of boiling cells may be looked at again in one step.
MOST_LOOKS = 12


@dataclass
class State:
    """Where the runs stand: temperatures and what is left of each component, shape (runs, cells); films in kg/m²."""

    temp_c: Array
    shares: Array
    film_low: Array
    film_high: Array
    # What the drip of the step before brings to each skin, kg/(m² s): a thin film dries as fast as it is fed.
    feed_low: Array
    feed_high: Array
    skin_low_c: Array
    skin_high_c: Array
    plate_c: Array
    # J and kg for each run (of a slab: a square metre): what came in, and what left with steam, drip and fat.
    heat_in_j: Array
    heat_out_j: Array
    lost_kg: Array
    fat_lost_kg: Array

    def copy(self) -> State:
        """The same, on its own."""
        return State(**{name: getattr(self, name).copy() for name in self.__dataclass_fields__})

    def pick(self, rows: Array) -> State:
        """Some of the runs."""
        return State(
            temp_c=self.temp_c[rows], shares=self.shares[:, rows], film_low=self.film_low[rows],
            film_high=self.film_high[rows], feed_low=self.feed_low[rows], feed_high=self.feed_high[rows],
            skin_low_c=self.skin_low_c[rows], skin_high_c=self.skin_high_c[rows], plate_c=self.plate_c[rows],
            heat_in_j=self.heat_in_j[rows], heat_out_j=self.heat_out_j[rows], lost_kg=self.lost_kg[rows],
            fat_lost_kg=self.fat_lost_kg[rows],
        )  # fmt: skip


@dataclass(frozen=True, slots=True)
class Sides:
    """The surroundings of one face for every run: all arrays of shape (runs,). ``kind`` 0 shut, 1 firm, 2 air."""

    kind: Array
    temp_c: Array
    h: Array
    emissivity: Array
    vapour_pa: Array
    on_plate: Array


class Ensemble:
    """Runs of one geometry, each with its own mesh, and multipliers on what is not well known."""

    def __init__(self, meshes: list[Mesh], meat: list[Meat], *, k_factor: Array, feed: float = 0.3) -> None:
        self.width = np.stack([m.width for m in meshes])
        self.volume = np.stack([m.volume for m in meshes])
        self.area = np.stack([m.area for m in meshes])
        self.density = np.array([m.density_kg_m3 for m in meat])[:, None]
        self.first = np.stack([np.array(m.shares) for m in meat], axis=1)[:, :, None]
        self.k_factor = k_factor[:, None]
        self.feed = feed
        self.runs, self.cells = self.width.shape
        self.mass = self.density * self.volume

    def pick(self, rows: Array) -> Ensemble:
        """The same for some of the runs; a run may be taken more than once."""
        other = object.__new__(Ensemble)
        other.width, other.volume, other.area = self.width[rows], self.volume[rows], self.area[rows]
        other.density, other.first, other.k_factor = self.density[rows], self.first[:, rows], self.k_factor[rows]
        other.feed, other.mass = self.feed, self.mass[rows]
        other.runs, other.cells = other.width.shape
        return other

    def cold(self, temp_c: Array, *, plate_c: Array, film_kg_m2: float = 1.0) -> State:
        """All cells at a temperature, a wet skin, and the plate as it was measured."""
        shape = (self.runs, self.cells)
        none = np.zeros(self.runs)
        return State(
            temp_c=np.broadcast_to(temp_c[:, None], shape).copy(),
            shares=np.broadcast_to(self.first, (5, *shape)).copy(),
            feed_low=none.copy(), feed_high=none.copy(),
            film_low=np.full(self.runs, film_kg_m2), film_high=np.full(self.runs, film_kg_m2),
            skin_low_c=temp_c.astype(float).copy(), skin_high_c=temp_c.astype(float).copy(),
            plate_c=plate_c.astype(float).copy(), heat_in_j=none.copy(), heat_out_j=none.copy(),
            lost_kg=none.copy(), fat_lost_kg=none.copy(),
        )  # fmt: skip

    def stored_j(self, state: State) -> Array:
        """Heat above 0 °C in each run."""
        return np.asarray(np.sum(self.mass * np.sum(state.shares * enthalpies(state.temp_c), axis=0), axis=1))

    def step(self, state: State, dt: float, low: Sides, high: Sides) -> None:
        """March all runs by ``dt`` seconds, in place."""
        k = self.k_factor * conductivity(state.shares, state.temp_c)
        heat = self.mass * capacity(state.shares, state.temp_c)
        half = self.width / (2.0 * k)
        between = self.area[:, 1:-1] / (half[:, :-1] + half[:, 1:])
        bottom = self._link(
            state.temp_c[:, 0], 1.0 / half[:, 0], low, state.film_low + state.feed_low * dt, dt, state.plate_c,
            state.skin_low_c,
        )  # fmt: skip
        top = self._link(
            state.temp_c[:, -1], 1.0 / half[:, -1], high, state.film_high + state.feed_high * dt, dt, state.plate_c,
            state.skin_high_c,
        )  # fmt: skip
        state.skin_low_c, state.skin_high_c = bottom.surface_c, top.surface_c
        g_low, g_high = bottom.g * self.area[:, 0], top.g * self.area[:, -1]
        low_into, high_into = (g_low, bottom.e), (g_high, top.e)
        linear = self._solve(state, heat / dt, between, low_into, high_into, dt)
        gained, into_low, into_high = self._gained(linear, between, low_into, high_into)
        state.heat_in_j += dt * (into_low + into_high)
        new, steam = self._settle(state, gained * dt, linear)
        state.heat_out_j += LATENT_J_KG * np.sum(steam, axis=1)
        state.temp_c = new
        drip = self._let_go(state, steam, dt)
        self._wet(state, drip, dt, bottom, top, low, high)
        self._heat_plate(state, into_low, dt, low)

    def _link(
        self, cell_c: Array, inner: Array, side: Sides, film: Array, dt: float, plate_c: Array, guess_c: Array
    ) -> Link:  # fmt: skip
        outside = np.where(side.on_plate, plate_c, side.temp_c)
        firm = firm_link(cell_c, inner=inner, outside_c=outside, h=np.where(side.kind == 1, side.h, 0.0))
        if not np.any(side.kind == 2):
            return firm
        air = air_link(
            cell_c, inner=inner, air_c=side.temp_c, h=side.h, emissivity=side.emissivity, vapour_pa=side.vapour_pa,
            film=film, most=film / dt, guess_c=guess_c,
        )  # fmt: skip
        is_air = side.kind == 2
        return Link(
            np.where(is_air, air.g, firm.g), np.where(is_air, air.e, firm.e),
            np.where(is_air, air.surface_c, firm.surface_c), np.where(is_air, air.drying, 0.0),
        )  # fmt: skip

    def _solve(
        self, state: State, heat_dt: Array, between: Array, low: tuple[Array, Array], high: tuple[Array, Array],
        dt: float,
    ) -> Array:  # fmt: skip
        """New temperatures at the heat capacity of the old ones.

        Wet cells that would be hotter are held at 100 °C; those with too little water for that boil dry, and what it
        takes is taken off their heat.
        """
        from scipy.linalg.lapack import dgtsv

        old = state.temp_c
        diagonal = heat_dt.copy()
        diagonal[:, :-1] += between
        diagonal[:, 1:] += between
        diagonal[:, 0] += low[0]
        diagonal[:, -1] += high[0]
        right = heat_dt * old
        right[:, 0] += low[0] * low[1]
        right[:, -1] += high[0] * high[1]
        wet = state.shares[WATER] > DRY
        held = wet & (old >= BOILING_C - 1e-6)
        drying = np.zeros_like(held)
        latent = LATENT_J_KG * self.mass * state.shares[WATER] / dt
        # Nothing joins the last cell of one run to the first of the next.
        off = np.zeros((self.runs, self.cells))
        off[:, :-1] = -between
        lower = np.zeros_like(off)
        for _ in range(MOST_LOOKS):
            lower[:, :-1] = np.where(held[:, 1:], 0.0, off[:, :-1])
            new = dgtsv(
                lower.ravel()[:-1], np.where(held, 1.0, diagonal).ravel(), np.where(held, 0.0, off).ravel()[:-1],
                np.where(held, BOILING_C, right - drying * latent).ravel(),
            )[3].reshape(old.shape)  # fmt: skip
            boils = ~held & ~drying & wet & (new > BOILING_C + 1e-9)
            surplus = right - diagonal * new
            surplus[:, :-1] -= off[:, :-1] * new[:, 1:]
            surplus[:, 1:] -= off[:, :-1] * new[:, :-1]
            cools = held & (surplus < 0)
            dries = held & (surplus > latent)
            if not (boils.any() or cools.any() or dries.any()):
                break
            drying |= dries
            held = (held | boils) & ~cools & ~drying
        return np.asarray(new)

    @staticmethod
    def _gained(
        temp_c: Array, between: Array, low: tuple[Array, Array], high: tuple[Array, Array]
    ) -> tuple[Array, Array, Array]:
        """W into each cell, and through the lower and the upper face, at temperatures."""
        through = between * (temp_c[:, :-1] - temp_c[:, 1:])
        into_low, into_high = low[0] * (low[1] - temp_c[:, 0]), high[0] * (high[1] - temp_c[:, -1])
        gained = np.zeros_like(temp_c)
        gained[:, :-1] -= through
        gained[:, 1:] += through
        gained[:, 0] += into_low
        gained[:, -1] += into_high
        return gained, into_low, into_high

    def _settle(self, state: State, gained_j: Array, guess_c: Array) -> tuple[Array, Array]:
        """Temperatures and steam (kg) that hold exactly the heat each cell gained: nothing is lost to the march."""
        wanted = np.sum(state.shares * enthalpies(state.temp_c), axis=0) + gained_j / self.mass
        boiling = np.sum(state.shares * enthalpies(np.full_like(state.temp_c, BOILING_C)), axis=0)
        over = (wanted - boiling) * self.mass
        # Only what was held at 100 °C boils; a cell that is dry already, or still below, keeps its heat.
        water = self.mass * state.shares[WATER]
        steam = np.where(state.shares[WATER] > DRY, np.clip(over / LATENT_J_KG, 0.0, water), 0.0)
        left = wanted - LATENT_J_KG * steam / self.mass
        new = guess_c
        for _ in range(2):
            held = np.sum(state.shares * enthalpies(new), axis=0)
            new = new + (left - held) / capacity(state.shares, new)
        return np.asarray(new), steam

    def _let_go(self, state: State, steam: Array, dt: float) -> Array:
        """Steam, drip and fat leave; the drip of each run in kg."""
        shares, temp = state.shares, state.temp_c
        shares[WATER] = np.maximum(0.0, shares[WATER] - steam / self.mass)
        free = DRIP_SHARE / (1.0 + np.exp(-(temp - DRIP_MIDDLE_C) / DRIP_WIDTH_K))
        aim = self.first[WATER] * (1.0 - free)
        drip = np.maximum(0.0, shares[WATER] - aim) * (1.0 - 1.0 / (1.0 + DRIP_PER_S * dt))
        shares[WATER] -= drip
        bound = self.first[FAT] * (1.0 - FAT_SHARE)
        fat = np.where(temp > FAT_MELTS_C, np.maximum(0.0, shares[FAT] - bound), 0.0)
        fat = fat * (1.0 - 1.0 / (1.0 + FAT_PER_S * dt))
        shares[FAT] -= fat
        # What leaves takes its heat along.
        each = enthalpies(temp)
        state.heat_out_j += np.sum((self.mass * drip + steam) * each[WATER] + self.mass * fat * each[FAT], axis=1)
        dripped = np.sum(self.mass * drip, axis=1)
        melted = np.sum(self.mass * fat, axis=1)
        state.lost_kg += dripped + np.sum(steam, axis=1)
        state.fat_lost_kg += melted
        return np.asarray(dripped)

    def _wet(
        self, state: State, drip: Array, dt: float, bottom: Link, top: Link, low: Sides, high: Sides
    ) -> None:  # fmt: skip
        """Films: what dries, and the share of the drip that comes to the skin. A plate holds no film."""
        # What lies on a plate or in a sauce holds no film of its own.
        for side, link, name, area in (
            (low, bottom, "low", self.area[:, 0]), (high, top, "high", self.area[:, -1]),
        ):  # fmt: skip
            film, feed = getattr(state, f"film_{name}"), getattr(state, f"feed_{name}")
            now = np.clip(film + (feed - link.drying) * dt, 0.0, MOST_FILM)
            setattr(state, f"film_{name}", np.where(side.kind == 2, now, 0.0))
            fed = self.feed * drip / (np.maximum(area, 1e-12) * dt)
            setattr(state, f"feed_{name}", np.where(side.kind == 2, fed, 0.0))

    def _heat_plate(self, state: State, into: Array, dt: float, low: Sides) -> None:
        """The plate gives what the meat takes, and its burner brings it back toward what it is set to."""
        burner = np.clip(PLATE_GAIN * (low.temp_c - state.plate_c), 0.0, PLATE_POWER)
        cooled = state.plate_c + dt * (burner - into) / PLATE_STORE
        state.plate_c = np.where(low.on_plate.astype(bool), cooled, state.plate_c)
