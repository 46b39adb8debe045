"""The styles of each dish and what is usual for each: blend, piece, thickness, surface, minutes.

Source: common practice, no published source. The table is ``data/styles.toml``.
"""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from vianda.core.basis.errors import UnknownItemError
from vianda.core.equipment.kitchen import SurfaceKind
from vianda.core.model.formula import Dish

StyleRange = tuple[float, float]
Form = Literal["disc", "filled", "spread", "ball", "loaf", "tin", "tray", "crumbled"]

# Flat pieces: they are flipped, and draw in more across than they lose.
FLAT: tuple[Form, ...] = ("disc", "filled", "spread")
BLOCKS: tuple[Form, ...] = ("loaf", "tin", "tray")

# Below this a probe cannot be held in the middle of a piece; the cue decides (measured on a model).
PROBE_THICKNESS_MM = 12.0


@dataclass(frozen=True, slots=True)
class SideMinutes:
    """Usual practice for the first side at one thickness: seconds from–to."""

    thickness_mm: float
    seconds: StyleRange


@dataclass(frozen=True, slots=True)
class Style:
    """What is usual for one style. Bands are (low, high); ``*_start_*`` is where a new formula begins.

    ``practice_reaches_floor_to_mm``: up to this raw thickness the usual minutes usually reach the common
    floors; above it they often fall short. 0 means that only a thermometer decides. ``stacked``: a guest's
    pieces go into one bun, as doubles do; else each piece has its own. ``first_side`` of what is baked is the
    minutes in the oven. ``width_mm`` is that of a loaf; ``filled``: another thing lies in the middle.
    ``mix_school`` is where its mix starts when that is not the first school of its dish.
    """

    key: str
    title: str
    line: str
    fat_band_frac: StyleRange
    fat_start_frac: float
    piece_mass_g: StyleRange
    piece_mass_start_g: float
    pieces_per_guest_start: int
    stacked: bool
    thickness_mm: StyleRange
    thickness_start_mm: float
    packing: float
    plate_mm: float
    dimple: bool
    surfaces: tuple[SurfaceKind, ...]
    surface_temp_c: StyleRange
    surface_temp_start_c: float
    rest_s: StyleRange
    carry_over_k: StyleRange
    second_side_ratio: float
    press_by_s: float
    finish_s: StyleRange
    finish_first: bool
    first_side: tuple[SideMinutes, ...]
    practice_reaches_floor_to_mm: float
    gap_mm: float
    dish: Dish = "burger"
    form: Form = "disc"
    width_mm: float = 0.0
    guests_per_piece_start: int = 1
    filled: bool = False
    simmer_s: StyleRange = (0.0, 0.0)
    mix_school: str = ""

    @property
    def baked(self) -> bool:
        """Whether it cooks from all sides at once, so that nothing is flipped."""
        return self.surfaces[0] == "oven"


def _style(row: Mapping[str, Any]) -> Style:
    values = dict(row)
    for name, value in values.items():
        if name in ("first_side", "surfaces"):
            continue
        if isinstance(value, list):
            values[name] = (float(value[0]), float(value[1]))
    values["surfaces"] = tuple(values["surfaces"])
    values["finish_first"] = bool(values.get("finish_first", False))
    values["first_side"] = tuple(
        SideMinutes(r["thickness_mm"], (float(r["seconds"][0]), float(r["seconds"][1]))) for r in values["first_side"]
    )
    return Style(**values)


@cache
def all_styles() -> Mapping[str, Style]:
    """Every style by key, in the order a cook is offered them.

    Returns
    -------
    Mapping[str, Style]
        Every style by key, in the order a cook is offered them.
    """
    text = (files("vianda.core.model") / "data" / "styles.toml").read_text(encoding="utf-8")
    return {row["key"]: _style(row) for row in tomllib.loads(text)["style"]}


def styles_for(dish: Dish) -> tuple[Style, ...]:
    """The styles of a dish, its usual one first.

    Parameters
    ----------
    dish : Dish
        Kind of dish.

    Returns
    -------
    tuple[Style, ...]
        Each: what is usual for one style.
    """
    return tuple(s for s in all_styles().values() if s.dish == dish)


def style_of(key: str, *, field: str = "") -> Style:
    """The style of that key.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    Style
        What is usual for one style.

    Raises
    ------
    UnknownItemError
        No style “…”; known are ….

    Examples
    --------
    >>> style_of("smashed").fat_band_frac
    (0.2, 0.3)
    """
    try:
        return all_styles()[key]
    except KeyError:
        known = ", ".join(all_styles())
        raise UnknownItemError(f"No style “{key[:60]}”; known are {known}.", field=field) from None
