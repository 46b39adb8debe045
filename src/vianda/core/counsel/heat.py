"""Counsel on the floor, the surface and the minutes."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis.phrase import delta_temp, duration, length, say, temp, word
from vianda.core.counsel.rule import PRACTICE, Change, Remark, Rule
from vianda.core.heat.floor import AT_RISK, shown_c
from vianda.core.heat.holds import hold_at, holds_of
from vianda.core.heat.methods import COLD, stages_of
from vianda.core.model.edit import Choose, SetFigure, SetStages
from vianda.core.pipeline.figures import Figures

# FDA Food Code 2022, 3-401.11(D) and 3-603.11; from memory, high confidence.
ADVISORY = (
    "The Food Code lets it be served so only with the consumer advisory (3-603.11), and never from a children's "
    "menu or to a highly susceptible population."
)


# UK FSA, guidance on burgers served less than thoroughly cooked (2016); from memory, high confidence.
APPROVED_PLAN = (
    "In the UK a burger less than thoroughly cooked is served only under a plan that the local authority has agreed to."
)
# FDA Food Code 2022, 3-401.11(A)(3): wild game, as poultry. From memory, high confidence.
WILD_GAME_C = 165.0 * 5 / 9 - 160.0 / 9


def _wild_game(figures: Figures) -> Remark | None:
    """Deer may be farmed and inspected, or shot: the floor is another."""
    game = [p.name for p in figures.meat.blend.parts if p.share_frac > 0 and p.species == "venison"]
    if not game or figures.cook.plan.target_c >= WILD_GAME_C - 0.05:
        return None
    return Remark(
        say("{meat}: farmed, or wild?", meat=word(game[0])),
        say(
            "Farmed and inspected game is cooked as other mince. Wild game has the floor of poultry, {floor} "
            "(Food Code 3-401.11). Local codes decide.",
            floor=temp(WILD_GAME_C),
        ),
        (
            Change(
                say("It is wild: set the core to {floor}", floor=temp(WILD_GAME_C)),
                SetFigure("target_core_temp", WILD_GAME_C),
            ),
        ),
    )


def _floor_name(figures: Figures) -> str:
    return figures.cook.plan.floors.leading.authority


def _below_floor(figures: Figures) -> Remark | None:
    floor = figures.cook.plan.floors.leading
    target = figures.cook.plan.target_c
    if target >= floor.temp_c - 1e-6:
        return None
    # Between the figures that are shown, so that they add up for who reads them.
    units = figures.context.kitchen.unit_system
    gap = shown_c(floor.temp_c, unit_system=units) - shown_c(target, unit_system=units)
    served = figures.context.kitchen.country == "US" and figures.context.kitchen.setting == "food-service"
    advisory = f" {ADVISORY}" if served else ""
    if figures.context.kitchen.country == "UK" and figures.context.kitchen.setting == "food-service":
        advisory = f" {APPROVED_PLAN}"
    return Remark(
        say("{target} is {gap} below the published floor", target=temp(target), gap=delta_temp(gap)),
        say(
            f"{_floor_name(figures)}: {{floor}}, {floor.rule}. Bacteria are mixed through mince. Most at risk: "
            f"{AT_RISK}.{advisory} Local codes and licensed practice decide.",
            floor=temp(floor.temp_c),
        ),
        (
            Change(
                say("Set the core to {floor}", floor=temp(floor.temp_c)), SetFigure("target_core_temp", floor.temp_c)
            ),
        ),
    )


# The hottest line that is offered instead of a hold (ours): above it mince is dry.
HOTTEST_OFFERED_C = 75.0


# Up to here the face that dries is the coolest place for longest: computed over plates, ours.
FACE_DECIDES_MM = 12.0


def _hold(figures: Figures) -> Remark | None:
    floor, target = figures.cook.plan.floors.leading, figures.cook.plan.target_c
    if floor.hold_s <= 0 or target < floor.temp_c - 1e-6:
        return None
    now = hold_at(floor, target_c=target)
    if now.time_s == 0:
        return None
    # Only lines of the same table: another country's figure says nothing here.
    hotter = [h for h in holds_of(floor) if now.temp_c < h.temp_c <= HOTTEST_OFFERED_C and h.time_s < now.time_s]
    best = min(hotter, key=lambda h: h.time_s, default=None)
    counts = f"{_floor_name(figures)} counts only with the hold."
    if best is None:
        return Remark(say("Hold {t} for {time}", t=temp(now.temp_c), time=duration(now.time_s)), say(counts))
    instead = say(f"{counts} At {{line}} none is needed.", line=temp(best.temp_c))
    if best.time_s > 0:
        instead = say(f"{counts} At {{line}} it is {{time}}.", line=temp(best.temp_c), time=duration(best.time_s))
    return Remark(
        say("Hold {t} for {time}", t=temp(now.temp_c), time=duration(now.time_s)),
        instead,
        (Change(say("Set the core to {line}", line=temp(best.temp_c)), SetFigure("target_core_temp", best.temp_c)),),
    )


def _by_thermometer(figures: Figures) -> Remark | None:
    if figures.cook.plan.reach != "thermometer-decides":
        return None
    return Remark(
        say("Minutes alone will not do: probe it"),
        say(
            "A piece {mm} thick is cooked by the thermometer. The minutes are computed and not sure; {floor} in the "
            "coldest place is what counts.",
            mm=length(figures.piece.shape.thickness_mm),
            floor=temp(figures.cook.plan.floors.leading.temp_c),
        ),
    )


def _falls_short(figures: Figures) -> Remark | None:
    if (
        figures.cook.plan.reach != "may-fall-short"
        or figures.cook.plan.target_c < figures.cook.plan.floors.leading.temp_c - 1e-6
    ):
        return None
    return Remark(
        say("Cooked this way the coldest meat may stay short of the floor"),
        say(
            "As computed not every place comes to {floor}, rest included. A hotter surface, a thinner piece, more "
            "time, or a last stage that waits for the core.",
            floor=temp(figures.cook.plan.floors.leading.temp_c),
        ),
        _waiting(figures),
    )


def _waiting(figures: Figures) -> tuple[Change, ...]:
    """What brings the coldest meat there: the last stage waits for the core, or the style's own way, which does."""
    context = figures.context
    usual_c = context.style.surface_temp_start_c
    if context.formula.heat.surface_temp_c < figures.cook.plan.surface_low_c:
        return (Change(say("Heat the surface to {t}", t=temp(usual_c)), SetFigure("surface_temp", usual_c)),)
    stages = stages_of(context.formula.heat, context.style, context.surface)
    last = max((n for n, s in enumerate(stages) if s.kind not in COLD), default=None)
    if last is not None and stages[last].until != "core":
        waits = (*stages[:last], replace(stages[last], until="core"), *stages[last + 1 :])
        return (Change(say("Let the last stage wait for the core"), SetStages(waits)),)
    if context.formula.heat.stages:
        return (Change(say("Back to the way it was put together from"), SetStages(())),)
    return ()


def _practice_short(figures: Figures) -> Remark | None:
    heat = figures.cook.plan
    if heat.reach == "may-fall-short" or heat.target_c < heat.floors.leading.temp_c - 1e-6:
        return None
    covered = _covered(figures)
    # Where a lid mends it, the usual computed minutes decide; else only what the least of them does not allow.
    needed = heat.on_heat_s.usual if covered else heat.on_heat_s.low
    if heat.practice.on_heat_s.high >= needed:
        return None
    why = " Its upper face dries and stays the coolest place; under a lid with a little steam it gets there sooner."
    return Remark(
        say("The usual minutes fall short of the floor"),
        say(
            "Usual practice says {usual} on the heat; as computed the coldest meat needs {needed} to come to {floor}."
            + (why if covered else ""),
            usual=duration(heat.practice.on_heat_s.low, heat.practice.on_heat_s.high),
            needed=duration(heat.on_heat_s.low, heat.on_heat_s.high),
            floor=temp(heat.floors.leading.temp_c),
        ),
        covered,
    )


def _covered(figures: Figures) -> tuple[Change, ...]:
    """A lid over the last stage of a thin piece on hot metal: its drying face is the last place, not its middle."""
    context = figures.context
    stages = stages_of(context.formula.heat, context.style, context.surface)
    last = max((n for n, s in enumerate(stages) if s.kind not in COLD), default=None)
    if last is None or stages[last].kind != "surface" or stages[last].cover or context.surface.kind == "grate":
        return ()
    if figures.piece.shape.thickness_mm > FACE_DECIDES_MM:
        return ()
    lid = (*stages[:last], replace(stages[last], cover=True), *stages[last + 1 :])
    return (Change(say("Cover it after the last flip"), SetStages(lid)),)


def _too_cool(figures: Figures) -> Remark | None:
    now, low = figures.context.formula.heat.surface_temp_c, figures.cook.plan.surface_low_c
    if now >= low - 1e-9:
        return None
    start = figures.context.style.surface_temp_start_c
    return Remark(
        say("{now} is cool for it" if figures.context.style.baked else "{now} gives little crust", now=temp(now)),
        say(
            "Usual is {low} to {high}, measured at the shelf."
            if figures.context.style.baked
            else "Usual is {low} to {high}, measured on the surface.",
            low=temp(low),
            high=temp(figures.cook.plan.surface_high_c),
        ),
        (Change(say("Heat it to {t}", t=temp(start)), SetFigure("surface_temp", start)),),
    )


def _too_hot(figures: Figures) -> Remark | None:
    now, high = figures.context.formula.heat.surface_temp_c, figures.cook.plan.surface_high_c
    if now <= high + 1e-9:
        return None
    start = figures.context.style.surface_temp_start_c
    return Remark(
        say("{now} burns before it is done", now=temp(now)),
        say(
            "Usual is {low} to {high}."
            if figures.context.style.baked
            else "Usual is {low} to {high}. Hot fat flares: never water on it, a lid at hand.",
            low=temp(figures.cook.plan.surface_low_c),
            high=temp(high),
        ),
        (Change(say("Bring it to {t}", t=temp(start)), SetFigure("surface_temp", start)),),
    )


def _wrong_surface(figures: Figures) -> Remark | None:
    if figures.context.surface.kind in figures.context.style.surfaces:
        return None
    better = next(
        (
            s
            for kind in figures.context.style.surfaces
            if (s := figures.context.kitchen.surface_of_kind(kind)) is not None
        ),
        None,
    )
    change: tuple[Change, ...] = ()
    if better is not None:
        change = (Change(say("Use {name}", name=word(better.name)), Choose("surface", better.key)),)
    return Remark(
        say(f"Not made on a {figures.context.surface.kind}"),
        say(f"{figures.context.style.title} wants a {' or '.join(figures.context.style.surfaces)}."),
        change,
    )


RULES = (
    Rule(
        "heat.below-floor",
        "heat",
        "limit",
        "core wanted below the leading published floor",
        "the floor named; see its working",
        _below_floor,
    ),
    Rule(
        "heat.wild-game",
        "heat",
        "check",
        "venison with a core wanted below wild game's floor",
        "FDA Food Code 2022, 3-401.11(A)(3)",
        _wild_game,
    ),
    Rule(
        "heat.hold-needed",
        "heat",
        "note",
        "the leading floor's own table asks for a hold at the core wanted",
        "the floor named; see its working",
        _hold,
    ),
    Rule(
        "heat.by-thermometer",
        "heat",
        "check",
        "thicker than minutes alone can be trusted for",
        PRACTICE,
        _by_thermometer,
    ),
    Rule(
        "heat.falls-short",
        "heat",
        "check",
        "a core wanted at or above the floor, and computed meat that does not come to it",
        "computed; see docs/heat-model.md",
        _falls_short,
    ),
    Rule(
        "heat.practice-falls-short",
        "heat",
        "note",
        "usual practice's longest minutes are less than the least computed; than the usual computed where a lid helps",
        "computed; see docs/heat-model.md",
        _practice_short,
    ),
    Rule("heat.surface-too-cool", "heat", "check", "surface below the style's band", PRACTICE, _too_cool),
    Rule("heat.surface-too-hot", "heat", "check", "surface above the style's band", PRACTICE, _too_hot),
    Rule("heat.wrong-surface", "heat", "check", "surface of a kind the style is not made on", PRACTICE, _wrong_surface),
)
