"""Addresses of the recipes area."""

from django.urls import path

from changes import views as changes
from recipes import cook_views, exchange_views, kept_views, many_views, views
from recipes.page import PAGES
from recipes.shelf import views as shelf

app_name = "recipes"
urlpatterns = [
    path("", PAGES.listing, name="list"),
    path("new/", views.edit, name="new"),
    path("import/", exchange_views.take_in, name="import"),
    path("import/many/", many_views.take_in_many, name="import-many"),
    path("<int:pk>/export.<str:kind>", exchange_views.give_out, name="export"),
    path("shelf/", shelf.look, name="shelf"),
    path("shelf/copy/", shelf.copy, name="shelf-copy"),
    path("preview/", views.preview, name="preview"),
    path("<int:pk>/", views.edit, name="page"),
    path("foods/", views.foods, name="foods"),
    path("<int:pk>/keep-typing/", views.keep_typing, name="keep-typing"),
    path("<int:pk>/archive/", PAGES.archive, name="archive"),
    path("<int:pk>/copy/", PAGES.copy, name="copy"),
    path("<int:pk>/remove/", PAGES.remove, name="remove"),
    path("<int:pk>/versions/", kept_views.versions, name="versions"),
    path("<int:pk>/versions/keep/", kept_views.keep_now, name="keep"),
    path("<int:pk>/versions/<int:number>/back/", kept_views.back, name="back"),
    path("<int:pk>/cook/", cook_views.cook, name="cook"),
    path("<int:pk>/swaps/", changes.swap, {"kind": "recipe"}, name="swap"),
    path("<int:pk>/scale/", kept_views.scaled, name="scale"),
]
