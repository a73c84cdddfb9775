"""The rules that one dish's forecast can break."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from bluekettle.core.lethality import NO_CREDIT_BELOW_C
from bluekettle.core.stages import LIMITS, Forecast, fits_of
from bluekettle.core.stages.forecast import vessel_litres
from bluekettle.core.tables import row, value

LEVELS = ("stop", "careful", "good to know")
USUAL_GUIDANCE = (
    "Usual guidance only. Your appliance's manual and local food-safety and fire rules come first."
)


@dataclass(frozen=True)
class WatchOut:
    """One warning. `repair` holds the fields of the dish document that one tap changes, empty where
    none can.
    """

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
    least = float(f.dish.first.appliance["least_liquid_l"])
    if f.dish.liquid < least:
        yield WatchOut(
            "liquid-least",
            "stop",
            f"{f.dish.liquid:g} L is too little liquid to come to pressure.",
            f"A pot of this class wants at least {least:g} L of thin liquid; with less it scorches"
            " and never seals.",
            "estimated",
            {"liquid_l": f.dish.first.liquid_l},
            f"Use {f.dish.first.liquid_l:g} L",
        )


def pot_full(f: Forecast) -> Found:
    """A pot over its line blocks its own valve."""
    if f.fill is not None and f.fill.share > f.fill.line:
        volume = vessel_litres(f.dish)
        fits = max(
            0.1,
            f.dish.mass_kg
            * (f.fill.line * volume - f.dish.liquid)
            / (f.fill.share * volume - f.dish.liquid),
        )
        yield WatchOut(
            "pot-full",
            "stop",
            f"The {f.dish.first.name} would be {f.fill.share:.0%} full; its line is at"
            f" {f.fill.line:.0%}.",
            "Above the line food can block the valve, and a braise boils over.",
            "estimated",
            {"mass_kg": round(fits * 0.98, 1)},
            f"Cook {fits * 0.98:.1f} kg, the rest in a second batch",
        )


def does_it_fit(f: Forecast) -> Found:
    """What does not fit is found out before anything is hot, where the kitchen's insides are
    known.
    """
    for job, fit in fits_of(f.dish).items():
        place = f"the {f.dish.first.name if job == f.dish.first.job else f.dish.kind.name}"
        place = "the pot" if job == "pot" else place
        for place_in, verdict in enumerate(fit.verdicts):
            if verdict.level == "fits" or verdict.about == "fill":
                continue  # line and liquid have rules of their own
            yield WatchOut(
                f"fit-{job}-{place_in}",
                verdict.level,
                f"In {place}: {verdict.message[0].lower()}{verdict.message[1:]}",
                verdict.repair or "Try it with a cold tray before anything is hot.",
                "estimated",
            )


def core_safe(f: Forecast) -> Found:
    """The thermometer is the rule; the forecast only says what it expects."""
    safety = f.safety
    caution = row("cautions", f.cut.species)
    if not safety.gate:
        return
    if safety.rests_on == "time":
        yield WatchOut(
            "proven-time",
            "careful",
            f"Check with a thermometer: at least {safety.probe_c:g} °C inside when the time is up.",
            f"This rests on time, not on the usual temperature ({caution['text']}): held so long,"
            f" at {f.dish.kitchen.or_typical('bath_c'):g} °C of water, even the slowest pieces are"
            f" past what is proven ({min(safety.log_low, 99.0):.0f} log reductions of bacteria,"
            f" {safety.wanted_log:g} wanted). A shorter time, or a lower reading, wants the usual"
            " temperature.",
            "fsis-guideline",
        )
        return
    if safety.core_low_c < safety.wanted_c:
        yield WatchOut(
            "core-cold",
            "stop",
            f"One piece in twenty may stay at {safety.core_low_c:.0f} °C inside.",
            f"Usual guidance: {caution['text']}.",
            caution["source"],
            {"timer_min": None},
            "Use the computed timer",
        )
    yield WatchOut(
        "thermometer",
        "careful",
        f"Check with a thermometer: {caution['text']}.",
        f"Expected in the middle: about {safety.core_likely_c:.0f} °C. An expectation is not a"
        " reading.",
        caution["source"],
    )


def danger_zone(f: Forecast) -> Found:
    """Minutes between 5 and 54.4 °C."""
    if f.safety.gate and f.safety.danger_min > 240.0:
        yield WatchOut(
            "danger-zone",
            "stop",
            f"The middle would spend {f.safety.danger_min:.0f} minutes between 5 and 54 °C.",
            "Over four hours in that range lets bacteria grow.",
            "fsis-guideline",
            {"state": "fridge"},
            "Thaw in the fridge first",
        )


def no_window(f: Forecast) -> Found:
    """Where the wanted colour seldom comes before burning, say so and say what would help."""
    m = f.milestones
    if m.possible >= 0.8:
        return
    repair: dict[str, object] = (
        {"want": "amber"} if f.dish.want == "mahogany" else {"finish": "air_fryer"}
    )
    says = "Stop at amber" if f.dish.want == "mahogany" else "Finish in the air fryer"
    if f.dish.want == "amber" and f.dish.finish == "air_fryer":
        repair, says = ({"coats": 1}, "One coat") if f.dish.coats > 1 else ({}, "")
    level = "stop" if m.possible < 0.05 else "careful"
    share = "nearly always" if m.possible < 0.05 else f"{1.0 - m.possible:.0%} of the time"
    yield WatchOut(
        "no-window",
        level,
        f"The edges burn before the food is {f.dish.want}, {share}.",
        "Lower heat, more distance, fewer coats, foil on the edges or another appliance would"
        " widen it.",
        "estimated",
        repair,
        says,
    )


def clock_blind(f: Forecast) -> Found:
    """An empty window by the clock is no verdict on the dish."""
    if f.milestones.window.empty and f.milestones.possible >= 0.05:
        yield WatchOut(
            "look",
            "careful",
            "The clock alone cannot tell you when: look.",
            "Appliances of this kind differ too much for a fixed number of minutes; what you see"
            " narrows it at once.",
            "estimated",
        )


# What the usual cautions say of opening each kind of first heat: message and why.
OPENING = {
    "pressure": (
        "steam",
        "Release steam away from face and cupboards; pin down before opening; never force a lid.",
        "Steam at pressure scalds at an arm's length.",
    ),
    "foil": (
        "foil-packet",
        "Doubled heavy foil over bones; open the packet away from you.",
        "Bones pierce it, and trapped steam comes out first.",
    ),
    "bath": (
        "bag",
        "Dry the bag before you open it, and keep its hot juice off your hands.",
        "Water at 65 °C scalds within a second or two.",
    ),
    "low_oven": (
        "rack-tray",
        "A tray under the rack, and dry cloths.",
        "Fat drips for hours; a wet cloth lets the heat through at once.",
    ),
    "air_fry": (
        "first-vents",
        "Keep the air fryer's vents clear; no loose paper; hot basket.",
        "The fan lifts paper onto the heater.",
    ),
}


def low_heat(f: Forecast) -> Found:
    """Frozen meat does not start in low dry heat or a slow cooker; a smoker stays outdoors."""
    heat = f.dish.first
    if f.dish.state == "frozen" and f.cut.gate and heat.key in ("low_oven", "smoke", "slow"):
        yield WatchOut(
            "frozen-low",
            "stop",
            f"Never straight from frozen into a {heat.name}.",
            "It thaws for hours at heats that bacteria like.",
            "fsis-consumer",
            {"state": "fridge"},
            "Thaw in the fridge first",
        )
    if heat.key == "smoke":
        yield WatchOut(
            "smoker-outdoors",
            "stop",
            "A smoker is for outdoors only, well away from walls and doors.",
            "Indoors, or in a tent or garage, it fills the air with carbon monoxide, which has no"
            " smell.",
            "estimated",
            {"tenderise": "low_oven", "timer_min": None, "liquid_l": None},
            "Use a low oven",
        )
    if heat.key == "slow":
        yield WatchOut(
            "lid-on",
            "good to know",
            "Leave the lid on: each look costs a slow cooker about twenty minutes.",
            "Its heater has little to spare.",
            "estimated",
        )


def bath_proof(f: Forecast) -> Found:
    """A bath too cool, too slow or too small; and food that leaves it only par-cooked."""
    if f.dish.tenderise != "bath":
        return
    bath_c = f.dish.kitchen.or_typical("bath_c")
    volume = f.dish.kitchen.or_typical("bath_volume_l")
    if f.cut.gate and bath_c < NO_CREDIT_BELOW_C:
        yield WatchOut(
            "bath-cool",
            "stop",
            f"A bath at {bath_c:g} °C is too cool for a cook this long.",
            "Under 54.4 °C nothing is pasteurised, and bacteria grow.",
            "fsis-guideline",
            {"kitchen": {"bath_c": 65.0}},
            "Set the bath to 65 °C",
        )
    elif f.cut.gate and f.safety.late_s > 6 * 3600.0:
        yield WatchOut(
            "bath-slow",
            "stop",
            f"The middle may take {f.safety.late_s / 3600:.1f} hours to pass 54.4 °C; six are the"
            " most.",
            "Thinner pieces, thawed first, or a warmer bath are quicker.",
            "fsis-guideline",
            {"state": "fridge"},
            "Thaw in the fridge first",
        )
    if f.cut.gate and f.safety.rests_on == "temperature" and bath_c < f.safety.wanted_c:
        yield WatchOut(
            "par-cooked",
            "careful",
            "Only par-cooked when that timer ends: never hold or chill it like that.",
            f"Neither {f.safety.wanted_c:g} °C nor a time that stands for it; the check sends it"
            " back into the bath.",
            "fsis-consumer",
            {"timer_min": None},
            "Use the computed timer",
        )
    if f.cut.species == "vegetable" and bath_c < 80.0:
        yield WatchOut(
            "bath-vegetable",
            "careful",
            f"Vegetables stay firm for hours at {bath_c:g} °C, whatever the timer says.",
            "What holds their cells together loosens from about 80 °C on; the cook value does not"
            " know that.",
            "estimated",
            {"kitchen": {"bath_c": 85.0}, "timer_min": None},
            "Set the bath to 85 °C",
        )
    food_l = 1e3 * f.dish.mass_kg / f.cut.food.density_kg_m3
    if value("bath_fill") * volume + food_l > volume:
        yield WatchOut(
            "bath-full",
            "stop",
            f"{f.dish.mass_kg:g} kg is too much for a bath of {volume:g} L.",
            "Water has to move round every bag, and it would run over.",
            "estimated",
            {"mass_kg": round(max(0.1, 0.2 * volume), 1)},
            f"Cook {max(0.1, 0.2 * volume):.1f} kg, the rest in a second batch",
        )


def surface_first(f: Forecast) -> Found:
    """What long dry heat does to the outside: weight leaves as steam, and bare skin darkens."""
    if f.lost_share > 0.12:
        yield WatchOut(
            "dries",
            "good to know",
            f"About {f.lost_share:.0%} of its weight leaves as steam.",
            "Open heat dries while it makes tender; foil or a lid keeps that in.",
            "estimated",
            (
                {"tenderise": "foil", "timer_min": None, "liquid_l": None}
                if f.dish.first.body == "oven"
                else {}
            ),
            "Close it in foil" if f.dish.first.body == "oven" else "",
        )
    if f.dish.tenderise == "air_fry" and f.skin_index > 5.0:
        yield WatchOut(
            "skin-dark",
            "careful",
            "The outside is dark long before the inside is as tender as you want.",
            "Turn it down, lay foil over it from the middle on, or make it tender in closed heat"
            " first.",
            "estimated",
            {"tenderise": "foil", "timer_min": None, "liquid_l": None},
            "Make it tender in foil first",
        )


def hot_things(f: Forecast) -> Found:
    """The usual cautions of the appliances in use."""
    lid = ("lid", "Lift the lid away from you.", "Trapped steam comes out first.")
    if f.dish.tenderise != "smoke" and not (
        f.dish.tenderise == "air_fry" and f.dish.finish == "air_fryer"
    ):
        key, message, why = OPENING.get(f.dish.tenderise, lid)
        yield WatchOut(key, "careful", message, why, "estimated")
    if f.dish.finish in ("grill", "charcoal"):
        yield WatchOut(
            "grill-outdoors",
            "stop",
            "A gas or charcoal grill is for outdoors only, well away from walls and doors.",
            "Indoors, or in a tent or garage, it fills the air with carbon monoxide, which has no"
            " smell.",
            "estimated",
            {"finish": "broiler"},
            "Finish under the broiler",
        )
        if f.dish.finish == "charcoal":
            yield WatchOut(
                "coals",
                "careful",
                "No lighter fluid on glowing coals; ash stays hot for a day.",
                "Vapour flashes back along the stream. Close the vents, and leave the ash outdoors"
                " in metal.",
                "estimated",
            )
    elif f.dish.finish == "contact":
        yield WatchOut(
            "plates",
            "careful",
            "Lower the lid slowly, fat runs to its edge; never press it down.",
            "Hot fat and glaze squirt from between the plates.",
            "estimated",
        )
    elif f.dish.finish == "crisping_lid":
        yield WatchOut(
            "lid-swap",
            "careful",
            "Empty the pot before the crisping lid goes on; set the hot pressure lid aside.",
            "Liquid left below steams the glaze instead of drying it.",
            "estimated",
        )
    elif f.dish.finish == "oven":
        yield WatchOut(
            "hot-tray",
            "careful",
            "No paper on the tray above what its maker says; use dry cloths.",
            "At 230 °C paper browns, and a wet cloth lets the heat through at once.",
            "estimated",
        )
    elif f.dish.finish == "broiler":
        yield WatchOut(
            "broiler",
            "careful",
            "Never leave the broiler; no paper or glass under it.",
            "Fat below can flare, paper burns and glass bursts at these heats.",
            "estimated",
        )
    else:
        yield WatchOut(
            "vents",
            "careful",
            "Keep the air fryer's vents clear; no loose paper; hot basket.",
            "The fan lifts paper onto the heater.",
            "estimated",
        )
    if f.dish.sauce is not None and f.dish.sauce.caramelises:
        yield WatchOut(
            "sugar",
            "careful",
            "Hot glaze sticks and burns skin.",
            "It is hotter than boiling water.",
            "estimated",
        )


def over_top(f: Forecast) -> Found:
    """A dial cannot be set past its end."""
    kind, first = f.dish.kind, f.dish.first
    for body, name, figure in (
        (first.body, first.name, first.dial),
        (f.dish.finish, kind.name, kind.dial),
    ):
        top, dial = f.dish.kitchen.tops_c.get(body), f.dish.kitchen.or_typical(figure)
        if top is not None and figure.endswith("_c") and dial > top:
            reached = max(LIMITS[figure][0], top)
            yield WatchOut(
                "over-top" if figure == kind.dial else "first-over-top",
                "careful",
                f"Your {name} goes up to {top:.0f} °C; this plan counts on {dial:.0f}.",
                "At its own highest heat it takes longer than planned.",
                "estimated",
                {"kitchen": {figure: reached}},
                f"Plan with {reached:.0f} °C",
            )


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
    if f.dish.finish == "broiler" and f.milestones.possible < 0.9 and "heavy foil" in gear:
        yield WatchOut(
            "foil-edges",
            "good to know",
            "Have strips of heavy foil ready for the edges.",
            "Edges burn first here; under foil they take about a quarter of the heat.",
            "estimated",
        )


def sugar_free(f: Forecast) -> Found:
    """No sugar, no caramel."""
    if f.dish.sauce is not None and not f.dish.sauce.caramelises:
        yield WatchOut(
            "sugar-free",
            "good to know",
            "This sauce holds too little sugar to caramelise.",
            "Go by crispness and plain browning; it can still scorch.",
            "estimated",
        )


def tender_chance(f: Forecast) -> Found:
    """A timer of the cook's own may miss the bite."""
    if f.tenderness.enough < 0.5:
        yield WatchOut(
            "tough",
            "careful",
            f"Only {f.tenderness.enough:.0%} likely to be as tender as you want.",
            f"Cook value {f.tenderness.likely:.0f}, wanted about {f.tenderness.target:.0f}.",
            "design",
            {"timer_min": None},
            "Use the computed timer",
        )
    elif f.tenderness.overdone > 0.2:
        yield WatchOut(
            "overdone",
            "careful",
            f"{f.tenderness.overdone:.0%} likely to be overdone.",
            f"Cook value {f.tenderness.likely:.0f}; past {f.cut.overdone:.0f} it turns stringy or"
            " mushy.",
            "design",
            {"timer_min": None},
            "Use the computed timer",
        )


def leftovers(f: Forecast) -> Found:
    """Said once for every dish with a gate."""
    if f.safety.gate:
        yield WatchOut(
            "leftovers",
            "good to know",
            "Leftovers: shallow, chilled within 2 hours, reheated to 74 °C.",
            "Kept in the fridge 3 to 4 days.",
            "fsis-consumer",
        )


RULES: tuple[Callable[[Forecast], Found], ...] = (
    liquid_least,
    pot_full,
    does_it_fit,
    core_safe,
    danger_zone,
    low_heat,
    bath_proof,
    surface_first,
    no_window,
    tender_chance,
    clock_blind,
    over_top,
    hot_things,
    gear_at_hand,
    sugar_free,
    leftovers,
)
