"""Settings, from the environment where it says so."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path


@dataclass(frozen=True)
class Config:
    """Where the data lies, and how strict the answers are checked."""

    database: Path
    testing: bool = False

    @classmethod
    def from_environment(cls) -> Config:
        """KETTLE_DATA names the folder of the database; the default lies outside the source tree's
        tracked files.
        """
        folder = Path(os.environ.get("KETTLE_DATA", Path.cwd() / "var"))
        return cls(folder / "kettle.sqlite3")
