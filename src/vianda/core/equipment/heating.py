"""How a surface, an oven or a grate gives heat: metal and thickness, burner, fan, fuel and where the fire lies."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from annotated_types import Ge, Le

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.option import Option

Metal = Literal["steel", "cast-iron", "stainless", "aluminium", "copper"]
Power = Literal["gentle", "usual", "strong"]
Fuel = Literal["charcoal", "gas", "wood"]
FireLayout = Literal["even", "two-zones", "ring"]
# What a cook chooses from when a surface is described.
HEATING_OPTIONS: dict[str, tuple[Option, ...]] = {
    "metal": tuple(Option(m, m.replace("-", " ")) for m in get_args(Metal)),
    "power": tuple(Option(p, p) for p in get_args(Power)),
    "fuel": tuple(Option(f, f) for f in get_args(Fuel)),
    "layout": (Option("even", "evenly"), Option("two-zones", "in two zones"), Option("ring", "in a ring")),
}
Surfaces = Literal["plate", "pan", "grate", "oven"]


@dataclass(frozen=True, slots=True)
class MetalFacts:
    """Density kg/m³, heat capacity J/(kg K), conductivity W/(m K). Handbook values, from memory, high confidence."""

    density_kg_m3: float
    cp_j_kg_k: float
    k_w_m_k: float


METALS: dict[Metal, MetalFacts] = {
    "steel": MetalFacts(7850, 490, 45),
    "cast-iron": MetalFacts(7200, 460, 52),
    "stainless": MetalFacts(7900, 500, 16),
    "aluminium": MetalFacts(2700, 900, 160),
    "copper": MetalFacts(8940, 385, 390),
}
# What a burner brings to the metal it stands under, W/m²: 2 kW under a 30 cm pan is 28 kW/m², half of it arrives. Ours.
POWER_W_M2: dict[Power, float] = {"gentle": 8_000.0, "usual": 16_000.0, "strong": 28_000.0}
# A burner that regulates gives all it has 20 K below its setting: ours.
PLATE_BAND_K = 20.0
# Coals at 600–700 °C glow on a grate with 15–25 kW/m², over 200 K between meat and grate about 90 W/(m² K). Ours, low.
FIRE_H: dict[Fuel, float] = {"charcoal": 90.0, "gas": 65.0, "wood": 75.0}
# How far the air under a lid stands above the yard, by how far the grate over the fire does. Ours, low.
LID_SHARE: dict[FireLayout, float] = {"even": 0.65, "two-zones": 0.52, "ring": 0.58}
# Natural 5–15, fan 20–40 W/(m² K): from memory, high.
FAN_H, STILL_H = 28.0, 10.0
# Minutes to light and that it lasts. Common practice, no published source.
LIGHT_MIN: dict[Fuel, float] = {"charcoal": 25.0, "gas": 12.0, "wood": 40.0}
LASTS_MIN: dict[Fuel, float] = {"charcoal": 60.0, "gas": 600.0, "wood": 45.0}


@dataclass(frozen=True, slots=True)
class Heating:
    """The heat of one surface; each kind looks only at what concerns it.

    Parameters
    ----------
    metal, thickness_mm, power
        Of a plate or pan: 1–40 mm; 0 is the usual one of its kind. What it stores and how fast it comes back.
    fan, offset_k, broiler_c
        Of an oven: fan or still; how much hotter its air is than it says (−60 to 60 K); what its broiler
        radiates like (150–700 °C, as a black body over the whole of it).
    fuel, layout, lid, outdoor_c
        Of a grate: what burns and where; whether there is a lid; the air outdoors (−30 to 45 °C).
    lasts_min
        Minutes a load of fuel lasts, 0 for the usual.
    heat_factor
        What this kitchen's own readings multiply heat transfer with (0.5–2), 1 before there are any.
    """

    metal: Metal = "steel"
    thickness_mm: Annotated[float, Ge(0), Le(100)] = 0.0
    power: Power = "usual"
    fan: bool = True
    offset_k: Annotated[float, Ge(-200), Le(200)] = 0.0
    broiler_c: Annotated[float, Ge(0), Le(1000)] = 450.0
    fuel: Fuel = "charcoal"
    layout: FireLayout = "even"
    lid: bool = True
    outdoor_c: Annotated[float, Ge(-60), Le(60)] = 20.0
    lasts_min: Annotated[float, Ge(0), Le(10_000)] = 0.0
    heat_factor: Annotated[float, Ge(0.1), Le(10)] = 1.0

    def __post_init__(self) -> None:
        bounds = (
            ("thickness_mm", 0.0, 40.0, "A plate is 1 to 40 mm thick"),
            ("offset_k", -60.0, 60.0, "An oven is off by at most 60 K"),
            ("broiler_c", 150.0, 700.0, "A broiler radiates like a body of 150 to 700 °C"),
            ("outdoor_c", -30.0, 45.0, "Outdoor air has −30 to 45 °C"),
            ("lasts_min", 0.0, 1000.0, "Fuel lasts at most 1000 minutes"),
            ("heat_factor", 0.5, 2.0, "Heat transfer is multiplied by 0.5 to 2"),
        )
        for name, low, high, said in bounds:
            if not low <= getattr(self, name) <= high:
                raise OutOfRangeError(f"{said}.", field=f"/{name}")
        if 0 < self.thickness_mm < 1:
            raise OutOfRangeError("A plate is 1 to 40 mm thick.", field="/thickness_mm")


USUAL_HEATING = Heating()
# A usual flat plate and a usual pan, mm: ours.
USUAL_MM: dict[Surfaces, float] = {"plate": 10.0, "pan": 4.0, "grate": 0.0, "oven": 0.0}


def plate_store_j_m2_k(heating: Heating, kind: Surfaces) -> float:
    """What a square metre of plate holds for a kelvin: density × heat capacity × thickness.

    Parameters
    ----------
    heating : Heating
        How the surface gives heat.
    kind : Surfaces
        Which kind.

    Returns
    -------
    float
        Heat that a square metre of plate takes up for each kelvin, J/(m² K).

    Examples
    --------
    >>> round(plate_store_j_m2_k(Heating(metal="steel", thickness_mm=8), "plate"))
    30772
    """
    metal = METALS[heating.metal]
    thick = heating.thickness_mm or USUAL_MM[kind]
    return metal.density_kg_m3 * metal.cp_j_kg_k * thick / 1000.0


def lateral_gain_frac(heating: Heating, *, diameter_mm: float, covered_frac: float, time_s: float) -> float:
    """How much more plate serves a piece than lies under it, ≥ 1.

    Heat runs in from a ring as wide as it diffuses in the time, √(α t) ÷ 2; a crowded plate has no such ring to lend:
    never more than 1 ÷ the share of the plate that is covered.

    Parameters
    ----------
    heating : Heating
        How the surface gives heat.
    diameter_mm : float
        Diameter of the piece, mm, above 0.
    covered_frac : float
        Share of the plate that is covered, 0–1.
    time_s : float
        Time on the plate, s, 0 or more.

    Returns
    -------
    float
        Plate that serves the piece by plate under it (ratio), 1 or more.

    Examples
    --------
    >>> alone = lateral_gain_frac(Heating(), diameter_mm=110, covered_frac=0.05, time_s=120)
    >>> crowded = lateral_gain_frac(Heating(), diameter_mm=110, covered_frac=0.75, time_s=120)
    >>> round(alone, 2), round(crowded, 2)
    (1.8, 1.33)
    """
    metal = METALS[heating.metal]
    ring = 500.0 * (metal.k_w_m_k / (metal.density_kg_m3 * metal.cp_j_kg_k) * time_s) ** 0.5
    alone = ((diameter_mm / 2 + ring) / (diameter_mm / 2)) ** 2
    return float(max(1.0, min(alone, 1.0 / max(covered_frac, 0.05))))


def oven_h(heating: Heating) -> float:
    """W/(m² K) from oven air to what stands in it, without what it radiates.

    Parameters
    ----------
    heating : Heating
        How the surface gives heat.

    Returns
    -------
    float
        W/(m² K) from oven air to what stands in it, without what it radiates.
    """
    return FAN_H if heating.fan else STILL_H


def lid_air_c(heating: Heating, fire_c: float) -> float:
    """Air beside or above the fire under the lid; without one it is that of the yard, a little warmed.

    Parameters
    ----------
    heating : Heating
        How the surface gives heat.
    fire_c : float
        Temperature measured at the grate, °C.

    Returns
    -------
    float
        Temperature of the air under the lid, °C.

    Examples
    --------
    >>> round(lid_air_c(Heating(outdoor_c=20), 230)), round(lid_air_c(Heating(outdoor_c=-10, layout="two-zones"), 230))
    (156, 115)
    """
    share = LID_SHARE[heating.layout] if heating.lid else 0.15
    return heating.outdoor_c + (fire_c - heating.outdoor_c) * share


# Nearer than this to what is meant a surface is hot enough: ours.
HOT_ENOUGH_K = 5.0


def heats_up_s(store: float, power: float, gain: float, now_c: float, to_c: float, set_c: float) -> float:
    """Seconds until an empty plate is as hot as wanted: full power until its burner begins to regulate.

    Parameters
    ----------
    store : float
        Heat the plate holds, J/(m² K).
    power : float
        Most the burner gives, W/m².
    gain : float
        What the burner gives for each kelvin below its setting, W/(m² K).
    now_c : float
        Temperature of the plate now, °C.
    to_c : float
        Temperature that is waited for, °C.
    set_c : float
        What it is set to, °C.

    Returns
    -------
    float
        Seconds until the plate is there, s.

    Examples
    --------
    >>> round(heats_up_s(30_000, 15_000, 750, 150, 215, 235))
    130
    """
    if now_c >= to_c:
        return 0.0
    knee = set_c - power / gain
    seconds = store * (min(to_c, knee) - now_c) / power if now_c < knee else 0.0
    if to_c > knee:
        begin = max(now_c, knee)
        seconds += store / gain * math.log((set_c - begin) / max(set_c - to_c, 0.1))
    return seconds


ROOM_C = 20.0


def heated_c(store: float, power: float, gain: float, time_s: float, set_c: float, *, from_c: float = ROOM_C) -> float:
    """How hot an empty plate is after so long on its burner, from a room at 20 °C; the other way round of heats_up_s.

    Parameters
    ----------
    store : float
        Heat the plate holds, J/(m² K).
    power : float
        Most the burner gives, W/m².
    gain : float
        What the burner gives for each kelvin below its setting, W/(m² K).
    time_s : float
        Time, s, 0 or more.
    set_c : float
        What it is set to, °C.
    from_c : float, default ROOM_C
        Temperature it starts from, °C.

    Returns
    -------
    float
        Temperature of the plate then, °C.

    Examples
    --------
    >>> round(heated_c(30_000, 15_000, 750, heats_up_s(30_000, 15_000, 750, 20, 228, 235), 235))
    228
    """
    knee = set_c - power / gain
    full_s = max(0.0, store * (knee - from_c) / power)
    if time_s <= full_s:
        return from_c + power * time_s / store
    return set_c - (set_c - max(knee, from_c)) * math.exp(-(time_s - full_s) * gain / store)
