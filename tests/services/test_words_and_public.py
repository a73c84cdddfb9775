"""What services make of the core: sentences of the Stove page, public forecasts, the demo."""

import itertools
from datetime import UTC, datetime, timedelta

import pytest
from tests.conftest import SHORT_RIBS, START

from bluekettle.core.errors import MissingData, OutOfRange
from bluekettle.core.stages import FINISHES, TENDERISE, StepPlan
from bluekettle.core.units import Reading, render
from bluekettle.demo import fill
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import begin_chain, forecast_chain
from bluekettle.services.dishes import title_of
from bluekettle.services.instructions import Step, Words, minutes_text, say
from bluekettle.services.live import by_sight
from bluekettle.services.log import get_cook, list_cooks
from bluekettle.services.plans import list_plans
from bluekettle.services.strips import Strips
from bluekettle.services.workshop import Workshop
from bluekettle.store.engine import make_engine, migrate


def document(**change) -> ChainDocument:
    return ChainDocument.model_validate({**SHORT_RIBS, **change})


def scene(facts, stage):
    """One heat of a cook: the food then, and what is known of it."""
    return facts.scenes[stage].heating, facts.facts(stage)


def said(asked: ChainDocument) -> dict[str, Words]:
    """What is said at each step."""
    _, steps, facts = begin_chain(asked, START)
    found = {}
    for step in steps:
        stage = "cook" if step.key.partition(".")[0] in ("season", "cook") else "finish"
        dish, known = scene(facts, stage)
        told = Step(step, dish.slow, known.timer_s, 63.0)
        found[step.key] = say(told, dish, known, 900.0)
    return found


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
    assert ("broiler" in found["finish.under"].says) == (finish == "broiler")
    assert ("the rib" in found["season.season"].says.lower()) == (pieces == 1)


def test_a_chain_that_has_no_fire_or_nothing_slow_is_told_none():
    """A fire alone is no low oven before it, a braise alone no broiler after it."""
    salt = {"kind": "season", "id": "salt"}
    food = {"cut": "pork-ribs", "mass_kg": 1.2, "pieces": 2, "thickness_mm": 26.0}
    alone = {
        "grill": {"by": "minutes", "minutes": 20.0},
        "braise": {"by": "bite", "bite": "tug"},
    }
    heatings = {}
    for heat, until in alone.items():
        stages = [salt, {"kind": "heat", "id": "cook", "heat": heat, "until": until}]
        raw = {"format": "kettle.dish/2", "food": food, "stages": stages}
        _, steps, facts = begin_chain(ChainDocument.model_validate(raw), START)
        heatings[heat], known = scene(facts, "cook")
        slow = heatings[heat].slow or ""
        told = {s.key: say(Step(s, slow, 60.0), heatings[heat], known, 0.0) for s in steps}
        never = {"grill": "oven", "braise": "broiler"}[heat]
        assert not [key for key, words in told.items() if never in words.says.lower()]
    assert (heatings["grill"].slow, heatings["grill"].fire) == (None, "grill")
    assert (heatings["braise"].slow, heatings["braise"].fierce) == ("braise", None)
    with pytest.raises(MissingData, match="braise"):
        assert heatings["braise"].fire


def test_a_step_without_words_is_an_error_and_not_another_steps_sentence():
    dish, known = scene(begin_chain(document(), START)[2], "cook")
    stranger = StepPlan("flambe", "hands", "", 1, 2, 3)
    with pytest.raises(MissingData, match="flambe"):
        say(Step(stranger, "pressure", 60.0), dish, known, 900.0)


def test_amounts_in_sentences_are_those_of_the_forecast():
    asked = document()
    answer = forecast_chain(asked, START)
    found, slow = said(asked), answer.slow_heats[0]
    assert render(found["cook.load"].says).startswith(f"{slow.liquid_l:g} L of liquid")
    assert minutes_text(slow.timer_s) in found["cook.load"].says
    coat = next(layer.grams for layer in answer.layers) / 2
    assert render(found["dress.dress"].says).endswith(f": {coat:.0f} g.")
    assert f": {coat:.0f} g" in render(found["finish.coat-2"].says)
    minutes = [minutes_text(s) for s in (60, 3540, 5400, 7260, 7200)]
    assert minutes == ["1 min", "59 min", "1 h 30 min", "2 h 1 min", "2 h"]
    assert "145 °F" in render(found["cook.check"].detail, Reading(fahrenheit=True))


def test_titles_name_cut_and_sauce():
    assert title_of(document()) == "Beef short ribs, plum and black tea"
    assert title_of(document(sauce=None, coats=0)) == "Beef short ribs"
    own = {"name": "Quince and smoke", "lines": [{"ingredient": "quince-paste", "mass_g": 50}]}
    assert title_of(document(sauce=own)) == "Beef short ribs, quince and smoke"


def test_a_public_forecast_holds_together():
    """Clock times, bands, curves and calls agree with each other."""
    answer = forecast_chain(document(serve_at="2030-05-04T21:00:00+00:00"), START)
    assert (answer.serve_at - answer.start_at).total_seconds() == pytest.approx(
        answer.total.likely_s, abs=0.1
    )
    assert answer.serve_low_at < answer.serve_at < answer.serve_high_at
    assert answer.least_sure in [link.key for link in answer.links]
    for link in answer.links:
        assert link.band.low_s <= link.band.likely_s <= link.band.high_s
        assert answer.start_at <= link.starts_at <= answer.serve_at
    glaze = answer.fires[0].glaze
    lengths = {len(x) for x in (glaze.sample_s, glaze.face, glaze.edge, glaze.risk, glaze.wanted)}
    assert len(lengths) == 1
    assert all(0 <= r <= 1 for r in glaze.risk + glaze.wanted)
    assert all(colour.startswith("#") and len(colour) == 7 for colour in glaze.face + glaze.edge)
    assert [c.at_s for c in glaze.calls] == sorted(c.at_s for c in glaze.calls)
    assert [c.word for c in glaze.legend] == ["wet", "amber", "mahogany", "bitter", "burnt"]
    traces = answer.slow_heats[0].traces
    assert len(traces["time_s"]) == len(traces["centre_c"]) > 50
    assert {a.name for a in answer.assumed} == {
        "altitude_m",
        "pot_power_w",
        "pot_volume_l",
        "pot_gauge_kpa",
        "broiler_w_m2",
        "rack_m",
        "broiler_preheat_min",
    }
    stated = forecast_chain(document(kitchen={"altitude_m": 300, "pot_power_w": 1200}), START)
    assert {a.name for a in stated.assumed} == {a.name for a in answer.assumed} - {
        "altitude_m",
        "pot_power_w",
    }


def test_by_sight_tells_a_range_or_says_to_look():
    usual = forecast_chain(document(coats=1), START).fires[0].glaze
    assert by_sight(usual).startswith("Edges first; the rest follows ")
    hopeless = forecast_chain(
        document(coats=1, want="mahogany", kitchen={"broiler_w_m2": 9000, "rack_m": 0.05}), START
    )
    assert hopeless.fires[0].glaze.possible < 0.3
    assert any(w.id == "no-window" for w in hopeless.watch_outs)
    assert by_sight(hopeless.fires[0].glaze.model_copy(update={"gaps": []})).startswith(
        "Look often"
    )


def test_serving_times_outside_their_range_are_refused_with_everything_else():
    late = (START + timedelta(days=20)).isoformat()
    with pytest.raises(OutOfRange) as caught:
        forecast_chain(document(serve_at=late, bite="sliceable"), START)
    assert {f.field for f in caught.value.faults} == {"serve_at", "stages.1.until.bite"}


def test_the_demo_fills_an_empty_kitchen_with_plan_and_past(tmp_path):
    engine = make_engine(tmp_path / "kettle.sqlite3")
    migrate(engine)
    fill(engine, START)
    found = list_cooks(engine).cooks
    assert len(found) == 4
    assert all(c.ended_at and c.outcome and c.strip.face for c in found)
    assert {p.title for p in list_plans(engine).plans} == {
        "Short ribs for the boathouse",
        "Boathouse ribs, brushed twice",
    }
    skipped = [c for c in found if c.unknown_steps]
    assert len(skipped) == 2
    detail = get_cook(engine, skipped[0].id, datetime.now(UTC), Strips(Workshop()))
    unknown = [s for s in detail.stages if s.state == "unknown"]
    assert unknown
    assert all(s.actual_s is None for s in unknown)
    engine.dispose()
