"""The OpenAPI document, with errors under the media type they really have."""

from __future__ import annotations

import copy
from typing import Any

from bluekettle.api.errors import MEDIA

PROBLEM = {"$ref": "#/components/schemas/Problem"}


def with_problems(document: dict[str, Any]) -> dict[str, Any]:
    """A copy of the generated document in which every 4xx answer is a problem document."""
    made = copy.deepcopy(document)
    for item in made["paths"].values():
        for operation in item.values():
            for status, answer in operation["responses"].items():
                if status.startswith("4"):
                    answer["content"] = {MEDIA: {"schema": PROBLEM}}
    return made
