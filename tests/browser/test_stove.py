"""The Stove in a real browser, with the clock moved: what a cook follows, and past its end."""

import re
from datetime import datetime

import pytest
from playwright.sync_api import Page, expect
from tests.browser.cooking import RIBS, Cooking, by

pytestmark = pytest.mark.browser

THIGHS = {
    "cut": "chicken-thighs",
    "mass_kg": 1.2,
    "pieces": 8,
    "thickness_mm": 30.0,
    "tenderise": "air_fry",
    "bite": "tug",
    "finish": "air_fryer",
}
SIZES = {"desk": (1280, 800), "phone": (390, 844)}
COUNT_TONES = """
  window.tones = []
  const make = AudioContext.prototype.createOscillator
  AudioContext.prototype.createOscillator = function () {
    window.tones.push(performance.now())
    return make.call(this)
  }
"""
COUNT_SHAKES = "window.shakes = []; navigator.vibrate = (told) => window.shakes.push(told.length)"
# A voice that asks a server, one of another tongue, and one of this machine.
COUNT_WORDS = """
  window.spoken = []
  const voices = [['far', 'en-GB', false], ['autre', 'fr-FR', true], ['near', 'en-GB', true]]
  Object.defineProperty(window, 'speechSynthesis', { value: {
    getVoices: () => voices.map(([name, lang, localService]) => ({ name, lang, localService })),
    cancel: () => undefined,
    speak: (said) => window.spoken.push([said.voice.name, said.text]),
  } })
  window.SpeechSynthesisUtterance = class {
    constructor(text) {
      this.text = text
    }
  }
"""
# As over plain HTTP from another device: no lock, and what is played in its place.
NO_WAKE_LOCK = """
  delete Navigator.prototype.wakeLock
  window.films = []
  const play = HTMLMediaElement.prototype.play
  HTMLMediaElement.prototype.play = function () {
    window.films.push(this)
    return play.call(this)
  }
"""


def tones(page: Page) -> int:
    return int(page.evaluate("window.tones.length"))


def rings(page: Page, rung: int) -> None:
    """Wait until it rings once more."""
    for _ in range(100):
        if tones(page) > rung:
            return
        page.wait_for_timeout(100)
    raise AssertionError("it never rang")


@pytest.fixture
def cooking(page: Page, server) -> Cooking:
    page.add_init_script(COUNT_TONES)
    server.start_moved()
    return Cooking(page, server)


def test_the_fire_ends_when_it_is_out(cooking: Cooking, page: Page):
    cooking.start().fast("finish.finish")
    page.mouse.click(5, 400)
    cooking.server.wait(900)
    called(page, "out")
    expect(by(page, "says")).to_have_text("Out now.")
    expect(by(page, "picture")).to_have_attribute("data-shows", "under")
    assert page.locator(".wide-button").count() == 1
    page.keyboard.press("Space")
    called(page, "")
    assert cooking.live()["current"] == "finish.out"
    rung = tones(page)
    cooking.server.wait(300)
    page.wait_for_timeout(5000)
    assert tones(page) == rung, "it goes on ringing over food that is out"
    called(page, "")
    expect(by(page, "clock")).to_have_count(0)


def test_a_call_shakes_the_phone_once_a_tone_and_is_spoken(cooking: Cooking, page: Page):
    page.add_init_script(COUNT_SHAKES)
    page.add_init_script(COUNT_WORDS)
    cooking.start().fast("finish.finish")
    page.mouse.click(5, 400)
    cooking.server.wait(900)
    called(page, "out")
    rings(page, 5)
    assert page.evaluate("window.shakes.at(-1)") == 2 * 6 - 1  # six tones, with what is between
    assert page.evaluate("window.spoken.at(-1)") == ["near", "Out now."]
    spoken = page.evaluate("window.spoken.map((said) => said.join(': '))")
    assert len(spoken) == page.evaluate("window.shakes.length")
    assert {who.partition(":")[0] for who in spoken} == {"near"}


def test_the_screen_stays_on_where_the_browser_gives_no_lock(cooking: Cooking, page: Page):
    """From the first tap on, until the stove is left."""
    page.add_init_script(NO_WAKE_LOCK)
    cooking.start()
    expect(by(page, "says")).to_be_visible()  # a tap before it stands there is none of the Stove's
    assert page.evaluate("'wakeLock' in navigator") is False
    assert page.evaluate("window.films.length") == 0
    page.mouse.click(5, 400)
    page.wait_for_function("() => window.films.length === 1 && window.films[0].currentTime > 0.1")
    page.get_by_role("link", name="Log").click()
    page.wait_for_function("() => window.films[0].paused")


def test_each_level_calls_once_and_a_hushed_one_gives_way_to_a_nearer(cooking, page: Page):
    cooking.start().fast("finish.finish")
    page.mouse.click(5, 400)
    calls = {a["level"]: a for a in cooking.live()["alarms"] if a["screen"]}
    fire = cooking.live()["fire"]["since"]
    until = {level: seconds(a["at"]) - seconds(fire) for level, a in calls.items()}
    cooking.server.wait(until["full"] + 0.5)
    called(page, "full")
    expect(by(page, "done")).to_be_focused()
    by(page, "hush").click()
    called(page, "")
    page.wait_for_timeout(2000)
    called(page, "")
    cooking.server.wait(until["out"] - until["full"])
    called(page, "out")
    before = cooking.live()
    by(page, "saw-dark").click()  # signs, strip and undo stay where they are
    cooking.until_changed(before)
    expect(page.get_by_role("img", name=re.compile("Glaze"))).to_be_visible()
    expect(by(page, "undo")).to_be_enabled()
    by(page, "undo").click()
    page.wait_for_timeout(1000)
    assert cooking.live()["signs"] == []


def called(page: Page, level: str) -> None:
    """The picture is as urgent as this level, without one where it is empty; nothing covers it."""
    expect(by(page, "stove")).to_have_attribute("data-call", level)
    expect(by(page, "call-screen")).to_be_hidden()


def seconds(moment: str) -> float:
    return datetime.fromisoformat(moment).timestamp()


def test_it_rings_and_shows_on_another_page_and_the_title_counts(cooking, page: Page):
    cooking.start().fast("cook.hold")
    cooking.open("/log")
    page.mouse.click(640, 600)
    bar = by(page, f"live-{cooking.cook}")
    expect(bar).to_contain_text("Under pressure")
    expect(page).to_have_title(re.compile(r"^\d+:\d\d.* Under pressure"))
    rung = tones(page)
    cooking.server.wait(cooking.step()["likely_s"] + 1)
    rings(page, rung)
    cooking.open(f"/stove/{cooking.cook}")
    cooking.fast("finish.finish")
    cooking.open("/sauces")
    page.mouse.click(640, 700)
    cooking.server.wait(900)
    expect(by(page, "call-screen")).to_be_visible()
    by(page, "call-done").click()
    expect(by(page, "call-screen")).to_be_hidden()
    expect(page).to_have_url(re.compile("/sauces$"))
    assert cooking.live()["fire"] is None


def test_after_a_reload_it_says_that_sound_is_off_and_a_tap_gives_it_back(cooking, page: Page):
    cooking.start().fast("cook.hold")
    page.reload()
    expect(by(page, "sound-off")).to_be_visible()
    page.mouse.click(5, 400)
    expect(by(page, "sound-off")).to_be_hidden()


def test_a_sign_changes_the_words_and_is_pinned_on_the_strip(cooking, page: Page):
    cooking.start().fast("finish.finish")
    cooking.server.wait(68)
    before = cooking.live()
    by(page, "saw-amber at the edges").click()
    cooking.until_changed(before)
    expect(by(page, "detail")).to_have_text(
        re.compile(r"Amber edges at 1:\d\d\. Out between \d:\d\d and \d:\d\d\.")
    )
    expect(by(page, "clock")).to_contain_text("Out in ")
    expect(page.locator(".pin")).to_contain_text(re.compile(r"amber edges 1:\d\d"))


def test_a_held_key_is_one_step_and_two_minutes_ago_may_be_the_start(cooking, page):
    cooking.start()
    expect(by(page, "says")).to_contain_text("Salt the 6 ribs")
    before = cooking.live()
    by(page, "ago").click()
    cooking.until_changed(before)
    assert cooking.live()["steps"][0]["end_at"] == before["started_at"]
    by(page, "undo").click()
    expect(by(page, "says")).to_contain_text("Salt the 6 ribs")
    page.wait_for_timeout(700)
    for _ in range(40):  # Space held for two seconds repeats
        page.keyboard.down("Space")
        page.wait_for_timeout(50)
    page.keyboard.up("Space")
    page.wait_for_timeout(800)
    assert cooking.live()["current"] == "cook.load"
    by(page, "done").dblclick()
    page.wait_for_timeout(800)
    assert cooking.live()["current"] == "cook.come_up"


def test_a_lost_answer_counts_once(cooking, page: Page):
    cooking.start().fast("cook.hold")
    lost = []

    def lose(route):
        if not lost:
            lost.append(route.fetch())  # the server has it, the page never hears of it
            route.abort()
        else:
            route.continue_()

    page.route("**/events", lose)
    due = cooking.step()["due_at"]
    by(page, "more").click()
    page.wait_for_timeout(3500)
    assert lost
    moved = seconds(cooking.step()["due_at"]) - seconds(due)
    assert moved == pytest.approx(60.0, abs=1.0)
    assert by(page, "waiting").count() == 0


def test_two_tabs_make_one_step_of_two_taps(cooking, page: Page):
    cooking.start()
    other = page.context.new_page()
    other.goto(cooking.server.address + f"/stove/{cooking.cook}")
    expect(by(other, "says")).to_contain_text("Salt the 6 ribs")
    by(page, "done").click()
    by(other, "done").click()
    other.wait_for_timeout(2500)
    live = cooking.live()
    assert live["current"] == "cook.load"
    for tab in (page, other):
        expect(by(tab, "says")).to_contain_text("L of liquid")


def test_machine_steps_ring_with_the_server_gone_and_taps_are_kept(cooking, page: Page):
    cooking.start().fast("cook.hold")
    page.mouse.click(5, 400)
    rung = tones(page)
    left = cooking.step()["likely_s"]
    cooking.server.wait(left - 3)
    page.wait_for_timeout(1500)  # the page has heard of the new moment
    cooking.server.kill()
    rings(page, rung)
    page.wait_for_timeout(1000)  # where the step changed just now, a tap at once is the same finger
    by(page, "done").click()
    expect(by(page, "waiting")).to_contain_text("1 tap waiting")
    page.goto("about:blank")
    cooking.server.start_moved()
    cooking.open()
    expect(by(page, "says")).not_to_contain_text("Under pressure", timeout=45_000)
    expect(by(page, "waiting")).to_have_count(0)
    assert cooking.live()["last_event"] > 3


def test_a_plan_waits_for_its_start_and_calls(cooking, page: Page):
    serve = cooking.ask("/forecasts", cooking.dish)["serve_at"]
    later = (page.evaluate("at => new Date(Date.parse(at) + 7200e3).toISOString()", serve),)
    cooking.dish["serve_at"] = later[0]
    cooking.start(when="planned")
    expect(by(page, "says")).to_contain_text("The start is planned for later")
    page.mouse.click(5, 400)
    by(page, "done").click()
    expect(by(page, "start-early")).to_be_visible()
    by(page, "keep-waiting").click()
    assert cooking.live()["current"] == "wait"
    rung = tones(page)
    cooking.server.wait(cooking.live()["waits_s"] + 1)
    expect(by(page, "says")).to_contain_text("Salt the 6 ribs")
    rings(page, rung)


def whole(cooking: Cooking) -> dict:
    """Cook from where it stands to the log, and read what was logged."""
    live = cooking.live()
    while not live["finished"]:
        live = cooking.confirm()
    cooking.rate()
    return cooking.ask(f"/cooks/{cooking.cook}")


def states(logged: dict) -> set[str]:
    return {stage["state"] for stage in logged["stages"]}


@pytest.mark.parametrize("size", SIZES)
@pytest.mark.parametrize("keys", [False, True], ids=["mouse", "keys"])
def test_two_coats_from_start_to_log(cooking, page: Page, size, keys):
    width, height = SIZES[size]
    page.set_viewport_size({"width": width, "height": height})
    cooking.keys = keys
    cooking.dish = {**RIBS, "coats": 2}
    cooking.start()
    before = cooking.until("finish.finish")
    cooking.press("station-look")
    by(page, "station-signs").locator("[data-test='saw-nothing yet']").click()
    looked = cooking.until_changed(before)
    assert [sign["sign"] for sign in looked["signs"]] == ["nothing yet"]
    cooking.server.wait(60)
    cooking.press("station-act")
    live = cooking.until_changed(looked)
    assert live["current"] == "finish.coat-2"
    assert live["fire"] is None
    expect(by(page, "says")).to_have_text(re.compile(r"Brush coat 2: .*\d+ g"))
    cooking.server.wait(45)  # the clock of the heat stands still meanwhile
    under = cooking.confirm()["fire"]["before_s"]
    logged = whole(cooking)
    assert states(logged) == {"confirmed"}
    assert logged["glaze_after"]["coats"][1]["at_s"] == pytest.approx(under, abs=0.2)
    assert logged["glaze_after"]["coats"][1]["away_s"] > 45


@pytest.mark.parametrize("size", SIZES)
def test_a_failed_check_opens_a_way_back_that_is_cooked_and_logged(cooking, page: Page, size):
    width, height = SIZES[size]
    page.set_viewport_size({"width": width, "height": height})
    cooking.start()
    before = cooking.until("cook.check")
    by(page, "gate-temp").fill("91")
    cooking.press("gate-no")
    failed = cooking.until_changed(before)
    assert failed["current"].startswith("cook.check~1.")
    assert failed["serve_at"] > before["serve_at"]
    expect(by(page, "moved")).to_have_text(re.compile(r"Supper \d+ min later: not tender yet\."))
    expect(by(page, "says")).to_contain_text("ot tender yet")
    again = cooking.until("cook.check~1.check")
    assert again["gate"]["step"] == "cook.check~1.check"
    logged = whole(cooking)
    assert [c["verdict"] for c in logged["checks"]] == ["failed", "passed"]
    assert [c["temp_c"] for c in logged["checks"]] == [91.0, 91.0]


def test_guests_who_are_late_are_two_taps_and_one_takes_it_back(cooking, page: Page, axe):
    cooking.start()
    before = cooking.until("cook.check")
    cooking.press("later")
    assert axe(page) == []
    cooking.press("later-20")
    late = cooking.until_changed(before)
    expect(by(page, "moved")).to_have_text("Supper 20 min later: the guests come later.")
    assert late["current"] == "cook.check"
    cooking.press("undo")
    undone = cooking.until_changed(late)
    assert "later-1.guests" not in [s["key"] for s in undone["steps"]]


def test_pulled_early_is_logged_as_it_was(cooking, page: Page):
    cooking.keys = True
    cooking.dish = THIGHS
    cooking.start()
    cooking.until("finish.finish")
    before = cooking.live()
    cooking.server.wait(25)
    cooking.wide()
    after = cooking.until_changed(before)
    assert after["fire"] is None
    logged = whole(cooking)
    assert logged["summary"]["strip"]["pulled_s"] == pytest.approx(26.0, abs=8.0)


def test_left_for_ten_minutes_on_another_page(cooking, page: Page):
    cooking.start()
    cooking.until("finish.finish")
    cooking.open("/kitchen")
    page.mouse.click(640, 700)
    cooking.server.wait(600)
    expect(by(page, "call-screen")).to_be_visible()
    page.keyboard.press("Space")
    expect(by(page, "call-screen")).to_be_hidden()
    cooking.open()
    logged = whole(cooking)
    assert logged["summary"]["strip"]["pulled_s"] == pytest.approx(601.0, abs=15.0)


def test_food_that_nobody_told_of_is_asked_about_and_its_clock_begins_with_the_answer(
    cooking, page: Page
):
    cooking.start().fast("finish.under")
    cooking.server.wait(200)
    expect(by(page, "says")).to_contain_text("may be under the broiler already")
    assert page.locator(".wide-button").count() == 1
    before = cooking.live()
    assert before["fire"]["assumed"]
    by(page, "under-yes").click()
    live = cooking.until_changed(before)
    assert (live["current"], live["fire"]["assumed"]) == ("finish.finish", False)
    assert by(page, "refused").count() == 0
    under = by(page, "clock").locator(".main")
    expect(under).to_have_text(re.compile(r"^0:\d\d$"))


def test_a_check_is_left_out_with_a_reason_alone_and_the_reason_is_logged(cooking, page: Page):
    cooking.start()
    cooking.until("cook.check")
    page.get_by_text("All steps").click()
    assert page.get_by_role("button", name=re.compile("^Lift.* is done")).count() == 0
    by(page, "gate-temp").fill("203")
    expect(page.get_by_role("alert")).to_contain_text("Did you mean °F?")
    expect(by(page, "gate-yes")).to_be_disabled()
    by(page, "leave-out").click()
    by(page, "leave-why").fill("the battery is empty")
    before = cooking.live()
    by(page, "leave-go").click()
    cooking.until_changed(before)
    logged = whole(cooking)
    assert [(c["verdict"], c["why"]) for c in logged["checks"]] == [
        ("skipped", "the battery is empty")
    ]
    expect(page.locator("main")).to_contain_text("the battery is empty")


def test_a_cook_is_stopped_and_left_unrated_and_all_under_way_are_in_reach(cooking, page: Page):
    first = cooking.start().cook
    cooking.start()
    cooking.open("/")
    for cook in (first, cooking.cook):
        expect(by(page, f"live-{cook}")).to_be_visible()
    cooking.open()
    expect(by(page, f"live-{first}")).to_be_visible()
    by(page, "stop").click()
    expect(page.get_by_role("heading", name="It is in the log.")).to_be_visible()
    cooking.open("/log")
    expect(by(page, f"cook-{cooking.cook}")).to_be_visible()


def test_food_that_looks_wrong_has_ways_out_with_minutes_and_chances(cooking, page: Page, axe):
    cooking.start().fast("finish.finish")
    cooking.server.wait(100)
    by(page, "ways-out").click()
    first = by(page, "way-0")
    expect(first).to_contain_text(re.compile(r"right (\d times? in 10|nearly always), burnt "))
    expect(page.get_by_text("Pull it now")).to_be_visible()
    expect(page.get_by_text("Foil over the edges")).to_be_visible()
    assert axe(page) == []
    by(page, "ways-out").click()
    expect(first).to_be_hidden()
    by(page, "ways-out").click()
    expect(first).to_be_visible()
    before = first.inner_text()
    by(page, "saw-dark").click()  # sooner than was expected: less is left
    expect(first).not_to_have_text(before)
    by(page, "ways-out").click()
    cooking.server.kill()
    by(page, "ways-out").click()
    expect(page.get_by_label("What can still be done")).to_contain_text("I keep trying")
    cooking.server.start_moved()
    expect(first).to_be_visible(timeout=150_000)  # and it does, once its model is loaded anew


@pytest.mark.parametrize(("size", "keys"), [("desk", True), ("phone", False)])
def test_a_broiler_that_fails_over_the_food_is_left_and_the_cook_goes_on_to_the_log(
    cooking, page: Page, axe, size, keys
):
    """By keys and by touch; taken back once, and the server killed between."""
    page.set_viewport_size(dict(zip(("width", "height"), SIZES[size], strict=True)))
    cooking.keys = keys
    cooking.start().fast("finish.finish")
    cooking.server.wait(60)
    before = cooking.live()
    cooking.press("broke")
    cooking.press("broke-appliance-finish")
    expect(by(page, "go-air_fryer")).to_be_visible()
    assert not axe(page)
    cooking.press("go-air_fryer")
    expect(by(page, "moved")).to_contain_text("it goes on elsewhere")
    moved = cooking.until_changed(before)
    assert moved["current"] == "finish.out"
    page.wait_for_timeout(700)
    cooking.press("undo")
    back = cooking.until_changed(moved)
    assert back["current"] == "finish.finish"
    cooking.press("broke")
    cooking.press("broke-appliance-finish")
    cooking.press("go-air_fryer")
    again = cooking.until_changed(back)
    cooking.server.kill()
    cooking.server.start_moved()
    assert cooking.live()["current"] == again["current"]
    live = cooking.until("finish+1.finish")
    expect(by(page, "picture")).to_have_attribute("data-shows", "under")
    cooking.server.wait(60)
    cooking.press("saw-bubbling")
    cooking.until_changed(live)
    while cooking.live()["current"]:
        cooking.confirm()
    cooking.rate()
    stages = cooking.ask(f"/cooks/{cooking.cook}")["stages"]
    told = {stage["key"]: stage["actual_s"] for stage in stages}
    assert told["finish.finish"] == pytest.approx(60.0, abs=20.0)
    assert told["finish+1.finish"] > 30.0


def test_where_the_tray_hangs_is_told_in_two_taps_and_what_was_seen_teaches_the_next_cook(
    cooking, page: Page, axe
):
    """On a phone; the strip comes nearer at once, and the log says what the broiler was taught."""
    page.set_viewport_size({"width": 390, "height": 844})
    cooking.ask("/kitchen/appliances", {"kind": "oven-broiler", "name": "its broiler"})
    cooking.dish["kitchen"] = cooking.ask("/kitchen")["for_plans"]
    cooking.start().fast("finish.finish")
    cooking.server.wait(20)
    before = cooking.live()
    cooking.press("dial")
    assert not axe(page)
    cooking.press("dial-8")
    near = cooking.until_changed(before)
    expect(by(page, "dial")).to_have_text("Tray 8 cm from the element")
    expect(by(page, "moved")).to_contain_text("by where it stands")
    assert near["picture"]["rack_mm"] == 80.0
    cooking.press("saw-bubbling")
    cooking.until_changed(near)
    while cooking.live()["current"]:
        cooking.confirm()
    cooking.rate()
    taught = by(page, "taught")
    expect(taught).to_contain_text("Its broiler")
    expect(taught).to_contain_text("bubbling at 0:")
    assert not axe(page)
    expect(taught).to_contain_text("came out amber at")
    for left in (1, 0):
        taught.get_by_role("button", name="forget it").first.click()
        expect(taught.get_by_role("button", name="forget it")).to_have_count(left)
    expect(taught.get_by_role("button", name="count it again")).to_have_count(2)
    expect(taught).to_contain_text("Not calibrated")


def test_a_skewer_that_resists_moves_supper_and_one_that_slides_in_ends_the_hold(
    cooking, page: Page, axe
):
    """On a phone, with the server killed between the two."""
    page.set_viewport_size({"width": 390, "height": 844})
    cooking.dish["tenderise"] = "braise"
    cooking.start().fast("cook.hold")
    before = cooking.live()
    cooking.server.wait(0.9 * cooking.step()["likely_s"])
    cooking.press("felt-tough")
    cooking.until_changed(before)
    expect(by(page, "feel")).to_contain_text(re.compile("It resisted after 1 h.* more"))
    expect(by(page, "moved")).to_contain_text("by how it feels")
    assert not axe(page)
    late = cooking.live()
    assert late["serve_at"] > before["serve_at"]
    cooking.server.kill()
    cooking.server.start_moved()
    cooking.open()
    cooking.press("felt-tender")
    cooking.until_changed(late)
    expect(by(page, "feel")).to_contain_text("it is tender")
    while cooking.live()["current"]:
        cooking.confirm()
    cooking.rate()


def test_on_a_phone_the_picture_and_its_strip_are_seen_whole(cooking, page: Page, axe):
    page.set_viewport_size({"width": 390, "height": 844})
    cooking.start().fast("cook.come_up")
    expect(by(page, "pin")).to_have_attribute("data-pin", "down")
    cooking.fast("cook.hold")
    expect(by(page, "pin")).to_have_attribute("data-pin", "up")
    cooking.fast("finish.finish")
    strip = page.get_by_role("img", name=re.compile("Glaze"))
    for part in (by(page, "says"), by(page, "clock"), by(page, "done"), strip):
        expect(part).to_be_visible()
        box = part.bounding_box()
        assert box["y"] >= 0
        assert box["y"] + box["height"] <= 844 - 56, "it lies under the bar of rooms, or further"
    assert by(page, "done").bounding_box()["height"] >= 96
    assert axe(page) == []


def test_the_page_opens_with_its_last_state_while_the_server_is_away(cooking, page: Page):
    cooking.start().fast("cook.hold")
    page.wait_for_function(
        "navigator.serviceWorker.getRegistration().then(r => Boolean(r?.active))"
    )
    page.wait_for_timeout(3000)  # what is on the stove is kept once a second
    cooking.server.kill()
    page.reload()
    expect(by(page, "says")).to_contain_text("Under pressure")
    expect(page.get_by_role("alert").first).to_contain_text("does not answer")
    expect(by(page, "picture")).to_have_attribute("data-vessel", "pressure")
    first = by(page, "clock").inner_text()
    expect(by(page, "clock")).not_to_have_text(first)  # it goes on counting
    by(page, "done").click()
    expect(by(page, "waiting")).to_contain_text("1 tap waiting")
    page.reload()
    expect(by(page, "waiting")).to_contain_text("1 tap waiting")
    cooking.server.start_moved()
    expect(by(page, "waiting")).to_have_count(0)
    expect(by(page, "says")).not_to_contain_text("Under pressure")
    assert cooking.step()["key"] != "cook.hold"


def test_a_laptop_that_slept_for_ten_minutes_is_right_within_a_second(cooking, page: Page):
    """In a hold its clock is ten minutes on; asleep past the end of a fire, it calls at once."""
    page.clock.install()
    cooking.start().fast("cook.hold")
    expect(by(page, "clock")).to_contain_text(re.compile(r"^4[67]:\d\d"))  # its time is moved along
    before_s = left_s(page)
    slept(cooking, 600)
    page.wait_for_timeout(1000)
    assert before_s - left_s(page) == pytest.approx(601, abs=4)
    cooking.fast("finish.finish")
    slept(cooking, 600)
    expect(by(page, "says")).to_have_text("Out now.", timeout=1000)


def slept(cooking: Cooking, seconds: int) -> None:
    """The lid was closed: no timer of the page ran, and both clocks are so much later."""
    cooking.server.wait(seconds)
    cooking.page.clock.fast_forward(1000 * seconds)


def left_s(page: Page) -> int:
    """What the clock of the Stove says is left."""
    found = re.search(r"(?:(\d+):)?(\d+):(\d\d)", by(page, "clock").inner_text())
    assert found
    hours, minutes, seconds = (int(one or 0) for one in found.groups())
    return 3600 * hours + 60 * minutes + seconds
