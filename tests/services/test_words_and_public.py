"""What services make of the core: sentences of the Stove page, public forecasts, the demo."""

import itertools
from datetime import timedelta

import pytest
from tests.conftest import SHORT_RIBS, START

from bluekettle.core.errors import MissingData, OutOfRange
from bluekettle.core.stages import FINISHES, TENDERISE, StepPlan
from bluekettle.core.units import Reading, render
from bluekettle.demo import fill
from bluekettle.schemas.dish import DishDocument
from bluekettle.services.dishes import title_of
from bluekettle.services.forecasts import begin_dish, forecast_dish
from bluekettle.services.instructions import Step, Words, minutes_text, say
from bluekettle.services.live import by_sight
from bluekettle.services.log import get_cook, list_cooks
from bluekettle.services.plans import list_plans
from bluekettle.services.strips import Strips
from bluekettle.services.telling import facts_of
from bluekettle.services.workshop import Workshop
from bluekettle.store.engine import make_engine, migrate


def document(**change) -> DishDocument:
    return DishDocument.model_validate({**SHORT_RIBS, **change})


def said(asked: DishDocument) -> dict[str, Words]:
    """What is said at each step of a dish."""
    answer, steps = begin_dish(asked, START)
    facts = facts_of(answer)
    return {
        step.key: say(Step(step, asked.tenderise, facts.timer_s, 63.0), asked, facts, 900.0)
        for step in steps
    }


@pytest.mark.parametrize(
    ("tenderise", "finish", "pieces"),
    [
        *itertools.product(TENDERISE, ("broiler", "air_fryer"), (1, 6)),
        *itertools.product(("bath", "foil"), FINISHES, (1,)),
    ],
)
def test_every_step_of_every_way_has_a_sentence_and_a_button(tenderise, finish, pieces):
    change = {"tenderise": tenderise, "finish": finish, "pieces": pieces}
    found = said(document(mass_kg=0.3 * pieces, **change))
    for key, words in found.items():
        assert words.says.endswith((".", "?")), (key, words)
        assert words.button
        assert "{" not in words.says + words.button + words.detail
    assert ("broiler" in found["under"].says) == (finish == "broiler")
    assert ("the rib" in found["season"].says.lower()) == (pieces == 1)


def test_a_step_without_words_is_an_error_and_not_another_steps_sentence():
    asked = document()
    facts = facts_of(begin_dish(asked, START)[0])
    stranger = StepPlan("flambe", "hands", "", 1, 2, 3)
    with pytest.raises(MissingData, match="flambe"):
        say(Step(stranger, "pressure", 60.0), asked, facts, 900.0)


def test_amounts_in_sentences_are_those_of_the_forecast():
    asked = document()
    answer = forecast_dish(asked, START)
    found = said(asked)
    assert render(found["load"].says).startswith(f"{answer.liquid_l:g} L of liquid")
    assert f"{answer.sauce_g / 2:.0f} g" in render(found["brush"].says)
    assert minutes_text(answer.timer_s) in found["load"].says
    minutes = [minutes_text(s) for s in (60, 3540, 5400, 7260, 7200)]
    assert minutes == ["1 min", "59 min", "1 h 30 min", "2 h 1 min", "2 h"]
    assert "145 °F" in render(found["check"].detail, Reading(fahrenheit=True))


def test_titles_name_cut_and_sauce():
    assert title_of(document()) == "Beef short ribs, plum and black tea"
    assert title_of(document(sauce=None, coats=0)) == "Beef short ribs, plain"
    own = {"name": "Quince and smoke", "lines": [{"ingredient": "quince-paste", "mass_g": 50}]}
    assert title_of(document(sauce=own)) == "Beef short ribs, quince and smoke"


def test_a_public_forecast_holds_together():
    """Clock times, bands, curves and calls agree with each other."""
    answer = forecast_dish(document(serve_at="2030-05-04T21:00:00+00:00"), START)
    assert (answer.serve_at - answer.start_at).total_seconds() == pytest.approx(
        answer.total.likely_s, abs=0.1
    )
    assert answer.serve_low_at < answer.serve_at < answer.serve_high_at
    assert answer.least_sure in [s.key for s in answer.stages]
    for stage in answer.stages:
        assert stage.band.low_s <= stage.band.likely_s <= stage.band.high_s
        assert answer.start_at <= stage.starts_at <= answer.serve_at
    glaze = answer.glaze
    lengths = {len(x) for x in (glaze.sample_s, glaze.face, glaze.edge, glaze.risk, glaze.wanted)}
    assert len(lengths) == 1
    assert all(0 <= r <= 1 for r in glaze.risk + glaze.wanted)
    assert all(colour.startswith("#") and len(colour) == 7 for colour in glaze.face + glaze.edge)
    assert [c.at_s for c in glaze.calls] == sorted(c.at_s for c in glaze.calls)
    assert [c.word for c in glaze.legend] == ["wet", "amber", "mahogany", "bitter", "burnt"]
    assert len(answer.traces["time_s"]) == len(answer.traces["centre_c"]) > 50
    assert {a.name for a in answer.assumed} == {
        "altitude_m",
        "pot_power_w",
        "pot_volume_l",
        "pot_gauge_kpa",
        "broiler_w_m2",
        "rack_m",
        "broiler_preheat_min",
    }
    stated = forecast_dish(document(kitchen={"altitude_m": 300, "pot_power_w": 1200}), START)
    assert {a.name for a in stated.assumed} == {a.name for a in answer.assumed} - {
        "altitude_m",
        "pot_power_w",
    }


def test_by_sight_tells_a_range_or_says_to_look():
    usual = forecast_dish(document(coats=1), START).glaze
    assert by_sight(usual).startswith("Edges first; the rest follows ")
    hopeless = forecast_dish(
        document(coats=1, want="mahogany", kitchen={"broiler_w_m2": 9000, "rack_m": 0.05}), START
    )
    assert hopeless.glaze.possible < 0.3
    assert any(w.id == "no-window" for w in hopeless.watch_outs)
    assert by_sight(hopeless.glaze.model_copy(update={"gaps": []})).startswith("Look often")


def test_serving_times_outside_their_range_are_refused_with_everything_else():
    late = (START + timedelta(days=20)).isoformat()
    with pytest.raises(OutOfRange) as caught:
        forecast_dish(document(serve_at=late, bite="sliceable"), START)
    assert {f.field for f in caught.value.faults} == {"serve_at", "bite"}


def test_the_demo_fills_an_empty_kitchen_with_plan_and_past(tmp_path):
    engine = make_engine(tmp_path / "kettle.sqlite3")
    migrate(engine)
    fill(engine, START)
    found = list_cooks(engine).cooks
    assert len(found) == 4
    assert all(c.ended_at and c.outcome and c.strip.face for c in found)
    assert {p.title for p in list_plans(engine).plans} == {
        "Beef short ribs, plum and black tea",
        "Boathouse ribs, brushed twice",
    }
    skipped = [c for c in found if c.unknown_steps]
    assert len(skipped) == 2
    detail = get_cook(engine, skipped[0].id, Strips(Workshop()))
    unknown = [s for s in detail.stages if s.state == "unknown"]
    assert unknown
    assert all(s.actual_s is None for s in unknown)
    engine.dispose()
