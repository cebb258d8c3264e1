"""Addresses of the kitchen."""

from django.urls import path

from kitchen import cook_views, house_views, scale_views, step_views, views, weigh_views

app_name = "kitchen"
urlpatterns = [
    path("", views.listing, name="list"),
    path("new/", views.new, name="new"),
    path("stove/", views.stove, name="stove"),
    path("recipes/<int:pk>/", step_views.steps, name="steps"),
    path("recipes/<int:pk>/right/", step_views.right, name="right"),
    path("recipes/<int:pk>/learn/", weigh_views.learn, name="learn"),
    path("house/", house_views.house, name="house"),
    path("house/stock/<int:pk>/", house_views.stock, name="stock"),
    path("house/boxes/", house_views.new_box, name="new-box"),
    path("house/boxes/<int:pk>/", house_views.box, name="box"),
    path("bowls/<int:pk>/", scale_views.bowl, name="bowl-scale"),
    path("bowls/<int:pk>/live/", scale_views.live, name="bowl-live"),
    path("bowls/<int:pk>/take/", scale_views.take, name="bowl-take"),
    path("bowls/<int:pk>/rest/", scale_views.rest, name="bowl-rest"),
    path("bowls/<int:pk>/end/", scale_views.end, name="bowl-end"),
    path("pieces/", weigh_views.pieces, name="pieces"),
    path("<int:pk>/", views.page, name="page"),
    path("<int:pk>/change/", views.change, name="change"),
    path("<int:pk>/move/", views.move, name="move"),
    path("<int:pk>/remove/", views.remove, name="remove"),
    path("<int:pk>/sheet/", cook_views.sheet, name="sheet"),
    path("<int:pk>/cook/", cook_views.cook, name="cook"),
    path("<int:pk>/cook/events/", cook_views.events, name="events"),
    path("<int:pk>/weigh/", weigh_views.weigh, name="weigh"),
    path("<int:pk>/labels/", weigh_views.labels, name="labels"),
]
