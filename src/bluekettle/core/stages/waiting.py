"""Food between two heats: how it stands, what lies below a film, and how long it stays warm."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.halves import in_one
from bluekettle.core.heat import Surroundings, surroundings
from bluekettle.core.heat.air import air_of, drying_of
from bluekettle.core.stages.cuts import Cut
from bluekettle.core.stages.standing import carry_over
from bluekettle.core.stages.tally import TALLIES, Brought
from bluekettle.core.stages.tenderise import Tenderised, death_of
from bluekettle.core.stages.vessel import CELLS
from bluekettle.core.tables import value

Array = NDArray[np.float64]

H_IN_FIRE = 150.0  # to a film that boils [W/m²K] (typical, estimated)
STAND_STEP_S = 20.0  # (numerical)
WARM_STEP_S, WARM_MOST_S = 120.0, 7200.0  # (numerical)
HOLD_ABOVE_C = 57.0  # holding and waiting food is safe above this (design, after usual guidance)
DEEP_M = 0.010  # depth at which the film's shallow layer meets the piece
# What food may stand in: open in the kitchen, where it steams; or under a lid or foil, where it
# does not.
IN_ROOM = surroundings("rest")
COVERED = Surroundings(value("h_rest_w_m2_k"), value("kitchen_c"), value("kitchen_c"), 0, 0, True)


def stand(
    cut: Cut, run: Tenderised, profile_c: Array, seconds: Array, around: Surroundings
) -> tuple[Array, Array, Array]:
    """Profiles [°C], peaks in the middle and surfaces [°C] of pieces that stand for their time."""
    none = np.zeros(len(profile_c))
    stood, peak, surface, _ = in_one(
        carry_over,
        Brought(profile_c, np.zeros((none.size, TALLIES)), none),
        (run.half_m, run.crust_m, seconds, run.pressure_pa, run.boils_c),
        (
            run.power,
            drying_of(cut.food, 1.0),
            air_of(around, around.h_w_m2_k, 1.0, 1.0),
            death_of(cut, 0.0),
            STAND_STEP_S,
        ),
    )
    return stood, peak, surface


def warm_for_s(cut: Cut, run: Tenderised) -> float:
    """How long a piece stays over 57 °C up to its surface when it stands covered [s], judged by a
    thin one; up to two hours.
    """
    thin = [int(np.argsort(run.half_m)[int(0.05 * len(run.half_m))])]
    profile = run.profile_c[thin]
    one = replace(
        run,
        half_m=run.half_m[thin],
        crust_m=run.crust_m[thin],
        pressure_pa=run.pressure_pa[thin],
        boils_c=run.boils_c[thin],
    )
    time = 0.0
    while time < WARM_MOST_S:
        profile, _, _ = stand(cut, one, profile, np.array([WARM_STEP_S]), COVERED)
        if profile[0, -1] < HOLD_ABOVE_C:
            return time
        time += WARM_STEP_S
    return time


def below_surface(profile_c: Array, half_m: Array, surface_c: Array) -> tuple[Array, float]:
    """Temperature at `DEEP_M` below the surface of each member (members,), and the median of the
    shallow layer that the film warms, both [°C].

    profile_c : (members, CELLS) from the middle out; surface_c : (members,).
    """
    place = (np.arange(CELLS) + 0.5) / CELLS
    shallow = 0.5 * value("wet_layer_m")
    depth_m = np.zeros((half_m.size, CELLS + 1))  # from the surface in
    depth_m[:, 1:] = (half_m[:, None] * (1.0 - place))[:, ::-1]
    temps_c = np.column_stack((surface_c, profile_c[:, ::-1]))
    deep, layer = (between(depth_m, temps_c, at_m) for at_m in (DEEP_M, shallow))
    return np.clip(deep, 0.0, 100.0), float(np.clip(np.median(layer), 1.0, 100.0))


def between(depth_m: Array, temps_c: Array, at_m: float) -> Array:
    """Temperature of each member at a depth [m], (members,) [°C]: linear between points, (members,
    points) from the surface in, and that of the last one below it.
    """
    last = depth_m.shape[1] - 1
    above = np.minimum((depth_m <= at_m).sum(axis=1) - 1, last - 1)
    rows = np.arange(depth_m.shape[0])
    x, t = depth_m[rows, above], temps_c[rows, above]
    slope = (temps_c[rows, above + 1] - t) / (depth_m[rows, above + 1] - x)
    return np.where(at_m >= depth_m[:, last], temps_c[:, last], slope * (at_m - x) + t)
