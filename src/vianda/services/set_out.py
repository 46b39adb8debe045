"""A service set out: everything weighed and in its bowls, by station, and the labels of what is made ahead."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date

from vianda.core.basis.errors import CoreError
from vianda.core.basis.units import UnitSystem
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.figures import Figures
from vianda.core.supply.labels import (
    Label,
    LabelSheet,
    PrintedLabel,
    label_of,
    label_of_mix,
    laid_out,
    sheet_of,
    type_size_pt,
)
from vianda.core.supply.mise import Mise, mise_en_place
from vianda.core.supply.needs import Need, needs_of
from vianda.core.supply.occurrences import coming_day
from vianda.core.supply.shopping import Demand, shopping
from vianda.core.supply.ticks import Listed, Ticked, ticked
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.services.ticks import set_out_sheet
from vianda.storage import formula_repository, service_repository, supply_repository


@dataclass(frozen=True, slots=True)
class SetOut:
    """A service set out for a day, ``sheet`` being the list that is ticked: its dishes by station, why some cannot be,
    the labels of what is made ahead, and what is ticked."""

    name: str
    day: date
    sheet: str
    dishes: tuple[Mise, ...]
    problems: tuple[str, ...]
    labels: tuple[Label, ...]
    ticked: tuple[Ticked, ...]


def set_out(service_id: int, today: date, *, unit_system: UnitSystem | None = None) -> SetOut:
    """A service set out for the day on which it comes next."""
    service = service_repository.get_service(service_id).service
    day = coming_day(service, today=today)
    inventory, kitchen = context(unit_system)
    formulas = formula_repository.formulas_of({d.formula_id for d in service.dishes})
    dishes: list[Mise] = []
    problems: list[str] = []
    needs: list[Need] = []
    mixed: list[tuple[str, str, Figures]] = []
    again: Counter[int] = Counter()
    for served in service.dishes:
        stored = formulas.get(served.formula_id)
        if stored is None:
            problems.append("A dish is no longer on the shelf.")
            continue
        formula = stored.formula
        if served.guests:
            formula = replace(formula, dish=replace(formula.dish, guests=served.guests))
        try:
            figures = compute(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
        except CoreError as error:
            problems.append(f"{formula.name}: {error}")
            continue
        # The same formula twice is two dishes.
        again[served.formula_id] += 1
        key = f"{served.formula_id}.{again[served.formula_id]}"
        dishes.append(mise_en_place(figures, dish=formula.name, key=key))
        needs += needs_of(figures, dish=formula.name)
        if figures.batch.mix_mass_g > 0.0:
            mixed.append((f"f{key}", formula.name, figures))
    stock = supply_repository.list_stock()
    found = shopping([Demand(day, tuple(needs))], inventory=inventory, kitchen=kitchen, stock=stock)
    labels = [label_of(make, inventory=inventory, served=day) for make in found.makes]
    for key, name, figures in mixed:
        lots = dict.fromkeys(x.lot for x in found.from_lots if x.dish == name)
        labels.append(label_of_mix(figures, key=key, served=day, from_lots=lots))
    sheet = set_out_sheet(service_id, day)
    listed = {
        p.line: Listed(p.amount, counted=p.kind == "bread")
        for dish in dishes
        for bowl in dish.bowls
        for p in bowl.portions
    }
    marks = ticked(sheet, supply_repository.ticks([sheet])[sheet], listed)
    return SetOut(service.name, day, sheet, tuple(dishes), tuple(problems), tuple(labels), marks)


@dataclass(frozen=True, slots=True)
class LabelPages:
    """Labels of a service's containers, laid out for a sheet; ``kinds`` are the labels without containers."""

    name: str
    kitchen: str
    kinds: tuple[Label, ...]
    printed: tuple[PrintedLabel, ...]
    pages: int
    sheet: LabelSheet
    type_pt: float


def labels(service_id: int, today: date, *, sheet: str, first: int, containers: Mapping[str, int]) -> LabelPages:
    """Labels of what a service makes ahead; ``containers`` by lot code, one where nothing is said, 0 for none."""
    found = set_out(service_id, today)
    chosen = sheet_of(sheet)
    wanted = [(label, containers.get(label.lot, 1)) for label in found.labels]
    printed = laid_out([one for one in wanted if one[1] > 0], chosen, first=first)
    pages = printed[-1].page + 1 if printed else 0
    kitchen = context()[1].name
    return LabelPages(found.name, kitchen, found.labels, printed, pages, chosen, type_size_pt(chosen))
