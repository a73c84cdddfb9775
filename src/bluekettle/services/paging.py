"""What a client hands back as it was told: where a page of a list ended, and which version."""

from __future__ import annotations

import base64
import binascii
import json
import re
from datetime import datetime

from bluekettle.core.errors import Fault, OutOfRange

Place = tuple[str, int]
ETAG = r'(?:W/)?"(?P<version>[0-9]{1,15})(?::[a-z]+)?"'  # ":br" of a packed answer


def make_place(order: str, key: int) -> str:
    """Where a page ended, to be handed back as `after`."""
    return base64.urlsafe_b64encode(json.dumps([order, key]).encode()).decode()


def read_place(after: str, moments: bool = True) -> Place | None:
    """Where the next page begins; OutOfRange for what no page said."""
    if not after:
        return None
    try:
        order, key = json.loads(base64.urlsafe_b64decode(after.encode()))
        if moments and datetime.fromisoformat(order).tzinfo is None:
            raise ValueError(order)
        if not (isinstance(order, str) and isinstance(key, int) and 0 <= key < 2**53):
            raise ValueError(after)
    except (binascii.Error, ValueError, TypeError):
        raise OutOfRange([Fault("after", after, "what `more` of the page before said")]) from None
    return order, key


def read_version(etag: str) -> int | None:
    """The version in an ETag, None where any will do; OutOfRange for what is no ETag of ours."""
    given = etag.strip()
    if given in ("", "*"):
        return None
    found = re.fullmatch(ETAG, given, re.ASCII)
    if found is None:
        raise OutOfRange([Fault("If-Match", etag, 'an ETag that was read, like "3"')])
    return int(found["version"])
