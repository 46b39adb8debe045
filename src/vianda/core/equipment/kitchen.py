"""The kitchen: the equipment as it really behaves, the units it thinks in, and the rules in force there."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from functools import cache
from typing import Annotated, Literal

from annotated_types import Ge, Gt, Le, Len, Predicate

from vianda.core.basis.bounds import Key, LengthMm, Name, Price, is_currency_code
from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.basis.option import Option
from vianda.core.basis.units import UnitSystem
from vianda.core.equipment.cut_fat import CutFat
from vianda.core.equipment.heating import HEATING_OPTIONS, USUAL_HEATING, Heating
from vianda.core.equipment.moulds import Mould
from vianda.core.equipment.pot_rate import PotRate
from vianda.core.equipment.style_factor import LEAST_FACTOR, MOST_FACTOR, StyleFactor, StyleFigure
from vianda.core.equipment.task_pace import TASK_KINDS, TaskPace

Country = Literal["US", "CA", "UK", "other"]
Setting = Literal["home", "food-service"]
SurfaceKind = Literal["plate", "pan", "grate", "oven"]
BunKind = Literal["bun", "slice", "tortilla", "flatbread"]
GrinderKind = Literal["grinder", "processor", "knife"]
NamingRule = Literal["US", "EU", "CA", "UK", "none"]
TrimmedBy = Literal["separate", "one-butcher", "one-hand"]

# Correlation of the fat of two cuts, by whose knife they come from (ours, no published source).
SHARED_TRIM_FRAC: dict[TrimmedBy, float] = {"separate": 0.0, "one-butcher": 0.3, "one-hand": 0.6}


# Steps a kitchen scale reads in, and what such scales usually carry, g (common practice, no published source).
STEPS_G = (1, 2, 5, 10)
CAPACITIES_G = (2000, 3000, 5000, 10_000, 15_000, 30_000)


@dataclass(frozen=True, slots=True)
class Scale:
    """A scale: what it can show (``step_g``) and how much it can carry (``capacity_g``)."""

    step_g: int
    capacity_g: int

    def __post_init__(self) -> None:
        if self.step_g not in STEPS_G:
            raise OutOfRangeError("A scale reads in steps of 1, 2, 5 or 10 g.", field="/step_g")
        if not 500 <= self.capacity_g <= 200_000:
            raise OutOfRangeError("A scale carries 500 g to 200 kg.", field="/capacity_g")


@dataclass(frozen=True, slots=True)
class Surface:
    """A hot surface, or an oven by the size of its tray. A round one has equal width and depth; sizes in mm.

    ``loss_factor`` multiplies what the heat takes there; 1 until this kitchen's own weighings say otherwise.
    ``heating`` is how it gives heat.
    """

    key: Key
    name: Name
    kind: SurfaceKind
    width_mm: LengthMm
    depth_mm: LengthMm
    round_shape: bool
    loss_factor: Annotated[float, Ge(0.3), Le(3)] = 1.0
    heating: Heating = USUAL_HEATING

    def __post_init__(self) -> None:
        if not (50 <= self.width_mm <= 3000 and 50 <= self.depth_mm <= 3000):
            raise OutOfRangeError(f"{self.name}: a surface measures 50 to 3000 mm each way.")


@dataclass(frozen=True, slots=True)
class Bun:
    """Bread: its diameter in mm, its mass in g, its price, and the allergens declared on it.

    A slice measures ``diameter_mm`` × ``depth_mm``; what is round has no depth. ``diameter_mm`` 0 means no bread.
    """

    key: Key
    name: Name
    diameter_mm: LengthMm
    mass_g: Annotated[float, Ge(0), Le(1000)]
    price_each: Price
    allergens: Annotated[tuple[Name, ...], Len(0, 20)]
    kind: BunKind = "bun"
    depth_mm: LengthMm = 0.0

    def __post_init__(self) -> None:
        if self.diameter_mm and not 30 <= self.diameter_mm <= 500:
            raise OutOfRangeError(f"{self.name}: bread is 30 to 500 mm across.", field="/diameter_mm")
        if self.kind == "slice" and not 30 <= self.depth_mm <= 500:
            raise OutOfRangeError(f"{self.name}: a slice has two sides of 30 to 500 mm.", field="/depth_mm")

    @property
    def across_mm(self) -> float:
        """The widest disc that lies on it: its diameter, or the shorter side of a slice."""
        return min(self.diameter_mm, self.depth_mm) if self.depth_mm else self.diameter_mm


NO_BUN = Bun("none", "No bun", 0.0, 0.0, Decimal(0), ())


@dataclass(frozen=True, slots=True)
class Grinder:
    """Something that turns meat into mince: a grinder with plates, a processor with a bowl, or a knife.

    ``load_g`` is what it takes at once (tray, bowl or board), ``pace_kg_per_min`` what goes through it,
    ``hold_up_g`` what stays in it, ``plates_mm`` the holes of its plates.
    """

    key: Key
    name: Name
    kind: GrinderKind
    load_g: Annotated[float, Ge(50), Le(100_000)]
    pace_kg_per_min: Annotated[float, Gt(0), Le(100)]
    hold_up_g: Annotated[float, Ge(0), Le(5000)]
    plates_mm: Annotated[tuple[float, ...], Len(0, 12)]

    def __post_init__(self) -> None:
        if not 50 <= self.load_g <= 100_000:
            raise OutOfRangeError(f"{self.name}: a load is 50 g to 100 kg.", field="/load_g")
        if not 0.01 <= self.pace_kg_per_min <= 100:
            raise OutOfRangeError(f"{self.name}: 10 g to 100 kg go through in a minute.", field="/pace_kg_per_min")
        if not 0 <= self.hold_up_g <= 5000:
            raise OutOfRangeError(f"{self.name}: at most 5 kg stay in a machine.", field="/hold_up_g")
        if self.kind == "grinder" and not self.plates_mm:
            raise OutOfRangeError(f"{self.name}: a grinder has at least one plate.", field="/plates_mm")
        if any(not 1 <= p <= 30 for p in self.plates_mm):
            raise OutOfRangeError(f"{self.name}: the holes of a plate are 1 to 30 mm wide.", field="/plates_mm")


@cache
def usual_grinders() -> tuple[Grinder, ...]:
    """The tools of the demo kitchen; a kitchen from before tools were written down has them too.

    Returns
    -------
    tuple[Grinder, ...]
        Each: something that turns meat into mince.
    """
    return (
        Grinder("mincer", "Bench mincer, 82 mm plates", "grinder", 2500, 1.5, 90, (3.0, 4.5, 6.0, 8.0)),
        Grinder("processor", "Processor, 3 l bowl", "processor", 500, 0.35, 15, ()),
        Grinder("knife", "Knife and board", "knife", 600, 0.08, 5, ()),
    )


# Two figures of every style, with room for more.
MOST_LEARNT = 100


@dataclass(frozen=True, slots=True)
class Kitchen:
    """One kitchen. ``country`` and ``setting`` decide which published floor leads; ``salt`` is the one it holds.

    ``trimmed_by`` says whether its cuts come from one knife, so that they turn out fatter or leaner together.
    ``learnt`` is what its own cooks have taught it of styles, one a figure and style; ``paces`` of its hands, one a
    kind of task; ``fats`` is how fat its cuts come, one a meat; ``pots`` how fast
    water leaves them; ``bowl_factor`` multiplies what usually stays on bowl and gloves.
    """

    name: Name
    country: Country
    setting: Setting
    naming_rule: NamingRule
    unit_system: UnitSystem
    currency_code: Annotated[str, Len(1, 6), Predicate(is_currency_code)]
    scale: Scale
    surfaces: Annotated[tuple[Surface, ...], Len(1, 20)]
    buns: Annotated[tuple[Bun, ...], Len(1, 40)]
    grinders: Annotated[tuple[Grinder, ...], Len(0, 20)] = ()
    salt: Key = "salt-fine"
    moulds: Annotated[tuple[Mould, ...], Len(0, 60)] = ()
    trimmed_by: TrimmedBy = "separate"
    learnt: Annotated[tuple[StyleFactor, ...], Len(0, MOST_LEARNT)] = ()
    paces: Annotated[tuple[TaskPace, ...], Len(0, len(TASK_KINDS))] = ()
    fats: Annotated[tuple[CutFat, ...], Len(0, MOST_LEARNT)] = ()
    pots: Annotated[tuple[PotRate, ...], Len(0, MOST_LEARNT)] = ()
    bowl_factor: Annotated[float, Ge(LEAST_FACTOR), Le(MOST_FACTOR)] = 1.0

    def style_factor(self, figure: StyleFigure, style: str) -> float:
        """What this kitchen multiplies a figure of a style with; 1 before its cooks have taught it anything.

        Parameters
        ----------
        figure : StyleFigure
            Which figure.
        style : str
            Key of the style.

        Returns
        -------
        float
            A factor, 0.5 to 2.
        """
        return next((f.factor for f in self.learnt if (f.figure, f.style) == (figure, style)), 1.0)

    def pot_rate(self, pot: str) -> float:
        """What this kitchen multiplies the computed rate of a pot with.

        Parameters
        ----------
        pot : str
            Key of the pot at its boil.

        Returns
        -------
        float
            A factor (no unit), 0.5 to 2; 1 before any pot has taught it anything.
        """
        return next((p.factor for p in self.pots if p.pot == pot), 1.0)

    def pace(self, task: str) -> float:
        """What this kitchen multiplies the usual minutes of a kind of task with.

        Parameters
        ----------
        task : str
            Key of the kind; "" for what is of none.

        Returns
        -------
        float
            A factor (no unit), 0.5 to 2; 1 before its evenings have taught it anything.
        """
        return next((p.factor for p in self.paces if p.task == task), 1.0)

    @property
    def shared_trim_frac(self) -> float:
        """Correlation of the fat of two cuts of this kitchen, 0–1."""
        return SHARED_TRIM_FRAC[self.trimmed_by]

    def surface(self, key: str, *, field: str = "") -> Surface:
        """The surface of that key, or ``UnknownItemError``.

        Parameters
        ----------
        key : str
            Key of the thing, in small letters and hyphens.
        field : str, default ''
            JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

        Returns
        -------
        Surface
            A hot surface, or an oven by the size of its tray.

        Raises
        ------
        UnknownItemError
            This kitchen has no surface “…”.
        """
        for surface in self.surfaces:
            if surface.key == key:
                return surface
        raise UnknownItemError(f"This kitchen has no surface “{key[:60]}”.", field=field)

    def bun(self, key: str, *, field: str = "") -> Bun:
        """The bun of that key, or ``UnknownItemError``.

        Parameters
        ----------
        key : str
            Key of the thing, in small letters and hyphens.
        field : str, default ''
            JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

        Returns
        -------
        Bun
            Bread.

        Raises
        ------
        UnknownItemError
            This kitchen has no bun “…”.
        """
        for bun in self.buns:
            if bun.key == key:
                return bun
        raise UnknownItemError(f"This kitchen has no bun “{key[:60]}”.", field=field)

    def grinder(self, key: str, *, field: str = "") -> Grinder:
        """The tool of that key, or ``UnknownItemError``.

        Parameters
        ----------
        key : str
            Key of the thing, in small letters and hyphens.
        field : str, default ''
            JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

        Returns
        -------
        Grinder
            Something that turns meat into mince.

        Raises
        ------
        UnknownItemError
            This kitchen has no grinder “…”.
        """
        for grinder in self.grinders:
            if grinder.key == key:
                return grinder
        raise UnknownItemError(f"This kitchen has no grinder “{key[:60]}”.", field=field)

    def mould(self, key: str, *, field: str = "") -> Mould:
        """The tin, tray, scoop or ring of that key, or ``UnknownItemError``.

        Parameters
        ----------
        key : str
            Key of the thing, in small letters and hyphens.
        field : str, default ''
            JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

        Returns
        -------
        Mould
            A tin, tray, scoop or ring.

        Raises
        ------
        UnknownItemError
            This kitchen has no tin, tray, scoop or ring “…”.
        """
        for mould in self.moulds:
            if mould.key == key:
                return mould
        raise UnknownItemError(f"This kitchen has no tin, tray, scoop or ring “{key[:60]}”.", field=field)

    def surface_of_kind(self, kind: SurfaceKind) -> Surface | None:
        """The first surface of a kind, if there is one.

        Parameters
        ----------
        kind : SurfaceKind
            Which kind.

        Returns
        -------
        Surface | None
            A hot surface, or an oven by the size of its tray. None where there is none.
        """
        return next((s for s in self.surfaces if s.kind == kind), None)


@cache
def usual_flat_breads() -> tuple[Bun, ...]:
    """What the demo kitchen spreads meat on; a kitchen from before flat breads were written down has them too.

    Returns
    -------
    tuple[Bun, ...]
        Each: bread.
    """
    return (
        Bun("tortilla-150", "Small wheat tortilla, 150 mm", 150, 26, Decimal("0.22"), ("gluten (wheat)",), "tortilla"),
        Bun("flatbread-200", "Flatbread, 200 mm", 200, 85, Decimal("0.60"), ("gluten (wheat)",), "flatbread"),
    )


@cache
def usual_oven() -> Surface:
    """The oven of the demo kitchen; a kitchen from before ovens were written down has it too.

    Returns
    -------
    Surface
        A hot surface, or an oven by the size of its tray.
    """
    return Surface("fan-oven", "Fan oven, tray 530 × 325", "oven", 530, 325, False)


# What a cook chooses from when a kitchen is described, by the name of the field.
KITCHEN_OPTIONS: dict[str, tuple[Option, ...]] = {
    **HEATING_OPTIONS,
    "step_g": tuple(Option(str(step), f"{step} g") for step in STEPS_G),
    "capacity_g": tuple(Option(str(capacity), f"{capacity // 1000} kg") for capacity in CAPACITIES_G),
    "country": (
        Option("US", "United States"),
        Option("CA", "Canada"),
        Option("UK", "United Kingdom"),
        Option("other", "Another country"),
    ),
    "setting": (Option("home", "Home"), Option("food-service", "Food service")),
    "naming_rule": (
        Option("US", "US, 9 CFR 319.15"),
        Option("EU", "EU, 1169/2011"),
        Option("CA", "Canada, Food and Drug Regs"),
        Option("UK", "UK, Products Containing Meat"),
        Option("none", "Not checked"),
    ),
    "trimmed_by": (
        Option("separate", "Different suppliers", "each cut varies on its own"),
        Option("one-butcher", "One butcher", "cuts correlate by 0.3: several hands, one way of trimming"),
        Option("one-hand", "One person", "cuts correlate by 0.6: one knife trims them all"),
    ),
}


def kitchen_options(capacity_g: int) -> dict[str, tuple[Option, ...]]:
    """What a cook chooses from when a kitchen is described: the usual choices, and its own scale among them.

    Parameters
    ----------
    capacity_g : int
        What the kitchen's scale carries, g, above 0.

    Returns
    -------
    dict[str, tuple[Option, ...]]
        The choices by the name of the field.

    References
    ----------
    What scales carry: common practice, no published source.

    Examples
    --------
    >>> [option.title for option in kitchen_options(2500)["capacity_g"]][:3]
    ['2 kg', '2.5 kg', '3 kg']
    """
    if capacity_g in CAPACITIES_G:
        return KITCHEN_OPTIONS
    capacities = sorted((*CAPACITIES_G, capacity_g))
    return KITCHEN_OPTIONS | {"capacity_g": tuple(Option(str(g), f"{g / 1000:g} kg") for g in capacities)}
