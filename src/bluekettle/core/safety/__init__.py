"""Rules over a finished forecast: watch-outs with level, reason, repair and source; on the
unfavourable bound.

Never imports calibration: a fit must not loosen a threshold.
"""

from bluekettle.core.safety.plan import plan_watch_outs
from bluekettle.core.safety.plan_base import PlanWatchOut
from bluekettle.core.safety.rules import watch_outs
from bluekettle.core.safety.watch import LEVELS, USUAL_GUIDANCE, WatchOut

__all__ = [
    "LEVELS",
    "USUAL_GUIDANCE",
    "PlanWatchOut",
    "WatchOut",
    "plan_watch_outs",
    "watch_outs",
]
