"""Last exits: until when one can still change course and serve on time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from bluekettle.core.stages import Failed, Forecast, cut, serial, steps_of, ways_back

BOIL_C = 100.0  # no piece is hotter once it is out


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
    gate = next(step for step in steps_of(forecast) if step.who == "gate")
    likely_c = min(forecast.safety.core_likely_c, BOIL_C)
    back = ways_back(dish, cut(dish.cut), gate, Failed(likely_c, cold=False, tough=True))
    leg = back[0].likely_s if back else 0.0
    from_open = careful_from(forecast, "open")
    from_under = careful_from(forecast, "under")
    other = next(s for s in forecast.stages if s.key == "preheat")
    heat = float(np.quantile(other.seconds, 0.9))
    rest = next((s.band.likely_s for s in forecast.stages if s.key == "rest"), 0.0)
    found = (
        Exit(
            "cook it longer",
            leg + from_open,
            f"{leg / 60:.0f} min back in the heat and {from_open / 60:.0f} min from the opening to"
            " the plate",
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
