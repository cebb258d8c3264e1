"""The places that later stages fill on a day's page."""

from webkit.later import Place

DOING = Place("day-doing")
