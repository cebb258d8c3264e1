"""Addresses of what stands side by side."""

from django.urls import path

from plates import old_views, views

app_name = "plates"
urlpatterns = [
    path("", views.compare, name="compare"),
    path("before/new/", old_views.new, name="old-new"),
    path("before/<int:pk>/", old_views.page, name="old"),
    path("before/<int:pk>/find/", old_views.find, name="old-find"),
    path("before/<int:pk>/change/", old_views.change, name="old-change"),
    path("before/<int:pk>/remove/", old_views.remove, name="old-remove"),
    path("ladder/", views.ladder_page, name="ladder"),
    path("lesson/", views.lesson, name="lesson"),
]
