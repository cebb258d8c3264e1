"""Addresses of the bowls area."""

from django.urls import path

from bowls import limit_views, sauce_views, views
from changes import views as changes

app_name = "bowls"
BOWL = {"kind": "bowl"}
urlpatterns = [
    path("", views.bowl_list, name="list"),
    path("new/", views.new, name="new"),
    path("sauces/<int:pk>/", sauce_views.bench, name="sauce"),
    path("<int:pk>/", views.page, name="page"),
    path("<int:pk>/settings/", views.settings, name="settings"),
    path("<int:pk>/add/", views.add, name="add"),
    path("<int:pk>/copy/", views.copy, name="copy"),
    path("<int:pk>/archive/", views.archive, name="archive"),
    path("<int:pk>/meal/", views.meal, name="meal"),
    path("<int:pk>/remove/", views.remove, name="remove"),
    path("<int:pk>/without/", changes.without, BOWL, name="without"),
    path("<int:pk>/undo/", views.undo, name="undo"),
    path("<int:pk>/balance/", changes.balance, BOWL, name="balance"),
    path("<int:pk>/swaps/", changes.swap, BOWL, name="swap"),
    path("<int:pk>/find/", views.find, name="find"),
    path("<int:pk>/parts/<int:part>/", views.change, name="change"),
    path("<int:pk>/parts/<int:part>/limits/", limit_views.limits, name="limits"),
]
