"""The one change of a chain after which it comes out right more often."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from bluekettle.core.chain import (
    Heat,
    Known,
    Memory,
    Plan,
    PlanForecast,
    Until,
    forecast_plan,
    heat_keys,
    heat_row,
)
from bluekettle.core.errors import CoreError
from bluekettle.core.glaze import Draws, draw_members
from bluekettle.core.tables import row as table_row

GLANCE = 64  # members that candidates are compared with (numerical)
LEAST_GAIN = 0.1  # one evening in ten: less is not worth a change (design)
LONGER = (1.15, 1.35)  # times the timer of a bite (design)
Stops = Callable[[PlanForecast], set[str]]
TURNED = {"°C": (-25.0, 20.0), "m": (0.05, -0.04)}  # of a dial, gentler first (design)


@dataclass(frozen=True)
class Repair:
    """A changed heat at its place among the plan's stages, how often the cook comes out right with
    it [-] and without [-], and how much longer it takes [s].
    """

    place: int
    heat: Heat
    right: float
    before: float
    longer_s: float


def best_repair(plan: Plan, draws: Draws, stops_of: Stops) -> Repair | None:
    """The change of one heat that brings most, of another appliance or dial for the fire that goes
    wrong most often and of a longer timer for the bite; None where none brings an evening in ten.
    It brings no stop, by `stops_of`, that was not there. Raises as `forecast_plan`.
    """
    memory: Memory[Known] = Memory()
    glance = draw_members(plan.seed, GLANCE)
    base = forecast_plan(plan, None, glance, memory)
    stops = stops_of(base)
    best: tuple[float, int, Heat] | None = None
    for place, heat in candidates(base):
        found = tried(plan, place, heat, glance, memory)
        if found is None or stops_of(found) - stops:
            continue
        if best is None or found.right.all_of_it > best[0]:
            best = (found.right.all_of_it, place, heat)
    if best is None or best[0] < base.right.all_of_it + LEAST_GAIN:
        return None
    return confirmed(plan, best[1], best[2], draws, stops_of)


def confirmed(plan: Plan, place: int, heat: Heat, draws: Draws, stops_of: Stops) -> Repair | None:
    """The same comparison with every member; None where it does not hold."""
    memory: Memory[Known] = Memory()
    before = forecast_plan(plan, None, draws, memory)
    after = tried(plan, place, heat, draws, memory)
    if after is None or stops_of(after) - stops_of(before):
        return None
    if after.right.all_of_it < before.right.all_of_it + LEAST_GAIN:
        return None
    longer_s = after.total.likely_s - before.total.likely_s
    return Repair(place, heat, after.right.all_of_it, before.right.all_of_it, longer_s)


def candidates(base: PlanForecast) -> Iterator[tuple[int, Heat]]:
    """Changed heats by their place among the plan's own stages; what stands in rounds or in a
    split is left alone.
    """
    places = {stage.id: place for place, stage in enumerate(base.plan.stages)}
    colours = {fire.stage for fire in base.fires if fire.by == "colour"}
    fires = sorted((share, key) for key, share in base.right.fires if key in places)
    for _share, key in fires[:1]:
        heat = base.plan.stages[places[key]]
        assert isinstance(heat, Heat)  # a fire is one
        others = [*turned(heat, base), *(other_heats(heat) if key in colours else ())]
        yield from ((places[key], other) for other in others)
    timers = {slow.stage: slow.timer_s / 60.0 for slow in base.slows}
    for key, minutes in timers.items():
        slow = base.plan.stages[places[key]] if key in places else None
        if isinstance(slow, Heat) and slow.until.by == "bite":
            for times in LONGER:
                until = replace(slow.until, minutes=float(round(minutes * times)))
                yield places[key], replace(slow, until=until)


def turned(heat: Heat, base: PlanForecast) -> Iterator[Heat]:
    """The same fire gentler and fiercer."""
    own = heat_row(heat.heat)
    dial = dial_of(heat, base)
    for turn in TURNED.get(own.dial_unit, ()):
        yield replace(heat, dial=round(min(own.dial_high, max(own.dial_low, dial + turn)), 3))


def other_heats(heat: Heat) -> Iterator[Heat]:
    """The same in every other appliance that is looked into."""
    for key in heat_keys():
        row = heat_row(key)
        away = table_row("bodies", row.body)["by_itself"] == "no"
        if key != heat.heat and row.fierce is not None and not away:
            until = Until("colour", want=heat.until.want)
            yield replace(heat, heat=key, dial=None, until=until)


def dial_of(heat: Heat, base: PlanForecast) -> float:
    """The dial of a fire [unit of its row]: its own, or the kitchen's."""
    fierce = heat_row(heat.heat).fierce
    assert fierce is not None  # asked only of what has a fierce model
    kitchen = base.plan.kitchen
    return heat.dial if heat.dial is not None else float(kitchen.or_typical(fierce.dial))


def tried(
    plan: Plan, place: int, heat: Heat, draws: Draws, memory: Memory[Known]
) -> PlanForecast | None:
    """The plan with one heat changed; None where it cannot be cooked so."""
    stages = tuple(heat if i == place else stage for i, stage in enumerate(plan.stages))
    try:
        return forecast_plan(replace(plan, stages=stages), None, draws, memory)
    except CoreError:
        return None
