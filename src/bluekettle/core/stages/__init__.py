"""What each step does to the food, and their chain: a dish from raw to plate.

Here heat, pressure, glaze, tenderness and lethality meet. Knows dishes, cuts, appliances and hands; no clock.
"""

from bluekettle.core.stages.calls import Call, plan_calls, risk_at
from bluekettle.core.stages.chain import Band, Stage, serial
from bluekettle.core.stages.dish import (
    FINISHES,
    LIMITS,
    MAX_COATS,
    RELEASES,
    SIGNS,
    STATES,
    TENDERISE,
    TYPICAL,
    WANTS,
    Cut,
    Dish,
    Kitchen,
    Learnt,
    Sighting,
    cut,
    cut_keys,
)
from bluekettle.core.stages.finishes import FinishKind, finish_keys, finish_kind
from bluekettle.core.stages.finishing import film_of, heat_of
from bluekettle.core.stages.fit import Fit, Place, Verdict, fit_cut, fits_of
from bluekettle.core.stages.forecast import Forecast, forecast, strip_index
from bluekettle.core.stages.inside import Inside
from bluekettle.core.stages.ladder import Rung, ladder
from bluekettle.core.stages.progress import Event, Progress, StepPlan, StepState, follow
from bluekettle.core.stages.tenderise import return_leg_s

__all__ = [
    "FINISHES",
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
    "fit_cut",
    "fits_of",
    "follow",
    "forecast",
    "heat_of",
    "ladder",
    "plan_calls",
    "return_leg_s",
    "risk_at",
    "serial",
    "strip_index",
]
