"""Deliberate changes to the core, and whether a test sees them. Run: make mutants (some two hours),
or SAMPLE=40 SEED=7 make mutants for some of them, drawn by chance.

The changes are data (mutants.json): a file, the text of a line, and what stands there instead. They
were drawn by chance over the rooms (`draw`), so that they are not those that the tests were written
for. One that changes nothing that matters is named `equivalent` with its reason.
"""

from __future__ import annotations

import ast
import csv
import json
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from queue import Queue
from typing import Any

ROOT = Path(__file__).parents[1]
CORE = ROOT / "src/bluekettle/core"
LIST = Path(__file__).with_name("mutants.json")
# How many of each room are drawn.
ROOMS = {
    "heat": 15,
    "glaze": 26,
    "chain": 30,
    "stages": 38,
    "safety": 22,
    "advice": 14,
    "lethality": 4,
    "data": 20,
}
SWAPS = {"<": ">", ">": "<", "<=": ">=", ">=": "<=", "+": "-", "-": "+", "*": "/", "/": "*"}
NAMES = {
    "min": "max",
    "max": "min",
    "floor": "ceil",
    "ceil": "floor",
    "minimum": "maximum",
    "maximum": "minimum",
}
OPERATORS = {
    ast.Lt: "<",
    ast.Gt: ">",
    ast.LtE: "<=",
    ast.GtE: ">=",
    ast.Add: "+",
    ast.Sub: "-",
    ast.Mult: "*",
    ast.Div: "/",
}
# Tests by room, the likeliest first; the run ends with the first that fails.
FIRST = {
    "safety": [
        "tests/chain/test_plan_thresholds.py",
        "tests/chain/test_plan_rules.py",
        "tests/core/test_first_heats.py",
    ],
    "advice": ["tests/core/test_advice.py", "tests/chain/test_right.py"],
    "chain": ["tests/chain/test_same_food.py", "tests/chain/test_plan_rules.py"],
}
SOONEST = ["tests/core/test_goldens.py"]
TESTS = ["tests/core", "tests/against", "tests/chain"]
# Of rooms that nothing but these could notice: all tests would take a quarter of an hour each.
LAST = {
    "safety": [
        "tests/chain/test_patterns.py",
        "tests/chain/test_right.py",
        "tests/core/test_safe_everywhere.py",
        "tests/core/test_lying.py",
    ]
}
LONGEST_S = 900.0  # three times what all of them take
LOST = "LOST"  # the line was written anew: put what it is now into the list

Change = dict[str, Any]


def draw(seed: int) -> list[Change]:
    """Changes by chance."""
    dice = random.Random(seed)
    found: list[Change] = []
    for room, count in ROOMS.items():
        places = list(in_data() if room == "data" else in_code(room))
        found += dice.sample(places, count)
    return found


def in_data() -> Iterator[Change]:
    """Every lone constant, a fifth more."""
    path = CORE / "data/constants.csv"
    for line in path.read_text(encoding="utf-8").splitlines()[1:]:
        cells = next(csv.reader([line]))
        raised = f"{1.2 * float(cells[1]):.6g}"
        yield change(path, line, line.replace(f",{cells[1]},", f",{raised},", 1))


def in_code(room: str) -> Iterator[Change]:
    """Every comparison, sum, product, bound and number of a room, changed."""
    for path in sorted((CORE / room).rglob("*.py")):
        text = path.read_text(encoding="utf-8")
        lines = text.splitlines()
        for node in ast.walk(ast.parse(text)):
            for line, column, old, new in swaps_of(node, lines):
                rest = lines[line - 1]
                made = rest[:column] + new + rest[column + len(old) :]
                yield change(path, rest, made)


def swaps_of(node: ast.AST, lines: list[str]) -> Iterator[tuple[int, int, str, str]]:
    """Line, column, old and new text of what may be changed at a node."""
    if isinstance(node, ast.Compare) and type(node.ops[0]) in OPERATORS:
        yield from between(node.left, node.comparators[0], OPERATORS[type(node.ops[0])], lines)
    elif isinstance(node, ast.BinOp) and type(node.op) in OPERATORS:
        yield from between(node.left, node.right, OPERATORS[type(node.op)], lines)
    elif isinstance(node, ast.Call):
        name = (
            node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")
        )
        if name in NAMES:
            column = (node.func.end_col_offset or 0) - len(name)
            yield node.func.end_lineno or 0, column, name, NAMES[name]
    elif isinstance(node, ast.Constant) and isinstance(node.value, float) and node.value:
        if ".within(" in lines[node.lineno - 1]:
            return  # what is accepted, not what is computed
        old = lines[node.lineno - 1][node.col_offset : node.end_col_offset]
        yield node.lineno, node.col_offset, old, f"{1.2 * node.value:.6g}"
    elif isinstance(node, ast.BoolOp):
        word, other = ("and", "or") if isinstance(node.op, ast.And) else ("or", "and")
        yield from between(node.values[0], node.values[1], word, lines, other)


def between(
    left: ast.expr, right: ast.expr, old: str, lines: list[str], new: str = ""
) -> Iterator[tuple[int, int, str, str]]:
    """An operator between two terms of one line."""
    if left.end_lineno != right.lineno:
        return
    gap = lines[right.lineno - 1][left.end_col_offset : right.col_offset]
    if gap.count(old) == 1:
        column = (left.end_col_offset or 0) + gap.index(old)
        yield right.lineno, column, old, new or SWAPS[old]


def change(path: Path, old: str, new: str) -> Change:
    """A change as it is kept."""
    return {"file": str(path.relative_to(CORE)), "old": old, "new": new}


class Bench:
    """A copy of the project in a place of its own, in which a change is made and taken back; so
    kernels that it does not touch stay compiled.
    """

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        for part in ("src", "tests"):
            shutil.copytree(ROOT / part, folder / part)
        shutil.copyfile(ROOT / "pyproject.toml", folder / "pyproject.toml")

    def seen(self, item: Change) -> str:
        """The first test that fails with a change made; empty where none does, LOST where the line
        is no longer there.
        """
        path = self.folder / "src/bluekettle/core" / item["file"]
        text = path.read_text(encoding="utf-8")
        if item["old"] not in text:
            return LOST
        path.write_text(text.replace(item["old"], item["new"], 1), encoding="utf-8")
        try:
            return self.first_failure(item["file"].partition("/")[0])
        finally:
            path.write_text(text, encoding="utf-8")

    def first_failure(self, room: str) -> str:
        """Run the tests that are likely to see it, then all that are fast."""
        return self.failure([*FIRST.get(room, []), *SOONEST]) or self.failure(LAST.get(room, TESTS))

    def failure(self, tests: list[str]) -> str:
        """The first of these tests that fails; empty where none does."""
        try:
            run = subprocess.run(
                [sys.executable, "-m", "pytest", "-q", "-x", *tests],
                cwd=self.folder,
                env={**os.environ, "PYTHONPATH": f"{self.folder / 'src'}:{self.folder}"},
                capture_output=True,
                text=True,
                timeout=LONGEST_S,
            )
        except subprocess.TimeoutExpired:
            return "(it hangs)"
        failed = [line for line in run.stdout.splitlines() if line.startswith(("FAILED", "ERROR"))]
        return failed[0][:110] if failed else ("" if run.returncode == 0 else "(nothing ran)")


def some_of(changes: list[Change]) -> list[Change]:
    """All of them, or as many by chance as SAMPLE says, drawn with SEED."""
    count = int(os.environ.get("SAMPLE", len(changes)))
    if count >= len(changes):
        return changes
    return random.Random(int(os.environ.get("SEED", "1"))).sample(changes, count)


def verdict_of(item: Change, found: str) -> str:
    """What became of a change."""
    if found == LOST:
        return LOST
    if found:
        return "caught"
    return "equivalent" if item.get("equivalent") else "SURVIVED"


def main() -> None:
    """Draw the list anew, or run it."""
    if sys.argv[1:2] == ["draw"]:
        LIST.write_text(json.dumps(draw(int(sys.argv[2])), indent=1, ensure_ascii=False) + "\n")
        return
    changes = some_of(json.loads(LIST.read_text(encoding="utf-8")))
    wanted = int(os.environ.get("WORKERS", "2"))
    tally: Counter[str] = Counter()
    with tempfile.TemporaryDirectory() as folder, ThreadPoolExecutor(wanted) as pool:
        benches: Queue[Bench] = Queue()
        for number in range(wanted):
            benches.put(Bench(Path(folder) / str(number)))

        def seen(item: Change) -> str:
            bench = benches.get()
            try:
                return bench.seen(item)
            finally:
                benches.put(bench)

        for item, found in zip(changes, pool.map(seen, changes), strict=True):
            verdict = verdict_of(item, found)
            tally[verdict] += 1
            print(f"{verdict:10} {item['file']}: {item['new'].strip()[:90]}  {found}", flush=True)
    print(dict(tally))


if __name__ == "__main__":
    main()
