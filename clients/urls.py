"""Addresses of the clients area."""

from django.urls import path

from clients import views

app_name = "clients"
urlpatterns = [
    path("", views.client_list, name="list"),
    path("new/", views.new, name="new"),
    path("focus/", views.focus, name="focus"),
    path("<int:pk>/", views.page, name="page"),
    path("<int:pk>/edit/", views.edit, name="edit"),
    path("<int:pk>/weigh-in/", views.weigh_in, name="weigh-in"),
    path("<int:pk>/targets/<str:key>/", views.target, name="target"),
    path("<int:pk>/targets/<str:key>/computed/", views.use_computed, name="use-computed"),
]
