"""Addresses of the recipes area."""

from django.urls import path

from recipes import views

app_name = "recipes"
urlpatterns = [
    path("", views.recipe_list, name="list"),
    path("new/", views.edit, name="new"),
    path("preview/", views.preview, name="preview"),
    path("<int:pk>/", views.edit, name="page"),
]
