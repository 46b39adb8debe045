"""The demo formulas of Kestrel Sound light station and ferry yard (invented)."""

from __future__ import annotations

from decimal import Decimal

from vianda.core.evidence import told
from vianda.core.formula import BlendPart, DishChoice, Formula, Heat, Seasoning, Shape
from vianda.core.lot import Lot
from vianda.core.units import c_from_f


def slipway_smash() -> Formula:
    """Friday's smashed doubles for 20."""
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
    """A grilled single for the yard crew of 26."""
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
    """Four heavy ones in the iron pan."""
    return Formula(
        name="Harbour-light pub burger",
        dish=DishChoice("burger", "thick", guests=4, pieces_per_guest=1),
        parts=(BlendPart("chuck", 0.60), BlendPart("sirloin", 0.25), BlendPart("fat-trim", 0.15)),
        seasoning=Seasoning(0.013, "surface"),
        shape=Shape("by_piece", 225, 900, 26, "soft-90"),
        heat=Heat("iron-pan", 230, 61.0),
        remark="The keeper wants it medium. The floor stands beside it.",
    )


def norquay_lots(*, delivered: str, use_by: str) -> tuple[Lot, ...]:
    """Three boxes from Norquay Butchery (invented), with what was said of each; days as ISO dates."""
    return (
        Lot("norquay-chuck", "chuck", "Norquay chuck", 9000, Decimal("9.20"), delivered, use_by,
            (told("butcher", 0.20, detail="“About four fifths lean, this one.”"),)),
        Lot("norquay-point", "brisket-point", "Norquay brisket point", 4000, Decimal("10.60"), delivered, use_by),
        Lot("norquay-mince", "mince-unknown", "Norquay mince, label 20 %", 3000, Decimal("8.00"), delivered, use_by,
            (told("label", 0.20),)),
    )  # fmt: skip


DEMO_FORMULAS = (slipway_smash, beacon_grill, harbour_light_pub)
