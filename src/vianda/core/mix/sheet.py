"""How a mix is made and weighed out: what is read at the bowl, not while designing."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.batch.batch import Batch
from vianda.core.batch.salt_ledger import SaltFigures, kitchen_salt
from vianda.core.blend.blend import BlendFigures
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.mix.figures import MixFigures
from vianda.core.mix.protocol import Protocol, protocol
from vianda.core.mix.weigh_out import WeighOut, weigh_out
from vianda.core.model.formula import Formula


@dataclass(frozen=True, slots=True)
class MixSheet:
    """The steps of making a mix, and what to weigh on this kitchen's scale and in its spoons."""

    protocol: Protocol
    weigh_out: WeighOut


def mix_sheet(
    formula: Formula,
    *,
    batch: Batch,
    blend: BlendFigures,
    salt: SaltFigures,
    mix: MixFigures,
    inventory: Inventory,
    kitchen: Kitchen,
) -> MixSheet:
    """The sheet of a mix. Masses are exact; only the weighing out is rounded, to the scale's step.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    blend : BlendFigures
        The blend on the scale.
    salt : SaltFigures
        The salt figures of the batch.
    mix : MixFigures
        The figures of the mix.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    MixSheet
        The steps of making a mix, and what to weigh on this kitchen's scale and in its spoons.
    """
    made = protocol(
        dish=formula.dish.dish,
        mix=formula.mix,
        lines=mix.lines,
        panade=mix.panade,
        salt=salt,
        meats=[p.name for p in blend.parts if p.share_frac > 0],
        mix_temp_c=mix.mix_temp_c,
        chill=mix.chill_to_cold_min,
    )
    weighed = weigh_out(
        mix.lines,
        pantry=inventory.pantry,
        salt=salt,
        salt_ingredient=kitchen_salt(kitchen.salt, inventory.pantry),
        meat_g=batch.meat_weighed_g,
        mix_g=batch.mix_mass_g,
        step_g=kitchen.scale.step_g,
    )
    return MixSheet(made, weighed)
