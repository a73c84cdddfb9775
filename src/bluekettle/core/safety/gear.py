"""Rules of what small gear there is."""

from __future__ import annotations

from bluekettle.core.safety.watch import Found, Rule, WatchOut
from bluekettle.core.stages import Forecast
from bluekettle.core.stages.finishing import heat_of
from bluekettle.core.stages.tenderise import first_air_c
from bluekettle.core.stages.vessel import MAX_COME_UP_S
from bluekettle.core.tables import value
from bluekettle.core.units import amount

LIKELY = 0.9  # chance of the wanted colour from which edges need no foil
SAGS_K = 8.0  # under its dial, from which it is worth telling (typical, estimated)


def gear_at_hand(f: Forecast) -> Found:
    """What the small gear of this kitchen changes; nothing where nobody said what there is."""
    gear = f.dish.kitchen.gear
    if gear is None:
        return
    if f.safety.gate and not gear & {"thermometer", "leave-in thermometer"}:
        yield WatchOut(
            "no-thermometer",
            "careful",
            "No thermometer in your kitchen: nothing else shows that it is safe inside.",
            "The gate before the plate asks for a reading. Colour and clear juices are no proof.",
            "fsis-consumer",
        )
    if f.safety.gate:
        own = "second pair of tongs" in gear
        yield WatchOut(
            "tongs",
            "good to know" if own else "careful",
            (
                "Second pair of tongs for the cooked food only."
                if own
                else "One pair of tongs: wash it hot once the raw food is in."
            ),
            "What touched raw food brings it back to the cooked.",
            "fsis-consumer",
        )
    if f.dish.tenderise == "pressure" and f.dish.sauce is not None and "trivet" not in gear:
        yield WatchOut(
            "no-trivet",
            "good to know",
            "No trivet: lay halved onions under the food.",
            "Food on the hot base scorches, and then the pot may never come to pressure.",
            "estimated",
        )
    fierce = f.dish.finish in ("broiler", "oven")
    if fierce and f.cut.gate and not gear & {"wire rack", "lined tray"}:
        yield WatchOut(
            "no-rack",
            "careful",
            "No rack and no lined tray: turn the edges of a doubled sheet of foil up all round.",
            "Fat that pools under fierce heat smokes and can flare.",
            "estimated",
        )
    elif fierce and "wire rack" in gear:
        yield WatchOut(
            "rack",
            "good to know",
            "On the wire rack over the tray, so that fat drips away.",
            "Standing in its own juice the underside turns soft.",
            "estimated",
        )
    if f.dish.finish == "broiler" and f.milestones.possible < LIKELY and "heavy foil" in gear:
        yield WatchOut(
            "foil-edges",
            "good to know",
            "Have strips of heavy foil ready for the edges.",
            "Edges burn first here; under foil they take about a quarter of the heat.",
            "estimated",
        )


def lid_on(f: Forecast) -> Found:
    """What a look costs a slow cooker."""
    if f.dish.tenderise == "slow":
        yield WatchOut(
            "lid-on",
            "good to know",
            "Leave the lid on: each look costs a slow cooker about twenty minutes.",
            "Its heater has little to spare.",
            "estimated",
        )


def never_simmers(f: Forecast) -> Found:
    """A cooker too weak for its own losses settles where losses and power balance."""
    if f.dish.tenderise != "slow" or f.come_up.likely_s < MAX_COME_UP_S:
        return
    power = f.dish.kitchen.or_typical("slow_power_w")
    settles = value("kitchen_c") + power / value("slow_loss_w_k")
    high = f.dish.first.settings[-1]
    yield WatchOut(
        "never-simmers",
        "careful",
        f"This cooker settles near {amount(settles, '°C')} and never comes to a simmer.",
        f"At {power:.0f} W it loses as much as it heats. What is told is counted at that.",
        "estimated",
        {"kitchen": {"slow_power_w": high.value}},
        f"Set it to {high.name}",
    )


def load_cools(f: Forecast) -> Found:
    """So much food that an appliance cannot hold its dial, in the first heat or the second."""
    dish, kind, first = f.dish, f.dish.kind, f.dish.first
    heats = []
    if first.dry:
        dial = dish.kitchen.or_typical(first.dial)
        heats.append(("first-load-cools", first.name, dial, first_air_c(dish)))
    if kind.dial.endswith("_c"):
        dial = dish.kitchen.or_typical(kind.dial)
        heats.append(("load-cools", kind.name, dial, heat_of(dish).air_c))
    for key, name, dial, held in heats:
        if held < dial - SAGS_K:
            yield WatchOut(
                key,
                "careful",
                f"With so much food your {name} holds about {amount(held, '°C')}, not"
                f" {amount(dial, '°C')}.",
                "Its heater cannot keep up with what boils off; the times are counted at that."
                " Two batches brown better.",
                "estimated",
            )


RULES: tuple[Rule, ...] = (gear_at_hand, lid_on, never_simmers, load_cools)
