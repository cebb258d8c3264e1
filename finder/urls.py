"""Addresses of the finder."""

from django.urls import path

from finder import views

app_name = "finder"
urlpatterns = [
    path("find/", views.find, name="find"),
    path("why/<str:of>/<str:key>/", views.why, name="why"),
]
