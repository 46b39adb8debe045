"""A kitchen from a few answers: what is not said has an honest default, and all of it can be changed later."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated

from annotated_types import Len

from vianda.core.basis.bounds import Key, Name, is_currency_code
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.units import MM_PER_IN, UnitSystem
from vianda.core.equipment.kitchen import (
    NO_BUN,
    Bun,
    Country,
    Grinder,
    Kitchen,
    NamingRule,
    Scale,
    Setting,
    Surface,
    SurfaceKind,
)
from vianda.core.equipment.moulds import usual_moulds

# Label names by the country said; elsewhere no law is assumed.
NAMING: Mapping[Country, NamingRule] = {"US": "US", "CA": "CA", "UK": "UK", "other": "none"}
CURRENCY: Mapping[Country, str] = {"US": "USD", "CA": "CAD", "UK": "GBP", "other": "EUR"}
# Usual sizes of what a home has (common practice, no published source), mm: inside a 28 cm pan lie about 240.
USUAL_SIZE_MM: Mapping[SurfaceKind, tuple[float, float]] = {
    "pan": (240.0, 240.0),
    "plate": (400.0, 300.0),
    "grate": (480.0, 350.0),
    "oven": (440.0, 350.0),
}
NAMES: Mapping[SurfaceKind, str] = {"pan": "Pan", "plate": "Flat plate", "grate": "Grill", "oven": "Oven, tray"}


@dataclass(frozen=True, slots=True)
class HotThing:
    """A surface as said: its kind and size, mm; 0 takes the usual size."""

    kind: SurfaceKind
    width_mm: float = 0.0
    depth_mm: float = 0.0


@dataclass(frozen=True, slots=True)
class FirstAnswers:
    """What a cook says of a new kitchen; every field may be left as it is."""

    name: Name = "My kitchen"
    country: Country = "other"
    setting: Setting = "home"
    unit_system: UnitSystem = "metric"
    currency_code: Annotated[str, Len(0, 6)] = ""
    scale_step_g: int = 1
    surfaces: Annotated[tuple[HotThing, ...], Len(0, 20)] = (HotThing("pan"), HotThing("oven"))
    salt: Key = "salt-fine"


def first_kitchen(answers: FirstAnswers) -> Kitchen:
    """The kitchen that a cook's answers describe.

    Prices are zero, since none is known; breads carry the allergens that such breads usually do.

    Parameters
    ----------
    answers : FirstAnswers
        What was said.

    Returns
    -------
    Kitchen
        One kitchen.

    Raises
    ------
    OutOfRangeError
        Something to cook on is needed; a size or a code that cannot be.

    Examples
    --------
    >>> kitchen = first_kitchen(FirstAnswers(country="US"))
    >>> kitchen.currency_code, [s.name for s in kitchen.surfaces]
    ('USD', ['Pan, 240 mm', 'Oven, tray 440 × 350'])
    """
    if not answers.surfaces:
        raise OutOfRangeError("Name at least one thing that gets hot.", field="/surfaces")
    currency = answers.currency_code.strip().upper() or CURRENCY[answers.country]
    if not is_currency_code(currency):
        raise OutOfRangeError("A currency is three letters, such as EUR or USD.", field="/currency_code")
    return Kitchen(
        name=" ".join(answers.name.split()) or "My kitchen",
        country=answers.country,
        setting=answers.setting,
        naming_rule=NAMING[answers.country],
        unit_system=answers.unit_system,
        currency_code=currency,
        scale=Scale(answers.scale_step_g, 5000 if answers.scale_step_g < 5 else 15_000),
        surfaces=tuple(_surface(s, at, answers.unit_system) for at, s in enumerate(answers.surfaces)),
        buns=_breads(),
        grinders=(Grinder("knife", "Knife and board", "knife", 600, 0.08, 5, ()),),
        salt=answers.salt,
        moulds=usual_moulds(),
    )


def _surface(thing: HotThing, at: int, system: UnitSystem) -> Surface:
    usual = USUAL_SIZE_MM[thing.kind]
    width = thing.width_mm or usual[0]
    depth = width if thing.kind == "pan" else (thing.depth_mm or (thing.width_mm or usual[1]))
    if system == "us":
        shown = (
            f"{width / MM_PER_IN:.3g} in"
            if thing.kind == "pan"
            else f"{width / MM_PER_IN:.3g} × {depth / MM_PER_IN:.3g} in"
        )
    else:
        shown = f"{width:.0f} mm" if thing.kind == "pan" else f"{width:.0f} × {depth:.0f}"
    name = (
        f"{NAMES[thing.kind]}, {shown}" if thing.kind in ("pan", "plate", "grate") else f"{NAMES[thing.kind]} {shown}"
    )
    return Surface(f"{thing.kind}-{at + 1}", name, thing.kind, width, depth, thing.kind == "pan")


def _breads() -> tuple[Bun, ...]:
    free = Decimal(0)
    wheat, seeded = ("gluten (wheat)",), ("gluten (wheat)", "sesame")
    return (
        Bun("bun-100", "Bun, 100 mm", 100, 60, free, seeded),
        Bun("bun-115", "Large bun, 115 mm", 115, 80, free, seeded),
        Bun("bun-65", "Slider roll, 65 mm", 65, 28, free, seeded),
        Bun("slice", "Slice of bread, 115 × 100 mm", 115, 32, free, wheat, "slice", 100),
        Bun("tortilla-150", "Small wheat tortilla, 150 mm", 150, 26, free, wheat, "tortilla"),
        Bun("flatbread-200", "Flatbread, 200 mm", 200, 85, free, wheat, "flatbread"),
        NO_BUN,
    )
