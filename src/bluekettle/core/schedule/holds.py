"""The waits that a plan of the rest of an evening asks for, so that nothing begins too soon."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from bluekettle.core.schedule.left import behind
from bluekettle.core.schedule.standing import Stands
from bluekettle.core.tables import row

SEEN_S = 60.0  # a shorter wait is nobody's (design)


@dataclass(frozen=True)
class Hold:
    """A wait that is to be kept: before which task, how the food waits (a row of `meal_waits`,
    empty for a line that has not begun), and until when [s].
    """

    line: str
    before: str
    how: str
    begin_s: float
    until_s: float


def holds_of(
    lines: Mapping[str, Sequence[Stands]],
    start_s: Mapping[str, float],
    how: Mapping[tuple[str, str], str],
    now_s: float,
) -> tuple[Hold, ...]:
    """The waits of the rest of an evening, a minute or longer.

    how : by the tasks that a wait lies between, its row of `meal_waits`. Where the food does not
    wait by the plan there is none: what hands come late to is simply late.
    """
    found: list[Hold] = []
    for line, tasks in lines.items():
        first = tasks[0]
        if first.open and start_s[first.key] - now_s >= SEEN_S:
            found.append(Hold(line, first.key, "", now_s, start_s[first.key]))
        for one, then in pairwise(tasks):
            key = how.get((behind(one, then), then.key), "")
            if not then.open or not key or not row("meal_waits", key)["step"]:
                continue
            begin = max(end_of(one, start_s), now_s)
            if start_s[then.key] - begin >= SEEN_S:
                found.append(Hold(line, then.key, key, begin, start_s[then.key]))
    return tuple(found)


def end_of(one: Stands, start_s: Mapping[str, float]) -> float:
    """When a task is over [s]."""
    begin = start_s[one.key] if one.begun_s is None else one.begun_s
    return begin + one.seconds
