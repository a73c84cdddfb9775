"""What a watch-out is, and what all rules share."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from bluekettle.core.stages import Forecast

LEVELS = ("stop", "careful", "good to know")
USUAL_GUIDANCE = (
    "Usual guidance only. Your appliance's manual and local food-safety and fire rules come first."
)


@dataclass(frozen=True)
class WatchOut:
    """One warning. `repair` holds the fields of the dish document that one tap changes, empty where
    none can. Amounts in its sentences are marked (`core.units.amount`).
    """

    id: str
    level: str
    message: str
    why: str
    source: str
    repair: dict[str, object] = field(default_factory=dict)
    repair_says: str = ""


Found = Iterator[WatchOut]
Rule = Callable[[Forecast], Found]

THAW: dict[str, object] = {"state": "fridge"}
THAW_SAYS = "Thaw in the fridge first"
OWN_TIMER: dict[str, object] = {"timer_min": None}
OWN_TIMER_SAYS = "Use the computed timer"


def other_heat(key: str) -> dict[str, object]:
    """The repair that puts the dish into another first heat."""
    return {"tenderise": key, "timer_min": None, "liquid_l": None}
