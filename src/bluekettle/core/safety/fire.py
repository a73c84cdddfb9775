"""Rules of the finish: where it may stand, what is hot, and whether there is a window."""

from __future__ import annotations

from bluekettle.core.safety.watch import (
    OWN_TIMER,
    OWN_TIMER_SAYS,
    Found,
    Rule,
    WatchOut,
    other_heat,
)
from bluekettle.core.stages import LIMITS, Forecast
from bluekettle.core.tables import value
from bluekettle.core.units import amount, percent

SELDOM, OFTEN = 0.05, 0.8  # chances of the wanted colour
SMOKE_WHY = (
    "Indoors, or in a tent or garage, it fills the air with carbon monoxide, which has no smell."
)
DRIES_FROM = 0.12  # of its weight


def no_window(f: Forecast) -> Found:
    """Where the wanted colour seldom comes before burning, say so and say what would help."""
    m = f.milestones
    if m.possible >= OFTEN or f.skin_index >= value("bitter_index"):
        return  # enough, or spoilt before it comes under this heat, which is told by itself
    repair: dict[str, object] = {"finish": "air_fryer"}
    says = "Finish in the air fryer"
    if f.dish.want == "mahogany":
        repair, says = {"want": "amber"}, "Stop at amber"
    elif f.dish.finish == "air_fryer":
        repair, says = ({"coats": 1}, "One coat") if f.dish.coats > 1 else ({}, "")
    level = "stop" if m.possible < SELDOM else "careful"
    share = "nearly always" if m.possible < SELDOM else f"{10 * (1.0 - m.possible):.0f} times in 10"
    yield WatchOut(
        "no-window",
        level,
        f"The edges burn before the food is {f.dish.want}, {share}.",
        "Lower heat, more distance, fewer coats, foil on the edges or another appliance would widen"
        " it.",
        "estimated",
        repair,
        says,
    )


def clock_blind(f: Forecast) -> Found:
    """An empty window by the clock is no verdict on the dish."""
    if f.milestones.window.empty and f.milestones.possible >= SELDOM:
        yield WatchOut(
            "look",
            "careful",
            "The clock alone cannot tell you when: look.",
            "Appliances of this kind differ too much for a fixed number of minutes; what you see"
            " narrows it at once.",
            "estimated",
        )


def outdoors(f: Forecast) -> Found:
    """Coals, gas and smoke are for outdoors: careful where that is where they stand, a stop where
    somebody said that they do not.
    """
    places: tuple[tuple[str, str, dict[str, object], str], ...] = (
        (f.dish.first.job, f.dish.first.name, other_heat("low_oven"), "Use a low oven"),
        (
            f.dish.finish,
            f.dish.kind.name,
            {"finish": "broiler"},
            "Finish under the broiler",
        ),
    )
    for job, name, repair, says in places:
        if job not in ("smoker", "grill", "charcoal"):
            continue
        indoors = job in f.dish.kitchen.indoors
        yield WatchOut(
            f"{job}-outdoors",
            "stop" if indoors else "careful",
            f"A {name} is for outdoors only, well away from walls and doors.",
            SMOKE_WHY,
            "estimated",
            repair,
            says,
        )


def coals(f: Forecast) -> Found:
    """Glowing coals."""
    if f.dish.finish == "charcoal":
        yield WatchOut(
            "coals",
            "careful",
            "No lighter fluid on glowing coals; ash stays hot for a day.",
            "Vapour flashes back along the stream. Close the vents, and leave the ash outdoors in"
            " metal.",
            "estimated",
        )


HOT = {
    "broiler": (
        "broiler",
        "Never leave the broiler; no paper or glass under it.",
        "Hot fat in the tray can flare, paper burns and glass bursts at these heats.",
    ),
    "oven": (
        "hot-tray",
        "No paper on the tray above what its maker says; dry cloths; hot fat in the tray.",
        "Paper browns at these heats, and a wet cloth lets the heat through at once.",
    ),
    "air_fryer": (
        "vents",
        "Keep the air fryer's vents clear; no loose paper; basket and fat are hot.",
        "The fan lifts paper onto the heater, and a tipped basket spills hot fat.",
    ),
    "crisping_lid": (
        "lid-swap",
        "Empty the pot before the crisping lid goes on; set the hot pressure lid aside.",
        "Liquid left below steams the glaze instead of drying it.",
    ),
    "contact": (
        "plates",
        "Lower the lid slowly, fat runs to its edge; never press it down.",
        "Hot fat and glaze squirt from between the plates.",
    ),
    "grill": (
        "flare",
        "Keep clear of flare-ups: fat drips into the fire. Water never goes on burning fat.",
        "Move the food aside and shut the lid instead.",
    ),
    "charcoal": (
        "flare",
        "Keep clear of flare-ups: fat drips into the fire. Water never goes on burning fat.",
        "Move the food aside and shut the lid instead.",
    ),
}


def hot_things(f: Forecast) -> Found:
    """The usual cautions of the finish in use."""
    key, message, why = HOT[f.dish.finish]
    yield WatchOut(key, "careful", message, why, "estimated")
    if f.dish.sauce is not None and f.dish.sauce.caramelises:
        yield WatchOut(
            "sugar",
            "careful",
            "Hot glaze sticks and burns skin.",
            "It is hotter than boiling water.",
            "estimated",
        )


def surface_first(f: Forecast) -> Found:
    """What long dry heat does to the outside: weight leaves as steam, and bare skin darkens."""
    if f.lost_share > DRIES_FROM:
        foil = f.dish.first.body == "oven"
        yield WatchOut(
            "dries",
            "good to know",
            f"About {percent(f.lost_share)} of its weight leaves as steam.",
            "Open heat dries while it makes tender; foil or a lid keeps that in.",
            "estimated",
            other_heat("foil") if foil else {},
            "Close it in foil" if foil else "",
        )
    if f.skin_index >= value("bitter_index"):
        burnt = f.skin_index >= value("burnt_index")
        yield WatchOut(
            "skin-dark",
            "stop" if burnt else "careful",
            f"The outside is {'burnt' if burnt else 'bitter'} before the inside is as tender as you"
            " want.",
            "Turn it down, lay foil over it from the middle on, or make it tender in closed heat"
            " first.",
            "estimated",
            other_heat("foil"),
            "Make it tender in foil first",
        )


def over_top(f: Forecast) -> Found:
    """A dial cannot be set past its end."""
    kind, first = f.dish.kind, f.dish.first
    for body, name, figure in (
        (first.body, first.name, first.dial),
        (f.dish.finish, kind.name, kind.dial),
    ):
        top, dial = f.dish.kitchen.tops_c.get(body), f.dish.kitchen.or_typical(figure)
        if top is None or not figure.endswith("_c") or dial <= top:
            continue
        reached = max(LIMITS[figure][0], top)
        yield WatchOut(
            "over-top" if figure == kind.dial else "first-over-top",
            "careful",
            f"Your {name} goes up to {amount(top, '°C')}; this plan counts on"
            f" {amount(dial, '°C')}.",
            "At its own highest heat it takes longer than planned.",
            "estimated",
            {"kitchen": {figure: reached}},
            f"Plan with {amount(reached, '°C')}",
        )


def tender_chance(f: Forecast) -> Found:
    """A timer of the cook's own may miss the bite."""
    if f.tenderness.enough < 0.5:
        yield WatchOut(
            "tough",
            "careful",
            f"As tender as you want only {10 * f.tenderness.enough:.0f} times in 10.",
            f"Cook value {f.tenderness.likely:.0f}, wanted about {f.tenderness.target:.0f}.",
            "design",
            dict(OWN_TIMER),
            OWN_TIMER_SAYS,
        )
    elif f.tenderness.overdone > OVERDONE_FROM:
        yield WatchOut(
            "overdone",
            "careful",
            f"Overdone {10 * f.tenderness.overdone:.0f} times in 10.",
            f"Cook value {f.tenderness.likely:.0f}; past {f.cut.overdone:.0f} it turns stringy or"
            " mushy.",
            "design",
            dict(OWN_TIMER),
            OWN_TIMER_SAYS,
        )


OVERDONE_FROM = 0.2  # told from one evening in five on (design)


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


RULES: tuple[Rule, ...] = (
    outdoors,
    surface_first,
    no_window,
    tender_chance,
    clock_blind,
    over_top,
    coals,
    hot_things,
    sugar_free,
)
