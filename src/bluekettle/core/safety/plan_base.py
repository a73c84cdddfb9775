"""What a warning of a plan is, and what its rules share. A repair is a JSON Patch (RFC 6902) of the
plan's document.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from bluekettle.core.chain import Heat, PlanForecast, TakeApart, heat_row

LEVELS = ("stop", "careful", "good to know")
USUAL_GUIDANCE = (
    "Usual guidance only. Your appliance's manual and local food-safety and fire rules come first."
)
HOLD_C = 60.0  # food that is kept warm, as it is told to cooks (the usual guidance)
Patch = tuple[dict[str, object], ...]


@dataclass(frozen=True)
class PlanWatchOut:
    """One warning at its stage ("" for the whole plan). `repair` is a JSON Patch of the document,
    empty where one tap cannot help.
    """

    id: str
    level: str
    stage: str
    message: str
    why: str
    source: str
    repair: Patch = ()
    repair_says: str = ""


Found = Iterator[PlanWatchOut]
Rule = Callable[[PlanForecast], Found]


def put(path: str, given: object) -> dict[str, object]:
    """One operation of a patch: this value at this place."""
    return {"op": "add", "path": path, "value": given}


def heats_of(f: PlanForecast) -> list[Heat]:
    """Every heat, with its timer."""
    return [one.stage for one in f.walk.passed if isinstance(one.stage, Heat)]


def slow_heats_of(f: PlanForecast) -> list[Heat]:
    """Heats that go on for as long as it takes, not until a look."""
    every = [s for s in heats_of(f) if heat_row(s.heat).slow is not None]
    return [s for s in every if s.until.by != "colour"]


def apart_of(f: PlanForecast) -> list[TakeApart]:
    """Every time it is taken apart."""
    return [one.stage for one in f.walk.passed if isinstance(one.stage, TakeApart)]
