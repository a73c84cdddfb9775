"""Heats of a live cook that are not over, and what may fail there."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from bluekettle.core import chain as core
from bluekettle.core.stages import Progress, StepState
from bluekettle.core.stages.told import CURRENT, RUNNING, UPCOMING
from bluekettle.core.tables import row
from bluekettle.schemas.elsewhere import LeavablePublic
from bluekettle.services.chains import plan_of
from bluekettle.services.loaded import Loaded, stage_of_step
from bluekettle.services.rehearsing import holds

OPEN = (CURRENT, RUNNING, UPCOMING)
LEAST_SLOW_S, LEAST_FIRE_S = 60.0, 5.0  # of a heat that counts as begun (numerical)


@dataclass(frozen=True)
class Place:
    """A heat that is not over: its stage and row, whether it browns, and the seconds that the food
    had of it.
    """

    stage: core.Heat
    row: core.HeatRow
    browns: bool
    had_s: float

    @property
    def begun(self) -> bool:
        """Whether what it had counts."""
        return self.had_s >= (LEAST_FIRE_S if self.browns else LEAST_SLOW_S)

    @property
    def name(self) -> str:
        """What it is called."""
        kind = self.row.fierce if self.browns else self.row.slow
        return kind.name if kind is not None else self.row.name

    @property
    def wrapped(self) -> bool:
        """Whether it is foil that keeps the food moist."""
        slow = self.row.slow
        return not self.browns and slow is not None and bool(slow.around) and not slow.dry


def places(loaded: Loaded, progress: Progress, now_s: float) -> list[Place]:
    """Heats that are not over, in order; the way back of a check has ways of its own."""
    plan = plan_of(loaded.whole)
    found = []
    for stage in core.run_through(plan.stages):
        if not isinstance(stage, core.Heat) or stage.cut_short:
            continue
        inside = [s for s in progress.steps if in_heat(loaded, s, stage.id)]
        if not any(s.state in OPEN for s in inside):
            continue
        browns = core.browns(stage, plan.stages)
        had_s = sum(seconds_in(s, now_s) for s in inside)
        if progress.fire is not None and progress.fire.name == stage.id:
            had_s = progress.fire.clock_s(now_s)
        found.append(Place(stage, core.heat_row(stage.heat), browns, had_s))
    return found


def in_heat(loaded: Loaded, state: StepState, stage: str) -> bool:
    """Whether the food has its time in the heat of a stage during a step of the plan."""
    plan = state.plan
    if plan.beside or "~" in plan.key or stage_of_step(plan) != stage:
        return False
    return plan.who == "fire" or holds(loaded, state)


def seconds_in(state: StepState, now_s: float) -> float:
    """How long a step went on by now [s]."""
    if state.begin_s is None:
        return 0.0
    end_s = min(now_s, state.due_s) if state.state not in OPEN else now_s
    return max(0.0, (end_s if state.end_s is None else state.end_s) - state.begin_s)


def leavable(loaded: Loaded, progress: Progress, now_s: float) -> list[LeavablePublic]:
    """What may fail: the first heat of every body, and foil around the food."""
    found: list[LeavablePublic] = []
    bodies: set[str] = set()
    for place in places(loaded, progress, now_s):
        if place.row.body in bodies:
            continue
        bodies.add(place.row.body)
        found.append(failing(place, "appliance"))
        if place.wrapped and place.begun:
            found.append(failing(place, "cover"))
    return found


def failing(place: Place, gone: Literal["appliance", "cover"]) -> LeavablePublic:
    """Something that may fail."""
    name = "foil" if gone == "cover" else row("bodies", place.row.body)["name"]
    says = "The foil is torn" if gone == "cover" else f"The {name} is broken or taken"
    return LeavablePublic(stage=place.stage.id, gone=gone, name=name, says=says)
