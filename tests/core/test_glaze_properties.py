"""The film's monotonicity, order, reproducibility and balance, over random sauces, coats and
heats.
"""

from dataclasses import astuple, replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from bluekettle.core.errors import OutOfRange
from bluekettle.core.glaze import (
    BEFORE,
    MILESTONES,
    Act,
    Coating,
    Heat,
    bare_film,
    draw_members,
    read_milestones,
    reweigh,
    run_finish,
    weighted_quantile,
    weighted_quantiles,
)
from bluekettle.core.glaze.milestones import band, bands_of

MEDIAN = draw_members().median_only()
SET, BUBBLING, AMBER, MAHOGANY, BITTER, BURNT = range(6)


@st.composite
def coatings(draw):
    """Sauces from thin to syrupy, sugars in any proportion."""
    water = draw(st.floats(0.3, 0.75))
    sugar = (1 - water) * draw(st.floats(0.4, 0.9))
    kinds = np.array([draw(st.floats(0.05, 1.0)) for _ in range(3)])
    kinds = kinds / kinds.sum() * sugar
    rest = 1 - water - sugar
    mass = draw(st.floats(0.3, 1.2))
    return Coating(
        water, *kinds, 0.7 * rest, 0.1 * rest, 0.1 * rest, 0.05 * rest, 0.05 * rest, mass
    )


heats = st.sampled_from(
    [
        Heat(12, 220, 220, 2650, 0.35),
        Heat(12, 230, 230, 0, 0.2),
        Heat(23, 200, 200, 0, 0.2),
        Heat(50, 200, 200, 0, 0.15),
    ]
)


def median_times(heat, coating, **more):
    """(sites, milestones) of the median member."""
    return run_finish(MEDIAN, heat, coating, [BEFORE], 80.0, 70.0, 3600, **more).times_s[0]


def no_later(first, second):
    """first <= second wherever either is reached, with a step to spare."""
    return bool(np.all((first <= second + 2.0) | (np.isinf(first) & np.isinf(second))))


@given(coatings(), heats)
def test_milestones_come_in_their_order_at_both_sites(coating, heat):
    times = median_times(heat, coating)[:, :6]
    assert np.all(np.diff(np.where(np.isinf(times), 1e6, times), axis=1) >= 0)
    assert no_later(times[1, AMBER:], times[0, AMBER:])  # the edge browns and burns before the face


@given(coatings(), heats, st.floats(1.1, 1.5))
def test_more_heat_is_earlier(coating, heat, gain):
    hotter = replace(
        heat, air_c=heat.air_c + 15, wall_c=heat.wall_c + 15, element_w_m2=heat.element_w_m2 * gain
    )
    assert no_later(median_times(hotter, coating)[:, :6], median_times(heat, coating)[:, :6])


@given(coatings(), heats)
def test_more_water_at_the_same_solids_is_later(coating, heat):
    extra = 0.15
    total = 1 + extra
    parts = {
        n: getattr(coating, n) / total
        for n in ("sucrose", "glucose", "fructose", "other", "protein", "fat", "salt", "acid")
    }
    wetter = replace(
        coating,
        water=(coating.water + extra) / total,
        coat_kg_m2=coating.coat_kg_m2 * total,
        **parts,
    )
    assert no_later(median_times(heat, coating)[:, :6], median_times(heat, wetter)[:, :6])


@given(coatings(), heats)
def test_fructose_browns_before_sucrose_and_more_sugar_before_less(coating, heat):
    sugar = coating.sucrose + coating.glucose + coating.fructose
    fruity = median_times(
        heat, replace(coating, sucrose=0.0, glucose=0.0, fructose=sugar, acid=0.0)
    )
    plain = median_times(heat, replace(coating, sucrose=sugar, glucose=0.0, fructose=0.0, acid=0.0))
    assert no_later(fruity[:, AMBER:6], plain[:, AMBER:6])
    less = replace(
        coating,
        sucrose=0.5 * coating.sucrose,
        glucose=0.5 * coating.glucose,
        fructose=0.5 * coating.fructose,
        other=coating.other + 0.5 * sugar,
    )
    assert no_later(median_times(heat, coating)[:, AMBER:6], median_times(heat, less)[:, AMBER:6])


@given(coatings(), heats)
def test_a_thicker_coat_sets_later(coating, heat):
    thick = replace(coating, coat_kg_m2=1.5 * coating.coat_kg_m2)
    assert no_later(median_times(heat, coating)[:, :1], median_times(heat, thick)[:, :1])


def test_without_sugar_there_is_no_caramel_and_browning_is_slower():
    """Polyol glaze against the same mass of fructose."""
    sugar_free = Coating(0.5, 0, 0, 0, 0.45, 0.02, 0, 0.02, 0.01, 0.6)
    sweet = replace(sugar_free, fructose=0.4, other=0.05)
    heat = Heat(12, 230, 230, 0, 0.2)
    assert not sugar_free.caramelises
    assert sugar_free.sugar_power() == 0.0
    assert sweet.caramelises
    assert (
        median_times(heat, sugar_free)[0, MAHOGANY] > 1.5 * median_times(heat, sweet)[0, MAHOGANY]
    )


def test_a_halved_step_moves_milestones_by_less_than_one_and_a_half_per_cent():
    coating = Coating(0.5, 0.15, 0.12, 0.15, 0.04, 0.01, 0.01, 0.01, 0.01, 0.6)
    for heat in (Heat(12, 220, 220, 2650, 0.35), Heat(50, 200, 200, 0, 0.15)):
        coarse = median_times(heat, coating)[:, AMBER:6]
        fine = median_times(heat, coating, dt_s=1.0)[:, AMBER:6]
        assert np.max(np.abs(coarse / fine - 1)) < 0.015


def test_same_seed_same_bits_other_seed_other_members():
    coating, heat = bare_film(), Heat(12, 220, 220, 2650, 0.35)
    runs = [
        run_finish(draw_members(seed), heat, coating, [BEFORE], 80.0, 70.0, 600).times_s
        for seed in (3, 3, 4)
    ]
    assert runs[0].tobytes() == runs[1].tobytes()
    assert runs[0].tobytes() != runs[2].tobytes()


def test_a_fresh_coat_takes_the_colour_back_and_softens_the_crust():
    """A late wet coat re-wets the crust; that is the reason for "sauce last"."""
    coating, heat = (
        Coating(0.5, 0.15, 0.12, 0.15, 0.04, 0.01, 0.01, 0.01, 0.01, 0.6),
        Heat(12, 230, 230, 0, 0.2),
    )
    run = run_finish(MEDIAN, heat, coating, [BEFORE, Act(600.0, 60.0)], 80.0, 70.0, 1800)
    face = run.traces[0, 0]
    before, after = (int(np.searchsorted(run.sample_s, t)) for t in (590, 620))
    assert face[after, 0] < face[before, 0]
    assert face[after, 2] > face[before, 2]
    assert face[after, 3] < face[before, 3]
    assert run.times_s[0, 0, MILESTONES.index("amber")] > 600


def test_seeing_a_sign_narrows_every_later_milestone():
    coating, heat = (
        Coating(0.5, 0.15, 0.12, 0.15, 0.04, 0.01, 0.01, 0.01, 0.01, 0.6),
        Heat(12, 220, 220, 2650, 0.35),
    )
    run = run_finish(draw_members(), heat, coating, [BEFORE], 80.0, 70.0, 1800)
    amber = run.times_s[:, 1, AMBER]
    equal = np.full(amber.size, 1 / amber.size)
    seen = reweigh([(amber, 1.3 * float(np.median(amber)))], amber.size)

    def ratio(times, weights):
        return weighted_quantile(times, weights, 0.9) / weighted_quantile(times, weights, 0.1)

    for times in (run.times_s[:, 0, AMBER], run.times_s[:, 0, MAHOGANY], run.times_s[:, 1, BURNT]):
        assert ratio(times, seen) < 0.8 * ratio(times, equal)
    # A later sign than expected says a weaker broiler: everything moves later.
    assert weighted_quantile(run.times_s[:, 0, AMBER], seen, 0.5) > weighted_quantile(
        run.times_s[:, 0, AMBER], equal, 0.5
    )


def test_gaps_by_sight_are_far_shorter_under_the_broiler_than_in_the_oven():
    coating = Coating(0.5, 0.15, 0.12, 0.15, 0.04, 0.01, 0.01, 0.01, 0.01, 0.6)
    gaps = []
    for heat in (Heat(12, 240, 240, 5000, 0.35), Heat(12, 200, 200, 0, 0.2)):
        run = run_finish(draw_members(), heat, coating, [BEFORE], 80.0, 70.0, 3600)
        read = read_milestones(run, np.ones(128), "amber")
        gaps.append(read.gaps[1].to_wanted.likely_s)
        assert np.all(np.diff(read.risk) >= 0)
        assert read.look_from_s < read.bands["edge"]["amber"].likely_s
        assert read.look_every_s <= max(5.0, 0.5 * read.gaps[1].to_wanted.low_s)
    assert gaps[0] < 0.5 * gaps[1]


@pytest.mark.parametrize(
    ("field", "bad"),
    [("coat_kg_m2", float("nan")), ("coat_kg_m2", 9.0), ("water", 0.99)],
)
def test_a_coating_out_of_range_is_refused_by_name(field, bad):
    with pytest.raises(OutOfRange, match=field):
        median_times(Heat(12, 220, 220, 0, 0.2), replace(bare_film(), **{field: bad}))


def test_a_heat_out_of_range_is_refused_and_all_faults_come_at_once():
    with pytest.raises(OutOfRange) as caught:
        run_finish(MEDIAN, Heat(0, 900, 220, -1, 0.2), bare_film(), [], 80.0, 70.0, 5)
    assert {f.field for f in caught.value.faults} == {
        "h_w_m2_k",
        "air_c",
        "element_w_m2",
        "coats",
        "acts",
        "time_s",
    }


@given(
    st.lists(st.tuples(st.floats(0, 4000), st.floats(0, 5)), min_size=2, max_size=40).filter(
        lambda m: sum(w for _, w in m) > 0.1
    ),
    st.integers(0, 8),
)
def test_quantiles_are_in_order_within_the_members_and_indifferent_to_scale_and_order(
    members, never
):
    """Members that never get there stand at infinity, and no quantile lies between a time and
    never.
    """
    times = np.array([t for t, _ in members] + [np.inf] * never)
    weights = np.array([w for _, w in members] + [0.5] * never)
    quantiles = (0.05, 0.1, 0.5, 0.9, 0.95)
    found = weighted_quantiles(times, weights, quantiles)
    assert found == sorted(found)
    assert all(times.min() <= q <= times.max() for q in found)
    assert found == [weighted_quantile(times, weights, q) for q in quantiles]
    back = weighted_quantiles(times[::-1].copy(), 3.0 * weights[::-1], quantiles)
    counted = weights > 0
    if len(set(times[counted])) == counted.sum() and counted.all():
        assert np.allclose(found, back, equal_nan=True)


def test_quantiles_of_equal_weights_are_the_usual_ones():
    times = np.arange(1.0, 102.0)
    found = weighted_quantiles(times, np.ones(101), (0.1, 0.5, 0.9))
    assert np.allclose(found, np.quantile(times, (0.1, 0.5, 0.9), method="hazen"))


@given(st.integers(1, 40), st.integers(0, 2**31))
def test_all_bands_read_at_once_are_the_bands_of_each(members, seed):
    draw = np.random.default_rng(seed)
    times = np.round(draw.lognormal(3.0, 1.0, (members, 6)), int(draw.integers(0, 3)))
    times[draw.random((members, 6)) < 0.3] = np.inf
    weights = draw.random(members) + 1e-6
    for found, column in zip(bands_of(times, weights), times.T, strict=True):
        alone = band(column, weights)
        assert (found.low_s is None, found.high_s is None) == (
            alone.low_s is None,
            alone.high_s is None,
        )
        for one, other in zip(astuple(found), astuple(alone), strict=True):
            assert one == other or one == pytest.approx(other, rel=1e-9)


def test_what_is_looked_at_past_its_leaving_is_left_as_it_was_then():
    """One run tells what another run that ends there leaves, and what a third that stays shows."""
    draws, steps = draw_members(1, 32), {"deep_c": 93.0, "surface_c": 74.0, "time_s": 600.0}
    coating = Coating(0.5, 0.15, 0.12, 0.15, 0.04, 0.01, 0.01, 0.01, 0.01, 0.6)
    leaves = np.linspace(60.0, 400.0, draws.members)
    acts = [BEFORE, Act(90.0, 20.0), Act(150.0, 30.0, coat=False, turn=True)]

    def run(acts, **more):
        return run_finish(draws, Heat(12, 230, 230, 0, 0.2), coating, acts, **steps, **more)

    for done in (acts, [BEFORE]):
        stayed = run(done)
        left = run(done, leaves_s=leaves, every_side=True)
        both = run(done, leaves_s=leaves, every_side=True, looks_on=True)
        for mine, theirs in zip(both.lying, left.lying, strict=True):
            assert np.array_equal(mine, theirs)
        assert np.array_equal(both.times_s, stayed.times_s)
        assert np.array_equal(both.traces, stayed.traces)
        assert not np.array_equal(both.lying.coats, run(done, every_side=True).lying.coats)
