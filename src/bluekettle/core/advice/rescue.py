"""From a seen state to a way out: lower the rack, foil the edges, change the appliance, leave it,
pull now.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from bluekettle.core.errors import Ranges
from bluekettle.core.glaze import Heat, HeatChange, draw_members, run_finish, weighted_quantile
from bluekettle.core.glaze.milestones import BITTER, BURNT, EDGE, FACE, MILESTONES, wanted_times
from bluekettle.core.stages import Dish, Forecast, cut
from bluekettle.core.stages.finishing import coating_of, heat_of, log_factors_of, sighting_weights
from bluekettle.core.units import percent

FOILED = 0.25  # share of the heat that reaches an edge under foil (typical, estimated)


@dataclass(frozen=True)
class Way:
    """One way out: what to do, minutes more [s] to the wanted colour (None where it seldom comes),
    the chance of it before burning, the risk of burning by then, and the reason in one sentence."""

    do: str
    more_s: float | None
    chance: float
    risk: float
    reason: str


def rescue(dish: Dish, forecast: Forecast, at_s: float) -> tuple[Way, ...]:
    """Ways out at a moment under the heat, the best first.

    Parameters
    ----------
    at_s : float
        Now, in seconds under the heat, 1 to 3600. What was seen stands in the dish's sightings.

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    ranges.within("at_s", at_s, 1.0, 3600.0, "s")
    ranges.close()
    heat, coating = heat_of(dish), coating_of(dish, cut(dish.cut))
    draws = draw_members(dish.seed)
    horizon = at_s + 1500.0  # as far as a rescue is looked ahead (design)

    def run(change: HeatChange | None):  # type: ignore[no-untyped-def]
        return run_finish(
            draws,
            heat,
            coating,
            forecast.finish.acts,
            forecast.deep_c,
            forecast.surface_c,
            horizon,
            dish.kitchen.or_typical("altitude_m"),
            change=change,
            log_factors=log_factors_of(dish, draws),
            dried=forecast.dried,
        )

    weights = sighting_weights(run(None), dish.sightings)
    weaker = replace(
        heat, element_w_m2=0.5 * heat.element_w_m2, air_c=heat.air_c - 20, wall_c=heat.wall_c - 20
    )
    fierce = dish.finish in ("broiler", "grill", "charcoal", "contact")
    other = (
        # an air fryer and a broiler as they are typical (estimated)
        Heat(50.0, 180.0, 180.0, 0.0, 0.15) if fierce else Heat(12.0, 200.0, 200.0, 1500.0, 0.35)
    )
    elsewhere = "Move it to the air fryer at 180 °C" if fierce else "Move it under a gentle broiler"
    lower = {
        "broiler": "Lower the rack",
        "grill": "Move it to the cooler side",
        "charcoal": "Move it to the cooler side",
    }.get(dish.finish, "Turn it down by 20 °C")
    changes = {
        lower: HeatChange(at_s, weaker),
        "Foil over the edges": HeatChange(at_s, heat, FOILED),
        elsewhere: HeatChange(at_s, other),
        "Leave it as it is": None,
    }
    ways = []
    for do, change in changes.items():
        finish = run(change)
        ready = wanted_times(finish, MILESTONES.index(dish.want))
        spoilt = np.minimum(finish.times_s[:, EDGE, BURNT], finish.times_s[:, FACE, BITTER])
        good = np.isfinite(ready) & (spoilt > np.maximum(ready, at_s))
        chance = float(weights[good].sum())
        more = None
        risk = float(weights[spoilt <= at_s].sum())
        if chance > 0.2:  # a way that comes out one evening in five is worth telling (design)
            more = max(0.0, weighted_quantile(ready[good], weights[good], 0.5) - at_s)
            risk = float(weights[spoilt <= at_s + more].sum())
        told = f"about {more / 60:.1f} min more" if more is not None else "the colour seldom comes"
        ways.append(
            Way(
                do,
                more,
                chance,
                risk,
                f"{do}: {told}; right {percent(chance)}, burnt by then {percent(risk)}.",
            )
        )
    burnt = float(
        weights[
            np.minimum(run(None).times_s[:, EDGE, BURNT], run(None).times_s[:, FACE, BITTER])
            <= at_s
        ].sum()
    )
    done = float(weights[wanted_times(run(None), MILESTONES.index(dish.want)) <= at_s].sum())
    ways.append(
        Way(
            "Pull it now",
            0.0,
            max(0.0, done - burnt),
            burnt,
            f"Pull it now: {percent(done)} likely to have its colour.",
        )
    )
    return tuple(sorted(ways, key=lambda w: (-(w.chance - w.risk), w.do)))
