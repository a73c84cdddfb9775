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


def test_damaged_text_in_any_column_sets_records_aside_and_closes_no_list(old: Kitchen):
    """A fault of the disk in every JSON column of each table's first record: the driver cannot
    even parse it."""
    rooms = {"/cooks": "cooks", "/plans": "plans", "/sauces": "sauces"}
    whole = {path: len(old.get(path)[key]) for path, key in rooms.items()}
    with sqlite3.connect(old.database) as store:
        spoiled = spoil_first_records(store)
    assert {"plan.dish", "cook.facts", "cook_event.data"} <= spoiled
    for path, key in rooms.items():
        found = old.get(path)
        assert len(found[key]) + len(found["aside"]) == whole[path], path
    assert [one["title"] for one in old.get("/plans")["aside"]] == [
        "Beef short ribs, plum and black tea"
    ]
    if "kitchen_settings.document" in spoiled:
        aside = {one["title"] for one in old.get("/kitchen")["aside"]}
        assert aside == {"Settings", "its broiler"}
    for number, status in ((1, 409), (2, 200), (3, 200)):
        assert old.client.get(f"/api/v1/cooks/{number}/live").status_code == status


def spoil_first_records(store: sqlite3.Connection) -> set[str]:
    """Cut the text of every JSON column of each table's first record; the columns it hit."""
    tables = [row[0] for row in store.execute("select name from sqlite_master where type='table'")]
    hit = set()
    for table in tables:
        columns = store.execute(f"pragma table_info({table})").fetchall()
        for column in (c[1] for c in columns if c[2] == "JSON"):
            first = f"(select min(rowid) from {table})"
            told = f"update {table} set {column} = '{{\"a\":' where rowid = {first}"
            if store.execute(told).rowcount:
                hit.add(f"{table}.{column}")
    return hit
