"""Stateless: choices, schema and forecasts."""

from __future__ import annotations

from flask_openapi import APIBlueprint, Tag

from bluekettle import __version__
from bluekettle.api.base import HEAVY, PREFIX, InKitchen, cooked_in, heavy, now
from bluekettle.schemas.beginning import (
    AnswersCreate,
    BeginningPublic,
    HeatTimesCreate,
    HeatTimesPublic,
)
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.chain_forecast import (
    ChainAdvicePublic,
    ChainForecastPublic,
    TemplateList,
)
from bluekettle.schemas.cook import HealthPublic
from bluekettle.schemas.forecast import ChoicesPublic, SchemaPublic
from bluekettle.schemas.kitchen import EffectsPublic
from bluekettle.schemas.school import SchoolsPublic
from bluekettle.services import beginnings as beginning_service
from bluekettle.services import choices as choice_service
from bluekettle.services import templates as template_service

blueprint = APIBlueprint("forecasts", __name__, url_prefix=PREFIX, abp_tags=[Tag(name="forecasts")])


@blueprint.get("/health", responses={200: HealthPublic})
def health() -> HealthPublic:
    """Whether the server is alive."""
    return HealthPublic(status="ok", version=__version__)


@blueprint.get("/choices", responses={200: ChoicesPublic})
def choices() -> ChoicesPublic:
    """Cuts, sauces, ingredients, accepted ranges and typical figures."""
    return choice_service.choices()


@blueprint.get("/schemas/dish", responses={200: SchemaPublic})
def dish_schema() -> SchemaPublic:
    """JSON Schema of the dish document."""
    return SchemaPublic(choice_service.dish_schema())


@blueprint.get("/schemas/chain", responses={200: SchemaPublic})
def chain_schema() -> SchemaPublic:
    """JSON Schema of the chain document."""
    return SchemaPublic(choice_service.chain_schema())


@blueprint.get("/templates", responses={200: TemplateList})
def templates() -> TemplateList:
    """Chains to begin with."""
    return TemplateList(items=list(template_service.templates()))


@blueprint.post("/beginnings", responses={200: BeginningPublic})
def beginnings(body: AnswersCreate) -> BeginningPublic:
    """The chain that a newcomer's answers come to; nothing is kept."""
    return beginning_service.begin_with(body)


@blueprint.post("/beginnings/heat-times", responses={200: HeatTimesPublic, **HEAVY})
def heat_times(body: HeatTimesCreate, header: InKitchen) -> HeatTimesPublic:
    """How long it takes with each heat that could be answered."""
    found: HeatTimesPublic = heavy("heat_times", cooked_in(body, header))
    return found


@blueprint.post("/forecasts", responses={200: ChainForecastPublic, **HEAVY})
def forecast(body: ChainDocument, header: InKitchen) -> ChainForecastPublic:
    """Forecast a plan; nothing is kept. A kettle.dish/1 is read as well."""
    found: ChainForecastPublic = heavy("forecast", cooked_in(body, header), now())
    return found


@blueprint.post("/forecasts/effects", responses={200: EffectsPublic, **HEAVY})
def effects(body: ChainDocument, header: InKitchen) -> EffectsPublic:
    """How many minutes each assumption of the kitchen is worth."""
    found: EffectsPublic = heavy("effects", cooked_in(body, header))
    return found


@blueprint.post("/schools", responses={200: SchoolsPublic, **HEAVY})
def schools(body: ChainDocument, header: InKitchen) -> SchoolsPublic:
    """Where practitioners disagree about a plan, and what each school would change of it."""
    found: SchoolsPublic = heavy("schools", cooked_in(body, header))
    return found


@blueprint.post("/repairs", responses={200: ChainAdvicePublic, **HEAVY})
def repairs(body: ChainDocument, header: InKitchen) -> ChainAdvicePublic:
    """The one change after which a plan comes out right more often."""
    found: ChainAdvicePublic = heavy("repair", cooked_in(body, header))
    return found
