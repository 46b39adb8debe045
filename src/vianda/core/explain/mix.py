"""Workings of the mix: salt, panade, school, the whole, bind and looseness, temperature, weighing out."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.working import Working
from vianda.core.batch.salt_ledger import USUAL_SALT_FRAC
from vianda.core.explain.sources import PRACTICE
from vianda.core.inventory.composition import SALT_PER_SODIUM
from vianda.core.mix.index import Index
from vianda.core.mix.whole import KCAL_PER_G
from vianda.core.pipeline.figures import Figures


def salt(f: Figures) -> Working:
    """The ledger, then batch, piece and spoons.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    s, ledger = f.salt, f.salt.ledger
    meat = f.batch.meat_mass_g
    steps = [
        say(
            "Wanted: {frac} of {meat} of meat = {g}",
            frac=ph.fine_frac(s.salt_frac),
            meat=ph.mass(meat),
            g=ph.mass(s.wanted_g),
        ),
        *(
            say("{what} brings {g}", what=ph.word(entry.name), g=ph.mass(entry.per_meat_frac * meat))
            for entry in ledger.entries
        ),
    ]
    if ledger.over_frac > 0:
        steps.append(
            say("{over} more than wanted comes along: nothing is added", over=ph.mass(ledger.over_frac * meat))
        )
    elif ledger.entries:
        steps.append(
            say(
                "{wanted} − {brought} = {add} to add",
                wanted=ph.mass(s.wanted_g),
                brought=ph.mass(s.brought_g),
                add=ph.mass(s.batch_salt_g),
            )
        )
    if s.salt_place == "surface":
        rim = say(", {rim} on the rim", rim=ph.mass(s.rim_salt_g)) if s.rim_salt_g else None
        steps.append(
            say(
                "A piece: {g}, {side} a side" + (rim.text if rim else ""),
                g=ph.mass(s.piece_salt_g),
                side=ph.mass(s.side_salt_g),
                **(rim.amounts if rim else {}),
            )
        )
    steps += [
        say(
            "{g} ÷ {tsp} a teaspoon = {n} teaspoons of {salt}",
            g=ph.mass(s.batch_salt_g),
            tsp=ph.mass(s.g_per_tsp),
            n=ph.number(s.batch_salt_tsp),
            salt=ph.word(s.salt_name.lower()),
        ),
        say("Of the whole mix, put in or brought: {frac}", frac=ph.fine_frac(s.of_mix_frac)),
        say(
            "With all that is eaten with it a guest gets {salt} of salt, {na} of sodium",
            salt=ph.mass(f.served.salt_g),
            na=ph.mass_mg(f.served.sodium_mg),
        ),
        say("The old rule comes to {band} of the meat", band=ph.fine_frac(*USUAL_SALT_FRAC)),
    ]
    return Working(
        "Salt",
        tuple(steps),
        f"Salt = sodium × {SALT_PER_SODIUM}; sodium by SR28. Fine salt 6 g a teaspoon (SR28 02047), coarse 4.8 and "
        "flake 3 from memory. The meat's own sodium is not counted against what is wanted. The rule: "
        + PRACTICE.lower(),
    )


def panade(f: Figures) -> Working:
    """Crumb, liquid, their ratio, and what it is called.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    p = f.mix.panade
    if p.state == "none":
        return Working("Panade", (say("No crumb or bread in this mix"),), PRACTICE)
    steps = [
        say("Crumb: {g}, {per} to a hundred of meat", g=ph.mass(p.crumb_g), per=ph.per_hundred(p.crumb_per_meat_frac)),
        say("Liquid, computed as the milk that brings as much water: {g}", g=ph.mass(p.liquid_g)),
        say(
            "{liquid} ÷ {crumb} = {ratio}",
            liquid=ph.mass(p.liquid_g),
            crumb=ph.mass(p.crumb_g),
            ratio=ph.number(p.ratio),
        ),
        say(
            "This crumb is a stiff paste from {a}, soft from {b}, soup from {c}",
            a=ph.number(p.edges[1]),
            b=ph.number(p.edges[2]),
            c=ph.number(p.edges[3]),
        ),
        _to("stiff", p.to_stiff_g),
        _to("soft", p.to_soft_g),
        say("It soaks {time}", time=ph.minutes(p.soak_needed_min)),
    ]
    return Working("Panade", tuple(steps), "What each crumb drinks: " + PRACTICE.lower() + " Water by SR28.")


def _to(state: str, grams: float) -> Phrase:
    if grams >= 0:
        return say(f"For a {state} paste add {{g}} of milk", g=ph.mass(grams))
    return say(f"For a {state} paste leave out {{g}} of milk", g=ph.mass(-grams))


def school(f: Figures) -> Working:
    """Every school of the dish with its distance, and where the nearest differs.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    found = f.mix.resemblance
    steps = [say("{title}: {d} steps away", title=ph.word(s.title), d=ph.number(s.distance)) for s in found.all]
    titles = {g.group: g.title for g in f.mix.groups}
    for misfit in found.all[0].misfits:
        steps.append(
            say(
                "{group}: {now}, its band {band} to a hundred of meat",
                group=ph.word(titles[misfit.group]),
                now=ph.per_hundred(misfit.value_frac),
                band=ph.per_hundred(misfit.low_frac, misfit.high_frac),
            )
        )
    steps.append(say("So it is {title}", title=ph.word(found.title)))
    return Working(
        "School",
        tuple(steps),
        "Bands: common practice, no published source. A step is how far outside a band counts as one; ours.",
    )


def whole(f: Figures) -> Working:
    """The mix as a sum, and its energy.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    w = f.mix.whole
    per = 1.0 / w.mass_g
    steps = [
        say(
            "{meat} of meat + {lines} of what goes in = {mix}",
            meat=ph.mass(w.meat_g),
            lines=ph.mass(w.mass_g - w.meat_g),
            mix=ph.mass(w.mass_g),
        ),
        say("Water {g}, {p}", g=ph.mass(w.water_g), p=ph.fine_frac(w.water_g * per)),
        say(
            "Fat {g}, {p}; nine batches in ten {band}",
            g=ph.mass(w.fat_g),
            p=ph.fine_frac(w.fat_frac),
            band=ph.fine_frac(w.fat_low_frac, w.fat_high_frac),
        ),
        say("Protein {g}, {p}", g=ph.mass(w.protein_g), p=ph.fine_frac(w.protein_g * per)),
        say(
            "Carbohydrate {g}, {p}, of it sugars {s}",
            g=ph.mass(w.carbohydrate_g),
            p=ph.fine_frac(w.carbohydrate_g * per),
            s=ph.mass(w.sugars_g),
        ),
        say("Salt {g}, the meat's own too", g=ph.mass(w.salt_g)),
        say(
            "{protein} × {four} + {fat} × {nine} + {carb} × {four} = {kcal}",
            protein=ph.mass(w.protein_g),
            fat=ph.mass(w.fat_g),
            carb=ph.mass(w.carbohydrate_g),
            four=ph.number(KCAL_PER_G["protein"]),
            nine=ph.number(KCAL_PER_G["fat"]),
            kcal=ph.energy(w.energy_kcal),
        ),
    ]
    return Working(
        "The whole raw mix",
        tuple(steps),
        "Weighted sums of SR28 analyses (or from memory, as each ingredient says). Energy by the Atwater factors. "
        "Raw: what drips off in the heat is not taken away; alcohol is not counted.",
    )


def _index(title: str, index: Index) -> Working:
    steps = [
        say(
            f"{{rule}}: {'+' if t.points >= 0 else '−'}{{points}}. {t.why.text}",
            rule=ph.word(t.rule),
            points=ph.number(abs(t.points)),
        )
        for t in index.terms
    ]
    steps.append(say("Together {value} of a hundred: {word}", value=ph.number(index.value), word=ph.word(index.word)))
    return Working(
        title,
        tuple(steps),
        "An index to compare two mixes by, not a measurement: the points are ours, ordered by common practice.",
    )


def bind(f: Figures) -> Working:
    """What holds it together, rule by rule.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    return _index("Bind", f.mix.bind)


def looseness(f: Figures) -> Working:
    """What keeps it open, rule by rule.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    return _index("Looseness", f.mix.looseness)


def mix_temp(f: Figures) -> Working:
    """The temperature of the mix from its parts.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    steps = [say("Meat: {g} at {t}", g=ph.mass(f.batch.meat_mass_g), t=ph.temp(f.context.formula.mix.meat_temp_c))]
    steps += [
        say("{name}: {g} at {t}", name=ph.word(line.name), g=ph.mass(line.mass_g), t=ph.temp(line.temp_c))
        for line in f.mix.lines
    ]
    chill = f.mix.chill_to_cold_min
    steps.append(say("Heat is kept: together {t}", t=ph.temp(f.mix.mix_temp_c)))
    if chill.high > 0:
        steps.append(say("In the fridge, 3 cm deep, to 4 °C: {time}", time=ph.minutes(chill.low, chill.high)))
    return Working(
        "Temperature of the mix",
        tuple(steps),
        "Heat capacities: Choi & Okos (1986). Hands, bowl and room are not counted. Chilling: a lumped model, the heat "
        "transfer of still air from memory.",
    )


def weigh_out(f: Figures) -> Working:
    """What is rounded, and by how much.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    w = f.sheet.weigh_out
    steps = [
        say(
            "{name}: {exact} → {measured}, {off}",
            name=ph.word(line.name),
            exact=ph.mass(line.exact_g),
            measured=ph.mass(line.measured_g),
            off=ph.fine_frac(line.error_frac),
        )
        for line in w.lines
    ]
    steps.append(
        say(
            "With {meat} of meat the bowl comes to {g}, {off} from what is wanted",
            meat=ph.mass(w.meat_g),
            g=ph.mass(w.comes_to_g),
            off=ph.fine_frac(w.off_frac),
        )
    )
    return Working(
        "Weighing out", tuple(steps), "Arithmetic on this kitchen's scale; spoons to an eighth of a teaspoon."
    )
