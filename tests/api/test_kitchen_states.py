"""A kitchen under any order of changes: it always answers, and what it hands to dishes is always
usable.
"""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any

import hypothesis.strategies as st
from hypothesis import settings
from hypothesis.stateful import Bundle, RuleBasedStateMachine, consumes, initialize, invariant, rule
from tests.conftest import SHORT_RIBS, open_kitchen

from bluekettle.core.stages import LIMITS, finish_keys
from bluekettle.core.tables import rows

KINDS = tuple(rows("appliances"))
FINISHING = (
    "oven-broiler",
    "air-fryer",
    "hot-oven",
    "fan-oven",
    "crisping-lid",
    "gas-grill",
    "charcoal-grill",
    "contact-grill",
)
PLAUSIBLE = st.fixed_dictionaries(
    {},
    optional={
        "power_w": st.floats(300, 3000),
        "preheat_min": st.floats(0, 60),
        "element_w_m2": st.floats(1000, 9000),
        "setting_c": st.floats(100, 320),
        "top_c": st.floats(150, 320),
        "rack_mm": st.floats(50, 350),
        "in_use": st.booleans(),
    },
)


class AnyKitchen(RuleBasedStateMachine):
    """Appliances come, change and go; signs are seen, forgotten and taken back."""

    appliances = Bundle("appliances")
    signs = Bundle("signs")

    @initialize()
    def open(self) -> None:
        self.folder = tempfile.TemporaryDirectory()
        self.kitchen = open_kitchen(Path(self.folder.name) / "kettle.sqlite3")
        self.kept: set[int] = set()

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        answer = self.kitchen.client.open("/api/v1" + path, method=method, json=body)
        assert answer.status_code < 500, answer.text[:400]
        if answer.status_code == 422:
            assert all(e["field"] and e["accepted"] for e in answer.get_json()["errors"])
        return answer.status_code, answer.get_json(silent=True)

    @rule(target=appliances, kind=st.sampled_from(KINDS))
    def add(self, kind: str) -> int:
        status, made = self.ask("POST", "/kitchen/appliances", {"kind": kind, "name": kind})
        assert status == 201
        self.kept.add(made["id"])
        return int(made["id"])

    @rule(one=appliances, kind=st.sampled_from(FINISHING), fields=PLAUSIBLE)
    def change(self, one: int, kind: str, fields: dict[str, Any]) -> None:
        status, _ = self.ask(
            "PUT", f"/kitchen/appliances/{one}", {"kind": kind, "name": "changed", **fields}
        )
        assert status in (200, 422) if one in self.kept else status == 404

    @rule(one=consumes(appliances))
    def drop(self, one: int) -> None:
        status, _ = self.ask("DELETE", f"/kitchen/appliances/{one}")
        assert status == (204 if one in self.kept else 404)
        self.kept.discard(one)

    @rule(
        target=signs,
        one=appliances,
        ground=st.sampled_from(("bread", "syrup", "scout", "food")),
        sign=st.sampled_from(("bubbling", "amber at the edges", "amber", "dark", "burnt")),
        at_s=st.floats(1, 3000),
    )
    def see(self, one: int, ground: str, sign: str, at_s: float) -> int:
        body = {"ground": ground, "sign": sign, "at_s": at_s}
        status, told = self.ask("POST", f"/kitchen/appliances/{one}/observations", body)
        assert status in (201, 422, 404)
        return int(told["appliance"]["observations"][-1]["id"]) if status == 201 else 0

    @rule(seen=signs, again=st.booleans())
    def forget(self, seen: int, again: bool) -> None:
        path = f"/kitchen/observations/{seen}"
        status, _ = self.ask("POST", path + "/restore") if again else self.ask("DELETE", path)
        assert status in (200, 404, 422)

    @invariant()
    def is_usable(self) -> None:
        if not hasattr(self, "kitchen"):
            return
        told = self.kitchen.get("/kitchen")
        assert {a["id"] for a in told["appliances"]} == self.kept
        for name, figure in told["figures"].items():
            low, high, _ = LIMITS[name]
            assert low <= figure <= high, name
        assert set(told["learnt"]) <= set(finish_keys())
        for one in told["appliances"]:
            assert len(one["history"]) == (
                1 + sum(not o["forgotten"] for o in one["observations"]) if one["finish"] else 0
            )

    def teardown(self) -> None:
        if not hasattr(self, "kitchen"):
            return
        told = self.kitchen.get("/kitchen")
        for finish in told["learnt"] or ("broiler",):
            kept = {**told["figures"], "learnt": told["learnt"], "machines": told["machines"]}
            self.kitchen.post("/forecasts", {**SHORT_RIBS, "finish": finish, "kitchen": kept}, 200)
        self.kitchen.client.application.extensions["kettle_engine"].dispose()
        self.folder.cleanup()


TestAnyKitchen = AnyKitchen.TestCase
TestAnyKitchen.settings = settings(
    max_examples=8, stateful_step_count=16, deadline=None, derandomize=True
)
