"""The plan against what was said: a figure that the line holds and the plan does not is told, never dropped."""

from __future__ import annotations

from collections.abc import Collection, Iterator

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.model.styles import FLAT
from vianda.core.opening.wish import APART, Wish
from vianda.core.pipeline.figures import Prepared
from vianda.core.reading.said import Said

# A size or a temperature is kept when the plan is within so much of it (ours): a fraction, and K.
SAME_SIZE, SAME_TEMP_K = 0.03, 0.6
# A weight of all the meat is kept within this fraction: pieces are rounded to whole grams (ours).
SAME_MASS = 0.02
# Meat for one person, raw, beyond which a plan is asked about (ours), g.
LEAST_PORTION_G, MOST_PORTION_G = 45.0, 500.0
# Flat pieces up to here are said to be so thick, wider ones to be so wide (ours), mm.
THICKEST_MM = 45.0


def not_kept(wish: Wish, said: Said, ready: Prepared, *, told: Collection[str] = ()) -> list[Phrase]:
    """What the line says in figures and the plan does not have.

    Parameters
    ----------
    wish : Wish
        What is to be made, as settled.
    said : Said
        The facts of the line.
    ready : Prepared
        The plan, worked out.
    told : Collection[str], default ()
        What is told already: "pieces", "people", "each", "mass", "thickness", "diameter", "core" or "surface".

    Returns
    -------
    list[Phrase]
        A sentence for each figure, with the one of the plan beside it.
    """
    found = [
        *_counts(wish, ready),
        *_masses(wish, ready),
        *_portion(wish, ready),
        *_sizes(said, ready),
        *_heat(said, ready),
    ]
    return [sentence for what, sentence in found if what not in told]


def _counts(wish: Wish, ready: Prepared) -> Iterator[tuple[str, Phrase]]:
    made, fed = ready.batch.portions.pieces, ready.context.formula.dish.guests
    if wish.pieces is not None and wish.pieces != made and ready.context.style.form != "crumbled":
        yield "pieces", say("{a} pieces were said; the plan makes {b}.", a=ph.count(wish.pieces), b=ph.count(made))
    if wish.guests is not None and wish.guests != fed:
        yield "people", say("{a} people were said; the plan feeds {b}.", a=ph.count(wish.guests), b=ph.count(fed))


def _masses(wish: Wish, ready: Prepared) -> Iterator[tuple[str, Phrase]]:
    each, total, made = wish.each_g, wish.total_g, ready.batch.portions.piece_mass_g
    if each is not None and abs(made - each) > max(APART * each, 1.0):
        yield "each", say("{a} each was said; the plan has {b}.", a=ph.mass(each), b=ph.mass(made))
    shape = ready.context.formula.shape
    held = ready.batch.meat_mass_g if shape.portioning == "by_piece" else shape.batch_mass_g
    # Pieces of a mixture whose count and weight were said take the meat that they need.
    free = each is not None and wish.pieces is not None and ready.context.style.dish != "burger"
    if total is not None and not free and abs(held - total) > max(SAME_MASS * total, 1.0):
        yield "mass", say("{a} of meat was said; the plan takes {b}.", a=ph.mass(total), b=ph.mass(held))


def _portion(wish: Wish, ready: Prepared) -> Iterator[tuple[str, Phrase]]:
    """What is said may be meant otherwise where a person gets next to nothing, or more than anyone eats."""
    if wish.guests is None or ready.context.style.dish == "sauce":
        return
    each = ready.batch.meat_mass_g / wish.guests
    if not LEAST_PORTION_G <= each <= MOST_PORTION_G:
        n = ph.count(wish.guests)
        yield "portion", say("That is {m} of meat for each of {n}. Is it meant so?", m=ph.mass(each), n=n)


def _sizes(said: Said, ready: Prepared) -> Iterator[tuple[str, Phrase]]:
    flat = ready.context.style.form in FLAT
    thick = [*said.thickness, *(f for f in said.lengths if flat and f.value <= THICKEST_MM)]
    across = [*said.across, *(f for f in said.lengths if not flat or f.value > THICKEST_MM)]
    made_mm, wide_mm = ready.context.formula.shape.thickness_mm, ready.piece.shape.raw_diameter_mm
    if thick and flat and abs(made_mm - thick[0].value) > SAME_SIZE * thick[0].value:
        a, b = ph.length(thick[0].value), ph.length(made_mm)
        yield "thickness", say("{a} thick was said; the plan has {b}.", a=a, b=b)
    round_ = ready.context.style.form in (*FLAT, "ball")
    if across and round_ and abs(wide_mm - across[0].value) > SAME_SIZE * across[0].value:
        a, b = ph.length(across[0].value), ph.length(wide_mm)
        yield "diameter", say("{a} across was said; the plan has {b}.", a=a, b=b)


def _heat(said: Said, ready: Prepared) -> Iterator[tuple[str, Phrase]]:
    heat = ready.context.formula.heat
    if said.core and abs(heat.target_core_temp_c - said.core[0].value) > SAME_TEMP_K:
        a, b = ph.temp(said.core[0].value), ph.temp(heat.target_core_temp_c)
        yield "core", say("A core of {a} was said; the plan has {b}.", a=a, b=b)
    if said.surface_temp and abs(heat.surface_temp_c - said.surface_temp[0].value) > SAME_TEMP_K:
        a, b = ph.temp(said.surface_temp[0].value), ph.temp(heat.surface_temp_c)
        yield "surface", say("A surface at {a} was said; the plan has {b}.", a=a, b=b)
