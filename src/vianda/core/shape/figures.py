"""The piece to scale, raw and cooked: its size, what it is shaped in, what lies inside, what the heat takes."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.equipment.kitchen import Bun, SurfaceKind
from vianda.core.equipment.moulds import Mould
from vianda.core.model.formula import Packing, Shape
from vianda.core.model.styles import BLOCKS, FLAT, Form, Style
from vianda.core.shape.bread_fit import Fit, bread_fit
from vianda.core.shape.cook_loss import CookLoss, CookMethod, cook_loss, diameter_shrink_frac
from vianda.core.shape.density import PACKING, PACKING_SHRINK, solid_density_g_per_ml
from vianda.core.shape.dimple import Dimple, dimple_for
from vianda.core.shape.filling import EggRow, Filling, egg_row, filling_of
from vianda.core.shape.lumps import Lumps, lumps_of
from vianda.core.shape.piece_composition import PieceComposition
from vianda.core.shape.press import press_kg
from vianda.core.shape.scoop import ScoopFit, nearest_scoop
from vianda.core.shape.solids import END_FRAC, SECTION_POWER, ball_diameter_mm, disc_diameter_mm, loaf_size_mm
from vianda.core.shape.vessel import VesselFill, vessel_fill

THINNEST_MM, THICKEST_MM = 2.5, 200.0
# A scoop is offered to a flat piece when it holds that nearly; the largest made holds 158 ml. Ours.
NEAR_SCOOP_FRAC, MOST_SCOOPED_G = 0.15, 300.0


@dataclass(frozen=True, slots=True)
class ShapeFigures:
    """One piece, raw and cooked (lengths in mm, masses in g).

    ``thickness_mm`` is the height: a ball's diameter, a loaf's height. A loaf measures ``length_mm`` × ``width_mm``;
    of what is round both are the diameter. What is crumbled has no size. ``volume_ml`` is raw, with what lies inside.
    A loaf's section is half a superellipse of ``section_power``; each of its ends narrows over ``end_mm``.
    ``ball_mm`` is the ball a smashed piece is pressed from, 0 for others.
    """

    form: Form
    packing: Packing
    density_g_per_ml: float
    volume_ml: float
    thickness_mm: float
    length_mm: float
    width_mm: float
    raw_diameter_mm: float
    cooked_diameter_mm: Band
    cooked_thickness_mm: Band
    cooked_mass_g: Band
    cooked_yield_frac: Band
    water_lost_g: float
    fat_rendered_g: float
    method: CookMethod
    dimple: bool
    dimple_size: Dimple | None
    bun_diameter_mm: float
    bun_name: str
    mould_key: str
    mould_name: str
    ends: str
    end_mm: float
    section_power: float
    ball_mm: float
    press_kg: Band | None
    fit: Fit | None
    scoop: ScoopFit | None
    vessel: VesselFill | None
    filling: Filling | None
    eggs: EggRow | None
    lumps: Lumps | None


def method_of(form: Form, kind: SurfaceKind) -> CookMethod:
    """Which of SR28's ways of cooking ground beef comes nearest: over fire, in a pan, in an oven, crumbled.

    Parameters
    ----------
    form : Form
        Form of the piece.
    kind : SurfaceKind
        Which kind.

    Returns
    -------
    CookMethod
        Which of SR28's ways of cooking ground beef comes nearest.

    References
    ----------
    Ways of cooking of SR28's rows; the choice is ours.

    Examples
    --------
    >>> method_of("disc", "grate"), method_of("ball", "oven")
    ('broiled', 'loaf')
    """
    if form == "crumbled":
        return "crumbles"
    if kind == "grate":
        return "broiled"
    return "loaf" if kind == "oven" else "pan-broiled"


def shape_figures(
    *,
    style: Style,
    shape: Shape,
    piece_mass_g: float,
    composition: PieceComposition,
    bun: Bun,
    mould: Mould | None = None,
    moulds: tuple[Mould, ...] = (),
    surface_kind: SurfaceKind = "plate",
    end_temp_c: float = 71.1,
    loss_factor: float = 1.0,
    shrink_factor: float = 1.0,
) -> ShapeFigures:
    """One piece raw and cooked, to scale against what it lies in or on.

    ``mould`` is the tin, tray or ring chosen, when the form takes one; ``end_temp_c`` the core when it leaves the heat.

    Parameters
    ----------
    style : Style
        The style whose usual values count.
    shape : Shape
        The piece and how the batch divides.
    piece_mass_g : float
        Mass of one piece, g, above 0.
    composition : PieceComposition
        What the piece is made of.
    bun : Bun
        The bread.
    mould : Mould | None, default None
        The tin, tray, scoop or ring; None for none.
    moulds : tuple[Mould, ...], default ()
        The tins, trays, scoops and rings of the kitchen.
    surface_kind : SurfaceKind, default 'plate'
        Surface kind.
    end_temp_c : float, default 71.1
        Core when it leaves the heat, °C.
    loss_factor : float, default 1.0
        What this kitchen's own weighings multiply the loss with, about 1.
    shrink_factor : float, default 1.0
        What its own measurements multiply the shrink of a flat piece with, about 1.

    Returns
    -------
    ShapeFigures
        One piece, raw and cooked (lengths in mm, masses in g).

    Raises
    ------
    OutOfRangeError
        When the piece comes out thinner than 2.5 mm or thicker than 200 mm, or a filling does not fit inside.
    """
    packing = packing_of(style, shape)
    density = PACKING[packing] * solid_density_g_per_ml(composition.mix)
    core_g = composition.filling_frac * piece_mass_g
    core_density = solid_density_g_per_ml(composition.filling) if composition.filling else 1.0
    volume = (piece_mass_g - core_g) / density + core_g / core_density
    loss = _loss(style.form, composition=composition, kind=surface_kind, end_temp_c=end_temp_c, factor=loss_factor)
    length, width, height, vessel = _size(style, shape, volume_ml=volume, bun=bun, mould=mould, mass_g=piece_mass_g)
    left = loss.yield_frac
    mass = Band(piece_mass_g * left.low, piece_mass_g * left.usual, piece_mass_g * left.high)
    shrink = _shrink(
        style.form, composition=composition, packing=packing, end_temp_c=end_temp_c, left=left, factor=shrink_factor
    )
    cooked = Band(length * (1 - shrink.high), length * (1 - shrink.usual), length * (1 - shrink.low))
    thick = _cooked_thickness(style.form, height, raw=length, cooked=cooked, left=left)
    flat, dimple = style.form in FLAT, None
    if style.form == "disc" and style.press_by_s == 0:
        dimple = dimple_for(diameter_mm=length, thickness_mm=height)
    return ShapeFigures(
        form=style.form,
        packing=packing,
        density_g_per_ml=density,
        volume_ml=volume,
        thickness_mm=height,
        length_mm=length,
        width_mm=width,
        raw_diameter_mm=length,
        cooked_diameter_mm=cooked,
        cooked_thickness_mm=thick,
        cooked_mass_g=mass,
        cooked_yield_frac=left,
        water_lost_g=loss.water_frac * piece_mass_g,
        fat_rendered_g=loss.fat_frac * piece_mass_g,
        method=method_of(style.form, surface_kind),
        dimple=dimple is not None,
        dimple_size=dimple,
        bun_diameter_mm=bun.across_mm,
        bun_name=bun.name,
        mould_key=mould.key if mould else "",
        mould_name=mould.name if mould else "",
        ends=shape.ends if style.form == "loaf" else "",
        end_mm=END_FRAC[shape.ends] * width if style.form == "loaf" else 0.0,
        section_power=SECTION_POWER,
        ball_mm=ball_diameter_mm(volume_ml=volume) if style.press_by_s else 0.0,
        press_kg=press_kg(diameter_mm=length, thickness_mm=height) if style.press_by_s else None,
        fit=bread_fit(
            style.form, bun, raw_mm=length, shrink=shrink, volume_ml=volume, thickness_mm=height, mass_g=piece_mass_g
        )
        if flat
        else None,
        scoop=_scoop(style.form, piece_mass_g=piece_mass_g, density_g_per_ml=density, moulds=moulds),
        vessel=vessel,
        filling=filling_of(
            name=composition.filling_name,
            mass_g=core_g,
            density_g_per_ml=core_density,
            diameter_mm=length,
            thickness_mm=height,
            rim_mm=shape.rim_mm,
            piece_mass_g=piece_mass_g,
        )
        if style.form == "filled" and core_g > 0
        else None,
        eggs=egg_row(
            mass_g=core_g,
            egg_mass_g=composition.filling_piece_g,
            density_g_per_ml=core_density,
            loaf_length_mm=length,
            loaf_width_mm=width,
            loaf_height_mm=height,
        )
        if style.form in BLOCKS and core_g > 0 and composition.filling_piece_g > 0
        else None,
        lumps=lumps_of(style.form, height, piece_mass_g=piece_mass_g * composition.meat_frac, density_g_per_ml=density),
    )


def packing_of(style: Style, shape: Shape) -> Packing:
    """How tightly the piece is packed: as the cook says, else as the style is.

    Parameters
    ----------
    style : Style
        The style whose usual values count.
    shape : Shape
        The piece and how the batch divides.

    Returns
    -------
    Packing
        How tightly the piece is packed.
    """
    if shape.packing:
        return shape.packing
    return "firm" if style.packing >= 0.99 else "light" if style.packing >= 0.95 else "loose"


def takes_mould(form: Form) -> tuple[str, ...]:
    """Kinds of mould that a form can be shaped in.

    Parameters
    ----------
    form : Form
        Form of the piece.

    Returns
    -------
    tuple[str, ...]
        Kinds of mould that a form can be shaped in.

    Examples
    --------
    >>> takes_mould("ball")
    ('scoop',)
    """
    kinds: dict[Form, tuple[str, ...]] = {
        "disc": ("ring", "scoop"),
        "filled": ("ring",),
        "ball": ("scoop",),
        "tin": ("tin",),
        "tray": ("tray",),
    }
    return kinds.get(form, ())


def _scoop(form: Form, *, piece_mass_g: float, density_g_per_ml: float, moulds: tuple[Mould, ...]) -> ScoopFit | None:
    """The scoop of a ball; of a flat piece only when one comes near, since others take it off a scale."""
    if form not in ("ball", "disc") or piece_mass_g > MOST_SCOOPED_G:
        return None
    found = nearest_scoop(piece_mass_g=piece_mass_g, density_g_per_ml=density_g_per_ml, moulds=moulds)
    off = found.error_frac if found.key else found.error_of_all_frac
    return found if form == "ball" or abs(off) <= NEAR_SCOOP_FRAC else None


def _loss(
    form: Form, *, composition: PieceComposition, kind: SurfaceKind, end_temp_c: float, factor: float
) -> CookLoss:
    method = method_of(form, kind)
    if form != "crumbled":
        return cook_loss(
            composition.fat_frac,
            water_frac=composition.water_frac,
            method=method,
            binder_frac=composition.binder_frac,
            end_temp_c=end_temp_c,
            factor=factor,
            species=composition.species,
        )
    # Only the meat is browned and drained; what comes to it in the pot stays in it.
    meat = cook_loss(
        composition.meat_fat_frac,
        water_frac=0.77 - 0.76 * composition.meat_fat_frac,
        method=method,
        factor=factor,
        species=composition.species,
    )
    share, left = composition.meat_frac, meat.yield_frac
    rest = 1.0 - share
    return CookLoss(
        meat.water_frac * share,
        meat.fat_frac * share,
        Band(rest + share * left.low, rest + share * left.usual, rest + share * left.high),
    )


def _shrink(
    form: Form, *, composition: PieceComposition, packing: Packing, end_temp_c: float, left: Band, factor: float
) -> Band:
    if form in FLAT:
        gain = PACKING_SHRINK[packing]
        return diameter_shrink_frac(composition.fat_frac, packing_gain=gain, end_temp_c=end_temp_c, factor=factor)
    # A ball or a loaf draws in alike on all sides: the cube root of what is left.
    return Band(*(1.0 - y ** (1.0 / 3.0) for y in (left.high, left.usual, left.low)))


def _cooked_thickness(form: Form, raw_mm: float, *, raw: float, cooked: Band, left: Band) -> Band:
    """A flat piece that draws in thickens: t' = t y (d ÷ d')², at the same density. More loss goes with more shrink."""
    if form not in FLAT:
        scale = sorted(y ** (1.0 / 3.0) for y in (left.low, left.usual, left.high))
        return Band(*(raw_mm * s for s in scale))
    ends = [
        raw_mm * y * (raw / d) ** 2
        for y, d in ((left.low, cooked.low), (left.usual, cooked.usual), (left.high, cooked.high))
    ]
    return Band(min(ends), ends[1], max(ends))


def _size(
    style: Style, shape: Shape, *, volume_ml: float, bun: Bun, mould: Mould | None, mass_g: float
) -> tuple[float, float, float, VesselFill | None]:
    """Length, width and height of a raw piece in mm, and how it fills what it lies in."""
    form, thick = style.form, shape.thickness_mm
    if form == "ball":
        d = ball_diameter_mm(volume_ml=volume_ml)
        return d, d, d, None
    if form == "crumbled":
        return 0.0, 0.0, thick, None
    if form in ("tin", "tray") and mould is not None and mould.kind == form:
        fill = vessel_fill(mould, volume_ml=volume_ml, mass_g=mass_g)
        _checked(fill.fill_height_mm, mould.name)
        return mould.length_mm, mould.width_mm, fill.fill_height_mm, fill
    width = shape.width_mm or style.width_mm
    if form == "loaf":
        return *loaf_size_mm(volume_ml=volume_ml, width_mm=width, height_mm=thick, ends=shape.ends), None
    if form in ("tin", "tray"):
        return volume_ml * 1000.0 / (width * thick), width, thick, None
    outline = outline_mm(form, bun=bun, mould=mould)
    if outline:
        height = _checked(4000.0 * volume_ml / (math.pi * outline**2), mould.name if mould else bun.name)
        return outline, outline, height, None
    d = disc_diameter_mm(volume_ml=volume_ml, thickness_mm=thick)
    return d, d, thick, None


def outline_mm(form: Form, *, bun: Bun, mould: Mould | None) -> float:
    """The diameter that something else fixes: a ring, or the bread that meat is spread on to its edge. 0 for none.

    Parameters
    ----------
    form : Form
        Form of the piece.
    bun : Bun
        The bread.
    mould : Mould | None
        The tin, tray, scoop or ring; None for none.

    Returns
    -------
    float
        That diameter, mm; 0 where nothing fixes it.
    """
    if mould is not None and mould.kind == "ring" and form in ("disc", "filled"):
        return mould.length_mm
    return bun.across_mm if form == "spread" else 0.0


def _checked(height_mm: float, name: str) -> float:
    if not THINNEST_MM <= height_mm <= THICKEST_MM:
        raise OutOfRangeError(
            f"In “{name}” it would be {height_mm:.1f} mm thick; a piece is {THINNEST_MM:g} to {THICKEST_MM:.0f} mm.",
            field="/shape/piece_mass_g",
        )
    return height_mm
