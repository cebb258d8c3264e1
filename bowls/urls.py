"""Addresses of the bowls area."""

from django.urls import path

from bowls import balance_views, sauce_views, swap_views, views

app_name = "bowls"
urlpatterns = [
    path("", views.bowl_list, name="list"),
    path("new/", views.new, name="new"),
    path("sauces/<int:pk>/", sauce_views.bench, name="sauce"),
    path("<int:pk>/", views.page, name="page"),
    path("<int:pk>/settings/", views.settings, name="settings"),
    path("<int:pk>/add/", views.add, name="add"),
    path("<int:pk>/copy/", views.copy, name="copy"),
    path("<int:pk>/remove/", views.remove, name="remove"),
    path("<int:pk>/without/", swap_views.without, name="without"),
    path("<int:pk>/undo/", views.undo, name="undo"),
    path("<int:pk>/balance/", balance_views.balance, name="balance"),
    path("<int:pk>/swaps/", swap_views.swap, name="swap"),
    path("<int:pk>/find/", views.find, name="find"),
    path("<int:pk>/parts/<int:part>/", views.change, name="change"),
]
