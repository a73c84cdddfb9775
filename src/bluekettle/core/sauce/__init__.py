"""Sauces as mixtures: what ingredient lines come to, simmering, scaling, splits, variants and the
contact ledger.

Knows composition and mass; knows nothing of surfaces, heat or coats.
"""

from bluekettle.core.sauce.character import (
    VARIANTS,
    Source,
    Variant,
    allergens_of,
    sources_of,
    thickness_of,
    vary,
)
from bluekettle.core.sauce.ledger import (
    BOILED,
    CLEAN,
    CONTACTS,
    RAW,
    Flow,
    Ledger,
    Move,
    Portion,
    Stop,
    boil_minutes,
    keep_ledger,
    plate_contact,
)
from bluekettle.core.sauce.mixing import (
    Composition,
    mix,
    reduce_to,
    sample_sauce,
    sample_sauce_keys,
    sample_sauce_lines,
)
from bluekettle.core.sauce.scaling import (
    APPETITES,
    KINDS,
    Salted,
    Scaled,
    ScaledLine,
    factor_for_coats,
    factor_for_meat,
    factor_for_short,
    meat_for,
    salt_of,
    scale,
    shares_of,
)
from bluekettle.core.sauce.simmering import Simmered, most_gone_kg, simmer, simmer_minutes
from bluekettle.core.sauce.tint import colour_of

__all__ = [
    "APPETITES",
    "BOILED",
    "CLEAN",
    "CONTACTS",
    "KINDS",
    "RAW",
    "VARIANTS",
    "Composition",
    "Flow",
    "Ledger",
    "Move",
    "Portion",
    "Salted",
    "Scaled",
    "ScaledLine",
    "Simmered",
    "Source",
    "Stop",
    "Variant",
    "allergens_of",
    "boil_minutes",
    "colour_of",
    "factor_for_coats",
    "factor_for_meat",
    "factor_for_short",
    "keep_ledger",
    "meat_for",
    "mix",
    "most_gone_kg",
    "plate_contact",
    "reduce_to",
    "salt_of",
    "sample_sauce",
    "sample_sauce_keys",
    "sample_sauce_lines",
    "scale",
    "shares_of",
    "simmer",
    "simmer_minutes",
    "sources_of",
    "thickness_of",
    "vary",
]
