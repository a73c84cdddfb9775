"""A probe in food that is not as it was told, against three-dimensional finite differences and
against kitchens drawn anew.
"""

import numpy as np
import pytest
from tests.against.test_whole_pieces import Whole

from bluekettle.core.calibration import courses_of, follow_probe, when_reached
from bluekettle.core.chain import (
    Heat,
    Plan,
    Until,
    alike,
    centres_in,
    hidden_kitchen,
)
from bluekettle.core.stages import cut

ROAST = Plan(
    "pork-shoulder", 2.0, 1, 90.0, (Heat("low", "oven", Until("core", core_c=88.0), dial=130.0),)
)
BATH = Plan(
    "pork-shoulder", 1.2, 1, 60.0, (Heat("bath", "bath", Until("core", core_c=60.0), dial=65.0),)
)


def foretold(plan, stage, target_c, at_s, read_c):
    found = centres_in(plan, stage)
    courses = courses_of(found.time_s, found.centre_c)
    last = (float(at_s[-1]), float(read_c[-1]))
    return when_reached(courses, follow_probe(courses, at_s, read_c), target_c, last)


def test_a_piece_that_is_not_as_thick_as_told_is_foretold_by_half_of_its_way():
    """A whole brick of the same meat in a bath, by explicit differences in three dimensions: its
    thickness is not what the plan was told. Each moment within 8 %, most within their bands."""
    found, held = cut("pork-shoulder"), []
    for thicker in (0.85, 0.9, 1.1, 1.2, 1.3):
        half = 0.5e-3 * 60.0 * thicker
        side = 0.5 * np.sqrt(1.2 / found.food.density_kg_m3 / (2.0 * half))
        whole = Whole([half, side, side], False, found.food)
        times = np.arange(120.0, 5 * 3600.0, 120.0)
        middle = whole.middle(4.0, times, lambda _: 65.0, lambda _: 300.0)
        truth = float(np.interp(60.0, middle, times))
        known = times <= 0.5 * truth
        noise = np.random.default_rng(3).normal(0.0, 0.5, known.sum())
        reached = foretold(BATH, "bath", 60.0, times[known], middle[known] + noise)
        assert reached.likely_s == pytest.approx(truth, rel=0.08), thicker
        held.append(reached.low_s < truth < reached.high_s)
    assert sum(held) >= 4


def test_eight_bands_in_ten_or_more_hold_in_kitchens_drawn_anew():
    """Forty roasts whose pace and kitchen nobody knows, read until half of their way: the band of
    80 % holds, which was widened for pieces that are no slab, and it is far narrower than the
    forecast's."""
    rng = np.random.default_rng(11)
    inside, width = 0, []
    evenings = 40
    for evening in range(evenings):
        found = centres_in(ROAST, "low", draws=alike(hidden_kitchen(100 + evening), 3))
        pace = float(np.exp(0.08 * rng.standard_normal()))
        middle, times = found.centre_c[0], found.time_s / pace
        truth = float(np.interp(88.0, middle, times))
        at_s = np.arange(600.0, 0.5 * truth, 300.0)
        read = np.interp(at_s, times, middle) + rng.normal(0.0, 0.5, at_s.size)
        reached = foretold(ROAST, "low", 88.0, at_s, read)
        inside += reached.low_s <= truth <= reached.high_s
        width.append(reached.high_s - reached.low_s)
    assert inside / evenings >= 0.8
    none = np.zeros(0)
    own = centres_in(ROAST, "low")
    courses = courses_of(own.time_s, own.centre_c)
    before = when_reached(courses, follow_probe(courses, none, none), 88.0)
    assert np.median(width) < 0.5 * (before.high_s - before.low_s)
