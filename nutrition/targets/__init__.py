"""Who it is for and what they need: a person, what each voice says of each target, which is in
force, and the day shared out over its meals."""

from nutrition.targets.aim import Aim
from nutrition.targets.day import DayTargets, day_targets
from nutrition.targets.orders import Order
from nutrition.targets.person import OutOfRange, Person, Referred
from nutrition.targets.schools import School
from nutrition.targets.standing import Standing, judge
from nutrition.targets.voices import Target

__all__ = [
    "Aim",
    "DayTargets",
    "Order",
    "OutOfRange",
    "Person",
    "Referred",
    "School",
    "Standing",
    "Target",
    "day_targets",
    "judge",
]
