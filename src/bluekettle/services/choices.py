"""All that a cook can choose, from the core's tables."""

from __future__ import annotations

from functools import cache
from typing import Any

from bluekettle.core.chain import heat_keys, heat_row
from bluekettle.core.glaze import index_to_hex
from bluekettle.core.ingredients import ingredient, ingredient_keys
from bluekettle.core.sauce import sample_sauce, sample_sauce_keys
from bluekettle.core.stages import (
    LIMITS,
    Cut,
    Kitchen,
    cut,
    cut_keys,
    figures,
)
from bluekettle.core.tables import rows
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.dish import DishDocument
from bluekettle.schemas.forecast import (
    BitePublic,
    ChainHeatPublic,
    ChoicesPublic,
    CutPublic,
    IngredientPublic,
    LimitPublic,
    LyingPublic,
    SaucePublic,
)
from bluekettle.services.words import assumed_public


@cache
def choices() -> ChoicesPublic:
    """Cuts, sauces, ingredients, accepted ranges and typical kitchen figures."""
    cuts = []
    for key in cut_keys():
        c = cut(key)
        cuts.append(
            CutPublic(
                key=key,
                name=c.name,
                piece=c.piece,
                species=c.species,
                shape=c.shape,
                mass_kg=c.mass_kg,
                pieces=c.pieces,
                thickness_mm=c.thickness_mm,
                thin_mm=c.thin_mm,
                thick_mm=c.thick_mm,
                bites=bites_of(c),
                bones=c.bones,
                lies=lies_of(c),
                default_bite=c.usual_bite,
                release=c.release,
                safe_c=c.safe_c,
            )
        )
    sauces = []
    for key in sample_sauce_keys():
        s = sample_sauce(key)
        sauces.append(
            SaucePublic(
                key=key,
                name=s.name,
                colour=index_to_hex(0.0, s.raw_lab),
                sugars=round(s.sugars, 3),
                water=round(s.water, 3),
                caramelises=s.caramelises,
            )
        )
    return ChoicesPublic(
        cuts=cuts,
        sauces=sauces,
        heats=[
            ChainHeatPublic(
                key=heat.key,
                name=heat.name,
                dial_low=heat.dial_low,
                dial_high=heat.dial_high,
                dial_unit=heat.dial_unit,
                slow=heat.slow is not None,
                fierce=heat.fierce is not None,
                released=heat.slow is not None and heat.slow.released,
            )
            for heat in map(heat_row, heat_keys())
        ],
        ingredients=[
            IngredientPublic(key=key, name=ingredient(key).name) for key in ingredient_keys()
        ],
        limits={
            name: LimitPublic(low=low, high=high, unit=unit)
            for name, (low, high, unit) in LIMITS.items()
        },
        typical=[assumed_public(Kitchen(), key) for key in figures()],
    )


def bites_of(found: Cut) -> list[BitePublic]:
    """How tender a cut can be wished, in words."""
    told = {key: found.bite_words(key) for key in found.targets}
    return [BitePublic(key=key, text=text, hint=hint) for key, (text, hint) in told.items()]


def lies_of(found: Cut) -> list[LyingPublic]:
    """Ways in which pieces of a cut can lie; what is frozen asks the food besides."""
    return [
        LyingPublic(key=key, text=line["text"], frozen=line["needs"] == "frozen")
        for key, line in rows("lying").items()
        if line["needs"] != "bends" or found.bends
    ]


def dish_schema() -> dict[str, Any]:
    """JSON Schema of the dish document."""
    schema = DishDocument.model_json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "kettle.dish/1"
    return schema


def chain_schema() -> dict[str, Any]:
    """JSON Schema of the chain document."""
    schema = ChainDocument.model_json_schema()
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "kettle.dish/2"
    return schema
