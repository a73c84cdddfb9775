"""A heat that goes on for as long as it takes: in a vessel, a bath, foil or hot air."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.food import Food, heated, peak_from_now, piece_now
from bluekettle.core.chain.heats import HeatRow, heat_row
from bluekettle.core.chain.passage import Passage, SlowHeat, Step, Warmed, link
from bluekettle.core.chain.plan import Heat, HeatAct, Plan
from bluekettle.core.chain.waits import settled
from bluekettle.core.errors import MissingData, NotConverged, NotSafe, Ranges
from bluekettle.core.pressure import Fill, fill_of
from bluekettle.core.stages import Cut, FirstHeat, Tendering, cut
from bluekettle.core.stages.links import LEAST_WAIT_S, PREHEAT_NOTE, Link
from bluekettle.core.stages.piece import check_kitchen
from bluekettle.core.stages.tendering import come_up_note, preheat_first_s
from bluekettle.core.stages.tenderise import (
    Tenderised,
    cook_of,
    run_tenderise,
    safe_by,
    shortest_hold_s,
)
from bluekettle.core.tables import row as table_row
from bluekettle.core.tables import value
from bluekettle.core.thermo import boiling_point_c
from bluekettle.core.units import amount

Array = NDArray[np.float64]

BROILER_SHARE = 0.7  # the element has a warm oven to start from (estimated)
WARM_SHARE = 0.1  # of a preheat that a dial turned up a little still takes (typical, estimated)


def slow_dish(stage: Heat, food: Food, plan: Plan) -> Tendering:
    """The food and this heat, for the models of a slow heat."""
    row = heat_row(stage.heat)
    assert row.slow is not None  # asked only of what has a slow model
    kitchen = plan.kitchen
    if stage.dial is not None:
        kitchen = kitchen.having(row.slow.dial, stage.dial)
    return replace(piece_now(plan, food), kitchen=kitchen).under(
        Tendering,
        heat=row.slow.key,
        release=stage.release,
        liquid_l=stage.liquid_l,
        lies=stage.lies,
        browns=food.browns,
    )


def known_dial(dish: Tendering) -> None:
    """OutOfRange for a dial beyond what the model of long heats knows."""
    ranges = Ranges()
    check_kitchen(dish.kitchen, ranges)
    ranges.close()


def run_slow(stage: Heat, food: Food, step: Step, hold_s: float) -> Tenderised:
    """This heat for so long [s]; a vessel that this food has just left is hot still."""
    dish = slow_dish(stage, food, step.plan)
    used = step.warm(heat_row(stage.heat).body)
    again = used is not None and used.heat == stage.heat and dish.first.takes_liquid
    hot_c = boiling_point_c(dish.kitchen.or_typical("altitude_m")) if again else None
    found = cut(step.plan.cut)
    return run_tenderise(
        dish, found, step.draws, hold_s, hot_c, brought=food.brought, outside=food.outside
    )


def found_minutes(stage: Heat, pair: Food, step: Step) -> float:
    """Shortest timer [min] that ends this heat as it is asked for. `pair` and the draws of `step`
    are the median member and an unfavourable one.

    Raises
    ------
    NotConverged
        The longest hold of this heat does not get there; it tells how far it got. NotSafe where it
        is tender by then, and an unfavourable piece still not safe inside.
    OutOfRange
        A dial beyond what the model of long heats knows.
    """
    pair = settled(step, pair)
    if stage.until.by == "core":
        pair = peak_from_now(pair)
    row = heat_row(stage.heat).slow
    if row is None:
        raise MissingData("slow heat", stage.heat, ())
    dish, found = slow_dish(stage, pair, step.plan), cut(step.plan.cut)
    known_dial(dish)

    def enough(minutes: int) -> bool:
        return done(stage, dish, found, run_slow(stage, pair, step, 60.0 * minutes))

    try:
        return shortest_hold_s(enough, row.longest_s, found.name) / 60.0
    except NotConverged:
        run = run_slow(stage, pair, step, row.longest_s)
        raise short_of(stage, found, run) from None


def done(stage: Heat, dish: Tendering, found: Cut, run: Tenderised) -> bool:
    """Whether this heat has done what it was asked for: a bite with a safe middle, or a core
    temperature on the unfavourable piece.
    """
    by = stage.until.by
    if by == "core":
        return bool(run.peak_c[1] >= (stage.until.core_c or 0.0))
    if by == "bite":
        safe = not found.gate or bool(safe_by(dish, found, run)[1])
        return safe and float(cook_of(run, found)[0]) >= target_of(stage, found)
    raise MissingData("end of a heat", by, ("core", "bite"))


def target_of(stage: Heat, found: Cut) -> float:
    """Cook value [min] of the bite that ends this heat; KeyError where it is not one of the cut's
    (the plan is checked).
    """
    return found.targets[stage.until.bite or ""]


def short_of(stage: Heat, found: Cut, run: Tenderised) -> NotConverged:
    """What was wanted and how far it got: core temperatures [°C], or cook values [min]."""
    inside_c = float(run.peak_c[1])
    if stage.until.by == "core":
        what = f"{stage.id}: temperature inside"
        return NotConverged(what, stage.until.core_c or 0.0, inside_c)
    target, cook = target_of(stage, found), float(cook_of(run, found)[0])
    if cook < target:
        return NotConverged(f"{stage.id}: cook value", target, cook)
    return NotSafe(f"{stage.id}: temperature inside", found.safe_c, inside_c)


def slow(stage: Heat, food: Food, step: Step) -> Passage:
    """A slow heat: into it, its waits, its time with what is done in it, and out."""
    row = heat_row(stage.heat)
    assert row.slow is not None
    assert stage.until.minutes is not None
    food = settled(step, food)
    dish = slow_dish(stage, food, step.plan)
    known_dial(dish)
    hold_s = 60.0 * stage.until.minutes
    run = run_slow(stage, food, step, hold_s)
    direct = step.stays_from(stage)
    loading = step.hands("dial" if direct else row.slow.load, food)
    says = f"Turn the {row.slow.name} to its next setting" if direct else row.slow.load_says
    links = [link(stage, "dial" if direct else "load", "preheat", says, "hands", loading)]
    warmed = None
    if row.slow.preheat and not direct:
        wait, warmed = waited_for(stage, dish, row, step, loading)
        says, note = row.slow.wait_says, PREHEAT_NOTE
        links.append(link(stage, "oven_up", "preheat", says, "machine", wait, note=note))
    if row.slow.up_says:
        note = come_up_note(dish) if row.slow.takes_liquid else ""
        up = run.come_up_s
        links.append(
            link(stage, "come_up", row.slow.key, row.slow.up_says, "machine", up, note=note)
        )
    links += holding(stage, row.slow, run, food, step)
    if run.natural_s.max() > 0:
        falls = "Pressure falls by itself"
        links.append(link(stage, "natural", "release", falls, "machine", run.natural_s))
    if run.quick_s.max() > 0:
        links.append(link(stage, "quick", "release", "Open the valve", "hands", run.quick_s))
    opening = step.zero()
    if not step.stays_for(stage):
        opening = step.hands(row.slow.open, food)
        links.append(link(stage, "open", "release", row.slow.open_says, "hands", opening))
    after = heated(food, run, wet=row.slow.wets).waits(opening)
    return Passage(
        after,
        tuple(links),
        slow=SlowHeat(stage.id, stage.heat, hold_s, run, dish.liquid, filling(dish, food)),
        warmed=warmed,
        body=row.body,
        dial=dish.kitchen.or_typical(row.slow.dial),
    )


def filling(dish: Tendering, food: Food) -> Fill | None:
    """How full the vessel is before and after; None where nothing is measured into it."""
    if not dish.first.takes_liquid:
        return None
    found = cut(dish.cut)
    litres = food.mass_kg / found.food.density_kg_m3 * 1e3
    return fill_of(dish.vessel_l, dish.liquid, litres, food.mass_kg * found.juice_fraction)


def holding(stage: Heat, heat: FirstHeat, run: Tenderised, food: Food, step: Step) -> list[Link]:
    """The time of the heat, with the turns in it; in a basket it is turned halfway."""
    acts = stage.acts
    if not acts and heat.turns:
        acts = (HeatAct("turn", 0.5 * float(run.hold_s[0]) / 60.0),)
    links: list[Link] = []
    since = np.zeros(food.members)
    seconds = step.hands("turn", food)
    for number, act in enumerate(acts, 1):
        assert act.at_min is not None  # the plan is checked
        until = np.minimum(60.0 * act.at_min, run.hold_s)
        says = heat.hold_says if number == 1 else f"{heat.hold_says}, other side"
        key = "hold" if number == 1 else f"hold-{number}"
        links.append(link(stage, key, heat.key, says, "machine", until - since, hidden=False))
        label = "Turn it" if act.do == "turn" else "Stir it"
        links.append(link(stage, act_key(number), heat.key, label, "hands", seconds, act="turn"))
        since = until
    says = f"{heat.hold_says}, other side" if acts else heat.hold_says
    key = f"hold-{len(acts) + 1}" if acts else "hold"
    links.append(link(stage, key, heat.key, says, "machine", run.hold_s - since, hidden=False))
    return links


def act_key(number: int) -> str:
    """ "turn", "turn-2"."""
    return "turn" if number == 1 else f"turn-{number}"


def worth_waiting(wait_s: Array) -> Array:
    """A wait [s], (members,); none where nine times in ten nobody would notice it."""
    return np.zeros(wait_s.size) if np.quantile(wait_s, 0.9) < LEAST_WAIT_S else wait_s


@dataclass(frozen=True)
class Found:
    """How a body is found: the share of its whole preheat that is left [-], and since when it is
    free [s], (members,)."""

    share: float
    free_s: Array
    shared: bool


def found_body(body: str, dial: float, row: HeatRow, step: Step) -> Found:
    """What is left of a preheat where a stage before has warmed the same body."""
    used = step.warm(body)
    if used is None:
        return Found(1.0, step.zero(), False)
    if used.heat == row.key and row.dial_unit != "°C":
        return Found(0.0, used.free_s, True)  # it was left on
    if table_row("bodies", body)["keeps_warm"] == "yes":
        if row.dial_unit != "°C":
            return Found(BROILER_SHARE, used.free_s, True)
        room = value("kitchen_c")
        share = max(WARM_SHARE, min(1.0, (dial - used.dial) / (dial - room)))
        return Found(share, used.free_s, True)
    return Found(1.0, used.free_s, True)


def waited_for(
    stage: Heat, dish: Tendering, row: HeatRow, step: Step, loading: Array
) -> tuple[Array, Warmed | None]:
    """Wait for the appliance of a slow heat [s], (members,): begun with the first act, or as soon
    as the body is free; and its heating up beside the other work, where there was any before.
    """
    assert row.slow is not None
    doubt = step.draws.factor("preheat", value("spread_preheat"))
    found = found_body(row.body, dish.kitchen.or_typical(row.slow.dial), row, step)
    preheat = preheat_first_s(dish, step.draws) * found.share * doubt
    free = step.zero() if stage.unforeseen else step.kitchen.elapsed_s - found.free_s
    could = free + loading
    careful = np.quantile(preheat, 0.9)
    if not step.kitchen.last_heat and np.median(could) < careful:
        # Switched on with the first act of all.
        return worth_waiting(np.maximum(0.0, preheat - could)), None
    ahead = np.minimum(could, careful)
    wait = worth_waiting(np.maximum(0.0, preheat - ahead))
    label = heating_label(row.warms, row, dish.kitchen.or_typical(row.slow.dial))
    return wait, Warmed(label, f"{stage.id}.load", preheat, wait, ahead)


def heating_label(name: str, row: HeatRow, dial: float) -> str:
    """What is switched on, and what it is set to."""
    return f"Heat the {name}" + (f" to {amount(dial, '°C')}" if row.dial_unit == "°C" else "")
