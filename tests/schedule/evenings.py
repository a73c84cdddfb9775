"""One evening at a time, minute by minute as a person would tell it: to hold against the chance
that a plan prints. Shares no code with the simulation of the core.
"""

import random

SPARE_MIN = 15.0


def share_late(plan, evenings=600, seed=7):
    """Share of evenings in which supper is more than five minutes after the wanted moment."""
    rng = random.Random(seed)
    late = 0
    for _ in range(evenings):
        takes = {}
        for line in plan.lines:
            (member,) = rng.choices(range(len(line.weights)), weights=list(line.weights))
            takes |= {key: float(seconds[member]) for key, seconds in line.seconds.items()}
        late += supper_of(plan, takes) > 300.0
    return late / evenings


def supper_of(plan, takes):
    """When everything is on the table [s], by what each task takes."""
    tasks = {task.key: task for task in plan.tasks}
    ends, waiting = {}, set(tasks)
    needs = {key: [] for key in tasks}
    for gap in plan.puzzle.gaps:
        needs[gap.after].append(gap.before)
    pairs = [float("-inf")] * plan.puzzle.pairs
    hands_of = {}
    uses = sorted(plan.puzzle.uses, key=lambda use: tasks[use.first].start_s)
    blocked = {use.first: earlier_in_body(use, uses, plan, tasks) for use in uses}
    while waiting:
        best = None
        for key in waiting:
            if any(one in waiting for one in needs[key]):
                continue
            if any(one in waiting for one, _ in blocked.get(key, ())):
                continue
            begin = max([tasks[key].start_s, *(ends[one] for one in needs[key])])
            begin = max([begin, *(ends[one] + more for one, more in blocked.get(key, ()))])
            before = at_once(plan, key, hands_of)
            order = (before is None, begin, tasks[key].start_s)
            if best is None or order < best[0]:
                best = (order, key, begin, before)
        _, key, begin, before = best
        if takes_hands(plan, tasks[key], tasks):
            pair = hands_of[before] if before is not None else pairs.index(min(pairs))
            begin = max(begin, pairs[pair])
            pairs[pair] = begin + takes[key]
            hands_of[key] = pair
        ends[key] = begin + takes[key]
        waiting.discard(key)
    return max(ends[last] for last in plan.puzzle.ends.values())


def at_once(plan, key, hands_of):
    """The act that this one follows without a pause, by the same hands."""
    for gap in plan.puzzle.gaps:
        if gap.after == key and gap.most_s == 0.0 and gap.before in hands_of:
            return gap.before
    return None


def takes_hands(plan, task, tasks):
    """Whether an act holds hands in the order of the plan: not where there is time for it later,
    nor at a fire that is looked into at its end only."""
    if task.pair is None or task.hands_s > task.start_s:
        return False
    after = [tasks[gap.after].start_s for gap in plan.puzzle.gaps if gap.before == task.key]
    return not after or min(after) - task.end_s < 60.0 * SPARE_MIN


def earlier_in_body(use, uses, plan, tasks):
    """What has to be out of the same appliance before, and how long that takes to be ready."""
    body = plan.found.body[use.key]
    zoned = next(one.zoned for one in plan.puzzle.bodies if one.key == body)
    found = []
    for other in uses:
        if other.line == use.line or plan.found.body[other.key] != body or zoned:
            continue
        if tasks[other.last].start_s <= tasks[use.first].start_s and not alike(other, use):
            found.append((other.last, change_s(other, use)))
    return found


def alike(one, then):
    both = one.shares and then.shares and None not in (one.temp_c, then.temp_c)
    return both and abs(one.temp_c - then.temp_c) <= 10.0


def change_s(one, then):
    if None in (one.temp_c, then.temp_c):
        return 60.0
    if one.temp_c > then.temp_c + 10.0:
        return 12.0 * (one.temp_c - then.temp_c - 10.0)
    if abs(one.temp_c - then.temp_c) <= 10.0:
        return 0.0
    return then.cold_s * max(0.1, (then.temp_c - one.temp_c) / (then.temp_c - 20.0))
