"""Workings of what a portion holds and costs: salt, money, allergens."""

from __future__ import annotations

from vianda.core import phrase as ph
from vianda.core.explain.sources import PRACTICE
from vianda.core.figures import Figures
from vianda.core.phrase import say
from vianda.core.salt import FINE_SALT_G_PER_TSP, USUAL_SALT_FRAC
from vianda.core.working import Working


def salt(f: Figures) -> Working:
    """Salt for batch and piece."""
    s = f.salt
    return Working(
        "Salt",
        (
            say(
                "{frac} of {batch} = {salt}",
                frac=ph.fine_frac(s.salt_frac),
                batch=ph.mass(f.portions.batch_mass_g),
                salt=ph.mass(s.batch_salt_g),
            ),
            say(
                "A piece: {frac} of {piece} = {salt}, half on each side",
                frac=ph.fine_frac(s.salt_frac),
                piece=ph.mass(f.portions.piece_mass_g),
                salt=ph.mass(s.piece_salt_g),
            ),
            say(
                "{salt} ÷ {tsp} = {n} teaspoons of fine salt; a flaky salt weighs about half of that a teaspoon",
                salt=ph.mass(s.batch_salt_g),
                tsp=ph.mass(FINE_SALT_G_PER_TSP),
                n=ph.number(s.batch_salt_tsp),
            ),
            say("The old rule comes to {band} of the meat", band=ph.fine_frac(*USUAL_SALT_FRAC)),
        ),
        "SR28 household weight of salt, 6 g a teaspoon. The rule: " + PRACTICE.lower(),
    )


def cost(f: Figures) -> Working:
    """From shop to portion."""
    c = f.cost
    steps = [
        say(
            "{name}: {used} used ← {trimmed} trimmed ← {bought} bought; at {price} that is {dear} used, {cost}",
            name=ph.word(p.name),
            used=ph.mass(line.used_g),
            trimmed=ph.mass(line.trimmed_g),
            bought=ph.mass(line.bought_g),
            price=ph.price(line.price_per_kg),
            dear=ph.price(line.price_per_kg_used),
            cost=ph.money(line.cost),
        )
        for p, line in zip(f.blend.parts, c.parts, strict=True)
    ]
    if f.bun.price_each:
        steps.append(
            say(
                "{n} × {bun} = {cost}",
                n=ph.count(c.buns),
                bun=ph.word(f.bun.name),
                cost=ph.money(c.bun_cost),
            )
        )
    steps.append(
        say(
            "({meat} + {buns}) ÷ {guests} = {portion} a portion",
            meat=ph.money(c.meat_cost),
            buns=ph.money(c.bun_cost),
            guests=ph.count(f.formula.dish.guests),
            portion=ph.money(c.portion_cost),
        )
    )
    steps.append(say("The blend comes to {price}", price=ph.price(c.blend_price_per_kg)))
    return Working(
        "Cost of a portion",
        tuple(steps),
        "Prices of this larder and kitchen, as bought. Trim losses are usual ones; what stays in the grinder is this "
        "kitchen's.",
    )


def allergens(f: Figures) -> Working:
    """Each allergen with where it is from."""
    if not f.bun.allergens:
        return Working(
            "Allergens",
            (say("Nothing declared: meat and salt hold none of the fourteen"),),
            "EU Regulation 1169/2011, Annex II (the fourteen).",
        )
    return Working(
        "Allergens",
        tuple(say("{a}: from {bun}", a=ph.word(a), bun=ph.word(f.bun.name)) for a in f.bun.allergens),
        "As declared on the bun in this kitchen. The list is EU Regulation 1169/2011, Annex II.",
    )
