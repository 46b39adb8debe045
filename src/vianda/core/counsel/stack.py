"""Counsel on the build and on what goes with it."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from functools import partial

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.counsel.rule import PRACTICE, Change, Remark, Rule, Severity
from vianda.core.heat.methods import stages_of
from vianda.core.inventory.house import needs
from vianda.core.model.edit import Choose, SetStack, SetStages, TypeBeside
from vianda.core.model.styles import BLOCKS
from vianda.core.pipeline.figures import Figures
from vianda.core.sauce.figures import BesideFigures
from vianda.core.sauce.glaze import CATCHES_C, MUCH_SUGAR_G, GlazePlan
from vianda.core.stack.rules import MOST_SALTY, RICH_FAT_FRAC, SOGGY_MIN, StackRule

# More water than this and a sauce runs out of a bun; less acid than this is not felt against fat. Ours.
RUNS_WATER_G, FELT_ACID_G = 55.0, 0.4
# Half of the usual least is hardly tasted; half as much again as the most runs. Ours.
SCANT_FRAC, MUCH_FRAC = 0.5, 1.5
# Garlic or onion under oil keeps days in the cold; fresh egg in oil a day or two. Published advice, from memory.
OIL_DAYS, RAW_EGG_DAYS = 4, 2
# Less than this clings to the bowl and is not served: ours.
SERVED_REST_G = 10.0
HIDDEN = ("fish", "celery", "mustard", "sulphites")


def _of_build(key: StackRule, figures: Figures) -> Remark | None:
    remark = next((r for r in figures.build_remarks if r.key == key), None)
    if remark is None:
        return None
    changes = (Change(say("Build it so"), SetStack(remark.mended)),) if remark.mended else ()
    return Remark(remark.title, remark.reason, changes)


def _built(key: StackRule, severity: Severity, threshold: str) -> Rule:
    return Rule(f"stack.{key}", "sauce", severity, threshold, PRACTICE, partial(_of_build, key))


def _not_enough(figures: Figures) -> Remark | None:
    for thing in figures.beside.things:
        if thing.batch.lacking_g > 0.5:
            needed = thing.batch.needed_g
            return Remark(
                say("{name}: {m} short", name=ph.word(thing.name), m=ph.mass(thing.batch.lacking_g)),
                say(
                    "{made} gives {n} portions of {dose}; a little stays in the bowl.",
                    made=ph.mass(thing.made_g),
                    n=ph.count(thing.batch.portions),
                    dose=ph.mass(thing.dose_g),
                ),
                (Change(say("Make {m}", m=ph.mass(needed)), TypeBeside(thing.ingredient, "made", f"{needed:.0f} g")),),
            )
    return None


def _dose(figures: Figures) -> Remark | None:
    for thing in figures.beside.things:
        low, high = thing.usual_g.low * SCANT_FRAC, thing.usual_g.high * MUCH_FRAC
        if thing.dose_g > 0.0 and not low <= thing.dose_g <= high:
            return Remark(
                say("{name}: {m} a portion", name=ph.word(thing.name), m=ph.mass(thing.dose_g)),
                say("Usual are {usual}.", usual=ph.mass(thing.usual_g.low, thing.usual_g.high)),
                (
                    Change(
                        say("Take {m}", m=ph.mass(thing.usual_g.usual)),
                        TypeBeside(thing.ingredient, "dose", f"{thing.usual_g.usual:.0f} g"),
                    ),
                ),
            )
    return None


def _burger_sauce(figures: Figures) -> BesideFigures | None:
    return next((t for t in figures.beside.things if t.role == "burger-sauce"), None)


def _runs(figures: Figures) -> Remark | None:
    sauce = _burger_sauce(figures)
    if sauce is None or sauce.taste.water <= RUNS_WATER_G:
        return None
    return Remark(
        say("{name} is {w} water: it runs", name=ph.word(sauce.name), w=ph.frac(sauce.taste.water / 100.0)),
        say("A burger sauce that stays has less than {w}: drain what is wet, or more mayonnaise.", w=ph.frac(0.55)),
    )


def _not_sharp(figures: Figures) -> Remark | None:
    sauce = _burger_sauce(figures)
    if sauce is None or figures.meat.blend.fat_frac < RICH_FAT_FRAC or sauce.taste.acid >= FELT_ACID_G:
        return None
    return Remark(
        say("{name}: {a} of acid", name=ph.word(sauce.name), a=ph.fine_frac(sauce.taste.acid / 100.0)),
        say(
            "Against meat of {f} fat that is hardly felt; usual are {low} to {high}.",
            f=ph.frac(figures.meat.blend.fat_frac),
            low=ph.fine_frac(0.005),
            high=ph.fine_frac(0.01),
        ),
    )


def _coated(figures: Figures) -> tuple[BesideFigures, GlazePlan] | None:
    """The glaze with coats that goes with it, and what they take."""
    return next(((t, t.glaze) for t in figures.beside.things if t.glaze is not None), None)


def _glaze_short(figures: Figures) -> Remark | None:
    found = _coated(figures)
    if found is None or found[1].lacking_g <= 0.5:
        return None
    thing, plan = found
    enough = math.ceil(plan.coats_g)
    return Remark(
        say("The glaze is {m} short of {n} coats", m=ph.mass(plan.lacking_g), n=ph.count(thing.coats)),
        say("A coat of 1 to 2 mm takes {one}.", one=ph.mass(plan.coat_g.low, plan.coat_g.high)),
        (Change(say("Make {m}", m=ph.mass(enough)), TypeBeside(thing.ingredient, "made", f"{enough} g")),),
    )


def _one_brush(figures: Figures) -> Remark | None:
    """A brush carries what is on raw meat back into a bowl that is served from later."""
    found = _coated(figures)
    context = figures.context
    heat = context.formula.heat
    if found is None or heat.glaze != found[0].ingredient or found[1].rest_g < SERVED_REST_G:
        return None
    if not any(s.glaze for s in stages_of(heat, context.style, context.surface)):
        return None
    thing, plan = found
    return Remark(
        say("{name}: take {coats} apart for the brush", name=ph.word(thing.name), coats=ph.mass(plan.coats_g)),
        say(
            "The brush touches meat that is not cooked through and carries that back into the bowl. The other {rest} "
            "stay clean for the table; what was brushed from is boiled or thrown away.",
            rest=ph.mass(plan.rest_g),
        ),
    )


def _glaze_not_brushed(figures: Figures) -> Remark | None:
    """Coats that are counted here and go on at no stage."""
    found = _coated(figures)
    context = figures.context
    stages = stages_of(context.formula.heat, context.style, context.surface)
    able = [n for n, s in enumerate(stages) if s.kind in ("oven", "broiler", "indirect")]
    if found is None or any(s.glaze for s in stages) or not able or context.style.form not in BLOCKS:
        return None
    late = tuple(replace(s, glaze=True) if n == able[-1] else s for n, s in enumerate(stages))
    return Remark(
        say("{name}: no stage of the heat brushes it on", name=ph.word(found[0].name)),
        say("Its coats are counted here and never go on. The last stage is usual: sugar burns early in the oven."),
        (Change(say("Brush it on in the last stage"), SetStages(late)),),
    )


def _another_glaze(figures: Figures) -> Remark | None:
    """A glaze beside the formula and the one the heat brushes on are meant to be one thing."""
    found = _coated(figures)
    context = figures.context
    heat, pantry = context.formula.heat, context.inventory.pantry
    brushed = any(s.glaze for s in stages_of(heat, context.style, context.surface))
    if found is None or not brushed or heat.glaze == found[0].ingredient:
        return None
    thing = found[0]
    other = pantry[heat.glaze].name if heat.glaze in pantry else heat.glaze
    return Remark(
        say("The heat brushes on {other}", other=ph.word(other.lower())),
        say("{name} is the glaze here, and both are counted.", name=ph.word(thing.name)),
        (Change(say("Brush on {name}", name=ph.word(thing.name)), Choose("glaze", thing.ingredient)),),
    )


def _sugar_on_fire(figures: Figures) -> Remark | None:
    glaze = next((t for t in figures.beside.things if t.role == "glaze"), None)
    if glaze is None or figures.context.surface.kind != "grate":
        return None
    catches = CATCHES_C[0] if glaze.taste.sugar > MUCH_SUGAR_G else CATCHES_C[1]
    hot = figures.context.formula.heat.surface_temp_c
    if hot <= catches:
        return None
    return Remark(
        say("Sugar over a fire of {t}", t=ph.temp(hot)),
        say(
            "{name} holds {s} of sugar, which catches from {low} to {high}: brush it on in the last minutes, off the "
            "flames.",
            name=ph.word(glaze.name),
            s=ph.frac(glaze.taste.sugar / 100.0),
            low=ph.temp(CATCHES_C[0]),
            high=ph.temp(CATCHES_C[1]),
        ),
    )


def _hidden(figures: Figures) -> Remark | None:
    """What a bottle holds that nobody expects in a sauce."""
    pantry = figures.context.inventory.pantry
    for thing in figures.beside.things:
        found = [
            (pantry[key].name, allergen)
            for key in needs(thing.ingredient, pantry=pantry)
            if pantry[key].house is None and pantry[key].group == "sauce"
            for allergen in pantry[key].allergens
            if allergen.split(" (")[0] in HIDDEN and key.split("-")[0] not in allergen
        ]
        if found:
            own = all(name == thing.name for name, _ in found)
            named = "; ".join(dict.fromkeys(a if own else f"{a} in {n.lower()}" for n, a in found))
            return Remark(
                say("{name} holds {what}", name=ph.word(thing.name), what=ph.word(named)),
                say("Few expect it there: say so to those who must know. The label decides."),
            )
    return None


def _under_oil(figures: Figures) -> Remark | None:
    pantry = figures.context.inventory.pantry
    for thing in figures.beside.things:
        house = pantry[thing.ingredient].house
        if house is None or house.acid:
            continue
        keys = set(needs(thing.ingredient, pantry=pantry))
        bulb = keys & {"garlic", "onion", "shallot", "spring-onion"}
        if bulb and thing.taste.fat > 30.0 and thing.keeps_days > OIL_DAYS:
            return Remark(
                say(
                    "{name}: garlic or onion under fat for {n} days",
                    name=ph.word(thing.name),
                    n=ph.count(thing.keeps_days),
                ),
                say(
                    "Without air botulism can grow above pH 4.6, cold or not: at most {n} days in the cold, or measure "
                    "the pH. Local codes decide.",
                    n=ph.count(OIL_DAYS),
                ),
            )
    return None


def _raw_egg(figures: Figures) -> Remark | None:
    pantry = figures.context.inventory.pantry
    for thing in figures.beside.things:
        house = pantry[thing.ingredient].house
        if house is None:
            continue
        raw = {line.ingredient for line in house.lines} & {"egg", "yolk", "egg-white"}
        if raw and thing.role in ("burger-sauce", "relish", "topping") and thing.keeps_days > RAW_EGG_DAYS:
            return Remark(
                say("{name}: raw egg, kept {n} days", name=ph.word(thing.name), n=ph.count(thing.keeps_days)),
                say(
                    "Made fresh with pasteurised egg, kept at 5 °C or below and used within {n} days; not for those "
                    "most at risk.",
                    n=ph.count(RAW_EGG_DAYS),
                ),
            )
    return None


def _rule(id_: str, severity: Severity, threshold: str, source: str, check: Callable[[Figures], Remark | None]) -> Rule:
    return Rule(f"sauce.{id_}", "sauce", severity, threshold, source, check)


RULES: tuple[Rule, ...] = (
    _rule("raw-egg", "check", f"raw egg kept longer than {RAW_EGG_DAYS} days", "USDA, from memory", _raw_egg),
    _rule(
        "under-oil",
        "check",
        f"garlic or onion, over 30 % fat, longer than {OIL_DAYS} days",
        "published advice on botulism, from memory",
        _under_oil,
    ),
    _rule("not-enough", "check", "what is made is less than the guests need", PRACTICE, _not_enough),
    _rule("glaze-short", "check", "what is made is less than the coats take", PRACTICE, _glaze_short),
    _rule(
        "glaze-not-brushed",
        "check",
        "a glaze with coats that no stage of the heat brushes on",
        PRACTICE,
        _glaze_not_brushed,
    ),
    _rule(
        "one-brush",
        "check",
        f"a glaze that is brushed on, and {SERVED_REST_G:.0f} g or more of it left for the table",
        "published advice on cross-contamination, from memory",
        _one_brush,
    ),
    _rule("another-glaze", "check", "a glaze beside it, and another brushed on at the heat", PRACTICE, _another_glaze),
    _rule("sugar-on-fire", "check", "a glaze over a grate hotter than its sugar bears", PRACTICE, _sugar_on_fire),
    _rule(
        "hidden-allergen",
        "note",
        "fish, celery, mustard or sulphites in a bottled sauce",
        "the pantry's allergens",
        _hidden,
    ),
    _rule(
        "dose", "note", "a dose below half the usual least, or above one and a half of the usual most", PRACTICE, _dose
    ),
    _rule("runs", "note", f"a burger sauce of more than {RUNS_WATER_G:.0f} % water", "ours", _runs),
    _rule("not-sharp", "note", f"less than {FELT_ACID_G} % acid beside {RICH_FAT_FRAC:.0%} of fat", "ours", _not_sharp),
    _built("no-patty", "check", "no patty in the build"),
    _built("upside-down", "check", "the heel is not the lowest layer, or the crown not the highest"),
    _built("wet-on-bread", "check", "tomato, pickles or relish next to bread"),
    _built(
        "soggy-in",
        "check",
        f"bread not toasted next to something wet: soggy in {SOGGY_MIN[False][0]:.0f} to {SOGGY_MIN[False][1]:.0f} min",
    ),
    _built("too-tall", "check", "higher than 75 mm"),
    _built("slides", "note", "two slick layers one on another"),
    _built("one-face", "note", "one layer of sauce, on one face"),
    _built("no-glue", "note", "two patties with nothing between"),
    _built("hangs-over", "note", "more than 5 mm wider than its bread"),
    _built("salt-on-salt", "note", f"more than {MOST_SALTY} salty layers"),
    _built("nothing-sharp", "note", f"no sharp layer beside {RICH_FAT_FRAC:.0%} of fat"),
    _built("leaf-on-heat", "note", "a leaf on top of the hot patty, cheese or egg"),
)
