"""From what a line wishes to a formula: dish, division, sizes, heat, salt, limits, each by the edits of the bench."""

from __future__ import annotations

import math
from dataclasses import replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.batch.batch import batch_of
from vianda.core.batch.salt_ledger import START_SALT_FRAC
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.editing.choose import choose_style
from vianda.core.editing.choose_shape import usual_mould
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.mix.limits import BY_ALLERGEN, BY_SPECIES, TITLES, Breach, Swap, breaks, swaps_for
from vianda.core.model.edit import AddToMix, Choose, Edit, SetFigure, SwapIngredient, TakeOut
from vianda.core.model.formula import LONGEST_REMARK, BlendPart, DishChoice, Formula, Heat, Limit, Mix, Seasoning, Shape
from vianda.core.model.styles import FLAT, Style
from vianda.core.opening.settle import style_for
from vianda.core.opening.wish import APART, Wish
from vianda.core.pipeline.compute import prepare
from vianda.core.reading.said import Said

USUAL_MEAT_PER_GUEST_G = 170.0
PIECES_EACH = 3
MOST_EACH = 12
# The most that a formula holds over and above; beyond it each gets one more and some are left out.
MOST_SPARE = 1000
# A loaf said to be so many mm is so wide up to here, so long above (ours).
WIDEST_LOAF_MM = 150.0
# What the field allows and the rest of a plan may not bear.
TRIED = frozenset({"thickness", "diameter", "length", "surface_temp", "cooked_mass"})
# A loaf may be so much larger than its style's largest before it is two (ours), as a fraction.
SAME_LOAF = 0.1
# A bread or a mould within so much of the size said is that one (ours), mm.
SAME_MM = 6.0


class Planner:
    """Builds the formula of one wish, and keeps what was assumed and what could not be kept."""

    def __init__(self, wish: Wish, said: Said, *, inventory: Inventory, kitchen: Kitchen) -> None:
        self.wish, self.said = wish, said
        self.inventory, self.kitchen = inventory, kitchen
        self.assumed: list[Phrase] = list(wish.assumed)
        self.remarks: list[Phrase] = list(wish.remarks)
        self.surface_said = False
        # What of the line was told not to be kept, by figure.
        self.told: set[str] = set()

    # --- the whole ------------------------------------------------------------

    def formula(self) -> Formula:
        """The formula, with everything the line said that can be kept.

        Returns
        -------
        Formula
            The design of one dish.
        """
        kind = self._surface_kind()
        flat = [f.value for f in self.said.thickness] + [f.value for f in self.said.lengths if f.value <= 45]
        style = style_for(
            self.wish, surface=kind, thickness_mm=flat[0] if flat else None, ruled_out=self.said.not_styles
        )
        guests = self._guests(style)
        formula = self._start(style, guests)
        formula = self._on_surface(formula, style)
        formula = self._divided(formula, style, guests)
        formula = self._sized(formula, style)
        formula = self._moulded(formula, style)
        formula = self._heated(formula)
        formula = self._blended(formula)
        formula = self._added(formula)
        formula = self._limited(formula)
        formula = self._salted(formula)
        formula = self._breaded(formula)
        if self.said.grinder:
            formula = replace(formula, grind=replace(formula.grind, tool=self.said.grinder))
        notes = list(dict.fromkeys(n.text for n in self.said.notes))
        return replace(formula, remark="; ".join(notes)[:LONGEST_REMARK])

    def _edit(self, formula: Formula, edit: Edit, what: Phrase) -> Formula:
        """An edit as on the bench; what it refuses is said, and the rest stands."""
        try:
            changed = apply_edit(formula, edit, inventory=self.inventory, kitchen=self.kitchen)
            if isinstance(edit, SetFigure) and edit.figure in (
                "thickness",
                "diameter",
                "length",
                "surface_temp",
                "cooked_mass",
            ):
                # A size may be allowed and yet be one that usual practice knows nothing of.
                prepare(changed, inventory=self.inventory, kitchen=self.kitchen)
            return changed
        except CoreError as refused:
            self.remarks.append(say("{what}: {why}", what=ph.word(_plain(what)), why=ph.word(refused.detail)))
            if isinstance(edit, SetFigure):
                self.told.add({"target_core_temp": "core", "surface_temp": "surface"}.get(edit.figure, edit.figure))
            return formula

    # --- start ------------------------------------------------------------

    def _surface_kind(self) -> str | None:
        for how, key, _ in self.said.surfaces:
            return self.kitchen.surface(key).kind if how == "key" else key
        return next((near for _, near, _ in self.said.tools if near), None)

    def _guests(self, style: Style) -> int:
        wish = self.wish
        if wish.guests is not None:
            return wish.guests
        if wish.pieces is not None:
            if style.dish == "meatloaf":
                guests = wish.pieces * style.guests_per_piece_start
                if wish.each_g is not None:
                    # A small loaf feeds as many as its weight does.
                    guests = max(1, round(guests * wish.each_g / style.piece_mass_start_g))
            else:
                each = wish.per_guest or (PIECES_EACH if style.dish == "meatball" else wish.multiple)
                guests = max(1, math.ceil(wish.pieces / each))
            self.assumed.append(
                say("{n} people", n=ph.count(guests))
                if style.dish == "meatloaf"
                else say(
                    "{each} each for {n} people", each=ph.number(round(wish.pieces / guests, 2)), n=ph.count(guests)
                )
            )
            return guests
        if wish.total_g is not None and wish.each_g is not None and style.dish == "burger":
            pieces = max(1, int(wish.total_g / wish.each_g + 1e-9))
            guests = max(1, math.ceil(pieces / (wish.per_guest or wish.multiple)))
            self.assumed.append(say("{n} people, one each", n=ph.count(guests)))
            return guests
        if wish.total_g is not None:
            each_g = wish.head_g or USUAL_MEAT_PER_GUEST_G
            guests = max(1, round(wish.total_g / each_g))
            self.assumed.append(say("{n} people, at about {m} each", n=ph.count(guests), m=ph.mass(each_g)))
            return guests
        self.assumed.append(say("{n} people", n=ph.count(4)))
        return 4

    def _start(self, style: Style, guests: int) -> Formula:
        kitchen = self.kitchen
        kinds = [k for k in style.surfaces if k not in self.said.not_on] or list(style.surfaces)
        first = next((s for k in kinds if (s := kitchen.surface_of_kind(k))), kitchen.surfaces[0])
        start = Formula(
            name=f"{style.title} for {guests}",
            dish=DishChoice("burger", "smashed", guests, 1),
            parts=self.wish.parts,
            seasoning=Seasoning(START_SALT_FRAC, "surface"),
            shape=Shape("by_piece", style.piece_mass_start_g, 500.0, style.thickness_start_mm, kitchen.buns[0].key),
            heat=Heat(first.key, style.surface_temp_start_c, 71.0),
        )
        started = choose_style(start, style.key, inventory=self.inventory, kitchen=kitchen)
        if self.said.not_on:
            started = self._placed(started, first.key)
        return replace(started, heat=replace(started.heat, target_core_temp_c=start.heat.target_core_temp_c))

    def _on_surface(self, formula: Formula, style: Style) -> Formula:
        for name, near, _ in self.said.tools:
            found = self.kitchen.surface_of_kind(near) if near else None  # type: ignore[arg-type]
            self.remarks.append(
                say(
                    "{tool}: not in this kitchen, and not computed here. The nearest is {surface}.",
                    tool=ph.word(name.capitalize()),
                    surface=ph.word(found.name if found else self.kitchen.surface(formula.heat.surface).name),
                )
                if near
                else say("{tool}: kept as a note.", tool=ph.word(name.capitalize()))
            )
            if found is not None and found.kind in style.surfaces and not self.said.surfaces:
                formula = self._placed(formula, found.key)
        wanted = []
        for how, key, _ in self.said.surfaces:
            surface = self.kitchen.surface(key) if how == "key" else self.kitchen.surface_of_kind(key)  # type: ignore[arg-type]
            if surface is None:
                self.remarks.append(
                    say(
                        "No {kind} in this kitchen: planned on {surface}. Add one under Kitchen.",
                        kind=ph.word({"grate": "grill", "plate": "flat plate"}.get(key, key)),
                        surface=ph.word(self.kitchen.surface(formula.heat.surface).name),
                    )
                )
            else:
                wanted.append(surface)
        fits = next((s for s in wanted if s.kind in style.surfaces), None)
        if fits is not None:
            self.surface_said = True
            return self._placed(formula, fits.key)
        for surface in wanted[:1]:
            now = self.kitchen.surface(formula.heat.surface)
            if now.key != surface.key:
                self.remarks.append(
                    say(
                        "{style} is computed on {now} here, not on {surface}: the heat there is not in our rules yet.",
                        style=ph.word(style.title),
                        now=ph.word(now.name),
                        surface=ph.word(surface.name),
                    )
                )
        return formula

    def _placed(self, formula: Formula, key: str) -> Formula:
        if formula.heat.surface == key:
            return formula
        return self._edit(formula, Choose("surface", key), say("surface"))

    # --- division ------------------------------------------------------------

    def _divided(self, formula: Formula, style: Style, guests: int) -> Formula:
        wish, shape = self.wish, formula.shape
        total, each, pieces = wish.total_g, wish.each_g, wish.pieces
        if pieces is None and wish.per_guest is not None and style.dish in ("burger", "meatball"):
            pieces = wish.per_guest * guests
        # Of what is mixed the weight said is the meat's: count and meat are kept, and the piece is what they make.
        all_said = style.dish in ("meatball", "meatloaf") and None not in (total, each, pieces)
        if all_said:
            shape = replace(shape, portioning="by_batch", batch_mass_g=total or 0.0)
        elif each is not None and total is not None and (pieces is None or int(total / each + 1e-9) == pieces):
            # The weight said is kept; what does not make another piece stays in the bowl.
            shape = replace(shape, portioning="by_weights", batch_mass_g=total, piece_mass_g=each, remainder="bowl")
        elif each is not None:
            shape = replace(shape, portioning="by_piece", piece_mass_g=each)
        elif total is not None:
            shape = replace(shape, portioning="by_batch", batch_mass_g=total)
        if style.dish == "meatloaf" and total is None and each is None and pieces is not None:
            # So many loaves for so many: each as large as its guests want, within its style.
            low, high = style.piece_mass_g
            wanted = guests / pieces * style.piece_mass_start_g / style.guests_per_piece_start
            shape = replace(shape, piece_mass_g=min(high, max(low, wanted)))
        changed = replace(formula, shape=shape)
        if pieces is None:
            pieces = self._usual_pieces(changed, style, guests)
        divided = replace(changed, dish=self._dish_for(changed.dish, style, pieces, guests))
        if all_said and each is not None:
            made = batch_of(divided, inventory=self.inventory, kitchen=self.kitchen).portions.piece_mass_g
            if abs(made - each) > APART * each:
                self.told.add("each")
                self.remarks.append(
                    say(
                        "{n} from {t} of meat and what is mixed in weigh {made} each, not {said}.",
                        n=ph.count(pieces),
                        t=ph.mass(total or 0.0),
                        made=ph.mass(made),
                        said=ph.mass(each),
                    )
                )
        return divided

    def _usual_pieces(self, formula: Formula, style: Style, guests: int) -> int:
        total = self.wish.total_g
        if style.dish == "sauce":
            return guests
        if style.dish == "meatloaf":
            if total is None:
                return math.ceil(guests / style.guests_per_piece_start)
            mix = batch_of(formula, inventory=self.inventory, kitchen=self.kitchen).portions.batch_mass_g
            # As few loaves as the style's largest allows.
            return max(1, math.ceil(mix / style.piece_mass_g[1] - SAME_LOAF))
        if total is None:
            each = 1 if self.wish.each_g is not None and style.dish == "burger" else style.pieces_per_guest_start
            return guests * each
        mass = total
        if style.dish == "meatball":
            mass = batch_of(formula, inventory=self.inventory, kitchen=self.kitchen).portions.batch_mass_g
        piece = self.wish.each_g or style.piece_mass_start_g
        if self.wish.each_g is not None:
            return max(1, int(mass / piece + 1e-9))
        return guests * max(1, min(MOST_EACH, round(mass / guests / piece)))

    def _dish_for(self, dish: DishChoice, style: Style, pieces: int, guests: int) -> DishChoice:
        """Exactly so many pieces, whoever eats them; who gets the odd ones is said."""
        if pieces >= guests:
            each, spare = divmod(pieces, guests)
            if spare > MOST_SPARE:
                each, spare = each + 1, spare - guests
            if spare > 0 and style.dish in ("burger", "meatball"):
                self.remarks.append(
                    say(
                        "{n} pieces for {g} people: {each} each, and {spare} over; one person gets one more."
                        if spare == 1
                        else "{n} pieces for {g} people: {each} each, and {spare} over; {spare} of them get one more.",
                        n=ph.count(pieces),
                        g=ph.count(guests),
                        each=ph.count(each),
                        spare=ph.count(spare),
                    )
                )
            return replace(dish, pieces_per_guest=each, guests_per_piece=1, spare_pieces=spare)
        share = math.ceil(guests / pieces)
        spare = pieces - math.ceil(guests / share)
        if style.dish in ("burger", "meatball"):
            self.remarks.append(
                say(
                    "{n} pieces for {g} people: not one each. Cut them, or make {g}.",
                    n=ph.count(pieces),
                    g=ph.count(guests),
                )
            )
        return replace(dish, pieces_per_guest=1, guests_per_piece=share, spare_pieces=spare)

    # --- size, mould, bread ------------------------------------------------------------

    def _sized(self, formula: Formula, style: Style) -> Formula:
        said = self.said
        thick = list(said.thickness)
        across = list(said.across)
        for figure in said.lengths:
            flat = style.form in FLAT
            (thick if flat and figure.value <= 45 else across).append(figure)
        if thick:
            formula = self._edit(
                formula, SetFigure("thickness", thick[0].value), say("{l} thick", l=ph.length(thick[0].value))
            )
            if across and style.form in FLAT and self.wish.each_g is None and self.wish.total_g is None:
                # Thickness and width are said, the weight is not: it is what fills them.
                return self._filling(formula, across[0].value)
        total = self.wish.total_g
        counted_balls = style.form == "ball" and self.wish.pieces is not None
        long_loaf = style.dish == "meatloaf" and bool(across) and across[0].value > WIDEST_LOAF_MM
        if across and total is not None and (counted_balls or long_loaf):
            # The size of a piece follows from the meat and the count that were said.
            self.told.add("diameter")
            self.remarks.append(
                say(
                    "{l} is not kept: what {t} makes is as large as it comes.",
                    l=ph.length(across[0].value),
                    t=ph.mass(total),
                )
            )
        elif across and style.form != "crumbled":
            loaf = "width" if across[0].value <= WIDEST_LOAF_MM else "length"
            figure_name = "diameter" if style.form in (*FLAT, "ball") else loaf
            formula = self._edit(
                formula,
                SetFigure(figure_name, across[0].value),  # type: ignore[arg-type]
                say("{l} across", l=ph.length(across[0].value)),
            )
            if style.form == "ball" and self.wish.total_g is not None and formula.shape.portioning == "by_piece":
                formula = self._weighed_out(formula, style, self.wish.total_g)
        if self.wish.cooked_g is not None and self.wish.each_g is not None:
            self.remarks.append(
                say("{m} cooked is not kept: the raw weight was said too.", m=ph.mass(self.wish.cooked_g))
            )
        elif self.wish.cooked_g is not None:
            formula = self._edit(
                formula, SetFigure("cooked_mass", self.wish.cooked_g), say("{m} cooked", m=ph.mass(self.wish.cooked_g))
            )
        return formula

    def _filling(self, formula: Formula, across_mm: float) -> Formula:
        """Pieces as heavy as a disc of their thickness and the width said."""
        now = prepare(formula, inventory=self.inventory, kitchen=self.kitchen).piece.shape.raw_diameter_mm
        mass = formula.shape.piece_mass_g * (across_mm / now) ** 2
        self.assumed.append(say("{m} each, as {l} across takes", m=ph.mass(mass), l=ph.length(across_mm)))
        return self._edit(formula, SetFigure("piece_mass", mass), say("{m} each", m=ph.mass(mass)))

    def _weighed_out(self, formula: Formula, style: Style, total_g: float) -> Formula:
        """Balls of the size said from the meat said: as many as it gives."""
        shape = replace(formula.shape, portioning="by_weights", batch_mass_g=total_g, remainder="bowl")
        weighed = replace(formula, shape=shape)
        mix = batch_of(weighed, inventory=self.inventory, kitchen=self.kitchen).portions.batch_mass_g
        pieces = max(1, int(mix / shape.piece_mass_g + 1e-9))
        return replace(weighed, dish=self._dish_for(weighed.dish, style, pieces, weighed.dish.guests))

    def _moulded(self, formula: Formula, style: Style) -> Formula:
        if formula.shape.mould and not any(sizes for _, sizes, _ in self.said.moulds):
            # The tin or tray that this batch fills, not the usual one.
            made = batch_of(formula, inventory=self.inventory, kitchen=self.kitchen).portions.piece_mass_g
            mould = usual_mould(style, kitchen=self.kitchen, piece_mass_g=made)
            formula = replace(formula, shape=replace(formula.shape, mould=mould))
        for kind, sizes, _ in self.said.moulds:
            fits = {"tin": ("tin",), "tray": ("tray",), "scoop": ("ball", "disc"), "ring": ("disc", "filled")}[kind]
            if style.form not in fits:
                continue
            offered = [m for m in self.kitchen.moulds if m.kind == kind]
            if not offered:
                self.remarks.append(say("No {kind} in this kitchen.", kind=ph.word(kind)))
                continue
            if kind == "scoop" and sizes:
                best = min(offered, key=lambda m: abs(m.scoop_number - sizes[0]))
                exact = best.scoop_number == sizes[0]
            elif sizes:
                best = min(offered, key=lambda m: abs(m.length_mm - max(sizes)))
                exact = abs(best.length_mm - max(sizes)) <= 2 * SAME_MM
            else:
                now = next((m for m in offered if m.key == formula.shape.mould), None)
                best, exact = now or offered[0], True
            if not exact:
                self.remarks.append(say("Not that size in this kitchen: the nearest is {m}.", m=ph.word(best.name)))
            formula = self._edit(formula, Choose("mould", best.key), say("{m}", m=ph.word(best.name)))
        return formula

    def _breaded(self, formula: Formula) -> Formula:
        said = self.said
        if said.no_bun or (said.no_bread and formula.dish.dish == "burger"):
            key = next((b.key for b in self.kitchen.buns if b.diameter_mm == 0), None)
            if key is None:
                self.remarks.append(say("No bun: add “No bun” under Kitchen."))
                return formula
            return replace(formula, shape=replace(formula.shape, bun=key))
        if said.bun:
            return replace(formula, shape=replace(formula.shape, bun=said.bun))
        if said.bun_mm:
            wanted = said.bun_mm[0].value
            rounds = [b for b in self.kitchen.buns if b.diameter_mm]
            if rounds:
                best = min(rounds, key=lambda b: abs(b.diameter_mm - wanted))
                if abs(best.diameter_mm - wanted) > SAME_MM:
                    self.remarks.append(
                        say("No bun of {l} in this kitchen: {b} is nearest.", l=ph.length(wanted), b=ph.word(best.name))
                    )
                return replace(formula, shape=replace(formula.shape, bun=best.key))
        return formula

    # --- heat ------------------------------------------------------------

    def _heated(self, formula: Formula) -> Formula:
        if self.said.surface_temp:
            value = self.said.surface_temp[0].value
            formula = self._edit(formula, SetFigure("surface_temp", value), say("{t}", t=ph.temp(value)))
        if self.said.core:
            value = self.said.core[0].value
            formula = self._edit(formula, SetFigure("target_core_temp", value), say("core {t}", t=ph.temp(value)))
        return formula

    # --- meat and mix ------------------------------------------------------------

    def _blended(self, formula: Formula) -> Formula:
        """Two meats and a fat content said: shares by the Pearson square, where it can be reached."""
        aim = self.wish.aim_fat
        if aim is None:
            return formula
        fats = [self.inventory.fat_of(p.meat).usual_frac for p in formula.parts]
        even = len({round(p.share_frac, 6) for p in formula.parts}) == 1
        if len(fats) == 2 and even and min(fats) < aim < max(fats):
            share = (aim - fats[1]) / (fats[0] - fats[1])
            self.assumed.append(say("shares for {r} lean to fat, by the Pearson square", r=ph.lean_to_fat(aim)))
            first, second = formula.parts
            return replace(formula, parts=(BlendPart(first.meat, share), BlendPart(second.meat, 1.0 - share)))
        now = sum(p.share_frac * f for p, f in zip(formula.parts, fats, strict=True))
        self.remarks.append(
            say(
                "{want} fat was said; these meats in these shares usually have {now}. The Meat step can solve for it.",
                want=ph.frac(aim),
                now=ph.frac(now),
            )
        )
        return formula

    def _added(self, formula: Formula) -> Formula:
        for text in self.said.adds:
            formula = self._edit(formula, AddToMix(text), say("{t}", t=ph.word(text)))
        return formula

    def _limited(self, formula: Formula) -> Formula:
        """Limits kept in the formula, and what breaks them swapped or left out."""
        limits: list[Limit] = [limit for limit in TITLES if limit in self.said.limits]
        limits.sort(key=lambda limit: self.said.limits.index(limit))
        if "kosher-asked" in self.said.limits:
            kosher: tuple[Limit, ...] = ("no-pork", "no-dairy")
            limits += [x for x in kosher if x not in limits]
            self.remarks.append(
                say("Kosher is kept as no pork and no dairy with the meat; slaughter is the supplier's to show.")
            )
        if "halal" in limits:
            self.remarks.append(
                say("Halal is kept as no pork, gelatine, lard or alcohol; the slaughter is the supplier's to show.")
            )
        kept: tuple[Limit, ...] = tuple(limits)
        without = tuple(dict.fromkeys(self.said.without))[:40]
        mix: Mix = replace(formula.mix, avoid=kept, without=without)
        formula = replace(formula, mix=mix)
        for line in tuple(formula.mix.lines):
            broken = next((x for x in kept if breaks(x, line.ingredient, inventory=self.inventory)), None)
            if broken is None and line.ingredient not in without:
                continue
            formula = self._swapped(formula, line.ingredient, broken, kept)
        formula = self._bread_within(formula, kept)
        for limit in kept:
            species = BY_SPECIES.get(limit)
            held = [p.meat for p in formula.parts if self.inventory.meat(p.meat).species == species]
            if species and held and not self.wish.parts_said and limit == "no-beef":
                formula = replace(formula, parts=(BlendPart("lamb-ground", 1.0),))
                self.assumed.append(say("ground lamb, since no beef is wanted"))
        return formula

    def _swapped(self, formula: Formula, key: str, broken: Limit | None, kept: tuple[Limit, ...]) -> Formula:
        name = self.inventory.pantry[key].name
        swaps: tuple[Swap, ...] = ()
        if broken is not None:
            swaps = swaps_for(Breach(broken, "line", key, name), inventory=self.inventory)
        present = {line.ingredient for line in formula.mix.lines}
        for swap in swaps:
            if (
                swap.to
                and swap.to not in present
                and not any(breaks(x, swap.to, inventory=self.inventory) for x in kept)
            ):
                to = self.inventory.pantry[swap.to].name
                self.assumed.append(
                    say("{a} gives way to {b}: {cost}", a=ph.word(name), b=ph.word(to.lower()), cost=ph.word(swap.cost))
                )
                return self._edit(formula, SwapIngredient(key, swap.to), say("{a}", a=ph.word(name)))
        self.assumed.append(say("{a} is left out", a=ph.word(name)))
        return self._edit(formula, TakeOut(key), say("{a}", a=ph.word(name)))

    def _bread_within(self, formula: Formula, kept: tuple[Limit, ...]) -> Formula:
        unwanted = {a for limit in kept for a in BY_ALLERGEN.get(limit, ())}
        bun = self.kitchen.bun(formula.shape.bun)
        if formula.dish.dish != "burger":
            return formula
        if not any(a.split(" (")[0] in unwanted for a in bun.allergens):
            return formula
        others = [
            b
            for b in self.kitchen.buns
            if not any(a.split(" (")[0] in unwanted for a in b.allergens) and (b.kind == bun.kind or b.diameter_mm == 0)
        ]
        best = max(others, key=lambda b: b.diameter_mm, default=None)
        if best is None:
            return formula
        self.assumed.append(say("{a} gives way to {b}", a=ph.word(bun.name), b=ph.word(best.name.lower())))
        return replace(formula, shape=replace(formula.shape, bun=best.key))

    def _salted(self, formula: Formula) -> Formula:
        said = self.said
        if said.no_salt:
            return replace(formula, seasoning=Seasoning(0.0, "none"))
        if said.salt_place:
            formula = self._edit(
                formula,
                Choose("salt_place", said.salt_place),
                say("salt on the surface") if said.salt_place == "surface" else say("salt mixed in"),
            )
        frac = said.salt_frac[0].value if said.salt_frac else None
        if frac is None and said.salt_mass:
            meat = batch_of(formula, inventory=self.inventory, kitchen=self.kitchen).meat_mass_g
            frac = said.salt_mass[0].value / meat
        if frac is None:
            return formula
        return self._edit(formula, SetFigure("salt", frac), say("salt {s}", s=ph.fine_frac(frac)))


def _plain(text: Phrase) -> str:
    """A short phrase as plain text in metric units, for a place inside another sentence."""
    out = text.text
    for name, amount in text.amounts.items():
        unit = {"mass_g": " g", "length_mm": " mm", "temp_c": " °C"}.get(amount.kind, "")
        if amount.text is not None:
            shown = amount.text
        elif amount.kind in ("frac", "fine_frac"):
            shown = f"{(amount.value or 0) * 100:.3g} %"
        else:
            shown = f"{amount.value or 0:.4g}{unit}"
        out = out.replace("{" + name + "}", shown)
    return out
