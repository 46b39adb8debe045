"""What has to be bought for the services of a span: less what is there, in packs, with what is left over."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from decimal import Decimal

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Group, PieceMass
from vianda.core.model.stocked import ItemKind, Stocked
from vianda.core.supply.blends import blend_key, blends_of
from vianda.core.supply.needs import Need, made_of
from vianda.core.supply.sharing import Blend, Sharing, shared_out

# Where a shop has it: ours, by its group; a kitchen says otherwise for its own.
SHELVES: Mapping[Group, str] = {
    "crumb": "Dry goods",
    "bread": "Bread",
    "starch": "Dry goods",
    "liquid": "Dairy and eggs",
    "egg": "Dairy and eggs",
    "white": "Dairy and eggs",
    "filling": "Dairy and eggs",
    "cheese": "Dairy and eggs",
    "onion": "Vegetables and herbs",
    "vegetable": "Vegetables and herbs",
    "tomato": "Jars and tins",
    "herb": "Vegetables and herbs",
    "spice": "Spices and salt",
    "sauce": "Jars and tins",
    "salt": "Spices and salt",
    "fat": "Oils and fats",
    "sweet": "Dry goods",
    "acid": "Oils and fats",
}
SHELF_ORDER = (
    "Meat", "Vegetables and herbs", "Dairy and eggs", "Bread", "Dry goods", "Jars and tins", "Oils and fats",
    "Spices and salt",
)  # fmt: skip
# Less than this is in every kitchen's drawer and no reason to go to a shop: dust of sums, g or pieces.
NOTHING = 0.005
# Vegetables cooked ahead and kept cold: common practice, no published source.
COOKED_KEEPS_DAYS = 3
MOST_COUNTED = 60
# Bought nowhere.
FROM_THE_TAP = frozenset({"water"})

Item = tuple[ItemKind, str]


@dataclass(frozen=True, slots=True)
class Demand:
    """What one day takes."""

    day: date
    needs: tuple[Need, ...]


@dataclass(frozen=True, slots=True)
class LotUse:
    """So many grams out of a lot."""

    key: str
    name: str
    mass_g: float
    use_by: date | None


@dataclass(frozen=True, slots=True)
class ShopLine:
    """One thing of the list: grams, of bread pieces.

    ``needed`` is what the dishes take, ``used`` what of it is there already, ``par_short`` what is lacking to what
    always should be there, ``buy`` what is bought for both; ``packs`` of ``pack`` are ``bought`` (0 packs: loose), and
    ``left_over`` remains. ``order_by`` is the day before which it must be ordered. ``instead`` names a lot that was
    asked for and did not suffice. ``price`` is of a kilogram, or of one bread. ``about`` says how many pieces that is.
    """

    kind: ItemKind
    key: str
    name: str
    needed: float
    used: float
    par_short: float
    buy: float
    pack: float
    packs: int
    bought: float
    left_over: float
    cost: Decimal
    priced: bool
    supplier: str
    shelf: str
    first_day: date
    order_by: date
    dishes: tuple[str, ...]
    lots: tuple[LotUse, ...]
    instead: str
    price: Decimal
    about: Phrase | None = None


@dataclass(frozen=True, slots=True)
class Make:
    """What is made in the kitchen for a day, a house formula or onions cooked soft: how much beyond what is there, how
    long it keeps, and for which dishes (none: to what always should be there)."""

    key: str
    name: str
    mass_g: float
    day: date
    keeps_days: int
    dishes: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Unused:
    """A lot that passes its day within the span with some of it left."""

    key: str
    name: str
    left_g: float
    use_by: date


@dataclass(frozen=True, slots=True)
class FromLot:
    """So many grams of a lot for one dish of a day."""

    dish: str
    day: date
    meat: str
    lot: str
    mass_g: float


@dataclass(frozen=True, slots=True)
class Strayed:
    """A dish whose fat its lots cannot keep: what it has then and what it was to have, 0–1."""

    dish: str
    day: date
    fat_frac: float
    wanted_frac: float


@dataclass(frozen=True, slots=True)
class LotWorth:
    """What a kilogram more of a lot would save of what is bought, currency units."""

    lot: str
    per_kg: float


@dataclass(frozen=True, slots=True)
class Shopping:
    """Everything to buy, by shelf and name; what is made here; what would be thrown away; the money.

    ``from_lots`` says which lot goes into which dish, ``strayed`` what then has another fat than it was to have,
    ``worths`` what more of a lot would save, the dearest first.
    """

    lines: tuple[ShopLine, ...]
    makes: tuple[Make, ...]
    unused: tuple[Unused, ...]
    cost: Decimal
    unpriced: int
    from_lots: tuple[FromLot, ...] = ()
    strayed: tuple[Strayed, ...] = ()
    worths: tuple[LotWorth, ...] = ()


@dataclass
class _Tally:
    """What is gathered for one thing while the days pass."""

    name: str
    first_day: date
    needed: float = 0.0
    used: float = 0.0
    dishes: list[str] = field(default_factory=list)
    lots: dict[str, float] = field(default_factory=dict)
    instead: str = ""


class _Store:
    """What is there, and what the days take out of it, the earliest day first."""

    def __init__(self, inventory: Inventory, stock: Mapping[Item, Stocked], sharing: Sharing) -> None:
        self.inventory = inventory
        # Grams of lots that are meant for a portion, by its blend, its meat and the lot it asked for.
        self.meant: dict[tuple[str, str, str], list[tuple[str, float]]] = {}
        for share in sharing.shares:
            if share.lot:
                at = (share.blend, share.meat, share.asked)
                self.meant.setdefault(at, []).append((share.lot, share.mass_g))
        for (_, _, asked), meant in self.meant.items():
            meant.sort(key=lambda x: (x[0] != asked, inventory.lots[x[0]].use_by or date.max, x[0]))
        self.lots = {k: x.left_mass_g for k, x in inventory.lots.items() if not x.closed and x.left_mass_g > 0.0}
        self.left = {item: s.on_hand for item, s in stock.items()}
        self.tallies: dict[Item, _Tally] = {}
        self.makes: dict[tuple[str, date], float] = {}
        self.made_for: dict[tuple[str, date], list[str]] = {}

    def take(self, need: Need, day: date, at: int) -> None:
        """One need of the demand of that place: from lots, from what is counted, and the rest is made or bought."""
        item = (need.kind, need.key)
        if need.key in FROM_THE_TAP:
            return
        tally = self.tallies.setdefault(item, _Tally(need.name, day))
        tally.needed += need.amount
        if need.dish and need.dish not in tally.dishes:
            tally.dishes.append(need.dish)
        lacking, own = need.amount, 0.0
        meant = self.meant.get((blend_key(at, need.dish), need.key, need.lot), []) if need.kind == "meat" else []
        while meant and lacking > 0.0:
            key, grams = meant.pop(0)
            took = min(lacking, grams, self.lots[key])
            if lacking - took <= 0.0 < grams - took:
                # The same portion twice in one service: the rest is for the other.
                meant.insert(0, (key, grams - took))
            self.lots[key] -= took
            tally.lots[key] = tally.lots.get(key, 0.0) + took
            lacking -= took
            own += took if key == need.lot else 0.0
        # Another lot has another fat: that it stands in is told, whether or not anything is bought.
        if need.lot and need.amount - own > NOTHING:
            tally.instead = self.inventory.lots[need.lot].name if need.lot in self.inventory.lots else need.lot
        took = min(lacking, self.left.get(item, 0.0))
        if took > 0.0:
            self.left[item] -= took
            lacking -= took
        tally.used += need.amount - lacking
        parts = made_of(need.key, lacking, pantry=self.inventory.pantry) if lacking > NOTHING else ()
        if parts and need.kind == "thing":
            # What is made here is not bought; what goes into it is.
            self.makes[need.key, day] = self.makes.get((need.key, day), 0.0) + lacking
            dishes = self.made_for.setdefault((need.key, day), [])
            if need.dish and need.dish not in dishes:
                dishes.append(need.dish)
            tally.used += lacking
            for key, grams in parts:
                thing = self.inventory.pantry.get(key)
                self.take(Need("thing", key, thing.name if thing else key, grams, need.dish), day, at)

    def fill_up(self, item: Item, par: float, name: str, day: date, at: int) -> None:
        """What always should be there of a thing that is made here, made for the last day."""
        lacking = par - self.left.get(item, 0.0)
        if lacking > NOTHING and item[0] == "thing" and made_of(item[1], lacking, pantry=self.inventory.pantry):
            # What is there stays there: only what is lacking is asked for.
            kept = self.left.pop(item, 0.0)
            self.take(Need("thing", item[1], name, lacking, ""), day, at)
            self.left[item] = kept + lacking

    def whole_batches(self, packs: Mapping[str, float], at: int) -> None:
        """What is made in whole batches takes what goes into whole ones."""
        for key, pack in packs.items():
            days = [day for made, day in self.makes if made == key]
            grams = math.fsum(self.makes[key, day] for day in days)
            spare = math.ceil(grams / pack - 1e-9) * pack - grams
            if days and spare > NOTHING:
                for part, mass_g in made_of(key, spare, pantry=self.inventory.pantry):
                    thing = self.inventory.pantry.get(part)
                    self.take(Need("thing", part, thing.name if thing else part, mass_g, ""), max(days), at)


def shopping(
    demands: Iterable[Demand], *, inventory: Inventory, kitchen: Kitchen, stock: Sequence[Stocked] = ()
) -> Shopping:
    """What has to be bought for the days given.

    Parameters
    ----------
    demands : Iterable[Demand]
        What each day takes, in any order.
    inventory : Inventory
        The meats, lots and ingredients.
    kitchen : Kitchen
        Its breads have their prices.
    stock : Sequence[Stocked], default ()
        What is there of what lies in no lot, how it is sold, and how much always should be there.

    Returns
    -------
    Shopping
        By shelf and name. Lots are shared out so that the least is bought and every dish keeps its fat, and what must
        be used first is used first.

    References
    ----------
    ``supply.sharing``; first expired, first out: common practice. Whole packs: ceil(shortfall ÷ pack).
    """
    kept = {(s.kind, s.key): s for s in stock}
    days = sorted(demands, key=lambda d: d.day)
    blends = blends_of([(d.day, d.needs) for d in days], inventory=inventory)
    sharing = shared_out(blends, inventory=inventory)
    store = _Store(inventory, kept, sharing)
    for at, demand in enumerate(days):
        for need in demand.needs:
            store.take(need, demand.day, at)
    if days:
        for item, s in kept.items():
            if s.par > 0.0:
                store.fill_up(item, s.par, _name(item, inventory, kitchen), days[-1].day, len(days))
        for item, s in kept.items():
            # What always should be there is bought even in a week that takes none of it.
            if s.par > store.left.get(item, 0.0) and item not in store.tallies:
                store.tallies[item] = _Tally(_name(item, inventory, kitchen), days[0].day)
    store.whole_batches({key: s.pack for (kind, key), s in kept.items() if kind == "thing" and s.pack > 0.0}, len(days))
    lines = [_line(item, t, store, kept.get(item), inventory, kitchen) for item, t in store.tallies.items()]
    bought = [line for line in lines if line.needed > NOTHING or line.buy > NOTHING]
    bought.sort(key=lambda x: (_place(x.shelf), x.shelf, x.name.casefold(), x.key))
    last = days[-1].day if days else None
    unused = [
        Unused(lot.key, lot.name, store.lots[lot.key], lot.use_by)
        for lot in inventory.lots.values()
        if last and lot.key in store.lots and lot.use_by and lot.use_by <= last and store.lots[lot.key] > NOTHING
    ]
    makes = [
        Make(key, inventory.pantry[key].name, grams, day, _keeps(key, inventory), tuple(store.made_for[key, day]))
        for (key, day), grams in store.makes.items()
    ]
    return Shopping(
        tuple(bought),
        tuple(sorted(makes, key=lambda m: (m.day, m.name))),
        tuple(sorted(unused, key=lambda u: (u.use_by, u.name))),
        sum((x.cost for x in bought), Decimal(0)),
        sum(x.buy > NOTHING and not x.priced for x in bought),
        tuple(_from_lots(sharing, blends, inventory)),
        tuple(Strayed(b.name, b.day, sharing.fats[b.key], b.fat_frac) for b in blends if b.key in sharing.strays),
        tuple(
            LotWorth(inventory.lots[w.lot].name, w.per_kg)
            for w in sorted(sharing.worths, key=lambda w: (-w.per_kg, w.lot))
        ),
    )


def _from_lots(sharing: Sharing, blends: Sequence[Blend], inventory: Inventory) -> Iterator[FromLot]:
    by_key = {b.key: b for b in blends}
    for share in sharing.shares:
        if share.lot:
            blend, lot = by_key[share.blend], inventory.lots[share.lot]
            yield FromLot(blend.name, blend.day, inventory.meats[share.meat].name, lot.name, share.mass_g)


def _about(piece: PieceMass, bought_g: float) -> Phrase | None:
    """How many pieces that is: nine large eggs. Of sprigs and leaves nobody counts a hundred."""
    count = math.ceil(bought_g / piece.mass_g - 0.1)
    if count > MOST_COUNTED:
        return None
    return say("about {n} {what}", n=ph.count(count), what=ph.word(piece.name if count == 1 else f"{piece.name}s"))


def _keeps(key: str, inventory: Inventory) -> int:
    house = inventory.pantry[key].house
    return house.keeps_days if house else COOKED_KEEPS_DAYS


def _place(shelf: str) -> int:
    return SHELF_ORDER.index(shelf) if shelf in SHELF_ORDER else len(SHELF_ORDER)


def _name(item: Item, inventory: Inventory, kitchen: Kitchen) -> str:
    kind, key = item
    if kind == "meat":
        return inventory.meats[key].name if key in inventory.meats else key
    if kind == "bread":
        return next((b.name for b in kitchen.buns if b.key == key), key)
    return inventory.pantry[key].name if key in inventory.pantry else key


def _shelf(item: Item, inventory: Inventory) -> str:
    kind, key = item
    if kind == "meat":
        return "Meat"
    thing = inventory.pantry.get(key)
    return "Bread" if kind == "bread" or thing is None else SHELVES[thing.group]


def _price(item: Item, inventory: Inventory, kitchen: Kitchen) -> Decimal:
    """Per gram, or per piece of bread."""
    kind, key = item
    if kind == "bread":
        return next((b.price_each for b in kitchen.buns if b.key == key), Decimal(0))
    if kind == "meat":
        return inventory.meats[key].price_per_kg / 1000 if key in inventory.meats else Decimal(0)
    return inventory.pantry[key].price_per_kg / 1000 if key in inventory.pantry else Decimal(0)


def _line(
    item: Item, tally: _Tally, store: _Store, kept: Stocked | None, inventory: Inventory, kitchen: Kitchen
) -> ShopLine:
    kind, key = item
    short = max(0.0, tally.needed - tally.used)
    par_short = max(0.0, kept.par - store.left.get(item, 0.0)) if kept else 0.0
    buy = short + par_short if short + par_short > NOTHING else 0.0
    meat = inventory.meats.get(key) if kind == "meat" else None
    pack = (kept.pack if kept else 0.0) or (meat.pack_mass_g if meat else 0.0)
    packs = math.ceil(buy / pack - 1e-9) if pack > 0.0 else 0
    # Half a bun is not sold.
    bought = packs * pack if pack > 0.0 else float(math.ceil(buy - 1e-9)) if kind == "bread" else buy
    price = _price(item, inventory, kitchen)
    lots = [LotUse(k, inventory.lots[k].name, grams, inventory.lots[k].use_by) for k, grams in tally.lots.items()]
    piece = thing.pieces[0] if (thing := inventory.pantry.get(key)) and kind == "thing" and thing.pieces else None
    return ShopLine(
        kind=kind,
        key=key,
        name=tally.name,
        needed=tally.needed,
        used=tally.used,
        par_short=par_short,
        buy=buy,
        pack=pack,
        packs=packs,
        bought=bought,
        left_over=max(0.0, bought - buy),
        cost=(Decimal(repr(round(bought, 3))) * price).quantize(Decimal("0.01")),
        priced=price > 0,
        supplier=kept.supplier if kept else "",
        shelf=(kept.shelf if kept else "") or _shelf(item, inventory),
        first_day=tally.first_day,
        order_by=tally.first_day - timedelta(days=kept.lead_days if kept else 0),
        dishes=tuple(tally.dishes),
        lots=tuple(lots),
        instead=tally.instead,
        price=price if kind == "bread" else price * 1000,
        about=_about(piece, bought) if piece and bought > 0.0 else None,
    )
