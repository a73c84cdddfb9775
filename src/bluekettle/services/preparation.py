"""What to lay out before the first act, in words."""

from __future__ import annotations

import math

from bluekettle.core.chain import Heat, HeatRow, Layer, PlanForecast, heat_row, things_at_hand
from bluekettle.core.sauce import RAW
from bluekettle.core.units import amount
from bluekettle.schemas.chain_forecast import PreparationPublic


def preparation_of(f: PlanForecast) -> list[PreparationPublic]:
    """Food, what goes on it, machines with their settings, and things, each in order of use."""
    many = f", {f.plan.pieces} pieces" if f.plan.pieces > 1 else ""
    cold = "out of the freezer" if f.plan.state == "frozen" else "out of the fridge"
    food = f"{amount(f.plan.mass_kg, 'kg')} of {f.cut.name}{many}, {cold}"
    layers = [layer_words(layer, f.sauce_kg.get(layer.id, 0.0)) for layer in f.plan.layers]
    heats = [one.stage for one in f.walk.passed if isinstance(one.stage, Heat)]
    machines = dict.fromkeys(machine_words(heat, heat_row(heat.heat), f) for heat in heats)
    told = {"food": [food], "layer": layers, "machine": machines, "thing": things_at_hand(f)}
    return [
        PreparationPublic(kind=kind, text=text) for kind, all_of in told.items() for text in all_of
    ]


def layer_words(layer: Layer, used_kg: float) -> str:
    """A layer: how much at least, and what is to be known of it."""
    grams = 10.0 * math.ceil(100.0 * used_kg)  # in steps of 10 g: nobody weighs finer
    much = f", at least {amount(grams, 'g')}" if used_kg > 0.0 else ""
    made = f", mixed from {layer.lines}" if layer.lines else ""
    raw = ", which has touched raw food" if layer.contact == RAW else ""
    boil = ", boiled before it goes on again" if layer.boiled else ""
    return f"{layer.name}{much}{made}{raw}{boil}"


def machine_words(heat: Heat, row: HeatRow, f: PlanForecast) -> str:
    """A machine with its setting and its liquid."""
    dial = ""
    if heat.dial is not None and row.dial_unit == "°C":
        dial = f", {amount(heat.dial, '°C')}"
    if heat.dial is not None and row.dial_unit == "m":
        dial = f", rack {amount(100.0 * heat.dial, 'cm')} below the element"
    liquid = next((one.liquid_l for one in f.slows if one.stage == heat.id), 0.0)
    takes = row.slow is not None and row.slow.takes_liquid and liquid > 0.0
    wet = f", {amount(liquid, 'L')} of liquid" if takes else ""
    return f"{row.name}{dial}{wet}"
