"""Small puzzles whose answer is known without a search."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from bluekettle.core.errors import Infeasible, OutOfRange
from bluekettle.core.schedule import (
    Aim,
    Body,
    Gap,
    Line,
    Puzzle,
    Task,
    Use,
    evenings_of,
    latest_begin,
    solve,
    soonest,
)
from bluekettle.core.schedule.explain import comes_out, past_limits, reasons_of, repairs_of
from bluekettle.core.schedule.meal import aheads_in
from bluekettle.core.schedule.puzzle import between_s

MIN = 60.0
OVEN = (Body("oven", "oven", 2),)


def act(line, minutes, name="act"):
    return Task(f"{line}/{name}", line, minutes * MIN, hands=True)


def puzzle(tasks, gaps=(), uses=(), bodies=OVEN, **more):
    ends = {}
    for task in tasks:
        ends[task.line] = task.key
    told = {"now_s": -600.0 * MIN, "begins": tuple(task.key for task in tasks), **more}
    return Puzzle(tuple(tasks), tuple(gaps), tuple(uses), bodies, ends, **told)


def oven(line, temp_c, task, cold_min=15.0, shares=True):
    return Use(f"{line}/use", line, "oven", task, task, temp_c, shares, 0.0, cold_min * MIN)


def test_three_fires_and_one_pair_of_hands_stand_as_long_as_the_others_take():
    """10 min each: the first stands 20 min, the second 10, where 5 are borne: 20 min too many."""
    tasks = [act(name, 10.0) for name in "abc"]
    one = solve(puzzle(tasks))
    past = past_limits(puzzle(tasks), one)
    assert sorted(round(p.seconds / MIN) for p in past) == [10, 20]
    assert one.supper_s == 0.0
    three = puzzle(tasks, pairs=3)
    assert past_limits(three, solve(three)) == ()
    (reason,) = reasons_of(puzzle(tasks))
    assert (reason.kind, len(reason.clashes)) == ("hands", 3)
    assert [repair.kind for repair in repairs_of(puzzle(tasks))] == []  # two pairs are not enough
    two = puzzle(tasks[:2])
    assert [(r.kind, r.pairs) for r in repairs_of(two)] == [("hands", 2)]
    seven = puzzle([act(name, 10.0) for name in "abcdefg"], pairs=6)
    assert past_limits(seven, solve(seven)) != ()
    assert repairs_of(seven) == ()  # there is no room for a seventh


@pytest.mark.parametrize(
    ("before_c", "after_c", "minutes"),
    [
        (230.0, 150.0, (80.0 - 10.0) / 5.0),  # cools by 5 K a minute to within 10 K
        (150.0, 230.0, 15.0 * 80.0 / 210.0),  # of 15 min from 20 °C
        (200.0, 209.0, 0.0),
        (200.0, 211.0, 15.0 * 0.1),  # a dial turned up a little takes a tenth
    ],
)
def test_an_oven_takes_minutes_from_one_setting_to_another(before_c, after_c, minutes):
    one, then = oven("a", before_c, "a/cook", shares=False), oven("b", after_c, "b/cook")
    assert between_s(one, then) == pytest.approx(minutes * MIN)
    tasks = [Task("a/cook", "a", 30 * MIN), Task("b/cook", "b", 30 * MIN)]
    told = puzzle(tasks, uses=(one, then), table_s=200 * MIN)
    start = solve(told).start_s
    apart = abs(start["a/cook"] - start["b/cook"]) - 30 * MIN
    first = min(between_s(one, then), between_s(then, one))
    assert first - 1.0 <= apart <= first + 60.0


def test_an_oven_is_set_anew_as_late_as_it_can_be_and_once_it_is_free():
    """From 150 °C it takes 15 · 80/210 min to 230, and not before the first dish is out of it."""
    low, high = oven("a", 150.0, "a/cook", shares=False), oven("b", 230.0, "b/cook")
    uses = [replace(use, ready_s=15 * MIN) for use in (low, high)]
    tasks = [Task("a/cook", "a", 60 * MIN), act("a", 8.0, "rest"), Task("b/cook", "b", 10 * MIN)]
    told = puzzle(tasks, [Gap("a/cook", "a/rest")], uses=uses, table_s=30 * MIN)
    found = solve(told)
    first, then = aheads_in((), told, found)
    assert first.ready_s - first.start_s == 15 * MIN
    assert then.start_s == max(
        found.start_s["a/cook"] + 60 * MIN, then.ready_s - 15 * MIN * 80 / 210
    )
    assert then.ready_s == found.start_s["b/cook"] == -10 * MIN


def test_nothing_goes_into_an_oven_that_cannot_be_hot_yet():
    """Now is 20 min before supper; 15 to heat, 10 to roast: 5 min late, and not on time cold."""
    use = replace(oven("a", 230.0, "a/cook"), ready_s=15 * MIN)
    tasks = [Task("a/cook", "a", 10 * MIN)]
    found = solve(puzzle(tasks, uses=[use], now_s=-20 * MIN))
    assert (found.supper_s, found.start_s["a/cook"]) == (5 * MIN, -5 * MIN)


def test_two_trays_share_an_oven_at_nearly_one_setting_and_a_third_waits():
    tasks = [Task(f"{name}/cook", name, 30 * MIN) for name in "abc"]
    uses = [oven(name, temp, f"{name}/cook") for name, temp in (("a", 195), ("b", 200), ("c", 204))]
    told = puzzle(tasks, uses=uses, table_s=60 * MIN)
    begins = sorted(solve(told).start_s.values())
    assert begins[2] - begins[0] >= 30 * MIN
    assert begins[2] - begins[1] == 0.0
    two = puzzle(tasks[:2], uses=uses[:2])
    assert set(solve(two).start_s.values()) == {-30 * MIN}
    unlike = puzzle(tasks[:2], uses=[uses[0], replace(uses[1], temp_c=206.0)], table_s=60 * MIN)
    assert len(set(solve(unlike).start_s.values())) == 2
    ovens = (Body("upper", "oven", 1), Body("lower", "oven", 1), Body("old", "oven", 1))
    found = solve(puzzle(tasks, uses=uses, bodies=ovens))
    assert len(set(found.body.values())) == 3


def test_nobody_is_woken_and_machines_go_on():
    tasks = [act("a", 5.0, "salt"), Task("a/sit", "a", 400 * MIN), act("a", 5.0, "serve")]
    gaps = [Gap("a/salt", "a/sit"), Gap("a/sit", "a/serve", most_s=120 * MIN)]
    told = puzzle(tasks, gaps, quiet=((-500 * MIN, -60 * MIN),), now_s=-1000 * MIN)
    start = solve(told).start_s
    assert start["a/salt"] <= -505 * MIN + 1
    assert start["a/serve"] == -5 * MIN
    awake = solve(replace(told, quiet=())).start_s
    assert awake["a/salt"] == -410 * MIN


@pytest.mark.parametrize(
    ("quiet_min", "supper_min", "waits_min"),
    [
        ((-30, -10), 5, 0),  # 12 past its limit, or 5 late: a minute late weighs as two past
        ((-25, -10), 0, 15),  # 7 past, or 5 late
        ((-15, -5), 0, 10),  # 2 past, or 10 late
    ],
)
def test_a_limit_of_quality_is_broken_rather_than_late_by_more_than_half(
    quiet_min, supper_min, waits_min
):
    """Fire 10 min, then to the table 5, at most 8 between them, and nobody there meanwhile."""
    tasks = [act("a", 10.0, "fire"), act("a", 5.0, "serve")]
    gap = Gap("a/fire", "a/serve", 0.0, 8 * MIN, quality=True)
    told = puzzle(tasks, [gap], quiet=(tuple(MIN * m for m in quiet_min),))
    found = solve(told)
    waits = found.start_s["a/serve"] - found.start_s["a/fire"] - 10 * MIN
    assert (found.supper_s, waits) == (supper_min * MIN, waits_min * MIN)


def test_the_soonest_supper_comes_ten_minutes_later_for_twelve_past_a_limit():
    """Begun at -40 it is there at -5, and stood 12 past its limit; begun after them, at 5."""
    tasks = [act("a", 10.0, "fire"), act("a", 5.0, "serve")]
    gap = Gap("a/fire", "a/serve", 0.0, 8 * MIN, quality=True)
    quiet = ((-30 * MIN, -10 * MIN),)
    assert soonest(puzzle(tasks, [gap], quiet=quiet, now_s=-40 * MIN)) == 5 * MIN


@settings(max_examples=40, deadline=None)
@given(most=st.integers(60, 400), needs=st.integers(0, 460), odd=st.integers(0, 59))
def test_a_limit_of_safety_is_never_broken_by_a_second(most, needs, odd):
    """A pot that is done while nobody is there for so long: kept, or there is no plan. Within a
    minute of its limit the grid may say no where there were one.
    """
    pot = Task("a/pot", "a", 917.0, start_s=-3000.0 - odd)
    done = pot.start_s + pot.seconds
    tasks = [pot, Task("a/lift", "a", 41.0, hands=True)]
    gap = Gap("a/pot", "a/lift", 0.0, float(most))
    told = puzzle(tasks, [gap], quiet=((done - 1.0, done + needs),), table_s=200 * MIN)
    try:
        start = solve(told).start_s
    except Infeasible:
        assert needs > most - 60
        return
    assert start["a/pot"] == pot.start_s
    assert needs <= start["a/lift"] - done <= most


def test_an_oven_that_two_share_is_waited_for_until_the_last_is_out():
    """A braise of two hours, bread for ten minutes beside it, then a hot tray: where the braise is
    late, so is the tray.
    """
    tasks = [
        Task("a/cook", "a", 120 * MIN),
        Task("b/cook", "b", 10 * MIN),
        Task("c/cook", "c", 10 * MIN),
    ]
    uses = [oven("a", 150.0, "a/cook"), oven("b", 155.0, "b/cook"), oven("c", 230.0, "c/cook")]
    told = puzzle(tasks, uses=uses, table_s=200 * MIN)
    start = {"a/cook": -150 * MIN, "b/cook": -90 * MIN, "c/cook": -10 * MIN}
    found = replace(solve(told), start_s=start)
    late = np.full(10, 140 * MIN)
    seconds = {"a": late, "b": np.full(10, 10 * MIN), "c": np.full(10, 10 * MIN)}
    lines = [line_of(k, [t], {t.key: seconds[k]}) for k, t in zip("abc", tasks, strict=True)]
    # Out of the oven at -10, then it heats on, then ten minutes.
    heats_s = between_s(uses[0], uses[2])
    assert evenings_of(told, found, lines).likely_s == pytest.approx(heats_s)
    ready = tuple(replace(use, ready_s=25 * MIN) for use in uses)
    *_, tray = aheads_in((), replace(told, uses=ready), found)
    assert tray.start_s == -10 * MIN - heats_s  # not before the braise is out at -30


def test_the_soonest_supper_and_the_latest_begin_are_what_the_work_takes():
    tasks = [act("a", 20.0), act("b", 15.0)]
    told = puzzle(tasks, table_s=60 * MIN, now_s=-12 * MIN)
    assert soonest(told) == pytest.approx(23 * MIN)  # 35 min of work, 12 of them before zero
    assert solve(told).supper_s == pytest.approx(23 * MIN)
    (later,) = [r for r in repairs_of(told) if r.kind == "later"]
    assert later.seconds == 25 * MIN  # on the clock's five minutes
    assert comes_out(replace(told, supper_s=later.seconds)) is not None
    assert [r.kind for r in reasons_of(told)] == ["clock"]
    assert latest_begin(replace(told, now_s=-600 * MIN)) == pytest.approx(-35 * MIN)
    assert latest_begin(told) is None


def test_a_wait_in_hand_is_kept_where_it_costs_nothing():
    tasks = [Task("a/pot", "a", 60 * MIN), act("a", 10.0, "fire")]
    gap = Gap("a/pot", "a/fire", 0.0, 40 * MIN, wish_s=12 * MIN, price=2.0, short=8.0)
    start = solve(puzzle(tasks, [gap])).start_s
    assert start["a/fire"] - start["a/pot"] == 72 * MIN
    soon = solve(puzzle(tasks, [gap], now_s=-75 * MIN)).start_s
    assert soon["a/fire"] - soon["a/pot"] == 65 * MIN  # on time comes first


def test_what_was_told_and_what_is_done_stays():
    done = replace(act("a", 20.0, "salt"), start_s=-100 * MIN)
    told = replace(act("b", 5.0, "cut"), told_s=-55 * MIN)
    tasks = [done, act("a", 5.0, "serve"), told, act("b", 5.0, "serve")]
    long = {"most_s": None, "price": 0.1}
    gaps = [Gap("a/salt", "a/serve", **long), Gap("b/cut", "b/serve", **long)]
    start = solve(puzzle(tasks, gaps, now_s=-60 * MIN, table_s=90 * MIN)).start_s
    assert start["a/salt"] == -100 * MIN
    assert start["a/serve"] >= -60 * MIN
    assert start["b/cut"] == -55 * MIN
    free = [replace(task, told_s=None) for task in tasks]
    assert solve(puzzle(free, gaps, now_s=-60 * MIN, table_s=90 * MIN)).start_s["b/cut"] > -30 * MIN


def test_a_puzzle_that_does_not_hang_together_names_every_fault():
    tasks = [act("a", 5.0), act("a", 5.0)]
    wrong = puzzle(tasks, [Gap("a/act", "nowhere"), Gap("a/act", "a/act", 9.0, 3.0)], pairs=0)
    with pytest.raises(OutOfRange) as caught:
        solve(wrong)
    fields = [fault.field for fault in caught.value.faults]
    assert sorted(set(fields)) == ["gaps", "hands", "tasks"]
    with pytest.raises(Infeasible, match="no appliance: smoker"):
        solve(puzzle([act("a", 5.0)], uses=[Use("u", "a", "smoker", "a/act", "a/act")]))


@settings(max_examples=25, deadline=None)
@given(
    minutes=st.lists(st.integers(2, 30), min_size=2, max_size=5),
    pairs=st.integers(1, 3),
    ahead=st.integers(10, 90),
)
def test_no_plan_beats_the_work_and_none_wastes_it(minutes, pairs, ahead):
    """Acts alone: late by what the hands cannot do in the time, as scheduling theory has it."""
    tasks = [act(f"d{n}", float(m)) for n, m in enumerate(minutes)]
    told = puzzle(tasks, pairs=pairs, now_s=-ahead * MIN, table_s=500 * MIN)
    late = solve(told).supper_s / MIN
    least = max(max(minutes), sum(minutes) / pairs) - ahead
    assert late >= least - 0.5
    # A list in any order is at most (2 - 1/m) of the best (Graham 1969).
    assert late + ahead <= (2.0 - 1.0 / pairs) * (least + ahead) + 1.0 or late == 0.0
    again = solve(told)
    assert again == solve(told)


def test_what_may_be_late_and_past_limits_together_bounds_the_search():
    """Two acts of 30 min in the next 20: the second is 40 min late, and nothing is past a limit."""
    tasks = [act("a", 30.0), act("b", 30.0)]
    told = puzzle(tasks, now_s=-20 * MIN, table_s=60 * MIN)
    assert solve(told, Aim(most_s=40 * MIN)).supper_s == 40 * MIN
    with pytest.raises(Infeasible):
        solve(told, Aim(most_s=39 * MIN))
    cold = replace(told, table_s=20 * MIN)  # the first stands 10 min too long
    assert solve(cold, Aim(most_s=50 * MIN)).supper_s == 40 * MIN
    with pytest.raises(Infeasible):
        solve(cold, Aim(most_s=49 * MIN))


def line_of(key, tasks, seconds, gaps=()):
    members = len(next(iter(seconds.values())))
    return Line(
        key,
        key,
        tuple(tasks),
        {},
        {},
        tuple(gaps),
        {},
        (),
        tasks[-1].key,
        (tasks[0].key,),
        seconds,
        np.full(members, 1.0 / members),
        {},
    )


def test_the_chance_of_being_late_is_the_share_of_evenings_that_are():
    """One act that takes 10 min in seven of ten evenings and 20 in three; ten minutes late."""
    tasks = [act("a", 10.0)]
    seconds = {"a/act": np.repeat([10 * MIN, 20 * MIN], [7, 3])}
    told = puzzle(tasks)
    found = solve(told)
    evenings = evenings_of(told, found, [line_of("a", tasks, seconds)])
    assert evenings.late == pytest.approx(0.3, abs=0.03)
    assert (evenings.low_s, evenings.high_s) == (0.0, 10 * MIN)
    wait = [Task("a/pot", "a", 60 * MIN), act("a", 10.0, "fire")]
    gap = Gap("a/pot", "a/fire", 0.0, 40 * MIN, wish_s=12 * MIN, price=2.0, short=8.0)
    slow = {"a/pot": np.repeat([60 * MIN, 72 * MIN], [5, 5]), "a/fire": np.full(10, 10 * MIN)}
    kept = puzzle(wait, [gap])
    line = line_of("a", wait, slow, [gap])
    assert evenings_of(kept, solve(kept), [line]).late == 0.0
    tight = puzzle(wait, [replace(gap, wish_s=0.0, short=0.0)])
    assert evenings_of(tight, solve(tight), [line]).late == pytest.approx(0.5, abs=0.04)


def test_hands_are_waited_for_in_the_evenings_too():
    """Two acts of 10 min by one pair, the first twice as slow in half of the evenings."""
    tasks = [act("a", 10.0), act("b", 10.0)]
    seconds = {"a": np.repeat([10 * MIN, 20 * MIN], [5, 5]), "b": np.full(10, 10 * MIN)}
    lines = [
        line_of(key, [task], {task.key: seconds[key]})
        for key, task in zip("ab", tasks, strict=True)
    ]
    one = puzzle(tasks, table_s=60 * MIN)
    assert evenings_of(one, solve(one), lines).late == pytest.approx(0.5, abs=0.04)
    two = puzzle(tasks, pairs=2)
    assert evenings_of(two, solve(two), lines).late == pytest.approx(0.5, abs=0.04)
