"""Two devices at one stove: the second tells the passcode, and both see the same."""

import re

from playwright.sync_api import Browser, Page, expect
from tests.browser.cooking import RIBS, by

PASSCODE = "plum & black tea"


def test_a_second_device_tells_the_passcode_and_both_see_a_tap(
    page: Page, server, browser: Browser, axe
):
    server.passcode = PASSCODE
    server.start("--host", "0.0.0.0")
    address = server.address
    cook = server.ask("/cooks", {"dish": dict(RIBS)})["id"]
    page.goto(f"{address}/kitchen#join=plum%20%26%20black%20tea")  # as the terminal prints it
    expect(by(page, "other-device").get_by_role("img")).to_be_visible()
    assert "#join" not in page.url, "it stays in no history"
    assert axe(page) == []
    page.goto(f"{address}/stove/{cook}")
    phone = browser.new_context(viewport={"width": 390, "height": 844}).new_page()
    phone.goto(f"{address}/stove/{cook}")
    expect(by(phone, "passcode")).to_be_visible()
    expect(by(phone, "says")).to_have_count(0)
    assert axe(phone) == []
    field = by(phone, "passcode")
    for told in ("plum & green tea", PASSCODE):
        field.fill(told)
        by(phone, "join").click()
        if told != PASSCODE:
            expect(phone.get_by_role("alert")).to_contain_text("not this kettle's passcode")
    for device in (page, phone):
        expect(by(device, "says")).to_contain_text("Salt the 6 ribs")
    by(phone, "done").click()
    for device in (phone, page):
        expect(by(device, "says")).to_contain_text(re.compile("of liquid, rack"))
    phone.context.close()
