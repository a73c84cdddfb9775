"""The real server, with a clock that a test moves: the seconds in a file are added to it."""

import os
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path

from bluekettle.app import create_app
from bluekettle.config import Config
from bluekettle.demo import fill
from bluekettle.serving import make_server, open_port


def moved() -> datetime:
    """The moment, as a test has moved it."""
    ahead = Path(os.environ["KETTLE_TEST_CLOCK"]).read_text(encoding="utf-8")
    return datetime.now(UTC) + timedelta(seconds=float(ahead or 0.0))


if __name__ == "__main__":
    listening = open_port("127.0.0.1", int(sys.argv[1]))
    app = create_app(Config.from_environment())
    app.extensions["kettle_clock"] = moved
    if "--demo" in sys.argv:
        fill(app.extensions["kettle_engine"], moved())
    print(f"http://127.0.0.1:{listening.getsockname()[1]}", flush=True)
    app.extensions["kettle_workshop"].warm()
    make_server(app, listening).run()
