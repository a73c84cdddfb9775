"""What each step does to the food, and their chain: a dish from raw to plate.

Here heat, pressure, glaze, tenderness and lethality meet. Knows dishes, cuts, appliances and hands;
no clock.
"""

from bluekettle.core.stages.calls import (
    Call,
    Nearing,
    calls_by_clock,
    looks_of,
    nearing_of,
    plan_calls,
    risk_at,
)
from bluekettle.core.stages.chain import Band, Stage, serial
from bluekettle.core.stages.dish import (
    FINISHES,
    JOBS,
    RELEASES,
    SIGNS,
    STATES,
    TENDERISE,
    WANTS,
    Cut,
    Dish,
    Sighting,
    cut,
    cut_keys,
)
from bluekettle.core.stages.figures import Figure, figure, figures
from bluekettle.core.stages.finishes import FinishKind, finish_keys, finish_kind
from bluekettle.core.stages.finishing import film_of, heat_of, pull_times
from bluekettle.core.stages.first_heats import FirstHeat, first_heat, first_heat_keys
from bluekettle.core.stages.fit import Fit, Place, Verdict, fit_cut, fits_of
from bluekettle.core.stages.forecast import Forecast, forecast, strip_index
from bluekettle.core.stages.inside import Inside
from bluekettle.core.stages.kitchen import (
    LIMITS,
    MAX_COATS,
    Kitchen,
    Learnt,
)
from bluekettle.core.stages.ladder import Rung, ladder
from bluekettle.core.stages.pinning import pin_bands, pin_index, warps
from bluekettle.core.stages.progress import (
    Check,
    Done,
    Event,
    Fire,
    Progress,
    Sign,
    StepState,
    follow,
    held_for,
    not_undone,
    plans_with,
)
from bluekettle.core.stages.returning import Failed, ways_back
from bluekettle.core.stages.steps import Evidence, Leg, StepPlan, steps_of, waiting_step

__all__ = [
    "FINISHES",
    "JOBS",
    "LIMITS",
    "MAX_COATS",
    "RELEASES",
    "SIGNS",
    "STATES",
    "TENDERISE",
    "WANTS",
    "Band",
    "Call",
    "Check",
    "Cut",
    "Dish",
    "Done",
    "Event",
    "Evidence",
    "Failed",
    "Figure",
    "FinishKind",
    "Fire",
    "FirstHeat",
    "Fit",
    "Forecast",
    "Inside",
    "Kitchen",
    "Learnt",
    "Leg",
    "Nearing",
    "Place",
    "Progress",
    "Rung",
    "Sighting",
    "Sign",
    "Stage",
    "StepPlan",
    "StepState",
    "Verdict",
    "calls_by_clock",
    "cut",
    "cut_keys",
    "figure",
    "figures",
    "film_of",
    "finish_keys",
    "finish_kind",
    "first_heat",
    "first_heat_keys",
    "fit_cut",
    "fits_of",
    "follow",
    "forecast",
    "heat_of",
    "held_for",
    "ladder",
    "looks_of",
    "nearing_of",
    "not_undone",
    "pin_bands",
    "pin_index",
    "plan_calls",
    "plans_with",
    "pull_times",
    "risk_at",
    "serial",
    "steps_of",
    "strip_index",
    "waiting_step",
    "warps",
    "ways_back",
]
