"""What passes when nobody taps."""

import pytest

from bluekettle.core.stages import Event, StepPlan, follow
from bluekettle.core.stages.progress import gate_verdict

PLANS = [
    StepPlan("season", "hands", "", 60, 120, 200),
    StepPlan("come_up", "machine", "", 500, 600, 800),
    StepPlan("hold", "machine", "", 1800, 1800, 1800),
    StepPlan("open", "hands", "", 20, 30, 50),
    StepPlan("check", "gate", "", 40, 60, 90),
    StepPlan("brush", "hands", "", 40, 60, 90),
    StepPlan("under", "hands", "", 10, 15, 20),
    StepPlan("finish", "fire", "", 200, 300, 500),
    StepPlan("serve", "hands", "", 40, 60, 90),
    StepPlan("preheat", "machine", "", 300, 360, 430, beside=True),
]
GATED = 63.0


def done(seq, step, at_s, **more):
    return Event(seq, "done", at_s, step, **more)


def good_check(seq, at_s):
    return done(seq, "check", at_s, tender=True, temp_c=80.0)


def state(progress, key):
    return next(s for s in progress.steps if s.plan.key == key)


def to_check(at_s=3000.0):
    """All told up to the open pot."""
    return [
        done(1, "season", 100.0),
        done(2, "come_up", 700.0),
        done(3, "hold", 2500.0),
        done(4, "open", at_s),
    ]


def test_a_hand_step_stays_current_for_hours():
    progress = follow(PLANS, [], 20_000.0, GATED)
    assert progress.current == "season"
    assert state(progress, "come_up").state == "upcoming"


def test_machines_go_on_as_estimates_from_the_latest_likely_moment():
    """The pot timer counts from the latest likely pin-up: 100 + 800 s."""
    running = follow(PLANS, [done(1, "season", 100.0)], 1000.0, GATED)
    assert state(running, "come_up").state == "estimated"
    assert running.current == "hold"
    assert state(running, "hold").due_s == 100 + 800 + 1800
    later = follow(PLANS, [done(1, "season", 100.0)], 9000.0, GATED)
    assert state(later, "hold").state == "estimated"
    assert later.current == "open"


def test_a_gate_never_passes_by_itself_nor_by_a_bare_tap():
    waiting = follow(PLANS, to_check(), 50_000.0, GATED)
    assert waiting.current == "check"
    for event, missing in (
        (done(5, "check", 3100.0), "tender"),
        (done(5, "check", 3100.0, tender=True), "thermometer"),
        (done(5, "check", 3100.0, tender=True, temp_c=60.0), "60"),
        (done(5, "check", 3100.0, tender=False, temp_c=90.0), "not tender"),
    ):
        failed = follow(PLANS, [*to_check(), event], 3200.0, GATED)
        assert failed.current == "check"
        assert missing in failed.gate_failed
    passed = follow(PLANS, [*to_check(), good_check(5, 3100.0)], 3110.0, GATED)
    assert passed.current == "brush"
    assert state(passed, "check").passed


def test_a_skipped_gate_is_unknown_and_not_passed():
    jumped = follow(PLANS, [*to_check(), done(5, "finish", 4000.0)], 4100.0, GATED)
    gate = state(jumped, "check")
    assert gate.state == "unknown"
    assert not gate.passed
    assert state(jumped, "brush").state == "unknown"
    assert state(jumped, "brush").end_s is None


def test_fire_assumes_the_worst_once_the_gate_is_passed():
    """Under the broiler since the earliest moment the open hand steps allow: 3100 + 40 + 10 s."""
    told = [*to_check(), good_check(5, 3100.0)]
    assert follow(PLANS, told, 3140.0, GATED).fire_since_s is None
    worst = follow(PLANS, told, 3400.0, GATED)
    assert worst.current == "brush"
    assert worst.fire_assumed
    assert worst.fire_since_s == pytest.approx(3150.0)
    certain = follow(
        PLANS, [*told, done(6, "brush", 3200.0), done(7, "under", 3230.0)], 3400.0, GATED
    )
    assert not certain.fire_assumed
    assert certain.fire_since_s == 3230.0
    assert follow(PLANS, to_check(), 90_000.0, GATED).fire_since_s is None


def test_undo_takes_back_the_last_thing_told_and_can_be_taken_back():
    told = [done(1, "season", 100.0), Event(2, "undo", 110.0, undoes=1)]
    assert follow(PLANS, told, 120.0, GATED).current == "season"
    again = [*told, Event(3, "undo", 115.0, undoes=2)]
    assert follow(PLANS, again, 120.0, GATED).current == "come_up"


def test_two_minutes_ago_begins_the_next_step_two_minutes_ago_but_never_before_the_last_one():
    assert state(follow(PLANS, [done(1, "season", 40.0)], 160.0, GATED), "come_up").begin_s == 40.0
    odd = follow(PLANS, [done(1, "season", 100.0), done(2, "come_up", 50.0)], 160.0, GATED)
    assert state(odd, "come_up").end_s >= state(odd, "come_up").begin_s


def test_a_minute_more_moves_the_end_by_a_minute():
    told = [done(1, "season", 100.0), done(2, "come_up", 700.0)]
    plain = follow(PLANS, told, 800.0, GATED)
    more = follow(PLANS, [*told, Event(3, "extend", 750.0, "hold", 60.0)], 800.0, GATED)
    assert state(more, "hold").due_s == state(plain, "hold").due_s + 60
    assert more.serve_at_s == plain.serve_at_s + 60


def test_the_broiler_is_asked_for_its_latest_preheat_before_it_is_needed():
    told = to_check(3000.0)
    early = follow(PLANS, told[:2], 800.0, GATED)
    assert early.side_due == ()
    assert follow(PLANS, told, 3001.0, GATED).side_due == ("preheat",)
    assert follow(PLANS, [*told, done(5, "preheat", 3002.0)], 3003.0, GATED).side_due == ()


def test_serving_is_a_range_that_holds_the_likely_moment():
    progress = follow(PLANS, to_check(), 3010.0, GATED)
    assert progress.serve_low_s <= progress.serve_at_s <= progress.serve_high_s


@pytest.mark.parametrize(
    ("fahrenheit", "celsius"), [(145, 63.0), (165, 74.0), (160, 71.0), (140, 60.0)]
)
def test_the_usual_figure_of_either_scale_passes_and_a_degree_less_does_not(fahrenheit, celsius):
    """Guidance is round on both scales: 145 °F is 62.8 °C and stands for 63."""

    def verdict(reading_f):
        return gate_verdict(
            Event(1, "done", 0.0, "check", temp_c=(reading_f - 32) / 1.8, tender=True), celsius
        )

    assert verdict(fahrenheit) == ""
    assert "is under" in verdict(fahrenheit - 1)
