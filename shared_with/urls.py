"""Addresses of the links: for the practice, and for the clients who have them."""

from django.urls import path

from shared_with import link_views, views

app_name = "shared_with"
urlpatterns = [
    path("links/", views.links, name="links"),
    path("links/new/", views.new, name="new"),
    path("links/<int:pk>/", views.change, name="change"),
    path("links/seen/", views.seen, name="seen"),
    path("with/<str:token>/", link_views.today, name="today"),
    path("with/<str:token>/cooking/", link_views.cooking, name="cooking"),
    path("with/<str:token>/cooking/<int:pk>/", link_views.cook, name="cook"),
    path("with/<str:token>/cooking/<int:pk>/told/", link_views.cook_told, name="cook-told"),
    path("with/<str:token>/list/", link_views.shopping, name="shopping"),
    path("with/<str:token>/list/<int:pk>/tick/", link_views.ticked, name="tick"),
    path("with/<str:token>/tell/", link_views.tell, name="tell"),
    path("with/<str:token>/lesson/", link_views.lesson, name="lesson"),
    path("with/<str:token>/meals.ics", link_views.calendar, name="calendar"),
    path("with/<str:token>/nothing/", link_views.nothing, name="nothing"),
    path("with/<str:token>/told/", link_views.told, name="told"),
    path("with/<str:token>/worker.js", link_views.worker, name="worker"),
]
