"""What each heat does to the food, the links of its time, and a live cook followed.

Here heat, pressure, glaze, tenderness and lethality meet. Knows cuts, appliances and hands;
no clock.
"""

from bluekettle.core.stages.appliances import ApplianceKind, appliance_keys, appliance_kind
from bluekettle.core.stages.bite import Tenderness, judge_tenderness
from bluekettle.core.stages.browning import SIGNS, WANTS, Browning, Sighting
from bluekettle.core.stages.calls import (
    Call,
    Nearing,
    calls_by_clock,
    looks_of,
    nearing_of,
    plan_calls,
    risk_at,
)
from bluekettle.core.stages.cuts import Cut, cut, cut_keys
from bluekettle.core.stages.figures import Figure, figure, figures
from bluekettle.core.stages.finishes import FinishKind, finish_keys, finish_kind
from bluekettle.core.stages.finishing import dial_that_holds, film_of, heat_of
from bluekettle.core.stages.first_heats import FirstHeat, first_heat, first_heat_keys
from bluekettle.core.stages.fit import Fit, Place, Verdict, fit_cut
from bluekettle.core.stages.inside import Inside
from bluekettle.core.stages.kitchen import (
    LIMITS,
    MAX_COATS,
    Kitchen,
    Learnt,
)
from bluekettle.core.stages.ladder import Rung, ladder
from bluekettle.core.stages.links import Band, Stage, serial
from bluekettle.core.stages.piece import FINISHES, JOBS, STATES, TENDERISE, Piece
from bluekettle.core.stages.pinning import pin_bands, pin_index, warps
from bluekettle.core.stages.progress import follow, held_for, plans_with
from bluekettle.core.stages.pulling import pull_times, strip_index
from bluekettle.core.stages.returning import Failed, heats_back, ways_back
from bluekettle.core.stages.steps import Evidence, Leg, StepPlan, waiting_step
from bluekettle.core.stages.tendering import RELEASES, Tendering
from bluekettle.core.stages.told import (
    Check,
    Done,
    Event,
    Fire,
    Progress,
    Sign,
    StepState,
    not_undone,
)

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
    "ApplianceKind",
    "Band",
    "Browning",
    "Call",
    "Check",
    "Cut",
    "Done",
    "Event",
    "Evidence",
    "Failed",
    "Figure",
    "FinishKind",
    "Fire",
    "FirstHeat",
    "Fit",
    "Inside",
    "Kitchen",
    "Learnt",
    "Leg",
    "Nearing",
    "Piece",
    "Place",
    "Progress",
    "Rung",
    "Sighting",
    "Sign",
    "Stage",
    "StepPlan",
    "StepState",
    "Tendering",
    "Tenderness",
    "Verdict",
    "appliance_keys",
    "appliance_kind",
    "calls_by_clock",
    "cut",
    "cut_keys",
    "dial_that_holds",
    "figure",
    "figures",
    "film_of",
    "finish_keys",
    "finish_kind",
    "first_heat",
    "first_heat_keys",
    "fit_cut",
    "follow",
    "heat_of",
    "heats_back",
    "held_for",
    "judge_tenderness",
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
    "strip_index",
    "waiting_step",
    "warps",
    "ways_back",
]
