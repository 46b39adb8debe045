"""A wish as a linear program over shares: one named row for each limit. Solver and advice both read it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np

from vianda.core.blend.connective import COLLAGEN_OF_PROTEIN
from vianda.core.blend.cost import price_per_kg_used, usable_frac
from vianda.core.inventory.fat_range import Curve, FatRange
from vianda.core.inventory.inventory import Inventory, Meat
from vianda.core.target.wish import Wish


@dataclass(frozen=True)
class Row:
    """Σ coefficientᵢ · shareᵢ ≤ most. ``unit`` is what one unit of slack means to a cook."""

    name: str
    about: str
    coefficients: Curve
    most: float


@dataclass(frozen=True)
class Program:
    """The numbers of a wish: per candidate its meat, fat, price in the bowl and stock; and the rows of limits."""

    wish: Wish
    meats: tuple[Meat, ...]
    fats: tuple[FatRange, ...]
    usual: Curve
    sd: Curve
    price_per_kg: Curve
    stock_share: Curve
    use_by: tuple[date | None, ...]
    rows: tuple[Row, ...]

    @property
    def size(self) -> int:
        """How many candidates there are."""
        return len(self.meats)

    def spread_gradient(self, shares: Curve) -> tuple[float, Curve]:
        """Standard error of the blend's fat at these shares, and its gradient; σ(s) ≥ gradient · s everywhere.

        Parameters
        ----------
        shares : Curve
            Shares of the meats, 0–1, shape ``(n,)``.

        Returns
        -------
        tuple[float, Curve]
            Standard error of the blend's fat at these shares, and its gradient.
        """
        own, shared = self.sd * shares, self.shared
        pull = own * (1.0 - shared**2) + shared * float(shared @ own)
        sd = float(np.sqrt(own @ pull))
        gradient: Curve = self.sd * pull / sd if sd > 0 else np.zeros_like(self.sd)
        return sd, gradient

    @property
    def shared(self) -> Curve:
        """Correlation of each candidate's fat with the knife that trims them, 0–1."""
        return np.array([f.shared_frac for f in self.fats])


def program_of(wish: Wish, *, inventory: Inventory, batch_mass_g: int, grind_loss_frac: float) -> Program:
    """Gather the numbers of a wish.

    Parameters
    ----------
    wish : Wish
        What is wanted of the blend.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    batch_mass_g : int
        Mass of the batch, g, above 0.
    grind_loss_frac : float
        What stays in the grinder of what goes in, 0–1.

    Returns
    -------
    Program
        The numbers of a wish.
    """
    chosen = wish.candidates
    meats = tuple(inventory.meat(c.meat, field=f"/candidates/{at}/meat") for at, c in enumerate(chosen))
    fats = tuple(inventory.fat_of(c.meat, c.lot) for c in chosen)
    usual = np.array([f.usual_frac for f in fats])
    prices = np.array(
        [
            float(price_per_kg_used(m, inventory.price_of(c.meat, c.lot), grind_loss_frac=grind_loss_frac))
            for m, c in zip(meats, chosen, strict=True)
        ]
    )
    stock = np.array(
        [
            inventory.lot(c.lot, meat=c.meat).left_mass_g
            * usable_frac(m, grind_loss_frac=grind_loss_frac)
            / batch_mass_g
            if c.lot and wish.use_stock
            else np.inf
            for m, c in zip(meats, chosen, strict=True)
        ]
    )
    use_by = tuple(inventory.lot(c.lot, meat=c.meat).use_by if c.lot else None for c in chosen)
    rows = [Row("fat-most", "fat", usual, wish.fat_high_frac), Row("fat-least", "fat", -usual, -wish.fat_low_frac)]
    for limit in wish.species:
        member = np.array([1.0 if m.species == limit.species else 0.0 for m in meats])
        if limit.most_frac < 1.0:
            rows.append(Row("species-most", limit.species, member, limit.most_frac))
        if limit.least_frac > 0.0:
            rows.append(Row("species-least", limit.species, -member, -limit.least_frac))
    if wish.collagen_most_frac < 1.0:
        protein = np.array([m.protein_frac(f.usual_frac) for m, f in zip(meats, fats, strict=True)])
        of_protein = np.array([COLLAGEN_OF_PROTEIN[m.connective][1] for m in meats])
        # Σ s p c ≤ limit · Σ s p, brought to one side; divided by a usual protein so that slack reads as a fraction.
        rows.append(Row("collagen-most", "collagen", protein * (of_protein - wish.collagen_most_frac) / 0.18, 0.0))
    one = np.eye(len(meats))
    for at, (candidate, meat) in enumerate(zip(chosen, meats, strict=True)):
        if candidate.most_frac < 1.0:
            rows.append(Row("share-most", meat.name, one[at], candidate.most_frac))
        if candidate.least_frac > 0.0:
            rows.append(Row("share-least", meat.name, -one[at], -candidate.least_frac))
        if np.isfinite(stock[at]):
            rows.append(Row("stock", meat.name, one[at], float(stock[at])))
    return Program(wish, meats, fats, usual, np.array([f.sd for f in fats]), prices, stock, use_by, tuple(rows))
