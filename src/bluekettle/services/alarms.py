"""Moments at which a live cook calls: fire, machines that are done, what is due beside, and the
question whether food is under the heat.

They are moments of the clock, so that a page goes on calling while the server is away.
"""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from functools import partial
from typing import TYPE_CHECKING

from bluekettle.core.stages import Fire, Progress, StepState
from bluekettle.core.stages.progress import ASK_EVERY_S, ends_of
from bluekettle.core.stages.told import ESTIMATED, RUNNING
from bluekettle.schemas.alarm import AlarmPublic
from bluekettle.schemas.forecast import GlazePublic

if TYPE_CHECKING:
    from bluekettle.services.loaded import Loaded

OUT_EVERY_S = 3.0
SCREEN = ("full", "out")

At = Callable[[float], datetime]
Says = Callable[[StepState, StepState | None], str]


def alarms_of(
    loaded: Loaded, progress: Progress, glaze: GlazePublic | None, now: datetime
) -> list[AlarmPublic]:
    """All alarms from now on, and those that still hold, in order."""
    found = machine_alarms(loaded.at, partial(end_words, loaded), progress)
    found += side_alarms(loaded, progress)
    if progress.fire is not None:
        assert glaze is not None  # a step under fire comes with its strip
        found += fire_alarms(loaded, progress, progress.fire, glaze)
    return sorted(found, key=lambda alarm: alarm.at)


def fire_alarms(
    loaded: Loaded, progress: Progress, fire: Fire, glaze: GlazePublic
) -> list[AlarmPublic]:
    """Each level once, the last until somebody says that it is out."""
    own = [one for one in progress.acts if one.fire == fire.name]
    done = sum(one.act.startswith(("coat", "turn")) for one in own)
    stretch = f"{fire.name}-{done}"
    found = []
    acts = 0
    for call in glaze.calls:
        moment = loaded.at(fire.since_s + call.at_s - fire.before_s)
        if call.level == "act":
            acts += 1
            if acts <= done:
                continue
        name = f"act-{acts}" if call.level == "act" else call.level
        found.append(
            AlarmPublic(
                id=f"{stretch}-{name}",
                at=moment,
                level=call.level,
                says=call.says,
                every_s=OUT_EVERY_S if call.level == "out" else 0.0,
                screen=call.level in SCREEN,
            )
        )
    if fire.assumed:
        found.append(
            AlarmPublic(
                id=f"{stretch}-ask",
                at=loaded.at(fire.since_s),
                level="ask",
                says="Is it under the heat?",
                every_s=ASK_EVERY_S,
                screen=False,
            )
        )
    return found


def machine_alarms(at: At, says: Says, progress: Progress) -> list[AlarmPublic]:
    """The end of the machine's step that runs, of those that follow it without a hand, and of those
    that just went on by themselves: an end has not rung yet when the state is read a moment later.

    says : what an end is told with, by that step and the next one, None where there is none.
    """
    line = [state for state in progress.steps if not state.plan.beside]
    place = next((i for i, s in enumerate(line) if s.plan.key == progress.current), None)
    if place is None:
        return []
    ends = ended(line, place) + running(line, place)
    return [
        AlarmPublic(
            id=f"{line[i].plan.key}-due",
            at=at(due_s),
            level="due",
            says=says(line[i], line[i + 1] if i + 1 < len(line) else None),
            every_s=0.0,
            screen=False,
        )
        for i, due_s in ends
    ]


def ended(line: list[StepState], place: int) -> list[tuple[int, float]]:
    """Ends of the machine's steps right before the current one that nobody told: which, and when
    [s].
    """
    found: list[tuple[int, float]] = []
    for i in range(place - 1, -1, -1):
        state = line[i]
        if state.plan.who != "machine" or state.state != ESTIMATED or state.begin_s is None:
            break
        found.append((i, ends_of(state.plan, float(state.begin_s))[0]))
    return found


def running(line: list[StepState], place: int) -> list[tuple[int, float]]:
    """Ends of the machine's step that runs, and of those that follow it without a hand: which, and
    when [s].
    """
    if line[place].state != RUNNING:
        return []
    found: list[tuple[int, float]] = []
    begin = float(line[place].begin_s or 0.0)
    for i in range(place, len(line)):
        state = line[i]
        if state.plan.who != "machine":
            break
        due, latest = ends_of(state.plan, begin)
        more = state.due_s - due if i == place else 0.0
        found.append((i, due + more))
        begin = latest + more
    return found


def end_words(loaded: Loaded, state: StepState, after: StepState | None) -> str:
    """One end of a machine's step: what comes next, else what it was."""
    if after is not None and after.plan.who != "machine":
        return loaded.words(after.plan).says
    return f"{state.plan.label}: is it so far?"


def side_alarms(loaded: Loaded, progress: Progress) -> list[AlarmPublic]:
    """What is to be done beside, when it is due."""
    return [
        AlarmPublic(
            id=f"{state.plan.key}-side",
            at=loaded.at(state.due_s),
            level="due",
            says=loaded.words(state.plan).says,
            every_s=0.0,
            screen=False,
        )
        for state in progress.steps
        if state.plan.beside and state.end_s is None and state.state != "unknown"
    ]
