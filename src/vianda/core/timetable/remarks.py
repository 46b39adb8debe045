"""Counsel of time: what a cook of long standing would say of a timetable, each with its figure and what to do."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.clock import DAY_MIN, clock_text
from vianda.core.schedule.chance import Chances
from vianda.core.schedule.model import Plan, Problem, Slot, Task, change_min
from vianda.core.timetable.fire_tasks import READY, SET

# The last stretch before the plate, and how much of it hands may be busy before a slip of any of them is late. Ours.
PEAK_MIN, PEAK_FRAC = 60, 0.9
# Hot food is at its best within minutes, and soft or dry after half an hour: common practice, no published source.
WAITS_MIN, HELD_MIN = 8.0, 30
# What a start time promises: plans aim a little above it.
NINE_OF_TEN_FRAC = 0.90
TOASTED = "toast-"
# A place that is taken nearly all the time from its first use to its last decides how long it takes. Ours.
NARROW_FRAC, NARROW_MIN = 0.85, 45
# From one dish to the other and back: so often in the last hour that something is forgotten. Ours.
MOST_SWITCHES = 6
# Nobody cooks before this hour of the day without saying so. Ours.
NIGHT_MIN = 5 * 60
# So much work at the bench in one go wants a pause or a second pair of hands. Ours.
LONGEST_STAND_MIN = 120
# So long at a simmer or in an oven without anybody at it is looked at in between. Ours.
UNWATCHED_MIN = 90
# A fire with no more than this to spare is gone when anything slips. Ours.
FIRE_SPARE_MIN = 10

Level = Literal["warn", "fact"]


@dataclass(frozen=True, slots=True)
class TimeRemark:
    """One remark on a timetable: its rule, how grave it is, what is so, and what to do."""

    key: str
    level: Level
    title: Phrase
    reason: Phrase


@dataclass(frozen=True, slots=True)
class _Case:
    problem: Problem
    plan: Plan
    found: Chances
    ready_min: int

    @property
    def tasks(self) -> Mapping[str, Task]:
        return {t.key: t for t in self.problem.tasks}

    def clock(self, minute: int) -> ph.Amount:
        return ph.word(clock_text(self.ready_min + minute))

    def by_cook(self) -> dict[int, list[Slot]]:
        cooks: dict[int, list[Slot]] = {}
        for slot in sorted(self.plan.slots, key=lambda s: s.start_min):
            if slot.cook is not None:
                cooks.setdefault(slot.cook, []).append(slot)
        return cooks


def remarks_on(problem: Problem, plan: Plan, found: Chances, *, ready_min: int) -> tuple[TimeRemark, ...]:
    """What is worth saying about a timetable, warnings first.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    plan : Plan
        When each is done.
    found : Chances
        How surely it is on time.
    ready_min : int
        The hour on the plate, minutes from midnight.

    Returns
    -------
    tuple[TimeRemark, ...]
        At most one of each rule.

    References
    ----------
    Common practice, no published source; the figures of each rule: ours.
    """
    case = _Case(problem, plan, found, ready_min)
    said = [remark for rule in RULES for remark in rule(case)]
    return tuple(sorted(said, key=lambda r: r.level != "warn"))


def _unsure(case: _Case) -> Iterator[TimeRemark]:
    if case.plan.late_min == 0 and case.found.on_time_frac < NINE_OF_TEN_FRAC - 1e-9:
        yield TimeRemark(
            "unsure",
            "warn",
            say("On time on {p} of evenings", p=ph.frac(case.found.on_time_frac)),
            say(
                "One evening of ten it is {m} late or more. Begin earlier, or have one thing ready before.",
                m=ph.minutes(case.found.tenth_late_min),
            ),
        )


def _peak(case: _Case) -> Iterator[TimeRemark]:
    """Hands over-committed: no minute is left in the last hour for what goes wrong."""
    ends = max((s.end_min for s in case.plan.slots), default=0)
    busy = sum(
        max(0, min(s.end_min, ends) - max(s.start_min, ends - PEAK_MIN))
        for s in case.plan.slots
        if s.cook is not None and s.task != case.problem.last
    )
    there = PEAK_MIN * case.problem.cooks
    if busy > PEAK_FRAC * there + 1e-9:
        yield TimeRemark(
            "no-free-hand",
            "warn",
            say(
                "In the last hour hands are taken for {busy} of {there}",
                busy=ph.minutes(float(busy)),
                there=ph.minutes(float(there)),
            ),
            say("Nothing may go wrong then. Put what keeps before it, or ask one more cook."),
        )


def _idle(case: _Case) -> Iterator[TimeRemark]:
    working = len(case.by_cook())
    # Whoever is away has something else to do.
    gone = len({a.cook for a in case.problem.away} - case.by_cook().keys())
    if case.problem.cooks - gone > max(working, 1):
        spare = case.problem.cooks - gone - working
        yield TimeRemark(
            "idle-cook",
            "fact",
            say("{n} with nothing to do", n=ph.word("One cook" if spare == 1 else f"{spare} cooks")),
            say("{n} can do all of it in time.", n=ph.word("One" if working == 1 else str(working))),
        )


def _waits(case: _Case) -> Iterator[TimeRemark]:
    # A loaf or a pot holds; what lies on bread does not.
    soft = any(TOASTED in t.key for t in case.problem.tasks)
    if soft and case.found.waits_hot_min > WAITS_MIN + 1e-9:
        yield TimeRemark(
            "waits-hot",
            "warn",
            say("Hot food waits {m} on average", m=ph.minutes(case.found.waits_hot_min)),
            say("Crust goes soft and bread takes up juice. Serve in waves, or ask one more cook for the last minutes."),
        )


def _held(case: _Case) -> Iterator[TimeRemark]:
    """The longest stretch between heat and plate, as planned."""
    slots = {s.task: s for s in case.plan.slots}
    longest = max(
        ((slots[x.after].start_min - slots[x.before].end_min, x) for x in case.problem.lags if x.hot),
        key=lambda found: found[0],
        default=None,
    )
    if longest is not None and longest[0] > HELD_MIN:
        minutes, lag = longest
        yield TimeRemark(
            "held-long",
            "warn",
            say("“{what}” is {m} before the plate", what=named(case.tasks[lag.before]), m=ph.minutes(float(minutes))),
            say("Keep it covered and hot, at your country's line for hot holding or above; measure it."),
        )


def _oven(case: _Case) -> Iterator[TimeRemark]:
    """One oven asked for two temperatures."""
    tasks = case.tasks
    for resource in case.problem.resources:
        heats = sorted(
            (s.start_min, s.task)
            for s in case.plan.slots
            if any(place == resource.key for place, _ in s.places) and tasks[s.task].oven_c is not None
        )
        for (_, a), (at, b) in pairwise(heats):
            before, after = tasks[a].oven_c or 0.0, tasks[b].oven_c or 0.0
            change = change_min(before, after)
            if change:
                yield TimeRemark(
                    "two-temperatures",
                    "fact",
                    say(
                        "{oven} goes from {a} to {b}", oven=ph.word(resource.title), a=ph.temp(before), b=ph.temp(after)
                    ),
                    say(
                        "Turn it at {at} at the latest: it takes {m}.",
                        at=case.clock(at - change),
                        m=ph.minutes(float(change)),
                    ),
                )
                return


def _fire(case: _Case) -> Iterator[TimeRemark]:
    """Charcoal gone before the last wave, or just after it."""
    for resource in case.problem.resources:
        mine = [s for s in case.plan.slots if any(place == resource.key for place, _ in s.places)]
        lit = min((s for s in mine if s.task.endswith(READY)), key=lambda s: s.end_min, default=None)
        if resource.lasts_min is None or lit is None:
            continue
        if any(t.key == lit.task.removesuffix(READY) + "feed-1" for t in case.problem.tasks):
            # It is fed: those tasks say when.
            continue
        gone = lit.end_min + resource.lasts_min
        ends = max(s.end_min for s in mine)
        fire = ph.word(resource.title)
        if ends > gone:
            yield TimeRemark(
                "fire-burns-down",
                "warn",
                say(
                    "{fire} is past its best at {at}, and is cooked on until {end}",
                    fire=fire,
                    at=case.clock(gone),
                    end=case.clock(ends),
                ),
                say(
                    "Light more by {at} and add it while the first still glows: it takes {m} to be ready.",
                    at=case.clock(gone - (lit.end_min - lit.start_min)),
                    m=ph.minutes(float(lit.end_min - lit.start_min)),
                ),
            )
            return
        if gone - ends < FIRE_SPARE_MIN:
            yield TimeRemark(
                "fire-to-spare",
                "fact",
                say("{fire} has {m} to spare after the last of it", fire=fire, m=ph.minutes(float(gone - ends))),
                say("When a wave slips, the fire is past its best. Have a few lit coals ready."),
            )
            return


def _narrow(case: _Case) -> Iterator[TimeRemark]:
    """A place that food is on nearly all the time is what a second one would help; two get hot no sooner than one."""
    for resource in case.problem.resources:
        mine = [
            s
            for s in case.plan.slots
            if any(place == resource.key for place, _ in s.places) and not s.task.endswith((READY, SET))
        ]
        if not mine:
            continue
        span = max(s.end_min for s in mine) - min(s.start_min for s in mine)
        taken = sum((s.end_min - s.start_min) for s in mine) / resource.places
        if span >= NARROW_MIN and taken >= NARROW_FRAC * span - 1e-9:
            yield TimeRemark(
                "narrow-place",
                "fact",
                say(
                    "{place} is taken for {taken} of {span}",
                    place=ph.word(resource.title),
                    taken=ph.minutes(float(taken)),
                    span=ph.minutes(float(span)),
                ),
                say("It decides how long it all takes: a second one is worth more than a second cook."),
            )
            return


def _torn(case: _Case) -> Iterator[TimeRemark]:
    tasks = case.tasks
    for cook, slots in sorted(case.by_cook().items()):
        last = [tasks[s.task].dish for s in slots if s.end_min > -PEAK_MIN and s.task != case.problem.last]
        switches = sum(a != b for a, b in pairwise(last))
        if switches > MOST_SWITCHES:
            yield TimeRemark(
                "torn",
                "warn",
                say(
                    "{who} goes from dish to dish {n} times in the last hour",
                    who=ph.word("The cook" if case.problem.cooks == 1 else f"Cook {cook + 1}"),
                    n=ph.count(switches),
                ),
                say("Something is forgotten on the heat. Bring one dish to where it holds, then do the other."),
            )
            return


def _days_ahead(case: _Case) -> Iterator[TimeRemark]:
    """What must be begun on a day before, the earliest first."""
    tasks = case.tasks
    early = min(
        (s for s in case.plan.slots if case.ready_min + s.start_min < 0), key=lambda s: s.start_min, default=None
    )
    if early is not None:
        days = -((case.ready_min + early.start_min) // DAY_MIN)
        yield TimeRemark(
            "days-ahead",
            "fact",
            say(
                "“{what}” begins {when}, at {at}",
                what=named(tasks[early.task]),
                when=ph.word("the day before" if days == 1 else f"{days} days before"),
                at=case.clock(early.start_min),
            ),
            say("Write it down for that day: on the day itself it is too late."),
        )


def _night(case: _Case) -> Iterator[TimeRemark]:
    tasks = case.tasks
    early = [
        s
        for s in case.plan.slots
        if s.cook is not None and tasks[s.task].when == "today" and 0 <= case.ready_min + s.start_min < NIGHT_MIN
    ]
    if early:
        first = min(early, key=lambda s: s.start_min)
        yield TimeRemark(
            "before-five",
            "warn",
            say("Work begins at {at}", at=case.clock(first.start_min)),
            say("Do what keeps the day before: weigh, cook onions, mix the dry things."),
        )


def _stands(case: _Case) -> Iterator[TimeRemark]:
    """Hands without a pause."""
    for cook, slots in sorted(case.by_cook().items()):
        begun = ended = None
        for slot in slots:
            if ended is None or begun is None or slot.start_min > ended:
                begun = slot.start_min
            ended = max(slot.end_min, ended or slot.end_min)
            if ended - begun > LONGEST_STAND_MIN:
                yield TimeRemark(
                    "no-pause",
                    "fact",
                    say(
                        "{who} has no pause for {m} from {at}",
                        who=ph.word("The cook" if case.problem.cooks == 1 else f"Cook {cook + 1}"),
                        m=ph.minutes(float(ended - begun)),
                        at=case.clock(begun),
                    ),
                    say("Meat warms while hands are slow: keep what is not in work in the cold."),
                )
                return


def _unwatched(case: _Case) -> Iterator[TimeRemark]:
    tasks = case.tasks
    long = [
        s
        for s in case.plan.slots
        if s.places and s.cook is None and tasks[s.task].when == "today" and s.end_min - s.start_min > UNWATCHED_MIN
    ]
    if long:
        slot = max(long, key=lambda s: (s.end_min - s.start_min, s.task))
        yield TimeRemark(
            "unwatched",
            "fact",
            say(
                "“{what}” is on the heat for {m} with nobody at it",
                what=named(tasks[slot.task]),
                m=ph.minutes(float(slot.end_min - slot.start_min)),
            ),
            say("Look at it half-way: water, colour, and whether it still simmers."),
        )


def _pinned(case: _Case) -> Iterator[TimeRemark]:
    if case.plan.late_min > 0 and case.problem.pinned:
        n = len(case.problem.pinned)
        yield TimeRemark(
            "pinned-late",
            "warn",
            say("{n} pinned, and the plate is late", n=ph.word("One task is" if n == 1 else f"{n} tasks are")),
            say("Let go of what need not be there: the plan finds its own place for it."),
        )


def _first_thing(case: _Case) -> Iterator[TimeRemark]:
    """No float at the very beginning: who comes late to the kitchen serves late."""
    today = [s for s in case.plan.slots if s.cook is not None and case.tasks[s.task].when == "today"]
    first = min(today, key=lambda s: (s.start_min, s.task), default=None)
    if first is None or case.plan.late_min > 0:
        return
    late = case.found.float_min[first.task]
    if late is not None and late < 5 and first.start_min < -PEAK_MIN:
        yield TimeRemark(
            "no-slack-at-start",
            "warn",
            say("Who begins later than {at} serves late", at=case.clock(first.start_min + late)),
            say("The first task of the day has {m} to spare. Begin a quarter of an hour before.", m=ph.minutes(late)),
        )


def named(task: Task) -> ph.Amount:
    """A task's name as a word in a sentence; a mass in it would stand there without the units of the screen.

    Parameters
    ----------
    task : Task
        The task.

    Returns
    -------
    Amount
        Its title without masses.
    """
    words = {
        k: "" if a.kind == "mass_g" else a.text if a.text is not None else f"{a.value:.0f}"
        for k, a in task.title.amounts.items()
    }
    return ph.word(" ".join(task.title.text.format(**words).split()))


RULES: tuple[Callable[[_Case], Iterator[TimeRemark]], ...] = (
    _unsure,
    _pinned,
    _peak,
    _first_thing,
    _torn,
    _waits,
    _held,
    _night,
    _days_ahead,
    _oven,
    _fire,
    _narrow,
    _stands,
    _unwatched,
    _idle,
)
