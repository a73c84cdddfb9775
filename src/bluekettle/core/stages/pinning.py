"""The glaze strip held to what was seen: nobody is shown a colour that their own eyes deny."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.glaze import MILESTONES, OpenBand, film_constants
from bluekettle.core.stages.browning import Sighting

Array = NDArray[np.float64]

APART = 0.03  # of the seen time: what comes after a sign is drawn so much later at the least
SITES = ("face", "edge")


@dataclass(frozen=True)
class Warp:
    """A rising map of time: model seconds to drawn seconds, through the origin; beyond the last pin
    all is shifted alike.
    """

    model_s: tuple[float, ...]
    drawn_s: tuple[float, ...]

    def forth(self, time_s: Array | float) -> Array:
        """Drawn time [s] of a model time [s]."""
        return self._map(time_s, self.model_s, self.drawn_s)

    def back(self, time_s: Array | float) -> Array:
        """Model time [s] of a drawn time [s]."""
        return self._map(time_s, self.drawn_s, self.model_s)

    @staticmethod
    def _map(time_s: Array | float, given: tuple[float, ...], wanted: tuple[float, ...]) -> Array:
        beyond = np.maximum(0.0, np.asarray(time_s, dtype=float) - given[-1])
        return np.asarray(np.interp(time_s, given, wanted) + beyond)


def crossing(sample_s: Array, index: Array, mark: float) -> float:
    """When a drawn site first reaches an index [s]; inf where it does not."""
    over = np.flatnonzero(index >= mark)
    return float(sample_s[over[0]]) if over.size else float("inf")


def warps(sample_s: Array, index: Array, sightings: Sequence[Sighting]) -> dict[str, Warp]:
    """How the time of face and edge is drawn, so that every sign lies where it was seen.

    sample_s : (samples,). index : (sites, samples) as drawn without any sign.
    """
    c = film_constants()
    amber = {site: crossing(sample_s, index[i], c.amber_index) for i, site in enumerate(SITES)}
    dark = crossing(sample_s, index[0], c.mahogany_index)
    pins: dict[str, list[tuple[float, float]]] = {site: [] for site in SITES}
    for seen in sorted(sightings, key=lambda s: s.at_s):
        later = seen.at_s * (1.0 + APART)
        if seen.sign in ("nothing yet", "bubbling"):
            for site in SITES:  # no colour was there yet
                if amber[site] <= seen.at_s:
                    pins[site].append((amber[site], later))
        elif seen.sign == "amber at the edges":
            pins["edge"].append((amber["edge"], seen.at_s))
            if amber["face"] <= seen.at_s:
                pins["face"].append((amber["face"], later))
        elif seen.sign == "dark":
            pins["face"].append((dark, seen.at_s))
            if amber["edge"] > seen.at_s:
                pins["edge"].append((amber["edge"], seen.at_s / (1.0 + APART)))
    return {site: _rising(pins[site]) for site in SITES}


def _rising(pins: Sequence[tuple[float, float]]) -> Warp:
    """The map through the pins; the last one told of a moment holds, and time never runs back."""
    told = {model: drawn for model, drawn in pins if np.isfinite(model) and model > 0.0}
    model_s, drawn_s = [0.0], [0.0]
    for model in sorted(told):
        if told[model] > drawn_s[-1]:
            model_s.append(model)
            drawn_s.append(told[model])
    return Warp(tuple(model_s), tuple(drawn_s))


def pin_index(sample_s: Array, index: Array, pinned: dict[str, Warp]) -> Array:
    """The drawn index [-] at the same samples; a back is drawn as the face."""
    rows = []
    for i in range(len(index)):
        warp = pinned["edge"] if i == SITES.index("edge") else pinned["face"]
        rows.append(np.interp(warp.back(sample_s), sample_s, index[i]))
    return np.array(rows)


def pin_band(band: OpenBand, warp: Warp) -> OpenBand:
    """A milestone's band, drawn."""

    def drawn(time_s: float | None) -> float | None:
        return None if time_s is None else float(warp.forth(time_s))

    return replace(
        band, low_s=drawn(band.low_s), likely_s=drawn(band.likely_s), high_s=drawn(band.high_s)
    )


def pin_bands(
    bands: dict[str, dict[str, OpenBand]], pinned: dict[str, Warp], sightings: Sequence[Sighting]
) -> dict[str, dict[str, OpenBand]]:
    """All bands, drawn; a sign that was seen lies at its moment and nowhere else."""
    found = {
        site: {
            name: pin_band(one, pinned["edge"] if site == "edge" else pinned["face"])
            for name, one in of_site.items()
        }
        for site, of_site in bands.items()
    }
    for seen in sightings:
        place = SEEN.get(seen.sign)
        if place is not None:
            site, name = place
            found[site][name] = OpenBand(seen.at_s, seen.at_s, seen.at_s, 1.0)
            before = MILESTONES[: MILESTONES.index(name)]
            for other in before:  # what comes before it has been, by then
                found[site][other] = _by(found[site][other], seen.at_s)
    return found


SEEN = {
    "bubbling": ("edge", "bubbling"),
    "amber at the edges": ("edge", "amber"),
    "dark": ("face", "mahogany"),
}


def _by(band: OpenBand, at_s: float) -> OpenBand:
    """A band of something that has been by a moment."""

    def capped(time_s: float | None) -> float:
        return at_s if time_s is None else min(time_s, at_s)

    return OpenBand(capped(band.low_s), capped(band.likely_s), capped(band.high_s), 1.0)
