"""The plan of a meal: several dishes and sides, one supper."""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

from bluekettle.core.chain import PlanForecast
from bluekettle.core.errors import Infeasible, NotConverged, Ranges
from bluekettle.core.schedule.explain import (
    MOST_PAIRS,
    Past,
    Reason,
    Repair,
    past_limits,
    reasons_of,
    repairs_of,
)
from bluekettle.core.schedule.lines import Line, Side, dish_line, side_line
from bluekettle.core.schedule.puzzle import Body, Puzzle, between_s
from bluekettle.core.schedule.simulate import LATE_S, Evenings, evenings_of
from bluekettle.core.schedule.solver import TICK_S, Aim, Found, earlier_uses, solve, threads, ticks
from bluekettle.core.tables import row, rows

MOST_LINES = 16  # dishes and sides (design: 10 dishes)
SIDE_MEMBERS = 128
ENOUGH_LATE = 0.1  # more evenings than that should not be late (design)
SEEN_S = 30.0  # a shorter wait is nobody's (design)
TAPS_S = 120.0  # that reading and tapping take over an evening: the played ones do not (estimated)
NOBODY = "nobody is at work when hands are needed"
MOST_EARLIER_S = 600.0  # that a plan aims before the wanted moment (design)


@dataclass(frozen=True)
class Dish:
    """A dish of a meal: its key, its name and its forecast."""

    key: str
    name: str
    forecast: PlanForecast


@dataclass(frozen=True)
class MealKitchen:
    """What there is to cook with: bodies, pairs of hands, and spans without any hands [s from
    serving].
    """

    bodies: tuple[Body, ...]
    pairs: int = 1
    quiet: tuple[tuple[float, float], ...] = ()


@dataclass(frozen=True)
class Meal:
    """What is to be on the table together."""

    dishes: tuple[Dish, ...] = ()
    sides: tuple[tuple[str, Side], ...] = ()


@dataclass(frozen=True)
class Planned:
    """One task of the plan: when it begins and ends [s from serving], by which pair of hands (None
    for a machine) and from when they are needed [s].
    """

    key: str
    line: str
    label: str
    who: str
    start_s: float
    end_s: float
    pair: int | None
    hands_s: float


@dataclass(frozen=True)
class Waited:
    """A wait of the plan: after which task, how the food waits, for how long and at most [s]."""

    after: str
    before: str
    line: str
    how: str
    start_s: float
    end_s: float
    most_s: float | None


@dataclass(frozen=True)
class Ahead:
    """An appliance that is switched on, or set anew, so that it is ready for a task [s]."""

    use: str
    line: str
    label: str
    body: str
    start_s: float
    ready_s: float


@dataclass(frozen=True)
class Taken:
    """A body that is taken [s], at its setting [°C]."""

    use: str
    line: str
    body: str
    start_s: float
    end_s: float
    temp_c: float | None


@dataclass(frozen=True)
class Schedule:
    """The plan of a meal; times in seconds from the wanted moment.

    supper_s : when everything is on the table. evenings : what 2,000 of them came to. gap : how far
    the plan may be from the best one [-]; proven where it is the best. past : limits of quality
    that it does not keep.
    """

    lines: tuple[Line, ...]
    puzzle: Puzzle
    found: Found
    tasks: tuple[Planned, ...]
    waits: tuple[Waited, ...]
    aheads: tuple[Ahead, ...]
    taken: tuple[Taken, ...]
    evenings: Evenings
    supper_s: float
    gap: float
    proven: bool
    past: tuple[Past, ...]


def body_of(key: str, kind: str, zones: int = 1) -> Body:
    """A body of this kind; zones : baskets or rings that have a setting of their own."""
    line = row("bodies", kind)
    places = int(line["places"])
    if zones > 1:
        return Body(key, kind, zones, True)
    return Body(key, kind, places, line["zoned"] == "yes")


def lines_of(meal: Meal) -> tuple[Line, ...]:
    """All dishes and sides as lines.

    Raises OutOfRange for a meal of nothing or of too much, or a key that is there twice.
    """
    keys = [dish.key for dish in meal.dishes] + [key for key, _ in meal.sides]
    ranges = Ranges()
    ranges.within("dishes", len(keys), 1, MOST_LINES, "dishes and sides")
    for key in {key for key in keys if keys.count(key) > 1}:
        ranges.add("dishes", key, "a key of its own for each")
    for place, (_, side) in enumerate(meal.sides):
        check_side(ranges, f"sides.{place}", side)
    ranges.close()
    dishes = [dish_line(dish.key, dish.name, dish.forecast) for dish in meal.dishes]
    return (*dishes, *(side_line(key, side, SIDE_MEMBERS) for key, side in meal.sides))


def check_side(ranges: Ranges, at: str, side: Side) -> None:
    """Note what is wrong with a side."""
    ranges.within(f"{at}.prepare_min", side.prepare_min, 0.0, 240.0, "min")
    ranges.within(f"{at}.cook_min", side.cook_min, 0.0, 480.0, "min")
    ranges.within(f"{at}.finish_min", side.finish_min, 0.5, 30.0, "min")
    ranges.within(f"{at}.holds_min", side.holds_min, 0.0, 720.0, "min")
    if side.body:
        ranges.one_of(f"{at}.body", side.body, tuple(rows("bodies")))
    if side.temp_c is not None:
        ranges.within(f"{at}.temp_c", side.temp_c, 30.0, 300.0, "°C")


def puzzle_of(lines: Sequence[Line], kitchen: MealKitchen, now_s: float) -> Puzzle:
    """The lines in this kitchen, from now on."""
    ranges = Ranges()
    ranges.within("hands", kitchen.pairs, 1, MOST_PAIRS, "pairs of hands")
    ranges.within("at", now_s, -14 * 86_400.0, 0.0, "s before serving")
    ranges.close()
    return Puzzle(
        tasks=tuple(task for line in lines for task in line.tasks),
        gaps=tuple(gap for line in lines for gap in line.gaps),
        uses=tuple(use for line in lines for use in line.uses),
        bodies=kitchen.bodies,
        ends={line.key: line.end for line in lines},
        begins=tuple(key for line in lines for key in line.begins),
        now_s=now_s,
        pairs=kitchen.pairs,
        quiet=merged(kitchen.quiet),
    )


def merged(spans: Sequence[tuple[float, float]]) -> tuple[tuple[float, float], ...]:
    """Spans in order, those that touch as one."""
    found: list[tuple[float, float]] = []
    for begin, end in sorted(spans):
        if found and begin <= found[-1][1]:
            found[-1] = (found[-1][0], max(found[-1][1], end))
        else:
            found.append((begin, end))
    return tuple(found)


def schedule(meal: Meal, kitchen: MealKitchen, at: float) -> Schedule:
    """Plan a meal.

    Parameters
    ----------
    meal : Meal
    kitchen : MealKitchen
    at : float
        Now, in seconds from the wanted moment of serving: negative before it.

    Raises
    ------
    OutOfRange
        A meal, kitchen or moment that cannot be planned with; all faults at once.
    Infeasible
        No plan keeps every limit, however late; conflicts name what clashes.
    NotConverged
        None was found in the time there is.
    """
    lines = lines_of(meal)
    puzzle = puzzle_of(lines, kitchen, at)
    return read_plan(lines, *in_time(awake(puzzle, lines), lines))


def first_schedule(meal: Meal, kitchen: MealKitchen, at: float) -> Schedule:
    """The plan before anything is put in hand for evenings that are late; as `schedule`."""
    lines = lines_of(meal)
    return read_plan(lines, *awake(puzzle_of(lines, kitchen, at), lines))


Tried = tuple[Puzzle, Found, Evenings]


def tried(puzzle: Puzzle, lines: Sequence[Line]) -> Tried:
    """A plan, and what many evenings of it come to."""
    found = solve(puzzle)
    return puzzle, found, evenings_of(puzzle, found, lines)


def awake(puzzle: Puzzle, lines: Sequence[Line]) -> Tried:
    """A plan; where there is none because nobody is at work, that is what clashes."""
    try:
        return tried(puzzle, lines)
    except Infeasible as error:
        if puzzle.quiet:
            with suppress(NotConverged):
                solve(replace(puzzle, quiet=()), Aim(limits_only=True))  # else it is not to blame
                raise Infeasible([NOBODY]) from error
        raise


def in_time(plan: Tried, lines: Sequence[Line]) -> Tried:
    """The plan with more in hand, where more than one evening in ten would be late: first before
    the fires, where it costs nothing; then everything a few minutes earlier.
    """
    for change in (buffered, earlier):
        if plan[2].late <= ENOUGH_LATE:
            break
        with suppress(Infeasible, NotConverged):
            other = change(plan, lines)
            if other[2].late < plan[2].late:
                plan = other
    return plan


def earlier(plan: Tried, lines: Sequence[Line]) -> Tried:
    """The plan so much earlier that nine evenings in ten are on time: as it is where the clock and
    quiet hours leave room for that, else searched for anew.
    """
    puzzle, found, evenings = plan
    more_s = TICK_S * ticks(max(0.0, evenings.high_s - LATE_S) + TAPS_S)
    more_s = min(more_s, puzzle.supper_s + MOST_EARLIER_S)
    if more_s <= 0.0:
        return plan
    sooner = replace(puzzle, supper_s=puzzle.supper_s - more_s)
    start_s = {key: begin - more_s for key, begin in found.start_s.items()}
    moved = replace(found, start_s=start_s, supper_s=found.supper_s - more_s)
    if not (found.supper_s <= puzzle.supper_s and has_room(sooner, moved)):
        return tried(sooner, lines)
    return sooner, moved, evenings_of(sooner, moved, lines)


def has_room(puzzle: Puzzle, found: Found) -> bool:
    """Whether the clock and the quiet hours leave room for a plan that obeys all else."""
    heated = [found.start_s[use.first] - use.ready_s for use in puzzle.uses]
    if min([*found.start_s.values(), *heated]) < puzzle.now_s:
        return False
    acts = [
        (
            found.start_s[task.key] + task.free_s,
            found.start_s[task.key] + task.seconds + task.tail_s,
        )
        for task in puzzle.tasks
        if task.hands
    ]
    return not any(
        begin < until and end > since for begin, end in acts for since, until in puzzle.quiet
    )


def buffered(plan: Tried, lines: Sequence[Line]) -> Tried:
    """A plan with buffers as large as what comes before them is late in nine evenings of ten, as
    far as the food bears it: what the last wait of a line does not bear is kept in the one before
    it, so that a bath that heats slowly is begun earlier.
    """
    puzzle, _, evenings = plan
    left: dict[str, float] = {}
    gaps = []
    for gap in reversed(puzzle.gaps):
        if gap.short:
            line = puzzle.task(gap.before).line
            wish = max(gap.wish_s, left.get(line, evenings.behind_s[gap.before]))
            bears = wish if gap.most_s is None else min(wish, gap.most_s)
            left[line] = wish - bears
            gap = replace(gap, wish_s=bears)
        gaps.append(gap)
    return tried(replace(puzzle, gaps=tuple(reversed(gaps))), lines)


def read_plan(lines: Sequence[Line], puzzle: Puzzle, found: Found, evenings: Evenings) -> Schedule:
    """What the solver found, as tasks, waits and what is switched on."""
    pair_of = threads(puzzle, found.start_s)
    tasks = [
        Planned(
            task.key,
            line.key,
            line.labels[task.key],
            line.who[task.key],
            found.start_s[task.key],
            found.start_s[task.key] + task.seconds,
            pair_of.get(task.key),
            found.start_s[task.key] + task.free_s,
        )
        for line in lines
        for task in line.tasks
    ]
    return Schedule(
        lines=tuple(lines),
        puzzle=puzzle,
        found=found,
        tasks=tuple(sorted(tasks, key=lambda one: (one.start_s, one.key))),
        waits=waits_in(lines, puzzle, found),
        aheads=aheads_in(lines, puzzle, found),
        taken=taken_in(puzzle, found),
        evenings=evenings,
        supper_s=found.supper_s,
        gap=found.gap,
        proven=found.proven,
        past=past_limits(puzzle, found),
    )


def waits_in(lines: Sequence[Line], puzzle: Puzzle, found: Found) -> tuple[Waited, ...]:
    """The waits that there are, half a minute or longer."""
    seconds = {task.key: task.seconds for task in puzzle.tasks}
    limits = {(gap.before, gap.after): gap.most_s for gap in puzzle.gaps}
    waits: list[Waited] = []
    for line in lines:
        for (before, after), how in line.waits.items():
            begin, end = found.start_s[before] + seconds[before], found.start_s[after]
            if end - begin >= SEEN_S and how != "beside":
                most = limits[before, after]
                waits.append(Waited(before, after, line.key, how, begin, end, most))
    return tuple(sorted(waits, key=lambda one: one.start_s))


def aheads_in(lines: Sequence[Line], puzzle: Puzzle, found: Found) -> tuple[Ahead, ...]:
    """What is switched on or set anew, and when: so that it is ready for its use; from a body that
    is hot already, no sooner than that is free.
    """
    labels = {key: label for line in lines for key, label in line.aheads.items()}
    before = earlier_uses(found, puzzle)
    ends = {task.key: found.start_s[task.key] + task.seconds for task in puzzle.tasks}
    aheads: list[Ahead] = []
    for use in puzzle.uses:
        if not use.ready_s:
            continue
        ready = found.start_s[use.first]
        begin = ready - use.ready_s
        last = max(before[use.key], key=lambda one: ends[one.last], default=None)
        if last is not None and ends[last.last] > begin:
            begin = max(ends[last.last], ready - between_s(last, use))
        if ready - begin >= SEEN_S:
            label = labels.get(use.first, f"Heat the {row('bodies', use.kind)['name']}")
            aheads.append(Ahead(use.key, use.line, label, found.body[use.key], begin, ready))
    return tuple(sorted(aheads, key=lambda one: one.start_s))


def taken_in(puzzle: Puzzle, found: Found) -> tuple[Taken, ...]:
    """Every use of every body."""
    ends = {task.key: found.start_s[task.key] + task.seconds for task in puzzle.tasks}
    taken = [
        Taken(u.key, u.line, found.body[u.key], found.start_s[u.first], ends[u.last], u.temp_c)
        for u in puzzle.uses
    ]
    return tuple(sorted(taken, key=lambda one: (one.body, one.start_s)))


def soonest(puzzle: Puzzle) -> float | None:
    """The earliest supper from now [s from the wanted one]; None where none was found."""
    try:
        return solve(puzzle, Aim(soonest=True)).supper_s
    except (Infeasible, NotConverged):
        return None


def latest_begin(puzzle: Puzzle) -> float | None:
    """The latest first act that still serves on time [s]; None where none does."""
    try:
        found = solve(puzzle, Aim(begin_late=True))
    except (Infeasible, NotConverged):
        return None
    return min(found.start_s[key] for key in puzzle.begins)


def trouble_of(plan: Schedule) -> tuple[tuple[Reason, ...], tuple[Repair, ...]]:
    """Why a plan is late or breaks a limit, and what would mend it; nothing where it does not."""
    wanted = replace(plan.puzzle, supper_s=0.0)
    if plan.supper_s <= 0.0 and not plan.past:
        return (), ()
    return reasons_of(wanted), repairs_of(wanted)
