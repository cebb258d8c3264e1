"""The places that later stages fill on a shopping list's page."""

from webkit.extension_points import Place

DOING = Place("shopping-doing")
