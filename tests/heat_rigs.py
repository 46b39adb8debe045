"""Pieces and surroundings for tests of the run."""

from __future__ import annotations

from vianda.core.heat.conduction.body import PieceGeometry
from vianda.core.heat.conduction.faces import SHUT, Face
from vianda.core.heat.conduction.meat import Material
from vianda.core.heat.conduction.run import Factors, Setup, Simulation
from vianda.core.heat.conduction.stages import CookStage, air

AS_USUAL = Factors()
MINCE = Material((0.60, 0.17, 0.22, 0.0, 0.01))
OVER = air(40.0, 8.0)
OVEN = air(218.0, 28.0)
ROOM = CookStage("rest", air(22.0, 8.0), air(22.0, 8.0), "time", 180.0, air(22.0, 8.0))


def plate(temp_c: float = 230.0, h: float = 400.0, *, store: float = 30_000.0) -> Face:
    """A plate of 8 mm steel or so."""
    return Face("contact", temp_c, h, store=store, power=16_000.0, gain=800.0, begin_c=temp_c)


def flat(
    size_mm: float,
    seconds: float,
    *,
    low: Face | None = None,
    high: Face = OVER,
    start_c: float = 5.0,
    flip: bool = True,
    meat: Material = MINCE,
    factors: Factors = AS_USUAL,
    **more: object,
) -> Setup:
    """A flat piece on a plate, flipped half way, by the clock."""
    under = plate() if low is None else low
    half = seconds / 2 if flip else seconds
    stages = [CookStage("surface", under, high, "time", half)]
    if flip:
        stages.append(CookStage("surface", under, high, "time", half, flip=True))
    return Setup(
        PieceGeometry("slab", size_mm, meat), tuple(stages), ROOM, start_c, under.temp_c, 70.0, factors=factors, **more
    )  # type: ignore[arg-type]


def ball(
    diameter_mm: float,
    seconds: float,
    *,
    around: Face = OVEN,
    start_c: float = 5.0,
    meat: Material = MINCE,
    factors: Factors = AS_USUAL,
    **more: object,
) -> Setup:
    """A ball in an oven, by the clock."""
    stage = CookStage("oven", SHUT, around, "time", seconds)
    rest = CookStage("rest", SHUT, air(22.0, 8.0), "time", 180.0)
    return Setup(
        PieceGeometry("ball", diameter_mm, meat), (stage,), rest, start_c, around.temp_c, 70.0, factors=factors, **more
    )  # type: ignore[arg-type]


def loaf(
    width_mm: float,
    height_mm: float,
    seconds: float,
    *,
    around: Face | None = None,
    start_c: float = 5.0,
    meat: Material = MINCE,
    factors: Factors = AS_USUAL,
    **more: object,
) -> Setup:
    """A loaf on a tray in an oven, by the clock."""
    hot = air(175.0, 28.0) if around is None else around
    stage = CookStage("oven", Face("liquid", hot.temp_c, 20.0), hot, "time", seconds, hot)
    return Setup(
        PieceGeometry("block", height_mm, meat, width_mm),
        (stage,),
        ROOM,
        start_c,
        hot.temp_c,
        70.0,
        factors=factors,
        **more,
    )  # type: ignore[arg-type]


def through(setup: Setup) -> Simulation:
    """Marched through all its stages."""
    run = Simulation(setup, keep_every_s=1e9)
    for stage in setup.stages:
        run.stage(stage)
    return run


def core(run: Simulation) -> float:
    """The geometric middle, °C."""
    return float((run.now.temp * run.body.core_weight).sum())


def core_after(setup: Setup) -> float:
    """The middle after all stages, °C."""
    return core(through(setup))
