"""Rules of what makes food safe: temperature, time, cold starts, contact, waiting."""

from __future__ import annotations

import re

from bluekettle.core.glaze import draw_members
from bluekettle.core.lethality import NO_CREDIT_BELOW_C
from bluekettle.core.safety.watch import (
    OWN_TIMER,
    OWN_TIMER_SAYS,
    THAW,
    THAW_SAYS,
    Found,
    Rule,
    WatchOut,
)
from bluekettle.core.sauce import BOILED
from bluekettle.core.stages import Forecast
from bluekettle.core.stages.tenderise import pleasant_hold_s
from bluekettle.core.tables import row, value
from bluekettle.core.units import amount

MOST_LOGS = 99.0  # as many as a person can read (design)
LOW_AND_SLOW = ("low_oven", "smoke", "slow")
DANGER_MOST_MIN = 240.0  # the usual guidance: four hours
BATH_LATE_S = 6 * 3600.0
BATH_VEGETABLE_C = 80.0  # below it pectin does not soften (compiled, docs/model.md)
HOLD_C = 60.0


def caution_text(f: Forecast) -> str:
    """The usual figure of this kind of food, in words."""
    caution = row("cautions", f.cut.species)
    return caution["text"].format(temp=amount(f.cut.safe_c, "°C"))


def core_safe(f: Forecast) -> Found:
    """The thermometer is the rule; the forecast only says what it expects."""
    safety = f.safety
    caution = row("cautions", f.cut.species)
    if not safety.gate:
        return
    if safety.rests_on == "time":
        bath = amount(f.dish.kitchen.or_typical("bath_c"), "°C")
        logs = min(safety.log_low, MOST_LOGS)
        yield WatchOut(
            "proven-time",
            "careful",
            f"Check with a thermometer: at least {amount(safety.probe_c, '°C')} when the time is"
            " up, at the thickest place, not touching bone.",
            f"Long enough at {bath} to be safe: {logs:.0f} log reductions of bacteria, where"
            f" {safety.wanted_log:g} are wanted, even in the slowest pieces. A shorter time, or a"
            f" lower reading, wants the usual {amount(safety.wanted_c, '°C')}.",
            "fsis-guideline",
        )
        return
    if safety.core_low_c < safety.wanted_c:
        yield WatchOut(
            "core-cold",
            "stop",
            f"One piece in twenty may stay at {amount(safety.core_low_c, '°C')} inside.",
            f"Usual guidance: {caution_text(f)}.",
            caution["source"],
            dict(OWN_TIMER),
            OWN_TIMER_SAYS,
        )
    yield WatchOut(
        "thermometer",
        "careful",
        f"Check with a thermometer: {caution_text(f)}.",
        f"Expected in the middle: about {amount(safety.core_likely_c, '°C')}. An expectation is not"
        " a reading.",
        caution["source"],
    )


def held_for(f: Forecast) -> Found:
    """A temperature that holds only for food as it was packed."""
    if f.cut.safe_if:
        told = re.sub(r"\{(\d+)\}", lambda m: amount(float(m[1]), "°C"), f.cut.safe_if)
        yield WatchOut(
            "safe-if",
            "careful",
            f"{told}.",
            "Its label says which it is.",
            "fsis-consumer",
        )


def pleasanter(f: Forecast) -> Found:
    """Dark poultry is safe before it is good: a little longer loosens the joint."""
    pleasant = f.cut.pleasant_c
    if pleasant is None or not f.dish.first.dry or f.safety.core_likely_c >= pleasant:
        return
    hold_s = pleasant_hold_s(f.dish, f.cut, draw_members(f.dish.seed))
    yield WatchOut(
        "pleasanter",
        "good to know",
        f"Safe at {amount(f.safety.wanted_c, '°C')}, pleasanter at {amount(pleasant, '°C')}.",
        "Joint and skin give only there; lean breast would be dry by then, this is not.",
        "fsis-consumer",
        {"timer_min": hold_s / 60.0} if hold_s else {},
        f"Give it {hold_s / 60.0:.0f} min" if hold_s else "",
    )


def raw_contact(f: Forecast) -> Found:
    """A portion that touched raw food is boiled before it goes onto ready food."""
    if f.dish.raw_late:
        yield WatchOut(
            "raw-contact",
            "stop",
            "This sauce touched raw food: boil it before it goes on.",
            "Under a finish's heat the film itself is hot for minutes only, and drips are not. A"
            " full rolling boil makes it safe; without it the food is checked once more.",
            "fsis-consumer",
            {"sauce": {"contact": BOILED}},
            "Boil it first",
        )
    elif f.dish.sauce is not None and f.dish.contact == BOILED:
        yield WatchOut(
            "boil-first",
            "careful",
            "Boil the sauce hard before its first coat, and use a clean brush and bowl from then.",
            "It touched raw food on its way.",
            "fsis-consumer",
        )


def danger_zone(f: Forecast) -> Found:
    """Minutes between 5 and 54.4 °C."""
    if f.safety.gate and f.safety.danger_min > DANGER_MOST_MIN:
        low, high = amount(5.0, "°C"), amount(NO_CREDIT_BELOW_C, "°C")  # the usual guidance
        yield WatchOut(
            "danger-zone",
            "stop",
            f"The middle would spend {f.safety.danger_min:.0f} minutes between {low} and {high}.",
            "Over four hours in that range lets bacteria grow.",
            "fsis-guideline",
            dict(THAW),
            THAW_SAYS,
        )


def low_heat(f: Forecast) -> Found:
    """Frozen meat does not start in low dry heat, a slow cooker or a cool fryer."""
    heat = f.dish.first
    if f.dish.state != "frozen" or not f.cut.gate:
        return
    if heat.key in LOW_AND_SLOW:
        yield WatchOut(
            "frozen-low",
            "stop",
            f"Never straight from frozen into a {heat.name}.",
            "It thaws for hours at heats that bacteria like.",
            "fsis-consumer",
            dict(THAW),
            THAW_SAYS,
        )
    cool_c = value("frozen_fry_least_c")
    if heat.key == "air_fry" and f.dish.kitchen.or_typical("fry_c") < cool_c:
        yield WatchOut(
            "frozen-fry",
            "careful",
            f"Frozen food wants a fryer of {amount(cool_c, '°C')} or more.",
            "In a cooler one the outside dries for long before the middle has thawed.",
            "estimated",
            {"kitchen": {"fry_c": cool_c}},
            f"Set it to {amount(cool_c, '°C')}",
        )


def bath_proof(f: Forecast) -> Found:
    """A bath too cool, too slow or too small; and food that leaves it only par-cooked."""
    if f.dish.tenderise != "bath":
        return
    bath_c = f.dish.kitchen.or_typical("bath_c")
    if f.cut.gate and bath_c < NO_CREDIT_BELOW_C:
        yield WatchOut(
            "bath-cool",
            "stop",
            f"A bath at {amount(bath_c, '°C')} is too cool for a cook this long.",
            f"Under {amount(NO_CREDIT_BELOW_C, '°C')} nothing is pasteurised, and bacteria grow.",
            "fsis-guideline",
            {"kitchen": {"bath_c": 65.0}},  # a long bath that is safe and tender (usual guidance)
            f"Set the bath to {amount(65.0, '°C')}",  # the same
        )
    elif f.cut.gate and f.safety.late_s > BATH_LATE_S:
        yield WatchOut(
            "bath-slow",
            "stop",
            f"The middle may take {f.safety.late_s / 3600:.1f} hours to pass"
            f" {amount(NO_CREDIT_BELOW_C, '°C')}; six are the most.",
            "Thinner pieces, thawed first, or a warmer bath are quicker.",
            "fsis-guideline",
            dict(THAW),
            THAW_SAYS,
        )
    if f.cut.gate and f.safety.rests_on == "temperature" and bath_c < f.safety.wanted_c:
        yield WatchOut(
            "par-cooked",
            "careful",
            "Only par-cooked when that timer ends: never hold or chill it like that.",
            f"Neither {amount(f.safety.wanted_c, '°C')} nor a time that stands for it; the check"
            " sends it back into the heat.",
            "fsis-consumer",
            dict(OWN_TIMER),
            OWN_TIMER_SAYS,
        )
    if f.cut.species == "vegetable" and bath_c < BATH_VEGETABLE_C:
        yield WatchOut(
            "bath-vegetable",
            "careful",
            f"Vegetables stay firm for hours at {amount(bath_c, '°C')}, whatever the timer says.",
            f"What holds their cells together loosens from about {amount(BATH_VEGETABLE_C, '°C')}"
            " on; the cook value does not know that.",
            "estimated",
            # vegetables soften from here in an hour or two (compiled)
            {"kitchen": {"bath_c": 85.0}, "timer_min": None},
            f"Set the bath to {amount(85.0, '°C')}",  # the same
        )


def bath_room(f: Forecast) -> Found:
    """Water has to move round every bag."""
    if f.dish.tenderise != "bath":
        return
    volume = f.dish.kitchen.or_typical("bath_volume_l")
    food_l = 1e3 * f.dish.mass_kg / f.cut.food.density_kg_m3
    if value("bath_fill") * volume + food_l > volume:
        fits = round(max(0.1, 0.2 * volume), 1)
        yield WatchOut(
            "bath-full",
            "stop",
            f"{amount(f.dish.mass_kg, 'kg')} is too much for a bath of {amount(volume, 'L')}.",
            "Water has to move round every bag, and it would run over.",
            "estimated",
            {"mass_kg": fits},
            f"Cook {amount(fits, 'kg')}, the rest in a second batch",
        )


def waiting(f: Forecast) -> Found:
    """Food that waits stays hot, or does not wait long."""
    if f.slack_s > 0.0 and f.safety.gate:
        yield WatchOut(
            "hold-warm",
            "careful",
            f"While it waits, keep it above {amount(HOLD_C, '°C')}: covered, in its hot pot.",
            f"Uncovered it stays warm enough for about {f.warm_s / 60:.0f} minutes.",
            "fsis-consumer",
        )


def leftovers(f: Forecast) -> Found:
    """Said once for every dish with a gate."""
    if f.safety.gate:
        yield WatchOut(
            "leftovers",
            "good to know",
            # the usual guidance for leftovers
            f"Leftovers: shallow, chilled within 2 hours, reheated to {amount(74.0, '°C')}.",
            "Kept in the fridge 3 to 4 days.",
            "fsis-consumer",
        )


RULES: tuple[Rule, ...] = (
    core_safe,
    held_for,
    pleasanter,
    raw_contact,
    danger_zone,
    low_heat,
    bath_proof,
    bath_room,
    waiting,
    leftovers,
)
