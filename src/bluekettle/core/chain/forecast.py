"""The forecast of a plan: every link with its band, every fire read, and what the food comes to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.course import Moment, course_of
from bluekettle.core.chain.food import Food
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.memory import Memory
from bluekettle.core.chain.passage import Fire, SlowHeat, Warmed
from bluekettle.core.chain.plan import Beside, Heat, Layer, Plan, TakeApart
from bluekettle.core.chain.right import Right, right_of
from bluekettle.core.chain.walk import Gate, Known, Passed, Walk, walk
from bluekettle.core.errors import within
from bluekettle.core.glaze import Draws, draw_members
from bluekettle.core.lethality import kill_for
from bluekettle.core.stages import Band, Cut, cut
from bluekettle.core.stages.bite import Tenderness, judge_tenderness
from bluekettle.core.stages.figures import figures
from bluekettle.core.stages.handwork import hands_s
from bluekettle.core.stages.links import (
    PREHEAT_NOTE,
    Link,
    Stage,
    chain_band,
    least_sure,
    slack_before_finish,
    stage_of,
)
from bluekettle.core.stages.tally import DANGER, LATE
from bluekettle.core.stages.waiting import warm_for_s

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Inside:
    """Safety of the food: what its middle reaches on the unfavourable side (P5) and in the likely
    case [°C], its log reduction there, and minutes between 5 and 54.4 °C on the slow side.
    """

    core_low_c: float
    core_likely_c: float
    wanted_c: float
    log_low: float
    wanted_log: float
    danger_min: float
    late_s: float
    gate: bool


@dataclass(frozen=True)
class PlanForecast:
    """Everything the model says of a plan. Times [s]. links : in order, those beside the chain
    where they begin. tails : keys of the links of each share of a split. sauce_kg : by layer.
    notes : by stage, what a rule has to be told. course : how warm the food is along the way.
    right : how often it comes out right. warm_s : how long the food may stand in the room, covered,
    after its last slow heat; None where it has none.
    """

    plan: Plan
    cut: Cut
    walk: Walk
    links: tuple[Stage, ...]
    tails: tuple[tuple[str, ...], ...]
    total: Band
    hands: Band
    headline_s: float
    least_sure: str
    slows: tuple[SlowHeat, ...]
    fires: tuple[Fire, ...]
    gates: tuple[Gate, ...]
    tenderness: Tenderness | None
    inside: Inside
    sauce_kg: dict[str, float]
    assumed: tuple[str, ...]
    notes: tuple[tuple[str, str], ...]
    slack_s: float
    weights: Array
    course: tuple[Moment, ...]
    right: Right
    warm_s: float | None


def forecast_plan(
    plan: Plan,
    available_s: float | None = None,
    draws: Draws | None = None,
    memory: Memory[Known] | None = None,
) -> PlanForecast:
    """Forecast a plan from the first act to the plate.

    Parameters
    ----------
    plan : Plan
    available_s : float, optional
        Seconds until it is to be served: spare time becomes a covered wait before the last fire.
    draws : Draws, optional
        The ensemble; drawn from the plan's seed when absent.
    memory : Memory, optional
        Stages that were run before: after an edit only those from the first change on are run.

    Raises
    ------
    OutOfRange
        Every fault of the plan at once.
    NotConverged
        A heat that never does what it is asked for; tells how far it gets.
    """
    if available_s is not None:
        within("available_s", available_s, 0.0, 31 * 86_400.0, "s")
    found = plan.check()
    draws = draws or draw_members(plan.seed)
    way = walk(plan, draws, memory)
    passed = way.passed
    fires = tuple(one.passage.fire for one in passed if one.passage.fire is not None)
    slows = tuple(one.passage.slow for one in passed if one.passage.slow is not None)
    weights = together(fires, draws.members)
    ends = [tail.food for tail in way.tails] or [way.food]
    bite = tenderness_of(plan, found, passed, ends[0])
    warm_s = warm_of(plan, way)
    spare = Spare(available_s, warm_s)
    links, tails, slack_s = timeline(plan, way, draws, weights, spare)
    return PlanForecast(
        plan=plan,
        cut=found,
        walk=way,
        links=links,
        tails=tails,
        total=chain_band(links, weights),
        hands=chain_band(tuple(s for s in links if s.who in ("hands", "gate")), weights),
        headline_s=sum(s.timer_s for s in slows) + sum(f.timer_s for f in fires),
        least_sure=least_sure(links),
        slows=slows,
        fires=fires,
        gates=tuple(one.gate for one in passed if one.gate is not None),
        tenderness=bite,
        inside=inside_of(found, ends),
        sauce_kg=sauce_of(passed),
        assumed=assumed_of(plan, passed),
        notes=tuple((one.stage.id, note) for one in passed for note in one.passage.notes),
        slack_s=slack_s,
        weights=weights,
        course=course_of(plan, way, draws),
        right=right_of(fires, bite, weights),
        warm_s=warm_s,
    )


@dataclass(frozen=True)
class Spare:
    """Time that a plan may have in hand: seconds until it is to be served, None where nobody said,
    and how long the food stays warm enough, None where nobody knows.
    """

    available_s: float | None
    warm_s: float | None


def warm_of(plan: Plan, way: Walk) -> float | None:
    """How long the food stays warm enough, covered in the room, after the last slow heat that all
    of it goes through [s]; None where it has none.
    """
    slow = next((one for one in reversed(way.line) if one.passage.slow is not None), None)
    if slow is None or slow.passage.slow is None or not isinstance(slow.stage, Heat):
        return None
    return warm_for_s(cut(plan.cut), slow.passage.slow.run)


def together(fires: tuple[Fire, ...], members: int) -> Array:
    """Weights of the members [-] after what was seen under any fire."""
    product = np.ones(members)
    for fire in fires:
        product *= members * fire.weights
    return np.asarray(product / product.sum())


def inside_of(found: Cut, ends: list[Food]) -> Inside:
    """Safety of the least favourable share: of the coldest, and of that which stands longest."""
    cold = min(ends, key=lambda food: float(np.quantile(food.peak_c, 0.05)))
    return Inside(
        float(np.quantile(cold.peak_c, 0.05)),
        float(np.median(cold.peak_c)),
        found.safe_c,
        float(np.quantile(cold.log_reduction, 0.05)),
        kill_for(found.species).wanted_log,
        max(float(np.quantile(food.tally(DANGER), 0.95)) for food in ends),
        max(float(np.quantile(food.tally(LATE), 0.95)) for food in ends),
        found.gate,
    )


def tenderness_of(plan: Plan, found: Cut, passed: Sequence[Passed], end: Food) -> Tenderness | None:
    """How it will eat, by the bite that was wished or that its strands need; None where nobody
    wished for one.
    """
    wished = [s.stage.until.bite for s in passed if isinstance(s.stage, Heat)]
    bite = next((one for one in reversed(wished) if one), None)
    shreds = any(isinstance(s.stage, TakeApart) and s.stage.how == "shred" for s in passed)
    if shreds:
        bite = "shreds"
    if bite is None or bite not in found.targets:
        return None
    before = [s.passage.food for s in passed if not s.passage.food.strands]
    eaten = before[-1] if shreds and before else end
    return judge_tenderness(eaten.cooked(found), bite, found)


def sauce_of(passed: Sequence[Passed]) -> dict[str, float]:
    """What every layer brings onto the food [kg]."""
    found: dict[str, float] = {}
    for one in passed:
        for layer, mass in one.passage.sauce_kg.items():
            found[layer] = found.get(layer, 0.0) + mass
    return found


def assumed_of(plan: Plan, passed: Sequence[Passed]) -> tuple[str, ...]:
    """Figures of the kitchen that enter and that nobody stated."""
    names = {"altitude_m"}
    told: set[str] = set()
    for one in passed:
        if not isinstance(one.stage, Heat):
            continue
        row = heat_row(one.stage.heat)
        fierce = one.passage.fire is not None
        for part in (row.fierce if fierce else None, row.slow if not fierce else None):
            if part is not None:
                names |= set(part.figures)
                told |= {part.dial} if one.stage.dial is not None else set()
    unsaid = [name for name in figures() if plan.kitchen.stated(name) is None]
    return tuple(name for name in unsaid if name in names - told)


def timeline(
    plan: Plan, way: Walk, draws: Draws, weights: Array, spare: Spare
) -> tuple[tuple[Stage, ...], tuple[tuple[str, ...], ...], float]:
    """All links in order with their bands; the tails' keys; and the covered wait before the last
    fire [s].
    """
    line = [one for passed in way.line for one in passed.passage.links]
    tails = [[one for passed in tail.line for one in passed.passage.links] for tail in way.tails]
    serve = Link("serve", "serve", "To the table", "hands", serving(way, draws))
    main = [*line, *(one for tail in tails for one in tail), serve]
    slack = slack_before_finish(total_of(main, draws), spare.available_s, weights)
    if spare.warm_s is not None:
        slack = min(slack, spare.warm_s)
    place = place_of_slack([*line, *(tails[0] if tails else (serve,))])
    if slack > 0.0 and place is not None:
        note = "kept so that nine evenings in ten are on time"
        even = np.full(draws.members, slack)
        main.insert(place, Link("slack", "hold", "Covered, in hand", "machine", even, note=note))
    else:
        slack = 0.0
    before = np.cumsum([one.seconds for one in main][::-1], axis=0)[::-1]
    starts = {one.key: start for one, start in zip(main, before, strict=True)}
    # One second: what nobody would see is no link (design).
    found = [stage_of(one, starts[one.key], weights) for one in main if one.seconds.max() >= 1.0]
    passed = way.passed
    warm = [one.passage.warmed for one in passed]
    aside = [warming(one, starts, weights) for one in warm if one and one.before in starts]
    for stage in (*aside, *made_beside(plan, way, draws, main, starts, weights)):
        keys = [one.key for one in found]
        place = keys.index(stage.before) if stage.before in keys else len(found) - 1
        found.insert(place, stage)
    return tuple(found), tuple(tuple(one.key for one in links) for links in tails), slack


def place_of_slack(line: list[Link]) -> int | None:
    """Where a covered wait goes: before the food is made ready for its last fire, and never where
    it lies in a heat already; None where there is no such place. Of a split it is the first share
    that waits: what is done waits for the others and for nothing else.
    """
    for place in reversed(range(len(line))):
        one, before = line[place], line[place - 1] if place else None
        first = before is None or not before.approach
        if one.approach and not one.fire and first and not (before and before.fire):
            return place
    return None


def total_of(links: list[Link], draws: Draws) -> Array:
    """Seconds of some links in all, (members,)."""
    none = np.zeros(draws.members)
    return np.asarray(np.sum([one.seconds for one in links], axis=0) if links else none)


def serving(way: Walk, draws: Draws) -> Array:
    """Seconds to the table, (members,)."""
    return hands_s("serve", way.food.pieces, draws, way.food.mass_kg)


def warming(one: Warmed, starts: dict[str, Array], weights: Array) -> Stage:
    """An appliance that heats up beside the other work."""
    start = starts[one.before] + one.wait_s + one.ahead_s
    key = f"{one.before.rsplit('.', 1)[0]}.warm_up"
    made = Link(
        key, "preheat", one.label, "machine", one.preheat_s, note=PREHEAT_NOTE, before=one.before
    )
    return stage_of(made, start, weights, serial=False)


def made_beside(
    plan: Plan,
    way: Walk,
    draws: Draws,
    main: list[Link],
    starts: dict[str, Array],
    weights: Array,
) -> list[Stage]:
    """Layers that are mixed or boiled, and other work beside the food, ready before their use."""
    found: list[Stage] = []
    for layer in plan.layers:
        first = first_use(layer, way, main)
        seconds = making(layer, draws)
        if first is None or seconds is None:
            continue
        label = f"Mix the {layer.name}" if layer.lines else f"Boil the {layer.name}"
        if layer.lines and layer.boiled:
            label = f"Mix the {layer.name}, and boil it before it goes on again"
        start = starts[first] + seconds
        made = Link(f"{layer.id}.made", "sauce", label, "hands", seconds, before=first)
        found.append(stage_of(made, start, weights, serial=False))
    for one in way.beside:
        first = first_of(one, main)
        if first is None:
            continue
        seconds = np.full(draws.members, 60.0 * one.minutes)
        who = "hands" if one.hands else "machine"
        made = Link(f"{one.id}.beside", "beside", one.name, who, seconds, before=first)
        found.append(stage_of(made, starts[first] + seconds, weights, serial=False))
    return found


def making(layer: Layer, draws: Draws) -> Array | None:
    """Seconds of mixing and boiling a layer, (members,); None where there is nothing to do."""
    if not layer.lines and not layer.boiled:
        return None
    seconds = np.zeros(draws.members)
    if layer.lines:
        seconds = seconds + hands_s("sauce", layer.lines, draws)
    if layer.boiled:
        seconds = seconds + hands_s("boil", 1, draws)
    return seconds


def first_use(layer: Layer, way: Walk, main: list[Link]) -> str | None:
    """Key of the link at which a layer is first needed; None where it never is."""
    passed = way.passed
    users = {
        one.stage.id
        for one in passed
        if getattr(one.stage, "layer", "") == layer.id
        or any(act.layer == layer.id for act in getattr(one.stage, "acts", ()))
    }
    inside = [one.key for one in main if one.key.rsplit(".", 1)[0] in users]
    coats = [key for key in inside if ".dress" in key or ".coat" in key]
    return next(iter(coats or inside), None)


def first_of(beside: Beside, main: list[Link]) -> str | None:
    """Key of the first link of the stage that something beside has to be ready for."""
    keys = [one.key for one in main if one.key.startswith(f"{beside.ready_for}.")]
    return keys[0] if keys else None
