"""How warm the median piece is along the way: at the end of every stage."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from bluekettle.core.chain.food import Food, mean_of, raw_food, stood
from bluekettle.core.chain.plan import Plan
from bluekettle.core.chain.waits import picked
from bluekettle.core.chain.walk import Walk
from bluekettle.core.glaze import Draws
from bluekettle.core.stages.forecast import IN_ROOM


@dataclass(frozen=True)
class Moment:
    """The median piece at the end of a link (at the very start where it is empty): its middle and
    all of it on the whole [°C].
    """

    link: str
    centre_c: float
    mean_c: float


def course_of(plan: Plan, way: Walk, draws: Draws) -> tuple[Moment, ...]:
    """The moments of a walk, in order; those of a split's tails follow each other."""
    median = draws.median_only()
    found = [moment("", raw_food(plan, median))]
    for one in way.passed:
        if not one.passage.links:
            continue
        food = picked(one.passage.food, [0])
        if food.waited[0] > 0.0:
            food = stood(plan, food, median, food.waited, IN_ROOM)[0]
        found.append(moment(one.passage.links[-1].key, food))
    return tuple(found)


def moment(link: str, food: Food) -> Moment:
    """One moment of food of one member."""
    profile = food.brought.profile_c
    return Moment(link, float(profile[0, 0]), float(np.asarray(mean_of(food))[0]))
