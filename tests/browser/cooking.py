"""A cook at the page: what is read of the server, and what is tapped."""

import re
from dataclasses import dataclass, field
from typing import Any

from playwright.sync_api import Locator, Page, TimeoutError, expect
from tests.served import Server

PATIENCE = 200  # looks for a button that may come, go or be covered
COVERED_MS = 4_000

RIBS = {
    "cut": "beef-short-ribs",
    "mass_kg": 1.6,
    "pieces": 6,
    "thickness_mm": 45.0,
    "sauce": "plum-tea",
    "coats": 1,
}


def by(page: Page, name: str) -> Locator:
    return page.locator(f"[data-test='{name}']")


@dataclass
class Cooking:
    """One cook, followed on the page by mouse or by keys, with the server's clock moved along."""

    page: Page
    server: Server
    dish: dict[str, Any] = field(default_factory=lambda: dict(RIBS))
    keys: bool = False
    cook: int = 0

    def ask(self, path: str, body: Any = None) -> Any:
        return self.server.ask(path, body)

    def start(self, **more: Any) -> "Cooking":
        """Begin the cook, and open the Stove."""
        self.cook = self.ask("/cooks", {"dish": self.dish, **more})["id"]
        self.open()
        return self

    def open(self, path: str | None = None) -> None:
        self.page.goto(self.server.address + (path or f"/stove/{self.cook}"))

    def live(self) -> Any:
        return self.ask(f"/cooks/{self.cook}/live")

    def step(self, live: Any = None) -> Any:
        live = live or self.live()
        return next((s for s in live["steps"] if s["key"] == live["current"]), None)

    def press(self, name: str) -> None:
        """Tap one button, by mouse or by keys."""
        button = by(self.page, name)
        expect(button).to_be_enabled()
        if self.keys:
            button.focus()
            self.page.keyboard.press("Enter")
        else:
            button.click()

    def wide(self) -> None:
        """The wide button of the step; Space does the same."""
        expect(by(self.page, "done")).to_be_enabled()
        if self.keys:
            self.page.keyboard.press("Space")
        else:
            by(self.page, "done").click()

    def until_changed(self, before: Any) -> Any:
        """The state once what was tapped has come to the server and to the page."""
        for _ in range(900):  # as long as everything else is waited for
            live = self.live()
            if live["last_event"] > before["last_event"]:
                if not live["finished"] and by(self.page, "stove").count():
                    expect(by(self.page, "says")).to_have_text(said(live))
                self.page.wait_for_timeout(650)  # a second tap within this is the same gesture
                return live
            self.page.wait_for_timeout(50)
        raise AssertionError(f"the tap on {before['current']} never came to the server")

    def confirm(self, reading: str = "91") -> Any:
        """Do the current step in its likely time and say so, of a machine's just before it ends."""
        before = self.live()
        step = self.step(before)
        early_s = 20.0 if step["who"] == "machine" else 0.0
        self.server.wait(max(1.0, step["likely_s"] - early_s))
        live = self.live()
        if live["current"] != before["current"]:  # a machine was done meanwhile
            expect(by(self.page, "says")).to_have_text(said(live))
            self.page.wait_for_timeout(650)  # a tap within this was meant for the step before
        if live["gate"]:
            if live["gate"]["wants_c"] is not None:
                by(self.page, "gate-temp").fill(reading)
            self.press("gate-yes")
        else:
            self.tell_done(before)
        return self.until_changed(before)

    def tell_done(self, before: Any) -> None:
        """Say that the step is done. Where a machine was done in that moment, the page takes the
        tap for one at that step, and leaves it: a cook taps again.
        """
        self.say_done()
        if not self.came(before):
            self.say_done()

    def came(self, before: Any) -> bool:
        """Whether a tap has come to the server, within some seconds."""
        for _ in range(100):
            if self.live()["last_event"] > before["last_event"]:
                return True
            self.page.wait_for_timeout(100)
        return False

    def say_done(self) -> None:
        """The wide button of the step, that of a call over it, or that of a fire nobody told of.

        Which of them is there may change with any look of the page at the server.
        """
        for _ in range(PATIENCE):
            if any(self.tapped(name) for name in ("call-done", "under-yes", "done")):
                return
            self.page.wait_for_timeout(200)
        raise AssertionError("nothing could be tapped")

    def tapped(self, name: str) -> bool:
        """Tap a button if it is there, and can be tapped at once."""
        button = by(self.page, name)
        try:
            if not button.is_visible() or not button.is_enabled(timeout=COVERED_MS):
                return False
            if not self.keys:
                button.click(timeout=COVERED_MS)
            elif name == "done":
                self.page.keyboard.press("Space")
            else:
                button.focus(timeout=COVERED_MS)
                self.page.keyboard.press("Enter")
        except TimeoutError:  # it went, or a call came over it
            return False
        return True

    def until(self, key: str) -> Any:
        """Confirm step after step until one is current."""
        live = self.live()
        for _ in range(60):
            if live["current"] == key:
                return live
            assert live["current"], f"{key} never came"
            live = self.confirm()
        raise AssertionError(f"{key} never came")

    def fast(self, key: str) -> Any:
        """The same without the page: for what has to be there before a journey begins."""
        live = self.live()
        while live["current"] != key:
            assert live["current"], f"{key} never came"
            step = self.step(live)
            self.server.wait(max(1.0, step["likely_s"]))
            evidence = {"temp_c": 91.0, "tender": True} if live["gate"] else {}
            body = {"kind": "done", "step": live["current"], **evidence}
            live = self.ask(f"/cooks/{self.cook}/events", body)
        expect(by(self.page, "says")).to_have_text(shown(live["says"]))
        return live

    def rate(self) -> None:
        """Say how it was, and come to the log."""
        for choice in ("tenderness-falls", "crust-sticky", "colour-amber"):
            option = by(self.page, choice)
            if self.keys:
                option.locator("input").focus()
                self.page.keyboard.press("Space")
            else:
                option.click()
        self.press("save-outcome")
        expect(self.page).to_have_url(re.compile(f"/log/{self.cook}$"))


def said(live: Any) -> re.Pattern[str]:
    """The sentence over the picture: what there is to do, or a call that is on."""
    calls = [alarm["says"] for alarm in live["alarms"] if alarm["screen"]]
    return re.compile("|".join(shown(text).pattern for text in (live["says"], *calls)))


def shown(text: str) -> re.Pattern[str]:
    """A sentence as it stands on the page, whatever its spaces are."""
    return re.compile(r"\s+".join(re.escape(word) for word in text.split()))
