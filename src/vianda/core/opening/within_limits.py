"""Limits kept in the formula, and what breaks them swapped or left out."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.mix.limits import BY_ALLERGEN, BY_SPECIES, TITLES, Breach, Swap, breaks, swaps_for
from vianda.core.model.edit import SwapIngredient, TakeOut
from vianda.core.model.formula import BlendPart, Formula, Limit, Mix
from vianda.core.opening.draft import PlanDraft


def limited(draft: PlanDraft, formula: Formula) -> Formula:
    """Limits kept in the formula, and what breaks them swapped or left out.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.
    formula : Formula
        The formula so far.

    Returns
    -------
    Formula
        Within its limits as far as swaps go.
    """
    limits: list[Limit] = [limit for limit in TITLES if limit in draft.said.limits]
    limits.sort(key=lambda limit: draft.said.limits.index(limit))
    if "kosher-asked" in draft.said.limits:
        kosher: tuple[Limit, ...] = ("no-pork", "no-dairy")
        limits += [x for x in kosher if x not in limits]
        draft.remarks.append(
            say("Kosher is kept as no pork and no dairy with the meat; slaughter is the supplier's to show.")
        )
    if "halal" in limits:
        draft.remarks.append(
            say("Halal is kept as no pork, gelatine, lard or alcohol; the slaughter is the supplier's to show.")
        )
    kept: tuple[Limit, ...] = tuple(limits)
    without = tuple(dict.fromkeys(draft.said.without))[:40]
    mix: Mix = replace(formula.mix, avoid=kept, without=without)
    formula = replace(formula, mix=mix)
    for line in tuple(formula.mix.lines):
        broken = next((x for x in kept if breaks(x, line.ingredient, inventory=draft.inventory)), None)
        if broken is None and line.ingredient not in without:
            continue
        formula = _swapped(draft, formula, line.ingredient, broken, kept)
    formula = _bread_within(draft, formula, kept)
    for limit in kept:
        species = BY_SPECIES.get(limit)
        held = [p.meat for p in formula.parts if draft.inventory.meat(p.meat).species == species]
        if species and held and not draft.wish.parts_said and limit == "no-beef":
            formula = replace(formula, parts=(BlendPart("lamb-ground", 1.0),))
            draft.assumed.append(say("ground lamb, since no beef is wanted"))
    return formula


def _swapped(draft: PlanDraft, formula: Formula, key: str, broken: Limit | None, kept: tuple[Limit, ...]) -> Formula:
    name = draft.inventory.pantry[key].name
    swaps: tuple[Swap, ...] = ()
    if broken is not None:
        swaps = swaps_for(Breach(broken, "line", key, name), inventory=draft.inventory)
    present = {line.ingredient for line in formula.mix.lines}
    for swap in swaps:
        if swap.to and swap.to not in present and not any(breaks(x, swap.to, inventory=draft.inventory) for x in kept):
            to = draft.inventory.pantry[swap.to].name
            draft.assumed.append(
                say("{a} gives way to {b}: {cost}", a=ph.word(name), b=ph.word(to.lower()), cost=ph.word(swap.cost))
            )
            return draft.edit(formula, SwapIngredient(key, swap.to), say("{a}", a=ph.word(name)))
    draft.assumed.append(say("{a} is left out", a=ph.word(name)))
    return draft.edit(formula, TakeOut(key), say("{a}", a=ph.word(name)))


def _bread_within(draft: PlanDraft, formula: Formula, kept: tuple[Limit, ...]) -> Formula:
    unwanted = {a for limit in kept for a in BY_ALLERGEN.get(limit, ())}
    bun = draft.kitchen.bun(formula.shape.bun)
    if formula.dish.dish != "burger":
        return formula
    if not any(a.split(" (")[0] in unwanted for a in bun.allergens):
        return formula
    others = [
        b
        for b in draft.kitchen.buns
        if not any(a.split(" (")[0] in unwanted for a in b.allergens) and (b.kind == bun.kind or b.diameter_mm == 0)
    ]
    best = max(others, key=lambda b: b.diameter_mm, default=None)
    if best is None:
        return formula
    draft.assumed.append(say("{a} gives way to {b}", a=ph.word(bun.name), b=ph.word(best.name.lower())))
    return replace(formula, shape=replace(formula.shape, bun=best.key))
