"""What a kitchen has learnt: of each figure what was thought before, what its cooks say, and what follows."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, say
from vianda.core.equipment.style_factor import LEAST_FACTOR, MOST_FACTOR
from vianda.core.learning.effects import P90, Estimate, Posterior, Seen, learn
from vianda.core.learning.figures import FIGURES, KITCHEN, LearntFigure, Level, Observation

# A kitchen changes: so many of its newest observations of a figure count. Ours.
NEWEST = 80
# Nearer to one another than this two factors are the same: ours.
SAME_FRAC = 0.02


@dataclass(frozen=True, slots=True)
class Datum:
    """What one cook said: the factor it alone asks for with its own range, and whether it counts.

    ``outlier``: it does not belong to the rest, and was set aside. ``aside``: the cook set it aside.
    """

    cook: int
    piece: int
    factor: Band
    observed: float
    forecast: float
    outlier: bool
    aside: bool


@dataclass(frozen=True, slots=True)
class Learnt:
    """One factor that is learnt, of a style or of a surface.

    Attributes
    ----------
    prior, posterior : Band
        The factor with the middle eight tenths of what is thought of it, before and after.
    in_use : float
        What the forecasts are made with now.
    proposed : float
        What they would be made with: the posterior, no further than 0.5 to 2.
    news : bool
        Whether what is proposed differs from what is in use by more than nothing.
    sure : bool
        Whether its range lies on one side of what the tables say.
    counted : int
        How many observations count.
    """

    figure: LearntFigure
    level: Level
    key: str
    name: str
    title: str
    line: str
    prior: Band
    posterior: Band
    in_use: float
    proposed: float
    news: bool
    sure: bool
    counted: int
    data: tuple[Datum, ...]
    says: Phrase
    source: str


def effects_of(observation: Observation) -> tuple[str, ...]:
    """The effects that add up to an observation, by their keys.

    Parameters
    ----------
    observation : Observation
        What a cook said.

    Returns
    -------
    tuple[str, ...]
        The kitchen's own, then one of each level.
    """
    model = FIGURES[observation.figure]
    shared = (KITCHEN,) if model.kitchen_sd > 0 else ()
    return (*shared, *(f"{level}/{observation.key(level)}" for level in model.level_sd))


def prior_of(figure: LearntFigure, observations: Iterable[Observation]) -> dict[str, float]:
    """Standard deviation of every effect before anything was seen.

    Parameters
    ----------
    figure : LearntFigure
        Which figure.
    observations : Iterable[Observation]
        What was seen of it: names the styles and surfaces.

    Returns
    -------
    dict[str, float]
        In logarithms of the factor.
    """
    model = FIGURES[figure]
    found = {KITCHEN: model.kitchen_sd} if model.kitchen_sd > 0 else {}
    for one in observations:
        for level, sd in model.level_sd.items():
            found[f"{level}/{one.key(level)}"] = sd
    return found


def error_sd(observation: Observation) -> float:
    """Standard deviation of an observation's error: what was measured, and what differs from cook to cook.

    Parameters
    ----------
    observation : Observation
        What a cook said.

    Returns
    -------
    float
        In the logarithm of the factor.
    """
    return math.hypot(observation.sd, FIGURES[observation.figure].cook_sd)


def counted(observations: Iterable[Observation]) -> list[Observation]:
    """Those that count: not set aside, the newest so many.

    Parameters
    ----------
    observations : Iterable[Observation]
        All of one figure.

    Returns
    -------
    list[Observation]
        By time.
    """
    mine = sorted((o for o in observations if not o.aside), key=lambda o: (o.at, o.cook, o.piece))
    return mine[-NEWEST:]


def fitted(figure: LearntFigure, used: Sequence[Observation]) -> Posterior:
    """The effects of a figure after what counts was seen.

    Parameters
    ----------
    figure : LearntFigure
        Which figure.
    used : Sequence[Observation]
        What counts.

    Returns
    -------
    Posterior
        Its outliers are positions in ``used``.
    """
    seen = [Seen(o.value, error_sd(o), effects_of(o)) for o in used]
    return learn(seen, prior_of(figure, used))


def learnt_of(
    observations: Sequence[Observation],
    *,
    names: Mapping[tuple[Level, str], str],
    in_use: Mapping[tuple[LearntFigure, Level, str], float],
) -> tuple[Learnt, ...]:
    """Everything that was learnt, figure by figure; what nothing was seen of is not listed.

    Parameters
    ----------
    observations : Sequence[Observation]
        What the kitchen's cooks said.
    names : Mapping[tuple[Level, str], str]
        What styles and surfaces are called; one that is not named is no longer there and is left out.
    in_use : Mapping[tuple[LearntFigure, Level, str], float]
        The factors that forecasts are made with now; 1 where none is given.

    Returns
    -------
    tuple[Learnt, ...]
        By figure, the best known first.
    """
    found: list[Learnt] = []
    for figure, model in FIGURES.items():
        mine = [o for o in observations if o.figure == figure]
        used = counted(mine)
        after = fitted(figure, used)
        outliers = {(used[n].cook, used[n].piece) for n in after.outliers}
        for level in model.adopt:
            keys = dict.fromkeys(o.key(level) for o in mine)
            for key in keys:
                if (level, key) not in names:
                    continue
                data = [o for o in mine if o.key(level) == key]
                found.append(
                    _one(
                        figure, level, key, names[level, key], data, after, used, outliers,
                        in_use.get((figure, level, key), 1.0),
                    )
                )  # fmt: skip
    return tuple(sorted(found, key=lambda x: (list(FIGURES).index(x.figure), x.level, -x.counted, x.name)))


def estimate(after: Posterior, figure: LearntFigure, level: Level, key: str) -> Estimate:
    """A factor's logarithm: a surface's with what the whole kitchen shares, a style's on top of that.

    Parameters
    ----------
    after : Posterior
        The effects of the figure.
    figure : LearntFigure
        Which figure.
    level : Level
        Of a style or of a surface.
    key : str
        Which one.

    Returns
    -------
    Estimate
        Mean and standard deviation. Where surfaces are learnt too, what is shared stands with them: a style's factor
        is multiplied with the surface's.
    """
    model = FIGURES[figure]
    shared = model.kitchen_sd > 0 and (level == "surface" or "surface" not in model.adopt)
    return after.of(*((KITCHEN,) if shared else ()), f"{level}/{key}")


def _one(
    figure: LearntFigure,
    level: Level,
    key: str,
    name: str,
    data: Sequence[Observation],
    after: Posterior,
    used: Sequence[Observation],
    outliers: set[tuple[int, int]],
    in_use: float,
) -> Learnt:
    model = FIGURES[figure]
    before = estimate(Posterior((), (), (), prior_of(figure, data)), figure, level, key)
    now = estimate(after, figure, level, key) if any(o.key(level) == key for o in used) else before
    standing = {(o.cook, o.piece) for o in used} - outliers
    counts = sum((o.cook, o.piece) in standing for o in data)
    proposed = min(MOST_FACTOR, max(LEAST_FACTOR, round(now.factor(), 2)))
    return Learnt(
        figure,
        level,
        key,
        name,
        model.title,
        model.line,
        _band(before),
        _band(now),
        in_use,
        proposed,
        abs(math.log(proposed / in_use)) > SAME_FRAC,
        is_sure(_band(now)),
        counts,
        tuple(
            Datum(
                o.cook,
                o.piece,
                _band(Estimate(o.value, error_sd(o))),
                o.observed,
                o.usual,
                (o.cook, o.piece) in outliers,
                o.aside,
            )
            for o in sorted(data, key=lambda o: (o.at, o.cook, o.piece))
        ),
        _says(figure, _band(now), counts),
        model.source,
    )


def _band(e: Estimate) -> Band:
    return Band(e.factor(-P90), e.factor(), e.factor(P90))


def _says(figure: LearntFigure, factor: Band, counts: int) -> Phrase:
    model = FIGURES[figure]
    if not counts:
        return say("Nothing counts yet")
    n = ph.count(counts)
    if abs(math.log(factor.usual)) <= SAME_FRAC:
        return say(f"As the tables say, from {{n}} {model.seen}", n=n)
    word = model.more if factor.usual > 1.0 else model.less
    tail = "" if is_sure(factor) else "; it may still be chance"
    by = ph.frac(abs(factor.usual - 1.0))
    return say(f"{word} than the tables say, by {{by}}, from {{n}} {model.seen}{tail}", by=by, n=n)


def is_sure(factor: Band) -> bool:
    """Whether a factor's range lies on one side of what the tables say.

    Parameters
    ----------
    factor : Band
        Its middle eight tenths, about 1.

    Returns
    -------
    bool
        Whether it is more than chance.
    """
    return factor.low > 1.0 or factor.high < 1.0
