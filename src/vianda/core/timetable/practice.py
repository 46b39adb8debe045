"""How long the hands take, and what may wait how long: common practice, no published source.

Minutes: the tenth of a hundred, the fiftieth, and the ninetieth.
"""

from __future__ import annotations

from collections.abc import Mapping

from vianda.core.basis.band import Band
from vianda.core.model.styles import Form

# Cubes of meat in the freezer until their edges are firm, and how hands differ at a grinder.
FREEZE_CUBES, GRIND_FACTOR = Band(30.0, 38.0, 45.0), Band(0.8, 1.0, 1.5)
# A panade or crumbs stirred; a line weighed out; what else the bowl takes.
STIR_PANADE, WEIGH_LINE, BOWL = Band(2.0, 3.0, 5.0), Band(0.4, 0.6, 1.0), Band(2.0, 3.0, 5.0)
# One piece shaped by practised hands, and a loaf.
SHAPE_ONE: Mapping[Form, Band] = {
    "disc": Band(0.25, 0.35, 0.5),
    "filled": Band(0.6, 0.9, 1.3),
    "spread": Band(0.35, 0.5, 0.8),
    "ball": Band(0.15, 0.2, 0.35),
    "loaf": Band(4.0, 6.0, 9.0),
    "tin": Band(3.0, 4.0, 6.0),
    "tray": Band(4.0, 6.0, 9.0),
    "crumbled": Band(0.0, 0.0, 0.0),
}
# What is cut and washed for the build; a house sauce stirred; a jar of pickles; a ferment packed; a sauce begun.
CUT, SAUCE, JAR, CROCK, BEGIN_POT = (
    Band(4.0, 7.0, 12.0),
    Band(5.0, 8.0, 14.0),
    Band(12.0, 18.0, 30.0),
    Band(20.0, 30.0, 45.0),
    Band(6.0, 10.0, 15.0),
)
# A cooking sauce 20 to 30 min at a simmer; a gravy some 5 behind its roux.
SIMMER, GRAVY = Band(20.0, 25.0, 35.0), Band(8.0, 12.0, 18.0)
# What was cooked soft cools before it is mixed in.
COOLS = Band(20.0, 30.0, 40.0)
# One load of bread toasted, one build put together, one portion sliced and laid on a plate.
TOAST, BUILD, PLATE = Band(1.0, 1.5, 2.5), Band(0.33, 0.5, 0.8), Band(0.25, 0.4, 0.7)
# Changing a wave: off, scraped, on.
CHANGE_MIN = 1
# A surface or an oven is hot this long, and then stands ready at most so long; a fire is lit by its fuel.
PREHEAT, STANDS_HOT_MIN = Band(10.0, 14.0, 20.0), 15
# A fire laid and lit; coals lit to feed it with, which may wait so long; coals laid on, between this share of its time
# and all of it; wood for smoke lies on the coals at most this long before the meat.
SET_FIRE, KINDLE, FEED = Band(4.0, 6.0, 10.0), Band(2.0, 3.0, 5.0), Band(1.0, 2.0, 3.0)
COALS_WAIT_MIN, FED_FROM_FRAC, SMOKE_BEFORE_MIN = 15, 0.75, 5
# At most, minutes: soaked crumbs to the bowl; mixed to shaped and shaped to the heat, cold (ours); toasted bread to the
# build; off the heat to the build, flat and other; built to the table, and what stands covered until then; soft onions
# and sauces kept hot.
SOAKED, SHAPED, COLD = 120, 720, 1440
TOASTED, OFF_FLAT, OFF_OTHER, BUILT, PLATED, KEPT_HOT = 5, 10, 25, 12, 30, 60
# Firm edges keep this long once the cubes are out of the freezer.
FIRM = 15
# Cut leaves and slices in the cold before they wilt.
CUT_KEEPS = 180
# A ferment is eaten young from the third day; a jar keeps a week at least.
YOUNG_MIN, JAR_KEEPS_MIN = 3 * 1440, 7 * 1440
# More waves than this are told in groups; a fire burns down otherwise planned.
MOST_GROUPS = 10
# A cook stands at a flat surface unless a wave lies longer than this.
STOOD_AT_MIN = 15.0
# Places on a hob and shelves in an oven, where the kitchen does not say.
HOB_PLACES, OVEN_SHELVES = 2, 2
