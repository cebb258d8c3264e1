"""Addresses of the day plans."""

from django.urls import path

from changes import views as changes
from planner import views
from planner.page import PAGES

app_name = "planner"
DAY = {"kind": "day"}
urlpatterns = [
    path("", PAGES.listing, name="list"),
    path("new/", PAGES.new, name="new"),
    path("put/", views.put, name="put"),
    path("<int:pk>/", PAGES.page, name="page"),
    path("<int:pk>/settings/", PAGES.settings, name="settings"),
    path("<int:pk>/copy/", PAGES.copy, name="copy"),
    path("<int:pk>/archive/", PAGES.archive, name="archive"),
    path("<int:pk>/remove/", PAGES.remove, name="remove"),
    path("<int:pk>/without/", changes.without, DAY, name="without"),
    path("<int:pk>/add/", views.add, name="add"),
    path("<int:pk>/find/", views.find, name="find"),
    path("<int:pk>/newer-targets/", PAGES.newer_targets, name="newer-targets"),
    path("<int:pk>/balance/", changes.balance, DAY, name="balance"),
    path("<int:pk>/swaps/", changes.swap, DAY, name="swap"),
    path("<int:pk>/undo/", PAGES.undo, name="undo"),
    path("<int:pk>/entries/<int:entry>/", views.change, name="change"),
]
