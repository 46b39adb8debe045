"""Counsel on what a piece is shaped in and what lies inside: tins, scoops, bread, rims and eggs."""

from __future__ import annotations

import math

from vianda.core.basis.phrase import count, frac, length, mass, say, volume, word
from vianda.core.basis.scale_step import whole_steps
from vianda.core.counsel.rule import PRACTICE, Change, Remark, Rule
from vianda.core.model.edit import Choose, SetFigure
from vianda.core.pipeline.figures import Figures
from vianda.core.shape.vessel import HEADSPACE_MM

# Ours, from what cooks say leaks, splits or looks bare; no published source.
NARROW_RIM_MM = 10.0
GOOD_RIM_MM = 12.0
THIN_WALL_MM = 6.0
MOST_FILLING_FRAC = 0.25
EGG_WALL_MM = 15.0
SCOOP_OFF_FRAC = 0.05
OVERHANG_MM = 15.0


def _tin_overflows(figures: Figures) -> Remark | None:
    vessel = figures.piece.shape.vessel
    if vessel is None or vessel.over_g <= 0:
        return None
    return Remark(
        say("{over} more than “{tin}” holds", over=mass(vessel.over_g), tin=word(figures.piece.shape.mould_name)),
        say(
            "It holds {holds}; the mix is {mix}. Juice and fat boil up besides: leave {room} below the brim. The rest "
            "makes balls, baked beside it.",
            holds=volume(vessel.holds_ml),
            mix=volume(vessel.filled_ml),
            room=length(HEADSPACE_MM),
        ),
        _other_vessels(figures),
    )


def _tin_full(figures: Figures) -> Remark | None:
    vessel = figures.piece.shape.vessel
    if vessel is None or vessel.over_g > 0 or vessel.headspace_mm >= HEADSPACE_MM - 0.05:
        return None
    return Remark(
        say(
            "Only {room} below the brim of “{tin}”",
            room=length(vessel.headspace_mm),
            tin=word(figures.piece.shape.mould_name),
        ),
        say("Juice and fat boil up as it bakes: {room} keeps them in.", room=length(HEADSPACE_MM)),
        _other_vessels(figures),
    )


def _other_vessels(figures: Figures) -> tuple[Change, ...]:
    """What fits, on the scale's step, and the smallest other vessel of the kitchen that holds it all."""
    vessel = figures.piece.shape.vessel
    assert vessel is not None
    step = figures.batch.portions.step_g
    fits = whole_steps(vessel.fits_g, step_g=step) * step
    changes = []
    if fits >= 10:
        changes.append(Change(say("Make it {m}", m=mass(fits)), SetFigure("piece_mass", float(fits))))
    kind = figures.context.style.form
    larger = [
        w
        for w in figures.context.kitchen.moulds
        if w.kind == kind and w.filled_ml(w.height_mm - HEADSPACE_MM) >= vessel.filled_ml
    ]
    if larger:
        best = min(larger, key=lambda w: w.holds_ml)
        changes.append(Change(say("Take “{tin}”", tin=word(best.name)), Choose("mould", best.key)))
    return tuple(changes)


def _rim_narrow(figures: Figures) -> Remark | None:
    core = figures.piece.shape.filling
    if core is None or core.rim_mm >= NARROW_RIM_MM:
        return None
    change = (Change(say("Make the rim {mm}", mm=length(GOOD_RIM_MM)), SetFigure("rim", GOOD_RIM_MM)),)
    return Remark(
        say("A rim of {mm} will leak", mm=length(core.rim_mm)),
        say(
            "Melted {what} runs out where the two discs meet. From {good} on, pressed shut in the ring and turned once,"
            " it holds.",
            what=word(core.name.lower()),
            good=length(NARROW_RIM_MM),
        ),
        change,
    )


def _core_thin(figures: Figures) -> Remark | None:
    core = figures.piece.shape.filling
    if core is None or core.wall_mm >= THIN_WALL_MM or not core.fits:
        return None
    shape = figures.piece.shape
    # At the same outline the filling may be as thick as leaves both walls; its share goes with its thickness.
    room = shape.thickness_mm - 2 * THIN_WALL_MM
    share = math.floor(core.share_frac * room / core.thickness_mm * 100) / 100
    change: tuple[Change, ...] = ()
    if share >= 0.01:
        change = (Change(say("Fill it with {share}", share=frac(share)), SetFigure("filling", share)),)
    return Remark(
        say("Only {mm} of meat over the filling", mm=length(core.wall_mm)),
        say("Less than {mm} splits as it draws in. Less filling, or a thicker piece.", mm=length(THIN_WALL_MM)),
        change,
    )


def _core_heavy(figures: Figures) -> Remark | None:
    core = figures.piece.shape.filling
    if core is None or core.share_frac <= MOST_FILLING_FRAC + 1e-9:
        return None
    return Remark(
        say("{share} of the piece is filling", share=frac(core.share_frac)),
        say("Past a quarter the meat round it is a thin shell that opens in the heat."),
        (Change(say("Fill it with {share}", share=frac(0.20)), SetFigure("filling", 0.20)),),
    )


def _core_no_room(figures: Figures) -> Remark | None:
    core = figures.piece.shape.filling
    if core is None or core.fits:
        return None
    return Remark(
        say("The rim leaves no room for a filling"),
        say(
            "{d} across less a rim of {rim} on both sides. A narrower rim, or a larger piece.",
            d=length(figures.piece.shape.raw_diameter_mm),
            rim=length(core.rim_mm),
        ),
        (Change(say("Make the rim {mm}", mm=length(GOOD_RIM_MM)), SetFigure("rim", GOOD_RIM_MM)),),
    )


def _eggs_do_not_fit(figures: Figures) -> Remark | None:
    row = figures.piece.shape.eggs
    if row is None or row.eggs <= row.room_for:
        return None
    line = next(x for x in figures.mix.lines if x.group == "filling" and x.per_meat_frac > 0)
    change: tuple[Change, ...] = ()
    if row.room_for > 0:
        per = line.per_meat_frac * row.room_for / row.eggs
        change = (Change(say("Put in {n}", n=count(row.room_for)), SetFigure("line", per, line.ingredient)),)
    return Remark(
        say("{n} eggs do not fit into a loaf of {l}", n=count(row.eggs), l=length(figures.piece.shape.length_mm)),
        say(
            "Each is {long} long, and both ends want meat: there is room for {room}.",
            long=length(row.egg_length_mm),
            room=count(row.room_for),
        ),
        change,
    )


def _egg_wall_thin(figures: Figures) -> Remark | None:
    row = figures.piece.shape.eggs
    if row is None or row.side_wall_mm >= EGG_WALL_MM:
        return None
    return Remark(
        say("Only {mm} of meat beside the eggs", mm=length(row.side_wall_mm)),
        say(
            "Less than {mm} cracks open over them and slices fall apart. Make the loaf wider or higher.",
            mm=length(EGG_WALL_MM),
        ),
    )


def _scoop_off(figures: Figures) -> Remark | None:
    mould = next(
        (w for w in figures.context.kitchen.moulds if w.key == figures.piece.shape.mould_key and w.kind == "scoop"),
        None,
    )
    if mould is None:
        return None
    holds = mould.holds_ml * figures.piece.shape.density_g_per_ml
    off = holds / figures.batch.portions.piece_mass_g - 1.0
    if abs(off) <= SCOOP_OFF_FRAC:
        return None
    changes = [Change(say("Make it {m}", m=mass(holds)), SetFigure("piece_mass", holds))]
    return Remark(
        say(
            "“{scoop}” gives {m}, not {piece}",
            scoop=word(mould.name),
            m=mass(holds),
            piece=mass(figures.batch.portions.piece_mass_g),
        ),
        say("Level, packed as the piece is: {off} off.", off=frac(abs(off))),
        tuple(changes),
    )


def _over_the_bun(figures: Figures) -> Remark | None:
    shape = figures.piece.shape
    over = shape.cooked_diameter_mm.usual - shape.bun_diameter_mm
    if shape.fit is None or over <= OVERHANG_MM:
        return None
    high = figures.context.style.thickness_mm[1]
    thicker = math.ceil(shape.fit.thickness_mm * 2) / 2
    change: tuple[Change, ...] = ()
    if thicker <= high and not shape.mould_key:
        change = (Change(say("Make it {mm} thick", mm=length(thicker)), SetFigure("thickness", thicker)),)
    return Remark(
        say("Comes out {over} wider than its bun", over=length(over)),
        say("Some like a skirt of crust; past {mm} it breaks off in the hand.", mm=length(OVERHANG_MM)),
        change,
    )


RULES = (
    Rule("shape.tin-overflows", "shape", "check", "more mix than the tin or tray holds", "geometry", _tin_overflows),
    Rule("shape.tin-full", "shape", "note", "less than 10 mm below the brim", PRACTICE, _tin_full),
    Rule("shape.rim-narrow", "shape", "check", "rim of a filled piece below 10 mm", PRACTICE, _rim_narrow),
    Rule("shape.filling-walls-thin", "shape", "check", "under 6 mm of meat over a filling", PRACTICE, _core_thin),
    Rule("shape.filling-heavy", "shape", "check", "filling over a quarter of the piece", PRACTICE, _core_heavy),
    Rule(
        "shape.filling-no-room", "shape", "check", "two rims leave under 15 mm for a filling", "geometry", _core_no_room
    ),
    Rule(
        "shape.eggs-do-not-fit",
        "shape",
        "check",
        "eggs in a row longer than the loaf less 20 mm at each end",
        "geometry; egg 57 × 43 mm from memory",
        _eggs_do_not_fit,
    ),
    Rule("shape.egg-wall-thin", "shape", "check", "under 15 mm of meat beside the eggs", PRACTICE, _egg_wall_thin),
    Rule("shape.scoop-off", "shape", "check", "the scoop chosen is over 5 % off the piece", PRACTICE, _scoop_off),
    Rule(
        "shape.over-the-bun",
        "shape",
        "note",
        "usual cooked diameter over 15 mm beyond the bread",
        PRACTICE,
        _over_the_bun,
    ),
)
