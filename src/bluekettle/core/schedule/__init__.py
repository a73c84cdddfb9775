"""Several dishes, one supper: who does what when, in which appliance.

`lines` turns forecasts and sides into tasks; `solver` sees durations, hands, bodies and windows and
never food; `simulate` plays the plan many times. Zero is the wanted moment of serving.
"""

from bluekettle.core.schedule.explain import Clash, Past, Reason, Repair, comes_out
from bluekettle.core.schedule.lines import Line, Side, dish_line, side, side_keys, side_line
from bluekettle.core.schedule.meal import (
    Ahead,
    Dish,
    Meal,
    MealKitchen,
    Planned,
    Schedule,
    Taken,
    Waited,
    body_of,
    latest_begin,
    lines_of,
    puzzle_of,
    schedule,
    soonest,
    trouble_of,
)
from bluekettle.core.schedule.puzzle import Body, Gap, Puzzle, Task, Use
from bluekettle.core.schedule.simulate import Evenings, evenings_of
from bluekettle.core.schedule.solver import Aim, Found, solve

__all__ = [
    "Ahead",
    "Aim",
    "Body",
    "Clash",
    "Dish",
    "Evenings",
    "Found",
    "Gap",
    "Line",
    "Meal",
    "MealKitchen",
    "Past",
    "Planned",
    "Puzzle",
    "Reason",
    "Repair",
    "Schedule",
    "Side",
    "Taken",
    "Task",
    "Use",
    "Waited",
    "body_of",
    "comes_out",
    "dish_line",
    "evenings_of",
    "latest_begin",
    "lines_of",
    "puzzle_of",
    "schedule",
    "side",
    "side_keys",
    "side_line",
    "solve",
    "soonest",
    "trouble_of",
]
