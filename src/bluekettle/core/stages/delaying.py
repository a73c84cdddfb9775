"""Guests who come later: a covered wait put into the steps of a live cook, where the food bears it
best.
"""

from __future__ import annotations

from collections.abc import Container, Iterable, Sequence
from dataclasses import replace

from bluekettle.core.stages.steps import StepPlan

LONG_S = 1200.0  # a machine's step from which on it is a heat and no warming up (design)
WAITS = (".slack", ".guests", ".uncovered", ".stand", ".fridge")


def with_wait(
    line: Sequence[StepPlan], done: Container[str], seconds: float
) -> tuple[StepPlan, ...]:
    """The steps with a wait of so many seconds: one that is there and not over is made longer, that
    for a planned start too.

    done : keys of the steps that were told to be over.
    """
    first = first_open(line, done)
    if first >= len(line):
        return tuple(line)  # it is on the table
    for place, plan in enumerate(line[first:], first):
        if is_wait(plan):
            return (*line[:place], longer(plan, seconds), *line[place + 1 :])
    place = place_of_wait(line, first)
    browned = place == len(line) - 1
    number = 1 + sum(plan.key.startswith("later-") for plan in line)
    root, label = ("uncovered", "Warm, uncovered") if browned else ("guests", "Covered, in hand")
    wait = StepPlan(f"later-{number}.{root}", "machine", label, seconds, seconds, seconds)
    return (*line[:place], wait, *line[place:])


def with_waits(
    line: Sequence[StepPlan],
    done: Container[str],
    dropped: Container[str],
    waits: Iterable[tuple[str, StepPlan]],
) -> tuple[StepPlan, ...]:
    """The steps without the waits that are no more, and with new ones, each before its step; what
    was told to be over stays, and nothing is put before it.
    """
    found = [plan for plan in line if plan.key in done or plan.key not in dropped]
    for before, wait in waits:
        keys = [plan.key for plan in found]
        if before in keys[first_open(found, done) :] and wait.key not in keys:
            found.insert(keys.index(before), wait)
    return tuple(found)


def is_wait(plan: StepPlan) -> bool:
    """Whether a step is nothing but a wait."""
    return plan.key in ("wait", "slack") or plan.key.endswith(WAITS)


def longer(plan: StepPlan, seconds: float) -> StepPlan:
    """A wait that is so many seconds longer."""
    return replace(
        plan,
        low_s=plan.low_s + seconds,
        likely_s=plan.likely_s + seconds,
        high_s=plan.high_s + seconds,
        until_s=None if plan.until_s is None else plan.until_s + seconds,
    )


def first_open(line: Sequence[StepPlan], done: Container[str]) -> int:
    """Place of the first step behind everything that was told [-]."""
    return max((i + 1 for i, plan in enumerate(line) if plan.key in done), default=0)


def place_of_wait(line: Sequence[StepPlan], first: int) -> int:
    """Where a wait goes [-]: behind the last check before the fires, once no slow heat is left, so
    that it waits in its vessel and nothing crisp or glazed is held; where there is no such check
    left, before it is made ready for its fire; where it is under its last fire, before the table.
    """
    last_fire = max((i for i, plan in enumerate(line) if plan.who == "fire"), default=0)
    heats = [i for i, plan in enumerate(line[:last_fire]) if is_heat(plan)]
    after = max(first, heats[-1] + 1 if heats else 0)
    begins = [i for i in range(after, len(line)) if begins_fire(line, i, after)]
    if not begins:
        return len(line) - 1
    gates = [i + 1 for i in range(after, begins[0]) if line[i].who == "gate"]
    return gates[-1] if gates else begins[0]


def is_heat(plan: StepPlan) -> bool:
    """Whether a step is a slow heat: a machine's, and long."""
    return plan.who == "machine" and not plan.approach and plan.likely_s >= LONG_S


def begins_fire(line: Sequence[StepPlan], place: int, after: int) -> bool:
    """Whether a step is the first that makes the food ready for a fire which it is not under."""
    before = line[place - 1] if place > after else None
    return line[place].approach and not line[place].fire and not (before and before.approach)
