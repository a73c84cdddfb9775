"""Databases of every version that ever landed open in every room, with nothing lost.

Each is a dump as that version made it: a plan; a cook to the end with a sign; one whose failed
check was passed over; one under way; and, once there were any, a sauce, an appliance, a sign and
settings.
"""

import gzip
import sqlite3
from datetime import UTC, datetime
from pathlib import Path

import pytest
from tests.conftest import Kitchen, open_kitchen

KEPT = sorted((Path(__file__).parents[1] / "kept").glob("version_*.sql.gz"))
LATER = datetime(2026, 11, 20, 23, 0, tzinfo=UTC)


@pytest.fixture(params=KEPT, ids=[path.name.partition(".")[0] for path in KEPT])
def old(request, tmp_path):
    database = tmp_path / "kettle.sqlite3"
    with sqlite3.connect(database) as store:
        store.executescript(gzip.decompress(request.param.read_bytes()).decode())
    store.close()
    kitchen = open_kitchen(database, LATER)
    yield kitchen
    kitchen.client.application.extensions["kettle_engine"].dispose()


def test_every_room_opens_with_what_was_kept(old: Kitchen):
    cooks = old.get("/cooks")
    assert [c["id"] for c in cooks["cooks"]] == [3, 2, 1]
    assert cooks["aside"] == []
    assert [c["unknown_steps"] for c in cooks["cooks"]] == [0, 5, 0]
    assert cooks["cooks"][2]["actual_s"] > 3600
    assert cooks["cooks"][2]["strip"]["pulled_s"] > 60
    assert [p["title"] for p in old.get("/plans")["plans"]] == [
        "Beef short ribs, plum and black tea"
    ]
    first = old.get("/cooks/1")
    assert first["signs"]
    assert [(c["verdict"], c["temp_c"]) for c in first["checks"]] == [("passed", 91.0)]
    assert first["summary"]["outcome"]["note"] == "Good."
    kitchen = old.get("/kitchen")
    assert kitchen["aside"] == []
    if kitchen["appliances"]:
        assert old.get("/sauces")["sauces"][0]["document"]["moves"]
        assert kitchen["learnt"]["broiler"]["seen"] == 1


def test_a_check_that_was_passed_over_is_told_as_skipped_and_what_followed_still_counts(
    old: Kitchen,
):
    cook = old.get("/cooks/2")
    found = {s["key"]: s["state"] for s in cook["stages"]}
    assert found["check"] == "skipped"
    assert found["finish"] == "confirmed"
    assert [c["verdict"] for c in cook["checks"]] == ["failed"]


def test_a_cook_under_way_goes_on_to_its_end(old: Kitchen):
    live = old.get("/cooks/3/live")
    assert live["current"] == "quick"
    while not live["finished"]:
        old.wait(60)
        live = old.press(live)
    assert live["checks"][-1]["verdict"] == "passed"
    path = "/api/v1/cooks/3/outcome"
    outcome = {"tenderness": "falls", "crust": "sticky", "colour": "amber"}
    assert old.client.put(path, json=outcome).status_code == 200


def test_a_kept_plan_can_be_started_again(old: Kitchen):
    plan = old.get("/plans")["plans"][0]
    live = old.post("/cooks", {"dish": plan["dish"], "plan_id": plan["id"]})
    assert live["current"] == "season"
