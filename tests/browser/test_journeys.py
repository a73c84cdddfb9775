"""The main journeys in a real browser on the built page."""

import json
import re
from datetime import UTC, datetime, timedelta

import pytest
from playwright.sync_api import Page, expect
from tests.conftest import SHORT_RIBS

pytestmark = pytest.mark.browser

NINE_TAPS = (
    ("cut", "beef-short-ribs"),
    ("state", "fridge"),
    ("mass", "1.6"),
    ("thickness", "45"),
    ("heat", "pressure"),
    ("bite", "falls"),
    ("finish", "broiler"),
    ("sauce", "plum-tea"),
    ("when", "before"),
)
RIBS = {**SHORT_RIBS, "sauce": "plum-tea", "coats": 1, "want": "amber"}


def by(page: Page, name: str):
    return page.locator(f"[data-test='{name}']")


def pick(page: Page, name: str, text: str) -> None:
    by(page, name).click()
    page.get_by_role("option", name=text, exact=True).click()


def plan_dish(page: Page, address: str, **change: object) -> None:
    """A kept plan of one heat and one finish, opened on the room Plan."""
    page.goto(address)
    body = json.dumps({"dish": {**RIBS, **change}})
    kept = page.evaluate(
        """async (body) => (await (await fetch('/api/v1/plans', {
             method: 'POST', body, headers: {'content-type': 'application/json'}})).json()).id""",
        body,
    )
    page.goto(f"{address.rstrip('/')}/plan/{kept}")
    expect(by(page, "honest")).to_be_visible()
    expect(page.locator("[aria-busy=true]")).to_have_count(0)


def food(page: Page, field: str, value: str) -> None:
    """Change a figure of the food, in its clause."""
    by(page, "clause-food").click()
    by(page, field).locator("input").fill(value)
    by(page, "done").click()


def tap_through(page: Page, taps: tuple[tuple[str, str], ...]) -> None:
    """Answer the questions as they come."""
    for key, option in taps:
        expect(by(page, f"tap-{key}-{option}")).to_be_visible()
        page.wait_for_timeout(TAP_MS)
        by(page, f"tap-{key}-{option}").click()


TAP_MS = 400  # a second tap within this is no answer to the next question
SETTLED_MS = 700  # what follows a change of step sooner is the same gesture


def confirm(page: Page, words: str) -> None:
    """Say by the wide button that a step is done, once it is this one."""
    expect(by(page, "says")).to_contain_text(words)
    page.wait_for_timeout(SETTLED_MS)
    by(page, "done").click()


def minutes(text: str) -> int:
    hours = re.search(r"(\d+) h", text)
    rest = re.search(r"(\d+) min", text)
    return 60 * int(hours.group(1) if hours else 0) + int(rest.group(1) if rest else 0)


def test_plan_change_start_finish_and_see_it_in_the_log(page: Page, server, axe):
    faults: list[str] = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.goto(server.start())
    assert axe(page) == []
    plan_dish(page, page.url)
    assert axe(page) == []
    honest, headline = (minutes(by(page, name).inner_text()) for name in ("honest", "headline"))
    assert honest > headline > 30
    # Frozen instead: the come-up and the whole take longer, and the sentence says so.
    by(page, "clause-food").click()
    pick(page, "food-state", "from frozen")
    by(page, "done").click()
    expect(by(page, "clause-food")).to_contain_text("frozen")
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    come_up = by(page, "stage-cook.come_up")
    expect(come_up).to_have_attribute("title", re.compile("from frozen"))
    assert minutes(by(page, "honest").inner_text()) > honest
    by(page, "start").click()
    expect(by(page, "says")).to_contain_text("Salt the 6 ribs")
    assert axe(page) == []
    button = by(page, "done").bounding_box()
    assert button is not None
    assert button["height"] >= 96
    for words in ("Salt", "liquid", "comes up", "Under pressure", "by itself", "Open the valve"):
        confirm(page, words)
    confirm(page, "Pin down")
    expect(by(page, "gate-yes")).to_be_disabled()
    by(page, "gate-temp").fill("50")
    page.wait_for_timeout(SETTLED_MS)
    by(page, "gate-yes").click()
    expect(by(page, "says")).to_contain_text("50 °C inside, 63 °C wanted")
    by(page, "undo").click()
    expect(by(page, "says")).to_contain_text("Try the thickest rib")
    by(page, "gate-temp").fill("91")
    page.wait_for_timeout(SETTLED_MS)
    by(page, "gate-yes").click()
    by(page, "side-finish.warm_up").click()
    for words in ("Lift", "Blot", "Brush with plum and black tea: ", "Slide the tray"):
        confirm(page, words)
    expect(page.get_by_role("img", name=re.compile("Glaze over time"))).to_be_visible()
    assert axe(page) == []
    confirm(page, "Browning")
    expect(by(page, "says")).to_contain_text("Broiler off")
    assert axe(page) == []
    for words in ("Broiler off", "rest", "To the table"):
        confirm(page, words)
    for choice in ("tenderness-falls", "crust-sticky", "colour-amber"):
        by(page, choice).click()
    assert axe(page) == []
    by(page, "note").fill("Next time one coat.")
    by(page, "save-outcome").click()
    expect(page.get_by_text("Next time one coat.")).to_be_visible()
    expect(by(page, "compare-cook.come_up")).to_be_visible()
    assert axe(page) == []
    page.get_by_role("link", name="Log").first.click()
    expect(by(page, "cook-1")).to_contain_text("fell apart, sticky, amber")
    assert axe(page) == []
    assert faults == []


def test_reload_and_a_killed_server_lose_nothing(page: Page, server):
    address = server.start()
    plan_dish(page, address)
    by(page, "start").click()
    by(page, "done").click()
    expect(by(page, "says")).to_contain_text("L of liquid")
    page.reload()
    expect(by(page, "says")).to_contain_text("L of liquid")
    server.kill()
    expect(page.get_by_role("alert")).to_contain_text("does not answer")
    by(page, "done").click()  # kept, and sent when the server is back
    server.start()
    expect(by(page, "says")).to_contain_text("comes up to pressure", timeout=60_000)
    # A step is jumped over: what nobody confirmed looks different from what somebody did.
    page.get_by_text("All steps").click()
    page.wait_for_timeout(SETTLED_MS)
    page.get_by_role("button", name=re.compile("^Open it is done")).click()
    expect(by(page, "step-season.season").last).to_have_attribute("data-state", "confirmed")
    expect(by(page, "step-cook.hold").last).to_have_attribute("data-state", "estimated")
    expect(by(page, "step-cook.quick").last).to_have_attribute("data-state", "unknown")
    expect(by(page, "gate-yes")).to_be_visible()
    page.goto(address)
    expect(by(page, "live-1")).to_be_visible()


def test_a_wrong_entry_is_told_beside_its_part_and_nothing_is_lost(page: Page, server):
    plan_dish(page, server.start())
    before = by(page, "serve-time").inner_text()
    for entry in ("900", "13"):
        food(page, "food-mass", entry)
        expect(page.get_by_role("alert").first).to_contain_text("0.05 to 12 kg")
        expect(by(page, "start")).to_be_disabled()
    page.reload()  # without an answer there is no sentence yet, and the field stands there
    expect(page.get_by_role("alert").first).to_contain_text("13 will not do")
    expect(by(page, "food-mass").locator("input")).to_have_value("13")
    by(page, "food-mass").locator("input").fill("1.6")
    page.keyboard.press("Tab")
    expect(by(page, "start")).to_be_enabled()
    assert len(by(page, "serve-time").inner_text()) == len(before)


def test_a_water_bath_is_set_to_the_degree_and_its_gate_says_what_it_rests_on(
    page: Page, server, axe
):
    """Another dial from the sentence; the time was not told, so the usual 74 °C counts."""
    plan_dish(
        page,
        server.start(),
        cut="turkey-drumsticks",
        mass_kg=1.8,
        pieces=4,
        thickness_mm=60,
        tenderise="bath",
        bite="tug",
        finish="air_fryer",
    )
    assert axe(page) == []
    bath = by(page, "clause-cook")
    expect(page.get_by_text("Long enough to be safe")).to_be_visible()
    long = minutes(by(page, "honest").inner_text())
    bath.click()
    by(page, "field-dial").locator("input").fill("20")
    expect(page.get_by_role("alert").first).to_contain_text("45 to 95 °C")
    by(page, "field-dial").locator("input").fill("80")
    by(page, "done").click()
    expect(bath).to_contain_text("80 °C")
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    expect(page.get_by_text("Long enough to be safe")).to_have_count(0)
    assert minutes(by(page, "honest").inner_text()) < 0.7 * long
    bath.click()
    by(page, "field-dial").locator("input").fill("65")
    by(page, "done").click()
    expect(bath).to_contain_text("65 °C")
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    assert axe(page) == []
    by(page, "start").click()
    for words in (
        "Pat the 4 drumsticks dry",
        "Bag the 4",
        "still coming to 65 °C",
        "comes back",
        "In the water bath",
        "Out of the bag",
    ):
        confirm(page, words)
    expect(by(page, "rests-on")).to_contain_text("Its time in the bath was not confirmed")
    by(page, "gate-temp").fill("66")
    page.wait_for_timeout(SETTLED_MS)
    by(page, "gate-yes").click()
    expect(by(page, "says")).to_contain_text("66 °C inside, 74 °C wanted")
    assert axe(page) == []
    by(page, "undo").click()
    expect(by(page, "gate-yes")).to_be_visible()
    by(page, "gate-temp").fill("75")
    page.wait_for_timeout(SETTLED_MS)
    by(page, "gate-yes").click()
    expect(by(page, "says")).to_contain_text("Lift into the basket")


def test_by_keyboard_alone_from_counter_to_stove(page: Page, server):
    page.goto(server.start())
    for key, option in NINE_TAPS:
        tap = by(page, f"tap-{key}-{option}")
        expect(tap).to_be_visible()
        page.wait_for_timeout(TAP_MS)
        tap.focus()
        page.keyboard.press("Enter")
    expect(by(page, "chain-sentence")).to_contain_text("brushed with plum and black tea")
    expect(by(page, "start")).to_be_enabled()
    by(page, "start").focus()
    page.keyboard.press("Enter")
    expect(by(page, "says")).to_contain_text("Salt the 6 ribs")
    page.keyboard.press("Space")
    expect(by(page, "says")).to_contain_text("L of liquid")
    page.keyboard.press("u")
    expect(by(page, "says")).to_contain_text("Salt the 6 ribs")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()


def test_nine_taps_on_a_phone_with_a_bottle_of_which_only_the_label_is_known(
    page: Page, server, axe
):
    """The sentence and the clock stand from the first tap on; each heat tells its hours."""
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(server.start())
    tap_through(page, (("cut", "lamb-shanks"), ("state", "frozen")))
    settled = re.compile(r"^((?!thinking).)*$")  # the clock is that of the sentence
    expect(by(page, "begun")).to_contain_text("from frozen")
    expect(by(page, "begun-at")).to_have_class(settled)
    frozen = minutes(by(page, "begun-at").inner_text())
    page.get_by_role("button", name="change state: the freezer").click()
    tap_through(page, (("state", "fridge"),))
    expect(by(page, "begun")).to_contain_text("from the fridge")
    expect(by(page, "begun-at")).not_to_contain_text(f"{frozen // 60} h {frozen % 60} min in all")
    expect(by(page, "begun-at")).to_have_class(settled)
    assert minutes(by(page, "begun-at").inner_text()) < frozen
    page.get_by_role("textbox", name="weighed").fill("1.3")
    page.wait_for_timeout(TAP_MS)
    by(page, "own-take").click()
    expect(by(page, "begun")).to_contain_text("1.3 kg")
    tap_through(page, (("thickness", "65"),))
    pot, oven = by(page, "tap-heat-pressure"), by(page, "tap-heat-oven")
    expect(pot).to_contain_text(re.compile(r"\d+ min"), timeout=90_000)
    assert minutes(pot.inner_text()) < minutes(oven.inner_text())
    assert axe(page) == []
    tap_through(page, (("heat", "pressure"), ("bite", "falls"), ("finish", "air_fryer")))
    tap_through(page, (("sauce", "bottle"),))
    by(page, "bottle-name").fill("Harbour sauce")
    assert axe(page) == []
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    by(page, "bottle-take").click()
    tap_through(page, (("when", "after"),))
    expect(by(page, "chain-sentence")).to_contain_text("Harbour sauce poured over")
    page.go_back()
    expect(by(page, "tap-cut-octopus")).to_be_visible()


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_every_page_fits_a_phone_without_scrolling_sideways(page: Page, server, axe, theme):
    page.set_viewport_size({"width": 390, "height": 844})
    page.add_init_script(f"localStorage.setItem('kettle-theme', '{theme}')")
    address = server.start("--demo")
    for path in (*ROOMS, "/log/2", "/nowhere"):
        page.goto(address + path)
        expect(page.get_by_role("heading", level=1).first).to_be_attached()
        page.wait_for_load_state("networkidle")
        wide = page.evaluate("document.documentElement.scrollWidth")
        assert wide <= 390, f"{path} is {wide} px wide"
        assert axe(page) == [], path


ROOMS = ("/", "/plan", "/plan/1", "/stove", "/log", "/sauces", "/kitchen")
SMALL = """() => [...document.querySelectorAll('button, a, select, input, [role=tab]')]
  .filter((e) => !['checkbox', 'radio', 'file'].includes(e.type) && !e.closest('p:not(.sentence)'))
  .filter((e) => !e.matches('.to-content'))
  .map((e) => e.closest('.el-select__wrapper, .el-input__wrapper') ?? e)
  .filter((e) => { const r = e.getBoundingClientRect()
    return r.width > 1 && (r.height < 43.5 || r.width < 43.5) })
  .map((e) => e.outerHTML.slice(0, 120))"""


def test_the_narrowest_phone_is_not_scrolled_sideways_and_a_wet_thumb_hits(page: Page, server):
    page.set_viewport_size({"width": 320, "height": 640})
    address = server.start("--demo")
    for path in ROOMS:
        page.goto(address + path)
        page.wait_for_load_state("networkidle")
        assert page.evaluate("document.documentElement.scrollWidth") <= 320, path
        assert page.evaluate(SMALL) == [], path


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (390, 844)])
def test_a_clause_takes_the_focus_and_gives_it_back(page: Page, server, axe, width, height):
    page.set_viewport_size({"width": width, "height": height})
    page.goto(server.start("--demo") + "/plan/1")
    clause = by(page, "clause-cook")
    clause.focus()
    page.keyboard.press("Enter")
    editor = page.locator(".part-sheet:visible" if width == 390 else ".part-chooser:visible")
    expect(by(page, "field-heat")).to_be_visible()
    page.wait_for_timeout(400)  # the sheet slides in
    box = editor.bounding_box()
    assert width != 390 or box["y"] + box["height"] > 0.9 * height, "a sheet on a phone"
    assert axe(page) == []
    page.keyboard.press("Escape")
    expect(editor).to_have_count(0)
    expect(clause).to_be_focused()


def open_plan(page: Page, server, **change) -> None:
    """A kept plan of the ribs with some fields of its own, on the Plan page."""
    address = server.start()
    plan = server.ask("/plans", {"dish": {**SHORT_RIBS, **change}})
    page.goto(f"{address}/plan/{plan['id']}")
    expect(by(page, "honest")).to_be_visible()


def test_a_stop_asks_for_a_repair_or_a_reason_before_anything_starts(page: Page, server, axe):
    open_plan(page, server, tenderise="slow", state="frozen")
    by(page, "start").click()
    dialog = by(page, "start-dialog")
    stop = page.locator("[data-test^='stop-']").first
    expect(stop).to_contain_text("frozen")
    expect(by(page, "start-now")).to_be_disabled()
    assert axe(page) == []
    assert server.ask("/cooks")["cooks"] == []
    for field in page.locator("[data-test^='reason-']").all():
        field.fill("It was thawed at noon")
    by(page, "start-now").click()
    expect(page).to_have_url(re.compile(r"/stove/\d+"))
    logged = server.ask(f"/cooks/{server.ask('/cooks')['cooks'][0]['id']}")
    assert [stop["reason"] for stop in logged["accepted"]] == ["It was thawed at noon"] * len(
        logged["accepted"]
    )
    assert logged["accepted"]
    page.go_back()
    by(page, "start").click()
    page.locator("[data-test^='repair-']").first.click()
    expect(dialog).to_be_hidden()
    assert len(server.ask("/cooks")["cooks"]) == 1


def test_a_plan_for_later_says_both_times_and_waits(page: Page, server):
    later = (datetime.now(UTC) + timedelta(hours=6)).isoformat()
    open_plan(page, server, serve_at=later)
    by(page, "start").click()
    expect(by(page, "start-now")).to_contain_text(re.compile(r"Start now, eat \d\d:\d\d"))
    by(page, "start-planned").click()
    expect(page).to_have_url(re.compile(r"/stove/\d+"))
    live = server.ask("/cooks/live")["cooks"][0]
    assert live["current"] == "wait"
    assert live["waits_s"] > 3600


def test_why_this_heat_opens_a_map_and_a_tap_on_it_changes_the_plan(page: Page, server, axe):
    page.goto(server.start("--demo") + "/plan/1")
    by(page, "why-finish").click()
    expect(by(page, "advice-0")).to_be_visible(timeout=40_000)
    assert axe(page) == []
    heat_map = by(page, "heat-map")  # the rack of the demo kitchen's broiler
    expect(heat_map).to_have_attribute("aria-valuetext", "14 cm")
    heat_map.click(position={"x": 300, "y": 250})
    expect(heat_map).not_to_have_attribute("aria-valuetext", "14 cm")
    pick(page, "beside", "air fryer")
    expect(page.locator(".why .strip")).to_be_visible()
    by(page, "advice-0").click()
    expect(by(page, "clause-finish")).to_contain_text("air fried")


def test_a_sauce_is_written_split_and_put_on_the_dish_by_mouse(page: Page, server, axe):
    faults: list[str] = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    plan_dish(page, server.start("--demo"))
    page.get_by_role("link", name="Sauces").click()
    expect(page.get_by_label("What it comes to")).to_be_visible()
    assert axe(page) == []
    by(page, "new-sauce").click()
    by(page, "sauce-name").fill("Harbour glaze")
    for i, text in enumerate(
        ("1 1/2 cups ketchup", "1/4 cup huney", "2 tbsp cider vinegar", "salt to taste")
    ):
        if i:
            by(page, "add-line").click()
        by(page, f"line-{i}").fill(text)
    note = page.locator("#line-1-note")
    expect(note).to_contain_text("Not counted")
    expect(page.get_by_label("What it comes to")).to_contain_text("1 of 4 lines is not counted")
    note.get_by_role("button", name="honey?", exact=True).click()
    expect(by(page, "line-1")).to_have_value("1/4 cup honey")
    expect(note).to_have_count(0)
    expect(page.get_by_label("What it comes to")).not_to_contain_text("not counted")
    before = page.get_by_label("What it comes to").inner_text()
    for _ in range(5):
        page.get_by_role("button", name="more, Simmered").click()
    expect(page.get_by_label("What it comes to")).to_contain_text("of steam")
    assert grams(page.get_by_label("What it comes to").inner_text()) < grams(before)
    by(page, "keep").click()
    expect(page.get_by_text("“Harbour glaze” is kept.")).to_be_visible()
    page.get_by_role("tab", name="From bowl to plate").click()
    pick(page, "use-0", "goes on raw food")
    by(page, "later-0").click()
    stop = page.get_by_role("alert")
    expect(stop).to_contain_text("“coats” touched raw food")
    expect(
        page.get_by_role("img", name=re.compile("coats.*stopped before the plate"))
    ).to_be_visible()
    assert axe(page) == []
    by(page, "boil-it").click()
    expect(stop).to_have_count(0)
    expect(page.get_by_role("img", name=re.compile("coats.*reaches the plate"))).to_be_visible()
    page.get_by_role("tab", name="How much").click()
    by(page, "scale").click()
    by(page, "use-scaled").click()
    expect(by(page, "line-0")).not_to_have_value("1 1/2 cups ketchup")
    page.get_by_role("tab", name="Variations").click()
    by(page, "variant-sugar-free").click()
    by(page, "use-variant").click()
    by(page, "use-on-dish").click()
    expect(by(page, "chain-sentence")).to_contain_text("Harbour glaze")
    expect(page.get_by_text("too little sugar to caramelise")).to_be_visible()
    assert faults == []


def grams(text: str) -> float:
    return float(re.search(r"(\d+) g", text).group(1))  # type: ignore[union-attr]


def test_a_kitchen_is_entered_watched_and_measured_by_mouse(page: Page, server, axe):
    page.goto(server.start() + "/kitchen")
    expect(page.get_by_text("Nothing entered, and nothing has to be.")).to_be_visible()
    pick(page, "add-kind", "oven's broiler")
    by(page, "add-appliance").click()
    expect(page.get_by_text("not calibrated", exact=False)).to_be_visible()
    page.get_by_text("8 cm", exact=True).click()
    expect(page.get_by_role("radio", name="8 cm")).to_be_checked()
    assert axe(page) == []
    page.clock.install()
    by(page, "scout-start").click()
    page.clock.fast_forward(41_000)
    by(page, "sign-bubbling").click()
    expect(page.get_by_text("A bottled sweet glaze was to be mahogany")).to_be_visible()
    says = page.locator(".says").first
    expect(says).to_contain_text("from 1 sign")
    page.clock.resume()
    page.get_by_text("1 sign seen").click()
    page.get_by_role("button", name="forget it").click()
    expect(says).to_contain_text("Not calibrated")
    page.get_by_role("button", name="count it again").click()
    expect(says).to_contain_text("from 1 sign")
    pick(page, "add-kind", "air fryer")
    by(page, "add-appliance").click()
    expect(page.get_by_role("region", name="air fryer", exact=True)).to_be_visible()
    expect(page.get_by_label("Does it fit")).to_contain_text("Fits.")
    page.get_by_role("textbox", name="How much").fill("4")
    expect(page.get_by_label("Does it fit")).to_contain_text("batches")
    page.get_by_role("textbox", name="Heats up in").fill("999")
    expect(page.get_by_role("alert")).to_contain_text("Use at most 120")
    plan_dish(page, page.url.replace("/kitchen", "/"))
    expect(page.locator(".known")).to_contain_text("rack 8 cm")
    expect(page.get_by_text("from 1 sign that you saw")).to_be_visible()


def tab_to(page: Page, target: str) -> None:
    """Press Tab until the element of this test name has the focus."""
    for _ in range(120):
        if page.evaluate("document.activeElement?.closest('[data-test]')?.dataset.test") == target:
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"Tab never reaches {target}")


def test_both_rooms_by_keyboard_alone(page: Page, server):
    page.goto(server.start())
    expect(by(page, "tap-cut-octopus")).to_be_visible()
    page.keyboard.press("g")
    expect(page.get_by_text("An empty jar.")).to_be_visible()
    tab_to(page, "sauce-name")
    page.keyboard.press("Control+a")
    page.keyboard.type("By hand")
    tab_to(page, "line-0")
    page.keyboard.type("200 g apple syrup")
    page.keyboard.press("Enter")
    page.keyboard.type("3 tbsp white miso")
    expect(page.get_by_label("What it comes to")).to_contain_text("soy")
    tab_to(page, "keep")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“By hand” is kept.")).to_be_visible()
    page.keyboard.press("Escape")
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("k")
    expect(page.get_by_role("heading", name="Kitchen", exact=True)).to_be_visible()
    tab_to(page, "add-kind")
    page.keyboard.type("gas grill")
    page.keyboard.press("Enter")
    tab_to(page, "add-appliance")
    page.keyboard.press("Enter")
    expect(page.get_by_label("gas grill", exact=True)).to_be_visible()
    tab_to(page, "in-use")
    page.keyboard.press("Space")
    expect(by(page, "in-use").locator("input")).not_to_be_checked()
    tab_to(page, "scout-start")
    page.keyboard.press("Enter")
    expect(page.get_by_role("timer")).to_be_visible()
    tab_to(page, "fit-cut")
    page.keyboard.type("octopus")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Does it fit")).to_contain_text("arms")


def test_what_is_written_in_both_rooms_outlives_a_killed_server(page: Page, server):
    address = server.start("--demo")
    page.goto(address + "/sauces")
    by(page, "new-sauce").click()
    by(page, "sauce-name").fill("Half written")
    by(page, "line-0").fill("100 g honey")
    server.kill()
    by(page, "add-line").click()
    by(page, "line-1").fill("3 tbsp soy sauce")
    expect(page.get_by_role("alert")).to_contain_text("does not answer")
    server.start("--demo")
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_label("What it comes to")).to_contain_text("152 g")
    by(page, "keep").click()
    expect(page.get_by_text("“Half written” is kept.")).to_be_visible()
    page.goto(address + "/kitchen")
    page.get_by_role("button", name=re.compile("its broiler")).click()
    heats = page.get_by_role("textbox", name="Heats up in")
    expect(heats).to_have_attribute("placeholder", "6")
    server.kill()
    heats.fill("9")
    expect(page.get_by_role("alert").first).to_contain_text("does not answer")
    server.start("--demo")
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_role("alert")).to_have_count(0)
    page.reload()
    page.get_by_role("button", name=re.compile("its broiler")).click()
    expect(heats).to_have_value("9")


def test_a_sauce_goes_out_as_files_and_comes_back_from_them(page: Page, server, tmp_path):
    page.goto(server.start("--demo") + "/sauces")
    page.get_by_role("button", name="Date and mustard").click()
    expect(by(page, "sauce-name")).to_have_value("Date and mustard")
    saved = []
    for button in ("save-file", "save-list"):
        with page.expect_download() as download:
            by(page, button).click()
        saved.append(tmp_path / download.value.suggested_filename)
        download.value.save_as(saved[-1])
    assert [path.suffix for path in saved] == [".json", ".csv"]
    assert "date syrup" in saved[1].read_text(encoding="utf-8")
    plain = tmp_path / "aunt.txt"
    plain.write_text("2 cups ketchup\n\n3 tbsp honey\n", encoding="utf-8")
    for path, first in (
        (saved[0], "120 g date syrup"),
        (saved[1], "120 g date syrup"),
        (plain, "2 cups ketchup"),
    ):
        by(page, "new-sauce").click()
        expect(by(page, "line-0")).to_have_value("")
        by(page, "bring").set_input_files(path)
        expect(by(page, "line-0")).to_have_value(first)
        expect(page.get_by_label("What it comes to")).not_to_contain_text("not counted")
    wrong = tmp_path / "wrong.json"
    for content in ("{", "[]", '{"lines": [1]}', '{"lines": "ketchup"}'):
        wrong.write_text(content, encoding="utf-8")
        by(page, "bring").set_input_files(wrong)
        expect(page.get_by_role("alert")).to_contain_text("wrong.json is not a sauce")
        expect(by(page, "line-0")).to_have_value("2 cups ketchup")


def test_pounds_inches_and_fahrenheit_are_shown_and_kept_as_they_are_typed(page: Page, server):
    page.goto(server.start("--demo") + "/kitchen")
    pick(page, "measures", "pounds and cups")
    pick(page, "degrees", "°F")
    page.get_by_role("button", name=re.compile("two-basket fryer")).click()
    dial = page.get_by_role("textbox", name="Set at")
    expect(dial).to_have_attribute("placeholder", "392")
    dial.fill("375")
    fit = page.get_by_label("Does it fit")
    expect(fit.get_by_role("textbox", name="Thickness")).to_have_value("1.77")
    fit.get_by_role("textbox", name="How much").fill("2")
    page.wait_for_function(
        "fetch('/api/v1/kitchen').then(r => r.json()).then(k => Math.abs(k.figures.air_fryer_c -"
        " 190.5556) < 0.001)"
    )
    page.reload()
    page.get_by_role("button", name=re.compile("two-basket fryer")).click()
    expect(dial).to_have_value("375")
    expect(by(page, "measures")).to_contain_text("pounds and cups")


SHIFTS = """window.shifted = 0
new PerformanceObserver((list) => list.getEntries().forEach((e) => { window.shifted += e.value }))
  .observe({ type: 'layout-shift', buffered: true })"""


def test_nothing_jumps_under_the_finger_while_a_page_loads(page: Page, server):
    address = server.start("--demo")
    page.add_init_script(SHIFTS)
    asked: list[tuple[str, str | None]] = []
    page.on("request", lambda request: asked.append((request.url, request.post_data)))
    for path in ("/", "/plan/1", "/log"):
        page.goto(address + path)
        page.wait_for_load_state("networkidle")
        assert page.evaluate("window.shifted") < 0.05, path
    # One plan, asked for once; the same again is the refresh of every 15 s.
    assert len({body for url, body in asked if url.endswith("/forecasts")}) == 1
