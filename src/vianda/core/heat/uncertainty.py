"""How sure a computed time is: one thing at a time is moved by what is usually not known of it.

Variances of the logarithm of a time add up; the band is from the 10th to the 90th of a hundred such pieces.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, say
from vianda.core.heat.conduction.body import PieceGeometry
from vianda.core.heat.conduction.faces import Face
from vianda.core.heat.conduction.run import Setup, rough_times_of
from vianda.core.heat.engine import DIRECT, Engine

Cause = Literal["thickness", "conductivity", "contact", "air", "surface", "start", "drip", "lid"]
# One standard deviation of what is not well known: 0.7 mm or 4 %, a factor of 15 %, 2 K, 8 K on a surface that was
# measured, a third of what the skin gets of the drip, a factor of two on how damp it is under a lid. Ours.
THICKNESS_MM, THICKNESS_FRAC, FACTOR, START_K, SURFACE_K, FEED = 0.7, 0.04, 0.15, 2.0, 8.0, 0.1
LID_FACTOR = 2.0
# Nothing is taken for thinner than by this share of itself.
MOST_THINNER = 0.7
# Air under a lid is damper than this, Pa; no air is damper than the other.
LIDDED_PA, DAMPEST_PA = 5000.0, 90_000.0
P90 = 1.2816


@dataclass(frozen=True, slots=True)
class MeasuredSpread:
    """Standard deviations that readings have narrowed, in logarithms of the factor; and of the surface, in K."""

    k_sd: float = FACTOR
    air_sd: float = FACTOR
    surface_sd_k: float = SURFACE_K


UNMEASURED = MeasuredSpread()


@dataclass(frozen=True, slots=True)
class UncertaintyPart:
    """One part of the uncertainty: its share of the variance, and what to measure to halve it."""

    cause: Cause
    share: float
    advice: Phrase


@dataclass(frozen=True, slots=True)
class Uncertainty:
    """Bands of when each stage ends, in seconds, and what causes most of it, largest first."""

    ended_s: tuple[Band, ...]
    causes: tuple[UncertaintyPart, ...]


_ADVICE: dict[Cause, str] = {
    "thickness": "Thickness: measure one with a calliper, or press to a gauge.",
    "conductivity": "How fast heat runs through this mix: a probe reading, or when it was ready to turn, narrows it.",
    "contact": "How well it lies on: lay the pieces flat and press their edges down.",
    "air": "How the air carries heat: one probe reading in the middle of the cook narrows it.",
    "surface": "How hot it is: measure it where the piece will lie.",
    "start": "How cold they start: take them from the fridge at the last moment.",
    "drip": "How wet the skin stays, from its share of the drip: it shows in the colour; nothing to measure.",
    "lid": "How damp it is under the lid: open it as seldom as you can, and shut it tight.",
}


def causes_of(setup: Setup) -> tuple[Cause, ...]:
    """What is not well known of a cook and moves its times.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.

    Returns
    -------
    tuple[Cause, ...]
        The causes that this cook has: none of a lid where there is none.
    """
    faces = [face for s in setup.stages for face in (s.low, s.high, s.side)]
    air = [face for face in faces if face.kind == "air"]
    has: dict[Cause, bool] = {
        "thickness": True,
        "conductivity": True,
        "start": True,
        "contact": any(face.kind in ("contact", "fire", "liquid", "cheese") for face in faces),
        "lid": any(face.vapour_pa > LIDDED_PA for face in air),
        "drip": bool(air),
        "air": any(face.temp_c > 90.0 for face in air),
        "surface": True,
    }
    return tuple(cause for cause, there in has.items() if there)


def moved(setup: Setup, cause: Cause, by: float, sure: MeasuredSpread = UNMEASURED) -> Setup:
    """The same cook with one cause moved.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    cause : Cause
        What is moved.
    by : float
        Standard deviations (no unit), above 0: so that it cooks faster; each figure stays possible.
    sure : MeasuredSpread, default UNMEASURED
        What readings have narrowed.

    Returns
    -------
    Setup
        All that decides how a piece cooks.
    """
    f, size = setup.factors, setup.piece.size_mm
    if cause == "thickness":
        off = -by * min(max(THICKNESS_MM, THICKNESS_FRAC * size), 0.4 * size)
        off = max(off, -MOST_THINNER * size)
        piece = setup.piece
        # Another thickness of a loaf is another width too; what lies in the middle stays.
        width = piece.width_mm * (1.0 + off / size) if piece.form == "block" else piece.width_mm
        return replace(setup, piece=PieceGeometry(piece.form, size + off, piece.meat, width, piece.middle))
    if cause == "start":
        return replace(setup, start_c=setup.start_c + by * START_K)
    if cause == "lid":
        return damper(setup, LID_FACTOR**by)
    if cause == "surface":
        return hotter(setup, by * sure.surface_sd_k)
    factors = {
        "conductivity": lambda: replace(f, k=f.k * math.exp(by * sure.k_sd)),
        "contact": lambda: replace(f, contact=f.contact * math.exp(by * FACTOR)),
        "drip": lambda: replace(f, feed=max(0.0, f.feed - by * FEED)),
        "air": lambda: replace(f, air=f.air * math.exp(by * sure.air_sd)),
    }[cause]()
    return replace(setup, factors=factors)


def uncertainty_pairs(setup: Setup, sure: MeasuredSpread) -> dict[Cause, tuple[Setup, Setup]]:
    """For each cause the same cook a standard deviation slower, and as much faster.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    sure : MeasuredSpread
        What readings have narrowed.

    Returns
    -------
    dict[Cause, tuple[Setup, Setup]]
        For each cause the same cook a standard deviation slower, and as much faster.

    References
    ----------
    One cause at a time, their squares summed: the law of propagation, JCGM 100:2008, from memory. The spreads
    are ours.
    """
    return {cause: (moved(setup, cause, -1.0, sure), moved(setup, cause, 1.0, sure)) for cause in causes_of(setup)}


def damper(setup: Setup, factor: float) -> Setup:
    """All damp air by a factor damper: under a lid, in steam.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    factor : float
        Multiplies the vapour pressure, above 0 (about 1).

    Returns
    -------
    Setup
        All that decides how a piece cooks.
    """

    def damped(face: Face) -> Face:
        if face.kind != "air" or face.vapour_pa <= LIDDED_PA:
            return face
        return replace(face, vapour_pa=min(face.vapour_pa * factor, DAMPEST_PA))

    stages = tuple(replace(s, low=damped(s.low), high=damped(s.high), side=damped(s.side)) for s in setup.stages)
    return replace(setup, stages=stages)


def hotter(setup: Setup, by: float) -> Setup:
    """All that is hot by so much more: the surface, the oven, the fire. A simmer stays a simmer.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    by : float
        How much hotter, K.

    Returns
    -------
    Setup
        All that decides how a piece cooks.
    """

    def raised(face: Face) -> Face:
        if face.temp_c <= 100.0:
            return face
        begin = face.begin_c + by if face.kind == "contact" else face.begin_c
        return replace(face, temp_c=face.temp_c + by, begin_c=begin)

    stages = tuple(replace(s, low=raised(s.low), high=raised(s.high), side=raised(s.side)) for s in setup.stages)
    return replace(setup, stages=stages, surface_c=setup.surface_c + by)


def uncertainty_steps(
    setup: Setup, ended_s: tuple[float, ...], sure: MeasuredSpread = UNMEASURED, *, engine: Engine = DIRECT
) -> Iterator[float | Uncertainty]:
    """Fractions of the way, and at last the uncertainty itself. Stop asking, and nothing more is computed.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    ended_s : tuple[float, ...]
        When each stage ends as computed, s.
    sure : MeasuredSpread, default UNMEASURED
        What readings have narrowed.
    engine : Engine, default DIRECT
        Who runs the simulations of the heat.

    Yields
    ------
    float | Uncertainty
        Fractions of the way, and at last the uncertainty itself. Stop asking, and nothing more is computed.
    """
    pairs = uncertainty_pairs(setup, sure)
    parts: dict[Cause, list[float]] = {}
    for done, (cause, both) in enumerate(pairs.items()):
        # The stages of each run may end at other times than those of the usual one.
        a, b = engine.each(rough_times_of, both)
        parts[cause] = [(0.5 * math.log(max(x, 1e-3) / max(y, 1e-3))) ** 2 for x, y in zip(a, b, strict=True)]
        yield (done + 1) / len(pairs)
    bands = []
    for n, usual in enumerate(ended_s):
        spread = math.exp(P90 * math.sqrt(sum(p[n] for p in parts.values())))
        bands.append(Band(usual / spread, usual, usual * spread))
    total = sum(p[-1] for p in parts.values())
    causes = sorted(
        (UncertaintyPart(c, p[-1] / total if total > 0 else 0.0, say(_ADVICE[c])) for c, p in parts.items()),
        key=lambda evidence_of: -evidence_of.share,
    )
    yield Uncertainty(tuple(bands), tuple(causes))
