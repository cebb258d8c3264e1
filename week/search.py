"""A week planned beside the page: what is searched for, and what is kept of what was found."""

from __future__ import annotations

from time import monotonic
from typing import Any

from jobs.models import Job
from jobs.queue import begin
from jobs.work import CannotBe, Tell
from nutrition.planning.proposals import MOST_WEEKS, PlannedWeek, offered, weeks
from nutrition.planning.rotation import empty_kinds
from nutrition.planning.search import Planning, Progress
from nutrition.planning.week import BadWeek
from practice.models import User
from week.models import Week
from week.problem import Posed, plan_for, pose
from week.proposals import as_kept

KIND = "week"
# While a search goes on what it found is shown anew no more often. [s]
SHOWN_EVERY = 2.0
NOT_KNOWN = "The client's targets are not known."
NO_MEALS = "The skeleton has no meals: write some into it first."
NONE_FOUND = (
    "No week was found: what may be served cannot be cooked in time for these meals. Keep more "
    "favorites, or change the skeleton."
)


def about(week: Week) -> str:
    """What a search for a week is about."""
    return str(week.pk)


def search(week: Week, by: User, most: int = MOST_WEEKS, additions: bool = True) -> Job:
    """Ask for up to so many weeks; with `additions` bread, beans or a snack may be put in where
    energy or protein is missing. Raises CannotBe where there are no targets to plan for."""
    _has_targets(week)
    asked = {"most": most, "additions": additions}
    return begin(week.practice, by, KIND, about(week), asked)


def _has_targets(week: Week) -> None:
    """Raises CannotBe."""
    plan = plan_for(week)
    if plan.day is None:
        raise CannotBe(plan.problem or NOT_KNOWN)


def posed_of(week: Week, additions: bool = True) -> Posed:
    """The problem. Raises CannotBe where there is none."""
    _has_targets(week)
    try:
        posed = pose(week, additions)
    except BadWeek as error:
        raise CannotBe(str(error)) from None
    if not posed.problem.slots:
        raise CannotBe(NO_MEALS)
    return posed


def work(job: Job, tell: Tell) -> list[str]:
    """Search, and keep what is found with the week until one is taken. Raises CannotBe."""
    week = Week.with_removed.select_related("client", "made_for").get(pk=int(job.about))
    week.practice = job.practice
    posed = posed_of(week, bool(job.asked.get("additions", True)))
    # what was found before is no answer to this
    _keep(week, [])
    listening = _Listening(week, posed, tell)
    found = weeks(posed.problem, int(job.asked["most"]), tell=listening)
    if not found:
        raise CannotBe(NONE_FOUND)
    _keep(week, as_kept(week, posed, found))
    return [words] if (words := empty_words(posed)) else []


class _Listening:
    """Hears of each better week. The first that keeps the limits is shown at once, and better ones
    in its place while somebody looks."""

    def __init__(self, week: Week, posed: Posed, tell: Tell) -> None:
        self.week, self.posed, self.tell = week, posed, tell
        self.better, self.shown = 0, 0.0
        self.until_now: dict[str, PlannedWeek] = {}

    def __call__(self, progress: Progress) -> bool:
        self.better += 1
        name = progress.order.name
        soon = name not in self.until_now or monotonic() - self.shown > SHOWN_EVERY
        if progress.score.hard == 0 and soon:
            planning = Planning(
                planned=progress.planned, score=progress.score, order=progress.order
            )
            self.until_now[name] = offered(self.posed.problem, planning)
            found = list(self.until_now.values())
            _keep(self.week, as_kept(self.week, self.posed, found, looking=True))
            self.shown = monotonic()
        return self.tell(
            progress.share, f"{self.better} better weeks found; now {progress.improving}"
        )


def _keep(week: Week, proposals: list[dict[str, Any]]) -> None:
    """The proposals in place of those before, without the other fields of the week."""
    Week.with_removed.filter(pk=week.pk).update(proposals=proposals)


def empty_words(posed: Posed) -> str:
    """The kinds of slot that nothing may stand in, in words; empty for none."""
    empty = empty_kinds(posed.problem)
    if not empty:
        return ""
    kinds = ", ".join(f"“{kind}”" for kind in empty)
    return (
        f"Nothing that may be served can stand for {kinds}: those places stay empty. Write a "
        f"recipe of that kind, keep a favorite for it, or take it out of the skeleton."
    )
