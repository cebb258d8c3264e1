"""Addresses of what a client has a right to."""

from django.urls import path

from rights import client_views, practice_views, record_views

app_name = "rights"
urlpatterns = [
    path("", client_views.rights, name="client"),
    path("consent/", client_views.consent, name="consent"),
    path("consent/<int:pk>/", client_views.withdraw, name="withdraw"),
    path("archive.zip", client_views.archive, name="archive"),
    path("erase/", client_views.erase_client, name="erase"),
    path("keep/<int:pk>/", practice_views.keep, name="keep"),
    path("record/", record_views.of_client, name="record"),
    path("record/of/<str:kind>/<int:pk>/", record_views.of_thing, name="thing"),
    path("practice/", practice_views.practice, name="practice"),
    path("practice/record/", record_views.of_practice, name="practice-record"),
    path("practice/archive.zip", practice_views.archive, name="practice-archive"),
    path("practice/take-in/", practice_views.take_in, name="take-in"),
]
