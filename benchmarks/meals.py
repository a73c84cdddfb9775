"""The plan of a meal against a greedy one, on the meals that ship. Run: make bench.

Greedy: dish by dish, the longest first, backwards from supper; every act as late as hands and
appliances that are not taken yet allow. Alone: each dish as if there were no other.
"""

from __future__ import annotations

import statistics
import sys
import time
from collections.abc import Sequence
from dataclasses import replace
from itertools import combinations, pairwise
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))

from tests.schedule.meals import MEALS, made

from bluekettle.core import schedule as meals
from bluekettle.core.errors import CoreError
from bluekettle.core.schedule.puzzle import Puzzle, between_s, together
from bluekettle.core.schedule.solver import chained

STEP_S = 30.0
MOST_BACK_S = 5400.0
TRIES = 3


def blocks_of(puzzle: Puzzle, line: str) -> list[list[str]]:
    """Tasks of a line that follow each other at once, in order."""
    root, offset = chained(puzzle)
    heads: dict[str, list[str]] = {}
    for task in puzzle.tasks:
        if task.line == line:
            heads.setdefault(root[task.key], []).append(task.key)
    return [sorted(keys, key=lambda key: offset[key]) for keys in heads.values()]


def greedy(puzzle: Puzzle, mind: bool = True) -> dict[str, float]:
    """Start of every task [s]; mind : whether hands and appliances of other dishes count."""
    _, offset = chained(puzzle)
    start: dict[str, float] = {}

    def length(line: str) -> float:
        return sum(task.seconds for task in puzzle.tasks if task.line == line)

    for line in sorted(puzzle.ends, key=length, reverse=True):
        left = blocks_of(puzzle, line)
        placed: set[str] = set()
        while left:
            ready = [b for b in left if all(g.after in placed for g in gaps_after(puzzle, b))]
            block = ready[0]
            left.remove(block)
            at = soonest = latest(puzzle, block, start, offset)
            while mind and clashes(puzzle, block, at, start, offset):
                at -= STEP_S
                if at < soonest - MOST_BACK_S:  # nowhere is room: it stays where it clashes
                    at = soonest
                    break
            for key in block:
                start[key] = at + offset[key]
            placed |= set(block)
    return start


def gaps_after(puzzle: Puzzle, block: list[str]) -> list[meals.Gap]:
    """Gaps from a block to others."""
    return [gap for gap in puzzle.gaps if gap.before in block and gap.after not in block]


def latest(
    puzzle: Puzzle, block: list[str], start: dict[str, float], offset: dict[str, float]
) -> float:
    """The latest begin of a block before what follows it."""
    ends = [0.0 - offset[block[-1]] - puzzle.task(block[-1]).seconds]
    for gap in gaps_after(puzzle, block):
        end = offset[gap.before] + puzzle.task(gap.before).seconds
        ends.append(start[gap.after] - gap.least_s - end)
    return min(ends)


def clashes(
    puzzle: Puzzle,
    block: list[str],
    at: float,
    start: dict[str, float],
    offset: dict[str, float],
) -> bool:
    """Whether hands or an appliance are taken already."""
    trial = {**start, **{key: at + offset[key] for key in block}}
    mine = [span for span in hands_in(puzzle, trial) if span[0] in block]
    others = [span for span in hands_in(puzzle, start) if span[0] not in block]
    for _, begin, end in mine:
        beside = [o for o in others if o[1] < end - 1.0 and o[2] > begin + 1.0]
        if len(beside) >= puzzle.pairs:
            return True
    return body_minutes(puzzle, trial) > body_minutes(puzzle, start) + 0.01


def hands_in(puzzle: Puzzle, start: dict[str, float]) -> list[tuple[str, float, float]]:
    """Spans of hands of the tasks that are placed."""
    return [
        (task.key, start[task.key] + task.free_s, start[task.key] + task.seconds)
        for task in puzzle.tasks
        if task.hands and task.key in start
    ]


def overlap_minutes(puzzle: Puzzle, start: dict[str, float]) -> float:
    """Minutes in which more hands are wanted than there are."""
    spans = hands_in(puzzle, start)
    moments = sorted({moment for _, begin, end in spans for moment in (begin, end)})
    over = 0.0
    for begin, end in pairwise(moments):
        wanted = sum(1 for _, a, b in spans if a <= begin and b >= end)
        over += max(0, wanted - puzzle.pairs) * (end - begin)
    return over / 60.0


def body_minutes(puzzle: Puzzle, start: dict[str, float]) -> float:
    """Minutes in which an appliance is wanted twice, or is not ready."""
    over = 0.0
    uses = [use for use in puzzle.uses if use.first in start and use.last in start]
    for one, other in combinations(uses, 2):
        bodies = [body for body in puzzle.bodies if body.kind == one.kind]
        if one.kind != other.kind or one.line == other.line or len(bodies) > 1:
            continue
        if together(one, other, bodies[0]):
            continue
        first, then = sorted((one, other), key=lambda use: start[use.first])
        free = start[first.last] + puzzle.task(first.last).seconds + between_s(first, then)
        over += max(0.0, free - start[then.first])
    return over / 60.0


def held_minutes(puzzle: Puzzle, start: dict[str, float]) -> float:
    """Minutes past limits, on the tray, on the table and before a fire."""
    over = 0.0
    for gap in puzzle.gaps:
        if gap.most_s is not None:
            end = start[gap.before] + puzzle.task(gap.before).seconds
            over += max(0.0, start[gap.after] - end - gap.most_s - STEP_S)
    supper = max(start[key] + puzzle.task(key).seconds for key in puzzle.ends.values())
    for key in puzzle.ends.values():
        over += max(0.0, supper - start[key] - puzzle.task(key).seconds - puzzle.table_s)
    return over / 60.0


def late_minutes(puzzle: Puzzle, start: dict[str, float]) -> float:
    """By how much it would be late, begun at the first act that can be."""
    first = min(start[key] for key in puzzle.begins)
    return max(0.0, puzzle.now_s - first) / 60.0


def report(keys: Sequence[str] = tuple(MEALS)) -> None:
    """A line for each meal: size, time of the search, and what is broken by each way."""
    print(
        "meal                  tasks  solve_s  gap   late, past limits, hands, bodies twice [min]"
    )
    print(
        "                                          planned           greedy            each alone"
    )
    sums = {"planned": [0.0] * 4, "greedy": [0.0] * 4, "alone": [0.0] * 4}
    for key in keys:
        meal, kitchen, now_s = made(key)
        puzzle = meals.puzzle_of(meals.lines_of(meal), kitchen, now_s)
        try:
            times = []
            for _ in range(TRIES):
                begun = time.perf_counter()
                found = meals.solve(puzzle)
                times.append(time.perf_counter() - begun)
        except CoreError as error:
            print(f"{key:20}  {len(puzzle.tasks):5}  {error}")
            continue
        ways = {
            "planned": found.start_s,
            "greedy": greedy(puzzle),
            "alone": greedy(puzzle, mind=False),
        }
        told = []
        for name, start in ways.items():
            late = found.supper_s / 60.0 if name == "planned" else late_minutes(puzzle, start)
            base = replace(puzzle, supper_s=found.supper_s) if name == "planned" else puzzle
            four = [
                late,
                held_minutes(base, start),
                overlap_minutes(base, start),
                body_minutes(base, start),
            ]
            sums[name] = [a + b for a, b in zip(sums[name], four, strict=True)]
            told.append(" ".join(f"{one:4.0f}" for one in four))
        seconds = statistics.median(times)
        print(
            f"{key:20}  {len(puzzle.tasks):5}  {seconds:7.2f}  {found.gap:4.2f}  "
            + "   ".join(told)
        )
    print(
        "in all                                    "
        + "   ".join(" ".join(f"{one:4.0f}" for one in four) for four in sums.values())
    )


if __name__ == "__main__":
    report(sys.argv[1:] or tuple(MEALS))
