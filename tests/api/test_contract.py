"""Every route of the OpenAPI document, with good and with bad input."""

import json
from pathlib import Path

import jsonschema
import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from hypothesis.errors import Unsatisfiable
from schemathesis import GenerationMode
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import content_type_conformance, response_schema_conformance
from tests.conftest import SHORT_RIBS, Kitchen

from bluekettle.app import create_app
from bluekettle.config import Config


@pytest.fixture(scope="module")
def api_schema(tmp_path_factory):
    app = create_app(Config(tmp_path_factory.mktemp("contract") / "kettle.sqlite3", testing=True))
    app.test_client().post("/api/v1/plans", json={"dish": SHORT_RIBS})
    app.test_client().post("/api/v1/cooks", json={"dish": SHORT_RIBS})
    yield schemathesis.openapi.from_wsgi("/api/v1/openapi.json", app)
    app.extensions["kettle_engine"].dispose()


@pytest.mark.parametrize("mode", [GenerationMode.POSITIVE, GenerationMode.NEGATIVE])
def test_every_route_keeps_its_contract(api_schema, mode):
    """No 500 for anything; what comes back has the promised shape and media type."""
    walked = []
    for result in api_schema.get_all_operations():
        operation = result.ok()

        @given(operation.as_strategy(generation_mode=mode))
        @settings(
            max_examples=20,
            suppress_health_check=list(HealthCheck),
            deadline=None,
            derandomize=True,
        )
        def holds(case):
            case.call_and_validate(
                checks=[not_a_server_error, content_type_conformance, response_schema_conformance],
                headers={"Accept-Encoding": "identity"},
            )

        try:
            holds()
        except Unsatisfiable:  # a route without input has no bad input
            continue
        walked.append(operation.label)
    assert len(walked) >= (17 if mode is GenerationMode.POSITIVE else 12), walked


def test_the_served_schema_accepts_the_documented_example_and_refuses_a_bad_one(kitchen: Kitchen):
    served = kitchen.get("/schemas/dish")
    text = (Path(__file__).parents[2] / "docs" / "formats.md").read_text(encoding="utf-8")
    example = json.loads(text.split("```json", 1)[1].split("```", 1)[0])
    jsonschema.validate(example, served)
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate({**example, "mass_kg": 900}, served)
    assert kitchen.post("/forecasts", example, 200)["stages"]


def test_a_forecast_is_stateless_and_repeatable(kitchen: Kitchen):
    first, second = (kitchen.post("/forecasts", SHORT_RIBS, 200) for _ in range(2))
    assert first == second
    assert kitchen.get("/plans")["plans"] == []
    assert kitchen.get("/cooks")["cooks"] == []


def test_choices_hold_what_a_newcomer_is_asked(kitchen: Kitchen):
    choices = kitchen.get("/choices")
    wanted = {
        "beef-short-ribs",
        "pork-ribs",
        "pork-shoulder",
        "turkey-drumsticks",
        "chicken-thighs",
        "lamb-breast",
        "cauliflower",
        "octopus",
    }
    assert wanted <= {c["key"] for c in choices["cuts"]}
    assert len(choices["sauces"]) == 3
    for cut in choices["cuts"]:
        dish = {k: cut[k] for k in ("mass_kg", "pieces", "thickness_mm")} | {
            "cut": cut["key"],
            "bite": cut["default_bite"],
        }
        assert kitchen.post("/forecasts", dish, 200)["total"]["likely_s"] > 0


def test_clock_times_run_back_from_serving(kitchen: Kitchen):
    late = kitchen.post("/forecasts", {**SHORT_RIBS, "serve_at": "2030-05-04T22:00:00+02:00"}, 200)
    assert late["serve_at"] == "2030-05-04T20:00:00Z"
    assert late["slack_s"] > 0
    starts = [s["starts_at"] for s in late["stages"] if s["serial"]]
    assert starts == sorted(starts)
    soon = kitchen.post("/forecasts", {**SHORT_RIBS, "serve_at": "2030-05-04T16:20:00+00:00"}, 200)
    first = soon["watch_outs"][0]
    assert (first["id"], first["level"]) == ("too-soon", "stop")
    mended = kitchen.post("/forecasts", {**SHORT_RIBS, **first["repair"]}, 200)
    assert "too-soon" not in [w["id"] for w in mended["watch_outs"]]


def test_advice_rescue_explorer_and_calibration_answer_for_the_same_dish(kitchen: Kitchen):
    found = kitchen.post("/explorer", SHORT_RIBS, 200)
    assert len(found["face"]) == len(found["heats"]) == 40
    assert all(len(row) == len(found["times_s"]) == 60 for row in found["face"] + found["edge"])
    assert found["present"] == 0.15
    advice = kitchen.post("/advice", SHORT_RIBS, 200)
    assert advice["choice"]["width_s"] > advice["now"]["width_s"]
    taken = kitchen.post("/forecasts", {**SHORT_RIBS, **advice["choice"]["change"]}, 200)
    assert not taken["glaze"]["window"]["empty"]
    seen = {**SHORT_RIBS, "sightings": [{"sign": "amber at the edges", "at_s": 150}]}
    ways = kitchen.post("/rescues", {"dish": seen, "at_s": 200}, 200)["ways"]
    assert "Pull it now" in [w["do"] for w in ways]
    signs = [
        {"sign": "amber at the edges", "at_s": 120},
        {"sign": "bubbling", "at_s": 60, "scout": True},
    ]
    learnt = kitchen.post("/calibrations", {"dish": SHORT_RIBS, "observations": signs}, 200)
    before, after = ({f["name"]: f["log_sd"] for f in learnt[k]} for k in ("before", "after"))
    assert after["heat"] < before["heat"] == 0.35
    bad = kitchen.post(
        "/calibrations", {"dish": SHORT_RIBS, "observations": [{"sign": "smoke", "at_s": -1}]}, 422
    )
    assert {f["field"] for f in bad["errors"]} == {"observations.0.sign", "observations.0.at_s"}
