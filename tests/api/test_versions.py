"""Two places that change one record, and records that point at each other."""

import threading

import pytest
from tests.conftest import SHORT_RIBS, Kitchen

SAUCE = {"name": "Red", "kind": "glaze", "lines": ["200 g honey"]}
BROILER = {"kind": "oven-broiler", "name": "its broiler"}
DISH = {"dish": SHORT_RIBS}
KINDS = {
    "plan": ("/plans", DISH, {"dish": {**SHORT_RIBS, "coats": 1}}),
    "sauce": ("/sauces", SAUCE, {**SAUCE, "name": "Darker red"}),
    "appliance": ("/kitchen/appliances", BROILER, {**BROILER, "name": "the upper broiler"}),
}


def put(kitchen: Kitchen, path: str, body, etag: str | None = None):
    headers = {} if etag is None else {"If-Match": etag}
    return kitchen.client.put("/api/v1" + path, json=body, headers=headers)


@pytest.mark.parametrize("kind", KINDS)
def test_the_later_save_is_told_and_changes_nothing(kitchen: Kitchen, kind):
    path, first, second = KINDS[kind]
    made = kitchen.client.post("/api/v1" + path, json=first)
    own, etag = f"{path}/{made.get_json()['id']}", made.headers["ETag"]
    mine = put(kitchen, own, second, etag)
    assert mine.status_code == 200
    assert mine.headers["ETag"] != etag
    theirs = put(kitchen, own, first, etag)
    assert theirs.status_code == 412
    assert "changed" in theirs.get_json()["detail"]
    again = put(kitchen, own, second, mine.headers["ETag"])
    assert again.status_code == 200
    packed = again.headers["ETag"].strip('"') + ":br"  # as a packed answer tells it
    assert put(kitchen, own, second, f'W/"{packed}"').status_code == 200
    assert put(kitchen, own, second).status_code == 200, "without a version it is as ever"
    for told in ("yesterday", "0", "3", '"3', '"3", "4"'):
        wrong = put(kitchen, own, second, told)
        assert wrong.status_code == 422
        assert wrong.get_json()["errors"][0]["field"] == "If-Match"


@pytest.mark.parametrize("kind", KINDS)
def test_a_save_whose_answer_was_lost_may_be_sent_again(kitchen: Kitchen, kind):
    path, first, second = KINDS[kind]
    made = kitchen.client.post("/api/v1" + path, json=first)
    own, etag = f"{path}/{made.get_json()['id']}", made.headers["ETag"]
    mine = put(kitchen, own, second, etag)
    again = put(kitchen, own, second, etag)
    assert again.status_code == 200
    assert again.headers["ETag"] == mine.headers["ETag"], "nothing was saved twice"
    assert again.get_json() == mine.get_json()


@pytest.mark.parametrize("kind", KINDS)
def test_a_save_that_races_a_delete_ends_in_404_or_409_and_never_in_a_500(kitchen: Kitchen, kind):
    path, first, second = KINDS[kind]
    app = kitchen.client.application
    found: set[int] = set()
    for _ in range(6):
        number = kitchen.post(path, first)["id"]
        own = f"/api/v1{path}/{number}"

        def save(own=own):
            found.add(app.test_client().put(own, json=second).status_code)

        savers = [threading.Thread(target=save) for _ in range(3)]
        for saver in savers:
            saver.start()
        assert app.test_client().delete(own).status_code in (204, 409)
        for saver in savers:
            saver.join()
        assert app.test_client().put(own, json=second).status_code in (404, 409)
    assert found <= {200, 404, 409}


def test_a_record_may_not_point_at_one_that_is_not_there(kitchen: Kitchen):
    sauce = {"name": "Red", "lines": [{"ingredient": "honey", "mass_g": 100}], "sauce_id": 99}
    lost = kitchen.post("/plans", {"dish": {**SHORT_RIBS, "sauce": sauce}}, 422)
    assert lost["errors"][0]["field"] == "dish.layers.0.sauce.sauce_id"
    body = kitchen.post("/kitchen/appliances", {**BROILER, "body_id": 99}, 422)
    assert body["errors"][0]["field"] == "body_id"
    assert kitchen.post("/cooks", {"dish": {**SHORT_RIBS, "coats": 1}, "plan_id": 99}, 404)
    plan = kitchen.post("/plans", DISH)
    cook = kitchen.post("/cooks", {"dish": {**SHORT_RIBS, "coats": 1}, "plan_id": plan["id"]})
    assert kitchen.client.delete(f"/api/v1/plans/{plan['id']}").status_code == 204
    assert kitchen.get(f"/cooks/{cook['id']}/live")["current"] == "season.season"
