"""Lines of a meal that is being cooked, as the plan sees them: what has begun, what is over, and
what is still to come. Hands have not begun before they say that they are done.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from bluekettle.core.stages.delaying import is_wait
from bluekettle.core.stages.told import CURRENT, RUNNING, UPCOMING, StepState

LEAST_S = 30.0  # that what goes on takes yet (numerical)


@dataclass(frozen=True)
class Standing:
    """A line that is being cooked: its steps as they stand, and when its clock began [s from the
    wanted moment].
    """

    line: str
    states: tuple[StepState, ...]
    began_s: float


@dataclass(frozen=True)
class Stands:
    """A task as it stands [s from the wanted moment]: begun and over, None where not yet; when it
    is likely to be over; and how long it takes from where it is, and where it is put off.
    """

    key: str
    label: str
    who: str
    begun_s: float | None
    over_s: float | None
    begin_s: float
    seconds: float
    whole_s: float

    @property
    def open(self) -> bool:
        """Whether it is still to begin."""
        return self.begun_s is None


@dataclass(frozen=True)
class Told:
    """What the cook was told: the start of every task and when supper is aimed at [s from the
    wanted moment], where every use is put, and what that plan cost beyond its aim [s]. own_s : when
    each line would have been over, as it was planned, had it waited for nothing.
    """

    start_s: Mapping[str, float]
    bodies: Mapping[str, str]
    aim_s: float
    cost_s: float = 0.0
    own_s: Mapping[str, float] = field(default_factory=dict)


def stands_of(standing: Standing, now_s: float) -> tuple[Stands, ...]:
    """The steps of a line, without its waits, as the plan sees them.

    A machine and a fire have begun. Hands have not before they say that they are done: what is
    current may still have to wait for them.
    """
    found: list[Stands] = []
    begin = standing.began_s
    for state in standing.states:
        plan = state.plan
        if plan.beside:
            continue
        due = standing.began_s + state.due_s
        if state.state == UPCOMING:
            if not is_wait(plan):
                found.append(stands(standing, state, None, None, begin, plan.likely_s))
            begin = due
            continue
        begun = standing.began_s + (state.begin_s or 0.0)
        if state.state not in (CURRENT, RUNNING):
            over = due if state.end_s is None else standing.began_s + state.end_s
            begin = over
            if not is_wait(plan):
                found.append(stands(standing, state, begun, over, begun, over - begun))
            continue
        begin = max(due, now_s)
        if is_wait(plan):
            continue
        rest = max(LEAST_S, due - now_s)
        if plan.who in ("machine", "fire"):
            found.append(stands(standing, state, begun, None, begun, now_s + rest - begun))
        else:
            late = max(begun, now_s - max(0.0, plan.likely_s - rest))  # not after now
            found.append(stands(standing, state, None, None, late, rest))
        begin = now_s + rest
    return tuple(found)


def stands(
    standing: Standing,
    state: StepState,
    begun_s: float | None,
    over_s: float | None,
    begin_s: float,
    seconds: float,
) -> Stands:
    """One step of a line."""
    plan = state.plan
    key = f"{standing.line}/{plan.key}"
    return Stands(key, plan.label, plan.who, begun_s, over_s, begin_s, seconds, plan.likely_s)
