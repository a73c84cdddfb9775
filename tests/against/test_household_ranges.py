"""The ranges of docs/model.md: what a household sees, met by one set of constants at once."""

import pytest

from bluekettle.core.glaze import (
    BEFORE,
    MILESTONES,
    Coating,
    Heat,
    bare_film,
    draw_members,
    run_finish,
)
from bluekettle.core.sauce import mix

MEDIAN = draw_members().median_only()
TOMATO = mix("tomato", [("ketchup", 0.1), ("brown-sugar", 0.02), ("cider-vinegar", 0.01)])
COATING = Coating(
    TOMATO.water,
    TOMATO.sucrose,
    TOMATO.glucose,
    TOMATO.fructose,
    TOMATO.other,
    TOMATO.protein,
    TOMATO.fat,
    TOMATO.salt,
    TOMATO.acid,
    0.6,
)
BROILER = Heat(12, 220, 220, 2650, 0.35)
CLOSE_BROILER = Heat(12, 240, 240, 6000, 0.35)
OVEN = Heat(12, 230, 230, 0, 0.2)
FAN_OVEN = Heat(23, 200, 200, 0, 0.2)
FRYER = Heat(50, 200, 200, 0, 0.15)


def minutes(heat, site, milestone, coating=COATING, **more):
    times = run_finish(MEDIAN, heat, coating, [BEFORE], 80.0, 75.0, 3600, **more).times_s
    return times[0, ("face", "edge").index(site), MILESTONES.index(milestone)] / 60


@pytest.mark.parametrize(
    ("heat", "site", "milestone", "low", "high"),
    [
        (BROILER, "edge", "amber", 1, 4),
        (BROILER, "face", "mahogany", 4, 8),
        (OVEN, "face", "amber", 6, 9),
        (OVEN, "face", "mahogany", 10, 16),
        (FAN_OVEN, "edge", "amber", 4, 7),
        (FAN_OVEN, "face", "amber", 8, 14),
        (FRYER, "face", "amber", 3, 7),
    ],
)
def test_tomato_sauce_on_hot_ribs_colours_in_the_household_range(heat, site, milestone, low, high):
    assert low <= minutes(heat, site, milestone) <= high


def test_a_typical_sauce_in_a_still_oven_defines_the_unit():
    assert minutes(OVEN, "face", "mahogany") == pytest.approx(12.0, rel=0.1)


def test_bare_shreds_under_a_close_broiler_crisp_within_two_minutes_and_burn_soon_after():
    crisp = minutes(CLOSE_BROILER, "face", "crisp", bare_film(), shreds=True)
    assert crisp <= 2.0
    assert crisp < minutes(CLOSE_BROILER, "face", "burnt", bare_film(), shreds=True) <= 5.0
