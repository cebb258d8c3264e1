"""The places that later stages fill on a day's page."""

from webkit.extension_points import Place

DOING = Place("day-doing")
