"""Addresses of the journal."""

from django.urls import path

from journal import views
from journal.blood import views as blood_views
from journal.eaten import average_views, day_views
from journal.letters import views as letter_views
from journal.stall import views as stall_views
from journal.visits import views as visit_views
from journal.weight import views as weight_views

app_name = "journal"
urlpatterns = [
    path("", views.page, name="page"),
    path("happened/", views.happening, name="happening"),
    path("weights/", weight_views.weights, name="weights"),
    path("weights/paste/", weight_views.paste, name="paste-weights"),
    path("days/", day_views.days, name="days"),
    path("days/<str:on>/", day_views.day, name="day"),
    path("days/<str:on>/change/", day_views.change, name="change"),
    path("days/<str:on>/felt/", day_views.felt, name="felt"),
    path("days/<str:on>/recall/", day_views.recall, name="recall"),
    path("eaten/", average_views.eaten, name="eaten"),
    path("liked/", average_views.liked, name="liked"),
    path("liked/decided/", average_views.decided, name="decided"),
    path("stall/", stall_views.stall, name="stall"),
    path("stall/take/", stall_views.take, name="take"),
    path("changes/<int:pk>/", stall_views.outcome, name="outcome"),
    path("changes/<int:pk>/write/", stall_views.write, name="write"),
    path("blood/", blood_views.blood, name="blood"),
    path("blood/add/", blood_views.add, name="add-blood"),
    path("blood/paste/", blood_views.paste, name="paste-blood"),
    path("blood/<int:pk>/remove/", blood_views.remove, name="remove-blood"),
    path("visits/", visit_views.visits, name="visits"),
    path("letters/", letter_views.letters, name="letters"),
    path("letters/new/", letter_views.new, name="new-letter"),
    path("letters/<int:pk>/", letter_views.letter, name="letter"),
    path("letters/<int:pk>/paper/", letter_views.letter_paper, name="letter-paper"),
    path("letters/<int:pk>/answered/", letter_views.answered, name="letter-answered"),
    path("letters/<int:pk>/remove/", letter_views.PAGES.remove, name="remove-letter"),
    path("visits/next/", visit_views.appoint, name="appoint"),
    path("visits/new/", visit_views.new, name="new-visit"),
    path("visits/<int:pk>/", visit_views.visit, name="visit"),
    path("visits/<int:pk>/paper/", visit_views.visit_paper, name="visit-paper"),
    path("visits/<int:pk>/addendum/", visit_views.add, name="addendum"),
    path("visits/<int:pk>/remove/", visit_views.PAGES.remove, name="remove-visit"),
]
