"""Addresses of shopping."""

from django.urls import path

from shopping import views

app_name = "shopping"
urlpatterns = [
    path("packages/", views.packages, name="packages"),
    path("worker.js", views.worker, name="worker"),
    path("<int:pk>/", views.page, name="page"),
    path("<int:pk>/paper/", views.paper, name="paper"),
    path("<int:pk>/tick/", views.ticked, name="tick"),
    path("<int:pk>/pot/", views.pot, name="pot"),
    path("<int:pk>/list.csv", views.as_csv, name="csv"),
]
