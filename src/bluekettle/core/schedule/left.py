"""The puzzle of what is left of a meal: what has begun stands, everything else is open."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import pairwise

from bluekettle.core.schedule.puzzle import Gap, Puzzle, Task, Use, together
from bluekettle.core.schedule.solver import chained
from bluekettle.core.schedule.standing import Stands, Told

MINUTE_S = 60.0  # after which it is believed that hands are at what was told (estimated)
AWAKE_S = 1800.0  # that who is up in quiet hours stays up (estimated)
AT_ONCE = 30.0  # price of a minute that a begun line waits for hands (design 3's order)


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
        tasks += [task_now(puzzle, line, one, told.start_s, now_s) for one in states] + aside
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
        quiet=quiet_left(puzzle.quiet, tasks, now_s),
    )
    root, _ = chained(left)
    first = {key for key, head in root.items() if key == head}
    return replace(left, tasks=tuple(told_where(task, told.start_s, first) for task in left.tasks))


def quiet_left(
    quiet: Sequence[tuple[float, float]], tasks: Sequence[Task], now_s: float
) -> tuple[tuple[float, float], ...]:
    """What is left of the spans without hands. Who is at work in one of them is up for a while yet,
    and until what goes on in hand is over.
    """
    going = [t.start_s + t.seconds for t in tasks if t.hands and t.start_s is not None]
    up_s = max([now_s + AWAKE_S, *going])
    spans = [(begin if begin > now_s else max(begin, up_s), end) for begin, end in quiet]
    return tuple((begin, end) for begin, end in spans if end > begin)


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


def task_now(
    puzzle: Puzzle, line: str, one: Stands, told: Mapping[str, float], now_s: float
) -> Task:
    """A task as it stands."""
    task = known_task(puzzle, line, one)
    if one.begun_s is None:
        rest = rest_of(one, told.get(one.key), now_s)
        return replace(task, seconds=rest, free_s=min(task.free_s, rest))
    if one.over_s is not None:
        over = replace(task, hands=False, free_s=0.0, tail_s=0.0)
        return replace(over, start_s=one.begun_s, seconds=one.over_s - one.begun_s)
    free = min(max(task.free_s, now_s - one.begun_s), one.seconds)
    return replace(task, start_s=one.begun_s, seconds=one.seconds, free_s=free)


def rest_of(one: Stands, told_s: float | None, now_s: float) -> float:
    """Seconds that an open task takes yet: nobody is at it before the moment that was told."""
    if told_s is None:
        return one.seconds
    return max(one.seconds, one.whole_s - max(0.0, now_s - told_s))


def at_hand(left: Puzzle, lines: Mapping[str, Sequence[Stands]], told: Told) -> Puzzle:
    """The puzzle where acts that hands are at already go on: those that were told to begin a minute
    ago or longer, the first told first, as many as there are hands; none that waits for a place.
    """
    going = sum(task.hands and task.start_s is not None for task in left.tasks)
    acts = [one for states in lines.values() for one in current_acts(states)]
    acts = [one for one in acts if left.task(one.key).seconds <= one.whole_s - MINUTE_S]
    acts = [
        one for one in acts if left.task(one.key).hands and not waits_for_place(left, one, told)
    ]
    acts.sort(key=lambda one: told.start_s.get(one.key, left.now_s))
    now = {one.key for one in acts[: left.pairs - going]}
    tasks = [replace(t, start_s=left.now_s, told_s=None) if t.key in now else t for t in left.tasks]
    return replace(left, tasks=tuple(tasks))


def current_acts(states: Sequence[Stands]) -> list[Stands]:
    """The act that a line is at, where it is at one."""
    at = next((one for one in states if one.over_s is None), None)
    return [] if at is None or not at.open or at.who not in ("hands", "gate") else [at]


def waits_for_place(left: Puzzle, one: Stands, told: Told) -> bool:
    """Whether another is still in the body into which an act puts its food."""
    here = placed(left, told)
    bodies = {body.key: body for body in left.bodies}
    for then in (use for use in left.uses if use.first == one.key):
        for other in left.uses:
            if other.line == then.line or here.get(other.key, "") != here.get(then.key):
                continue
            begun = left.task(other.first).start_s is not None
            if begun and not together(other, then, bodies[here[then.key]]):
                return True
    return False


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
        if use.line != line or not {use.first, use.last} <= mine.keys():
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


def placed(left: Puzzle, told: Told) -> dict[str, str]:
    """Where every use is."""
    return {
        use.key: use.body or told.bodies[use.key]
        for use in left.uses
        if use.body or use.key in told.bodies
    }


def lenient(puzzle: Puzzle) -> Puzzle:
    """The puzzle where limits of safety that run already are kept as well as they can be: the cook
    is told of each by its own dish.
    """
    begun = {task.key for task in puzzle.tasks if task.start_s is not None}
    gaps = [replace(gap, quality=True) if gap.before in begun else gap for gap in puzzle.gaps]
    return replace(puzzle, gaps=tuple(gaps))
