"""The formula: the design of one dish. Plain values; nothing here is computed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Gt, Le, Len

from vianda.core.basis.bounds import Key, KeyOrEmpty, MassG, Minutes, Name, Seconds, Share, TempC
from vianda.core.schedule.model import MOST_COOKS

Packing = Literal["loose", "light", "firm"]
Ends = Literal["round", "blunt", "square"]
Dish = Literal["burger", "meatball", "meatloaf", "sauce"]
Portioning = Literal["by_piece", "by_batch", "by_weights"]
Remainder = Literal["first", "last", "bowl"]
Edges = Literal["rounded", "ragged"]
Firmness = Literal["soft", "chilled", "frozen"]
SaltPlace = Literal["surface", "mixed", "none"]
Keep = Literal["fresh", "made-ahead", "frozen"]
Work = Literal["spoon", "hand", "processor"]
StageKind = Literal["chill", "freeze", "surface", "indirect", "smoke", "oven", "broiler", "fry", "simmer"]
Until = Literal["time", "two-fifths", "core"]
PanFat = Literal["", "oil", "clarified-butter", "butter", "dripping", "bacon-fat"]
Resting = Literal["open", "foil"]
Limit = Literal[
    "no-pork",
    "no-beef",
    "halal",
    "no-dairy",
    "no-gluten",
    "no-egg",
    "no-nuts",
    "no-soy",
    "no-fish",
    "no-sesame",
    "no-celery",
    "no-mustard",
    "no-sulphites",
    "no-alcohol",
    "no-onion",
    "no-garlic",
    "less-fat",
    "less-sugar",
    "less-salt",
]

# What a thing beside the meat is for.
Role = Literal[
    "burger-sauce",
    "glaze",
    "cooking-sauce",
    "sauce-base",
    "gravy",
    "relish",
    "pickle",
    "ferment",
    "soft-onions",
    "side",
    "topping",
]
LayerKind = Literal[
    "heel",
    "crown",
    "club",
    "patty",
    "cheese",
    "sauce",
    "leaf",
    "tomato",
    "onion",
    "soft-onion",
    "pickle",
    "relish",
    "bacon",
    "egg",
    "mushroom",
    "pepper",
    "other",
]

# Layers that are bread: where one lies in a build, its bread is eaten.
BREAD_LAYERS: frozenset[LayerKind] = frozenset({"heel", "crown", "club"})
HEAVIEST_BATCH_G = 1_000_000
MOST_PER_MEAT = 5.0
MOST_SALT_FRAC = 0.05
LONGEST_NAME = 80
LONGEST_REMARK = 2000
MOST_MEATS = 8
MOST_LINES = 24
MOST_STAGES = 12
MOST_BESIDE = 12
MOST_LAYERS = 24
MOST_OWN_TASKS, MOST_PINS, MOST_AWAY = 30, 60, 60
# Work begins whenever it has to.
WHENEVER = -1


@dataclass(frozen=True, slots=True)
class DishChoice:
    """What it is, for how many, how many pieces each; ``guests_per_piece`` share one, as they do a loaf.

    ``spare_pieces`` are made over and above (or, below zero, left out).
    """

    dish: Dish
    style: Key
    guests: Annotated[int, Ge(1), Le(100_000)]
    pieces_per_guest: Annotated[int, Ge(1), Le(1000)]
    guests_per_piece: Annotated[int, Ge(1), Le(1000)] = 1
    spare_pieces: Annotated[int, Ge(-1000), Le(1000)] = 0

    @property
    def pieces(self) -> int:
        """Pieces in the batch: guests × pieces each ÷ guests who share one, rounded up, and the spare ones."""
        return -(-self.guests * self.pieces_per_guest // self.guests_per_piece) + self.spare_pieces


@dataclass(frozen=True, slots=True)
class BlendPart:
    """One meat and its share of the batch, 0–1. A locked share stays when others move. ``lot`` "" means any."""

    meat: Key
    share_frac: Share
    locked: bool = False
    lot: KeyOrEmpty = ""


@dataclass(frozen=True, slots=True)
class Grind:
    """How the meat is cut up, on which of the kitchen's tools ("" lets the plan choose), and when it is used."""

    tool: KeyOrEmpty = ""
    keep: Keep = "fresh"
    services_per_week: Annotated[int, Ge(1), Le(50)] = 1


@dataclass(frozen=True, slots=True)
class MixLine:
    """One ingredient of the mix by mass of the raw meat (0–5).

    ``uncertainty_frac`` is the half range that the way of measuring brings. ``temp_c`` None means where it usually
    stands. ``counted``: whole pieces are taken, never part of one.
    ``filling``: it lies whole in the middle and is not mixed in.
    """

    ingredient: Key
    per_meat_frac: Annotated[float, Ge(0), Le(MOST_PER_MEAT)]
    locked: bool = False
    uncertainty_frac: Annotated[float, Ge(0), Le(10)] = 0.0
    temp_c: TempC | None = None
    counted: bool = False
    filling: bool = False


@dataclass(frozen=True, slots=True)
class Mix:
    """What goes into the meat, and how it is worked: minutes of soaking and chilling, temperature of the meat.

    ``avoid`` are limits that the formula must keep; ``without`` names single ingredients and meats that stay out.
    """

    lines: Annotated[tuple[MixLine, ...], Len(0, MOST_LINES)] = ()
    meat_temp_c: TempC = 3.0
    soak_min: Minutes = 15.0
    chill_min: Minutes = 45.0
    work: Work = "hand"
    work_s: Annotated[float, Ge(0), Le(10_000)] = 90.0
    avoid: Annotated[tuple[Limit, ...], Len(0, 19)] = ()
    without: Annotated[tuple[Key, ...], Len(0, 40)] = ()


@dataclass(frozen=True, slots=True)
class Seasoning:
    """Salt by mass of the raw meat, 0–1, and where it goes. It is all the salt wanted, from whatever brings it."""

    salt_frac: Share
    salt_place: SaltPlace


@dataclass(frozen=True, slots=True)
class Shape:
    """How the batch is divided, and the size of the raw piece.

    ``by_piece``: the wanted piece decides the batch. ``by_batch``: the batch at hand decides the piece.
    ``by_weights``: both decide how many there are. All are kept, so that switching back and forth loses nothing.
    ``remainder``: who gets the grams that do not divide. ``loss_g`` stays on bowl and gloves. ``mould`` is the tin,
    tray, scoop or ring it is shaped in, "" for none; ``width_mm`` of a loaf, 0 for the style's. ``packing`` "" is the
    style's.
    """

    portioning: Portioning
    piece_mass_g: MassG
    batch_mass_g: MassG
    thickness_mm: Annotated[float, Gt(0), Le(1000)]
    bun: Key
    mould: KeyOrEmpty = ""
    width_mm: Annotated[float, Ge(0), Le(1000)] = 0.0
    ends: Ends = "blunt"
    packing: Packing | Literal[""] = ""
    rim_mm: Annotated[float, Ge(0), Le(200)] = 12.0
    loss_g: Annotated[float, Ge(0), Le(100_000)] = 0.0
    remainder: Remainder = "first"
    edges: Edges = "rounded"
    papers: bool = False
    firmness: Firmness = "chilled"


@dataclass(frozen=True, slots=True)
class HeatStage:
    """One stage of a cook: where it lies, and what ends it.

    ``chill`` and ``freeze`` come before the heat, in a fridge or a freezer. ``surface`` is the formula's own. It ends
    after ``time_s``, when two fifths are cooked, or with the core wanted; ``time_s`` is then not looked at. ``temp_c``
    None is the formula's temperature, or the usual one of its kind. ``flip``: it begins by turning the piece over;
    ``turn_every_s`` above zero turns it that often. ``press``: with a weight or a press. ``cover``: a lid with steam.
    ``cheese``: a slice on top. ``glaze``: a coat on top.
    """

    kind: StageKind
    until: Until
    time_s: Seconds = 0.0
    temp_c: TempC | None = None
    flip: bool = False
    turn_every_s: Seconds = 0.0
    press: bool = False
    cover: bool = False
    cheese: bool = False
    glaze: bool = False


@dataclass(frozen=True, slots=True)
class Heat:
    """Where it cooks, how hot the surface is meant to be, the core wanted, and the way there.

    ``stages`` empty: those of ``method``, which "" makes the style's own. ``fat`` lies in the pan.
    ``cheese`` and ``glaze`` are the ingredients meant where a stage lays a slice on or brushes a coat.
    """

    surface: Key
    surface_temp_c: TempC
    target_core_temp_c: TempC
    method: KeyOrEmpty = ""
    stages: Annotated[tuple[HeatStage, ...], Len(0, MOST_STAGES)] = ()
    fat: PanFat = ""
    resting: Resting = "open"
    cheese: Key = "processed-cheese"
    glaze: Key = "ketchup"


@dataclass(frozen=True, slots=True)
class Accompaniment:
    """What goes with it: an ingredient or a house formula, what it is for, and grams a portion.

    A portion is a guest's. ``made_g`` is how much is made at once, 0 for what the guests need; ``coats`` of a glaze.
    """

    role: Role
    ingredient: Key
    dose_g: Annotated[float, Ge(0), Le(5000)]
    made_g: Annotated[float, Ge(0), Le(1_000_000)] = 0.0
    coats: Annotated[int, Ge(0), Le(12)] = 0


@dataclass(frozen=True, slots=True)
class StackLayer:
    """One layer of what is built, from below: what it is, which ingredient, and its grams in one build.

    ``mass_g`` 0 is the usual mass of its kind. ``toasted`` of bread: its cut face is crisp.
    """

    kind: LayerKind
    ingredient: KeyOrEmpty = ""
    mass_g: Annotated[float, Ge(0), Le(2000)] = 0.0
    toasted: bool = False


@dataclass(frozen=True, slots=True)
class OwnTask:
    """Something the cook does besides: roots, greens, the table.

    ``hands``: somebody stands at it. ``surface`` is what of the kitchen it takes, "" for nothing; ``oven_c`` the heat
    an oven must have. ``hot``: it is eaten hot, so it ends shortly before serving.
    """

    key: Key
    title: Name
    minutes: Annotated[float, Ge(1), Le(1440)]
    hands: bool = True
    surface: KeyOrEmpty = ""
    oven_c: TempC | None = None
    hot: bool = False


@dataclass(frozen=True, slots=True)
class Pin:
    """A task that begins when the cook says, minutes from serving."""

    task: Key
    start_min: Annotated[int, Ge(-45 * 1440), Le(720)]


@dataclass(frozen=True, slots=True)
class Away:
    """A cook, from 1, who is not there from one minute to another, both from midnight of the day; below 0: before."""

    cook: Annotated[int, Ge(1), Le(MOST_COOKS)]
    from_min: Annotated[int, Ge(-1440), Le(2880)]
    to_min: Annotated[int, Ge(-1440), Le(2880)]


@dataclass(frozen=True, slots=True)
class Timing:
    """When it is on the plate, minutes from midnight; how many cooks; own tasks; what is pinned; who is away.

    ``opens_min`` is when work can begin that day, minutes from midnight; −1: whenever it has to.
    """

    ready_min: Annotated[int, Ge(0), Le(1439)] = 18 * 60 + 30
    cooks: Annotated[int, Ge(1), Le(MOST_COOKS)] = 1
    opens_min: Annotated[int, Ge(-1), Le(1439)] = WHENEVER
    own: Annotated[tuple[OwnTask, ...], Len(0, MOST_OWN_TASKS)] = ()
    pins: Annotated[tuple[Pin, ...], Len(0, MOST_PINS)] = ()
    away: Annotated[tuple[Away, ...], Len(0, MOST_AWAY)] = ()


@dataclass(frozen=True, slots=True)
class Formula:
    """The design of one dish, complete enough to be evaluated."""

    name: Name
    dish: DishChoice
    parts: Annotated[tuple[BlendPart, ...], Len(1, MOST_MEATS)]
    seasoning: Seasoning
    shape: Shape
    heat: Heat
    remark: Annotated[str, Len(0, LONGEST_REMARK)] = ""
    grind: Grind = Grind()
    mix: Mix = Mix()
    beside: Annotated[tuple[Accompaniment, ...], Len(0, MOST_BESIDE)] = ()
    stack: Annotated[tuple[StackLayer, ...], Len(0, MOST_LAYERS)] = ()
    timing: Timing = Timing()
