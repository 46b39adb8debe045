"""What a fire asks of the cooks: set and lit, fed before it fades, and wood laid on where the meat is to take smoke."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, say
from vianda.core.cook.stove_plan import StovePlan
from vianda.core.equipment.kitchen import Surface
from vianda.core.heat.fire import FirePlan, as_poured, smoke_wood
from vianda.core.timetable import practice as pr

SET, READY = "set-fire", "preheat"


@dataclass(frozen=True, slots=True)
class FireTask:
    """One thing to do at a fire, its minutes, and what must lie between it and others.

    ``at_grate``: nothing else is done at the grate meanwhile. ``waits``: the task before, the task after, and at least
    and at most so many minutes between them.
    """

    key: str
    title: Phrase
    takes: Band
    hands: bool
    at_grate: bool
    waits: tuple[tuple[str, str, float, int], ...]


@dataclass
class SharedFire:
    """One fire: the minutes that all dishes on it need it, and the task that has it ready, "" before there is one."""

    needed_min: float = 0.0
    ready: str = ""


def shared_fires(dishes: Iterable[tuple[Surface, StovePlan]]) -> dict[str, SharedFire]:
    """The fires of an evening: coals are laid once for all that cooks on them, not once a dish.

    Parameters
    ----------
    dishes : Iterable[tuple[Surface, StovePlan]]
        What each dish cooks on, and its waves.

    Returns
    -------
    dict[str, SharedFire]
        By the grate's key; minutes on the heat of all waves, and what lies between them.
    """
    found: dict[str, SharedFire] = {}
    for surface, stove in dishes:
        if surface.kind == "grate":
            fire = found.setdefault(surface.key, SharedFire())
            changes = stove.waves - (0 if fire.needed_min else 1)
            fire.needed_min += stove.on_heat_s / 60.0 + pr.CHANGE_MIN * changes
    return found


def fire_tasks(surface: Surface, fire: FirePlan) -> Iterator[FireTask]:
    """The tasks of one fire, beside that it burns until it is ready.

    Parameters
    ----------
    surface : Surface
        The grate.
    fire : FirePlan
        What it burns and when it is fed.

    Yields
    ------
    FireTask
        Minutes are common practice, no published source. Gas is lit with a knob and fed by its bottle.
    """
    grate = ph.word(surface.name.lower())
    if fire.fuel != "gas":
        fuel = ph.word(fire.fuel)
        yield FireTask(
            SET,
            say("Set and light {m} of {fuel}", m=as_poured(fire.first_g), fuel=fuel),
            pr.SET_FIRE,
            hands=True,
            at_grate=True,
            waits=((SET, READY, 0, 2),),
        )
    for n, at_min in enumerate(fire.fed_min, start=1):
        # Somebody stands at the meat: coals are lit and laid on in passing.
        feed, kindle = f"feed-{n}", f"kindle-{n}"
        m = as_poured(fire.feed_g)
        window = ((READY, feed, pr.FED_FROM_FRAC * at_min, int(at_min)),)
        if fire.fuel == "charcoal":
            lit = fire.lit_before_min
            yield FireTask(
                kindle,
                say("Light {m} of charcoal beside the {grate}, to feed it with", m=m, grate=grate),
                pr.KINDLE,
                hands=False,
                at_grate=False,
                waits=((kindle, feed, lit, int(lit) + pr.COALS_WAIT_MIN),),
            )
            title = say("Feed the {grate} with {m} of lit coals", grate=grate, m=m)
        else:
            title = say("Feed the {grate} with {m} of dry wood", grate=grate, m=m)
        yield FireTask(feed, title, pr.FEED, hands=False, at_grate=False, waits=window)


def smoke_task(minutes: float, *, first_wave: str) -> FireTask:
    """Wood for smoke, laid on as the meat comes.

    Parameters
    ----------
    minutes : float
        How long the meat is to take smoke, min, above 0.
    first_wave : str
        Key of the first task on the grate.

    Returns
    -------
    FireTask
        A reminder: nothing is computed of smoke. Common practice, no published source: it goes on dry, at the start.
    """
    key = "smoke-wood"
    return FireTask(
        key,
        say("Lay {m} of dry wood on the fire: a reminder, not computed", m=as_poured(smoke_wood(minutes))),
        pr.FEED,
        hands=False,
        at_grate=False,
        waits=((key, first_wave, 0, pr.SMOKE_BEFORE_MIN),),
    )
