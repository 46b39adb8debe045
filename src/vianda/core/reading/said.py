"""What an opening line said, one fact a record, before it is settled what belongs together."""

from __future__ import annotations

from dataclasses import dataclass, field

from vianda.core.basis.phrase import Phrase
from vianda.core.basis.units import UnitSystem
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory


@dataclass(frozen=True, slots=True)
class Figure:
    """A quantity said, in its base unit, with its range, and the index of the piece that said it."""

    value: float
    low: float
    high: float
    piece: int


@dataclass(slots=True)
class MeatSaid:
    """A meat said: its key, or the species of a mince without a name (``any``); its fat, mass or share if said.

    ``joined`` to the meat before it by "and".
    """

    piece: int
    key: str = ""
    any: str = ""
    fat: float | None = None
    mass: Figure | None = None
    share: float | None = None
    part: float | None = None
    word: str = ""
    joined: bool = False


@dataclass(frozen=True, slots=True)
class PieceWord:
    """A word for pieces: its style ("" none, "burger" any burger), how many, how many in one bun, as it was typed.

    ``single`` when an article says that it is one: "a 2 kg meatloaf".
    """

    style: str
    piece: int
    count: Figure | None = None
    each: bool = False
    times: int = 1
    plural: bool = True
    word: str = ""
    single: bool = False


@dataclass(frozen=True, slots=True)
class Noted:
    """Something kept beside the plan: its kind and its sentence."""

    kind: str
    text: str
    piece: int


@dataclass(slots=True)
class Said:
    """Every fact of a line, as it was read."""

    inventory: Inventory
    kitchen: Kitchen
    system: UnitSystem
    text: str
    at: int = 0
    linked: bool = False
    guessed: bool = False
    meats: list[MeatSaid] = field(default_factory=list)
    masses: list[Figure] = field(default_factory=list)
    totals: list[Figure] = field(default_factory=list)
    eachs: list[Figure] = field(default_factory=list)
    heads: list[Figure] = field(default_factory=list)
    cooked: list[Figure] = field(default_factory=list)
    packs: list[Figure] = field(default_factory=list)
    fats: list[Figure] = field(default_factory=list)
    fat_figures: bool = False
    ratios: list[tuple[tuple[float, ...], int]] = field(default_factory=list)
    equal: bool = False
    pieces: list[PieceWord] = field(default_factory=list)
    styles: list[tuple[str, int]] = field(default_factory=list)
    not_styles: list[str] = field(default_factory=list)
    sizes: list[tuple[str, int]] = field(default_factory=list)
    people: list[Figure] = field(default_factory=list)
    family: Figure | None = None
    meatless: int = 0
    extra: int = 0
    extra_frac: float = 0.0
    children: int = 0
    for_children: bool = False
    at_risk: list[str] = field(default_factory=list)
    open_party: str = ""
    thickness: list[Figure] = field(default_factory=list)
    across: list[Figure] = field(default_factory=list)
    lengths: list[Figure] = field(default_factory=list)
    bun_mm: list[Figure] = field(default_factory=list)
    bun: str = ""
    no_bun: bool = False
    no_bread: bool = False
    core: list[Figure] = field(default_factory=list)
    surface_temp: list[Figure] = field(default_factory=list)
    surfaces: list[tuple[str, str, int]] = field(default_factory=list)
    not_on: list[str] = field(default_factory=list)
    tools: list[tuple[str, str, int]] = field(default_factory=list)
    grinder: str = ""
    moulds: list[tuple[str, tuple[float, ...], int]] = field(default_factory=list)
    loaves: list[Figure] = field(default_factory=list)
    salt_frac: list[Figure] = field(default_factory=list)
    salt_mass: list[Figure] = field(default_factory=list)
    salt_place: str = ""
    no_salt: bool = False
    doneness: list[tuple[str, int]] = field(default_factory=list)
    limits: list[str] = field(default_factory=list)
    without: list[str] = field(default_factory=list)
    minutes: list[Figure] = field(default_factory=list)
    quick: bool = False
    not_made: list[tuple[str, str, int]] = field(default_factory=list)
    adds: list[str] = field(default_factory=list)
    numbers: list[Figure] = field(default_factory=list)
    notes: list[Noted] = field(default_factory=list)
    results: list[str] = field(default_factory=list)
    asks: list[tuple[Phrase, list[tuple[Phrase, int, str]]]] = field(default_factory=list)
    order: dict[int, int] = field(default_factory=dict)

    @property
    def says_something(self) -> bool:
        """Whether there is anything to cook in it: a dish, a style, or a fat content in figures."""
        return bool(self.pieces or self.styles) or self.fat_figures

    def figure(self, value: float, low: float | None = None, high: float | None = None) -> Figure:
        """A quantity of the piece being read.

        Parameters
        ----------
        value : float
            In its base unit.
        low : float | None, default None
            Low end, in the unit of the value; the value when None.
        high : float | None, default None
            High end, in the unit of the value; the value when None.

        Returns
        -------
        Figure
            The record.
        """
        return Figure(value, value if low is None else low, value if high is None else high, self.at)
