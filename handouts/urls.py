"""Addresses of the printable pages."""

from django.urls import path

from handouts import bundle_views, calendar_views, recipe_views, views

app_name = "handouts"
urlpatterns = [
    path("", bundle_views.page, name="page"),
    path("make/", bundle_views.make, name="make"),
    path("making/<int:job>/", bundle_views.making, name="making"),
    path("made/<int:pk>/", bundle_views.made, name="made"),
    path("calendar/", calendar_views.settings, name="calendar"),
    path("calendar.ics", calendar_views.file, name="calendar-file"),
    path("bowls/<int:pk>/", views.bowl, name="bowl"),
    path("days/<int:pk>/", views.day, name="day"),
    path("recipes/<int:pk>/", recipe_views.recipe, name="recipe"),
]
