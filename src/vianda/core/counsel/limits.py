"""Counsel on the limits a cook keeps, whatever brings what breaks them: the mix, the meat, the heat or the bread."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from vianda.core.basis.phrase import fine_frac, say, word
from vianda.core.cook.served import FAT_KEYS, Beside
from vianda.core.counsel.rule import Change, Remark, Rule
from vianda.core.heat.methods import stages_of
from vianda.core.heat.plate_signs import FATS
from vianda.core.mix.limits import BY_ALLERGEN, TITLES, Breach, Swap, breaks, swaps_for
from vianda.core.model.edit import Choose, SetFigure, SetStack, SetStages, SwapIngredient, SwapMeat, TakeBeside, TakeOut
from vianda.core.model.formula import Limit
from vianda.core.pipeline.figures import Figures


def _breach(limit: Limit) -> Callable[[Figures], Remark | None]:
    def check(figures: Figures) -> Remark | None:
        found = [b for b in figures.served.breaches if b.limit == limit]
        if not found:
            return None
        first = found[0]
        swaps = swaps_for(first, inventory=figures.context.inventory)
        more = f" Also in it: {', '.join(b.name.lower() for b in found[1:])}." if found[1:] else ""
        if first.kind == "whole":
            return Remark(
                say(f"{TITLES[limit]}: {{now}} of the mix", now=fine_frac(first.value_frac)),
                say("The line here is {line}. Take less of what brings most of it.", line=fine_frac(first.limit_frac)),
                _less(figures, limit),
            )
        if first.kind not in ("line", "meat"):
            return Remark(
                say(f"{TITLES[limit]}, but {{what}} comes with it", what=word(first.name.lower())),
                say("{where}{more}", where=word(_where(first.kind)), more=word(more)),
                _beside_changes(figures, first.kind, first.key),
            )
        costs = "; ".join(_cost(figures, s) for s in swaps[:2])
        reason = f"{costs}.{more}" if costs else f"There is no usual swap: leave it out.{more}"
        return Remark(
            say(f"{TITLES[limit]}, but {{what}} is in it", what=word(first.name.lower())),
            say("{reason}", reason=word(reason)),
            tuple(_swapped(figures, first, s) for s in swaps[:2] if _free(figures, s)),
        )

    return check


def _kept_out(figures: Figures) -> Remark | None:
    """A single ingredient or meat that was ruled out and is in it all the same."""
    without = figures.context.formula.mix.without
    for line in figures.mix.lines:
        if line.ingredient in without and line.per_meat_frac > 0:
            return Remark(
                say("Without {what}, but it is in the mix", what=word(line.name.lower())),
                say("The formula says to keep it out."),
                (Change(say("Leave it out"), TakeOut(line.ingredient)),),
            )
    for part in figures.meat.blend.parts:
        if part.meat in without and part.share_frac > 0:
            return Remark(
                say("Without {what}, but it is in the blend", what=word(part.name.lower())),
                say("The formula says to keep it out; choose another meat on the Meat step."),
                (),
            )
    for thing in figures.served.things:
        if thing.key in without:
            return _beside_kept_out(figures, thing)
    return None


def _beside_kept_out(figures: Figures, thing: Beside) -> Remark:
    return Remark(
        say("Without {what}, but it comes with it", what=word(thing.name.lower())),
        say("The formula says to keep it out. {where}", where=word(_where(thing.kind))),
        _beside_changes(figures, thing.kind, thing.key),
    )


def _free(figures: Figures, swap: Swap) -> bool:
    return all(line.ingredient != swap.to for line in figures.mix.lines) and all(
        p.meat != swap.to for p in figures.meat.blend.parts
    )


def _name(figures: Figures, key: str) -> str:
    if key in figures.context.inventory.pantry:
        return figures.context.inventory.pantry[key].name
    return figures.context.inventory.meat(key).name


def _cost(figures: Figures, swap: Swap) -> str:
    return f"{_name(figures, swap.to)}: {swap.cost}" if swap.to else f"Without it: {swap.cost}"


def _swapped(figures: Figures, breach: Breach, swap: Swap) -> Change:
    if breach.kind == "meat":
        return Change(say("{to} instead", to=word(_name(figures, swap.to))), SwapMeat(breach.key, swap.to))
    if not swap.to:
        return Change(say("Leave it out"), TakeOut(breach.key))
    return Change(say("{to} instead", to=word(_name(figures, swap.to))), SwapIngredient(breach.key, swap.to))


def _less(figures: Figures, limit: Limit) -> tuple[Change, ...]:
    whole = figures.mix.whole
    if limit != "less-salt":
        return ()
    # What may still be added so that all the salt, the meat's own too, is at the line.
    spare = next(b.limit_frac for b in figures.served.breaches if b.limit == limit) * whole.mass_g - (
        whole.salt_g - figures.salt.batch_salt_g
    )
    if spare < 0:
        return ()
    wanted = figures.salt.ledger.brought_frac + spare * 0.98 / figures.batch.meat_mass_g
    return (Change(say("Salt it to {s}", s=fine_frac(wanted)), SetFigure("salt", wanted)),)


def _where(kind: str) -> str:
    """Where something comes in that is no part of the mix."""
    return {
        "cheese": "It is laid on at the heat.",
        "glaze": "It is brushed on at the heat.",
        "pan-fat": "It lies in the pan.",
        "frying-fat": "The pieces lie in it.",
        "bread": "It is the bread round the meat.",
        "sauce": "It goes with it, on the Sauce step.",
        "layer": "It is a layer of the build.",
    }[kind]


def _beside_changes(figures: Figures, kind: str, key: str) -> tuple[Change, ...]:
    """What can be done about something that comes in at the heat or goes round the meat."""
    context = figures.context
    avoid = context.formula.mix.avoid
    if kind in ("cheese", "glaze"):
        stages = stages_of(context.formula.heat, context.style, context.surface)
        without = tuple(replace(s, cheese=False) if kind == "cheese" else replace(s, glaze=False) for s in stages)
        return (Change(say("Leave it off"), SetStages(without)),)
    if kind in ("pan-fat", "frying-fat"):
        pantry = context.inventory.pantry
        kept = [
            fat
            for fat, key in FAT_KEYS.items()
            if key in pantry
            and fat != context.formula.heat.fat
            and not any(breaks(limit, key, inventory=context.inventory) for limit in avoid)
        ]
        offers = [Change(say("{fat} instead", fat=word(FATS[fat].title)), Choose("fat", fat)) for fat in kept[:1]]
        if kind == "pan-fat":
            offers.append(Change(say("No fat in the pan"), Choose("fat", "")))
        return tuple(offers)
    if kind == "sauce":
        return (Change(say("Leave it out"), TakeBeside(key)),)
    if kind == "layer":
        left = tuple(layer for layer in context.formula.stack if layer.ingredient != key)
        return (Change(say("Leave it out"), SetStack(left)),)
    unwanted = {a for limit in avoid for a in BY_ALLERGEN.get(limit, ())}
    breads = [
        b
        for b in context.kitchen.buns
        if b.key != context.bun.key and not any(a.split(" (")[0] in unwanted for a in b.allergens)
    ]
    breads.sort(key=lambda b: (b.kind != context.bun.kind, abs(b.diameter_mm - context.bun.diameter_mm)))
    return tuple(Change(say("{bread} instead", bread=word(b.name)), Choose("bun", b.key)) for b in breads[:1])


RULES = (
    *(
        Rule(
            f"mix.{limit}",
            "mix",
            "limit",
            f"the cook keeps a limit: {title.lower()}",
            "the cook's own limit",
            _breach(limit),
        )
        for limit, title in TITLES.items()
        if not limit.startswith("less-")
    ),
    Rule("mix.without", "mix", "limit", "the cook keeps out a single thing", "the cook's own limit", _kept_out),
    Rule(
        "mix.less-fat",
        "mix",
        "check",
        "over 15 % fat of the mix, when less is wanted",
        "our own rule",
        _breach("less-fat"),
    ),
    Rule(
        "mix.less-sugar",
        "mix",
        "check",
        "over 2 % sugars of the mix, when less is wanted",
        "our own rule",
        _breach("less-sugar"),
    ),
    Rule(
        "mix.less-salt",
        "mix",
        "check",
        "over 1.2 % salt of the mix, when less is wanted",
        "our own rule",
        _breach("less-salt"),
    ),
)
