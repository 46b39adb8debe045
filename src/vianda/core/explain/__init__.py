"""The working of every figure on the bench, with this formula's numbers in it: one file a step."""

from __future__ import annotations

from collections.abc import Callable

from vianda.core.basis.working import Working
from vianda.core.batch.lines import per_meat
from vianda.core.explain import heat, meat, mix, portion, shape
from vianda.core.mix.fry_test import Correction, corrections
from vianda.core.pipeline.figures import Figures

_WORKINGS: dict[str, Callable[[Figures], Working]] = {
    "lean_to_fat": meat.lean_to_fat,
    "part_masses": meat.part_masses,
    "pieces": shape.pieces,
    "cooked_mass": shape.cooked_mass,
    "diameter": shape.diameter,
    "salt": mix.salt,
    "panade": mix.panade,
    "school": mix.school,
    "whole": mix.whole,
    "bind": mix.bind,
    "looseness": mix.looseness,
    "mix_temp": mix.mix_temp,
    "weigh_out": mix.weigh_out,
    "minutes": heat.minutes,
    "core": heat.core,
    "cost": portion.cost,
    "allergens": portion.allergens,
    "portion": portion.portion,
    "waves": shape.waves,
    "names": meat.names,
    "chances": meat.chances,
    "grind": meat.grind,
}


def corrections_of(figures: Figures) -> tuple[Correction, ...]:
    """What to change when the fried teaspoon tastes otherwise than wanted.

    Parameters
    ----------
    figures : Figures
        The results of all stages.

    Returns
    -------
    tuple[Correction, ...]
        Each: what a verdict asks for in the rest of the batch, in grams and in words, and the edit for next time.
    """
    return corrections(
        salt=figures.salt,
        panade=figures.mix.panade,
        egg_frac=per_meat(figures.batch.entered, "egg"),
        mix_mass_g=figures.batch.mix_mass_g,
        meat_mass_g=figures.batch.meat_mass_g,
    )


def workings_of(figures: Figures) -> dict[str, Working]:
    """The working of each figure, by id.

    Parameters
    ----------
    figures : Figures
        The results of all stages.

    Returns
    -------
    dict[str, Working]
        The working of each figure, by id.
    """
    return {key: explain(figures) for key, explain in _WORKINGS.items()}
