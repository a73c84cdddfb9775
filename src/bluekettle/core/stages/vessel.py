"""A piece of food in a closed vessel: come-up, hold and release, for every member at once
(compiled).

Here the vessel's heat balance, conduction in the piece, cook value and log reduction meet.
"""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numba import njit

from bluekettle.core.heat import Boundary, Matter, cell_geometry, step_piece
from bluekettle.core.heat.kernel import grid_slope
from bluekettle.core.stages.tally import Brought, Death, add_step

COME_UP, HOLD, NATURAL, QUICK = range(4)
CELLS = 16
# Nearer to the vessel than this, four times the step moves a cook value by about 0.1 %; and nearer
# still, four times that.
SETTLED_K, LEVEL_K = 2.0, 0.3
MAX_COME_UP_S = 8 * 3600.0
MAX_NATURAL_S = 2 * 3600.0
MAX_STEPS = 40_000  # no run may go on for ever, whatever is asked


class Run(NamedTuple):
    """How a first heat is run: hold [s], shortest step [s], seconds between samples, and their
    number.
    """

    hold_s: float
    base_s: float
    every_s: float
    samples: int


class Pot(NamedTuple):
    """A vessel at work.

    (members,) : heater [W], loss to the room [W/K], liquid [kg], food's surface [m²], heat to drive
    out the air [J], temperature it is held at and boiling point [°C], natural release (below 0:
    until the pressure is gone) and quick release [s].
    Common : heat capacity of its body [J/K], where liquid and body start [°C], the oven around it
    [°C, W/K; 0 for none], exchange with the food while it heats up and while it holds [W/m²K], and
    the room [°C].
    """

    power_w: Any
    loss_w_k: Any
    liquid_kg: Any
    surface_m2: Any
    vent_j: Any
    target_c: Any
    boil_c: Any
    natural_s: Any
    quick_s: Any
    body_j_k: float
    liquid_start_c: float
    body_start_c: float
    oven_c: float
    oven_w_k: float
    h_up: float
    h_hold: float
    room_c: float


# Of the base step (numerical).
LONG_STEPS, SETTLED_STEPS, LEVEL_STEPS, NATURAL_STEPS = 3.0, 12.0, 48.0, 2.0
FALLEN_K, VENTED_K = 0.5, 0.05  # so near to boiling the pressure is gone (numerical)
WATER_J_KG_K = 4190.0  # of water, J/(kg K)


@njit(cache=True, nogil=True, error_model="numpy")
def share_flash(
    temp: Any, volume: Any, enthalpy: Any, surface_m2: float, capacity: float, pot: float
) -> float:
    """Temperature [°C] of vessel and flashing food once the steam has condensed on the walls: both
    come to one temperature, and no heat is lost.
    """
    shared, heat = capacity, capacity * pot
    for i in range(temp.size):
        if temp[i] > pot:
            part = volume[i] * grid_slope(enthalpy, temp[i]) * surface_m2
            shared += part
            heat += part * temp[i]
    return float(heat / shared)


@njit(cache=True, nogil=True, error_model="numpy")
def run_vessel(
    half: Any, brought: Brought, pot: Pot, power: float, food: Matter, death: Death, run: Run
) -> Any:
    """Run all members through come-up, hold, natural and quick release.

    half : (members,) half-thickness [m]; power as in `heat.Body`.
    Returns (phase seconds (members, 4), sums (members, TALLIES) as in `add_step`, profile (members,
    CELLS), trace (samples, 4), centres (members, samples)); the trace is of member 0: time, vessel,
    centre, mean; the centres are taken every `run.every_s`.
    """
    members = half.size
    phases = np.zeros((members, 4))
    sums = brought.sums.copy()
    profile = np.empty((members, CELLS))
    trace = np.full((run.samples, 4), np.nan)
    centres = np.full((members, run.samples), np.nan)
    work = np.empty((5, CELLS + 1))
    for m in range(members):
        cells = cell_geometry(half[m], power, CELLS)
        whole = np.sum(cells.volume)
        temp = brought.profile_c[m].copy()
        target_c, boil_c, area = pot.target_c[m], pot.boil_c[m], pot.surface_m2[m]
        natural_s, quick_s = pot.natural_s[m], pot.quick_s[m]
        # The liquid and the body share one temperature: their mixing takes a fraction of a minute.
        water_j_k = pot.liquid_kg[m] * WATER_J_KG_K
        capacity = water_j_k + pot.body_j_k
        inside = (water_j_k * pot.liquid_start_c + pot.body_j_k * pot.body_start_c) / capacity
        to_vent = pot.vent_j[m]
        phase, clock, in_phase, k = COME_UP, 0.0, 0.0, 0
        for _ in range(MAX_STEPS):
            dt = run.base_s
            if phase == HOLD:
                # Constant surroundings: longer steps serve, and the longer the less is left to do.
                behind = abs(inside - temp[0])
                longest = SETTLED_STEPS if behind < SETTLED_K else LONG_STEPS
                if behind < LEVEL_K:
                    longest = LEVEL_STEPS
                dt = max(1.0, min(longest * run.base_s, run.hold_s - in_phase))
            elif phase == NATURAL:
                dt = NATURAL_STEPS * run.base_s
            h = pot.h_up if phase == COME_UP else pot.h_hold
            # Heat into the pot that is not the food's, per m² of food; a thermostat holds it.
            body, source = 0.0, -pot.loss_w_k[m] * (inside - pot.room_c) / area
            if phase in (COME_UP, NATURAL):
                body = capacity / area
            if phase == COME_UP:
                oven_w = pot.oven_w_k * (pot.oven_c - inside)
                source += (oven_w if pot.oven_w_k > 0.0 else pot.power_w[m]) / area
            around = Boundary(h, inside, 0.0, body, source)
            _taken, inside = step_piece(temp, cells, food, dt, around, work)
            if phase == COME_UP:
                if inside > boil_c and to_vent > 0.0 and pot.oven_w_k <= 0.0:
                    # Steam drives the air out: the pot waits at boiling until that heat is spent.
                    to_vent -= (inside - boil_c) * capacity
                    inside = boil_c if to_vent > 0.0 else boil_c - to_vent / capacity
                inside = min(inside, target_c)
            elif phase == NATURAL:
                inside = max(inside, boil_c)
            elif phase == QUICK:
                inside -= (inside - boil_c) * min(1.0, dt / max(quick_s - in_phase, dt))
            # Food never passes the boiling point at the pressure of its stage: released, it
            # flashes to steam. In a closed pot that steam condenses; vented, it is gone.
            if phase >= NATURAL:
                if phase == NATURAL:
                    inside = share_flash(temp, cells.volume, food.enthalpy, area, capacity, inside)
                for i in range(CELLS):
                    temp[i] = min(temp[i], inside)
            clock += dt
            in_phase += dt
            phases[m, phase] += dt
            since = brought.since_s[m] + clock
            mean = add_step(sums[m], temp, cells.volume, whole, dt, since, death)
            if clock >= k * run.every_s and k < run.samples:
                centres[m, k] = temp[0]
                if m == 0:
                    trace[k, 0], trace[k, 1] = clock, inside
                    trace[k, 2], trace[k, 3] = temp[0], mean
                k += 1
            if phase == COME_UP and (inside >= target_c or in_phase >= MAX_COME_UP_S):
                phase, in_phase = HOLD, 0.0
            if phase == HOLD and in_phase >= run.hold_s:
                phase, in_phase = NATURAL, 0.0
                if natural_s == 0.0:
                    phase = QUICK
                    if quick_s <= 0.0:
                        break
            elif phase == NATURAL:
                if inside <= boil_c + FALLEN_K or in_phase >= MAX_NATURAL_S:
                    break
                if natural_s > 0.0 and in_phase >= natural_s:
                    phase, in_phase = QUICK, 0.0
            elif phase == QUICK and (inside <= boil_c + VENTED_K or in_phase >= quick_s):
                break
        profile[m, :] = temp
    return phases, sums, profile, trace, centres
