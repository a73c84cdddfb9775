"""Figures of dishes that a change of the model has to account for. Not a proof that they are right
(tests/against is): a proof that they do not move unseen.

Where they should move, say why in the commit and write them anew:
`.venv/bin/python -m tests.core.golden`, which prints what moved most.
"""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import numpy as np

from bluekettle.core.advice import Setting, advise, plan_effects
from bluekettle.core.chain import Plan, forecast_plan, plan_steps
from bluekettle.core.sauce import sample_sauce
from bluekettle.core.stages import (
    LIMITS,
    Band,
    Failed,
    Kitchen,
    finish_kind,
    ways_back,
)
from bluekettle.core.stages import figures as kitchen_figures
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.one_cook import Dish, Told, watch_outs

FILE = Path(__file__).with_name("goldens.json")
# The least absolute change that counts, by the ending of a figure's name; else 1e-6.
FLOOR = {"_s": 0.05, "_c": 0.01, "_min": 0.02, "_log": 0.01, "": 1e-4}
RELATIVE = 0.004  # between two machines; a change of one constant by a tenth moves something more

RIBS = {"cut": "beef-short-ribs", "mass_kg": 1.6, "pieces": 6, "thickness_mm": 45.0}
RACK = {"cut": "pork-ribs", "mass_kg": 1.4, "pieces": 4, "thickness_mm": 26.0, "bite": "tug"}
THIGHS = {"cut": "chicken-thighs", "mass_kg": 1.0, "pieces": 6, "thickness_mm": 35.0, "bite": "tug"}
LEGS = {
    "cut": "turkey-drumsticks",
    "mass_kg": 1.8,
    "pieces": 4,
    "thickness_mm": 60.0,
    "bite": "tug",
}
PLUM = {"sauce": "plum-tea", "coats": 2}
DATE = {"sauce": "date-mustard", "coats": 1}
# Every first heat and every finish at least once; frozen, turned, bare, one's own kitchen.
DISHES: dict[str, dict[str, Any]] = {
    "pressure, broiler": {**RIBS, **PLUM},
    "frozen, natural release, air fryer": {
        **RIBS,
        **DATE,
        "state": "frozen",
        "release": "natural",
        "finish": "air_fryer",
    },
    "quick release, bare, broiler close": {
        "cut": "pork-shoulder",
        "mass_kg": 1.8,
        "pieces": 5,
        "thickness_mm": 60.0,
        "bite": "shreds",
        "release": "quick",
        "kitchen": {"rack_m": 0.08, "altitude_m": 1500.0},
    },
    "braise, hot oven": {**RIBS, **PLUM, "tenderise": "braise", "finish": "oven"},
    "foil, gas grill turned": {
        **RACK,
        **DATE,
        "tenderise": "foil",
        "finish": "grill",
        "flips_min": (3.0,),
    },
    "low oven, hot oven, mahogany": {
        "cut": "lamb-breast",
        "mass_kg": 1.5,
        "pieces": 2,
        "thickness_mm": 35.0,
        "bite": "tug",
        "tenderise": "low_oven",
        "finish": "oven",
        "want": "mahogany",
        "sauce": "date-mustard",
        "coats": 2,
        "coats_min": (0.0, 4.0),
    },
    "air fried through": {**THIGHS, **PLUM, "tenderise": "air_fry", "finish": "air_fryer"},
    "smoke, charcoal": {**RACK, **PLUM, "tenderise": "smoke", "finish": "charcoal"},
    "bath at 65, air fryer": {
        **LEGS,
        **DATE,
        "tenderise": "bath",
        "finish": "air_fryer",
        "kitchen": {"bath_c": 65.0},
    },
    "simmer, contact grill": {
        "cut": "octopus",
        "mass_kg": 1.4,
        "pieces": 8,
        "thickness_mm": 35.0,
        "bite": "tug",
        "tenderise": "simmer",
        "finish": "contact",
        "sauce": "date-mustard",
        "coats": 1,
    },
    "slow cooker, crisping lid": {**RIBS, **PLUM, "tenderise": "slow", "finish": "crisping_lid"},
    "vegetable, pressure, oven": {
        "cut": "cauliflower",
        "mass_kg": 0.9,
        "pieces": 1,
        "thickness_mm": 150.0,
        "bite": "tug",
        "finish": "oven",
        "sauce": "bottled-sweet",
        "coats": 1,
    },
}
ADVISED = ("pressure, broiler", "air fried through")
# What a thermometer or a fork may say at the check, and what is planned from it.
FAILED = {
    "cold": Failed(read_c=58.0, cold=True, tough=False),
    "tough": Failed(read_c=88.0, cold=False, tough=True),
    "unread": Failed(read_c=None, cold=False, tough=True),
}


def dish_named(name: str) -> Dish:
    """A dish of the list."""
    made = dict(DISHES[name])
    made["kitchen"] = Kitchen(**made.pop("kitchen", {}))
    sauce = made.pop("sauce", None)
    return Dish(**made, sauce=sample_sauce(sauce) if sauce else None)


def plan_named(name: str) -> Plan:
    """The chain that a dish of the list is read as."""
    document = json.loads(json.dumps(DISHES[name]))
    return plan_of(ChainDocument.model_validate(document))


def told_of(name: str) -> Told:
    """Its forecast."""
    return Told(dish_named(name), forecast_plan(plan_named(name)))


def figures(name: str) -> dict[str, Any]:
    """All that is compared of a dish."""
    found = told_of(name)
    told: dict[str, Any] = {}
    for part in (chain, pot, inside, glaze):
        told |= part(found)
    told["watch_outs"] = [f"{w.level} {w.id}" for w in watch_outs(found)]
    return told


def band(name: str, of: Band) -> dict[str, float]:
    """A band as three figures."""
    return {
        f"{name}.low_s": of.low_s,
        f"{name}.likely_s": of.likely_s,
        f"{name}.high_s": of.high_s,
    }


def chain(f: Told) -> dict[str, Any]:
    """The links, their sums and what is least sure."""
    told: dict[str, Any] = {"least_sure": f.least_sure, "headline_s": f.headline_s}
    told |= band("total", f.total) | band("hands", f.hands) | band("come_up", f.come_up)
    for stage in f.stages:
        told |= band(stage.key, stage.band)
        told[f"{stage.key}.who"] = f"{stage.who}{' hidden' if stage.hidden else ''}"
    return told


def pot(f: Told) -> dict[str, Any]:
    """What goes in and how full it gets."""
    told: dict[str, Any] = {
        "timer_s": f.timer_s,
        "target_c": f.run.target_c,
        "liquid_l": f.whole.slows[0].liquid_l,
        "sauce_kg": sum(f.whole.sauce_kg.values()),
        "lost_kg_m2": float(np.median(f.run.lost_kg_m2)),
        "warm_s": f.warm_s,
        "skin.crust_mm": 1e3 * float(np.median(f.run.crust_m)),
        "skin.browned": float(np.median(f.run.browned)),
        "skin.charred": float(np.median(f.run.charred)),
    }
    if f.fill is not None:
        told |= {"fill.share": f.fill.share, "fill.after_l": f.fill.liquid_after_l}
    return told


def inside(f: Told) -> dict[str, Any]:
    """Tender and safe."""
    t, s = f.tenderness, f.safety
    return {
        "tender.low": t.low,
        "tender.likely": t.likely,
        "tender.high": t.high,
        "tender.target": t.target,
        "tender.enough": t.enough,
        "tender.overdone": t.overdone,
        "core_low_c": s.core_low_c,
        "core_likely_c": s.core_likely_c,
        "wanted_c": s.wanted_c,
        "probe_c": s.probe_c,
        "rests_on": s.rests_on,
        "low_log": s.log_low,
        "danger_min": s.danger_min,
        "late_s": s.late_s,
        "deep_c": float(np.median(f.under.below.deep_c)),
        "surface_c": float(np.median(f.under.below.surface_c)),
    }


def glaze(f: Told) -> dict[str, Any]:
    """Milestones, windows, looks and risk."""
    m = f.milestones
    told: dict[str, Any] = {
        "window.opens_s": m.window.opens_s,
        "window.closes_s": m.window.closes_s,
        "window.hit": m.window.hit,
        "look_from_s": m.look_from_s,
        "look_every_s": m.look_every_s,
        "possible": m.possible,
        "finish_timer_s": f.finish_timer_s,
        "horizon_s": float(f.finish.sample_s[-1]),
        "risk.mean": float(m.risk.mean()),
        "wanted.mean": float(m.wanted.mean()),
        "strip.mean": float(f.strip_index.mean()),
    }
    for site, marks in m.bands.items():
        for mark, of in marks.items():
            told[f"{site}.{mark}.likely_s"] = of.likely_s
            told[f"{site}.{mark}.reached"] = of.reached
    for gap in m.gaps:
        told[f"after {gap.sign}.likely_s"] = gap.to_wanted.likely_s
        told[f"{gap.sign} to burnt.low_s"] = gap.wanted_to_burnt.low_s
    return told


def returns(name: str) -> dict[str, Any]:
    """Ways back from each failed check: where to, and how long."""
    found, dish = told_of(name), dish_named(name)
    gate = next((step for step in plan_steps(found.whole) if step.who == "gate"), None)
    told: dict[str, Any] = {}
    if gate is None:
        return told
    for what, failed in FAILED.items():
        legs = ways_back(dish.slow, dish.bite, gate, failed, dish.finish)
        told[f"{what}.ways"] = [leg.heat for leg in legs]
        for place, leg in enumerate(legs):
            for step in leg.steps:
                told[f"{what}.{place}.{step.key}.likely_s"] = step.likely_s
    return told


def advice(name: str) -> dict[str, Any]:
    """What is advised, with its words, and what every assumption is worth in minutes."""
    found = advise(told_of(name).under)
    told: dict[str, Any] = {"now": found.now.reason, "none_safe": found.none_safe}
    for place, one in enumerate((found.choice, *found.runners)):
        told[f"{place}.change"] = json.dumps(change_of(one), sort_keys=True)
        told[f"{place}.reason"] = one.reason
        told |= {f"{place}.width_s": one.width_s, f"{place}.opens_s": one.opens_s}
        told |= {f"{place}.hit": one.hit, f"{place}.possible": one.possible}
    for effect in plan_effects(plan_named(name)):
        told[f"{effect.name}.low_min"] = effect.plate_low_min
        told[f"{effect.name}.high_min"] = effect.plate_high_min
        told[f"{effect.name}.ask"] = effect.ask
    return told


def change_of(one: Setting) -> dict[str, Any]:
    """What a setting sets."""
    return {
        "finish": one.finish,
        "coats": one.coats,
        "coat_mm": one.coat_mm,
        "coats_min": None if one.coats_min is None else list(one.coats_min),
        "flips_min": list(one.flips_min),
        "kitchen": {finish_kind(one.finish).dial: one.dial},
    }


def limits() -> dict[str, Any]:
    """What is accepted of every figure, and what is plausible where nobody said."""
    told: dict[str, Any] = {}
    for name, (low, high, _) in LIMITS.items():
        told |= {f"{name}.least": low, f"{name}.most": high}
    for name, one in kitchen_figures().items():
        told |= {f"{name}.plausible_low": one.usual_low, f"{name}.plausible_high": one.usual_high}
    return told


def moved(old: Any, new: Any, name: str) -> float:
    """How far a figure is from what it was, in tolerances; what is no number has to be the same."""
    if isinstance(old, int | float) and isinstance(new, int | float):
        ending = next((e for e in FLOOR if e and name.endswith(e)), "")
        return abs(new - old) / max(FLOOR[ending], RELATIVE * abs(old))
    return 0.0 if old == new else float("inf")


def all_figures() -> dict[str, dict[str, Any]]:
    """Of every dish."""
    told = {name: figures(name) | returns(name) for name in DISHES}
    told |= {f"advice, {name}": advice(name) for name in ADVISED}
    return told | {"limits": limits()}


if __name__ == "__main__":
    FILE.write_text(json.dumps(all_figures(), indent=1) + "\n", encoding="utf-8")
