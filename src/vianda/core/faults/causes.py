"""Symptoms of a batch that went wrong, their causes, and the question that tells each cause from the others.

Common practice, no published source, for which cause makes which symptom; how strongly, how often, and how well a
question tells are ours.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Literal

from vianda.core.model.styles import BLOCKS, FLAT, Form

Symptom = Literal[
    "dry", "tough", "falls-apart", "greasy", "domed", "shrunk", "no-crust", "burnt-raw", "bland", "salty", "watery",
    "glaze", "crumbles",
]  # fmt: skip
ALL: tuple[Form, ...] = (*FLAT, "ball", *BLOCKS, "crumbled")
WHOLE: tuple[Form, ...] = (*FLAT, "ball", *BLOCKS)
BOUND: tuple[Form, ...] = ("ball", *BLOCKS)

SYMPTOMS: Mapping[Symptom, tuple[str, tuple[Form, ...]]] = {
    "dry": ("Dry", ALL),
    "tough": ("Tough, rubbery, like sausage", ALL),
    "falls-apart": ("Falls apart in the heat", WHOLE),
    "greasy": ("Greasy or dense", ALL),
    "domed": ("Domed in the middle", FLAT),
    "shrunk": ("Shrank out of its bread", FLAT),
    "no-crust": ("No crust", (*FLAT, "ball", "crumbled")),
    "burnt-raw": ("Burnt outside, raw inside", WHOLE),
    "bland": ("Bland", ALL),
    "salty": ("Too salty", ALL),
    "watery": ("Grey meat in a watery pan", (*FLAT, "ball", "crumbled")),
    "glaze": ("Glaze runs or burns", WHOLE),
    "crumbles": ("Crumbles when sliced", BLOCKS),
}


@dataclass(frozen=True, slots=True)
class Question:
    """What tells a cause: the question, and how often it is answered with yes where the cause is there, and where not.

    ``yes`` and ``no`` are the words of the two answers.
    """

    text: str
    if_there: float
    if_not: float
    yes: str = "Yes"
    no: str = "No"


@dataclass(frozen=True, slots=True)
class Cause:
    """One cause.

    Attributes
    ----------
    prior : float
        How often it is there in a batch that somebody complains of, 0–1.
    makes : Mapping[Symptom, float]
        How often it makes each symptom where it is there, 0–1.
    rules : tuple[str, ...]
        Rules of counsel whose remark on the formula speaks for it.
    forms : tuple[Form, ...]
        Forms of the piece it can happen to.
    tonight, next_time : str
        What helps the batch that is there, and the next one.
    """

    key: str
    title: str
    prior: float
    makes: Mapping[Symptom, float]
    rules: tuple[str, ...]
    forms: tuple[Form, ...]
    question: Question
    tonight: str
    next_time: str


@cache
def all_causes() -> Mapping[str, Cause]:
    """Every cause that is known, by its key.

    Returns
    -------
    Mapping[str, Cause]
        In the order of the cook's path.
    """
    return {c.key: c for c in _CAUSES}


_CAUSES = (
    Cause(
        "too-lean", "Too lean", 0.10, {"dry": 0.6, "tough": 0.3, "no-crust": 0.1}, ("meat.too-lean",), ALL,
        Question("Did the raw mince look pale with hardly any white in it?", 0.75, 0.15),
        "Serve it with a sauce, or butter on top.", "More fat in the blend.",
    ),
    Cause(
        "too-fat", "Too much fat for the way it is cooked", 0.08, {"greasy": 0.6, "shrunk": 0.5, "falls-apart": 0.1},
        ("meat.too-fat", "meat.fat-uncertain"), ALL,
        Question("Was there more fat in the pan or tray than you expected?", 0.85, 0.2),
        "Drain it on a rack before it is served.", "Less fat in the blend.",
    ),
    Cause(
        "sinewy", "Sinewy cuts on a coarse plate", 0.05, {"tough": 0.5}, ("meat.plate-too-coarse",), ALL,
        Question("Were there hard bits between the teeth?", 0.8, 0.08),
        "Cut it thin, or crumble it into a sauce and simmer it.", "Trim sinew away, or grind it finer or twice.",
    ),
    Cause(
        "smeared", "Fat smeared: ground or mixed warm", 0.07, {"greasy": 0.6, "tough": 0.3, "dry": 0.2},
        ("mix.meat-warm", "mix.too-warm", "mix.hot-part"), ALL,
        Question("Did the mince look pasty and smooth before it was shaped?", 0.8, 0.12),
        "Drain it well, and serve it with something sharp.", "Meat and parts of the grinder at 0 to 4 °C; work fast.",
    ),
    Cause(
        "early-salt", "Salt worked in, and left", 0.08, {"tough": 0.6, "dry": 0.3}, ("mix.salted-early",), ALL,
        Question("Was it salted more than half an hour before it was cooked?", 0.85, 0.15),
        "Slice it thin across, or serve it in a sauce.", "Salt the outside, as it goes onto the heat.",
    ),
    Cause(
        "overworked", "Worked too long", 0.10, {"tough": 0.7, "greasy": 0.3}, ("mix.overworked",), ALL,
        Question("Did the mix stick to your hands like dough?", 0.8, 0.15),
        "Slice it thin, or serve it in a sauce.", "Stop as soon as it holds.",
    ),
    Cause(
        "thirsty-crumb", "Crumb short of liquid", 0.07, {"dry": 0.45, "crumbles": 0.3, "tough": 0.2},
        ("mix.crumb-without-liquid", "mix.crumb-heavy", "mix.soak-short"), ALL,
        Question("Was the panade stiff, or did the crumb go in dry?", 0.85, 0.15),
        "Serve it with gravy or a sauce.", "More milk or stock to the crumb, and time to soak.",
    ),
    Cause(
        "too-wet", "Mix too wet", 0.08, {"falls-apart": 0.5, "watery": 0.3, "no-crust": 0.3},
        ("mix.soup", "mix.liquid-without-crumb", "mix.raw-wet-vegetable", "mix.egg-heavy"), ALL,
        Question("Did it spread, or would not keep its shape on the board?", 0.8, 0.12),
        "Chill it hard, and cook it in a tin or a ring.", "Less liquid, or more crumb to hold it; onion cooked first.",
    ),
    Cause(
        "little-binder", "Too little that binds", 0.10, {"falls-apart": 0.6, "crumbles": 0.4},
        ("mix.binder-short", "mix.lean-without-panade"), BOUND,
        Question("Did a small ball fall apart when you pressed it?", 0.75, 0.1),
        "Turn it less often, with a wide blade.", "Crumb, starch or egg, and a little salt worked in.",
    ),
    Cause(
        "little-egg", "Too little egg", 0.06, {"crumbles": 0.4, "falls-apart": 0.2}, ("mix.egg-short",), BOUND,
        Question("Was there less than one egg to half a kilogram of meat?", 0.85, 0.25),
        "Let it rest longer before it is cut.", "One egg to 500 g of meat.",
    ),
    Cause(
        "mixed-little", "Not mixed through", 0.06, {"crumbles": 0.4, "falls-apart": 0.3}, (), BOUND,
        Question("Were there streaks of crumb or egg in the mix?", 0.75, 0.08),
        "Let it rest, and cut it thick.", "Mix until crumb and egg can no longer be seen, and not longer.",
    ),
    Cause(
        "not-cold", "Shaped or laid on warm", 0.09, {"falls-apart": 0.5, "greasy": 0.25},
        ("mix.not-chilled", "shape.soft-to-the-heat"), WHOLE,
        Question("Was it soft to the finger when it went onto the heat?", 0.8, 0.2),
        "Chill what is left for half an hour before it is cooked.", "Chill it firm before the heat.",
    ),
    Cause(
        "loose", "Packed too loosely for a grate", 0.04, {"falls-apart": 0.45}, ("shape.loose-on-a-grate",), FLAT,
        Question("Did bits fall through or hang on the bars?", 0.8, 0.1),
        "Cook the rest on a plate or in a pan.", "Press it a little firmer, or use a plate.",
    ),
    Cause(
        "packed-hard", "Packed hard", 0.06, {"greasy": 0.3, "tough": 0.35}, (), WHOLE,
        Question("Was it pressed together with force?", 0.8, 0.15),
        "Nothing mends it; slice it thin.", "Press it only until it holds.",
    ),
    Cause(
        "no-dimple", "Thick, and not dimpled", 0.08, {"domed": 0.7}, (), FLAT,
        Question("Was it left flat, without a hollow in the middle?", 0.9, 0.3),
        "Cut the dome level, or turn it over in the bread.", "Press a hollow into the middle before the heat.",
    ),
    Cause(
        "edge-hot", "Edge hotter than the middle", 0.05, {"domed": 0.35, "no-crust": 0.1}, (), FLAT,
        Question("Was the edge dark while the middle was pale?", 0.8, 0.12),
        "Finish it under a lid at less heat.", "Preheat longer, so that the surface is even.",
    ),
    Cause(
        "not-wide", "Not made wide enough for its bread", 0.10, {"shrunk": 0.7}, ("shape.narrower-than-bun",), FLAT,
        Question("Was the raw piece no wider than the bread?", 0.85, 0.2),
        "Two to a bun, overlapping.", "Make it as much wider as it shrinks.",
    ),
    Cause(
        "filling-edge", "Filling too near the rim", 0.04, {"falls-apart": 0.6},
        ("shape.rim-narrow", "shape.filling-walls-thin", "shape.filling-heavy"), ("filled",),
        Question("Did the filling come out at the seam?", 0.9, 0.05),
        "Turn it once only, and finish it in the oven.", "A wider rim, pinched shut, or less filling.",
    ),
    Cause(
        "too-thick", "Too thick for that heat", 0.08, {"burnt-raw": 0.65},
        ("shape.thickness-unusual", "shape.above-usual-weight", "heat.falls-short"), WHOLE,
        Question("Was it thicker than a finger is wide?", 0.75, 0.3),
        "Finish it in the oven at 150 °C until the probe says so.", "Thinner, or brown it first and finish it gently.",
    ),
    Cause(
        "too-fierce", "Too fierce a heat", 0.09, {"burnt-raw": 0.6, "shrunk": 0.3, "dry": 0.15},
        ("heat.surface-too-hot",), WHOLE,
        Question("Did the fat smoke before the pieces went on?", 0.8, 0.15),
        "Off the fierce heat; finish it beside the fire or in the oven.", "A cooler surface.",
    ),
    Cause(
        "plate-cool", "Surface too cool", 0.12, {"no-crust": 0.75, "watery": 0.5}, ("heat.surface-too-cool",),
        (*FLAT, "ball", "crumbled"),
        Question("Was there only a soft hiss when the first piece went on?", 0.8, 0.12),
        "Take them off, heat the surface, dry them and lay them on again.", "Measure the surface before you lay on.",
    ),
    Cause(
        "crowded", "Too many at once", 0.10, {"watery": 0.75, "no-crust": 0.5}, (), (*FLAT, "ball", "crumbled"),
        Question("Were they closer together than a finger is wide?", 0.85, 0.2),
        "Take half of them off until the pan is dry.", "Fewer at once, and let the surface come back between waves.",
    ),
    Cause(
        "wet-surface", "Wet outside", 0.07, {"no-crust": 0.5, "watery": 0.35}, (), (*FLAT, "ball", "crumbled"),
        Question("Was the meat shining wet when it went on?", 0.8, 0.2),
        "Dab it dry before it is turned.", "Dry it with paper, or leave it open in the fridge for an hour.",
    ),
    Cause(
        "moved-soon", "Turned or moved too soon", 0.08, {"no-crust": 0.4, "falls-apart": 0.5}, (), WHOLE,
        Question("Did it stick when you turned it?", 0.8, 0.15),
        "Leave it until it lets go by itself.", "Leave it on its first side until it lets go.",
    ),
    Cause(
        "pressed-late", "Pressed after it had set", 0.06, {"dry": 0.55}, (), FLAT,
        Question("Was it pressed with the blade after the first half minute?", 0.9, 0.1),
        "Serve it with a sauce.", "Press in the first seconds only, or not at all.",
    ),
    Cause(
        "overcooked", "Cooked past its target", 0.14, {"dry": 0.7, "tough": 0.25, "shrunk": 0.25}, (), ALL,
        Question("Was it on the heat longer than the plan said?", 0.75, 0.2),
        "Sauce, gravy or butter; slice it thin.", "Take it off by the probe, before its target.",
    ),
    Cause(
        "no-rest", "Cut or served without a rest", 0.07, {"dry": 0.3, "crumbles": 0.5}, (), WHOLE,
        Question("Did juice run out when it was cut?", 0.8, 0.2),
        "Let the rest of it stand for ten minutes.", "Let it rest: a burger minutes, a loaf a quarter of an hour.",
    ),
    Cause(
        "not-drained", "Fat not drained", 0.07, {"greasy": 0.5}, ("sauce.not-drained",), ALL,
        Question("Did it stand in its own fat?", 0.85, 0.15),
        "Lift it out onto a rack or paper.", "Drain the tin or the pan before it rests.",
    ),
    Cause(
        "sugar-early", "Sugar on too early", 0.06, {"burnt-raw": 0.5, "glaze": 0.45}, ("mix.sugar-burns",), WHOLE,
        Question("Was something sweet on or in it from the beginning?", 0.85, 0.15),
        "Scrape the black off, and glaze it anew at the end.", "Sweet things in the last minutes only.",
    ),
    Cause(
        "glaze-raw", "Glaze on raw meat", 0.05, {"glaze": 0.55}, (), WHOLE,
        Question("Was it glazed before it had browned?", 0.9, 0.15),
        "Wipe it off, brown the piece, and glaze again.", "Brown first; glaze the dry, hot surface.",
    ),
    Cause(
        "glaze-thick", "Glaze in one thick coat", 0.06, {"glaze": 0.6}, (), WHOLE,
        Question("Did one coat hide the meat?", 0.8, 0.15),
        "Wipe half of it off.", "Several thin coats, each dry before the next.",
    ),
    Cause(
        "salt-spoon", "Salt measured by the spoon of another kind", 0.06, {"bland": 0.45, "salty": 0.5}, (), ALL,
        Question("Was the salt measured by the spoon?", 0.9, 0.3),
        "Taste one, and salt the rest at the table; or serve it with something unsalted.",
        "Weigh the salt: a spoon of coarse salt is half of one of fine.",
    ),
    Cause(
        "salt-along", "Salt that came along was not counted", 0.07, {"salty": 0.65},
        ("mix.salt-comes-along", "mix.cured-brings-salt", "mix.salted-twice", "mix.cured-and-salted"), ALL,
        Question("Did cheese, bacon or a bought sauce come with it?", 0.9, 0.3),
        "Unsalted bread, salad and onions beside it.", "Count what cheese, bacon and sauces bring, and salt the rest.",
    ),
    Cause(
        "little-salt", "Too little salt", 0.10, {"bland": 0.7, "falls-apart": 0.1}, ("mix.unsalted",), ALL,
        Question("Does a pinch of salt on a bite mend it?", 0.9, 0.15),
        "Salt it at the table.", "1 to 1.2 % of the meat for burgers, 1.5 % for loaves and balls.",
    ),
    Cause(
        "much-salt", "Too much salt", 0.05, {"salty": 0.6, "tough": 0.15}, (), ALL,
        Question("Was more salt weighed in than the plan said?", 0.7, 0.1),
        "Unsalted bread, salad and onions beside it.", "Less salt.",
    ),
)  # fmt: skip
