"""Chains of one's own: kept, renamed, shared as a file, taken back, printed on one page."""

import json
import re
import time
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect
from tests.browser.cooking import by
from tests.browser.test_steps import open_chain, settled
from tests.chain.conftest import TEMPLATES
from tests.served import SMALL


def named(page: Page, name: str) -> None:
    by(page, "name").fill(name)
    page.keyboard.press("Enter")


def kept(server) -> list[dict]:
    return server.ask("/plans")["plans"]


def wait_kept(page: Page, number: int, version: int) -> None:
    """The last change has reached the server."""
    deadline = time.monotonic() + 60.0
    while page.evaluate("localStorage['kettle-chain-version']") != str(version):
        assert time.monotonic() < deadline, "it was not kept"
        page.wait_for_timeout(50)
    expect(page).to_have_url(re.compile(rf"/plan/{number}$"))


def test_a_change_is_kept_and_a_look_is_not(page: Page, server, axe):
    address = server.start()
    open_chain(page, address, "sugar-crust")
    page.wait_for_timeout(900)
    assert kept(server) == []
    named(page, "Friday crust")
    wait_kept(page, 1, 1)
    by(page, "clause-fry").click()
    by(page, "field-until.minutes").locator("input").fill("48")
    by(page, "done").click()
    wait_kept(page, 1, 2)
    assert [one["title"] for one in kept(server)] == ["Friday crust"]
    # From another device: there it is, and whole.
    page.evaluate("localStorage.clear()")
    page.goto(f"{address}/plan/1")
    settled(page)
    expect(by(page, "clause-fry")).to_contain_text("for 48 minutes")
    expect(by(page, "name")).to_have_value("Friday crust")
    by(page, "past").click()
    expect(by(page, "take-back")).to_have_count(1)
    by(page, "take-back").click()
    expect(by(page, "clause-fry")).to_contain_text("for 52 minutes")
    wait_kept(page, 1, 3)
    by(page, "undo").click()
    expect(by(page, "clause-fry")).to_contain_text("for 48 minutes")
    # The last stroke before the shelf is not lost.
    named(page, "Saturday crust")
    by(page, "shelf").click()
    expect(by(page, "own-1")).to_contain_text("Saturday crust")
    expect(by(page, "back")).to_have_count(0)
    assert axe(page) == []
    page.goto(f"{address}/plan/77")
    expect(page.get_by_role("alert").first).to_contain_text("77")


def test_two_tabs_on_one_chain(page: Page, server):
    address = server.start()
    open_chain(page, address, "sugar-crust")
    named(page, "Mine")
    wait_kept(page, 1, 1)
    other = page.context.browser.new_context().new_page()
    other.goto(f"{address}/plan/1")
    settled(other)
    named(other, "Theirs")
    wait_kept(other, 1, 2)
    named(page, "Mine again")
    expect(by(page, "changed")).to_be_visible()
    assert kept(server)[0]["title"] == "Theirs"
    by(page, "keep-mine").click()
    wait_kept(page, 1, 3)
    assert kept(server)[0]["title"] == "Mine again"
    named(other, "Theirs again")
    by(other, "take-theirs").click()
    expect(by(other, "name")).to_have_value("Mine again")
    assert kept(server)[0]["title"] == "Mine again"
    other.context.close()


def test_a_plan_opens_by_its_old_address_and_an_older_copy_is_told(page: Page, server):
    address = server.start()
    server.ask("/plans", {"dish": SMALL})
    chain = server.ask("/plans", {"dish": TEMPLATES["sugar-crust"]})
    page.goto(f"{address}/steps/{chain['id']}")
    expect(page).to_have_url(re.compile(rf"/plan/{chain['id']}$"))
    settled(page)
    # It was changed on another device while this one looked elsewhere.
    other = {**TEMPLATES["sugar-crust"], "name": "From the other room"}
    server.ask(f"/plans/{chain['id']}", {"dish": other}, "PUT")
    page.goto(address + "/plan")
    expect(by(page, "changed")).to_be_visible()
    by(page, "take-theirs").click()
    expect(by(page, "name")).to_have_value("From the other room")
    # Back to what it was, by keyboard alone.
    by(page, "past").focus()
    page.keyboard.press("Enter")
    expect(by(page, "take-back")).to_be_focused()
    page.keyboard.press("Escape")
    expect(by(page, "past")).to_be_focused()
    page.keyboard.press("Enter")
    expect(by(page, "take-back")).to_be_focused()
    page.keyboard.press("Enter")
    expect(by(page, "name")).to_have_value(TEMPLATES["sugar-crust"]["name"])
    wait_kept(page, chain["id"], 3)


def test_a_chain_goes_out_as_a_file_and_comes_back(page: Page, server, tmp_path: Path):
    address = server.start()
    open_chain(page, address, "frozen-split")
    named(page, "Half & half / two fires")
    wait_kept(page, 1, 1)
    by(page, "shelf").click()
    with page.expect_download() as told:
        page.get_by_role("button", name="as a file").click()
    assert told.value.suggested_filename == "Half-half-two-fires.kettle.json"
    file = tmp_path / "chain.json"
    told.value.save_as(file)
    page.get_by_role("button", name="Delete “Half & half / two fires”").click()
    expect(by(page, "own-1")).to_have_count(0)
    by(page, "undo-drop").click()
    expect(by(page, "own-1")).to_be_visible()
    by(page, "file").set_input_files(file)
    settled(page)
    expect(page).to_have_url(re.compile(r"/plan/2$"))
    expect(by(page, "name")).to_have_value("Half & half / two fires")
    assert kept(server)[0]["dish"]["stages"] == kept(server)[1]["dish"]["stages"]
    by(page, "shelf").click()
    for text, says in (("no", "no JSON"), ("{}", "no chain"), (broken(), "mass")):
        file.write_text(text, encoding="utf-8")
        by(page, "file").set_input_files(file)
        expect(page.get_by_role("alert").last).to_contain_text(says)
    assert len(kept(server)) == 2


def broken() -> str:
    document = TEMPLATES["frozen-split"]
    return json.dumps({**document, "food": {**document["food"], "mass_kg": -2}})


def test_on_the_table_at_an_hour_waits_for_its_start(page: Page, server):
    address = server.start()
    open_chain(page, address, "cauliflower-oven")
    by(page, "clause-serve").click()
    page.get_by_role("button", name="in 2 hours").click()
    by(page, "done").click()
    expect(by(page, "clause-serve")).to_contain_text(re.compile(r"at \d\d:\d\d"))
    settled(page)
    by(page, "start").click()
    by(page, "start-planned").click()
    expect(page).to_have_url(re.compile(r"/stove/1$"))
    live = server.ask("/cooks/1/live")
    assert live["waits_s"] > 1200
    assert server.ask("/cooks/1")["dish"]["serve_at"]


@pytest.mark.parametrize("key", ["frozen-split", "bath-then-low-high", "bones-out-sandwich"])
def test_one_page_for_the_fridge(page: Page, server, axe, key):
    address = server.start()
    open_chain(page, address, key)
    by(page, "fridge").click()
    expect(by(page, "paper")).to_be_visible()
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    assert axe(page) == []
    rows = by(page, "paper").locator("tr")
    times = [text.split("\t")[0].split("\n")[0] for text in rows.all_inner_texts()]
    assert len(times) > 5
    with page.expect_download() as told:
        by(page, "as-text").click()
    text = Path(told.value.path()).read_text(encoding="utf-8")
    table = [line for line in text.splitlines() if re.match(r"\| \d\d:\d\d ", line)]
    assert [line[2:7] for line in table] == times
    page.emulate_media(media="print")
    page.wait_for_timeout(300)
    for size in ("A4", "Letter"):
        printed = page.pdf(format=size)
        assert len(re.findall(rb"/Type\s*/Page\b", printed)) == 1, size
