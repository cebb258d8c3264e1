"""How long a dish may stand once it is made: hot, cold, or not at all."""

from __future__ import annotations

import re
from collections.abc import Sequence

from nutrition.prep.steps.task import Task
from nutrition.written.line import Line

# Past so long what is eaten hot is cold, whatever covers it. Common practice, no source. [min]
HOT_MOST = 60.0
# Dressed leaves; and what is tossed just before it is eaten. Common practice, no source. [min]
LEAVES_MOST, AT_ONCE = 15.0, 10.0
# What keeps: a sauce or dressing two days, anything else cold through the day. Common practice, no
# source. [min]
SAUCE_MOST, COLD_MOST = 2880.0, 480.0
_AT_ONCE = re.compile(
    r"\bjust before\b|\bat once\b|\bright before\b|\bimmediately\b|\bstraight away\b", re.I
)
_KEEPS = re.compile(
    r"\bsauce|\bdressing|\bvinaigrette|\bdip\b|\bhummus|\brelish|\bpesto|\bspread|\bcompote|\bjam\b"
    r"|\bpickle|\bcream\b|\bmilk\b|\bsprinkle|\bcrackers?\b",
    re.I,
)


def holding_of(
    tasks: Sequence[Task], lines: Sequence[Line], name: str, role: str
) -> tuple[bool, float, bool]:
    """Whether a dish is eaten hot, how long it may stand [min], and whether it is spoiled after
    that."""
    before = {one for task in tasks for one in task.after}
    ends = [task for task in tasks if task.number not in before]
    if not ends:
        return False, COLD_MOST, False
    strict = [task.waits for task in ends if task.strict]
    if strict:
        return True, min(strict), True
    if any(_AT_ONCE.search(task.text) for task in ends):
        return any(task.hot for task in ends), AT_ONCE, True
    if any(task.hot for task in ends):
        return True, HOT_MOST, False
    if role == "sauce" or _KEEPS.search(name):
        return False, SAUCE_MOST, False
    dressed = any(task.kind in ("mix", "add") for task in ends)
    leaves = any(line.food is not None and line.food.group == "leafy green" for line in lines)
    if dressed and leaves:
        return False, LEAVES_MOST, True
    return False, COLD_MOST, False
