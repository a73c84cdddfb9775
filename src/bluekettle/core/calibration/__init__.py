"""What observations teach: heat of an appliance, coat, interface and browning of a cook, as one
joint belief.

SignSeen in, posterior out. Never imports safety, nor safety it: a fit must not loosen a
threshold.
"""

from bluekettle.core.calibration.belief import (
    NAMES,
    Belief,
    draw_factors,
    first_belief,
    learn,
    next_cook,
)
from bluekettle.core.calibration.colour import (
    COLOURS,
    CameOut,
    colour_chances,
    learn_colour,
    learn_from_colour,
)
from bluekettle.core.calibration.observation import (
    SIGNS,
    SignSeen,
    expected_s,
    learn_from,
    observed_times,
    predict,
    scout_times,
)
from bluekettle.core.calibration.probe import (
    FEWEST,
    Courses,
    Probed,
    Reached,
    courses_of,
    follow_probe,
    when_reached,
)

__all__ = [
    "COLOURS",
    "FEWEST",
    "NAMES",
    "SIGNS",
    "Belief",
    "CameOut",
    "Courses",
    "Probed",
    "Reached",
    "SignSeen",
    "colour_chances",
    "courses_of",
    "draw_factors",
    "expected_s",
    "first_belief",
    "follow_probe",
    "learn",
    "learn_colour",
    "learn_from",
    "learn_from_colour",
    "next_cook",
    "observed_times",
    "predict",
    "scout_times",
    "when_reached",
]
