"""Cooks of one first heat and one finish (kettle.cook/1), lifted to those of a chain
(kettle.cook/2): pure functions of plain JSON, as in `upgrade`.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from bluekettle.schemas.upgrade import chain_of_dish

Json = dict[str, Any]

# The stage of the chain that each step belongs to, and its key there where that is another.
IN_COOK = ("load", "oven_up", "come_up", "hold", "turn", "hold-2", "natural", "quick", "open")
IN_FINISH = ("heat_up", "under", "out")
RENAMED = {
    "season": "season.season",
    "check": "cook.check",
    "check-again": "finish.check",
    "sauce": "glaze.made",
    "preheat": "finish.warm_up",
    "rest": "rest.rest",
    "bones": "bones.bones",
    "shred": "shred.shred",
    "slice": "slice.portions",
    "wait": "wait",
    "slack": "slack",
    "serve": "serve",
}
DRESSING = {"lift": "lift", "blot": "blot", "brush": "dress"}
ACTS_AND_LOOKS = ("finish", "coat", "turn")  # under the fire, with their numbers


def step_key(key: str, dressed: bool) -> str:
    """Key of a step as the chain's cook has it; `dressed`: a first coat went on before the fire.

    Raises ValueError for a step that no version ever had.
    """
    root, tilde, leg = key.partition("~")
    if root in RENAMED:
        found = RENAMED[root]
    elif root in IN_COOK:
        found = f"cook.{root}"
    elif root in DRESSING:
        found = f"{'dress' if dressed else 'finish'}.{DRESSING[root]}"
    elif root in IN_FINISH or root.partition("-")[0] in ACTS_AND_LOOKS:
        found = f"finish.{root}"
    else:
        raise ValueError(f"no step is called {key!r}")
    return f"{found}{tilde}{leg}"


def is_dressed(keys: Iterable[str]) -> bool:
    """Whether a first coat went on before the fire."""
    return "brush" in keys


def step_data(data: Json, dressed: bool) -> Json:
    """What is kept of a step beside its words."""
    found = dict(data)
    if found.get("before"):
        found["before"] = step_key(found["before"], dressed)
    if found.get("fire"):
        found["fire"] = "finish"
    evidence = found.get("evidence")
    if evidence and evidence.get("timed_step"):
        timed = step_key(evidence["timed_step"], dressed)
        found["evidence"] = {**evidence, "timed_step": timed}
    return found


def event_data(data: Json, dressed: bool) -> Json:
    """What is kept of an event: the steps that it names, and the ways back that came with it."""
    found = dict(data)
    if found.get("step"):
        found["step"] = step_key(found["step"], dressed)
    if found.get("jumped"):
        found["jumped"] = [step_key(key, dressed) for key in found["jumped"]]
    if found.get("legs"):
        found["legs"] = [leg_of(leg, dressed) for leg in found["legs"]]
    return found


def leg_of(leg: Json, dressed: bool) -> Json:
    """A way back."""
    steps = [
        {**step_data(step, dressed), "key": step_key(step["key"], dressed)} for step in leg["steps"]
    ]
    return {**leg, "steps": steps}


def chain_facts(facts: Json, dish: Json) -> Json:
    """kettle.cook/2 from kettle.cook/1: its two heats are two scenes of the same dish."""
    common = ("total", "headline_s", "hands_s", "safety", "allergens", "allergens_unknown")
    cook = {
        "dish": dish,
        "timer_s": facts["timer_s"],
        "target_c": facts["target_c"],
        "liquid_l": facts["liquid_l"],
        "sauce_g": 0.0,
        "glaze": None,
        "by": "",
    }
    finish = {
        **cook,
        "timer_s": 0.0,
        "sauce_g": facts["sauce_g"],
        "glaze": facts["glaze"],
        "by": "colour",
    }
    return {
        "format": "kettle.cook/2",
        **{name: facts[name] for name in common},
        "serve_at": facts.get("serve_at"),
        "warm_s": facts.get("warm_s"),
        "scenes": {"cook": cook, "finish": finish},
    }


def chain_of_cook(dish: Json, title: str) -> Json:
    """The document of a cook, with the name that it went by."""
    return {**chain_of_dish(dish), "name": title}
