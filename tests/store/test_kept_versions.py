"""Databases of every version that ever landed open in every room, with nothing lost.

Each is a dump as that version made it: a plan; a cook to the end with a sign; one whose failed
check was passed over; one under way; and, once there were any, a sauce, an appliance, a sign and
settings.
"""

import gzip
import sqlite3
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from tests.conftest import Kitchen, open_kitchen

FOLDER = Path(__file__).parents[1] / "kept"
FIFTH = FOLDER / "version_5.sql.gz"  # the last in which a dish was no chain; it has more in it
SEVENTH = FOLDER / "version_7.sql.gz"  # before there were readings and rehearsals
NINTH = FOLDER / "version_9.sql.gz"  # when the dishes of a meal were cooked each for itself
TENTH = FOLDER / "version_10.sql.gz"  # before cooks taught their appliances
ELEVENTH = FOLDER / "version_11.sql.gz"  # when signs taught, but no colour, and one coat only
SPECIAL = {FIFTH, SEVENTH, NINTH, TENTH, ELEVENTH}
KEPT = sorted(set(FOLDER.glob("version_*.sql.gz")) - SPECIAL)
UNDER_HEAT = datetime(2030, 5, 4, 16, 41, tzinfo=UTC)  # of the tenth's cooks
IN_THE_POT = datetime(2030, 5, 4, 18, 45, tzinfo=UTC)  # of the ninth's ribs
OUTCOME = {"tenderness": "falls", "crust": "sticky", "colour": "amber"}
LATER = datetime(2026, 11, 20, 23, 0, tzinfo=UTC)


def opened(dump, folder, damage="", now=LATER):
    database = folder / "kettle.sqlite3"
    with sqlite3.connect(database) as store:
        store.executescript(gzip.decompress(dump.read_bytes()).decode())
        store.execute(damage or "select 1")
    store.close()
    return open_kitchen(database, now)


@pytest.fixture(params=KEPT, ids=[path.name.partition(".")[0] for path in KEPT])
def old(request, tmp_path):
    kitchen = opened(request.param, tmp_path)
    yield kitchen
    kitchen.client.application.extensions["kettle_engine"].dispose()


@pytest.fixture
def fifth(tmp_path):
    kitchen = opened(FIFTH, tmp_path)
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
    assert found["cook.check"] == "skipped"
    assert found["finish.finish"] == "confirmed"
    assert [c["verdict"] for c in cook["checks"]] == ["failed"]


def test_a_cook_under_way_goes_on_to_its_end(old: Kitchen):
    live = old.get("/cooks/3/live")
    assert live["current"] == "cook.quick"
    while not live["finished"]:
        old.wait(60)
        live = old.press(live)
    assert live["checks"][-1]["verdict"] == "passed"
    path = "/api/v1/cooks/3/outcome"
    assert old.client.put(path, json=OUTCOME).status_code == 200


def test_a_kept_plan_can_be_started_again(old: Kitchen):
    plan = old.get("/plans")["plans"][0]
    live = old.post("/cooks", {"dish": plan["dish"], "plan_id": plan["id"]})
    assert live["current"] == "season.season"


def test_plans_and_what_they_were_before_are_the_chains_that_they_are(fifth: Kitchen):
    plans = fifth.get("/plans")
    assert plans["aside"] == []
    own, ribs = plans["plans"]
    assert (own["title"], own["version"]) == ("Ribs, brushed twice", 1)
    assert ribs["title"] == ribs["dish"]["name"] == "Beef short ribs, plum and black tea"
    by_id = {stage["id"]: stage for stage in ribs["dish"]["stages"]}
    assert by_id["cook"]["until"]["bite"] == "tug"
    moments = [(act["do"], act["at_min"]) for act in by_id["finish"]["acts"]]
    assert moments == [("coat", 2.0), ("turn", 3.0), ("coat", 4.0)]
    (before,) = fifth.get(f"/plans/{ribs['id']}/revisions")["revisions"]
    assert before["dish"]["format"] == "kettle.dish/2"
    assert {s["id"]: s for s in before["dish"]["stages"]}["cook"]["until"]["bite"] == "falls"
    assert fifth.post("/forecasts", ribs["dish"], 200)["fires"][0]["stage"] == "finish"


def test_a_log_of_two_heats_is_that_of_their_chain(fifth: Kitchen):
    """A cook with signs; one sent back to its bath and then left out with a reason; both to the
    end, with the checks, the strips and the outcomes that they had."""
    assert fifth.get("/cooks")["aside"] == []
    first = fifth.get("/cooks/1")
    assert first["signs"] == ["bubbling after 1:10"]
    assert first["facts"]["glaze"]["appliance"] == "broiler"
    assert first["glaze_after"]["seen"]
    assert first["summary"]["strip"]["pulled_s"] > 120
    assert first["dish"]["format"] == "kettle.dish/2"
    second = fifth.get("/cooks/2")
    found = {s["key"]: s["state"] for s in second["stages"]}
    assert found["cook.check"] == "failed"
    assert found["cook.check~1.hold"] == "confirmed"
    assert found["cook.check~1.check"] == "skipped"
    assert found["finish.finish"] == "confirmed"
    assert (second["summary"]["outcome"]["colour"]) == "pale"


def test_cooks_under_way_go_on_where_they_were(fifth: Kitchen):
    """One that was told to the valve and taken back twice, and one of a chain."""
    live = fifth.get("/cooks/3/live")
    assert live["current"] == "cook.quick"
    assert [s["state"] for s in live["steps"] if s["key"] == "cook.hold"] == ["confirmed"]
    for number in (3, 4):
        live = fifth.get(f"/cooks/{number}/live")
        while not live["finished"]:
            fifth.wait(60)
            live = fifth.press(live)
        assert "passed" in [check["verdict"] for check in live["checks"]]


def test_a_cook_from_before_there_were_readings_takes_them(tmp_path):
    """On its way back from a check that failed, two hours ago: a probe is put in, and it goes on to
    its end."""
    kitchen = opened(SEVENTH, tmp_path)
    live = kitchen.get("/cooks/2/live")
    assert (live["current"], live["probe"], live["rehearsal"]) == ("cook.check~1.load", None, None)
    kitchen.post("/cooks/2/readings", {"quantity": "core_c", "value": 71.5})
    assert kitchen.get("/cooks/2/live")["probe"]["temp_c"] == 71.5
    while not live["finished"]:
        kitchen.wait(60)
        live = kitchen.press(live)
    assert [check["verdict"] for check in live["checks"]] == ["failed", "passed"]
    first = kitchen.get("/cooks/1")
    assert first["signs"] == ["amber at the edges after 1:50"]
    assert first["summary"]["outcome"]["note"] == "Good."
    kitchen.client.application.extensions["kettle_engine"].dispose()


def test_dishes_of_a_meal_from_before_there_were_suppers_are_cooked_to_their_end(tmp_path):
    """One in the pot, one that waits for its moment; their waits last minutes, as they were told.
    The meal that they are of begins anew as a supper."""
    kitchen = opened(NINTH, tmp_path, now=IN_THE_POT)
    both = kitchen.get("/cooks/live")
    assert [one["id"] for one in both["cooks"]] == [2, 1]
    assert both["suppers"] == []
    live = {number: kitchen.get(f"/cooks/{number}/live") for number in (1, 2)}
    assert [live[number]["current"] for number in (1, 2)] == ["cook.hold", "wait"]
    assert [live[number]["supper"] for number in (1, 2)] == [None, None]
    slack = next(step for step in live[1]["steps"] if step["key"] == "meal-1.slack")
    assert slack["likely_s"] == 2068.0
    live[1] = kitchen.press_until(live[1], "meal-1.slack")
    kitchen.wait(2000.0)
    assert kitchen.get("/cooks/1/live")["current"] == "meal-1.slack"
    kitchen.wait(100.0)
    assert kitchen.get("/cooks/1/live")["current"] == "dress.dress"
    kitchen.post("/cooks/2/events", {"kind": "later", "seconds": 600})
    for number in (1, 2):
        end = kitchen.get(f"/cooks/{number}/live")
        while not end["finished"]:
            kitchen.wait(60)
            end = kitchen.press(end)
        assert end["checks"][-1]["verdict"] == "passed"
        path = f"/api/v1/cooks/{number}/outcome"
        assert kitchen.client.put(path, json=OUTCOME).status_code == 200
    (meal,) = kitchen.get("/meals")["meals"]
    again = kitchen.get("/meals/1")["meal"] | {"serve_at": str(kitchen.now + timedelta(hours=5))}
    kept = kitchen.client.put("/api/v1/meals/1", json={"meal": again}, headers={"If-Match": '"1"'})
    assert kept.status_code == 200
    begun = kitchen.post(f"/meals/{meal['id']}/cooks", {})
    assert kitchen.get("/cooks/live")["suppers"][0]["id"] == begun["supper"]
    kitchen.client.application.extensions["kettle_engine"].dispose()


DAMAGE = ('{"a":', "7", "null", "[]", '{"format": "kettle.dish/1", "cut": "heron"}')
COLUMNS = ("plan.dish", "plan_revision.dish", "cook.dish", "cook.facts", "cook_step.data")


@pytest.mark.parametrize("column", [*COLUMNS, "cook_event.data"])
@pytest.mark.parametrize("text", DAMAGE)
def test_a_record_that_cannot_be_lifted_is_set_aside_and_the_kitchen_opens(tmp_path, column, text):
    """One damaged record of an older version must not keep the server from its start."""
    table, name = column.split(".")
    first = f"(select min(rowid) from {table})"
    kitchen = opened(FIFTH, tmp_path, f"update {table} set {name} = '{text}' where rowid = {first}")
    plans, cooks = kitchen.get("/plans"), kitchen.get("/cooks")
    assert len(plans["plans"]) + len(plans["aside"]) == 2
    assert len(cooks["cooks"]) + len(cooks["aside"]) == 4
    for number in (1, 2, 3, 4):
        whole = kitchen.client.get(f"/api/v1/cooks/{number}").status_code
        assert whole in ((200, 409) if number == 1 else (200,))
    kitchen.client.application.extensions["kettle_engine"].dispose()


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


def test_cooks_from_before_they_taught_go_on_and_teach_nothing(tmp_path):
    """Of what lay under their fires nothing was kept: one that has ended, one under its broiler
    with a sign, one that left it for the fryer. What was seen of the broiler itself counts."""
    kitchen = opened(TENTH, tmp_path, now=UNDER_HEAT)
    assert kitchen.get("/cooks/1")["signs"] == ["amber at the edges after 1:10"]
    before = kitchen.get("/kitchen")
    assert before["learnt"]["broiler"]["seen"] == 1
    assert [one["cook_id"] for one in before["appliances"][0]["observations"]] == [None]
    for number, current in ((2, "finish.finish"), (3, "finish.out")):
        live = kitchen.get(f"/cooks/{number}/live")
        assert live["current"] == current
        while not live["finished"]:
            kitchen.wait(30)
            live = kitchen.press(live)
        path = f"/api/v1/cooks/{number}/outcome"
        assert kitchen.client.put(path, json=OUTCOME).status_code == 200
        assert kitchen.get(f"/cooks/{number}/lessons")["appliances"] == []
    assert kitchen.get("/cooks/3")["moved"]
    assert kitchen.get("/kitchen")["learnt"]["broiler"]["seen"] == 1
    kitchen.client.application.extensions["kettle_engine"].dispose()


def test_signs_that_were_learnt_before_colours_taught_are_learnt_as_before(tmp_path):
    """Its cook that ended has a colour: told again it teaches. The one under its fire goes on."""
    kitchen = opened(ELEVENTH, tmp_path, now=datetime(2030, 5, 4, 13, 29, tzinfo=UTC))
    before = kitchen.get("/kitchen")["learnt"]["broiler"]
    (lesson,) = kitchen.get("/cooks/1/lessons")["appliances"]
    assert [one["sign"] for one in lesson["observations"]] == ["amber at the edges"]
    assert (before["seen"], round(before["mean"][0], 6)) == (1, 0.565873)
    again = kitchen.client.put("/api/v1/cooks/1/outcome", json={**OUTCOME, "colour": "burnt"})
    assert again.status_code == 200
    after = kitchen.get("/kitchen")["learnt"]["broiler"]
    assert (after["seen"], after["mean"][0] > before["mean"][0]) == (2, True)
    live = kitchen.get("/cooks/2/live")
    while not live["finished"]:
        kitchen.wait(30)
        live = kitchen.press(live)
    assert kitchen.client.put("/api/v1/cooks/2/outcome", json=OUTCOME).status_code == 200
    (lesson,) = kitchen.get("/cooks/2/lessons")["appliances"]
    signs = [one["sign"] for one in lesson["observations"]]
    assert signs == ["amber at the edges", "came out amber"]
    kitchen.client.application.extensions["kettle_engine"].dispose()
