"""A face's boundary condition by name, and as the row of numbers that the compiled run reads."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.skin import AIR_KIND, FIRM_KIND, SHUT_KIND, STORE_KIND

FaceKind = Literal["contact", "air", "liquid", "fire", "cheese", "shut"]
_KINDS: dict[FaceKind, int] = {
    "shut": SHUT_KIND,
    "liquid": FIRM_KIND,
    "fire": FIRM_KIND,
    "air": AIR_KIND,
    "contact": STORE_KIND,
    "cheese": STORE_KIND,
}


@dataclass(frozen=True, slots=True)
class Face:
    """What touches a face: °C, coefficient in W/(m² K), emissivity, vapour pressure in Pa, °C it sees glow.

    A ``contact`` (plate, pan) and a slice of ``cheese`` hold heat of their own: ``store`` in J/(m² K), ``power`` W/m²
    of the burner, which gives ``gain`` W/m² for each kelvin below ``temp_c``; round it ``round_c`` with ``round_h``.
    Both begin at ``begin_c``. A ``fire`` below a grate is glow, hot gas and bars in one coefficient.
    """

    kind: FaceKind
    temp_c: float = 0.0
    h: float = 0.0
    emissivity: float = 0.0
    vapour_pa: float = 1300.0
    glow_c: float | None = None
    store: float = 0.0
    power: float = 0.0
    gain: float = 0.0
    round_c: float = 0.0
    round_h: float = 0.0
    begin_c: float = 0.0

    @property
    def stores(self) -> bool:
        """Whether it holds heat of its own."""
        return self.kind in ("contact", "cheese")

    def row(self, *, contact: float = 1.0, air: float = 1.0) -> Array:
        """As numbers, its coefficient multiplied by that for its kind.

        Parameters
        ----------
        contact : float, default 1.0
            Multiplies heat through a contact, about 1.
        air : float, default 1.0
            Multiplies heat from the air, about 1.

        Returns
        -------
        Array
            Values in the order of what was given.
        """
        factor = air if self.kind == "air" else contact
        return np.array(
            [
                _KINDS[self.kind],
                self.temp_c,
                self.h * factor,
                self.emissivity,
                self.vapour_pa,
                self.temp_c if self.glow_c is None else self.glow_c,
                max(self.store, 1.0),
                self.power,
                self.gain,
                self.round_c,
                self.round_h,
            ]
        )


SHUT = Face("shut")
