"""All cuts in the heats that kitchens cook them in: minutes until a bite, come-up apart where the
timer counts from there.

The ranges are household knowledge (what cooks of these dishes commonly allow), wide as kitchens
are. The targets of `cuts.csv` were read off the rows marked `set`, a pressure pot and a bath for
most; the others only check them.
"""

import math
from dataclasses import replace

import numpy as np
import pytest
from tests.one_cook import Dish, forecast

from bluekettle.core.errors import MissingData
from bluekettle.core.stages import Kitchen, cut, dial_that_holds, first_heat
from bluekettle.core.stages.finishing import heat_of
from bluekettle.core.tables import value

SET, CHECK = "set", "check"
OF_LONG_BATHS = (
    "pork-ribs",
    "beef-short-ribs",
    "pork-shoulder",
    "beef-cheek",
    "beef-brisket",
    "pork-belly",
)
DIALS = {"bath": "bath_c", "low_oven": "low_oven_c"}
TABLE = [
    # cut, bite, heat, its dial [°C] or as usual, least and most minutes
    ("pork-ribs", "tug", "pressure", None, 22, 32, SET),
    ("pork-ribs", "tug", "bath", 65.0, 720, 1440, SET),
    ("pork-ribs", "tug", "smoke", None, 240, 330, CHECK),
    ("pork-ribs", "tug", "foil", None, 75, 120, CHECK),
    ("pork-half-racks", "tug", "pressure", None, 22, 34, CHECK),
    ("pork-half-racks", "tug", "smoke", None, 240, 345, CHECK),
    ("pork-rack", "falls", "pressure", None, 28, 42, CHECK),
    ("pork-rack", "tug", "smoke", None, 240, 345, CHECK),
    ("pork-ribs", "falls", "pressure", None, 28, 40, SET),
    ("pork-ribs", "falls", "bath", 65.0, 1200, 1800, SET),
    ("pork-ribs", "falls", "smoke", None, 285, 390, CHECK),
    ("pork-ribs", "falls", "braise", None, 80, 130, CHECK),
    ("beef-short-ribs", "falls", "pressure", None, 40, 55, SET),
    ("beef-short-ribs", "falls", "bath", 65.0, 1440, 2160, SET),
    ("beef-short-ribs", "falls", "braise", None, 120, 180, CHECK),
    ("beef-short-ribs", "falls", "smoke", None, 330, 480, CHECK),
    ("pork-shoulder", "shreds", "pressure", None, 45, 65, SET),
    ("pork-shoulder", "shreds", "bath", 65.0, 1440, 2160, SET),
    ("pork-shoulder", "shreds", "braise", None, 120, 180, CHECK),
    ("pork-shoulder", "shreds", "foil", None, 120, 200, CHECK),
    ("beef-cheek", "falls", "pressure", None, 45, 60, SET),
    ("beef-cheek", "falls", "bath", 65.0, 1440, 2880, SET),
    ("beef-cheek", "falls", "braise", None, 130, 210, CHECK),
    ("beef-brisket", "falls", "pressure", None, 50, 80, CHECK),
    ("beef-brisket", "falls", "braise", None, 150, 230, CHECK),
    ("beef-brisket", "falls", "bath", 65.0, 1440, 2880, CHECK),
    ("pork-belly", "falls", "pressure", None, 35, 55, CHECK),
    ("pork-belly", "falls", "braise", None, 90, 160, CHECK),
    ("pork-belly", "falls", "bath", 65.0, 1200, 2160, CHECK),
    ("lamb-breast", "falls", "pressure", None, 35, 50, SET),
    ("lamb-breast", "falls", "low_oven", None, 180, 270, CHECK),
    ("lamb-shanks", "falls", "pressure", None, 40, 60, SET),
    ("lamb-shanks", "falls", "braise", None, 110, 180, CHECK),
    ("turkey-drumsticks", "falls", "pressure", None, 25, 40, SET),
    ("turkey-drumsticks", "falls", "braise", None, 60, 120, CHECK),
    ("chicken-thighs", "tug", "bath", 65.0, 75, 240, SET),
    ("chicken-thighs", "tug", "low_oven", 135.0, 60, 75, CHECK),
    ("chicken-thighs", "tug", "low_oven", 150.0, 60, 75, CHECK),
    ("chicken-thighs", "falls", "pressure", None, 8, 16, SET),
    ("chicken-thighs", "falls", "braise", None, 15, 45, CHECK),
    ("chicken-drumsticks", "tug", "air_fry", None, 20, 35, CHECK),
    ("chicken-drumsticks", "falls", "pressure", None, 8, 18, CHECK),
    ("chicken-wings", "tug", "air_fry", None, 14, 25, CHECK),
    ("chicken-wings", "falls", "pressure", None, 5, 12, SET),
    ("octopus", "tug", "pressure", None, 8, 20, SET),
    ("octopus", "tug", "simmer", None, 40, 75, CHECK),
    ("octopus", "tug", "bath", 77.0, 240, 420, SET),
    ("cauliflower", "sliceable", "pressure", None, 3, 6, SET),
    ("cauliflower", "tug", "simmer", None, 10, 20, CHECK),
    ("celeriac", "tug", "pressure", None, 5, 8, SET),
    ("celeriac", "tug", "simmer", None, 15, 25, CHECK),
    ("cooked-ham", "sliceable", "foil", None, 100, 180, CHECK),
    ("pork-loin", "sliceable", "low_oven", None, 75, 140, CHECK),
    ("pork-loin", "sliceable", "bath", 60.0, 90, 240, CHECK),
    ("jackfruit", "shreds", "pressure", None, 3, 8, SET),
    ("jackfruit", "shreds", "simmer", None, 10, 25, CHECK),
]


def cooked(key, bite, heat, kitchen=None, timer_min=None):
    """The usual piece of a cut; its timer is the one that brings the bite where none is given."""
    found = cut(key)
    return forecast(
        Dish(
            key,
            found.mass_kg,
            found.pieces,
            found.thickness_mm,
            tenderise=heat,
            release=found.release if heat == "pressure" else None,
            bite=bite,
            kitchen=kitchen or Kitchen(),
            timer_min=timer_min,
        )
    )


def minutes(key, bite, heat, kitchen=None):
    """The usual piece of a cut: (come-up, timer) [min]."""
    told = cooked(key, bite, heat, kitchen)
    return told.come_up.likely_s / 60.0, told.timer_s / 60.0


@pytest.mark.parametrize(("key", "bite", "heat", "dial", "least", "most", "use"), TABLE)
def test_a_cut_has_its_bite_when_kitchens_have_it(key, bite, heat, dial, least, most, use):
    kitchen = None if dial is None else Kitchen(**{DIALS[heat]: dial})
    _, timer = minutes(key, bite, heat, kitchen)
    assert least <= timer <= most, use


def worth(key, bite, heat, dial, least, most):
    """Log cook value in the middle of what kitchens allow, and how far from 100 °C it was gained
    [K].
    """
    kitchen = None if dial is None else Kitchen(**{DIALS[heat]: dial})
    run = cooked(key, bite, heat, kitchen, math.sqrt(least * most)).run
    value = float(np.median(run.cook_centre))
    return math.log(value), float(np.median(run.centre_away)) / value


def own_z(key, bite):
    """The z by which all that kitchens allow for this bite comes to one cook value [K], to first
    order about the 24 K that it was reckoned with.
    """
    rows = [worth(*row[:-1]) for row in TABLE if row[:2] == (key, bite)]
    logs, away = zip(*rows, strict=True)
    return 24.0 + np.polyfit(away, logs, 1)[0] * 24.0**2 / math.log(10.0)


def test_each_cut_by_itself_asks_for_nearly_the_same_z():
    """Of the meats that kitchens cook in a bath as well as near boiling, by all their rows; and
    they differ by what the chances count.
    """
    asked = [own_z(row[0], row[1]) for row in TABLE if row[2] == "bath" and row[0] in OF_LONG_BATHS]
    assert len(asked) == 7
    assert np.mean(asked) == pytest.approx(value("cook_z_c"), abs=0.75)
    assert np.std(asked, ddof=1) == pytest.approx(value("spread_z"), abs=0.25)
    assert np.ptp(asked) < 4.0


@pytest.mark.parametrize(
    ("setting", "least", "most"), [("high", 180, 250), ("low", 360, 480)], ids=["high", "low"]
)
@pytest.mark.parametrize(
    ("key", "bite"), [("pork-shoulder", "shreds"), ("beef-short-ribs", "falls")]
)
def test_a_slow_cooker_takes_3_to_4_hours_on_high_and_6_to_8_on_low(
    key, bite, setting, least, most
):
    """From cold: its timer counts from when it is switched on."""
    watts = {s.name: s.value for s in first_heat("slow").settings}[setting]
    come_up, timer = minutes(key, bite, "slow", Kitchen(slow_power_w=watts))
    assert least <= come_up + timer <= most


def test_six_hundred_grams_and_eight_kilograms_in_one_fryer_are_not_the_same():
    """The heater holds the dial with little food in it, and far less with much."""
    few = Dish("chicken-wings", 0.6, 7, 28.0, tenderise="air_fry", finish="air_fryer", bite="tug")
    held = [
        heat_of(replace(few, mass_kg=m, pieces=round(12 * m)).fire).air_c for m in (0.6, 2.0, 8.0)
    ]
    assert held[0] == 200.0
    assert held[0] > held[1] + 20.0 > held[2] + 40.0
    full = replace(few, mass_kg=8.0, pieces=96).fire
    assert dial_that_holds(few.fire, 185.0) == 185.0
    assert dial_that_holds(full, held[2] + 1.0) == 200.0  # it gives all it has
    assert dial_that_holds(full, held[2] - 10.0) == held[2] - 10.0  # it was turned down
    with pytest.raises(MissingData, match="oven"):
        dial_that_holds(replace(few, finish="broiler").fire, 205.0)
    timers = [
        forecast(replace(few, mass_kg=m, pieces=round(12 * m), sauce=None, coats=0)).timer_s
        for m in (0.6, 2.0, 4.0)
    ]
    assert timers[0] < timers[1] < timers[2]
