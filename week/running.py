"""Searches for weeks that go on while the page looks at them: begun, asked how far they are,
stopped and kept. They know numbers only, and nothing of the database."""

from __future__ import annotations

import secrets
import threading
from dataclasses import dataclass, field
from time import monotonic

from nutrition.planning.proposals import PlannedWeek, weeks
from nutrition.planning.search import Progress
from nutrition.planning.week import Week as Problem

# So many go on at a time, each with a thread of its own; what nobody asked after for so long is
# forgotten. [s]
MOST_RUNNING, FORGOTTEN = 4, 600.0


@dataclass(kw_only=True)
class Run:
    """A search. `of` says whose it is; `share` how far it is [0 to 1]; `words` what is being made
    better. `found` once it is `done`."""

    of: str
    problem: Problem
    most: int
    share: float = 0.0
    words: str = "a first week"
    better: int = 0
    found: list[PlannedWeek] = field(default_factory=list)
    failed: str = ""
    done: threading.Event = field(default_factory=threading.Event)
    stop: threading.Event = field(default_factory=threading.Event)
    asked: float = field(default_factory=monotonic)

    def tell(self, progress: Progress) -> bool:
        self.share = max(self.share, min(progress.share, 0.99))
        self.words, self.better = progress.improving, self.better + 1
        return self.stop.is_set()

    def work(self) -> None:
        try:
            self.found = weeks(self.problem, self.most, tell=self.tell)
        except Exception as error:  # noqa: BLE001
            # a search that fails says so on the page, and takes nothing else with it
            self.failed = f"{type(error).__name__}: {error}"
            raise
        finally:
            self.share = 1.0
            self.done.set()


_lock = threading.Lock()
_runs: dict[str, Run] = {}


class TooMany(RuntimeError):
    """As many searches go on as this machine takes at a time."""


def begin(of: str, problem: Problem, most: int) -> str:
    """Begin a search, and the token that it is asked after by. Raises TooMany."""
    with _lock:
        _forget()
        if sum(1 for run in _runs.values() if not run.done.is_set()) >= MOST_RUNNING:
            raise TooMany("Several weeks are being planned: try again in a few seconds.")
        token, run = secrets.token_urlsafe(12), Run(of=of, problem=problem, most=most)
        _runs[token] = run
    threading.Thread(target=run.work, name=f"week {token}", daemon=True).start()
    return token


def running(token: str, of: str) -> Run | None:
    """The search of a token, if it is whose it should be; None for one that is forgotten."""
    run = _runs.get(token)
    if run is None or run.of != of:
        return None
    run.asked = monotonic()
    return run


def done_with(token: str) -> None:
    """What a search found was taken over."""
    with _lock:
        _runs.pop(token, None)


def _forget() -> None:
    late = monotonic() - FORGOTTEN
    for token in [token for token, run in _runs.items() if run.asked < late]:
        _runs.pop(token).stop.set()
