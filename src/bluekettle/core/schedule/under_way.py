"""A meal that is being cooked: what has begun stands, and the rest is planned anew where going on
as told does not do.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from bluekettle.core.errors import Infeasible, NotConverged
from bluekettle.core.schedule.explain import length_of, past_limits
from bluekettle.core.schedule.puzzle import Gap, Puzzle, Task, Use
from bluekettle.core.schedule.shift import shifted
from bluekettle.core.schedule.simulate import played
from bluekettle.core.schedule.solver import Aim, Found, chained, solve
from bluekettle.core.stages.delaying import is_wait
from bluekettle.core.stages.progress import CURRENT, RUNNING, UPCOMING, StepState
from bluekettle.core.tables import row

LEAST_S = 30.0  # that what goes on takes yet (numerical)
EFFORT = 0.1  # deterministic units for each search: a fraction of a second (design)
AT_ONCE = 30.0  # price of a minute that a begun line waits for hands (design 3's order)
UNSAFE = 10.0  # price of a minute past a limit of safety beside one of lateness (design's order)
WORTH_S = 180.0  # that another order has to save (estimated)
SEEN_S = 60.0  # a shorter wait is nobody's (design)
TOLD_S = 120.0  # a move that is worth a word (estimated)


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
    is likely to be over; and how long it takes from where it is.
    """

    key: str
    label: str
    who: str
    begun_s: float | None
    over_s: float | None
    begin_s: float
    seconds: float

    @property
    def open(self) -> bool:
        """Whether it is still to begin."""
        return self.begun_s is None


@dataclass(frozen=True)
class Replanned:
    """The rest of the evening. start_s : of every task that is still to begin. cost_s : beyond its
    aim, late and past limits [s].
    """

    puzzle: Puzzle
    found: Found
    start_s: dict[str, float]
    cost_s: float


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
            late = max(begun, now_s + rest - plan.likely_s)
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
    return Stands(key, plan.label, plan.who, begun_s, over_s, begin_s, seconds)


def drift_of(lines: Mapping[str, Sequence[Stands]], told: Mapping[str, float]) -> tuple[str, float]:
    """The line that is furthest off what was told, and by how much [s]: late with any task, or
    early with its last. All of an open task that nobody has told yet.
    """
    off: dict[str, float] = {}
    for line, tasks in lines.items():
        opened = [task for task in tasks if task.open]
        drifts = [task.begin_s - told[task.key] for task in opened if task.key in told]
        late = max([0.0, *drifts]) or min([0.0, *drifts[-1:]])
        off[line] = late + sum(task.seconds for task in opened if task.key not in told)
    line = max(off, key=lambda one: abs(off[one]), default="")
    return line, off.get(line, 0.0)


@dataclass(frozen=True)
class Told:
    """What the cook was told: the start of every task and when supper is aimed at [s from the
    wanted moment], where every use is put, and what that plan cost beyond its aim [s].
    """

    start_s: Mapping[str, float]
    bodies: Mapping[str, str]
    aim_s: float
    cost_s: float = 0.0


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


def placed(left: Puzzle, told: Told) -> dict[str, str]:
    """Where every use is."""
    return {
        use.key: use.body or told.bodies[use.key]
        for use in left.uses
        if use.body or use.key in told.bodies
    }


def is_stale(
    puzzle: Puzzle, lines: Mapping[str, Sequence[Stands]], told: Told, now_s: float
) -> bool:
    """Whether the rest is to be planned anew: going on as told costs minutes that the plan did not
    know of, nobody was told of something, or a supper that is late could come sooner.
    """
    outlook = outlook_of(puzzle, lines, told, now_s)
    if outlook is None or outlook.cost_s >= told.cost_s + WORTH_S:
        return True
    late = told.cost_s >= WORTH_S
    return late and drift_of(lines, told.start_s)[1] <= -WORTH_S


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
    best = cheapest(left, plans, puzzle.supper_s)
    if best is None or cost_s(left, best, puzzle.supper_s) >= WORTH_S:
        best = better(best, left, puzzle.supper_s)
    opened = [task.key for tasks in lines.values() for task in tasks if task.open]
    aside = [task.key for task in left.tasks if task.key not in opened and task.start_s is None]
    starts = {key: best.start_s[key] for key in (*opened, *aside)}
    return Replanned(left, best, starts, cost_s(left, best, puzzle.supper_s))


def cheapest(left: Puzzle, plans: Sequence[Found], wanted_s: float) -> Found | None:
    """The cheapest of some plans; None where there is none."""
    return min(plans, key=lambda plan: cost_s(left, plan, wanted_s), default=None)


def better(shift: Found | None, left: Puzzle, wanted_s: float) -> Found:
    """Another order of things, where that saves minutes or there is no plan without it."""
    aim = Aim(effort=EFFORT)
    try:
        found = solve(left, aim)
    except (Infeasible, NotConverged):
        if shift is not None:
            return shift
        found = solve(lenient(left), aim)
    if shift is None:
        return found
    saved = cost_s(left, shift, wanted_s) - cost_s(left, found, wanted_s)
    return found if saved >= WORTH_S else shift


def cost_s(left: Puzzle, found: Found, wanted_s: float) -> float:
    """Seconds late and past limits, and what of the time in hand is gone [s]."""
    past = sum(one.seconds - one.most_s for one in past_limits(left, found))
    past += UNSAFE * sum(unsafe_s(left, found))
    late = max(0.0, found.supper_s - wanted_s)
    return past + late + max(0.0, min(found.supper_s, wanted_s) - left.supper_s)


def going_on(
    puzzle: Puzzle, lines: Mapping[str, Sequence[Stands]], told: Told, now_s: float
) -> Puzzle:
    """The puzzle of what is left."""
    tasks: list[Task] = []
    gaps: list[Gap] = []
    uses: list[Use] = []
    for line, states in lines.items():
        mine = {one.key: one for one in states}
        aside = aside_of(puzzle, line, mine, told.start_s, now_s)
        tasks += [task_now(puzzle, line, one, now_s) for one in states] + aside
        gaps += gaps_now(puzzle, states, {task.key for task in aside}, now_s)
        uses += uses_now(puzzle, line, states, told, now_s)
    tasks = with_hands(tasks, puzzle.pairs, now_s)
    known = {task.key for task in tasks}
    left = replace(
        puzzle,
        tasks=tuple(tasks),
        gaps=tuple(gaps),
        uses=tuple(uses),
        ends={line: states[-1].key for line, states in lines.items()},
        begins=tuple(key for key in puzzle.begins if key in known),
        now_s=now_s,
        supper_s=min(puzzle.supper_s, max(told.aim_s, soonest_end(lines))),
        quiet=tuple((begin, end) for begin, end in puzzle.quiet if begin > now_s),
    )
    root, _ = chained(left)
    first = {key for key, head in root.items() if key == head}
    return replace(left, tasks=tuple(told_where(task, told.start_s, first) for task in left.tasks))


def soonest_end(lines: Mapping[str, Sequence[Stands]]) -> float:
    """When the last line would be over if nothing waited for anything but its own [s]."""
    return max(states[-1].begin_s + states[-1].seconds for states in lines.values())


def told_where(task: Task, told: Mapping[str, float], first: set[str]) -> Task:
    """A task with the moment that the cook was told; of what follows at once, the first alone."""
    if task.start_s is not None or task.key not in first:
        return task
    return replace(task, told_s=told.get(task.key))


def known_task(puzzle: Puzzle, line: str, one: Stands) -> Task:
    """A task as it was planned; of a way back, one like it."""
    found = next((task for task in puzzle.tasks if task.key == one.key), None)
    return found or Task(one.key, line, one.seconds, one.who in ("hands", "gate", "fire"))


def task_now(puzzle: Puzzle, line: str, one: Stands, now_s: float) -> Task:
    """A task as it stands."""
    task = known_task(puzzle, line, one)
    if one.begun_s is None:
        return replace(task, seconds=one.seconds, free_s=min(task.free_s, one.seconds))
    if one.over_s is not None:
        over = replace(task, hands=False, free_s=0.0, tail_s=0.0)
        return replace(over, start_s=one.begun_s, seconds=one.over_s - one.begun_s)
    free = min(max(task.free_s, now_s - one.begun_s), one.seconds)
    return replace(task, start_s=one.begun_s, seconds=one.seconds, free_s=free)


def with_hands(tasks: Sequence[Task], pairs: int, now_s: float) -> list[Task]:
    """The tasks with no more of those that go on in hand than there are pairs: what is under two
    fires at once is so, whatever a plan says.
    """
    going = [task for task in tasks if task.start_s is not None and task.hands]
    held = sorted(going, key=lambda task: task.start_s or now_s)[:pairs]
    return [replace(t, hands=False) if t in going and t not in held else t for t in tasks]


def aside_of(
    puzzle: Puzzle,
    line: str,
    mine: Mapping[str, Stands],
    told: Mapping[str, float],
    now_s: float,
) -> list[Task]:
    """Work beside a line that is still to come. What was to have begun by now holds nobody up."""
    beside = [gap for gap in puzzle.gaps if gap.after in mine and mine[gap.after].open]
    keys = {gap.before for gap in beside if gap.before not in mine}
    coming = {key for key in keys if told.get(key, now_s) > now_s}
    return [task for task in puzzle.tasks if task.line == line and task.key in coming]


def gaps_now(puzzle: Puzzle, states: Sequence[Stands], aside: set[str], now_s: float) -> list[Gap]:
    """Gaps to what is still to begin. After what is over, a limit is kept as well as it can be."""
    mine = {one.key: one for one in states}
    limits = {(gap.before, gap.after): gap for gap in puzzle.gaps}
    found: list[Gap] = []
    for one, then in pairwise(states):
        gap = limits.pop((behind(one, then), then.key), Gap(one.key, then.key))
        if then.open:
            found.append(after_over(one, replace(gap, before=one.key), now_s))
    for gap in limits.values():
        before, after = mine.get(gap.before), mine.get(gap.after)
        if after is None or not after.open:
            continue
        if before is not None:
            found.append(after_over(before, gap, now_s))
        elif gap.before in aside:
            found.append(gap)
    return found


def behind(one: Stands, then: Stands) -> str:
    """What a plan has before a task: the check, where a way back lies between."""
    return one.key if "~" in then.key else one.key.partition("~")[0]


def after_over(before: Stands, gap: Gap, now_s: float) -> Gap:
    """A gap; behind what is over, at once, or past its limit, is as soon as can be."""
    if before.over_s is None or gap.most_s is None:
        return gap
    if gap.most_s > gap.least_s and before.over_s + gap.most_s > now_s:
        return gap
    return replace(gap, most_s=None, price=AT_ONCE)


def uses_now(
    puzzle: Puzzle,
    line: str,
    states: Sequence[Stands],
    told: Told,
    now_s: float,
) -> list[Use]:
    """What is taken, or to be taken; what was begun stays where it is, and what should be hot by
    now is.
    """
    mine = {one.key: one for one in states}
    found: list[Use] = []
    for use in puzzle.uses:
        if use.line != line or use.first not in mine:
            continue
        begun = not mine[use.first].open
        due = told.start_s.get(use.first, now_s + use.ready_s)
        warm = due - use.ready_s <= now_s
        ready = 0.0 if begun or warm else use.ready_s
        place = told.bodies[use.key] if begun else ""
        last = last_of(use, states, begun)
        found.append(replace(use, body=place, ready_s=ready, last=last))
    return found


def last_of(use: Use, states: Sequence[Stands], begun: bool) -> str:
    """The task after which a body is free: where food goes back into it, the last of that way."""
    keys = [one.key for one in states]
    last = keys.index(use.last)
    if not begun:
        return use.last
    back = [n for n in range(last, len(keys)) if "~" in keys[n]]
    if not back or not all("~" in key for key in keys[back[0] : back[-1] + 1]):
        return use.last
    near = all(states[n].who in ("hands", "gate") for n in range(last, back[0]))
    return keys[back[-1]] if near else use.last


def unsafe_s(left: Puzzle, found: Found) -> list[float]:
    """By how much limits of safety are broken [s]."""
    limits = [gap for gap in left.gaps if gap.most_s is not None and not gap.quality]
    over = [length_of(gap, left, found) - (gap.most_s or 0.0) for gap in limits]
    return [seconds for seconds in over if seconds > LEAST_S]


def lenient(puzzle: Puzzle) -> Puzzle:
    """The puzzle where limits of safety that run already are kept as well as they can be: the cook
    is told of each by its own dish.
    """
    begun = {task.key for task in puzzle.tasks if task.start_s is not None}
    gaps = [replace(gap, quality=True) if gap.before in begun else gap for gap in puzzle.gaps]
    return replace(puzzle, gaps=tuple(gaps))


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
    """The first task of each line that moved by more than a minute or two."""
    found: list[Move] = []
    for line, tasks in lines.items():
        for task in tasks:
            was, moved = before.get(task.key), after.get(task.key)
            if was is None or moved is None or abs(moved - was) < TOLD_S:
                continue
            found.append(Move(line, task.key, task.label, was, moved))
            break
    return tuple(found)


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
