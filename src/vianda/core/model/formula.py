"""The formula: the design of one dish. Plain values; nothing here is computed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

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
Limit = Literal["no-pork", "no-dairy", "no-gluten", "less-fat", "less-sugar", "less-salt"]

HEAVIEST_BATCH_G = 1_000_000
MOST_PER_MEAT = 5.0
MOST_SALT_FRAC = 0.05
LONGEST_NAME = 80
LONGEST_REMARK = 2000
MOST_MEATS = 8
MOST_LINES = 24
MOST_STAGES = 12


@dataclass(frozen=True, slots=True)
class DishChoice:
    """What it is, for how many, how many pieces each; ``guests_per_piece`` share one, as they do a loaf.

    ``spare_pieces`` are made over and above (or, below nought, left out).
    """

    dish: Dish
    style: str
    guests: int
    pieces_per_guest: int
    guests_per_piece: int = 1
    spare_pieces: int = 0

    @property
    def pieces(self) -> int:
        """Pieces in the batch: guests × pieces each ÷ guests who share one, rounded up, and the spare ones."""
        return -(-self.guests * self.pieces_per_guest // self.guests_per_piece) + self.spare_pieces


@dataclass(frozen=True, slots=True)
class BlendPart:
    """One meat and its share of the batch, 0–1. A locked share stays when others move. ``lot`` "" means any."""

    meat: str
    share_frac: float
    locked: bool = False
    lot: str = ""


@dataclass(frozen=True, slots=True)
class Grind:
    """How the meat is cut up, on which of the kitchen's tools ("" lets the plan choose), and when it is used."""

    tool: str = ""
    keep: Keep = "fresh"
    services_per_week: int = 1


@dataclass(frozen=True, slots=True)
class MixLine:
    """One ingredient of the mix by mass of the raw meat (0–5).

    ``doubt_frac`` is the half range that the way of measuring brings. ``temp_c`` None means where it usually stands.
    ``counted``: whole pieces are taken, never part of one. ``core``: it lies whole in the middle and is not mixed in.
    """

    ingredient: str
    per_meat_frac: float
    locked: bool = False
    doubt_frac: float = 0.0
    temp_c: float | None = None
    counted: bool = False
    core: bool = False


@dataclass(frozen=True, slots=True)
class Mix:
    """What goes into the meat, and how it is worked: minutes of soaking and chilling, temperature of the meat.

    ``avoid`` are limits beyond allergens that the mix must keep.
    """

    lines: tuple[MixLine, ...] = ()
    meat_temp_c: float = 3.0
    soak_min: float = 15.0
    chill_min: float = 45.0
    work: Work = "hand"
    work_s: float = 90.0
    avoid: tuple[Limit, ...] = ()


@dataclass(frozen=True, slots=True)
class Seasoning:
    """Salt by mass of the raw meat, 0–1, and where it goes. It is all the salt wanted, from whatever brings it."""

    salt_frac: float
    salt_place: SaltPlace


@dataclass(frozen=True, slots=True)
class Shape:
    """How the batch is divided, and the size of the raw piece.

    ``by_piece``: the wanted piece decides the batch. ``by_batch``: the batch at hand decides the piece.
    ``by_weights``: both decide how many there are. All are kept, so that switching back and forth loses nothing.
    ``remainder``: who gets the grams that do not divide. ``loss_g`` stays on bowl and gloves. ``ware`` is the tin,
    tray, scoop or ring it is shaped in, "" for none; ``width_mm`` of a loaf, 0 for the style's. ``packing`` "" is the
    style's.
    """

    portioning: Portioning
    piece_mass_g: float
    batch_mass_g: float
    thickness_mm: float
    bun: str
    ware: str = ""
    width_mm: float = 0.0
    ends: Ends = "blunt"
    packing: Packing | Literal[""] = ""
    rim_mm: float = 12.0
    loss_g: float = 0.0
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
    ``turn_every_s`` above nought turns it that often. ``press``: with a weight or a press. ``cover``: a lid with steam.
    ``cheese``: a slice on top. ``glaze``: a coat on top.
    """

    kind: StageKind
    until: Until
    time_s: float = 0.0
    temp_c: float | None = None
    flip: bool = False
    turn_every_s: float = 0.0
    press: bool = False
    cover: bool = False
    cheese: bool = False
    glaze: bool = False


@dataclass(frozen=True, slots=True)
class Heat:
    """Where it cooks, how hot the surface is meant to be, the core wanted, and the way there.

    ``stages`` empty: those of ``method``, which "" makes the style's own. ``fat`` lies in the pan.
    """

    surface: str
    surface_temp_c: float
    core_target_c: float
    method: str = ""
    stages: tuple[HeatStage, ...] = ()
    fat: PanFat = ""
    resting: Resting = "open"


@dataclass(frozen=True, slots=True)
class Formula:
    """The design of one dish, complete enough to be evaluated."""

    name: str
    dish: DishChoice
    parts: tuple[BlendPart, ...]
    seasoning: Seasoning
    shape: Shape
    heat: Heat
    remark: str = ""
    grind: Grind = Grind()
    mix: Mix = Mix()
