"""Moments at which a side of a supper calls: put it on, its time is up, hands are wanted."""

from __future__ import annotations

from datetime import datetime, timedelta

from bluekettle.core.stages import Progress, StepState
from bluekettle.core.stages.delaying import is_wait
from bluekettle.schemas.alarm import AlarmPublic
from bluekettle.services.alarms import machine_alarms
from bluekettle.services.kept_suppers import KeptSupper


def side_calls(kept: KeptSupper, line: str, progress: Progress) -> list[AlarmPublic]:
    """All calls from now on, and those that have just been. Their ids tell the side too."""
    name = kept.names[line]

    def at(seconds: float) -> datetime:
        return kept.began + timedelta(seconds=seconds)

    def says(state: StepState, after: StepState | None) -> str:
        return end_words(name, state, after)

    calls = machine_alarms(at, says, progress)
    return [call.model_copy(update={"id": f"{line}/{call.id}"}) for call in calls]


def end_words(name: str, state: StepState, after: StepState | None) -> str:
    """The end of a wait, or of its time in the heat."""
    if not is_wait(state.plan):
        return f"{name}: its time is up. Off the heat."
    if after is None or is_wait(after.plan):
        return f"{name}: go on."
    return f"{name}: put it on now." if after.plan.who == "machine" else f"{after.plan.label}."
