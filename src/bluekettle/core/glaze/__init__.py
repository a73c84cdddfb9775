"""The film of sauce on the food's surface under heat: drying, browning, crust, colour, and an
ensemble of all that.

Carries its own shallow layer of moist food and is handed the deep temperature. Knows no stages and
no cuts.
"""

from bluekettle.core.glaze.activity import boiling_temp_c, water_activity
from bluekettle.core.glaze.colour import index_to_hex, index_to_lab, indices_to_hex
from bluekettle.core.glaze.ensemble import (
    Draws,
    draw_members,
    reweigh,
    weighted_quantile,
    weighted_quantiles,
)
from bluekettle.core.glaze.finish import (
    BEFORE,
    OIL_GAIN,
    Act,
    Coating,
    Finish,
    Heat,
    HeatChange,
    bare_film,
    oiled,
    rubbed_film,
    run_finish,
)
from bluekettle.core.glaze.milestones import (
    MILESTONES,
    SITES,
    Gap,
    Milestones,
    OpenBand,
    Window,
    read_milestones,
)
from bluekettle.core.glaze.records import (
    DAMP_BREAD,
    MEAT,
    FilmConstants,
    Ground,
    Lying,
    film_constants,
)

__all__ = [
    "BEFORE",
    "DAMP_BREAD",
    "MEAT",
    "MILESTONES",
    "OIL_GAIN",
    "SITES",
    "Act",
    "Coating",
    "Draws",
    "FilmConstants",
    "Finish",
    "Gap",
    "Ground",
    "Heat",
    "HeatChange",
    "Lying",
    "Milestones",
    "OpenBand",
    "Window",
    "bare_film",
    "boiling_temp_c",
    "draw_members",
    "film_constants",
    "index_to_hex",
    "index_to_lab",
    "indices_to_hex",
    "oiled",
    "read_milestones",
    "reweigh",
    "rubbed_film",
    "run_finish",
    "water_activity",
    "weighted_quantile",
    "weighted_quantiles",
]
