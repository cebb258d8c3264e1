"""Follow docs/running.md line by line, in a folder in place of the machine's own, and keep the
console.

    python deploy/try_it.py --root DIR [--console FILE]

What belongs to a whole machine is done in small: files go below DIR, the ports are others, the
service user is whoever calls it, and systemctl is played by starting what the units name, with the
environment that they name.
"""

from __future__ import annotations

import argparse
import os
import re
import shlex
import shutil
import signal
import socket
import subprocess
import sys
import time
from contextlib import ExitStack
from pathlib import Path

HERE = Path(__file__).resolve().parent.parent
SITE, PRACTICE, OWNER, PASSWORD = "pantry.example", "Lantern Quay", "wren", "harbor light seven"


def _free_ports(count: int) -> list[int]:
    """Ports that nobody has just now."""
    with ExitStack() as held:
        sockets = [held.enter_context(socket.socket()) for _ in range(count)]
        for one in sockets:
            one.bind(("127.0.0.1", 0))
        return [one.getsockname()[1] for one in sockets]


SERVER, HTTP, HTTPS = _free_ports(3)
# Which port stands for which.
PORTS = {
    "127.0.0.1:8000": f"127.0.0.1:{SERVER}",
    "listen 80;": f"listen {HTTP};",
    "listen 443 ": f"listen {HTTPS} ",
}
# What is not taken along: it is not needed to run.
LEFT_BEHIND = ("docs/screenshots", "nutrition/tests")
# What is not done in small, and what is said instead.
LEFT_OUT = {
    "apt-get": "(the packages are there)",
    "useradd": "(its user is whoever calls this)",
}


def _program() -> list[str]:
    """The files of the program: what git knows, or all that is there but what was made here."""
    command = ["git", "ls-files", "-z", "--cached", "--others", "--exclude-standard"]
    done = subprocess.run(command, cwd=HERE, capture_output=True, check=False)
    if not done.returncode:
        return [name for name in done.stdout.decode().split("\0") if name]
    made = {".venv", "node_modules", "var", "__pycache__"}
    found = (path.relative_to(HERE) for path in HERE.rglob("*"))
    return [path.as_posix() for path in found if made.isdisjoint(path.parts)]


class Machine:
    """A machine in a folder."""

    def __init__(self, root: Path) -> None:
        self.root, self.console = root, []
        self.running: dict[str, subprocess.Popen] = {}
        self.environment = {
            **os.environ,
            "SITE": SITE,
            "PRACTICE": PRACTICE,
            "OWNER": OWNER,
            "ROUNDPANTRY_PASSWORD": PASSWORD,
            "ROUNDPANTRY_ENVIRONMENT": str(root / "etc/roundpantry/environment"),
        }
        for name in ("VAR", "DB", "DEMO", "BACKUPS"):
            self.environment.pop(f"ROUNDPANTRY_{name}", None)
        for folder in ("etc/systemd/system", "etc/nginx/conf.d", "var/log/nginx", "run"):
            (root / folder).mkdir(parents=True, exist_ok=True)

    def said(self, text: str) -> None:
        # the console reads as it would on a machine of its own
        text = text.replace(str(self.root), "")
        self.console.append(text)
        print(text, flush=True)

    def below(self, line: str) -> str:
        """A line of the document with its paths below the root."""
        return re.sub(r"(?<![\w.])/(opt|etc|var)/", rf"{self.root}/\1/", line)

    def do(self, line: str, check: bool = True) -> str:
        """Run a line of the document."""
        self.said(f"# {line}")
        first = line.split()[0]
        if first in LEFT_OUT:
            self.said(LEFT_OUT[first])
            return ""
        if first == "systemctl":
            self.systemctl(*line.split()[1:])
            return ""
        if line.startswith("cp -r . "):
            self._copy_program()
            return ""
        if line == "nginx -t":
            line = f"nginx -t -c {self._nginx()}"
        line = re.sub(r" -[og] roundpantry\b", "", self.below(line))
        for port, other in PORTS.items():
            line = line.replace(port, other)
        done = subprocess.run(
            ["bash", "-c", line], cwd=HERE, env=self.environment, capture_output=True, text=True
        )
        # what a program draws while it thinks is nothing to keep
        shown = (done.stdout + done.stderr).splitlines()
        out = "\n".join(one for one in shown if not re.fullmatch(r"[.+*-]+", one)).strip()
        if out:
            self.said(out)
        if check and done.returncode:
            raise SystemExit(f"This line of the document failed: {line}")
        if "nginx.conf" in line or "environment.example" in line:
            self._in_small()
        return out

    def _copy_program(self) -> None:
        """The program as it is handed over, and the environment that is there."""
        to = self.root / "opt/roundpantry"
        for name in _program():
            if (HERE / name).is_file() and not name.startswith(LEFT_BEHIND):
                (to / name).parent.mkdir(parents=True, exist_ok=True)
                shutil.copy2(HERE / name, to / name)
        (to / ".venv").symlink_to(HERE / ".venv")

    def _in_small(self) -> None:
        """Paths and ports within what was just put in place."""
        for path in (
            self.root / "etc/roundpantry/environment",
            self.root / "etc/nginx/conf.d/roundpantry.conf",
        ):
            if not path.exists():
                continue
            text = path.read_text()
            if str(self.root) in text:
                continue
            text = self.below(text)
            for port, other in PORTS.items():
                text = text.replace(port, other)
            text = re.sub(r"\n    listen \[::\][^\n]*", "", text)
            path.write_text(text)

    def _nginx(self) -> Path:
        path = self.root / "run/nginx.conf"
        path.write_text(
            f"pid {self.root}/run/nginx.pid;\nerror_log {self.root}/var/log/nginx/error.log;\n"
            "worker_processes 1;\nevents { }\nhttp {\n"
            f"  client_body_temp_path {self.root}/run/body;\n"
            f"  proxy_temp_path {self.root}/run/proxy;\n"
            f"  fastcgi_temp_path {self.root}/run/f;\n  uwsgi_temp_path {self.root}/run/u;\n"
            f"  scgi_temp_path {self.root}/run/s;\n"
            f"  include {self.root}/etc/nginx/conf.d/*.conf;\n}}\n"
        )
        return path

    def systemctl(self, asked: str, *units: str) -> None:
        if asked == "daemon-reload":
            return
        for unit in units:
            if unit.startswith("-"):
                continue
            if unit == "nginx":
                self._start("nginx", ["nginx", "-c", str(self._nginx()), "-g", "daemon off;"], {})
            elif asked == "stop":
                self.stop(unit)
            else:
                self._start_unit(unit)
        self.wait()

    def _start_unit(self, unit: str) -> None:
        text = self.below((self.root / f"etc/systemd/system/{unit}.service").read_text())
        told = dict(re.findall(r"^(ExecStart|EnvironmentFile)=(.*)$", text, re.M))
        command = told["ExecStart"]
        for port, other in PORTS.items():
            command = command.replace(port, other)
        environment = {}
        for line in Path(told["EnvironmentFile"]).read_text().splitlines():
            if line and not line.startswith("#"):
                name, _, value = line.partition("=")
                environment[name] = value
        self._start(unit, shlex.split(command), environment)

    def _start(self, name: str, command: list[str], environment: dict[str, str]) -> None:
        if name in self.running and self.running[name].poll() is None:
            return
        log = (self.root / f"run/{name}.log").open("ab")
        self.running[name] = subprocess.Popen(
            command,
            cwd=self.root / "opt/roundpantry",
            env={"PATH": os.environ["PATH"], **environment},
            stdout=log,
            stderr=subprocess.STDOUT,
            start_new_session=True,
        )

    def wait(self) -> None:
        """Until what was started answers, or is gone."""
        if "roundpantry" not in self.running or self.running["roundpantry"].poll() is not None:
            return
        for _ in range(300):
            answered = subprocess.run(
                [
                    "curl",
                    "--silent",
                    "--output",
                    "/dev/null",
                    f"http://{PORTS['127.0.0.1:8000']}/health/",
                ]
            )
            if not answered.returncode or self.running["roundpantry"].poll() is not None:
                return
            time.sleep(0.2)

    def stop(self, name: str, how: int = signal.SIGTERM) -> None:
        process = self.running.pop(name, None)
        if process is not None and process.poll() is None:
            os.killpg(process.pid, how)
            process.wait(60)

    def end(self) -> None:
        for name in list(self.running):
            self.stop(name)


def lines_of(document: str) -> list[tuple[str, list[str]]]:
    """The heading and the lines of each block of the document."""
    out, heading = [], ""
    for part in re.split(r"(```sh\n.*?```)", document, flags=re.S):
        if part.startswith("```sh"):
            out.append((heading, part[6:-3].strip().splitlines()))
        else:
            heading = next(iter(re.findall(r"^## (.*)$", part, re.M)[::-1]), heading)
    return out


def follow(machine: Machine, until: str = "") -> None:
    """Follow the document, to the end or until a heading."""
    for heading, lines in lines_of((HERE / "docs/running.md").read_text(encoding="utf-8")):
        if until and heading.startswith(until):
            return
        machine.said(f"\n## {heading}")
        for line in lines:
            if "$BACKUP" in line:
                newest = max((machine.root / "var/lib/roundpantry/backups").iterdir())
                machine.environment["BACKUP"] = str(newest)
            machine.do(line)


def main() -> int:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--root", type=Path, required=True)
    asked.add_argument("--console", type=Path)
    given = asked.parse_args()
    given.root.mkdir(parents=True, exist_ok=True)
    machine = Machine(given.root.resolve())
    try:
        follow(machine)
    finally:
        machine.end()
    if given.console:
        given.console.write_text("\n".join(machine.console) + "\n", encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
