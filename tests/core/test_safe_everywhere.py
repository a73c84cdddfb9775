"""Whatever is cooked in whatever heat: what is called safe is safe on the unfavourable side, summed
up here apart from the model, from the temperatures that it shows.
"""

import numpy as np
import pytest

from bluekettle.core.errors import Infeasible, NotSafe, OutOfRange
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import STATES, TENDERISE, cut, cut_keys
from tests.one_cook import Dish, forecast, watch_outs

FEW = draw_members(1, 16)
# Minutes per log at 60 °C and degrees per tenfold, and the logs wanted: the usual tables for
# Salmonella in poultry (7) and in red meat (6.5), from the same guidance as in tests/against.
POULTRY, RED_MEAT = (5.4, 6.0, 7.0), (1.92, 5.65, 6.5)
WHOLE_CUT_C, POULTRY_C = 63.0, 74.0
PACKED_HAM_C = 60.0  # reheated, as an inspected plant packed it


def logs(time_s, temp_c, species):
    d60, z, _ = RED_MEAT if species in ("beef", "pork", "lamb") else POULTRY
    rate = [0.0 if c < 54.4 else 10.0 ** ((min(c, 90.0) - 60.0) / z) / d60 for c in temp_c]
    return sum(
        (a + b) / 2 * dt for a, b, dt in zip(rate[:-1], rate[1:], np.diff(time_s) / 60, strict=True)
    )


def between(time_s, temp_c):
    """Minutes in the danger zone."""
    return sum(
        dt / 60 for c, dt in zip(temp_c[:-1], np.diff(time_s), strict=True) if 5.0 < c < 54.4
    )


@pytest.mark.parametrize("heat", TENDERISE)
@pytest.mark.parametrize("key", cut_keys())
def test_what_is_called_safe_is_safe_on_the_unfavourable_side(key, heat):
    kind = cut(key)
    looked_at = 0
    for state in STATES:
        bite = next(b for b in ("tug", "falls", "sliceable", "shreds") if b in kind.targets)
        dish = Dish(
            key,
            kind.mass_kg,
            kind.pieces,
            kind.thickness_mm,
            state=state,
            tenderise=heat,
            bite=bite,
        )
        try:
            found = forecast(dish, draws=FEW)
        except (NotSafe, Infeasible, OutOfRange):
            continue  # it is refused: nothing is called safe
        looked_at += 1
        judge(found)
    assert looked_at or heat in ("bath", "slow", "smoke", "low_oven")


def judge(found):
    time_s, centre = found.trace["time_s"], found.trace["centre_c"]
    safety, species = found.safety, found.cut.species
    median = logs(time_s, centre, species)
    slow = float(np.quantile(found.run.log_reduction, 0.05))
    assert slow <= 1.02 * median + 0.1, "the slowest piece has no more than a usual one"
    assert safety.log_low >= slow, "nothing that comes after brings a germ back to life"
    if safety.gate:
        assert float(np.quantile(found.run.peak_c, 0.05)) <= centre.max() + 1.0
    assert safety.danger_min >= 0.9 * between(time_s, centre) - 1.0
    levels = {w.id: w.level for w in watch_outs(found)}
    if not safety.gate:
        assert species == "vegetable"
        return
    wanted = POULTRY_C if species == "poultry" else WHOLE_CUT_C
    if found.cut.key == "cooked-ham":
        wanted = PACKED_HAM_C
    assert safety.wanted_c >= wanted
    hot = centre.max() >= wanted
    proven = median >= (RED_MEAT if species in ("beef", "pork", "lamb") else POULTRY)[2]
    assert hot or proven or levels.get("core-cold") == "stop" or "par-cooked" in levels
    if safety.rests_on == "time":
        assert proven
