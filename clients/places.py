"""The places that later stages fill on a client's page."""

from clients.models import Client
from webkit.extension_points import Place, Question

# beside the name: what to do next
DOING = Place("client-doing")
# at the head of the list of clients
LIST_DOING = Place("clients-doing")
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
# the clinician whose order may be typed: "given_by" and "license"
ORDERED_BY: Question[[Client], dict[str, str]] = Question()
