"""The application on a port of its own with a fresh demo database, for pictures and for times."""

import os
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
PORT = 8391
BASE = f"http://127.0.0.1:{PORT}"


@contextmanager
def serving_demo(large: tuple[int, int] | None = None) -> Iterator[None]:
    """Serves at BASE until left; with so many clients and recipes. Raises SystemExit where it does
    not come up."""
    with tempfile.TemporaryDirectory() as var:
        environment = {
            **os.environ,
            "ROUNDPANTRY_VAR": var,
            "ROUNDPANTRY_DEMO": "1",
            "ROUNDPANTRY_DB": f"{var}/demo.sqlite3",
        }
        subprocess.run(
            [sys.executable, "manage.py", "demo"],
            cwd=ROOT,
            env=environment,
            check=True,
            stdout=subprocess.DEVNULL,
        )
        if large is not None:
            subprocess.run(
                [sys.executable, "-m", "e2e.large", *map(str, large)],
                cwd=ROOT,
                env=environment,
                check=True,
            )
        command = [
            sys.executable,
            "-m",
            "roundpantry.serve",
            f"--listen=127.0.0.1:{PORT}",
        ]
        works = [sys.executable, "manage.py", "work", "--with-parent", str(os.getpid())]
        server, worker = (
            subprocess.Popen(one, cwd=ROOT, env=environment) for one in (command, works)
        )
        try:
            wait_until_up()
            yield
        finally:
            for one in (server, worker):
                one.terminate()


def wait_until_up() -> None:
    for _ in range(100):
        try:
            urllib.request.urlopen(f"{BASE}/sign-in/", timeout=1)
            return
        except OSError:
            time.sleep(0.1)
    raise SystemExit("the application did not come up")
