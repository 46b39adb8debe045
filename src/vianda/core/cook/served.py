"""What comes in at the heat and goes round the meat, each thing once, and the portion as it is served.

Cheese laid on, fat in the pan, a glaze and the bread are no part of the mix. They count for allergens, limits, energy,
salt and cost all the same, and this is the one place that counts them.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.batch.lines import LineFigures
from vianda.core.batch.portions import Portions
from vianda.core.blend.blend import BlendFigures
from vianda.core.cook.balance import BalanceRow, BesideKind, Part, balance_of
from vianda.core.equipment.kitchen import Bun, BunKind
from vianda.core.inventory.composition import SALT_PER_SODIUM, Composition, sr28_composition
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Ingredient, starter_pantry
from vianda.core.mix.limits import Breach, breaches
from vianda.core.mix.whole import KCAL_PER_G, Allergen, WholeMix, allergens_of
from vianda.core.model.formula import Formula, HeatStage, PanFat
from vianda.core.model.styles import Form
from vianda.core.sauce.glaze import coat_g, showing_dm2
from vianda.core.shape.figures import ShapeFigures
from vianda.core.stack.layers import KINDS

# SR28 rows of bread by its kind: hamburger rolls, white bread, wheat tortillas, white pita.
BREAD_ROWS: Mapping[BunKind, str] = {"bun": "18350", "slice": "18069", "tortilla": "18364", "flatbread": "18041"}
FAT_KEYS: Mapping[PanFat, str] = {
    "oil": "neutral-oil",
    "clarified-butter": "ghee",
    "butter": "butter",
    "dripping": "tallow",
    "bacon-fat": "bacon-fat",
}
KJ_PER_KCAL = 4.184
# A slice where the ingredient has none of its own, g (SR28: processed 21, cheddar 28; between them).
SLICE_G = 25.0
# A teaspoon of fat for a piece, and what of it is eaten: common practice, no published source; the rest stays behind.
PAN_FAT_G, CLINGS_LOW, CLINGS, CLINGS_HIGH = 5.0, 0.2, 0.5, 1.0
# Fat taken up by a piece that lies in it, of its raw mass: ours, low confidence, between crust and nothing.
TAKEN_UP_LOW, TAKEN_UP, TAKEN_UP_HIGH = 0.01, 0.03, 0.06


@dataclass(frozen=True, slots=True)
class Beside:
    """One thing that is not in the mix: what it is, what is taken of it and what is eaten, g in the batch; its cost.

    ``eaten_low_g`` to ``eaten_high_g`` is what is not known of it. ``why`` says how much was counted.
    """

    kind: BesideKind
    key: str
    name: str
    used_g: float
    eaten_g: float
    eaten_low_g: float
    eaten_high_g: float
    allergens: tuple[str, ...]
    cost: Decimal
    composition: Composition
    why: Phrase


@dataclass(frozen=True, slots=True)
class Served:
    """A portion with everything that is eaten of it, its allergens, and the limits that something in it breaks.

    As laid on the heat: what drips off and boils away is not taken off. ``cost`` is that of the things beside without
    the bread. ``simmered``: the pieces lie in a sauce of which nothing is said; it is eaten too, and not counted.
    ``balance``: what each part brings.
    """

    things: tuple[Beside, ...]
    allergens: tuple[Allergen, ...]
    breaches: tuple[Breach, ...]
    cost: Decimal
    energy_kcal: float
    energy_kj: float
    protein_g: float
    fat_g: float
    carbohydrate_g: float
    sugars_g: float
    salt_g: float
    sodium_mg: float
    simmered: bool
    balance: tuple[BalanceRow, ...]


def _found(key: str, inventory: Inventory) -> Ingredient | None:
    """A formula from a file of old holds only what its mix names; the starter pantry knows the rest."""
    return inventory.pantry.get(key) or starter_pantry().get(key)


def _thing(
    kind: BesideKind, thing: Ingredient, *, used_g: float, eaten: tuple[float, float, float], why: Phrase
) -> Beside:
    low, usual, high = eaten
    return Beside(
        kind=kind,
        key=thing.key,
        name=thing.name,
        used_g=used_g,
        eaten_g=usual,
        eaten_low_g=low,
        eaten_high_g=high,
        allergens=thing.allergens,
        cost=Decimal(repr(used_g)) / 1000 * thing.price_per_kg,
        composition=thing.composition,
        why=why,
    )


def _coats(number: int) -> ph.Amount:
    return ph.word("a coat" if number == 1 else f"{number} coats")


def _slice_g(thing: Ingredient) -> float:
    return next((p.mass_g for p in thing.pieces if p.name == "slice"), SLICE_G)


def beside(
    formula: Formula,
    *,
    form: Form,
    stages: Sequence[HeatStage],
    shape: ShapeFigures,
    portions: Portions,
    bun: Bun,
    buns: int,
    inventory: Inventory,
) -> tuple[Beside, ...]:
    """Everything that comes in at the heat or round the meat, each once however many stages mention it.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    form : Form
        Form of the piece.
    stages : Sequence[HeatStage]
        The stages in force.
    shape : ShapeFigures
        Size of the raw piece, mm.
    portions : Portions
        How the batch is divided.
    bun : Bun
        The bread.
    buns : int
        How many of it are eaten (count).
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    tuple[Beside, ...]
        Each: what is taken and eaten of one thing.

    References
    ----------
    Slices: SR28 household weights. Bread: SR28 18350, 18069, 18364, 18041. What clings of the fat in a pan, what a
    piece takes up of a bath: ours, stated as a range. A coat of glaze: ``sauce.glaze``.
    """
    heat, n = formula.heat, portions.pieces
    out: list[Beside] = []
    if any(s.cheese for s in stages) and (cheese := _found(heat.cheese, inventory)) is not None:
        mass = n * _slice_g(cheese)
        why = say("one slice of {m} on each of {n}", m=ph.mass(_slice_g(cheese)), n=ph.count(n))
        out.append(_thing("cheese", cheese, used_g=mass, eaten=(mass, mass, mass), why=why))
    if any(s.glaze for s in stages) and (glaze := _found(heat.glaze, inventory)) is not None:
        # How often it is brushed on is said beside the formula; a stage alone is one coat.
        said = [a for a in formula.beside if a.role == "glaze" and a.ingredient == heat.glaze]
        coats = max([1, *(a.coats for a in said)])
        one = coat_g(showing_dm2(shape, form, pieces=n))
        spread = (coats * one.low, coats * one.usual, coats * one.high)
        why = say(
            "{coats} of 1 to 2 mm, {m} on each of {n}", coats=_coats(coats), m=ph.mass(spread[1] / n), n=ph.count(n)
        )
        # What is made beyond the coats is paid for too, whether it comes to the table or not.
        made = max([spread[1], *(a.made_g for a in said)])
        out.append(_thing("glaze", glaze, used_g=made, eaten=spread, why=why))
    fried = any(s.kind == "fry" for s in stages)
    key = FAT_KEYS.get(heat.fat, "neutral-oil" if fried else "")
    if key and (fat := _found(key, inventory)) is not None:
        mass = sum(portions_of(portions))
        if fried:
            eaten = (mass * TAKEN_UP_LOW, mass * TAKEN_UP, mass * TAKEN_UP_HIGH)
            why = say(
                "a piece takes up {share} of its mass from the fat it lies in",
                share=ph.frac(TAKEN_UP_LOW, TAKEN_UP_HIGH),
            )
            out.append(_thing("frying-fat", fat, used_g=eaten[1], eaten=eaten, why=why))
        else:
            used = n * PAN_FAT_G
            why = say(
                "a teaspoon, {m}, in the pan for each piece; {share} of it is eaten",
                m=ph.mass(PAN_FAT_G),
                share=ph.frac(CLINGS_LOW, CLINGS_HIGH),
            )
            out.append(
                _thing(
                    "pan-fat", fat, used_g=used, eaten=(used * CLINGS_LOW, used * CLINGS, used * CLINGS_HIGH), why=why
                )
            )
    out += _round_the_meat(
        formula, counted={t.key for t in out}, builds=buns or formula.dish.guests, inventory=inventory
    )
    if buns and bun.diameter_mm > 0:
        mass = buns * bun.mass_g
        out.append(
            Beside(
                kind="bread",
                key=bun.key,
                name=bun.name,
                used_g=mass,
                eaten_g=mass,
                eaten_low_g=mass,
                eaten_high_g=mass,
                allergens=bun.allergens,
                cost=bun.price_each * buns,
                composition=sr28_composition(BREAD_ROWS[bun.kind]),
                why=say("{n} of {m}", n=ph.count(buns), m=ph.mass(bun.mass_g)),
            )
        )
    return tuple(out)


def _round_the_meat(formula: Formula, *, counted: set[str], builds: int, inventory: Inventory) -> list[Beside]:
    """Sauces by their dose and layers by their grams; what the heat brought or a dose counts is not counted again."""
    out: list[Beside] = []
    guests = formula.dish.guests
    for a in formula.beside:
        thing = _found(a.ingredient, inventory)
        if thing is None or a.ingredient in counted or a.dose_g <= 0.0:
            continue
        counted.add(a.ingredient)
        mass = guests * a.dose_g
        why = say("{m} for each of {n}", m=ph.mass(a.dose_g), n=ph.count(guests))
        out.append(_thing("sauce", thing, used_g=max(mass, a.made_g), eaten=(mass, mass, mass), why=why))
    layers: dict[str, float] = {}
    for layer in formula.stack:
        if layer.ingredient and layer.ingredient not in counted:
            one = layer.mass_g or KINDS[layer.kind].mass_g
            layers[layer.ingredient] = layers.get(layer.ingredient, 0.0) + one
    for key, one in layers.items():
        thing = _found(key, inventory)
        if thing is not None:
            mass = builds * one
            why = say("{m} in each of {n}", m=ph.mass(one), n=ph.count(builds))
            out.append(_thing("layer", thing, used_g=mass, eaten=(mass, mass, mass), why=why))
    return out


def portions_of(portions: Portions) -> tuple[float, ...]:
    """Raw mass of every piece.

    Parameters
    ----------
    portions : Portions
        How the batch is divided.

    Returns
    -------
    tuple[float, ...]
        Mass of each piece, g.
    """
    light = portions.pieces - portions.heavier_pieces
    return (float(portions.piece_mass_g),) * light + (float(portions.heavier_mass_g),) * portions.heavier_pieces


def served(
    formula: Formula,
    *,
    things: tuple[Beside, ...],
    lines: tuple[LineFigures, ...],
    blend: BlendFigures,
    whole: WholeMix,
    stages: Sequence[HeatStage],
    inventory: Inventory,
) -> Served:
    """The portion as it is served: the mix and what is eaten of everything beside it, divided by guests.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    things : tuple[Beside, ...]
        What comes in at the heat and round the meat.
    lines : tuple[LineFigures, ...]
        The lines of the mix.
    blend : BlendFigures
        The blend on the scale.
    whole : WholeMix
        The raw mix, g.
    stages : Sequence[HeatStage]
        The stages in force.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Served
        Figures of one portion, allergens, and limits that are broken.

    References
    ----------
    Energy by the Atwater general factors, 4, 9 and 4 kcal/g (USDA Agriculture Handbook 74; EU 1169/2011 Annex XIV).
    """
    guests = formula.dish.guests

    def sum_of(name: str) -> float:
        return math.fsum(t.eaten_g * getattr(t.composition, name) for t in things) / 100.0

    protein = whole.protein_g + sum_of("protein_g_per_100g")
    fat = whole.fat_g + sum_of("fat_g_per_100g")
    carbohydrate = whole.carbohydrate_g + sum_of("carbohydrate_g_per_100g")
    salt = whole.salt_g + sum_of("sodium_mg_per_100g") * SALT_PER_SODIUM / 1000.0
    energy = protein * KCAL_PER_G["protein"] + fat * KCAL_PER_G["fat"] + carbohydrate * KCAL_PER_G["carbohydrate"]
    named = [(line.name, inventory.pantry[line.ingredient].allergens) for line in lines if line.per_meat_frac > 0]
    return Served(
        things=things,
        allergens=allergens_of([*named, *((t.name, t.allergens) for t in things)]),
        breaches=breaches(
            formula.mix.avoid,
            lines=lines,
            blend=blend,
            whole=whole,
            beside=[(t.kind, t.key, t.name, t.allergens) for t in things],
            inventory=inventory,
        ),
        cost=sum((t.cost for t in things if t.kind != "bread"), Decimal(0)),
        energy_kcal=energy / guests,
        energy_kj=energy * KJ_PER_KCAL / guests,
        protein_g=protein / guests,
        fat_g=fat / guests,
        carbohydrate_g=carbohydrate / guests,
        sugars_g=(whole.sugars_g + sum_of("sugars_g_per_100g")) / guests,
        salt_g=salt / guests,
        sodium_mg=salt / guests / SALT_PER_SODIUM * 1000.0,
        simmered=any(s.kind == "simmer" for s in stages)
        and not any(a.role in ("cooking-sauce", "sauce-base") for a in formula.beside),
        balance=balance_of(
            [Part(t.kind, t.key, t.name, t.eaten_g, t.composition) for t in things],
            lines=lines,
            whole=whole,
            guests=guests,
            inventory=inventory,
        ),
    )
