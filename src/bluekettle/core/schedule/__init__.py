"""Several dishes, one supper: who does what when, in which appliance.

`lines` turns forecasts and sides into tasks; `solver` sees durations, hands, bodies and windows and
never food; `simulate` plays the plan many times. Zero is the wanted moment of serving.
"""

from bluekettle.core.schedule.explain import Clash, Past, Reason, Repair, comes_out
from bluekettle.core.schedule.helpings import Helpings, helpings_of
from bluekettle.core.schedule.holds import Hold, holds_of
from bluekettle.core.schedule.lines import (
    Line,
    Side,
    dish_line,
    side,
    side_keys,
    side_line,
    side_use,
)
from bluekettle.core.schedule.meal import (
    NOBODY,
    Ahead,
    Dish,
    Meal,
    MealKitchen,
    Planned,
    Schedule,
    Taken,
    Waited,
    body_of,
    first_schedule,
    latest_begin,
    lines_of,
    puzzle_of,
    schedule,
    soonest,
    trouble_of,
)
from bluekettle.core.schedule.preparing import Preparation, preparations
from bluekettle.core.schedule.puzzle import Body, Gap, Puzzle, Task, Use
from bluekettle.core.schedule.simulate import Evenings, evenings_of
from bluekettle.core.schedule.solver import Aim, Found, solve
from bluekettle.core.schedule.standing import Standing, Stands, Told, stands_of
from bluekettle.core.schedule.under_way import (
    Move,
    Outlook,
    Replanned,
    drift_of,
    is_stale,
    moves_of,
    outlook_of,
    replan,
)

__all__ = [
    "NOBODY",
    "Ahead",
    "Aim",
    "Body",
    "Clash",
    "Dish",
    "Evenings",
    "Found",
    "Gap",
    "Helpings",
    "Hold",
    "Line",
    "Meal",
    "MealKitchen",
    "Move",
    "Outlook",
    "Past",
    "Planned",
    "Preparation",
    "Puzzle",
    "Reason",
    "Repair",
    "Replanned",
    "Schedule",
    "Side",
    "Standing",
    "Stands",
    "Taken",
    "Task",
    "Told",
    "Use",
    "Waited",
    "body_of",
    "comes_out",
    "dish_line",
    "drift_of",
    "evenings_of",
    "first_schedule",
    "helpings_of",
    "holds_of",
    "is_stale",
    "latest_begin",
    "lines_of",
    "moves_of",
    "outlook_of",
    "preparations",
    "puzzle_of",
    "replan",
    "schedule",
    "side",
    "side_keys",
    "side_line",
    "side_use",
    "solve",
    "soonest",
    "stands_of",
    "trouble_of",
]
