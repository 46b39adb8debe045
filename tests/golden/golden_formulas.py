"""Sixty formulas over all dishes, by edits of the demo formulas, with the names they had when the figures were kept."""

from __future__ import annotations

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import (
    beacon_grill,
    harbour_light_pub,
    keepers_loaf,
    night_watch_balls,
    slipway_smash,
    supply_boat_ragu,
)
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.edit import (
    AddMeat,
    AddToMix,
    Choose,
    Edit,
    KeepLimit,
    LayOut,
    LockMeat,
    NudgeFigure,
    SetFigure,
    SetStages,
    SwapMeat,
)
from vianda.core.model.formula import Formula, HeatStage

DEMO = {
    "smash": slipway_smash,
    "grill": beacon_grill,
    "pub": harbour_light_pub,
    "loaf": keepers_loaf,
    "balls": night_watch_balls,
    "ragu": supply_boat_ragu,
}
STYLES = {
    "smash": ("smashed", "pre-pressed", "slider", "grilled", "thick", "smoked", "filled-burger", "smashed-taco"),
    "balls": ("ball-baked", "ball-simmered"),
    "loaf": ("loaf-free", "loaf-tin", "loaf-tray", "loaf-filled"),
    "ragu": ("ragu",),
}
MIX_SCHOOLS = {
    "smash": ("purist", "mixed-in", "white-bound", "onion-slider"),
    "balls": ("soft-paste-ball", "cheese-ball", "dry-crumb-ball", "rice-ball"),
    "loaf": ("firm-panade-loaf", "fresh-bread-loaf", "custard-tray-loaf", "dry-crumb-loaf"),
    "ragu": ("tomato-sauce", "milk-sauce", "plain-sauce"),
}
SCHOOLS = (
    "all-chuck",
    "chuck-and-partner",
    "lean-and-fat",
    "steakhouse",
    "three-cuts",
    "mixed-meats",
    "beef-and-veal",
    "bacon",
    "shop-mince",
)
METHODS = {
    "grill": ("turned-often", "two-zones"),
    "pub": ("turned-often", "pressed-late", "cheese-under-cover", "pan-then-oven", "broiled"),
    "balls": ("baked", "browned-then-simmered", "simmered-raw", "fried", "broiled-and-glazed"),
}
OTHER: dict[str, tuple[str, tuple[Edit, ...]]] = {
    "smash-100": ("smash", (SetFigure("guests", 100), SetFigure("piece_mass", 60))),
    "smash-batch": ("smash", (Choose("portioning", "by_batch"), SetFigure("batch_mass", 3415))),
    "smash-weights": ("smash", (Choose("portioning", "by_weights"), SetFigure("spare_pieces", 3))),
    "smash-poultry": ("smash", (SwapMeat("chuck", "turkey-ground"),)),
    "smash-five": ("smash", (AddMeat("round"), AddMeat("fat-trim"), LockMeat("chuck", True))),
    "grill-frozen": ("grill", (Choose("firmness", "frozen"), SetFigure("target_core_temp", 74))),
    "grill-glazed": (
        "grill",
        (
            SetStages(
                (
                    HeatStage("chill", "time", time_s=1800),
                    HeatStage("surface", "two-fifths"),
                    HeatStage("surface", "core", flip=True, cheese=True, cover=True),
                )
            ),
        ),
    ),
    "pub-well": ("pub", (Choose("doneness", "well-done"), Choose("fat", "butter"), Choose("resting", "foil"))),
    "pub-lean": ("pub", (LayOut(("round", "chuck"), (0.8, 0.2)), NudgeFigure("thickness", 6))),
    "balls-big": ("balls", (SetFigure("piece_mass", 90), SetFigure("guests", 40))),
    "balls-limits": ("balls", (KeepLimit("no-dairy", True), KeepLimit("no-gluten", True), KeepLimit("no-pork", True))),
    "balls-house": ("balls", (AddToMix("30 g yard rub, 2 tbsp olive oil, 1 onion"),)),
    "loaf-wide": ("loaf", (SetFigure("width", 130), SetFigure("thickness", 60), SetFigure("salt", 0.012))),
    "ragu-lean": ("ragu", (LayOut(("shank",), (1.0,)), SetFigure("guests", 40))),
}


def golden_formulas(*, inventory: Inventory, kitchen: Kitchen) -> dict[str, Formula]:
    """Name to formula."""
    found: dict[str, Formula] = {name: make() for name, make in DEMO.items()}

    def edited(start: str, *edits: Edit) -> Formula:
        formula = DEMO[start]()
        for edit in edits:
            formula = apply_edit(formula, edit, inventory=inventory, kitchen=kitchen)
        return formula

    for start, styles in STYLES.items():
        for style in styles:
            found[f"style {style}"] = edited(start, Choose("style", style))
    for start, schools in MIX_SCHOOLS.items():
        for school in schools:
            found[f"mix {school}"] = edited(start, Choose("mix_school", school))
    for school in SCHOOLS:
        found[f"school {school}"] = edited("grill", Choose("school", school))
    for start, methods in METHODS.items():
        for method in methods:
            for surface in kitchen.surfaces:
                try:
                    found[f"way {method} of {start} on {surface.key}"] = edited(
                        start, Choose("surface", surface.key), Choose("method", method)
                    )
                except OutOfRangeError:
                    continue
    for name, (start, edits) in OTHER.items():
        found[name] = edited(start, *edits)
    return found
