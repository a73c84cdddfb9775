"""All rules that one dish's forecast can break."""

from __future__ import annotations

from bluekettle.core.safety import fire, gates, gear, vessel
from bluekettle.core.safety.watch import LEVELS, Rule, WatchOut
from bluekettle.core.stages import Forecast

RULES: tuple[Rule, ...] = (*vessel.RULES, *gates.RULES, *fire.RULES, *gear.RULES)


def watch_outs(forecast: Forecast) -> tuple[WatchOut, ...]:
    """All warnings for a forecast, the gravest first."""
    found = [warning for rule in RULES for warning in rule(forecast)]
    return tuple(sorted(found, key=lambda w: LEVELS.index(w.level)))
