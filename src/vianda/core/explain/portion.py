"""Workings of what a portion costs and which allergens it holds."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.basis.working import Working
from vianda.core.pipeline.figures import Figures


def cost(f: Figures) -> Working:
    """From shop to portion.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    c = f.trade.cost
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
        for p, line in zip(f.meat.blend.parts, c.parts, strict=True)
    ]
    if f.context.bun.price_each:
        steps.append(
            say("{n} × {bun} = {cost}", n=ph.count(c.buns), bun=ph.word(f.context.bun.name), cost=ph.money(c.bun_cost))
        )
    steps += [
        say("{name}: {g}, {cost}", name=ph.word(line.name), g=ph.mass(line.mass_g), cost=ph.money(line.cost))
        for line in f.mix.lines
        if line.cost > 0
    ]
    steps.append(
        say(
            "({meat} + {mix} + {buns}) ÷ {guests} = {portion} a portion",
            meat=ph.money(c.meat_cost),
            mix=ph.money(c.mix_cost),
            buns=ph.money(c.bun_cost),
            guests=ph.count(f.context.formula.dish.guests),
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
    """Each allergen with everything it is from.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    source = (
        "As written down for each ingredient and on the bun of this kitchen: labels decide. The list is EU Regulation "
        "1169/2011, Annex II; marked are those US law names too."
    )
    if not f.mix.allergens:
        return Working("Allergens", (say("Nothing declared: meat and salt hold none of the fourteen"),), source)
    return Working(
        "Allergens",
        tuple(
            say(
                "{a}: from {what}" + (" (US law too)" if a.us else ""),
                a=ph.word(a.name),
                what=ph.word(" and ".join(a.sources)),
            )
            for a in f.mix.allergens
        ),
        source,
    )
