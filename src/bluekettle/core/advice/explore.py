"""The explorer's map: time under heat across, heat or rack distance up, and what the glaze is
there.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges
from bluekettle.core.glaze import Draws, run_finish
from bluekettle.core.stages import LIMITS, Dish, Forecast, cut
from bluekettle.core.stages.finishing import coating_of, heat_of, log_factors_of

Array = NDArray[np.float64]

REGIONS = ("wet", "set", "amber", "mahogany", "bitter", "burnt")
COLUMNS, ROWS = 60, 40


@dataclass(frozen=True)
class Explored:
    """Heat of each row (rack distance [m] for a broiler, else air [°C]), time of each column [s],
    and the regions of face and edge as indices into REGIONS, shape (rows, columns)."""

    axis: str
    heats: Array
    times_s: Array
    face: NDArray[np.int8]
    edge: NDArray[np.int8]


# as long as a finish is looked at (design)
def explore(dish: Dish, forecast: Forecast, time_s: float = 1200.0) -> Explored:
    """Run the median member over all heats of the dish's appliance; one integration a row.

    Raises OutOfRange for `time_s` outside 2 min to 1 h.
    """
    ranges = Ranges()
    ranges.within("time_s", time_s, 120.0, 3600.0, "s")
    ranges.close()
    median = Draws({name: np.zeros(1) for name in ("heat", "coat", "interface", "browning")})
    coating = coating_of(dish, cut(dish.cut))
    axis = dish.kind.dial
    low, high, _ = LIMITS[axis]
    heats = np.linspace(low, high, ROWS)
    times = np.linspace(time_s / COLUMNS, time_s, COLUMNS)
    regions = np.zeros((2, ROWS, COLUMNS), dtype=np.int8)
    for i, heat in enumerate(heats):
        row = replace(dish, kitchen=dish.kitchen.having(axis, float(heat)))
        run = run_finish(
            median,
            heat_of(row),
            coating,
            forecast.finish.acts,
            forecast.deep_c,
            forecast.surface_c,
            time_s,
            dish.kitchen.or_typical("altitude_m"),
            log_factors=log_factors_of(dish, median),
            dried=forecast.dried,
        )
        for site in (0, 1):
            marks = run.times_s[0, site, [0, 2, 3, 4, 5]]
            regions[site, i] = (times[:, None] >= marks[None, :]).sum(axis=1)
    return Explored(axis, heats, times, regions[0], regions[1])
