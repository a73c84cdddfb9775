"""The room of chains: from the shelf to the log."""

import re

import pytest
from playwright.sync_api import Page, expect
from tests.browser.cooking import Cooking, by
from tests.browser.test_journeys import minutes, pick
from tests.chain.conftest import TEMPLATES

CROWDED = {
    **TEMPLATES["basted-returns"],
    "food": {**TEMPLATES["basted-returns"]["food"], "mass_kg": 1.6, "pieces": 14},
    "kitchen": {
        "machines": {
            "air_fryer": {"inside": {"shape": "box", "width_mm": 240.0, "height_mm": 80.0}}
        }
    },
}


def open_chain(page: Page, address: str, key: str) -> None:
    page.goto(address + "/plan")
    by(page, f"template-{key}").click()
    settled(page)


def settled(page: Page) -> None:
    """The answer of what stands in the sentence is there."""
    expect(by(page, "serve-time")).to_be_visible()
    expect(page.locator("[aria-busy=true]")).to_have_count(0)


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_pick_change_undo_and_repair_by_mouse(page: Page, server, axe, theme):
    page.add_init_script(f"localStorage.setItem('kettle-theme', '{theme}')")
    address = server.start()
    page.goto(address + "/plan")
    expect(by(page, "template-lid-stir-lid")).to_be_visible()
    assert axe(page) == []
    open_chain(page, address, "sugar-crust")
    assert axe(page) == []
    honest = minutes(by(page, "honest").inner_text())
    by(page, "clause-fry").click()
    timer = by(page, "field-until.minutes").locator("input")
    expect(timer).to_be_visible()
    timer.fill("15")
    expect(by(page, "clause-fry")).to_contain_text("for 15 minutes")
    by(page, "done").click()
    settled(page)
    assert minutes(by(page, "honest").inner_text()) < honest - 20
    # Too short to be hot inside: it is a stop, and one tap repairs it.
    expect(by(page, "watch-core-cold")).to_be_visible()
    by(page, "start").click()
    expect(by(page, "stop-core-cold")).to_be_visible()
    page.keyboard.press("Escape")
    page.locator(".group [data-test='repair-core-cold']").click()
    expect(by(page, "clause-fry")).to_contain_text("64 °C inside")
    settled(page)
    expect(by(page, "watch-core-cold")).to_have_count(0)
    for _ in range(2):
        by(page, "undo").click()
    expect(by(page, "clause-fry")).to_contain_text("for 52 minutes")
    by(page, "redo").click()
    by(page, "shelf").click()
    expect(by(page, "own-1")).to_be_visible()
    page.reload()
    by(page, "own-1").click()
    expect(by(page, "clause-fry")).to_contain_text("for 15 minutes")
    by(page, "clause-fry").click()
    by(page, "field-until.minutes").locator("input").fill("52")
    by(page, "done").click()
    page.reload()
    settled(page)
    expect(by(page, "clause-fry")).to_contain_text("for 52 minutes")


def test_put_in_what_is_offered_change_its_sauce_and_drag_it(page: Page, server, axe):
    open_chain(page, server.start(), "pressure-hot-oven")
    sentence = by(page, "chain-sentence")
    by(page, "joint-pot").click()
    expect(by(page, "offer-blot")).to_be_visible()
    assert axe(page) == []
    by(page, "offer-more").click()
    by(page, "offer-warm").click()
    # It opens by itself, with what is usual.
    by(page, "field-minutes").locator("input").fill("40")
    expect(by(page, "clause-hold")).to_contain_text("held covered for 40 minutes")
    by(page, "done").click()
    by(page, "clause-brush").click()
    pick(page, "field-layer", "date and mustard")
    expect(by(page, "clause-brush")).to_contain_text("brushed with date and mustard")
    assert axe(page) == []
    by(page, "done").click()
    settled(page)
    honest = minutes(by(page, "honest").inner_text())
    by(page, "clause-hold").drag_to(by(page, "clause-oven"))
    expect(sentence).to_contain_text(re.compile("roasted.*held covered"))
    settled(page)
    for _ in range(2):
        by(page, "undo").click()
    expect(sentence).to_contain_text(re.compile("held covered.*brushed with plum"))
    by(page, "clause-hold").focus()
    page.keyboard.press("Delete")
    expect(by(page, "clause-hold")).to_have_count(0)
    settled(page)
    assert minutes(by(page, "honest").inner_text()) < honest - 25
    by(page, "joint-oven").focus()
    page.keyboard.press("Enter")
    expect(by(page, "offer-brush")).to_be_focused()
    page.keyboard.press("Escape")
    expect(by(page, "offer-brush")).to_have_count(0)
    expect(by(page, "joint-oven")).to_be_focused()


def test_a_coat_is_dragged_along_the_strip_and_opened_by_a_tap(page: Page, server, axe):
    open_chain(page, server.start(), "pressure-hot-oven")
    first = by(page, "coat-1")
    expect(first).to_have_attribute("aria-valuetext", "before the heat")
    first.scroll_into_view_if_needed()
    page.wait_for_timeout(500)
    strip = page.locator(".fire .strip").bounding_box()
    box = first.bounding_box()
    page.mouse.move(box["x"] + 22, box["y"] + 12)
    page.mouse.down()
    page.mouse.move(box["x"] + 22 + strip["width"] / 4, box["y"] + 12, steps=4)
    expect(first).to_contain_text("at ")
    page.mouse.up()
    # Off the start it is brushed on in the fire, and no longer before it.
    expect(by(page, "clause-brush")).to_have_count(0)
    expect(by(page, "clause-oven")).to_contain_text("brushed once in it")
    settled(page)
    late = first.get_attribute("aria-valuetext")
    first.focus()
    page.keyboard.press("ArrowRight")
    expect(first).not_to_have_attribute("aria-valuetext", late)
    settled(page)
    first.click()
    expect(by(page, "coat-more")).to_be_visible()
    assert axe(page) == []
    by(page, "coat-more").click()
    expect(by(page, "coat-2")).to_be_visible()
    settled(page)
    page.keyboard.press("Escape")
    by(page, "coat-2").focus()
    page.keyboard.press("Delete")
    expect(by(page, "coat-2")).to_have_count(0)
    for _ in range(4):
        by(page, "undo").click()
    expect(by(page, "clause-brush")).to_be_visible()
    settled(page)
    expect(first).to_have_attribute("aria-valuetext", "before the heat")


def test_another_school_is_one_tap_and_says_what_it_changes(page: Page, server, axe):
    open_chain(page, server.start(), "pressure-hot-oven")
    page.locator(".schools").scroll_into_view_if_needed()  # asked once somebody comes to it
    quick, natural = (by(page, f"school-release-{key}") for key in ("quick", "natural"))
    expect(quick).to_have_attribute("aria-pressed", "true", timeout=90_000)
    expect(natural).to_contain_text(re.compile(r"\d+ min longer"))
    assert axe(page) == []
    honest = minutes(by(page, "honest").inner_text())
    natural.click()
    expect(by(page, "clause-pot")).to_contain_text("left until the pressure has fallen")
    settled(page)
    assert minutes(by(page, "honest").inner_text()) > honest + 3
    expect(natural).to_have_attribute("aria-pressed", "true")
    expect(by(page, "school-turning")).to_have_count(0)
    by(page, "schools-more").click()
    expect(by(page, "school-turning-half")).to_be_enabled(timeout=90_000)
    by(page, "school-turning-half").focus()
    page.keyboard.press("Enter")
    expect(page.locator("#schools-title")).to_be_focused()  # keys go on from there
    expect(by(page, "clause-oven")).to_contain_text("turned")
    by(page, "school-sauce-after").click()
    expect(by(page, "clause-brush")).to_have_count(0)
    expect(by(page, "chain-sentence")).to_contain_text(re.compile("roasted.*brushed with plum"))


@pytest.mark.parametrize("width", [1280, 390])
def test_two_cooks_side_by_side(page: Page, server, axe, width):
    page.set_viewport_size({"width": width, "height": 844})
    open_chain(page, server.start(), "long-braise")
    by(page, "compare").click()
    pick(page, "compare-with", "Pressure while the oven preheats, sauce, hot oven")
    table = by(page, "compare-table")
    expect(table.get_by_role("row", name=re.compile("Honest time"))).to_contain_text("(better)")
    braise, pressed = table.get_by_role("row", name=re.compile("Honest time")).locator("td").all()
    assert minutes(braise.inner_text()) > minutes(pressed.inner_text())
    expect(table).to_contain_text("kWh of electricity")
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    assert axe(page) == []
    page.get_by_role("link", name="Back to the plan").click()
    expect(by(page, "chain-sentence")).to_contain_text("braised under a lid")


def test_by_keyboard_a_clause_opens_moves_and_goes(page: Page, server):
    open_chain(page, server.start(), "bones-out-sandwich")
    blot = by(page, "clause-blot")
    blot.focus()
    page.keyboard.press("Enter")
    expect(by(page, "take-out")).to_be_visible()
    page.keyboard.press("Escape")
    by(page, "clause-crisp").focus()
    page.keyboard.press("Enter")
    timer = by(page, "field-until.minutes").locator("input")
    with page.expect_response(lambda told: told.url.endswith("/plans") and told.status == 422):
        timer.fill("99999")
        page.keyboard.press("Escape")
        expect(by(page, "clause-crisp")).to_be_focused()
    expect(page.get_by_role("alert")).to_contain_text(re.compile("crisped.*99999 will not do"))
    page.keyboard.press("Control+z")
    expect(page.get_by_role("alert")).to_have_count(0)
    blot.focus()
    page.keyboard.press("Delete")
    expect(by(page, "clause-blot")).to_have_count(0)
    settled(page)
    page.keyboard.press("Control+z")
    expect(blot).to_be_visible()


def test_an_order_that_cannot_be_is_told_and_nothing_is_lost(page: Page, server):
    open_chain(page, server.start(), "pressure-hot-oven")
    by(page, "clause-pot").click()
    by(page, "field-heat").locator("input").fill("oven's broiler")
    page.keyboard.press("Enter")
    expect(by(page, "clause-pot")).to_contain_text("broiled")
    expect(by(page, "field-until.by")).to_be_visible()
    by(page, "done").click()
    page.reload()
    settled(page)
    expect(by(page, "clause-pot")).to_contain_text("broiled")


def test_a_chain_of_two_fires_is_cooked_on_the_page_to_the_log(page: Page, server, axe):
    """Half broiled, half air fried, with the server's clock moved along."""
    address = server.start_moved()
    open_chain(page, address, "frozen-split")
    by(page, "start").click()
    expect(page).to_have_url(re.compile(r"/stove/\d+$"))
    cooking = Cooking(page, server, cook=int(page.url.rsplit("/", 1)[1]))
    cooking.until("broil.finish")
    assert axe(page) == []
    cooking.until("fry.finish")
    while cooking.live()["current"]:
        cooking.confirm()
    cooking.rate()
    expect(page.get_by_role("heading", level=1)).to_contain_text("half air fried")
    assert axe(page) == []
    by(page, "again").click()
    expect(page).to_have_url(re.compile("/plan$"))
    settled(page)
    expect(by(page, "clause-fry")).to_be_visible()


def test_the_best_repair_is_one_tap_and_undo_takes_it_back(page: Page, server):
    open_chain(page, server.start(), "sugar-crust")
    expect(by(page, "right")).to_contain_text("Comes out right 8 evenings in 10")
    by(page, "take-repair").click()
    expect(by(page, "clause-fry")).to_contain_text("135 °C")
    settled(page)
    expect(by(page, "right")).to_contain_text("Comes out right 10 evenings in 10")
    expect(by(page, "take-repair")).to_have_count(0)
    by(page, "undo").click()
    expect(by(page, "clause-fry")).to_contain_text("160 °C")
    expect(by(page, "take-repair")).to_be_visible()


def test_two_batches_by_one_tap_and_back(page: Page, server):
    """The served repair by the page's own library; every batch has its clauses and its fire."""
    address = server.start()
    kept = server.ask("/plans", {"dish": CROWDED})
    page.goto(f"{address}/plan/{kept['id']}")
    settled(page)
    by(page, "repair-fit-batches").focus()
    page.keyboard.press("Enter")
    settled(page)
    expect(by(page, "repair-fit-batches")).to_have_count(0)
    expect(page.locator("#chain-watch")).to_be_focused()  # keys go on from there
    expect(by(page, "clause-fry")).to_contain_text("half of it air fried")
    expect(by(page, "clause-fry-2")).to_contain_text("the rest air fried")
    expect(page.get_by_text("for the rest.")).to_be_visible()
    by(page, "undo").click()
    settled(page)
    expect(by(page, "clause-fry-2")).to_have_count(0)
    expect(by(page, "repair-fit-batches")).to_be_visible()
