"""The opening line for what is no plain burger: balls, loaves, sauce with their schools; what is filled or spread."""

from __future__ import annotations

import math
import re
from dataclasses import replace

from vianda.core.batch.batch import batch_of
from vianda.core.editing.choose import choose_style
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import Formula
from vianda.core.model.styles import Style, style_of

# What people call a dish, and the style it starts with; the first that is found counts.
DISHES: tuple[tuple[re.Pattern[str], str], ...] = (
    (
        re.compile(r"\b(?:simmered|in sauce|stewed) (?:meat ?)?balls?\b|\b(?:meat ?)?balls? in (?:tomato )?sauce\b"),
        "ball-simmered",
    ),
    (re.compile(r"\b(?:meat ?)?balls?\b|\bpolpette\b|\bkofte\b"), "ball-baked"),
    (
        re.compile(
            r"\b(?:filled|stuffed) (?:meat ?)?loa(?:f|ves)\b|\b(?:meat ?)?loa(?:f|ves) with (?:boiled )?eggs?\b"
        ),
        "loaf-filled",
    ),
    (re.compile(r"\b(?:meat ?)?loa(?:f|ves) in a tin\b|\btin(?:ned)? (?:meat ?)?loa(?:f|ves)\b"), "loaf-tin"),
    (re.compile(r"\btray (?:meat ?)?loa(?:f|ves)\b|\b(?:meat ?)?loa(?:f|ves) in a tray\b"), "loaf-tray"),
    (re.compile(r"\b(?:meat ?)?loa(?:f|ves)\b"), "loaf-free"),
    (re.compile(r"\b(?:filled|stuffed) burgers?\b|\bburgers? (?:filled|stuffed)(?: with cheese)?\b"), "filled-burger"),
    (re.compile(r"\b(?:smash(?:ed)? )?tacos?\b"), "smashed-taco"),
    (re.compile(r"\brag[uù]\b|\bmeat sauce\b|\bbolognese\b"), "ragu"),
)
NOUNS = {"burger": "burgers", "meatball": "meatballs", "meatloaf": "meatloaf", "sauce": "meat sauce"}
PIECES_EACH = 3


def made_as(
    formula: Formula,
    style_key: str,
    *,
    meat_g: float | None,
    pieces: int | None,
    inventory: Inventory,
    kitchen: Kitchen,
) -> Formula:
    """A first formula made into another dish, divided as that dish is: so many balls each, or guests to a loaf.

    ``meat_g`` is the meat at hand, which then decides the batch; ``pieces`` what the line said.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    style_key : str
        Key of the style.
    meat_g : float | None
        Meat, g. None for none.
    pieces : int | None
        Number of pieces said, if any (count).
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Formula
        The changed formula.
    """
    style = style_of(style_key)
    surface = formula.heat.surface
    said = kitchen.surface(surface).kind in style.surfaces
    changed = choose_style(formula, style_key, inventory=inventory, kitchen=kitchen)
    if said:
        changed = replace(changed, heat=replace(changed.heat, surface=surface))
    if meat_g is not None:
        changed = replace(changed, shape=replace(changed.shape, portioning="by_batch", batch_mass_g=meat_g))
    else:
        changed = replace(changed, shape=replace(changed.shape, portioning="by_piece"))
    return _divided(changed, style, pieces=pieces, inventory=inventory, kitchen=kitchen)


def _divided(formula: Formula, style: Style, *, pieces: int | None, inventory: Inventory, kitchen: Kitchen) -> Formula:
    guests = formula.dish.guests
    mix_g = batch_of(formula, inventory=inventory, kitchen=kitchen).portions.batch_mass_g
    by_batch = formula.shape.portioning == "by_batch"
    if style.dish in ("meatball", "burger"):
        each = style.pieces_per_guest_start
        if pieces is not None:
            each = max(1, round(pieces / guests))
        elif by_batch:
            each = round(mix_g / guests / style.piece_mass_start_g)
        return replace(formula, dish=replace(formula.dish, pieces_per_guest=max(1, min(12, each))))
    if style.dish == "meatloaf" and (by_batch or pieces is not None):
        loaves = pieces or max(1, round(mix_g / style.piece_mass_start_g))
        share = max(1, min(40, math.ceil(guests / loaves)))
        return replace(formula, dish=replace(formula.dish, guests_per_piece=share))
    return formula
