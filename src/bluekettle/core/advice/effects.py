"""What an assumption is worth: how far the time to the plate and the colour move within its
plausible range.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from bluekettle.core.errors import CoreError
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import PLAUSIBLE, Dish, forecast

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
