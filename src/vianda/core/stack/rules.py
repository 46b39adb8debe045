"""Rules for what lies on what: each with its reason, and the order that mends it where there is one.

Source: common practice, no published source; minutes until bread is soggy: ours, low.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.model.formula import StackLayer
from vianda.core.stack.layers import BITE_MM, BITE_MOST_MM, BREADS, Build, Layer, moved, toasted

StackRule = Literal[
    "wet-on-bread",
    "soggy-in",
    "slides",
    "one-face",
    "no-glue",
    "too-tall",
    "hangs-over",
    "salt-on-salt",
    "nothing-sharp",
    "upside-down",
    "no-patty",
    "leaf-on-heat",
]
# Minutes until a cut face under something wet is soggy, plain and toasted: ours, low.
SOGGY_MIN = {False: (2.0, 5.0), True: (10.0, 20.0)}
# A piece fatter than this wants something sharp (ours), and more than two salty layers are too many.
RICH_FAT_FRAC, MOST_SALTY = 0.18, 2


@dataclass(frozen=True, slots=True)
class StackRemark:
    """What a rule says of a build: what, why, and the layers that mend it, none where there is no one change."""

    key: StackRule
    severity: Literal["warn", "note"]
    title: Phrase
    reason: Phrase
    mended: tuple[StackLayer, ...] = ()


def remarks_on_build(stack: Sequence[StackLayer], build: Build, *, fat_frac: float) -> tuple[StackRemark, ...]:
    """Every rule that speaks of a build, the gravest first.

    Parameters
    ----------
    stack : Sequence[StackLayer]
        Layers from below, as the formula has them.
    build : Build
        The same with their sizes.
    fat_frac : float
        Fat of the raw meat, 0–1.

    Returns
    -------
    tuple[StackRemark, ...]
        Each: what, why, and what mends it.

    References
    ----------
    Common practice, no published source.
    """
    found = [r for rule in _RULES if (r := rule(tuple(stack), build, fat_frac)) is not None]
    return tuple(sorted(found, key=lambda r: r.severity != "warn"))


# What holds a slick layer.
ROUGH = ("cheese", "onion", "bacon")


def _pairs(build: Build) -> list[tuple[int, Layer, Layer]]:
    return [(n, a, b) for n, (a, b) in enumerate(zip(build.layers, build.layers[1:], strict=False))]


def _no_patty(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    if any(x.kind == "patty" for x in stack):
        return None
    return StackRemark("no-patty", "warn", say("No patty in the build"), say("It is what all the rest is there for."))


def _upside_down(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    kinds = [x.kind for x in stack]
    wrong = ("heel" in kinds and kinds[0] != "heel") or ("crown" in kinds and kinds[-1] != "crown")
    if not wrong:
        return None
    heel = [x for x in stack if x.kind == "heel"]
    crown = [x for x in stack if x.kind == "crown"]
    rest = [x for x in stack if x.kind not in ("heel", "crown")]
    return StackRemark(
        "upside-down",
        "warn",
        say("Heel below, crown on top"),
        say("The heel carries it, the crown holds it together."),
        (*heel, *rest, *crown),
    )


def _wet_on_bread(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    """Tomato, pickles or relish straight on bread; a sauce is meant to lie there."""
    for n, below, above in _pairs(build):
        for at, bread, wet in ((n + 1, below, above), (n, above, below)):
            if bread.kind in BREADS and wet.rule.wetness == "wet" and wet.kind != "sauce":
                inward = at + 1 if at == n + 1 else at - 1
                fits = 0 < inward < len(stack) - 1
                return StackRemark(
                    "wet-on-bread",
                    "warn",
                    say("{wet} lies on the {bread}", wet=ph.word(wet.name), bread=ph.word(bread.name.lower())),
                    say("Its juice goes into the bread: put a leaf, cheese or the patty between."),
                    moved(stack, at, inward) if fits else (),
                )
    return None


def _soggy(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    """A plain face under a sauce, or under the patty's juice."""
    for _, below, above in _pairs(build):
        for bread, other in ((below, above), (above, below)):
            if bread.kind in BREADS and not bread.toasted and other.rule.wetness != "dry":
                low, high = SOGGY_MIN[False]
                then_low, then_high = SOGGY_MIN[True]
                return StackRemark(
                    "soggy-in",
                    "warn",
                    say(
                        "The {bread} is not toasted: soggy in {time} under {other}",
                        bread=ph.word(bread.name.lower()),
                        time=ph.duration(low * 60, high * 60),
                        other=ph.word(other.name.lower()),
                    ),
                    say("Toasted dry and crisp it stands for {time}.", time=ph.duration(then_low * 60, then_high * 60)),
                    toasted(stack),
                )
    return None


def _slides(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    for n, below, above in _pairs(build):
        # A sauce lies on a face or clings to what it covers.
        if below.rule.slick and above.rule.slick and "sauce" not in (below.kind, above.kind):
            grip = next(
                (i for i, x in enumerate(build.layers) if not x.rule.slick and x.kind in ("cheese", "onion", "bacon")),
                -1,
            )
            mended = moved(stack, grip, n + 1) if grip > n + 1 else moved(stack, grip, n) if 0 <= grip < n else ()
            return StackRemark(
                "slides",
                "note",
                say("{a} on {b}: two slick layers", a=ph.word(above.name), b=ph.word(below.name.lower())),
                say("They slide out at the first bite. Something rough between holds them: cheese, onion, the patty."),
                mended,
            )
    return None


def _one_face(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    kinds = [x.kind for x in stack]
    if "heel" not in kinds or "crown" not in kinds or kinds.count("sauce") != 1 or kinds[0] != "heel":
        return None
    at = kinds.index("sauce")
    if kinds[at - 1] in BREADS or (at + 1 < len(kinds) and kinds[at + 1] in BREADS):
        other = len(stack) - 1 if at < len(stack) / 2 else 1
        layers = list(stack)
        layers.insert(other, stack[at])
        return StackRemark(
            "one-face",
            "note",
            say("Sauce on one face only"),
            say("Half on each face tastes the same from either side; under only keeps it from running."),
            tuple(layers),
        )
    return None


def _no_glue(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    for n, below, above in _pairs(build):
        if below.kind == above.kind == "patty":
            cheese = next((x for x in stack if x.kind == "cheese"), StackLayer("cheese", "processed-cheese"))
            layers = list(stack)
            layers.insert(n + 1, cheese)
            return StackRemark(
                "no-glue",
                "note",
                say("Two patties with nothing between"),
                say("A slice of cheese between them melts and holds them."),
                tuple(layers),
            )
    return None


def _too_tall(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    if build.bite == "comfortable":
        return None
    return StackRemark(
        "too-tall",
        "warn" if build.bite == "too tall" else "note",
        say(
            "{h} high: a comfortable bite is {low} to {high}",
            h=ph.length(build.height_mm),
            low=ph.length(BITE_MM),
            high=ph.length(BITE_MOST_MM),
        ),
        say("Thinner patties, one layer less, or spread over a wider bun."),
    )


def _hangs_over(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    wide = [x for x in build.layers if x.kind not in BREADS and x.kind not in ("leaf", "bacon")]
    bread = max((x.width_mm for x in build.layers if x.kind in BREADS), default=0.0)
    over = max((x.width_mm - bread for x in wide), default=0.0)
    if bread <= 0.0 or over <= 5.0:
        return None
    return StackRemark(
        "hangs-over",
        "note",
        say("{over} wider than its bread", over=ph.length(over)),
        say("What hangs over is eaten without bread, and drips."),
    )


def _salt_on_salt(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    salty = list(dict.fromkeys(x.name for x in build.layers if x.rule.salty))
    if len(salty) <= MOST_SALTY:
        return None
    return StackRemark(
        "salt-on-salt",
        "note",
        say("Salty layers: {all}", all=ph.word(", ".join(salty).lower())),
        say("Each is salty alone; leave one out, or salt the meat less."),
    )


def _nothing_sharp(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    if fat < RICH_FAT_FRAC or any(x.rule.sharp or x.kind in ("sauce", "tomato") for x in build.layers):
        return None
    return StackRemark(
        "nothing-sharp",
        "note",
        say("Nothing sharp beside {f} of fat", f=ph.frac(fat)),
        say("Pickle, onion, mustard or a sharp sauce cuts it."),
    )


def _leaf_on_heat(stack: tuple[StackLayer, ...], build: Build, fat: float) -> StackRemark | None:
    for n, below, above in _pairs(build):
        if above.kind == "leaf" and below.kind in ("patty", "cheese", "egg"):
            heel = next((i for i, x in enumerate(stack) if x.kind == "heel"), -1)
            mended = moved(stack, n + 1, heel + 1) if heel >= 0 else ()
            return StackRemark(
                "leaf-on-heat",
                "note",
                say("The leaf lies on the hot {what}", what=ph.word(below.name.lower())),
                say("It wilts there in minutes. Under the patty it is a dry raft; others want it on top, cold."),
                mended,
            )
    return None


_RULES: tuple[Callable[[tuple[StackLayer, ...], Build, float], StackRemark | None], ...] = (
    _no_patty,
    _upside_down,
    _wet_on_bread,
    _soggy,
    _too_tall,
    _slides,
    _one_face,
    _no_glue,
    _hangs_over,
    _salt_on_salt,
    _nothing_sharp,
    _leaf_on_heat,
)
