"""Counsel on how the mix is made: wet vegetables, heat, working, chilling, guesses, names, limits and allergens."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis.phrase import duration, fine_frac, frac, mass, minutes, say, temp, word
from vianda.core.counsel.mix_bind import is_bound
from vianda.core.counsel.rule import PRACTICE, Change, Remark, Rule
from vianda.core.inventory.house import needs
from vianda.core.inventory.inventory import POULTRY
from vianda.core.mix.protocol import LEAST_CHILL_MIN, MEAT_BELOW_C, MIX_BELOW_C, ONION_BELOW_C, PROCESSOR_S
from vianda.core.mix.temperature import mixed_temp_c
from vianda.core.mix.whole import bowl_parts
from vianda.core.model.edit import Choose, Edit, SetFigure, SwapIngredient, TakeOut
from vianda.core.pipeline.figures import Figures

RAW_WET_FRAC = 0.03
HOT_SHARE_FRAC = 0.01
LONGEST_HAND_S = 180.0
VAGUE_UNCERTAINTY_FRAC, VAGUE_SHARE_FRAC = 0.40, 0.005
SUGAR_FRAC, SUGAR_FROM_C = 0.03, 200.0
OIL_FRAC, SHORT_KEEPING_DAYS = 0.20, 4
# Raw vegetables that weep in a loaf, and what they are swapped for.
_COOKED = {"onion": "soft-onion", "spring-onion": "soft-onion", "mushroom": "cooked-mushroom"}


def _raw_wet(figures: Figures) -> Remark | None:
    if figures.context.formula.dish.dish != "meatloaf":
        return None
    wet = [
        line for line in figures.mix.lines if line.ingredient in _COOKED and line.per_meat_frac > RAW_WET_FRAC + 1e-9
    ]
    if not wet:
        return None
    worst = max(wet, key=lambda line: line.per_meat_frac)
    cooked = _COOKED[worst.ingredient]
    taken = {line.ingredient for line in figures.mix.lines}
    changes: tuple[Change, ...] = ()
    if len(wet) == 1:
        if cooked in figures.context.inventory.pantry and cooked not in taken:
            changes = (Change(say("Cook it first"), SwapIngredient(worst.ingredient, cooked)),)
        else:
            changes = (Change(say("Leave it out"), TakeOut(worst.ingredient)),)
    return Remark(
        say("{g} of {what} goes in raw", g=mass(worst.mass_g), what=word(worst.name.lower())),
        say("It weeps in the loaf and leaves gaps that crumble. Cooked soft and cooled, it stays."),
        changes,
    )


def _hot_part(figures: Figures) -> Remark | None:
    hot = [
        line for line in figures.mix.lines if line.temp_c > ONION_BELOW_C + 1e-9 and line.per_meat_frac > HOT_SHARE_FRAC
    ]
    if not hot or figures.context.formula.dish.dish == "sauce":
        return None
    worst = max(hot, key=lambda line: line.temp_c)
    changes: tuple[Change, ...] = ()
    if len(hot) == 1:
        changes = (Change(say("Let it cool to {t}", t=temp(20)), SetFigure("line_temp", 20.0, item=worst.ingredient)),)
    return Remark(
        say("{what} at {t} meets cold meat", what=word(worst.name), t=temp(worst.temp_c)),
        say(
            "Above {most} it melts the fat round it and warms raw meat. Spread it out and cool it first.",
            most=temp(ONION_BELOW_C),
        ),
        changes,
    )


def _too_warm(figures: Figures) -> Remark | None:
    now = figures.mix.mix_temp_c
    if now <= MIX_BELOW_C + 1e-9 or figures.context.formula.dish.dish == "sauce":
        return None
    return Remark(
        say("The mix will come out at about {t}", t=temp(now)),
        say(
            "Past {most} fat smears and coats the meat. {time} in the fridge, 3 cm deep, brings it to {cold}.",
            most=temp(MIX_BELOW_C),
            time=minutes(figures.mix.chill_to_cold_min.low, figures.mix.chill_to_cold_min.high),
            cold=temp(4),
        ),
        _cooler(figures),
    )


def _cooler(figures: Figures) -> tuple[Change, ...]:
    """The one thing that, taken from the fridge, would bring the mix below the line; nothing when no one does."""
    mix = figures.context.formula.mix
    meat = figures.batch.meat_mass_g
    candidates: list[tuple[str, str, float, Edit]] = [("the meat", "", mix.meat_temp_c, SetFigure("meat_temp", 2.0))]
    candidates += [
        (line.name.lower(), line.ingredient, line.temp_c, SetFigure("line_temp", 4.0, item=line.ingredient))
        for line in figures.mix.lines
    ]
    for name, key, now, edit in sorted(candidates, key=lambda c: -c[2]):
        if now <= 4.0:
            continue
        lines = [replace(line, temp_c=4.0) if key and line.ingredient == key else line for line in figures.mix.lines]
        parts = bowl_parts(
            figures.meat.blend,
            lines,
            inventory=figures.context.inventory,
            meat_mass_g=meat,
            meat_temp_c=mix.meat_temp_c if key else 2.0,
        )
        if mixed_temp_c(parts) <= MIX_BELOW_C:
            return (Change(say("Use {what} from the fridge", what=word(name)), edit),)
    return ()


def _meat_warm(figures: Figures) -> Remark | None:
    now = figures.context.formula.mix.meat_temp_c
    if now <= MEAT_BELOW_C + 1e-9:
        return None
    return Remark(
        say("Meat at {t}", t=temp(now)),
        say("Raw mince is kept at 0 to 4 °C and out of the cold at most two hours, one above 32 °C."),
        (Change(say("Straight from the fridge"), SetFigure("meat_temp", 3.0)),),
    )


def _overworked(figures: Figures) -> Remark | None:
    mix = figures.context.formula.mix
    most = PROCESSOR_S[1] if mix.work == "processor" else LONGEST_HAND_S
    if mix.work_s <= most + 1e-9 or not figures.mix.lines or figures.context.formula.dish.dish == "sauce":
        return None
    start = 12.0 if mix.work == "processor" else 90.0
    return Remark(
        say("{time} is too long", time=duration(mix.work_s)),
        say("Overworking is the commonest mistake: past {most} it eats rubbery.", most=duration(most)),
        (Change(say("Stop after {time}", time=duration(start)), SetFigure("work_time", start)),),
    )


def _not_chilled(figures: Figures) -> Remark | None:
    if not is_bound(figures) or figures.context.formula.mix.chill_min >= LEAST_CHILL_MIN:
        return None
    return Remark(
        say("{time} of chilling", time=minutes(figures.context.formula.mix.chill_min)),
        say("Half an hour to an hour firms the mix, so that it holds a shape and less is left on the hands."),
        (Change(say("Chill {time}", time=minutes(LEAST_CHILL_MIN)), SetFigure("chill", LEAST_CHILL_MIN)),),
    )


def _beef_only(figures: Figures) -> Remark | None:
    if not is_bound(figures) or any(p.species != "beef" for p in figures.meat.blend.parts if p.share_frac > 0):
        return None
    pork = "no-pork" not in figures.context.formula.mix.avoid
    school, what = ("mixed-meats", "pork") if pork else ("beef-and-veal", "veal")
    return Remark(
        say("Beef alone"),
        say("Pork, veal or lamb softens a ball or loaf; half and half is usual. Those who avoid pork take veal."),
        (
            Change(
                say("Half beef, half {what}" if pork else "Beef and {what}", what=word(what)), Choose("school", school)
            ),
        ),
    )


def _poultry(figures: Figures) -> Remark | None:
    birds = [p for p in figures.meat.blend.parts if p.species in POULTRY and p.share_frac > 0]
    if not birds:
        return None
    floor = figures.cook.plan.floors.leading
    return Remark(
        say("{bird} in it: the floor is {t}", bird=word(birds[0].name), t=temp(floor.temp_c)),
        say(
            "Anything mixed with ground poultry is held to the poultry line: {who}, {rule}. Local codes decide.",
            who=word(floor.authority),
            rule=word(floor.rule),
        ),
    )


def _name_lost(figures: Figures) -> Remark | None:
    if figures.context.formula.dish.dish != "burger":
        return None
    lost = [n for n in figures.trade.names if n.bar in ("binder", "salt")]
    if not lost or any(n.allowed for n in figures.trade.names if n.tests):
        return None
    binder = lost[0].bar == "binder"
    what = "What was mixed in costs the name" if binder else "Salt worked in costs the name"
    left = next((n.name for n in figures.trade.names if n.allowed), "")
    sold = f" It may be sold as {left}." if left else ""
    changes: tuple[Change, ...] = ()
    if not binder:
        changes = (Change(say("Salt the surface instead"), Choose("salt_place", "surface")),)
    return Remark(
        say(f"{what}: not {lost[0].name}"),
        say(
            f"The rule in force here allows no binder, liquid or vegetable under it.{sold}"
            if binder
            else "Under 1 % salt of the mince is the limit."
        ),
        changes,
    )


def _guessed(figures: Figures) -> Remark | None:
    vague = [
        line
        for line in figures.mix.lines
        if line.mass_g > 0
        and (line.high_g - line.low_g) / 2 / line.mass_g > VAGUE_UNCERTAINTY_FRAC
        and line.per_meat_frac > VAGUE_SHARE_FRAC
    ]
    if not vague:
        return None
    worst = max(vague, key=lambda line: line.high_g - line.low_g)
    return Remark(
        say("{what} is a guess: {band}", what=word(worst.name), band=mass(worst.low_g, worst.high_g)),
        say("Weigh it once, and it is known from then on."),
        (
            Change(
                say("It was {g}", g=mass(worst.mass_g)), SetFigure("line", worst.per_meat_frac, item=worst.ingredient)
            ),
        )
        if len(vague) == 1
        else (),
    )


def _hidden_fish(figures: Figures) -> Remark | None:
    sauces = [
        line
        for line in figures.mix.lines
        if line.group == "sauce"
        and line.per_meat_frac > 0
        and "fish" in figures.context.inventory.pantry[line.ingredient].allergens
        and line.ingredient != "anchovy"
    ]
    if not sauces:
        return None
    changes = [Change(say("Leave it out"), TakeOut(sauces[0].ingredient))]
    if "tamari" in figures.context.inventory.pantry and all(x.ingredient != "tamari" for x in figures.mix.lines):
        changes.insert(0, Change(say("Tamari instead (soy)"), SwapIngredient(sauces[0].ingredient, "tamari")))
    return Remark(
        say("{what} brings fish", what=word(sauces[0].name)),
        say(
            "Many bottled brown sauces hold anchovy, an allergen nobody looks for in a meat dish. Read the label; "
            "say so."
        ),
        tuple(changes) if len(sauces) == 1 else (),
    )


def _sugar(figures: Figures) -> Remark | None:
    share = figures.mix.whole.sugars_g / figures.mix.whole.mass_g
    hot = figures.context.formula.heat.surface_temp_c
    if share <= SUGAR_FRAC or hot < SUGAR_FROM_C or figures.context.formula.dish.dish == "sauce":
        return None
    return Remark(
        say("{sugar} sugar meets {t}", sugar=fine_frac(share), t=temp(hot)),
        say("Sugar browns fast and burns: turn it more often, or cook it cooler."),
    )


def _garlic_in_oil(figures: Figures) -> Remark | None:
    pantry = figures.context.inventory.pantry
    for line in figures.mix.lines:
        house = pantry[line.ingredient].house
        if house is None or house.acid or house.keeps_days <= SHORT_KEEPING_DAYS:
            continue
        total = sum(x.mass_g for x in house.lines)
        oil = sum(x.mass_g for x in house.lines if x.ingredient in pantry and pantry[x.ingredient].group == "fat")
        bulbs = {"garlic", "onion", "spring-onion"} & set(needs(line.ingredient, pantry=pantry))
        if bulbs and oil / total > OIL_FRAC:
            return Remark(
                say("{what}: garlic or onion under oil", what=word(line.name)),
                say(
                    "Without acid (pH below 4.6) botulism can grow in it, unseen and without a smell. Keep it cold, "
                    "a few days at most; published advice and local codes decide."
                ),
            )
    return None


def _fat_from_mix(figures: Figures) -> Remark | None:
    """Fat that the meat's own figure does not show: cheese, butter, egg yolk."""
    whole, blend = figures.mix.whole, figures.meat.blend
    other = whole.fat_g - blend.fat_frac * figures.batch.meat_mass_g
    share = other / whole.fat_g if whole.fat_g > 0 else 0.0
    if not is_bound(figures) or share <= 0.30:
        return None
    return Remark(
        say("{share} of the fat is not the meat's", share=frac(share)),
        say("With it the whole mix stands at {fat} fat. A leaner blend would do.", fat=fine_frac(whole.fat_frac)),
    )


RULES = (
    Rule(
        "mix.raw-wet-vegetable", "mix", "check", "over 3 parts of raw onion or mushroom in a loaf", PRACTICE, _raw_wet
    ),
    Rule("mix.hot-part", "mix", "check", "something above 30 °C goes into cold meat", PRACTICE, _hot_part),
    Rule("mix.too-warm", "mix", "check", "the mix comes out above 10 °C", PRACTICE, _too_warm),
    Rule("mix.meat-warm", "mix", "check", "meat above 5 °C", "cold chain 0 to 4 °C; " + PRACTICE, _meat_warm),
    Rule("mix.overworked", "mix", "check", "over 15 s in a processor, or 3 minutes by hand", PRACTICE, _overworked),
    Rule("mix.not-chilled", "mix", "note", "a ball or loaf chilled for under 30 minutes", PRACTICE, _not_chilled),
    Rule("mix.beef-only", "mix", "note", "a ball or loaf of beef alone", PRACTICE, _beef_only),
    Rule("mix.poultry-floor", "mix", "note", "any poultry in the meat", "the floor named; see its working", _poultry),
    Rule(
        "mix.name-lost",
        "mix",
        "limit",
        "more than seasoning in a burger, or 1 % salt in it under the EU rule",
        "9 CFR 319.15; Regulation (EC) 853/2004",
        _name_lost,
    ),
    Rule(
        "mix.guessed",
        "mix",
        "check",
        "a measure off by 40 % or more, of half a part in a hundred",
        "our own rule",
        _guessed,
    ),
    Rule(
        "mix.hidden-fish",
        "mix",
        "check",
        "a bottled sauce that brings fish",
        "EU Regulation 1169/2011, Annex II",
        _hidden_fish,
    ),
    Rule("mix.sugar-burns", "mix", "note", "over 3 % sugars on a surface from 200 °C", PRACTICE, _sugar),
    Rule(
        "mix.garlic-in-oil",
        "mix",
        "limit",
        "a house formula of garlic or onion under oil, not acid, kept over 4 days",
        "published advice on botulism: pH below 4.6 (from memory, high confidence)",
        _garlic_in_oil,
    ),
    Rule(
        "mix.fat-from-mix",
        "mix",
        "note",
        "over 30 % of the fat of a ball or loaf is not the meat's",
        "our own rule",
        _fat_from_mix,
    ),
)
