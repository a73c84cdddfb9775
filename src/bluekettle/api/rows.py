"""A request whose body may be comma-separated values where a list of rows is wanted."""

from __future__ import annotations

import csv
from contextlib import suppress
from io import StringIO
from typing import Any

from flask import Request

CSV = "text/csv"
ROWS = {"/readings": "readings"}  # what the rows are called, by the end of the address


class RowsRequest(Request):
    """A request that reads CSV (RFC 4180) as the JSON that it stands for."""

    def get_json(self, force: bool = False, silent: bool = False, cache: bool = True) -> Any:
        """The body as JSON would be."""
        name = next((name for end, name in ROWS.items() if self.path.endswith(end)), "")
        if self.mimetype != CSV or not name:
            return super().get_json(force, silent, cache)
        text = self.get_data(as_text=True)
        try:
            return {name: rows_of(text)}
        except csv.Error as error:
            return {name: str(error)}  # no list: told as such


def rows_of(text: str) -> list[dict[str, Any]]:
    """The rows of a text; empty cells are left out, and what is a number is one. A cell without a
    column is of the column `None`, which no schema knows.
    """
    found = []
    for row in csv.DictReader(StringIO(text), strict=True):
        cells = {str(name): value for name, value in row.items() if value not in (None, "")}
        if "value" in cells:
            with suppress(TypeError, ValueError):
                cells["value"] = float(cells["value"])
        found.append(cells)
    return found
