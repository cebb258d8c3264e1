"""Addresses of the installation itself."""

from django.contrib.auth.decorators import login_not_required
from django.urls import path

from running import views

urlpatterns = [
    path("health/", login_not_required(views.health), name="health"),
    path("ready/", login_not_required(views.ready), name="ready"),
    path("installation/", views.page, name="installation"),
]
