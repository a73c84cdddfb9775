"""Rules of the heats of a plan: room, load, dial, what dry heat does to the outside, and sugar."""

from __future__ import annotations

import math

import numpy as np

from bluekettle.core.chain import Fire, Heat, PlanForecast, SlowHeat, heat_row, paths
from bluekettle.core.chain.food import raw_food
from bluekettle.core.chain.slow import slow_dish
from bluekettle.core.chain.walk import Passed
from bluekettle.core.glaze import draw_members
from bluekettle.core.safety.plan_base import Found, Patch, PlanWatchOut, Rule, put, slow_heats_of
from bluekettle.core.stages import LIMITS
from bluekettle.core.stages.finishing import heat_of
from bluekettle.core.stages.tenderise import first_air_c
from bluekettle.core.stages.vessel import MAX_COME_UP_S
from bluekettle.core.tables import value
from bluekettle.core.units import amount, percent

FOIL, FRIES = "foil", "fry_c"  # the heat of a repair, and the dial of what blows hot air
DRIES_FROM = 0.12  # of its weight (design)
SAGS_K = 8.0  # under its dial, from which it is worth telling (typical, estimated)
BATH_VEGETABLE_C = 80.0  # below it pectin does not soften (compiled, docs/model.md)
FLARES_FROM = 0.03  # of alcohol in a sauce, from which it may catch (typical, estimated)
ICE_C = -1.0  # under which the middle is frozen


def dial_of(stage: Heat, f: PlanForecast, figure: str) -> float:
    """What a heat is set to [unit of the figure]: its own dial, or the kitchen's."""
    return stage.dial if stage.dial is not None else float(f.plan.kitchen.or_typical(figure))


def passed_heats(f: PlanForecast) -> list[tuple[Heat, Passed]]:
    """Every heat as it was run."""
    return [(one.stage, one) for one in f.walk.passed if isinstance(one.stage, Heat)]


def in_a_block(f: PlanForecast) -> Found:
    """Pieces that are frozen together heat like one thick piece."""
    for stage in slow_heats_of(f):
        if stage.lies == "block":
            yield PlanWatchOut(
                "block",
                "careful",
                stage.id,
                "Frozen together: part the pieces as soon as they give.",
                "Until then the heat has to go through all of them at once; the timer counts on"
                " that. Where you cannot reach in, thaw them first.",
                "estimated",
            )


def baths(f: PlanForecast) -> Found:
    """A bath has room for its water, softens a vegetable, and leaves nothing half done."""
    where = paths(f.plan.stages)
    for stage, one in passed_heats(f):
        if not heat_row(stage.heat).proves:
            continue
        at, bath_c = where.get(stage.id, ""), dial_of(stage, f, "bath_c")
        volume = f.plan.kitchen.or_typical("bath_volume_l")
        food_l = 1e3 * one.passage.food.mass_kg / f.cut.food.density_kg_m3
        if value("bath_fill") * volume + food_l > volume:
            room_kg = (1.0 - value("bath_fill")) * volume * f.cut.food.density_kg_m3 / 1e3
            fits = max(0.1, math.floor(10.0 * room_kg) / 10.0)
            yield PlanWatchOut(
                "bath-full",
                "stop",
                stage.id,
                f"{amount(one.passage.food.mass_kg, 'kg')} is too much for a bath of"
                f" {amount(volume, 'L')}.",
                "Water has to move round every bag, and it would run over.",
                "estimated",
                (put("/food/mass_kg", fits),),
                f"Cook {amount(fits, 'kg')}, the rest in a second batch",
            )
        cold = float(np.quantile(one.passage.food.peak_c, 0.05)) < f.cut.safe_c
        proven = any(gate.after == stage.id and gate.by_time for gate in f.gates)
        if f.cut.gate and cold and not proven:
            yield PlanWatchOut(
                "par-cooked",
                "careful",
                stage.id,
                "Only par-cooked when that timer ends: never hold or chill it like that.",
                f"Neither {amount(f.cut.safe_c, '°C')} nor a time that stands for it: it goes on"
                " into its next heat at once, and the check comes after that.",
                "fsis-consumer",
            )
        if f.cut.species == "vegetable" and bath_c < BATH_VEGETABLE_C:
            soft = 85.0  # vegetables soften from here in an hour or two (compiled)
            yield PlanWatchOut(
                "bath-vegetable",
                "careful",
                stage.id,
                f"Vegetables stay firm for hours at {amount(bath_c, '°C')}, whatever the timer"
                " says.",
                f"What holds their cells together loosens from about"
                f" {amount(BATH_VEGETABLE_C, '°C')} on; the cook value does not know that.",
                "estimated",
                (put(f"{at}/dial", soft),),
                f"Set the bath to {amount(soft, '°C')}",
            )


def frozen_fry(f: PlanForecast) -> Found:
    """Frozen food does not start in a cool fryer."""
    cool_c = value("frozen_fry_least_c")
    before = raw_food(f.plan, draw_members(f.plan.seed))
    for stage, one in passed_heats(f):
        ice = float(np.quantile(before.brought.profile_c[:, 0], 0.05)) < ICE_C
        row = heat_row(stage.heat)
        fries = row.slow is not None and row.slow.dial == FRIES
        if f.cut.gate and ice and fries and dial_of(stage, f, FRIES) < cool_c:
            yield PlanWatchOut(
                "frozen-fry",
                "careful",
                stage.id,
                f"Frozen food wants a fryer of {amount(cool_c, '°C')} or more.",
                "In a cooler one the outside dries for long before the middle has thawed.",
                "estimated",
                (put(f"{paths(f.plan.stages).get(stage.id, '')}/dial", cool_c),),
                f"Set it to {amount(cool_c, '°C')}",
            )
        before = one.passage.food


def slow_cookers(f: PlanForecast) -> Found:
    """A cooker too weak for its own losses; and what a look costs."""
    rows = {stage.id: stage for stage in slow_heats_of(f)}
    for slow in f.slows:
        row = heat_row(slow.heat).slow
        if row is None or row.key != "slow" or slow.stage not in rows:
            continue
        yield PlanWatchOut(
            "lid-on",
            "good to know",
            slow.stage,
            "Leave the lid on: each look costs a slow cooker about twenty minutes.",
            "Its heater has little to spare.",
            "estimated",
        )
        if float(np.median(slow.run.come_up_s)) >= MAX_COME_UP_S:
            yield never_simmers(f, slow, rows[slow.stage])


def never_simmers(f: PlanForecast, slow: SlowHeat, stage: Heat) -> PlanWatchOut:
    """Where losses and power balance, it settles."""
    row = heat_row(slow.heat).slow
    assert row is not None  # only of a slow cooker
    power = dial_of(stage, f, "slow_power_w")
    settles = value("kitchen_c") + power / value("slow_loss_w_k")
    high = row.settings[-1]
    return PlanWatchOut(
        "never-simmers",
        "careful",
        slow.stage,
        f"This cooker settles near {amount(settles, '°C')} and never comes to a simmer.",
        f"At {power:.0f} W it loses as much as it heats. What is told is counted at that.",
        "estimated",
        (put(f"{paths(f.plan.stages).get(slow.stage, '')}/dial", high.value),),
        f"Set it to {high.name}",
    )


def load_cools(f: PlanForecast) -> Found:
    """So much food that an appliance cannot hold its dial."""
    fires = {fire.stage: fire for fire in f.fires}
    for stage, one in passed_heats(f):
        row = heat_row(stage.heat)
        fire = fires.get(stage.id)
        if fire is not None and row.fierce is not None and row.fierce.dial.endswith("_c"):
            dial, held = dial_of(stage, f, row.fierce.dial), heat_of(fire.under.dish).air_c
        elif fire is None and row.slow is not None and row.slow.dry:
            dish = slow_dish(stage, one.passage.food, f.plan)
            dial, held = dial_of(stage, f, row.slow.dial), first_air_c(dish)
        else:
            continue
        if held < dial - SAGS_K:
            yield PlanWatchOut(
                "load-cools",
                "careful",
                stage.id,
                f"With so much food your {row.name} holds about {amount(held, '°C')}, not"
                f" {amount(dial, '°C')}.",
                "Its heater cannot keep up with what boils off; the times are counted at that."
                " Two batches brown better.",
                "estimated",
            )


def over_top(f: PlanForecast) -> Found:
    """A dial cannot be set past its end."""
    for stage, _ in passed_heats(f):
        row = heat_row(stage.heat)
        fierce = any(fire.stage == stage.id for fire in f.fires)
        part = row.fierce if fierce else row.slow
        top = f.plan.kitchen.tops_c.get(row.body)
        if part is None or top is None or not part.dial.endswith("_c"):
            continue
        dial = dial_of(stage, f, part.dial)
        if dial <= top:
            continue
        reached = max(LIMITS[part.dial][0], top)
        yield PlanWatchOut(
            "over-top",
            "careful",
            stage.id,
            f"Your {row.name} goes up to {amount(top, '°C')}; this plan counts on"
            f" {amount(dial, '°C')}.",
            "At its own highest heat it takes longer than planned.",
            "estimated",
            (put(f"{paths(f.plan.stages).get(stage.id, '')}/dial", reached),),
            f"Plan with {amount(reached, '°C')}",
        )


def outside(f: PlanForecast) -> Found:
    """What long dry heat does to the outside: weight leaves as steam, and bare skin darkens."""
    where = paths(f.plan.stages)
    for slow in f.slows:
        at = where.get(slow.stage, "")
        in_foil: Patch = (put(f"{at}/heat", FOIL), put(f"{at}/dial", None), put(f"{at}/acts", []))
        whole = f.cut.food.density_kg_m3 * slow.run.half_m / (slow.run.power + 1.0)
        lost = float(np.mean(slow.run.lost_kg_m2 / whole))
        if lost > DRIES_FROM:
            oven = heat_row(slow.heat).body == heat_row(FOIL).body
            yield PlanWatchOut(
                "dries",
                "good to know",
                slow.stage,
                f"About {percent(lost)} of its weight leaves as steam.",
                "Open heat dries while it makes tender; foil or a lid keeps that in.",
                "estimated",
                in_foil if oven else (),
                "Close it in foil" if oven else "",
            )
        index = float(np.median(slow.run.browned + slow.run.charred))
        if index >= value("bitter_index"):
            burnt = index >= value("burnt_index")
            yield PlanWatchOut(
                "skin-dark",
                "stop" if burnt else "careful",
                slow.stage,
                f"The outside is {'burnt' if burnt else 'bitter'} before the inside is as tender as"
                " you want.",
                "Turn it down, lay foil over it from the middle on, or make it tender in closed"
                " heat first.",
                "estimated",
                in_foil,
                "Make it tender in foil first",
            )


def coals(f: PlanForecast) -> Found:
    """Glowing coals."""
    first = next((s for s, _ in passed_heats(f) if heat_row(s.heat).coals), None)
    if first is not None:
        yield PlanWatchOut(
            "coals",
            "careful",
            first.id,
            "No lighter fluid on glowing coals; ash stays hot for a day.",
            "Vapour flashes back along the stream. Close the vents, and leave the ash outdoors in"
            " metal.",
            "estimated",
        )


def spirits(f: PlanForecast) -> Found:
    """Spirits on food catch fire over a flame."""
    for fire in f.fires:
        sauce = fire.under.dish.sauce
        flame = heat_row(fire.heat).flame
        if sauce is None or not flame or sauce.alcohol <= FLARES_FROM:
            continue
        yield PlanWatchOut(
            "spirits",
            "careful",
            fire.stage,
            "The sauce holds spirits: simmer them off before it comes near the fire.",
            f"About {percent(sauce.alcohol)} of it is alcohol, which burns as it drips. Never pour"
            " it on over a flame.",
            "estimated",
        )


def sugar(f: PlanForecast) -> Found:
    """Hot glaze burns skin; and what holds no sugar makes no caramel. Said once each."""
    told: set[str] = set()
    for fire in f.fires:
        if fire.under.dish.sauce is None:
            continue
        found = caramel(fire) if fire.coating.caramelises else no_caramel(fire)
        if found.id not in told:
            told.add(found.id)
            yield found


def caramel(fire: Fire) -> PlanWatchOut:
    """A glaze of sugar."""
    return PlanWatchOut(
        "sugar",
        "careful",
        fire.stage,
        "Hot glaze sticks and burns skin.",
        "It is hotter than boiling water.",
        "estimated",
    )


def no_caramel(fire: Fire) -> PlanWatchOut:
    """A sauce without sugar."""
    return PlanWatchOut(
        "sugar-free",
        "good to know",
        fire.stage,
        "This sauce holds too little sugar to caramelise.",
        "Go by crispness and plain browning; it can still scorch.",
        "estimated",
    )


HEAT_RULES: tuple[Rule, ...] = (
    baths,
    in_a_block,
    frozen_fry,
    slow_cookers,
    load_cools,
    over_top,
    outside,
    coals,
    spirits,
    sugar,
)
