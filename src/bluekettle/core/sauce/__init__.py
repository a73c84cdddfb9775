"""Sauces as mixtures: what a set of ingredient lines comes to, and what simmering makes of it.

Knows composition and mass; knows nothing of surfaces, heat or coats.
"""

from bluekettle.core.sauce.mixing import (
    Composition,
    mix,
    reduce_to,
    sample_sauce,
    sample_sauce_keys,
)

__all__ = ["Composition", "mix", "reduce_to", "sample_sauce", "sample_sauce_keys"]
