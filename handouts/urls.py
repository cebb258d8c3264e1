"""Addresses of the printable pages."""

from django.urls import path

from handouts import views

app_name = "handouts"
urlpatterns = [
    path("bowls/<int:pk>/", views.bowl, name="bowl"),
    path("days/<int:pk>/", views.day, name="day"),
]
