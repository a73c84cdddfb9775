"""Whole cooks rehearsed on the page at thirty times their speed, and a probe that is followed."""

import json
import re
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect
from tests.browser.cooking import RIBS, Cooking, by, said
from tests.conftest import ROAST

pytestmark = pytest.mark.browser

TEMPLATES = Path(__file__).parents[2] / "src/bluekettle/templates"
SPEED = 30


@dataclass
class Rehearsing(Cooking):
    """A rehearsal, followed by what its simulated food shows; its clock outruns the wall's."""

    verdicts: list[str] = field(default_factory=list)

    def begin(self, seed: int) -> None:
        self.start(rehearsal={"speed": SPEED, "seed": seed})

    def confirm(self, reading: str = "") -> Any:
        """Do the current step in its likely time; a check is told by what is read and felt."""
        before = self.live()
        step = self.step(before)
        self.server.wait(max(0.5, step["likely_s"]) / SPEED)
        live = self.live()
        expect(by(self.page, "says")).to_have_text(said(live))
        self.page.wait_for_timeout(700)  # a tap within this was meant for the step before
        self.one_thing()
        if live["gate"] is None:
            self.tell_done(live)
            return self.until_changed(live)
        if live["gate"]["wants_c"] is not None:
            expect(by(self.page, "gate-temp")).to_have_value(re.compile(r"^\d"))
        tender = "should" in live["rehearsal"]["feels"]
        expect(by(self.page, "feels")).to_have_text(live["rehearsal"]["feels"])
        self.press("gate-yes" if tender or not live["gate"]["tender"] else "gate-no")
        return self.until_changed(live)

    def one_thing(self) -> None:
        """What is to be done is one wide button, or a check's two, tall enough for a knuckle."""
        wide = self.page.locator(".wide-button:visible")
        expect(wide.first).to_be_visible()
        assert wide.count() <= 2
        for one in wide.all():
            box = one.bounding_box()
            assert box is not None
            assert box["height"] >= 96
            assert len(one.inner_text().split()) <= 6

    def whole(self) -> Any:
        """To the end, and into the log where it is wanted there."""
        live = self.live()
        for _ in range(90):
            if live["finished"]:
                break
            live = self.confirm()
        assert live["finished"]
        self.verdicts = live["rehearsal"]["verdicts"]
        assert self.verdicts
        for line in self.verdicts:
            expect(by(self.page, "verdicts")).to_contain_text(line)
        self.press("keep-rehearsal")
        self.rate()
        assert [c["id"] for c in self.ask("/cooks")["cooks"]] == [self.cook]
        return self.ask(f"/cooks/{self.cook}")


@pytest.fixture
def rehearsing(page: Page, server) -> Rehearsing:
    server.start_moved()
    return Rehearsing(page, server)


def test_a_check_that_fails_is_cooked_on_to_the_end(rehearsing, page: Page, axe):
    """The pot is opened far too early: the simulated food is tough, and goes back in."""
    rehearsing.dish = {**RIBS, "bite": "falls"}
    rehearsing.begin(seed=2)
    expect(by(page, "rehearsal")).to_contain_text("Rehearsal")
    rehearsing.until("cook.hold")
    rehearsing.say_done()
    rehearsing.page.wait_for_timeout(700)
    live = rehearsing.until("cook.check")
    expect(by(page, "feels")).to_have_text("A fork meets resistance.")
    assert axe(page) == []
    live = rehearsing.confirm()
    assert live["back"]
    logged = rehearsing.whole()
    assert [c["verdict"] for c in logged["checks"]][:1] == ["failed"]
    assert [c["verdict"] for c in logged["checks"]][-1] == "passed"


def test_simulated_food_is_tried_in_its_heat_until_a_skewer_slides_in(rehearsing, page: Page, axe):
    rehearsing.dish = {**RIBS, "tenderise": "braise"}
    rehearsing.begin(seed=2)
    rehearsing.until("cook.hold")
    expect(by(page, "finds")).to_have_text("A skewer meets resistance.")
    before = rehearsing.live()
    rehearsing.press("felt-tough")
    rehearsing.until_changed(before)
    expect(by(page, "feel")).to_contain_text("It resisted after")
    assert axe(page) == []
    for _ in range(40):
        if "goes in" in rehearsing.live()["rehearsal"]["feels"]:
            break
        rehearsing.server.wait(300 / SPEED)
    expect(by(page, "finds")).to_have_text("A skewer goes in as it should.")
    before = rehearsing.live()
    rehearsing.press("felt-tender")
    rehearsing.until_changed(before)
    logged = rehearsing.whole()
    assert [c["verdict"] for c in logged["checks"]] == ["passed"]


def test_rounds_are_rehearsed_to_the_end(rehearsing):
    document = json.loads((TEMPLATES / "03-marinated-rounds.json").read_text("utf-8"))["document"]
    rehearsing.dish = document
    rehearsing.begin(seed=3)
    logged = rehearsing.whole()
    keys = [stage["key"] for stage in logged["stages"]]
    assert [key for key in keys if key.endswith(".1.finish") or key.endswith(".2.finish")]
    assert len(rehearsing.verdicts) == len({key for key in keys if ".finish" in key})


def test_a_server_killed_in_the_fire_goes_on_by_the_clock_of_the_rehearsal(rehearsing, page: Page):
    rehearsing.begin(seed=4)
    rehearsing.until("finish.finish")
    before = rehearsing.live()
    rehearsing.server.kill()
    page.wait_for_timeout(1500)
    expect(by(page, "clock")).to_be_visible()
    rehearsing.server.start_moved()
    after = rehearsing.live()
    assert after["current"] == "finish.finish"
    assert after["rehearsal"]["speed"] == SPEED
    assert after["fire"]["since"] == before["fire"]["since"]
    assert after["now"] > before["now"]
    rehearsing.whole()


def test_it_is_begun_from_a_plan_slowed_down_and_never_in_the_log_by_itself(rehearsing, page: Page):
    page.goto(rehearsing.server.address + "/plan")
    page.locator("[data-test^=template-]").first.click()
    expect(by(page, "rehearse")).to_be_enabled()
    by(page, "rehearse").click()
    expect(by(page, "rehearsal")).to_be_visible()
    by(page, "speed-1").click()
    (live,) = rehearsing.ask("/cooks/live")["cooks"]
    for _ in range(100):
        if live["rehearsal"]["speed"] == 1:
            break
        page.wait_for_timeout(100)
        (live,) = rehearsing.ask("/cooks/live")["cooks"]
    assert live["rehearsal"]["speed"] == 1
    by(page, "stop").click()
    page.goto(rehearsing.server.address + "/log")
    expect(page.get_by_text("No cook yet.")).to_be_visible()
    assert rehearsing.ask("/cooks")["cooks"] == []


def test_a_probe_is_followed_and_fills_in_the_check(page: Page, server, axe):
    server.start_moved()
    cooking = Cooking(page, server, dish=ROAST)
    cooking.start().fast("low.hold")
    readings = f"/cooks/{cooking.cook}/readings"
    for minute in range(0, 100, 10):
        server.wait(600)
        cooking.ask(readings, {"quantity": "core_c", "value": 8.0 + 0.3 * minute})
    expect(by(page, "probe")).to_contain_text(re.compile(r"35 °C.*80 °C about \d\d:\d\d"))
    expect(by(page, "says")).to_have_text("In the low oven until 80 °C inside.")
    assert axe(page) == []
    server.wait(60)
    cooking.ask(readings, {"quantity": "core_c", "value": 131.0})
    expect(by(page, "probe")).to_contain_text("Is it loose?")
    before = cooking.live()
    cooking.press("done")
    cooking.until_changed(before)
    cooking.confirm()
    cooking.ask(readings, {"quantity": "core_c", "value": 82.4, "device": "Probe 1"})
    expect(by(page, "gate-temp")).to_have_value("82.4")
    expect(by(page, "read-by")).to_contain_text("Probe 1")
    before = cooking.live()
    assert before["gate"]
    cooking.press("gate-yes")
    assert cooking.until_changed(before)["checks"][0]["temp_c"] == 82.4
