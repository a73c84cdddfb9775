"""Many evenings of one plan: every task takes what a member of its ensemble takes, nobody begins
before the planned moment, and what is occupied is waited for.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.schedule.lines import Line
from bluekettle.core.schedule.puzzle import Puzzle, between_s, together
from bluekettle.core.schedule.solver import Found, earlier_uses, rigid

Array = NDArray[np.float64]

EVENINGS = 2000  # (design)
LATE_S = 300.0  # so long after the wanted moment nobody has noticed (design)
KEEPS_S = 1e6  # ahead of anything else (numerical)
SPARE_S = 900.0  # an act with so much time after it is done when hands are free (numerical)


@dataclass(frozen=True)
class Evenings:
    """What many evenings came to: share that is late [-]; supper's P10, P50, P90 [s from the wanted
    moment]; and by how much the end of a task is later than planned in nine of ten [s].
    """

    late: float
    low_s: float
    likely_s: float
    high_s: float
    behind_s: dict[str, float]


def evenings_of(
    puzzle: Puzzle, found: Found, lines: Sequence[Line], seed: int = 1, late_s: float = LATE_S
) -> Evenings:
    """Play a plan 2,000 times; each dish takes a member of its own ensemble every time."""
    ends = played(puzzle, found, drawn(lines, seed))
    supper = np.max([ends[last] for last in puzzle.ends.values()], axis=0)
    low, likely, high = np.quantile(supper, (0.1, 0.5, 0.9))
    behind = {
        task.key: float(np.quantile(ends[task.key], 0.9)) - found.start_s[task.key] - task.seconds
        for task in puzzle.tasks
    }
    late = float(np.mean(supper > late_s))
    return Evenings(late, float(low), float(likely), float(high), behind)


def drawn(lines: Sequence[Line], seed: int, evenings: int = EVENINGS) -> dict[str, Array]:
    """Seconds of every task, (evenings,): each line's tasks are those of one of its members."""
    rng = np.random.default_rng(seed)
    seconds: dict[str, Array] = {}
    for line in lines:
        weights = line.weights / line.weights.sum()
        members = rng.choice(line.weights.size, evenings, p=weights)
        seconds |= {key: each[members] for key, each in line.seconds.items()}
    return seconds


def played(puzzle: Puzzle, found: Found, seconds: dict[str, Array]) -> dict[str, Array]:
    """When every task ends, (evenings,) [s].

    Nothing begins before its planned moment. What it needs is waited for; of all that is ready the
    first takes the first free pair of hands, and what follows at once keeps them.
    """
    keys = [task.key for task in puzzle.tasks]
    length = np.column_stack([seconds[key] for key in keys])
    network = Network.of(puzzle, found, keys)
    evenings, every = length.shape[0], np.arange(length.shape[0])
    ready = np.tile(np.where(network.needs == 0, network.planned, np.inf), (evenings, 1))
    reached = np.tile(network.planned, (evenings, 1))
    needs = np.tile(network.needs, (evenings, 1))
    free = np.full((evenings, puzzle.pairs), -np.inf)
    taken = np.zeros(length.shape, dtype=np.int64)
    end = np.zeros_like(length)
    for _ in keys:
        # What follows at once goes first, else what is ready first.
        place = np.argmin(ready - KEEPS_S * (network.same >= 0)[None, :], axis=1)
        begin = reached[every, place]
        same = network.same[place]
        pair = np.where(same >= 0, taken[every, same], np.argmin(free, axis=1))
        taken[every, place] = pair
        holds = network.holds[place]
        begin = np.where(holds, np.maximum(begin, free[every, pair]), begin)
        done = begin + length[every, place]
        end[every, place] = done
        free[every, pair] = np.where(holds, done, free[every, pair])
        ready[every, place] = np.inf
        after = network.after_s[place]  # (evenings, tasks): inf where it does not follow
        follows = np.isfinite(after)
        reached = np.where(follows, np.maximum(reached, done[:, None] + after), reached)
        needs = needs - follows
        ready = np.where(follows & (needs == 0), reached, ready)
    return {key: end[:, n] for n, key in enumerate(keys)}


@dataclass(frozen=True)
class Network:
    """What waits for what. Of each task, (tasks,): its planned begin [s], how many others it waits
    for, whether it holds a pair of hands, and the one that it follows at once, with the same pair
    (-1 for none). after_s : (tasks, tasks), seconds from the end of the one to the other, infinite
    where it does not wait for it.
    """

    planned: Array
    needs: NDArray[np.int64]
    holds: NDArray[np.bool_]
    same: NDArray[np.int64]
    after_s: Array

    @classmethod
    def of(cls, puzzle: Puzzle, found: Found, keys: list[str]) -> Network:
        """The network of a plan."""
        place = {key: n for n, key in enumerate(keys)}
        after = np.full((len(keys), len(keys)), np.inf)
        for key, waits in waited_for(puzzle, found).items():
            if puzzle.task(key).start_s is not None:
                continue
            for before, more_s in waits:
                after[place[before], place[key]] = more_s
        spare = spare_of(puzzle, found)
        held = [task.hands and not task.free_s for task in puzzle.tasks]
        hands = [h and task.key not in spare for h, task in zip(held, puzzle.tasks, strict=True)]
        at_hand = [gap for gap in puzzle.gaps if rigid(gap) and hands[place[gap.before]]]
        at_once = {gap.after: place[gap.before] for gap in at_hand}
        return cls(
            np.array([found.start_s[key] for key in keys]),
            np.isfinite(after).sum(axis=0),
            np.array(hands),
            np.array([at_once.get(key, -1) for key in keys]),
            after,
        )


def spare_of(puzzle: Puzzle, found: Found) -> set[str]:
    """Acts that may as well be done at another moment: they hold nobody up."""
    slack: dict[str, float] = {}
    for gap in puzzle.gaps:
        end = found.start_s[gap.before] + puzzle.task(gap.before).seconds
        now = found.start_s[gap.after] - end
        slack[gap.before] = min(slack.get(gap.before, np.inf), now)
    return {key for key, seconds in slack.items() if seconds >= SPARE_S}


def waited_for(puzzle: Puzzle, found: Found) -> dict[str, list[tuple[str, float]]]:
    """What each task waits for: ends of others, and how much later it can begin [s]. What is kept
    in hand for a slow fire is no wait.
    """
    waits: dict[str, list[tuple[str, float]]] = {}
    for gap in puzzle.gaps:
        waits.setdefault(gap.after, []).append((gap.before, 0.0))
    bodies = {body.key: body for body in puzzle.bodies}
    earlier = earlier_uses(found, puzzle)
    for then in puzzle.uses:
        body = bodies[found.body[then.key]]
        for one in earlier[then.key]:
            if not together(one, then, body):
                waits.setdefault(then.first, []).append((one.last, between_s(one, then)))
    return waits
