"""Workings of the pieces: division, weights, diameter, waves."""

from __future__ import annotations

from vianda.core import cook_yield as cy
from vianda.core import phrase as ph
from vianda.core.figures import Figures
from vianda.core.phrase import say
from vianda.core.shape import FAT_DENSITY, LEAN_DENSITY
from vianda.core.working import Working


def pieces(f: Figures) -> Working:
    """Division, multiplied back."""
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


def cooked_mass(f: Figures) -> Working:
    """What the heat leaves of a piece."""
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


def diameter(f: Figures) -> Working:
    """Density and diameter, raw and cooked."""
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
