"""Addresses of the pantry: the food table, packages of the practice's own, its words."""

from django.urls import path
from django.views.generic import RedirectView

from pantry import exchange_views, overrule_views, own_views, views, words_views

app_name = "pantry"
urlpatterns = [
    path("packages/", own_views.PAGES.listing, name="own-list"),
    path("packages/new/", own_views.own_page, name="own-new"),
    path("packages/look/", own_views.look, name="own-look"),
    path("packages/beside/", own_views.side_by_side, name="own-beside"),
    path("packages/packages.csv", exchange_views.export, name="own-csv"),
    path("packages/import/", exchange_views.take_in, name="own-import"),
    path("packages/<int:pk>/", own_views.own_page, name="own"),
    path("packages/<int:pk>/retire/", own_views.PAGES.remove, name="own-retire"),
    path("package/", RedirectView.as_view(pattern_name="pantry:own-new"), name="old-package"),
    path("words/", words_views.word_list, name="words"),
    path("words/words.csv", words_views.export, name="words-csv"),
    path("words/<int:pk>/undo/", words_views.undo, name="word-undo"),
    path("overruled/<int:pk>/end/", overrule_views.end, name="overrule-end"),
    path("", views.search, name="search"),
    path("<slug:slug>/", views.food, name="food"),
]
