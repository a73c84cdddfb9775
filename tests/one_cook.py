"""A cook of one slow heat and one fire, said in one line: the plan that most tests of the core ask
for, and its forecast by the names of its two heats.
"""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import NamedTuple

import numpy as np

from bluekettle.core.chain import (
    Dress,
    Heat,
    HeatAct,
    Layer,
    Plan,
    PlanForecast,
    Rest,
    Season,
    TakeApart,
    Until,
    forecast_plan,
    heat_keys,
    heat_row,
)
from bluekettle.core.glaze import Act, Draws
from bluekettle.core.safety import PlanWatchOut, plan_watch_outs
from bluekettle.core.sauce import Composition
from bluekettle.core.stages import (
    Band,
    Browning,
    Kitchen,
    Piece,
    Sighting,
    Stage,
    Tendering,
    cut,
)

REST_MIN = 3.0


@dataclass(frozen=True)
class Dish:
    """One food, the heat that makes it tender and the one that browns it. timer_min : the cook's
    own; None for the one that brings the bite.
    """

    cut: str
    mass_kg: float
    pieces: int
    thickness_mm: float
    state: str = "fridge"
    tenderise: str = "pressure"
    bite: str = "falls"
    release: str | None = None
    liquid_l: float | None = None
    timer_min: float | None = None
    finish: str = "broiler"
    want: str = "amber"
    sauce: Composition | None = None
    coats: int = 0
    coat_mm: float = 0.5
    coats_min: tuple[float, ...] | None = None
    flips_min: tuple[float, ...] = ()
    kitchen: Kitchen = field(default_factory=Kitchen)
    seed: int = 1
    sightings: tuple[Sighting, ...] = ()
    told: tuple[Act, ...] = ()

    def of(self, kind: type, **more: object):
        """Its food and kitchen, and as many of its other fields as this kind of input has."""
        names = {one.name for one in fields(kind)} - more.keys()
        own = {one.name: getattr(self, one.name) for one in fields(self) if one.name in names}
        return kind(**own, **more)

    @property
    def piece(self) -> Piece:
        """Its food."""
        return self.of(Piece)

    @property
    def slow(self) -> Tendering:
        """Its food in the heat that makes it tender."""
        return self.of(Tendering, heat=self.tenderise)

    @property
    def fire(self) -> Browning:
        """Its food under the heat that browns it."""
        return self.of(Browning, heat=self.finish)

    @property
    def plan(self) -> Plan:
        """The same as food, layers and stages."""
        layers = () if self.sauce is None else (Layer("glaze", "glaze", self.sauce),)
        return Plan(
            self.cut,
            self.mass_kg,
            self.pieces,
            self.thickness_mm,
            (Season("season"), self._cook(), *self._finish(), *self._apart()),
            state=self.state,
            layers=layers,
            kitchen=self.kitchen,
            seed=self.seed,
            sightings={"finish": self.sightings} if self.sightings else {},
            told={"finish": self.told} if self.told else {},
        )

    def _cook(self) -> Heat:
        until = Until("bite", self.timer_min, bite=self.bite)
        return Heat(
            "cook",
            heat_of(slow=self.tenderise),
            until,
            release=self.release,
            liquid_l=self.liquid_l,
        )

    def _finish(self) -> tuple[object, ...]:
        moments = self.coats_min if self.coats_min is not None else (None,) * self.coats
        before = self.coats > 0 and not moments[0]
        acts = [HeatAct("coat", minute, "glaze") for minute in moments[int(before) :]]
        acts += [HeatAct("turn", minute) for minute in self.flips_min]
        acts.sort(key=lambda act: act.at_min or 0.0)
        until = Until("colour", want=self.want)
        heat = Heat(
            "finish",
            heat_of(fierce=self.finish),
            until,
            acts=tuple(acts),
            coat_mm=self.coat_mm,
        )
        coat = (Dress("brush", "glaze", mm=self.coat_mm),) if before else ()
        return (*coat, heat, Rest("rest", REST_MIN, covered=True))

    def _apart(self) -> tuple[TakeApart, ...]:
        if self.bite != "shreds":
            return ()
        bones = (TakeApart("bones", "bones"),) if cut(self.cut).on_the_bone else ()
        return (*bones, TakeApart("shred", "shred"))


def heat_of(slow: str = "", fierce: str = "") -> str:
    """The heat that has this slow or this fierce model; the name itself where none has."""
    for key in heat_keys():
        row = heat_row(key)
        if (slow and row.slow and row.slow.key == slow) or (
            fierce and row.fierce and row.fierce.key == fierce
        ):
            return key
    return slow or fierce


class Safety(NamedTuple):
    """What the check before the fire rests on, and what it is held against."""

    core_low_c: float
    core_likely_c: float
    wanted_c: float
    log_low: float
    danger_min: float
    late_s: float
    gate: bool
    rests_on: str
    probe_c: float


@dataclass(frozen=True)
class Told:
    """The forecast of such a cook."""

    dish: Dish
    whole: PlanForecast

    def __getattr__(self, name: str):
        """Of the whole, else of its fire: total, tenderness … and milestones, finish …"""
        if hasattr(self.whole, name):
            return getattr(self.whole, name)
        return getattr(self.whole.fires[-1], name)

    @property
    def stages(self) -> tuple[Stage, ...]:
        """All links."""
        return self.whole.links

    @property
    def run(self):
        """What the slow heat did."""
        return self.whole.slows[0].run

    @property
    def timer_s(self) -> float:
        """Timer of the slow heat."""
        return self.whole.slows[0].timer_s

    @property
    def finish_timer_s(self) -> float:
        """Timer of the fire."""
        return self.whole.fires[-1].timer_s

    @property
    def fill(self):
        """How full its vessel gets."""
        return self.whole.slows[0].fill

    @property
    def come_up(self) -> Band:
        """Until it is at its heat."""
        seconds = self.run.come_up_s
        return Band.of(seconds, np.ones(seconds.size))

    @property
    def trace(self) -> dict[str, np.ndarray]:
        """The median member in the slow heat."""
        names = ("time_s", "vessel_c", "centre_c", "mean_c")
        return {name: self.run.trace[:, i] for i, name in enumerate(names)}

    @property
    def dried(self) -> np.ndarray:
        """The surface that the median member brings into the fire."""
        return np.median(self.under.below.dried, axis=0)

    @property
    def safety(self) -> Safety:
        """By the gates of the whole."""
        inside = self.whole.inside
        timed = next((gate for gate in self.whole.gates if gate.by_time), None)
        return Safety(
            inside.core_low_c,
            inside.core_likely_c,
            inside.wanted_c,
            inside.log_low,
            inside.danger_min,
            inside.late_s,
            inside.gate,
            "time" if timed else "temperature",
            timed.safe_c if timed else inside.wanted_c,
        )

    def link(self, key: str) -> Stage:
        """The link of this key."""
        return next(one for one in self.whole.links if one.key == key)

    @property
    def keys(self) -> list[str]:
        """Keys of all links."""
        return [one.key for one in self.whole.links]


def forecast(dish: Dish, available_s: float | None = None, draws: Draws | None = None) -> Told:
    """Forecast it whole."""
    return Told(dish, forecast_plan(dish.plan, available_s, draws))


def watch_outs(told: Told) -> tuple[PlanWatchOut, ...]:
    """All its warnings."""
    return plan_watch_outs(told.whole)
