"""Addresses of the day plans."""

from django.urls import path

from planner import balance_views, swap_views, views

app_name = "planner"
urlpatterns = [
    path("", views.day_list, name="list"),
    path("new/", views.new, name="new"),
    path("<int:pk>/", views.page, name="page"),
    path("<int:pk>/settings/", views.settings, name="settings"),
    path("<int:pk>/remove/", views.remove, name="remove"),
    path("<int:pk>/without/", swap_views.without, name="without"),
    path("<int:pk>/add/", views.add, name="add"),
    path("<int:pk>/find/", views.find, name="find"),
    path("<int:pk>/newer-targets/", views.newer_targets, name="newer-targets"),
    path("<int:pk>/balance/", balance_views.balance, name="balance"),
    path("<int:pk>/swaps/", swap_views.swap, name="swap"),
    path("<int:pk>/undo/", views.undo, name="undo"),
    path("<int:pk>/entries/<int:entry>/", views.change, name="change"),
]
