"""Give an edit its meaning: a formula and an edit in, the changed formula out."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import assert_never

from vianda.core import edit as e
from vianda.core import entry, shares
from vianda.core.blend import blend_meats
from vianda.core.bun_fit import fitting_bun
from vianda.core.errors import OutOfRangeError, UnknownItemError, UnreadableEntryError
from vianda.core.formula import LONGEST_NAME, LONGEST_REMARK, BlendPart, Formula, Keep, SaltPlace
from vianda.core.heat.doneness import target_for
from vianda.core.heat.floor import floors_for
from vianda.core.kitchen import Kitchen
from vianda.core.larder import POULTRY, Larder
from vianda.core.portions import HEAVIEST_BATCH_G, divide
from vianda.core.salt import FINE_SALT_G_PER_TSP, MOST_SALT_FRAC, START_SALT_FRAC
from vianda.core.schools import follow, school_of
from vianda.core.shape import shape_figures
from vianda.core.styles import style_of
from vianda.core.units import ML_PER_TSP


@dataclass(frozen=True, slots=True)
class FigureRule:
    """Where a figure lives, how far it may go (base unit), and what one nudge is."""

    pointer: str
    unit: str
    low: float
    high: float
    nudge: float
    whole: bool = False


FIGURES: dict[e.Figure, FigureRule] = {
    "guests": FigureRule("/dish/guests", "count", 1, 2000, 1, whole=True),
    "pieces_per_guest": FigureRule("/dish/pieces_per_guest", "count", 1, 12, 1, whole=True),
    "piece_mass": FigureRule("/shape/piece_mass_g", "mass_g", 10, 1000, 5),
    "batch_mass": FigureRule("/shape/batch_mass_g", "mass_g", 50, HEAVIEST_BATCH_G, 50),
    "thickness": FigureRule("/shape/thickness_mm", "length_mm", 3, 60, 0.5),
    "salt": FigureRule("/seasoning/salt_frac", "fine_frac", 0, MOST_SALT_FRAC, 0.001),
    "surface_temp": FigureRule("/heat/surface_temp_c", "temp_c", 80, 400, 5),
    "core_target": FigureRule("/heat/core_target_c", "temp_c", 45, 95, 1),
    "share": FigureRule("/parts", "frac", 0, 1, 0.01),
    "part_mass": FigureRule("/parts", "mass_g", 0, HEAVIEST_BATCH_G, 10),
    "services_per_week": FigureRule("/grind/services_per_week", "count", 1, 50, 1, whole=True),
}


def apply_edit(formula: Formula, edit: e.Edit, *, larder: Larder, kitchen: Kitchen) -> Formula:
    """The formula after one edit.

    Raises
    ------
    CoreError
        With the field and what would be accepted. The formula given is never changed.
    """
    match edit:
        case e.TypeFigure():
            return _set(formula, edit.figure, _read(formula, edit, kitchen), edit.meat, kitchen)
        case e.NudgeFigure():
            return _nudge(formula, edit, kitchen)
        case e.SetFigure():
            return _set(formula, edit.figure, edit.value, edit.meat, kitchen)
        case e.MoveEdge():
            return replace(formula, parts=shares.move_edge(formula.parts, index=edit.index, at_frac=edit.at_frac))
        case e.AddMeat():
            larder.meat(edit.meat)
            return replace(formula, parts=shares.add_meat(formula.parts, meat=edit.meat))
        case e.SwapMeat():
            return _swap(formula, edit, larder)
        case e.RemoveMeat():
            return replace(formula, parts=shares.remove_meat(formula.parts, meat=edit.meat))
        case e.LockMeat():
            at = shares.index_of(formula.parts, edit.meat)
            parts = list(formula.parts)
            parts[at] = replace(parts[at], locked=edit.locked)
            return replace(formula, parts=tuple(parts))
        case e.PickLot():
            if edit.lot:
                larder.lot(edit.lot, meat=edit.meat, field="/parts")
            at = shares.index_of(formula.parts, edit.meat)
            lotted = list(formula.parts)
            lotted[at] = replace(lotted[at], lot=edit.lot)
            return replace(formula, parts=tuple(lotted))
        case e.LayOut():
            return _lay_out(formula, edit, larder)
        case e.Choose():
            return _choose(formula, edit, larder, kitchen)
        case e.Rename():
            return replace(formula, name=checked_name(edit.name))
        case e.WriteRemark():
            if len(edit.text) > LONGEST_REMARK:
                raise OutOfRangeError(f"A remark has at most {LONGEST_REMARK} characters.", field="/remark")
            return replace(formula, remark=edit.text)
        case _:
            assert_never(edit)


def checked_name(name: str) -> str:
    """A formula's name without outer blanks, or ``OutOfRangeError`` when empty or too long."""
    name = " ".join(name.split())
    if not name or len(name) > LONGEST_NAME or not name.isprintable():
        raise OutOfRangeError(f"A name has 1 to {LONGEST_NAME} visible characters.", field="/name")
    return name


def _current(formula: Formula, figure: e.Figure, meat: str, kitchen: Kitchen) -> float:
    match figure:
        case "guests":
            return formula.dish.guests
        case "pieces_per_guest":
            return formula.dish.pieces_per_guest
        case "piece_mass":
            if formula.shape.portioning == "by_batch":
                return formula.shape.batch_mass_g / formula.dish.pieces
            return formula.shape.piece_mass_g
        case "batch_mass":
            return float(batch_mass_g(formula, kitchen))
        case "thickness":
            return formula.shape.thickness_mm
        case "salt":
            return formula.seasoning.salt_frac
        case "surface_temp":
            return formula.heat.surface_temp_c
        case "core_target":
            return formula.heat.core_target_c
        case "share":
            return formula.parts[shares.index_of(formula.parts, meat)].share_frac
        case "services_per_week":
            return formula.grind.services_per_week
        case "part_mass":
            share = formula.parts[shares.index_of(formula.parts, meat)].share_frac
            return share * batch_mass_g(formula, kitchen)


def batch_mass_g(formula: Formula, kitchen: Kitchen) -> int:
    """The batch on the kitchen's scale, in grams."""
    return divide(
        portioning=formula.shape.portioning,
        pieces=formula.dish.pieces,
        piece_mass_g=formula.shape.piece_mass_g,
        batch_mass_g=formula.shape.batch_mass_g,
        step_g=kitchen.scale.step_g,
    ).batch_mass_g


def _read(formula: Formula, edit: e.TypeFigure, kitchen: Kitchen) -> float:
    """The typed text as a number in the figure's base unit."""
    rule = FIGURES[edit.figure]
    system = kitchen.unit_system
    pointer = rule.pointer
    if edit.figure == "salt":
        return _read_salt(formula, edit.text, kitchen)
    readers: dict[str, Callable[[], float]] = {
        "count": lambda: entry.read_count(edit.text, field=pointer),
        "mass_g": lambda: entry.read_mass_g(edit.text, unit_system=system, field=pointer),
        "length_mm": lambda: entry.read_length_mm(edit.text, unit_system=system, field=pointer),
        "temp_c": lambda: entry.read_temp_c(edit.text, unit_system=system, field=pointer),
        "frac": lambda: entry.read_frac(edit.text, field=pointer),
    }
    return readers[rule.unit]()


def _read_salt(formula: Formula, text: str, kitchen: Kitchen) -> float:
    """Salt as per cent of the meat, as grams for the batch, or as teaspoons of fine salt for the batch."""
    pointer = FIGURES["salt"].pointer
    batch = batch_mass_g(formula, kitchen)
    try:
        return entry.read_frac(text, field=pointer)
    except UnreadableEntryError:
        pass
    try:
        return entry.read_mass_g(text, field=pointer) / batch
    except UnreadableEntryError:
        pass
    try:
        return entry.read_volume_ml(text, field=pointer) / ML_PER_TSP * FINE_SALT_G_PER_TSP / batch
    except UnreadableEntryError:
        raise UnreadableEntryError(
            f"“{text[:60]}” is not an amount of salt. Type something like 1.1 %, 37 g or 2 tsp.",
            field=pointer,
        ) from None


def _nudge(formula: Formula, edit: e.NudgeFigure, kitchen: Kitchen) -> Formula:
    rule = FIGURES[edit.figure]
    step = rule.nudge
    if edit.figure == "piece_mass":
        step = max(step, kitchen.scale.step_g)
    # Nudges land on whole multiples of the step, so that a nudge after a typed 87 g gives 90, not 92.
    now = _current(formula, edit.figure, edit.meat, kitchen)
    ratio = now / step
    base = math.floor(ratio + 1e-9) if edit.steps > 0 else math.ceil(ratio - 1e-9)
    wanted = round((base + edit.steps) * step, 9)
    bounded = min(max(wanted, rule.low), rule.high)
    return _set(formula, edit.figure, bounded, edit.meat, kitchen)


def _set(formula: Formula, figure: e.Figure, value: float, meat: str, kitchen: Kitchen) -> Formula:
    rule = FIGURES[figure]
    if not math.isfinite(value) or not rule.low - 1e-9 <= value <= rule.high + 1e-9:
        raise OutOfRangeError(range_text(figure, value), field=rule.pointer)
    if rule.whole and value != int(value):
        raise OutOfRangeError(f"{value:g} is not a whole number.", field=rule.pointer)
    match figure:
        case "guests":
            return replace(formula, dish=replace(formula.dish, guests=int(value)))
        case "pieces_per_guest":
            return replace(formula, dish=replace(formula.dish, pieces_per_guest=int(value)))
        case "piece_mass":
            shape = replace(formula.shape, piece_mass_g=value, portioning="by_piece")
            return replace(formula, shape=shape)
        case "batch_mass":
            shape = replace(formula.shape, batch_mass_g=value, portioning="by_batch")
            return replace(formula, shape=shape)
        case "thickness":
            return replace(formula, shape=replace(formula.shape, thickness_mm=value))
        case "salt":
            place = "surface" if formula.seasoning.salt_place == "none" and value else formula.seasoning.salt_place
            return replace(formula, seasoning=replace(formula.seasoning, salt_frac=value, salt_place=place))
        case "surface_temp":
            return replace(formula, heat=replace(formula.heat, surface_temp_c=value))
        case "core_target":
            return replace(formula, heat=replace(formula.heat, core_target_c=value))
        case "share":
            return replace(formula, parts=shares.set_share(formula.parts, meat=meat, share_frac=value))
        case "services_per_week":
            return replace(formula, grind=replace(formula.grind, services_per_week=int(value)))
        case "part_mass":
            batch = batch_mass_g(formula, kitchen)
            if value > batch:
                raise OutOfRangeError(f"{value:.0f} g is more than the whole batch of {batch} g.", field="/parts")
            return replace(formula, parts=shares.set_share(formula.parts, meat=meat, share_frac=value / batch))


_PLAIN = {
    "count": ("", 1.0),
    "mass_g": (" g", 1.0),
    "length_mm": (" mm", 1.0),
    "temp_c": (" °C", 1.0),
    "frac": (" %", 100.0),
    "fine_frac": (" %", 100.0),
}
_LABELS: dict[e.Figure, str] = {
    "guests": "guests",
    "pieces_per_guest": "pieces each",
    "piece_mass": "the piece",
    "batch_mass": "the batch",
    "thickness": "the thickness",
    "salt": "the salt",
    "surface_temp": "the surface",
    "core_target": "the core",
    "share": "a share",
    "part_mass": "a part",
    "services_per_week": "services a week",
}


def _plain(value: float) -> str:
    """Figures as people write them: no exponents below a thousand million, four digits of a fraction."""
    return f"{value:.4g}" if abs(value) < 1000 or abs(value) >= 1e9 else f"{value:.0f}"


def range_text(figure: e.Figure, value: float) -> str:
    """The sentence that refuses a value outside its figure's range."""
    rule = FIGURES[figure]
    unit, factor = _PLAIN[rule.unit]
    shown = f"{_plain(value * factor)}{unit}" if math.isfinite(value) else "That"
    return (
        f"{shown} is outside what the rules cover for {_LABELS[figure]}: "
        f"{_plain(rule.low * factor)} to {_plain(rule.high * factor)}{unit}."
    )


def _swap(formula: Formula, edit: e.SwapMeat, larder: Larder) -> Formula:
    larder.meat(edit.to)
    at = shares.index_of(formula.parts, edit.meat)
    if any(p.meat == edit.to for p in formula.parts):
        raise OutOfRangeError("That meat is in the blend already.", field="/parts")
    parts = list(formula.parts)
    parts[at] = replace(parts[at], meat=edit.to, lot="")
    return replace(formula, parts=tuple(parts))


def _lay_out(formula: Formula, edit: e.LayOut, larder: Larder) -> Formula:
    if len(edit.meats) != len(edit.shares_frac):
        raise OutOfRangeError("A blend names one share for each meat.", field="/parts")
    before = {p.meat: p for p in formula.parts}
    parts = tuple(
        replace(before.get(meat, BlendPart(meat, 0.0)), share_frac=share)
        for meat, share in zip(edit.meats, edit.shares_frac, strict=True)
    )
    blend_meats(parts, larder=larder)
    return replace(formula, parts=parts)


def _choose(formula: Formula, edit: e.Choose, larder: Larder, kitchen: Kitchen) -> Formula:
    match edit.field:
        case "style":
            return choose_style(formula, edit.key, larder=larder, kitchen=kitchen)
        case "portioning":
            if edit.key not in ("by_piece", "by_batch"):
                raise UnknownItemError("Divide by piece or by batch.", field="/shape/portioning")
            # The new mode starts from what the old one came to, so that nothing jumps.
            shape = formula.shape
            now = batch_mass_g(formula, kitchen)
            if edit.key == "by_batch":
                shape = replace(shape, portioning="by_batch", batch_mass_g=float(now))
            else:
                shape = replace(shape, portioning="by_piece", piece_mass_g=now / formula.dish.pieces)
            return replace(formula, shape=shape)
        case "bun":
            kitchen.bun(edit.key, field="/shape/bun")
            return replace(formula, shape=replace(formula.shape, bun=edit.key))
        case "surface":
            kitchen.surface(edit.key, field="/heat/surface")
            return replace(formula, heat=replace(formula.heat, surface=edit.key))
        case "doneness":
            poultry = any(larder.meat(p.meat).species in POULTRY for p in formula.parts)
            floors = floors_for(country=kitchen.country, setting=kitchen.setting, poultry=poultry)
            target = target_for(edit.key, floor_c=floors.leading.temp_c)
            return replace(formula, heat=replace(formula.heat, core_target_c=target))
        case "school":
            parts = follow(school_of(edit.key, field="/parts"), formula.parts, larder=larder)
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
            if edit.key not in ("surface", "none"):
                raise UnknownItemError("Salt goes on the surface, or nowhere.", field="/seasoning/salt_place")
            frac = formula.seasoning.salt_frac or START_SALT_FRAC
            chosen: SaltPlace = "surface" if edit.key == "surface" else "none"
            return replace(formula, seasoning=replace(formula.seasoning, salt_place=chosen, salt_frac=frac))


def choose_style(formula: Formula, key: str, *, larder: Larder, kitchen: Kitchen) -> Formula:
    """Another style: its usual piece, thickness, surface, temperature and bun; the blend and the guests stay."""
    style = style_of(key, field="/dish/style")
    surface = next((s for kind in style.surfaces if (s := kitchen.surface_of_kind(kind))), kitchen.surfaces[0])
    pieces = style.pieces_per_guest_start
    bun = formula.shape.bun
    if kitchen.bun(bun, field="/shape/bun").diameter_mm > 0:
        fat = sum(p.share_frac * larder.fat_of(p.meat, p.lot).usual_frac for p in formula.parts)
        piece = shape_figures(
            piece_mass_g=style.piece_mass_start_g,
            thickness_mm=style.thickness_start_mm,
            fat_frac=fat,
            packing=style.packing,
            dimple=style.dimple,
            bun_diameter_mm=0,
            bun_name="",
        )
        bun = fitting_bun(kitchen, cooked_diameter_mm=piece.cooked_diameter_mm.usual).key
    return replace(
        formula,
        dish=replace(formula.dish, style=key, pieces_per_guest=pieces),
        shape=replace(
            formula.shape, piece_mass_g=style.piece_mass_start_g, thickness_mm=style.thickness_start_mm, bun=bun
        ),
        heat=replace(formula.heat, surface=surface.key, surface_temp_c=style.surface_temp_start_c),
    )
