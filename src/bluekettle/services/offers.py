"""What a live cook can still do: last exits before they close, and a trial of a heat that nobody
knows yet, while there is time for it.
"""

from __future__ import annotations

from datetime import datetime, timedelta

from bluekettle.core.stages import Progress, first_heat
from bluekettle.core.stages.told import RUNNING
from bluekettle.schemas.alarm import AlarmPublic
from bluekettle.schemas.cook import LastExitPublic, ScoutPublic
from bluekettle.services.fires import heat_row_of
from bluekettle.services.loaded import Loaded, stage_of_step

AHEAD = timedelta(minutes=2)  # that a last exit is called before it closes
LONG_ENOUGH_S = 900.0  # of quiet time, to heat up and to watch a slice of bread


def next_fire(progress: Progress) -> str:
    """The fire that comes next and has not begun; empty where none does."""
    if progress.fire is not None:
        return ""
    for state in progress.steps:
        if state.plan.who == "fire" and state.state == "upcoming":
            begun = [s for s in progress.steps if s.plan.fire == state.plan.fire and s.end_s]
            return "" if begun else state.plan.fire
    return ""


def exits_now(loaded: Loaded, progress: Progress, now: datetime) -> list[LastExitPublic]:
    """What can still be done and be on the table by the time that was promised, the first to close
    first; guests who come later leave more.
    """
    stage = next_fire(progress)
    promised = loaded.chain.serve_at
    if promised is None or not stage:
        return []
    late = sum(event.seconds for event in loaded.fold.events if event.kind == "later")
    found = [
        LastExitPublic(
            do=one.do,
            why=one.why,
            closes_at=promised + timedelta(seconds=late - one.before_serving_s),
        )
        for one in loaded.chain.exits.get(stage, [])
    ]
    open_yet = [one for one in found if one.closes_at >= now]
    return sorted(open_yet, key=lambda one: one.closes_at)


def exit_alarms(exits: list[LastExitPublic], loaded: Loaded) -> list[AlarmPublic]:
    """A call for each before it closes, where it was open at all and somebody asked for an hour."""
    if loaded.whole.serve_at is None:
        return []
    return [
        AlarmPublic(
            id=f"exit-{one.do}",
            at=one.closes_at - AHEAD,
            level="due",
            says=f"Last moment to {one.do} and be on time.",
            every_s=0.0,
            screen=False,
        )
        for one in exits
        if one.closes_at - AHEAD > loaded.cook.started_at
    ]


def scout_now(loaded: Loaded, progress: Progress, now: datetime) -> ScoutPublic | None:
    """A trial of the next fire's heat, where nobody has seen anything of it yet, its body is free
    and a machine leaves the time for it.
    """
    stage = next_fire(progress)
    state = next((s for s in progress.steps if s.plan.key == progress.current), None)
    if not stage or state is None or state.state != RUNNING:
        return None
    scene = loaded.scenes[stage]
    here = stage_of_step(state.plan)
    quiet_s = state.due_s - loaded.seconds(now)
    if here not in loaded.scenes or scene.by_clock or quiet_s < LONG_ENOUGH_S:
        return None
    row = heat_row_of(scene.document.fire)
    slow = loaded.step_of(state.plan).heat
    taken = first_heat(slow).body if slow else ""
    if scene.document.fire in scene.document.kitchen.learnt or row.body == taken:
        return None
    name = row.fierce.name if row.fierce else row.name
    return ScoutPublic(
        appliance=name,
        says=f"Nobody has watched your {name} yet. In this quiet time a slice of damp bread with"
        " tonight's glaze under it would tell how fierce it is.",
    )
