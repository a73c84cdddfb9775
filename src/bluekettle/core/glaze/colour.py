"""Colour of a glaze from its browning index: CIELAB, then sRGB. The only source of glaze colours in
the product.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges, within

Lab = tuple[float, float, float]

WHITE = np.array([0.95047, 1.0, 1.08883])  # D65
TO_RGB = np.array(
    [
        [3.2404542, -1.5371385, -0.4985314],  # XYZ to linear sRGB, IEC 61966-2-1
        [-0.9692660, 1.8760108, 0.0415560],  # the same
        [0.0556434, -0.2040259, 1.0572252],  # the same
    ]
)

# Index and CIELAB (D65) of each named colour; by eye on baked syrups, estimated.
LADDER: tuple[tuple[float, Lab], ...] = (
    (0.4, (58.0, 26.0, 50.0)),
    (1.0, (34.0, 28.0, 29.0)),
    (2.5, (18.0, 12.0, 11.0)),
    (5.0, (7.0, 2.0, 1.5)),
)


def ladder_of(raw_lab: Lab) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Index and CIELAB of each rung for a raw colour, (5,) and (5, 3). The sauce's own colour fades
    out up to bitter; a raw glaze darker than amber never gets lighter on its way."""
    rungs = [raw_lab]
    for mark, lab in LADDER:
        # the raw colour has faded at the bitter mark (design)
        own = max(0.0, 1.0 - mark / 2.5) * 0.6
        mixed = [own * raw + (1.0 - own) * named for raw, named in zip(raw_lab, lab, strict=True)]
        rungs.append((min(mixed[0], rungs[-1][0]), mixed[1], mixed[2]))
    return np.array([0.0, *[mark for mark, _ in LADDER]]), np.array(rungs)


def index_to_lab(index: float, raw_lab: Lab) -> Lab:
    """CIELAB of a glaze at a browning index [-], starting from its raw colour.

    Raises OutOfRange for an index below 0 or not finite.
    """
    within("index", index, 0.0, 1e6)
    marks, rungs = ladder_of(raw_lab)
    values = [float(np.interp(index, marks, rungs[:, i])) for i in range(3)]
    return (values[0], values[1], values[2])


def labs_to_hex(labs: NDArray[np.float64]) -> list[str]:
    """sRGB hex of CIELAB colours (n, 3) (D65 white, IEC 61966-2-1), clipped to the gamut."""
    fy = (labs[:, 0] + 16.0) / 116.0  # CIE 15, L*a*b* to XYZ
    f = np.column_stack([fy + labs[:, 1] / 500.0, fy, fy - labs[:, 2] / 200.0])  # the same
    # the same
    xyz = WHITE * np.where(f > 6.0 / 29.0, f**3, 3.0 * (6.0 / 29.0) ** 2 * (f - 4.0 / 29.0))
    linear = np.clip(xyz @ TO_RGB.T, 0.0, 1.0)
    # IEC 61966-2-1, the transfer curve
    coded = np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * linear ** (1 / 2.4) - 0.055)
    packed = np.rint(coded * 255).astype(int) @ np.array([0x10000, 0x100, 1])
    return [f"#{colour:06x}" for colour in packed.tolist()]


def lab_to_hex(lab: Lab) -> str:
    """sRGB hex of one CIELAB colour."""
    return labs_to_hex(np.array([lab]))[0]


def indices_to_hex(indices: NDArray[np.float64], raw_lab: Lab) -> list[str]:
    """sRGB hex of a glaze at many browning indices, (n,).

    Raises OutOfRange for an index below 0 or not finite.
    """
    ranges = Ranges()
    if indices.ndim != 1 or not np.isfinite(indices).all() or (indices < 0).any():
        ranges.add("indices", indices.shape, "finite indices of 0 and more, in one row")
    ranges.close()
    marks, rungs = ladder_of(raw_lab)
    return labs_to_hex(np.column_stack([np.interp(indices, marks, rungs[:, i]) for i in range(3)]))


def index_to_hex(index: float, raw_lab: Lab) -> str:
    """sRGB hex of a glaze at a browning index.

    Examples
    --------
    >>> index_to_hex(0.0, (100.0, 0.0, 0.0))
    '#ffffff'
    """
    return lab_to_hex(index_to_lab(index, raw_lab))
