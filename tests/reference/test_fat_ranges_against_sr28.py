"""Fat ranges against the number of samples and the standard error that SR28 prints with a meat's fat.

A further delivery of a meat lies, nine times in ten, within mean ± t · s · √(1 + 1/n), with s the spread of single
samples, standard error × √n (prediction interval; textbook). Up to 30 % fat this is taken of the logarithm, since a
little fat cannot fall below none. Samples are often composites of several animals and one delivery is not, so a range
is never narrower than a fifth of its mean either way, or three points above 30 %: ours.
"""

from __future__ import annotations

import csv
import math
from dataclasses import dataclass
from importlib.resources import files

import pytest
from scipy.stats import t
from sr28_rows import rows_of

FEWEST, WIDEST_CV = 4, 0.6
NARROWEST_LOG, NARROWEST = 0.2, 0.03
FATTY = 0.30


@dataclass(frozen=True)
class Printed:
    """Fat of a row, 0–1: its mean, how many samples, and the standard error of the mean."""

    mean: float
    n: int
    se: float

    def interval(self) -> tuple[float, float]:
        """Where nine of ten further deliveries lie."""
        reach = float(t.ppf(0.95, self.n - 1)) * self.se * math.sqrt(self.n) * math.sqrt(1 + 1 / self.n)
        if self.mean > FATTY:
            reach = max(reach, NARROWEST)
            return max(0.0, self.mean - reach), min(1.0, self.mean + reach)
        log = max(reach / self.mean, NARROWEST_LOG)
        return self.mean * math.exp(-log), min(1.0, self.mean * math.exp(log))


def _printed() -> dict[str, Printed]:
    return {
        r[0]: Printed(float(r[2]) / 100, int(r[3]), float(r[4]) / 100)
        for r in rows_of("NUT_DATA.txt")
        if r[1] == "204" and r[4] and int(r[3]) >= FEWEST and float(r[2]) > 0
    }


def _larder() -> list[dict[str, str]]:
    with (files("vianda.core.inventory") / "data" / "starter_larder.csv").open(encoding="utf-8") as file:
        return list(csv.DictReader(file))


PRINTED, LARDER = _printed(), _larder()
ANCHORED = [row for row in LARDER if row["range_source"].startswith("SR28: n ")]
PRACTICE = [row for row in LARDER if row["range_source"].startswith("common practice") and row["ndb_no"] in PRINTED]


def test_a_good_part_of_the_larder_rests_on_printed_errors() -> None:
    assert len(ANCHORED) >= 25
    assert len(PRACTICE) >= 7


@pytest.mark.parametrize("row", ANCHORED, ids=[row["key"] for row in ANCHORED])
def test_a_range_is_the_interval_of_its_row(row: dict[str, str]) -> None:
    printed = PRINTED[row["ndb_no"]]
    assert row["range_source"] == f"SR28: n {printed.n}, standard error {100 * printed.se:.2g} points"
    low, high = printed.interval()
    assert float(row["fat_usual_frac"]) == pytest.approx(printed.mean, abs=6e-4)
    assert float(row["fat_low_frac"]) == pytest.approx(low, abs=6e-4)
    assert float(row["fat_high_frac"]) == pytest.approx(high, abs=6e-4)


@pytest.mark.parametrize("row", PRACTICE, ids=[row["key"] for row in PRACTICE])
def test_where_practice_and_the_row_disagree_the_larder_says_so(row: dict[str, str]) -> None:
    printed = PRINTED[row["ndb_no"]]
    low, usual, high = (float(row[f"fat_{end}_frac"]) for end in ("low", "usual", "high"))
    said = row["range_source"]
    assert f"SR28 {100 * printed.mean:.1f} % (n {printed.n}" in said
    apart = printed.mean < usual - (usual - low) / 2 or printed.mean > usual + (high - usual) / 2
    assert ("disagrees" in said) is apart


def test_what_prints_an_error_and_is_not_anchored_has_an_error_that_cannot_be_one() -> None:
    """A standard error that would spread single samples from nothing to twice their mean is one of something else."""
    left = {row["key"] for row in LARDER if row["ndb_no"] in PRINTED and row not in ANCHORED and row not in PRACTICE}
    assert left == {"chuck-stew", "skirt-inside", "skirt-outside", "venison-haunch"}
    for row in LARDER:
        if row["ndb_no"] in PRINTED:
            printed = PRINTED[row["ndb_no"]]
            wide = printed.se * math.sqrt(printed.n) / printed.mean > WIDEST_CV
            assert wide is (row["key"] in left), row["key"]
