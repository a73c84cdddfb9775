"""A dish document in, a forecast out; clock times are made here."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.advice import Effect, effects
from bluekettle.core.errors import Fault, NotConverged, NotSafe, OutOfRange
from bluekettle.core.glaze import (
    MILESTONES,
    SITES,
    Coating,
    Finish,
    Milestones,
    draw_members,
    indices_to_hex,
)
from bluekettle.core.glaze.milestones import BACK, OpenBand, wanted_times
from bluekettle.core.safety import USUAL_GUIDANCE, watch_outs
from bluekettle.core.stages import (
    Band,
    Dish,
    Forecast,
    Rung,
    Sighting,
    StepPlan,
    figure,
    finish_kind,
    forecast,
    looks_of,
    pin_bands,
    pin_index,
    plan_calls,
    pull_times,
    steps_of,
    strip_index,
    warps,
)
from bluekettle.schemas.dish import DishDocument
from bluekettle.schemas.forecast import (
    BandPublic,
    CallPublic,
    CoatPublic,
    ColourPublic,
    FillPublic,
    ForecastPublic,
    GapPublic,
    GlazePublic,
    OpenBandPublic,
    SafetyPublic,
    SeenPublic,
    StagePublic,
    TendernessPublic,
    WatchOutPublic,
    WindowPublic,
)
from bluekettle.schemas.kitchen import EffectPublic, EffectsPublic
from bluekettle.services.dishes import allergens_in, dish_of, title_of
from bluekettle.services.words import assumed_public

LONGEST_AHEAD = timedelta(days=14)
LEGEND = (("wet", 0.0), ("amber", 0.4), ("mahogany", 1.0), ("bitter", 2.5), ("burnt", 5.0))


def forecast_dish(document: DishDocument, now: datetime) -> ForecastPublic:
    """Forecast a document at a moment.

    Raises
    ------
    OutOfRange
        Every field at fault; a bite that this method cannot reach says how far it gets.
    """
    return begin_dish(document, now)[0]


def begin_dish(
    document: DishDocument, now: datetime
) -> tuple[ForecastPublic, tuple[StepPlan, ...]]:
    """The forecast of a document, and the steps of a cook that would follow it; as above."""
    try:
        dish = dish_of(document)
        faults: list[Fault] = []
    except OutOfRange as error:
        faults = list(error.faults)
    faults += serving_faults(document.serve_at, now)
    if faults:
        raise OutOfRange(faults)
    available = (document.serve_at - now).total_seconds() if document.serve_at else None
    found = forecast_core(dish, available)
    return to_public(found, document, now), steps_of(found)


def serving_faults(serve_at: datetime | None, now: datetime) -> list[Fault]:
    """What is wrong with the moment at which it is to be served."""
    if serve_at is None:
        return []
    given = serve_at.isoformat()
    if serve_at <= now:
        return [Fault("serve_at", given, f"a moment after {now:%Y-%m-%d %H:%M} UTC")]
    if serve_at > now + LONGEST_AHEAD:
        return [Fault("serve_at", given, "within 14 days from now")]
    return []


def forecast_core(dish: Dish, available_s: float | None) -> Forecast:
    """The core's forecast; a bite out of reach is told as the fault of that field, with how far it
    gets.
    """
    try:
        return forecast(dish, available_s, draws_of(dish.seed))
    except NotConverged as error:
        raise OutOfRange([out_of_reach(dish, error)]) from error


def out_of_reach(dish: Dish, error: NotConverged) -> Fault:
    """What this first heat cannot do, how far it gets, and what would."""
    if isinstance(error, NotSafe):
        proof = ", or a time that proves it" if dish.tenderise == "bath" else ""
        far = f"at {error.reached:.0f} °C inside, {error.wanted:.0f} °C{proof} is wanted"
        return Fault(
            "tenderise",
            dish.tenderise,
            f"a first heat that makes it safe: {far}. Hotter, thinner pieces or another",
        )
    far = f"it gets {error.reached:.0f} of the {error.wanted:.0f} it needs"
    return Fault(
        "bite",
        dish.bite,
        f"what {dish.first.place} reaches: {far}. Thinner pieces, an easier bite or another first"
        " heat",
    )


draws_of = lru_cache(maxsize=8)(draw_members)


def to_public(f: Forecast, document: DishDocument, now: datetime) -> ForecastPublic:
    """The answer, with clock times back from serving."""
    allergens, unknown = allergens_in(document)
    likely = timedelta(seconds=f.total.likely_s)
    earliest = now + likely
    serve_at = earliest if document.serve_at is None else max(document.serve_at, earliest)
    start_at = serve_at - likely
    warnings = [WatchOutPublic.model_validate(w) for w in watch_outs(f)]
    if document.serve_at is not None and document.serve_at < earliest:
        warnings.insert(0, too_soon(earliest))
    return ForecastPublic(
        title=title_of(document),
        start_at=start_at,
        serve_at=serve_at,
        serve_low_at=start_at + timedelta(seconds=f.total.low_s),
        serve_high_at=start_at + timedelta(seconds=f.total.high_s),
        total=band(f.total),
        headline_s=f.headline_s,
        hands_s=round(f.hands.likely_s, 1),
        slack_s=round(f.slack_s, 1),
        timer_s=f.timer_s,
        finish_timer_s=f.finish_timer_s,
        least_sure=f.least_sure,
        come_up=band(f.come_up),
        stages=[
            StagePublic(
                key=s.key,
                kind=s.kind,
                label=s.label,
                who=s.who,
                hidden=s.hidden,
                serial=s.serial,
                band=band(s.band),
                before_serving=band(s.start),
                starts_at=serve_at - timedelta(seconds=s.start.likely_s),
                note=s.note,
                fire=s.fire,
                act=s.act,
            )
            for s in f.stages
        ],
        glaze=glaze(f),
        tenderness=TendernessPublic.model_validate(f.tenderness),
        safety=SafetyPublic.model_validate(f.safety),
        fill=None if f.fill is None else FillPublic.model_validate(f.fill),
        liquid_l=f.dish.liquid,
        release=f.dish.release_kind,
        target_c=round(f.target_c, 2),
        sauce_g=round(f.sauce_kg * 1e3),
        warm_s=f.warm_s,
        lost_share=round(f.lost_share, 3),
        traces={name: [round(float(x), 1) for x in values] for name, values in f.trace.items()},
        watch_outs=warnings,
        allergens=allergens,
        allergens_unknown=unknown,
        assumed=[assumed_public(f.dish.kitchen, name) for name in f.assumed],
        guidance=USUAL_GUIDANCE,
    )


def effects_of(document: DishDocument) -> EffectsPublic:
    """What each assumption of a dish's kitchen is worth in minutes."""
    dish = dish_of(document)
    try:
        found = effects(dish)
    except NotConverged as error:
        raise OutOfRange([out_of_reach(dish, error)]) from error
    return effects_public(found)


def effects_public(found: Sequence[Effect]) -> EffectsPublic:
    """Effects with the words of their figures."""
    return EffectsPublic(
        effects=[
            EffectPublic(
                name=e.name,
                low=e.low,
                high=e.high,
                unit=figure(e.name).unit,
                low_says=figure(e.name).low_says,
                high_says=figure(e.name).high_says,
                plate_low_min=round(e.plate_low_min, 1),
                plate_high_min=round(e.plate_high_min, 1),
                ask=e.ask,
            )
            for e in found
        ]
    )


def too_soon(earliest: datetime) -> WatchOutPublic:
    """Serving is asked for before it can be."""
    step = timedelta(minutes=5)
    rounded = datetime.fromtimestamp(
        -(-earliest.timestamp() // step.total_seconds()) * step.total_seconds(), UTC
    )
    return WatchOutPublic(
        id="too-soon",
        level="stop",
        message="It cannot be on the table by then, even starting now.",
        why="The whole chain takes longer than the time that is left; the times shown start now.",
        source="derived",
        repair={"serve_at": rounded.isoformat()},
        repair_says="Serve as early as it can be",
    )


def band(b: Band) -> BandPublic:
    """A band, to the tenth of a second."""
    return BandPublic(
        low_s=round(b.low_s, 1), likely_s=round(b.likely_s, 1), high_s=round(b.high_s, 1)
    )


def open_band(b: OpenBand) -> OpenBandPublic:
    """A band whose ends may be missing."""

    def tenth(value: float | None) -> float | None:
        return None if value is None else round(value, 1)

    return OpenBandPublic(
        low_s=tenth(b.low_s),
        likely_s=tenth(b.likely_s),
        high_s=tenth(b.high_s),
        reached=round(b.reached, 3),
    )


def plain_glaze(rung: Rung, want: str) -> GlazePublic:
    """One rung of a sauce's ladder as a strip."""
    members = rung.run.times_s.shape[0]
    strip = strip_index(rung.run, np.full(members, 1.0 / members))
    return strip_public(rung.run, rung.milestones, rung.coating, strip, rung.finish, want, 1)


def glaze(f: Forecast) -> GlazePublic:
    """The glaze strip of a forecast, held to the signs that were seen."""
    return strip_public(
        f.finish,
        f.milestones,
        f.coating,
        f.strip_index,
        f.dish.finish,
        f.dish.want,
        f.dish.coats,
        f.dish.sightings,
        pull_band(f),
    )


def pull_band(f: Forecast) -> BandPublic:
    """When it is taken out [s under the heat]."""
    ready = wanted_times(f.finish, MILESTONES.index(f.dish.want))
    return band(Band.of(pull_times(f.finish, ready).time_s, f.weights))


def strip_public(
    finish: Finish,
    m: Milestones,
    coating: Coating,
    strip: NDArray[np.float64],
    appliance: str,
    want: str,
    coats: int,
    sightings: Sequence[Sighting] = (),
    pull: BandPublic | None = None,
) -> GlazePublic:
    """A run of the film, read, as the strip that is drawn everywhere."""
    raw = coating.raw_lab
    pinned = warps(finish.sample_s, strip, sightings)
    drawn = pin_index(finish.sample_s, strip, pinned) if sightings else strip
    bands = pin_bands(m.bands, pinned, sightings)
    colours = {site: indices_to_hex(drawn[i], raw) for i, site in enumerate(SITES)}
    shades = indices_to_hex(np.array([i for _, i in LEGEND]), raw)
    return GlazePublic(
        appliance=appliance,
        appliance_name=finish_kind(appliance).name,
        want=want,
        caramelises=coating.caramelises,
        horizon_s=float(finish.sample_s[-1]),
        sample_s=[float(t) for t in finish.sample_s],
        face=colours["face"],
        edge=colours["edge"],
        risk=[float(r) for r in np.round(m.risk, 3)],
        wanted=[float(w) for w in np.round(m.wanted, 3)],
        coats=[CoatPublic(at_s=c.at_s, away_s=c.away_s) for c in finish.coats] if coats else [],
        flips_s=[turn.at_s for turn in finish.turns],
        back=indices_to_hex(drawn[BACK], raw) if finish.turns else None,
        milestones={
            site: {name: open_band(bands[site][name]) for name in MILESTONES} for site in bands
        },
        window=WindowPublic.model_validate(m.window),
        gaps=[
            GapPublic(
                sign=g.sign,
                to_wanted=open_band(g.to_wanted),
                wanted_to_burnt=open_band(g.wanted_to_burnt),
            )
            for g in m.gaps
        ],
        look_from_s=round(m.look_from_s, 1),
        look_every_s=round(m.look_every_s, 1),
        looks_s=list(looks_of(m, finish.sample_s)),
        seen=[
            SeenPublic(sign=s.sign, at_s=s.at_s, site="face" if s.sign == "dark" else "edge")
            for s in sightings
        ],
        possible=round(m.possible, 3),
        pull=pull,
        calls=[CallPublic.model_validate(c) for c in plan_calls(m, finish.sample_s, finish.acts)],
        legend=[
            ColourPublic(word=word, colour=colour)
            for (word, _), colour in zip(LEGEND, shades, strict=True)
        ],
    )
