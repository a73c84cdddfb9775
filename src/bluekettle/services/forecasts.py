"""Parts of a forecast's answer: bands, effects, and the strip that is drawn everywhere."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.advice import Effect
from bluekettle.core.errors import Fault
from bluekettle.core.glaze import (
    MILESTONES,
    SITES,
    Coating,
    Finish,
    Milestones,
    draw_members,
    indices_to_hex,
)
from bluekettle.core.glaze.milestones import BACK, FACE, OpenBand
from bluekettle.core.stages import (
    Band,
    Rung,
    Sighting,
    figure,
    finish_kind,
    looks_of,
    pin_bands,
    pin_index,
    plan_calls,
    strip_index,
    warps,
)
from bluekettle.schemas.forecast import (
    BandPublic,
    CallPublic,
    CoatPublic,
    ColourPublic,
    GapPublic,
    GlazePublic,
    OpenBandPublic,
    SeenPublic,
    WindowPublic,
)
from bluekettle.schemas.kitchen import EffectPublic, EffectsPublic

CRUST = 3  # place in a trace of the film
LONGEST_AHEAD = timedelta(days=14)
LEGEND = (("wet", 0.0), ("amber", 0.4), ("mahogany", 1.0), ("bitter", 2.5), ("burnt", 5.0))


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


draws_of = lru_cache(maxsize=8)(draw_members)


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


def crust_of(finish: Finish) -> NDArray[np.float64]:
    """Likely thickness of the crust of the face at each sample [m]."""
    return np.asarray(np.median(finish.traces[:, FACE, :, CRUST], axis=0), dtype=float)


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
        crust_mm=[float(mm) for mm in np.round(1e3 * crust_of(finish), 3)],
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
