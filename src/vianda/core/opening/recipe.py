"""A pasted recipe as a formula: meats, mix, salt, pieces, heat, with sauces as house formulas; what is open waits.

The dish, its meats and pieces are gathered in one summary line, which the opening reads as any typed one, so that a
cook corrects it in the same way. Every line of the recipe says what it became.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import CoreError, OutOfRangeError, UnreadableEntryError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.composition import Composition
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import HouseFormula, HouseLine, Ingredient
from vianda.core.model.edit import AddToMix, Edit, SetFigure, SetStages, TakeOut
from vianda.core.model.formula import LONGEST_NAME, LONGEST_REMARK, Formula, HeatStage, SaltPlace, StageKind
from vianda.core.model.styles import FLAT, style_of
from vianda.core.opening.opening import open_line
from vianda.core.reading.line import read_line
from vianda.core.reading.mix_line import MixReading, read_mix
from vianda.core.reading.piece import Ask, Choice, Piece
from vianda.core.reading.recipe import LONGEST_RECIPE, HeatSaid, PageLine, heat_said, is_sauce, is_serving, page_lines

Became = Literal[
    "title", "yield", "heading", "meat", "mix", "salt", "sauce", "serving", "heat", "shape", "note", "waiting"
]
# A sauce of a recipe is taken to keep three days cold, as cooked food does (USDA consumer advice: 3 to 4 days).
SAUCE_KEEPS_DAYS = 3
SUMMARY_KINDS = frozenset({"dish", "count", "style", "size", "limit", "mould", "doneness", "people", "bread"})


@dataclass(frozen=True, slots=True)
class RecipeLine:
    """A line of the recipe and what it became; ``choices`` settle one that waits, each another text of the line."""

    place: int
    text: str
    became: Became
    label: Phrase
    choices: tuple[Choice, ...] = ()


@dataclass(frozen=True, slots=True)
class RecipeReading:
    """A recipe as it was read.

    ``line`` is the summary that the opening read, with its ``pieces`` and ``asks``; ``formula`` is None while one of
    those is open. ``house`` are its sauces.
    """

    name: str
    line: str
    pieces: tuple[Piece, ...]
    asks: tuple[Ask, ...]
    formula: Formula | None
    lines: tuple[RecipeLine, ...]
    house: tuple[Ingredient, ...]
    assumed: tuple[Phrase, ...]
    remarks: tuple[Phrase, ...]

    @property
    def waiting(self) -> tuple[RecipeLine, ...]:
        """The lines that wait to be settled."""
        return tuple(x for x in self.lines if x.became == "waiting")


def read_recipe(text: str, *, inventory: Inventory, kitchen: Kitchen, summary: str = "") -> RecipeReading:
    """A recipe read, and the formula it comes to.

    Parameters
    ----------
    text : str
        The recipe as pasted.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    summary : str, default ''
        The summary line as a cook corrected it; "" makes it from the recipe.

    Returns
    -------
    RecipeReading
        The recipe line by line, its formula and its sauces.

    Raises
    ------
    UnreadableEntryError
        Nothing was pasted, or it is too long.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> recipe = "Balls\\nMakes 20 meatballs\\n500 g beef mince\\n1 egg\\nBake at 200 C for 20 minutes."
    >>> read = read_recipe(recipe, inventory=starter_inventory(), kitchen=yard_galley())
    >>> read.formula.dish.pieces, [line.became for line in read.lines]
    (20, ['title', 'yield', 'meat', 'mix', 'heat'])
    """
    if not text.strip():
        raise UnreadableEntryError("Nothing was pasted.", field="/text")
    if len(text) > LONGEST_RECIPE:
        raise UnreadableEntryError(
            f"A recipe here has at most {LONGEST_RECIPE} characters; this one has {len(text)}.", field="/text"
        )
    return _Page(page_lines(text), inventory=inventory, kitchen=kitchen).read(summary)


class _Page:
    def __init__(self, lines: Sequence[PageLine], *, inventory: Inventory, kitchen: Kitchen) -> None:
        self.lines, self.inventory, self.kitchen = lines, inventory, kitchen
        self.out: list[RecipeLine] = []
        self.summary: list[str] = []
        self.adds: list[tuple[int, str]] = []
        self.sauces: dict[str, list[HouseLine]] = {}
        self.heats: list[HeatSaid] = []
        self.notes: list[str] = []
        self.name = ""
        self.counted, self.fed = False, False
        self.dish = False

    def read(self, summary: str) -> RecipeReading:
        steps = " ".join(line.text for line in self.lines if line.kind == "step")
        for line in self.lines:
            if line.kind == "title":
                self._title(line)
            elif line.kind == "yield":
                self._yield(line)
            elif line.kind == "heading":
                self._keep(line, "heading", say("a heading"))
            elif line.kind == "ingredient":
                self._ingredient(line)
            else:
                self._step(line)
        if not self.dish:
            self.summary[:0] = self._dish_of(steps)
        self._fire(steps)
        if any(h.kind == "simmer" for h in self.heats) and re.search(r"balls?\b", " ".join(self.summary), re.I):
            self.summary.append("simmered in sauce")
        text = summary.strip() or ", ".join(dict.fromkeys(p for p in self.summary if p))
        if not text:
            text = "burgers"
        house = tuple(self._house(name, lines) for name, lines in self.sauces.items())
        try:
            opened = open_line(text[:300], inventory=self.inventory, kitchen=self.kitchen)
        except UnreadableEntryError:
            opened = open_line(f"{text[:280]}, burgers", inventory=self.inventory, kitchen=self.kitchen)
        formula = opened.formula
        remarks = list(opened.remarks)
        if formula is not None:
            formula = self._formula(formula, remarks)
        return RecipeReading(
            self.name or (formula.name if formula else "Recipe"),
            opened.text,
            opened.pieces,
            opened.asks,
            formula,
            tuple(self.out),
            house,
            opened.assumed,
            tuple(remarks),
        )

    def _keep(self, line: PageLine, became: Became, label: Phrase, choices: tuple[Choice, ...] = ()) -> None:
        self.out.append(RecipeLine(line.place, line.text, became, label, choices))

    # --- title, yield, dish ------------------------------------------------------------

    def _title(self, line: PageLine) -> None:
        self.name = " ".join(line.text.split())[:LONGEST_NAME]
        self._pieces_of(line.text)
        self._keep(line, "title", say("the name"))

    def _fire(self, steps: str) -> None:
        """Where the steps cook, unless an oven does it."""
        if any(h.kind in ("oven", "preheat") for h in self.heats):
            return
        surfaces = read_line(steps[:2000], inventory=self.inventory, kitchen=self.kitchen).said.surfaces
        kinds = [self.kitchen.surface(key).kind if how == "key" else key for how, key, _ in surfaces]
        words = {"pan": "pan", "plate": "flat plate", "grate": "grill"}
        self.summary += [words[k] for k in kinds if k in words][:1]

    def _yield(self, line: PageLine) -> None:
        text = re.sub(r"^\W*(?:yields?|servings?|portions?)\W*(?=\d)", "serves ", line.text, flags=re.I).strip(" .")
        read = read_line(text, inventory=self.inventory, kitchen=self.kitchen)
        told = [p for p in read.pieces if p.kind in SUMMARY_KINDS and p.status != "unread"]
        if not told:
            self._wait(line, say("for how many, or how many pieces?"), ("serves 4", "makes 8 pieces"))
            return
        for piece in told:
            # A yield said twice ("8", "8 slices") feeds no more.
            if piece.kind == "people" and self.fed:
                continue
            self.fed = self.fed or piece.kind == "people"
            self.summary.append(piece.text)
            self.counted = self.counted or piece.kind == "count"
        self._note_dish(read)
        label = told[0].label
        self._keep(line, "yield", label)

    def _note_dish(self, read: object) -> None:
        said = read.said  # type: ignore[attr-defined]
        self.dish = self.dish or any(w.style for w in said.pieces)

    def _pieces_of(self, text: str) -> None:
        read = read_line(text, inventory=self.inventory, kitchen=self.kitchen)
        self.summary += [p.text for p in read.pieces if p.kind in SUMMARY_KINDS and p.status == "understood"]
        self._note_dish(read)

    def _dish_of(self, steps: str) -> list[str]:
        for pattern, word in (
            (r"\b(?:meat)?balls?\b", "meatballs"),
            (r"\bloa(?:f|ves)\b", "meatloaf"),
            (r"\b(?:patt(?:y|ies)|burgers?)\b", "burgers"),
            (r"\b(?:rag[uù]|bolognese|meat sauce)\b", "meat sauce"),
        ):
            if re.search(pattern, steps, re.I):
                return [word]
        return []

    # --- ingredients ------------------------------------------------------------

    def _ingredient(self, line: PageLine) -> None:
        read = read_mix(line.text, inventory=self.inventory, kitchen=self.kitchen, meat_mass_g=1000.0)
        if is_serving(line.section) or re.search(r"\b(?:buns?|rolls?)\b", line.text, re.I):
            self.notes.append(line.text)
            self._keep(line, "serving", say("served with it, kept as a note"))
            return
        meats = [p for p in read.pieces if p.kind == "a_meat"]
        if meats and not is_sauce(line.section):
            self._meat(line)
            return
        if read.asks:
            ask = read.asks[0]
            self._keep(line, "waiting", ask.text, tuple(Choice(c.label, c.text) for c in ask.choices))
            return
        unread = [p for p in read.pieces if p.status == "unread"]
        known = [i for i in read.items if i.amount is not None or i.to_taste]
        if not known:
            self._open(line, read)
            return
        label = next((p.label for p in read.pieces if p.status != "unread" and p.kind != "prepared"), say("read"))
        if is_sauce(line.section):
            lines = self.sauces.setdefault(line.section, [])
            for item in read.items:
                if item.amount is not None and item.amount.mass_g > 0:
                    lines.append(HouseLine(item.ingredient, item.amount.mass_g))
            self._keep(line, "sauce", say("into “{name}”", name=ph.word(line.section)))
            return
        if unread:
            self.notes.append(line.text)
            more = tuple(Choice(a.label, a.text) for p in unread[:1] for a in p.alternatives)
            self._keep(line, "waiting", say("“{what}” was not understood", what=ph.word(unread[0].text)), more)
            self.adds.append((line.place, line.text))
            return
        salt = all(self.inventory.pantry[i.ingredient].group == "salt" for i in read.items)
        self.adds.append((line.place, line.text))
        self._keep(line, "salt" if salt else "mix", label)

    def _meat(self, line: PageLine) -> None:
        read = read_line(line.text, inventory=self.inventory, kitchen=self.kitchen)
        told = [p for p in read.pieces if p.kind in ("meat", "share", "mass", "fat") and p.status != "unread"]
        if not read.said.meats or not told:
            self._wait(line, say("which meat, and how much?"), (f"500 g {line.text}",))
            return
        self.summary += [p.text for p in told]
        self._keep(line, "meat", told[0].label)

    def _open(self, line: PageLine, read: MixReading) -> None:
        """A line without an amount, or with nothing known in it."""
        if read.waiting:
            name = read.waiting[0].text
            self._wait(
                line,
                say("{what}: how much?", what=ph.word(name)),
                (f"1 tsp {name}", f"1 tbsp {name}", f"{name} to taste"),
            )
            return
        unread = [p for p in read.pieces if p.status == "unread"]
        choices = tuple(Choice(a.label, a.text) for p in unread[-1:] for a in p.alternatives[:-1])
        leave = Choice(say("leave it out"), "")
        self._keep(line, "waiting", say("nothing known in it"), (*choices, leave))

    def _wait(self, line: PageLine, why: Phrase, ways: tuple[str, ...]) -> None:
        choices = tuple(Choice(say("{w}", w=ph.word(w)), w) for w in ways)
        self._keep(line, "waiting", why, (*choices, Choice(say("leave it out"), "")))

    # --- steps ------------------------------------------------------------

    def _step(self, line: PageLine) -> None:
        self.notes.append(line.text)
        heats = heat_said(line.text, inventory=self.inventory, kitchen=self.kitchen)
        cooking = [h for h in heats if h.kind != "other"]
        if cooking:
            self.heats += cooking
            first = next((h for h in cooking if h.temp_c or h.time_s), cooking[0])
            label = say("heat: {what}", what=ph.word(first.kind))
            if first.temp_c is not None and first.time_s is not None:
                label = say(
                    "{what} at {t}, {s}", what=ph.word(first.kind), t=ph.temp(first.temp_c), s=ph.duration(first.time_s)
                )
            elif first.temp_c is not None:
                label = say("{what} at {t}", what=ph.word(first.kind), t=ph.temp(first.temp_c))
            elif first.time_s is not None:
                label = say("{what}, {s}", what=ph.word(first.kind), s=ph.duration(first.time_s))
            self._keep(line, "heat", label)
            return
        shaped = self._shaped(line)
        if not shaped:
            self._keep(line, "note", say("kept as a note"))

    def _shaped(self, line: PageLine) -> bool:
        match = re.search(
            r"\b(?:shape|form|roll|divide|portion|make|press)\w*\b.{0,60}?\binto\b(.{0,60})", line.text, re.I
        )
        if match is None:
            return False
        read = read_line(f"makes {match.group(1)}", inventory=self.inventory, kitchen=self.kitchen)
        told = [p for p in read.pieces if p.kind in ("count", "size", "dish") and p.status == "understood"]
        if not told:
            return False
        if not self.counted:
            self.summary += [p.text for p in told]
            self.counted = any(p.kind == "count" for p in told)
        self._note_dish(read)
        self._keep(line, "shape", told[0].label)
        return True

    # --- the formula ------------------------------------------------------------

    def _edit(self, formula: Formula, edit: Edit, what: str, remarks: list[Phrase]) -> Formula:
        try:
            return apply_edit(formula, edit, inventory=self.inventory, kitchen=self.kitchen)
        except CoreError as refused:
            remarks.append(say("{what}: {why}", what=ph.word(what), why=ph.word(refused.detail)))
            return formula

    def _formula(self, formula: Formula, remarks: list[Phrase]) -> Formula:
        """The formula of the summary with the recipe's own mix, salt and heat instead of a school's."""
        for line in tuple(formula.mix.lines):
            if not line.filling:
                formula = self._edit(formula, TakeOut(line.ingredient), line.ingredient, remarks)
        for _, text in self.adds:
            formula = self._edit(formula, AddToMix(text), text, remarks)
        if style_of(formula.dish.style).dish == "burger" and formula.seasoning.salt_place == "mixed":
            # A recipe's salt goes on a burger unless its meat is mixed with other things.
            place: SaltPlace = "mixed" if formula.mix.lines else "surface"
            formula = replace(formula, seasoning=replace(formula.seasoning, salt_place=place))
        formula = self._heated(formula, remarks)
        notes = "\n".join(self.notes)
        sauces = ", ".join(self.sauces)
        if sauces:
            notes = f"With: {sauces} (house formulas)\n{notes}"
        return replace(formula, name=(self.name or formula.name)[:LONGEST_NAME], remark=notes[:LONGEST_REMARK].strip())

    def _heated(self, formula: Formula, remarks: list[Phrase]) -> Formula:
        surface = self.kitchen.surface(formula.heat.surface)
        own = "oven" if surface.kind == "oven" else "surface"
        hot = next((h.temp_c for h in self.heats if h.temp_c is not None and h.kind in (own, "preheat")), None)
        if hot is not None:
            formula = self._edit(formula, SetFigure("surface_temp", hot), "the surface", remarks)
        core = next((h.core_c for h in self.heats if h.core_c is not None), None)
        if core is not None:
            formula = self._edit(formula, SetFigure("target_core_temp", core), "the core", remarks)
        stages = self._stages(own, formula)
        if not stages:
            return formula
        try:
            edit = SetStages(stages)
            return apply_edit(formula, edit, inventory=self.inventory, kitchen=self.kitchen)
        except (OutOfRangeError, CoreError) as refused:
            remarks.append(say("The recipe's minutes stay in the notes: {why}", why=ph.word(refused.detail)))
            return formula

    def _stages(self, own: str, formula: Formula) -> tuple[HeatStage, ...]:
        flat = style_of(formula.dish.style).form in FLAT
        stages: list[HeatStage] = []
        for heat in self.heats:
            if heat.time_s is None or heat.kind == "preheat":
                continue
            if heat.kind not in (own, "simmer", "broiler", "oven"):
                continue
            kind: StageKind = "surface" if heat.kind == own else heat.kind  # type: ignore[assignment]
            stages.append(HeatStage(kind, "time", heat.time_s, flip=flat and kind == "surface" and bool(stages)))
        sides = re.search(r"\b(?:each|per|a) side\b|\bon both sides\b", " ".join(self.notes), re.I)
        if flat and sides and len([s for s in stages if s.kind == "surface"]) == 1:
            at = next(i for i, s in enumerate(stages) if s.kind == "surface")
            stages.insert(at + 1, replace(stages[at], flip=True))
        # The last stage goes on until the core is as wanted; the recipe's minutes stand in the notes.
        if stages:
            stages[-1] = replace(stages[-1], until="core", time_s=0.0)
        return tuple(stages[:6])

    def _house(self, name: str, lines: list[HouseLine]) -> Ingredient:
        summed: dict[str, float] = {}
        for line in lines:
            summed[line.ingredient] = summed.get(line.ingredient, 0.0) + line.mass_g
        title = f"{name[:1].upper()}{name[1:]}"
        if self.name and self.name.lower() not in title.lower():
            title = f"{title}, {self.name}"
        key = re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-")[:56] or "sauce"
        taken, n = key, 2
        while taken in self.inventory.pantry:
            taken, n = f"{key}-{n}", n + 1
        return Ingredient(
            key=taken,
            name=title[:80],
            group="sauce",
            composition=Composition(0, 0, 0, 0, 0, 0, 0),
            composition_note="from its own lines",
            g_per_cup=0.0,
            volume_source="",
            pieces=(),
            allergens=(),
            temp_c=4.0,
            price_per_kg=Decimal(0),
            house=HouseFormula(tuple(HouseLine(k, g) for k, g in summed.items()), 0.0, SAUCE_KEEPS_DAYS),
        )
