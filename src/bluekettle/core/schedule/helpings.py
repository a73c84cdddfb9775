"""Whether there is enough for everybody: what is left to eat of every dish, over the guests."""

from __future__ import annotations

from dataclasses import dataclass

from bluekettle.core.chain import PlanForecast
from bluekettle.core.errors import Ranges
from bluekettle.core.sauce import APPETITES, meat_for
from bluekettle.core.schedule.meal import Meal

RENDERED = 0.3  # of a cut's fat that runs out of it (household, estimated)
ENOUGH = 0.9  # of what an appetite asks for that nobody misses (estimated)
MOST_GUESTS = 60


@dataclass(frozen=True)
class Helpings:
    """What everybody gets of the dishes: cooked and without bones, a head, and what an appetite
    asks for [kg]. line, more_kg : the dish of which there is most, and how much more of it, as
    bought, would be enough [kg]; nothing where there is enough.
    """

    head_kg: float
    wanted_kg: float
    line: str
    more_kg: float

    @property
    def enough(self) -> bool:
        """Whether nobody misses anything."""
        return self.more_kg == 0.0


def shrink_of(forecast: PlanForecast) -> float:
    """Share of the raw mass without bones that runs out of it as juice and fat [-]."""
    cut = forecast.cut
    return cut.juice_fraction + RENDERED * cut.fat


def left_of(forecast: PlanForecast) -> float:
    """What there is to eat of a dish, cooked and without bones [kg]."""
    bone = forecast.cut.bone_fraction
    return forecast.plan.mass_kg * (1.0 - bone) * (1.0 - shrink_of(forecast))


def helpings_of(meal: Meal, guests: int, appetite: str) -> Helpings | None:
    """What everybody gets; None for a meal of sides alone.

    Raises OutOfRange for guests outside 1 to 60 or an unknown appetite.
    """
    ranges = Ranges()
    ranges.within("guests", guests, 1, MOST_GUESTS, "guests")
    ranges.one_of("appetite", appetite, tuple(APPETITES))
    ranges.close()
    if not meal.dishes:
        return None
    most = max(meal.dishes, key=lambda dish: left_of(dish.forecast))
    head_kg = sum(left_of(dish.forecast) for dish in meal.dishes) / guests
    wanted_kg = APPETITES[appetite]
    short = guests * (wanted_kg - head_kg) / wanted_kg  # guests who would get nothing
    more_kg = 0.0
    if head_kg < ENOUGH * wanted_kg:
        cut = most.forecast.cut
        more_kg = short * meat_for(1.0, appetite, shrink_of(most.forecast), cut.bone_fraction)
    return Helpings(head_kg, wanted_kg, most.key, more_kg)
