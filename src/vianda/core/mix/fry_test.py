"""The fried teaspoon: what it tastes of, and what the rest of the batch is given for it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.mix.panade import PanadeFigures
from vianda.core.mix.salt_ledger import SaltFigures

Verdict = Literal["bland", "salty", "falls-apart", "tight"]
# A heaped teaspoon of mix, raw (from memory); one fifth of a per cent is the least most people taste (ours).
TEST_G = 8.0
SALT_STEP_FRAC = 0.002
BINDER_STEP_FRAC = 0.01
EGG_STEP_FRAC = 0.02


@dataclass(frozen=True, slots=True)
class Correction:
    """What a verdict asks for in the rest of the batch, in grams, and what the formula becomes (0–1 of the meat).

    ``salt_tsp`` is of this kitchen's salt. ``plain_meat_g`` is meat without salt that would bring a salty mix back.
    """

    verdict: Verdict
    salt_g: float
    salt_tsp: float
    crumb_g: float
    liquid_g: float
    egg_g: float
    plain_meat_g: float
    rest_g: float


def corrections(
    *, salt: SaltFigures, panade: PanadeFigures, mix_mass_g: float, meat_mass_g: float, tests: int = 1
) -> tuple[Correction, ...]:
    """A correction for each verdict, for what is left of the batch after the tests.

    Bland: 0.2 % of the remaining meat in salt. Salty: nothing can be taken out, so unsalted meat is worked in until
    salt stands 0.2 % lower: m × 0.002 ÷ (s − 0.002). Falls apart: one part in a hundred more crumb with liquid to match
    its state now, and two of egg. Tight: one part of crumb and its liquid, no egg.

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
    plain = meat * SALT_STEP_FRAC / (now - SALT_STEP_FRAC) if now > SALT_STEP_FRAC else 0.0
    return (
        Correction("bland", bland, bland / salt.g_per_tsp, 0.0, 0.0, 0.0, 0.0, rest),
        Correction("salty", 0.0, 0.0, 0.0, 0.0, 0.0, plain, rest),
        Correction("falls-apart", 0.0, 0.0, crumb, crumb * ratio, EGG_STEP_FRAC * meat, 0.0, rest),
        Correction("tight", 0.0, 0.0, crumb, crumb * max(ratio, 1.0), 0.0, 0.0, rest),
    )
