"""The same food through the same list: a dish of one first heat and one finish is the chain that it
is read as; and what a stage hands on is what the next one begins with.
"""

from dataclasses import replace

import numpy as np
import pytest

from bluekettle.core.chain import (
    Beside,
    Cool,
    Dress,
    Heat,
    HeatAct,
    Layer,
    Plan,
    Rest,
    Season,
    TakeApart,
    Thaw,
    Until,
    forecast_plan,
)
from bluekettle.core.chain.food import stood
from bluekettle.core.chain.waits import picked
from bluekettle.core.glaze import Act, draw_members
from bluekettle.core.glaze.records import RATE
from bluekettle.core.sauce import sample_sauce
from bluekettle.core.stages.tally import CENTRE, PEAK
from bluekettle.core.stages.waiting import IN_ROOM

MEMBERS = draw_members(1, 16)
GLAZE = Layer("glaze", "plum and tea", sample_sauce("plum-tea"))


def plan(*stages, cut="pork-ribs", mass_kg=1.4, pieces=4, thickness_mm=26.0):
    return Plan(cut, mass_kg, pieces, thickness_mm, stages, layers=(GLAZE,))


def minutes(count):
    return Until("minutes", count)


def end(*stages, **food):
    """The food at the end of some stages, for the members."""
    return forecast_plan(plan(*stages, **food), None, MEMBERS)


def test_a_heat_in_two_halves_is_the_heat():
    """Air fried for 20 min, or for 12 and then 8 in the same basket: profile, cook value and crust
    are handed on.
    """
    whole = end(Heat("a", "air_fryer", minutes(20.0), 140.0))
    halves = end(
        Heat("a", "air_fryer", minutes(12.0), 140.0), Heat("b", "air_fryer", minutes(8.0), 140.0)
    )
    one, two = whole.walk.food, halves.walk.food
    np.testing.assert_allclose(two.brought.profile_c, one.brought.profile_c, atol=0.5)
    np.testing.assert_allclose(two.tally(CENTRE), one.tally(CENTRE), rtol=0.03, atol=0.003)
    np.testing.assert_allclose(two.outside[:, 0], one.outside[:, 0], rtol=0.05)
    np.testing.assert_allclose(two.outside[:, 3], one.outside[:, 3], rtol=0.05)


def test_a_fire_in_two_halves_is_the_fire():
    """Broiled for 6 min, or for 4 and then 2: film, coats, crust and colour are handed on; the
    second begins with the colour that the first ended with.
    """
    before = (Heat("pot", "pressure", minutes(20.0), release="quick"), Dress("brush", "glaze"))
    whole = end(*before, Heat("a", "grill", minutes(6.0), 200.0))
    halves = end(
        *before, Heat("a", "grill", minutes(4.0), 200.0), Heat("b", "grill", minutes(2.0), 200.0)
    )
    film = whole.fires[0].finish
    first, second = (fire.finish for fire in halves.fires)
    at = {
        fire: np.median(f.traces[:, 0, :, 0], axis=0)
        for fire, f in (("whole", film), ("a", first), ("b", second))
    }
    left = np.interp(240.0, first.sample_s, at["a"])
    assert at["b"][0] == pytest.approx(left, rel=0.1)
    alone = np.interp(360.0, film.sample_s, at["whole"])
    assert np.interp(120.0, second.sample_s, at["b"]) == pytest.approx(alone, rel=0.2)


def test_colour_is_never_lost_between_two_fires():
    found = end(
        Heat("pot", "pressure", minutes(20.0), release="quick"),
        Dress("brush", "glaze"),
        Heat("a", "broiler", Until("colour"), 0.15),
        Rest("rest", 5.0),
        Heat("b", "broiler", minutes(2.0), 0.15),
    )
    second = found.fires[1].finish
    assert np.all(second.traces[:, 0, 0, 0] > 0.3)  # amber is 0.4, at each member's own pull
    assert np.all(np.diff(second.traces[:, 0, :, 0], axis=1) >= -1e-6)


@pytest.mark.parametrize("told_s", [359.0, 360.0, 600.0])
def test_a_coat_told_after_its_timer_lies_there_for_the_next_fire(told_s):
    """Six minutes by the clock; the coat that was planned at three came after they ended."""
    late = plan(
        Dress("brush", "glaze"),
        Heat("a", "oven", minutes(6.0), 220.0, acts=(HeatAct("coat", 3.0, "glaze"),)),
        Heat("b", "oven", Until("colour"), 220.0),
    )
    told = replace(late, told={"a": (Act(told_s, 30.0),)})
    lying = forecast_plan(told, None, MEMBERS).fires[1].under.below.lying
    assert lying.laid == 2
    assert np.all(lying.coats[:, :, 2, RATE] == lying.coats[:, :, 1, RATE])
    assert np.all(lying.coats[:, :, 2, RATE] > 0.0)


def test_food_that_was_dried_browns_sooner_and_moist_food_later():
    """The surface that slow dry heat leaves is the one that the fire finds."""
    fire = Heat("fire", "grill", Until("colour"), 220.0)
    moist = end(Heat("pot", "pressure", minutes(20.0), release="quick"), fire)
    dry = end(Heat("smoke", "smoker", minutes(180.0), 110.0), fire)
    assert np.median(dry.fires[0].pull_s) < 0.7 * np.median(moist.fires[0].pull_s)


def test_a_wait_cools_the_surface_and_the_middle_cooks_on():
    hot = Heat("oven", "oven", minutes(30.0), 160.0)
    short = end(
        hot,
        Rest("rest", 1.0, covered=True),
        cut="pork-shoulder",
        mass_kg=1.8,
        pieces=5,
        thickness_mm=60.0,
    )
    long = end(
        hot,
        Rest("rest", 15.0, covered=True),
        cut="pork-shoulder",
        mass_kg=1.8,
        pieces=5,
        thickness_mm=60.0,
    )
    one, two = short.walk.food, long.walk.food
    assert np.all(two.tally(PEAK) > one.tally(PEAK))
    assert np.all(two.brought.profile_c[:, -1] < one.brought.profile_c[:, -1])
    assert np.all(two.tally(CENTRE) >= one.tally(CENTRE))


def test_strands_are_as_warm_as_the_piece_was_on_the_whole_and_begin_with_a_fresh_surface():
    """A shank is a cylinder: its outer shells hold most of its heat."""
    oven = Heat("oven", "oven", minutes(40.0), 160.0)
    food = {"cut": "lamb-shanks", "mass_kg": 1.6, "pieces": 4, "thickness_mm": 65.0}
    piece = end(oven, **food).walk.line[0].passage.food
    found = end(oven, TakeApart("shred", "shred"), **food).walk.food
    rings = np.arange(1, 17) ** (piece.power + 1.0) - np.arange(16) ** (piece.power + 1.0)
    mean = piece.brought.profile_c @ rings / rings.sum()
    assert piece.outside[:, 0].min() > 0.0
    assert np.ptp(found.brought.profile_c, axis=1) == pytest.approx(0.0, abs=1e-9)
    # hands take three minutes, and the room some degrees
    assert np.all(found.brought.profile_c[:, 0] < mean)
    assert np.all(found.brought.profile_c[:, 0] > mean - 12.0)
    assert found.strands
    assert found.lying is None
    assert not found.outside.any()


def test_baking_powder_and_sugar_brown_sooner():
    def pull(**layer):
        rub = Layer("rub", "rub", spice_kg_m2=0.05, **layer)
        asked = Plan(
            "chicken-wings", 1.0, 11, 28.0,
            (Season("pat", "rub"), Heat("fry", "air_fryer", Until("colour"), 200.0)),
            layers=(rub,),
        )  # fmt: skip
        return float(np.median(forecast_plan(asked, None, MEMBERS).fires[0].pull_s))

    plain, leavened, sugared = pull(), pull(leavening=True), pull(sugar_kg_m2=0.1)
    assert leavened < plain
    assert sugared < plain


def test_what_is_beside_adds_no_time_and_what_was_left_on_is_hot():
    broil = Heat("broil", "broiler", minutes(3.0), 0.15)
    pot = Heat("pot", "pressure", minutes(20.0), release="quick")
    alone = end(pot, Dress("one", "glaze"), broil)
    beside = end(pot, Dress("one", "glaze"), broil, Beside("bread", "Toast bread", 5.0, "broil"))
    assert beside.total == alone.total
    assert any(k.key == "bread.beside" for k in beside.links)
    again = end(
        pot,
        Dress("one", "glaze"),
        broil,
        Dress("two", "glaze"),
        Heat("again", "broiler", minutes(3.0), 0.15),
    )
    waits = [k for k in again.links if k.key in ("broil.heat_up", "again.heat_up")]
    assert [k.key for k in waits if k.band.likely_s > 1.0] == []


def test_turns_and_coats_inside_a_fire_stand_on_its_line():
    found = end(
        Heat("pot", "pressure", minutes(20.0), release="quick"),
        Dress("brush", "glaze"),
        Heat(
            "grill",
            "grill",
            minutes(9.0),
            180.0,
            acts=(HeatAct("turn", 3.0), HeatAct("coat", 6.0, "glaze")),
        ),
    )
    keys = [
        k.key
        for k in found.links
        if k.key.startswith("grill.") and k.serial and k.kind != "preheat"
    ]
    assert keys == [
        "grill.under",
        "grill.finish",
        "grill.turn-1",
        "grill.finish-2",
        "grill.coat-2",
        "grill.finish-3",
        "grill.out",
    ]
    assert found.sauce_kg["glaze"] > 0.0
    fire = sum(k.band.likely_s for k in found.links if k.key.startswith("grill.finish"))
    assert fire == pytest.approx(540.0, abs=1.0)


def test_spare_time_becomes_a_covered_wait_before_the_last_fire_and_never_inside_one():
    asked = plan(
        Heat("pot", "pressure", minutes(20.0), release="quick"),
        Dress("brush", "glaze"),
        Heat("grill", "grill", minutes(9.0), 180.0, acts=(HeatAct("coat", 5.0, "glaze"),)),
    )
    found = forecast_plan(asked, 4.0 * 3600.0, MEMBERS)
    keys = [k.key for k in found.links if k.serial]
    assert found.slack_s > 120.0
    assert keys[keys.index("slack") + 1] == "brush.dress"
    assert found.total.likely_s > forecast_plan(asked, None, MEMBERS).total.likely_s + 120.0
    stays = plan(
        Heat("pot", "pressure", minutes(20.0), release="quick"),
        Heat("low", "air_fryer", minutes(10.0), 160.0),
        Heat("high", "air_fryer", Until("colour"), 200.0),
    )
    keys = [k.key for k in forecast_plan(stays, 4.0 * 3600.0, MEMBERS).links if k.serial]
    after = keys[keys.index("slack") + 1]
    assert after in ("low.heat_up", "low.under")


def test_small_portions_go_through_a_slow_heat_as_thick_as_they_are():
    """Cut into sixty, a piece is thicker than it is wide: that is said of no food as it is bought,
    and is no fault of what was cut.
    """
    found = end(
        Heat("pot", "pressure", minutes(20.0), release="quick"),
        TakeApart("cut", "portions", 60),
        Heat("oven", "oven", minutes(80.0), 130.0),
        thickness_mm=60.0,
    )
    assert [slow.stage for slow in found.slows] == ["pot", "oven"]
    assert found.walk.food.pieces == 60


def test_food_cools_until_a_hand_can_hold_it_and_no_longer():
    """Its surface at the told moment, and two minutes before it, reckoned in one go since it came
    out; kitchens allow a quarter of an hour to half an hour.
    """
    cooked = plan(Heat("pot", "simmer", minutes(60.0)), Cool("cool"))
    pot, cool = forecast_plan(cooked, None, MEMBERS).walk.passed
    food, median = picked(pot.passage.food, [0]), MEMBERS.median_only()
    told_s = cool.passage.links[-1].seconds[0]
    surface_c = [
        stood(cooked, food, median, food.waited + seconds, IN_ROOM)[1][0]
        for seconds in (told_s, told_s - 120.0)
    ]
    assert surface_c[0] <= 51.0 < surface_c[1]
    assert 15.0 <= told_s / 60.0 <= 30.0


def test_food_thaws_to_the_half_hour_at_which_no_ice_is_left_in_its_middle():
    def thawed(hours=None):
        stages = (Thaw("thaw", "fridge", hours), Heat("pot", "simmer", minutes(60.0)))
        frozen = replace(plan(*stages), state="frozen")
        return forecast_plan(frozen, None, MEMBERS).walk.passed[0].passage

    told = thawed()
    hours = told.links[-1].seconds[0] / 3600.0
    slowest = int(np.argmax(told.food.half_m))
    short = thawed(hours - 0.5)
    middle_c = [one.food.brought.profile_c[slowest, 0] for one in (short, told)]
    assert middle_c[0] <= -1.0 < middle_c[1]
    assert 8.0 <= hours <= 24.0


@pytest.mark.parametrize(("pieces", "says"), [(1, "Salt the piece"), (2, "Salt the 2 pieces")])
def test_one_piece_is_told_as_one(pieces, says):
    whole = plan(Season("salt"), Heat("pot", "simmer", minutes(60.0)), pieces=pieces)
    salted = forecast_plan(whole, None, MEMBERS).walk.passed[0]
    assert salted.passage.links[-1].label == says
