"""From what a line wishes to a formula: dish, division, sizes, heat, salt, limits, each by the edits of the bench."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.batch.batch import batch_of
from vianda.core.batch.salt_ledger import START_SALT_FRAC
from vianda.core.editing.choose import choose_style
from vianda.core.model.edit import AddToMix, Choose, SetFigure
from vianda.core.model.formula import LONGEST_REMARK, BlendPart, DishChoice, Formula, Heat, Seasoning, Shape
from vianda.core.model.styles import Style
from vianda.core.opening.division import divided, guests_of
from vianda.core.opening.draft import PlanDraft
from vianda.core.opening.place import on_surface, placed, surface_kind
from vianda.core.opening.settle import style_for
from vianda.core.opening.sizes import breaded, moulded, sized
from vianda.core.opening.within_limits import limited


def planned(draft: PlanDraft) -> Formula:
    """The formula of one dish, with everything the line said that can be kept.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.

    Returns
    -------
    Formula
        The design of one dish.
    """
    kind = surface_kind(draft)
    flat = [f.value for f in draft.said.thickness] + [f.value for f in draft.said.lengths if f.value <= 45]
    style = style_for(draft.wish, surface=kind, thickness_mm=flat[0] if flat else None, ruled_out=draft.said.not_styles)
    guests = guests_of(draft, style)
    formula = _start(draft, style, guests)
    formula = on_surface(draft, formula, style)
    formula = divided(draft, formula, style, guests)
    formula = sized(draft, formula, style)
    formula = moulded(draft, formula, style)
    formula = _heated(draft, formula)
    formula = _blended(draft, formula)
    formula = _added(draft, formula)
    formula = limited(draft, formula)
    formula = _salted(draft, formula)
    formula = breaded(draft, formula)
    if draft.said.grinder:
        formula = replace(formula, grind=replace(formula.grind, tool=draft.said.grinder))
    notes = list(dict.fromkeys(n.text for n in draft.said.notes))
    return replace(formula, remark="; ".join(notes)[:LONGEST_REMARK])


def _start(draft: PlanDraft, style: Style, guests: int) -> Formula:
    kitchen = draft.kitchen
    kinds = [k for k in style.surfaces if k not in draft.said.not_on] or list(style.surfaces)
    first = next((s for k in kinds if (s := kitchen.surface_of_kind(k))), kitchen.surfaces[0])
    start = Formula(
        name=f"{style.title} for {guests}",
        dish=DishChoice("burger", "smashed", guests, 1),
        parts=draft.wish.parts,
        seasoning=Seasoning(START_SALT_FRAC, "surface"),
        shape=Shape("by_piece", style.piece_mass_start_g, 500.0, style.thickness_start_mm, kitchen.buns[0].key),
        heat=Heat(first.key, style.surface_temp_start_c, 71.0),
    )
    started = choose_style(start, style.key, inventory=draft.inventory, kitchen=kitchen)
    if draft.said.not_on:
        started = placed(draft, started, first.key)
    return replace(started, heat=replace(started.heat, target_core_temp_c=start.heat.target_core_temp_c))


def _heated(draft: PlanDraft, formula: Formula) -> Formula:
    if draft.said.surface_temp:
        value = draft.said.surface_temp[0].value
        formula = draft.edit(formula, SetFigure("surface_temp", value), say("{t}", t=ph.temp(value)))
    if draft.said.core:
        value = draft.said.core[0].value
        formula = draft.edit(formula, SetFigure("target_core_temp", value), say("core {t}", t=ph.temp(value)))
    return formula


def _blended(draft: PlanDraft, formula: Formula) -> Formula:
    """Two meats and a fat content said: shares by the Pearson square, where it can be reached."""
    aim = draft.wish.aim_fat
    if aim is None:
        return formula
    fats = [draft.inventory.fat_of(p.meat).usual_frac for p in formula.parts]
    even = len({round(p.share_frac, 6) for p in formula.parts}) == 1
    if len(fats) == 2 and even and min(fats) < aim < max(fats):
        share = (aim - fats[1]) / (fats[0] - fats[1])
        draft.assumed.append(say("shares for {r} lean to fat, by the Pearson square", r=ph.lean_to_fat(aim)))
        first, second = formula.parts
        return replace(formula, parts=(BlendPart(first.meat, share), BlendPart(second.meat, 1.0 - share)))
    now = sum(p.share_frac * f for p, f in zip(formula.parts, fats, strict=True))
    draft.remarks.append(
        say(
            "{want} fat was said; these meats in these shares usually have {now}. The Meat step can solve for it.",
            want=ph.frac(aim),
            now=ph.frac(now),
        )
    )
    return formula


def _added(draft: PlanDraft, formula: Formula) -> Formula:
    for text in draft.said.adds:
        formula = draft.edit(formula, AddToMix(text), say("{t}", t=ph.word(text)))
    return formula


def _salted(draft: PlanDraft, formula: Formula) -> Formula:
    said = draft.said
    if said.no_salt:
        return replace(formula, seasoning=Seasoning(0.0, "none"))
    if said.salt_place:
        formula = draft.edit(
            formula,
            Choose("salt_place", said.salt_place),
            say("salt on the surface") if said.salt_place == "surface" else say("salt mixed in"),
        )
    frac = said.salt_frac[0].value if said.salt_frac else None
    if frac is None and said.salt_mass:
        meat = batch_of(formula, inventory=draft.inventory, kitchen=draft.kitchen).meat_mass_g
        frac = said.salt_mass[0].value / meat
    if frac is None:
        return formula
    return draft.edit(formula, SetFigure("salt", frac), say("salt {s}", s=ph.fine_frac(frac)))
