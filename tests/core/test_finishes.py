"""Second heats of a dish: each appliance by its dial, coats at the cook's own minutes, and
turns.
"""

from dataclasses import replace

import numpy as np
import pytest

from bluekettle.core.chain import Until, forecast_plan
from bluekettle.core.glaze import BEFORE, Heat, draw_members, run_finish
from bluekettle.core.sauce import mix, sample_sauce
from bluekettle.core.stages import FINISHES, Kitchen, film_of, finish_kind, plan_calls
from tests.one_cook import Dish, forecast, watch_outs

RIBS = Dish("beef-short-ribs", 1.6, 6, 45.0, sauce=sample_sauce("plum-tea"), coats=1)
MEDIAN = draw_members().median_only()
TOMATO = mix("tomato", [("ketchup", 0.3), ("brown-sugar", 0.03), ("cider-vinegar", 0.03)])


def likely(found, site, mark):
    return found.milestones.bands[site][mark].likely_s


def stage(found, key):
    return found.link(key)


@pytest.mark.parametrize("finish", FINISHES)
def test_turning_the_dial_towards_fierce_brings_every_colour_sooner(finish):
    kind = finish_kind(finish)
    dials = np.linspace(kind.gentle, kind.fierce, 4)
    runs = [
        forecast(replace(RIBS, finish=finish, kitchen=Kitchen(**{kind.dial: float(d)})))
        for d in dials
    ]
    for site, mark in (("face", "amber"), ("edge", "amber"), ("face", "mahogany")):
        times = [likely(run, site, mark) or np.inf for run in runs]
        assert times == sorted(times, reverse=True), (site, mark, times)
    assert kind.dial not in runs[0].assumed
    assert set(kind.figures) - {kind.dial} <= set(runs[0].assumed)


def test_a_thick_tomato_sauce_in_a_hot_oven_keeps_the_times_kitchens_know():
    """230 °C still oven on hot moist ribs: face amber in 6 to 9 min, mahogany in 10 to 16 (design
    figures).
    """
    found = forecast(replace(RIBS, sauce=TOMATO, finish="oven"))
    assert 6 * 60 <= likely(found, "face", "amber") <= 9 * 60
    assert 10 * 60 <= likely(found, "face", "mahogany") <= 16 * 60
    assert not found.milestones.window.empty
    assert likely(
        forecast(replace(RIBS, sauce=TOMATO, finish="oven", coat_mm=1.2)), "face", "set"
    ) > likely(found, "face", "set")


def test_a_later_first_coat_sets_and_colours_later_and_lies_on_bare_food_until_then():
    marks = []
    for minute in (0.0, 2.0, 5.0):
        found = forecast(replace(RIBS, finish="oven", coats_min=(minute,)))
        marks.append([likely(found, "face", name) for name in ("set", "amber", "mahogany")])
        assert marks[-1][0] > 60.0 * minute
        before = found.finish.sample_s < 60.0 * minute
        assert found.strip_index[0][before].max(initial=0.0) < 0.4, (
            "bare food is not amber in minutes"
        )
    assert np.all(np.diff(np.array(marks), axis=0) > 0)


def test_a_coat_under_the_heat_is_called_for_and_not_brushed_before():
    found = forecast(replace(RIBS, finish="oven", coats=2, coats_min=(3.0, 7.0), flips_min=(5.0,)))
    assert "brush.dress" not in found.keys
    assert "brush.dress" in forecast(RIBS).keys
    calls = plan_calls(found.milestones, found.finish.sample_s, found.finish.acts)
    said = [(c.says, c.at_s) for c in calls if c.level == "act"]
    assert said == [("Next coat now", 180.0), ("Turn it now", 300.0), ("Next coat now", 420.0)]
    steps = [(s.key, s.who, s.act) for s in found.stages if s.fire]
    assert steps == [
        ("finish.finish", "fire", ""),
        ("finish.coat-1", "hands", "coat"),
        ("finish.finish-2", "fire", ""),
        ("finish.turn-1", "hands", "turn"),
        ("finish.finish-3", "fire", ""),
        ("finish.coat-2", "hands", "coat"),
        ("finish.finish-4", "fire", ""),
    ]


def test_a_turned_piece_browns_on_the_side_that_faces_the_heat_and_needs_both():
    once = forecast(RIBS)
    turned = forecast(replace(RIBS, flips_min=(2.0,)))
    at = turned.finish.sample_s
    face, _edge, back = turned.strip_index
    assert back[at <= 120].max() < 0.2 * face[at <= 120].max()
    after = (at > 130) & (at < 400)
    assert np.all(np.diff(back[after]) >= 0)
    assert back[after][-1] > face[after][-1]
    assert face[at < 400][-1] < once.strip_index[0][once.finish.sample_s < 400][-1]
    # Both sides have to be there: that takes longer than one.
    ready = turned.milestones.window.opens_s
    assert ready is None or ready > likely(once, "face", "amber")


def test_a_crisping_lid_waits_for_its_pot_and_an_oven_keeps_the_braise_heat():
    lid = forecast(replace(RIBS, finish="crisping_lid"))
    assert (
        stage(lid, "finish.warm_up").start.likely_s <= stage(lid, "cook.check").start.likely_s + 1.0
    )
    fryer = forecast(replace(RIBS, finish="air_fryer"))
    assert stage(fryer, "finish.warm_up").start.likely_s > stage(fryer, "cook.check").start.likely_s
    cold = stage(forecast(replace(RIBS, finish="oven")), "finish.warm_up").band.likely_s
    warm = stage(
        forecast(replace(RIBS, finish="oven", tenderise="braise", bite="tug")), "finish.warm_up"
    ).band.likely_s
    assert warm == pytest.approx(cold * (230 - 150) / (230 - 21), rel=0.02)


def test_a_contact_grill_browns_both_sides_in_a_minute_or_two_and_burns_a_glaze_soon():
    """190 °C on hot food: bare faces mahogany in 1 to 3 min; a sweet glaze is amber in about 1 and
    burnt within 5.
    """
    bare = forecast(replace(RIBS, finish="contact", sauce=None, coats=0, want="mahogany"))
    assert 60 <= likely(bare, "face", "mahogany") <= 180
    glazed = forecast(replace(RIBS, finish="contact"))
    assert 40 <= likely(glazed, "face", "amber") <= 100
    assert likely(glazed, "edge", "burnt") < 300
    slow = forecast(replace(RIBS, finish="oven"))
    assert likely(slow, "face", "amber") > 3 * likely(glazed, "face", "amber")


def test_steam_that_cannot_leave_keeps_a_film_wet_for_longer():
    heat, film = Heat(50, 160, 160, 0, 0.15), film_of(sample_sauce("plum-tea"), 0.6)
    times = [
        run_finish(MEDIAN, replace(heat, vent=v), film, [BEFORE], 80.0, 70.0, 1800).times_s[0, 0]
        for v in (1.0, 0.3, 0.1)
    ]
    assert times[0][0] < times[1][0] < times[2][0]


def test_a_grill_said_to_stand_indoors_is_stopped_and_each_finish_has_its_own_caution():
    ids = {
        f: {w.id: w.level for w in watch_outs(forecast(replace(RIBS, finish=f)))} for f in FINISHES
    }
    for grill in ("grill", "charcoal"):
        assert ids[grill][f"{grill}-outdoors"] == "careful"
        inside = Kitchen(indoors=frozenset({grill}))
        told = watch_outs(forecast(replace(RIBS, finish=grill, kitchen=inside)))
        assert {w.id: w.level for w in told}[f"{grill}-outdoors"] == "stop"
    outdoors = [f for f in FINISHES if any(key.endswith("-outdoors") for key in ids[f])]
    assert outdoors == ["grill", "charcoal"]
    cautions = {"broiler", "vents", "hot-tray", "lid-swap", "flare", "plates"}
    own = [set(ids[f]) & cautions for f in FINISHES]
    assert all(len(found) == 1 for found in own)
    assert set.union(*own) == cautions
    assert [f for f in FINISHES if "coals" in ids[f]] == ["charcoal"]


def test_the_heat_is_looked_at_half_as_long_again_as_its_last_coat():
    """Amber within minutes, and a coat at the twentieth: half an hour is looked at, no more."""
    late = replace(RIBS, finish="broiler", coats=2, coats_min=(0.0, 20.0))
    seen = forecast(late, draws=draw_members(1, 16)).finish.sample_s[-1] / 60.0
    assert 30.0 <= seen < 32.0


def test_what_comes_long_after_a_timer_is_not_looked_at():
    """Three times as long as an oven glaze takes; with a timer of six minutes, twice that."""
    open_ended = replace(RIBS, finish="oven").plan
    place = next(i for i, one in enumerate(open_ended.stages) if one.id == "finish")
    timed = replace(open_ended.stages[place], until=Until("minutes", 6.0))
    before, after = open_ended.stages[:place], open_ended.stages[place + 1 :]
    seen = [
        forecast_plan(plan, draws=draw_members(1, 16)).fires[-1].finish.sample_s[-1] / 60.0
        for plan in (open_ended, replace(open_ended, stages=(*before, timed, *after)))
    ]
    assert seen[0] > 20.0
    assert 6.0 < seen[1] <= 13.0
