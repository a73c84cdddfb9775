"""Tables whose rows are stages with the facts under which they stand: `if` in words, `fields` as
`name=value` with `$` before what is filled in.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from bluekettle.core.errors import MissingData
from bluekettle.core.tables import Row, rows


def rows_that_hold(table: str, known: frozenset[str], holds: frozenset[str]) -> Iterator[Row]:
    """Rows of a table whose facts all hold, in its order; MissingData for a fact that is not among
    those known.
    """
    for row in rows(table).values():
        wanted = frozenset(row["if"].split())
        if wanted - known:
            raise MissingData("fact", ", ".join(sorted(wanted - known)), sorted(known))
        if wanted <= holds:
            yield row


def fields_of(row: Row, told: Mapping[str, str]) -> dict[str, str]:
    """The kind of stage and the fields of a row as text, filled in from what is told."""
    pairs = (pair.split("=") for pair in row["fields"].split())
    return {"kind": row["stage"], **{name: told.get(text, text) for name, text in pairs}}
