"""What an assumption is worth: how far the time to the plate and the colour move within its
plausible range.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from bluekettle.core.chain import Plan, forecast_plan
from bluekettle.core.errors import CoreError
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import figure

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


def plan_effects(plan: Plan) -> tuple[Effect, ...]:
    """The effect of each figure that the plan's kitchen leaves to be assumed, the largest first;
    median member alone.

    Raises OutOfRange and NotConverged as `forecast_plan`.
    """
    plan = replace(plan, sightings={}, told={})
    median = draw_members(plan.seed).median_only()
    now = forecast_plan(plan, None, median)

    def total_s(name: str, number: float) -> float:
        other = replace(plan, kitchen=plan.kitchen.having(name, number))
        return forecast_plan(other, None, median).total.likely_s

    return weighed(now.assumed, now.total.likely_s, total_s)


def weighed(
    names: Sequence[str], now_s: float, total_s: Callable[[str, float], float]
) -> tuple[Effect, ...]:
    """Each figure at both ends of its usual range, by how long the whole takes then [s]."""
    found = []
    for name in names:
        told = figure(name)
        moved = []
        for number in (told.usual_low, told.usual_high):
            try:
                moved.append((total_s(name, number) - now_s) / 60.0)
            except CoreError:  # out of this dish's reach: then it tells nothing
                moved.append(0.0)
        ask = max(map(abs, moved)) > ASK_FROM_MIN
        found.append(Effect(name, told.usual_low, told.usual_high, moved[0], moved[1], ask))
    return tuple(sorted(found, key=lambda e: -max(abs(e.plate_low_min), abs(e.plate_high_min))))
