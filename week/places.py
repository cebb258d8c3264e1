"""The places that later stages fill on a week's page."""

from webkit.later import Place

DOING = Place("week-doing")
