"""Addresses of the day plans."""

from django.urls import path

from changes import views as changes
from planner import views

app_name = "planner"
DAY = {"kind": "day"}
urlpatterns = [
    path("", views.day_list, name="list"),
    path("new/", views.new, name="new"),
    path("put/", views.put, name="put"),
    path("<int:pk>/", views.page, name="page"),
    path("<int:pk>/settings/", views.settings, name="settings"),
    path("<int:pk>/copy/", views.copy, name="copy"),
    path("<int:pk>/archive/", views.archive, name="archive"),
    path("<int:pk>/remove/", views.remove, name="remove"),
    path("<int:pk>/without/", changes.without, DAY, name="without"),
    path("<int:pk>/add/", views.add, name="add"),
    path("<int:pk>/find/", views.find, name="find"),
    path("<int:pk>/newer-targets/", views.newer_targets, name="newer-targets"),
    path("<int:pk>/balance/", changes.balance, DAY, name="balance"),
    path("<int:pk>/swaps/", changes.swap, DAY, name="swap"),
    path("<int:pk>/undo/", views.undo, name="undo"),
    path("<int:pk>/entries/<int:entry>/", views.change, name="change"),
]
