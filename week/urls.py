"""Addresses of the weeks."""

from django.urls import path

from week import plan_views, print_views, skeleton_views, views
from week.page import PAGES

app_name = "week"
urlpatterns = [
    path("", PAGES.listing, name="list"),
    path("new/", PAGES.new, name="new"),
    path("skeleton/", skeleton_views.skeleton, name="skeleton"),
    path("skeleton/copy/", skeleton_views.copy, name="skeleton-copy"),
    path("favorites/", skeleton_views.favorites, name="favorites"),
    path("favorites/decided/", skeleton_views.decided, name="decided"),
    path("<int:pk>/", PAGES.page, name="page"),
    path("<int:pk>/places/<str:key>/", views.slot, name="slot"),
    path("<int:pk>/places/<str:key>/change/", views.change, name="change"),
    path("<int:pk>/plan/", plan_views.plan, name="plan"),
    path("<int:pk>/plan/drop/", plan_views.drop, name="drop"),
    path("<int:pk>/plan/<int:job>/", plan_views.progress, name="progress"),
    path("<int:pk>/take/", views.take, name="take"),
    path("<int:pk>/days/", views.days, name="days"),
    path("<int:pk>/copy/", PAGES.copy, name="copy"),
    path("<int:pk>/settings/", PAGES.settings, name="settings"),
    path("<int:pk>/newer-targets/", PAGES.newer_targets, name="newer-targets"),
    path("<int:pk>/undo/", PAGES.undo, name="undo"),
    path("<int:pk>/archive/", PAGES.archive, name="archive"),
    path("<int:pk>/remove/", PAGES.remove, name="remove"),
    path("<int:pk>/door/", print_views.door, name="door"),
    path("<int:pk>/cooking/", print_views.cooking, name="cooking"),
    path("<int:pk>/labels/", print_views.labels, name="labels"),
]
