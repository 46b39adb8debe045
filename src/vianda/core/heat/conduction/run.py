"""Simulation one piece through its stages and its rest, and keep what is worth looking at."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from vianda.core.heat.conduction import slab as sl
from vianda.core.heat.conduction.block import simulate_section
from vianda.core.heat.conduction.body import Body, PieceGeometry, body_of
from vianda.core.heat.conduction.line import press_out
from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.props import heat_content
from vianda.core.heat.conduction.stages import PRESSED_S, CookStage, End
from vianda.core.heat.conduction.state import Cells, Mesh, Record, Until

# Two fifths of the thickness past 60 °C is when usual practice flips: common practice, no published source.
FLIP_FRAC = 0.4
# Seconds a step: thin pieces move fastest. Checked against four times finer, see docs/heat-model.md.
THIN_STEP_S, SLAB_STEP_S, BALL_STEP_S, BLOCK_STEP_S = 0.5, 2.0, 1.0, 15.0
THIN_MM = 10.0
# In cold air everything goes slowly: a hundred and fiftieth of the time, within these.
COLD_STEPS, COLD_STEP_S = 150, (10.0, 60.0)
MOST_KEPT = 400
SAME_MOMENT_S = 0.06
FIRST_FILM = 1.0
# The coldest meat may be anything.
ANYTHING_C = -1000.0
# Sugar browns sooner than meat: what a coat multiplies browning above with. Ours; browning only ranks.
GLAZE_BROWNS = 2.5
_ENDS: dict[End, int] = {"time": sl.END_TIME, "two-fifths": sl.END_TWO_FIFTHS, "core": sl.END_CORE}


@dataclass(frozen=True, slots=True)
class Factors:
    """Multipliers of what is not well known: conductivity, contact, air, drip; and the share of drip on a skin."""

    k: float = 1.0
    contact: float = 1.0
    air: float = 1.0
    drip: float = 1.0
    feed: float = 0.3


@dataclass(frozen=True, slots=True)
class Setup:
    """All that decides how a piece cooks. ``pull_c`` ends the last stage where that waits for the core.

    ``surface_c`` is what the plate measures when the piece is laid on. With something else in the middle the
    coldest meat is waited for, not the core. ``coldest_c`` is what every place in the meat must have come to by then.
    ``before`` is what it goes through before the clock begins: from ``start_c`` in a fridge or a freezer.
    """

    piece: PieceGeometry
    stages: tuple[CookStage, ...]
    resting: CookStage
    start_c: float
    surface_c: float
    pull_c: float
    coldest_c: float = ANYTHING_C
    before: tuple[CookStage, ...] = ()
    factors: Factors = Factors()
    finer: int = 1


@dataclass
class Standing:
    """Where a run stands; it can be copied and gone on from."""

    temp: Array
    shares: Array
    edge: Array
    rims: Array
    tally: Array
    lethal: Array
    peak: Array
    clock: Array
    stores: tuple[str, str] = ("", "")

    def copy(self) -> Standing:
        """The same, on its own.

        Returns
        -------
        Standing
            Where a run stands.
        """
        return Standing(
            self.temp.copy(),
            self.shares.copy(),
            self.edge.copy(),
            self.rims.copy(),
            self.tally.copy(),
            self.lethal.copy(),
            self.peak.copy(),
            self.clock.copy(),
            self.stores,
        )


@dataclass(frozen=True)
class Cooked:
    """How a piece went: when each stage ended (s), whether each got there, and all the samples, rest included."""

    setup: Setup
    body: Body
    ended_s: tuple[float, ...]
    reached: bool
    times_s: Array
    temp_c: Array
    more: Array
    at_pull: Standing
    after: Standing

    @property
    def on_heat_s(self) -> float:
        """When it leaves the heat."""
        return self.ended_s[-1]


class Simulation:
    """One piece on its way through stages; ``keep_every_s`` is how often a sample is kept."""

    def __init__(self, setup: Setup, *, keep_every_s: float, step_factor: float = 1.0) -> None:
        self.setup = setup
        self.body = body = body_of(setup.piece, finer=setup.finer)
        self._mesh = Mesh(body.width, body.height, body.area, body.mass, body.first, body.release, body.core_weight)
        self.keep_every_s = keep_every_s
        f = setup.factors
        self._factors = np.array([f.k, f.drip, f.feed, 1.0])
        thin = setup.piece.size_mm <= THIN_MM
        step = {"block": BLOCK_STEP_S, "ball": BALL_STEP_S, "slab": SLAB_STEP_S}[self.body.form]
        step = min(step, THIN_STEP_S) if thin else step
        self._step_s = step_factor * step / max(1, setup.finer)
        # A run that keeps nothing needs room for where its stages begin.
        rows = MOST_KEPT if keep_every_s < 1e8 else len(setup.stages) + 4
        self._t = np.zeros(rows)
        self._temp = np.zeros((rows, *self.body.mass.shape))
        self._more = np.zeros((rows, 9))
        self._kept = 0
        self.now = self._fresh()
        if setup.before:
            self._chill()

    def _chill(self) -> None:
        """Go through what comes before, then begin the clock; what it lost there is not counted."""
        usual = self._step_s
        for stage in self.setup.before:
            low, high = COLD_STEP_S
            self._step_s = max(usual, min(high, max(low, stage.seconds / COLD_STEPS))) / max(1, self.setup.finer)
            self.stage(stage)
        self._step_s, self._kept = usual, 0
        cold = self.now
        self.now = self._fresh()
        self.now.temp, self.now.shares, self.now.peak = cold.temp, cold.shares, cold.temp.copy()

    def _fresh(self) -> Standing:
        body, start = self.body, self.setup.start_c
        shape = body.mass.shape
        edge = np.zeros(sl.EDGES)
        edge[[sl.FILM_LOW, sl.FILM_HIGH]] = FIRST_FILM
        edge[[sl.SKIN_LOW, sl.SKIN_HIGH]] = start
        rims = np.zeros((3, 3, max(shape)))
        rims[:, 0] = FIRST_FILM
        rims[:, 2] = start
        return Standing(
            np.full(shape, start),
            body.first.copy(),
            edge,
            rims,
            np.zeros(sl.TALLIES),
            np.zeros(shape),
            np.full(shape, start),
            np.array([0.0, 0.0, self.keep_every_s]),
        )

    def stored_j(self) -> float:
        """Heat above liquid at 0 °C.

        Returns
        -------
        float
            Heat stored above liquid at 0 °C, J.
        """
        flat = zip(self.body.mass.ravel(), self.now.shares.reshape(-1, 5), self.now.temp.ravel(), strict=True)
        return float(sum(m * heat_content(s, t) for m, s, t in flat))

    def stage(
        self, stage: CookStage, *, end_value: float | None = None, seconds: float | None = None
    ) -> tuple[float, bool]:
        """Go through a stage; the seconds it took and whether it got there.

        ``end_value`` is a core in °C or a share that is through.

        Parameters
        ----------
        stage : CookStage
            The stage.
        end_value : float | None, default None
            What ends it, °C or a fraction 0–1.
        seconds : float | None, default None
            How long, s.

        Returns
        -------
        tuple[float, bool]
            Go through a stage.
        """
        self._begin(stage)
        end = _ENDS[stage.end]
        last = not self.setup.stages or stage is self.setup.stages[-1]
        coldest = self.setup.coldest_c if last else ANYTHING_C
        usual = FLIP_FRAC if stage.end == "two-fifths" else self.setup.pull_c
        value = usual if end_value is None else end_value
        if end == sl.END_CORE and self.setup.piece.middle is not None:
            end, value = sl.END_COLDEST, max(value, coldest)
        left = stage.seconds if seconds is None else seconds
        took, met = 0.0, False
        if stage.pressed is not None:
            took, met = self._go(replace(stage, low=stage.pressed), end, value, coldest, min(left, PRESSED_S))
            left -= took
            if left <= 0.0 or (met and end != sl.END_TIME):
                return took, met
        then, met = self._go(stage, end, value, coldest, left)
        return took + then, met

    def cool(self, stage: CookStage, to_c: float) -> tuple[float, bool]:
        """Until the core has cooled to a temperature.

        Parameters
        ----------
        stage : CookStage
            The stage.
        to_c : float
            Core temperature at which it ends, °C.

        Returns
        -------
        tuple[float, bool]
            Until the core has cooled to a temperature.
        """
        self._begin(stage)
        return self._go(stage, sl.END_COLD, to_c, ANYTHING_C, stage.seconds)

    def _go(self, stage: CookStage, end: int, value: float, coldest: float, seconds: float) -> tuple[float, bool]:
        now, body, f = self.now, self.body, self.setup.factors
        # A whole number would have everything compiled once more for whole numbers.
        seconds = float(seconds)
        low, high = stage.low.row(contact=f.contact, air=f.air), stage.high.row(contact=f.contact, air=f.air)
        cells = Cells(now.temp, now.shares, now.tally, now.lethal, now.peak)
        until = Until(end, float(value), float(coldest), seconds)
        record = Record(now.clock, self._t, self._temp, self._more)
        if body.form == "block":
            faces = np.stack([low, high, stage.side.row(contact=f.contact, air=f.air)])
            took, met, self._kept = simulate_section(
                cells, now.rims, self._mesh, self._factors, faces, self._step_s, until, record, self._kept
            )
        else:
            took, met, self._kept = sl.simulate_row(
                cells,
                now.edge,
                self._mesh,
                self._factors,
                np.stack([low, high]),
                self._step_s,
                float(stage.turn_every_s),
                until,
                record,
                self._kept,
            )
        return took, met

    def _begin(self, stage: CookStage) -> None:
        now, body = self.now, self.body
        if stage.flip and body.form == "slab":
            sl.turn_over(Cells(now.temp, now.shares, now.tally, now.lethal, now.peak), now.edge)
        stores = (stage.low.kind if stage.low.stores else "", stage.high.kind if stage.high.stores else "")
        for at, row, face in ((0, sl.STORE_LOW, stage.low), (1, sl.STORE_HIGH, stage.high)):
            # A plate keeps what the piece has left of its heat, until it lies on something else.
            if face.stores and stores[at] != now.stores[at]:
                first = face.kind == "contact" and now.clock[0] == 0.0
                now.edge[row] = self.setup.surface_c if first else face.begin_c
        now.stores = (stores[0] or now.stores[0], stores[1])
        if stage.press_out_frac > 0 and body.form != "block":
            out = np.zeros(4)
            cells = Cells(now.temp, now.shares, now.tally, now.lethal, now.peak)
            press_out(cells, self._mesh, stage.press_out_frac, out)
            now.tally[sl.WATER_LOST] += out[0]
            now.tally[sl.FAT_LOST] += out[2]
            now.tally[sl.HEAT_OUT] += out[3]
        if stage.coat_kg_m2 > 0:
            self._factors[3] = GLAZE_BROWNS
            now.edge[sl.FILM_HIGH] += stage.coat_kg_m2
            now.rims[1, 0] += stage.coat_kg_m2
        # The moment of a change is worth a sample.
        now.clock[1] = now.clock[0]

    def samples(self) -> tuple[Array, Array, Array]:
        """Times, cells and the rest of what was kept, with the present moment as the last.

        Returns
        -------
        tuple[Array, Array, Array]
            Times, cells and the rest of what was kept, with the present moment as the last.
        """
        n = self._kept
        more = np.zeros(9)
        edge, tally, rims = self.now.edge, self.now.tally, self.now.rims
        more[:4] = edge[[sl.SKIN_LOW, sl.SKIN_HIGH, sl.STORE_LOW, sl.STORE_HIGH]]
        if self.body.form == "block":
            more[:3] = rims[0, 2, 0], rims[1, 2, 0], rims[2, 2, self.body.mass.shape[0] // 2]
        more[4:9] = tally[[sl.WATER_LOST, sl.FAT_LOST, sl.BROWN_LOW, sl.BROWN_HIGH, sl.FLIPPED]]
        if n and self.now.clock[0] - self._t[n - 1] < SAME_MOMENT_S:
            n -= 1
        return (
            np.append(self._t[:n], self.now.clock[0]),
            np.concatenate([self._temp[:n], self.now.temp[None]]),
            np.concatenate([self._more[:n], more[None]]),
        )


def rough_times_of(setup: Setup) -> tuple[float, ...]:
    """When each stage ends, a loaf on half the mesh in twice as long steps: for ratios, which hardly feel it.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.

    Returns
    -------
    tuple[float, ...]
        When each stage ends, a loaf on half the mesh in twice as long steps.
    """
    if setup.piece.form == "block":
        return times_of(replace(setup, finer=0), step_factor=2.0)[0]
    return times_of(setup)[0]


def cook(setup: Setup, *, keep_every_s: float, step_factor: float = 1.0) -> Cooked:
    """Through all stages and the rest.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    keep_every_s : float
        How often a sample is kept, s.
    step_factor : float, default 1.0
        Multiplies the length of the steps, about 1.

    Returns
    -------
    Cooked
        How a piece went.

    References
    ----------
    Control volumes; BDF2 with unlike steps; a section by rows and columns (Douglas 1962): textbook methods,
    from memory, checked against the series of Carslaw & Jaeger.
    """
    run = Simulation(setup, keep_every_s=keep_every_s, step_factor=step_factor)
    ended: list[float] = []
    reached = True
    for stage in setup.stages:
        took, met = run.stage(stage)
        ended.append((ended[-1] if ended else 0.0) + took)
        reached = reached and met
    at_pull = run.now.copy()
    if setup.resting.seconds > 0:
        run.now.clock[sl.EVERY] = max(run.now.clock[sl.EVERY], setup.resting.seconds / 60)
        run.stage(setup.resting)
    times, temp, more = run.samples()
    return Cooked(setup, run.body, tuple(ended), reached, times, temp, more, at_pull, run.now)


def times_of(setup: Setup, *, core_c: float | None = None, step_factor: float = 1.0) -> tuple[tuple[float, ...], bool]:
    """When each stage ends, without keeping anything: what uncertainty and questions ask for most.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    core_c : float | None, default None
        Core at which the last stage ends, °C; None: as its stages say.
    step_factor : float, default 1.0
        Multiplies the length of the steps, about 1.

    Returns
    -------
    tuple[tuple[float, ...], bool]
        When each stage ends, without keeping anything.

    References
    ----------
    Control volumes; BDF2 with unlike steps; a section by rows and columns (Douglas 1962): textbook methods,
    from memory, checked against the series of Carslaw & Jaeger.
    """
    run = Simulation(setup, keep_every_s=1e9, step_factor=step_factor)
    ended: list[float] = []
    reached = True
    for n, stage in enumerate(setup.stages):
        last = n == len(setup.stages) - 1
        took, met = run.stage(stage, end_value=core_c if last and stage.end == "core" else None)
        ended.append((ended[-1] if ended else 0.0) + took)
        reached = reached and met
    return tuple(ended), reached
