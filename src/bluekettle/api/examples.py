"""One body for every route that takes one, by the name of its schema: shown in the OpenAPI
document, and each of them is taken as it stands (a test sends them all).
"""

from __future__ import annotations

from typing import Any

DISH: dict[str, Any] = {
    "cut": "beef-short-ribs",
    "mass_kg": 1.6,
    "pieces": 6,
    "thickness_mm": 45,
    "sauce": "plum-tea",
    "coats": 2,
}
CHAIN: dict[str, Any] = {
    "format": "kettle.dish/2",
    "food": {"cut": "pork-ribs", "mass_kg": 1.4, "pieces": 4, "thickness_mm": 26},
    "layers": [{"id": "glaze", "sauce": "plum-tea"}],
    "stages": [
        {"kind": "season", "id": "salt"},
        {"kind": "heat", "id": "pot", "heat": "pressure", "until": {"by": "bite", "bite": "tug"}},
        {"kind": "dress", "id": "brush", "layer": "glaze"},
        {"kind": "heat", "id": "broil", "heat": "broiler", "until": {"by": "colour"}},
    ],
}
ANSWERS: dict[str, Any] = {
    "cut": "beef-short-ribs",
    "mass_kg": 1.6,
    "heat": "pressure",
    "bite": "falls",
    "finish": "broiler",
    "sauce": "plum-tea",
    "when": "before",
}
RECIPE: dict[str, Any] = {
    "name": "Plum and black tea",
    "kind": "glaze",
    "lines": ["180 g plum jam", "90 ml strong tea", "2 tbsp soy sauce"],
}
INSIDE: dict[str, Any] = {
    "shape": "round",
    "width_mm": 220,
    "height_mm": 150,
    "volume_l": 5.7,
    "least_liquid_l": 0.25,
}
MEAL: dict[str, Any] = {
    "name": "Ribs and a slaw",
    "serve_at": None,
    "dishes": [{"id": "ribs", "dish": CHAIN}],
    "sides": [{"id": "slaw", "key": "slaw"}],
    "hands": 1,
}
EXAMPLES: dict[str, dict[str, Any]] = {
    "DishDocument": DISH,
    "ChainDocument": CHAIN,
    "AnswersCreate": ANSWERS,
    "HeatTimesCreate": {**ANSWERS, "of": "heat"},
    "PlanCreate": {"dish": DISH},
    "MealDocument": MEAL,
    "MealCreate": {"meal": MEAL},
    "MealStartCreate": {"rehearsal": {"speed": 30}},
    "SupperChange": {"hands": 2},
    "SupperPlanCreate": {},
    "SideMoveCreate": {"line": "slaw", "body": "air_fryer"},
    "SideTellCreate": {"line": "slaw", "kind": "done", "step": "prepare"},
    "CookCreate": {"dish": CHAIN},
    "EventCreate": {"kind": "done", "step": "salt.season"},
    "ElsewhereCreate": {"stage": "broil", "heat": "air_fryer"},
    "ReadingsCreate": {"readings": [{"quantity": "core_c", "value": 61.5, "device": "Probe 1"}]},
    "RehearsalChange": {"kept": True},
    "OutcomeCreate": {"tenderness": "falls", "crust": "sticky", "colour": "amber", "note": "Good."},
    "FireCreate": {"chain": CHAIN, "stage": "broil"},
    "RescueCreate": {
        "chain": {**CHAIN, "sightings": {"broil": [{"sign": "amber at the edges", "at_s": 150}]}},
        "at_s": 200,
    },
    "CalibrationCreate": {"chain": CHAIN, "observations": [{"sign": "bubbling", "at_s": 60}]},
    "SessionCreate": {"passcode": "plum and black tea"},
    "SettingsDocument": {"altitude_m": 200, "temperature": "C", "measures": "metric"},
    "ApplianceCreate": {"kind": "oven-broiler", "name": "Oven with broiler", "rack_mm": 150},
    "ObservationCreate": {"ground": "syrup", "sign": "amber", "at_s": 240},
    "FitCreate": {
        "cut": "beef-short-ribs",
        "mass_kg": 1.6,
        "pieces": 6,
        "thickness_mm": 45,
        "inside": INSIDE,
        "touching": True,
        "stacked": True,
    },
    "AnalyseCreate": RECIPE,
    "VariantCreate": {**RECIPE, "variant": "sugar-free"},
    "ScaleCreate": {**RECIPE, "by": "factor", "factor": 2},
    "SauceCreate": RECIPE,
    "OnDishCreate": RECIPE,
    "LedgerCreate": {
        "batch_g": 320,
        "moves": [{"kind": "split", "portion": "bowl", "to": "coats", "mass_g": 170}],
    },
    "LinesCreate": {"format": "text", "content": "180 g plum jam\n2 tbsp soy sauce"},
    "LabelCreate": {
        "name": "Bottled sweet sauce",
        "serving_g": 30,
        "sugars_g": 12,
        "sodium_mg": 300,
    },
}
