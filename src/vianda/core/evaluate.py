"""The one evaluation: formula, larder and kitchen in; figures, working and counsel for every step out."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core import phrase as ph
from vianda.core.apply_edit import FIGURES, range_text
from vianda.core.blend import BlendFigures, blend_fats, blend_figures, blend_meats, blend_spread, has_poultry
from vianda.core.connective import CollagenFigures, collagen_figures
from vianda.core.cost import CostFigures, cost_figures
from vianda.core.counsel.rule import Counsel, Severity, Step
from vianda.core.counsel.rules import counsel_on
from vianda.core.edit import Figure
from vianda.core.errors import OutOfRangeError
from vianda.core.explain import workings_of
from vianda.core.figures import Figures
from vianda.core.formula import Formula
from vianda.core.grind import GrindPlan, grind_plan
from vianda.core.heat.floor import floors_for
from vianda.core.heat.habit import HabitTable
from vianda.core.heat.plan import HeatModel, HeatPlan
from vianda.core.kitchen import Kitchen
from vianda.core.label_names import NameFigures, label_names, widest_fat_limit
from vianda.core.larder import Larder
from vianda.core.phrase import Phrase, say
from vianda.core.portions import Portions, divide
from vianda.core.salt import SaltFigures, salt_figures
from vianda.core.shape import ShapeFigures, centres_at_once, shape_figures
from vianda.core.slip import Slip, butcher_slip
from vianda.core.stove_plan import StovePlan, stove_plan
from vianda.core.styles import style_of
from vianda.core.working import Working

HABIT = HabitTable()


@dataclass(frozen=True, slots=True)
class TicketFigure:
    """A vital figure: label, value, what stands small beside it, its working, and the step that decides it."""

    id: str
    label: str
    value: Phrase
    aside: Phrase
    working: str
    step: Step


@dataclass(frozen=True, slots=True)
class RailStep:
    """A step of the path with its present answer and the gravest counsel waiting there."""

    step: Step
    number: int
    title: str
    answer: Phrase
    waiting: Severity | None


@dataclass(frozen=True, slots=True)
class FigureRange:
    """How far a figure may go, in its base unit, and what one nudge is."""

    low: float
    high: float
    nudge: float
    unit: str


@dataclass(frozen=True, slots=True)
class StyleLine:
    """What the screens need of the style chosen."""

    key: str
    title: str
    line: str
    fat_band_frac: tuple[float, float]
    piece_mass_g: tuple[float, float]
    thickness_mm: tuple[float, float]
    surface_temp_c: tuple[float, float]
    gap_mm: float
    stacked: bool


@dataclass(frozen=True, slots=True)
class Evaluation:
    """Everything Vianda says about a formula."""

    ticket: tuple[TicketFigure, ...]
    rail: tuple[RailStep, ...]
    style: StyleLine
    portions: Portions
    blend: BlendFigures
    names: tuple[NameFigures, ...]
    name_limit_frac: float | None
    collagen: CollagenFigures
    salt: SaltFigures
    shape: ShapeFigures
    heat: HeatPlan
    stove: StovePlan
    cost: CostFigures
    grind: GrindPlan
    slip: Slip
    allergens: tuple[str, ...]
    counsel: tuple[Counsel, ...]
    workings: dict[str, Working]
    ranges: dict[Figure, FigureRange]


_RANGES: dict[Figure, FigureRange] = {
    key: FigureRange(rule.low, rule.high, rule.nudge, rule.unit) for key, rule in FIGURES.items()
}


def _check_ranges(formula: Formula) -> None:
    """A formula from a file may hold what no edit would have let through."""
    values: dict[Figure, float] = {
        "guests": formula.dish.guests,
        "pieces_per_guest": formula.dish.pieces_per_guest,
        "piece_mass": formula.shape.piece_mass_g,
        "batch_mass": formula.shape.batch_mass_g,
        "thickness": formula.shape.thickness_mm,
        "salt": formula.seasoning.salt_frac,
        "surface_temp": formula.heat.surface_temp_c,
        "core_target": formula.heat.core_target_c,
        "services_per_week": formula.grind.services_per_week,
    }
    for figure, value in values.items():
        rule = FIGURES[figure]
        if not rule.low - 1e-9 <= value <= rule.high + 1e-9:
            raise OutOfRangeError(range_text(figure, value), field=rule.pointer)


def compute(formula: Formula, *, larder: Larder, kitchen: Kitchen, heat_model: HeatModel = HABIT) -> Figures:
    """All figures of a formula, without words."""
    _check_ranges(formula)
    style = style_of(formula.dish.style, field="/dish/style")
    bun = kitchen.bun(formula.shape.bun, field="/shape/bun")
    surface = kitchen.surface(formula.heat.surface, field="/heat/surface")
    step_g = kitchen.scale.step_g
    portions = divide(
        portioning=formula.shape.portioning,
        pieces=formula.dish.pieces,
        piece_mass_g=formula.shape.piece_mass_g,
        batch_mass_g=formula.shape.batch_mass_g,
        step_g=step_g,
    )
    meats = blend_meats(formula.parts, larder=larder)
    spread = blend_spread(formula.parts, larder=larder)
    blend = blend_figures(
        formula.parts, larder=larder, batch_mass_g=portions.batch_mass_g, step_g=step_g, band_frac=style.fat_band_frac,
        spread=spread,
    )  # fmt: skip
    collagen = collagen_figures([p.share_frac for p in blend.parts], meats, blend_fats(formula.parts, larder=larder))
    grind = grind_plan(
        blend.parts, larder=larder, kitchen=kitchen, style=style, grind=formula.grind,
        sinewy_frac=collagen.sinewy_share_frac,
    )  # fmt: skip
    shape = shape_figures(
        piece_mass_g=portions.piece_mass_g,
        thickness_mm=formula.shape.thickness_mm,
        fat_frac=blend.fat_frac,
        packing=style.packing,
        dimple=style.dimple,
        bun_diameter_mm=bun.diameter_mm,
        bun_name=bun.name,
    )
    salt = salt_figures(formula.seasoning, batch_mass_g=portions.batch_mass_g, piece_mass_g=portions.piece_mass_g)
    floors = floors_for(country=kitchen.country, setting=kitchen.setting, poultry=has_poultry(blend))
    heat = heat_model.plan(style=style, shape=shape, blend=blend, heat=formula.heat, floors=floors)
    stove = stove_plan(
        heat=heat,
        portions=portions,
        salt=salt,
        surface=surface,
        surface_temp_c=formula.heat.surface_temp_c,
        centres=centres_at_once(surface=surface, diameter_mm=shape.raw_diameter_mm, gap_mm=style.gap_mm),
    )
    # Doubles share a bun; a slider or a grilled burger has its own.
    buns = (formula.dish.guests if style.stacked else portions.pieces) if bun.diameter_mm > 0 else 0
    cost = cost_figures(
        blend.parts, larder=larder, bun=bun, buns=buns, guests=formula.dish.guests, grind_loss_frac=grind.loss_frac
    )
    slip = butcher_slip(
        blend=blend, cost=cost, portions=portions, grind=grind, services_per_week=formula.grind.services_per_week
    )
    return Figures(
        formula=formula, larder=larder, kitchen=kitchen, style=style, bun=bun, surface=surface,
        portions=portions, blend=blend, salt=salt,
        names=label_names(blend, spread=spread, collagen=collagen, rule=kitchen.naming_rule),
        shape=shape, heat=heat, stove=stove, cost=cost, spread=spread, collagen=collagen, grind=grind, slip=slip,
    )  # fmt: skip


def evaluate(formula: Formula, *, larder: Larder, kitchen: Kitchen, heat_model: HeatModel = HABIT) -> Evaluation:
    """Evaluate a whole formula.

    Pure: the same formula, larder and kitchen give the same answer.

    Raises
    ------
    CoreError
        With a field pointer, when a value is outside what the rules cover or names something unknown.

    Examples
    --------
    >>> from vianda.core.demo import slipway_smash
    >>> from vianda.core.kitchen import yard_galley
    >>> from vianda.core.larder import starter_larder
    >>> e = evaluate(slipway_smash(), larder=starter_larder(), kitchen=yard_galley())
    >>> e.portions.pieces * e.portions.piece_mass_g
    3400
    """
    figures = compute(formula, larder=larder, kitchen=kitchen, heat_model=heat_model)
    counsel = counsel_on(figures)
    style = figures.style
    return Evaluation(
        ticket=_ticket(figures),
        rail=_rail(figures, counsel),
        style=StyleLine(
            style.key, style.title, style.line, style.fat_band_frac, style.piece_mass_g, style.thickness_mm,
            style.surface_temp_c, style.gap_mm, style.stacked,
        ),
        portions=figures.portions,
        blend=figures.blend,
        names=figures.names,
        name_limit_frac=widest_fat_limit(figures.names),
        collagen=figures.collagen,
        salt=figures.salt,
        shape=figures.shape,
        heat=figures.heat,
        stove=figures.stove,
        cost=figures.cost,
        grind=figures.grind,
        slip=figures.slip,
        allergens=figures.bun.allergens,
        counsel=counsel,
        workings=workings_of(figures),
        ranges=_RANGES,
    )  # fmt: skip


def _piece(f: Figures) -> ph.Amount:
    """The raw piece; a range when some pieces take a step of the remainder, so that it multiplies back."""
    p = f.portions
    return ph.mass(p.piece_mass_g, p.heavier_mass_g if p.heavier_pieces else None)


def _ticket(f: Figures) -> tuple[TicketFigure, ...]:
    salt_aside = (
        say("{piece} a piece, on the surface", piece=ph.mass(f.salt.piece_salt_g)) if f.salt.salt_frac else say("")
    )
    allergens = f.bun.allergens
    return (
        TicketFigure(
            "lean_to_fat", "Lean to fat", say("{r}", r=ph.lean_to_fat(f.blend.fat_frac)),
            say("fat {band}", band=ph.frac(f.blend.fat_low_frac, f.blend.fat_high_frac)), "lean_to_fat", "meat",
        ),
        TicketFigure("salt", "Salt", say("{s}", s=ph.fine_frac(f.salt.salt_frac)), salt_aside, "salt", "mix"),
        TicketFigure(
            "pieces", "Pieces",
            say("{n} × {m}", n=ph.count(f.portions.pieces), m=_piece(f)),
            say("{cooked} cooked", cooked=ph.mass(f.shape.cooked_mass_g.low, f.shape.cooked_mass_g.high)),
            "pieces", "shape",
        ),
        TicketFigure(
            "core", "Core", say("{t}", t=ph.temp(f.heat.target_c)),
            say("{time} by habit", time=ph.duration(f.heat.on_heat_s.low, f.heat.on_heat_s.high)), "core", "heat",
        ),
        TicketFigure(
            "cost", "A portion", say("{c}", c=ph.money(f.cost.portion_cost)),
            say("{p}", p=ph.price(f.cost.blend_price_per_kg)), "cost", "meat",
        ),
        TicketFigure(
            "allergens", "Allergens",
            say("{a}", a=ph.word(", ".join(a.split(" (")[0] for a in allergens) if allergens else "none declared")),
            say("from the bun") if allergens else say(""), "allergens", "shape",
        ),
    )  # fmt: skip


_GRAVER: dict[Severity, int] = {"limit": 2, "asks": 1, "note": 0}


def _rail(f: Figures, counsel: tuple[Counsel, ...]) -> tuple[RailStep, ...]:
    def waiting(step: Step) -> Severity | None:
        found = [c.severity for c in counsel if c.step == step and c.severity != "note"]
        return max(found, key=_GRAVER.__getitem__, default=None)

    dish = f.formula.dish
    meats = " · ".join(p.name.split(" (")[0] for p in f.blend.parts)
    answers: tuple[tuple[Step, int, str, Phrase], ...] = (
        ("dish", 1, "Dish", say("{style}, {guests} guests × {each}", style=ph.word(f.style.title),
                                guests=ph.count(dish.guests), each=ph.count(dish.pieces_per_guest))),
        ("meat", 2, "Meat", say("{meats}", meats=ph.word(meats))),
        ("mix", 3, "Mix", say("Salt {s}, on the surface", s=ph.fine_frac(f.salt.salt_frac)) if f.salt.salt_frac
         else say("Nothing added")),
        ("shape", 4, "Shape", say("{m}, {t} thick", m=ph.mass(f.portions.piece_mass_g),
                                  t=ph.length(f.shape.thickness_mm))),
        ("heat", 5, "Heat", say("{t}, flip {flip}", t=ph.temp(f.formula.heat.surface_temp_c),
                                flip=ph.duration(f.heat.flip_s.low, f.heat.flip_s.high))),
        ("cook", 8, "Cook", say("{w} waves of {n}", w=ph.count(f.stove.waves), n=ph.count(f.stove.at_once))
         if f.stove.waves > 1 else say("One wave of {n}", n=ph.count(f.stove.at_once))),
        ("notes", 9, "Notes", say("Versions and cooks")),
    )  # fmt: skip
    return tuple(RailStep(step, n, title, answer, waiting(step)) for step, n, title, answer in answers)
