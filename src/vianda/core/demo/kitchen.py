"""The galley of Kestrel Sound light station and ferry yard (invented)."""

from __future__ import annotations

from decimal import Decimal
from functools import cache

from vianda.core.equipment.kitchen import (
    NO_BUN,
    Bun,
    Kitchen,
    Scale,
    Surface,
    usual_flat_breads,
    usual_grinders,
    usual_oven,
)
from vianda.core.equipment.moulds import usual_moulds


@cache
def yard_galley() -> Kitchen:
    """The demo kitchen of Kestrel Sound (invented).

    Returns
    -------
    Kitchen
        One kitchen.
    """
    gluten_sesame = ("gluten (wheat)", "sesame")
    return Kitchen(
        name="Yard Galley, Kestrel Sound",
        country="US",
        setting="food-service",
        naming_rule="US",
        unit_system="metric",
        currency_code="KSC",
        scale=Scale(step_g=1, capacity_g=5000),
        surfaces=(
            Surface("yard-plate", "Flat plate 700 × 400", "plate", 700, 400, False),
            Surface("iron-pan", "Iron pan, 30 cm", "pan", 280, 280, True),
            Surface("charcoal-grate", "Charcoal grate 560 × 400", "grate", 560, 400, False),
            usual_oven(),
        ),
        buns=(
            Bun("soft-90", "Small soft bun, 90 mm", 90, 45, Decimal("0.34"), gluten_sesame),
            Bun("soft-100", "Soft bun, 100 mm", 100, 60, Decimal("0.42"), gluten_sesame),
            Bun("soft-115", "Large soft bun, 115 mm", 115, 80, Decimal("0.55"), gluten_sesame),
            Bun("slider-65", "Slider roll, 65 mm", 65, 28, Decimal("0.24"), gluten_sesame),
            Bun(
                "slice",
                "Slice of white bread, 115 × 100 mm",
                115,
                32,
                Decimal("0.12"),
                ("gluten (wheat)",),
                "slice",
                100,
            ),
            *usual_flat_breads(),
            NO_BUN,
        ),
        grinders=usual_grinders(),
        moulds=usual_moulds(),
    )
