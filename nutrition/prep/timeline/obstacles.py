"""Why a dish does not fit into a session, and what would make it fit: each change tried."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from nutrition.portions.work import Work
from nutrition.prep.steps.task import Task
from nutrition.prep.timeline.kitchen import Session, ToCook
from nutrition.prep.timeline.model import PREHEAT_MIN
from nutrition.prep.timeline.pieces import hands_of, shapes_of, with_ends
from nutrition.prep.timeline.schedule import Help, Missing

# Whether a dish fits by itself. [s, as work is counted]
ALONE_WORK = 0.3


def missing_of(session: Session, cooked: Sequence[str]) -> tuple[Missing, ...]:
    """The dishes that are not among the cooked ones, each with why."""
    return tuple(
        Missing(dish=dish.key, name=dish.name, why=_why(session, dish))
        for dish in session.dishes
        if dish.key not in cooked
    )


def _why(session: Session, dish: ToCook) -> str:
    tasks = with_ends(dish.work.tasks)
    kitchen = session.kitchen
    for place, count, name in (
        ("oven", kitchen.ovens * kitchen.shelves, "an oven"),
        ("burner", kitchen.burners, "a burner"),
        ("blender", kitchen.blenders, "a blender"),
    ):
        if not count and any(task.place == place for task in tasks):
            return f"It needs {name}, and there is none."
    if session.now is not None and any(task.overnight for task in tasks):
        begun = {number for (key, number) in session.fixed if key == dish.key}
        waiting = [task for task in tasks if task.overnight and task.number not in begun]
        if waiting:
            return f"“{waiting[0].text}” stands overnight, and that evening is past."
    longest, window = longest_way(tasks, as_written=True), dish.ready_at - session.earliest
    if longest > window:
        return (
            f"It takes at least {longest} min from its first step to its last, and there are "
            f"{window}."
        )
    work = sum(hands_of(task) for one in session.dishes for task in with_ends(one.work.tasks))
    room = (session.ready_at - session.earliest) * kitchen.cooks
    if work > room:
        return f"The dishes together take {work} min of work by hand, and there are {room}."
    from nutrition.prep.timeline.solving import fits

    if not fits(replace(session, dishes=(dish,)), Work.of(ALONE_WORK)):
        return "Not even by itself, with the hands, burners and shelves that there are."
    return "By itself it fits; with the others there are not hands, burners or shelves enough."


def longest_way(tasks: Sequence[Task], as_written: bool = False) -> int:
    """The longest way through what must be done on the day, the oven cold at its beginning, and hot
    as written or as is quickest. [min]"""
    before = {task.number for task in tasks if task.overnight}
    ends: dict[int, int] = {}
    for task in _in_order(tasks):
        begins = max((ends[one] for one in task.after), default=0)
        shapes = shapes_of(task)[: 1 if as_written else None]
        length = 0 if task.number in before else min(one.minutes for one in shapes)
        if task.place == "oven":
            begins = max(begins, PREHEAT_MIN)
        ends[task.number] = begins + length
    return max(ends.values(), default=0)


def _in_order(tasks: Sequence[Task]) -> list[Task]:
    """Tasks, each after those it waits for."""
    out: list[Task] = []
    done: set[int] = set()
    waiting = list(tasks)
    while waiting:
        ready = [task for task in waiting if set(task.after) <= done]
        if not ready:
            raise ValueError("tasks wait for one another")
        out += ready
        done |= {task.number for task in ready}
        waiting = [task for task in waiting if task.number not in done]
    return out


def would_help(session: Session, missing: Sequence[str], work: Work) -> tuple[Help, ...]:
    """What would make every dish fit, tried: more of what the kitchen has, more time, a part of it
    the day before, one dish at another time."""
    from nutrition.prep.timeline.solving import fits, latest

    out: list[Help] = []
    kitchen = session.kitchen
    whole, hopeless = session, [dish.key for dish in session.dishes if _never_fits(session, dish)]
    session = replace(
        session, dishes=tuple(dish for dish in session.dishes if dish.key not in hopeless)
    )
    for kind, changed, text in (
        ("shelf", replace(kitchen, shelves=kitchen.shelves + 1), "A second tray: one shelf more"),
        ("burner", replace(kitchen, burners=kitchen.burners + 1), "One burner more"),
        ("cook", replace(kitchen, cooks=kitchen.cooks + 1), "Somebody who helps"),
        ("oven", replace(kitchen, ovens=kitchen.ovens + 1), "A second oven"),
    ):
        if (
            set(missing) - set(hopeless)
            and _could(session, kind)
            and fits(replace(session, kitchen=changed), work.share(0.12))
        ):
            out.append(Help(kind=kind, text=text))
    ahead = done_ahead(session) if set(missing) - set(hopeless) else None
    if ahead is not None and fits(ahead[0], work.share(0.2)):
        out.append(Help(kind="ahead", text=f"The day before: {ahead[1]}"))
    later = latest(whole, work.share(0.6))
    if later:
        text = f"{later} min more for all of it: begin so much earlier, or eat so much later"
        out.append(Help(kind="time", text=text, minutes=later))
    out += _at_another_time(whole, missing)
    return tuple(out)


def _never_fits(session: Session, dish: ToCook) -> bool:
    """Whether no kitchen makes a dish fit into its time."""
    return longest_way(with_ends(dish.work.tasks)) > dish.ready_at - session.earliest


def _could(session: Session, kind: str) -> bool:
    """Whether more of something is used at all."""
    places = {task.place for dish in session.dishes for task in dish.work.tasks}
    return kind == "cook" or ("oven" in places if kind in ("shelf", "oven") else kind in places)


def done_ahead(session: Session) -> tuple[Session, str] | None:
    """The session without what may be done the day before, and what that is; None where nothing
    may."""
    words, dishes = [], []
    for dish in session.dishes:
        left, done = without_ahead(dish.work.tasks)
        if done:
            words.append(f"{dish.name}: {', '.join(task.text for task in done)}")
        if left:
            dishes.append(replace(dish, work=replace(dish.work, tasks=tuple(left))))
    if not words or not dishes:
        return None
    return replace(session, dishes=tuple(dishes)), "; ".join(words)


# What may be done so long ahead is done the day before. [h]
AHEAD_H = 12.0


def without_ahead(tasks: Sequence[Task]) -> tuple[list[Task], list[Task]]:
    """What is left of a dish's tasks where all that may is done the day before, and what that is.
    What stands overnight is of the day before in any case. [h]"""
    done: list[int] = []
    for task in _in_order(tasks):
        if task.ahead >= AHEAD_H and not task.overnight and set(task.after) <= set(done):
            done.append(task.number)
    new = {task.number: at for at, task in enumerate(t for t in tasks if t.number not in done)}
    left = [
        replace(
            task,
            number=new[task.number],
            after=tuple(new[one] for one in task.after if one in new),
        )
        for task in tasks
        if task.number in new
    ]
    return left, [task for task in tasks if task.number in done]


def _cooked_before(session: Session, dish: ToCook) -> list[Help]:
    """A dish of which all, or enough, may be done the day before."""
    if session.now is not None or not _never_fits(session, dish):
        return []
    left, done = without_ahead(dish.work.tasks)
    if not done or longest_way(with_ends(left)) > dish.ready_at - session.earliest:
        return []
    what = "; ".join(task.text for task in done)
    text = (
        f"{dish.name} the day before, and warmed through"
        if not left
        else f"{dish.name}, the day before: {what}"
    )
    return [Help(kind="ahead", text=text, dish=dish.key)]


def _at_another_time(session: Session, missing: Sequence[str]) -> list[Help]:
    """What does not fit, soaked tonight or cooked tomorrow."""
    out = []
    for dish in session.dishes:
        if dish.key not in missing:
            continue
        stands = [task for task in dish.work.tasks if task.overnight]
        out += _cooked_before(session, dish)
        if stands and session.now is not None:
            out.append(
                Help(
                    kind="soak",
                    text=f"{stands[0].text} tonight, and {dish.name} tomorrow",
                    dish=dish.key,
                )
            )
        else:
            out.append(Help(kind="tomorrow", text=f"{dish.name} tomorrow", dish=dish.key))
    return out
