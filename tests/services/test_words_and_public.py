"""What services make of the core: sentences of the Stove page, public forecasts, the demo."""

import itertools
from datetime import timedelta

import pytest
from tests.conftest import SHORT_RIBS, START

from bluekettle.core.errors import OutOfRange
from bluekettle.core.stages import FINISHES, TENDERISE
from bluekettle.demo import fill
from bluekettle.schemas.dish import DishDocument
from bluekettle.services.cooks import by_sight, get_cook, list_cooks
from bluekettle.services.dishes import title_of
from bluekettle.services.forecasts import forecast_dish
from bluekettle.services.instructions import minutes_text, say
from bluekettle.services.plans import list_plans
from bluekettle.store.engine import make_engine, migrate


def document(**change) -> DishDocument:
    return DishDocument.model_validate({**SHORT_RIBS, **change})


@pytest.mark.parametrize(
    ("tenderise", "finish", "pieces"),
    [
        *itertools.product(TENDERISE, ("broiler", "air_fryer"), (1, 6)),
        *itertools.product(("bath", "foil"), FINISHES, (1,)),
    ],
)
def test_every_step_of_every_way_has_a_sentence_and_a_button(tenderise, finish, pieces):
    mass_kg = 0.3 * pieces
    asked = document(
        tenderise=tenderise, finish=finish, pieces=pieces, mass_kg=mass_kg, serve_at=None
    )
    answer = forecast_dish(asked, START)
    for stage in answer.stages:
        sentence, button, _ = say(stage.key, asked, answer)
        assert sentence != stage.key, stage.key
        assert sentence.endswith((".", "?")), sentence
        assert button
    under = say("under", asked, answer)[0]
    assert ("broiler" in under) == (finish == "broiler")
    assert ("the rib" in say("season", asked, answer)[0]) == (pieces == 1)
    assert say("no-such-step", asked, answer) == ("no-such-step", "Done", "")


def test_amounts_in_sentences_are_those_of_the_forecast():
    asked = document()
    answer = forecast_dish(asked, START)
    assert f"{answer.liquid_l:g} L" in say("load", asked, answer)[0]
    assert f"{answer.sauce_g / 2:.0f} g" in say("brush", asked, answer)[0]
    assert minutes_text(answer.timer_s) in say("load", asked, answer)[0]
    assert [minutes_text(s) for s in (60, 3540, 5400, 7260)] == [
        "1 min",
        "59 min",
        "1 h 30",
        "2 h 01",
    ]


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
    assert [c.word for c in glaze.legend] == ["raw", "amber", "mahogany", "bitter", "burnt"]
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
    assert by_sight(usual).startswith("Once the edges turn amber you have ")
    hopeless = forecast_dish(
        document(coats=1, want="mahogany", kitchen={"broiler_w_m2": 9000}), START
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
    assert [p.title for p in list_plans(engine).plans] == ["Beef short ribs, plum and black tea"]
    skipped = [c for c in found if c.unknown_steps]
    assert len(skipped) == 2
    detail = get_cook(engine, skipped[0].id)
    unknown = [s for s in detail.stages if s.state == "unknown"]
    assert unknown
    assert all(s.actual_s is None for s in unknown)
    engine.dispose()
