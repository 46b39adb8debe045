"""Where it is cooked: the surface that the line names, or the nearest that this kitchen has."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.model.edit import Choose
from vianda.core.model.formula import Formula
from vianda.core.model.styles import Style
from vianda.core.opening.draft import PlanDraft


def surface_kind(draft: PlanDraft) -> str | None:
    """The kind of surface that the line names, or that is nearest to a tool it names.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.

    Returns
    -------
    str | None
        A kind; None: the line names none.
    """
    for how, key, _ in draft.said.surfaces:
        return draft.kitchen.surface(key).kind if how == "key" else key
    return next((near for _, near, _ in draft.said.tools if near), None)


def on_surface(draft: PlanDraft, formula: Formula, style: Style) -> Formula:
    """The formula on the surface that the line names, where its style is cooked there.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.
    formula : Formula
        The formula so far.
    style : Style
        Its style.

    Returns
    -------
    Formula
        On that surface, or where it was, with a remark.
    """
    for name, near, _ in draft.said.tools:
        found = draft.kitchen.surface_of_kind(near) if near else None  # type: ignore[arg-type]
        draft.remarks.append(
            say(
                "{tool}: not in this kitchen, and not computed here. The nearest is {surface}.",
                tool=ph.word(name.capitalize()),
                surface=ph.word(found.name if found else draft.kitchen.surface(formula.heat.surface).name),
            )
            if near
            else say("{tool}: kept as a note.", tool=ph.word(name.capitalize()))
        )
        if found is not None and found.kind in style.surfaces and not draft.said.surfaces:
            formula = placed(draft, formula, found.key)
    wanted = []
    for how, key, _ in draft.said.surfaces:
        surface = draft.kitchen.surface(key) if how == "key" else draft.kitchen.surface_of_kind(key)  # type: ignore[arg-type]
        if surface is None:
            draft.remarks.append(
                say(
                    "No {kind} in this kitchen: planned on {surface}. Add one under Kitchen.",
                    kind=ph.word({"grate": "grill", "plate": "flat plate"}.get(key, key)),
                    surface=ph.word(draft.kitchen.surface(formula.heat.surface).name),
                )
            )
        else:
            wanted.append(surface)
    fits = next((s for s in wanted if s.kind in style.surfaces), None)
    if fits is not None:
        draft.surface_said = True
        return placed(draft, formula, fits.key)
    for surface in wanted[:1]:
        now = draft.kitchen.surface(formula.heat.surface)
        if now.key != surface.key:
            draft.remarks.append(
                say(
                    "{style} is computed on {now} here, not on {surface}: the heat there is not in our rules yet.",
                    style=ph.word(style.title),
                    now=ph.word(now.name),
                    surface=ph.word(surface.name),
                )
            )
    return formula


def placed(draft: PlanDraft, formula: Formula, key: str) -> Formula:
    """The formula on a surface of the kitchen.

    Parameters
    ----------
    draft : PlanDraft
        The wish; what was assumed and could not be kept is noted there.
    formula : Formula
        The formula so far.
    key : str
        A surface of the kitchen.

    Returns
    -------
    Formula
        On that surface.
    """
    if formula.heat.surface == key:
        return formula
    return draft.edit(formula, Choose("surface", key), say("surface"))
