"""Searches over settings, built on forecasts: what to set, how to rescue, until when one can still
change course.
"""

from bluekettle.core.advice.effects import Effect, plan_effects
from bluekettle.core.advice.exits import Exit, plan_exits
from bluekettle.core.advice.explore import REGIONS, Explored, explore
from bluekettle.core.advice.rescue import Way, rescue, taken
from bluekettle.core.advice.sauces import Calmer, calmers
from bluekettle.core.advice.search import Advice, Setting, advise

__all__ = [
    "REGIONS",
    "Advice",
    "Calmer",
    "Effect",
    "Exit",
    "Explored",
    "Setting",
    "Way",
    "advise",
    "calmers",
    "explore",
    "plan_effects",
    "plan_exits",
    "rescue",
    "taken",
]
