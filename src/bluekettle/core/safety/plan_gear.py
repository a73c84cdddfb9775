"""Rules of what small gear there is, of what its label says, and of food that waits."""

from __future__ import annotations

import re

from bluekettle.core.chain import Fire, Heat, PlanForecast, heat_row, paths
from bluekettle.core.chain.slow import slow_dish
from bluekettle.core.glaze import draw_members
from bluekettle.core.safety.plan_base import HOLD_C, Found, PlanWatchOut, Rule, heats_of, put
from bluekettle.core.stages.tenderise import pleasant_hold_s
from bluekettle.core.units import amount

LIKELY = 0.9  # chance of the wanted colour from which edges need no foil (design)


def thermometer(f: PlanForecast) -> Found:
    """Nothing else shows that it is safe; nothing where nobody said what there is."""
    gear = f.plan.kitchen.gear
    if gear is None or not f.inside.gate:
        return
    if not gear & {"thermometer", "leave-in thermometer"}:
        yield PlanWatchOut(
            "no-thermometer",
            "careful",
            "",
            "No thermometer in your kitchen: nothing else shows that it is safe inside.",
            "The gate before the plate asks for a reading. Colour and clear juices are no proof.",
            "fsis-consumer",
        )
    own = "second pair of tongs" in gear
    yield PlanWatchOut(
        "tongs",
        "good to know" if own else "careful",
        "",
        "Second pair of tongs for the cooked food only."
        if own
        else "One pair of tongs: wash it hot once the raw food is in.",
        "What touched raw food brings it back to the cooked.",
        "fsis-consumer",
    )


def trivet(f: PlanForecast) -> Found:
    """What stands on the base of a pressure pot scorches."""
    gear = f.plan.kitchen.gear
    pot = next((s for s in heats_of(f) if is_slow(s, "pressure")), None)
    if gear is None or pot is None or "trivet" in gear:
        return
    if any(layer.sauce is not None for layer in f.plan.layers):
        yield PlanWatchOut(
            "no-trivet",
            "good to know",
            pot.id,
            "No trivet: lay halved onions under the food.",
            "Food on the hot base scorches, and then the pot may never come to pressure.",
            "estimated",
        )


def is_slow(stage: Heat, key: str) -> bool:
    """Whether a heat's slow model is this one."""
    row = heat_row(stage.heat).slow
    return row is not None and row.key == key


def racks(f: PlanForecast) -> Found:
    """What lies under food in a fierce oven, and what shields its edges."""
    gear = f.plan.kitchen.gear
    if gear is None:
        return
    for fire in f.fires:
        if fire.under.dish.kind.tray:
            if f.cut.gate and not gear & {"wire rack", "lined tray"}:
                yield no_rack(fire)
            elif "wire rack" in gear:
                yield rack(fire)
            break  # once for all of them
    for fire in f.fires:
        seldom = fire.milestones.possible < LIKELY
        hangs = fire.under.dish.kind.dial == "rack_m"  # the element is over it
        if hangs and seldom and "heavy foil" in gear:
            yield PlanWatchOut(
                "foil-edges",
                "good to know",
                fire.stage,
                "Have strips of heavy foil ready for the edges.",
                "Edges burn first here; under foil they take about a quarter of the heat.",
                "estimated",
            )


def no_rack(fire: Fire) -> PlanWatchOut:
    """Nothing that keeps food out of its fat."""
    return PlanWatchOut(
        "no-rack",
        "careful",
        fire.stage,
        "No rack and no lined tray: turn the edges of a doubled sheet of foil up all round.",
        "Fat that pools under fierce heat smokes and can flare.",
        "estimated",
    )


def rack(fire: Fire) -> PlanWatchOut:
    """A rack that is there is used."""
    return PlanWatchOut(
        "rack",
        "good to know",
        fire.stage,
        "On the wire rack over the tray, so that fat drips away.",
        "Standing in its own juice the underside turns soft.",
        "estimated",
    )


def held_for(f: PlanForecast) -> Found:
    """A temperature that holds only for food as it was packed."""
    if f.inside.gate and f.cut.safe_if:
        told = re.sub(r"\{(\d+)\}", lambda m: amount(float(m[1]), "°C"), f.cut.safe_if)
        why = "Its label says which it is."
        yield PlanWatchOut("safe-if", "careful", "", f"{told}.", why, "fsis-consumer")


def pleasanter(f: PlanForecast) -> Found:
    """Dark poultry is safe before it is good: a little longer loosens the joint."""
    pleasant = f.cut.pleasant_c
    if not f.inside.gate or pleasant is None or f.inside.core_likely_c >= pleasant:
        return
    dry = [
        one
        for one in f.walk.passed
        if isinstance(one.stage, Heat) and is_dry(one.stage) and one.stage.until.by != "colour"
    ]
    if not dry:
        return
    stage = dry[-1].stage
    assert isinstance(stage, Heat)
    dish = slow_dish(stage, dry[-1].passage.food, f.plan)
    hold_s = pleasant_hold_s(dish, f.cut, draw_members(f.plan.seed))
    at = paths(f.plan.stages).get(stage.id, "")
    yield PlanWatchOut(
        "pleasanter",
        "good to know",
        stage.id,
        f"Safe at {amount(f.inside.wanted_c, '°C')}, pleasanter at {amount(pleasant, '°C')}.",
        "Joint and skin give only there; lean breast would be dry by then, this is not.",
        "fsis-consumer",
        (put(f"{at}/until/minutes", hold_s / 60.0),) if hold_s else (),
        f"Give it {hold_s / 60.0:.0f} min" if hold_s else "",
    )


def is_dry(stage: Heat) -> bool:
    """Whether a heat's slow model is one of hot air."""
    row = heat_row(stage.heat).slow
    return row is not None and row.dry


def waiting(f: PlanForecast) -> Found:
    """Food that waits stays hot, or does not wait long."""
    if f.slack_s <= 0.0 or not f.inside.gate:
        return
    why = "How long it stays warm enough by itself is not known."
    if f.warm_s is not None:
        why = f"Uncovered it stays warm enough for about {f.warm_s / 60:.0f} minutes."
    yield PlanWatchOut(
        "hold-warm",
        "careful",
        "",
        f"While it waits, keep it above {amount(HOLD_C, '°C')}: covered, in its hot pot.",
        why,
        "fsis-consumer",
    )


GEAR_RULES: tuple[Rule, ...] = (
    thermometer,
    trivet,
    racks,
    held_for,
    pleasanter,
    waiting,
)
