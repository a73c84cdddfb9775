"""Every shipped chain, told at random: taps, checks that fail, readings, guests who are late, undo,
pauses and restarts. Whatever is told, there is one thing to do, and no gate passes by itself.
"""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.chain.conftest import TEMPLATES
from tests.conftest import START, open_kitchen

ACTS = (
    "tap",
    "tap",
    "tap",
    "wait",
    "long",
    "read",
    "air",
    "late",
    "undo",
    "saw",
    "tough",
    "cold",
    "rescue",
    "dial",
    "resists",
    "slides in",
    "skip",
    "crash",
)
MOST_WORDS = 6


class Evening:
    """One cook, and what was told of it."""

    def __init__(self, folder, document):
        self.database = folder / "kettle.sqlite3"
        self.database.unlink(missing_ok=True)
        self.kitchen = open_kitchen(self.database, START)
        self.live = self.kitchen.post("/cooks", {"dish": document})

    def close(self):
        self.kitchen.client.application.extensions["kettle_engine"].dispose()

    def look(self):
        self.live = self.kitchen.get(f"/cooks/{self.live['id']}/live")

    def tell(self, **event):
        """Told and taken, or refused with a reason that names what is accepted."""
        path = f"/api/v1/cooks/{self.live['id']}/events"
        answer = self.kitchen.client.post(path, json=event)
        assert answer.status_code in (201, 409, 422), answer.text[:300]
        if answer.status_code == 201:
            self.live = answer.get_json()
        else:
            assert answer.get_json()["detail"]

    def read(self, quantity, value):
        self.kitchen.wait(150.0)
        one = {"quantity": quantity, "value": value, "device": quantity}
        path = f"/api/v1/cooks/{self.live['id']}/readings"
        assert self.kitchen.client.post(path, json=one).status_code == 201

    def gate(self, **evidence):
        if self.live["gate"] is not None:
            self.tell(kind="done", step=self.live["current"], **evidence)

    def act(self, name):
        gates = self.gates()
        key = self.live["current"]
        if name == "tap" and key is not None:
            likely = next(s["likely_s"] for s in self.live["steps"] if s["key"] == key)
            self.kitchen.wait(max(1.0, likely))
            self.look()
            wants = self.live["gate"] or {}
            evidence = {"tender": True, "temp_c": (wants.get("wants_c") or 60.0) + 10.0}
            if wants:
                self.gate(**evidence)
            elif self.live["current"]:
                self.tell(kind="done", step=self.live["current"])
        elif name in ("wait", "long"):
            self.kitchen.wait(90.0 if name == "wait" else 7200.0)
            self.look()
            assert self.gates() == gates, "time passes no gate"
        elif name in ("read", "air"):
            self.read(*(("core_c", 55.0) if name == "read" else ("air_c", 192.0)))
            self.look()
            assert self.gates() == gates, "a reading passes no gate"
        elif name == "late":
            self.tell(kind="later", seconds=900.0)
        elif name == "undo":
            self.tell(kind="undo")
        elif name == "saw":
            self.tell(kind="saw", sign="bubbling")
        elif name == "rescue":
            self.tell(kind="rescue", change="calmer")
        elif name == "tough":
            self.gate(tender=False, temp_c=85.0)
        elif name == "cold":
            self.gate(tender=True, temp_c=40.0)
        elif name == "dial":
            fire = self.live["fire"] or {}
            at = (fire.get("dial") or {}).get("value", 0.15)
            self.tell(kind="dial", step=fire.get("name", ""), dial=1.2 * at)
        elif name in ("resists", "slides in"):
            step = (self.live["feel"] or {}).get("step", "")
            self.tell(kind="felt", step=step, tender=name == "slides in")
            assert self.gates() == gates, "a skewer in the heat passes no gate"
        elif name == "skip" and self.live["gate"] is not None:
            self.tell(kind="skip", step=self.live["current"], reason="no thermometer")
        elif name == "crash":
            before = self.live
            self.close()
            self.kitchen = open_kitchen(self.database, self.kitchen.now)
            self.look()
            assert self.live["last_event"] == before["last_event"]
            assert self.gates() == {**self.gates(), **gates}

    def gates(self):
        return {s["key"]: s["gate"] for s in self.live["steps"] if s["who"] == "gate"}

    def holds(self):
        """What may never be otherwise."""
        live = self.live
        assert (live["current"] is None) == live["finished"]
        open_now = [
            s["key"]
            for s in live["steps"]
            if s["state"] in ("current", "running") and not s["beside"]
        ]
        assert open_now == ([live["current"]] if live["current"] else [])
        if live["finished"]:
            assert "open" not in self.gates().values()
            return
        assert live["says"]
        assert live["button"]
        assert len(live["button"].split()) <= MOST_WORDS
        assert "{" not in live["says"] + live["button"] + live["detail"]
        assert live["serve_low_at"] <= live["serve_at"] <= live["serve_high_at"]
        place = [s["key"] for s in live["steps"]].index(live["current"])
        behind = [s for s in live["steps"][:place] if s["who"] == "gate" and not s["beside"]]
        assert "open" not in [s["gate"] for s in behind]


@pytest.mark.parametrize("key", TEMPLATES)
@settings(max_examples=2, deadline=None)
@given(acts=st.lists(st.sampled_from(ACTS), min_size=18, max_size=30))
def test_whatever_is_told_there_is_one_thing_to_do(tmp_path_factory, key, acts):
    evening = Evening(tmp_path_factory.mktemp("evening"), TEMPLATES[key])
    try:
        for name in acts:
            evening.act(name)
            evening.holds()
    finally:
        evening.close()
