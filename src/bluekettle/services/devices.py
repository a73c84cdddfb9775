"""Stand-ins for outside devices: a probe in the food, a thermometer in the oven and the pin of a
pot, as they would read in one simulated kitchen.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cached_property
from typing import Any

import numpy as np

from bluekettle.core import chain as core
from bluekettle.core.stages import first_heat
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from bluekettle.services.probing import heat_named

NOISE_K = 0.3  # of the probe
DROPPED = 0.05  # share of the readings that never come
LOOSE = (0.45, 0.5)  # of the planned time of a heat: the probe hangs in the air
SWING_K, SWING_S = 6.0, 480.0  # of an oven's thermostat
OFF_K = 8.0  # sd of what an oven holds against its dial
STEAM_C = 100.0
HEATS = ("come_up", "hold", "natural")


@dataclass(frozen=True)
class Running:
    """A step of a slow heat as it runs: its stage, the last part of its key, and since when the
    heat goes on and since when the step.
    """

    stage: str
    root: str
    heat_at: datetime
    step_at: datetime


def running_of(live: dict[str, Any]) -> Running | None:
    """The slow heat that a live cook (as the API tells it) is in; None where in none."""
    steps = {step["key"]: step for step in live["steps"]}
    now = steps.get(live["current"] or "")
    if now is None or now["who"] != "machine" or "~" in now["key"] or now["begin_at"] is None:
        return None
    stage, _, root = now["key"].rpartition(".")
    if root.partition("-")[0] not in HEATS:
        return None
    began = [
        step["begin_at"]
        for key, step in steps.items()
        if key.rpartition(".")[0] == stage
        and key.rpartition(".")[2].partition("-")[0] in HEATS
        and step["begin_at"] is not None
    ]
    heat_at, step_at = (datetime.fromisoformat(one) for one in (min(began), now["begin_at"]))
    return Running(stage, root.partition("-")[0], heat_at, step_at)


class Devices:
    """The devices of one simulated kitchen.

    Raises MissingData for a heat that not all of the food goes through.
    """

    def __init__(self, document: ChainDocument, seed: int) -> None:
        self.document, self.seed = document, seed
        self.dice = np.random.default_rng(seed)
        self._centres: dict[str, core.Centres] = {}

    @cached_property
    def plan(self) -> core.Plan:
        """The plan of the document."""
        return plan_of(self.document)

    def knows(self, stage: str) -> bool:
        """Whether the document has this heat: one that came for another is in a later one."""
        return heat_named(self.plan, stage) is not None

    @cached_property
    def oven_off_k(self) -> float:
        """What the oven holds against its dial [K]."""
        return float(OFF_K * self.dice.standard_normal())

    def centres(self, stage: str, air_c: float | None) -> core.Centres:
        """The middle of the food along a heat, in what its oven really holds."""
        if stage not in self._centres:
            kitchen = core.alike(core.hidden_kitchen(self.seed), 3)
            self._centres[stage] = core.centres_in(self.plan, stage, air_c, draws=kitchen)
        return self._centres[stage]

    def read(self, running: Running, at: datetime) -> list[dict[str, Any]]:
        """What is read at a moment, as the API takes it; some of it never comes."""
        heat = heat_named(self.plan, running.stage)
        row = core.heat_row(heat.heat) if heat else None
        if heat is None or row is None or row.slow is None:
            return []
        dial = heat.dial if heat.dial is not None else self.plan.kitchen.or_typical(row.slow.dial)
        holds_c = None
        if row.dial_unit == "°C":
            holds_c = min(max(dial + self.oven_off_k, row.dial_low), row.dial_high)
        found = self.centres(running.stage, holds_c)
        since_s = (at - running.heat_at).total_seconds()
        core_c = float(np.interp(since_s, found.time_s, found.centre_c[0]))
        told = []
        if holds_c is not None:
            swing = SWING_K * np.sin(2.0 * np.pi * since_s / SWING_S)
            told.append(("air_c", "Oven thermometer", "on the rack", float(holds_c + swing)))
        if first_heat(row.slow.key).dial == "pot_gauge_kpa":
            told.append(("pin", "Pot", "", self.pin(running, found, at)))
        around_c = STEAM_C if holds_c is None else holds_c
        if self.is_loose(since_s, found):
            core_c = max(core_c, around_c)
        core_c += NOISE_K * float(self.dice.standard_normal())
        told.append(("core_c", "Probe", "thickest place", core_c))
        moment = at.isoformat()
        return [
            {"quantity": q, "device": d, "site": s, "value": round(v, 2), "at": moment}
            for q, d, s, v in told
            if self.dice.random() >= DROPPED
        ]

    def is_loose(self, since_s: float, found: core.Centres) -> bool:
        """Whether the probe hangs in the air now."""
        whole_s = found.time_s[-1] / core.LONGER
        return bool(LOOSE[0] * whole_s <= since_s < LOOSE[1] * whole_s)

    def pin(self, running: Running, found: core.Centres, at: datetime) -> float:
        """Whether the pin is up [1 or 0]."""
        in_step = (at - running.step_at).total_seconds()
        if running.root == "come_up":
            return float(in_step >= found.come_up_s[0])
        if running.root == "natural":
            return float(in_step < found.natural_s[0])
        return 1.0


def moments_until(last: datetime, now: datetime, every_s: float, most: int) -> list[datetime]:
    """The next moments at which something is read, none of them in the future."""
    left = int((now - last).total_seconds() // every_s)
    return [last + timedelta(seconds=every_s * (n + 1)) for n in range(min(most, max(0, left)))]
