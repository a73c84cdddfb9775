"""A server in a process of its own, as a cook's machine runs it."""

from __future__ import annotations

import json
import os
import re
import signal
import subprocess
import sys
import urllib.request
from dataclasses import dataclass
from io import BytesIO
from pathlib import Path
from typing import Any
from urllib.error import HTTPError

SMALL = {"cut": "beef-short-ribs", "mass_kg": 0.5, "pieces": 1, "thickness_mm": 30.0}


@dataclass
class Server:
    """A served kettle that can be killed and served again on the same data and port. Once its clock
    is moved it is served with a clock of its own.
    """

    data: Path
    port: int = 0
    ahead_s: float = 0.0
    process: subprocess.Popen[str] | None = None
    inside: tuple[str, ...] = ()  # a command that the server is run by
    passcode: str = ""
    cookie: str = ""

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    @property
    def clock(self) -> Path:
        return self.data / "clock.txt"

    def start(self, *options: str) -> str:
        kettle = str(Path(sys.executable).with_name("kettle"))
        if self.passcode:
            options = (*options, "--passcode", self.passcode)
        return self._serve([kettle, "serve", "--port", str(self.port), *options])

    def start_moved(self, *options: str) -> str:
        """Serve with the clock that `wait` moves."""
        self.wait(0.0)
        return self._serve([sys.executable, "-m", "tests.moved_server", str(self.port), *options])

    def wait(self, seconds: float) -> None:
        """Let the clock of the server jump."""
        self.ahead_s += seconds
        self.clock.write_text(str(self.ahead_s), encoding="utf-8")

    def _serve(self, command: list[str]) -> str:
        self.process = subprocess.Popen(
            [*self.inside, *command],
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
        first = self.port == 0
        self.port = int(address.group(1))
        if self.passcode:
            self.join()
        if first:
            # The page's patience is for the model, not for a busy machine that starts a process.
            self.ask("/forecasts", SMALL, patience_s=180.0)
        return address.group(0)

    def ask(self, path: str, body: Any = None, method: str = "", patience_s: float = 60.0) -> Any:
        """What the server says; an HTTPError for a refusal, read whole: no socket stays open."""
        data = None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": "application/json", "Cookie": self.cookie}
        method = method or ("GET" if body is None else "POST")
        request = urllib.request.Request(
            f"{self.address}/api/v1{path}", data, headers, method=method
        )
        try:
            with urllib.request.urlopen(request, timeout=patience_s) as answer:
                return json.load(answer)
        except HTTPError as refused:
            with refused:
                told = BytesIO(refused.read())
            code, words, headers = refused.code, refused.msg, refused.headers
            raise HTTPError(request.full_url, code, words, headers, told) from None

    def join(self) -> None:
        """Tell the passcode, as a device of its own."""
        body = json.dumps({"passcode": self.passcode}).encode()
        headers = {"Content-Type": "application/json"}
        request = urllib.request.Request(f"{self.address}/api/v1/session", body, headers)
        with urllib.request.urlopen(request, timeout=60.0) as answer:
            self.cookie = answer.headers["Set-Cookie"].partition(";")[0]

    def kill(self) -> None:
        assert self.process is not None
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()
        assert self.process.stdout is not None
        self.process.stdout.close()
