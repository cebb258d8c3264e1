"""The places that later stages fill on the pages of a food and of a package."""

from webkit.extension_points import Place

FOOD_DOING = Place("food-doing")
PACKAGE_DOING = Place("package-doing")
