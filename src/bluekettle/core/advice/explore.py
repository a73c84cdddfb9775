"""The explorer's map: time under heat across, heat or rack distance up, and what the glaze is
there.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges
from bluekettle.core.glaze import Draws, run_finish
from bluekettle.core.stages import LIMITS, cut
from bluekettle.core.stages.finishing import (
    LEAST_S,
    LONGEST_S,
    UnderFire,
    film_on,
    heat_of,
    log_factors_of,
)

Array = NDArray[np.float64]

REGIONS = ("wet", "set", "amber", "mahogany", "bitter", "burnt")
COLUMNS, ROWS = 60, 40
SHORTEST_S = 120.0  # that a map is worth drawing for (design)


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
def explore(fire: UnderFire, time_s: float = 1200.0) -> Explored:
    """Run the median member over all heats of the fire's appliance; one integration a row.

    Raises OutOfRange for `time_s` outside 2 min to 1 h, or before the last coat or turn.
    """
    ranges = Ranges()
    least = max((act.at_s + LEAST_S for act in fire.acts), default=0.0)
    ranges.within("time_s", time_s, max(SHORTEST_S, least), LONGEST_S, "s")
    ranges.close()
    median = Draws({name: np.zeros(1) for name in ("heat", "coat", "interface", "browning")})
    dish, below = fire.dish, fire.below.median()
    coating = film_on(dish, cut(dish.cut), below)
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
            fire.acts,
            below.deep_c,
            below.surface_c,
            time_s,
            dish.kitchen.or_typical("altitude_m"),
            log_factors=log_factors_of(dish, median),
            dried=below.dried,
            lying=below.lying,
            shreds=below.strands,
        )
        for site in (0, 1):
            marks = run.times_s[0, site, [0, 2, 3, 4, 5]]
            regions[site, i] = (times[:, None] >= marks[None, :]).sum(axis=1)
    return Explored(axis, heats, times, regions[0], regions[1])
