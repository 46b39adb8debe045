"""The tasks before the heat: cubes, grinding, panade and bowl, chilling and shaping."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.phrase import say
from vianda.core.model.styles import BLOCKS
from vianda.core.pipeline.figures import Figures
from vianda.core.sauce.from_raw import COOKED_BESIDE, from_raw
from vianda.core.timetable import practice as pr
from vianda.core.timetable.sheet import GRINDER, HOB, Sheet, pan_of


def make_mix(sheet: Sheet) -> str:
    """Cubes, grinding, panade and bowl.

    Parameters
    ----------
    sheet : Sheet
        Where the tasks are noted.

    Returns
    -------
    str
        The task after which the meat is mixed; empty when nothing is done to it.
    """
    f = sheet.figures
    formula, grind = f.context.formula, f.meat.grind
    meat = ph.mass(f.batch.meat_mass_g)
    last = ""
    if grind.minutes > 0 and grind.ground_mass_g > 0:
        firm = sheet.task("freeze-cubes", say("Cubes to the freezer, edges firm"), pr.FREEZE_CUBES, hands=False)
        cut = sheet.task("cut-cubes", say("Cut {m} into cubes", m=meat), _per_kg(f, 2.0, 3.0, 5.0), kind="cut-cubes")
        takes = Band(*(grind.minutes * x for x in (pr.GRIND_FACTOR.low, 1.0, pr.GRIND_FACTOR.high)))
        last = sheet.task("grind", say("Grind {m}", m=meat), takes, needs=(GRINDER,), kind="grind")
        sheet.lag(cut, firm, 0, 60)
        sheet.lag(firm, last, 0, pr.FIRM)
    lines = [x for x in f.mix.lines if x.per_meat_frac > 0]
    soaked = ""
    if f.mix.panade.crumb_g > 0 and formula.mix.soak_min > 0:
        stirred = sheet.task("panade", say("Stir the panade"), pr.STIR_PANADE, kind="panade")
        soak = formula.mix.soak_min
        soaked = sheet.task("soak", say("The panade soaks"), Band(soak, soak, soak * 1.2), hands=False)
        sheet.lag(stirred, soaked, 0, 0)
    cooled = [_soften(sheet, line.ingredient, line.mass_g) for line in lines if line.ingredient in COOKED_BESIDE]
    if not lines and formula.seasoning.salt_place != "mixed":
        # Nothing goes in: the meat is only portioned.
        return last
    work = formula.mix.work_s / 60.0
    takes = pr.BOWL.plus(pr.WEIGH_LINE.times(len(lines))).plus(Band(0.8 * work, work, 1.3 * work))
    mix = sheet.task("mix", say("Weigh out and mix {m}", m=ph.mass(f.batch.mix_mass_g)), takes, kind="mix")
    sheet.lag(last, mix, 0, pr.COLD, cold=True)
    sheet.lag(soaked, mix, 0, pr.SOAKED, cold=True)
    for key in cooled:
        sheet.lag(key, mix, 0, pr.COLD, cold=True)
    return mix


def _per_kg(f: Figures, low: float, usual: float, high: float) -> Band:
    return Band(low, usual, high).times(max(0.5, f.batch.meat_mass_g / 1000.0))


def _soften(sheet: Sheet, ingredient: str, grams: float) -> str:
    """What is cooked soft and goes cold into the mix; the task after which it is cold."""
    surface = pan_of(sheet)
    raw = from_raw(ingredient, grams, surface=surface)
    if raw is None:
        return ""
    name = sheet.figures.context.inventory.pantry[ingredient].name.lower()
    takes = Band(raw.minutes.low, raw.minutes.usual, raw.minutes.high)
    cooked = sheet.task(f"soften-{ingredient}", say("Cook {what}", what=ph.word(name)), takes, needs=(HOB,))
    cold = sheet.task(f"cool-{ingredient}", say("Cool {what}", what=ph.word(name)), pr.COOLS, hands=False)
    sheet.lag(cooked, cold, 0, 0)
    return cold


def shape_pieces(sheet: Sheet, mixed: str) -> str:
    """Chilling and shaping.

    Parameters
    ----------
    sheet : Sheet
        Where the tasks are noted.
    mixed : str
        The task after which the meat is mixed.

    Returns
    -------
    str
        The task after which raw pieces lie ready.
    """
    f = sheet.figures
    formula, form, n = f.context.formula, f.context.style.form, f.batch.portions.pieces
    last, most = mixed, pr.SHAPED
    if mixed and formula.mix.chill_min > 0 and formula.mix.lines:
        chill = formula.mix.chill_min
        cold = sheet.task("chill", say("The mix chills"), Band(chill, chill, chill * 1.1), hands=False)
        sheet.lag(mixed, cold, 0, 10)
        last = cold
    one = pr.SHAPE_ONE[form]
    if one.usual > 0:
        word = "{n} loaves" if form in BLOCKS else "{n} pieces"
        shape = sheet.task("shape", say("Shape " + word, n=ph.count(n)), one.times(n), kind="shape")
        sheet.lag(last, shape, 0, most, cold=True)
        last = shape
    for stage in f.cook.plan.before:
        low, high = stage.low_s / 60.0, max(stage.low_s, stage.high_s) / 60.0
        if high > 0:
            waits = Band(low, (low + high) / 2, high)
            key = sheet.task(f"before-{stage.kind}", say(stage.title), waits, hands=False)
            sheet.lag(last, key, 0, 30)
            last = key
    return last
