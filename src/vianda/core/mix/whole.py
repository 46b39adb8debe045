"""The whole raw mix: water, fat, protein, carbohydrate, salt, energy, and allergens."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from vianda.core.batch.lines import LineFigures
from vianda.core.blend.blend import BlendFigures, PartFigures
from vianda.core.inventory.composition import SALT_PER_SODIUM, Composition
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import ALLERGENS, Group
from vianda.core.mix.temperature import Part

# Atwater general factors, kcal/g (USDA Agriculture Handbook 74; EU Regulation 1169/2011, Annex XIV).
KCAL_PER_G = {"protein": 4.0, "fat": 9.0, "carbohydrate": 4.0}
# What holds a mix together beside the meat.
BINDERS: tuple[Group, ...] = ("crumb", "bread", "starch", "egg", "white")


@dataclass(frozen=True, slots=True)
class Allergen:
    """One of the fourteen allergens of EU law, whether US law names it too, and each thing it comes from."""

    name: str
    us: bool
    sources: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class WholeMix:
    """The raw mix in grams, and the meat's share in it.

    Salt strewn on the surface is in ``salt_g``, not in ``mass_g``. ``fat_low_frac`` to
    ``fat_high_frac`` carries the uncertainty of the meat. ``binder_frac`` is crumb, bread, starch, egg and white by
    mass of the meat. ``make_up`` names the parts with their share of the mass.
    """

    mass_g: float
    meat_g: float
    water_g: float
    protein_g: float
    fat_g: float
    carbohydrate_g: float
    ash_g: float
    make_up: tuple[tuple[str, float], ...]
    sugars_g: float
    salt_g: float
    fat_frac: float
    fat_low_frac: float
    fat_high_frac: float
    binder_frac: float
    energy_kcal: float


def meat_compositions(parts: Sequence[PartFigures], *, inventory: Inventory) -> list[Composition]:
    """Composition of each meat at the fat it is computed with.

    Parameters
    ----------
    parts : Sequence[PartFigures]
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    list[Composition]
        Each: grams of each part in 100 g of the food as bought raw.
    """
    return [inventory.meat(p.meat).composition_at(p.fat_usual_frac) for p in parts]


def bowl_parts(
    blend: BlendFigures, lines: Sequence[LineFigures], *, inventory: Inventory, meat_mass_g: float, meat_temp_c: float
) -> list[Part]:
    """Everything in the bowl but the salt, with mass, composition and temperature.

    Parameters
    ----------
    blend : BlendFigures
        The blend on the scale.
    lines : Sequence[LineFigures]
        The lines of the mix.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    meat_mass_g : float
        Mass of the meat in the batch, g.
    meat_temp_c : float
        Temperature of the meat, °C.

    Returns
    -------
    list[Part]
        Each: something that goes into the bowl.
    """
    meats = meat_compositions(blend.parts, inventory=inventory)
    held = [Part(p.share_frac * meat_mass_g, c, meat_temp_c) for p, c in zip(blend.parts, meats, strict=True)]
    return held + [Part(line.mass_g, inventory.pantry[line.ingredient].composition, line.temp_c) for line in lines]


def whole_mix(
    parts: Sequence[Part],
    *,
    lines: Sequence[LineFigures],
    blend: BlendFigures,
    meat_mass_g: float,
    mixed_salt_g: float,
    surface_salt_g: float,
) -> WholeMix:
    """The whole as the weighted sum of its parts: X = Σ mᵢ xᵢ ÷ 100.

    Salt put in adds to mass, ash and sodium. Energy by the Atwater general factors, 4, 9 and 4 kcal/g; alcohol is not
    counted.

    Parameters
    ----------
    parts : Sequence[Part]
        Meats with their shares.
    lines : Sequence[LineFigures]
        The lines of the mix.
    blend : BlendFigures
        The blend on the scale.
    meat_mass_g : float
        Mass of the meat in the batch, g.
    mixed_salt_g : float
        Salt that is mixed in, g.
    surface_salt_g : float
        Salt that goes on the surface, g.

    Returns
    -------
    WholeMix
        The raw mix in grams, and the meat's share in it.

    References
    ----------
    Arithmetic; compositions carry their own source.
    """

    def sum_of(name: str) -> float:
        return math.fsum(p.mass_g * getattr(p.composition, name) for p in parts) / 100.0

    mass = math.fsum(p.mass_g for p in parts) + mixed_salt_g
    fat, protein, carbohydrate = (
        sum_of("fat_g_per_100g"),
        sum_of("protein_g_per_100g"),
        sum_of("carbohydrate_g_per_100g"),
    )
    sugars = sum_of("sugars_g_per_100g")
    energy = protein * KCAL_PER_G["protein"] + fat * KCAL_PER_G["fat"] + carbohydrate * KCAL_PER_G["carbohydrate"]
    own_salt = sum_of("sodium_mg_per_100g") * SALT_PER_SODIUM / 1000.0
    salt = own_salt + mixed_salt_g + surface_salt_g
    other_fat = fat - blend.fat_frac * meat_mass_g
    ash = sum_of("ash_g_per_100g") + mixed_salt_g
    water = sum_of("water_g_per_100g")
    made_of = (
        ("water", water),
        ("protein", protein),
        ("fat", fat),
        ("carbohydrate", carbohydrate),
        ("ash and salt", ash),
    )
    return WholeMix(
        mass_g=mass,
        meat_g=meat_mass_g,
        water_g=water,
        protein_g=protein,
        fat_g=fat,
        carbohydrate_g=carbohydrate,
        ash_g=ash,
        make_up=tuple((name, part / mass) for name, part in made_of if part > 0),
        sugars_g=sugars,
        salt_g=salt,
        fat_frac=fat / mass,
        fat_low_frac=(other_fat + blend.fat_low_frac * meat_mass_g) / mass,
        fat_high_frac=(other_fat + blend.fat_high_frac * meat_mass_g) / mass,
        binder_frac=sum(line.mass_g for line in lines if line.group in BINDERS) / meat_mass_g,
        energy_kcal=energy,
    )


def composition_of_whole(mix: WholeMix) -> Composition:
    """The whole per 100 g, for its heat capacity.

    Parameters
    ----------
    mix : WholeMix
        The whole mix.

    Returns
    -------
    Composition
        Grams of each part in 100 g of the food as bought raw.
    """
    per = 100.0 / mix.mass_g
    return Composition(
        mix.water_g * per,
        mix.protein_g * per,
        mix.fat_g * per,
        mix.carbohydrate_g * per,
        mix.ash_g * per,
        mix.salt_g / SALT_PER_SODIUM * 1000.0 * per,
        mix.sugars_g * per,
    )


def allergens_of(things: Iterable[tuple[str, Sequence[str]]]) -> tuple[Allergen, ...]:
    """Each allergen with everything it comes from, in the order of the law's list.

    Parameters
    ----------
    things : Iterable[tuple[str, Sequence[str]]]
        Name and declared allergens of everything that is eaten.

    Returns
    -------
    tuple[Allergen, ...]
        Each: one of the fourteen allergens of EU law, whether US law names it too, and each thing it comes from.

    References
    ----------
    Regulation (EU) 1169/2011, Annex II, from memory, high confidence; what a product declares is ours.

    Examples
    --------
    Panko and a bun bring gluten twice: both are named, since taking out one is not enough.

    >>> [(a.name, a.sources) for a in allergens_of([("Panko", ["gluten"]), ("Bun", ["gluten", "sesame"])])]
    [('gluten', ('Panko', 'Bun')), ('sesame', ('Bun',))]
    """
    found: dict[str, list[str]] = {}
    for source, declared in things:
        for allergen in declared:
            found.setdefault(allergen, []).append(source)
    order = list(ALLERGENS)

    def place(name: str) -> int:
        base = name.split(" (")[0]
        return order.index(base) if base in ALLERGENS else len(order)

    return tuple(
        Allergen(name, ALLERGENS.get(name.split(" (")[0], False), tuple(found[name]))
        for name in sorted(found, key=lambda n: (place(n), n))
    )
