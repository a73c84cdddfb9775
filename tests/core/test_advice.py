"""Advice, rescue, last exits and the explorer's map."""

import re
from dataclasses import replace

import numpy as np
import pytest

from bluekettle.core.advice import REGIONS, advise, calmers, explore, plan_exits, rescue, taken
from bluekettle.core.advice.search import (
    MEMBERS,
    Judge,
    candidates,
    coats_words,
    films,
    judge,
    timed,
)
from bluekettle.core.chain import Heat as ChainHeat
from bluekettle.core.chain import Plan, Rest, Until, forecast_plan
from bluekettle.core.errors import MissingData, OutOfRange
from bluekettle.core.glaze import (
    BEFORE,
    Heat,
    draw_members,
    read_milestones,
    run_finish,
    weighted_quantile,
)
from bluekettle.core.ingredients import ingredient
from bluekettle.core.sauce import mix, sample_sauce, sample_sauce_lines
from bluekettle.core.stages import Kitchen, Sighting, cut, finish_keys, finish_kind
from bluekettle.core.stages.finishing import coating_of
from tests.one_cook import Dish, forecast

RIBS = Dish("beef-short-ribs", 1.6, 6, 45.0, sauce=sample_sauce("plum-tea"), coats=2)


@pytest.fixture(scope="module")
def ribs():
    return forecast(RIBS)


def test_advice_is_wider_than_what_is_and_differs_among_its_runners_up(ribs):
    found = advise(ribs.under)
    assert found.choice.width_s > found.now.width_s
    assert found.choice.possible >= 0.9
    assert found.choice.hit >= found.now.hit
    heats = [(s.finish, s.dial) for s in (found.choice, *found.runners)]
    assert len(set(heats)) == 3
    assert len({s.finish for s in (found.choice, *found.runners)}) == 2
    for setting in (found.choice, *found.runners):
        told = "to take it out" if setting.width_s > 0.0 else "by the clock alone right"
        assert told in setting.reason


def test_taking_the_advice_makes_the_window_that_was_promised(ribs):
    choice = advise(ribs.under).choice
    kitchen = Kitchen().having(finish_kind(choice.finish).dial, choice.dial)
    taken = replace(
        RIBS, finish=choice.finish, coats=choice.coats, coat_mm=choice.coat_mm, kitchen=kitchen
    )
    taken = replace(taken, coats_min=choice.coats_min, flips_min=choice.flips_min)
    window = forecast(taken).milestones.window
    assert not window.empty
    assert window.opens_s == pytest.approx(choice.opens_s, rel=0.15)


def test_a_cook_who_turns_the_food_is_told_when_to_turn_it(ribs):
    """The moment that was given leaves one side pale; the moments that are advised do better."""
    turned = replace(RIBS, coats=1, finish="air_fryer", flips_min=(1.0,))
    found = advise(forecast(turned).under)
    assert all(s.flips_min for s in (found.choice, *found.runners))
    assert "turned at" in found.choice.reason
    assert found.choice.width_s > found.now.width_s
    assert found.choice.possible >= found.now.possible


def test_moments_are_tried_at_shares_of_the_time_to_the_colour(ribs):
    """Ten minutes to the colour: turns in its middle half, a late coat at a third, half, and near
    the end, to the half minute."""
    one, draws, below = replace(RIBS, coats=1).fire, draw_members(1, 16), ribs.under.below
    found = timed(one, 600.0)
    assert [d.flips_min for d in found if d.flips_min] == [(4.0,), (5.0,), (6.0,)]
    late = [d for d in found if d.coats_min]
    assert [d.coats_min for d in late] == [(3.0,), (5.5,), (8.0,)]
    assert "one coat, the first after 5.5 min" in coats_words(judge(late[1], below, draws))
    assert coats_words(judge(one, below, draws)) == "one coat"


@pytest.mark.parametrize("finish", ["oven", "air_fryer"])
def test_the_quick_search_finds_as_wide_a_window_as_the_whole_one(ribs, finish):
    """Every heat, number and thickness of coats of one appliance, each judged closely."""
    dish = replace(RIBS, finish=finish)
    usual = candidates(dish.fire, finish)
    everything = [*usual, *(film for first in usual for film in films(first))]
    whole = Judge(ribs.under.below, draw_members(dish.seed, MEMBERS)).all(everything)
    found = advise(replace(ribs.under, dish=dish.fire))
    same = [s for s in (found.choice, *found.runners) if s.finish == finish]
    assert same[0].possible >= min(0.9, whole[0][0].possible)
    assert same[0].width_s >= 0.93 * whole[0][0].width_s


def test_food_between_two_plates_is_never_advised_to_be_turned():
    dish = replace(RIBS, coats=1, finish="contact")
    found = advise(forecast(dish).under)
    assert not any(s.flips_min for s in (found.choice, *found.runners) if s.finish == "contact")


def test_where_nothing_is_safe_it_is_said_with_what_would_make_one():
    """A sweet syrup right under a fierce element, wanted dark: edges are gone before the face is
    there.
    """
    syrup = mix("syrup", [("honey", 0.2), ("soy-sauce", 0.06), ("lemon-juice", 0.03)])
    fierce = Kitchen(broiler_w_m2=9000.0, rack_m=0.05, air_fryer_c=230.0)
    dish = replace(RIBS, sauce=syrup, coats=1, want="mahogany", kitchen=fierce)
    f = forecast(dish)
    assert f.milestones.possible < 0.3
    found = advise(f.under)
    assert found.now.possible < 0.3
    assert found.choice.possible > found.now.possible
    assert (found.none_safe != "") == (found.choice.possible < 0.9)


def test_dark_edges_and_a_pale_face_are_best_helped_by_foil_or_less_heat(ribs):
    seen = replace(RIBS, sightings=(Sighting("amber at the edges", 150.0),))
    under, draws = replace(ribs.under, dish=seen.fire), draw_members(seen.seed)
    ways = {w.do: w for w in rescue(under, draws, 200.0)}
    leave = ways["Leave it as it is"]
    assert ways["Foil over the edges"].chance > leave.chance
    assert ways["Foil over the edges"].risk < leave.risk
    assert ways["Lower the rack"].risk < leave.risk
    assert ways["Lower the rack"].more_s > leave.more_s
    assert ways["Pull it now"].more_s == 0
    ordered = [w.chance - w.risk for w in rescue(under, draws, 200.0)]
    assert ordered == sorted(ordered, reverse=True)
    with pytest.raises(OutOfRange, match="at_s"):
        rescue(under, draws, 0.0)


def test_a_way_out_that_was_taken_is_the_film_from_then_on():
    """Before it nothing changes; after it less heat takes longer, and foil leaves the edges behind;
    what was seen still counts."""
    plan = replace(RIBS, coats=1, sightings=(Sighting("amber at the edges", 100.0),)).plan
    fire = forecast_plan(plan).fires[-1]
    draws = draw_members(plan.seed)
    calmer, foil = (taken(fire, draws, key, 120.0) for key in ("calmer", "foil"))
    for other in (calmer, foil):
        times, own = fire.finish.times_s, other.finish.times_s
        before = times < 110.0
        assert before.sum() > 200
        assert np.abs(own[before] - times[before]).max() < 1.0
        assert other.weights.sum() == pytest.approx(1.0)
        assert not np.allclose(other.weights, other.weights[0])
    likely = {
        name: weighted_quantile(f.pull_s, f.weights, 0.5)
        for name, f in (("as is", fire), ("calmer", calmer), ("foil", foil))
    }
    assert likely["calmer"] > 1.2 * likely["as is"]
    assert likely["foil"] >= 120.0

    def burnt_s(one):
        return weighted_quantile(one.finish.times_s[:, 1, 5], one.weights, 0.5)

    assert burnt_s(calmer) > 1.3 * burnt_s(fire)
    assert burnt_s(foil) > 1.3 * burnt_s(fire)
    with pytest.raises(MissingData, match="blow on it"):
        taken(fire, draws, "blow on it", 120.0)
    with pytest.raises(OutOfRange, match="at_s"):
        taken(fire, draws, "calmer", 0.0)


@pytest.mark.parametrize("finish", finish_keys())
def test_every_appliance_has_a_way_out_of_it_that_is_another_one(finish):
    """What is done to the heat makes it gentler, and where it is moved to is not where it is."""
    dish = replace(RIBS, coats=1, finish=finish)
    under, draws = forecast(dish, None, draw_members(1, 32)).under, draw_members(1, 32)
    ways = {w.do: w for w in rescue(under, draws, 60.0)}
    leave, kind = ways["Leave it as it is"], dish.fire.kind
    calmer, other = ways[kind.calmer], finish_kind(kind.elsewhere)
    assert calmer.more_s is None or leave.more_s is None or calmer.more_s >= leave.more_s
    assert [do for do in ways if do.startswith(other.into)]
    assert other.key != finish
    assert ("Foil over the edges" in ways) == (kind.sides == 1)


def test_last_exits_come_in_order_and_leave_time_for_what_follows():
    """Each says what it is made of: the minutes in its reason add up to it, to their rounding."""
    stages = (
        ChainHeat("pot", "pressure", Until("bite", bite="falls")),
        ChainHeat("broil", "broiler", Until("colour")),
        Rest("rest", 4.0),
    )
    found = forecast_plan(Plan("beef-short-ribs", 1.6, 6, 45.0, stages))
    exits = plan_exits(found, "broil")
    times = [e.before_serving_s for e in exits]
    assert len(exits) == 3
    assert times == sorted(times, reverse=True)
    fire = next(link for link in found.links if link.fire == "broil")
    assert all(t > fire.band.likely_s for t in times)
    said = {e.do: [float(n) for n in re.findall(r"(\d+) min", e.why)] for e in exits}
    seconds = {e.do: e.before_serving_s for e in exits}
    for do in ("cook it longer", "finish it in an air fryer"):
        assert sum(said[do]) == pytest.approx(seconds[do] / 60.0, abs=1.0)
    onward = said["finish it in an air fryer"][1]
    skipped = seconds["begin this fire and skip the rest"] / 60.0
    assert skipped == pytest.approx(onward - 4.0, abs=0.5)
    assert plan_exits(found, "pot") == ()


def test_the_way_back_is_from_the_last_check_before_the_fire():
    """Two slow heats, each with its check: it goes back to the second, later in the evening."""
    stages = (
        ChainHeat("pot", "pressure", Until("bite", bite="tug")),
        ChainHeat("oven", "oven", Until("bite", bite="falls"), 150.0),
        ChainHeat("broil", "broiler", Until("colour")),
    )
    found = forecast_plan(Plan("beef-short-ribs", 1.6, 6, 45.0, stages), None, draw_members(1, 16))
    gates = [link for link in found.links if link.who == "gate"]
    assert len(gates) == 2
    longer = next(e for e in plan_exits(found, "broil") if e.do == "cook it longer")
    onward = float(re.findall(r"(\d+) min", longer.why)[1])
    assert onward < gates[0].start.likely_s / 60.0 - 5.0


def test_without_a_check_or_a_rest_there_is_nothing_to_go_back_to_or_to_leave_out():
    stages = (ChainHeat("fry", "air_fryer", Until("colour")),)
    found = forecast_plan(Plan("cauliflower", 0.9, 8, 30.0, stages))
    assert [e.do for e in plan_exits(found, "fry")] == ["finish it in the oven's broiler"]


@pytest.mark.parametrize("finish", ["oven", "air_fryer"])
def test_the_map_goes_on_in_time_and_comes_sooner_with_heat_and_at_the_edge(finish):
    dish = replace(RIBS, finish=finish, coats=1)
    f = forecast(dish)
    found = explore(f.under)
    assert found.face.shape == found.edge.shape == (40, 60)
    assert np.all(np.diff(found.face, axis=1) >= 0)
    assert np.all(found.edge >= found.face)
    hotter = -1 if finish == "broiler" else 1  # a farther rack is cooler
    assert np.all(np.diff(found.face, axis=0)[:, 10:] * hotter >= 0)
    assert found.face.max() == REGIONS.index("burnt")
    with pytest.raises(OutOfRange, match="time_s"):
        explore(f.under, 9.0)


# Three worked examples, read as a cook would.


def test_a_thin_sweet_glaze_close_under_a_strong_broiler_is_a_matter_of_seconds():
    close = replace(RIBS, coats=1, coat_mm=0.3, kitchen=Kitchen(broiler_w_m2=4500.0, rack_m=0.08))
    gap = forecast(close).milestones.gaps[1].to_wanted
    assert gap.likely_s < 75
    assert forecast(close).milestones.look_from_s < 45


def test_a_thick_tomato_sauce_in_a_hot_oven_browns_slowly_with_a_window_of_minutes():
    tomato = mix(
        "tomato", [("tomato-passata", 0.2), ("brown-sugar", 0.03), ("cider-vinegar", 0.02)]
    )
    film = coating_of(replace(RIBS, sauce=tomato, coats=1, coat_mm=1.0).fire, cut(RIBS.cut))
    run = run_finish(draw_members(), Heat(12, 230, 230, 0, 0.2), film, [BEFORE], 80.0, 70.0, 3600)
    read = read_milestones(run, np.ones(128), "amber")
    assert 480 < read.bands["face"]["amber"].likely_s < 1200
    assert read.gaps[1].to_wanted.likely_s > 120
    assert read.gaps[1].wanted_to_burnt.low_s > 150


def test_a_thick_tomato_sauce_in_gentle_heat_takes_its_time_and_forgives():
    tomato = mix(
        "tomato", [("tomato-passata", 0.2), ("brown-sugar", 0.03), ("cider-vinegar", 0.02)]
    )
    slow = replace(
        RIBS,
        sauce=tomato,
        coats=1,
        coat_mm=1.0,
        finish="air_fryer",
        kitchen=Kitchen(air_fryer_c=170.0),
    )
    read = forecast(slow).milestones
    assert read.bands["face"]["amber"].likely_s > 300
    assert not read.window.empty
    assert read.gaps[1].wanted_to_burnt.low_s > 90


def test_a_sugar_free_glaze_in_an_air_fryer_browns_late_and_without_caramel():
    polyol = mix("light", [("polyol-sweetener", 0.1), ("water", 0.05), ("lemon-juice", 0.02)])
    light = forecast(replace(RIBS, sauce=polyol, coats=1, finish="air_fryer"))
    sweet = forecast(replace(RIBS, coats=1, finish="air_fryer"))
    assert not light.coating.caramelises
    assert (
        light.milestones.bands["face"]["mahogany"].likely_s
        > 1.3 * sweet.milestones.bands["face"]["mahogany"].likely_s
    )


def test_what_would_calm_a_glaze_is_ordered_bounded_and_reckoned_as_it_is_simmered():
    lines = [(ingredient(key), mass) for key, mass in sample_sauce_lines("plum-tea")]
    found = calmers(lines)
    later = [c.later_s for c in found]
    assert later == sorted(later, reverse=True)
    assert all(5.0 < s <= 1800.0 for s in later)
    assert {c.do for c in found} >= {"white sugar for the plum jam", "half of the plum jam"}
    assert min(later) < 1800.0, "what is asked is bounded, not all of it told as the bound"
    simmered = {c.do: c.later_s for c in calmers(lines, water=0.25)}
    assert simmered
    assert all(simmered.get(c.do) != c.later_s for c in found if c.later_s < 1800.0)
