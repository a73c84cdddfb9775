"""A real server on the built page, and Debian's Chromium."""

from __future__ import annotations

import os
import re
import signal
import subprocess
import sys
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import expect

expect.set_options(
    timeout=15_000
)  # a server that has just started on a busy machine compiles nothing, but loads much
AXE_LEVELS = ("serious", "critical")


@dataclass
class Server:
    """A served kettle that can be killed and served again on the same data and port. Once its clock
    is moved it is served with a clock of its own.
    """

    data: Path
    port: int = 0
    ahead_s: float = 0.0
    process: subprocess.Popen[str] | None = None

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    @property
    def clock(self) -> Path:
        return self.data / "clock.txt"

    def start(self, *options: str) -> str:
        kettle = str(Path(sys.executable).with_name("kettle"))
        return self._serve([kettle, "serve", "--port", str(self.port), *options])

    def start_moved(self, *options: str) -> str:
        """Serve with the clock that `wait` moves."""
        self.wait(0.0)
        return self._serve([sys.executable, "-m", "tests.browser.served", str(self.port), *options])

    def wait(self, seconds: float) -> None:
        """Let the clock of the server jump."""
        self.ahead_s += seconds
        self.clock.write_text(str(self.ahead_s), encoding="utf-8")

    def _serve(self, command: list[str]) -> str:
        self.process = subprocess.Popen(
            command,
            env={
                **os.environ,
                "KETTLE_DATA": str(self.data),
                "KETTLE_WORKERS": "1",
                "KETTLE_TEST_CLOCK": str(self.clock),
            },
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
        )
        assert self.process.stdout is not None
        address = re.search(r"http://127.0.0.1:(\d+)", self.process.stdout.readline())
        assert address, "the server did not print its address"
        self.port = int(address.group(1))
        return address.group(0)

    def kill(self) -> None:
        assert self.process is not None
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()
        assert self.process.stdout is not None
        self.process.stdout.close()


@pytest.fixture
def server(tmp_path: Path) -> Iterator[Server]:
    found = Server(tmp_path)
    yield found
    if found.process and found.process.poll() is None:
        found.kill()


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict[str, Any]) -> dict[str, Any]:
    return {**browser_type_launch_args, "executable_path": "/usr/bin/chromium"}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict[str, Any]) -> dict[str, Any]:
    return {
        **browser_context_args,
        "viewport": {"width": 1280, "height": 800},
        "locale": "en-GB",
        "timezone_id": "Europe/London",
        "reduced_motion": "reduce",
    }


@pytest.fixture
def axe() -> Any:
    """Runs axe on a page and returns its serious findings."""
    source = (Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js").read_text(
        encoding="utf-8"
    )

    def run(page: Any) -> list[str]:
        page.evaluate(source)
        found = page.evaluate("axe.run(document, {resultTypes: ['violations']})")
        return [
            f"{v['id']}: {v['nodes'][0]['html'][:160]}"
            for v in found["violations"]
            if v["impact"] in AXE_LEVELS
        ]

    return run


@pytest.fixture(scope="session")
def base_url() -> None:
    """Each test serves its own kettle and goes to whole addresses (and pytest 9 warns of the
    plugin's own fixture).
    """
