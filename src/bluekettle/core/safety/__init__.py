"""Rules over a finished forecast: watch-outs with level, reason, repair and source; on the
unfavourable bound.

Never imports calibration: a fit must not loosen a threshold.
"""

from bluekettle.core.safety.plan import plan_watch_outs
from bluekettle.core.safety.plan_base import HOLD_C, LEVELS, USUAL_GUIDANCE, PlanWatchOut

__all__ = ["HOLD_C", "LEVELS", "USUAL_GUIDANCE", "PlanWatchOut", "plan_watch_outs"]
