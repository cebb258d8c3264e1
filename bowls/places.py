"""The places that later stages fill on a bowl's page."""

from webkit.extension_points import Place

# while the practice is new
FIRST_STEPS = Place("bowl-first-steps")
DOING = Place("bowl-doing")
# where it can be put
INTO = Place("bowl-into")
# where it stands
STANDS = Place("bowl-stands")
