"""Labels of what is made ahead: what stands on one, one a container, and where each is printed."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from typing import Annotated

from annotated_types import Ge, Le

from vianda.core.basis.bounds import Key, Name
from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.inventory.inventory import Inventory
from vianda.core.pipeline.figures import Figures
from vianda.core.supply.made_ahead import GROUND_KEEPS_DAYS
from vianda.core.supply.shopping import COOKED_KEEPS_DAYS, Make

MOST_CONTAINERS = 100
# Lines of the longest label, how high a line is of its type, and what stays free above and below, mm.
LINES, LINE_HEIGHT, FREE_MM = 9, 1.2, 4.0
PT_MM = 25.4 / 72
# Regulation (EU) 1169/2011, article 13: an x-height of 1.2 mm at least, 0.9 mm on what is smaller than 80 cm2; the
# typeface that is shipped has an x-height of 0.526 of its size (its own table). Above it nothing is gained.
X_HEIGHT_MM, SMALL_X_HEIGHT_MM, SMALL_MM2, X_HEIGHT_FRAC, LARGEST_PT = 1.2, 0.9, 8000.0, 0.526, 13.0


@dataclass(frozen=True, slots=True)
class Label:
    """What is written on what is made ahead. ``use_by`` is the last day; ``allergens`` as they are declared.

    ``lot`` is its own code; ``from_lots`` names the lots of meat that are in it. ``allowed_name``: what it may be
    called under the kitchen's naming rule, "" where no protected name fits. ``pieces`` of ``piece_g`` each, or 0.
    """

    name: str
    mass_g: float
    made: date
    use_by: date
    allergens: tuple[str, ...]
    lot: str
    from_lots: tuple[str, ...] = ()
    allowed_name: str = ""
    pieces: int = 0
    piece_g: float = 0.0


@dataclass(frozen=True, slots=True)
class LabelSheet:
    """A sheet of labels, or a roll with one on each; lengths in mm.

    The first label begins ``left_mm`` and ``top_mm`` from the corner; ``gap_x_mm`` and ``gap_y_mm`` are between two.
    """

    key: Key
    title: Name
    page_width_mm: Annotated[float, Ge(20), Le(500)]
    page_height_mm: Annotated[float, Ge(15), Le(500)]
    columns: Annotated[int, Ge(1), Le(10)]
    rows: Annotated[int, Ge(1), Le(30)]
    width_mm: Annotated[float, Ge(20), Le(500)]
    height_mm: Annotated[float, Ge(15), Le(500)]
    left_mm: Annotated[float, Ge(0), Le(100)] = 0.0
    top_mm: Annotated[float, Ge(0), Le(100)] = 0.0
    gap_x_mm: Annotated[float, Ge(0), Le(50)] = 0.0
    gap_y_mm: Annotated[float, Ge(0), Le(50)] = 0.0

    @property
    def per_page(self) -> int:
        """How many labels a page has."""
        return self.columns * self.rows


# Divisions of A4 and US Letter that stationers sell, and rolls: common practice, no published source.
SHEETS: Mapping[str, LabelSheet] = {
    sheet.key: sheet
    for sheet in (
        LabelSheet("a4-21", "A4, 21 of 63.5 × 38.1 mm", 210, 297, 3, 7, 63.5, 38.1, 7.2, 15.1, 2.5, 0),
        LabelSheet("a4-24", "A4, 24 of 70 × 37 mm", 210, 297, 3, 8, 70, 37, 0, 0.5, 0, 0),
        LabelSheet("a4-14", "A4, 14 of 99.1 × 38.1 mm", 210, 297, 2, 7, 99.1, 38.1, 4.7, 15.1, 2.5, 0),
        LabelSheet("a4-8", "A4, 8 of 99.1 × 67.7 mm", 210, 297, 2, 4, 99.1, 67.7, 4.7, 13.1, 2.5, 0),
        LabelSheet("letter-30", "Letter, 30 of 2⅝ × 1 in", 215.9, 279.4, 3, 10, 66.7, 25.4, 4.8, 12.7, 3.1, 0),
        LabelSheet("letter-10", "Letter, 10 of 4 × 2 in", 215.9, 279.4, 2, 5, 101.6, 50.8, 4.0, 12.7, 4.7, 0),
        LabelSheet("roll-62", "Roll, 62 × 62 mm", 62, 62, 1, 1, 62, 62),
        LabelSheet("roll-102", "Roll, 102 × 51 mm (4 × 2 in)", 102, 51, 1, 1, 102, 51),
    )
}


@dataclass(frozen=True, slots=True)
class PrintedLabel:
    """A label of one container and its place: the page from 0, and its upper left corner, mm."""

    label: Label
    number: int
    of: int
    page: int
    x_mm: float
    y_mm: float


def label_of(make: Make, *, inventory: Inventory, served: date) -> Label:
    """The label of what is made ahead.

    Parameters
    ----------
    make : Make
        What is made, and how much.
    inventory : Inventory
        The pantry with what is declared of each thing.
    served : date
        The day for which it is made: the day before, where it keeps so long.

    Returns
    -------
    Label
        Used by the day it keeps to, the day it is made counted as none.
    """
    thing = inventory.pantry.get(make.key)
    keeps = thing.house.keeps_days if thing is not None and thing.house is not None else COOKED_KEEPS_DAYS
    made = served - timedelta(days=1 if keeps >= 1 else 0)
    allergens = thing.allergens if thing else ()
    return Label(make.name, make.mass_g, made, made + timedelta(days=keeps), allergens, lot_code(made, make.key))


def label_of_mix(figures: Figures, *, key: str, served: date, from_lots: Iterable[str] = ()) -> Label:
    """The label of a dish's raw mix, ground, mixed and shaped the day before.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    key : str
        What tells the dish from others.
    served : date
        The day for which it is made.
    from_lots : Iterable[str], default ()
        Names of the lots that its meat comes from.

    Returns
    -------
    Label
        Its mass is of meat and mix together, before it is cooked; its name the first that the naming rule allows.
    """
    formula, pantry = figures.context.formula, figures.context.inventory.pantry
    lines = [x.ingredient for x in figures.mix.lines if x.mass_g > 0.0]
    made = served - timedelta(days=GROUND_KEEPS_DAYS)
    portions = figures.batch.portions
    return Label(
        f"{formula.name}, raw mix",
        float(figures.batch.mix_mass_g),
        made,
        served,
        tuple(dict.fromkeys(a for ingredient in lines for a in pantry[ingredient].allergens)),
        lot_code(made, key),
        tuple(from_lots),
        next((x.name for x in figures.trade.names if x.allowed), ""),
        portions.pieces,
        float(portions.piece_mass_g),
    )


def lot_code(made: date, key: str) -> str:
    """The code of what is made on a day; with a letter L before it, as lots are marked in the EU and the UK.

    Parameters
    ----------
    made : date
        The day on which it is made.
    key : str
        What it is.

    Returns
    -------
    str
        One a day and thing.

    References
    ----------
    Directive 2011/91/EU, article 4 (from memory, medium): any code that tells batches apart, after the letter L.

    Examples
    --------
    >>> lot_code(date(2026, 12, 3), "relish")
    'L261203-RELISH'
    """
    return f"L{made:%y%m%d}-{key.upper()}"


def contained(label: Label, containers: int) -> tuple[Label, ...]:
    """One label a container: pieces are shared out whole, the first ones hold one more; mass goes with them.

    Parameters
    ----------
    label : Label
        The label of all of it.
    containers : int
        How many containers it goes into (count), 1 to 100.

    Returns
    -------
    tuple[Label, ...]
        Masses and pieces sum to those of the whole.

    Raises
    ------
    OutOfRangeError
        Fewer than one container, more than 100, or more than there are pieces.

    Examples
    --------
    >>> whole = Label("Smash", 850.0, date(2026, 12, 3), date(2026, 12, 4), (), "L1", pieces=10, piece_g=85.0)
    >>> [(one.pieces, one.mass_g) for one in contained(whole, 3)]
    [(4, 340.0), (3, 255.0), (3, 255.0)]
    """
    most = min(MOST_CONTAINERS, label.pieces) if label.pieces else MOST_CONTAINERS
    if not 1 <= containers <= most:
        why = f", and there are {label.pieces} pieces" if label.pieces and most < MOST_CONTAINERS else ""
        raise OutOfRangeError(f"{label.name} goes into 1 to {most} containers{why}.", field="/containers")
    if not label.pieces:
        return (replace(label, mass_g=label.mass_g / containers),) * containers
    least, more = divmod(label.pieces, containers)
    each_g = label.mass_g / label.pieces
    counts = [least + 1] * more + [least] * (containers - more)
    return tuple(replace(label, pieces=n, mass_g=each_g * n) for n in counts)


def sheet_of(key: str) -> LabelSheet:
    """The sheet of a key.

    Parameters
    ----------
    key : str
        Key of a sheet.

    Returns
    -------
    LabelSheet
        Its measures.

    Raises
    ------
    UnknownItemError
        There is no such sheet.
    """
    try:
        return SHEETS[key]
    except KeyError:
        raise UnknownItemError(f"There is no sheet of labels called “{key[:40]}”.", field="/sheet") from None


def laid_out(labels: Sequence[tuple[Label, int]], sheet: LabelSheet, *, first: int = 1) -> tuple[PrintedLabel, ...]:
    """Every container's label in its place, row by row.

    Parameters
    ----------
    labels : Sequence[tuple[Label, int]]
        What is labelled, and into how many containers it goes (count).
    sheet : LabelSheet
        What they are printed on.
    first : int, default 1
        Which place of the first page is free (count): sheets are used up.

    Returns
    -------
    tuple[PrintedLabel, ...]
        In the order of the labels.

    Raises
    ------
    OutOfRangeError
        A page has no such place.

    Examples
    --------
    >>> one = Label("Relish", 400.0, date(2026, 12, 3), date(2026, 12, 6), (), "L1")
    >>> [(p.page, p.x_mm, p.y_mm) for p in laid_out([(one, 2)], SHEETS["a4-24"], first=24)]
    [(0, 140, 259.5), (1, 0, 0.5)]
    """
    if not 1 <= first <= sheet.per_page:
        raise OutOfRangeError(f"The first free label of a page is 1 to {sheet.per_page}.", field="/first")
    found: list[PrintedLabel] = []
    for label, containers in labels:
        for number, one in enumerate(contained(label, containers), start=1):
            page, place = divmod(first - 1 + len(found), sheet.per_page)
            row, column = divmod(place, sheet.columns)
            x_mm = sheet.left_mm + column * (sheet.width_mm + sheet.gap_x_mm)
            y_mm = sheet.top_mm + row * (sheet.height_mm + sheet.gap_y_mm)
            found.append(PrintedLabel(one, number, containers, page, x_mm, y_mm))
    return tuple(found)


def type_size_pt(sheet: LabelSheet) -> float:
    """How large the type may be, so that the longest label fits; never below what is to be read.

    Parameters
    ----------
    sheet : LabelSheet
        What they are printed on.

    Returns
    -------
    float
        Size of the type, points (1/72 inch).

    References
    ----------
    Regulation (EU) 1169/2011, article 13: x-height at least 1.2 mm, and 0.9 mm below 80 cm².

    Examples
    --------
    >>> round(type_size_pt(SHEETS["a4-8"]), 1)
    13.0
    """
    small = sheet.width_mm * sheet.height_mm < SMALL_MM2
    least_pt = (SMALL_X_HEIGHT_MM if small else X_HEIGHT_MM) / X_HEIGHT_FRAC / PT_MM
    fits_pt = (sheet.height_mm - FREE_MM) / (LINES * LINE_HEIGHT) / PT_MM
    return min(LARGEST_PT, max(least_pt, fits_pt))
