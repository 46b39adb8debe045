"""The kitchen fat test against SR28's pan-browned crumbles: composition (NUT_DATA) and yield (WEIGHT)."""

from __future__ import annotations

import pytest
from sr28_rows import rows_of

from vianda.core.inventory.fat_test import FAT_LEFT, fat_test

COOKED = ("23481", "23560", "23476", "23565", "23570", "23575", "23580", "13494")


def test_fat_left_in_crumbles_is_copied_from_the_rows() -> None:
    fat = {r[0]: float(r[2]) for r in rows_of("NUT_DATA.txt") if r[0] in COOKED and r[1] == "204"}
    assert [round(left * 100, 2) for _, left in FAT_LEFT] == [fat[n] for n in COOKED]


@pytest.mark.parametrize(("ndb_no", "raw_fat"), [("23565", 0.10), ("13494", 0.30)])
def test_a_test_made_from_the_rows_yield_and_mass_balance_finds_the_raw_fat(ndb_no: str, raw_fat: float) -> None:
    # Half a pound raw; the yield gives the drained lean, its own analysis what fat it kept, so what ran out is the
    # difference. The yields were measured apart from the composition, and ours never saw them. Tolerance: one of the
    # test's own standard errors (the sum of its named parts), which is what it claims.
    raw_g = 226.796
    lean_g = next(float(r[4]) for r in rows_of("WEIGHT.txt") if r[0] == ndb_no and "yield from 1/2 lb" in r[3])
    kept = next(float(r[2]) for r in rows_of("NUT_DATA.txt") if r[0] == ndb_no and r[1] == "204") / 100 * lean_g
    ran_out = raw_fat * raw_g - kept
    found = fat_test(raw_g=raw_g, lean_g=lean_g, fat_g=ran_out, liquid_g=0, step_g=1)
    assert abs(found.fat_frac - raw_fat) <= found.sd_frac
