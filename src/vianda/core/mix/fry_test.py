"""The fried teaspoon: what it tastes of, and what the rest of the batch is given for it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.batch.salt_ledger import SaltFigures
from vianda.core.mix.panade import PanadeFigures
from vianda.core.model.edit import SetFigure

Verdict = Literal["bland", "salty", "falls-apart", "tight"]
# A heaped teaspoon of mix, raw (from memory); one fifth of a per cent is the least most people taste (ours).
TEST_G = 8.0
SALT_STEP_FRAC = 0.002
BINDER_STEP_FRAC = 0.01
EGG_STEP_FRAC = 0.02


@dataclass(frozen=True, slots=True)
class Correction:
    """What a verdict asks for in the rest of the batch, in grams and in words, and the edit for next time.

    ``salt_tsp`` is of this kitchen's salt. ``plain_meat_g`` is meat without salt that would bring a salty mix back.
    """

    verdict: Verdict
    title: str
    text: Phrase
    next_time: Phrase
    edit: SetFigure
    salt_g: float
    salt_tsp: float
    crumb_g: float
    liquid_g: float
    egg_g: float
    plain_meat_g: float
    rest_g: float


def corrections(
    *, salt: SaltFigures, panade: PanadeFigures, egg_frac: float, mix_mass_g: float, meat_mass_g: float, tests: int = 1
) -> tuple[Correction, ...]:
    """A correction for each verdict, for what is left of the batch after the tests.

    Bland: 0.2 % of the remaining meat in salt. Salty: nothing can be taken out, so unsalted meat is worked in until
    salt stands 0.2 % lower: m × 0.002 ÷ (s − 0.002). Falls apart: one part in a hundred more crumb with liquid to match
    its state now, and two of egg. Tight: one part of crumb and its liquid, no egg.

    Parameters
    ----------
    salt : SaltFigures
        The salt figures of the batch.
    panade : PanadeFigures
        Crumb and liquid of the mix.
    egg_frac : float
        Egg by mass of the meat, 0–1.
    mix_mass_g : float
        Mass of the whole mix, g.
    meat_mass_g : float
        Mass of the meat in it, g.
    tests : int, default 1
        Number of tests, 1 or more (count).

    Returns
    -------
    tuple[Correction, ...]
        Each: what a verdict asks for in the rest of the batch, in grams and in words, and the edit for next time.

    Examples
    --------
    A bland mix with a kilogram of meat left in it is given 2 g of salt.
    """
    rest = max(0.0, mix_mass_g - tests * TEST_G)
    meat = meat_mass_g * rest / mix_mass_g
    soft = (panade.edges[2] + panade.edges[3]) / 2 if panade.state != "none" else 1.9
    ratio = panade.ratio if panade.state in ("stiff", "soft") else min(soft, 1.5)
    crumb = BINDER_STEP_FRAC * meat
    bland = SALT_STEP_FRAC * meat
    now = salt.salt_frac
    less = max(0.0, now - SALT_STEP_FRAC)
    plain = meat * SALT_STEP_FRAC / less if less > 0 else 0.0
    more_crumb = panade.crumb_per_meat_frac + BINDER_STEP_FRAC
    egg_g, liquid_g = EGG_STEP_FRAC * meat, crumb * ratio
    return (
        Correction(
            "bland",
            "Bland",
            say(
                "Work {g} more salt through the {rest} left: {tsp} teaspoons",
                g=ph.mass(bland),
                rest=ph.mass(rest),
                tsp=ph.number(bland / salt.g_per_tsp),
            ),
            say("Salt {s}", s=ph.fine_frac(now + SALT_STEP_FRAC)),
            SetFigure("salt", now + SALT_STEP_FRAC),
            bland,
            bland / salt.g_per_tsp,
            0.0,
            0.0,
            0.0,
            0.0,
            rest,
        ),
        Correction(
            "salty",
            "Too salty",
            say("Nothing takes it out: {g} of unsalted meat would bring it down a step", g=ph.mass(plain)),
            say("Salt {s}", s=ph.fine_frac(less)),
            SetFigure("salt", less),
            0.0,
            0.0,
            0.0,
            0.0,
            0.0,
            plain,
            rest,
        ),
        Correction(
            "falls-apart",
            "Falls apart",
            say(
                "{egg} of beaten egg, or {crumb} of crumb wetted with {liquid}",
                egg=ph.mass(egg_g),
                crumb=ph.mass(crumb),
                liquid=ph.mass(liquid_g),
            ),
            say("Egg {p}", p=ph.per_hundred(egg_frac + EGG_STEP_FRAC)),
            SetFigure("group", egg_frac + EGG_STEP_FRAC, item="egg"),
            0.0,
            0.0,
            crumb,
            liquid_g,
            egg_g,
            0.0,
            rest,
        ),
        Correction(
            "tight",
            "Tight, springy",
            say(
                "{crumb} of crumb wetted with {liquid}, folded in with few strokes",
                crumb=ph.mass(crumb),
                liquid=ph.mass(crumb * max(ratio, 1.0)),
            ),
            say("Crumb {p}", p=ph.per_hundred(more_crumb)),
            SetFigure("group", more_crumb, item="crumb"),
            0.0,
            0.0,
            crumb,
            crumb * max(ratio, 1.0),
            0.0,
            0.0,
            rest,
        ),
    )
