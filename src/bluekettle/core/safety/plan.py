"""Rules that a plan's forecast can break."""

from __future__ import annotations

import numpy as np

from bluekettle.core.chain import (
    Fire,
    Heat,
    Marinate,
    PlanForecast,
    SlowHeat,
    heat_row,
    paths,
)
from bluekettle.core.chain.food import Food, raw_food
from bluekettle.core.chain.slow import slow_dish
from bluekettle.core.glaze import draw_members
from bluekettle.core.lethality import NO_CREDIT_BELOW_C
from bluekettle.core.safety.plan_base import (
    LEVELS,
    Found,
    Patch,
    PlanWatchOut,
    Rule,
    apart_of,
    heats_of,
    put,
    slow_heats_of,
)
from bluekettle.core.safety.plan_fit import FIT_RULES
from bluekettle.core.safety.plan_gear import GEAR_RULES
from bluekettle.core.safety.plan_heats import HEAT_RULES
from bluekettle.core.tables import row, value
from bluekettle.core.units import amount, percent

ACID_MARINADE = 0.005  # mass fraction of acid from which a marinade turns meat mealy (estimated)
ACID_MOST_H = 12.0  # and after so long (typical, estimated)
FRESH_MOST_H = 48.0  # in the fridge, raw: the usual guidance for cuts is three to five days at most
TOUGH = 0.5  # chance of the bite under which it is told (design)
HOPELESS = 0.2  # and under which pulling it apart is a stop (design)
SELDOM, OFTEN = 0.05, 0.8  # chances of the wanted colour (design)
OVERDONE_FROM = 0.2  # told from one evening in five on (design)
MOST_LOGS = 99.0  # as many as a person can read (design)
DANGER_MOST_MIN = 240.0  # the usual guidance: four hours
BATH_LATE_S = 6 * 3600.0  # until the middle has to be past the danger zone (the usual guidance)
WIDEST = "air_fryer"  # the heat that leaves most time between amber and burnt (estimated)
FROTHY = ("vegetable",)  # starch and fibre foam when the pressure falls fast
NEARLY_FULL = 0.9  # of the line, from which a fast release may spit (typical, estimated)
SMOKE_WHY = (
    "Indoors, or in a tent or garage, it fills the air with carbon monoxide, which has no smell."
)


def core_safe(f: PlanForecast) -> Found:
    """The thermometer is the rule; the forecast only says what it expects."""
    if not f.inside.gate:
        return
    caution = row("cautions", f.cut.species)
    usual = caution["text"].format(temp=amount(f.cut.safe_c, "°C"))
    proven = [gate for gate in f.gates if gate.by_time]
    for gate in proven:
        logs = min(f.inside.log_low, MOST_LOGS)
        yield PlanWatchOut(
            "proven-time",
            "careful",
            gate.after,
            f"Check with a thermometer: at least {amount(gate.safe_c or 0.0, '°C')} when the time"
            " is up, at the thickest place, not touching bone.",
            f"Long enough to be safe: {logs:.0f} log reductions of bacteria, where"
            f" {f.inside.wanted_log:g} are wanted. A shorter time, or a lower reading, wants the"
            f" usual {amount(f.inside.wanted_c, '°C')}.",
            "fsis-guideline",
        )
    if not proven and f.inside.core_low_c < f.inside.wanted_c:
        last = heats_of(f)[-1]
        yield PlanWatchOut(
            "core-cold",
            "stop",
            last.id,
            f"One piece in twenty may stay at {amount(f.inside.core_low_c, '°C')} inside.",
            f"Usual guidance: {usual}.",
            caution["source"],
            *longer(f, f.inside.wanted_c),
        )
    for gate in f.gates:
        if gate.safe_c is not None and not gate.by_time:
            yield PlanWatchOut(
                "thermometer",
                "careful",
                gate.after,
                f"Check with a thermometer: {usual}.",
                f"Expected in the middle: about {amount(f.inside.core_likely_c, '°C')}. An"
                " expectation is not a reading.",
                caution["source"],
            )


def longer(f: PlanForecast, core_c: float) -> tuple[Patch, str]:
    """The repair that lets the last slow heat run until the middle is hot enough; none where there
    is no such heat, or where it cannot get there.
    """
    slow = slow_heats_of(f)
    if not slow:
        return (), ""
    cool = slow[-1].dial is not None and slow[-1].dial <= core_c + 1.0
    if heat_row(slow[-1].heat).dial_unit == "°C" and cool:
        return (), ""
    path = paths(f.plan.stages).get(slow[-1].id, "")
    until = {"by": "core", "core_c": round(core_c + 1.0)}
    says = f"Heat it until {amount(core_c + 1.0, '°C')} inside"
    return (put(f"{path}/until", until),), says


def raw_contact(f: PlanForecast) -> Found:
    """A portion that touched raw food is boiled before it goes onto ready food."""
    layers = [layer.id for layer in f.plan.layers]
    for stage, note in f.notes:
        if not note.startswith("raw-late:"):
            continue
        layer = note.removeprefix("raw-late:")
        name = f.plan.layer(layer).name
        place = layers.index(layer)
        yield PlanWatchOut(
            "raw-contact",
            "stop",
            stage,
            f"The {name} touched raw food: boil it before it goes on here.",
            "Under a fire the film is hot for minutes only, and drips are not. A full rolling boil"
            " makes it safe; without it the food is checked once more.",
            "fsis-consumer",
            (put(f"/layers/{place}/boiled", True),),
            "Boil it first",
        )
    for own in f.plan.layers:
        if own.boiled:
            yield PlanWatchOut(
                "boil-first",
                "careful",
                "",
                f"Boil the {own.name} hard before it goes on again; a clean brush and bowl from"
                " then.",
                "It touched raw food on its way.",
                "fsis-consumer",
            )


def tender(f: PlanForecast) -> Found:
    """Strands want far more than tenderness; and a timer of the cook's own may miss the bite."""
    t = f.tenderness
    if t is None:
        return
    slow = slow_heats_of(f)
    path = paths(f.plan.stages)
    at = slow[-1].id if slow else ""
    shreds = any(one.how == "shred" for one in apart_of(f))
    wished = next((s.until.bite for s in reversed(slow) if s.until.bite), None)
    bite = "shreds" if shreds else wished
    patch: Patch = ()
    if slow and bite:
        patch = (put(f"{path.get(at, '')}/until", {"by": "bite", "bite": bite}),)
    says = "Let it run until it is that tender" if patch else ""
    why = f"Cook value {t.likely:.0f}, wanted about {t.target:.0f}."
    if shreds and t.enough < TOUGH:
        level = "stop" if t.enough < HOPELESS else "careful"
        often = f"in {10 * (1.0 - t.enough):.0f} evenings of 10"
        told = f"It will not pull into strands {often}."
        yield PlanWatchOut("no-strands", level, at, told, why, "design", patch, says)
    elif t.enough < TOUGH:
        told = f"As tender as you want only {10 * t.enough:.0f} times in 10."
        yield PlanWatchOut("tough", "careful", at, told, why, "design", patch, says)
    elif t.overdone > OVERDONE_FROM:
        told = f"Overdone {10 * t.overdone:.0f} times in 10."
        past = f"Cook value {t.likely:.0f}; past {f.cut.overdone:.0f} it turns stringy or mushy."
        yield PlanWatchOut("overdone", "careful", at, told, past, "design", patch, says)


def danger(f: PlanForecast) -> Found:
    """Hours between 5 and 54.4 °C, and a bath that is too slow."""
    if not f.inside.gate:
        return
    if f.inside.danger_min > DANGER_MOST_MIN:
        low, high = amount(5.0, "°C"), amount(NO_CREDIT_BELOW_C, "°C")  # the usual guidance
        yield PlanWatchOut(
            "danger-zone",
            "stop",
            "",
            f"The middle would spend {f.inside.danger_min:.0f} minutes between {low} and {high}.",
            "Over four hours in that range lets bacteria grow.",
            "fsis-guideline",
        )
    for stage in heats_of(f):
        if not heat_row(stage.heat).proves:
            continue
        bath_c = stage.dial or f.plan.kitchen.or_typical("bath_c")
        if bath_c < NO_CREDIT_BELOW_C:
            path = paths(f.plan.stages).get(stage.id, "")
            yield PlanWatchOut(
                "bath-cool",
                "stop",
                stage.id,
                f"A bath at {amount(bath_c, '°C')} is too cool for a cook this long.",
                f"Under {amount(NO_CREDIT_BELOW_C, '°C')} nothing is pasteurised, and bacteria"
                " grow.",
                "fsis-guideline",
                (put(f"{path}/dial", 65.0),),  # a long bath that is safe and tender (guidance)
                f"Set the bath to {amount(65.0, '°C')}",  # the same
            )
        elif f.inside.late_s > BATH_LATE_S:
            yield PlanWatchOut(
                "bath-slow",
                "stop",
                stage.id,
                f"The middle may take {f.inside.late_s / 3600:.1f} hours to pass"
                f" {amount(NO_CREDIT_BELOW_C, '°C')}; six are the most.",
                "Thinner pieces, thawed first, or a warmer bath are quicker.",
                "fsis-guideline",
            )


def frozen_low(f: PlanForecast) -> Found:
    """Frozen meat does not start in low dry heat or a slow cooker."""
    if not f.inside.gate:
        return
    before: Food = raw_food(f.plan, draw_members(f.plan.seed))
    for one in f.walk.line:
        stage = one.stage
        slow = heat_row(stage.heat).slow if isinstance(stage, Heat) else None
        ice = float(np.quantile(before.brought.profile_c[:, 0], 0.05)) < -1.0
        if slow is not None and not slow.from_frozen and ice:
            yield PlanWatchOut(
                "frozen-low",
                "stop",
                stage.id,
                f"Never straight from frozen into a {slow.name}.",
                "It thaws for hours at heats that bacteria like.",
                "fsis-consumer",
                (put("/stages/0", {"kind": "thaw", "id": "thaw", "where": "fridge"}),),
                "Thaw it in the fridge first",
            )
        before = one.passage.food


def vessels(f: PlanForecast) -> Found:
    """Liquid, line and froth of every vessel."""
    path = paths(f.plan.stages)
    for slow in f.slows:
        yield from one_vessel(f, slow, path.get(slow.stage, ""))


def one_vessel(f: PlanForecast, slow: SlowHeat, path: str) -> Found:
    """The rules of one vessel."""
    heat = heat_row(slow.heat).slow
    if heat is None or not heat.takes_liquid or slow.fill is None:
        return
    stage = next(s for s in heats_of(f) if s.id == slow.stage)
    least = heat.appliance.least_liquid_l
    if heat.released and slow.liquid_l < least * (1.0 - value("least_liquid_leeway")):
        yield PlanWatchOut(
            "liquid-least",
            "stop",
            slow.stage,
            f"{amount(slow.liquid_l, 'L')} is too little liquid to come to pressure.",
            f"A pot of this class wants at least {amount(least, 'L')} of thin liquid; with less it"
            " scorches and never seals.",
            "estimated",
            (put(f"{path}/liquid_l", heat.liquid_l),),
            f"Use {amount(heat.liquid_l, 'L')}",
        )
    if slow.fill.share > slow.fill.line:
        yield PlanWatchOut(
            "pot-full",
            "stop",
            slow.stage,
            f"The {heat.name} would be {percent(slow.fill.share)} full; its line is at"
            f" {percent(slow.fill.line)}.",
            "Above the line food can block the valve, and a braise boils over.",
            "estimated",
            *less_food(f, slow, stage),
        )
    elif heat.released and stage.release != "natural":
        full = slow.fill.share > NEARLY_FULL * slow.fill.line
        if full or f.cut.species in FROTHY:
            yield PlanWatchOut(
                "froth",
                "careful",
                slow.stage,
                "Open the valve in short bursts: what comes out may foam.",
                "A very full or starchy pot spits through its valve when the pressure falls fast.",
                "estimated",
                (put(f"{path}/release", "natural"),),
                "Let the pressure fall by itself",
            )


def less_food(f: PlanForecast, slow: SlowHeat, stage: Heat) -> tuple[Patch, str]:
    """As much as comes a little under the line of a vessel, and how it is said: its share of the
    volume goes with the mass, the liquid stays.
    """
    assert slow.fill is not None  # asked of a vessel that is too full
    food = next(one.passage.food for one in f.walk.passed if one.stage is stage)
    volume = slow_dish(stage, food, f.plan).vessel_l
    over = slow.fill.share * volume - slow.liquid_l
    under = 0.98 * (slow.fill.line * volume - slow.liquid_l)  # a little under the line (design)
    fits = round(max(0.1, f.plan.mass_kg * under / over), 1)
    return (put("/food/mass_kg", fits),), f"Cook {amount(fits, 'kg')}, the rest in a second batch"


def openings(f: PlanForecast) -> Found:
    """The usual cautions of every heat in use, once each; and the places that are for outdoors."""
    told: set[str] = set()
    for stage in heats_of(f):
        heat = heat_row(stage.heat)
        fires = {fire.stage for fire in f.fires}
        if heat.outdoors and heat.key not in told:
            told.add(heat.key)
            indoors = heat.body in f.plan.kitchen.indoors
            yield PlanWatchOut(
                f"{heat.key}-outdoors",
                "stop" if indoors else "careful",
                stage.id,
                f"A {heat.name} is for outdoors only, well away from walls and doors.",
                SMOKE_WHY,
                "estimated",
            )
        if stage.id in fires and heat.fierce is not None:
            caution = row("heat_cautions", f"fierce/{heat.fierce.key}")
        elif heat.slow is not None:
            caution = row("heat_cautions", f"slow/{heat.slow.key}")
        else:
            continue
        if caution["text"] not in told:
            told.add(caution["text"])
            yield PlanWatchOut(
                caution["id"],
                "careful",
                stage.id,
                caution["text"],
                caution["why"],
                caution["source"],
            )


def windows(f: PlanForecast) -> Found:
    """Fires in which the colour seldom comes before burning, or that a clock burns."""
    path = paths(f.plan.stages)
    for fire in f.fires:
        at = path.get(fire.stage, "")
        if fire.by == "colour" and fire.milestones.possible < OFTEN:
            yield no_window(fire, at)
        elif fire.by == "colour" and fire.milestones.window.empty:
            yield PlanWatchOut(
                "look",
                "careful",
                fire.stage,
                "The clock alone cannot tell you when: look.",
                "Appliances of this kind differ too much for a fixed number of minutes; what you"
                " see narrows it at once.",
                "estimated",
            )
        burns = float(np.interp(fire.timer_s, fire.finish.sample_s, fire.milestones.risk))
        if fire.by != "colour" and burns > 1.0 - OFTEN:
            yield PlanWatchOut(
                "burns-by-clock",
                "stop" if burns > 1.0 - SELDOM else "careful",
                fire.stage,
                f"After {fire.timer_s / 60.0:g} minutes it is bitter or burnt"
                f" {10 * burns:.0f} times in 10.",
                "A lower setting, a shorter time, or looking instead of the clock.",
                "estimated",
                (put(f"{at}/until", {"by": "colour", "want": fire.want}),),
                "Go by the look",
            )


def no_window(fire: Fire, at: str) -> PlanWatchOut:
    """The wanted colour comes too late in too many evenings."""
    possible = fire.milestones.possible
    level = "stop" if possible < SELDOM else "careful"
    share = "nearly always" if possible < SELDOM else f"{10 * (1.0 - possible):.0f} times in 10"
    patch: Patch = (put(f"{at}/heat", WIDEST), put(f"{at}/dial", None))
    says = "Finish in the air fryer"
    if fire.want == "mahogany" and possible >= SELDOM:
        patch, says = (put(f"{at}/until", {"by": "colour", "want": "amber"}),), "Stop at amber"
    elif fire.heat == WIDEST:
        patch, says = (), ""
    return PlanWatchOut(
        "no-window",
        level,
        fire.stage,
        f"The edges burn before the food is {fire.want}, {share}.",
        "Lower heat, more distance, fewer coats, foil on the edges or another appliance would widen"
        " it.",
        "estimated",
        patch,
        says,
    )


def waits(f: PlanForecast) -> Found:
    """Marinades that are too sour or too long, thaws that are too short, holds that go cold."""
    path = paths(f.plan.stages)
    for one in f.walk.passed:
        stage = one.stage
        if isinstance(stage, Marinate):
            sauce = f.plan.layer(stage.layer).sauce
            sour = sauce is not None and sauce.acid > ACID_MARINADE
            most = ACID_MOST_H if sour else FRESH_MOST_H
            if stage.hours > most:
                yield PlanWatchOut(
                    "marinade-long",
                    "careful",
                    stage.id,
                    f"{stage.hours:g} hours is long for this marinade: {most:g} at the most.",
                    "Acid turns the outside mealy." if sour else "Raw food keeps days, not longer.",
                    "estimated",
                    (put(f"{path.get(stage.id, '')}/hours", most),),
                    f"{most:g} hours",
                )
        for note in one.passage.notes:
            if note == "thaw-short":
                yield PlanWatchOut(
                    note,
                    "careful",
                    stage.id,
                    "There is ice in the middle yet when this time is up.",
                    "What follows takes longer from frozen, and is counted so.",
                    "derived",
                    (put(f"{path.get(stage.id, '')}/hours", None),),
                    "Thaw it through",
                )
            elif note == "hold-cold":
                yield PlanWatchOut(
                    note,
                    "stop",
                    stage.id,
                    f"It falls under {amount(57.0, '°C')} while it is held.",  # the usual guidance
                    "Hot food that waits stays hot: a warm oven, a shorter wait, or chill it fast.",
                    "fsis-consumer",
                    (put(f"{path.get(stage.id, '')}/how", "warm place"),),
                    "Hold it in a warm oven",
                )


def leftovers(f: PlanForecast) -> Found:
    """Said once for every plan with a gate."""
    if f.inside.gate:
        yield PlanWatchOut(
            "leftovers",
            "good to know",
            "",
            # the usual guidance for leftovers
            f"Leftovers: shallow, chilled within 2 hours, reheated to {amount(74.0, '°C')}.",
            "Kept in the fridge 3 to 4 days.",
            "fsis-consumer",
        )


PLAN_RULES: tuple[Rule, ...] = (
    core_safe,
    raw_contact,
    tender,
    danger,
    frozen_low,
    vessels,
    *FIT_RULES,
    openings,
    windows,
    waits,
    *HEAT_RULES,
    *GEAR_RULES,
    leftovers,
)


def plan_watch_outs(forecast: PlanForecast) -> tuple[PlanWatchOut, ...]:
    """All warnings for a plan's forecast, the gravest first."""
    found = [warning for rule in PLAN_RULES for warning in rule(forecast)]
    return tuple(sorted(found, key=lambda w: LEVELS.index(w.level)))
