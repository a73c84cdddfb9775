"""Colour of a glaze from its browning index: CIELAB, then sRGB. The only source of glaze colours in the product."""

from __future__ import annotations

import numpy as np

from bluekettle.core.errors import Ranges

Lab = tuple[float, float, float]

# Index and CIELAB (D65) of each named colour; by eye on baked syrups, estimated.
LADDER: tuple[tuple[float, Lab], ...] = (
    (0.4, (58.0, 26.0, 50.0)),
    (1.0, (34.0, 28.0, 29.0)),
    (2.5, (18.0, 12.0, 11.0)),
    (5.0, (7.0, 2.0, 1.5)),
)


def index_to_lab(index: float, raw_lab: Lab) -> Lab:
    """CIELAB of a glaze at a browning index [-], starting from its raw colour.

    A raw glaze darker than amber never gets lighter on its way: lightness is the lower of both.

    Raises OutOfRange for an index below 0 or not finite.
    """
    ranges = Ranges()
    ranges.within("index", index, 0.0, 1e6)
    ranges.close()
    ladder = [(0.0, raw_lab)]
    for mark, lab in LADDER:
        # The sauce's own colour fades out of the mixture up to the bitter mark.
        own = max(0.0, 1.0 - mark / 2.5) * 0.6
        mixed = [own * raw + (1.0 - own) * named for raw, named in zip(raw_lab, lab, strict=True)]
        ladder.append((mark, (min(mixed[0], ladder[-1][1][0]), mixed[1], mixed[2])))
    marks = [mark for mark, _ in ladder]
    values = [float(np.interp(index, marks, [lab[i] for _, lab in ladder])) for i in range(3)]
    return (values[0], values[1], values[2])


def lab_to_hex(lab: Lab) -> str:
    """sRGB hex of a CIELAB colour (D65 white, IEC 61966-2-1), clipped to the gamut."""
    fy = (lab[0] + 16.0) / 116.0
    xyz = []
    for f, white in ((fy + lab[1] / 500.0, 0.95047), (fy, 1.0), (fy - lab[2] / 200.0, 1.08883)):
        xyz.append(white * (f**3 if f > 6.0 / 29.0 else 3.0 * (6.0 / 29.0) ** 2 * (f - 4.0 / 29.0)))
    matrix = np.array([[3.2404542, -1.5371385, -0.4985314], [-0.9692660, 1.8760108, 0.0415560], [0.0556434, -0.2040259, 1.0572252]])  # fmt: skip
    linear = np.clip(matrix @ np.array(xyz), 0.0, 1.0)
    coded = np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * linear ** (1 / 2.4) - 0.055)
    return "#" + "".join(f"{round(float(channel) * 255):02x}" for channel in coded)


def index_to_hex(index: float, raw_lab: Lab) -> str:
    """sRGB hex of a glaze at a browning index.

    Examples
    --------
    >>> index_to_hex(0.0, (100.0, 0.0, 0.0))
    '#ffffff'
    """
    return lab_to_hex(index_to_lab(index, raw_lab))
