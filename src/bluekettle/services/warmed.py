"""What a worker is copied from: the model with its kernels loaded, and no thread at work."""

from __future__ import annotations

import gc
from contextlib import suppress

from bluekettle.core.halves import helpers
from bluekettle.services.heavy import warm

# What fails here fails again where it is asked for, and is told there.
with suppress(Exception):
    warm()
# A copy has none of the threads, and would wait for them.
helpers().shutdown()
helpers.cache_clear()
gc.freeze()
