"""Why a meal does not come out, as the smallest set of limits that clash, and what would mend it.

A limit is a reason where the meal comes out without it; a repair is one where it does with it.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from itertools import combinations

from bluekettle.core.errors import Infeasible, NotConverged
from bluekettle.core.schedule.puzzle import Body, Gap, Puzzle, Task, Use
from bluekettle.core.schedule.solver import TICK_S, Aim, Found, solve

MANY = 16  # as good as no limit: a meal has no more dishes and sides
LONG_AGO_S = -13 * 86_400.0  # longer than any dish takes (numerical)
MOST_PAIRS = 6  # of hands in one kitchen (design)
MOST_REASONS = 2  # up to which the smallest set is looked for (numerical)
EXPLAIN_EFFORT = 0.1  # deterministic units, for each search


@dataclass(frozen=True)
class Past:
    """A limit of quality that is not kept: between which tasks, how long and at most [s]. after is
    empty for what stands on the table.
    """

    line: str
    before: str
    after: str
    seconds: float
    most_s: float


@dataclass(frozen=True)
class Clash:
    """Two that want the same at the same time [s]: uses of a body, or acts of one pair of hands."""

    one: str
    other: str
    start_s: float
    end_s: float


@dataclass(frozen=True)
class Reason:
    """A limit that is in the way: `body` (of the kind `key`), `hands`, `quiet`, `clock`, or `dish`
    where a dish does not fit by itself. clashes : where it bites.
    """

    kind: str
    key: str
    clashes: tuple[Clash, ...] = ()


@dataclass(frozen=True)
class Repair:
    """What would mend it: `later` by so many seconds, or one more pair of `hands`."""

    kind: str
    seconds: float = 0.0
    pairs: int = 0


def past_limits(puzzle: Puzzle, found: Found) -> tuple[Past, ...]:
    """Every limit of quality that the plan breaks by more than its grid."""
    past: list[Past] = []
    for gap in puzzle.gaps:
        seconds = length_of(gap, puzzle, found)
        if gap.quality and gap.most_s is not None and seconds > gap.most_s + TICK_S:
            line = puzzle.task(gap.before).line
            past.append(Past(line, gap.before, gap.after, seconds, gap.most_s))
    for line, last in puzzle.ends.items():
        stood = found.supper_s - found.start_s[last] - puzzle.task(last).seconds
        if stood > puzzle.table_s + TICK_S:
            past.append(Past(line, last, "", stood, puzzle.table_s))
    return tuple(past)


def length_of(gap: Gap, puzzle: Puzzle, found: Found) -> float:
    """Seconds between two tasks of a plan."""
    end = found.start_s[gap.before] + puzzle.task(gap.before).seconds
    return found.start_s[gap.after] - end


def comes_out(puzzle: Puzzle) -> Found | None:
    """A plan that is on time and keeps every limit; None where none was found."""
    try:
        found = solve(puzzle, Aim(effort=EXPLAIN_EFFORT, limits_only=True))
    except (Infeasible, NotConverged):
        return None
    late = found.supper_s > puzzle.supper_s
    return None if late or past_limits(puzzle, found) else found


def limits_of(puzzle: Puzzle) -> list[tuple[str, str]]:
    """Every limit that can be taken away, as kind and key."""
    kinds = sorted({use.kind for use in puzzle.uses})
    limits = [("body", kind) for kind in kinds]
    limits.append(("hands", ""))
    if puzzle.quiet:
        limits.append(("quiet", ""))
    return [*limits, ("clock", "")]


def without(puzzle: Puzzle, limit: tuple[str, str]) -> Puzzle:
    """The puzzle without one of its limits.

    Raises KeyError for a limit that is none of `limits_of`.
    """
    kind, key = limit
    if kind == "body":
        more = tuple(Body(f"{key}+{n}", key) for n in range(MANY))
        return replace(puzzle, bodies=(*puzzle.bodies, *more))
    if kind == "hands":
        return replace(puzzle, pairs=MANY)
    if kind == "quiet":
        return replace(puzzle, quiet=())
    if kind == "clock":
        return replace(puzzle, now_s=LONG_AGO_S)
    raise KeyError(kind)


def reasons_of(puzzle: Puzzle) -> tuple[Reason, ...]:
    """The smallest set of limits without which the meal comes out, where one or two are enough;
    else a set of which none can be left out; `dish` alone where it does not come out without any.
    """
    limits = limits_of(puzzle)
    found = comes_out(freed_of(puzzle, limits))
    if found is None:
        return (Reason("dish", ""),)
    for many in range(1, MOST_REASONS + 1):
        for some in combinations(limits, many):
            freed = freed_of(puzzle, some)
            plan = comes_out(freed)
            if plan is not None:
                return tuple(reason_of(limit, puzzle, freed, plan) for limit in some)
    return needed_of(puzzle, limits, found)


def needed_of(
    puzzle: Puzzle, limits: Sequence[tuple[str, str]], found: Found
) -> tuple[Reason, ...]:
    """Of limits without which the meal comes out as `found`, those that cannot be left out (a
    deletion filter: Chinneck and Dravnieks, 1991).
    """
    needed = list(limits)
    for limit in limits:
        fewer = [one for one in needed if one != limit]
        other = comes_out(freed_of(puzzle, fewer))
        if other is not None:
            needed, found = fewer, other
    freed = freed_of(puzzle, needed)
    return tuple(reason_of(limit, puzzle, freed, found) for limit in needed)


def freed_of(puzzle: Puzzle, limits: Iterable[tuple[str, str]]) -> Puzzle:
    """The puzzle without some of its limits."""
    for limit in limits:
        puzzle = without(puzzle, limit)
    return puzzle


def reason_of(limit: tuple[str, str], puzzle: Puzzle, freed: Puzzle, found: Found) -> Reason:
    """A limit with where it bites: what overlaps once it is gone."""
    kind, key = limit
    if kind == "body":
        uses = [use for use in puzzle.uses if use.kind == key]
        spans = [(use.key, use.line, *span_of(use, freed, found)) for use in uses]
        return Reason(kind, key, clashes_in(spans))
    if kind == "hands":
        acts = [task for task in puzzle.tasks if task.hands]
        spans = [(task.key, task.line, *span_of(task, freed, found)) for task in acts]
        return Reason(kind, key, clashes_in(spans))
    return Reason(kind, key)


def span_of(one: Use | Task, puzzle: Puzzle, found: Found) -> tuple[float, float]:
    """From when to when something is taken [s]."""
    if isinstance(one, Task):
        begin = found.start_s[one.key]
        return begin + one.free_s, begin + one.seconds
    return found.start_s[one.first], found.start_s[one.last] + puzzle.task(one.last).seconds


MOST_CLASHES = 3  # that are told (design: plain words)


def clashes_in(spans: Sequence[tuple[str, str, float, float]]) -> tuple[Clash, ...]:
    """Where two of different lines overlap, the longest first."""
    found: list[Clash] = []
    for (one, line, begin, end), (other, its, start, stop) in combinations(spans, 2):
        both = min(end, stop) - max(begin, start)
        if line != its and both > 0.0:
            found.append(Clash(one, other, max(begin, start), min(end, stop)))
    found.sort(key=lambda clash: clash.start_s - clash.end_s)
    return tuple(found[:MOST_CLASHES])


LATER_S = (0.0, 600.0, 1800.0)  # tried beyond the earliest supper (numerical)
LATER_STEP_S = 300.0  # a clock's five minutes, so that what is told is what was tried (design)


def repairs_of(puzzle: Puzzle) -> tuple[Repair, ...]:
    """What would mend it: later, or another pair of hands; each was tried."""
    found: list[Repair] = []
    later = later_by(puzzle)
    if later is not None:
        found.append(Repair("later", seconds=later))
    more = puzzle.pairs + 1
    if more <= MOST_PAIRS and comes_out(replace(puzzle, pairs=more)) is not None:
        found.append(Repair("hands", pairs=more))
    return tuple(found)


def later_by(puzzle: Puzzle) -> float | None:
    """By how much later supper has to be for the meal to come out [s]; None where that mends
    nothing.
    """
    for aim in (
        Aim(soonest=True, effort=EXPLAIN_EFFORT),
        Aim(within=True, effort=EXPLAIN_EFFORT),  # behind a night, say
    ):
        with suppress(Infeasible, NotConverged):
            by = tried_from(puzzle, solve(puzzle, aim).supper_s)
            if by is not None:
                return by
    return None


def tried_from(puzzle: Puzzle, first_s: float) -> float | None:
    """The first supper at that moment or some minutes later for which the meal comes out: by how
    much later than wanted [s]; None where there is none.
    """
    for more in LATER_S:
        by = max(first_s - puzzle.supper_s, 0.0) + more
        supper = puzzle.supper_s + LATER_STEP_S * math.ceil(by / LATER_STEP_S)
        if supper > puzzle.supper_s and comes_out(replace(puzzle, supper_s=supper)) is not None:
            return supper - puzzle.supper_s
    return None
