"""The demo formulas of Kestrel Sound light station and ferry yard, and what its galley makes (invented)."""

from __future__ import annotations

from datetime import date
from decimal import Decimal

from vianda.core.basis.units import c_from_f
from vianda.core.inventory.composition import Composition
from vianda.core.inventory.evidence import evidence_of
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import Group, HouseFormula, HouseLine, Ingredient
from vianda.core.model.formula import BlendPart, DishChoice, Formula, Heat, Mix, MixLine, Seasoning, Shape


def slipway_smash() -> Formula:
    """Friday's smashed doubles for 20.

    Returns
    -------
    Formula
        The changed formula.
    """
    return Formula(
        name="Slipway smash",
        dish=DishChoice("burger", "smashed", guests=20, pieces_per_guest=2),
        parts=(BlendPart("chuck", 0.55), BlendPart("short-rib-plate", 0.25), BlendPart("brisket-flat", 0.20)),
        seasoning=Seasoning(0.011, "surface"),
        shape=Shape("by_piece", 85, 3400, 6, "soft-100"),
        heat=Heat("yard-plate", 240, c_from_f(160)),
        remark="Friday burger night: the first twenty; the rest by word of mouth.",
    )


def beacon_grill() -> Formula:
    """A grilled single for the yard crew of 26.

    Returns
    -------
    Formula
        The changed formula.
    """
    return Formula(
        name="Beacon grill",
        dish=DishChoice("burger", "grilled", guests=26, pieces_per_guest=1),
        parts=(BlendPart("chuck", 0.70), BlendPart("brisket-point", 0.20), BlendPart("sirloin", 0.10)),
        seasoning=Seasoning(0.012, "surface"),
        shape=Shape("by_piece", 140, 3640, 16, "soft-90"),
        heat=Heat("charcoal-grate", 230, c_from_f(160)),
        remark="Over the coals behind the boat shed, lid down.",
    )


def harbour_light_pub() -> Formula:
    """Four heavy ones in the iron pan.

    Returns
    -------
    Formula
        The changed formula.
    """
    return Formula(
        name="Harbour-light pub burger",
        dish=DishChoice("burger", "thick", guests=4, pieces_per_guest=1),
        parts=(BlendPart("chuck", 0.60), BlendPart("sirloin", 0.25), BlendPart("fat-trim", 0.15)),
        seasoning=Seasoning(0.013, "surface"),
        shape=Shape("by_piece", 225, 900, 26, "soft-90"),
        heat=Heat("iron-pan", 230, 61.0),
        remark="The keeper wants it medium. The floor stands beside it.",
    )


def norquay_lots(*, delivered: date, use_by: date) -> tuple[Lot, ...]:
    """Three boxes from Norquay Butchery (invented), with what was said of each.

    Parameters
    ----------
    delivered : date
        Day of delivery.
    use_by : date
        Day by which it is used.

    Returns
    -------
    tuple[Lot, ...]
        Each: a delivery.
    """
    return (
        Lot(
            "norquay-chuck",
            "chuck",
            "Norquay chuck",
            9000,
            Decimal("9.20"),
            delivered,
            use_by,
            (evidence_of("butcher", 0.20, detail="“About four fifths lean, this one.”"),),
        ),
        Lot("norquay-point", "brisket-point", "Norquay brisket point", 4000, Decimal("10.60"), delivered, use_by),
        Lot(
            "norquay-mince",
            "mince-unknown",
            "Norquay mince, label 20 %",
            3000,
            Decimal("8.00"),
            delivered,
            use_by,
            (evidence_of("label", 0.20),),
        ),
    )


def keepers_loaf() -> Formula:
    """Wednesday's winter loaf for the crew of 26.

    Returns
    -------
    Formula
        The changed formula.
    """
    return Formula(
        name="Keeper’s loaf",
        dish=DishChoice("meatloaf", "loaf-free", guests=26, pieces_per_guest=1, guests_per_piece=7),
        parts=(BlendPart("chuck", 0.45), BlendPart("round", 0.25), BlendPart("pork-shoulder", 0.30)),
        seasoning=Seasoning(0.016, "mixed"),
        shape=Shape("by_piece", 1300, 5200, 75, "none"),
        heat=Heat("fan-oven", 175, c_from_f(160), resting="foil"),
        remark="Wednesdays, October to March. The ends go to the watch.",
        mix=Mix(
            lines=(
                MixLine("panko", 0.08),
                MixLine("milk", 0.10),
                MixLine("egg", 0.08, counted=True),
                MixLine("soft-onion", 0.12),
                MixLine("ketchup", 0.03),
                MixLine("parsley", 0.015),
                MixLine("pepper", 0.003),
            )
        ),
    )


def night_watch_balls() -> Formula:
    """Fifty-four balls for the night watch, in sauce.

    Returns
    -------
    Formula
        The changed formula.
    """
    return Formula(
        name="Night-watch balls",
        dish=DishChoice("meatball", "ball-simmered", guests=18, pieces_per_guest=3),
        parts=(BlendPart("chuck", 0.50), BlendPart("pork-shoulder", 0.50)),
        seasoning=Seasoning(0.018, "mixed"),
        shape=Shape("by_piece", 40, 2160, 42, "none"),
        heat=Heat("fan-oven", 220, c_from_f(160)),
        remark="Three each at midnight, kept warm in the pot.",
        mix=Mix(
            lines=(
                MixLine("dry-crumbs", 0.09),
                MixLine("milk", 0.135),
                MixLine("egg", 0.10, counted=True),
                MixLine("parmesan", 0.07),
                MixLine("garlic", 0.01),
                MixLine("parsley", 0.02),
                MixLine("pepper", 0.003),
            ),
            soak_min=20,
        ),
    )


def supply_boat_ragu() -> Formula:
    """A pot of meat sauce for the supply boat.

    Returns
    -------
    Formula
        The changed formula.
    """
    return Formula(
        name="Supply-boat ragù",
        dish=DishChoice("sauce", "ragu", guests=12, pieces_per_guest=1),
        parts=(BlendPart("chuck", 0.70), BlendPart("shank", 0.30)),
        seasoning=Seasoning(0.022, "mixed"),
        shape=Shape("by_piece", 260, 3120, 8, "none"),
        heat=Heat("iron-pan", 210, c_from_f(160)),
        remark="Goes out with the ten o’clock boat.",
        mix=Mix(
            lines=(
                MixLine("tomatoes", 1.30),
                MixLine("soft-onion", 0.15),
                MixLine("tomato-paste", 0.06),
                MixLine("olive-oil", 0.03),
                MixLine("garlic", 0.015),
                MixLine("oregano", 0.002),
                MixLine("pepper", 0.003),
            )
        ),
    )


def _house(
    key: str,
    name: str,
    group: Group,
    lines: tuple[tuple[str, float], ...],
    *,
    yield_g: float,
    keeps_days: int,
    method: str,
    temp_c: float = 20.0,
    g_per_cup: float = 0.0,
    acid: bool = False,
) -> Ingredient:
    return Ingredient(
        key=key,
        name=name,
        group=group,
        # Worked out from its lines wherever it is used.
        composition=Composition(0, 0, 0, 0, 0, 0),
        composition_note="made in the house",
        g_per_cup=g_per_cup,
        volume_source="from memory" if g_per_cup else "",
        pieces=(),
        allergens=(),
        temp_c=temp_c,
        price_per_kg=Decimal(0),
        house=HouseFormula(tuple(HouseLine(k, g) for k, g in lines), yield_g, keeps_days, method, acid),
    )


HOUSE_FORMULAS = (
    _house(
        "yard-rub",
        "Yard rub",
        "spice",
        (("salt-fine", 80), ("paprika", 50), ("pepper", 20), ("garlic-powder", 20), ("brown-sugar", 30)),
        yield_g=200,
        keeps_days=180,
        method="Mix, sieve, keep dry and dark.",
        g_per_cup=140,
    ),
    _house(
        "boathouse-crumbs",
        "Boathouse crumbs",
        "crumb",
        (("crusty-bread", 1000),),
        yield_g=740,
        keeps_days=60,
        method="Yesterday’s loaves, dried at 110 °C, grated.",
        g_per_cup=100,
    ),
    _house(
        "galley-sauce",
        "Galley tomato sauce",
        "tomato",
        (("tomatoes", 2500), ("soft-onion", 300), ("olive-oil", 80), ("garlic", 25), ("salt-fine", 18), ("sugar", 15)),
        yield_g=2350,
        keeps_days=4,
        method="Garlic first, onion to slow it, simmer half an hour.",
        temp_c=4.0,
        g_per_cup=250,
    ),
)

DEMO_FORMULAS = (slipway_smash, beacon_grill, harbour_light_pub, keepers_loaf, night_watch_balls, supply_boat_ragu)
