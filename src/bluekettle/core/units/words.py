"""Shares and spans of time in words, the same everywhere."""

from __future__ import annotations

from bluekettle.core.errors import within

THIN = "\u202f"  # the thin space before a sign, that no line is broken at


def percent(share: float) -> str:
    """A share from -100 to 100 as "25 %" with a thin space, below 10 with a tenth; OutOfRange
    otherwise.

    Examples
    --------
    >>> percent(0.254) == "25\\u202f%"
    True
    """
    within("share", share, -100.0, 100.0)
    tenths = 0.0 < abs(share) < 0.0995 and round(share * 1000.0) % 10  # ten and more is told whole
    return f"{share * 100.0:.{1 if tenths else 0}f}{THIN}%"


def times_in_ten(share: float) -> str:
    """A chance from 0 to 1 as a frequency; OutOfRange otherwise.

    Examples
    --------
    >>> times_in_ten(0.22)
    'right 2 times in 10'
    >>> times_in_ten(0.99)
    'right nearly always'
    """
    within("share", share, 0.0, 1.0)
    count = round(share * 10.0)
    if count <= 0:
        return "hardly ever right"
    if count >= 10:
        return "right nearly always"
    return f"right {count} time{'' if count == 1 else 's'} in 10"


def span_words(seconds: float) -> str:
    """A span of 0 to 1e7 s as a person says it, to what matters; OutOfRange otherwise.

    Examples
    --------
    >>> [span_words(s) for s in (38.0, 64.0, 378.0, 9960.0)]
    ['40 seconds', '1 minute', '6 minutes', '2 h 46 min']
    """
    within("seconds", seconds, 0.0, 1e7, "s")
    if seconds < 55.0:  # from here on it is a minute
        return f"{max(5, 5 * round(seconds / 5.0))} seconds"
    minutes = round(seconds / 60.0)
    if minutes < 100:
        return f"{minutes} minute{'' if minutes == 1 else 's'}"
    rest = minutes % 60
    return f"{minutes // 60} h" + (f" {rest} min" if rest else "")
