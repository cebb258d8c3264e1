"""The places that later stages fill on the page of the practice."""

from webkit.extension_points import Place

# below its settings: what else an owner sees to
MORE = Place("practice-more")
