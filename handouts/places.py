"""The places that later stages fill on the page of what is handed over."""

from webkit.extension_points import Place

MORE = Place("handouts-more")
