"""Workings of the pieces: division, weights, diameter, waves."""

from __future__ import annotations

from vianda.core import cook_yield as cy
from vianda.core import phrase as ph
from vianda.core.figures import Figures
from vianda.core.phrase import Phrase, say
from vianda.core.shape import FAT_DENSITY, LEAN_DENSITY, LOAF_FILL
from vianda.core.working import Working


def pieces(f: Figures) -> Working:
    """Division, multiplied back."""
    p = f.portions
    dish = f.formula.dish
    shared = dish.guests_per_piece > 1
    steps = [
        say(
            "{guests} guests × {each} each = {pieces} pieces"
            if not shared
            else "{guests} guests × {each} each ÷ {share} who share one, rounded up = {pieces}",
            guests=ph.count(dish.guests),
            each=ph.count(dish.pieces_per_guest),
            pieces=ph.count(p.pieces),
            **({"share": ph.count(dish.guests_per_piece)} if shared else {}),
        )
    ]
    if f.batch.mix_per_meat > 1.0:
        steps.append(
            say(
                "{meat} of meat × {ratio} with what goes in = {mix}",
                meat=ph.mass(f.batch.meat_mass_g),
                ratio=ph.number(f.batch.mix_per_meat),
                mix=ph.mass(p.batch_mass_g),
            )
        )
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


def cooked_mass(f: Figures) -> Working:
    """What the heat leaves of a piece."""
    y = f.shape.cooked_yield_frac
    m = f.shape.cooked_mass_g
    return Working(
        "Cooked weight",
        (
            say(
                "At {fat} fat of the mix {yield_} of the raw weight is left",
                fat=ph.fine_frac(f.mix.whole.fat_frac),
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


def _density(f: Figures) -> Phrase:
    fat = f.mix.whole.fat_frac
    return say(
        "Density: {packing} ÷ ({fat} ÷ {rf} + {lean} ÷ {rl}) = {rho}",
        packing=ph.number(f.style.packing),
        fat=ph.fine_frac(fat),
        rf=ph.density(FAT_DENSITY),
        lean=ph.fine_frac(1 - fat),
        rl=ph.density(LEAN_DENSITY),
        rho=ph.density(f.shape.density_g_per_ml),
    )


def _all_round(f: Figures) -> Working:
    """The size of a ball or a loaf."""
    s = f.shape
    steps = [_density(f)]
    mass, rho = ph.mass(f.portions.piece_mass_g), ph.density(s.density_g_per_ml)
    if s.form == "crumbled":
        steps = [say("What is crumbled has no size")]
    elif s.form == "ball":
        steps.append(say("∛(6 × {m} ÷ (π × {rho})) = {d}", m=mass, rho=rho, d=ph.length(s.raw_diameter_mm)))
    else:
        steps.append(
            say("{m} ÷ ({rho} × {w} × {h} × {fill}) = {l} long", m=mass, rho=rho, w=ph.length(s.width_mm),
                h=ph.length(s.thickness_mm), fill=ph.number(LOAF_FILL[s.form]), l=ph.length(s.length_mm))
        )  # fmt: skip
    if s.form != "crumbled":
        steps.append(
            say("It draws in alike on all sides, to {cooked}", cooked=ph.length(s.cooked_diameter_mm.low,
                                                                                s.cooked_diameter_mm.high))
        )  # fmt: skip
    return Working("Size", tuple(steps), "Densities from memory; how much of its block a loaf fills is ours.")


def diameter(f: Figures) -> Working:
    """Density and diameter, raw and cooked."""
    s = f.shape
    if s.form != "disc":
        return _all_round(f)
    shrink = cy.diameter_shrink_frac(f.mix.whole.fat_frac)
    return Working(
        "Diameter",
        (
            _density(f),
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


def waves(f: Figures) -> Working:
    """How many lie on the surface at once."""
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
