"""A whole meal: planned, moved in time, mended, kept, and read on a phone."""

import re
from datetime import UTC, datetime, timedelta

from playwright.sync_api import Page, expect


def by(page: Page, name: str):
    return page.locator(f"[data-test='{name}']")


def opened(page: Page, address: str) -> None:
    page.goto(address + "/meal")
    by(page, "meal-1").click()
    expect(by(page, "fire-line")).to_be_visible()
    expect(page.locator("[aria-busy=true]")).to_have_count(0)


def test_the_boathouse_supper_is_planned_moved_and_kept(page: Page, server, axe):
    address = server.start("--demo")
    opened(page, address)
    verdict = by(page, "meal-verdict")
    expect(verdict).to_contain_text("everything on the table about")
    expect(by(page, "meal-trouble")).to_have_count(0)
    expect(by(page, "meal-list")).to_contain_text("Nothing for your hands until")
    assert axe(page) == []

    expect(by(page, "prepare-may")).to_contain_text("Mix the plum and black tea")
    expect(by(page, "prepare-on")).to_contain_text("Salt the 6 pieces")
    page.emulate_media(media="print")
    heads = by(page, "meal-list").get_by_role("heading").all_inner_texts()
    assert [head.partition(", ")[2] for head in heads] == ["page 1 of 2", "page 2 of 2"]
    for size in ("A4", "Letter"):
        printed = page.pdf(format=size)
        pages = len(re.findall(rb"/Type\s*/Page\b", printed))
        assert pages == len(heads) + 1, size  # and one of what to make ready and to buy
    page.emulate_media(media="screen")

    plate = page.get_by_role("slider", name="Supper")
    expect(plate).to_have_attribute("aria-valuetext", re.compile("19:00"))
    plate.focus()
    plate.press("PageUp")
    expect(plate).to_have_attribute("aria-valuetext", re.compile("19:30"))
    box = plate.bounding_box()
    assert box is not None
    middle = (box["x"] + box["width"] / 2, box["y"] + 40)
    page.mouse.move(*middle)
    page.mouse.down()
    page.mouse.move(middle[0] - 60, middle[1], steps=5)
    page.mouse.up()
    expect(plate).not_to_have_attribute("aria-valuetext", re.compile("19:30"))
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    moved = plate.get_attribute("aria-valuetext")
    before = verdict.inner_text()
    page.reload()
    expect(plate).to_have_attribute("aria-valuetext", str(moved))
    expect(verdict).to_contain_text(before[:30])

    page.get_by_text("2", exact=True).click()
    expect(by(page, "meal-list")).to_contain_text("pair 2")
    page.get_by_role("button", name="Take “Whole cauliflower” off the table").click()
    expect(by(page, "meal-list")).not_to_contain_text("cauliflower")
    by(page, "all-meals").click()
    expect(by(page, "meal-1")).not_to_contain_text("cauliflower")


def test_a_cook_who_sleeps_is_not_woken(page: Page, server, axe):
    """Lunch from a bath of six hours and more is begun in the morning, or served later."""
    address = server.start("--demo")
    kept = page.request.get(address + "/api/v1/meals/1").json()["meal"]
    dishes = [one for one in kept["dishes"] if one["id"] == "drumsticks"]
    noon = (datetime.now(UTC) + timedelta(days=2)).replace(hour=12, minute=0)
    meal = {"name": "Lunch", "serve_at": noon.isoformat(), "dishes": dishes}
    made = page.request.post(
        address + "/api/v1/meals", data={"meal": meal}, headers={"Origin": address}
    )
    page.goto(f"{address}/meal/{made.json()['id']}")
    note, spans = by(page, "night-note"), by(page, "away-span")
    expect(note).to_contain_text(re.compile(r"Hands are wanted at 0[45]:\d\d"))
    by(page, "sleep").focus()
    page.keyboard.press("Enter")
    expect(note).to_have_count(0)
    expect(by(page, "meal-verdict")).to_contain_text("Begin at 07:0")
    expect(by(page, "meal-trouble")).to_contain_text("Hands are needed while nobody is at work")
    by(page, "mend").first.click()
    expect(by(page, "meal-trouble")).to_have_count(0)
    expect(note).to_have_count(0)
    assert axe(page) == []
    page.reload()
    expect(by(page, "meal-verdict")).to_contain_text("Begin at 07:0")
    page.get_by_role("button", name=re.compile("Here after all: .* 23:00 to .* 07:00")).click()
    expect(by(page, "meal-verdict")).not_to_contain_text("Begin at 07:0")
    by(page, "away").click()
    by(page, "take-away").click()
    expect(page.get_by_role("button", name=re.compile("Here after all"))).to_have_count(1)
    expect(spans).to_have_count(0)  # in an hour; the meal begins the day after


def test_without_an_oven_the_reason_is_told_and_one_tap_mends_it(page: Page, server):
    address = server.start("--demo")
    kitchen = page.request.get(address + "/api/v1/kitchen").json()
    by_kind = {one["kind"]: one["id"] for one in kitchen["appliances"]}
    for kind in ("oven-broiler", "hot-oven"):
        path = f"{address}/api/v1/kitchen/appliances/{by_kind[kind]}"
        assert page.request.delete(path, headers={"Origin": address}).ok
    page.goto(address + "/meal/1")
    trouble = by(page, "meal-trouble")
    expect(trouble).to_contain_text("There is no oven for")
    expect(by(page, "fire-line")).to_have_count(0)
    by(page, "mend").first.click()
    expect(by(page, "fire-line")).to_be_visible()
    expect(by(page, "fire-line")).not_to_contain_text("oven")


def test_a_meal_is_begun_from_nothing_on_a_phone(page: Page, server, axe):
    address = server.start("--demo")
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(address + "/meal")
    by(page, "new-meal").click()
    expect(page.get_by_text("Put two dishes on the table")).to_be_visible()
    for field, name in (("add-dish", "Short ribs for the boathouse"), ("add-side", "Rice")):
        by(page, field).click()
        page.get_by_role("option", name=name).click()
    expect(by(page, "meal-verdict")).to_contain_text("Begin at")
    expect(by(page, "fire-line")).to_be_visible()
    expect(page).to_have_url(re.compile(r"/meal/2$"))
    assert axe(page) == []
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390


def test_a_rehearsed_meal_is_cooked_from_the_stove_dish_by_dish(page: Page, server):
    """All dishes begin a minute before the first act, each behind its own wait, in one kitchen."""
    address = server.start("--demo")
    opened(page, address)
    by(page, "rehearse-meal").press("Enter")
    expect(page.locator("#main")).to_be_focused()  # its button is gone: the keys go on here
    expect(by(page, "many")).to_contain_text(re.compile("5 go on|of 5 want"))
    expect(by(page, "supper-1")).to_contain_text("on the table about")
    expect(by(page, "side-slaw")).to_contain_text("Prepare: Cabbage slaw")
    live = page.request.get(address + "/api/v1/cooks/live").json()["cooks"]
    assert [cook["rehearsal"]["speed"] for cook in live] == [30.0] * 3
    assert [cook["current"] for cook in live].count("wait") >= 2
    assert len({cook["rehearsal"]["cook_at"] for cook in live}) == 1
    page.goto(address + "/meal/1")
    by(page, "cook-meal").click()
    expect(page.get_by_role("alert")).to_contain_text("this meal is on the stove already")
