"""Addresses of what is printed on everything."""

from django.urls import path

from paper import views

app_name = "paper"
urlpatterns = [path("mark/", views.mark, name="mark")]
