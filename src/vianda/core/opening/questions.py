"""The questions whose answers would narrow a first plan most."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.counsel.rule import Change
from vianda.core.model.edit import Choose, SetFigure, SwapMeat
from vianda.core.model.styles import FLAT
from vianda.core.pipeline.compute import prepare
from vianda.core.pipeline.figures import Prepared

# A question that removes less of a uncertainty than this is not worth the cook's time (ours).
LEAST_GAIN = 0.05


@dataclass(frozen=True, slots=True)
class Question:
    """A question that would narrow the plan, with ready answers; ``gain`` is the part of a uncertainty it removes."""

    text: Phrase
    why: Phrase
    answers: tuple[Change, ...]
    gain: float


def questions_of(ready: Prepared) -> tuple[Question, ...]:
    """The two questions that would narrow the plan most.

    Each is scored by how much of the present uncertainty its best answer removes.

    Parameters
    ----------
    ready : Prepared
        The results of the stages before the heat.

    Returns
    -------
    tuple[Question, ...]
        Each: a question that would narrow the plan, with ready answers.
    """
    asked = (_ask_fat(ready), _ask_thickness(ready), _ask_plate(ready))
    candidates = [q for q in asked if q is not None and q.gain > LEAST_GAIN]
    return tuple(sorted(candidates, key=lambda q: -q.gain)[:2])


def _ask_fat(ready: Prepared) -> Question | None:
    blend = ready.meat.blend
    width = blend.fat_high_frac - blend.fat_low_frac
    worst = max(blend.parts, key=lambda p: p.uncertainty_share_frac)
    if worst.meat != "mince-unknown" or width <= 0:
        return None
    answers = []
    narrowest = width
    for fat in (0.05, 0.10, 0.15, 0.20, 0.30):
        meat = ready.context.inventory.label_for_fat(fat)
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


def _minutes_width(ready: Prepared) -> float:
    return ready.case.usual.on_heat_s.high - ready.case.usual.on_heat_s.low


def _ask_thickness(ready: Prepared) -> Question | None:
    """Over the thicknesses of the style the minutes run from–to; one thickness narrows that."""
    low, high = ready.context.style.thickness_mm
    if high <= low:
        return None
    try:
        ends = [
            prepare(
                replace(ready.context.formula, shape=replace(ready.context.formula.shape, thickness_mm=t)),
                inventory=ready.context.inventory,
                kitchen=ready.context.kitchen,
            ).case.usual.on_heat_s
            for t in (low, high)
        ]
    except CoreError:
        return None
    whole = max(e.high for e in ends) - min(e.low for e in ends)
    gain = 1 - _minutes_width(ready) / whole if whole > 0 else 0.0
    middle = (low + high) / 2
    answers = tuple(Change(say("{t}", t=ph.length(t)), SetFigure("thickness", t)) for t in (low, middle, high))
    return Question(
        say("How thick will you make them?" if ready.context.style.form in FLAT else "How tall will it be?"),
        say(
            "From {low} to {high} the time on the heat runs {time}.",
            low=ph.length(low),
            high=ph.length(high),
            time=ph.duration(min(e.low for e in ends), max(e.high for e in ends)),
        ),
        answers,
        gain,
    )


def _ask_plate(ready: Prepared) -> Question | None:
    """Two surfaces at hand: which one decides how many waves there are."""
    others = [
        s
        for s in ready.context.kitchen.surfaces
        if s.kind in ready.context.style.surfaces and s.key != ready.context.surface.key
    ]
    if not others or ready.case.laying.waves == 1:
        return None
    answers = tuple(
        Change(say("{s}", s=ph.word(s.name)), Choose("surface", s.key)) for s in (ready.context.surface, *others)
    )
    return Question(
        say("Is there a larger surface?"),
        say(
            "On the {s} it takes {n} waves.", s=ph.word(ready.context.surface.name), n=ph.count(ready.case.laying.waves)
        ),
        answers[1:],
        1 - 1 / ready.case.laying.waves,
    )
