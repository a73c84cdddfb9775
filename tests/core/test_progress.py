"""What passes when nobody taps, and what a tap is worth."""

from dataclasses import replace

import pytest
from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule

from bluekettle.core.stages import Event, Evidence, Leg, StepPlan, follow, plans_with
from bluekettle.core.stages.progress import Fold, gate_verdict
from bluekettle.core.stages.told import FAILED, OPEN, PASSED, SKIPPED

WANTS = Evidence(tender=True, usual_c=63.0)
PLANS = [
    StepPlan("season", "hands", "", 60, 120, 200),
    StepPlan("come_up", "machine", "", 500, 600, 800),
    StepPlan("hold", "machine", "", 1800, 1800, 1800),
    StepPlan("open", "hands", "", 20, 30, 50),
    StepPlan("check", "gate", "", 40, 60, 90, evidence=WANTS),
    StepPlan("brush", "hands", "", 40, 60, 90, approach=True),
    StepPlan("under", "hands", "", 10, 15, 20, approach=True),
    StepPlan("finish", "fire", "", 120, 120, 120, fire="broiler"),
    StepPlan("coat-2", "hands", "", 40, 60, 90, fire="broiler", act="coat", approach=True),
    StepPlan("finish-2", "fire", "", 100, 180, 300, fire="broiler"),
    StepPlan("out", "hands", "", 10, 15, 20),
    StepPlan("again", "gate", "", 20, 30, 50, evidence=Evidence(tender=False, usual_c=63.0)),
    StepPlan("rest", "machine", "", 180, 180, 180),
    StepPlan("serve", "hands", "", 40, 60, 90),
    StepPlan("preheat", "machine", "", 300, 360, 430, beside=True, before="under"),
]
KEYS = [plan.key for plan in PLANS if not plan.beside]


def way_back(gate, heat="pressure"):
    """A short way back from a gate, its own gate wanting the same."""
    number = 1 + (int(gate.split("~")[1].split(".")[0]) if "~" in gate else 0)
    stem = f"{gate.partition('~')[0]}~{number}"
    wants = WANTS if gate.startswith("check") else PLANS[11].evidence
    return Leg(
        heat,
        "Lid on",
        (
            StepPlan(f"{stem}.load", "hands", "", 20, 30, 50),
            StepPlan(f"{stem}.hold", "machine", "", 600, 600, 600),
            StepPlan(f"{stem}.check", "gate", "", 20, 30, 50, evidence=wants),
        ),
    )


def done(seq, step, at_s, **more):
    return Event(seq, "done", at_s, step, **more)


def good_check(seq, at_s, step="check"):
    return done(seq, step, at_s, tender=True, temp_c=80.0)


def bad_check(seq, at_s, step="check", temp_c=50.0, tender=False, legs=None):
    legs = (way_back(step),) if legs is None else legs
    return done(seq, step, at_s, tender=tender, temp_c=temp_c, legs=legs)


def state(progress, key):
    return next(s for s in progress.steps if s.plan.key == key)


def to_check(at_s=3000.0):
    """All told up to the open pot."""
    steps = (("season", 100.0), ("come_up", 700.0), ("hold", 2500.0), ("open", at_s))
    return [done(i + 1, step, at) for i, (step, at) in enumerate(steps)]


def to_fire():
    """All told up to the tray under the broiler at 3230 s."""
    return [*to_check(), good_check(5, 3100.0), done(6, "brush", 3200.0), done(7, "under", 3230.0)]


def test_a_hand_step_stays_current_for_hours():
    progress = follow(PLANS, [], 20_000.0)
    assert progress.current == "season"
    assert state(progress, "come_up").state == "upcoming"


def test_machines_go_on_as_estimates_from_the_latest_likely_moment():
    """The pot timer counts from the latest likely pin-up: 100 + 800 s."""
    running = follow(PLANS, [done(1, "season", 100.0)], 1000.0)
    assert state(running, "come_up").state == "estimated"
    assert running.current == "hold"
    assert state(running, "hold").due_s == 100 + 800 + 1800
    later = follow(PLANS, [done(1, "season", 100.0)], 9000.0)
    assert state(later, "hold").state == "estimated"
    assert later.current == "open"


@pytest.mark.parametrize(
    ("told", "why"),
    [
        ({}, "nobody tried whether it is tender"),
        ({"tender": True}, "no thermometer reading"),
        ({"tender": True, "temp_c": 60.0}, "too cold inside"),
        ({"tender": False, "temp_c": 90.0}, "not tender yet"),
    ],
)
def test_a_gate_never_passes_by_itself_nor_by_a_bare_tap(told, why):
    assert follow(PLANS, to_check(), 50_000.0).current == "check"
    failed = follow(PLANS, [*to_check(), done(5, "check", 3100.0, **told)], 3200.0)
    assert (failed.current, failed.barrier) == ("check", "check")
    assert failed.checks[-1].why == why
    passed = follow(PLANS, [*to_check(), good_check(5, 3100.0)], 3110.0)
    assert passed.current == "brush"
    assert state(passed, "check").gate == PASSED


def test_a_gate_of_temperature_alone_asks_for_no_feel():
    told = done(5, "again", 4000.0, temp_c=70.0)
    assert gate_verdict(told, Evidence(False, 63.0), 63.0, 0.0) == ""
    cold = replace(told, temp_c=50.0)
    assert gate_verdict(cold, Evidence(False, 63.0), 63.0, 0.0) == "too cold inside"
    assert gate_verdict(replace(told, temp_c=None), Evidence(True, None), None, 0.0) != ""


def test_no_later_step_counts_before_its_gate_whatever_the_order_of_the_taps():
    early = [*to_check(), done(5, "finish", 3050.0), done(6, "serve", 3060.0)]
    waiting = follow(PLANS, early, 4000.0)
    assert waiting.current == "check"
    assert not waiting.finished
    assert state(waiting, "finish").state == "upcoming"
    # The check passed afterwards does not make them count either: they are told again.
    passed = follow(PLANS, [*early, good_check(7, 3100.0)], 3110.0)
    assert passed.current == "brush"


def test_a_gate_is_skipped_only_with_its_own_event_and_stays_marked():
    skipped = Event(5, "skip", 3050.0, "check", reason="no thermometer in the house")
    progress = follow(PLANS, [*to_check(), skipped], 3060.0)
    assert progress.current == "brush"
    assert state(progress, "check").gate == SKIPPED
    assert state(progress, "check").state == "unknown"
    assert progress.checks[-1].why == "no thermometer in the house"


def test_a_failed_check_opens_a_way_back_of_real_steps_and_moves_the_plate():
    before = follow(PLANS, [*to_check(), good_check(5, 3100.0)], 3110.0)
    failed = follow(PLANS, [*to_check(), bad_check(5, 3100.0)], 3110.0)
    assert failed.current == "check~1.load"
    assert failed.serve_at_s == pytest.approx(before.serve_at_s + 30 + 600 + 30, abs=31)
    assert state(failed, "check").gate == FAILED
    assert state(failed, "check~1.hold").state == "upcoming"
    told = [*to_check(), bad_check(5, 3100.0), done(6, "check~1.load", 3150.0)]
    back = [*told, done(7, "check~1.hold", 3760.0)]
    assert follow(PLANS, back, 3770.0).current == "check~1.check"
    good = follow(PLANS, [*back, good_check(8, 3800.0, "check~1.check")], 3810.0)
    assert good.current == "brush"
    assert [(c.verdict, c.temp_c) for c in good.checks] == [(FAILED, 50.0), (PASSED, 80.0)]


def test_ways_back_follow_each_other_and_each_has_keys_of_its_own():
    told = [*to_check(), bad_check(5, 3100.0), done(6, "check~1.load", 3150.0)]
    told += [done(7, "check~1.hold", 3760.0), bad_check(8, 3800.0, "check~1.check")]
    progress = follow(PLANS, told, 3810.0)
    assert progress.current == "check~2.load"
    # A newer reading at the first gate takes both ways back out of the plan.
    assert follow(PLANS, [*told, good_check(9, 3900.0)], 3910.0).current == "brush"


def test_another_way_back_can_be_chosen():
    legs = (way_back("check"), replace(way_back("check"), heat="simmer"))
    told = [*to_check(), bad_check(5, 3100.0, legs=legs)]
    fold = Fold(PLANS, [*told, Event(6, "way", 3110.0, "check", way=1)])
    assert next(plan.key for plan in fold.line if "~" in plan.key) == "check~1.load"
    assert fold.legs["check"][1].heat == "simmer"
    assert follow(PLANS, [*told, Event(6, "way", 3110.0, "check", way=1)], 3120.0).current


def test_a_newer_reading_replaces_an_older_one_and_what_was_done_since_is_to_be_done_again():
    told = [*to_fire(), bad_check(8, 3300.0)]
    cold = follow(PLANS, told, 3310.0)
    assert cold.current == "check~1.load"
    assert state(cold, "brush").state == "upcoming"
    # The tray is under the broiler all the same, until somebody says where it went.
    assert cold.fire is not None
    assert cold.fire.clock_s(3310.0) == pytest.approx(80.0)
    out = follow(PLANS, [*told, done(9, "check~1.load", 3320.0)], 3330.0)
    assert out.fire is None
    # Undone, everything stands as it stood.
    undone = follow(PLANS, [*told, Event(9, "undo", 3320.0, undoes=8)], 3330.0)
    assert undone.current == "finish"


def test_a_reading_from_before_the_heat_ended_does_not_pass_the_gate_after_it():
    early = done(5, "check", 2400.0, tender=True, temp_c=80.0)
    progress = follow(PLANS, [*to_check(), early], 3110.0)
    assert progress.current == "check"
    assert "before" in progress.checks[-1].why


def test_a_gate_that_an_earlier_version_let_pass_counts_as_skipped():
    told = [*to_check(), done(5, "brush", 3200.0, jumped=("check",))]
    progress = follow(PLANS, told, 3210.0)
    assert progress.current == "under"
    assert state(progress, "check").gate == SKIPPED


def test_the_heat_ends_when_its_step_is_told_and_its_clock_stands_still_while_food_is_out():
    fire = follow(PLANS, to_fire(), 3300.0).fire
    assert (fire.since_s, fire.before_s, fire.assumed) == (3230.0, 0.0, False)
    out = [*to_fire(), done(8, "finish", 3350.0)]
    away = follow(PLANS, out, 3380.0)
    assert away.current == "coat-2"
    assert away.fire is None
    back = [*out, done(9, "coat-2", 3420.0)]
    again = follow(PLANS, back, 3450.0)
    assert again.fire.clock_s(3450.0) == pytest.approx(120.0 + 30.0)
    assert [(a.act, a.at_s, a.away_s) for a in again.acts] == [("coat", 120.0, 70.0)]
    ended = follow(PLANS, [*back, done(10, "finish-2", 3600.0)], 90_000.0)
    assert ended.fire is None


def test_a_brush_that_nobody_ends_may_be_under_the_heat_again():
    """Forty seconds are the least that a coat takes."""
    out = [*to_fire(), done(8, "finish", 3350.0)]
    assert follow(PLANS, out, 3389.0).fire is None
    worst = follow(PLANS, out, 3400.0).fire
    assert worst.assumed
    assert worst.clock_s(3400.0) == pytest.approx(120.0 + 10.0)


def test_fire_assumes_the_worst_once_the_gate_is_passed():
    """Under the broiler since the earliest moment the open hand steps allow: 3100 + 40 + 10 s."""
    told = [*to_check(), good_check(5, 3100.0)]
    assert follow(PLANS, told, 3140.0).fire is None
    worst = follow(PLANS, told, 3400.0)
    assert worst.current == "brush"
    assert worst.fire.assumed
    assert worst.fire.since_s == pytest.approx(3150.0)
    assert follow(PLANS, to_check(), 90_000.0).fire is None


def test_a_sign_lies_on_the_heats_own_clock_and_teaches_only_where_the_heat_was_told():
    signs = [Event(20, "saw", 3290.0, sign="bubbling"), Event(21, "saw", 3500.0, sign="dark")]
    told = [*to_fire(), done(8, "finish", 3350.0), done(9, "coat-2", 3420.0), *signs]
    found = follow(PLANS, told, 3510.0).signs
    assert [(s.sign, s.heat_s, s.teaches) for s in found] == [
        ("bubbling", 60.0, True),
        ("dark", 200.0, True),
    ]
    unsure = [*to_check(), good_check(5, 3100.0), Event(6, "saw", 3400.0, sign="bubbling")]
    assert [s.teaches for s in follow(PLANS, unsure, 3410.0).signs] == [False]


def test_a_sign_under_a_heat_whose_beginning_nobody_told_teaches_nothing():
    """It was said when the food came out, but not when it went in."""
    out = [*to_check(), good_check(5, 3100.0), done(8, "finish", 3400.0)]
    seen = [*out, Event(20, "saw", 3390.0, sign="bubbling")]
    progress = follow(PLANS, seen, 3410.0)
    under = next(s for s in progress.steps if s.plan.key == "under")
    assert under.state != "confirmed"
    assert [s.teaches for s in progress.signs] == [False]


def test_the_plate_is_not_ready_before_its_last_gate():
    told = [*to_fire(), done(8, "finish", 3350.0), done(9, "coat-2", 3420.0)]
    told += [done(10, "finish-2", 3600.0), done(11, "out", 3620.0)]
    progress = follow(PLANS, [*told, done(12, "serve", 3700.0)], 9000.0)
    assert (progress.current, progress.barrier) == ("again", "again")
    assert not progress.finished
    reading = done(13, "again", 3710.0, temp_c=70.0)
    served = follow(PLANS, [*told, reading, done(14, "serve", 3950.0)], 9000.0)
    assert served.finished


def test_undo_takes_back_the_last_thing_told_and_can_be_taken_back():
    told = [done(1, "season", 100.0), Event(2, "undo", 110.0, undoes=1)]
    assert follow(PLANS, told, 120.0).current == "season"
    again = [*told, Event(3, "undo", 115.0, undoes=2)]
    assert follow(PLANS, again, 120.0).current == "come_up"


def test_what_happened_before_the_last_step_ended_is_taken_to_end_with_it():
    assert state(follow(PLANS, [done(1, "season", 40.0)], 160.0), "come_up").begin_s == 40.0
    odd = follow(PLANS, [done(1, "season", 100.0), done(2, "come_up", 50.0)], 160.0)
    assert state(odd, "come_up").end_s >= state(odd, "come_up").begin_s


def test_a_minute_more_moves_the_end_by_a_minute_and_never_behind_its_beginning():
    told = [done(1, "season", 100.0), done(2, "come_up", 700.0)]
    plain = follow(PLANS, told, 800.0)
    more = follow(PLANS, [*told, Event(3, "extend", 750.0, "hold", 60.0)], 800.0)
    assert state(more, "hold").due_s == state(plain, "hold").due_s + 60
    assert more.serve_at_s == plain.serve_at_s + 60
    less = follow(PLANS, [*told, Event(3, "extend", 750.0, "hold", -3600.0)], 800.0)
    assert less.serve_at_s >= 800.0


def left_for(number, at_s, **more):
    """The broiler is left for a fryer, while the food is under it."""
    fry = (
        StepPlan(f"fry{number}.heat_up", "machine", "", 300, 300, 300, approach=True),
        StepPlan(f"fry{number}.under", "hands", "", 10, 15, 20, approach=True),
        StepPlan(f"fry{number}.finish", "fire", "", 100, 180, 300, fire=f"fryer{number}"),
    )
    told = {
        "ended": ("finish",),
        "dropped": ("coat-2", "finish-2", "preheat"),
        "steps": tuple(zip(("out", fry[0].key, fry[1].key), fry, strict=True)),
        "left": ("brush", "under", "finish", "out"),
    }
    return Event(number, "instead", at_s, **{**told, **more})


def test_a_heat_that_is_left_ends_then_and_the_other_has_a_clock_of_its_own():
    events = [*to_fire(), left_for(50, 3300.0)]
    out = follow(PLANS, events, 3310.0)
    assert out.fire is None
    assert state(out, "finish").end_s == 3300.0
    line = [s.plan.key for s in out.steps if s.end_s is None]
    assert line[:4] == ["out", "fry50.heat_up", "fry50.under", "fry50.finish"]
    assert not {"coat-2", "finish-2", "preheat"} & {s.plan.key for s in out.steps}
    told = [
        done(51, "out", 3315.0),
        done(52, "fry50.heat_up", 3600.0),
        done(53, "fry50.under", 3615),
    ]
    under = follow(PLANS, [*events, *told], 3700.0)
    assert (under.fire.name, under.fire.clock_s(3700.0)) == ("fryer50", 85.0)
    undone = follow(PLANS, [*events, Event(51, "undo", 3320.0, undoes=50)], 3320.0)
    assert undone == follow(PLANS, to_fire(), 3320.0)


def test_what_was_told_before_a_heat_was_left_stays():
    """A coat was told just before the broiler failed; the message came the other way round."""
    coated = [*to_fire(), done(40, "finish", 3290.0), done(41, "coat-2", 3350.0)]
    after = follow(PLANS, [*coated, left_for(50, 3400.0, ended=("finish-2",))], 3400.0)
    assert state(after, "coat-2").state == "confirmed"
    assert state(after, "finish").end_s == 3290.0


def test_no_check_for_safety_goes_with_a_heat_unless_one_comes():
    bare = left_for(50, 3300.0, dropped=("again", "rest"))
    keys = [s.plan.key for s in follow(PLANS, [*to_fire(), bare], 3310.0).steps]
    assert "again" in keys
    assert "rest" not in keys
    hot = StepPlan("hot", "gate", "", 20, 30, 50, evidence=Evidence(False, 63.0))
    other = replace(bare, steps=(*bare.steps, ("fry50.finish", hot)))
    keys = [s.plan.key for s in follow(PLANS, [*to_fire(), other], 3310.0).steps]
    assert "again" not in keys
    assert "hot" in keys


def test_nothing_goes_back_into_a_heat_that_was_left():
    """The thermometer is read once more, and it is too cold after all."""
    told = [*to_fire(), left_for(50, 3300.0), done(51, "out", 3315.0), bad_check(52, 3400.0)]
    keys = [s.plan.key for s in follow(PLANS, told, 3400.0).steps if s.end_s is None]
    assert keys[:3] == ["check~1.load", "check~1.hold", "check~1.check"]
    assert not {"brush", "under", "finish", "out"} & set(keys)
    assert keys[3] == "fry50.heat_up"


@pytest.mark.parametrize(
    ("told", "before"),
    [
        ([], "brush"),
        (to_check(), "brush"),
        ([*to_check(), good_check(5, 3100.0), done(6, "brush", 3200.0)], "under"),
        (to_fire(), "serve"),
        ([*to_fire(), done(8, "finish", 3300.0)], "serve"),
    ],
    ids=["at the start", "before the check", "brushed", "under the heat", "out for its coat"],
)
def test_guests_who_are_late_are_waited_for_where_the_food_bears_it(told, before):
    """Covered behind the check, before anything is glazed; once it is under the heat, uncovered
    before the table. A second delay makes the same wait longer."""
    now = max((event.at_s for event in told), default=0.0)
    planned = follow(PLANS, told, now)
    late = [*told, Event(20, "later", now, seconds=900.0)]
    found = follow(PLANS, late, now)
    keys = [s.plan.key for s in found.steps]
    wait = keys.index(before) - 1
    assert keys[wait] == ("later-1.uncovered" if before == "serve" else "later-1.guests")
    assert found.serve_at_s == pytest.approx(planned.serve_at_s + 900.0)
    later = follow(PLANS, [*late, Event(21, "later", now, seconds=300.0)], now)
    assert [s.plan.key for s in later.steps] == keys
    assert later.serve_at_s == pytest.approx(planned.serve_at_s + 1200.0)
    undone = follow(PLANS, [*late, Event(21, "undo", now, undoes=20)], now)
    assert undone == planned


def test_a_long_rest_after_the_fire_is_no_heat_to_wait_for():
    """Half an hour under foil at the end: the wait is before the glaze all the same."""
    plans = plans_with(PLANS, {"rest": (1800.0, 1800.0, 1800.0)})
    keys = [s.plan.key for s in follow(plans, [Event(1, "later", 0.0, seconds=900.0)], 0.0).steps]
    assert keys.index("later-1.guests") == keys.index("brush") - 1


def test_a_wait_that_is_planned_is_the_one_that_grows():
    """The buffer of a plan, or what a meal lets a dish wait."""
    place = [plan.key for plan in PLANS].index("brush")
    for key in ("slack", "meal-1.slack", "meal-2.uncovered"):
        wait = StepPlan(key, "machine", "Covered, in hand", 600.0, 600.0, 600.0)
        plans = (*PLANS[:place], wait, *PLANS[place:])
        found = follow(plans, [Event(1, "later", 0.0, seconds=900.0)], 0.0)
        assert [s.plan.key for s in found.steps] == [plan.key for plan in plans]
        assert state(found, key).plan.likely_s == 1500.0


def test_a_delay_at_the_table_moves_nothing():
    told = [*to_fire(), done(8, "finish", 3300.0), done(9, "coat-2", 3400.0)]
    told += [done(10, "finish-2", 3500.0), done(11, "out", 3520.0), good_check(12, 3600.0, "again")]
    told += [done(13, "rest", 3800.0), done(14, "serve", 3900.0)]
    late = follow(PLANS, [*told, Event(20, "later", 3900.0, seconds=900.0)], 3900.0)
    assert late == follow(PLANS, told, 3900.0)


def test_what_runs_beside_is_due_its_latest_length_before_it_is_needed():
    told = to_check(3000.0)
    assert follow(PLANS, told[:2], 800.0).side_due == ()
    assert follow(PLANS, told, 3001.0).side_due == ("preheat",)
    assert follow(PLANS, [*told, done(5, "preheat", 3002.0)], 3003.0).side_due == ()


def test_serving_is_a_range_that_holds_the_likely_moment():
    progress = follow(PLANS, to_check(), 3010.0)
    assert progress.serve_low_s <= progress.serve_at_s <= progress.serve_high_s


@pytest.mark.parametrize("now_s", [-1e9, 0.0, 40 * 86_400.0, 1e12])
def test_a_clock_that_was_set_wrong_closes_nothing(now_s):
    progress = follow(PLANS, to_check(), now_s)
    assert progress.serve_at_s >= 3000.0


@pytest.mark.parametrize(
    ("fahrenheit", "celsius"), [(145, 63.0), (165, 74.0), (160, 71.0), (140, 60.0)]
)
def test_the_usual_figure_of_either_scale_passes_and_a_degree_less_does_not(fahrenheit, celsius):
    """Guidance is round on both scales: 145 °F is 62.8 °C and stands for 63."""

    def verdict(reading_f):
        told = Event(1, "done", 0.0, "check", temp_c=(reading_f - 32) / 1.8, tender=True)
        return gate_verdict(told, WANTS, celsius, 0.0)

    assert verdict(fahrenheit) == ""
    assert verdict(fahrenheit - 1) == "too cold inside"


class AnyCook(RuleBasedStateMachine):
    """Random taps, undo, failed gates, pauses and reloads: what may never happen, whatever is
    told.
    """

    @initialize()
    def begin(self):
        self.now, self.seq, self.events, self.told = 0.0, 0, [], []

    def add(self, kind, **more):
        self.seq += 1
        self.events.append(Event(self.seq, kind, self.now, **more))

    def progress(self, now=None):
        return follow(PLANS, self.events, self.now if now is None else now)

    @rule(seconds=st.sampled_from([1, 20, 60, 300, 2000, 40_000]))
    def wait(self, seconds):
        before = self.progress()
        self.now += seconds
        after = self.progress()
        assert after.serve_at_s >= before.serve_at_s - 1e-6, "the plate's clock never runs back"
        if before.fire and after.fire and before.fire.since_s == after.fire.since_s:
            assert after.fire.clock_s(self.now) >= before.fire.clock_s(self.now - seconds)
        assert [s.gate for s in before.steps] == [s.gate for s in after.steps], (
            "time passes no gate"
        )

    @precondition(lambda self: self.progress().current is not None)
    @rule(good=st.booleans(), warm=st.booleans())
    def tap_the_button(self, good, warm):
        progress = self.progress()
        plan = state(progress, progress.current).plan
        if plan.who == "gate":
            told = {"tender": good, "temp_c": 75.0 if warm else 40.0}
            legs = () if good and warm else (way_back(plan.key),)
            self.add("done", step=plan.key, legs=legs, **told)
            return
        self.add("done", step=plan.key)
        after = self.progress()
        assert state(after, plan.key).state == "confirmed"
        if plan.who == "fire":
            assert after.fire is None, "a heat is over when its step is told"

    @rule(key=st.sampled_from(KEYS))
    def tap_any_step(self, key):
        plan = next(p for p in PLANS if p.key == key)
        before = self.progress()
        if plan.who != "gate":
            self.add("done", step=key)
            after = self.progress()
            for gate in ("check", "again"):
                opened = state(before, gate).gate
                assert state(after, gate).gate == opened, "no tap on another step moves a gate"

    @precondition(lambda self: self.progress().barrier)
    @rule()
    def skip_the_gate(self):
        self.add("skip", step=self.progress().barrier, reason="no thermometer")

    @rule(seconds=st.sampled_from([60, 600, 7200]))
    def guests_are_late(self, seconds):
        before = self.progress()
        self.add("later", seconds=seconds)
        after = self.progress()
        moved = after.serve_at_s - before.serve_at_s
        assert -1e-6 <= moved <= seconds + 1e-6
        assert after.finished or not before.finished
        gates = {s.plan.key: s.gate for s in before.steps}
        assert {s.plan.key: s.gate for s in after.steps if s.plan.key in gates} == gates

    @precondition(lambda self: self.progress().current == "finish")
    @rule()
    def leave_the_broiler(self):
        before = self.progress()
        self.seq += 1
        self.events.append(left_for(self.seq, self.now))
        after = self.progress()
        assert after.fire is None
        gates = {s.plan.key: s.gate for s in before.steps if s.plan.who == "gate"}
        assert {s.plan.key: s.gate for s in after.steps if s.plan.who == "gate"} == gates

    @precondition(lambda self: self.events)
    @rule()
    def undo(self):
        last = max(e.seq for e in self.events)
        self.add("undo", undoes=last)

    @rule(sign=st.sampled_from(["bubbling", "dark"]))
    def see(self, sign):
        self.add("saw", sign=sign)

    @rule()
    def read_again(self):
        self.add("done", step="check", tender=False, temp_c=40.0, legs=(way_back("check"),))

    @invariant()
    def it_is_one_cook(self):
        progress = self.progress()
        assert (progress.current is None) == progress.finished
        open_now = [s.plan.key for s in progress.steps if s.state in ("current", "running")]
        serial = [k for k in open_now if not state(progress, k).plan.beside]
        assert serial == ([progress.current] if progress.current else []), "one thing to do now"
        ends = [s.end_s for s in progress.steps if s.end_s is not None and not s.plan.beside]
        assert ends == sorted(ends)
        if progress.finished:
            assert all(s.gate in (PASSED, SKIPPED, FAILED, "") for s in progress.steps)
            assert not any(s.gate == OPEN for s in progress.steps)
            assert progress.fire is None
        reloaded = follow(PLANS, sorted(self.events, key=lambda e: e.at_s), self.now)
        assert reloaded == progress, "a reload sees the same cook"


AnyCook.TestCase.settings = settings(max_examples=60, stateful_step_count=40, deadline=None)
TestAnyCook = AnyCook.TestCase
