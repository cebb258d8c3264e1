"""The places that later stages fill on a week's page, and what they know of a client's dishes."""

from collections.abc import Collection, Mapping

from clients.models import Client
from webkit.extension_points import Place, Question
from week.models import Week

DOING = Place("week-doing")
# What of a client's recipes stands cooked in the house and may be eaten in a week, in servings by
# the recipe's number?
IN_THE_HOUSE: Question[[Week], Mapping[int, float]] = Question()
# Which recipes want using soon, so that a week begins with them?
USED_FIRST: Question[[Client], Collection[int]] = Question()
# Which dishes, by what the planning knows them by, did a client eat gladly of late?
EATEN_GLADLY: Question[[Client], Collection[str]] = Question()
