"""What is gathered while a line becomes a formula: what was assumed, and what could not be kept."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.edit import Edit, SetFigure
from vianda.core.model.formula import Formula
from vianda.core.opening.wish import Wish
from vianda.core.pipeline.compute import prepare
from vianda.core.reading.said import Said

# What the field allows and the rest of a plan may not bear.
TRIED = frozenset({"thickness", "diameter", "length", "surface_temp", "cooked_mass"})


class PlanDraft:
    """One wish on its way to a formula."""

    def __init__(self, wish: Wish, said: Said, *, inventory: Inventory, kitchen: Kitchen) -> None:
        self.wish, self.said = wish, said
        self.inventory, self.kitchen = inventory, kitchen
        self.assumed: list[Phrase] = list(wish.assumed)
        self.remarks: list[Phrase] = list(wish.remarks)
        self.surface_said = False
        # What of the line was told not to be kept, by figure.
        self.told: set[str] = set()

    def edit(self, formula: Formula, edit: Edit, what: Phrase) -> Formula:
        """An edit as on the bench; what it refuses is said, and the rest stands.

        Parameters
        ----------
        formula : Formula
            The formula so far.
        edit : Edit
            What is changed.
        what : Phrase
            What it is called in the remark when it is refused.

        Returns
        -------
        Formula
            As changed; as it was when the edit is refused, with a remark.
        """
        try:
            changed = apply_edit(formula, edit, inventory=self.inventory, kitchen=self.kitchen)
            if isinstance(edit, SetFigure) and edit.figure in TRIED:
                # A size may be allowed and yet be one that usual practice knows nothing of.
                prepare(changed, inventory=self.inventory, kitchen=self.kitchen)
            return changed
        except CoreError as refused:
            self.remarks.append(say("{what}: {why}", what=ph.word(plain_text(what)), why=ph.word(refused.detail)))
            if isinstance(edit, SetFigure):
                self.told.add({"target_core_temp": "core", "surface_temp": "surface"}.get(edit.figure, edit.figure))
            return formula


def plain_text(text: Phrase) -> str:
    """A short phrase as plain text in metric units, for a place inside another sentence.

    Parameters
    ----------
    text : Phrase
        A phrase with its amounts.

    Returns
    -------
    str
        As it is read, in g, mm and °C.
    """
    out = text.text
    for name, amount in text.amounts.items():
        unit = {"mass_g": " g", "length_mm": " mm", "temp_c": " °C"}.get(amount.kind, "")
        if amount.text is not None:
            shown = amount.text
        elif amount.kind in ("frac", "fine_frac"):
            shown = f"{(amount.value or 0) * 100:.3g} %"
        else:
            shown = f"{amount.value or 0:.4g}{unit}"
        out = out.replace("{" + name + "}", shown)
    return out
