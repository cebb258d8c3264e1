"""Addresses of the pantry: the food table."""

from django.urls import path

from pantry import label, views

app_name = "pantry"
urlpatterns = [
    path("package/", label.label, name="label"),
    path("", views.search, name="search"),
    path("<slug:slug>/", views.food, name="food"),
]
