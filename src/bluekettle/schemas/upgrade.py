"""Kept documents of earlier versions, lifted to the present shape: pure functions of plain JSON.

Each stored document names its format. What is older is lifted when the database is brought up to
date, step by step; what an open file brings is lifted when it is read.
"""

from __future__ import annotations

from typing import Any

from bluekettle.core.chain import heat_keys, heat_row
from bluekettle.core.errors import CoreError, MissingData
from bluekettle.core.stages import cut, finish_kind, first_heat
from bluekettle.core.tables import value
from bluekettle.schemas.dish import DishDocument

Json = dict[str, Any]
# What lifting a damaged record can raise: it stays as it is then, and its list sets it aside.
UNREADABLE = (ValueError, TypeError, KeyError, AttributeError, CoreError)

STRIP_COLOURS = 40
APPROACH = ("brush", "heat_up", "under")
COLOURS = {"too dark": "bitter"}


def upgrade_glaze(raw: Json) -> Json:
    """A glaze strip: coats by when and how long, looks apart from calls, signs it is held to."""
    found = dict(raw)
    coats = [
        {"at_s": c["start_s"], "away_s": max(0.0, c["end_s"] - c["start_s"])}
        if "start_s" in c
        else c
        for c in raw.get("coats", [])
    ]
    found["coats"] = coats
    found.setdefault("appliance_name", str(raw.get("appliance", "heat")).replace("_", " "))
    found.setdefault("flips_s", [])
    found.setdefault("back", None)
    found.setdefault("seen", [])
    calls = raw.get("calls", [])
    found.setdefault("looks_s", [c["at_s"] for c in calls if c.get("level") in ("look", "closer")])
    return found


def facts_of_forecast(raw: Json) -> Json:
    """kettle.cook/1 from the whole forecast that a cook used to keep."""
    safety = {"rests_on": "temperature", "probe_c": None, **raw["safety"]}
    names = ("timer_s", "target_c", "liquid_l", "sauce_g", "total", "headline_s", "hands_s")
    return {
        "format": "kettle.cook/1",
        **{name: raw[name] for name in names},
        "safety": safety,
        "glaze": upgrade_glaze(raw["glaze"]),
        "warm_s": None,
        "serve_at": raw.get("serve_at"),
        "allergens": [],
        "allergens_unknown": [],
    }


def steps_of_forecast(raw: Json) -> list[Json]:
    """Rows of a cook's steps from the stages of the forecast that it used to keep."""
    safety = raw["safety"]
    usual = safety["wanted_c"] if safety["gate"] else None
    timed = safety.get("probe_c") if safety.get("rests_on") == "time" else None
    rows = []
    for stage in raw["stages"]:
        data: Json = {
            "beside": not stage["serial"],
            "before": "under" if stage["key"] == "preheat" else "",
            "fire": "finish" if stage["who"] == "fire" else "",
            "act": "",
            "approach": stage["key"] in APPROACH,
            "evidence": None,
        }
        if stage["who"] == "gate":
            data["evidence"] = {
                "tender": True,
                "usual_c": usual,
                "timed_c": timed,
                "timed_step": "hold" if timed is not None else "",
                "timed_s": raw["timer_s"] if timed is not None else 0.0,
            }
        band = stage["band"]
        rows.append(
            {
                "key": stage["key"],
                "who": stage["who"],
                "label": stage["label"],
                **{name: band[name] for name in ("low_s", "likely_s", "high_s")},
                "data": data,
            }
        )
    return rows


def strip_of_glaze(raw: Json, pulled_s: float | None) -> Json:
    """Forty colours of a planned strip, and when it was taken out."""
    every = max(1, len(raw["face"]) // STRIP_COLOURS)
    return {
        "face": raw["face"][::every],
        "edge": raw["edge"][::every],
        "horizon_s": raw["horizon_s"],
        "pulled_s": pulled_s,
    }


def mark_jumps(steps: list[Json], events: list[Json]) -> list[Json]:
    """Data of events in order, those that passed over an open gate marked with its key.

    Earlier versions let a later step be told without a word about the check. It counts as it was
    told, and the check as skipped without a reason. Each event: seq, kind, data.
    """
    line = [s["key"] for s in steps if not s["data"]["beside"]]
    gates = {s["key"]: s["data"]["evidence"] for s in steps if s["who"] == "gate"}
    gone = {e["data"].get("undoes") for e in events if e["kind"] == "undo"}
    closed: set[str] = set()
    marked = []
    for event in events:
        data = dict(event["data"])
        key = data.get("step", "")
        if event["kind"] == "done" and key in line and event["seq"] not in gone:
            if key in gates:
                closed |= {key} if _good(gates[key], data) else set()
            else:
                jumped = [g for g in gates if line.index(g) < line.index(key) and g not in closed]
                if jumped:
                    data["jumped"] = jumped
                    closed |= set(jumped)
        marked.append(data)
    return marked


def _good(evidence: Json, told: Json) -> bool:
    """Whether a check was good by what an earlier version asked for."""
    least = evidence["timed_c"] if evidence["timed_c"] is not None else evidence["usual_c"]
    warm = least is None or (told.get("temp_c") is not None and told["temp_c"] >= least - 0.25)
    return told.get("tender") is True and warm


def upgrade_outcome(colour: str) -> str:
    """The word of a colour as the milestones call it."""
    return COLOURS.get(colour, colour)


def is_dish(raw: Any) -> bool:
    """Whether this is a kettle.dish/1: it says so, or it says nothing and has its fields."""
    if not isinstance(raw, dict):
        return False
    return raw.get("format") == "kettle.dish/1" or ("format" not in raw and "cut" in raw)


def chain_of_dish(raw: Json) -> Json:
    """kettle.dish/2 from kettle.dish/1: the first heat, the finish and what stood between them, as
    stages. The dish is checked as what it is first.
    """
    dish = DishDocument.model_validate(raw)
    kitchen = dish.kitchen.model_dump(mode="json")
    first, kind = first_heat(dish.tenderise), finish_kind(dish.finish)
    stages: list[Json] = [
        {"kind": "season", "id": "season"},
        {
            "kind": "heat",
            "id": "cook",
            "heat": heat_of(slow=first.key),
            "until": {"by": "bite", "minutes": dish.timer_min or None, "bite": dish.bite},
            "dial": kitchen.get(first.dial),
            "release": dish.release if heat_row(heat_of(slow=first.key)).body == "pot" else None,
            "liquid_l": dish.liquid_l,
        },
    ]
    moments = dish.coats_min if dish.coats_min is not None else [None] * dish.coats
    before = dish.coats > 0 and not moments[0]
    if before:
        stages.append({"kind": "dress", "id": "dress", "layer": GLAZE, "mm": dish.coat_mm})
    acts: list[Json] = [
        {"do": "coat", "at_min": minute, "layer": GLAZE} for minute in moments[int(before) :]
    ]
    acts += [{"do": "turn", "at_min": minute} for minute in dish.flips_min]
    stages += [
        {
            "kind": "heat",
            "id": "finish",
            "heat": heat_of(fierce=kind.key),
            "until": {"by": "colour", "want": dish.want},
            "dial": kitchen.get(kind.dial),
            "acts": sorted(acts, key=lambda act: act["at_min"] or 0.0),
            "coat_mm": dish.coat_mm,
        },
        {"kind": "rest", "id": "rest", "minutes": value("rest_s") / 60.0, "covered": True},
        *apart_at_last(dish),
    ]
    sauce = dish.model_dump(mode="json")["sauce"]
    boiled = isinstance(sauce, dict) and sauce["contact"] == "boiled"
    return {
        "format": "kettle.dish/2",
        "food": {name: getattr(dish, name) for name in FOOD_FIELDS},
        "layers": [{"id": GLAZE, "sauce": sauce, "boiled": boiled}] if sauce else [],
        "stages": stages,
        "kitchen": kitchen,
        "serve_at": raw.get("serve_at"),
        "seed": dish.seed,
        "sightings": {"finish": [s.model_dump() for s in dish.sightings]} if dish.sightings else {},
    }


def chain_of_plan(raw: Json, title: str) -> Json:
    """A kept plan as a chain, with the name that it went by; one that is a chain stays as it is.

    Raises ValueError where it cannot be read.
    """
    return {**chain_of_dish(raw), "name": title} if is_dish(raw) else raw


GLAZE = "glaze"
FOOD_FIELDS = ("cut", "mass_kg", "pieces", "thickness_mm", "state")


def apart_at_last(dish: DishDocument) -> list[Json]:
    """What the bite asks of hands before the table."""
    found = cut(dish.cut)
    if dish.bite == "shreds":
        bones = {"kind": "take_apart", "id": "bones", "how": "bones"}
        shred = {"kind": "take_apart", "id": "shred", "how": "shred"}
        return [bones, shred] if found.on_the_bone else [shred]
    if dish.bite == "sliceable" and found.gate:
        return [{"kind": "take_apart", "id": "slice", "how": "portions", "pieces": dish.pieces}]
    return []


def heat_of(slow: str = "", fierce: str = "") -> str:
    """The heat that has this slow or this fierce model; MissingData where none has."""
    for key in heat_keys():
        row = heat_row(key)
        if slow and row.slow is not None and row.slow.key == slow:
            return key
        if fierce and row.fierce is not None and row.fierce.key == fierce:
            return key
    raise MissingData("heats", slow or fierce, heat_keys())
