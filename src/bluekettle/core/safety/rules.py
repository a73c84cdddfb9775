"""The rules that one dish's forecast can break."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from bluekettle.core.stages import LIMITS, Forecast, fits_of
from bluekettle.core.tables import row

LEVELS = ("stop", "careful", "good to know")
USUAL_GUIDANCE = (
    "Usual guidance only. Your appliance's manual and local food-safety and fire rules come first."
)  # fmt: skip


@dataclass(frozen=True)
class WatchOut:
    """One warning. `repair` holds the fields of the dish document that one tap changes, empty where none can."""

    id: str
    level: str
    message: str
    why: str
    source: str
    repair: dict[str, object] = field(default_factory=dict)
    repair_says: str = ""


def watch_outs(forecast: Forecast) -> tuple[WatchOut, ...]:
    """All warnings for a forecast, the gravest first."""
    found = [warning for rule in RULES for warning in rule(forecast)]
    return tuple(sorted(found, key=lambda w: LEVELS.index(w.level)))


Found = Iterator[WatchOut]


def liquid_least(f: Forecast) -> Found:
    """A pot under its least liquid does not come to pressure, and scorches."""
    if f.dish.tenderise != "pressure":
        return
    least = float(row("appliances", "electric-pot")["least_liquid_l"])
    if f.dish.liquid < least:
        yield WatchOut(
            "liquid-least", "stop", f"{f.dish.liquid:g} L is too little liquid to come to pressure.",
            f"A pot of this class wants at least {least:g} L of thin liquid; with less it scorches and never seals.",
            "estimated", {"liquid_l": round(least * 1.2 + 0.02, 2)}, f"Use {least * 1.2 + 0.02:.2f} L",
        )  # fmt: skip


def pot_full(f: Forecast) -> Found:
    """A pot over its line blocks its own valve."""
    if f.fill.share > f.fill.line:
        volume = f.dish.kitchen.or_typical("pot_volume_l") if f.dish.tenderise == "pressure" else 5.0
        fits = max(0.1, f.dish.mass_kg * (f.fill.line * volume - f.dish.liquid) / (f.fill.share * volume - f.dish.liquid))  # fmt: skip
        yield WatchOut(
            "pot-full", "stop", f"The pot would be {f.fill.share:.0%} full; its line is at {f.fill.line:.0%}.",
            "Above the line food can block the valve, and a braise boils over.", "estimated",
            {"mass_kg": round(fits * 0.98, 1)}, f"Cook {fits * 0.98:.1f} kg, the rest in a second batch",
        )  # fmt: skip


def does_it_fit(f: Forecast) -> Found:
    """What does not fit is found out before anything is hot, where the kitchen's insides are known."""
    for job, fit in fits_of(f.dish).items():
        place = "the pot" if job == "pot" else f"the {f.dish.kind.name}"
        for place_in, verdict in enumerate(fit.verdicts):
            if verdict.level == "fits" or verdict.about == "fill":
                continue  # line and liquid have rules of their own
            yield WatchOut(
                f"fit-{job}-{place_in}", verdict.level, f"In {place}: {verdict.message[0].lower()}{verdict.message[1:]}",
                verdict.repair or "Try it with a cold tray before anything is hot.", "estimated",
            )  # fmt: skip


def core_safe(f: Forecast) -> Found:
    """The thermometer is the rule; the forecast only says what it expects."""
    safety = f.safety
    caution = row("cautions", f.cut.species)
    if not safety.gate:
        return
    if safety.core_low_c < safety.wanted_c:
        yield WatchOut(
            "core-cold", "stop", f"One piece in twenty may stay at {safety.core_low_c:.0f} °C inside.",
            f"Usual guidance: {caution['text']}.", caution["source"], {"timer_min": None}, "Use the computed timer",
        )  # fmt: skip
    yield WatchOut(
        "thermometer", "careful", f"Check with a thermometer: {caution['text']}.",
        f"Expected in the middle: about {safety.core_likely_c:.0f} °C. An expectation is not a reading.",
        caution["source"],
    )  # fmt: skip


def danger_zone(f: Forecast) -> Found:
    """Minutes between 5 and 54.4 °C."""
    if f.safety.gate and f.safety.danger_min > 240.0:
        yield WatchOut(
            "danger-zone", "stop", f"The middle would spend {f.safety.danger_min:.0f} minutes between 5 and 54 °C.",
            "Over four hours in that range lets bacteria grow.", "fsis-guideline",
            {"state": "fridge"}, "Thaw in the fridge first",
        )  # fmt: skip


def no_window(f: Forecast) -> Found:
    """Where the wanted colour seldom comes before burning, say so and say what would help."""
    m = f.milestones
    if m.possible >= 0.8:
        return
    repair: dict[str, object] = {"want": "amber"} if f.dish.want == "mahogany" else {"finish": "air_fryer"}
    says = "Stop at amber" if f.dish.want == "mahogany" else "Finish in the air fryer"
    if f.dish.want == "amber" and f.dish.finish == "air_fryer":
        repair, says = ({"coats": 1}, "One coat") if f.dish.coats > 1 else ({}, "")
    level = "stop" if m.possible < 0.05 else "careful"
    share = "nearly always" if m.possible < 0.05 else f"{1.0 - m.possible:.0%} of the time"
    yield WatchOut(
        "no-window", level, f"The edges burn before the food is {f.dish.want}, {share}.",
        "Lower heat, more distance, fewer coats, foil on the edges or another appliance would widen it.",
        "estimated", repair, says,
    )  # fmt: skip


def clock_blind(f: Forecast) -> Found:
    """An empty window by the clock is no verdict on the dish."""
    if f.milestones.window.empty and f.milestones.possible >= 0.05:
        yield WatchOut(
            "look", "careful", "The clock alone cannot tell you when: look.",
            "Appliances of this kind differ too much for a fixed number of minutes; what you see narrows it at once.",
            "estimated",
        )  # fmt: skip


def hot_things(f: Forecast) -> Found:
    """The usual cautions of the appliances in use."""
    if f.dish.tenderise == "pressure":
        yield WatchOut(
            "steam", "careful", "Release steam away from face and cupboards; pin down before opening; never force a lid.",
            "Steam at pressure scalds at an arm's length.", "estimated",
        )  # fmt: skip
    else:
        yield WatchOut("lid", "careful", "Lift the lid away from you.", "Trapped steam comes out first.", "estimated")
    if f.dish.finish in ("grill", "charcoal"):
        yield WatchOut(
            "grill-outdoors", "stop", "A gas or charcoal grill is for outdoors only, well away from walls and doors.",
            "Indoors, or in a tent or garage, it fills the air with carbon monoxide, which has no smell.", "estimated",
            {"finish": "broiler"}, "Finish under the broiler",
        )  # fmt: skip
        if f.dish.finish == "charcoal":
            yield WatchOut(
                "coals", "careful", "No lighter fluid on glowing coals; ash stays hot for a day.",
                "Vapour flashes back along the stream. Close the vents, and leave the ash outdoors in metal.", "estimated",
            )  # fmt: skip
    elif f.dish.finish == "crisping_lid":
        yield WatchOut(
            "lid-swap", "careful", "Empty the pot before the crisping lid goes on; set the hot pressure lid aside.",
            "Liquid left below steams the glaze instead of drying it.", "estimated",
        )  # fmt: skip
    elif f.dish.finish == "oven":
        yield WatchOut(
            "hot-tray", "careful", "No paper on the tray above what its maker says; use dry cloths.",
            "At 230 °C paper browns, and a wet cloth lets the heat through at once.", "estimated",
        )  # fmt: skip
    elif f.dish.finish == "broiler":
        yield WatchOut(
            "broiler", "careful", "Never leave the broiler; no paper or glass under it.",
            "Fat below can flare, paper burns and glass bursts at these heats.", "estimated",
        )  # fmt: skip
    else:
        yield WatchOut(
            "vents", "careful", "Keep the air fryer's vents clear; no loose paper; hot basket.",
            "The fan lifts paper onto the heater.", "estimated",
        )  # fmt: skip
    if f.dish.sauce is not None and f.dish.sauce.caramelises:
        yield WatchOut("sugar", "careful", "Hot glaze sticks and burns skin.", "It is hotter than boiling water.", "estimated")  # fmt: skip


def over_top(f: Forecast) -> Found:
    """A dial cannot be set past its end."""
    kind = f.dish.kind
    top, dial = f.dish.kitchen.tops_c.get(f.dish.finish), f.dish.kitchen.or_typical(kind.dial)
    if top is not None and kind.dial != "rack_m" and dial > top:
        low = LIMITS[kind.dial][0]
        yield WatchOut(
            "over-top", "careful", f"Your {kind.name} goes up to {top:.0f} °C; this plan counts on {dial:.0f}.",
            "At its own highest heat the colour comes later than planned.", "estimated",
            {"kitchen": {kind.dial: max(low, top)}}, f"Plan with {max(low, top):.0f} °C",
        )  # fmt: skip


def gear_at_hand(f: Forecast) -> Found:
    """What the small gear of this kitchen changes; nothing where nobody said what there is."""
    gear = f.dish.kitchen.gear
    if gear is None:
        return
    if f.safety.gate and not gear & {"thermometer", "leave-in thermometer"}:
        yield WatchOut(
            "no-thermometer", "careful", "No thermometer in your kitchen: nothing else shows that it is safe inside.",
            "The gate before the plate asks for a reading. Colour and clear juices are no proof.", "fsis-consumer",
        )  # fmt: skip
    if f.safety.gate:
        own = "second pair of tongs" in gear
        yield WatchOut(
            "tongs", "good to know" if own else "careful",
            "Second pair of tongs for the cooked food only." if own else "One pair of tongs: wash it hot once the raw food is in.",
            "What touched raw food brings it back to the cooked.", "fsis-consumer",
        )  # fmt: skip
    if f.dish.tenderise == "pressure" and f.dish.sauce is not None and "trivet" not in gear:
        yield WatchOut(
            "no-trivet", "good to know", "No trivet: lay halved onions under the food.",
            "Food on the hot base scorches, and then the pot may never come to pressure.", "estimated",
        )  # fmt: skip
    fierce = f.dish.finish in ("broiler", "oven")
    if fierce and f.cut.gate and not gear & {"wire rack", "lined tray"}:
        yield WatchOut(
            "no-rack", "careful", "No rack and no lined tray: turn the edges of a doubled sheet of foil up all round.",
            "Fat that pools under fierce heat smokes and can flare.", "estimated",
        )  # fmt: skip
    elif fierce and "wire rack" in gear:
        yield WatchOut(
            "rack", "good to know", "On the wire rack over the tray, so that fat drips away.",
            "Standing in its own juice the underside turns soft.", "estimated",
        )  # fmt: skip
    if f.dish.finish == "broiler" and f.milestones.possible < 0.9 and "heavy foil" in gear:
        yield WatchOut(
            "foil-edges", "good to know", "Have strips of heavy foil ready for the edges.",
            "Edges burn first here; under foil they take about a quarter of the heat.", "estimated",
        )  # fmt: skip


def sugar_free(f: Forecast) -> Found:
    """No sugar, no caramel."""
    if f.dish.sauce is not None and not f.dish.sauce.caramelises:
        yield WatchOut(
            "sugar-free", "good to know", "This sauce holds too little sugar to caramelise.",
            "Go by crispness and plain browning; it can still scorch.", "estimated",
        )  # fmt: skip


def tender_chance(f: Forecast) -> Found:
    """A timer of the cook's own may miss the bite."""
    if f.tenderness.enough < 0.5:
        yield WatchOut(
            "tough", "careful", f"Only {f.tenderness.enough:.0%} likely to be as tender as you want.",
            f"Cook value {f.tenderness.likely:.0f}, wanted about {f.tenderness.target:.0f}.", "design",
            {"timer_min": None}, "Use the computed timer",
        )  # fmt: skip
    elif f.tenderness.overdone > 0.2:
        yield WatchOut(
            "overdone", "careful", f"{f.tenderness.overdone:.0%} likely to be overdone.",
            f"Cook value {f.tenderness.likely:.0f}; past {f.cut.overdone:.0f} it turns stringy or mushy.", "design",
            {"timer_min": None}, "Use the computed timer",
        )  # fmt: skip


def leftovers(f: Forecast) -> Found:
    """Said once for every dish with a gate."""
    if f.safety.gate:
        yield WatchOut(
            "leftovers", "good to know", "Leftovers: shallow, chilled within 2 hours, reheated to 74 °C.",
            "Kept in the fridge 3 to 4 days.", "fsis-consumer",
        )  # fmt: skip


RULES: tuple[Callable[[Forecast], Found], ...] = (
    liquid_least, pot_full, does_it_fit, core_safe, danger_zone, no_window, tender_chance, clock_blind, over_top, hot_things, gear_at_hand,
    sugar_free, leftovers,
)  # fmt: skip
