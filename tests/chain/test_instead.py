"""Heats that are left for others: the plan with what the food had, and what is left of it."""

import math
from datetime import UTC, datetime

import pytest

from bluekettle.core.chain import plan_steps
from bluekettle.core.errors import OutOfRange
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import core_forecast
from tests.chain.conftest import chain, stage

NOW = datetime(2030, 5, 4, 16, 0, tzinfo=UTC)


def forecast(document, *instead):
    document["serve_at"] = None
    told = {**document, "instead": [*document.get("instead", []), *instead]}
    return core_forecast(ChainDocument.model_validate(told), NOW)


def left(stage_, heat, had_min=0.0, acts_done=0):
    return {"stage": stage_, "heat": heat, "had_min": had_min, "acts_done": acts_done}


def hold_min(found, stage_):
    return sum(
        step.likely_s / 60.0
        for step in plan_steps(found)
        if step.key.startswith((f"{stage_}.hold", f"{stage_}.finish"))
    )


@pytest.mark.parametrize(
    ("key", "left_", "heat"),
    [
        ("portions-broiled", "broil", "air_fryer"),
        ("pressure-hot-oven", "oven", "broiler"),
        ("long-braise", "braise", "slow_cooker"),
    ],
)
def test_a_heat_left_before_it_began_is_the_plan_written_with_the_other(key, left_, heat):
    written = chain(key)
    one = stage(written, left_)
    one |= {"heat": heat, "dial": None, "release": None, "liquid_l": None, "lies": None}
    one["id"] = "other"
    if one["until"]["by"] == "minutes":
        one["until"] = {"by": "bite", "bite": one["until"]["bite"]}
    plain, moved = forecast(written), forecast(chain(key), left(left_, heat))
    renamed = [step.key.replace(f"{left_}+1", "other") for step in plan_steps(moved)]
    assert renamed == [step.key for step in plan_steps(plain)]
    for one, other in zip(plan_steps(moved), plan_steps(plain), strict=True):
        assert (one.who, one.label, one.evidence) == (other.who, other.label, other.evidence)
        assert (one.low_s, one.likely_s) == pytest.approx((other.low_s, other.likely_s), rel=1e-9)


def test_the_more_it_had_the_less_is_left_and_colour_is_taken_along():
    found = [
        forecast(chain("portions-broiled"), left("broil", "air_fryer", had)) for had in (0.5, 1, 2)
    ]
    rests = [hold_min(one, "broil+1") for one in found]
    whole = hold_min(forecast(chain("portions-broiled"), left("broil", "air_fryer")), "broil+1")
    assert whole > rests[0] > rests[1] > rests[2] > 0.3


@pytest.mark.parametrize("had_min", [20.0, 60.0])
def test_tenderness_is_taken_along_from_heat_to_heat(had_min):
    """A braise that goes on in another vessel of the same heat has its minutes behind it, but for
    the time until the food is hot again."""
    alone = hold_min(forecast(chain("long-braise")), "braise")
    moved = forecast(chain("long-braise"), left("braise", "braise", had_min))
    both = hold_min(moved, "braise") + hold_min(moved, "braise+1")
    assert hold_min(moved, "braise") == pytest.approx(had_min)
    assert alone - 10.0 <= both <= alone + 10.0


def test_nobody_switched_on_what_comes_for_a_heat_that_had_begun():
    before, begun = (
        {s.key: s for s in plan_steps(forecast(chain("portions-broiled"), one))}
        for one in (left("broil", "grill"), left("broil", "grill", 1.0))
    )
    assert "broil+1.heat_up" not in before
    assert begun["broil+1.heat_up"].likely_s > 300.0  # ten minutes, and a minute for the tray
    assert "broil+1.lift" in begun  # off the tray of the broiler


def test_checks_follow_the_food():
    """The check of the heat that was left comes after the one that came for it, and asks the
    same."""
    plain = {s.key: s for s in plan_steps(forecast(chain("portions-broiled")))}
    moved = {
        s.key: s
        for s in plan_steps(forecast(chain("portions-broiled"), left("pot", "braise", 5.0)))
    }
    assert "pot.check" not in moved
    assert moved["pot+1.check"].evidence == plain["pot.check"].evidence
    keys = list(moved)
    assert keys.index("pot.hold") < keys.index("pot+1.hold") < keys.index("pot+1.check")


def test_what_was_done_of_its_coats_is_done_and_the_rest_comes_in_the_other():
    document = chain("portions-broiled")
    coat = {"do": "coat", "layer": "glaze"}
    stage(document, "broil")["acts"] = [{**coat, "at_min": 1.0}, {**coat, "at_min": 3.0}]
    steps = plan_steps(forecast(document, left("broil", "air_fryer", 2.0, acts_done=1)))
    coats = {
        fire: sum("coat" in step.act and step.fire == fire for step in steps)
        for fire in ("broil", "broil+1")
    }
    assert coats == {"broil": 1, "broil+1": 1}
    under = next(s for s in steps if s.who == "fire" and s.fire == "broil+1")
    assert under.likely_s == pytest.approx(60.0)  # a minute of the three was still to come


def test_rounds_are_left_one_by_one_and_a_heat_can_be_left_twice():
    found = forecast(
        chain("marinated-rounds"),
        left("broil.1", "air_fryer", 1.0),
        left("broil.2", "air_fryer"),
        left("broil.1+1", "grill", 0.5),
    )
    fires = [step.fire for step in plan_steps(found) if step.who == "fire"]
    assert fires == ["broil.1", "broil.1+1", "broil.1+2", "broil.2+1"]


def test_a_turn_is_left_out_between_two_hot_plates():
    document = chain("portions-broiled")
    stage(document, "broil")["acts"] = [{"do": "turn", "at_min": 2.0}]
    steps = plan_steps(forecast(document, left("broil", "contact")))
    assert not [step for step in steps if "turn" in step.act]


@pytest.mark.parametrize(
    ("instead", "field"),
    [
        (left("nothing", "broiler"), "instead.0.stage"),
        (left("salt", "broiler"), "instead.0.stage"),
        (left("pot", "broiler"), "instead.0.heat"),
        (left("broil", "braise"), "instead.0.heat"),
        (left("broil+1", "air_fryer"), "instead.0.stage"),
    ],
)
def test_what_cannot_come_for_a_heat_is_refused_by_its_field(instead, field):
    with pytest.raises(OutOfRange) as found:
        forecast(chain("strands-broiled"), instead)
    assert [fault.field for fault in found.value.faults] == [field]


def test_ten_heats_one_after_the_other_are_too_many():
    many = [left(f"broil+{n}" if n else "broil", "air_fryer", 0.1) for n in range(10)]
    with pytest.raises(OutOfRange, match="one after the other"):
        forecast(chain("strands-broiled"), *many)
    found = forecast(chain("strands-broiled"), *many[:9])
    assert math.isfinite(found.total.likely_s)
