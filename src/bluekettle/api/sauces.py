"""Sauces: stateless analysis, variants, scaling and ledger; and the kept ones."""

from __future__ import annotations

from flask import Response
from flask_openapi import APIBlueprint, Tag
from pydantic import BaseModel, Field

from bluekettle.api.base import (
    CHANGED,
    CONFLICT,
    HEAVY,
    PREFIX,
    PROBLEMS,
    IdPath,
    IfMatch,
    InKitchen,
    PageQuery,
    cooked_in,
    engine,
    heavy,
    now,
    tagged,
)
from bluekettle.schemas.dish import SauceDocument
from bluekettle.schemas.sauce import (
    AnalyseCreate,
    AnalysisPublic,
    KnownIngredients,
    LabelCreate,
    LedgerCreate,
    LedgerPublic,
    LinesCreate,
    LinesPublic,
    OnDishCreate,
    OwnPublic,
    SauceCreate,
    SauceKept,
    SaucesKept,
    ScaleCreate,
    ScaledPublic,
    VariantCreate,
    VariantPublic,
)
from bluekettle.services import recipes, sauces

blueprint = APIBlueprint("sauces", __name__, url_prefix=PREFIX, abp_tags=[Tag(name="sauces")])


class DropQuery(BaseModel):
    """How to delete."""

    replace: bool = Field(False, description="plans that hold it keep their copy as their own")


@blueprint.post("/sauces/analyse", responses={200: AnalysisPublic, **HEAVY})
def analyse(body: AnalyseCreate, header: InKitchen) -> AnalysisPublic:
    """What a recipe comes to: yield, composition, allergens, colour ladder. Unreadable lines stay,
    marked.
    """
    found: AnalysisPublic = heavy("analyse", cooked_in(body, header))
    return found


@blueprint.post("/sauces/variants", responses={200: VariantPublic, **HEAVY})
def variants(body: VariantCreate, header: InKitchen) -> VariantPublic:
    """Sugar-free, less salt, milder, or without an allergen, and what that changes."""
    found: VariantPublic = heavy("vary", cooked_in(body, header))
    return found


@blueprint.post("/sauces/ledger", responses={200: LedgerPublic, **PROBLEMS})
def ledger(body: LedgerCreate) -> LedgerPublic:
    """Portions from bowl to plate: clean, raw-contact or boiled."""
    return recipes.ledger(body)


@blueprint.post("/sauces/lines", responses={200: LinesPublic, **PROBLEMS})
def lines(body: LinesCreate) -> LinesPublic:
    """An ingredient list from plain text or CSV, and back as CSV."""
    return recipes.read_list(body)


@blueprint.post("/sauces/on-dish", responses={200: SauceDocument, **PROBLEMS})
def on_dish(body: OnDishCreate) -> SauceDocument:
    """A sauce as a dish holds it, with what its portion touched and the lines nobody could read."""
    return recipes.for_dish(body)


@blueprint.post("/scale", responses={200: ScaledPublic, **PROBLEMS})
def scale(body: ScaleCreate) -> ScaledPublic:
    """A recipe scaled, each ingredient by its own law."""
    return recipes.scale_recipe(body)


@blueprint.get("/ingredients", responses={200: KnownIngredients})
def ingredients() -> KnownIngredients:
    """The table of ingredients."""
    return recipes.known_ingredients()


@blueprint.post("/ingredients/label", responses={200: OwnPublic, **PROBLEMS})
def label(body: LabelCreate) -> OwnPublic:
    """An ingredient of one's own from a bottle's label."""
    return recipes.own_from_label(body)


@blueprint.get("/sauces", responses={200: SaucesKept, **PROBLEMS})
def list_sauces(query: PageQuery) -> SaucesKept:
    """A page of kept sauces, by name."""
    return sauces.list_sauces(engine(), query.search, query.after, query.limit)


@blueprint.post("/sauces", responses={201: SauceKept, **PROBLEMS})
def create_sauce(body: SauceCreate) -> Response:
    """Keep a sauce; also the import of an exported one."""
    return tagged(sauces.keep_sauce(engine(), body, now()), 201)


@blueprint.get("/sauces/<int:id>", responses={200: SauceKept, **CONFLICT})
def get_sauce(path: IdPath) -> Response:
    """One kept sauce; its `document` is the export, its ETag its version."""
    return tagged(sauces.get_sauce(engine(), path.id))


@blueprint.put("/sauces/<int:id>", responses={200: SauceKept, **CHANGED})
def change_sauce(path: IdPath, body: SauceCreate, header: IfMatch) -> Response:
    """Change a kept sauce; with If-Match, only the version that was read."""
    return tagged(sauces.keep_sauce(engine(), body, now(), path.id, header.version))


@blueprint.delete("/sauces/<int:id>", responses={204: None, **CONFLICT})
def drop_sauce(path: IdPath, query: DropQuery) -> Response:
    """Delete a kept sauce; refused while a plan holds a copy, unless `replace`."""
    sauces.drop_sauce(engine(), path.id, query.replace)
    return Response(status=204)
