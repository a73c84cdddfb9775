"""What hands make ready before a line is under any heat: when, and how early it may be done."""

from __future__ import annotations

from dataclasses import dataclass

from bluekettle.core.schedule.lines import Line
from bluekettle.core.schedule.meal import Schedule


@dataclass(frozen=True)
class Preparation:
    """Work of hands: when the plan has it, how long it takes, and the earliest moment at which it
    may be done, None where it keeps for days [all s from the wanted moment].
    """

    key: str
    line: str
    label: str
    start_s: float
    seconds: float
    earliest_s: float | None


def preparations(plan: Schedule) -> tuple[Preparation, ...]:
    """All of them, in the order in which the plan has them."""
    found = [one for line in plan.lines for one in of_line(line, plan)]
    return tuple(sorted(found, key=lambda one: one.start_s))


def of_line(line: Line, plan: Schedule) -> list[Preparation]:
    """Those of one line."""
    keys = [task.key for task in line.tasks]
    firsts = {use.first for use in line.uses} or {line.end}
    heats = min(keys.index(key) for key in firsts)
    aside = {before for (before, _), how in line.waits.items() if how == "beside"}
    return [
        Preparation(
            task.key,
            line.key,
            line.labels[task.key],
            plan.found.start_s[task.key],
            task.seconds,
            earliest(task.key, task.seconds, line, plan),
        )
        for place, task in enumerate(line.tasks)
        if line.who[task.key] == "hands" and (place < heats or task.key in aside)
    ]


def earliest(key: str, seconds: float, line: Line, plan: Schedule) -> float | None:
    """When it may be done at the earliest, so that it keeps until what follows [s]; as planned
    where nothing is known of how it keeps. None where it keeps for days.
    """
    if key in line.keeps:
        return None
    start = plan.found.start_s
    kept = [gap for gap in line.gaps if gap.before == key and (key, gap.after) in line.waits]
    limits = [start[gap.after] - gap.most_s - seconds for gap in kept if gap.most_s is not None]
    return min(start[key], max(limits, default=start[key]))
