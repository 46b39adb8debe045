"""Rounds of the trainer: something drawn from an evaluation, four answers, and what is right by the figures."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.heat.curve import HeatCurve, heat_curve
from vianda.core.heat.engine import DIRECT, Engine
from vianda.core.heat.plate_signs import SIGNS
from vianda.core.model.styles import FLAT
from vianda.core.pipeline.figures import Figures

RoundKind = Literal["turn", "core", "surface", "fat", "fits", "portion", "salt"]
ANSWERS = 4
# What each kind practises.
TITLES: Mapping[RoundKind, str] = {
    "turn": "When to turn",
    "core": "The core by its section",
    "surface": "How hot it is, by a sign",
    "fat": "Lean to fat by eye",
    "fits": "How many lie on it",
    "portion": "A portion by eye",
    "salt": "Salt by the spoon",
}
# Moments of the first side, and of the time on the heat, at which a section is drawn, 0–1. Ours.
TURN_AT, CORE_AT = (0.15, 0.35, 0.65, 1.0), (0.55, 0.95)
# Answers lie so far apart: °C, fraction of fat, and ratios of a count, a mass and a spoon. Ours.
CORE_STEP_K, FAT_STEP, FITS_RATIO, MASS_RATIO, SPOON_RATIO = 7.0, 0.08, 0.22, 1.25, 1.5
# Grains drawn, and how much of what looks white is fat by mass: ours, from memory of trimmings.
GRAINS, WHITE_IS_FAT = 260, 0.8
# Grey from here, °C: usual practice's.
GREY_C = 60.0


@dataclass(frozen=True, slots=True)
class SectionPicture:
    """A section of a piece: depths from below as a share of its thickness, and how warm it is there, °C."""

    depths_frac: tuple[float, ...]
    temp_c: tuple[float, ...]
    size_mm: float
    kind: Literal["section"] = "section"


@dataclass(frozen=True, slots=True)
class GrindPicture:
    """A grind spread flat: of each grain whether it is white."""

    white: tuple[bool, ...]
    kind: Literal["grind"] = "grind"


@dataclass(frozen=True, slots=True)
class SurfaceToFill:
    """A surface with one piece laid on it, mm."""

    width_mm: float
    depth_mm: float
    round_shape: bool
    piece_mm: float
    kind: Literal["surface"] = "surface"


@dataclass(frozen=True, slots=True)
class PieceToWeigh:
    """A raw piece beside its bread, mm; bread 0: none."""

    diameter_mm: float
    thickness_mm: float
    bread_mm: float
    kind: Literal["piece"] = "piece"


@dataclass(frozen=True, slots=True)
class NoPicture:
    """Nothing is drawn: words alone."""

    kind: Literal["words"] = "words"


Picture = SectionPicture | GrindPicture | SurfaceToFill | PieceToWeigh | NoPicture


@dataclass(frozen=True, slots=True)
class Round:
    """A round as it is shown: what is asked, what is drawn, and four answers."""

    kind: RoundKind
    title: str
    question: Phrase
    picture: Picture
    answers: tuple[Phrase, ...]


@dataclass(frozen=True, slots=True)
class MadeRound:
    """A round with which answer is right (count, from 0), and why by its figures."""

    round: Round
    right: int
    why: Phrase


def make_round(kind: RoundKind, figures: Figures, *, seed: int, engine: Engine = DIRECT) -> MadeRound | None:
    """A round from an evaluation.

    Parameters
    ----------
    kind : RoundKind
        What is practised.
    figures : Figures
        The formula as evaluated.
    seed : int
        Number of the seed (count): the same one makes the same round.
    engine : Engine, default DIRECT
        Who runs the simulations.

    Returns
    -------
    MadeRound | None
        None where this formula has no such round: a loaf is not turned.

    Raises
    ------
    OutOfRangeError
        For a kind that is not known.
    """
    if kind not in _MAKERS:
        raise OutOfRangeError("There is no such round.", field="/kind")
    return _MAKERS[kind](figures, np.random.default_rng(seed), engine)


def _round(
    kind: RoundKind, question: Phrase, picture: Picture, answers: list[Phrase], right: int, why: Phrase
) -> MadeRound:
    return MadeRound(Round(kind, TITLES[kind], question, picture, tuple(answers)), right, why)


def _name(figures: Figures) -> ph.Amount:
    return ph.word(figures.context.formula.name)


def _section(curve: HeatCurve, at_s: float) -> SectionPicture:
    rows, times = np.array(curve.temp_c), np.array(curve.times_s)
    temp = [float(np.interp(at_s, times, rows[:, n])) for n in range(rows.shape[1])]
    depths = [d / curve.size_mm for d in curve.depth_mm]
    if curve.form == "ball":
        # From the middle out: seen through, both ways.
        depths = [0.5 - d for d in reversed(depths)] + [0.5 + d for d in depths]
        temp = temp[::-1] + temp
    return SectionPicture(tuple(round(d, 4) for d in depths), tuple(round(t, 1) for t in temp), curve.size_mm)


def _turn(figures: Figures, rng: np.random.Generator, engine: Engine) -> MadeRound | None:
    if figures.context.style.form not in FLAT or figures.cook.plan.model != "conduction":
        return None
    curve = heat_curve(figures.cook.case, engine=engine)
    flip = curve.flip_s.usual if curve.flip_s else 0.0
    if flip <= 0.0:
        return None
    right = int(rng.integers(ANSWERS))
    at_s = TURN_AT[ANSWERS - 1 - right] * flip
    picture = _section(curve, at_s)
    # Between the cells of the mesh, too.
    grey = float(np.mean(np.interp(np.linspace(0.0, 1.0, 401), picture.depths_frac, picture.temp_c) >= GREY_C))
    answers = [say("Turn it now")]
    answers += [say("In {time}", time=ph.duration((1.0 - share) * flip)) for share in TURN_AT[2::-1]]
    why = say(
        "{grey} of the thickness is past {c}; it is turned at two fifths, {flip} after it was laid on. This was at "
        "{now}.",
        grey=ph.frac(grey), c=ph.temp(GREY_C), flip=ph.duration(flip), now=ph.duration(at_s),
    )  # fmt: skip
    question = say("{name}, first side, seen from the edge: when is it turned?", name=_name(figures))
    return _round("turn", question, picture, answers, right, why)


def _core(figures: Figures, rng: np.random.Generator, engine: Engine) -> MadeRound | None:
    if figures.context.style.form not in (*FLAT, "ball") or figures.cook.plan.model != "conduction":
        return None
    curve = heat_curve(figures.cook.case, engine=engine)
    if not curve.reached:
        return None
    at_s = float(rng.uniform(*CORE_AT)) * curve.pull_s.usual
    core = float(round(np.interp(at_s, curve.times_s, curve.core_c)))
    right = int(rng.integers(ANSWERS))
    answers = [say("{t}", t=ph.temp(core + CORE_STEP_K * (n - right))) for n in range(ANSWERS)]
    why = say(
        "{core}, {left} before it comes off at {pull}. Its colour proves nothing: a probe does.",
        core=ph.temp(core), left=ph.duration(curve.pull_s.usual - at_s), pull=ph.temp(curve.pull_core_c),
    )  # fmt: skip
    question = say("{name}, cut through on the heat: what does the middle read?", name=_name(figures))
    return _round("core", question, _section(curve, at_s), answers, right, why)


def _surface(figures: Figures, rng: np.random.Generator, engine: Engine) -> MadeRound | None:
    kind = figures.context.surface.kind
    signs = [s for s in SIGNS if kind in s.surfaces and s.kind in ("drop", "hand")]
    if len(signs) < 2:
        return None
    signs.sort(key=lambda s: s.low_c)
    right = int(rng.integers(len(signs)))
    answers = [say("{band}", band=ph.temp(s.low_c, s.high_c)) for s in signs]
    sign = signs[right]
    wanted = figures.context.formula.heat.surface_temp_c
    why = say(
        "{band}, by usual practice. {name} wants {wanted}.",
        band=ph.temp(sign.low_c, sign.high_c), name=_name(figures), wanted=ph.temp(wanted),
    )  # fmt: skip
    question = say(
        "{surface}: {sign}. How hot is it?",
        surface=ph.word(figures.context.surface.name),
        sign=ph.word(sign.title[0].lower() + sign.title[1:]),
    )
    return _round("surface", question, NoPicture(), answers, right, why)


def _fat(figures: Figures, rng: np.random.Generator, engine: Engine) -> MadeRound | None:
    fat = figures.meat.blend.fat_frac
    # The leanest answer still has fat in it, and the fattest lean.
    places = [n for n in range(ANSWERS) if fat - n * FAT_STEP >= 0.02 and fat + (ANSWERS - 1 - n) * FAT_STEP <= 0.65]
    if not places:
        return None
    right = int(places[int(rng.integers(len(places)))])
    white = np.zeros(GRAINS, dtype=bool)
    white[: round(GRAINS * fat / WHITE_IS_FAT)] = True
    rng.shuffle(white)
    answers = [say("{fat}", fat=ph.lean_to_fat(fat + FAT_STEP * (n - right))) for n in range(ANSWERS)]
    why = say(
        "{name} has {fat} fat. What looks white is fat to {share}: about {n} of {all} grains are white.",
        name=_name(figures), fat=ph.frac(fat), share=ph.frac(WHITE_IS_FAT), n=ph.count(int(white.sum())),
        all=ph.count(GRAINS),
    )  # fmt: skip
    question = say("A grind, spread flat: how lean is it?")
    return _round("fat", question, GrindPicture(tuple(bool(w) for w in white)), answers, right, why)


def _fits(figures: Figures, rng: np.random.Generator, engine: Engine) -> MadeRound | None:
    laying, surface = figures.piece.laying, figures.context.surface
    if figures.context.style.form not in FLAT or laying.at_once < ANSWERS:
        return None
    right = int(rng.integers(ANSWERS))
    step = max(1, round(FITS_RATIO * laying.at_once))
    counts = [laying.at_once + step * (n - right) for n in range(ANSWERS)]
    if counts[0] < 1:
        return None
    picture = SurfaceToFill(surface.width_mm, surface.depth_mm, surface.round_shape, laying.across_mm)
    why = say(
        "{n} lie on it with room between them; a square grid would hold {squares}.",
        n=ph.count(laying.at_once), squares=ph.count(laying.in_squares),
    )  # fmt: skip
    question = say(
        "{surface}: how many pieces of {d} lie on it at once?",
        surface=ph.word(surface.name),
        d=ph.length(laying.across_mm),
    )
    return _round("fits", question, picture, [say("{n}", n=ph.count(c)) for c in counts], right, why)


def _portion(figures: Figures, rng: np.random.Generator, engine: Engine) -> MadeRound | None:
    shape, mass = figures.piece.shape, float(figures.batch.portions.piece_mass_g)
    if figures.context.style.form not in FLAT:
        return None
    right = int(rng.integers(ANSWERS))
    answers = [say("{m}", m=ph.mass(mass * MASS_RATIO ** (n - right))) for n in range(ANSWERS)]
    why = say(
        "{m}: {d} across and {t} thick.",
        m=ph.mass(mass), d=ph.length(shape.raw_diameter_mm), t=ph.length(shape.thickness_mm),
    )  # fmt: skip
    question = say("A raw piece, {t} thick: what does it weigh?", t=ph.length(shape.thickness_mm))
    picture = PieceToWeigh(shape.raw_diameter_mm, shape.thickness_mm, shape.bun_diameter_mm)
    return _round("portion", question, picture, answers, right, why)


def _salt(figures: Figures, rng: np.random.Generator, engine: Engine) -> MadeRound | None:
    salt = figures.salt
    if salt.batch_salt_g < 1.0 or salt.g_per_tsp <= 0.0:
        return None
    right = int(rng.integers(ANSWERS))
    spoons = [salt.batch_salt_tsp * SPOON_RATIO ** (n - right) for n in range(ANSWERS)]
    answers = [say("{n} level teaspoons", n=ph.number(s)) for s in spoons]
    why = say(
        "{n} level teaspoons: one of {salt} holds {g}. A spoon of coarse salt holds about half of one of fine.",
        n=ph.number(salt.batch_salt_tsp), salt=ph.word(salt.salt_name), g=ph.mass(salt.g_per_tsp),
    )  # fmt: skip
    question = say(
        "{name} takes {g} of {salt}: how many spoons is that?",
        name=_name(figures),
        g=ph.mass(salt.batch_salt_g),
        salt=ph.word(salt.salt_name),
    )
    return _round("salt", question, NoPicture(), answers, right, why)


_MAKERS: Mapping[str, Callable[[Figures, np.random.Generator, Engine], MadeRound | None]] = {
    "turn": _turn,
    "core": _core,
    "surface": _surface,
    "fat": _fat,
    "fits": _fits,
    "portion": _portion,
    "salt": _salt,
}
KINDS: tuple[RoundKind, ...] = ("turn", "core", "surface", "fat", "fits", "portion", "salt")
