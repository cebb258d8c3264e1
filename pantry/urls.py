"""Addresses of the pantry: the food table."""

from django.urls import path

from pantry import views

app_name = "pantry"
urlpatterns = [
    path("", views.search, name="search"),
    path("<slug:slug>/", views.food, name="food"),
]
