"""The inside of a vessel, as a cook measures it."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi


@dataclass(frozen=True)
class Inside:
    """The inside of a vessel: round (width is the diameter) or box, width, depth, height [m];
    volume [L] where it is stated; the least liquid it needs [L], 0 for a basket or tray; how many
    there are of it (two baskets).
    """

    shape: str
    width_m: float
    depth_m: float
    height_m: float
    volume_l: float | None = None
    least_liquid_l: float = 0.0
    zones: int = 1

    @property
    def litres(self) -> float:
        """Volume as stated, or from the inner size [L]."""
        if self.volume_l is not None:
            return self.volume_l
        base = pi * self.width_m**2 / 4.0 if self.shape == "round" else self.width_m * self.depth_m
        return 1e3 * base * self.height_m
