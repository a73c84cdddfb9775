"""What `kettle` runs. A server's model is loaded beside the server itself, not after it."""

from __future__ import annotations

import os
import sys

from bluekettle.services.forking import begin_loading


def main() -> None:
    """Run a command."""
    if sys.argv[1:2] == ["serve"] and os.environ.get("KETTLE_WORKERS") != "0":
        begin_loading()
    from bluekettle.commands import main as run  # noqa: PLC0415

    run()
