"""Addresses of the schools."""

from django.urls import path

from schools import views

app_name = "schools"
urlpatterns = [
    path("", views.school_list, name="list"),
    path("own/<int:pk>/", views.edit, name="edit"),
    path("own/<int:pk>/remove/", views.remove, name="remove"),
    path("<str:code>/", views.page, name="page"),
    path("<str:code>/copy/", views.copy, name="copy"),
]
