"""The plan that the cook was told with the least delay: its order kept, and every limit. Nothing is
searched: what comes after what is as it was told, so that only later moments are left to find.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from bluekettle.core.schedule.puzzle import Body, Puzzle, Use, between_s, together
from bluekettle.core.schedule.solver import Found, busy_spans, chained, threads

TOUCH_S = 1e-3  # (numerical)
SUPPER = ""  # the node of supper


@dataclass(frozen=True)
class Edge:
    """`after` begins at least `least_s` after the begin of `before`."""

    before: str
    after: str
    least_s: float


def shifted(puzzle: Puzzle, told: Mapping[str, float], bodies: Mapping[str, str]) -> Found | None:
    """The told plan as late as it has to be; None where its order cannot keep every limit.

    told : start of every task that is still to begin [s]; bodies : where every use is put.
    """
    known = all(task.start_s is not None or task.key in told for task in puzzle.tasks)
    if not known or any(use.key not in bodies for use in puzzle.uses):
        return None
    root, offset = chained(puzzle)
    begun = {task.key: task.start_s for task in puzzle.tasks if task.start_s is not None}
    heads = dict.fromkeys(root.values())
    low = {head: begun[head] if head in begun else max(puzzle.now_s, told[head]) for head in heads}
    start = {task.key: begun.get(task.key, told.get(task.key, 0.0)) for task in puzzle.tasks}
    order = edges_of(puzzle, root, offset, start, bodies)
    low |= ready_by(puzzle, root, offset, low)
    low[SUPPER] = puzzle.supper_s
    at = relaxed(order, low, set(begun))
    if at is None:
        return None
    plan = {key: at[head] + offset[key] for key, head in root.items()}
    if not fits(puzzle, plan, bodies):
        return None
    return Found(plan, dict(bodies), at[SUPPER], 0.0, 0.0, False)


def relaxed(
    edges: Sequence[Edge], low: Mapping[str, float], fixed: set[str]
) -> dict[str, float] | None:
    """The earliest moments, none below `low`, that keep every edge; None where there are none."""
    at = dict(low)
    for _ in range(len(at) + 1):
        moved = False
        for edge in edges:
            least = at[edge.before] + edge.least_s
            if at[edge.after] >= least - TOUCH_S:
                continue
            if edge.after in fixed:
                return None
            at[edge.after], moved = least, True
        if not moved:
            return at
    return None  # they chase each other


def edges_of(
    puzzle: Puzzle,
    root: Mapping[str, str],
    offset: Mapping[str, float],
    start: Mapping[str, float],
    bodies: Mapping[str, str],
) -> list[Edge]:
    """What keeps the order of a plan and its limits, between what follows at once."""
    edges: list[Edge] = []
    begun = {task.key for task in puzzle.tasks if task.start_s is not None}

    def after(before: str, then: str, from_s: float) -> None:
        """`then` begins so long after the begin of `before`."""
        one, other = root[before], root[then]
        if one != other and not (one in begun and other in begun):
            edges.append(Edge(one, other, offset[before] + from_s - offset[then]))

    for gap in puzzle.gaps:
        seconds = puzzle.task(gap.before).seconds
        after(gap.before, gap.after, seconds + gap.least_s)
        if gap.most_s is not None:
            after(gap.after, gap.before, -(seconds + gap.most_s))
    for one, then in in_turn(puzzle, start, bodies):
        after(one.last, then.first, puzzle.task(one.last).seconds + between_s(one, then))
    edges += hands_in_turn(puzzle, root, offset, start, begun)
    for last in puzzle.ends.values():
        end_s = offset[last] + puzzle.task(last).seconds
        edges.append(Edge(root[last], SUPPER, end_s))
        edges.append(Edge(SUPPER, root[last], -(end_s + puzzle.table_s)))
    return edges


def hands_in_turn(
    puzzle: Puzzle,
    root: Mapping[str, str],
    offset: Mapping[str, float],
    start: Mapping[str, float],
    begun: set[str],
) -> list[Edge]:
    """Each pair of hands does what it was told in that order."""
    pair_of = threads(puzzle, dict(start))
    edges: list[Edge] = []
    spans = busy_spans(puzzle, root, offset)
    pairs = [pair_of[key] for key, *_ in spans]
    for pair in range(puzzle.pairs):
        mine = [span for span, own in zip(spans, pairs, strict=True) if own == pair]
        mine.sort(key=lambda span: start[span[0]])
        for (one, head, _, end_s), (_, other, begin_s, _) in pairwise(mine):
            both = head in begun and other in begun
            if head != other and not both and one:
                edges.append(Edge(head, other, end_s - begin_s))
    return edges


def in_turn(
    puzzle: Puzzle, start: Mapping[str, float], bodies: Mapping[str, str]
) -> list[tuple[Use, Use]]:
    """Uses of one body of which one comes after the other."""
    by_key = {body.key: body for body in puzzle.bodies}
    ordered = sorted(puzzle.uses, key=lambda use: start[use.first])
    found = []
    for place, one in enumerate(ordered):
        for then in ordered[place + 1 :]:
            if bodies[one.key] != bodies[then.key] or one.line == then.line:
                continue
            if not together(one, then, by_key[bodies[one.key]]):
                found.append((one, then))
    return found


def ready_by(
    puzzle: Puzzle,
    root: Mapping[str, str],
    offset: Mapping[str, float],
    low: Mapping[str, float],
) -> dict[str, float]:
    """What has to be hot first begins no sooner than it can be."""
    found: dict[str, float] = {}
    for use in puzzle.uses:
        head = root[use.first]
        if use.ready_s and puzzle.task(use.first).start_s is None:
            hot = puzzle.now_s + use.ready_s - offset[use.first]
            found[head] = max(found.get(head, low[head]), hot)
    return found


def fits(puzzle: Puzzle, plan: Mapping[str, float], bodies: Mapping[str, str]) -> bool:
    """Whether hands keep out of quiet spans, and shared bodies have the places."""
    for task in puzzle.tasks:
        if not task.hands or task.start_s is not None:
            continue
        begin, end = plan[task.key] + task.free_s, plan[task.key] + task.seconds
        if any(begin < until - TOUCH_S and end > since + TOUCH_S for since, until in puzzle.quiet):
            return False
    return all(has_places(puzzle, plan, bodies, body) for body in puzzle.bodies)


def has_places(
    puzzle: Puzzle, plan: Mapping[str, float], bodies: Mapping[str, str], body: Body
) -> bool:
    """Whether no more is in a body at a time than it has places."""
    spans = [
        (plan[use.first], plan[use.last] + puzzle.task(use.last).seconds)
        for use in puzzle.uses
        if bodies[use.key] == body.key
    ]
    return all(
        sum(begin <= at + TOUCH_S and end > at + TOUCH_S for begin, end in spans) <= body.places
        for at, _ in spans
    )
