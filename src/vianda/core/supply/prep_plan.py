"""The prep plan of a span: what is made on which day, how much at once, for which days, and how long the hands take."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.stocked import Stocked
from vianda.core.schedule.lot_sizes import LotItem, Making, lot_sizes
from vianda.core.supply.made_ahead import (
    COOKED_SOFT,
    CUT_MIN_PER_KG,
    GRINDER_SET_UP_MIN,
    GROUND_KEEPS_DAYS,
    JAR_KEEPS_DAYS,
    STATION_TITLES,
    STIRRED,
    GroundBlend,
    Way,
)
from vianda.core.supply.needs import RAW, made_of
from vianda.core.supply.occurrences import check_span
from vianda.core.supply.shopping import Make

# Hands of a kilogram that is thrown away, and of one kept a day: they weigh spare and age against minutes. Ours.
SPARE_MIN_PER_KG, KEPT_MIN_PER_KG_DAY = 15.0, 0.2
MOST_DAY_MIN = 24 * 60.0
# Less is dust of sums, g.
DUST_G = 0.5


@dataclass(frozen=True, slots=True)
class ForDay:
    """So much of what is made, for a day, g."""

    day: date
    mass_g: float


@dataclass(frozen=True, slots=True)
class PrepLine:
    """One thing made on one day.

    ``mass_g`` is made in ``batches`` of ``batch_g`` (0: any amount), ``spare_g`` of it nobody asked for. It is ready on
    ``ready`` and used by ``use_by``. ``minutes`` are of hands. ``late``: the first of ``for_days`` comes too soon.
    """

    key: str
    name: str
    station: str
    mass_g: float
    spare_g: float
    batches: int
    batch_g: float
    minutes: float
    ready: date
    use_by: date
    for_days: tuple[ForDay, ...]
    dishes: tuple[str, ...]
    late: bool


@dataclass(frozen=True, slots=True)
class PrepDay:
    """One day's list, by station; ``over_min`` is what it has beyond the limit."""

    day: date
    minutes: float
    over_min: float
    lines: tuple[PrepLine, ...]


@dataclass(frozen=True, slots=True)
class PrepPlan:
    """A list for every day on which something is made.

    ``apart_min`` and ``apart`` are minutes and makings if everything were made anew for each day. ``spare_g`` is what
    whole batches leave over.
    """

    days: tuple[PrepDay, ...]
    minutes: float
    makings: int
    apart_min: float
    apart: int
    spare_g: float
    remarks: tuple[Phrase, ...]


@dataclass(frozen=True, slots=True)
class _Thing:
    """What is made, and how; its days are kept apart, because they move."""

    key: str
    name: str
    way: Way
    keeps_days: int
    batch_g: float
    dishes: tuple[str, ...]


def prep_plan(
    makes: Iterable[Make],
    grounds: Iterable[tuple[date, GroundBlend]],
    *,
    first: date,
    last: date,
    inventory: Inventory,
    ways: Mapping[str, Way] | None = None,
    stock: Sequence[Stocked] = (),
    day_min: float = 0.0,
) -> PrepPlan:
    """When to make what for a span of days: at least work and waste, and nothing longer than it keeps.

    Parameters
    ----------
    makes : Iterable[Make]
        What has to be made for each day beyond what is there.
    grounds : Iterable[tuple[date, GroundBlend]]
        Meat that is ground here, with the day on which it is cooked.
    first : date
        The first day on which anything can be made.
    last : date
        The last one.
    inventory : Inventory
        The pantry with what house formulas are made of.
    ways : Mapping[str, Way] | None, default None
        How things are made, by key; others are stirred, or cooked soft.
    stock : Sequence[Stocked], default ()
        The packs of what is made are its batches.
    day_min : float, default 0
        Hands for prep on one day, minutes (0–1440); 0: no limit.

    Returns
    -------
    PrepPlan
        What goes into something else is made by the day on which that is made.

    Raises
    ------
    OutOfRangeError
        A span that ends before it begins or is too long; minutes out of range.

    References
    ----------
    ``schedule.lot_sizes``; minutes of ``supply.made_ahead``.
    """
    check_span(first, last)
    if not 0.0 <= day_min <= MOST_DAY_MIN:
        raise OutOfRangeError(f"A day has 0 to {MOST_DAY_MIN:.0f} min.", field="/day_min")
    sheet = _Sheet(first, last, day_min)
    sheet.note_grounds(grounds)
    sheet.note_makes((m for m in makes if m.mass_g > DUST_G), ways or {}, stock)
    for level in _levels(sheet.things, inventory):
        sheet.plan(level, inventory)
    return sheet.summed()


class _Sheet:
    """What is wanted on which day, and the lists that fill while one level after the other is planned."""

    def __init__(self, first: date, last: date, day_min: float) -> None:
        self.days = [first + timedelta(days=n) for n in range((last - first).days + 1)]
        self.day_min = day_min
        # Minutes that are left on each day.
        self.left = [day_min] * len(self.days)
        self.over = [0.0] * len(self.days)
        self.things: dict[str, _Thing] = {}
        self.wanted: dict[str, dict[date, float]] = {}
        self.lines: dict[date, list[PrepLine]] = {}
        self.apart: list[float] = []

    def note_grounds(self, grounds: Iterable[tuple[date, GroundBlend]]) -> None:
        for day, ground in grounds:
            # Two dishes' blends are not mixed.
            key = f"ground/{ground.key}"
            per_kg = CUT_MIN_PER_KG + 1000.0 * ground.minutes / ground.mass_g
            way = Way("grinder", GRINDER_SET_UP_MIN, per_kg)
            name = f"Ground meat for {ground.dish}"
            self._note(_Thing(key, name, way, GROUND_KEEPS_DAYS, 0.0, (ground.dish,)), day, ground.mass_g)

    def note_makes(self, makes: Iterable[Make], ways: Mapping[str, Way], stock: Sequence[Stocked]) -> None:
        batches = {s.key: s.pack for s in stock if s.kind == "thing"}
        for make in makes:
            way = ways.get(make.key, COOKED_SOFT if make.key in RAW else STIRRED)
            batch = batches.get(make.key, 0.0)
            keeps = max(make.keeps_days, JAR_KEEPS_DAYS) if way.ready_days else make.keeps_days
            self._note(_Thing(make.key, make.name, way, keeps, batch, make.dishes), make.day, make.mass_g)

    def _note(self, thing: _Thing, day: date, mass_g: float) -> None:
        before = self.things.get(thing.key, thing)
        dishes = tuple(dict.fromkeys((*before.dishes, *thing.dishes)))
        self.things[thing.key] = replace(thing, dishes=dishes)
        wanted = self.wanted.setdefault(thing.key, {})
        wanted[day] = wanted.get(day, 0.0) + mass_g
        self.apart.append(thing.way.set_up_min + thing.way.per_kg_min * mass_g / 1000.0)

    def plan(self, level: Sequence[str], inventory: Inventory) -> None:
        """Put the things of one level on their days, and what goes into them on the day on which they are made."""
        items = [self._item(self.things[key], self.wanted[key]) for key in level]
        found = lot_sizes(items, limits=self.left if self.day_min > 0.0 else None)
        for making in found.makings:
            thing, day = self.things[level[making.item]], self.days[making.day]
            line = self._line(thing, making)
            self.lines.setdefault(day, []).append(line)
            self.left[making.day] = max(0.0, self.left[making.day] - line.minutes)
            # With what whole batches leave over.
            whole = line.mass_g / (line.mass_g - line.spare_g)
            for part in line.for_days:
                self._redate(thing.key, part.mass_g * whole, part.day, day, inventory)
        self.over = [a + b for a, b in zip(self.over, found.over, strict=True)]

    def _item(self, thing: _Thing, wanted: Mapping[date, float]) -> LotItem:
        return LotItem(
            demands=tuple(wanted.get(day, 0.0) / 1000.0 for day in self.days),
            set_up=(thing.way.set_up_min,) * len(self.days),
            hold=KEPT_MIN_PER_KG_DAY,
            keeps=thing.keeps_days - thing.way.ready_days,
            lead=thing.way.ready_days,
            batch=thing.batch_g / 1000.0,
            spare=SPARE_MIN_PER_KG,
            unit=thing.way.per_kg_min,
        )

    def _line(self, thing: _Thing, making: Making) -> PrepLine:
        day, made = self.days[making.day], 1000.0 * making.amount
        return PrepLine(
            key=thing.key,
            name=thing.name,
            station=STATION_TITLES[thing.way.station],
            mass_g=made,
            spare_g=max(0.0, made - 1000.0 * sum(amount for _, amount in making.for_days)),
            batches=making.batches,
            batch_g=thing.batch_g,
            minutes=thing.way.set_up_min * making.batches + thing.way.per_kg_min * making.amount,
            ready=day + timedelta(days=thing.way.ready_days),
            use_by=day + timedelta(days=thing.keeps_days),
            for_days=tuple(ForDay(self.days[d], 1000.0 * amount) for d, amount in making.for_days),
            dishes=thing.dishes,
            late=making.late,
        )

    def _redate(self, outer: str, mass_g: float, day: date, made_on: date, inventory: Inventory) -> None:
        """What goes into a thing is wanted when that is made, not when it is eaten."""
        if day == made_on or outer not in inventory.pantry:
            return
        for key, grams in made_of(outer, mass_g, pantry=inventory.pantry):
            wanted = self.wanted.get(key, {})
            moved = min(grams, wanted.get(day, 0.0))
            if moved > 0.0:
                wanted[day] -= moved
                wanted[made_on] = wanted.get(made_on, 0.0) + moved

    def summed(self) -> PrepPlan:
        listed = tuple(
            PrepDay(day, sum(x.minutes for x in lines), self.over[n], tuple(sorted(lines, key=_place)))
            for n, day in enumerate(self.days)
            if (lines := self.lines.get(day))
        )
        return PrepPlan(
            days=listed,
            minutes=sum(d.minutes for d in listed),
            makings=sum(line.batches for d in listed for line in d.lines),
            apart_min=sum(self.apart),
            apart=len(self.apart),
            spare_g=sum(line.spare_g for d in listed for line in d.lines),
            remarks=tuple(_remarks(listed, self.day_min)),
        )


def _levels(things: Mapping[str, _Thing], inventory: Inventory) -> Iterator[list[str]]:
    """Things in the order of planning: what goes into others comes after them."""
    held = {key: {k for k, _ in made_of(key, 1.0, pantry=inventory.pantry)} for key in things}
    waiting = list(things)
    while waiting:
        within = {k for key in waiting for k in held[key]}
        # A circle is refused where a house formula is written down; here it would only never end.
        level = [key for key in waiting if key not in within] or waiting
        yield level
        waiting = [key for key in waiting if key not in level]


def _place(line: PrepLine) -> tuple[int, str]:
    return list(STATION_TITLES.values()).index(line.station), line.name.casefold()


def _remarks(days: Sequence[PrepDay], day_min: float) -> Iterator[Phrase]:
    for day in days:
        for line in day.lines:
            if line.late:
                yield say(
                    "“{what}” takes {n} until it can be eaten, and the first of it is wanted before. "
                    "Plan from an earlier day, or buy it this once.",
                    what=ph.word(line.name),
                    n=ph.word("1 day" if (line.ready - day.day).days == 1 else f"{(line.ready - day.day).days} days"),
                )
        if day.over_min > 0.5:
            yield say(
                "{day}: {over} more than the {most} a day. Nothing can be made on another day and still keep.",
                day=ph.word(f"{day.day:%A} {day.day.day}"),
                over=ph.minutes(day.over_min),
                most=ph.minutes(day_min),
            )
