"""The house rules that a reader would check by hand."""

import ast
import os
import re
import shutil
import subprocess
import sys
from dataclasses import replace
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlmodel import SQLModel

import bluekettle.store.tables  # noqa: F401
from bluekettle.core import tables
from bluekettle.store.engine import make_engine, migrate
from tests.architecture.numbers import unexplained

ROOT = Path(__file__).parents[2]
PACKAGE = ROOT / "src/bluekettle"


def test_migrations_build_exactly_the_tables_of_the_models(tmp_path):
    engine = make_engine(tmp_path / "new.sqlite3")
    migrate(engine)
    migrate(engine)  # a second time changes nothing
    with engine.connect() as connection:
        context = MigrationContext.configure(connection, opts={"compare_type": False})
        assert compare_metadata(context, SQLModel.metadata) == []
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"
        assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1
    engine.dispose()


def test_lock_files_name_no_registry():
    for lock in ("requirements.lock", "web/package-lock.json"):
        text = (ROOT / lock).read_text(encoding="utf-8")
        assert not re.search(r"https?://[^\s\"]*(registry|pypi|pythonhosted|npmjs|mirror)", text), (
            lock
        )
        assert '"resolved"' not in text
    assert "--hash=sha256:" in (ROOT / "requirements.lock").read_text(encoding="utf-8")


def test_components_read_css_variables_and_never_hex_colours():
    """Glaze colours come from the server; the few literals left are the light and dark ink on
    enamel.
    """
    allowed = {"#fff", "#000", "#f6f2e7", "#dfe6ee", "#f08a4b", "#7a1608", "#7fa3c7", "#0b1826"}
    for file in (ROOT / "web" / "src").rglob("*.vue"):
        style = "".join(re.findall(r"<style.*?</style>", file.read_text(encoding="utf-8"), re.S))
        assert set(re.findall(r"#[0-9a-fA-F]{3,8}\b", style)) <= allowed, file.name


def test_no_module_is_a_drawer_for_odds_and_ends():
    names = {p.stem for p in (ROOT / "src").rglob("*.py")} | {
        p.stem for p in (ROOT / "web" / "src").rglob("*.ts")
    }
    assert not names & {"utils", "util", "helpers", "helper", "manager", "misc", "common"}
    long = [
        p.name
        for p in (ROOT / "src").rglob("*.py")
        if len(p.read_text(encoding="utf-8").splitlines()) > 600
    ]
    assert long == []


def test_the_core_runs_without_any_interface_package():
    """Forecasting a dish loads no web framework, no database and no clock of its own."""
    code = (
        "import sys\nfrom bluekettle.core.chain import Heat, Plan, Until, forecast_plan\n"
        "heat = Heat('fry', 'air_fryer', Until('minutes', 9.0))\n"
        "forecast_plan(Plan('pork-ribs', 1.4, 4, 26.0, (heat,)))\n"
        "names = ('flask', 'sqlmodel', 'sqlalchemy', 'pydantic', 'click', 'waitress')\n"
        "print([m for m in names if m in sys.modules])"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"


def test_a_changed_constant_changes_what_compiled_kernels_say(tmp_path):
    """Constants and callees in other files are frozen into machine code: its cache must not outlive
    them.
    """
    copy = tmp_path / "bluekettle"
    shutil.copytree(ROOT / "src/bluekettle", copy, ignore=shutil.ignore_patterns("static", "__py*"))
    code = (
        "import numpy as np\n"
        "from bluekettle.core.tenderness import cook_value_min\n"
        "print(cook_value_min(np.array([0.0, 600.0]), np.array([80.0, 80.0])))"
    )

    def cook_value() -> float:
        env = {**os.environ, "PYTHONPATH": str(tmp_path), "NUMBA_CACHE_DIR": str(tmp_path)}
        done = subprocess.run(
            [sys.executable, "-c", code], capture_output=True, text=True, check=True, env=env
        )
        return float(done.stdout)

    z_c = float(re.search(r"^cook_z_c,([\d.]+),", table_of(copy), re.M).group(1))
    assert cook_value() == pytest.approx(10.0 * 10.0 ** (-20.0 / z_c))
    changed = re.sub(r"^cook_z_c,[\d.]+,", "cook_z_c,20,", table_of(copy), flags=re.M)
    (copy / "core/data/constants.csv").write_text(changed, encoding="utf-8")
    assert cook_value() == pytest.approx(1.0)


def table_of(package: Path) -> str:
    """The table of constants of a copy of the package."""
    return (package / "core/data/constants.csv").read_text(encoding="utf-8")


def test_every_number_of_the_core_says_where_it_is_from():
    """Constants live in data/ with their provenance; what stands in code has a remark."""
    core = ROOT / "src/bluekettle/core"
    found = [
        f"{file.relative_to(core)}:{line} {number:g}"
        for file in sorted(core.rglob("*.py"))
        for line, number in unexplained(file)
    ]
    assert found == []


def test_a_number_without_a_remark_is_found(tmp_path):
    code = tmp_path / "room.py"
    code.write_text("A = 0.7\nB = 0.7  # typical\n# typical\nC = 0.7\nD = round(x, 3) + 2.0\n")
    assert list(unexplained(code)) == [(1, 0.7)]


def test_a_constant_that_nothing_reads_is_told(monkeypatch):
    known = tables.constants()
    unread = {**known, "left_over_m": replace(known["crackles_m"], name="left_over_m")}
    monkeypatch.setattr(tables, "constants", lambda: unread)
    assert tables.check_data() == ["constants/left_over_m: nothing reads it"]


UNIT = re.compile(r"\[[^\]]+\]|°C|[Ss]econds|[Mm]inutes|[Ss]hare|[Cc]hance|[Ww]hether|per cent")


def test_every_public_figure_of_the_core_says_its_unit():
    """A function that returns a number or an array of numbers names the unit, [-] where none."""
    silent = []
    for path in sorted((PACKAGE / "core").rglob("*.py")):
        module = ast.parse(path.read_text(encoding="utf-8"))
        classes = [node for node in module.body if isinstance(node, ast.ClassDef)]
        for node in (f for body in (module, *classes) for f in body.body):
            if not isinstance(node, ast.FunctionDef) or node.name.startswith("_"):
                continue
            returns = ast.unparse(node.returns) if node.returns else ""
            words = ast.get_docstring(node) or ""
            if returns in ("float", "Array") and not UNIT.search(words):
                silent.append(f"{path.relative_to(PACKAGE)} {node.name}")
    assert silent == []


# Words that name a heat and something else: the foil of a rescue, a braise among sauces, what a tap
# of the skewer is slow in.
OTHER_MEANINGS = {"foil", "braise", "slow", "contact"}


def heats_compared(code: str) -> list[str]:
    """Comparisons with the name of a heat, as they stand in the code."""
    names = {line[key] for line in tables.rows("heats").values() for key in ("slow", "fierce")}
    names = (names | set(tables.rows("heats"))) - OTHER_MEANINGS - {""}
    return [
        ast.unparse(node)
        for node in ast.walk(ast.parse(code))
        if isinstance(node, ast.Compare)
        for side in (node.left, *node.comparators)
        for one in ast.walk(side)
        if isinstance(one, ast.Constant) and one.value in names
    ]


def test_no_rule_asks_a_heat_for_its_name():
    """What it wants to know is a column of the heat or of its body."""
    assert heats_compared("if row.body in ('pot', 'oven'): pass") == ["row.body in ('pot', 'oven')"]
    rooms = ("core/advice", "core/chain", "core/safety", "core/schedule", "core/stages", "services")
    found = {
        f"{file.relative_to(PACKAGE)}: {one}"
        for room in rooms
        for file in (PACKAGE / room).rglob("*.py")
        for one in heats_compared(file.read_text(encoding="utf-8"))
    }
    # A type of appliance that is called as its heat: its dial is where its tray hangs.
    assert found == {"services/appliance_kinds.py: kind.type == 'broiler'"}


def test_every_heat_is_drawn_on_the_stove_and_among_the_taps():
    """The drawings stand in the page's own files, by the key of the slow or the fierce heat."""
    ui = ROOT / "web/src"
    heats = tables.rows("heats").values()
    keys = {line[side] for line in heats for side in ("slow", "fierce") if line[side]}
    for file in ("features/stove/vessels.ts", "shared/ui/HeatPicture.vue"):
        text = (ui / file).read_text(encoding="utf-8")
        assert keys - set(re.findall(r"^  (\w+): ", text, re.M)) == set(), file
