"""Any cook as food, layers and a list of stages: the food walked through the list.

Every stage is a function of its own: `food, step -> Passage`. Knows no clock.
"""

from bluekettle.core.chain.batches import in_batches
from bluekettle.core.chain.begin import Answers, beginning, fierce_keys, slow_keys, whens
from bluekettle.core.chain.broth import SYRUP
from bluekettle.core.chain.choosing import Choice, School
from bluekettle.core.chain.course import Moment, cook_along, gained_in
from bluekettle.core.chain.energy import energy_kwh
from bluekettle.core.chain.feeling import Held, Holds, held_after, holds_in
from bluekettle.core.chain.forecast import Inside, PlanForecast, forecast_plan
from bluekettle.core.chain.heats import HeatRow, heat_keys, heat_row
from bluekettle.core.chain.instead import browns, id_instead, left_for_others
from bluekettle.core.chain.memory import Memory
from bluekettle.core.chain.offers import joints, stages_to_put
from bluekettle.core.chain.passage import Fire, SlowHeat
from bluekettle.core.chain.plan import (
    Beside,
    Blot,
    Cool,
    Drain,
    Dress,
    Heat,
    HeatAct,
    Hold,
    Instead,
    Layer,
    Marinate,
    Plan,
    Rest,
    Rounds,
    Season,
    Share,
    Split,
    Stage,
    TakeApart,
    Thaw,
    Until,
    fresh_id,
    ids_of,
    paths,
    run_through,
    stage_named,
)
from bluekettle.core.chain.preparation import things_at_hand
from bluekettle.core.chain.probing import LONGER, Centres, centres_in
from bluekettle.core.chain.rehearse import Truth, alike, eaten, hidden_kitchen, truth_of
from bluekettle.core.chain.schools import school_rows, schools_of
from bluekettle.core.chain.steps import plan_steps
from bluekettle.core.chain.walk import Gate, Known

__all__ = [
    "LONGER",
    "SYRUP",
    "Answers",
    "Beside",
    "Blot",
    "Centres",
    "Choice",
    "Cool",
    "Drain",
    "Dress",
    "Fire",
    "Gate",
    "Heat",
    "HeatAct",
    "HeatRow",
    "Held",
    "Hold",
    "Holds",
    "Inside",
    "Instead",
    "Known",
    "Layer",
    "Marinate",
    "Memory",
    "Moment",
    "Plan",
    "PlanForecast",
    "Rest",
    "Rounds",
    "School",
    "Season",
    "Share",
    "SlowHeat",
    "Split",
    "Stage",
    "TakeApart",
    "Thaw",
    "Truth",
    "Until",
    "alike",
    "beginning",
    "browns",
    "centres_in",
    "cook_along",
    "eaten",
    "energy_kwh",
    "fierce_keys",
    "forecast_plan",
    "fresh_id",
    "gained_in",
    "heat_keys",
    "heat_row",
    "held_after",
    "hidden_kitchen",
    "holds_in",
    "id_instead",
    "ids_of",
    "in_batches",
    "joints",
    "left_for_others",
    "paths",
    "plan_steps",
    "run_through",
    "school_rows",
    "schools_of",
    "slow_keys",
    "stage_named",
    "stages_to_put",
    "things_at_hand",
    "truth_of",
    "whens",
]
