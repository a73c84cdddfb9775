"""What a skewer told while a slow heat went on: whether the food is tender, and how much longer."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from bluekettle.core import chain as core
from bluekettle.core.errors import Fault
from bluekettle.core.stages import Event, Progress, StepPlan, StepState, not_undone
from bluekettle.core.stages.told import ESTIMATED
from bluekettle.schemas.cook import FeelPublic
from bluekettle.services.chains import plan_of
from bluekettle.services.instructions import minutes_text, words_row
from bluekettle.services.loaded import Loaded, Seconds, stage_of_step
from bluekettle.services.workshop import Workshop

TASK = "holds"
HOLDING = "slow/holding"
LEAST_S = 60.0  # under which nobody is told to wait (design)


@dataclass(frozen=True)
class FeelNow:
    """What was told of how it feels, and the seconds that it gives to holds, by their keys."""

    public: FeelPublic | None = None
    seconds: Mapping[str, Seconds] = field(default_factory=dict)


def heat_felt(loaded: Loaded, plan: StepPlan) -> core.Heat | None:
    """The heat of a hold that ends with a bite and that a skewer can try; None of all else."""
    if plan.who != "machine" or "~" in plan.key:
        return None
    if words_row(loaded.step_of(plan))["shows"] != HOLDING:
        return None
    heat = core.stage_named(plan_of(loaded.whole).stages, stage_of_step(plan))
    if not isinstance(heat, core.Heat) or heat.until.bite is None:
        return None
    row = core.heat_row(heat.heat).slow
    return heat if row is not None and row.feels else None


def holding_now(loaded: Loaded, progress: Progress) -> StepState | None:
    """The hold that the food is in by what was told, and that a skewer can try: one whose end is
    only reckoned is not over. None elsewhere.
    """
    line = [s for s in progress.steps if not s.plan.beside]
    place = next((i for i, s in enumerate(line) if s.plan.key == progress.current), None)
    while place and heat_felt(loaded, line[place].plan) is None:
        place = place - 1 if line[place - 1].state == ESTIMATED else None
    if place is None or line[place].begin_s is None:
        return None
    return line[place] if heat_felt(loaded, line[place].plan) else None


def felt_in(loaded: Loaded) -> dict[str, Event]:
    """What was told last of every hold, and holds."""
    return {one.step: one for one in not_undone(loaded.events) if one.kind == "felt"}


def feel_now(loaded: Loaded, progress: Progress, workshop: Workshop) -> FeelNow:
    """How much longer every hold takes in which the food was tried."""
    now, felt = holding_now(loaded, progress), felt_in(loaded)
    seconds: dict[str, Seconds] = {}
    for key, event in felt.items():
        state = next((s for s in progress.steps if s.plan.key == key), None)
        heat = None if state is None else heat_felt(loaded, state.plan)
        if state is None or heat is None or state.begin_s is None:
            continue
        found = held(loaded, heat, event, event.at_s - state.begin_s, workshop)
        if found is not None:
            # What was told before it is longer by hand is counted on top of these.
            more_s = longer_before(loaded, event)
            low, likely, high = (
                max(0.0, one - more_s) for one in (found.low_s, found.likely_s, found.high_s)
            )
            seconds[key] = (low, likely, high)
    if now is None:
        return FeelNow(None, seconds)
    workshop.peek(TASK, payload_of(loaded, now.plan))  # known by the time that somebody tries
    told = felt.get(now.plan.key)
    if told is None:
        return FeelNow(FeelPublic(step=now.plan.key, tender=None, says="", ready=True), seconds)
    ready = now.plan.key in seconds or workshop.failed(TASK, payload_of(loaded, now.plan))
    says = says_of(told, now, seconds.get(now.plan.key), longer_before(loaded, told))
    public = FeelPublic(step=now.plan.key, tender=bool(told.tender), says=says, ready=ready)
    return FeelNow(public, seconds)


def held(
    loaded: Loaded, heat: core.Heat, event: Event, felt_s: float, workshop: Workshop
) -> core.Held | None:
    """How long the hold takes in all; None while that is being computed, or the model cannot."""
    felt_s = max(0.0, felt_s)
    if event.tender:
        return core.Held(felt_s, felt_s, felt_s)
    holds: core.Holds | None = workshop.peek(TASK, (loaded.whole.model_dump_json(), heat.id))
    return None if holds is None else core.held_after(holds, felt_s, False)


def payload_of(loaded: Loaded, plan: StepPlan) -> tuple[str, str]:
    """What the bite of a hold is computed from."""
    return loaded.whole.model_dump_json(), stage_of_step(plan)


def longer_before(loaded: Loaded, event: Event) -> float:
    """Seconds that a hold was told to take longer before it was tried."""
    standing = not_undone(loaded.events)
    longer = [e for e in standing if e.kind == "extend" and e.step == event.step]
    return sum(one.seconds for one in longer if one.seq < event.seq)


def says_of(told: Event, state: StepState, seconds: Seconds | None, more_s: float) -> str:
    """What was told, and what follows from it."""
    at = minutes_text(max(0.0, told.at_s - (state.begin_s or 0.0)))
    if told.tender:
        return f"A skewer slid in after {at}: it is tender."
    if seconds is None:
        return f"It resisted after {at}."
    left_s = seconds[1] + more_s - (told.at_s - (state.begin_s or 0.0))
    if left_s < LEAST_S:
        return f"It resisted after {at}: try it again soon."
    return f"It resisted after {at}: about {minutes_text(left_s)} more from then on."


def felt_faults(loaded: Loaded, progress: Progress, step: str, tender: bool | None) -> list[Fault]:
    """A feel wants food in a hold that ends with a bite and can be tried, and what was felt."""
    now = holding_now(loaded, progress)
    if now is None or now.plan.key != step:
        accepted = "the slow heat that the food is in, where a skewer can try it and a bite ends it"
        return [Fault("step", step, accepted)]
    if tender is None:
        return [Fault("tender", tender, "true where a skewer slides in, false where it resists")]
    return []
