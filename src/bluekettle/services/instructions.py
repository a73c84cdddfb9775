"""What the Stove page says at each step: one sentence, what the button says, and a line more."""

from __future__ import annotations

from bluekettle.core.stages import cut, finish_kind
from bluekettle.schemas.dish import DishDocument, MachineDocument
from bluekettle.schemas.forecast import ForecastPublic


def minutes_text(time_s: float) -> str:
    """Minutes, or hours and minutes."""
    total = round(time_s / 60.0)
    return f"{total} min" if total < 90 else f"{total // 60} h {total % 60:02d}"


def pieces_text(document: DishDocument) -> str:
    """ "the 6 ribs", "the head"."""
    piece = cut(document.cut).piece
    if document.pieces == 1:
        return f"the {piece}"
    return f"the {document.pieces} {piece}s"


def say(key: str, document: DishDocument, forecast: ForecastPublic) -> tuple[str, str, str]:
    """Sentence, button and detail of a step; a step that is not known is told by its name."""
    them = pieces_text(document)
    kind = finish_kind(document.finish)
    fire = f"the {kind.name}"
    pot = "pot" if document.tenderise == "pressure" else "dish"
    coat_g = forecast.sauce_g / max(1, document.coats)
    pressure, heat = (document.kitchen.machines.get(job, MachineDocument()) for job in ("pot", document.finish))
    high = f"Press “{pressure.button}”" if pressure.button else "Pressure high"
    timer = minutes_text(forecast.timer_s)
    if pressure.display == "hours" and pot == "pot":
        timer = f"{int(forecast.timer_s // 3600)}:{int(forecast.timer_s // 60) % 60:02d} on its clock"
    after = "It counts up after the end: that is not pressure time." if pressure.counts_up else "Leave it."
    switch = f"Switch {fire} on now" + (f": press “{heat.button}” on {heat.name or fire}." if heat.button else ".")
    natural = next((s.band.high_s for s in forecast.stages if s.key == "natural"), 0.0)
    texts = {
        "season": (f"Pat {them} dry and salt all sides.", "Salted", "Dry browns. Wet steams."),
        "load": (
            f"{forecast.liquid_l:g} L of liquid, rack, {them}. Lid on. {high}, {timer}."
            if pot == "pot"
            else f"{forecast.liquid_l:g} L of liquid, {them}. Cover it. Oven on.",
            "Pot is on" if pot == "pot" else "It is in the oven",
            "Valve closed. The timer counts from the pin, not from now." if pot == "pot" else "Lid tight.",
        ),
        "oven_up": ("The oven is still heating.", "Oven is hot", ""),
        "come_up": (
            ("The pot comes up to pressure.", "Pin is up", "Nothing to do. This is the wait nobody counts.")
            if pot == "pot"
            else ("The dish warms to a simmer.", "It simmers", "Nothing to do.")
        ),
        "hold": (
            ("Under pressure.", "Timer rang", after) if pot == "pot" else ("Braising, covered.", "Time is up", "Leave the lid on.")
        ),
        "natural": (
            "Let the pressure fall by itself.", f"{minutes_text(natural)} are over", "Do not touch the valve yet.",
        ),
        "quick": ("Vent the rest. Face and cupboards away from the steam.", "Steam is out", "Use a spoon, not your hand."),
        "open": (
            "Pin down? Open the lid away from you." if pot == "pot" else "Take the dish out. Lift the lid away from you.",
            "It is open", "Never force a lid.",
        ),
        "check": (
            f"Slide a skewer into the thickest {cut(document.cut).piece}.", "Checked", "No resistance means tender.",
        ),
        "lift": (f"{kind.lift}.", "Lifted", "Tongs for cooked food only."),
        "slack": ("Keep it covered. You are early.", "Go on", "This is your buffer: nothing is lost by waiting."),
        "brush": (f"Brush the first coat: {coat_g:.0f} g, faces and edges.", "Brushed", "Thin at the edges: they burn first."),
        "heat_up": (f"Wait for {fire}.", "It is hot", ""),
        "under": (
            kind.put, kind.button, "From now on I call you.",
        ),
        "finish": (f"{kind.into}: it is there now.", "It is out", ""),
        "out": (f"Is it out? {kind.name.capitalize()} off?", "Out and off", "Hot tray: set it on something that can take it."),
        "rest": ("Let it rest.", "Rested", "The glaze sets while it waits."),
        "serve": ("To the table.", "Served", ""),
        "preheat": (switch, "It is on", "So that it is hot when you need it."),
    }  # fmt: skip
    return texts.get(key, (key, "Done", ""))
