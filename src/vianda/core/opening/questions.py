"""The questions whose answers would narrow a first plan most."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.counsel.rule import Change
from vianda.core.model.edit import Choose, SetFigure, SwapMeat
from vianda.core.model.styles import FLAT
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.figures import Figures

# A question that removes less of a doubt than this is not worth the cook's time (ours).
LEAST_GAIN = 0.05


@dataclass(frozen=True, slots=True)
class Question:
    """A question that would narrow the plan, with ready answers; ``gain`` is the part of a doubt it removes."""

    text: Phrase
    why: Phrase
    answers: tuple[Change, ...]
    gain: float


def questions_of(figures: Figures) -> tuple[Question, ...]:
    """The two questions that would narrow the plan most.

    Each is scored by how much of the present doubt its best answer removes.
    """
    asked = (_ask_fat(figures), _ask_thickness(figures), _ask_plate(figures))
    candidates = [q for q in asked if q is not None and q.gain > LEAST_GAIN]
    return tuple(sorted(candidates, key=lambda q: -q.gain)[:2])


def _ask_fat(figures: Figures) -> Question | None:
    blend = figures.blend
    width = blend.fat_high_frac - blend.fat_low_frac
    worst = max(blend.parts, key=lambda p: p.doubt_share_frac)
    if worst.meat != "mince-unknown" or width <= 0:
        return None
    answers = []
    narrowest = width
    for fat in (0.05, 0.10, 0.15, 0.20, 0.30):
        meat = figures.larder.label_for_fat(fat)
        narrowest = min(narrowest, (meat.fat_high_frac - meat.fat_low_frac) * worst.share_frac)
        answers.append(Change(say("{fat} fat", fat=ph.frac(meat.fat_usual_frac)), SwapMeat(worst.meat, meat.key)))
    return Question(
        say("What does the label say about fat?"),
        say(
            "Now it may be {band}; a label narrows that to about {n} points.",
            band=ph.frac(blend.fat_low_frac, blend.fat_high_frac),
            n=ph.number(0.04 * 100),
        ),
        tuple(answers),
        1 - narrowest / width,
    )


def _minutes_width(figures: Figures) -> float:
    return figures.heat.on_heat_s.high - figures.heat.on_heat_s.low


def _ask_thickness(figures: Figures) -> Question | None:
    """Over the thicknesses of the style the minutes run from–to; one thickness narrows that."""
    low, high = figures.style.thickness_mm
    if high <= low:
        return None
    try:
        ends = [
            compute(
                replace(figures.formula, shape=replace(figures.formula.shape, thickness_mm=t)),
                larder=figures.larder,
                kitchen=figures.kitchen,
            ).heat.on_heat_s
            for t in (low, high)
        ]
    except CoreError:
        return None
    whole = max(e.high for e in ends) - min(e.low for e in ends)
    gain = 1 - _minutes_width(figures) / whole if whole > 0 else 0.0
    middle = (low + high) / 2
    answers = tuple(Change(say("{t}", t=ph.length(t)), SetFigure("thickness", t)) for t in (low, middle, high))
    return Question(
        say("How thick will you make them?" if figures.style.form in FLAT else "How tall will it be?"),
        say(
            "From {low} to {high} the time on the heat runs {time}.",
            low=ph.length(low),
            high=ph.length(high),
            time=ph.duration(min(e.low for e in ends), max(e.high for e in ends)),
        ),
        answers,
        gain,
    )


def _ask_plate(figures: Figures) -> Question | None:
    """Two surfaces at hand: which one decides how many waves there are."""
    others = [s for s in figures.kitchen.surfaces if s.kind in figures.style.surfaces and s.key != figures.surface.key]
    if not others or figures.stove.waves == 1:
        return None
    answers = tuple(Change(say("{s}", s=ph.word(s.name)), Choose("surface", s.key)) for s in (figures.surface, *others))
    return Question(
        say("Is there a larger surface?"),
        say("On the {s} it takes {n} waves.", s=ph.word(figures.surface.name), n=ph.count(figures.stove.waves)),
        answers[1:],
        1 - 1 / figures.stove.waves,
    )
