"""Counsel on what holds the mix together: crumb and liquid, egg, cheese, and a mix with too little in it."""

from __future__ import annotations

from vianda.core.basis.phrase import count, fine_frac, frac, mass, minutes, number, per_hundred, say, word
from vianda.core.counsel.rule import PRACTICE, Change, Remark, Rule
from vianda.core.mix.schools import BandGroup, schools_for
from vianda.core.model.edit import Choose, CountLine, PutIn, SetFigure, TakeOut
from vianda.core.pipeline.figures import Figures

LEAST_CRUMB_FRAC = 0.02
MOST_CRUMB_FRAC = 0.15
LEAST_BINDER_FRAC = 0.05
MOST_BURGER_CRUMB_FRAC = 0.04
LOOSE_LIQUID_FRAC = 0.03
# One large egg of 50 g to 350 to 1000 g of meat.
EGG_FRAC = (0.05, 50 / 350)
EGG_START_FRAC = 0.08
MOST_CHEESE_FRAC, MOST_CHEESE_TO_CRUMB = 0.10, 1.5
MOST_ROUNDING_FRAC = 0.15
LEAN_FRAC = 0.12


def is_bound(figures: Figures) -> bool:
    """Whether the dish is one that is held together: a ball or a loaf.

    Parameters
    ----------
    figures : Figures
        The results of all stages.

    Returns
    -------
    bool
        Whether the dish is one that is held together: a ball or a loaf.
    """
    return figures.context.formula.dish.dish in ("meatball", "meatloaf")


def group(figures: Figures, *names: BandGroup) -> float:
    """Some groups together, by mass of the meat.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    *names : BandGroup
        The verdict on each name.

    Returns
    -------
    float
        Some groups together, by mass of the meat.
    """
    return sum(g.per_meat_frac for g in figures.mix.groups if g.group in names)


def _custard(figures: Figures) -> bool:
    return figures.mix.resemblance.nearest == "custard-tray-loaf"


def _to_school(figures: Figures) -> tuple[Change, ...]:
    school = schools_for(figures.context.formula.dish.dish)[0]
    return (Change(say("Move to {school}", school=word(school.title.lower())), Choose("mix_school", school.key)),)


def _set_liquid(figures: Figures, ratio: float, label: str) -> tuple[Change, ...]:
    panade = figures.mix.panade
    wanted = ratio * panade.crumb_per_meat_frac
    held = next(g.held_frac for g in figures.mix.groups if g.group == "liquid")
    if wanted < held:
        return ()
    grams = mass(wanted * figures.batch.meat_mass_g)
    return (Change(say(f"{label}: {{g}} of liquid", g=grams), SetFigure("group", wanted, item="liquid")),)


def _crumb_dry(figures: Figures) -> Remark | None:
    panade = figures.mix.panade
    # An egg or a ricotta is drunk as well as milk is.
    if panade.wet_ratio >= panade.edges[0] or panade.crumb_per_meat_frac < LEAST_CRUMB_FRAC:
        return None
    stiff = (panade.edges[1] + panade.edges[2]) / 2
    return Remark(
        say("{crumb} of crumb, and nothing for it to drink", crumb=mass(panade.crumb_g)),
        say(
            "It will drink the meat's own juice. {low} to {high} parts of milk to one of it make a stiff paste.",
            low=number(panade.edges[1]),
            high=number(panade.edges[2]),
        ),
        _set_liquid(figures, stiff, "Make it a stiff paste"),
    )


def _soup(figures: Figures) -> Remark | None:
    panade = figures.mix.panade
    if panade.state != "soup":
        return None
    soft = (panade.edges[2] + panade.edges[3]) / 2
    return Remark(
        say("The panade is soup: {ratio} parts of liquid to one of crumb", ratio=number(panade.ratio)),
        say(
            "From {edge} on this crumb cannot hold it, and the mix will not hold a shape.", edge=number(panade.edges[3])
        ),
        _set_liquid(figures, soft, "Make it a soft paste"),
    )


def _liquid_alone(figures: Figures) -> Remark | None:
    panade = figures.mix.panade
    held = group(figures, "starch")
    if not is_bound(figures) or panade.state != "none" or held > 0 or panade.liquid_per_meat_frac < LOOSE_LIQUID_FRAC:
        return None
    crumb = round(panade.liquid_per_meat_frac / 1.25, 4)
    change: tuple[Change, ...] = ()
    if "panko" in figures.context.inventory.pantry:
        change = (Change(say("Add {g} of panko", g=mass(crumb * figures.batch.meat_mass_g)), PutIn("panko", crumb)),)
    return Remark(
        say("{liquid} of liquid, and no crumb to hold it", liquid=mass(panade.liquid_g)),
        say("Free liquid keeps the meat apart and cooks out grey."),
        change,
    )


def _soak_short(figures: Figures) -> Remark | None:
    panade, soak = figures.mix.panade, figures.context.formula.mix.soak_min
    if panade.state in ("none", "dry") or soak >= panade.soak_needed_min:
        return None
    return Remark(
        say("{soak} is short for this crumb", soak=minutes(soak)),
        say("It takes {need} to drink; until then it is wetter than it will be.", need=minutes(panade.soak_needed_min)),
        (Change(say("Soak {need}", need=minutes(panade.soak_needed_min)), SetFigure("soak", panade.soak_needed_min)),),
    )


def _crumb_heavy(figures: Figures) -> Remark | None:
    crumb = group(figures, "crumb")
    if crumb <= MOST_CRUMB_FRAC + 1e-9:
        return None
    return Remark(
        say("{crumb} parts of crumb to a hundred of meat", crumb=per_hundred(crumb)),
        say("Past {most} it eats of bread. Usual is 4 to 15.", most=per_hundred(MOST_CRUMB_FRAC)),
        (
            Change(
                say("Make it {most}", most=per_hundred(MOST_CRUMB_FRAC)),
                SetFigure("group", MOST_CRUMB_FRAC, item="crumb"),
            ),
        ),
    )


def _binder_short(figures: Figures) -> Remark | None:
    if not is_bound(figures) or figures.mix.whole.binder_frac >= LEAST_BINDER_FRAC - 1e-9:
        return None
    return Remark(
        say("Only {binder} parts of binder to a hundred of meat", binder=per_hundred(figures.mix.whole.binder_frac)),
        say("Crumb and egg together usually come to 10 to 30; with less it cracks and falls apart when it is turned."),
        _to_school(figures),
    )


def _burger_crumb(figures: Figures) -> Remark | None:
    crumb = group(figures, "crumb", "bread")
    if figures.context.formula.dish.dish != "burger" or crumb <= MOST_BURGER_CRUMB_FRAC + 1e-9:
        return None
    return Remark(
        say("{crumb} parts of crumb in a burger", crumb=per_hundred(crumb)),
        say("It will eat like a meatball in a bun. Burger cooks put in none; some bind with egg white instead."),
        _to_school(figures),
    )


def _egg_short(figures: Figures) -> Remark | None:
    egg = group(figures, "egg", "white")
    if not is_bound(figures) or egg >= EGG_FRAC[0] - 1e-9:
        return None
    wanted = max(0.0, EGG_START_FRAC - group(figures, "white"))
    return Remark(
        say("{egg} parts of egg to a hundred of meat", egg=per_hundred(egg)),
        say("One large egg to 350 to 1000 g of meat is usual; with less, slices crumble."),
        (
            Change(
                say("Make it {g}", g=mass(wanted * figures.batch.meat_mass_g)), SetFigure("group", wanted, item="egg")
            ),
        ),
    )


def _egg_heavy(figures: Figures) -> Remark | None:
    egg = group(figures, "egg")
    if _custard(figures) or egg <= EGG_FRAC[1] + 1e-9 or not is_bound(figures):
        return None
    return Remark(
        say("{egg} parts of egg to a hundred of meat", egg=per_hundred(egg)),
        say(
            "Past {most}, one egg to 350 g, it sets springy, unless it is meant as a custard in a tray.",
            most=per_hundred(EGG_FRAC[1]),
        ),
        (Change(say("Make it {most}", most=per_hundred(0.11)), SetFigure("group", 0.11, item="egg")),),
    )


def _egg_rounded(figures: Figures) -> Remark | None:
    off = [w for w in figures.sheet.weigh_out.lines if w.how == "pieces" and abs(w.error_frac) > MOST_ROUNDING_FRAC]
    if not off:
        return None
    worst = max(off, key=lambda w: abs(w.error_frac))
    more = "more" if worst.error_frac > 0 else "less"
    return Remark(
        say(
            f"{{n}} {worst.piece}{'s are' if worst.count > 1 else ' is'} {{off}} {more} than this mix wants",
            n=count(int(worst.count)),
            off=frac(abs(worst.error_frac)),
        ),
        say("It wants {g}. Beaten and weighed it is exact.", g=mass(worst.exact_g)),
        (Change(say("Weigh it"), CountLine(worst.ingredient, False)),),
    )


def _cheese_heavy(figures: Figures) -> Remark | None:
    cheese, crumb = group(figures, "cheese"), group(figures, "crumb", "bread")
    if _custard(figures) or cheese <= MOST_CHEESE_FRAC + 1e-9 or cheese <= MOST_CHEESE_TO_CRUMB * crumb + 1e-9:
        return None
    wanted = max(MOST_CHEESE_FRAC, crumb)
    return Remark(
        say("{cheese} parts of cheese to {crumb} of crumb", cheese=per_hundred(cheese), crumb=per_hundred(crumb)),
        say("About as much cheese as crumb is the Italian way; past that it runs out oily, and salts the mix."),
        (
            Change(
                say("Make it {g}", g=mass(wanted * figures.batch.meat_mass_g)),
                SetFigure("group", wanted, item="cheese"),
            ),
        ),
    )


def _lean_without_panade(figures: Figures) -> Remark | None:
    dry = figures.mix.panade.state in ("none", "dry") and group(figures, "starch") == 0
    if not is_bound(figures) or figures.meat.blend.fat_frac >= LEAN_FRAC or not dry:
        return None
    return Remark(
        say("{fat} fat and no panade", fat=fine_frac(figures.meat.blend.fat_frac)),
        say("Lean meat has no juice of its own to spare: a soaked crumb, or a fattier meat, keeps it from eating dry."),
        _to_school(figures),
    )


def _no_school(figures: Figures) -> Remark | None:
    found = figures.mix.resemblance
    if found.nearest:
        return None
    return Remark(
        say("Like no school we know"),
        say(
            "The nearest is {school}. That need not be wrong: fry a teaspoon first.",
            school=word(found.all[0].title.lower()),
        ),
        (Change(say("Move to it"), Choose("mix_school", found.all[0].key)),),
    )


def _filling_unfit(figures: Figures) -> Remark | None:
    core = {line.ingredient for line in figures.context.formula.mix.lines if line.filling}
    eggs = [
        line
        for line in figures.mix.lines
        if line.group == "filling" and line.per_meat_frac > 0 and line.ingredient not in core
    ]
    if not eggs or figures.context.formula.dish.dish == "meatloaf":
        return None
    return Remark(
        say("Boiled eggs lie in a loaf, not in this"),
        say("They make it stuffed meat, whose floor is hotter."),
        (Change(say("Take them out"), TakeOut(eggs[0].ingredient)),),
    )


RULES = (
    Rule(
        "mix.crumb-without-liquid",
        "mix",
        "check",
        "crumb from 2 parts in a hundred, liquid under its least",
        PRACTICE,
        _crumb_dry,
    ),
    Rule("mix.soup", "mix", "check", "more liquid to a part of crumb than that crumb can hold", PRACTICE, _soup),
    Rule(
        "mix.liquid-without-crumb",
        "mix",
        "check",
        "a ball or loaf with 3 parts of liquid and nothing to hold it",
        PRACTICE,
        _liquid_alone,
    ),
    Rule("mix.soak-short", "mix", "note", "soaked for less than the crumb takes", PRACTICE, _soak_short),
    Rule("mix.crumb-heavy", "mix", "check", "over 15 parts of dry crumb to a hundred of meat", PRACTICE, _crumb_heavy),
    Rule(
        "mix.binder-short",
        "mix",
        "check",
        "a ball or loaf with under 5 parts of crumb, starch and egg",
        "our own rule",
        _binder_short,
    ),
    Rule("mix.crumb-in-burger", "mix", "note", "over 4 parts of crumb or bread in a burger", PRACTICE, _burger_crumb),
    Rule(
        "mix.egg-short",
        "mix",
        "check",
        "a ball or loaf with under 5 parts of egg (one to a kilogram)",
        PRACTICE,
        _egg_short,
    ),
    Rule(
        "mix.egg-heavy",
        "mix",
        "check",
        "over 14.3 parts of egg (one to 350 g), not a custard-set loaf",
        PRACTICE,
        _egg_heavy,
    ),
    Rule(
        "mix.egg-rounded",
        "mix",
        "check",
        "whole pieces more than 15 % from what the mix wants",
        "our own rule",
        _egg_rounded,
    ),
    Rule(
        "mix.cheese-heavy",
        "mix",
        "check",
        "over 10 parts of cheese and half as much again as crumb",
        PRACTICE,
        _cheese_heavy,
    ),
    Rule(
        "mix.lean-without-panade",
        "mix",
        "check",
        "a ball or loaf under 12 % fat without a panade",
        PRACTICE,
        _lean_without_panade,
    ),
    Rule(
        "mix.no-school", "mix", "note", "further than 4 steps from every school of the dish", "our own rule", _no_school
    ),
    Rule("mix.filling-unfit", "mix", "check", "boiled eggs in what is not a loaf", PRACTICE, _filling_unfit),
)
