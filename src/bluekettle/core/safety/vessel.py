"""Rules of the vessel: liquid, lines, fit, steam and froth."""

from __future__ import annotations

from bluekettle.core.safety.watch import Found, Rule, WatchOut
from bluekettle.core.stages import Forecast, fits_of
from bluekettle.core.stages.forecast import vessel_litres
from bluekettle.core.tables import value
from bluekettle.core.units import amount, percent

FROTHY = ("vegetable",)  # starch and fibre foam when the pressure falls fast
NEARLY_FULL = 0.9  # of the line, from which a fast release may spit


def liquid_least(f: Forecast) -> Found:
    """A pot under its least liquid does not come to pressure, and scorches. A cup, 237 ml, is what
    makers call a quarter of a litre.
    """
    if f.dish.tenderise != "pressure":
        return
    least = float(f.dish.first.appliance["least_liquid_l"])
    if f.dish.liquid < least * (1.0 - value("least_liquid_leeway")):
        usual = amount(f.dish.first.liquid_l, "L")
        yield WatchOut(
            "liquid-least",
            "stop",
            f"{amount(f.dish.liquid, 'L')} is too little liquid to come to pressure.",
            f"A pot of this class wants at least {amount(least, 'L')} of thin liquid; with less it"
            " scorches and never seals.",
            "estimated",
            {"liquid_l": f.dish.first.liquid_l},
            f"Use {usual}",
        )


def pot_full(f: Forecast) -> Found:
    """A pot over its line blocks its own valve."""
    if f.fill is None or f.fill.share <= f.fill.line:
        return
    volume = vessel_litres(f.dish)
    over = f.fill.share * volume - f.dish.liquid
    # a little under the line (design)
    fits = max(0.1, 0.98 * f.dish.mass_kg * (f.fill.line * volume - f.dish.liquid) / over)
    yield WatchOut(
        "pot-full",
        "stop",
        f"The {f.dish.first.name} would be {percent(f.fill.share)} full; its line is at"
        f" {percent(f.fill.line)}.",
        "Above the line food can block the valve, and a braise boils over.",
        "estimated",
        {"mass_kg": round(fits, 1)},
        f"Cook {amount(round(fits, 1), 'kg')}, the rest in a second batch",
    )


def froth(f: Forecast) -> Found:
    """A very full or frothy pot is not vented fast."""
    if f.dish.tenderise != "pressure" or f.dish.release_kind == "natural" or f.fill is None:
        return
    full = f.fill.share > NEARLY_FULL * f.fill.line
    if full or f.cut.species in FROTHY:
        yield WatchOut(
            "froth",
            "careful",
            "Open the valve in short bursts: what comes out may foam.",
            "A very full or starchy pot spits through its valve when the pressure falls fast."
            if full
            else "Starch and fibre foam, and foam blocks the valve.",
            "estimated",
            {"release": "natural"},
            "Let the pressure fall by itself",
        )


def does_it_fit(f: Forecast) -> Found:
    """What does not fit is found out before anything is hot, where the kitchen's insides are
    known.
    """
    for job, fit in fits_of(f.dish).items():
        place = f"the {f.dish.first.name if job == f.dish.first.job else f.dish.kind.name}"
        place = "the pot" if job == "pot" else place
        for number, verdict in enumerate(fit.verdicts):
            if verdict.level == "fits" or verdict.about == "fill":
                continue  # line and liquid have rules of their own
            yield WatchOut(
                f"fit-{job}-{number}",
                verdict.level,
                f"In {place}: {verdict.message[0].lower()}{verdict.message[1:]}",
                verdict.repair or "Try it with a cold tray before anything is hot.",
                "estimated",
            )


# What the usual cautions say of opening each kind of first heat: id, message and why.
LID = ("lid", "Lift the lid away from you.", "Trapped steam comes out first.")
OPENING = {
    "pressure": (
        "steam",
        "Release steam away from face and cupboards; pin down before opening; never force a lid.",
        "Steam at pressure scalds at an arm's length.",
    ),
    "braise": LID,
    "simmer": LID,
    "slow": LID,
    "foil": (
        "foil-packet",
        "Doubled heavy foil over bones; open the packet away from you.",
        "Bones pierce it, and trapped steam comes out first.",
    ),
    "bath": (
        "bag",
        "Dry the bag before you open it, and keep its hot juice off your hands.",
        "Water this hot scalds within a second or two.",
    ),
    "low_oven": (
        "rack-tray",
        "A tray under the rack, and dry cloths: the fat in it is hot.",
        "Fat drips for hours; a wet cloth lets the heat through at once.",
    ),
    "air_fry": (
        "first-vents",
        "Keep the air fryer's vents clear; no loose paper; basket and fat are hot.",
        "The fan lifts paper onto the heater, and a tipped basket spills hot fat.",
    ),
    "smoke": (
        "grate",
        "Lift it off with dry gloves: the grate and the drip pan are hot.",
        "Fat has dripped for hours, and it burns.",
    ),
}


def opening(f: Forecast) -> Found:
    """The usual caution of opening the first heat."""
    if f.dish.tenderise == "air_fry" and f.dish.finish == "air_fryer":
        return  # said once, of the finish
    key, message, why = OPENING[f.dish.tenderise]
    yield WatchOut(key, "careful", message, why, "estimated")


RULES: tuple[Rule, ...] = (liquid_least, pot_full, froth, does_it_fit, opening)
