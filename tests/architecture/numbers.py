"""Finds numbers in code that do not say where they are from."""

from __future__ import annotations

import ast
import math
from collections.abc import Iterator
from pathlib import Path

# Plain: what needs no source. Whole numbers count, index or raise to a power; the quantiles are
# those of bands (P10, P90) and of the unfavourable side (P5, P95); 4 and 6 make areas and volumes.
PLAIN = (0, 1, 2, 3, 4, 6, 0.5, 60, 3600, 0.05, 0.1, 0.9, 0.95)
RANGES = ("within", "one_of", "limited", "round", "Field")  # what is accepted, and how it is shown


def unexplained(path: Path) -> Iterator[tuple[int, float]]:
    """Line and value of every number of a file that is not plain and says nothing of its origin: no
    remark on or above its line or its statement, and no source in the docstring of its function.
    """
    text = path.read_text(encoding="utf-8")
    lines = text.splitlines()
    yield from in_body(ast.parse(text), lines, told=False)


def in_body(node: ast.AST, lines: list[str], told: bool) -> Iterator[tuple[int, float]]:
    """Numbers below a node."""
    if isinstance(node, ast.FunctionDef | ast.ClassDef):
        told = told or "ource" in (ast.get_docstring(node) or "")
    if isinstance(node, ast.stmt) and not isinstance(node, ast.FunctionDef | ast.ClassDef):
        told = told or remarked(node, lines)
    if isinstance(node, ast.Call) and name_of(node.func) in RANGES:
        return
    if isinstance(node, ast.Subscript):
        yield from in_body(node.value, lines, told)
        return
    if isinstance(node, ast.Constant):
        if not (told or plain(node.value) or remarked(node, lines)):
            yield node.lineno, node.value
        return
    for child in ast.iter_child_nodes(node):
        yield from in_body(child, lines, told)


def remarked(node: ast.stmt | ast.expr, lines: list[str]) -> bool:
    """Whether a remark stands on a line or right above it."""
    above = lines[node.lineno - 2].strip() if node.lineno > 1 else ""
    return above.startswith("#") or "#" in lines[node.lineno - 1]


def name_of(call: ast.expr) -> str:
    """The last name of what is called."""
    return call.attr if isinstance(call, ast.Attribute) else getattr(call, "id", "")


def plain(value: object) -> bool:
    """No number, or one that needs no source."""
    if not isinstance(value, float):
        return True
    size = abs(value)
    return size in PLAIN or math.isclose(math.log10(size), round(math.log10(size)), abs_tol=1e-12)
