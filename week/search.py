"""A week planned beside the page: what is searched for, and what is kept of what was found."""

from __future__ import annotations

from jobs.models import Job
from jobs.queue import begin
from jobs.work import CannotBe, Tell
from nutrition.planning.proposals import MOST_WEEKS, PlannedWeek, weeks
from nutrition.planning.search import Progress
from nutrition.planning.week import BadWeek
from practice.models import User
from week.models import Week
from week.problem import Posed, plan_for, pose
from week.proposals import as_kept

KIND = "week"
NOT_KNOWN = "The client's targets are not known."
NO_MEALS = "The skeleton has no meals: write some into it first."
NONE_FOUND = (
    "No week was found: what may be served cannot be cooked in time for these meals. Keep more "
    "favorites, or change the skeleton."
)


def about(week: Week) -> str:
    """What a search for a week is about."""
    return str(week.pk)


def search(week: Week, by: User, most: int = MOST_WEEKS) -> Job:
    """Ask for up to so many weeks. Raises CannotBe where there are no targets to plan for."""
    _has_targets(week)
    return begin(week.practice, by, KIND, about(week), {"most": most})


def _has_targets(week: Week) -> None:
    """Raises CannotBe."""
    plan = plan_for(week)
    if plan.day is None:
        raise CannotBe(plan.problem or NOT_KNOWN)


def posed_of(week: Week) -> Posed:
    """The problem. Raises CannotBe where there is none."""
    _has_targets(week)
    try:
        posed = pose(week)
    except BadWeek as error:
        raise CannotBe(str(error)) from None
    if not posed.problem.slots:
        raise CannotBe(NO_MEALS)
    return posed


def work(job: Job, tell: Tell) -> list[str]:
    """Search, and keep what is found with the week until one is taken. Raises CannotBe."""
    week = Week.with_removed.select_related("client", "made_for").get(pk=int(job.about))
    week.practice = job.practice
    posed, better = posed_of(week), 0

    def listen(progress: Progress) -> bool:
        nonlocal better
        better += 1
        return tell(progress.share, f"{better} better weeks found; now {progress.improving}")

    found = weeks(posed.problem, int(job.asked["most"]), tell=listen)
    if not found:
        raise CannotBe(NONE_FOUND)
    _keep(week, posed, found)
    return [words] if (words := empty_words(posed)) else []


def _keep(week: Week, posed: Posed, found: list[PlannedWeek]) -> None:
    Week.with_removed.filter(pk=week.pk).update(proposals=as_kept(week, posed, found))


def empty_words(posed: Posed) -> str:
    """The kinds of slot that nothing may stand in, in words; empty for none."""
    problem = posed.problem
    empty = sorted({slot.kind for slot in problem.slots if not problem.choices(slot)})
    if not empty:
        return ""
    kinds = ", ".join(f"“{kind}”" for kind in empty)
    return (
        f"Nothing that may be served can stand for {kinds}: those places stay empty. Write a "
        f"recipe of that kind, keep a favorite for it, or take it out of the skeleton."
    )
