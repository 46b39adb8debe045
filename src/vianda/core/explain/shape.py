"""Workings of the pieces: division, weights, diameter, waves."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.working import Working
from vianda.core.model.styles import FLAT
from vianda.core.pipeline.figures import Figures
from vianda.core.sauce.from_raw import COOKED_BESIDE
from vianda.core.shape import cook_loss as cy
from vianda.core.shape.density import PACKING, PACKING_SHRINK
from vianda.core.shape.dimple import NEEDED_FROM_MM
from vianda.core.shape.filling import SLICE_MM
from vianda.core.shape.solids import section_frac


def pieces(f: Figures) -> Working:
    """Division, multiplied back.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    p = f.batch.portions
    dish = f.context.formula.dish
    shared = dish.guests_per_piece > 1
    steps = [
        say(
            "{guests} guests × {each} each = {pieces} pieces"
            if not shared
            else "{guests} guests × {each} each ÷ {share} who share one, rounded up = {pieces}",
            guests=ph.count(dish.guests),
            each=ph.count(dish.pieces_per_guest),
            pieces=ph.count(p.pieces - dish.spare_pieces),
            **({"share": ph.count(dish.guests_per_piece)} if shared else {}),
        )
    ]
    if f.context.formula.shape.portioning == "by_weights":
        steps = [say("Both weights decide how many: {n}", n=ph.count(p.pieces))]
    elif dish.spare_pieces:
        steps.append(say("and {n} over and above", n=ph.count(dish.spare_pieces)))
    if f.batch.mix_per_meat > 1.0:
        steps.append(
            say(
                "{meat} of meat × {ratio} with what goes in = {mix}",
                meat=ph.mass(f.batch.meat_mass_g),
                ratio=ph.number(f.batch.mix_per_meat),
                mix=ph.mass(f.batch.mix_mass_g),
            )
        )
    if f.batch.loss_g > 0:
        steps.append(
            say(
                "{pieces} in pieces + {loss} on bowl and gloves = {mix} in the bowl",
                pieces=ph.mass(p.batch_mass_g),
                loss=ph.mass(f.batch.loss_g),
                mix=ph.mass(f.batch.mix_mass_g),
            )
        )
    if f.context.formula.shape.portioning == "by_piece":
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
        left = {"left": ph.mass(p.left_g)} if p.left_g else {}
        steps.append(
            say(
                "{n} × {piece} + {left} left in the bowl = {batch}" if left else "{n} × {piece} = {batch}",
                n=ph.count(p.pieces),
                piece=ph.mass(p.piece_mass_g),
                batch=ph.mass(p.batch_mass_g),
                **left,
            )
        )
    return Working("Pieces and weights", tuple(steps), "Arithmetic, multiplied back.")


_METHODS = {
    "pan-broiled": "in a pan",
    "broiled": "under fire",
    "crumbles": "crumbled in a pan",
    "loaf": "baked as a loaf",
}


def cooked_mass(f: Figures) -> Working:
    """What the heat leaves of a piece: water and fat that go.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    s, raw = f.piece.shape, f.batch.portions.piece_mass_g
    steps = [
        say(
            "Ground {animals} cooked {how}, at {fat} fat of the mix: by SR28’s raw and cooked rows, "
            "and protein that stays",
            animals=ph.word(" and ".join(animal for animal, _ in f.piece.composition.species)),
            how=ph.word(_METHODS[s.method]),
            fat=ph.fine_frac(f.mix.whole.fat_frac),
        ),
        say("Water lost: {w}; fat rendered: {fat}", w=ph.mass(s.water_lost_g), fat=ph.mass(s.fat_rendered_g)),
    ]
    if f.mix.whole.binder_frac > 0 and s.form != "crumbled":
        held = min(cy.BINDER_MOST, cy.BINDER_GAIN * f.mix.whole.binder_frac) * raw
        steps.append(say("Crumb and egg hold {held} of it back, which is counted", held=ph.mass(held)))
    if s.form != "crumbled":
        factor = cy.done_factor(f.context.formula.heat.target_core_temp_c)
        steps.append(
            say(
                "At a core of {t} the loss is {x} times that at {ref}",
                t=ph.temp(f.context.formula.heat.target_core_temp_c),
                x=ph.number(factor),
                ref=ph.temp(cy.REFERENCE_C),
            )
        )
    if f.context.surface.loss_factor != 1.0:
        steps.append(say("Times {x}, as weighed on this surface", x=ph.number(f.context.surface.loss_factor)))
    learnt = f.context.kitchen.style_factor("loss", f.context.style.key)
    if learnt != 1.0:
        steps.append(say("Times {x}, as this kitchen’s cooks of this style lost", x=ph.number(learnt)))
    steps += [
        say(
            "{raw} − {w} − {fat} = {cooked}",
            raw=ph.mass(raw),
            w=ph.mass(s.water_lost_g),
            fat=ph.mass(s.fat_rendered_g),
            cooked=ph.mass(s.cooked_mass_g.usual),
        ),
        say("Method and end point move it between {band}", band=ph.mass(s.cooked_mass_g.low, s.cooked_mass_g.high)),
    ]
    return Working(
        "Cooked weight",
        tuple(steps),
        "USDA SR28, ground meats raw and cooked (row numbers in the data files); protein balance. An animal never "
        "cooked this way there follows the way it was, moved as beef moves between the two. How the core moves it, and "
        "what crumb and egg hold, are ours; USDA’s yield guidance for drained ground beef (from memory) lies in"
        " the band up to 25 % fat.",
    )


def _density(f: Figures) -> Phrase:
    return say(
        "Density: water, protein, fat and the rest by volume, × {packing} as packed = {rho}",
        packing=ph.number(PACKING[f.piece.shape.packing]),
        rho=ph.density(f.piece.shape.density_g_per_ml),
    )


_DENSITIES = "Densities of the components: Choi & Okos (1986). Air by packing is ours."


def diameter(f: Figures) -> Working:
    """Size, raw and cooked.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    return _flat(f) if f.context.style.form in FLAT else _all_round(f)


def _volume(f: Figures) -> Phrase:
    s = f.piece.shape
    if s.filling is None and s.eggs is None:
        return say(
            "{m} ÷ {rho} = {v}",
            m=ph.mass(f.batch.portions.piece_mass_g),
            rho=ph.density(s.density_g_per_ml),
            v=ph.volume(s.volume_ml),
        )
    return say("With what lies inside it takes {v}", v=ph.volume(s.volume_ml))


def _all_round(f: Figures) -> Working:
    """The size of a ball or a loaf."""
    s = f.piece.shape
    steps = [_density(f), _volume(f)]
    v, long, tall = ph.volume(s.volume_ml), ph.length(s.length_mm), ph.length(s.thickness_mm)
    if s.lumps is not None:
        return Working(
            "Lumps",
            (
                say(
                    "A lump as long as thick, {t}: π t³ ÷ 4 × density = {g}",
                    t=ph.length(s.lumps.lump_mm),
                    g=ph.mass(s.lumps.lump_mass_g),
                ),
                say(
                    "{n} of them in a portion brown on {a} cm²",
                    n=ph.count(s.lumps.per_portion),
                    a=ph.number(s.lumps.surface_cm2),
                ),
            ),
            "Geometry. " + _DENSITIES,
        )
    if s.form == "ball":
        steps.append(say("∛(6 × {v} ÷ π) = {d}", v=v, d=long))
        if s.scoop is not None and s.scoop.key:
            steps.append(
                say(
                    "{name}, level, holds {g} of this mix: {err} off. A scoop’s number goes into 32 US fl oz",
                    name=ph.word(s.scoop.name),
                    g=ph.mass(s.scoop.mass_g),
                    err=ph.fine_frac(s.scoop.error_frac),
                )
            )
    elif s.vessel is not None:
        steps.append(
            say(
                "{name}, {l} long at the brim, holds {holds}; {v} stand {h} high in it, {room} below the brim",
                name=ph.word(s.mould_name),
                l=long,
                holds=ph.volume(s.vessel.holds_ml),
                v=v,
                h=ph.length(s.vessel.fill_height_mm),
                room=ph.length(s.vessel.headspace_mm),
            )
        )
    elif s.form == "loaf":
        steps.append(
            say(
                "{v} ÷ ({w} × {h} × {k}) and two thirds of an end = {l} long",
                v=v,
                w=ph.length(s.width_mm),
                h=tall,
                k=ph.number(section_frac()),
                l=long,
            )
        )
    else:
        steps.append(say("{v} ÷ ({w} × {h}) = {l} long", v=v, w=ph.length(s.width_mm), h=tall, l=long))
    if s.eggs is not None:
        steps.append(
            say(
                "{n} eggs of {long} in a row: {x} of {all} slices of {cut} get egg",
                n=ph.count(s.eggs.eggs),
                long=ph.length(s.eggs.egg_length_mm),
                x=ph.count(s.eggs.slices_with_egg),
                all=ph.count(s.eggs.slices),
                cut=ph.length(SLICE_MM),
            )
        )
    steps.append(
        say(
            "It draws in alike on all sides, to {cooked}",
            cooked=ph.length(s.cooked_diameter_mm.low, s.cooked_diameter_mm.high),
        )
    )
    return Working("Size", tuple(steps), _DENSITIES + " The loaf’s rounded section is ours; the rest is geometry.")


def _flat(f: Figures) -> Working:
    s = f.piece.shape
    learnt = f.context.kitchen.style_factor("shrink", f.context.style.key)
    shrink = cy.diameter_shrink_frac(
        f.mix.whole.fat_frac,
        packing_gain=PACKING_SHRINK[s.packing],
        end_temp_c=f.context.formula.heat.target_core_temp_c,
        factor=learnt,
    )
    v, d, t = ph.volume(s.volume_ml), ph.length(s.raw_diameter_mm), ph.length(s.thickness_mm)
    steps = [_density(f), _volume(f)]
    if f.context.style.form == "spread" and s.bun_diameter_mm > 0:
        steps.append(say("Spread to the edge of {b}: 4 × {v} ÷ (π × {d}²) = {t}", b=ph.word(s.bun_name), v=v, d=d, t=t))
    elif _is_ring(f):
        steps.append(say("In {r}: 4 × {v} ÷ (π × {d}²) = {t}", r=ph.word(s.mould_name), v=v, d=d, t=t))
    else:
        steps.append(say("√(4 × {v} ÷ (π × {t})) = {d}", v=v, t=t, d=d))
    if learnt != 1.0:
        steps.append(say("Shrink times {x}, as this kitchen measured it in this style", x=ph.number(learnt)))
    steps += [
        say(
            "It draws in by {band}: cooked {cooked}",
            band=ph.frac(shrink.low, shrink.high),
            cooked=ph.length(s.cooked_diameter_mm.low, s.cooked_diameter_mm.high),
        ),
        say(
            "and thickens to {t}, by what is left of its volume",
            t=ph.length(s.cooked_thickness_mm.low, s.cooked_thickness_mm.high),
        ),
    ]
    if s.press_kg is not None:
        steps.append(
            say(
                "Push it to that: about {a} to {b} kg on a scale (2 π τ R³ ÷ 3 t, Covey & Stanmore 1981, from memory; "
                "τ is a guess)",
                a=ph.number(s.press_kg.low),
                b=ph.number(s.press_kg.high),
            )
        )
    if s.dimple_size is not None:
        steps.append(
            say(
                "From {thick} on it domes: a hollow {w} across (four tenths) and {h} deep (a third) lets it end flat; "
                "the ring round it rises {up}",
                thick=ph.length(NEEDED_FROM_MM),
                w=ph.length(s.dimple_size.diameter_mm),
                h=ph.length(s.dimple_size.depth_mm),
                up=ph.length(s.dimple_size.rim_rise_mm),
            )
        )
    return Working(
        "Diameter",
        tuple(steps),
        _DENSITIES
        + " Shrink: common practice (10 to 30 % of the diameter), no published source; the dimple’s size too.",
    )


def _is_ring(f: Figures) -> bool:
    return any(w.key == f.piece.shape.mould_key and w.kind == "ring" for w in f.context.kitchen.moulds)


def _beside_first(f: Figures) -> tuple[Phrase, ...]:
    """What lies beside the first wave, where that leaves it less room."""
    s = f.cook.stove
    if s.first_wave == s.at_once:
        return ()
    names = [t.name for t in f.beside.things if (rule := COOKED_BESIDE.get(t.ingredient)) and rule.with_meat]
    return (
        say("{what} beside the first wave: it holds {n}", what=ph.word(" and ".join(names)), n=ph.count(s.first_wave)),
    )


def waves(f: Figures) -> Working:
    """How many lie on the surface at once.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    Working
        How one figure came about.
    """
    s = f.cook.stove
    if s.load_mass_g > 0:
        return Working(
            "Browning loads",
            (
                say(
                    "{surface} browns {m} of loose meat at once without stewing it",
                    surface=ph.word(f.context.surface.name),
                    m=ph.mass(s.load_mass_g),
                ),
                say("{meat} make {n} loads", meat=ph.mass(f.batch.meat_mass_g), n=ph.count(s.waves)),
            ),
            "A layer as thick as the crumbs are; the gap is common practice.",
        )
    return Working(
        "Waves",
        (
            say(
                "{surface}: {n} at once at {d} across with {gap} between",
                surface=ph.word(f.context.surface.name),
                n=ph.count(s.at_once),
                d=ph.length(f.piece.shape.raw_diameter_mm),
                gap=ph.length(f.context.style.gap_mm),
            ),
            say(
                "{pieces} pieces make {waves} waves; the last one holds {last}",
                pieces=ph.count(f.batch.portions.pieces),
                waves=ph.count(s.waves),
                last=ph.count(s.last_wave),
            ),
            *_beside_first(f),
        ),
        "Geometry: rows in step or shifted on a plate, the tightest known places in a round pan; the gap is common "
        "practice.",
    )
