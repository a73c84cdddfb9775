"""A meal that is being cooked: what has begun stands, and the rest is planned anew where going on
as told does not do.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

import numpy as np

from bluekettle.core.errors import Infeasible, NotConverged
from bluekettle.core.schedule.explain import length_of, past_limits
from bluekettle.core.schedule.left import at_hand, going_on, lenient, placed
from bluekettle.core.schedule.puzzle import Puzzle
from bluekettle.core.schedule.shift import shifted
from bluekettle.core.schedule.simulate import played
from bluekettle.core.schedule.solver import Aim, Found, solve
from bluekettle.core.schedule.standing import LEAST_S, Stands, Told

EFFORT = 0.03  # deterministic units for each search: a tenth of a second (design)
UNSAFE = 10.0  # price of a minute past a limit of safety beside one of lateness (design's order)
RESERVE = 0.25  # price of a minute in hand that is used up beside one of lateness (estimated)
WORTH_S = 180.0  # that another order has to save (estimated)
WORTH_SHARE = 0.25  # and of what the told plan costs: nobody is told anew all the time (estimated)
TOLD_S = 120.0  # a move that is worth a word (estimated)


@dataclass(frozen=True)
class Replanned:
    """The rest of the evening: its puzzle, the plan of it, and what the cook is told now. That
    costs what the plan does, or what comes of it when hands are taken where they are wanted first.
    """

    puzzle: Puzzle
    found: Found
    told: Told


def drift_of(lines: Mapping[str, Sequence[Stands]], told: Told, now_s: float) -> tuple[str, float]:
    """The line that is furthest off what was told, and by how much [s]: late with any task, or its
    own work early. All of an open task that nobody has told yet.
    """
    off: dict[str, float] = {}
    for line, tasks in lines.items():
        opened = [task for task in tasks if task.open]
        drifts = [
            task.begin_s - told.start_s[task.key] for task in opened if task.key in told.start_s
        ]
        off[line] = max([0.0, *drifts]) or -early_by(line, tasks, told, now_s)
        off[line] += sum(task.seconds for task in opened if task.key not in told.start_s)
    line = max(off, key=lambda one: abs(off[one]), default="")
    return line, off.get(line, 0.0)


def early_by(line: str, tasks: Sequence[Stands], told: Told, now_s: float) -> float:
    """By how much a line would be over sooner than when it was planned, if it waited for nothing
    [s].
    """
    if line not in told.own_s:
        return 0.0
    return max(0.0, told.own_s[line] - own_end(tasks, now_s))


def own_end(tasks: Sequence[Stands], now_s: float) -> float:
    """When a line would be over if it waited for nothing [s]."""
    begun = [task for task in tasks if task.begun_s is not None and task.over_s is None]
    rest = sum(max(0.0, (task.begun_s or 0.0) + task.seconds - now_s) for task in begun)
    return now_s + rest + sum(task.seconds for task in tasks if task.open)


@dataclass(frozen=True)
class Outlook:
    """What the rest of the evening comes to if everybody goes on as told."""

    left: Puzzle
    found: Found
    cost_s: float
    supper_s: float


def outlook_of(
    puzzle: Puzzle, lines: Mapping[str, Sequence[Stands]], told: Told, now_s: float
) -> Outlook | None:
    """Everything as told, later where it has to be, hands where they are wanted first; None where
    there is something that nobody was told of.
    """
    left = going_on(puzzle, lines, told, now_s)
    here = placed(left, told)
    known = all(task.start_s is not None or task.key in told.start_s for task in left.tasks)
    if not known or any(use.key not in here for use in left.uses):
        return None
    start = {
        task.key: max(told.start_s[task.key], now_s) if task.start_s is None else task.start_s
        for task in left.tasks
    }
    plan = Found(start, here, 0.0, 0.0, 0.0, False)
    ends = played(left, plan, {task.key: np.array([task.seconds]) for task in left.tasks})
    begins = {task.key: float(ends[task.key][0]) - task.seconds for task in left.tasks}
    supper = max(float(ends[last][0]) for last in left.ends.values())
    found = replace(plan, start_s=begins, supper_s=max(supper, left.supper_s))
    return Outlook(left, found, cost_s(left, found, puzzle.supper_s), supper)


def is_stale(
    outlook: Outlook | None, lines: Mapping[str, Sequence[Stands]], told: Told, now_s: float
) -> bool:
    """Whether the rest is to be planned anew: going on as told costs minutes that the plan did not
    know of, nobody was told of something, or a supper that is late could come sooner.
    """
    worth_s = max(WORTH_S, WORTH_SHARE * told.cost_s)
    if outlook is None or outlook.cost_s >= told.cost_s + worth_s:
        return True
    late = told.cost_s >= WORTH_S
    early = [early_by(line, tasks, told, now_s) for line, tasks in lines.items()]
    return late and max(early, default=0.0) >= WORTH_S


def replan(
    puzzle: Puzzle, lines: Mapping[str, Sequence[Stands]], told: Told, now_s: float
) -> Replanned:
    """Plan what is left of a meal: as told where that does, with the told order kept where that
    does, else anew.

    Parameters
    ----------
    puzzle : Puzzle
        As the meal was planned; its `supper_s` is the moment wanted now.
    lines : by the key of each line that is not over, its tasks in order
    told : Told
    now_s : float

    Raises
    ------
    Infeasible
        Not even with every limit of safety broken that runs already.
    NotConverged
    """
    outlook = outlook_of(puzzle, lines, told, now_s)
    left = outlook.left if outlook else going_on(puzzle, lines, told, now_s)
    plans = [] if outlook is None else [outlook.found]
    shift = shifted(left, told.start_s, placed(left, told))
    plans += [] if shift is None else [shift]
    rest = Rest(puzzle, lines, told, left)
    best = min((rest.told_by(plan) for plan in plans), key=cost_of, default=None)
    if best is None or best.told.cost_s >= WORTH_S:
        best = better(best, rest)
    return best


def cost_of(plan: Replanned) -> float:
    """What a plan costs beyond its aim [s]."""
    return plan.told.cost_s


@dataclass(frozen=True)
class Rest:
    """What is left of a meal, to be planned: the meal, its lines, what was told, and the puzzle."""

    puzzle: Puzzle
    lines: Mapping[str, Sequence[Stands]]
    told: Told
    left: Puzzle

    def told_by(self, plan: Found) -> Replanned:
        """What the cook is told by a plan, and what that costs."""
        left, now_s = self.left, self.left.now_s
        opened = [task.key for tasks in self.lines.values() for task in tasks if task.open]
        aside = [t.key for t in left.tasks if t.key not in opened and t.start_s is None]
        start = dict(self.told.start_s)
        for key in (*opened, *aside):
            at = plan.start_s[key]
            going = start.get(key, at + 1.0) <= now_s and at <= now_s + LEAST_S
            if not going:  # else it is told as it was
                start[key] = at
        own = {line: own_end(tasks, now_s) for line, tasks in self.lines.items()}
        after = Told(start, {**self.told.bodies, **plan.body}, self.told.aim_s, own_s=own)
        follows = outlook_of(self.puzzle, self.lines, after, now_s)
        costs = [cost_s(left, plan, self.puzzle.supper_s)]
        costs += [] if follows is None else [follows.cost_s]
        return Replanned(left, plan, replace(after, cost_s=max(costs)))


def better(best: Replanned | None, rest: Rest) -> Replanned:
    """Another order of things, where that saves minutes or there is no plan without it."""
    held = at_hand(rest.left, rest.lines, rest.told)
    if best is None:
        return without_any(rest, held)
    most_s = best.told.cost_s - WORTH_S
    try:
        found = rest.told_by(solve(held, Aim(most_s=most_s, effort=EFFORT)))
    except (Infeasible, NotConverged):
        return best
    return found if found.told.cost_s <= most_s else best


def without_any(rest: Rest, held: Puzzle) -> Replanned:
    """A plan where nothing that was told can be kept: with what hands are at going on where that
    can be, else without; in quiet hours, sooner than with limits of safety broken that run already,
    where nothing else is left.
    """
    awake = replace(rest.left, quiet=())
    for left in (held, rest.left, *([awake] if rest.left.quiet else [])):
        with suppress(Infeasible, NotConverged):
            return rest.told_by(solve(left, Aim(effort=EFFORT)))
    return rest.told_by(solve(lenient(awake), Aim(effort=EFFORT)))


def cost_s(left: Puzzle, found: Found, wanted_s: float) -> float:
    """Seconds late and past limits, and what of the time in hand is gone [s]."""
    past = sum(one.seconds - one.most_s for one in past_limits(left, found))
    past += UNSAFE * sum(unsafe_s(left, found))
    late = max(0.0, found.supper_s - wanted_s)
    gone = max(0.0, min(found.supper_s, wanted_s) - left.supper_s)
    return past + late + RESERVE * gone


def unsafe_s(left: Puzzle, found: Found) -> list[float]:
    """By how much limits of safety are broken [s]."""
    limits = [gap for gap in left.gaps if gap.most_s is not None and not gap.quality]
    over = [length_of(gap, left, found) - (gap.most_s or 0.0) for gap in limits]
    return [seconds for seconds in over if seconds > LEAST_S]


@dataclass(frozen=True)
class Move:
    """A line of which something begins at another moment: what, and both moments [s]."""

    line: str
    key: str
    label: str
    was_s: float
    is_s: float


def moves_of(
    lines: Mapping[str, Sequence[Stands]], before: Mapping[str, float], after: Mapping[str, float]
) -> tuple[Move, ...]:
    """The first task of each line that is still to begin and moved by more than a minute or two."""
    found: list[Move] = []
    for line, tasks in lines.items():
        for task in tasks:
            was, moved = before.get(task.key), after.get(task.key)
            if not task.open or was is None or moved is None or abs(moved - was) < TOLD_S:
                continue
            found.append(Move(line, task.key, task.label, was, moved))
            break
    return tuple(found)
