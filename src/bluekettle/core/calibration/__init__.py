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
from bluekettle.core.calibration.observation import (
    SignSeen,
    expected_s,
    learn_from,
    observed_times,
    predict,
    scout_times,
)

__all__ = [
    "NAMES",
    "Belief",
    "SignSeen",
    "draw_factors",
    "expected_s",
    "first_belief",
    "learn",
    "learn_from",
    "next_cook",
    "observed_times",
    "predict",
    "scout_times",
]
