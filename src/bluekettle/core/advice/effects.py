"""What an assumption is worth: how far the time to the plate and the colour move within its
plausible range.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from bluekettle.core.errors import CoreError
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import Dish, forecast

# What kitchens differ by, figure by figure (typical, estimated; the broiler from its factor of
# three).
PLAUSIBLE = {
    "altitude_m": (0.0, 1500.0),
    "pot_power_w": (700.0, 1500.0),
    "pot_volume_l": (4.0, 8.0),
    "pot_gauge_kpa": (50.0, 103.0),
    "oven_c": (140.0, 165.0),
    "broiler_w_m2": (1800.0, 4500.0),
    "rack_m": (0.10, 0.22),
    "air_fryer_c": (185.0, 210.0),
    "hot_oven_c": (215.0, 245.0),
    "hot_oven_h_w_m2_k": (10.0, 25.0),
    "lid_c": (180.0, 220.0),
    "grill_c": (200.0, 270.0),
    "oven_preheat_min": (6.0, 18.0),
    "broiler_preheat_min": (3.0, 10.0),
    "air_fryer_preheat_min": (0.0, 6.0),
    "hot_oven_preheat_min": (9.0, 25.0),
    "lid_preheat_min": (1.0, 6.0),
    "grill_preheat_min": (7.0, 18.0),
    "charcoal_c": (190.0, 260.0),
    "charcoal_preheat_min": (20.0, 45.0),
    "contact_c": (170.0, 210.0),
    "contact_preheat_min": (3.0, 10.0),
    "low_oven_c": (115.0, 145.0),
    "fry_c": (165.0, 195.0),
    "smoke_c": (98.0, 120.0),
    "smoke_preheat_min": (15.0, 50.0),
    "bath_c": (62.0, 70.0),
    "bath_power_w": (700.0, 1500.0),
    "bath_volume_l": (8.0, 20.0),
    "bath_preheat_min": (10.0, 45.0),
    "burner_w": (1000.0, 3000.0),
    "pan_volume_l": (4.0, 10.0),
    "slow_power_w": (160.0, 320.0),
    "slow_volume_l": (3.0, 7.0),
}
ASK_FROM_MIN = 5.0  # more is asked of a cook only where serving moves by over this


@dataclass(frozen=True)
class Effect:
    """One assumed figure: its range, and by how many minutes the plate and the wanted colour move
    at its ends.
    """

    name: str
    low: float
    high: float
    plate_low_min: float
    plate_high_min: float
    ask: bool


def effects(dish: Dish) -> tuple[Effect, ...]:
    """The effect of each figure that the dish's kitchen leaves to be assumed, the largest first;
    median member alone.

    Raises OutOfRange and NotConverged as `forecast`.
    """
    dish = replace(dish, sightings=())
    median = draw_members(dish.seed).median_only()
    now = forecast(dish, None, median)
    found = []
    for name in now.assumed:
        moved = []
        for figure in PLAUSIBLE[name]:
            try:
                other = forecast(
                    replace(dish, kitchen=dish.kitchen.having(name, figure)), None, median
                )
                moved.append((other.total.likely_s - now.total.likely_s) / 60.0)
            except CoreError:  # out of this dish's reach: then it tells nothing
                moved.append(0.0)
        ask = max(map(abs, moved)) > ASK_FROM_MIN
        found.append(Effect(name, *PLAUSIBLE[name], moved[0], moved[1], ask))
    return tuple(sorted(found, key=lambda e: -max(abs(e.plate_low_min), abs(e.plate_high_min))))
