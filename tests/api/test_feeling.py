"""A skewer tries the food while its slow heat goes on."""

from datetime import datetime

import pytest
from tests.conftest import SHORT_RIBS, Kitchen

BRAISE = {**SHORT_RIBS, "tenderise": "braise"}
HOLD = "cook.hold"


def moment(text):
    return datetime.fromisoformat(text)


def due(live, key=HOLD):
    return moment(next(s["due_at"] for s in live["steps"] if s["key"] == key))


@pytest.fixture
def holding(kitchen: Kitchen):
    """Ribs in their dish, the hold just begun."""
    return kitchen.press_until(kitchen.post("/cooks", {"dish": BRAISE}), HOLD)


def felt(kitchen: Kitchen, live, tender):
    return kitchen.tell(live["id"], kind="felt", step=HOLD, tender=tender)


def test_what_resists_late_takes_longer_and_what_slides_in_is_done(kitchen: Kitchen, holding):
    assert holding["feel"] == {"step": HOLD, "tender": None, "says": "", "ready": True}
    planned = due(holding)
    hold_s = (planned - kitchen.now).total_seconds()
    kitchen.wait(0.3 * hold_s)
    early = felt(kitchen, holding, False)
    assert abs((due(early) - planned).total_seconds()) < 0.1 * hold_s
    kitchen.wait(0.65 * hold_s)
    late = felt(kitchen, holding, False)
    more_s = (due(late) - kitchen.now).total_seconds()
    assert more_s > 0.1 * hold_s
    assert due(late) > due(early)
    assert moment(late["serve_at"]) > moment(early["serve_at"])
    assert late["feel"]["tender"] is False
    assert "It resisted after" in late["feel"]["says"]
    kitchen.wait(0.5 * more_s)
    done = felt(kitchen, holding, True)
    assert due(done) == kitchen.now
    assert done["feel"]["says"].startswith("A skewer slid in after")
    assert moment(done["serve_at"]) < moment(late["serve_at"])
    back = kitchen.tell(holding["id"], kind="undo")
    assert due(back) == due(late)


def test_it_is_tried_when_its_time_is_over_and_stays_in(kitchen: Kitchen, holding):
    """What is only reckoned to be over goes on: the hold is the step again."""
    kitchen.wait((due(holding) - kitchen.now).total_seconds() + 120.0)
    over = kitchen.get(f"/cooks/{holding['id']}/live")
    assert over["current"] != HOLD
    assert over["feel"]["step"] == HOLD
    live = felt(kitchen, holding, False)
    assert live["current"] == HOLD
    assert (due(live) - kitchen.now).total_seconds() > 300.0


def test_what_was_tender_goes_to_its_check_and_into_the_log(kitchen: Kitchen, holding):
    kitchen.wait(3600.0)
    live = felt(kitchen, holding, True)
    live = kitchen.tell(live["id"], kind="done", step=HOLD)
    assert live["feel"] is None
    live = kitchen.press_until(live, "cook.check")
    assert live["gate"]["tender"], "a feel in the heat stands in for no check"
    while live["current"]:
        kitchen.wait(20.0)
        live = kitchen.press(live)
    kitchen.wait(60.0)
    assert kitchen.get(f"/cooks/{live['id']}/live")["finished"]


def test_longer_by_hand_before_it_was_tried_is_not_counted_twice(kitchen: Kitchen, holding):
    kitchen.tell(holding["id"], kind="extend", step=HOLD, seconds=1800.0)
    kitchen.wait(3600.0)
    assert due(felt(kitchen, holding, True)) == kitchen.now
    longer = kitchen.tell(holding["id"], kind="extend", step=HOLD, seconds=600.0)
    assert (due(longer) - kitchen.now).total_seconds() == 600.0


def test_a_skewer_tries_nothing_that_is_closed_or_over(kitchen: Kitchen, holding):
    for body, field in (
        ({"kind": "felt", "step": HOLD}, "tender"),
        ({"kind": "felt", "step": "cook.check", "tender": True}, "step"),
        ({"kind": "felt", "tender": True}, "step"),
    ):
        refused = kitchen.post(f"/cooks/{holding['id']}/events", body, 422)
        assert [fault["field"] for fault in refused["errors"]] == [field]
    pot = kitchen.press_until(kitchen.post("/cooks", {"dish": SHORT_RIBS}), HOLD)
    assert pot["feel"] is None
    body = {"kind": "felt", "step": HOLD, "tender": True}
    kitchen.post(f"/cooks/{pot['id']}/events", body, 422)
