"""Choices from a list: style, division, bun, surface, doneness, salt, schools, grinding, keeping, working."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.batch.batch import batch_of
from vianda.core.batch.salt_ledger import START_SALT_FRAC
from vianda.core.blend.schools import follow, school_of
from vianda.core.editing.choose_shape import choose_shape, usual_mould
from vianda.core.editing.set_shape import set_filling
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.doneness import target_for
from vianda.core.heat.floor import floors_for
from vianda.core.heat.methods import method_of, methods_for
from vianda.core.heat.plate_signs import FATS
from vianda.core.inventory.inventory import POULTRY, Inventory
from vianda.core.mix.schools import follow_mix, mix_school, schools_for
from vianda.core.model import edit as e
from vianda.core.model.formula import Formula, Keep, MixLine, SaltPlace, Work
from vianda.core.model.styles import BLOCKS, Style, style_of
from vianda.core.shape.bun_fit import fitting_bun
from vianda.core.shape.start_piece import start_piece


def choose(formula: Formula, edit: e.Choose, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """The formula with one thing chosen from a list.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.Choose
        The edit.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    UnknownItemError
        Divide by piece, by batch, or by both weights.
    """
    match edit.field:
        case "style":
            return choose_style(formula, edit.key, inventory=inventory, kitchen=kitchen)
        case "portioning":
            if edit.key not in ("by_piece", "by_batch", "by_weights"):
                raise UnknownItemError("Divide by piece, by batch, or by both weights.", field="/shape/portioning")
            # The new mode starts from what the old one came to, so that nothing jumps.
            shape = formula.shape
            now = batch_of(formula, inventory=inventory, kitchen=kitchen)
            meat = float(now.meat_weighed_g)
            piece = (now.portions.batch_mass_g - now.portions.left_g) / now.portions.pieces
            if edit.key == "by_batch":
                shape = replace(shape, portioning="by_batch", batch_mass_g=meat)
            elif edit.key == "by_piece":
                shape = replace(shape, portioning="by_piece", piece_mass_g=piece)
            else:
                shape = replace(shape, portioning="by_weights", batch_mass_g=meat, piece_mass_g=piece)
            return replace(formula, shape=shape)
        case "bun":
            kitchen.bun(edit.key, field="/shape/bun")
            return replace(formula, shape=replace(formula.shape, bun=edit.key))
        case "surface":
            return _on_surface(formula, edit.key, kitchen=kitchen)
        case "doneness":
            poultry = any(inventory.meat(p.meat).species in POULTRY for p in formula.parts)
            floors = floors_for(country=kitchen.country, setting=kitchen.setting, poultry=poultry)
            target = target_for(edit.key, floor_c=floors.leading.temp_c)
            return replace(formula, heat=replace(formula.heat, target_core_temp_c=target))
        case "school":
            parts = follow(school_of(edit.key, field="/parts"), formula.parts, inventory=inventory)
            return replace(formula, parts=parts)
        case "grind_tool":
            if edit.key:
                kitchen.grinder(edit.key, field="/grind/tool")
            return replace(formula, grind=replace(formula.grind, tool=edit.key))
        case "keep":
            if edit.key not in ("fresh", "made-ahead", "frozen"):
                raise UnknownItemError("Used fresh, made ahead, or frozen.", field="/grind/keep")
            kept: Keep = edit.key  # type: ignore[assignment]
            return replace(formula, grind=replace(formula.grind, keep=kept))
        case "salt_place":
            if edit.key not in ("surface", "mixed", "none"):
                raise UnknownItemError(
                    "Salt goes on the surface, into the mix, or nowhere.", field="/seasoning/salt_place"
                )
            frac = formula.seasoning.salt_frac or START_SALT_FRAC
            chosen: SaltPlace = edit.key  # type: ignore[assignment]
            return replace(formula, seasoning=replace(formula.seasoning, salt_place=chosen, salt_frac=frac))
        case "mix_school":
            return follow_mix(formula, mix_school(edit.key, field="/mix"), inventory=inventory)
        case "mould" | "ends" | "packing" | "edges" | "papers" | "firmness" | "remainder" | "appetite":
            return choose_shape(formula, edit.field, edit.key, inventory=inventory, kitchen=kitchen)
        case "cheese" | "glaze":
            return _choose_on_top(formula, edit.field, edit.key, inventory=inventory)
        case "method" | "fat" | "resting":
            return _choose_heat(formula, edit.field, edit.key, kitchen=kitchen)
        case "work":
            if edit.key not in ("spoon", "hand", "processor"):
                raise UnknownItemError("Work it by spoon, by hand or in a processor.", field="/mix/work")
            way: Work = edit.key  # type: ignore[assignment]
            seconds = WORK_START_S[way]
            return replace(formula, mix=replace(formula.mix, work=way, work_s=seconds))


def _on_surface(formula: Formula, key: str, *, kitchen: Kitchen) -> Formula:
    """On another surface; a way that cannot be gone there falls back to the style's own."""
    surface = kitchen.surface(key, field="/heat/surface")
    heat = replace(formula.heat, surface=key)
    if heat.method and method_of(heat.method) not in methods_for(style_of(formula.dish.style).form, surface, kitchen):
        heat = replace(heat, method="", stages=())
    return replace(formula, heat=heat)


def _choose_heat(formula: Formula, field: e.ChoiceField, key: str, *, kitchen: Kitchen) -> Formula:
    heat = formula.heat
    if field == "method":
        # Another way starts from its own stages; what was composed by hand is left behind.
        if key:
            style, surface = style_of(formula.dish.style), kitchen.surface(heat.surface, field="/heat/surface")
            method = method_of(key)
            if method not in methods_for(style.form, surface, kitchen):
                raise OutOfRangeError(
                    f"“{method.title}” is not a way for this piece on {surface.name}.", field="/heat/method"
                )
        return replace(formula, heat=replace(heat, method=key, stages=()))
    if field == "fat":
        if key not in ("", *FATS):
            raise UnknownItemError(f"No fat “{key[:40]}”; known are {', '.join(FATS)}.", field="/heat/fat")
        return replace(formula, heat=replace(heat, fat=key))
    if key not in ("open", "foil"):
        raise UnknownItemError("It rests open or under foil.", field="/heat/resting")
    return replace(formula, heat=replace(heat, resting=key))  # type: ignore[arg-type]


def _choose_on_top(formula: Formula, field: e.ChoiceField, key: str, *, inventory: Inventory) -> Formula:
    """Which cheese is laid on, which sauce is brushed on."""
    thing = inventory.pantry.get(key)
    if thing is None:
        raise UnknownItemError(f"No ingredient “{key[:60]}” in the pantry.", field=f"/heat/{field}")
    if field == "cheese":
        if thing.group != "cheese":
            raise OutOfRangeError(f"{thing.name} is no cheese.", field="/heat/cheese")
        return replace(formula, heat=replace(formula.heat, cheese=key))
    return replace(formula, heat=replace(formula.heat, glaze=key))


WORK_START_S: dict[Work, float] = {"spoon": 90.0, "hand": 90.0, "processor": 12.0}


def choose_style(formula: Formula, key: str, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """Another style: its usual piece, thickness, surface, temperature and bun; the blend and the guests stay.

    Another dish starts with the first of its schools of mixing; locked lines stay.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    key : str
        Key of the thing, in small letters and hyphens.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Formula
        The changed formula.
    """
    style = style_of(key, field="/dish/style")
    if style.dish != formula.dish.dish:
        start = mix_school(style.mix_school) if style.mix_school else schools_for(style.dish)[0]
        formula = follow_mix(formula, start, inventory=inventory)
    surface = next((s for kind in style.surfaces if (s := kitchen.surface_of_kind(kind))), kitchen.surfaces[0])
    changed = replace(
        formula,
        dish=replace(
            formula.dish,
            dish=style.dish,
            style=key,
            pieces_per_guest=style.pieces_per_guest_start,
            guests_per_piece=style.guests_per_piece_start,
        ),
        shape=replace(
            formula.shape,
            piece_mass_g=style.piece_mass_start_g,
            thickness_mm=style.thickness_start_mm,
            mould=usual_mould(style, kitchen=kitchen),
            width_mm=0.0,
            packing="",
            papers=style.key == "pre-pressed",
        ),
        heat=replace(
            formula.heat,
            surface=surface.key,
            surface_temp_c=style.surface_temp_start_c,
            method="",
            stages=(),
            resting="foil" if style.form in BLOCKS else "open",
        ),
    )
    if changed.shape.portioning != "by_piece" and changed.shape.mould:
        made = batch_of(changed, inventory=inventory, kitchen=kitchen).portions.piece_mass_g
        mould = usual_mould(style, kitchen=kitchen, piece_mass_g=made)
        changed = replace(changed, shape=replace(changed.shape, mould=mould))
    if style.form == "filled" and not any(line.filling for line in changed.mix.lines):
        changed = set_filling(changed, CORE_START_FRAC, inventory=inventory)
    elif style.form != "filled" and any(line.filling for line in changed.mix.lines):
        changed = replace(changed, mix=replace(changed.mix, lines=tuple(x for x in changed.mix.lines if not x.filling)))
    if style.form == "loaf" and style.filled and "boiled-egg" in inventory.pantry:
        egg = MixLine("boiled-egg", FILLING_PER_MEAT, counted=True)
        kept = tuple(line for line in changed.mix.lines if line.ingredient != egg.ingredient)
        changed = replace(changed, mix=replace(changed.mix, lines=(*kept, egg)))
    elif style.dish == "meatloaf":
        # A loaf that is not filled holds no eggs in a row, unless the cook holds on to them.
        kept = tuple(line for line in changed.mix.lines if line.ingredient != "boiled-egg" or line.locked)
        changed = replace(changed, mix=replace(changed.mix, lines=kept))
    changed = _with_floor_kept(formula, changed, inventory=inventory, kitchen=kitchen)
    return _with_bun(changed, style, inventory=inventory, kitchen=kitchen)


def _with_floor_kept(before: Formula, after: Formula, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """A core that met the floor meets that of the new style too; one wished below it stays the cook's wish."""
    poultry = any(inventory.meat(p.meat).species in POULTRY for p in before.parts)

    def floor_c(formula: Formula) -> float:
        stuffed = style_of(formula.dish.style).filled
        choice = floors_for(country=kitchen.country, setting=kitchen.setting, poultry=poultry, stuffed=stuffed)
        return choice.leading.temp_c

    if before.heat.target_core_temp_c < floor_c(before) - 1e-6:
        return after
    target = max(after.heat.target_core_temp_c, floor_c(after))
    return replace(after, heat=replace(after.heat, target_core_temp_c=target))


# The cheese of a filled burger, by mass of the whole piece (common practice: a sixth or so).
CORE_START_FRAC = 0.15
# Three boiled eggs of 50 g along the middle of a loaf with a kilogram of meat: as many as its length has room for.
FILLING_PER_MEAT = 0.14


def _with_bun(formula: Formula, style: Style, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    now = kitchen.bun(formula.shape.bun, field="/shape/bun")
    if style.form == "spread":
        flat = next((b for b in kitchen.buns if b.kind in ("tortilla", "flatbread")), now)
        return replace(formula, shape=replace(formula.shape, bun=flat.key))
    if style.dish != "burger" or now.diameter_mm == 0:
        return formula
    fat = sum(p.share_frac * inventory.fat_of(p.meat, p.lot).usual_frac for p in formula.parts)
    piece = start_piece(style, fat_frac=fat)
    bun = fitting_bun(kitchen, cooked_diameter_mm=piece.cooked_diameter_mm.usual).key
    return replace(formula, shape=replace(formula.shape, bun=bun))
