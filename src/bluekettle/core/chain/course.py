"""How warm the median piece is along the way: at the end of every stage."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.integrate import cumulative_trapezoid

from bluekettle.core.chain.food import Food, mean_of, raw_food, stood
from bluekettle.core.chain.plan import Plan
from bluekettle.core.chain.waits import picked
from bluekettle.core.chain.walk import Walk
from bluekettle.core.errors import MissingData
from bluekettle.core.glaze import Draws
from bluekettle.core.stages import Cut, cut
from bluekettle.core.stages.tally import CENTRE, MEAN
from bluekettle.core.stages.waiting import IN_ROOM
from bluekettle.core.tenderness import cook_rate

Array = NDArray[np.float64]

CENTRE_C, MEAN_C = 2, 3  # columns of a trace


@dataclass(frozen=True)
class Moment:
    """The median piece at the end of a link (at the very start where it is empty): its middle and
    all of it on the whole [°C], its cook value so far at the site that decides [min], and how thick
    a slow heat has dried its outside [m].
    """

    link: str
    centre_c: float
    mean_c: float
    cook_min: float
    crust_m: float


def course_of(plan: Plan, way: Walk, draws: Draws) -> tuple[Moment, ...]:
    """The moments of a walk, in order; those of a split's tails follow each other."""
    median = draws.median_only()
    which = CENTRE if cut(plan.cut).site == "centre" else MEAN
    found = [moment("", raw_food(plan, median), which)]
    for one in way.passed:
        if not one.passage.links:
            continue
        food = picked(one.passage.food, [0])
        if food.waited[0] > 0.0:
            food = stood(plan, food, median, food.waited, IN_ROOM)[0]
        found.append(moment(one.passage.links[-1].key, food, which))
    return tuple(found)


def moment(link: str, food: Food, which: int) -> Moment:
    """One moment of food of one member; `which` tally is its cook value."""
    profile = food.brought.profile_c
    mean_c = float(np.asarray(mean_of(food))[0])
    crust_m = float(food.outside[0, 0])
    return Moment(link, float(profile[0, 0]), mean_c, float(food.tally(which)[0]), crust_m)


def cook_along(trace: Array, of: Cut, gained_min: float) -> Array:
    """Cook value [min] gained along the trace of a slow heat, (n,) from 0 to what the walk says
    was gained: it sums cell by cell, and one temperature gives no more than the course of it.
    """
    temp_c = trace[:, CENTRE_C if of.site == "centre" else MEAN_C]
    rate = np.array([cook_rate(temp) for temp in temp_c])
    gained = np.asarray(cumulative_trapezoid(rate, trace[:, 0] / 60.0, initial=0.0))
    return gained * (gained_min / gained[-1]) if gained[-1] > 0.0 else gained


def gained_in(way: Walk, of: Cut, stage: str) -> float:
    """Cook value [min] that the median piece gains in a stage; MissingData for one that was not
    passed.
    """
    which = CENTRE if of.site == "centre" else MEAN
    for tail in ((), *(tail.line for tail in way.tails)):
        before = 0.0
        for one in (*way.line, *tail):
            now = float(one.passage.food.tally(which)[0])
            if one.stage.id == stage:
                return now - before
            before = now
    raise MissingData("stage that was passed", stage, [one.stage.id for one in way.passed])
