"""A probe's readings against courses of the middle."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from bluekettle.core.calibration import courses_of, follow_probe, when_reached
from bluekettle.core.calibration.probe import LEAST_COURSES
from bluekettle.core.errors import OutOfRange

TIME = np.arange(0.0, 14_401.0, 60.0)
NONE = np.zeros(0)


def rising(tau_s):
    """A middle that goes from 5 towards 95 °C."""
    return 95.0 - 90.0 * np.exp(-TIME / tau_s)


def made(members=64):
    taus = 5000.0 * np.exp(0.2 * np.linspace(-2.0, 2.0, members))
    return courses_of(TIME, np.array([rising(tau) for tau in taus]))


def reach_s(tau_s, target_c):
    return tau_s * np.log(90.0 / (95.0 - target_c))


def test_without_a_reading_the_ensemble_speaks():
    courses = made()
    found = when_reached(courses, follow_probe(courses, NONE, NONE), 70.0)
    assert found.likely_s == pytest.approx(reach_s(5000.0, 70.0), rel=0.03)
    assert found.low_s < reach_s(4000.0, 70.0)
    assert found.high_s > reach_s(6000.0, 70.0)


@pytest.mark.parametrize("tau_s", [3300.0, 5000.0, 6700.0])
def test_readings_of_the_first_half_tell_the_rest(tau_s):
    """The moment itself is that of the exponential by hand; the band closes around it."""
    courses = made()
    end = reach_s(tau_s, 70.0)
    at_s = np.arange(300.0, 0.5 * end, 60.0)
    read = np.interp(at_s, TIME, rising(tau_s))
    probed = follow_probe(courses, at_s, read)
    found = when_reached(courses, probed, 70.0, (float(at_s[-1]), float(read[-1])))
    before = when_reached(courses, follow_probe(courses, NONE, NONE), 70.0)
    assert found.likely_s == pytest.approx(end, rel=0.06)
    assert found.low_s < end < found.high_s
    assert found.high_s - found.low_s < 0.6 * (before.high_s - before.low_s)


def test_a_loose_probe_is_told_and_moves_nothing():
    courses = made()
    at_s = np.arange(300.0, 3000.0, 60.0)
    read = np.interp(at_s, TIME, rising(5000.0))
    whole = when_reached(courses, follow_probe(courses, at_s, read), 70.0)
    hanging = read.copy()
    hanging[-5:] = 140.0
    probed = follow_probe(courses, at_s, hanging)
    assert probed.loose.tolist() == [False] * (len(at_s) - 5) + [True] * 5
    assert when_reached(courses, probed, 70.0).likely_s == pytest.approx(whole.likely_s, rel=0.08)


def test_food_that_falls_behind_by_and_by_is_slow_and_its_probe_is_not_loose():
    courses = made()
    at_s = np.arange(300.0, 9000.0, 60.0)
    slow = np.interp(at_s, TIME, rising(11_000.0))
    assert np.max(np.abs(slow - np.interp(at_s, TIME, rising(5000.0)))) > 15.0
    assert not follow_probe(courses, at_s, slow).loose.any()
    warm = np.interp(at_s, TIME, rising(5000.0)) + 14.0  # it had stood in the kitchen
    assert not follow_probe(courses, at_s, warm).loose[:20].any()


def test_food_like_none_of_the_courses_keeps_a_wide_band():
    """Nothing of the ensemble goes with it: the nearest course is not taken for the truth."""
    courses = made()
    at_s = np.arange(300.0, 6000.0, 60.0)
    probed = follow_probe(courses, at_s, np.interp(at_s, TIME, rising(12_000.0)))
    assert 1.0 / np.sum(probed.weights**2) >= LEAST_COURSES
    found = when_reached(courses, probed, 70.0)
    assert found.high_s - found.low_s > 600.0


def test_what_is_never_reached_has_no_moment():
    courses = made()
    found = when_reached(courses, follow_probe(courses, NONE, NONE), 96.0)
    assert (found.share, found.likely_s) == (0.0, np.inf)


def test_from_the_last_reading_on_it_goes_as_it_does_from_there():
    """At 60 °C after 9000 s, where the likely course was there after 4730: what is left is what
    each course needs from 60 to 70 °C."""
    courses = made()
    nothing = follow_probe(courses, NONE, NONE)
    found = when_reached(courses, nothing, 70.0, (9000.0, 60.0))
    left = reach_s(5000.0, 70.0) - reach_s(5000.0, 60.0)
    assert found.likely_s == pytest.approx(9000.0 + left, rel=0.01)
    there = when_reached(courses, nothing, 70.0, (9000.0, 71.0))
    assert (there.low_s, there.likely_s, there.high_s) == (9000.0, 9000.0, 9000.0)


@given(
    st.lists(st.tuples(st.floats(0, 14_000), st.floats(-40, 350)), max_size=30),
    st.floats(-20, 120),
)
def test_whatever_is_read_the_weights_are_weights_and_the_band_is_in_order(told, target_c):
    courses = made()
    at_s, read = (np.array([one[i] for one in told], dtype=float) for i in (0, 1))
    probed = follow_probe(courses, at_s, read)
    assert probed.weights.min() >= 0.0
    assert probed.weights.sum() == pytest.approx(1.0)
    found = when_reached(courses, probed, target_c)
    assert found.low_s <= found.likely_s <= found.high_s
    assert -1e-9 <= found.share <= 1.0 + 1e-9


def test_courses_that_are_none_are_refused():
    with pytest.raises(OutOfRange, match="time_s"):
        courses_of(TIME[::-1], np.array([rising(3000.0)]))
    with pytest.raises(OutOfRange, match="centre_c"):
        courses_of(TIME, np.full((2, TIME.size), np.nan))
