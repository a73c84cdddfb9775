"""The OpenAPI document: errors under the media type they really have, what every route may answer,
an example of every body, and where a created record is read.
"""

from __future__ import annotations

import copy
from http import HTTPStatus
from typing import Any

from bluekettle.api.errors import MEDIA
from bluekettle.api.examples import EXAMPLES

PROBLEM = {"$ref": "#/components/schemas/Problem"}
CHANGES = ("post", "put", "patch", "delete")
# What any route may answer: a method it does not have, a name that is not this server's.
ALWAYS = (405, 421)
# What a change may answer besides: another site's page, a body too large, a disk that is full.
OF_CHANGES = (403, 413, 507)
OF_SAVES = (409,)  # a save that races a delete
ALLOW = {"Allow": {"description": "the methods there are", "schema": {"type": "string"}}}


def with_problems(document: dict[str, Any]) -> dict[str, Any]:
    """A copy of the generated document that says all of it."""
    made = copy.deepcopy(document)
    for path, item in made["paths"].items():
        for method, operation in item.items():
            say_problems(method, operation["responses"])
            say_example(operation)
            say_links(made["paths"], path, operation)
    return made


def say_problems(method: str, responses: dict[str, Any]) -> None:
    """Every answer from 400 on, as a problem document."""
    possible = ALWAYS + (OF_CHANGES if method in CHANGES else ())
    possible += OF_SAVES if method == "put" else ()
    for code in possible:
        responses.setdefault(str(code), {"description": HTTPStatus(code).phrase})
    responses["405"]["headers"] = ALLOW
    for status, told in responses.items():
        if status >= "400":
            told["content"] = {MEDIA: {"schema": PROBLEM}}


def say_example(operation: dict[str, Any]) -> None:
    """A body that is taken as it stands."""
    for content in operation.get("requestBody", {}).get("content", {}).values():
        name = content["schema"].get("$ref", "").rpartition("/")[2]
        if name in EXAMPLES:
            content["example"] = EXAMPLES[name]


def say_links(paths: dict[str, Any], path: str, operation: dict[str, Any]) -> None:
    """From a created record to everything that takes its number."""
    created = operation["responses"].get("201")
    own = path + "/{id}"
    if created is None or own not in paths:
        return
    created["links"] = {
        follows["operationId"]: {
            "operationId": follows["operationId"],
            "parameters": {"path.id": "$response.body#/id"},
        }
        for other, item in paths.items()
        if other == own or other.startswith(own + "/")
        for follows in item.values()
    }
