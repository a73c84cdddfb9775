"""Last exits: until when one can still change course and serve on time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from bluekettle.core.stages import Forecast, cut, return_leg_s, serial


@dataclass(frozen=True)
class Exit:
    """What can still be done, up to how many seconds before serving, and why then."""

    do: str
    before_serving_s: float
    why: str


def careful_from(forecast: Forecast, key: str) -> float:
    """Seconds from the start of a stage to the plate that nine evenings in ten do not exceed."""
    stages = [s for s in serial(forecast.stages) if s.key != "slack"]
    place = [s.key for s in stages].index(key)
    rest = np.sum([s.seconds for s in stages[place:]], axis=0)
    return float(np.quantile(rest, 0.9))


def last_exits(forecast: Forecast) -> tuple[Exit, ...]:
    """The exits of one dish, the earliest first; all on the careful (P90) side."""
    dish = forecast.dish
    come_up, hold = return_leg_s(dish, cut(dish.cut), forecast.safety.core_likely_c)
    from_open = careful_from(forecast, "open")
    from_under = careful_from(forecast, "under")
    other = next(s for s in forecast.stages if s.key == "preheat")
    heat = float(np.quantile(other.seconds, 0.9))
    rest = next((s.band.likely_s for s in forecast.stages if s.key == "rest"), 0.0)
    found = (
        Exit(
            "add a return leg",
            come_up + hold + from_open,
            f"{(come_up + hold) / 60:.0f} min back in the heat and {from_open / 60:.0f} min from"
            " the opening to the plate",
        ),
        Exit(
            "finish in another appliance",
            heat + from_under,
            f"{heat / 60:.0f} min to heat it and {from_under / 60:.0f} min from there to the plate",
        ),
        Exit(
            "begin the finish and skip the rest",
            from_under - rest,
            f"the rest gives {rest / 60:.0f} min back; a thermometer must still agree",
        ),
    )
    return tuple(sorted(found, key=lambda e: -e.before_serving_s))
