"""A piece of food in a closed vessel: come-up, hold and release, for every member at once
(compiled).

Here the vessel's heat balance, conduction in the piece, cook value and log reduction meet.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import njit

from bluekettle.core.heat import cell_geometry, step_piece
from bluekettle.core.heat.kernel import grid_slope
from bluekettle.core.stages.tally import TALLIES, add_step

COME_UP, HOLD, NATURAL, QUICK = range(4)
CELLS = 16
SETTLED_K = (
    2.0  # nearer to the vessel than this, four times the step moves a cook value by about 0.1 %
)
MAX_COME_UP_S = 8 * 3600.0
MAX_NATURAL_S = 2 * 3600.0
MAX_STEPS = 40_000  # no run may go on for ever, whatever is asked


@njit(cache=True, nogil=True, error_model="numpy")
def run_vessel(
    half: Any,
    start: Any,
    power: Any,
    loss: Any,
    liquid: Any,
    pieces_m2: Any,
    vented: Any,
    exponent: int,
    enthalpy: Any,
    k_table: Any,
    body_j_k: float,
    liquid_start_c: float,
    body_start_c: float,
    oven_c: float,
    oven_w_k: float,
    target_c: float,
    boil_c: float,
    hold_s: float,
    natural_s: float,
    quick_s: float,
    h_up: float,
    h_hold: float,
    room_c: float,
    d60_min: float,
    z_c: float,
    less_k: float,
    base_s: float,
    every_s: float,
    samples: int,
) -> Any:
    """Run all members through come-up, hold, natural and quick release.

    half, start, power, loss, liquid, pieces_m2, vented : (members,) half-thickness [m], start [°C],
    heating power [W], loss to the room [W/K], liquid [kg], surface [m²], heat to drive out the air
    [J]. `oven_w_k` above 0 makes it a dish heated by an oven at `oven_c` with no power of its own.
    natural_s below 0: until the pressure is gone. Returns (phase seconds (members, 4), sums
    (members, TALLIES) as in `add_step`, profile (members, CELLS), trace (samples, 4)); the trace is
    of member 0: time, vessel, centre, mean.
    """
    members = half.size
    phases = np.zeros((members, 4))
    sums = np.zeros((members, TALLIES))
    profile = np.empty((members, CELLS))
    trace = np.full((samples, 4), np.nan)
    work = np.empty((5, CELLS + 1))
    for m in range(members):
        dx, volume, area = cell_geometry(half[m], exponent, CELLS)
        whole = np.sum(volume)
        temp = np.full(CELLS, start[m])
        # The liquid and the body share one temperature: their mixing takes a fraction of a minute.
        capacity = liquid[m] * 4190.0 + body_j_k
        pot = (liquid[m] * 4190.0 * liquid_start_c + body_j_k * body_start_c) / capacity
        to_vent = vented[m]
        phase, clock, in_phase, k = COME_UP, 0.0, 0.0, 0
        for _ in range(MAX_STEPS):
            dt = base_s
            if (
                phase == HOLD
                # constant surroundings: longer steps serve, and the longer the less is left to
                # happen
            ):
                longest = 12.0 if abs(pot - temp[0]) < SETTLED_K else 3.0
                dt = max(1.0, min(longest * base_s, hold_s - in_phase))
            elif phase == NATURAL:
                dt = 2.0 * base_s
            h = h_up if phase == COME_UP else h_hold
            # Heat into the pot that is not the food's, per m² of food; held at its temperature
            # under a thermostat.
            body, source = 0.0, -loss[m] * (pot - room_c) / pieces_m2[m]
            if phase in (COME_UP, NATURAL):
                body = capacity / pieces_m2[m]
            if phase == COME_UP:
                source += (oven_w_k * (oven_c - pot) if oven_w_k > 0.0 else power[m]) / pieces_m2[m]
            _taken, pot = step_piece(
                temp, dx, volume, area, enthalpy, k_table, dt, h, pot, 0.0, body, source, work
            )
            if phase == COME_UP:
                if pot > boil_c and to_vent > 0.0 and oven_w_k <= 0.0:
                    # Steam drives the air out: the pot waits at boiling until that heat is spent.
                    to_vent -= (pot - boil_c) * capacity
                    pot = boil_c if to_vent > 0.0 else boil_c - to_vent / capacity
                pot = min(pot, target_c)
            elif phase == NATURAL:
                pot = max(pot, boil_c)
            elif phase == QUICK:
                pot -= (pot - boil_c) * min(1.0, dt / max(quick_s - in_phase, dt))
            # Food never passes the boiling point at the pressure of its stage: released, it flashes
            # to steam. In a closed pot that steam condenses on its wall and liquid: both come to
            # one temperature, no heat is lost. Vented, it is gone.
            if phase >= NATURAL:
                if phase == NATURAL:
                    shared, heat = capacity, capacity * pot
                    for i in range(CELLS):
                        if temp[i] > pot:
                            part = volume[i] * grid_slope(enthalpy, temp[i]) * pieces_m2[m]
                            shared += part
                            heat += part * temp[i]
                    pot = heat / shared
                for i in range(CELLS):
                    temp[i] = min(temp[i], pot)
            clock += dt
            in_phase += dt
            phases[m, phase] += dt
            mean = add_step(sums[m], temp, volume, whole, dt, clock, d60_min, z_c, less_k)
            if m == 0 and clock >= k * every_s and k < samples:
                trace[k, 0], trace[k, 1], trace[k, 2], trace[k, 3] = clock, pot, temp[0], mean
                k += 1
            if phase == COME_UP and (pot >= target_c or in_phase >= MAX_COME_UP_S):
                phase, in_phase = HOLD, 0.0
            if phase == HOLD and in_phase >= hold_s:
                phase, in_phase = NATURAL, 0.0
                if natural_s == 0.0:
                    phase = QUICK
                    if quick_s <= 0.0:
                        break
            elif phase == NATURAL:
                if pot <= boil_c + 0.5 or in_phase >= MAX_NATURAL_S:
                    break
                if natural_s > 0.0 and in_phase >= natural_s:
                    phase, in_phase = QUICK, 0.0
            elif phase == QUICK and (pot <= boil_c + 0.05 or in_phase >= quick_s):
                break
        profile[m, :] = temp
    return phases, sums, profile, trace


@njit(cache=True, nogil=True, error_model="numpy")
def carry_over(
    profile: Any,
    half: Any,
    seconds: Any,
    exponent: int,
    enthalpy: Any,
    k_table: Any,
    h: float,
    env_c: float,
    dt: float,
) -> Any:
    """Let each member's profile (members, CELLS) [°C] stand for its own time; returns the new
    profiles and peaks.
    """
    out = profile.copy()
    peak = np.empty(half.size)
    work = np.empty((5, CELLS + 1))
    for m in range(half.size):
        dx, volume, area = cell_geometry(half[m], exponent, CELLS)
        temp = out[m]
        peak[m] = temp[0]
        steps = int(np.ceil(seconds[m] / dt))
        for _ in range(steps):
            step_piece(
                temp,
                dx,
                volume,
                area,
                enthalpy,
                k_table,
                seconds[m] / steps,
                h,
                env_c,
                0.0,
                0.0,
                0.0,
                work,
            )
            peak[m] = max(peak[m], temp[0])
    return out, peak
