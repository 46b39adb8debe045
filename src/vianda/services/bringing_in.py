"""An archive brought into a kitchen: what each item becomes there, part by part.

Two kitchens tell the same thing apart by its key (meats, lots, pantry), its name (formulas), what it is (services) or
by what it is of and when it began (records). Records are never changed: where another of the same moment stands, ours
stays. Numbers of the archive give way to numbers of here, in tasks and checks too.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal

from vianda.core.basis.errors import CoreError
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Meat
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import Ingredient
from vianda.core.inventory.plausible import check_composition
from vianda.core.model.formula import Formula
from vianda.core.reading.names import admitted_meat
from vianda.interchange import archive_parts as ap
from vianda.interchange.archive_parts import PARTS, naive
from vianda.interchange.kept_cook import is_plan
from vianda.interchange.kinds import as_kept
from vianda.interchange.kitchen_archive import Archive, UnreadableArchiveError
from vianda.interchange.photograph import read_kept
from vianda.interchange.service_file import renumbered
from vianda.services.bench import context
from vianda.services.breaking import refuse_breaking_ingredient, refuse_breaking_lot, refuse_breaking_meat
from vianda.services.formulas import checked, fitted
from vianda.services.kitchens import save_kitchen
from vianda.services.pantry import admit
from vianda.storage import archive_writing as here
from vianda.storage import formula_repository, kitchen_repository, larder_repository, supply_repository
from vianda.storage.here import kitchen_here, use_kitchen

Differing = Literal["keep", "replace"]
Outcome = Literal["added", "changed", "same", "skipped"]
_OF_FORMULA = re.compile(r"(?<![A-Za-z0-9])f(\d+)-")


@dataclass(frozen=True, slots=True)
class Line:
    """What becomes of one item, and why."""

    name: str
    outcome: Outcome
    reason: str


class Bringing:
    """One archive on its way in. ``run`` does it; ``counted`` and ``kitchen_id`` say what came of it."""

    def __init__(self, archive: Archive, *, into_new: bool, differing: Differing, looking: bool) -> None:
        self._archive, self._new, self._replace, self._looking = archive, into_new, differing == "replace", looking
        self._formulas: dict[int, int] = {}
        self._services: dict[int, int] = {}
        self._cooks: dict[int, int] = {}
        self._weighings: dict[int, int] = {}
        self._evenings: dict[int, int] = {}
        # Records that stood here already bring nothing more with them.
        self._stood: set[tuple[str, int]] = set()
        self._lines: dict[str, list[Line]] = {name: [] for name in PARTS}
        self.counted: dict[str, dict[str, int]] = {name: Counter() for name in PARTS}
        self.kitchen_id = 0

    def run(self) -> dict[str, list[Line]]:
        """Bring every part in; what became of what was not simply added."""
        self._kitchen()
        self._larder()
        self._shelf()
        self._records()
        return self._lines

    def _note(self, part: str, name: str, outcome: Outcome, reason: str = "") -> None:
        self.counted[part][outcome] += 1
        # What is the same already, or of a new kitchen all there is, needs no line.
        if outcome != "same" and not (self._new and outcome == "added"):
            self._lines[part].append(Line(name, outcome, reason))

    def _items(self, part: str) -> Any:
        return self._archive.items(part)

    # The kitchen and what lies in it.

    def _kitchen(self) -> None:
        kitchens: list[Kitchen] = list(self._items("kitchen"))
        if len(kitchens) != 1:
            raise UnreadableArchiveError(f"A kitchen archive holds one kitchen; this one holds {len(kitchens)}.")
        theirs = kitchens[0]
        if self._new:
            number = kitchen_repository.create_kitchen(theirs)
            use_kitchen(number)
            self._note("kitchen", theirs.name, "added")
        else:
            ours = kitchen_repository.load_kitchen()
            if ours.kitchen == theirs:
                self._note("kitchen", theirs.name, "same")
            elif self._replace:
                save_kitchen(theirs, revision=ours.revision)
                self._note(
                    "kitchen", theirs.name, "changed", "settings, surfaces, breads, moulds and tools of the file"
                )
            else:
                self._note("kitchen", theirs.name, "skipped", "differs from the kitchen here, which stays as it is")
        self.kitchen_id = kitchen_here()

    def _larder(self) -> None:
        held = dict(larder_repository.load_inventory().meats)
        standing = set(held)
        for meat in self._items("meats"):
            self._meat(meat, held)
        larder_repository.add_meats(meat for key, meat in held.items() if key not in standing)
        known = {stored.lot.key: stored for stored in larder_repository.list_lots()}
        meats = larder_repository.load_inventory().meats
        for lot in self._items("lots"):
            self._lot(lot, known.get(lot.key), meats)
        stored = {s.ingredient.key: s for s in larder_repository.list_ingredients()}
        coming: list[Ingredient] = []
        for thing in self._items("pantry"):
            self._thing(thing, stored.get(thing.key), coming)
        if self._new:
            larder_repository.add_ingredients(coming)
        else:
            for change in admit(coming):
                self._lines["pantry"].append(Line("", "added", change))
        kept = here.stock_here()
        for one in self._items("stock"):
            name, before = f"{one.kind} {one.key}", kept.get((one.kind, one.key))
            if before is not None and (before == one or not self._replace):
                same = before == one
                self._note("stock", name, "same" if same else "skipped", "" if same else "counted otherwise here")
                continue
            supply_repository.keep_stocked(one)
            self._note("stock", name, "added" if before is None else "changed")

    def _meat(self, meat: Meat, held: dict[str, Meat]) -> None:
        ours = held.get(meat.key)
        if ours is None:
            check_composition(meat.composition, meat=True, field="/larder")
            came, changes = admitted_meat(meat, meats=held)
            held[came.key] = came
            self._note("meats", came.name, "added", " ".join(changes))
        elif ours == meat:
            self._note("meats", meat.name, "same")
        elif self._replace:
            check_composition(meat.composition, meat=True, field="/larder")
            refuse_breaking_meat(meat, context())
            larder_repository.save_meat(meat, seen=ours)
            self._note("meats", meat.name, "changed")
        else:
            self._note("meats", meat.name, "skipped", "known here with other figures, which stay")

    def _lot(self, lot: Lot, ours: Any, meats: Any) -> None:
        if lot.meat not in meats:
            self._note("lots", lot.name or lot.key, "skipped", "its meat is not in the larder")
        elif ours is None:
            larder_repository.create_lot(lot)
            self._note("lots", lot.name or lot.key, "added")
        elif ours.lot == lot:
            self._note("lots", lot.name or lot.key, "same")
        elif self._replace and ours.lot.meat == lot.meat:
            refuse_breaking_lot(lot)
            larder_repository.save_lot(lot, revision=ours.revision)
            self._note("lots", lot.name or lot.key, "changed")
        else:
            self._note("lots", lot.name or lot.key, "skipped", "written down otherwise here, which stays")

    def _thing(self, thing: Ingredient, ours: Any, coming: list[Ingredient]) -> None:
        if ours is None:
            coming.append(thing)
            self._note("pantry", thing.name, "added")
        elif ours.ingredient == as_kept(thing):
            self._note("pantry", thing.name, "same")
        elif self._replace:
            pantry = {s.ingredient.key: s.ingredient for s in larder_repository.list_ingredients()}
            refuse_breaking_ingredient(thing, {**pantry, thing.key: thing})
            larder_repository.save_ingredient(thing, revision=ours.revision)
            self._note("pantry", thing.name, "changed")
        else:
            self._note("pantry", thing.name, "skipped", "known here with other figures, which stay")

    # The shelf.

    def _shelf(self) -> None:
        standing = here.formulas_here()
        # Of two that are alike each is its own, by their order: services and cooks name one of them.
        alike: dict[Formula, list[int]] = {}
        for number, formula, _ in sorted(standing, key=lambda one: one[0]):
            alike.setdefault(formula, []).append(number)
        named = {formula.name.casefold(): (number, formula) for number, formula, _ in reversed(standing)}
        for item in self._items("formulas"):
            name = item.formula.name
            if item.formula in alike:
                numbers = alike[item.formula]
                self._take_versions(item, numbers.pop(0) if len(numbers) > 1 else numbers[0], "same")
            elif name.casefold() in named:
                number, ours = named[name.casefold()]
                self._differing_formula(item, number, ours)
            else:
                self._new_formula(item)
        services = here.services_here()
        for one in self._items("services"):
            service = renumbered(one.service, self._formulas)
            if service in services:
                self._services[one.id] = services[service]
                self._note("services", service.name, "same")
            else:
                left = len(one.service.dishes) - len(service.dishes)
                self._services[one.id] = services[service] = here.put_service(service, changed_by=one.changed_by)
                reason = f"without {left} dishes whose formulas were left out" if left else ""
                self._note("services", service.name, "added", reason)

    def _fitted(self, formula: Formula) -> tuple[Formula, str]:
        kitchen = kitchen_repository.load_kitchen().kitchen
        fits, replaced = fitted(formula, kitchen)
        return checked(fits), f"not in this kitchen, so ours took its place: {', '.join(replaced)}" if replaced else ""

    def _new_formula(self, item: ap.FormulaItem) -> None:
        formula, reason = item.formula, ""
        if not self._new and not item.archived:
            try:
                formula, reason = self._fitted(formula)
            except CoreError as refused:
                self._note("formulas", item.formula.name, "skipped", f"cannot be worked out here: {refused.detail}")
                return
        self._formulas[item.id] = here.put_formula(item, formula)
        self._note("formulas", formula.name, "added", reason)

    def _differing_formula(self, item: ap.FormulaItem, number: int, ours: Formula) -> None:
        if not self._replace:
            self._take_versions(item, number, "skipped", "stands here otherwise, and stays; its records join it")
            return
        try:
            formula, reason = self._fitted(item.formula)
        except CoreError as refused:
            why = f"cannot be worked out here: {refused.detail}"
            self._take_versions(item, number, "skipped", why)
            return
        # Nothing is lost: ours is kept as a version before it gives way.
        formula_repository.restore_formula(number)
        formula_repository.keep_version(number, name=f"Before {ours.name[:50]} came by file")
        revision = formula_repository.get_formula(number).revision
        formula_repository.save_formula(number, formula, revision=revision)
        self._take_versions(item, number, "changed", reason or "ours was kept as a version")

    def _take_versions(self, item: ap.FormulaItem, number: int, outcome: Outcome, reason: str = "") -> None:
        self._formulas[item.id] = number
        kept = here.versions_here(number)
        new = [v for v in item.versions if (v.name, v.formula) not in kept]
        here.put_versions(number, new, after=here.last_version(number))
        came = f"{len(new)} kept versions come with it" if new else ""
        if outcome == "same" and new:
            outcome = "changed"
        self._note("formulas", item.formula.name, outcome, "; ".join(part for part in (reason, came) if part))

    # What happened.

    def _records(self) -> None:
        cooks, weighings, tastings = here.cooks_here(), here.weighings_here(), here.tastings_here()
        for cook in self._items("cooks"):
            self._record("cooks", cook, cook.formula.name, cooks, self._cooks, self._put_cook)
        for one in self._items("weighings"):
            self._record("weighings", one, one.formula_name, weighings, self._weighings, here.put_weighing)
        for one in self._items("tastings"):
            number = self._formulas.get(one.formula_id)
            name = ", ".join(version.name for version in one.tasting.versions)
            if number is None:
                self._note("tastings", name, "skipped", "its formula was left out")
            elif (number, naive(one.created_at)) in tastings:
                self._note("tastings", name, "same")
            else:
                here.put_tasting(one, number)
                self._note("tastings", name, "added")
        evenings = here.evenings_here()
        for evening in self._items("evenings"):
            self._evening(evening, evenings)
        self._observations()
        rounds = here.training_here()
        for one in self._items("training"):
            if one.token not in rounds:
                here.put_training(one)
            self._note("training", one.kind, "same" if one.token in rounds else "added")
        self._photographs()

    def _record(
        self,
        part: str,
        item: Any,
        name: str,
        standing: dict[tuple[int, Any], int],
        numbers: dict[int, int],
        put: Callable[[Any, int], int],
    ) -> None:
        said = f"{name}, {item.started_at:%Y-%m-%d %H:%M} UTC"
        formula_id = self._formulas.get(item.formula_id)
        if formula_id is None:
            self._note(part, said, "skipped", "its formula was left out")
            return
        there = standing.get((formula_id, naive(item.started_at)))
        if there is not None:
            numbers[item.id] = there
            self._stood.add((part, item.id))
            self._note(part, said, "same")
            return
        numbers[item.id] = put(item, formula_id)
        self._note(part, said, "added")

    def _put_cook(self, item: ap.CookItem, formula_id: int) -> int:
        if not is_plan(item.plan):
            raise UnreadableArchiveError(f"The plan of cook {item.id} lacks what a plan holds.")
        return here.put_cook(item, formula_id)

    def _evening(self, item: ap.EveningItem, standing: dict[tuple[int, Any], int]) -> None:
        said = f"{item.name or 'The kitchen'}, {item.day}"
        if item.service_id and item.service_id not in self._services:
            # A service that was deleted leaves its evenings; they stay apart from all that are here.
            self._services[item.service_id] = here.unused_service_id()
        service_id = self._services[item.service_id] if item.service_id else 0
        key: tuple[int, Any] = (service_id, str(item.day))
        if key in standing:
            self._evenings[item.id] = standing[key]
            self._stood.add(("evenings", item.id))
            self._note("evenings", said, "same")
            return
        standing[key] = self._evenings[item.id] = here.put_evening(item, service_id, self._renumbered)
        self._note("evenings", said, "added")

    def _renumbered(self, key: str) -> str:
        # A formula that is not here any more has no number here; 0 is nobody's.
        return _OF_FORMULA.sub(lambda found: f"f{self._formulas.get(int(found[1]), 0)}-", key)

    def _observations(self) -> None:
        sources = {"minutes": ("evenings", self._evenings), "bowl": ("weighings", self._weighings)}
        standing, pots, next_pot = here.observations_here(), here.pots_here(), here.newest_pot() + 1
        for item in self._items("observations"):
            if item.figure == "evaporation":
                if (naive(item.at), item.value) in pots:
                    self._note("observations", "a pot", "same")
                    continue
                here.put_observation(item, next_pot)
                next_pot += 1
                self._note("observations", "a pot", "added")
                continue
            part, numbers = sources.get(item.figure, ("cooks", self._cooks))
            number = numbers.get(item.source_id)
            if number is None:
                self._note("observations", item.figure, "skipped", "what it was seen in was left out")
            elif (part, item.source_id) in self._stood or (item.figure, number, item.piece) in standing:
                self._note("observations", item.figure, "same")
            else:
                here.put_observation(item, number)
                self._note("observations", item.figure, "added")

    def _photographs(self) -> None:
        standing = here.photographs_here()
        held = Counter(cook for cook, _ in standing)
        for item in self._items("photographs"):
            cook_id = self._cooks.get(item.cook_id)
            said = item.caption or f"photograph {item.id}"
            if cook_id is None:
                self._note("photographs", said, "skipped", "its cook was left out")
            elif (cook_id, naive(item.at)) in standing:
                self._note("photographs", said, "same")
            elif held[cook_id] >= here.MOST_PHOTOGRAPHS:
                self._note("photographs", said, "skipped", f"its cook has {here.MOST_PHOTOGRAPHS} here already")
            else:
                data = self._archive.photograph(item.id, item.sha256)
                if not self._looking:
                    kept = read_kept(data)
                    files = {"jpeg": kept.jpeg, "small": kept.small}
                    here.put_photograph(item, cook_id, files, width=kept.width, height=kept.height)
                held[cook_id] += 1
                self._note("photographs", said, "added")
