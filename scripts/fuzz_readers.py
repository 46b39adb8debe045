"""Give every reader and importer what nobody would write, and say which one fell over or took its time.

Usage: .venv/bin/python scripts/fuzz_readers.py [--inputs 100000] [--seed 1]

Each input is a good one with a few things changed: bytes flipped, cut and doubled, signs of other scripts, figures
without end, values of a JSON document replaced. A reader may read it or refuse it in its own words; anything else is
a fault, and so is an answer that takes longer than a second. Ends with 1 where there was one. No database is needed.
"""

from __future__ import annotations

import argparse
import collections
import copy
import io
import json
import random
import sys
import time
import traceback
import zipfile
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from PIL import Image
from pydantic import ValidationError

from vianda.core.basis.errors import CoreError
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.opening.recipe import read_recipe
from vianda.core.pipeline.larder_here import larder_here
from vianda.core.reading import entry
from vianda.core.reading.amount_entry import read_amount
from vianda.core.reading.line import read_line
from vianda.core.reading.mix_line import read_mix
from vianda.interchange.calendar_busy import busy_times
from vianda.interchange.formula_file import FormulaBundle, read_text, write_file
from vianda.interchange.kinds import KITCHENS, MEATS
from vianda.interchange.kitchen_archive import Archive, Writer
from vianda.interchange.larder_csv import read_csv, write_csv
from vianda.interchange.pantry_csv import pantry_csv, read_pantry_csv
from vianda.interchange.photograph import read_kept, read_photograph
from vianda.interchange.recipe_ld import recipe_text
from vianda.interchange.service_file import read_service_file

SLOW_S = 1.0
MOST_SHOWN = 10
# An input drawn by chance, and the reading of it.
Drawn = Callable[[random.Random], Callable[[], object]]
PLAIN = ("kitchen", "meat")
KITCHEN: Kitchen = yard_galley()
INVENTORY = larder_here(starter_inventory(), KITCHEN)
SIGNS = (
    "\0", "\u200b", "\u202e", "🍔", "½", "１", "٣", "e\u0301", "\ufeff", "\r", "\t", '"', "'", "=", ",", ";", ":", "/",
    "%", "(", "<", "&", "\\", "{", "[", "-", "+", ".", "9" * 30, "1e308", "-0", "nan", "inf", " of ", " x ", "\n\n",
)  # fmt: skip
ODD: tuple[Any, ...] = (
    None, True, "", "x" * 3000, "🍔", -1, 0, 1e-12, 1e308, -1e308, 2**63, 2**1000, [], {}, [[[[]]]], "NaN", "chuck",
    {"format": "vianda-formula"}, "2026-02-30",
)  # fmt: skip
LINES = (
    "700 g unknown mince, iron pan, four people, burgers", "3 lb 80/20 on the grill for 8",
    "20 meatballs for 6, no pork, gluten free", "rich, loose, crusty", "chuck and brisket point, 40 smashed burgers",
)  # fmt: skip
MIXES = ("2 tbsp milk, 1 egg, 40 g panko", "½ onion, grated; 3 cloves garlic; salt 1.2 %", "1/3 cup breadcrumbs")
ENTRIES = ("1 lb 4 oz", "1/3 cup", "450F", "2 tsp", "85 g", "12 mm", "3½ in", "1:30", "90 s", "20 %", "1,5 kg", "4-5")
RECIPE = """Keeper's loaf
Serves 6
500 g ground beef
250 g ground pork
1 onion, finely chopped
2 eggs
100 g breadcrumbs soaked in 150 ml milk
1 tsp salt
Bake at 180 C for an hour until 71 C inside.
"""
CALENDAR = """BEGIN:VCALENDAR\r
VERSION:2.0\r
PRODID:-//x//x//EN\r
BEGIN:VEVENT\r
UID:1\r
DTSTART:20261204T170000Z\r
DTEND:20261204T180000Z\r
RRULE:FREQ=WEEKLY;COUNT=10\r
END:VEVENT\r
BEGIN:VFREEBUSY\r
FREEBUSY:20261204T190000Z/PT1H\r
END:VFREEBUSY\r
END:VCALENDAR\r
"""


def _mangled(chance: random.Random, text: str) -> str:
    """A text with one to six things changed."""
    for _ in range(chance.randint(1, 6)):
        at = chance.randrange(len(text) + 1)
        match chance.randrange(6):
            case 0:
                text = text[:at] + chance.choice(SIGNS) + text[at:]
            case 1:
                text = text[:at] + text[at + chance.randint(1, 8) :]
            case 2:
                text = text[:at]
            case 3:
                part = text[at : at + chance.randint(1, 40)]
                text = text[:at] + part * chance.randint(2, 12) + text[at:]
            case 4:
                text = text[:at] + chr(chance.randrange(1, 0xD7FF)) + text[at + 1 :]
            case _:
                other = chance.randrange(len(text) + 1)
                text = text[at:] + text[:other]
    return text[:20_000]


def _flipped(chance: random.Random, data: bytes) -> bytes:
    held = bytearray(data)
    for _ in range(chance.randint(1, 8)):
        if not held:
            break
        at = chance.randrange(len(held))
        match chance.randrange(4):
            case 0:
                held[at] ^= 1 << chance.randrange(8)
            case 1:
                del held[at : at + chance.randint(1, 60)]
            case 2:
                held[at:at] = bytes(chance.randrange(256) for _ in range(chance.randint(1, 20)))
            case _:
                del held[at:]
    return bytes(held)


def _places(value: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    found = [path] if path else []
    items = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, inner in items:
        found += _places(inner, (*path, key))
    return found


def _replaced(chance: random.Random, text: str, places: list[tuple[Any, ...]]) -> str:
    """A JSON document with a few values that nobody would write, or without them."""
    content = json.loads(text)
    for path in chance.sample(places, min(len(places), chance.randint(1, 3))):
        inner: Any = content
        try:
            for key in path[:-1]:
                inner = inner[key]
            if chance.random() < 0.2:
                del inner[path[-1]]
            else:
                inner[path[-1]] = copy.deepcopy(chance.choice(ODD))
        except (KeyError, IndexError, TypeError):
            continue
    return json.dumps(content)


def _archive() -> bytes:
    out = io.BytesIO()
    writer = Writer(out, kitchen=KITCHEN.name, made_at=datetime(2026, 12, 4, tzinfo=UTC))
    writer.part("kitchen", [KITCHEN])
    writer.part("meats", list(INVENTORY.meats.values())[:3])
    writer.close()
    return out.getvalue()


def _read_archive(data: bytes) -> None:
    archive = Archive(io.BytesIO(data))
    for part in archive.counts():
        list(archive.items(part))


def _zipped(chance: random.Random, data: bytes) -> bytes:
    """An archive whose files were changed before they were packed."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as opened, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        for name in opened.namelist():
            content = opened.read(name)
            made.writestr(name, _flipped(chance, content) if chance.random() < 0.4 else content)
    return out.getvalue()


def _photograph(kind: str) -> bytes:
    out = io.BytesIO()
    Image.linear_gradient("L").resize((64, 48)).convert("RGB").save(out, kind)
    return out.getvalue()


def readers() -> dict[str, Drawn]:
    """Of each reader: an input drawn by chance, and the reading of it."""
    formulas = [
        json.dumps(write_file(FormulaBundle(make(), INVENTORY, KITCHEN))) for make in (slipway_smash, keepers_loaf)
    ]
    formula_places = [_places(json.loads(text)) for text in formulas]
    service = json.dumps({"format": "vianda-service", "version": 1, "service": {
        "name": "Friday", "day": "2026-12-04", "dishes": [{"formula_id": 1, "guests": 20}],
        "timing": {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []},
    }, "formulas": [json.loads(formulas[0])]})  # fmt: skip
    service_places = _places(json.loads(service))
    meats = write_csv(list(INVENTORY.meats.values())[:4])
    pantry = pantry_csv(list(starter_pantry().values())[:4])
    archive, pictures = _archive(), [_photograph(kind) for kind in ("JPEG", "PNG", "WEBP")]
    kitchen, meat = KITCHENS.text(KITCHEN), MEATS.text(next(iter(INVENTORY.meats.values())))
    kitchen_places, meat_places = _places(json.loads(kitchen)), _places(json.loads(meat))
    egg = INVENTORY.pantry["egg"] if "egg" in INVENTORY.pantry else next(iter(INVENTORY.pantry.values()))
    first, last = datetime(2026, 12, 1), datetime(2026, 12, 31)
    entries: tuple[Callable[[str], object], ...] = (
        entry.read_mass_g, entry.read_volume_ml, entry.read_length_mm, entry.read_temp_c, entry.read_delta_temp_k,
        entry.read_frac, entry.read_number, entry.read_count, lambda t: entry.read_seconds(t, bare_s=60.0),
    )  # fmt: skip

    def text_of(
        words: tuple[str, ...], read: Callable[[str], object]
    ) -> Callable[[random.Random], Callable[[], object]]:
        def draw(chance: random.Random) -> Callable[[], object]:
            said = _mangled(chance, chance.choice(words))
            return lambda: read(said)

        return draw

    def json_of(text: str, places: list[tuple[Any, ...]], read: Callable[[str], object]) -> Drawn:
        def draw(chance: random.Random) -> Callable[[], object]:
            said = _replaced(chance, text, places) if chance.random() < 0.7 else _mangled(chance, text)
            return lambda: read(said)

        return draw

    def entered(chance: random.Random) -> Callable[[], object]:
        read, said = chance.choice(entries), _mangled(chance, chance.choice(ENTRIES))
        return lambda: read(said)

    def pictured(chance: random.Random) -> Callable[[], object]:
        read = chance.choice((read_photograph, read_kept))
        data = _flipped(chance, chance.choice(pictures))
        return lambda: read(data)

    def archived(chance: random.Random) -> Callable[[], object]:
        data = (_flipped if chance.random() < 0.5 else _zipped)(chance, archive)
        return lambda: _read_archive(data)

    busy = lambda t: busy_times(t, first=first, last=last, utc_offset=timedelta(hours=1))  # noqa: E731
    return {
        "entry": entered,
        "amount": text_of(MIXES, lambda t: read_amount(t, egg, meat_mass_g=1000.0, unit_system="metric")),
        "opening line": text_of(LINES, lambda t: read_line(t, inventory=INVENTORY, kitchen=KITCHEN)),
        "mix line": text_of(MIXES, lambda t: read_mix(t, inventory=INVENTORY, kitchen=KITCHEN, meat_mass_g=1000.0)),
        "recipe": text_of((RECIPE,), lambda t: read_recipe(t, inventory=INVENTORY, kitchen=KITCHEN)),
        "recipe page": text_of(('{"@type": "Recipe", "name": "x", "recipeIngredient": ["1 kg beef"]}',), recipe_text),
        "formula file": json_of(formulas[0], formula_places[0], read_text),
        "formula file, loaf": json_of(formulas[1], formula_places[1], read_text),
        "service file": json_of(service, service_places, lambda t: read_service_file(_loaded(t))),
        "kitchen": json_of(kitchen, kitchen_places, KITCHENS.read),
        "meat": json_of(meat, meat_places, MEATS.read),
        "larder table": text_of((meats,), read_csv),
        "pantry table": text_of((pantry,), read_pantry_csv),
        "calendar": text_of((CALENDAR,), busy),
        "archive": archived,
        "photograph": pictured,
    }


def _loaded(text: str) -> object:
    try:
        return json.loads(text)
    except ValueError:
        return None


def main() -> int:
    """Draw and read until enough was read."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--inputs", type=int, default=100_000)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    chance = random.Random(given.seed)
    all_of_them = readers()
    counted: collections.Counter[str] = collections.Counter()
    taken: collections.Counter[str] = collections.Counter()
    slowest = dict.fromkeys(all_of_them, 0.0)
    faults: list[str] = []
    for n in range(given.inputs):
        name = list(all_of_them)[n % len(all_of_them)]
        reading = all_of_them[name](chance)
        counted[name] += 1
        # Of this process alone: what else the machine does is not the reader's.
        began = time.process_time()
        try:
            reading()
            taken[name] += 1
        except CoreError:
            pass
        except Exception as error:  # noqa: BLE001
            # What is read as one object alone is refused by pydantic; who calls it says so in words.
            if isinstance(error, ValidationError) and name in PLAIN:
                continue
            faults.append(f"{name}: {traceback.format_exc(limit=-4)}")
        took = time.process_time() - began
        slowest[name] = max(slowest[name], took)
        if took > SLOW_S:
            faults.append(f"{name}: {took:.2f} s")
        if len(faults) >= MOST_SHOWN:
            break
    for name in all_of_them:
        print(f"{name:20} {counted[name]:7} read, {taken[name]:6} taken, slowest {1000 * slowest[name]:7.1f} ms")
    for fault in faults:
        print(f"\n{fault}")
    print(f"\n{sum(counted.values())} inputs, {len(faults)} faults")
    return 1 if faults else 0


if __name__ == "__main__":
    sys.path.insert(0, str(Path(__file__).parent))
    raise SystemExit(main())
