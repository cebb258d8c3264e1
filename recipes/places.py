"""The places that later stages fill on a recipe's pages."""

from webkit.extension_points import Place

# other places to work on it
BENCHES = Place("recipe-benches")
DOING = Place("recipe-doing")
# of two versions side by side
VERSIONS_DOING = Place("versions-doing")
