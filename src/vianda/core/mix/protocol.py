"""The working protocol: what goes in when, how cold, how it is worked, and when to stop.

Source: common practice, no published source; temperatures of raw meat by the cold chain (0–4 °C).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, say
from vianda.core.batch.lines import LineFigures
from vianda.core.batch.salt_ledger import SaltFigures
from vianda.core.mix.panade import PanadeFigures
from vianda.core.model.formula import Dish, Mix

StepKind = Literal["cook-ahead", "soak", "season", "meats", "fold", "work", "measure", "fry", "chill", "shape", "brown"]

# Cooked onion goes in below hand-hot; raw meat stays cold; a mix above 10 °C smears (common practice).
ONION_BELOW_C = 30.0
MEAT_BELOW_C = 5.0
MIX_BELOW_C = 10.0
LEAST_CHILL_MIN, USUAL_CHILL_MIN = 30.0, (30.0, 60.0)
PROCESSOR_S = (10.0, 15.0)
COOKED_AHEAD = frozenset({"soft-onion", "brown-onion", "cooked-mushroom", "rice", "potato"})
_STATE_WORDS = {
    "dry": "dry crumbs",
    "damp": "damp crumbs",
    "stiff": "a stiff paste",
    "soft": "a soft paste",
    "soup": "soup",
    "none": "",
}


@dataclass(frozen=True, slots=True)
class ProtocolStep:
    """One thing to do: its kind, a title, what to do in a sentence, and the temperature to keep below (None: any)."""

    kind: StepKind
    title: str
    text: Phrase
    below_c: float | None = None


@dataclass(frozen=True, slots=True)
class Protocol:
    """The steps in order."""

    steps: tuple[ProtocolStep, ...]


def protocol(
    *,
    dish: Dish,
    mix: Mix,
    lines: Sequence[LineFigures],
    panade: PanadeFigures,
    salt: SaltFigures,
    meats: Sequence[str],
    mix_temp_c: float,
    chill: Band,
) -> Protocol:
    """The protocol of a mix, from what is in it.

    Parameters
    ----------
    dish : Dish
        Kind of dish.
    mix : Mix
        Lines of the mix, and how it is worked.
    lines : Sequence[LineFigures]
        The lines of the mix.
    panade : PanadeFigures
        Crumb and liquid of the mix.
    salt : SaltFigures
        The salt figures of the batch.
    meats : Sequence[str]
        Names of the meats.
    mix_temp_c : float
        Temperature of the mix when it has been mixed, °C.
    chill : Band
        Minutes to chill, min.

    Returns
    -------
    Protocol
        The steps in order.

    Examples
    --------
    A burger with nothing in it is told to be left alone: no mixing step at all.
    """
    present = [line for line in lines if line.per_meat_frac > 0]
    steps = _brown(salt) if dish == "sauce" else []
    steps = [*_ahead(present), *_soak(panade, mix), *steps]
    if dish == "sauce":
        rest = [line for line in present if line.ingredient not in COOKED_AHEAD]
        if rest:
            steps.append(ProtocolStep("fold", "Then the pot", say("{what}: stir in and simmer", what=_names(rest))))
        return Protocol(tuple(steps))
    steps += _season(present, salt, panade)
    if len(meats) > 1:
        steps.append(
            ProtocolStep(
                "meats",
                "Combine the meats",
                say("{meats}, loosely, before anything wet goes in", meats=ph.word(_listed(meats))),
                MEAT_BELOW_C,
            )
        )
    elif present:
        steps.append(
            ProtocolStep("meats", "Break the meat up", say("Loose strands, straight from the cold"), MEAT_BELOW_C)
        )
    steps += _work(present, mix, salt)
    if present:
        steps.append(_measure(mix_temp_c, chill))
        steps.append(
            ProtocolStep("fry", "Fry a teaspoon", say("Taste it before you shape the rest; corrections stand below"))
        )
    steps += _chill(dish, mix, present, salt)
    return Protocol(tuple(steps))


def _names(lines: Sequence[LineFigures]) -> ph.Amount:
    return ph.word(_listed([line.name.split(",")[0] for line in lines]))


def _listed(names: Sequence[str]) -> str:
    """Names as a sentence begins with them: the first as it is written, the others small."""
    said = [name if at == 0 else name.lower() for at, name in enumerate(names)]
    return ", ".join(said[:-1]) + f" and {said[-1]}" if len(said) > 1 else said[0]


def _brown(salt: SaltFigures) -> list[ProtocolStep]:
    title = "Brown in batches"
    if salt.batch_salt_g > 0 and salt.salt_place == "mixed":
        text = say(
            "Half a layer at a time, salt {salt} in all as it browns; drain the fat", salt=ph.mass(salt.batch_salt_g)
        )
    else:
        text = say("Half a layer at a time; drain the fat")
    return [ProtocolStep("brown", title, text)]


def _ahead(lines: Sequence[LineFigures]) -> list[ProtocolStep]:
    cooked = [line for line in lines if line.ingredient in COOKED_AHEAD]
    if not cooked:
        return []
    return [
        ProtocolStep(
            "cook-ahead",
            "Cook ahead and cool",
            say(
                "{what}: cooked soft, spread out and cooled; it goes in at {now}",
                what=_names(cooked),
                now=ph.temp(max(line.temp_c for line in cooked)),
            ),
            ONION_BELOW_C,
        )
    ]


def _soak(panade: PanadeFigures, mix: Mix) -> list[ProtocolStep]:
    if panade.crumb_g <= 0 or panade.liquid_g <= 0:
        return []
    return [
        ProtocolStep(
            "soak",
            "Soak the panade",
            say(
                f"{{crumb}} of crumb in the liquid for {{time}}: it makes {_STATE_WORDS[panade.state]}",
                crumb=ph.mass(panade.crumb_g),
                time=ph.minutes(max(mix.soak_min, panade.soak_needed_min)),
            ),
        )
    ]


def _season(lines: Sequence[LineFigures], salt: SaltFigures, panade: PanadeFigures) -> list[ProtocolStep]:
    wet = [line for line in lines if line.group in ("egg", "white", "sauce")]
    small = [line for line in lines if line.group in ("spice", "herb", "sweet", "acid", "fat")]
    mixed = salt.salt_place == "mixed" and salt.batch_salt_g > 0
    if not wet and not small and not mixed:
        return []
    into = "the paste" if panade.crumb_g > 0 and panade.liquid_g > 0 else "one bowl"
    parts = [*wet, *small]
    if mixed and parts:
        text = say(
            f"{{what}} and {{salt}} of salt into {into}: even before it meets the meat",
            what=_names(parts),
            salt=ph.mass(salt.batch_salt_g),
        )
    elif mixed:
        text = say("{salt} of salt, strewn evenly over the cold meat", salt=ph.mass(salt.batch_salt_g))
    else:
        text = say(f"{{what}} into {into}: even before it meets the meat", what=_names(parts))
    return [ProtocolStep("season", "Season the wet part", text)]


def _work(lines: Sequence[LineFigures], mix: Mix, salt: SaltFigures) -> list[ProtocolStep]:
    steps: list[ProtocolStep] = []
    fold = [
        line for line in lines if line.group in ("cheese", "onion", "vegetable", "starch", "bread", "crumb", "tomato")
    ]
    if fold and not any(line.group in ("crumb", "bread") for line in fold):
        steps.append(ProtocolStep("fold", "Fold in", say("{what}", what=_names(fold))))
    if not lines and not (salt.salt_place == "mixed" and salt.batch_salt_g > 0):
        return steps
    if mix.work == "processor":
        text = say(
            "Spin panade and meat for {time}, in short bursts; past {most} it goes springy",
            time=ph.duration(mix.work_s),
            most=ph.duration(PROCESSOR_S[1]),
        )
    elif mix.work == "spoon":
        text = say(
            "With a spoon or fork, about {time}; stop when no streak of white is left", time=ph.duration(mix.work_s)
        )
    else:
        text = say(
            "With cold, wet hands, about {time}; stop when it is even, never knead", time=ph.duration(mix.work_s)
        )
    steps.append(ProtocolStep("work", "Work it, then stop", text, MIX_BELOW_C))
    return steps


def _measure(mix_temp_c: float, chill: Band) -> ProtocolStep:
    if mix_temp_c > MIX_BELOW_C:
        text = say(
            "It comes out at about {now}: too warm. Spread {depth} deep in the fridge for {time}",
            now=ph.temp(mix_temp_c),
            depth=ph.length(30),
            time=ph.minutes(chill.low, chill.high),
        )
    else:
        text = say("It comes out at about {now}; hands and a warm bowl add to that", now=ph.temp(mix_temp_c))
    return ProtocolStep("measure", "Take its temperature", text, MIX_BELOW_C)


def _chill(dish: Dish, mix: Mix, lines: Sequence[LineFigures], salt: SaltFigures) -> list[ProtocolStep]:
    if dish == "burger":
        if salt.salt_place == "mixed" and salt.batch_salt_g > 0:
            return [ProtocolStep("shape", "Shape at once", say("Salted mince firms up as it stands"))]
        if not lines:
            return [
                ProtocolStep("shape", "Leave it alone", say("Nothing goes in: shape it loose and cold"), MEAT_BELOW_C)
            ]
        return [ProtocolStep("shape", "Shape it cold", say("With as few touches as will hold"), MIX_BELOW_C)]
    return [
        ProtocolStep(
            "chill",
            "Chill before shaping",
            say("{time}, covered: it firms and the seasoning evens out", time=ph.minutes(mix.chill_min)),
            4.0,
        ),
        ProtocolStep("shape", "Shape", say("Wet hands or a scoop; close the cracks, squash out the air")),
    ]
