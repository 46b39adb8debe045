"""Ways of cooking: a style's own, the ready-made ones, and what a cook composed from stages."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.equipment.kitchen import Kitchen, Surface, SurfaceKind
from vianda.core.model.formula import Heat, HeatStage, StageKind, Until
from vianda.core.model.styles import BLOCKS, FLAT, Form, Style

LONGEST_STAGE_S = 6 * 3600.0
LOWEST_STAGE_C, HOTTEST_STAGE_C = 50.0, 400.0
# A fridge or a freezer.
COLDEST_C, LEAST_COLD_C = -40.0, 12.0


# Each turn is a new beginning for the heat model; nobody turns a piece so often.
MOST_TURNS = 240
StageAction = Literal["flip", "press", "cover", "cheese", "glaze", "turn_every_s"]


@dataclass(frozen=True, slots=True)
class StageChoice:
    """A kind of stage that a piece may go through, what may be done in it, and what may end it.

    ``before``: it lies there before the heat, off the clock.
    """

    kind: StageKind
    actions: tuple[StageAction, ...]
    ends: tuple[Until, ...]
    before: bool = False


@dataclass(frozen=True, slots=True)
class Method:
    """A ready-made way of cooking: for which forms, from which kind of surface, and why one would."""

    key: str
    title: str
    why: str
    forms: tuple[Form, ...]
    surfaces: tuple[SurfaceKind, ...]
    stages: tuple[HeatStage, ...]


_WET: tuple[StageKind, ...] = ("fry", "simmer")
_LOAF: tuple[StageKind, ...] = ("oven", "broiler", "indirect", "smoke")
COLD: tuple[StageKind, ...] = ("chill", "freeze")
_ALL: tuple[StageKind, ...] = ("surface", "indirect", "smoke", "oven", "broiler", "fry", "simmer")


def stage_choices(form: Form, on: SurfaceKind) -> tuple[StageChoice, ...]:
    """What a cook may compose for a form on a kind of surface; ``check_stages`` refuses the rest.

    Only what moves something in the simulation is offered: a cover over a rolling ball, or a press on bars, would be a
    label.

    Parameters
    ----------
    form : Form
        Form of the piece.
    on : SurfaceKind
        Kind of surface.

    Returns
    -------
    tuple[StageChoice, ...]
        Each: a kind of stage that a piece may go through, what may be done in it, and what may end it.

    Examples
    --------
    >>> [c.kind for c in stage_choices("loaf", "oven")]
    ['chill', 'freeze', 'oven', 'broiler', 'indirect', 'smoke']
    >>> stage_choices("disc", "pan")[2].actions
    ('flip', 'press', 'cover', 'cheese', 'turn_every_s')
    """
    ends: tuple[Until, ...] = ("time", "two-fifths", "core") if form in FLAT else ("time", "core")
    cold = () if form == "crumbled" else tuple(StageChoice(kind, (), ("time",), before=True) for kind in COLD)
    hot = _LOAF if form in BLOCKS else _ALL
    return (*cold, *(StageChoice(kind, _actions(kind, form, on), ends) for kind in hot))


def _actions(kind: StageKind, form: Form, on: SurfaceKind) -> tuple[StageAction, ...]:
    flat, dry, block = form in FLAT, kind not in _WET, form in BLOCKS
    possible: tuple[tuple[StageAction, bool], ...] = (
        ("flip", flat),
        ("press", flat and kind == "surface" and on in ("plate", "pan")),
        ("cover", (flat and kind in ("surface", "oven")) or (block and kind == "oven")),
        ("cheese", flat and dry),
        ("glaze", block),
        ("turn_every_s", flat and dry),
    )
    return tuple(action for action, may in possible if may)


def fitted(stages: tuple[HeatStage, ...], form: Form, on: SurfaceKind) -> tuple[HeatStage, ...]:
    """Stages without what cannot be done on this surface any more: a kitchen changes under a formula.

    Parameters
    ----------
    stages : tuple[HeatStage, ...]
        Stages of the cook, in order.
    form : Form
        Form of the piece.
    on : SurfaceKind
        Kind of surface.

    Returns
    -------
    tuple[HeatStage, ...]
        Each: one stage of a cook.
    """
    may = {c.kind: c.actions for c in stage_choices(form, on)}
    return tuple(replace(s, press=s.press and "press" in may.get(s.kind, ("press",))) for s in stages)


def before_heat(stages: tuple[HeatStage, ...]) -> tuple[HeatStage, ...]:
    """Those in the fridge or the freezer, which come first.

    Parameters
    ----------
    stages : tuple[HeatStage, ...]
        Stages of the cook, in order.

    Returns
    -------
    tuple[HeatStage, ...]
        Each: one stage of a cook.

    Examples
    --------
    >>> [s.kind for s in before_heat((HeatStage("freeze", "time", 1200.0), HeatStage("surface", "core")))]
    ['freeze']
    """
    return tuple(s for s in stages if s.kind in COLD)


def on_heat(stages: tuple[HeatStage, ...]) -> tuple[HeatStage, ...]:
    """All the others: the clock begins with the first of them.

    Parameters
    ----------
    stages : tuple[HeatStage, ...]
        Stages of the cook, in order.

    Returns
    -------
    tuple[HeatStage, ...]
        Each: one stage of a cook.
    """
    return tuple(s for s in stages if s.kind not in COLD)


def chilling_stage(form: Form) -> HeatStage | None:
    """What a piece is stiffened with before it is laid on: twenty minutes in the freezer (common practice, no
    published source). Crumbled meat is not.

    Parameters
    ----------
    form : Form
        Form of the piece.

    Returns
    -------
    HeatStage | None
        One stage of a cook. None where there is none.

    References
    ----------
    Common practice, no published source.
    """
    return None if form == "crumbled" else HeatStage("freeze", "time", 1200.0)


def fresh_stage(form: Form) -> HeatStage:
    """What a stage begins as when a cook adds one: a minute on the surface, or ten in the oven.

    Parameters
    ----------
    form : Form
        Form of the piece.

    Returns
    -------
    HeatStage
        One stage of a cook.
    """
    return HeatStage("oven", "time", 600.0) if form in BLOCKS else HeatStage("surface", "time", 60.0)


_ACTION_ENDS: dict[StageAction, str] = {
    "flip": "Only a flat piece is flipped.",
    "press": "Only a flat piece on a plate or in a pan is pressed.",
    "cover": "A cover goes on a flat piece or a loaf, on a surface or in an oven.",
    "cheese": "Cheese goes on a flat piece, out of sauce and fat.",
    "glaze": "A glaze goes on a loaf here.",
    "turn_every_s": "Only a flat piece is turned often, out of sauce and fat.",
}


def _stage(row: dict[str, Any]) -> HeatStage:
    values: dict[str, Any] = {k: float(v) if k.endswith(("_s", "_c")) else v for k, v in row.items()}
    return HeatStage(**values)


@cache
def all_methods() -> Mapping[str, Method]:
    """Every ready-made way by key, in the order a cook is offered them.

    Returns
    -------
    Mapping[str, Method]
        Every ready-made way by key, in the order a cook is offered them.
    """
    text = (files("vianda.core.heat") / "data" / "heat_methods.toml").read_text(encoding="utf-8")
    found = {}
    for row in tomllib.loads(text)["method"]:
        stages = tuple(_stage(s) for s in row["stages"])
        found[row["key"]] = Method(
            row["key"], row["title"], row["why"], tuple(row["forms"]), tuple(row["surfaces"]), stages
        )
    return found


def methods_for(form: Form, surface: Surface, kitchen: Kitchen) -> tuple[Method, ...]:
    """The ready-made ways that this form can go on this surface, in this kitchen.

    Parameters
    ----------
    form : Form
        Form of the piece.
    surface : Surface
        What it cooks on.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    tuple[Method, ...]
        Each: a ready-made way of cooking.

    References
    ----------
    Common practice, no published source.
    """
    return tuple(
        m
        for m in all_methods().values()
        if form in m.forms and surface.kind in m.surfaces and not _lacking(m.stages, kitchen)
    )


def _lacking(stages: tuple[HeatStage, ...], kitchen: Kitchen) -> str:
    """What the stages need and the kitchen has not."""
    kinds = {s.kind for s in kitchen.surfaces}
    if "oven" not in kinds and any(s.kind in ("oven", "broiler") for s in stages):
        return "an oven"
    grates = [s for s in kitchen.surfaces if s.kind == "grate"]
    if not grates and any(s.kind in ("indirect", "smoke") for s in stages):
        return "a grate with a lid"
    return ""


def lacking(heat: Heat, kitchen: Kitchen) -> str:
    """What a formula's way needs that a kitchen has not, "" for nothing; the style's own way makes do.

    Parameters
    ----------
    heat : Heat
        Surface, temperatures and stages.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    str
        The text.

    Examples
    --------
    >>> from dataclasses import replace
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> bare = replace(yard_galley(), surfaces=yard_galley().surfaces[:2])
    >>> lacking(Heat("iron-pan", 230, 71, method="pan-then-oven"), bare)
    'an oven'
    """
    stages = heat.stages or (all_methods()[heat.method].stages if heat.method in all_methods() else ())
    return _lacking(stages, kitchen)


def method_of(key: str, *, field: str = "/heat/method") -> Method:
    """The way of that key.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.
    field : str, default '/heat/method'
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    Method
        A ready-made way of cooking.

    Raises
    ------
    UnknownItemError
        No way of cooking “…”; known are ….
    """
    try:
        return all_methods()[key]
    except KeyError:
        raise UnknownItemError(
            f"No way of cooking “{key[:60]}”; known are {', '.join(all_methods())}.", field=field
        ) from None


def stages_of(heat: Heat, style: Style, surface: Surface) -> tuple[HeatStage, ...]:
    """The stages in force: those composed by hand, else those of the way chosen, else the style's own.

    Parameters
    ----------
    heat : Heat
        Surface, temperatures and stages.
    style : Style
        The style whose usual values count.
    surface : Surface
        What it cooks on.

    Returns
    -------
    tuple[HeatStage, ...]
        Each: one stage of a cook.
    """
    ready = method_of(heat.method).stages if heat.method else usual_stages(style, surface)
    found = heat.stages or ready
    return fitted(found, style.form, surface.kind)


def usual_stages(style: Style, surface: Surface) -> tuple[HeatStage, ...]:
    """How a style is cooked when nobody says otherwise.

    Parameters
    ----------
    style : Style
        The style whose usual values count.
    surface : Surface
        What it cooks on.

    Returns
    -------
    tuple[HeatStage, ...]
        Each: one stage of a cook.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.model.styles import style_of
    >>> [s.until for s in usual_stages(style_of("smashed"), yard_galley().surfaces[0])]
    ['two-fifths', 'core']
    """
    if style.form not in FLAT:
        return _all_round(style, surface)
    finish = sum(style.finish_s) / 2
    side = sum(style.first_side[0].seconds) / 2
    if style.finish_first:
        return (
            HeatStage("smoke", "time", finish),
            HeatStage("surface", "time", side),
            HeatStage("surface", "core", flip=True),
        )
    if finish:
        gentle = (
            HeatStage("indirect", "core")
            if surface.kind == "grate"
            else HeatStage("surface", "core", temp_c=120.0, cover=True)
        )
        return (
            HeatStage("surface", "time", side),
            HeatStage("surface", "time", side * style.second_side_ratio, flip=True),
            gentle,
        )
    pressed = style.press_by_s > 0 or style.form == "spread"
    if style.form == "spread":
        # The shell side only crisps; the meat is cooked through on its own side.
        return (HeatStage("surface", "core", press=True), HeatStage("surface", "core", temp_c=200.0, flip=True))
    # Beyond what fills it, meat gets its heat from above or hardly at all: without a cover half an hour.
    covered = style.form == "filled"
    return (HeatStage("surface", "two-fifths", press=pressed), HeatStage("surface", "core", flip=True, cover=covered))


def _all_round(style: Style, surface: Surface) -> tuple[HeatStage, ...]:
    oven = surface.kind == "oven"
    if not style.simmer_s[1]:
        return (HeatStage("oven" if oven or style.form in BLOCKS else "surface", "core"),)
    browned = sum(style.first_side[0].seconds) / 2
    return (HeatStage("oven" if oven else "surface", "time", browned), HeatStage("simmer", "core"))


def check_stages(stages: tuple[HeatStage, ...], *, form: Form, on: SurfaceKind, kitchen: Kitchen) -> None:
    """That stages composed by hand can be gone through.

    Parameters
    ----------
    stages : tuple[HeatStage, ...]
        Stages of the cook, in order.
    form : Form
        Form of the piece.
    on : SurfaceKind
        Kind of surface.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Raises
    ------
    OutOfRangeError
        A time or a temperature nobody uses, nothing that ends a stage, or what this kitchen or this form has not.
    """
    lacking = _lacking(stages, kitchen)
    if lacking:
        raise OutOfRangeError(f"One of these stages needs {lacking}, and this kitchen has none.", field="/heat/stages")
    for n, stage in enumerate(stages):
        where = f"/heat/stages/{n}"
        if stage.until == "time" and not 5.0 <= stage.time_s <= LONGEST_STAGE_S:
            raise OutOfRangeError("A stage lasts 5 s to 6 h.", field=f"{where}/time_s")
        _check_temp(stage, where)
        if stage.kind in COLD and n > 0 and stages[n - 1].kind not in COLD:
            raise OutOfRangeError("A piece is chilled or frozen before the heat, not between.", field=f"{where}/kind")
        if stage.turn_every_s and not 10.0 <= stage.turn_every_s <= 3600.0:
            raise OutOfRangeError("A piece is turned every 10 s to 60 min.", field=f"{where}/turn_every_s")
        if stage.turn_every_s and stage.until == "time" and stage.time_s > MOST_TURNS * stage.turn_every_s:
            raise OutOfRangeError(
                f"A stage turns a piece at most {MOST_TURNS} times: turn it less often, or for less long.",
                field=f"{where}/turn_every_s",
            )
        choice = next((c for c in stage_choices(form, on) if c.kind == stage.kind), None)
        if choice is None:
            raise OutOfRangeError(
                "Crumbled meat goes from the bowl to the pan."
                if stage.kind in COLD
                else "A loaf cooks in an oven, under a broiler, or beside a fire.",
                field=f"{where}/kind",
            )
        if stage.until not in choice.ends:
            raise OutOfRangeError(
                "In the fridge or the freezer it lies by the clock."
                if stage.kind in COLD
                else "Two fifths are looked for in a flat piece only.",
                field=f"{where}/until",
            )
        for action, why in _ACTION_ENDS.items():
            if getattr(stage, action) and action not in choice.actions:
                raise OutOfRangeError(why, field=f"{where}/{action}")
    if stages and not any(s.until == "core" for s in stages):
        raise OutOfRangeError("One stage goes on until the core is as wanted.", field="/heat/stages")


def _check_temp(stage: HeatStage, where: str) -> None:
    if stage.temp_c is None:
        return
    if stage.kind in COLD:
        if not COLDEST_C <= stage.temp_c <= LEAST_COLD_C:
            raise OutOfRangeError("A fridge or a freezer has −40 to 12 °C.", field=f"{where}/temp_c")
    elif not LOWEST_STAGE_C <= stage.temp_c <= HOTTEST_STAGE_C:
        raise OutOfRangeError("A stage has 50 to 400 °C.", field=f"{where}/temp_c")
