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
    steps += [
        say("{name}: {g}, {cost}", name=ph.word(t.name), g=ph.mass(t.used_g), cost=ph.money(t.cost))
        for t in f.served.things
        if t.kind != "bread" and t.cost > 0
    ]
    steps.append(
        say(
            "({meat} + {mix} + {heat} + {buns}) ÷ {guests} = {portion} a portion"
            if c.heat_cost
            else "({meat} + {mix} + {buns}) ÷ {guests} = {portion} a portion",
            **({"heat": ph.money(c.heat_cost)} if c.heat_cost else {}),
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


def portion(f: Figures) -> Working:
    """What a guest eats: the mix, what comes in at the heat, and the bread.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    guests, s = f.context.formula.dish.guests, f.served
    steps = [say("The mix: {g}, {kcal}", g=ph.mass(f.mix.whole.mass_g), kcal=ph.energy(f.mix.whole.energy_kcal))]
    steps += [
        say(
            "{name}: {eaten} eaten; " + t.why.text,
            name=ph.word(t.name),
            eaten=ph.mass(t.eaten_low_g, t.eaten_high_g) if t.eaten_high_g > t.eaten_low_g else ph.mass(t.eaten_g),
            **t.why.amounts,
        )
        for t in s.things
    ]
    steps += [
        say("All of it ÷ {n} guests = {kcal} each", n=ph.count(guests), kcal=ph.energy(s.energy_kcal)),
        say(
            "Protein {p}, fat {f}, carbohydrate {c}, of it sugars {s}",
            p=ph.mass(s.protein_g),
            f=ph.mass(s.fat_g),
            c=ph.mass(s.carbohydrate_g),
            s=ph.mass(s.sugars_g),
        ),
        say("Salt {salt}, that is {na} of sodium", salt=ph.mass(s.salt_g), na=ph.mass_mg(s.sodium_mg)),
    ]
    if s.simmered:
        steps.append(say("The sauce that the pieces lie in is eaten too and is not counted here."))
    return Working(
        "A portion as served",
        tuple(steps),
        "Weighted sums of SR28 analyses (or from memory, as each ingredient says); bread by SR28 18350, 18069, 18364 "
        "and 18041. Energy by the Atwater factors. Before the heat takes its share: what drips off and boils away is "
        "not taken off; alcohol is not counted.",
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
    if not f.served.allergens:
        return Working("Allergens", (say("Nothing declared: meat and salt hold none of the fourteen"),), source)
    return Working(
        "Allergens",
        tuple(
            say(
                "{a}: from {what}" + (" (US law too)" if a.us else ""),
                a=ph.word(a.name),
                what=ph.word(" and ".join(a.sources)),
            )
            for a in f.served.allergens
        ),
        source,
    )
