"""What is read from a finish, on members made by hand; the weights of signs; colours by their
definition.
"""

from dataclasses import replace

import numpy as np
import pytest

from bluekettle.core.advice.rescue import way_of
from bluekettle.core.glaze import Finish, draw_members, read_milestones
from bluekettle.core.glaze.colour import index_to_lab, lab_to_hex
from bluekettle.core.glaze.ensemble import reweigh, tail_quantile, weighted_quantile
from bluekettle.core.sauce import sample_sauce
from bluekettle.core.stages import plan_calls
from tests.one_cook import Dish, forecast

RIBS = Dish(
    "beef-short-ribs", 1.6, 6, 45.0, release="mixed", sauce=sample_sauce("plum-tea"), coats=1
)

INF = np.inf
# Seconds to set, bubbling, amber, mahogany, bitter, burnt, crisp: face, edge, and the other side.
FACE = [
    [30, 40, 100, 160, 300, 400, INF],
    [30, 40, 120, 180, 320, 420, INF],
    [30, 40, 140, 200, 260, 440, INF],
    [30, 40, 200, INF, INF, INF, INF],
]
EDGE = [
    [20, 30, 60, 90, 150, 240, INF],
    [20, 30, 70, 100, 160, 260, INF],
    [20, 30, 80, 110, 170, 280, INF],
    [20, 30, 90, 120, 180, 150, INF],
]
BACK = [
    [30, 50, 110, 170, 310, 410, INF],
    [30, 50, 150, 190, 330, 430, INF],
    [30, 50, 130, 210, 200, 450, INF],
    [30, 50, 210, INF, INF, INF, INF],
]
EVEN = np.full(4, 0.25)
AMBER = 2


def finish(*sites):
    times = np.array(sites, dtype=float).transpose(1, 0, 2)
    sample_s = np.arange(0.0, 500.0, 10.0)
    traces = np.zeros((4, len(sites), sample_s.size, 4), dtype=np.float32)
    return Finish(times, traces, sample_s, acts=(), caramelises=True, lying=None)


def test_a_member_is_right_from_its_colour_until_its_edge_burns_or_its_face_turns_bitter():
    found = read_milestones(finish(FACE, EDGE), EVEN, "amber")
    # Right: 100 to 240, 120 to 260, 140 to 260 (bitter before burnt), never (burnt at 150).
    assert found.possible == 0.75
    at = {t: found.wanted[int(t / 10)] for t in (90, 100, 120, 140, 230, 240, 260)}
    assert at == {90: 0, 100: 0.25, 120: 0.5, 140: 0.75, 230: 0.75, 240: 0.5, 260: 0}
    assert [found.risk[int(t / 10)] for t in (140, 150, 240, 260)] == [0.0, 0.25, 0.5, 1.0]
    assert found.bands["face"]["amber"].reached == 1.0
    assert found.bands["face"]["mahogany"].reached == 0.75
    assert found.bands["edge"]["burnt"].likely_s == pytest.approx(250.0)


def test_only_the_proportion_of_the_weights_counts():
    one, four = (read_milestones(finish(FACE, EDGE), n * EVEN, "amber") for n in (1.0, 4.0))
    assert four.wanted == pytest.approx(one.wanted)
    assert four.risk == pytest.approx(one.risk)
    assert (four.possible, four.window, four.gaps) == (one.possible, one.window, one.gaps)


def test_a_turned_piece_waits_for_its_other_side_and_is_spoilt_by_it():
    found = read_milestones(finish(FACE, EDGE, BACK), EVEN, "amber")
    at = {t: found.wanted[int(t / 10)] for t in (100, 110, 140, 150, 190, 200)}
    assert at == {100: 0, 110: 0.25, 140: 0.5, 150: 0.75, 190: 0.75, 200: 0.5}
    assert found.risk[20] == 0.5, "bitter on the other side at 200"
    assert "back" in found.bands


def test_the_window_opens_with_the_median_and_closes_with_one_in_twenty():
    """Midpoints of the weights: ready 100 s at 0.24, 120 s at 0.72, so half at 110.8 s; spoilt 150
    s at 0.01, 240 s at 0.26, so a twentieth at 164.4 s. In the middle, 137.6 s, two are right.
    """
    weights = np.array([0.48, 0.48, 0.02, 0.02])
    found = read_milestones(finish(FACE, EDGE), weights, "amber").window
    assert found.opens_s == pytest.approx(100.0 + 20.0 * 0.26 / 0.48)
    assert found.closes_s == pytest.approx(150.0 + 90.0 * 0.04 / 0.25)
    assert found.hit == pytest.approx(0.96)
    assert not found.empty
    assert read_milestones(finish(FACE, EDGE), np.array([0.0, 0.0, 0.5, 0.5]), "amber").window.empty


def test_with_no_window_it_is_out_when_burning_is_as_likely_as_not():
    """Six in ten are burnt at 150 s and never ready; no chance of burning, and none of colour: at
    the end of what was looked at.
    """
    told = finish(FACE, EDGE)
    found = read_milestones(told, np.array([0.0, 0.0, 0.4, 0.6]), "amber")
    assert found.window.empty
    calls = plan_calls(found, told.sample_s)
    assert [(call.says, call.at_s) for call in calls][-1] == ("Out now.", 150.0)
    pale = finish(*[np.full((4, 7), INF)] * 2)
    calls = plan_calls(read_milestones(pale, EVEN, "amber"), pale.sample_s)
    assert calls[-1].at_s == told.sample_s[-1]


def test_a_way_out_is_told_for_those_evenings_in_which_it_comes_right():
    """From 50 s on: ready at 100, 120 and 140 s; the fourth is burnt before it is ready, and half
    of the right ones are ready by 120.
    """
    way = way_of("calmer", "Lower it", finish(FACE, EDGE), EVEN, AMBER, 50.0)
    assert (way.more_s, way.chance, way.risk) == (pytest.approx(70.0), 0.75, 0.0)
    late = way_of("calmer", "Lower it", finish(FACE, EDGE), EVEN, AMBER, 250.0)
    assert (late.more_s, late.chance, late.risk) == (0.0, 0.5, 0.5)
    seldom = way_of("calmer", "Lower it", finish(FACE, EDGE), np.array([0, 0, 0.2, 0.8]), AMBER, 9)
    assert (seldom.more_s, seldom.chance) == (None, pytest.approx(0.2))


def test_gaps_are_within_a_member_and_say_how_many_get_there():
    bubbling, amber = read_milestones(finish(FACE, EDGE), EVEN, "amber").gaps
    # From amber edges: 40, 50, 60 s to an amber face; from there 140, 140, 120 s to trouble.
    assert (amber.to_wanted.low_s, amber.to_wanted.likely_s, amber.to_wanted.high_s) == (40, 50, 60)
    assert amber.to_wanted.reached == amber.wanted_to_burnt.reached == 0.75
    assert (amber.wanted_to_burnt.low_s, amber.wanted_to_burnt.high_s) == (120, 140)
    assert bubbling.to_wanted.likely_s == 90
    never = read_milestones(finish(FACE, EDGE), np.array([0.0, 0.0, 0.0, 1.0]), "amber").gaps
    assert never[1].to_wanted.likely_s is None


def test_looks_begin_with_the_earliest_sign_and_come_in_half_the_shortest_gap():
    found = read_milestones(finish(FACE, EDGE), EVEN, "amber")
    assert found.look_from_s == 30.0
    assert found.look_every_s == 20.0


def test_a_sign_silences_nobody_and_many_that_contradict_leave_weights_that_add_up():
    own = np.array([60.0, 90.0, 120.0, INF])
    weights = reweigh([(own, 90.0)], 4, log_sd=0.2)
    assert weights.sum() == pytest.approx(1.0)
    assert weights.argmax() == 1
    assert weights[3] < 1e-9 < weights[0]
    # By its own law: a Student-like tail with four degrees of freedom.
    expected = (1.0 + (np.log(120.0 / 90.0) / 0.2) ** 2 / 4.0) ** -2.5
    assert weights[2] / weights[1] == pytest.approx(expected)
    torn = reweigh([(own, 1.0), (own, 5000.0)] * 60, 4, log_sd=0.01)
    assert np.isfinite(torn).all()
    assert torn.sum() == pytest.approx(1.0)


@pytest.mark.parametrize(
    ("lab", "code"),
    [
        ((0.0, 0.0, 0.0), "#000000"),
        ((53.389, 0.0, 0.0), "#7f7f7f"),
        ((100.0, 0.0, 0.0), "#ffffff"),
        ((53.2408, 80.0925, 67.2032), "#ff0000"),
        ((87.7347, -86.1827, 83.1793), "#00ff00"),
        ((32.2970, 79.1875, -107.8602), "#0000ff"),
        ((97.1393, -21.5537, 94.4780), "#ffff00"),
        ((4.0, 0.0, 0.0), "#0e0e0e"),
    ],
)
def test_cielab_becomes_srgb_by_its_definition(lab, code):
    """Primaries, greys, a dark grey on the straight part of both curves (CIE 15, IEC 61966)."""
    made = lab_to_hex(lab)
    for place in (1, 3, 5):
        assert abs(int(made[place : place + 2], 16) - int(code[place : place + 2], 16)) <= 1, made


def test_a_glaze_darkens_by_the_named_rungs_as_its_own_colour_fades():
    raw = (45.0, 18.0, 26.0)
    assert index_to_lab(0.0, raw) == raw
    own = 0.6 * (1.0 - 1.0 / 2.5)
    at_mahogany = [own * r + (1.0 - own) * n for r, n in zip(raw, (34.0, 28.0, 29.0), strict=True)]
    assert index_to_lab(1.0, raw) == pytest.approx(at_mahogany)
    assert index_to_lab(2.5, raw) == pytest.approx((18.0, 12.0, 11.0))
    own = 0.6 * (1.0 - 0.4 / 2.5)
    amber = [own * r + (1.0 - own) * n for r, n in zip(raw, (58.0, 26.0, 50.0), strict=True)]
    assert index_to_lab(0.4, raw)[1:] == pytest.approx(amber[1:])
    assert index_to_lab(0.4, raw)[0] == 45.0, "no lighter than it was"
    assert index_to_lab(99.0, raw) == pytest.approx((7.0, 2.0, 1.5))


@pytest.mark.parametrize("finish", ["broiler", "grill"])
def test_no_seed_moves_the_end_of_a_window_by_a_fifth(finish):
    dish = replace(RIBS, finish=finish, coats=1, timer_min=45.0)
    ends = [forecast(dish, draws=draw_members(seed)).milestones.window for seed in range(1, 7)]
    assert max(w.closes_s for w in ends) < 1.2 * min(w.closes_s for w in ends)
    assert max(w.opens_s for w in ends) < 1.1 * min(w.opens_s for w in ends)


def test_a_tail_is_told_by_the_members_around_it():
    """Of an even spread it is the plain quantile; where the members beyond never get there, too."""
    even, weights = np.linspace(100.0, 200.0, 101), np.ones(101)
    assert tail_quantile(even, weights, 0.05) == pytest.approx(105.0, abs=0.6)
    late = np.where(even > 106.0, np.inf, even)
    assert tail_quantile(late, weights, 0.05) == weighted_quantile(late, weights, 0.05)
    one_early = np.append(even, 1.0)
    plain = weighted_quantile(one_early, np.ones(102), 0.05)
    assert abs(tail_quantile(one_early, np.ones(102), 0.05) - plain) < 2.0
