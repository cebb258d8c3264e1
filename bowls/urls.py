"""Addresses of the bowls area."""

from django.urls import path

from bowls import limit_views, sauce_views, views
from bowls.page import PAGES
from changes import views as changes

app_name = "bowls"
BOWL = {"kind": "bowl"}
urlpatterns = [
    path("", PAGES.listing, name="list"),
    path("new/", PAGES.new, name="new"),
    path("sauces/<int:pk>/", sauce_views.bench, name="sauce"),
    path("<int:pk>/", PAGES.page, name="page"),
    path("<int:pk>/settings/", PAGES.settings, name="settings"),
    path("<int:pk>/add/", views.add, name="add"),
    path("<int:pk>/copy/", PAGES.copy, name="copy"),
    path("<int:pk>/archive/", PAGES.archive, name="archive"),
    path("<int:pk>/meal/", views.meal, name="meal"),
    path("<int:pk>/remove/", PAGES.remove, name="remove"),
    path("<int:pk>/without/", changes.without, BOWL, name="without"),
    path("<int:pk>/undo/", PAGES.undo, name="undo"),
    path("<int:pk>/balance/", changes.balance, BOWL, name="balance"),
    path("<int:pk>/swaps/", changes.swap, BOWL, name="swap"),
    path("<int:pk>/find/", views.find, name="find"),
    path("<int:pk>/parts/<int:part>/", views.change, name="change"),
    path("<int:pk>/parts/<int:part>/limits/", limit_views.limits, name="limits"),
]
