"""All addresses. Each may stand behind "/for/<client>": see webkit/client_address.py."""

from django.urls import include, path
from django.views.generic import RedirectView

urlpatterns = [
    path("", RedirectView.as_view(pattern_name="clients:list"), name="home"),
    path("", include("practice.urls")),
    path("", include("people.urls")),
    path("paper/", include("paper.urls")),
    path("schools/", include("schools.urls")),
    path("clients/", include("clients.urls")),
    path("pantry/", include("pantry.urls")),
    path("recipes/", include("recipes.urls")),
    path("bowls/", include("bowls.urls")),
    path("days/", include("planner.urls")),
    path("weeks/", include("week.urls")),
    path("shopping/", include("shopping.urls")),
    path("kitchen/", include("kitchen.urls")),
    path("journal/", include("journal.urls")),
    path("compare/", include("plates.urls")),
    path("handouts/", include("handouts.urls")),
    path("exchange/", include("exchange.urls")),
    path("", include("shared_with.urls")),
    path("rights/", include("rights.urls")),
    path("", include("running.urls")),
    path("", include("finder.urls")),
]

handler403 = "practice.views.forbidden"
handler404 = "practice.views.not_found"
handler500 = "practice.views.failed"
