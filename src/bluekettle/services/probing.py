"""A live cook's outside devices: what they say now, when the food will be there, and what they
offer to be told. A reading alone confirms nothing.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from itertools import pairwise
from statistics import fmean

import numpy as np

from bluekettle.core import chain as core
from bluekettle.core.calibration import FEWEST, Reached, when_reached
from bluekettle.core.stages import Progress, StepPlan, StepState, first_heat
from bluekettle.core.stages.told import ESTIMATED
from bluekettle.schemas.reading import DeviceDonePublic, DevicePublic, ProbePublic
from bluekettle.services.chains import plan_of
from bluekettle.services.courses import Probes
from bluekettle.services.instructions import words_row
from bluekettle.services.loaded import Loaded, Seconds, stage_of_step
from bluekettle.store.tables import Reading

IN_HEAT = ("slow/warming", "slow/holding")
SILENT = timedelta(seconds=90)  # of a device that tells something every few seconds
ON_THE_WALL = timedelta(seconds=6)  # of a rehearsal, whose minutes are short
BY_HAND, BY_HAND_SILENT = "by hand", timedelta(minutes=30)  # what the Stove calls such a reading
FRESH = timedelta(seconds=120)  # what a check is filled in with
AIR_OVER = timedelta(minutes=20)  # an oven swings, and an opened door is forgotten
AIR_AFTER_S = 600.0  # of a heat: by then it is as hot as it gets
FINE_BELOW_C, FINE_C, COARSE_C = 100.0, 1.0, 5.0  # steps of what air is taken for
PIN_ENDS = {"slow/warming": 1.0, "slow/falling": 0.0}  # by what the step shows
SPREAD_MARKS = 60  # that a course is held against


@dataclass(frozen=True)
class ProbeNow:
    """What a probe says, and the seconds that it gives to steps, by their keys."""

    public: ProbePublic | None = None
    seconds: Mapping[str, Seconds] = field(default_factory=dict)


@dataclass(frozen=True)
class Under:
    """The slow heat that the food is in: its stage, when it began [s], and the temperature that is
    waited for [°C], None where none is. ends : it is that temperature that ends it.
    """

    heat: core.Heat
    begin_s: float
    target_c: float | None
    ends: bool


def is_silent(loaded: Loaded, newest: Reading, now: datetime) -> bool:
    """Whether a device has said nothing for a while, on the wall's clock as well; a hand measures
    now and then.
    """
    usual = BY_HAND_SILENT if newest.device == BY_HAND else SILENT
    return now - newest.taken_at > max(usual, loaded.speed * ON_THE_WALL)


def devices_of(loaded: Loaded, now: datetime) -> list[DevicePublic]:
    """The newest reading of each quantity."""
    return [
        DevicePublic(
            device=one.device,
            quantity=quantity,
            value=round(one.value, 1),
            site=one.site,
            taken_at=one.taken_at,
            silent=is_silent(loaded, one, now),
        )
        for quantity, one in loaded.told.newest.items()
    ]


def heat_named(plan: core.Plan, key: str) -> core.Heat | None:
    """A heat of a plan by its id; one of a round as "baste.2". None where there is none."""
    found = core.stage_named(plan.stages, key)
    return found if isinstance(found, core.Heat) else None


def heated_by(loaded: Loaded, plan: StepPlan) -> bool:
    """Whether the food is in a slow heat during a step, by what its row shows."""
    if plan.who != "machine":
        return False
    return words_row(loaded.step_of(plan))["shows"] in IN_HEAT


def under_now(loaded: Loaded, progress: Progress) -> Under | None:
    """The slow heat that the food is in now, by what was told: one whose end is only reckoned is
    not over. None on the way back of a check, which is not of the plan.
    """
    line = [s for s in progress.steps if not s.plan.beside]
    place = next((i for i, s in enumerate(line) if s.plan.key == progress.current), None)
    while place and not heated_by(loaded, line[place].plan):
        place = place - 1 if line[place - 1].state == ESTIMATED else None
    if place is None or "~" in line[place].plan.key or not heated_by(loaded, line[place].plan):
        return None
    stage = stage_of_step(line[place].plan)
    heat = heat_named(plan_of(loaded.whole), stage)
    began = [s.begin_s for s in steps_in(loaded, line, stage) if s.begin_s is not None]
    if heat is None or not began:
        return None
    core_c = heat.until.core_c if heat.until.by == "core" else None
    target_c = core_c if core_c is not None else gate_ahead(loaded, line[place:])
    return Under(heat, float(began[0]), target_c, core_c is not None)


def steps_in(loaded: Loaded, line: Sequence[StepState], stage: str) -> list[StepState]:
    """Steps in which the food is in the heat of a stage."""
    return [s for s in line if stage_of_step(s.plan) == stage and heated_by(loaded, s.plan)]


def gate_ahead(loaded: Loaded, ahead: Sequence[StepState]) -> float | None:
    """What the thermometer must read at the next check [°C]; None where there is none."""
    gate = next((s.plan for s in ahead if s.plan.who == "gate"), None)
    return None if gate is None else loaded.asked_c(gate)


def air_dial(loaded: Loaded, under: Under, now: datetime) -> float | None:
    """What the appliance really holds by the readings of its air [°C], in steps; None where nobody
    reads it, or it is not set in degrees.
    """
    if core.heat_row(under.heat.heat).dial_unit != "°C":
        return None
    since = max(now - AIR_OVER, loaded.at(under.begin_s + AIR_AFTER_S))
    told = [one.value for one in loaded.told.marks if one.quantity == "air_c"]
    times = [one.taken_at for one in loaded.told.marks if one.quantity == "air_c"]
    lately = [value for value, at in zip(told, times, strict=True) if at >= since]
    if not lately:
        return None
    row, mean_c = core.heat_row(under.heat.heat), fmean(lately)
    step_c = FINE_C if mean_c < FINE_BELOW_C else COARSE_C
    near = step_c * round(mean_c / step_c)
    return min(max(near, row.dial_low), row.dial_high)


def probe_now(loaded: Loaded, progress: Progress, now: datetime, probes: Probes) -> ProbeNow:
    """What the probe in the food says, and what it makes of the heat that it ends."""
    newest = loaded.told.newest.get("core_c")
    if newest is None:
        return ProbeNow()
    under = under_now(loaded, progress)
    silent = is_silent(loaded, newest, now)
    told = ProbePublic(
        device=newest.device,
        site=newest.site,
        temp_c=round(newest.value, 1),
        taken_at=newest.taken_at,
        silent=silent,
        loose=False,
        target_c=under.target_c if under else None,
        ready=True,
        at=None,
        low_at=None,
        high_at=None,
    )
    begin = loaded.at(under.begin_s) if under else now
    marks = marks_since(loaded, newest, begin)
    if under is None or not marks:
        return ProbeNow(told)
    dial = air_dial(loaded, under, now)
    courses = probes.courses(loaded.whole, under.heat.id, dial)
    if courses is None:
        failed = probes.failed(loaded.whole, under.heat.id, dial)
        return ProbeNow(told.model_copy(update={"ready": failed}))
    probed = probes.probed(courses, marks, begin)
    loose = bool(probed.loose[-1])
    if under.target_c is None:
        return ProbeNow(told.model_copy(update={"loose": loose}))
    heat_s = (newest.taken_at - begin).total_seconds()
    good = [one for one, off in zip(marks, probed.loose, strict=True) if not off]
    if not good:  # it was never in the food
        return ProbeNow(told.model_copy(update={"loose": loose}))
    last = ((good[-1].taken_at - begin).total_seconds(), good[-1].value)
    reached = when_reached(courses, probed, under.target_c, last)
    first = first_there(good, under.target_c)
    if first is not None:  # it is there, whatever is read when the door is open
        heat_s = (first.taken_at - begin).total_seconds()
        reached = Reached(heat_s, heat_s, heat_s, 1.0)
    moments = moments_of(reached, begin)
    told = told.model_copy(update={"loose": loose, **moments})
    seconds: Mapping[str, Seconds] = {}
    if under.ends:
        most_s = max(heat_s, float(courses.time_s[-1]))
        seconds = holds_of(loaded, progress, under, reached, most_s)
    return ProbeNow(told, seconds)


def first_there(good: Sequence[Reading], target_c: float) -> Reading | None:
    """The reading from which on the food is there: the first of two in a row, or the newest. One
    alone, with less after it, was a mistake.
    """
    for one, following in pairwise(good):
        if one.value >= target_c and following.value >= target_c:
            return one
    return good[-1] if good[-1].value >= target_c else None


def marks_since(loaded: Loaded, newest: Reading, begin: datetime) -> list[Reading]:
    """Marks of the probe since the heat began, thinned out evenly, and the newest reading."""
    marks = [
        one
        for one in loaded.told.marks
        if one.quantity == "core_c" and one.device == newest.device and one.taken_at >= begin
    ]
    if newest.taken_at >= begin and (not marks or marks[-1].id != newest.id):
        marks.append(newest)
    every = max(1, len(marks) // SPREAD_MARKS)
    return marks[::-1][::every][::-1]


def moments_of(reached: Reached, begin: datetime) -> dict[str, datetime | None]:
    """When it is there; nothing where too few of the courses ever get there."""
    if reached.share < FEWEST:
        return {}

    def moment(seconds: float) -> datetime | None:
        return begin + timedelta(seconds=seconds) if np.isfinite(seconds) else None

    return {
        "at": moment(reached.likely_s),
        "low_at": moment(reached.low_s),
        "high_at": moment(reached.high_s),
    }


def holds_of(
    loaded: Loaded, progress: Progress, under: Under, reached: Reached, most_s: float
) -> dict[str, Seconds]:
    """The last stretch of the heat that the probe ends, so that it ends when the food is there. A
    moment that is not known is as far off as is looked: food that is not there stays in.
    """
    line = [s for s in progress.steps if not s.plan.beside]
    last = steps_in(loaded, line, under.heat.id)[-1]
    if last.begin_s is None:
        return {}
    gone = last.begin_s - under.begin_s
    ends = (min(one, most_s) for one in (reached.low_s, reached.likely_s, reached.high_s))
    low, likely, high = (max(0.0, one - gone) for one in ends)
    return {last.plan.key: (low, likely, high)}


def offer_now(loaded: Loaded, progress: Progress, now: datetime) -> DeviceDonePublic | None:
    """What a pot says of its pin, where that ends the step that runs: up, or down again."""
    state = next((s for s in progress.steps if s.plan.key == progress.current), None)
    newest = loaded.told.newest.get("pin")
    if state is None or newest is None or state.begin_s is None or state.plan.who != "machine":
        return None
    step = loaded.step_of(state.plan)
    shows = words_row(step)["shows"]
    has_pin = first_heat(step.heat).dial == "pot_gauge_kpa"
    if not has_pin or shows not in PIN_ENDS or newest.value != PIN_ENDS[shows]:
        return None
    begin = loaded.at(state.begin_s)
    since = newest.taken_at
    for one in reversed([one for one in loaded.told.marks if one.quantity == "pin"]):
        if one.value != newest.value:
            break
        since = one.taken_at
    since = max(since, begin)
    return DeviceDonePublic(
        step=state.plan.key,
        at=since,
        ago_s=max(0.0, (now - since).total_seconds()),
        says=f"{newest.device}: its pin is {'up' if newest.value else 'down'}.",
        button=f"{'Up' if newest.value else 'Down'} since",
    )


def fresh_core(loaded: Loaded, progress: Progress, now: datetime) -> Reading | None:
    """What a check is filled in with: the probe's newest reading, where it is of this moment and
    was read at the check. In its heat a probe may have hung beside the food.
    """
    newest = loaded.told.newest.get("core_c")
    gate = next((s for s in progress.steps if s.plan.key == progress.current), None)
    if newest is None or gate is None or gate.begin_s is None:
        return None
    if newest.taken_at < loaded.at(gate.begin_s):
        return None
    stale = now - newest.taken_at > max(FRESH, loaded.speed * ON_THE_WALL)
    return None if stale else newest
