"""Times of the pages that somebody opens all day, as the server answers them: alone, and with
twenty people at once."""

import http.client
import re
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from http.cookies import SimpleCookie
from random import Random
from statistics import median, quantiles
from time import perf_counter, sleep
from urllib.parse import urlencode

from e2e.serving import PORT, serving_demo

ROUNDS = 15
PEOPLE, PAGES_EACH = 20, 8
# Each looks at a page for so long before the next is opened. [s]
LOOKED_AT = (2.0, 4.0)
# What 95 of 100 pages must stay under with so many people at once. [ms]
TOGETHER_LIMIT = 600
# Where a page is, or where the first link to it stands; and what its median must stay under. [ms]
PAGES = (
    ("a client", "/clients/1/", "", 70),
    ("a bowl", "/bowls/", r"/bowls/\d+/", 80),
    ("a day", "/for/1/days/", r"/for/1/days/\d+/", 70),
    ("a follow-up", "/for/1/journal/", "", 120),
    ("a stall", "/for/1/journal/stall/", "", 300),
    ("a client's favorites", "/for/1/weeks/favorites/", "", 60),
)


class Visitor:
    """Somebody signed in, with a connection that is kept as a browser keeps it."""

    def __init__(self) -> None:
        self.connection = http.client.HTTPConnection("127.0.0.1", PORT, timeout=120)
        self.cookies: SimpleCookie = SimpleCookie()
        form = self.get("/sign-in/")
        token = re.search(r'name="csrfmiddlewaretoken" value="([^"]+)"', form)
        self.send(
            "POST",
            "/sign-in/",
            urlencode(
                {
                    "csrfmiddlewaretoken": token[1] if token else "",
                    "username": "marin",
                    "password": "tern-point-kettle",
                }
            ),
        )

    def send(self, method: str, path: str, body: str | None = None) -> tuple[int, str, str]:
        """The status, where it leads on to, and the text."""
        headers = {"Cookie": "; ".join(f"{k}={v.value}" for k, v in self.cookies.items())}
        if body is not None:
            headers["Content-Type"] = "application/x-www-form-urlencoded"
        self.connection.request(method, path, body, headers)
        answer = self.connection.getresponse()
        text = answer.read().decode()
        for set_ in answer.headers.get_all("Set-Cookie") or ():
            self.cookies.load(set_)
        return answer.status, answer.headers.get("Location", ""), text

    def get(self, path: str) -> str:
        """Raises RuntimeError where the page does not come."""
        status, _, text = self.send("GET", path)
        if status != 200:
            raise RuntimeError(f"{path}: {status}")
        return text

    def timed(self, path: str) -> float:
        """How long the page takes to come whole. [ms]"""
        start = perf_counter()
        self.get(path)
        return (perf_counter() - start) * 1000


def _addresses(visitor: Visitor) -> list[str]:
    """Raises RuntimeError where a page that others are linked from has no such link."""
    found = []
    for what, path, link, _ in PAGES:
        if link:
            at = re.search(rf'href="({link})"', visitor.get(path))
            if not at:
                raise RuntimeError(f"no link to {what} on {path}")
            path = at[1]
        path = visitor.send("GET", path)[1] or path
        found.append(path)
    return found


def _one_after_another(
    visitor: Visitor, at: int, addresses: Sequence[str], pauses: bool
) -> list[float]:
    """The times of one person, who begins at another page than the next. [ms]"""
    random = Random(at)
    found = []
    for step in range(PAGES_EACH):
        if pauses:
            sleep(random.uniform(*LOOKED_AT) * (random.random() if step == 0 else 1.0))
        found.append(visitor.timed(addresses[(at + step) % len(addresses)]))
    return found


def _together(people: Sequence[Visitor], addresses: Sequence[str], pauses: bool) -> list[float]:
    """The times of all pages of all people. [ms]"""
    with ThreadPoolExecutor(len(people)) as pool:
        each = pool.map(
            lambda one: _one_after_another(one[1], one[0], addresses, pauses), enumerate(people)
        )
        return [took for one in each for took in one]


def page_times() -> bool:
    """Print the times alone and together; whether all stay under their limits."""
    fine = True
    with serving_demo():
        visitor = Visitor()
        addresses = _addresses(visitor)
        for (what, _, _, limit), path in zip(PAGES, addresses, strict=True):
            found = [visitor.timed(path) for _ in range(ROUNDS + 3)][3:]
            slow = median(found) > limit
            fine &= not slow
            print(
                f"{what + ', alone':34} {median(found):7.0f} ms median, {max(found):.0f} ms slowest"
                f" of {len(found)}, limit {limit}{'  OVER' if slow else ''}"
            )
        people = [Visitor() for _ in range(PEOPLE)]
        for pauses in (True, False):
            together = _together(people, addresses, pauses)
            p95 = quantiles(together, n=20)[-1]
            slow = pauses and p95 > TOGETHER_LIMIT
            fine &= not slow
            who = f"{PEOPLE} people, {'looking' if pauses else 'without a pause'}"
            limit = f", limit {TOGETHER_LIMIT}{'  OVER' if slow else ''}" if pauses else ""
            print(f"{who:34} {median(together):7.0f} ms median, {p95:.0f} ms for 95 of 100{limit}")
    return fine


if __name__ == "__main__":
    raise SystemExit(0 if page_times() else 1)
