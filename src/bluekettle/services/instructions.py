"""What the Stove page says at each step: one sentence, what the button says, and a line more."""

from __future__ import annotations

from bluekettle.core.stages import TYPICAL, cut, finish_kind, first_heat
from bluekettle.schemas.dish import DishDocument, MachineDocument
from bluekettle.schemas.forecast import ForecastPublic


def minutes_text(time_s: float) -> str:
    """Minutes, or hours and minutes."""
    total = round(time_s / 60.0)
    return f"{total} min" if total < 90 else f"{total // 60} h {total % 60:02d}"


def degrees_text(temp_c: float) -> str:
    """Both scales: what is said aloud has no switch."""
    return f"{temp_c:.0f} °C ({1.8 * temp_c + 32:.0f} °F)"


def pieces_text(document: DishDocument) -> str:
    """ "the 6 ribs", "the head"."""
    piece = cut(document.cut).piece
    if document.pieces == 1:
        return f"the {piece}"
    return f"the {document.pieces} {piece}s"


def first_texts(
    document: DishDocument, forecast: ForecastPublic
) -> dict[str, tuple[str, str, str]]:
    """Sentence, button and detail of the steps of each first heat."""
    them = pieces_text(document)
    machine = document.kitchen.machines.get(first_heat(document.tenderise).job, MachineDocument())
    timer = minutes_text(forecast.timer_s)
    if machine.display == "hours":
        timer = (
            f"{int(forecast.timer_s // 3600)}:{int(forecast.timer_s // 60) % 60:02d} on its clock"
        )
    dial = degrees_text(forecast.target_c)
    press = f" Press “{machine.button}”." if machine.button else ""
    if document.tenderise == "pressure":
        high = f"Press “{machine.button}”" if machine.button else "Pressure high"
        after = (
            "It counts up after the end: that is not pressure time."
            if machine.counts_up
            else "Leave it."
        )
        return {
            "load": (
                f"{forecast.liquid_l:g} L of liquid, rack, {them}. Lid on. {high}, {timer}.",
                "Pot is on",
                "Valve closed. The timer counts from the pin, not from now.",
            ),
            "come_up": (
                "The pot comes up to pressure.",
                "Pin is up",
                "Nothing to do. This is the wait nobody counts.",
            ),
            "hold": ("Under pressure.", "Timer rang", after),
            "open": ("Pin down? Open the lid away from you.", "It is open", "Never force a lid."),
        }
    if document.tenderise == "foil":
        return {
            "load": (
                f"Wrap {them} in doubled heavy foil, seam up.",
                "It is wrapped",
                "Bones pierce one layer.",
            ),
            "oven_up": ("The oven is still heating.", "Oven is hot, packet in", ""),
            "hold": (f"In the foil: {timer} from when it went in.", "Time is up", "Leave it shut."),
            "open": (
                "Packet out. Open the foil away from you.",
                "It is open",
                "Keep the juices: they belong in the sauce.",
            ),
        }
    if document.tenderise == "low_oven":
        return {
            "load": (
                f"{them.capitalize()} on a rack over a tray.",
                "On the rack",
                "Air all round.",
            ),
            "oven_up": ("The oven is still heating.", "Oven is hot, tray in", ""),
            "hold": (
                f"In the low oven: {timer} from when it went in.",
                "Time is up",
                "Keep the door shut.",
            ),
            "open": ("Take the tray out.", "It is out", "Dry cloths."),
        }
    if document.tenderise == "air_fry":
        return {
            "load": (
                f"{them.capitalize()} in the basket, not touching.",
                "In the basket",
                "One layer.",
            ),
            "oven_up": ("The air fryer is still heating.", "It is hot, basket in", ""),
            "hold": (
                f"In the air fryer: {timer} from when it went in.",
                "Time is up",
                "Turn it once halfway.",
            ),
            "open": ("Take it out.", "It is out", "The basket is hot."),
        }
    if document.tenderise == "smoke":
        return {
            "load": (
                f"{them.capitalize()} onto the grate, fat side up. Water pan full.",
                "On the grate",
                "Outdoors only.",
            ),
            "oven_up": (
                f"The smoker is still coming to {dial}.",
                "It is hot, lid down",
                "Wait for thin smoke.",
            ),
            "hold": (
                f"In the smoke: {timer}.",
                "Time is up",
                "It stalls for a while: that is its own water leaving. Leave the lid down.",
            ),
            "open": (
                "Take it off the grate.",
                "It is off",
                "Lift it with both hands: it is soft now.",
            ),
        }
    if document.tenderise == "bath":
        return {
            "load": (
                f"Bag {them} in one layer, air out, sealed.",
                "Sealed",
                "Air in a bag floats, and floats cold.",
            ),
            "oven_up": (f"The bath is still coming to {dial}.", "It is hot, bags in", ""),
            "come_up": (
                "The bath comes back to its heat.",
                f"Back at {dial}",
                "The timer counts from there.",
            ),
            "hold": (
                f"In the water bath: {timer}.",
                "Time is up",
                "All of every bag stays under water.",
            ),
            "open": (
                "Out of the bag. Blot it very dry.",
                "Dry",
                "Wet skin steams, it does not brown.",
            ),
        }
    if document.tenderise == "simmer":
        return {
            "load": (
                f"{forecast.liquid_l:g} L of liquid, {them}. Burner on full, lid on.",
                "Burner is on",
                "Liquid just covers it.",
            ),
            "come_up": (
                "The pot comes to a simmer.",
                "It simmers",
                "Then turn it down: bubbles, not a boil.",
            ),
            "hold": (f"Simmering: {timer}.", "Time is up", "Lid ajar."),
            "open": (
                "Lift the lid away from you.",
                "It is open",
                "Lift it out with a broad spoon.",
            ),
        }
    if document.tenderise == "slow":
        return {
            "load": (
                f"{forecast.liquid_l:g} L of liquid, {them}. Lid on. Cooker on.{press}",
                "It is on",
                "Lid tight.",
            ),
            "come_up": (
                "The cooker warms through.",
                "It is hot",
                "Nothing to do. Keep the lid on.",
            ),
            "hold": (
                f"Slow-cooking: {timer} from when it was hot.",
                "Time is up",
                "Each look costs about twenty minutes.",
            ),
            "open": ("Lift the lid away from you.", "It is open", ""),
        }
    return {
        "load": (
            f"{forecast.liquid_l:g} L of liquid, {them}. Cover it.",
            "It is in the oven",
            "Lid tight.",
        ),
        "oven_up": ("The oven is still heating.", "Oven is hot", ""),
        "come_up": ("The dish warms to a simmer.", "It simmers", "Nothing to do."),
        "hold": ("Braising, covered.", "Time is up", "Leave the lid on."),
        "open": (
            "Take the dish out. Lift the lid away from you.",
            "It is open",
            "Never force a lid.",
        ),
    }


def switched_on(document: DishDocument, forecast: ForecastPublic) -> str:
    """What has to be switched on before anything else, so that it is hot when the food is ready for
    it.
    """
    heat = first_heat(document.tenderise)
    if not heat.preheat:
        return ""
    machine = document.kitchen.machines.get(heat.job, MachineDocument())
    oven_c = document.kitchen.oven_c if document.kitchen.oven_c is not None else TYPICAL["oven_c"]()
    dial = degrees_text(oven_c if document.tenderise == "braise" else forecast.target_c)
    # An oven's or a fryer's button is that of its finish.
    press = (
        f" Press “{machine.button}”." if machine.button and heat.job in ("bath", "smoker") else ""
    )
    name = {"bath": "Bath", "smoker": "Smoker", "air_fryer": "Air fryer"}.get(heat.body, "Oven")
    return f"{name} on, {dial}.{press} "


def say(key: str, document: DishDocument, forecast: ForecastPublic) -> tuple[str, str, str]:
    """Sentence, button and detail of a step; a step that is not known is told by its name."""
    them = pieces_text(document)
    kind = finish_kind(document.finish)
    fire = f"the {kind.name}"
    coat_g = forecast.sauce_g / max(1, document.coats)
    heat = document.kitchen.machines.get(document.finish, MachineDocument())
    switch = f"Switch {fire} on now" + (
        f": press “{heat.button}” on {heat.name or fire}." if heat.button else "."
    )
    if first_heat(document.tenderise).body == document.finish:
        switch = f"Turn {fire} up now" + (f": press “{heat.button}”." if heat.button else ".")
    natural = next((s.band.high_s for s in forecast.stages if s.key == "natural"), 0.0)
    texts = {
        "season": (
            f"{switched_on(document, forecast)}Pat {them} dry and salt all sides.",
            "Salted",
            "Dry browns. Wet steams.",
        ),
        "natural": (
            "Let the pressure fall by itself.",
            f"{minutes_text(natural)} are over",
            "Do not touch the valve yet.",
        ),
        "quick": (
            "Vent the rest. Face and cupboards away from the steam.",
            "Steam is out",
            "Use a spoon, not your hand.",
        ),
        **first_texts(document, forecast),
        "check": (
            f"Slide a skewer into the thickest {cut(document.cut).piece}.",
            "Checked",
            "No resistance means tender.",
        ),
        "lift": (f"{kind.lift}.", "Lifted", "Tongs for cooked food only."),
        "slack": (
            "Keep it covered. You are early.",
            "Go on",
            "This is your buffer: nothing is lost by waiting.",
        ),
        "brush": (
            f"Brush the first coat: {coat_g:.0f} g, faces and edges.",
            "Brushed",
            "Thin at the edges: they burn first.",
        ),
        "heat_up": (f"Wait for {fire}.", "It is hot", ""),
        "under": (
            kind.put,
            kind.button,
            "From now on I call you.",
        ),
        "finish": (f"{kind.into}: it is there now.", "It is out", ""),
        "out": (
            f"Is it out? {kind.name.capitalize()} off?",
            "Out and off",
            "Hot tray: set it on something that can take it.",
        ),
        "rest": ("Let it rest.", "Rested", "The glaze sets while it waits."),
        "serve": ("To the table.", "Served", ""),
        "preheat": (switch, "It is on", "So that it is hot when you need it."),
    }
    return texts.get(key, (key, "Done", ""))
