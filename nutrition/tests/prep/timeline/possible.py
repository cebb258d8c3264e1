"""Whether a timeline could be worked: told from its steps alone, and without the code that made
it."""

from itertools import combinations


def overlap(one, other):
    return one.start < other.end and other.start < one.end


def faults(session, found):
    """What two hands, one stove and one clock would not allow."""
    kitchen, rows = session.kitchen, found.rows
    out = []
    out += _too_many(
        [(row.start, row.start + row.hands) for row in rows if row.hands], kitchen.cooks, "hands"
    )
    for place, room in (("burner", kitchen.burners), ("blender", kitchen.blenders)):
        spans = [(row.start, row.end) for row in rows if row.place == place]
        out += _too_many(spans, room, place)
    trays = [row for row in rows if row.place == "oven" and row.kind != "preheat"]
    spans = [(row.start, row.end) for row in trays]
    out += _too_many(spans, kitchen.ovens * kitchen.shelves, "shelves")
    if kitchen.ovens == 1:
        for one, other in combinations(trays, 2):
            if overlap(one, other) and one.celsius != other.celsius:
                out.append(f"two heats at once: {one.text}, {other.text}")
    out += _washed(session, rows)
    for dish in session.dishes:
        if dish.key in found.ready and found.ready[dish.key] > dish.ready_at + found.late:
            out.append(f"{dish.name} is late")
        if dish.key in found.ready:
            out += _in_order(
                dish, [row for row in rows if row.dish == dish.key and row.kind != "wash"]
            )
    return out


def _too_many(spans, room, name):
    for start, _end in spans:
        used = sum(1 for low, high in spans if low <= start < high)
        if used > room:
            return [f"{used} of {room} {name} at {start}"]
    return []


def _washed(session, rows):
    """A blender that goes from sweet to savory, or back, is washed in between."""
    works = {dish.key: dish.work for dish in session.dishes}
    used = sorted((row for row in rows if row.place == "blender"), key=lambda row: row.start)
    wash = [row for row in rows if row.kind == "wash"]
    out = []
    for row in used:
        if row.washed_before and not any(one.end == row.start for one in wash):
            out.append(f"no time to wash before {row.text}")
    sweet = [works[row.dish].tasks[row.task].sweet for row in used]
    if session.kitchen.blenders == 1:
        for at, row in enumerate(used[1:], start=1):
            if sweet[at] != sweet[at - 1] and not row.washed_before:
                out.append(f"{row.text} in a blender of the other taste")
    return out


def _in_order(dish, rows):
    """Each task after those it waits for, and soon enough after them, with the time it takes."""
    out = []
    start = {row.task: row.start for row in reversed(rows)}
    end = {}
    for row in rows:
        end[row.task] = max(end.get(row.task, row.end), row.end)
    for task in dish.work.tasks:
        if task.number not in start:
            out.append(f"{dish.name}: {task.text} is missing")
            continue
        for before in task.after:
            if start[task.number] < end[before] and not dish.work.tasks[before].overnight:
                out.append(f"{dish.name}: {task.text} before it can be")
        length = end[task.number] - start[task.number]
        if task.heat is None and length < int(task.alone.least):
            out.append(f"{dish.name}: {task.text} in {length} min")
    return out
