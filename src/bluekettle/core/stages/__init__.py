"""What each step does to the food, and their chain: a dish from raw to plate.

Here heat, pressure, glaze, tenderness and lethality meet. Knows dishes, cuts, appliances and hands;
no clock.
"""

from bluekettle.core.stages.calls import Call, plan_calls, risk_at
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
from bluekettle.core.stages.finishes import FinishKind, finish_keys, finish_kind
from bluekettle.core.stages.finishing import film_of, heat_of
from bluekettle.core.stages.first_heats import FirstHeat, first_heat, first_heat_keys
from bluekettle.core.stages.fit import Fit, Place, Verdict, fit_cut, fits_of
from bluekettle.core.stages.forecast import Forecast, forecast, strip_index
from bluekettle.core.stages.inside import Inside
from bluekettle.core.stages.kitchen import LIMITS, MAX_COATS, TYPICAL, Kitchen, Learnt
from bluekettle.core.stages.ladder import Rung, ladder
from bluekettle.core.stages.progress import Event, Progress, StepPlan, StepState, follow, held_for
from bluekettle.core.stages.tenderise import return_leg_s

__all__ = [
    "FINISHES",
    "JOBS",
    "LIMITS",
    "MAX_COATS",
    "RELEASES",
    "SIGNS",
    "STATES",
    "TENDERISE",
    "TYPICAL",
    "WANTS",
    "Band",
    "Call",
    "Cut",
    "Dish",
    "Event",
    "FinishKind",
    "FirstHeat",
    "Fit",
    "Forecast",
    "Inside",
    "Kitchen",
    "Learnt",
    "Place",
    "Progress",
    "Rung",
    "Sighting",
    "Stage",
    "StepPlan",
    "StepState",
    "Verdict",
    "cut",
    "cut_keys",
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
    "plan_calls",
    "return_leg_s",
    "risk_at",
    "serial",
    "strip_index",
]
