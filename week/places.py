"""The places that later stages fill on a week's page, and what they know of a client's dishes."""

from collections.abc import Collection

from clients.models import Client
from webkit.extension_points import Place, Question

DOING = Place("week-doing")
# Which dishes, by what the planning knows them by, did a client eat gladly of late?
EATEN_GLADLY: Question[[Client], Collection[str]] = Question()
