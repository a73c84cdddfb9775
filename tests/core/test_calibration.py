"""What sightings teach, within a cook and from cook to cook."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.stats import norm

from bluekettle.core.calibration import (
    COLOURS,
    NAMES,
    Belief,
    CameOut,
    SignSeen,
    colour_chances,
    draw_factors,
    first_belief,
    learn,
    learn_colour,
    learn_from,
    learn_from_colour,
    next_cook,
    predict,
    scout_times,
)
from bluekettle.core.errors import OutOfRange
from bluekettle.core.glaze import (
    BEFORE,
    DAMP_BREAD,
    Act,
    Coating,
    Heat,
    draw_members,
    oiled,
    rubbed_film,
    run_finish,
    weighted_quantile,
)

GLAZE = Coating(0.5, 0.15, 0.12, 0.15, 0.04, 0.01, 0.01, 0.01, 0.01, 0.6)
BROILER = Heat(12, 220, 220, 2650, 0.35)
FACE, EDGE = 0, 1
AMBER, MAHOGANY, BURNT = 2, 3, 5
FIERCE = np.array(
    [0.3, -0.2, 0.15, 0.2]
)  # a truth that is hotter, thinner and browner than typical


def evening(truth, **more):
    """Milestones of one known evening, (sites, 7)."""
    run = run_finish(
        draw_members(1, 16),
        BROILER,
        GLAZE,
        [BEFORE],
        80.0,
        70.0,
        3600,
        log_factors=np.tile(truth, (16, 1)),
        **more,
    )
    return run.times_s[0]


def band(belief, site, mark):
    finish, _ = predict(belief, BROILER, GLAZE, 3600.0)
    times = finish.times_s[:, site, mark]
    equal = np.ones(len(times))
    return [weighted_quantile(times, equal, q) for q in (0.1, 0.5, 0.9)]


def test_one_sighting_narrows_and_moves_towards_the_truth():
    before = first_belief(BROILER.spread)
    truth = evening(FIERCE)
    after = learn_from(
        before, BROILER, GLAZE, [SignSeen("amber at the edges", float(truth[EDGE, AMBER]))]
    )
    for site, mark in ((FACE, MAHOGANY), (EDGE, BURNT)):
        wide, narrow = band(before, site, mark), band(after, site, mark)
        assert narrow[2] / narrow[0] < 0.6 * wide[2] / wide[0]
        assert abs(np.log(narrow[1] / truth[site, mark])) < 0.4 * abs(
            np.log(wide[1] / truth[site, mark])
        )
    assert after.factor("heat") > 1.1
    assert all(after.sd(name) <= before.sd(name) + 1e-9 for name in NAMES)


def test_six_evenings_leave_the_next_one_far_narrower_than_the_first():
    rng = np.random.default_rng(5)
    belief = first_belief(BROILER.spread)
    for _ in range(6):
        tonight = evening(FIERCE + rng.normal(size=4) * np.array([0.05, 0.2, 0.2, 0.2]))
        seen = float(tonight[EDGE, AMBER] * np.exp(0.15 * rng.normal()))
        belief = learn_from(
            belief, BROILER, GLAZE, [SignSeen("amber at the edges", seen)], another_evening=True
        )
    wide, narrow = band(first_belief(BROILER.spread), FACE, MAHOGANY), band(belief, FACE, MAHOGANY)
    assert narrow[2] / narrow[0] < 0.6 * wide[2] / wide[0]
    assert narrow[0] < evening(FIERCE)[FACE, MAHOGANY] < narrow[2]
    assert belief.seen == 6


# Variances of heat, coat, interface and browning: 0.35² and three of 0.3², of which an evening
# draws 0.05² and 0.2² anew (design).
EVENINGS = np.array([0.05, 0.2, 0.2, 0.2]) ** 2
HABITS = np.array([0.35, 0.3, 0.3, 0.3]) ** 2 - EVENINGS


@pytest.mark.parametrize("evenings", [1, 2, 5])
def test_what_whole_evenings_leave_is_what_normal_habits_and_evenings_leave(evenings):
    """Each seen exactly: the habit by the precision of a mean of n normal figures, one more evening
    on top (any textbook of statistics)."""
    truths = np.random.default_rng(1).normal(size=(evenings, 4)) * 0.3
    belief = first_belief(0.35)
    for truth in truths:
        belief = next_cook(belief, Belief(truth, 1e-9 * np.eye(4), belief.seen + 1))
    habit = 1.0 / (1.0 / HABITS + evenings / EVENINGS)
    assert belief.cov == pytest.approx(np.diag(habit + EVENINGS), abs=1e-6)
    assert belief.mean == pytest.approx(truths.sum(axis=0) / EVENINGS * habit, abs=1e-6)
    assert belief.seen == evenings


def test_an_evening_without_a_sign_leaves_the_belief_as_it_was():
    first = first_belief(0.35)
    before = next_cook(first, learn(first, *one_sign(0.2)))
    assert before.sd("coat") < first.sd("coat")
    after = next_cook(before, before)
    assert after.cov == pytest.approx(before.cov, abs=1e-12)
    assert after.mean == pytest.approx(before.mean, abs=1e-12)


def test_no_next_evening_is_surer_than_an_evening_is():
    """However narrow a kept belief, and whatever it is correlated with."""
    kept = Belief(np.full(4, 0.1), np.full((4, 4), 1e-4) + 1e-5 * np.eye(4), 9)
    after = next_cook(kept, kept)
    assert np.linalg.eigvalsh(after.cov - np.diag(EVENINGS)).min() > -1e-12
    assert after.mean == pytest.approx(kept.mean)


def one_sign(shift):
    """Members and log ratios of a sign that comes as the sum of the four tells."""
    factors = draw_factors(first_belief(0.35))
    return factors, shift - factors.sum(axis=1)


def test_a_sign_on_colder_food_tells_of_a_fiercer_heat():
    """The same amber after the same time, but the heat had to warm it first."""
    first = first_belief(BROILER.spread)
    seen = SignSeen("amber at the edges", float(evening(np.zeros(4))[EDGE, AMBER]))
    warm, cold = (
        learn_from(first, BROILER, GLAZE, [one])
        for one in (seen, replace(seen, deep_c=30.0, surface_c=20.0))
    )
    assert abs(np.log(warm.factor("heat"))) < 0.05
    assert cold.factor("heat") > 1.05 * warm.factor("heat")
    with pytest.raises(OutOfRange, match="surface_c"):
        learn_from(first, BROILER, GLAZE, [replace(seen, surface_c=140.0)])


def test_a_scout_on_damp_bread_teaches_the_dish():
    """Bread has its own substrate; its colour times move the dish's the right way and narrow
    them.
    """
    before = first_belief(BROILER.spread)
    bread = evening(FIERCE, ground=DAMP_BREAD)
    scout = run_finish(
        draw_members(1, 16),
        BROILER,
        GLAZE,
        [BEFORE],
        21.0,
        21.0,
        600,
        log_factors=np.tile(FIERCE, (16, 1)),
        ground=DAMP_BREAD,
    ).times_s[0]
    after = learn_from(
        before,
        BROILER,
        GLAZE,
        [SignSeen("amber at the edges", float(scout[EDGE, AMBER]), scout=True)],
    )
    wide, narrow = band(before, FACE, MAHOGANY), band(after, FACE, MAHOGANY)
    truth = evening(FIERCE)[FACE, MAHOGANY]
    assert narrow[2] / narrow[0] < 0.75 * wide[2] / wide[0]
    assert abs(np.log(narrow[1] / truth)) < abs(np.log(wide[1] / truth))
    assert bread[EDGE, AMBER] < scout[EDGE, AMBER]  # a cold scout starts later than a hot one
    typical = scout_times(BROILER, GLAZE, np.zeros((16, 4))).times_s[0]
    assert not np.isclose(typical[FACE, AMBER], evening(np.zeros(4))[FACE, AMBER], rtol=0.02)


def test_an_odd_sighting_counts_for_less_and_none_teaches_what_cannot_be():
    before = first_belief(BROILER.spread)
    factors = draw_factors(before)
    gentle, wild = (
        learn(before, factors, np.full(256, shift) - factors[:, 0]) for shift in (0.3, 3.0)
    )
    assert abs(wild.mean[0]) < 4 * abs(gentle.mean[0])
    with pytest.raises(OutOfRange, match="show the sign"):
        learn(before, factors, np.full(256, np.inf))
    with pytest.raises(OutOfRange) as caught:
        learn_from(before, BROILER, GLAZE, [SignSeen("smoke", -1.0)])
    assert {f.field for f in caught.value.faults} == {"observations.0.at_s", "observations.0.sign"}
    with pytest.raises(OutOfRange, match="heat_sd"):
        first_belief(5.0)


def test_same_seed_same_bits():
    belief = first_belief(0.35)
    assert draw_factors(belief, 3).tobytes() == draw_factors(belief, 3).tobytes()
    assert draw_factors(belief, 3).tobytes() != draw_factors(belief, 4).tobytes()


# The film's other parts: flips, rubs, a change of heat.

MEDIAN = draw_members().median_only()


def median_run(coating=GLAZE, acts=(BEFORE,), **more):
    return run_finish(MEDIAN, Heat(50, 200, 200, 0, 0.15), coating, acts, 80.0, 70.0, 1800, **more)


def turn_at(at_s):
    return Act(at_s, coat=False, turn=True)


def test_a_flip_browns_the_back_and_holds_the_face():
    plain, turned = median_run(), median_run(acts=[BEFORE, turn_at(180.0)])
    assert turned.times_s.shape[1] == 3
    assert turned.times_s[0, 0, MAHOGANY] > plain.times_s[0, 0, MAHOGANY]
    back = median_run(acts=[BEFORE, turn_at(1700.0)]).times_s[0, 2]
    assert turned.times_s[0, 2, AMBER] < back[AMBER]
    # The rim that was nearest to the fire is away from it after the turn.
    assert np.all(turned.times_s[0, 1] >= plain.times_s[0, 1])
    assert turned.times_s[0, 1, MAHOGANY] > 1.1 * plain.times_s[0, 1, MAHOGANY]


def test_rubs_brown_by_their_sugar_and_baking_powder_hastens_bare_skin():
    bare, alkaline, sugared = (
        median_run(rubbed_film(s, 0.05, baking_powder=b)).times_s[0, 0, MAHOGANY]
        for s, b in ((0.0, False), (0.0, True), (0.2, False))
    )
    assert alkaline < 0.9 * bare
    assert sugared < bare
    assert rubbed_film(0.2).caramelises
    assert not rubbed_film(0.0).caramelises
    with pytest.raises(OutOfRange, match="sugar_kg_m2"):
        rubbed_film(9.0)
    with pytest.raises(OutOfRange):
        oiled(GLAZE)


@pytest.mark.parametrize("edge", [-0.5, 0.2, 0.9])
def test_a_colour_moves_the_belief_as_a_threshold_on_a_normal_does(edge):
    """A colour that shows where a sum of the factors, seen with an error, lies under an edge: what
    is left is the normal of textbooks, cut softly, and a doubtful tenth of what was believed."""
    slope, error, doubt = np.array([1.2, -0.3, -0.4, 0.8]), 0.15, 0.1 / len(COLOURS)
    belief = Belief(np.array([0.1, 0.0, -0.1, 0.05]), first_belief(0.35).cov)
    factors = draw_factors(belief, members=1024)
    after = learn_colour(belief, factors, norm.cdf((edge - factors @ slope) / error))
    sd = np.sqrt(slope @ belief.cov @ slope + error**2)
    z = (edge - slope @ belief.mean) / sd
    share = 0.9 * norm.cdf(z) / (0.9 * norm.cdf(z) + doubt)
    mills = norm.pdf(z) / norm.cdf(z)
    towards = belief.cov @ slope / sd
    moved, narrower = -share * mills, share * mills * (z + mills)
    spread = share * (1.0 - share) * mills**2  # of the two: believed, and misjudged
    np.testing.assert_allclose(after.mean, belief.mean + moved * towards, atol=0.02)
    expected = belief.cov + (spread - narrower) * np.outer(towards, towards)
    np.testing.assert_allclose(after.cov, expected, atol=0.012)
    assert after.seen == 1


def test_the_colours_of_a_known_evening_follow_its_milestones():
    """By a sharp eye each moment has the colour whose milestone came last; chances add up to 1."""
    run = run_finish(draw_members(1, 16), BROILER, GLAZE, [BEFORE], 80.0, 70.0, 1800.0)
    for at_s in (60.0, 200.0, 330.0, 420.0, 900.0):
        sharp = colour_chances(run, at_s, log_sd=0.01)
        np.testing.assert_allclose(sharp.sum(axis=1), 1.0, atol=1e-9)
        for times, chances in zip(run.times_s, sharp, strict=True):
            come = [times[FACE, AMBER], times[FACE, MAHOGANY], times[EDGE, 4], times[EDGE, BURNT]]
            if all(abs(np.log(at_s / t)) > 0.05 for t in come):
                last = max((i + 1 for i, t in enumerate(come) if t <= at_s), default=0)
                assert chances[last] > 0.999


def test_colours_told_afterwards_make_bands_narrower_and_no_less_true():
    """Forty evenings of unknown factors, taken out at any moment, each colour told as it was."""
    belief, rng = first_belief(0.35), np.random.default_rng(7)
    truths = draw_factors(belief, seed=5, members=64)[1:41]
    hits, narrower, colours = 0, [], set()
    first = band(belief, FACE, MAHOGANY)
    wide = np.log(first[2] / first[0])
    for truth in truths:
        times, at_s = evening(truth), float(rng.uniform(120.0, 480.0))
        come = [times[FACE, AMBER], times[FACE, MAHOGANY], times[EDGE, 4], times[EDGE, BURNT]]
        colour = COLOURS[max((i + 1 for i, t in enumerate(come) if t <= at_s), default=0)]
        after = learn_from_colour(belief, BROILER, GLAZE, CameOut(colour, at_s))
        low, _, high = band(after, FACE, MAHOGANY)
        hits += low <= times[FACE, MAHOGANY] <= high
        narrower.append(np.log(high / low) / wide)
        colours.add(colour)
    assert colours >= {"pale", "amber", "bitter", "burnt"}
    assert hits >= 28, "of forty, by bands of eight in ten"
    assert np.median(narrower) < 0.75


def test_coats_and_turns_before_a_sign_are_part_of_what_it_tells():
    """A second coat keeps the face pale for longer: the same second tells of a fiercer heat."""
    belief = first_belief(0.35)
    twice = (BEFORE, Act(150.0, 20.0))
    for told in (SignSeen("dark", 330.0), CameOut("mahogany", 330.0)):
        learns = learn_from_colour if isinstance(told, CameOut) else once
        plain = learns(belief, BROILER, GLAZE, told)
        coated = learns(belief, BROILER, GLAZE, replace(told, acts=twice))
        assert coated.mean[0] > plain.mean[0] + 0.03


def once(belief, heat, coating, told):
    return learn_from(belief, heat, coating, [told])


def test_a_colour_that_is_none_and_times_that_are_none_are_refused():
    belief = first_belief(0.35)
    for told, field in (
        (CameOut("green", 300.0), "colour"),
        (CameOut("amber", 0.0), "at_s"),
        (CameOut("amber", 20_000.0), "at_s"),
        (CameOut("amber", 300.0, deep_c=140.0), "deep_c"),
    ):
        with pytest.raises(OutOfRange) as refused:
            learn_from_colour(belief, BROILER, GLAZE, told)
        assert [fault.field for fault in refused.value.faults] == [field]
    with pytest.raises(OutOfRange):
        learn_colour(belief, draw_factors(belief), np.full(256, 1.5))
