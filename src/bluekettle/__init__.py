"""Blue Kettle: plans, times and guides food made tender by one heat and finished by another."""

from __future__ import annotations

import hashlib
import os
import re
import shutil
import sys
import tempfile
from importlib.metadata import version
from pathlib import Path

__version__ = "0.1.0"

CORE = Path(__file__).parent / "core"
KERNELS = "kernels-"  # beginning of every cache folder's name
IMPORTED = re.compile(r"^from bluekettle\.core\.(\S+) import", re.MULTILINE)
KEPT = 3  # cache folders that stay: a checkout goes back and forth


def kernel_sources(core: Path = CORE) -> list[Path]:
    """Files that compiled kernels are made from: those with kernels, and all that they import,
    directly or through others.
    """
    texts = {file: file.read_text(encoding="utf-8") for file in core.rglob("*.py")}
    found: set[Path] = set()
    wanted = [file for file, text in texts.items() if "@njit" in text]
    while wanted:
        file = wanted.pop()
        if file in found:
            continue
        found.add(file)
        for name in IMPORTED.findall(texts[file]):
            place = core.joinpath(*name.split("."))
            wanted += [f for f in (place.with_suffix(".py"), place / "__init__.py") if f in texts]
    return sorted(found)


def kernel_digest(core: Path = CORE) -> str:
    """What compiled kernels depend on, as 16 hexadecimal digits.

    Numba looks at a function's own file only, while constants and callees stand in others and are
    frozen into the machine code. So all code that kernels reach counts, all data, both versions.
    """
    found = hashlib.sha256(f"{version('numba')} {version('numpy')} {sys.version}".encode())
    for file in [*kernel_sources(core), *sorted(core.glob("data/*"))]:
        found.update(file.relative_to(core).as_posix().encode())
        found.update(file.read_bytes())
    return found.hexdigest()[:16]


def kernel_cache() -> Path:
    """The folder for this code's compiled kernels: beside the core, or a temporary one where that
    cannot be written.
    """
    given = os.environ.get("NUMBA_CACHE_DIR")
    beside = CORE / "__pycache__"
    if given and not Path(given).name.startswith(KERNELS):
        beside = Path(given)
    folder = beside / (KERNELS + kernel_digest())
    try:
        folder.mkdir(parents=True, exist_ok=True)
        drop_old(beside)
    except OSError:
        folder = Path(tempfile.gettempdir()) / f"bluekettle-{os.getuid()}" / folder.name
        folder.mkdir(parents=True, exist_ok=True)
    return folder


def drop_old(beside: Path) -> None:
    """Remove all but the newest cache folders."""
    old = sorted(beside.glob(KERNELS + "*"), key=lambda p: p.stat().st_mtime, reverse=True)[KEPT:]
    for folder in old:
        shutil.rmtree(folder, ignore_errors=True)


def use_kernel_cache() -> None:
    """Point numba at the cache, whether it is loaded already or not."""
    folder = str(kernel_cache())
    os.environ["NUMBA_CACHE_DIR"] = folder
    if "numba" in sys.modules:
        sys.modules["numba"].config.CACHE_DIR = folder


use_kernel_cache()
