"""The working of every figure on the bench, with this formula's numbers in it."""

from __future__ import annotations

from collections.abc import Callable

from vianda.core import cook_yield as cy
from vianda.core import phrase as ph
from vianda.core.figures import Figures
from vianda.core.heat.floor import AT_RISK, Floor
from vianda.core.label_names import SOURCES, NameFigures
from vianda.core.phrase import Phrase, say
from vianda.core.salt import FINE_SALT_G_PER_TSP, USUAL_SALT_FRAC
from vianda.core.shape import FAT_DENSITY, LEAN_DENSITY
from vianda.core.working import Working

PRACTICE = "Common practice, no published source."


def _lean_to_fat(f: Figures) -> Working:
    steps = [
        say(
            "{name}: {share} × {fat} = {points}",
            name=ph.word(p.name),
            share=ph.fine_frac(p.share_frac),
            fat=ph.fine_frac(p.fat_usual_frac),
            points=ph.fine_frac(p.share_frac * p.fat_usual_frac),
        )
        for p in f.blend.parts
    ]
    steps.append(
        say(
            "Together {fat} fat, so lean to fat {ratio}",
            fat=ph.fine_frac(f.blend.fat_frac),
            ratio=ph.lean_to_fat(f.blend.fat_frac),
        )
    )
    for p in f.blend.parts:
        steps.append(
            say(
                "{name} ranges {range} and brings {doubt} of the doubt",
                name=ph.word(p.name),
                range=ph.fine_frac(p.fat_low_frac, p.fat_high_frac),
                doubt=ph.frac(p.doubt_share_frac),
            )
        )
    steps.append(
        say(
            "The meats' distributions folded together: nine batches in ten lie in {band}",
            band=ph.fine_frac(f.blend.fat_low_frac, f.blend.fat_high_frac),
        )
    )
    sources = sorted({f.larder.meat(p.meat).range_source for p in f.blend.parts})
    rows = [f"{p.name}: {f.larder.meat(p.meat).composition_note}" for p in f.blend.parts]
    return Working(
        "Lean to fat",
        tuple(steps),
        f"Fat ranges: {'; '.join(sources)}. Anchors: {'; '.join(rows)}. Meats are taken as independent.",
    )


def _part_masses(f: Figures) -> Working:
    steps = [
        say(
            "{name}: {share} × {batch} → {mass}",
            name=ph.word(p.name),
            share=ph.fine_frac(p.share_frac),
            batch=ph.mass(f.blend.batch_mass_g),
            mass=ph.mass(p.mass_g),
        )
        for p in f.blend.parts
    ]
    steps.append(
        say(
            "On the scale's step of {step}; the largest remainders are rounded up, so that the parts sum to {batch}",
            step=ph.mass(f.portions.step_g),
            batch=ph.mass(sum(p.mass_g for p in f.blend.parts)),
        )
    )
    return Working("Grams of each meat", tuple(steps), "Arithmetic (largest remainder method).")


def _pieces(f: Figures) -> Working:
    p = f.portions
    steps = [
        say(
            "{guests} guests × {each} each = {pieces} pieces",
            guests=ph.count(f.formula.dish.guests),
            each=ph.count(f.formula.dish.pieces_per_guest),
            pieces=ph.count(p.pieces),
        )
    ]
    if f.formula.shape.portioning == "by_piece":
        steps.append(
            say(
                "{wanted} on the scale's step of {step} is {piece}",
                wanted=ph.mass(p.wanted_piece_g),
                step=ph.mass(p.step_g),
                piece=ph.mass(p.piece_mass_g),
            )
        )
    else:
        steps.append(
            say(
                "{batch} ÷ {pieces} = {wanted}; on the scale {piece}, remainder {rest}",
                batch=ph.mass(p.batch_mass_g),
                pieces=ph.count(p.pieces),
                wanted=ph.mass(p.wanted_piece_g),
                piece=ph.mass(p.piece_mass_g),
                rest=ph.mass(p.remainder_g),
            )
        )
    light = p.pieces - p.heavier_pieces
    if p.heavier_pieces:
        steps.append(
            say(
                "{n} × {heavy} + {m} × {light} = {batch}",
                n=ph.count(p.heavier_pieces),
                heavy=ph.mass(p.heavier_mass_g),
                m=ph.count(light),
                light=ph.mass(p.piece_mass_g),
                batch=ph.mass(p.batch_mass_g),
            )
        )
    else:
        steps.append(
            say(
                "{n} × {piece} = {batch}",
                n=ph.count(p.pieces),
                piece=ph.mass(p.piece_mass_g),
                batch=ph.mass(p.batch_mass_g),
            )
        )
    return Working("Pieces and weights", tuple(steps), "Arithmetic, multiplied back.")


def _cooked_mass(f: Figures) -> Working:
    y = f.shape.cooked_yield_frac
    m = f.shape.cooked_mass_g
    return Working(
        "Cooked weight",
        (
            say(
                "At {fat} fat {yield_} of the raw weight is left",
                fat=ph.fine_frac(f.blend.fat_frac),
                yield_=ph.fine_frac(y.usual),
            ),
            say(
                "{raw} × {yield_} = {cooked}",
                raw=ph.mass(f.portions.piece_mass_g),
                yield_=ph.fine_frac(y.usual),
                cooked=ph.mass(m.usual),
            ),
            say("Method and end point move it between {band}", band=ph.mass(m.low, m.high)),
        ),
        "USDA food-yield guidance for drained ground beef (from memory); the lower end reaches to SR28's own yield "
        "weights.",
    )


def _diameter(f: Figures) -> Working:
    s = f.shape
    shrink = cy.diameter_shrink_frac(f.blend.fat_frac)
    return Working(
        "Diameter",
        (
            say(
                "Density: {packing} ÷ ({fat} ÷ {rf} + {lean} ÷ {rl}) = {rho}",
                packing=ph.number(f.style.packing),
                fat=ph.fine_frac(f.blend.fat_frac),
                rf=ph.density(FAT_DENSITY),
                lean=ph.fine_frac(1 - f.blend.fat_frac),
                rl=ph.density(LEAN_DENSITY),
                rho=ph.density(s.density_g_per_ml),
            ),
            say(
                "√(4 × {mass} ÷ (π × {rho} × {t})) = {raw}",
                mass=ph.mass(f.portions.piece_mass_g),
                rho=ph.density(s.density_g_per_ml),
                t=ph.length(s.thickness_mm),
                raw=ph.length(s.raw_diameter_mm),
            ),
            say(
                "It draws in by {band}: cooked {cooked}",
                band=ph.frac(shrink.low, shrink.high),
                cooked=ph.length(s.cooked_diameter_mm.low, s.cooked_diameter_mm.high),
            ),
        ),
        "Densities from memory. Shrink: common practice (10 to 30 % of the diameter), no published source.",
    )


def _salt(f: Figures) -> Working:
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


def _minutes(f: Figures) -> Working:
    h = f.heat
    steps = [
        say("{title}: {time}", title=ph.word(s.title), time=ph.duration(s.low_s, s.high_s))
        for s in h.stages
        if s.kind != "preheat"
    ]
    steps.append(say("On the heat {time} in all", time=ph.duration(h.on_heat_s.low, h.on_heat_s.high)))
    if h.reach != "usually":
        steps.append(say("At this thickness and heat the minutes may end short of the floor: measure"))
    return Working(
        "Minutes",
        tuple(steps),
        "Habit: the table of common practice, joined by straight lines over thickness; no published source.",
    )


def _floor_line(floor: Floor) -> Phrase:
    text = f"{floor.authority}: {{t}}, {floor.rule} ({floor.source})"
    return say(text, t=ph.temp(floor.temp_c))


def _core(f: Figures) -> Working:
    h = f.heat
    steps = [
        say("Wanted: {t}, {name}", t=ph.temp(h.target_c), name=ph.word(h.doneness)),
        say("Leads here, since {why}:", why=ph.word(h.floors.why)),
        _floor_line(h.floors.leading),
        say("The others:"),
        *(_floor_line(o) for o in h.floors.others),
        say(
            "Pull at {target} − {carry} (the low end of what it still gains) = {pull}",
            target=ph.temp(h.target_c),
            carry=ph.delta_temp(h.carry_over_k.low),
            pull=ph.temp(h.pull_c),
        ),
        say(
            "Colour and a cut mislead in mince. Most at risk: {who}. Local codes and licensed practice decide.",
            who=ph.word(AT_RISK),
        ),
    ]
    return Working(
        "Core and floor",
        tuple(steps),
        "Floors from memory, high confidence: read them against the current text. Carry-over: " + PRACTICE.lower(),
    )


def _cost(f: Figures) -> Working:
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


def _allergens(f: Figures) -> Working:
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


def _waves(f: Figures) -> Working:
    s = f.stove
    return Working(
        "Waves",
        (
            say(
                "{surface}: {n} at once at {d} across with {gap} between",
                surface=ph.word(f.surface.name),
                n=ph.count(s.at_once),
                d=ph.length(f.shape.raw_diameter_mm),
                gap=ph.length(f.style.gap_mm),
            ),
            say(
                "{pieces} pieces make {waves} waves; the last one holds {last}",
                pieces=ph.count(f.portions.pieces),
                waves=ph.count(s.waves),
                last=ph.count(s.last_wave),
            ),
        ),
        "Geometry: a square grid on a plate, a ring in a pan; the gap is common practice.",
    )


_NAME_KINDS = {"fat": "fat", "collagen": "collagen by protein", "beef": "beef"}


def _names(f: Figures) -> Working:
    steps: list[Phrase] = []
    for name in f.names:
        steps.append(say("{name}: {verdict}", name=ph.word(name.name), verdict=ph.word(name_verdict(name))))
        for test in name.tests:
            most = "at least" if test.kind == "beef" else "at most"
            steps.append(
                say(
                    f"  {_NAME_KINDS[test.kind]} {most} {{limit}}; here {{value}}, {{chance}} of batches fail it",
                    limit=ph.frac(test.limit_frac),
                    value=ph.fine_frac(test.value_frac),
                    chance=ph.frac(test.chance_failed),
                )
            )
    if not f.names:
        steps.append(say("This kitchen has no naming rule set"))
    return Working(
        "Name on the label",
        tuple(steps),
        f"{SOURCES[f.kitchen.naming_rule]}; local rules decide. Collagen by class of cut: from memory, low confidence.",
    )


def _chances(f: Figures) -> Working:
    b = f.blend
    low, high = f.style.fat_band_frac
    widest = max(b.parts, key=lambda p: p.doubt_share_frac)
    steps = [
        say("The style's band is {band} fat", band=ph.frac(low, high)),
        say(
            "Below it {below} of batches, within {within}, above {above}",
            below=ph.frac(b.chance_below_band),
            within=ph.frac(b.chance_in_band),
            above=ph.frac(b.chance_above_band),
        ),
        say(
            "Now nine in ten lie within {width} points; one fat test of {meat} would leave {left} points",
            width=ph.number((b.fat_high_frac - b.fat_low_frac) * 100),
            meat=ph.word(widest.name),
            left=ph.number(widest.tested_width_frac * 100),
        ),
    ]
    for part in b.parts:
        if part.lot:
            lot = f.larder.lot(part.lot, meat=part.meat)
            meat = f.larder.meat(part.meat)
            steps.append(
                say(
                    "{lot}: {prior} by its name; {n} findings leave {now}",
                    lot=ph.word(lot.name),
                    prior=ph.fine_frac(meat.fat_low_frac, meat.fat_high_frac),
                    n=ph.count(len(lot.evidence)),
                    now=ph.fine_frac(part.fat_low_frac, part.fat_high_frac),
                )
            )
    return Working(
        "How sure",
        tuple(steps),
        "The meats' distributions folded together, taken as independent; evidence by Bayes' rule. Errors of labels, "
        "words and tests are our estimates.",
    )


def _grind(f: Figures) -> Working:
    g = f.grind
    steps = [
        say("{sinewy} of it is sinewy meat", sinewy=ph.frac(g.sinewy_share_frac)),
        say("{mass} to grind", mass=ph.mass(g.ground_mass_g)),
    ]
    if g.tool_kind == "grinder":
        steps.append(
            say(
                "Wanted a {wanted} plate; the nearest here is {plate}",
                wanted=ph.length(g.wanted_plate_mm),
                plate=ph.length(g.plate_mm),
            )
        )
    if g.tool:
        tool = f.kitchen.grinder(g.tool)
        steps += [
            say(
                "{mass} ÷ {load} a load → {loads}",
                mass=ph.mass(g.ground_mass_g),
                load=ph.mass(tool.load_g),
                loads=ph.count(g.loads),
            ),
            say(
                "{hold} stay in the machine: {loss} of what goes in",
                hold=ph.mass(tool.hold_up_g),
                loss=ph.fine_frac(g.loss_frac),
            ),
        ]
    return Working("Grind", tuple(steps), PRACTICE + " The tools are this kitchen's.")


def name_verdict(name: NameFigures) -> str:
    """Whether a name may be carried, and what bars it, in words."""
    return _VERDICTS[name.bar]


_VERDICTS = {
    "none": "may be carried",
    "fat": "too much fat",
    "collagen": "too much collagen",
    "other-species": "not for these species",
    "added-fat": "not with fat added as such",
    "offal": "not with offal",
    "cheek": "too much cheek meat, unless declared",
    "too-little-beef": "too little beef",
}


_WORKINGS: dict[str, Callable[[Figures], Working]] = {
    "lean_to_fat": _lean_to_fat,
    "part_masses": _part_masses,
    "pieces": _pieces,
    "cooked_mass": _cooked_mass,
    "diameter": _diameter,
    "salt": _salt,
    "minutes": _minutes,
    "core": _core,
    "cost": _cost,
    "allergens": _allergens,
    "waves": _waves,
    "names": _names,
    "chances": _chances,
    "grind": _grind,
}


def workings_of(figures: Figures) -> dict[str, Working]:
    """The working of each figure, by id."""
    return {key: explain(figures) for key, explain in _WORKINGS.items()}
