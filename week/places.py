"""The places that later stages fill on a week's page."""

from webkit.extension_points import Place

DOING = Place("week-doing")
