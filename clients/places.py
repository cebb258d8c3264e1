"""The places that later stages fill on a client's page."""

from webkit.extension_points import Place

# beside the name: what to do next
DOING = Place("client-doing")
# while the practice is new
FIRST_STEPS = Place("client-first-steps")
# after what waits
NEXT = Place("client-next")
# at the head of the weights
WEIGHT = Place("client-weight")
# beside the weight that is typed
WEIGHING = Place("client-weighing")
# what is planned for them
PLANS = Place("client-plans")
