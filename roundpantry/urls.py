"""All addresses."""

from django.urls import include, path
from django.views.generic import RedirectView

urlpatterns = [
    path("", RedirectView.as_view(pattern_name="clients:list"), name="home"),
    path("", include("practice.urls")),
    path("schools/", include("schools.urls")),
    path("clients/", include("clients.urls")),
    path("pantry/", include("pantry.urls")),
    path("recipes/", include("recipes.urls")),
    path("bowls/", include("bowls.urls")),
    path("days/", include("planner.urls")),
    path("compare/", include("plates.urls")),
    path("handouts/", include("handouts.urls")),
]
