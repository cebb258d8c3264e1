"""Addresses of what stands side by side."""

from django.urls import path

from plates import views

app_name = "plates"
urlpatterns = [
    path("", views.compare, name="compare"),
    path("ladder/", views.ladder_page, name="ladder"),
    path("lesson/", views.lesson, name="lesson"),
]
